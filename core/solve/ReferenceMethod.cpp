// Cables by the way they are laid: Ib ≤ In ≤ Iz with every correction, a protective conductor of the cable, its armour
// or apart, and the earth fault that its device has to open (IEC 60364-4-41, -4-43, -5-52, -5-54 and the national
// standards that follow them).

#include "core/base/Format.h"
#include "core/solve/OpeningTime.h"
#include "core/solve/Procedure.h"

#include <fmt/format.h>

namespace lintel {
namespace {

const CableType& typeOf(const RunNeed& n, const RuleBook& book) {
    return book.cables.types[std::size_t(n.cable->type)];
}
const CableMethod& methodOf(const RunNeed& n, const RuleBook& book) {
    return typeOf(n, book).methods[std::size_t(n.cable->method)];
}

/// Whether the neutral of a cable with four loaded cores heats it by a third harmonic of the lines.
bool loadedNeutral(const RunNeed& n, const RuleBook& book) {
    return n.cable->thirdHarmonic > 0 && n.poles == 3 && n.neutral && !typeOf(n, book).single;
}
double harmonicFactor(const RunNeed& n, const RuleBook& book) {
    double factor = 1;
    if (!loadedNeutral(n, book)) return factor;
    for (const auto& [above, f] : book.cables.thirdHarmonic)
        if (double(n.cable->thirdHarmonic) > above + 1e-6) factor = f;
    return factor;
}
/// The neutral's current over the lines': three times the third harmonic in each, where that decides the size.
double neutralShare(const RunNeed& n, const RuleBook& book) {
    if (!loadedNeutral(n, book) || double(n.cable->thirdHarmonic) <= book.cables.neutralFrom + 1e-6) return 1;
    return std::max(1.0, 3 * double(n.cable->thirdHarmonic));
}

Conditions conditionsOf(const RunNeed& n, const SizingRules&, const RuleBook& book) {
    const CableRules& c = book.cables;
    const CableType& t = typeOf(n, book);
    const CableMethod& m = methodOf(n, book);
    Conditions out;
    out.celsius = int(t.celsius);
    out.ambient = c.ambient(n.ambient, t.celsius, m.ground);
    out.bundling = groupingFactor(n, 1, book);
    out.lying = n.cable->insulated > 0 ? valueOn(c.insulation, double(n.cable->insulated)) : 1;
    out.lying *= harmonicFactor(n, book);
    if (m.ground) out.lying *= c.soilFactor(double(n.cable->soil), m.direct());
    return out;
}

Ampacity ampacityUnder(const Conditions& c, const RunNeed& n, Candidate which, const SizingRules&,
                       const RuleBook& book) {
    Ampacity a;
    a.terminalCelsius = c.celsius;
    a.table = methodOf(n, book).ampacity[n.poles == 3][std::size_t(which.size)];
    a.ambient = c.ambient * c.lying;
    a.bundling = groupingFactor(n, which.sets, book);
    a.corrected = a.table * a.ambient * a.bundling;
    a.terminal = a.corrected; // no other limit
    return a;
}

} // namespace

double groupingFactor(const RunNeed& n, int sets, const RuleBook& book) {
    const int together = n.cable->circuits + (n.cable->setsApart ? 0 : std::max(0, sets - 1));
    const CableMethod& m = methodOf(n, book);
    Grouping row = m.grouping;
    if (!m.ground) switch (n.cable->lying) {
        case Lying::Auto:
            break;
        case Lying::Bunched:
            row = Grouping::Bunched;
            break;
        case Lying::Wall:
            row = Grouping::Wall;
            break;
        case Lying::Ceiling:
            return valueOn(book.cables.grouping[std::size_t(Grouping::Ceiling)],
                           together); // one alone is warmer there too
        case Lying::Tray:
            row = Grouping::Tray;
            break;
        case Lying::Ladder:
            row = Grouping::Ladder;
            break;
        case Lying::Apart:
            return 1;
        }
    return together > 1 ? valueOn(book.cables.grouping[std::size_t(row)], together) : 1;
}

namespace {

/// Of the cable's capacity that its device may be rated: less than all for a rewirable fuse.
double deviceShare(const RunNeed& n, const RuleBook& book) {
    const auto band = book.cables.trips.find(n.cable->device);
    return band == book.cables.trips.end() ? 1 : band->second.capacityShare;
}

/// What the cable has to carry: its device's rating; where an overload of its own protects it, the load; in each leg of
/// a ring what the standard asks.
double toCarry(const RunNeed& n, const RuleBook& book) {
    if (n.cable->ring) return book.cables.ringCableAmps;
    const double share = (methodOf(n, book).ground ? book.cables.buriedShare : 1) * deviceShare(n, book);
    const double lines = n.motor || n.device <= 0 ? n.load.v : std::max(n.device / share, n.load.v);
    return lines * neutralShare(n, book);
}

Governing failing(const Conditions& under, const RunNeed& n, Candidate c, const SizingRules&, const RuleBook& book) {
    const double table = methodOf(n, book).ampacity[n.poles == 3][std::size_t(c.size)] * c.sets,
                 carry = toCarry(n, book), eps = 1e-6;
    if (n.cable->ring && book.sizes()[std::size_t(c.size)].mm2 < book.cables.ringLeast - eps)
        return Governing::MinimumSize;
    const double placed = table * under.ambient * under.lying, corrected = placed * groupingFactor(n, c.sets, book);
    // The corrected capacity decides: where it lies cooler than the table stands for, it carries more than the table.
    if (corrected + eps >= carry) return Governing::None;
    if (table + eps < n.load.v && !n.cable->ring) return Governing::Load;
    if (table + eps < carry) return Governing::DeviceProtection;
    return placed + eps < carry ? Governing::Ambient : Governing::Bundling;
}

void tellAmpacity(Working& w, const RunNeed& n, Candidate c, const SizingRules& rules, const RuleBook& book,
                  Governing why) {
    Conditions under = conditionsOf(n, rules, book);
    under.bundling = groupingFactor(n, c.sets, book);
    const CableMethod& m = methodOf(n, book);
    const CableType& t = typeOf(n, book);
    const double carry = toCarry(n, book), table = m.ampacity[n.poles == 3][std::size_t(c.size)];
    w.step("Cable", fmt::format("{}, method {}: {}", t.name, m.name, m.words),
           fmt::format("{} loaded conductors", n.poles == 3 ? 3 : 2), m.table + (m.unverified ? " (unverified)" : ""));
    if (n.cable->ring)
        w.step("Ring",
               fmt::format("{} A device, each leg at least {} A", rating(n.device), figures(book.cables.ringCableAmps)),
               "", book.cite("ring"));
    else if (n.motor)
        w.step("To carry", "its own load: the overload of the motor protects it", figures(carry) + " A",
               book.cite("protected"));
    else
        w.step("Ib ≤ In ≤ Iz", fmt::format("{} A ≤ {} A ≤ Iz", figures(n.load.v), rating(n.device)), "",
               book.cite("protected"));
    if (deviceShare(n, book) < 1 && !n.motor && !n.cable->ring && n.device > 0)
        w.step("Opens late in overload", fmt::format("{} A / {}", rating(n.device), figures(deviceShare(n, book))),
               figures(n.device / deviceShare(n, book)) + " A", book.cite("rewirable"));
    if (m.ground && book.cables.buriedShare < 1 && !n.motor && !n.cable->ring && n.device > 0)
        w.step("In the ground",
               fmt::format("{} A / {}", figures(n.device / deviceShare(n, book)), figures(book.cables.buriedShare)),
               figures(carry) + " A", book.cite("buried"));
    std::string factors;
    const auto factor = [&](const char* letter, double f) {
        if (f != 1) factors += fmt::format(" × {} {}", letter, figures(f));
    };
    factor("Ca", under.ambient), factor("Cg", under.bundling), factor("Ci", under.lying);
    if (under.ambient != 1)
        w.step(m.ground ? "Ground temperature" : "Ambient",
               fmt::format("{} °C, cable of {} °C", figures(n.ambient), figures(t.celsius)),
               fmt::format("Ca {}", figures(under.ambient)), book.cite(m.ground ? "groundTemperature" : "ambient"));
    if (why == Governing::Ambient) w.governs();
    const int extra = n.cable->setsApart ? 0 : c.sets - 1;
    if (n.cable->circuits + extra > 1 || under.bundling != 1)
        w.step(
            "Grouping",
            fmt::format("{}{}{}{}",
                        n.cable->circuits + extra > 1 ? fmt::format("{} circuits together", n.cable->circuits + extra)
                                                      : std::string("alone"),
                        n.cable->lying != Lying::Auto && !m.ground ? fmt::format(", {}", wordOf(n.cable->lying)) : "",
                        extra > 0 ? fmt::format(", {} of them its own sets", c.sets) : "",
                        n.cable->ignored ? ", this one too lightly loaded to count for the others" : ""),
            fmt::format("Cg {}", figures(under.bundling)), book.cite("bundling"));
    if (why == Governing::Bundling) w.governs();
    if (const double h = harmonicFactor(n, book); h != 1)
        w.step("Third harmonic",
               fmt::format("{} % of the current in the lines: four loaded cores",
                           figures(double(n.cable->thirdHarmonic) * 100)),
               fmt::format("factor {}", figures(h)), book.cite("thirdHarmonic"));
    if (const double share = neutralShare(n, book); share > 1)
        w.step("Neutral's current",
               fmt::format("3 × {} % of the lines'", figures(double(n.cable->thirdHarmonic) * 100)),
               fmt::format("{} A decide", figures(carry)), book.cite("thirdHarmonic"));
    if (const double where = under.lying / harmonicFactor(n, book); std::abs(where - 1) > 1e-9)
        w.step("Laying",
               m.ground ? fmt::format("soil of {} K·m/W", figures(double(n.cable->soil)))
                        : fmt::format("{} m in thermal insulation", figures(double(n.cable->insulated))),
               fmt::format("factor {}", figures(under.lying / harmonicFactor(n, book))),
               book.cite(m.ground ? "soil" : "insulation"));
    const double iz = table * under.ambient * under.bundling * under.lying * c.sets;
    w.step("Capacity",
           fmt::format("{}: {} A{}{}", sizeWords(book, c.size), figures(table), factors,
                       c.sets > 1 ? fmt::format(" × {} sets", c.sets) : ""),
           fmt::format("Iz {} A {} {} A", figures(iz), iz + 1e-6 >= carry ? "≥" : "<", figures(carry)), m.table);
    if (why == Governing::Load || why == Governing::MinimumSize || why == Governing::DeviceProtection) w.governs();
    w.step("Running temperature",
           fmt::format("{} °C + ({} / {})² · ({} − {})", figures(n.ambient), figures(n.load.v), figures(iz),
                       figures(t.celsius), figures(n.ambient)),
           fmt::format("{} °C", figures(n.ambient + n.load.v * n.load.v / (iz * iz) * (t.celsius - n.ambient))), "");
}

// ---- earth faults ----

/// Of a fuse, the times of the two currents that a book gives.
constexpr double fastFuse = 0.4, slowFuse = 5;

/// d log t / d log I between them. Of a large fuse the book gives only the longer time: its curve is taken as steep as
/// that of the next smaller that has both. The smallest always has.
double fuseSlope(std::map<double, std::array<double, 2>>::const_iterator it) {
    while (it->second[0] <= 0) --it;
    return std::log(fastFuse / slowFuse) / std::log(it->second[0] / it->second[1]);
}

/// Current that opens the device within `seconds`; 0: it does not open so soon. Of a fuse between its two points on
/// double logarithmic scales. For a shorter time its I²t is taken as that of the shorter one: it becomes less, so that
/// this is the most it needs.
double openingAmps(const TripBand& band, double device, double seconds) {
    if (band.fuse.empty()) return band.trips * device;
    const auto it = band.fuse.lower_bound(device - 1e-6);
    if (it == band.fuse.end()) return 0;
    const auto& [fast, slow] = it->second;
    constexpr double near = 1e-6; // times come as floats
    if (seconds >= slowFuse - near) return slow;
    if (seconds > fastFuse + near) return slow * std::pow(seconds / slowFuse, 1 / fuseSlope(it));
    return seconds >= fastFuse - near ? fast : fast * std::sqrt(fastFuse / seconds);
}

/// How long a device takes at this current: 0.1 s where it opens at once; of a fuse, between its two points on double
/// logarithmic scales. Far above `longestFault` where it does not open.
double secondsAt(const TripBand& band, double device, double amps) {
    constexpr double never = 1e9;
    if (band.fuse.empty()) return amps >= band.trips * device - 1e-6 ? 0.1 : never;
    const auto it = band.fuse.lower_bound(device - 1e-6);
    if (it == band.fuse.end()) return never;
    const double slow = it->second[1];
    if (amps < slow) return never;
    return std::max(0.1, slowFuse * std::pow(amps / slow, fuseSlope(it)));
}

/// A²s that the device lets through at most at this current, by its class and what its maker says of that; 0: its
/// standard gives none.
double letThrough(const TripBand& band, const RunNeed& n, double amps) {
    for (const TripBand::Energy& e : band.energy)
        if (amps <= e.upToKA * 1000)
            return (n.device <= 16 + 1e-9   ? e.small
                    : n.device <= 32 + 1e-9 ? e.large
                                            : 0) *
                   double(n.cable->classShare);
    return 0;
}

/// The same where it opens at once and its standard gives no limit: I²t of the 0.1 s that it may take then. 0: it need
/// not open at once.
double mostWithinTenth(const TripBand& band, double device, double amps) {
    return band.fuse.empty() && amps >= band.trips * device ? amps * amps * 0.1 : 0;
}

/// A²s let through at the largest earth fault where the run begins: by its maker, or at most by its class and by the
/// 0.1 s that it may take; 0: nobody says.
double mostThrough(const TripBand& band, const RunNeed& n) {
    if (n.cable->makersEnergy > 0) return double(n.cable->makersEnergy);
    const double amps = double(n.cable->earthBefore) * 1000, byClass = letThrough(band, n, amps),
                 byTime = mostWithinTenth(band, n.device, amps);
    return byClass > 0 && byTime > 0 ? std::min(byClass, byTime) : byClass;
}

double kOf(const RunNeed& n, const RuleBook& book, bool separate) {
    const std::size_t hot = typeOf(n, book).celsius > 80;
    return separate ? book.cables.kSeparate[std::size_t(n.material)][hot] : book.cables.k[std::size_t(n.material)][hot];
}

/// The protective conductor that goes with a line of this size before faults are looked at; −1 where armour alone does.
SizeIndex usualGround(const RunNeed& n, SizeIndex line, bool separate, const RuleBook& book) {
    const CableRules& c = book.cables;
    const CableType& t = typeOf(n, book);
    if (!separate) {
        if (t.ownGround.empty()) return line;
        const auto it = t.ownGround.find(line);
        return it == t.ownGround.end() ? line : it->second;
    }
    if (!c.groundOfLine.empty()) {
        const auto it = c.groundOfLine.find(line);
        return it == c.groundOfLine.end() ? line : it->second;
    }
    const double wanted = protectiveArea(c, book.sizes()[std::size_t(line)].mm2);
    for (SizeIndex i = 0; i < line; ++i)
        if (book.sizes()[std::size_t(i)].mm2 >= wanted - 1e-9) return i;
    return line;
}

/// Volts that drive the current which has to open the device. Of an insulated supply that is the second fault: it runs
/// through two loops, between lines, or between line and neutral where that is distributed (411.6.4).
double driving(const RunNeed& n) {
    const SystemFacts f = factsOf(n.system);
    const double u0 = f.lineNeutral.v > 0 ? f.lineNeutral.v : f.lineLine.v / root3;
    if (n.cable->earthing != Earthing::IT) return u0;
    return (f.wires > f.lines ? u0 : f.lineLine.v) / 2;
}
std::string drivingWords(const RunNeed& n) {
    return n.cable->earthing == Earthing::IT ? fmt::format("{} V / 2 of a second fault", figures(driving(n) * 2))
                                             : figures(driving(n)) + " V";
}

EarthFault earthFault(const RunNeed& n, Candidate c, const SizingRules&, const RuleBook& book) {
    EarthFault e;
    const CableRules& rules = book.cables;
    const CableType& t = typeOf(n, book);
    const auto band = rules.trips.find(n.cable->device);
    if (band == rules.trips.end() || magnitude(n.cable->loopBefore) <= 0) return e;
    e.known = true;
    const ProtectiveBy by = n.cable->protectiveBy == ProtectiveBy::Auto ? (t.armoured() ? ProtectiveBy::Armour
                                                                           : t.single   ? ProtectiveBy::Separate
                                                                                        : ProtectiveBy::Core)
                                                                        : n.cable->protectiveBy;
    const double armour = armourOhms(n, t, c.size, c.sets);
    e.armour = (by == ProtectiveBy::Armour || by == ProtectiveBy::ArmourAndSeparate) && armour > 0;
    const bool separate = by == ProtectiveBy::Separate || by == ProtectiveBy::ArmourAndSeparate;
    const std::size_t earthing = std::size_t(n.cable->earthing);
    e.allowed = float(n.cable->final && n.device <= (n.cable->sockets ? rules.finalUpToSockets : rules.finalUpTo) + 1e-9
                          ? rules.finalSeconds[earthing]
                          : rules.distributionSeconds[earthing]);
    const double opens = openingAmps(band->second, n.device, double(e.allowed));
    e.byResidual = n.cable->residual > 0;
    const double drives = driving(n) * rules.cMin;
    e.limit = float(e.byResidual ? rules.touchVolts / (double(n.cable->residual) / 1000)
                    : opens > 0  ? drives / opens
                                 : 0);
    const LineOhms line = lineOhms(n, c.size, book);
    const double metres = n.length.v, quarter = n.cable->ring ? 4 : 1, hot = warmer(t.celsius);
    const auto finish = [&](SizeIndex ground) {
        e.ground = ground;
        // Beside the armour, a conductor of its own; alone in its sheath it is not heated by the load, yet taken as
        // warm as the cable.
        Complex back{};
        double r = 0;
        if (ground >= 0)
            r = book.sizes()[std::size_t(ground)].at20[std::size_t(n.material)] * hot / quarter / c.sets,
            back = Complex{r, line.x / c.sets};
        if (e.armour) {
            const Complex steel{armour * (1 + 0.0045 * 40), 0}; // at 60 °C
            back = ground >= 0 ? steel * back / (steel + back) : steel;
        }
        const Complex perMetre = Complex{line.r, line.x} / double(c.sets) + back;
        const Complex spur = perMetre * quarter *
                             (n.cable->ring ? double(n.cable->spur) : 0.0); // one way out, neither halved nor doubled
        e.added = perMetre * metres + spur;
        const double zs = magnitude(n.cable->loopBefore + e.added);
        e.zs = float(zs);
        e.amps = float(zs > 0 ? drives / zs : 0);
        e.seconds = float(e.byResidual && (opens <= 0 || double(e.amps) < opens)
                              ? 0.04
                              : secondsAt(band->second, n.device, double(e.amps)));
        e.inTime = n.cable->unguarded || zs <= double(e.limit) * (1 + 1e-9);
        // Adiabatic: the largest fault at its beginning is over within 0.1 s; the smallest, at its end, lasts as long
        // as the device takes.
        const double k = e.armour && ground < 0 ? rules.kArmour[t.celsius > 80] : kOf(n, book, separate);
        const double lasts = openingTime(e).value_or(longestFault);
        double energy = double(e.amps) * double(e.amps) * lasts;
        const double most = e.seconds <= 0.1f ? letThrough(band->second, n, double(e.amps)) : 0;
        e.byEnergy = most > 0 && most < energy;
        if (e.byEnergy) energy = most;
        e.needed = float(std::sqrt(energy) / k);
        const double steelArea = armour > 0 ? 0.138 / armour : 0; // mm², from its resistance
        e.has = float((e.armour && ground < 0 ? steelArea
                       : ground >= 0          ? book.sizes()[std::size_t(ground)].mm2 * c.sets *
                                           (n.cable->ring && n.cable->spur <= 0 ? 2 : 1)
                                     : 0) +
                      (e.armour && ground >= 0 ? steelArea * rules.kArmour[t.celsius > 80] / k : 0));
        e.withstands = e.has + 1e-6f >= e.needed;
        // At the beginning the fault is largest: there it has to withstand what the device lets through.
        e.energyHere = n.cable->unguarded ? 0 : float(mostThrough(band->second, n));
        if (const double sure = std::pow(k * double(e.has), 2),
            bound = mostWithinTenth(band->second, n.device, double(n.cable->earthBefore) * 1000);
            e.energyHere <= 0 && bound > 0 && bound <= sure && !n.cable->unguarded)
            e.energyHere = float(bound); // enough even so
        e.neededHere = float(std::sqrt(double(e.energyHere)) / k);
        e.withstandsHere = e.has + 1e-6f >= e.neededHere;
        if (n.motor) {
            // Its overload stands apart, so its lines have to withstand what the device lets through: the largest fault
            // at the beginning, where the standard's class gives that, and the one at the end for as long as it lasts.
            const double end = e.byResidual && (opens <= 0 || double(e.amps) < opens) ? 0 : energy;
            e.line =
                float(std::sqrt(std::max(end, n.cable->makersEnergy > 0
                                                  ? double(n.cable->makersEnergy)
                                                  : letThrough(band->second, n, double(n.cable->faultBefore) * 1000))) /
                      kOf(n, book, false));
            e.lineWithstands = book.sizes()[std::size_t(c.size)].mm2 * c.sets + 1e-6 >= double(e.line);
        }
        if (n.cable->unguarded) e.withstands = e.lineWithstands = true, e.limit = 0;
        e.ok = e.inTime && e.withstands && e.withstandsHere && e.lineWithstands;
        // |before + spur + perMetre·L| = limit, solved for L.
        const Complex start = n.cable->loopBefore + spur;
        const double a = metres > 0 ? std::norm(perMetre) : 0, b = (std::conj(start) * perMetre).real(),
                     q = std::norm(start) - double(e.limit) * double(e.limit);
        e.longest = a > 0 && b * b - a * q > 0 ? float(std::max(0.0, (-b + std::sqrt(b * b - a * q)) / a)) : 0;
    };
    SizeIndex ground = separate || !e.armour ? usualGround(n, c.size, separate, book) : -1;
    if (n.heldGround >= 0) ground = n.heldGround;
    finish(ground);
    // A separate conductor may be raised up to the lines' size before the lines are.
    while (separate && n.heldGround < 0 && !e.ok && ground + 1 <= c.size) {
        do ++ground;
        while (ground < c.size && book.sizes()[std::size_t(ground)].at20[std::size_t(n.material)] <= 0);
        finish(ground);
    }
    return e;
}

void protect(RunResult& r, Candidate chosen, Candidate, const SizingRules& rules, const RuleBook& book, Working* w) {
    const RunNeed& n = r.need;
    const CableType& t = typeOf(n, book);
    const CableRules& c = book.cables;
    const double iz = r.ampacity;
    r.running = float(iz > 0 ? n.ambient + n.load.v * n.load.v / (iz * iz) * (t.celsius - n.ambient) : n.ambient);
    if (w) {
        const double k = kOf(n, book, false), kA = k * book.sizes()[std::size_t(chosen.size)].mm2 * chosen.sets / 1000;
        w->step("Withstand for one second",
                fmt::format("k {} × {} mm²{}", figures(k), figures(book.sizes()[std::size_t(chosen.size)].mm2),
                            chosen.sets > 1 ? fmt::format(" × {}", chosen.sets) : ""),
                figures(kA) + " kA", book.cite("adiabatic"));
    }
    if (const auto band = c.trips.find(n.cable->device); w && band != c.trips.end() && n.cable->faultBefore > 0) {
        // A device that protects it against overload, and can break the fault, protects it against the fault too.
        const double k = kOf(n, book, false),
                     stands = std::pow(k * book.sizes()[std::size_t(chosen.size)].mm2 * chosen.sets, 2),
                     most = letThrough(band->second, n, double(n.cable->faultBefore) * 1000);
        w->step("Line conductors",
                fmt::format("withstand k²S² = {} A²s; at {} kA the device lets through {}", number(stands),
                            figures(double(n.cable->faultBefore)),
                            most > 0 ? "at most " + number(most) + " A²s" : std::string("what its maker says")),
                most > 0 && most <= stands ? "withstood"
                : n.motor                  ? (most > 0 ? "not withstood" : "by the maker's data")
                                           : "its device protects it against overload too",
                most > 0 && most <= stands ? band->second.energyTable
                : n.motor                  ? book.cite("adiabatic")
                                           : book.cite("overloadToo"));
    }
    if (!n.lengthKnown || n.device <= 0) return;
    r.earth.make() = earthFault(n, chosen, rules, book);
    const EarthFault& e = *r.earth;
    r.ground = e.ground;
    r.groundOhms = e.known ? e.added - r.ohms : r.ohms;
    if (!w || !e.known) return;
    const auto band = c.trips.find(n.cable->device);
    const std::string ground =
        e.armour ? (e.ground >= 0 ? fmt::format("armour and {}", sizeWords(book, e.ground)) : std::string("armour"))
                 : sizeWords(book, e.ground);
    w->step("Protective conductor",
            e.armour   ? "of the cable"
            : t.single ? "separate"
                       : "core of the cable",
            ground, book.cite("protective"));
    w->step("Earth-fault loop",
            fmt::format("Zs = |Ze and what is above {} Ω + (R1 + R2) {} Ω|, conductors at {} °C",
                        figures(magnitude(n.cable->loopBefore)), figures(magnitude(e.added)), figures(t.celsius)),
            fmt::format("{} Ω", figures(double(e.zs))), book.cite("loop"));
    if (n.cable->unguarded)
        w->step("Limit", "no device of the installation stands before it: the supplier's opens the fault", "", "");
    else if (e.byResidual)
        w->step("Limit",
                fmt::format("{} V / {} mA, residual-current device", figures(c.touchVolts),
                            figures(double(n.cable->residual))),
                fmt::format("{} Ω", figures(double(e.limit))), book.cite("residual"));
    else if (band->second.fuse.empty())
        w->step("Limit",
                fmt::format("{} × {} / ({} × {} A), {}, {} s", drivingWords(n), figures(c.cMin),
                            figures(band->second.trips), rating(n.device), wordOf(n.cable->device),
                            figures(double(e.allowed))),
                fmt::format("{} Ω", figures(double(e.limit))),
                band->second.table + (band->second.unverified ? " (unverified)" : "") +
                    (n.cable->earthing == Earthing::IT ? "; " + book.cite("secondFault") : ""));
    else
        w->step("Limit",
                fmt::format("{} of {} A opens within {} s", wordOf(n.cable->device), rating(n.device),
                            figures(double(e.allowed))),
                fmt::format("{} Ω", figures(double(e.limit))),
                band->second.table + (band->second.unverified ? " (unverified)" : ""));
    if (r.why == Governing::LoopImpedance) w->governs();
    w->step("Earth-fault current",
            fmt::format("{} × {} / {} Ω", drivingWords(n), figures(c.cMin), figures(double(e.zs))),
            fmt::format("{} A, {}", figures(double(e.amps)), openingWords(e)), book.cite("disconnection"));
    w->step("Adiabatic",
            e.byEnergy ? fmt::format("√({} A²s let through) / k", number(letThrough(band->second, n, double(e.amps))))
                       : fmt::format("{} A × √{} s / k", figures(double(e.amps)),
                                     figures(openingTime(e).value_or(longestFault))),
            fmt::format("{} mm² needed, {} there", figures(double(e.needed)), figures(double(e.has))),
            book.cite("adiabatic") + (e.byEnergy ? "; " + band->second.energyTable : ""));
    if (r.why == Governing::FaultWithstand) w->governs();
    if (n.cable->earthBefore > 0 && !n.cable->unguarded) {
        const double here = double(n.cable->earthBefore);
        const bool makers = n.cable->makersEnergy > 0;
        const double byTime = mostWithinTenth(band->second, n.device, here * 1000);
        if (!makers && e.energyHere > 0 && std::abs(double(e.energyHere) - byTime) < 1e-3 * byTime)
            w->step(
                "Adiabatic, at the board",
                fmt::format("{} kA to earth, open within 0.1 s: {} A × √0.1 s / k", figures(here), number(here * 1000)),
                fmt::format("{} mm² needed, {} there", figures(double(e.neededHere)), figures(double(e.has))),
                book.cite("adiabatic"));
        else if (e.energyHere > 0)
            w->step("Adiabatic, at the board",
                    fmt::format("{} kA to earth: √({} A²s{}) / k", figures(here), number(double(e.energyHere)),
                                makers                    ? " by its maker"
                                : n.cable->classShare < 1 ? fmt::format(", {} % of its class by its maker",
                                                                        figures(double(n.cable->classShare) * 100))
                                                          : std::string(" let through at most")),
                    fmt::format("{} mm² needed, {} there", figures(double(e.neededHere)), figures(double(e.has))),
                    book.cite("adiabatic") + (makers ? "; its maker's data" : "; " + band->second.energyTable));
        else
            w->step("Adiabatic, at the board",
                    fmt::format("{} kA to earth: what the device lets through is its maker's to say", figures(here)),
                    "not judged", book.cite("adiabatic"));
    }
    if (e.line > 0)
        w->step("Adiabatic, lines", "the overload of the motor stands apart",
                fmt::format("{} mm² needed, {} there", figures(double(e.line)),
                            figures(book.sizes()[std::size_t(chosen.size)].mm2 * chosen.sets)),
                book.cite("adiabatic"));
    // A residual-current device allows a loop that no building has: then only drop counts.
    const double byDrop = r.longest.v, byLoop = e.byResidual ? 0 : double(e.longest);
    if (byLoop > 0)
        w->step("Longest",
                fmt::format("by drop {} m, by loop {} m", byDrop > 0 ? number(byDrop, 1) : std::string("–"),
                            number(byLoop, 1)),
                byLoop < byDrop || byDrop <= 0 ? fmt::format("{} m, the loop governs", number(byLoop, 1))
                                               : fmt::format("{} m, drop governs", number(byDrop, 1)),
                "");
    else if (byDrop > 0)
        w->step("Longest", "by drop", fmt::format("{} m, drop governs", number(byDrop, 1)), "");
}

} // namespace

double protectiveArea(const CableRules& rules, double line) {
    for (const auto& [upTo, area] : rules.byLine)
        if (line <= upTo + 1e-9) return area == 0 ? line : area < 0 ? -area * line : area;
    return line;
}

const Procedure referenceMethod{conditionsOf, ampacityUnder, failing, tellAmpacity, protect, earthFault};

} // namespace lintel
