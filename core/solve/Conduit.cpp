#include "core/solve/Conduit.h"

#include "core/base/Format.h"

#include <fmt/format.h>

namespace lintel {

double allowedFill(int n, const RuleBook& book) { return n <= 1 ? book.tables.fillOne : n == 2 ? book.tables.fillTwo : book.tables.fillMore; }

ConduitFill conduitFor(const ConduitType& type, const std::vector<ConduitConductor>& conductors, const RuleBook& book, Working* w) {
    constexpr double squareInch = 645.16;
    ConduitFill f;
    for (const ConduitConductor& c : conductors) {
        if (c.count <= 0 || c.size < 0) continue;
        const std::string& name = book.sizes()[std::size_t(c.size)].name;
        const auto it = c.insulation->area.find(name);
        if (it == c.insulation->area.end()) {
            f.unknown = true;
            if (w) w->step("Area", fmt::format("{} {} is not in the table", sizeWords(book, c.size), c.insulation->name), "", book.cite("conductorArea"));
            continue;
        }
        f.conductors += c.count;
        f.area += c.count * it->second;
        if (w) w->step("Area", fmt::format("{} × {} {} of {:.4f} in²", c.count, sizeWords(book, c.size), c.insulation->name, it->second / squareInch), fmt::format("{:.4f} in²", c.count * it->second / squareInch), book.cite("conductorArea"));
    }
    f.allowed = allowedFill(f.conductors, book);
    if (f.unknown || f.conductors == 0) return f;
    for (const ConduitSize& s : type.sizes) {
        if (s.name == "3/8" || f.area > s.area * f.allowed * (1 + 1e-9)) continue;
        f.size = &s;
        f.used = f.area / s.area;
        break;
    }
    if (w) {
        if (f.size) w->step("Conduit", fmt::format("{:.4f} in² of {:.3f} in² in {} {}: {} %", f.area / squareInch, f.size->area / squareInch, type.name, f.size->name, number(f.used * 100, 1)),
                    fmt::format("≤ {} %", number(f.allowed * 100)), book.cite("fill") + ", " + book.cite("conduit"));
        else w->step("Conduit", fmt::format("no {} holds {:.3f} in² at {} %", type.name, f.area / squareInch, number(f.allowed * 100)), "divide them over more conduits", book.cite("fill"));
    }
    return f;
}

} // namespace lintel
