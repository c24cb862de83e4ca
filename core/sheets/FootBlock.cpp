// The title block along the foot of a sheet that its table takes the whole width of.

#include "core/sheets/FitWords.h"
#include "core/sheets/RevisionRows.h"
#include "core/sheets/TitleBlock.h"

#include <fmt/format.h>

#include <array>

namespace lintel {
namespace {

constexpr double edge = 10, pad = 2.5, high = 38;
constexpr double borderPen = 1.0, stripPen = 0.7, rulePen = 0.35, hairPen = 0.18;
constexpr double caption = 2.5, body = 3.1, heading = 4.2, titleSize = 5.4;
constexpr double smallest = 0.6; ///< of the size that words have by themselves

/// Its boxes from left to right, as shares of the width: where each ends.
enum Box { Company, Revisions, ProjectBox, Title, People, Number };
constexpr std::array<double, 6> ends{0.165, 0.375, 0.565, 0.725, 0.83, 1};

struct FootStrip {
    Drawing& d;
    const SheetInput& in;
    double top = 0;

    double left(Box b) const {
        return edge + (b == Company ? 0 : ends[std::size_t(b) - 1]) * (d.width - 2 * edge) + pad;
    }
    double right(Box b) const { return edge + ends[std::size_t(b)] * (d.width - 2 * edge) - pad; }
    double wide(Box b) const { return right(b) - left(b); }

    void label(Box b, double y, const std::string& words) {
        d.text({left(b), y}, words, caption, Align::Left, false, Ink::Quiet);
    }
    /// In `most` lines; what asks for more is set smaller. The base line after the last.
    double lines(Box b, double y, const std::string& text, std::size_t most, double size, double step, bool bold,
                 double besideIt = 0) {
        const double room = wide(b) - besideIt;
        return putLines(d, {left(b), y}, fitWords(text, room, most, size, size * smallest, bold), step, room, bold);
    }

    void company() {
        const Basis& b = in.project.basis;
        constexpr double logo = 18, gap = 3;
        const double beside = b.logo.empty() ? 0 : logo + gap;
        if (!b.logo.empty()) d.marks.push_back(logoMark(in, {right(Company) - logo, top + gap}, logo, logo));
        const double y = lines(Company, top + 7, b.company, 3, heading, 5.2, true, beside);
        lines(Company, y + 0.5, b.companyAddress, y > top + 20 ? 3 : 5, caption + 0.2, 3.5, false, beside);
    }
    void revisions() {
        constexpr std::size_t rows = 6;
        constexpr double row = 5.2;
        label(Revisions, top + 4, "Revisions");
        d.text({right(Revisions), top + 4}, "by", caption, Align::Right, false, Ink::Quiet);
        const RevisionRows all = revisionRows(in.project.basis.revisions, rows);
        for (std::size_t i = 0; i < rows; ++i) {
            const double y = top + 6 + row * double(i), base = y + row - 1.5, x = left(Revisions);
            d.line({x, y}, {right(Revisions), y}, hairPen, Ink::Quiet);
            if (all.earlier > 0 && i == 0) d.text({x, base}, fmt::format("and {} earlier", all.earlier), caption);
            if (!all.rows[i]) continue;
            const Revision& r = *all.rows[i];
            d.text({x, base}, r.mark, 2.8, Align::Left, true, Ink::Ink, 6);
            d.text({x + 7, base}, r.date, 2.8, Align::Left, false, Ink::Ink, 17);
            putRevisionText(d, {x + 26, base}, r.text, wide(Revisions) - 26 - 10);
            d.text({right(Revisions), base}, r.by, sizeWithin(r.by, 9, 2.8), Align::Right, false, Ink::Ink, 9);
        }
    }
    void project() {
        const Basis& b = in.project.basis;
        label(ProjectBox, top + 4, "Project");
        const double y = lines(ProjectBox, top + 9, b.title, 2, heading, 4.9, true);
        lines(ProjectBox, y - 0.6, b.site, y > top + 16 ? 1 : 2, caption + 0.2, 3.5, false);
        const double half = top + 22;
        d.line({left(ProjectBox), half}, {right(ProjectBox), half}, hairPen, Ink::Quiet);
        label(ProjectBox, half + 3.6, "Client");
        lines(ProjectBox, half + 8, b.client, 2, body, 4, true);
    }
    void title(const std::string& scale) {
        label(Title, top + 4, "Sheet");
        lines(Title, top + 10.5, d.title, 4, titleSize, 6.1, true);
        d.text({left(Title), top + high - 2.5}, "Scale: " + scale, caption, Align::Left, false, Ink::Quiet);
    }
    void people() {
        const Basis& b = in.project.basis;
        const std::array<std::pair<const char*, std::string>, 4> rows{
            {{"Drawn", b.drawn.empty() ? b.designer : b.drawn},
             {"Checked", b.checked},
             {"Approved", b.approved},
             {"Date, job", b.issueDate}}};
        for (std::size_t i = 0; i < rows.size(); ++i) {
            const double y = top + high / 4 * double(i);
            if (i > 0) d.line({left(People), y}, {right(People), y}, hairPen, Ink::Quiet);
            label(People, y + 3.6, rows[i].first);
            d.text({left(People), y + 7.8}, rows[i].second, body, Align::Left, true, Ink::Ink,
                   i == 3 && !b.jobNumber.empty() ? wide(People) / 2 : wide(People));
        }
        d.text({right(People), top + high - 1.7}, b.jobNumber, body, Align::Right, true, Ink::Ink,
               wide(People) / 2 - 2);
    }
    void number() {
        label(Number, top + 4, "Electrical · issue " + in.project.basis.issue);
        d.text({left(Number), top + 14.5}, d.number, sizeWithin(d.number, wide(Number), 11.5, true), Align::Left, true,
               Ink::Ink, wide(Number));
        d.text({right(Number), top + 19.5}, d.paper.substr(0, d.paper.find(" landscape")), body, Align::Right, false,
               Ink::Ink, wide(Number) / 2);
        const std::string& status = in.project.basis.status;
        d.text({left(Number), top + 25}, status, sizeWithin(status, wide(Number), body, true), Align::Left, true,
               Ink::Ink, wide(Number));
    }
};

} // namespace

SheetFrame footFrame(const Drawing& d) {
    SheetFrame f{};
    const double width = d.width - 2 * edge, number = edge + ends[People] * width + pad;
    f.left = edge;
    f.top = edge;
    f.right = d.width - edge;
    f.bottom = d.height - edge - high;
    f.textLeft = f.statusLeft = number;
    f.textRight = f.statusRight = d.width - edge - pad;
    f.statusTop = f.bottom + 29;
    f.count = {number, f.bottom + 19.5};
    return f;
}

SheetFrame footBlock(Drawing& d, const SheetInput& in, const std::string& scale) {
    d.titleBlock = TitlePlace::Foot;
    d.on(Layer::Sheet);
    const SheetFrame f = footFrame(d);
    FootStrip strip{d, in, f.bottom};
    strip.company();
    strip.revisions();
    strip.project();
    strip.title(scale);
    strip.people();
    strip.number();
    for (Box b : {Company, Revisions, ProjectBox, Title, People})
        d.line({strip.right(b) + pad, f.bottom}, {strip.right(b) + pad, f.bottom + high}, rulePen);
    d.line({f.left, f.bottom}, {f.right, f.bottom}, stripPen);
    d.box(edge, edge, d.width - 2 * edge, d.height - 2 * edge, borderPen);
    d.text({edge, d.height - edge + 4.5}, basisWords(in), 2.3, Align::Left, false, Ink::Quiet, d.width - 2 * edge);
    return f;
}

} // namespace lintel
