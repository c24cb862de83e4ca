#pragma once
// Changes of the arithmetic that are switched on at run time, for tests/mutate.py alone: one build holds many of them,
// and the number in LINTEL_MUTANT says which is on. `a + b` is written `a + mutant::Op(17) + b`: what comes from the
// first half remembers its side, so that the precedence of the operators stays as it was.

#include <algorithm>
#include <cstdio>
#include <cstdlib>

namespace mutant {

inline int chosen() {
    static const int n = [] {
        const char* text = std::getenv("LINTEL_MUTANT");
        return text ? std::atoi(text) : 0;
    }();
    return n;
}
/// Where LINTEL_REACH names a file, the changes that were come by are written to it at the end, a byte for each.
struct Reached {
    char seen[1 << 16] = {};
    const char* file = std::getenv("LINTEL_REACH");
    ~Reached() {
        if (!file) return;
        if (std::FILE* f = std::fopen(file, "wb")) {
            std::fwrite(seen, 1, sizeof seen, f);
            std::fclose(f);
        }
    }
};
inline Reached reached;
inline bool on(int n) {
    reached.seen[n] = 1;
    return chosen() == n;
}

/// A constant, and what it is changed to.
template <class A, class B> A pick(int n, A as, B other) { return on(n) ? A(other) : as; }

struct Op {
    int n;
    explicit Op(int number) : n(number) {}
};
template <class T> struct Left {
    const T& value;
    bool on;
};

#define LINTEL_MUTANT_OP(op, other)                                                                                    \
    template <class T> Left<T> operator op(const T& a, Op m) { return {a, on(m.n)}; }                                  \
    template <class T, class U> auto operator op(Left<T> a, const U& b)->decltype(a.value op b) {                      \
        using R = decltype(a.value op b);                                                                              \
        return a.on ? R(a.value other b) : R(a.value op b);                                                            \
    }
LINTEL_MUTANT_OP(+, -)
LINTEL_MUTANT_OP(-, +)
LINTEL_MUTANT_OP(*, /)
LINTEL_MUTANT_OP(/, *)
LINTEL_MUTANT_OP(<, <=)
LINTEL_MUTANT_OP(>, >=)
LINTEL_MUTANT_OP(<=, <)
LINTEL_MUTANT_OP(>=, >)
LINTEL_MUTANT_OP(==, !=)
LINTEL_MUTANT_OP(!=, ==)
#undef LINTEL_MUTANT_OP

// `a && b` and `a || b`, either of which may be the other, with b asked for only where it would be:
//     a && b   is written   a && mutant::both(17) || mutant::thenBoth(17) && b
//     a || b   is written   a && mutant::either(17) || mutant::thenEither(17) && b
// The first half is asked only where a holds. What it gives is the answer, or a was noted and the second half goes on
// with it.
inline thread_local bool held = false;
inline bool both(int n) { return on(n) || (held = true, false); }
inline bool either(int n) { return !on(n) || (held = true, false); }
/// Whether b is asked for: by the sign in the text, where a held; by the other, where it did not.
inline bool thenBoth(int n) {
    const bool was = held;
    held = false;
    return on(n) || was;
}
inline bool thenEither(int n) {
    const bool was = held;
    held = false;
    return !on(n) || was;
}

// `a > 0` turned into its opposite: `a > mutant::Not(17) > 0`.
struct Not {
    int n;
    explicit Not(int number) : n(number) {}
};
template <class T> struct Turned {
    const T& value;
    bool on;
};
#define LINTEL_MUTANT_NOT(op)                                                                                          \
    template <class T> Turned<T> operator op(const T& a, Not m) { return {a, on(m.n)}; }                               \
    template <class T, class U> bool operator op(Turned<T> a, const U& b) { return a.on != bool(a.value op b); }
LINTEL_MUTANT_NOT(<)
LINTEL_MUTANT_NOT(>)
LINTEL_MUTANT_NOT(<=)
LINTEL_MUTANT_NOT(>=)
#undef LINTEL_MUTANT_NOT

// `a += b` is written `a += mutant::Op(17) += b`, which is read from the right.
template <class U> struct Right {
    const U& value;
    bool on;
};
#define LINTEL_MUTANT_SET(op, other)                                                                                   \
    template <class U> Right<U> operator op(Op m, const U& b) { return {b, on(m.n)}; }                                 \
    template <class T, class U> T& operator op(T& a, Right<U> b) {                                                     \
        if (b.on)                                                                                                      \
            a other b.value;                                                                                           \
        else                                                                                                           \
            a op b.value;                                                                                              \
        return a;                                                                                                      \
    }
LINTEL_MUTANT_SET(+=, -=)
LINTEL_MUTANT_SET(*=, /=)
#undef LINTEL_MUTANT_SET

/// std::min and std::max, either of which may be the other.
struct Least {
    int n;
    explicit Least(int number) : n(number) {}
    template <class T> T operator()(const T& a, const T& b) const { return on(n) ? std::max(a, b) : std::min(a, b); }
    template <class T> T operator()(std::initializer_list<T> l) const { return on(n) ? std::max(l) : std::min(l); }
};
struct Most {
    int n;
    explicit Most(int number) : n(number) {}
    template <class T> T operator()(const T& a, const T& b) const { return on(n) ? std::min(a, b) : std::max(a, b); }
    template <class T> T operator()(std::initializer_list<T> l) const { return on(n) ? std::min(l) : std::max(l); }
};

} // namespace mutant
