#pragma once
// What goes into the raceway beside the line conductors: neutral, protective and isolated ground, and the conduit that
// holds them. Worked out on demand for one run: nothing in the solution depends on it.

#include "core/solve/Conduit.h"
#include "core/solve/Results.h"

namespace lintel {

struct RunParts {
    int lines = 0;
    SizeIndex neutral = -1; ///< of each set; -1: none
    int neutrals = 0;       ///< 2 where a double neutral takes two conductors of the lines' size
    SizeIndex ground = -1, isolated = -1;
    std::string conduitType; ///< empty: a cable, or no conduit
    ConduitFill conduit;     ///< of each set
};

/// What the project says of one run, apart from its sizing.
struct RunPartsNeed {
    bool nipple = false; ///< of at most 24 in: filled further
    std::string conduit; ///< type; empty: the first of the raceway's material
    const Insulation* insulation = nullptr;
    int sharing = 0; ///< loaded conductors of unknown size beside it: taken as large as the lines
    std::vector<ConduitConductor> others{}; ///< conductors of the same bundle, by size
    SizeIndex ground = -1; ///< the one protective conductor of the bundle, where a larger device asks for a larger one
};
RunParts partsOf(const RunResult& run, const RunPartsNeed& need, const RuleBook& book, Working* working = nullptr);
/// The same for the run of a circuit, board or transformer of a project.
RunParts partsOf(const Project& project, const RuleBook& book, const Results& results, Ref thing,
                 Working* working = nullptr);

/// The grounding electrode conductor and the supply-side bonding jumper of a board fed straight from a source or
/// transformer; in metric practice the earthing conductor and the main bonding conductor.
struct Bonding {
    SizeIndex electrode = -1, jumper = -1;
    int electrodes = 1; ///< metric: one with each set of the lines
};
Bonding bondingOf(const RunResult& run, Material own, const RuleBook& book, Working* working = nullptr);

} // namespace lintel
