// Cut sheets: what is entered of a type is on its card, cards stand in the set or where somebody put them, and plans
// name types by their marks.

#include "core/compose/CutSheets.h"
#include "core/base/Format.h"
#include "core/check/Assumptions.h"
#include "core/compose/ComposedSheet.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/Words.h"
#include "core/project/ComposedSheets.h"
#include "core/project/Validation.h"
#include "core/sheets/TypeCard.h"
#include "tests/TextsApart.h"
#include "tests/World.h"

#include <fmt/format.h>

using namespace lintel;

namespace {

struct Types : OneBoard {
    DeviceTypeId add(const std::string& name, const std::string& mark) {
        DeviceType t;
        t.name = name;
        t.mark = mark;
        t.kind = LoadKind::Lighting;
        t.symbol = Symbol::Downlight;
        t.load = 42;
        t.unit = LoadUnit::W;
        t.powerFactor = 0.95;
        t.lumens = 4200;
        t.onWall = false;
        t.protection = "IP44";
        t.connection = "plug-in rose";
        t.lamp = "LED 3000 K";
        t.description = "Recessed.\nWhite trim.";
        return p.deviceTypes.add(t);
    }
    DeviceId draw(DeviceTypeId type, Point at = {1, 1}) {
        Device d;
        d.type = type;
        d.level = p.levels.begin()->id;
        d.at = at;
        return p.devices.add(d);
    }
};

void staysInside(const Drawing& card) {
    for (const Mark& m : card.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) {
            INFO(t->text);
            const TextBox box = boxOf(*t);
            CHECK(box.left >= 0);
            CHECK(box.right <= card.width);
            CHECK(box.bottom <= card.height);
            CHECK(t->within == 0); // never squeezed
        }
    CHECK(textsOnTexts(card) == std::vector<std::string>());
}

} // namespace

TEST_CASE("a cut sheet says all that is entered of a type, and how many there are on each floor") {
    Types w;
    const DeviceTypeId id = w.add("Downlight", "A1");
    w.draw(id);
    w.draw(id, {2, 1});
    w.p.deviceTypes.change(id)->picture = "a1.png";
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r, {}, "/jobs/hall/hall.lintel"};
    const Drawing card = typeCard(in, id);
    const std::string words = card.words();
    for (const std::string& part :
         std::vector<std::string>{"A1", "Downlight", "42 W, power factor 0.95", "LED 3000 K", number(4200) + " lm",
                                  "ceiling", "IP44", "plug-in rose", "Recessed.", "White trim."}) {
        INFO(part);
        CHECK(words.find(part) != std::string::npos);
    }
    CHECK(words.find("2 on " + w.p.levels.begin()->name) != std::string::npos);
    REQUIRE(card.symbols.size() == 1);
    CHECK(card.symbols[0].symbol == Symbol::Downlight);
    std::string file;
    for (const Mark& m : card.marks)
        if (const auto* picture = std::get_if<PictureMark>(&m)) file = picture->file;
    CHECK(file == "/jobs/hall/a1.png");
    staysInside(card);
}

TEST_CASE("long names and descriptions of a type are wrapped whole on its cut sheet") {
    Types w;
    const DeviceTypeId id = w.add("Recessed linear luminaire with a very long name that goes on over several lines "
                                  "because its maker calls it so",
                                  "LONG-MARK-17");
    DeviceType& t = *w.p.deviceTypes.change(id);
    t.description.clear();
    for (int i = 0; i < 60; ++i) t.description += fmt::format("word{} ", i);
    t.protection = "IP66 and IK10, suitable for wet places and for those that are hosed down every night";
    t.picture = "somewhere/nowhere.svg";
    const Results r = w.solved();
    const Drawing card = typeCard({w.p, nec(), r}, id);
    for (int i = 0; i < 60; ++i) CHECK(card.words().find(fmt::format("word{}", i)) != std::string::npos);
    CHECK(card.words().find("calls it so") != std::string::npos);
    staysInside(card);
    staysInside(typeCard({w.p, nec(), r}, id, 20)); // as narrow as it can be
}

TEST_CASE("cut sheets follow the lists; one that stands on a composed sheet is not there as well") {
    Types w;
    const DeviceTypeId b = w.add("Cove", "B10"), a = w.add("Downlight", "B2");
    const DeviceTypeId plain = w.add("Strip", "");
    w.p.deviceTypes.change(plain)->description.clear(); // nothing to show beside what the list says
    const Results r = w.solved();
    CHECK(typesWithCutSheet(w.p) == std::vector<DeviceTypeId>{a, b});
    const auto last = issueSet({w.p, nec(), r}).back();
    CHECK(last.number == "E-851");
    CHECK(last.title == "Cut sheets");
    const std::string words = last.draw().words();
    CHECK(words.find("Cove") != std::string::npos);
    CHECK(words.find("Downlight") != std::string::npos);
    CHECK(words.find("Strip") == std::string::npos);
    const ComposedSheetId sheet = addComposedSheet(w.p, SheetPaper::Usual);
    const PlacedViewId view = placeView(w.p, sheet, {SheetKind::CutSheet, a, {}});
    CHECK_FALSE(validate(w.p));
    const Results again = w.solved();
    const SheetInput in{w.p, nec(), again};
    const auto left = cutSheets(in, 851);
    REQUIRE(left.size() == 1);
    CHECK(left[0].words().find("Downlight") == std::string::npos);
    const auto pages = composedPages(in, sheet, "E-901");
    CHECK(pages.troubles.empty());
    CHECK(pages.pages.at(0).words().find("Downlight") != std::string::npos);
    // Its type is gone: that is told, and nothing is drawn of it.
    w.p.deviceTypes.remove(a);
    const Results gone = w.solved();
    const SheetInput without{w.p, nec(), gone};
    CHECK(viewParts(without, w.p.placedViews[view], 500, 500).parts.empty());
    CHECK(composedPages(without, sheet, "E-901").troubles.size() == 1);
}

TEST_CASE("a hundred types: every card once, over as many sheets as they take, none on another") {
    Types w;
    for (int i = 0; i < 100; ++i) w.add(fmt::format("Kind {:03}", i), fmt::format("X{}", i));
    const Results r = w.solved();
    const auto sheets = cutSheets({w.p, nec(), r}, 851);
    CHECK(sheets.size() > 1);
    std::string all;
    for (std::size_t i = 0; i < sheets.size(); ++i) {
        CHECK(sheets[i].number == fmt::format("E-{}", 851 + i));
        CHECK(textsOnTexts(sheets[i]) == std::vector<std::string>());
        all += sheets[i].words();
    }
    for (int i = 0; i < 100; ++i) {
        const std::string name = fmt::format("Kind {:03}", i);
        INFO(name);
        CHECK(all.find(name) != std::string::npos);
        CHECK(all.find(name) == all.rfind(name));
    }
}

TEST_CASE("a plan names devices by the mark of their type, and tells a height that is not their type's") {
    Types w;
    const DeviceTypeId id = w.add("Bracket", "W3");
    w.p.deviceTypes.change(id)->height = feet(7).v;
    w.draw(id);
    w.p.devices.change(w.draw(id, {4, 1}))->height = feet(5).v + 0.1524; // 5' 6"
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    const std::string words = planSheets(in, w.p.levels.begin()->id, "E-101", PlanSystem::Lighting).at(0).words();
    CHECK(words.find("W3\n") != std::string::npos);
    CHECK(words.find("W3, " + heightWords(feet(5).v + 0.1524, w.p.basis.units)) != std::string::npos);
    CHECK(words.find(heightWords(feet(7).v, w.p.basis.units)) == std::string::npos);
}
