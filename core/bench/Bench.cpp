#include "core/bench/Bench.h"
#include "core/base/Json.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"

#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/bench/BenchInputs.h"
#include "core/project/TypedLoads.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace lintel {

using nlohmann::ordered_json;

extern const BenchKind conductorBench, ocpdBench, dropBench, faultBench, conduitBench, motorBench, motorsBench,
    transformerBench, demandBench, egcBench, capacitorBench, cableBench, loopBench, ringBench, maximumDemandBench,
    pfcBench, outletsBench, adiabaticBench, bondingBench;

const std::vector<const BenchKind*>& benchKinds() {
    static const std::vector<const BenchKind*> kinds{
        &conductorBench,   &cableBench,  &loopBench,    &ringBench,  &maximumDemandBench, &pfcBench,   &adiabaticBench,
        &bondingBench,     &ocpdBench,   &dropBench,    &faultBench, &conduitBench,       &motorBench, &motorsBench,
        &transformerBench, &demandBench, &outletsBench, &egcBench,   &capacitorBench};
    return kinds;
}

const BenchKind* benchKind(const std::string& name) {
    for (const BenchKind* k : benchKinds())
        if (k->name == name) return k;
    return nullptr;
}

Error unsuited(const BenchKind& kind, const RuleBook& book) {
    return {kind.name,
            fmt::format("{} does not go by {}", book.title,
                        kind.books == BenchFor::Cables ? "cables and the way they are laid" : "terminals and raceways"),
            "Choose a rule book it is for, or another sum."};
}

Outcome<BenchAnswer> bench(const BenchKind& kind, const nlohmann::json& entered, const RuleBook& book) {
    if (!kind.suits(book)) return unsuited(kind, book);
    try {
        const BenchInputs in(kind, kind.fields(book), entered);
        BenchAnswer a = kind.work(in, book);
        if (a.working.title.empty()) a.working.title = kind.title;
        for (const std::string& own : book.overridden())
            a.cautions.push_back("own value in place of the rule book's: " + own);
        return a;
    } catch (const BenchRefusal& refusal) {
        return refusal.error;
    } catch (const std::exception& e) {
        return Error{kind.name, std::string("it could not be worked out: ") + e.what(),
                     "Change what was entered, and please report it."};
    }
}

ordered_json BenchAnswer::operator[](const std::string& key) const {
    for (const BenchFigure& f : figures)
        if (f.key == key) return f.value;
    return nullptr;
}

namespace {
/// A figure under a heading with a unit is a number; a size or a name stays text.
ordered_json cell(const std::string& heading, const std::string& text) {
    static constexpr std::string_view units[] = {"VA",   "kVA", "W",  "kW", "A",   "kA", "V",
                                                 "kvar", "%",   "ft", "m",  "mm²", "Ω",  "X/R"};
    if (std::none_of(std::begin(units), std::end(units), [&](std::string_view u) {
            return heading == u ||
                   (heading.size() > u.size() && heading.ends_with(u) && heading[heading.size() - u.size() - 1] == ' ');
        }))
        return text;
    if (text.empty()) return nullptr; // not worked out
    const auto v = numberFrom(text);
    return v ? ordered_json(*v) : ordered_json(text);
}
} // namespace

ordered_json BenchAnswer::json() const {
    ordered_json out = ordered_json::object();
    for (const BenchFigure& f : figures)
        if (!f.key.empty()) out[f.key] = f.value;
    if (!rows.empty()) {
        out["rows"] = ordered_json::array();
        for (const auto& row : rows) {
            ordered_json r = ordered_json::object();
            for (std::size_t i = 0; i < columns.size() && i < row.size(); ++i) r[columns[i]] = cell(columns[i], row[i]);
            out["rows"].push_back(std::move(r));
        }
    }
    if (!cautions.empty()) out["cautions"] = cautions;
    out["working"] = working.json();
    return out;
}

std::string BenchAnswer::text() const {
    std::string out = working.title + "\n";
    const auto letters = [](const std::string& s) {
        return std::size_t(std::count_if(s.begin(), s.end(), [](unsigned char c) { return (c & 0xC0) != 0x80; }));
    };
    std::size_t wide = 0;
    for (const BenchFigure& f : figures) wide = std::max(wide, letters(f.label));
    for (const BenchFigure& f : figures)
        if (!f.label.empty()) out += "  " + f.label + std::string(wide - letters(f.label) + 2, ' ') + f.text + "\n";
    std::vector<std::size_t> widths;
    const auto widen = [&](const std::vector<std::string>& row) {
        widths.resize(std::max(widths.size(), row.size()));
        for (std::size_t i = 0; i < row.size(); ++i) widths[i] = std::max(widths[i], letters(row[i]));
    };
    const auto put = [&](const std::vector<std::string>& row) {
        out += " ";
        for (std::size_t i = 0; i < row.size(); ++i)
            out += " " + row[i] + (i + 1 < row.size() ? std::string(widths[i] - letters(row[i]) + 1, ' ') : "");
        out += "\n";
    };
    if (!rows.empty()) {
        widen(columns);
        for (const auto& row : rows) widen(row);
        put(columns);
        for (const auto& row : rows) put(row);
    }
    for (const std::string& c : cautions) out += "  ! " + c + "\n";
    return out + "\n" + working.text();
}

Outcome<CircuitId> makeCircuit(Project& p, BoardId board, const BenchCircuit& c) {
    const Board* b = p.boards.find(board);
    if (!b) return Error{"bench", "there is no board to put the circuit on", "Choose a board in the project first."};
    if (b->system != c.system)
        return Error{b->name,
                     fmt::format("it is {}, the circuit was worked out for {}", wordOf(b->system), wordOf(c.system)),
                     "Choose a board of that system, or the board's system on the bench."};
    if (!firstFreeSlot(p, board, c.poles))
        return Error{b->name, fmt::format("there is no place for {} {}", c.poles, c.poles == 1 ? "pole" : "poles"),
                     "Choose another board, or free a slot."};
    const CircuitId id = addCircuit(p, board, c.poles, c.name);
    Load load = c.load;
    load.circuit = id;
    load.name = c.name;
    p.loads.add(load);
    Run& run = runOf(p, id);
    const RunId runId = run.id;
    Run set = c.run;
    set.id = runId;
    set.name = run.name;
    if (c.length) set.lengthBy = LengthBy::Entered, set.length = c.length->v;
    run = set;
    return id;
}

// ---- what was entered ----

std::optional<BenchLoad> loadFrom(const std::string& text, LoadUnit unit) {
    // Below nothing is understood as well: whoever asks refuses it in words of its own.
    const std::string t = trimmed(text);
    const bool below = !t.empty() && t.front() == '-';
    auto typed = loadFrom(std::string_view(t).substr(below), '.');
    if (typed && below) typed->amount = -typed->amount;
    return typed ? std::optional(BenchLoad{typed->amount, typed->unit.value_or(unit)}) : std::nullopt;
}

std::string benchLength(Metres m, UnitSystem units) {
    return units == UnitSystem::Imperial ? lintel::number(inFeet(m)) + " ft" : lintel::number(m.v, 1) + " m";
}

namespace {
/// "#12", "4/0 AWG", "250 kcmil", "2.5 mm²": the size as the book names it.
/// A size of a conductor as the book names it, whatever its unit; other words as they are.
std::string plainSize(const std::string& v) {
    const auto typed = typedSize(v);
    return typed && typed->sets == 0 ? typed->size : v;
}

/// The choice that a word stands for: whatever its case, "Cu" and "Al", a size with its unit; else the word as it is.
std::string chosen(const BenchField& f, const std::string& word) {
    if (std::find(f.choices.begin(), f.choices.end(), word) != f.choices.end()) return word;
    const auto same = [&](const std::string& other) {
        for (const std::string& c : f.choices)
            if (sameWord(c, other)) return c;
        return std::string();
    };
    for (const std::string& other : {word,
                                     sameWord(word, "cu")                                 ? std::string("copper")
                                     : sameWord(word, "al") || sameWord(word, "aluminum") ? std::string("aluminium")
                                                                                          : std::string(),
                                     plainSize(word)})
        if (const std::string c = same(other); !c.empty()) return c;
    if (f.open)
        if (const std::string c = f.open(word); !c.empty()) return c;
    // The beginning of one choice alone, in whole words: "B" of "B, energy-efficient".
    std::string only;
    for (const std::string& c : f.choices)
        if (!word.empty() && c.size() > word.size() && sameWord(c.substr(0, word.size()), word) &&
            !isLetter(c[word.size()]) && !isDigit(c[word.size()])) {
            if (!only.empty()) return word;
            only = c;
        }
    return only.empty() ? word : only;
}
} // namespace

std::string choicesOf(const BenchField& field) {
    const bool commas = std::any_of(field.choices.begin(), field.choices.end(),
                                    [](const std::string& c) { return c.find(',') != std::string::npos; });
    std::string out;
    for (const std::string& c : field.choices) out += (out.empty() ? "" : commas ? "; " : ", ") + c;
    return out;
}

BenchInputs::BenchInputs(const BenchKind& kind, std::vector<BenchField> fields, const nlohmann::json& entered)
    : name(kind.name), all(std::move(fields)) {
    if (!entered.is_object())
        throw BenchRefusal{{name, "expected a JSON object with the fields of this sum",
                            "for instance {\"" + all.front().key + "\": \"" + all.front().value + "\"}"}};
    for (const BenchField& f : all) {
        values[f.key] = f.value;
        if (f.type == BenchField::Type::Length && f.unit == "m")
            unitSystem = UnitSystem::Metric; // where the sum does not ask
    }
    for (const auto& [key, j] : entered.items()) {
        const auto f = std::find_if(all.begin(), all.end(), [&, k = key](const BenchField& x) { return x.key == k; });
        if (f == all.end()) {
            std::string known;
            for (const BenchField& x : all) known += (known.empty() ? "" : ", ") + x.key;
            throw BenchRefusal{{name + "." + key, "there is no such field", "The fields are: " + known}};
        }
        if (j.is_array()) {
            if (f->type != BenchField::Type::Lines) refuse(key, "expected one value, found a list");
            std::vector<std::string>& list = lists[key];
            for (const auto& e : j) {
                if (!e.is_string()) refuse(key, "each line is a text in quotes", f->help);
                list.push_back(e.get<std::string>());
            }
        } else if (j.is_string())
            values[key] = trimmed(j.get<std::string>());
        else if (j.is_number())
            values[key] = fmt::format("{}", j.get<double>());
        else if (j.is_boolean())
            values[key] = j.get<bool>() ? "yes" : "no";
        else if (j.is_null())
            values[key] = "";
        else
            refuse(key, "expected a text or a number, found " + seen(j));
    }
    for (const BenchField& f : all) {
        std::string& v = values[f.key];
        if (f.type == BenchField::Type::Choice) v = chosen(f, v);
        if (f.type == BenchField::Type::Choice && !(f.open && f.open(v) == v) &&
            std::find(f.choices.begin(), f.choices.end(), v) == f.choices.end()) {
            if (f.open) refuse(f.key, "there is no choice \"" + v + "\"", f.help);
            refuse(f.key, "there is no choice \"" + v + "\"", "Choose one of: " + choicesOf(f));
        }
        if (f.type == BenchField::Type::Flag)
            for (const auto& [other, word] : {std::pair{"y", "yes"}, {"true", "yes"}, {"n", "no"}, {"false", "no"}})
                if (sameWord(v, other) || sameWord(v, word)) v = word;
        if (f.type == BenchField::Type::Flag && v != "yes" && v != "no")
            refuse(f.key, "expected yes or no, found \"" + v + "\"");
    }
    if (values.count("units")) unitSystem = values["units"] == "metric" ? UnitSystem::Metric : UnitSystem::Imperial;
}

void BenchInputs::refuse(const std::string& key, const std::string& what, const std::string& help) const {
    throw BenchRefusal{{name + "." + key, what, help}};
}

const BenchField& BenchInputs::field(const std::string& key) const {
    for (const BenchField& f : all)
        if (f.key == key) return f;
    refuse(key, "this sum does not ask for it");
}

std::optional<double> BenchInputs::maybe(const std::string& key) const {
    const BenchField& f = field(key);
    const std::string v = values.at(key);
    if (v.empty() || v == "auto") return std::nullopt;
    auto typed = readTyped(v, f.unit);
    if (!typed && !f.unit.empty() && v.size() > f.unit.size() &&
        v.compare(v.size() - f.unit.size(), f.unit.size(), f.unit) == 0)
        typed = readTyped(v.substr(0, v.size() - f.unit.size()), ""); // a unit that nothing is converted to
    if (!typed)
        refuse(key, fmt::format("\"{}\" is not a number{}", v, f.unit.empty() ? "" : " of " + f.unit),
               f.help.empty() ? typed.error().help : f.help);
    const double x = *typed;
    if (x < f.least || x > f.most)
        refuse(key, fmt::format("{} is outside {} … {}{}", x, f.least, f.most, f.unit.empty() ? "" : " " + f.unit),
               f.help);
    return x;
}
double BenchInputs::number(const std::string& key) const {
    if (const auto x = maybe(key)) return *x;
    refuse(key, "a number is needed here", field(key).help);
}
std::optional<Metres> BenchInputs::maybeLength(const std::string& key) const {
    const std::string v = values.at(field(key).key);
    if (v.empty()) return std::nullopt;
    const auto m = metresFrom(v, unitSystem);
    if (!m && readTyped(v, unitSystem == UnitSystem::Imperial ? "ft" : "m"))
        refuse(key, "\"" + v + "\" is outside 0 … 100 km");
    if (!m) refuse(key, "\"" + v + "\" is not a length", "Type 120 ft, 36 m or 6' 8\".");
    return Metres{*m};
}
Metres BenchInputs::length(const std::string& key) const {
    if (const auto m = maybeLength(key)) return *m;
    refuse(key, "a length is needed here", "Type 120 ft or 36 m.");
}
BenchLoad BenchInputs::load(const std::string& key) const {
    const std::string v = values.at(field(key).key);
    const auto l = loadFrom(v, fromWord<LoadUnit>(field(key).unit).value_or(LoadUnit::A));
    if (!l) refuse(key, "\"" + v + "\" is not a load", "Type 16 A, 1500 VA, 3.5 kVA, 900 W, 2 kW or 10 hp.");
    if (l->amount <= 0 || l->amount > 1e9) refuse(key, "\"" + v + "\": a load must be above zero");
    return *l;
}
std::string BenchInputs::text(const std::string& key) const { return values.at(field(key).key); }

SizeIndex BenchInputs::size(const std::string& key, const RuleBook& book) const {
    std::string v = values.at(field(key).key);
    if (v == "auto" || v.empty()) return -1;
    v = plainSize(v);
    const SizeIndex s = book.find(v);
    if (s < 0) refuse(key, "there is no conductor size \"" + v + "\"", "For instance 12, 1/0 or 250.");
    return s;
}
VoltageSystem BenchInputs::system(const std::string& key) const {
    const VoltageSystem s = anySystem(key);
    if (isMediumVoltage(s))
        refuse(key, fmt::format("{} V: this sum is for up to {} V", wordOf(s), lintel::number(lowVoltageUpTo.v)),
               "Fault levels and transformers can be worked out from medium voltage.");
    return s;
}
VoltageSystem BenchInputs::anySystem(const std::string& key) const {
    const auto s = systemFrom(text(key));
    if (!s) refuse(key, "there is no voltage system \"" + text(key) + "\"", systemHelp);
    return *s;
}
std::vector<std::string> BenchInputs::lines(const std::string& key) const {
    const BenchField& f = field(key);
    std::vector<std::string> out;
    const auto take = [&](const std::string& whole) {
        std::size_t from = 0;
        while (from <= whole.size()) {
            const std::size_t to = std::min(whole.find_first_of("\n;", from), whole.size());
            if (const std::string line = trimmed(whole.substr(from, to - from)); !line.empty()) {
                // Before it is taken apart by patterns, which a very long line would exhaust.
                if (line.size() > limits::typedLine)
                    refuse(key, fmt::format("line {} is longer than {} letters", out.size() + 1, limits::typedLine),
                           f.help);
                if (out.size() >= limits::typedLines)
                    refuse(key, fmt::format("there are more than {} lines", limits::typedLines),
                           "Put equal things together: 20 × 3 kW.");
                out.push_back(line);
            }
            from = to + 1;
        }
    };
    if (const auto it = lists.find(f.key); it != lists.end())
        for (const std::string& l : it->second) take(l);
    else
        take(values.at(f.key));
    return out;
}

BenchField systemField(const char* value, const char* key, const char* label) {
    std::vector<std::string> words;
    for (const VoltageSystem& s : usualSystems()) words.push_back(wordOf(s));
    return {.key = key,
            .label = label,
            .type = BenchField::Type::Choice,
            .value = value,
            .unit = "V",
            .choices = words,
            .open =
                [](const std::string& typed) {
                    const auto s = systemFrom(typed);
                    return s ? wordOf(*s) : std::string();
                },
            .help = systemHelp};
}
BenchField sizeField(const char* key, const char* label, const RuleBook& book, bool automatic, const char* value) {
    BenchField f{.key = key, .label = label, .type = BenchField::Type::Choice, .value = value};
    if (automatic) f.choices.push_back("auto");
    for (const ConductorSize& s : book.sizes()) f.choices.push_back(s.name);
    return f;
}
std::vector<std::string> deviceKinds(const RuleBook& book) {
    std::vector<std::string> words;
    for (const auto& [kind, word] : EnumText<DeviceKind>::words)
        if (book.metric() ? book.cables.trips.count(kind) > 0 : kind <= DeviceKind::TimeDelayFuse)
            words.push_back(word);
    return words;
}
BenchField materialField() {
    return {.key = "material",
            .label = "Conductors",
            .type = BenchField::Type::Choice,
            .value = "copper",
            .choices = benchWords<Material>()};
}
BenchField conduitField(const RuleBook& book) {
    BenchField f{.key = "conduit", .label = "Conduit", .type = BenchField::Type::Choice, .value = "EMT"};
    for (const ConduitType& t : book.tables.conduits) f.choices.push_back(t.name);
    return f;
}
BenchField unitsField() {
    return {.key = "units",
            .label = "Lengths in",
            .type = BenchField::Type::Choice,
            .value = "imperial",
            .choices = benchWords<UnitSystem>()};
}

} // namespace lintel
