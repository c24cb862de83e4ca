// lintel-cli issues: what went out, the project as it was then, and a new issue.

#include "cli/Commands.h"
#include "core/check/Assumptions.h"
#include "core/issue/Issues.h"
#include "core/project/ProjectFile.h"

#include <filesystem>
#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

void print(const Project& p, bool json) {
    if (json) {
        nlohmann::ordered_json list = nlohmann::ordered_json::array();
        for (const Issue& i : p.issues) {
            nlohmann::ordered_json sheets = nlohmann::ordered_json::array();
            nlohmann::ordered_json taken = nlohmann::ordered_json::array();
            for (const IssuedSheet& s : i.sheets) sheets.push_back({{"number", s.number}, {"title", s.title}});
            for (const TakenOn& t : i.taken) taken.push_back({{"what", t.what}, {"by", t.by}});
            list.push_back({{"mark", i.mark},
                            {"date", i.date},
                            {"state", wordOf(i.state)},
                            {"reason", i.reason},
                            {"by", i.by},
                            {"checked", i.checked},
                            {"sheets", sheets},
                            {"taken_on", taken}});
        }
        std::cout << list.dump(1) << "\n";
        return;
    }
    if (p.issues.empty()) std::cout << "nothing was issued yet\n";
    for (const Issue& i : p.issues) {
        std::cout << fmt::format("{:6} {:12} {:18} {:3} sheets  {}{}\n", i.mark, i.date, wordOf(i.state),
                                 i.sheets.size(), i.reason, i.by.empty() ? "" : " (" + i.by + ")");
        for (const TakenOn& t : i.taken) std::cout << fmt::format("       {}: taken on by {}\n", t.what, t.by);
    }
}

int make(const IssuesOrder& o, const Solved& s) {
    IssueDraft draft;
    draft.mark = o.make == "next" ? nextMark(s.project) : o.make;
    draft.date = o.date;
    draft.reason = o.reason;
    draft.by = o.by;
    draft.checked = o.checked;
    const auto state = fromWord<IssueState>(o.state);
    if (!state)
        return fail({o.state, "an issue is not for that",
                     "Give --for \"for comment\", \"for tender\", \"for construction\" or \"as built\"."});
    draft.state = *state;
    for (const GateItem& item : issueGate(s.input())) {
        if (!o.accept.empty()) draft.taken.push_back({item.what, o.accept});
        std::cerr << "lintel-cli: " << item.what << (o.accept.empty() ? "" : ", taken on by " + o.accept) << "\n";
    }
    for (const SheetEntry& e : issueSet({s.project, s.book, s.results})) draft.sheets.push_back(e.key);
    const std::string to = o.out.empty() ? o.file : o.out;
    if (!std::filesystem::exists(o.file) && o.out.empty())
        return fail({o.file, "a project as it was issued is not written over", "Give --out FILE."});
    const auto next = issued({s.project, s.book, s.results, underlaysOf(o.file), o.file}, draft);
    if (!next) return fail(next.error());
    if (const auto bad = saveProject(*next, to)) return fail(*bad);
    std::cout << fmt::format("{} issued, {} sheets, written to {}\n", draft.mark, lastIssue(*next)->sheets.size(), to);
    return 0;
}

} // namespace

int runIssues(const IssuesOrder& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    if (!o.make.empty()) return make(o, **s);
    if (o.show.empty()) {
        print((*s)->project, o.json);
        return 0;
    }
    const Issue* issue = findIssue((*s)->project, o.show);
    if (!issue) return fail({o.show, "there is no issue of that mark", "lintel-cli issues FILE lists them."});
    if (o.out.empty()) return fail({o.show, "where to?", "Give --out FILE."});
    const auto was = projectOf((*s)->project, issue->id);
    if (!was) return fail(was.error());
    if (const auto bad = saveProject(*was, o.out)) return fail(*bad);
    std::cout << o.out << "\n";
    return 0;
}

} // namespace lintel
