#include "core/drawing/Drawing.h"

namespace lintel {

std::string Drawing::words() const {
    std::string out;
    for (const Mark& m : marks)
        if (const auto* t = std::get_if<TextMark>(&m)) out += t->text + "\n";
    return out;
}

Point turned(Point p, double degrees) {
    const double a = degrees * std::numbers::pi / 180;
    return {p.x * std::cos(a) - p.y * std::sin(a), p.x * std::sin(a) + p.y * std::cos(a)};
}

} // namespace lintel
