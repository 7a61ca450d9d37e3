#include <QtTest>

#include "formats/field_names.h"
#include "formats/translations.h"
#include "tests/app/bench.h"
#include "tests/support/registry.h"

#include <QAbstractButton>
#include <QLineEdit>
#include <QRegularExpression>

using namespace westrum;
using namespace westrum::test;

/// The window in a language of brackets: whatever a person reads is either translated or a name or figure of the job.
class PseudoLocaleTest : public QObject {
    Q_OBJECT

    /// Names that the job itself gives: whoever typed them chose their language.
    static QStringList namesIn(const Job& job) {
        QStringList names{QString::fromStdString(job.name), QString::fromStdString(job.vehicle)};
        const auto add = [&](const std::string& name) {
            if (!name.empty()) names << QString::fromStdString(name);
        };
        for (const Surface& s : job.surfaces) {
            add(s.name);
            add(s.area.name);
            for (const auto& o : s.openings) add(o.name);
            for (const auto& z : s.zones) add(z.name);
            for (const auto& u : s.supports) add(u.name);
            for (const auto& n : s.measurement.notches) add(n.name);
            for (const auto& n : s.measurement.steps) add(n.name);
            for (const Finish& f : job.options(s.id).options) add(f.name);
        }
        for (const Product& p : job.catalogue.products) {
            add(p.name);
            add(p.supplier);
        }
        for (const Supplier& s : job.prices.suppliers) add(s.name);
        for (const auto& d : job.access.doors) add(d.name);
        for (const auto& [product, list] : job.cutLists) {
            for (const LoosePiece& p : list.pieces) add(p.name);
            for (const StockEntry& e : list.stock) add(e.name);
        }
        std::sort(names.begin(), names.end(), [](const QString& a, const QString& b) { return a.size() > b.size(); });
        return names;
    }

    /// What is left of a text without what is in brackets, names of the job, figures and units; empty if it is sound.
    static QString untranslated(QString text, const QStringList& names) {
        static const QRegularExpression brackets(QStringLiteral("\\[[^\\[\\]]*\\]"));
        for (int depth = 0; depth < 6 && text.contains(brackets); ++depth) text.remove(brackets);
        for (const QString& name : names)
            if (name.size() > 1) text.remove(name);
        static const QRegularExpression units(
            QStringLiteral("\\b(mm|cm|m|m2|m²|kg|g|l|ml|h|EUR|Westrum|[A-Z]|[a-z])\\b|°C|%"));
        text.remove(units);
        static const QRegularExpression word(QStringLiteral("\\p{L}{2,}"));
        const auto found = word.match(text);
        return found.hasMatch() ? text.trimmed() : QString();
    }

    static QStringList textsOf(QWidget* window) {
        QStringList texts;
        for (QWidget* w : window->findChildren<QWidget*>()) {
            if (!w->isVisible()) continue;
            if (const auto* label = qobject_cast<QLabel*>(w)) texts << label->text();
            if (const auto* button = qobject_cast<QAbstractButton*>(w)) texts << button->text();
            if (const auto* box = qobject_cast<QComboBox*>(w))
                for (int i = 0; i < box->count(); ++i) texts << box->itemText(i);
            if (const auto* edit = qobject_cast<QLineEdit*>(w)) texts << edit->placeholderText();
            texts << w->toolTip() << w->accessibleName();
        }
        return texts;
    }

private slots:
    void nothingUntranslatedShows() {
        PseudoTranslator pseudo;
        QVERIFY(QCoreApplication::installTranslator(&pseudo));
        const auto put = qScopeGuard([&] { QCoreApplication::removeTranslator(&pseudo); });
        Bench b(demoJob());
        const QStringList names = namesIn(b.document.job());
        QCOMPARE(untranslated(QStringLiteral("[Cut~]: 3 mm, [it~~]"), names), QString());
        QVERIFY(!untranslated(QStringLiteral("Cut: 3 mm"), names).isEmpty());
        QStringList found;
        int read = 0;
        for (const char* surface : {"floor", "ceiling", "left-lower", "wet-cell-2", "bench-top"})
            for (int stage = 0; stage <= MainWindow::Log; ++stage) {
                b.document.setCurrentSurface(surface);
                b.go(static_cast<MainWindow::Stage>(stage));
                QVERIFY(settle(b.document));
                QCoreApplication::processEvents();
                for (const QString& text : textsOf(b.window.get())) {
                    ++read;
                    const QString left = untranslated(text, names);
                    if (!left.isEmpty() && !found.contains(text)) found << text;
                }
            }
        QVERIFY(read > 500);
        QVERIFY2(found.isEmpty(), qPrintable(found.mid(0, 25).join(QStringLiteral("\n"))));
    }

    void theCautionsOfTheCabStay() {
        // In whatever language its area was chosen, the cab is the cab: airbags may be there.
        PseudoTranslator pseudo;
        QVERIFY(QCoreApplication::installTranslator(&pseudo));
        const auto put = qScopeGuard([&] { QCoreApplication::removeTranslator(&pseudo); });
        QVERIFY(areaNames().last() != QStringLiteral("cab"));
        QCOMPARE(areaOf(areaNames().last()).kind, AreaKind::Cab);
        QCOMPARE(areaOf(QStringLiteral("cab")).kind, AreaKind::Cab);
        QCOMPARE(areaOf(QStringLiteral("tower")).kind, AreaKind::Other);
    }
};
WESTRUM_TEST(PseudoLocaleTest)

#include "pseudo_locale_test.moc"
