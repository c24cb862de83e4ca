#include "core/sheets/TitleBlock.h"

#include "core/base/TextFile.h"
#include "core/drawing/TextWidth.h"
#include "core/sheets/FitWords.h"
#include "core/sheets/PictureBox.h"
#include "core/sheets/RevisionRows.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double edge = 12, pad = 3, borderPen = 1.0, rulePen = 0.35, hairPen = 0.18;
constexpr double caption = 2.5, body = 3.3, heading = 4.6, titleSize = 6.4, companySize = 5.6;
constexpr double numberRoom = 31, personRow = 10, statusRoom = 21, revisionRow = 6;
constexpr double logoHeight = 22, logoGap = 3;
constexpr double ownRoom = 46; ///< at least, of the sheet in the strip
constexpr std::size_t fewestRevisions = 4;

double stripWidth(const Drawing& d) { return d.width < 500 ? 70 : 84; }

/// The strip's boxes, from the foot upwards: where each begins.
struct Boxes {
    double number, people, title, client, project, status, revisions, company;
    std::vector<std::string> companyLines, addressLines, projectLines, siteLines, titleLines, clientLines;
    std::size_t rows = 0;
};

Boxes boxesOf(const Drawing& d, const SheetInput& in) {
    const Basis& b = in.project.basis;
    const double width = stripWidth(d) - 2 * pad;
    Boxes x;
    x.companyLines = wrapText(b.company, width, companySize, true);
    x.addressLines = wrapText(b.companyAddress, width, body);
    x.projectLines = wrapText(b.title, width, heading, true);
    x.siteLines = wrapText(b.site, width, body);
    x.titleLines = wrapText(d.title, width, titleSize, true);
    x.clientLines = wrapText(b.client, width, body, true);
    const double foot = d.height - edge;
    x.number = foot - numberRoom;
    x.people = x.number - 3 * personRow;
    x.title = x.people - 7 - 7.4 * double(std::max<std::size_t>(1, x.titleLines.size()));
    x.client = x.title - 6.5 - 4.6 * double(std::max<std::size_t>(1, x.clientLines.size()));
    x.project = x.client - 7 - 5.6 * double(x.projectLines.size()) - 4.4 * double(x.siteLines.size());
    x.status = x.project - statusRoom;
    const double logo = b.logo.empty() ? 0 : logoHeight + logoGap;
    x.company = edge + logo + 7 + 6.8 * double(std::max<std::size_t>(1, x.companyLines.size())) +
                4.4 * double(x.addressLines.size());
    // As many revisions as there are, at least some rows to be filled in, and room is left for what the sheet puts
    // there.
    const double room = x.status - x.company - 6 - ownRoom;
    const auto most = std::size_t(std::max(1.0, room / revisionRow));
    x.rows = std::min(most, std::max(fewestRevisions, b.revisions.size()));
    x.revisions = x.status - 6 - revisionRow * double(x.rows);
    return x;
}

struct Strip {
    Drawing& d;
    const SheetInput& in;
    double left, right; ///< of the text
    void rule(double y, double pen = rulePen) { d.line({left - pad, y}, {right + pad, y}, pen); }
    void label(double x, double y, const std::string& words) {
        d.text({x, y + 4}, words, caption, Align::Left, false, Ink::Quiet);
    }
    void lines(const std::vector<std::string>& all, double y, double size, double step, bool bold) {
        for (const std::string& line : all) {
            d.text({left, y}, line, size, Align::Left, bold);
            y += step;
        }
    }
    void company(const Boxes& x) {
        double top = edge;
        if (!in.project.basis.logo.empty()) {
            d.marks.push_back(logoMark(in, {left, top + logoGap}, right - left, logoHeight));
            top += logoHeight + logoGap;
        }
        lines(x.companyLines, top + 9, companySize, 6.8, true);
        lines(x.addressLines, top + 9 + 6.8 * double(std::max<std::size_t>(1, x.companyLines.size())) - 1.4, body, 4.4,
              false);
        rule(x.company);
    }
    void revisions(const Boxes& x) {
        rule(x.revisions);
        label(left, x.revisions, "Revisions");
        d.text({right, x.revisions + 4}, "by", caption, Align::Right, false, Ink::Quiet);
        const RevisionRows all = revisionRows(in.project.basis.revisions, x.rows);
        for (std::size_t row = 0; row < x.rows; ++row) {
            const double y = x.revisions + 6 + revisionRow * double(row);
            d.line({left, y}, {right, y}, hairPen, Ink::Quiet);
            const double base = y + revisionRow - 1.8;
            if (all.earlier > 0 && row == 0) d.text({left, base}, fmt::format("and {} earlier", all.earlier), caption);
            if (!all.rows[row]) continue;
            const Revision& r = *all.rows[row];
            d.path({{left + 3, y + 0.8}, {left + 0.4, y + 5.2}, {left + 5.6, y + 5.2}, {left + 3, y + 0.8}}, hairPen);
            d.text({left + 3, base + 0.7}, r.mark, 2.2, Align::Centre, true, Ink::Ink, 3.2);
            d.text({left + 8, base}, r.date, 2.8, Align::Left, false, Ink::Ink, 17);
            putRevisionText(d, {left + 27, base}, r.text, right - left - 27 - 12);
            d.text({right, base}, r.by, sizeWithin(r.by, 10, 2.8), Align::Right, false, Ink::Ink, 10);
        }
    }
    void project(const Boxes& x) {
        const Basis& b = in.project.basis;
        rule(x.status);
        d.text({left, x.status + 7}, b.status, sizeWithin(b.status, right - left, heading, true), Align::Left, true,
               Ink::Ink, right - left);
        rule(x.project);
        label(left, x.project, "Project");
        lines(x.projectLines, x.project + 9.2, heading, 5.6, true);
        lines(x.siteLines, x.project + 9.2 + 5.6 * double(x.projectLines.size()) - 1, body, 4.4, false);
        rule(x.client);
        label(left, x.client, "Client");
        lines(x.clientLines, x.client + 8.6, body, 4.6, true);
        rule(x.title);
        label(left, x.title, "Sheet");
        lines(x.titleLines, x.title + 11, titleSize, 7.4, true);
    }
    void people(const Boxes& x, const std::string& scale) {
        const Basis& b = in.project.basis;
        const double middle = (left + right) / 2;
        const std::array<std::array<std::pair<const char*, std::string>, 2>, 3> rows{
            {{{{"Drawn", b.drawn.empty() ? b.designer : b.drawn}, {"Date", b.issueDate}}},
             {{{"Checked", b.checked}, {"Job", b.jobNumber}}},
             {{{"Approved", b.approved}, {"Scale", scale}}}}};
        for (std::size_t i = 0; i < rows.size(); ++i) {
            const double y = x.people + personRow * double(i);
            i == 0 ? rule(y) : d.line({left, y}, {right, y}, hairPen, Ink::Quiet);
            for (std::size_t k = 0; k < 2; ++k) {
                const double at = k == 0 ? left : middle;
                d.text({at, y + 3.6}, rows[i][k].first, caption, Align::Left, false, Ink::Quiet);
                d.text({at, y + 8}, rows[i][k].second, body, Align::Left, true, Ink::Ink, (right - left) / 2 - 2);
            }
        }
    }
    void number(const Boxes& x) {
        rule(x.number);
        label(left, x.number, "Electrical · issue " + in.project.basis.issue);
        d.text({left, x.number + 21}, d.number, sizeWithin(d.number, right - left, 19, true), Align::Left, true,
               Ink::Ink, right - left);
        // A bar of one inch or 25 mm tells a print that is reduced.
        const bool inch = in.project.basis.units == UnitSystem::Imperial;
        const double length = inch ? 25.4 : 25, y = x.number + 26;
        d.line({right - length, y}, {right, y}, rulePen);
        for (double at : {right - length, right - length / 2, right}) d.line({at, y - 1.4}, {at, y}, rulePen);
        d.text({right, y + 3}, inch ? "one inch at full size" : "25 mm at full size", 2, Align::Right, false,
               Ink::Quiet);
    }
};

} // namespace

PictureMark logoMark(const SheetInput& in, Point at, double width, double height) {
    return pictureIn(in, in.project.basis.logo, at, width, height);
}

std::string basisWords(const SheetInput& in) {
    const Basis& b = in.project.basis;
    std::string words = fmt::format("{} · branch {}, feeders {}, {} °C insulation, {} °C ambient", in.book.title,
                                    wordOf(b.branchMaterial), wordOf(b.feederMaterial), b.insulation, b.ambient);
    if (in.book.metric())
        words = fmt::format("{} · {}, feeders {} · {} °C ambient", in.book.title,
                            b.branchCable.empty() ? in.book.cables.usualBranch : b.branchCable,
                            b.feederCable.empty() ? in.book.cables.usualFeeder : b.feederCable, b.ambient);
    if (!b.demandFactors.empty()) words += " · demand factors of the project's own";
    if (!in.book.unverified().empty()) words += " · rule book with points not yet verified";
    return words;
}

SheetFrame sheetFrame(const Drawing& d, const SheetInput& in) {
    const Boxes x = boxesOf(d, in);
    const double strip = d.width - edge - stripWidth(d);
    SheetFrame f;
    f.left = edge;
    f.top = edge;
    f.right = strip;
    f.bottom = d.height - edge;
    f.textLeft = strip + pad;
    f.textRight = d.width - edge - pad;
    f.freeTop = x.company;
    f.freeBottom = x.revisions;
    f.statusLeft = f.textLeft;
    f.statusRight = f.textRight;
    f.statusTop = x.status + 12.5;
    f.count = {f.textLeft, x.number + 28};
    return f;
}

SheetFrame titleBlock(Drawing& d, const SheetInput& in, const std::string& scale) {
    d.titleBlock = TitlePlace::Side;
    d.on(Layer::Sheet);
    const SheetFrame f = sheetFrame(d, in);
    const Boxes x = boxesOf(d, in);
    Strip strip{d, in, f.textLeft, f.textRight};
    strip.company(x);
    strip.revisions(x);
    strip.project(x);
    strip.people(x, scale);
    strip.number(x);
    d.line({f.right, f.top}, {f.right, f.bottom}, 0.7);
    d.box(edge, edge, d.width - 2 * edge, d.height - 2 * edge, borderPen);
    d.text({edge, d.height - edge + 5}, basisWords(in), 2.3, Align::Left, false, Ink::Quiet, d.width - 2 * edge);
    return f;
}

void viewTitle(Drawing& d, const SheetFrame& f, const std::string& title, const std::string& about) {
    constexpr double radius = 4, inset = 10;
    const Point at{f.left + inset + radius, f.bottom - inset};
    d.marks.push_back(CircleMark{at, radius, 0.35, Ink::Ink, false});
    d.text({at.x, at.y + 1.7}, "1", heading, Align::Centre, true);
    const double x = at.x + radius + 3;
    d.text({x, at.y - 1.2}, title, heading, Align::Left, true);
    d.line({x, at.y}, {x + std::max(80.0, textWidth(title, heading, true) + 20), at.y}, 0.5);
    d.text({x, at.y + 4.2}, about, 2.8, Align::Left, false, Ink::Quiet);
}

void tellStatus(Drawing& d, const SheetInput& in, const std::string& words) {
    const SheetFrame f = d.titleBlock == TitlePlace::Foot ? footFrame(d) : sheetFrame(d, in);
    double y = f.statusTop;
    for (const std::string& line : wrapText(words, f.statusRight - f.statusLeft, 2.8, true)) {
        d.text({f.statusLeft, y}, line, 2.8, Align::Left, true, Ink::Stop);
        y += 3.8;
    }
}

void tellCount(Drawing& d, const SheetInput& in, std::size_t place, std::size_t all) {
    const std::string words = fmt::format("Sheet {} of {}", place, all);
    if (d.titleBlock != TitlePlace::None)
        d.text((d.titleBlock == TitlePlace::Foot ? footFrame(d) : sheetFrame(d, in)).count, words, body);
    else
        d.text({d.width - 11, d.height - 6}, words, 2.3, Align::Right, false, Ink::Quiet);
}

} // namespace lintel
