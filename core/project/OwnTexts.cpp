#include "core/project/OwnTexts.h"

#include "core/base/Parse.h"

#include <set>

namespace lintel {

std::string ownTextsLine(const std::map<std::string, std::string>& texts) {
    std::string out;
    for (const auto& [heading, text] : texts) out += (out.empty() ? "" : "; ") + heading + ": " + text;
    return out;
}

namespace {
/// Headings with their texts, empty ones too.
Outcome<std::map<std::string, std::string>> readLine(const std::string& line) {
    std::map<std::string, std::string> read;
    for (std::size_t from = 0; from <= line.size();) {
        const auto end = std::min(line.find(';', from), line.size());
        const std::string part = trimmed(line.substr(from, end - from));
        from = end + 1;
        if (part.empty()) continue;
        const auto colon = part.find(':');
        const std::string heading = trimmed(part.substr(0, colon));
        if (colon == std::string::npos || heading.empty() || heading.find_first_of("{}[]") != std::string::npos)
            return Error{part, "this is not a heading with its text", "Type Tag: K-4; Panel: left."};
        if (!read.emplace(heading, trimmed(part.substr(colon + 1))).second)
            return Error{part, "“" + heading + "” stands there twice", "Give each heading once."};
    }
    return read;
}
} // namespace

std::optional<Error> mergeOwnTexts(std::map<std::string, std::string>& texts, const std::string& line) {
    const auto read = readLine(line);
    if (!read) return read.error();
    for (const auto& [heading, text] : *read)
        if (text.empty())
            texts.erase(heading);
        else
            texts[heading] = text;
    return std::nullopt;
}

std::optional<Error> setOwnTexts(std::map<std::string, std::string>& texts, const std::string& line) {
    std::map<std::string, std::string> fresh;
    if (auto bad = mergeOwnTexts(fresh, line)) return bad;
    texts = std::move(fresh);
    return std::nullopt;
}

namespace {
template <class F> void eachOwnText(const Project& p, F f) {
    for (const Board& b : p.boards)
        for (const auto& [heading, text] : b.texts) f(heading, text);
    for (const Circuit& c : p.circuits)
        for (const auto& [heading, text] : c.texts) f(heading, text);
}
} // namespace

std::vector<std::string> ownHeadings(const Project& p) {
    std::set<std::string> all;
    eachOwnText(p, [&](const std::string& heading, const std::string&) { all.insert(heading); });
    return {all.begin(), all.end()};
}

std::vector<std::string> ownEntries(const Project& p, const std::string& heading) {
    std::set<std::string> all;
    eachOwnText(p, [&](const std::string& of, const std::string& text) {
        if (of == heading && !text.empty()) all.insert(text);
    });
    return {all.begin(), all.end()};
}

} // namespace lintel
