#include "core/rules/Cables.h"
#include "core/base/Parse.h"

#include "core/rules/ReadJson.h"

#include <algorithm>
#include <cmath>

namespace lintel {

using namespace bookjson;

const CableMethod* CableType::method(const std::string& wanted) const {
    for (const CableMethod& m : methods)
        if (m.name == wanted) return &m;
    return nullptr;
}

bool CableType::carriesThree() const {
    return std::any_of(methods.begin(), methods.end(), [](const CableMethod& m) {
        return std::any_of(m.ampacity[1].begin(), m.ampacity[1].end(), [](double a) { return a > 0; });
    });
}

const CableType* CableRules::type(const std::string& wanted) const {
    for (const CableType& t : types)
        if (t.name == wanted) return &t;
    return nullptr;
}

double alternating(double direct, double mm2, bool three) {
    constexpr double hertz = 50, pi = 3.14159265358979;
    const double x2 = 8 * pi * hertz / direct * 1e-7; // xs² = xp², with ks = kp = 1
    const double skin = x2 * x2 / (192 + 0.8 * x2 * x2);
    const double across = 1.06 * std::sqrt(4 * mm2 / pi);           // of a stranded round conductor
    const double apart = across + 2 * (0.6 + 0.1 * std::sqrt(mm2)); // touching, by the usual thickness of insulation
    const double near = across * across / (apart * apart);
    const double proximity = three ? skin * near * (0.312 * near + 1.18 / (skin + 0.27)) : skin * near * 2.9;
    return 1 + skin + proximity;
}

double valueOn(const Curve& c, double x) {
    if (c.empty()) return 1;
    if (x <= c.front().first) return c.front().second;
    for (std::size_t i = 1; i < c.size(); ++i)
        if (x <= c[i].first)
            return c[i - 1].second +
                   (c[i].second - c[i - 1].second) * (x - c[i - 1].first) / (c[i].first - c[i - 1].first);
    return c.back().second;
}

double CableRules::ambient(double celsius, double rated, bool ground) const {
    const auto& curves = ground ? groundByInsulation : airByInsulation;
    const auto it = curves.find(int(rated));
    if (it == curves.end()) return 1;
    return celsius > it->second.back().first + 1e-9
               ? 0
               : valueOn(it->second, celsius); // hotter than the table: not allowed there
}

namespace {

struct CableReader {
    const json& book;
    const std::string& name;
    const std::vector<std::string>& sizes;
    const std::vector<double>& mm2;
    const std::array<std::vector<double>, 2>& at20;
    CableRules c;

    int size(const json& j, const std::string& where) const {
        const std::string s = text(j, where);
        const auto it = std::find(sizes.begin(), sizes.end(), s);
        if (it == sizes.end()) refuse(where, "there is no conductor size \"" + s + "\"");
        return int(it - sizes.begin());
    }
    Curve curve(const json& list, const std::string& where, bool falling = true) const {
        Curve out;
        for (const json& r : list) {
            if (!r.is_array() || r.size() != 2) refuse(where, "a row is [value, factor]");
            out.push_back({number(r[0], where), number(r[1], where)});
            if (out.size() > 1 && (out.back().first <= out[out.size() - 2].first ||
                                   (falling && out.back().second > out[out.size() - 2].second + 1e-9)))
                refuse(where, "the rows must rise and their factor fall");
            if (out.back().second <= 0 || out.back().second > 2)
                refuse(where, "a factor of " + r[1].dump() + " cannot be right here");
        }
        if (out.empty()) refuse(where, "there are no rows");
        return out;
    }
    void cite(const char* key, const json& j, const char* field = "table") { c.cited[key] = text(j, field, name); }

    CableMethod method(const json& j, const std::string& where) {
        CableMethod m;
        m.name = text(j, "name", where);
        m.words = text(j, "words", where);
        m.table = text(j, "table", where);
        m.unverified = j.value("unverified", false);
        m.ground = j.value("ground", false);
        m.grouping = m.ground ? (j.value("direct", false) ? Grouping::Direct : Grouping::Ducts)
                     : j.value("grouping", "") == "tray" ? Grouping::Tray
                                                         : Grouping::Bunched;
        for (auto& a : m.ampacity) a.assign(sizes.size(), 0);
        for (auto& a : m.r) a.assign(sizes.size(), 0);
        for (auto& a : m.x) a.assign(sizes.size(), 0);
        std::array<double, 2> last{};
        for (const json& r : rows(j, 3, where + ", " + m.name)) {
            const std::size_t s = std::size_t(size(r[0], where));
            for (std::size_t k = 0; k < 2; ++k) {
                const double a = m.ampacity[k][s] = orZero(r[k + 1], where);
                const std::string at = where + ", " + m.name + ", " + sizes[s];
                if (a > 0 && a <= last[k]) refuse(at, "a larger conductor must carry more than a smaller one");
                if (a > 0) last[k] = a;
            }
            if (m.ampacity[0][s] > 0 && m.ampacity[1][s] > m.ampacity[0][s])
                refuse(where + ", " + m.name + ", " + sizes[s], "three loaded conductors must not carry more than two");
        }
        return m;
    }
    /// Volts lost per ampere and metre, in mV, both ways (two conductors) or line to line (three): brought to one
    /// conductor.
    void drop(CableType& t, const json& j, const std::string& where) {
        t.dropTable = text(j, "table", where);
        for (const json& r : rows(j, 5, where + ", " + t.dropTable)) {
            const std::size_t s = std::size_t(size(r[0], where));
            const std::string at = where + ", " + t.dropTable + ", " + sizes[s];
            for (const json& wanted : bookjson::at(j, "methods", where))
                for (CableMethod& m : t.methods)
                    if (m.name == text(wanted, where))
                        for (std::size_t k = 0; k < 2; ++k) {
                            const double share = (k ? std::sqrt(3.0) : 2.0) * 1000;
                            m.r[k][s] = orZero(r[1 + 2 * k], at) / share;
                            m.x[k][s] = orZero(r[2 + 2 * k], at) / share;
                            const double expected = at20[std::size_t(t.material)][s] * warmer(t.celsius);
                            if (m.r[k][s] > 0 &&
                                (m.r[k][s] < expected * 0.95 || m.r[k][s] > expected * (mm2[s] > 120 ? 1.4 : 1.1)))
                                refuse(at, "resistance is far from that of the conductor at its highest temperature");
                        }
        }
    }
    /// mΩ/m by size: one figure for all, or rows; Ω/m.
    std::vector<double> reactances(const json& j, const std::string& where) const {
        if (j.is_number()) return std::vector<double>(sizes.size(), number(j, where) / 1000);
        std::vector<double> x(sizes.size(), 0);
        for (const json& r : j) {
            if (!r.is_array() || r.size() != 2) refuse(where, "a row of reactances is [size, mΩ/m]");
            const std::size_t s = std::size_t(size(r[0], where));
            x[s] = number(r[1], where) / 1000;
            if (x[s] < 0.00005 || x[s] > 0.0003)
                refuse(where + ", " + sizes[s], "a reactance of " + r[1].dump() + " mΩ/m cannot be right here");
        }
        return x;
    }
    /// Where the book has no such table: from the resistance at 20 °C, skin and proximity, and reactances by size and
    /// way of laying.
    void dropFromResistance(CableType& t, const json& j, const std::string& where) {
        t.dropTable = text(j, "table", where);
        const std::vector<double> usual = reactances(at(j, "reactance", where), where + ", reactance");
        for (CableMethod& m : t.methods) {
            const std::vector<double> x = j.contains("reactanceBy") && j["reactanceBy"].contains(m.name)
                                              ? reactances(j["reactanceBy"][m.name], where + ", " + m.name)
                                              : usual;
            for (std::size_t k = 0; k < 2; ++k)
                for (std::size_t s = 0; s < sizes.size(); ++s) {
                    if (m.ampacity[k][s] <= 0 || at20[std::size_t(t.material)][s] <= 0) continue;
                    const double direct = at20[std::size_t(t.material)][s] * warmer(t.celsius);
                    m.r[k][s] = direct * alternating(direct, mm2[s], k == 1);
                    m.x[k][s] = x[s];
                    if (x[s] <= 0)
                        refuse(where + ", " + m.name + ", " + sizes[s], "it has an ampacity and no reactance");
                }
        }
    }
    /// Of the ways of laying of the cable it is like, those that are named.
    void only(CableType& t, const json& names, const std::string& where) {
        std::vector<CableMethod> kept;
        for (const json& n : names) {
            const CableMethod* m = t.method(text(n, where));
            if (!m) refuse(where, "there is no method " + n.dump());
            kept.push_back(*m);
        }
        t.methods = kept;
    }
    void readTypes(const json& j) {
        std::vector<json> read;
        for (const json& own : at(j, "types", name)) {
            CableType t;
            const std::string where = name + ", " + text(own, "name", name);
            json y = own;
            if (own.contains("like")) { // as one before it, but for what it says itself
                const auto other =
                    std::find_if(read.begin(), read.end(), [&](const json& r) { return r["name"] == own["like"]; });
                if (other == read.end()) refuse(where, "there is no cable " + own["like"].dump() + " before it");
                y = *other;
                y.update(own);
            }
            read.push_back(y);
            t.name = text(y, "name", where);
            const auto material = fromWord<Material>(text(y, "material", where));
            if (!material) refuse(where, "there is no material " + y["material"].dump());
            t.material = *material;
            t.celsius = number(y, "celsius", where);
            t.single = y.value("single", false);
            t.fireRated = y.value("fireRated", false);
            for (const json& said : at(y, "methods", where)) {
                json m = said;
                if (said.contains("like")) { // carries what another way of laying it does, with other corrections
                    const auto& all = y["methods"];
                    const auto other = std::find_if(all.begin(), all.end(), [&](const json& o) {
                        return o.value("name", "") == said["like"] && !o.contains("like");
                    });
                    if (other == all.end()) refuse(where, "there is no method " + said["like"].dump());
                    m = *other;
                    m.update(said);
                }
                t.methods.push_back(method(m, where));
            }
            if (y.contains("only")) only(t, y["only"], where);
            if (t.methods.empty()) refuse(where, "there is no way of laying it");
            if (y.contains("fromResistance"))
                dropFromResistance(t, y["fromResistance"], where);
            else
                for (const json& d : at(y, "drop", where)) drop(t, d, where);
            if (y.contains("ownGround"))
                for (const json& g : y["ownGround"]) t.ownGround[size(g[0], where)] = size(g[1], where);
            if (y.contains("armour"))
                for (const json& r : rows(y["armour"], 4, where + ", armour")) {
                    const std::size_t s = std::size_t(size(r[0], where));
                    for (std::size_t cores = 2; cores <= 4; ++cores) {
                        t.armour[cores].resize(sizes.size(), 0);
                        t.armour[cores][s] = orZero(r[cores - 1], where) / 1000;
                    }
                }
            for (CableMethod& m : t.methods)
                for (std::size_t k = 0; k < 2; ++k)
                    for (std::size_t s = 0; s < sizes.size(); ++s)
                        if (t.armoured() && t.armour[2][s] + t.armour[3][s] + t.armour[4][s] <= 0)
                            m.ampacity[k][s] = 0; // not made in that size
                        else if (m.ampacity[k][s] > 0 && m.r[k][s] <= 0)
                            refuse(where + ", " + m.name + ", " + sizes[s], "it has an ampacity and no resistance");
            c.types.push_back(t);
        }
        c.usualBranch = text(j, "usualBranch", name);
        c.usualFeeder = text(j, "usualFeeder", name);
        if (!c.type(c.usualBranch) || !c.type(c.usualFeeder)) refuse(name, "the usual cable is not in the list");
    }
    void readLying(const json& j) {
        const auto byInsulation = [&](const char* key, std::map<int, Curve>& into, const char* cited) {
            const json& s = at(j, key, name);
            cite(cited, s);
            for (const auto& [celsius, list] : at(s, "factors", name).items())
                into[int(plainNumber(celsius).value_or(0))] = curve(list, name + ", " + key + " " + celsius);
        };
        byInsulation("air", c.airByInsulation, "ambient");
        byInsulation("ground", c.groundByInsulation, "groundTemperature");
        c.airOfTables = number(j["air"], "base", name);
        c.groundOfTables = number(j["ground"], "base", name);
        const json& s = at(j, "soil", name);
        cite("soil", s);
        c.soilOfTables = number(s, "base", name);
        c.soil[false] = curve(at(s, "factors", name), name + ", soil");
        const bool direct = std::any_of(c.types.begin(), c.types.end(), [](const CableType& t) {
            return std::any_of(t.methods.begin(), t.methods.end(), [](const CableMethod& m) { return m.direct(); });
        });
        if (direct) c.soil[true] = curve(at(s, "direct", name), name + ", soil, direct");
        const json& g = at(j, "grouping", name);
        cite("bundling", g);
        cite("groupingIgnored", g, "ignoredTable");
        c.groupingIgnoredBelow = number(g, "ignoredBelow", name);
        c.grouping[std::size_t(Grouping::Bunched)] = curve(at(g, "bunched", name), name + ", grouping");
        c.grouping[std::size_t(Grouping::Tray)] = curve(at(g, "tray", name), name + ", grouping");
        c.grouping[std::size_t(Grouping::Wall)] = curve(at(g, "wall", name), name + ", grouping");
        c.grouping[std::size_t(Grouping::Ceiling)] = curve(at(g, "ceiling", name), name + ", grouping");
        c.grouping[std::size_t(Grouping::Ladder)] = curve(at(g, "ladder", name), name + ", grouping");
        const json& h = at(j, "thirdHarmonic", name);
        cite("thirdHarmonic", h);
        c.thirdHarmonic.clear();
        for (const json& step : at(h, "above", name))
            c.thirdHarmonic.push_back({number(step.at(0), name), number(step.at(1), name)});
        c.neutralFrom = number(h, "neutralFrom", name);
        c.grouping[std::size_t(Grouping::Ducts)] = curve(at(g, "ground", name), name + ", grouping");
        if (direct)
            c.grouping[std::size_t(Grouping::Direct)] = curve(at(g, "direct", name), name + ", grouping, direct");
        if (j.contains("buried")) { // a book that asks for none has none
            cite("buried", j["buried"]);
            c.buriedShare = number(j["buried"], "share", name);
            if (!(c.buriedShare > 0.5 && c.buriedShare <= 1))
                refuse(name + ", buried", "the share of a buried cable lies between 0.5 and 1");
        }
        const json& i = at(j, "insulation", name);
        cite("insulation", i);
        c.insulation = curve(at(i, "factors", name), name + ", insulation");
    }
    void readProtective(const json& j) {
        cite("protective", j);
        cite("adiabatic", j, "adiabatic");
        cite("bonding", j, "bonding");
        if (j.contains("supplementary")) cite("supplementary", j, "supplementary");
        const auto two = [&](const char* key, double(&into)[2][2]) {
            const json& k = at(j, key, name);
            for (auto m : {Material::Copper, Material::Aluminium}) {
                const json& v = at(k, wordOf(m), name);
                for (std::size_t i = 0; i < 2; ++i) into[std::size_t(m)][i] = number(v.at(i), name);
                if (into[std::size_t(m)][0] >= into[std::size_t(m)][1])
                    refuse(name + ", " + key, "a hotter insulation must have a larger k");
            }
        };
        two("k", c.k);
        two("kSeparate", c.kSeparate);
        for (std::size_t i = 0; i < 2; ++i) c.kArmour[i] = number(at(j, "kArmour", name).at(i), name);
        if (j.contains("byLine"))
            for (const json& r : j["byLine"]) c.byLine.push_back({orEndless(r[0], name), number(r[1], name)});
        if (j.contains("groundOfLine"))
            for (const json& r : j["groundOfLine"]) c.groundOfLine[size(r[0], name)] = size(r[1], name);
        if (c.byLine.empty() == c.groundOfLine.empty())
            refuse(name + ", protective", "give either byLine or groundOfLine");
        c.bondingShare = number(j, "bondingShare", name);
        c.bondingLeast = number(j, "bondingLeast", name);
        c.bondingMost = number(j, "bondingMost", name);
        if (j.contains("bondingCombined"))
            for (const json& r : j["bondingCombined"])
                c.bondingCombined.push_back({orEndless(r[0], name), number(r[1], name)});
    }
    void readEarthFaults(const json& j) {
        cite("disconnection", j);
        cite("loop", j, "loop");
        cite("residual", j, "residual");
        cite("residualWhere", j, "residualWhere");
        cite("surge", j, "surge");
        c.cMax = number(j, "cMax", name);
        c.cMin = number(j, "cMin", name);
        for (std::size_t e = 0; e < 4; ++e) {
            c.finalSeconds[e] = number(at(j, "finalSeconds", name).at(e), name);
            c.distributionSeconds[e] = number(at(j, "distributionSeconds", name).at(e), name);
            if (c.finalSeconds[e] > c.distributionSeconds[e] || c.finalSeconds[e] <= 0)
                refuse(name + ", disconnection", "final circuits must not have a longer time than distribution");
        }
        c.finalUpTo = number(j, "finalUpTo", name);
        c.finalUpToSockets = number(j, "finalUpToSockets", name);
        if (c.finalUpToSockets < c.finalUpTo)
            refuse(name + ", disconnection",
                   "circuits of socket outlets have the shorter time up to at least as much as others");
        if (j.contains("rewirable")) cite("rewirable", j, "rewirable");
        cite("residualType", j, "residualType");
        cite("overloadToo", j, "overloadToo");
        cite("secondFault", j, "secondFault");
        cite("insulationMonitor", j, "insulationMonitor");
        for (const json& word : at(j, "plainResidual", name)) {
            const auto kind = fromWord<LoadKind>(word.is_string() ? word.get<std::string>() : "");
            if (!kind) refuse(name + ", plainResidual", "there is no load kind " + word.dump());
            c.plainResidual.push_back(*kind);
        }
        for (const auto& [word, t] : at(j, "trips", name).items()) {
            const auto kind = fromWord<DeviceKind>(word);
            if (!kind) refuse(name + ", trips", "there is no device \"" + word + "\"");
            TripBand b;
            b.standard = text(t, "standard", name);
            b.table = text(t, "table", name);
            b.trips = t.contains("trips") ? number(t, "trips", name) : 0;
            b.from = number(t, "from", name);
            b.upTo = number(t, "upTo", name);
            b.unverified = t.value("unverified", false);
            b.capacityShare = t.contains("capacityShare") ? number(t, "capacityShare", name) : 1;
            if (!(b.capacityShare > 0.5 && b.capacityShare <= 1))
                refuse(name + ", " + word, "the share of a cable's capacity lies between 0.5 and 1");
            if (t.contains("energy")) {
                b.energyTable = text(t["energy"], "table", name);
                for (const json& r : rows(t["energy"], 3, name + ", " + word)) {
                    b.energy.push_back({number(r[0], name), number(r[1], name), number(r[2], name)});
                    if (b.energy.back().small > b.energy.back().large ||
                        (b.energy.size() > 1 && b.energy.back().small <= b.energy[b.energy.size() - 2].small))
                        refuse(name + ", " + word, "energy must rise with the fault and with the rating");
                }
            }
            if (t.contains("fuse"))
                for (const json& r : t["fuse"]) b.fuse[number(r[0], name)] = {orZero(r[1], name), number(r[2], name)};
            if (!b.fuse.empty() && b.fuse.begin()->second[0] <= 0)
                refuse(name + ", " + word, "the smallest fuse needs its currents for both times");
            double last = 0;
            for (const auto& [rating, amps] : b.fuse) {
                if ((amps[0] > 0 && amps[0] <= amps[1]) || amps[1] <= last || amps[1] <= rating)
                    refuse(name + ", " + word,
                           "currents of fuses must rise with their rating, and be larger for the shorter time");
                last = amps[1];
            }
            if (b.trips <= 1 && b.fuse.empty()) refuse(name + ", " + word, "it never opens");
            c.trips[*kind] = b;
        }
        const auto usual = [&](const char* key) {
            const auto kind = fromWord<DeviceKind>(text(j, key, name));
            if (!kind || !c.trips.count(*kind))
                refuse(name + ", " + key, "there is no such device among those that trip");
            return *kind;
        };
        c.usual = usual("usual"), c.usualMotor = usual("usualMotor"), c.usualLarge = usual("usualLarge");
        c.residualSocketAmps = number(j, "residualSocketAmps", name);
        c.residualMA = number(j, "residualMA", name);
        for (const json& r : at(j, "residualRooms", name)) c.residualRooms.push_back(text(r, name));
        for (const json& r : at(j, "residualLighting", name)) c.residualLighting.push_back(text(r, name));
        c.touchVolts = number(j, "touchVolts", name);
    }
    void readRest() {
        const json& d = at(book, "drop", name);
        if (d.contains("columns")) {
            cite("dropColumns", d, "columnsTable");
            for (const json& celsius : d["columns"]) {
                c.dropColumns.push_back(number(celsius, name));
                if (c.dropColumns.size() > 1 && c.dropColumns.back() <= c.dropColumns[c.dropColumns.size() - 2])
                    refuse(name + ", drop", "the temperatures must rise");
            }
        }
        if (d.contains("ownSubstation")) {
            const json& own = d["ownSubstation"];
            const std::string where = name + ", drop, ownSubstation";
            cite("ownSubstation", own);
            c.ownSubstation = {number(own, "total", where), number(own, "usualTotal", where),
                               number(own, "lighting", where), number(own, "usualLighting", where)};
            const auto fits = [](double more, double usual) { return usual > 0 && more >= usual && more <= 20; };
            if (!fits(c.ownSubstation.total, c.ownSubstation.usualTotal) ||
                !fits(c.ownSubstation.lighting, c.ownSubstation.usualLighting))
                refuse(where, "its limits are not below the usual ones, and at most 20 %");
        }
        if (book["earthFault"].contains("unknownSupplyShare")) {
            c.unknownSupplyShare = number(book["earthFault"], "unknownSupplyShare", name);
            cite("unknownSupply", book["earthFault"], "unknownSupplyTable");
            if (!(c.unknownSupplyShare > 0.3 && c.unknownSupplyShare < 1))
                refuse(name + ", earthFault", "the share of the volts that is left lies between 0.3 and 1");
        }
        const json& r = at(book, "ring", name);
        cite("ring", r);
        c.ringDevice = number(r, "device", name);
        c.ringCableAmps = number(r, "cableAmps", name);
        c.ringLeast = number(r, "least", name);
        c.ringArea = number(r, "area", name);
        cite("radial", r, "radialTable");
        if (r.contains("radials"))
            for (const json& x : r["radials"]) {
                c.radialArea.push_back({number(x.at(0), name), number(x.at(1), name)});
                if (c.radialArea.size() > 1 && c.radialArea.back() <= c.radialArea[c.radialArea.size() - 2])
                    refuse(name + ", ring", "radials must rise");
            }
        const json& l = at(book, "least", name);
        cite("least", l);
        for (const auto& [word, area] : at(l, "mm2", name).items()) {
            if (word == "other") {
                c.leastOther = number(area, name);
                continue;
            }
            const auto kind = fromWord<LoadKind>(word);
            if (!kind) refuse(name + ", least", "there is no load kind \"" + word + "\"");
            c.least[*kind] = number(area, name);
        }
    }
};

} // namespace

CableRules readCables(const json& book, const std::string& name, const std::vector<std::string>& sizes,
                      const std::vector<double>& mm2, const std::array<std::vector<double>, 2>& at20) {
    CableReader r{book, name, sizes, mm2, at20, {}};
    r.readTypes(at(book, "cables", name));
    r.readLying(at(book, "lying", name));
    r.readProtective(at(book, "protective", name));
    r.readEarthFaults(at(book, "earthFault", name));
    r.readRest();
    return std::move(r.c);
}

} // namespace lintel
