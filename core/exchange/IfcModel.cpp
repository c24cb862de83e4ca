// IFC (ISO 16739-1; IFC2x3, IFC4, IFC4x3) as a building model: what a designer of circuits needs of it. Places of
// attributes are those of the schema; they are the same in all three.

#include "core/base/Bulge.h"
#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/exchange/BuildingModel.h"
#include "core/formats/Step.h"
#include "core/project/LoadWords.h"

#include <algorithm>
#include <array>
#include <map>
#include <numbers>
#include <set>
#include <span>
#include <unordered_map>

#include <fmt/format.h>

namespace lintel {
namespace {

using Id = std::uint32_t;
using Values = std::vector<StepValue>;

struct Vector {
    double x = 0, y = 0, z = 0;
    Vector operator+(Vector o) const { return {x + o.x, y + o.y, z + o.z}; }
    Vector operator-(Vector o) const { return {x - o.x, y - o.y, z - o.z}; }
    Vector operator*(double k) const { return {x * k, y * k, z * k}; }
    double dot(Vector o) const { return x * o.x + y * o.y + z * o.z; }
    Vector cross(Vector o) const { return {y * o.z - z * o.y, z * o.x - x * o.z, x * o.y - y * o.x}; }
    Vector unit() const {
        const double l = std::sqrt(dot(*this));
        return l > 0 ? *this * (1 / l) : Vector{};
    }
};
/// Where something lies within what it belongs to.
struct Frame {
    Vector x{1, 0, 0}, y{0, 1, 0}, z{0, 0, 1}, at{};
    Vector turned(Vector v) const { return x * v.x + y * v.y + z * v.z; }
    Vector operator()(Vector v) const { return at + turned(v); }
    Frame operator()(const Frame& inner) const {
        return {turned(inner.x), turned(inner.y), turned(inner.z), (*this)(inner.at)};
    }
};

/// A curve in its own plane: corners, and of each piece to the next the bulge.
struct Curve {
    std::vector<Vector> at;
    std::vector<double> bulge; ///< one less than corners
    void add(Vector p, double bow = 0) {
        if (!at.empty()) bulge.push_back(bow);
        at.push_back(p);
    }
};

struct ElectricalKind {
    const char* entity; ///< without IFC
    Symbol symbol;
    LoadKind kind;
};
constexpr ElectricalKind electrical[] = {
    {"OUTLET", Symbol::Receptacle, LoadKind::Receptacle},
    {"LIGHTFIXTURE", Symbol::Luminaire, LoadKind::Lighting},
    {"LAMP", Symbol::Luminaire, LoadKind::Lighting},
    {"ELECTRICAPPLIANCE", Symbol::Equipment, LoadKind::Equipment},
    {"ELECTRICMOTOR", Symbol::Motor, LoadKind::Motor},
    {"PUMP", Symbol::Motor, LoadKind::Motor},
    {"FAN", Symbol::Motor, LoadKind::Motor},
    {"COMPRESSOR", Symbol::Motor, LoadKind::Motor},
    {"SWITCHINGDEVICE", Symbol::Switch, LoadKind::Equipment},
    {"SPACEHEATER", Symbol::Heater, LoadKind::Heating},
    {"UNITARYEQUIPMENT", Symbol::Equipment, LoadKind::Equipment},
    {"CHILLER", Symbol::Equipment, LoadKind::Cooling},
    {"BOILER", Symbol::Equipment, LoadKind::Equipment},
    {"TRANSPORTELEMENT", Symbol::Motor, LoadKind::Vertical},
    {"SENSOR", Symbol::Detector, LoadKind::Equipment},
    {"ALARM", Symbol::Sounder, LoadKind::Equipment},
    {"JUNCTIONBOX", Symbol::Junction, LoadKind::Equipment},
    {"AUDIOVISUALAPPLIANCE", Symbol::Equipment, LoadKind::Equipment},
    {"COMMUNICATIONSAPPLIANCE", Symbol::Data, LoadKind::Equipment},
};
/// Elements of IFC2x3 that are what their type says.
constexpr const char* byTheirType[] = {"IFCFLOWTERMINAL",        "IFCENERGYCONVERSIONDEVICE",     "IFCFLOWMOVINGDEVICE",
                                       "IFCFLOWCONTROLLER",      "IFCDISTRIBUTIONCONTROLELEMENT", "IFCFLOWFITTING",
                                       "IFCBUILDINGELEMENTPROXY"};
/// Names of properties that give what a thing takes, the surest first.
constexpr const char* powerNames[] = {"TotalWattage",  "NominalPower", "RatedPower",    "PowerConsumption",
                                      "ElectricPower", "Power",        "ConnectedLoad", "Wattage"};

constexpr const char* poleNames[] = {"NumberOfPoles"};

double prefixOf(const std::string& word) {
    constexpr std::pair<const char*, double> all[] = {{"MICRO", 1e-6}, {"MILLI", 1e-3}, {"CENTI", 1e-2}, {"DECI", 1e-1},
                                                      {"DECA", 1e1},   {"HECTO", 1e2},  {"KILO", 1e3},   {"MEGA", 1e6}};
    for (const auto& [name, factor] : all)
        if (word == name) return factor;
    return 1;
}

class IfcReader {
public:
    explicit IfcReader(const StepFile& file) : f(file) {}

    BuildingModel read() {
        readUnits();
        relate();
        readStoreys();
        readSpaces();
        readWalls();
        for (const char* entity : {"IFCDOOR", "IFCDOORSTANDARDCASE"})
            for (Id id : f.of(entity)) readOpening(id, true);
        for (const char* entity : {"IFCWINDOW", "IFCWINDOWSTANDARDCASE"})
            for (Id id : f.of(entity)) readOpening(id, false);
        if (const auto loose =
                std::count_if(m.walls.begin(), m.walls.end(), [](const auto& w) { return w.storey < 0; }))
            m.notes.push_back(fmt::format("{} {} on no storey and {} out", loose, loose == 1 ? "wall is" : "walls are",
                                          loose == 1 ? "stays" : "stay"));
        if (homeless)
            m.notes.push_back(
                fmt::format("{} doors and windows stand in no wall that is read: they stay out", homeless));
        readDevices();
        if (const std::size_t boards =
                f.of("IFCELECTRICDISTRIBUTIONBOARD").size() + f.of("IFCELECTRICDISTRIBUTIONPOINT").size())
            m.notes.push_back(
                fmt::format("{} distribution boards are not taken in: boards are made in Boards", boards));
        if (steps > mostSteps)
            m.notes.push_back("it has more shapes within shapes than can be looked at: some outlines are missing");
        if (f.damaged()) m.notes.push_back(fmt::format("{} lines of the file cannot be read", f.damaged()));
        return std::move(m);
    }

private:
    const StepFile& f;
    BuildingModel m;
    /// Shapes within shapes: a damaged file may have them go round in a circle, or multiply from one to the next.
    static constexpr int deepest = 10;
    static constexpr std::size_t mostSteps = 2'000'000;
    mutable std::size_t steps = 0;
    bool spent() const { return ++steps > mostSteps; }
    double metre = 1, watt = 1, radian = 1;
    Id building = 0; ///< the placement of the building: everything is measured from there
    std::unordered_map<Id, Id> partOf, containedIn, typeOf, filling, voided, material;
    std::unordered_map<Id, std::vector<Id>> properties; ///< sets, by thing
    std::unordered_map<Id, int> storeyOf;               ///< by instance of a storey
    std::unordered_map<Id, std::vector<std::size_t>> wallsOf;
    std::unordered_map<Id, Frame> frames;
    int homeless = 0;
    static constexpr std::size_t halves = 1000; ///< added to the number of the second half of a long arc

    // ---- values ----

    const StepValue& value(Id id, std::size_t n) const {
        static const StepValue none;
        const Values& v = f.values(id);
        return n < v.size() ? v[n] : none;
    }
    Id link(Id id, std::size_t n) const { return value(id, n).reference; }
    double number(Id id, std::size_t n) const { return value(id, n).number; }
    std::string text(Id id, std::size_t n) const { return trimmed(value(id, n).text); }
    std::vector<Id> links(Id id, std::size_t n) const {
        std::vector<Id> out;
        for (const StepValue& v : value(id, n).items)
            if (v.reference) out.push_back(v.reference);
        return out;
    }
    bool is(Id id, const char* entity) const { return f.typeOf(id) == entity; }

    void readUnits() {
        for (Id project : f.of("IFCPROJECT")) m.source = text(project, 0);
        for (Id project : f.of("IFCPROJECT"))
            for (Id unit : links(link(project, 8), 0)) {
                const std::string& kind = value(unit, 1).text;
                if (kind == "LENGTHUNIT") metre = factorOf(unit);
                if (kind == "POWERUNIT") watt = factorOf(unit);
                if (kind == "PLANEANGLEUNIT") radian = factorOf(unit);
            }
        if (!(metre > 0 && metre < 1e4)) metre = 1;
        for (Id b : f.of("IFCBUILDING"))
            if (!building) building = link(b, 5);
        if (f.of("IFCBUILDING").size() > 1)
            m.notes.push_back(
                fmt::format("{} buildings are in it: all are measured from the first", f.of("IFCBUILDING").size()));
    }
    double factorOf(Id unit, int depth = 0) const {
        if (is(unit, "IFCSIUNIT")) return prefixOf(value(unit, 2).text);
        if (depth > 4 || !is(unit, "IFCCONVERSIONBASEDUNIT")) return 1;
        const Id measure = link(unit, 3);
        const double n = number(measure, 0);
        return (n > 0 ? n : 1) * factorOf(link(measure, 1), depth + 1);
    }

    void relate() {
        const auto each = [&](const char* entity, std::size_t many, std::size_t one, auto take) {
            for (Id id : f.of(entity)) {
                const Id other = link(id, one);
                const StepValue& v = value(id, many);
                if (v.reference) take(v.reference, other);
                for (Id thing : links(id, many)) take(thing, other);
            }
        };
        each("IFCRELAGGREGATES", 5, 4, [&](Id thing, Id of) { partOf[thing] = of; });
        each("IFCRELCONTAINEDINSPATIALSTRUCTURE", 4, 5, [&](Id thing, Id of) { containedIn[thing] = of; });
        each("IFCRELDEFINESBYTYPE", 4, 5, [&](Id thing, Id type) { typeOf[thing] = type; });
        each("IFCRELDEFINESBYPROPERTIES", 4, 5, [&](Id thing, Id set) { properties[thing].push_back(set); });
        each("IFCRELASSOCIATESMATERIAL", 4, 5, [&](Id thing, Id of) { material[thing] = of; });
        each("IFCRELFILLSELEMENT", 5, 4, [&](Id door, Id hole) { filling[door] = hole; });
        each("IFCRELVOIDSELEMENT", 5, 4, [&](Id hole, Id wall) { voided[hole] = wall; });
    }

    /// The storey on which a thing stands; −1: the file does not say.
    int storeyFor(Id thing) const {
        for (int guard = 0; thing && guard < 20; ++guard) {
            if (const auto s = storeyOf.find(thing); s != storeyOf.end()) return s->second;
            if (const auto c = containedIn.find(thing); c != containedIn.end())
                thing = c->second;
            else if (const auto p = partOf.find(thing); p != partOf.end())
                thing = p->second;
            else
                return -1;
        }
        return -1;
    }

    // ---- places ----

    Vector point(Id id) const {
        const auto& c = value(id, 0).items;
        return {!c.empty() ? c[0].number : 0, c.size() > 1 ? c[1].number : 0, c.size() > 2 ? c[2].number : 0};
    }
    Frame axes(Id id) const {
        Frame out;
        if (!id) return out;
        out.at = point(link(id, 0));
        if (is(id, "IFCAXIS2PLACEMENT2D")) {
            if (const Id x = link(id, 1)) out.x = point(x).unit();
            out.y = {-out.x.y, out.x.x, 0};
            return out;
        }
        if (const Id z = link(id, 1)) out.z = point(z).unit();
        Vector x{1, 0, 0};
        if (const Id given = link(id, 2)) x = point(given);
        x = x - out.z * x.dot(out.z); // square to the axis
        if (x.dot(x) < 1e-12) x = std::abs(out.z.x) < 0.9 ? Vector{1, 0, 0} : Vector{0, 1, 0};
        out.x = (x - out.z * x.dot(out.z)).unit();
        out.y = out.z.cross(out.x);
        return out;
    }
    Frame frameOf(Id placement, int depth = 0) {
        if (!placement || placement == building || depth > 60) return {};
        if (const auto it = frames.find(placement); it != frames.end()) return it->second;
        const Frame out = frameOf(link(placement, 0), depth + 1)(axes(link(placement, 1)));
        frames[placement] = out;
        return out;
    }
    Point onPlan(Vector v) const { return {v.x * metre, -v.y * metre}; }

    // ---- curves ----

    /// The bulge of an arc from a over b to c: positive turns from x towards y in the axes of the model.
    static double bulgeOver(Vector a, Vector b, Vector c) {
        const double cross = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
        const double d1 = std::hypot(b.x - a.x, b.y - a.y), d2 = std::hypot(c.x - b.x, c.y - b.y),
                     chord = std::hypot(c.x - a.x, c.y - a.y);
        if (d1 < 1e-9 || d2 < 1e-9 || chord < 1e-9) return 0;
        // The angle at b is that of the circumference: half of the arc beyond.
        const double cosine = (d1 * d1 + d2 * d2 - chord * chord) / (2 * d1 * d2);
        const double arc = 2 * std::numbers::pi - 2 * std::acos(std::clamp(cosine, -1.0, 1.0));
        const double bulge = std::tan(arc / 4);
        return cross > 0 ? bulge : -bulge;
    }

    void addCurve(Id id, Curve& out, bool forward = true, int depth = 0) const {
        if (depth > deepest || spent()) return;
        Curve own;
        if (is(id, "IFCPOLYLINE")) {
            for (Id p : links(id, 0)) own.add(point(p));
        } else if (is(id, "IFCINDEXEDPOLYCURVE")) {
            std::vector<Vector> corners;
            for (const StepValue& c : value(link(id, 0), 0).items)
                corners.push_back({!c.items.empty() ? c.items[0].number : 0, c.items.size() > 1 ? c.items[1].number : 0,
                                   c.items.size() > 2 ? c.items[2].number : 0});
            const auto corner = [&](double n) {
                const auto k = std::size_t(std::clamp(n, 1.0, double(std::max<std::size_t>(1, corners.size()))) - 1);
                return k < corners.size() ? corners[k] : Vector{};
            };
            const StepValue& segments = value(id, 1);
            if (segments.items.empty())
                for (Vector v : corners) own.add(v);
            for (const StepValue& s : segments.items) {
                const auto& n = s.items;
                if (s.type == "IFCARCINDEX" && n.size() == 3) {
                    const Vector a = corner(n[0].number), b = corner(n[1].number), c = corner(n[2].number);
                    if (own.at.empty()) own.add(a);
                    own.add(c, bulgeOver(a, b, c));
                } else {
                    for (std::size_t i = own.at.empty() ? 0 : 1; i < n.size(); ++i) own.add(corner(n[i].number));
                }
            }
        } else if (is(id, "IFCCOMPOSITECURVE")) {
            for (Id segment : links(id, 0)) addCurve(link(segment, 2), own, !value(segment, 1).is("F"), depth + 1);
        } else if (is(id, "IFCTRIMMEDCURVE")) {
            addTrimmed(id, own, depth);
        } else if (is(id, "IFCCIRCLE")) {
            const Frame a = axes(link(id, 0));
            const double r = number(id, 1);
            own.add(a(Vector{r, 0, 0})), own.add(a(Vector{-r, 0, 0}), 1), own.add(a(Vector{r, 0, 0}), 1);
        }
        if (!forward) {
            std::reverse(own.at.begin(), own.at.end());
            std::reverse(own.bulge.begin(), own.bulge.end());
            for (double& b : own.bulge) b = -b;
        }
        for (std::size_t i = 0; i < own.at.size(); ++i) {
            const bool joint =
                i == 0 && !out.at.empty() && (out.at.back() - own.at[0]).dot(out.at.back() - own.at[0]) < 1e-12;
            if (!joint) out.add(own.at[i], i > 0 ? own.bulge[i - 1] : 0);
        }
    }
    void addTrimmed(Id id, Curve& out, int depth) const {
        const Id basis = link(id, 0);
        const auto end = [&](std::size_t n, auto byParameter) {
            for (const StepValue& v : value(id, n).items)
                if (v.kind == StepValue::Kind::Reference) return point(v.reference);
            for (const StepValue& v : value(id, n).items)
                if (v.kind == StepValue::Kind::Number) return byParameter(v.number);
            return Vector{};
        };
        const bool forward = !value(id, 3).is("F");
        if (is(basis, "IFCCIRCLE")) {
            const Frame a = axes(link(basis, 0));
            const double r = number(basis, 1);
            const auto on = [&](double angle) {
                return a(Vector{r * std::cos(angle * radian), r * std::sin(angle * radian), 0});
            };
            const Vector from = end(1, on), to = end(2, on), c = a.at;
            double begin = std::atan2((from - c).dot(a.y), (from - c).dot(a.x)),
                   stop = std::atan2((to - c).dot(a.y), (to - c).dot(a.x));
            if (forward && stop <= begin) stop += 2 * std::numbers::pi;
            if (!forward && stop >= begin) stop -= 2 * std::numbers::pi;
            const double middle = (begin + stop) / 2;
            const Vector over = a(Vector{r * std::cos(middle), r * std::sin(middle), 0});
            out.add(from);
            out.add(to, bulgeOver(from, over, to));
        } else if (is(basis, "IFCLINE")) {
            const Vector at = point(link(basis, 0)), along = point(link(link(basis, 1), 0)) * number(link(basis, 1), 1);
            const auto on = [&](double t) { return at + along * t; };
            out.add(end(1, on)), out.add(end(2, on));
        } else {
            addCurve(basis, out, forward, depth + 1);
        }
    }
    /// Corners of a closed curve, arcs as pieces; the last is not the first again.
    static std::vector<Vector> ring(const Curve& c) {
        std::vector<Vector> out;
        for (std::size_t i = 0; i < c.at.size(); ++i) {
            const double bow = i > 0 ? c.bulge[i - 1] : 0;
            if (bow != 0) {
                const Vector a = c.at[i - 1], b = c.at[i];
                const auto arc = arcOfBulge({a.x, a.y}, {b.x, b.y}, bow);
                for (std::size_t k = 1; k + 1 < arc.size(); ++k) out.push_back({arc[k].x, arc[k].y, a.z});
            }
            out.push_back(c.at[i]);
        }
        if (out.size() > 1) {
            const Vector d = out.front() - out.back();
            if (d.dot(d) < 1e-12) out.pop_back();
        }
        return out;
    }
    std::vector<Vector> profile(Id id) const {
        std::vector<Vector> out;
        if (is(id, "IFCRECTANGLEPROFILEDEF") || is(id, "IFCROUNDEDRECTANGLEPROFILEDEF")) {
            const Frame a = axes(link(id, 2));
            const double x = number(id, 3) / 2, y = number(id, 4) / 2;
            for (Vector v : {Vector{-x, -y, 0}, Vector{x, -y, 0}, Vector{x, y, 0}, Vector{-x, y, 0}})
                out.push_back(a(v));
        } else if (is(id, "IFCCIRCLEPROFILEDEF")) {
            const Frame a = axes(link(id, 2));
            const double r = number(id, 3);
            for (int i = 0; i < 24; ++i) {
                const double angle = i * std::numbers::pi / 12;
                out.push_back(a(Vector{r * std::cos(angle), r * std::sin(angle), 0}));
            }
        } else if (is(id, "IFCARBITRARYCLOSEDPROFILEDEF") || is(id, "IFCARBITRARYPROFILEDEFWITHVOIDS")) {
            Curve c;
            addCurve(link(id, 2), c);
            out = ring(c);
        }
        return out;
    }

    // ---- shapes ----

    struct Solid {
        std::vector<Vector> foot;
        double height = 0;
    };
    /// The outline of the floor of a shape, and how high it is; without corners where it is of no kind that is read.
    Solid solidOf(Id item, const Frame& frame, int depth = 0) const {
        Solid out;
        if (depth > deepest || spent()) return out;
        if (is(item, "IFCEXTRUDEDAREASOLID")) {
            const Frame at = frame(axes(link(item, 1)));
            const Vector up = at.turned(point(link(item, 2)).unit()) * number(item, 3);
            if (std::abs(at.z.z) < 0.5) return out; // drawn from its side
            for (Vector v : profile(link(item, 0))) out.foot.push_back(at(v));
            out.height = std::abs(up.z);
        } else if (is(item, "IFCBOOLEANCLIPPINGRESULT") || is(item, "IFCBOOLEANRESULT")) {
            return solidOf(link(item, 1), frame, depth + 1);
        } else if (is(item, "IFCMAPPEDITEM")) {
            const Id map = link(item, 0), target = link(item, 1);
            Frame to;
            if (target) {
                const double scale = value(target, 3).kind == StepValue::Kind::Number ? number(target, 3) : 1;
                if (const Id x = link(target, 0)) to.x = point(x).unit();
                if (const Id z = link(target, 4)) to.z = point(z).unit();
                to.y = link(target, 1) ? point(link(target, 1)).unit() : to.z.cross(to.x);
                to.x = to.x * scale, to.y = to.y * scale, to.z = to.z * scale;
                to.at = point(link(target, 2));
            }
            const Frame inner = frame(to);
            for (Id part : links(link(map, 1), 3))
                if (Solid s = solidOf(part, inner, depth + 1); !s.foot.empty()) return s;
        } else if (is(item, "IFCFACETEDBREP") || is(item, "IFCTRIANGULATEDFACESET") ||
                   is(item, "IFCPOLYGONALFACESET")) {
            return footOfFaces(facesOf(item), frame);
        }
        return out;
    }
    std::vector<std::vector<Vector>> facesOf(Id item) const {
        std::vector<std::vector<Vector>> faces;
        if (is(item, "IFCFACETEDBREP")) {
            for (Id face : links(link(item, 0), 0))
                for (Id bound : links(face, 0)) {
                    std::vector<Vector> corners;
                    for (Id p : links(link(bound, 0), 0)) corners.push_back(point(p));
                    faces.push_back(std::move(corners));
                    break; // its outline comes first; holes are left alone
                }
            return faces;
        }
        std::vector<Vector> corners;
        for (const StepValue& c : value(link(item, 0), 0).items)
            if (c.items.size() == 3) corners.push_back({c.items[0].number, c.items[1].number, c.items[2].number});
        const auto add = [&](const std::vector<StepValue>& index) {
            std::vector<Vector> face;
            for (const StepValue& n : index)
                if (n.number >= 1 && n.number <= double(corners.size()))
                    face.push_back(corners[std::size_t(n.number) - 1]);
            faces.push_back(std::move(face));
        };
        if (is(item, "IFCTRIANGULATEDFACESET"))
            for (const StepValue& t : value(item, 3).items) add(t.items);
        else
            for (Id face : links(item, 2)) add(value(face, 0).items);
        return faces;
    }
    /// The edge around the level faces at the bottom: what two of them share lies within.
    Solid footOfFaces(const std::vector<std::vector<Vector>>& faces, const Frame& frame) const {
        Solid out;
        double least = 1e300, most = -1e300;
        std::vector<std::vector<Vector>> placed = faces;
        for (auto& face : placed)
            for (Vector& v : face) {
                v = frame(v);
                least = std::min(least, v.z), most = std::max(most, v.z);
            }
        const double near = 0.01 / metre; // a centimetre
        using Key = std::pair<long long, long long>;
        const auto key = [&](Vector v) { return Key{std::llround(v.x / near * 10), std::llround(v.y / near * 10)}; };
        std::map<Key, Vector> corner;
        std::set<std::pair<Key, Key>> edges;
        for (const auto& face : placed) {
            if (face.size() < 3 || std::any_of(face.begin(), face.end(), [&](Vector v) { return v.z > least + near; }))
                continue;
            for (std::size_t i = 0; i < face.size(); ++i) {
                const Key a = key(face[i]), b = key(face[(i + 1) % face.size()]);
                corner[a] = face[i];
                if (a == b || edges.erase({b, a}) || edges.erase({a, b})) continue;
                edges.insert({a, b});
            }
        }
        double largest = 0;
        while (!edges.empty()) {
            const Key start = edges.begin()->first;
            Key at = edges.begin()->second;
            edges.erase(edges.begin());
            std::vector<Vector> loop{corner[start]};
            while (at != start) {
                loop.push_back(corner[at]);
                const auto next = edges.lower_bound({at, Key{-(1LL << 62), -(1LL << 62)}});
                if (next == edges.end() || next->first != at) break;
                at = next->second;
                edges.erase(next);
            }
            std::vector<Point> outline;
            for (Vector v : loop) outline.push_back({v.x, v.y});
            if (const double area = std::abs(areaOf(outline)); at == start && area > largest) {
                largest = area;
                out.foot = loop;
            }
        }
        out.height = std::max(0.0, most - least);
        return out;
    }
    /// The items of a representation: "Body", "Axis", "FootPrint".
    std::vector<Id> items(Id thing, const char* identifier) const {
        for (Id shape : links(link(thing, 6), 2))
            if (text(shape, 1) == identifier) return links(shape, 3);
        return {};
    }
    Solid bodyOf(Id thing, const Frame& frame) const {
        for (Id item : items(thing, "Body"))
            if (Solid s = solidOf(item, frame); s.foot.size() >= 3) return s;
        for (Id item : items(thing, "FootPrint")) {
            Curve c;
            if (is(item, "IFCGEOMETRICCURVESET") || is(item, "IFCGEOMETRICSET")) {
                for (Id curve : links(item, 0)) addCurve(curve, c);
            } else if (is(item, "IFCANNOTATIONFILLAREA")) {
                addCurve(link(item, 0), c);
            } else {
                addCurve(item, c);
            }
            Solid s;
            for (Vector v : ring(c)) s.foot.push_back(frame(v));
            if (s.foot.size() >= 3) return s;
        }
        return {};
    }

    // ---- things ----

    void readStoreys() {
        struct One {
            Id id;
            double z;
        };
        std::vector<One> all;
        for (Id id : f.of("IFCBUILDINGSTOREY")) all.push_back({id, frameOf(link(id, 5)).at.z});
        // Some place every storey at zero, what stands on it at its height, and say that as the storey's elevation.
        const bool placed = std::any_of(all.begin(), all.end(), [&](const One& one) { return one.z != all.front().z; });
        for (One& one : all)
            if (!placed) one.z += number(one.id, 9);
        std::stable_sort(all.begin(), all.end(), [](const One& a, const One& b) { return a.z < b.z; });
        for (const One& one : all) {
            BuildingModel::Storey s;
            s.id = text(one.id, 0);
            s.name = text(one.id, 2).empty() ? text(one.id, 7) : text(one.id, 2);
            s.elevation = one.z * metre;
            storeyOf[one.id] = int(m.storeys.size());
            m.storeys.push_back(std::move(s));
        }
        m.findHeights();
    }

    void readSpaces() {
        int bare = 0;
        for (Id id : f.of("IFCSPACE")) {
            BuildingModel::Space s;
            s.id = text(id, 0);
            s.number = text(id, 2);
            s.name = text(id, 7);
            s.storey = storeyFor(id);
            const Solid body = bodyOf(id, frameOf(link(id, 5)));
            for (Vector v : body.foot) s.outline.push_back(onPlan(v));
            s.height = body.height * metre;
            bare += s.outline.empty();
            m.spaces.push_back(std::move(s));
        }
        if (bare)
            m.notes.push_back(
                fmt::format("{} {} no outline that can be read", bare, bare == 1 ? "space has" : "spaces have"));
    }

    /// The layers of a wall: how thick all are, and where their middle lies beside the axis; 0: not said.
    std::pair<double, double> layersOf(Id wall) const {
        const auto it = material.find(wall);
        if (it == material.end()) return {0, 0};
        const Id usage = it->second, set = is(usage, "IFCMATERIALLAYERSETUSAGE") ? link(usage, 0) : usage;
        if (!is(set, "IFCMATERIALLAYERSET")) return {0, 0};
        double thick = 0;
        for (Id layer : links(set, 0)) thick += number(layer, 1);
        if (set == usage) return {thick, 0};
        return {thick, number(usage, 3) + (value(usage, 2).is("NEGATIVE") ? -thick / 2 : thick / 2)};
    }

    void readWalls() {
        int bare = 0;
        for (const char* entity : {"IFCWALL", "IFCWALLSTANDARDCASE", "IFCWALLELEMENTEDCASE", "IFCCURTAINWALL"})
            for (Id id : f.of(entity)) {
                const Frame frame = frameOf(link(id, 5));
                auto [thick, aside] = layersOf(id);
                Curve axis;
                for (Id item : items(id, "Axis")) addCurve(item, axis);
                const std::size_t before = m.walls.size();
                if (axis.at.size() >= 2) {
                    if (thick <= 0) std::tie(thick, aside) = acrossAxis(id);
                    addWalls(id, axis, frame, thick, aside);
                } else if (const Solid body = bodyOf(id, frame); body.foot.size() >= 3) {
                    addBox(id, body.foot);
                }
                bare += m.walls.size() == before;
            }
        if (bare)
            m.notes.push_back(
                fmt::format("{} {} no axis that can be read", bare, bare == 1 ? "wall has" : "walls have"));
    }
    /// Of a wall that does not name its layers: how thick its body is, and where the middle of it lies beside its axis.
    std::pair<double, double> acrossAxis(Id wall) const {
        const Solid body = bodyOf(wall, {});
        if (body.foot.empty()) return {0, 0};
        double least = 1e300, most = -1e300;
        for (Vector v : body.foot) least = std::min(least, v.y), most = std::max(most, v.y);
        return {most - least, (least + most) / 2};
    }
    void addWalls(Id id, const Curve& axis, const Frame& frame, double thick, double aside) {
        for (std::size_t i = 0; i + 1 < axis.at.size(); ++i) {
            Vector a = axis.at[i], b = axis.at[i + 1];
            const Vector along = (b - a).unit(), left{-along.y, along.x, 0};
            if (axis.bulge[i] == 0) a = a + left * aside, b = b + left * aside;
            addWall(id, onPlan(frame(a)), onPlan(frame(b)), thick, axis.bulge[i], i);
        }
    }
    /// `bulge` in the axes of the model. More than half a circle is two walls.
    void addWall(Id id, Point a, Point b, double thick, double bulge, std::size_t piece) {
        if (distance(a, b) < 0.05) return;
        if (std::abs(bulge) > 1 + 1e-6) {
            const Point chord = b - a, middle = (a + b) * 0.5 + Point{-chord.y, chord.x} * (bulge / 2);
            const double half = std::tan(std::atan(bulge) / 2);
            addWall(id, a, middle, thick, half, piece);
            return addWall(id, middle, b, thick, half, piece + halves);
        }
        BuildingModel::Wall w;
        w.id = text(id, 0) + (piece ? fmt::format("/{}", piece + 1) : "");
        w.storey = storeyFor(id);
        w.a = a, w.b = b;
        w.thickness = thick > 0 ? thick * metre : 0.15;
        w.bulge = std::clamp(-bulge, -1.0, 1.0); // the plan is the model turned over
        wallsOf[id].push_back(m.walls.size());
        m.walls.push_back(std::move(w));
    }
    /// A wall known by its body alone: a line through the middle, along its longest side.
    void addBox(Id id, const std::vector<Vector>& foot) {
        Vector along{1, 0, 0};
        double longest = 0;
        for (std::size_t i = 0; i < foot.size(); ++i) {
            const Vector side = foot[(i + 1) % foot.size()] - foot[i];
            if (const double l = std::hypot(side.x, side.y); l > longest)
                longest = l, along = Vector{side.x, side.y, 0}.unit();
        }
        const Vector left{-along.y, along.x, 0};
        double from = 1e300, to = -1e300, low = 1e300, high = -1e300;
        for (Vector v : foot) {
            from = std::min(from, v.dot(along)), to = std::max(to, v.dot(along));
            low = std::min(low, v.dot(left)), high = std::max(high, v.dot(left));
        }
        const Vector middle = left * ((low + high) / 2);
        addWall(id, onPlan(along * from + middle), onPlan(along * to + middle), high - low, 0, 0);
    }

    void readOpening(Id id, bool door) {
        const double width = number(id, 9) * metre;
        const Point at = onPlan(frameOf(link(id, 5))(Vector{number(id, 9) / 2, 0, 0}));
        BuildingModel::Wall* best = nullptr;
        double nearest = 1e300;
        const auto look = [&](BuildingModel::Wall& w) {
            const double off = distance(at, nearestOnSegment(at, w.a, w.b));
            if (off < nearest) nearest = off, best = &w;
        };
        if (const auto hole = filling.find(id); hole != filling.end())
            if (const auto wall = voided.find(hole->second); wall != voided.end())
                if (const auto own = wallsOf.find(wall->second); own != wallsOf.end())
                    for (std::size_t n : own->second) look(m.walls[n]);
        if (!best) {
            const int storey = storeyFor(id);
            for (BuildingModel::Wall& w : m.walls)
                if (w.storey == storey) look(w);
            if (nearest > 0.3) best = nullptr;
        }
        if (!best) return void(++homeless);
        BuildingModel::Opening o;
        o.id = text(id, 0);
        o.kind = door ? OpeningKind::Door : OpeningKind::Window;
        o.width = width > 0.05 ? width : 0.9;
        o.along =
            std::clamp(distance(best->a, nearestOnSegment(at, best->a, best->b)), 0.0, distance(best->a, best->b));
        const auto isDouble = [&](Id thing) {
            return std::any_of(f.values(thing).begin(), f.values(thing).end(),
                               [](const StepValue& v) { return v.text.rfind("DOUBLE_DOOR", 0) == 0; });
        };
        if (const auto type = typeOf.find(id);
            door && (isDouble(id) || (type != typeOf.end() && isDouble(type->second))))
            o.kind = OpeningKind::DoubleDoor;
        best->openings.push_back(std::move(o));
    }

    /// A property of a thing, its own before its type's, by the first of these names; null: it has none.
    const StepValue* property(Id thing, std::span<const char* const> names, Id* unit = nullptr,
                              std::string* called = nullptr) const {
        std::vector<Id> sets;
        if (const auto own = properties.find(thing); own != properties.end()) sets = own->second;
        if (const auto type = typeOf.find(thing); type != typeOf.end())
            for (Id set : links(type->second, 5)) sets.push_back(set);
        for (const char* name : names)
            for (Id set : sets)
                for (Id p : links(set, 4))
                    if (is(p, "IFCPROPERTYSINGLEVALUE") && sameWord(text(p, 0), name) &&
                        value(p, 2).kind == StepValue::Kind::Number) {
                        if (unit) *unit = link(p, 3);
                        if (called) *called = text(p, 0);
                        return &value(p, 2);
                    }
        return nullptr;
    }

    void readDevices() {
        std::map<Id, const ElectricalKind*> found; // in the order of the file
        for (const ElectricalKind& k : electrical)
            for (Id id : f.of(std::string("IFC") + k.entity)) found[id] = &k;
        for (const char* entity : byTheirType)
            for (Id id : f.of(entity)) {
                const auto type = typeOf.find(id);
                if (type == typeOf.end()) continue;
                for (const ElectricalKind& k : electrical)
                    if (f.typeOf(type->second) == std::string("IFC") + k.entity + "TYPE") found[id] = &k;
            }
        int unitless = 0;
        for (const auto& [id, kind] : found) {
            BuildingModel::Device d;
            d.id = text(id, 0);
            d.tag = text(id, 7);
            const auto type = typeOf.find(id);
            d.name = type != typeOf.end() ? text(type->second, 2) : "";
            if (d.name.empty()) d.name = text(id, 4).empty() ? text(id, 2) : text(id, 4);
            if (d.name.empty()) d.name = wordOf(kind->symbol);
            d.symbol = symbolOf(*kind, id);
            d.kind = kind->kind;
            if (d.kind == LoadKind::Equipment)
                if (const auto said = LoadWords::shipped().kindOf(d.name)) d.kind = *said;
            d.storey = storeyFor(id);
            const Vector at = frameOf(link(id, 5)).at;
            d.at = onPlan(at);
            if (d.storey >= 0) d.height = at.z * metre - m.storeys[std::size_t(d.storey)].elevation;
            Id unit = 0;
            std::string called;
            if (const StepValue* v = property(id, powerNames, &unit, &called); v && v->number >= 0) {
                const bool power = v->type == "IFCPOWERMEASURE";
                d.watts = v->number * (unit ? factorOf(unit) : power ? watt : 1);
                unitless += !unit && !power;
                d.said = fmt::format("{} {} W", called, figures(*d.watts));
            }
            if (const StepValue* v = property(id, poleNames); v && v->number >= 1 && v->number <= 4)
                d.poles = std::min(3, int(v->number));
            m.devices.push_back(std::move(d));
        }
        if (unitless)
            m.notes.push_back(fmt::format("{} give{} power without a unit: it is taken as W",
                                          unitless == 1 ? "one thing" : fmt::format("{} things", unitless),
                                          unitless == 1 ? "s its" : " their"));
    }
    Symbol symbolOf(const ElectricalKind& kind, Id id) const {
        const auto says = [&](std::initializer_list<const char*> words) {
            const auto type = typeOf.find(id);
            for (Id thing : {id, type == typeOf.end() ? Id(0) : type->second})
                for (const StepValue& v : f.values(thing))
                    for (const char* word : words)
                        if (v.is(word)) return true;
            return false;
        };
        if (kind.symbol == Symbol::Receptacle &&
            says({"DATAOUTLET", "TELEPHONEOUTLET", "AUDIOVISUALOUTLET", "COMMUNICATIONSOUTLET"}))
            return Symbol::Data;
        if (kind.symbol == Symbol::Luminaire && says({"SECURITYLIGHTING"})) return Symbol::Emergency;
        return kind.symbol;
    }
};

} // namespace

Outcome<BuildingModel> readIfc(const std::string& text, const std::string& name,
                               const std::function<bool(double)>& keep) {
    const auto file = StepFile::parse(text, name, keep);
    if (!file) return file.error();
    if (file->schema().rfind("IFC", 0) != 0)
        return Error{name, "its schema is \"" + file->schema() + "\"", "Lintel reads building models in IFC."};
    return IfcReader(*file).read();
}

} // namespace lintel
