#include "core/base/Counted.h"
#include "core/solve/Procedure.h"

#include "core/base/Format.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// The size that comes next above in the order of upsizing: up to the preferred largest, then one more set.
Candidate nextAbove(Candidate c, const RunNeed& n, const SizingRules& rules, const RuleBook& book) {
    for (SizeIndex s = c.size + 1; s < SizeIndex(book.sizes().size()); ++s)
        if (canUse(n, s, book) && s <= std::max(rules.largestPreferred, c.size)) return {s, c.sets};
    const double area = book.sizes()[std::size_t(c.size)].kcmil * c.sets;
    for (SizeIndex s = std::max(book.smallestParallel(), n.smallest); s <= rules.largestPreferred; ++s)
        if (canUse(n, s, book) && book.sizes()[std::size_t(s)].kcmil * (c.sets + 1) > area) return {s, c.sets + 1};
    return {};
}

Candidate smallestThatCarries(const Procedure& how, const Conditions& under, const RunNeed& n, const SizingRules& rules,
                              const RuleBook& book) {
    for (int sets = n.heldSets > 0 ? n.heldSets : 1; sets <= (n.heldSets > 0 ? n.heldSets : 12); ++sets) {
        const SizeIndex from = sets > 1 ? std::max(n.smallest, book.smallestParallel()) : n.smallest;
        for (SizeIndex s = from; s <= rules.largestPreferred; ++s)
            if (canUse(n, s, book) && how.failing(under, n, {s, sets}, rules, book) == Governing::None)
                return {s, sets};
    }
    return {};
}

std::string lengthWords(Metres m, UnitSystem u) {
    return u == UnitSystem::Imperial ? number(inFeet(m)) + " ft" : number(m.v) + " m";
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

Ampacity ampacityOf(const RunNeed& n, SizeIndex size, const SizingRules& rules, const RuleBook& book, int sets) {
    const Procedure& how = procedureOf(book);
    return how.ampacity(how.conditions(n, rules, book), n, {size, sets}, rules, book);
}

Volts dropReference(const RunNeed& n) {
    return n.poles == 3 ? factsOf(n.system).lineLine : voltsAcross(n.system, n.poles);
}

LineOhms lineOhms(const RunNeed& n, SizeIndex size, const RuleBook& book) {
    if (n.cable->type < 0) {
        const ConductorSize& s = book.sizes()[std::size_t(size)];
        return {s.resistance[std::size_t(n.material)][std::size_t(n.raceway)], s.reactance[std::size_t(n.raceway)]};
    }
    const CableType& type = book.cables.types[std::size_t(n.cable->type)];
    const CableMethod& m = type.methods[std::size_t(n.cable->method)];
    const std::size_t k = n.poles == 3, s = std::size_t(size);
    LineOhms z{m.r[k][s], m.x[k][s]};
    if (n.cable->ring) z.r /= 4, z.x /= 4; // half the ring out, and two halves side by side
    return z;
}

double warmFactor(const RunNeed& n, SizeIndex size, int sets, const RuleBook& book) {
    if (!n.cable->warm || n.cable->type < 0) return 1;
    const CableType& type = book.cables.types[std::size_t(n.cable->type)];
    const double table = type.methods[std::size_t(n.cable->method)].ampacity[n.poles == 3][std::size_t(size)] * sets;
    const double used = n.load.v / table,
                 c = double(n.cable->factors) * groupingFactor(n, sets, book) / groupingFactor(n, 1, book);
    if (const auto& columns = book.cables.dropColumns;
        !columns.empty()) { // the column at or above the temperature under load
        const double celsius = n.ambient + used * used / (c * c) * (type.celsius - n.ambient);
        const auto column = std::lower_bound(columns.begin(), columns.end(), celsius - 1e-6);
        return column == columns.end() ? 1 : std::min(1.0, warmer(*column) / warmer(type.celsius));
    }
    return std::min(1.0, (230 + type.celsius - (c * c - used * used) * (type.celsius - book.cables.airOfTables)) /
                             (230 + type.celsius));
}

Volts dropVolts(const RunNeed& n, SizeIndex size, int sets, Amps amps, Metres length, const RuleBook& book) {
    const LineOhms line = lineOhms(n, size, book);
    const double sine = std::sqrt(std::max(0.0, 1 - n.dropPowerFactor * n.dropPowerFactor));
    const OhmsPerMetre z{(line.r * warmFactor(n, size, sets, book) * n.dropPowerFactor + line.x * sine) / sets};
    return (n.poles == 3 ? root3 : 2.0) * (amps * (z * length));
}

double dropPercent(const RunNeed& n, SizeIndex size, int sets, Amps amps, Metres length, const RuleBook& book) {
    return dropVolts(n, size, sets, amps, length, book) / dropReference(n) * 100;
}

Volts spurVolts(const RunNeed& n, SizeIndex size, const RuleBook& book) {
    if (!n.cable->ring || n.cable->spurLoad <= 0) return Volts{0};
    return 2.0 * (Amps{double(n.cable->spurLoad)} * Ohms{lineOhms(n, size, book).r * 4}); // one leg of it, not four
}

double ownDrop(const RunNeed& n, SizeIndex size, int sets, const RuleBook& book) {
    return n.spread * dropPercent(n, size, sets, n.dropAmps, n.length, book) +
           spurVolts(n, size, book) / dropReference(n) * 100;
}

Neutral neutralOf(const RunResult& run, const RuleBook& book, Working* w) {
    const RunNeed& n = run.need;
    if (!n.neutral || run.size < 0) return {};
    if (n.neutralBy == NeutralBy::Double && n.poles > 1) {
        if (w) w->step("Neutral", "double, for nonlinear loads", fmt::format("2 × {}", sizeWords(book, run.size)), "");
        return {run.size, 2};
    }
    // A cable has its neutral as large as its lines.
    if (n.neutralBy != NeutralBy::Calculated || n.poles < 2 || n.cable->type >= 0) return {run.size, 1};
    const double load = double(n.neutralAmps);
    const double above = n.nonlinear ? 0 : std::max(0.0, load - book.tables.neutralAbove);
    const double amps = load - above * (1 - book.tables.neutralAboveFactor);
    Neutral out{run.size, 1};
    for (SizeIndex s = std::max(0, run.ground); s <= run.size; ++s)
        if (book.ampacity(s, n.material, 75) * run.sets >= amps && (run.sets == 1 || s >= book.smallestParallel())) {
            out.size = s;
            break;
        }
    if (w)
        w->step("Neutral",
                above > 0 ? fmt::format("{} A: {} A + {} % of the rest = {} A", figures(load),
                                        figures(book.tables.neutralAbove),
                                        figures(book.tables.neutralAboveFactor * 100), figures(amps))
                          : fmt::format("its own load, {} A", figures(amps)),
                sizeWords(book, out.size), book.cite("neutral"));
    return out;
}

double conductorMass(const RunNeed& n, SizeIndex size, int sets, const RuleBook& book) {
    const double density = n.material == Material::Copper ? 8890 : 2700; // kg/m³
    return book.sizes()[std::size_t(size)].mm2 * 1e-6 * n.length.v * density * n.conductorsOfSet() * sets;
}

namespace {

/// The sizing of one run: the smallest that carries its load, then raised until drop and earth fault are met, or as it
/// is held.
class Sizer {
public:
    Sizer(RunResult& result, const SizingRules& sizingRules, const RuleBook& rulebook, Working* working)
        : r(result), n(result.need), rules(sizingRules), book(rulebook), w(working), how(procedureOf(rulebook)),
          under(how.conditions(n, rules, book)) {
        if (book.metric()) r.need.cable.make().factors = float(under.ambient * under.bundling * under.lying);
    }
    void size();

private:
    RunResult& r;
    const RunNeed& n;
    const SizingRules& rules;
    const RuleBook& book;
    Working* w;
    const Procedure& how;
    Conditions under;
    Candidate least{}, chosen{}; ///< what ampacity needs; what it is

    double dropOf(Candidate c) const { return n.lengthKnown ? ownDrop(n, c.size, c.sets, book) : 0.0; }
    bool within(double own) const { return own <= n.ownLimit + 1e-9 && n.totalBefore + own <= n.totalLimit + 1e-9; }
    EarthFault earthAt(Candidate c) const {
        return how.earthFault && n.lengthKnown && n.device > 0 ? how.earthFault(n, c, rules, book) : EarthFault{};
    }
    bool findLeast();
    Governing whyLeast() const;
    void hold();
    void raiseWhereNeeded();
    template <class Does> bool raiseUntil(Does does);
    void finish();

    void tellHeld() const;
    void tellDrop() const;
    std::vector<Candidate> shownDrops() const;
    void tellDropOf(Candidate c) const;
};

/// False where nothing in the book carries it.
bool Sizer::findLeast() {
    least = smallestThatCarries(how, under, n, rules, book);
    if (n.heldSets > 0 && least.size < 0 && n.held >= 0) {
        RunNeed free = n; // so many sets of anything do not do: say so, with the held size
        free.heldSets = 0;
        least = smallestThatCarries(how, under, free, rules, book);
    }
    if (least.size < 0) return false;
    if (n.raised == 0 || n.held >= 0) return true;
    for (int i = 0; i < n.raised; ++i)
        if (const Candidate up = nextAbove(least, n, rules, book); up.size >= 0) least = up;
    if (w)
        w->step("Raised for the runs below",
                fmt::format("{} {} up: fewer kilograms than raising each branch run that is over the total", n.raised,
                            n.raised == 1 ? "size" : "sizes"),
                sizeWords(book, least.size), "Basis");
    return true;
}

/// What keeps the next smaller size out; where nothing smaller may be used, the minimum does.
Governing Sizer::whyLeast() const {
    SizeIndex below = least.size - 1;
    while (below >= 0 && !canUse(n, below, book)) --below;
    if (least.sets == 1 && below < n.smallest) {
        const Governing smaller = below >= 0 ? how.failing(under, n, {below, 1}, rules, book) : Governing::None;
        return smaller == Governing::None ? Governing::MinimumSize : smaller;
    }
    if (least.sets > 1 && below < book.smallestParallel()) return Governing::Load;
    return how.failing(under, n, {below, least.sets}, rules, book);
}

void Sizer::hold() {
    chosen = {n.held, n.heldSets > 0 ? n.heldSets : 1};
    r.state = Sizing::Held;
    r.why = Governing::Held;
    r.tooSmall = how.failing(under, n, chosen, rules, book) != Governing::None ||
                 (chosen.sets > 1 && chosen.size < book.smallestParallel());
    if (w) tellHeld();
}

/// Up to the first size that does, within the ceiling.
template <class Does> bool Sizer::raiseUntil(Does does) {
    Candidate c = least;
    int steps = 0;
    Governing last = r.why; // what kept the size before the last one out
    while (steps < rules.ceiling && !does(c)) {
        last = !within(dropOf(c))  ? Governing::VoltageDrop
               : earthAt(c).inTime ? Governing::FaultWithstand
                                   : Governing::LoopImpedance;
        const Candidate up = nextAbove(c, n, rules, book);
        if (up.size < 0) break;
        c = up;
        ++steps;
    }
    if (!does(c)) return false;
    chosen = c;
    r.steps = steps;
    r.why = last;
    return true;
}

void Sizer::raiseWhereNeeded() {
    r.state = Sizing::Sized;
    // Where even a run without length would not open in time, a larger conductor does not help: that is a snag.
    const EarthFault first = earthAt(least);
    const bool loopCounts =
        first.known && !first.ok && (first.inTime || magnitude(n.cable->loopBefore) < double(first.limit));
    const bool enough = !n.lengthKnown || (within(r.dropBefore) && !loopCounts);
    if (w) how.tellAmpacity(*w, n, least, rules, book, enough ? r.why : Governing::None);
    if (enough) return;
    const auto keepsDrop = [&](Candidate c) { return within(dropOf(c)); };
    const auto keepsBoth = [&](Candidate c) { return keepsDrop(c) && (!loopCounts || earthAt(c).ok); };
    // Where none serves the loop, the drop alone may still be kept.
    if (!raiseUntil(keepsBoth) && !(loopCounts && raiseUntil(keepsDrop))) r.state = Sizing::PastCeiling;
}

void Sizer::size() {
    if (!findLeast()) {
        r.state = Sizing::NoneFits;
        if (w)
            w->step("Ampacity",
                    fmt::format("no conductor of the book, in up to 12 sets, carries {} A", figures(n.required.v)), "",
                    book.cite("ampacity"));
        return;
    }
    chosen = least;
    r.sizeForAmpacity = least.size;
    r.setsForAmpacity = least.sets;
    r.dropBefore = dropOf(least);
    r.why = whyLeast();
    if (n.held >= 0 && canUse(n, n.held, book))
        hold();
    else
        raiseWhereNeeded();
    if (w && n.dropAmps.v > 0) tellDrop();
    finish();
}

void Sizer::finish() {
    r.size = chosen.size;
    r.sets = chosen.sets;
    r.ampacity = how.ampacity(under, n, chosen, rules, book).value() * chosen.sets;
    r.dropOwn = chosen.size == least.size && chosen.sets == least.sets ? r.dropBefore : dropOf(chosen);
    r.dropTotal = n.totalBefore + r.dropOwn;
    if (n.dropAmps.v > 0) {
        const double spur = n.lengthKnown ? spurVolts(n, chosen.size, book) / dropReference(n) * 100 : 0;
        const double perMetre = n.lengthKnown && n.length.v > 0
                                    ? (r.dropOwn - spur) / n.length.v
                                    : n.spread * dropPercent(n, chosen.size, chosen.sets, n.dropAmps, Metres{1}, book);
        const double room = std::min(n.ownLimit, n.totalLimit - n.totalBefore) - spur;
        if (perMetre > 0) r.longest = Metres{std::max(0.0, room / perMetre)};
    }
    const LineOhms z = lineOhms(n, chosen.size, book);
    r.ohms = Complex{z.r, z.x} * (n.lengthKnown ? n.length.v : 0.0) / double(chosen.sets) +
             Complex{z.r, z.x} * 4.0 * (n.cable->ring ? double(n.cable->spur) : 0.0);
    how.protect(r, chosen, least, rules, book, w);
    const Neutral neutral = neutralOf(r, book);
    r.neutralSize = neutral.size;
    r.neutrals = std::int8_t(neutral.count);
    r.isolated = n.isolatedGround ? r.ground : -1;
}

// ---- told ----

void Sizer::tellHeld() const {
    how.tellAmpacity(*w, n, chosen, rules, book, Governing::None);
    const auto words = [&](Candidate c) {
        return (c.sets > 1 ? fmt::format("{} sets of ", c.sets) : std::string()) + sizeWords(book, c.size);
    };
    w->step("Held by hand",
            words(chosen) == words(least)
                ? words(chosen) + ", as its load asks"
                : fmt::format("{}; {} {} it", words(chosen), words(least), least.sets > 1 ? "carry" : "carries"),
            r.tooSmall ? "too small" : "carries it", "");
    w->governs();
}

/// From what ampacity needs up to the one that was chosen.
std::vector<Candidate> Sizer::shownDrops() const {
    if (r.state == Sizing::Held) return {chosen};
    std::vector<Candidate> shown;
    Candidate c = least;
    for (int i = 0; c.size >= 0 && i <= rules.ceiling; ++i) {
        shown.push_back(c);
        if (r.state == Sizing::Sized && c.size == chosen.size && c.sets == chosen.sets) break;
        c = nextAbove(c, n, rules, book);
    }
    return shown;
}

void Sizer::tellDrop() const {
    if (!n.lengthKnown) {
        w->step("Drop", "no length is known: place its devices on the plan, or enter a length", "not checked", "");
        return;
    }
    const auto metres = [&](Metres m) { return lengthWords(m, rules.units); };
    w->step("Current for drop",
            n.dropByShare ? fmt::format("{} % of the {} A rating = {} A", figures(n.dropAmps.v / n.device * 100),
                                        rating(n.device), figures(n.dropAmps.v))
                          : fmt::format("load, {} A", figures(n.dropAmps.v)),
            n.dropByShare ? "Basis: share of rating"
            : n.feeder    ? "demand"
                          : "",
            "");
    const bool measured = n.up.v + n.across.v + n.down.v > 0;
    w->step("Length",
            n.lengthAssumed ? "neither entered nor measured: counted as the basis says"
            : measured
                ? fmt::format("up {}, across {}, down {}, with slack", metres(n.up), metres(n.across), metres(n.down))
                : "as entered",
            metres(n.length), "");
    if (n.spread < 1)
        w->step("Load along it", "each point's current × its distance, over all of it at the end",
                fmt::format("× {}", figures(n.spread)), "");
    if (n.cable->ring && n.cable->spur > 0)
        w->step("Spur",
                fmt::format("{} out from the ring, at most {} A·m", metres(Metres{double(n.cable->spur)}),
                            figures(double(n.cable->spurLoad))),
                "", book.cite("radial"));
    for (Candidate c : shownDrops()) tellDropOf(c);
    if (r.state != Sizing::PastCeiling) return;
    w->step("Upsizing ceiling",
            fmt::format("{} up and still over: stays {}, feed it from nearer", counted(rules.ceiling, "size"),
                        sizeWords(book, least.size)),
            "", "Basis");
    w->governs();
}

/// ΔV = k·I·(R·cosφ + X·sinφ)·L/1000/sets, with the figures in it.
void Sizer::tellDropOf(Candidate c) const {
    const LineOhms z = lineOhms(n, c.size, book);
    const bool feet = rules.units == UnitSystem::Imperial;
    const double per = feet ? 1000 * metresPerFoot : 1000;
    const double length = feet ? inFeet(n.length) : n.length.v;
    const double R = z.r * warmFactor(n, c.size, c.sets, book) * per;
    const double X = z.x * per;
    const double sine = std::sqrt(std::max(0.0, 1 - n.dropPowerFactor * n.dropPowerFactor));
    const double spur = spurVolts(n, c.size, book).v;
    const double volts = n.spread * dropVolts(n, c.size, c.sets, n.dropAmps, n.length, book).v + spur;
    const std::string impedance =
        sine > 0.001 ? fmt::format("({}·{:.2f} + {}·{:.2f})", figures(R), n.dropPowerFactor, figures(X), sine)
                     : figures(R);
    std::string formula =
        fmt::format("{}·{}·{}·{}/1000", n.poles == 3 ? "√3" : "2", figures(n.dropAmps.v), impedance, number(length));
    if (c.sets > 1) formula += fmt::format("/{}", c.sets);
    if (n.spread < 1) formula += fmt::format("·{}", figures(n.spread));
    if (spur > 0) formula += fmt::format(" + {} V along the spur", figures(spur));
    formula += fmt::format(" = {} V", figures(volts));

    const double own = dropOf(c);
    const std::string against =
        own > n.ownLimit + 1e-9 ? fmt::format("{} > {} %", percent(own), figures(n.ownLimit))
        : n.totalBefore + own > n.totalLimit + 1e-9
            ? fmt::format("{}, total {} > {} %", percent(own), percent(n.totalBefore + own), figures(n.totalLimit))
            : fmt::format("{} ≤ {} %", percent(own), figures(n.ownLimit));
    const std::string table =
        n.cable->type < 0 ? book.cite("impedance") : book.cables.types[std::size_t(n.cable->type)].dropTable;
    w->step(fmt::format("Drop, {}{}", sizeWords(book, c.size), c.sets > 1 ? fmt::format(" × {}", c.sets) : ""), formula,
            against, table + "; " + book.cite(n.feeder ? "dropFeeder" : "dropBranch"));
    if (r.why == Governing::VoltageDrop && c.size == chosen.size && c.sets == chosen.sets) w->governs();
}

} // namespace

void sizeRun(RunResult& r, const SizingRules& rules, const RuleBook& book, Working* w) {
    static_cast<RunOutcome&>(r) = RunOutcome{};
    if (!isMediumVoltage(r.need.system)) {
        Sizer(r, rules, book, w).size();
        return;
    }
    r.state = Sizing::OutsideTables;
    if (w)
        w->step("Conductors",
                fmt::format("{} V: the tables of the book end at {} V, so they are not sized here",
                            number(factsOf(r.need.system).lineLine.v), number(lowVoltageUpTo.v)),
                "", "");
}

} // namespace lintel
