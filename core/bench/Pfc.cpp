// Power-factor correction, with its device and cable.

#include "core/base/Format.h"
#include "core/bench/CableRun.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    std::vector<BenchField> f{
        systemField("400/230"),
        {.key = "kW", .label = "Real power", .value = "200", .unit = "kW", .least = 0.1, .most = 1e6},
        {.key = "from", .label = "Power factor now", .value = "0.8", .least = 0.1, .most = 1},
        {.key = "to", .label = "Power factor wanted", .value = "0.95", .least = 0.1, .most = 1},
        {.key = "transformer",
         .label = "Transformer before it",
         .value = "0",
         .unit = "kVA",
         .least = 0,
         .most = 1e5,
         .help = "For the order of resonance; 0: not looked at",
         .seldom = true},
        {.key = "percentZ",
         .label = "Its impedance",
         .value = "5",
         .unit = "%",
         .least = 0.1,
         .most = 100,
         .seldom = true}};
    for (BenchField& x : cableFields(book)) {
        if (x.key == "length") x.value = "6";
        if (x.key == "cable") x.value = book.cables.usualFeeder;
        if (x.key == "method") x.value = book.cables.type(book.cables.usualFeeder)->methods.front().name;
        f.push_back(std::move(x));
    }
    return f;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    const double p = in.number("kW"), from = std::acos(in.number("from")), to = std::acos(in.number("to"));
    if (to >= from)
        in.refuse("to", "the power factor wanted is not better than the one there is", "Give a larger one.");
    const double kvar = p * (std::tan(from) - std::tan(to));
    double step = 0;
    for (double s : book.tables.capacitorSteps)
        if (s + 1e-9 >= kvar) {
            step = s;
            break;
        }
    a.working.step("Kvar",
                   fmt::format("{} kW × (tan {:.1f}° − tan {:.1f}°) = {} × ({:.3f} − {:.3f})", figures(p),
                               from * 57.29578, to * 57.29578, figures(p), std::tan(from), std::tan(to)),
                   figures(kvar) + " kvar", "");
    a.working.governs();
    const double given = step > 0 ? step : std::ceil(kvar / 50) * 50;
    const double after = p / std::hypot(p, p * std::tan(from) - given);
    a.figure("kvar", "Needed", figures(kvar) + " kvar", kvar);
    a.figure("step_kvar", "Next step", rating(given) + " kvar", given);
    a.figure("powerFactor", "Power factor then", fmt::format("{:.3f}", after), after);
    const auto system = in.system("system");
    if (factsOf(system).phases != 3)
        in.refuse("system", "capacitors of a bank hang between three lines", "Choose a three-phase system.");
    const double volts = factsOf(system).lineLine.v;
    const double before = p / std::cos(from), now = std::hypot(p, p * std::tan(from) - given);
    a.figure("amps_before", "Current before", figures(before * 1000 / (volts * root3)) + " A",
             before * 1000 / (volts * root3));
    a.figure("amps_after", "Current after", figures(now * 1000 / (volts * root3)) + " A", now * 1000 / (volts * root3));
    RunResult r;
    RunNeed& n = r.need;
    n.system = system;
    n.poles = 3;
    const double own = given * 1000 / (volts * root3), needed = own * book.tables.capacitorConductor;
    a.working.step("Device and cable", fmt::format("{} A × {}", figures(own), figures(book.tables.capacitorConductor)),
                   figures(needed) + " A", book.cite("capacitor"));
    n.load = n.required = n.dropAmps = Amps{needed};
    n.device = book.ratingAtOrAbove(needed);
    if (n.device == 0) in.refuse("kW", "no standard device is rated for it", "Divide the bank.");
    a.figure("device_A", "Device", rating(n.device) + " A", n.device);
    takeCable(in, n, book);
    cableFigures(in, r, a, book);
    if (const double kva = in.number("transformer"); kva > 0) {
        const double order = std::sqrt(kva * 100 / in.number("percentZ") / given);
        a.figure("resonance", "Resonance near", fmt::format("order {:.1f}", order), order);
        for (int odd : {5, 7, 11, 13})
            if (std::abs(order - odd) < 0.6)
                a.cautions.push_back(fmt::format("close to the {}th harmonic: choose detuned steps", odd));
    }
    return a;
}

} // namespace

extern const BenchKind pfcBench;
const BenchKind pfcBench{"pfc",
                         "Power-factor correction",
                         "Kvar for a power factor, the next step, its device and cable, and where it resonates.",
                         fields,
                         work,
                         BenchFor::Cables};

} // namespace lintel
