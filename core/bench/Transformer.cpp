// A transformer: its size for a load, its currents, the devices on both sides, its secondary conductors and their
// bonding.

#include "core/base/Format.h"
#include "core/bench/Run.h"
#include "core/solve/EquipmentSize.h"
#include "core/solve/Fault.h"
#include "core/solve/Solve.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<BenchField> f{
        {.key = "load", .label = "Load", .type = T::Load, .value = "60 kVA", .unit = "kVA"},
        {.key = "powerFactor", .label = "Power factor", .value = "0.9", .least = 0.01, .most = 1},
        {.key = "growth", .label = "Growth", .value = "25", .unit = "%", .least = 0, .most = 500},
        {.key = "kva", .label = "Rated", .value = "auto", .unit = "kVA", .least = 0.1, .most = 100000},
        systemField("480Y/277", "primary", "Primary"),
        systemField("208Y/120", "secondary", "Secondary"),
        {.key = "percentZ", .label = "Impedance", .value = "4.5", .unit = "%", .least = 0.1, .most = 100},
        {.key = "xOverR", .label = "X/R", .value = "2", .least = 0, .most = 1000},
        {.key = "primaryKV",
         .label = "Medium-voltage primary",
         .value = "auto",
         .unit = "kV",
         .least = 1.001,
         .most = 35,
         .help = "In place of the primary above: 2.4, 4.16, 12.47, 13.2, 13.8, 24.9 or 34.5. Auto: there is none.",
         .seldom = true},
        {.key = "supervised",
         .label = "Supervised location",
         .type = T::Flag,
         .value = "no",
         .help = "Only qualified persons have access to it: 450.3(A).",
         .seldom = true}};
    for (BenchField& r : runFields(book)) {
        if (r.key == "length") r.value = "10 ft", r.label = "Secondary conductors";
        f.push_back(std::move(r));
    }
    return f;
}

struct TransformerDevices {
    double alone = 0; ///< A of a primary device without a secondary one; 0: that is not allowed
    double most = 0;  ///< of a primary device (a breaker, above 1000 V) with a secondary one
    double fuse = 0;  ///< above 1000 V: of a primary fuse
    double secondary = 0;
    double primaryLimit = 0, secondaryLimit = 0; ///< before rounding
};

TransformerDevices devicesTo1000(const BenchInputs& in, double ip, double is, BenchAnswer& a, const RuleBook& book) {
    TransformerDevices d;
    const RuleTables& t = book.tables;
    const double share = bandOf(t.transformerPrimaryOnly, ip);
    d.alone = transformerPrimaryRating(ip, book);
    d.primaryLimit = ip * t.transformerPrimaryWithSecondary;
    d.most = book.ratingAtOrBelow(d.primaryLimit, DeviceKind::Breaker);
    a.working.step("Primary device alone",
                   fmt::format("{} A × {} % = {} A, {}", figures(ip), lintel::number(share * 100), figures(ip * share),
                               nextRatingAllowed(t.transformerPrimaryOnly, ip) ? "next standard rating"
                                                                               : "the standard rating below"),
                   rating(d.alone) + " A", book.cite("transformer"));
    a.working.step("Primary device with a secondary one",
                   fmt::format("{} A × {} % = {} A, the standard rating below", figures(ip),
                               lintel::number(t.transformerPrimaryWithSecondary * 100), figures(d.primaryLimit)),
                   "up to " + rating(d.most) + " A", book.cite("transformer"));
    const double secondaryShare = bandOf(t.transformerSecondaryDevice, is);
    d.secondaryLimit = is * secondaryShare;
    const bool next = nextRatingAllowed(t.transformerSecondaryDevice, is);
    d.secondary =
        next ? book.ratingAtOrAbove(d.secondaryLimit) : book.ratingAtOrBelow(d.secondaryLimit, DeviceKind::Breaker);
    if (d.secondary == 0 && !next)
        d.secondary = book.ratingAtOrBelow(d.secondaryLimit, DeviceKind::TimeDelayFuse); // below the smallest breaker
    if (d.secondary == 0) in.refuse("kva", fmt::format("no standard device is rated {} A", figures(d.secondaryLimit)));
    a.working.step(
        "Secondary device",
        fmt::format("{} A × {} % = {} A", figures(is), lintel::number(secondaryShare * 100), figures(d.secondaryLimit)),
        rating(d.secondary) + " A", book.cite("transformer"));
    return d;
}

/// Above 1000 V the shares go by the impedance and by who has access. Where they meet no standard rating, the next is
/// allowed.
TransformerDevices devicesAbove1000(const BenchInputs& in, double ip, double is, BenchAnswer& a, const RuleBook& book) {
    TransformerDevices d;
    const bool supervised = in.flag("supervised");
    const double z = in.number("percentZ");
    const RuleTables::Above1000* row = nullptr;
    for (const RuleTables::Above1000& r : supervised ? book.tables.above1000Supervised : book.tables.above1000Any)
        if (!row && z <= r.upToPercentZ + 1e-9) row = &r;
    if (!row)
        in.refuse(
            "percentZ",
            fmt::format("{} gives no share for an impedance of {} %", book.cite("transformerAbove1000"), figures(z)),
            "Its table ends at 10 %.");
    const auto step = [&](const char* what, double amps, double share, bool fuse) {
        const double limit = amps * share;
        const double standard = book.ratingAtOrAbove(limit, fuse ? DeviceKind::Fuse : DeviceKind::Breaker),
                     rated = standard > 0 ? standard : limit;
        a.working.step(what,
                       fmt::format("{} A × {} % = {} A{}", figures(amps), lintel::number(share * 100), figures(limit),
                                   standard > 0 ? ", next standard rating" : ", past the series"),
                       "up to " + rating(rated) + " A", book.cite("transformerAbove1000"));
        return rated;
    };
    d.primaryLimit = ip * row->primaryBreaker;
    d.most = step("Primary breaker", ip, row->primaryBreaker, false);
    d.fuse = step("Primary fuse", ip, row->primaryFuse, true);
    if (supervised)
        d.alone = step("Primary breaker without a secondary device", ip, book.tables.above1000AloneBreaker, false);
    d.secondaryLimit = is * row->secondaryLow;
    d.secondary = step("Secondary device", is, row->secondaryLow, false);
    return d;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    const auto primary = in.anySystem("primary"), secondary = in.system("secondary");
    const SystemFacts p = factsOf(primary), s = factsOf(secondary);
    if (s.phases == 3 && p.phases != 3 && !in.maybe("primaryKV"))
        in.refuse("secondary", fmt::format("three phases cannot come from {}", wordOf(primary)),
                  "Choose a single-phase secondary.");
    const bool three = s.phases == 3;
    const BenchLoad l = in.load("load");
    const int poles = three ? 3 : s.lines;
    const double pf = in.number("powerFactor");
    const double amps = benchAmps(in, l, pf, secondary, poles, book, nullptr).v, volts = s.lineLine.v;
    const double va = amps * volts * (three ? root3 : 1), wanted = va * (1 + in.number("growth") / 100) / 1000;
    double kva = nextOf(transformerSeries(book, secondary), wanted);
    a.working.step("Size",
                   fmt::format("{} kVA × {:.2f} = {} kVA, next standard", figures(va / 1000),
                               1 + in.number("growth") / 100, figures(wanted)),
                   kva > 0 ? rating(kva) + " kVA" : "past the series", "");
    if (const auto held = in.maybe("kva")) {
        kva = *held;
        if (kva * 1000 < va)
            a.cautions.push_back(
                fmt::format("{} kVA carries less than the {} kVA asked", rating(kva), figures(va / 1000)));
    }
    if (kva <= 0)
        in.refuse("load", fmt::format("{} kVA is past the standard series", figures(wanted)),
                  "Give its kVA, or divide the load.");
    auto high = in.maybe("primaryKV");
    if (!high && isMediumVoltage(primary)) high = p.lineLine.v / 1000;
    const double primaryVolts = high ? *high * 1000 : p.lineLine.v;
    const double ip = kva * 1000 / (primaryVolts * (three ? root3 : 1)),
                 is = kva * 1000 / (volts * (three ? root3 : 1));
    a.working.step("Rated currents",
                   fmt::format("{} kVA / {} V{} and / {} V{}", rating(kva), lintel::number(primaryVolts),
                               three ? " / √3" : "", lintel::number(volts), three ? " / √3" : ""),
                   fmt::format("{} and {} A", figures(ip), figures(is)), "");
    const TransformerDevices d = high ? devicesAbove1000(in, ip, is, a, book) : devicesTo1000(in, ip, is, a, book);
    a.figure("kva", "Transformer", rating(kva) + " kVA", kva);
    a.figure("used_percent", "Used", percent(va / kva / 10), va / kva / 10);
    a.figure("primary_A", "Primary current", figures(ip) + " A", ip);
    a.figure("secondary_A", "Secondary current", figures(is) + " A", is);
    if (d.alone > 0) a.figure("primary_device_A", "Primary device alone", rating(d.alone) + " A", d.alone);
    if (high) a.figure("primary_fuse_most_A", "Primary fuse, up to", rating(d.fuse) + " A", d.fuse);
    a.figure("primary_device_limit_A", "", "", d.primaryLimit); // before rounding
    a.figure("primary_device_most_A", high ? "Primary breaker, up to" : "With a secondary device, up to",
             rating(d.most) + " A", d.most);
    a.figure("secondary_device_limit_A", "", "", d.secondaryLimit);
    a.figure("secondary_device_A", "Secondary device", rating(d.secondary) + " A", d.secondary);
    const double device = d.secondary;
    Transformer t;
    t.kva = kva, t.percentZ = in.number("percentZ"), t.xOverR = in.number("xOverR"), t.primary = primary,
    t.secondary = secondary;
    const FaultPoint f = afterTransformer(given(1e6, 1e6, primary), t);
    a.working.step("Fault at its terminals",
                   fmt::format("{} A / {} %, infinite primary", figures(is), figures(t.percentZ)),
                   figures(three            ? f.threePhase
                           : f.lineLine > 0 ? f.lineLine
                                            : f.lineNeutral) +
                       " kA",
                   "");
    a.figure("fault_kA", "Fault at its terminals", figures(f.worst()) + " kA", f.worst());
    const double rr = t.percentZ / std::hypot(1.0, t.xOverR), xx = rr * t.xOverR,
                 regulation = va / kva / 1000 * (rr * pf + xx * std::sqrt(1 - pf * pf));
    a.working.step("Regulation",
                   fmt::format("{} × ({}·{:.2f} + {}·{:.2f})", figures(va / kva / 1000), figures(rr), pf, figures(xx),
                               std::sqrt(1 - pf * pf)),
                   percent(regulation), "");
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
    a.working.step("Secondary conductors", "carry the rating of the device they end in; no next rating up",
                   rating(device) + " A", book.cite("transformerSecondaryConductors"));
    benchRun(in, r, a, book);
    const Bonding b = bondingOf(r, n.material, book, &a.working);
    if (b.jumper >= 0)
        a.figure("jumper", "Bonding jumper", sizeWords(book, b.jumper), book.sizes()[std::size_t(b.jumper)].name);
    if (b.electrode >= 0)
        a.figure("electrode", "Grounding electrode conductor", sizeWords(book, b.electrode),
                 book.sizes()[std::size_t(b.electrode)].name);
    return a;
}

} // namespace

extern const BenchKind transformerBench;
const BenchKind transformerBench{"transformer", "Transformer",
                                 "Size, currents, devices on both sides, secondary conductors, bonding, fault level.",
                                 fields, work};

} // namespace lintel
