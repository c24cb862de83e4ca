#pragma once
// A building of 500 boards and 21 000 circuits, made up, for measuring.

#include "core/project/Operations.h"

namespace lintel {

/// 20 switchboards at 480Y/277 from one source, each with 24 transformers' worth of 208Y/120 boards of 42 circuits.
inline Project bigBuilding(int boards, int circuitsEach) {
    Project p;
    const LevelId level = p.levels.add({{}, "Ground floor", 0, 4, {}});
    Source s;
    s.name = "Utility";
    s.faultKA = 65;
    s.level = level;
    const SourceId source = p.sources.add(s);
    std::vector<BoardId> mains;
    std::uint32_t seed = 7;
    const auto random = [&](int n) { return int((seed = seed * 1664525u + 1013904223u) >> 16) % n; };
    const auto feeder = [&](BoardId from, int slot) {
        Circuit c;
        c.board = from, c.slot = slot, c.poles = 3;
        return p.circuits.add(c);
    };
    for (int b = 0; b < boards; ++b) {
        Board d;
        d.name = "B-" + std::to_string(b);
        d.level = level;
        d.at = {double(b % 25) * 8, double(b / 25) * 12};
        Run r;
        r.lengthBy = LengthBy::Entered;
        r.length = 20 + random(60);
        d.run = p.runs.add(r);
        if (b % 25 == 0) {
            d.system = VoltageSystem::Y480;
            d.bus = 4000, d.slots = 84, d.feed = source, d.ratingKA = 100;
            mains.push_back(p.boards.add(d));
            for (int i = 0; i < circuitsEach; ++i) {
                Circuit c;
                c.board = mains.back(), c.slot = 73 + i % 12;
                c.run = p.runs.add(r);
                const CircuitId id = p.circuits.add(c);
                Load l;
                l.circuit = id, l.amount = 1000 + random(2000), l.kind = LoadKind::Lighting, l.continuous = true;
                p.loads.add(l);
            }
            continue;
        }
        Transformer t;
        t.kva = 75, t.level = level, t.feed = feeder(mains.back(), 1 + 6 * ((b % 25 - 1) / 2) + (b % 25 - 1) % 2),
        t.run = p.runs.add(r);
        d.feed = p.transformers.add(t);
        d.main = 225;
        const BoardId id = p.boards.add(d);
        for (int i = 0; i < circuitsEach; ++i) {
            Circuit c;
            c.board = id, c.slot = i + 1, c.name = "Receptacles";
            Run run;
            run.lengthBy = LengthBy::Entered;
            run.length = 5 + random(50);
            run.sharing = random(3) * 2;
            c.run = p.runs.add(run);
            const CircuitId cid = p.circuits.add(c);
            Load l;
            l.circuit = cid, l.amount = 180 * (1 + random(8)),
            l.kind = i % 3 ? LoadKind::Receptacle : LoadKind::Lighting, l.continuous = i % 3 == 0;
            p.loads.add(l);
        }
    }
    return p;
}
} // namespace lintel
