#pragma once

#include <QObject>

#include "app/document/newest_question.h"
#include "core/plan/inputs.h"
#include "core/plan/savings.h"

#include <optional>
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
    /// What was asked last would be asked with other input now: its answer, there or not, is of the job as it was.
    [[nodiscard]] bool isStale(const Job& job) const;

signals:
    void found(const std::string& product, const std::vector<westrum::Saving>& savings);

private:
    struct Question {
        ComparisonInput job;
        std::string product;
        friend bool operator==(const Question&, const Question&) = default;
    };
    std::optional<Question> asked_;
    bool working_ = false;
    NewestQuestion<Question> newest_;
};

} // namespace westrum
