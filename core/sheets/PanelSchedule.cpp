#include "core/base/Format.h"
#include "core/project/Operations.h"
#include "core/sheets/Sheets.h"
#include "core/sheets/Words.h"
#include "core/solve/PhaseLoads.h"
#include "core/solve/RunParts.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double margin = 11;

/// A side of the table: where its columns begin. On the right everything is mirrored.
struct Side {
    bool mirrored;
    double outer;                 ///< the edge of the table
    double ckt, breaker, serves, wire, va; ///< distances of the columns' outer edges from it
    double inner;                 ///< distance of the column of phase letters
    double phase;                 ///< width of one phase column
    double x(double distance) const { return mirrored ? outer - distance : outer + distance; }
};

struct Writer {
    const SheetInput& in;
    const Board& b;
    const BoardResult& r;
    Drawing d;
    int lines;
    double y = 0;

    void fact(double x, double top, const std::string& label, const std::string& value, double within) {
        d.text({x, top}, label, 2.3, Align::Left, false, Ink::Quiet);
        d.text({x, top + 4.1}, value, 2.9, Align::Left, false, Ink::Ink, within);
    }

    void titleStrip() {
        const Basis& basis = in.project.basis;
        d.text({margin, 14}, b.use == BoardUse::Switchboard ? "SWITCHBOARD SCHEDULE" : "PANEL SCHEDULE", 3.2, Align::Left, true);
        std::string right = basis.title;
        if (!basis.jobNumber.empty()) right += " · " + basis.jobNumber;
        right += " · issue " + basis.issue;
        if (!basis.issueDate.empty()) right += " · " + basis.issueDate;
        d.text({d.width - margin, 14}, right, 2.7, Align::Right);
        d.line({margin, 16.5}, {d.width - margin, 16.5}, 0.5);
        d.text({margin, 27}, b.name, 8.4, Align::Left, true, Ink::Ink, 34);
        d.text({margin, 34}, b.description, 2.5, Align::Left, false, Ink::Quiet, 34);
        const double x1 = margin + 38, x2 = x1 + 50, x3 = x2 + 52;
        fact(x1, 21, "Voltage", systemWords(b.system), 46);
        fact(x2, 21, "Bus / main", fmt::format("{} A / {}", number(b.bus), b.main > 0 ? number(b.main) + " A breaker" : "lugs only"), 48);
        fact(x3, 21, "Rating · fault level here", r.fault.known ? fmt::format("{} kA · {} kA", figures(b.ratingKA), figures(r.fault.worst())) : fmt::format("{} kA · not known", figures(b.ratingKA)), 52);
        std::string from = r.parent ? nameOf(in.project, r.parent) : "nothing";
        if (r.via) from = nameOf(in.project, r.via);
        if (auto* t = in.project.transformers.find(r.parent.as<Transformer>())) from += fmt::format(" ({} kVA)", rating(t->kva));
        fact(x1, 30, "Fed from", from, 46);
        const RunParts parts = partsOf(in.project, in.book, in.results, b.id);
        const std::string conduit = parts.conduit.size ? fmt::format(" in {} {}″", parts.conduitType, parts.conduit.size->name) : "";
        fact(x2, 30, "Feeder", r.parent ? conductorWords(r.run, in.book) + conduit + (r.run.need.lengthKnown ? " · " + lengthWords(r.run.need.length, in.project.basis.units) : "") : "–", 49);
        std::string where;
        if (const Level* l = in.project.levels.find(b.level)) {
            where = l->name;
            if (const RoomId room = roomAt(in.project, b.level, b.at)) where = nameOf(in.project, room) + ", " + where;
        }
        fact(x3, 30, "Location", where.empty() ? "–" : where, 52);
        y = 39;
    }

    Side side(bool mirrored, bool alone) const {
        const double half = (d.width - 2 * margin) / (alone ? 1 : 2), centre = alone ? 9 : 4.5;
        Side s{mirrored, mirrored ? d.width - margin : margin, 0, 8.5, 17.5, 0, 0, half - centre, alone ? 15.0 : 10.4};
        s.va = s.inner - lines * s.phase;
        s.wire = s.va - 11;
        s.serves = 17.5;
        return s;
    }

    void heading(const Side& s, double h) {
        const double base = y + h * 0.66;
        const auto mid = [&](double a, double c) { return (s.x(a) + s.x(c)) / 2; };
        d.text({mid(0, s.breaker), base}, "Ckt", 2.4, Align::Centre, true);
        d.text({mid(s.breaker, s.serves), base}, "Brkr", 2.4, Align::Centre, true);
        d.text({s.x(s.serves + 1.4), base}, "Serves", 2.4, s.mirrored ? Align::Right : Align::Left, true);
        d.text({mid(s.wire, s.va), base}, "Wire", 2.4, Align::Centre, true);
        for (int i = 0; i < lines; ++i) d.text({vaRight(s, i), base}, lineName(i, b), 2.4, Align::Right, true);
    }
    /// Right edge of the figures of a phase: A to C from left to right on both sides.
    double vaRight(const Side& s, int line) const {
        const double left = s.mirrored ? s.x(s.inner) : s.x(s.va);
        return left + (line + 1) * s.phase - 1.3;
    }

    void circuit(const Side& s, double top, double h, int rows, const Circuit& c) {
        const CircuitResult& cr = in.results.of(c.id);
        const bool spare = c.use == CircuitUse::Spare;
        const double base = top + rows * h / 2 + 0.95;
        const auto mid = [&](double a, double z) { return (s.x(a) + s.x(z)) / 2; };
        d.text({mid(0, s.breaker), base}, std::to_string(c.slot), 2.5, Align::Centre);
        d.text({mid(s.breaker, s.serves), base}, breakerWords(cr.device, c.poles), 2.5, Align::Centre, true);
        d.text({s.x(s.serves + 1.4), base}, servesWords(in.project, in.results, c.id), 2.5, s.mirrored ? Align::Right : Align::Left, false, spare ? Ink::Quiet : Ink::Ink, s.wire - s.serves - 2.4);
        if (spare) d.lastText()->italic = true;
        if (!spare) {
            const RunResult* run = in.results.run(c.id);
            if (run && run->size >= 0) d.text({mid(s.wire, s.va), base}, sizeShort(*run), 2.4, Align::Centre, false, Ink::Ink, s.va - s.wire - 1);
        }
        for (int i = 0; i < c.poles; ++i) {
            const int line = cr.lines[std::size_t(i)];
            if (line < 0) continue;
            const double va = cr.feeder || !cr.placed ? cr.phaseVa[std::size_t(line)] : cr.va / c.poles;
            d.text({vaRight(s, line), top + (i + 0.5) * h + 0.95}, number(va), 2.5, Align::Right, false, spare ? Ink::Quiet : Ink::Ink, s.phase - 1.6);
        }
        d.hotspots.push_back({c.id, std::min(s.x(0), s.x(s.inner)), top, std::max(s.x(0), s.x(s.inner)), top + rows * h});
    }
    std::string sizeShort(const RunResult& run) const {
        std::string w = sizeOf(run, in.book);
        if (const auto k = w.find(" kcmil"); k != std::string::npos) w.erase(k);
        return w;
    }

    /// What the load tally and the first notes take below the table, mm.
    double below() const {
        const auto kinds = std::count_if(r.kinds.begin(), r.kinds.end(), [](const KindSum& k) { return k.p != 0 || k.q != 0; });
        const double right = 7 + lines * 4.6 + 4 * 4.4;
        return 60 + std::max(double(kinds) * 4.4, right - 14) + std::min<std::size_t>(noteList().size(), 8) * 4.2;
    }

    void table() {
        const bool two = b.form == BoardForm::TwoColumn;
        const int rows = two ? (b.slots + 1) / 2 : b.slots;
        const double head = 5.6, h = std::clamp((d.height - y - below()) / std::max(rows, 1), 3.1, 5.6);
        const std::vector<Side> sides = two ? std::vector{side(false, false), side(true, false)} : std::vector{side(false, true)};
        const double left = margin, right = d.width - margin, top = y + head, bottom = top + rows * h;
        d.fill(left, y, right - left, head, Ink::Band);
        const double c1 = sides[0].x(sides[0].inner), c2 = two ? sides[1].x(sides[1].inner) : right;
        for (const Side& s : sides) heading(s, head);
        d.text({(c1 + c2) / 2, y + head * 0.66}, "φ", 2.4, Align::Centre, true);
        const auto map = slotMap(in.project, b.id);
        for (const Side& s : sides) {
            for (double x : {s.breaker, s.serves, s.wire, s.va}) d.line({s.x(x), y}, {s.x(x), bottom}, 0.12, Ink::Rule);
            for (int i = 1; i < lines; ++i) {
                const double x = (s.mirrored ? s.x(s.inner) : s.x(s.va)) + i * s.phase;
                d.line({x, y}, {x, bottom}, 0.12, Ink::Faint);
            }
        }
        for (int row = 0; row < rows; ++row) {
            const double ry = top + row * h;
            const int slotLeft = two ? 2 * row + 1 : row + 1;
            d.text({(c1 + c2) / 2, ry + h / 2 + 0.9}, lineName(lineOfSlot(b, slotLeft), b), 2.4, Align::Centre, true, Ink::Quiet);
            for (std::size_t k = 0; k < sides.size(); ++k) {
                const Side& s = sides[k];
                const int slot = slotLeft + int(k);
                if (slot > b.slots) continue;
                const Circuit* c = in.project.circuits.find(map[std::size_t(slot)]);
                const bool goesOn = c && slot > c->slot;
                if (!goesOn) d.line({s.x(0), ry}, {s.x(s.inner), ry}, 0.18, Ink::Rule);
                else d.line({s.x(s.va), ry}, {s.x(s.inner), ry}, 0.1, Ink::Faint);
                if (!c) {
                    d.text({(s.x(0) + s.x(s.breaker)) / 2, ry + h / 2 + 0.95}, std::to_string(slot), 2.5, Align::Centre, false, Ink::Quiet);
                    d.text({s.x(s.serves + 1.4), ry + h / 2 + 0.95}, "Space", 2.5, s.mirrored ? Align::Right : Align::Left, false, Ink::Quiet);
                    d.lastText()->italic = true;
                } else if (c->slot == slot) {
                    circuit(s, ry, h, std::min(c->poles, rows - row), *c);
                }
            }
        }
        d.box(left, y, right - left, bottom - y, 0.5);
        d.line({left, top}, {right, top}, 0.35);
        d.line({c1, y}, {c1, bottom}, 0.35);
        if (two) d.line({c2, y}, {c2, bottom}, 0.35);
        y = bottom;
    }

    void tally() {
        const double x = margin, w = 118;
        y += 8;
        double ty = y;
        d.text({x, ty}, "Load tally", 3, Align::Left, true);
        d.line({x, ty + 2}, {x + w, ty + 2}, 0.35);
        ty += 6;
        const double c1 = x + 56, c2 = x + 76, c3 = x + 96;
        d.text({x, ty}, "Kind", 2.3, Align::Left, true, Ink::Quiet);
        d.text({c1, ty}, "Connected kVA", 2.3, Align::Right, true, Ink::Quiet);
        d.text({c2, ty}, "Demand", 2.3, Align::Right, true, Ink::Quiet);
        d.text({c3, ty}, "Demand kVA", 2.3, Align::Right, true, Ink::Quiet);
        d.text({c3 + 4, ty}, "Rule", 2.3, Align::Left, true, Ink::Quiet);
        for (std::size_t i = 0; i < loadKinds; ++i) {
            const KindSum& k = r.kinds[i];
            if (k.p == 0 && k.q == 0) continue;
            ty += 4.4;
            d.text({x, ty}, titleOf(LoadKind(i)), 2.5);
            d.text({c1, ty}, kilo(k.va()), 2.5, Align::Right);
            d.text({c2, ty}, number(k.va() > 0 ? r.demandByKind[i] / k.va() * 100 : 0) + " %", 2.5, Align::Right);
            d.text({c3, ty}, kilo(r.demandByKind[i]), 2.5, Align::Right);
            const bool own = in.project.basis.demandFactors.count(wordOf(LoadKind(i))) > 0;
            d.text({c3 + 4, ty}, own ? "project" : in.book.demand(LoadKind(i), in.project.basis.occupancy).table, 2.3, Align::Left, false, Ink::Quiet);
            d.line({x, ty + 1.4}, {x + w, ty + 1.4}, 0.1, Ink::Faint);
        }
        ty += 4.6;
        d.line({x, ty - 3.2}, {x + w, ty - 3.2}, 0.3);
        d.text({x, ty}, "Total", 2.5, Align::Left, true);
        d.text({c1, ty}, kilo(r.connected), 2.5, Align::Right, true);
        d.text({c3, ty}, kilo(r.demand), 2.5, Align::Right, true);
        d.line({x, ty + 1.6}, {x + w, ty + 1.6}, 0.3);
        double kinds = 0;
        for (double v : r.demandByKind) kinds += v;
        if (kinds > r.demand * 1.002) { // a checker who adds the column up should not have to wonder
            ty += 4.6;
            d.text({x, ty}, "Totals add real and reactive power apart: less than the sum of the kVA.", 2.2, Align::Left, false, Ink::Quiet);
        }
        const double end = ty;

        const double px = x + w + 11, pr = d.width - margin;
        ty = y;
        d.text({px, ty}, "Phases", 3, Align::Left, true);
        d.line({px, ty + 2}, {pr, ty + 2}, 0.35);
        ty += 7;
        const double most = std::max(1.0, *std::max_element(r.phaseVa.begin(), r.phaseVa.end()));
        for (int i = 0; i < lines; ++i) {
            const std::size_t k = std::size_t(i);
            d.text({px, ty}, lineName(i, b), 2.6, Align::Left, true);
            d.fill(px + 5, ty - 2, (pr - px - 40) * r.phaseVa[k] / most, 2.2, i == 0 ? Ink::PhaseA : i == 1 ? Ink::PhaseB : Ink::PhaseC);
            d.text({pr, ty}, fmt::format("{} kVA · {} A", kilo(r.phaseVa[k]), number(r.phaseAmps[k])), 2.5, Align::Right);
            ty += 4.6;
        }
        ty += 1.5;
        const auto row = [&](const char* label, const std::string& value) {
            d.text({px, ty}, label, 2.4, Align::Left, false, Ink::Quiet);
            d.text({pr, ty}, value, 2.5, Align::Right);
            ty += 4.4;
        };
        row("Demand", fmt::format("{} kVA · {} A", kilo(r.demand), number(r.demandAmps.v)));
        std::size_t heavy = 0;
        for (std::size_t i = 1; i < std::size_t(lines); ++i)
            if (r.phaseVa[i] > r.phaseVa[heavy]) heavy = i;
        if (lines > 1) row("Imbalance", percent(r.imbalance) + (r.imbalance >= 0.05 ? ", heavy on " + lineName(int(heavy), b) : ""));
        if (factsOf(b.system).lineNeutral.v > 0) row("Neutral", figures(r.neutralAmps) + " A");
        int spares = 0;
        for (const Circuit& c : in.project.circuits)
            if (c.board == b.id && c.use == CircuitUse::Spare) ++spares;
        const int spaces = freeSlots(in.project, b.id);
        row("Spare", fmt::format("{} {}, {} {}", spares, spares == 1 ? "breaker" : "breakers", spaces, spaces == 1 ? "space" : "spaces"));
        y = std::max(end, ty - 4.4);
    }

    std::vector<std::string> noteList() const {
        std::vector<std::string> list;
        std::string ground;
        std::vector<const Circuit*> here;
        for (const Circuit& c : in.project.circuits)
            if (c.board == b.id) here.push_back(&c);
        std::sort(here.begin(), here.end(), [](const Circuit* x, const Circuit* z) { return x->slot < z->slot; });
        for (const Circuit* c : here)
            if (c->groundFault) ground += (ground.empty() ? "" : ", ") + std::to_string(c->slot);
        if (!ground.empty()) list.push_back((ground.find(',') == std::string::npos ? "Circuit " : "Circuits ") + ground + ": ground-fault protected.");
        std::map<int, std::string> groups;
        for (const Circuit* c : here)
            if (c->multiwire) groups[c->multiwire] += (groups[c->multiwire].empty() ? "" : ", ") + std::to_string(c->slot);
        for (const auto& [group, slots] : groups) list.push_back("Circuits " + slots + ": share a neutral and are opened together.");
        for (const Circuit* c : here) {
            if (c->arcFault) list.push_back(fmt::format("Circuit {}: arc-fault protected.", c->slot));
            if (!c->unprotected.empty()) list.push_back(fmt::format("Circuit {}: {}.", c->slot, c->unprotected));
            if (c->device != DeviceKind::Breaker) list.push_back(fmt::format("Circuit {}: {}.", c->slot, wordOf(c->device)));
            const RunResult* run = in.results.run(c->id);
            if (!run || run->size < 0 || c->use == CircuitUse::Spare) continue;
            if (run->why == Governing::VoltageDrop)
                list.push_back(fmt::format("Circuit {}: raised from {} to {} for voltage drop ({}, {} own, {} total){}.", c->slot, sizeWords(in.book, run->sizeForAmpacity), sizeWords(in.book, run->size),
                                           lengthWords(run->need.length, in.project.basis.units), percent(run->dropOwn), percent(run->dropTotal), run->groundRaised ? "; ground raised in proportion" : ""));
            if (run->state == Sizing::PastCeiling)
                list.push_back(fmt::format("Circuit {}: {} own, {} total drop at {}, over its limit and past the upsizing ceiling: feed it from nearer.", c->slot, percent(run->dropOwn), percent(run->dropTotal), lengthWords(run->need.length, in.project.basis.units)));
            if (run->state == Sizing::Held) list.push_back(fmt::format("Circuit {}: {} held by the designer.", c->slot, sizeOf(*run, in.book)));
            if (!c->note.empty()) list.push_back(fmt::format("Circuit {}: {}", c->slot, c->note));
        }
        return list;
    }

    void notes() {
        const std::vector<std::string> list = noteList();
        if (list.empty()) return;
        y += 8;
        d.text({margin, y}, "Notes", 3, Align::Left, true);
        d.line({margin, y + 2}, {d.width - margin, y + 2}, 0.35);
        y += 6;
        const double end = d.height - margin - 7;
        for (std::size_t i = 0; i < list.size(); ++i) {
            if (y + 4 > end && i + 1 < list.size()) {
                d.text({margin, y}, fmt::format("and {} more: see the run schedule.", list.size() - i), 2.5);
                break;
            }
            d.text({margin, y}, fmt::format("{}  {}", i + 1, list[i]), 2.5, Align::Left, false, Ink::Ink, d.width - 2 * margin);
            y += 4.2;
        }
    }
};

} // namespace

const char* schedulePaper(const Board& b) { return (b.form == BoardForm::TwoColumn ? (b.slots + 1) / 2 : b.slots) > 32 ? "Legal" : "Letter"; }

Drawing panelSchedule(const SheetInput& in, BoardId id, const std::string& number) {
    const Board& b = in.project.boards[id];
    Writer w{in, b, in.results.of(id), {}, factsOf(b.system).lines};
    w.d.title = b.name;
    w.d.number = number;
    w.d.paper = schedulePaper(b);
    if (w.d.paper == "Legal") w.d.height = 355.6;
    w.titleStrip();
    w.table();
    w.tally();
    w.notes();
    footStrip(w.d, in, margin);
    return w.d;
}

} // namespace lintel
