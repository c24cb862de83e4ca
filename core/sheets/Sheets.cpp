#include "core/sheets/Sheets.h"

#include "core/sheets/Words.h"

#include <fmt/format.h>

namespace lintel {

void footStrip(Drawing& d, const SheetInput& in, double m) {
    const Basis& b = in.project.basis;
    const double y = d.height - m - 4;
    d.line({m, y}, {d.width - m, y}, 0.35);
    std::string left = fmt::format("{} · branch {}, feeders {}, {} °C insulation, {} °C ambient", in.book.title, wordOf(b.branchMaterial), wordOf(b.feederMaterial), b.insulation, b.ambient);
    if (!b.demandFactors.empty()) left += " · demand factors of the project's own";
    if (!in.book.unverified().empty()) left += " · rule book with points not yet verified";
    d.text({m, y + 3.6}, left, 2.3, Align::Left, false, Ink::Quiet, (d.width - 2 * m) * 0.68);
    d.text({d.width - m, y + 3.6}, (d.number.empty() ? "" : "Sheet " + d.number + " · ") + d.title, 2.3, Align::Right, false, Ink::Quiet);
}

std::vector<SheetEntry> sheetSet(const SheetInput& in) {
    std::vector<SheetEntry> set;
    const auto safe = [](std::string s) {
        for (char& c : s)
            if (!std::isalnum(static_cast<unsigned char>(c)) && c != '-' && c != '_') c = '_';
        return s;
    };
    if (!in.project.boards.empty()) set.push_back({"E-501", "Riser diagram", "", "E-501_riser", [&in] { return riserDiagram(in, "E-501"); }});
    int n = 101;
    for (const Level& l : in.project.levels) {
        const bool drawn = std::any_of(in.project.walls.begin(), in.project.walls.end(), [&](const Wall& w) { return w.level == l.id; }) ||
                           std::any_of(in.project.devices.begin(), in.project.devices.end(), [&](const Device& x) { return x.level == l.id; });
        if (!drawn) continue;
        const std::string number = fmt::format("E-{}", n++);
        set.push_back({number, l.name + " plan", "ARCH D", number + "_" + safe(l.name), [&in, id = l.id, number] { return planSheet(in, id, number); }});
    }
    n = 601;
    std::vector<const Board*> boards;
    for (const Board& b : in.project.boards) boards.push_back(&b);
    std::sort(boards.begin(), boards.end(), [](const Board* x, const Board* y) { return x->name < y->name; });
    for (const Board* b : boards) {
        const std::string number = fmt::format("E-{}", n++);
        set.push_back({number, "Panel schedule " + b->name, schedulePaper(*b), number + "_" + safe(b->name), [&in, id = b->id, number] { return panelSchedule(in, id, number); }});
    }
    return set;
}

} // namespace lintel
