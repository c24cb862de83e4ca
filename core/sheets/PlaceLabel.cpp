#include "core/sheets/PlaceLabel.h"

namespace lintel {
namespace {
constexpr double bucket = 20; // mm
std::uint64_t keyOf(long x, long y) { return std::uint64_t(std::uint32_t(x)) << 32 | std::uint32_t(y); }
template <class F> void eachBucket(double left, double top, double right, double bottom, F f) {
    for (long x = std::lround(std::floor(left / bucket)); x <= std::lround(std::floor(right / bucket)); ++x)
        for (long y = std::lround(std::floor(top / bucket)); y <= std::lround(std::floor(bottom / bucket)); ++y)
            f(keyOf(x, y));
}
} // namespace

TextBox PlaceLabel::boxAt(const TextMark& t) {
    std::size_t letters = 0;
    for (char c : t.text) letters += (static_cast<unsigned char>(c) & 0xC0) != 0x80;
    const double width =
        0.58 * t.size * double(letters); // letters of the sheets' face are a little over half as wide as high
    return boxAround(t, width, t.size * 0.8, t.size * 0.2);
}
void PlaceLabel::obstacle(double left, double top, double right, double bottom) {
    if (!(right - left < 2000 && bottom - top < 2000))
        return; // as large as the floor: nothing could keep out of its way
    boxes.push_back({left, top, right, bottom});
    eachBucket(left, top, right, bottom, [&](std::uint64_t k) { buckets[k].push_back(boxes.size() - 1); });
}
void PlaceLabel::obstacle(const TextMark& t) {
    const TextBox b = boxAt(t);
    obstacle(b.left, b.top, b.right, b.bottom);
}
double PlaceLabel::covered(const TextBox& b) const {
    double sum = 0;
    std::vector<std::size_t> seen; // a box that lies in several buckets counts once
    eachBucket(b.left, b.top, b.right, b.bottom, [&](std::uint64_t k) {
        const auto it = buckets.find(k);
        if (it == buckets.end()) return;
        for (std::size_t i : it->second) {
            const TextBox& o = boxes[i];
            if (o.right < b.left || o.left > b.right || o.bottom < b.top || o.top > b.bottom ||
                std::find(seen.begin(), seen.end(), i) != seen.end())
                continue;
            seen.push_back(i);
            sum += std::max(0.0, std::min(b.right, o.right) - std::max(b.left, o.left)) *
                   std::max(0.0, std::min(b.bottom, o.bottom) - std::max(b.top, o.top));
        }
    });
    return sum;
}
TextMark PlaceLabel::place(const std::vector<TextMark>& places) {
    const TextMark* best = nullptr;
    double least = 1e300;
    for (const TextMark& t : places) {
        const double c = covered(boxAt(t));
        if (c < least - 1e-9) least = c, best = &t;
        if (c <= 0) break;
    }
    obstacle(*best);
    return *best;
}

} // namespace lintel
