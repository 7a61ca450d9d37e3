#pragma once

#include <QObject>

#include "app/document/newest_question.h"
#include "core/plan/inputs.h"
#include "core/plan/options.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// Works the options of a surface out, or the schemes of the van, on a thread of its own: the newest question wins. The
/// signal is emitted in the thread of this object.
class OptionWorker : public QObject {
    Q_OBJECT
public:
    explicit OptionWorker(QObject* parent = nullptr);
    /// Of a surface, or of the van where it is empty. Asked again with equal input, it works nothing out anew: false.
    bool request(const Job& job, const std::string& surface);

signals:
    void found(const std::string& surface, const std::vector<westrum::OptionFigures>& figures);
    void schemesFound(const std::vector<westrum::SchemeFigures>& schemes);

private:
    struct Question {
        ComparisonInput job;
        std::string surface; ///< empty: the schemes
        friend bool operator==(const Question&, const Question&) = default;
    };
    std::optional<Question> asked_;
    NewestQuestion<Question> newest_;
};

} // namespace westrum
