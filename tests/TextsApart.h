#pragma once
// Whether texts of a drawing stand on one another: for tests of sheets.

#include "core/drawing/TextBox.h"

#include <algorithm>
#include <functional>
#include <string>
#include <vector>

namespace lintel {

/// "LP-1 on LP-2": every pair that touches, among the texts that `counts` takes.
inline std::vector<std::string> textsOnTexts(const Drawing& d,
                                             const std::function<bool(const TextMark&)>& counts = {}) {
    struct Boxed {
        TextBox box;
        const TextMark* text;
    };
    std::vector<Boxed> all;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m); t && (!counts || counts(*t))) all.push_back({boxOf(*t), t});
    std::sort(all.begin(), all.end(), [](const Boxed& a, const Boxed& b) { return a.box.top < b.box.top; });
    std::vector<std::string> found;
    for (std::size_t i = 0; i < all.size(); ++i)
        for (std::size_t k = i + 1; k < all.size() && all[k].box.top < all[i].box.bottom; ++k)
            if (all[k].box.left < all[i].box.right - 0.05 && all[i].box.left < all[k].box.right - 0.05)
                found.push_back(all[i].text->text + " on " + all[k].text->text + " of " + d.number);
    return found;
}

} // namespace lintel
