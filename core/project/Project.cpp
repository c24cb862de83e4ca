#include "core/project/Project.h"

#include "core/base/Parse.h"

#include <cctype>

namespace lintel {

template class Table<Level>;
template class Table<Wall>;
template class Table<Room>;
template class Table<DeviceType>;
template class Table<Source>;
template class Table<Transformer>;
template class Table<Board>;
template class Table<Circuit>;
template class Table<Run>;
template class Table<Load>;
template class Table<Section>;
template class Table<Device>;
template class Table<Underlay>;
template class Table<Opening>;
template class Table<Furnishing>;
template class Table<Recipe>;
template class Table<Catchment>;
template class Table<Tray>;
template class Table<ScheduleForm>;
template class Table<Issue>;
template class Table<Tick>;
template class Table<Remark>;
template class Table<SheetNumber>;
template class Table<RiserPlace>;
template class Table<ComposedSheet>;
template class Table<PlacedView>;
template class Table<ListForm>;
template class Table<KeyedNote>;

Project::Project() = default;
Project::Project(const Project&) = default;
Project::Project(Project&&) noexcept = default;
Project& Project::operator=(const Project&) = default;
Project& Project::operator=(Project&&) noexcept = default;
Project::~Project() = default;

bool Project::operator==(const Project& other) const {
    bool same = basis == other.basis && extra == other.extra;
    eachTable([&](const char*, auto table) { same = same && this->*table == other.*table; });
    return same;
}

std::string nameOf(const Project& p, CircuitId id) {
    const Circuit* c = p.circuits.find(id);
    if (!c) return "?";
    const Board* b = p.boards.find(c->board);
    const std::string board = b ? b->name : "?";
    if (p.basis.circuitPattern.empty() && !(b && b->form == BoardForm::Ways))
        return board + "-" + (c->slot > 0 ? std::to_string(c->slot) : "?");
    const bool ways = b && b->form == BoardForm::Ways && c->slot > 0;
    const std::string slot = c->slot > 0 ? std::to_string(c->slot) : "?";
    const std::string line = ways && c->poles < 3 ? "L" + std::to_string((c->slot - 1) % 3 + 1) : "";
    return fillPattern(p.basis.circuitPattern.empty() ? "{board}/{way}/{line}" : p.basis.circuitPattern,
                       {{"board", board},
                        {"slot", slot},
                        {"way", ways ? std::to_string((c->slot - 1) / 3 + 1) : slot},
                        {"line", line}});
}

std::string fillPattern(const std::string& pattern, const std::map<std::string, std::string>& words) {
    std::string out;
    for (std::size_t i = 0; i < pattern.size();) {
        const std::size_t open = pattern.find('{', i),
                          close = open == std::string::npos ? open : pattern.find('}', open);
        if (close == std::string::npos) return out + pattern.substr(i);
        out += pattern.substr(i, open - i);
        const auto word = words.find(pattern.substr(open + 1, close - open - 1));
        if (word == words.end())
            out += pattern.substr(open, close - open + 1); // not one of ours: left as it stands
        else if (word->second.empty())
            while (!out.empty() && (isMark(out.back()) || out.back() == ' '))
                out.pop_back(); // with the sign that would have joined it
        else
            out += word->second;
        i = close + 1;
    }
    return out;
}

std::string nameOf(const Project& p, Ref r) {
    if (auto* b = p.boards.find(r.as<Board>())) return b->name.empty() ? "board without a name" : b->name;
    if (auto* t = p.transformers.find(r.as<Transformer>()))
        return t->name.empty() ? "transformer without a name" : t->name;
    if (auto* s = p.sources.find(r.as<Source>())) return s->name.empty() ? "source without a name" : s->name;
    if (r.is<Circuit>()) return nameOf(p, r.as<Circuit>());
    if (auto* l = p.loads.find(r.as<Load>())) return !l->name.empty() ? l->name : l->tag.empty() ? "load" : l->tag;
    if (auto* m = p.rooms.find(r.as<Room>())) return m->number.empty() ? m->name : m->name + " " + m->number;
    if (auto* v = p.levels.find(r.as<Level>())) return v->name;
    if (auto* y = p.deviceTypes.find(r.as<DeviceType>())) return y->name;
    if (r.is<Wall>()) return "wall";
    if (auto* u = p.underlays.find(r.as<Underlay>())) return u->file.substr(u->file.find_last_of('/') + 1);
    if (auto* o = p.openings.find(r.as<Opening>())) return wordOf(o->kind);
    if (auto* f = p.furnishings.find(r.as<Furnishing>())) return f->name.empty() ? wordOf(f->kind) : f->name;
    if (auto* k = p.catchments.find(r.as<Catchment>())) return k->name.empty() ? "catchment" : k->name;
    if (auto* n = p.keyedNotes.find(r.as<KeyedNote>())) return "keyed note " + std::to_string(n->number);
    if (auto* t = p.trays.find(r.as<Tray>())) return t->name.empty() ? "tray" : t->name;
    if (auto* f = p.forms.find(r.as<ScheduleForm>())) return f->name;
    if (auto* i = p.issues.find(r.as<Issue>())) return "issue " + i->mark;
    if (auto* t = p.ticks.find(r.as<Tick>())) return "tick of " + t->thing + (t->thing.empty() ? "" : ", ") + t->figure;
    if (r.is<Remark>()) return "remark " + std::to_string(r.value);
    if (auto* g = p.riserPlaces.find(r.as<RiserPlace>())) return "place of " + nameOf(p, g->about);
    if (auto* n = p.sheetNumbers.find(r.as<SheetNumber>())) return "sheet number " + n->number;
    if (auto* f = p.listForms.find(r.as<ListForm>())) return "list form " + f->list;
    if (r.is<ComposedSheet>()) return "composed sheet " + std::to_string(r.value);
    if (auto* v = p.placedViews.find(r.as<PlacedView>())) {
        if (!v->title.empty()) return v->title;
        const std::string of = v->about ? nameOf(p, v->about) : v->shows == SheetKind::List ? v->text : std::string();
        return std::string("view, ") + wordOf(v->shows) + (of.empty() ? "" : " " + of);
    }
    if (auto* e = p.recipes.find(r.as<Recipe>())) return "recipe for " + e->roomKind;
    if (auto* d = p.devices.find(r.as<Device>())) {
        if (!d->tag.empty()) return d->tag;
        const DeviceType* t = p.deviceTypes.find(d->type);
        return t ? t->name : "device";
    }
    if (r.is<Run>()) {
        if (auto* run = p.runs.find(r.as<Run>()); run && !run->name.empty()) return run->name;
        for (const Circuit& c : p.circuits)
            if (c.run == r.as<Run>()) return nameOf(p, c.id);
    }
    return r.text();
}

Ref fedBy(const Project& p, CircuitId circuit) {
    for (const Board& b : p.boards)
        if (b.feed == Ref(circuit) || b.alternate == Ref(circuit)) return b.id;
    for (const Transformer& t : p.transformers)
        if (t.feed == Ref(circuit)) return t.id;
    return {};
}

RoomId roomAt(const Project& p, LevelId level, Point at) {
    for (const Room& r : p.rooms)
        if (r.level == level && contains(r.outline, at)) return r.id;
    return {};
}

} // namespace lintel
