// Overlays of the riser: what they say is what the results say, and nothing moves when one is chosen.

#include "core/check/SnagsByNode.h"
#include "core/compare/ChangesByNode.h"
#include "core/project/ProjectFile.h"
#include "core/sheets/Sheets.h"
#include "core/solve/States.h"
#include "tests/World.h"

using namespace lintel;

namespace {

constexpr RiserOverlay all[] = {RiserOverlay::Use,   RiserOverlay::Phases, RiserOverlay::Drop,  RiserOverlay::Fault,
                                RiserOverlay::Space, RiserOverlay::Snags,  RiserOverlay::Supply};

struct Demo {
    Project p;
    const RuleBook& book;
    Results r;
    explicit Demo(const std::string& name)
        : p(*loadProject(dataFolder() / "demos" / (name + ".lintel"))), book(bookOf(p.basis.ruleBook)),
          r(solve(p, book)) {}
    SheetInput in() const { return {p, book, r}; }
    BoardId board(const std::string& name) const {
        for (const Board& b : p.boards)
            if (b.name == name) return b.id;
        return {};
    }
    OverlayWords of(const std::string& name, RiserOverlay o) const {
        return overlayWords(in(), board(name), {o, {}, {}, {}, {}});
    }
};

/// Of the thing itself, which is drawn after the words of its feeder.
Hotspot boxOf(const Drawing& drawing, Ref thing) {
    Hotspot last{};
    for (const Hotspot& h : drawing.hotspots)
        if (h.thing == thing) last = h;
    return last;
}

} // namespace

TEST_CASE("overlays: nothing moves when one is chosen, and all that has figures says something") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Demo d(demo);
        for (RiserLayout layout : {RiserLayout::ByFloor, RiserLayout::OneLine}) {
            const Drawing usual = riserBare(d.in(), layout, 300);
            for (RiserOverlay o : all) {
                RiserShow show{o, {}, {}, {}, {}};
                const Drawing other = riserBare(d.in(), layout, 300, show);
                const double down = other.height - usual.height; // of the line that tells the shades
                INFO(demo << " " << titleOf(o));
                CHECK(down > 5);
                CHECK(other.width == usual.width);
                for (Ref thing : d.r.order) {
                    const Hotspot was = boxOf(usual, thing), is = boxOf(other, thing);
                    CHECK(is.left == Approx(was.left));
                    CHECK(is.right == Approx(was.right));
                    CHECK(is.top == Approx(was.top + down));
                }
                CHECK(other.words().find(titleOf(o)) != std::string::npos);
            }
        }
        const auto sheets = riserDiagram(d.in(), RiserLayout::OneLine, "E-502", {RiserOverlay::Fault, {}, {}, {}, {}});
        CHECK(sheets.front().words().find("One-line diagram. Fault levels") != std::string::npos);
    }
}

TEST_CASE("overlays: the share of what a board may carry, by hand") {
    // 18 kVA, three-phase at 208 V: 18 000 / (√3 · 208) = 49.96 A of a bus of 100 A.
    Project p;
    Source s;
    s.name = "Utility";
    s.system = VoltageSystem::Y208;
    const SourceId source = p.sources.add(s);
    Board b;
    b.name = "LP-1";
    b.system = VoltageSystem::Y208;
    b.bus = 100;
    b.slots = 42;
    b.feed = source;
    b.reservedShare = 0.95; // 40 of 42
    const BoardId board = p.boards.add(b);
    Circuit c;
    c.board = board;
    c.slot = 1;
    c.poles = 3;
    const CircuitId circuit = p.circuits.add(c);
    Load l;
    l.circuit = circuit;
    l.kind = LoadKind::Equipment;
    l.amount = 18000;
    l.poles = 3;
    p.loads.add(l);
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    const OverlayWords used = overlayWords(in, board, {RiserOverlay::Use, {}, {}, {}, {}});
    CHECK(used.share == Approx(0.49963).epsilon(0.001));
    REQUIRE(used.words.size() == 2);
    CHECK(used.words[0] == "50.0 A of 100");
    CHECK_FALSE(used.over);
    CHECK(shadeOf(used) == Ink::Shade1);
    const OverlayWords phases = overlayWords(in, board, {RiserOverlay::Phases, {}, {}, {}, {}});
    CHECK(phases.words[1] == "33.3 · 33.3 · 33.3 %");
    const OverlayWords space = overlayWords(in, board, {RiserOverlay::Space, {}, {}, {}, {}});
    CHECK(space.words[0] == "39 of 42 places free");
    CHECK(space.over); // 40 are to stay free
    CHECK(shadeOf(space) == Ink::Shade4);
    // A tenth of 30 is 3, as for the check of reserved places, although 0.1 · 30 is a little more for a computer.
    p.boards.change(board)->slots = 30;
    p.boards.change(board)->reservedShare = 0.1;
    CHECK(overlayWords(in, board, {RiserOverlay::Space, {}, {}, {}, {}}).words[1] == "3 to stay free");
}

TEST_CASE("overlays: figures of the demo, over what is allowed and within it") {
    const Demo d("saltmarket-hall");
    CHECK(d.of("HM-1", RiserOverlay::Fault).words.front() == "15.0 kA of 14.0, over");
    CHECK(d.of("HM-1", RiserOverlay::Fault).over);
    CHECK(d.of("LP-4", RiserOverlay::Use).over);
    CHECK_FALSE(d.of("LP-3", RiserOverlay::Use).over);
    const OverlayWords drop = d.of("SP-1", RiserOverlay::Drop);
    CHECK(drop.words.front() == "2.2 % of 5 %");
    CHECK(drop.share == Approx(d.r.of(d.board("SP-1")).dropTotal / 5));
    // On the generator: what hangs on the transfer switch is live, all else is off.
    REQUIRE(d.r.states.size() == 1);
    const RiserShow on{RiserOverlay::Supply, {}, d.r.states[0]->source, {}, {}};
    CHECK(overlayWords(d.in(), d.board("MDS"), on).off);
    CHECK_FALSE(overlayWords(d.in(), d.board("LS-1"), on).off);
    CHECK_FALSE(overlayWords(d.in(), d.board("ATS-1"), on).off);
    CHECK_FALSE(overlayWords(d.in(), d.r.states[0]->source, on).off);
    const RiserShow normal{RiserOverlay::Supply, {}, {}, {}, {}};
    CHECK_FALSE(overlayWords(d.in(), d.board("MDS"), normal).off);
}

TEST_CASE("overlays: every snag is counted once, at its board or elsewhere") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Demo d(demo);
        const auto snags = findSnags(d.p, d.book, d.r);
        int stops = 0, checks = 0;
        for (const Snag& s : snags) {
            stops += s.severity == Severity::Stop;
            checks += s.severity == Severity::Check;
        }
        const auto counts = countSnags(d.p, snags);
        for (const auto& [thing, n] : counts) {
            stops -= n.stops;
            checks -= n.checks;
        }
        CHECK(stops == 0);
        CHECK(checks == 0);
        const RiserShow show{RiserOverlay::Snags, counts, {}, {}, {}};
        for (const auto& [thing, n] : counts)
            if (thing) CHECK(overlayWords(d.in(), thing, show).over == (n.stops > 0));
    }
}

TEST_CASE("overlays: what has changed since an earlier state stands at the things it is about, each change once") {
    const Demo before("saltmarket-hall");
    Demo after("saltmarket-hall");
    // A load twice as large on LP-2, a longer feeder to SP-1, and a new board below LP-1.
    CircuitId circuit;
    for (const Circuit& c : after.p.circuits)
        if (c.board == after.board("LP-2") && !after.r.of(c.id).feeder && after.r.of(c.id).va > 500) circuit = c.id;
    REQUIRE(circuit);
    Load more;
    more.circuit = circuit;
    more.amount = 2000;
    after.p.loads.add(more);
    Run& run = runOfNode(after.p, after.board("SP-1"));
    run.lengthBy = LengthBy::Entered;
    run.length = 90;
    Board fresh;
    fresh.name = "LP-9";
    const BoardId made = addBoard(after.p, fresh);
    feedFrom(after.p, made, after.board("LP-1"));
    after.r = solve(after.p, after.book);
    const ProjectComparison changes =
        compareProjects({before.p, before.book, before.r}, {after.p, after.book, after.r});
    const auto counts = countChanges(after.p, after.r, changes);
    int entered = 0, follows = 0;
    for (const auto& [thing, n] : counts) entered += n.entered, follows += n.follows;
    CHECK(entered == int(changes.entered.size()));
    CHECK(follows == int(changes.follows.size()));
    RiserShow show;
    show.overlay = RiserOverlay::Changes;
    show.changes = counts;
    show.since = "T1";
    const auto words = [&](const char* board) { return overlayWords(after.in(), after.board(board), show).words; };
    CHECK(words("LP-9").front() == "new");
    CHECK(counts.at(after.board("SP-1")).entered == 1); // its run
    CHECK(words("SP-1").front() == "1 value entered");
    CHECK(counts.at(after.board("LP-2")).entered >= 1);
    CHECK(words("ATS-1").front() == "as it was");
    CHECK(shadeOf(overlayWords(after.in(), after.board("SP-1"), show)) == Ink::Shade3);
    CHECK(shadeOf(overlayWords(after.in(), after.board("ATS-1"), show)) == Ink::Shade1);
    CHECK(riserBare(after.in(), RiserLayout::OneLine, 300, show).words().find("Changes since T1") != std::string::npos);
}
