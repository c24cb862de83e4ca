#pragma once
// A value that most things of a large table do not have. It takes the room of a pointer until it is made; read before
// that, it is as made by default. Copies are copies of the value.

#include <memory>

namespace lintel {

template <class T> class Rare {
public:
    Rare() = default;
    Rare(const Rare& o) : held(o.held ? std::make_unique<T>(*o.held) : nullptr) {}
    Rare(Rare&&) noexcept = default;
    Rare& operator=(const Rare& o) {
        if (this != &o) held = o.held ? std::make_unique<T>(*o.held) : nullptr;
        return *this;
    }
    Rare& operator=(Rare&&) noexcept = default;

    const T& operator*() const { return held ? *held : none(); }
    const T* operator->() const { return &**this; }
    explicit operator bool() const { return bool(held); }
    /// For writing: there is one from now on.
    T& make() {
        if (!held) held = std::make_unique<T>();
        return *held;
    }

private:
    static const T& none() {
        static const T t{};
        return t;
    }
    std::unique_ptr<T> held;
};

} // namespace lintel
