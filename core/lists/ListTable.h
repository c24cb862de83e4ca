#pragma once
// A list set in columns: each cell in its lines, broken between words, never cut and never squeezed. Where it is drawn,
// and when it goes on on another page, is for the sheet or page to say.

#include "core/lists/List.h"

namespace lintel {

/// Sizes of its lettering and rows, mm.
struct ListType {
    double text = 3.4, head = 2.8, title = 4.6, note = 3.3;
    double row = 6.6, rowStep = 4.4, headStep = 3.8, headPadding = 2.6, noteStep = 4.6;
    double base = 4.7;    ///< of the first line of a row below its upper edge
    double padding = 1.6; ///< of a cell, at its left and right
    double apart = 1.8;   ///< more between numbers and the words that follow them
    double leastColumn = 7;
    double longWord = 26;   ///< a longer one may be broken between its letters
    double columnScale = 1; ///< of the widths in which the list asks for its texts to be wrapped
    /// All of them by a factor.
    ListType scaled(double k) const;
};

class ListTable {
public:
    /// The list has to outlive it. Columns in which nothing stands are left out.
    explicit ListTable(const List& list, const ListType& type = {});

    /// What it would like to be wide, and cannot do without.
    double wanted() const;
    double least() const;
    /// Sets it in at most so much; what its columns want above their least is given up where it is too wide.
    void set(double most);

    const List& list() const { return of; }
    /// A row of the list with more lines than can be kept together is several here, one below another.
    std::size_t rows() const { return heights.size(); }
    const ListEntry& entry(std::size_t row) const { return of.rows[entries[row]]; }
    double width() const { return wide; }
    double height(std::size_t row) const { return heights[row]; }
    /// Of title and headings together; of all of it, with its notes set in so many mm.
    double headHeight() const { return type.title * 1.6 + headings; }
    double wholeHeight() const;

    /// Title and headings from there down.
    void drawHead(Drawing& d, double x, double y, bool again) const;
    /// With the place for choosing what it tells of.
    void drawRow(Drawing& d, std::size_t row, double x, double y) const;
    /// The line below the last row on a page.
    void drawEnd(Drawing& d, double x, double y) const;

private:
    struct Wish {
        double least, wanted;
    };
    const List& of;
    ListType type;
    std::vector<std::size_t> shown; ///< columns of the list
    std::vector<Wish> wishes;
    std::vector<double> widths, heights;
    std::vector<std::size_t> entries;                         ///< by row: of the list
    std::vector<std::vector<std::vector<std::string>>> cells; ///< row, column shown, line
    std::vector<std::vector<std::string>> heads;
    double wide = 0, headings = 0;

    double naturalWidth(const std::string& text, double size, bool bold) const;
    double widestWord(const std::string& text, double size) const;
    Wish wishOf(std::size_t column) const;
    void setRows();
    void addRow(std::size_t entry, std::vector<std::vector<std::string>> lines);
    double roomOf(std::size_t i) const;
    void cell(Drawing& d, const std::string& text, double x, double room, double base, Align align, double size,
              bool bold, Ink ink) const;
};

} // namespace lintel
