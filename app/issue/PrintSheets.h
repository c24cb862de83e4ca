#pragma once
// Sheets on a printer.

#include "core/drawing/Drawing.h"

#include <QString>

#include <vector>

class QPrinter;
class QWidget;

namespace lintel {

/// Shows them as they will be on the paper of the printer, from where they are printed.
void previewPrint(QWidget* parent, const std::vector<Drawing>& sheets, const QString& title);

/// Prints the pages that the printer was asked for, each turned as its sheet is and, where the paper is smaller than
/// that, reduced to fit. What a sheet is reduced to is told by the bar on it.
void printSheets(QPrinter& printer, const std::vector<Drawing>& sheets);

/// How large a sheet comes out on so much paper (mm): 1 is its own size; never larger.
double printScale(const Drawing& sheet, double paperWidth, double paperHeight);

} // namespace lintel
