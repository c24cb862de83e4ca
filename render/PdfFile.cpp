#include "render/PdfFile.h"

#include "core/base/Parse.h"
#include "core/base/Utf8.h"
#include "core/drawing/TextBox.h"
#include "core/drawing/TextWidth.h"
#include "render/Painter.h"
#include "render/PdfFinish.h"

#include <QBuffer>
#include <QColorSpace>
#include <QPdfWriter>
#include <QSaveFile>

#include <fmt/format.h>
#include <map>

namespace lintel {
namespace {

constexpr double dotsPerInch = 600, mmPerInch = 25.4;

/// One for each sheet; sheets that go on under the same name have one together.
std::vector<Bookmark> bookmarksOf(const std::vector<Drawing>& drawings) {
    std::vector<Bookmark> all;
    for (std::size_t page = 0; page < drawings.size(); ++page) {
        const Drawing& d = drawings[page];
        const std::string title = d.number.empty() ? d.title : d.number + " " + d.title;
        if (!title.empty() && (all.empty() || all.back().title != title)) all.push_back({title, page, 0});
    }
    return all;
}

bool isIsoDate(const std::string& s) {
    constexpr std::size_t length = 10;
    if (s.size() != length || s[4] != '-' || s[7] != '-') return false;
    for (std::size_t i = 0; i < length; ++i)
        if (i != 4 && i != 7 && !isDigit(s[i])) return false;
    return true;
}

/// The first letter of a number of a sheet ("E-501.2") at or after `from`, and the first behind it; npos: none.
std::pair<std::size_t, std::size_t> nextNumber(const std::string& text, std::size_t from) {
    const auto letterOrDigit = [&](std::size_t i) {
        return i < text.size() && (isLetter(text[i]) || isDigit(text[i]));
    };
    for (std::size_t dash = text.find('-', from); dash != std::string::npos; dash = text.find('-', dash + 1)) {
        std::size_t begin = dash, end = dash + 1;
        while (begin > from && isLetter(text[begin - 1])) --begin;
        while (end < text.size() && isDigit(text[end])) ++end;
        if (begin == dash || end == dash + 1) continue;
        if (begin > 0 && (letterOrDigit(begin - 1) || text[begin - 1] == '-')) continue;
        if (end + 1 < text.size() && text[end] == '.' && isDigit(text[end + 1])) {
            ++end;
            while (end < text.size() && isDigit(text[end])) ++end;
        }
        if (letterOrDigit(end) || (end < text.size() && text[end] == '-')) continue; // "E-10-3" is something else
        return {begin, end};
    }
    return {std::string::npos, std::string::npos};
}

/// Whether a number there means a sheet: it stands alone, or behind a word that points to one.
bool pointsThere(const std::string& text, std::size_t begin, std::size_t end) {
    if (begin == 0 && end == text.size()) return true;
    for (const char* word : {"sheet ", "Sheet ", "sheets ", "see ", "See ", "on ", "to ", "from "}) {
        const std::string w = word;
        if (begin >= w.size() && text.compare(begin - w.size(), w.size(), w) == 0) return true;
    }
    return false;
}

/// The pages as the window's library writes them.
Outcome<QByteArray> painted(const std::vector<Drawing>& drawings, const std::string& file, const PdfAbout& about) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter pdf(&buffer);
    pdf.setResolution(int(dotsPerInch));
    QPainter painter;
    for (std::size_t i = 0; i < drawings.size(); ++i) {
        const Drawing& d = drawings[i];
        if (about.keepOn && !about.keepOn(i, drawings.size())) return Error{file, "cancelled; nothing was written", ""};
        pdf.setPageSize(QPageSize(QSizeF(d.width, d.height), QPageSize::Millimeter, QString(), QPageSize::ExactMatch));
        pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
        if (painter.isActive())
            pdf.newPage();
        else if (!painter.begin(&pdf))
            return Error{file, "the PDF cannot be begun", ""};
        painter.resetTransform();
        painter.scale(dotsPerInch / mmPerInch, dotsPerInch / mmPerInch);
        paint(painter, d, paperPalette());
    }
    painter.end();
    return bytes;
}

} // namespace

std::vector<PageLink> linksByNumber(const std::vector<Drawing>& drawings) {
    std::map<std::string, std::size_t> pageOf;
    for (std::size_t i = 0; i < drawings.size(); ++i)
        if (!drawings[i].number.empty()) pageOf.emplace(drawings[i].number, i);
    std::vector<PageLink> links;
    if (pageOf.size() < 2) return links; // workings and reports have no numbers
    for (std::size_t page = 0; page < drawings.size(); ++page)
        for (const Mark& m : drawings[page].marks) {
            const auto* t = std::get_if<TextMark>(&m);
            if (!t || t->text.find('-') == std::string::npos) continue;
            for (auto [begin, end] = nextNumber(t->text, 0); begin != std::string::npos;
                 std::tie(begin, end) = nextNumber(t->text, end)) {
                const auto there = pageOf.find(t->text.substr(begin, end - begin));
                if (there == pageOf.end() || there->second == page || !pointsThere(t->text, begin, end)) continue;
                const TextBox box = boxOf(*t);
                PageLink link{page, box.left, box.top, box.right, box.bottom, there->second};
                if (t->turn == 0) { // the number alone
                    const double whole = textWidth(t->text, t->size, t->bold),
                                 k = whole > 0 ? (box.right - box.left) / whole : 1;
                    link.left = box.left + k * textWidth(t->text.substr(0, begin), t->size, t->bold);
                    link.right = box.left + k * textWidth(t->text.substr(0, end), t->size, t->bold);
                }
                links.push_back(link);
            }
        }
    return links;
}

PdfAbout pdfAbout(const Project& project, const std::string& title) {
    const Basis& b = project.basis;
    const auto both = [](const std::string& x, const std::string& y) {
        return x + (x.empty() || y.empty() ? "" : ", ") + y;
    };
    return {title, both(b.designer, b.company), both(b.title, b.jobNumber), b.issueDate};
}

std::optional<Error> writeReport(const CalculationReport& report, const Project& project, const QString& file,
                                 const std::function<bool(std::size_t, std::size_t)>& keepOn) {
    PdfAbout about = pdfAbout(project, report.pages.front().title);
    about.bookmarks = report.bookmarks;
    about.links = report.links;
    about.keepOn = keepOn;
    return writePdf(report.pages, file, about);
}

std::optional<Error> writePdf(const std::vector<Drawing>& drawings, const QString& file, const PdfAbout& about) {
    const std::string name = file.toStdString();
    if (drawings.empty()) return Error{name, "there is no sheet to write", ""};
    if (auto none = noSheetFace()) return none;
    QSaveFile out(file);
    if (!out.open(QIODevice::WriteOnly)) // told before the work, not after it
        return Error{name, "the PDF cannot be written: " + out.errorString().toStdString(), "Choose another folder."};
    const auto raw = painted(drawings, name, about);
    if (!raw) return raw.error();
    PdfFinish finish;
    finish.title = printable(about.title);
    finish.author = printable(about.author);
    finish.subject = printable(about.subject);
    if (isIsoDate(about.date)) finish.day = about.date.substr(0, 4) + about.date.substr(5, 2) + about.date.substr(8, 2);
    const bool numbered =
        std::any_of(drawings.begin(), drawings.end(), [](const Drawing& d) { return !d.number.empty(); });
    for (std::size_t i = 0; i < drawings.size(); ++i) {
        finish.heights.push_back(drawings[i].height);
        if (numbered)
            finish.labels.push_back(printable(drawings[i].number.empty() ? std::to_string(i + 1) : drawings[i].number));
    }
    finish.bookmarks = about.bookmarks.empty() ? bookmarksOf(drawings) : about.bookmarks;
    for (Bookmark& b : finish.bookmarks) b.title = printable(b.title);
    finish.profile = QColorSpace(QColorSpace::SRgb).iccProfile().toStdString();
    finish.links = about.links;
    for (const PageLink& l : linksByNumber(drawings)) finish.links.push_back(l);
    QByteArray bytes;
    try {
        bytes = QByteArray::fromStdString(finishedPdf(raw->constData(), std::size_t(raw->size()), finish));
    } catch (const std::exception& e) {
        return Error{name, fmt::format("the PDF cannot be finished: {}", e.what()), ""};
    }
    if (out.write(bytes) != bytes.size() || !out.commit())
        return Error{name, "the PDF cannot be finished: " + out.errorString().toStdString(),
                     "Make room on the disk, or choose another folder."};
    return std::nullopt;
}

} // namespace lintel
