#include "core/rules/RuleTables.h"
#include "core/base/Parse.h"

#include "core/base/Quantity.h"
#include "core/rules/ReadJson.h"

#include <algorithm>
#include <cmath>

namespace lintel {
namespace {

using namespace bookjson;
constexpr double inch = 25.4, squareInch = inch * inch, pi = 3.14159265358979323846;

struct TableReader {
    const json& book;
    const std::string& name;
    const std::map<std::string, double>& sizes;
    RuleTables t;

    bool has(const char* key) const { return book.contains(key); }
    const json& section(const char* key) const { return at(book, key, name); }
    void cite(const char* key, const json& j, const char* field = "table") { t.cited[key] = text(j, field, name); }
    double share(const json& j, const char* key, double least, double most) const {
        const double v = number(j, key, name);
        if (v < least || v > most) refuse(name + ", " + key, fmt::format("{} cannot be right here", v));
        return v;
    }
    std::string size(const json& j, const std::string& where) const {
        const std::string s = text(j, where);
        if (!sizes.count(s)) refuse(where, "there is no conductor size \"" + s + "\"");
        return s;
    }
    static std::vector<double> rising(const json& j, const std::string& where) {
        std::vector<double> out;
        for (const json& x : j) {
            out.push_back(number(x, where));
            if (out.back() <= (out.size() > 1 ? out[out.size() - 2] : 0)) refuse(where, "the values must rise");
        }
        if (out.empty()) refuse(where, "there are no values");
        return out;
    }
    std::vector<std::string> words(const json& j, const std::string& where) const {
        std::vector<std::string> out;
        for (const json& x : j) out.push_back(text(x, where));
        return out;
    }
    std::vector<Band> bands(const json& list, const std::string& where) const {
        std::vector<Band> out;
        for (const json& r : list) {
            if (!r.is_array() || r.size() != 2) refuse(where, "a row is [up to, value]");
            out.push_back({orEndless(r[0], where), number(r[1], where)});
            if (out.size() > 1 &&
                (out.back().upTo <= out[out.size() - 2].upTo || out.back().value >= out[out.size() - 2].value))
                refuse(where, "the rows must rise and their share fall");
        }
        if (out.empty() || out.back().upTo < 1e300) refuse(where, "the last row has no end: write null");
        return out;
    }

    MotorTable motors(const json& j, const char* key) {
        MotorTable m;
        m.table = text(j, "table", name);
        t.cited[key] = m.table;
        m.volts = rising(at(j, "volts", name), name + ", " + m.table);
        for (const json& r : rows(j, m.volts.size() + 1, name + ", " + m.table)) {
            MotorTable::Row row{number(r[0], name), {}};
            const std::string where = fmt::format("{}, {}, {} hp", name, m.table, row.hp);
            for (std::size_t i = 0; i < m.volts.size(); ++i) {
                row.amps.push_back(orZero(r[i + 1], where));
                if (i > 0 && row.amps[i] > 0 && row.amps[i - 1] > 0 && row.amps[i] >= row.amps[i - 1])
                    refuse(where, "a higher voltage must take less current");
                if (!m.rows.empty() && m.rows.back().amps[i] > 0 && row.amps[i] > 0 &&
                    row.amps[i] <= m.rows.back().amps[i])
                    refuse(where, "a larger motor must take more current");
            }
            if (!m.rows.empty() && row.hp <= m.rows.back().hp) refuse(where, "horsepower must rise");
            m.rows.push_back(row);
        }
        return m;
    }
    void readMotors() {
        const json& m = section("motor");
        t.motorSingle = motors(at(m, "singlePhase", name), "motorSingle");
        t.motorThree = motors(at(m, "threePhase", name), "motorThree");
        for (const auto& [nominal, rated] : at(m, "volts", name).items())
            t.motorVolts[int(plainNumber(nominal).value_or(0))] = int(number(rated, name));
        for (const auto& [word, r] : at(m, "devices", name).items()) {
            const auto kind = fromWord<DeviceKind>(word);
            if (!kind || !r.is_array() || r.size() != 5)
                refuse(name + ", motor devices", "\"" + word + "\" is not a device with its five figures");
            const std::string of = text(r[4], name + ", motor devices");
            if (of != "motor" && of != "device")
                refuse(name + ", motor devices, " + word, "the limit is of the motor or of the device");
            t.motorDevices[*kind] = {number(r[0], name), number(r[1], name), number(r[2], name), number(r[3], name),
                                     of == "motor"};
            if (t.motorDevices[*kind].share < 1 || t.motorDevices[*kind].ceiling < t.motorDevices[*kind].share)
                refuse(name + ", motor devices, " + word, "a ceiling must not lie below the share");
        }
        t.motorDirect = motors(at(m, "direct", name), "motorDirect");
        t.directDevice = share(m, "directDevice", 1, 3);
        t.directInstantaneous = share(m, "directInstantaneous", 1, 4);
        t.instantaneous = share(m, "instantaneous", 1, 20);
        t.instantaneousMost = share(m, "instantaneousMost", t.instantaneous, 30);
        t.instantaneousDesignB = share(m, "instantaneousDesignB", t.instantaneous, 30);
        t.instantaneousDesignBMost = share(m, "instantaneousDesignBMost", t.instantaneousDesignB, 30);
        cite("instantaneous", m, "instantaneousTable");
        t.woundRotor = share(m, "woundRotor", 1, 4);
        const json& o = at(m, "overload", name);
        cite("overload", o);
        t.overload = share(o, "other", 1, 2);
        t.overloadServiceFactor = share(o, "serviceFactor", 1, 2);
        t.overloadMost = share(o, "otherMost", t.overload, 2);
        t.overloadServiceFactorMost = share(o, "serviceFactorMost", t.overloadServiceFactor, 2);
        cite("overloadMost", o, "mostTable");
        cite("motorFeederDevice", at(m, "feederDevice", name));
        const json& h = at(m, "hermetic", name);
        cite("hermeticConductor", h, "conductorTable");
        cite("hermeticDevice", h, "deviceTable");
        t.hermeticConductor = share(h, "conductor", 1, 2);
        t.hermeticDevice = share(h, "device", 1, 4);
        cite("nameplateAmpacity", at(m, "nameplate", name));
        cite("nameplateDevice", at(m, "nameplate", name), "deviceTable");
        cite("motorApart", at(m, "apart", name));
        const json& off = at(m, "disconnect", name);
        cite("motorDisconnect", off);
        t.motorDisconnect = share(off, "ofCurrent", 1, 2);
    }
    void readAbove1000(const json& above) {
        cite("transformerAbove1000", above);
        const auto bandsOf = [&](const char* key, std::vector<RuleTables::Above1000>& into) {
            for (const json& r : at(above, key, name)) {
                const std::string where = name + ", transformer, above 1000 V";
                if (!r.is_array() || r.size() != 6)
                    refuse(where, "a row is [up to % impedance, primary breaker, fuse, secondary breaker, fuse, of "
                                  "1000 V or less]");
                into.push_back({orEndless(r[0], where), number(r[1], where), number(r[2], where), number(r[3], where),
                                number(r[4], where), number(r[5], where)});
                const RuleTables::Above1000& now = into.back();
                if (now.primaryFuse > now.primaryBreaker || now.secondaryFuse > now.secondaryBreaker ||
                    now.primaryBreaker > 6 || now.secondaryLow < 1)
                    refuse(where,
                           "a fuse may have no more than a breaker, and neither more than six times the current");
                if (into.size() > 1 && (now.upToPercentZ <= into[into.size() - 2].upToPercentZ ||
                                        now.primaryBreaker >= into[into.size() - 2].primaryBreaker))
                    refuse(where, "more impedance allows less");
            }
        };
        bandsOf("any", t.above1000Any);
        bandsOf("supervised", t.above1000Supervised);
        t.above1000AloneBreaker = number(above, "aloneBreaker", name);
        t.above1000AloneFuse = number(above, "aloneFuse", name);
    }
    void readTransformers() {
        const json& j = section("transformer");
        cite("transformerSecondaryConductors", j, "secondaryConductors");
        t.transformerPrimaryOnly = bands(at(j, "primaryOnly", name), name + ", transformer");
        t.transformerSecondaryDevice = bands(at(j, "secondary", name), name + ", transformer");
        t.transformerPrimaryWithSecondary = share(j, "primaryWithSecondary", 1, 6);
        if (j.contains("above1000")) readAbove1000(j["above1000"]);
        t.singlePhaseKva = rising(at(j, "singlePhaseKva", name), name + ", transformer kVA");
        t.threePhaseKva = rising(at(j, "threePhaseKva", name), name + ", transformer kVA");
    }
    void readGrounding() {
        const json& j = section("bonding");
        cite("electrode", j, "electrode");
        cite("jumper", j, "jumper");
        t.bondingBeyond = share(j, "beyondShare", 0.05, 1);
        for (const json& r : rows(j, 4, name + ", bonding")) {
            const std::string where = name + ", bonding";
            BondingRow row{orEndless(r[0], where), orEndless(r[1], where), {size(r[2], where), size(r[3], where)}};
            if (!t.bonding.empty()) {
                const BondingRow& last = t.bonding.back();
                for (std::size_t m = 0; m < 2; ++m)
                    if (row.upToCopper <= last.upToCopper || sizes.at(row.size[m]) <= sizes.at(last.size[m]))
                        refuse(where, "the rows must rise");
            }
            t.bonding.push_back(row);
        }
    }
    RuleTables::Laid laid(const char* key) {
        const json& j = section(key);
        RuleTables::Laid out;
        out.table = text(j, "table", name);
        t.cited[key] = out.table;
        out.ambient = number(j, "ambient", name);
        out.unverified = j.value("unverified", false);
        std::array<double, 6> last{};
        for (const json& r : rows(j, 7, name + ", " + out.table)) {
            const std::string s = size(r[0], name + ", " + out.table), where = name + ", " + out.table + ", " + s;
            std::array<std::array<double, 3>, 2> row{};
            for (std::size_t i = 0; i < 6; ++i) {
                const double a = row[i / 3][i % 3] = orZero(r[i + 1], where);
                if (a > 0 && a <= last[i]) refuse(where, "a larger conductor must carry more than a smaller one");
                if (i % 3 > 0 && a > 0 && a <= row[i / 3][i % 3 - 1])
                    refuse(where, "a hotter insulation must carry more");
                if (a > 0) last[i] = a;
            }
            out.ampacity[s] = row;
        }
        return out;
    }
    void readConduit() {
        const json& j = section("conduit");
        const json& f = at(j, "fill", name);
        cite("fill", f);
        cite("conduit", j);
        t.fillOne = share(f, "one", 0.1, 1);
        t.fillTwo = share(f, "two", 0.1, 1);
        t.fillMore = share(f, "more", 0.1, 1);
        t.fillNipple = share(f, "nipple", 0.1, 1);
        t.fillCountsUpFrom = share(f, "countsUpFrom", 0.5, 1);
        cite("fillCount", f, "countTable");
        cite("fillNipple", f, "nippleTable");
        for (const json& c : at(j, "types", name)) {
            ConduitType type;
            type.name = text(c, "name", name);
            const auto raceway = fromWord<Raceway>(text(c, "raceway", name));
            if (!raceway) refuse(name + ", " + type.name, "there is no raceway " + c["raceway"].dump());
            type.raceway = *raceway;
            for (const json& r : rows(c, 3, name + ", " + type.name)) {
                ConduitSize s{text(r[0], name), number(r[1], name) * inch, number(r[2], name) * squareInch};
                const std::string where = fmt::format("{}, {} {}", name, type.name, s.name);
                if (std::abs(s.area / (pi / 4 * s.inside * s.inside) - 1) > 0.006)
                    refuse(where, "the area is not that of its inside diameter");
                if (!type.sizes.empty() && s.area <= type.sizes.back().area)
                    refuse(where, "a larger trade size must have a larger area");
                type.sizes.push_back(s);
            }
            t.conduits.push_back(type);
        }
        const json& in = section("insulations");
        cite("conductorArea", in);
        for (const json& c : at(in, "types", name)) {
            Insulation type{text(c, "name", name), int(number(c, "celsius", name)), {}};
            double last = 0;
            for (const json& r : rows(c, 3, name + ", " + type.name)) {
                const std::string s = size(r[0], name + ", " + type.name), where = name + ", " + type.name + " " + s;
                const double d = number(r[1], where) * inch, area = number(r[2], where) * squareInch;
                if (std::abs(area / (pi / 4 * d * d) - 1) > 0.02) refuse(where, "the area is not that of its diameter");
                if (area <= last) refuse(where, "a larger conductor must have a larger area");
                last = type.area[s] = area;
            }
            t.insulations.push_back(type);
        }
        if (t.conduits.empty() || t.insulations.empty()) refuse(name, "there is no conduit or no insulation");
    }
    void readArea() {
        const json& a = section("areaLighting");
        cite("areaLighting", a);
        cite("areaLightingDwelling", a, "dwellingTable");
        const double unit = text(a, "unit", name) == "W/m²" ? metresPerFoot * metresPerFoot : 1;
        t.dwellingLighting = share(a, "dwelling", 0.1, 20) * unit;
        for (const json& r : rows(a, 2, name + ", area lighting"))
            t.areaLighting.push_back({text(r[0], name), number(r[1], name) * unit});
    }
    void readManyDwellings() {
        const json& j = section("manyDwellings");
        cite("manyDwellings", j);
        for (const auto& [word, list] : at(j, "groups", name).items()) {
            const auto kind = fromWord<LoadKind>(word);
            if (!kind) refuse(name + ", manyDwellings", "there is no load kind \"" + word + "\"");
            auto& rowsOfKind = t.manyDwellings[*kind];
            for (const json& r : list) {
                if (!r.is_array() || r.size() != 4)
                    refuse(name + ", manyDwellings", "a row is [from, up to, A, A for each]");
                rowsOfKind.push_back(
                    {number(r[0], name), orEndless(r[1], name), number(r[2], name), number(r[3], name)});
                const auto& now = rowsOfKind.back();
                if (now.upTo < now.from || now.base < 0 || now.each < 0 ||
                    (rowsOfKind.size() > 1 && now.from <= rowsOfKind[rowsOfKind.size() - 2].upTo))
                    refuse(name + ", manyDwellings", "the rows do not follow one another");
            }
        }
    }
    /// Rows that follow one another, each beginning where the one before it ends, to the kVA that both give there.
    std::vector<RuleTables::Restaurant> restaurant(const json& rows) {
        const std::string where = name + ", restaurant";
        std::vector<RuleTables::Restaurant> out;
        for (const json& r : rows) {
            if (!r.is_array() || r.size() != 4) refuse(where, "a row is [up to, kVA, share, over]");
            out.push_back({orEndless(r[0], where), number(r[1], where), number(r[2], where), number(r[3], where)});
            const auto& now = out.back();
            if (now.share <= 0 || now.share > 1) refuse(where, "a share lies between 0 and 1");
            if (out.size() == 1) continue;
            const auto& before = out[out.size() - 2];
            const double joint = before.base + before.share * (before.upTo - before.from);
            if (now.from != before.upTo || std::abs(joint - now.base) > 0.1)
                refuse(where, "a row must begin where the one before it ends");
        }
        if (out.empty()) refuse(where, "there are no rows");
        return out;
    }
    void readWelders(const json& w) {
        cite("welders", w);
        t.cited["welderGroup"] = text(w, "group", name);
        for (auto [key, rows] : {std::pair{"nonmotor", &t.welderNonmotor}, {"motorGenerator", &t.welderGenerator}}) {
            for (const json& r : at(w, key, name)) {
                if (!r.is_array() || r.size() != 2) refuse(name + ", welders", "a row is [duty cycle up to, factor]");
                rows->push_back({number(r[0], name), number(r[1], name)});
                const std::size_t n = rows->size();
                if (n > 1 &&
                    ((*rows)[n - 1].upTo <= (*rows)[n - 2].upTo || (*rows)[n - 1].value < (*rows)[n - 2].value))
                    refuse(name + ", welders", "the rows must rise");
            }
            if (rows->empty() || rows->back().upTo != 100 || rows->back().value != 1)
                refuse(name + ", welders", "the last row is of 100 %, and its factor 1");
        }
        const json& resistance = at(w, "resistance", name);
        cite("resistanceWelders", resistance);
        t.cited["resistanceGroup"] = text(resistance, "group", name);
        for (const json& r : at(resistance, "rows", name)) {
            if (!r.is_array() || r.size() != 2) refuse(name + ", welders", "a row is [duty cycle up to, factor]");
            const Band row{number(r[0], name), number(r[1], name)};
            if (!t.resistanceWelder.empty() &&
                (row.upTo <= t.resistanceWelder.back().upTo || row.value < t.resistanceWelder.back().value))
                refuse(name + ", welders", "the rows must rise");
            t.resistanceWelder.push_back(row);
        }
        if (t.resistanceWelder.empty()) refuse(name + ", welders", "there are no rows");
        t.resistanceAutomatic = number(resistance, "automatic", name);
        t.resistanceManual = number(resistance, "manual", name);
        t.resistanceOthers = number(resistance, "others", name);
        for (const json& s : at(w, "shares", name)) t.welderShares.push_back(number(s, name + ", welders"));
        if (t.welderShares.empty()) refuse(name + ", welders", "there are no shares");
    }
    void readDwellings() {
        const json& d = section("dwelling");
        const json& s = at(d, "smallAppliance", name);
        cite("smallAppliance", s);
        t.smallAppliance = number(s, "each", name);
        t.smallApplianceLeast = int(number(s, "least", name));
        cite("laundry", at(d, "laundry", name));
        t.laundry = number(at(d, "laundry", name), "each", name);
        const json& p = at(d, "appliances", name);
        cite("appliances", p);
        t.appliancesFrom = int(number(p, "from", name));
        t.appliancesFactor = share(p, "factor", 0.1, 1);
        const json& o = at(d, "optional", name);
        cite("dwellingOptional", o);
        t.optionalFirst = number(o, "first", name);
        t.optionalRest = share(o, "rest", 0.1, 1);
        t.optionalBackup = share(o, "heatPumpBackup", 0.1, 1);
        t.optionalHeatFew = share(o, "heatFew", 0.1, 1);
        t.optionalHeatMany = share(o, "heatMany", 0.1, 1);
        t.optionalManyFrom = int(number(o, "manyFrom", name));
        t.optionalLeastAmps = number(o, "leastAmps", name);
        const json& m = at(d, "multifamily", name);
        cite("multifamily", m);
        t.multifamily = bands(at(m, "rows", name), name + ", multifamily");
        const json& e = section("existingDwelling");
        cite("existingDwelling", e);
        t.existingFirst = number(e, "first", name);
        t.existingRest = share(e, "rest", 0.1, 1);
        t.existingManyFrom = int(number(e, "manyFrom", name));
        const json& school = section("school");
        cite("school", school);
        t.school = bands(at(school, "rows", name), name + ", school");
        const json& r = section("restaurant");
        cite("restaurant", r);
        t.restaurantElectric = restaurant(at(r, "allElectric", name));
        t.restaurantMixed = restaurant(at(r, "notAllElectric", name));
        readWelders(section("welders"));
        cite("showWindow", section("showWindow"));
        t.showWindow = number(section("showWindow"), "VAperFoot", name);
        cite("sign", section("sign"));
        t.signLeast = number(section("sign"), "least", name);
        const json& outlets = section("outletLoads");
        cite("trackLighting", outlets, "trackTable");
        cite("heavyLampholder", outlets, "lampholderTable");
        cite("multioutlet", outlets, "multioutletTable");
        cite("moreReceptacles", outlets, "moreReceptaclesTable");
        t.trackVA = number(outlets, "trackVA", name);
        t.trackPer = number(outlets, "trackPerFeet", name);
        t.heavyLampholder = number(outlets, "lampholder", name);
        t.multioutletVA = number(outlets, "multioutletVA", name);
        t.multioutletPer = number(outlets, "multioutletPerFeet", name);
        t.multioutletTogether = number(outlets, "multioutletTogetherPerFeet", name);
        t.moreReceptacles = number(outlets, "moreReceptacles", name);
        for (double v : {t.trackVA, t.trackPer, t.heavyLampholder, t.multioutletVA, t.multioutletPer,
                         t.multioutletTogether, t.moreReceptacles})
            if (!(v > 0 && v <= 2000)) refuse(name + ", outlets", fmt::format("{} cannot be right here", v));
        cite("receptacleOutlet", section("receptacleOutlet"));
        t.receptacleOutlet = number(section("receptacleOutlet"), "each", name);
        cite("existing", section("existing"));
        t.existingFactor = share(section("existing"), "factor", 1, 3);
    }
    /// What only a practice by terminal temperatures and raceways has.
    void readRaceways() {
        const json& w = section("dwellingService");
        cite("dwellingService", w);
        t.dwellingServiceShare = share(w, "share", 0.5, 1);
        t.dwellingServiceFrom = number(w, "fromAmps", name);
        t.dwellingServiceTo = number(w, "toAmps", name);
        cite("roof", section("roof"));
        cite("nmCable", section("nmCable"));
        cite("multiwire", section("multiwire"));
        cite("multiwireNeutral", section("multiwire"), "neutralTable");
        t.roofAdder = number(section("roof"), "adder", name);
        const json& n = section("neutral");
        cite("neutralCounts", n, "counts");
        cite("neutral", n, "sizing");
        t.neutralCooking = share(n, "cooking", 0.1, 1);
        t.neutralAbove = number(n, "above", name);
        t.neutralAboveFactor = share(n, "aboveFactor", 0.1, 1);
        t.freeAir = laid("freeAir");
        t.messenger = laid("messenger");
    }
    void readRest() {
        t.frames = rising(section("frames"), name + ", frames");
        t.switches = rising(section("switches"), name + ", switches");
        t.interrupting = rising(at(section("interrupting"), "kA", name), name + ", interrupting");
        cite("series", section("interrupting"), "series");
        const json& c = section("capacitor");
        cite("capacitor", c);
        t.capacitorConductor = share(c, "conductor", 1, 3);
        t.capacitorOfMotor = share(c, "ofMotorConductor", 0.1, 1);
        t.capacitorSteps = rising(at(c, "steps", name), name + ", capacitor steps");
        const json& g = section("generator");
        cite("generator", g);
        t.generatorConductor = share(g, "conductor", 1, 3);
        t.generatorKva = rising(at(g, "kVA", name), name + ", generator kVA");
    }
    void readPeople() {
        const json& f = section("groundFault");
        cite("groundFault", f);
        cite("groundFaultDwelling", f, "dwellingTable");
        t.groundFaultSingle = number(f, "singlePhaseAmps", name);
        t.groundFaultThree = number(f, "threePhaseAmps", name);
        t.groundFaultToGround = number(f, "toGround", name);
        t.groundFaultRooms = words(at(f, "rooms", name), name);
        t.groundFaultDwellingRooms = words(at(f, "dwellingRooms", name), name);
        const json& x = section("arcFault");
        cite("arcFault", x);
        t.arcFaultAmps = number(x, "amps", name);
        t.arcFaultRooms = words(at(x, "dwellingRooms", name), name);
        const json& s = section("outletSpacing");
        cite("outletSpacing", s);
        t.spacingReach = number(s, "reachFeet", name);
        t.spacingShortest = number(s, "shortestWallFeet", name);
        t.spacingHighest = number(s, "highestFeet", name);
        t.spacingRooms = words(at(s, "rooms", name), name);
    }
};

} // namespace

RuleTables readTables(const json& book, const std::string& name, const std::map<std::string, double>& sizes,
                      const std::vector<double>& ratings) {
    TableReader r{book, name, sizes, {}};
    r.readTransformers();
    r.readRest();
    if (r.has("areaLighting")) r.readArea();
    if (r.has("manyDwellings")) r.readManyDwellings();
    if (text(at(book, "procedure", name), name) == "terminal-temperature") {
        r.readMotors();
        r.readGrounding();
        r.readConduit();
        r.readDwellings();
        r.readRaceways();
        r.readPeople();
    } else { // a motor's device is chosen by its current, and its curve lets it start
        for (const auto& [kind, word] : EnumText<DeviceKind>::words) r.t.motorDevices[kind] = {1, 1, 1e9, 1};
    }
    r.t.fuseRatings = ratings;
    for (const json& a : at(r.section("fuses"), "more", name)) r.t.fuseRatings.push_back(number(a, name));
    std::sort(r.t.fuseRatings.begin(), r.t.fuseRatings.end());
    return std::move(r.t);
}

} // namespace lintel
