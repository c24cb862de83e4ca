#include "core/compare/MergeDecision.h"

#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"

#include <nlohmann/json.hpp>

#include <type_traits>

namespace lintel {
namespace {

using nlohmann::ordered_json;

/// Calls f(table) with the table that it stands in; the basis stands in none.
template <class P, class F> void withTable(P& p, Ref about, F f) {
    Project::eachTable([&](const char*, auto member) {
        using T = std::decay_t<decltype(*(p.*member).begin())>;
        if (about.is<T>()) f(p.*member, about.as<T>());
    });
}

/// As the file writes it; nothing: it is not there.
std::optional<ordered_json> jsonOf(const Project& p, Ref about) {
    if (!about) return toJson(p.basis);
    std::optional<ordered_json> json;
    withTable(p, about, [&](const auto& table, auto id) {
        if (const auto* thing = table.find(id)) json = toJson(*thing);
    });
    return json;
}

std::optional<Error> put(Project& p, Ref about, const nlohmann::json& json, const std::string& where) {
    std::optional<Error> refused;
    const auto read = [&]<class T>(std::type_identity<T>, const auto& take) {
        auto thing = fromJson<T>(json, where);
        if (thing)
            take(std::move(*thing));
        else
            refused = thing.error();
    };
    if (!about) read(std::type_identity<Basis>{}, [&](Basis basis) { p.basis = std::move(basis); });
    withTable(p, about, [&]<class T>(Table<T>& table, Id<T>) {
        read(std::type_identity<T>{}, [&](T thing) { table.put(std::move(thing)); });
    });
    return refused;
}

/// With what hangs on it, as when somebody removes it in the window.
void remove(Project& p, Ref about) {
    if (about.is<Circuit>()) return removeCircuit(p, about.as<Circuit>());
    if (about.is<Level>()) return removeLevel(p, about.as<Level>());
    if (about.is<Recipe>()) return removeRecipe(p, about.as<Recipe>());
    if (removeFromPlan(p, about)) return;
    withTable(p, about, [](auto& table, auto id) { table.remove(id); });
}

using Path = std::vector<std::string>;

/// The value that the keys lead to; null: it is as a new thing has it.
const ordered_json* valueAt(const ordered_json& object, const Path& path) {
    const ordered_json* at = &object;
    for (const std::string& key : path) {
        const auto found = at->find(key);
        if (found == at->end()) return nullptr;
        at = &*found;
    }
    return at;
}

void setAt(ordered_json& object, const Path& path, const std::string& value) {
    ordered_json* at = &object;
    for (std::size_t i = 0; i + 1 < path.size(); ++i) {
        if (!at->contains(path[i])) (*at)[path[i]] = ordered_json::object();
        at = &(*at)[path[i]];
    }
    if (value.empty())
        at->erase(path.back());
    else
        (*at)[path.back()] = ordered_json::parse(value);
}

} // namespace

Outcome<Project> decided(const Project& project, const MergeConflict& c, MergeSide side) {
    if (!c.open) return Error{c.name, "there is nothing to choose", c.what};
    Project next = project;
    const std::string& value = c.valueOf(side);
    if (c.field.empty() && value.empty()) {
        remove(next, c.thing);
        return next;
    }
    std::string whole = value;
    if (!c.field.empty()) {
        auto json = jsonOf(project, c.thing);
        if (!json) return Error{c.name, "it is there no more", "Undo what removed it, then choose."};
        setAt(*json, c.path, value);
        whole = json->dump();
    }
    if (const auto refused = put(next, c.thing, nlohmann::json::parse(whole), c.name)) return *refused;
    return next;
}

std::optional<MergeSide> sideOf(const Project& project, const MergeConflict& c) {
    if (!c.open) return std::nullopt;
    const auto thing = jsonOf(project, c.thing);
    const ordered_json* value = thing ? valueAt(*thing, c.path) : nullptr; // no path: the thing itself
    const std::string now = value ? value->dump() : "";
    for (MergeSide side : {MergeSide::Ours, MergeSide::Theirs, MergeSide::Base})
        if (c.valueOf(side) == now) return side;
    return std::nullopt;
}

} // namespace lintel
