#pragma once
// What somebody says of the sheets of a project: their numbers and titles, and which are left out. Until a set goes out
// they follow the order of the sheets; from then on, or where somebody has typed one, a sheet keeps its number, and new
// ones take the next.

#include "core/base/Error.h"
#include "core/project/Project.h"

#include <map>
#include <optional>
#include <set>
#include <string>
#include <utility>

namespace lintel {

/// A sheet: what it shows, and of which level or board; nothing for the project as a whole.
using SheetKey = std::pair<SheetKind, Ref>;

/// Gives the sheets of a project their numbers, one after another in the order of the set.
class SheetNumbering {
public:
    explicit SheetNumbering(const Project& project);

    /// Null: it has none that it keeps.
    const SheetNumber* kept(SheetKey sheet) const;
    /// The number that it keeps; else the next free one of a series that begins at `from` and is a hundred long (a
    /// thousand from 1000 on): "E-601", "E-602" … What a hundred does not hold goes on in the thousand: "E-6001".
    std::string of(SheetKey sheet, int from);
    /// The number that it keeps; else this one, or where another sheet has it the next free one.
    std::string at(SheetKey sheet, int number);
    /// Of plans, where a floor has the same place in each of several series a hundred (or a thousand) apart: E-103 and
    /// E-203. `first`: where the first series begins, 101 or 1001; `power`: the second one.
    std::string ofPlan(SheetKey sheet, int first, bool power);

private:
    std::map<SheetKey, const SheetNumber*> rows;
    std::set<std::string> taken; ///< numbers that sheets keep, whether they are there still or not
    std::set<std::string> given; ///< to others, by this
    std::map<int, int> next;     ///< by the series' beginning
    std::map<Ref, int> places;   ///< of levels
    int nextPlace = 0;           ///< 0: not looked for yet
    void findPlaces(int first);
    bool isFree(const std::string& number) const { return !taken.count(number) && !given.count(number); }
    std::string give(int number);
};

/// Why a text cannot be the number of a sheet; nothing: it can.
std::optional<Error> refuseSheetNumber(const std::string& number);
/// The sheet keeps this number from now on; an empty one lets go of it. Refused where another sheet keeps the same, or
/// it cannot be one.
std::optional<Error> numberSheet(Project& project, SheetKey sheet, const std::string& number);
/// All sheets are numbered by their order again; titles, and what is left out, stay.
void numberAnew(Project& project);

/// The title that somebody gave it; else the usual one.
std::string sheetTitle(const Project& project, SheetKey sheet, const std::string& usual);
/// It has this title from now on; empty: the usual one. Refused where it has a line break or is too long.
std::optional<Error> titleSheet(Project& project, SheetKey sheet, const std::string& title);
/// Whether somebody left it out of the set.
bool isLeftOut(const Project& project, SheetKey sheet);
void leaveOut(Project& project, SheetKey sheet, bool left);

} // namespace lintel
