// What the hand does in each mode of the plan: every one of these ends in one edit.

#include "app/frame/Counted.h"
#include "app/frame/Facts.h"
#include "app/frame/PaintKit.h"
#include "app/frame/PreviewCard.h"
#include "app/frame/UnderlayShelf.h"
#include "app/plan/PlanView.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/plan/ApplyRecipe.h"
#include "core/plan/Arrange.h"
#include "core/plan/AutoCircuit.h"
#include "core/plan/FindRooms.h"
#include "core/plan/KeyedNotes.h"
#include "core/project/AddBelow.h"
#include "core/project/FreshId.h"
#include "core/project/Operations.h"
#include "core/solve/PhaseLoads.h"

#include <QComboBox>
#include <QFrame>
#include <QKeyEvent>
#include <QLabel>

namespace lintel {

void PlanView::finishPath() {
    typed.clear();
    switch (doing) {
    case PlanMode::Walls:
        return finishWalls();
    case PlanMode::Rooms:
        return finishRoom();
    case PlanMode::Trays:
        return finishTray();
    case PlanMode::Catchments:
        return finishCatchment();
    case PlanMode::Trace:
        return finishTrace();
    default:
        corners.clear(), update();
    }
}

/// A length that was typed: the next corner lies so far towards the hand; or two points of the underlay are so far
/// apart.
bool PlanView::takeTyped() {
    const auto metres = metresFrom(typed, session.project().basis.units);
    if (!metres || *metres <= 0 || *metres > 5000) {
        session.say(tr("“%1” is not a length; type 12' 6\" or 3.8 m").arg(typed), true);
        return false;
    }
    typed.clear();
    if (doing == PlanMode::Underlay && hand == UnderlayHand::Scale && corners.size() > 1) {
        const UnderlayId id = handUnderlay;
        const Underlay* u = session.project().underlays.find(id);
        const auto content = u ? session.underlays().content(*u) : nullptr;
        const Point a = corners[0], b = corners[1];
        if (content)
            session.edit(tr("Scale underlay"),
                         [&](Project& p) { scaleByTwoPoints(*p.underlays.change(id), *content, a, b, *metres); });
        setUnderlayHand(UnderlayHand::None, {});
        return true;
    }
    const double now = distance(corners.back(), hover.at);
    if (now < 1e-6) return false;
    corners.push_back(corners.back() + (hover.at - corners.back()) * (*metres / now));
    update();
    return true;
}

void PlanView::finishWalls() {
    const std::vector<Point> line = corners;
    corners.clear();
    if (line.size() > 1)
        session.edit(line.size() > 2 ? tr("Draw %1 walls").arg(line.size() - 1) : tr("Draw wall"), [&](Project& p) {
            for (std::size_t i = 1; i < line.size(); ++i)
                if (distance(line[i - 1], line[i]) > 0.05) {
                    Wall w;
                    w.level = floor, w.a = line[i - 1], w.b = line[i];
                    p.walls.add(w);
                }
        });
    update();
}

void PlanView::finishRoom() {
    const std::vector<Point> outline = corners;
    corners.clear();
    update();
    if (outline.size() < 3 || areaOf(outline) < 0.2) {
        if (!outline.empty()) session.say(tr("A room needs three corners or more"), true);
        return;
    }
    RoomId made;
    session.edit(tr("Draw room"), [&](Project& p) {
        Room r;
        r.level = floor;
        r.outline = outline;
        r.name = "Room";
        r.number = freeRoomNumber(p);
        made = p.rooms.add(r);
    });
    session.select(made);
}

void PlanView::finishTray() {
    const std::vector<Point> path = corners;
    corners.clear();
    update();
    if (path.empty()) return;
    TrayId made;
    if (path.size() == 1) { // a riser to the level above, or below the topmost
        const Project& p = session.project();
        LevelId to;
        double best = 1e18;
        const double here = p.levels[floor].elevation;
        for (const Level& l : p.levels)
            if (l.id != floor) {
                const double d = l.elevation > here ? l.elevation - here : 1e6 + here - l.elevation;
                if (d < best) best = d, to = l.id;
            }
        if (!to) return session.say(tr("A riser needs another level to rise to: Project › Add level"), true);
        session.edit(tr("Set riser"), [&](Project& x) {
            Tray t;
            t.level = floor, t.path = path, t.riseTo = to;
            made = x.trays.add(t);
        });
    } else {
        session.edit(tr("Draw tray"), [&](Project& p) {
            Tray t;
            t.level = floor, t.path = path;
            t.height = std::max(2.0, p.levels[floor].height - p.basis.routeBelowCeiling);
            made = p.trays.add(t);
        });
    }
    session.select(made);
}

void PlanView::finishCatchment() {
    const std::vector<Point> outline = corners;
    corners.clear();
    update();
    if (outline.size() < 3 || areaOf(outline) < 1) {
        if (!outline.empty()) session.say(tr("A catchment needs three corners or more"), true);
        return;
    }
    CatchmentId made;
    session.edit(tr("Draw catchment"), [&](Project& p) {
        Catchment k;
        k.level = floor;
        k.outline = outline;
        k.name = "Catchment " + std::to_string(p.catchments.size() + 1);
        for (const Board& b : p.boards) // the boards that stand in it serve it, until the matrix says otherwise
            if (b.standsOn(floor) && !passesOn(b.use) && contains(outline, b.at)) k.boards.push_back({b.id, {}, false});
        made = p.catchments.add(k);
    });
    session.select(made);
}

void PlanView::finishTrace() {
    const std::vector<Point> way = corners;
    corners.clear();
    update();
    const Ref r = session.selection();
    Ref what;
    if (const Device* d = session.project().devices.find(r.as<Device>()); d && d->circuit)
        what = d->circuit;
    else if (r.is<Circuit>() || r.is<Board>() || r.is<Transformer>())
        what = r;
    if (!what)
        return session.say(tr("Choose the circuit, board or transformer whose run this is, then trace it"), true);
    if (way.size() < 2) return;
    session.edit(tr("Trace run of %1").arg(q(nameOf(session.project(), what))), [&](Project& p) {
        Run& run = runOf(p, what);
        run.trace = way;
        run.lengthBy = LengthBy::Traced;
    });
}

void PlanView::takeUnderlayPoint() {
    const UnderlayId id = handUnderlay;
    if (!session.project().underlays.has(id)) return setUnderlayHand(UnderlayHand::None, {});
    if (corners.size() < 2) return;
    const Point a = corners[0], b = corners[1];
    switch (hand) {
    case UnderlayHand::Move:
        session.edit(tr("Move underlay"),
                     [&](Project& p) { p.underlays.change(id)->origin = p.underlays[id].origin + (b - a); });
        break;
    case UnderlayHand::Square:
        session.edit(tr("Square underlay"), [&](Project& p) {
            Underlay& u = *p.underlays.change(id);
            if (const auto c = session.underlays().content(u); c && u.scale <= 0) u.scale = metresPerUnit(u, *c);
            squareUp(u, a, b);
        });
        break;
    case UnderlayHand::Crop:
        session.edit(tr("Crop underlay"), [&](Project& p) { p.underlays.change(id)->crop = {a, b}; });
        break;
    case UnderlayHand::Scale:
        return; // the length is typed next
    case UnderlayHand::None:
        break;
    }
    setUnderlayHand(UnderlayHand::None, {});
}

void PlanView::placeDevices(const std::vector<SnapResult>& spots) {
    const DeviceType* y = session.project().deviceTypes.find(placing.type);
    if (!y) return session.say(tr("Choose what to place from the list on the left"), true);
    if (spots.empty()) return session.say(tr("There is no place for it here"), true);
    std::vector<Ref> made;
    const QString label = spots.size() > 1 ? tr("Place %1 %2").arg(spots.size()).arg(q(y->name).toLower())
                                           : tr("Place %1").arg(q(y->name).toLower());
    session.edit(label, [&](Project& p) {
        for (const SnapResult& s : spots) {
            Device d;
            d.type = placing.type, d.level = floor, d.at = s.at, d.turn = s.turn;
            made.push_back(p.devices.add(d));
        }
    });
    session.select(made);
}

void PlanView::placeOne() {
    Ref made;
    const Project& now = session.project();
    const auto spot = [](Point at, double turn) {
        SnapResult s;
        s.at = at, s.turn = turn;
        return s;
    };
    switch (placing.what) {
    case Placing::Device: {
        std::vector<SnapResult> spots;
        if (placeHow == PlaceHow::Single) {
            spots.push_back(hover);
        } else if (placeHow == PlaceHow::Row) {
            corners.push_back(hover.at);
            if (corners.size() < 2) return;
            for (Point at : rowSpots(corners[0], corners[1], spacing)) spots.push_back(spot(at, hover.turn));
            corners.clear();
        } else if (placeHow == PlaceHow::Wall) {
            const Wall* w = now.walls.find(hover.wall);
            if (!w) return session.say(tr("Click on a wall"), true);
            // Along the side that the hand is on, at even steps, doors and windows left free.
            const Point u = (w->b - w->a) * (1 / distance(w->a, w->b));
            const Point off = hover.at - nearestOnSegment(hover.at, w->a, w->b);
            const double length = distance(w->a, w->b);
            const int n = std::max(1, int(std::ceil(length / spacing - 1e-9)));
            for (int i = 0; i < n; ++i) {
                const double s = (i + 0.5) * length / n;
                if (std::any_of(now.openings.begin(), now.openings.end(), [&](const Opening& o) {
                        return o.wall == w->id && std::abs(o.along - s) < o.width / 2 + 0.1;
                    }))
                    continue;
                spots.push_back(spot(w->a + u * s + off, hover.turn));
            }
        } else {
            const RoomId room = roomAt(now, floor, hover.at);
            if (!room) return session.say(tr("Click in a room: the grid fills it"), true);
            RecipePart part;
            part.type = placing.type;
            part.by = placeHow == PlaceHow::Grid          ? RecipeBy::GridCount
                      : placeHow == PlaceHow::GridSpacing ? RecipeBy::GridSpacing
                      : placeHow == PlaceHow::GridLux     ? RecipeBy::GridLux
                                                          : RecipeBy::GridLoad;
            part.rows = gridRows, part.columns = gridColumns;
            part.value = placeHow == PlaceHow::GridSpacing ? spacing : target;
            std::vector<std::string> notes;
            if (now.deviceTypes.has(placing.type))
                for (const Spot& s : spotsFor(now, now.rooms[room], part, &notes)) spots.push_back(spot(s.at, s.turn));
            if (!notes.empty()) return session.say(q(notes.front()), true);
        }
        return placeDevices(spots);
    }
    case Placing::Opening: {
        const Wall* w = now.walls.find(hover.wall);
        if (!w) return session.say(tr("A %1 stands in a wall: click on one").arg(wordOf(placing.opening)), true);
        session.edit(tr("Place %1").arg(wordOf(placing.opening)), [&](Project& p) {
            Opening o;
            o.kind = placing.opening, o.wall = w->id;
            o.along = distance(w->a, nearestOnSegment(hover.at, w->a, w->b));
            o.width = placing.opening == OpeningKind::DoubleDoor ? 1.8
                      : placing.opening == OpeningKind::Window   ? 1.2
                                                                 : 0.9;
            o.otherSide = dot(hover.at - w->a, Point{-(w->b.y - w->a.y), w->b.x - w->a.x}) < 0;
            made = p.openings.add(o);
        });
        break;
    }
    case Placing::Furnishing:
        session.edit(tr("Place %1").arg(wordOf(placing.furnishing)), [&](Project& p) {
            Furnishing f;
            f.kind = placing.furnishing, f.level = floor, f.at = hover.at, f.turn = hover.turn;
            made = p.furnishings.add(f);
        });
        break;
    case Placing::Note: {
        std::optional<Error> refused;
        session.edit(tr("Place keyed note"), [&](Project& p) {
            KeyedNote note;
            note.level = floor, note.at = hover.at, note.text = placing.note;
            if (look.lighting != look.power) note.on = look.lighting ? NoteOn::Lighting : NoteOn::Power;
            const auto added = addKeyedNote(p, std::move(note));
            if (added)
                made = *added;
            else
                refused = added.error();
        });
        if (refused) return session.say(tr("Type what the note says in the field at the left, then click"), true);
        break;
    }
    case Placing::Board:
        if (const Board* b = now.boards.find(placing.standing.as<Board>())) {
            session.edit(tr("Place %1").arg(q(b->name)), [&, id = b->id](Project& p) {
                Board& x = *p.boards.change(id);
                x.level = floor, x.onPlan = true, x.at = hover.at, x.turn = hover.turn;
            });
            made = b->id;
            break;
        }
        session.edit(tr("Place board"), [&](Project& p) {
            Board b = newPanelboard(p, session.solution().book->trade.board.system);
            b.level = floor, b.at = hover.at, b.turn = hover.turn;
            made = addBoard(p, b);
        });
        break;
    case Placing::Transformer:
        if (const Transformer* t = now.transformers.find(placing.standing.as<Transformer>())) {
            session.edit(tr("Place %1").arg(q(t->name)), [&, id = t->id](Project& p) {
                Transformer& x = *p.transformers.change(id);
                x.level = floor, x.onPlan = true, x.at = hover.at;
            });
            made = t->id;
            break;
        }
        session.edit(tr("Place transformer"), [&](Project& p) {
            Transformer t;
            t.name = freeBoardName(p, "T-1");
            t.level = floor, t.at = hover.at;
            t.run = p.runs.add({});
            made = addFresh(p, &Project::transformers, t);
        });
        break;
    }
    if (placing.standing) placing.standing = {}, setMode(PlanMode::Select); // it is down, and there is only one of it
    session.select(made);
}

void PlanView::moveSelection(Point by, bool turn) {
    const auto list = session.selectionList();
    std::size_t n = 0;
    for (Ref r : list)
        n += r.is<Device>() || r.is<Board>() || r.is<Transformer>() || r.is<Furnishing>() || r.is<Tray>() ||
             r.is<Opening>() || r.is<Catchment>() || r.is<KeyedNote>();
    if (!n) return;
    session.edit(n > 1 ? tr("Move %1 things").arg(n) : tr("Move %1").arg(q(nameOf(session.project(), list.front()))),
                 [&](Project& p) {
                     for (Ref r : list) {
                         if (Device* d = p.devices.change(r.as<Device>())) {
                             d->at = d->at + by;
                             // One thing alone turns to the wall it comes to.
                             if (turn && n == 1 && p.deviceTypes[d->type].onWall)
                                 if (const SnapResult s = snapToWall(p, d->level, d->at, 0.6); s.onWall)
                                     d->at = s.at, d->turn = s.turn;
                         }
                         if (const Board* x = p.boards.find(r.as<Board>()); x && x->onPlan) {
                             Board* b = p.boards.change(x->id);
                             b->at = b->at + by;
                             if (turn && n == 1)
                                 if (const SnapResult s = snapToWall(p, b->level, b->at, 0.6); s.onWall)
                                     b->at = s.at, b->turn = s.turn;
                         }
                         if (const Transformer* t = p.transformers.find(r.as<Transformer>()); t && t->onPlan)
                             p.transformers.change(t->id)->at = t->at + by;
                         if (Furnishing* f = p.furnishings.change(r.as<Furnishing>())) f->at = f->at + by;
                         if (KeyedNote* k = p.keyedNotes.change(r.as<KeyedNote>())) k->at = k->at + by;
                         if (Tray* t = p.trays.change(r.as<Tray>()))
                             for (Point& q_ : t->path) q_ = q_ + by;
                         if (Catchment* k = p.catchments.change(r.as<Catchment>()))
                             for (Point& q_ : k->outline) q_ = q_ + by;
                         if (Opening* o = p.openings.change(r.as<Opening>())) { // along its wall
                             const Wall& w = p.walls[o->wall];
                             const double length = distance(w.a, w.b);
                             if (length > 0)
                                 o->along = std::clamp(o->along + dot(by, (w.b - w.a) * (1 / length)), 0.0, length);
                         }
                     }
                 });
}

/// All walls that end there go along, so that corners stay closed.
void PlanView::moveWallEnd(Point from, Point to) {
    session.edit(tr("Move end of wall"), [&](Project& p) {
        std::vector<WallId> walls;
        for (const Wall& w : p.walls)
            if (w.level == floor && (distance(w.a, from) < 0.01 || distance(w.b, from) < 0.01)) walls.push_back(w.id);
        for (WallId id : walls) {
            Wall& w = *p.walls.change(id);
            if (distance(w.a, from) < 0.01)
                w.a = to;
            else
                w.b = to;
        }
    });
}

void PlanView::deleteSelection() {
    const auto list = session.selectionList();
    if (list.empty()) return;
    const QString what = list.size() > 1 ? tr("Delete %1 things").arg(list.size())
                                         : tr("Delete %1").arg(q(nameOf(session.project(), list.front())));
    session.edit(what, [&](Project& p) {
        for (Ref r : list) removeFromPlan(p, r);
    });
}

void PlanView::copySelection() {
    clipboard = session.selectionList();
    std::erase_if(clipboard, [](Ref r) { return !r.is<Device>() && !r.is<Furnishing>(); });
    session.say(clipboard.empty() ? tr("Choose devices or furniture to copy")
                                  : tr("%1 things copied; Ctrl+V sets them down at the hand").arg(clipboard.size()),
                clipboard.empty());
}

void PlanView::pasteAtHand() {
    std::erase_if(clipboard, [&](Ref r) {
        return !session.project().devices.has(r.as<Device>()) && !session.project().furnishings.has(r.as<Furnishing>());
    });
    if (clipboard.empty()) return session.say(tr("Nothing has been copied"), true);
    std::vector<Ref> made;
    const Point at = toPlan(last);
    session.edit(tr("Paste %1").arg(counted(clipboard.size(), tr("thing"), tr("things"))), [&](Project& p) {
        const Point by = at - middleOf(p, clipboard);
        made = copyOnPlan(p, clipboard, {std::round(by.x / 0.05) * 0.05, std::round(by.y / 0.05) * 0.05}, floor);
    });
    session.select(made);
}

void PlanView::mirrorSelection(bool upright) {
    const auto list = session.selectionList();
    if (list.empty()) return session.say(tr("Choose what to mirror"), true);
    session.edit(tr("Mirror %1").arg(counted(list.size(), tr("thing"), tr("things"))),
                 [&](Project& p) { mirrorOnPlan(p, list, upright); });
}
void PlanView::turnSelection(double degrees) {
    const auto list = session.selectionList();
    if (list.empty()) return session.say(tr("Choose what to turn"), true);
    session.edit(tr("Turn %1").arg(counted(list.size(), tr("thing"), tr("things"))),
                 [&](Project& p) { turnOnPlan(p, list, degrees); });
}
void PlanView::arraySelection(int columns, int rows, double stepX, double stepY) {
    auto list = session.selectionList();
    std::erase_if(list, [](Ref r) { return !r.is<Device>() && !r.is<Furnishing>(); });
    if (list.empty()) return session.say(tr("Choose the devices or furniture to repeat"), true);
    if (columns * rows < 2 || columns * rows * int(list.size()) > 5000)
        return session.say(tr("An array has two places or more, and 5000 things at most"), true);
    std::vector<Ref> made;
    session.edit(tr("Array of %1 by %2").arg(columns).arg(rows),
                 [&](Project& p) { made = arrayOnPlan(p, list, columns, rows, stepX, stepY); });
    list.insert(list.end(), made.begin(), made.end());
    session.select(list);
}

// ---- larger steps, shown first ----

void PlanView::previewRooms() {
    std::vector<DxfDrawing::Text> texts;
    for (const Underlay& u : session.project().underlays)
        if (u.level == floor)
            if (const auto c = session.underlays().content(u)) {
                const auto more = textsOf(u, *c);
                texts.insert(texts.end(), more.begin(), more.end());
            }
    offerRooms(
        roomsFromWalls(session.project(), floor, texts), tr("Rooms from walls"),
        tr("No walls enclose an area on this level. Draw them (W), or take rooms from a layer of the underlay."));
}

void PlanView::previewRoomsFrom(UnderlayId id, const std::string& layer) {
    const Underlay* u = session.project().underlays.find(id);
    const auto content = u ? session.underlays().content(*u) : nullptr;
    if (!content) return session.say(tr("Link a drawing first (U)"), true);
    offerRooms(roomsFromUnderlay(session.project(), *u, *content, layer), tr("Rooms from “%1”").arg(q(layer)),
               tr("This layer has no closed outlines as large as a room."));
}

void PlanView::offerRooms(const FoundRooms& found, const QString& title, const QString& none) {
    if (found.rooms.empty())
        return previewing->show(
            title,
            found.offPlan ? tr("Its outlines lie more than 1000 km away: set the scale and place of the underlay.")
            : found.known ? (found.known == 1 ? tr("The one outline is a room already.")
                                              : tr("All %1 outlines are rooms already.").arg(found.known))
                          : none,
            {}, {});
    Project trial = session.project();
    QStringList names;
    for (const Room& r : found.rooms) trial.rooms.add(r), names << q(r.number + " " + r.name).toHtmlEscaped();
    showTrial(std::move(trial));
    QString known =
        found.known ? "; " + counted(found.known, tr("is there already"), tr("are there already")) : QString();
    if (found.leftOut)
        known += "; " + counted(found.leftOut, tr("long text inside is not taken as a name"),
                                tr("long texts inside are not taken as names"));
    if (found.offPlan)
        known += "; " + counted(found.offPlan, tr("outline lies more than 1000 km away"),
                                tr("outlines lie more than 1000 km away"));
    previewing->show(title,
                     tr("%1 would be made%2: %3")
                         .arg(counted(found.rooms.size(), tr("room"), tr("rooms")))
                         .arg(known, names.mid(0, 12).join(", ") + (names.size() > 12 ? " …" : "")),
                     tr("Make rooms  ↵"), [this, found] {
                         session.edit(tr("Make %1").arg(counted(found.rooms.size(), tr("room"), tr("rooms"))),
                                      [&](Project& p) {
                                          for (const Room& r : found.rooms) p.rooms.add(r);
                                      });
                     });
}

void PlanView::previewRecipes(const std::string& kind) {
    Project trial = session.project();
    const auto rooms = roomsOfKind(trial, kind);
    const RecipeReport r = applyRecipes(trial, rooms);
    QStringList words;
    words << tr("%1: %2 placed, %3 shifted, %4 removed")
                 .arg(counted(r.rooms, tr("room"), tr("rooms")))
                 .arg(r.placed)
                 .arg(r.shifted)
                 .arg(r.removed);
    if (r.kept)
        words << counted(r.kept, tr("that a hand has moved stays where it is"),
                         tr("that a hand has moved stay where they are"));
    if (r.without)
        words << counted(r.without, tr("room is of a kind without a recipe"),
                         tr("rooms are of a kind without a recipe"));
    for (std::size_t i = 0; i < std::min<std::size_t>(r.notes.size(), 5); ++i) words << q(r.notes[i]).toHtmlEscaped();
    if (r.notes.size() > 5) words << tr("and %1").arg(counted(r.notes.size() - 5, tr("more note"), tr("more notes")));
    const bool any = r.placed || r.shifted || r.removed;
    if (any) showTrial(std::move(trial));
    previewing->show(kind.empty() ? tr("All recipes") : tr("Recipe for %1").arg(q(kind)),
                     words.join("<br>") + (any ? QString() : tr("<br>Nothing would change.")), tr("Apply  ↵"),
                     any ? std::function<void()>([this, kind, rooms] {
                         session.edit(kind.empty() ? tr("Apply all recipes") : tr("Apply recipe for %1").arg(q(kind)),
                                      [&](Project& p) { applyRecipes(p, rooms); });
                     })
                         : std::function<void()>{});
}

void PlanView::previewCircuiting(bool propose) {
    Project trial = session.project();
    const auto book = session.solution().book;
    const LevelId level = floor;
    const CircuitingReport r = circuitAutomatically(trial, *book, {level}, propose);
    QStringList words;
    words << tr("%1 on %2%3")
                 .arg(counted(r.devices, tr("device"), tr("devices")),
                      counted(r.circuits, tr("circuit"), tr("circuits")),
                      r.remade ? tr(" (%1 automatic ones made anew)").arg(r.remade) : QString());
    QStringList shares;
    for (const auto& s : r.shares)
        shares << tr("%1: %2, %3 kVA")
                      .arg(q(trial.boards[s.board].name).toHtmlEscaped())
                      .arg(counted(s.circuits, tr("circuit"), tr("circuits")))
                      .arg(s.va / 1000, 0, 'f', 1);
    if (!shares.isEmpty()) words << shares.join("; ");
    for (BoardId b : r.boards)
        words << tr("proposed: %1, %2 slots, %3 A, not fed yet")
                     .arg(q(trial.boards[b].name).toHtmlEscaped())
                     .arg(trial.boards[b].slots)
                     .arg(trial.boards[b].bus);
    std::map<std::string, int> reasons;
    for (const auto& l : r.left) ++reasons[l.why];
    for (const auto& [why, n] : reasons)
        words << tr("<span style='color:%1'>%2 left: %3</span>")
                     .arg(theme().check.name())
                     .arg(n)
                     .arg(q(why).toHtmlEscaped());
    if (r.circuits) showTrial(trial);
    if (r.circuits == 0 && r.left.empty()) words = QStringList{tr("Every device on this level has a circuit.")};
    previewing->show(tr("Circuit this level"), words.join("<br>"), tr("Circuit  ↵"),
                     r.circuits || !r.boards.empty() ? std::function<void()>([this, book, level, propose] {
                         session.edit(tr("Circuit %1").arg(q(session.project().levels[level].name)),
                                      [&](Project& p) { (void)circuitAutomatically(p, *book, {level}, propose); });
                     })
                                                     : std::function<void()>{});
}

void PlanView::previewBundles(BoardId board, bool shareNeutrals) {
    if (!session.project().boards.has(board)) return session.say(tr("Choose a board, or one of its circuits"), true);
    Project trial = session.project();
    const int n = bundleHomeRuns(trial, board, 3, 3, shareNeutrals);
    const QString name = q(session.project().boards[board].name);
    if (n) showTrial(std::move(trial));
    previewing->show(
        tr("Home runs of %1").arg(name),
        n ? tr("%1 two or three home runs that begin near one another; their conductors are derated for it.")
                .arg(counted(n, tr("raceway would take"), tr("raceways would each take")))
          : tr("No home runs of %1 begin near one another.").arg(name.toHtmlEscaped()),
        tr("Bundle  ↵"),
        n ? std::function<void()>([this, board, name, shareNeutrals] {
            session.edit(tr("Bundle home runs of %1").arg(name),
                         [&](Project& p) { (void)bundleHomeRuns(p, board, 3, 3, shareNeutrals); });
        })
          : std::function<void()>{});
}

void PlanView::showCard() {
    if (caught.empty()) {
        card->hide();
        return;
    }
    const Project& p = session.project();
    int poles = 1;
    Point mid;
    for (DeviceId d : caught) {
        poles = std::max(poles, p.deviceTypes[p.devices[d].type].poles);
        mid = mid + p.devices[d].at * (1.0 / double(caught.size()));
    }
    // The nearest board that can take them; light loads of one pole to the lower voltage first.
    std::vector<const Board*> boards;
    for (const Board& b : p.boards)
        if (factsOf(b.system).lines >= poles && !passesOn(b.use)) boards.push_back(&b);
    const auto cost = [&](const Board* b) {
        return (b->level == floor ? 0 : 500) + (b->use == BoardUse::Switchboard ? 200 : 0) +
               (poles == 1 && voltsAcross(b->system, 1).v > 250 ? 150 : 0) + (b->onPlan ? orthogonal(b->at, mid) : 300);
    };
    std::stable_sort(boards.begin(), boards.end(), [&](const Board* x, const Board* y) { return cost(x) < cost(y); });
    {
        QSignalBlocker quiet(cardBoard);
        cardBoard->clear();
        for (const Board* b : boards) cardBoard->addItem(q(b->name), b->id.value);
    }
    if (boards.empty()) {
        session.say(tr("There is no board that takes %1 poles").arg(poles), true);
        card->hide();
        return;
    }
    Q_EMIT cardBoard->currentIndexChanged(0);
    card->adjustSize();
    QPointF at(last.x() - card->width() / 2.0, last.y() + 14);
    double bottom = 0, left = 1e9, right = 0;
    for (DeviceId d : caught) {
        const QPointF s = toScreen(p.devices[d].at);
        bottom = std::max(bottom, s.y()), left = std::min(left, s.x()), right = std::max(right, s.x());
    }
    at = QPointF((left + right) / 2 - card->width() / 2.0, bottom + 26);
    at.setX(std::clamp(at.x(), 8.0, std::max(8.0, width() - card->width() - 8.0)));
    at.setY(std::clamp(at.y(), 8.0, std::max(8.0, height() - card->height() - 8.0)));
    card->move(at.toPoint());
    card->show();
    card->raise();
    setFocus();
}

void PlanView::previewCard() {
    if (caught.empty()) return;
    const Solution& s = session.solution();
    Project trial = session.project();
    const BoardId board{cardBoard->currentData().toUInt()};
    const CircuitId existing{cardCircuit->currentData().toUInt()};
    if (existing == offCircuit) {
        int on = 0;
        for (DeviceId d : caught) on += trial.devices.has(d) && trial.devices[d].circuit;
        cardEffect->setText(counted(on, tr("device leaves its circuit and is unfed"),
                                    tr("devices leave their circuits and are unfed")));
        return card->adjustSize();
    }
    int leaving = 0;
    double va = 0;
    std::map<std::string, int> kinds;
    for (DeviceId d : caught) {
        const Device* x = trial.devices.find(d);
        if (!x) return card->hide();
        const DeviceType& y = trial.deviceTypes[x->type];
        if (x->circuit && x->circuit != existing) ++leaving;
        va += std::abs(powerOf(x->load.value_or(y.load), y.unit, y.powerFactor, trial.boards[board].system, y.poles,
                               *session.solution().book));
        ++kinds[y.name];
    }
    QStringList what;
    for (const auto& [name, n] : kinds)
        what << QString("%1 %2").arg(n).arg(n > 1 && name == "Receptacle" ? "receptacles"
                                                                          : q(name).toLower().toHtmlEscaped());
    cardWhat->setText(QString("<b>%1</b> · %2 VA%3")
                          .arg(what.join(", "), q(number(va)),
                               leaving ? tr(" · <span style='color:%1'>%2 leave another circuit</span>")
                                             .arg(theme().check.name())
                                             .arg(leaving)
                                       : QString()));
    CircuitId c = existing;
    if (existing)
        circuitDevices(trial, caught, existing);
    else
        c = circuitToBoard(trial, caught, board);
    const Results r = solve(trial, *s.book);
    const CircuitResult& cr = r.of(c);
    const RunResult& run = cr.run;
    QString text =
        tr("to %1 · %2 A · %3").arg(q(nameOf(trial, c)), q(number(cr.device)), q(conductorWords(run, *s.book)));
    if (run.need.lengthKnown)
        text += tr(" · run %1 · %2 own, %3 total")
                    .arg(q(lengthWords(run.need.length, trial.basis.units)), q(percent(run.dropOwn)),
                         q(dropWords(run.dropTotal, run.need.beforeKnown)));
    if (trial.circuits[c].slot == 0) text = tr("%1 has no free slot for it").arg(q(trial.boards[board].name));
    cardEffect->setText(text);
    card->adjustSize();
}

void PlanView::acceptCircuit() {
    if (caught.empty()) return;
    const BoardId board{cardBoard->currentData().toUInt()};
    CircuitId c{cardCircuit->currentData().toUInt()};
    const auto devices = caught;
    if (c == offCircuit) {
        session.edit(tr("Take %1 devices off their circuits").arg(devices.size()), [&](Project& p) {
            for (DeviceId d : devices) p.devices.change(d)->circuit = {};
        });
        caught.clear();
        card->hide();
        setFocus();
        return session.say(tr("%1 devices are on no circuit now").arg(devices.size()));
    }
    int left = 0;
    for (DeviceId d : devices)
        left += bool(session.project().devices[d].circuit) && session.project().devices[d].circuit != c;
    session.edit(devices.size() > 1 ? tr("Circuit %1 devices").arg(devices.size())
                                    : tr("Circuit %1").arg(q(nameOf(session.project(), Ref(devices.front())))),
                 [&](Project& p) {
                     if (c)
                         circuitDevices(p, devices, c);
                     else
                         c = circuitToBoard(p, devices, board);
                 });
    caught.clear();
    card->hide();
    session.say(
        left ? tr("Circuited to %1; %2 left the circuit they were on").arg(q(nameOf(session.project(), c))).arg(left)
             : tr("Circuited to %1").arg(q(nameOf(session.project(), c))));
    session.select(c);
    setFocus();
}

} // namespace lintel
