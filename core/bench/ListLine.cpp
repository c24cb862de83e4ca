#include "core/bench/ListLine.h"

#include "core/base/Parse.h"
#include "core/base/Typed.h"

#include <algorithm>

namespace lintel {
namespace {

std::vector<std::string> wordsOf(const std::string& line) {
    std::vector<std::string> words;
    std::string word;
    for (char c : line + " ") {
        if (c != ' ' && c != '\t') {
            word += c;
            continue;
        }
        if (!word.empty()) words.push_back(word);
        word.clear();
    }
    return words;
}
std::string joined(const std::vector<std::string>& words, std::size_t from, std::size_t to) {
    std::string text;
    for (std::size_t i = from; i < to; ++i) text += (i > from ? " " : "") + words[i];
    return text;
}

/// Takes "3 ×", "3x", "3 *" off the beginning of a line: the number, or nothing where no such sign follows one.
std::optional<std::string> takeCount(std::string& line) {
    std::size_t end = 0;
    while (end < line.size() && isDigit(line[end])) ++end;
    if (end == 0) return std::nullopt;
    std::size_t sign = end;
    while (sign < line.size() && line[sign] == ' ') ++sign;
    std::size_t after = sign;
    const std::string times = "×";
    if (line.compare(sign, times.size(), times) == 0)
        after += times.size();
    else if (sign < line.size() && (line[sign] == '*' || ((line[sign] == 'x' || line[sign] == 'X') &&
                                                          !(sign + 1 < line.size() && isLetter(line[sign + 1])))))
        after += 1;
    else
        return std::nullopt;
    const std::string number = line.substr(0, end);
    line = trimmed(line.substr(after));
    return number;
}

} // namespace

std::optional<LoadLine> readLoadLine(const std::string& whole) {
    std::string line = trimmed(whole);
    LoadLine out;
    if (const auto count = takeCount(line)) {
        const auto n = count->size() <= 6 ? typedNumber(*count) : std::nullopt;
        if (!n || *n < 1) return std::nullopt;
        out.count = *n;
    }
    const std::vector<std::string> words = wordsOf(line);
    constexpr std::size_t longest = 4; // "1 200 000 VA"
    for (std::size_t from = 0; from < words.size(); ++from)
        for (std::size_t to = std::min(words.size(), from + longest); to > from; --to) {
            const auto load = loadFrom(joined(words, from, to), '.');
            if (!load || !load->unit) continue;
            out.name = joined(words, 0, from);
            out.load = {load->amount, *load->unit};
            out.after = joined(words, to, words.size());
            return out;
        }
    return std::nullopt;
}

std::optional<ConductorLine> readConductorLine(const std::string& whole) {
    std::string line = trimmed(whole);
    std::optional<std::string> count = takeCount(line);
    std::vector<std::string> words = wordsOf(line);
    if (!count && words.size() >= 2) {
        count = words.front();
        words.erase(words.begin());
        if (words.front() == "of") words.erase(words.begin());
    }
    if (!count || words.empty() || count->size() > 4 || !std::all_of(count->begin(), count->end(), isDigit))
        return std::nullopt;
    ConductorLine out;
    out.count = int(typedNumber(*count).value_or(0));
    out.size = words.front();
    words.erase(words.begin());
    if (!out.size.empty() && out.size.front() == '#') out.size.erase(0, 1);
    const auto isUnit = [](std::string word) {
        word = lowered(word);
        return word == "awg" || word == "kcmil" || word == "mcm";
    };
    for (const char* unit : {"awg", "kcmil", "mcm"}) { // "250kcmil"
        const std::string low = lowered(out.size), u = unit;
        if (low.size() > u.size() && low.compare(low.size() - u.size(), u.size(), u) == 0)
            out.size.resize(out.size.size() - u.size());
    }
    if (!words.empty() && isUnit(words.front())) words.erase(words.begin());
    if (words.size() > 1) return std::nullopt;
    if (!words.empty()) out.insulation = words.front();
    return out;
}

} // namespace lintel
