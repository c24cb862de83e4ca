#pragma once
// A composed sheet: what each view on it looks like, where the views stand, and the pages that come of it. Views stand
// in rows from the upper left, in their order; a short one may stand under another within its row; those that somebody
// moved stay where they are, on their page, and others keep clear of them. What has no room goes on on a further page.
// All lengths in mm.

#include "core/sheets/Sheets.h"

namespace lintel {

/// What a view shows, cut to it. A list or a schedule that is higher than the sheet is several parts.
struct ViewParts {
    std::vector<Drawing> parts;
    std::string title;
    std::string scale;  ///< "1:100", "Not to scale"; empty: nothing is said of it
    bool named = false; ///< by a ring with its number and its title beneath; lists and notes have a heading
};
/// For a field of that size. No parts where there is nothing to show: its board is gone, a list has no rows.
ViewParts viewParts(const SheetInput& in, const PlacedView& view, double width, double height);
/// The title that a view has if nobody writes another.
std::string usualViewTitle(const SheetInput& in, const ShownThing& thing);

inline constexpr double viewsAcross = 6, viewsBelow = 8; ///< that views keep from each other

/// Where a part of a view stands.
struct ViewSpot {
    PlacedViewId view;
    std::size_t part = 0, page = 0;                  ///< from 0
    double left = 0, top = 0, width = 0, height = 0; ///< on the sheet
    double right() const { return left + width; }
    double bottom() const { return top + height; }
};
struct ViewSize {
    PlacedViewId view;
    std::size_t part = 0;
    double width = 0, height = 0;
    std::optional<Point> at{}; ///< where somebody put it, on the sheet
    std::size_t page = 0;      ///< and on which page of it, from 0
};
struct ViewField {
    double left, top, right, bottom;
};
/// Puts them into the field; each is there once, in the order given. Pages on which nothing would stand are left out. A
/// view that was put by hand goes on behind the others, on no page before its own.
std::vector<ViewSpot> layOutViews(const std::vector<ViewSize>& sizes, const ViewField& field);

/// The pages of a composed sheet, one at least, with border and title block. The place of each view is a hotspot.
struct ComposedPages {
    std::vector<Drawing> pages;
    std::vector<ViewSpot> spots;
    std::vector<std::string> troubles; ///< "LP-2 stands on LP-1", in words
};
ComposedPages composedPages(const SheetInput& in, ComposedSheetId sheet, const std::string& number);
/// Where views may stand on such a sheet.
ViewField viewField(const SheetInput& in, const ComposedSheet& sheet);
/// From where `PlacedView::at` is counted.
Point fieldCorner(const SheetInput& in, const ComposedSheet& sheet);
/// The view stands there from now on, mm on the sheet, and all others on that page (from 0) where they are: whoever
/// places one by hand does not want the rest to move. `project` is that of `in`, or a copy of it.
void moveByHand(const SheetInput& in, Project& project, PlacedViewId view, Point at, std::size_t page = 0);
/// "Panel schedules LP-1, LP-2, HM-1", unless somebody gave it a title.
std::string composedTitle(const SheetInput& in, ComposedSheetId sheet);

} // namespace lintel
