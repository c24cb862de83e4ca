#pragma once
// How the readers of a rule book take values out of its JSON: each refusal says where and what.

#include "core/base/Error.h"
#include "core/base/Json.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <string>

namespace lintel::bookjson {

using nlohmann::json;

/// Thrown while a book is read, caught where reading began; no other code sees it.
struct Refusal {
    Error error;
};
[[noreturn]] inline void refuse(const std::string& where, const std::string& what) {
    throw Refusal{{where, what, "Correct that row of the rule book."}};
}

inline const json& at(const json& j, const char* key, const std::string& where) {
    if (!j.is_object() || !j.contains(key)) refuse(where, fmt::format("\"{}\" is missing", key));
    return j[key];
}
inline double number(const json& j, const std::string& where) {
    if (!j.is_number()) refuse(where, "expected a number, found " + seen(j));
    return j.get<double>();
}
inline double number(const json& j, const char* key, const std::string& where) {
    return number(at(j, key, where), where + ", " + key);
}
inline double orZero(const json& j, const std::string& where) { return j.is_null() ? 0 : number(j, where); }
/// A limit; null: none.
inline double orEndless(const json& j, const std::string& where) { return j.is_null() ? 1e300 : number(j, where); }
inline std::string text(const json& j, const std::string& where) {
    if (!j.is_string()) refuse(where, "expected a text, found " + seen(j));
    return j.get<std::string>();
}
inline std::string text(const json& j, const char* key, const std::string& where) {
    return text(at(j, key, where), where);
}
/// "rows" of a section, each of so many values.
inline const json& rows(const json& j, std::size_t width, const std::string& where) {
    const json& r = at(j, "rows", where);
    if (!r.is_array() || r.empty()) refuse(where, "there are no rows");
    for (std::size_t i = 0; i < r.size(); ++i)
        if (!r[i].is_array() || r[i].size() != width)
            refuse(fmt::format("{} row {}", where, i + 1), fmt::format("expected {} values", width));
    return r;
}

} // namespace lintel::bookjson
