#include "core/exchange/FeederList.h"

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/exchange/ListedConductors.h"
#include "core/project/TypedLoads.h"

#include <cmath>
#include <fmt/format.h>
#include <unordered_map>

namespace lintel {
namespace {

constexpr HeadingWord meanings[] = {{"feeder", int(FeederField::Tag), 8},
                                    {"tag", int(FeederField::Tag), 9},
                                    {"mark", int(FeederField::Tag), 7},
                                    {"feeder no", int(FeederField::Tag), 9},
                                    {"cable no", int(FeederField::Tag), 9},
                                    {"cable id", int(FeederField::Tag), 9},
                                    {"id", int(FeederField::Tag), 4},
                                    {"no", int(FeederField::Tag), 2},
                                    {"from", int(FeederField::From), 10},
                                    {"source", int(FeederField::From), 6},
                                    {"fed from", int(FeederField::From), 10},
                                    {"origin", int(FeederField::From), 6},
                                    {"to", int(FeederField::To), 10},
                                    {"destination", int(FeederField::To), 8},
                                    {"serves", int(FeederField::To), 7},
                                    {"feeds", int(FeederField::To), 7},
                                    {"panel", int(FeederField::To), 5},
                                    {"board", int(FeederField::To), 5},
                                    {"equipment", int(FeederField::To), 5},
                                    {"what it feeds", int(FeederField::What), 12},
                                    {"kind", int(FeederField::What), 8},
                                    {"type", int(FeederField::What), 5},
                                    {"load", int(FeederField::Load), 8},
                                    {"demand", int(FeederField::Load), 7},
                                    {"kva", int(FeederField::Load), 7},
                                    {"kw", int(FeederField::Load), 7},
                                    {"hp", int(FeederField::Load), 7},
                                    {"fla", int(FeederField::Load), 7},
                                    {"va", int(FeederField::Load), 6},
                                    {"unit", int(FeederField::Unit), 9},
                                    {"units", int(FeederField::Unit), 9},
                                    {"volts", int(FeederField::Voltage), 9},
                                    {"voltage", int(FeederField::Voltage), 9},
                                    {"volt", int(FeederField::Voltage), 9},
                                    {"v", int(FeederField::Voltage), 6},
                                    {"phases", int(FeederField::Phases), 9},
                                    {"phase", int(FeederField::Phases), 9},
                                    {"ph", int(FeederField::Phases), 8},
                                    {"poles", int(FeederField::Phases), 8},
                                    {"pole", int(FeederField::Phases), 8},
                                    {"device", int(FeederField::Device), 9},
                                    {"breaker", int(FeederField::Device), 9},
                                    {"ocpd", int(FeederField::Device), 9},
                                    {"ocp", int(FeederField::Device), 9},
                                    {"mcb", int(FeederField::Device), 8},
                                    {"fuse", int(FeederField::Device), 8},
                                    {"trip", int(FeederField::Device), 7},
                                    {"protection", int(FeederField::Device), 7},
                                    {"sets", int(FeederField::Sets), 9},
                                    {"parallel", int(FeederField::Sets), 7},
                                    {"runs", int(FeederField::Sets), 7},
                                    {"conductors", int(FeederField::Conductors), 9},
                                    {"conductor", int(FeederField::Conductors), 9},
                                    {"wire", int(FeederField::Conductors), 8},
                                    {"wires", int(FeederField::Conductors), 8},
                                    {"size", int(FeederField::Conductors), 5},
                                    {"cable size", int(FeederField::Conductors), 9},
                                    {"cable", int(FeederField::Cable), 6},
                                    {"cable type", int(FeederField::Cable), 11},
                                    {"ground", int(FeederField::Ground), 10},
                                    {"gnd", int(FeederField::Ground), 10},
                                    {"egc", int(FeederField::Ground), 10},
                                    {"earth", int(FeederField::Ground), 10},
                                    {"cpc", int(FeederField::Ground), 10},
                                    {"protective conductor", int(FeederField::Ground), 12},
                                    {"conduit", int(FeederField::Conduit), 10},
                                    {"raceway", int(FeederField::Conduit), 10},
                                    {"length", int(FeederField::Length), 10},
                                    {"distance", int(FeederField::Length), 8},
                                    {"drawing", int(FeederField::Drawing), 10},
                                    {"dwg", int(FeederField::Drawing), 10},
                                    {"reference", int(FeederField::Drawing), 6},
                                    {"ref", int(FeederField::Drawing), 5},
                                    {"sheet", int(FeederField::Drawing), 6},
                                    {"fault", int(FeederField::Fault), 10},
                                    {"isc", int(FeederField::Fault), 10},
                                    {"short circuit", int(FeederField::Fault), 10},
                                    {"ka", int(FeederField::Fault), 8}};

std::vector<int> weigh(const std::string& heading) { return weighHeading(heading, meanings, feederFields); }

std::optional<UnitSystem> lengthsIn(const std::string& heading) {
    for (const std::string& word : headingWords(heading)) {
        if (word == "ft" || word == "feet") return UnitSystem::Imperial;
        if (word == "m" || word == "metres" || word == "meters") return UnitSystem::Metric;
    }
    return std::nullopt;
}

/// Fills one row from its cells.
class RowReader {
public:
    RowReader(const Grid& g, const FeederSettings& s, const RuleBook& b) : grid(g), how(s), book(b) {}

    FeederRow read(std::size_t r) {
        FeederRow row;
        row.gridRow = int(r);
        row.line = r < grid.lines.size() ? grid.lines[r] : int(r) + 1;
        row.unit = how.unit;
        if (const auto said = how.takenAs.find(row.gridRow); said != how.takenAs.end()) row.what = said->second;
        unitSaid = false;
        for (std::size_t c = 0; c < how.columns.size(); ++c) {
            const std::string text = cellAt(grid, r, c);
            if (how.columns[c] == FeederField::None || text.empty() || isBlankMark(text)) continue;
            column = int(c);
            decimal = grid.isNumber(r, c) ? '.' : how.decimal;
            if (isSpreadsheetError(text))
                row.problem(column, "an error of the spreadsheet: " + text);
            else
                cell(row, how.columns[c], text);
        }
        if (row.to.empty()) row.problem(columnOf(FeederField::To), "it does not say what it feeds");
        if (row.from.empty()) row.problem(columnOf(FeederField::From), "it does not say what it is fed from", false);
        if (!row.from.empty() && sameWord(row.from, row.to))
            row.problem(columnOf(FeederField::From), row.to + " would feed itself");
        if (row.sets > 0 && row.size.empty())
            row.problem(columnOf(FeederField::Sets), "sets of conductors without a size: not held", false);
        return row;
    }

    int columnOf(FeederField f) const { return lintel::columnOf(how.columns, f); }
    int bareLoads = 0, bareLengths = 0;

private:
    const Grid& grid;
    const FeederSettings& how;
    const RuleBook& book;
    int column = -1;
    char decimal = '.';
    bool unitSaid = false;

    void refuse(FeederRow& row, const std::string& text, const char* what) {
        row.problem(column, fmt::format("“{}” is not {}", text, what));
    }
    /// A dash, or words for nothing.
    static bool saysNothing(const std::string& text) {
        for (const char* word : {"-", "–", "—", "n/a", "na", "none", "tbd", "?"})
            if (sameWord(text, word)) return true;
        return false;
    }

    void cell(FeederRow& row, FeederField field, const std::string& text) {
        const bool words = field == FeederField::Tag || field == FeederField::From || field == FeederField::To;
        if (!words && saysNothing(text)) return;
        switch (field) {
        case FeederField::None:
            break;
        case FeederField::Tag:
            row.tag = text;
            break;
        case FeederField::From:
            row.from = text;
            break;
        case FeederField::To:
            row.to = text;
            break;
        case FeederField::What:
            what(row, text);
            break;
        case FeederField::Load:
            load(row, text);
            break;
        case FeederField::Unit:
            if (const auto u = loadUnitFrom(text)) {
                if (!unitSaid) row.unit = *u;
                unitSaid = true;
            } else
                row.problem(column, fmt::format("there is no unit “{}”: VA, kVA, W, kW, A, hp", text));
            break;
        case FeederField::Voltage:
            if (const auto v = typedVolts(text, decimal); v && v->volts <= 100000) {
                row.volts = v->volts;
                if (v->phases && !row.phases) row.phases = *v->phases == 3 ? 3 : 1;
            } else
                refuse(row, text, "a voltage: 480, 400 V, 208Y/120, 480/3/60");
            break;
        case FeederField::Phases:
            if (const auto n = typedPoles(text, decimal))
                row.phases = *n == 3 ? 3 : 1;
            else
                refuse(row, text, "a number of phases or poles: 1, 2 or 3");
            break;
        case FeederField::Device:
            device(row, text);
            break;
        case FeederField::Sets:
            if (const auto v = typedNumber(text, decimal); v && *v >= 1 && *v <= limits::sets && *v == std::floor(*v)) {
                if (row.sets > 0 && row.sets != int(*v))
                    row.problem(column,
                                fmt::format("{} sets with the conductors, {} in their own column", row.sets, int(*v)));
                row.sets = int(*v);
            } else
                refuse(row, text, "a number of sets");
            break;
        case FeederField::Conductors:
            conductors(row, text);
            break;
        case FeederField::Cable:
            cable(row, text);
            break;
        case FeederField::Ground:
            if (const auto size = readGround(text)) {
                if (!row.ground.empty() && row.ground != *size)
                    row.problem(column,
                                fmt::format("ground {} with the conductors, {} in its own column", row.ground, *size));
                row.ground = *size;
                known(row, *size);
            } else
                row.problem(column, size.error().what);
            break;
        case FeederField::Conduit:
            conduit(row, text);
            break;
        case FeederField::Length:
            length(row, text);
            break;
        case FeederField::Drawing:
            row.drawing = text;
            break;
        case FeederField::Fault:
            fault(row, text);
            break;
        }
    }

    void what(FeederRow& row, const std::string& text) {
        if (row.what != FedKind::Unsaid) return; // said by hand
        for (const auto& [kind, word] : EnumText<FedKind>::words)
            if (sameWord(text, word)) {
                row.what = kind;
                return;
            }
        for (const auto& [word, kind] : {std::pair{"panel", FedKind::Panelboard},
                                         {"board", FedKind::Panelboard},
                                         {"mcc", FedKind::MotorControl},
                                         {"motor control center", FedKind::MotorControl},
                                         {"disconnect", FedKind::Disconnect},
                                         {"ats", FedKind::TransferSwitch},
                                         {"motor", FedKind::Load},
                                         {"equipment", FedKind::Load}})
            if (sameWord(text, word)) row.what = kind;
        if (row.what == FedKind::Unsaid)
            row.problem(column, fmt::format("“{}” is not known here: what it feeds is told by its name", text), false);
    }

    void load(FeederRow& row, const std::string& text) {
        const auto typed = loadFrom(text, decimal);
        if (!typed) {
            const auto number = numberFrom(text, decimal);
            if (number && *number < 0) return row.problem(column, fmt::format("a load of {} is below nothing", text));
            return refuse(row, text, "a load");
        }
        row.load = typed->amount;
        if (typed->unit) {
            row.unit = *typed->unit;
            unitSaid = true;
        } else
            bareLoads += columnOf(FeederField::Unit) < 0;
    }

    /// "400", "400A", "400A/3P", "400/3".
    void device(FeederRow& row, const std::string& text) {
        std::string amps = text, poles;
        if (const auto slash = text.find('/'); slash != std::string::npos) {
            amps = trimmed(text.substr(0, slash));
            poles = trimmed(text.substr(slash + 1));
        }
        const auto value = readTyped(amps, "A", decimal);
        const auto count = poles.empty() ? std::optional(0) : typedPoles(poles, decimal);
        if (!value || *value < 0.5 || *value > 10000 || !count)
            return refuse(row, text, "the rating of a device: 400, 400 A, 400/3");
        row.device = *value;
        if (*count > 0 && !row.phases) row.phases = *count == 3 ? 3 : 1;
    }

    void conductors(FeederRow& row, const std::string& text) {
        const auto read = readConductors(text);
        if (!read) return row.problem(column, read.error().what + ". " + read.error().help);
        row.size = read->size;
        known(row, read->size);
        if (read->sets > 0) {
            if (row.sets > 0 && row.sets != read->sets)
                row.problem(column,
                            fmt::format("{} sets with the conductors, {} in their own column", read->sets, row.sets));
            row.sets = read->sets;
        }
        if (!read->ground.empty()) {
            row.ground = read->ground;
            known(row, read->ground);
        }
        if (read->material) row.material = read->material;
        if (!read->conduit.empty()) row.conduit = read->conduit;
        if (!read->conduitType.empty()) row.conduitType = read->conduitType;
        if (read->guessed)
            row.problem(column,
                        read->conductors > 0
                            ? fmt::format("“{}” is taken as {} conductors of {}, not as {} sets", text,
                                          read->conductors, read->size, read->conductors)
                            : fmt::format("“{}” is taken as {} sets of {}", text, read->sets, read->size),
                        false);
    }
    void cable(FeederRow& row, const std::string& text) {
        for (const CableType& type : book.cables.types)
            if (sameWord(type.name, text)) {
                row.cable = type.name;
                return;
            }
        std::string all;
        for (const CableType& type : book.cables.types) all += (all.empty() ? "" : ", ") + type.name;
        row.problem(column,
                    all.empty() ? "the rule book goes by conduits, not by types of cable"
                                : fmt::format("the rule book has no cable “{}”: {}", text, all),
                    !all.empty());
    }
    /// A size that the rule book does not have would be held all the same, and sized to nothing.
    void known(FeederRow& row, const std::string& size) {
        if (book.find(size) < 0) row.problem(column, fmt::format("the rule book has no size {}", size));
    }

    void conduit(FeederRow& row, const std::string& text) {
        const auto read = readConduit(text);
        if (!read) return row.problem(column, read.error().what + ". " + read.error().help);
        row.conduit = read->size;
        row.conduitType = read->type;
    }

    void length(FeederRow& row, const std::string& text) {
        std::optional<double> metres = typedNumber(text, decimal);
        if (metres) {
            metres = *metres * (how.lengths == UnitSystem::Imperial ? metresPerFoot : 1);
            ++bareLengths;
        } else {
            metres = metresFrom(text, how.lengths);
        }
        if (!metres || *metres < 0 || *metres > 100000) return refuse(row, text, "a length: 120 ft, 36 m");
        row.length = *metres;
    }

    void fault(FeederRow& row, const std::string& text) {
        const auto typed = readTyped(text, "kA", decimal);
        if (!typed) return refuse(row, text, "a fault current: 22 kA, 22,000 A");
        double kA = *typed;
        // Nobody has so many kA: what has no unit is in A then.
        if (kA >= 500 && typedNumber(text, decimal)) {
            kA /= 1000;
            row.problem(column, fmt::format("“{}” is taken as {} kA", text, figures(kA)), false);
        }
        if (kA <= 0 || kA > 500) return refuse(row, text, "a fault current: 22 kA, 22,000 A");
        row.faultKA = kA;
    }
};

/// One row twice, or two that say the same thing of one feeder.
void findTwice(FeederList& list, int tagColumn, int toColumn) {
    std::unordered_map<std::string, int> tags, ends;
    for (FeederRow& row : list.rows) {
        if (!row.tag.empty()) {
            const auto [it, once] = tags.try_emplace(lowered(row.tag), row.line);
            if (!once)
                row.problem(tagColumn, fmt::format("the feeder {} stands in line {} already", row.tag, it->second));
        }
        if (row.to.empty()) continue;
        const auto [it, once] = ends.try_emplace(lowered(row.from) + "\n" + lowered(row.to), row.line);
        if (!once)
            row.problem(toColumn,
                        fmt::format("a feeder from {} to {} stands in line {} already", row.from, row.to, it->second));
    }
}

} // namespace

std::optional<LoadUnit> loadUnitInHeading(const std::string& heading) {
    for (const std::string& word : headingWords(heading)) {
        if (word == "fla" || word == "amps") return LoadUnit::A;
        if (const auto unit = loadUnitFrom(word); unit && word.size() > 1) return unit;
    }
    return std::nullopt;
}

FeederSettings guessFeederSettings(const Grid& grid, UnitSystem units) {
    const ColumnGuess guess = guessColumns(grid, weigh);
    FeederSettings s;
    s.headerRow = guess.headerRow;
    s.decimal = guess.decimal;
    s.lengths = units;
    for (std::size_t c = 0; c < guess.columns.size(); ++c) {
        s.columns.push_back(FeederField(guess.columns[c]));
        if (s.headerRow < 0) continue;
        const std::string heading = cellAt(grid, std::size_t(s.headerRow), c);
        if (s.columns.back() == FeederField::Load)
            if (const auto u = loadUnitInHeading(heading)) s.unit = *u;
        if (s.columns.back() == FeederField::Length)
            if (const auto u = lengthsIn(heading)) s.lengths = *u;
    }
    return s;
}

int FeederList::entering() const {
    return int(std::count_if(rows.begin(), rows.end(), [](const FeederRow& r) { return r.enters(); }));
}
int FeederList::stopped() const {
    return int(std::count_if(rows.begin(), rows.end(), [](const FeederRow& r) { return !r.leftOut && r.stops(); }));
}

FeederList readFeeders(const Grid& grid, const FeederSettings& s, const RuleBook& book) {
    FeederList list;
    list.notes = grid.notes;
    RowReader reader(grid, s, book);
    const std::size_t width = s.headerRow >= 0 ? grid.rows[std::size_t(s.headerRow)].size() : 0;
    int totals = 0;
    for (std::size_t r = std::size_t(s.headerRow + 1); r < grid.rows.size(); ++r) {
        if (isEmptyRow(grid.rows[r])) continue;
        if (isTotalRow(grid.rows[r])) {
            ++totals;
            continue;
        }
        FeederRow row = reader.read(r);
        if (longerThanHeading(grid.rows[r], width))
            row.problem(
                -1,
                fmt::format("the row has {} under {}", counted(grid.rows[r].size(), "cell"), counted(width, "heading")),
                false);
        list.rows.push_back(std::move(row));
    }
    findTwice(list, reader.columnOf(FeederField::Tag), reader.columnOf(FeederField::To));
    for (const auto& [field, words] :
         {std::pair{FeederField::To, "no column says what is fed: choose the one that does"},
          {FeederField::From, "no column says what feeds it: choose the one that does"}})
        if (reader.columnOf(field) < 0) list.notes.push_back(words);
    if (totals) list.notes.push_back(fmt::format("{} {} of totals passed over", totals, totals == 1 ? "row" : "rows"));
    const auto headingOf = [&](FeederField f) {
        const int c = reader.columnOf(f);
        return c >= 0 && s.headerRow >= 0 ? cellAt(grid, std::size_t(s.headerRow), std::size_t(c)) : std::string();
    };
    if (reader.bareLoads && !loadUnitInHeading(headingOf(FeederField::Load)))
        list.notes.push_back(fmt::format("{} {} no unit in cell or heading: taken as {}", reader.bareLoads,
                                         reader.bareLoads == 1 ? "load has" : "loads have", wordOf(s.unit)));
    if (reader.bareLengths && !lengthsIn(headingOf(FeederField::Length)))
        list.notes.push_back(fmt::format("{} {} no unit in cell or heading: taken as {}", reader.bareLengths,
                                         reader.bareLengths == 1 ? "length has" : "lengths have",
                                         s.lengths == UnitSystem::Metric ? "m" : "ft"));
    if (list.rows.empty()) list.notes.push_back("no row of the list holds a feeder");
    return list;
}

} // namespace lintel
