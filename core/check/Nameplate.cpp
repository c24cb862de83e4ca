// What is marked on equipment, against what is ahead of it: a device larger than its nameplate allows, and nameplates
// that cannot be met.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>

namespace lintel {
namespace {

bool isSwapped(const Nameplate& n) { return n.device > 0 && n.ampacity > n.device; }

/// A load of the circuit, or the type of a device on it, whose two markings cannot both be met; nothing: there is none.
Ref swapped(const Project& p, CircuitId circuit) {
    for (const Load& l : p.loads)
        if (l.circuit == circuit && isSwapped(l.nameplate)) return l.id;
    for (const Device& d : p.devices)
        if (d.circuit == circuit && isSwapped(p.deviceTypes[d.type].nameplate)) return d.type;
    return {};
}
template <class P> auto& nameplateOf(P& p, Ref of) {
    if constexpr (std::is_const_v<P>) {
        return of.is<Load>() ? p.loads[of.as<Load>()].nameplate : p.deviceTypes[of.as<DeviceType>()].nameplate;
    } else {
        return of.is<Load>() ? p.loads.change(of.as<Load>())->nameplate
                             : p.deviceTypes.change(of.as<DeviceType>())->nameplate;
    }
}

void find(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult& r,
          std::vector<Snag>& into) {
    if (!r.nameplates || c.use != CircuitUse::Load) return;
    const Nameplates& n = *r.nameplates;
    const std::string name = nameOfRun(in.project, c.id);
    const auto say = [&](Severity severity, std::string text, const char* rule) {
        into.push_back({&self, severity, c.id, name + ": " + std::move(text), in.book.cite(rule)});
    };
    if (const Ref odd = swapped(in.project, c.id)) {
        const Nameplate& marked = nameplateOf(in.project, odd);
        say(Severity::Stop,
            fmt::format("the nameplate asks for {} A in the conductors and allows a device of {} A",
                        figures(marked.ampacity), figures(marked.device)),
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

/// What no nameplate limits gets no device smaller than it needs for the sake of what one does.
std::vector<Remedy> othersOff(const Project& p, CircuitId id) {
    const auto isOther = [](const Nameplate& n) { return n.device <= 0; };
    const auto off = [id, isOther](Project& q) {
        std::vector<LoadId> loads;
        for (const Load& l : q.loads)
            if (l.circuit == id && isOther(l.nameplate)) loads.push_back(l.id);
        for (const LoadId l : loads) q.loads.change(l)->circuit = {};
        std::vector<DeviceId> devices;
        for (const Device& d : q.devices)
            if (d.circuit == id && isOther(q.deviceTypes[d.type].nameplate)) devices.push_back(d.id);
        for (const DeviceId d : devices) q.devices.change(d)->circuit = {};
        return !loads.empty() || !devices.empty();
    };
    Project tried = p;
    if (!off(tried)) return {};
    return {{"Take the loads without a nameplate off it", [off](Project& q) { off(q); }}};
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    if (s.severity != Severity::Stop)
        return {{"Leave its MCA out", [id](Project& p) {
                     std::vector<Ref> marked;
                     for (const Load& l : p.loads)
                         if (l.circuit == id && l.nameplate.ampacity > 0) marked.push_back(l.id);
                     for (const Device& d : p.devices)
                         if (d.circuit == id && p.deviceTypes[d.type].nameplate.ampacity > 0) marked.push_back(d.type);
                     for (const Ref& of : marked) nameplateOf(p, of).ampacity = 0;
                 }}};
    if (const Ref odd = swapped(in.project, id))
        return {{"Swap the two", [odd](Project& p) {
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
const CheckRule nameplateRule{
    .id = "nameplate", .remedies = remedies, .circuit = find, .worthLooking = [](const CheckInput& in) {
        return in.results.present.has(Results::Trait::Nameplate);
    }};

} // namespace lintel
