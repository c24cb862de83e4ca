// A schedule of feeders into a project, twice: the second time nothing may change.
#include "core/exchange/FeederList.h"
#include "core/project/Document.h"
#include "core/rules/DataFolder.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    static const auto book = loadRuleBook("nec-2023");
    const auto grid = readCsv(fuzz::fileOf(data, size, ".csv"));
    if (!grid || !book) return 0;
    Document d;
    d.edit("A utility", [](Project& p) {
        Source s;
        s.name = "Utility";
        p.sources.add(s);
    });
    const FeederList list = readFeeders(*grid, guessFeederSettings(*grid, UnitSystem::Imperial), *book);
    d.edit("Take in", [&](Project& p) { (void)applyFeeders(p, *book, list); });
    if (d.refusal()) fuzz::broken("a list makes a project that cannot be: " + d.refusal()->text());
    fuzz::goOn(d.project());
    return 0;
}
