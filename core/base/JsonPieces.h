#pragma once
// A large JSON object, read piece by piece: what a project of 100 000 circuits is opened by.

#include "core/base/Json.h"

#include <string_view>
#include <vector>

namespace lintel {

/// A member of an object, cut out of its text and not read yet.
struct JsonMember {
    std::string key;
    std::string_view text;               ///< of the value
    std::vector<std::string_view> items; ///< texts of the values in it, where it is a list
    bool isList() const { return text.front() == '['; }
};
/// Cuts the text of an object into its members, and those that are lists into their items, so that each can be read by
/// itself: on any core, and without holding the whole. Every item is well-formed or makes readPiece throw, so that what
/// is read in pieces is what parseJson would read. Refused as by parseJson, and where a name stands twice. Empty where
/// the text is no object. The members point into the text.
Outcome<std::vector<JsonMember>> cutJson(const std::string& text, const std::string& name);
/// Reads a piece that cutJson cut out. Throws nlohmann::json::exception where it is not well-formed; parseJson of the
/// whole text says where.
nlohmann::json readPiece(std::string_view piece);

} // namespace lintel
