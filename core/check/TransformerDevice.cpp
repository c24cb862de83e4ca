// A transformer whose devices are larger than its protection allows.

#include "core/base/Article.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/solve/EquipmentSize.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// A, of the largest main that protects the secondary.
double largestMain(const CheckInput& in, const TransformerResult& r) {
    const std::vector<Band>& bands = in.book.tables.transformerSecondaryDevice;
    const double most = r.secondaryAmps.v * bandOf(bands, r.secondaryAmps.v);
    return nextRatingAllowed(bands, r.secondaryAmps.v) ? in.book.ratingAtOrAbove(most) : most;
}
bool protects(const Board& b, double largest) { return b.main > 0 && b.main <= largest + 1e-6; }

/// The largest primary device where every board right below has a main that protects the secondary; 0: not all have.
double withSecondary(const CheckInput& in, const Transformer& t, const TransformerResult& r) {
    const double largest = largestMain(in, r);
    bool any = false;
    for (const Board& b : in.project.boards)
        if (b.feed == Ref(t.id)) {
            if (!protects(b, largest)) return 0;
            any = true;
        }
    return any ? r.primaryAmps.v * in.book.tables.transformerPrimaryWithSecondary : 0;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Transformer& t : in.project.transformers) {
        const TransformerResult& r = in.results.of(t.id);
        if (!r.via || r.looped) continue;
        const double device = in.results.of(r.via).device, alone = transformerPrimaryRating(r.primaryAmps.v, in.book),
                     both = withSecondary(in, t, r);
        if (device > std::max(alone, both) + 1e-6)
            into.push_back({&self, Severity::Stop, t.id,
                            fmt::format("{}: {} A primary device; {} A is the most {}", t.name,
                                        withArticle(rating(device)), number(both > 0 ? std::max(alone, both) : alone),
                                        both > 0 ? "with its secondary protected" : "without a secondary device"),
                            in.book.cite("transformer")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const TransformerId id = s.about.as<Transformer>();
    const TransformerResult& r = in.results.of(id);
    const CircuitId via = r.via;
    const double alone = transformerPrimaryRating(r.primaryAmps.v, in.book), device = in.results.of(via).device;
    if (in.results.of(via).required.v <= alone)
        out.push_back({fmt::format("Hold the primary device at {} A", rating(alone)),
                       [=](Project& p) { p.circuits.change(via)->heldBreaker = alone; }});
    const double largest = largestMain(in, r), main = in.book.ratingAtOrBelow(largest, DeviceKind::Breaker);
    std::vector<BoardId> open;
    for (const Board& b : in.project.boards)
        if (b.feed == Ref(id) && !protects(b, largest)) open.push_back(b.id);
    if (device <= r.primaryAmps.v * in.book.tables.transformerPrimaryWithSecondary && main > 0 && !open.empty())
        out.push_back({fmt::format("Protect the secondary: {} A main in {}", withArticle(rating(main)),
                                   open.size() == 1 ? in.project.boards[open[0]].name
                                                    : fmt::format("each of {} boards", open.size())),
                       [=](Project& p) {
                           for (BoardId board : open) {
                               Board& b = *p.boards.change(board);
                               b.main = b.bus > 0 ? std::min(main, b.bus) : main;
                           }
                       }});
    for (double kva : transformerSeries(in.book, in.project.transformers[id].secondary))
        if (transformerPrimaryRating(r.primaryAmps.v * kva / in.project.transformers[id].kva, in.book) >= device) {
            out.push_back({fmt::format("Make it {} kVA", rating(kva)),
                           [=](Project& p) { p.transformers.change(id)->kva = kva; }});
            break;
        }
    return out;
}

} // namespace

extern const CheckRule transformerDeviceRule;
const CheckRule transformerDeviceRule{.id = "transformer-device", .remedies = remedies, .find = find};

} // namespace lintel
