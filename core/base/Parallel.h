#pragma once
// The same work on many things that do not touch one another, on all cores.

#include <algorithm>
#include <exception>
#include <system_error>
#include <thread>
#include <vector>

namespace lintel {

/// As many parts as inParts makes at most: room for what each lists.
inline constexpr std::size_t mostParts = 8;
/// From so many circuits on a project is worth starting threads for: one costs as much as some hundred circuits.
inline constexpr std::size_t manyCircuits = 1000;

/// Does the work of a thread of its own, or on this one where none is to be had.
template <class F> std::jthread aside(F f) {
    try {
        return std::jthread(f);
    } catch (const std::system_error&) {
        f();
        return {};
    }
}

/// Keeps what a piece of work throws, so that it can be thrown again on the caller's thread: no memory is left, say.
class Caught {
public:
    template <class F> void operator()(F f) noexcept {
        try {
            f();
        } catch (...) {
            thrown = std::current_exception();
        }
    }
    void rethrow() const {
        if (thrown) std::rethrow_exception(thrown);
    }

private:
    std::exception_ptr thrown;
};

/// Does `first` and `second` at once, or one after the other where they are not worth a thread. What either throws
/// comes out.
template <class F, class G> void atOnce(bool worthwhile, F first, G second) {
    Caught ofFirst, ofSecond;
    {
        const std::jthread helper = worthwhile ? aside([&] { ofFirst(first); }) : (ofFirst(first), std::jthread());
        ofSecond(second);
    }
    ofFirst.rethrow();
    ofSecond.rethrow();
}

/// Calls f(part, from, to) for the parts of 0 … n, each on a thread of its own and the last on the caller's; comes back
/// when all are done, with the number of parts. What is not worth it is done at once as part 0. Parts are in order, so
/// that what they list joins up in order, whatever their number. What one of them throws comes out when all are done.
template <class F> std::size_t inParts(std::size_t n, bool worthwhile, F f) {
    static const std::size_t cores = std::clamp<std::size_t>(std::thread::hardware_concurrency(), 1, mostParts);
    const std::size_t parts = worthwhile ? std::clamp<std::size_t>(n, 1, cores) : 1;
    const auto from = [&](std::size_t part) { return n * part / parts; };
    std::vector<Caught> caught(parts);
    {
        std::vector<std::jthread> helpers;
        for (std::size_t i = 0; i + 1 < parts; ++i)
            helpers.push_back(aside([&, i] { caught[i]([&] { f(i, from(i), from(i + 1)); }); }));
        caught.back()([&] { f(parts - 1, from(parts - 1), n); });
    }
    for (const Caught& c : caught) c.rethrow();
    return parts;
}

} // namespace lintel
