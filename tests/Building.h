#pragma once
// Buildings made at random, the same for the same seed: for what must hold in every one.

#include "tests/World.h"

namespace lintel {

struct Random {
    std::uint32_t state;
    explicit Random(std::uint32_t seed) : state(seed * 2654435761u + 1) {}
    /// 0 … n−1.
    int operator()(int n) { return int((state = state * 1664525u + 1013904223u) >> 12) % n; }
    double between(double lo, double hi) { return lo + (hi - lo) * (*this)(10000) / 9999.0; }
};

/// A source, a switchboard, panelboards and transformers on up to four floors, loads of all kinds.
inline Project randomBuilding(std::uint32_t seed, int boards) {
    Random r(seed);
    Project p;
    std::vector<LevelId> levels;
    for (int i = 0; i < 1 + r(4); ++i)
        levels.push_back(p.levels.add({{}, "Level " + std::to_string(i), i * 4.0, 3.5, {}}));
    Source s;
    s.name = "Utility", s.faultKA = 20 + r(40), s.level = levels[0];
    const SourceId source = p.sources.add(s);
    std::vector<BoardId> made;
    for (int i = 0; i < boards; ++i) {
        Board b;
        b.level = levels[std::size_t(r(int(levels.size())))];
        b.at = {r.between(0, 60), r.between(0, 40)};
        b.slots = 42;
        b.bus = b.main = 400;
        b.ratingKA = 65;
        Ref from = source;
        b.system = VoltageSystem::Y480;
        if (i > 0) {
            const BoardId above = made[std::size_t(r(int(made.size())))];
            from = above;
            b.system = p.boards[above].system;
            if (!firstFreeSlot(p, above, 3)) continue;
            if (b.system == VoltageSystem::Y480 && r(3) == 0) {
                Transformer t;
                t.name = "T-" + std::to_string(i);
                t.kva = 75, t.level = b.level, t.at = b.at + Point{1, 0};
                const TransformerId id = p.transformers.add(t);
                feedFrom(p, id, above);
                from = id;
                b.system = VoltageSystem::Y208;
            }
        }
        b.name = "B-" + std::to_string(i);
        const BoardId id = addBoard(p, b);
        feedFrom(p, id, from);
        made.push_back(id);
        for (int k = 0; k < r(8); ++k) {
            const int poles = 1 + r(3);
            const CircuitId c = addCircuit(p, id, poles, "load " + std::to_string(k));
            if (p.circuits[c].slot == 0) {
                removeCircuit(p, c);
                continue;
            }
            Load l;
            l.circuit = c, l.poles = poles, l.amount = 200 + r(6000), l.kind = LoadKind(r(loadKinds)),
            l.continuous = r(2), l.powerFactor = r.between(0.7, 1);
            p.loads.add(l);
            Run& run = runOf(p, c);
            run.lengthBy = LengthBy::Entered;
            run.length = r.between(2, 60);
        }
    }
    return p;
}

/// A tower as they are built: a switchboard below, on each floor a 480 V panelboard from it, a transformer, and boards
/// at 208 V.
inline Project tower(int floors, int boardsOnFloor) {
    Project p;
    Source s;
    s.name = "Utility";
    s.faultKA = 40;
    std::vector<LevelId> levels;
    for (int i = 0; i < floors; ++i)
        levels.push_back(p.levels.add({{}, "Level " + std::to_string(i + 1), i * 4.0, 3.5, {}}));
    s.level = levels.front();
    const auto board = [&](const std::string& name, VoltageSystem system, double bus, LevelId level, Ref from) {
        Board b;
        b.name = name;
        b.system = system;
        b.bus = bus;
        b.ratingKA = 65;
        b.slots = 84;
        b.level = level;
        const BoardId id = addBoard(p, b);
        feedFrom(p, id, from);
        return id;
    };
    const BoardId main = board("MSB", VoltageSystem::Y480, 3000, levels.front(), p.sources.add(s));
    for (int i = 0; i < floors; ++i) {
        const std::string n = std::to_string(i + 1);
        const BoardId high = board("HP-" + n, VoltageSystem::Y480, 400, levels[std::size_t(i)], main);
        Transformer t;
        t.name = "T-" + n;
        t.level = levels[std::size_t(i)];
        const TransformerId transformer = p.transformers.add(t);
        feedFrom(p, transformer, high);
        BoardId first;
        for (int k = 1; k < boardsOnFloor; ++k) {
            const BoardId low = board("LP-" + n + char('A' + k - 1), VoltageSystem::Y208, 225, levels[std::size_t(i)],
                                      first ? Ref(first) : Ref(transformer));
            if (!first) first = low;
        }
    }
    return p;
}

/// Puts equipment into feeds of a building at random, and lets generators and boards take over from some of it.
inline void equip(Project& p, std::uint32_t seed) {
    Random r(seed * 7919 + 1);
    std::vector<Ref> nodes;
    for (const Board& b : p.boards) nodes.push_back(b.id);
    for (const Transformer& t : p.transformers) nodes.push_back(t.id);
    for (Ref node : nodes) {
        if (r(3) != 0) continue;
        constexpr BoardUse kinds[] = {BoardUse::ServiceDisconnect, BoardUse::Meter, BoardUse::Disconnect,
                                      BoardUse::TransferSwitch,    BoardUse::Ups,   BoardUse::Busway};
        const BoardUse use = kinds[std::size_t(r(6))];
        const BoardId made = insertInFeed(p, node, use);
        if (r(2)) p.boards.change(made)->main = 100 + 100 * r(3);
        if (use == BoardUse::Ups) p.boards.change(made)->kva = 200;
        if (use == BoardUse::Ups && r(2)) p.boards.change(made)->efficiency = 0.94;
        if (use == BoardUse::Busway && r(3)) {
            Board& bars = *p.boards.change(made);
            bars.barLength = r.between(10, 80);
            bars.barR20 = 0.08, bars.barR = 0.1, bars.barX = 0.04, bars.barLoopR20 = 0.2, bars.barLoopX = 0.08;
            const double along = r.between(0, bars.barLength);
            if (const CircuitId tap = feedOf(p, node).as<Circuit>(); tap && r(3)) p.circuits.change(tap)->along = along;
        }
        if (use != BoardUse::TransferSwitch || r(5) == 0) continue;
        if (r(2)) {
            Source g;
            g.name = "G-" + std::to_string(p.sources.size()), g.kind = SourceKind::Generator, g.kva = 300;
            g.system = p.boards[made].system, g.level = p.boards[made].level;
            const SourceId id = p.sources.add(g);
            if (!refuseAlternate(p, made, id)) alternateFrom(p, made, id);
            continue;
        }
        std::vector<BoardId> others;
        for (const Board& b : p.boards)
            if (!refuseAlternate(p, made, b.id)) others.push_back(b.id);
        if (!others.empty()) alternateFrom(p, made, others[std::size_t(r(int(others.size())))]);
    }
}

} // namespace lintel
