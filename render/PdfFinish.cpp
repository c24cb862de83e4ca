#include "render/PdfFinish.h"

#include <qpdf/Buffer.hh>
#include <qpdf/QPDF.hh>
#include <qpdf/QPDFPageDocumentHelper.hh>
#include <qpdf/QPDFWriter.hh>

#include <algorithm>
#include <map>
#include <memory>
#include <set>

namespace lintel {
namespace {

constexpr double pointsPerMm = 72 / 25.4;
constexpr int printed = 4; // flag of an annotation: it is not for the screen alone
const std::string creator = "Lintel " LINTEL_VERSION;

/// Text between the tags of XML.
std::string escaped(const std::string& text) {
    std::string out;
    for (char ch : text) {
        if (ch == '&')
            out += "&amp;";
        else if (ch == '<')
            out += "&lt;";
        else if (ch == '>')
            out += "&gt;";
        else
            out += ch;
    }
    return out;
}

/// The facts of the file as XMP: the same as in its dictionary of facts (ISO 19005-2, 6.6.2), and what it conforms to.
std::string xmpOf(const PdfFinish& about) {
    const std::string languageTag = "<rdf:li xml:lang=\"x-default\">";
    std::string facts;
    if (!about.title.empty())
        facts += "<dc:title><rdf:Alt>" + languageTag + escaped(about.title) + "</rdf:li></rdf:Alt></dc:title>\n";
    if (!about.author.empty())
        facts += "<dc:creator><rdf:Seq><rdf:li>" + escaped(about.author) + "</rdf:li></rdf:Seq></dc:creator>\n";
    if (!about.subject.empty())
        facts += "<dc:description><rdf:Alt>" + languageTag + escaped(about.subject) +
                 "</rdf:li></rdf:Alt></dc:description>\n";
    if (!about.day.empty())
        facts += "<xmp:CreateDate>" + about.day.substr(0, 4) + "-" + about.day.substr(4, 2) + "-" +
                 about.day.substr(6, 2) + "</xmp:CreateDate>\n";
    return "<?xpacket begin=\"\xEF\xBB\xBF\" id=\"W5M0MpCehiHzreSzNTczkc9d\"?>\n"
           "<x:xmpmeta xmlns:x=\"adobe:ns:meta/\">\n"
           "<rdf:RDF xmlns:rdf=\"http://www.w3.org/1999/02/22-rdf-syntax-ns#\">\n"
           "<rdf:Description rdf:about=\"\" xmlns:dc=\"http://purl.org/dc/elements/1.1/\"\n"
           " xmlns:xmp=\"http://ns.adobe.com/xap/1.0/\" xmlns:pdfaid=\"http://www.aiim.org/pdfa/ns/id/\">\n"
           "<pdfaid:part>2</pdfaid:part>\n<pdfaid:conformance>B</pdfaid:conformance>\n"
           "<xmp:CreatorTool>" +
           escaped(creator) + "</xmp:CreatorTool>\n" + facts +
           "</rdf:Description>\n</rdf:RDF>\n</x:xmpmeta>\n<?xpacket end=\"w\"?>";
}

class Finished {
public:
    Finished(const char* raw, std::size_t size) {
        pdf.processMemoryFile("Lintel", raw, size);
        pages = QPDFPageDocumentHelper(pdf).getAllPages();
    }

    void facts(const PdfFinish& about) {
        auto info = QPDFObjectHandle::newDictionary();
        const auto say = [&](const char* key, const std::string& text) {
            if (!text.empty()) info.replaceKey(key, QPDFObjectHandle::newUnicodeString(text));
        };
        say("/Title", about.title);
        say("/Author", about.author);
        say("/Subject", about.subject);
        say("/Creator", creator);
        if (!about.day.empty()) info.replaceKey("/CreationDate", QPDFObjectHandle::newString("D:" + about.day));
        pdf.getTrailer().replaceKey("/Info", pdf.makeIndirectObject(info));
        auto root = pdf.getRoot();
        auto viewer = QPDFObjectHandle::newDictionary();
        viewer.replaceKey("/DisplayDocTitle", QPDFObjectHandle::newBool(true));
        root.replaceKey("/ViewerPreferences", viewer);
        root.removeKey("/Metadata"); // it would hold the date too
    }

    /// What a file that is kept for decades has to hold, and may not (ISO 19005-2): fonts are in it already.
    void lasting(const PdfFinish& about) {
        if (about.profile.empty()) return;
        auto root = pdf.getRoot();
        auto metadata = QPDFObjectHandle::newStream(&pdf, xmpOf(about));
        metadata.getDict().replaceKey("/Type", QPDFObjectHandle::newName("/Metadata"));
        metadata.getDict().replaceKey("/Subtype", QPDFObjectHandle::newName("/XML"));
        root.replaceKey("/Metadata", metadata);

        auto profile = QPDFObjectHandle::newStream(&pdf, about.profile);
        profile.getDict().replaceKey("/N", QPDFObjectHandle::newInteger(3));
        auto intent = QPDFObjectHandle::newDictionary();
        intent.replaceKey("/Type", QPDFObjectHandle::newName("/OutputIntent"));
        intent.replaceKey("/S", QPDFObjectHandle::newName("/GTS_PDFA1"));
        intent.replaceKey("/OutputConditionIdentifier", QPDFObjectHandle::newString("sRGB"));
        intent.replaceKey("/Info", QPDFObjectHandle::newString("sRGB IEC61966-2.1"));
        intent.replaceKey("/DestOutputProfile", profile);
        auto intents = QPDFObjectHandle::newArray();
        intents.appendItem(pdf.makeIndirectObject(intent));
        root.replaceKey("/OutputIntents", intents);

        for (QPDFObjectHandle object : pdf.getAllObjects()) // pictures are drawn as they are (6.2.8)
            if (object.isStream() && object.getDict().getKey("/Subtype").isNameAndEquals("/Image"))
                object.getDict().removeKey("/Interpolate");
    }

    void labels(const std::vector<std::string>& names) {
        if (names.empty()) return;
        auto list = QPDFObjectHandle::newArray();
        for (std::size_t i = 0; i < names.size(); ++i) {
            auto label = QPDFObjectHandle::newDictionary();
            label.replaceKey("/P", QPDFObjectHandle::newUnicodeString(names[i]));
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

    void links(const std::vector<PageLink>& all, const std::vector<double>& heights) {
        for (const PageLink& l : all) {
            if (l.page >= pages.size() || l.to >= pages.size()) continue;
            const double height = heights[l.page];
            auto link = QPDFObjectHandle::newDictionary();
            link.replaceKey("/Type", QPDFObjectHandle::newName("/Annot"));
            link.replaceKey("/Subtype", QPDFObjectHandle::newName("/Link"));
            link.replaceKey("/Rect", QPDFObjectHandle::newArray(QPDFObjectHandle::Rectangle(
                                         l.left * pointsPerMm, (height - l.bottom) * pointsPerMm, l.right * pointsPerMm,
                                         (height - l.top) * pointsPerMm)));
            link.replaceKey("/Border", QPDFObjectHandle::parse("[0 0 0]"));
            link.replaceKey("/F", QPDFObjectHandle::newInteger(printed));
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

    std::string bytes() {
        // Once to number the objects in the order in which they are met, and once more to pack them in that order.
        const auto numbered = written(pdf, qpdf_o_disable);
        QPDF again;
        again.processMemoryFile("Lintel", reinterpret_cast<const char*>(numbered->getBuffer()), numbered->getSize());
        const auto packed = written(again, qpdf_o_generate);
        return {reinterpret_cast<const char*>(packed->getBuffer()), packed->getSize()};
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
            item.replaceKey("/Title", QPDFObjectHandle::newUnicodeString(all[from].title));
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

} // namespace

std::string finishedPdf(const char* bytes, std::size_t size, const PdfFinish& finish) {
    Finished finished(bytes, size);
    finished.nameFonts();
    finished.facts(finish);
    finished.labels(finish.labels);
    finished.bookmarks(finish.bookmarks);
    finished.links(finish.links, finish.heights);
    finished.lasting(finish);
    return finished.bytes();
}

} // namespace lintel
