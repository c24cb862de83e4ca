#include "core/base/Typed.h"

#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/Utf8.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <fmt/format.h>
#include <vector>

namespace lintel {

namespace {

/// What kind of thing a unit measures. Real and apparent power are two things: a power factor lies between them.
enum class Kind {
    Number,
    Current,
    Voltage,
    Apparent,
    Real,
    Reactive,
    Shaft,
    Resistance,
    Length,
    Temperature,
    Angle,
    Share,
    Resistivity,
    Light,
    Illuminance,
    Density,
    Energy,
    Line
};

struct Unit {
    const char* symbol; ///< in small letters, as it is compared
    Kind kind;
    double factor, offset = 0; ///< to the base of its kind: value · factor + offset
};
constexpr Unit units[] = {
    {"a", Kind::Current, 1},
    {"amp", Kind::Current, 1},
    {"amps", Kind::Current, 1},
    {"ampere", Kind::Current, 1},
    {"amperes", Kind::Current, 1},
    {"ma", Kind::Current, 0.001},
    {"ka", Kind::Current, 1000},
    {"kaic", Kind::Current, 1000},
    {"v", Kind::Voltage, 1},
    {"volt", Kind::Voltage, 1},
    {"volts", Kind::Voltage, 1},
    {"kv", Kind::Voltage, 1000},
    {"va", Kind::Apparent, 1},
    {"kva", Kind::Apparent, 1000},
    {"mva", Kind::Apparent, 1e6},
    {"w", Kind::Real, 1},
    {"watt", Kind::Real, 1},
    {"watts", Kind::Real, 1},
    {"kw", Kind::Real, 1000},
    {"mw", Kind::Real, 1e6},
    {"var", Kind::Reactive, 1},
    {"kvar", Kind::Reactive, 1000},
    {"hp", Kind::Shaft, 1},
    {"bhp", Kind::Shaft, 1},
    {"horsepower", Kind::Shaft, 1},
    {"Ω", Kind::Resistance, 1},
    {"ω", Kind::Resistance, 1},
    {"ohm", Kind::Resistance, 1},
    {"ohms", Kind::Resistance, 1},
    {"mΩ", Kind::Resistance, 0.001},
    {"mω", Kind::Resistance, 0.001},
    {"mohm", Kind::Resistance, 0.001},
    {"m", Kind::Length, 1},
    {"metre", Kind::Length, 1},
    {"metres", Kind::Length, 1},
    {"meter", Kind::Length, 1},
    {"meters", Kind::Length, 1},
    {"mm", Kind::Length, 0.001},
    {"cm", Kind::Length, 0.01},
    {"km", Kind::Length, 1000},
    {"ft", Kind::Length, 0.3048},
    {"feet", Kind::Length, 0.3048},
    {"foot", Kind::Length, 0.3048},
    {"'", Kind::Length, 0.3048},
    {"in", Kind::Length, 0.0254},
    {"\"", Kind::Length, 0.0254},
    {"°c", Kind::Temperature, 1},
    {"c", Kind::Temperature, 1},
    {"degc", Kind::Temperature, 1},
    {"°f", Kind::Temperature, 5.0 / 9, -160.0 / 9},
    {"f", Kind::Temperature, 5.0 / 9, -160.0 / 9},
    {"degf", Kind::Temperature, 5.0 / 9, -160.0 / 9},
    {"°", Kind::Angle, 1},
    {"deg", Kind::Angle, 1},
    {"degrees", Kind::Angle, 1},
    {"%", Kind::Share, 1},
    {"percent", Kind::Share, 1},
    {"%z", Kind::Share, 1},
    {"k·m/w", Kind::Resistivity, 1},
    {"km/w", Kind::Resistivity, 1},
    {"k m/w", Kind::Resistivity, 1},
    {"k.m/w", Kind::Resistivity, 1},
    {"lm", Kind::Light, 1},
    {"lumen", Kind::Light, 1},
    {"lumens", Kind::Light, 1},
    {"lx", Kind::Illuminance, 1},
    {"lux", Kind::Illuminance, 1},
    {"fc", Kind::Illuminance, 10.7639},
    {"w/m²", Kind::Density, 1},
    {"va/m²", Kind::Density, 1},
    {"w/m2", Kind::Density, 1},
    {"va/m2", Kind::Density, 1},
    {"w/ft²", Kind::Density, 10.7639},
    {"va/ft²", Kind::Density, 10.7639},
    {"w/ft2", Kind::Density, 10.7639},
    {"va/ft2", Kind::Density, 10.7639},
    {"a²s", Kind::Energy, 1},
    {"a2s", Kind::Energy, 1},
    {"ka²s", Kind::Energy, 1e6},
    {"ka2s", Kind::Energy, 1e6},
    {"mΩ/m", Kind::Line, 1},
    {"mω/m", Kind::Line, 1},
    {"mohm/m", Kind::Line, 1},
    {"Ω/km", Kind::Line, 1},
    {"ω/km", Kind::Line, 1},
    {"ohm/km", Kind::Line, 1},
    {"µΩ/m", Kind::Line, 0.001},
    {"µω/m", Kind::Line, 0.001},
    {"μω/m", Kind::Line, 0.001},
    {"mΩ/100 ft", Kind::Line, 1 / 30.48},
    {"mΩ/100ft", Kind::Line, 1 / 30.48},
    {"mω/100 ft", Kind::Line, 1 / 30.48},
    {"mω/100ft", Kind::Line, 1 / 30.48},
    {"mohm/100 ft", Kind::Line, 1 / 30.48},
    {"mohm/100ft", Kind::Line, 1 / 30.48},
    {"Ω/1000 ft", Kind::Line, 1 / 0.3048},
    {"Ω/1000ft", Kind::Line, 1 / 0.3048},
    {"ω/1000 ft", Kind::Line, 1 / 0.3048},
    {"ω/1000ft", Kind::Line, 1 / 0.3048},
    {"ohm/1000 ft", Kind::Line, 1 / 0.3048},
    {"ohm/1000ft", Kind::Line, 1 / 0.3048},
};
constexpr const char* names[] = {"a number",
                                 "a current",
                                 "a voltage",
                                 "an apparent power",
                                 "a real power",
                                 "a reactive power",
                                 "a shaft power",
                                 "a resistance",
                                 "a length",
                                 "a temperature",
                                 "an angle",
                                 "a share",
                                 "a thermal resistivity",
                                 "a luminous flux",
                                 "an illuminance",
                                 "a load by area",
                                 "an energy let through",
                                 "an impedance by length"};
constexpr const char* typed[] = {"a number without a unit",
                                 "A, mA or kA",
                                 "V or kV",
                                 "VA, kVA or MVA",
                                 "W, kW or MW",
                                 "var or kvar",
                                 "hp",
                                 "Ω or mΩ",
                                 "m, mm, cm, ft or in",
                                 "°C or °F",
                                 "degrees",
                                 "%",
                                 "K·m/W",
                                 "lm",
                                 "lx or fc",
                                 "W/m² or VA/ft²",
                                 "A²s or kA²s",
                                 "mΩ/m, mΩ/100 ft, Ω/km or Ω/1000 ft"};

const Unit* find(std::string_view symbol) {
    const std::string s = lowered(symbol);
    // Case is forgiven but where it means a thousand millions: "MW" is not "mW", nor "mΩ" "MΩ".
    if ((s == "mw" || s == "mva") && symbol.front() != 'M') return nullptr;
    for (const char* milli : {"mΩ", "mω", "mohm"})
        if (s.rfind(milli, 0) == 0 && symbol.front() != 'm') return nullptr;
    for (const Unit& u : units)
        if (s == u.symbol) return &u;
    return nullptr;
}

struct Vulgar {
    const char* sign;
    double value;
};
constexpr Vulgar vulgar[] = {{"½", 1.0 / 2}, {"⅓", 1.0 / 3}, {"⅔", 2.0 / 3}, {"¼", 1.0 / 4},
                             {"¾", 3.0 / 4}, {"⅕", 1.0 / 5}, {"⅙", 1.0 / 6}, {"⅛", 1.0 / 8},
                             {"⅜", 3.0 / 8}, {"⅝", 5.0 / 8}, {"⅞", 7.0 / 8}};

bool allDigits(std::string_view t) { return !t.empty() && std::all_of(t.begin(), t.end(), isDigit); }

/// "1/2", "3/16", as the trade divides; below one. "30/2" is no amount, but two poles of 30, and "120/208" two
/// voltages.
std::optional<double> fraction(std::string_view t) {
    const auto slash = t.find('/');
    if (slash == std::string_view::npos || slash > 3 || t.size() - slash - 1 > 3 || !allDigits(t.substr(0, slash)) ||
        !allDigits(t.substr(slash + 1)))
        return std::nullopt;
    const double below = *plainNumber(t.substr(slash + 1));
    const double above = *plainNumber(t.substr(0, slash));
    const bool divides = below == 3 || below == 5 || below == 6 || below == 10 ||
                         (std::has_single_bit(unsigned(below)) && below > 1 && below <= 64);
    return divides && above < below ? std::optional(above / below) : std::nullopt;
}

/// Cut to what fits a message.
std::string shown(const std::string& t) { return t.size() > 40 ? std::string(cutUtf8(t, 37)) + "…" : t; }

/// Takes `end` off the back of a text, blanks before it too; whether it stood there.
bool takeEnd(std::string& text, std::string_view end) {
    if (text.size() <= end.size() || text.compare(text.size() - end.size(), end.size(), end) != 0) return false;
    text = trimmed(std::string_view(text).substr(0, text.size() - end.size()));
    return true;
}

/// What may stand behind a number of poles or phases.
bool wordsOfPoles(std::string_view rest) {
    static constexpr std::string_view known[] = {"",  "p", "ph", "phase", "phases", "pole", "poles", "~",
                                                 "φ", "ø", "pn", "p+n",   "p n",    "ph+n", "p+n+e"};
    std::string t = lowered(trimmed(rest));
    if (!t.empty() && t.front() == '-') t = trimmed(std::string_view(t).substr(1));
    takeEnd(t, ".");
    return std::find(std::begin(known), std::end(known), t) != std::end(known);
}

} // namespace

std::optional<double> typedNumber(std::string_view text, char decimal) {
    const std::string t = trimmed(text);
    if (t.empty() || t.size() > limits::typedLine) return std::nullopt;
    for (const Vulgar& v : vulgar) // "7½"
        if (t.size() >= std::string_view(v.sign).size() &&
            std::string_view(t).substr(t.size() - std::string_view(v.sign).size()) == v.sign) {
            const std::string whole =
                trimmed(std::string_view(t).substr(0, t.size() - std::string_view(v.sign).size()));
            if (whole.empty()) return v.value;
            return allDigits(whole) && whole.size() < 7 ? std::optional(*plainNumber(whole) + v.value) : std::nullopt;
        }
    if (t.find('/') == std::string::npos) return numberFrom(t, decimal);
    if (const auto f = fraction(t)) return f;
    const auto gap = t.find_first_of("- "); // "7-1/2", "7 1/2"
    if (gap == std::string::npos || gap == 0 || gap > 6 || !allDigits(std::string_view(t).substr(0, gap)))
        return std::nullopt;
    const auto f = fraction(std::string_view(t).substr(gap + 1));
    return f ? std::optional(*plainNumber(std::string_view(t).substr(0, gap)) + *f) : std::nullopt;
}

Outcome<double> readTyped(std::string_view text, std::string_view unit, char decimal) {
    const std::string t = trimmed(text);
    const Unit* wanted = unit.empty() ? nullptr : find(unit);
    const Kind kind = wanted ? wanted->kind : Kind::Number;
    const auto refuse = [&](const std::string& what) {
        return Error{"", fmt::format("“{}” is not {}", shown(t), what),
                     fmt::format("Type {}.",
                                 kind == Kind::Number ? typed[0] : fmt::format("a number, in {}", typed[int(kind)]))};
    };
    if (t.size() > limits::typedLine) return refuse(names[int(kind)]);
    // The unit is the longest end that is one; what stands before it has to be a number, all of it.
    for (std::size_t at = 0; at <= t.size(); ++at) {
        if (at < t.size() && (static_cast<unsigned char>(t[at]) & 0xC0) == 0x80) continue; // within a sign
        const auto number = typedNumber(std::string_view(t).substr(0, at), decimal);
        const std::string rest = trimmed(std::string_view(t).substr(at));
        if (!number) continue;
        if (rest.empty()) return *number;
        const Unit* said = find(rest);
        if (!said) continue;
        if (said->kind != kind) return refuse(std::string(names[int(kind)]));
        return (*number * said->factor + said->offset - wanted->offset) / wanted->factor;
    }
    return refuse(names[int(kind)]);
}

Outcome<double> readShare(std::string_view text, const char* what, char decimal) {
    const std::string t = trimmed(text);
    const auto plain = typedNumber(t, decimal);
    if (plain) return *plain;
    const auto percent = readTyped(t, "%", decimal);
    if (!percent) return Error{"", fmt::format("“{}” is not {}", shown(t), what), "Type 0.85 or 85 %."};
    return *percent / 100;
}

std::optional<int> takeCount(std::string& text) {
    std::size_t end = 0;
    while (end < text.size() && isDigit(text[end])) ++end;
    if (end == 0 || end > 6) return std::nullopt;
    std::size_t sign = end;
    while (sign < text.size() && text[sign] == ' ') ++sign;
    const std::string times = "×";
    std::size_t after = sign;
    if (text.compare(sign, times.size(), times) == 0)
        after += times.size();
    else if (sign < text.size() && text[sign] == '*')
        after += 1;
    else if (sign < text.size() && lower(text[sign]) == 'x' && !(sign + 1 < text.size() && isLetter(text[sign + 1])))
        after += 1;
    else
        return std::nullopt;
    const int count = int(*plainNumber(text.substr(0, end)));
    text = trimmed(std::string_view(text).substr(after));
    return count;
}

std::optional<TypedSize> typedSize(std::string_view text) {
    std::string t = trimmed(text);
    if (t.size() > limits::typedLine) return std::nullopt;
    TypedSize out;
    if (const auto sets = takeCount(t)) {
        if (*sets < 1) return std::nullopt;
        out.sets = *sets;
    }
    if (!t.empty() && t.front() == '#') t = trimmed(std::string_view(t).substr(1));
    std::string low = lowered(t);
    for (const char* unit : {"awg", "kcmil", "mcm", "mm²", "mm2", "sq mm", "sqmm"})
        if (takeEnd(low, unit)) break;
    if (const auto slash = low.find('/'); slash != std::string::npos) { // 1/0 … 4/0
        if (slash != 1 || low.size() != 3 || low[0] < '1' || low[0] > '4' || low[2] != '0') return std::nullopt;
        out.size = low;
        return out;
    }
    if (low.empty() || !isDigit(low.front())) return std::nullopt;
    const auto number = typedNumber(low);
    if (!number || *number <= 0) return std::nullopt;
    out.size = fmt::format("{}", *number);
    return out;
}

std::optional<int> typedPoles(std::string_view text, char decimal) {
    const std::string t = lowered(trimmed(text));
    if (const auto v = typedNumber(t, decimal))
        return *v == 1 || *v == 2 || *v == 3 ? std::optional(int(*v)) : std::nullopt;
    if (t.empty()) return std::nullopt;
    if (t[0] >= '1' && t[0] <= '3')
        return wordsOfPoles(std::string_view(t).substr(1)) ? std::optional(t[0] - '0') : std::nullopt;
    for (const auto& [word, n] :
         {std::pair{"single", 1}, {"one", 1}, {"two", 2}, {"double", 2}, {"three", 3}, {"triple", 3}})
        if (t.rfind(word, 0) == 0 && wordsOfPoles(std::string_view(t).substr(std::string_view(word).size()))) return n;
    for (const auto& [word, n] :
         {std::pair{"sp", 1}, {"spn", 1}, {"sp+n", 1}, {"dp", 2}, {"tp", 3}, {"tpn", 3}, {"tp+n", 3}})
        if (t == word) return n;
    return std::nullopt;
}

std::optional<TypedVolts> typedVolts(std::string_view text, char decimal) {
    const std::string t = trimmed(text);
    if (t.size() > limits::typedLine) return std::nullopt;
    TypedVolts out;
    if (const auto v = readTyped(t, "V", decimal)) {
        out.volts = *v;
        return *v > 0 ? std::optional(out) : std::nullopt;
    }
    // Volts, then what may stand beside them: the other voltage of a system, phases, hertz, wires. A unit behind a
    // blank belongs to the number before it.
    std::vector<std::string> parts(1);
    for (const char c : lowered(t)) {
        const bool gap = c == '/' || c == '-' || c == ';' || isBlank(c) || (c == ',' && decimal != ',');
        if (!gap)
            parts.back() += c;
        else if (!parts.back().empty())
            parts.emplace_back();
    }
    if (parts.back().empty()) parts.pop_back();
    for (std::size_t i = 1; i < parts.size();)
        if (!isDigit(parts[i].front())) {
            parts[i - 1] += parts[i];
            parts.erase(parts.begin() + std::ptrdiff_t(i));
        } else
            ++i;
    bool hertz = false;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        std::string part = parts[i];
        const auto number = typedNumber(part, decimal);
        if (i > 0 && !out.phases)
            if (const auto phases = typedPoles(part, decimal); phases && (!number || *number <= 3)) {
                out.phases = phases;
                continue;
            }
        if (i > 0 && !hertz) {
            std::string cycles = part;
            const bool said = takeEnd(cycles, "hz");
            if (const auto f = typedNumber(cycles, decimal); f && (*f == 50 || *f == 60) && (said || number)) {
                hertz = true;
                continue;
            }
        }
        if (i > 0 && (part == "3w" || part == "4w" || part == "5w" || part == "3wire" || part == "4wire")) continue;
        for (const char* star : {"y", "Δ", "δ", "d", "v"})
            if (takeEnd(part, star)) break;
        const auto volts = readTyped(part, "V", decimal);
        if (!volts || *volts <= 0 || (i > 0 && *volts < 50)) return std::nullopt;
        out.volts = std::max(out.volts, *volts);
    }
    return out.volts > 0 ? std::optional(out) : std::nullopt;
}

} // namespace lintel
