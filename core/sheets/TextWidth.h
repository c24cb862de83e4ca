#pragma once
// How wide a text is on a sheet, without a screen or a font at hand: the letters of the sheets' face are known by their
// widths.

#include <string>
#include <vector>

namespace lintel {

/// mm, of a text whose letters' body is `size` mm high.
double textWidth(const std::string& text, double size, bool bold = false);

/// The text in lines of at most `width` mm, broken at blanks; a word that is wider alone is broken between letters.
/// Nothing is lost.
std::vector<std::string> wrapText(const std::string& text, double width, double size, bool bold = false);

} // namespace lintel
