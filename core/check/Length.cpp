// Runs whose length is not known, so that their drop is not checked: told once for each board.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    std::map<BoardId, std::vector<CircuitId>> lacking;
    for (const Circuit& c : in.project.circuits)
        if (const CircuitResult& r = in.results.of(c.id); !r.feeder && r.va > 0 && !r.run.need.lengthKnown) lacking[c.board].push_back(c.id);
    for (const auto& [board, circuits] : lacking) {
        const std::string name = in.project.boards[board].name;
        if (circuits.size() == 1) into.push_back({&self, Severity::Note, circuits[0], fmt::format("{}: no length is known, so its drop is not checked", nameOf(in.project, circuits[0])), ""});
        else into.push_back({&self, Severity::Note, board, fmt::format("{}: {} runs have no length, so their drop is not checked", name, circuits.size()), ""});
    }
    for (const Board& b : in.project.boards)
        if (const BoardResult& r = in.results.of(b.id); r.parent && !r.run.need.lengthKnown)
            into.push_back({&self, Severity::Note, b.id, fmt::format("Feeder of {}: no length is known, so its drop is not checked", b.name), ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    (void)in;
    std::vector<Remedy> out;
    if (const CircuitId id = s.about.as<Circuit>())
        out.push_back({"Enter 30 m (100 ft) for now", [=](Project& p) {
                           Run& r = runOf(p, id);
                           r.lengthBy = LengthBy::Entered;
                           r.length = 30;
                       }});
    return out;
}

} // namespace

extern const CheckRule lengthRule;
const CheckRule lengthRule{"length", find, remedies};

} // namespace lintel
