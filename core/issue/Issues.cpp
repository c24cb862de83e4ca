#include "core/issue/Issues.h"

#include "core/base/Packed.h"
#include "core/base/Parse.h"
#include "core/base/TextDelta.h"
#include "core/check/Assumptions.h"
#include "core/compose/ComposedSheet.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/project/SheetNumbers.h"

#include <fmt/format.h>

#include <algorithm>
#include <sstream>

namespace lintel {
namespace {

std::string counted(std::size_t n, const std::string& one, const std::string& many) {
    return fmt::format("{} {}", n, n == 1 ? one : many);
}

/// The words of a state as a title block says them: "For tender".
std::string statusOf(IssueState state) {
    std::string words = wordOf(state);
    words[0] = upper(words[0]);
    return words;
}

/// The project as a file has it, without its issues: they hold states themselves.
std::string textWithoutIssues(Project p) {
    p.issues = {};
    return writeProject(p);
}

/// The text that an issue holds.
Outcome<std::string> textOfIssue(const Project& p, IssueId id, int depth = 0) {
    const Issue& issue = p.issues[id];
    const Error damaged{"issue " + issue.mark, "what it keeps is damaged", "Take the file from an earlier copy."};
    if (depth > int(p.issues.size())) return damaged;
    auto text = unpacked(issue.packed);
    if (!text) return damaged;
    if (!issue.basedOn) return *text;
    if (!p.issues.has(issue.basedOn)) return damaged;
    const auto from = textOfIssue(p, issue.basedOn, depth + 1);
    if (!from) return from.error();
    auto whole = applyDelta(*from, *text);
    if (!whole) return damaged;
    return *whole;
}

} // namespace

std::vector<GateItem> issueGate(const CheckInput& in) {
    std::vector<GateItem> gate;
    GateItem stops, checks;
    for (const Snag& s : findSnags(in.project, in.book, in.results)) {
        if (s.severity == Severity::Stop) stops.details.push_back(s.text);
        if (s.severity == Severity::Check) checks.details.push_back(s.text);
    }
    stops.what = counted(stops.details.size(), "stop is open", "stops are open");
    checks.what = counted(checks.details.size(), "check is open", "checks are open");
    if (!stops.details.empty()) gate.push_back(std::move(stops));
    if (const int lengths = unknownLengths(in); lengths > 0)
        gate.push_back({counted(std::size_t(lengths), "length is not known", "lengths are not known"), {}});
    GateItem nameless;
    for (const Circuit& c : in.project.circuits)
        if (c.use == CircuitUse::Load && c.name.empty() && !in.results.of(c.id).feeder)
            nameless.details.push_back(nameOf(in.project, c.id));
    nameless.what = counted(nameless.details.size(), "circuit has no name", "circuits have no name");
    if (!nameless.details.empty()) gate.push_back(std::move(nameless));
    GateItem views;
    const SheetInput sheets{in.project, in.book, in.results};
    for (const ComposedSheet& s : in.project.composedSheets)
        if (!isLeftOut(in.project, {SheetKind::Composed, s.id}))
            for (const std::string& words : composedPages(sheets, s.id, "").troubles) views.details.push_back(words);
    views.what = counted(views.details.size(), "view on a composed sheet is not as it should be",
                         "views on composed sheets are not as they should be");
    if (!views.details.empty()) gate.push_back(std::move(views));
    if (const auto& doubtful = in.book.unverified(); !doubtful.empty())
        gate.push_back({counted(doubtful.size(), "point of the rule book is not verified",
                                "points of the rule book are not verified"),
                        doubtful});
    if (!checks.details.empty()) gate.push_back(std::move(checks));
    return gate;
}

std::string nextMark(const Project& p) {
    const Issue* last = lastIssue(p);
    if (!last) return "P1";
    std::string mark = last->mark;
    std::size_t digits = mark.size();
    while (digits > 0 && isDigit(mark[digits - 1])) --digits;
    if (digits < mark.size() && mark.size() - digits < 9)
        mark = mark.substr(0, digits) + std::to_string(std::stoi(mark.substr(digits)) + 1);
    else if (!mark.empty() && isLetter(mark.back()) && mark.back() != 'Z' && mark.back() != 'z')
        ++mark.back();
    else
        mark += "1";
    return findIssue(p, mark) ? mark + "a" : mark;
}

const Issue* lastIssue(const Project& p) {
    const Issue* last = nullptr;
    for (const Issue& i : p.issues) last = &i;
    return last;
}

const Issue* findIssue(const Project& p, const std::string& mark) {
    for (const Issue& i : p.issues)
        if (i.mark == mark) return &i;
    return nullptr;
}

Outcome<Project> projectOf(const Project& p, IssueId id) {
    if (!p.issues.has(id)) return Error{"issue", "there is no such issue", ""};
    const auto text = textOfIssue(p, id);
    if (!text) return text.error();
    auto was = readProject(*text, "issue " + p.issues[id].mark);
    if (!was) return was.error();
    for (const Issue& i : p.issues)
        if (i.id <= id) was->issues.put(i);
    return was;
}

std::string printOf(const Drawing& d) {
    std::vector<std::string> lines;
    std::istringstream words(d.words());
    for (std::string line; std::getline(words, line);) // its place in the set is not what it says
        if (line.rfind("Sheet ", 0) != 0 || line.find(" of ") == std::string::npos) lines.push_back(line);
    std::sort(lines.begin(), lines.end());
    std::uint64_t hash = 14695981039346656037ull; // FNV-1a
    for (const std::string& line : lines)
        for (char c : line + "\n") hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211ull;
    return fmt::format("{:016x}", hash);
}

std::optional<Error> refuseIssue(const CheckInput& in, const IssueDraft& draft, const std::vector<GateItem>& gate) {
    if (draft.mark.empty()) return Error{"mark", "an issue has a mark", "Type one, such as T1."};
    if (findIssue(in.project, draft.mark))
        return Error{"mark", "there is an issue \"" + draft.mark + "\" already",
                     "Take the next: " + nextMark(in.project) + "."};
    if (draft.date.empty()) return Error{"date", "an issue has a date", "Type the day on which it goes out."};
    if (draft.sheets.empty()) return Error{"sheets", "no sheet is ticked", "Tick the sheets that go out."};
    for (const GateItem& item : gate) {
        const bool taken = std::any_of(draft.taken.begin(), draft.taken.end(),
                                       [&](const TakenOn& t) { return t.what == item.what && !t.by.empty(); });
        if (!taken) return Error{"issue " + draft.mark, item.what, "Mend it, or say by name who goes on nevertheless."};
    }
    return std::nullopt;
}

Outcome<Project> issued(const SheetInput& in, const IssueDraft& draft,
                        const std::function<bool(std::size_t, std::size_t)>& told) {
    const CheckInput now{in.project, in.book, in.results};
    if (const auto bad = refuseIssue(now, draft, issueGate(now))) return *bad;
    Project next = in.project;
    Basis& basis = next.basis;
    basis.issue = draft.mark;
    basis.issueDate = draft.date;
    basis.status = statusOf(draft.state);
    if (basis.revisions.empty() || basis.revisions.back().mark != draft.mark)
        basis.revisions.push_back({draft.mark, draft.date, draft.reason, draft.by});
    Issue issue;
    issue.mark = draft.mark;
    issue.date = draft.date;
    issue.reason = draft.reason;
    issue.by = draft.by;
    issue.checked = draft.checked;
    issue.state = draft.state;
    issue.taken = draft.taken;
    const SheetInput sheets{next, in.book, in.results, in.underlays, in.projectFile};
    const auto set = issueSet(sheets);
    std::size_t done = 0;
    for (const SheetEntry& e : set) {
        if (std::find(draft.sheets.begin(), draft.sheets.end(), e.key) == draft.sheets.end()) continue;
        if (told && !told(done++, draft.sheets.size())) return Error{"issue " + draft.mark, "it was cancelled", ""};
        issue.sheets.push_back({e.number, e.title, e.key, printOf(e.draw())});
    }
    keepNumbers(next, set);
    const std::string text = textWithoutIssues(next);
    const Issue* before = lastIssue(next);
    if (before) {
        const auto from = textOfIssue(next, before->id);
        if (!from) return from.error();
        const std::string delta = deltaOf(*from, text);
        if (applyDelta(*from, delta) == text) {
            issue.basedOn = before->id;
            issue.packed = packed(delta);
        }
    }
    if (!issue.basedOn) issue.packed = packed(text);
    next.issues.add(std::move(issue));
    return next;
}

const IssuedSheet* sheetOf(const Issue& issue, const SheetEntry& sheet) {
    const auto it = std::find_if(issue.sheets.begin(), issue.sheets.end(), [&](const IssuedSheet& s) {
        return s.key.empty() ? s.title == sheet.title : s.key == sheet.key;
    });
    return it == issue.sheets.end() ? nullptr : &*it;
}

void keepNumbers(Project& p, const std::vector<SheetEntry>& set) {
    for (const SheetEntry& e : set)
        if (e.kind && e.page == 0 && !e.kept) (void)numberSheet(p, {*e.kind, e.about}, e.number);
}

std::optional<Error> renumber(Project& p, const std::vector<SheetEntry>& set, const SheetEntry& sheet,
                              const std::string& number) {
    if (!sheet.kind || sheet.page > 0)
        return Error{"sheet " + sheet.number, "its number follows from that of another",
                     sheet.kind ? "Number the first sheet of these." : "Lists and the index have theirs."};
    for (const SheetEntry& other : set) {
        const bool movable = other.kind && !other.kept && other.page == 0; // it takes another by itself
        const bool own = other.kind == sheet.kind && other.about == sheet.about;
        if (!own && !movable && other.number == number)
            return Error{"sheet number", number + " is the number of \"" + other.title + "\"",
                         "Give it one of its own, or number the other first."};
    }
    return numberSheet(p, {*sheet.kind, sheet.about}, number);
}

} // namespace lintel
