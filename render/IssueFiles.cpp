#include "render/IssueFiles.h"

#include "core/base/TextFile.h"
#include "core/exchange/DxfPlan.h"
#include "core/exchange/ResultsText.h"
#include "core/issue/FileNames.h"
#include "core/lists/Workbook.h"
#include "core/plan/Underlay.h"
#include "core/project/ProjectFile.h"
#include "core/report/CalculationReport.h"
#include "core/sheets/DoorCard.h"
#include "render/PdfFile.h"
#include "render/PngFile.h"
#include "render/SvgFile.h"

#include <algorithm>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <zip.h>

#include <memory>

namespace lintel {
namespace fs = std::filesystem;
namespace {

/// A file still to be written: its name, and what writes it.
struct Planned {
    std::string name;
    std::function<std::optional<Error>(const fs::path& to)> write;
};

QString qt(const fs::path& path) { return QString::fromStdString(path.string()); }

struct Plan {
    const SheetInput& in;
    const std::vector<SheetEntry>& sheets;
    const IssueFilesOrder& order;
    std::vector<Planned> files{};
    int pictures = 0;
    UniqueNames names{};

    const Project& project() const { return in.project; }
    void add(const std::string& what, const char* ending,
             std::function<std::optional<Error>(const fs::path& to)> write) {
        files.push_back({names.of(fileNameOf(order.pattern, project(), what), ending), std::move(write)});
    }
    /// A file for each sheet.
    template <class F> void addEach(const char* ending, F write) {
        for (const SheetEntry& e : sheets)
            add(e.number + " " + e.title, ending, [write, &e](const fs::path& to) { return write(e, to); });
    }
    std::optional<Error> noted(const Outcome<DxfLeftOut>& done) {
        if (!done) return done.error();
        pictures += done->pictures;
        return std::nullopt;
    }

    /// What is in the way: the pattern is none, or there is nothing to write.
    std::optional<Error> make() {
        if (const auto bad = refuseFilePattern(order.pattern)) return bad;
        for (const auto& [kind, word] : EnumText<IssueFile>::words)
            if (order.kinds.count(kind)) addKind(kind);
        if (files.empty())
            return Error{"files", "there is nothing to write",
                         order.kinds.empty() ? "Say which files." : "The project has nothing for the files asked for."};
        return std::nullopt;
    }
    /// What will be in the folder at the end.
    std::vector<std::string> results() const {
        if (order.archive) return {fileNameOf(order.pattern, project(), "files") + ".zip"};
        std::vector<std::string> all;
        for (const Planned& f : files) all.push_back(f.name);
        return all;
    }
    void addKind(IssueFile kind) {
        switch (kind) {
        case IssueFile::Sheets:
            if (sheets.empty()) return;
            return add("sheets", ".pdf", [this](const fs::path& to) {
                std::vector<Drawing> drawn;
                for (const SheetEntry& e : sheets) drawn.push_back(e.draw());
                return writePdf(drawn, qt(to), pdfAbout(project(), project().basis.title));
            });
        case IssueFile::Apart:
            return addEach(".pdf", [this](const SheetEntry& e, const fs::path& to) {
                return writePdf({e.draw()}, qt(to), pdfAbout(project(), e.title));
            });
        case IssueFile::Svg:
            return addEach(".svg", [](const SheetEntry& e, const fs::path& to) { return writeSvg(e.draw(), qt(to)); });
        case IssueFile::Png:
            return addEach(".png", [](const SheetEntry& e, const fs::path& to) { return writePng(e.draw(), qt(to)); });
        case IssueFile::Drawings:
            addEach(".dxf", [this](const SheetEntry& e, const fs::path& to) {
                return noted(writeDxf(e.draw(), to, sheetDxf(in)));
            });
            for (const auto& [level, name] : planFiles(project()))
                add(name, ".dxf",
                    [this, level = level](const fs::path& to) { return noted(writePlanDxf(in, level, to)); });
            return;
        case IssueFile::Lists:
            if (!hasWorkbook(in)) return;
            return add("lists", ".xlsx", [this](const fs::path& to) { return writeGrids(workbookOf(in), to); });
        case IssueFile::Cards:
            if (std::none_of(project().boards.begin(), project().boards.end(),
                             [&](const Board& b) { return !doorCards(in, b.id).empty(); }))
                return;
            return add("door cards", ".pdf", [this](const fs::path& to) {
                return writePdf(allDoorCards(in), qt(to), pdfAbout(project(), "Door cards"));
            });
        case IssueFile::Report:
            return add("calculations", ".pdf", [this](const fs::path& to) -> std::optional<Error> {
                ReportOrder report;
                report.depth = ReportDepth::Runs;
                const auto made = calculationReport(in, report);
                if (!made) return made.error();
                return writeReport(*made, project(), qt(to));
            });
        case IssueFile::Results:
            return add("results", ".json", [this](const fs::path& to) {
                return writeTextAtomically(resultsJson({project(), in.book, in.results}, false).dump(1) + "\n", to);
            });
        case IssueFile::Project:
            return addProject();
        }
    }
    /// The drawings below the plans go along, beside it, and the copy knows them there.
    void addProject() {
        auto copy = std::make_shared<Project>(project());
        std::vector<UnderlayId> ids;
        for (const Underlay& u : project().underlays) ids.push_back(u.id);
        for (UnderlayId id : ids) {
            const fs::path from = underlayFile(project().underlays[id], in.projectFile);
            std::error_code ec;
            if (!fs::is_regular_file(from, ec)) continue; // missing here too: the copy says so as this one does
            const std::string name = names.of(from.stem().string(), from.extension().string());
            copy->underlays.change(id)->file = name;
            files.push_back({name, [from](const fs::path& to) -> std::optional<Error> {
                                 std::error_code bad;
                                 fs::copy_file(from, to, fs::copy_options::overwrite_existing, bad);
                                 if (bad) return Error{textOfPath(from), "it cannot be copied: " + bad.message(), ""};
                                 return std::nullopt;
                             }});
        }
        add("project", ".lintel", [copy](const fs::path& to) { return saveProject(*copy, to); });
    }
};

/// The files of `from` as one archive; times of day are left out, so that the same files make the same bytes.
std::optional<Error> zipFiles(const std::vector<Planned>& files, const fs::path& from, const fs::path& to) {
    int code = 0;
    zip_t* zip = zip_open(to.c_str(), ZIP_CREATE | ZIP_EXCL, &code);
    if (!zip) return Error{textOfPath(to), "the archive cannot be written", "Choose another folder."};
    for (const Planned& f : files) {
        zip_source_t* source = zip_source_file(zip, (from / f.name).c_str(), 0, 0);
        const zip_int64_t at = source ? zip_file_add(zip, f.name.c_str(), source, ZIP_FL_ENC_UTF_8) : -1;
        if (at < 0) {
            if (source) zip_source_free(source);
            zip_discard(zip);
            return Error{f.name, "it cannot be put into the archive", ""};
        }
        zip_file_set_dostime(zip, zip_uint64_t(at), 0, 0x21, 0); // 1 January 1980, the first there is
    }
    if (zip_close(zip) == 0) return std::nullopt;
    const std::string why = zip_strerror(zip);
    zip_discard(zip);
    return Error{textOfPath(to), "the archive cannot be written: " + why, "Make room, or choose another folder."};
}

/// A folder of our own within the one to write to, gone at the end whatever happens.
struct Workshop {
    fs::path path;
    ~Workshop() {
        std::error_code ec;
        fs::remove_all(path, ec);
    }
};

} // namespace

Outcome<std::vector<std::string>> issueFileNames(const SheetInput& in, const std::vector<SheetEntry>& sheets,
                                                 const IssueFilesOrder& order) {
    Plan plan{in, sheets, order};
    if (const auto bad = plan.make()) return *bad;
    return plan.results();
}

Outcome<IssueFilesWritten> writeIssueFiles(const SheetInput& in, const std::vector<SheetEntry>& sheets,
                                           const fs::path& folder, const IssueFilesOrder& order) {
    Plan plan{in, sheets, order};
    if (const auto bad = plan.make()) return *bad;
    const std::vector<std::string> names = plan.results();
    std::error_code ec;
    fs::create_directories(folder, ec);
    if (ec) return Error{textOfPath(folder), "the folder cannot be made: " + ec.message(), "Choose another one."};
    if (!order.replace)
        for (const std::string& name : names)
            if (fs::exists(folder / name, ec))
                return Error{name, "there is a file of that name already",
                             "Choose another folder, or let it be replaced."};
    Workshop workshop{folder / fmt::format(".lintel-writing-{}", std::hash<std::string>{}(names.front()) % 1000000)};
    fs::remove_all(workshop.path, ec);
    fs::create_directory(workshop.path, ec);
    if (ec) return Error{textOfPath(folder), "it cannot be written: " + ec.message(), "Choose another folder."};
    std::size_t done = 0;
    for (const Planned& f : plan.files) {
        if (order.keepOn && !order.keepOn(done++, plan.files.size()))
            return Error{"files", "it was cancelled; nothing was written", ""};
        if (auto bad = f.write(workshop.path / f.name)) {
            bad->where = f.name;
            return *bad;
        }
    }
    if (order.archive)
        if (const auto bad = zipFiles(plan.files, workshop.path, workshop.path / names.front())) return *bad;
    IssueFilesWritten written;
    for (const std::string& name : names) {
        fs::rename(workshop.path / name, folder / name, ec);
        if (ec) return Error{name, "it cannot be put in its place: " + ec.message(), ""};
        written.files.push_back(folder / name);
    }
    written.picturesLeftOut = plan.pictures;
    return written;
}

} // namespace lintel
