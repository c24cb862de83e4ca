// Voltage drop over its limit: past the upsizing ceiling, or at a held size.

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/WhatHelps.h"
#include "core/project/Operations.h"
#include "core/route/Measure.h"
#include "core/solve/Procedure.h"

#include <fmt/format.h>

#include <optional>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, Ref about, const RunResult& r, std::vector<Snag>& into) {
    if (r.size < 0 || !r.need.lengthKnown) return;
    const bool own = r.dropOwn > r.need.ownLimit + 1e-9, total = r.dropTotal > r.need.totalLimit + 1e-9;
    if (!own && !total) return;
    const std::string name = nameOfRun(in.project, about);
    // Close to its limit two decimals say what one would hide.
    const auto lost = [](double is, double limit) {
        return is - limit < 0.1 ? fmt::format("{:.2f} %", is) : percent(is);
    };
    std::string text =
        own ? fmt::format("{}: {} lost, limit {} %", name, lost(r.dropOwn, r.need.ownLimit), figures(r.need.ownLimit))
            : fmt::format("{}: {} lost from the source, limit {} %", name, lost(r.dropTotal, r.need.totalLimit),
                          figures(r.need.totalLimit));
    if (r.state != Sizing::PastCeiling && r.longest.v > 0)
        text += fmt::format(", {} {} too long",
                            number(in.project.basis.units == UnitSystem::Imperial ? inFeet(r.need.length - r.longest)
                                                                                  : (r.need.length - r.longest).v,
                                   1),
                            in.project.basis.units == UnitSystem::Imperial ? "ft" : "m");
    if (r.state != Sizing::PastCeiling && own && !someSizeKeepsOwnDrop(r, in.book))
        text += ", and no size keeps the limit: feed it from nearer";
    if (r.state == Sizing::PastCeiling)
        text += fmt::format(", and {} up is the ceiling: feed it from nearer",
                            counted(in.project.basis.upsizingCeiling, "size"));
    into.push_back({&self, r.state == Sizing::PastCeiling ? Severity::Stop : Severity::Check, about, text,
                    in.book.cite(r.need.feeder ? "dropFeeder" : "dropBranch")});
}

/// Boards of the same voltage that stand nearer to what hangs on a circuit and have a place for it, the nearest first,
/// with what it would lose there. Only those where that is within its limits.
void feedFromNearer(const CheckInput& in, const Circuit& c, const RunResult& r, std::vector<Remedy>& out) {
    const Board& own = in.project.boards[c.board];
    std::vector<const Device*> devices;
    for (const Device& d : in.project.devices)
        if (d.circuit == c.id) devices.push_back(&d);
    if (devices.empty()) return;
    struct Nearer {
        double metres;
        const Board* board;
        MovePlan plan;
        double total;
    };
    std::vector<Nearer> nearer;
    const SizingRules rules = sizingRules(in.project.basis, in.book);
    for (const Board& b : in.project.boards) {
        const BoardResult& there = in.results.of(b.id);
        if (b.id == own.id || b.system != own.system || !b.onPlan || !there.fed) continue;
        const auto m = measureCircuit(in.project, b, {LengthBy::Reach, RouteBy::Auto, nullptr, nullptr}, devices.data(),
                                      devices.size());
        if (!m || m->total >= r.need.length) continue;
        RunResult again;
        again.need = r.need;
        again.need.length = m->total, again.need.totalBefore = there.dropTotal,
        again.need.beforeKnown = there.dropKnown;
        sizeRun(again, rules, in.book);
        if (again.size < 0 || again.dropOwn > again.need.ownLimit + 1e-9 ||
            again.dropTotal > again.need.totalLimit + 1e-9)
            continue;
        nearer.push_back({m->total.v, &b, {}, again.dropTotal});
    }
    std::sort(nearer.begin(), nearer.end(), [](const Nearer& x, const Nearer& y) { return x.metres < y.metres; });
    for (Nearer& n : nearer) {
        n.plan = planMoveTo(in.project, {c.id}, n.board->id);
        if (!n.plan.possible) continue;
        const std::string with =
            n.plan.places.size() > 1 ? fmt::format(" with {} more that go with it", n.plan.places.size() - 1) : "";
        const double unit = in.project.basis.units == UnitSystem::Imperial ? metresPerFoot : 1;
        out.push_back({fmt::format("Feed it from {}{}: {} {}, {} in all", n.board->name, with, number(n.metres / unit),
                                   in.project.basis.units == UnitSystem::Imperial ? "ft" : "m", percent(n.total)),
                       [id = c.id, to = n.board->id](Project& p) { applyMove(p, planMoveTo(p, {id}, to)); },
                       "Feed it from " + n.board->name});
        if (out.size() >= 2) return;
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Ref about = s.about;
    const RunResult& r = *in.results.run(about);
    const auto run = [about](Project& p) -> Run& { return runOf(p, about); };
    // First what brings it nearer to its source, then what lets the program size it, then larger conductors, and at
    // last another judgement.
    if (const Circuit* c = in.project.circuits.find(about.as<Circuit>())) feedFromNearer(in, *c, r, out);
    if (r.state == Sizing::Held) { // where that keeps within the limits
        const RunResult free = freelySized(r, sizingRules(in.project.basis, in.book), in.book);
        if (free.state == Sizing::Sized)
            out.push_back(
                {fmt::format("Let it be sized: {}, {} lost", sizeWords(in.book, free.size), percent(free.dropOwn)),
                 [=](Project& p) {
                     run(p).heldSize.clear();
                     run(p).heldSets = 0;
                 },
                 "Let it be sized"});
    }
    // What is lost before it, where it loses no more itself than it may: feeders above that are held, and a larger
    // feeder of its own board.
    Ref above =
        about.is<Circuit>() ? Ref(in.project.circuits[about.as<Circuit>()].board) : in.results.node(about)->parent;
    const double excess = r.dropOwn > r.need.ownLimit + 1e-9 ? 0 : r.dropTotal - r.need.totalLimit;
    bool first = true;
    for (std::size_t guard = 0; excess > 1e-9 && above && !above.is<Source>() && guard < in.results.order.size();
         ++guard, first = false) {
        const RunResult& feeder = in.results.node(above)->run;
        const std::string name = nameOf(in.project, above);
        if (feeder.state == Sizing::Held) { // where that loses less, as far as the snag tells it
            const RunResult free = freelySized(feeder, sizingRules(in.project.basis, in.book), in.book);
            const double then = r.dropTotal - feeder.dropOwn + free.dropOwn;
            if (then < r.dropTotal && percent(then) != percent(r.dropTotal))
                out.push_back({fmt::format("Let the feeder of {} be sized", name), [above](Project& p) {
                                   runOf(p, above).heldSize.clear();
                                   runOf(p, above).heldSets = 0;
                               }});
        }
        SizeIndex largest = SizeIndex(in.book.sizes().size()) - 1; // that the book has for such a run
        while (feeder.size >= 0 && largest > feeder.size && !canUse(feeder.need, largest, in.book)) --largest;
        for (SizeIndex i = feeder.size + 1; first && feeder.size >= 0 && feeder.need.lengthKnown && i <= largest; ++i) {
            if (!canUse(feeder.need, i, in.book)) continue;
            const double less = feeder.dropOwn - ownDrop(feeder.need, i, feeder.sets, in.book);
            // The first that is enough; where none is, the largest there is, and the snag then says what is still
            // missing.
            const bool enough = less + 1e-9 >= excess, last = i == largest && out.empty();
            if (!enough && !(last && less > 0.05)) continue;
            out.push_back({fmt::format("Hold {} on the feeder of {}: {} in all", sizeWords(in.book, i), name,
                                       percent(r.dropTotal - less)),
                           [above, size = in.book.sizes()[std::size_t(i)].name, sets = feeder.sets](Project& p) {
                               runOf(p, above).heldSize = size;
                               runOf(p, above).heldSets = sets > 1 ? sets : 0;
                           }});
            break;
        }
        above = in.results.node(above)->parent;
    }
    // The size that would do, whatever the ceiling; where too much is lost before it, the one that does its own part:
    // the feeders above are then the next thing to do.
    const bool ownOver = r.dropOwn > r.need.ownLimit + 1e-9;
    std::optional<SizeIndex> i = sizeWithinDrop(r, in.book);
    const bool before = !i && ownOver;
    if (before) i = sizeWithinOwnDrop(r, in.book);
    if (i) {
        const double own = ownDrop(r.need, *i, std::max(1, r.sets), in.book);
        std::string label = fmt::format("Hold {}: {} lost", sizeWords(in.book, *i), percent(own));
        if (before) label += fmt::format(", {} in all", percent(r.need.totalBefore + own));
        out.push_back({label, [=, size = in.book.sizes()[std::size_t(*i)].name, sets = r.sets](Project& p) {
                           run(p).heldSize = size;
                           run(p).heldSets = sets > 1 ? sets : 0;
                       }});
    }
    if (r.need.dropByShare && about.is<Circuit>() && r.need.dropAmps > r.need.load) {
        const double own = r.dropOwn * r.need.load.v / r.need.dropAmps.v;
        if (own <= r.need.ownLimit + 1e-9 && r.need.totalBefore + own <= r.need.totalLimit + 1e-9)
            out.push_back({fmt::format("Judge it on its load, {} A: {} lost; it is told among the assumptions",
                                       figures(r.need.load.v), percent(own)),
                           [=](Project& p) { run(p).dropBasis = DropBasis::Load; }});
    }
    return out;
}

} // namespace

extern const CheckRule dropRule;
const CheckRule dropRule{.id = "drop", .remedies = remedies, .run = find};

} // namespace lintel
