#include "core/drawing/TextWidth.h"

#include <algorithm>
#include <array>

namespace lintel {
namespace {

constexpr int firstLetter = 32, letters = 95;

/// Advance widths of Open Sans, from blank to tilde, in thousandths of the letters' body.
constexpr std::array<int, letters> regular{
    260, 267, 401, 646, 572, 823, 730, 221, 296, 296, 552, 572, 245, 322, 266, 367, 572, 572, 572,
    572, 572, 572, 572, 572, 572, 572, 266, 266, 572, 572, 572, 429, 899, 633, 648, 631, 729, 556,
    516, 728, 738, 279, 267, 614, 519, 903, 754, 779, 602, 779, 618, 549, 553, 728, 595, 926, 577,
    560, 571, 329, 367, 329, 542, 448, 577, 556, 613, 476, 613, 561, 339, 548, 614, 253, 253, 525,
    253, 930, 614, 604, 613, 613, 408, 477, 353, 614, 501, 778, 524, 504, 468, 379, 551, 379, 572};
constexpr std::array<int, letters> heavy{260, 286, 472, 646, 571, 901, 750, 266, 339, 339, 545, 571, 290, 322, 285, 413,
                                         571, 571, 571, 571, 571, 571, 571, 571, 571, 571, 285, 290, 571, 571, 571, 477,
                                         897, 690, 672, 637, 740, 560, 549, 724, 765, 331, 331, 664, 565, 943, 813, 796,
                                         628, 796, 660, 551, 579, 756, 650, 967, 667, 624, 579, 331, 413, 331, 532, 411,
                                         607, 604, 633, 514, 633, 591, 387, 565, 657, 305, 305, 620, 305, 982, 657, 619,
                                         633, 633, 454, 497, 434, 657, 569, 856, 578, 569, 488, 394, 551, 394, 571};

/// Of letters beyond those; what is not named is taken as a wide one, so that room is never short.
int otherWidth(char32_t letter) {
    switch (letter) {
    case U'\u00a0':
        return 260;
    case U'\u2009':
    case U'\u202f':
        return 200;
    case U'\u00b7':
        return 285;
    case U'\u2032':
        return 266;
    case U'\u2033':
        return 472;
    case U'\u00b0':
        return 428;
    case U'\u00b2':
        return 379;
    case U'\u2013':
        return 500;
    case U'\u2014':
        return 1000;
    case U'\u00d7':
    case U'\u2264':
    case U'\u2265':
        return 572;
    default:
        return letter < 0x250 ? 660 : 1000;
    }
}

/// Length in bytes of the letter that begins at `at`.
std::size_t lengthAt(const std::string& text, std::size_t at) {
    const auto lead = static_cast<unsigned char>(text[at]);
    const std::size_t length = lead < 0x80 ? 1 : lead < 0xE0 ? 2 : lead < 0xF0 ? 3 : 4;
    return std::min(length, text.size() - at);
}

int letterWidth(const std::string& text, std::size_t at, std::size_t length, bool bold) {
    const auto lead = static_cast<unsigned char>(text[at]);
    if (length == 1) {
        if (lead < firstLetter || lead >= firstLetter + letters) return 260;
        return (bold ? heavy : regular)[std::size_t(lead - firstLetter)];
    }
    char32_t letter = lead & (0xFFu >> (length + 1));
    for (std::size_t i = 1; i < length; ++i) letter = letter << 6 | (static_cast<unsigned char>(text[at + i]) & 0x3Fu);
    return otherWidth(letter);
}

} // namespace

double textWidth(const std::string& text, double size, bool bold) {
    int sum = 0;
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t length = lengthAt(text, at);
        sum += letterWidth(text, at, length, bold);
        at += length;
    }
    return sum * size / 1000;
}

double sizeWithin(const std::string& text, double width, double size, bool bold) {
    constexpr double narrowest = 0.85;
    const double needs = textWidth(text, size, bold) * narrowest;
    return needs > width ? size * width / needs : size;
}

std::vector<std::string> wrapText(const std::string& text, double width, double size, bool bold) {
    std::vector<std::string> lines;
    std::string line;
    double used = 0;
    const double blank = textWidth(" ", size, bold);
    const auto close = [&] {
        if (!line.empty()) lines.push_back(line);
        line.clear();
        used = 0;
    };
    for (std::size_t from = 0; from < text.size();) {
        std::size_t to = text.find(' ', from);
        if (to == std::string::npos) to = text.size();
        const std::string word = text.substr(from, to - from);
        from = to + 1;
        if (word.empty()) continue;
        const double wide = textWidth(word, size, bold);
        if (!line.empty() && used + blank + wide > width) close();
        if (line.empty() && wide > width) { // longer than a line: between letters
            for (std::size_t at = 0; at < word.size();) {
                const std::size_t length = lengthAt(word, at);
                const double one = letterWidth(word, at, length, bold) * size / 1000;
                if (!line.empty() && used + one > width) close();
                line += word.substr(at, length);
                used += one;
                at += length;
            }
            continue;
        }
        if (!line.empty()) {
            line += ' ';
            used += blank;
        }
        line += word;
        used += wide;
    }
    close();
    return lines;
}

std::vector<std::string> linesAtMost(std::vector<std::string> lines, std::size_t most) {
    while (lines.size() > std::max<std::size_t>(1, most)) {
        lines[lines.size() - 2] += " " + lines.back();
        lines.pop_back();
    }
    return lines;
}

} // namespace lintel
