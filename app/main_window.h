#pragma once

#include <QMainWindow>

#include "app/document/autosave.h"
#include "app/document/job_document.h"
#include "app/document/workshop.h"
#include "app/shellmap/shell_map.h"
#include "app/widgets/stage_rule.h"
#include "app/widgets/tally_strip.h"

#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QStackedWidget>

#include <functional>
#include <memory>
#include <optional>
#include <vector>

namespace westrum {

class BuyPage;
class CutPage;
class MeasurePage;
class NewVanPage;

/// The window: the folding rule of stages, the unfolded map, the bench of the stage in hand, the tally.
class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    enum Stage { Measure, BuildUp, SetOut, Cut, Buy, Fit, Log };

    /// What to do with work that a killed program left behind: open the newest of it, or, where something else was
    /// asked for, offer it beside that.
    enum class LeftBehind { Open, Offer };
    /// @param autosaveFolder  where unsaved work is kept, and beside it the workshop's book
    MainWindow(JobDocument& document, const QString& autosaveFolder, LeftBehind leftBehind = LeftBehind::Open,
               QWidget* parent = nullptr);

    void showStage(Stage stage);
    /// Shows the page on which a new job begins.
    void showNewVan(bool canGoBack);
    /// The map fills the window, or goes back to its place beside the bench.
    void enlargeMap(bool large);
    [[nodiscard]] MeasurePage& measurePage() { return *measure_; }
    [[nodiscard]] CutPage& cutPage() { return *cut_; }
    [[nodiscard]] Workshop& workshop() { return *workshop_; }
    /// Opens a file; says in the window why not, if it cannot be read.
    bool openFile(const QString& path);

    /// The line that tells of files and recovered work; empty when there is nothing to tell.
    [[nodiscard]] QString notice() const;

protected:
    void closeEvent(QCloseEvent* event) override;

private:
    /// What the next side pressed on the map is: the partner of the side in hand, or the first or second of two.
    enum class Pointing { AtPartner, AtFirst, AtSecond };
    void pointAtSide(Pointing at, const QString& why);
    void sidePicked(const std::string& surface, int side);
    void makeMenu();
    void makeShortcuts();
    void newJobInPlace();
    void openAnother();
    bool save();
    bool saveAs();
    bool saveTo(const QString& path);
    bool mayLetGo();
    void renameInPlace();
    void addRecent(const QString& path);
    void fillRecent(QMenu* menu);
    /// Opens a copy; it stays where it is until it is saved or thrown away by name.
    void openCopy(const Recovered& copy);
    /// The one that is open was saved, or given up by name.
    void letCopyGo();
    void throwAway(const Recovered& copy);
    /// Says which unsaved work there is, and what can be done with it; hides the line where there is none.
    void offerCopies();
    void tell(const QString& sentence, bool attention = false, const QString& action = {},
              std::function<void()> act = {});
    void updateTitle();
    void applyTheme();
    void showShortcuts();

    JobDocument& document_;
    char decimalMark_;
    std::unique_ptr<Workshop> workshop_;
    std::unique_ptr<Autosave> autosave_;
    std::vector<Recovered> copies_;   ///< left behind, newest first
    std::optional<Recovered> opened_; ///< the one of them that is open
    Job begun_;                       ///< with which the window opened
    QPushButton* jobButton_;
    QLabel* vehicle_;
    StageRule* rule_;
    ShellMap* map_;
    QStackedWidget* pages_;
    MeasurePage* measure_;
    CutPage* cut_;
    BuyPage* buy_;
    NewVanPage* newVan_;
    Pointing pointing_ = Pointing::AtPartner;
    ShellMap::SideAt firstSide_;
    TallyStrip* tally_;
    QWidget* noticeBar_;
    QLabel* notice_;
    QPushButton *noticeAction_, *noticeCopies_, *dismiss_;
    std::function<void()> noticeAct_;
};

} // namespace westrum
