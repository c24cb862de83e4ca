#include "core/base/Parse.h"

#include "core/base/Quantity.h"
#include "core/base/Typed.h"

#include <algorithm>
#include <charconv>
#include <cmath>

namespace lintel {

std::string trimmed(std::string_view t) {
    const auto blank = [](std::string_view s) -> std::size_t { // bytes of a blank at the front
        if (s.empty()) return 0;
        if (isBlank(s[0])) return 1;
        if (s.substr(0, 2) == "\u00a0" || s.substr(0, 2) == "\ufeff") return 2;
        if (s.substr(0, 3) == "\u202f" || s.substr(0, 3) == "\u2009" || s.substr(0, 3) == "\ufeff") return 3;
        return 0;
    };
    while (const std::size_t n = blank(t)) t.remove_prefix(n);
    while (!t.empty()) {
        if (isBlank(t.back()))
            t.remove_suffix(1);
        else if (t.size() >= 2 && t.substr(t.size() - 2) == "\u00a0")
            t.remove_suffix(2);
        else if (t.size() >= 3 && (t.substr(t.size() - 3) == "\u202f" || t.substr(t.size() - 3) == "\u2009"))
            t.remove_suffix(3);
        else
            break;
    }
    return std::string(t);
}

std::string lowered(std::string_view text) {
    std::string s(text);
    for (char& c : s) c = lower(c);
    return s;
}

bool sameWord(std::string_view a, std::string_view b) { return lowered(a) == lowered(b); }

std::optional<double> numberFrom(std::string_view text, char decimal) {
    std::string s;
    const std::string t = trimmed(text);
    for (std::size_t i = 0; i < t.size();) { // blanks between thousands and the typographic minus
        const std::string_view rest = std::string_view(t).substr(i);
        if (rest.substr(0, 2) == "\u00a0")
            i += 2;
        else if (rest.substr(0, 3) == "\u202f" || rest.substr(0, 3) == "\u2009")
            i += 3;
        else if (rest.substr(0, 3) == "−")
            s += '-', i += 3;
        else if (t[i] == ' ' || t[i] == '\'') {
            const auto digit = [&](std::size_t k) { return k < t.size() && isDigit(t[k]); };
            if (i == 0 || !digit(i - 1) || !digit(i + 1) || !digit(i + 2) || !digit(i + 3) || digit(i + 4))
                return std::nullopt;
            ++i;
        } else
            s += t[i++];
    }
    if (s.empty() || s.back() == ',') return std::nullopt;
    const std::size_t dots = std::size_t(std::count(s.begin(), s.end(), '.')),
                      commas = std::size_t(std::count(s.begin(), s.end(), ','));
    char sign = decimal;
    if (dots && commas)
        sign = s.rfind('.') > s.rfind(',') ? '.' : ',';
    else if (dots > 1)
        sign = ',';
    else if (commas > 1)
        sign = '.';
    else if (dots + commas == 1) { // three digits after it may be thousands, anything else is a fraction
        const std::size_t at = s.find_first_of(".,");
        if (s.size() - at - 1 != 3 || s.find_first_of("eE") != std::string::npos || at == 0 || s[at - 1] == '-' ||
            (at == 1 && s[0] == '0'))
            sign = s[at];
    }
    std::string plain;
    std::size_t sinceSign = 0;
    bool grouped = false, point = false;
    for (char c : s) {
        if (c == sign && (c == '.' || c == ',')) {
            if (point || (grouped && sinceSign != 3)) return std::nullopt;
            plain += '.', point = true;
        } else if (c == '.' || c == ',') {
            if (point || (grouped && sinceSign != 3) || plain.empty()) return std::nullopt;
            grouped = true, sinceSign = 0;
        } else {
            plain += c, ++sinceSign;
        }
    }
    if (grouped && !point && sinceSign != 3) return std::nullopt;
    double v = 0;
    const char* from = plain.c_str() + (plain[0] == '+' ? 1 : 0);
    const char* to = plain.c_str() + plain.size();
    const auto [end, bad] = std::from_chars(from, to, v);
    if (bad != std::errc() || end != to || !std::isfinite(v)) return std::nullopt;
    return v;
}

std::optional<double> takePlainNumber(std::string_view& text) {
    std::string_view t = text;
    while (!t.empty() && isBlank(t.front())) t.remove_prefix(1);
    if (t.size() > 1 && t.front() == '+' && (isDigit(t[1]) || t[1] == '.')) t.remove_prefix(1);
    if (t.empty() || !(isDigit(t.front()) || t.front() == '-' || t.front() == '.'))
        return std::nullopt; // "inf" and "nan" are words here
    double v = 0;
    const auto [end, bad] = std::from_chars(t.data(), t.data() + t.size(), v);
    if (bad != std::errc() || !std::isfinite(v)) return std::nullopt;
    t.remove_prefix(std::size_t(end - t.data()));
    text = t;
    return v;
}

std::optional<double> plainNumber(std::string_view text) {
    const auto v = takePlainNumber(text);
    while (!text.empty() && isBlank(text.front())) text.remove_prefix(1);
    return text.empty() ? v : std::nullopt;
}

std::optional<bool> yesFrom(std::string_view text) {
    const std::string t = lowered(trimmed(text));
    for (const char* yes : {"yes", "y", "true", "1", "x", "on"})
        if (t == yes) return true;
    for (const char* no : {"", "no", "n", "false", "0", "off", "-", "–"})
        if (t == no) return false;
    return std::nullopt;
}

} // namespace lintel
