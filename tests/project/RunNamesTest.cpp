#include "core/project/RunNames.h"
#include "core/project/Document.h"
#include "tests/Demo.h"

#include <set>

using namespace lintel;

TEST_CASE("ids of cables by a pattern: each has one of its own, and what was named keeps its name unless asked") {
    Document d(*loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel"));
    const Project before = d.project();
    std::map<RunId, std::string> named;
    for (const Run& r : before.runs)
        if (!r.name.empty()) named[r.id] = r.name;
    REQUIRE_FALSE(named.empty());
    const auto plan = planRunNames(before, {usualRunPattern, true, true, false});
    REQUIRE(plan);
    CHECK_FALSE(plan->changes.empty());
    d.edit("Name runs", [&](Project& p) { applyRunNames(p, *plan); });
    std::set<std::string> names;
    for (const Run& r : d.project().runs) {
        if (r.name.empty()) continue;
        INFO(r.name);
        CHECK(names.insert(r.name).second);
    }
    for (const auto& [id, name] : named) CHECK(d.project().runs[id].name == name);
    // A circuit's run is called after its place.
    for (const Circuit& c : d.project().circuits) {
        if (c.use != CircuitUse::Load || fedBy(before, c.id) || named.count(c.run) || !c.slot) continue;
        CHECK(d.project().runs[c.run].name.rfind(d.project().boards[c.board].name + "-" + std::to_string(c.slot), 0) ==
              0);
    }
    // The same again changes nothing.
    const auto again = planRunNames(d.project(), {usualRunPattern, true, true, false});
    CHECK(again->changes.empty());
    d.undo();
    CHECK(d.project() == before);
    // All of them, by a running number.
    const auto all = planRunNames(before, {"W{number}", true, true, true});
    Project p = before;
    applyRunNames(p, *all);
    for (const auto& [id, name] : named) CHECK(p.runs[id].name[0] == 'W');
    // Feeders alone, from and to.
    const auto feeders = planRunNames(before, {"{from}/{to}", true, false, true});
    Project q = before;
    applyRunNames(q, *feeders);
    for (const Board& b : q.boards) {
        if (!b.feed) continue;
        const Circuit* c = q.circuits.find(b.feed.as<Circuit>());
        CHECK(q.runs[b.run].name == nameOf(q, c ? Ref(c->board) : b.feed) + "/" + b.name);
    }
    for (const Circuit& c : q.circuits)
        if (!fedBy(q, c.id) && q.runs.has(c.run)) CHECK(q.runs[c.run].name == before.runs[c.run].name);
}

TEST_CASE("ids of cables by a pattern: one that comes out twice gets a number, nonsense is refused") {
    OneBoard w;
    w.circuit(100);
    w.circuit(100);
    const auto same = planRunNames(w.p, {"{from}", false, true, false});
    REQUIRE(same);
    REQUIRE(same->changes.size() == 2);
    CHECK(same->changes[0].to == "LP-1");
    CHECK(same->changes[1].to == "LP-1-2");
    for (const char* bad : {"", "  ", "Cable", "{wire}", "{from", "{}", "{From}"}) {
        INFO(bad);
        CHECK_FALSE(planRunNames(w.p, {bad, true, true, false}));
    }
    CHECK(planRunNames({}, {usualRunPattern, true, true, true})->changes.empty());
}
