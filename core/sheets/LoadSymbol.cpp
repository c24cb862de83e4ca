#include "core/sheets/LoadSymbol.h"

namespace lintel {
namespace {

constexpr double pen = 0.35, size = 5;

void drawCapacitor(Drawing& d, Point at, Ink ink) {
    constexpr double half = 2.2, gap = 0.6;
    d.fill(at.x - half, at.y - gap, 2 * half, 2 * gap, Ink::Paper);
    d.line({at.x - half, at.y - gap}, {at.x + half, at.y - gap}, pen * 1.6, ink);
    d.line({at.x - half, at.y + gap}, {at.x + half, at.y + gap}, pen * 1.6, ink);
    d.line({at.x, at.y + gap}, {at.x, at.y + 3}, pen, ink);
}

} // namespace

void drawLoadSymbol(Drawing& d, LoadKind kind, Point at, Ink ink) {
    d.line({at.x, at.y - 3}, {at.x, at.y}, pen, ink);
    switch (kind) {
    case LoadKind::Capacitor:
        return drawCapacitor(d, at, ink);
    case LoadKind::Lighting:
    case LoadKind::OutdoorLighting:
        return drawSymbol(d, Symbol::Downlight, at, 45, ink, size);
    case LoadKind::Receptacle:
    case LoadKind::LargeOutlet:
    case LoadKind::DwellingGeneral:
        return drawSymbol(d, Symbol::Receptacle, at, 0, ink, size);
    case LoadKind::Motor:
    case LoadKind::Vertical:
    case LoadKind::Cooling:
    case LoadKind::Refrigeration:
        return drawSymbol(d, Symbol::Motor, at, 0, ink, size);
    case LoadKind::Heating:
    case LoadKind::Kitchen:
    case LoadKind::Range:
    case LoadKind::Dryer:
    case LoadKind::WaterHeating:
    case LoadKind::InstantWater:
        return drawSymbol(d, Symbol::Heater, at, 0, ink, size);
    default:
        return drawSymbol(d, Symbol::Equipment, at, 0, ink, size);
    }
}

} // namespace lintel
