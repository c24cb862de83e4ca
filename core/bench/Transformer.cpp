// A transformer: its size for a load, its currents, the devices on both sides, its secondary conductors and their bonding.

#include "core/base/Format.h"
#include "core/bench/Run.h"
#include "core/solve/Fault.h"
#include "core/solve/Solve.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<BenchField> f{{.key = "load", .label = "Load", .type = T::Load, .value = "60 kVA", .unit = "kVA"},
                              {.key = "powerFactor", .label = "Power factor", .value = "0.9", .least = 0.01, .most = 1},
                              {.key = "growth", .label = "Growth", .value = "25", .unit = "%", .least = 0, .most = 500},
                              {.key = "kva", .label = "Rated", .value = "auto", .unit = "kVA", .least = 0.1, .most = 100000},
                              systemField("480Y/277", "primary", "Primary"),
                              systemField("208Y/120", "secondary", "Secondary"),
                              {.key = "percentZ", .label = "Impedance", .value = "4.5", .unit = "%", .least = 0.1, .most = 100},
                              {.key = "xOverR", .label = "X/R", .value = "2", .least = 0, .most = 1000}};
    for (BenchField& r : runFields(book)) {
        if (r.key == "length") r.value = "10 ft", r.label = "Secondary conductors";
        f.push_back(std::move(r));
    }
    return f;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    const auto primary = in.choice<VoltageSystem>("primary"), secondary = in.choice<VoltageSystem>("secondary");
    const SystemFacts p = factsOf(primary), s = factsOf(secondary);
    if (s.phases == 3 && p.phases != 3) in.refuse("secondary", fmt::format("three phases cannot come from {}", wordOf(primary)), "Choose a single-phase secondary.");
    const bool three = s.phases == 3;
    const BenchLoad l = in.load("load");
    const int poles = three ? 3 : s.lines;
    const double pf = in.number("powerFactor");
    const double amps = benchAmps(in, l, pf, secondary, poles, book, nullptr).v, volts = s.lineLine.v;
    const double va = amps * volts * (three ? root3 : 1), wanted = va * (1 + in.number("growth") / 100) / 1000;
    const auto& series = three ? book.tables.threePhaseKva : book.tables.singlePhaseKva;
    double kva = 0;
    for (double k : series)
        if (kva == 0 && k >= wanted * (1 - 1e-9)) kva = k;
    a.working.step("Size", fmt::format("{} kVA × {:.2f} = {} kVA, next standard", figures(va / 1000), 1 + in.number("growth") / 100, figures(wanted)), kva > 0 ? rating(kva) + " kVA" : "past the series", "");
    if (const auto held = in.maybe("kva")) {
        kva = *held;
        if (kva * 1000 < va) a.cautions.push_back(fmt::format("{} kVA carries less than the {} kVA asked", rating(kva), figures(va / 1000)));
    }
    if (kva <= 0) in.refuse("load", fmt::format("{} kVA is past the standard series", figures(wanted)), "Give its kVA, or divide the load.");
    const double ip = kva * 1000 / (p.lineLine.v * (three ? root3 : 1)), is = kva * 1000 / (volts * (three ? root3 : 1));
    a.working.step("Rated currents", fmt::format("{} kVA / {} V{} and / {} V{}", rating(kva), lintel::number(p.lineLine.v), three ? " / √3" : "", lintel::number(volts), three ? " / √3" : ""), fmt::format("{} and {} A", figures(ip), figures(is)), "");
    const double share = bandOf(book.tables.transformerPrimaryOnly, ip), alone = transformerPrimaryRating(ip, book), most = book.ratingAtOrBelow(ip * book.tables.transformerPrimaryWithSecondary, DeviceKind::Breaker);
    a.working.step("Primary device alone", fmt::format("{} A × {} % = {} A, {}", figures(ip), lintel::number(share * 100), figures(ip * share), ip >= 9 ? "next standard rating" : "the standard rating below"), rating(alone) + " A", book.cite("transformer"));
    a.working.step("Primary device with a secondary one", fmt::format("{} A × {} % = {} A, the standard rating below", figures(ip), lintel::number(book.tables.transformerPrimaryWithSecondary * 100), figures(ip * book.tables.transformerPrimaryWithSecondary)), "up to " + rating(most) + " A", book.cite("transformer"));
    const double secondaryShare = bandOf(book.tables.transformerSecondaryDevice, is);
    double device = is >= 9 ? book.ratingAtOrAbove(is * secondaryShare) : book.ratingAtOrBelow(is * secondaryShare, DeviceKind::Breaker);
    if (device == 0 && is < 9) device = book.ratingAtOrBelow(is * secondaryShare, DeviceKind::TimeDelayFuse); // below the smallest breaker
    if (device == 0) in.refuse("kva", fmt::format("no standard device is rated {} A", figures(is * secondaryShare)));
    a.working.step("Secondary device", fmt::format("{} A × {} % = {} A", figures(is), lintel::number(secondaryShare * 100), figures(is * secondaryShare)), rating(device) + " A", book.cite("transformer"));
    a.figure("kva", "Transformer", rating(kva) + " kVA", kva);
    a.figure("used_percent", "Used", percent(va / kva / 10), va / kva / 10);
    a.figure("primary_A", "Primary current", figures(ip) + " A", ip);
    a.figure("secondary_A", "Secondary current", figures(is) + " A", is);
    a.figure("primary_device_A", "Primary device alone", rating(alone) + " A", alone);
    a.figure("primary_device_most_A", "With a secondary device, up to", rating(most) + " A", most);
    a.figure("secondary_device_A", "Secondary device", rating(device) + " A", device);
    Transformer t;
    t.kva = kva, t.percentZ = in.number("percentZ"), t.xOverR = in.number("xOverR"), t.primary = primary, t.secondary = secondary;
    const FaultPoint f = afterTransformer(given(1e6, 1e6, primary), t);
    a.working.step("Fault at its terminals", fmt::format("{} A / {} %, infinite primary", figures(is), figures(t.percentZ)), figures(three ? f.threePhase : f.lineLine) + " kA", "");
    a.figure("fault_kA", "Fault at its terminals", figures(f.worst()) + " kA", f.worst());
    const double rr = t.percentZ / std::hypot(1.0, t.xOverR), xx = rr * t.xOverR, regulation = va / kva / 1000 * (rr * pf + xx * std::sqrt(1 - pf * pf));
    a.working.step("Regulation", fmt::format("{} × ({}·{:.2f} + {}·{:.2f})", figures(va / kva / 1000), figures(rr), pf, figures(xx), std::sqrt(1 - pf * pf)), percent(regulation), "");
    a.figure("regulation_percent", "Regulation", percent(regulation), regulation);
    // Its secondary conductors end in the secondary device and may not borrow the next rating up.
    RunResult r;
    RunNeed& n = r.need;
    n.feeder = true;
    n.poles = poles;
    n.system = secondary;
    n.load = n.required = Amps{std::max(amps, device)}; // the conductors carry their device, the drop is the load's
    n.dropAmps = Amps{amps};
    n.device = device;
    n.nextRatingAllowed = false;
    n.groundWanted = false;
    n.dropPowerFactor = pf;
    a.working.step("Secondary conductors", "carry the rating of the device they end in; no next rating up", rating(device) + " A", book.cite("transformerSecondaryConductors"));
    benchRun(in, r, a, book);
    const Bonding b = bondingOf(r, n.material, book, &a.working);
    if (b.jumper >= 0) a.figure("jumper", "Bonding jumper", sizeWords(book, b.jumper), book.sizes()[std::size_t(b.jumper)].name);
    if (b.electrode >= 0) a.figure("electrode", "Grounding electrode conductor", sizeWords(book, b.electrode), book.sizes()[std::size_t(b.electrode)].name);
    return a;
}

} // namespace

extern const BenchKind transformerBench;
const BenchKind transformerBench{"transformer", "Transformer", "Size, currents, devices on both sides, secondary conductors, bonding, fault level.", fields, work};

} // namespace lintel
