// The calculation report: its tables say what the results say, its contents lead where they say, nothing is cut.

#include "core/base/Format.h"
#include "core/lists/List.h"
#include "core/project/ProjectFile.h"
#include "core/report/CalculationReport.h"
#include "core/report/ReportTables.h"
#include "core/solve/BoardLoad.h"
#include "tests/Building.h"
#include "tests/Demo.h"
#include "tests/TextsApart.h"

#include <set>

using namespace lintel;

namespace {

struct Reported : Demo {
    using Demo::Demo;
    ListScope scope(const ReportOrder& order = {}) const { return *reportScope(p, r, order); }
};

const ListCell& cellOf(const List& list, const std::string& row, const std::string& heading) {
    for (const ListEntry& r : list.rows)
        if (r.cells.front().text == row)
            for (std::size_t i = 0; i < list.columns.size(); ++i)
                if (list.columns[i].heading == heading) return r.cells.at(i);
    throw std::runtime_error("no cell " + row + ", " + heading);
}

std::vector<std::string> namesOf(const Project& p, const std::vector<Ref>& nodes) {
    std::vector<std::string> names;
    for (Ref n : nodes) names.push_back(nameOf(p, n));
    std::sort(names.begin(), names.end());
    return names;
}

bool has(const std::string& words, const std::string& text) { return words.find(text) != std::string::npos; }

} // namespace

TEST_CASE("report tables: Saltmarket Hall's figures, and what is over in red") {
    const Reported d("saltmarket-hall");
    const List loads = loadTable(d.in, d.scope());
    // LP-4: 38.8 kVA of demand at 208 V is 108 A balanced; its heaviest phase is above the bus of 100 A.
    CHECK(*cellOf(loads, "LP-4", "Balanced").value == Approx(38800 / 208 / std::sqrt(3.0)).epsilon(0.005));
    CHECK(cellOf(loads, "LP-4", "Verdict").ink == Ink::Stop);
    CHECK(*cellOf(loads, "LP-4", "Used").value == Approx(*cellOf(loads, "LP-4", "Heaviest phase").value).epsilon(0.01));
    // What carries nothing in the normal state says so, and stands once more as it is while the generator feeds.
    CHECK(*cellOf(loads, "GD-1", "Used").value == 0);
    int times = 0;
    for (const ListEntry& r : loads.rows)
        if (r.cells.front().text == "GD-1") {
            ++times;
            if (times == 2) CHECK(*r.cells[7].value == Approx(28.2 / 30 * 100).epsilon(0.01));
        }
    CHECK(times == 2);
    // The bicycle store's heater is far out on #12: 25.5 % of 5.
    const List drop = dropTable(d.in, d.scope());
    CHECK(cellOf(drop, "LP-1", "Circuit that loses most").text == "LP-1-27 Bicycle store outlet");
    CHECK(cellOf(drop, "LP-1", "Verdict").text == "over");
    const List faults = faultTable(d.in, d.scope());
    CHECK(cellOf(faults, "HM-1", "Verdict").text == "over"); // 15 kA on 14
    CHECK(cellOf(faults, "MDS", "Verdict").text == "within");
    CHECK(faults.rows.size() == d.p.boards.size());
    CHECK(loopTable(d.in, d.scope()).rows.empty()); // not by this code
    // Every circuit with a load of its own has a row, once.
    std::size_t circuits = 0;
    for (const Circuit& c : d.p.circuits) circuits += c.use == CircuitUse::Load && !d.r.of(c.id).feeder;
    const List runs = runTable(d.in, d.scope());
    std::set<std::string> seen;
    for (const ListEntry& r : runs.rows)
        if (r.kind == ListEntry::Kind::Figures) CHECK(seen.insert(r.cells.front().text).second);
    CHECK(seen.size() == circuits);
}

TEST_CASE("report tables, metric: the circuit nearest to its loop impedance by board") {
    const Reported d("brindle-pier");
    const List loop = loopTable(d.in, d.scope());
    REQUIRE_FALSE(loop.rows.empty());
    for (const ListEntry& row : loop.rows) {
        const BoardId board = row.about.as<Board>();
        double most = 0;
        for (CircuitId id : d.r.on(board))
            if (const EarthFault& e = *d.r.of(id).run.earth;
                !d.r.of(id).feeder && e.known && e.limit > 0 && !e.byResidual)
                most = std::max(most, double(e.zs / e.limit));
        if (row.cells[6].text == "overcurrent")
            CHECK(*row.cells[3].value / *row.cells[4].value == Approx(most).epsilon(0.001));
        else
            CHECK(most == 0);
    }
}

TEST_CASE("scope of a report: a board with what it feeds and the way to it, or the way alone") {
    const Reported d("saltmarket-hall");
    const ListScope below = d.scope({d.board("LP-3"), false, ReportDepth::Runs});
    CHECK(namesOf(d.p, below.nodes) ==
          std::vector<std::string>{"LP-3", "LP-4", "M-1", "MDS", "SP-1", "SP-2", "T-2", "Utility"});
    std::set<std::string> boards;
    for (CircuitId c : below.circuits) boards.insert(d.p.boards[d.p.circuits[c].board].name);
    CHECK(boards == std::set<std::string>{"LP-3", "LP-4", "SP-1", "SP-2"});
    const ListScope way = d.scope({d.circuit("LP-1-27"), true, ReportDepth::Everything});
    CHECK(namesOf(d.p, way.nodes) == std::vector<std::string>{"LP-1", "M-1", "MDS", "T-1", "Utility"});
    REQUIRE(way.circuits.size() == 1);
    CHECK(nameOf(d.p, way.circuits.front()) == "LP-1-27");
    // Only what belongs to it is open or assumed in such a report.
    const std::vector<Snag> found = findSnags(d.p, d.book, d.r);
    const List snags = snagTable(d.in, way, found);
    for (const ListEntry& r : snags.rows)
        if (r.about) CHECK((way.has(r.about)));
    CHECK(snags.rows.size() < snagTable(d.in, d.scope(), found).rows.size());
    // What nobody feeds has no way, what is not there is no part.
    Project loose = d.p;
    Board b;
    b.name = "Spare board";
    const BoardId id = loose.boards.add(b);
    const Results r = solve(loose, d.book);
    CHECK_FALSE(reportScope(loose, r, {id, true, ReportDepth::Summary}));
    CHECK(reportScope(loose, r, {id, false, ReportDepth::Summary})->nodes.size() == 1);
    CHECK_FALSE(reportScope(d.p, d.r, {BoardId{999}, false, ReportDepth::Summary}));
}

TEST_CASE("report: contents and bookmarks lead to the pages on which their headings stand; nothing is cut or covered") {
    const auto look = [](const SheetInput& in, const ReportOrder& order) {
        const auto made = calculationReport(in, order);
        REQUIRE(made);
        const auto& pages = made->pages;
        for (const Bookmark& b : made->bookmarks) {
            INFO(b.title << " on page " << b.page + 1);
            REQUIRE(b.page < pages.size());
            const std::string title = b.title.rfind("Circuits of ", 0) == 0 ? "" : b.title;
            CHECK(has(pages[b.page].words(), title));
        }
        // Each line of the contents is a link to a page whose number stands in it.
        for (const PageLink& l : made->links) {
            REQUIRE(l.to < pages.size());
            bool number = false;
            for (const Mark& m : pages[l.page].marks)
                if (const auto* t = std::get_if<TextMark>(&m))
                    number = number || (t->align == Align::Right && std::abs(t->at.x - l.right) < 0.1 &&
                                        t->at.y > l.top && t->at.y < l.bottom && t->text == std::to_string(l.to + 1));
            CHECK(number);
        }
        std::string words;
        for (const Drawing& d : pages) {
            words += d.words();
            CHECK(d.paper == (in.book.metric() ? "A4" : "Letter"));
            for (const std::string& both : textsOnTexts(d)) FAIL_CHECK(both);
            for (const Mark& m : d.marks)
                if (const auto* t = std::get_if<TextMark>(&m)) {
                    const TextBox box = boxOf(*t);
                    INFO(t->text);
                    CHECK(box.left >= 15.9);
                    CHECK(box.right <= d.width - 15.9);
                    CHECK(box.bottom <= d.height - 13);
                }
        }
        return words;
    };
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        const Reported d(name);
        const std::string words = look(d.in, {{}, false, ReportDepth::Everything});
        for (const Circuit& c : d.p.circuits)
            if (c.use == CircuitUse::Load && !d.r.of(c.id).feeder) {
                INFO(nameOf(d.p, c.id));
                CHECK(has(words, explain(d.p, d.book, d.r, c.id).title));
            }
        for (const std::string& doubt : d.book.unverified()) CHECK(has(words, doubt.substr(0, 20)));
        look(d.in, {d.p.circuits.begin()->id, true, ReportDepth::Everything});
    }
    Project big = randomBuilding(7, 40);
    int n = 0;
    for (const Board& b : big.boards)
        big.boards.change(b.id)->name = "Distribution board of the north-western market hall " + std::to_string(n++);
    big.basis.title = "Extension of the covered fish market, second stage, with yard and electrical rooms";
    const Results r = solve(big, nec());
    look({big, nec(), r}, {{}, false, ReportDepth::Runs});
    const Project none;
    const Results nothing = solve(none, nec());
    const std::string empty = look({none, nec(), nothing}, {{}, false, ReportDepth::Everything});
    CHECK(has(empty, "What the design rests on"));
}

TEST_CASE("report: a cancelled one is none") {
    const Reported d("saltmarket-hall");
    std::size_t heard = 0;
    const auto made =
        calculationReport(d.in, {{}, false, ReportDepth::Everything}, [&](std::size_t done, std::size_t all) {
            CHECK(done <= all);
            return ++heard < 2;
        });
    CHECK_FALSE(made);
    CHECK(heard == 2);
}
