#pragma once
// The lists that an office issues beside schedules and drawings: rows of figures under headings, worked out from the
// project on demand. On a sheet, in a spreadsheet and on the command line it is the same list.

#include "core/sheets/Sheets.h"

#include <optional>
#include <string>
#include <vector>

namespace lintel {

struct ListColumn {
    std::string heading;
    std::string unit{}; ///< stands in the heading, never in a cell
    Align align = Align::Left;
    double widest = 62; ///< mm in which longer texts are wrapped on a sheet

    /// "Length, ft"
    std::string head() const { return unit.empty() ? heading : heading + ", " + unit; }
};

struct ListCell {
    std::string text;               ///< as people read it
    std::optional<double> value{};  ///< the number behind it, for spreadsheets and programs
    Ink ink = Ink::Ink;             ///< Stop and Check where it is not as it should be
    std::optional<Symbol> symbol{}; ///< drawn on sheets in place of the text
};

struct ListEntry {
    enum class Kind { Figures, Group, Total };
    Kind kind = Kind::Figures; ///< a group's first cell is its heading, over the whole width
    Ref about{};               ///< what the row tells of; nothing: no one thing
    std::vector<ListCell> cells;
};

struct List {
    std::string key, title;
    std::vector<ListColumn> columns;
    std::vector<ListEntry> rows;
    std::vector<std::string> notes; ///< what a reader has to know; below the rows

    void add(Ref about, std::vector<ListCell> cells) {
        rows.push_back({ListEntry::Kind::Figures, about, std::move(cells)});
    }
    void group(const std::string& heading) { rows.push_back({ListEntry::Kind::Group, {}, {{heading}}}); }
    void total(std::vector<ListCell> cells) { rows.push_back({ListEntry::Kind::Total, {}, std::move(cells)}); }
};

/// A number as people read it, and as it is: to about three figures, or with so many decimals.
ListCell figureCell(double value);
ListCell numberCell(double value, int decimals = 0);
ListCell percentCell(double value);
/// As a plate says it: "35", "112.5".
ListCell ratingCell(double value);
/// In feet or metres; what an unknown length is called where it is one.
ListCell lengthCell(const RunNeed& need, UnitSystem units);
/// The unit of lengths in a heading: "ft" or "m".
const char* lengthUnit(UnitSystem units);

/// A kind of list: `make` works it out; a list without rows has nothing to tell and is not issued.
struct ListKind {
    /// Lists stand on sheets of the set; calculations on sheets of their own, where the basis says so; files are long,
    /// and are taken out as files only.
    enum class Of { Lists, Calculations, Files };
    const char* key; ///< "feeders": as the command line and files know it
    List (*make)(const SheetInput& in);
    Of of = Of::Lists;
};
/// All kinds, in the order in which they are bound.
const std::vector<ListKind>& listKinds();
/// Null where there is no such kind.
const ListKind* listKind(const std::string& key);

/// Those that have something to tell, laid out by the forms of the project; `forSheets`: of the kinds that go on
/// sheets, without those that somebody took off.
std::vector<List> listsOf(const SheetInput& in, bool forSheets);

/// As a table of texts for writeGrid: the heading with its unit, then the rows, numbers with a decimal point.
std::vector<std::vector<std::string>> gridOf(const List& list);

/// Those with rows, one below the other on sheets with a title block; what does not fit goes on with its headings
/// repeated. `first`: the number of the first sheet, 801 for "E-801"; each further sheet has the next number. Their
/// title is that of the lists on them, unless one is given; their paper ARCH D or A1.
std::vector<Drawing> listSheets(const SheetInput& in, const std::vector<List>& lists, int first,
                                const std::string& title = "", const std::string& paper = "");
/// A list as views for another sheet, cut to it: no wider than it wants to be or than `width` mm, none higher than
/// `height` mm; what does not fit goes on in a further one with its headings repeated.
std::vector<Drawing> listParts(const List& list, double width, double height);
/// "Lists", "Lists, sheet 2": of the pages of one title; `page` 0 is the first.
std::string pageTitle(const std::string& title, std::size_t page);

} // namespace lintel
