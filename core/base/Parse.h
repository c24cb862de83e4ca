#pragma once
// Letters, words and numbers as people type them.

#include <optional>
#include <string>
#include <string_view>

namespace lintel {

// Letters and digits as ASCII knows them, whatever the desktop's locale says.
constexpr bool isBlank(char c) { return c == ' ' || (c >= '\t' && c <= '\r'); }
constexpr bool isDigit(char c) { return c >= '0' && c <= '9'; }
constexpr char lower(char c) { return c >= 'A' && c <= 'Z' ? char(c - 'A' + 'a') : c; }
constexpr char upper(char c) { return c >= 'a' && c <= 'z' ? char(c - 'a' + 'A') : c; }
constexpr bool isMark(char c) { return c > ' ' && c < 127 && !isDigit(c) && !(lower(c) >= 'a' && lower(c) <= 'z'); }
constexpr bool isLetter(char c) { return lower(c) >= 'a' && lower(c) <= 'z'; }

/// Without blanks at either end, no-break ones included.
std::string trimmed(std::string_view text);
std::string lowered(std::string_view text);
/// Equal but for case.
bool sameWord(std::string_view a, std::string_view b);

/// "1 250.5", "1.250,5", "1,250.5", "−3": which of point and comma is the decimal sign follows from the text, and where
/// it does not ("1,250", "1.250") from `decimal` ('.' or ','). Nothing when it is not a number and nothing else.
std::optional<double> numberFrom(std::string_view text, char decimal = '.');

/// A number as files write it, and nothing else: "12", "-0.5", "1e6". Never asks the desktop's locale; never infinite.
std::optional<double> plainNumber(std::string_view text);
/// The same at the front of `text`, blanks before it passed over; what it took is taken off `text`.
std::optional<double> takePlainNumber(std::string_view& text);

/// "yes", "y", "true", "1", "x" and their opposites; an empty text is no.
std::optional<bool> yesFrom(std::string_view text);

} // namespace lintel
