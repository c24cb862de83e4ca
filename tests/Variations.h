#pragma once
// A project with some of its facts entered otherwise, at random and the same for the same seed: values that the model
// takes, most of them round, as people enter them.

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
