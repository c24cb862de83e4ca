#include "core/level/BareBoard.h"

#include "core/base/Format.h"
#include "core/base/Json.h"
#include "core/figures/Words.h"
#include "core/project/Operations.h"
#include "core/project/Slots.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace lintel {

using nlohmann::json;
using nlohmann::ordered_json;

Outcome<Project> bareBoard(const std::string& text) {
    const auto parsed = parseJson(text, "board");
    if (!parsed) return parsed.error();
    const json& j = *parsed;
    if (!j.is_object())
        return Error{"board", "this is not a JSON object",
                     "Give {\"slots\": 42, \"circuits\": [{\"slot\": 1, \"poles\": 1, \"va\": 1200}]}."};
    std::optional<Error> bad;
    const auto refuse = [&](const std::string& where, const std::string& what, const std::string& help = "") {
        if (!bad) bad = Error{where, what, help};
    };
    const auto number = [&](const json& in, const std::string& where, const char* key, double usual, double lo,
                            double hi, bool needed = false) {
        const auto it = in.find(key);
        if (it == in.end()) {
            if (needed) refuse(where + "." + key, "this must be given");
            return usual;
        }
        if (!it->is_number() || it->get<double>() < lo || it->get<double>() > hi) {
            refuse(where + "." + key, fmt::format("expected a number from {} to {}, found {}", lo, hi, seen(*it)));
            return usual;
        }
        return it->get<double>();
    };
    const auto whole = [&](const json& in, const std::string& where, const char* key, int usual, int lo, int hi,
                           bool needed = false) {
        const double v = number(in, where, key, usual, lo, hi, needed);
        if (v != std::floor(v)) refuse(where + "." + key, "expected a whole number");
        return int(v);
    };
    const auto name = [&](const json& in, const std::string& where, const std::string& usual) {
        if (!in.contains("name")) return usual;
        if (in["name"].is_string()) return in["name"].get<std::string>();
        refuse(where + ".name", "expected a text in quotes, found " + seen(in["name"]));
        return usual;
    };
    const auto onlyThese = [&](const json& in, const std::string& where, std::initializer_list<const char*> known) {
        for (const auto& [key, value] : in.items()) {
            if (std::find(known.begin(), known.end(), key) != known.end()) continue;
            std::string all;
            for (const char* k : known) all += (all.empty() ? "" : ", ") + std::string(k);
            refuse(where + "." + key, "there is no such field", "There are " + all + ".");
        }
    };
    const auto listed = [&](const char* key) {
        if (!j.contains(key)) return false;
        if (j[key].is_array()) return true;
        refuse(std::string("board.") + key, "expected a list in brackets, found " + seen(j[key]));
        return false;
    };
    Project p;
    Board b;
    onlyThese(j, "board", {"name", "slots", "system", "form", "leftKinds", "reserved", "circuits"});
    b.name = name(j, "board", "board");
    b.slots = whole(j, "board", "slots", 42, 1, 1200);
    if (j.contains("system")) {
        const auto s = j["system"].is_string() ? systemFrom(j["system"].get<std::string>()) : std::nullopt;
        if (!s)
            refuse("board.system", "there is no system " + seen(j["system"]),
                   "For instance 208Y/120, 120/240, 480Y/277, 400/230.");
        else
            b.system = *s;
    }
    if (j.contains("form")) {
        const auto f = j["form"].is_string() ? fromWord<BoardForm>(j["form"].get<std::string>()) : std::nullopt;
        if (!f)
            refuse("board.form", "there is no form " + seen(j["form"]), "two columns, single column or ways");
        else
            b.form = *f;
    }
    if (listed("leftKinds"))
        for (const json& k : j["leftKinds"]) {
            if (!k.is_string() || !fromWord<LoadKind>(k.get<std::string>()))
                refuse("board.leftKinds", "there is no load kind " + seen(k));
            else
                b.leftKinds.push_back(k.get<std::string>());
        }
    const BoardId id = addBoard(p, b);
    if (!j.contains("circuits") || !j["circuits"].is_array())
        return Error{"board.circuits", "expected a list in brackets",
                     "Give \"circuits\": [{\"slot\": 1, \"va\": 1200}]."};
    std::vector<char> taken(std::size_t(b.slots) + 1, 0);
    const auto place = [&](int slot, int poles, const std::string& where) {
        const auto at = slotsTaken(b, slot, poles);
        if (at.empty()) return refuse(where, fmt::format("{} poles do not fit from slot {}", poles, slot));
        for (int s : at) {
            if (taken[std::size_t(s)]) return refuse(where, fmt::format("slot {} is taken twice", s));
            taken[std::size_t(s)] = 1;
        }
    };
    for (std::size_t i = 0; i < j["circuits"].size() && !bad; ++i) {
        const json& e = j["circuits"][i];
        const std::string where = fmt::format("board.circuits[{}]", i);
        if (!e.is_object()) return Error{where, "expected an object in braces", ""};
        onlyThese(e, where, {"slot", "poles", "tie", "multiwire", "kept", "pinned", "name", "va", "kind"});
        Circuit c;
        c.board = id;
        c.slot = whole(e, where, "slot", 0, 1, b.slots, true);
        c.poles = whole(e, where, "poles", 1, 1, factsOf(b.system).lines);
        c.tie = whole(e, where, "tie", 0, 0, 10000), c.multiwire = whole(e, where, "multiwire", 0, 0, 10000),
        c.kept = whole(e, where, "kept", 0, 0, 10000);
        if (e.contains("pinned") && !e["pinned"].is_boolean())
            refuse(where + ".pinned", "expected true or false");
        else
            c.pinned = e.value("pinned", false);
        c.name = name(e, where, "");
        Load l;
        l.amount = number(e, where, "va", 0, 0, 1e9, true);
        l.poles = c.poles;
        if (e.contains("kind")) {
            const auto k = e["kind"].is_string() ? fromWord<LoadKind>(e["kind"].get<std::string>()) : std::nullopt;
            if (!k)
                refuse(where + ".kind", "there is no load kind " + seen(e["kind"]));
            else
                l.kind = *k;
        }
        if (bad) break;
        place(c.slot, c.poles, where);
        l.circuit = p.circuits.add(c);
        p.loads.add(l);
    }
    if (listed("reserved") && !bad)
        for (const json& s : j["reserved"]) {
            if (!s.is_number_integer() || s.get<double>() < 1 || s.get<double>() > b.slots) {
                refuse("board.reserved", "there is no slot " + seen(s));
                break;
            }
            Circuit c;
            c.board = id, c.slot = s.get<int>(), c.use = CircuitUse::Reserved;
            place(c.slot, 1, "board.reserved");
            p.circuits.add(c);
        }
    if (bad) return *bad;
    return p;
}

const Arrangement& choiceFor(const LevelChoices& choices, std::optional<int> moves) {
    return !moves
               ? choices.best()
               : choices.byMoves[std::min<std::size_t>(std::size_t(std::max(0, *moves)), choices.byMoves.size() - 1)];
}

ordered_json levelJson(const Project& p, BoardId id, const LevelChoices& choices, std::optional<int> moves) {
    const Board& b = p.boards[id];
    const auto lines = std::size_t(factsOf(b.system).lines);
    const auto entry = [&](const Arrangement& a, std::size_t k) {
        ordered_json places = ordered_json::array();
        for (const auto& [c, slot] : a.places)
            places.push_back({{"circuit", nameOf(p, c)}, {"from", p.circuits[c].slot}, {"to", slot}});
        std::vector<double> va;
        for (std::size_t i = 0; i < lines; ++i) va.push_back(std::round(a.phaseVa[i] * 10) / 10);
        return ordered_json{{"moves_allowed", k},
                            {"moves", a.places.size()},
                            {"phase_va", va},
                            {"spread_va", std::round(a.spread * 10) / 10},
                            {"imbalance_percent", std::round(a.imbalance * 1000) / 1000},
                            {"proven", a.proven},
                            {"places", places}};
    };
    ordered_json j{{"board", b.name}, {"slots", b.slots}, {"system", wordOf(b.system)}, {"bound_va", choices.bound}};
    if (moves) {
        j["now"] = entry(choices.byMoves.front(), 0);
        j["choice"] = entry(choiceFor(choices, moves), std::size_t(*moves));
        return j;
    }
    ordered_json list = ordered_json::array();
    for (std::size_t k = 0; k < choices.byMoves.size(); ++k) list.push_back(entry(choices.byMoves[k], k));
    j["gap_percent"] = std::round(choices.gap() * 1000) / 1000;
    j["choices"] = list;
    return j;
}

std::string levelText(const Project& p, BoardId id, const LevelChoices& choices, std::optional<int> moves) {
    const Board& b = p.boards[id];
    std::string out = fmt::format("{}: {} as it stands\n", b.name, percent(choices.byMoves.front().imbalance));
    for (std::size_t k = 1; k < choices.byMoves.size() && !moves; ++k) {
        const Arrangement& a = choices.byMoves[k];
        if (a.places.size() < k) continue;
        out += fmt::format("  {:2} {}  {:>8}  spread {} VA{}\n", k, k == 1 ? "move " : "moves", percent(a.imbalance),
                           number(a.spread), a.proven ? "  proven" : "");
    }
    const Arrangement& a = choiceFor(choices, moves);
    if (a.places.empty())
        return out + (choices.best().places.empty()
                          ? (a.proven ? "It is as level as it can be: proven.\n" : "Nothing better was found.\n")
                          : "Nothing better can be had with so few moves.\n");
    out += fmt::format("{} with {} {}, {}:\n", percent(a.imbalance), a.places.size(),
                       a.places.size() == 1 ? "move" : "moves",
                       a.proven ? "proven best" : fmt::format("within {} of the bound", percent(choices.gap())));
    for (const auto& [c, slot] : a.places)
        out += fmt::format("  {:12} {:30} slot {:3} → {:3}  line {} → {}\n", nameOf(p, c), p.circuits[c].name,
                           p.circuits[c].slot, slot, lineName(lineOfSlot(b, p.circuits[c].slot), b),
                           lineName(lineOfSlot(b, slot), b));
    return out;
}

} // namespace lintel
