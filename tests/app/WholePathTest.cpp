// One path through all of it, on the interface: from receptacles on the plan to the schedule as a PDF.

#include "core/formats/Grid.h"
#include "tests/app/AppTest.h"

#include <QLabel>
using namespace lintel;

TEST_CASE("three receptacles placed, circuited, sized for drop, undone to the byte, redone, issued") {
    Driven d;
    d.openDemo();
    const QString file = d.path("demo.lintel");
    REQUIRE(d.s.saveAs(file.toStdString()));
    const std::string start = *readText(file.toStdString());
    const Project before = d.s.project();

    // Place three receptacles in the store, on its south wall, from the palette.
    d.window.go(Stage::Plan);
    PlanStage& stage = d.window.plan();
    PlanView& plan = stage.plan();
    QListWidget* palette = stage.palette_();
    REQUIRE(palette->item(0)->text() == "Receptacle");
    d.click(*palette->viewport(), palette->visualItemRect(palette->item(0)).center());
    CHECK(plan.mode() == PlanMode::Place);
    for (double x : {1.2, 2.6, 5.2}) d.click(plan, plan.toScreen({x, 18.6}));
    CHECK(d.s.project().devices.size() == before.devices.size() + 3);
    std::vector<DeviceId> placed;
    for (const Device& x : d.s.project().devices)
        if (!before.devices.has(x.id)) placed.push_back(x.id);
    REQUIRE(placed.size() == 3);
    for (DeviceId x : placed) { // turned to the wall: on its face, facing up the sheet into the room
        CHECK(d.s.project().devices[x].at.y == Approx(19 - 0.075 - 0.12));
        CHECK(d.s.project().devices[x].turn == Approx(180));
    }
    d.key(plan, Qt::Key_Escape);
    CHECK(plan.mode() == PlanMode::Select);

    // Lasso them in Circuit mode; the card offers the nearest board; a click on LP-1 on the plan chooses it; Enter.
    d.key(plan, Qt::Key_C);
    d.drag(plan, plan.toScreen({0.7, 18.55}), plan.toScreen({5.6, 18.98}));
    std::vector<DeviceId> caught = plan.lassoed();
    // The one that stood there already is on another circuit: take the three alone.
    d.key(plan, Qt::Key_Escape);
    d.key(plan, Qt::Key_V);
    d.s.select(std::vector<Ref>(placed.begin(), placed.end()));
    d.key(plan, Qt::Key_C);
    REQUIRE(plan.circuitCard()->isVisible());
    CHECK(plan.lassoed() == placed);
    CHECK(caught.size() == 4);
    const Board& lp1 = d.s.project().boards[d.board("LP-1")];
    d.click(plan, plan.toScreen(lp1.at));
    auto* boardBox = plan.circuitCard()->findChild<QComboBox*>("circuitBoard");
    CHECK(boardBox->currentText() == "LP-1");
    CHECK(plan.circuitCard()->findChild<QLabel*>("circuitEffect")->text().contains("to LP-1-31"));
    d.key(plan, Qt::Key_Return);
    const CircuitId made = d.at("LP-1", 31);
    REQUIRE(made);
    for (DeviceId x : placed) CHECK(d.s.project().devices[x].circuit == made);
    CHECK(d.s.selection() == Ref(made));

    // The board shows it in its slot, with breaker and conductor.
    d.window.go(Stage::Boards);
    d.pump();
    CHECK(d.window.boards().board().board() == d.board("LP-1"));
    CHECK(d.window.boards().board().selectedSlot() == 31);
    const auto run = [&]() -> const RunResult& { return d.s.solution().results.of(made).run; };
    const auto size = [&] { return d.s.solution().book->sizes()[std::size_t(run().size)].name; };
    CHECK(d.s.solution().results.of(made).device == 20);
    CHECK(d.s.solution().results.of(made).va == Approx(540));
    CHECK(size() == "12");
    CHECK(d.factValue("Breaker").startsWith("20 A 1P"));
    CHECK(d.factValue("Conductors") == "2 #12, #12 gnd");
    CHECK(d.factValue("Run").contains("measured"));
    CHECK(d.window.feedPath().steps().last().startsWith("LP-1-31"));

    // Lengthen it: 2 · 4.5 A · 2.0 Ω/kft · 300 ft = 5.4 V = 4.5 % > 3 %; with 10 AWG 2.7 %.
    d.fact("Run", "300 ft");
    CHECK(size() == "10");
    CHECK(run().dropBefore == Approx(4.5));
    CHECK(run().dropOwn == Approx(2.7));
    bool named = false;
    for (const WorkingStep& w : d.window.facts().view().working().steps)
        if (w.governs) named = w.what == "Drop, #10";
    CHECK(named);
    CHECK(d.factValue("Why") == "voltage drop");

    // Undo everything: the file is what it was, to the byte. Redo.
    const Project end = d.s.project();
    CHECK(d.window.action("undo")->text().toStdString() == "Undo Run length");
    int steps = 0;
    while (d.s.canUndo()) d.act("undo"), ++steps;
    CHECK(steps == 5);
    CHECK(d.s.project() == before);
    REQUIRE(d.s.save());
    CHECK(*readText(file.toStdString()) == start);
    while (d.s.canRedo()) d.act("redo");
    CHECK(d.s.project() == end);

    // The schedule as a PDF holds it.
    d.window.go(Stage::Issue);
    d.pump();
    const QString pdf = d.path("sheets.pdf");
    REQUIRE_FALSE(d.window.issue().exportPdf(pdf));
    const QString drawings = pdf + ".drawings";
    REQUIRE(QDir().mkpath(drawings));
    REQUIRE(d.window.issue().exportDxf(drawings));
    CHECK(QDir(drawings).entryList({"E-*.dxf"}).size() >= 5);
    CHECK(QDir(drawings).entryList({"plan_*.dxf"}).size() >= 1);
    CHECK_FALSE(d.window.issue().exportDxf(drawings + "/none"));
    QDir(drawings).removeRecursively();
    const QString text = pdfText(pdf);
    CHECK(text.contains(QRegularExpression("31\\s+20\\s+Receptacles, Store 007\\s+2#10, #10G, ½″C\\s+540")));
    CHECK(text.contains("Circuit 31: raised from #12 to #10 for voltage drop (300 ft, 2.7"));
    CHECK(text.contains("Riser diagram"));
    CHECK(text.contains("LP-1"));
    CHECK(text.contains(QRegularExpression("HM-2\\s+125/3\\s+4 #1, #6 gnd"))); // of the feeder schedule

    // The lists as a workbook, read again: a sheet for each, numbers as numbers.
    const QString workbook = d.path("lists.xlsx");
    REQUIRE_FALSE(d.window.issue().exportLists(workbook));
    GridOptions circuits;
    circuits.sheet = "Circuits";
    const auto grid = readGrid(workbook.toStdString(), circuits);
    REQUIRE(grid);
    CHECK(grid->sheets.size() >= 12);
    CHECK(grid->rows.size() == 1 + d.s.project().circuits.size());
    const auto row = std::find_if(grid->rows.begin(), grid->rows.end(),
                                  [](const auto& r) { return !r.empty() && r[0] == "LP-1-31"; });
    REQUIRE(row != grid->rows.end());
    CHECK((*row)[7] == "540");
    CHECK((*row)[9].rfind("2 #10", 0) == 0);
    CHECK(grid->isNumber(std::size_t(row - grid->rows.begin()), 7));
}
