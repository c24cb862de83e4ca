#pragma once
// Words in a box of a sheet: smaller where they are long, in so many lines as there is room for; never set narrower
// than what is still read with ease.

#include "core/drawing/Drawing.h"
#include "core/drawing/TextWidth.h"

namespace lintel {

struct FittedWords {
    std::vector<std::string> lines;
    double size = 0;    ///< mm
    bool whole = false; ///< they have room in the lines that there may be
};

/// In at most so many lines, `size` mm high or as much smaller as it takes, down to `least`.
inline FittedWords fitWords(const std::string& text, double room, std::size_t most, double size, double least,
                            bool bold = false) {
    constexpr double step = 0.94;
    for (double now = size; now > least; now *= step)
        if (auto lines = wrapText(text, room, now, bold); lines.size() <= most) return {std::move(lines), now, true};
    auto lines = wrapText(text, room, least, bold);
    const bool whole = lines.size() <= most;
    return {linesAtMost(std::move(lines), most), least, whole};
}

/// Whether it stands in one line without being set much narrower.
inline bool standsInOneLine(const std::string& text, double room, double size, bool bold = false) {
    return sizeWithin(text, room, size, bold) >= size;
}

/// One line below the other, the first with its base at `at`. The base after the last.
inline double putLines(Drawing& d, Point at, const FittedWords& words, double step, double room, bool bold = false,
                       Ink ink = Ink::Ink) {
    for (const std::string& line : words.lines) {
        d.text(at, line, words.size, Align::Left, bold, ink, room);
        at.y += step;
    }
    return at.y;
}

/// What a revision is for, on its row: small in two lines where it is long. `base`: of a single line.
inline void putRevisionText(Drawing& d, Point at, const std::string& text, double room) {
    constexpr double size = 2.8, small = 2.5, least = 1.6, above = 1.8, step = 2.5;
    if (standsInOneLine(text, room, size)) return d.text(at, text, size, Align::Left, false, Ink::Ink, room);
    const FittedWords words = fitWords(text, room, 2, small, least);
    if (words.lines.size() > 1) at.y -= above;
    putLines(d, at, words, step, room);
}

} // namespace lintel
