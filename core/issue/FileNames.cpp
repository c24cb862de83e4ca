#include "core/issue/FileNames.h"

#include "core/base/Parse.h"
#include "core/base/Utf8.h"

#include <algorithm>

namespace lintel {

const char* const usualFilePattern = "{job}-{issue} {what}";

const std::vector<std::string>& filePlaces() {
    static const std::vector<std::string> places{"job", "title", "issue", "date", "status", "what"};
    return places;
}

std::optional<Error> refuseFilePattern(const std::string& pattern) {
    std::string known;
    for (const std::string& place : filePlaces()) known += (known.empty() ? "{" : ", {") + place + "}";
    bool what = false;
    for (std::size_t i = 0; i < pattern.size(); ++i) {
        if (pattern[i] == '}') return Error{"names of files", "a brace is closed that was not opened", ""};
        if (pattern[i] != '{') continue;
        const std::size_t close = pattern.find('}', i);
        if (close == std::string::npos) return Error{"names of files", "a brace is not closed", ""};
        const std::string place = pattern.substr(i + 1, close - i - 1);
        if (std::find(filePlaces().begin(), filePlaces().end(), place) == filePlaces().end())
            return Error{"names of files", "there is no place {" + place + "}", "There are " + known + "."};
        what = what || place == "what";
        i = close;
    }
    if (!what)
        return Error{"names of files", "all files would have one name", "Put {what} where the file's own name goes."};
    return std::nullopt;
}

namespace {

/// What every system takes in a name: no sign that parts folders or drives, none that asks, none that is not seen.
std::string safe(std::string name) {
    for (char& c : name)
        if (static_cast<unsigned char>(c) < 32 || c == 127 || std::string("/\\:*?\"<>|").find(c) != std::string::npos)
            c = '_';
    while (!name.empty() && (name.back() == ' ' || name.back() == '.')) name.pop_back();
    std::size_t from = 0;
    while (from < name.size() && (name[from] == ' ' || name[from] == '-')) ++from;
    name.erase(0, from);
    if (!name.empty() && name[0] == '.') name[0] = '_';
    return name;
}

} // namespace

std::string fileNameOf(const std::string& pattern, const Project& p, const std::string& what) {
    constexpr std::size_t most = 180;
    const Basis& b = p.basis;
    const auto with = [&](std::size_t room) {
        const auto cut = [&](const std::string& s) { return std::string(cutUtf8(s, room)); };
        return safe(fillPattern(pattern, {{"job", cut(b.jobNumber)},
                                          {"title", cut(b.title)},
                                          {"issue", cut(b.issue)},
                                          {"date", cut(b.issueDate)},
                                          {"status", cut(b.status)},
                                          {"what", std::string(cutUtf8(what, 120))}}));
    };
    std::string name = with(most);
    for (std::size_t room = 40; name.size() > most && room > 0; room /= 2) name = with(room);
    name = safe(std::string(cutUtf8(name, most)));
    return name.empty() ? "files" : name;
}

std::string UniqueNames::of(const std::string& name, const std::string& ending) {
    const auto key = [](const std::string& s) {
        std::string k = s;
        for (char& c : k) c = upper(c);
        return k;
    };
    std::string made = name + ending;
    for (int n = 2; !taken.insert(key(made)).second; ++n) made = name + " (" + std::to_string(n) + ")" + ending;
    return made;
}

} // namespace lintel
