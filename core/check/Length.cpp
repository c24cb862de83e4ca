// Runs whose length is not known, so that their drop is not checked: told once for each board.

#include "core/base/Format.h"
#include "core/check/Assumptions.h"
#include "core/check/Check.h"
#include "core/figures/Words.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// Nobody entered or measured it, whatever the basis counts it as.
bool unknown(const RunResult& r) {
    return r.state != Sizing::OutsideTables && (!r.need.lengthKnown || r.need.lengthAssumed);
}

/// What is said of runs without a length.
std::string wordsFor(const CheckInput& in, const std::string& whose, bool several, bool feeder) {
    const double counts = in.project.basis.unknownLength;
    if (counts > 0)
        return fmt::format("{}: no length is known; the basis counts {} as {}", whose, several ? "each" : "it",
                           lengthWords(Metres{counts}, in.project.basis.units));
    return fmt::format("{}: no length is known, so {} drop {}is not checked", whose, several ? "their" : "its",
                       feeder ? "and what it takes from the fault level " : "");
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    std::map<BoardId, std::vector<CircuitId>> lacking;
    if (in.results.present.has(Results::Trait::NoLength))
        for (const Circuit& c : in.project.circuits)
            if (const CircuitResult& r = in.results.of(c.id); !r.feeder && r.va > 0 && unknown(r.run))
                lacking[c.board].push_back(c.id);
    for (const auto& [board, circuits] : lacking) {
        const std::string name = in.project.boards[board].name;
        if (circuits.size() == 1)
            into.push_back(
                {&self, Severity::Note, circuits[0], wordsFor(in, nameOf(in.project, circuits[0]), false, false), ""});
        else
            into.push_back({&self, Severity::Note, board,
                            wordsFor(in, fmt::format("{}, {} runs", name, circuits.size()), true, false), ""});
    }
    for (const Board& b : in.project.boards)
        if (const BoardResult& r = in.results.of(b.id); r.parent && unknown(r.run))
            into.push_back({&self, Severity::Note, b.id, wordsFor(in, "Feeder of " + b.name, false, true), ""});
    for (const Board& b : in.project.boards)
        if (const auto& run = in.results.of(b.id).alternateRun; run && unknown(*run))
            into.push_back(
                {&self, Severity::Note, b.id, wordsFor(in, "Alternate feeder of " + b.name, false, true), ""});
    for (const Transformer& t : in.project.transformers)
        if (const TransformerResult& r = in.results.of(t.id); r.parent && unknown(r.run))
            into.push_back({&self, Severity::Note, t.id, wordsFor(in, "Feeder of " + t.name, false, true), ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag&) {
    if (in.project.basis.unknownLength > 0)
        return {}; // they count as that already: only one that is entered or measured is better
    const bool imperial = in.project.basis.units == UnitSystem::Imperial;
    const double now = imperial ? feet(100).v : 30;
    return {{fmt::format("Count unknown lengths as {}", imperial ? "100 ft" : "30 m"),
             [now](Project& p) { p.basis.unknownLength = now; }}};
}

} // namespace

int unknownLengths(const CheckInput& in) {
    int n = 0;
    for (const Circuit& c : in.project.circuits) {
        const CircuitResult& r = in.results.of(c.id);
        n += !r.feeder && r.va > 0 && unknown(r.run);
    }
    for (Ref thing : in.results.order) {
        const NodeResult& node = *in.results.node(thing);
        n += node.parent && unknown(node.run);
        if (thing.is<Board>())
            if (const auto& run = in.results.of(thing.as<Board>()).alternateRun) n += unknown(*run);
    }
    return n;
}

extern const CheckRule lengthRule;
const CheckRule lengthRule{.id = "length", .remedies = remedies, .find = find};

} // namespace lintel
