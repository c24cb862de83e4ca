#include "core/sheets/PlanLegend.h"

#include "core/drawing/TextWidth.h"
#include "core/figures/Words.h"
#include "core/plan/KeyedNotes.h"
#include "core/project/Equipment.h"
#include "core/sheets/Symbols.h"

#include <algorithm>
#include <map>
#include <set>

namespace lintel {
namespace {

/// Text and symbols in a column, piece by piece.
class Legend {
public:
    Legend(const SheetInput& input, const LegendOf& shown, double columnWidth)
        : in(input), of(shown), width(columnWidth) {}

    std::vector<LegendPiece> make() {
        notes();
        heading("Legend");
        for (const auto& [symbol, names] : symbols())
            entry(names, [symbol = symbol](Drawing& d, Point at) { drawSymbol(d, symbol, at, 0, Ink::Ink, 4.6); });
        if (anyBoard(false))
            entry("Panelboard or switchboard",
                  [](Drawing& d, Point at) { d.fill(at.x - 4, at.y - 1.4, 8, 2.8, Ink::Ink); });
        if (anyBoard(true))
            entry("Meter, switch or the like in a feeder",
                  [](Drawing& d, Point at) { d.box(at.x - 4, at.y - 1.4, 8, 2.8, 0.4); });
        if (anyTransformer())
            entry("Transformer", [](Drawing& d, Point at) {
                for (double x : {-1.2, 1.2}) d.marks.push_back(CircleMark{at + Point{x, 0}, 2, 0.35, Ink::Ink, false});
            });
        if (anyCircuit())
            entry("Home run to its board: a tick for each line, a long one for the neutral", [](Drawing& d, Point at) {
                d.line(at + Point{-4.5, 0}, at + Point{4, 0}, 0.35);
                d.path({at + Point{2.4, -1}, at + Point{4.5, 0}, at + Point{2.4, 1}}, 0.35);
                d.line(at + Point{-1.6, 1.2}, at + Point{-0.8, -1.2}, 0.35);
                d.line(at + Point{-0.4, 2}, at + Point{0.8, -2}, 0.35);
            });
        if (of.level && of.system != PlanSystem::Lighting) notOnPlan();
        return std::move(pieces);
    }

private:
    const SheetInput& in;
    const LegendOf& of;
    double width;
    std::vector<LegendPiece> pieces{};
    static constexpr double size = 3.2, step = 4.3, symbolRoom = 14;

    void heading(const std::string& words) {
        pieces.push_back({11,
                          [words](Drawing& d, Point at) {
                              d.text({at.x, at.y + 8}, words, 4.6, Align::Left, true);
                          },
                          true});
    }
    /// A mark with words beside it, each line of them at its own height.
    void entry(const std::string& words, std::function<void(Drawing&, Point)> draw) {
        const auto lines = wrapText(words, width - symbolRoom, size);
        const double height = std::max(8.0, step * double(lines.size()) + 2);
        pieces.push_back({height, [lines, height, draw = std::move(draw)](Drawing& d, Point at) {
                              draw(d, at + Point{5, height / 2});
                              double base = at.y + height / 2 + 1.1 - step * double(lines.size() - 1) / 2;
                              for (const std::string& line : lines) {
                                  d.text({at.x + symbolRoom, base}, line, size);
                                  base += step;
                              }
                          }});
    }
    /// Line by line, so that a long one goes on in the next column; `mark` stands beside the first.
    void paragraph(const std::string& words, double indent, const std::function<void(Drawing&, Point)>& mark) {
        const auto lines = wrapText(words, width - indent, size);
        const double space = mark ? 2.6 : 0; // above the first, so that two marks stand apart
        for (std::size_t i = 0; i < lines.size(); ++i)
            pieces.push_back({step + (i == 0 ? space : 0),
                              [line = lines[i], indent, above = i == 0 ? space : 0,
                               first = i == 0 ? mark : std::function<void(Drawing&, Point)>()](Drawing& d, Point at) {
                                  if (first) first(d, at + Point{5, above + 2});
                                  d.text({at.x + indent, at.y + above + 3.1}, line, size);
                              }});
    }
    void notes() {
        if (!of.level) return;
        const NoteOn plan = of.system == PlanSystem::Lighting ? NoteOn::Lighting
                            : of.system == PlanSystem::Power  ? NoteOn::Power
                                                              : NoteOn::All;
        const auto all = keyedNotes(in.project, of.level, plan);
        if (all.empty()) return;
        heading("Keyed notes");
        for (const NumberedNote& n : all)
            paragraph(n.text, symbolRoom,
                      [number = n.number](Drawing& d, Point at) { drawKeyedNote(d, at, number, 2.9); });
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
            names += (names.empty() ? "" : "; ") + (type.mark.empty() ? "" : type.mark + " ") + type.name;
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
        std::vector<char> drawn(in.project.circuits.highest() + 1, 0);
        for (const Device& x : in.project.devices) drawn[x.circuit.value] = 1;
        bool first = true;
        for (const Board& b : in.project.boards) {
            if (!b.standsOn(of.level)) continue;
            std::vector<const Circuit*> missing;
            for (CircuitId id : in.results.on(b.id)) {
                const Circuit& c = in.project.circuits[id];
                if (c.use == CircuitUse::Load && c.slot > 0 && !in.results.of(id).feeder && !drawn[id.value])
                    missing.push_back(&c);
            }
            if (missing.empty()) continue;
            std::sort(missing.begin(), missing.end(),
                      [](const Circuit* x, const Circuit* z) { return x->slot < z->slot; });
            if (first) heading("Circuits not on a plan");
            first = false;
            std::string places;
            for (const Circuit* c : missing) places += (places.empty() ? "" : ", ") + placeWords(b, *c);
            paragraph(b.name + ": " + places, 0, {});
        }
    }
};

} // namespace

std::vector<LegendPiece> legendPieces(const SheetInput& in, const LegendOf& of, double width) {
    return Legend(in, of, width).make();
}

std::size_t legendFits(const std::vector<LegendPiece>& pieces, std::size_t from, double height) {
    double used = 0;
    for (std::size_t next = from; next < pieces.size(); ++next) {
        double needed = pieces[next].height;
        if (pieces[next].heading && next + 1 < pieces.size()) needed += pieces[next + 1].height;
        if (used + needed > height && next > from) return next;
        used += pieces[next].height;
    }
    return pieces.size();
}

LegendDrawn drawLegend(Drawing& sheet, const std::vector<LegendPiece>& pieces, std::size_t from,
                       const LegendColumn& column) {
    const std::size_t end = legendFits(pieces, from, column.bottom - column.top);
    double y = column.top;
    for (std::size_t i = from; i < end; ++i) {
        pieces[i].draw(sheet, {column.left, y});
        y += pieces[i].height;
    }
    return {end, y};
}

double planLegend(Drawing& sheet, const SheetInput& in, const LegendOf& of, const LegendColumn& column) {
    return drawLegend(sheet, legendPieces(in, of, column.right - column.left), 0, column).bottom;
}

} // namespace lintel
