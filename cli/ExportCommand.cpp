// lintel-cli export: all files of a set in one go, under names that follow a pattern, loose or as one archive.

#include "cli/Commands.h"
#include "core/issue/FileNames.h"
#include "render/IssueFiles.h"

#include <QGuiApplication>
#include <algorithm>
#include <fmt/format.h>
#include <iostream>

namespace lintel {

int runExport(const ExportOrder& o, int argc, char** argv) {
    IssueFilesOrder order;
    order.pattern = o.name.empty() ? usualFilePattern : o.name;
    order.archive = o.archive;
    order.replace = o.replace;
    if (!o.kinds.empty()) order.kinds.clear();
    for (const std::string& word : o.kinds) {
        const auto kind = fromWord<IssueFile>(word);
        if (!kind) return fail({word, "there are no such files", "There are " + choiceWords<IssueFile>() + "."});
        order.kinds.insert(*kind);
    }
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    drawOffscreen();
    QGuiApplication app(argc, argv);
    SheetInput in{(*s)->project, (*s)->book, (*s)->results, underlaysOf(o.file), o.file};
    std::vector<SheetEntry> sheets;
    const auto all = issueSet(in);
    for (const std::string& number : o.sheets)
        if (std::none_of(all.begin(), all.end(), [&](const SheetEntry& e) { return e.number == number; }))
            return fail({number, "the project has no sheet of that number", "lintel-cli issue writes them all."});
    for (const SheetEntry& e : all)
        if (o.sheets.empty() || std::find(o.sheets.begin(), o.sheets.end(), e.number) != o.sheets.end())
            sheets.push_back(e);
    const auto written = writeIssueFiles(in, sheets, o.out, order);
    if (!written) return fail(written.error());
    for (const auto& file : written->files) std::cout << file.string() << "\n";
    if (written->picturesLeftOut)
        std::cerr << fmt::format("lintel-cli: pictures and logos are left out of DXF: {}\n", written->picturesLeftOut);
    return 0;
}

} // namespace lintel
