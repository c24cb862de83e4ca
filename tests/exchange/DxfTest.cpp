// Drawings written by an independent library in every version, and hand-written broken ones. Figures are those of
// make_dxf.py.

#include "core/formats/Dxf.h"
#include "core/plan/FindRooms.h"
#include "tests/SourceTree.h"
#include "tests/World.h"

#include <cstdlib>
#include <fmt/format.h>
#include <fstream>
#include <numbers>
#include <sstream>
#include <unistd.h>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

struct OfLayer {
    double length = 0;
    int pieces = 0;
    Point least{1e18, 1e18}, most{-1e18, -1e18};
};
OfLayer layerOf(const DxfDrawing& d, const std::string& name) {
    OfLayer o;
    for (const auto& p : d.pieces)
        if (d.layers[p.layer].name == name) {
            o.length += distance(p.a, p.b), ++o.pieces;
            for (Point q : {p.a, p.b})
                o.least = {std::min(o.least.x, q.x), std::min(o.least.y, q.y)},
                o.most = {std::max(o.most.x, q.x), std::max(o.most.y, q.y)};
        }
    return o;
}
DxfDrawing read(const std::string& text) {
    std::istringstream in(text);
    const auto d = readDxf(in, double(text.size()), "test.dxf");
    REQUIRE(d);
    return *d;
}
std::string entities(const std::string& inner) { return "0\nSECTION\n2\nENTITIES\n" + inner + "0\nENDSEC\n0\nEOF\n"; }

} // namespace

TEST_CASE("drawings of every version come in alike: lines, arcs, bulges, nested blocks, texts") {
    const fs::path folder = fs::temp_directory_path() / ("lintel-dxf-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    // The system's own Python: that is where the package is installed.
    const fs::path script = sourceTree() / "tests" / "exchange" / "make_dxf.py";
    REQUIRE(std::system(
                ("/usr/bin/python3 '" + script.string() + "' '" + folder.string() + "' > /dev/null 2>&1").c_str()) ==
            0);
    int versions = 0;
    for (const char* version : {"R12", "R2000", "R2004", "R2007", "R2010", "R2013", "R2018"}) {
        INFO(version);
        ++versions;
        const auto got = readDxf(folder / (std::string(version) + ".dxf"));
        REQUIRE(got);
        const DxfDrawing& d = *got;
        const bool old = std::string(version) == "R12";
        CHECK(d.whole);
        if (!old) CHECK(d.metresPerUnit == Approx(0.001));
        CHECK(layerOf(d, "WALLS").length == Approx(10000));
        // y of the drawing goes up, of the sheet down.
        const OfLayer room = layerOf(d, "ROOMS");
        CHECK(room.length == Approx(14000));
        CHECK(room.least == Point{1000, -4000});
        CHECK(room.most == Point{5000, -1000});
        // Flattened arcs are a little shorter than round ones: within half a percent.
        const OfLayer bulge = layerOf(d, "BULGE");
        CHECK(bulge.length == Approx(std::numbers::pi * 1000).epsilon(0.005));
        CHECK(bulge.most.y ==
              Approx(-5000).margin(5)); // anticlockwise from left to right: it hangs below, at y = 5000 of the drawing
        CHECK(layerOf(d, "CIRCLE").length == Approx(2 * std::numbers::pi * 500).epsilon(0.005));
        const OfLayer arc = layerOf(d, "ARC");
        CHECK(arc.length == Approx(std::numbers::pi / 2 * 1000).epsilon(0.005));
        CHECK(arc.most.x == Approx(9000));
        CHECK(arc.least.y == Approx(-4000));
        if (!old) {
            // Half axes 2 m and 1 m: Ramanujan's perimeter, 9 688 mm.
            const OfLayer e = layerOf(d, "ELLIPSE");
            CHECK(e.length == Approx(9688).epsilon(0.005));
            CHECK(e.most.y - e.least.y == Approx(2000).epsilon(0.005));
            // The cubic with controls (0,0) (1,2) (3,2) (4,0) reaches 3/4 of their height: 1.5 m.
            const OfLayer s = layerOf(d, "SPLINE");
            CHECK(s.least.y == Approx(-13500).margin(2));
            CHECK(s.least.x == Approx(0).margin(1e-6));
            CHECK(s.most.x == Approx(4000));
        }
        // A metre, doubled and turned by 90° inside, turned by 90° again: 2 m to the left of (20, 1); another 3 m up
        // the columns.
        const OfLayer blocks = layerOf(d, "BLOCKS");
        CHECK(blocks.pieces == 2);
        CHECK(blocks.length == Approx(4000));
        CHECK(blocks.least.x == Approx(18000));
        CHECK(blocks.most.x == Approx(20000));
        CHECK(blocks.least.y == Approx(-4000));
        CHECK(blocks.most.y == Approx(-1000));
        for (const auto& l : d.layers) {
            if (l.name == "HIDDEN") CHECK_FALSE(l.on);
            if (l.name == "WALLS") CHECK(l.colour == 1);
        }
        for (const auto& p : d.pieces) {
            if (d.layers[p.layer].name == "WALLS") CHECK(p.colour == 1);  // by layer
            if (d.layers[p.layer].name == "CIRCLE") CHECK(p.colour == 5); // its own
        }
        std::vector<std::string> words;
        for (const auto& t : d.texts) words.push_back(t.words);
        CHECK(std::count(words.begin(), words.end(), "Store") == 1);
        CHECK(std::count(words.begin(), words.end(), "007") == 1);
        if (!old) CHECK(std::count(words.begin(), words.end(), "Café — ground Kitchen") == 1);

        // Laid below a floor: the closed polyline is a room of 12 m², named by the texts in it.
        Project p;
        Underlay u;
        u.level = p.levels.add({{}, "Ground", 0, 3, {}});
        UnderlayContent c;
        c.drawing = d;
        if (old) u.scale = 0.001;
        const FoundRooms rooms = roomsFromUnderlay(p, u, c, "ROOMS");
        REQUIRE(rooms.rooms.size() == 1);
        CHECK(areaOf(rooms.rooms[0].outline) == Approx(12));
        CHECK(rooms.rooms[0].name == "Store");
        CHECK(rooms.rooms[0].number == "007");
    }
    CHECK(versions == 7);
    fs::remove_all(folder);
}

TEST_CASE("outlines that lie off any plan make no rooms, and are counted") {
    // A closed polyline of 4 × 3 m, and one with a corner 5.5 million metres away (from the fuzz target).
    const auto outline = [](const std::string& far) {
        return "0\nLWPOLYLINE\n8\nROOMS\n90\n4\n70\n1\n10\n0\n20\n0\n10\n" + far + "\n20\n0\n10\n" + far +
               "\n20\n3\n10\n0\n20\n3\n";
    };
    UnderlayContent c;
    c.drawing = read(entities(outline("4") + outline("5555555.5")));
    Project p;
    Underlay u;
    u.level = p.levels.add({{}, "Ground", 0, 3, {}});
    u.scale = 1;
    const FoundRooms rooms = roomsFromUnderlay(p, u, c, "ROOMS");
    CHECK(rooms.rooms.size() == 1);
    CHECK(rooms.offPlan == 1);
}

TEST_CASE("broken drawings give what could be read, or a reason") {
    const std::string line = "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n0\n";
    CHECK(read(entities(line)).pieces.size() == 1);
    // A block that contains itself, one that is missing, a spline without knots, numbers that are none.
    const DxfDrawing self = read("0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n10\n0\n20\n0\n" + line +
                                 "0\nINSERT\n2\nA\n10\n0\n20\n0\n0\nENDBLK\n0\nENDSEC\n" +
                                 entities("0\nINSERT\n2\nA\n10\n1\n20\n1\n0\nINSERT\n2\nGONE\n10\n1\n20\n1\n"));
    CHECK(self.pieces.size() == 1);
    CHECK(self.notes.size() == 2);
    CHECK(read(entities("0\nLINE\n8\n0\n10\nabc\n20\n1e400\n11\n5\n21\n0\n")).pieces.size() <= 1);
    CHECK(read(entities("0\nLWPOLYLINE\n8\n0\n90\n2000000000\n70\n1\n10\n1\n20\n1\n10\n2\n20\n1\n" + line))
              .pieces.size() >= 1);
    // Cut off in the middle.
    const std::string many = [&] {
        std::string s;
        for (int i = 0; i < 100; ++i) s += line;
        return entities(s);
    }();
    CHECK(read(many.substr(0, many.size() / 2)).pieces.size() > 30);
    // A billion lines from a dozen blocks: it stops, says so, and gives what it has.
    std::string bomb = "0\nSECTION\n2\nBLOCKS\n";
    for (int i = 0; i < 12; ++i) {
        bomb += "0\nBLOCK\n2\nB" + std::to_string(i) + "\n10\n0\n20\n0\n";
        for (int k = 0; k < 10; ++k)
            bomb += i == 0 ? line : "0\nINSERT\n2\nB" + std::to_string(i - 1) + "\n10\n0\n20\n0\n";
        bomb += "0\nENDBLK\n";
    }
    const DxfDrawing endless = read(bomb + "0\nENDSEC\n" + entities("0\nINSERT\n2\nB11\n10\n0\n20\n0\n"));
    CHECK_FALSE(endless.whole);
    CHECK(endless.notes.front().find("lines") != std::string::npos);

    std::istringstream binary(std::string("DXF\0\1\2", 6)), text("Dear Sir,\nthe drawing follows.\n");
    CHECK(readDxf(binary, 6, "b.dxf").error().what.find("binary") != std::string::npos);
    CHECK(readDxf(text, 30, "letter.dxf").error().what.find("not a DXF") != std::string::npos);
    CHECK(readDxf("/nowhere/at-all.dxf").error().what.find("cannot be opened") != std::string::npos);
}

TEST_CASE("reading is told how far it is and can be stopped; what had been read is kept") {
    std::string many;
    for (int i = 0; i < 20000; ++i) many += "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n0\n";
    many = entities(many);
    std::istringstream in(many);
    double told = 0;
    const auto d = readDxf(in, double(many.size()), "long.dxf", [&](double share) { return (told = share) < 0.3; });
    REQUIRE(d);
    CHECK(told >= 0.3);
    CHECK_FALSE(d->whole);
    CHECK(d->pieces.size() > 3000);
    CHECK(d->pieces.size() < 12000);
    CHECK(d->notes.front().find("stopped") != std::string::npos);
}

TEST_CASE("random harm to a drawing never harms the reader") {
    const std::string line = "0\nLINE\n8\nW\n10\n0\n20\n0\n11\n5\n21\n0\n";
    const std::string good =
        "0\nSECTION\n2\nHEADER\n9\n$"
        "INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n70\n1\n0\nLAYER\n2\nW\n70\n0\n62\n1\n6"
        "\nCONTINUOUS\n0\nENDTAB\n0\nENDSEC\n0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nA\n10\n0\n20\n0\n" +
        line + "0\nENDBLK\n0\nENDSEC\n" +
        entities(
            line +
            "0\nLWPOLYLINE\n8\n0\n90\n3\n70\n1\n10\n1\n20\n1\n42\n0."
            "5\n10\n2\n20\n1\n10\n2\n20\n3\n0\nSPLINE\n8\n0\n70\n8\n71\n3\n72\n8\n73\n4\n74\n0\n40\n0\n40\n0\n40\n0\n40"
            "\n0\n40\n1\n40\n1\n40\n1\n40\n1\n10\n0\n20\n0\n30\n0\n10\n1\n20\n2\n30\n0\n10\n3\n20\n2\n30\n0\n10\n4\n20"
            "\n0\n30\n0\n"
            "0\nINSERT\n8\n0\n2\nA\n10\n1\n20\n1\n41\n2\n42\n2\n50\n30\n70\n2\n71\n2\n44\n5\n45\n5\n0\nTEXT\n8\n0\n10\n"
            "1\n20\n1\n40\n2."
            "5\n1\nRoom\n0\nHATCH\n8\n0\n70\n1\n91\n1\n92\n7\n72\n0\n73\n1\n93\n3\n10\n0\n20\n0\n10\n1\n20\n0\n10\n1\n2"
            "0\n1\n75\n0\n76\n1\n98\n0\n0\nELLIPSE\n8\n0\n10\n1\n20\n1\n11\n2\n21\n0\n40\n0.5\n41\n0\n42\n6.28\n"
            "0\nDIMENSION\n8\n0\n70\n0\n10\n1\n20\n1\n13\n1\n23\n1\n14\n2\n24\n2\n0\nMTEXT\n8\n0\n10\n1\n20\n1\n40\n2\n"
            "71\n1\n1\nHall\\PB\n0\nLEADER\n8\n0\n76\n2\n10\n0\n20\n0\n10\n2\n20\n2\n");
    REQUIRE(read(good).pieces.size() > 20);
    std::uint32_t random = 7;
    const auto next = [&](std::uint32_t n) { return random = random * 1664525u + 1013904223u, (random >> 8) % n; };
    static const char* values[] = {"-1",    "0",      "99999999", "2147483648", "1e308",  "-1e308", "nan",
                                   "",      "ENDSEC", "SECTION",  "BLOCK",      "ENDBLK", "SPLINE", "LWPOLYLINE",
                                   "HATCH", "VERTEX", "70",       "90",         "10",     "3"};
    for (int i = 0; i < 3000; ++i) {
        std::vector<std::string> lines;
        std::istringstream in(good);
        for (std::string l; std::getline(in, l);) lines.push_back(l);
        for (std::uint32_t k = 0, n = 1 + next(6); k < n; ++k) {
            const std::size_t at = next(std::uint32_t(lines.size()));
            switch (next(5)) {
            case 0:
                lines[at] = values[next(std::size(values))];
                break;
            case 1:
                lines.erase(lines.begin() + std::ptrdiff_t(at));
                break;
            case 2:
                lines.insert(lines.begin() + std::ptrdiff_t(at), values[next(std::size(values))]);
                break;
            case 3:
                if (!lines[at].empty()) lines[at][next(std::uint32_t(lines[at].size()))] = char(1 + next(255));
                break;
            case 4:
                lines.resize(at + 1);
                break;
            }
            if (lines.empty()) lines.push_back("0");
        }
        std::string text;
        for (const auto& l : lines) text += l + "\n";
        std::istringstream again(text);
        const auto d = readDxf(again, double(text.size()), "harmed.dxf");
        if (d)
            for (const auto& p : d->pieces) REQUIRE((p.layer < d->layers.size() && std::isfinite(p.a.x)));
    }
}

TEST_CASE("an underlay is scaled by two points, squared up, cropped, and its change is told") {
    UnderlayContent c;
    c.drawing =
        read(entities("0\nLINE\n8\nA\n10\n0\n20\n0\n11\n100\n21\n0\n0\nLINE\n8\nB\n10\n0\n20\n0\n11\n0\n21\n50\n"));
    Underlay u;
    CHECK(scaleIsGuess(u, c));
    u.origin = {5, 5};
    u.scale = 0.1; // 10 m across now; it should be 12.5 m
    REQUIRE(scaleByTwoPoints(u, c, {5, 5}, {15, 5}, 12.5));
    auto lines = linesOf(u, c);
    REQUIRE(lines.size() == 2);
    CHECK(distance(lines[0].a, lines[0].b) == Approx(12.5));
    CHECK(lines[0].a == Point{5, 5});
    CHECK(lines[1].b.y == Approx(5 - 6.25)); // up the sheet
    u.turn = 7;
    lines = linesOf(u, c);
    squareUp(u, lines[0].a, lines[0].b);
    lines = linesOf(u, c);
    CHECK(lines[0].b.y == Approx(lines[0].a.y).margin(1e-9));
    CHECK(lines[0].a.x == Approx(5));
    u.crop = {{10, 0}, {6, 20}};
    lines = linesOf(u, c);
    REQUIRE(lines.size() == 1);
    CHECK(lines[0].a.x == Approx(6));
    CHECK(lines[0].b.x == Approx(10));
    u.crop.clear();
    u.hiddenLayers = {"A"};
    CHECK(linesOf(u, c).size() == 1);
    CHECK_FALSE(scaleByTwoPoints(u, c, {5, 5}, {5, 5}, 3));

    const DxfDrawing after =
        read(entities("0\nLINE\n8\nA\n10\n100\n20\n0\n11\n0\n21\n0\n0\nLINE\n8\nB\n10\n0\n20\n0\n11\n0\n21\n60\n"));
    const UnderlayDifference d = differenceOf(c.drawing, after); // the first is the same, drawn the other way
    REQUIRE(d.added.size() == 1);
    REQUIRE(d.gone.size() == 1);
    CHECK(d.added[0].b.y == Approx(-60));
    CHECK(d.gone[0].b.y == Approx(-50));
}

TEST_CASE("DXF: arcs by their angles, whole turns and negative ones too; angles that are none are told and left out") {
    const auto drawn = [](double from, double to) {
        return read(entities("0\nARC\n8\nA\n10\n0\n20\n0\n40\n1000\n50\n" + fmt::format("{}", from) + "\n51\n" +
                             fmt::format("{}", to) + "\n"));
    };
    const double quarter = std::numbers::pi / 2 * 1000;
    CHECK(layerOf(drawn(0, 90), "A").length == Approx(quarter).epsilon(0.005));
    CHECK(layerOf(drawn(350, 80), "A").length == Approx(quarter).epsilon(0.005)); // over the zero
    CHECK(layerOf(drawn(-90, 0), "A").length == Approx(quarter).epsilon(0.005));
    CHECK(layerOf(drawn(30, 30), "A").length == Approx(4 * quarter).epsilon(0.005));  // all round
    CHECK(layerOf(drawn(0, 720 + 90), "A").length == Approx(quarter).epsilon(0.005)); // no line twice
    for (double odd : {9.2e68, -9.2e68, 1e7}) {
        const DxfDrawing d = drawn(0, odd);
        CHECK(layerOf(d, "A").pieces == 0);
        CHECK(std::any_of(d.notes.begin(), d.notes.end(), [](const std::string& n) {
            return n.find("arc with angles outside all bounds") != std::string::npos;
        }));
    }
}
