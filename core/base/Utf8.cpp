#include "core/base/Utf8.h"

#include <cstdint>
#include <cstring>

namespace lintel {

namespace {
constexpr const char* replacement = "\uFFFD";
}

std::size_t utf8Length(std::string_view s) {
    if (s.empty()) return 0;
    const auto byte = [&](std::size_t i) { return static_cast<unsigned char>(s[i]); };
    const unsigned char c = byte(0);
    if (c < 0x80) return 1;
    const std::size_t n = c >= 0xC2 && c < 0xE0 ? 2 : c >= 0xE0 && c < 0xF0 ? 3 : c >= 0xF0 && c < 0xF5 ? 4 : 0;
    if (n == 0 || n > s.size()) return 0;
    for (std::size_t k = 1; k < n; ++k)
        if ((byte(k) & 0xC0) != 0x80) return 0;
    if (c == 0xE0 && byte(1) < 0xA0) return 0; // overlong
    if (c == 0xED && byte(1) > 0x9F) return 0; // a surrogate
    if (c == 0xF0 && byte(1) < 0x90) return 0; // overlong
    if (c == 0xF4 && byte(1) > 0x8F) return 0; // above U+10FFFF
    return n;
}

std::size_t firstBadUtf8(std::string_view text) {
    for (std::size_t i = 0; i < text.size();) {
        std::uint64_t eight = 0; // most text is ASCII: eight letters at a time
        while (i + sizeof eight <= text.size() &&
               (std::memcpy(&eight, text.data() + i, sizeof eight), (eight & 0x8080808080808080u) == 0))
            i += sizeof eight;
        if (i == text.size()) break;
        const std::size_t n = utf8Length(text.substr(i));
        if (n == 0) return i;
        i += n;
    }
    return std::string_view::npos;
}

bool isUtf8(std::string_view text, bool mayBeCut) {
    const std::size_t bad = firstBadUtf8(text);
    if (bad == std::string_view::npos) return true;
    if (!mayBeCut || text.size() - bad > 3) return false;
    const auto c = static_cast<unsigned char>(text[bad]);
    const std::size_t wanted = c >= 0xC2 && c < 0xE0 ? 2 : c >= 0xE0 && c < 0xF0 ? 3 : c >= 0xF0 && c < 0xF5 ? 4 : 0;
    const std::size_t there = text.size() - bad;
    if (wanted <= there) return false;
    // It is the beginning of a character when some bytes would complete it.
    const std::string begun(text.substr(bad));
    return utf8Length(begun + std::string(wanted - there, '\x80')) > 0 ||
           utf8Length(begun + std::string(wanted - there, '\xBF')) > 0;
}

std::string repairedUtf8(std::string_view text) {
    std::string out;
    out.reserve(text.size());
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t n = utf8Length(text.substr(i));
        if (n == 0) {
            out += replacement;
            ++i;
            continue;
        }
        out.append(text.substr(i, n));
        i += n;
    }
    return out;
}

std::string_view cutUtf8(std::string_view text, std::size_t bytes) {
    if (text.size() <= bytes) return text;
    std::size_t end = bytes;
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
    return text.substr(0, end);
}

std::string printable(std::string_view text) {
    std::string out;
    out.reserve(text.size());
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t n = utf8Length(text.substr(i));
        const std::string_view sign = text.substr(i, n ? n : 1);
        i += sign.size();
        if (n == 0)
            out += replacement;
        else if (n == 1 && static_cast<unsigned char>(sign[0]) < 0x20 && sign[0] != '\t' && sign[0] != '\n' &&
                 sign[0] != '\r')
            continue;
        else if (sign == "\x7F" || sign == "\uFFFE" || sign == "\uFFFF")
            continue;
        else
            out += sign;
    }
    return out;
}

} // namespace lintel
