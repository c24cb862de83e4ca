#include "core/formats/Step.h"

#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/TextFile.h"
#include "core/base/Utf8.h"

#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <optional>

namespace lintel {
namespace {

constexpr int deepest = 32; ///< brackets within brackets of one instance; schemas need four

bool isWordLetter(char c) { return isLetter(c) || isDigit(c) || c == '_'; }

void addUtf8(std::string& out, std::uint32_t c) {
    if (c < 0x80) {
        out += char(c);
    } else if (c < 0x800) {
        out += char(0xC0 | (c >> 6));
        out += char(0x80 | (c & 0x3F));
    } else if (c < 0x10000) {
        out += char(0xE0 | (c >> 12));
        out += char(0x80 | ((c >> 6) & 0x3F));
        out += char(0x80 | (c & 0x3F));
    } else {
        out += char(0xF0 | (c >> 18));
        out += char(0x80 | ((c >> 12) & 0x3F));
        out += char(0x80 | ((c >> 6) & 0x3F));
        out += char(0x80 | (c & 0x3F));
    }
}

/// The number of so many hexadecimal digits; nothing where they are none.
std::optional<std::uint32_t> hexOf(std::string_view s, std::size_t at, std::size_t digits) {
    if (at + digits > s.size()) return std::nullopt;
    std::uint32_t n = 0;
    const auto [end, bad] = std::from_chars(s.data() + at, s.data() + at + digits, n, 16);
    if (bad != std::errc() || end != s.data() + at + digits) return std::nullopt;
    return n;
}

/// A text between its apostrophes: '' is one of them, \X2\…\X0\ and \X4\…\X0\ are letters of Unicode, \X\E9 and \S\i
/// one of ISO 8859-1 (ISO 10303-21, 6.4.3). Letters beyond the standard's alphabet are taken as UTF-8 where they are.
std::string decoded(std::string_view s) {
    std::string out;
    for (std::size_t i = 0; i < s.size();) {
        if (s[i] == '\'') { // of two
            out += '\'';
            i += 2;
        } else if (s[i] != '\\') {
            out += s[i++];
        } else if (s.substr(i, 2) == "\\\\") {
            out += '\\';
            i += 2;
        } else if (s.substr(i, 3) == "\\S\\" && i + 3 < s.size()) {
            addUtf8(out, std::uint32_t(static_cast<unsigned char>(s[i + 3])) + 128);
            i += 4;
        } else if (s.substr(i, 3) == "\\X\\" && hexOf(s, i + 3, 2)) {
            addUtf8(out, *hexOf(s, i + 3, 2));
            i += 5;
        } else if (s.substr(i, 4) == "\\X2\\" || s.substr(i, 4) == "\\X4\\") {
            const std::size_t digits = s[i + 2] == '2' ? 4 : 8;
            i += 4;
            std::uint32_t high = 0;
            while (const auto c = hexOf(s, i, digits)) {
                i += digits;
                if (*c >= 0xD800 && *c < 0xDC00) { // the first half of a pair
                    high = *c;
                    continue;
                }
                std::uint32_t letter = *c;
                if (high && *c >= 0xDC00 && *c < 0xE000) letter = 0x10000 + ((high - 0xD800) << 10) + (*c - 0xDC00);
                high = 0;
                addUtf8(out, letter < 0x110000 && !(letter >= 0xD800 && letter < 0xE000) ? letter : 0xFFFD);
            }
            if (s.substr(i, 4) == "\\X0\\") i += 4;
        } else if (s.substr(i, 2) == "\\P" && i + 3 < s.size() && s[i + 3] == '\\') {
            i += 4; // another page of ISO 8859, which nobody writes
        } else {
            out += s[i++];
        }
    }
    return printable(repairedUtf8(out));
}

/// Blanks, ends of lines and comments are passed over.
std::size_t passed(std::string_view s, std::size_t at) {
    while (at < s.size()) {
        if (s[at] == ' ' || s[at] == '\t' || s[at] == '\r' || s[at] == '\n') {
            ++at;
        } else if (s.substr(at, 2) == "/*") {
            const std::size_t end = s.find("*/", at + 2);
            at = end == std::string_view::npos ? s.size() : end + 2;
        } else {
            break;
        }
    }
    return at;
}
/// Behind the text that begins at `at` with its apostrophe; npos: it does not end.
std::size_t endOfText(std::string_view s, std::size_t at) {
    for (++at; at < s.size(); ++at)
        if (s[at] == '\'') {
            if (at + 1 < s.size() && s[at + 1] == '\'')
                ++at;
            else
                return at + 1;
        }
    return std::string_view::npos;
}

/// Reads values; `good` falls where what stands there is none.
struct ValueReader {
    std::string_view s;
    std::size_t at;
    bool good = true;

    char next() {
        at = passed(s, at);
        return at < s.size() ? s[at] : '\0';
    }
    std::string_view word() {
        const std::size_t from = at;
        while (at < s.size() && isWordLetter(s[at])) ++at;
        return s.substr(from, at - from);
    }
    std::vector<StepValue> list(int depth) {
        std::vector<StepValue> out;
        if (next() != '(' || depth > deepest) return good = false, out;
        ++at;
        if (next() == ')') return ++at, out;
        while (good) {
            out.push_back(value(depth + 1));
            const char c = next();
            ++at;
            if (c == ')') return out;
            if (c != ',') good = false;
        }
        return out;
    }
    StepValue value(int depth) {
        StepValue v;
        const char c = next();
        if (c == '$' || c == '*') {
            ++at;
        } else if (c == '\'') {
            const std::size_t end = endOfText(s, at);
            if (end == std::string_view::npos) return good = false, v;
            v.kind = StepValue::Kind::Text;
            v.text = decoded(s.substr(at + 1, end - at - 2));
            at = end;
        } else if (c == '#') {
            v.kind = StepValue::Kind::Reference;
            const auto [end, bad] = std::from_chars(s.data() + at + 1, s.data() + s.size(), v.reference);
            good = good && bad == std::errc();
            at = std::size_t(end - s.data());
        } else if (c == '(') {
            v.kind = StepValue::Kind::List;
            v.items = list(depth);
        } else if (c == '.') {
            ++at;
            v.kind = StepValue::Kind::Word;
            v.text = word();
            good = good && at < s.size() && s[at] == '.';
            ++at;
        } else if (c == '"') { // bits, of which building models have none
            const std::size_t end = s.find('"', at + 1);
            if (end == std::string_view::npos) return good = false, v;
            at = end + 1;
        } else if (isLetter(c)) {
            const std::string type(word());
            const auto inside = list(depth);
            if (inside.size() != 1) return good = false, v;
            v = inside.front();
            v.type = type;
        } else {
            v.kind = StepValue::Kind::Number;
            if (c == '+') ++at;
            const auto [end, bad] = std::from_chars(s.data() + at, s.data() + s.size(), v.number);
            good = good && bad == std::errc() && std::abs(v.number) < 1e15;
            at = std::size_t(end - s.data());
        }
        return v;
    }
};

int lineAt(std::string_view s, std::size_t at) {
    return 1 + int(std::count(s.begin(), s.begin() + std::ptrdiff_t(std::min(at, s.size())), '\n'));
}

} // namespace

Outcome<StepFile> StepFile::read(const std::filesystem::path& file, const std::function<bool(double)>& keep) {
    auto text = readText(file);
    if (!text) return text.error();
    return parse(std::move(*text), file.filename().string(), keep);
}

Outcome<StepFile> StepFile::parse(std::string content, const std::string& name,
                                  const std::function<bool(double)>& keep) {
    StepFile f;
    f.text = std::move(content);
    const std::string_view s = f.text;
    const auto where = [&](std::size_t at) { return fmt::format("{}, line {}", name, lineAt(s, at)); };
    const std::size_t begin = passed(s, 0);
    if (s.substr(begin, 13) != "ISO-10303-21;")
        return Error{name, "it is no building model in the STEP format", "It begins with \"ISO-10303-21;\"."};
    if (const std::size_t schema = s.find("FILE_SCHEMA"); schema != std::string_view::npos) {
        ValueReader r{s, schema + 11};
        const auto said = r.list(0);
        if (r.good && said.size() == 1 && !said[0].items.empty()) f.schemaName = said[0].items[0].text;
    }
    std::size_t at = s.find("DATA;");
    if (at == std::string_view::npos) return Error{name, "it has no data", "Save it again where it comes from."};
    at += 5;
    std::unordered_map<std::string, std::uint32_t> names;
    std::size_t told = 0;
    for (;;) {
        at = passed(s, at);
        if (at >= s.size() || s.substr(at, 7) == "ENDSEC;") break;
        if (keep && at - told > (1u << 20)) {
            told = at;
            if (!keep(double(at) / double(s.size()))) return Error{name, "reading was stopped", ""};
        }
        const std::size_t from = at;
        const Error damaged{where(from), "this is no instance", "Save the model again where it comes from."};
        std::uint32_t id = 0;
        if (s[at] != '#') return damaged;
        const auto [end, bad] = std::from_chars(s.data() + at + 1, s.data() + s.size(), id);
        if (bad != std::errc()) return damaged;
        at = passed(s, std::size_t(end - s.data()));
        if (at >= s.size() || s[at] != '=') return damaged;
        at = passed(s, at + 1);
        std::string type;
        while (at < s.size() && isWordLetter(s[at])) type += upper(s[at++]);
        at = passed(s, at);
        Instance instance{at, 0};
        for (;; ++at) { // to its semicolon; texts may hold some
            if (at >= s.size())
                return Error{where(from), "the file ends within this instance", "It was cut off: take it anew."};
            if (s[at] == '\'') {
                at = endOfText(s, at);
                if (at == std::string_view::npos)
                    return Error{where(from), "a text in this instance does not end", "It was cut off: take it anew."};
                --at;
            } else if (s[at] == ';') {
                ++at;
                break;
            }
        }
        const auto [it, fresh] = names.try_emplace(type, std::uint32_t(f.types.size()));
        if (fresh) f.types.push_back(type);
        instance.type = it->second;
        if (!f.instances.emplace(id, instance).second)
            return Error{where(from), fmt::format("#{} is there twice", id), "Save the model again."};
        f.byType[type].push_back(id);
    }
    return f;
}

std::string_view StepFile::typeOf(std::uint32_t id) const {
    const auto it = instances.find(id);
    return it == instances.end() ? std::string_view() : std::string_view(types[it->second.type]);
}

const std::vector<std::uint32_t>& StepFile::of(const std::string& type) const {
    static const std::vector<std::uint32_t> none;
    const auto it = byType.find(type);
    return it == byType.end() ? none : it->second;
}

const std::vector<StepValue>& StepFile::values(std::uint32_t id) const {
    if (const auto it = known.find(id); it != known.end()) return it->second;
    std::vector<StepValue> out;
    if (const auto it = instances.find(id); it != instances.end()) {
        ValueReader r{text, it->second.begin};
        out = r.list(0);
        if (!r.good || r.next() != ';') {
            out.clear();
            ++broken;
        }
    }
    return known.emplace(id, std::move(out)).first->second;
}

} // namespace lintel
