#include "core/formats/Dxf.h"

#include "core/base/Bulge.h"
#include "core/base/Parse.h"
#include "core/base/PlainNumbers.h"
#include "core/base/Utf8.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <cerrno>
#include <charconv>
#include <cstring>
#include <fmt/format.h>
#include <fstream>
#include <limits>
#include <numbers>
#include <unordered_map>

namespace lintel {
namespace {

constexpr double pi = std::numbers::pi;
constexpr std::size_t mostPieces = 8'000'000; ///< blocks within blocks can make a small file endless
constexpr int deepest = 24;

/// Hands the bytes on to the library, tells how far it is, and ends early when it is told to stop. Where the library
/// sets room aside by a number in the file, a number that no file of this length can mean is handed on as 0.
class Feed : public std::streambuf {
public:
    Feed(std::istream& in, double bytes, const KeepReading& keep)
        : source(in), total(std::max(1.0, bytes)), keepReading(keep) {}
    bool stopped = false;
    std::size_t pairs = 0;

protected:
    int_type underflow() override {
        line.clear();
        while (line.size() < 64 * 1024 && !stopped) {
            if (!std::getline(source, word)) break;
            done += double(word.size()) + 1;
            if (word.size() > 4096) word.resize(4096); // no field of a drawing is as long
            if (!word.empty() && word.back() == '\r') word.pop_back();
            if (isCode) {
                {
                    std::string_view digits = word;
                    code = int(std::clamp(takePlainNumber(digits).value_or(0), -9999.0, 9999.0));
                }
                codeLine.assign(word);
                isCode = false;
                continue;
            }
            isCode = true;
            if (code == 0)
                flat = word == "LINE" || word == "LWPOLYLINE" || word == "CIRCLE" || word == "ARC" || word == "VERTEX";
            // What nobody asks for is not handed on: handles, owners, line weights, notes of other programs; heights of
            // flat things.
            if (code == 5 || code == 100 || code == 102 || code == 330 || code == 360 || code == 370 || code == 390 ||
                code >= 1000 || (flat && (code == 30 || code == 31 || code == 38 || code == 39)))
                continue;
            if (code == 70 || (code >= 71 && code <= 78) || (code >= 90 && code <= 99) || code == 453 || code == 44 ||
                code == 45) {
                std::string_view rest = word;
                const double n = takePlainNumber(rest).value_or(0);
                if (n > total / 2 || n < -1e9) word = "0";
            }
            ++pairs;
            line += codeLine;
            line += '\n';
            line += word;
            line += '\n';
            if (keepReading && (pairs & 0x1FFF) == 0 && !keepReading(std::min(1.0, done / total))) stopped = true;
        }
        if (line.empty()) return traits_type::eof();
        setg(line.data(), line.data(), line.data() + line.size());
        return traits_type::to_int_type(*gptr());
    }

private:
    std::istream& source;
    double total, done = 0;
    const KeepReading& keepReading;
    std::string line, word, codeLine;
    int code = 0;
    bool isCode = true, flat = false;
};

/// x' = a·x + c·y + e, y' = b·x + d·y + f.
struct Placing {
    double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;
    Point operator()(Point p) const { return {a * p.x + c * p.y + e, b * p.x + d * p.y + f}; }
    /// First `inner`, then this.
    Placing operator*(const Placing& i) const {
        return {a * i.a + c * i.b, b * i.a + d * i.b,     a * i.c + c * i.d,
                b * i.c + d * i.d, a * i.e + c * i.f + e, b * i.e + d * i.f + f};
    }
};

struct Insert {
    std::string block;
    Point at;
    double sx = 1, sy = 1, turn = 0, dx = 0, dy = 0;
    int columns = 1, rows = 1;
    std::uint16_t layer = 0;
    int colour = 256;
    bool mirrored = false;
};
struct RawPiece {
    Point a, b;
    std::uint16_t layer;
    std::int16_t colour;
};
struct RawText {
    DxfDrawing::Text text;
    std::int16_t colour;
};
struct Block {
    Point base;
    std::vector<RawPiece> pieces;
    std::vector<RawText> texts;
    std::vector<DxfDrawing::Outline> outlines;
    std::vector<Insert> inserts;
};

void putCode(std::string& out, unsigned v) {
    if (v < 0x20 || v > 0x10FFFF || (v >= 0xD800 && v < 0xE000)) return;
    if (v < 0x80)
        out += char(v);
    else if (v < 0x800)
        out += char(0xC0 | v >> 6), out += char(0x80 | (v & 63));
    else if (v < 0x10000)
        out += char(0xE0 | v >> 12), out += char(0x80 | (v >> 6 & 63)), out += char(0x80 | (v & 63));
    else
        out += char(0xF0 | v >> 18), out += char(0x80 | (v >> 12 & 63)), out += char(0x80 | (v >> 6 & 63)),
            out += char(0x80 | (v & 63));
}

/// The words of a text: UTF-8 whatever the year, signs written out, marks of formatting taken away.
std::string plain(const std::string& raw, bool manyLines) {
    std::string utf;
    if (isUtf8(raw))
        utf = raw;
    else
        for (char ch : raw) { // older files: code page 1252
            static constexpr unsigned high[] = {0x20AC, 0,      0x201A, 0x0192, 0x201E, 0x2026, 0x2020, 0x2021,
                                                0x02C6, 0x2030, 0x0160, 0x2039, 0x0152, 0,      0x017D, 0,
                                                0,      0x2018, 0x2019, 0x201C, 0x201D, 0x2022, 0x2013, 0x2014,
                                                0x02DC, 0x2122, 0x0161, 0x203A, 0x0153, 0,      0x017E, 0x0178};
            const auto c = static_cast<unsigned char>(ch);
            putCode(utf, c >= 0x80 && c < 0xA0 ? high[c - 0x80] : c);
        }
    std::string out;
    for (std::size_t i = 0; i < utf.size(); ++i) {
        const char ch = utf[i];
        if (ch == '%' && i + 2 < utf.size() && utf[i + 1] == '%') {
            const char k = lower(utf[i + 2]);
            if (k == 'd')
                out += "°";
            else if (k == 'p')
                out += "±";
            else if (k == 'c')
                out += "⌀";
            else if (k == '%')
                out += '%';
            else if (k != 'u' && k != 'o' && k != 'k') {
                out += ch;
                continue;
            }
            i += 2;
        } else if (ch == '\\' && i + 6 < utf.size() && utf[i + 1] == 'U' && utf[i + 2] == '+') {
            unsigned sign = 0;
            std::from_chars(utf.data() + i + 3, utf.data() + i + 7, sign, 16);
            putCode(out, sign);
            i += 6;
        } else if (manyLines && ch == '\\' && i + 1 < utf.size()) {
            const char k = utf[++i];
            if (k == 'P' || k == 'N')
                out += ' ';
            else if (k == '~')
                out += ' ';
            else if (k == '\\' || k == '{' || k == '}')
                out += k;
            else if (k == 'S') { // a fraction stacked
                while (i + 1 < utf.size() && utf[i + 1] != ';') out += utf[++i] == '^' ? '/' : utf[i];
                ++i;
            } else if (std::strchr("ACcfFHhQqTtWwpX", k)) {
                while (i + 1 < utf.size() && utf[i] != ';') ++i;
            }
        } else if (manyLines && (ch == '{' || ch == '}')) {
            continue;
        } else if (static_cast<unsigned char>(ch) >= 0x20) {
            out += ch;
        }
    }
    return out;
}

class Builder : public DL_CreationAdapter {
public:
    DxfDrawing out;
    std::map<std::string, Block> blocks;
    Block model;
    std::map<std::string, int> leftOut;
    int measurement = -1;

    // ---- tables and header ----
    void setVariableInt(const std::string& key, int value, int) override {
        // Metres in a unit, by the number in the header: inch, foot, mile, mm, cm, m, km, …
        static constexpr double units[] = {0,       0.0254, 0.3048, 1609.344, 0.001, 0.01, 1,  1000, 2.54e-8,
                                           2.54e-5, 0.9144, 1e-10,  1e-9,     1e-6,  0.1,  10, 100};
        if (key == "$INSUNITS" && value > 0 && value < int(std::size(units))) out.metresPerUnit = units[value];
        if (key == "$MEASUREMENT") measurement = value;
    }
    void addLayer(const DL_LayerData& l) override {
        const std::uint16_t i = layerOf(l.name);
        const int colour = attributes.getColor();
        out.layers[i].colour = std::clamp(std::abs(colour), 1, 255);
        out.layers[i].on = colour >= 0 && !(l.flags & 1);
    }
    void addBlock(const DL_BlockData& b) override {
        current = &blocks[b.name];
        *current = {};
        current->base = {b.bpx, b.bpy};
        if (b.name.rfind("*Paper", 0) == 0 || b.name.rfind("*paper", 0) == 0) current->base = {};
    }
    void endBlock() override { finishPolyline(), current = &model; }

    // ---- entities ----
    void addLine(const DL_LineData& l) override { piece({l.x1, l.y1}, {l.x2, l.y2}); }
    void addArc(const DL_ArcData& a) override {
        if (const auto turn = turnOf(a.angle1, a.angle2, 360))
            arc({a.cx, a.cy}, a.radius, a.angle1 * pi / 180, (a.angle1 + *turn) * pi / 180);
    }
    void addCircle(const DL_CircleData& c) override { arc({c.cx, c.cy}, c.radius, 0, 2 * pi); }
    void addEllipse(const DL_EllipseData& e) override {
        const auto turn = turnOf(e.angle1, e.angle2, 2 * pi);
        if (!turn) return;
        const double from = e.angle1, to = from + *turn;
        const Point major{e.mx, e.my}, minor{-e.my * e.ratio, e.mx * e.ratio};
        const int n = arcSteps(to - from);
        std::vector<Point> points;
        for (int i = 0; i <= n; ++i) {
            const double t = from + (to - from) * i / n;
            points.push_back(Point{e.cx, e.cy} + major * std::cos(t) + minor * std::sin(t));
        }
        chain(points, false);
    }
    void addPolyline(const DL_PolylineData& p) override {
        finishPolyline();
        inPolyline = true;
        closed = p.flags & 1;
        mesh = p.flags & (16 | 64);
    }
    void addVertex(const DL_VertexData& v) override {
        if (!inPolyline) return;
        vertices.push_back({v.x, v.y});
        bulges.push_back(v.bulge);
    }
    void endSequence() override { finishPolyline(); }
    void addSpline(const DL_SplineData& s) override {
        finishSpline();
        inSpline = true;
        degree = s.degree;
        splineClosed = s.flags & 1;
    }
    void addControlPoint(const DL_ControlPointData& c) override {
        controls.push_back({c.x, c.y}), weights.push_back(c.w > 0 ? c.w : 1);
    }
    void addFitPoint(const DL_FitPointData& f) override { fits.push_back({f.x, f.y}); }
    void addKnot(const DL_KnotData& k) override { knots.push_back(k.k); }
    void endEntity() override { finishSpline(), finishPolyline(); }
    void addInsert(const DL_InsertData& i) override {
        Insert n;
        n.block = i.name;
        n.at = {i.ipx, i.ipy};
        n.sx = i.sx, n.sy = i.sy, n.turn = i.angle, n.dx = i.colSp, n.dy = i.rowSp;
        n.columns = std::clamp(i.cols, 1, 1000), n.rows = std::clamp(i.rows, 1, 1000);
        n.layer = layerOf(attributes.getLayer()), n.colour = attributes.getColor(), n.mirrored = flipped();
        current->inserts.push_back(n);
    }
    void addText(const DL_TextData& t) override {
        text({t.ipx, t.ipy}, {t.apx, t.apy}, t.height, t.angle, t.text, t.hJustification, t.vJustification);
    }
    void addAttribute(const DL_AttributeData& t) override {
        text({t.ipx, t.ipy}, {t.apx, t.apy}, t.height, t.angle, t.text, t.hJustification, t.vJustification);
    }
    void addMTextChunk(const std::string& s) override { chunks += s; }
    void addMText(const DL_MTextData& t) override {
        const std::string words = plain(chunks + t.text, true);
        chunks.clear();
        // Attached at one of nine places of its box: left, middle, right by columns; top, middle, bottom by rows.
        const int column = t.attachmentPoint > 0 ? (t.attachmentPoint - 1) % 3 : 0,
                  row = t.attachmentPoint > 0 ? (t.attachmentPoint - 1) / 3 : 0;
        const double drop = row == 0   ? t.height
                            : row == 1 ? t.height / 2
                                       : 0,
                     turn = t.angle; // in radians by the library
        addWords(Point{t.ipx, t.ipy} + Point{std::sin(turn), -std::cos(turn)} * drop, t.height, turn * 180 / pi, words,
                 column);
    }
    void addSolid(const DL_SolidData& s) override {
        chain({{s.x[0], s.y[0]}, {s.x[1], s.y[1]}, {s.x[3], s.y[3]}, {s.x[2], s.y[2]}}, true);
    }
    void addTrace(const DL_TraceData& s) override {
        chain({{s.x[0], s.y[0]}, {s.x[1], s.y[1]}, {s.x[3], s.y[3]}, {s.x[2], s.y[2]}}, true);
    }
    void add3dFace(const DL_3dFaceData& s) override {
        chain({{s.x[0], s.y[0]}, {s.x[1], s.y[1]}, {s.x[2], s.y[2]}, {s.x[3], s.y[3]}}, true);
    }
    void addLeader(const DL_LeaderData&) override { inPolyline = true, closed = mesh = false; }
    void addLeaderVertex(const DL_LeaderVertexData& v) override { vertices.push_back({v.x, v.y}), bulges.push_back(0); }
    void addHatch(const DL_HatchData&) override { ++leftOut["hatching"]; }
    void addImage(const DL_ImageData&) override { ++leftOut["picture inside the drawing"]; }
    void addDimAlign(const DL_DimensionData&, const DL_DimAlignedData&) override { ++leftOut["dimension"]; }
    void addDimLinear(const DL_DimensionData&, const DL_DimLinearData&) override { ++leftOut["dimension"]; }
    void addDimRadial(const DL_DimensionData&, const DL_DimRadialData&) override { ++leftOut["dimension"]; }
    void addDimDiametric(const DL_DimensionData&, const DL_DimDiametricData&) override { ++leftOut["dimension"]; }
    void addDimAngular(const DL_DimensionData&, const DL_DimAngular2LData&) override { ++leftOut["dimension"]; }
    void addDimOrdinate(const DL_DimensionData&, const DL_DimOrdinateData&) override { ++leftOut["dimension"]; }

    /// Puts all blocks in their places.
    void flatten() {
        finishPolyline(), finishSpline();
        std::vector<const Block*> path;
        place(model, {}, 0, 7, path, 0);
        if (tooMany)
            out.notes.push_back(fmt::format("more than {} lines: the rest is left out", mostPieces)), out.whole = false;
        for (const auto& [what, n] : leftOut)
            out.notes.push_back(fmt::format("left out: {} {}{}", n, what, n > 1 && what.back() != 'g' ? "s" : ""));
        out.metric = measurement != 0;
        bool first = true;
        const auto grow = [&](Point p) {
            if (first) out.least = out.most = p, first = false;
            out.least = {std::min(out.least.x, p.x), std::min(out.least.y, p.y)},
            out.most = {std::max(out.most.x, p.x), std::max(out.most.y, p.y)};
        };
        for (const auto& p : out.pieces) grow(p.a), grow(p.b);
        for (const auto& t : out.texts) grow(t.at);
    }

private:
    Block* current = &model;
    bool inPolyline = false, closed = false, mesh = false, inSpline = false, splineClosed = false, tooMany = false;
    std::vector<Point> vertices, controls, fits;
    std::vector<double> bulges, weights, knots;
    int degree = 3;
    std::string chunks;
    std::unordered_map<std::string, std::uint16_t> layerIndex;

    static bool good(Point p) { return std::abs(p.x) < 1e12 && std::abs(p.y) < 1e12; }
    bool flipped() {
        const DL_Extrusion* e = getExtrusion();
        return e && e->getDirection()[2] < 0;
    }
    std::uint16_t layerOf(const std::string& name) {
        if (const auto it = layerIndex.find(name); it != layerIndex.end()) return it->second;
        if (out.layers.size() >= 65535) return 0;
        const auto i = std::uint16_t(out.layers.size());
        out.layers.push_back({isUtf8(name) ? name : plain(name, false), 7, true});
        layerIndex.emplace(name, i);
        return i;
    }
    void piece(Point a, Point b) {
        if (!good(a) || !good(b)) return void(++leftOut["line outside all bounds"]);
        current->pieces.push_back({a, b, layerOf(attributes.getLayer()), std::int16_t(attributes.getColor())});
    }
    void chain(const std::vector<Point>& ps, bool close) {
        for (std::size_t i = 1; i < ps.size(); ++i) piece(ps[i - 1], ps[i]);
        if (close && ps.size() > 2) piece(ps.back(), ps.front());
    }
    /// From one angle to the next, forwards, a full turn at most; nothing, and counted, where they are none.
    std::optional<double> turnOf(double from, double to, double full) {
        constexpr double bound = 1e6;
        if (!(std::abs(from) < bound && std::abs(to) < bound)) {
            ++leftOut["arc with angles outside all bounds"];
            return std::nullopt;
        }
        const double turn = std::fmod(to - from, full);
        return turn <= 1e-12 ? turn + full : turn;
    }
    void arc(Point c, double r, double from, double to) {
        const double side = flipped() ? -1 : 1; // seen from behind: the axis of x is turned over
        const int n = arcSteps(to - from);
        std::vector<Point> ps;
        for (int i = 0; i <= n; ++i) {
            const double t = from + (to - from) * i / n;
            ps.push_back({side * (c.x + r * std::cos(t)), c.y + r * std::sin(t)});
        }
        chain(ps, false);
    }
    void finishPolyline() {
        if (!inPolyline) return;
        inPolyline = false;
        std::vector<Point> ps;
        const double side = flipped() ? -1 : 1;
        for (std::size_t i = 0; i < vertices.size(); ++i) {
            const Point a = vertices[i];
            ps.push_back(a);
            if (i + 1 == vertices.size() && !closed) continue;
            const auto arc = arcOfBulge(a, vertices[(i + 1) % vertices.size()], bulges[i]);
            ps.insert(ps.end(), arc.begin() + 1, arc.end() - 1);
        }
        if (side < 0)
            for (Point& p : ps) p.x = -p.x;
        if (mesh)
            ++leftOut["surface"];
        else
            chain(ps, closed);
        if (!mesh && ps.size() > 3 && !closed && distance(ps.front(), ps.back()) < 1e-9) closed = true, ps.pop_back();
        if (!mesh && closed && ps.size() > 2 && std::all_of(ps.begin(), ps.end(), good))
            current->outlines.push_back({ps, layerOf(attributes.getLayer())});
        vertices.clear(), bulges.clear();
    }
    void finishSpline() {
        if (!inSpline) return;
        inSpline = false;
        const int n = int(controls.size());
        std::vector<Point> ps;
        if (n > degree && degree >= 1 && degree <= 10 && int(knots.size()) == n + degree + 1 &&
            std::is_sorted(knots.begin(), knots.end())) {
            // de Boor's rule, with weights, at even steps of each span.
            for (int span = degree; span < n; ++span) {
                const double t0 = knots[std::size_t(span)], t1 = knots[std::size_t(span) + 1];
                if (!(t1 > t0)) continue;
                const int cuts = 8;
                for (int i = 0; i <= cuts; ++i) {
                    const double t = t0 + (t1 - t0) * i / cuts;
                    std::array<double, 11> x{}, y{}, w{};
                    for (int j = 0; j <= degree; ++j) {
                        const std::size_t k = std::size_t(span - degree + j);
                        w[std::size_t(j)] = weights[k], x[std::size_t(j)] = controls[k].x * weights[k],
                        y[std::size_t(j)] = controls[k].y * weights[k];
                    }
                    for (int r = 1; r <= degree; ++r)
                        for (int j = degree; j >= r; --j) {
                            const std::size_t k = std::size_t(span - degree + j);
                            const double lo = knots[k], hi = knots[k + std::size_t(degree - r + 1)];
                            const double f = hi > lo ? (t - lo) / (hi - lo) : 0;
                            const auto J = std::size_t(j);
                            x[J] = (1 - f) * x[J - 1] + f * x[J], y[J] = (1 - f) * y[J - 1] + f * y[J],
                            w[J] = (1 - f) * w[J - 1] + f * w[J];
                        }
                    const auto D = std::size_t(degree);
                    if (w[D] != 0) ps.push_back({x[D] / w[D], y[D] / w[D]});
                }
            }
            chain(ps, false);
        } else {
            // Without a usable frame: through the points that it was fitted to, or along its controls.
            const auto& through = fits.size() > 1 ? fits : controls;
            chain(through, splineClosed);
        }
        controls.clear(), fits.clear(), weights.clear(), knots.clear();
    }
    void text(Point at, Point second, double height, double turn, const std::string& words, int across, int up) {
        // Justified texts hang on their second point; 0 left, 1 middle, 2 right, 4 middle; from below: 2 middle, 3 top.
        const bool justified = across == 1 || across == 2 || across == 4 || up > 0;
        Point p = justified && good(second) ? second : at;
        if (across == 4 || up == 2)
            p.y -= height / 2;
        else if (up == 3)
            p.y -= height;
        addWords(p, height, turn, plain(words, false), across == 1 || across == 4 ? 1 : across == 2 ? 2 : 0);
    }
    void addWords(Point at, double height, double turn, const std::string& words, int align) {
        if (!good(at) || !(height > 0 && height < 1e9) || !(std::abs(turn) < 1e6) ||
            words.find_first_not_of(' ') == std::string::npos)
            return;
        current->texts.push_back(
            {{at, height, turn, words, layerOf(attributes.getLayer()), 7, align}, std::int16_t(attributes.getColor())});
    }

    std::uint8_t colourOf(int own, std::uint16_t layer, std::uint8_t ofBlock) const {
        if (own == 0) return ofBlock;
        if (own < 0 || own > 255) return std::uint8_t(out.layers[layer].colour);
        return std::uint8_t(own);
    }
    /// `layer`: what layer "0" inside a block becomes; `colour`: what "by block" becomes.
    void place(const Block& b, const Placing& at, std::uint16_t layer, std::uint8_t colour,
               std::vector<const Block*>& path, int depth) {
        if (tooMany) return;
        if (out.pieces.size() + b.pieces.size() > mostPieces) return void(tooMany = true);
        const auto layerHere = [&](std::uint16_t own) {
            return depth > 0 && out.layers[own].name == "0" ? layer : own;
        };
        const auto turned = [](Point p) { return Point{p.x, -p.y}; }; // y of a drawing goes up, of a sheet down
        for (const RawPiece& p : b.pieces) {
            const std::uint16_t l = layerHere(p.layer);
            out.pieces.push_back({turned(at(p.a)), turned(at(p.b)), l, colourOf(p.colour, l, colour)});
        }
        for (const DxfDrawing::Outline& o : b.outlines) {
            DxfDrawing::Outline n = o;
            for (Point& p : n.corners) p = turned(at(p));
            n.layer = layerHere(o.layer);
            out.outlines.push_back(std::move(n));
        }
        for (const RawText& t : b.texts) {
            DxfDrawing::Text n = t.text;
            const double a = n.turn * pi / 180;
            const Point u = Point{at.a * std::cos(a) + at.c * std::sin(a), at.b * std::cos(a) + at.d * std::sin(a)};
            n.at = turned(at(n.at));
            n.height *= std::hypot(at.c, at.d);
            n.turn = -std::atan2(u.y, u.x) * 180 / pi;
            n.layer = layerHere(n.layer);
            n.colour = colourOf(t.colour, n.layer, colour);
            out.texts.push_back(std::move(n));
        }
        if (b.inserts.empty()) return;
        if (depth >= deepest) return void(++leftOut["block nested too deep"]);
        path.push_back(&b);
        for (const Insert& i : b.inserts) {
            const auto it = blocks.find(i.block);
            if (it == blocks.end()) {
                ++leftOut["block that is not in the file"];
                continue;
            }
            if (std::find(path.begin(), path.end(), &it->second) != path.end()) {
                ++leftOut["block that contains itself"];
                continue;
            }
            const double a = i.turn * pi / 180, ca = std::cos(a), sa = std::sin(a);
            const std::uint16_t l = layerHere(i.layer);
            const std::uint8_t k = colourOf(i.colour, l, colour);
            for (int row = 0; row < i.rows && !tooMany; ++row)
                for (int column = 0; column < i.columns && !tooMany; ++column) {
                    Placing here{ca * i.sx, sa * i.sx, -sa * i.sy, ca * i.sy, 0, 0};
                    const Point shift =
                        i.at + Point{ca * i.dx * column - sa * i.dy * row, sa * i.dx * column + ca * i.dy * row};
                    const Point base{here.a * it->second.base.x + here.c * it->second.base.y,
                                     here.b * it->second.base.x + here.d * it->second.base.y};
                    here.e = shift.x - base.x, here.f = shift.y - base.y;
                    if (i.mirrored) here = Placing{-1, 0, 0, 1, 0, 0} * here;
                    if (!good({here.e, here.f}) ||
                        !(std::abs(here.a) + std::abs(here.b) + std::abs(here.c) + std::abs(here.d) < 1e9)) {
                        ++leftOut["block outside all bounds"];
                        continue;
                    }
                    place(it->second, at * here, l, k, path, depth + 1);
                }
        }
        path.pop_back();
    }
};

} // namespace

Outcome<DxfDrawing> readDxf(std::istream& in, double bytes, const std::string& name, const KeepReading& keep) {
    // A first look: text, beginning with a code and its value.
    std::string head(1024, '\0');
    in.read(head.data(), std::streamsize(head.size()));
    head.resize(std::size_t(in.gcount()));
    in.clear();
    in.seekg(0);
    if (head.find('\0') != std::string::npos)
        return Error{name, "this is a binary DXF or another kind of file", "Ask for the drawing as ASCII DXF."};
    if (head.find("SECTION") == std::string::npos && head.find("999") == std::string::npos &&
        head.find("EOF") == std::string::npos)
        return Error{name, "this is not a DXF drawing", "A DXF begins with 0 and SECTION, each on a line."};
    Feed feed(in, bytes, keep);
    std::istream stream(&feed);
    Builder builder;
    bool broken = false;
    try {
        const PlainNumbers plainNumbers; // the library reads numbers by the locale
        DL_Dxf reader;
        if (!reader.in(stream, &builder)) broken = true;
    } catch (const std::exception&) {
        broken = true;
    }
    builder.flatten();
    DxfDrawing out = std::move(builder.out);
    if (feed.stopped)
        out.whole = false, out.notes.insert(out.notes.begin(), "reading was stopped: this is what had been read");
    else if (broken)
        out.whole = false,
        out.notes.insert(
            out.notes.begin(),
            fmt::format("the file is broken after about {} of its fields: this is what could be read", feed.pairs));
    if (out.empty() && out.whole) out.notes.push_back("there is nothing in it that can be drawn");
    return out;
}

Outcome<DxfDrawing> readDxf(const std::filesystem::path& file, const KeepReading& keep) {
    std::error_code ec;
    if (std::filesystem::is_directory(file, ec))
        return Error{file.filename().string(), "this is a folder, not a drawing", ""};
    std::ifstream in(file, std::ios::binary);
    if (!in)
        return Error{file.filename().string(), std::string("the drawing cannot be opened: ") + std::strerror(errno),
                     "Link it again from where it is now."};
    return readDxf(in, double(std::filesystem::file_size(file, ec)), file.filename().string(), keep);
}

std::array<int, 3> rgbOfIndex(int c) {
    static constexpr std::array<int, 3> first[] = {{0, 0, 0},       {255, 0, 0},    {200, 170, 0}, {0, 160, 0},
                                                   {0, 160, 170},   {0, 0, 255},    {200, 0, 200}, {0, 0, 0},
                                                   {110, 110, 110}, {150, 150, 150}};
    if (c >= 0 && c < 10) return first[c];
    if (c >= 250) {
        const int v = 40 + (c - 250) * 30;
        return {v, v, v};
    }
    // 24 hues in rows of ten: even ones full, odd ones half as strong; darker by pairs.
    const double hue = (c / 10 - 1) * 15.0, value = std::array{1.0, 0.8, 0.6, 0.5, 0.3}[std::size_t(c % 10 / 2)],
                 strength = c % 2 ? 0.5 : 1.0;
    const auto channel = [&](double n) {
        const double k = std::fmod(n + hue / 60, 6.0);
        return int(255 * 0.85 * (value - value * strength * std::max(0.0, std::min({k, 4 - k, 1.0}))));
    };
    return {channel(5), channel(3), channel(1)};
}

} // namespace lintel
