// A sum of the bench: the first line its kind and book, the rest its fields as JSON.
#include "core/bench/Bench.h"
#include "core/base/Json.h"
#include "core/rules/DataFolder.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    static const std::vector<Outcome<RuleBook>> books{loadRuleBook("nec-2023"), loadRuleBook("bs-7671"),
                                                      loadRuleBook("iec-60364"), loadRuleBook("as-nzs-3000")};
    if (size < 2) return 0;
    const auto& kinds = benchKinds();
    const BenchKind& kind = *kinds[data[0] % kinds.size()];
    const auto& book = books[data[1] % books.size()];
    if (!book) return 0;
    const auto entered = parseJson(fuzz::textOf(data + 2, size - 2), "fuzz");
    if (!entered) return 0;
    if (const auto answer = bench(kind, *entered, *book)) {
        (void)answer->text();
        (void)answer->json().dump();
    }
    return 0;
}
