// Facts of what only the plan has.

#include "app/frame/Counted.h"
#include "app/frame/FactsBuilder.h"
#include "core/base/Limits.h"
#include "core/base/TextFile.h"
#include "core/plan/FindRooms.h"
#include "core/plan/KeyedNotes.h"
#include "core/plan/LoadDensity.h"
#include "core/plan/TrayFill.h"
#include "core/plan/Underlay.h"
#include "core/sheets/Symbols.h"

#include <QApplication>
#include <QFileDialog>
#include <set>

namespace lintel {
namespace {

QString areaText(double squareMetres, UnitSystem units) {
    return units == UnitSystem::Imperial ? q(number(squareMetres / (metresPerFoot * metresPerFoot))) + " ft²"
                                         : q(number(squareMetres, 1)) + " m²";
}

void wall(FactsBuilder& b, const Wall& w) {
    const WallId id = w.id;
    b.f.title = QObject::tr("Wall");
    b.row(QObject::tr("Length"), q(lengthWords(Metres{distance(w.a, w.b)}, b.sol.project.basis.units)));
    b.length(QObject::tr("Thickness"), w.thickness, QObject::tr("Thickness of wall"), 0, 5,
             [id](Project& p, double v) { p.walls.change(id)->thickness = v; });
    // How far the middle of a curved wall stands out from the straight line: half the chord times the bulge.
    const double half = distance(w.a, w.b) / 2;
    b.number("m", QObject::tr("Bulge"),
             w.bulge == 0 ? QObject::tr("straight") : QObject::tr("%1 m out").arg(w.bulge * half, 0, 'f', 2),
             QString::number(w.bulge * half, 'f', 2), QObject::tr("Curve wall"), -half, half,
             [id, half](Project& p, double v) {
                 p.walls.change(id)->bulge = half > 0 ? std::clamp(v / half, -1.0, 1.0) : 0;
             });
    int openings = 0;
    for (const Opening& o : b.sol.project.openings) openings += o.wall == id;
    b.row(QObject::tr("Openings"), QString::number(openings));
}

void room(FactsBuilder& b, const Room& m) {
    const RoomId id = m.id;
    const Project& p = b.sol.project;
    b.f.title = q(m.name);
    b.f.about = q(m.number);
    b.text(QObject::tr("Name"), q(m.name), QObject::tr("Rename room"),
           [id](Project& x, const std::string& t) { x.rooms.change(id)->name = t; });
    b.text(QObject::tr("Number"), q(m.number), QObject::tr("Number room"),
           [id](Project& x, const std::string& t) { x.rooms.change(id)->number = t; });
    b.text(QObject::tr("Kind"), q(m.kind), QObject::tr("Kind of room"),
           [id](Project& x, const std::string& t) { x.rooms.change(id)->kind = t; });
    b.row(QObject::tr("Area"), areaText(areaOf(m.outline), p.basis.units));
    b.length(QObject::tr("Ceiling"), ceilingOf(p, m), QObject::tr("Ceiling height"), 0.3, 200,
             [id](Project& x, double v) { // the level's own height is not entered again
                 Room& r = *x.rooms.change(id);
                 r.ceiling.reset();
                 if (std::abs(ceilingOf(x, r) - v) > 0.002) r.ceiling = v;
             });
    b.length(QObject::tr("Ceiling grid"), m.gridX, QObject::tr("Ceiling grid"), 0, 10, [id](Project& x, double v) {
        Room& r = *x.rooms.change(id);
        r.gridX = r.gridY = v;
        r.gridFrom = r.outline.empty() ? Point{} : r.outline.front();
    });
    if (m.gridX <= 0) b.f.rows.back().value = QObject::tr("none");
    const LoadDensity d = densityOf(p, b.sol.results, m);
    b.row(QObject::tr("Devices"), QString::number(d.devices));
    b.row(QObject::tr("Load"), q(number(d.va)) + " VA");
    b.row(QObject::tr("Density"), q(densityWords(d, p.basis.units)));
}

void opening(FactsBuilder& b, const Opening& o) {
    const OpeningId id = o.id;
    b.f.title = QString(wordOf(o.kind));
    b.f.title[0] = b.f.title[0].toUpper();
    b.choice(QObject::tr("Kind"), wordOf(o.kind), FactsBuilder::words<OpeningKind>(), QObject::tr("Kind of opening"),
             [id](Project& p, const QString& t) {
                 p.openings.change(id)->kind = *fromWord<OpeningKind>(t.toStdString());
                 return QString();
             });
    b.length(QObject::tr("Width"), o.width, QObject::tr("Width of opening"), 0.05, 50,
             [id](Project& p, double v) { p.openings.change(id)->width = v; });
    b.length(QObject::tr("From wall's end"), o.along, QObject::tr("Place of opening"), 0, 1000,
             [id](Project& p, double v) { p.openings.change(id)->along = v; });
    b.yesNo(QObject::tr("Hinge at far end"), o.hingeAtEnd, QObject::tr("Hinge of door"),
            [id](Project& p, bool v) { p.openings.change(id)->hingeAtEnd = v; });
    b.yesNo(QObject::tr("Swings back"), o.otherSide, QObject::tr("Swing of door"),
            [id](Project& p, bool v) { p.openings.change(id)->otherSide = v; });
}

void keyedNote(FactsBuilder& b, const KeyedNote& n) {
    const KeyedNoteId id = n.id;
    b.f.title = QObject::tr("Keyed note %1").arg(n.number);
    FactRow& text = b.row(QObject::tr("Text"), q(n.text));
    text.entry = FactRow::Entry{q(n.text), {}, [s = &b.s, id](const QString& t) {
                                    return FactsBuilder::tried(*s, QObject::tr("Text of keyed note"), [&](Project& p) {
                                        return setNoteText(p, id, t.toStdString());
                                    });
                                }};
    FactRow& number = b.row(QObject::tr("Number"), QString::number(n.number));
    number.entry = FactRow::Entry{
        QString::number(n.number), {}, [s = &b.s, id](const QString& t) -> QString {
            const auto typed = typedNumber(t.toStdString());
            if (!typed || *typed < 1 || *typed > limits::noteNumber || *typed != std::floor(*typed))
                return QObject::tr("“%1” is not a whole number from 1 to %2").arg(t).arg(limits::noteNumber);
            return FactsBuilder::tried(*s, QObject::tr("Number of keyed note"),
                                       [&](Project& p) { return setNoteNumber(p, id, int(*typed)); });
        }};
    b.choice(QObject::tr("Stands on"), wordOf(n.on), FactsBuilder::words<NoteOn>(), QObject::tr("Plans of keyed note"),
             [id](Project& p, const QString& t) {
                 p.keyedNotes.change(id)->on = *fromWord<NoteOn>(t.toStdString());
                 return QString();
             });
    const auto all = keyedNotes(b.sol.project, n.level);
    const auto own = std::find_if(all.begin(), all.end(), [&](const NumberedNote& o) {
        return std::find(o.at.begin(), o.at.end(), id) != o.at.end();
    });
    if (own != all.end())
        b.row(QObject::tr("Points at"), counted(own->at.size(), QObject::tr("place"), QObject::tr("places")));
}

void furnishing(FactsBuilder& b, const Furnishing& x) {
    const FurnishingId id = x.id;
    const FurnishingSize usual = usualSize(x.kind);
    b.f.title = q(nameOf(b.sol.project, Ref(id)));
    b.f.title[0] = b.f.title[0].toUpper();
    b.text(QObject::tr("Name"), q(x.name), QObject::tr("Name furniture"),
           [id](Project& p, const std::string& t) { p.furnishings.change(id)->name = t; });
    b.choice(QObject::tr("Kind"), wordOf(x.kind), FactsBuilder::words<FurnishingKind>(),
             QObject::tr("Kind of furniture"), [id](Project& p, const QString& t) {
                 p.furnishings.change(id)->kind = *fromWord<FurnishingKind>(t.toStdString());
                 return QString();
             });
    b.length(QObject::tr("Width"), x.width > 0 ? x.width : usual.width, QObject::tr("Width of furniture"), 0.02, 100,
             [id](Project& p, double v) { p.furnishings.change(id)->width = v; });
    b.length(QObject::tr("Depth"), x.depth > 0 ? x.depth : usual.depth, QObject::tr("Depth of furniture"), 0.02, 100,
             [id](Project& p, double v) { p.furnishings.change(id)->depth = v; });
    b.number("°", QObject::tr("Turn"), QString("%1°").arg(x.turn), QString::number(x.turn),
             QObject::tr("Turn furniture"), -360, 360,
             [id](Project& p, double v) { p.furnishings.change(id)->turn = v; });
}

void underlay(FactsBuilder& b, const Underlay& u) {
    const UnderlayId id = u.id;
    b.f.title = q(nameOf(b.sol.project, Ref(id)));
    b.f.about = QObject::tr("underlay");
    b.text(QObject::tr("File"), q(u.file), QObject::tr("File of underlay"),
           [id](Project& p, const std::string& t) { p.underlays.change(id)->file = t; });
    b.number(
        "", QObject::tr("Metres a unit"), u.scale > 0 ? QString::number(u.scale) : QObject::tr("by its header"),
        u.scale > 0 ? QString::number(u.scale) : "auto", QObject::tr("Scale of underlay"), 1e-9, 1e6,
        [id](Project& p, double v) { p.underlays.change(id)->scale = v; },
        [id](Project& p) { p.underlays.change(id)->scale = 0; });
    b.number("°", QObject::tr("Turn"), QString("%1°").arg(u.turn), QString::number(u.turn),
             QObject::tr("Turn underlay"), -360, 360, [id](Project& p, double v) { p.underlays.change(id)->turn = v; });
    b.number("%", QObject::tr("Fade"), QString("%1 %").arg(u.fade * 100), QString::number(u.fade * 100),
             QObject::tr("Fade underlay"), 0, 100,
             [id](Project& p, double v) { p.underlays.change(id)->fade = v / 100; });
    b.yesNo(QObject::tr("Shown"), !u.hidden, QObject::tr("Show underlay"),
            [id](Project& p, bool v) { p.underlays.change(id)->hidden = !v; });
    b.row(QObject::tr("Crop"), u.crop.size() == 2 ? QObject::tr("to a box") : QObject::tr("none"));
}

void catchment(FactsBuilder& b, const Catchment& k) {
    const CatchmentId id = k.id;
    const Project& p = b.sol.project;
    b.f.title = q(nameOf(p, Ref(id)));
    b.f.about = QObject::tr("catchment");
    b.text(QObject::tr("Name"), q(k.name), QObject::tr("Name catchment"),
           [id](Project& x, const std::string& t) { x.catchments.change(id)->name = t; });
    b.row(QObject::tr("Area"),
          k.outline.size() < 3 ? QObject::tr("the whole level") : areaText(areaOf(k.outline), p.basis.units));
    for (const Serving& s : k.boards) {
        QStringList kinds;
        for (const std::string& kind : s.kinds) kinds << q(kind);
        b.row(q(p.boards[s.board].name), s.lifeSafety    ? QObject::tr("life safety")
                                         : kinds.empty() ? QObject::tr("all loads")
                                                         : kinds.join(", "));
    }
}

void tray(FactsBuilder& b, const Tray& t) {
    const TrayId id = t.id;
    const Project& p = b.sol.project;
    b.f.title = q(nameOf(p, Ref(id)));
    b.f.about = t.riseTo ? QObject::tr("riser") : QObject::tr("tray");
    b.text(QObject::tr("Name"), q(t.name), QObject::tr("Name tray"),
           [id](Project& x, const std::string& v) { x.trays.change(id)->name = v; });
    double length = 0;
    for (std::size_t i = 1; i < t.path.size(); ++i) length += distance(t.path[i - 1], t.path[i]);
    if (t.riseTo)
        b.row(QObject::tr("Rises to"), q(nameOf(p, Ref(t.riseTo))));
    else
        b.row(QObject::tr("Length"), q(lengthWords(Metres{length}, p.basis.units)));
    b.length(QObject::tr("Width"), t.width, QObject::tr("Width of tray"), 0.02, 5,
             [id](Project& x, double v) { x.trays.change(id)->width = v; });
    b.length(QObject::tr("Depth"), t.depth, QObject::tr("Depth of tray"), 0.02, 1,
             [id](Project& x, double v) { x.trays.change(id)->depth = v; });
    b.length(QObject::tr("Height"), t.height, QObject::tr("Height of tray"), 0, 100,
             [id](Project& x, double v) { x.trays.change(id)->height = v; });
    const TrayFill fill = trayFill(p, *b.sol.book, b.sol.results, id);
    b.row(QObject::tr("Runs in it"), QString::number(fill.runs));
    if (fill.known) {
        FactRow& r = b.row(QObject::tr("Fill"), QObject::tr("%1 % of its section").arg(q(number(fill.share * 100, 1))));
        if (fill.share > 0.4) r.colour = theme().check;
    } else if (fill.runs) {
        b.row(QObject::tr("Fill"), QObject::tr("over %1 %: conductors alone").arg(q(number(fill.share * 100, 1))));
    }
}

/// The picture for its cut sheet: chosen from the disk, or its path typed.
void picture(FactsBuilder& b, const DeviceType& y) {
    const DeviceTypeId id = y.id;
    const QString none = QObject::tr("none"), fromDisk = QObject::tr("from a file …"), other = QObject::tr("another …");
    const QString now = y.picture.empty() ? none : q(y.picture);
    QStringList choices{now};
    if (now != none) choices << none;
    FactRow& r = b.choice(QObject::tr("Picture"), now, choices << fromDisk << other, QObject::tr("Picture of type"),
                          [id, none](Project& p, const QString& t) {
                              p.deviceTypes.change(id)->picture = t == none ? std::string() : t.toStdString();
                              return QString();
                          });
    // The dialog stands before the edit, not in it.
    r.entry->take = [take = r.entry->take, fromDisk, &session = b.s](const QString& t) {
        if (t != fromDisk) return take(t);
        const QString file =
            QFileDialog::getOpenFileName(QApplication::activeWindow(), QObject::tr("The picture of a type"), {},
                                         QObject::tr("Pictures (*.png *.jpg *.jpeg *.svg)"));
        return file.isEmpty() ? QString() : take(q(underlayName(pathFromText(file.toStdString()), session.file())));
    };
    r.entry->other = other;
    r.entry->hint = QObject::tr("PNG, JPEG or SVG, by its path from the project's");
}

/// The catalogue's entry: what every device of the type is, unless it says otherwise itself.
void deviceType(FactsBuilder& b, const DeviceType& y) {
    const DeviceTypeId id = y.id;
    const auto set = [id](auto what) { return [id, what](Project& p, auto v) { what(*p.deviceTypes.change(id), v); }; };
    int used = 0;
    for (const Device& d : b.sol.project.devices) used += d.type == id;
    b.f.title = q(y.name);
    b.f.about = QObject::tr("type of %1").arg(counted(used, QObject::tr("device"), QObject::tr("devices")));
    b.text(QObject::tr("Name"), q(y.name), QObject::tr("Name type"), [id](Project& p, const std::string& t) {
        if (!t.empty()) p.deviceTypes.change(id)->name = t;
    });
    b.text(QObject::tr("Mark"), q(y.mark), QObject::tr("Mark of type"),
           [id](Project& p, const std::string& t) { p.deviceTypes.change(id)->mark = t; });
    b.choice(QObject::tr("Symbol"), wordOf(y.symbol), FactsBuilder::words<Symbol>(), QObject::tr("Symbol of type"),
             [id](Project& p, const QString& t) {
                 return p.deviceTypes.change(id)->symbol = *fromWord<Symbol>(t.toStdString()), QString();
             });
    b.choice(QObject::tr("Kind"), wordOf(y.kind), FactsBuilder::words<LoadKind>(), QObject::tr("Kind of type"),
             [id](Project& p, const QString& t) {
                 return p.deviceTypes.change(id)->kind = *fromWord<LoadKind>(t.toStdString()), QString();
             });
    b.amount(QObject::tr("Load"), QString::number(y.load) + " " + wordOf(y.unit),
             QString::number(y.load) + " " + wordOf(y.unit), QObject::tr("Load of type"),
             [id](Project& p, double amount, std::optional<LoadUnit> unit) -> std::optional<Error> {
                 DeviceType& x = *p.deviceTypes.change(id);
                 x.load = amount;
                 x.unit = unit.value_or(x.unit);
                 return {};
             });
    b.choice(QObject::tr("Unit"), wordOf(y.unit), FactsBuilder::words<LoadUnit>(), QObject::tr("Unit of type"),
             [id](Project& p, const QString& t) {
                 return p.deviceTypes.change(id)->unit = *fromWord<LoadUnit>(t.toStdString()), QString();
             });
    b.number("", QObject::tr("Power factor"), QString::number(y.powerFactor), QString::number(y.powerFactor),
             QObject::tr("Power factor of type"), 0.01, 1, set([](DeviceType& x, double v) { x.powerFactor = v; }));
    b.choice(QObject::tr("Poles"), QString::number(y.poles), {"1", "2", "3"}, QObject::tr("Poles of type"),
             [id](Project& p, const QString& t) { return p.deviceTypes.change(id)->poles = t.toInt(), QString(); });
    b.yesNo(QObject::tr("Continuous"), y.continuous, QObject::tr("Continuous load"),
            set([](DeviceType& x, bool v) { x.continuous = v; }));
    b.markedRows(y.nameplate, [id](Project& p) -> Nameplate& { return p.deviceTypes.change(id)->nameplate; });
    b.yesNo(QObject::tr("On walls"), y.onWall, QObject::tr("Type on walls"),
            set([](DeviceType& x, bool v) { x.onWall = v; }));
    b.length(QObject::tr("Height"), y.height, QObject::tr("Height of type"), 0, 200,
             set([](DeviceType& x, double v) { x.height = v; }));
    b.number("lm", QObject::tr("Lumens"), y.lumens > 0 ? QString::number(y.lumens) : QObject::tr("none"),
             QString::number(y.lumens), QObject::tr("Lumens of type"), 0, 1e7,
             set([](DeviceType& x, double v) { x.lumens = v; }));
    b.yesNo(QObject::tr("Life safety"), y.lifeSafety, QObject::tr("Life safety"),
            set([](DeviceType& x, bool v) { x.lifeSafety = v; }));
    b.text(QObject::tr("Protection"), q(y.protection), QObject::tr("Protection of type"),
           [id](Project& p, const std::string& t) { p.deviceTypes.change(id)->protection = t; });
    b.text(QObject::tr("Connection"), q(y.connection), QObject::tr("Connection of type"),
           [id](Project& p, const std::string& t) { p.deviceTypes.change(id)->connection = t; });
    b.text(QObject::tr("Lamp"), q(y.lamp), QObject::tr("Lamp of type"),
           [id](Project& p, const std::string& t) { p.deviceTypes.change(id)->lamp = t; });
    b.text(QObject::tr("Description"), q(y.description), QObject::tr("Description of type"),
           [id](Project& p, const std::string& t) { p.deviceTypes.change(id)->description = t; });
    picture(b, y);
}

void level(FactsBuilder& b, const Level& l) {
    const LevelId id = l.id;
    const UnitSystem units = b.sol.project.basis.units;
    b.f.title = q(l.name);
    b.f.about = QObject::tr("level");
    b.text(QObject::tr("Name"), q(l.name), QObject::tr("Name level"), [id](Project& p, const std::string& t) {
        if (!t.empty()) p.levels.change(id)->name = t;
    });
    b.length(QObject::tr("Height"), l.height, QObject::tr("Height of level"), 0.5, 200,
             [id](Project& p, double v) { p.levels.change(id)->height = v; });
    // Below datum as well: typed in metres or feet with a sign.
    b.number(units == UnitSystem::Imperial ? "ft" : "m", QObject::tr("Elevation"),
             QString("%1 %2")
                 .arg(units == UnitSystem::Imperial ? l.elevation / metresPerFoot : l.elevation, 0, 'f', 2)
                 .arg(units == UnitSystem::Imperial ? "ft" : "m"),
             QString::number(units == UnitSystem::Imperial ? l.elevation / metresPerFoot : l.elevation, 'f', 2),
             QObject::tr("Elevation of level"), -900, 2000, [id, units, now = l.elevation](Project& p, double v) {
                 const double metres = units == UnitSystem::Imperial ? v * metresPerFoot : v;
                 if (std::abs(metres - now) > 0.003)
                     p.levels.change(id)->elevation = metres; // what is shown is rounded
             });
    const LevelDensity d = densityOf(b.sol.project, b.sol.results, id);
    b.row(QObject::tr("Rooms"), QString::number(d.rooms.size()));
    b.row(QObject::tr("Area"), areaText(d.level.squareMetres, units));
    b.row(QObject::tr("Devices"), QString::number(d.level.devices));
    b.row(QObject::tr("Load"), q(number(d.level.va)) + " VA");
    b.row(QObject::tr("Density"), q(densityWords(d.level, units)));
}

} // namespace

QStringList deviceTypeNames(const Project& p) {
    QStringList out;
    for (const DeviceType& y : p.deviceTypes) out << q(y.name);
    return out;
}

void deviceGroup(FactsBuilder& b) {
    std::vector<DeviceId> ids;
    for (Ref r : b.s.selectionList())
        if (b.sol.project.devices.has(r.as<Device>())) ids.push_back(r.as<Device>());
    const Project& p = b.sol.project;
    const auto each = [ids](auto what) {
        return [ids, what](Project& x, auto v) {
            for (DeviceId d : ids) what(*x.devices.change(d), v);
        };
    };
    // What they have in common is shown; where they differ, that they do.
    const auto common = [&](auto get) {
        const auto first = get(p.devices[ids.front()]);
        for (DeviceId d : ids)
            if (get(p.devices[d]) != first) return QObject::tr("differ");
        return first;
    };
    const auto typeOf = [&](const Device& d) -> const DeviceType& { return p.deviceTypes[d.type]; };
    b.choice(QObject::tr("Type"), common([&](const Device& d) { return q(typeOf(d).name); }), deviceTypeNames(p),
             QObject::tr("Type of %1 devices").arg(ids.size()), [ids](Project& x, const QString& t) {
                 for (const DeviceType& y : x.deviceTypes)
                     if (q(y.name) == t) {
                         for (DeviceId d : ids) x.devices.change(d)->type = y.id;
                         break;
                     }
                 return QString();
             });
    const QString load = common([&](const Device& d) { return QString::number(d.load.value_or(typeOf(d).load)); });
    // In the unit that their types share; where those differ, a bare number stands for each in its own.
    const QString unit = common([&](const Device& d) { return QString(wordOf(typeOf(d).unit)); });
    const std::string oneUnit = unit == QObject::tr("differ") ? std::string() : unit.toStdString();
    b.number(oneUnit.c_str(), QObject::tr("Load of each"), load, load,
             QObject::tr("Load of %1 devices").arg(ids.size()), 0, 1e9, each([](Device& d, double v) { d.load = v; }),
             [ids](Project& x) {
                 for (DeviceId d : ids) x.devices.change(d)->load.reset();
             });
    const QString height =
        common([&](const Device& d) { return q(heightWords(d.height.value_or(typeOf(d).height), p.basis.units)); });
    FactRow& h = b.length(
        QObject::tr("Height"), p.devices[ids.front()].height.value_or(typeOf(p.devices[ids.front()]).height),
        QObject::tr("Height of %1 devices").arg(ids.size()), 0, 200, each([](Device& d, double v) { d.height = v; }));
    h.value = height;
    b.text(QObject::tr("Protection"),
           common([&](const Device& d) { return q(d.protection.empty() ? typeOf(d).protection : d.protection); }),
           QObject::tr("Protection of %1 devices").arg(ids.size()),
           each([](Device& d, const std::string& t) { d.protection = t; }));
    b.text(QObject::tr("Switch leg"), common([&](const Device& d) { return q(d.leg); }),
           QObject::tr("Switch leg of %1 devices").arg(ids.size()),
           each([](Device& d, const std::string& t) { d.leg = t; }));
    const auto ring = [&](DeviceId d) {
        const Circuit* c = p.circuits.find(p.devices[d].circuit);
        return c && c->ring;
    };
    if (std::all_of(ids.begin(), ids.end(), ring))
        b.yesNo(QObject::tr("On spurs"),
                std::all_of(ids.begin(), ids.end(), [&](DeviceId d) { return p.devices[d].spur; }),
                QObject::tr("Unfused spurs"), each([](Device& d, bool v) { d.spur = v; }));
    std::set<CircuitId> circuits;
    for (DeviceId d : ids) circuits.insert(p.devices[d].circuit);
    b.row(QObject::tr("Circuit"), circuits.size() == 1 && *circuits.begin() ? q(nameOf(p, *circuits.begin()))
                                  : circuits.size() == 1
                                      ? QObject::tr("none: unfed")
                                      : QObject::tr("%1 circuits").arg(circuits.size() - circuits.count(CircuitId{})));
}

bool planFacts(FactsBuilder& b, Ref thing) {
    const Project& p = b.sol.project;
    if (auto* m = p.rooms.find(thing.as<Room>()))
        room(b, *m);
    else if (auto* w = p.walls.find(thing.as<Wall>()))
        wall(b, *w);
    else if (auto* o = p.openings.find(thing.as<Opening>()))
        opening(b, *o);
    else if (auto* f = p.furnishings.find(thing.as<Furnishing>()))
        furnishing(b, *f);
    else if (auto* n = p.keyedNotes.find(thing.as<KeyedNote>()))
        keyedNote(b, *n);
    else if (auto* u = p.underlays.find(thing.as<Underlay>()))
        underlay(b, *u);
    else if (auto* k = p.catchments.find(thing.as<Catchment>()))
        catchment(b, *k);
    else if (auto* t = p.trays.find(thing.as<Tray>()))
        tray(b, *t);
    else if (auto* y = p.deviceTypes.find(thing.as<DeviceType>()))
        deviceType(b, *y);
    else if (auto* l = p.levels.find(thing.as<Level>()))
        level(b, *l);
    else
        return false;
    return true;
}

} // namespace lintel
