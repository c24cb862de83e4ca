#include "core/sheets/Sheets.h"

#include "core/base/PlainName.h"
#include "core/project/SheetNumbers.h"
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

namespace {

/// The title that somebody gave a sheet, or the usual one of its kind.
std::string titleOf(const SheetInput& in, SheetKey sheet) {
    const Board* b = in.project.boards.find(sheet.second.as<Board>());
    const std::string name = b ? b->name : std::string();
    const LevelId level = sheet.second.as<Level>();
    const auto usual = [&]() -> std::string {
        switch (sheet.first) {
        case SheetKind::Plan:
            return planTitle(in.project, level, PlanSystem::All);
        case SheetKind::Lighting:
            return planTitle(in.project, level, PlanSystem::Lighting);
        case SheetKind::Power:
            return planTitle(in.project, level, PlanSystem::Power);
        case SheetKind::Diagram:
            return "Diagram " + name;
        case SheetKind::Riser:
            return "Riser diagram";
        case SheetKind::OneLine:
            return "One-line diagram";
        case SheetKind::Schedule:
            return (in.book.metric() ? "Schedule " : "Panel schedule ") + name;
        }
        return name;
    };
    return sheetTitle(in.project, sheet, usual());
}

/// Lists the sheets one after another, numbered as the project says.
class SetMaker {
public:
    explicit SetMaker(const SheetInput& input) : in(input), numbering(input.project) {}
    std::vector<SheetEntry> made() {
        plans();
        std::vector<const Board*> boards;
        for (const Board& b : in.project.boards)
            if (!passesOn(b.use)) boards.push_back(&b);
        std::sort(boards.begin(), boards.end(), [](const Board* x, const Board* y) { return x->name < y->name; });
        diagrams(boards);
        if (!in.project.boards.empty()) {
            distribution(RiserLayout::ByFloor, SheetKind::Riser, 501, "riser");
            distribution(RiserLayout::OneLine, SheetKind::OneLine, 502, "one-line");
        }
        schedules(boards);
        return std::move(set);
    }

private:
    const SheetInput& in;
    SheetNumbering numbering;
    std::vector<SheetEntry> set;

    /// The sheet's number before it makes it unique; with an ending it stays within what a file system takes.
    static std::string fileName(const std::string& number, const std::string& name) {
        constexpr std::size_t longest = 180;
        std::string plain = plainName(number, longest);
        for (std::size_t i = 0; i < plain.size(); ++i)
            if (number[i] == '.') plain[i] = '.'; // of a further page
        return plain + "_" + plainName(name, longest);
    }
    void add(std::vector<SheetEntry>& to, SheetKey sheet, const std::string& first, std::size_t page,
             const std::string& title, const std::string& paper, const std::string& file,
             std::function<Drawing()> draw) const {
        const std::string number = pageNumber(first, page);
        const std::string key = pageNumber(wordOf(sheet.first) + (" " + sheet.second.text()), page);
        to.push_back({number, title, paper, fileName(number, file), std::move(draw), key, sheet.first, sheet.second,
                      page, numbering.kept(sheet) != nullptr});
    }
    /// Those of one kind, in the order of their numbers.
    void bind(std::vector<SheetEntry> sheets) {
        std::stable_sort(sheets.begin(), sheets.end(),
                         [](const SheetEntry& x, const SheetEntry& y) { return numberBefore(x.number, y.number); });
        set.insert(set.end(), std::make_move_iterator(sheets.begin()), std::make_move_iterator(sheets.end()));
    }
    /// Sheets of one drawing, all drawn with the first that is asked for.
    void addPages(std::vector<SheetEntry>& to, SheetKey sheet, const std::string& first, const std::string& title,
                  const std::string& paper, const std::string& file, std::size_t pages,
                  const std::function<std::vector<Drawing>()>& draw) const {
        const auto drawn = std::make_shared<std::vector<Drawing>>();
        for (std::size_t page = 0; page < pages; ++page)
            add(to, sheet, first, page, page == 0 ? title : fmt::format("{}, sheet {}", title, page + 1), paper, file,
                [draw, page, drawn] {
                    if (drawn->empty()) *drawn = draw();
                    return (*drawn)[page];
                });
    }

    /// Lighting on E-101 and on, power on E-201 and on; a floor keeps its place in both.
    void plans() {
        const int first = in.project.levels.size() < 100 ? 101 : 1001;
        std::vector<SheetEntry> lighting;
        std::vector<SheetEntry> power;
        for (const Level& l : in.project.levels)
            for (PlanSystem system : planSystems(in.project, l.id)) {
                const SheetKey sheet{sheetKindOf(system), l.id};
                if (isLeftOut(in.project, sheet)) continue;
                const std::string title = titleOf(in, sheet);
                const std::string number = numbering.ofPlan(sheet, first);
                add(system == PlanSystem::Power ? power : lighting, sheet, number, 0, title,
                    in.book.metric() ? "A1" : "ARCH D", title,
                    [&in = in, id = l.id, number, system] { return planSheet(in, id, number, system); });
            }
        bind(std::move(lighting));
        bind(std::move(power));
    }
    void diagrams(const std::vector<const Board*>& boards) {
        const int first = boards.size() < 100 ? 301 : 3001;
        std::vector<SheetEntry> sheets;
        for (const Board* b : boards) {
            if (!issuesDiagram(in.book, *b)) continue;
            const SheetKey sheet{SheetKind::Diagram, b->id};
            if (isLeftOut(in.project, sheet)) continue;
            const std::string title = titleOf(in, sheet);
            const std::string number = numbering.of(sheet, first);
            addPages(sheets, sheet, number, title, boardDiagramPaper(in.book), b->name + "_diagram",
                     boardDiagramPages(in, b->id),
                     [&in = in, id = b->id, number] { return boardDiagram(in, id, number); });
        }
        bind(std::move(sheets));
    }
    void distribution(RiserLayout layout, SheetKind kind, int usual, const char* file) {
        const SheetKey sheet{kind, Ref()};
        if (isLeftOut(in.project, sheet)) return;
        const std::string number = numbering.at(sheet, usual);
        std::vector<SheetEntry> sheets;
        addPages(sheets, sheet, number, titleOf(in, sheet), "", file, riserPages(in, layout),
                 [&in = in, layout, number] { return riserDiagram(in, layout, number); });
        bind(std::move(sheets));
    }
    void schedules(const std::vector<const Board*>& boards) {
        const int first = boards.size() < 100 ? 601 : 6001; // E-701 and on are other sheets
        std::vector<SheetEntry> sheets;
        for (const Board* b : boards) {
            const SheetKey sheet{SheetKind::Schedule, b->id};
            if (isLeftOut(in.project, sheet)) continue;
            const std::string title = titleOf(in, sheet);
            const std::string number = numbering.of(sheet, first);
            const std::size_t pages = schedulePages(in, b->id);
            for (std::size_t page = 0; page < pages; ++page)
                add(sheets, sheet, number, page,
                    page == 0   ? title
                    : page == 1 ? title + ", notes"
                                : fmt::format("{}, notes {}", title, page),
                    schedulePaper(in, *b), b->name,
                    [&in = in, id = b->id, number, page] { return panelSchedule(in, id, number, page); });
        }
        bind(std::move(sheets));
    }
};

} // namespace

std::vector<SheetEntry> sheetSet(const SheetInput& in) { return SetMaker(in).made(); }

std::vector<SheetLeftOut> sheetsLeftOut(const SheetInput& in) {
    std::vector<SheetLeftOut> out;
    for (const SheetNumber& s : in.project.sheetNumbers) {
        const bool there =
            !s.about || in.project.boards.has(s.about.as<Board>()) || in.project.levels.has(s.about.as<Level>());
        if (s.left && there) out.push_back({s.of, s.about, titleOf(in, {s.of, s.about})});
    }
    return out;
}

} // namespace lintel
