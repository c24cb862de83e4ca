#include "core/solve/Conduit.h"

#include "core/base/Format.h"

#include <fmt/format.h>

namespace lintel {

double allowedFill(int n, const RuleBook& book, bool nipple) {
    return nipple   ? book.tables.fillNipple
           : n <= 1 ? book.tables.fillOne
           : n == 2 ? book.tables.fillTwo
                    : book.tables.fillMore;
}

ConduitFill conduitFor(const ConduitType& type, const std::vector<ConduitConductor>& conductors, const RuleBook& book,
                       Working* w, bool nipple) {
    constexpr double squareInch = 645.16;
    ConduitFill f;
    double each = 0; // of every conductor, where all are of one size and insulation; −1: they are not
    for (const ConduitConductor& c : conductors) {
        if (c.count <= 0 || c.size < 0) continue;
        const std::string& name = book.sizes()[std::size_t(c.size)].name;
        const auto it = c.insulation->area.find(name);
        if (it == c.insulation->area.end()) {
            f.unknown = true;
            if (w)
                w->step("Area", fmt::format("{} {} is not in the table", sizeWords(book, c.size), c.insulation->name),
                        "", book.cite("conductorArea"));
            continue;
        }
        each = each == 0 || each == it->second ? it->second : -1;
        f.conductors += c.count;
        f.area += c.count * it->second;
        if (w)
            w->step("Area",
                    fmt::format("{} × {} {} of {:.4f} in²", c.count, sizeWords(book, c.size), c.insulation->name,
                                it->second / squareInch),
                    fmt::format("{:.4f} in²", c.count * it->second / squareInch), book.cite("conductorArea"));
    }
    f.allowed = allowedFill(f.conductors, book, nipple);
    // Of one size they are counted, and a count of 21.96 is 22 (note 7); of several their areas are added.
    const auto holds = [&](const ConduitSize& s) {
        if (f.area <= s.area * f.allowed * (1 + 1e-9)) return true;
        if (each <= 0) return false;
        const double count = s.area * f.allowed / each, whole = std::floor(count);
        return count - whole >= book.tables.fillCountsUpFrom - 1e-9 && f.conductors <= int(whole) + 1;
    };
    if (f.unknown || f.conductors == 0) return f;
    for (const ConduitSize& s : type.sizes) {
        if (s.name == "3/8" || !holds(s)) continue;
        f.size = &s;
        f.used = f.area / s.area;
        break;
    }
    if (w) {
        if (f.size)
            w->step("Conduit",
                    fmt::format("{:.4f} in² of {:.3f} in² in {} {}: {} %", f.area / squareInch,
                                f.size->area / squareInch, type.name, f.size->name, number(f.used * 100, 1)),
                    f.used <= f.allowed * (1 + 1e-9)
                        ? fmt::format("≤ {} %", number(f.allowed * 100))
                        : fmt::format("{} counts as {}", figures(f.size->area * f.allowed / each), f.conductors),
                    (nipple                             ? book.cite("fillNipple")
                     : f.used <= f.allowed * (1 + 1e-9) ? book.cite("fill")
                                                        : book.cite("fillCount")) +
                        ", " + book.cite("conduit"));
        else
            w->step(
                "Conduit",
                fmt::format("no {} holds {:.3f} in² at {} %", type.name, f.area / squareInch, number(f.allowed * 100)),
                "divide them over more conduits", book.cite("fill"));
    }
    return f;
}

} // namespace lintel
