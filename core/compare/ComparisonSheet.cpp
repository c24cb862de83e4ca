#include "core/compare/ComparisonSheet.h"

#include "core/drawing/TextWidth.h"

namespace lintel {
namespace {

constexpr double margin = TextPages::margin, size = 2.9, step = 4.3, indent = 7;

struct Writer {
    TextPages& pages;

    /// Lines of one text; the first of them behind a mark.
    void line(const std::string& text, const std::string& mark, Ink ink) {
        const auto lines = wrapText(text, pages.width() - indent, size);
        pages.need(step * double(std::min<std::size_t>(lines.size(), 3)));
        for (std::size_t i = 0; i < lines.size(); ++i) {
            pages.need(step);
            if (i == 0) pages.page().text({margin + 2, pages.y}, mark, size, Align::Left, true, ink);
            pages.page().text({margin + indent, pages.y}, lines[i], size, Align::Left, false, ink);
            pages.y += step;
        }
        pages.y += 0.6;
    }
    void heading(const std::string& text) {
        pages.need(4 * step); // with the first of what it heads
        pages.y += 2.4;
        for (const std::string& one : wrapText(text, pages.width(), 3.5, true)) {
            pages.page().text({margin, pages.y}, one, 3.5, Align::Left, true);
            pages.y += 4.6;
        }
        pages.page().line({margin, pages.y - 3.2}, {pages.right(), pages.y - 3.2}, 0.13, Ink::Rule);
        pages.y += 1.4;
    }
};

} // namespace

std::vector<Drawing> comparisonSheets(const ProjectComparison& c, const std::string& between, const SheetHead& head) {
    TextPages pages("COMPARISON", "What has changed", head);
    pages.opened = [&pages] {
        pages.page().text({margin, pages.y}, "What has changed", 4.6, Align::Left, true);
        pages.y += 7;
    };
    pages.begin();
    pages.paragraph(between, Ink::Quiet);
    pages.paragraph(c.summary(), Ink::Ink, true);
    Writer w{pages};
    if (!c.nothing()) pages.paragraph("+ was entered; > follows from what was entered, here or elsewhere.", Ink::Quiet);
    for (const ChangeGroup& group : c.grouped()) {
        w.heading(group.name);
        for (const EnteredChange* e : group.entered) w.line(e->text(), "+", Ink::Ink);
        for (const FollowedChange* f : group.follows) w.line(f->text(), ">", Ink::Ink);
    }
    const auto snags = [&](const char* title, const std::vector<std::string>& list) {
        if (list.empty()) return;
        w.heading(title);
        for (const std::string& s : list) w.line(s, "–", Ink::Ink);
    };
    snags("New snags", c.newSnags);
    snags("Snags gone", c.gone);
    snags("Snags with other figures", c.otherwise);
    pages.finish(false);
    return std::move(pages.all);
}

} // namespace lintel
