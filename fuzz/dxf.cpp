// An architect's drawing, and the rooms and sheets that come of it.
#include "core/base/Utf8.h"
#include "core/plan/FindRooms.h"
#include "core/plan/Underlay.h"
#include "fuzz/GoOn.h"

#include <sstream>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    std::istringstream in(fuzz::textOf(data, size));
    auto drawing = readDxf(in, double(size), "fuzz.dxf");
    if (!drawing) return 0;
    for (const auto& t : drawing->texts)
        if (!isUtf8(t.words)) fuzz::broken("a text of a drawing is not UTF-8");
    UnderlayContent content;
    content.drawing = std::move(*drawing);
    Project p;
    Level level;
    level.name = "Ground";
    const LevelId ground = p.levels.add(level);
    Underlay u;
    u.level = ground;
    u.file = "fuzz.dxf";
    u.id = p.underlays.add(u);
    (void)linesOf(u, content);
    (void)textsOf(u, content);
    (void)differenceOf(content.drawing, content.drawing);
    if (content.drawing.outlines.size() < 200)
        for (std::size_t i = 0; i < std::min<std::size_t>(3, content.drawing.layers.size()); ++i)
            for (const Room& r : roomsFromUnderlay(p, p.underlays[u.id], content, content.drawing.layers[i].name).rooms)
                p.rooms.add(r);
    fuzz::goOn(p);
    return 0;
}
