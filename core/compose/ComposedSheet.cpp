#include "core/compose/ComposedSheet.h"

#include "core/base/Parallel.h"
#include "core/base/TextFile.h"
#include "core/drawing/Paper.h"
#include "core/drawing/PlaceDrawing.h"
#include "core/drawing/TextWidth.h"
#include "core/lists/ListForms.h"
#include "core/project/SheetNumbers.h"
#include "core/sheets/BoardDiagram.h"
#include "core/sheets/PageNumber.h"
#include "core/sheets/PictureBox.h"
#include "core/sheets/PlanLegend.h"
#include "core/sheets/TitleBlock.h"
#include "core/sheets/TypeCard.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace lintel {
namespace {

constexpr double edge = 6, across = viewsAcross, below = viewsBelow; ///< of the field within the border
constexpr double captionRoom = 14;                                   ///< beneath a view that is named
constexpr double diagramWidth = 400, notesWidth = 90, pictureWidth = 120;

struct SheetSize {
    std::string paper;
    double width, height;
};
SheetSize sizeOf(const SheetInput& in, const ComposedSheet& sheet) {
    SheetSize s{sheet.paper == SheetPaper::Usual ? in.book.trade.papers.drawing : wordOf(sheet.paper), 0, 0};
    const PaperSize size = paperSize(s.paper);
    s.width = std::max(size.width, size.height); // on its side
    s.height = std::min(size.width, size.height);
    return s;
}

/// An empty sheet with its paper and size.
Drawing blank(const SheetInput& in, const ComposedSheet& sheet) {
    const SheetSize size = sizeOf(in, sheet);
    Drawing d;
    d.paper = size.paper;
    d.width = size.width;
    d.height = size.height;
    return d;
}

std::optional<List> listOf(const SheetInput& in, const std::string& key) {
    const ListKind* kind = listKind(key);
    if (!kind) return std::nullopt;
    return formedList(in, *kind);
}

/// Notes, numbered, each a line of the text.
Drawing notesDrawing(const std::string& heading, const std::string& text, double width) {
    constexpr double title = 4.6, size = 3.3, step = 4.6, indent = 7;
    Drawing d;
    d.title = heading;
    d.width = width;
    double y = 5;
    d.text({0, y}, heading, title, Align::Left, true);
    y += 7;
    int n = 0;
    for (std::size_t from = 0; from <= text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        const std::string note = text.substr(from, end - from);
        from = end + 1;
        if (note.find_first_not_of(" \t\r") == std::string::npos) continue;
        d.text({0, y}, std::to_string(++n), size);
        for (const std::string& line : wrapText(note, width - indent, size)) {
            d.text({indent, y}, line, size);
            y += step;
        }
        y += 1.2;
    }
    if (n == 0) d.text({0, y}, "No note is written yet.", size, Align::Left, false, Ink::Quiet);
    d.height = std::max(y, 16.0);
    return d;
}

/// The symbols of what stands on the plans.
Drawing legendDrawing(const SheetInput& in, const std::string& title, double width) {
    Drawing d;
    d.title = title;
    d.width = width;
    d.height = planLegend(d, in, {}, {0, width, -3}) + 1;
    return d;
}

Drawing pictureDrawing(const SheetInput& in, const std::string& file, double width, double height) {
    Drawing d;
    d.title = file;
    d.width = width;
    d.height = std::min(height, width * 0.75); // the picture is as large as this holds it
    d.marks.push_back(pictureIn(in, file, {0, 0}, d.width, d.height));
    return d;
}

PlanSystem systemOf(SheetKind kind) {
    return kind == SheetKind::Lighting ? PlanSystem::Lighting
           : kind == SheetKind::Power  ? PlanSystem::Power
                                       : PlanSystem::All;
}

} // namespace

std::string usualViewTitle(const SheetInput& in, const ShownThing& thing) {
    const Board* b = in.project.boards.find(thing.about.as<Board>());
    const std::string name = b ? b->name : std::string();
    const auto usual = [&]() -> std::string {
        switch (thing.kind) {
        case SheetKind::Plan:
        case SheetKind::Lighting:
        case SheetKind::Power:
            return planTitle(in.project, thing.about.as<Level>(), systemOf(thing.kind));
        case SheetKind::Diagram:
            return "Diagram " + name;
        case SheetKind::Riser:
            return "Riser diagram";
        case SheetKind::OneLine:
            return "One-line diagram";
        case SheetKind::Schedule:
            return in.book.word(TradeWord::Schedule) + " " + name;
        case SheetKind::Composed:
            return "Composed sheet";
        case SheetKind::List:
            if (const auto list = listOf(in, thing.text)) return list->title;
            return thing.text;
        case SheetKind::Notes:
            return "General notes";
        case SheetKind::Legend:
            return "Legend";
        case SheetKind::Picture:
            return "Picture";
        case SheetKind::CutSheet:
            return "Cut sheet " + (in.project.deviceTypes.has(thing.about.as<DeviceType>())
                                       ? nameOf(in.project, thing.about)
                                       : std::string());
        }
        return name;
    };
    return sheetTitle(in.project, {thing.kind, thing.about}, usual());
}

ViewParts viewParts(const SheetInput& in, const PlacedView& v, double width, double height) {
    ViewParts out;
    if (!isThere(in.project, v)) return out;
    const bool isList = v.shows == SheetKind::List; // called by what it says of itself, once it is worked out
    out.title = !v.title.empty() ? v.title : isList ? v.text : usualViewTitle(in, shownBy(v));
    out.named = v.shows < SheetKind::Composed || (v.shows == SheetKind::Picture && !v.title.empty());
    const double high = out.named ? height - captionRoom : height;
    const auto wide = [&](double usual) { return std::min(width, v.width > 0 ? v.width : usual); };
    switch (v.shows) {
    case SheetKind::Plan:
    case SheetKind::Lighting:
    case SheetKind::Power: {
        FloorView plan =
            planOnSheet(in, {v.about.as<Level>(), systemOf(v.shows), v.scale, v.cropFrom, v.cropTo}, wide(width), high);
        out.scale = plan.scale;
        out.parts.push_back(std::move(plan.drawing));
        break;
    }
    case SheetKind::Diagram:
        out.parts.push_back(boardDiagramBare(in, v.about.as<Board>(), wide(diagramWidth)));
        if (out.parts.back().height <= 0) out.parts.clear();
        break;
    case SheetKind::Riser:
    case SheetKind::OneLine:
        out.scale = "Not to scale";
        out.parts.push_back(
            riserBare(in, v.shows == SheetKind::Riser ? RiserLayout::ByFloor : RiserLayout::OneLine, wide(width)));
        break;
    case SheetKind::Schedule:
        out.parts = panelScheduleParts(in, v.about.as<Board>(), high);
        break;
    case SheetKind::List:
        if (auto list = listOf(in, v.text)) {
            if (!v.title.empty()) list->title = v.title;
            out.title = list->title;
            if (!list->rows.empty()) out.parts = listParts(*list, wide(width), high);
        }
        break;
    case SheetKind::Notes:
        out.parts.push_back(notesDrawing(out.title, v.text, wide(notesWidth)));
        break;
    case SheetKind::Legend:
        out.parts.push_back(legendDrawing(in, out.title, wide(notesWidth)));
        break;
    case SheetKind::Picture:
        out.parts.push_back(pictureDrawing(in, v.text, wide(pictureWidth), high));
        break;
    case SheetKind::CutSheet:
        out.parts.push_back(typeCard(in, v.about.as<DeviceType>(), wide(typeCardWidth)));
        break;
    case SheetKind::Composed:
        break;
    }
    return out;
}

namespace {

/// Fills pages row by row.
class Rows {
public:
    Rows(const ViewField& f, const std::vector<ViewSpot>& movedOnes) : field(f), moved(movedOnes) { beginPage(); }

    /// On no page before `from`.
    ViewSpot place(const ViewSize& size, std::size_t from = 0) {
        while (page < from) {
            ++page;
            beginPage();
        }
        ViewSpot spot{size.view, size.part, page, 0, 0, size.width, size.height};
        if (underLast(spot)) return took(spot, false);
        while (!inRow(spot)) {
            const bool rowUsed = rowBottom > rowTop;
            const double next = rowUsed ? rowBottom + below : lowestBelow(rowTop);
            if (next + size.height <= field.bottom) {
                beginRow(next);
            } else if (used) {
                ++page;
                beginPage();
            } else { // larger than an empty sheet: it is shown all the same
                spot.left = field.left;
                spot.top = field.top;
                break;
            }
        }
        spot.page = page;
        return took(spot, true);
    }

private:
    const ViewField& field;
    const std::vector<ViewSpot>& moved;
    std::size_t page = 0;
    double rowTop = 0, rowBottom = 0, nextX = 0;
    ViewSpot last{}; ///< the one under which a short one may stand
    double columnWidth = 0;
    bool used = false; ///< something stands on this page

    void beginPage() {
        used = std::any_of(moved.begin(), moved.end(), [&](const ViewSpot& m) { return m.page == page; });
        beginRow(field.top);
    }
    void beginRow(double top) {
        rowTop = rowBottom = top;
        nextX = field.left;
        columnWidth = 0;
    }
    const ViewSpot* inTheWay(const ViewSpot& spot) const {
        for (const ViewSpot& m : moved)
            if (m.page == page && spot.left < m.right() + across && m.left < spot.right() + across &&
                spot.top < m.bottom() + below && m.top < spot.bottom() + below)
                return &m;
        return nullptr;
    }
    /// Where a row could begin below this one, though nothing stands in it: under the next moved view.
    double lowestBelow(double top) const {
        double next = 1e9;
        for (const ViewSpot& m : moved)
            if (m.page == page && m.bottom() + below > top) next = std::min(next, m.bottom() + below);
        return next;
    }
    bool underLast(ViewSpot& spot) const {
        spot.left = last.left;
        spot.top = last.bottom() + below;
        return columnWidth > 0 && spot.width <= columnWidth && spot.bottom() <= rowBottom && !inTheWay(spot);
    }
    bool inRow(ViewSpot& spot) const {
        spot.left = nextX;
        spot.top = rowTop;
        while (const ViewSpot* m = inTheWay(spot)) spot.left = m->right() + across;
        return spot.right() <= field.right && spot.bottom() <= field.bottom;
    }
    ViewSpot took(const ViewSpot& spot, bool newColumn) {
        if (newColumn) {
            columnWidth = spot.width;
            nextX = spot.right() + across;
            rowBottom = std::max(rowBottom, spot.bottom());
        }
        last = spot;
        used = true;
        return spot;
    }
};

/// Leaves out the pages on which nothing stands.
void closeUp(std::vector<ViewSpot>& spots) {
    std::set<std::size_t> inUse;
    for (const ViewSpot& s : spots) inUse.insert(s.page);
    for (ViewSpot& s : spots) s.page = std::size_t(std::distance(inUse.begin(), inUse.find(s.page)));
}

} // namespace

std::vector<ViewSpot> layOutViews(const std::vector<ViewSize>& sizes, const ViewField& field) {
    std::vector<ViewSpot> moved;
    std::map<PlacedViewId, std::size_t> pageOfMoved;
    for (const ViewSize& s : sizes) {
        if (!s.at) continue;
        moved.push_back({s.view, s.part, s.page, s.at->x, s.at->y, s.width, s.height});
        pageOfMoved[s.view] = s.page;
    }
    Rows rows(field, moved);
    std::vector<ViewSpot> all(sizes.size());
    std::vector<std::size_t> goOn; ///< what views that were moved go on with
    auto nextMoved = moved.begin();
    for (std::size_t i = 0; i < sizes.size(); ++i)
        if (sizes[i].at)
            all[i] = *nextMoved++;
        else if (pageOfMoved.count(sizes[i].view))
            goOn.push_back(i);
        else
            all[i] = rows.place(sizes[i]);
    std::stable_sort(goOn.begin(), goOn.end(), [&](std::size_t a, std::size_t b) {
        return pageOfMoved.at(sizes[a].view) < pageOfMoved.at(sizes[b].view);
    });
    for (const std::size_t i : goOn) all[i] = rows.place(sizes[i], pageOfMoved.at(sizes[i].view));
    closeUp(all);
    return all;
}

ViewField viewField(const SheetInput& in, const ComposedSheet& sheet) {
    const SheetFrame f = sheetFrame(blank(in, sheet), in);
    return {f.left + edge, f.top + edge, f.right - edge, f.bottom - edge};
}

Point fieldCorner(const SheetInput& in, const ComposedSheet& sheet) {
    const SheetFrame f = sheetFrame(blank(in, sheet), in);
    return {f.left, f.top};
}

std::string composedTitle(const SheetInput& in, ComposedSheetId sheet) {
    const auto usual = [&]() -> std::string {
        constexpr std::size_t longest = 48;
        std::string boards;
        std::size_t listed = 0;
        std::vector<const PlacedView*> views;
        for (const PlacedView* v : viewsOn(in.project, sheet))
            if (isThere(in.project, *v)) views.push_back(v);
        if (views.empty()) return "Composed sheet";
        // It is not called after what only goes with the others.
        std::stable_partition(views.begin(), views.end(), [](const PlacedView* v) {
            return v->shows != SheetKind::Legend && v->shows != SheetKind::Notes && v->shows != SheetKind::Picture;
        });
        const auto all = [&](SheetKind kind) {
            return std::all_of(views.begin(), views.end(), [&](const PlacedView* v) { return v->shows == kind; });
        };
        const auto titleOf = [&](const PlacedView& v) {
            return v.title.empty() ? usualViewTitle(in, shownBy(v)) : v.title;
        };
        if (views.size() == 1) return titleOf(*views.front());
        if (!all(SheetKind::Schedule)) {
            const char* more = all(SheetKind::List) ? "list" : "view";
            return titleOf(*views.front()) + (views.size() == 2
                                                  ? fmt::format(" and one more {}", more)
                                                  : fmt::format(" and {} more {}s", views.size() - 1, more));
        }
        for (const PlacedView* v : views) {
            const std::string& name = in.project.boards[v->about.as<Board>()].name;
            if (listed > 0 && boards.size() + name.size() > longest) break;
            boards += (listed ? ", " : "") + name;
            ++listed;
        }
        if (listed < views.size()) boards += fmt::format(" and {} more", views.size() - listed);
        return in.book.word(TradeWord::Schedules) + " " + boards;
    };
    return sheetTitle(in.project, {SheetKind::Composed, sheet}, usual());
}

namespace {

/// A ring with the view's number, its title and what is to be said of its scale.
void caption(Drawing& d, const ViewSpot& spot, int number, const ViewParts& view) {
    constexpr double radius = 4, size = 4.6;
    const Point at{spot.left + radius, spot.bottom() - captionRoom + 6.5};
    d.marks.push_back(CircleMark{at, radius, 0.35, Ink::Ink, false});
    d.text({at.x, at.y + 1.7}, std::to_string(number), size, Align::Centre, true, Ink::Ink, radius * 1.7);
    const double x = at.x + radius + 3;
    const double room = spot.right() - x;
    std::string title = view.title;
    if (spot.part > 0) title += ", continued";
    d.text({x, at.y - 1.2}, title, size, Align::Left, true, Ink::Ink, room);
    d.line({x, at.y}, {std::min(spot.right(), x + std::max(60.0, textWidth(title, size, true) + 10)), at.y}, 0.5);
    if (!view.scale.empty()) d.text({x, at.y + 4.2}, view.scale, 2.8, Align::Left, false, Ink::Quiet);
}

/// What stands on another view, or reaches over the border.
std::vector<std::string> troublesOf(const std::vector<ViewSpot>& spots, const std::map<PlacedViewId, ViewParts>& views,
                                    const ViewField& field) {
    constexpr double hair = 0.5;
    std::vector<std::string> out;
    const auto name = [&](const ViewSpot& s) { return views.at(s.view).title; };
    const double outer = edge;
    for (std::size_t i = 0; i < spots.size(); ++i) {
        const ViewSpot& s = spots[i];
        if (s.left < field.left - outer - hair || s.top < field.top - outer - hair ||
            s.right() > field.right + outer + hair || s.bottom() > field.bottom + outer + hair)
            out.push_back(fmt::format("{} reaches over the border", name(s)));
        for (std::size_t k = 0; k < i; ++k) {
            const ViewSpot& o = spots[k];
            if (o.page == s.page && s.left < o.right() - hair && o.left < s.right() - hair &&
                s.top < o.bottom() - hair && o.top < s.bottom() - hair)
                out.push_back(fmt::format("{} stands on {}", name(s), name(o)));
        }
    }
    return out;
}

} // namespace

ComposedPages composedPages(const SheetInput& in, ComposedSheetId id, const std::string& number) {
    const ComposedSheet& sheet = in.project.composedSheets[id];
    const ViewField field = viewField(in, sheet);
    const Point corner = fieldCorner(in, sheet);
    std::map<PlacedViewId, ViewParts> views;
    std::map<PlacedViewId, int> numbers;
    std::vector<ViewSize> sizes;
    std::string scale = "None";
    std::set<std::string> scales;
    ComposedPages out;
    const std::vector<const PlacedView*> all = viewsOn(in.project, id);
    for (const PlacedView* v : all) views[v->id]; // each has its place before several threads fill them
    const bool plans = std::any_of(all.begin(), all.end(), [](const PlacedView* v) {
        return v->shows < SheetKind::Diagram; // what lies beneath them is fetched on one thread
    });
    inParts(all.size(), !plans && in.project.circuits.size() >= manyCircuits,
            [&](std::size_t, std::size_t from, std::size_t to) {
                for (std::size_t i = from; i < to; ++i)
                    views.at(all[i]->id) = viewParts(in, *all[i], field.right - field.left, field.bottom - field.top);
            });
    for (const PlacedView* v : all) {
        const ViewParts& parts = views.at(v->id);
        if (parts.parts.empty()) {
            out.troubles.push_back(
                isThere(in.project, *v)
                    ? fmt::format("{} has nothing to show", parts.title)
                    : fmt::format("a view \"{}\" shows what is gone: take it off", wordOf(v->shows)));
            continue;
        }
        if (parts.named) numbers[v->id] = int(numbers.size()) + 1;
        if (!parts.scale.empty() && parts.scale != "Not to scale") scales.insert(parts.scale);
        for (std::size_t i = 0; i < parts.parts.size(); ++i) {
            const Drawing& d = parts.parts[i];
            sizes.push_back({v->id, i, d.width, d.height + (parts.named ? captionRoom : 0),
                             v->moved && i == 0 ? std::optional(v->at + corner) : std::nullopt,
                             std::size_t(v->page - 1)});
        }
    }
    if (scales.size() == 1) scale = *scales.begin();
    if (scales.size() > 1) scale = "As shown";
    out.spots = layOutViews(sizes, field);
    const std::string title = composedTitle(in, id);
    std::size_t pages = 1;
    for (const ViewSpot& s : out.spots) pages = std::max(pages, s.page + 1);
    for (std::size_t page = 0; page < pages; ++page) {
        Drawing d = blank(in, sheet);
        d.title = title + (page == 0 ? "" : fmt::format(", sheet {}", page + 1));
        d.number = pageNumber(number, page);
        for (const ViewSpot& s : out.spots) {
            if (s.page != page) continue;
            const ViewParts& view = views.at(s.view);
            d.hotspots.push_back({s.view, s.left, s.top, s.right(), s.bottom(), int(s.part)});
            placeDrawing(d, view.parts[s.part], 1, {s.left, s.top});
            d.on(Layer::Sheet);
            if (view.named) caption(d, s, numbers.at(s.view), view);
        }
        titleBlock(d, in, scale);
        out.pages.push_back(std::move(d));
    }
    const auto more = troublesOf(out.spots, views, field);
    out.troubles.insert(out.troubles.end(), more.begin(), more.end());
    return out;
}

void moveByHand(const SheetInput& in, Project& p, PlacedViewId view, Point at, std::size_t page) {
    const PlacedView* v = p.placedViews.find(view); // it may have been placed just now
    if (!v || !in.project.composedSheets.has(v->sheet)) return;
    const Point corner = fieldCorner(in, in.project.composedSheets[v->sheet]);
    for (const ViewSpot& s : composedPages(in, v->sheet, "").spots)
        if (s.page == page && s.part == 0 && s.view != view)
            moveView(p, s.view, Point{s.left, s.top} - corner, int(page) + 1);
    moveView(p, view, at - corner, int(page) + 1);
}

} // namespace lintel
