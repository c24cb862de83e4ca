// What is pasted: circuits of another window, or a block from a spreadsheet.
#include "core/copy/CircuitBlock.h"
#include "core/project/Document.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    static const auto start = loadProject(dataFolder() / "starters" / "us-shop.lintel");
    if (!start || start->boards.empty()) return 0;
    const BoardId board = start->boards.begin()->id;
    const std::string text = fuzz::textOf(data, size);
    Document d(*start);
    if (const auto taken = readCircuits(text))
        d.edit("Paste", [&](Project& p) { putCircuits(p, board, *taken, planPut(p, board, 1, *taken).slots); });
    else
        d.edit("Paste", [&](Project& p) { pasteBlock(p, board, 1, "name", text); });
    if (!d.refusal()) fuzz::goOn(d.project()); // what cannot be is refused, and the project is as it was
    d.undoAll();
    if (!(d.project() == *start)) fuzz::broken("undoing a paste does not bring the project back");
    return 0;
}
