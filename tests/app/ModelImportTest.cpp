// A building model taken in, as a designer does it: looked over line by line, mended, a line left out, undone.

#include "app/boards/ImportPage.h"
#include "core/base/Format.h"
#include "core/base/TextFile.h"
#include "core/project/Validation.h"
#include "tests/SourceTree.h"
#include "tests/app/AppTest.h"

#include <QAbstractItemModelTester>
#include <QCheckBox>
#include <QComboBox>
#include <QPushButton>
#include <QTableView>

#include <fstream>

using namespace lintel;

namespace {

struct Taking : Driven {
    QString said;
    Taking() {
        QObject::connect(&s, &Session::said, &window, [this](const QString& text, bool) { said = text; });
        Project start;
        start.basis.units = UnitSystem::Metric;
        start.levels.add({{}, "Floor 0", 0, 3, {}});
        REQUIRE_FALSE(s.begin(start));
    }
    ImportPage& page() { return window.boards().import(); }
    std::string model() {
        const auto text = readText(sourceTree() / "fuzz" / "seeds" / "model" / "small.ifc");
        REQUIRE(text);
        return *text;
    }
    void open(const std::string& text) {
        std::ofstream(path("model.ifc").toStdString(), std::ios::binary) << text;
        window.go(Stage::Boards);
        window.boards().openModel(path("model.ifc"));
        REQUIRE(QTest::qWaitFor([this] { return page().ready(); }, 20000));
        pump();
    }
    QString what(int row) { return page().model().index(row, 1).data().toString(); }
    QString cell(int row, int column) {
        return page().model().index(row, ListModel::firstCell + column).data().toString();
    }
    int rowOf(const QString& name) {
        for (int i = 0; i < page().model().rowCount(); ++i)
            if (cell(i, 2) == name || cell(i, 1) == name) return i;
        FAIL("no row " << name.toStdString());
        return -1;
    }
    template <class T> T* within(const char* name) {
        T* found = page().findChild<T*>(name);
        REQUIRE(found);
        return found;
    }
    void accept() {
        QTest::mouseClick(within<QPushButton>("listAccept"), Qt::LeftButton);
        pump();
    }
};

} // namespace

TEST_CASE("a building model is looked over line by line, mended, and taken in as one step that undoes") {
    Taking t;
    const Project start = t.s.project();
    t.open(t.model());
    QAbstractItemModelTester tester(&t.page().model());
    REQUIRE(t.page().model().rowCount() == 9);
    // Only what there is to be set of a model is shown.
    for (const char* name : {"listDelimiter", "listEncoding", "listDecimal", "listUnit"})
        CHECK_FALSE(t.within<QComboBox>(name)->isVisible());
    CHECK(t.page().model().headerData(ListModel::firstCell, Qt::Horizontal, Qt::DisplayRole) == "What");
    CHECK(t.what(t.rowOf("Ground")) == "takes the place of Floor 0, name Floor 0 → Ground, height 3.0 m → 3.5 m");
    CHECK(t.what(t.rowOf("Kitchen")) == "new room");
    CHECK(t.cell(t.rowOf("Kitchen"), 4) == "12.0 m²");
    CHECK(t.what(t.rowOf("2 walls, 1 door or window")) == "2 new walls, 1 new door or window");
    CHECK(t.what(t.rowOf("R-1")).startsWith("the model does not say what it takes"));
    CHECK(t.cell(t.rowOf("EF-1"), 5) == QString::fromStdString(figures(1500) + " W"));
    CHECK(t.page().summary() == "8 new · 1 changed");
    CHECK(t.s.project() == start);
    // A name is mended; an area is not to be typed over; the fan stays out.
    ListModel& rows = t.page().model();
    CHECK(rows.setData(rows.index(t.rowOf("Kitchen"), ListModel::firstCell + 2), "Galley", Qt::EditRole));
    CHECK(rows.setData(rows.index(t.rowOf("Store"), ListModel::firstCell + 4), "9 m²", Qt::EditRole));
    CHECK(t.what(t.rowOf("Store")) == "this stays as the model has it: 6.00 m²");
    CHECK(rows.setData(rows.index(t.rowOf("EF-1"), 0), Qt::Unchecked, Qt::CheckStateRole));
    CHECK(t.page().summary() == "7 new · 1 changed · 1 left out by hand");
    t.accept();
    CHECK(t.said == "7 added, 1 changed, 0 the same");
    const Project taken = t.s.project();
    REQUIRE_FALSE(validate(taken));
    CHECK(taken.rooms.size() == 3);
    CHECK(taken.rooms.begin()->name == "Galley");
    CHECK(taken.walls.size() == 2);
    CHECK(taken.devices.size() == 2);
    t.s.undo();
    CHECK(t.s.project() == start);
    t.s.redo();
    // The same model again: only what was left out, and the name that the model gives.
    t.open(t.model());
    CHECK(t.page().summary() == "1 new · 1 changed · 7 the same");
    CHECK(t.what(t.rowOf("Kitchen")) == "name Galley → Kitchen");
    t.page().drop();
    CHECK(t.s.project() == taken);
}

TEST_CASE("what a building model no longer has is removed only where it is ticked, and a damaged one says its line") {
    Taking t;
    t.open(t.model());
    t.accept();
    std::string text = t.model();
    const std::string outlet = "#103=IFCOUTLET('E1',$,'Duplex','','Twin socket',#102,$,'R-1',.POWEROUTLET.);\n";
    REQUIRE(text.find(outlet) != std::string::npos);
    text.erase(text.find(outlet), outlet.size());
    t.open(text);
    CHECK(t.page().summary().contains("1 no longer in the model"));
    auto* remove = t.within<QCheckBox>("listRemoveGone");
    CHECK(remove->isVisible());
    CHECK(remove->text() == "Remove what the model no longer has");
    CHECK_FALSE(t.within<QPushButton>("listAccept")->isEnabled()); // nothing is new
    QTest::mouseClick(remove, Qt::LeftButton, {}, QPoint(8, remove->height() / 2));
    t.pump();
    CHECK(remove->isChecked());
    t.accept();
    CHECK(t.s.project().devices.size() == 2);
    CHECK(t.said.contains("1 removed"));
    t.open(t.model().substr(0, 2000));
    CHECK(t.said.contains("model.ifc, line"));
    CHECK_FALSE(t.within<QPushButton>("listAccept")->isEnabled());
    t.page().drop();
}
