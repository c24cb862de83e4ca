#include "core/project/LoadWords.h"

#include "core/base/DataPath.h"
#include "core/base/Json.h"
#include "core/base/Parse.h"
#include "core/base/TextFile.h"

#include <fmt/format.h>
#include <map>

namespace lintel {
namespace {

/// In small letters, cut at whatever is no letter; what follows the first comma is left out.
std::vector<std::string> wordsOf(const std::string& text) {
    std::vector<std::string> out;
    std::string word;
    for (char c : lowered(text.substr(0, text.find(',')))) {
        if (isLetter(c))
            word += c;
        else if (!word.empty())
            out.push_back(std::move(word)), word.clear();
    }
    if (!word.empty()) out.push_back(std::move(word));
    return out;
}
bool same(const std::string& said, const std::string& listed) {
    return said == listed || said == listed + "s" || said == listed + "es";
}

/// Whether a phrase stands at `from` in what is said, its last word plural or not.
bool standsAt(const std::vector<std::string>& said, std::size_t from, const std::vector<std::string>& phrase) {
    if (from + phrase.size() > said.size()) return false;
    for (std::size_t i = 0; i < phrase.size(); ++i) {
        const bool last = i + 1 == phrase.size();
        if (last ? !same(said[from + i], phrase[i]) : said[from + i] != phrase[i]) return false;
    }
    return true;
}

} // namespace

Outcome<LoadWords> LoadWords::load(const std::filesystem::path& file) {
    const auto text = readText(file);
    if (!text) return text.error();
    const auto j = parseJson(*text, file.string());
    if (!j) return j.error();
    LoadWords out;
    if (!j->is_object() || !j->contains("kinds") || !(*j)["kinds"].is_object())
        return Error{file.string(), "it has no \"kinds\"", "Give \"kinds\": {\"lighting\": [\"light\"]}."};
    std::map<std::vector<std::string>, std::string> seen;
    for (const auto& [word, list] : (*j)["kinds"].items()) {
        const auto kind = fromWord<LoadKind>(word);
        if (!kind) return Error{file.string(), fmt::format("there is no load kind \"{}\"", word), ""};
        if (!list.is_array()) return Error{file.string(), fmt::format("\"{}\" is no list of words", word), ""};
        for (const auto& phrase : list) {
            if (!phrase.is_string()) return Error{file.string(), fmt::format("a word of \"{}\" is no text", word), ""};
            const auto parts = wordsOf(phrase.get<std::string>());
            if (parts.empty()) return Error{file.string(), fmt::format("a word of \"{}\" holds no letters", word), ""};
            if (const auto [it, fresh] = seen.emplace(parts, word); !fresh)
                return Error{
                    file.string(),
                    fmt::format("\"{}\" stands for {} and for {}", phrase.get<std::string>(), it->second, word),
                    "Leave one."};
            out.words.push_back({parts, *kind});
        }
    }
    if (!j->contains("alone")) return out;
    const auto& alone = (*j)["alone"];
    if (!alone.is_array()) return Error{file.string(), "\"alone\" is no list of words", ""};
    for (const auto& phrase : alone) {
        const auto parts = phrase.is_string() ? wordsOf(phrase.get<std::string>()) : std::vector<std::string>{};
        if (parts.empty()) return Error{file.string(), "a word of \"alone\" holds no letters", ""};
        out.alone.push_back(parts);
    }
    return out;
}

const LoadWords& LoadWords::shipped() {
    static const LoadWords list = [] {
        auto read = load(dataFolder() / "words" / "load-kinds.json");
        return read ? *read : LoadWords{};
    }();
    return list;
}

std::optional<LoadKind> LoadWords::kindOf(const std::string& name) const {
    const auto said = wordsOf(name);
    std::optional<LoadKind> kind;
    std::size_t end = 0, longest = 0;
    for (const Entry& e : words)
        for (std::size_t from = 0; from + e.phrase.size() <= said.size(); ++from) {
            const bool here = standsAt(said, from, e.phrase);
            const std::size_t to = from + e.phrase.size();
            if (here && (to > end || (to == end && e.phrase.size() > longest)))
                kind = e.kind, end = to, longest = e.phrase.size();
        }
    return kind;
}

bool LoadWords::standsAlone(const std::string& name) const {
    const auto said = wordsOf(name);
    for (const auto& phrase : alone)
        for (std::size_t from = 0; from < said.size(); ++from)
            if (standsAt(said, from, phrase)) return true;
    return false;
}

} // namespace lintel
