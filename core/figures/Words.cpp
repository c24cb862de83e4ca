#include "core/figures/Words.h"

#include "core/base/Format.h"
#include "core/project/Equipment.h"
#include "core/project/Operations.h"
#include "core/solve/BoardLoad.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace lintel {

std::string sizeOf(const RunResult& r, const RuleBook& book) {
    if (r.size < 0) return "–";
    return (r.sets > 1 ? std::to_string(r.sets) + "×" : "") + sizeWords(book, r.size);
}

std::string conductorWords(const RunResult& r, const RuleBook& book) {
    if (r.size < 0) return "–";
    std::string s = r.sets > 1 ? fmt::format("{} sets ", r.sets) : "";
    const std::string size = sizeWords(book, r.size);
    const bool ownNeutral = neutralApart(r);
    if (book.metric()) { // "4 × 25 mm² + armour", "2 × 2.5 + 1.5 mm²", "3 × 25 + 2 × 25 neutral + 16 mm²"
        const auto bare = [&](SizeIndex of) { return book.sizes()[std::size_t(of)].name; };
        s += fmt::format("{} × {}", conductorsAlike(r),
                         ownNeutral || (r.ground >= 0 && !r.earth->armour) ? bare(r.size) : size);
        if (ownNeutral)
            s += fmt::format(" + {}{} neutral", r.neutrals > 1 ? "2 × " : "",
                             r.ground >= 0 && !r.earth->armour ? bare(r.neutralSize) : sizeWords(book, r.neutralSize));
        if (r.need.material == Material::Aluminium) s += " Al";
        if (r.earth->armour) s += " + armour";
        if (r.ground >= 0) s += " + " + sizeWords(book, r.ground);
        if (r.isolated >= 0) s += fmt::format(" + {} clean earth", sizeWords(book, r.isolated));
        return s;
    }
    // "4 500" would read as a number
    s += fmt::format("{}{}{}", conductorsAlike(r), size.front() == '#' ? " " : " × ", size);
    if (r.need.material == Material::Aluminium) s += " Al";
    if (ownNeutral) s += fmt::format(", {}{} neutral", r.neutrals > 1 ? "2 × " : "", sizeWords(book, r.neutralSize));
    if (r.ground >= 0) s += fmt::format(", {} gnd", sizeWords(book, r.ground));
    if (r.isolated >= 0) s += fmt::format(", {} isolated gnd", sizeWords(book, r.isolated));
    return s;
}

bool neutralApart(const RunResult& r) { return r.neutrals > 1 || (r.neutrals == 1 && r.neutralSize != r.size); }

int conductorsAlike(const RunResult& r) { return r.need.poles + (neutralApart(r) ? 0 : r.neutrals); }

std::vector<std::string> installationWords(const Project& p, const Results& r, Ref thing) {
    if (const CircuitId c = thing.as<Circuit>(); c && r.of(c).feeder) {
        if (r.of(c).standby) return {}; // what it feeds says it of its usual feed
        thing = r.of(c).feeds;
    }
    const Run* run = enteredRun(p, thing);
    const RunResult* result = r.run(thing);
    std::vector<std::string> words;
    if (!run || !result || result->size < 0) return words;
    const bool cable = result->need.cable->type >= 0;
    if (run->fireRated) words.push_back("has to go on working in a fire: fire-rated cable");
    if (run->nipple && result->need.wiring == Wiring::Conduit && !cable)
        words.push_back("conduit no longer than 24 in between enclosures");
    if (cable && run->setsApart && result->sets > 1)
        words.push_back("parallel sets laid apart, so that they do not heat one another");
    if (cable && run->lying != Lying::Auto)
        words.push_back(fmt::format("laid beside other cables: {}", wordOf(run->lying)));
    if (run->insulated > 0)
        words.push_back(fmt::format("no more than {} of it in thermal insulation",
                                    lengthWords(Metres{run->insulated}, p.basis.units)));
    return words;
}

std::string breakerWords(double amps, int poles) {
    if (amps <= 0) return "–";
    return poles > 1 ? fmt::format("{}/{}", number(amps), poles) : number(amps);
}

std::string deviceWords(const CircuitResult& r, int poles, const RuleBook& book) {
    if (!book.metric()) return breakerWords(r.device, poles);
    if (r.device <= 0) return "–";
    const char* letter = r.kindOfDevice == DeviceKind::TypeB       ? "B"
                         : r.kindOfDevice == DeviceKind::TypeC     ? "C"
                         : r.kindOfDevice == DeviceKind::TypeD     ? "D"
                         : r.kindOfDevice == DeviceKind::FuseGG    ? "gG "
                         : r.kindOfDevice == DeviceKind::Rewirable ? "BS 3036 "
                         : r.kindOfDevice == DeviceKind::Cartridge ? "BS 88-3 "
                         : r.kindOfDevice == DeviceKind::Plug      ? "BS 1362 "
                                                                   : "";
    return letter + rating(r.device);
}

std::string starterWords(StarterKind starter, const RuleBook& book) {
    switch (starter) {
    case StarterKind::Unsaid:
        break;
    case StarterKind::Direct:
        return book.word(TradeWord::DirectStarter);
    case StarterKind::Reversing:
        return "reversing";
    case StarterKind::StarDelta:
        return book.word(TradeWord::StarDeltaStarter);
    case StarterKind::Soft:
        return "soft starter";
    case StarterKind::Drive:
        return book.word(TradeWord::Drive);
    }
    return "";
}

std::string starterSign(StarterKind starter, const RuleBook& book) {
    switch (starter) {
    case StarterKind::Unsaid:
        break;
    case StarterKind::Direct:
        return book.word(TradeWord::DirectStarterSign);
    case StarterKind::Reversing:
        return book.word(TradeWord::ReversingStarterSign);
    case StarterKind::StarDelta:
        return "Y-Δ";
    case StarterKind::Soft:
        return "SS";
    case StarterKind::Drive:
        return book.word(TradeWord::DriveSign);
    }
    return "";
}

std::string placeWords(const Board& b, const Circuit& c) {
    if (b.form != BoardForm::Ways || c.slot < 1) return std::to_string(c.slot);
    return std::to_string((c.slot - 1) / 3 + 1) + (c.poles == 3 ? "" : "/L" + std::to_string((c.slot - 1) % 3 + 1));
}

std::string lengthWords(Metres m, UnitSystem u) {
    return u == UnitSystem::Imperial ? number(inFeet(m)) + " ft" : number(m.v, m.v < 100 ? 1 : 0) + " m";
}

std::string lengthOf(const RunNeed& need, UnitSystem units) {
    if (!need.lengthKnown) return "not known";
    return lengthWords(need.length, units) + (need.lengthAssumed ? " assumed" : "");
}

std::string dropWords(double lost, bool known) { return (known ? "" : "≥ ") + percent(lost); }

std::string faultWords(const FaultPoint& f) { return (f.runsUnknown ? "≤ " : "") + figures(f.worst()); }

std::string elevationWords(double m, UnitSystem u) {
    const std::string sign = m < -1e-6 ? "−" : m > 1e-6 ? "+" : "±";
    return sign + heightWords(std::abs(m), u);
}

std::string heightWords(double m, UnitSystem u) {
    if (u == UnitSystem::Metric) return fmt::format("{:.2f} m", m);
    const long inches = std::lround(m / metresPerFoot * 12);
    return fmt::format("{}′ {}″", inches / 12, inches % 12);
}

std::string systemWords(VoltageSystem s) {
    const SystemFacts f = factsOf(s);
    return fmt::format("{} V, {}φ {}W", wordOf(s), f.phases, f.wires);
}

std::string equipmentWords(const Board& b) {
    std::string words = wordOf(b.use);
    if (b.use == BoardUse::Ups && b.kva > 0) words += fmt::format(", {} kVA", rating(b.kva));
    if (b.use == BoardUse::Ups && b.kw > 0) words += fmt::format(", {} kW", rating(b.kw));
    words += fmt::format(", {} A", rating(b.bus));
    const SystemFacts f = factsOf(b.system);
    if (b.use == BoardUse::TransferSwitch) words += fmt::format(", {} poles", f.lines + (b.switchesNeutral ? 1 : 0));
    if (b.main > 0) words += fmt::format(", {} {} A", holdsFuses(b.use) ? "fuses" : "breaker", rating(b.main));
    return words;
}

namespace {
template <class Name> std::string demandOn(const NodeResult& n, Name name) {
    const std::string amps = figures(demandOf(n)) + " A";
    if (!heavierThanBalanced(n)) return amps;
    const auto most = std::max_element(n.phaseAmps.begin(), n.phaseAmps.end());
    return amps + " on " + name(int(most - n.phaseAmps.begin()));
}
} // namespace

std::string demandWords(const NodeResult& n, const Board& b) {
    return demandOn(n, [&](int line) { return lineName(line, b); });
}
std::string demandWords(const NodeResult& n, const Source& s) {
    return demandOn(n, [&](int line) { return lineName(line, s.system); });
}

std::string earthingWords(const Source& s) {
    std::string words = wordOf(s.earthing);
    if (s.ze > 0) words += fmt::format(", Ze {:g} Ω", s.ze);
    if (s.earthing == Earthing::IT && !s.insulationMonitor.empty())
        words += ", insulation monitored by " + s.insulationMonitor;
    return words;
}

std::string tapWords(const Transformer& t) {
    return fmt::format("taps: secondary {}{:g} %", t.boost < 0 ? "−" : "+", std::abs(t.boost));
}

std::string lineName(int line, VoltageSystem system) {
    if (line < 0) return "–";
    if (factsOf(system).lines == 1) return "L";
    return isMetric(system) ? "L" + std::to_string(line + 1) : std::string(1, char('A' + line));
}

std::string lineName(int line, const Board& b) {
    const bool ways = b.form == BoardForm::Ways && factsOf(b.system).lines > 1;
    return ways && line >= 0 ? "L" + std::to_string(line + 1) : lineName(line, b.system);
}

Ink phaseInk(const Basis& basis, VoltageSystem system, int line) {
    PhaseColours colours = basis.phaseColours;
    if (colours == PhaseColours::Usual)
        colours = isMetric(system)                                                 ? PhaseColours::BrownBlackGrey
                  : system == VoltageSystem::Y480 || system == VoltageSystem::D480 ? PhaseColours::BrownOrangeYellow
                                                                                   : PhaseColours::BlackRedBlue;
    const std::size_t i = std::size_t(std::clamp(line, 0, 2));
    switch (colours) {
    case PhaseColours::BrownBlackGrey:
        return std::array{Ink::PhaseBrown, Ink::PhaseBlack, Ink::PhaseGrey}[i];
    case PhaseColours::BrownOrangeYellow:
        return std::array{Ink::PhaseBrown, Ink::PhaseOrange, Ink::PhaseYellow}[i];
    case PhaseColours::RedYellowBlue:
        return std::array{Ink::PhaseRed, Ink::PhaseYellow, Ink::PhaseBlue}[i];
    default:
        break;
    }
    if (factsOf(system).highLeg && i == 1) return Ink::PhaseOrange; // the high leg
    return std::array{Ink::PhaseBlack, Ink::PhaseRed, Ink::PhaseBlue}[i];
}

std::string lineColour(const Basis& basis, VoltageSystem system, int line) {
    switch (phaseInk(basis, system, line)) {
    case Ink::PhaseBrown:
        return "brown";
    case Ink::PhaseGrey:
        return "grey";
    case Ink::PhaseOrange:
        return "orange";
    case Ink::PhaseYellow:
        return "yellow";
    case Ink::PhaseRed:
        return "red";
    case Ink::PhaseBlue:
        return "blue";
    default:
        return "black";
    }
}
std::string neutralColour(const Basis& basis, VoltageSystem system) {
    if (isMetric(system)) return basis.phaseColours == PhaseColours::RedYellowBlue ? "black" : "blue";
    return system == VoltageSystem::Y480 ? "gray" : "white";
}
std::string protectiveColour(VoltageSystem system) { return isMetric(system) ? "green-yellow" : "green"; }

std::string servesWords(const Project& p, const Results& r, CircuitId id) {
    const Circuit& c = p.circuits[id];
    if (c.use == CircuitUse::Spare) return "Spare";
    if (c.use == CircuitUse::Reserved) return c.name.empty() ? "Reserved" : "Reserved: " + c.name;
    if (const Ref fed = r.of(id).feeds) {
        const std::string name = nameOf(p, fed) + (r.of(id).standby ? ", alternate" : "");
        if (auto* t = p.transformers.find(fed.as<Transformer>()))
            return fmt::format("{} ({} kVA)", name, rating(t->kva));
        return name;
    }
    return c.name;
}

std::string whyWords(const RunResult& r) {
    switch (r.state) {
    case Sizing::PastCeiling:
        return "ceiling";
    case Sizing::NoneFits:
        return "none fits";
    case Sizing::OutsideTables:
        return "medium voltage: not sized here";
    default:
        return wordOf(r.why);
    }
}

} // namespace lintel
