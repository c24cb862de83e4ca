#include "core/sheets/PlanLegend.h"

#include "core/drawing/TextWidth.h"
#include "core/figures/Words.h"
#include "core/project/Equipment.h"
#include "core/sheets/Symbols.h"

#include <algorithm>
#include <map>
#include <set>

namespace lintel {
namespace {

/// Text and symbols in a column, from its top down.
class Legend {
public:
    Legend(Drawing& sheet, const SheetInput& input, const LegendOf& shown, const LegendColumn& place)
        : d(sheet), in(input), of(shown), column(place), y(place.top) {}

    double draw() {
        heading("Legend");
        for (const auto& [symbol, names] : symbols())
            entry(names, [&, symbol = symbol](Point at) { drawSymbol(d, symbol, at, 0, Ink::Ink, 4.6); });
        if (anyBoard(false))
            entry("Panelboard or switchboard", [&](Point at) { d.fill(at.x - 4, at.y - 1.4, 8, 2.8, Ink::Ink); });
        if (anyBoard(true))
            entry("Meter, switch or the like in a feeder", [&](Point at) { d.box(at.x - 4, at.y - 1.4, 8, 2.8, 0.4); });
        if (anyTransformer())
            entry("Transformer", [&](Point at) {
                for (double x : {-1.2, 1.2}) d.marks.push_back(CircleMark{at + Point{x, 0}, 2, 0.35, Ink::Ink, false});
            });
        if (anyCircuit())
            entry("Home run to its board: a tick for each line, a long one for the neutral", [&](Point at) {
                d.line(at + Point{-4.5, 0}, at + Point{4, 0}, 0.35);
                d.path({at + Point{2.4, -1}, at + Point{4.5, 0}, at + Point{2.4, 1}}, 0.35);
                d.line(at + Point{-1.6, 1.2}, at + Point{-0.8, -1.2}, 0.35);
                d.line(at + Point{-0.4, 2}, at + Point{0.8, -2}, 0.35);
            });
        if (of.level && of.system != PlanSystem::Lighting) notOnPlan();
        return y;
    }

private:
    Drawing& d;
    const SheetInput& in;
    const LegendOf& of;
    const LegendColumn& column;
    double y;
    static constexpr double size = 3.2, step = 4.3, symbolRoom = 14;

    void heading(const std::string& words) {
        y += 8;
        d.text({column.left, y}, words, 4.6, Align::Left, true);
        y += 3;
    }
    template <class Draw> void entry(const std::string& words, Draw draw) {
        const auto lines = wrapText(words, column.right - column.left - symbolRoom, size);
        const double height = std::max(8.0, step * double(lines.size()) + 2);
        draw(Point{column.left + 5, y + height / 2});
        double base = y + height / 2 + 1.1 - step * double(lines.size() - 1) / 2;
        for (const std::string& line : lines) {
            d.text({column.left + symbolRoom, base}, line, size);
            base += step;
        }
        y += height;
    }
    bool counts(const Device& x) const {
        if (of.level && x.level != of.level) return false;
        const bool lighting = in.project.deviceTypes[x.type].kind == LoadKind::Lighting;
        return of.system == PlanSystem::All || lighting == (of.system == PlanSystem::Lighting);
    }
    bool stands(const Board& b) const {
        return of.level ? b.standsOn(of.level)
                        : std::any_of(in.project.levels.begin(), in.project.levels.end(),
                                      [&](const Level& l) { return b.standsOn(l.id); });
    }
    /// What stands on the sheet, by symbol: all types that are drawn by it.
    std::map<Symbol, std::string> symbols() const {
        std::set<DeviceTypeId> types;
        for (const Device& x : in.project.devices)
            if (counts(x)) types.insert(x.type);
        std::map<Symbol, std::string> out;
        for (DeviceTypeId id : types) {
            const DeviceType& type = in.project.deviceTypes[id];
            std::string& names = out[type.symbol];
            names += (names.empty() ? "" : "; ") + type.name;
        }
        return out;
    }
    bool anyBoard(bool passing) const {
        return std::any_of(in.project.boards.begin(), in.project.boards.end(),
                           [&](const Board& b) { return stands(b) && passesOn(b.use) == passing; });
    }
    bool anyTransformer() const {
        return std::any_of(in.project.transformers.begin(), in.project.transformers.end(),
                           [&](const Transformer& t) { return t.onPlan && (!of.level || t.level == of.level); });
    }
    bool anyCircuit() const {
        return std::any_of(in.project.devices.begin(), in.project.devices.end(),
                           [&](const Device& x) { return x.circuit && counts(x); });
    }
    /// Circuits of boards on this floor of whose loads nothing is drawn anywhere: a reader would look for them.
    void notOnPlan() {
        std::set<CircuitId> drawn;
        for (const Device& x : in.project.devices) drawn.insert(x.circuit);
        bool first = true;
        for (const Board& b : in.project.boards) {
            if (!b.standsOn(of.level)) continue;
            std::vector<const Circuit*> missing;
            for (CircuitId id : in.results.on(b.id)) {
                const Circuit& c = in.project.circuits[id];
                if (c.use == CircuitUse::Load && c.slot > 0 && !in.results.of(id).feeder && !drawn.count(id))
                    missing.push_back(&c);
            }
            if (missing.empty()) continue;
            std::sort(missing.begin(), missing.end(),
                      [](const Circuit* x, const Circuit* z) { return x->slot < z->slot; });
            if (first) heading("Circuits not on a plan"), y += 3;
            first = false;
            std::string places;
            for (const Circuit* c : missing) places += (places.empty() ? "" : ", ") + placeWords(b, *c);
            for (const std::string& line : wrapText(b.name + ": " + places, column.right - column.left, size)) {
                d.text({column.left, y}, line, size);
                y += step;
            }
        }
    }
};

} // namespace

double planLegend(Drawing& sheet, const SheetInput& in, const LegendOf& of, const LegendColumn& column) {
    return Legend(sheet, in, of, column).draw();
}

} // namespace lintel
