// A bus that the device feeding it does not protect.

#include "core/base/Article.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// Whether its main is larger than its bus, and nothing before it is small enough.
bool mainTooLarge(const CheckInput& in, const Board& b) {
    if (b.main <= b.bus + 1e-6) return false;
    const CircuitId via = in.results.of(b.id).via;
    return !via || in.results.of(via).device > b.bus + 1e-6;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        if (b.use == BoardUse::Busway) continue; // by a rule of its own
        const BoardResult& r = in.results.of(b.id);
        if (mainTooLarge(in, b))
            into.push_back({&self, Severity::Stop, b.id,
                            passesOn(b.use) ? fmt::format("{}: rated {} A with a device of {} A in it", b.name,
                                                          figures(b.bus), figures(b.main))
                                            : fmt::format("{}: a main of {} A on a bus of {} A", b.name,
                                                          figures(b.main), figures(b.bus)),
                            in.book.cite("panelboardMain")});
        if (r.parent && !r.supply && b.main == 0 && r.run.need.device > b.bus + 1e-6)
            into.push_back({&self, Severity::Stop, b.id,
                            passesOn(b.use) ? fmt::format("{}: rated {} A behind {} A", b.name, figures(b.bus),
                                                          figures(r.run.need.device))
                                            : fmt::format("{}: {} A bus without a main behind {} A", b.name,
                                                          withArticle(figures(b.bus)), figures(r.run.need.device)),
                            in.book.cite("panelboardMain")});
        if (r.supply.is<Transformer>() && b.main == 0 && b.use == BoardUse::Panelboard)
            into.push_back(
                {&self, Severity::Check, b.id,
                 fmt::format("{}: fed from {} without a main to protect its bus", b.name, nameOf(in.project, r.supply)),
                 in.book.cite("panelboardMain")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const BoardId id = s.about.as<Board>();
    const Board& b = in.project.boards[id];
    const double bus = b.bus, main = b.main, before = in.results.of(id).run.need.device;
    if (mainTooLarge(in, b)) {
        const bool passing = passesOn(b.use);
        out.push_back({passing ? fmt::format("Rate it {} A", figures(main))
                               : fmt::format("Give it {} A bus", withArticle(figures(main))),
                       [=](Project& p) { p.boards.change(id)->bus = main; }});
        out.push_back({passing ? fmt::format("Give it a device of {} A", figures(bus))
                               : fmt::format("Give it {} A main", withArticle(figures(bus))),
                       [=](Project& p) { p.boards.change(id)->main = bus; }});
        return out;
    }
    if (passesOn(b.use))
        out.push_back(
            {fmt::format("Rate it {} A", figures(before)), [=](Project& p) { p.boards.change(id)->bus = before; }});
    else
        out.push_back({fmt::format("Give it {} A main", withArticle(figures(bus))),
                       [=](Project& p) { p.boards.change(id)->main = bus; }});
    if (const CircuitId via = in.results.of(id).via)
        out.push_back({fmt::format("Feed it from {} A breaker", withArticle(figures(bus))),
                       [=](Project& p) { p.circuits.change(via)->heldBreaker = bus; }});
    return out;
}

} // namespace

extern const CheckRule mainMissingRule;
const CheckRule mainMissingRule{.id = "main-missing", .remedies = remedies, .find = find};

} // namespace lintel
