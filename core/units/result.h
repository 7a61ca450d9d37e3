#pragma once

#include <cassert>
#include <utility>
#include <variant>

namespace westrum {

/// Either a value or what was wrong with the input: a person's mistake is a value, never an exception.
/// The names are those of std::expected, which is to replace it one day.
template <class T, class E> class [[nodiscard]] Result {
public:
    Result(T value) : state_(std::in_place_index<0>, std::move(value)) {}
    Result(E error) : state_(std::in_place_index<1>, std::move(error)) {}

    [[nodiscard]] bool has_value() const { return state_.index() == 0; }
    explicit operator bool() const { return has_value(); }

    [[nodiscard]] const T& value() const {
        assert(has_value());
        return *std::get_if<0>(&state_);
    }
    [[nodiscard]] T& value() {
        assert(has_value());
        return *std::get_if<0>(&state_);
    }
    [[nodiscard]] const E& error() const {
        assert(!has_value());
        return *std::get_if<1>(&state_);
    }

private:
    std::variant<T, E> state_;
};

} // namespace westrum
