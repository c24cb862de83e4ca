#pragma once
// How wide a text is on a sheet, without a screen or a font at hand: the letters of the sheets' face are known by their
// widths.

#include <string>
#include <vector>

namespace lintel {

/// mm, of a text whose letters' body is `size` mm high.
double textWidth(const std::string& text, double size, bool bold = false);

/// `size`, or what is left of it where the text had to be narrowed below 85 % to stay within `width` mm.
double sizeWithin(const std::string& text, double width, double size, bool bold = false);

/// The text in lines of at most `width` mm, broken at blanks; a word that is wider alone is broken between letters.
/// Nothing is lost.
std::vector<std::string> wrapText(const std::string& text, double width, double size, bool bold = false);

/// At most so many of the lines, one at least: those that are too many are joined to the last, for whoever writes them
/// to set that narrower. Nothing is lost.
std::vector<std::string> linesAtMost(std::vector<std::string> lines, std::size_t most);

} // namespace lintel
