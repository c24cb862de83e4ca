#pragma once
// What went wrong, as a value. The core never prints and never opens a box.

#include <string>
#include <utility>
#include <variant>

namespace lintel {

/// `where`: the file, line or field. `what`: what is wrong with it. `help`: what would put it right.
struct Error {
    std::string where, what, help;
    bool operator==(const Error&) const = default;
    std::string text() const {
        std::string t = where.empty() ? what : where + ": " + what;
        return help.empty() ? t : t + "\n" + help;
    }
};

/// Either a value or the Error that prevented it.
template <class T> class Outcome {
public:
    Outcome(T value) : held(std::move(value)) {}
    Outcome(Error error) : held(std::move(error)) {}
    explicit operator bool() const { return std::holds_alternative<T>(held); }
    T& operator*() { return std::get<T>(held); }
    const T& operator*() const { return std::get<T>(held); }
    T* operator->() { return &std::get<T>(held); }
    const T* operator->() const { return &std::get<T>(held); }
    const Error& error() const { return std::get<Error>(held); }

private:
    std::variant<T, Error> held;
};

} // namespace lintel
