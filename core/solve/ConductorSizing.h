#pragma once
// The conductors of one run: ampacity with terminals, ambient and bundling, protection by the device, parallel sets,
// then voltage drop up to the ceiling, and the protective conductor. Every step can be told (Working).

#include "core/solve/Results.h"
#include "core/solve/Working.h"

namespace lintel {

/// What sizing takes from the basis.
struct SizingRules {
    int insulation = 90;
    bool terminals75 = true;
    SizeIndex largestPreferred = 0;
    int ceiling = 4;
    UnitSystem units = UnitSystem::Imperial;
    double ambient = 30,
           ambientFactor = 1; ///< of the basis in conduit: looked up once, for the many runs that have no other
};
SizingRules sizingRules(const Basis& basis, const RuleBook& book);

/// Ampacity of one conductor under a need's conditions.
struct Ampacity {
    double table = 0, ambient = 1, bundling = 1, corrected = 0, terminal = 0;
    int terminalCelsius = 75;
    /// What it may carry: after corrections, and no more than its terminals take.
    double value() const { return std::min(corrected, terminal); }
};
Ampacity ampacityOf(const RunNeed& need, SizeIndex size, const SizingRules& rules, const RuleBook& book, int sets = 1);

/// Ohms per metre of one line conductor: from the run's raceway, or from its cable and way of laying (a ring's both
/// ways together).
struct LineOhms {
    double r = 0, x = 0;
};
LineOhms lineOhms(const RunNeed& need, SizeIndex size, const RuleBook& book);
/// Resistance at the temperature under load over that at the highest: (230 + tp − (c² − (Ib/It)²)·(tp − 30))/(230 +
/// tp), where the basis asks for it.
double warmFactor(const RunNeed& need, SizeIndex size, int sets, const RuleBook& book);

/// Volts lost as a share of the system's own voltage, in %:
/// ΔV = k·I·(R·cosφ + X·sinφ)·L/n, k = 2 out and back on one or two poles, √3 between the lines of three.
double dropPercent(const RunNeed& need, SizeIndex size, int sets, Amps amps, Metres length, const RuleBook& book);
/// Volts lost, for telling.
Volts dropVolts(const RunNeed& need, SizeIndex size, int sets, Amps amps, Metres length, const RuleBook& book);
Volts dropReference(const RunNeed& need);
/// Volts lost from a ring out to the point of its spurs where most is, in one cable of the ring's size.
Volts spurVolts(const RunNeed& need, SizeIndex size, const RuleBook& book);
/// What a run of known length loses as it stands, in %: along itself, and on a ring along its worst spur.
double ownDrop(const RunNeed& need, SizeIndex size, int sets, const RuleBook& book);

/// The neutral of a run whose lines and protective conductor are chosen: of the lines' size; two of them where it is to
/// be double; or by its own load (220.61), with the book's share of what is above its limit, and no smaller than the
/// protective conductor. The cables of metric books have it as large as the lines.
struct Neutral {
    SizeIndex size = -1; ///< −1: none
    int count = 0;       ///< of each set
};
Neutral neutralOf(const RunResult& run, const RuleBook& book, Working* working = nullptr);

/// Mass of the lines and neutral of a run at some size, kg: area × length × density.
double conductorMass(const RunNeed& need, SizeIndex size, int sets, const RuleBook& book);

/// Sizes the run that `result.need` describes and fills the rest of `result`.
void sizeRun(RunResult& result, const SizingRules& rules, const RuleBook& book, Working* working = nullptr);

} // namespace lintel
