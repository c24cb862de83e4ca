#pragma once
// What differs between codes in the order of the steps, not in their numbers: how a conductor's capacity is found and
// what it is held against. A rule book names one of them; sizeRun does the rest, which is the same for all.

#include "core/solve/ConductorSizing.h"

namespace lintel {

struct Candidate {
    SizeIndex size = -1;
    int sets = 0;
};

/// What is the same for every size of one run.
struct Conditions {
    int celsius = 75;                            ///< column of the terminals, or of the cable
    double ambient = 1, bundling = 1, lying = 1; ///< factors; lying: insulation and soil
};

struct Procedure {
    Conditions (*conditions)(const RunNeed&, const SizingRules&, const RuleBook&);
    /// Of one of so many sets.
    Ampacity (*ampacity)(const Conditions&, const RunNeed&, Candidate, const SizingRules&, const RuleBook&);
    /// The first requirement that a candidate does not meet, in the order they are applied; None when it passes.
    Governing (*failing)(const Conditions&, const RunNeed&, Candidate, const SizingRules&, const RuleBook&);
    void (*tellAmpacity)(Working&, const RunNeed&, Candidate, const SizingRules&, const RuleBook&, Governing why);
    /// The protective conductor of the size chosen; `least`: what ampacity needs.
    void (*protect)(RunResult&, Candidate chosen, Candidate least, const SizingRules&, const RuleBook&, Working*);
    /// What an earth fault at the end comes to; null where the code does not ask.
    EarthFault (*earthFault)(const RunNeed&, Candidate, const SizingRules&, const RuleBook&);
};

/// Conductors in raceways by the temperature of their terminals (NEC), and cables by the way they are laid (IEC and its
/// kin).
extern const Procedure terminalTemperature, referenceMethod;
inline const Procedure& procedureOf(const RuleBook& book) {
    return book.metric() ? referenceMethod : terminalTemperature;
}

/// Factor for grouping of a metric run in so many sets: sets that lie together are circuits grouped together.
double groupingFactor(const RunNeed& need, int sets, const RuleBook& book);

/// mm² of the protective conductor that goes with lines of so many mm² by the metric book's table of areas (BS 7671
/// Table 54.7).
double protectiveArea(const CableRules& rules, double line);

/// Ω/m at 20 °C of the armour around one run in so many sets; 0: none.
inline double armourOhms(const RunNeed& n, const CableType& type, SizeIndex size, int sets) {
    const std::size_t cores = n.poles == 3 ? (n.neutral ? 4 : 3) : 2;
    return type.armour[cores].empty() ? 0 : type.armour[cores][std::size_t(size)] / sets;
}

/// Whether the book knows both capacity and impedance of this size in the run's cable and way of laying.
inline bool canUse(const RunNeed& n, SizeIndex s, const RuleBook& book) {
    if (n.cable->type < 0) return book.choosable(s, n.material);
    return book.cables.types[std::size_t(n.cable->type)]
               .methods[std::size_t(n.cable->method)]
               .ampacity[n.poles == 3][std::size_t(s)] > 0;
}

} // namespace lintel
