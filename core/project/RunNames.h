#pragma once
// Names of runs, which are the ids of their cables, made by a pattern.
//
// Places of a pattern: {from} the board, transformer or source where it begins, {slot} its first place there, {to} what
// it feeds: a board or transformer, else the description of its circuit, {circuit} its circuit in the whole project
// ("LP-1-14"), {number} a running number in the order of boards, {kind} F for a feeder and C for a branch circuit. A
// place that has nothing to say takes the sign before it along.

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

inline constexpr const char* usualRunPattern = "{from}-{slot}";

struct RunNaming {
    struct Change {
        RunId run;
        std::string from, to;
    };
    std::vector<Change> changes;
    int kept = 0;    ///< that have a name, and keep it
    int same = 0;    ///< called so already
    int unnamed = 0; ///< of which the pattern says nothing
};
struct RunNamingWanted {
    std::string pattern;
    bool feeders = true, branches = true;
    bool named = false; ///< also those that have a name
};
/// What the runs would be called. A name that another run has, or that comes out twice, gets a number behind it: no two
/// cables have one id. An error where the pattern holds a place that there is not, or says the same of all.
Outcome<RunNaming> planRunNames(const Project& project, const RunNamingWanted& wanted);
void applyRunNames(Project& project, const RunNaming& naming);

} // namespace lintel
