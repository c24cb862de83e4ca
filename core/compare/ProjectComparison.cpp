#include "core/compare/ProjectComparison.h"

#include "core/base/Format.h"
#include "core/base/NaturalOrder.h"
#include "core/check/Compare.h"
#include "core/figures/Words.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <unordered_map>

namespace lintel {
namespace {

std::string plural(std::size_t n, const char* one, const char* many) {
    return fmt::format("{} {}", n, n == 1 ? one : many);
}

bool differs(double a, double b, double share) {
    return std::abs(a - b) > share * std::max({std::abs(a), std::abs(b), 1e-9});
}

double shareOf(double was, double is) { return std::abs(is - was) / std::max(std::abs(was), 1e-9); }

struct Comparer {
    const CheckInput &a, &b;
    ProjectComparison out{};

    std::string sized(const CheckInput& in, const RunResult& r, double device) const {
        return fmt::format("{}{}", device > 0 ? rating(device) + " A, " : "", conductorWords(r, in.book));
    }
    /// mm² of a line.
    static double areaOf(const CheckInput& in, const RunResult& r) {
        return r.size < 0 ? 0 : in.book.sizes()[std::size_t(r.size)].mm2 * r.sets;
    }
    /// Which inputs of its own differ.
    std::string because(const RunNeed& x, const RunNeed& y) const {
        std::vector<std::string> all;
        const auto moved = [&](const char* what, double was, double is, const char* unit) {
            all.push_back(fmt::format("{} {} from {} to {} {}", what, is > was ? "rose" : "fell", figures(was),
                                      figures(is), unit));
        };
        if (differs(x.load.v, y.load.v, 0.001)) moved("the load", x.load.v, y.load.v, "A");
        const UnitSystem units = b.project.basis.units;
        if (x.lengthKnown && y.lengthKnown && differs(x.length.v, y.length.v, 0.001))
            all.push_back(fmt::format("its length went from {} to {}", lengthWords(x.length, units),
                                      lengthWords(y.length, units)));
        else if (x.lengthKnown != y.lengthKnown)
            all.push_back(y.lengthKnown ? "its length is known now" : "its length is not known any more");
        if (x.held != y.held || x.heldSets != y.heldSets)
            all.push_back(y.held >= 0 ? "its size is held" : "its size is not held any more");
        if (x.material != y.material) all.push_back(fmt::format("it is {} now", wordOf(y.material)));
        if (differs(x.ambient, y.ambient, 0.001)) moved("the ambient temperature", x.ambient, y.ambient, "°C");
        if (x.conductors != y.conductors)
            all.push_back(
                fmt::format("{} conductors carry current together, in place of {}", y.conductors, x.conductors));
        if (x.cable->type != y.cable->type || x.cable->method != y.cable->method)
            all.push_back("its cable or its way of laying is another");
        if (x.cable->circuits != y.cable->circuits)
            all.push_back(
                fmt::format("{} circuits lie together, in place of {}", y.cable->circuits, x.cable->circuits));
        if (x.ownLimit != y.ownLimit || x.totalLimit != y.totalLimit) all.push_back("the limit of drop is another");
        if (all.empty() && differs(x.totalBefore, y.totalBefore, 0.01))
            moved("what is lost before it", x.totalBefore, y.totalBefore, "%");
        if (all.empty() && x.device != y.device) all.push_back("its device is another");
        if (all.empty() && differs(x.required.v, y.required.v, 0.001))
            moved("what it must carry", x.required.v, y.required.v, "A");
        std::string words;
        for (const std::string& s : all) words += (words.empty() ? "" : ", ") + s;
        return words;
    }
    void run(Ref thing, const std::string& name, const std::string& group, const RunResult& x, const RunResult& y,
             double dx, double dy) {
        const bool size = x.size != y.size || x.sets != y.sets || x.ground != y.ground, device = dx != dy;
        if (!size && !device) return;
        out.follows.push_back({device ? FollowedChange::Weight::Device : FollowedChange::Weight::Size, thing, name,
                               group, sized(a, x, dx), sized(b, y, dy), because(x.need, y.need),
                               device ? shareOf(dx, dy) : shareOf(areaOf(a, x), areaOf(b, y))});
    }
    void figure(Ref thing, const std::string& name, const std::string& group, const char* what, double was, double is,
                const char* unit) {
        if (!differs(was, is, 0.005)) return;
        out.follows.push_back({FollowedChange::Weight::Figure, thing, name + ", " + what, group,
                               fmt::format("{} {}", figures(was), unit), fmt::format("{} {}", figures(is), unit), "",
                               shareOf(was, is)});
    }
    void order() {
        using Weight = FollowedChange::Weight;
        std::unordered_map<std::string, std::pair<Weight, double>> weightOf;
        for (const FollowedChange& f : out.follows) {
            const std::pair own{f.weight, -f.share};
            const auto [it, fresh] = weightOf.try_emplace(f.group, own);
            if (!fresh) it->second = std::min(it->second, own);
        }
        std::stable_sort(out.follows.begin(), out.follows.end(), [&](const FollowedChange& x, const FollowedChange& y) {
            if (x.group != y.group) {
                const auto &one = weightOf.at(x.group), &other = weightOf.at(y.group);
                return one.first != other.first ? one.first < other.first : numberBefore(x.group, y.group);
            }
            return std::pair(x.weight, -x.share) < std::pair(y.weight, -y.share);
        });
    }
    void circuits() {
        for (const Circuit& k : b.project.circuits) {
            if (!a.project.circuits.has(k.id)) continue;
            const CircuitResult &x = a.results.of(k.id), &y = b.results.of(k.id);
            if (x.feeder || y.feeder) continue;
            const Board* board = b.project.boards.find(k.board);
            run(k.id, nameOf(b.project, k.id) + (k.name.empty() ? "" : " " + k.name), board ? board->name : "", x.run,
                y.run, x.device, y.device);
        }
    }
    template <class T> void nodes(const Table<T>& now, const Table<T>& before) {
        for (const T& t : now) {
            if (!before.has(t.id)) continue;
            const NodeResult &x = *a.results.node(Ref(t.id)), &y = *b.results.node(Ref(t.id));
            if (x.parent && y.parent)
                run(t.id, "Feeder of " + t.name, t.name, x.run, y.run, x.run.need.device, y.run.need.device);
            figure(t.id, t.name, t.name, "demand", x.demand / 1000, y.demand / 1000, "kVA");
            if (x.fault.known && y.fault.known)
                figure(t.id, t.name, t.name, "fault level", x.fault.worst(), y.fault.worst(), "kA");
            if (x.dropKnown && y.dropKnown && std::abs(x.dropTotal - y.dropTotal) > 0.05)
                figure(t.id, t.name, t.name, "drop from the source", x.dropTotal, y.dropTotal, "%");
        }
    }
};

} // namespace

std::string FollowedChange::text() const {
    return fmt::format("{}: {} → {}{}", name, before, after, because.empty() ? "" : ", because " + because);
}

ProjectComparison compareProjects(const CheckInput& before, const CheckInput& after) {
    Comparer c{before, after};
    c.out.entered = enteredChanges(before.project, after.project, &before.book, &after.book);
    c.circuits();
    c.nodes(after.project.sources, before.project.sources);
    c.nodes(after.project.transformers, before.project.transformers);
    c.nodes(after.project.boards, before.project.boards);
    Comparison snags = compare(before, after);
    c.out.newSnags = std::move(snags.newSnags);
    c.out.gone = std::move(snags.gone);
    c.out.otherwise = std::move(snags.otherwise);
    c.order();
    std::size_t things = 0;
    Project::eachTable([&](const char*, auto member) { things += (after.project.*member).size(); });
    c.out.strangers = 2 * c.out.entered.size() > things && c.out.entered.size() > 20;
    return std::move(c.out);
}

std::string ProjectComparison::summary() const {
    if (nothing()) return "nothing differs";
    std::string s;
    const auto add = [&](const std::string& words) { s += (s.empty() ? "" : " · ") + words; };
    if (!entered.empty()) add(fmt::format("{} entered", plural(entered.size(), "change", "changes")));
    const auto weighing = [&](FollowedChange::Weight w) {
        return std::size_t(
            std::count_if(follows.begin(), follows.end(), [&](const FollowedChange& f) { return f.weight == w; }));
    };
    if (const auto n = weighing(FollowedChange::Weight::Device)) add(plural(n, "device differs", "devices differ"));
    if (const auto n = weighing(FollowedChange::Weight::Size)) add(plural(n, "size differs", "sizes differ"));
    if (const auto n = weighing(FollowedChange::Weight::Figure)) add(plural(n, "figure differs", "figures differ"));
    if (!newSnags.empty()) add(plural(newSnags.size(), "new snag", "new snags"));
    if (!gone.empty()) add(plural(gone.size(), "snag gone", "snags gone"));
    if (!otherwise.empty()) add(plural(otherwise.size(), "snag with other figures", "snags with other figures"));
    if (strangers) add("more than half differs: these may not be two states of one project");
    return s;
}

std::vector<ChangeGroup> ProjectComparison::grouped() const {
    std::vector<ChangeGroup> all;
    std::unordered_map<std::string, std::size_t> placeOf;
    const auto group = [&](const std::string& name) -> ChangeGroup& {
        const auto [it, fresh] = placeOf.try_emplace(name, all.size());
        if (fresh) all.push_back({name, {}, {}});
        return all[it->second];
    };
    if (!entered.empty() && !entered.front().thing) group(entered.front().group); // the basis
    for (const FollowedChange& f : follows) group(f.group).follows.push_back(&f);
    for (const EnteredChange& e : entered) group(e.group).entered.push_back(&e);
    return all;
}

std::string ProjectComparison::text() const {
    std::string t = summary() + "\n";
    const auto heading = [&](const std::string& words) { t += "\n" + words + "\n"; };
    std::string group;
    if (!entered.empty()) heading("ENTERED");
    for (const EnteredChange& e : entered) {
        if (e.group != group) t += e.group + "\n";
        group = e.group;
        t += "  " + e.text() + "\n";
    }
    if (!follows.empty()) heading("WHAT FOLLOWS");
    group.clear();
    for (const FollowedChange& f : follows) {
        if (f.group != group) t += f.group + "\n";
        group = f.group;
        t += "  " + f.text() + "\n";
    }
    if (!newSnags.empty()) heading("NEW SNAGS");
    for (const std::string& s : newSnags) t += "  " + s + "\n";
    if (!gone.empty()) heading("SNAGS GONE");
    for (const std::string& s : gone) t += "  " + s + "\n";
    if (!otherwise.empty()) heading("SNAGS WITH OTHER FIGURES");
    for (const std::string& s : otherwise) t += "  " + s + "\n";
    return t;
}

nlohmann::ordered_json ProjectComparison::json() const {
    using nlohmann::ordered_json;
    ordered_json e = ordered_json::array(), f = ordered_json::array();
    for (const EnteredChange& c : entered) {
        ordered_json fields = ordered_json::array();
        for (const FieldChange& x : c.fields)
            fields.push_back({{"field", x.field}, {"before", x.before}, {"after", x.after}});
        e.push_back({{"what", c.what == EnteredChange::What::Added     ? "added"
                              : c.what == EnteredChange::What::Removed ? "removed"
                                                                       : "changed"},
                     {"id", c.thing.text()},
                     {"name", c.name},
                     {"group", c.group},
                     {"fields", fields},
                     {"text", c.text()}});
    }
    for (const FollowedChange& c : follows)
        f.push_back({{"weight", c.weight == FollowedChange::Weight::Device ? "device"
                                : c.weight == FollowedChange::Weight::Size ? "size"
                                                                           : "figure"},
                     {"share", std::round(c.share * 1000) / 1000},
                     {"id", c.thing.text()},
                     {"name", c.name},
                     {"group", c.group},
                     {"before", c.before},
                     {"after", c.after},
                     {"because", c.because}});
    return {{"summary", summary()},  {"entered", e},       {"follows", f},
            {"new_snags", newSnags}, {"snags_gone", gone}, {"snags_otherwise", otherwise}};
}

} // namespace lintel
