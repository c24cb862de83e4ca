#include "core/exchange/ListedConductors.h"

#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"

#include <array>
#include <cmath>
#include <fmt/format.h>
#include <vector>

namespace lintel {
namespace {

constexpr const char* conductorHelp = "Write 2 × 500, or (2) 4#500, #2G, 3\"C.";
constexpr const char* conduitHelp = "Write 2-1/2, 3\"C or EMT 1-1/4.";

Error notUnderstood(const std::string& text, const char* what, const char* help) {
    return {"", fmt::format("“{}” is not {}", text, what), help};
}

bool takeFront(std::string& text, std::string_view word) {
    if (lowered(text).rfind(word, 0) != 0) return false;
    text = trimmed(std::string_view(text).substr(word.size()));
    return true;
}
bool takeBack(std::string& text, std::string_view word) {
    const std::string low = lowered(text);
    if (low.size() < word.size() || low.compare(low.size() - word.size(), word.size(), word) != 0) return false;
    text = trimmed(std::string_view(text).substr(0, text.size() - word.size()));
    return true;
}
/// A whole number at the front; it is taken off.
std::optional<int> takeInt(std::string& text) {
    std::size_t end = 0;
    while (end < text.size() && isDigit(text[end])) ++end;
    if (end == 0 || end > 3) return std::nullopt;
    const int n = int(*plainNumber(text.substr(0, end)));
    text = trimmed(std::string_view(text).substr(end));
    return n;
}

/// "(2)", "2 sets of", "2 runs", "2 sets": taken off the front.
std::optional<int> takeSets(std::string& text) {
    std::string t = text;
    const bool inBrackets = takeFront(t, "(");
    const auto n = takeInt(t);
    if (!n) return std::nullopt;
    bool said = inBrackets && takeFront(t, ")");
    if (inBrackets && !said) return std::nullopt;
    for (const char* word : {"sets of", "set of", "sets", "set", "runs of", "runs", "parallel"})
        if (takeFront(t, word)) {
            said = true;
            break;
        }
    if (!said) return std::nullopt;
    for (const char* sign : {"×", "x", ":", "-"})
        if (takeFront(t, sign)) break;
    text = t;
    return n;
}

std::optional<Material> takeMaterial(std::string& text) {
    for (const auto& [word, material] : {std::pair{"copper", Material::Copper},
                                         {"aluminium", Material::Aluminium},
                                         {"aluminum", Material::Aluminium},
                                         {"cu", Material::Copper},
                                         {"al", Material::Aluminium}})
        if (takeBack(text, word)) return material;
    return std::nullopt;
}

/// Parts between commas, semicolons and plus signs. A comma between digits parts nothing: "2,5 mm²".
std::vector<std::string> partsOf(const std::string& text) {
    std::vector<std::string> parts(1);
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        const bool decimal = c == ',' && i > 0 && i + 1 < text.size() && isDigit(text[i - 1]) && isDigit(text[i + 1]);
        if (c == ';' || c == '+' || (c == ',' && !decimal))
            parts.emplace_back();
        else
            parts.back() += c;
    }
    for (std::string& part : parts) part = trimmed(part);
    std::erase_if(parts, [](const std::string& p) { return p.empty(); });
    return parts;
}

/// The mark behind a protective conductor, taken off.
bool takeGroundMark(std::string& text) {
    for (const char* mark : {"ground", "gnd", "egc", "grd", "cpc", "eg", "pe", "g", "e"})
        if (takeBack(text, mark)) {
            if (!text.empty() && (text.back() == '.' || text.back() == '-')) text.pop_back();
            return true;
        }
    return false;
}

/// "4#500", "3-#12", "4c × 25": how many conductors, taken off the front; the sign that stands between them tells
/// whether it could be something else.
std::optional<int> takeConductors(std::string& text, bool& guessed) {
    std::string t = text;
    const auto n = takeInt(t);
    if (!n) return std::nullopt;
    if (takeFront(t, "-#") || takeFront(t, "- #") || takeFront(t, "#") || takeFront(t, "no.")) {
        text = t;
        return n;
    }
    if (takeFront(t, "/c") || takeFront(t, "c×") || takeFront(t, "cx") || takeFront(t, "c ×") || takeFront(t, "c x") ||
        takeFront(t, "core")) {
        for (const char* sign : {"×", "x"})
            if (takeFront(t, sign)) break;
        text = t;
        return n;
    }
    if (takeFront(t, "×") || takeFront(t, "x") || takeFront(t, "*")) {
        guessed = *n > 1;
        text = t;
        return n;
    }
    return std::nullopt;
}

} // namespace

Outcome<std::string> readGround(const std::string& text) {
    std::string t = trimmed(text);
    (void)takeGroundMark(t);
    std::string size = t;
    if (takeFront(size, "1#")) size = "#" + size; // one conductor is what it is
    const auto typed = typedSize(size);
    if (!typed || typed->sets > 1)
        return notUnderstood(text, "a size of a protective conductor", "Write one such as 8, 1/0 or 16.");
    return typed->size;
}

Outcome<ListedConduit> readConduit(const std::string& text) {
    ListedConduit out;
    std::string t = trimmed(text);
    static constexpr std::array<const char*, 10> types{"emt",    "imc",        "rmc",        "rigid", "pvc 40",
                                                       "pvc 80", "pvc sch 40", "pvc sch 80", "pvc",   "grs"};
    for (const char* type : types) {
        std::string word = type;
        const bool front = takeFront(t, word);
        if (!front && !takeBack(t, word)) continue;
        for (char& c : word) c = upper(c);
        out.type = word == "RIGID" || word == "GRS" ? "RMC" : word;
        break;
    }
    for (const char* word : {"conduit", "cond.", "cond"})
        if (takeBack(t, word)) break;
    const bool bare = takeBack(t, "c");
    if (bare && !t.empty() && t.back() == '.') t.pop_back();
    bool millimetres = takeBack(t, "mm");
    for (const char* unit : {"\"", "″", "inch", "in.", "in"})
        if (!millimetres && takeBack(t, unit)) break;
    const auto number = typedNumber(t);
    if (!number && t.empty() && !out.type.empty()) return out;
    if (!number || *number <= 0 || *number > 1000) return notUnderstood(text, "a conduit", conduitHelp);
    if (millimetres || *number > 8) {
        out.size = fmt::format("{:.6g} mm", *number);
        return out;
    }
    // Trade sizes are named by whole inches, halves and quarters.
    const int quarters = int(std::lround(*number * 4));
    if (std::abs(quarters - *number * 4) > 1e-9 && std::abs(*number - 0.375) > 1e-9)
        return notUnderstood(text, "a trade size of conduit", conduitHelp);
    static constexpr const char* fractions[] = {"", "1/4", "1/2", "3/4"};
    const int whole = quarters / 4;
    const std::string part = fractions[quarters % 4];
    if (std::abs(*number - 0.375) < 1e-9)
        out.size = "3/8";
    else
        out.size = whole == 0 ? part : part.empty() ? std::to_string(whole) : std::to_string(whole) + "-" + part;
    return out;
}

Outcome<ListedConductors> readConductors(const std::string& text) {
    ListedConductors out;
    std::string rest = trimmed(text);
    const Error refused = notUnderstood(text, "a size of conductors", conductorHelp);
    if (rest.empty() || rest.size() > limits::typedLine) return refused;
    if (const auto sets = takeSets(rest)) out.sets = *sets;
    for (std::string part : partsOf(rest)) {
        const auto material = takeMaterial(part);
        if (material) out.material = material;
        if (out.size.empty()) {
            if (const auto n = takeConductors(part, out.guessed)) out.conductors = *n;
            if (takeBack(part, "awg") || takeBack(part, "kcmil") || takeBack(part, "mcm")) part = trimmed(part);
            const auto typed = typedSize(part);
            if (!typed || typed->sets > 1) return refused;
            out.size = typed->size;
            continue;
        }
        std::string ground = part;
        if (out.ground.empty() && takeGroundMark(ground)) {
            const auto size = readGround(ground);
            if (!size) return refused;
            out.ground = *size;
            continue;
        }
        const auto conduit = out.conduit.empty() ? readConduit(part) : Outcome<ListedConduit>(refused);
        if (!conduit) return refused;
        // A bare number could be anything: a conduit is marked as one.
        if (typedNumber(part)) return refused;
        out.conduit = conduit->size;
        out.conduitType = conduit->type;
    }
    if (out.size.empty() || out.sets > limits::sets || out.conductors > 6) return refused;
    // "2 × 250" is as Lintel writes sets; three, four and five go round a three-phase feeder.
    if (out.guessed && out.sets == 0 && out.conductors < 3) out.sets = std::exchange(out.conductors, 0);
    return out;
}

} // namespace lintel
