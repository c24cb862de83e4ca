#include "core/lists/DrawingIndex.h"

#include "core/base/Format.h"
#include "core/figures/Words.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr int firstNumber = 1;

List indexOf(const std::vector<SheetEntry>& set, std::size_t ownSheets, const std::string& paper) {
    List list{"index", "Drawing index", {{"Sheet"}, {"Title", "", Align::Left, 120}, {"Paper"}}, {}, {}};
    for (std::size_t i = 0; i < ownSheets; ++i)
        list.add({}, {{fmt::format("E-{:03}", firstNumber + int(i))}, {pageTitle("Drawing index", i)}, {paper}});
    for (const SheetEntry& e : set) list.add({}, {{e.number}, {e.title}, {e.paper}});
    return list;
}

} // namespace

List basisList(const SheetInput& in) {
    const Project& p = in.project;
    const Basis& b = p.basis;
    const bool metric = in.book.metric();
    List list{"basis", "What the design rests on", {{"What"}, {"Value", "", Align::Left, 120}}, {}, {}};
    const auto say = [&](const std::string& what, const std::string& value) { list.add({}, {{what}, {value}}); };
    say("Code", in.book.title);
    for (const Source& s : p.sources) {
        const FaultPoint& fault = in.results.of(s.id).fault;
        say(s.name, fmt::format("{}, {}{}{}", systemWords(s.system), wordOf(s.kind),
                                fault.known ? fmt::format(", {} kA", faultWords(fault)) : "",
                                metric ? ", " + earthingWords(s) : ""));
    }
    if (metric) {
        say("Cables of branch circuits", b.branchCable.empty() ? in.book.cables.usualBranch : b.branchCable);
        say("Cables of feeders", b.feederCable.empty() ? in.book.cables.usualFeeder : b.feederCable);
        say("Ambient", fmt::format("{} °C in air, {} °C in the ground, soil {} K·m/W", rating(b.ambient),
                                   rating(b.groundTemperature), rating(b.soil)));
    } else {
        say("Conductors of branch circuits", wordOf(b.branchMaterial));
        say("Conductors of feeders", wordOf(b.feederMaterial));
        say("Insulation", fmt::format("{} °C", b.insulation));
        say("Terminals to 100 A", b.terminals75 ? "marked for 75 °C" : "60 °C");
        say("Ambient", fmt::format("{} °C", rating(b.ambient)));
    }
    say("Smallest conductor", b.smallestBranch + (metric ? " mm²" : ""));
    say("Drop allowed", fmt::format("feeders {} %, branch circuits {} %, in all {} %", rating(b.feederDropLimit),
                                    rating(b.branchDropLimit), rating(b.totalDropLimit)));
    if (metric && b.lightingDropLimit > 0) say("Drop allowed to lighting", rating(b.lightingDropLimit) + " %");
    say("Sizes raised for drop", fmt::format("at most {} above what ampacity needs", b.upsizingCeiling));
    if (b.growth > 0) say("Growth of feeders", rating(b.growth * 100) + " %");
    say("Slack of measured lengths", rating(b.slack * 100) + " %");
    say("Conductors in the largest fault", rating(b.faultCelsius) + " °C");
    say("Motors in faults", b.motorsFeedFaults ? "four times their current" : "left out");
    for (const auto& [kind, factor] : b.demandFactors)
        say("Demand of " + kind, fmt::format("{} %, the project's own", rating(factor * 100)));
    for (const std::string& own : in.book.overridden()) say("Own value", own);
    for (const std::string& doubt : in.book.unverified()) list.notes.push_back("Not yet verified: " + doubt);
    return list;
}

std::vector<Drawing> indexSheets(const SheetInput& in, const std::vector<SheetEntry>& set) {
    const auto on = [&](const std::string& paper) {
        // How many there are decides how long the index is, and the other way round.
        std::vector<Drawing> sheets;
        for (std::size_t own = 1; own != sheets.size();) {
            if (!sheets.empty()) own = sheets.size();
            sheets = listSheets(in, {indexOf(set, own, paper), basisList(in)}, firstNumber, "Drawing index", paper);
        }
        return sheets;
    };
    auto small = on(in.book.trade.papers.small);
    return small.size() == 1 ? small : on(in.book.trade.papers.drawing);
}

} // namespace lintel
