#pragma once
// Sheets that somebody puts together from views: making and ending one, putting a view on it, moving it, taking it off.
// What a view shows has no sheet of its own as long as it stands there. How views look and where they stand is for
// core/compose.

#include "core/project/SheetNumbers.h"

namespace lintel {

/// What a view shows; `text` is the key of a list, else nothing. Two notes are never the same.
struct ShownThing {
    SheetKind kind = SheetKind::Schedule;
    Ref about{};
    std::string text{};
    auto operator<=>(const ShownThing&) const = default;
};
ShownThing shownBy(const PlacedView& view);

/// Whether what it shows has no sheet of its own: not so of notes, legends and pictures, and of a part of a plan.
bool standsForSheet(const PlacedView& view);

/// Which view shows what, on the sheets that are there.
class PlacedThings {
public:
    explicit PlacedThings(const Project& project);
    /// Null: it stands on no composed sheet. Of two views of one thing, as two people may have placed it, the first.
    const PlacedView* find(const ShownThing& thing) const;
    bool has(const ShownThing& thing) const { return find(thing) != nullptr; }

private:
    std::map<ShownThing, const PlacedView*> views;
};

/// Whether the board or level that it shows is still there.
bool isThere(const Project& project, const PlacedView& view);
/// In their order, with those of which the board or level is gone.
std::vector<const PlacedView*> viewsOn(const Project& project, ComposedSheetId sheet);

ComposedSheetId addComposedSheet(Project& project, SheetPaper paper = SheetPaper::Usual);
/// Puts it on the sheet, behind the views that are there and in the first free place; taken from the composed sheet on
/// which it stood. Notes bring their text, one a line, pictures their file (PNG, JPEG, SVG), by its path from the
/// project's. Nothing where there is no such sheet.
PlacedViewId placeView(Project& project, ComposedSheetId sheet, const ShownThing& thing);
/// A part of a floor, by two corners in m; the plan keeps its own sheet.
PlacedViewId placePart(Project& project, ComposedSheetId sheet, const ShownThing& plan, Point from, Point to,
                       const std::string& title);
/// The view goes to another sheet, into the first free place there.
void sendTo(Project& project, PlacedViewId view, ComposedSheetId sheet);
/// It stands there from now on; mm from the upper left corner of the field; `page` of the sheet, from 1. Others find
/// their places around it.
void moveView(Project& project, PlacedViewId view, Point at, int page = 1);
/// It goes back to the first free place.
void letGo(Project& project, PlacedViewId view);
/// All views of the sheet go to the first free places, in their order.
void arrangeAnew(Project& project, ComposedSheetId sheet);
/// What it showed has a sheet of its own again, or stands among the lists.
void takeOff(Project& project, PlacedViewId view);
/// Ends the sheet: its views are taken off. Where a set was issued, no other sheet takes its number.
void endComposedSheet(Project& project, ComposedSheetId sheet);

} // namespace lintel
