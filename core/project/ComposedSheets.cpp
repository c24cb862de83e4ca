#include "core/project/ComposedSheets.h"

#include "core/project/FreshId.h"

#include <algorithm>

namespace lintel {

ShownThing shownBy(const PlacedView& view) {
    return {view.shows, view.about, view.shows == SheetKind::List ? view.text : std::string()};
}

bool standsForSheet(const PlacedView& v) {
    return v.shows != SheetKind::Notes && v.shows != SheetKind::Legend && v.shows != SheetKind::Picture &&
           v.cropFrom == v.cropTo;
}

PlacedThings::PlacedThings(const Project& p) {
    for (const PlacedView& v : p.placedViews)
        if (standsForSheet(v) && p.composedSheets.has(v.sheet)) views.emplace(shownBy(v), &v);
}

const PlacedView* PlacedThings::find(const ShownThing& thing) const {
    const auto it = views.find(thing);
    return it == views.end() ? nullptr : it->second;
}

bool isThere(const Project& p, const PlacedView& view) {
    return !view.about || p.boards.has(view.about.as<Board>()) || p.levels.has(view.about.as<Level>()) ||
           p.deviceTypes.has(view.about.as<DeviceType>());
}

std::vector<const PlacedView*> viewsOn(const Project& p, ComposedSheetId sheet) {
    std::vector<const PlacedView*> out;
    for (const PlacedView& v : p.placedViews)
        if (v.sheet == sheet) out.push_back(&v);
    return out;
}

ComposedSheetId addComposedSheet(Project& p, SheetPaper paper) {
    ComposedSheet sheet;
    sheet.paper = paper;
    return addFresh(p, &Project::composedSheets, std::move(sheet));
}

PlacedViewId placeView(Project& p, ComposedSheetId sheet, const ShownThing& thing) {
    if (!p.composedSheets.has(sheet)) return {};
    PlacedView view;
    view.sheet = sheet;
    view.shows = thing.kind;
    view.about = thing.about;
    view.text = thing.text;
    std::vector<PlacedViewId> before;
    for (const PlacedView& v : p.placedViews)
        if (standsForSheet(view) && standsForSheet(v) && shownBy(v) == thing) before.push_back(v.id);
    for (PlacedViewId id : before) p.placedViews.remove(id);
    return p.placedViews.add(std::move(view));
}

PlacedViewId placePart(Project& p, ComposedSheetId sheet, const ShownThing& plan, Point from, Point to,
                       const std::string& title) {
    if (!p.composedSheets.has(sheet)) return {};
    PlacedView view;
    view.sheet = sheet;
    view.shows = plan.kind;
    view.about = plan.about;
    view.cropFrom = from;
    view.cropTo = to;
    view.title = title;
    return p.placedViews.add(std::move(view));
}

namespace {
void letGo(PlacedView& view) {
    view.moved = false;
    view.at = {};
    view.page = 1;
}
} // namespace

void sendTo(Project& p, PlacedViewId id, ComposedSheetId sheet) {
    const PlacedView* view = p.placedViews.find(id);
    if (!view || !p.composedSheets.has(sheet) || view->sheet == sheet) return;
    PlacedView moved = *view; // the last on its new sheet
    moved.sheet = sheet;
    letGo(moved);
    p.placedViews.remove(id);
    moved.id = {};
    p.placedViews.add(std::move(moved));
}

void moveView(Project& p, PlacedViewId id, Point at, int page) {
    PlacedView* view = p.placedViews.change(id);
    if (!view) return;
    view->moved = true;
    view->at = at;
    view->page = page;
}

void letGo(Project& p, PlacedViewId id) {
    if (PlacedView* view = p.placedViews.change(id)) letGo(*view);
}

void arrangeAnew(Project& p, ComposedSheetId sheet) {
    std::vector<PlacedViewId> moved;
    for (const PlacedView& v : p.placedViews)
        if (v.sheet == sheet && v.moved) moved.push_back(v.id);
    for (PlacedViewId id : moved) letGo(p, id);
}

void takeOff(Project& p, PlacedViewId view) { p.placedViews.remove(view); }

void endComposedSheet(Project& p, ComposedSheetId sheet) {
    std::vector<PlacedViewId> views;
    for (const PlacedView* v : viewsOn(p, sheet)) views.push_back(v->id);
    for (PlacedViewId id : views) takeOff(p, id);
    p.composedSheets.remove(sheet);
    const SheetKey key{SheetKind::Composed, sheet};
    if (p.issues.empty()) (void)numberSheet(p, key, "");
    (void)titleSheet(p, key, "");
    leaveOut(p, key, false);
}

} // namespace lintel
