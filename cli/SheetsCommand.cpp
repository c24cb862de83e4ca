// lintel-cli sheets: the set with its numbers, and which of them stay.

#include "cli/Commands.h"
#include "core/check/Assumptions.h"
#include "core/compose/SheetSet.h"
#include "core/compose/Together.h"
#include "core/issue/Issues.h"
#include "core/lists/List.h"
#include "core/project/ProjectFile.h"
#include "core/project/SheetNumbers.h"

#include <algorithm>
#include <filesystem>
#include <fmt/format.h>
#include <iostream>
#include <map>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

void print(const std::vector<SheetEntry>& set, const std::vector<SheetLeftOut>& left, bool json) {
    nlohmann::ordered_json list = nlohmann::ordered_json::array();
    for (const SheetEntry& e : set) {
        if (json) list.push_back({{"number", e.number}, {"title", e.title}, {"paper", e.paper}, {"kept", e.kept}});
        if (json && !e.trouble.empty()) list.back()["trouble"] = e.trouble;
        if (!json)
            std::cout << fmt::format("{:12} {:4} {:10} {}{}\n", e.number, e.kept ? "kept" : "", e.paper, e.title,
                                     e.trouble.empty() ? "" : "  [" + e.trouble + "]");
    }
    for (const SheetLeftOut& s : left)
        if (json)
            list.push_back({{"title", s.title}, {"left_out", true}});
        else
            std::cout << fmt::format("{:12} {:4} {:10} {}\n", "left out", "", "", s.title);
    if (json) std::cout << list.dump(1) << "\n";
}

Outcome<SheetEntry> find(const std::vector<SheetEntry>& set, const std::string& number) {
    const auto sheet = std::find_if(set.begin(), set.end(), [&](const SheetEntry& e) { return e.number == number; });
    if (sheet == set.end()) return Error{number, "there is no sheet " + number, "lintel-cli sheets FILE lists them."};
    return *sheet;
}
/// One whose title, or place in the set, is its own.
Outcome<SheetEntry> findOwn(const std::vector<SheetEntry>& set, const std::string& number) {
    auto sheet = find(set, number);
    if (sheet && (!sheet->kind || sheet->page > 0))
        return Error{number, "it follows from other sheets",
                     sheet->kind ? "Name the first sheet of these." : "The index and lists are always in the set."};
    return sheet;
}
/// "E-603=E-610": before and behind the sign.
Outcome<std::pair<std::string, std::string>> halves(const std::string& order, const char* how) {
    const std::size_t equals = order.find('=');
    if (equals == std::string::npos) return Error{order, how, ""};
    return std::pair{order.substr(0, equals), order.substr(equals + 1)};
}

std::optional<Error> give(Project& p, const std::vector<SheetEntry>& set, const std::string& order) {
    const auto told = halves(order, "a number is given as OLD=NEW, for example E-603=E-610; E-603= lets go of it");
    if (!told) return told.error();
    const auto sheet = find(set, told->first);
    return sheet ? renumber(p, set, *sheet, told->second) : sheet.error();
}

std::optional<Error> entitle(Project& p, const std::vector<SheetEntry>& set, const std::string& order) {
    const auto told = halves(order, "a title is given as NUMBER=TITLE; E-603= gives it the usual one again");
    if (!told) return told.error();
    const auto sheet = findOwn(set, told->first);
    return sheet ? titleSheet(p, {*sheet->kind, sheet->about}, told->second) : sheet.error();
}

/// What stands on a sheet of its own, by its number, or a list by its key.
Outcome<ShownThing> thingOf(const std::vector<SheetEntry>& set, const std::string& word) {
    if (listKind(word)) return ShownThing{SheetKind::List, {}, word};
    if (word == wordOf(SheetKind::Legend)) return ShownThing{SheetKind::Legend, {}, {}};
    const auto sheet = findOwn(set, word);
    if (!sheet)
        return Error{word, sheet.error().what,
                     sheet.error().help + " Lists go by their keys: lintel-cli lists FILE names them."};
    if (sheet->kind == SheetKind::Composed)
        return Error{word, "it is composed of views itself", "Name the sheets to put together."};
    return ShownThing{*sheet->kind, sheet->about, {}};
}

std::optional<Error> compose(Project& p, const SheetInput& in, const std::string& order, SheetPaper paper) {
    const std::map<std::string, SheetKind> kinds{
        {"schedules", SheetKind::Schedule}, {"diagrams", SheetKind::Diagram}, {"lists", SheetKind::List}};
    if (order == "proposed") {
        const auto proposals = proposedTogether(in);
        if (proposals.empty())
            return Error{order, "nothing is proposed to stand together", "The basis says what is (sheetsTogether)."};
        takeUp(in, p, proposals);
        return std::nullopt;
    }
    std::vector<ShownThing> things;
    if (const auto kind = kinds.find(order); kind != kinds.end()) {
        things = thingsToCompose(in, kind->second);
        if (things.empty()) return Error{order, "there are none that stand on no composed sheet yet", ""};
        composeTogether(in, p, things, paper);
        return std::nullopt;
    }
    const auto set = issueSet(in);
    for (std::size_t from = 0; from <= order.size();) {
        const std::size_t comma = std::min(order.find(',', from), order.size());
        const auto thing = thingOf(set, order.substr(from, comma - from));
        if (!thing) return thing.error();
        things.push_back(*thing);
        from = comma + 1;
    }
    const ComposedSheetId sheet = addComposedSheet(p, paper);
    for (const ShownThing& thing : things) placeView(p, sheet, thing);
    return std::nullopt;
}

std::optional<Error> takeApart(Project& p, const std::vector<SheetEntry>& set, const std::string& number) {
    const auto sheet = findOwn(set, number);
    if (!sheet) return sheet.error();
    if (sheet->kind != SheetKind::Composed) return Error{number, "it is not a composed sheet", ""};
    endComposedSheet(p, sheet->about.as<ComposedSheet>());
    return std::nullopt;
}

std::optional<Error> takeBack(Project& p, const SheetInput& in, const std::string& title) {
    bool found = false;
    for (const SheetLeftOut& s : sheetsLeftOut(in)) {
        if (title != "all" && s.title != title) continue;
        leaveOut(p, {s.kind, s.about}, false);
        found = true;
    }
    if (found || title == "all") return std::nullopt;
    return Error{title, "no sheet of that title is left out", "lintel-cli sheets FILE lists them."};
}

} // namespace

int runSheets(const SheetsOrder& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    Project next = (*s)->project;
    // Listed and not drawn: the input of a set has to live only as long as its sheets are drawn.
    const auto setOf = [&](const Project& p) { return issueSet({p, (*s)->book, (*s)->results}); };
    if (o.anew) numberAnew(next);
    for (const std::string& order : o.numbers)
        if (const auto bad = give(next, setOf(next), order)) return fail(*bad);
    for (const std::string& order : o.titles)
        if (const auto bad = entitle(next, setOf(next), order)) return fail(*bad);
    for (const std::string& number : o.leave) {
        const auto sheet = findOwn(setOf(next), number);
        if (!sheet) return fail(sheet.error());
        leaveOut(next, {*sheet->kind, sheet->about}, true);
    }
    for (const std::string& title : o.back)
        if (const auto bad = takeBack(next, {next, (*s)->book, (*s)->results}, title)) return fail(*bad);
    const auto paper = fromWord<SheetPaper>(o.paper);
    if (!paper)
        return fail({o.paper, "it is not a paper of composed sheets", "Take " + choiceWords<SheetPaper>() + "."});
    for (const std::string& number : o.apart)
        if (const auto bad = takeApart(next, setOf(next), number)) return fail(*bad);
    for (const std::string& order : o.compose) {
        const Project now = next;
        if (const auto bad = compose(next, {now, (*s)->book, (*s)->results}, order, *paper)) return fail(*bad);
    }
    const auto set = setOf(next);
    if (o.keep) keepNumbers(next, set);
    const auto leftOf = [&](const Project& p) { return sheetsLeftOut({p, (*s)->book, (*s)->results}); };
    if (next == (*s)->project) {
        print(set, leftOf(next), o.json);
        return 0;
    }
    const std::string to = o.out.empty() ? o.file : o.out;
    if (!std::filesystem::exists(o.file) && o.out.empty())
        return fail({o.file, "a project as it was issued is not written over", "Give --out FILE."});
    if (const auto bad = saveProject(next, to)) return fail(*bad);
    print(setOf(next), leftOf(next), o.json);
    std::cerr << "lintel-cli: written to " << to << "\n";
    return 0;
}

} // namespace lintel
