#pragma once
// Asking the bench, for its tests.

#include "core/bench/Bench.h"
#include "tests/World.h"

namespace lintel {

/// The answer of a sum; throws what it says instead.
inline BenchAnswer answer(const char* kind, const nlohmann::json& entered) {
    const BenchKind& k = *benchKind(kind);
    auto a = bench(k, entered, k.suits(nec()) ? nec() : bs());
    if (!a) throw std::runtime_error(a.error().text());
    return *a;
}
/// A figure of it; -1 where it is no number.
inline double figure(const BenchAnswer& a, const char* key) { return a[key].is_number() ? a[key].get<double>() : -1; }

} // namespace lintel
