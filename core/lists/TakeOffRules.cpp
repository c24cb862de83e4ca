#include "core/lists/TakeOffRules.h"

#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/figures/Words.h"
#include "core/project/TypedLoads.h"

#include <fmt/format.h>

#include <cmath>
#include <sstream>

namespace lintel {
namespace {

constexpr const char* shape = "Write: what | 1 each device | of which | why; or 1 each end, or 1 every 3 m.";

std::vector<std::string> partsOf(const std::string& line) {
    std::vector<std::string> parts;
    std::istringstream in(line);
    for (std::string part; std::getline(in, part, '|');) parts.push_back(trimmed(part));
    return parts;
}

Error cannotRead(const std::string& line, const std::string& what) { return {"\"" + line + "\"", what, shape}; }

std::string piecesWords(double amount) { return number(amount, amount == std::floor(amount) ? 0 : 2); }

/// "3 m", "10 ft": so exactly that it is read as the same length.
std::string everyWords(double metres, UnitSystem units) {
    const bool feet = units == UnitSystem::Imperial;
    return fmt::format("{:.9g} {}", feet ? metres / metresPerFoot : metres, feet ? "ft" : "m");
}

/// "1 each device", "2 each end", "1 every 10 ft", with or without the number.
std::optional<Error> readCount(TakeOffRule& rule, const std::string& line, const std::string& count, UnitSystem units) {
    std::size_t words = 0;
    while (words < count.size() && !isLetter(count[words])) ++words;
    const std::string amount = trimmed(count.substr(0, words));
    const std::string rest = lowered(trimmed(count.substr(words)));
    if (!amount.empty()) {
        const auto pieces = numberFrom(amount);
        if (!pieces || *pieces <= 0) return cannotRead(line, "\"" + amount + "\" is not a number of pieces");
        rule.amount = *pieces;
    }
    if (rest == "each device") {
        rule.per = TakeOffPer::Device;
    } else if (rest == "each end") {
        rule.per = TakeOffPer::End;
    } else if (rest.rfind("every ", 0) == 0) {
        rule.per = TakeOffPer::Length;
        const auto metres = metresFrom(std::string_view(rest).substr(6), units);
        if (!metres || *metres < limits::takeOffEvery || *metres > limits::takeOffEveryMost)
            return cannotRead(line, "\"" + rest.substr(6) + "\" is not a length from 0.1 m to 1000 m");
        rule.every = *metres;
    } else {
        return cannotRead(line, "\"" + count + "\" does not say for what it counts");
    }
    return {};
}

} // namespace

Outcome<TakeOffRule> takeOffRuleFrom(const std::string& line, UnitSystem units) {
    const std::vector<std::string> parts = partsOf(line);
    if (parts.size() < 2 || parts.size() > 4) return cannotRead(line, "a rule has two to four parts, with | between");
    TakeOffRule rule;
    rule.item = parts[0];
    if (rule.item.empty()) return cannotRead(line, "it does not say what is ordered");
    if (auto bad = readCount(rule, line, parts[1], units)) return *bad;
    if (parts.size() > 2) rule.of = parts[2];
    if (parts.size() > 3) rule.why = parts[3];
    return rule;
}

std::string lineOf(const TakeOffRule& rule, UnitSystem units) {
    std::string line = rule.item + " | " + fmt::format("{} ", rule.amount);
    switch (rule.per) {
    case TakeOffPer::Device:
        line += "each device";
        break;
    case TakeOffPer::End:
        line += "each end";
        break;
    case TakeOffPer::Length:
        line += "every " + everyWords(rule.every, units);
        break;
    }
    if (!rule.of.empty() || !rule.why.empty()) line += " | " + rule.of;
    if (!rule.why.empty()) line += " | " + rule.why;
    return line;
}

Outcome<std::vector<TakeOffRule>> takeOffRulesFrom(const std::string& lines, UnitSystem units) {
    std::vector<TakeOffRule> rules;
    std::istringstream in(lines);
    for (std::string line; std::getline(in, line);) {
        if (trimmed(line).empty()) continue;
        auto rule = takeOffRuleFrom(trimmed(line), units);
        if (!rule) return rule.error();
        rules.push_back(std::move(*rule));
    }
    return rules;
}

std::string linesOf(const std::vector<TakeOffRule>& rules, UnitSystem units) {
    std::string lines;
    for (const TakeOffRule& rule : rules) lines += (lines.empty() ? "" : "\n") + lineOf(rule, units);
    return lines;
}

std::string ruleWords(const TakeOffRule& rule, UnitSystem units) {
    std::string words = fmt::format("{}: {} for each {}", rule.item, piecesWords(rule.amount), wordOf(rule.per));
    if (rule.per == TakeOffPer::Length)
        words = fmt::format("{}: {} for every {} of a run that is begun", rule.item, piecesWords(rule.amount),
                            everyWords(rule.every, units));
    if (!rule.of.empty()) words += fmt::format(", of \"{}\"", rule.of);
    if (!rule.why.empty()) words += fmt::format(" ({})", rule.why);
    return words + ".";
}

} // namespace lintel
