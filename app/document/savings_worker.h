#pragma once

#include <QObject>

#include "app/document/newest_question.h"
#include "core/plan/savings.h"

#include <string>
#include <vector>

namespace westrum {

/// Tries on a thread of its own what would save the next pack of a product: the newest question wins. The signal comes
/// in the thread of this object.
class SavingsWorker : public QObject {
    Q_OBJECT
public:
    explicit SavingsWorker(QObject* parent = nullptr);
    void ask(const Job& job, const std::string& product);
    void stop();
    [[nodiscard]] bool isWorking() const { return working_; }

signals:
    void found(const std::string& product, const std::vector<westrum::Saving>& savings);

private:
    struct Question {
        Job job;
        std::string product;
    };
    bool working_ = false;
    NewestQuestion<Question> newest_;
};

} // namespace westrum
