// A delta is a row of orders, a line each: "= 12 3" takes three lines over from line 12 on (counted from 0), "+ 2"
// takes the two lines that follow. A text's last line has no end of line when the text has none.

#include "core/base/TextDelta.h"

#include "core/base/Parse.h"

#include <charconv>
#include <string_view>
#include <unordered_map>
#include <vector>

namespace lintel {
namespace {

constexpr std::size_t manyAlike = 16; // places of one line that are tried

std::vector<std::string_view> linesOf(const std::string& text) {
    std::vector<std::string_view> lines;
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t end = text.find('\n', at);
        const std::size_t next = end == std::string::npos ? text.size() : end + 1;
        lines.push_back(std::string_view(text).substr(at, next - at));
        at = next;
    }
    return lines;
}

/// A whole number, and the blank or end of line behind it; false: there is none.
bool readNumber(const std::string& text, std::size_t& at, std::size_t& value, char behind) {
    const char *begin = text.data() + at, *end = text.data() + text.size();
    const auto [to, bad] = std::from_chars(begin, end, value);
    if (bad != std::errc() || to == end || *to != behind) return false;
    at = std::size_t(to - text.data()) + 1;
    return true;
}

} // namespace

std::string deltaOf(const std::string& from, const std::string& to) {
    const auto old = linesOf(from), fresh = linesOf(to);
    std::unordered_map<std::string_view, std::vector<std::size_t>> places;
    for (std::size_t i = 0; i < old.size(); ++i)
        if (auto& at = places[old[i]]; at.size() < manyAlike) at.push_back(i);
    std::string out, own;
    std::size_t ownLines = 0, expected = 0;
    const auto flush = [&] {
        if (ownLines > 0) out += "+ " + std::to_string(ownLines) + "\n" + own;
        own.clear();
        ownLines = 0;
    };
    const auto alike = [&](std::size_t i, std::size_t k) {
        std::size_t n = 0;
        while (i + n < fresh.size() && k + n < old.size() && fresh[i + n] == old[k + n]) ++n;
        return n;
    };
    for (std::size_t i = 0; i < fresh.size();) {
        std::size_t best = expected < old.size() ? alike(i, expected) : 0, at = expected;
        if (best == 0)
            if (const auto known = places.find(fresh[i]); known != places.end())
                for (std::size_t k : known->second)
                    if (const std::size_t n = alike(i, k); n > best) best = n, at = k;
        if (best == 0) {
            own += fresh[i];
            ++ownLines;
            ++i;
            continue;
        }
        flush();
        out += "= " + std::to_string(at) + " " + std::to_string(best) + "\n";
        i += best;
        expected = at + best;
    }
    flush();
    return out;
}

std::optional<std::string> applyDelta(const std::string& from, const std::string& delta) {
    const auto old = linesOf(from);
    std::string out;
    for (std::size_t at = 0; at < delta.size();) {
        const char order = delta[at];
        if (at + 2 > delta.size() || delta[at + 1] != ' ') return std::nullopt;
        at += 2;
        if (order == '=') {
            std::size_t first = 0, count = 0;
            if (!readNumber(delta, at, first, ' ') || !readNumber(delta, at, count, '\n')) return std::nullopt;
            if (first > old.size() || count > old.size() - first) return std::nullopt;
            for (std::size_t i = first; i < first + count; ++i) out += old[i];
        } else if (order == '+') {
            std::size_t count = 0;
            if (!readNumber(delta, at, count, '\n')) return std::nullopt;
            for (; count > 0; --count) {
                if (at >= delta.size()) return std::nullopt;
                const std::size_t end = delta.find('\n', at);
                const std::size_t next = end == std::string::npos ? delta.size() : end + 1;
                out.append(delta, at, next - at);
                at = next;
            }
        } else {
            return std::nullopt;
        }
    }
    return out;
}

} // namespace lintel
