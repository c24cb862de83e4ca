// The files beside a project stay where they are when the project moves.

#include "core/plan/LinkedFiles.h"
#include "core/plan/Underlay.h"
#include "core/project/ComposedSheets.h"
#include "tests/World.h"

using namespace lintel;

TEST_CASE("drawings, logo and pictures stay linked when a project moves to another folder") {
    Project p;
    p.basis.logo = "art/logo.svg";
    Underlay u;
    u.file = "plans/ground.dxf";
    const UnderlayId below = p.underlays.add(u);
    u.file = "/elsewhere/first.dxf";
    const UnderlayId far = p.underlays.add(u);
    DeviceType t;
    t.picture = "art/a1.png";
    const DeviceTypeId type = p.deviceTypes.add(t);
    t.picture.clear();
    p.deviceTypes.add(t);
    const ComposedSheetId sheet = addComposedSheet(p, SheetPaper::Usual);
    const PlacedViewId picture = placeView(p, sheet, {SheetKind::Picture, {}, "site.jpg"});
    const PlacedViewId notes = placeView(p, sheet, {SheetKind::Notes, {}, "site.jpg"}); // words, not a file
    CHECK(linkedFiles(p).size() == 5);

    Project deeper = p; // into a folder above: the files are below it
    relinkFiles(deeper, "/jobs/hall/hall.lintel", "/jobs/hall.lintel");
    CHECK(deeper.basis.logo == "hall/art/logo.svg");
    CHECK(deeper.underlays[below].file == "hall/plans/ground.dxf");
    CHECK(deeper.underlays[far].file == "/elsewhere/first.dxf");
    CHECK(deeper.deviceTypes[type].picture == "hall/art/a1.png");
    CHECK(deeper.placedViews[picture].text == "hall/site.jpg");
    CHECK(deeper.placedViews[notes].text == "site.jpg");

    Project away = p; // elsewhere: by their whole path
    relinkFiles(away, "/jobs/hall/hall.lintel", "/archive/hall.lintel");
    for (const LinkedFile& f : linkedFiles(away)) {
        INFO(f.name);
        CHECK_FALSE(f.relative());
    }
    CHECK(away.basis.logo == "/jobs/hall/art/logo.svg");
}
