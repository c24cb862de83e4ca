#include "core/project/LoadInName.h"

#include "core/base/Parse.h"
#include "core/base/WordsOfLine.h"

#include <algorithm>
#include <array>
#include <vector>

namespace lintel {
namespace {

/// Without the marks that people set around an amount.
std::string bare(std::string word) {
    while (!word.empty() && (word.front() == '(' || word.front() == '[')) word.erase(0, 1);
    while (!word.empty() && std::string_view(")],;:").find(word.back()) != std::string_view::npos) word.pop_back();
    return word;
}

/// "3P", "3-pole": how many.
int polesFrom(const std::string& word) {
    const std::string w = lowered(bare(word));
    if (w.empty() || w.front() < '1' || w.front() > '3') return 0;
    const std::string rest = w.substr(1);
    return rest == "p" || rest == "-p" || rest == "-pole" || rest == "pole" ? w.front() - '0' : 0;
}

/// An amount with the unit of a power, in so many words from `at`.
std::optional<TypedLoad> powerAt(const std::vector<std::string>& words, std::size_t at, std::size_t count) {
    std::string text;
    for (std::size_t i = at; i < at + count; ++i) text += (text.empty() ? "" : " ") + bare(words[i]);
    const auto load = loadFrom(text);
    if (!load || !load->unit || *load->unit == LoadUnit::A || load->amount <= 0) return std::nullopt;
    return load;
}

/// Whether a word beside an amount may make it one of several: "3", "3x", "(3)", "@", "each".
bool counts(const std::string& word) {
    const std::string w = lowered(bare(word));
    if (w.empty() || w == "-" || w == "–") return false;
    static constexpr std::array several{"x", "×", "@", "at", "each", "ea", "ea.", "of"};
    if (std::find(several.begin(), several.end(), w) != several.end()) return true;
    return std::all_of(w.begin(), w.end(), [](char c) { return !isLetter(c); }) ||
           (isDigit(w.front()) && w.back() == 'x');
}

} // namespace

std::optional<LoadInName> loadInName(const std::string& description) {
    const std::vector<std::string> words = wordsOfLine(description);
    std::optional<LoadInName> found;
    std::size_t from = 0, to = 0;
    for (std::size_t at = 0; at < words.size(); ++at)
        for (std::size_t count = std::min<std::size_t>(2, words.size() - at); count > 0; --count) { // "1.5 kW", "1.5kW"
            const auto load = powerAt(words, at, count);
            if (!load) continue;
            if (found) return std::nullopt;
            found = LoadInName{"", *load, 0};
            from = at, to = at + count;
            at = to - 1;
            break;
        }
    if (!found || (from > 0 && counts(words[from - 1])) || (to < words.size() && counts(words[to])))
        return std::nullopt;
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (i >= from && i < to) continue;
        if (const int poles = polesFrom(words[i]); poles && !found->poles) {
            found->poles = poles;
            continue;
        }
        found->name += (found->name.empty() ? "" : " ") + words[i];
    }
    while (!found->name.empty() && std::string_view(",;:-( ").find(found->name.back()) != std::string_view::npos)
        found->name.pop_back();
    if (found->name.empty()) return std::nullopt;
    return found;
}

} // namespace lintel
