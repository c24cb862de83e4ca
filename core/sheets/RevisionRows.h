#pragma once
// Which revision stands in which row of a title block.

#include "core/project/Project.h"

namespace lintel {

struct RevisionRows {
    std::vector<const Revision*> rows; ///< from above; the last revision stands lowest; null: an empty row
    std::size_t earlier = 0;           ///< for which there is no row; the first row, which is empty then, says so
};
/// `count`: rows that there are, at least one.
inline RevisionRows revisionRows(const std::vector<Revision>& all, std::size_t count) {
    const std::size_t shown = all.size() <= count ? all.size() : count - 1;
    RevisionRows out{std::vector<const Revision*>(count, nullptr), all.size() - shown};
    for (std::size_t i = 0; i < shown; ++i) out.rows[count - shown + i] = &all[out.earlier + i];
    return out;
}

} // namespace lintel
