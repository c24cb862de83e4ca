#pragma once
// What the riser and the one-line can say of each thing instead of its usual words: one question, asked of all at once.
// The answer stands in words; a shade tells at a glance how near it is to what is allowed.

#include "core/drawing/Drawing.h"
#include "core/solve/Results.h"

#include <map>

namespace lintel {

struct SheetInput;

enum class RiserOverlay : std::uint8_t { None, Use, Phases, Drop, Fault, Space, Snags, Supply, Changes };

/// Snags about a thing or about what is in it.
struct SnagCount {
    int stops = 0, checks = 0;
};

/// What differs from an earlier state of the project, at a thing and in what is in it.
struct ChangeCount {
    int entered = 0, follows = 0; ///< entered by somebody; results that follow from what was entered
    bool added = false;           ///< the thing itself was not there
};

/// What a riser shows beside what stands where.
struct RiserShow {
    RiserOverlay overlay = RiserOverlay::None;
    std::map<Ref, SnagCount> snags{};     ///< for RiserOverlay::Snags: by board, transformer and source
    SourceId supply{};                    ///< for RiserOverlay::Supply: what has taken over; nothing: the normal supply
    std::map<Ref, ChangeCount> changes{}; ///< for RiserOverlay::Changes: by what is drawn
    std::string since{};                  ///< for RiserOverlay::Changes: "T1", the state that is compared with
};

/// What an overlay says of one thing.
struct OverlayWords {
    std::vector<std::string> words;
    double share = -1; ///< of what is allowed, 1 = all of it; below 0: there is nothing to compare
    bool over = false; ///< more than is allowed
    bool off = false;  ///< it has no supply in this state
};

/// "Used", "Fault levels": as a title and in a choice.
const char* titleOf(RiserOverlay overlay);
/// Of a board, transformer, source or a circuit that is drawn as equipment. "Supply" is asked of its state's own
/// solution.
OverlayWords overlayWords(const SheetInput& in, Ref thing, const RiserShow& show);
/// Of the conductors that feed it, in a line or two; empty: nothing to say but their tag.
std::vector<std::string> overlayFeeder(const SheetInput& in, Ref thing, const RiserShow& show);

/// The steps of the shades, from low to high, and what each means in an overlay.
struct ShadeStep {
    Ink ink;
    std::string words;
};
std::vector<ShadeStep> shadesOf(RiserOverlay overlay);
/// Ink::Paper where there is nothing to compare.
Ink shadeOf(const OverlayWords& words);

} // namespace lintel
