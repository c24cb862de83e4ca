#pragma once
// Two results of nearly the same project side by side: what a change of basis or a remedy alters, thing by thing.

#include "core/check/Check.h"

namespace lintel {

/// One thing that comes out differently.
struct Altered {
    Ref about;
    std::string name;          ///< by which a person knows it
    std::string before, after; ///< "20 A, #12" and "20 A, #10"
};

struct Comparison {
    std::vector<Altered> runs;               ///< size, sets, protective conductor or device differs
    int sizes = 0, devices = 0;              ///< of them, those whose conductors or whose device differ
    std::vector<std::string> newSnags, gone; ///< texts
    std::vector<std::string> otherwise;      ///< of snags that are there still, and tell other figures: as they are now
    int stopsBefore = 0, stopsAfter = 0, snagsBefore = 0, snagsAfter = 0;
    double kg = 0; ///< of conductor more (+) or less (−)
    bool nothing() const { return runs.empty() && newSnags.empty() && gone.empty() && otherwise.empty(); }
    /// "14 runs change · 2 new snags · +31.0 kg of conductor".
    std::string text() const;
    /// The changes in words, worst first, at most so many and then "and 12 more".
    std::vector<std::string> list(std::size_t most) const;
};

/// What stands in only one of the two projects counts as changed only by its mass.
Comparison compare(const CheckInput& before, const CheckInput& after);

/// What a remedy changes, worked out before it is applied.
struct RemedyEffect {
    std::string label; ///< of the remedy
    Comparison change;
    std::string text() const; ///< "1 snag gone · 2 runs change · +3.1 kg of conductor"
};
RemedyEffect effectOf(const CheckInput& before, const Remedy& remedy);

} // namespace lintel
