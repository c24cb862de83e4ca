#pragma once
// Ways through a set of pages: an outline beside them, and places on a page that lead to another one.

#include <cstddef>
#include <string>

namespace lintel {

/// An entry of the outline. A deeper level stands below the last one of the level above it.
struct Bookmark {
    std::string title;
    std::size_t page = 0; ///< the first is 0
    int level = 0;        ///< 0 at the left
};

/// A click in a box of a page, in mm from its top left corner, leads to another page.
struct PageLink {
    std::size_t page = 0;
    double left = 0, top = 0, right = 0, bottom = 0;
    std::size_t to = 0;
};

} // namespace lintel
