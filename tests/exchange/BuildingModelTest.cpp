// Building models of other disciplines: what is read of a small one that is written out here by hand, and what becomes
// of it in a project.

#include "core/base/Bulge.h"
#include "core/exchange/TakeModel.h"
#include "core/formats/Step.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/World.h"

#include <fmt/format.h>

using namespace lintel;

namespace {

/// In millimetres and watts. The building stands 1 km east and 2 km north of the site's zero. Ground floor: Kitchen 101
/// of 4 m × 3 m, Store 102 of 2 m × 3 m drawn turned by 90°; a wall of 200 mm along their north side with a door of
/// 900 mm, and a half round wall of 1.5 m radius at their east end. First floor: Office 201 of 5 m × 4 m, as faces.
std::string small(const std::string& more = "", const std::string& kitchen = "Kitchen") {
    return R"(ISO-10303-21;
HEADER;
FILE_DESCRIPTION((''),'2;1');
FILE_NAME('small.ifc','2026-12-01',(''),(''),'','','');
FILE_SCHEMA(('IFC4'));
ENDSEC;
DATA;
/* units */
#1=IFCSIUNIT(*,.LENGTHUNIT.,.MILLI.,.METRE.);
#2=IFCSIUNIT(*,.POWERUNIT.,$,.WATT.);
#3=IFCSIUNIT(*,.PLANEANGLEUNIT.,$,.RADIAN.);
#4=IFCMEASUREWITHUNIT(IFCPLANEANGLEMEASURE(0.0174532925199433),#3);
#5=IFCCONVERSIONBASEDUNIT($,.PLANEANGLEUNIT.,'DEGREE',#4);
#6=IFCUNITASSIGNMENT((#1,#2,#5));
#7=IFCSIUNIT(*,.POWERUNIT.,.KILO.,.WATT.);
#8=IFCPROJECT('P',$,'Small',$,$,$,$,$,#6);
#10=IFCCARTESIANPOINT((0.,0.,0.));
#11=IFCAXIS2PLACEMENT3D(#10,$,$);
#12=IFCCARTESIANPOINT((1000000.,2000000.,0.));
#13=IFCAXIS2PLACEMENT3D(#12,$,$);
#14=IFCLOCALPLACEMENT($,#11);
#15=IFCLOCALPLACEMENT(#14,#13);
#16=IFCBUILDING('B',$,'House',$,$,#15,$,$,$,$,$,$);
#17=IFCLOCALPLACEMENT(#15,#11);
#18=IFCCARTESIANPOINT((0.,0.,3500.));
#19=IFCAXIS2PLACEMENT3D(#18,$,$);
#20=IFCLOCALPLACEMENT(#15,#19);
#21=IFCBUILDINGSTOREY('S1',$,'First',$,$,#20,$,$,$,3500.);
#22=IFCBUILDINGSTOREY('S0',$,'Ground',$,$,#17,$,$,$,0.);
#23=IFCRELAGGREGATES('r1',$,$,$,#16,(#21,#22));
/* Kitchen */
#30=IFCCARTESIANPOINT((2000.,1500.));
#31=IFCAXIS2PLACEMENT2D(#30,$);
#32=IFCRECTANGLEPROFILEDEF(.AREA.,$,#31,4000.,3000.);
#33=IFCDIRECTION((0.,0.,1.));
#34=IFCEXTRUDEDAREASOLID(#32,#11,#33,2700.);
#35=IFCSHAPEREPRESENTATION($,'Body','SweptSolid',(#34));
#36=IFCPRODUCTDEFINITIONSHAPE($,$,(#35));
#37=IFCLOCALPLACEMENT(#17,#11);
#38=IFCSPACE('SP1',$,'101',$,$,#37,#36,')" +
           kitchen + R"(',.ELEMENT.,.INTERNAL.,$);
/* Store, in axes turned to the left */
#40=IFCCARTESIANPOINT((4000.,0.,0.));
#41=IFCDIRECTION((0.,1.,0.));
#42=IFCAXIS2PLACEMENT3D(#40,#33,#41);
#43=IFCLOCALPLACEMENT(#17,#42);
#44=IFCCARTESIANPOINT((0.,0.));
#45=IFCCARTESIANPOINT((3000.,0.));
#46=IFCCARTESIANPOINT((3000.,-2000.));
#47=IFCCARTESIANPOINT((0.,-2000.));
#48=IFCPOLYLINE((#44,#45,#46,#47,#44));
#49=IFCARBITRARYCLOSEDPROFILEDEF(.AREA.,$,#48);
#50=IFCEXTRUDEDAREASOLID(#49,$,#33,2700.);
#51=IFCSHAPEREPRESENTATION($,'Body','SweptSolid',(#50));
#52=IFCPRODUCTDEFINITIONSHAPE($,$,(#51));
#53=IFCSPACE('SP2',$,'102',$,$,#43,#52,'Store',.ELEMENT.,.INTERNAL.,$);
#54=IFCRELAGGREGATES('r2',$,$,$,#22,(#38,#53));
/* Office, its floor in two triangles */
#60=IFCCARTESIANPOINTLIST3D(((0.,0.,0.),(5000.,0.,0.),(5000.,4000.,0.),(0.,4000.,0.),(0.,0.,2500.),(5000.,0.,2500.),(5000.,4000.,2500.),(0.,4000.,2500.)));
#61=IFCTRIANGULATEDFACESET(#60,$,.T.,((1,3,2),(1,4,3),(5,6,7),(5,7,8),(1,2,6),(1,6,5),(2,3,7),(2,7,6),(3,4,8),(3,8,7),(4,1,5),(4,5,8)),$);
#62=IFCSHAPEREPRESENTATION($,'Body','Tessellation',(#61));
#63=IFCPRODUCTDEFINITIONSHAPE($,$,(#62));
#64=IFCLOCALPLACEMENT(#20,#11);
#65=IFCSPACE('SP3',$,'201',$,$,#64,#63,'B\X2\00FC\X0\ro ''A''',.ELEMENT.,.INTERNAL.,$);
#66=IFCRELAGGREGATES('r3',$,$,$,#21,(#65));
/* wall along the north side */
#70=IFCCARTESIANPOINT((0.,3000.,0.));
#71=IFCAXIS2PLACEMENT3D(#70,$,$);
#72=IFCLOCALPLACEMENT(#17,#71);
#73=IFCCARTESIANPOINT((6000.,0.));
#74=IFCPOLYLINE((#44,#73));
#75=IFCSHAPEREPRESENTATION($,'Axis','Curve2D',(#74));
#76=IFCPRODUCTDEFINITIONSHAPE($,$,(#75));
#77=IFCWALL('W1',$,'Wall',$,$,#72,#76,$,$);
#78=IFCMATERIALLAYER($,50.,$,$,$,$,$);
#79=IFCMATERIALLAYER($,150.,$,$,$,$,$);
#80=IFCMATERIALLAYERSET((#78,#79),$,$);
#81=IFCMATERIALLAYERSETUSAGE(#80,.AXIS2.,.POSITIVE.,-100.,$);
#82=IFCRELASSOCIATESMATERIAL('r4',$,$,$,(#77,#98),#81);
#83=IFCCARTESIANPOINT((1000.,0.,0.));
#84=IFCAXIS2PLACEMENT3D(#83,$,$);
#85=IFCLOCALPLACEMENT(#72,#84);
#86=IFCOPENINGELEMENT('O1',$,$,$,$,#85,$,$,$);
#87=IFCLOCALPLACEMENT(#85,#11);
#88=IFCDOOR('D1',$,'Door',$,$,#87,$,$,2100.,900.,$,$,$);
#89=IFCRELVOIDSELEMENT('r5',$,$,$,#77,#86);
#90=IFCRELFILLSELEMENT('r6',$,$,$,#86,#88);
/* half round wall */
#91=IFCCARTESIANPOINT((6000.,1500.));
#92=IFCAXIS2PLACEMENT2D(#91,$);
#93=IFCCIRCLE(#92,1500.);
#94=IFCTRIMMEDCURVE(#93,(IFCPARAMETERVALUE(-90.)),(IFCPARAMETERVALUE(90.)),.T.,.PARAMETER.);
#95=IFCSHAPEREPRESENTATION($,'Axis','Curve2D',(#94));
#96=IFCPRODUCTDEFINITIONSHAPE($,$,(#95));
#98=IFCWALL('W2',$,'Round',$,$,#17,#96,$,$);
#99=IFCRELCONTAINEDINSPATIALSTRUCTURE('r7',$,$,$,(#77,#88,#98,#103,#113),#22);
/* an outlet, a luminaire with its type, a fan in kW */
#100=IFCCARTESIANPOINT((500.,100.,450.));
#101=IFCAXIS2PLACEMENT3D(#100,$,$);
#102=IFCLOCALPLACEMENT(#17,#101);
#103=IFCOUTLET('E1',$,'Duplex','','Twin socket',#102,$,'R-1',.POWEROUTLET.);
#110=IFCCARTESIANPOINT((2000.,1500.,2600.));
#111=IFCAXIS2PLACEMENT3D(#110,$,$);
#112=IFCLOCALPLACEMENT(#17,#111);
#113=IFCLIGHTFIXTURE('E2',$,'L',$,$,#112,$,'L-1',$);
#114=IFCPROPERTYSINGLEVALUE('TotalWattage',$,IFCPOWERMEASURE(54.),$);
#115=IFCPROPERTYSET('ps1',$,'Pset_LightFixtureTypeCommon',$,(#114));
#116=IFCLIGHTFIXTURETYPE('T1',$,'Panel 600',$,$,(#115),$,$,$,.POINTSOURCE.);
#117=IFCRELDEFINESBYTYPE('r8',$,$,$,(#113),#116);
#120=IFCFLOWMOVINGDEVICE('E3',$,'Fan',$,$,#64,$,'EF-1');
#121=IFCFANTYPE('T2',$,'Roof fan',$,$,$,$,$,$,.CENTRIFUGALAIRFOIL.);
#122=IFCRELDEFINESBYTYPE('r9',$,$,$,(#120),#121);
#123=IFCPROPERTYSINGLEVALUE('NominalPower',$,IFCREAL(1.5),#7);
#124=IFCPROPERTYSINGLEVALUE('NumberOfPoles',$,IFCINTEGER(3),$);
#125=IFCPROPERTYSET('ps2',$,'Own',$,(#123,#124));
#126=IFCRELDEFINESBYPROPERTIES('r10',$,$,$,(#120),#125);
#127=IFCRELCONTAINEDINSPATIALSTRUCTURE('r11',$,$,$,(#120),#65);
)" + more + "ENDSEC;\nEND-ISO-10303-21;\n";
}

BuildingModel read(const std::string& text) {
    const auto m = readIfc(text, "small.ifc");
    INFO((m ? std::string() : m.error().text()));
    REQUIRE(m);
    return *m;
}

void sameOutline(const std::vector<Point>& is, std::vector<Point> expected) {
    REQUIRE(is.size() == expected.size());
    for (Point e : expected) CHECK(std::any_of(is.begin(), is.end(), [&](Point p) { return distance(p, e) < 1e-6; }));
}

ModelTaken take(Project& p, const BuildingModel& m, const std::vector<std::string>& without = {}, bool gone = false) {
    std::vector<char> out;
    for (const ModelRow& row : rowsOf(m)) {
        const auto cells = cellsOf(m, row, UnitSystem::Metric);
        out.push_back(std::find(without.begin(), without.end(), cells.back()) != without.end());
    }
    return takeModel(p, m, out, gone);
}

const Room& roomNumbered(const Project& p, const std::string& number) {
    for (const Room& r : p.rooms)
        if (r.number == number) return r;
    FAIL("no room " << number);
    return *p.rooms.begin();
}
const Device& tagged(const Project& p, const std::string& tag) {
    for (const Device& d : p.devices)
        if (d.tag == tag) return d;
    FAIL("no device " << tag);
    return *p.devices.begin();
}

Project emptyProject() {
    Project p;
    p.basis.units = UnitSystem::Metric;
    p.levels.add({{}, "Floor 0", 0, 3, {}});
    return p;
}

} // namespace

TEST_CASE("a building model: storeys from the lowest, with their heights") {
    const BuildingModel m = read(small());
    REQUIRE(m.storeys.size() == 2);
    CHECK(m.storeys[0].name == "Ground");
    CHECK(m.storeys[0].elevation == Approx(0));
    CHECK(m.storeys[0].height == Approx(3.5));
    CHECK(m.storeys[1].name == "First");
    CHECK(m.storeys[1].elevation == Approx(3.5));
}

TEST_CASE("a building model: storeys that are all placed at zero lie at their elevations") {
    std::string text = small();
    const std::string placed = "#20=IFCLOCALPLACEMENT(#15,#19)";
    text.replace(text.find(placed), placed.size(), "#20=IFCLOCALPLACEMENT(#15,#11)");
    const BuildingModel m = read(text);
    CHECK(m.storeys[0].name == "Ground");
    CHECK(m.storeys[1].name == "First");
    CHECK(m.storeys[1].elevation == Approx(3.5));
    CHECK(m.storeys[0].height == Approx(3.5));
    CHECK(m.spaces[2].storey == 1);
}

TEST_CASE("a building model: outlines of spaces as boxes, turned, and as faces") {
    const BuildingModel m = read(small());
    REQUIRE(m.spaces.size() == 3);
    // North is up on our sheets, and y goes down.
    CHECK(m.spaces[0].number == "101");
    CHECK(m.spaces[0].name == "Kitchen");
    CHECK(m.spaces[0].height == Approx(2.7));
    CHECK(m.spaces[0].storey == 0);
    sameOutline(m.spaces[0].outline, {{0, 0}, {4, 0}, {4, -3}, {0, -3}});
    CHECK(m.spaces[1].name == "Store");
    sameOutline(m.spaces[1].outline, {{4, 0}, {4, -3}, {6, -3}, {6, 0}});
    CHECK(m.spaces[2].name == "Büro 'A'");
    CHECK(m.spaces[2].storey == 1);
    CHECK(m.spaces[2].height == Approx(2.5));
    sameOutline(m.spaces[2].outline, {{0, 0}, {5, 0}, {5, -4}, {0, -4}});
}

TEST_CASE("a building model: walls by their axes and layers, a door where its opening is, a round wall by its bulge") {
    const BuildingModel m = read(small());
    REQUIRE(m.walls.size() == 2);
    const auto& straight = m.walls[0];
    CHECK(straight.thickness == Approx(0.2));
    CHECK(distance(straight.a, {0, -3}) < 1e-6); // the layers lie from −100 mm to +100 mm about the axis
    CHECK(distance(straight.b, {6, -3}) < 1e-6);
    REQUIRE(straight.openings.size() == 1);
    CHECK(straight.openings[0].kind == OpeningKind::Door);
    CHECK(straight.openings[0].width == Approx(0.9));
    CHECK(straight.openings[0].along == Approx(1.45)); // 1 m to its jamb, and half of 0.9 m
    const auto& round = m.walls[1];
    CHECK(distance(round.a, {6, 0}) < 1e-6);
    CHECK(distance(round.b, {6, -3}) < 1e-6);
    CHECK(round.bulge == Approx(-1)); // half a circle, to the right of a–b: to the east
    const auto arc = arcOfBulge(round.a, round.b, round.bulge);
    double east = 0;
    for (Point q : arc) east = std::max(east, q.x);
    CHECK(east == Approx(7.5).margin(0.01));
}

TEST_CASE("a building model: a wall of three quarters of a circle is two walls of three eighths") {
    std::string text = small();
    const std::string was = "(IFCPARAMETERVALUE(-90.)),(IFCPARAMETERVALUE(90.))";
    text.replace(text.find(was), was.size(), "(IFCPARAMETERVALUE(0.)),(IFCPARAMETERVALUE(270.))");
    const BuildingModel m = read(text);
    REQUIRE(m.walls.size() == 3);
    // About (6, −1.5) on the plan, from its east over north and west to its south.
    CHECK(distance(m.walls[1].a, {7.5, -1.5}) < 1e-6);
    CHECK(distance(m.walls[2].b, {6, 0}) < 1e-6);
    const double across = 1.5 * std::sqrt(0.5);
    CHECK(distance(m.walls[1].b, {6 - across, -1.5 - across}) < 1e-6);
    CHECK(m.walls[1].bulge == Approx(-std::tan(135.0 / 4 * 3.14159265358979 / 180)));
    CHECK(m.walls[1].id != m.walls[2].id);
    // Every point of both lies on the circle.
    for (std::size_t i : {1u, 2u})
        for (Point q : arcOfBulge(m.walls[i].a, m.walls[i].b, m.walls[i].bulge))
            CHECK(distance(q, {6, -1.5}) == Approx(1.5));
}

TEST_CASE("a building model: electrical things with tag, type, height, and power in its unit") {
    const BuildingModel m = read(small());
    REQUIRE(m.devices.size() == 3);
    CHECK(m.devices[0].tag == "R-1");
    CHECK(m.devices[0].name == "Twin socket");
    CHECK(m.devices[0].symbol == Symbol::Receptacle);
    CHECK_FALSE(m.devices[0].watts);
    CHECK(m.devices[0].height == Approx(0.45));
    CHECK(m.devices[1].name == "Panel 600");
    CHECK(m.devices[1].watts.value() == Approx(54));
    CHECK(m.devices[1].kind == LoadKind::Lighting);
    CHECK(m.devices[2].symbol == Symbol::Motor);
    CHECK(m.devices[2].watts.value() == Approx(1500)); // 1.5 in kW
    CHECK(m.devices[2].poles.value() == 3);
    CHECK(m.devices[2].storey == 1); // it is contained in a space of it
    CHECK(m.notes.empty());
}

TEST_CASE("a building model: a power without a unit is taken as W, and that is said") {
    const BuildingModel m = read(small("#200=IFCELECTRICAPPLIANCE('E9',$,'Oven',$,$,#102,$,'OV-1',$);\n"
                                       "#201=IFCPROPERTYSINGLEVALUE('Power',$,IFCREAL(3000.),$);\n"
                                       "#202=IFCPROPERTYSET('ps9',$,'Own',$,(#201));\n"
                                       "#203=IFCRELDEFINESBYPROPERTIES('r90',$,$,$,(#200),#202);\n"));
    REQUIRE(m.devices.size() == 4);
    CHECK(m.devices[3].watts.value() == Approx(3000));
    REQUIRE(m.notes.size() == 1);
    CHECK(m.notes[0] == "one thing gives its power without a unit: it is taken as W");
}

TEST_CASE("a building model becomes levels, rooms, walls and devices, from the plan's zero on") {
    Project p = emptyProject();
    const ModelTaken t = take(p, read(small()));
    CHECK(t.refused == 0);
    CHECK(t.added == 8);   // a level; three rooms, the walls of a storey, three things
    CHECK(t.changed == 1); // the floor that was there
    REQUIRE(p.levels.size() == 2);
    CHECK(p.levels.begin()->name == "Ground");
    CHECK(p.levels.begin()->height == Approx(3.5));
    REQUIRE(p.rooms.size() == 3);
    // The model's least x is 0; its northern edge is the office's, 4 m north of zero.
    sameOutline(roomNumbered(p, "101").outline, {{0, 4}, {4, 4}, {4, 1}, {0, 1}});
    CHECK(roomNumbered(p, "101").ceiling.value() == Approx(2.7)); // below the 3.5 m of its level
    REQUIRE(p.walls.size() == 2);
    REQUIRE(p.openings.size() == 1);
    CHECK(p.openings.begin()->wall == p.walls.begin()->id);
    REQUIRE(p.devices.size() == 3);
    const Device& light = tagged(p, "L-1");
    CHECK(p.deviceTypes[light.type].name == "Panel 600");
    CHECK(p.deviceTypes[light.type].load == Approx(54));
    CHECK(p.deviceTypes[light.type].unit == LoadUnit::W);
    CHECK_FALSE(p.deviceTypes[light.type].onWall);
    CHECK(roomAt(p, light.level, light.at) == roomNumbered(p, "101").id);
    CHECK(p.deviceTypes[tagged(p, "EF-1").type].poles == 3);
    // Nobody said what the sockets take: nothing is invented, and that is said.
    CHECK(p.deviceTypes[tagged(p, "R-1").type].load == 0);
    bool said = false;
    for (const auto& row : t.rows)
        for (const std::string& words : row.look) said = said || words.find("counts as nothing") != std::string::npos;
    CHECK(said);
    // It is a project like any other: written, read and solved.
    const auto again = readProject(writeProject(p), "p");
    REQUIRE(again);
    CHECK(*again == p);
    (void)solve(p, bs());
}

TEST_CASE("a building model taken in again changes nothing, and a new version only what is new in it") {
    Project p = emptyProject();
    (void)take(p, read(small()));
    const Project before = p;
    const ModelTaken same = take(p, read(small()));
    CHECK(p == before);
    CHECK(same.added + same.changed + same.refused == 0);
    CHECK(same.same == 9);
    // A circuit, a kind and another name for the same kitchen: what the designer gave stays.
    const RoomId kitchen = roomNumbered(p, "101").id;
    p.rooms.change(kitchen)->kind = "kitchen";
    const DeviceId light = tagged(p, "L-1").id;
    OneBoard w;
    const BoardId board = p.boards.add(w.p.boards[w.board]);
    const CircuitId c = addCircuit(p, board, 1, "Lights");
    p.devices.change(light)->circuit = c;
    std::string text = small("", "Main kitchen");
    const std::string was = "(2000.,1500.,2600.)";
    text.replace(text.find(was), was.size(), "(2500.,1500.,2600.)");
    const ModelTaken t = take(p, read(text));
    CHECK(t.changed == 2);
    CHECK(t.added == 0);
    CHECK(p.rooms[kitchen].name == "Main kitchen");
    CHECK(p.rooms[kitchen].kind == "kitchen");
    CHECK(p.devices[light].circuit == c);
    CHECK(p.devices[light].at.x == Approx(2.5));
    std::vector<std::string> words;
    for (const auto& row : t.rows) words.insert(words.end(), row.what.begin(), row.what.end());
    CHECK(words == std::vector<std::string>{"name Kitchen → Main kitchen", "moved 0.5 m"});
}

TEST_CASE("what a building model no longer has stays until somebody asks") {
    Project p = emptyProject();
    (void)take(p, read(small()));
    std::string text = small();
    const std::string outlet = "#103=IFCOUTLET('E1',$,'Duplex','','Twin socket',#102,$,'R-1',.POWEROUTLET.);\n";
    text.erase(text.find(outlet), outlet.size());
    const ModelTaken t = take(p, read(text));
    REQUIRE(t.gone.size() == 1);
    CHECK_THAT(t.gone[0], Catch::Contains("R-1"));
    CHECK(p.devices.size() == 3);
    (void)take(p, read(text), {}, true);
    CHECK(p.devices.size() == 2);
    CHECK(p.rooms.size() == 3);
    CHECK(p.walls.size() == 2);
    // What is left out by hand is not gone.
    CHECK(take(p, read(text), {"SP1", "E2"}, true).gone.empty());
    CHECK(p.rooms.size() == 3);
}

TEST_CASE("two disciplines' models of one house share its levels and rooms, and neither takes the other's away") {
    // The second has identities of its own throughout, no walls, and another luminaire.
    std::string other = small();
    for (const char* id : {"'S0'", "'S1'", "'SP1'", "'SP2'", "'SP3'", "'E1'", "'E2'", "'E3'", "'P'"}) {
        const std::string was = id, is = "'X" + was.substr(1);
        other.replace(other.find(was), was.size(), is);
    }
    for (const char* wall : {"#77=IFCWALL(", "#98=IFCWALL("}) {
        const std::size_t at = other.find(wall) + 4;
        other.replace(at, 7, "IFCROOF");
    }
    other.replace(other.find("'L-1'"), 5, "'L-9'");
    other.replace(other.find("#88=IFCDOOR"), 11, "#88=IFCROOF");
    Project p = emptyProject();
    (void)take(p, read(small()));
    const Project first = p;
    const ModelTaken t = take(p, read(other), {}, true);
    CHECK(t.gone.empty());
    CHECK(t.goneWalls == 0);
    CHECK(p.levels.size() == 2);
    CHECK(p.rooms == first.rooms);
    CHECK(p.walls == first.walls);
    CHECK(p.openings == first.openings);
    CHECK(t.added == 1); // L-9; R-1 and EF-1 are known by their tags
    CHECK(p.devices.size() == 4);
    CHECK(t.same == 7); // two storeys, three rooms, two things
    // Either again, and nothing is new or gone.
    const Project both = p;
    CHECK(take(p, read(other), {}, true).gone.empty());
    CHECK(p == both);
    const ModelTaken again = take(p, read(small()));
    CHECK(again.added + again.changed == 0);
    CHECK(p == both);
    CHECK(again.gone.empty());
}

TEST_CASE("what stands on a storey that is left out stays out with it") {
    Project p = emptyProject();
    const BuildingModel m = read(small());
    const ModelTaken t = take(p, m, {"S1"});
    CHECK(p.levels.size() == 1);
    CHECK(p.rooms.size() == 2);
    CHECK(p.devices.size() == 2);
    CHECK(t.refused == 2); // the office and the fan
}

TEST_CASE("a building model finds the rooms and devices that were drawn before it by their numbers and tags") {
    Project p = emptyProject();
    const LevelId level = p.levels.begin()->id;
    p.rooms.add({{}, level, "101", "Cook", "kitchen", {{0, 0}, {3, 0}, {3, 3}, {0, 3}}, {}, 0, 0, {}, {}});
    DeviceType type;
    type.name = "Panel 600", type.symbol = Symbol::Luminaire, type.load = 40, type.unit = LoadUnit::W;
    Device d;
    d.type = p.deviceTypes.add(type), d.level = level, d.tag = "L-1", d.at = {1, 1};
    const DeviceId light = p.devices.add(d);
    const ModelTaken t = take(p, read(small()));
    CHECK(p.rooms.size() == 3);
    CHECK(roomNumbered(p, "101").name == "Kitchen");
    CHECK(roomNumbered(p, "101").kind == "kitchen");
    CHECK(p.devices.size() == 3);
    CHECK(p.devices[light].load.value() == Approx(54)); // beside its type's 40 W
    CHECK(p.deviceTypes.size() == 3);
    (void)t;
}

TEST_CASE("what has no identity in the model, or another's, stays out and says so") {
    std::string text = small();
    text.replace(text.find("'SP2'"), 5, "'SP1'");
    text.replace(text.find("'E2'"), 4, "$");
    Project p = emptyProject();
    const BuildingModel m = read(text);
    const ModelTaken t = take(p, m);
    CHECK(t.refused == 2);
    CHECK(p.rooms.size() == 2);
    CHECK(p.devices.size() == 2);
    std::vector<std::string> why;
    for (const auto& row : t.rows)
        if (row.refused) why.insert(why.end(), row.look.begin(), row.look.end());
    CHECK(why ==
          std::vector<std::string>{"something else in the model has its identity", "the model gives it no identity"});
    const Project before = p;
    (void)take(p, m);
    CHECK(p == before);
}

TEST_CASE("a damaged building model is refused with its line, whatever it is") {
    const auto refused = [](const std::string& text) {
        const auto m = readIfc(text, "x.ifc");
        REQUIRE_FALSE(m);
        return m.error().text();
    };
    CHECK_THAT(refused("no model"), Catch::Contains("no building model"));
    const std::string whole = small();
    CHECK_THAT(refused(whole.substr(0, whole.find("#22=") + 20)), Catch::Contains("ends"));
    std::string twice = whole;
    twice.replace(twice.find("#23="), 4, "#22=");
    CHECK_THAT(refused(twice), Catch::Contains("x.ifc, line 30: #22 is there twice"));
    std::string other = whole;
    other.replace(other.find("IFC4"), 4, "STEP");
    CHECK_THAT(refused(other), Catch::Contains("its schema is \"STEP\""));
    // Any beginning of it is refused or read, and never ends the program.
    for (std::size_t n = 0; n < whole.size(); n += 37) (void)readIfc(whole.substr(0, n), "x.ifc");
}

TEST_CASE("values of a STEP file: texts, numbers, words, references, lists, types") {
    const auto f = StepFile::parse("ISO-10303-21;\nHEADER;FILE_SCHEMA(('IFC4'));ENDSEC;\nDATA;\n"
                                   "#1=THING('it''s; \\X\\E9 \\S\\D \\X2\\03A903A9\\X0\\',-1.5E-3,7,.T.,$,*,#2,(1,(2)),"
                                   "IFCLABEL('x'));\n#2 = OTHER( /* none */ ) ;\n#3=BAD((1);\nENDSEC;\n",
                                   "f");
    REQUIRE(f);
    const auto& v = f->values(1);
    REQUIRE(v.size() == 9);
    CHECK(v[0].text == "it's; é Ä ΩΩ");
    CHECK(v[1].number == Approx(-0.0015));
    CHECK(v[2].number == 7);
    CHECK(v[3].is("T"));
    CHECK(v[4].kind == StepValue::Kind::None);
    CHECK(v[6].reference == 2);
    CHECK(v[7].items[1].items[0].number == 2);
    CHECK(v[8].type == "IFCLABEL");
    CHECK(v[8].text == "x");
    CHECK(f->values(2).empty());
    CHECK(f->damaged() == 0);
    CHECK(f->values(3).empty());
    CHECK(f->damaged() == 1);
    CHECK(f->of("THING") == std::vector<std::uint32_t>{1});
    CHECK(f->typeOf(9).empty());
}

TEST_CASE("gbXML: storeys and spaces in the unit that it names") {
    const std::string text = R"(<?xml version="1.0"?>
<gbXML xmlns="http://www.gbxml.org/schema" lengthUnit="Feet" areaUnit="SquareFeet">
<Campus id="c"><Building id="b" buildingType="Office">
<BuildingStorey id="st2"><Name>Level 2</Name><Level>12</Level></BuildingStorey>
<BuildingStorey id="st1"><Name>Level 1</Name><Level>0</Level></BuildingStorey>
<Space id="sp1" buildingStoreyIdRef="st2"><Name>201 Meeting room</Name><PlanarGeometry><PolyLoop>
<CartesianPoint><Coordinate>0</Coordinate><Coordinate>0</Coordinate><Coordinate>12</Coordinate></CartesianPoint>
<CartesianPoint><Coordinate>20</Coordinate><Coordinate>0</Coordinate><Coordinate>12</Coordinate></CartesianPoint>
<CartesianPoint><Coordinate>20</Coordinate><Coordinate>10</Coordinate><Coordinate>12</Coordinate></CartesianPoint>
<CartesianPoint><Coordinate>0</Coordinate><Coordinate>10</Coordinate><Coordinate>12</Coordinate></CartesianPoint>
</PolyLoop></PlanarGeometry></Space>
<Space id="sp2"><Name>Void</Name></Space>
</Building></Campus></gbXML>)";
    const auto m = readGbXml(text, "m.xml");
    REQUIRE(m);
    REQUIRE(m->storeys.size() == 2);
    CHECK(m->storeys[0].name == "Level 1");
    CHECK(m->storeys[0].height == Approx(3.6576)); // 12 ft
    REQUIRE(m->spaces.size() == 2);
    CHECK(m->spaces[0].number == "201");
    CHECK(m->spaces[0].name == "Meeting room");
    CHECK(m->spaces[0].storey == 1);
    sameOutline(m->spaces[0].outline, {{0, 0}, {6.096, 0}, {6.096, -3.048}, {0, -3.048}});
    CHECK(m->spaces[1].storey == -1);
    CHECK(m->notes == std::vector<std::string>{"1 space has no outline that can be read"});
    const std::string bare = "<gbXML><Campus/></gbXML>";
    REQUIRE_FALSE(readGbXml(bare, "m.xml"));
    CHECK_THAT(readGbXml(bare, "m.xml").error().text(), Catch::Contains("does not say its unit of length"));
}

TEST_CASE("a building model drawn on the grid of its country comes in at the plan's zero, and again where it lies") {
    // 450 km to the east and 4 650 km to the north, as surveyors have it; 6 m by 4 m.
    const auto point = [](double x, double y) {
        return fmt::format("<CartesianPoint><Coordinate>{}</Coordinate><Coordinate>{}</Coordinate>"
                           "<Coordinate>0</Coordinate></CartesianPoint>",
                           x, y);
    };
    const double x = 450'000, y = 4'650'000;
    const std::string text =
        "<gbXML lengthUnit=\"Meters\"><Campus id=\"c\"><Building id=\"b\"><BuildingStorey id=\"s\"><Name>Ground</Name>"
        "<Level>0</Level></BuildingStorey><Space id=\"sp\" buildingStoreyIdRef=\"s\"><Name>101 Hall</Name>"
        "<PlanarGeometry><PolyLoop>" +
        point(x, y) + point(x + 6, y) + point(x + 6, y + 4) + point(x, y + 4) +
        "</PolyLoop></PlanarGeometry></Space></Building></Campus></gbXML>";
    const auto m = readGbXml(text, "m.xml");
    REQUIRE(m);
    Project p = emptyProject();
    (void)take(p, *m);
    REQUIRE_FALSE(validate(p));
    REQUIRE(p.rooms.size() == 1);
    CHECK(areaOf(p.rooms.begin()->outline) == Approx(24));
    double left = 1e9, top = 1e9;
    for (Point at : p.rooms.begin()->outline) left = std::min(left, at.x), top = std::min(top, at.y);
    CHECK(left == Approx(0).margin(0.01));
    CHECK(top == Approx(0).margin(0.01));
    CHECK(p.basis.modelOrigin.x == Approx(-x));
    const auto again = readProject(writeProject(p), "x");
    REQUIRE(again);
    Project q = *again;
    (void)take(q, *m);
    CHECK(q == p);
    // Farther than any place on earth it is no place.
    p.basis.modelOrigin = {0, 3e7};
    REQUIRE(validate(p));
    CHECK_THAT(validate(p)->text(), Catch::Contains("within 20000 km"));
}

TEST_CASE("curves of a building model that go round in a circle, or multiply, are left out and end nothing") {
    const auto with = [](const std::string& line, const std::string& other) {
        std::string text = small();
        const auto at = text.find(line);
        REQUIRE(at != std::string::npos);
        return text.replace(at, text.find('\n', at) - at, other);
    };
    // A trimmed curve that is trimmed from itself.
    const auto circle = readIfc(with("#94=IFCTRIMMEDCURVE", "#94=IFCTRIMMEDCURVE(#94,(IFCPARAMETERVALUE(-90.)),"
                                                            "(IFCPARAMETERVALUE(90.)),.T.,.PARAMETER.);"),
                                "x.ifc");
    REQUIRE(circle);
    CHECK(circle->spaces.size() == readIfc(small(), "x.ifc")->spaces.size());
    // Forty segments, each the same curve again, ten deep: 40 to the tenth.
    std::string forty;
    for (int i = 0; i < 40; ++i) forty += (i ? ",#200" : "#200");
    const auto many =
        readIfc(with("#48=IFCPOLYLINE", "#48=IFCCOMPOSITECURVE((" + forty +
                                            "),.F.);\n#200=IFCCOMPOSITECURVESEGMENT(.CONTINUOUS.,.T.,#48);"),
                "x.ifc");
    REQUIRE(many);
    CHECK_THAT(many->notes.empty() ? "" : many->notes.back(), Catch::Contains("more shapes within shapes"));
}

TEST_CASE("a building model with letters changed at random is refused, or makes a project that can be saved") {
    std::uint32_t seed = 7;
    const auto dice = [&](std::size_t n) { return (seed = seed * 1664525u + 1013904223u) / 65536u % std::uint32_t(n); };
    const std::string whole = small(), letters = "0123456789.,'()#$;-EIF\\X";
    int read = 0;
    for (int trial = 0; trial < 1500; ++trial) {
        std::string text = whole;
        for (std::uint32_t k = 0; k <= dice(4); ++k)
            text[300 + dice(text.size() - 300)] = letters[dice(letters.size())];
        const auto m = readIfc(text, "x.ifc");
        if (!m) continue;
        ++read;
        Project p = emptyProject();
        (void)take(p, *m);
        const auto bad = validate(p);
        INFO(text);
        REQUIRE_FALSE(bad);
        const Project once = p;
        (void)take(p, *m);
        REQUIRE(p == once);
    }
    CHECK(read > 300);
}
