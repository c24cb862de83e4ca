#pragma once
// How full a tray is: the insulated conductors of the runs that go over it, against its width times its depth.

#include "core/route/Trays.h"
#include "core/solve/Results.h"

namespace lintel {

struct TrayFill {
    int runs = 0;
    double area = 0;    ///< mm² of insulated conductors
    double share = 0;   ///< of the tray's section
    bool known = false; ///< false: some cable has no diameter in the rule book, so that `area` is of its bare
                        ///< conductors and the share the least it can be
};
TrayFill trayFill(const Project& project, const RuleBook& book, const Results& results, TrayId tray);

} // namespace lintel
