#pragma once
// Texts on a drawing that keep out of the way of symbols and of one another.

#include "core/drawing/TextBox.h"

#include <unordered_map>

namespace lintel {

/// Boxes that are taken, in buckets, so that a floor of thousands is placed in linear time.
class PlaceLabel {
public:
    void obstacle(double left, double top, double right, double bottom);
    void obstacle(const TextMark& text);
    /// The first of the places that covers nothing, else the one that covers least; it is taken then. `places` is not
    /// empty.
    TextMark place(const std::vector<TextMark>& places);

private:
    static TextBox boxAt(const TextMark& text);
    double covered(const TextBox& box) const;
    std::vector<TextBox> boxes;
    std::unordered_map<std::uint64_t, std::vector<std::size_t>> buckets;
};

} // namespace lintel
