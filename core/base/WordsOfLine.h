#pragma once
// The words of one line, parted by blanks and tabs.

#include <string>
#include <string_view>
#include <vector>

namespace lintel {

inline std::vector<std::string> wordsOfLine(std::string_view line) {
    std::vector<std::string> words(1);
    for (char c : line)
        if (c != ' ' && c != '\t')
            words.back() += c;
        else if (!words.back().empty())
            words.emplace_back();
    if (words.back().empty()) words.pop_back();
    return words;
}

} // namespace lintel
