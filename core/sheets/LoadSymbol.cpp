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

/// The sign of a kind, and how far above its middle it begins, mm: its line ends there.
struct Sign {
    Symbol symbol;
    double reach, turn = 0;
};
Sign signOf(LoadKind kind) {
    switch (kind) {
    case LoadKind::Lighting:
    case LoadKind::OutdoorLighting:
        return {Symbol::Downlight, 0.7 * size / 2, 45};
    case LoadKind::Receptacle:
    case LoadKind::LargeOutlet:
    case LoadKind::DwellingGeneral:
        return {Symbol::Receptacle, 0.82 * size / 2};
    case LoadKind::Motor:
    case LoadKind::Vertical:
    case LoadKind::Cooling:
    case LoadKind::Refrigeration:
        return {Symbol::Motor, size / 2};
    case LoadKind::Heating:
    case LoadKind::Kitchen:
    case LoadKind::Range:
    case LoadKind::Dryer:
    case LoadKind::WaterHeating:
    case LoadKind::InstantWater:
        return {Symbol::Heater, 0.6 * size / 2};
    default:
        return {Symbol::Equipment, 0.95 * size / 2};
    }
}

} // namespace

void drawLoadSymbol(Drawing& d, LoadKind kind, Point at, Ink ink) {
    constexpr double above = 3;
    if (kind == LoadKind::Capacitor) {
        d.line({at.x, at.y - above}, {at.x, at.y - 0.6}, pen, ink);
        return drawCapacitor(d, at, ink);
    }
    const Sign sign = signOf(kind);
    d.line({at.x, at.y - above}, {at.x, at.y - sign.reach}, pen, ink);
    drawSymbol(d, sign.symbol, at, sign.turn, ink, size);
}

} // namespace lintel
