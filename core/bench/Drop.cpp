// Volts lost along one run of a known size.

#include "core/base/Format.h"
#include "core/bench/Run.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    return {{.key = "load", .label = "Load", .type = T::Load, .value = "16 A", .unit = "A"},
            systemField(),
            {.key = "poles", .label = "Poles", .type = T::Choice, .value = "1", .choices = {"1", "2", "3"}},
            {.key = "powerFactor", .label = "Power factor", .value = "1", .least = 0.01, .most = 1},
            {.key = "length", .label = "Length, one way", .type = T::Length, .value = "100 ft"},
            sizeField("size", "Size", book, false, "12"),
            {.key = "sets", .label = "Sets", .value = "1", .least = 1, .most = 40},
            materialField(),
            conduitField(book),
            {.key = "limit", .label = "Limit", .value = "3", .unit = "%", .least = 0.01, .most = 100},
            unitsField()};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    RunNeed n;
    n.system = in.system("system");
    n.poles = in.whole("poles");
    n.dropPowerFactor = in.number("powerFactor");
    const Amps amps = benchAmps(in, in.load("load"), n.dropPowerFactor, n.system, n.poles, book, &a.working);
    n.material = in.choice<Material>("material");
    n.raceway = book.conduit(in.text("conduit"))->raceway;
    const SizeIndex size = in.size("size", book);
    if (!book.choosable(size, n.material))
        in.refuse("size",
                  fmt::format("{} has no impedance for {} {}", book.cite("impedance"), sizeWords(book, size),
                              wordOf(n.material)),
                  "Choose a size of that table.");
    const int sets = in.whole("sets");
    const Metres length = in.length("length");
    const ConductorSize& s = book.sizes()[std::size_t(size)];
    const bool feetToo = in.units() == UnitSystem::Imperial;
    const double per = feetToo ? 1000 * metresPerFoot : 1000,
                 R = s.resistance[std::size_t(n.material)][std::size_t(n.raceway)] * per,
                 X = s.reactance[std::size_t(n.raceway)] * per;
    const double sine = std::sqrt(std::max(0.0, 1 - n.dropPowerFactor * n.dropPowerFactor));
    const Volts lost = dropVolts(n, size, sets, amps, length, book);
    const double share = lost / dropReference(n) * 100, limit = in.number("limit");
    a.working.step("Impedance",
                   fmt::format("{} {}, {}: R {} and X {} Ω per {}", sizeWords(book, size), wordOf(n.material),
                               in.text("conduit"), figures(R), figures(X), feetToo ? "1000 ft" : "km"),
                   "", book.cite("impedance"));
    a.working.step("Lost",
                   fmt::format("{}·{} A·({}·{:.2f} + {}·{:.2f})·{}/1000{}", n.poles == 3 ? "√3" : "2", figures(amps.v),
                               figures(R), n.dropPowerFactor, figures(X), sine,
                               lintel::number(feetToo ? inFeet(length) : length.v, 1),
                               sets > 1 ? fmt::format("/{}", sets) : ""),
                   figures(lost.v) + " V", "");
    a.working.step("Share", fmt::format("{} V of {} V", figures(lost.v), lintel::number(dropReference(n).v)),
                   fmt::format("{} {} {} %", percent(share), share <= limit + 1e-9 ? "≤" : ">", figures(limit)),
                   book.cite("dropBranch"));
    a.working.governs();
    a.figure("drop_V", "Lost", figures(lost.v) + " V", lost.v);
    a.figure("drop_percent", "Share", percent(share), share);
    a.figure("at_load_V", "At the load", figures(dropReference(n).v - lost.v) + " V", dropReference(n).v - lost.v);
    if (share > 0) {
        const Metres longest{length.v * limit / share};
        a.figure("longest_m", "Longest within the limit", benchLength(longest, in.units()), longest.v);
    }
    if (share > limit + 1e-9)
        a.cautions.push_back(fmt::format("{} is over the limit of {} %", percent(share), figures(limit)));
    return a;
}

} // namespace

extern const BenchKind dropBench;
const BenchKind dropBench{"drop", "Voltage drop", "Volts lost along a run of a known size, and how long it may be.",
                          fields, work};

} // namespace lintel
