#include "core/exchange/ResultsText.h"
#include "core/project/ProjectFile.h"
#include "tests/Building.h"

#include "tests/SourceTree.h"

#include <fstream>
#include <nlohmann/json.hpp>

using namespace lintel;

namespace {
/// What a schema says of a value, as far as ours uses it: type, properties, required, additionalProperties, items,
/// $ref. Empty: it holds.
std::string against(const nlohmann::json& root, const nlohmann::json& schema, const nlohmann::ordered_json& x,
                    const std::string& at) {
    if (schema.contains("$ref"))
        return against(root, root["$defs"][schema["$ref"].get<std::string>().substr(8)], x, at);
    const std::string type = schema.value("type", "");
    const bool fits = type == "object"    ? x.is_object()
                      : type == "array"   ? x.is_array()
                      : type == "number"  ? x.is_number()
                      : type == "string"  ? x.is_string()
                      : type == "boolean" ? x.is_boolean()
                                          : true;
    if (!fits) return at + " is no " + type;
    if (x.is_array())
        for (std::size_t i = 0; i < x.size(); ++i)
            if (const std::string bad = against(root, schema["items"], x[i], at + "[" + std::to_string(i) + "]");
                !bad.empty())
                return bad;
    if (!x.is_object() || !schema.contains("properties")) return "";
    for (const auto& key : schema["required"])
        if (!x.contains(key.get<std::string>())) return at + " lacks " + key.get<std::string>();
    for (const auto& [key, value] : x.items()) {
        if (!schema["properties"].contains(key)) return at + " has " + key + ", which the schema does not know";
        if (const std::string bad = against(root, schema["properties"][key], value, at + "/" + key); !bad.empty())
            return bad;
    }
    return "";
}
} // namespace

TEST_CASE("the JSON of results follows its schema") {
    std::ifstream file(sourceTree() / "docs" / "results.schema.json");
    const auto schema = nlohmann::json::parse(file);
    const auto holds = [&](const Project& p, bool workings) {
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        CHECK(against(schema, schema, resultsJson({p, book, r}, workings), "") == "");
    };
    for (const char* demo : {"saltmarket-hall", "brindle-pier"})
        holds(*loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel")), true);
    for (const char* starter : {"us-480", "uk-shop", "au-400"}) { // lengths that are not known, and counted as so much
        Project p = *loadProject(dataFolder() / "starters" / (std::string(starter) + ".lintel"));
        holds(p, false);
        p.basis.unknownLength = 20;
        holds(p, false);
    }
    holds(Project(), true);             // empty lists, none missing
    OneBoard bars(VoltageSystem::Y480); // with a tap-off, behind a UPS
    bars.p.boards.change(bars.board)->use = BoardUse::Busway;
    bars.p.circuits.change(bars.circuit(30, LoadUnit::kVA, 3))->along = 20;
    (void)bars.circuit(10, LoadUnit::kVA, 3);
    bars.p.boards.change(insertInFeed(bars.p, bars.board, BoardUse::Ups))->efficiency = 0.95;
    holds(bars.p, true);
    // The check can fail.
    const Project p = randomBuilding(3, 3);
    const Results r = solve(p, nec());
    auto j = resultsJson({p, nec(), r}, false);
    j["boards"][0]["bus_A"] = "225";
    CHECK(against(schema, schema, j, "") == "/boards[0]/bus_A is no number");
    j.erase("snags");
    CHECK(against(schema, schema, j, "") == " lacks snags");
}

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
    const std::function<void(const nlohmann::ordered_json&, const std::string&)> walk =
        [&](const nlohmann::ordered_json& x, const std::string& key) {
            if (x.is_object())
                for (const auto& [k, v] : x.items()) walk(v, k);
            else if (x.is_array())
                for (const auto& v : x) walk(v, key);
            else if (x.is_number()) {
                static const char* plain[] = {"sets", "slot", "slots", "poles", "points", "x_over_r", "schema"};
                const bool counted = std::find(std::begin(plain), std::end(plain), key) != std::end(plain);
                bool unit = counted || key == "kVA";
                for (const char* u : {"_VA", "_W", "_var", "_A", "_kA", "_m", "_percent", "_ohm", "_s", "_mA", "_mm2"})
                    unit = unit || (key.size() > std::string(u).size() && key.ends_with(u));
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

TEST_CASE("text and JSON tell each state: who feeds what, its fault level and drop, and what the source carries") {
    const Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const Results r = solve(p, nec());
    const std::string text = resultsText({p, nec(), r});
    CHECK(text.find("\nON G-1   takes over 23.4 kVA, 74.8 % used\n") != std::string::npos); // 23.4 / 31.3
    const auto json = resultsJson({p, nec(), r}, false);
    for (const auto& board : json["boards"]) {
        INFO(board["name"].get<std::string>());
        const bool behind = board["name"] == "ATS-1" || board["name"] == "LS-1";
        REQUIRE(board.contains("states") == behind);
        if (!behind) continue;
        REQUIRE(board["states"].size() == 1);
        const auto& on = board["states"][0];
        CHECK(on["on"] == "G-1");
        CHECK(on["fed_from"] == (board["name"] == "LS-1" ? "ATS-1" : "GD-1"));
        // 31.3 kVA of 12 % at 480 V: 37.6 A / 0.12 = 314 A at its terminals, a little less here.
        CHECK(on["fault"]["three_phase_kA"].get<double>() < 0.3138);
        CHECK(on["fault"]["three_phase_kA"].get<double>() > 0.30);
    }
}
