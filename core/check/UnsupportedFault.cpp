// A fault level that a pair of devices or a limiting device is said to hold, and nobody says which devices, by whose
// data.

#include "core/base/Format.h"
#include "core/check/Check.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards)
        if (b.seriesKA > 0 && b.seriesDevices.empty())
            into.push_back({&self, Severity::Check, b.id,
                            fmt::format("{}: a series pair of {} kA is entered, and no devices that were tested as one",
                                        b.name, figures(b.seriesKA)),
                            in.book.cite("series")});
}

void findAt(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult&,
            std::vector<Snag>& into) {
    if (!c.letThroughKA || !c.letThroughData.empty()) return;
    into.push_back({&self, Severity::Check, c.id,
                    fmt::format("{}: {} kA are said to be let through, and not by which device or curve",
                                nameOfRun(in.project, c.id), figures(*c.letThroughKA)),
                    in.book.cite("faultDevice")});
}

std::vector<Remedy> remedies(const CheckInput&, const Snag& s) {
    if (const CircuitId circuit = s.about.as<Circuit>())
        return {{"Take the let-through away: faults below are worked out in full",
                 [=](Project& p) { p.circuits.change(circuit)->letThroughKA.reset(); }}};
    const BoardId board = s.about.as<Board>();
    return {{"Take the series pair away: the board stands on its own rating",
             [=](Project& p) { p.boards.change(board)->seriesKA = 0; }}};
}

} // namespace

extern const CheckRule unsupportedFaultRule;
const CheckRule unsupportedFaultRule{.id = "unsupported-fault", .remedies = remedies, .find = find, .circuit = findAt};

} // namespace lintel
