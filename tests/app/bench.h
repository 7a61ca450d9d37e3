#pragma once

#include "app/document/commands.h"
#include "app/main_window.h"
#include "app/widgets/entry_field.h"
#include "formats/demo.h"
#include "formats/translations.h"
#include "formats/words.h"
#include "tests/support/settle.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QTemporaryDir>
#include <QtTest>

namespace westrum::test {

/// A text as it stands in the source: all tests of the window also run in the language of brackets.
inline QString plain(const QString& text) {
    return qEnvironmentVariableIsSet("WESTRUM_PSEUDO") ? PseudoTranslator::unmarked(text) : text;
}

/// The share of a widget that is drawn on, 0 to 1: all that is not its most frequent colour.
inline double inkOn(QWidget* widget) {
    const QImage image = widget->grab().toImage().convertToFormat(QImage::Format_RGB32);
    std::map<QRgb, int> count;
    for (int y = 0; y < image.height(); ++y)
        for (int x = 0; x < image.width(); ++x) ++count[image.pixel(x, y)];
    int most = 0;
    for (const auto& [colour, n] : count) most = std::max(most, n);
    return count.empty() ? 0 : 1 - double(most) / (double(image.width()) * image.height());
}

/// The real window with a job, as the tests drive it: by keys, clicks and drags.
class Bench {
public:
    explicit Bench(Job job) {
        document.cutting().setPatience(0.004); // no test waits for the best layout
        document.setOddsTries(6);              // nor for many variations
        document.setWorkSearch(20, 40);        // nor for the soonest end
        document.open(std::move(job), {});
        window = std::make_unique<MainWindow>(document, folder.filePath(QStringLiteral("autosave")));
        window->resize(1280, 800); // whatever the screen of the test is
        window->show();
        (void)QTest::qWaitForWindowExposed(window.get());
        (void)settlePlan(document);
    }
    ~Bench() { document.undoStack().setClean(); }

    void go(MainWindow::Stage stage) {
        QTest::keyClick(window.get(), static_cast<Qt::Key>(static_cast<int>(Qt::Key_1) + static_cast<int>(stage)),
                        Qt::AltModifier);
        QCoreApplication::processEvents();
    }
    template <class T> T* find(const char* name) {
        QCoreApplication::processEvents(); // what was just built is shown
        for (T* widget : window->findChildren<T*>())
            if (widget->isVisible() && plain(widget->objectName()) == QLatin1String(name)) return widget;
        return nullptr;
    }
    /// Types into a field as a person does: click, select all, keys, Enter.
    bool type(const char* name, const char* text) {
        auto* field = find<EntryField>(name);
        if (!field) return false;
        QTest::mouseClick(field, Qt::LeftButton);
        field->selectAll();
        QTest::keyClicks(field, QString::fromUtf8(text));
        if (*text == 0) QTest::keyClick(field, Qt::Key_Delete);
        QTest::keyClick(field, Qt::Key_Return);
        return settlePlan(document);
    }
    bool click(const char* name) {
        auto* button = find<QPushButton>(name);
        if (!button || !button->isEnabled()) return false;
        QTest::mouseClick(button, Qt::LeftButton);
        QCoreApplication::processEvents(); // forms act on a press once the button is done with it
        return settlePlan(document);
    }
    /// Chooses an entry of a list by what it says.
    bool choose(const char* name, const QString& entry) {
        auto* box = find<QComboBox>(name);
        int index = box ? box->count() - 1 : -1;
        while (index >= 0 && plain(box->itemText(index)) != entry) --index;
        if (index < 0) return false;
        box->setCurrentIndex(index);
        emit box->activated(index);
        return settlePlan(document);
    }
    /// What a label says, its narrow spaces widened.
    QString text(const char* name) {
        auto* label = find<QLabel>(name);
        return label ? plain(label->text()).replace(QChar(0x202F), QLatin1Char(' ')) : QString();
    }
    /// What all labels in sight say, line by line; of one page, or of the window.
    QString labels(const QWidget* page = nullptr) {
        QCoreApplication::processEvents(); // what was just built is shown
        QString all;
        for (const QLabel* label : (page ? page : window.get())->findChildren<QLabel*>())
            if (label->isVisible()) all += plain(label->text()) + QLatin1Char('\n');
        return all;
    }
    /// The line under the heading of the stage in hand.
    QString sentenceShown() { return text("sentence"); }
    TallyStrip::Figure figure(const char* name) {
        for (auto f : window->findChild<TallyStrip*>()->figures())
            if (plain(f.name) == QString::fromUtf8(name)) {
                for (QString* text : {&f.name, &f.value, &f.change}) *text = plain(*text);
                return f;
            }
        return {};
    }
    const SurfacePlan& floor() { return *document.plan()->surface("floor"); }

    QTemporaryDir folder;
    JobDocument document;
    std::unique_ptr<MainWindow> window;
};

} // namespace westrum::test
