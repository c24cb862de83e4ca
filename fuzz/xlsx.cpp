// A workbook, and a list of loads in it.
#include "core/base/Utf8.h"
#include "core/exchange/LoadList.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    const auto grid = readXlsx(fuzz::fileOf(data, size, ".xlsx"));
    if (!grid) return 0;
    for (const auto& row : grid->rows)
        for (const auto& cell : row)
            if (!isUtf8(cell)) fuzz::broken("a cell is not UTF-8");
    Project p;
    applyList(p, readLoads(*grid, guessSettings(*grid), p));
    fuzz::goOn(p);
    return 0;
}
