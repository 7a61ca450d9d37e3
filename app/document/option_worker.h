#pragma once

#include <QObject>

#include "core/plan/options.h"

#include <condition_variable>
#include <mutex>
#include <optional>
#include <string>
#include <thread>
#include <vector>

namespace westrum {

/// Works the options of a surface out, or the schemes of the van, on a thread of its own: the newest question wins. The
/// signal is emitted in the thread of this object.
class OptionWorker : public QObject {
    Q_OBJECT
public:
    explicit OptionWorker(QObject* parent = nullptr);
    ~OptionWorker() override;
    void request(const Job& job, const std::string& surface);
    void requestSchemes(const Job& job);

signals:
    void found(const std::string& surface, const std::vector<westrum::OptionFigures>& figures);
    void schemesFound(const std::vector<westrum::SchemeFigures>& schemes);

private:
    struct Question {
        Job job;
        std::string surface; ///< empty: the schemes
        int number{};
    };
    void run(const std::stop_token& quit);
    void ask(Question question);

    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<Question> waiting_;
    int asked_ = 0; ///< questions so far; an older one's answer is not told
    std::stop_source current_;
    std::jthread thread_; ///< last: it stops and joins before what it uses goes away
};

} // namespace westrum
