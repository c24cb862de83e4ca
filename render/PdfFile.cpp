#include "render/PdfFile.h"

#include "core/base/Parse.h"
#include "core/base/Utf8.h"
#include "core/sheets/TextBox.h"
#include "core/sheets/TextWidth.h"
#include "render/Painter.h"

#include <QBuffer>
#include <QPdfWriter>
#include <QSaveFile>
#include <qpdf/Buffer.hh>
#include <qpdf/QPDF.hh>
#include <qpdf/QPDFPageDocumentHelper.hh>
#include <qpdf/QPDFWriter.hh>

#include <fmt/format.h>
#include <map>
#include <memory>
#include <set>

namespace lintel {
namespace {

constexpr double dotsPerInch = 600, mmPerInch = 25.4, pointsPerMm = 72 / mmPerInch;

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

/// What a PDF of the window's library becomes: the outline, labels, links and facts are added, its date goes.
class Finished {
public:
    explicit Finished(const QByteArray& raw) {
        pdf.processMemoryFile("Lintel", raw.constData(), std::size_t(raw.size()));
        pages = QPDFPageDocumentHelper(pdf).getAllPages();
    }

    void facts(const PdfAbout& about) {
        auto info = QPDFObjectHandle::newDictionary();
        const auto say = [&](const char* key, const std::string& text) {
            if (!text.empty()) info.replaceKey(key, QPDFObjectHandle::newUnicodeString(printable(text)));
        };
        say("/Title", about.title);
        say("/Author", about.author);
        say("/Subject", about.subject);
        say("/Creator", "Lintel " LINTEL_VERSION);
        if (isIsoDate(about.date)) {
            const std::string day = about.date.substr(0, 4) + about.date.substr(5, 2) + about.date.substr(8, 2);
            info.replaceKey("/CreationDate", QPDFObjectHandle::newString("D:" + day));
        }
        pdf.getTrailer().replaceKey("/Info", pdf.makeIndirectObject(info));
        auto root = pdf.getRoot();
        auto viewer = QPDFObjectHandle::newDictionary();
        viewer.replaceKey("/DisplayDocTitle", QPDFObjectHandle::newBool(true));
        root.replaceKey("/ViewerPreferences", viewer);
        root.removeKey("/Metadata"); // it would hold the date too
    }

    /// Each page is called by the number of its sheet; one without a number by its place.
    void labels(const std::vector<Drawing>& drawings) {
        if (std::all_of(drawings.begin(), drawings.end(), [](const Drawing& d) { return d.number.empty(); })) return;
        auto list = QPDFObjectHandle::newArray();
        for (std::size_t i = 0; i < drawings.size(); ++i) {
            auto label = QPDFObjectHandle::newDictionary();
            const std::string name = drawings[i].number.empty() ? std::to_string(i + 1) : drawings[i].number;
            label.replaceKey("/P", QPDFObjectHandle::newUnicodeString(printable(name)));
            list.appendItem(QPDFObjectHandle::newInteger(static_cast<long long>(i)));
            list.appendItem(label);
        }
        auto tree = QPDFObjectHandle::newDictionary();
        tree.replaceKey("/Nums", list);
        pdf.getRoot().replaceKey("/PageLabels", pdf.makeIndirectObject(tree));
    }

    void bookmarks(const std::vector<Bookmark>& all) {
        if (all.size() < 2) return;
        auto root = pdf.makeIndirectObject(QPDFObjectHandle::newDictionary());
        root.replaceKey("/Type", QPDFObjectHandle::newName("/Outlines"));
        addBelow(root, all, 0, all.size(), 0);
        pdf.getRoot().replaceKey("/Outlines", root);
        pdf.getRoot().replaceKey("/PageMode", QPDFObjectHandle::newName("/UseOutlines"));
    }

    void links(const std::vector<PageLink>& all, const std::vector<Drawing>& drawings) {
        for (const PageLink& l : all) {
            if (l.page >= pages.size() || l.to >= pages.size()) continue;
            const double height = drawings[l.page].height;
            auto link = QPDFObjectHandle::newDictionary();
            link.replaceKey("/Type", QPDFObjectHandle::newName("/Annot"));
            link.replaceKey("/Subtype", QPDFObjectHandle::newName("/Link"));
            link.replaceKey("/Rect", QPDFObjectHandle::newArray(QPDFObjectHandle::Rectangle(
                                         l.left * pointsPerMm, (height - l.bottom) * pointsPerMm, l.right * pointsPerMm,
                                         (height - l.top) * pointsPerMm)));
            link.replaceKey("/Border", QPDFObjectHandle::parse("[0 0 0]"));
            link.replaceKey("/Dest", whole(l.to));
            auto page = pages[l.page].getObjectHandle();
            auto notes = page.getKey("/Annots");
            if (!notes.isArray()) {
                notes = QPDFObjectHandle::newArray();
                page.replaceKey("/Annots", notes);
            }
            notes.appendItem(pdf.makeIndirectObject(link));
        }
    }

    /// The library tags the subsets of fonts in an order that differs from one run to the next.
    void nameFonts() {
        std::map<std::string, std::string> named;
        const auto name = [&](QPDFObjectHandle font, const char* key) {
            auto old = font.getKey(key);
            if (!old.isName()) return;
            const std::string text = old.getName();
            const std::size_t plus = text.find('+');
            if (plus == std::string::npos) return;
            auto [it, fresh] = named.try_emplace(text);
            if (fresh) {
                std::size_t n = named.size();
                std::string tag = "LAAAAA";
                for (std::size_t i = tag.size(); i > 1 && n > 0; --i, n /= 26) tag[i - 1] = char('A' + n % 26);
                it->second = "/" + tag + text.substr(plus);
            }
            font.replaceKey(key, QPDFObjectHandle::newName(it->second));
        };
        std::set<QPDFObjGen> seen;
        for (QPDFPageObjectHelper& page : pages) {
            auto fonts = page.getAttribute("/Resources", false).getKey("/Font");
            if (!fonts.isDictionary()) continue;
            for (const std::string& key : fonts.getKeys()) {
                auto font = fonts.getKey(key);
                if (!seen.insert(font.getObjGen()).second) continue;
                name(font, "/BaseFont");
                auto below = font.getKey("/DescendantFonts");
                for (int i = 0; below.isArray() && i < below.getArrayNItems(); ++i) {
                    auto own = below.getArrayItem(i);
                    name(own, "/BaseFont");
                    auto about = own.getKey("/FontDescriptor");
                    if (about.isDictionary()) name(about, "/FontName");
                }
            }
        }
    }

    QByteArray bytes() {
        // Once to number the objects in the order in which they are met, and once more to pack them in that order.
        const auto numbered = written(pdf, qpdf_o_disable);
        QPDF again;
        again.processMemoryFile("Lintel", reinterpret_cast<const char*>(numbered->getBuffer()), numbered->getSize());
        const auto packed = written(again, qpdf_o_generate);
        return {reinterpret_cast<const char*>(packed->getBuffer()), qsizetype(packed->getSize())};
    }

private:
    QPDF pdf;
    std::vector<QPDFPageObjectHelper> pages;

    static std::shared_ptr<Buffer> written(QPDF& from, qpdf_object_stream_e streams) {
        QPDFWriter writer(from);
        writer.setOutputMemory();
        writer.setDeterministicID(true);
        writer.setObjectStreamMode(streams);
        writer.write();
        return writer.getBufferSharedPointer();
    }
    QPDFObjectHandle whole(std::size_t page) {
        auto there = QPDFObjectHandle::newArray();
        there.appendItem(pages[page].getObjectHandle());
        there.appendItem(QPDFObjectHandle::newName("/Fit"));
        return there;
    }
    /// The entries of one level from `from` on, each with what is deeper below it.
    void addBelow(QPDFObjectHandle parent, const std::vector<Bookmark>& all, std::size_t from, std::size_t end,
                  int level) {
        QPDFObjectHandle before = QPDFObjectHandle::newNull();
        int count = 0;
        while (from < end) {
            std::size_t next = from + 1;
            while (next < end && all[next].level > level) ++next;
            auto item = pdf.makeIndirectObject(QPDFObjectHandle::newDictionary());
            item.replaceKey("/Title", QPDFObjectHandle::newUnicodeString(printable(all[from].title)));
            item.replaceKey("/Parent", parent);
            item.replaceKey("/Dest", whole(std::min(all[from].page, pages.size() - 1)));
            if (before.isNull())
                parent.replaceKey("/First", item);
            else {
                item.replaceKey("/Prev", before);
                before.replaceKey("/Next", item);
            }
            parent.replaceKey("/Last", item);
            if (next > from + 1) addBelow(item, all, from + 1, next, level + 1);
            before = item;
            ++count;
            from = next;
        }
        // The first level stands open, what is below it is closed.
        parent.replaceKey("/Count", QPDFObjectHandle::newInteger(level == 0 ? count : -count));
    }
};

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
    for (std::size_t page = 0; page < drawings.size(); ++page)
        for (const Mark& m : drawings[page].marks) {
            const auto* t = std::get_if<TextMark>(&m);
            if (!t || t->text.find('-') == std::string::npos) continue;
            const TextBox box = boxOf(*t);
            for (auto [begin, end] = nextNumber(t->text, 0); begin != std::string::npos;
                 std::tie(begin, end) = nextNumber(t->text, end)) {
                const auto there = pageOf.find(t->text.substr(begin, end - begin));
                if (there == pageOf.end() || there->second == page || !pointsThere(t->text, begin, end)) continue;
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

std::optional<Error> writePdf(const std::vector<Drawing>& drawings, const QString& file, const PdfAbout& about) {
    const std::string name = file.toStdString();
    if (drawings.empty()) return Error{name, "there is no sheet to write", ""};
    QSaveFile out(file);
    if (!out.open(QIODevice::WriteOnly)) // told before the work, not after it
        return Error{name, "the PDF cannot be written: " + out.errorString().toStdString(), "Choose another folder."};
    const auto raw = painted(drawings, name, about);
    if (!raw) return raw.error();
    QByteArray bytes;
    try {
        Finished finished(*raw);
        finished.nameFonts();
        finished.facts(about);
        finished.labels(drawings);
        finished.bookmarks(about.bookmarks.empty() ? bookmarksOf(drawings) : about.bookmarks);
        finished.links(about.links, drawings);
        finished.links(linksByNumber(drawings), drawings);
        bytes = finished.bytes();
    } catch (const std::exception& e) {
        return Error{name, fmt::format("the PDF cannot be finished: {}", e.what()), ""};
    }
    if (out.write(bytes) != bytes.size() || !out.commit())
        return Error{name, "the PDF cannot be finished: " + out.errorString().toStdString(),
                     "Make room on the disk, or choose another folder."};
    return std::nullopt;
}

} // namespace lintel
