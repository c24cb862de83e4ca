// A rule book, and a building worked out by it.
#include "core/check/Check.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"
#include "core/solve/Solve.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    static const auto us = loadProject(dataFolder() / "starters" / "us-shop.lintel"),
                      metric = loadProject(dataFolder() / "starters" / "uk-shop.lintel");
    const auto book = RuleBook::parse(fuzz::textOf(data, size), "fuzz");
    if (!book || !us || !metric) return 0;
    const Project& p = book->metric() ? *metric : *us;
    const Results r = solve(p, *book);
    (void)findSnags(p, *book, r);
    for (const Board& b : p.boards) (void)explain(p, *book, r, b.id);
    return 0;
}
