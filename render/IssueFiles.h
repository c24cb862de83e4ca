#pragma once
// All files of a set written in one go, into a folder or one archive, under names that follow a pattern. Either all of
// them are there afterwards or none.

#include "core/base/Error.h"
#include "core/check/Assumptions.h"
#include "core/sheets/Sheets.h"

#include <filesystem>
#include <functional>
#include <set>
#include <string>
#include <vector>

namespace lintel {

enum class IssueFile { Sheets, Apart, Drawings, Svg, Png, Lists, Cards, Report, Results, Project };
template <> struct EnumText<IssueFile> {
    static constexpr std::pair<IssueFile, const char*> words[] = {
        {IssueFile::Sheets, "sheets"},    ///< one PDF of all sheets
        {IssueFile::Apart, "apart"},      ///< a PDF for each sheet
        {IssueFile::Drawings, "dxf"},     ///< a DXF for each sheet, and each floor in the units of the building
        {IssueFile::Svg, "svg"},          ///< an SVG for each sheet
        {IssueFile::Png, "png"},          ///< a picture of each sheet
        {IssueFile::Lists, "lists"},      ///< the workbook
        {IssueFile::Cards, "cards"},      ///< door cards, one PDF
        {IssueFile::Report, "report"},    ///< the calculation report, each circuit in a row
        {IssueFile::Results, "results"},  ///< JSON for other programs
        {IssueFile::Project, "project"}}; ///< the project itself, with the drawings below its plans
};

/// What goes out where nobody says otherwise.
inline const std::set<IssueFile> usualIssueFiles{IssueFile::Sheets, IssueFile::Drawings, IssueFile::Lists,
                                                 IssueFile::Project};

struct IssueFilesOrder {
    std::set<IssueFile> kinds = usualIssueFiles;
    std::string pattern;  ///< see core/issue/FileNames.h
    bool archive = false; ///< one zip instead of loose files
    bool replace = false; ///< files of the same names may be there already
    /// Asked before each file; false ends it, and nothing is left.
    std::function<bool(std::size_t done, std::size_t all)> keepOn{};
};

struct IssueFilesWritten {
    std::vector<std::filesystem::path> files;
    int picturesLeftOut = 0; ///< of DXF
};

/// The names that would be written, in their order, without the folder. An Error: the pattern is none, or nothing is
/// asked for.
Outcome<std::vector<std::string>> issueFileNames(const SheetInput& in, const std::vector<SheetEntry>& sheets,
                                                 const IssueFilesOrder& order);
/// `sheets`: those that go out. Errors: as above; a file of that name is there; it cannot be written; cancelled.
Outcome<IssueFilesWritten> writeIssueFiles(const SheetInput& in, const std::vector<SheetEntry>& sheets,
                                           const std::filesystem::path& folder, const IssueFilesOrder& order);

} // namespace lintel
