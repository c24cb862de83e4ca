#include "core/project/TypedLoads.h"

#include "core/base/Parse.h"
#include "core/base/Typed.h"

namespace lintel {

std::optional<LoadUnit> loadUnitFrom(std::string_view text) {
    const std::string t = lowered(trimmed(text));
    for (const auto& [unit, word] : EnumText<LoadUnit>::words)
        if (t == lowered(word)) return unit;
    for (const auto& [word, unit] : {std::pair{"amp", LoadUnit::A},
                                     {"amps", LoadUnit::A},
                                     {"watt", LoadUnit::W},
                                     {"watts", LoadUnit::W},
                                     {"horsepower", LoadUnit::hp},
                                     {"bhp", LoadUnit::hp}})
        if (t == word) return unit;
    return std::nullopt;
}

std::optional<TypedLoad> loadFrom(std::string_view text, char decimal) {
    const std::string t = trimmed(text);
    std::size_t letters = t.size();
    while (letters > 0 && isLetter(t[letters - 1])) --letters;
    const auto amount = typedNumber(t.substr(0, letters), decimal);
    if (!amount || *amount < 0 || *amount > 1e9) return std::nullopt;
    TypedLoad l{*amount, {}};
    if (letters == t.size()) return l;
    const std::string unit = t.substr(letters);
    l.unit = loadUnitFrom(unit);
    if (!l.unit && unit.front() == 'M' && letters < t.size()) { // MVA, MW, Mvar: a thousand of those
        l.unit = loadUnitFrom("k" + unit.substr(1));
        l.amount *= 1000;
        if (l.amount > 1e9) return std::nullopt;
    }
    if (!l.unit) return std::nullopt;
    return l;
}

std::optional<double> metresFrom(std::string_view text, UnitSystem units) {
    std::string t = lowered(trimmed(text));
    const auto swap = [&](std::string_view from, std::string_view to) {
        for (std::size_t at = 0; (at = t.find(from, at)) != std::string::npos; at += to.size())
            t.replace(at, from.size(), to);
    };
    swap("′", "'"), swap("″", "\""), swap("feet", "ft"), swap("inches", "in"), swap("inch", "in"), swap("in", "\"");
    const auto whole = [](std::optional<double> v, double k) -> std::optional<double> {
        if (!v || *v < 0 || *v > 100000) return std::nullopt;
        return *v * k;
    };
    if (const std::size_t feet = t.find('\''); feet != std::string::npos) { // 1' 6"
        const auto f = whole(typedNumber(t.substr(0, feet)), metresPerFoot);
        std::string rest = trimmed(t.substr(feet + 1));
        if (rest.empty()) return f;
        if (rest.back() != '"') return std::nullopt;
        rest.pop_back();
        const auto inches = whole(typedNumber(rest), metresPerFoot / 12);
        return f && inches ? std::optional(*f + *inches) : std::nullopt;
    }
    if (!t.empty() && t.back() == '"') return t.pop_back(), whole(typedNumber(t), metresPerFoot / 12);
    if (const auto bare = typedNumber(t)) return whole(bare, units == UnitSystem::Imperial ? metresPerFoot : 1);
    const auto metres = readTyped(t, "m");
    return metres ? whole(*metres, 1) : std::nullopt;
}

} // namespace lintel
