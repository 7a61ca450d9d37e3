// westrum [JOB]: the window. See the man page for options.

#include "app/document/job_document.h"
#include "app/drawing/theme.h"
#include "app/main_window.h"
#include "app/stages/buildup/build_up_page.h"
#include "app/stages/buy/compare_view.h"
#include "app/stages/cut/cut_page.h"
#include "app/stages/measure/measure_page.h"
#include "app/stages/measure/photograph_tracer.h"
#include "app/stages/setout/base_view.h"
#include "app/stages/setout/edge_view.h"
#include "formats/demo.h"
#include "formats/translations.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QElapsedTimer>
#include <QIcon>
#include <QLibraryInfo>
#include <QLocale>
#include <QPainter>
#include <QPushButton>
#include <QSettings>
#include <QStandardPaths>
#include <QTableView>
#include <QTimer>
#include <QTranslator>

#include <algorithm>
#include <array>
#include <cstdio>
#include <functional>
#include <string_view>

using namespace westrum;

namespace {

struct Main {
    Q_DECLARE_TR_FUNCTIONS(Main)
};

/// A made-up photograph: a panel with a window, and a taped rectangle of 400 x 300 on it, seen at a slant.
QImage examplePhotograph(const QTransform& view) {
    QImage picture(1600, 1200, QImage::Format_RGB32);
    picture.fill(QColor(0x8A8F8B));
    QPainter p(&picture);
    p.setRenderHint(QPainter::Antialiasing);
    p.setTransform(view);
    p.setPen(QPen(QColor(0x6E5C45), 8));
    p.setBrush(QColor(0xCDB893));
    p.drawRect(QRectF(-200, -150, 1200, 800));
    p.setBrush(QColor(0x9FB4C2));
    p.drawRoundedRect(QRectF(520, 120, 380, 330), 40, 40);
    p.setPen(QPen(QColor(0xF4EFE2), 14));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(0, 0, 400, 300));
    return picture;
}

/// The tracer with that photograph, marked and traced.
std::unique_ptr<PhotographTracer> exampleTracer(JobDocument& document) {
    const QTransform view(0.62, -0.04, 0.00012, 0.11, 0.5, 0.00025, 420, 330, 1);
    auto tracer = std::make_unique<PhotographTracer>(document, examplePhotograph(view), '.');
    const auto press = [&](double x, double y) {
        const QPointF at = view.map(QPointF(x, y));
        tracer->press({at.x(), at.y()});
    };
    const QPointF known[] = {{0, 0}, {400, 0}, {400, 300}, {0, 300}};
    for (std::size_t k = 0; k < 4; ++k) tracer->setKnown(k, {known[k].x(), known[k].y()});
    for (const QPointF& k : known) press(k.x(), k.y());
    for (const QPointF& c : {QPointF(-200, -150), {1000, -150}, {1000, 650}, {-200, 650}}) press(c.x(), c.y());
    tracer->closeRing();
    for (const QPointF& c : {QPointF(520, 120), {900, 120}, {900, 450}, {520, 450}}) press(c.x(), c.y());
    tracer->closeRing();
    return tracer;
}

/// Takes pictures of the main views into a folder, then ends: docs/screenshots are made this way.
class Photographer : public QObject {
public:
    Photographer(MainWindow& window, JobDocument& document, QString folder)
        : window_(window), document_(document), folder_(std::move(folder)) {
        const auto stage = [this](MainWindow::Stage s, const std::string& surface, PartsPanel::Group group,
                                  int inHand = -1) {
            return [this, s, surface, group, inHand] {
                document_.setCurrentSurface(surface);
                window_.showStage(s);
                for (const char* view : {"edges", "base"})
                    window_.findChild<QPushButton*>(QString::fromLatin1(view))->setChecked(false);
                window_.measurePage().parts().show(group, inHand);
            };
        };
        const auto cut = [this](const std::string& product, CutPage::Face face, int item) {
            return [this, product, face, item] {
                document_.setCurrentSurface("floor");
                window_.showStage(MainWindow::Cut);
                window_.cutPage().chooseProduct(product);
                window_.cutPage().showFace(face);
                window_.cutPage().bench().takeInHand(item, 0);
            };
        };
        const auto edges = [this](const std::string& surface, int joint) {
            return [this, surface, joint] {
                document_.setCurrentSurface(surface);
                window_.showStage(MainWindow::SetOut);
                window_.findChild<QPushButton*>(QStringLiteral("edges"))->setChecked(true);
                for (int k = 0; k < joint; ++k) window_.findChild<EdgeView*>()->stepJoint(1);
            };
        };
        const auto base = [this](const std::string& surface, BaseView::Group group) {
            return [this, surface, group] {
                document_.setCurrentSurface(surface);
                window_.showStage(MainWindow::SetOut);
                window_.findChild<QPushButton*>(QStringLiteral("base"))->setChecked(true);
                window_.findChild<BaseView*>()->show(group);
            };
        };
        const auto buy = [this](const char* view, const std::string& surface, bool whole) {
            return [this, view, surface, whole] {
                document_.setCurrentSurface(surface);
                window_.showStage(MainWindow::Buy);
                window_.findChild<QPushButton*>(QString::fromLatin1(view))->setChecked(true);
                window_.findChild<QPushButton*>(QStringLiteral("wholeVan"))->setChecked(whole);
            };
        };
        shots_ = {{QStringLiteral("measure"), stage(MainWindow::Measure, "floor", PartsPanel::Outline)},
                  {QStringLiteral("map"), [this] { window_.enlargeMap(true); }},
                  {QStringLiteral("set-out"), stage(MainWindow::SetOut, "floor", PartsPanel::Outline)},
                  {QStringLiteral("build-up"), stage(MainWindow::BuildUp, "ceiling", PartsPanel::Outline)},
                  {QStringLiteral("base"), base("right-lower", BaseView::Fixings)},
                  {QStringLiteral("edges"), edges("floor", 3)},
                  {QStringLiteral("set-out-lining"), stage(MainWindow::SetOut, "left-lower", PartsPanel::Outline)},
                  {QStringLiteral("set-out-cushion"), stage(MainWindow::SetOut, "bench-top", PartsPanel::Outline)},
                  {QStringLiteral("cut-sheets"), cut("dipper-ply", CutPage::Order, 1)},
                  {QStringLiteral("cut-roll"), cut("thrush-lining", CutPage::Order, 0)},
                  {QStringLiteral("buy"), buy("showList", "floor", false)},
                  {QStringLiteral("mass"), buy("showMass", "floor", false)},
                  {QStringLiteral("prices"), buy("showPrices", "floor", false)},
                  {QStringLiteral("compare"), buy("showCompare", "left-upper", false)},
                  {QStringLiteral("compare-schemes"), buy("showCompare", "left-upper", true)},
                  {QStringLiteral("fit"), stage(MainWindow::Fit, "left-lower", PartsPanel::Outline)},
                  {QStringLiteral("log"), stage(MainWindow::Log, "floor", PartsPanel::Outline)},
                  {QStringLiteral("new-van"), [this] { window_.showNewVan(true); }},
                  {QStringLiteral("photograph"), [this] { tracer_ = exampleTracer(document_); }}};
        timer_.setInterval(60);
        connect(&timer_, &QTimer::timeout, this, [this] { step(); });
        timer_.start();
    }

private:
    void step() {
        if (!document_.isSettled() || document_.cutting().isSearching()) return; // not before all figures stand
        if (const auto* page = window_.findChild<BuildUpPage*>(); page && page->isVisible() && page->isWorkingOut())
            return;
        if (const auto* list = window_.findChild<QTableView*>(QStringLiteral("shoppingList"));
            list->isVisible() && !document_.odds())
            return;
        if (const auto* compare = window_.findChild<CompareView*>(); compare->isVisible() && compare->columns() == 0)
            return;
        if (!shown_) {
            shots_[next_].second();
            shown_ = true;
            return;
        }
        const QString path = folder_ + QLatin1Char('/') + shots_[next_].first + QStringLiteral(".png");
        QWidget& shown = tracer_ ? static_cast<QWidget&>(*tracer_) : window_;
        if (!shown.grab().save(path)) {
            std::fprintf(stderr, "%s\n", qPrintable(Main::tr("Cannot write %1").arg(path)));
            QCoreApplication::exit(1);
            return;
        }
        shown_ = false;
        if (++next_ == shots_.size()) QCoreApplication::exit(0);
    }

    MainWindow& window_;
    JobDocument& document_;
    QString folder_;
    std::vector<std::pair<QString, std::function<void()>>> shots_;
    std::size_t next_ = 0;
    bool shown_ = false;
    std::unique_ptr<PhotographTracer> tracer_;
    QTimer timer_;
};

/// What can be said on the command line.
struct CommandLine {
    CommandLine() {
        parser.setApplicationDescription(Main::tr("Plans the interior finishes of a campervan."));
        parser.addOptions({demo, shots, firstPaint, autosave, evening});
        parser.addPositionalArgument(QStringLiteral("JOB"), Main::tr("A job file to open."), QStringLiteral("[JOB]"));
        parser.addHelpOption();
        parser.addVersionOption();
    }
    QCommandLineOption demo{QStringLiteral("demo"), Main::tr("Start with the example job, Plover.")};
    QCommandLineOption shots{QStringLiteral("screenshots"),
                             Main::tr("Write a picture of each main view into a folder and end."), Main::tr("FOLDER")};
    QCommandLineOption firstPaint{QStringLiteral("first-paint"),
                                  Main::tr("Print the milliseconds from start to first paint and end.")};
    QCommandLineOption autosave{QStringLiteral("autosave"), Main::tr("Keep unsaved work in this folder."),
                                Main::tr("FOLDER")};
    QCommandLineOption evening{QStringLiteral("evening"), Main::tr("Start in evening light.")};
    QCommandLineParser parser;
};

void introduce() {
    QCoreApplication::setOrganizationName(QStringLiteral("Westrum"));
    QCoreApplication::setApplicationName(QStringLiteral("westrum"));
    QCoreApplication::setApplicationVersion(QStringLiteral(WESTRUM_VERSION));
}

/// Whether it is only asked what it is and what it knows: that needs no window, and so no display.
bool onlyAsks(int argc, char** argv) {
    constexpr std::array<std::string_view, 6> kAsks{"-h", "-?", "--help", "--help-all", "-v", "--version"};
    return std::any_of(argv + 1, argv + argc, [&](const char* argument) {
        return std::find(kAsks.begin(), kAsks.end(), argument) != kAsks.end();
    });
}

} // namespace

int main(int argc, char** argv) {
    QElapsedTimer sinceStart;
    sinceStart.start();
    if (onlyAsks(argc, argv)) {
        QCoreApplication app(argc, argv);
        introduce();
        loadTranslations();
        CommandLine().parser.process(app);
    }
    QApplication app(argc, argv);
    introduce();
    QApplication::setDesktopFileName(QStringLiteral("org.westrum.Westrum"));
    QApplication::setStyle(QStringLiteral("Fusion"));
    loadTranslations();
    QTranslator qt;
    if (qt.load(QLocale(), QStringLiteral("qtbase"), QStringLiteral("_"),
                QLibraryInfo::path(QLibraryInfo::TranslationsPath)))
        QApplication::installTranslator(&qt);

    CommandLine line;
    QCommandLineParser& parser = line.parser;
    parser.process(app);

    loadFonts();
    QApplication::setWindowIcon(QIcon(QStringLiteral(":/look/icons/westrum.svg")));
    Theme::choose(parser.isSet(line.evening) ||
                  (!parser.isSet(line.shots) && QSettings().value(QStringLiteral("evening"), false).toBool()));

    JobDocument document;
    document.open(parser.isSet(line.demo) ? demoJob()
                                          : newJob(Main::tr("New van").toStdString(), starterCatalogue(), Currency{}),
                  {});
    const QString folder =
        parser.isSet(line.autosave)
            ? parser.value(line.autosave)
            : QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/autosave");
    // What was asked for is opened; work left behind is offered beside it.
    const bool asked = parser.isSet(line.demo) || !parser.positionalArguments().isEmpty();
    MainWindow window(document, folder, asked ? MainWindow::LeftBehind::Offer : MainWindow::LeftBehind::Open);
    if (!parser.positionalArguments().isEmpty()) window.openFile(parser.positionalArguments().constFirst());
    if (parser.isSet(line.demo))
        window.showStage(MainWindow::SetOut);
    else if (parser.positionalArguments().isEmpty() && !document.isModified()) // unless recovered work is open
        window.showNewVan(false);
    if (parser.isSet(line.shots)) window.resize(1280, 800);
    window.show();
    std::unique_ptr<Photographer> photographer;
    if (parser.isSet(line.shots))
        photographer = std::make_unique<Photographer>(window, document, parser.value(line.shots));
    if (parser.isSet(line.firstPaint))
        QTimer::singleShot(0, &window, [&] {
            window.repaint();
            std::printf("%lld ms to first paint\n", static_cast<long long>(sinceStart.elapsed()));
            QCoreApplication::exit(0);
        });
    return QApplication::exec();
}
