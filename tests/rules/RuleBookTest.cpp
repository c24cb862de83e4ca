#include "core/base/TextFile.h"
#include "core/project/ProjectFile.h"
#include "tests/World.h"

#include <nlohmann/json.hpp>

using namespace lintel;

namespace {
std::string necText() { return *readText(dataFolder() / "rulebooks" / "nec-2023.json"); }
std::string replaced(std::string text, const std::string& from, const std::string& to) {
    const auto at = text.find(from);
    REQUIRE(at != std::string::npos);
    return text.replace(at, from.size(), to);
}
} // namespace

TEST_CASE("a rule book with a row that cannot be right is refused, naming the row") {
    struct Bad {
        const char *from, *to, *says;
    };
    const Bad bad[] = {
        {R"(["4", 41.74, 70, 85, 95,)", R"(["4", 41.74, 70, 58, 95,)", "hotter insulation"},
        {R"(["3", 52.62, 85, 100, 115,)", R"(["3", 52.62, 60, 80, 90,)", "larger conductor must carry more"},
        {"3.14, 5.17", "4.13, 5.17", "resistance times area"},
        {"[15, 20, 25, 30,", "[15, 25, 20, 30,", "rising order"},
        {"[40, 0.82, 0.88, 0.91]", "[40, 0.82, 0.98, 0.91]", "hotter air must carry less"},
        {"[9, 0.70]", "[9, 0.90]", "more conductors must carry less"},
        {"[100, \"8\", \"6\"]", "[100, \"14\", \"6\"]", "does not follow"},
        {"\"smallest\": \"1/0\"", "\"smallest\": \"7/0\"", "no conductor size"},
        {"\"kind\": \"kitchen\"", "\"kind\": \"galley\"", "no load kind"},
        {"\"procedure\": \"terminal-temperature\"", "\"procedure\": \"guess\"", "no sizing procedure"},
        {"\"device\": \"Breaker\", ", "", "\"device\" is missing"},
        {"\"small\": \"Tabloid\"", "\"small\": \"Broadsheet\"", "no paper \"Broadsheet\""},
        {"[12, 18, 24, 30, 42,", "[12, 18, 24, 42, 30,", "must rise"},
        {"\"largest\": 2, \"factors\": [1, 1,", "\"largest\": 2, \"factors\": [0.9, 1,",
         "must not rise with the count"},
        {"[60, 100, 125, 200,", "[60, 125, 100, 200,", "buses of boards must rise"},
        {"[60, 100, 125, 200,", "[60, 60, 125, 200,", "buses of boards must rise"},
        {"[60, 100, 125, 200,", "[0, 100, 125, 200,", "buses of boards must rise"},
        {"\"form\": \"two columns\"", "\"form\": \"a heap\"", "no form of boards"},
        {"\"system\": \"208Y/120\"", "\"system\": \"208/500\"", "no voltage system"}};
    for (const Bad& b : bad) {
        INFO(b.says);
        const auto book = RuleBook::parse(replaced(necText(), b.from, b.to), "bad.json");
        REQUIRE_FALSE(book);
        CHECK(book.error().text().find(b.says) != std::string::npos);
        CHECK(book.error().where.find("bad.json") == 0);
    }
    CHECK(RuleBook::parse(necText(), "good.json"));
    // Small ranges are of two groups, those of the columns A and B.
    using json = nlohmann::ordered_json;
    json third = json::parse(necText());
    for (json& d : third["demand"])
        if (d["kind"] == "range" && d.contains("small")) {
            json more = d["small"].back();
            more["from"] = 8750, more["upTo"] = 10'000;
            d["small"].push_back(more);
        }
    const auto three = RuleBook::parse(third.dump(), "three.json");
    REQUIRE_FALSE(three);
    CHECK(three.error().text().find("do not follow one another") != std::string::npos);
    CHECK_FALSE(RuleBook::parse("{", "cut.json"));
    CHECK_FALSE(RuleBook::parse("{}", "empty.json"));
}

TEST_CASE("a metric rule book with a row that cannot be right is refused, naming the place") {
    using json = nlohmann::ordered_json;
    const json good = json::parse(*readText(dataFolder() / "rulebooks" / "bs-7671.json"));
    const auto cable = [](json& book, const char* name) -> json& {
        for (json& t : book["cables"]["types"])
            if (t["name"] == name) return t;
        throw std::runtime_error(name);
    };
    struct Bad {
        const char* says;
        std::function<void(json&)> spoil;
    };
    const Bad bad[] = {
        {"a larger conductor must carry more",
         [&](json& b) { cable(b, "multicore 70 °C")["methods"][0]["rows"][4][1] = 30; }},
        {"three loaded conductors must not carry more than two",
         [&](json& b) { cable(b, "multicore 70 °C")["methods"][0]["rows"][4][2] = 47; }},
        {"no conductor size \"7\"", [&](json& b) { cable(b, "multicore 70 °C")["methods"][0]["rows"][4][0] = "7"; }},
        {"resistance is far from", [&](json& b) { cable(b, "multicore 70 °C")["drop"][0]["rows"][4][1] = 9.3; }},
        {"it has an ampacity and no resistance",
         [&](json& b) { cable(b, "armoured 70 °C")["drop"][0]["methods"].erase(0); }},
        {"there is no cable \"string\" before it",
         [&](json& b) { cable(b, "fire-rated multicore 90 °C")["like"] = "string"; }},
        {"there is no method \"Z\"",
         [&](json& b) {
             cable(b, "fire-rated multicore 90 °C")["only"] = json::array({"C", "Z"});
         }},
        {"there is no method \"E9\"", [&](json& b) { cable(b, "armoured 70 °C")["methods"][3]["like"] = "E9"; }},
        {"the usual cable is not in the list", [&](json& b) { b["cables"]["usualBranch"] = "rope"; }},
        {"the rows must rise and their factor fall", [&](json& b) { b["lying"]["grouping"]["direct"][2][1] = 0.9; }},
        {"the rows must rise and their factor fall", [&](json& b) { b["lying"]["soil"]["direct"][1][0] = 0.4; }},
        {"cannot be right here", [&](json& b) { b["lying"]["soil"]["factors"][0][1] = 12.8; }},
        {"direct", [&](json& b) { b["lying"]["soil"].erase("direct"); }},
        {"a hotter insulation must have a larger k",
         [&](json& b) {
             b["protective"]["k"]["copper"] = json::array({143, 115});
         }},
        {"final circuits must not have a longer time than distribution",
         [&](json& b) { b["earthFault"]["finalSeconds"][0] = 6; }},
        {"at least as much as others", [&](json& b) { b["earthFault"]["finalUpToSockets"] = 20; }},
        {"there is no load kind", [&](json& b) { b["earthFault"]["plainResidual"][0] = "toasting"; }},
        {"there is no device",
         [&](json& b) { b["earthFault"]["trips"]["type Q"] = b["earthFault"]["trips"]["type B"]; }},
        {"energy must rise", [&](json& b) { b["earthFault"]["trips"]["type B"]["energy"]["rows"][1][1] = 100; }},
        {"insulationMonitor", [&](json& b) { b["earthFault"].erase("insulationMonitor"); }},
    };
    CHECK(RuleBook::parse(good.dump(), "good.json"));
    for (const Bad& b : bad) {
        INFO(b.says);
        json book = good;
        b.spoil(book);
        const auto read = RuleBook::parse(book.dump(), "bad.json");
        REQUIRE_FALSE(read);
        INFO(read.error().text());
        CHECK(read.error().text().find(b.says) != std::string::npos);
        CHECK(read.error().where.find("bad.json") == 0);
    }
}

TEST_CASE("questions to the book") {
    CHECK(nec().ampacity(nec().find("3/0"), Material::Copper, 75) == 200);
    CHECK(nec().find("12") >= 0);
    CHECK(nec().find("13") == -1);
    CHECK(sizeWords(nec(), nec().find("12")) == "#12");
    CHECK(sizeWords(nec(), nec().find("3/0")) == "3/0");
    CHECK(sizeWords(nec(), nec().find("500")) == "500 kcmil");
    CHECK_FALSE(nec().choosable(nec().find("700"), Material::Copper)); // no impedance in Table 9
    // Standard ratings: 240.6(A) goes from 15 to 6 000 A.
    CHECK(nec().ratingAtOrAbove(14) == 15);
    CHECK(nec().ratingAtOrAbove(20) == 20);
    CHECK(nec().ratingAtOrAbove(20.01) == 25);
    CHECK(nec().ratingAtOrAbove(6000) == 6000);
    CHECK(nec().ratingAtOrAbove(6000.5) == 0); // none
    CHECK(nec().ratingAbove(15) == 20);
    CHECK(nec().ratingAbove(6000) == 0);
    // By the columns of 310.16, and between them by the cooler one.
    CHECK(nec().ampacity(nec().find("12"), Material::Copper, 60) == 20);
    CHECK(nec().ampacity(nec().find("12"), Material::Copper, 75) == 25);
    CHECK(nec().ampacity(nec().find("12"), Material::Copper, 90) == 30);
    CHECK_FALSE(loadRuleBook("../etc/passwd"));
    CHECK_FALSE(loadRuleBook("unknown"));
}

TEST_CASE("a project's own value replaces the book's, is cited as such, and a wrong one is refused") {
    const auto own = loadRuleBook("nec-2023", {{"continuous/factor", 1.0}, {"roof/adder", 17}});
    REQUIRE(own);
    CHECK(own->continuousFactor == 1.0);
    CHECK(own->tables.roofAdder == 17);
    CHECK(own->overridden().size() == 2);
    CHECK_THAT(own->cite("continuousDevice"), Catch::Contains("own value"));
    CHECK_THAT(own->cite("roof"), Catch::Contains("own value"));
    CHECK_THAT(own->cite("ampacity"), !Catch::Contains("own value"));
    CHECK(nec().overridden().empty());
    const auto missing = loadRuleBook("nec-2023", {{"continuous/teapot", 1}});
    REQUIRE_FALSE(missing);
    CHECK_THAT(missing.error().what, Catch::Contains("continuous/teapot"));
    // Deep in a table: the third row's share of a transformer's primary device.
    const auto deep = loadRuleBook("nec-2023", {{"transformer/primaryOnly/2/1", 1.3}});
    REQUIRE(deep);
    CHECK(deep->tables.transformerPrimaryOnly[2].value == 1.3);
    CHECK(deep->overridden().front() == "transformer/primaryOnly/2/1: 1.3 instead of 1.25");
    CHECK_FALSE(loadRuleBook("nec-2023", {{"transformer/primaryOnly/3/1", 1.3}})); // there is no fourth row
    CHECK_FALSE(loadRuleBook("nec-2023", {{"continuous/factor", 0.5}}));           // a factor that cannot be right
    CHECK_FALSE(loadRuleBook("nec-2023",
                             {{"conductors/rows/3/3", 9999}})); // a smaller conductor would carry more than a larger
    CHECK_FALSE(loadRuleBook("nec-2023", {{"conductors/rows/999/3", 1}}));
    CHECK_FALSE(loadRuleBook("nec-2023", {{"", 1}}));
}

TEST_CASE("the share of a buried cable's capacity is more than a half and at most all of it") {
    const auto with = [](const std::string& share) {
        const auto text = readText(dataFolder() / "rulebooks" / "bs-7671.json");
        REQUIRE(text);
        return RuleBook::parse(replaced(*text, R"("433.1.203", "share": 0.9)", R"("433.1.203", "share": )" + share),
                               "book.json");
    };
    CHECK(with("1"));
    CHECK(with("0.51"));
    for (const char* bad : {"0.5", "1.01", "0", "-1"}) {
        const auto book = with(bad);
        REQUIRE_FALSE(book);
        CHECK(book.error().what == "the share of a buried cable lies between 0.5 and 1");
    }
}
