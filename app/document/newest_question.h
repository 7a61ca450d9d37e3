#pragma once

#include <QMetaObject>
#include <QObject>

#include <condition_variable>
#include <functional>
#include <mutex>
#include <optional>
#include <stop_token>
#include <thread>
#include <utility>

namespace westrum {

/// Answers questions on a thread of its own. The newest wins: it replaces the one that waits and stops the one in hand,
/// and who asks never waits for that. Ask and stop from the thread of the teller; answers are told there.
template <class Question> class NewestQuestion {
public:
    /// A question in hand.
    class Turn {
    public:
        std::stop_token stop;
        /// Calls `say` in the thread of the teller, unless something newer has been asked, or all stopped, by then.
        template <class Say> void tell(Say say) const {
            if (stop.stop_requested()) return;
            QMetaObject::invokeMethod(
                owner_->teller_,
                [owner = owner_, number = number_, say = std::move(say)] {
                    if (number == owner->asked_) say();
                },
                Qt::QueuedConnection);
        }

    private:
        friend class NewestQuestion;
        Turn(NewestQuestion* owner, std::stop_token token, int number)
            : stop(std::move(token)), owner_(owner), number_(number) {}
        NewestQuestion* owner_;
        int number_;
    };
    using Answer = std::function<void(const Question&, const Turn&)>;

    /// @param teller  owns this, as its last member: the thread is joined before what it uses goes away
    NewestQuestion(QObject* teller, Answer answer)
        : teller_(teller), answer_(std::move(answer)), thread_([this](const std::stop_token& quit) { run(quit); }) {}
    NewestQuestion(const NewestQuestion&) = delete;
    NewestQuestion& operator=(const NewestQuestion&) = delete;
    ~NewestQuestion() {
        thread_.request_stop();
        const std::scoped_lock lock(mutex_);
        current_.request_stop();
    }

    void ask(Question question) {
        {
            const std::scoped_lock lock(mutex_);
            ++asked_;
            waiting_.emplace(std::move(question), asked_);
            current_.request_stop();
        }
        wake_.notify_all();
    }

    void stop() {
        const std::scoped_lock lock(mutex_);
        ++asked_;
        waiting_.reset();
        current_.request_stop();
    }

private:
    void run(const std::stop_token& quit) {
        while (true) {
            std::unique_lock lock(mutex_);
            if (!wake_.wait(lock, quit, [this] { return waiting_.has_value(); }) || quit.stop_requested()) return;
            const auto [question, number] = std::move(*waiting_);
            waiting_.reset();
            current_ = std::stop_source();
            const Turn turn(this, current_.get_token(), number);
            lock.unlock();
            answer_(question, turn);
        }
    }

    QObject* teller_;
    Answer answer_;
    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<std::pair<Question, int>> waiting_;
    int asked_ = 0; ///< questions and stops so far; changed and told by in the teller's thread
    std::stop_source current_;
    std::jthread thread_; ///< last: it stops and joins before what it uses goes away
};

} // namespace westrum
