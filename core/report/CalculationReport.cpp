#include "core/report/CalculationReport.h"

#include "core/base/Format.h"
#include "core/drawing/Paper.h"
#include "core/drawing/TextWidth.h"
#include "core/lists/DrawingIndex.h"
#include "core/lists/ListForms.h"
#include "core/lists/ListTable.h"
#include "core/report/ReportTables.h"
#include "core/review/ReviewLists.h"
#include "core/sheets/WorkingSheet.h"

#include <fmt/format.h>

#include <map>

namespace lintel {
namespace {

constexpr double margin = TextPages::margin;
constexpr double chapterSize = 4.2, entrySize = 2.9, entryStep = 5.2;
/// Lettering of tables in the report against that of large sheets.
constexpr double tableScale = 0.72;

/// Steps of workings by the rule they rest on: what each rule was applied to, and how often.
class RulesApplied {
public:
    void add(const Working& w) {
        for (const WorkingStep& s : w.steps) {
            if (s.cited.empty()) continue;
            Use& use = uses[s.cited];
            ++use.times;
            const std::string what = s.what.substr(0, s.what.find(','));
            if (std::find(use.what.begin(), use.what.end(), what) == use.what.end()) use.what.push_back(what);
        }
    }
    List table() const {
        List list{"rules",
                  "Rules and tables applied",
                  {{"Rule"}, {"To", "", Align::Left, 150}, {"Steps", "", Align::Right}},
                  {},
                  {}};
        for (const auto& [rule, use] : uses) {
            std::string all;
            for (const std::string& w : use.what) all += (all.empty() ? "" : "; ") + w;
            list.add({}, {{rule}, {all}, numberCell(use.times)});
        }
        list.notes.push_back("As the steps of the workings of this report cite them.");
        return list;
    }

private:
    struct Use {
        std::vector<std::string> what;
        int times = 0;
    };
    std::map<std::string, Use> uses;
};

/// What is doubtful in the book or was put in its place.
List bookTable(const SheetInput& in) {
    List list{
        "book", "Values not verified, and the project's own", {{"What"}, {"Which", "", Align::Left, 150}}, {}, {}};
    for (const std::string& doubt : in.book.unverified()) list.add({}, {{"not verified"}, {doubt}});
    for (const std::string& own : in.book.overridden()) list.add({}, {{"own value"}, {own}});
    return list;
}

/// Of the demand list, what tells of kinds of load at each supply.
List kindTable(const SheetInput& in) {
    List list = listKind("demand")->make(in);
    const auto group = std::find_if(list.rows.begin(), list.rows.end(),
                                    [](const ListEntry& r) { return r.kind == ListEntry::Kind::Group; });
    list.rows.erase(list.rows.begin(), group);
    list.title = "Demand by kind of load";
    list.columns[0].heading = "Kind";
    list.columns[1].heading = "Rule";
    return list;
}

class Report {
public:
    Report(const SheetInput& in_, const ReportOrder& order_, const ListScope& scope_)
        : in(in_), order(order_), scope(scope_), head(sheetHead(in.project, in.book)),
          body("CALCULATIONS", titleOf(in), head) {}

    static std::string titleOf(const SheetInput& in) {
        return in.project.basis.title.empty() ? "Calculations" : in.project.basis.title + ", calculations";
    }

    /// False: it was cancelled.
    bool make(const std::function<bool(std::size_t, std::size_t)>& told) {
        const std::size_t all = scope.nodes.size() + scope.circuits.size();
        std::size_t done = 0;
        const auto next = [&] { return ++done % 64 != 0 || !told || told(done, all); };
        std::vector<Working> ofNodes, ofCircuits;
        const bool keep = order.depth == ReportDepth::Everything;
        for (Ref node : scope.nodes) {
            if (!next()) return false;
            Working w = explain(in.project, in.book, in.results, node);
            rules.add(w);
            if (keep) ofNodes.push_back(std::move(w));
        }
        for (CircuitId id : scope.circuits) {
            if (!next()) return false;
            Working w = explain(in.project, in.book, in.results, id);
            rules.add(w);
            if (keep) ofCircuits.push_back(std::move(w));
        }
        body.begin();
        table(basisList(in));
        method();
        table(rules.table());
        table(supplyTable(in, scope));
        table(loadTable(in, scope));
        if (scope.whole) table(kindTable(in));
        table(feederTable(in, scope));
        table(dropTable(in, scope));
        table(faultTable(in, scope));
        table(loopTable(in, scope));
        if (order.depth != ReportDepth::Summary) table(runTable(in, scope));
        if (keep) workings(ofNodes, ofCircuits);
        table(assumptionTable(scope, assumptions));
        table(bookTable(in));
        table(snagTable(in, scope, snags));
        if (scope.whole) {
            table(remarkList(in));
            table(tickList(in));
        }
        return true;
    }

    CalculationReport finish() {
        const std::size_t front = cover(0).all.size(); // how long it is decides what it says
        TextPages pages = cover(front);
        for (Drawing& d : body.all) pages.all.push_back(std::move(d));
        pages.finish(false);
        CalculationReport made;
        made.pages = std::move(pages.all);
        made.links = std::move(links);
        made.bookmarks.push_back({"Contents", 0, 0});
        for (Bookmark b : marks) {
            b.page += front;
            made.bookmarks.push_back(std::move(b));
        }
        return made;
    }

private:
    const SheetInput& in;
    const ReportOrder& order;
    const ListScope& scope;
    SheetHead head;
    TextPages body;
    const std::vector<Snag> snags = findSnags(in.project, in.book, in.results);
    const std::vector<Assumption> assumptions = assumptionsOf({in.project, in.book, in.results});
    RulesApplied rules;
    std::vector<Bookmark> marks; ///< pages of the body
    std::vector<PageLink> links;
    int chapters = 0;

    std::string chapter(const std::string& title) {
        const std::string own = fmt::format("{}  {}", ++chapters, title);
        marks.push_back({own, body.all.size() - 1, 0});
        return own;
    }
    void upright() {
        if (body.onItsSide()) body.begin(false);
    }

    void method() {
        upright();
        body.need(40);
        const std::string title = chapter("How it is worked out");
        body.y += 3;
        body.page().text({margin, body.y}, title, chapterSize, Align::Left, true);
        body.y += 7;
        for (const ListEntry& row : methodTable(in).rows) {
            body.paragraph(row.cells.front().text);
            body.y += 1.6;
        }
        body.y += 5;
    }

    /// A chapter that is a table; upright where it fits without much wrapping, else on its side. Nothing to tell: none.
    void table(List list) {
        list = formed(std::move(list), listForm(in.project, list.key));
        if (list.rows.empty()) return;
        ListType type = ListType().scaled(tableScale);
        type.title = chapterSize;
        const PaperSize paper = paperSize(head.paper);
        const double narrow = paper.width - 2 * margin;
        ListTable fit(list, type);
        constexpr double bearable = 1.35; // of the width, that a table may want to be wider
        const bool side = fit.least() > narrow || fit.wanted() > narrow * bearable;
        if (side != body.onItsSide()) body.begin(side);
        body.need(36);
        list.title = chapter(list.title);
        ListTable t(list, type);
        t.set(body.width());
        std::size_t row = 0;
        bool again = false;
        do {
            double y = body.y;
            t.drawHead(body.page(), margin, y, again);
            y += t.headHeight();
            const std::size_t from = row;
            while (row < t.rows() && (y + t.height(row) <= body.bottom() || row == from)) {
                const bool group = t.entry(row).kind == ListEntry::Kind::Group;
                if (group && row > from && row + 1 < t.rows() && y + t.height(row) + t.height(row + 1) > body.bottom())
                    break; // its heading never stands alone at the foot
                if (group && list.key == "runs") mark(t.entry(row).cells.front().text, 1);
                t.drawRow(body.page(), row, margin, y);
                y += t.height(row++);
            }
            t.drawEnd(body.page(), margin, y);
            body.y = y + 2;
            again = true;
            if (row < t.rows()) body.begin(body.onItsSide());
        } while (row < t.rows());
        for (const std::string& note : list.notes)
            for (const std::string& line : wrapText(note, body.width(), type.note)) {
                body.need(type.noteStep);
                body.y += type.noteStep;
                body.page().text({margin, body.y}, line, type.note, Align::Left, false, Ink::Quiet);
            }
        body.y += 9;
    }
    void mark(const std::string& title, int level) { marks.push_back({title, body.all.size() - 1, level}); }

    void working(const Working& w, int level) {
        constexpr double least = 34; // the heading with the first steps
        body.need(least);
        mark(w.title, level);
        body.page().text({margin, body.y}, w.title, 3.2, Align::Left, true, Ink::Ink, body.width());
        body.y += 6;
        body.opened = [this, &w] { // where it goes on
            body.page().text({margin, body.y}, w.title + ", continued", 3.2, Align::Left, true, Ink::Ink, body.width());
            body.y += 6;
        };
        putSteps(body, w.steps);
        body.opened = nullptr;
        body.y += 6;
    }
    void workings(const std::vector<Working>& ofNodes, const std::vector<Working>& ofCircuits) {
        body.begin(false);
        const std::string title = chapter("Workings, step by step");
        body.page().text({margin, body.y + 1}, title, chapterSize, Align::Left, true);
        body.y += 9;
        for (const Working& w : ofNodes) working(w, 1);
        BoardId board;
        for (std::size_t i = 0; i < ofCircuits.size(); ++i) {
            const BoardId now = in.project.circuits[scope.circuits[i]].board;
            if (now != board) {
                body.need(40);
                mark(fmt::format("Circuits of {}", in.project.boards[now].name), 1);
            }
            board = now;
            working(ofCircuits[i], 2);
        }
    }

    /// What it is, for whom and by whom, how it stands, and what is in it; `front`: pages before the body.
    TextPages cover(std::size_t front) {
        links.clear();
        TextPages pages("CALCULATIONS", titleOf(in), head);
        pages.begin();
        const Basis& b = in.project.basis;
        pages.y += 6;
        for (const std::string& line : wrapText(b.title, pages.width(), 7, true)) {
            pages.page().text({margin, pages.y}, line, 7, Align::Left, true);
            pages.y += 9;
        }
        pages.page().text({margin, pages.y}, "Calculations: " + scope.words, 3.6, Align::Left, false, Ink::Quiet,
                          pages.width());
        pages.y += 9;
        const auto say = [&](const std::string& what, const std::string& value) {
            if (value.empty()) return;
            const auto lines = wrapText(value, pages.width() - 42, entrySize);
            pages.page().text({margin, pages.y}, what, entrySize, Align::Left, false, Ink::Quiet);
            for (const std::string& line : lines) {
                pages.page().text({margin + 42, pages.y}, line, entrySize);
                pages.y += entryStep;
            }
        };
        say("Job", b.jobNumber);
        say("Site", b.site);
        say("Client", b.client);
        say("Company", b.company);
        say("Issue", b.issue + (b.issueDate.empty() ? "" : ", " + b.issueDate));
        say("Status", b.status);
        say("Code", in.book.title);
        say("How it stands", standing());
        pages.y += 12;
        const double third = pages.width() / 3;
        const auto signature = [&](int place, const std::string& words) {
            const double x = margin + third * place;
            pages.page().line({x, pages.y}, {x + third - 6, pages.y}, 0.2, Ink::Quiet);
            pages.page().text({x, pages.y + 3.4}, words, 2.3, Align::Left, false, Ink::Quiet, third - 6);
        };
        signature(0, "Worked out by" + (b.designer.empty() ? "" : " " + b.designer) + ", date");
        signature(1, "Checked by" + (b.checked.empty() ? "" : " " + b.checked) + ", date");
        signature(2, "Approved by" + (b.approved.empty() ? "" : " " + b.approved) + ", date");
        pages.y += 16;
        pages.page().text({margin, pages.y}, "Contents", chapterSize, Align::Left, true);
        pages.y += 8;
        contents(pages, front);
        return pages;
    }

    /// Chapters one below the other; what stands in one of them, in two columns beneath.
    void contents(TextPages& pages, std::size_t front) {
        constexpr double gap = 8, indent = 6, pageRoom = 10;
        const double half = (pages.width() - gap) / 2;
        int column = 0;
        const auto put = [&](const Bookmark& m, double x, double width) {
            Drawing& d = pages.page();
            d.text({x, pages.y}, m.title, entrySize, Align::Left, m.level == 0, Ink::Ink, width - pageRoom);
            d.text({x + width, pages.y}, std::to_string(m.page + front + 1), entrySize, Align::Right);
            links.push_back({pages.all.size() - 1, x, pages.y - 3.4, x + width, pages.y + 1.2, m.page + front});
        };
        for (const Bookmark& m : marks) {
            if (m.level > 1) continue;
            const bool second = m.level == 1 && column == 1;
            if (!second) {
                if (column == 1) pages.y += entryStep; // the line before is half full
                pages.need(entryStep);
            }
            if (m.level == 0)
                put(m, margin, pages.width());
            else
                put(m, second ? margin + half + gap : margin + indent, second ? half : half - indent);
            column = m.level == 1 && !second ? 1 : 0;
            if (column == 0) pages.y += entryStep;
        }
    }

    /// "14 stops and 2 checks are open, 3 lengths are not known, 21 values are assumed or held".
    std::string standing() const {
        int stops = 0, checks = 0, assumed = 0;
        for (const Snag& s : snags) {
            if (s.about && !scope.has(s.about)) continue;
            stops += s.severity == Severity::Stop;
            checks += s.severity == Severity::Check;
        }
        for (const Assumption& a : assumptions) assumed += !a.about || scope.has(a.about);
        const auto counted = [](int n, const char* one, const char* many) {
            return n == 0   ? fmt::format("no {}", one)
                   : n == 1 ? fmt::format("1 {}", one)
                            : fmt::format("{} {}", n, many);
        };
        std::string words = fmt::format("{}, {}", counted(stops, "stop", "stops"), counted(checks, "check", "checks"));
        if (scope.whole)
            words +=
                ", " + counted(unknownLengths({in.project, in.book, in.results}), "unknown length", "unknown lengths");
        words += ", " + counted(assumed, "assumption", "assumptions");
        words += ", " + counted(int(in.book.unverified().size()), "point of the code not verified",
                                "points of the code not verified");
        return words + (stops > 0 ? ". Nobody may build from it yet." : ".");
    }
};

} // namespace

Outcome<ListScope> reportScope(const Project& project, const Results& results, const ReportOrder& order) {
    if (!order.of) return wholeProject(project, results);
    return scopeOf(project, results, order.of, order.path);
}

Outcome<CalculationReport> calculationReport(const SheetInput& in, const ReportOrder& order,
                                             const std::function<bool(std::size_t, std::size_t)>& told) {
    const auto scope = reportScope(in.project, in.results, order);
    if (!scope) return scope.error();
    Report report(in, order, *scope);
    if (!report.make(told)) return Error{"report", "cancelled; nothing was written", ""};
    return report.finish();
}

} // namespace lintel
