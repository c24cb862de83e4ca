#include "core/compare/EnteredChanges.h"

#include "core/compare/FieldWords.h"
#include "core/compare/RunOwners.h"
#include "core/project/Edit.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <set>

namespace lintel {

using nlohmann::ordered_json;

namespace {

template <class T> std::vector<FieldChange> fieldsOf(const T& x, const T& y, ValueTeller before, ValueTeller after) {
    const ordered_json a = wholeJson(x), b = wholeJson(y);
    std::vector<std::string> keys;
    for (const auto& [key, value] : a.items()) keys.push_back(key);
    for (const auto& [key, value] : b.items())
        if (!a.contains(key)) keys.push_back(key);
    Ref of;
    if constexpr (requires { y.id; }) of = y.id;
    std::vector<FieldChange> out;
    for (const std::string& key : keys) {
        const ordered_json was = a.contains(key) ? a[key] : ordered_json(),
                           is = b.contains(key) ? b[key] : ordered_json();
        if (was == is) continue;
        FieldChange f{key, before.words(of, key, was), after.words(of, key, is)};
        if (f.before == f.after) // another thing of that name; a list of as many points
            f.after = is.is_string() ? "another " + f.after : f.after + ", others";
        out.push_back(std::move(f));
    }
    return out;
}

std::string orNone(const std::string& name, const char* otherwise) { return name.empty() ? otherwise : name; }

/// The board under which a change of a thing is told; else the part of the work it belongs to.
struct Groups {
    const Project& p;
    RunOwners owners;

    explicit Groups(const Project& project) : p(project), owners(project) {}
    std::string board(BoardId id) const {
        const Board* b = p.boards.find(id);
        return b ? orNone(b->name, "Boards without a name") : "Boards";
    }
    std::string circuit(CircuitId id) const {
        const Circuit* c = p.circuits.find(id);
        return c ? board(c->board) : "Loads without a circuit";
    }
    std::string operator()(const Board& b) const { return board(b.id); }
    std::string operator()(const Circuit& c) const { return board(c.board); }
    std::string operator()(const Section& s) const { return board(s.board); }
    std::string operator()(const Load& l) const { return circuit(l.circuit); }
    std::string operator()(const Transformer& t) const { return orNone(t.name, "Transformers"); }
    std::string operator()(const Source& s) const { return orNone(s.name, "Sources"); }
    std::string operator()(const Run& r) const {
        const Ref owner = owners.of(r.id);
        if (const Board* b = p.boards.find(owner.as<Board>())) return (*this)(*b);
        if (const Transformer* t = p.transformers.find(owner.as<Transformer>())) return (*this)(*t);
        if (const Circuit* c = p.circuits.find(owner.as<Circuit>())) return (*this)(*c);
        return "Runs of nothing";
    }
    std::string operator()(const ScheduleForm&) const { return "Schedule forms"; }
    std::string operator()(const Issue&) const { return "Issues"; }
    std::string operator()(const Tick&) const { return "Review"; }
    std::string operator()(const Remark&) const { return "Review"; }
    std::string operator()(const SheetNumber&) const { return "Sheets"; }
    std::string operator()(const RiserPlace&) const { return "Riser"; }
    std::string operator()(const ComposedSheet&) const { return "Sheets"; }
    std::string operator()(const PlacedView&) const { return "Sheets"; }
    std::string operator()(const ListForm&) const { return "Lists"; }
    template <class T> std::string operator()(const T&) const { return "Plan"; }
};

template <class T> std::string named(const Project& p, const RunOwners& owners, const T& thing) {
    const Ref r = thing.id;
    if constexpr (std::is_same_v<T, Run>) {
        const Ref owner = owners.of(thing.id);
        return "Run of " + (owner ? nameOf(p, owner) : r.text());
    }
    std::string name = nameOf(p, r);
    if constexpr (std::is_same_v<T, Circuit>)
        if (!thing.name.empty()) name += " " + thing.name;
    return name.empty() ? r.text() : name;
}

} // namespace

std::string EnteredChange::text() const {
    if (what == What::Added) return name + ": added";
    if (what == What::Removed) return name + ": removed";
    std::string all = name + ": ";
    for (std::size_t i = 0; i < fields.size(); ++i) {
        const FieldChange& f = fields[i];
        all += fmt::format("{}{} {} → {}", i ? "; " : "", fieldWords(thing, f.field),
                           f.before.empty() ? "none" : f.before, f.after.empty() ? "none" : f.after);
    }
    return all;
}

std::vector<EnteredChange> enteredChanges(const Project& before, const Project& after, const RuleBook* bookBefore,
                                          const RuleBook* bookAfter) {
    const ValueTeller wasTold{before, bookBefore}, isTold{after, bookAfter};
    std::vector<EnteredChange> out;
    const Edit edit = difference(before, after, "");
    const Groups was(before), is(after);
    for (const AnyChange& any : edit.changes)
        std::visit(
            [&]<class T>(const Change<T>& c) {
                EnteredChange e;
                if constexpr (std::is_same_v<T, Basis>) {
                    e.name = "Basis";
                    e.group = "Basis";
                    e.fields = fieldsOf(*c.before, *c.after, wasTold, isTold);
                } else {
                    e.what = !c.before  ? EnteredChange::What::Added
                             : !c.after ? EnteredChange::What::Removed
                                        : EnteredChange::What::Changed;
                    e.thing = c.after ? c.after->id : c.before->id;
                    e.name = c.after ? named(after, is.owners, *c.after) : named(before, was.owners, *c.before);
                    e.group = c.after ? is(*c.after) : was(*c.before);
                    if (c.before && c.after) e.fields = fieldsOf(*c.before, *c.after, wasTold, isTold);
                }
                out.push_back(std::move(e));
            },
            any);
    const auto rank = [](const std::string& group) { return group == "Basis" ? 0 : group == "Plan" ? 2 : 1; };
    std::stable_sort(out.begin(), out.end(), [&](const EnteredChange& x, const EnteredChange& y) {
        return std::pair(rank(x.group), x.group) < std::pair(rank(y.group), y.group);
    });
    return out;
}

} // namespace lintel
