#include "core/exchange/DxfWriter.h"

#include "core/base/PlainNumbers.h"
#include "core/base/TextFile.h"
#include "core/base/Utf8.h"
#include "core/drawing/TextWidth.h"
#include "core/sheets/Symbols.h"

#include <dxflib/dl_dxf.h>
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <memory>
#include <set>

namespace lintel {
namespace {

constexpr const char* textStyle = "SHEET";
constexpr double capitals = 0.714; // height of capitals, of the letters' body
constexpr Layer allLayers[] = {Layer::Sheet,  Layer::Notes,    Layer::Building, Layer::Underlay, Layer::Trays,
                               Layer::Wiring, Layer::Lighting, Layer::Power,    Layer::Boards,   Layer::Feeders};

/// Colours by number of the format: 7 is black on white and white on black; 256 is the layer's.
int colourOf(Ink ink) {
    switch (ink) {
    case Ink::Ink:
        return 256;
    case Ink::Quiet:
        return 8;
    case Ink::Faint:
    case Ink::Rule:
        return 9;
    case Ink::Stop:
    case Ink::PhaseRed:
        return 1;
    case Ink::Check:
    case Ink::PhaseOrange:
        return 30;
    case Ink::Band:
    case Ink::Wash:
    case Ink::Shade1:
        return 254;
    case Ink::Shade2:
        return 253;
    case Ink::Shade3:
        return 252;
    case Ink::Shade4:
        return 41;
    case Ink::Accent:
    case Ink::Wire1:
        return 4;
    case Ink::PhaseBlue:
    case Ink::Wire4:
        return 5;
    case Ink::PhaseBrown:
        return 34;
    case Ink::PhaseGrey:
        return 8;
    case Ink::PhaseYellow:
        return 2;
    case Ink::Wire2:
        return 40;
    case Ink::Wire3:
        return 6;
    case Ink::Wire5:
        return 12;
    case Ink::Wire6:
        return 3;
    case Ink::PhaseBlack:
    case Ink::Paper:
        return 7;
    }
    return 7;
}

/// The pens that the format knows, in hundredths of a millimetre: the nearest.
int penOf(double mm) {
    static constexpr std::array<int, 24> pens{0,  5,  9,  13, 15, 18,  20,  25,  30,  35,  40,  50,
                                              53, 60, 70, 80, 90, 100, 106, 120, 140, 158, 200, 211};
    const double wanted = mm * 100;
    return *std::min_element(pens.begin(), pens.end(),
                             [&](int a, int b) { return std::abs(a - wanted) < std::abs(b - wanted); });
}

/// As a text of the format: letters beyond ASCII by their numbers, and nothing that it would take for a sign of its
/// own.
std::string encoded(const std::string& text) {
    std::string out;
    const std::string plain = printable(text);
    for (std::size_t i = 0; i < plain.size();) {
        const auto c = static_cast<unsigned char>(plain[i]);
        if (c < 0x80) {
            if (c < ' ')
                out += ' ';
            else if (c == '%' && i + 1 < plain.size() && plain[i + 1] == '%')
                out += "%%%";
            else if (c == '^')
                out += "^ ";
            else if (c == '\\' && i + 1 < plain.size() && (plain[i + 1] == 'U' || plain[i + 1] == 'M'))
                out += "\\U+005C";
            else
                out += char(c);
            ++i;
            continue;
        }
        const int more = c >= 0xF0 ? 3 : c >= 0xE0 ? 2 : 1;
        std::uint32_t code = c & (0x3Fu >> more);
        for (int k = 1; k <= more && i + std::size_t(k) < plain.size(); ++k)
            code = code << 6 | (static_cast<unsigned char>(plain[i + std::size_t(k)]) & 0x3Fu);
        out += code <= 0xFFFF ? fmt::format("\\U+{:04X}", code) : std::string("?");
        i += std::size_t(more) + 1;
    }
    return out;
}

std::string blockName(Symbol symbol) {
    std::string name = std::string("E-") + wordOf(symbol);
    for (char& c : name) {
        if (c == ' ') c = '-';
        if (c >= 'a' && c <= 'z') c = char(c - 'a' + 'A');
    }
    return name;
}

class Writer {
public:
    Writer(const Drawing& drawing, const DxfOptions& how, DL_Dxf& format, DL_WriterA& to)
        : d(drawing), options(how), dxf(format), dw(to) {}

    DxfLeftOut write() {
        for (const SymbolMark& s : d.symbols) used.insert(s.symbol);
        header();
        tables();
        blocks();
        dw.sectionEntities();
        entities();
        dw.sectionEnd();
        dxf.writeObjects(dw);
        dxf.writeObjectsEnd(dw);
        dw.dxfEOF();
        return leftOut;
    }

private:
    const Drawing& d;
    const DxfOptions& options;
    DL_Dxf& dxf; ///< knows the version of the file
    DL_WriterA& dw;
    std::set<Symbol> used;
    DxfLeftOut leftOut;
    bool inBlock = false;
    double x(Point p) const { return inBlock ? p.x : p.x * options.unit; }
    double y(Point p) const { return inBlock ? -p.y : (d.height - p.y) * options.unit; }
    double length(double mm) const { return inBlock ? mm : mm * options.unit; }

    void header() {
        dxf.writeHeader(dw);
        dw.dxfString(9, "$INSUNITS");
        dw.dxfInt(70, options.inches ? 1 : 4);
        dw.dxfString(9, "$LTSCALE");
        dw.dxfReal(40, options.unit * 0.2); // dashes of 2.5 mm on paper
        dw.dxfString(9, "$EXTMIN");
        dw.coord(10, 0, 0, 0);
        dw.dxfString(9, "$EXTMAX");
        dw.coord(10, d.width * options.unit, d.height * options.unit, 0);
        dw.sectionEnd();
    }
    void tables() {
        dw.sectionTables();
        dxf.writeVPort(dw);
        dw.tableLinetypes(4);
        dxf.writeLinetype(dw, DL_LinetypeData("BYBLOCK", "", 0, 0, 0.0));
        dxf.writeLinetype(dw, DL_LinetypeData("BYLAYER", "", 0, 0, 0.0));
        dxf.writeLinetype(dw, DL_LinetypeData("CONTINUOUS", "Solid line", 0, 0, 0.0));
        double dashes[] = {12.7, -6.35};
        dxf.writeLinetype(dw, DL_LinetypeData("DASHED", "Dashed", 0, 2, 19.05, dashes));
        dw.tableEnd();
        dw.tableLayers(int(std::size(allLayers)) + 1);
        dxf.writeLayer(dw, DL_LayerData("0", 0), DL_Attributes("", 7, 25, "CONTINUOUS", 1));
        for (Layer layer : allLayers)
            dxf.writeLayer(dw, DL_LayerData(dxfLayer(layer), 0), DL_Attributes("", 7, 25, "CONTINUOUS", 1));
        dw.tableEnd();
        dw.tableStyle(2);
        dxf.writeStyle(dw, DL_StyleData("Standard", 0, 0, 1, 0, 0, 2.5, "OpenSans-Regular.ttf", ""));
        dxf.writeStyle(dw, DL_StyleData(textStyle, 0, 0, 1, 0, 0, 2.5, "OpenSans-Regular.ttf", ""));
        dw.tableEnd();
        dxf.writeView(dw);
        dxf.writeUcs(dw);
        dw.tableAppid(1);
        dxf.writeAppid(dw, "ACAD");
        dw.tableEnd();
        dxf.writeDimStyle(dw, 1, 1, 1, 1, 1);
        dxf.writeBlockRecord(dw);
        for (Symbol s : used) dxf.writeBlockRecord(dw, blockName(s));
        dw.tableEnd();
        dw.sectionEnd();
    }
    void blocks() {
        dw.sectionBlocks();
        for (const char* space : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
            dxf.writeBlock(dw, DL_BlockData(space, 0, 0, 0, 0));
            dxf.writeEndBlock(dw, space);
        }
        inBlock = true;
        for (Symbol s : used) {
            Drawing symbol;
            drawSymbol(symbol, s, {0, 0}, 0, Ink::Ink, 1);
            dxf.writeBlock(dw, DL_BlockData(blockName(s), 0, 0, 0, 0));
            for (const Mark& m : symbol.marks) mark(m, DL_Attributes("0", 0, -1, "BYBLOCK", 1));
            dxf.writeEndBlock(dw, blockName(s));
        }
        inBlock = false;
        dw.sectionEnd();
    }

    void entities() {
        std::size_t symbol = 0;
        for (std::size_t i = 0; i < d.marks.size(); ++i) {
            while (symbol < d.symbols.size() && d.symbols[symbol].end <= i) ++symbol;
            if (symbol < d.symbols.size() && i >= d.symbols[symbol].from) {
                insert(d.symbols[symbol], d.layerAt(i));
                i = d.symbols[symbol].end - 1;
                continue;
            }
            mark(d.marks[i], DL_Attributes(dxfLayer(d.layerAt(i)), 256, -1, "BYLAYER", 1));
        }
    }
    /// Colour and pen of a mark; in a block they are those of what places it.
    DL_Attributes inked(DL_Attributes a, Ink ink, double pen, bool dashed = false) const {
        if (!inBlock) a.setColor(colourOf(ink));
        if (!inBlock && pen > 0) a.setWidth(penOf(pen));
        if (dashed) a.setLinetype("DASHED");
        return a;
    }
    void mark(const Mark& m, const DL_Attributes& a) {
        if (const auto* l = std::get_if<LineMark>(&m))
            polyline(l->points, l->closed, inked(a, l->ink, l->width, l->dashed));
        else if (const auto* f = std::get_if<FillMark>(&m))
            fill(f->points, f->ink, a);
        else if (const auto* c = std::get_if<CircleMark>(&m))
            circle(*c, a);
        else if (const auto* v = std::get_if<CurveMark>(&m))
            curve(*v, a);
        else if (const auto* t = std::get_if<TextMark>(&m))
            text(*t, a);
        else if (const auto* s = std::get_if<LinesMark>(&m))
            for (std::size_t i = 1; i < s->ends.size(); i += 2)
                line(s->ends[i - 1], s->ends[i], inked(a, s->ink, s->width));
        else
            ++leftOut.pictures;
    }
    void line(Point a, Point b, const DL_Attributes& as) {
        dxf.writeLine(dw, DL_LineData(x(a), y(a), 0, x(b), y(b), 0), as);
    }
    void polyline(const std::vector<Point>& points, bool closed, const DL_Attributes& as) {
        if (points.size() < 2) return;
        if (points.size() == 2) return line(points[0], points[1], as);
        dxf.writePolyline(dw, DL_PolylineData(int(points.size()), 0, 0, closed ? 1 : 0), as);
        for (Point p : points) dxf.writeVertex(dw, DL_VertexData(x(p), y(p), 0, 0));
        dxf.writePolylineEnd(dw);
    }
    void fill(const std::vector<Point>& points, Ink ink, const DL_Attributes& a) {
        if (ink == Ink::Paper || points.size() < 3) return; // it only covers
        const DL_Attributes as = inked(a, ink, 0);
        DL_HatchData hatch(1, true, 1, 0, "SOLID");
        dxf.writeHatch1(dw, hatch, as);
        DL_HatchLoopData loop(int(points.size()));
        dxf.writeHatchLoop1(dw, loop);
        for (std::size_t i = 0; i < points.size(); ++i) {
            const Point p = points[i], q = points[(i + 1) % points.size()];
            dxf.writeHatchEdge(dw, DL_HatchEdgeData(x(p), y(p), x(q), y(q)));
        }
        dxf.writeHatchLoop2(dw, loop);
        dxf.writeHatch2(dw, hatch, as);
    }
    void circle(const CircleMark& c, const DL_Attributes& a) {
        if (c.filled && c.ink == Ink::Paper) return;
        if (c.filled) {
            std::vector<Point> round;
            for (int k = 0; k < 24; ++k) {
                const double t = 2 * 3.14159265358979 * k / 24;
                round.push_back(c.centre + Point{c.radius * std::cos(t), c.radius * std::sin(t)});
            }
            return fill(round, c.ink, a);
        }
        dxf.writeCircle(dw, DL_CircleData(x(c.centre), y(c.centre), 0, length(c.radius)), inked(a, c.ink, c.width));
    }
    void curve(const CurveMark& c, const DL_Attributes& a) {
        constexpr int parts = 12;
        std::vector<Point> points;
        for (int k = 0; k <= parts; ++k) {
            const double t = double(k) / parts, s = 1 - t;
            points.push_back(c.a * (s * s) + c.b * (2 * s * t) + c.c * (t * t));
        }
        polyline(points, false, inked(a, c.ink, c.width));
    }
    void text(const TextMark& t, const DL_Attributes& a) {
        const double natural = textWidth(t.text, t.size, t.bold);
        const double squeeze = t.within > 0 && natural > t.within ? t.within / natural : 1;
        const int align = t.align == Align::Left ? 0 : t.align == Align::Centre ? 1 : 2;
        const double px = x(t.at), py = y(t.at);
        dxf.writeText(dw,
                      DL_TextData(px, py, 0, px, py, 0, length(t.size * capitals), squeeze, 0, align, 0,
                                  encoded(t.text), textStyle, -t.turn * 3.14159265358979 / 180),
                      inked(a, t.ink, 0));
    }

    /// A symbol as its block, with what it stands for as attributes that are not seen.
    void insert(const SymbolMark& s, Layer layer) {
        const auto says =
            options.says && s.thing ? options.says(s.thing) : std::vector<std::pair<std::string, std::string>>{};
        const DL_Attributes as(dxfLayer(layer), colourOf(s.ink), penOf(0.25), "BYLAYER", 1);
        dw.entity("INSERT");
        dw.dxfString(100, "AcDbEntity");
        dw.entityAttributes(as);
        dw.dxfString(100, "AcDbBlockReference");
        if (!says.empty()) dw.dxfInt(66, 1);
        dw.dxfString(2, blockName(s.symbol));
        dw.coord(10, x(s.at), y(s.at), 0);
        for (int code : {41, 42, 43}) dw.dxfReal(code, length(s.size));
        dw.dxfReal(50, -s.turn);
        if (says.empty()) return;
        for (const auto& [name, value] : says) {
            dw.entity("ATTRIB");
            dw.dxfString(100, "AcDbEntity");
            dw.entityAttributes(as);
            dw.dxfString(100, "AcDbText");
            dw.coord(10, x(s.at), y(s.at), 0);
            dw.dxfReal(40, length(2 * capitals));
            dw.dxfString(1, encoded(value));
            dw.dxfString(100, "AcDbAttribute");
            dw.dxfString(2, name);
            dw.dxfInt(70, 1); // not seen
        }
        dw.entity("SEQEND");
        dw.dxfString(100, "AcDbEntity");
        dw.entityAttributes(as);
    }
};

} // namespace

const char* dxfLayer(Layer layer) {
    switch (layer) {
    case Layer::Sheet:
        return "E-SHEET";
    case Layer::Notes:
        return "E-NOTES";
    case Layer::Building:
        return "A-BUILDING";
    case Layer::Underlay:
        return "A-UNDERLAY";
    case Layer::Trays:
        return "E-TRAYS";
    case Layer::Wiring:
        return "E-WIRING";
    case Layer::Lighting:
        return "E-LIGHTING";
    case Layer::Power:
        return "E-POWER";
    case Layer::Boards:
        return "E-BOARDS";
    case Layer::Feeders:
        return "E-FEEDERS";
    }
    return "E-SHEET";
}

Outcome<DxfLeftOut> writeDxf(const Drawing& drawing, const std::filesystem::path& file, const DxfOptions& options) {
    const PlainNumbers plain;
    DxfLeftOut leftOut;
    const auto bad = replaceFile(file, [&](const std::filesystem::path& to) -> std::optional<Error> {
        DL_Dxf format;
        const std::unique_ptr<DL_WriterA> dw(format.out(to.string().c_str(), DL_VERSION_2000));
        const Error failed{file.string(), "the file cannot be written", "Is the disk full, or the folder read-only?"};
        if (!dw || dw->openFailed()) return failed;
        leftOut = Writer(drawing, options, format, *dw).write();
        dw->close();
        return std::nullopt;
    });
    if (bad) return *bad;
    return leftOut;
}

} // namespace lintel
