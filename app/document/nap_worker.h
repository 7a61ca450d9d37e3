#pragma once

#include <QObject>

#include "app/document/newest_question.h"
#include "core/plan/product_cut.h"

namespace westrum {

/// What a roll would take if its pieces might be turned: tried on a thread of its own, with the nap as it is and
/// without, under one effort, so that the two can be held against each other.
class NapWorker : public QObject {
    Q_OBJECT
public:
    explicit NapWorker(QObject* parent = nullptr);
    void ask(const CutProblem& problem);
    [[nodiscard]] bool isWorking() const { return working_; }

signals:
    void found(const std::string& product, westrum::Mm withNap, westrum::Mm halfTurn, westrum::Mm anyQuarter);

private:
    bool working_ = false;
    NewestQuestion<CutProblem> newest_;
};

} // namespace westrum
