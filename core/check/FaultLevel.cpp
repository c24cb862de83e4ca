// Devices of a board that cannot break the fault current there.

#include "core/base/Article.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/FaultRating.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/States.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::string onWords(const CheckInput& in, const LargestFault& f) {
    return f.source ? " on " + nameOf(in.project, f.source) : "";
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        const LargestFault most = largestFault(in.project, in.results, b.id);
        // A tested pair with the device that feeds it may stand where the board alone may not.
        if (faultExceeds(most.kA, holdsKA(b)))
            into.push_back({&self, Severity::Stop, b.id,
                            fmt::format("{}: rated {} kA where {} kA is available{}", b.name, figures(b.ratingKA),
                                        figures(most.kA), onWords(in, most)),
                            in.book.cite("faultBoard")});
    }
}

void findAt(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult&,
            std::vector<Snag>& into) {
    if (!c.heldKA) return;
    const LargestFault most = largestFault(in.project, in.results, c);
    if (faultExceeds(most.kA, holdsKA(in.project.boards[c.board], c)))
        into.push_back({&self, Severity::Stop, c.id,
                        fmt::format("{}: breaker {} kA below {} kA at the bus{}", nameOfRun(in.project, c.id),
                                    figures(*c.heldKA), figures(most.kA), onWords(in, most)),
                        in.book.cite("faultDevice")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const CircuitId circuit = s.about.as<Circuit>();
    const BoardId board = circuit ? in.project.circuits[circuit].board : s.about.as<Board>();
    std::vector<CircuitId> weak;
    double worst = largestFault(in.project, in.results, board).kA;
    if (circuit) {
        worst = 0;
        for (CircuitId id : in.results.on(board)) {
            const Circuit& c = in.project.circuits[id];
            const double here = c.heldKA ? largestFault(in.project, in.results, c).kA : 0;
            if (here <= 0 || *c.heldKA >= here) continue;
            weak.push_back(id);
            worst = std::max(worst, here);
        }
    }
    const double next = in.book.interruptingAtOrAbove(worst);
    if (next == 0) return out;
    if (!circuit) {
        const Board& b = in.project.boards[board];
        out.push_back({fmt::format("Rate {} at {} kA", b.name, rating(next)),
                       [=](Project& p) { p.boards.change(board)->ratingKA = next; }});
        if (const CircuitId via = in.results.of(board).via) {
            const double limit = b.ratingKA;
            out.push_back({fmt::format("Let-through of {} kA at {}, its maker's data to be named", rating(limit),
                                       nameOf(in.project, via)),
                           [=](Project& p) { p.circuits.change(via)->letThroughKA = limit; }});
            out.push_back(
                {fmt::format("Series pair of {} kA, {}, its devices to be named", rating(next), in.book.cite("series")),
                 [=](Project& p) { p.boards.change(board)->seriesKA = next; }});
        }
        return out;
    }
    out.push_back({weak.size() > 1 ? fmt::format("Fit {} kA to {} breakers", rating(next), weak.size())
                                   : fmt::format("Fit {} kA breaker", withArticle(rating(next))),
                   [=](Project& p) {
                       for (CircuitId c : weak) p.circuits.change(c)->heldKA = next;
                   }});
    if (in.project.boards[board].ratingKA >= worst)
        out.push_back({"Use the board's own rating", [=](Project& p) { p.circuits.change(circuit)->heldKA.reset(); }});
    return out;
}

} // namespace

extern const CheckRule faultLevelRule;
const CheckRule faultLevelRule{.id = "fault-level", .remedies = remedies, .find = find, .circuit = findAt};

} // namespace lintel
