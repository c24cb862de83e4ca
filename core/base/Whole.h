#pragma once
// A number as a whole one, whatever it is: infinite, not a number, or too large for an int.

namespace lintel {

/// `value` without its fraction, held between `least` and `most`; NaN: `least`.
constexpr int wholeWithin(double value, int least, int most) {
    if (!(value > least)) return least;
    return value >= most ? most : int(value);
}

} // namespace lintel
