#pragma once

#include "app/stages/buy/purchase_model.h"
#include "app/stages/buy/stock_picture.h"
#include "app/stages/stage_page.h"

#include <QPushButton>
#include <QTableView>

namespace westrum {

/// Buy: what to buy, what is left over, what it costs and weighs; printed or saved.
class BuyPage : public StagePage {
    Q_OBJECT
public:
    BuyPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

protected:
    void refresh() override;

private:
    void printIt();
    void save(const QString& what, const QString& filter, const QString& ending,
              const std::function<QString(const QString&)>& write);

    PurchaseModel* model_;
    QTableView* table_;
    QLabel* total_;
    QLabel* waste_;
    QLabel* offcuts_;
    QWidget* actions_;
    StockPicture* stock_;
};

} // namespace westrum
