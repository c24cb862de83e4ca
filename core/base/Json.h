#pragma once
// The one way in for JSON that somebody else may have written.

#include "core/base/Error.h"

#include <nlohmann/json.hpp>

#include <optional>
#include <string>

namespace lintel {

/// Reads a JSON text. Refused with the line: text that is not UTF-8, not well-formed, nested deeper or longer than
/// core/base/Limits.h allows, or with a number that no double can hold. `name` begins the error's `where`.
Outcome<nlohmann::json> parseJson(const std::string& text, const std::string& name);
/// What must not be in such a text, however well-formed it is: it is not UTF-8, too deep, too long.
std::optional<Error> refusalOfJson(const std::string& text, const std::string& name);
/// A value as a message shows it: short, and never too deep to write.
std::string seen(const nlohmann::json& value);

} // namespace lintel
