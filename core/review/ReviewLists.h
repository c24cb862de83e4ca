#pragma once
// A review as lists: remarks with their answers, and what was ticked, fell off, or nobody has looked at.

#include "core/lists/List.h"

namespace lintel {

List remarkList(const SheetInput& in);
List tickList(const SheetInput& in);

} // namespace lintel
