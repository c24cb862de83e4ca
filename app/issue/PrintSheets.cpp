#include "app/issue/PrintSheets.h"

#include "render/Painter.h"

#include <QPrintPreviewDialog>
#include <QPrinter>

#include <algorithm>

namespace lintel {

double printScale(const Drawing& sheet, double paperWidth, double paperHeight) {
    return std::min({1.0, paperWidth / sheet.width, paperHeight / sheet.height});
}

void printSheets(QPrinter& printer, const std::vector<Drawing>& sheets) {
    if (sheets.empty()) return;
    const int last = int(sheets.size());
    const bool some = printer.printRange() == QPrinter::PageRange && printer.fromPage() > 0;
    const int from = some ? std::min(printer.fromPage(), last) : 1,
              to = some ? std::clamp(printer.toPage(), from, last) : last;
    printer.setFullPage(true); // the sheets have margins of their own
    const auto orient = [&](const Drawing& d) {
        printer.setPageOrientation(d.width > d.height ? QPageLayout::Landscape : QPageLayout::Portrait);
    };
    orient(sheets[std::size_t(from - 1)]);
    QPainter painter;
    for (int i = from; i <= to; ++i) {
        const Drawing& d = sheets[std::size_t(i - 1)];
        orient(d);
        if (painter.isActive())
            printer.newPage();
        else if (!painter.begin(&printer))
            return;
        const QRectF paper = printer.paperRect(QPrinter::Millimeter),
                     ink = printer.pageLayout().paintRect(QPageLayout::Millimeter);
        // Where the paper is that of the sheet it is printed as it is; where it is smaller, within what can be printed.
        const bool own = printScale(d, paper.width(), paper.height()) > 0.995;
        const QRectF room = own ? paper : ink;
        const double scale = own ? 1 : printScale(d, room.width(), room.height());
        painter.resetTransform();
        const double dots = printer.resolution() / 25.4;
        painter.scale(dots, dots);
        painter.translate(own ? 0 : room.left() + (room.width() - d.width * scale) / 2,
                          own ? 0 : room.top() + (room.height() - d.height * scale) / 2);
        painter.scale(scale, scale);
        paint(painter, d, paperPalette());
    }
    painter.end();
}

void previewPrint(QWidget* parent, const std::vector<Drawing>& sheets, const QString& title) {
    QPrinter printer(QPrinter::HighResolution);
    printer.setDocName(title);
    // By itself the paper of the first sheet; the dialog lets another be chosen.
    const Drawing& first = sheets.front();
    printer.setPageSize(QPageSize(QSizeF(std::min(first.width, first.height), std::max(first.width, first.height)),
                                  QPageSize::Millimeter));
    QPrintPreviewDialog dialog(&printer, parent);
    dialog.setObjectName("printPreview");
    dialog.setWindowTitle(QObject::tr("Print %1").arg(title));
    dialog.resize(1100, 760);
    QObject::connect(&dialog, &QPrintPreviewDialog::paintRequested, [&](QPrinter* on) { printSheets(*on, sheets); });
    dialog.exec();
}

} // namespace lintel
