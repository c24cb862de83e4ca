#include "core/exchange/TakeModel.h"

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/figures/Words.h"
#include "core/plan/FindRooms.h"
#include "core/project/FreshId.h"
#include "core/project/Operations.h"

#include <algorithm>
#include <map>
#include <set>
#include <unordered_map>

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double moved = 0.02;                   ///< m: less is how models round
constexpr double lowest = -1000, highest = 2000; ///< m, of levels

bool apart(Point a, Point b) { return distance(a, b) > moved; }
bool apart(const std::vector<Point>& a, const std::vector<Point>& b) {
    if (a.size() != b.size()) return true;
    for (std::size_t i = 0; i < a.size(); ++i)
        if (apart(a[i], b[i])) return true;
    return false;
}
bool onAnyPlan(Point p) { return std::abs(p.x) <= limits::coordinate && std::abs(p.y) <= limits::coordinate; }
/// Things keep the model that they came from before their identity in it: "PROJECT|THING".
std::string identityIn(const std::string& modelId) {
    const std::size_t bar = modelId.find('|');
    return bar == std::string::npos ? modelId : modelId.substr(bar + 1);
}
std::string areaWords(double m2, UnitSystem units) {
    return units == UnitSystem::Imperial ? figures(m2 / (metresPerFoot * metresPerFoot)) + " ft²" : figures(m2) + " m²";
}
std::string orNone(const std::string& s) { return s.empty() ? "none" : s; }

class Taker {
public:
    Taker(Project& project, const BuildingModel& model, const std::vector<char>& left, bool removeGone)
        : p(project), m(model), leftOut(left), removing(removeGone), levels(model.storeys.size()) {}

    ModelTaken take() {
        know();
        findPlace();
        knowModel();
        for (const auto& w : m.walls)
            if (w.storey < 0) {
                seen.insert(w.id);
                for (const auto& o : w.openings) seen.insert(o.id);
            }
        const auto order = rowsOf(m);
        out.rows.resize(order.size());
        for (std::size_t i = 0; i < order.size(); ++i) {
            row = &out.rows[i];
            const bool left = i < leftOut.size() && leftOut[i];
            const std::size_t at = order[i].at;
            switch (order[i].of) {
            case ModelRow::Of::Storey:
                takeStorey(at, left);
                break;
            case ModelRow::Of::Space:
                left ? (void)seen.insert(m.spaces[at].id) : takeSpace(m.spaces[at]);
                break;
            case ModelRow::Of::Walls:
                takeWalls(int(at), left);
                break;
            case ModelRow::Of::Device:
                left ? (void)seen.insert(m.devices[at].id) : takeDevice(m.devices[at]);
                break;
            }
            if (left) continue;
            if (row->refused)
                ++out.refused;
            else if (row->fresh)
                ++out.added;
            else
                ++(row->what.empty() ? out.same : out.changed);
        }
        findGone();
        return std::move(out);
    }

private:
    Project& p;
    const BuildingModel& m;
    const std::vector<char>& leftOut;
    const bool removing;
    std::vector<LevelId> levels; ///< by storey; none: it stays out
    std::unordered_map<std::string, LevelId> levelOf;
    std::unordered_map<std::string, RoomId> roomOf;
    std::unordered_map<std::string, WallId> wallOf;
    std::unordered_map<std::string, OpeningId> openingOf;
    std::unordered_map<std::string, DeviceId> deviceOf;
    // What came from no model, or from another.
    std::unordered_map<std::string, DeviceId> untiedByTag;
    std::map<std::pair<LevelId, std::string>, RoomId> untiedByNumber;
    std::unordered_map<std::string, DeviceTypeId> typeByName;
    std::set<std::string> own;  ///< identities of rooms and things of the model
    std::set<std::string> seen; ///< of them, and of all else of it, those that were met
    std::set<Ref> met;          ///< by number or tag, whatever identity they have
    bool knowsRooms = false, knowsWalls = false, knowsDevices = false; ///< some of it are in the project already
    ModelTaken out;
    ModelTaken::Row* row = nullptr;

    void know() {
        for (const Level& l : p.levels)
            if (!l.modelId.empty()) levelOf.emplace(identityIn(l.modelId), l.id);
        for (const Room& r : p.rooms)
            if (!r.modelId.empty()) roomOf.emplace(identityIn(r.modelId), r.id);
        for (const Wall& w : p.walls)
            if (!w.modelId.empty()) wallOf.emplace(identityIn(w.modelId), w.id);
        for (const Opening& o : p.openings)
            if (!o.modelId.empty()) openingOf.emplace(identityIn(o.modelId), o.id);
        for (const Device& d : p.devices)
            if (!d.modelId.empty()) deviceOf.emplace(identityIn(d.modelId), d.id);
        for (const DeviceType& t : p.deviceTypes) typeByName.emplace(lowered(t.name), t.id);
    }

    /// Models of several disciplines may tell of the same rooms and things, each by identities of its own.
    void knowModel() {
        for (const auto& s : m.spaces) {
            own.insert(s.id);
            knowsRooms = knowsRooms || roomOf.count(s.id);
        }
        for (const auto& w : m.walls) knowsWalls = knowsWalls || wallOf.count(w.id);
        for (const auto& d : m.devices) {
            own.insert(d.id);
            knowsDevices = knowsDevices || deviceOf.count(d.id);
        }
        for (const Device& d : p.devices)
            if (!d.tag.empty() && isAnothers(d.modelId)) untiedByTag.emplace(lowered(d.tag), d.id);
        for (const Room& r : p.rooms)
            if (!r.number.empty() && isAnothers(r.modelId))
                untiedByNumber.emplace(std::pair(r.level, lowered(r.number)), r.id);
    }
    bool isAnothers(const std::string& modelId) const { return modelId.empty() || !own.count(identityIn(modelId)); }
    std::string kept(const std::string& identity) const {
        std::string from = m.source;
        std::replace(from.begin(), from.end(), '|', '/');
        return from + "|" + identity;
    }
    bool cameFromThis(const std::string& modelId) const { return modelId == kept(identityIn(modelId)); }
    /// Not that of another model, by which the thing is known there.
    void keepIdentity(std::string& modelId, const std::string& identity) const {
        if (modelId.empty() || identityIn(modelId) == identity) modelId = kept(identity);
    }

    /// The first time, the left and the upper edge of the model lie at the zero of the plan.
    void findPlace() {
        if (!levelOf.empty() || !roomOf.empty() || !wallOf.empty() || !deviceOf.empty()) return;
        Point least{1e300, 1e300};
        const auto reach = [&](Point q) {
            if (std::abs(q.x) > limits::modelOrigin || std::abs(q.y) > limits::modelOrigin) return; // on no earth
            least = {std::min(least.x, q.x), std::min(least.y, q.y)};
        };
        for (const auto& s : m.spaces)
            for (Point q : s.outline) reach(q);
        for (const auto& w : m.walls) reach(w.a), reach(w.b);
        for (const auto& d : m.devices)
            if (d.storey >= 0) reach(d.at);
        if (least.x > 1e299) return;
        p.basis.modelOrigin = Point{std::round(-least.x * 100) / 100, std::round(-least.y * 100) / 100};
        if (p.rooms.size() + p.walls.size() > 0)
            out.notes.push_back("the model's left and upper edge lie at the plan's zero: what was drawn before may lie "
                                "elsewhere");
    }
    Point placed(Point q) const { return q + p.basis.modelOrigin; }

    /// Sets a field, and says so of what was there before.
    template <class T> void set(T& field, const T& to, const std::string& words) {
        if (field == to) return;
        field = to;
        if (!row->fresh) row->what.push_back(words);
    }
    void refuse(std::string why) {
        row->refused = true;
        row->look.push_back(std::move(why));
    }

    /// By its identity, which nothing else in the model may have.
    bool isOneOfItsOwn(const std::string& id) {
        if (id.empty())
            refuse("the model gives it no identity");
        else if (!seen.insert(id).second)
            refuse("something else in the model has its identity");
        else
            return true;
        return false;
    }
    bool isTooLong(std::initializer_list<const std::string*> texts) {
        for (const std::string* text : texts)
            if (text->size() > limits::textBytes) {
                refuse("a text of it is too long");
                return true;
            }
        return false;
    }

    // ---- storeys ----

    /// Of a storey that is not known by its identity: by its name, else by its height.
    LevelId findLevel(const BuildingModel::Storey& s) const {
        const auto ofThis = [&](const Level& l) {
            return std::any_of(m.storeys.begin(), m.storeys.end(),
                               [&](const auto& x) { return x.id == identityIn(l.modelId); });
        };
        for (const Level& l : p.levels)
            if (sameWord(l.name, s.name) && !ofThis(l)) return l.id;
        for (const Level& l : p.levels) // the floor that a new project begins with
            if (l.modelId.empty() && std::abs(l.elevation - s.elevation) < 0.3) return l.id;
        return {};
    }
    void takeStorey(std::size_t at, bool left) {
        const BuildingModel::Storey& s = m.storeys[at];
        const auto before = levelOf.find(s.id);
        const bool known = before != levelOf.end();
        if (left) {
            if (known) levels[at] = before->second; // what stands on it can enter nevertheless
            return;
        }
        if (!isOneOfItsOwn(s.id) || isTooLong({&s.id, &s.name})) return;
        if (!(s.elevation >= lowest && s.elevation <= highest))
            return refuse(fmt::format("it lies {} above zero", length(s.elevation)));
        LevelId id = known ? before->second : findLevel(s);
        if (!id) {
            Level l;
            l.modelId = kept(s.id), l.name = s.name, l.elevation = s.elevation;
            if (s.height > 1.5 && s.height < 30) l.height = s.height;
            id = addFresh(p, &Project::levels, l);
            row->fresh = true;
            row->what.push_back("new level");
        } else {
            const Level was = p.levels[id];
            Level& l = *p.levels.change(id);
            if (!known && l.modelId.empty()) row->what.push_back("takes the place of " + was.name);
            keepIdentity(l.modelId, s.id);
            set(l.name, s.name, fmt::format("name {} → {}", was.name, s.name));
            if (std::abs(l.elevation - s.elevation) > 0.005)
                set(l.elevation, s.elevation,
                    fmt::format("elevation {} → {}", length(was.elevation), length(s.elevation)));
            if (s.height > 1.5 && s.height < 30 && std::abs(l.height - s.height) > 0.005)
                set(l.height, s.height, fmt::format("height {} → {}", length(was.height), length(s.height)));
        }
        levels[at] = id;
        levelOf[s.id] = id;
    }
    std::string length(double metres) const { return lengthWords(Metres{metres}, p.basis.units); }
    /// The level of a thing; refused, with words, where it has none here.
    LevelId levelAt(int storey) {
        if (storey < 0)
            refuse("the model does not say on which storey it is");
        else if (!levels[std::size_t(storey)])
            refuse("its storey stays out");
        else
            return levels[std::size_t(storey)];
        return {};
    }

    // ---- spaces ----

    void takeSpace(const BuildingModel::Space& s) {
        if (!isOneOfItsOwn(s.id) || isTooLong({&s.id, &s.number, &s.name})) return;
        const LevelId level = levelAt(s.storey);
        if (!level) return;
        std::vector<Point> outline;
        for (Point q : s.outline) outline.push_back(placed(q));
        if (outline.size() < 3) return refuse("it has no outline that can be read");
        if (!std::all_of(outline.begin(), outline.end(), onAnyPlan)) return refuse("it lies too far away for a plan");
        RoomId id;
        if (const auto it = roomOf.find(s.id); it != roomOf.end()) {
            id = it->second;
        } else if (const auto numbered = untiedByNumber.find({level, lowered(s.number)});
                   numbered != untiedByNumber.end()) {
            id = numbered->second;
            untiedByNumber.erase(numbered);
            if (p.rooms[id].modelId.empty()) row->what.push_back("takes the place of " + nameOf(p, id));
        }
        if (!id) {
            Room r;
            r.level = level;
            r.kind = roomKindByName(p, s.name);
            id = addFresh(p, &Project::rooms, r);
            row->fresh = true;
            row->what.push_back("new room");
        }
        const Room before = p.rooms[id];
        Room& r = *p.rooms.change(id);
        met.insert(id);
        keepIdentity(r.modelId, s.id);
        set(r.level, level, "on another level");
        set(r.number, s.number, fmt::format("number {} → {}", orNone(before.number), orNone(s.number)));
        set(r.name, s.name, fmt::format("name {} → {}", orNone(before.name), orNone(s.name)));
        if (apart(r.outline, outline)) {
            const double was = std::abs(areaOf(before.outline)), is = std::abs(areaOf(outline));
            set(r.outline, outline,
                std::abs(was - is) > 0.05 ? fmt::format("{} → {}", area(was), area(is)) : "outline");
        }
        if (s.height > 1.5 && s.height < 30) {
            const bool asLevel = std::abs(s.height - p.levels[level].height) <= 0.05;
            if (!asLevel && (!r.ceiling || std::abs(*r.ceiling - s.height) > 0.005))
                set(r.ceiling, std::optional(s.height), "ceiling " + length(s.height));
        }
    }
    std::string area(double m2) const { return areaWords(m2, p.basis.units); }

    // ---- walls and doors ----

    void takeWalls(int storey, bool left) {
        std::size_t fresh = 0, changed = 0, freshDoors = 0, changedDoors = 0, known = 0;
        if (left || !levels[std::size_t(storey)]) {
            for (const auto& w : m.walls)
                if (w.storey == storey) {
                    seen.insert(w.id);
                    for (const auto& o : w.openings) seen.insert(o.id);
                }
            if (!left) refuse("their storey stays out");
            return;
        }
        const LevelId level = levels[std::size_t(storey)];
        std::size_t far = 0, unknown = 0;
        for (const auto& w : m.walls) {
            if (w.storey != storey) continue;
            if (w.id.empty() || w.id.size() > limits::textBytes || !seen.insert(w.id).second) {
                ++unknown;
                continue;
            }
            const Point a = placed(w.a), b = placed(w.b);
            if (!onAnyPlan(a) || !onAnyPlan(b)) {
                ++far;
                continue;
            }
            const auto it = wallOf.find(w.id);
            WallId id;
            if (it == wallOf.end()) {
                Wall one;
                one.modelId = kept(w.id), one.level = level, one.a = a, one.b = b;
                one.thickness = std::clamp(w.thickness, 0.01, 2.0), one.bulge = w.bulge;
                id = addFresh(p, &Project::walls, one);
                ++fresh;
            } else {
                ++known;
                id = it->second;
                const Wall before = p.walls[id];
                const double thickness = std::clamp(w.thickness, 0.01, 2.0);
                if (before.level != level || apart(before.a, a) || apart(before.b, b) ||
                    std::abs(before.thickness - thickness) > 0.005 || std::abs(before.bulge - w.bulge) > 1e-4) {
                    Wall& one = *p.walls.change(id);
                    one.level = level, one.a = a, one.b = b, one.thickness = thickness, one.bulge = w.bulge;
                    ++changed;
                }
            }
            for (const auto& o : w.openings) unknown += !takeOpening(o, id, freshDoors, changedDoors);
        }
        row->fresh = fresh > 0 && known == 0;
        if (fresh) row->what.push_back(counted(fresh, "new wall", "new walls"));
        if (changed) row->what.push_back(counted(changed, "wall changed", "walls changed"));
        if (freshDoors) row->what.push_back(counted(freshDoors, "new door or window", "new doors and windows"));
        if (changedDoors)
            row->what.push_back(counted(changedDoors, "door or window changed", "doors and windows changed"));
        if (unknown)
            row->look.push_back(counted(unknown, "wall or door has", "walls or doors have") +
                                " no identity in the model, or another's: left out");
        if (far) row->look.push_back(counted(far, "wall lies", "walls lie") + " too far away for a plan");
    }
    /// False where it has no identity of its own.
    bool takeOpening(const BuildingModel::Opening& o, WallId wall, std::size_t& fresh, std::size_t& changed) {
        if (o.id.empty() || o.id.size() > limits::textBytes || !seen.insert(o.id).second) return false;
        const double width = std::clamp(o.width, 0.1, 20.0);
        const auto it = openingOf.find(o.id);
        if (it == openingOf.end()) {
            Opening one;
            one.modelId = kept(o.id), one.wall = wall, one.kind = o.kind, one.along = o.along, one.width = width;
            p.openings.add(one);
            ++fresh;
            return true;
        }
        const Opening& before = p.openings[it->second];
        if (before.wall == wall && before.kind == o.kind && std::abs(before.along - o.along) <= moved &&
            std::abs(before.width - width) <= 0.005)
            return true;
        Opening& one = *p.openings.change(it->second);
        one.wall = wall, one.kind = o.kind, one.along = o.along, one.width = width;
        ++changed;
        return true;
    }

    // ---- electrical things ----

    void takeDevice(const BuildingModel::Device& d) {
        if (!isOneOfItsOwn(d.id) || isTooLong({&d.id, &d.tag, &d.name})) return;
        if (d.watts && !(*d.watts >= 0 && *d.watts <= limits::number)) return refuse(d.said + " cannot be");
        const LevelId level = levelAt(d.storey);
        if (!level) return;
        const Point at = placed(d.at);
        if (!onAnyPlan(at)) return refuse("it lies too far away for a plan");
        DeviceId id;
        if (const auto it = deviceOf.find(d.id); it != deviceOf.end()) {
            id = it->second;
        } else if (const auto tagged = untiedByTag.find(lowered(d.tag));
                   !d.tag.empty() && tagged != untiedByTag.end()) {
            id = tagged->second;
            untiedByTag.erase(tagged);
            if (p.devices[id].modelId.empty()) row->what.push_back("takes the place of " + nameOf(p, Ref(id)));
        }
        const DeviceTypeId type = typeFor(d);
        if (!id) {
            Device one;
            one.type = type, one.level = level, one.at = at;
            id = addFresh(p, &Project::devices, one);
            row->fresh = true;
            row->what.push_back("new");
        }
        const Device before = p.devices[id];
        Device& one = *p.devices.change(id);
        met.insert(id);
        keepIdentity(one.modelId, d.id);
        set(one.type, type, fmt::format("{} → {}", p.deviceTypes[before.type].name, p.deviceTypes[type].name));
        set(one.level, level, "on another level");
        if (apart(one.at, at)) set(one.at, at, "moved " + length(distance(before.at, at)));
        if (!d.tag.empty()) set(one.tag, d.tag, fmt::format("tag {} → {}", orNone(before.tag), d.tag));
        const DeviceType& t = p.deviceTypes[type];
        if (const double height = std::round(d.height * 1000) / 1000; height >= 0 && height < 30) {
            const double now = before.height.value_or(t.height);
            if (std::abs(now - height) > 0.005)
                set(one.height, std::optional(height), fmt::format("height {} → {}", length(now), length(height)));
        }
        takeLoad(d, t, one);
    }
    void takeLoad(const BuildingModel::Device& d, const DeviceType& t, Device& one) {
        const bool carries = d.symbol != Symbol::Switch && d.symbol != Symbol::Junction && d.symbol != Symbol::Data;
        if (!d.watts) {
            if (carries && row->fresh && one.load.value_or(t.load) <= 0)
                row->look.push_back("the model does not say what it takes: it counts as nothing until somebody does");
            return;
        }
        double amount = *d.watts;
        if (t.unit == LoadUnit::kW || t.unit == LoadUnit::kVA) amount /= 1000;
        if (t.unit == LoadUnit::VA || t.unit == LoadUnit::kVA) amount /= t.powerFactor;
        if (t.unit == LoadUnit::hp || t.unit == LoadUnit::A) {
            row->look.push_back(fmt::format("{}: its type is entered in {}, and stays", d.said, wordOf(t.unit)));
            return;
        }
        const double now = one.load.value_or(t.load);
        if (std::abs(now - amount) <= 1e-6 * std::max(1.0, amount)) return;
        set(one.load, std::optional(amount),
            fmt::format("load {} {} → {} {}", figures(now), wordOf(t.unit), figures(amount), wordOf(t.unit)));
    }
    DeviceTypeId typeFor(const BuildingModel::Device& d) {
        if (const auto it = typeByName.find(lowered(d.name)); it != typeByName.end()) return it->second;
        DeviceType t;
        t.name = d.name, t.symbol = d.symbol, t.kind = d.kind, t.unit = LoadUnit::W;
        t.load = d.watts.value_or(0);
        t.poles = d.poles.value_or(1);
        t.onWall = d.symbol == Symbol::Receptacle || d.symbol == Symbol::Switch || d.symbol == Symbol::Data ||
                   d.symbol == Symbol::Heater;
        t.height = std::clamp(std::round(d.height * 1000) / 1000, 0.0, 30.0);
        const DeviceTypeId id = p.deviceTypes.add(t);
        typeByName.emplace(lowered(d.name), id);
        return id;
    }

    // ---- what the model no longer has ----

    void findGone() {
        std::vector<Ref> things;
        int onCircuits = 0;
        const auto isGone = [&](Ref thing, const std::string& modelId) {
            return !modelId.empty() && cameFromThis(modelId) && !seen.count(identityIn(modelId)) && !met.count(thing);
        };
        for (const Room& r : p.rooms)
            if (knowsRooms && isGone(r.id, r.modelId)) {
                things.push_back(r.id);
                out.gone.push_back(nameOf(p, r.id));
            }
        for (const Device& d : p.devices)
            if (knowsDevices && isGone(d.id, d.modelId)) {
                things.push_back(d.id);
                out.gone.push_back(nameOf(p, Ref(d.id)));
                onCircuits += bool(d.circuit);
            }
        for (const Wall& w : p.walls)
            if (knowsWalls && isGone(w.id, w.modelId)) things.push_back(w.id), ++out.goneWalls;
        std::vector<OpeningId> openings;
        for (const Opening& o : p.openings)
            if (knowsWalls && isGone(Ref(), o.modelId)) openings.push_back(o.id), ++out.goneWalls;
        if (onCircuits)
            out.notes.push_back(counted(std::size_t(onCircuits), "thing that the model no longer has is on a circuit",
                                        "things that the model no longer has are on circuits"));
        if (!removing) return;
        for (OpeningId o : openings) p.openings.remove(o);
        for (Ref r : things)
            if (r.is<Room>())
                removeRoom(p, r.as<Room>());
            else if (r.is<Wall>())
                removeWall(p, r.as<Wall>());
            else
                removeFromPlan(p, r);
    }
};

std::string nameOfStorey(const BuildingModel& m, int storey) {
    return storey < 0 ? std::string() : m.storeys[std::size_t(storey)].name;
}

} // namespace

std::vector<ModelRow> rowsOf(const BuildingModel& m) {
    std::vector<std::vector<ModelRow>> by(m.storeys.size() + 1);
    const auto on = [&](int storey) -> std::vector<ModelRow>& {
        return storey < 0 || storey >= int(m.storeys.size()) ? by.back() : by[std::size_t(storey)];
    };
    for (std::size_t i = 0; i < m.storeys.size(); ++i) by[i].push_back({ModelRow::Of::Storey, i});
    for (std::size_t i = 0; i < m.spaces.size(); ++i) on(m.spaces[i].storey).push_back({ModelRow::Of::Space, i});
    std::vector<char> walled(m.storeys.size(), 0);
    for (const auto& w : m.walls)
        if (w.storey >= 0 && !walled[std::size_t(w.storey)]++)
            on(w.storey).push_back({ModelRow::Of::Walls, std::size_t(w.storey)});
    for (std::size_t i = 0; i < m.devices.size(); ++i) on(m.devices[i].storey).push_back({ModelRow::Of::Device, i});
    std::vector<ModelRow> out;
    for (const auto& rows : by) out.insert(out.end(), rows.begin(), rows.end());
    return out;
}

std::vector<std::string> modelHeadings() {
    return {"What", "Number or tag", "Name", "Storey", "Size", "Load", "Identity"};
}

std::vector<std::string> cellsOf(const BuildingModel& m, const ModelRow& row, UnitSystem units) {
    const auto length = [&](double metres) { return lengthWords(Metres{metres}, units); };
    switch (row.of) {
    case ModelRow::Of::Storey: {
        const auto& s = m.storeys[row.at];
        return {"storey", "", s.name, s.name, "at " + length(s.elevation), "", s.id};
    }
    case ModelRow::Of::Space: {
        const auto& s = m.spaces[row.at];
        const double m2 = std::abs(areaOf(s.outline));
        return {"space", s.number, s.name, nameOfStorey(m, s.storey), m2 > 0 ? areaWords(m2, units) : "", "", s.id};
    }
    case ModelRow::Of::Walls: {
        std::size_t walls = 0, doors = 0;
        double all = 0;
        for (const auto& w : m.walls)
            if (w.storey == int(row.at)) ++walls, doors += w.openings.size(), all += distance(w.a, w.b);
        return {"walls",
                "",
                counted(walls, "wall", "walls") + ", " + counted(doors, "door or window", "doors and windows"),
                nameOfStorey(m, int(row.at)),
                length(all),
                "",
                ""};
    }
    case ModelRow::Of::Device: {
        const auto& d = m.devices[row.at];
        return {wordOf(d.symbol),
                d.tag,
                d.name,
                nameOfStorey(m, d.storey),
                "",
                d.watts ? figures(*d.watts) + " W" : "",
                d.id};
    }
    }
    return {};
}

ModelTaken takeModel(Project& p, const BuildingModel& m, const std::vector<char>& leftOut, bool removeGone) {
    return Taker(p, m, leftOut, removeGone).take();
}

} // namespace lintel
