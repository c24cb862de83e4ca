#include "core/exchange/LoadList.h"

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/project/BoardSize.h"
#include "core/project/LoadWords.h"
#include "core/project/Operations.h"
#include "core/project/TypedLoads.h"

#include <cmath>
#include <fmt/format.h>
#include <set>
#include <unordered_map>

namespace lintel {
namespace {

std::string plain(double v) { return fmt::format("{:.10g}", v); }

/// The load without a tag that a list of this project calls so; null: none.
const Load* loadOf(const Project& p, const std::string& identity) {
    const std::size_t dash = identity.find('-');
    if (dash == std::string::npos) return nullptr;
    const auto id = numberFrom(identity.substr(0, dash));
    if (!id || *id < 1 || *id > limits::idOfMany || *id != std::floor(*id)) return nullptr;
    const Load* load = p.loads.find(LoadId{std::uint32_t(*id)});
    return load && load->tag.empty() && identityOf(p, load->id) == identity ? load : nullptr;
}

/// Words of headings as the trade writes them.
constexpr HeadingWord meanings[] = {{"lintel id", int(ListField::Identity), 20},
                                    {"tag", int(ListField::Tag), 9},
                                    {"mark", int(ListField::Tag), 7},
                                    {"reference", int(ListField::Tag), 6},
                                    {"ref", int(ListField::Tag), 6},
                                    {"asset", int(ListField::Tag), 5},
                                    {"item", int(ListField::Tag), 4},
                                    {"id", int(ListField::Tag), 4},
                                    {"no", int(ListField::Tag), 2},
                                    {"description", int(ListField::Name), 8},
                                    {"name", int(ListField::Name), 7},
                                    {"service", int(ListField::Name), 6},
                                    {"equipment", int(ListField::Name), 5},
                                    {"served", int(ListField::Name), 4},
                                    {"location", int(ListField::Where), 8},
                                    {"room", int(ListField::Where), 8},
                                    {"where", int(ListField::Where), 8},
                                    {"area", int(ListField::Where), 5},
                                    {"space", int(ListField::Where), 4},
                                    {"floor", int(ListField::Where), 3},
                                    {"board", int(ListField::Board), 9},
                                    {"panel", int(ListField::Board), 9},
                                    {"panelboard", int(ListField::Board), 9},
                                    {"switchboard", int(ListField::Board), 9},
                                    {"mcc", int(ListField::Board), 8},
                                    {"db", int(ListField::Board), 8},
                                    {"fed", int(ListField::Board), 7},
                                    {"source", int(ListField::Board), 4},
                                    {"supply", int(ListField::Board), 3},
                                    {"kw", int(ListField::Amount), 8},
                                    {"kva", int(ListField::Amount), 8},
                                    {"va", int(ListField::Amount), 8},
                                    {"hp", int(ListField::Amount), 8},
                                    {"kvar", int(ListField::Amount), 8},
                                    {"watts", int(ListField::Amount), 8},
                                    {"w", int(ListField::Amount), 7},
                                    {"load", int(ListField::Amount), 6},
                                    {"power", int(ListField::Amount), 6},
                                    {"fla", int(ListField::Amount), 6},
                                    {"amps", int(ListField::Amount), 6},
                                    {"rating", int(ListField::Amount), 5},
                                    {"amount", int(ListField::Amount), 6},
                                    {"unit", int(ListField::Unit), 9},
                                    {"units", int(ListField::Unit), 9},
                                    {"volts", int(ListField::Voltage), 9},
                                    {"voltage", int(ListField::Voltage), 9},
                                    {"volt", int(ListField::Voltage), 9},
                                    {"v", int(ListField::Voltage), 6},
                                    {"poles", int(ListField::Poles), 9},
                                    {"pole", int(ListField::Poles), 8},
                                    {"phases", int(ListField::Poles), 9},
                                    {"phase", int(ListField::Poles), 8},
                                    {"ph", int(ListField::Poles), 8},
                                    {"φ", int(ListField::Poles), 8},
                                    {"ø", int(ListField::Poles), 8},
                                    {"pf", int(ListField::PowerFactor), 9},
                                    {"cos", int(ListField::PowerFactor), 9},
                                    {"cosφ", int(ListField::PowerFactor), 9},
                                    {"factor", int(ListField::PowerFactor), 3},
                                    {"quantity", int(ListField::Quantity), 9},
                                    {"qty", int(ListField::Quantity), 9},
                                    {"count", int(ListField::Quantity), 7},
                                    {"pieces", int(ListField::Quantity), 7},
                                    {"kind", int(ListField::Kind), 8},
                                    {"type", int(ListField::Kind), 6},
                                    {"category", int(ListField::Kind), 7},
                                    {"class", int(ListField::Kind), 5},
                                    {"continuous", int(ListField::Continuous), 9},
                                    {"diversity", int(ListField::Diversity), 9},
                                    {"demand", int(ListField::Diversity), 5},
                                    {"df", int(ListField::Diversity), 6},
                                    {"duty", int(ListField::Duty), 8},
                                    {"efficiency", int(ListField::Efficiency), 9},
                                    {"eff", int(ListField::Efficiency), 8},
                                    {"η", int(ListField::Efficiency), 9},
                                    {"mca", int(ListField::Ampacity), 10},
                                    {"minimum circuit ampacity", int(ListField::Ampacity), 10},
                                    {"min circuit ampacity", int(ListField::Ampacity), 10},
                                    {"min circuit amps", int(ListField::Ampacity), 10},
                                    {"minimum circuit amps", int(ListField::Ampacity), 10},
                                    {"mocp", int(ListField::Device), 10},
                                    {"mop", int(ListField::Device), 10},
                                    {"mfs", int(ListField::Device), 10},
                                    {"max fuse", int(ListField::Device), 10},
                                    {"maximum fuse", int(ListField::Device), 10},
                                    {"max breaker", int(ListField::Device), 10},
                                    {"maximum breaker", int(ListField::Device), 10},
                                    {"max ocp", int(ListField::Device), 10},
                                    {"max ocpd", int(ListField::Device), 10},
                                    {"maximum ocpd", int(ListField::Device), 10},
                                    {"max overcurrent", int(ListField::Device), 10},
                                    {"maximum overcurrent", int(ListField::Device), 10},
                                    {"circuit", int(ListField::Circuit), 9},
                                    {"ckt", int(ListField::Circuit), 9},
                                    {"cct", int(ListField::Circuit), 9},
                                    {"way", int(ListField::Circuit), 6}};

/// Every weight that a heading has for each field.
std::vector<int> weigh(const std::string& heading) {
    std::vector<int> w = weighHeading(heading, meanings, listFields);
    const std::string all = lowered(heading);
    if (all.find("power factor") != std::string::npos) w[std::size_t(ListField::PowerFactor)] = 10;
    if (all.find("load kind") != std::string::npos || all.find("load type") != std::string::npos)
        w[std::size_t(ListField::Kind)] = 10;
    if (all.find("no. of ph") != std::string::npos || all.find("no of ph") != std::string::npos)
        w[std::size_t(ListField::Poles)] = 10;
    if (all.find("demand factor") != std::string::npos) w[std::size_t(ListField::Diversity)] = 10;
    // "V/Ph/Hz": the volts take the phases along.
    int& volts = w[std::size_t(ListField::Voltage)];
    int& poles = w[std::size_t(ListField::Poles)];
    if (volts > 0 && poles > 0) {
        volts = std::max(volts, poles);
        poles = 0;
    }
    // "Min. circuit ampacity" is no circuit, "max. breaker amps" no load.
    if (w[std::size_t(ListField::Ampacity)] > 0 || w[std::size_t(ListField::Device)] > 0)
        for (const ListField f : {ListField::Circuit, ListField::Amount, ListField::Name}) w[std::size_t(f)] = 0;
    return w;
}

std::optional<LoadUnit> unitIn(const std::string& heading) {
    for (const std::string& word : headingWords(heading)) {
        if (word == "fla" || word == "flc" || word == "rla" || word == "amps") return LoadUnit::A;
        if (const auto u = loadUnitFrom(word);
            u && (word.size() > 1 || heading.find('(') != std::string::npos || heading.find('[') != std::string::npos ||
                  headingWords(heading).size() == 1))
            return u;
    }
    return {};
}

/// Whether a heading says a load and nothing else ("HP", "FLA", "Heating kW"), so that it may stand beside another that
/// does: "Breaker (A)" does not.
bool isOnlyLoad(const std::string& heading) {
    static const std::set<std::string> words{"hp",     "bhp",     "kw",    "kva",   "va",       "w",          "watts",
                                             "kvar",   "fla",     "flc",   "rla",   "amps",     "full",       "load",
                                             "power",  "motor",   "rated", "input", "electric", "electrical", "heating",
                                             "heater", "cooling", "fan",   "each",  "a",        "current"};
    const auto all = headingWords(heading);
    return std::all_of(all.begin(), all.end(), [&](const std::string& w) { return words.count(w) > 0; });
}

/// Which of several loads of a row is taken: what says most of how it runs.
int rankOf(LoadUnit unit) {
    switch (unit) {
    case LoadUnit::hp:
        return 4;
    case LoadUnit::kVA:
    case LoadUnit::VA:
    case LoadUnit::kvar:
        return 3;
    case LoadUnit::kW:
    case LoadUnit::W:
        return 2;
    case LoadUnit::A:
        return 1;
    }
    return 0;
}

bool has(const ListRow& r, ListField f) { return std::find(r.given.begin(), r.given.end(), f) != r.given.end(); }

int polesByVolts(double volts, double va, bool& certain) {
    certain = true;
    for (double v : {120.0, 277.0, 347.0, 230.0, 110.0, 127.0})
        if (std::abs(volts - v) < 0.5) return 1;
    for (double v : {400.0, 415.0, 380.0, 480.0, 460.0, 600.0, 575.0})
        if (std::abs(volts - v) < 0.5) return 3;
    certain = false;
    return volts > 199 && volts < 251 ? (va > 6000 ? 3 : 2) : 1;
}

/// Whether a cell, or else its heading, counts phases and not poles: "1ph" and "1φ", or "1" below "Phase".
bool meansPhases(const std::string& text, const std::string& heading) {
    const auto phases = [](const std::string& t) {
        const std::string low = lowered(t);
        for (const char* word : {"ph", "φ", "ø", "~"})
            if (low.find(word) != std::string::npos) return true;
        return false;
    };
    if (phases(text) || lowered(text).rfind("single", 0) == 0) return true;
    return std::none_of(text.begin(), text.end(), isLetter) && phases(heading);
}

/// Poles of a single-phase load: as its board gives the volts, else as those of the project do, else as systems usually
/// do.
int polesOfOnePhase(const Project& p, double volts, std::optional<VoltageSystem> system) {
    const auto gives = [&](VoltageSystem s, int poles) {
        return factsOf(s).lines >= poles && sameVolts(volts, voltsAcross(s, poles).v);
    };
    if (system) return !gives(*system, 1) && gives(*system, 2) ? 2 : 1;
    bool one = false, two = false;
    for (const Board& b : p.boards) {
        one = one || gives(b.system, 1);
        two = two || gives(b.system, 2);
    }
    if (one != two) return two ? 2 : 1;
    for (double between : {200.0, 208.0, 240.0, 380.0, 400.0, 415.0, 440.0, 460.0, 480.0, 575.0, 600.0})
        if (std::abs(volts - between) < 0.5) return 2;
    return 1;
}

double roughVa(const Load& l) {
    switch (l.unit) {
    case LoadUnit::VA:
        return l.amount;
    case LoadUnit::W:
        return l.amount / l.powerFactor;
    case LoadUnit::kVA:
    case LoadUnit::kvar:
        return l.amount * 1000;
    case LoadUnit::kW:
        return l.amount * 1000 / l.powerFactor;
    case LoadUnit::hp:
        return l.amount * 1000;
    case LoadUnit::A:
        return l.amount * std::max(100.0, l.volts);
    }
    return 0;
}

/// The system of a board that a list names and nobody has drawn: by the volts and poles of what goes there.
VoltageSystem systemFor(const Project& p, double volts, int poles) {
    std::map<VoltageSystem, int> used;
    for (const Board& b : p.boards) ++used[b.system];
    const VoltageSystem* best = nullptr;
    static const VoltageSystem all[] = {
        VoltageSystem::Y208, VoltageSystem::Y480,  VoltageSystem::Y400, VoltageSystem::Y415, VoltageSystem::S240,
        VoltageSystem::Y600, VoltageSystem::D240H, VoltageSystem::S230, VoltageSystem::Y380, VoltageSystem::S120};
    const auto suits = [&](VoltageSystem s) {
        return factsOf(s).lines >= poles && (volts <= 0 || sameVolts(volts, voltsAcross(s, poles).v));
    };
    for (const VoltageSystem& s : all)
        if (suits(s) && (!best || used[s] > used[*best])) best = &s;
    for (const auto& [s, times] : used) // the project's own, where it has others
        if (suits(s) && !isMediumVoltage(s) && (!best || times > used[*best])) best = &s;
    if (best) return *best;
    return p.basis.units == UnitSystem::Metric ? VoltageSystem::Y400 : VoltageSystem::Y208;
}

std::unordered_map<std::string, BoardId> boardsByName(const Project& p) {
    std::unordered_map<std::string, BoardId> names;
    for (const Board& b : p.boards) names.try_emplace(lowered(b.name), b.id);
    return names;
}

/// Fills one row of the list from its cells, and judges it against those before it and the project.
class RowReader {
public:
    RowReader(const Grid& g, const ListSettings& settings, const Project& project)
        : grid(g), s(settings), p(project), boards(boardsByName(project)),
          width(settings.headerRow >= 0 ? g.rows[std::size_t(settings.headerRow)].size() : 0),
          headingUnits(s.columns.size()) {
        for (const Board& b : p.boards) bySigns.try_emplace(signsOf(b.name), &b);
        if (s.headerRow < 0 || std::count(s.columns.begin(), s.columns.end(), ListField::Amount) < 2) return;
        for (std::size_t c = 0; c < headingUnits.size(); ++c)
            headingUnits[c] = unitIn(cellAt(grid, std::size_t(s.headerRow), c));
    }

    int columnOf(ListField f) const { return lintel::columnOf(s.columns, f); }

    /// A board that it names and nobody has drawn is added to `newBoards`, once.
    ListRow read(std::size_t r, std::vector<std::string>& newBoards) {
        ListRow row;
        row.gridRow = int(r);
        row.line = r < grid.lines.size() ? grid.lines[r] : int(r) + 1;
        row.load.unit = s.unit;
        row.load.powerFactor = 1;
        said = {};
        if (longerThanHeading(grid.rows[r], width)) {
            ++uneven;
            row.problem(
                -1,
                fmt::format("the row has {} under {}", counted(grid.rows[r].size(), "cell"), counted(width, "heading")),
                false);
        }
        for (std::size_t c = 0; c < s.columns.size(); ++c) cell(row, r, c);
        judgePhases(row);
        judgeAmount(row);
        judgeKind(row.load, has(row, ListField::Kind));
        judgeName(row);
        judgePoles(row);
        judgeBoard(row, newBoards);
        return row;
    }

    /// What holds for several rows.
    void tell(std::vector<std::string>& notes) const {
        const int amount = columnOf(ListField::Amount);
        const bool inHeading =
            amount >= 0 && s.headerRow >= 0 && unitIn(cellAt(grid, std::size_t(s.headerRow), std::size_t(amount)));
        if (bare && amount >= 0 && !inHeading)
            notes.push_back(fmt::format("{} {} no unit in cell or heading: taken as {}", bare,
                                        bare == 1 ? "load has" : "loads have", wordOf(s.unit)));
        if (severalLoads)
            notes.push_back(fmt::format("{} {} its load in several columns: hp is taken before kVA, kW and A",
                                        severalLoads, severalLoads == 1 ? "row says" : "rows say"));
        if (byNameplate)
            notes.push_back(fmt::format("{} {} no load: the minimum circuit ampacity is taken, which is more than "
                                        "the equipment draws",
                                        byNameplate,
                                        byNameplate == 1 ? "row with an MCA says" : "rows with an MCA say"));
        if (uneven)
            notes.push_back(fmt::format("{} {} longer than the heading", uneven, uneven == 1 ? "row is" : "rows are"));
    }

private:
    const Grid& grid;
    const ListSettings& s;
    const Project& p;
    const std::unordered_map<std::string, BoardId> boards;
    const std::size_t width;                           ///< of the heading
    std::vector<std::optional<LoadUnit>> headingUnits; ///< by column, where several say a load
    std::unordered_map<std::string, const Board*> bySigns;
    std::unordered_map<std::string, int> tags; ///< and the line they were met in
    std::unordered_map<std::string, int> identities;
    std::set<std::string> fresh; ///< boards that nobody has drawn
    int uneven = 0, bare = 0, severalLoads = 0, byNameplate = 0;
    /// Of the row being read.
    struct Said {
        bool unit = false, poles = false, onePhase = false;
        int loads = 0;                  ///< columns that say one
        std::optional<int> besideVolts; ///< phases that stand with the volts
    } said;
    int column = -1; ///< of the cell being read
    char decimal = '.';

    const Board* boardOf(const ListRow& row) const {
        const auto known = boards.find(lowered(row.board));
        return known == boards.end() ? nullptr : &p.boards[known->second];
    }
    /// A board of the project whose name has the same letters and digits: "LP1" for LP-1. It is told, and not taken for
    /// it.
    const Board* writtenLike(const std::string& name) const {
        const auto known = bySigns.find(signsOf(name));
        return known == bySigns.end() ? nullptr : known->second;
    }
    static std::string signsOf(const std::string& name) {
        std::string signs;
        for (const char c : lowered(name))
            if (isLetter(c) || isDigit(c) || (c & 0x80)) signs += c;
        return signs;
    }
    void refuse(ListRow& row, const std::string& text, const char* what) {
        row.problem(column, fmt::format("“{}” is not {}", text, what));
    }

    void cell(ListRow& row, std::size_t r, std::size_t c) {
        const std::string text = cellAt(grid, r, c);
        if (s.columns[c] == ListField::None || text.empty() || isBlankMark(text)) return;
        column = int(c);
        decimal = grid.isNumber(r, c) ? '.' : s.decimal;
        if (isSpreadsheetError(text)) return row.problem(column, "an error of the spreadsheet: " + text);
        row.given.push_back(s.columns[c]);
        read(row, s.columns[c], text);
    }
    void read(ListRow& row, ListField field, const std::string& text) {
        Load& l = row.load;
        switch (field) {
        case ListField::None:
        case ListField::Circuit:
            return;
        case ListField::Tag:
            l.tag = text;
            return;
        case ListField::Identity:
            row.identity = text;
            return;
        case ListField::Name:
            l.name = text;
            return;
        case ListField::Where:
            l.where = text;
            return;
        case ListField::Board:
            row.board = text;
            return;
        case ListField::Amount:
            return amount(row, text);
        case ListField::Unit:
            return unit(row, text);
        case ListField::Voltage:
            return volts(row, text);
        case ListField::Poles:
            return poles(row, text);
        case ListField::PowerFactor:
            return share(row, text, "a power factor", l.powerFactor);
        case ListField::Quantity:
            return quantity(row, text);
        case ListField::Kind:
            return kind(row, text);
        case ListField::Continuous:
            if (const auto v = yesFrom(text))
                l.continuous = *v;
            else
                refuse(row, text, "yes or no");
            return;
        case ListField::Diversity:
            return share(row, text, "a diversity", l.diversity);
        case ListField::Duty:
            return share(row, text, "a duty", l.duty);
        case ListField::Efficiency:
            return share(row, text, "an efficiency", l.efficiency);
        case ListField::Ampacity:
            return amps(row, text, "a minimum circuit ampacity in A", l.nameplate.ampacity);
        case ListField::Device:
            return amps(row, text, "the rating of a device in A", l.nameplate.device);
        }
    }
    void share(ListRow& row, const std::string& text, const char* what, double& into) {
        const auto v = readShare(text, what, decimal);
        const double x = v ? *v > 1 && *v <= 100 ? *v / 100 : *v : -1; // a bare 85 is 85 %
        if (x < 0.01 || x > 1)
            refuse(row, text, what);
        else
            into = x;
    }
    void amount(ListRow& row, const std::string& text) {
        if (const auto typed = loadFrom(text, decimal)) {
            const auto& ofHeading = headingUnits[std::size_t(column)];
            const LoadUnit unit = typed->unit.value_or(ofHeading.value_or(s.unit));
            if (said.loads && typed->amount == 0) return;
            if (row.load.amount > 0) ++said.loads;
            if (row.load.amount > 0 && rankOf(row.load.unit) >= rankOf(unit)) return;
            said.loads = std::max(said.loads, 1);
            row.load.amount = typed->amount;
            row.load.unit = unit;
            said.unit = typed->unit || ofHeading;
        } else if (const auto v = numberFrom(text, decimal); v && *v < 0) {
            row.problem(column, fmt::format("a load of {} is below nothing", text));
        } else {
            refuse(row, text, "a load");
        }
    }
    void amps(ListRow& row, const std::string& text, const char* what, double& into) {
        const auto v = readTyped(text, "A", decimal);
        if (!v || *v <= 0 || *v > 6000)
            refuse(row, text, what);
        else
            into = *v;
    }
    void unit(ListRow& row, const std::string& text) {
        const auto u = loadUnitFrom(text);
        if (!u) return row.problem(column, fmt::format("there is no unit “{}”: VA, kVA, W, kW, A, hp", text));
        if (!said.unit) row.load.unit = *u;
    }
    void volts(ListRow& row, const std::string& text) {
        const auto v = typedVolts(text, decimal);
        if (!v || v->volts > 100000) return refuse(row, text, "a voltage: 480, 400 V, 208/120, 460/3/60");
        row.load.volts = v->volts;
        said.besideVolts = v->phases;
    }
    void poles(ListRow& row, const std::string& text) {
        const auto n = typedPoles(text, decimal);
        if (const auto both = typedVolts(text, decimal); !n && both && both->phases) { // "480/3/60" below "Phase"
            if (row.load.volts == 0) row.load.volts = both->volts;
            said.besideVolts = both->phases;
            row.given.back() = ListField::Voltage;
            return;
        }
        if (!n) return refuse(row, text, "a number of phases or poles: 1, 2 or 3");
        const std::string heading =
            s.headerRow >= 0 ? cellAt(grid, std::size_t(s.headerRow), std::size_t(column)) : std::string();
        row.load.poles = *n;
        said.poles = true;
        said.onePhase = *n == 1 && meansPhases(text, heading);
    }
    void quantity(ListRow& row, const std::string& text) {
        const auto v = typedNumber(text, decimal);
        if (!v || *v <= 0 || *v > 1e6) return refuse(row, text, "a quantity");
        row.load.quantity = *v;
    }
    void kind(ListRow& row, const std::string& text) {
        const std::string t = lowered(text);
        for (const auto& [of, word] : EnumText<LoadKind>::words)
            if (t == word || t == lowered(titleOf(of)) || t == std::string(word) + "s") {
                row.load.kind = of;
                return;
            }
        row.problem(column, fmt::format("there is no load kind “{}”: taken as equipment", text), false);
        row.given.pop_back();
    }

    void judgePhases(ListRow& row) {
        if (!said.besideVolts) return;
        const int phases = *said.besideVolts;
        if (said.poles) {
            if (phases != row.load.poles && !said.onePhase && phases != 1)
                row.problem(columnOf(ListField::Voltage),
                            fmt::format("{} phases with the volts, {} in their own column", phases, row.load.poles));
            return;
        }
        row.load.poles = phases;
        said.poles = true;
        said.onePhase = phases == 1;
        row.given.push_back(ListField::Poles);
    }
    void judgeAmount(ListRow& row) {
        const int at = columnOf(ListField::Amount);
        if (!has(row, ListField::Amount)) {
            if (row.load.nameplate.ampacity > 0) {
                ++byNameplate;
                row.load.amount = row.load.nameplate.ampacity;
                row.load.unit = LoadUnit::A;
                said.unit = true;
                row.given.push_back(ListField::Amount);
                row.problem(at, "it says no load: its MCA is taken", false);
            } else {
                row.problem(at, at < 0 ? "no column says its load" : "it says no load");
            }
        }
        if (said.loads > 1) ++severalLoads;
        if (has(row, ListField::Amount) && !said.unit && !has(row, ListField::Unit)) ++bare;
    }
    /// By its unit, or by the words of its name.
    static void judgeKind(Load& l, bool given) {
        if (given) return;
        if (l.unit == LoadUnit::hp)
            l.kind = LoadKind::Motor;
        else if (const auto kind = LoadWords::shipped().kindOf(l.name))
            l.kind = *kind;
    }
    void judgeName(ListRow& row) {
        Load& l = row.load;
        if (!l.tag.empty()) {
            const auto [it, once] = tags.try_emplace(lowered(l.tag), row.line);
            if (!once)
                row.problem(columnOf(ListField::Tag),
                            fmt::format("the tag {} stands in line {} already", l.tag, it->second));
        } else if (!row.identity.empty()) {
            const auto [it, once] = identities.try_emplace(row.identity, row.line);
            if (!once) {
                row.problem(columnOf(ListField::Identity),
                            fmt::format("a copy of line {}: it is taken as another load", it->second), false);
                row.identity.clear();
            } else if (!loadOf(p, row.identity)) {
                row.problem(columnOf(ListField::Identity), "no load of this project is this one: it is taken as new",
                            false);
                row.identity.clear();
            }
        } else if (columnOf(ListField::Tag) >= 0) {
            row.problem(columnOf(ListField::Tag), "it has no tag: a later list will not find it again", false);
        }
        if (l.name.empty()) l.name = l.tag;
        if (l.name.empty() && row.identity.empty())
            row.problem(columnOf(ListField::Name), "it has neither a name nor a tag");
    }
    void judgePoles(ListRow& row) {
        Load& l = row.load;
        const Board* board = boardOf(row);
        if (!said.poles && l.volts > 0) {
            bool certain = true;
            l.poles = polesByVolts(l.volts, roughVa(l), certain);
            row.given.push_back(ListField::Poles);
            if (!certain)
                row.problem(columnOf(ListField::Voltage),
                            fmt::format("{} V can be two poles or three: taken as {}", plain(l.volts), l.poles), false);
        } else if (!said.poles && board && factsOf(board->system).lines == 1) {
            l.poles = 1;
        }
        if (said.onePhase && l.volts > 0) // one phase between two lines takes two poles
            l.poles = polesOfOnePhase(p, l.volts, board ? std::optional(board->system) : std::nullopt);
    }
    void judgeBoard(ListRow& row, std::vector<std::string>& newBoards) {
        if (row.board.empty()) return;
        const Load& l = row.load;
        const Board* b = boardOf(row);
        if (!b) {
            if (const Board* like = writtenLike(row.board))
                row.problem(columnOf(ListField::Board), fmt::format("{} is made: is {} meant?", row.board, like->name),
                            false);
            if (row.enters() && fresh.insert(row.board).second) newBoards.push_back(row.board);
            return;
        }
        const int lines = factsOf(b->system).lines;
        if (l.poles > lines) {
            row.problem(columnOf(ListField::Board),
                        fmt::format("{} has {}, the load takes {}", b->name, counted(lines, "line"), l.poles));
            return;
        }
        const double given = voltsAcross(b->system, l.poles).v;
        if (l.volts > 0 && !sameVolts(l.volts, given))
            row.problem(
                columnOf(ListField::Voltage),
                fmt::format("{} gives {} V to {} {}", b->name, plain(given), l.poles, l.poles == 1 ? "pole" : "poles"),
                false);
    }
};

/// Takes a circuit to the first place free on another board. Empty: done; else why it cannot go, and it is as it was.
std::string followTo(Project& p, CircuitId id, BoardId board) {
    const Circuit& c = p.circuits[id];
    const Board* to = p.boards.find(board);
    if (!to) return "the list names no board that there is";
    if (c.pinned) return "its circuit is pinned";
    if (c.tie || c.multiwire || c.kept || c.bundle) return "its circuit belongs together with others";
    if (fedBy(p, id)) return "its circuit is a feeder";
    if (c.poles > factsOf(to->system).lines)
        return fmt::format("{} has {}", to->name, counted(factsOf(to->system).lines, "line"));
    const int slot = firstFreeSlot(p, board, c.poles);
    if (!slot) return to->name + " has no free place";
    Circuit& moved = *p.circuits.change(id);
    moved.board = board;
    moved.slot = slot;
    return "";
}

/// Puts what a row says into a load and tells what that changes.
std::vector<std::string> enter(const Project& p, Load& l, const ListRow& r, BoardId board) {
    std::vector<std::string> what;
    const Load& n = r.load;
    const auto text = [&](ListField f, const char* word, std::string& now, const std::string& then) {
        if (has(r, f) && now != then)
            what.push_back(fmt::format("{} {} → {}", word, now.empty() ? "–" : now, then.empty() ? "–" : then)),
                now = then;
    };
    const auto number = [&](ListField f, const char* word, double& now, double then) {
        if (has(r, f) && std::abs(now - then) > 1e-9 * std::max(1.0, std::abs(then)))
            what.push_back(fmt::format("{} {} → {}", word, plain(now), plain(then))), now = then;
    };
    if (l.tag.empty()) text(ListField::Tag, "tag", l.tag, n.tag); // known by its identity
    text(ListField::Name, "name", l.name, n.name);
    text(ListField::Where, "where", l.where, n.where);
    if (has(r, ListField::Amount) &&
        (std::abs(l.amount - n.amount) > 1e-9 * std::max(1.0, n.amount) || l.unit != n.unit)) {
        what.push_back(
            fmt::format("load {} {} → {} {}", plain(l.amount), wordOf(l.unit), plain(n.amount), wordOf(n.unit)));
        l.amount = n.amount, l.unit = n.unit;
    }
    // Volts that nobody entered are those of its board, and a list tells them.
    const Circuit* on = p.circuits.find(l.circuit);
    const Board* own = p.boards.find(on ? on->board : l.board);
    if (l.volts > 0 || !own || !sameVolts(n.volts, voltsAcross(own->system, l.poles).v))
        number(ListField::Voltage, "volts", l.volts, n.volts);
    if (has(r, ListField::Poles) && l.poles != n.poles)
        what.push_back(fmt::format("poles {} → {}", l.poles, n.poles)), l.poles = n.poles;
    number(ListField::PowerFactor, "power factor", l.powerFactor, n.powerFactor);
    number(ListField::Quantity, "quantity", l.quantity, n.quantity);
    if (has(r, ListField::Kind) && l.kind != n.kind)
        what.push_back(fmt::format("kind {} → {}", wordOf(l.kind), wordOf(n.kind))), l.kind = n.kind;
    if (has(r, ListField::Continuous) && l.continuous != n.continuous)
        what.push_back(n.continuous ? "continuous" : "not continuous"), l.continuous = n.continuous;
    number(ListField::Diversity, "diversity", l.diversity, n.diversity);
    number(ListField::Duty, "duty", l.duty, n.duty);
    number(ListField::Efficiency, "efficiency", l.efficiency, n.efficiency);
    number(ListField::Ampacity, "MCA", l.nameplate.ampacity, n.nameplate.ampacity);
    number(ListField::Device, "MOCP", l.nameplate.device, n.nameplate.device);
    if (has(r, ListField::Board)) {
        const Circuit* c = p.circuits.find(l.circuit);
        const BoardId now = c ? c->board : l.board;
        const Board *from = p.boards.find(now), *to = p.boards.find(board);
        if ((to && now != board) || (!to && !r.board.empty() && !(from && sameWord(from->name, r.board)))) {
            what.push_back(fmt::format("board {} → {}", from ? from->name : "–", r.board));
            l.circuit = {};
        }
        if (to) l.board = board;
    }
    return what;
}

} // namespace

std::pair<ListField, std::optional<LoadUnit>> guessField(const std::string& heading) {
    const auto w = weigh(heading);
    const auto best = std::max_element(w.begin(), w.end());
    const ListField f = *best > 0 ? ListField(best - w.begin()) : ListField::None;
    return {f, f == ListField::Amount ? unitIn(heading) : std::nullopt};
}

ListSettings guessSettings(const Grid& grid, LoadUnit usual) {
    const ColumnGuess guess = guessColumns(grid, weigh);
    ListSettings s;
    s.unit = usual;
    s.headerRow = guess.headerRow;
    s.decimal = guess.decimal;
    for (std::size_t c = 0; c < guess.columns.size(); ++c) {
        s.columns.push_back(ListField(guess.columns[c]));
        if (s.columns.back() != ListField::Amount) continue;
        if (const auto u = unitIn(cellAt(grid, std::size_t(s.headerRow), c))) s.unit = *u;
    }
    // One load in hp, the next in kW: each column of them counts.
    const bool oneSays = std::count(s.columns.begin(), s.columns.end(), ListField::Amount) > 0;
    for (std::size_t c = 0; oneSays && s.headerRow >= 0 && c < s.columns.size(); ++c) {
        const std::string heading = cellAt(grid, std::size_t(s.headerRow), c);
        if (s.columns[c] == ListField::None && unitIn(heading) && isOnlyLoad(heading)) s.columns[c] = ListField::Amount;
    }
    return s;
}

int LoadList::entering() const {
    return int(std::count_if(rows.begin(), rows.end(), [](const ListRow& r) { return r.enters(); }));
}
int LoadList::stopped() const {
    return int(std::count_if(rows.begin(), rows.end(), [](const ListRow& r) { return !r.leftOut && r.stops(); }));
}

LoadList readLoads(const Grid& grid, const ListSettings& s, const Project& p) {
    LoadList list;
    list.notes = grid.notes;
    RowReader reader(grid, s, p);
    if (reader.columnOf(ListField::Amount) < 0)
        list.notes.push_back("no column says the load: choose the one that does");
    if (reader.columnOf(ListField::Tag) < 0)
        list.notes.push_back("no column is the tag: the list can be read in, and not compared with a later one");
    int totals = 0;
    for (std::size_t r = std::size_t(s.headerRow + 1); r < grid.rows.size(); ++r) {
        if (isEmptyRow(grid.rows[r])) continue;
        if (isTotalRow(grid.rows[r]))
            ++totals;
        else
            list.rows.push_back(reader.read(r, list.newBoards));
    }
    if (totals) list.notes.push_back(fmt::format("{} {} of totals passed over", totals, totals == 1 ? "row" : "rows"));
    reader.tell(list.notes);
    if (list.rows.empty()) list.notes.push_back("no row of the list holds a load");
    return list;
}

ListDifference compareList(const Project& p, const LoadList& list) {
    ListDifference d;
    std::unordered_map<std::string, LoadId> byTag;
    for (const Load& l : p.loads)
        if (!l.tag.empty()) byTag.try_emplace(lowered(l.tag), l.id);
    const auto boards = boardsByName(p);
    std::set<LoadId> met;
    const auto knownAs = [&](const ListRow& r) -> LoadId {
        if (!r.load.tag.empty())
            if (const auto it = byTag.find(lowered(r.load.tag)); it != byTag.end()) return it->second;
        const Load* own = loadOf(p, r.identity);
        return own && !met.count(own->id) ? own->id : LoadId{};
    };
    for (std::size_t i = 0; i < list.rows.size(); ++i) {
        const ListRow& r = list.rows[i];
        const LoadId known = knownAs(r);
        if (known) met.insert(known); // also where the row itself is left out: it is not gone
        if (!r.enters()) continue;
        if (!known) {
            d.added.push_back(i);
            continue;
        }
        Load trial = p.loads[known];
        const auto board = boards.find(lowered(r.board));
        auto what = enter(p, trial, r, board == boards.end() ? BoardId{} : board->second);
        if (what.empty())
            ++d.same;
        else
            d.changed.push_back({known, i, std::move(what)});
    }
    for (const Load& l : p.loads)
        if (!l.tag.empty() && !met.count(l.id)) d.gone.push_back(l.id);
    return d;
}

Applied applyList(Project& p, const LoadList& list, const ApplyOptions& options) {
    Applied out;
    const ListDifference d = compareList(p, list);
    auto boards = boardsByName(p);
    const auto boardFor = [&](const ListRow& r) -> BoardId {
        if (r.board.empty()) return {};
        const auto known = boards.find(lowered(r.board));
        if (known != boards.end()) return known->second;
        if (!options.createBoards) return {};
        Board b;
        b.name = r.board;
        int poles = r.load.poles; // of the most that goes there
        double volts = r.load.volts;
        for (const ListRow& o : list.rows)
            if (o.enters() && sameWord(o.board, r.board) && o.load.poles > poles)
                poles = o.load.poles, volts = o.load.volts;
        b.system = systemFor(p, volts, poles);
        if (isMetric(b.system) && factsOf(b.system).lines == 3) takeUsualWays(b);
        const BoardId id = addBoard(p, b);
        boards.emplace(lowered(r.board), id);
        ++out.boards;
        return id;
    };
    std::unordered_map<std::uint32_t, int> onCircuit; // loads and devices by circuit
    for (const Load& l : p.loads) ++onCircuit[l.circuit.value];
    for (const Device& x : p.devices) ++onCircuit[x.circuit.value];
    const auto standsAlone = [&](CircuitId c) { return onCircuit[c.value] == 1; };
    const auto called = [&](CircuitId c) {
        return nameOf(p, c) + (p.circuits[c].name.empty() ? "" : " " + p.circuits[c].name);
    };
    for (const auto& change : d.changed) {
        const ListRow& r = list.rows[change.row];
        const BoardId board = boardFor(r);
        const Load was = p.loads[change.load];
        Load l = was;
        (void)enter(p, l, r, board);
        if (const Circuit* c = p.circuits.find(was.circuit)) {
            const CircuitId id = c->id;
            if (standsAlone(id) && c->name == c->madeName && c->madeName == was.name && l.name != was.name)
                p.circuits.change(id)->name = p.circuits.change(id)->madeName = l.name;
            if (!l.circuit) {
                const std::string from = called(id),
                                  why = standsAlone(id) ? followTo(p, id, board) : "it carries others too";
                if (why.empty()) {
                    l.circuit = id;
                    out.notes.push_back(fmt::format("{} went with its load to {}", from, nameOf(p, id)));
                } else {
                    --onCircuit[id.value];
                    out.notes.push_back(fmt::format("{} lost {}, which has no circuit now: {}", from, l.name, why));
                }
            }
        }
        *p.loads.change(change.load) = l;
        ++out.changed;
    }
    for (std::size_t i : d.added) {
        const ListRow& r = list.rows[i];
        Load l = r.load;
        l.id = {};
        l.board = boardFor(r);
        p.loads.add(std::move(l));
        ++out.added;
    }
    if (options.removeGone)
        for (LoadId l : d.gone) {
            const CircuitId c = p.loads[l].circuit;
            if (c && p.circuits.has(c) && standsAlone(c))
                out.notes.push_back(
                    fmt::format("{} carries nothing now: {} is no longer listed", called(c), p.loads[l].name));
            if (c) --onCircuit[c.value];
            p.loads.remove(l);
            ++out.removed;
        }
    return out;
}

std::string identityOf(const Project& p, LoadId load) {
    std::uint32_t hash = 2166136261u; // FNV-1a, of what tells one project from another
    for (char c : p.basis.title + "\n" + p.basis.jobNumber) hash = (hash ^ static_cast<unsigned char>(c)) * 16777619u;
    return fmt::format("{}-{:08x}", load.value, hash);
}

std::vector<std::vector<std::string>> listOf(const Project& p) {
    std::vector<std::vector<std::string>> rows{{"Tag", "Name", "Where", "Board", "Circuit", "Load", "Unit", "Quantity",
                                                "Volts", "Poles", "Power factor", "Load kind", "Continuous",
                                                "Diversity", "Duty", "Efficiency"}};
    std::vector<const Load*> loads;
    for (const Load& l : p.loads) loads.push_back(&l);
    const bool marked = std::any_of(loads.begin(), loads.end(),
                                    [](const Load* l) { return l->nameplate.ampacity > 0 || l->nameplate.device > 0; });
    if (marked) rows.front().insert(rows.front().end(), {"MCA", "MOCP"});
    const bool untagged = std::any_of(loads.begin(), loads.end(), [](const Load* l) { return l->tag.empty(); });
    if (untagged) rows.front().push_back(identityHeading);
    std::stable_sort(loads.begin(), loads.end(), [](const Load* a, const Load* b) { return a->tag < b->tag; });
    for (const Load* l : loads) {
        const Circuit* c = p.circuits.find(l->circuit);
        const Board* b = p.boards.find(c ? c->board : l->board);
        rows.push_back({l->tag, l->name, l->where, b ? b->name : "", c ? nameOf(p, c->id) : "", plain(l->amount),
                        wordOf(l->unit), plain(l->quantity),
                        l->volts > 0 ? plain(l->volts)
                        : b          ? plain(voltsAcross(b->system, l->poles).v)
                                     : "",
                        std::to_string(l->poles), plain(l->powerFactor), wordOf(l->kind), l->continuous ? "yes" : "no",
                        plain(l->diversity), plain(l->duty), plain(l->efficiency)});
        for (const double amps : {l->nameplate.ampacity, l->nameplate.device})
            if (marked) rows.back().push_back(amps > 0 ? plain(amps) : "");
        if (untagged) rows.back().push_back(l->tag.empty() ? identityOf(p, l->id) : "");
    }
    return rows;
}

} // namespace lintel
