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

/// Works the options of a surface out on a thread of its own: the newest question wins. The signal is emitted in the
/// thread of this object.
class OptionWorker : public QObject {
    Q_OBJECT
public:
    explicit OptionWorker(QObject* parent = nullptr);
    ~OptionWorker() override;
    void request(const Job& job, const std::string& surface);

signals:
    void found(const std::string& surface, const std::vector<westrum::OptionFigures>& figures);

private:
    struct Question {
        Job job;
        std::string surface;
        int number{};
    };
    void run(const std::stop_token& quit);

    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<Question> waiting_;
    int asked_ = 0; ///< questions so far; an older one's answer is not told
    std::stop_source current_;
    std::jthread thread_; ///< last: it stops and joins before what it uses goes away
};

} // namespace westrum
