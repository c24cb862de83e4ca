#pragma once
// Issues of a project: the set as it went out on a day, for a purpose, by somebody. The project as it was then is kept
// in the file, told by the issue before it.

#include "core/check/Check.h"
#include "core/sheets/Sheets.h"

namespace lintel {

/// What a person enters for an issue.
struct IssueDraft {
    std::string mark; ///< "T1"; no two issues share one
    std::string date, reason, by, checked;
    IssueState state = IssueState::Tender;
    std::vector<std::string> sheets; ///< keys of the sheets that go out
    std::vector<TakenOn> taken;      ///< of what stands in the way: who goes on nevertheless
};

/// One thing that stands in the way of an issue, or has to be known by whoever signs it.
struct GateItem {
    std::string what;                 ///< "14 stops are open"
    std::vector<std::string> details; ///< each of them
};
/// Stops, unknown lengths, loads without a name, values nobody has verified, checks. Empty: the set can go out.
std::vector<GateItem> issueGate(const CheckInput& in);

/// "T1, tender": the mark that comes after the last, by its own way of counting ("P1" → "P2", "B" → "C", "9" → "10").
std::string nextMark(const Project& project);

/// Why an issue cannot be made so; nothing: it can.
std::optional<Error> refuseIssue(const CheckInput& in, const IssueDraft& draft, const std::vector<GateItem>& gate);
/// The project with the issue: its state kept, its revision in the title block, mark, date and status on the sheets,
/// whose numbers stay from then on.
/// Refused, with what to do, where the mark is empty or taken, no sheet is chosen, or an item of the gate was taken on
/// by nobody. `told` hears of each sheet (done, all) and may end it by false. `in` is what the sheets are drawn from,
/// with the drawings below the plans: what a sheet says is kept, and held against what it says later.
Outcome<Project> issued(const SheetInput& in, const IssueDraft& draft,
                        const std::function<bool(std::size_t, std::size_t)>& told = {});

/// The last one; null: nothing was issued yet.
const Issue* lastIssue(const Project& project);
/// By its mark; null: there is none.
const Issue* findIssue(const Project& project, const std::string& mark);
/// The project as it was when that issue was made, with it and those before it.
Outcome<Project> projectOf(const Project& project, IssueId issue);

/// The sheet as it went out with an issue; null: it did not.
const IssuedSheet* sheetOf(const Issue& issue, const SheetEntry& sheet);

/// The sheets of the set keep the numbers that they have.
void keepNumbers(Project& project, const std::vector<SheetEntry>& set);
/// A sheet of the set keeps this number from now on; an empty one lets go of it. Refused where
/// another sheet has it for good, or it cannot be one.
std::optional<Error> renumber(Project& project, const std::vector<SheetEntry>& set, const SheetEntry& sheet,
                              const std::string& number);

/// What a sheet says, as a number: another one when any word of it differs.
std::string printOf(const Drawing& sheet);

} // namespace lintel
