// What a UPS gives into an earth fault from its battery, which is far less than its supply gives through it: whether
// the devices behind it still open in time. Only where its maker's figure is entered, and up to the next transformer.

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/WhatHelps.h"

#include <fmt/format.h>

#include <map>
#include <set>

namespace lintel {
namespace {

constexpr double rounding = 1e-5; ///< of figures that an earth fault keeps with seven digits

/// A with which the device of a run opens an earth fault in the time that it may take; 0: a residual-current device
/// opens it, or that is not known. Zs is at most driving voltage / this, so it follows from the fault as it stands.
double opensFrom(const EarthFault& e) {
    if (!e.known || e.byResidual || e.limit <= 0) return 0;
    return double(e.amps) * double(e.zs) / double(e.limit);
}

/// More than a UPS gives from its battery.
bool tooMuch(double opens, const Board& ups) { return opens > ups.inverterA * (1 + rounding); }

struct Late {
    Ref about;
    double opens = 0; ///< A
};

/// The runs behind a UPS that its battery does not open in time, the worst first.
std::vector<Late> lateBehind(const CheckInput& in, const Board& ups) {
    std::vector<Late> out;
    if (ups.inverterA <= 0 || !in.book.metric()) return out;
    std::set<Ref> behind{ups.id}; // boards that have nothing between but boards
    const auto look = [&](Ref about, const RunResult& run) {
        if (run.size < 0 || !run.earth || run.need.cable->unguarded) return;
        const double opens = opensFrom(*run.earth);
        if (tooMuch(opens, ups)) out.push_back({about, opens});
    };
    for (Ref node : in.results.order) {
        const BoardId id = node.as<Board>();
        if (!id) continue;
        const BoardResult& r = in.results.of(id);
        if (!r.parent || !behind.count(r.parent)) continue;
        behind.insert(node);
        look(node, r.run);
    }
    for (const Circuit& c : in.project.circuits)
        if (const CircuitResult& r = in.results.of(c.id); !r.feeder && r.va > 0 && behind.count(Ref(c.board)))
            look(c.id, r.run);
    std::stable_sort(out.begin(), out.end(), [](const Late& x, const Late& y) { return x.opens > y.opens; });
    return out;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        if (b.use != BoardUse::Ups) continue;
        const std::vector<Late> late = lateBehind(in, b);
        if (late.empty()) continue;
        const RunResult& worst = *in.results.run(late.front().about);
        std::string text = fmt::format("{}: {} A into a fault from its battery; {} needs {} A to open in {} s", b.name,
                                       figures(b.inverterA), nameOfRun(in.project, late.front().about),
                                       figures(late.front().opens), figures(double(worst.earth->allowed)));
        if (late.size() > 1)
            text += fmt::format(", and {} more {} more than it gives", late.size() - 1,
                                late.size() == 2 ? "needs" : "need");
        into.push_back({&self, Severity::Check, b.id, text, in.book.cite("disconnection")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const Board& ups = in.project.boards[s.about.as<Board>()];
    const SizingRules rules = sizingRules(in.project.basis, in.book);
    std::map<double, std::vector<CircuitId>> byResidual;
    std::vector<CircuitId> byCurve;
    for (const Late& l : lateBehind(in, ups)) {
        const RunResult& run = *in.results.run(l.about);
        const CircuitId circuit = l.about.is<Circuit>() ? l.about.as<Circuit>() : run.need.cable->opener;
        if (!circuit) continue;
        if (const auto e = faultBehind(run, DeviceKind::TypeB, rules, in.book); e && e->ok)
            if (const double opens = opensFrom(*e); opens > 0 && !tooMuch(opens, ups)) byCurve.push_back(circuit);
        if (const auto mA = residualThatOpens(run, rules, in.book)) byResidual[*mA].push_back(circuit);
    }
    std::vector<Remedy> out;
    if (!byCurve.empty())
        out.push_back({fmt::format("{} at {}", wordOf(DeviceKind::TypeB), counted(byCurve.size(), "circuit")),
                       [byCurve](Project& p) {
                           for (CircuitId c : byCurve) p.circuits.change(c)->device = DeviceKind::TypeB;
                       }});
    for (const auto& [mA, circuits] : byResidual)
        out.push_back(
            {fmt::format("Residual-current device of {} mA at {}", number(mA), counted(circuits.size(), "circuit")),
             [mA = mA, circuits = circuits](Project& p) {
                 for (CircuitId c : circuits) p.circuits.change(c)->residual = mA;
             }});
    return out;
}

} // namespace

extern const CheckRule upsFaultRule;
const CheckRule upsFaultRule{.id = "ups-fault", .remedies = remedies, .find = find};

} // namespace lintel
