#pragma once

#include <QObject>

#include "core/plan/savings.h"

#include <string>
#include <thread>
#include <vector>

namespace westrum {

/// Tries on a thread of its own what would save the next pack of a product: the newest question wins. The signal comes
/// in the thread of this object.
class SavingsWorker : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    void ask(const Job& job, const std::string& product);
    void stop();
    [[nodiscard]] bool isWorking() const { return working_; }

signals:
    void found(const std::string& product, const std::vector<westrum::Saving>& savings);

private:
    int asked_ = 0; ///< questions so far; an older one's answer is not told
    bool working_ = false;
    std::jthread thread_; ///< last: it stops and joins before what it uses goes away
};

} // namespace westrum
