// Capacitors that raise a power factor: kvar = P·(tan φ1 − tan φ2).

#include "core/base/Format.h"
#include "core/bench/BenchInputs.h"
#include "core/solve/CapacitorBank.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook&) {
    return {{.key = "load",
             .label = "Load",
             .type = BenchField::Type::Load,
             .value = "100 kW",
             .unit = "kW",
             .help = "kW or kVA"},
            {.key = "from", .label = "Power factor now", .value = "0.75", .least = 0.05, .most = 1},
            {.key = "to", .label = "Wanted", .value = "0.95", .least = 0.05, .most = 1},
            systemField("480Y/277"),
            {.key = "faultKA",
             .label = "Fault level there",
             .value = "",
             .unit = "kA",
             .least = 0.001,
             .most = 1000,
             .help = "For the resonance; empty: not told."}};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    const BenchLoad l = in.load("load");
    const double from = in.number("from"), to = in.number("to");
    if (to < from)
        in.refuse("to", fmt::format("{} is below the {} there is now", to, from),
                  "Give a power factor above the present one.");
    if (l.unit == LoadUnit::A || l.unit == LoadUnit::hp) in.refuse("load", "give the load in kW or kVA");
    const double scale = l.unit == LoadUnit::kW || l.unit == LoadUnit::kVA ? 1 : 0.001;
    const double kw = l.amount * scale * (l.unit == LoadUnit::kVA || l.unit == LoadUnit::VA ? from : 1);
    const double kvar = kw * (tangentOf(from) - tangentOf(to));
    a.working.step("Capacitors",
                   fmt::format("{} kW × (tan φ of {:.2f} − tan φ of {:.2f}) = {} × ({:.4f} − {:.4f})", figures(kw),
                               from, to, figures(kw), tangentOf(from), tangentOf(to)),
                   figures(kvar) + " kvar", "");
    const double step = capacitorStep(kvar, book);
    const double more = book.tables.capacitorSteps.empty() ? 1 : step / book.tables.capacitorSteps.back();
    a.working.step("Bank", more > 1 ? fmt::format("{} of the largest step", more) : std::string("next usual step"),
                   figures(step) + " kvar", "");
    a.working.governs();
    const SystemFacts f = factsOf(in.system("system"));
    const double amps = step * 1000 / (f.lineLine.v * (f.phases == 3 ? root3 : 1)),
                 conductor = amps * book.tables.capacitorConductor;
    a.working.step(
        "Current",
        fmt::format("{} kvar / {} V{}", figures(step), lintel::number(f.lineLine.v), f.phases == 3 ? " / √3" : ""),
        figures(amps) + " A", "");
    a.working.step("Conductors",
                   fmt::format("{} A × {} %", figures(amps), lintel::number(book.tables.capacitorConductor * 100)),
                   figures(conductor) + " A", book.cite("capacitor"));
    const double left = kw * tangentOf(from) - step, after = std::hypot(kw, left), pfAfter = after > 0 ? kw / after : 1;
    a.working.step("Power factor then", fmt::format("{} kW, {} kvar left", figures(kw), figures(left)),
                   fmt::format("{:.3f}", pfAfter), "");
    a.figure("kvar", "Needed", figures(kvar) + " kvar", kvar);
    a.figure("bank_kvar", "Bank", figures(step) + " kvar", step);
    a.figure("current_A", "Its current", figures(amps) + " A", amps);
    a.figure("conductor_A", "Conductors for", figures(conductor) + " A", conductor);
    a.figure("kVA_before", "Load before", figures(kw / from) + " kVA", kw / from);
    a.figure("kVA_after", "Load after", figures(after) + " kVA", after);
    a.figure("power_factor", "Power factor then", fmt::format("{:.3f}", pfAfter), pfAfter);
    if (left < -1e-9)
        a.cautions.push_back("the next step is more than the load takes: switch it in parts, or choose a smaller one");
    if (const auto kA = in.maybe("faultKA")) {
        const double mva = f.lineLine.v * (f.phases == 3 ? root3 : 1) * *kA / 1000,
                     order = step > 0 ? std::sqrt(mva * 1000 / step) : 0;
        a.working.step("Resonance", fmt::format("√({} kVA / {} kvar)", lintel::number(mva * 1000), figures(step)),
                       fmt::format("harmonic {:.1f}", order), "");
        a.figure("resonance", "Resonance", fmt::format("at harmonic {:.1f}", order), order);
        if (const int h = harmonicNear(order))
            a.cautions.push_back(
                fmt::format("resonance lies near harmonic {}: detune the bank, or choose another step", h));
    }
    return a;
}

} // namespace

extern const BenchKind capacitorBench;
const BenchKind capacitorBench{
    "capacitor", "Power factor",
    "Capacitors for a wanted power factor, their current and conductors, and where they resonate.", fields, work};

} // namespace lintel
