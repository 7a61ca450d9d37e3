#pragma once

#include <QObject>

#include "app/document/newest_question.h"
#include "core/plan/odds.h"

#include <memory>
#include <vector>

namespace westrum {

/// Tries on a thread of its own how often what is bought would not do: the newest question wins, and it can be stopped.
/// Signals come in the thread of this object.
class OddsWorker : public QObject {
    Q_OBJECT
public:
    explicit OddsWorker(QObject* parent = nullptr);
    void request(OddsQuestion question);
    void stop();

signals:
    void progress(double share);
    /// `have` is left to fillBought().
    void found(const std::vector<westrum::ProductOdds>& odds);

private:
    NewestQuestion<OddsQuestion> newest_;
};

} // namespace westrum
