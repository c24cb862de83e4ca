#include "core/rules/RuleBook.h"

#include "core/base/Json.h"
#include "core/base/Parse.h"

#include "core/project/ProjectFile.h"
#include "core/rules/ReadJson.h"

#include <fmt/format.h>

namespace lintel {

RuleBook::RuleBook() = default;
RuleBook::RuleBook(const RuleBook&) = default;
RuleBook::RuleBook(RuleBook&&) noexcept = default;
RuleBook& RuleBook::operator=(const RuleBook&) = default;
RuleBook& RuleBook::operator=(RuleBook&&) noexcept = default;
RuleBook::~RuleBook() = default;

using namespace bookjson;

namespace {
constexpr double perMetre = 1 / (1000 * metresPerFoot); ///< Ω/kft to Ω/m
} // namespace

/// Fills a RuleBook row by row and refuses what cannot be right.
struct RuleBookReader {
    RuleBook b;
    std::string name;

    void cite(const char* key, const json& j, const char* field, const std::string& where) {
        b.citations[key] = text(j, field, where);
    }

    /// Replaces one number of the book by the project's own. What cites the section then says so.
    void override(json& j, const std::string& place, double value) {
        const auto missing = [&] {
            throw Refusal{{"Basis, own values", "the rule book has no number at \"" + place + "\"",
                           "Write the place as section/name, for instance continuous/factor."}};
        };
        json* at = &j;
        json* section = nullptr;
        for (std::size_t from = 0; from <= place.size();) {
            const std::size_t to = std::min(place.find('/', from), place.size());
            const std::string key = place.substr(from, to - from);
            if (at->is_object() && at->contains(key))
                at = &(*at)[key];
            else if (at->is_array() && !key.empty() && key.find_first_not_of("0123456789") == std::string::npos &&
                     key.size() < 6 && std::stoul(key) < at->size())
                at = &(*at)[std::stoul(key)];
            else
                missing();
            if (at->is_object()) section = at;
            from = to + 1;
        }
        if (!at->is_number()) missing();
        b.changed.push_back(fmt::format("{}: {} instead of {}", place, value, at->get<double>()));
        *at = value;
        if (section)
            for (auto& [key, text] : section->items())
                if (text.is_string() && (key == "table" || key.ends_with("Table")))
                    text = text.get<std::string>() + " (own value)";
    }
    void read(const json& j) {
        b.id = text(at(j, "id", name), name);
        b.title = text(at(j, "title", name), name);
        b.region = text(at(j, "region", name), name);
        const std::string procedure = text(at(j, "procedure", name), name);
        if (procedure == "reference-method")
            b.practice = RuleBook::Practice::ReferenceMethod;
        else if (procedure != "terminal-temperature")
            refuse(name, "there is no sizing procedure " + j["procedure"].dump());
        b.trade = Trade::read(j, name);
        readRatings(at(j, "ratings", name));
        if (b.metric()) {
            readMetricConductors(at(j, "conductors", name));
        } else {
            readConductors(at(j, "conductors", name));
            readCorrections(j);
        }
        readFigures(j);
        readDemand(at(j, "demand", name));
        std::map<std::string, double> sizes;
        for (const ConductorSize& s : b.series) sizes[s.name] = s.kcmil;
        b.tables = readTables(j, name, sizes, b.ratingSeries);
        if (b.metric()) readMetric(j);
        for (std::size_t i = 0; i < 2; ++i)
            for (const ConductorSize& s : b.series) {
                const auto& table = (i ? b.tables.messenger : b.tables.freeAir).ampacity;
                const auto it = table.find(s.name);
                b.laidAmpacity[i].push_back(it == table.end() ? std::array<std::array<double, 3>, 2>{} : it->second);
            }
        for (const auto& [key, table] : b.tables.cited) b.citations.emplace(key, table);
        if (j.contains("unverified"))
            for (const json& u : j["unverified"]) b.doubtful.push_back(text(u, name + ", unverified"));
    }
    void readRatings(const json& j) {
        const std::string where = name + ", " + text(at(j, "table", name), name);
        cite("rating", j, "table", where);
        for (const json& a : at(j, "amps", where)) {
            const double amps = number(a, where);
            if (amps <= (b.ratingSeries.empty() ? 0 : b.ratingSeries.back()))
                refuse(where, fmt::format("{} A does not follow in rising order", amps));
            b.ratingSeries.push_back(amps);
        }
        if (b.ratingSeries.empty()) refuse(where, "there are no ratings");
    }
    void readConductors(const json& j) {
        const json& tables = at(j, "tables", name);
        cite("ampacity", tables, "ampacity", name);
        cite("direct", tables, "direct", name);
        cite("impedance", tables, "alternating", name);
        for (const json& r : rows(j, 18, name + ", conductors")) {
            ConductorSize s;
            s.name = text(r[0], name);
            const std::string where = fmt::format("{}, conductor {}", name, s.name);
            s.kcmil = number(r[1], where);
            s.mm2 = s.kcmil * 0.5067074791;
            for (std::size_t m = 0; m < 2; ++m) {
                for (std::size_t t = 0; t < 3; ++t) s.ampacity[m][t] = orZero(r[2 + 3 * m + t], where);
                s.direct[m] = number(r[8 + m], where) * perMetre;
                for (std::size_t w = 0; w < 3; ++w)
                    s.resistance[m][w == 0   ? std::size_t(Raceway::Pvc)
                                    : w == 1 ? std::size_t(Raceway::Aluminium)
                                             : std::size_t(Raceway::Steel)] =
                        orZero(r[12 + 3 * m + w], where) * perMetre;
            }
            s.reactance[std::size_t(Raceway::Pvc)] = s.reactance[std::size_t(Raceway::Aluminium)] =
                orZero(r[10], where) * perMetre;
            s.reactance[std::size_t(Raceway::Steel)] = orZero(r[11], where) * perMetre;
            check(s, where);
            for (std::size_t m = 0; m < 2; ++m) {
                b.choosableSize[m].push_back(s.ampacity[m][0] > 0 && s.resistance[m][0] > 0);
                b.smallLimit[m].push_back(0);
            }
            b.series.push_back(s);
        }
        if (b.series.empty()) refuse(name, "there are no conductors");
    }
    void check(const ConductorSize& s, const std::string& where) {
        const ConductorSize* last = b.series.empty() ? nullptr : &b.series.back();
        if (last && s.kcmil <= last->kcmil) refuse(where, "sizes must rise in area");
        for (std::size_t m = 0; m < 2; ++m) {
            const auto& a = s.ampacity[m];
            if (a[0] > 0 && !(a[0] < a[1] && a[1] < a[2])) refuse(where, "a hotter insulation must carry more");
            if (last && last->ampacity[m][0] > 0)
                for (std::size_t t = 0; t < 3; ++t)
                    if (a[t] <= last->ampacity[m][t])
                        refuse(where, "a larger conductor must carry more than a smaller one");
            // Ω/m at 75 °C times area is the material's resistivity: 0.0213 Ω·mm²/m for copper, 0.0351 for aluminium.
            const double rho = s.direct[m] * s.mm2, expected = m == 0 ? 0.0213 : 0.0351;
            if (std::abs(rho / expected - 1) > 0.04)
                refuse(where,
                       fmt::format("resistance times area is {:.4f} Ω·mm²/m, expected about {:.4f}", rho, expected));
            for (double r : s.resistance[m])
                if (r > 0 && (r < s.direct[m] * 0.93 || r > s.direct[m] * 1.6))
                    refuse(where, "alternating-current resistance is far from the direct-current one");
        }
    }
    /// Sizes with their resistances at 20 °C; what they carry is the cables' matter.
    void readMetricConductors(const json& j) {
        cite("direct", j, "table", name);
        for (const json& r : rows(j, 3, name + ", conductors")) {
            ConductorSize s;
            s.name = text(r[0], name);
            const std::string where = fmt::format("{}, conductor {}", name, s.name);
            s.mm2 = plainNumber(s.name).value_or(0);
            s.kcmil = s.mm2 / 0.5067074791;
            if (s.mm2 <= (b.series.empty() ? 0 : b.series.back().mm2)) refuse(where, "sizes must rise in area");
            for (std::size_t m = 0; m < 2; ++m) {
                s.at20[m] = orZero(r[1 + m], where) / 1000;
                // Ω/m at 20 °C times area: 0.0172 to 0.0184 Ω·mm²/m for copper, 0.028 to 0.0306 for aluminium, with the
                // margin of the standard.
                const double rho = s.at20[m] * s.mm2, expected = m == 0 ? 0.0181 : 0.0303;
                if (s.at20[m] > 0 && std::abs(rho / expected - 1) > 0.08)
                    refuse(where, fmt::format("resistance times area is {:.4f} Ω·mm²/m, expected about {:.4f}", rho,
                                              expected));
                b.choosableSize[m].push_back(s.at20[m] > 0);
                b.smallLimit[m].push_back(0);
            }
            b.series.push_back(s);
        }
        if (b.series.empty()) refuse(name, "there are no conductors");
        b.bundlingRows.push_back({1e9, 1});
        b.parallelFrom = known(text(at(j, "parallel", name), name), name);
    }
    void readMetric(const json& j) {
        std::vector<std::string> names;
        std::vector<double> mm2;
        std::array<std::vector<double>, 2> at20;
        for (const ConductorSize& s : b.series) {
            names.push_back(s.name), mm2.push_back(s.mm2);
            for (std::size_t m = 0; m < 2; ++m) at20[m].push_back(s.at20[m]);
        }
        b.cables = readCables(j, name, names, mm2, at20);
        for (const auto& [key, table] : b.cables.cited) b.citations[key] = table;
        for (std::size_t k = 0; k < loadKinds; ++k) {
            const auto it = b.cables.least.find(LoadKind(k));
            const double area = it == b.cables.least.end() ? b.cables.leastOther : it->second;
            while (b.leastByKind[k] + 1 < SizeIndex(b.series.size()) &&
                   b.series[std::size_t(b.leastByKind[k])].mm2 < area - 1e-9)
                ++b.leastByKind[k];
        }
    }
    void readCorrections(const json& j) {
        const json& a = at(j, "ambient", name);
        cite("ambient", a, "table", name);
        for (const json& r : rows(a, 4, name + ", ambient")) {
            std::array<double, 4> row{};
            for (std::size_t i = 0; i < 4; ++i) row[i] = orZero(r[i], name + ", ambient");
            if (!b.ambientRows.empty())
                for (std::size_t i = 0; i < 4; ++i)
                    if (i == 0 ? row[i] <= b.ambientRows.back()[i]
                               : row[i] > b.ambientRows.back()[i] || (row[i] == b.ambientRows.back()[i] && row[i] > 0))
                        refuse(name + ", " + b.cite("ambient"),
                               fmt::format("the row up to {} °C does not follow: hotter air must carry less", row[0]));
            b.ambientRows.push_back(row);
        }
        const json& g = at(j, "bundling", name);
        cite("bundling", g, "table", name);
        for (const json& r : rows(g, 2, name + ", bundling")) {
            const std::pair row{number(r[0], name), number(r[1], name)};
            if (!b.bundlingRows.empty() &&
                (row.first <= b.bundlingRows.back().first || row.second >= b.bundlingRows.back().second))
                refuse(name + ", " + b.cite("bundling"), "more conductors must carry less each");
            b.bundlingRows.push_back(row);
        }
        const json& s = at(j, "smallConductors", name);
        cite("smallConductor", s, "table", name);
        for (auto m : {Material::Copper, Material::Aluminium})
            for (const auto& [size, amps] : at(s, wordOf(m), name).items())
                b.smallLimit[std::size_t(m)][std::size_t(known(size, name))] = number(amps, name);
        const json& p = at(j, "protective", name);
        cite("protective", p, "table", name);
        cite("protectiveRaised", p, "raised", name);
        cite("protectiveMost", p, "most", name);
        for (const json& r : rows(p, 3, name + ", protective")) {
            RuleBook::Protective row{number(r[0], name),
                                     {known(text(r[1], name), name), known(text(r[2], name), name)}};
            if (!b.protectiveRows.empty())
                for (std::size_t m = 0; m < 2; ++m)
                    if (row.upTo <= b.protectiveRows.back().upTo || row.size[m] < b.protectiveRows.back().size[m])
                        refuse(name + ", " + b.cite("protective"),
                               fmt::format("the row for {} A does not follow", row.upTo));
            b.protectiveRows.push_back(row);
        }
        b.parallelFrom = known(text(at(at(j, "parallel", name), "smallest", name), name), name);
        cite("parallel", j["parallel"], "table", name);
    }
    SizeIndex known(const std::string& size, const std::string& where) {
        const SizeIndex i = b.find(size);
        if (i < 0) refuse(where, "there is no conductor size \"" + size + "\"");
        return i;
    }
    void readFigures(const json& j) {
        const auto section = [&](const char* key) -> const json& { return at(j, key, name); };
        const auto figure = [&](const json& s, const char* key) { return number(at(s, key, name), name); };
        if (!b.metric()) {
            cite("nextRating", section("nextRatingUp"), "table", name);
            cite("protected", section("nextRatingUp"), "within", name);
            b.nextRatingUpTo = figure(section("nextRatingUp"), "upToAmps");
            cite("terminal", section("terminals"), "table", name);
            b.terminalBelow = int(figure(section("terminals"), "below"));
            b.terminalAbove = int(figure(section("terminals"), "above"));
            b.terminalBoundary = figure(section("terminals"), "boundary");
        } else {
            cite("protected", section("protection"), "table", name);
            cite("protectiveRaised", section("protection"), "table", name);
        }
        const json& c = section("continuous");
        cite("continuousDevice", c, "table", name);
        cite("continuousFeederDevice", c, "feederTable", name);
        cite("continuousConductor", c, "conductorTable", name);
        cite("continuousFeederConductor", c, "feederConductorTable", name);
        b.continuousFactor = figure(c, "factor");
        const json& m = section("motor");
        cite("motorConductor", m, "conductorTable", name);
        cite("motorFeeder", m, "feederTable", name);
        cite("motorDevice", m, "deviceTable", name);
        b.motorConductor = figure(m, "conductor");
        b.motorStart = figure(m, "startTimes");
        cite("transformer", section("transformer"), "table", name);
        cite("dropBranch", section("drop"), "branch", name);
        cite("dropFeeder", section("drop"), "feeder", name);
        cite("panelboardMain", section("panelboardMain"), "table", name);
        cite("busway", section("busway"), "table", name);
        cite("faultDevice", section("fault"), "device", name);
        cite("faultBoard", section("fault"), "board", name);
        for (double f : {b.continuousFactor, b.motorConductor, b.motorStart})
            if (f < 1 || f > 10) refuse(name, fmt::format("a factor of {} cannot be right here", f));
    }
    void readDemand(const json& list) {
        using Method = DemandRule::Method;
        std::array<std::array<bool, 4>, loadKinds> exact{};
        for (std::size_t i = 0; i < list.size(); ++i) {
            const json& j = list[i];
            const std::string where = fmt::format("{}, demand[{}]", name, i);
            const auto kind = fromWord<LoadKind>(text(at(j, "kind", where), where));
            if (!kind) refuse(where, "there is no load kind " + j["kind"].dump());
            DemandRule r;
            r.table = text(at(j, "table", where), where);
            const std::string method = text(at(j, "method", where), where);
            if (method == "stepped") {
                r.method = Method::Stepped;
                for (const json& s : at(j, "steps", where)) {
                    if (!s.is_array() || s.size() != 2) refuse(where, "a step is [up to VA, factor]");
                    r.steps.push_back({s[0].is_null() ? 1e300 : number(s[0], where), number(s[1], where)});
                    if (r.steps.size() > 1 && r.steps.back().first <= r.steps[r.steps.size() - 2].first)
                        refuse(where, "steps must rise");
                }
                if (r.steps.empty() || r.steps.back().first < 1e300)
                    refuse(where, "the last step has no end: write null");
            } else if (method == "count") {
                r.method = Method::Count;
                const double largest = number(at(j, "largest", where), where);
                if (largest != 0 && largest != 1 && largest != 2)
                    refuse(where, "not less than the largest one or two, or 0 for neither");
                r.largest = int(largest);
                r.minimumEach = j.contains("minimumEach") ? number(j["minimumEach"], where) : 0;
                for (const json& f : at(j, "factors", where)) {
                    r.factors.push_back(number(f, where));
                    if (r.factors.size() > 1 && r.factors.back() > r.factors[r.factors.size() - 2])
                        refuse(where, "factors must not rise with the count");
                }
                if (r.factors.empty()) refuse(where, "there are no factors");
            } else if (method == "table") {
                r.method = Method::Table;
                for (const json& d : at(j, "demand", where)) {
                    r.demandByCount.push_back(number(d, where));
                    if (r.demandByCount.size() > 1 &&
                        r.demandByCount.back() <= r.demandByCount[r.demandByCount.size() - 2])
                        refuse(where, "demand must rise with the count");
                }
                for (const json& x : at(j, "beyond", where))
                    r.beyond.push_back({number(x[0], where), number(x[1], where), number(x[2], where)});
                r.each = number(at(j, "each", where), where);
                r.overEach = number(at(j, "overEach", where), where);
                if (r.demandByCount.empty() || r.beyond.empty()) refuse(where, "the table is empty");
                if (j.contains("small"))
                    for (const json& g : j["small"]) {
                        DemandRule::Small small{text(at(g, "table", where), where),
                                                number(at(g, "from", where), where),
                                                number(at(g, "upTo", where), where),
                                                g.value("upToWithin", false),
                                                {}};
                        if (small.upTo <= small.from || (!r.small.empty() && small.from < r.small.back().upTo) ||
                            r.small.size() == 2)
                            refuse(where, "the groups of small ratings do not follow one another");
                        for (const json& f : at(g, "factors", where)) {
                            small.factors.push_back(
                                {f[0].is_null() ? 1e300 : number(f[0], where), number(f[1], where)});
                            if (small.factors.size() > 1 &&
                                (small.factors.back().value > small.factors[small.factors.size() - 2].value ||
                                 small.factors.back().upTo <= small.factors[small.factors.size() - 2].upTo))
                                refuse(where, "factors must not rise with the count");
                        }
                        if (small.factors.empty() || small.factors.back().upTo < 1e300)
                            refuse(where, "the last group of factors has no end: write null");
                        r.small.push_back(small);
                    }
            } else if (method == "largest") {
                r.method = Method::Largest;
            } else if (method == "noncoincident") {
                r.method = Method::NonCoincident;
                const auto with = fromWord<LoadKind>(text(at(j, "with", where), where));
                if (!with) refuse(where, "there is no load kind " + j["with"].dump());
                r.with = *with;
            } else if (method == "largestAndRest") {
                r.method = Method::LargestAndRest;
                r.byCircuit = j.value("byCircuit", true);
                for (const json& f : at(j, "factors", where)) {
                    r.factors.push_back(number(f, where));
                    if (r.factors.size() > 1 && r.factors.back() > r.factors[r.factors.size() - 2])
                        refuse(where, "factors must not rise with the count");
                }
                if (r.factors.size() != 3)
                    refuse(where, "give three factors: of the largest, of the second, of the rest");
            } else if (method == "points") {
                r.method = Method::Points;
                r.pointsFirst = number(j, "first", where), r.vaFirst = number(j, "firstVA", where);
                r.pointsMore = number(j, "more", where), r.vaMore = number(j, "moreVA", where);
                if (r.pointsFirst < 1 || r.pointsMore < 1) refuse(where, "a group has at least one point");
            } else if (method == "factor") {
                r.method = Method::Factor;
                r.factor = number(j, "factor", where);
            } else {
                refuse(where, "there is no demand method \"" + method + "\"");
            }
            if (method == "stepped" && j.contains("minimumEach")) r.minimumEach = number(j["minimumEach"], where);
            if (j.contains("extra")) r.extra = number(j["extra"], where);
            const bool forOne = j.contains("occupancy");
            const auto occupancy = forOne ? fromWord<Occupancy>(text(j["occupancy"], where)) : Occupancy::Other;
            if (!occupancy) refuse(where, "there is no occupancy " + j["occupancy"].dump());
            for (std::size_t o = 0; o < 4; ++o)
                if (forOne ? o == std::size_t(*occupancy) : !exact[std::size_t(*kind)][o]) {
                    b.rules[std::size_t(*kind)][o] = r;
                    exact[std::size_t(*kind)][o] = forOne;
                }
        }
    }
};

Outcome<RuleBook> RuleBook::parse(const std::string& text, const std::string& name) { return parse(text, name, {}); }

Outcome<RuleBook> RuleBook::parse(const std::string& text, const std::string& name,
                                  const std::map<std::string, double>& overrides) {
    auto parsed = parseJson(text, name);
    if (!parsed) return parsed.error();
    json& j = *parsed;
    try {
        RuleBookReader r{{}, name};
        for (const auto& [place, value] : overrides) r.override(j, place, value);
        r.read(j);
        return std::move(r.b);
    } catch (const Refusal& refusal) {
        return refusal.error;
    } catch (const json::exception& e) { // a list where a text is wanted, and the like
        return Error{name, std::string("a value is not of the kind that is wanted there: ") + e.what(),
                     "Correct that row of the rule book."};
    } catch (const std::exception& e) {
        return Error{name, std::string("it cannot be read: ") + e.what(),
                     "Correct the rule book, or choose another one."};
    }
}

Outcome<RuleBook> RuleBook::load(const std::filesystem::path& file, const std::map<std::string, double>& overrides) {
    auto text = readText(file);
    if (!text) return text.error();
    return parse(*text, file.filename().string(), overrides);
}

namespace {
double seriesAtOrAbove(const std::vector<double>& s, double v) {
    const auto it = std::lower_bound(s.begin(), s.end(), v * (1 - 1e-9) - 1e-9);
    return it == s.end() ? 0 : *it;
}
} // namespace

std::vector<double> RuleBook::ownRatings(DeviceKind kind) const {
    std::vector<double> list;
    const auto band = cables.trips.find(kind);
    if (band == cables.trips.end()) return list;
    for (const auto& [rating, amps] : band->second.fuse) list.push_back(rating);
    return list;
}
double RuleBook::ratingAtOrAbove(double amps, DeviceKind kind) const {
    if (hasOwnRatings(kind)) return seriesAtOrAbove(ownRatings(kind), amps);
    return isFuse(kind) ? seriesAtOrAbove(tables.fuseRatings, amps) : ratingAtOrAbove(amps);
}
double RuleBook::ratingAtOrBelow(double amps, DeviceKind kind) const {
    const std::vector<double> own = hasOwnRatings(kind) ? ownRatings(kind) : std::vector<double>();
    const auto& s = hasOwnRatings(kind) ? own : isFuse(kind) ? tables.fuseRatings : ratingSeries;
    const auto it = std::upper_bound(s.begin(), s.end(), amps + 1e-6);
    return it == s.begin() ? 0 : *(it - 1);
}
double RuleBook::frameFor(double amps, DeviceKind kind) const {
    return seriesAtOrAbove(isFuse(kind) ? tables.switches : tables.frames, amps);
}
double RuleBook::interruptingAtOrAbove(double kA) const { return seriesAtOrAbove(tables.interrupting, kA); }

int DemandRule::smallGroup(double va) const {
    for (std::size_t i = 0; i < small.size(); ++i)
        if (va >= small[i].from && (va < small[i].upTo || (small[i].upToWithin && va <= small[i].upTo + 1e-6)))
            return int(i);
    return -1;
}

Cited RuleBook::motorAmps(double hp, double volts, bool threePhase) const {
    const MotorTable& t = threePhase ? tables.motorThree : tables.motorSingle;
    const auto rated = tables.motorVolts.find(int(std::lround(volts)));
    const double at = rated == tables.motorVolts.end() ? volts : rated->second;
    for (std::size_t i = 0; i < t.volts.size(); ++i)
        if (t.volts[i] == at)
            for (const MotorTable::Row& r : t.rows)
                if (r.hp >= hp * (1 - 1e-3) && r.amps[i] > 0) return {r.amps[i], &t.table};
    return {0, &t.table};
}

SizeIndex RuleBook::bondingFor(double kcmil, Material lines, Material own) const {
    if (tables.bonding.size() < 2) return -1;
    for (const BondingRow& r : tables.bonding)
        if (kcmil <= (lines == Material::Copper ? r.upToCopper : r.upToAluminium) + 1e-6)
            return find(r.size[std::size_t(own)]);
    return -1;
}

SizeIndex RuleBook::jumperFor(double kcmil, Material lines, Material own) const {
    if (tables.bonding.size() < 2) return -1;
    const BondingRow& last = tables.bonding[tables.bonding.size() - 2];
    if (kcmil <= (lines == Material::Copper ? last.upToCopper : last.upToAluminium) + 1e-6)
        return bondingFor(kcmil, lines, own);
    // Beyond the table: a share of the lines' area; of another metal, of the area that its own metal would need.
    const double other = lines == own ? 1 : own == Material::Copper ? 1 / 1.6 : 1.6;
    return sizeOfArea(kcmil * tables.bondingBeyond * other);
}

SizeIndex RuleBook::sizeOfArea(double kcmil) const {
    for (std::size_t i = 0; i < series.size(); ++i)
        if (series[i].kcmil >= kcmil * (1 - 1e-9)) return SizeIndex(i);
    return -1;
}

const ConduitType* RuleBook::conduit(const std::string& type) const {
    for (const ConduitType& c : tables.conduits)
        if (c.name == type) return &c;
    return nullptr;
}
const Insulation* RuleBook::insulation(const std::string& name) const {
    for (const Insulation& i : tables.insulations)
        if (i.name == name) return &i;
    return nullptr;
}
const Insulation& RuleBook::insulationFor(int celsius) const {
    for (const Insulation& i : tables.insulations)
        if (i.celsius == celsius) return i;
    static const Insulation none{"", 0, {}};
    return tables.insulations.empty() ? none : tables.insulations.front();
}
double RuleBook::areaLighting(const std::string& occupancy) const {
    for (const auto& [name, va] : tables.areaLighting)
        if (name == occupancy) return va;
    return 0;
}

double RuleBook::ratingAtOrAbove(double amps) const {
    const auto it = std::lower_bound(ratingSeries.begin(), ratingSeries.end(), amps - 1e-6);
    return it == ratingSeries.end() ? 0 : *it;
}
double RuleBook::ratingAbove(double amps) const {
    const auto it = std::upper_bound(ratingSeries.begin(), ratingSeries.end(), amps + 1e-6);
    return it == ratingSeries.end() ? 0 : *it;
}

std::string RuleBook::ampacityTable(Wiring laid) const {
    if (laid != Wiring::FreeAir && laid != Wiring::Messenger) return cite("ampacity");
    const RuleTables::Laid& t = laid == Wiring::Messenger ? tables.messenger : tables.freeAir;
    return t.table + (t.unverified ? " (unverified)" : "");
}

SizeIndex RuleBook::find(const std::string& size) const {
    for (std::size_t i = 0; i < series.size(); ++i)
        if (series[i].name == size) return SizeIndex(i);
    return -1;
}

double RuleBook::ambientFactor(double ambient, int insulation) const {
    for (const auto& row : ambientRows)
        if (ambient <= row[0] + 1e-9) return row[insulation >= 90 ? 3 : insulation >= 75 ? 2 : 1];
    return 0;
}

double RuleBook::bundlingFactor(int conductors) const {
    for (const auto& [upTo, factor] : bundlingRows)
        if (conductors <= upTo) return factor;
    return bundlingRows.back().second;
}

SizeIndex RuleBook::protectiveFor(double device, Material m) const {
    for (const Protective& r : protectiveRows)
        if (device <= r.upTo + 1e-6) return r.size[std::size_t(m)];
    return -1;
}

const std::string& RuleBook::cite(const std::string& key) const {
    static const std::string none;
    const auto it = citations.find(key);
    return it == citations.end() ? none : it->second;
}

std::string sizeWords(const RuleBook& book, SizeIndex i) {
    if (i < 0) return "–";
    const ConductorSize& s = book.sizes()[std::size_t(i)];
    if (book.metric()) return s.name + " mm²";
    if (s.name.find('/') != std::string::npos) return s.name;
    return s.kcmil >= 250 ? s.name + " kcmil" : "#" + s.name;
}

} // namespace lintel
