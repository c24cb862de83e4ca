#include "app/riser/RiserMenu.h"

#include "app/frame/PaintKit.h"
#include "app/riser/CapacitorDialog.h"
#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/copy/CopyBranch.h"
#include "core/project/AddBelow.h"
#include "core/project/FreshId.h"
#include "core/project/Operations.h"

#include "core/sheets/RiserPlaces.h"
#include "core/solve/EquipmentSize.h"

#include <QApplication>
#include <QClipboard>
#include <QGuiApplication>
#include <QMenu>
#include <QMimeData>

namespace lintel {
bool hasFeeder(const Session& s, Ref thing) {
    if (thing.is<Circuit>()) return true;
    const NodeResult* n = s.solution().results.node(thing);
    return n && n->parent;
}

namespace {

QString refusal(const std::optional<Error>& bad) { return bad ? q(bad->what) : QString(); }

/// Makes one thing and selects it.
template <class F> auto making(const QString& label, F make) {
    return [label, make](Session& s) {
        Ref made;
        s.edit(label, [&](Project& p) { made = make(p); });
        s.select(made);
    };
}

void addSources(std::vector<RiserCommand>& out) {
    out.push_back({QObject::tr("Add a utility"), {}, {}, 'N', making(QObject::tr("Add source"), [](Project& p) {
                       Source x;
                       x.name = p.sources.empty() ? "Utility" : "Utility " + std::to_string(p.sources.size() + 1);
                       x.onPlan = false;
                       if (p.basis.units == UnitSystem::Metric) x.system = VoltageSystem::Y400;
                       return Ref(addFresh(p, &Project::sources, x));
                   })});
}

void addBelowCommands(const Session& s, Ref thing, std::vector<RiserCommand>& out) {
    const QString name = q(nameOf(s.project(), thing));
    const auto add = [&](NewBelow what, const QString& text, QChar key) {
        out.push_back({text, QObject::tr("Below %1").arg(name), refusal(refuseBelow(s.project(), thing, what)), key,
                       making(QObject::tr("Add %1 below %2").arg(text.toLower(), name),
                              [=](Project& p) { return addBelow(p, thing, what); })});
    };
    add(NewBelow::Board, QObject::tr("Board"), 'B');
    add(NewBelow::Switchboard, QObject::tr("Switchboard"), 'S');
    add(NewBelow::MotorControl, QObject::tr("Motor control centre"), 'M');
    add(NewBelow::Busway, QObject::tr("Busway"), 'W');
    add(NewBelow::Transformer, QObject::tr("Transformer"), 'T');
}

/// The board or transformer that is meant where a circuit is chosen: what it feeds, else its board.
Ref nodeOf(const Project& p, Ref thing) {
    const Circuit* c = p.circuits.find(thing.as<Circuit>());
    if (!c) return thing;
    const Ref fed = fedBy(p, c->id);
    return fed ? fed : Ref(c->board);
}

void addInFront(const Session& s, Ref thing, std::vector<RiserCommand>& out) {
    const QString group = QObject::tr("In front of %1").arg(q(nameOf(s.project(), thing)));
    const auto add = [&](BoardUse use, const QString& text, QChar key) {
        out.push_back({text, group, {}, key, [=](Session& x) { insertInFront(x, thing, use); }});
    };
    add(BoardUse::Disconnect, QObject::tr("Disconnect switch"), 'D');
    add(BoardUse::TransferSwitch, QObject::tr("Transfer switch"), 'X');
    add(BoardUse::Meter, QObject::tr("Meter"), 'E');
    add(BoardUse::CtCabinet, QObject::tr("CT cabinet"), 'A');
    add(BoardUse::ServiceDisconnect, QObject::tr("Service disconnect"), 'V');
    add(BoardUse::Ups, QObject::tr("UPS"), 'U');
    add(BoardUse::Busway, QObject::tr("Busway"), 'Y');
    const BoardId board = thing.as<Board>();
    if (!board) return;
    // The next of the series above what the board takes; the smallest where nothing hangs on it yet.
    const Solution& solved = s.solution();
    const double demand = solved.results.knows(board) ? solved.results.of(board).demand / 1000 : 0;
    const double kva = nextOf(transformerSeries(*solved.book, s.project().boards[board].system), demand);
    const QString refused =
        kva > 0 ? refusal(refuseTransformerBefore(s.project(), board)) : QObject::tr("its demand is past the series");
    out.push_back({QObject::tr("Transformer"), group, refused, 'R',
                   making(QObject::tr("Insert a transformer in front of %1").arg(q(nameOf(s.project(), thing))),
                          [=](Project& p) { return Ref(insertTransformer(p, board, kva)); })});
}

/// The size that its load asks for.
void addSizing(const Session& s, Ref thing, std::vector<RiserCommand>& out) {
    const Solution& solved = s.solution();
    if (!solved.results.node(thing)) return;
    const auto size = equipmentSize(s.project(), *solved.book, solved.results, thing);
    if (!size) return;
    const QString name = q(nameOf(s.project(), thing)), unit = size->unit;
    QString refused;
    if (size->size <= 0)
        refused = QObject::tr("%1 %2 are past the series").arg(q(figures(size->needed)), unit);
    else if (std::abs(size->size - size->now) < 1e-6)
        refused = QObject::tr("it is that size");
    out.push_back({QObject::tr("Size %1 by its load: %2 %3").arg(name, q(rating(size->size)), unit),
                   {},
                   refused,
                   'Z',
                   [thing, name, unit, size = *size](Session& x) {
                       x.edit(QObject::tr("Size %1 by its load").arg(name),
                              [&](Project& p) { enterEquipmentSize(p, thing, size.size); });
                       const QString was = size.now > 0 ? q(rating(size.now)) + " " + unit : QObject::tr("nothing");
                       x.say(QObject::tr("%1: %2 → %3 %4, for %5 %4")
                                 .arg(name, was, q(rating(size.size)), unit, q(figures(size.needed))));
                   }});
}

/// A generator of the next standard size above what the board and all below it take.
double generatorFor(const Session& s, BoardId board) {
    const Solution& solved = s.solution();
    if (!solved.results.knows(board)) return 0;
    return nextOf(solved.book->tables.generatorKva, solved.results.of(board).demand / 1000);
}

void addTakers(const Session& s, BoardId board, bool keysOnly, std::vector<RiserCommand>& out) {
    const Project& p = s.project();
    const QString name = q(p.boards[board].name), group = QObject::tr("%1 is taken over by").arg(name);
    if (p.boards[board].alternate) {
        out.push_back({QObject::tr("Nothing"), group, {}, {}, [=](Session& x) {
                           x.edit(QObject::tr("Let nothing take over %1").arg(name),
                                  [&](Project& q_) { alternateFrom(q_, board, {}); });
                       }});
        return;
    }
    const double kva = generatorFor(s, board);
    if (kva > 0)
        out.push_back({QObject::tr("New generator, %1 kVA").arg(kva),
                       group,
                       {},
                       'G',
                       making(QObject::tr("Add a generator for %1").arg(name),
                              [=](Project& q_) { return Ref(addGenerator(q_, board, kva)); })});
    if (keysOnly) return; // to ask every board is a walk over all circuits for each
    const auto offer = [&](Ref from) {
        if (refuseAlternate(p, board, from)) return;
        out.push_back({q(nameOf(p, from)), group, {}, {}, [=, by = q(nameOf(p, from))](Session& x) {
                           x.edit(QObject::tr("Let %1 take over %2").arg(by, name),
                                  [&](Project& q_) { alternateFrom(q_, board, from); });
                       }});
    };
    for (const Source& source : p.sources) offer(source.id);
    for (const Board& b : p.boards)
        if (!s.solution().results.knows(b.id) || s.solution().results.of(b.id).fed) offer(b.id);
}

} // namespace

namespace {

constexpr const char* branchMime = "application/x-lintel-branch";

/// A branch is kept by its id, which means something in this window alone.
QByteArray windowMark(const Session& s) {
    return QByteArray::number(qint64(QCoreApplication::applicationPid())) + ":" + QByteArray::number(quintptr(&s)) +
           ":";
}
Ref keptBranch(const Session& s) {
    const QMimeData* mime = QGuiApplication::clipboard()->mimeData();
    const QByteArray kept = mime ? mime->data(branchMime) : QByteArray();
    const QByteArray mark = windowMark(s);
    if (!kept.startsWith(mark)) return {};
    const Ref thing = refFrom(kept.mid(mark.size()).toStdString());
    const Project& p = s.project();
    return p.boards.has(thing.as<Board>()) || p.transformers.has(thing.as<Transformer>()) ? thing : Ref{};
}
/// "LP-1", or "LP-1 with the 3 below it".
QString branchWords(const Project& p, Ref thing) {
    const int more = branchSize(p, thing) - 1;
    const QString name = q(nameOf(p, thing));
    return more == 0 ? name : QObject::tr("%1 with the %2 below it").arg(name).arg(more);
}

void addCopies(const Session& s, Ref thing, std::vector<RiserCommand>& out) {
    const Project& p = s.project();
    if (!thing.is<Source>())
        out.push_back({QObject::tr("Copy %1\tCtrl+C").arg(branchWords(p, thing)), {}, {}, {}, [thing](Session& x) {
                           copyBranchOf(x, thing);
                       }});
    if (const Ref kept = keptBranch(s))
        out.push_back({QObject::tr("Feed a copy of %1 from here\tCtrl+V").arg(q(nameOf(p, kept))),
                       {},
                       {},
                       {},
                       [thing](Session& x) { pasteBranch(x, thing); }});
}

void addPlaces(const Session& s, Ref thing, std::vector<RiserCommand>& out) {
    if (drawnBeside(s.project(), s.solution().results, thing).empty()) return;
    const QString group = QObject::tr("Where %1 is drawn").arg(q(nameOf(s.project(), thing)));
    const auto add = [&](const QString& text, std::function<void(Session&)> run) {
        out.push_back({text, group, {}, {}, std::move(run)});
    };
    add(QObject::tr("One to the left\tAlt+Left"), [thing](Session& x) { moveOnRiser(x, thing, -1); });
    add(QObject::tr("One to the right\tAlt+Right"), [thing](Session& x) { moveOnRiser(x, thing, 1); });
    add(QObject::tr("More room before it\tAlt+Shift+Right"), [thing](Session& x) { widenOnRiser(x, thing, gapStep); });
    add(QObject::tr("Less room before it\tAlt+Shift+Left"), [thing](Session& x) { widenOnRiser(x, thing, -gapStep); });
    if (hasFeeder(s, thing)) {
        add(QObject::tr("Its line higher\tAlt+Up"), [thing](Session& x) { lowerLine(x, thing, -1); });
        add(QObject::tr("Its line lower\tAlt+Down"), [thing](Session& x) { lowerLine(x, thing, 1); });
        add(QObject::tr("Words of its feeder further away\tAlt+Shift+Up"),
            [thing](Session& x) { liftWords(x, thing, liftStep); });
        add(QObject::tr("Words of its feeder nearer\tAlt+Shift+Down"),
            [thing](Session& x) { liftWords(x, thing, -liftStep); });
    }
    for (const RiserPlace& place : s.project().riserPlaces)
        if (place.about == thing)
            add(QObject::tr("As by itself"), [thing](Session& x) {
                x.edit(QObject::tr("Let the place of %1 go").arg(q(nameOf(x.project(), thing))),
                       [&](Project& p) { letPlaceGo(p, thing); });
            });
}

} // namespace

void copyBranchOf(Session& s, Ref thing) {
    const Project& p = s.project();
    thing = nodeOf(p, thing);
    if (!p.boards.has(thing.as<Board>()) && !p.transformers.has(thing.as<Transformer>()))
        return s.say(QObject::tr("Choose the board or transformer first that is to be copied"), true);
    auto* mime = new QMimeData;
    mime->setData(branchMime, windowMark(s) + QByteArray::fromStdString(thing.text()));
    QGuiApplication::clipboard()->setMimeData(mime);
    s.say(QObject::tr("%1 is kept: choose what feeds the copy, and paste").arg(branchWords(p, thing)));
}

void pasteBranch(Session& s, Ref under) {
    const Ref kept = keptBranch(s);
    if (!kept) return s.say(QObject::tr("Nothing is kept: copy a board or transformer of this window first"), true);
    copyBranchUnder(s, kept, nodeOf(s.project(), under));
}

void copyBranchUnder(Session& s, Ref thing, Ref under) {
    if (!under) return s.say(QObject::tr("Choose what is to feed the copy"), true);
    Project trial = s.project();
    const auto made = copyBranch(trial, thing, under);
    if (!made) return s.say(q(made.error().what + ". " + made.error().help), true);
    const QString words = branchWords(s.project(), thing), from = q(nameOf(s.project(), under));
    s.edit(QObject::tr("Copy %1 below %2").arg(words, from), [&](Project& p) { p = trial; });
    s.select(*made);
    s.say(QObject::tr("%1 is a copy of %2, fed from %3").arg(q(nameOf(trial, *made)), words, from));
}

void moveOnRiser(Session& s, Ref thing, int step) {
    Project trial = s.project();
    const QString name = q(nameOf(trial, thing));
    if (drawnBeside(trial, s.solution().results, thing).empty())
        return s.say(QObject::tr("%1 has no place of its own on the riser").arg(name), true);
    if (!moveBeside(trial, s.solution().results, thing, step))
        return s.say(step < 0 ? QObject::tr("%1 is the first of those that hang on the same").arg(name)
                              : QObject::tr("%1 is the last of those that hang on the same").arg(name));
    s.edit(QObject::tr("Move %1 on the riser").arg(name), [&](Project& p) { p = trial; });
}

void placeOnRiser(Session& s, Ref thing, Ref behind) {
    const Solution& solved = s.solution();
    const std::vector<Ref> beside = drawnBeside(s.project(), solved.results, thing);
    const auto at = std::find(beside.begin(), beside.end(), thing);
    const bool there =
        at != beside.end() && (behind ? at != beside.begin() && *(at - 1) == behind : at == beside.begin());
    if (there || at == beside.end()) return;
    s.edit(QObject::tr("Move %1 on the riser").arg(q(nameOf(s.project(), thing))),
           [&](Project& p) { placeBehind(p, thing, behind); });
}

namespace {
/// What a nudge is called, and what is said where it is at its end already.
struct NudgeWords {
    QString label, noFurther;
};
/// One edit that moves a figure of a thing's place by a step, within 0 to `most`.
template <class T, class Set> void nudge(Session& s, T now, T step, T most, const NudgeWords& words, Set set) {
    const T then = std::clamp(now + step, T(0), most);
    if (then == now) return s.say(words.noFurther);
    s.edit(words.label, [&](Project& p) { set(p, then); });
}
} // namespace

void widenOnRiser(Session& s, Ref thing, double mm) {
    if (drawnBeside(s.project(), s.solution().results, thing).empty())
        return s.say(QObject::tr("%1 has no place of its own on the riser").arg(q(nameOf(s.project(), thing))), true);
    const QString name = q(nameOf(s.project(), thing));
    nudge(s, placeByHand(s.project(), thing).gap, mm, limits::riserGap,
          {QObject::tr("Room before %1 on the riser").arg(name),
           QObject::tr("There is no more to give before %1").arg(name)},
          [thing](Project& p, double then) { setGapBefore(p, thing, then); });
}

namespace {
/// Says why a nudge of its feeder cannot be; true: it can.
bool canNudge(Session& s, Ref thing) {
    const bool drawn = !drawnBeside(s.project(), s.solution().results, thing).empty();
    if (drawn && hasFeeder(s, thing)) return true;
    s.say(QObject::tr("%1 has no feeder on the riser").arg(q(nameOf(s.project(), thing))), true);
    return false;
}
} // namespace

void lowerLine(Session& s, Ref thing, int steps) {
    if (!canNudge(s, thing)) return;
    const QString name = q(nameOf(s.project(), thing));
    nudge(s, placeByHand(s.project(), thing).lower, steps, limits::riserSteps,
          {QObject::tr("Line to %1 on the riser").arg(name), QObject::tr("The line to %1 goes no further").arg(name)},
          [thing](Project& p, int then) { setLineLower(p, thing, then); });
}

void liftWords(Session& s, Ref thing, double mm) {
    if (!canNudge(s, thing)) return;
    const QString name = q(nameOf(s.project(), thing));
    nudge(s, placeByHand(s.project(), thing).lift, mm, limits::riserLift,
          {QObject::tr("Words of the feeder to %1").arg(name),
           QObject::tr("The words of the feeder to %1 go no further").arg(name)},
          [thing](Project& p, double then) { setWordsLift(p, thing, then); });
}

void insertInFront(Session& s, Ref thing, BoardUse use) {
    const Ref node = nodeOf(s.project(), thing);
    if (!node.is<Board>() && !node.is<Transformer>())
        return s.say(QObject::tr("Choose the board or transformer first, in front of which it is to stand"), true);
    making(QObject::tr("Insert %1 in front of %2").arg(QObject::tr(wordOf(use)), q(nameOf(s.project(), node))),
           [=](Project& p) { return Ref(insertInFeed(p, node, use)); })(s);
}

void removeThing(Session& s, Ref thing) {
    const Project before = s.project();
    const QString name = q(nameOf(before, thing));
    s.edit(QObject::tr("Remove %1").arg(name), [&](Project& p) { removeFromPlan(p, thing); });
    QStringList free;
    const auto look = [&](Ref r) {
        if (feedOf(before, r) && r != thing && !feedOf(s.project(), r)) free << q(nameOf(s.project(), r));
    };
    for (const Board& b : s.project().boards) look(b.id);
    for (const Transformer& t : s.project().transformers) look(t.id);
    s.select(Ref());
    s.say(free.isEmpty() ? QObject::tr("%1 is removed").arg(name)
                         : QObject::tr("%1 is removed; not fed now: %2").arg(name, free.join(", ")),
          !free.isEmpty());
}

std::vector<RiserCommand> riserCommands(const Session& s, Ref thing, bool keysOnly) {
    std::vector<RiserCommand> out;
    const Project& p = s.project();
    const Ref shown = thing;
    thing = nodeOf(p, thing);
    const bool board = thing.is<Board>() && p.boards.has(thing.as<Board>());
    const bool transformer = thing.is<Transformer>() && p.transformers.has(thing.as<Transformer>());
    const bool source = thing.is<Source>() && p.sources.has(thing.as<Source>());
    if (board || transformer || source) addBelowCommands(s, thing, out);
    if (board || transformer) addInFront(s, thing, out);
    if (board) addTakers(s, thing.as<Board>(), keysOnly, out);
    if (board && !passesOn(p.boards[thing.as<Board>()].use) && factsOf(p.boards[thing.as<Board>()].system).lines == 3)
        out.push_back({QObject::tr("Capacitor bank…"),
                       QObject::tr("Below %1").arg(q(nameOf(p, thing))),
                       {},
                       'C',
                       [b = thing.as<Board>()](Session& x) {
                           x.waitSolved();
                           CapacitorDialog(x, b, QApplication::activeWindow()).exec();
                       }});
    if (board || transformer || source) addSizing(s, thing, out);
    if ((board || transformer || source) && !keysOnly) {
        addCopies(s, thing, out);
        addPlaces(s, shown, out);
    }
    if (board || transformer || source) {
        const bool passing = board && passesOn(p.boards[thing.as<Board>()].use);
        const QString name = q(nameOf(p, thing));
        out.push_back({passing ? QObject::tr("Take %1 out of the feed").arg(name) : QObject::tr("Remove %1").arg(name),
                       {},
                       {},
                       QChar(0x7f),
                       [thing](Session& x) { removeThing(x, thing); }});
    }
    addSources(out);
    return out;
}

void showRiserMenu(Session& s, Ref thing, QPoint at, QWidget* parent) {
    QMenu menu(parent);
    std::map<QString, QMenu*> groups;
    for (RiserCommand& c : riserCommands(s, thing)) {
        QMenu* into = &menu;
        if (!c.group.isEmpty()) {
            QMenu*& group = groups[c.group];
            if (!group) group = menu.addMenu(c.group);
            into = group;
        }
        const QString key = c.key.isNull() ? QString() : c.key == QChar(0x7f) ? QObject::tr("Del") : QString(c.key);
        QAction* a = into->addAction(c.text + (c.refused.isEmpty() ? QString() : ": " + c.refused) +
                                     (key.isEmpty() ? QString() : "\t" + key));
        a->setEnabled(c.refused.isEmpty());
        QObject::connect(a, &QAction::triggered, parent, [&s, run = c.run] { run(s); });
    }
    menu.exec(at);
}

bool runRiserKey(Session& s, Ref thing, QChar key) {
    for (RiserCommand& c : riserCommands(s, thing, true)) {
        if (c.key.isNull() || c.key != key) continue;
        if (c.refused.isEmpty())
            c.run(s);
        else
            s.say(c.refused, true);
        return true;
    }
    return false;
}

} // namespace lintel
