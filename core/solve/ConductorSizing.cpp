#include "core/solve/ConductorSizing.h"

#include "core/base/Format.h"

#include <fmt/format.h>

namespace lintel {
namespace {

struct Candidate {
    SizeIndex size = -1;
    int sets = 0;
};

/// What is the same for every size of one run.
struct Conditions {
    int terminalCelsius;
    double ambient, bundling;
};
Conditions conditionsOf(const RunNeed& n, const SizingRules& rules, const RuleBook& book) {
    int terminal = std::min(rules.insulation, n.device > book.terminalBoundary || rules.terminals75 ? book.terminalAbove : book.terminalBelow);
    if (n.wiring == Wiring::NmCable) terminal = std::min(terminal, 60); // such cable is used at no more than its 60 °C ampacity
    double ambient = n.ambient == rules.ambient ? rules.ambientFactor : book.ambientFactor(n.ambient, rules.insulation);
    if (const double base = book.ambientOf(n.wiring); base != 30) ambient /= book.ambientFactor(base, rules.insulation);
    return {terminal, ambient, book.bundlingFactor(n.conductors)};
}
Ampacity ampacityUnder(const Conditions& c, const RunNeed& n, SizeIndex size, const SizingRules& rules, const RuleBook& book) {
    Ampacity a;
    a.terminalCelsius = c.terminalCelsius;
    a.table = book.ampacity(size, n.material, rules.insulation, n.wiring);
    a.ambient = c.ambient;
    a.bundling = c.bundling;
    a.corrected = a.table * a.ambient * a.bundling;
    a.terminal = book.ampacity(size, n.material, a.terminalCelsius);
    return a;
}

/// The first requirement that a candidate does not meet, in the order they are applied; None when it passes.
Governing failing(const Conditions& under, const RunNeed& n, Candidate c, const SizingRules& rules, const RuleBook& book) {
    const Ampacity a = ampacityUnder(under, n, c.size, rules, book);
    const double k = c.sets, eps = 1e-6;
    const double insulated = a.table * k;
    if (insulated + eps < n.load.v) return Governing::Load;
    if (a.terminal * k + eps < n.required.v) // with the code's additions, before corrections
        return a.terminal * k + eps < n.load.v ? (book.ampacity(c.size, n.material, 75) * k + eps >= n.required.v ? Governing::Terminal : Governing::Load) : n.motor ? Governing::Load : Governing::ContinuousLoad;
    if (!n.motor && n.device > 0) {
        const double limit = book.smallConductorLimit(c.size, n.material);
        if (limit > 0 && n.device > limit + eps) return Governing::DeviceProtection;
        const auto protects = [&](double amps) {
            if (n.device * n.deviceShare <= amps + eps) return true;
            return n.nextRatingAllowed && n.device <= book.nextRatingUpTo && n.device <= book.ratingAtOrAbove(amps) + eps;
        };
        if (!protects(std::min(insulated, a.terminal * k))) return Governing::DeviceProtection;
        if (!protects(a.value() * k)) return a.ambient < 1 && (a.bundling >= 1 || !protects(std::min(a.terminal, a.table * a.ambient) * k)) ? Governing::Ambient : Governing::Bundling;
    }
    if (a.value() * k + eps < n.load.v) return a.bundling < 1 && a.table * a.ambient * k + eps >= n.load.v ? Governing::Bundling : Governing::Ambient;
    return Governing::None;
}

/// The size that comes next above in the order of upsizing: up to the preferred largest, then one more set.
Candidate nextAbove(Candidate c, const RunNeed& n, const SizingRules& rules, const RuleBook& book) {
    for (SizeIndex s = c.size + 1; s < SizeIndex(book.sizes().size()); ++s)
        if (book.choosable(s, n.material) && s <= std::max(rules.largestPreferred, c.size)) return {s, c.sets};
    const double area = book.sizes()[std::size_t(c.size)].kcmil * c.sets;
    for (SizeIndex s = std::max(book.smallestParallel(), n.smallest); s <= rules.largestPreferred; ++s)
        if (book.choosable(s, n.material) && book.sizes()[std::size_t(s)].kcmil * (c.sets + 1) > area) return {s, c.sets + 1};
    return {};
}

Candidate smallestThatCarries(const Conditions& under, const RunNeed& n, const SizingRules& rules, const RuleBook& book) {
    for (int sets = n.heldSets > 0 ? n.heldSets : 1; sets <= (n.heldSets > 0 ? n.heldSets : 12); ++sets) {
        const SizeIndex from = sets > 1 ? std::max(n.smallest, book.smallestParallel()) : n.smallest;
        for (SizeIndex s = from; s <= rules.largestPreferred; ++s)
            if (book.choosable(s, n.material) && failing(under, n, {s, sets}, rules, book) == Governing::None) return {s, sets};
    }
    return {};
}

std::string lengthWords(Metres m, UnitSystem u) { return u == UnitSystem::Imperial ? number(inFeet(m)) + " ft" : number(m.v) + " m"; }

void tellAmpacity(Working& w, const RunNeed& n, Candidate c, const SizingRules& rules, const RuleBook& book, Governing why) {
    const Ampacity a = ampacityOf(n, c.size, rules, book);
    const std::string size = sizeWords(book, c.size);
    const std::string sets = c.sets > 1 ? fmt::format(" × {} sets", c.sets) : "";
    w.step("Terminals", fmt::format("{} A device: {} °C column", rating(n.device), a.terminalCelsius), "", book.cite("terminal"));
    if (n.wiring == Wiring::NmCable) w.step("NM cable", "no more than its 60 °C ampacity", "", "334.80");
    w.step(fmt::format("Ampacity, {} °C", a.terminalCelsius), fmt::format("{}: {} A{}", size, figures(a.terminal), sets), fmt::format("≥ {} A", figures(n.required.v)), book.cite("ampacity"));
    if (why == Governing::Load || why == Governing::ContinuousLoad || why == Governing::MinimumSize || why == Governing::Terminal) w.governs();
    if (const double limit = book.smallConductorLimit(c.size, n.material); limit > 0 && !n.motor) {
        w.step("Small conductor", fmt::format("{} held to {} A", size, figures(limit)), fmt::format("device {} A", rating(n.device)), book.cite("smallConductor"));
        if (why == Governing::DeviceProtection) w.governs();
    }
    if (a.ambient != 1 || a.bundling != 1) {
        w.step(fmt::format("Ambient {} °C, {} conductors", figures(n.ambient), n.conductors),
               fmt::format("{} × {} × {} = {} A{}", figures(a.table), figures(a.ambient), figures(a.bundling), figures(a.corrected), sets),
               fmt::format("≥ {} A", figures(n.load.v)), (n.wiring == Wiring::FreeAir || n.wiring == Wiring::Messenger ? book.ampacityTable(n.wiring) + ", " : "") + book.cite("ambient") + ", " + book.cite("bundling"));
        if (why == Governing::Ambient || why == Governing::Bundling) w.governs();
    }
    if (n.motor) w.step("Protection", "a motor's conductors are protected by its overload, not by this device", "", "240.4(G), " + book.cite("overload"));
    if (!n.motor && n.device > 0) {
        const double carries = a.value() * c.sets;
        if (n.deviceShare < 1)
            w.step("Dwelling service", fmt::format("{} A × {} % = {} A", figures(n.device), figures(n.deviceShare * 100), figures(n.device * n.deviceShare)), fmt::format("≤ {} A", figures(carries)), book.cite("dwellingService"));
        else w.step("Protected by its device", fmt::format("{} A {} {} A", rating(n.device), n.device <= carries + 1e-6 ? "≤" : "is the next rating above", figures(carries)), "",
               n.device <= carries + 1e-6 ? book.cite("protected") : book.cite("nextRating"));
        if (why == Governing::DeviceProtection && book.smallConductorLimit(c.size, n.material) == 0) w.governs();
    }
}

} // namespace

SizingRules sizingRules(const Basis& b, const RuleBook& book) {
    SizingRules r;
    r.insulation = b.insulation;
    r.terminals75 = b.terminals75;
    r.largestPreferred = book.find(b.largestPreferred);
    if (r.largestPreferred < 0) r.largestPreferred = SizeIndex(book.sizes().size()) - 1;
    r.ceiling = b.upsizingCeiling;
    r.units = b.units;
    r.ambient = b.ambient;
    r.ambientFactor = book.ambientFactor(b.ambient, b.insulation);
    return r;
}

Ampacity ampacityOf(const RunNeed& n, SizeIndex size, const SizingRules& rules, const RuleBook& book) {
    return ampacityUnder(conditionsOf(n, rules, book), n, size, rules, book);
}

Volts dropReference(const RunNeed& n) { return n.poles == 3 ? factsOf(n.system).lineLine : voltsAcross(n.system, n.poles); }

Volts dropVolts(const RunNeed& n, SizeIndex size, int sets, Amps amps, Metres length, const RuleBook& book) {
    const ConductorSize& s = book.sizes()[std::size_t(size)];
    const double r = s.resistance[std::size_t(n.material)][std::size_t(n.raceway)], x = s.reactance[std::size_t(n.raceway)];
    const double sine = std::sqrt(std::max(0.0, 1 - n.dropPowerFactor * n.dropPowerFactor));
    const OhmsPerMetre z{(r * n.dropPowerFactor + x * sine) / sets};
    return (n.poles == 3 ? root3 : 2.0) * (amps * (z * length));
}

double dropPercent(const RunNeed& n, SizeIndex size, int sets, Amps amps, Metres length, const RuleBook& book) {
    return dropVolts(n, size, sets, amps, length, book) / dropReference(n) * 100;
}

double conductorMass(const RunNeed& n, SizeIndex size, int sets, const RuleBook& book) {
    const double density = n.material == Material::Copper ? 8890 : 2700; // kg/m³
    return book.sizes()[std::size_t(size)].mm2 * 1e-6 * n.length.v * density * n.conductorsOfSet() * sets;
}

void sizeRun(RunResult& r, const SizingRules& rules, const RuleBook& book, Working* w) {
    const RunNeed& n = r.need;
    static_cast<RunOutcome&>(r) = RunOutcome{};
    const auto dropOf = [&](Candidate c) { return n.lengthKnown ? dropPercent(n, c.size, c.sets, n.dropAmps, n.length, book) : 0.0; };
    const auto within = [&](double own) { return own <= n.ownLimit + 1e-9 && n.totalBefore + own <= n.totalLimit + 1e-9; };

    const Conditions under = conditionsOf(n, rules, book);
    Candidate least = smallestThatCarries(under, n, rules, book);
    if (n.heldSets > 0 && least.size < 0 && n.held >= 0) { // so many sets of anything do not do: say so, with the held size
        RunNeed free = n;
        free.heldSets = 0;
        least = smallestThatCarries(under, free, rules, book);
    }
    if (least.size < 0) {
        r.state = Sizing::NoneFits;
        if (w) w->step("Ampacity", fmt::format("no conductor of the book, in up to 12 sets, carries {} A", figures(n.required.v)), "", book.cite("ampacity"));
        return;
    }
    for (int i = 0; i < n.raised && n.held < 0; ++i)
        if (const Candidate up = nextAbove(least, n, rules, book); up.size >= 0) least = up;
    if (w && n.raised > 0 && n.held < 0) w->step("Raised for the runs below", fmt::format("{} {} up: fewer kilograms than raising each branch run that is over the total", n.raised, n.raised == 1 ? "size" : "sizes"), sizeWords(book, least.size), "Basis");
    Candidate chosen = least;
    r.sizeForAmpacity = least.size;
    r.setsForAmpacity = least.sets;
    r.dropBefore = dropOf(least);

    // What keeps the next smaller size out decides; where nothing smaller may be used, the minimum does.
    SizeIndex below = least.size - 1;
    while (below >= 0 && !book.choosable(below, n.material)) --below;
    if (least.sets == 1 && below < n.smallest) {
        const Governing smaller = below >= 0 ? failing(under, n, {below, 1}, rules, book) : Governing::None;
        r.why = smaller == Governing::None ? Governing::MinimumSize : smaller;
    } else if (least.sets > 1 && (below < book.smallestParallel())) {
        r.why = Governing::Load;
    } else {
        r.why = failing(under, n, {below, least.sets}, rules, book);
    }
    const Governing forAmpacity = r.why;

    if (n.held >= 0 && book.choosable(n.held, n.material)) {
        chosen = {n.held, n.heldSets > 0 ? n.heldSets : 1};
        r.state = Sizing::Held;
        r.why = Governing::Held;
        r.tooSmall = failing(under, n, chosen, rules, book) != Governing::None || (chosen.sets > 1 && chosen.size < book.smallestParallel());
        if (w) {
            tellAmpacity(*w, n, least, rules, book, Governing::None);
            w->step("Held by hand", fmt::format("{}{} instead of {}", chosen.sets > 1 ? fmt::format("{} sets of ", chosen.sets) : "", sizeWords(book, chosen.size), sizeWords(book, least.size)),
                    r.tooSmall ? "too small" : "carries it", "");
            w->governs();
        }
    } else {
        r.state = Sizing::Sized;
        if (w) tellAmpacity(*w, n, least, rules, book, within(r.dropBefore) ? forAmpacity : Governing::None);
        if (n.lengthKnown && !within(r.dropBefore)) {
            Candidate c = least;
            int steps = 0;
            while (c.size >= 0 && steps < rules.ceiling && !within(dropOf(c))) {
                const Candidate up = nextAbove(c, n, rules, book);
                if (up.size < 0) break;
                c = up;
                ++steps;
            }
            if (within(dropOf(c))) {
                chosen = c;
                r.steps = steps;
                r.why = Governing::VoltageDrop;
            } else {
                r.state = Sizing::PastCeiling;
            }
        }
    }
    if (w && n.dropAmps.v > 0) {
        if (n.lengthKnown) {
            w->step("Current for drop", n.dropByShare ? fmt::format("{} % of the {} A rating = {} A", figures(n.dropAmps.v / n.device * 100), rating(n.device), figures(n.dropAmps.v)) : fmt::format("load, {} A", figures(n.dropAmps.v)),
                    n.dropByShare ? "Basis: share of rating" : n.feeder ? "demand" : "", "");
            if (n.across.v > 0)
                w->step("Length", fmt::format("up {}, across {}, down {}, with slack", lengthWords(n.up, rules.units), lengthWords(n.across, rules.units), lengthWords(n.down, rules.units)),
                        lengthWords(n.length, rules.units), "");
            else w->step("Length", "as entered", lengthWords(n.length, rules.units), "");
            Candidate c = least;
            std::vector<Candidate> shown;
            if (r.state == Sizing::Held) shown = {chosen};
            else
                for (int i = 0; c.size >= 0 && i <= rules.ceiling; ++i) {
                    shown.push_back(c);
                    if (within(dropOf(c))) break;
                    c = nextAbove(c, n, rules, book);
                }
            for (Candidate s : shown) {
                const ConductorSize& z = book.sizes()[std::size_t(s.size)];
                const bool feet = rules.units == UnitSystem::Imperial;
                const double per = feet ? 1000 * metresPerFoot : 1000, len = feet ? inFeet(n.length) : n.length.v;
                const double R = z.resistance[std::size_t(n.material)][std::size_t(n.raceway)] * per, X = z.reactance[std::size_t(n.raceway)] * per;
                const double sine = std::sqrt(std::max(0.0, 1 - n.dropPowerFactor * n.dropPowerFactor));
                const double own = dropOf(s);
                w->step(fmt::format("Drop, {}{}", sizeWords(book, s.size), s.sets > 1 ? fmt::format(" × {}", s.sets) : ""),
                        fmt::format("{}·{}·{}·{}/1000{} = {} V", n.poles == 3 ? "√3" : "2", figures(n.dropAmps.v),
                                    sine > 0.001 ? fmt::format("({}·{:.2f} + {}·{:.2f})", figures(R), n.dropPowerFactor, figures(X), sine) : figures(R), number(len),
                                    s.sets > 1 ? fmt::format("/{}", s.sets) : "", figures(dropVolts(n, s.size, s.sets, n.dropAmps, n.length, book).v)),
                        own > n.ownLimit + 1e-9                     ? fmt::format("{} > {} %", percent(own), figures(n.ownLimit))
                        : n.totalBefore + own > n.totalLimit + 1e-9 ? fmt::format("{}, total {} > {} %", percent(own), percent(n.totalBefore + own), figures(n.totalLimit))
                                                                    : fmt::format("{} ≤ {} %", percent(own), figures(n.ownLimit)),
                        book.cite("impedance") + "; " + book.cite(n.feeder ? "dropFeeder" : "dropBranch"));
                if (r.why == Governing::VoltageDrop && s.size == chosen.size && s.sets == chosen.sets) w->governs();
            }
            if (r.state == Sizing::PastCeiling) {
                w->step("Upsizing ceiling", fmt::format("{} sizes up and still over: stays {}, feed it from nearer", rules.ceiling, sizeWords(book, least.size)), "", "Basis");
                w->governs();
            }
        } else {
            w->step("Drop", "no length is known: place its devices on the plan, or enter a length", "not checked", "");
        }
    }

    r.size = chosen.size;
    r.sets = chosen.sets;
    r.ampacity = ampacityUnder(under, n, chosen.size, rules, book).value() * chosen.sets;
    r.dropOwn = chosen.size == least.size && chosen.sets == least.sets ? r.dropBefore : dropOf(chosen);
    r.dropTotal = n.totalBefore + r.dropOwn;
    if (n.dropAmps.v > 0) {
        const double perMetre = n.lengthKnown && n.length.v > 0 ? r.dropOwn / n.length.v : dropPercent(n, chosen.size, chosen.sets, n.dropAmps, Metres{1}, book);
        const double room = std::min(n.ownLimit, n.totalLimit - n.totalBefore);
        if (perMetre > 0) r.longest = Metres{std::max(0.0, room / perMetre)};
    }
    const ConductorSize& z = book.sizes()[std::size_t(chosen.size)];
    r.ohms = Complex{z.resistance[std::size_t(n.material)][std::size_t(n.raceway)], z.reactance[std::size_t(n.raceway)]} * (n.lengthKnown ? n.length.v : 0.0) / double(chosen.sets);

    if (n.groundWanted && n.device > 0) {
        // By the device; in each raceway of parallel sets in full. Raised in the proportion of areas when the lines were
        // raised, and never larger than they are.
        SizeIndex ground = book.protectiveFor(n.device, n.material);
        if (w && ground >= 0) w->step("Ground", fmt::format("{} A device", rating(n.device)), sizeWords(book, ground), book.cite("protective"));
        if (ground >= 0) {
            const double raise = z.kcmil * chosen.sets / (book.sizes()[std::size_t(least.size)].kcmil * least.sets);
            const double wanted = book.sizes()[std::size_t(ground)].kcmil * std::max(1.0, raise);
            SizeIndex g = ground;
            if (raise > 1 + 1e-9)
                while (g + 1 < SizeIndex(book.sizes().size()) && book.sizes()[std::size_t(g)].kcmil < wanted * (1 - 1e-9)) ++g;
            g = std::min(g, chosen.size);
            r.groundRaised = g > ground;
            if (w && g != ground)
                w->step(g > ground ? "Ground raised with the lines" : "Ground", g > ground ? fmt::format("{:.1f} kcmil × {:.2f} = {:.1f} kcmil", book.sizes()[std::size_t(ground)].kcmil, raise, wanted) : "no larger than the lines", sizeWords(book, g), book.cite("protectiveRaised"));
            ground = g;
        }
        r.ground = ground;
    }
    if (n.lengthKnown) {
        const ConductorSize& back = r.ground >= 0 && book.choosable(r.ground, n.material) ? book.sizes()[std::size_t(r.ground)] : z;
        r.groundOhms = Complex{back.resistance[std::size_t(n.material)][std::size_t(n.raceway)], back.reactance[std::size_t(n.raceway)]} * n.length.v / double(chosen.sets);
    }
}

} // namespace lintel
