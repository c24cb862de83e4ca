#include "core/figures/Wording.h"

#include "core/base/Parse.h"

#include <fmt/format.h>

namespace lintel {
namespace {

enum class Test { There, NotThere, Equal, Other, Less, More, AtMost, AtLeast };

struct Condition {
    std::string figure;
    Test test = Test::There;
    std::string value;
};

std::string figureText(const std::string& key, const CircuitFacts& facts) {
    if (key.starts_with("own ")) {
        const auto own = facts.c.texts.find(key.substr(4));
        if (own != facts.c.texts.end()) return own->second;
        const auto ofBoard = facts.b.texts.find(key.substr(4)); // what a board says holds for its circuits
        return ofBoard == facts.b.texts.end() ? "" : ofBoard->second;
    }
    const CircuitFigure* figure = circuitFigure(key);
    return figure ? figure->text(facts) : "";
}

/// As a number where both are one, else as words.
int compared(const std::string& a, const std::string& b) {
    const auto x = numberFrom(a), y = numberFrom(b);
    if (x && y) return *x < *y ? -1 : *x > *y ? 1 : 0;
    return sameWord(a, b) ? 0 : a < b ? -1 : 1;
}

bool holds(const Condition& c, const CircuitFacts& facts) {
    const std::string text = figureText(c.figure, facts);
    if (c.test == Test::There) return !text.empty();
    if (c.test == Test::NotThere) return text.empty();
    if (text.empty()) return c.test == Test::Other;
    const int order = compared(text, c.value);
    switch (c.test) {
    case Test::Equal:
        return order == 0;
    case Test::Other:
        return order != 0;
    case Test::Less:
        return order < 0;
    case Test::More:
        return order > 0;
    case Test::AtMost:
        return order <= 0;
    default:
        return order >= 0;
    }
}

bool known(const std::string& key) { return circuitFigure(key) || (key.starts_with("own ") && key.size() > 4); }

/// "sets > 1", "not raised"; nothing: it is no condition.
std::optional<Condition> conditionFrom(std::string text) {
    text = trimmed(text);
    static const std::pair<const char*, Test> signs[] = {
        {"≠", Test::Other},    {"!=", Test::Other}, {"≤", Test::AtMost}, {"<=", Test::AtMost}, {"≥", Test::AtLeast},
        {">=", Test::AtLeast}, {"=", Test::Equal},  {"<", Test::Less},   {">", Test::More}};
    for (const auto& [sign, test] : signs)
        if (const auto at = text.find(sign); at != std::string::npos) {
            const std::string figure = trimmed(text.substr(0, at)),
                              value = trimmed(text.substr(at + std::string(sign).size()));
            if (!known(figure) || value.empty()) return std::nullopt;
            return Condition{figure, test, value};
        }
    if (text.starts_with("not ") && known(trimmed(text.substr(4))))
        return Condition{trimmed(text.substr(4)), Test::NotThere, ""};
    if (known(text)) return Condition{text, Test::There, ""};
    return std::nullopt;
}

/// Conditions joined by "and"; nothing where one of them is none.
std::optional<std::vector<Condition>> conditionsFrom(const std::string& text) {
    std::vector<Condition> out;
    for (std::size_t from = 0; from <= text.size();) {
        const auto at = text.find(" and ", from);
        const auto c = conditionFrom(text.substr(from, at == std::string::npos ? at : at - from));
        if (!c) return std::nullopt;
        out.push_back(*c);
        if (at == std::string::npos) break;
        from = at + 5;
    }
    return out;
}

} // namespace

struct Wording::Part {
    std::string text; ///< words, or the key of a figure
    bool figure = false;
    bool group = false; ///< in brackets: `inner`, where all of `conditions` hold and no figure straight in it is empty
    std::vector<Condition> conditions{};
    std::vector<Part> inner{};
};

namespace {

using Parts = std::vector<Wording::Part>;

class Reader {
public:
    explicit Reader(const std::string& t) : text(t) {}

    Outcome<Parts> all() {
        Parts parts = level(0);
        if (error) return *error;
        return parts;
    }

private:
    const std::string& text;
    std::size_t at = 0;
    std::optional<Error> error;

    void fail(const std::string& what, const std::string& help) {
        if (!error) error = Error{text, what, help};
    }
    bool doubled(char c) const { return at + 1 < text.size() && text[at] == c && text[at + 1] == c; }

    Parts level(int depth) {
        Parts parts;
        const auto words = [&](char c) {
            if (parts.empty() || parts.back().figure || parts.back().group) parts.push_back({});
            parts.back().text += c;
        };
        if (depth > 6) {
            fail("brackets stand in one another more than six deep", "Take some of them out.");
            return parts;
        }
        while (at < text.size() && !error) {
            const char c = text[at];
            if (doubled('{') || doubled('}') || doubled('[') || (doubled(']') && depth == 0)) {
                words(c);
                at += 2;
            } else if (c == '{') {
                figure(parts);
            } else if (c == '[') {
                ++at;
                group(parts, depth);
            } else if (c == ']') {
                if (depth > 0) return parts;
                fail("a ] stands without its [", "Write ]] for the sign itself.");
            } else if (c == '}') {
                fail("a } stands without its {", "Write }} for the sign itself.");
            } else {
                words(c);
                ++at;
            }
        }
        if (depth > 0) fail("a [ is not closed", "Write ] where the part ends, or [[ for the sign itself.");
        return parts;
    }
    void figure(Parts& parts) {
        const auto end = text.find('}', at);
        if (end == std::string::npos) return fail("a { is not closed", "Write } behind the figure.");
        const std::string key = trimmed(text.substr(at + 1, end - at - 1));
        if (!known(key)) {
            std::string all;
            for (const CircuitFigure& f : circuitFigures()) all += (all.empty() ? "" : ", ") + std::string(f.key);
            return fail("there is no figure {" + key + "}", "There are: " + all + "; and own with a heading.");
        }
        parts.push_back({key, true});
        at = end + 1;
    }
    void group(Parts& parts, int depth) {
        Wording::Part part;
        part.group = true;
        const auto colon = text.find(':', at), other = text.find_first_of("{[]", at);
        if (colon != std::string::npos && colon < other)
            if (auto conditions = conditionsFrom(text.substr(at, colon - at))) {
                part.conditions = std::move(*conditions);
                at = colon + 1;
                if (at < text.size() && text[at] == ' ') ++at;
            }
        part.inner = level(depth + 1);
        if (error) return;
        ++at; // its ]
        parts.push_back(std::move(part));
    }
};

/// What parts come to; `whole` is cleared where one of their own figures is empty. `each`: the text of a figure.
template <class Each> std::string said(const Parts& parts, const CircuitFacts& facts, const Each& each, bool& whole) {
    std::string out;
    for (const Wording::Part& part : parts) {
        if (part.figure) {
            const std::string text = each(part.text);
            whole = whole && !text.empty();
            out += text;
        } else if (part.group) {
            bool stays = true;
            for (const Condition& c : part.conditions) stays = stays && holds(c, facts);
            if (!stays) continue;
            const std::string text = said(part.inner, facts, each, stays);
            if (stays) out += text;
        } else {
            out += part.text;
        }
    }
    return out;
}

void keysOf(const Parts& parts, std::vector<std::string>& into) {
    for (const Wording::Part& part : parts) {
        if (part.figure) into.push_back(part.text);
        keysOf(part.inner, into);
    }
}

bool eachPole(const std::string& key) { return key == "pole" || key == "pole VA"; }

} // namespace

Outcome<Wording> Wording::from(const std::string& text) {
    auto parts = Reader(text).all();
    if (!parts) return parts.error();
    Wording w;
    w.parts = std::make_shared<const Parts>(std::move(*parts));
    return w;
}

std::string Wording::of(const CircuitFacts& facts) const {
    bool whole = true;
    bool anything = parts->empty();
    const std::string text = said(
        *parts, facts,
        [&](const std::string& key) {
            const std::string t = figureText(key, facts);
            anything = anything || !t.empty();
            return t;
        },
        whole);
    // Words alone, with every figure empty, say nothing of a circuit: "#, #G" of a spare.
    return anything || figures().empty() ? trimmed(text) : "";
}

std::string Wording::ofPole(const CircuitFacts& facts, int pole) const {
    if (byPole()) return poleFigure(parts->front().text, facts, pole);
    return pole == 0 ? of(facts) : "";
}

const CircuitFigure* Wording::alone() const {
    return parts->size() == 1 && parts->front().figure ? circuitFigure(parts->front().text) : nullptr;
}
bool Wording::byLine() const { return alone() && parts->front().text == "phase VA"; }
bool Wording::byPole() const { return alone() && eachPole(parts->front().text); }

std::vector<std::string> Wording::figures() const {
    std::vector<std::string> keys;
    keysOf(*parts, keys);
    return keys;
}

} // namespace lintel
