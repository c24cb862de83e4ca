// A project file, as bytes.
#include "core/project/ProjectFile.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    if (const auto p = readProject(fuzz::textOf(data, size), "fuzz.lintel")) fuzz::goOn(*p);
    return 0;
}
