#pragma once

#include "app/document/savings_worker.h"
#include "app/shellmap/shell_map.h"
#include "app/stages/buy/compare_view.h"
#include "app/stages/buy/mass_view.h"
#include "app/stages/buy/odds_curve.h"
#include "app/stages/buy/prices_view.h"
#include "app/stages/buy/purchase_model.h"
#include "app/stages/buy/share_bars.h"
#include "app/stages/stage_page.h"
#include "app/widgets/entry_field.h"

#include <QCheckBox>
#include <QComboBox>
#include <QPushButton>
#include <QTableView>
#include <QTimer>

namespace westrum {

/// Buy: what to buy, how likely each line is not enough, where it goes and what of the cost is whose; printed or saved.
class BuyPage : public StagePage {
    Q_OBJECT
public:
    BuyPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    /// What the workshop knows of a product is told with its line.
    void setWorkshop(class Workshop& workshop);

signals:
    /// How much of the line in hand is each surface's.
    void shaded(const std::vector<westrum::ShellMap::Shade>& shades);
    void surfacePicked(const std::string& surface);

protected:
    void refresh() override;

private:
    /// Takes what was typed; why not, if it cannot be.
    QString takeRisk(const QString& typed);
    QString takeBudget(const QString& typed);
    void setUpTable();
    void setUpSums();
    void setUpActions();
    void setUpLine();
    void setUpViews();
    void followDocument();
    [[nodiscard]] QLayout* sumsRow();    ///< of the list
    [[nodiscard]] QLayout* choicesRow(); ///< what counts, and which risk is accepted
    [[nodiscard]] QLayout* boughtRow();  ///< of the line in hand
    [[nodiscard]] QLayout* savingsRow();
    void printIt();
    void save(const QString& what, const QString& filter, const QString& ending,
              const std::function<QString(const QString&)>& write);
    /// The line in hand; null if there is none.
    [[nodiscard]] const Purchase* line() const;
    [[nodiscard]] const ProductOdds* oddsOf(const std::string& product) const;
    void takeLine(int row);
    bool refreshOtherView(const Plan& plan, const Job& job, const Figures& f);
    void refreshSums(const Plan& plan, const Job& job, const Figures& f);
    void refreshChoices(const Job& job, const Figures& f);
    [[nodiscard]] QString bookSays(const Product& product) const;
    void turnShelf();
    void refreshLine();
    void sayRisk();
    void chooseNumber(int number);
    /// Every line as many spares as bring its risk down to what is accepted, and no more.
    void spareAll();
    /// What the yard is to be asked for, as the cutting is now.
    [[nodiscard]] std::vector<RoughCut> roughCutsNow() const;
    /// Ticks the line in hand as bought, or changes what is said of that.
    void buy(const std::function<void(Bought&)>& change);
    void refreshBought(const Purchase& p);
    void refreshSavings();

    PurchaseModel* model_;
    QTableView* table_;
    QLabel* total_;
    QLabel* here_;      ///< what the surface in hand comes to
    QLabel* lineTitle_; ///< of the line in hand
    QLabel* lineText_;
    QLabel* bookText_; ///< what was paid before, and what is there of it
    QPushButton* shelf_;
    Workshop* workshop_ = nullptr;
    ShareBars* shares_;
    QCheckBox* bought_;
    EntryField* paid_;
    QLineEdit* lot_;
    QPushButton* spareAll_;
    EntryField* risk_;
    QPushButton* askSavings_;
    QPushButton* takeSaving_;
    QLabel* savingText_;
    SavingsWorker savingsWorker_;
    std::string savingsFor_; ///< product; empty: none known
    std::vector<Saving> savings_;
    EntryField* budget_;
    QLabel* budgetText_;
    OddsCurve* curve_;
    QCheckBox* consumables_;
    QComboBox* hand_;
    QWidget* actions_;
    QWidget* detail_;
    QWidget* list_;
    MassView* mass_;
    CompareView* compare_;
    PricesView* prices_;
    QPushButton* showList_;
    QPushButton* showMass_;
    QPushButton* showCompare_;
    QPushButton* showPrices_;
    QPushButton* wholeVan_; ///< compared, rather than the surface in hand
    QTimer ask_;
    double progress_ = 0;
    bool filling_ = false;       ///< the table is being filled: what it selects meanwhile is nobody's choice
    std::string product_, size_; ///< of the line in hand
};

} // namespace westrum
