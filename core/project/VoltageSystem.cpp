#include "core/project/VoltageSystem.h"

#include "core/base/Parse.h"
#include "core/base/Typed.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace lintel {
namespace {

using Shape = VoltageSystem::Shape;

constexpr std::array usual{VoltageSystem::Y480,  VoltageSystem::Y208, VoltageSystem::Y600, VoltageSystem::S240,
                           VoltageSystem::D240H, VoltageSystem::D480, VoltageSystem::Y400, VoltageSystem::Y415,
                           VoltageSystem::S230,  VoltageSystem::S120, VoltageSystem::Y380};

// Nominal voltages of ANSI C84.1, Table 1, and of IEC 60038, Table 3.
constexpr std::array medium{VoltageSystem{Shape::Wye, 4160, 2400},   VoltageSystem{Shape::Wye, 12470, 7200},
                            VoltageSystem{Shape::Wye, 13200, 7620},  VoltageSystem{Shape::Wye, 13800, 7970},
                            VoltageSystem{Shape::Wye, 24940, 14400}, VoltageSystem{Shape::Wye, 34500, 19920},
                            VoltageSystem{Shape::Delta, 3300, 0},    VoltageSystem{Shape::Delta, 6600, 0},
                            VoltageSystem{Shape::Delta, 11000, 0},   VoltageSystem{Shape::Delta, 20000, 0},
                            VoltageSystem{Shape::Delta, 22000, 0},   VoltageSystem{Shape::Delta, 33000, 0}};

// Line–line volts of 50 Hz practice (IEC 60038 and what was usual before it); other volts are North American.
constexpr std::array metricVolts{220,  230,  380,  400,  415,   433,   440,   500,   525,   660,   690,  1000,
                                 3000, 3300, 6000, 6600, 10000, 11000, 15000, 20000, 22000, 30000, 33000};

bool about(double a, double b) { return std::abs(a - b) <= 0.02 * b; }

/// A number of volts or kilovolts from the start of `text`, which is taken off it.
struct Read {
    double volts = 0;
    bool kilo = false;
};
std::optional<Read> takeVolts(std::string& text) {
    std::size_t n = 0;
    while (n < text.size() && (isDigit(text[n]) || text[n] == '.' || text[n] == ',')) ++n;
    const auto v = typedNumber(std::string_view(text).substr(0, n));
    if (!v) return std::nullopt;
    text.erase(0, n);
    Read r{*v};
    if (text.rfind("kv", 0) == 0) {
        r.kilo = true;
        text.erase(0, 2);
    } else if (text.rfind("v", 0) == 0) {
        text.erase(0, 1);
    }
    return r;
}

/// Volts to neutral of a wye that is given by its lines alone: as the trade rounds them.
double neutralOf(double lineLine) {
    const auto known = [&](const VoltageSystem& s) {
        return s.shape() == Shape::Wye && factsOf(s).lineLine.v == lineLine;
    };
    if (const auto it = std::find_if(usual.begin(), usual.end(), known); it != usual.end())
        return factsOf(*it).lineNeutral.v;
    if (const auto it = std::find_if(medium.begin(), medium.end(), known); it != medium.end())
        return factsOf(*it).lineNeutral.v;
    return std::round(lineLine / root3);
}

std::optional<VoltageSystem> ofTwo(double first, double second, char mark) {
    const double high = std::max(first, second), low = std::min(first, second);
    if (mark == 'd')
        return about(first, 2 * second) ? std::optional(VoltageSystem{Shape::HighLeg, int(first), int(second)})
                                        : std::nullopt;
    if (about(high, low * root3)) return VoltageSystem{Shape::Wye, int(high), int(low)};
    // "240/120" may be one phase with its middle or a high leg: only the former is written with the lower first.
    if (!mark && about(second, 2 * first)) return VoltageSystem{Shape::ThreeWire, int(second), int(first)};
    return std::nullopt;
}

/// In small letters without blanks, Δ as "d" and φ as "ph".
std::string joined(std::string_view text) {
    std::string t;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text.substr(i).rfind("Δ", 0) == 0) {
            t += 'd';
            i += std::string_view("Δ").size() - 1;
        } else if (text.substr(i).rfind("φ", 0) == 0) {
            t += "ph";
            i += std::string_view("φ").size() - 1;
        } else if (text[i] != ' ') {
            t += lower(text[i]);
        }
    }
    return t;
}

/// "…,3ph,4w": what is said of phases and wires, taken off the end; 0: nothing.
struct Said {
    int phases = 0, wires = 0;
    bool agrees(VoltageSystem s) const {
        const SystemFacts f = factsOf(s);
        return (!phases || phases == f.phases) && (!wires || wires == f.wires);
    }
};
Said takeSaid(std::string& text) {
    Said said;
    const auto take = [&](const char* word, int& into) {
        const std::string w = word;
        if (text.size() <= w.size() || text.compare(text.size() - w.size(), w.size(), w) != 0) return false;
        const char digit = text[text.size() - w.size() - 1];
        if (digit < '1' || digit > '4' || into) return false;
        into = digit - '0';
        text.erase(text.size() - w.size() - 1);
        if (!text.empty() && (text.back() == ',' || text.back() == '-')) text.pop_back();
        return true;
    };
    while (take("w", said.wires) || take("wire", said.wires) || take("-wire", said.wires) || take("ph", said.phases) ||
           take("phase", said.phases) || take("-phase", said.phases)) {
    }
    return said;
}

/// Of volts alone.
std::optional<VoltageSystem> readVolts(std::string rest);

} // namespace

const char* const systemHelp = "Write volts as 480Y/277, 400/230, 120/240, 480D, 240D/120, 230, 12.47 kV or 11 kV.";

std::span<const VoltageSystem> usualSystems() { return usual; }
std::span<const VoltageSystem> usualMediumVoltages() { return medium; }

bool isMetric(VoltageSystem s) {
    const int volts = int(factsOf(s).lineLine.v);
    if (s == VoltageSystem{Shape::TwoWire, 240, 0}) return true;
    return s.shape() != Shape::ThreeWire && s.shape() != Shape::HighLeg &&
           std::find(metricVolts.begin(), metricVolts.end(), volts) != metricVolts.end();
}

std::string wordOf(VoltageSystem s) {
    const SystemFacts f = factsOf(s);
    const int ll = int(f.lineLine.v), ln = int(f.lineNeutral.v);
    switch (s.shape()) {
    case Shape::Wye:
        return fmt::format("{}{}/{}", ll, isMetric(s) ? "" : "Y", ln);
    case Shape::Delta:
        return fmt::format("{}D", ll);
    case Shape::HighLeg:
        return fmt::format("{}D/{}", ll, ln);
    case Shape::ThreeWire:
        return fmt::format("{}/{}", ln, ll);
    case Shape::TwoWire:
        break;
    }
    return fmt::format("{}", ll);
}

std::optional<VoltageSystem> systemFrom(std::string_view text) {
    std::string rest = joined(text);
    const Said said = takeSaid(rest);
    const auto read = readVolts(rest);
    return read && said.agrees(*read) ? read : std::nullopt;
}

namespace {
std::optional<VoltageSystem> readVolts(std::string rest) {
    auto first = takeVolts(rest);
    if (!first) return std::nullopt;
    char mark = 0;
    if (!rest.empty() && (rest[0] == 'y' || rest[0] == 'd')) {
        mark = rest[0];
        rest.erase(0, 1);
    }
    std::optional<Read> second;
    if (!rest.empty() && rest[0] == '/') {
        rest.erase(0, 1);
        second = takeVolts(rest);
        if (!second) return std::nullopt;
    }
    // "480/277y", "12.47/7.2 kV": what is said at the end goes for both.
    if (!rest.empty() && rest[0] == 'y' && !mark) {
        mark = 'y';
        rest.erase(0, 1);
    }
    if (!rest.empty() && rest == "v") rest.clear();
    if (!rest.empty()) return std::nullopt;
    if (second && second->kilo) first->kilo = true;
    const auto volts = [](const Read& r) { return std::round(r.volts * (r.kilo ? 1000 : 1)); };
    const double a = volts(*first), b = second ? volts(*second) : 0;
    if (std::max(a, b) > 46000 || std::max(a, b) < 50 || (second && std::min(a, b) < 25)) return std::nullopt;
    if (second) return ofTwo(a, b, mark);
    if (mark == 'y') return VoltageSystem{Shape::Wye, int(a), int(neutralOf(a))};
    if (mark == 'd') return VoltageSystem{Shape::Delta, int(a), 0};
    if (a <= lowVoltageUpTo.v) return VoltageSystem{Shape::TwoWire, int(a), 0};
    // Of medium voltage only the lines are told: a wye where utilities supply it so, else three lines.
    for (const VoltageSystem& s : medium)
        if (about(factsOf(s).lineLine.v, a) && std::abs(factsOf(s).lineLine.v - a) < 100) return s;
    return VoltageSystem{Shape::Delta, int(a), 0};
}
} // namespace

} // namespace lintel
