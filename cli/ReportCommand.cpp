// lintel-cli report: the calculations of a project, or of a part of it, as a PDF to hand in.

#include "cli/Commands.h"
#include "core/report/CalculationReport.h"
#include "render/PdfFile.h"

#include <QGuiApplication>
#include <fmt/format.h>
#include <iostream>

namespace lintel {

int runReport(const ReportCommand& o, int argc, char** argv) {
    ReportOrder order;
    const auto depth = fromWord<ReportDepth>(o.depth);
    if (!depth) return fail({o.depth, "there is no such depth", "It is summary, runs or everything."});
    order.depth = *depth;
    if (o.path && o.of.empty()) return fail({"--path", "a path to what?", "Name a board or circuit with --of."});
    order.path = o.path;
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    if (!o.of.empty()) {
        order.of = findNamed(**s, o.of);
        if (!order.of) return fail(notNamed(o.of));
    }
    drawOffscreen();
    QGuiApplication app(argc, argv);
    const SheetInput in{(*s)->project, (*s)->book, (*s)->results};
    const auto report = calculationReport(in, order);
    if (!report) return fail(report.error());
    if (const auto bad = writeReport(*report, (*s)->project, QString::fromStdString(o.out))) return fail(*bad);
    std::cout << fmt::format("{}: {} {}\n", o.out, report->pages.size(), report->pages.size() == 1 ? "page" : "pages");
    return 0;
}

} // namespace lintel
