#include "core/compare/Merge.h"

#include "core/compare/EnteredChanges.h"
#include "core/compare/FieldWords.h"
#include "core/project/Fields.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/project/Slots.h"
#include "core/project/Validation.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <functional>
#include <map>
#include <set>

namespace lintel {
namespace {

using nlohmann::ordered_json;

/// Visits every id that a thing holds, its own among them.
template <class F> struct Ids {
    F f;
    template <class T> void operator()(const char*, Id<T>& id) {
        Ref r = id;
        f(r);
        id = r.as<T>();
    }
    void operator()(const char*, Ref& r) { f(r); }
    template <class T> void operator()(const char* key, std::vector<T>& list) {
        for (T& x : list)
            if constexpr (requires { fields(*this, x); })
                fields(*this, x);
            else
                (*this)(key, x);
    }
    template <class T> void operator()(const char* key, std::optional<T>& o) {
        if (o) (*this)(key, *o);
    }
    template <class T> void operator()(const char*, T&) {}
};
template <class T, class F> void eachId(T& thing, F f) {
    Ids<F> ids{f};
    fields(ids, thing);
}

bool has(const Project& p, Ref r) {
    bool found = false;
    Project::eachTable([&](const char*, auto member) {
        using T = std::decay_t<decltype(*(p.*member).begin())>;
        if (r.is<T>()) found = (p.*member).has(r.as<T>());
    });
    return found;
}

/// Lists of small things, such as revisions, to which both have added at the end.
bool bothAppended(const ordered_json& was, const ordered_json& mine, const ordered_json& other) {
    if (!mine.is_array() || !other.is_array() || mine.empty() || other.empty() || !mine[0].is_object()) return false;
    const std::size_t n = was.is_array() ? was.size() : 0;
    const auto begins = [&](const ordered_json& list) {
        return list.size() >= n && (n == 0 || std::equal(was.begin(), was.end(), list.begin()));
    };
    return begins(mine) && begins(other);
}

struct Merger {
    const Project &base, &ours;
    Project theirs; ///< with ids of its own for what it added
    Merged out{};

    void all() {
        separateIds();
        out.project.basis = mergeBasis();
        out.project.extra = ours.extra;
        Project::eachTable([&](const char*, auto member) { mergeTable(member); });
        restoreWhatIsUsed();
        separateRuns();
        separatePlaces();
        if (auto bad = validate(out.project)) {
            out.conflicts.push_back({{},
                                     "The project",
                                     "",
                                     "",
                                     "",
                                     "",
                                     "together it would not be valid (" + bad->text() + "); ours is kept as it is"});
            out.project = ours;
        }
    }

    /// What both added under the same id, and is not the same thing, gets another id in theirs.
    void separateIds() {
        std::map<Ref, Ref> moved;
        Project::eachTable([&](const char*, auto member) {
            using T = std::decay_t<decltype(*(base.*member).begin())>;
            const auto &b = base.*member, &o = ours.*member, &t = theirs.*member;
            std::uint32_t next = std::max({b.highest(), o.highest(), t.highest()});
            for (const T& thing : t)
                if (!b.has(thing.id) && o.has(thing.id) && !(o[thing.id] == thing))
                    moved[Ref(thing.id)] = Ref(Id<T>{++next});
        });
        if (moved.empty()) return;
        out.notes.push_back(fmt::format("{} of theirs {} been given new ids, as ours had taken the same", moved.size(),
                                        moved.size() == 1 ? "thing has" : "things have"));
        Project renamed;
        renamed.basis = theirs.basis;
        renamed.extra = theirs.extra;
        Project::eachTable([&](const char*, auto member) {
            for (auto thing : theirs.*member) {
                eachId(thing, [&](Ref& r) {
                    if (const auto it = moved.find(r); it != moved.end()) r = it->second;
                });
                (renamed.*member).put(std::move(thing));
            }
        });
        theirs = std::move(renamed);
    }

    /// What both changed: the keys that lead to it, and what it was, ours and theirs.
    using Clash =
        std::function<void(std::vector<std::string>, const ordered_json&, const ordered_json&, const ordered_json&)>;
    /// Key by key; objects within go on key by key.
    ordered_json mergeObjects(const ordered_json& b, const ordered_json& o, const ordered_json& t, const Clash& clash) {
        ordered_json result = ordered_json::object();
        std::vector<std::string> keys;
        for (const auto* j : {&o, &t, &b})
            for (const auto& [key, value] : j->items())
                if (std::find(keys.begin(), keys.end(), key) == keys.end()) keys.push_back(key);
        const auto get = [](const ordered_json& j, const std::string& key) {
            return j.contains(key) ? j[key] : ordered_json();
        };
        for (const std::string& key : keys) {
            const ordered_json was = get(b, key), mine = get(o, key), other = get(t, key);
            ordered_json now = mine;
            if (mine == other || other == was)
                now = mine;
            else if (mine == was)
                now = other;
            else if (bothAppended(was, mine, other)) {
                now = mine;
                for (std::size_t i = was.size(); i < other.size(); ++i)
                    if (std::find(mine.begin(), mine.end(), other[i]) == mine.end()) now.push_back(other[i]);
            } else if (mine.is_object() && other.is_object())
                now = mergeObjects(was.is_object() ? was : ordered_json::object(), mine, other,
                                   [&](std::vector<std::string> inner, const auto& x, const auto& y, const auto& z) {
                                       inner.insert(inner.begin(), key);
                                       clash(std::move(inner), x, y, z);
                                   });
            else
                clash({key}, was, mine, other);
            if (!now.is_null()) result[key] = now;
        }
        return result;
    }

    /// Not for each kind apart, which would compile all of it for each.
    ordered_json mergeFields(const ordered_json& b, const ordered_json& o, const ordered_json& t, Ref about,
                             const std::string& name) {
        return mergeObjects(b, o, t, [&](std::vector<std::string> path, const auto& x, const auto& y, const auto& z) {
            std::string field;
            for (const std::string& key : path) field += (field.empty() ? "" : "/") + key;
            const auto text = [](const ordered_json& j) { return j.is_null() ? std::string() : j.dump(); };
            out.conflicts.push_back({about, name, field, ValueTeller{base}.words(about, field, x),
                                     ValueTeller{ours}.words(about, field, y),
                                     ValueTeller{theirs}.words(about, field, z), "ours is kept", true, text(x), text(y),
                                     text(z), std::move(path)});
        });
    }
    void doNotGoTogether(const ordered_json& b, const ordered_json& o, const ordered_json& t, Ref about,
                         const std::string& name) {
        out.conflicts.push_back({about, name, "", "as it was", "changed", "changed",
                                 "the two do not go together; ours is kept", true, b.dump(), o.dump(), t.dump()});
    }
    template <class T> T mergeThing(const T& b, const T& o, const T& t, Ref about, const std::string& name) {
        const ordered_json was = toJson(b), mine = toJson(o), other = toJson(t);
        const auto read =
            fromJson<T>(nlohmann::json::parse(mergeFields(was, mine, other, about, name).dump()), "merged");
        if (read) return *read;
        doNotGoTogether(was, mine, other, about, name);
        return o;
    }
    Basis mergeBasis() { return mergeThing(base.basis, ours.basis, theirs.basis, Ref(), "Basis"); }

    template <class Member> void mergeTable(Member member) {
        using T = std::decay_t<decltype(*(base.*member).begin())>;
        const Table<T>&b = base.*member, &o = ours.*member, &t = theirs.*member;
        const std::uint32_t highest = std::max({b.highest(), o.highest(), t.highest()});
        for (std::uint32_t i = 1; i <= highest; ++i) {
            const Id<T> id{i};
            const T *was = b.find(id), *mine = o.find(id), *other = t.find(id);
            if (mine && other)
                (out.project.*member)
                    .put(*mine == *other         ? *mine
                         : was && *was == *other ? *mine
                         : was && *was == *mine
                             ? *other
                             : mergeThing(was ? *was : T{}, *mine, *other, id, nameOf(ours, Ref(id))));
            else if (mine && !was)
                (out.project.*member).put(*mine);
            else if (other && !was)
                (out.project.*member).put(*other);
            else if (mine && !(*mine == *was))
                keep(*was, mine, other, nameOf(ours, Ref(id)), member);
            else if (other && !(*other == *was))
                keep(*was, mine, other, nameOf(theirs, Ref(id)), member);
        }
    }
    /// What one side removed and the other changed: one of the two is null.
    template <class T, class Member>
    void keep(const T& was, const T* mine, const T* other, const std::string& name, Member member) {
        (out.project.*member).put(mine ? *mine : *other);
        const auto text = [](const T* thing) { return thing ? toJson(*thing).dump() : std::string(); };
        tellKept(was.id, name, text(&was), text(mine), text(other));
    }
    void tellKept(Ref about, const std::string& name, const std::string& was, const std::string& mine,
                  const std::string& other) {
        const auto words = [](const std::string& thing) { return thing.empty() ? "removed" : "changed"; };
        out.conflicts.push_back({about, name, "", "as it was", words(mine), words(other),
                                 other.empty() ? "theirs removed it, ours changed it; it stays"
                                               : "ours removed it, theirs changed it; it stays",
                                 true, was, mine, other});
    }

    /// What one removed and something that is there still points at.
    void restoreWhatIsUsed() {
        for (bool again = true; again;) {
            again = false;
            std::map<Ref, Ref> missing; // what → by whom
            Project::eachTable([&](const char*, auto member) {
                using Thing = std::decay_t<decltype(*(out.project.*member).begin())>;
                if constexpr (outlivesOthers<Thing>) return; // what it tells of may be gone
                for (auto thing : out.project.*member)
                    eachId(thing, [&](Ref& r) {
                        if (r && !has(out.project, r)) missing.emplace(r, Ref(thing.id));
                    });
            });
            for (const auto& entry : missing) {
                const Ref gone = entry.first, user = entry.second;
                const bool oursHas = has(ours, gone);
                const Project& from = oursHas ? ours : has(theirs, gone) ? theirs : base;
                Project::eachTable([&](const char*, auto member) {
                    using T = std::decay_t<decltype(*(from.*member).begin())>;
                    if (!gone.is<T>()) return;
                    if (const T* thing = (from.*member).find(gone.as<T>())) {
                        (out.project.*member).put(*thing);
                        again = true;
                    }
                });
                if (again)
                    out.conflicts.push_back({gone, nameOf(from, gone), "", "", "", "",
                                             fmt::format("{} removed it, {} still needs it; it stays",
                                                         oursHas ? "theirs" : "ours", nameOf(out.project, user))});
            }
        }
    }

    /// A run that has come to belong to two things is copied for the second.
    void separateRuns() {
        std::set<RunId> taken;
        const auto own = [&](RunId run) {
            if (!run || taken.insert(run).second) return run;
            Run copy = out.project.runs[run];
            const RunId made = out.project.runs.add(copy);
            taken.insert(made);
            return made;
        };
        const auto look = [&](auto& table, auto runOf) {
            std::vector<std::decay_t<decltype(table.begin()->id)>> ids;
            for (const auto& thing : table) ids.push_back(thing.id);
            for (const auto id : ids) {
                const RunId now = own(table[id].*runOf);
                if (now != table[id].*runOf) table.change(id)->*runOf = now;
            }
        };
        look(out.project.boards, &Board::run);
        look(out.project.boards, &Board::alternateRun);
        look(out.project.transformers, &Transformer::run);
        look(out.project.circuits, &Circuit::run);
    }

    /// Circuits that stand on one another, and did so neither in ours nor in theirs: theirs goes to the next free
    /// place. What stood so before is for a person to part (a snag tells of it).
    void separatePlaces() {
        std::map<BoardId, std::map<int, CircuitId>> at;
        std::vector<CircuitId> clash;
        const auto slots = [&](const Circuit& c) {
            std::vector<int> all;
            for (int pole = 0; pole < c.poles; ++pole)
                all.push_back(slotOfPole(out.project.boards[c.board], c.slot, pole, c.poles));
            return all;
        };
        const auto standsIn = [](const Project& p, const Circuit& c) {
            const Circuit* there = p.circuits.find(c.id);
            return there && there->slot == c.slot && there->board == c.board && there->poles == c.poles;
        };
        const auto free = [&](const Circuit& c) {
            for (int s : slots(c)) {
                const auto other = at[c.board].find(s);
                if (other == at[c.board].end()) continue;
                if (!standsIn(theirs, c) || !standsIn(theirs, out.project.circuits[other->second])) return false;
            }
            return true;
        };
        const auto take = [&](const Circuit& c) {
            for (int s : slots(c)) at[c.board][s] = c.id;
        };
        // Those that stand as they do in ours come first.
        std::vector<const Circuit*> later;
        for (const Circuit& c : out.project.circuits) {
            if (!c.slot || !out.project.boards.has(c.board)) continue;
            if (standsIn(ours, c))
                take(c);
            else
                later.push_back(&c);
        }
        for (const Circuit* c : later)
            if (free(*c))
                take(*c);
            else
                clash.push_back(c->id);
        for (CircuitId id : clash) {
            const Circuit was = out.project.circuits[id];
            const std::string name = nameOf(theirs.circuits.has(id) ? theirs : out.project, Ref(id));
            out.project.circuits.change(id)->slot = 0;
            const int next = firstFreeSlot(out.project, was.board, was.poles);
            out.project.circuits.change(id)->slot = next;
            out.conflicts.push_back(
                {id, name, "", "", "", "",
                 next ? fmt::format("ours stands there; it now stands at {}", nameOf(out.project, Ref(id)))
                      : "ours stands there, and no place is free; it has none now"});
        }
    }
};

} // namespace

std::string MergeConflict::text() const {
    if (field.empty()) return name + ": " + what;
    const auto said = [](const std::string& s) { return s.empty() ? std::string("as usual") : s; };
    return fmt::format("{}, {}: {} here, {} there ({} before); {}", name, fieldWords(thing, field), said(ours),
                       said(theirs), said(base), what);
}

Merged mergeProjects(const Project& base, const Project& ours, const Project& theirs) {
    Merger m{base, ours, theirs};
    m.all();
    return std::move(m.out);
}

} // namespace lintel
