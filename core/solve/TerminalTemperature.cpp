// Conductors in raceways: the column of their terminals, then ambient and bundling, then the device (NEC 110.14(C),
// 310, 240.4, 250.122).

#include "core/base/Format.h"
#include "core/solve/Procedure.h"

#include <fmt/format.h>

namespace lintel {
namespace {

Conditions conditionsOf(const RunNeed& n, const SizingRules& rules, const RuleBook& book) {
    int terminal =
        std::min(rules.insulation,
                 n.device > book.terminalBoundary || rules.terminals75 ? book.terminalAbove : book.terminalBelow);
    if (n.wiring == Wiring::NmCable)
        terminal = std::min(terminal, 60); // such cable is used at no more than its 60 °C ampacity
    double ambient = n.ambient == rules.ambient ? rules.ambientFactor : book.ambientFactor(n.ambient, rules.insulation);
    if (const double base = book.ambientOf(n.wiring); base != 30) ambient /= book.ambientFactor(base, rules.insulation);
    return {terminal, ambient, book.bundlingFactor(n.conductors), 1};
}
Ampacity ampacityUnder(const Conditions& c, const RunNeed& n, Candidate which, const SizingRules& rules,
                       const RuleBook& book) {
    const SizeIndex size = which.size;
    Ampacity a;
    a.terminalCelsius = c.celsius;
    a.table = book.ampacity(size, n.material, rules.insulation, n.wiring);
    a.ambient = c.ambient;
    a.bundling = c.bundling;
    a.corrected = a.table * a.ambient * a.bundling;
    a.terminal = book.ampacity(size, n.material, a.terminalCelsius);
    return a;
}

/// The first requirement that a candidate does not meet, in the order they are applied; None when it passes.
Governing failing(const Conditions& under, const RunNeed& n, Candidate c, const SizingRules& rules,
                  const RuleBook& book) {
    const Ampacity a = ampacityUnder(under, n, c, rules, book);
    const double k = c.sets, eps = 1e-6;
    const double insulated = a.table * k;
    if (insulated + eps < n.load.v) return Governing::Load;
    if (a.terminal * k + eps < n.required.v) // with the code's additions, before corrections
        return a.terminal * k + eps < n.load.v
                   ? (book.ampacity(c.size, n.material, 75) * k + eps >= n.required.v ? Governing::Terminal
                                                                                      : Governing::Load)
               : n.motor ? Governing::Load
                         : Governing::ContinuousLoad;
    if (!n.motor && n.device > 0) {
        const double limit = book.smallConductorLimit(c.size, n.material);
        if (limit > 0 && n.device > limit + eps) return Governing::DeviceProtection;
        const auto protects = [&](double amps) {
            if (n.device * n.deviceShare <= amps + eps) return true;
            return n.nextRatingAllowed && n.device <= book.nextRatingUpTo &&
                   n.device <= book.ratingAtOrAbove(amps) + eps;
        };
        if (!protects(std::min(insulated, a.terminal * k))) return Governing::DeviceProtection;
        if (!protects(a.value() * k))
            return a.ambient < 1 && (a.bundling >= 1 || !protects(std::min(a.terminal, a.table * a.ambient) * k))
                       ? Governing::Ambient
                       : Governing::Bundling;
    }
    if (a.value() * k + eps < n.load.v)
        return a.bundling < 1 && a.table * a.ambient * k + eps >= n.load.v ? Governing::Bundling : Governing::Ambient;
    return Governing::None;
}

/// How what a conductor carries stands against what it has to.
std::string against(double carries, double wanted) {
    return fmt::format("{} {} A", carries + 1e-6 >= wanted ? "≥" : "<", figures(wanted));
}

void tellAmpacity(Working& w, const RunNeed& n, Candidate c, const SizingRules& rules, const RuleBook& book,
                  Governing why) {
    const Ampacity a = ampacityOf(n, c.size, rules, book, c.sets);
    const std::string size = sizeWords(book, c.size);
    const std::string sets = c.sets > 1 ? fmt::format(" × {} sets", c.sets) : "";
    w.step("Terminals", fmt::format("{} A device: {} °C column", rating(n.device), a.terminalCelsius), "",
           book.cite("terminal"));
    if (n.wiring == Wiring::NmCable) w.step("NM cable", "no more than its 60 °C ampacity", "", book.cite("nmCable"));
    w.step(fmt::format("Ampacity, {} °C", a.terminalCelsius),
           fmt::format("{}: {} A{}", size, figures(a.terminal), sets), against(a.terminal * c.sets, n.required.v),
           book.cite("ampacity"));
    if (why == Governing::Load || why == Governing::ContinuousLoad || why == Governing::MinimumSize ||
        why == Governing::Terminal)
        w.governs();
    if (const double limit = book.smallConductorLimit(c.size, n.material); limit > 0 && !n.motor) {
        w.step("Small conductor", fmt::format("{} held to {} A", size, figures(limit)),
               fmt::format("device {} A", rating(n.device)), book.cite("smallConductor"));
        if (why == Governing::DeviceProtection) w.governs();
    }
    if (a.ambient != 1 || a.bundling != 1) {
        w.step(
            fmt::format("Ambient {} °C, {} conductors", figures(n.ambient), n.conductors),
            fmt::format("{} × {} × {} = {} A{}", figures(a.table), figures(a.ambient), figures(a.bundling),
                        figures(a.corrected), sets),
            against(a.corrected * c.sets, n.load.v),
            (n.wiring == Wiring::FreeAir || n.wiring == Wiring::Messenger ? book.ampacityTable(n.wiring) + ", " : "") +
                book.cite("ambient") + ", " + book.cite("bundling"));
        if (why == Governing::Ambient || why == Governing::Bundling) w.governs();
    }
    if (n.motor)
        w.step("Protection", "a motor's conductors are protected by its overload, not by this device", "",
               book.cite("motorApart") + ", " + book.cite("overload"));
    if (!n.motor && n.device > 0) {
        const double carries = a.value() * c.sets;
        if (n.deviceShare < 1)
            w.step("Dwelling service",
                   fmt::format("{} A × {} % = {} A", figures(n.device), figures(n.deviceShare * 100),
                               figures(n.device * n.deviceShare)),
                   fmt::format("{} {} A", n.device * n.deviceShare <= carries + 1e-6 ? "≤" : ">", figures(carries)),
                   book.cite("dwellingService"));
        else if (n.device <= carries + 1e-6)
            w.step("Protected by its device", fmt::format("{} A ≤ {} A", rating(n.device), figures(carries)), "",
                   book.cite("protected"));
        else {
            const bool next = n.nextRatingAllowed && n.device <= book.nextRatingUpTo &&
                              n.device <= book.ratingAtOrAbove(carries) + 1e-6;
            w.step("Protected by its device",
                   fmt::format("{} A {} {} A", rating(n.device), next ? "is the next rating above" : "is above",
                               figures(carries)),
                   next ? "" : "not protected", next ? book.cite("nextRating") : book.cite("protected"));
        }
        if (why == Governing::DeviceProtection && book.smallConductorLimit(c.size, n.material) == 0) w.governs();
    }
}

void protect(RunResult& r, Candidate chosen, Candidate least, const SizingRules&, const RuleBook& book, Working* w) {
    const RunNeed& n = r.need;
    const ConductorSize& z = book.sizes()[std::size_t(chosen.size)];
    if (n.groundWanted && n.device > 0) {
        // By the device; in each raceway of parallel sets in full. Raised in the proportion of areas when the lines
        // were raised, and never larger than they are.
        SizeIndex ground = book.protectiveFor(n.device, n.material);
        const SizeIndex byDevice = ground;
        ground = std::min(ground, chosen.size); // never asked to be larger than the lines, raised or not
        if (w && ground >= 0)
            w->step("Ground",
                    fmt::format("{} A device{}", rating(n.device),
                                ground < byDevice ? ", and no larger than the lines" : ""),
                    sizeWords(book, ground),
                    book.cite("protective") + (ground < byDevice ? ", " + book.cite("protectiveMost") : ""));
        if (ground >= 0) {
            const double raise = z.kcmil * chosen.sets / (book.sizes()[std::size_t(least.size)].kcmil * least.sets);
            const double wanted = book.sizes()[std::size_t(ground)].kcmil * std::max(1.0, raise);
            SizeIndex g = ground;
            if (raise > 1 + 1e-9)
                while (g + 1 < SizeIndex(book.sizes().size()) &&
                       book.sizes()[std::size_t(g)].kcmil < wanted * (1 - 1e-9))
                    ++g;
            g = std::min(g, chosen.size);
            r.groundRaised = g > ground;
            if (w && g != ground)
                w->step(g > ground ? "Ground raised with the lines" : "Ground",
                        g > ground ? fmt::format("{:.1f} kcmil × {:.2f} = {:.1f} kcmil",
                                                 book.sizes()[std::size_t(ground)].kcmil, raise, wanted)
                                   : "no larger than the lines",
                        sizeWords(book, g), book.cite("protectiveRaised"));
            ground = g;
        }
        if (n.heldGround >= 0 && ground >= 0) {
            r.groundNeeded = ground;
            if (w)
                w->step("Ground held", "", sizeWords(book, n.heldGround),
                        n.heldGround < ground ? "held, too small" : "held");
            ground = n.heldGround;
            r.groundRaised = false;
        }
        r.ground = ground;
    }
    if (n.lengthKnown) {
        const ConductorSize& back =
            r.ground >= 0 && book.choosable(r.ground, n.material) ? book.sizes()[std::size_t(r.ground)] : z;
        r.groundOhms = Complex{back.resistance[std::size_t(n.material)][std::size_t(n.raceway)],
                               back.reactance[std::size_t(n.raceway)]} *
                       n.length.v / double(chosen.sets);
    }
}

} // namespace

const Procedure terminalTemperature{conditionsOf, ampacityUnder, failing, tellAmpacity, protect, nullptr};

} // namespace lintel
