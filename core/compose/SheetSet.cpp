#include "core/compose/SheetSet.h"

#include "core/base/NaturalOrder.h"
#include "core/base/Parallel.h"
#include "core/base/PlainName.h"
#include "core/compose/ComposedSheet.h"
#include "core/figures/ScheduleForms.h"
#include "core/figures/Words.h"
#include "core/sheets/BoardDiagram.h"
#include "core/sheets/FormFit.h"
#include "core/sheets/PageNumber.h"

#include <fmt/format.h>
#include <map>
#include <memory>

namespace lintel {
namespace {

/// The title that somebody gave a sheet, or the usual one of its kind.
std::string titleOf(const SheetInput& in, SheetKey sheet) {
    if (sheet.first == SheetKind::Composed) return composedTitle(in, sheet.second.as<ComposedSheet>());
    return usualViewTitle(in, {sheet.first, sheet.second, {}});
}

/// Lists the sheets one after another, numbered as the project says.
class SetMaker {
public:
    explicit SetMaker(const SheetInput& input) : in(input), numbering(input.project), placed(input.project) {}
    std::vector<SheetEntry> made() {
        for (const ComposedSheet& s : in.project.composedSheets) composed[seriesOf(s.id)].push_back(s.id);
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
        std::vector<SheetEntry> sheets;
        composeInto(sheets, Series::Distribution, 503);
        bind(std::move(sheets));
        schedules(boards);
        sheets.clear();
        composeInto(sheets, Series::Others, 901);
        bind(std::move(sheets));
        return std::move(set);
    }

private:
    const SheetInput& in;
    SheetNumbering numbering;
    PlacedThings placed;
    std::vector<SheetEntry> set;

    /// Composed sheets are numbered and bound with those of the kind that they show first.
    enum class Series { Lighting, Power, Diagrams, Distribution, Schedules, Others };
    std::map<Series, std::vector<ComposedSheetId>> composed;
    Series seriesOf(ComposedSheetId sheet) const {
        for (const PlacedView* v : viewsOn(in.project, sheet)) {
            if (!isThere(in.project, *v)) continue;
            switch (v->shows) {
            case SheetKind::Plan:
            case SheetKind::Lighting:
                return Series::Lighting;
            case SheetKind::Power:
                return Series::Power;
            case SheetKind::Diagram:
                return Series::Diagrams;
            case SheetKind::Riser:
            case SheetKind::OneLine:
                return Series::Distribution;
            case SheetKind::Schedule:
                return Series::Schedules;
            case SheetKind::List:
            case SheetKind::Notes:
            case SheetKind::Legend:
            case SheetKind::Picture:
            case SheetKind::CutSheet:
            case SheetKind::Composed:
                continue;
            }
        }
        return Series::Others;
    }
    /// The composed sheets of a series; `first`: its first number.
    void composeInto(std::vector<SheetEntry>& to, Series series, int first) {
        for (ComposedSheetId id : composed[series]) {
            const SheetKey sheet{SheetKind::Composed, id};
            if (isLeftOut(in.project, sheet)) continue;
            const bool plan = series == Series::Lighting || series == Series::Power;
            const std::string number =
                plan ? numbering.ofPlan(sheet, first, series == Series::Power) : numbering.of(sheet, first);
            const auto made = std::make_shared<const ComposedPages>(composedPages(in, id, number));
            std::string trouble;
            for (const std::string& words : made->troubles) trouble += (trouble.empty() ? "" : "; ") + words;
            for (std::size_t page = 0; page < made->pages.size(); ++page) {
                const Drawing& d = made->pages[page];
                add(to, sheet, number, page, d.title, d.paper, made->pages.front().title,
                    [made, page] { return made->pages[page]; });
                to.back().trouble = trouble;
                for (const ViewSpot& s : made->spots)
                    if (s.page == page) to.back().views.push_back(shownBy(in.project.placedViews[s.view]));
            }
        }
    }
    /// Somebody left it out, or it stands on a composed sheet.
    bool hasNoSheet(SheetKey sheet) const {
        return isLeftOut(in.project, sheet) || placed.has({sheet.first, sheet.second, {}});
    }

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
                if (hasNoSheet(sheet)) continue;
                const std::string title = titleOf(in, sheet);
                const std::string number = numbering.ofPlan(sheet, first, system == PlanSystem::Power);
                const PlanPages pages = planPages(in, l.id, system);
                const auto drawn = std::make_shared<std::vector<Drawing>>();
                for (std::size_t page = 0; page < pages.count(); ++page)
                    add(system == PlanSystem::Power ? power : lighting, sheet, number, page, pages.title(title, page),
                        in.book.trade.papers.drawing, title, [in = in, id = l.id, number, system, page, drawn] {
                            if (drawn->empty()) *drawn = planSheets(in, id, number, system);
                            return (*drawn)[page];
                        });
            }
        composeInto(lighting, Series::Lighting, first);
        composeInto(power, Series::Power, first);
        bind(std::move(lighting));
        bind(std::move(power));
    }
    void diagrams(const std::vector<const Board*>& boards) {
        const int first = boards.size() < 100 ? 301 : 3001;
        std::vector<SheetEntry> sheets;
        for (const Board* b : boards) {
            if (!issuesDiagram(in.book, *b)) continue;
            const SheetKey sheet{SheetKind::Diagram, b->id};
            if (hasNoSheet(sheet)) continue;
            const std::string title = titleOf(in, sheet);
            const std::string number = numbering.of(sheet, first);
            addPages(sheets, sheet, number, title, boardDiagramPaper(in.book), b->name + "_diagram",
                     boardDiagramPages(in, b->id),
                     [in = in, id = b->id, number] { return boardDiagram(in, id, number); });
        }
        composeInto(sheets, Series::Diagrams, first);
        bind(std::move(sheets));
    }
    void distribution(RiserLayout layout, SheetKind kind, int usual, const char* file) {
        const SheetKey sheet{kind, Ref()};
        if (hasNoSheet(sheet)) return;
        const std::string number = numbering.at(sheet, usual);
        std::vector<SheetEntry> sheets;
        const RiserExtent extent = riserExtent(in, layout);
        addPages(sheets, sheet, number, titleOf(in, sheet), extent.paper, file, extent.pages,
                 [in = in, layout, number] { return riserDiagram(in, layout, number); });
        bind(std::move(sheets));
    }
    void schedules(const std::vector<const Board*>& boards) {
        const int first = boards.size() < 100 ? 601 : 6001; // E-701 and on are other sheets
        std::vector<SheetEntry> sheets;
        std::vector<ScheduleSheets> sizes(boards.size());
        inParts(boards.size(), in.project.circuits.size() >= manyCircuits,
                [&](std::size_t, std::size_t from, std::size_t to) {
                    for (std::size_t i = from; i < to; ++i) sizes[i] = scheduleSheets(in, boards[i]->id);
                });
        for (std::size_t i = 0; i < boards.size(); ++i) {
            const Board* b = boards[i];
            const ScheduleSheets& pages = sizes[i];
            const SheetKey sheet{SheetKind::Schedule, b->id};
            if (hasNoSheet(sheet)) continue;
            const std::string title = titleOf(in, sheet);
            const std::string number = numbering.of(sheet, first);
            for (std::size_t page = 0; page < pages.all; ++page)
                add(sheets, sheet, number, page,
                    page == 0             ? title
                    : page < pages.table  ? fmt::format("{}, sheet {}", title, page + 1)
                    : page == pages.table ? title + ", notes"
                                          : fmt::format("{}, notes {}", title, page + 1 - pages.table),
                    schedulePaper(in, *b), b->name,
                    [in = in, id = b->id, number, page] { return panelSchedule(in, id, number, page); });
        }
        composeInto(sheets, Series::Schedules, first);
        bind(std::move(sheets));
    }
};

} // namespace

std::vector<SheetEntry> sheetSet(const SheetInput& in) { return SetMaker(in).made(); }

std::vector<SheetLeftOut> sheetsLeftOut(const SheetInput& in) {
    std::vector<SheetLeftOut> out;
    for (const SheetNumber& s : in.project.sheetNumbers) {
        const bool there = !s.about || in.project.boards.has(s.about.as<Board>()) ||
                           in.project.levels.has(s.about.as<Level>()) ||
                           in.project.composedSheets.has(s.about.as<ComposedSheet>());
        if (s.left && there) out.push_back({s.of, s.about, titleOf(in, {s.of, s.about})});
    }
    return out;
}

} // namespace lintel
