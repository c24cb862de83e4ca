#include "core/sheets/WorkingSheet.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double margin = 16, size = 2.6, leading = 4.4;

std::size_t lettersIn(const std::string& s) {
    return std::size_t(std::count_if(s.begin(), s.end(), [](unsigned char c) { return (c & 0xC0) != 0x80; }));
}

/// Broken between words so that no line has more letters; a word that is longer stands alone.
std::vector<std::string> wrapped(const std::string& text, std::size_t most) {
    std::vector<std::string> lines{""};
    std::size_t from = 0;
    while (from <= text.size()) {
        const std::size_t to = std::min(text.find(' ', from), text.size());
        const std::string word = text.substr(from, to - from);
        if (!lines.back().empty() && lettersIn(lines.back()) + 1 + lettersIn(word) > most)
            lines.push_back(word);
        else
            lines.back() += (lines.back().empty() ? "" : " ") + word;
        from = to + 1;
    }
    return lines;
}

struct Pages {
    const Working& working;
    const WorkingHead& head;
    std::vector<Drawing> all{};
    double y = 0;

    Drawing& page() { return all.back(); }
    void begin() {
        Drawing d;
        d.title = working.title;
        d.paper = "Letter";
        all.push_back(d);
        Drawing& p = page();
        p.text({margin, 17}, "WORKING", 3.2, Align::Left, true);
        std::string right = head.job;
        if (!head.jobNumber.empty()) right += (right.empty() ? "" : " · ") + head.jobNumber;
        if (!head.company.empty()) right += (right.empty() ? "" : " · ") + head.company;
        p.text({p.width - margin, 17}, right, 2.7, Align::Right, false, Ink::Ink, 130);
        p.line({margin, 19.5}, {p.width - margin, 19.5}, 0.5);
        p.text({margin, 28}, working.title, 4.6, Align::Left, true, Ink::Ink, p.width - 2 * margin);
        y = 36;
    }
    void need(double height) {
        if (y + height > page().height - 30) begin();
    }
    void finish() {
        for (std::size_t i = 0; i < all.size(); ++i) {
            Drawing& p = all[i];
            const double foot = p.height - 20;
            if (i + 1 == all.size()) { // to be signed
                p.line({margin, foot - 4}, {margin + 55, foot - 4}, 0.2, Ink::Quiet);
                p.text({margin, foot - 0.8},
                       head.designer.empty() ? "Worked out by, date" : "Worked out by " + head.designer + ", date", 2.1,
                       Align::Left, false, Ink::Quiet);
                p.line({margin + 65, foot - 4}, {margin + 120, foot - 4}, 0.2, Ink::Quiet);
                p.text({margin + 65, foot - 0.8}, "Checked by, date", 2.1, Align::Left, false, Ink::Quiet);
            }
            p.line({margin, foot + 2}, {p.width - margin, foot + 2}, 0.35);
            p.text({margin, foot + 5.8}, head.rests, 2.2, Align::Left, false, Ink::Quiet, p.width - 2 * margin - 40);
            p.text({p.width - margin, foot + 5.8},
                   fmt::format("{}page {} of {}", head.date.empty() ? "" : head.date + " · ", i + 1, all.size()), 2.2,
                   Align::Right, false, Ink::Quiet);
        }
    }

    void figures(const std::vector<BenchFigure>& all_) {
        std::vector<BenchFigure> list;
        for (const BenchFigure& f : all_)
            if (!f.label.empty()) list.push_back(f);
        const double half = (page().width - 2 * margin) / 2;
        for (std::size_t i = 0; i < list.size(); i += 2) {
            need(leading + 1);
            for (std::size_t k = 0; k < 2 && i + k < list.size(); ++k) {
                const double x = margin + double(k) * half;
                page().text({x, y}, list[i + k].label, size, Align::Left, false, Ink::Quiet, 44);
                page().text({x + 46, y}, list[i + k].text, size + 0.2, Align::Left, i + k < 3, Ink::Ink, half - 49);
            }
            y += leading + 0.6;
        }
        y += 3;
    }
    void rows(const std::vector<std::string>& columns, const std::vector<std::vector<std::string>>& list) {
        if (list.empty()) return;
        const double first = 62,
                     rest = (page().width - 2 * margin - first) / double(std::max<std::size_t>(1, columns.size() - 1));
        const auto put = [&](const std::vector<std::string>& row, Ink ink) {
            for (std::size_t i = 0; i < row.size(); ++i)
                page().text({i == 0 ? margin : margin + first + rest * double(i), y}, row[i], size - 0.1,
                            i == 0 ? Align::Left : Align::Right, false, ink, i == 0 ? first - 2 : rest - 1.5);
        };
        need(leading * 2);
        put(columns, Ink::Quiet);
        page().line({margin, y + 1.4}, {page().width - margin, y + 1.4}, 0.25, Ink::Rule);
        y += leading + 0.8;
        for (const auto& row : list) {
            need(leading);
            put(row, Ink::Ink);
            y += leading;
        }
        y += 3;
    }
    void cautions(const std::vector<std::string>& list) {
        for (const std::string& c : list)
            for (const std::string& line : wrapped("! " + c, 110)) {
                need(leading);
                page().text({margin, y}, line, size, Align::Left, false, Ink::Stop, page().width - 2 * margin);
                y += leading;
            }
        if (!list.empty()) y += 2;
    }
    void steps() {
        const double what = margin + 3, formula = margin + 40, value = page().width - margin - 28,
                     rule = page().width - margin;
        const auto headings = [&] {
            page().text({what, y}, "Step", 2.2, Align::Left, false, Ink::Quiet);
            page().text({formula, y}, "With the numbers", 2.2, Align::Left, false, Ink::Quiet);
            page().text({value, y}, "Result", 2.2, Align::Right, false, Ink::Quiet);
            page().text({rule, y}, "Rule", 2.2, Align::Right, false, Ink::Quiet);
            page().line({margin, y + 1.4}, {page().width - margin, y + 1.4}, 0.25, Ink::Rule);
            y += leading + 1;
        };
        need(20);
        headings();
        for (const WorkingStep& s : working.steps) {
            const auto whats = wrapped(s.what, 25), formulas = wrapped(s.formula, 64), values = wrapped(s.value, 19),
                       rules = wrapped(s.cited, 18);
            const std::size_t n = std::max({whats.size(), formulas.size(), values.size(), rules.size()});
            const double height = double(n) * 3.9 + 1.3;
            const std::size_t pages = all.size();
            need(height);
            if (all.size() != pages) headings();
            if (s.governs) {
                page().fill(margin, y - 3.4, page().width - 2 * margin, height - 0.3, Ink::Wash);
                page().fill(margin, y - 3.4, 1, height - 0.3, Ink::Accent);
            }
            for (std::size_t i = 0; i < n; ++i) {
                const double at = y + double(i) * 3.9;
                if (i < whats.size())
                    page().text({what, at}, whats[i], size - 0.1, Align::Left, s.governs, Ink::Ink, formula - what - 1);
                if (i < formulas.size())
                    page().text({formula, at}, formulas[i], size - 0.1, Align::Left, false, Ink::Ink,
                                value - formula - 24);
                if (i < values.size())
                    page().text({value, at}, values[i], size - 0.1, Align::Right, s.governs, Ink::Ink, 30);
                if (i < rules.size()) page().text({rule, at}, rules[i], 2.2, Align::Right, false, Ink::Quiet, 26);
            }
            y += height;
        }
    }
};

std::string restsOn(const RuleBook& book) {
    std::string s = book.title;
    if (!book.overridden().empty()) s += " · own values of the project";
    if (!book.unverified().empty()) s += " · rule book with points not yet verified";
    return s;
}

} // namespace

WorkingHead sheetHead(const Project& p, const RuleBook& book) {
    return {p.basis.title, p.basis.jobNumber, p.basis.company, p.basis.designer, p.basis.issueDate, restsOn(book)};
}
WorkingHead sheetHead(const std::string& job, const std::string& company, const RuleBook& book) {
    return {job, "", company, "", "", restsOn(book)};
}

std::vector<Drawing> workingSheets(const Working& w, const WorkingHead& head) {
    Pages p{w, head};
    p.begin();
    p.steps();
    p.finish();
    return std::move(p.all);
}

std::vector<Drawing> workingSheets(const BenchAnswer& a, const WorkingHead& head) {
    Pages p{a.working, head};
    p.begin();
    p.figures(a.figures);
    p.rows(a.columns, a.rows);
    p.cautions(a.cautions);
    p.steps();
    p.finish();
    return std::move(p.all);
}

} // namespace lintel
