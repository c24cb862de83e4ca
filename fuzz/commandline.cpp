// The command line: one argument a line; files are the demo or a file with the rest of the input. Nothing is written
// elsewhere.
#include "cli/Commands.h"
#include "core/rules/DataFolder.h"
#include "fuzz/GoOn.h"

#include <iostream>
#include <sstream>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    static const char* commands[] = {"solve", "explain", "bench", "level", "plan", "loads", "types"};
    if (size < 1) return 0;
    std::istringstream in(fuzz::textOf(data + 1, size - 1));
    std::vector<std::string> words{"lintel-cli", commands[data[0] % std::size(commands)]};
    const std::string demo = (dataFolder() / "demos" / "brindle-pier.lintel").string();
    for (std::string line; std::getline(in, line) && words.size() < 12;) {
        if (line == "DEMO") line = demo;
        if (line == "FILE") line = fuzz::fileOf(data, size, ".lintel").string();
        // It may read what it likes, and write nothing.
        if (line.rfind("--out", 0) == 0 || line.rfind("--pdf", 0) == 0 || line == "export" || line == "write" ||
            line == "take" || line == "-" || line.find('\0') != std::string::npos)
            continue;
        words.push_back(line);
    }
    if (words[1] == "loads" && std::find(words.begin(), words.end(), "check") == words.end())
        words.push_back("--dry-run");
    std::vector<char*> argv;
    for (std::string& w : words) argv.push_back(w.data());
    std::ostringstream quiet;
    auto* out = std::cout.rdbuf(quiet.rdbuf());
    auto* err = std::cerr.rdbuf(quiet.rdbuf());
    (void)runCommandLine(int(argv.size()), argv.data());
    std::cout.rdbuf(out);
    std::cerr.rdbuf(err);
    return 0;
}
