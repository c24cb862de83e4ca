#pragma once
// What the commands of lintel-cli share, and those that have a file of their own.

#include "core/check/Check.h"
#include "core/plan/Underlay.h"
#include "core/rules/RuleBook.h"

#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace lintel {

/// The whole program: 0 when it was done, 1 with the reason on standard error. Never lets an exception out.
int runCommandLine(int argc, char** argv);

/// Says why on standard error; the program's exit code.
int fail(const Error& error);

/// A project with its rule book and results, or the Error in the way.
struct Solved {
    Project project;
    RuleBook book;
    Results results;
    CheckInput input() const { return {project, book, results}; }
};
/// `file`: a project, or FILE@MARK: as it was when that issue went out.
Outcome<std::shared_ptr<Solved>> openSolved(const std::string& file);

/// A board, transformer, source or circuit by its name or id; nothing: there is none.
Ref findNamed(const Solved& solved, const std::string& name);
Error notNamed(const std::string& name);

/// Before a QGuiApplication is made: sheets are drawn without a display, unless somebody asks for another way.
void drawOffscreen();

/// Reads what lies below the plans of a project, each file once; what cannot be read is told on standard error.
std::function<std::shared_ptr<const UnderlayContent>(const Underlay&)> underlaysOf(const std::string& projectFile);

struct ExportOrder {
    std::string file, out = "files", name;  ///< name: the pattern of the names; empty: the usual one
    std::vector<std::string> kinds, sheets; ///< words of IssueFile, none: the usual ones; numbers, none: all
    bool archive = false, replace = false;
};
int runExport(const ExportOrder& order, int argc, char** argv);

struct ReportCommand {
    std::string file, of, depth = "summary", out = "calculations.pdf";
    bool path = false;
};
int runReport(const ReportCommand& order, int argc, char** argv);

struct ReviewCommand {
    std::string file;
    bool json = false;
};
int runReview(const ReviewCommand& order);

struct LevelOrder {
    std::string file, board, together, out;
    int moves = -1;
    bool json = false;
};
int runLevel(const LevelOrder& order);

/// A list of loads or feeders, and how it is read.
struct LoadsOrder {
    std::string file, list, board, columns, delimiter, encoding, sheet, decimal, unit, out, header;
    bool removeGone = false, circuit = false, dryRun = false, json = false;
};
struct ListsOrder {
    std::string file, out;
    std::vector<std::string> keys;
    bool json = false;
};
int runLists(const ListsOrder& order);

struct FormsOrder {
    std::string file, take, write, use, out;
    std::vector<std::string> boards;
    bool figures = false;
};
int runForms(const FormsOrder& order);

struct IssuesOrder {
    std::string file, show, out;                         ///< show: the mark of an issue whose state is written
    std::string make, date, reason, by, checked, accept; ///< make: the mark of a new one
    std::string state = "for tender";
    bool json = false;
};
int runIssues(const IssuesOrder& order);

struct SheetsOrder {
    std::string file, out;
    std::vector<std::string> numbers; ///< "E-603=E-610"; "E-603=": by the order again
    std::vector<std::string> titles;  ///< "E-603=Kitchen panel"; "E-603=": the usual one again
    std::vector<std::string> leave;   ///< numbers of sheets to leave out
    std::vector<std::string> back;    ///< titles of sheets that were left out; "all"
    std::vector<std::string> compose; ///< "E-601,E-602,feeders": on one sheet; "schedules", "diagrams", "lists": all
    std::vector<std::string> apart;   ///< numbers of composed sheets to take apart
    std::string paper = "as usual";   ///< of new composed sheets
    bool keep = false, anew = false, json = false;
};
int runSheets(const SheetsOrder& order);

struct CompareOrder {
    std::vector<std::string> files; ///< two, or the seven that git gives
    std::string pdf;                ///< file to write; empty: none
    bool json = false, text = false;
};
int runCompare(const CompareOrder& order, int argc, char** argv);

struct MergeOrder {
    std::string base, ours, theirs, out;
    bool json = false;
};
/// 0: nothing is left to decide; 1: something is, or it could not be done.
int runMerge(const MergeOrder& order);

struct ModelOrder {
    std::string file, model, out;
    bool removeGone = false, dryRun = false, json = false;
};
/// A building model into a project.
int runModel(const ModelOrder& order);

int runLoadsImport(const LoadsOrder& order);
int runLoadsExport(const LoadsOrder& order);
int runLoadsCheck(const LoadsOrder& order);
int runFeedersImport(const LoadsOrder& order);
int runFeedersExport(const LoadsOrder& order);

} // namespace lintel
