#include "core/project/Edit.h"

#include "core/base/Json.h"
#include "core/project/ProjectFile.h"

#include <fmt/format.h>

namespace lintel {

using nlohmann::json;
using nlohmann::ordered_json;

Edit difference(const Project& before, const Project& after, std::string label) {
    Edit e{std::move(label), {}};
    if (!(before.basis == after.basis)) e.changes.push_back(Change<Basis>{before.basis, after.basis});
    Project::eachTable([&](const char*, auto member) {
        using T = std::decay_t<decltype(*(before.*member).begin())>;
        Table<T>::eachDifference(before.*member, after.*member, [&](const T* x, const T* y) {
            e.changes.push_back(
                Change<T>{x ? std::optional<T>(*x) : std::nullopt, y ? std::optional<T>(*y) : std::nullopt});
        });
    });
    return e;
}

void apply(const Edit& edit, Project& p) {
    for (const AnyChange& any : edit.changes)
        std::visit(
            [&]<class T>(const Change<T>& c) {
                if constexpr (std::is_same_v<T, Basis>)
                    p.basis = c.after.value_or(p.basis);
                else
                    Project::eachTable([&](const char*, auto member) {
                        if constexpr (std::is_same_v<std::decay_t<decltype(p.*member)>, Table<T>>) {
                            if (c.after)
                                (p.*member).put(*c.after);
                            else
                                (p.*member).remove(c.before->id);
                        }
                    });
            },
            any);
}

Edit reversed(const Edit& edit) {
    Edit r{edit.label, {}};
    for (auto it = edit.changes.rbegin(); it != edit.changes.rend(); ++it)
        std::visit([&]<class T>(const Change<T>& c) { r.changes.push_back(Change<T>{c.after, c.before}); }, *it);
    return r;
}

namespace {
template <class T> const char* tableName() {
    const char* found = "basis";
    if constexpr (!std::is_same_v<T, Basis>)
        Project::eachTable([&](const char* name, auto member) {
            if constexpr (std::is_same_v<std::decay_t<decltype(std::declval<Project>().*member)>, Table<T>>)
                found = name;
        });
    return found;
}
} // namespace

std::string Edit::words() const {
    std::vector<std::pair<std::string, int>> counts;
    for (const AnyChange& any : changes)
        std::visit(
            [&]<class T>(const Change<T>&) {
                const auto it =
                    std::find_if(counts.begin(), counts.end(), [](const auto& c) { return c.first == tableName<T>(); });
                if (it == counts.end())
                    counts.push_back({tableName<T>(), 1});
                else
                    ++it->second;
            },
            any);
    std::string out;
    for (auto [name, n] : counts) {
        if (name == "deviceTypes") name = "types of device";
        if (!out.empty()) out += ", ";
        out += name == "basis"
                   ? "the basis"
                   : fmt::format("{} {}", n, n == 1 && name.back() == 's' ? name.substr(0, name.size() - 1) : name);
    }
    return out;
}

std::vector<std::string> Edit::lines(const Project& before, const Project& after, std::size_t most) const {
    std::vector<std::string> out;
    for (const AnyChange& any : changes) {
        if (out.size() == most) {
            out.push_back(fmt::format("and {} more", changes.size() - most));
            break;
        }
        std::visit(
            [&]<class T>(const Change<T>& c) {
                if constexpr (std::is_same_v<T, Basis>)
                    out.push_back("basis: changed");
                else
                    out.push_back(
                        fmt::format("{} {}: {}", tableName<T>(),
                                    nameOf(c.after ? after : before, Ref(c.after ? c.after->id : c.before->id)),
                                    !c.before  ? "added"
                                    : !c.after ? "removed"
                                               : "changed"));
            },
            any);
    }
    return out;
}

std::string writeEdit(const Edit& edit) {
    ordered_json list = ordered_json::array();
    for (const AnyChange& any : edit.changes)
        std::visit(
            [&]<class T>(const Change<T>& c) {
                list.push_back({{"in", tableName<T>()},
                                {"before", c.before ? toJson(*c.before) : ordered_json()},
                                {"after", c.after ? toJson(*c.after) : ordered_json()}});
            },
            any);
    return ordered_json{{"label", edit.label}, {"changes", list}}.dump();
}

Outcome<Edit> readEdit(const std::string& line) {
    Edit e;
    std::optional<Error> bad;
    const auto parsed = parseJson(line, "journal");
    if (!parsed) return parsed.error();
    const json& j = *parsed;
    if (!j.is_object() || !j.contains("label") || !j["label"].is_string() || !j.contains("changes") ||
        !j["changes"].is_array())
        return Error{"journal", "this line is not an edit", ""};
    e.label = j["label"];
    const auto take = [&]<class T>(const json& c, T*) {
        Change<T> change;
        for (auto [key, slot] : {std::pair{"before", &change.before}, std::pair{"after", &change.after}}) {
            if (!c.contains(key) || c[key].is_null()) continue;
            auto thing = fromJson<T>(c[key], "journal");
            if (!thing) {
                bad = thing.error();
                return;
            }
            *slot = *thing;
        }
        if constexpr (std::is_same_v<T, Basis>) {
            if (!change.after) {
                bad = Error{"journal", "a project always has a basis", ""};
                return;
            }
        } else if (change.before && change.after && !(change.before->id == change.after->id)) {
            bad = Error{"journal", "a change is of one thing", ""};
            return;
        }
        if (change.before || change.after) e.changes.push_back(change);
    };
    for (const json& c : j["changes"]) {
        if (!c.is_object() || !c.contains("in") || !c["in"].is_string())
            return Error{"journal", "this line is not an edit", ""};
        const std::string in = c["in"];
        if (in == "basis") take(c, static_cast<Basis*>(nullptr));
        Project::eachTable([&](const char* name, auto member) {
            using T = std::decay_t<decltype(*(std::declval<const Project&>().*member).begin())>;
            if (in == name) take(c, static_cast<T*>(nullptr));
        });
        if (bad) return *bad;
    }
    return e;
}

} // namespace lintel
