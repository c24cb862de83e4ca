#pragma once
// A working as pages to print and sign: what was worked out, its figures, each step with its rule, the deciding one
// marked.

#include "core/bench/Bench.h"
#include "core/sheets/Drawing.h"

namespace lintel {

/// What stands above and below the working.
struct WorkingHead {
    std::string job, jobNumber, company, designer, date;
    std::string rests; ///< the rule book, and what in it is unverified or the project's own
};
WorkingHead sheetHead(const Project& project, const RuleBook& book);
WorkingHead sheetHead(const std::string& job, const std::string& company, const RuleBook& book);

std::vector<Drawing> workingSheets(const Working& working, const WorkingHead& head);
/// With the figures, list and cautions of a bench sum above its steps.
std::vector<Drawing> workingSheets(const BenchAnswer& answer, const WorkingHead& head);

} // namespace lintel
