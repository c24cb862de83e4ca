#pragma once
// The calculations of a project as pages to hand in: what the design is for and rests on, how it is worked out and by
// which rules, the results as tables, the workings behind them, and what is assumed, overridden, not verified or still
// open.

#include "core/base/EnumText.h"
#include "core/check/Check.h"
#include "core/lists/ListScope.h"
#include "core/sheets/Bookmarks.h"
#include "core/sheets/Sheets.h"

namespace lintel {

/// Summary: tables of supplies, boards, feeders, drop and faults. Runs: every branch circuit beside. Everything: each
/// with its workings, step by step.
enum class ReportDepth { Summary, Runs, Everything };
template <> struct EnumText<ReportDepth> {
    static constexpr std::pair<ReportDepth, const char*> words[] = {
        {ReportDepth::Summary, "summary"}, {ReportDepth::Runs, "runs"}, {ReportDepth::Everything, "everything"}};
};

struct ReportOrder {
    Ref of{};          ///< a board, transformer or source with all it feeds; nothing: the whole project
    bool path = false; ///< only the way from the supply to `of`, which may be a circuit
    ReportDepth depth = ReportDepth::Summary;
};

/// What it tells of. Errors: `of` is not in the project, or a path is asked for what nothing feeds.
Outcome<ListScope> reportScope(const Project& project, const Results& results, const ReportOrder& order);

struct CalculationReport {
    std::vector<Drawing> pages;
    std::vector<Bookmark> bookmarks;
    std::vector<PageLink> links; ///< from the contents
};

/// `told` hears how far it is (done, all) and ends it by false. Errors: `of` is not in the project, a path is asked for
/// what nothing feeds, or it was cancelled.
Outcome<CalculationReport> calculationReport(const SheetInput& in, const ReportOrder& order,
                                             const std::function<bool(std::size_t, std::size_t)>& told = {});

} // namespace lintel
