#include "core/sheets/TextPages.h"

#include "core/drawing/Paper.h"
#include "core/drawing/TextWidth.h"
#include "core/sheets/Sheets.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double textSize = 2.6, lineStep = 4.4, footSize = 2.2;

std::string restsOn(const RuleBook& book) {
    std::string s = book.title;
    if (!book.overridden().empty()) s += " · own values of the project";
    if (!book.unverified().empty()) s += " · rule book with points not yet verified";
    return s;
}

std::string joined(const std::vector<std::string>& parts) {
    std::string all;
    for (const std::string& part : parts)
        if (!part.empty()) all += (all.empty() ? "" : " · ") + part;
    return all;
}

} // namespace

SheetHead sheetHead(const Project& p, const RuleBook& book) {
    SheetHead head = sheetHead(p.basis.title, p.basis.company, book);
    head.jobNumber = p.basis.jobNumber;
    head.designer = p.basis.designer;
    head.date = p.basis.issueDate;
    return head;
}
SheetHead sheetHead(const std::string& job, const std::string& company, const RuleBook& book) {
    return {job, "", company, "", "", restsOn(book), book.trade.papers.text};
}

TextPages::TextPages(std::string kind_, std::string title_, SheetHead head_)
    : kind(std::move(kind_)), title(std::move(title_)), head(std::move(head_)) {}

void TextPages::begin(bool onItsSide) {
    sideways = onItsSide;
    Drawing d;
    d.title = title;
    d.paper = head.paper;
    const PaperSize size = paperSize(head.paper);
    d.width = sideways ? size.height : size.width;
    d.height = sideways ? size.width : size.height;
    all.push_back(std::move(d));
    Drawing& p = page();
    constexpr double base = 17, size_ = 2.7;
    p.text({margin, base}, kind, 3.2, Align::Left, true);
    p.text({right(), base}, joined({head.job, head.jobNumber, head.company}), size_, Align::Right, false, Ink::Ink,
           width() - 55);
    p.line({margin, 19.5}, {right(), 19.5}, 0.5);
    y = 28;
    if (opened) opened();
}

void TextPages::paragraph(const std::string& text, Ink ink, bool bold) {
    for (const std::string& line : wrapText(text, width(), textSize, bold)) {
        need(lineStep);
        page().text({margin, y}, line, textSize, Align::Left, bold, ink);
        y += lineStep;
    }
}

void TextPages::finish(bool signatures) {
    for (std::size_t i = 0; i < all.size(); ++i) {
        Drawing& p = all[i];
        const double foot = p.height - 20, right = p.width - margin;
        if (signatures && i + 1 == all.size()) {
            const auto place = [&](double x, const std::string& words) {
                p.line({x, foot - 4}, {x + 55, foot - 4}, 0.2, Ink::Quiet);
                p.text({x, foot - 0.8}, words, 2.1, Align::Left, false, Ink::Quiet, 60);
            };
            place(margin, head.designer.empty() ? "Worked out by, date" : "Worked out by " + head.designer + ", date");
            place(margin + 65, "Checked by, date");
        }
        p.line({margin, foot + 2}, {right, foot + 2}, 0.35);
        p.text({margin, foot + 5.8}, head.rests, footSize, Align::Left, false, Ink::Quiet, right - margin - 40);
        p.text({right, foot + 5.8},
               fmt::format("{}page {} of {}", head.date.empty() ? "" : head.date + " · ", i + 1, all.size()), footSize,
               Align::Right, false, Ink::Quiet);
    }
}

} // namespace lintel
