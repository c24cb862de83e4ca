// What is entered of a board against what is in it: places that are to stay free, lugs that it has not, breakers that
// are tied and stand apart, loads that their list gives another voltage.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/BoardSize.h"
#include "core/project/CircuitFacts.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::string places(int n) { return n == 1 ? "one place" : fmt::format("{} places", n); }

void findReserve(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        if (b.reservedShare <= 0) continue;
        const int used = in.results.of(b.id).slotsUsed, wanted = placesReserved(b, b.slots);
        if (b.slots - used < wanted)
            into.push_back({&self, Severity::Check, b.id,
                            fmt::format("{} has {} left; {} to stay free", b.name, places(std::max(0, b.slots - used)),
                                        wanted == 1 ? "one is" : fmt::format("{} are", wanted)),
                            ""});
    }
}
std::vector<Remedy> sizeRemedies(const CheckInput& in, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    std::vector<Remedy> out;
    if (const int slots = smallestSize(in.project, id); slots > in.project.boards[id].slots)
        out.push_back(
            {fmt::format("{} {} for {}", in.project.boards[id].form == BoardForm::Ways ? slots / 3 : slots,
                         in.project.boards[id].form == BoardForm::Ways ? "ways" : "slots", in.project.boards[id].name),
             [=](Project& p) { applyResize(p, id, planResize(p, id, slots)); }});
    out.push_back({"Keep nothing free", [=](Project& p) { p.boards.change(id)->reservedShare = 0; }});
    return out;
}

void findLugs(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    const auto look = [&](Ref node, Ref feed) {
        if (const Board* from = in.project.boards.find(feed.as<Board>());
            from && from->lugs == Lugs::None && !passesOn(from->use))
            into.push_back({&self, Severity::Stop, node,
                            fmt::format("{} is fed from lugs that {} has not", nameOf(in.project, node), from->name),
                            ""});
    };
    for (const Board& b : in.project.boards) {
        look(b.id, b.feed);
        look(b.id, b.alternate);
    }
    for (const Transformer& t : in.project.transformers) look(t.id, t.feed);
}
std::vector<Remedy> lugsRemedies(const CheckInput& in, const Snag& s) {
    const Ref node = s.about;
    const BoardId from = feedOf(in.project, node).as<Board>();
    const Board* board = in.project.boards.find(from);
    if (!board || board->lugs != Lugs::None) return {}; // it is the alternate feed
    std::vector<Remedy> out{{fmt::format("Feed-through lugs for {}", board->name),
                             [=](Project& p) { p.boards.change(from)->lugs = Lugs::FeedThrough; }}};
    if (!refuseFeed(in.project, node, from))
        out.push_back(
            {fmt::format("Feed it from a breaker of {}", board->name), [=](Project& p) { feedFrom(p, node, from); }});
    return out;
}

void findApart(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult&,
               std::vector<Snag>& into) {
    if (!c.tie || c.slot <= 0) return;
    const auto unit = unitOf(in.project, c.id);
    if (unit.front() != c.id) return; // told once, of the first
    const auto at = placeUnit(in.project, in.project.boards[c.board], unit, c.slot);
    if (unit.size() < 2 || at.empty() ||
        std::any_of(at.begin(), at.end(), [&](const auto& x) { return in.project.circuits[x.first].slot != x.second; }))
        into.push_back({&self, Severity::Check, c.id,
                        unit.size() < 2 ? fmt::format("{}: its handle is tied to none", nameOf(in.project, c.id))
                                        : fmt::format("{} and {}: tied handles do not stand beside one another",
                                                      nameOf(in.project, c.id), nameOf(in.project, unit[1])),
                        ""});
}
std::vector<Remedy> apartRemedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    const int tie = in.project.circuits[id].tie;
    const BoardId board = in.project.circuits[id].board;
    const auto loose = [=](Project& p) { // tying one that is tied lets all of its tie go
        std::vector<CircuitId> all;
        for (const Circuit& c : p.circuits)
            if (c.board == board && c.tie == tie) all.push_back(c.id);
        (void)tieCircuits(p, {id});
        return all;
    };
    std::vector<Remedy> out;
    Project trial = in.project;
    const auto all = loose(trial);
    if (all.size() > 1 && !tieCircuits(trial, all))
        out.push_back({"Bring them together", [=](Project& p) { (void)tieCircuits(p, loose(p)); }});
    out.push_back({"Untie them", [=](Project& p) { (void)loose(p); }});
    return out;
}

void findVolts(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.results.present.has(Results::Trait::ListedVolts)) return;
    for (const Load& l : in.project.loads) {
        const Circuit* c = l.volts > 0 ? in.project.circuits.find(l.circuit) : nullptr;
        if (!c) continue;
        const double given = voltsAcross(in.project.boards[c->board].system, std::min(l.poles, c->poles)).v;
        if (!sameVolts(l.volts, given))
            into.push_back(
                {&self, Severity::Check, l.id,
                 fmt::format("{}{}: its list says {} V, {} gives {} V",
                             l.tag.empty() || l.name.empty() ? "" : l.tag + " ", nameOf(in.project, Ref(l.id)),
                             number(l.volts), nameOf(in.project, c->id), number(given)),
                 ""});
    }
}
std::vector<Remedy> voltsRemedies(const CheckInput& in, const Snag& s) {
    const LoadId id = s.about.as<Load>();
    const Load& l = in.project.loads[id];
    const double given = voltsAcross(in.project.boards[in.project.circuits[l.circuit].board].system,
                                     std::min(l.poles, in.project.circuits[l.circuit].poles))
                             .v;
    std::vector<Remedy> out{{"Take it off this circuit", [=](Project& p) { p.loads.change(id)->circuit = {}; }}};
    out.push_back(
        {fmt::format("It is for {} V", number(given)), [=](Project& p) { p.loads.change(id)->volts = given; }});
    return out;
}

} // namespace

extern const CheckRule reserveRule, lugsRule, tiedApartRule, loadVoltsRule;
const CheckRule reserveRule{.id = "reserve", .remedies = sizeRemedies, .find = findReserve};
const CheckRule lugsRule{.id = "lugs", .remedies = lugsRemedies, .find = findLugs};
const CheckRule tiedApartRule{.id = "tied-apart", .remedies = apartRemedies, .circuit = findApart};
const CheckRule loadVoltsRule{.id = "load-volts", .remedies = voltsRemedies, .find = findVolts};

} // namespace lintel
