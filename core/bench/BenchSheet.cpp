#include "core/bench/BenchSheet.h"

namespace lintel {
namespace {

constexpr double margin = TextPages::margin, size = workingSize, leading = workingLeading;

void putFigures(TextPages& pages, const std::vector<BenchFigure>& all) {
    std::vector<BenchFigure> list;
    for (const BenchFigure& f : all)
        if (!f.label.empty()) list.push_back(f);
    const double half = pages.width() / 2;
    for (std::size_t i = 0; i < list.size(); i += 2) {
        pages.need(leading + 1);
        for (std::size_t k = 0; k < 2 && i + k < list.size(); ++k) {
            const double x = margin + double(k) * half;
            pages.page().text({x, pages.y}, list[i + k].label, size, Align::Left, false, Ink::Quiet, 44);
            pages.page().text({x + 46, pages.y}, list[i + k].text, size + 0.2, Align::Left, i + k < 3, Ink::Ink,
                              half - 49);
        }
        pages.y += leading + 0.6;
    }
    pages.y += 3;
}

void putRows(TextPages& pages, const std::vector<std::string>& columns,
             const std::vector<std::vector<std::string>>& list) {
    if (list.empty()) return;
    const double first = 62, rest = (pages.width() - first) / double(std::max<std::size_t>(1, columns.size() - 1));
    const auto put = [&](const std::vector<std::string>& row, Ink ink) {
        for (std::size_t i = 0; i < row.size(); ++i)
            pages.page().text({i == 0 ? margin : margin + first + rest * double(i), pages.y}, row[i], size - 0.1,
                              i == 0 ? Align::Left : Align::Right, false, ink, i == 0 ? first - 2 : rest - 1.5);
    };
    pages.need(leading * 2);
    put(columns, Ink::Quiet);
    pages.page().line({margin, pages.y + 1.4}, {pages.right(), pages.y + 1.4}, 0.25, Ink::Rule);
    pages.y += leading + 0.8;
    for (const auto& row : list) {
        pages.need(leading);
        put(row, Ink::Ink);
        pages.y += leading;
    }
    pages.y += 3;
}

void putCautions(TextPages& pages, const std::vector<std::string>& list) {
    for (const std::string& c : list) pages.paragraph("! " + c, Ink::Stop);
    if (!list.empty()) pages.y += 2;
}

} // namespace

std::vector<Drawing> workingSheets(const BenchAnswer& a, const SheetHead& head) {
    TextPages pages = workingPages(a.working, head);
    beginWorking(pages, a.working.title);
    putFigures(pages, a.figures);
    putRows(pages, a.columns, a.rows);
    putCautions(pages, a.cautions);
    putSteps(pages, a.working.steps);
    pages.finish(true);
    return std::move(pages.all);
}

} // namespace lintel
