// Maximum demand of an installation from its load groups, on one phase or three, the single-phase items levelled over
// the phases.

#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/base/Utf8.h"
#include "core/bench/ListLine.h"
#include "core/figures/Words.h"
#include "core/solve/Demand.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook&) {
    using T = BenchField::Type;
    return {{.key = "supply",
             .label = "Supply",
             .type = T::Choice,
             .value = "single-phase",
             .choices = {"single-phase", "three-phase"}},
            {.key = "occupancy",
             .label = "Occupancy",
             .type = T::Choice,
             .value = "dwelling",
             .choices = benchWords<Occupancy>()},
            {.key = "dwellings",
             .label = "Dwellings",
             .value = "1",
             .least = 1,
             .most = 2000,
             .help = "Living units that the supply serves, each with the loads below.",
             .only = {"single-phase", "three-phase"}},
            {.key = "items",
             .label = "Loads",
             .type = T::Lines,
             .value = "lighting 24 points 60 W\nsockets 32 points 100 W\ncooking 8 kW\nheating 4.8 kW\nmotor 1.5 kW",
             .help = "One line each: lighting 24 points 60 W, sockets 32 points 100 W, cooking 8 kW with socket, water "
                     "3 kW, instantaneous 9.5 kW, outdoor 1.2 kW, outlets15 2 points 3 kW, pool 2 kW, motor 2.2 kW on "
                     "L2, cooling 9 kW three-phase"}};
}

struct Item {
    std::string text;
    LoadKind kind = LoadKind::Equipment;
    double each = 0, count = 1; ///< VA
    bool socket = false;        ///< of a cooker: its control unit has one
    int line = -1;              ///< pinned to; −1: free; 3: on all three
};

const std::pair<const char*, LoadKind> words[] = {{"lighting", LoadKind::Lighting},
                                                  {"sockets", LoadKind::Receptacle},
                                                  {"cooking", LoadKind::Range},
                                                  {"kitchen", LoadKind::Kitchen},
                                                  {"heating", LoadKind::Heating},
                                                  {"cooling", LoadKind::Cooling},
                                                  {"motor", LoadKind::Motor},
                                                  {"lift", LoadKind::Vertical},
                                                  {"vehicle", LoadKind::Vehicle},
                                                  {"equipment", LoadKind::Equipment},
                                                  {"refrigeration", LoadKind::Refrigeration},
                                                  {"water", LoadKind::WaterHeating},
                                                  {"instantaneous", LoadKind::InstantWater},
                                                  {"outdoor", LoadKind::OutdoorLighting},
                                                  {"outlets15", LoadKind::LargeOutlet},
                                                  {"pool", LoadKind::Pool}};

/// A socket outlet in the control unit of a cooker counts 5 A beside it.
constexpr double cookerSocket = 5 * 230;

std::vector<Item> itemsOf(const BenchInputs& in, bool three) {
    std::vector<Item> out;
    for (const std::string& l : in.lines("items")) {
        const auto read = readLoadLine(l);
        const char* help = "Write: lighting 24 points 60 W, cooking 8 kW, motor 2.2 kW on L2, cooling 9 kW three-phase";
        if (!read) in.refuse("items", "\"" + std::string(cutUtf8(l, 80)) + "\" is not understood", help);
        // "lighting 24 points", "sockets 6 x": the group, and how many there are.
        const std::size_t blank = read->name.find(' ');
        const std::string group = read->name.substr(0, blank);
        double count = read->count;
        if (blank != std::string::npos) {
            std::string number = trimmed(read->name.substr(blank));
            for (const char* sign : {"points", "point", "×", "x"})
                if (const std::size_t at = number.size() - std::min(number.size(), std::string(sign).size());
                    number.compare(at, std::string::npos, sign) == 0) {
                    number = trimmed(number.substr(0, at));
                    break;
                }
            const auto n = typedNumber(number);
            if (!n || *n < 1 || *n > 99999 || *n != std::floor(*n) || number == trimmed(read->name.substr(blank)))
                in.refuse("items", "\"" + std::string(cutUtf8(l, 80)) + "\" is not understood", help);
            count *= *n;
        }
        std::string after = read->after;
        const std::string withSocket = "with socket";
        const bool socket = after.compare(0, withSocket.size(), withSocket) == 0 && group == "cooking";
        if (socket) after = trimmed(after.substr(withSocket.size()));
        const bool allThree = after == "three-phase";
        const bool onLine = after.size() == 5 && after.compare(0, 4, "on L") == 0 && after[4] >= '1' && after[4] <= '3';
        if (!allThree && !onLine && !after.empty())
            in.refuse("items", "\"" + std::string(cutUtf8(l, 80)) + "\" is not understood", help);
        Item i;
        i.text = l;
        bool known = false;
        std::string all;
        for (const auto& [word, kind] : words) {
            all += (all.empty() ? "" : ", ") + std::string(word);
            if (group == word) i.kind = kind, known = true;
        }
        if (!known) in.refuse("items", "there is no load group \"" + group + "\"", "Choose one of: " + all);
        i.count = count;
        const BenchLoad* load = &read->load;
        if (load->amount <= 0 || load->unit == LoadUnit::hp || load->unit == LoadUnit::kvar)
            in.refuse("items", "\"" + l + "\" is not a load above zero in VA, kVA, W, kW or A");
        i.line = allThree ? 3 : onLine ? after[4] - '1' : -1;
        i.socket = socket;
        if (!three && i.line > 0) in.refuse("items", "\"" + l + "\": the supply has one phase");
        i.each = load->unit == LoadUnit::A
                     ? load->amount * 230 * (i.line == 3 ? 3 : 1)
                     : load->amount * (load->unit == LoadUnit::kW || load->unit == LoadUnit::kVA ? 1000 : 1);
        if (!three) i.line = 0;
        out.push_back(i);
    }
    if (out.empty()) in.refuse("items", "there is no load in the list");
    if (out.size() > 400) in.refuse("items", "more than 400 lines", "Put equal loads together: 20 × 3 kW.");
    return out;
}

/// VA of demand of what stands on one phase: a three-phase item counts a third of itself there.
double demandOn(const std::vector<Item>& items, const std::vector<int>& at, int line, const Basis& basis,
                const RuleBook& book, Working* w = nullptr) {
    KindSums kinds{};
    double sockets = 0;
    for (std::size_t i = 0; i < items.size(); ++i) {
        if (at[i] != line && at[i] != 3) continue;
        if (items[i].socket && (at[i] != 3 || line == 0)) sockets += cookerSocket * items[i].count;
        KindSum k;
        const double share = at[i] == 3 ? 1.0 / 3 : 1;
        k.p = k.dp = items[i].each * items[i].count * share;
        const DemandRule& rule = book.demand(items[i].kind, basis.occupancy);
        countPieces(k, rule, items[i].each * share, items[i].count);
        k.largest = rule.byCircuit ? k.p : items[i].each * share;
        k.second = !rule.byCircuit && items[i].count >= 2 ? k.largest : 0;
        kinds[std::size_t(items[i].kind)].add(k);
    }
    NodeResult n;
    findDemand(kinds, basis, book, n, w);
    if (w && sockets > 0)
        w->step("Sockets of cookers", fmt::format("{} × 5 A", figures(sockets / cookerSocket)),
                figures(sockets / 1000) + " kVA", book.demand(LoadKind::Range, basis.occupancy).table);
    return n.demand + sockets;
}

/// Several dwellings on each phase: groups of the book's own table by their number, what has none by its rule times
/// their number.
BenchAnswer many(const BenchInputs& in, const RuleBook& book, const std::vector<Item>& items, const Basis& basis,
                 bool three) {
    BenchAnswer a;
    a.working.title = "Maximum demand of several dwellings";
    if (basis.occupancy != Occupancy::Dwelling)
        in.refuse("occupancy", "several dwellings are not " + std::string(wordOf(basis.occupancy)),
                  "Choose dwelling, or one of them.");
    if (book.tables.manyDwellings.empty())
        in.refuse("dwellings", book.title + " has no table for several dwellings",
                  "Work one out and enter a factor, or choose another rule book.");
    const int all = in.whole("dwellings"), here = three ? (all + 2) / 3 : all;
    if (three)
        a.working.step("Dwellings", fmt::format("{} over three phases, the fullest", all),
                       fmt::format("{} on it", here), "");
    std::map<LoadKind, double> va;
    for (const Item& i : items) {
        va[i.kind] += i.each * i.count;
        if (i.socket)
            in.refuse("items", "\"" + i.text + "\": the socket of a cooker is for one dwelling",
                      "Leave it out, or work one dwelling out alone.");
    }
    double amps = 0;
    a.columns = {"Group", "A on the phase"};
    for (const auto& [kind, one] : va) {
        double d = 0;
        std::string formula, cited;
        const auto own = book.tables.manyDwellings.find(kind);
        const RuleTables::Many* row = nullptr;
        if (own != book.tables.manyDwellings.end())
            for (const RuleTables::Many& m : own->second)
                if (here >= m.from && here <= m.upTo) row = &m;
        if (row) {
            d = row->base + row->each * here;
            formula = row->each > 0 ? fmt::format("{} A + {} × {} A", figures(row->base), here, figures(row->each))
                                    : fmt::format("{} A", figures(row->base));
            cited = book.cite("manyDwellings");
        } else {
            KindSums kinds{};
            KindSum& k = kinds[std::size_t(kind)];
            k.p = k.dp = one * here;
            k.largest = one;
            k.count = here;
            d = demandOf(kind, kinds, basis, book) / 230;
            formula = fmt::format("{} × {} A by its rule for one", here, figures(one / 230));
            cited = book.demand(kind, basis.occupancy).table;
        }
        a.working.step(kindTitle(kind, book), formula, figures(d) + " A", cited);
        a.rows.push_back({kindTitle(kind, book), figures(d)});
        amps += d;
    }
    a.working.step("Maximum demand", three ? "the fullest phase" : "", figures(amps) + " A", "");
    a.working.governs();
    a.figure("dwellings", "Dwellings on the phase", std::to_string(here), here);
    a.figure("demand_A", "Maximum demand", figures(amps) + " A", amps);
    const double device = book.ratingAtOrAbove(amps);
    a.figure("device_A", "Next rating", device > 0 ? rating(device) + " A" : "past the series", device);
    return a;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.working.title = "Maximum demand";
    const bool three = in.text("supply") == "three-phase";
    Basis basis;
    basis.occupancy = in.choice<Occupancy>("occupancy");
    const std::vector<Item> items = itemsOf(in, three);
    if (in.whole("dwellings") > 1) return many(in, book, items, basis, three);
    std::vector<int> at;
    for (const Item& i : items) at.push_back(i.line);
    const auto worst = [&] {
        double most = 0;
        for (int line = 0; line < 3; ++line) most = std::max(most, demandOn(items, at, line, basis, book));
        return most;
    };
    if (three) {
        // Largest first to the phase that it leaves least loaded, then single moves and swaps as long as they help.
        std::vector<std::size_t> freeOnes;
        for (std::size_t i = 0; i < items.size(); ++i)
            if (items[i].line < 0) freeOnes.push_back(i);
        std::stable_sort(freeOnes.begin(), freeOnes.end(), [&](std::size_t x, std::size_t y) {
            return items[x].each * items[x].count > items[y].each * items[y].count;
        });
        for (std::size_t i : freeOnes) {
            int best = 0;
            double least = 1e300;
            for (int line = 0; line < 3; ++line) {
                at[i] = line;
                if (const double d = demandOn(items, at, line, basis, book); d < least - 1e-9) least = d, best = line;
            }
            at[i] = best;
        }
        double now = worst();
        for (int pass = 0; pass < 20; ++pass) {
            bool better = false;
            for (std::size_t x = 0; x < freeOnes.size(); ++x)
                for (int line = 0; line < 3; ++line) {
                    const int old = at[freeOnes[x]];
                    if (line == old) continue;
                    at[freeOnes[x]] = line;
                    if (const double d = worst(); d < now - 1e-6)
                        now = d, better = true;
                    else
                        at[freeOnes[x]] = old;
                }
            for (std::size_t x = 0; x < freeOnes.size() && freeOnes.size() <= 60; ++x)
                for (std::size_t y = x + 1; y < freeOnes.size(); ++y) {
                    if (at[freeOnes[x]] == at[freeOnes[y]]) continue;
                    std::swap(at[freeOnes[x]], at[freeOnes[y]]);
                    if (const double d = worst(); d < now - 1e-6)
                        now = d, better = true;
                    else
                        std::swap(at[freeOnes[x]], at[freeOnes[y]]);
                }
            if (!better) break;
        }
    }
    a.columns = {"Load", "Phase", "Connected A"};
    double connected = 0;
    for (std::size_t i = 0; i < items.size(); ++i) {
        const double va = items[i].each * items[i].count;
        connected += va;
        a.rows.push_back({items[i].text,
                          !three       ? "L"
                          : at[i] == 3 ? "L1–3"
                                       : fmt::format("L{}{}", at[i] + 1, items[i].line >= 0 ? ", pinned" : ""),
                          figures(va / (at[i] == 3 ? 690 : 230))});
    }
    double most = 0, least = 1e300;
    nlohmann::ordered_json phases = nlohmann::ordered_json::array();
    for (int line = 0; line < (three ? 3 : 1); ++line) {
        if (three) a.working.step(fmt::format("Phase L{}", line + 1), "", "", "");
        const double d = demandOn(items, at, line, basis, book, &a.working) / 230;
        phases.push_back(d);
        if (three) a.figure("", fmt::format("L{}", line + 1), figures(d) + " A", nullptr);
        most = std::max(most, d), least = std::min(least, d);
    }
    a.working.step("Maximum demand", three ? "the heaviest phase" : "", figures(most) + " A", "");
    a.working.governs();
    a.figure("connected_A", "Connected",
             figures(connected / (three ? 690 : 230)) + (three ? " A on each phase, were it even" : " A"),
             connected / (three ? 690 : 230));
    a.figure("demand_A", "Maximum demand", figures(most) + " A", most);
    a.figure("phases_A", "", "", phases);
    if (three) a.figure("spread_A", "Heaviest less lightest", figures(most - least) + " A", most - least);
    const double device = book.ratingAtOrAbove(most);
    a.figure("device_A", "Next rating", device > 0 ? rating(device) + " A" : "past the series", device);
    return a;
}

} // namespace

extern const BenchKind maximumDemandBench;
const BenchKind maximumDemandBench{
    "maximum-demand",
    "Maximum demand",
    "Load groups of an installation: what each counts, the phases levelled, any load pinned to one.",
    fields,
    work,
    BenchFor::Cables};

} // namespace lintel
