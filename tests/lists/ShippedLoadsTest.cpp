// The loads of what ships count as what their names say: a water heater under space heating would be left out beside
// the cooling (220.60).

#include "core/base/DataPath.h"
#include "core/project/LoadWords.h"
#include "core/project/ProjectFile.h"

#include <catch2/catch.hpp>
#include <filesystem>

using namespace lintel;

TEST_CASE("what ships has nothing under space heating or cooling whose name says something else") {
    int named = 0;
    for (const char* folder : {"demos", "starters"})
        for (const auto& file : std::filesystem::directory_iterator(dataFolder() / folder)) {
            if (file.path().extension() != ".lintel") continue;
            const auto p = loadProject(file.path());
            REQUIRE(p);
            for (const Load& l : p->loads) {
                if (l.kind != LoadKind::Heating && l.kind != LoadKind::Cooling) continue;
                const auto kind = LoadWords::shipped().kindOf(l.name);
                if (!kind) continue;
                ++named;
                INFO(file.path().filename().string() << ", " << l.name << ": " << wordOf(*kind));
                CHECK(l.kind == *kind);
            }
        }
    CHECK(named > 10);
}

TEST_CASE("what heats or cools something else than rooms is not taken for heating or cooling") {
    const auto kind = [](const char* name) {
        const auto k = LoadWords::shipped().kindOf(name);
        return std::string(k ? wordOf(*k) : "");
    };
    CHECK(kind("Water heater, washrooms") == "water heating");
    CHECK(kind("Pass heater A") == "kitchen");
    CHECK(kind("Dishwasher booster heater") == "kitchen");
    CHECK(kind("Cold room condenser 1") == "refrigeration");
    CHECK(kind("Walk-in cooler") == "refrigeration");
    CHECK(kind("Generator battery charger") == "equipment");
    CHECK(kind("Pool heater") == "pool and spa");
    CHECK(kind("Unit heater UH-1") == "heating");
    CHECK(kind("Condensing unit CU-2") == "cooling");
    CHECK(kind("EV charger 3") == "vehicle charging");
}
