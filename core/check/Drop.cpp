// Voltage drop over its limit: past the upsizing ceiling, or at a held size.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/Procedure.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, Ref about, const RunResult& r, std::vector<Snag>& into) {
    if (r.size < 0 || !r.need.lengthKnown) return;
    const bool own = r.dropOwn > r.need.ownLimit + 1e-9, total = r.dropTotal > r.need.totalLimit + 1e-9;
    if (!own && !total) return;
    const std::string name = nameOfRun(in.project, about);
    // Close to its limit two decimals say what one would hide.
    const auto lost = [](double is, double limit) { return is - limit < 0.1 ? fmt::format("{:.2f} %", is) : percent(is); };
    std::string text = own ? fmt::format("{}: {} lost, limit {} %", name, lost(r.dropOwn, r.need.ownLimit), figures(r.need.ownLimit)) : fmt::format("{}: {} lost from the source, limit {} %", name, lost(r.dropTotal, r.need.totalLimit), figures(r.need.totalLimit));
    if (r.state != Sizing::PastCeiling && r.longest.v > 0)
        text += fmt::format(", {} {} too long", number(in.project.basis.units == UnitSystem::Imperial ? inFeet(r.need.length - r.longest) : (r.need.length - r.longest).v, 1), in.project.basis.units == UnitSystem::Imperial ? "ft" : "m");
    if (r.state == Sizing::PastCeiling) text += fmt::format(", and {} sizes up is the ceiling: feed it from nearer", in.project.basis.upsizingCeiling);
    into.push_back({&self, r.state == Sizing::PastCeiling ? Severity::Stop : Severity::Check, about, text, in.book.cite(r.need.feeder ? "dropFeeder" : "dropBranch")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Ref about = s.about;
    const RunResult& r = *in.results.run(about);
    const auto run = [about](Project& p) -> Run& { return runOf(p, about); };
    if (r.state == Sizing::Held) out.push_back({"Let it be sized", [=](Project& p) { run(p).heldSize.clear(); run(p).heldSets = 0; }});
    if (r.need.dropByShare && about.is<Circuit>())
        out.push_back({fmt::format("Judge it on its load, {} A", figures(r.need.load.v)), [=](Project& p) { run(p).dropBasis = DropBasis::Load; }});
    const Run* entered = enteredRun(in.project, about);
    if (entered && entered->lengthBy == LengthBy::Entered && r.longest.v > 0) {
        const double longest = std::floor(r.longest.v * 100) / 100;
        out.push_back({fmt::format("Shorten it to {}", in.project.basis.units == UnitSystem::Imperial ? number(inFeet(Metres{longest}), 1) + " ft" : number(longest, 1) + " m"), [=](Project& p) { run(p).length = longest; }});
    }
    // A nearer board of the same voltage with room for it.
    if (const Circuit* c = in.project.circuits.find(about.as<Circuit>())) {
        const Board& own = in.project.boards[c->board];
        Point at{};
        int n = 0;
        LevelId level;
        for (const Device& d : in.project.devices)
            if (d.circuit == c->id) at = at + d.at, ++n, level = d.level;
        const Board* best = nullptr;
        for (const Board& b : in.project.boards)
            if (n && b.id != own.id && b.standsOn(level) && own.onPlan && b.system == own.system && firstFreeSlot(in.project, b.id, c->poles) &&
                orthogonal(b.at, at * (1.0 / n)) < orthogonal((best ? *best : own).at, at * (1.0 / n)))
                best = &b;
        if (best) {
            const BoardId to = best->id;
            const CircuitId id = c->id;
            out.push_back({"Feed it from " + best->name, [=](Project& p) {
                               const int slot = firstFreeSlot(p, to, p.circuits[id].poles);
                               Circuit& k = *p.circuits.change(id);
                               k.board = to;
                               k.slot = slot;
                           }});
        }
    }
    // What is lost before it: feeders above that are held, and a larger feeder of its own board.
    Ref above = about.is<Circuit>() ? Ref(in.project.circuits[about.as<Circuit>()].board) : in.results.node(about)->parent;
    const double excess = r.dropTotal - r.need.totalLimit;
    bool first = true;
    for (std::size_t guard = 0; excess > 1e-9 && above && !above.is<Source>() && guard < in.results.order.size(); ++guard, first = false) {
        const RunResult& feeder = in.results.node(above)->run;
        const std::string name = nameOf(in.project, above);
        if (feeder.state == Sizing::Held) out.push_back({fmt::format("Let the feeder of {} be sized", name), [above](Project& p) { runOf(p, above).heldSize.clear(), runOf(p, above).heldSets = 0; }});
        for (SizeIndex i = feeder.size + 1; first && feeder.size >= 0 && feeder.need.lengthKnown && i < SizeIndex(in.book.sizes().size()); ++i) {
            if (!canUse(feeder.need, i, in.book)) continue;
            const double less = feeder.dropOwn - ownDrop(feeder.need, i, feeder.sets, in.book);
            // The first that is enough; where none is, the largest there is, and the snag then says what is still missing.
            const bool enough = less + 1e-9 >= excess && r.dropOwn <= r.need.ownLimit + 1e-9, last = i + 1 == SizeIndex(in.book.sizes().size()) && out.empty();
            if (!enough && !(last && less > 0.05)) continue;
            out.push_back({fmt::format("Hold {} on the feeder of {}: {} in all", sizeWords(in.book, i), name, percent(r.dropTotal - less)), [above, size = in.book.sizes()[std::size_t(i)].name, sets = feeder.sets](Project& p) {
                               runOf(p, above).heldSize = size;
                               runOf(p, above).heldSets = sets > 1 ? sets : 0;
                           }});
            break;
        }
        above = in.results.node(above)->parent;
    }
    // The size that would do, whatever the ceiling.
    for (SizeIndex i = std::max(0, r.size); i < SizeIndex(in.book.sizes().size()); ++i) {
        if (!canUse(r.need, i, in.book)) continue;
        const double own = ownDrop(r.need, i, std::max(1, r.sets), in.book);
        if (own > r.need.ownLimit || own + r.need.totalBefore > r.need.totalLimit) continue;
        const std::string size = in.book.sizes()[std::size_t(i)].name;
        const int sets = r.sets;
        out.push_back({fmt::format("Hold {}: {} lost", sizeWords(in.book, i), percent(own)), [=](Project& p) { run(p).heldSize = size; run(p).heldSets = sets > 1 ? sets : 0; }});
        break;
    }
    return out;
}

} // namespace

extern const CheckRule dropRule;
const CheckRule dropRule{.id = "drop", .remedies = remedies, .run = find};

} // namespace lintel
