// The title block, read back from what is drawn.

#include "core/sheets/TitleBlock.h"
#include "core/check/Assumptions.h"
#include "core/drawing/TextBox.h"
#include "core/drawing/TextWidth.h"
#include "core/project/ProjectFile.h"
#include "tests/World.h"

#include <fmt/format.h>

using namespace lintel;

namespace {

struct Box {
    double left, top, right, bottom;
    std::string text;
};
/// Texts of the strip with the room that each takes.
std::vector<Box> stripTexts(const Drawing& d, const SheetFrame& f) {
    std::vector<Box> out;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m); t && t->at.x > f.right) {
            const double wide = std::min(t->within > 0 ? t->within : 1e9, textWidth(t->text, t->size, t->bold));
            const double left = t->at.x - (t->align == Align::Left ? 0 : t->align == Align::Centre ? wide / 2 : wide);
            out.push_back({left, t->at.y - 0.72 * t->size, left + wide, t->at.y, t->text});
        }
    return out;
}

/// Nothing of the strip leaves it, and no text stands on another.
void checkStrip(const Drawing& d, const SheetInput& in) {
    const SheetFrame f = sheetFrame(d, in);
    const auto texts = stripTexts(d, f);
    for (std::size_t i = 0; i < texts.size(); ++i) {
        INFO(texts[i].text);
        CHECK(texts[i].left >= f.textLeft - 0.01);
        CHECK(texts[i].right <= f.textRight + 0.01);
        CHECK(texts[i].top > 12);
        CHECK(texts[i].bottom < d.height - 12);
        for (std::size_t k = 0; k < i; ++k) {
            INFO(texts[k].text);
            const bool apart = texts[i].right <= texts[k].left + 0.01 || texts[k].right <= texts[i].left + 0.01 ||
                               texts[i].bottom <= texts[k].top + 0.01 || texts[k].bottom <= texts[i].top + 0.01;
            CHECK(apart);
        }
    }
    CHECK(f.freeTop < f.freeBottom);
    for (const Hotspot& h : d.hotspots) CHECK(h.right <= f.right);
}

} // namespace

TEST_CASE("every large sheet says whose it is, of what, by whom, and its place in the set") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        const SheetInput in{p, book, r};
        const auto set = issueSet(in);
        std::size_t place = 0;
        for (const SheetEntry& e : set) {
            ++place;
            const Drawing d = e.draw();
            INFO(demo << " " << e.number);
            const std::string words = "\n" + d.words();
            CHECK(words.find("\n" + fmt::format("Sheet {} of {}", place, set.size()) + "\n") != std::string::npos);
            const bool large = e.number[2] == '1' || e.number[2] == '2' || e.number[2] == '5' || e.number[2] == '8' ||
                               e.number[2] == '9' || e.number[2] == '0';
            const bool diagram = e.number[2] == '3';
            CHECK(d.titleBlock == (large ? TitlePlace::Side : diagram ? TitlePlace::Foot : TitlePlace::None));
            if (!large && !diagram) continue;
            std::string flat = words; // a narrow strip has names in two lines
            std::replace(flat.begin(), flat.end(), '\n', ' ');
            for (const std::string& told :
                 {p.basis.company, p.basis.title, p.basis.client, p.basis.drawn, p.basis.checked, p.basis.approved,
                  p.basis.jobNumber, p.basis.issueDate, p.basis.status, e.number, p.basis.revisions[1].text})
                CHECK(flat.find(" " + told + " ") != std::string::npos);
            CHECK(words.find("Not for construction: ") != std::string::npos);
            if (large) checkStrip(d, in);
        }
    }
}

TEST_CASE("long names wrap in the title block, and what is empty leaves room for a pen") {
    Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const auto drawn = [&] {
        const Results r = solve(p, nec());
        const SheetInput in{p, nec(), r};
        const Drawing d = riserDiagram(in, RiserLayout::OneLine, "E-502").front();
        checkStrip(d, in);
        return d.words();
    };
    p.basis.title = "Refurbishment and extension of the covered market hall with offices, second stage";
    p.basis.client = "Saltmarket Stallholders' Trust together with the Borough of Saltmarket and its partners";
    p.basis.company = "Example drawing office for electrical and mechanical services, Saltmarket branch";
    p.basis.site = "Food market of two storeys, 1 Saltmarket Square, entrance from Tallow Wharf, Saltmarket";
    std::string words = drawn();
    std::erase(words, '\n');
    std::string title = p.basis.title;
    std::erase(title, ' ');
    std::erase(words, ' ');
    CHECK(words.find(title) != std::string::npos);
    p.basis.company = p.basis.companyAddress = p.basis.client = p.basis.site = p.basis.status = "";
    p.basis.drawn = p.basis.checked = p.basis.approved = p.basis.designer = "";
    p.basis.revisions.clear();
    (void)drawn();
    // Thirty revisions: the last ones, and how many came before.
    for (int i = 1; i <= 30; ++i)
        p.basis.revisions.push_back({std::to_string(i), "2026-11-23", "Revision " + std::to_string(i), "RA"});
    const std::string many = drawn();
    CHECK(many.find("Revision 30\n") != std::string::npos);
    // On the smallest paper too: one board, on Tabloid.
    OneBoard w;
    w.p.basis = p.basis;
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    const Drawing small = riserDiagram(in, RiserLayout::OneLine, "E-502").front();
    CHECK(small.paper == "Tabloid");
    checkStrip(small, in);
    CHECK(small.words().find("earlier") != std::string::npos);
    CHECK(small.words().find("Revision 30\n") != std::string::npos);
}

TEST_CASE("the company's logo stands at the head of the strip, above its name, and takes no text's place") {
    Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    p.basis.logo = "logo.svg";
    const RuleBook& book = bookOf(p.basis.ruleBook);
    const Results r = solve(p, book);
    const SheetInput in{p, book, r, {}, "/office/hall.lintel"};
    int large = 0;
    for (const SheetEntry& e : issueSet(in)) {
        const Drawing d = e.draw();
        if (d.titleBlock == TitlePlace::None) continue;
        INFO(e.number);
        ++large;
        const PictureMark* logo = nullptr;
        for (const Mark& m : d.marks)
            if (const auto* pic = std::get_if<PictureMark>(&m)) logo = pic;
        REQUIRE(logo);
        CHECK(logo->file == "/office/logo.svg"); // beside the project
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m)) {
                const TextBox box = boxOf(*t);
                INFO(t->text);
                const bool apart = box.right <= logo->least.x + 0.01 || box.left >= logo->most.x - 0.01 ||
                                   box.bottom <= logo->least.y + 0.01 || box.top >= logo->most.y - 0.01;
                CHECK(apart);
            }
        if (d.titleBlock == TitlePlace::Side) checkStrip(d, in);
    }
    CHECK(large > 8);
}

TEST_CASE("no words of any sheet are set narrower than can be read, however long the names are") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"})
        for (const bool longNames : {false, true}) {
            Project p = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
            const auto rename = [&](auto& table, const std::string& name) {
                using Thing = std::decay_t<decltype(*table.begin())>;
                std::vector<Id<Thing>> ids;
                for (const Thing& t : table) ids.push_back(t.id);
                for (const Id<Thing> id : ids) table.change(id)->name = name + " " + std::to_string(id.value);
            };
            if (longNames) {
                rename(p.boards, "Distribution board of the western hall, upper floor, bay");
                rename(p.circuits, "Receptacles and lighting of the market stalls along the quay");
                rename(p.sources, "Utility transformer of the western substation");
                rename(p.transformers, "Transformer of the stalls, upper floor plant room");
                p.basis.title = "A food market of two storeys with a roof deck and offices beside the harbour";
                p.basis.company = p.basis.client =
                    "The trustees of the harbour and market halls of the old town, estates office";
                p.basis.status = "For tender, with the changes of the second review taken in";
                for (Revision& r : p.basis.revisions) r.text = "Meter, transfer switch and charging of vehicles";
            }
            const RuleBook& book = bookOf(p.basis.ruleBook);
            const Results r = solve(p, book);
            for (const SheetEntry& e : issueSet({p, book, r})) {
                const Drawing d = e.draw();
                for (const Mark& m : d.marks) {
                    const auto* t = std::get_if<TextMark>(&m);
                    if (!t || t->within <= 0) continue;
                    INFO(demo << " " << e.number << " " << t->text);
                    CHECK(textWidth(t->text, t->size, t->bold) * 0.85 <= t->within + 0.01);
                }
            }
        }
}
