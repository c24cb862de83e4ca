#pragma once
// A floor with two rooms and a corridor, for tests of the plan: walls 0.2 m thick drawn on their middles.
//
//      0        6        12
//    0 ┌────────┬─────────┐
//      │ store  │ kitchen │     doors in the walls to the corridor below
//    4 ├──▯─────┼────▯────┤
//      │ corridor         │
//    6 └──────────────────┘

#include "tests/World.h"

namespace lintel {

struct Floor {
    Project p;
    LevelId level;
    WallId storeSouth, kitchenSouth;
    Floor() {
        level = p.levels.add({{}, "Ground", 0, 3, {}});
        const auto wall = [&](Point a, Point b) {
            Wall w;
            w.level = level, w.a = a, w.b = b, w.thickness = 0.2;
            return p.walls.add(w);
        };
        wall({0, 0}, {12, 0}), wall({12, 0}, {12, 6}), wall({12, 6}, {0, 6}), wall({0, 6}, {0, 0});
        storeSouth = wall({0, 4}, {6, 4}), kitchenSouth = wall({6, 4}, {12, 4}), wall({6, 0}, {6, 4});
        door(storeSouth, 2), door(kitchenSouth, 4);
    }
    OpeningId door(WallId w, double along, double width = 0.9) {
        Opening o;
        o.wall = w, o.along = along, o.width = width;
        return p.openings.add(o);
    }
    DeviceTypeId type(const std::string& name, Symbol symbol, LoadKind kind, double load, bool onWall, int poles = 1) {
        DeviceType y;
        y.name = name, y.symbol = symbol, y.kind = kind, y.load = load, y.onWall = onWall, y.poles = poles;
        return p.deviceTypes.add(y);
    }
    RoomId room(const std::string& kind, Point a, Point b) {
        Room r;
        r.level = level, r.kind = r.name = kind, r.outline = {a, {b.x, a.y}, b, {a.x, b.y}};
        return p.rooms.add(r);
    }
    BoardId board(const std::string& name, Point at, int slots = 42, BoardUse use = BoardUse::Panelboard) {
        Board b;
        b.name = name, b.level = level, b.at = at, b.slots = slots, b.use = use, b.bus = 225;
        return addBoard(p, b);
    }
    DeviceId device(DeviceTypeId type, Point at) {
        Device d;
        d.type = type, d.level = level, d.at = at;
        return p.devices.add(d);
    }
    int count(DeviceTypeId type) const {
        int n = 0;
        for (const Device& d : p.devices) n += d.type == type;
        return n;
    }
};

} // namespace lintel
