#include "core/exchange/ResultsText.h"
#include "core/project/ProjectFile.h"
#include "tests/Building.h"

using namespace lintel;

TEST_CASE("the JSON of results holds what was worked out, each key with its unit") {
    const Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const Results r = solve(p, nec());
    const CheckInput in{p, nec(), r};
    const auto j = resultsJson(in, true);
    CHECK(j["boards"].size() == p.boards.size());
    CHECK(j["circuits"].size() == p.circuits.size());
    CHECK(j["transformers"].size() == 2);
    CHECK(j["snags"].size() == findSnags(p, nec(), r).size());
    for (const auto& b : j["boards"]) {
        const BoardId id = refFrom(b["id"]).as<Board>();
        CHECK(b["demand_VA"].get<double>() == Approx(r.of(id).demand));
        CHECK(b["fault"]["three_phase_kA"].get<double>() == Approx(r.of(id).fault.threePhase));
        double kinds = 0;
        for (const auto& k : b["kinds"]) kinds += k["connected_VA"].get<double>();
        CHECK(kinds + 1e-6 >= b["connected_VA"].get<double>());
        CHECK(b["workings"]["steps"].size() > 2);
    }
    // Every number says its unit in the name of its key.
    const std::function<void(const nlohmann::ordered_json&, const std::string&)> walk = [&](const nlohmann::ordered_json& x, const std::string& key) {
        if (x.is_object())
            for (const auto& [k, v] : x.items()) walk(v, k);
        else if (x.is_array())
            for (const auto& v : x) walk(v, key);
        else if (x.is_number()) {
            static const char* plain[] = {"sets", "slot", "poles", "points", "x_over_r"};
            const bool counted = std::find(std::begin(plain), std::end(plain), key) != std::end(plain);
            bool unit = counted || key == "kVA";
            for (const char* u : {"_VA", "_A", "_kA", "_m", "_percent"}) unit = unit || (key.size() > std::string(u).size() && key.ends_with(u));
            INFO(key);
            CHECK(unit);
        }
    };
    walk(j, "");
}

TEST_CASE("the table for the terminal names every board and circuit, and every snag") {
    const Project p = randomBuilding(8, 6);
    const Results r = solve(p, nec());
    const std::string text = resultsText({p, nec(), r});
    for (const Board& b : p.boards) CHECK(text.find(b.name) != std::string::npos);
    for (const Circuit& c : p.circuits) CHECK(text.find(nameOf(p, c.id)) != std::string::npos);
    for (const Snag& s : findSnags(p, nec(), r)) CHECK(text.find(s.text) != std::string::npos);
}
