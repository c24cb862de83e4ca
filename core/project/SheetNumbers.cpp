#include "core/project/SheetNumbers.h"

#include "core/base/Parse.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

#include <algorithm>

namespace lintel {
namespace {

constexpr std::size_t longestNumber = 32, longestTitle = 120; ///< bytes

int lengthOfSeries(int from) { return from >= 1000 ? 1000 : 100; }
int endOfSeries(int from) { return from / lengthOfSeries(from) * lengthOfSeries(from) + lengthOfSeries(from); }
std::string written(int number) { return fmt::format("E-{}", number); }
/// The figure of a number as this program writes it, within a series; nothing: another one.
std::optional<int> within(const std::string& number, int from) {
    if (number.rfind("E-", 0) != 0) return std::nullopt;
    const auto n = plainNumber(std::string_view(number).substr(2));
    if (!n || *n < from || *n >= endOfSeries(from) || written(int(*n)) != number) return std::nullopt;
    return int(*n);
}

} // namespace

SheetNumbering::SheetNumbering(const Project& p) {
    // Of two sheets under one number, as two people may have given it, the first keeps it.
    for (const SheetNumber& s : p.sheetNumbers)
        if (!s.number.empty() && taken.insert(s.number).second) rows.emplace(SheetKey{s.of, s.about}, &s);
}

const SheetNumber* SheetNumbering::kept(SheetKey sheet) const {
    const auto it = rows.find(sheet);
    return it == rows.end() ? nullptr : it->second;
}

std::string SheetNumbering::of(SheetKey sheet, int from) {
    if (const SheetNumber* row = kept(sheet)) return row->number;
    auto it = next.find(from);
    if (it == next.end()) {
        int after = from; // behind all that were ever given, so that none comes to mean another sheet
        for (const std::string& number : taken)
            if (const auto n = within(number, from)) after = std::max(after, *n + 1);
        it = next.emplace(from, after).first;
    }
    while (!isFree(written(it->second))) ++it->second;
    if (it->second >= endOfSeries(from) && from < 1000) // E-700 is another series: on with E-6001
        return of(sheet, endOfSeries(from) * 10 - 1000 + 1);
    return give(it->second++);
}

std::string SheetNumbering::give(int number) { return *given.insert(written(number)).first; }

std::string SheetNumbering::at(SheetKey sheet, int number) {
    if (const SheetNumber* row = kept(sheet)) return row->number;
    return isFree(written(number)) ? give(number) : of(sheet, number);
}

std::string SheetNumbering::ofPlan(SheetKey sheet, int first, bool power) {
    const int series = first + (power ? lengthOfSeries(first) : 0);
    if (!nextPlace) findPlaces(first);
    auto place = places.find(sheet.second);
    if (place == places.end()) place = places.emplace(sheet.second, nextPlace++).first;
    return at(sheet, series + place->second - 1);
}

void SheetNumbering::findPlaces(int first) {
    nextPlace = 1;
    for (const auto& [key, row] : rows)
        for (int from : {first, first + lengthOfSeries(first)})
            if (const auto n = within(row->number, from)) {
                places.emplace(key.second, *n - from + 1);
                nextPlace = std::max(nextPlace, *n - from + 2);
            }
}

std::optional<Error> refuseSheetNumber(const std::string& number) {
    if (number.empty()) return Error{"sheet number", "it is empty", "Type one, such as E-604."};
    if (number.size() > longestNumber)
        return Error{"sheet number", "\"" + number + "\" is too long for a title block",
                     fmt::format("Take {} signs at most.", longestNumber)};
    const bool blank = number.front() == ' ' || number.back() == ' ';
    const bool control = std::any_of(number.begin(), number.end(), [](char c) { return (unsigned char)(c) < 32; });
    if (blank || control)
        return Error{"sheet number", "\"" + number + "\" begins or ends with a space, or has a line break in it",
                     "Type it without."};
    return std::nullopt;
}

namespace {

/// What is said of a sheet; null: nothing.
SheetNumber* rowOf(Project& p, SheetKey sheet) {
    for (const SheetNumber& s : p.sheetNumbers)
        if (SheetKey{s.of, s.about} == sheet) return p.sheetNumbers.change(s.id);
    return nullptr;
}
SheetNumber& rowFor(Project& p, SheetKey sheet) {
    if (SheetNumber* row = rowOf(p, sheet)) return *row;
    SheetNumber fresh;
    fresh.of = sheet.first;
    fresh.about = sheet.second;
    return *p.sheetNumbers.change(p.sheetNumbers.add(fresh));
}
/// A row that says nothing goes.
void tidy(Project& p, SheetKey sheet) {
    std::vector<SheetNumberId> empty;
    for (const SheetNumber& s : p.sheetNumbers)
        if (SheetKey{s.of, s.about} == sheet && s.number.empty() && s.title.empty() && !s.left) empty.push_back(s.id);
    for (SheetNumberId id : empty) p.sheetNumbers.remove(id);
}

} // namespace

std::optional<Error> numberSheet(Project& p, SheetKey sheet, const std::string& number) {
    for (const SheetNumber& s : p.sheetNumbers)
        if (!number.empty() && SheetKey{s.of, s.about} != sheet && s.number == number)
            return Error{"sheet number", number + " is the number of another sheet",
                         "Give it one of its own, or let go of the other first."};
    if (!number.empty())
        if (const auto bad = refuseSheetNumber(number)) return bad;
    rowFor(p, sheet).number = number;
    tidy(p, sheet);
    return std::nullopt;
}

void numberAnew(Project& p) {
    std::vector<SheetKey> sheets;
    for (const SheetNumber& s : p.sheetNumbers) sheets.push_back({s.of, s.about});
    for (SheetKey sheet : sheets) (void)numberSheet(p, sheet, "");
}

std::string sheetTitle(const Project& p, SheetKey sheet, const std::string& usual) {
    for (const SheetNumber& s : p.sheetNumbers)
        if (SheetKey{s.of, s.about} == sheet && !s.title.empty()) return s.title;
    return usual;
}

std::optional<Error> titleSheet(Project& p, SheetKey sheet, const std::string& title) {
    if (title.size() > longestTitle)
        return Error{"sheet title", "it is too long for a title block",
                     fmt::format("Take {} signs at most.", longestTitle)};
    if (std::any_of(title.begin(), title.end(), [](char c) { return (unsigned char)(c) < 32; }))
        return Error{"sheet title", "it has a line break in it", "Type it on one line."};
    rowFor(p, sheet).title = title;
    tidy(p, sheet);
    return std::nullopt;
}

bool isLeftOut(const Project& p, SheetKey sheet) {
    return std::any_of(p.sheetNumbers.begin(), p.sheetNumbers.end(), [&](const SheetNumber& s) {
        return s.left && SheetKey{s.of, s.about} == sheet;
    });
}

void leaveOut(Project& p, SheetKey sheet, bool left) {
    rowFor(p, sheet).left = left;
    tidy(p, sheet);
}

} // namespace lintel
