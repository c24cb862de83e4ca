#include "core/compare/MergeDecision.h"

#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"

#include <nlohmann/json.hpp>

#include <functional>

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

/// What a conflict is about: as it is, and how it is put or removed. As functions, so that what is done with it is not
/// compiled for each kind of thing.
struct About {
    std::optional<ordered_json> thing; ///< nothing: it is not there
    std::function<std::optional<Error>(const nlohmann::json&, const std::string& where)> put;
    std::function<void()> remove;
};

template <class T>
std::optional<Error> readInto(const nlohmann::json& json, const std::string& where, const std::function<void(T)>& put) {
    auto read = fromJson<T>(json, where);
    if (!read) return read.error();
    put(std::move(*read));
    return std::nullopt;
}

About aboutOf(Project& p, Ref about) {
    if (!about)
        return {toJson(p.basis),
                [&p](const nlohmann::json& json, const std::string& where) {
                    return readInto<Basis>(json, where, [&p](Basis basis) { p.basis = std::move(basis); });
                },
                [] {}};
    About found;
    Project::eachTable([&](const char*, auto member) {
        auto& table = p.*member;
        using T = std::decay_t<decltype(*table.begin())>;
        if (!about.is<T>()) return;
        const Id<T> id = about.as<T>();
        if (const T* thing = std::as_const(table).find(id)) found.thing = toJson(*thing);
        found.put = [&table](const nlohmann::json& json, const std::string& where) {
            return readInto<T>(json, where, [&table](T thing) { table.put(std::move(thing)); });
        };
        found.remove = [&p, &table, id] { removeThing(p, table, id); };
    });
    return found;
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
    const About about = aboutOf(next, c.thing);
    const std::string& value = c.valueOf(side);
    if (c.field.empty() && value.empty()) {
        about.remove();
        return next;
    }
    if (!c.field.empty() && !about.thing)
        return Error{c.name, "it is there no more", "Undo what removed it, then choose."};
    ordered_json json;
    if (c.field.empty())
        json = ordered_json::parse(value);
    else {
        json = *about.thing;
        setAt(json, c.path, value);
    }
    if (const auto refused = about.put(nlohmann::json::parse(json.dump()), c.name)) return *refused;
    return next;
}

std::optional<MergeSide> sideOf(const Project& project, const MergeConflict& c) {
    if (!c.open) return std::nullopt;
    const About about = aboutOf(const_cast<Project&>(project), c.thing); // nothing is put
    std::string now;
    if (about.thing && c.field.empty())
        now = about.thing->dump();
    else if (const ordered_json* value = about.thing ? valueAt(*about.thing, c.path) : nullptr)
        now = value->dump();
    for (MergeSide side : {MergeSide::Ours, MergeSide::Theirs, MergeSide::Base})
        if (c.valueOf(side) == now) return side;
    return std::nullopt;
}

} // namespace lintel
