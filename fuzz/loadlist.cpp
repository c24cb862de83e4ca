// A list of loads into a project, and circuits for what it holds.
#include "core/exchange/LoadList.h"
#include "core/plan/CircuitMissing.h"
#include "core/project/Document.h"
#include "core/rules/DataFolder.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    static const auto book = loadRuleBook("nec-2023");
    const auto grid = readCsv(fuzz::fileOf(data, size, ".csv"));
    if (!grid || !book) return 0;
    Document d;
    d.edit("Take in", [&](Project& p) { applyList(p, readLoads(*grid, guessSettings(*grid), p)); });
    if (d.refusal()) fuzz::broken("a list makes a project that cannot be: " + d.refusal()->text());
    d.edit("Circuit", [&](Project& p) { circuitMissing(p, *book); });
    if (d.refusal()) fuzz::broken("circuits for a list make a project that cannot be: " + d.refusal()->text());
    fuzz::goOn(d.project());
    return 0;
}
