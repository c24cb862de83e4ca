// A table of text, in whatever encoding; written out it comes back the same.
#include "core/base/Utf8.h"
#include "core/formats/Grid.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    const auto grid = readCsv(fuzz::fileOf(data, size, ".csv"));
    if (!grid) return 0;
    for (const auto& row : grid->rows)
        for (const auto& cell : row)
            if (!isUtf8(cell)) fuzz::broken("a cell is not UTF-8");
    const auto out = fuzz::fileOf(nullptr, 0, "-out.csv");
    if (const auto bad = writeGrid(grid->rows, out, "Fuzz")) fuzz::broken(bad->text());
    GridOptions as;
    as.delimiter = ',';
    as.encoding = "UTF-8";
    if (!grid->rows.empty() && !readCsv(out, as)) fuzz::broken("what was written as CSV cannot be read");
    return 0;
}
