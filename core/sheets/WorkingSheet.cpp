#include "core/sheets/WorkingSheet.h"

#include "core/drawing/TextWidth.h"

namespace lintel {
namespace {

constexpr double margin = TextPages::margin, size = workingSize, leading = workingLeading;

} // namespace

TextPages workingPages(const Working& w, const SheetHead& head) { return {"WORKING", w.title, head}; }
void beginWorking(TextPages& pages, const std::string& title) {
    pages.opened = [&pages, title] {
        pages.page().text({margin, pages.y}, title, 4.6, Align::Left, true, Ink::Ink, pages.width());
        pages.y += 8;
    };
    pages.begin();
}

void putSteps(TextPages& pages, const std::vector<WorkingStep>& steps) {
    constexpr double step = 3.9, ruleSize = 2.2, valueRoom = 32, ruleRoom = 26, gap = 2;
    constexpr double whatAt = margin + 3, formulaAt = margin + 40;
    const double right = pages.right(), valueAt = right - ruleRoom - gap;
    const auto headings = [&] {
        Drawing& d = pages.page();
        d.text({whatAt, pages.y}, "Step", ruleSize, Align::Left, false, Ink::Quiet);
        d.text({formulaAt, pages.y}, "With the numbers", ruleSize, Align::Left, false, Ink::Quiet);
        d.text({valueAt, pages.y}, "Result", ruleSize, Align::Right, false, Ink::Quiet);
        d.text({right, pages.y}, "Rule", ruleSize, Align::Right, false, Ink::Quiet);
        d.line({margin, pages.y + 1.4}, {right, pages.y + 1.4}, 0.25, Ink::Rule);
        pages.y += leading + 1;
    };
    pages.need(20);
    headings();
    for (const WorkingStep& s : steps) {
        const auto whats = wrapText(s.what, formulaAt - whatAt - 1, size - 0.1, s.governs),
                   formulas = wrapText(s.formula, valueAt - formulaAt - valueRoom - gap, size - 0.1),
                   values = wrapText(s.value, valueRoom, size - 0.1, s.governs),
                   rules = wrapText(s.cited, ruleRoom, ruleSize);
        const std::size_t n = std::max({whats.size(), formulas.size(), values.size(), rules.size()});
        const double height = double(n) * step + 1.3;
        const std::size_t before = pages.all.size();
        pages.need(height);
        if (pages.all.size() != before) headings();
        Drawing& d = pages.page();
        if (s.governs) {
            d.fill(margin, pages.y - 3.4, pages.width(), height - 0.3, Ink::Wash);
            d.fill(margin, pages.y - 3.4, 1, height - 0.3, Ink::Accent);
        }
        const auto column = [&](const std::vector<std::string>& lines, double x, double lettering, Align align,
                                bool bold, Ink ink) {
            for (std::size_t i = 0; i < lines.size(); ++i)
                d.text({x, pages.y + double(i) * step}, lines[i], lettering, align, bold, ink);
        };
        column(whats, whatAt, size - 0.1, Align::Left, s.governs, Ink::Ink);
        column(formulas, formulaAt, size - 0.1, Align::Left, false, Ink::Ink);
        column(values, valueAt, size - 0.1, Align::Right, s.governs, Ink::Ink);
        column(rules, right, ruleSize, Align::Right, false, Ink::Quiet);
        pages.y += height;
    }
}

std::vector<Drawing> workingSheets(const Working& w, const SheetHead& head) {
    TextPages pages = workingPages(w, head);
    beginWorking(pages, w.title);
    putSteps(pages, w.steps);
    pages.finish(true);
    return std::move(pages.all);
}

} // namespace lintel
