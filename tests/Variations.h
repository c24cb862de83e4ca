#pragma once
// A project with some of its facts entered otherwise, at random and the same for the same seed: values that the model
// takes, most of them round, as people enter them.

#include "core/project/AddBelow.h"
#include "core/project/Fields.h"
#include "core/project/Validation.h"
#include "tests/Building.h"

#include <map>
#include <optional>
#include <set>
#include <string>

namespace lintel {

/// Texts that stand in a field somewhere, by its key: sizes, cables, methods, conduits.
struct TextsKnown {
    std::map<std::string, std::set<std::string>> byKey{
        {"heldSize", {"12", "8", "4", "1/0", "250", "1.5", "4", "10", "25", "50"}},
        {"heldGround", {"12", "8", "4", "2.5", "6", "16"}},
        {"smallestBranch", {"14", "12", "10"}}};
    template <class T> void operator()(const char*, const T&) {}
    void operator()(const char* key, const std::string& text) {
        if (!text.empty()) byKey[key].insert(text);
    }
    void learn(const Project& p) {
        for (Run r : p.runs) fields(*this, r);
        for (Circuit c : p.circuits) fields(*this, c);
        for (Board b : p.boards) fields(*this, b);
    }
};

/// Counts the fields of a thing, and enters one of them otherwise.
class Vary {
public:
    Vary(Random& random, const TextsKnown& known) : r(random), texts(known) {}
    template <class T> void thing(T& t) {
        at = 0, chosen = -1;
        fields(*this, t);
        chosen = r(at), at = 0;
        fields(*this, t);
    }
    template <class T> void operator()(const char* key, T& value) {
        if (std::string_view(key).starts_with("model")) return; // where it came from tells nothing of its circuits
        if (at++ == chosen) enter(key, value);
    }

private:
    Random& r;
    const TextsKnown& texts;
    int at = 0, chosen = -1;

    template <class T> void enter(const char*, T&) {} // ids, places, lists: as they are
    void enter(const char*, bool& v) { v = !v; }
    void enter(const char*, int& v) { v = v ? v + r(3) - 1 : 1 + r(3); }
    void enter(const char*, double& v) {
        static constexpr double usual[] = {0.05, 0.5, 0.8, 1,  2,  3,   5,   10,  16,  20,  30,  32,
                                           40,   50,  63,  70, 80, 100, 125, 160, 225, 400, 1000};
        static constexpr double times[] = {0, 0.5, 0.8, 1.25, 2, 5};
        if (v == 0)
            v = usual[r(int(std::size(usual)))];
        else
            v *= times[r(int(std::size(times)))];
    }
    void enter(const char* key, Metres& v) { enter(key, v.v); }
    template <WordedEnum E> void enter(const char*, E& v) {
        v = EnumText<E>::words[r(int(std::size(EnumText<E>::words)))].first;
    }
    template <class T> void enter(const char* key, std::optional<T>& v) {
        if (v && r(3) == 0) return v.reset();
        T value = v.value_or(T{});
        enter(key, value);
        v = value;
    }
    void enter(const char* key, std::string& v) {
        const auto known = texts.byKey.find(key);
        if (known != texts.byKey.end() && !known->second.empty())
            v = *std::next(known->second.begin(), r(int(known->second.size())));
    }
};

/// A board with circuits of every kind, a board below it, in North America now and then behind a transformer, and rows
/// of devices on the plan: small, so that much of it can be entered otherwise.
inline Project smallBoard(std::uint32_t seed) {
    Random r(seed);
    constexpr const char* books[] = {"nec-2023", "bs-7671", "iec-60364", "as-nzs-3000"};
    const bool metric = r(2);
    const std::string book = metric ? books[1 + r(3)] : books[0];
    constexpr VoltageSystem trade[] = {VoltageSystem::Y480, VoltageSystem::Y208, VoltageSystem::S240,
                                       VoltageSystem::D240H};
    const VoltageSystem system = metric ? VoltageSystem::Y400 : trade[r(4)];
    OneBoard w = metric ? OneBoard(MetricBoard(0.1 + 0.1 * r(5))) : OneBoard(system);
    w.p.basis.ruleBook = book;
    w.p.sources.change(w.source)->faultKA = 5 + 5 * r(6);
    const int lines = factsOf(system).lines;
    const auto fill = [&](BoardId board, int circuits) {
        w.board = board;
        for (int i = 0; i < circuits; ++i) {
            const int poles = 1 + r(lines);
            const LoadUnit unit = r(3) ? LoadUnit::VA : r(2) ? LoadUnit::A : metric ? LoadUnit::kW : LoadUnit::hp;
            constexpr double hp[] = {0.5, 1, 2, 5, 7.5, 10};
            const double amount = unit == LoadUnit::VA   ? 100.0 * (1 + r(60))
                                  : unit == LoadUnit::A  ? 1 + r(40)
                                  : unit == LoadUnit::kW ? 0.5 * (1 + r(12))
                                                         : hp[r(6)];
            if (!firstFreeSlot(w.p, board, poles)) return;
            const CircuitId c =
                w.circuit(amount, unit, poles, 10 * (1 + r(30)),
                          unit == LoadUnit::hp ? LoadKind::Motor : LoadKind(r(loadKinds)), r(2), 0.7 + 0.05 * r(7));
            if (r(4) == 0) w.p.circuits.change(c)->bundle = 1 + r(2);
            if (r(4) == 0 && poles == 1) w.p.circuits.change(c)->multiwire = 1;
        }
    };
    fill(w.board, 9);
    const BoardId first = w.board;
    Board sub;
    sub.name = "B-2", sub.bus = sub.main = 100, sub.ratingKA = 10, sub.system = system, sub.slots = 24;
    Ref from = first;
    if (system == VoltageSystem::Y480 && r(2)) {
        Transformer t;
        t.name = "T-1", t.kva = 15 * (1 + r(4)), t.secondary = VoltageSystem::Y208;
        const TransformerId id = w.p.transformers.add(t);
        feedFrom(w.p, id, first);
        from = id, sub.system = VoltageSystem::Y208;
    }
    const BoardId second = addBoard(w.p, sub);
    feedFrom(w.p, second, from);
    for (Ref fed : {Ref(second), from})
        if (fed != Ref(first)) {
            Run& run = runOfNode(w.p, fed);
            run.lengthBy = LengthBy::Entered, run.length = 5 * (1 + r(12));
        }
    fill(second, 6);
    // Two rows of luminaires, one of them with a listed load on its circuit as well.
    DeviceType y;
    y.name = "Luminaire", y.kind = LoadKind::Lighting, y.load = 40 * r(6), y.height = 2.4;
    const DeviceTypeId type = w.p.deviceTypes.add(y);
    const LevelId level = w.p.levels.begin()->id;
    w.p.boards.change(first)->level = level;
    w.p.boards.change(first)->onPlan = true;
    for (int row = 0; row < 2; ++row) {
        const CircuitId c = row ? w.p.circuits.begin()->id : addCircuit(w.p, first, 1, "Row");
        for (int i = 0; i < 3 + r(4); ++i) {
            Device d;
            d.type = type, d.level = level, d.at = {2.0 + 3 * i, 3.0 * row}, d.circuit = c;
            w.p.devices.add(d);
        }
        runOf(w.p, c).lengthBy = r(2) ? LengthBy::Chain : LengthBy::Reach;
    }
    return w.p;
}

/// A small board, and of what can stand in its feed and hang below it something each: an alternate source, what passes
/// on, a busway, a board on another voltage, loads without a circuit, rooms of a dwelling with their outlets, rings and
/// sections in metric practice, runs as a list gives them.
inline Project smallDistribution(std::uint32_t seed) {
    Project p = smallBoard(seed);
    Random r(seed + 7919);
    const bool metric = p.basis.units == UnitSystem::Metric;
    const SourceId source = p.sources.begin()->id;
    const BoardId first = p.boards.begin()->id;
    const BoardId second = std::next(p.boards.begin(), std::ptrdiff_t(p.boards.size()) - 1)->id;
    if (r(3) == 0) {
        Source& s = *p.sources.change(source);
        s.kind = r(2) ? SourceKind::UtilityTransformer : SourceKind::ExistingBoard;
        s.kva = 100 * (1 + r(10)), s.percentZ = 2 + r(5), s.utilityMVA = r(2) ? 0 : 250;
    }
    if (r(2)) {
        addGenerator(p, r(2) ? first : second, 25 * (1 + r(8)));
        if (r(2) && p.boards[first].alternate) protectAlternate(p, first, 100);
    }
    constexpr BoardUse passing[] = {BoardUse::Ups, BoardUse::Disconnect, BoardUse::Meter, BoardUse::TransferSwitch};
    if (r(2)) {
        const BoardId put = insertInFeed(p, r(2) ? first : second, passing[r(4)]);
        p.boards.change(put)->kva = r(3) * 20, p.boards.change(put)->kw = r(3) * 15;
    }
    if (r(3) == 0 && !refuseBelow(p, first, NewBelow::Busway)) {
        const BoardId bars = addBelow(p, first, NewBelow::Busway).as<Board>();
        Board& b = *p.boards.change(bars);
        b.barLength = 20, b.barR = 0.3, b.barX = 0.2, b.bus = 250;
        for (int i = 0; i < 3; ++i) {
            const CircuitId c = addCircuit(p, bars, std::min(3, factsOf(b.system).lines), "Tap");
            p.circuits.change(c)->along = 6.0 * (1 + i);
            Load l;
            l.circuit = c, l.amount = 2 + r(20), l.unit = LoadUnit::kVA, l.poles = p.circuits[c].poles;
            p.loads.add(l);
        }
    }
    if (r(3) == 0) { // fed from where its voltage is not
        Board b = p.boards[second];
        b.id = {}, b.feed = {}, b.run = {}, b.name = "B-9",
        b.system = metric ? VoltageSystem::Y415 : VoltageSystem::Y600;
        const BoardId odd = addBoard(p, b);
        if (r(2)) p.boards.change(odd)->feed = source;
    }
    for (int i = 0; i < r(4); ++i) {
        Load l;
        l.tag = "L-" + std::to_string(i), l.name = "Pump", l.amount = 1 + r(9), l.unit = LoadUnit::kW,
        l.poles = 1 + 2 * r(2);
        l.volts = r(2) ? 0 : metric ? 400 : 480, l.kind = LoadKind::Motor;
        if (r(2)) l.board = first;
        if (r(3) == 0) l.nameplate = {10.0 + r(20), 15.0 + r(30)};
        p.loads.add(l);
    }
    int marked = 0;
    const Project as = p; // while its things are changed
    for (const Load& l : as.loads)
        if (r(6) == 0 && ++marked < 3) p.loads.change(l.id)->nameplate = {5.0 + r(30), 10.0 + r(40)};
    if (r(2)) {
        p.basis.occupancy = r(2) ? Occupancy::Dwelling : p.basis.occupancy;
        const LevelId level = p.levels.begin()->id;
        constexpr const char* kinds[] = {"bathroom", "kitchen", "bedroom", "office"};
        DeviceType outlet;
        outlet.name = "Outlet", outlet.load = 180;
        const DeviceTypeId type = p.deviceTypes.add(outlet);
        for (int i = 0; i < 2; ++i) {
            const double x = 30.0 + 8 * i;
            p.rooms.add({{},
                         level,
                         std::to_string(i + 1),
                         "Room",
                         kinds[r(4)],
                         {{x, 0}, {x + 6, 0}, {x + 6, 5}, {x, 5}},
                         {},
                         0,
                         0,
                         {},
                         {}});
            const CircuitId c = firstFreeSlot(p, first, 1) ? addCircuit(p, first, 1, "Outlets") : CircuitId{};
            for (int k = 0; k < 1 + r(4); ++k) {
                Device d;
                d.type = type, d.level = level, d.at = {x + 1 + 1.5 * k, 0.05}, d.circuit = c;
                p.devices.add(d);
            }
            if (c && metric && r(2)) p.circuits.change(c)->ring = true;
        }
    }
    if (metric && r(2)) {
        Section s;
        s.board = first, s.name = "A", s.from = 1, s.to = 9, s.rating = 40, s.residual = 10.0 * (1 + r(10));
        p.sections.add(s);
    }
    const Project made = p;
    for (const Circuit& c : made.circuits) {
        if (r(8) == 0) p.circuits.change(c.id)->heldBreaker = metric ? 16 : 20;
        if (c.run && r(8) == 0) {
            Run& run = *p.runs.change(c.run);
            run.listedVA = 100.0 * r(80), run.listedKA = r(10);
        }
    }
    return validate(p) ? smallBoard(seed) : p;
}

/// So many facts of it entered otherwise; what the model refuses is left as it was.
inline Project varied(Project p, std::uint32_t seed, int times, const TextsKnown& texts) {
    Random r(seed);
    Vary vary(r, texts);
    const auto one = [&](auto& table) {
        if (table.size() == 0) return;
        const auto before = p;
        const auto id = std::next(table.begin(), r(int(table.size())))->id;
        vary.thing(*table.change(id));
        if (!table.has(id) || table[id].id != id || validate(p)) p = before;
    };
    for (int i = 0; i < times; ++i) switch (r(16)) {
        case 0:
        case 1:
        case 2:
            one(p.circuits);
            break;
        case 3:
        case 4:
        case 5:
        case 6:
            one(p.runs);
            break;
        case 7:
        case 8:
            one(p.loads);
            break;
        case 9:
        case 10:
        case 11:
            one(p.boards);
            break;
        case 12:
            one(p.transformers);
            break;
        case 13:
            one(p.sources);
            break;
        case 14:
            one(p.deviceTypes);
            break;
        default: {
            const auto before = p;
            vary.thing(p.basis);
            if (p.basis.ruleBook != before.basis.ruleBook || validate(p)) p = before;
        }
        }
    return p;
}

} // namespace lintel
