// The list of assumptions as sheets, with a box to tick for each: for who checks the design.

#include "core/check/Assumptions.h"
#include "core/drawing/Paper.h"
#include "core/drawing/TextWidth.h"

#include <algorithm>
#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double margin = 16, row = 10.4;

struct Pages {
    const SheetInput& in;
    std::size_t first; ///< number of the first
    std::vector<Drawing> all{};
    double y = 0;

    Drawing& page() { return all.back(); }
    double entered() const { return margin + 88; }
    double otherwise() const { return margin + 121; }
    void begin() {
        Drawing d;
        d.title = "Assumptions";
        d.number = fmt::format("E-{}", first + all.size());
        d.paper = in.book.trade.papers.text;
        const PaperSize size = paperSize(d.paper);
        d.width = size.width, d.height = size.height;
        const Basis& b = in.project.basis;
        d.text({margin, 17}, "ASSUMPTIONS", 3.2, Align::Left, true);
        std::string right = b.title;
        if (!b.jobNumber.empty()) right += " · " + b.jobNumber;
        right += " · issue " + b.issue;
        d.text({d.width - margin, 17}, right, 2.7, Align::Right, false, Ink::Ink, 120);
        d.line({margin, 19.5}, {d.width - margin, 19.5}, 0.5);
        y = 25;
        d.text({margin + 13, y}, "What, where, why", 2.2, Align::Left, false, Ink::Quiet);
        d.text({entered(), y}, "It counts as", 2.2, Align::Left, false, Ink::Quiet);
        d.text({otherwise(), y}, "It would be", 2.2, Align::Left, false, Ink::Quiet);
        d.text({d.width - margin, y}, "Seen", 2.2, Align::Right, false, Ink::Quiet);
        all.push_back(std::move(d));
        y += 2.5;
    }
    void need(double height) {
        if (all.empty() || y + height > page().height - margin - 16) begin();
    }
    void heading(AssumptionKind kind, std::size_t count) {
        need(7 + row); // never alone at the foot of a page
        Drawing& d = page();
        d.fill(margin, y, d.width - 2 * margin, 6, Ink::Band);
        d.text({margin + 2, y + 4.2}, titleOf(kind), 2.9, Align::Left, true);
        d.text({margin + 26, y + 4.2}, meaningOf(kind), 2.4, Align::Left, false, Ink::Quiet);
        d.text({d.width - margin - 2, y + 4.2}, std::to_string(count), 2.4, Align::Right, false, Ink::Quiet);
        y += 6;
    }
    void add(const Assumption& a) {
        constexpr double left = 72, middle = 31, base = 4.4, step = 4;
        const double rest = paperSize(in.book.trade.papers.text).width - margin - 10 - otherwise();
        const std::string about =
            a.where + (a.why.empty() ? "" : " · " + a.why) + (a.setBy.empty() ? "" : " · set by " + a.setBy);
        const auto what = wrapText(a.what, left, 2.7, true), where = wrapText(about, left, 2.4),
                   counted = wrapText(a.entered, middle, 2.7, true), instead = wrapText(a.otherwise, rest, 2.5);
        const std::size_t lines =
            std::max({what.size() + where.size(), counted.size(), instead.size() + (a.hides ? 1 : 0), std::size_t(2)});
        const double height = row + step * double(lines - 2);
        need(height);
        Drawing& d = page();
        const auto put = [&](double x, double from, const std::vector<std::string>& texts, double size, bool bold,
                             Ink ink) {
            for (const std::string& line : texts) {
                d.text({x, y + from}, line, size, Align::Left, bold, ink);
                from += step;
            }
            return from;
        };
        d.text({margin + 2, y + base}, a.mark, 2.7, Align::Left, true);
        put(margin + 13, put(margin + 13, base, what, 2.7, true, Ink::Ink), where, 2.4, false, Ink::Quiet);
        put(entered(), base, counted, 2.7, true, Ink::Ink);
        const double after = put(otherwise(), base, instead, 2.5, false, Ink::Ink);
        if (a.hides)
            d.text({otherwise(), y + after}, "without it the result would be worse", 2.2, Align::Left, true,
                   Ink::Check);
        const double box = d.width - margin - 4;
        d.box(box, y + 2, 4, 4, 0.3);
        if (a.seen()) { // ticked, with who and when below
            d.line({box + 0.7, y + 4}, {box + 1.7, y + 5.2}, 0.4);
            d.line({box + 1.7, y + 5.2}, {box + 3.4, y + 2.7}, 0.4);
        }
        if (!a.seenBy.empty())
            d.text({d.width - margin, y + 8.9}, a.seen() ? a.seenBy + " " + a.seenOn : "changed since " + a.seenBy, 1.9,
                   Align::Right, false, a.seen() ? Ink::Quiet : Ink::Check, 26);
        d.line({margin, y + height}, {d.width - margin, y + height}, 0.12, Ink::Rule);
        y += height;
    }
};

} // namespace

std::vector<Drawing> assumptionSheets(const SheetInput& in, int first) {
    const CheckInput check{in.project, in.book, in.results};
    const auto all = assumptionsOf(check);
    if (all.empty()) return {};
    Pages pages{in, std::size_t(first)};
    pages.begin();
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (i == 0 || all[i].kind != all[i - 1].kind)
            pages.heading(all[i].kind, std::size_t(std::count_if(all.begin(), all.end(), [&](const Assumption& a) {
                              return a.kind == all[i].kind;
                          })));
        pages.add(all[i]);
    }
    for (std::size_t i = 0; i < pages.all.size(); ++i) {
        Drawing& d = pages.all[i];
        if (pages.all.size() > 1) d.title = fmt::format("Assumptions, {} of {}", i + 1, pages.all.size());
        footStrip(d, in, margin - 4);
    }
    return std::move(pages.all);
}

} // namespace lintel
