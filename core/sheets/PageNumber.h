#pragma once
// Sheets that go on on further ones are numbered after the first: "E-605", "E-605.2", "E-605.3".

#include <string>

namespace lintel {

/// `page` 0 is the first; nothing where the first has no number.
inline std::string pageNumber(const std::string& first, std::size_t page) {
    return page == 0 || first.empty() ? first : first + "." + std::to_string(page + 1);
}

} // namespace lintel
