#include "core/base/Json.h"

#include "core/base/Limits.h"
#include "core/base/Utf8.h"

#include <algorithm>
#include <fmt/format.h>

namespace lintel {

using nlohmann::json;

namespace {

/// Line and column of a byte of the text, counted from 1.
std::string placeOf(const std::string& text, std::size_t byte) {
    byte = std::min(byte, text.size());
    const auto line = 1 + std::count(text.begin(), text.begin() + std::ptrdiff_t(byte), '\n');
    const auto last = byte ? text.rfind('\n', byte - 1) : std::string::npos;
    return fmt::format("line {}, column {}", line, byte - (last == std::string::npos ? 0 : last + 1) + 1);
}

/// Where brackets are nested too deep; npos: nowhere. The library reads any depth, but cannot write it again.
std::size_t tooDeep(const std::string& text) {
    std::size_t depth = 0;
    bool quoted = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (quoted) {
            if (c == '\\')
                ++i;
            else if (c == '"')
                quoted = false;
            continue;
        }
        if (c == '"')
            quoted = true;
        else if (c == '{' || c == '[') {
            if (++depth > limits::jsonDepth) return i;
        } else if ((c == '}' || c == ']') && depth > 0)
            --depth;
    }
    return std::string::npos;
}

} // namespace

std::optional<Error> refusalOfJson(const std::string& text, const std::string& name) {
    const auto at = [&](std::size_t byte) { return name + ", " + placeOf(text, byte); };
    if (text.size() > limits::fileBytes)
        return Error{name, fmt::format("the text is longer than {} MB", limits::fileBytes >> 20),
                     "This is not a file of Lintel's."};
    if (const auto bad = firstBadUtf8(text); bad != std::string::npos)
        return Error{at(bad), "this is not text in UTF-8", "Save it as UTF-8, or restore the file from a copy."};
    if (const auto none = text.find('\0'); none != std::string::npos) // the library takes it for the end
        return Error{at(none), "there is a zero byte: this is not a text", "Restore the file from a copy."};
    if (const auto deep = tooDeep(text); deep != std::string::npos)
        return Error{at(deep), fmt::format("brackets are nested more than {} deep", limits::jsonDepth),
                     "This is not a file of Lintel's."};
    return std::nullopt;
}

Outcome<json> parseJson(const std::string& text, const std::string& name) {
    const auto at = [&](std::size_t byte) { return name + ", " + placeOf(text, byte); };
    if (auto refused = refusalOfJson(text, name)) return *refused;
    try {
        return json::parse(text);
    } catch (const json::parse_error& e) {
        const bool ended = e.byte >= text.size();
        return Error{at(e.byte ? e.byte - 1 : 0),
                     ended ? "the file ends in the middle: it is cut short" : "this is not well-formed JSON",
                     ended ? "Restore it from a copy; a recovery journal beside it may hold your last edits."
                           : "Look at that line, or restore the file from a copy."};
    } catch (const json::exception&) { // a number that no double can hold
        return Error{name, "it holds a number that is too large for any calculation",
                     "Look for a number of more than 300 digits, or with an exponent above 300."};
    }
}

std::string seen(const json& value) {
    if (value.is_object()) return "an object in braces";
    if (value.is_array()) return "a list in brackets";
    const std::string s = value.dump(-1, ' ', false, json::error_handler_t::replace);
    return s.size() > 40 ? std::string(cutUtf8(s, 37)) + "…" : s;
}

} // namespace lintel
