#pragma once
// One fact of many circuits changed at once, seen before it is done.

#include "core/check/Compare.h"

namespace lintel {

struct GroupEdit {
    struct Row {
        CircuitId circuit;
        std::string now, then, refused; ///< refused: why it stays as it is
    };
    std::vector<Row> rows;
    Project after; ///< with all that did not refuse
    int changing = 0;
    Comparison effect; ///< on runs and snags of the whole building
};
/// Pure: the project stays as it is. `stop` is asked between the rows and before the solution.
GroupEdit planGroupEdit(const CheckInput& in, const std::vector<CircuitId>& circuits, const std::string& fact,
                        const std::string& text, const std::function<bool()>& stop = {});

} // namespace lintel
