// A board by itself, levelled.
#include "core/level/BareBoard.h"
#include "core/rules/DataFolder.h"
#include "core/solve/Solve.h"
#include "fuzz/GoOn.h"

#include <nlohmann/json.hpp>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    static const auto book = loadRuleBook("nec-2023");
    const auto p = bareBoard(fuzz::textOf(data, size));
    if (!p || !book) return 0;
    const Results r = solve(*p, *book);
    const BoardId id = p->boards.begin()->id;
    const LevelChoices choices = levelBoard(*p, r, id, 5000);
    (void)levelJson(*p, id, choices).dump();
    (void)levelText(*p, id, choices);
    fuzz::goOn(*p);
    return 0;
}
