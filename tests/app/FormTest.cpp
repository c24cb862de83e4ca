// Schedule forms, shaped on the sheet with real clicks, drags and keys.

#include "AppTest.h"
#include "app/frame/PaintKit.h"

#include <QCheckBox>
#include <QComboBox>
#include <QCompleter>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

using namespace lintel;

namespace {

struct Shaping : Driven {
    IssueStage& stage = window.issue();
    FormPanel& form = stage.form();
    Shaping() {
        openDemo();
        window.go(Stage::Issue);
        stage.showSchedule(board("LP-1"));
        pump();
    }
    /// Waits until the sheet shows what was edited: on a busy machine it follows a moment later.
    void settle() {
        REQUIRE(QTest::qWaitFor([&] { return stage.isCurrent(); }, 10000));
        pump();
    }
    /// The middle of the heading of a column on the left half, on the view.
    QPointF heading(int column) {
        settle();
        for (const HeadingSpot& h : stage.sheet().drawing().headings)
            if (int(h.column) == column && !h.mirrored)
                return stage.sheet().toScreen({(h.left + h.right) / 2, (h.top + h.bottom) / 2});
        FAIL("there is no such heading");
        return {};
    }
    HeadingSpot spot(int column, bool mirrored) {
        settle();
        for (const HeadingSpot& h : stage.sheet().drawing().headings)
            if (int(h.column) == column && h.mirrored == mirrored) return h;
        FAIL("there is no such heading");
        return {};
    }
    /// The middle of a circuit's cell in a column on the left half, on the view.
    QPointF cell(int column, CircuitId circuit) {
        const HeadingSpot h = spot(column, false);
        for (const Hotspot& row : stage.sheet().drawing().hotspots)
            if (row.thing == Ref(circuit))
                return stage.sheet().toScreen({(h.left + h.right) / 2, (row.top + row.bottom) / 2});
        FAIL("there is no such row");
        return {};
    }
    void typeInto(const char* field, const QString& text, Qt::Key end = Qt::Key_Return) {
        auto* line = form.findChild<QLineEdit*>(field);
        REQUIRE(line);
        line->setFocus();
        line->selectAll();
        type(*line, text);
        key(*line, end);
    }
    std::vector<std::string> headingsOf(const std::string& boardName) {
        std::vector<std::string> out;
        const Project& p = s.project();
        for (const FormColumn& c : formOf(p, *s.solution().book, p.boards[board(boardName)]).columns)
            out.push_back(c.heading);
        return out;
    }
    bool sheetSays(const std::string& words) {
        settle();
        return ("\n" + stage.sheet().drawing().words()).find("\n" + words + "\n") != std::string::npos;
    }
};

} // namespace

TEST_CASE("form: a column of one's own before the breaker, worded, on all boards, and undone") {
    Shaping d;
    const Project before = d.s.project();
    CHECK_FALSE(d.form.isVisible());
    d.click(d.stage.sheet(), d.heading(1)); // Brkr
    REQUIRE(d.form.isVisible());
    CHECK(d.form.findChild<QLineEdit*>("columnHeading")->text() == "Brkr");
    CHECK(d.s.project() == before); // looking changes nothing

    auto* figures = d.form.findChild<QListWidget*>("figures");
    d.form.findChild<QLineEdit*>("figureSearch")->setFocus();
    d.type(*d.form.findChild<QLineEdit*>("figureSearch"), "trade size");
    const auto found = figures->findItems("conduit", Qt::MatchStartsWith);
    REQUIRE(found.size() == 1);
    figures->setCurrentItem(found.front());
    d.form.findChild<QPushButton*>("columnAdd")->click();
    d.pump();
    CHECK(d.headingsOf("LP-1")[2] == "Conduit");
    d.drag(d.stage.sheet(), d.heading(2), d.heading(1)); // put before the breaker
    CHECK(d.headingsOf("LP-1")[1] == "Conduit");
    CHECK(d.headingsOf("LP-1")[2] == "Brkr");
    d.typeInto("columnWording", "{conduit}\"C");
    CHECK(d.sheetSays("½\"C"));
    CHECK(d.headingsOf("HL-1") == d.headingsOf("LP-1"));

    // The PDF says what the screen says.
    const QString pdf = d.path("set.pdf");
    REQUIRE_FALSE(d.stage.exportPdf(pdf));
    CHECK(pdfText(pdf).contains("½\"C"));

    for (int i = 0; i < 3; ++i) d.act("undo");
    CHECK(d.s.project() == before);
    CHECK_FALSE(d.sheetSays("½\"C"));
}

TEST_CASE("form: what cannot be read is refused in its place, and Escape drops it") {
    Shaping d;
    d.click(d.stage.sheet(), d.heading(3)); // Wire and conduit
    const Project before = d.s.project();
    auto* wording = d.form.findChild<QLineEdit*>("columnWording");
    const QString was = wording->text();
    d.typeInto("columnWording", "{count}#{colour}");
    CHECK(wording->text() == "{count}#{colour}");
    CHECK(isRefused(wording));
    CHECK(d.s.project() == before);
    d.key(*wording, Qt::Key_Escape);
    CHECK(wording->text() == was);
    CHECK_FALSE(isRefused(wording));
    for (const char* bad : {"wide", "0.01 in", "-4", "3 m"}) {
        d.typeInto("columnWidth", bad, Qt::Key_Tab);
        CHECK(isRefused(d.form.findChild<QLineEdit*>("columnWidth")));
        CHECK(d.s.project() == before);
    }
    d.typeInto("columnWidth", "1.5 in");
    CHECK(formOf(d.s.project(), *d.s.solution().book, d.s.project().boards[d.board("LP-1")]).columns[3].width ==
          Approx(38.1));
}

TEST_CASE("form: edges are dragged on both halves, and one board can have a form of its own") {
    Shaping d;
    d.click(d.stage.sheet(), d.heading(3));
    d.form.findChild<QComboBox*>("formScope")->setCurrentIndex(1); // LP-1 only
    const HeadingSpot left = d.spot(3, false);
    d.drag(d.stage.sheet(), d.stage.sheet().toScreen({left.right, left.top + 2}),
           d.stage.sheet().toScreen({left.right + 5, left.top + 2}));
    const auto width = [&](const char* name) {
        const Project& p = d.s.project();
        return formOf(p, *d.s.solution().book, p.boards[d.board(name)]).columns[3].width;
    };
    CHECK(width("LP-1") == Approx(31).margin(0.4));
    CHECK(width("LP-2") == Approx(26));
    CHECK(d.s.project().forms.size() == 1);
    const HeadingSpot right = d.spot(3, true);
    d.drag(d.stage.sheet(), d.stage.sheet().toScreen({right.left, right.top + 2}),
           d.stage.sheet().toScreen({right.left - 4, right.top + 2}));
    CHECK(width("LP-1") == Approx(35).margin(0.8));
    // Another form for all boards of the kind, in one step.
    auto* forms = d.form.findChild<QComboBox*>("formChoice");
    d.form.findChild<QComboBox*>("formScope")->setCurrentIndex(0);
    const int i = forms->findText("Two columns, by phase");
    REQUIRE(i >= 0);
    forms->setCurrentIndex(i);
    Q_EMIT forms->activated(i);
    d.pump();
    CHECK(d.headingsOf("LP-1") == d.headingsOf("SP-2"));
    CHECK(d.sheetSays("A"));
    // Removed columns go, the last one stays.
    d.click(d.stage.sheet(), d.heading(0));
    for (int k = 0; k < 9; ++k) d.form.findChild<QPushButton*>("columnRemove")->click(), d.pump();
    CHECK(d.headingsOf("LP-1").size() == 1);
    d.form.findChild<QPushButton*>("formBack")->click();
    CHECK_FALSE(d.form.isVisible());
}

TEST_CASE("form: cells that do not fit are told, and Widen makes room for the widest") {
    Shaping d;
    d.click(d.stage.sheet(), d.heading(1)); // Brkr, "150/3" among them
    d.typeInto("columnWidth", "4 mm");
    auto* reads = d.form.findChild<QLabel*>("columnReads");
    auto* widen = d.form.findChild<QPushButton*>("columnWiden");
    REQUIRE(QTest::qWaitFor([&] { return widen->isVisible(); }, 3000));
    CHECK(reads->text().contains("are set narrower than they should be"));
    widen->click();
    d.pump();
    REQUIRE(QTest::qWaitFor([&] { return reads->text().contains("cells fit"); }, 3000));
    const Project& p = d.s.project();
    const double width = formOf(p, *d.s.solution().book, p.boards[d.board("LP-1")]).columns[1].width;
    CHECK(width > 7);
    CHECK(width < 14);
}

TEST_CASE("a schedule on the sheet: words are typed where they stand, results are not") {
    Shaping d;
    const CircuitId seven = d.at("LP-1", 7);
    const auto twice = [&](int column, CircuitId circuit) {
        d.doubleClick(d.stage.sheet(), d.cell(column, circuit));
        return d.stage.sheet().findChild<QLineEdit*>("cellEditor");
    };
    QLineEdit* line = twice(2, seven); // Serves
    REQUIRE(line);
    CHECK(line->text() == "Office receptacles");
    line->selectAll();
    d.type(*line, "Office and copier");
    d.key(*line, Qt::Key_Return);
    CHECK(d.s.project().circuits[seven].name == "Office and copier");
    CHECK(d.sheetSays("Office and copier"));
    CHECK_FALSE(d.stage.sheet().findChild<QLineEdit*>("cellEditor"));
    d.act("undo");
    CHECK(d.s.project().circuits[seven].name == "Office receptacles");
    line = twice(2, seven);
    REQUIRE(line);
    d.type(*line, "something else");
    d.key(*line, Qt::Key_Escape);
    CHECK(d.s.project().circuits[seven].name == "Office receptacles");
    CHECK_FALSE(twice(3, seven));            // wire and conduit are worked out
    CHECK_FALSE(twice(2, d.at("LP-1", 37))); // the name of the board that it feeds
}

TEST_CASE("form: what stands at the head of a schedule and the order of its rows are chosen beside the sheet") {
    Shaping d;
    const BoardId lp = d.board("LP-1");
    const Project before = d.s.project();
    d.stage.shapeForm(0);
    d.pump();
    const auto choose = [&](const char* name, const QString& what) {
        auto* box = d.form.findChild<QComboBox*>(name);
        REQUIRE(box);
        REQUIRE(box->isVisible());
        REQUIRE(box->findText(what) >= 0);
        box->setFocus();
        box->setCurrentIndex(box->findText(what));
        Q_EMIT box->activated(box->currentIndex());
        d.settle();
    };
    const auto formNow = [&] { return formOf(d.s.project(), *d.s.solution().book, d.s.project().boards[lp]); };
    d.click(*d.form.findChild<QPushButton*>("formTitlePage"), QPoint(8, 8));
    CHECK(d.form.findChild<QComboBox*>("formFact1")->currentText() == "voltage");
    choose("formFact1", "demand");
    d.typeInto("formLabel1", "Peak demand", Qt::Key_Tab);
    CHECK(formNow().head.front() == FormFact{"demand", "Peak demand"});
    CHECK(d.sheetSays("Peak demand"));
    CHECK_FALSE(d.sheetSays("Voltage"));
    choose("formFact1", "nothing");
    CHECK_FALSE(d.sheetSays("Peak demand"));
    choose("formFact1", "voltage");
    CHECK(formNow().head.empty()); // the usual six again
    d.click(*d.form.findChild<QPushButton*>("formRowsPage"), QPoint(8, 8));
    CHECK_FALSE(d.form.findChild<QComboBox*>("formSortBy")->isEnabled()); // two columns stand as they are built
    for (int i = 0; i < 4; ++i) d.act("undo");
    CHECK(d.s.project() == before);
    d.s.edit("One column", [&](Project& p) { p.boards.change(lp)->form = BoardForm::SingleColumn; });
    d.stage.showSchedule(lp);
    d.settle();
    d.stage.shapeForm(0);
    d.settle();
    REQUIRE(d.form.findChild<QComboBox*>("formSortBy")->isEnabled());
    CHECK_FALSE(d.form.findChild<QCheckBox*>("formBackwards")->isEnabled());
    choose("formSortBy", "VA");
    d.click(*d.form.findChild<QCheckBox*>("formBackwards"), QPoint(8, 8));
    d.settle();
    CHECK(formNow().sortBy == "VA");
    CHECK(formNow().backwards);
    choose("formGroupBy", "kind");
    CHECK(d.stage.sheet().drawing().words().find("Receptacles · ") != std::string::npos);
    choose("formSortBy", "place");
    CHECK_FALSE(formNow().backwards);
}

TEST_CASE("form: what circuits say in a column of one's own is offered where it is typed again") {
    Shaping d;
    const CircuitId seven = d.at("LP-1", 7), nine = d.at("LP-1", 9);
    d.s.edit("Tag", [&](Project& p) { p.circuits.change(nine)->texts["Tag"] = "K-4"; });
    d.stage.shapeForm(2);
    d.settle();
    d.form.add("own Tag");
    d.settle();
    CHECK(d.headingsOf("LP-1")[3] == "Tag");
    d.doubleClick(d.stage.sheet(), d.cell(3, seven));
    auto* line = d.stage.sheet().findChild<QLineEdit*>("cellEditor");
    REQUIRE(line);
    REQUIRE(line->completer());
    CHECK(line->completer()->completionModel()->index(0, 0).data().toString() == "K-4");
    d.type(*line, "K-5"); // what is typed stays as it is typed
    d.key(*line, Qt::Key_Return);
    CHECK(d.s.project().circuits[seven].texts.at("Tag") == "K-5");
}
