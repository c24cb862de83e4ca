// Earthing and bonding conductors of a metric installation.

#include "core/base/Format.h"
#include "core/bench/BenchInputs.h"
#include "core/solve/RunParts.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    return {sizeField("size", "Lines of the supply", book, false, "25"),
            {.key = "sets", .label = "Sets of them", .value = "1", .least = 1, .most = 40},
            {.key = "earthing",
             .label = "Earthing",
             .type = T::Choice,
             .value = "TN-C-S",
             .choices = benchWords<Earthing>()},
            sizeField("protective1", "Protective conductor of one part", book, true, "auto"),
            sizeField("protective2", "… of the other", book, true, "auto"),
            {.key = "protected",
             .label = "Protected mechanically",
             .type = T::Flag,
             .value = "no",
             .help = "The supplementary bonding conductor, by a sheath, conduit or the like."}};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.working.title = "Earthing and bonding";
    RunResult r;
    r.size = in.size("size", book);
    r.sets = in.whole("sets");
    if (r.size < 0) in.refuse("size", "the lines have no size", "Type one of the book's.");
    r.need.cable.make().earthing = in.choice<Earthing>("earthing");
    const Bonding b = bondingOf(r, Material::Copper, book, &a.working);
    const auto area = [&](SizeIndex s) { return book.sizes()[std::size_t(s)].mm2; };
    a.figure("earthing_mm2", "Earthing conductor",
             (b.electrodes > 1 ? fmt::format("{} × ", b.electrodes) : "") + sizeWords(book, b.electrode),
             area(b.electrode));
    a.figure("main_bonding_mm2", "Main bonding", sizeWords(book, b.jumper), area(b.jumper));
    const SizeIndex one = in.size("protective1", book), two = in.size("protective2", book);
    if (one < 0) return a;
    if (book.cite("supplementary").empty())
        in.refuse("protective1", book.title + " has no rule here for supplementary bonding", "Leave it out.");
    // Between two exposed parts as large as the smaller of their protective conductors; to an extraneous part half of
    // the one.
    const double least = in.flag("protected") ? 2.5 : 4;
    const double wanted = std::max(least, two >= 0 ? std::min(area(one), area(two)) : area(one) / 2);
    SizeIndex size = -1;
    for (SizeIndex s = 0; s < SizeIndex(book.sizes().size()) && size < 0; ++s)
        if (area(s) >= wanted - 1e-9) size = s;
    if (size < 0) in.refuse("protective1", "it is past the series");
    a.working.step("Supplementary bonding",
                   two >= 0 ? fmt::format("the smaller of {} and {} mm², at least {}", figures(area(one)),
                                          figures(area(two)), figures(least))
                            : fmt::format("to an extraneous part, half of {} mm², at least {}", figures(area(one)),
                                          figures(least)),
                   sizeWords(book, size), book.cite("supplementary"));
    a.figure("supplementary_mm2", "Supplementary bonding", sizeWords(book, size), area(size));
    return a;
}

} // namespace

extern const BenchKind bondingBench;
const BenchKind bondingBench{"bonding",
                             "Earthing and bonding",
                             "Earthing conductor, main bonding and supplementary bonding of a supply.",
                             fields,
                             work,
                             BenchFor::Cables};

} // namespace lintel
