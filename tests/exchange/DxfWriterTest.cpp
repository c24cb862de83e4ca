// DXF files as an independent reader finds them: sound, in the right units, with every text, every feeder from box to
// box, and a block for every device.

#include "core/compose/SheetSet.h"
#include "core/exchange/DxfPlan.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "tests/SourceTree.h"
#include "tests/World.h"

#include <fmt/format.h>

#include <fstream>
#include <map>
#include <set>
#include <sstream>
#include <unistd.h>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

struct Folder {
    fs::path path = fs::temp_directory_path() / ("lintel-dxf-out-" + std::to_string(::getpid()));
    Folder() { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
};

/// What the reader says of a file, line by line.
std::vector<std::string> readBack(const Folder& folder, const fs::path& file) {
    const fs::path out = folder.path / "told.txt";
    const std::string command = "/usr/bin/python3 '" + (sourceTree() / "tests/exchange/read_dxf.py").string() + "' '" +
                                file.string() + "' > '" + out.string() + "' 2>&1";
    const int rc = std::system(command.c_str());
    std::ifstream in(out);
    std::vector<std::string> lines;
    for (std::string line; std::getline(in, line);) lines.push_back(line);
    INFO((lines.empty() ? std::string() : lines.back()));
    REQUIRE(rc == 0);
    return lines;
}

bool near(double a, double b) { return std::abs(a - b) < 0.02; }

} // namespace

TEST_CASE("DXF: every text of every sheet of the demos is in its file, at its place, and the file is sound") {
    const Folder folder;
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        const SheetInput in{p, book, r};
        int sheets = 0;
        for (const SheetEntry& e : sheetSet(in)) {
            if (e.number != "E-101" && e.number != "E-301" && e.number != "E-502" && e.number != "E-601") continue;
            ++sheets;
            const Drawing d = e.draw();
            const fs::path file = folder.path / "sheet.dxf";
            REQUIRE(writeDxf(d, file, sheetDxf(in)));
            const auto told = readBack(folder, file);
            CHECK(told.front() == "units 4"); // millimetres
            std::multiset<std::string> texts;
            for (const std::string& line : told)
                if (line.rfind("text ", 0) == 0) {
                    std::istringstream words(line);
                    std::string kind, layer, text;
                    double x, y, height, turn;
                    words >> kind >> layer >> x >> y >> height >> turn;
                    std::getline(words, text);
                    texts.insert(fmt::format("{:.2f} {:.2f}{}", x, y, text));
                }
            for (std::size_t i = 0; i < d.marks.size(); ++i) {
                const auto* t = std::get_if<TextMark>(&d.marks[i]);
                const bool inSymbol = std::any_of(d.symbols.begin(), d.symbols.end(),
                                                  [&](const SymbolMark& s) { return i >= s.from && i < s.end; });
                if (!t || inSymbol) continue;
                INFO(e.number << " " << t->text);
                const bool there = std::any_of(texts.begin(), texts.end(), [&](const std::string& line) {
                    std::istringstream words(line);
                    double x, y;
                    words >> x >> y;
                    return line.ends_with(t->text) && std::abs(x - t->at.x) < 0.11 &&
                           std::abs(y - (d.height - t->at.y)) < 0.11;
                });
                CHECK(there);
            }
        }
        CHECK(sheets == 4);
    }
}

TEST_CASE("DXF: a line in the file for every feeder, from its box to its load") {
    const Folder folder;
    const Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    for (RiserLayout layout : {RiserLayout::ByFloor, RiserLayout::OneLine}) {
        const Drawing d = riserDiagram(in, layout, "E-501").front();
        const fs::path file = folder.path / "riser.dxf";
        REQUIRE(writeDxf(d, file));
        std::map<Ref, Hotspot> boxes;
        for (const Hotspot& h : d.hotspots) boxes[h.thing] = h;
        std::set<std::pair<Ref, Ref>> joined;
        for (const std::string& line : readBack(folder, file)) {
            std::istringstream words(line);
            std::string kind, layer;
            double x1, y1, x2, y2;
            words >> kind >> layer >> x1 >> y1 >> x2 >> y2;
            if (layer != "E-FEEDERS" || (kind != "line" && kind != "path")) continue;
            Ref from, to;
            for (const auto& [thing, h] : boxes) {
                const auto touches = [&](double x, double y) {
                    return x > h.left - 0.02 && x < h.right + 0.02 &&
                           (near(d.height - y, h.top) || near(d.height - y, h.bottom) || near(x, h.left) ||
                            near(x, h.right)) &&
                           d.height - y > h.top - 0.02 && d.height - y < h.bottom + 0.02;
                };
                if (touches(x1, y1)) from = thing;
                if (touches(x2, y2)) to = thing;
            }
            if (from && to) joined.insert({from, to});
        }
        int feeders = 0;
        for (Ref thing : r.order)
            if (const Ref parent = r.node(thing)->parent) {
                ++feeders;
                INFO(nameOf(p, parent) << " to " << nameOf(p, thing));
                CHECK(joined.count({parent, thing}) == 1);
            }
        CHECK(feeders >= 15);
    }
}

TEST_CASE("DXF: a floor in the units of the building, a block for each device with its circuit") {
    const Folder folder;
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        const SheetInput in{p, book, r};
        const bool inches = p.basis.units == UnitSystem::Imperial;
        const auto floors = planFiles(p);
        REQUIRE(floors.size() >= 2);
        const LevelId level = floors[0].first;
        const fs::path file = folder.path / (floors[0].second + ".dxf");
        REQUIRE(writePlanDxf(in, level, file));
        const auto told = readBack(folder, file);
        CHECK(told.front() == (inches ? "units 1" : "units 4"));
        // Two devices are as far from one another in the file as they are in the building.
        std::vector<const Device*> devices;
        for (const Device& x : p.devices)
            if (x.level == level) devices.push_back(&x);
        std::vector<Point> placed;
        for (const std::string& line : told) {
            std::istringstream words(line);
            std::string kind, layer, name;
            double x, y;
            words >> kind >> layer >> name >> x >> y;
            if (kind == "block" && (layer == "E-POWER" || layer == "E-LIGHTING")) placed.push_back({x, y});
        }
        REQUIRE(placed.size() == devices.size());
        const double metre = inches ? 1000 / 25.4 : 1000;
        for (std::size_t i = 1; i < devices.size(); ++i)
            CHECK(std::hypot(placed[i].x - placed[0].x, placed[i].y - placed[0].y) ==
                  Approx(distance(devices[i]->at, devices[0]->at) * metre).margin(0.05));
        const Device& some = *devices[devices.size() / 2];
        const std::string wanted = "CIRCUIT=" + (some.circuit ? nameOf(p, some.circuit) : std::string());
        CHECK(std::any_of(told.begin(), told.end(), [&](const std::string& line) {
            return line.rfind("block ", 0) == 0 && line.find(wanted) != std::string::npos;
        }));
        CHECK(std::count_if(told.begin(), told.end(),
                            [](const std::string& l) { return l.rfind("defined ", 0) == 0; }) >= 3);
    }
}

TEST_CASE("DXF: names of any kind come back as they were typed, and a folder that cannot be written is said") {
    const Folder folder;
    Drawing d;
    d.width = 200;
    d.height = 100;
    const std::vector<std::string> names{"Café Übung 你好", "100 %% of it", "R&D <h1>",     "#4 \\U+0041 \\P",
                                         "a^b ^M",          "5 % drop",     "{\\fArial;x}", "tab\there"};
    double y = 5;
    for (const std::string& name : names) d.text({5, y += 8}, name, 3);
    d.text({150, 50}, "upright", 3);
    d.lastText()->turn = -90;
    const fs::path file = folder.path / "names.dxf";
    REQUIRE(writeDxf(d, file));
    std::string all;
    for (const std::string& line : readBack(folder, file)) all += line + "\n";
    for (const std::string& name : names) {
        if (name == "tab\there") continue; // a tab is a blank on a sheet
        INFO(name << "\n" << all);
        CHECK(all.find(" " + name + "\n") != std::string::npos);
    }
    CHECK(all.find(" 90 upright\n") != std::string::npos);
    CHECK_FALSE(writeDxf(d, folder.path / "none" / "x.dxf"));
    CHECK_FALSE(fs::exists(folder.path / "none"));
    Drawing empty;
    CHECK(writeDxf(empty, file));
}
