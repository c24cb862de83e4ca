#pragma once
// One strict test of UTF-8 for everything that comes in: no overlong forms, no surrogates, nothing above U+10FFFF.

#include <concepts>
#include <cstddef>
#include <string>
#include <string_view>

namespace lintel {

/// Bytes of the character at the front of `text`; 0 where the front is not UTF-8 or `text` is empty.
std::size_t utf8Length(std::string_view text);
/// Whether all of `text` is UTF-8. With `mayBeCut`, a character that the end cuts off counts as good.
bool isUtf8(std::string_view text, bool mayBeCut = false);
/// Where the first byte that is not UTF-8 stands; npos: nowhere.
std::size_t firstBadUtf8(std::string_view text);
/// `text` with U+FFFD in place of every byte that is not UTF-8.
std::string repairedUtf8(std::string_view text);
/// The longest beginning of `text` that has at most `bytes` bytes and cuts no character in two.
std::string_view cutUtf8(std::string_view text, std::size_t bytes);
/// Of a text that nobody keeps: one of its own, as a view into it would outlive it.
template <std::same_as<std::string> S> std::string cutUtf8(S&& text, std::size_t bytes) {
    return std::string(cutUtf8(std::string_view(text), bytes));
}
/// `text` without the control characters that XML 1.0 forbids, and UTF-8 all through: for SVG, XLSX, PDF.
std::string printable(std::string_view text);

} // namespace lintel
