// The sheets as they are issued: the index, those of the project, the list of assumptions, the lists, each stamped
// while something is open that nobody may build from.

#include "core/check/Assumptions.h"
#include "core/check/Check.h"
#include "core/compose/CutSheets.h"
#include "core/compose/SheetSet.h"
#include "core/lists/CalculationTables.h"
#include "core/lists/DrawingIndex.h"
#include "core/sheets/TitleBlock.h"

#include <charconv>
#include <fmt/format.h>
#include <memory>

namespace lintel {
namespace {

/// The numbers of what is no thing of the project, and where the next series begins; further on where there are more
/// lists, or other sheets have such numbers.
constexpr int firstAssumption = 701, firstListSheet = 801, firstCutSheet = 851, firstOther = 901,
              firstCalculation = 951, lastOfAll = 1000;

/// The first number from `from` on behind all that the set has there, below the next series.
int clearOf(const std::vector<SheetEntry>& set, int from, int below) {
    int first = from;
    for (const SheetEntry& e : set) {
        int number = 0;
        const std::size_t dash = e.number.find_last_of('-');
        const std::string digits = dash == std::string::npos ? e.number : e.number.substr(dash + 1);
        const auto [end, ec] = std::from_chars(digits.data(), digits.data() + digits.size(), number);
        if (ec == std::errc() && number >= first && number < below) first = number + 1;
    }
    return first;
}

/// What stands in the way of building from the sheets; empty: nothing.
std::string openWords(const SheetInput& in) {
    int stops = 0;
    for (const Snag& s : findSnags(in.project, in.book, in.results)) stops += s.severity == Severity::Stop;
    const int lengths = unknownLengths({in.project, in.book, in.results});
    if (stops == 0 && lengths == 0) return "";
    std::string words;
    if (stops > 0) words = fmt::format("{} {} open", stops, stops == 1 ? "stop is" : "stops are");
    if (lengths > 0)
        words += fmt::format("{}{} {} not known", words.empty() ? "" : ", ", lengths,
                             lengths == 1 ? "length is" : "lengths are");
    return "Not for construction: " + words + ".";
}

/// In the title block, or below the foot strip in the margin.
void stamp(Drawing& d, const SheetInput& in, const std::string& words) {
    if (d.titleBlock != TitlePlace::None) return tellStatus(d, in, words);
    constexpr double left = 11, aboveEdge = 6, size = 2.8;
    d.text({left, d.height - aboveEdge}, words, size, Align::Left, true, Ink::Stop);
}

} // namespace

std::vector<SheetEntry> issueSet(const SheetInput& in) {
    auto set = sheetSet(in);
    if (set.empty()) return set;
    for (Drawing& d : assumptionSheets(in, clearOf(set, firstAssumption, firstListSheet))) {
        const std::string number = d.number, title = d.title, paper = d.paper;
        set.push_back({number, title, paper, number + "_assumptions", [d = std::move(d)] { return d; }, title});
    }
    const auto bind = [&](std::vector<Drawing> sheets, const char* kind, const char* file, bool first) {
        std::vector<SheetEntry> entries;
        for (Drawing& d : sheets) {
            const std::string number = d.number, paper = d.paper, key = pageTitle(kind, entries.size());
            const std::string title = d.title; // as it stands on the sheet
            entries.push_back({number, title, paper, number + "_" + file, [d = std::move(d)] { return d; }, key});
        }
        set.insert(first ? set.begin() : set.end(), entries.begin(), entries.end());
    };
    const PlacedThings placed(in.project);
    const auto notPlaced = [&](std::vector<List> lists) {
        std::erase_if(lists, [&](const List& l) { return placed.has({SheetKind::List, {}, l.key}); });
        return lists;
    };
    bind(listSheets(in, notPlaced(listsOf(in, true)), clearOf(set, firstListSheet, firstCutSheet)), "Lists", "lists",
         false);
    bind(cutSheets(in, clearOf(set, firstCutSheet, firstOther)), "Cut sheets", "cut_sheets", false);
    bind(listSheets(in, notPlaced(calculationLists(in)), clearOf(set, firstCalculation, lastOfAll), "Calculations"),
         "Calculations", "calculations", false);
    bind(indexSheets(in, set), "Drawing index", "index", true);
    const auto open = std::make_shared<std::optional<std::string>>(); // looked for once, when the first sheet is drawn
    for (std::size_t i = 0; i < set.size(); ++i)
        set[i].draw = [draw = std::move(set[i].draw), open, in, place = i + 1, all = set.size()] {
            Drawing d = draw();
            if (!*open) *open = openWords(in);
            if (!(*open)->empty()) stamp(d, in, **open);
            tellCount(d, in, place, all);
            return d;
        };
    return set;
}

} // namespace lintel
