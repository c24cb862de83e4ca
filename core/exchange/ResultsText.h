#pragma once
// The results as text for a terminal and as JSON for other programs; every key of the JSON ends in its unit.

#include "core/check/Check.h"

namespace lintel {

/// A table of feeders, boards and circuits, then the snags.
std::string resultsText(const CheckInput& in);
/// Everything worked out, with `workings` for each run and board where wanted.
nlohmann::ordered_json resultsJson(const CheckInput& in, bool workings);

} // namespace lintel
