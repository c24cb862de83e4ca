// Runs by the handful: several chosen and changed in one step, to a spreadsheet and back, the columns a person wants.

#include "app/frame/Settings.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/formats/Grid.h"
#include "tests/app/AppTest.h"

#include <QClipboard>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QTableView>

using namespace lintel;

namespace {

struct OnRuns : Driven {
    RunsStage& stage = window.runs();
    RunsModel& model = stage.model();
    QTableView& table = stage.table();
    QString said;
    OnRuns() {
        QObject::connect(&s, &Session::said, &window, [this](const QString& text, bool) { said = text; });
        openDemo();
        window.go(Stage::Runs);
        pump();
    }
    const Run& run(const char* name) { return s.project().runs[s.project().circuits[circuit(name)].run]; }
    CircuitId circuit(const QString& name) {
        for (const Circuit& c : s.project().circuits)
            if (QString::fromStdString(nameOf(s.project(), c.id)) == name) return c.id;
        FAIL("no circuit of that name");
        return {};
    }
    int rowOf(const char* name) { return model.rowOf(circuit(name)); }
    QPoint at(const char* name, int column) {
        const QModelIndex i = model.index(rowOf(name), column);
        table.scrollTo(i);
        return table.visualRect(i).center();
    }
    void choose(const std::vector<const char*>& names, int column = RunsModel::Chosen) {
        bool first = true;
        for (const char* name : names) {
            QTest::mouseClick(table.viewport(), Qt::LeftButton, first ? Qt::NoModifier : Qt::ControlModifier,
                              at(name, column));
            first = false;
        }
        pump();
    }
    QString cell(const char* name, int column) { return model.index(rowOf(name), column).data().toString(); }
};

} // namespace

TEST_CASE("runs: what is typed in one of several rows is entered for all of them, in one step") {
    OnRuns d;
    const Project start = d.s.project();
    d.choose({"LP-1-1", "LP-1-3", "LP-1-5"});
    CHECK(d.s.selectionList().size() == 3);
    CHECK(d.s.selection() == Ref(d.circuit("LP-1-5"))); // the last one clicked is at the hand
    QTest::keyClick(&d.table, Qt::Key_F2);
    auto* line = d.table.findChild<QLineEdit*>();
    REQUIRE(line);
    CHECK(line->text() == "auto");
    line->selectAll();
    QTest::keyClicks(line, "#8");
    QTest::keyClick(line, Qt::Key_Return);
    d.pump();
    for (const char* name : {"LP-1-1", "LP-1-3", "LP-1-5"}) CHECK(d.run(name).heldSize == "8");
    CHECK(d.s.undoLabel() == "Hold 8 for 3 runs");
    // What cannot be is refused for all of them, and nothing has changed.
    const Project held = d.s.project();
    CHECK_FALSE(d.model.setData(d.model.index(d.rowOf("LP-1-1"), RunsModel::Chosen), "13", Qt::EditRole));
    CHECK_FALSE(d.model.setData(d.model.index(d.rowOf("LP-1-1"), RunsModel::Length), "far away", Qt::EditRole));
    CHECK(d.s.project() == held);
    // A row that is not among those chosen is changed by itself.
    REQUIRE(d.model.setData(d.model.index(d.rowOf("LP-1-7"), RunsModel::Length), "120 ft", Qt::EditRole));
    CHECK(d.run("LP-1-7").length == Approx(36.576));
    CHECK(d.run("LP-1-1") == held.runs[held.circuits[d.circuit("LP-1-1")].run]);
    d.s.undo();
    d.s.undo();
    CHECK(d.s.project() == start);
}

TEST_CASE("runs: held as they are sized, and let go, by the menu of the rows") {
    OnRuns d;
    d.choose({"LP-1-1", "LP-1-3"});
    const QString size = d.cell("LP-1-1", RunsModel::Chosen);
    d.menu(*d.table.viewport(), d.at("LP-1-3", RunsModel::Chosen), "Hold the sizes that they have");
    CHECK(QString::fromStdString(d.run("LP-1-1").heldSize) == QString(size).remove('#'));
    CHECK_FALSE(d.run("LP-1-3").heldSize.empty());
    CHECK(d.cell("LP-1-1", RunsModel::Chosen) == size); // nothing else has changed
    CHECK(d.s.undoLabel() == "Hold 2 runs as they are sized");
    d.choose({"LP-1-1", "LP-1-3"});
    d.menu(*d.table.viewport(), d.at("LP-1-3", RunsModel::Chosen), "Let them be sized");
    CHECK(d.run("LP-1-1").heldSize.empty());
    CHECK(d.run("LP-1-3").heldSize.empty());
}

TEST_CASE("runs: what mends the snags of a run stands in the menu of its row") {
    OnRuns d;
    const CircuitId far = d.circuit("LP-1-27"); // 146 m at 16 A: past the ceiling of sizes
    std::vector<std::string> labels;
    for (const Snag& s : d.s.solution().snags)
        if (s.about == Ref(far))
            for (const Remedy& r : remediesFor(d.s.solution().input(), s)) labels.push_back(r.label);
    REQUIRE(labels.size() > 1);
    d.choose({"LP-1-27"});
    d.menu(*d.table.viewport(), d.at("LP-1-27", RunsModel::Chosen), QString::fromStdString(labels.front()));
    CHECK(d.s.undoLabel() == QString::fromStdString(labels.front()));
    d.s.undo();
    d.pump();
    d.choose({"LP-1-27", "LP-1-1"}); // of several: what goes for all of them
    d.menu(*d.table.viewport(), d.at("LP-1-1", RunsModel::Chosen), "Hold the sizes that they have");
    CHECK(d.s.undoLabel() == "Hold 2 runs as they are sized");
}

TEST_CASE("runs: sorted by name the second place comes before the tenth, and the other way round") {
    OnRuns d;
    d.model.sort(RunsModel::Name, Qt::AscendingOrder);
    CHECK(d.rowOf("LP-1-2") < d.rowOf("LP-1-10"));
    CHECK(d.rowOf("LP-1-10") < d.rowOf("LP-2-1"));
    d.model.sort(RunsModel::Name, Qt::DescendingOrder);
    CHECK(d.rowOf("LP-1-2") > d.rowOf("LP-1-10"));
}

TEST_CASE("runs: a size held in two sets is edited as it is, and stays so where nothing is typed") {
    OnRuns d;
    REQUIRE(d.model.enter({{{d.circuit("LP-1-1")}, RunsModel::Chosen, "2 × 1/0"}}, "Hold"));
    d.pump();
    CHECK(d.run("LP-1-1").heldSets == 2);
    const QModelIndex i = d.model.index(d.rowOf("LP-1-1"), RunsModel::Chosen);
    CHECK(i.data(Qt::EditRole).toString() == "2 × 1/0");
    d.model.setData(i, i.data(Qt::EditRole), Qt::EditRole);
    CHECK(d.run("LP-1-1").heldSets == 2);
    CHECK(d.run("LP-1-1").heldSize == "1/0");
}

TEST_CASE("runs: to a spreadsheet and back, in another order; what is worked out is not entered") {
    OnRuns d;
    d.choose({"LP-1-1", "LP-1-3"});
    QTest::keySequence(&d.table, QKeySequence::Copy);
    const QString copied = QApplication::clipboard()->text();
    const QStringList lines = copied.split('\n');
    REQUIRE(lines.size() == 4); // headings, two rows, the end of the last line
    CHECK(lines[0].startsWith("Run\tServes\tLoad A\tDevice\tLength ft"));
    CHECK(lines[1].startsWith("LP-1-1\t"));
    const Project start = d.s.project();
    QTest::keySequence(&d.table, QKeySequence::Paste); // as it was: nothing
    CHECK(d.s.project() == start);
    QStringList first = lines[1].split('\t');
    QStringList second = lines[2].split('\t');
    const int length = int(lines[0].split('\t').indexOf("Length ft"));
    const int chosen = int(lines[0].split('\t').indexOf("Chosen"));
    const int load = int(lines[0].split('\t').indexOf("Load A"));
    first[length] = "150";
    first[load] = "999"; // worked out: it stays
    second[chosen] = "6";
    QApplication::clipboard()->setText(QStringList{lines[0], second.join('\t'), first.join('\t'), ""}.join('\n'));
    QTest::keySequence(&d.table, QKeySequence::Paste);
    d.pump();
    CHECK(d.run("LP-1-1").length == Approx(45.72));
    CHECK(d.run("LP-1-3").heldSize == "6");
    CHECK(d.run("LP-1-1").heldSize == start.runs[start.circuits[d.circuit("LP-1-1")].run].heldSize);
    CHECK(d.s.undoLabel() == "Paste for 2 runs");
    d.s.undo();
    d.pump();
    CHECK(d.s.project() == start);
    // What cannot be is refused with its run, and nothing of the rest is entered.
    first[length] = "1.2kVA";
    QApplication::clipboard()->setText(QStringList{lines[0], second.join('\t'), first.join('\t'), ""}.join('\n'));
    QTest::keySequence(&d.table, QKeySequence::Paste);
    CHECK(d.s.project() == start);
    CHECK(d.said.contains("LP-1-1"));
    QApplication::clipboard()->setText("Run\tChosen\nXX-9\t6\n");
    QTest::keySequence(&d.table, QKeySequence::Paste);
    CHECK(d.s.project() == start);
    CHECK(d.said.contains("of no run that is shown here"));
    // Without headings: from the cell at the hand down.
    d.choose({"LP-1-1"}, RunsModel::Length);
    QApplication::clipboard()->setText("10 ft\n20 ft\n");
    QTest::keySequence(&d.table, QKeySequence::Paste);
    CHECK(d.run("LP-1-1").length == Approx(3.048));
    const Ref below = d.model.thingAt(d.rowOf("LP-1-1") + 1);
    CHECK(enteredRun(d.s.project(), below)->length == Approx(6.096));
}

TEST_CASE("runs: columns are chosen and remembered; the file has what is shown, figures among it by hand") {
    {
        OnRuns d;
        CHECK(d.table.isColumnHidden(RunsModel::Mass));
        d.menu(*d.table.horizontalHeader()->viewport(), QPoint(20, 8), "kg");
        CHECK_FALSE(d.table.isColumnHidden(RunsModel::Mass));
        d.menu(*d.table.horizontalHeader()->viewport(), QPoint(20, 8), "Why");
        CHECK(d.table.isColumnHidden(RunsModel::Why));
    }
    OnRuns d; // the next time
    CHECK_FALSE(d.table.isColumnHidden(RunsModel::Mass));
    CHECK(d.table.isColumnHidden(RunsModel::Why));
    // LP-1-1 at #10 and 100 ft: two conductors of 5.26 mm², 8.89 g/cm³: 2 · 5.26e-6 · 30.48 · 8890 = 2.85 kg; #12 with
    // 3.31 mm² has 1.79.
    REQUIRE(d.model.enter(
        {{{d.circuit("LP-1-1")}, RunsModel::Chosen, "10"}, {{d.circuit("LP-1-1")}, RunsModel::Length, "100 ft"}},
        "Hold"));
    d.pump();
    CHECK(d.cell("LP-1-1", RunsModel::Mass) == "2.9 (+1.1)");
    auto* text = d.stage.findChild<QLineEdit*>("runsText");
    d.type(*text, "lp-1-1 held");
    const QString file = d.path("runs.csv");
    REQUIRE_FALSE(d.stage.exportTo(file));
    const auto read = readCsv(file.toStdString());
    REQUIRE(read);
    REQUIRE(read->rows.size() == 2);
    const auto& headings = read->rows[0];
    CHECK(std::find(headings.begin(), headings.end(), "Why") == headings.end());
    const auto kg = std::find(headings.begin(), headings.end(), "kg") - headings.begin();
    CHECK(read->rows[1][0] == "LP-1-1");
    CHECK(read->rows[1][std::size_t(kg)] == "2.9 (+1.1)");
    d.type(*text, " nothing such");
    REQUIRE(d.stage.exportTo(file)); // no row is shown: said
    d.menu(*d.table.horizontalHeader()->viewport(), QPoint(20, 8), "The usual ones");
    CHECK(d.table.isColumnHidden(RunsModel::Mass));
    CHECK_FALSE(d.table.isColumnHidden(RunsModel::Why));
}

TEST_CASE("runs: the conductors of what takes over have a row of their own, held and measured by itself") {
    OnRuns d;
    const auto rowOf = [&](const QString& serves) {
        for (int row = 0; row < d.model.rowCount(); ++row)
            if (d.model.index(row, RunsModel::Serves).data().toString() == serves) return row;
        return -1;
    };
    const int normal = rowOf("MDS → ATS-1"), other = rowOf("GD-1 → ATS-1, alt.");
    REQUIRE(normal >= 0);
    REQUIRE(other == normal + 1);
    const BoardId ats = d.board("ATS-1");
    const RunId run = d.s.project().boards[ats].alternateRun, own = d.s.project().boards[ats].run;
    CHECK(d.model.index(other, RunsModel::Name).data().toString().toStdString() == d.s.project().runs[run].name);
    const RunResult& alternate = *d.s.solution().results.of(ats).alternateRun;
    CHECK(d.model.index(other, RunsModel::Load).data().toString().toStdString() == figures(alternate.need.load.v));

    // What is typed goes to it, not to the normal feed.
    const Project before = d.s.project();
    REQUIRE(d.model.setData(d.model.index(other, RunsModel::Length), "90 ft", Qt::EditRole));
    d.pump();
    CHECK(d.s.project().runs[run].length == Approx(27.432));
    CHECK(d.s.project().runs[own] == before.runs[own]);
    REQUIRE(d.model.setData(d.model.index(other, RunsModel::Chosen), "4", Qt::EditRole));
    d.pump();
    CHECK(d.s.project().runs[run].heldSize == "4");
    CHECK(d.s.project().runs[own] == before.runs[own]);
    d.s.undo();
    d.s.undo();
    d.pump();
    CHECK(d.s.project() == before);

    // Chosen there it stays chosen, and its facts are those of the switch.
    d.table.scrollTo(d.model.index(other, 0));
    d.click(*d.table.viewport(), d.table.visualRect(d.model.index(other, RunsModel::Serves)).center());
    CHECK(d.table.currentIndex().row() == other);
    CHECK(d.s.selection() == Ref(ats));

    // The chip of feeders counts it, and words find it.
    d.model.setFilter(RunFilter::Feeders);
    CHECK(d.model.rowCount() == d.model.count(RunFilter::Feeders));
    d.model.setText("alternate");
    CHECK(d.model.rowCount() == 1);
    CHECK(d.model.rowAt(0).alternate);
}
