#include "render/SvgFile.h"

#include "render/Painter.h"
#include "render/PictureFile.h"

#include <QBuffer>
#include <QFileInfo>
#include <QImage>
#include <QSaveFile>

#include <fmt/format.h>
#include <pugixml.hpp>

#include <cmath>
#include <map>
#include <sstream>

namespace lintel {
namespace {

/// Millimetres to a thousandth.
std::string mm(double v) { return fmt::format("{:g}", std::round(v * 1000) / 1000 + 0.0); }
std::string colour(Ink ink) { return paperPalette()(ink).name().toStdString(); }

std::string pathOf(const std::vector<Point>& points, bool closed) {
    std::string d;
    for (std::size_t i = 0; i < points.size(); ++i)
        d += fmt::format("{}{} {}", i == 0 ? "M" : "L", mm(points[i].x), mm(points[i].y));
    return closed ? d + "Z" : d;
}

const char* nameOf(Layer layer) {
    constexpr const char* names[] = {"sheet",  "notes",    "building", "underlay", "trays",
                                     "wiring", "lighting", "power",    "boards",   "feeders"};
    return names[int(layer)];
}

class SvgWriter {
public:
    explicit SvgWriter(const Drawing& drawing) : d(drawing) {}

    std::string text() {
        pugi::xml_node declaration = document.append_child(pugi::node_declaration);
        declaration.append_attribute("version") = "1.0";
        declaration.append_attribute("encoding") = "UTF-8";
        root = document.append_child("svg");
        root.append_attribute("xmlns") = "http://www.w3.org/2000/svg";
        root.append_attribute("xmlns:xlink") = "http://www.w3.org/1999/xlink";
        root.append_attribute("width") = (mm(d.width) + "mm").c_str();
        root.append_attribute("height") = (mm(d.height) + "mm").c_str();
        root.append_attribute("viewBox") = fmt::format("0 0 {} {}", mm(d.width), mm(d.height)).c_str();
        root.append_attribute("font-family") = (sheetFace().toStdString() + ",Arial,Helvetica,sans-serif").c_str();
        root.append_attribute("xml:space") = "preserve";
        root.append_child("title").text() = shownText(d.title).toStdString().c_str();
        pugi::xml_node paper = root.append_child("rect");
        paper.append_attribute("id") = "paper";
        paper.append_attribute("width") = mm(d.width).c_str();
        paper.append_attribute("height") = mm(d.height).c_str();
        paper.append_attribute("fill") = "#ffffff";
        marks();
        std::ostringstream out;
        document.save(out, " ");
        return out.str();
    }

private:
    const Drawing& d;
    pugi::xml_document document;
    pugi::xml_node root;
    std::map<std::string, int> used; ///< of each id; the second of its kind ends in -2

    void give(pugi::xml_node node, const std::string& id) {
        const int n = ++used[id];
        node.append_attribute("id") = (n == 1 ? id : fmt::format("{}-{}", id, n)).c_str();
    }

    /// In the order in which they are drawn, so that what covers another still does.
    void marks() {
        pugi::xml_node layer, group;
        auto thing = d.things.begin();
        auto symbol = d.symbols.begin();
        std::size_t groupEnds = 0;
        for (std::size_t i = 0; i < d.marks.size(); ++i) {
            if (!layer || d.layerAt(i) != d.layerAt(i - 1)) {
                layer = root.append_child("g");
                give(layer, nameOf(d.layerAt(i)));
                groupEnds = i;
            }
            while (thing != d.things.end() && thing->end <= i) ++thing;
            while (symbol != d.symbols.end() && symbol->end <= i) ++symbol;
            if (i >= groupEnds) group = layer;
            if (thing != d.things.end() && thing->from == i) {
                group = layer.append_child("g");
                give(group, thing->thing.text() + (*thing->part ? std::string("-") + thing->part : std::string()));
                groupEnds = thing->end;
            } else if (symbol != d.symbols.end() && symbol->from == i) {
                group = layer.append_child("g");
                if (symbol->thing) give(group, symbol->thing.text());
                group.append_attribute("class") = wordOf(symbol->symbol);
                groupEnds = symbol->end;
            }
            std::visit([&](const auto& mark) { add(group, mark); }, d.marks[i]);
        }
    }

    static void stroke(pugi::xml_node node, double width, Ink ink, bool dashed = false) {
        node.append_attribute("fill") = "none";
        node.append_attribute("stroke") = colour(ink).c_str();
        node.append_attribute("stroke-width") = mm(width).c_str();
        if (dashed) node.append_attribute("stroke-dasharray") = (mm(6 * width) + " " + mm(4 * width)).c_str();
    }
    static pugi::xml_node path(pugi::xml_node in, const std::string& way) {
        pugi::xml_node node = in.append_child("path");
        node.append_attribute("d") = way.c_str();
        return node;
    }

    static void add(pugi::xml_node in, const LineMark& m) {
        stroke(path(in, pathOf(m.points, m.closed)), m.width, m.ink, m.dashed);
    }
    static void add(pugi::xml_node in, const FillMark& m) {
        path(in, pathOf(m.points, true)).append_attribute("fill") = colour(m.ink).c_str();
    }
    static void add(pugi::xml_node in, const CircleMark& m) {
        pugi::xml_node node = in.append_child("circle");
        node.append_attribute("cx") = mm(m.centre.x).c_str();
        node.append_attribute("cy") = mm(m.centre.y).c_str();
        node.append_attribute("r") = mm(m.radius).c_str();
        if (m.width > 0) stroke(node, m.width, m.ink);
        if (m.width <= 0) node.append_attribute("fill") = "none";
        if (m.filled) node.attribute("fill") = colour(m.ink).c_str();
    }
    static void add(pugi::xml_node in, const CurveMark& m) {
        stroke(path(in, fmt::format("M{} {}Q{} {} {} {}", mm(m.a.x), mm(m.a.y), mm(m.b.x), mm(m.b.y), mm(m.c.x),
                                    mm(m.c.y))),
               m.width, m.ink);
    }
    static void add(pugi::xml_node in, const LinesMark& m) {
        std::string way;
        for (std::size_t i = 1; i < m.ends.size(); i += 2) way += pathOf({m.ends[i - 1], m.ends[i]}, false);
        stroke(path(in, way), m.width, m.ink);
    }
    static void add(pugi::xml_node in, const TextMark& m) {
        const SetText set = setText(m);
        const double left = m.align == Align::Left ? 0 : m.align == Align::Centre ? -set.width / 2 : -set.width;
        std::string at = fmt::format("translate({} {})", mm(m.at.x), mm(m.at.y));
        if (m.turn != 0) at += fmt::format(" rotate({:g})", m.turn);
        if (m.halo) {
            pugi::xml_node halo = in.append_child("rect");
            halo.append_attribute("transform") = at.c_str();
            halo.append_attribute("x") = mm(left - 0.4).c_str();
            halo.append_attribute("y") = mm(-m.size * 0.86).c_str();
            halo.append_attribute("width") = mm(set.width + 0.8).c_str();
            halo.append_attribute("height") = mm(m.size * 1.1).c_str();
            halo.append_attribute("fill") = colour(Ink::Paper).c_str();
            halo.append_attribute("fill-opacity") = "0.84";
        }
        if (left != 0) at += fmt::format(" translate({} 0)", mm(left));
        if (set.squeeze < 1) at += fmt::format(" scale({:.4g} 1)", set.squeeze);
        pugi::xml_node node = in.append_child("text");
        node.append_attribute("transform") = at.c_str();
        node.append_attribute("font-size") = mm(m.size).c_str();
        if (m.bold) node.append_attribute("font-weight") = "bold";
        if (m.italic) node.append_attribute("font-style") = "italic";
        node.append_attribute("fill") = colour(m.ink).c_str();
        node.append_attribute("textLength") = mm(set.width / set.squeeze).c_str();
        node.append_attribute("lengthAdjust") = "spacingAndGlyphs";
        node.text() = shownText(m.text).toStdString().c_str();
    }
    static std::string dataOf(const QImage& image) {
        QByteArray bytes;
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        image.save(&buffer, "PNG");
        return "data:image/png;base64," + bytes.toBase64().toStdString();
    }
    void addFitted(pugi::xml_node in, const PictureMark& m) {
        QRectF at;
        const QImage image = fittedImage(m, at);
        if (image.isNull()) {
            LineMark frame{
                {m.least, {m.most.x, m.least.y}, m.most, {m.least.x, m.most.y}}, 0.25, Ink::Stop, false, true};
            add(in, frame);
            TextMark words{m.least + Point{1, 4},
                           "Picture not found: " + QFileInfo(QString::fromStdString(m.file)).fileName().toStdString(),
                           2.8};
            words.ink = Ink::Stop;
            words.within = m.most.x - m.least.x - 2;
            return add(in, words);
        }
        pugi::xml_node node = in.append_child("image");
        node.append_attribute("x") = mm(at.x()).c_str();
        node.append_attribute("y") = mm(at.y()).c_str();
        node.append_attribute("width") = mm(at.width()).c_str();
        node.append_attribute("height") = mm(at.height()).c_str();
        node.append_attribute("xlink:href") = dataOf(image).c_str();
    }
    void add(pugi::xml_node in, const PictureMark& m) {
        if (m.perPixel == 0) return addFitted(in, m);
        const QImage image(QString::fromStdString(m.file));
        if (image.isNull()) return;
        pugi::xml_node outer = in.append_child("g");
        if (m.most.x > m.least.x) {
            pugi::xml_node clip = outer.append_child("clipPath");
            give(clip, "crop");
            pugi::xml_node box = clip.append_child("rect");
            box.append_attribute("x") = mm(m.least.x).c_str();
            box.append_attribute("y") = mm(m.least.y).c_str();
            box.append_attribute("width") = mm(m.most.x - m.least.x).c_str();
            box.append_attribute("height") = mm(m.most.y - m.least.y).c_str();
            outer.append_attribute("clip-path") = fmt::format("url(#{})", clip.attribute("id").value()).c_str();
        }
        pugi::xml_node node = outer.append_child("image");
        node.append_attribute("transform") =
            fmt::format("translate({} {}) rotate({:g}) scale({:g})", mm(m.at.x), mm(m.at.y), m.turn, m.perPixel)
                .c_str();
        node.append_attribute("width") = image.width();
        node.append_attribute("height") = image.height();
        node.append_attribute("opacity") = fmt::format("{:g}", 1 - m.fade).c_str();
        node.append_attribute("xlink:href") = dataOf(image).c_str();
    }
};

} // namespace

std::optional<Error> writeSvg(const Drawing& d, const QString& file) {
    QSaveFile out(file);
    if (!out.open(QIODevice::WriteOnly))
        return Error{file.toStdString(), "the SVG cannot be written: " + out.errorString().toStdString(),
                     "Choose another folder."};
    const std::string text = SvgWriter(d).text();
    const bool whole = out.write(text.data(), qint64(text.size())) == qint64(text.size());
    if (!whole || !out.commit())
        return Error{file.toStdString(), "the SVG cannot be finished: " + out.errorString().toStdString(), ""};
    return std::nullopt;
}

} // namespace lintel
