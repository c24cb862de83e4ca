// What is marked on equipment, against what is ahead of it: a device larger than its nameplate allows, and nameplates
// that cannot be met.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/TakeLoadsOff.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>
#include <unordered_map>

namespace lintel {
namespace {

bool isSwapped(const Nameplate& n) { return n.device > 0 && n.ampacity > n.device; }

/// Each load and each device on plan that is marked: its circuit, what holds the marking (the load, the type of the
/// device), and the marking.
template <class See> void eachNameplate(const Project& p, See see) {
    for (const Load& l : p.loads)
        if (l.nameplate != Nameplate()) see(l.circuit, Ref(l.id), l.nameplate);
    for (const Device& d : p.devices)
        if (const Nameplate& n = p.deviceTypes[d.type].nameplate; n != Nameplate()) see(d.circuit, Ref(d.type), n);
}
/// What holds a marking on the circuit of which `wanted` holds.
template <class Wanted> std::vector<Ref> markedOn(const Project& p, CircuitId circuit, Wanted wanted) {
    std::vector<Ref> found;
    eachNameplate(p, [&](CircuitId on, Ref of, const Nameplate& n) {
        if (on == circuit && wanted(n)) found.push_back(of);
    });
    return found;
}
Nameplate& nameplateOf(Project& p, Ref of) {
    return of.is<Load>() ? p.loads.change(of.as<Load>())->nameplate
                         : p.deviceTypes.change(of.as<DeviceType>())->nameplate;
}

void judge(const CheckInput& in, const CheckRule& self, const Circuit& c, const Nameplate* swapped,
           std::vector<Snag>& into) {
    const CircuitResult& r = in.results.of(c.id);
    const Nameplates& n = *r.nameplates;
    const std::string name = nameOfRun(in.project, c.id);
    const auto say = [&](Severity severity, std::string text, const char* rule) {
        into.push_back({&self, severity, c.id, name + ": " + std::move(text), in.book.cite(rule)});
    };
    if (swapped) {
        say(Severity::Stop,
            fmt::format("the nameplate asks for {} A in the conductors and allows a device of {} A",
                        figures(swapped->ampacity), figures(swapped->device)),
            "nameplateDevice");
    } else if (n.device > 0 && r.device > n.device + 1e-6) {
        const std::string allows = fmt::format("its nameplate allows {} A", figures(n.device));
        const std::string needs = fmt::format("it needs {} A", figures(r.required.v));
        say(Severity::Stop,
            r.deviceHeld              ? fmt::format("breaker held at {} A, {}", rating(r.device), allows)
            : n.device < r.required.v ? fmt::format("{}, {}", needs, allows)
                                      : fmt::format("{}, {}, and no standard rating lies between", needs, allows),
            "nameplateDevice");
    }
    const double own = ampsOf(n.va, in.project.boards[c.board].system, c.poles).v;
    if (n.ampacity > 0 && own > n.ampacity * 1.005)
        say(Severity::Check,
            fmt::format("its load of {} A is more than the {} A marked as its minimum circuit ampacity", figures(own),
                        figures(n.ampacity)),
            "nameplateAmpacity");
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.results.present.has(Results::Trait::Nameplate)) return;
    std::unordered_map<std::uint32_t, Nameplate> swapped; // by circuit
    eachNameplate(in.project, [&](CircuitId on, Ref, const Nameplate& n) {
        if (isSwapped(n)) swapped.try_emplace(on.value, n);
    });
    for (const Circuit& c : in.project.circuits) {
        if (!in.results.of(c.id).nameplates || c.use != CircuitUse::Load) continue;
        const auto odd = swapped.find(c.id.value);
        judge(in, self, c, odd == swapped.end() ? nullptr : &odd->second, into);
    }
}

/// What no nameplate limits gets no device smaller than it needs for the sake of what one does.
std::vector<Remedy> othersOff(const Project& p, CircuitId id) {
    const auto off = [id](Project& q) {
        return takeLoadsOff(q, id, [](const auto& x) { return x.nameplate.device <= 0; });
    };
    Project tried = p;
    if (!off(tried)) return {};
    return {{"Take the loads without a nameplate off it", [off](Project& q) { off(q); }}};
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    if (s.severity != Severity::Stop)
        return {{"Leave its MCA out", [id](Project& p) {
                     for (const Ref of : markedOn(p, id, [](const Nameplate& n) { return n.ampacity > 0; }))
                         nameplateOf(p, of).ampacity = 0;
                 }}};
    if (const auto odd = markedOn(in.project, id, isSwapped); !odd.empty())
        return {{"Swap the two", [odd = odd.front()](Project& p) {
                     Nameplate& marked = nameplateOf(p, odd);
                     std::swap(marked.ampacity, marked.device);
                 }}};
    const CircuitResult& r = in.results.of(id);
    const double most = r.nameplates->device;
    const auto hold = [id](std::string label, double amps) {
        return Remedy{std::move(label), [id, amps](Project& p) { p.circuits.change(id)->heldBreaker = amps; }};
    };
    if (r.deviceNeeded <= most)
        return {hold(fmt::format("Hold {} A", rating(r.deviceNeeded)), r.deviceNeeded),
                {"Let it be sized", [id](Project& p) { p.circuits.change(id)->heldBreaker.reset(); }}};
    if (most < r.required.v) return othersOff(in.project, id);
    // Such devices are allowed (240.6(A)).
    return {hold(fmt::format("Hold {} A, which is no standard rating", rating(most)), most)};
}

} // namespace

extern const CheckRule nameplateRule;
const CheckRule nameplateRule{.id = "nameplate", .remedies = remedies, .find = find};

} // namespace lintel
