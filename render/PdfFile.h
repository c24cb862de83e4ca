#pragma once
// Drawings as one PDF file: a page each in its own size, with bookmarks, the numbers of the sheets as page labels, and
// links from where a sheet is named to that sheet. The same drawings make the same bytes, whenever they are written.

#include "core/base/Error.h"
#include "core/drawing/Drawing.h"
#include "core/project/Project.h"
#include "core/report/CalculationReport.h"

#include <QString>

#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace lintel {

struct PdfAbout {
    std::string title, author, subject;
    std::string date{};                ///< "2026-11-30"; anything else: the file bears no date
    std::vector<Bookmark> bookmarks{}; ///< empty: one for each sheet, by number and title
    std::vector<PageLink> links{};     ///< beside those that follow from the numbers of the sheets
    /// Asked before each page; false ends it, and no file is left.
    std::function<bool(std::size_t page, std::size_t pages)> keepOn{};
};

/// What a file says of itself, by the basis of a project.
PdfAbout pdfAbout(const Project& project, const std::string& title);

/// Errors: the file cannot be written, or it was cancelled; then what stood under that name stands there still.
std::optional<Error> writePdf(const std::vector<Drawing>& drawings, const QString& file, const PdfAbout& about);

/// A calculation report with its bookmarks and contents; `keepOn` as in PdfAbout.
std::optional<Error> writeReport(const CalculationReport& report, const Project& project, const QString& file,
                                 const std::function<bool(std::size_t, std::size_t)>& keepOn = {});

/// Where drawings name another of them by its number: "see E-501.2", or the number alone.
std::vector<PageLink> linksByNumber(const std::vector<Drawing>& drawings);

} // namespace lintel
