#include "app/main_window.h"

#include "app/document/shell_commands.h"
#include "app/drawing/theme.h"
#include "app/print/paper.h"
#include "app/stages/buildup/build_up_page.h"
#include "app/stages/buy/buy_page.h"
#include "app/stages/cut/cut_page.h"
#include "app/stages/fit/fit_page.h"
#include "app/stages/log/log_page.h"
#include "app/stages/measure/measure_page.h"
#include "app/stages/newvan/new_van_page.h"
#include "app/stages/setout/set_out_page.h"
#include "app/widgets/entry_field.h"
#include "formats/demo.h"
#include "formats/words.h"

#include <QActionGroup>
#include <QApplication>
#include <QCloseEvent>
#include <QDialog>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QFormLayout>
#include <QLocale>
#include <QMenu>
#include <QMessageBox>
#include <QSettings>
#include <QShortcut>
#include <QTimer>

namespace westrum {
namespace {

constexpr int kRecentFiles = 8;

char localeDecimalMark() { return QLocale().decimalPoint() == QStringLiteral(",") ? ',' : '.'; }

} // namespace

MainWindow::MainWindow(JobDocument& document, const QString& autosaveFolder, LeftBehind leftBehind, QWidget* parent)
    : QMainWindow(parent),
      document_(document),
      decimalMark_(localeDecimalMark()),
      workshop_(std::make_unique<Workshop>(document, QFileInfo(autosaveFolder).absolutePath())),
      jobButton_(new QPushButton),
      vehicle_(new QLabel),
      rule_(new StageRule({tr("Measure"), tr("Build-up"), tr("Set out"), tr("Cut"), tr("Buy"), tr("Fit"), tr("Log")})),
      map_(new ShellMap(document)),
      pages_(new QStackedWidget),
      measure_(new MeasurePage(document, decimalMark_)),
      cut_(new CutPage(document, decimalMark_)),
      buy_(new BuyPage(document, decimalMark_)),
      newVan_(new NewVanPage(*workshop_, decimalMark_)),
      tally_(new TallyStrip(document, decimalMark_)),
      noticeBar_(new QWidget),
      notice_(new QLabel),
      noticeAction_(new QPushButton),
      noticeCopies_(new QPushButton(tr("Unsaved work"))),
      dismiss_(new QPushButton) {
    // As large as it is drawn for, or as the screen leaves room for, its title bar not forgotten.
    constexpr int kTitleBar = 40;
    const QSize room = screen()->availableSize() - QSize(0, kTitleBar);
    resize(QSize(1280, 800).boundedTo(room));
    auto* centre = new QWidget;
    auto* column = new QVBoxLayout(centre);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);

    auto* head = new QWidget;
    auto* headRow = new QHBoxLayout(head);
    headRow->setContentsMargins(18, 8, 18, 8);
    jobButton_->setProperty("quiet", true);
    jobButton_->setFont(textFont(1.4, true));
    jobButton_->setObjectName(QStringLiteral("jobMenu"));
    jobButton_->setFocusPolicy(Qt::TabFocus);
    vehicle_->setTextFormat(Qt::PlainText);
    headRow->addWidget(jobButton_);
    headRow->addWidget(vehicle_, 1);
    headRow->addWidget(rule_);
    column->addWidget(head);

    auto* noticeRow = new QHBoxLayout(noticeBar_);
    noticeRow->setContentsMargins(22, 6, 18, 6);
    notice_->setWordWrap(true);
    notice_->setTextFormat(Qt::PlainText);
    notice_->setObjectName(QStringLiteral("notice"));
    noticeRow->addWidget(notice_, 1);
    noticeRow->addWidget(noticeAction_);
    noticeRow->addWidget(noticeCopies_);
    noticeCopies_->setObjectName(QStringLiteral("copies"));
    noticeCopies_->setMenu(new QMenu(noticeCopies_));
    dismiss_->setObjectName(QStringLiteral("dismiss"));
    connect(dismiss_, &QPushButton::clicked, noticeBar_, &QWidget::hide);
    connect(noticeAction_, &QPushButton::clicked, this, [this] {
        noticeBar_->hide();
        if (noticeAct_) noticeAct_();
    });
    noticeRow->addWidget(dismiss_);
    noticeBar_->hide();
    noticeBar_->setAutoFillBackground(true);
    column->addWidget(noticeBar_);

    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(map_, 3);
    middle->addWidget(pages_, 8);
    column->addLayout(middle, 1);
    column->addWidget(tally_);
    setCentralWidget(centre);

    pages_->addWidget(measure_);
    pages_->addWidget(new BuildUpPage(document, decimalMark_));
    auto* setOut = new SetOutPage(document, decimalMark_);
    setOut->setMeter(measure_->meter());
    pages_->addWidget(setOut);
    pages_->addWidget(cut_);
    pages_->addWidget(buy_);
    pages_->addWidget(new FitPage(document, decimalMark_));
    auto* log = new LogPage(document, *workshop_, decimalMark_);
    pages_->addWidget(log);
    cut_->setWorkshop(*workshop_);
    buy_->setWorkshop(*workshop_);
    connect(log, &LogPage::shaded, this, [this](const std::vector<ShellMap::Shade>& shades) {
        if (pages_->currentIndex() == Log) map_->shade(shades);
    });
    connect(workshop_.get(), &Workshop::told, this,
            [this](const QString& sentence, bool attention) { tell(sentence, attention); });
    pages_->addWidget(newVan_);
    connect(newVan_, &NewVanPage::goBack, this, [this] { showStage(Measure); });
    connect(newVan_, &NewVanPage::laidOut, this, [this](const Job& job) {
        // A new job starts with the rates of whoever worked last.
        const std::string person = document_.job().work.person;
        Job fresh = job;
        for (const Person& p : workshop_->book().people)
            if (p.name == person) fresh = withRatesOf(std::move(fresh), p);
        document_.open(fresh, {});
        showStage(Measure);
    });

    connect(rule_, &StageRule::chosen, this, [this](int stage) { showStage(static_cast<Stage>(stage)); });
    connect(map_, &ShellMap::picked, this, [this](const std::string& id) {
        document_.setCurrentSurface(id);
        if (pages_->currentIndex() == Buy) showStage(Measure);
    });
    connect(map_, &ShellMap::enlargeWanted, this, [this] { enlargeMap(!pages_->isHidden()); });
    connect(measure_, &MeasurePage::pointAtSide, this,
            [this] { pointAtSide(Pointing::AtPartner, tr("Press the side that it meets.")); });
    connect(measure_, &MeasurePage::headroomWanted, this, [this](const QString& field) {
        showStage(BuildUp);
        QTimer::singleShot(0, this, [this, field] { // once it can be seen
            for (auto* entry : pages_->currentWidget()->findChildren<EntryField*>(field)) {
                entry->setFocus();
                entry->selectAll();
            }
        });
    });
    connect(measure_, &MeasurePage::tieOnMap, this,
            [this] { pointAtSide(Pointing::AtFirst, tr("Press one side, then the one it meets.")); });
    connect(map_, &ShellMap::sidePicked, this, &MainWindow::sidePicked);
    connect(map_, &ShellMap::pointedAt, cut_, &CutPage::pointAt);
    connect(cut_, &CutPage::glow, map_, &ShellMap::glow);
    connect(buy_, &BuyPage::shaded, map_, &ShellMap::shade);
    connect(buy_, &BuyPage::surfacePicked, this, [this](const std::string& id) { document_.setCurrentSurface(id); });
    connect(&document_, &JobDocument::pathChanged, this, &MainWindow::updateTitle);
    connect(&document_, &JobDocument::modifiedChanged, this, [this] {
        updateTitle();
        if (opened_ && !document_.isModified()) letCopyGo(); // it was saved
    });
    connect(&document_, &JobDocument::jobReplaced, this, &MainWindow::updateTitle);
    connect(&document_, &JobDocument::jobReplaced, this, [this] { opened_.reset(); }); // its copy stays
    connect(&document_, &JobDocument::jobChanged, this, [this](JobPart part) {
        if (part == JobPart::Details) updateTitle();
    });
    makeMenu();
    makeShortcuts();
    applyTheme();
    updateTitle();
    begun_ = document_.job();
    copies_ = Autosave::leftBehind(autosaveFolder);
    autosave_ = std::make_unique<Autosave>(document_, autosaveFolder);
    if (!copies_.empty() && leftBehind == LeftBehind::Open)
        openCopy(copies_.front());
    else
        offerCopies();
}

QString MainWindow::notice() const { return noticeBar_->isHidden() ? QString() : notice_->text(); }

void MainWindow::showStage(Stage stage) {
    map_->show();
    tally_->show();
    if (pages_->isHidden()) enlargeMap(false);
    rule_->setCurrent(stage);
    map_->glow({}, {});
    if (stage != Buy && stage != Log) map_->shade({});
    pages_->setCurrentIndex(stage);
    if (!focusWidget() || focusWidget() == jobButton_) pages_->currentWidget()->setFocus();
}

void MainWindow::makeMenu() {
    auto* menu = new QMenu(this);
    const auto add = [&](const QString& text, const QKeySequence& keys, auto&& does) {
        QAction* action = menu->addAction(text, this, does);
        action->setShortcut(keys);
        action->setShortcutContext(Qt::WindowShortcut);
        addAction(action);
        return action;
    };
    add(tr("New job"), QKeySequence::New, [this] { newJobInPlace(); })->setObjectName(QStringLiteral("new"));
    add(tr("Open…"), QKeySequence::Open, [this] { openAnother(); });
    QMenu* recent = menu->addMenu(tr("Open recent"));
    connect(recent, &QMenu::aboutToShow, this, [this, recent] { fillRecent(recent); });
    menu->addAction(tr("Open the example, Plover"), this, [this] {
        if (!mayLetGo()) return;
        document_.open(demoJob(), {});
        document_.setNow(demoNow());
    });
    menu->addAction(tr("Open the example, some weekends in"), this, [this] {
        if (!mayLetGo()) return;
        document_.open(demoJobUnderWay(), {});
        document_.setNow(demoUnderWayNow());
    });
    menu->addAction(tr("Open the second example, from Plover's offcuts"), this, [this] {
        if (!mayLetGo()) return;
        document_.open(demoSecondJob(), {});
        document_.setNow(demoUnderWayNow());
    });
    menu->addSeparator();
    add(tr("Save"), QKeySequence::Save, [this] { save(); });
    add(tr("Save as…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_S), [this] { saveAs(); });
    add(tr("Rename the job…"), QKeySequence(Qt::Key_F2), [this] { renameInPlace(); });
    menu->addSeparator();
    QAction* undo = document_.undoStack().createUndoAction(this, tr("Undo"));
    undo->setShortcut(QKeySequence::Undo);
    QAction* redo = document_.undoStack().createRedoAction(this, tr("Redo"));
    redo->setShortcuts({QKeySequence(QKeySequence::Redo), QKeySequence(Qt::CTRL | Qt::Key_Y)});
    menu->addAction(undo);
    menu->addAction(redo);
    addActions({undo, redo});
    menu->addSeparator();
    QMenu* units = menu->addMenu(tr("Lengths"));
    auto* group = new QActionGroup(units);
    for (const auto& [text, unit] : {std::pair{tr("millimetres"), LengthUnit::Millimetre},
                                     {tr("centimetres"), LengthUnit::Centimetre},
                                     {tr("inches"), LengthUnit::Inch},
                                     {tr("feet and inches"), LengthUnit::Foot}}) {
        // A bare figure is never meant in feet: there it is inches.
        const LengthUnit bare = unit == LengthUnit::Foot ? LengthUnit::Inch : unit;
        QAction* action = units->addAction(
            text, this, [this, unit = unit, bare] { push(document_, chooseUnits(document_, unit, bare)); });
        action->setCheckable(true);
        group->addAction(action);
        connect(units, &QMenu::aboutToShow, action,
                [this, action, unit = unit] { action->setChecked(document_.job().shownUnit == unit); });
    }
    QMenu* sheets = menu->addMenu(tr("Paper"));
    auto* ofSheets = new QActionGroup(this);
    for (const QPageSize::PageSizeId size : papers()) {
        QAction* action = sheets->addAction(QPageSize::name(size), this, [size] { choosePaper(size); });
        action->setCheckable(true);
        action->setChecked(size == paper());
        ofSheets->addAction(action);
    }
    QAction* dark = menu->addAction(tr("Evening light"), this, [this](bool on) {
        QSettings().setValue(QStringLiteral("evening"), on);
        Theme::choose(on);
        applyTheme();
    });
    dark->setCheckable(true);
    dark->setChecked(Theme::now().dark);
    add(tr("Keys…"), QKeySequence(Qt::Key_F1), [this] { showShortcuts(); });
    menu->addSeparator();
    add(tr("Close Westrum"), QKeySequence::Quit, [this] { close(); });
    jobButton_->setMenu(menu);
}

void MainWindow::makeShortcuts() {
    for (int stage = Measure; stage <= Log; ++stage)
        connect(new QShortcut(QKeySequence(Qt::ALT | static_cast<Qt::Key>(Qt::Key_1 + stage)), this),
                &QShortcut::activated, this, [this, stage] { showStage(static_cast<Stage>(stage)); });
    const auto step = [this](int by) {
        const auto& all = document_.job().surfaces;
        for (std::size_t i = 0; i < all.size(); ++i)
            if (all[i].id == document_.currentSurface()) {
                const std::size_t n = all.size();
                document_.setCurrentSurface(all[(i + n + static_cast<std::size_t>(by + static_cast<int>(n))) % n].id);
                return;
            }
    };
    connect(new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_M), this), &QShortcut::activated, this,
            [this] { enlargeMap(!pages_->isHidden()); });
    connect(new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_PageDown), this), &QShortcut::activated, this,
            [step] { step(1); });
    connect(new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_PageUp), this), &QShortcut::activated, this,
            [step] { step(-1); });
}

void MainWindow::showShortcuts() {
    QDialog sheet(this);
    sheet.setWindowTitle(tr("Keys"));
    auto* form = new QFormLayout(&sheet);
    form->setContentsMargins(24, 20, 24, 16);
    form->setHorizontalSpacing(32);
    for (const auto& [keys, what] :
         {std::pair{tr("Alt+1 … Alt+7"), tr("the stages, Measure to Log")},
          {tr("Ctrl+Page down, Ctrl+Page up"), tr("next and previous surface")},
          {tr("Ctrl+M"), tr("the map fills the window, and back")},
          {tr("arrows, + − 0 on the map"), tr("from surface to surface; nearer, farther, all of it")},
          {tr("Space or F8 in a dimension"), tr("take it with the laser meter")},
          {tr("Tab, Enter"), tr("take the reading and go to the next")},
          {tr("Escape"), tr("give back the figure that stood in the field")},
          {tr("↑ ↓ in Build-up"), tr("from layer to layer; with Shift the layer moves")},
          {tr("Ctrl+1, Ctrl+2 … in Build-up"), tr("choose an option")},
          {tr("↑ ↓ ← → in Set out"),
           tr("start line by 1 mm, with Shift by 10 mm; the joint of panels in hand; the column of tiles")},
          {tr("Ctrl+Return, Ctrl+Space in Set out"), tr("take the suggestion; another one")},
          {tr("↑ ↓ ← → in Cut"),
           tr("from stock to stock, from piece to piece; with Ctrl the piece moves by 1 mm, with Shift by 10")},
          {tr("P, R, Space in Cut"), tr("pin the piece in hand, turn it, tick it as cut")},
          {tr("← → in Fit, with Shift"),
           tr("from one piece of work to the next; the piece to the day before or after")},
          {tr("← → on the start strip or the tally"), tr("the same along the strip; the figures of the tally")},
          {tr("Ctrl+Z, Ctrl+Shift+Z"), tr("undo and redo, across saves")},
          {tr("Ctrl+N, Ctrl+O, Ctrl+S"), tr("new, open, save")},
          {tr("F2"), tr("rename the job")}}) {
        auto* label = new QLabel(keys);
        label->setFont(textFont(1.0, true));
        form->addRow(label, new QLabel(what));
    }
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    connect(buttons, &QDialogButtonBox::rejected, &sheet, &QDialog::reject);
    form->addRow(buttons);
    sheet.exec();
}

void MainWindow::tell(const QString& sentence, bool attention, const QString& action, std::function<void()> act) {
    const Theme& t = Theme::now();
    notice_->setText(sentence);
    notice_->setStyleSheet(QStringLiteral("color: %1;").arg(css(attention ? t.pencil : t.graphite)));
    noticeBar_->setStyleSheet(QStringLiteral("background: %1;").arg(css(t.tally)));
    noticeAction_->setText(action);
    noticeAction_->setVisible(!action.isEmpty());
    noticeAct_ = std::move(act);
    noticeCopies_->hide();
    dismiss_->setText(tr("Close"));
    noticeBar_->show();
}

void MainWindow::newJobInPlace() {
    if (mayLetGo()) showNewVan(true);
}

void MainWindow::showNewVan(bool canGoBack) {
    enlargeMap(false);
    newVan_->begin(document_.job().shownUnit, canGoBack);
    pages_->setCurrentWidget(newVan_);
    rule_->setCurrent(-1);
    map_->hide();
    tally_->hide();
}

void MainWindow::pointAtSide(Pointing at, const QString& why) {
    pointing_ = at;
    map_->pointAtSide(why);
    map_->setFocus();
}

void MainWindow::sidePicked(const std::string& surface, int side) {
    const Surface* s = document_.job().surface(surface);
    switch (pointing_) {
    case Pointing::AtPartner: return measure_->sidePointedAt(surface, side);
    case Pointing::AtFirst:
        firstSide_ = {surface, side};
        return pointAtSide(
            Pointing::AtSecond,
            tr("%1, side %2 meets …").arg(s ? QString::fromStdString(s->name) : QString(), sideLetter(side)));
    case Pointing::AtSecond:
        if (firstSide_.surface == surface) return tell(tr("A surface cannot meet itself: nothing was tied."), true);
        if (s && document_.job().surface(firstSide_.surface))
            push(document_, meetSides(document_, firstSide_.surface, firstSide_.side, surface, side));
    }
}

void MainWindow::enlargeMap(bool large) {
    pages_->setHidden(large);
    map_->setEnlarged(large);
    if (large) map_->setFocus();
}

void MainWindow::openAnother() {
    if (!mayLetGo()) return;
    const QString path = QFileDialog::getOpenFileName(this, tr("Open a job"), QFileInfo(document_.path()).path(),
                                                      tr("Westrum jobs (*.westrum)"));
    if (!path.isEmpty()) openFile(path);
}

bool MainWindow::openFile(const QString& path) {
    if (const auto faults = document_.openFile(path)) {
        QStringList sentences;
        for (const FileFault& fault : *faults) sentences << sentence(fault);
        const qsizetype more = sentences.size() - 3;
        if (more > 0) {
            sentences = sentences.mid(0, 3);
            sentences << tr("And %n more.", nullptr, static_cast<int>(more));
        }
        tell(tr("%1 was not opened. %2 What was open stays as it was.")
                 .arg(QFileInfo(path).fileName(), sentences.join(QLatin1Char(' '))),
             true);
        return false;
    }
    opened_.reset();
    offerCopies();
    addRecent(path);
    return true;
}

bool MainWindow::save() { return document_.path().isEmpty() ? saveAs() : saveTo(document_.path()); }

bool MainWindow::saveTo(const QString& path) {
    if (const auto fault = document_.saveTo(path)) {
        tell(sentence(*fault), true);
        return false;
    }
    addRecent(path);
    autosave_->writeNow();
    return true;
}

bool MainWindow::saveAs() {
    QString path = QFileDialog::getSaveFileName(
        this, tr("Save the job"), QString::fromStdString(document_.job().name) + QStringLiteral(".westrum"),
        tr("Westrum jobs (*.westrum)"));
    if (path.isEmpty()) return false;
    if (QFileInfo(path).suffix().isEmpty()) path += QStringLiteral(".westrum");
    return saveTo(path);
}

bool MainWindow::mayLetGo() {
    if (!document_.isModified()) return true;
    QMessageBox ask(QMessageBox::NoIcon, tr("Westrum"),
                    tr("“%1” has changes that no file holds yet.").arg(QString::fromStdString(document_.job().name)),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
    switch (ask.exec()) {
    case QMessageBox::Save: return save();
    case QMessageBox::Discard:
        if (opened_) letCopyGo(); // it was named, and given up
        return true;
    default: return false;
    }
}

void MainWindow::renameInPlace() {
    QDialog dialog(this);
    dialog.setWindowTitle(tr("Rename the job"));
    auto* form = new QFormLayout(&dialog);
    auto* name = new QLineEdit(QString::fromStdString(document_.job().name));
    auto* vehicle = new QLineEdit(QString::fromStdString(document_.job().vehicle));
    form->addRow(tr("Job"), name);
    form->addRow(tr("Vehicle"), vehicle);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
    form->addRow(buttons);
    if (dialog.exec() != QDialog::Accepted || name->text().trimmed().isEmpty()) return;
    push(document_,
         renameJob(document_, name->text().trimmed().toStdString(), vehicle->text().trimmed().toStdString()));
}

void MainWindow::addRecent(const QString& path) {
    QSettings settings;
    QStringList recent = settings.value(QStringLiteral("recent")).toStringList();
    const QString absolute = QFileInfo(path).absoluteFilePath();
    recent.removeAll(absolute);
    recent.prepend(absolute);
    settings.setValue(QStringLiteral("recent"), recent.mid(0, kRecentFiles));
}

void MainWindow::fillRecent(QMenu* menu) {
    menu->clear();
    const QStringList recent = QSettings().value(QStringLiteral("recent")).toStringList();
    for (const QString& path : recent)
        menu->addAction(QFileInfo(path).fileName(), this,
                        [this, path] {
                            if (mayLetGo()) openFile(path);
                        })
            ->setToolTip(path);
    if (recent.isEmpty()) menu->addAction(tr("nothing opened yet"))->setEnabled(false);
}

void MainWindow::openCopy(const Recovered& copy) {
    const Recovered kept = copy; // it may be of the list that is gone through
    document_.open(kept.job, kept.originalPath, true);
    opened_ = kept;
    autosave_->writeNow(); // it has a copy of its own from now on
    offerCopies();
}

void MainWindow::letCopyGo() {
    Autosave::discard(*opened_);
    std::erase_if(copies_, [&](const Recovered& r) { return r.file == opened_->file; });
    opened_.reset();
    offerCopies();
}

void MainWindow::throwAway(const Recovered& copy) {
    const QString file = copy.file;
    Autosave::discard(copy);
    std::erase_if(copies_, [&](const Recovered& r) { return r.file == file; });
    if (opened_ && opened_->file == file) {
        document_.open(begun_, {});
    }
    offerCopies();
}

void MainWindow::offerCopies() {
    const auto named = [](const Recovered& r) {
        return tr("“%1” of %2")
            .arg(QString::fromStdString(r.job.name), QLocale().toString(r.saved, QLocale::ShortFormat));
    };
    QMenu* menu = noticeCopies_->menu();
    menu->clear();
    for (const Recovered& r : copies_) {
        const bool open = opened_ && opened_->file == r.file;
        if (!open)
            menu->addAction(tr("Open %1").arg(named(r)), this, [this, r] {
                if (opened_ || mayLetGo()) openCopy(r); // one that is open keeps its copy
            });
        menu->addAction(tr("Throw %1 away").arg(named(r)), this, [this, r] { throwAway(r); });
    }
    if (opened_)
        tell(tr("Westrum was stopped before %1 was saved: this is it. Save it to keep it; its copy stays until then.")
                 .arg(named(*opened_)),
             false, tr("Save"), [this] { save(); });
    else if (!copies_.empty())
        tell(tr("Work that was never saved is there from before: %n job(s).", nullptr,
                static_cast<int>(copies_.size())));
    else
        return noticeBar_->hide();
    noticeCopies_->show();
    dismiss_->setText(tr("Not now"));
}

void MainWindow::updateTitle() {
    const QString name = QString::fromStdString(document_.job().name);
    jobButton_->setText(name + QStringLiteral(" ▾"));
    jobButton_->setToolTip(document_.path().isEmpty() ? tr("Not saved yet") : document_.path());
    vehicle_->setText(QString::fromStdString(document_.job().vehicle) +
                      (document_.isModified() ? tr("  ·  not saved") : QString()));
    vehicle_->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
    setWindowTitle(tr("%1 – Westrum").arg(name));
}

void MainWindow::applyTheme() {
    const Theme& t = Theme::now();
    QApplication::setPalette(t.palette());
    // The window's own, not the application's: QApplication::setStyleSheet() walks a list of all widgets, and list
    // boxes make and delete some of theirs while it does (Qt 6.4 then reads a deleted one).
    setStyleSheet(westrum::styleSheet(t));
    updateTitle();
    // Pages made before keep colours in their labels: have them written again.
    if (QWidget* page = pages_->currentWidget()) {
        page->hide();
        page->show();
    }
    for (QWidget* w : findChildren<QWidget*>()) w->update();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (QWidget* focus = focusWidget()) focus->clearFocus(); // takes in what is half typed
    if (mayLetGo())
        event->accept();
    else
        event->ignore();
}

} // namespace westrum
