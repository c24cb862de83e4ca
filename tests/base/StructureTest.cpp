// The direction of includes: what stands below knows nothing of what stands on it.

#include "core/base/TextFile.h"
#include "tests/SourceTree.h"

#include <catch2/catch.hpp>
#include <map>
#include <regex>
#include <set>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

/// What each folder includes of the others, with a file that does. Folders of core by their names, others whole.
std::map<std::string, std::map<std::string, std::string>> includes() {
    static const std::regex line("#include [\"<]([^\">]+)[\">]");
    std::map<std::string, std::map<std::string, std::string>> out;
    const auto roomOf = [](const fs::path& path) {
        auto part = path.begin();
        const std::string first = part->string();
        return first == "core" ? first + "/" + (++part)->string() : first;
    };
    for (const char* folder : {"core", "render", "app", "cli"})
        for (const auto& entry : fs::recursive_directory_iterator(sourceTree() / folder)) {
            const std::string kind = entry.path().extension().string();
            if (kind != ".cpp" && kind != ".h") continue;
            const fs::path file = entry.path().lexically_relative(sourceTree());
            const auto text = readText(entry.path());
            REQUIRE(text);
            auto& of = out[roomOf(file)];
            for (std::sregex_iterator it(text->begin(), text->end(), line), end; it != end; ++it) {
                const std::string included = (*it)[1].str();
                const bool ours = fs::exists(sourceTree() / included) && included.find('/') != std::string::npos;
                const std::string to = ours ? roomOf(included) : included;
                if (to != roomOf(file)) of.emplace(to, file.string());
            }
        }
    return out;
}

} // namespace

TEST_CASE("no folder of core includes, by whatever way, one that includes it") {
    const auto rooms = includes();
    REQUIRE(rooms.size() > 15);
    for (const auto& [room, direct] : rooms) {
        // How each is reached, by files.
        std::map<std::string, std::string> way;
        std::vector<std::string> open{room};
        while (!open.empty()) {
            const std::string at = open.back();
            open.pop_back();
            const auto it = rooms.find(at);
            if (it == rooms.end()) continue;
            for (const auto& [to, file] : it->second)
                if (rooms.count(to) && way.emplace(to, way[at] + " " + file).second) open.push_back(to);
        }
        INFO(room << " comes back to itself by" << way[room]);
        CHECK(way[room].empty());
    }
}

TEST_CASE("core includes nothing of Qt") {
    const fs::path core = sourceTree() / "core";
    int files = 0;
    for (const auto& e : fs::recursive_directory_iterator(core)) {
        if (e.path().extension() != ".h" && e.path().extension() != ".cpp") continue;
        ++files;
        INFO(e.path());
        CHECK(readText(e.path())->find("#include <Q") == std::string::npos);
    }
    CHECK(files > 40);
}

TEST_CASE("core knows no window; what draws knows no window") {
    for (const auto& [room, direct] : includes()) {
        const bool core = room.starts_with("core/");
        for (const auto& [to, file] : direct) {
            INFO(file << " includes " << to);
            if (core) CHECK(to != "render");
            if (core || room == "render" || room == "cli") CHECK(to != "app");
            if (room != "cli") CHECK(to != "cli");
        }
    }
}
