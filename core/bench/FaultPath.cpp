#include "core/bench/FaultPath.h"

#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/base/WordsOfLine.h"
#include "core/project/TypedLoads.h"

#include <fmt/format.h>

#include <algorithm>

namespace lintel {
namespace {

/// Words of a line; "×" stands as "x", commas that part things are blanks, "X/R=2" is "X/R 2".
std::vector<std::string> wordsOf(const std::string& text) {
    std::string line;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text.compare(i, 2, "×") == 0) {
            line += 'x';
            ++i;
        } else if (text[i] == '=' || (text[i] == ',' && (i + 1 == text.size() || text[i + 1] == ' '))) {
            line += ' ';
        } else {
            line += text[i];
        }
    }
    return wordsOfLine(line);
}

/// The longest run of words from `at` on that `read` takes; how many it took, 0: none.
template <class Read> std::size_t longest(const std::vector<std::string>& words, std::size_t at, Read read) {
    constexpr std::size_t most = 4; // "1 200 ft 6 in" is read by its parts
    for (std::size_t n = std::min(most, words.size() - at); n > 0; --n) {
        std::string phrase;
        for (std::size_t i = at; i < at + n; ++i) phrase += (i > at ? " " : "") + words[i];
        if (read(phrase)) return n;
    }
    return 0;
}

bool endsInDigit(const std::string& s) { return !s.empty() && isDigit(s.back()); }

std::optional<Material> materialFrom(const std::string& word) {
    if (sameWord(word, "cu")) return Material::Copper;
    if (sameWord(word, "al") || sameWord(word, "aluminum")) return Material::Aluminium;
    for (const auto& [m, name] : EnumText<Material>::words)
        if (sameWord(word, name)) return m;
    return std::nullopt;
}
std::optional<Raceway> racewayFrom(const std::string& word, const RuleBook& book) {
    for (const auto& [r, name] : EnumText<Raceway>::words)
        if (sameWord(word, name)) return r;
    for (const ConduitType& c : book.tables.conduits)
        if (sameWord(word, c.name)) return c.raceway;
    return std::nullopt;
}
/// "x2", "2x"
std::optional<int> setsFrom(const std::string& word) {
    std::string digits = word;
    if (digits.size() > 1 && lower(digits.front()) == 'x')
        digits.erase(0, 1);
    else if (digits.size() > 1 && lower(digits.back()) == 'x')
        digits.pop_back();
    else
        return std::nullopt;
    const auto n = plainNumber(digits);
    return n && *n == std::floor(*n) && *n >= 1 && *n <= 1000 ? std::optional(int(*n)) : std::nullopt;
}
/// A system by its word; a number alone only where it is one that the trade uses, as "230".
std::optional<VoltageSystem> systemNamed(const std::string& phrase) {
    const auto s = systemFrom(phrase);
    const auto all = usualSystems();
    const bool bare = phrase.find_first_not_of("0123456789.,") == std::string::npos;
    return s && (!bare || std::find(all.begin(), all.end(), *s) != all.end()) ? s : std::nullopt;
}

Error unknown(const std::string& word, const char* help) {
    const bool bare = typedNumber(word).has_value();
    return {word, "\"" + word + "\" is not understood" + (bare ? ": it has no unit" : ""), help};
}

} // namespace

Outcome<PathRun> readPathRun(const std::string& text, const RuleBook& book) {
    const char* help = book.metric() ? "Write: run 40 m 35 mm² copper, or: run 12 m 240 x2 aluminium"
                                     : "Write: run 100 ft 500 kcmil x2 copper steel, or: run 30 m 4/0 Al EMT";
    PathRun run;
    bool length = false, material = false, raceway = false;
    const auto words = wordsOf(text);
    for (std::size_t i = 0; i < words.size();) {
        const std::string& w = words[i];
        std::size_t n = 0;
        if (const auto m = materialFrom(w); m && !material) {
            run.material = *m;
            material = true;
            n = 1;
        } else if (const auto r = racewayFrom(w, book); r && !raceway) { // a second "aluminium" is the raceway's
            run.raceway = *r;
            raceway = true;
            n = 1;
        } else if (const auto sets = setsFrom(w)) {
            run.sets = *sets;
            n = 1;
        } else if (sameWord(w, "x") && i + 1 < words.size() && setsFrom("x" + words[i + 1])) {
            run.sets = *setsFrom("x" + words[i + 1]);
            n = 2;
        } else if (i + 1 < words.size() && setsFrom("x" + w) &&
                   (sameWord(words[i + 1], "x") || sameWord(words[i + 1], "sets") || sameWord(words[i + 1], "set"))) {
            run.sets = *setsFrom("x" + w);
            n = 2;
        } else if (sameWord(w, "of") || sameWord(w, "in")) {
            n = 1; // "2 sets of 500 kcmil in EMT"
        } else {
            if (!length)
                n = longest(words, i, [&](const std::string& phrase) {
                    const auto metres = endsInDigit(phrase) ? std::nullopt : metresFrom(phrase, UnitSystem::Imperial);
                    if (!metres || *metres < 0) return false;
                    run.length = Metres{*metres};
                    return length = true;
                });
            if (n == 0 && run.size < 0)
                n = longest(words, i, [&](const std::string& phrase) {
                    // "4 x2" is #4 twice, "4 x 2" four sets of #2.
                    const bool setsBehind =
                        phrase.find(" x") != std::string::npos && phrase.find(" x ") == std::string::npos;
                    const auto size = setsBehind ? std::nullopt : typedSize(phrase);
                    const SizeIndex found = size ? book.find(size->size) : -1;
                    if (found < 0) return false;
                    run.size = found;
                    if (size->sets > 0) run.sets = size->sets;
                    return true;
                });
        }
        if (n == 0) return unknown(w, help);
        i += n;
    }
    if (!length) return Error{text, "it has no length with its unit", help};
    if (run.size < 0) return Error{text, "it has no conductor size", help};
    return run;
}

Outcome<PathTransformer> readPathTransformer(const std::string& text) {
    const char* help = "Write: transformer 75 kVA 4.5 % X/R 2 208Y/120";
    PathTransformer t;
    bool secondary = false;
    const auto words = wordsOf(text);
    for (std::size_t i = 0; i < words.size();) {
        const std::string& w = words[i];
        std::size_t n = 0;
        if (sameWord(w, "x/r") && i + 1 < words.size() && typedNumber(words[i + 1])) {
            t.xOverR = *typedNumber(words[i + 1]);
            n = 2;
        } else if (sameWord(w, "z")) {
            n = 1; // "Z 4.5 %"
        } else {
            n = longest(words, i, [&](std::string phrase) {
                if (endsInDigit(phrase)) return false;
                if (!phrase.empty() && lower(phrase.back()) == 'z') phrase.pop_back(); // "4.5 %Z"
                if (const auto kva = readTyped(phrase, "kVA"); kva && lower(phrase.back()) == 'a') {
                    t.kva = *kva;
                    return true;
                }
                if (phrase.back() != '%') return false;
                const auto z = readTyped(phrase, "%");
                if (z) t.percentZ = *z;
                return bool(z);
            });
            if (n == 0 && !secondary)
                n = longest(words, i, [&](const std::string& phrase) {
                    const auto s = systemNamed(phrase);
                    if (s) t.secondary = *s, secondary = true;
                    return bool(s);
                });
        }
        if (n == 0) return unknown(w, help);
        i += n;
    }
    if (!(t.kva >= 0.1 && t.kva <= 1e6 && t.percentZ >= 0.1 && t.percentZ <= 100 && t.xOverR >= 0) || !secondary)
        return Error{text, "it needs its kVA, its impedance in % and the system of its secondary", help};
    return t;
}

} // namespace lintel
