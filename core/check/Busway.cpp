// A busway: what its maker says of its bars, where its tap-offs stand, and the device that protects it.

#include "core/solve/Busway.h"
#include "core/base/Article.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/figures/Words.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

bool tapped(const CheckInput& in, const Board& b) {
    for (CircuitId c : in.results.on(b.id))
        if (in.project.circuits[c].use == CircuitUse::Load) return true;
    return false;
}

void findBars(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        if (b.use != BoardUse::Busway || !tapped(in, b)) continue;
        std::string missing;
        const auto look = [&](bool there, const char* what) {
            if (!there) missing += std::string(missing.empty() ? "" : ", ") + what;
        };
        look(b.barLength > 0, "its length");
        look(b.barR20 > 0, "resistance at 20 °C");
        look(b.barR > 0, "resistance at its rated current");
        look(b.barX > 0, "reactance");
        look(b.barLoopR20 > 0, "the loop with its protective path");
        if (!missing.empty())
            into.push_back({&self, Severity::Check, b.id,
                            fmt::format("{}: not entered: {}; drop and faults along it are not known", b.name, missing),
                            ""});
        else if (b.barR < b.barR20)
            into.push_back({&self, Severity::Check, b.id,
                            fmt::format("{}: {} mΩ/m at its rated current, less than {} at 20 °C", b.name,
                                        figures(b.barR), figures(b.barR20)),
                            ""});
    }
}

void findTap(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult&,
             std::vector<Snag>& into) {
    const Board& b = in.project.boards[c.board];
    if (b.use != BoardUse::Busway || c.use != CircuitUse::Load) return;
    const UnitSystem units = in.project.basis.units;
    const std::string name = nameOf(in.project, c.id);
    if (!c.along)
        into.push_back({&self, Severity::Check, c.id,
                        fmt::format("{}: where it stands on {} is not entered; drop counts to the far end, faults from "
                                    "the fed end",
                                    name, b.name),
                        ""});
    else if (b.barLength > 0 && *c.along > b.barLength + 1e-6)
        into.push_back({&self, Severity::Stop, c.id,
                        fmt::format("{} stands at {}, and {} ends at {}", name, lengthWords(Metres{*c.along}, units),
                                    b.name, lengthWords(Metres{b.barLength}, units)),
                        ""});
}

std::vector<Remedy> placeRemedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    const Circuit* c = in.project.circuits.find(id);
    if (!c || !c->along) return {}; // what its maker or the builder knows cannot be guessed
    const Board& b = in.project.boards[c->board];
    const UnitSystem units = in.project.basis.units;
    return {{fmt::format("Put it at the far end, {}", lengthWords(Metres{b.barLength}, units)),
             [=, at = b.barLength](Project& p) { p.circuits.change(id)->along = at; }},
            {fmt::format("Make {} {} long", b.name, lengthWords(Metres{*c->along}, units)),
             [board = b.id, at = *c->along](Project& p) { p.boards.change(board)->barLength = at; }}};
}

/// A; the largest device that may protect it.
double largestDevice(const CheckInput& in, const Board& b) {
    const double next = in.book.ratingAtOrAbove(b.bus);
    return next > 0 && next <= in.book.nextRatingUpTo ? next : b.bus;
}
/// A; what protects it: its own device, or the one before it. In metric practice the main of a board is a switch.
double deviceBefore(const CheckInput& in, const Board& b) {
    const BoardResult& r = in.results.of(b.id);
    const double before = r.parent && !r.supply ? r.run.need.device : 0;
    if (b.main <= 0 || in.book.metric()) return before;
    return before > 0 ? std::min(before, b.main) : b.main;
}

void findDevice(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        if (b.use != BoardUse::Busway || !in.results.of(b.id).parent) continue;
        const double device = deviceBefore(in, b);
        if (device <= 0)
            into.push_back({&self, Severity::Stop, b.id, b.name + ": no device before it protects its bars",
                            in.book.cite("busway")});
        else if (device > largestDevice(in, b) + 1e-6)
            into.push_back({&self, Severity::Stop, b.id,
                            fmt::format("{}: rated {} A behind {} A", b.name, figures(b.bus), figures(device)),
                            in.book.cite("busway")});
    }
}

std::vector<Remedy> deviceRemedies(const CheckInput& in, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    const Board& b = in.project.boards[id];
    const double device = deviceBefore(in, b), most = largestDevice(in, b);
    std::vector<Remedy> out;
    if (device > 0)
        out.push_back(
            {fmt::format("Rate it {} A", figures(device)), [=](Project& p) { p.boards.change(id)->bus = device; }});
    if (!in.book.metric())
        out.push_back({fmt::format("Give it a device of {} A at its fed end", figures(most)),
                       [=](Project& p) { p.boards.change(id)->main = most; }});
    if (const CircuitId via = in.results.of(id).via; via && device > 0)
        out.push_back({fmt::format("Feed it from {} A breaker", withArticle(figures(most))),
                       [=](Project& p) { p.circuits.change(via)->heldBreaker = most; }});
    return out;
}

/// What a tap-off's own conductors are measured on the plan from its busway's fed end, where the bars go part of the
/// way; the thing that has them, or nothing.
Ref measuredFromFedEnd(const CheckInput& in, const Circuit& c, const CircuitResult& r) {
    if (in.project.boards[c.board].use != BoardUse::Busway || c.use != CircuitUse::Load) return {};
    const Ref at = r.feeder && r.feeds ? r.feeds : Ref(c.id);
    const RunResult* run = in.results.run(at);
    const Run* entered = enteredRun(in.project, at);
    const bool measured = !entered || entered->lengthBy == LengthBy::Reach || entered->lengthBy == LengthBy::Chain;
    constexpr double worthTelling = 1; // m
    return run && measured && run->need.lengthKnown && c.along.value_or(0) > worthTelling ? at : Ref{};
}

void findMeasured(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult& r,
                  std::vector<Snag>& into) {
    const Ref at = measuredFromFedEnd(in, c, r);
    if (!at) return;
    const UnitSystem units = in.project.basis.units;
    into.push_back(
        {&self, Severity::Check, c.id,
         fmt::format("{}: its conductors are measured from the fed end of {}, {}, and it is tapped {} along: "
                     "enter their length from there",
                     nameOf(in.project, c.id), in.project.boards[c.board].name,
                     lengthWords(in.results.run(at)->need.length, units), lengthWords(Metres{*c.along}, units)),
         ""});
}

std::vector<Remedy> measuredRemedies(const CheckInput& in, const Snag& s) {
    const Circuit& c = in.project.circuits[s.about.as<Circuit>()];
    const Ref at = measuredFromFedEnd(in, c, in.results.of(c.id));
    const double whole = in.results.run(at)->need.length.v, left = whole - *c.along;
    if (left <= 0) return {};
    const UnitSystem units = in.project.basis.units;
    return {{fmt::format("{} less {} of bars: {}", lengthWords(Metres{whole}, units),
                         lengthWords(Metres{*c.along}, units), lengthWords(Metres{left}, units)),
             [=](Project& p) {
                 Run& run = runOf(p, at);
                 run.lengthBy = LengthBy::Entered;
                 run.length = left;
             },
             "Take the bars off its length"}};
}

} // namespace

extern const CheckRule buswayRule, buswayDeviceRule, tapLengthRule;
const CheckRule tapLengthRule{.id = "tap-length", .remedies = measuredRemedies, .circuit = findMeasured};
const CheckRule buswayRule{.id = "busway", .remedies = placeRemedies, .find = findBars, .circuit = findTap};
const CheckRule buswayDeviceRule{.id = "busway-device", .remedies = deviceRemedies, .find = findDevice};

} // namespace lintel
