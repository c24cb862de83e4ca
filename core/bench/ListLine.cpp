#include "core/bench/ListLine.h"

#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/base/WordsOfLine.h"
#include "core/project/TypedLoads.h"

#include <algorithm>

namespace lintel {

namespace {

std::string joined(const std::vector<std::string>& words, std::size_t from, std::size_t to) {
    std::string text;
    for (std::size_t i = from; i < to; ++i) text += (i > from ? " " : "") + words[i];
    return text;
}

} // namespace

std::optional<LoadLine> readLoadLine(const std::string& whole) {
    std::string line = trimmed(whole);
    LoadLine out;
    if (const auto count = takeCount(line)) {
        if (*count < 1) return std::nullopt;
        out.count = *count;
    }
    const std::vector<std::string> words = wordsOfLine(line);
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
    ConductorLine out;
    std::vector<std::string> words;
    if (const auto count = takeCount(line)) {
        out.count = *count;
        words = wordsOfLine(line);
    } else {
        words = wordsOfLine(line);
        if (words.size() < 2 || words.front().size() > 4 ||
            !std::all_of(words.front().begin(), words.front().end(), isDigit))
            return std::nullopt;
        out.count = int(*typedNumber(words.front()));
        words.erase(words.begin());
        if (words.front() == "of") words.erase(words.begin());
    }
    // The size is the longest beginning that is one, "3/0 AWG"; what follows is the insulation, in one word.
    for (std::size_t end = std::min<std::size_t>(2, words.size()); end > 0; --end) {
        const auto size = typedSize(joined(words, 0, end));
        if (!size || size->sets > 0 || words.size() > end + 1) continue;
        out.size = size->size;
        if (words.size() > end) out.insulation = words.back();
        return out;
    }
    return std::nullopt;
}

} // namespace lintel
