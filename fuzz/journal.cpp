// A recovery journal, as bytes: what it brings back holds together.
#include "core/project/Journal.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    if (const auto r = readJournal(fuzz::fileOf(data, size, "-journal")); r && *r) fuzz::goOn((*r)->recovered);
    return 0;
}
