#include "core/compose/CutSheets.h"

#include "core/compose/ComposedSheet.h"
#include "core/drawing/Paper.h"
#include "core/drawing/PlaceDrawing.h"
#include "core/lists/List.h"
#include "core/project/ComposedSheets.h"
#include "core/sheets/TitleBlock.h"
#include "core/sheets/TypeCard.h"

#include <fmt/format.h>

namespace lintel {

std::vector<Drawing> cutSheets(const SheetInput& in, int first) {
    const PlacedThings placed(in.project);
    std::vector<Drawing> cards;
    std::vector<ViewSize> sizes;
    for (DeviceTypeId type : typesWithCutSheet(in.project)) {
        if (placed.has({SheetKind::CutSheet, type, {}})) continue;
        cards.push_back(typeCard(in, type));
        sizes.push_back({{}, cards.size() - 1, cards.back().width, cards.back().height});
    }
    std::vector<Drawing> sheets;
    if (cards.empty()) return sheets;
    const auto begin = [&] {
        Drawing d;
        d.paper = in.book.trade.papers.drawing;
        const PaperSize size = paperSize(d.paper);
        d.width = size.width;
        d.height = size.height;
        d.number = fmt::format("E-{:03}", first + int(sheets.size()));
        d.title = pageTitle("Cut sheets", sheets.size());
        sheets.push_back(std::move(d));
    };
    begin();
    const SheetFrame f = sheetFrame(sheets.front(), in);
    constexpr double edge = 6;
    const ViewField field{f.left + edge, f.top + edge, f.right - edge, f.bottom - edge};
    // As large as all of them fit on one sheet; more than a sheet of them are as small as they come.
    double scale = 1;
    std::vector<ViewSpot> spots;
    for (const double larger : {1.6, 1.3, 1.0}) {
        scale = larger;
        std::vector<ViewSize> scaled = sizes;
        for (ViewSize& s : scaled) {
            s.width *= scale;
            s.height *= scale;
        }
        spots = layOutViews(scaled, field);
        if (spots.back().page == 0) break;
    }
    for (const ViewSpot& s : spots) {
        while (sheets.size() <= s.page) begin();
        placeDrawing(sheets[s.page], cards[s.part], scale, {s.left, s.top});
        sheets[s.page].on(Layer::Sheet);
    }
    for (Drawing& d : sheets) titleBlock(d, in, "None");
    return sheets;
}

} // namespace lintel
