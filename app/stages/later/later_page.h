#pragma once

#include "app/stages/stage_page.h"

namespace westrum {

/// A stage whose decisions are not made here yet: says what will be, and shows what is already known of it.
class LaterPage : public StagePage {
    Q_OBJECT
public:
    LaterPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

protected:
    void refresh() override;

private:
    QLabel* known_;
};

} // namespace westrum
