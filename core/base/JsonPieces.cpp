#include "core/base/JsonPieces.h"

#include <algorithm>
#include <set>

namespace lintel {

using nlohmann::json;

namespace {

/// Thrown where a text cannot be cut: it is not well-formed there.
struct NotCut {};

/// Goes over the text of an object and notes where its values begin and end. What is inside them it does not judge.
class Cutter {
public:
    explicit Cutter(std::string_view whole) : text(whole) {
        if (text.starts_with(byteOrderMark)) at = byteOrderMark.size();
        skipSpace();
    }
    bool onObject() const { return at < text.size() && text[at] == '{'; }

    std::vector<JsonMember> members() {
        std::vector<JsonMember> all;
        separated('{', '}', [&] {
            const std::string_view key = value();
            if (key.front() != '"') throw NotCut();
            skipSpace();
            expect(':');
            skipSpace();
            JsonMember& member = all.emplace_back();
            member.key = readPiece(key).get<std::string>();
            const std::size_t from = at;
            if (at < text.size() && text[at] == '[')
                separated('[', ']', [&] { member.items.push_back(value()); });
            else
                value();
            member.text = text.substr(from, at - from);
        });
        skipSpace();
        if (at != text.size()) throw NotCut();
        return all;
    }

private:
    static constexpr std::string_view byteOrderMark = "\xEF\xBB\xBF";
    std::string_view text;
    std::size_t at = 0;

    void skipSpace() {
        while (at < text.size() && std::string_view(" \t\r\n").find(text[at]) != std::string_view::npos) ++at;
    }
    void expect(char c) {
        if (at >= text.size() || text[at] != c) throw NotCut();
        ++at;
    }
    /// Things between brackets with commas between them.
    template <class F> void separated(char open, char close, F thing) {
        expect(open);
        skipSpace();
        if (at < text.size() && text[at] == close) {
            ++at;
            return;
        }
        while (true) {
            thing();
            skipSpace();
            if (at < text.size() && text[at] == close) break;
            expect(',');
            skipSpace();
        }
        ++at;
    }
    void skipText() {
        for (++at; at < text.size() && text[at] != '"'; ++at)
            if (text[at] == '\\') ++at;
        expect('"');
    }
    /// The text of the value that begins here, up to its end.
    std::string_view value() {
        const std::size_t from = at;
        // The library passes over a byte order mark at the beginning of what it is given: of a piece, it must not.
        if (at >= text.size() || text[at] == byteOrderMark.front()) throw NotCut();
        if (text[at] == '"')
            skipText();
        else if (text[at] == '{' || text[at] == '[')
            skipBrackets();
        else
            at = std::min(text.find_first_of(",:]} \t\r\n", at), text.size());
        if (at == from) throw NotCut();
        return text.substr(from, at - from);
    }
    void skipBrackets() {
        std::size_t depth = 0;
        do {
            if (at >= text.size()) throw NotCut();
            const char c = text[at];
            if (c == '"') {
                skipText();
                continue;
            }
            if (c == '{' || c == '[') ++depth;
            if (c == '}' || c == ']') --depth;
            ++at;
        } while (depth > 0);
    }
};

} // namespace

json readPiece(std::string_view piece) { return json::parse(piece.begin(), piece.end()); }

Outcome<std::vector<JsonMember>> cutJson(const std::string& text, const std::string& name) {
    if (auto refused = refusalOfJson(text, name)) return *refused;
    try {
        Cutter cutter(text);
        if (cutter.onObject()) {
            auto all = cutter.members();
            std::set<std::string_view> names;
            for (const JsonMember& m : all)
                if (!names.insert(m.key).second)
                    return Error{name + ", " + m.key, "this name stands twice, and only one of the two could be read",
                                 "Put what belongs to it under one of them."};
            return all;
        }
    } catch (const NotCut&) {
    } catch (const json::exception&) { // a name that is not well-formed
    }
    // The whole text is read for the message alone.
    if (auto whole = parseJson(text, name); !whole) return whole.error();
    return std::vector<JsonMember>();
}

} // namespace lintel
