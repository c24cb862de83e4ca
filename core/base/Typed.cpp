#include "core/base/Typed.h"

#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/Utf8.h"

#include <cmath>
#include <fmt/format.h>

namespace lintel {

namespace {

/// What kind of thing a unit measures. Real and apparent power are two things: a power factor lies between them.
enum class Kind { Number, Current, Voltage, Apparent, Real, Reactive, Shaft, Resistance, Length, Temperature, Angle, Share, Resistivity, Light, Illuminance, Density, Energy };

struct Unit {
    const char* symbol; ///< in small letters, as it is compared
    Kind kind;
    double factor, offset = 0; ///< to the base of its kind: value · factor + offset
};
constexpr Unit units[] = {
    {"a", Kind::Current, 1}, {"amp", Kind::Current, 1}, {"amps", Kind::Current, 1}, {"ampere", Kind::Current, 1}, {"amperes", Kind::Current, 1}, {"ma", Kind::Current, 0.001}, {"ka", Kind::Current, 1000}, {"kaic", Kind::Current, 1000},
    {"v", Kind::Voltage, 1}, {"volt", Kind::Voltage, 1}, {"volts", Kind::Voltage, 1}, {"kv", Kind::Voltage, 1000},
    {"va", Kind::Apparent, 1}, {"kva", Kind::Apparent, 1000}, {"mva", Kind::Apparent, 1e6},
    {"w", Kind::Real, 1}, {"watt", Kind::Real, 1}, {"watts", Kind::Real, 1}, {"kw", Kind::Real, 1000}, {"mw", Kind::Real, 1e6},
    {"var", Kind::Reactive, 1}, {"kvar", Kind::Reactive, 1000},
    {"hp", Kind::Shaft, 1}, {"bhp", Kind::Shaft, 1}, {"horsepower", Kind::Shaft, 1},
    {"Ω", Kind::Resistance, 1}, {"ω", Kind::Resistance, 1}, {"ohm", Kind::Resistance, 1}, {"ohms", Kind::Resistance, 1}, {"mΩ", Kind::Resistance, 0.001}, {"mω", Kind::Resistance, 0.001}, {"mohm", Kind::Resistance, 0.001},
    {"m", Kind::Length, 1}, {"metre", Kind::Length, 1}, {"metres", Kind::Length, 1}, {"meter", Kind::Length, 1}, {"meters", Kind::Length, 1}, {"mm", Kind::Length, 0.001}, {"cm", Kind::Length, 0.01}, {"km", Kind::Length, 1000},
    {"ft", Kind::Length, 0.3048}, {"feet", Kind::Length, 0.3048}, {"foot", Kind::Length, 0.3048}, {"'", Kind::Length, 0.3048}, {"in", Kind::Length, 0.0254}, {"\"", Kind::Length, 0.0254},
    {"°c", Kind::Temperature, 1}, {"c", Kind::Temperature, 1}, {"degc", Kind::Temperature, 1}, {"°f", Kind::Temperature, 5.0 / 9, -160.0 / 9}, {"f", Kind::Temperature, 5.0 / 9, -160.0 / 9}, {"degf", Kind::Temperature, 5.0 / 9, -160.0 / 9},
    {"°", Kind::Angle, 1}, {"deg", Kind::Angle, 1}, {"degrees", Kind::Angle, 1},
    {"%", Kind::Share, 1}, {"percent", Kind::Share, 1}, {"%z", Kind::Share, 1},
    {"k·m/w", Kind::Resistivity, 1}, {"km/w", Kind::Resistivity, 1}, {"k m/w", Kind::Resistivity, 1}, {"k.m/w", Kind::Resistivity, 1},
    {"lm", Kind::Light, 1}, {"lumen", Kind::Light, 1}, {"lumens", Kind::Light, 1},
    {"lx", Kind::Illuminance, 1}, {"lux", Kind::Illuminance, 1}, {"fc", Kind::Illuminance, 10.7639},
    {"w/m²", Kind::Density, 1}, {"va/m²", Kind::Density, 1}, {"w/m2", Kind::Density, 1}, {"va/m2", Kind::Density, 1}, {"w/ft²", Kind::Density, 10.7639}, {"va/ft²", Kind::Density, 10.7639}, {"w/ft2", Kind::Density, 10.7639}, {"va/ft2", Kind::Density, 10.7639},
    {"a²s", Kind::Energy, 1}, {"a2s", Kind::Energy, 1}, {"ka²s", Kind::Energy, 1e6}, {"ka2s", Kind::Energy, 1e6},
};
constexpr const char* names[] = {"a number", "a current", "a voltage", "an apparent power", "a real power", "a reactive power", "a shaft power", "a resistance", "a length", "a temperature", "an angle", "a share", "a thermal resistivity", "a luminous flux", "an illuminance", "a load by area", "an energy let through"};
constexpr const char* typed[] = {"a number without a unit", "A, mA or kA", "V or kV", "VA, kVA or MVA", "W, kW or MW", "var or kvar", "hp", "Ω or mΩ", "m, mm, cm, ft or in", "°C or °F", "degrees", "%", "K·m/W", "lm", "lx or fc", "W/m² or VA/ft²", "A²s or kA²s"};

const Unit* find(std::string_view symbol) {
    const std::string s = lowered(symbol);
    // Case is forgiven but where it means a thousand millions: "MW" is not "mW", nor "mΩ" "MΩ".
    if ((s == "mw" || s == "mva") && symbol.front() != 'M') return nullptr;
    if ((s == "mΩ" || s == "mω" || s == "mohm") && symbol.front() != 'm') return nullptr;
    for (const Unit& u : units)
        if (s == u.symbol) return &u;
    return nullptr;
}

struct Vulgar { const char* sign; double value; };
constexpr Vulgar vulgar[] = {{"½", 1.0 / 2}, {"⅓", 1.0 / 3}, {"⅔", 2.0 / 3}, {"¼", 1.0 / 4}, {"¾", 3.0 / 4}, {"⅕", 1.0 / 5}, {"⅙", 1.0 / 6}, {"⅛", 1.0 / 8}, {"⅜", 3.0 / 8}, {"⅝", 5.0 / 8}, {"⅞", 7.0 / 8}};

bool allDigits(std::string_view t) { return !t.empty() && std::all_of(t.begin(), t.end(), isDigit); }

/// "1/2", "3/16"; below one: "30/2" is no amount, but two poles of 30.
std::optional<double> fraction(std::string_view t) {
    const auto slash = t.find('/');
    if (slash == std::string_view::npos || slash > 3 || t.size() - slash - 1 > 3 || !allDigits(t.substr(0, slash)) || !allDigits(t.substr(slash + 1))) return std::nullopt;
    const double below = *plainNumber(t.substr(slash + 1));
    const double above = *plainNumber(t.substr(0, slash));
    return below > 0 && above < below ? std::optional(above / below) : std::nullopt;
}

} // namespace

std::optional<double> typedNumber(std::string_view text, char decimal) {
    const std::string t = trimmed(text);
    if (t.empty() || t.size() > limits::typedLine) return std::nullopt;
    for (const Vulgar& v : vulgar) // "7½"
        if (t.size() >= std::string_view(v.sign).size() && std::string_view(t).substr(t.size() - std::string_view(v.sign).size()) == v.sign) {
            const std::string whole = trimmed(std::string_view(t).substr(0, t.size() - std::string_view(v.sign).size()));
            if (whole.empty()) return v.value;
            return allDigits(whole) && whole.size() < 7 ? std::optional(*plainNumber(whole) + v.value) : std::nullopt;
        }
    if (t.find('/') == std::string::npos) return numberFrom(t, decimal);
    if (const auto f = fraction(t)) return f;
    const auto gap = t.find_first_of("- "); // "7-1/2", "7 1/2"
    if (gap == std::string::npos || gap == 0 || gap > 6 || !allDigits(std::string_view(t).substr(0, gap))) return std::nullopt;
    const auto f = fraction(std::string_view(t).substr(gap + 1));
    return f ? std::optional(*plainNumber(std::string_view(t).substr(0, gap)) + *f) : std::nullopt;
}

Outcome<double> readTyped(std::string_view text, std::string_view unit, char decimal) {
    const std::string t = trimmed(text);
    const Unit* wanted = unit.empty() ? nullptr : find(unit);
    const Kind kind = wanted ? wanted->kind : Kind::Number;
    const auto refuse = [&](const std::string& what) {
        const std::string shown = t.size() > 40 ? std::string(cutUtf8(t, 37)) + "…" : t;
        return Error{"", fmt::format("“{}” is not {}", shown, what), fmt::format("Type {}.", kind == Kind::Number ? typed[0] : fmt::format("a number, in {}", typed[int(kind)]))};
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

} // namespace lintel
