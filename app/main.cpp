// westrum [JOB]: the window. See the man page for options.

#include "app/document/job_document.h"
#include "app/drawing/theme.h"
#include "app/main_window.h"
#include "app/stages/buildup/build_up_page.h"
#include "app/stages/buy/compare_view.h"
#include "app/stages/cut/cut_page.h"
#include "app/stages/fit/fit_page.h"
#include "app/stages/log/log_page.h"
#include "app/stages/measure/measure_page.h"
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
#include <QPushButton>
#include <QSettings>
#include <QStandardPaths>
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
        const auto fit = [this](FitPage::View view, const std::string& surface) {
            return [this, view, surface] {
                document_.setCurrentSurface(surface);
                window_.showStage(MainWindow::Fit);
                window_.findChild<FitPage*>()->showView(view);
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
                  {QStringLiteral("fit"), fit(FitPage::WholeVan, "ceiling")},
                  {QStringLiteral("fit-today"), fit(FitPage::Today, "ceiling")},
                  {QStringLiteral("new-van"), [this] { window_.showNewVan(true); }},
                  {QStringLiteral("log"), [this] { showRecord(); }},
                  {QStringLiteral("log-rack"), [this] { window_.findChild<LogPage*>()->showView(LogPage::Rack); }}};
        timer_.setInterval(60);
        connect(&timer_, &QTimer::timeout, this, [this] { step(); });
        timer_.start();
    }

private:
    /// The example some weekends in, and what its record teaches.
    void showRecord() {
        document_.open(demoJobUnderWay(), {});
        document_.setNow(demoUnderWayNow());
        document_.setCurrentSurface("ceiling");
        window_.showStage(MainWindow::Log);
        window_.findChild<LogPage*>()->showView(LogPage::Learned);
    }

    void step() {
        if (!document_.isSettled() || document_.cutting().isSearching()) return; // not before all figures stand
        if (const auto* page = window_.findChild<BuildUpPage*>(); page && page->isVisible() && page->isWorkingOut())
            return;
        if (!document_.odds()) return; // the tally tells them too
        if (const auto* compare = window_.findChild<CompareView*>(); compare->isVisible() && compare->columns() == 0)
            return;
        if (window_.findChild<FitPage*>()->isVisible() && !document_.isWorkSettled()) return;
        if (!shown_) {
            shots_[next_].second();
            shown_ = true;
            return;
        }
        const QString path = folder_ + QLatin1Char('/') + shots_[next_].first + QStringLiteral(".png");
        if (!window_.grab().save(path)) {
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
                                          : newJob(Main::tr("New van").toStdString(), Main::tr("Floor").toStdString(),
                                                   starterCatalogue(), Currency{}),
                  {});
    if (parser.isSet(line.demo)) document.setNow(demoNow());
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
