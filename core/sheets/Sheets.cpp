#include "core/sheets/Sheets.h"

#include "core/base/PlainName.h"
#include "core/sheets/BoardDiagram.h"
#include "core/sheets/PageNumber.h"
#include "core/sheets/TitleBlock.h"
#include "core/sheets/Words.h"

#include <fmt/format.h>
#include <map>
#include <memory>

namespace lintel {

PaperSize paperSize(const std::string& name) {
    static const std::map<std::string, PaperSize> sizes{
        {"Letter", {215.9, 279.4}},   {"Legal", {215.9, 355.6}},  {"Tabloid", {431.8, 279.4}},
        {"ARCH C", {609.6, 457.2}},   {"ARCH D", {914.4, 609.6}}, {"ARCH E1", {1066.8, 762}},
        {"A5", {148, 210}},           {"A4", {210, 297}},         {"A3", {297, 420}},
        {"A3 landscape", {420, 297}}, {"A2", {594, 420}},         {"A1", {841, 594}},
        {"A0", {1189, 841}}};
    const auto it = sizes.find(name);
    return it == sizes.end() ? sizes.at("Letter") : it->second;
}

const char* schedulePaper(const SheetInput& in, const Board& b) {
    if (in.book.metric()) return wayScheduleRows(in.project, b) > 44 ? "A3" : "A4";
    return (b.form == BoardForm::TwoColumn ? (b.slots + 1) / 2 : b.slots) > 32 ? "Legal" : "Letter";
}

namespace {
/// Metric practice draws every board; North American practice the large ones, and has the schedule of the others.
bool issuesDiagram(const RuleBook& book, const Board& b) {
    return book.metric() || b.use == BoardUse::Switchboard || b.use == BoardUse::MotorControl;
}
} // namespace

void footStrip(Drawing& d, const SheetInput& in, double m) {
    const double y = d.height - m - 4;
    d.line({m, y}, {d.width - m, y}, 0.35);
    d.text({m, y + 3.6}, basisWords(in), 2.3, Align::Left, false, Ink::Quiet, (d.width - 2 * m) * 0.68);
    d.text({d.width - m, y + 3.6}, (d.number.empty() ? "" : "Sheet " + d.number + " · ") + d.title, 2.3, Align::Right,
           false, Ink::Quiet);
}

std::vector<SheetEntry> sheetSet(const SheetInput& in) {
    std::vector<SheetEntry> set;
    // The sheet's number before it makes it unique; with an ending it stays within what a file system takes.
    const auto safe = [](const std::string& name) { return plainName(name, 180); };
    // Sheets of one drawing, all drawn with the first that is asked for.
    const auto bind = [&set](const std::string& first, const std::string& title, const std::string& paper,
                             const std::string& file, std::size_t pages,
                             const std::function<std::vector<Drawing>()>& draw) {
        const auto drawn = std::make_shared<std::vector<Drawing>>();
        for (std::size_t page = 0; page < pages; ++page) {
            const std::string number = pageNumber(first, page);
            const std::string own = page == 0 ? title : fmt::format("{}, sheet {}", title, page + 1);
            set.push_back({number, own, paper, number + "_" + file, [draw, page, drawn] {
                               if (drawn->empty()) *drawn = draw();
                               return (*drawn)[page];
                           }});
        }
    };
    // Lighting on E-101 and on, power on E-201 and on; a floor keeps its place in both.
    const int hundred = in.project.levels.size() < 100 ? 100 : 1000;
    int place = 0;
    std::vector<SheetEntry> power;
    for (const Level& l : in.project.levels) {
        const std::vector<PlanSystem> systems = planSystems(in.project, l.id);
        if (systems.empty()) continue;
        ++place;
        for (PlanSystem system : systems) {
            const bool second = system == PlanSystem::Power;
            const std::string number = fmt::format("E-{}", (second ? 2 : 1) * hundred + place),
                              title = planTitle(in.project, l.id, system);
            (second ? power : set)
                .push_back({number, title, in.book.metric() ? "A1" : "ARCH D", number + "_" + safe(title),
                            [&in, id = l.id, number, system] { return planSheet(in, id, number, system); }});
        }
    }
    set.insert(set.end(), power.begin(), power.end());
    std::vector<const Board*> boards;
    for (const Board& b : in.project.boards)
        if (!passesOn(b.use)) boards.push_back(&b);
    std::sort(boards.begin(), boards.end(), [](const Board* x, const Board* y) { return x->name < y->name; });
    int diagram = boards.size() < 100 ? 301 : 3001;
    for (const Board* b : boards) {
        if (!issuesDiagram(in.book, *b)) continue;
        const std::string number = fmt::format("E-{}", diagram++);
        bind(number, "Diagram " + b->name, boardDiagramPaper(in.book), safe(b->name) + "_diagram",
             boardDiagramPages(in, b->id), [&in, id = b->id, number] { return boardDiagram(in, id, number); });
    }
    const auto distribution = [&](RiserLayout layout, const std::string& number, const char* title, const char* file) {
        bind(number, title, "", file, riserPages(in, layout),
             [&in, layout, number] { return riserDiagram(in, layout, number); });
    };
    if (!in.project.boards.empty()) {
        distribution(RiserLayout::ByFloor, "E-501", "Riser diagram", "riser");
        distribution(RiserLayout::OneLine, "E-502", "One-line diagram", "one-line");
    }
    int n = boards.size() < 100 ? 601 : 6001; // E-701 and on are other sheets
    for (const Board* b : boards) {
        const std::string number = fmt::format("E-{}", n++);
        const std::string title = (in.book.metric() ? "Schedule " : "Panel schedule ") + b->name;
        const std::size_t pages = schedulePages(in, b->id);
        for (std::size_t page = 0; page < pages; ++page) {
            const std::string own = pageNumber(number, page);
            set.push_back({own,
                           page == 0   ? title
                           : page == 1 ? title + ", notes"
                                       : fmt::format("{}, notes {}", title, page),
                           schedulePaper(in, *b), own + "_" + safe(b->name),
                           [&in, id = b->id, number, page] { return panelSchedule(in, id, number, page); }});
        }
    }
    return set;
}

} // namespace lintel
