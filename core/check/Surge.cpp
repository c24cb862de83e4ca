// The board at the origin of a metric installation, with nothing said of surge protection.

#include "core/check/Check.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// Whether it is the first board behind a source: what only passes on may stand between.
bool atOrigin(const CheckInput& in, const Board& b) {
    if (passesOn(b.use)) return false;
    Ref above = in.results.of(b.id).parent;
    for (std::size_t guard = 0; guard < in.project.boards.size(); ++guard) {
        const Board* at = in.project.boards.find(above.as<Board>());
        if (!at || !passesOn(at->use)) break;
        above = in.results.of(at->id).parent;
    }
    return above.is<Source>();
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.book.metric()) return;
    for (const Board& b : in.project.boards)
        if (b.surge.empty() && atOrigin(in, b))
            into.push_back({&self, Severity::Note, b.id,
                            fmt::format("{}: nothing is said of surge protection at the origin", b.name),
                            in.book.cite("surge")});
}

std::vector<Remedy> remedies(const CheckInput&, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    return {{"Fit type 1 and 2", [=](Project& p) { p.boards.change(id)->surge = "type 1 and 2"; }},
            {"Fit type 2", [=](Project& p) { p.boards.change(id)->surge = "type 2"; }},
            {"Record: none, by risk assessment",
             [=](Project& p) { p.boards.change(id)->surge = "none, by risk assessment"; }}};
}

} // namespace

extern const CheckRule surgeRule;
const CheckRule surgeRule{.id = "surge", .remedies = remedies, .find = find};

} // namespace lintel
