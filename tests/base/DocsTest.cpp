// What the documents say of the source tree is so.

#include "tests/SourceTree.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <fstream>
#include <regex>
#include <sstream>

using namespace lintel;
namespace fs = std::filesystem;

TEST_CASE("every file that the documents name is there") {
    static const std::regex named(R"(`((?:core|app|cli|render|tests|data|docs)/[A-Za-z0-9_./-]+)`)");
    int files = 0;
    for (const char* document : {"docs/where.md", "CONTRIBUTING.md", "docs/architecture.md"}) {
        std::ifstream in(sourceTree() / document);
        REQUIRE(in);
        std::stringstream text;
        text << in.rdbuf();
        const std::string all = text.str();
        for (std::sregex_iterator i(all.begin(), all.end(), named), end; i != end; ++i) {
            const std::string file = (*i)[1];
            INFO(document << " names " << file);
            ++files;
            // A name without an ending is a file in two parts, or a folder.
            CHECK((fs::exists(sourceTree() / file) || fs::exists(sourceTree() / (file + ".h")) ||
                   fs::exists(sourceTree() / (file + ".cpp"))));
        }
    }
    CHECK(files > 40);
}
