#include "core/compare/MergeDecision.h"

#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"

#include <nlohmann/json.hpp>

namespace lintel {
namespace {

using nlohmann::ordered_json;

/// With what hangs on it, as when somebody removes it in the window.
template <class T> void removeThing(Project& p, Table<T>& table, Id<T> id) {
    if constexpr (std::is_same_v<T, Circuit>)
        removeCircuit(p, id);
    else if constexpr (std::is_same_v<T, Board>)
        removeBoard(p, id);
    else if constexpr (std::is_same_v<T, Source>)
        removeSource(p, id);
    else if constexpr (std::is_same_v<T, Transformer>)
        removeTransformer(p, id);
    else if constexpr (std::is_same_v<T, Level>)
        removeLevel(p, id);
    else if constexpr (std::is_same_v<T, Wall>)
        removeWall(p, id);
    else if constexpr (std::is_same_v<T, Room>)
        removeRoom(p, id);
    else if constexpr (std::is_same_v<T, Recipe>)
        removeRecipe(p, id);
    else
        table.remove(id);
}

/// Calls f(thing or null, put, remove) with what the conflict is about.
template <class F> void withThing(Project& p, Ref about, F f) {
    if (!about) {
        f(
            &p.basis, [&](Basis basis) { p.basis = std::move(basis); }, [] {});
        return;
    }
    Project::eachTable([&](const char*, auto member) {
        auto& table = p.*member;
        using T = std::decay_t<decltype(*table.begin())>;
        if (!about.is<T>()) return;
        const Id<T> id = about.as<T>();
        f(
            std::as_const(table).find(id), [&](T thing) { table.put(std::move(thing)); },
            [&] { removeThing(p, table, id); });
    });
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
    std::optional<Error> refused;
    const std::string& value = c.valueOf(side);
    withThing(next, c.thing, [&](const auto* thing, auto put, auto remove) {
        using T = std::decay_t<decltype(*thing)>;
        if (c.field.empty() && value.empty()) return remove();
        if (!c.field.empty() && !thing) {
            refused = Error{c.name, "it is there no more", "Undo what removed it, then choose."};
            return;
        }
        ordered_json json;
        if (c.field.empty())
            json = ordered_json::parse(value);
        else {
            json = toJson(*thing);
            setAt(json, c.path, value);
        }
        auto read = fromJson<T>(nlohmann::json::parse(json.dump()), c.name);
        if (read)
            put(std::move(*read));
        else
            refused = read.error();
    });
    if (refused) return *refused;
    return next;
}

std::optional<MergeSide> sideOf(const Project& project, const MergeConflict& c) {
    if (!c.open) return std::nullopt;
    std::string now;
    withThing(const_cast<Project&>(project), c.thing, [&](const auto* thing, auto, auto) { // nothing is put
        if (!thing) return;
        const ordered_json json = toJson(*thing);
        if (c.field.empty())
            now = json.dump();
        else if (const ordered_json* value = valueAt(json, c.path))
            now = value->dump();
    });
    for (MergeSide side : {MergeSide::Ours, MergeSide::Theirs, MergeSide::Base})
        if (c.valueOf(side) == now) return side;
    return std::nullopt;
}

} // namespace lintel
