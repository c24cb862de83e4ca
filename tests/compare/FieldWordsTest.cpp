// Fields and their values as people read them in comparisons and merges: every number with what it is.

#include "core/compare/FieldWords.h"
#include "core/compare/Merge.h"
#include "core/compare/ProjectComparison.h"
#include "core/project/Fields.h"
#include "core/project/ProjectFile.h"
#include "tests/World.h"

#include <nlohmann/json.hpp>

#include <optional>

using namespace lintel;

namespace {

/// The numbers among the fields of a thing.
struct Numbers {
    std::vector<std::string> found;
    template <class T> void operator()(const char* key, T&) {
        constexpr bool number = std::is_arithmetic_v<T> && !std::is_same_v<T, bool>;
        if (number || std::is_same_v<T, std::optional<double>>) found.push_back(key);
    }
};

std::string told(const Project& before, const Project& after, const RuleBook& book = nec()) {
    std::string all;
    for (const EnteredChange& e : enteredChanges(before, after, &book, &book))
        all += (all.empty() ? "" : " | ") + e.text();
    return all;
}

} // namespace

TEST_CASE("comparison: every number that a project can hold says what it is") {
    const auto look = [](Ref of, auto thing) {
        Numbers numbers;
        fields(numbers, thing);
        for (const std::string& field : numbers.found) {
            INFO(of.letter << " " << field);
            CHECK(fieldIsNamed(of, field));
        }
    };
    look(Ref(), Basis{});
    Project::eachTable([&]<class T>(const char*, Table<T> Project::*) { look(Ref(Id<T>{1}), T{}); });
}

TEST_CASE("comparison: lengths in the units of the project, ratings, shares and sizes with their units") {
    OneBoard w;
    const CircuitId c = w.circuit(1200, LoadUnit::VA, 1, 100);
    const RunId run = w.p.circuits[c].run;
    Project after = w.p;
    const auto one = [&](auto change, const std::string& expected, const RuleBook& book = nec()) {
        after = w.p;
        change(after);
        CHECK(told(w.p, after, book) == expected);
    };
    const std::string name = "Run of LP-1-1";
    one([&](Project& p) { p.runs.change(run)->length = 36.576; }, name + ": length 100 ft → 120 ft");
    one([&](Project& p) { p.runs.change(run)->length = 30.6324; }, name + ": length 100 ft → 100.5 ft");
    one([&](Project& p) { p.runs.change(run)->heldSize = "3/0"; }, name + ": held conductors none → 3/0");
    one([&](Project& p) { p.runs.change(run)->ambient = 40; }, name + ": ambient none → 40 °C");
    one([&](Project& p) { p.boards.change(w.board)->bus = 400; }, "LP-1: bus rating 225 A → 400 A");
    one([&](Project& p) { p.boards.change(w.board)->main = 0; }, "LP-1: main device 225 A → none");
    one([&](Project& p) { p.boards.change(w.board)->height = 1.8288; }, "LP-1: height 4.921 ft → 6′ 0″");
    one([&](Project& p) { p.basis.growth = 0.2; }, "Basis: growth on feeders 0 % → 20 %");
    one([&](Project& p) { p.basis.smallestByUse["lighting"] = "10"; },
        "Basis: smallest branch conductor by use none → lighting #10");
    one([&](Project& p) { p.circuits.change(c)->heldBreaker = 25; }, "LP-1-1 load: held breaker none → 25 A");
    // A text that reads like an id is a text; what names a thing is told by that thing's name.
    one([&](Project& p) { p.boards.change(w.board)->location = "B1"; }, "LP-1: location none → B1");
    one([&](Project& p) { p.boards.change(w.board)->feed = Ref(); }, "LP-1: fed from Utility → none");
}

TEST_CASE("comparison: a metric project is told in metres and square millimetres") {
    OneBoard w(VoltageSystem::Y400);
    w.p.basis.units = UnitSystem::Metric;
    w.p.basis.ruleBook = "bs-7671";
    const CircuitId c = w.circuit(1200, LoadUnit::VA, 1, 100);
    Project after = w.p;
    after.runs.change(w.p.circuits[c].run)->length = 42.5;
    after.runs.change(w.p.circuits[c].run)->heldSize = "2.5";
    CHECK(told(w.p, after, bs()) ==
          "Run of " + nameOf(w.p, Ref(c)) + ": length 30.48 m → 42.5 m; held conductors none → 2.5 mm²");
}

TEST_CASE("merge: what both changed is told with its unit") {
    OneBoard w;
    const CircuitId c = w.circuit(1200, LoadUnit::VA, 1, 100);
    const RunId run = w.p.circuits[c].run;
    Project ours = w.p, theirs = w.p;
    ours.runs.change(run)->length = 36.576;
    theirs.runs.change(run)->length = 45.72;
    const Merged m = mergeProjects(w.p, ours, theirs);
    REQUIRE(m.conflicts.size() == 1);
    CHECK(m.conflicts[0].base == "100 ft");
    CHECK(m.conflicts[0].ours == "120 ft");
    CHECK(m.conflicts[0].theirs == "150 ft");
}

TEST_CASE("loads are told in the unit of their own, of things on plans in that of their type, in merges too") {
    OneBoard w;
    const CircuitId c = w.circuit(7, LoadUnit::kVA, 1, 100);
    DeviceType t;
    t.name = "Fan", t.load = 250, t.unit = LoadUnit::W;
    Device d;
    d.type = w.p.deviceTypes.add(t);
    d.level = w.p.levels.begin()->id;
    const DeviceId fan = w.p.devices.add(d);
    LoadId load;
    for (const Load& l : w.p.loads)
        if (l.circuit == c) load = l.id;
    Project ours = w.p, theirs = w.p;
    ours.devices.change(fan)->load = 400;
    CHECK_THAT(told(w.p, ours), Catch::Contains("load none → 400 W"));
    ours = w.p;
    ours.loads.change(load)->amount = 9;
    theirs.loads.change(load)->amount = 11;
    const Merged m = mergeProjects(w.p, ours, theirs);
    REQUIRE(m.conflicts.size() == 1);
    CHECK(m.conflicts[0].base == "7 kVA");
    CHECK(m.conflicts[0].ours == "9 kVA");
    CHECK(m.conflicts[0].theirs == "11 kVA");
}

TEST_CASE("comparison: the basis first, then the board with the weightiest change, then what only was entered") {
    ProjectComparison c;
    const auto entered = [&](Ref thing, const char* group) {
        EnteredChange e;
        e.thing = thing;
        e.group = group;
        c.entered.push_back(e);
    };
    entered(Ref(), "Basis");
    entered(BoardId{1}, "AP-1");
    entered(BoardId{2}, "LP-1");
    entered(RoomId{1}, "Plan");
    FollowedChange follows;
    follows.group = "MP-1";
    c.follows.push_back(follows);
    follows.group = "LP-1";
    c.follows.push_back(follows);
    const auto names = [&] {
        std::vector<std::string> all;
        for (const ChangeGroup& group : c.grouped()) all.push_back(group.name);
        return all;
    };
    CHECK(names() == std::vector<std::string>{"Basis", "MP-1", "LP-1", "AP-1", "Plan"});
    CHECK(c.grouped()[2].entered.size() == 1); // LP-1
    CHECK(c.grouped()[2].follows.size() == 1);
    c.entered.erase(c.entered.begin());
    CHECK(names().front() == "MP-1");
}
