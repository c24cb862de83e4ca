#pragma once
// Physical quantities that cannot be mixed: Volts + Amps does not compile, Amps * Ohms gives Volts.
// Everything in core is SI; feet and gauge sizes exist only at the edge (see Units.h).

#include <cmath>
#include <compare>

namespace lintel {

/// A number with the exponents of its unit in volts, amperes and metres.
template <int V, int A, int M> struct Quantity {
    double v = 0;
    constexpr Quantity() = default;
    constexpr explicit Quantity(double value) : v(value) {}
    constexpr auto operator<=>(const Quantity&) const = default;
    constexpr Quantity operator+(Quantity o) const { return Quantity{v + o.v}; }
    constexpr Quantity operator-(Quantity o) const { return Quantity{v - o.v}; }
    constexpr Quantity operator*(double k) const { return Quantity{v * k}; }
    constexpr Quantity operator/(double k) const { return Quantity{v / k}; }
    constexpr double operator/(Quantity o) const { return v / o.v; }
    constexpr Quantity& operator+=(Quantity o) {
        v += o.v;
        return *this;
    }
};
template <int V, int A, int M> constexpr auto operator*(double k, Quantity<V, A, M> q) { return q * k; }

template <int V1, int A1, int M1, int V2, int A2, int M2>
constexpr auto operator*(Quantity<V1, A1, M1> a, Quantity<V2, A2, M2> b) {
    return Quantity<V1 + V2, A1 + A2, M1 + M2>{a.v * b.v};
}
template <int V1, int A1, int M1, int V2, int A2, int M2>
requires(!(V1 == V2 && A1 == A2 && M1 == M2)) constexpr auto operator/(Quantity<V1, A1, M1> a, Quantity<V2, A2, M2> b) {
    return Quantity<V1 - V2, A1 - A2, M1 - M2>{a.v / b.v};
}

using Volts = Quantity<1, 0, 0>;
using Amps = Quantity<0, 1, 0>;
using VoltAmps = Quantity<1, 1, 0>;
using Ohms = Quantity<1, -1, 0>;
using Metres = Quantity<0, 0, 1>;
using OhmsPerMetre = Quantity<1, -1, -1>;

inline constexpr double root3 = 1.7320508075688772;
inline constexpr double metresPerFoot = 0.3048;
constexpr Metres feet(double ft) { return Metres{ft * metresPerFoot}; }
constexpr double inFeet(Metres m) { return m.v / metresPerFoot; }

} // namespace lintel
