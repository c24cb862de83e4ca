#include "app/frame/FactsBuilder.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/figures/FormEdits.h"
#include "core/figures/Words.h"
#include "core/project/BoardSize.h"
#include "core/project/CircuitFacts.h"
#include "core/project/FaultRating.h"
#include "core/project/Operations.h"
#include "core/project/OwnTexts.h"
#include "core/project/RunFacts.h"
#include "core/project/Sections.h"
#include "core/project/TypedLoads.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/Busway.h"
#include "core/solve/MotorStart.h"
#include "core/solve/OpeningTime.h"
#include "core/solve/PhaseLoads.h"
#include "core/solve/RunParts.h"
#include "core/solve/States.h"
#include "core/solve/TesterReadings.h"

#include <set>

namespace lintel {

std::optional<double> metresFrom(const QString& text, UnitSystem units) {
    return metresFrom(std::string_view(text.toStdString()), units);
}

namespace {

struct Builder : FactsBuilder {
    QStringList sizeChoices(Material m) const {
        QStringList l{"auto"};
        for (SizeIndex i = 0; i < SizeIndex(sol.book->sizes().size()); ++i)
            if (sol.book->choosable(i, m)) l << q(sol.book->sizes()[std::size_t(i)].name);
        return l;
    }

    /// The cable of a metric run, how it is laid, and what an earth fault at its end comes to.
    void cableRows(const RunResult& r, const Run& now, std::function<Run&(Project&)> run) {
        const CableType& type = sol.book->cables.types[std::size_t(r.need.cable->type)];
        const CableMethod& method = type.methods[std::size_t(r.need.cable->method)];
        const QString asBasis = QObject::tr("as basis");
        QStringList cables{asBasis}, methods{asBasis};
        for (const CableType& t : sol.book->cables.types) cables << q(t.name);
        for (const CableMethod& m : type.methods) methods << q(m.name);
        if (r.earth->known) {
            FactRow& loop = row(
                QObject::tr("Earth loop"),
                QString("%1 Ω").arg(double(r.earth->zs), 0, 'f', 2) +
                    (r.earth->limit > 0
                         ? QObject::tr(" of %1 Ω").arg(double(r.earth->limit), 0, 'f', r.earth->limit >= 100 ? 0 : 2)
                         : QString()));
            if (!r.earth->inTime) loop.colour = theme().stop;
            if (const TesterReadings cold = testerReadings(r, *sol.book); cold.known) {
                row(QObject::tr("R1 + R2, 20 °C"), QObject::tr("%1 Ω: r1 %2, r2 %3 mΩ/m")
                                                       .arg(cold.together, 0, 'f', 3)
                                                       .arg(cold.r1 * 1000, 0, 'f', 2)
                                                       .arg(cold.r2 * 1000, 0, 'f', 2));
                if (cold.zsMost > 0)
                    row(QObject::tr("Tester: Zs up to"),
                        QObject::tr("%1 Ω, 80 % of the limit").arg(cold.zsMost, 0, 'f', 2));
            }
            row(QObject::tr("Earth fault"),
                QObject::tr("%1 A, %2").arg(q(figures(double(r.earth->amps))), q(openingWords(*r.earth))));
            FactRow& stands = row(QObject::tr("Withstands"),
                                  QObject::tr("%1 mm² of %2 mm²")
                                      .arg(q(figures(double(r.earth->needed))), q(figures(double(r.earth->has)))));
            if (!r.earth->withstands) stands.colour = theme().stop;
            rare(r.earth->withstands);
            if (r.earth->neededHere > 0) {
                FactRow& here = row(QObject::tr("At the board"), QObject::tr("%1 mm² of %2 mm²")
                                                                     .arg(q(figures(double(r.earth->neededHere))),
                                                                          q(figures(double(r.earth->has)))));
                if (!r.earth->withstandsHere) here.colour = theme().stop;
                rare(r.earth->withstandsHere);
            }
            if (r.earth->longest > 0 &&
                r.earth->limit < 100) { // a residual-current device allows more than any building has
                row(QObject::tr("Longest by loop"),
                    q(lengthWords(Metres{double(r.earth->longest)}, sol.project.basis.units)));
                rare(double(r.earth->longest) > r.longest.v && r.longest.v > 0);
            }
        }
        row(QObject::tr("Under load"),
            QObject::tr("%1 °C of %2 °C").arg(q(lintel::number(double(r.running))), q(lintel::number(type.celsius))));
        rare(true);
        FactRow& cable = choice(QObject::tr("Cable"), q(type.name), cables, QObject::tr("Cable of run"),
                                [run, asBasis](Project& p, const QString& t) {
                                    run(p).cable = t == asBasis ? std::string() : t.toStdString();
                                    return QString();
                                });
        cable.entry->initial = now.cable.empty() ? asBasis : q(now.cable);
        FactRow& laid = choice(QObject::tr("Method"), QString("%1, %2").arg(q(method.name), q(method.words)), methods,
                               QObject::tr("How the run is laid"), [run, asBasis](Project& p, const QString& t) {
                                   run(p).method = t == asBasis ? std::string() : t.toStdString();
                                   return QString();
                               });
        laid.entry->initial = now.method.empty() ? asBasis : q(now.method);
        whole(QObject::tr("Laid with"),
              now.grouped                  ? QObject::tr("%1 other circuits").arg(now.grouped)
              : r.need.cable->circuits > 1 ? QObject::tr("its bundle of %1").arg(r.need.cable->circuits)
                                           : QObject::tr("nothing"),
              QString::number(now.grouped), QObject::tr("Circuits laid together"), 0, 200,
              [run](Project& p, int v) { run(p).grouped = v; });
        rare(r.need.cable->circuits < 2);
        if (!method.ground) {
            choice(QObject::tr("Lies"), now.lying == Lying::Auto ? QObject::tr("as its method") : q(wordOf(now.lying)),
                   words<Lying>(), QObject::tr("How the run lies beside others"), [run](Project& p, const QString& t) {
                       run(p).lying = *fromWord<Lying>(t.toStdString());
                       return QString();
                   });
            rare(now.lying == Lying::Auto);
        }
        if (r.need.poles == 3 && !type.single) {
            number("%", QObject::tr("Third harmonic"),
                   now.thirdHarmonic > 0 ? QString("%1 %").arg(now.thirdHarmonic * 100) : QObject::tr("none"),
                   QString::number(now.thirdHarmonic * 100), QObject::tr("Third harmonic of run"), 0, 100,
                   [run](Project& p, double v) { run(p).thirdHarmonic = v / 100; });
            rare(now.thirdHarmonic == 0);
        }
        if (r.sets > 1 || now.setsApart) {
            choice(QObject::tr("Its sets"),
                   now.setsApart ? QObject::tr("apart") : QObject::tr("together: %1 circuits of its group").arg(r.sets),
                   {QObject::tr("together"), QObject::tr("apart")}, QObject::tr("How parallel sets lie"),
                   [run](Project& p, const QString& t) {
                       run(p).setsApart = t == QObject::tr("apart");
                       return QString();
                   });
        }
        number(
            "°C", method.ground ? QObject::tr("Ground") : QObject::tr("Ambient"),
            QString("%1 °C%2").arg(q(lintel::number(r.need.ambient))).arg(now.ambient ? "" : QObject::tr(", basis")),
            now.ambient ? QString::number(*now.ambient) : "auto", QObject::tr("Ambient of run"), -40, 85,
            [run](Project& p, double v) { run(p).ambient = v; }, [run](Project& p) { run(p).ambient.reset(); });
        rare(!now.ambient);
        if (method.ground) {
            number(
                "K·m/W", QObject::tr("Soil"), QString("%1 K·m/W").arg(double(r.need.cable->soil)),
                now.soil ? QString::number(*now.soil) : "auto", QObject::tr("Soil of run"), 0.1, 10,
                [run](Project& p, double v) { run(p).soil = v; }, [run](Project& p) { run(p).soil.reset(); });
            rare(!now.soil);
        }
        number("m", QObject::tr("In insulation"),
               now.insulated > 0 ? QString("%1 m").arg(now.insulated) : QObject::tr("no"),
               QString::number(now.insulated), QObject::tr("Run in thermal insulation"), 0, 1000,
               [run](Project& p, double v) { run(p).insulated = v; });
        rare(now.insulated == 0);
        choice(QObject::tr("Protective"), q(wordOf(now.protectiveBy)), words<ProtectiveBy>(),
               QObject::tr("Protective conductor of run"), [run](Project& p, const QString& t) {
                   run(p).protectiveBy = *fromWord<ProtectiveBy>(t.toStdString());
                   return QString();
               });
        rare(now.protectiveBy == ProtectiveBy::Auto);
        FactRow& ground =
            choice(QObject::tr("Its size"),
                   now.heldGround.empty() ? QObject::tr("auto") : q(now.heldGround) + QObject::tr(" mm², held"),
                   sizeChoices(r.need.material), QObject::tr("Hold protective conductor"),
                   [run](Project& p, const QString& t) {
                       run(p).heldGround = t == "auto" ? "" : t.toStdString();
                       return QString();
                   });
        ground.entry->initial = now.heldGround.empty() ? "auto" : q(now.heldGround);
        rare(now.heldGround.empty());
        yesNo(QObject::tr("Works in a fire"), now.fireRated, QObject::tr("Fire-rated run"),
              [run](Project& p, bool v) { run(p).fireRated = v; });
        rare(!now.fireRated);
        number("%", QObject::tr("Nonlinear share"), QString("%1 %").arg(now.nonlinear * 100),
               QString::number(now.nonlinear * 100), QObject::tr("Nonlinear share"), 0, 100,
               [run](Project& p, double v) { run(p).nonlinear = v / 100; });
        rare(now.nonlinear == 0);
    }

    /// How a run is laid: what stands apart from the basis can be set here for this run alone.
    void layingRows(const RunResult& r, Ref thing, const Run* entered, std::function<Run&(Project&)> run) {
        static const Run none;
        const Run& now = entered ? *entered : none;
        if (sol.book->metric()) {
            if (r.need.cable->type >= 0) cableRows(r, now, run);
            return;
        }
        const RunParts parts = partsOf(sol.project, *sol.book, sol.results, thing);
        if (parts.neutrals)
            row(QObject::tr("Neutral"), (parts.neutrals > 1 ? "2 × " : "") + q(sizeWords(*sol.book, parts.neutral)));
        QStringList conduits{QObject::tr("as basis")};
        for (const ConduitType& t : sol.book->tables.conduits) conduits << q(t.name);
        FactRow& conduit = choice(QObject::tr("Conduit"),
                                  parts.conduitType.empty() ? QObject::tr("none")
                                  : parts.conduit.size      ? QString("%1 %2, %3 %")
                                                             .arg(q(parts.conduitType), q(parts.conduit.size->name),
                                                                  q(lintel::number(parts.conduit.used * 100)))
                                                       : QObject::tr("%1: none holds them").arg(q(parts.conduitType)),
                                  conduits, QObject::tr("Conduit of run"),
                                  [run, first = conduits.front()](Project& p, const QString& t) {
                                      run(p).conduit = t == first ? std::string() : t.toStdString();
                                      return QString();
                                  });
        conduit.entry->initial = now.conduit.empty() ? conduits.front() : q(now.conduit);
        choice(QObject::tr("Laid in"), q(wordOf(now.wiring)), words<Wiring>(), QObject::tr("How the run is laid"),
               [run](Project& p, const QString& t) {
                   run(p).wiring = *fromWord<Wiring>(t.toStdString());
                   return QString();
               });
        rare(now.wiring == Wiring::Default);
        QStringList metals{QObject::tr("as basis")};
        metals << words<Material>();
        choice(QObject::tr("Material"), now.material ? q(wordOf(*now.material)) : metals.front(), metals,
               QObject::tr("Conductors of run"), [run, first = metals.front()](Project& p, const QString& t) {
                   if (t == first)
                       run(p).material.reset();
                   else
                       run(p).material = *fromWord<Material>(t.toStdString());
                   return QString();
               });
        rare(!now.material);
        number(
            "°C", QObject::tr("Ambient"),
            QString("%1 °C%2").arg(q(lintel::number(r.need.ambient))).arg(now.ambient ? "" : QObject::tr(", basis")),
            now.ambient ? QString::number(*now.ambient) : "auto", QObject::tr("Ambient of run"), -40, 85,
            [run](Project& p, double v) { run(p).ambient = v; }, [run](Project& p) { run(p).ambient.reset(); });
        rare(!now.ambient);
        yesNo(QObject::tr("Close above a roof"), now.onRoof, QObject::tr("Run above a roof"),
              [run](Project& p, bool v) { run(p).onRoof = v; });
        rare(!now.onRoof);
        if (r.need.poles == 3 || (r.need.poles == 2 && parts.neutrals)) {
            choice(QObject::tr("Neutral by"), q(wordOf(now.neutral)), words<NeutralBy>(), QObject::tr("Neutral of run"),
                   [run](Project& p, const QString& t) {
                       run(p).neutral = *fromWord<NeutralBy>(t.toStdString());
                       return QString();
                   });
            rare(now.neutral == NeutralBy::Auto);
            number("%", QObject::tr("Nonlinear share"), QString("%1 %").arg(now.nonlinear * 100),
                   QString::number(now.nonlinear * 100), QObject::tr("Nonlinear share"), 0, 100,
                   [run](Project& p, double v) { run(p).nonlinear = v / 100; });
            rare(now.nonlinear == 0);
        }
        yesNo(QObject::tr("Nipple"), now.nipple, QObject::tr("Nipple"),
              [run](Project& p, bool v) { run(p).nipple = v; });
        rare(!now.nipple);
        yesNo(QObject::tr("Isolated ground"), now.isolatedGround, QObject::tr("Isolated ground"),
              [run](Project& p, bool v) { run(p).isolatedGround = v; });
        rare(!now.isolatedGround);
    }

    void runRows(const RunResult& r, const Run* entered, std::function<Run&(Project&)> run) {
        if (r.size < 0 && r.need.required.v <= 0) return;
        const Basis& b = sol.project.basis;
        FactRow& size = choice(QObject::tr("Conductors"), q(conductorWords(r, *sol.book)), sizeChoices(r.need.material),
                               QObject::tr("Hold conductor size"), [run](Project& p, const QString& t) {
                                   return refusal(enterRunSize(run(p), t.toStdString()));
                               });
        size.entry->initial = r.state == Sizing::Held ? q(sol.book->sizes()[std::size_t(r.size)].name) : "auto";
        if (r.tooSmall || r.state == Sizing::NoneFits) size.colour = theme().stop;
        row(QObject::tr("Why"),
            r.state == Sizing::PastCeiling ? QObject::tr("ceiling: feed it from nearer") : q(whyWords(r)));
        const bool known = r.need.lengthKnown && !r.need.lengthAssumed;
        const QString length = known ? q(lengthWords(r.need.length, b.units)) +
                                           (r.need.across.v > 0 ? QObject::tr(", measured") : QObject::tr(", entered"))
                               : r.need.lengthAssumed
                                   ? QObject::tr("not known, counts as %1").arg(q(lengthWords(r.need.length, b.units)))
                                   : QObject::tr("not known");
        FactRow& len = row(QObject::tr("Run"), length);
        len.entry = FactRow::Entry{known ? q(lengthWords(r.need.length, b.units)) : "",
                                   {},
                                   [this_ = &s, run, units = b.units](const QString& t) -> QString {
                                       const std::string typed = t.toStdString();
                                       Run trial;
                                       if (const auto bad = enterRunLength(trial, typed, units)) return refusal(bad);
                                       const bool measured = trial.lengthBy != LengthBy::Entered;
                                       this_->edit(measured ? QObject::tr("Measure run") : QObject::tr("Run length"),
                                                   [&](Project& p) { (void)enterRunLength(run(p), typed, units); });
                                       return {};
                                   }};
        if (r.need.across.v > 0)
            row(QObject::tr("Up, over, down"),
                QString("%1 / %2 / %3")
                    .arg(q(lengthWords(r.need.up, b.units)).section(' ', 0, 0).section(QChar(0xa0), 0, 0),
                         q(lengthWords(r.need.across, b.units)).section(' ', 0, 0),
                         q(lengthWords(r.need.down, b.units))));
        if (r.need.lengthKnown) {
            FactRow& drop =
                row(QObject::tr("Drop"),
                    QString("%1 · %2 total").arg(q(percent(r.dropOwn)), q(dropWords(r.dropTotal, r.need.beforeKnown))));
            if (r.dropOwn > r.need.ownLimit || r.dropTotal > r.need.totalLimit) drop.colour = theme().stop;
            if (r.longest.v > 0) row(QObject::tr("Longest"), q(lengthWords(r.longest, b.units)));
        }
        if (!r.need.feeder) {
            const int points = entered ? entered->points : 0;
            whole(QObject::tr("Load along it"),
                  points > 1          ? QObject::tr("at %1 points, evenly").arg(points)
                  : r.need.spread < 1 ? QObject::tr("at its devices, × %1").arg(r.need.spread, 0, 'f', 2)
                                      : QObject::tr("all at its end"),
                  QString::number(points), QObject::tr("Points along the run"), 0, 1000,
                  [run](Project& p, int v) { run(p).points = v; });
            rare(points < 2);
        }
        if (sol.book->metric()) return;
        const int sharing = entered ? entered->sharing : 0;
        whole(QObject::tr("Raceway shared"),
              sharing ? QObject::tr("%1 conductors").arg(sharing) : QObject::tr("nothing"), QString::number(sharing),
              QObject::tr("Conductors sharing the raceway"), 0, 200, [run](Project& p, int v) { run(p).sharing = v; });
        rare(sharing == 0);
    }

    const Run* feederRun(Ref node, bool standby) const {
        if (const Board* b = sol.project.boards.find(node.as<Board>()))
            return sol.project.runs.find(standby ? b->alternateRun : b->run);
        if (const Transformer* t = sol.project.transformers.find(node.as<Transformer>()))
            return sol.project.runs.find(t->run);
        return nullptr;
    }

    /// Several circuits at once: what they come to together; one fact of them all is changed in a card that shows it
    /// first.
    void circuitGroup(const std::vector<CircuitId>& list) {
        double va = 0, continuous = 0;
        std::array<double, 3> lines{};
        int poles = 0;
        std::map<QString, int> kinds;
        std::set<BoardId> boards;
        for (CircuitId id : list) {
            const CircuitResult& r = sol.results.of(id);
            va += r.va, continuous += r.continuousVa, poles += sol.project.circuits[id].poles;
            for (std::size_t i = 0; i < 3; ++i) lines[i] += r.phaseVa[i];
            ++kinds[sol.project.circuits[id].use != CircuitUse::Load ? q(wordOf(sol.project.circuits[id].use))
                    : r.feeder                                       ? QObject::tr("feeder")
                                                                     : q(kindTitle(r.kind, *sol.book))];
            boards.insert(sol.project.circuits[id].board);
        }
        f.title = QObject::tr("%1 circuits").arg(list.size());
        f.about = boards.size() > 1 ? QObject::tr("on %1 boards").arg(boards.size())
                                    : q(sol.project.boards[*boards.begin()].name);
        row(QObject::tr("Together"), q(kilo(va, 2)) + " kVA");
        if (boards.size() == 1) {
            const Board& b = sol.project.boards[*boards.begin()];
            for (int i = 0; i < factsOf(b.system).lines; ++i)
                row(QObject::tr("On %1").arg(q(lineName(i, b))), q(kilo(lines[std::size_t(i)], 2)) + " kVA");
        }
        row(QObject::tr("Continuous"), q(kilo(continuous, 2)) + " kVA");
        row(QObject::tr("Poles"), QString::number(poles));
        for (const auto& [kind, n] : kinds) row(kind, QString::number(n));
        for (const CircuitFact& fact : circuitFacts()) {
            std::set<std::string> now;
            for (CircuitId id : list) now.insert(fact.read(sol.project, sol.project.circuits[id]));
            FactRow& r = row(QObject::tr(fact.title), now.size() > 1         ? QObject::tr("differ")
                                                      : now.begin()->empty() ? QString("–")
                                                                             : q(*now.begin()));
            r.seldom = now.size() == 1 && now.begin()->empty();
            r.entry = FactRow::Entry{
                now.size() == 1 ? q(*now.begin()) : QString(),
                {},
                [this_ = &s, list, key = fact.key, title = QObject::tr(fact.title),
                 first = now.size() == 1 ? q(*now.begin()) : QString()](const QString& t) -> QString {
                    if (t == first) return {};
                    Project next = this_->project();
                    int refused = 0;
                    QString why;
                    for (CircuitId id : list)
                        if (next.circuits.has(id))
                            if (const auto bad = circuitFact(key)->write(next, id, t.trimmed().toStdString())) {
                                if (!refused++) why = q(bad->where + ": " + bad->what);
                            }
                    this_->edit(QObject::tr("%1 of %2 circuits").arg(title).arg(list.size() - std::size_t(refused)),
                                [&](Project& p) { p = next; });
                    return refused ? QObject::tr("%1 refuse: %2").arg(refused).arg(why) : QString();
                }};
        }
    }

    /// How its motor is started, and what it takes then.
    void starterRows(CircuitId id, const Circuit& c) {
        choice(QObject::tr("Starter"), q(wordOf(c.starter)), words<StarterKind>(), QObject::tr("Starter"),
               [id](Project& p, const QString& t) {
                   p.circuits.change(id)->starter = *fromWord<StarterKind>(t.toStdString());
                   return QString();
               });
        const QString times = QString::number(startTimesOf(c, *sol.book));
        fact("startTimes", QObject::tr("Takes at start"),
             c.startTimes > 0 ? QObject::tr("%1 × its full load").arg(times)
                              : QObject::tr("%1 × its full load, not entered").arg(times),
             c.startTimes > 0 ? times : "auto", QObject::tr("Start current"), id);
    }
    void nameplateRows(const Load& l) {
        markedRows(l.nameplate, [id = l.id](Project& p) -> Nameplate& { return p.loads.change(id)->nameplate; });
    }
    /// What it carries.
    void circuitLoadRows(const Circuit& c) {
        const CircuitResult& r = sol.results.of(c.id);
        const CircuitId id = c.id;
        const bool none = r.nothingHangsOn();
        if (none) // it can be typed here
            fact("load", QObject::tr("Load"), QObject::tr("not entered"), "", QObject::tr("Load of circuit"), id);
        else
            row(QObject::tr("Load"), QString("%1 VA · %2 A").arg(q(lintel::number(r.va)), q(figures(r.load.v))));
        if (!r.feeder) {
            if (!none)
                row(QObject::tr("Kind"),
                    q(kindTitle(r.kind, *sol.book)) + (r.mixed ? QObject::tr(" and others") : QString()));
            if (r.points) row(QObject::tr("Points"), QString::number(r.points));
            for (const Load& l : sol.project.loads)
                if (l.circuit == id) {
                    const LoadId lid = l.id;
                    QString value = QString::number(l.amount) + " " + wordOf(l.unit) +
                                    (l.quantity != 1 ? QString(" × %1").arg(l.quantity) : "");
                    amount(q(l.tag.empty() ? l.name : l.tag), value, QString::number(l.amount) + " " + wordOf(l.unit),
                           QObject::tr("Load of circuit"),
                           [lid](Project& p, double amount, std::optional<LoadUnit> unit) {
                               return enterAmount(p, lid, amount, unit);
                           });
                    nameplateRows(l);
                }
        }
    }
    /// What opens it.
    void deviceRows(const Circuit& c) {
        const CircuitResult& r = sol.results.of(c.id);
        const CircuitId id = c.id;
        FactRow& b = fact(
            "breaker", QObject::tr("Breaker"),
            QString("%1 %2P%3%4")
                .arg(sol.book->metric() ? q(deviceWords(r, c.poles, *sol.book)) : q(lintel::number(r.device)) + " A")
                .arg(c.poles)
                .arg(c.groundFault && c.arcFault ? " · GFCI, AFCI"
                     : c.groundFault             ? " · GFCI"
                     : c.arcFault                ? " · AFCI"
                                                 : "",
                     r.deviceHeld ? QObject::tr(" · held") : QString()),
            r.deviceHeld ? QString::number(*c.heldBreaker) : "auto", QObject::tr("Hold breaker"), id);
        if (r.deviceHeld && r.device < r.required.v) b.colour = theme().stop;
        if (sol.project.boards[c.board].use == BoardUse::Busway)
            fact("along", QObject::tr("Along the busway"),
                 c.along ? QObject::tr("%1, %2 lost to there")
                               .arg(q(lengthWords(Metres{*c.along}, sol.project.basis.units)),
                                    q(dropWords(r.tap->dropOwn, r.tap->dropKnown)))
                         : QObject::tr("not entered"),
                 q(circuitFact("along")->read(sol.project, c)), QObject::tr("Place along the busway"), id);
        if (const double frame = sol.book->frameFor(r.device, c.device);
            frame > 0 && (!sol.book->metric() || r.kindOfDevice == DeviceKind::Moulded))
            row(isFuse(c.device) ? QObject::tr("Switch") : QObject::tr("Frame"), q(rating(frame)) + " A");
        QStringList devices;
        for (const auto& [kind, word] : EnumText<DeviceKind>::words)
            if (kind == DeviceKind::Breaker ||
                (sol.book->metric() ? sol.book->cables.trips.count(kind) > 0 : kind <= DeviceKind::TimeDelayFuse))
                devices << word;
        choice(QObject::tr("Kind of device"),
               sol.book->metric() && c.device == DeviceKind::Breaker
                   ? q(wordOf(r.kindOfDevice)) + QObject::tr(", usual")
                   : q(wordOf(c.device)),
               devices, QObject::tr("Kind of device"),
               [id](Project& p, const QString& t) {
                   p.circuits.change(id)->device = *fromWord<DeviceKind>(t.toStdString());
                   return QString();
               })
            .entry->initial = q(wordOf(c.device));
        rare(c.device == DeviceKind::Breaker && !sol.book->metric());
    }
    /// Residual-current protection and rings, of metric practice.
    void residualRows(const Circuit& c) {
        const CircuitResult& r = sol.results.of(c.id);
        const CircuitId id = c.id;
        const double watched = sol.results.run(c.id) ? double(sol.results.run(c.id)->need.cable->residual) : 0;
        fact("residual", QObject::tr("RCD"),
             c.residual > 0 ? QString("%1 mA").arg(c.residual)
             : watched > 0  ? QObject::tr("%1 mA, its section").arg(watched)
                            : QObject::tr("none"),
             QString::number(c.residual), QObject::tr("Residual-current device"), id);
        const ResidualType type =
            sol.results.run(c.id) ? sol.results.run(c.id)->need.cable->residualType : c.residualType;
        choice(QObject::tr("RCD type"),
               q(wordOf(type)) + (c.residual <= 0 && watched > 0 ? QObject::tr(", its section") : QString()),
               words<ResidualType>(), QObject::tr("Type of residual-current device"),
               [id](Project& p, const QString& t) {
                   Circuit& x = *p.circuits.change(id);
                   if (x.residual <= 0)
                       return QObject::tr("the circuit has no residual-current device of its own: enter it, or "
                                          "change it at the section");
                   x.residualType = *fromWord<ResidualType>(t.toStdString());
                   return QString();
               })
            .entry->initial = q(wordOf(type));
        rare(watched <= 0);
        if (!r.feeder) {
            yesNo(QObject::tr("Ring"), c.ring, QObject::tr("Ring"),
                  [id](Project& p, bool v) { p.circuits.change(id)->ring = v; });
            rare(!c.ring && r.kind != LoadKind::Receptacle);
        }
    }
    /// What its device can break, against what is available.
    void breaksRow(const Circuit& c) {
        const CircuitId id = c.id;
        const FaultPoint& fault = startOf(sol.results, c).fault;
        const Board& board = sol.project.boards[c.board];
        if (fault.known) {
            FactRow& ka = number(
                "kA", QObject::tr("Breaks"),
                QString("%1 of %2 kA%3")
                    .arg(q(faultWords(fault)), q(figures(c.heldKA.value_or(board.ratingKA))),
                         c.heldKA ? QObject::tr(" · held") : QString()),
                c.heldKA ? QString::number(*c.heldKA) : "auto", QObject::tr("Interrupting rating"), 1, 300,
                [id](Project& p, double v) { p.circuits.change(id)->heldKA = v; },
                [id](Project& p) { p.circuits.change(id)->heldKA.reset(); });
            if (faultExceeds(largestFault(sol.project, sol.results, c).kA, holdsKA(board, c))) ka.colour = theme().stop;
        }
    }
    /// The run of what hangs on it.
    void branchRunRows(const Circuit& c) {
        const CircuitResult& r = sol.results.of(c.id);
        const CircuitId id = c.id;
        runRows(r.run, sol.project.runs.find(c.run), [id](Project& p) -> Run& { return runOf(p, id); });
        const Run* run = sol.project.runs.find(c.run);
        choice(QObject::tr("Drop judged on"), q(wordOf(run ? run->dropBasis : DropBasis::Default)), words<DropBasis>(),
               QObject::tr("Basis of drop"), [id](Project& p, const QString& t) {
                   runOf(p, id).dropBasis = *fromWord<DropBasis>(t.toStdString());
                   return QString();
               });
    }
    /// The run of what it feeds, and what its device lets through.
    void feederRunRows(const Circuit& c) {
        const CircuitResult& r = sol.results.of(c.id);
        const CircuitId id = c.id;
        if (r.standby) row(QObject::tr("Carries"), QObject::tr("nothing, until it takes over"));
        runRows(*sol.results.run(c.id), feederRun(r.feeds, r.standby),
                [id](Project& p) -> Run& { return runOf(p, id); });
        number(
            "kA", QObject::tr("Lets through"),
            c.letThroughKA ? QString("%1 kA").arg(*c.letThroughKA) : QObject::tr("not limiting"),
            c.letThroughKA ? QString::number(*c.letThroughKA) : "auto", QObject::tr("Let-through of device"), 0.1, 300,
            [id](Project& p, double v) { p.circuits.change(id)->letThroughKA = v; },
            [id](Project& p) { p.circuits.change(id)->letThroughKA.reset(); });
        if (c.letThroughKA)
            text(QObject::tr("By which data"), q(c.letThroughData), QObject::tr("Data of the let-through"),
                 [id](Project& p, const std::string& t) { p.circuits.change(id)->letThroughData = t; });
        rare(!c.letThroughKA);
    }
    /// What its device lets through in a fault, by its maker.
    void energyRow(const Circuit& c) {
        const CircuitId id = c.id;
        number(
            "A²s", QObject::tr("I²t let through"),
            c.letThroughEnergy ? QString("%1 A²s").arg(q(lintel::number(*c.letThroughEnergy)))
                               : QObject::tr("at most by its class"),
            c.letThroughEnergy ? QString::number(*c.letThroughEnergy) : "auto", QObject::tr("Energy let through"), 1,
            1e9, [id](Project& p, double v) { p.circuits.change(id)->letThroughEnergy = v; },
            [id](Project& p) { p.circuits.change(id)->letThroughEnergy.reset(); });
        rare(!c.letThroughEnergy);
    }
    /// How its run is measured, and how its load counts.
    void measureRows(const Circuit& c) {
        const CircuitResult& r = sol.results.of(c.id);
        const CircuitId id = c.id;
        const Run* run = sol.project.runs.find(c.run);
        choice(QObject::tr("Length by"), q(wordOf(run ? run->lengthBy : LengthBy::Reach)), words<LengthBy>(),
               QObject::tr("How the run is measured"),
               [id, now = r.run.need.lengthKnown ? r.run.need.length.v : 0.0](Project& p, const QString& t) {
                   Run& x = runOf(p, id);
                   const LengthBy by = *fromWord<LengthBy>(t.toStdString());
                   if (by == x.lengthBy) return QString();
                   if (by == LengthBy::Entered && now <= 0) return QObject::tr("type its length at Run");
                   if (by == LengthBy::Traced && x.trace.size() < 2)
                       return QObject::tr("trace it on the plan first: G");
                   if (by == LengthBy::Entered) x.length = now; // goes on from what was measured
                   x.lengthBy = by;
                   return QString();
               });
        if (!sol.project.trays.empty()) {
            choice(QObject::tr("Route"), q(wordOf(run ? run->route : RouteBy::Auto)), words<RouteBy>(),
                   QObject::tr("Route of run"), [id](Project& p, const QString& t) {
                       const RouteBy route = *fromWord<RouteBy>(t.toStdString());
                       if (const Run* now_ = p.runs.find(p.circuits[id].run); now_ && now_->route == route)
                           return QString();
                       runOf(p, id).route = route;
                       return QString();
                   });
            rare(!run || run->route == RouteBy::Auto);
        }
        fact("factor", QObject::tr("Own factor"), QString::number(c.factor), QString::number(c.factor),
             QObject::tr("Demand factor of circuit"), id);
        rare(c.factor == 1);
        if (!sol.book->metric())
            choice(QObject::tr("Device rated"), c.fullRated ? QObject::tr("100 %") : QObject::tr("80 %"),
                   {QObject::tr("80 %"), QObject::tr("100 %")}, QObject::tr("Rating of device"),
                   [id](Project& p, const QString& t) {
                       p.circuits.change(id)->fullRated = t == QObject::tr("100 %");
                       return QString();
                   });
        if (!sol.book->metric()) rare(!c.fullRated);
    }
    /// Protection of people, and how its run is laid.
    void protectionRows(const Circuit& c) {
        const CircuitResult& r = sol.results.of(c.id);
        const CircuitId id = c.id;
        if (!sol.book->metric())
            choice(QObject::tr("Protects people"),
                   c.groundFault && c.arcFault ? "GFCI and AFCI"
                   : c.groundFault             ? "GFCI"
                   : c.arcFault                ? "AFCI"
                                               : QObject::tr("no"),
                   {QObject::tr("no"), "GFCI", "AFCI", "GFCI and AFCI"},
                   QObject::tr("Ground- and arc-fault protection"), [id](Project& p, const QString& t) {
                       p.circuits.change(id)->groundFault = t.contains("GFCI");
                       p.circuits.change(id)->arcFault = t.contains("AFCI");
                       return QString();
                   });
        if (!sol.book->metric()) rare(!c.groundFault && !c.arcFault);
        text(QObject::tr("Left out because"), q(c.unprotected), QObject::tr("Reason for leaving protection out"),
             [id](Project& p, const std::string& t) { p.circuits.change(id)->unprotected = t; });
        rare(c.unprotected.empty());
        if (c.poles == 1 && !sol.book->metric())
            fact("multiwire", QObject::tr("Multiwire group"),
                 c.multiwire ? QString::number(c.multiwire) : QObject::tr("none"), QString::number(c.multiwire),
                 QObject::tr("Multiwire group"), id);
        if (c.poles == 1 && !sol.book->metric()) rare(c.multiwire == 0);
        fact("bundle", QObject::tr("Bundle"), c.bundle ? QString::number(c.bundle) : QObject::tr("alone"),
             QString::number(c.bundle), QObject::tr("Home runs in one raceway"), id);
        rare(c.bundle == 0);
        layingRows(r.run, c.id, sol.project.runs.find(c.run), [id](Project& p) -> Run& { return runOf(p, id); });
    }
    /// What it belongs together with, and what is written of it.
    void belongingRows(const Circuit& c) {
        const CircuitId id = c.id;
        choice(QObject::tr("Pinned"), c.pinned ? "yes" : "no", {"no", "yes"}, QObject::tr("Pin"),
               [id](Project& p, const QString& t) {
                   p.circuits.change(id)->pinned = t == "yes";
                   return QString();
               });
        if (c.tie || c.kept)
            fact("tie", QObject::tr("Tie"), c.tie ? QString::number(c.tie) : QObject::tr("none"),
                 QString::number(c.tie), QObject::tr("Tie of handles"), id);
        fact("kept", QObject::tr("Kept together"), c.kept ? QString::number(c.kept) : QObject::tr("no"),
             QString::number(c.kept), QObject::tr("Kept together"), id);
        rare(c.kept == 0);
        text(QObject::tr("Note"), q(c.note), QObject::tr("Note"),
             [id](Project& p, const std::string& t) { p.circuits.change(id)->note = t; });
        ownTextsRow(c.texts, [id](Project& p) -> OwnTexts& { return p.circuits.change(id)->texts; });
    }
    void circuit(const Circuit& c) {
        const CircuitResult& r = sol.results.of(c.id);
        const CircuitId id = c.id;
        f.title = q(nameOf(sol.project, c.id));
        f.about = q(servesWords(sol.project, sol.results, c.id));
        if (!r.feeder)
            text(QObject::tr("Serves"), q(c.name), QObject::tr("Describe circuit"),
                 [id](Project& p, const std::string& t) { p.circuits.change(id)->name = t; });
        const bool load = c.use == CircuitUse::Load, branch = load && !r.feeder, metric = sol.book->metric();
        if (load) circuitLoadRows(c);
        deviceRows(c);
        if (metric && load) residualRows(c);
        breaksRow(c);
        if (r.largestMotorVa > 0 || c.starter != StarterKind::Unsaid) starterRows(id, c);
        choice(QObject::tr("Poles"), QString::number(c.poles), {"1", "2", "3"}, QObject::tr("Poles of circuit"),
               [id](Project& p, const QString& t) -> QString {
                   if (const auto bad = setPoles(p, id, t.toInt())) return q(bad->what);
                   return {};
               });
        if (branch) branchRunRows(c);
        if (r.feeder) feederRunRows(c);
        if (metric) energyRow(c);
        if (branch) {
            measureRows(c);
            protectionRows(c);
        }
        belongingRows(c);
    }

    /// Texts under headings of the designer's own, for columns of schedules.
    using OwnTexts = std::map<std::string, std::string>;
    void ownTextsRow(const OwnTexts& texts, const std::function<OwnTexts&(Project&)>& of) {
        const QString now = q(ownTextsLine(texts));
        FactRow& line = row(QObject::tr("Own columns"), now.isEmpty() ? QObject::tr("none") : now);
        line.entry = FactRow::Entry{now,
                                    {},
                                    [this_ = &s, texts, of](const QString& t) -> QString {
                                        OwnTexts trial = texts;
                                        if (const auto bad = setOwnTexts(trial, t.toStdString()))
                                            return q(bad->what + ". " + bad->help);
                                        this_->edit(QObject::tr("Own columns"), [&](Project& p) { of(p) = trial; });
                                        return {};
                                    },
                                    {},
                                    QObject::tr("Tag: K-4; Panel: left")};
        rare(texts.empty());
    }

    void board(const Board& b) {
        const BoardResult& r = sol.results.of(b.id);
        const BoardId id = b.id;
        const bool passing = passesOn(b.use);
        f.title = q(b.name);
        f.about = b.description.empty() && passing ? q(equipmentWords(b)) : q(b.description);
        text(QObject::tr("Name"), q(b.name), QObject::tr("Rename board"), [id](Project& p, const std::string& t) {
            if (!t.empty()) p.boards.change(id)->name = t;
        });
        text(QObject::tr("About"), q(b.description), QObject::tr("Describe board"),
             [id](Project& p, const std::string& t) { p.boards.change(id)->description = t; });
        system(
            QObject::tr("System"), b.system, QObject::tr("System of board"),
            [id](Project& p, VoltageSystem v) { p.boards.change(id)->system = v; }, passing);
        number("A", passing ? QObject::tr("Rated") : QObject::tr("Bus"), q(lintel::number(b.bus)) + " A",
               QString::number(b.bus), QObject::tr("Bus rating"), 1, 10000,
               [id](Project& p, double v) { p.boards.change(id)->bus = v; });
        number("A", passing ? QObject::tr("Device in it") : QObject::tr("Main"),
               b.main > 0 ? q(lintel::number(b.main)) + " A"
               : passing  ? QObject::tr("none")
                          : QObject::tr("lugs only"),
               QString::number(b.main), QObject::tr("Main device"), 0, 10000,
               [id](Project& p, double v) { p.boards.change(id)->main = v; });
        FactRow& ka = number("kA", QObject::tr("Rating"), q(figures(b.ratingKA)) + " kA", QString::number(b.ratingKA),
                             QObject::tr("Short-circuit rating"), 0.5, 300,
                             [id](Project& p, double v) { p.boards.change(id)->ratingKA = v; });
        if (faultExceeds(largestFault(sol.project, sol.results, id).kA, holdsKA(b))) ka.colour = theme().stop;
        number("kA", QObject::tr("Series pair"), b.seriesKA > 0 ? q(figures(b.seriesKA)) + " kA" : QObject::tr("none"),
               QString::number(b.seriesKA), QObject::tr("Tested series pair"), 0, 300,
               [id](Project& p, double v) { p.boards.change(id)->seriesKA = v; });
        if (b.seriesKA > 0)
            text(QObject::tr("Tested devices"), b.seriesDevices.empty() ? "" : q(b.seriesDevices),
                 QObject::tr("Devices of the series pair"),
                 [id](Project& p, const std::string& t) { p.boards.change(id)->seriesDevices = t; });
        rare(b.seriesKA == 0);
        number(
            "kA", QObject::tr("Fault level"),
            r.fault.known
                ? QString("%1 kA%2").arg(q(faultWords(r.fault))).arg(b.givenKA ? QObject::tr(", given") : QString())
                : QObject::tr("not known"),
            b.givenKA ? QString::number(*b.givenKA) : "auto", QObject::tr("Fault level given"), 0.01, 500,
            [id](Project& p, double v) { p.boards.change(id)->givenKA = v; },
            [id](Project& p) { p.boards.change(id)->givenKA.reset(); });
        if (r.fault.known)
            row(QObject::tr("Peak, X/R"),
                QString("%1 kA, %2").arg(q(figures(r.fault.peak())), q(figures(r.fault.xOverR()))));
        if (passing)
            equipment(b);
        else
            places(b, r);
        text(QObject::tr("Enclosure"), q(b.enclosure), QObject::tr("Enclosure of board"),
             [id](Project& p, const std::string& t) { p.boards.change(id)->enclosure = t; });
        rare(b.enclosure.empty());
        choice(QObject::tr("Mounting"), q(wordOf(b.mounting)), words<Mounting>(), QObject::tr("Mounting of board"),
               [id](Project& p, const QString& t) {
                   p.boards.change(id)->mounting = *fromWord<Mounting>(t.toStdString());
                   return QString();
               });
        rare(b.mounting == Mounting::Surface);
        const RoomId room = b.onPlan ? roomAt(sol.project, b.level, b.at) : RoomId{};
        text(QObject::tr("Location"), b.location.empty() && room ? q(nameOf(sol.project, Ref(room))) : q(b.location),
             QObject::tr("Location of board"),
             [id](Project& p, const std::string& t) { p.boards.change(id)->location = t; });
        rare(b.location.empty());
        if (sol.book->metric()) {
            if (r.fault.known) row(QObject::tr("Zs here"), QString("%1 Ω").arg(magnitude(r.fault.loop), 0, 'f', 3));
            if (!passing) {
                text(QObject::tr("Surges"), q(b.surge), QObject::tr("Surge protection"),
                     [id](Project& p, const std::string& t) { p.boards.change(id)->surge = t; });
                rare(b.surge.empty());
            }
        }
        row(QObject::tr("Connected"), q(kilo(r.connected)) + " kVA");
        row(QObject::tr("Demand"), QString("%1 kVA · %2").arg(q(kilo(r.demand)), q(demandWords(r, b))));
        FactRow& used = row(QObject::tr("Used"), q(percent(r.use * 100)));
        if (r.use > 1) used.colour = theme().stop;
        const double spare = mostAmps(b) - demandOf(r);
        row(QObject::tr("Left"), QString("%1 A").arg(q(figures(std::max(0.0, spare)))));
        const std::vector<Ref> able = ableToFeed(id);
        feedRow(id, able);
        alternateRows(b, able);
        if (r.parent) {
            runRows(r.run, sol.project.runs.find(b.run), [id](Project& p) -> Run& { return runOfNode(p, id); });
            layingRows(r.run, id, sol.project.runs.find(b.run), [id](Project& p) -> Run& { return runOfNode(p, id); });
            if (r.supply) {
                const Bonding bond = bondingOf(r.run, sol.project.basis.electrodeMaterial, *sol.book);
                if (bond.jumper >= 0) row(q(sol.book->word(TradeWord::Bonding)), q(sizeWords(*sol.book, bond.jumper)));
                const bool own = !r.supply.is<Source>() || separatelyDerived(sol.project, r.supply.as<Source>());
                if (bond.electrode >= 0 && own && (!passing || b.main > 0))
                    row(q(sol.book->word(TradeWord::ToElectrode)),
                        (bond.electrodes > 1 ? QString("%1 × ").arg(bond.electrodes) : QString()) +
                            q(sizeWords(*sol.book, bond.electrode)));
            }
        }
    }

    /// What passes on: its kind among its own, and what only such a thing has.
    void equipment(const Board& b) {
        const BoardId id = b.id;
        QStringList kinds;
        for (const auto& [use, word] : EnumText<BoardUse>::words)
            if (passesOn(use)) kinds << q(word);
        choice(QObject::tr("Kind"), q(wordOf(b.use)), kinds, QObject::tr("Kind of equipment"),
               [id](Project& p, const QString& t) {
                   p.boards.change(id)->use = *fromWord<BoardUse>(t.toStdString());
                   return QString();
               });
        if (b.use == BoardUse::Ups) upsRows(b);
        if (b.use == BoardUse::TransferSwitch)
            choice(QObject::tr("Neutral"),
                   b.switchesNeutral ? QObject::tr("changes over too") : QObject::tr("goes through"),
                   {QObject::tr("goes through"), QObject::tr("changes over too")}, QObject::tr("Neutral of the switch"),
                   [id](Project& p, const QString& t) {
                       p.boards.change(id)->switchesNeutral = t == QObject::tr("changes over too");
                       return QString();
                   });
    }

    /// What a UPS gives, what is behind it, and what it takes beside.
    void upsRows(const Board& b) {
        const BoardId id = b.id;
        const UpsLoad& load = *sol.results.of(id).ups;
        const QString unsaid = QObject::tr("not entered");
        number("kVA", QObject::tr("Gives"), b.kva > 0 ? q(rating(b.kva)) + " kVA" : unsaid, QString::number(b.kva),
               QObject::tr("Rating of the UPS"), 0, 1e5, [id](Project& p, double v) { p.boards.change(id)->kva = v; });
        number("kW", QObject::tr("And no more than"), b.kw > 0 ? q(rating(b.kw)) + " kW" : unsaid,
               QString::number(b.kw), QObject::tr("Real power of the UPS"), 0, 1e5,
               [id](Project& p, double v) { p.boards.change(id)->kw = v; });
        FactRow& behind = row(QObject::tr("Behind it"),
                              QObject::tr("%1 kVA, %2 kW").arg(q(kilo(magnitude(load.out))), q(kilo(load.out.real()))));
        const bool over = b.kva > 0 && magnitude(load.out) > b.kva * 1000 * 1.0005;
        if (over || (b.kw > 0 && load.out.real() > b.kw * 1000 * 1.0005)) behind.colour = theme().stop;
        number("%", QObject::tr("Efficiency"), b.efficiency > 0 ? q(percent(b.efficiency * 100)) : unsaid,
               QString::number(b.efficiency * 100), QObject::tr("Efficiency of the UPS"), 0, 100,
               [id](Project& p, double v) { p.boards.change(id)->efficiency = v / 100; });
        number("kW", QObject::tr("Charging takes"), b.rechargeKW > 0 ? q(figures(b.rechargeKW)) + " kW" : unsaid,
               QString::number(b.rechargeKW), QObject::tr("Charging of the battery"), 0, 1e5,
               [id](Project& p, double v) { p.boards.change(id)->rechargeKW = v; });
        number("A", QObject::tr("Into a fault, on battery"), b.inverterA > 0 ? q(figures(b.inverterA)) + " A" : unsaid,
               QString::number(b.inverterA), QObject::tr("What the UPS gives into a fault"), 0, 1e6,
               [id](Project& p, double v) { p.boards.change(id)->inverterA = v; });
        if (load.losses > 0) row(QObject::tr("Takes beside"), q(kilo(load.losses)) + " kW");
    }

    /// A busway's bars, as its maker gives them.
    void barRows(const Board& b) {
        const BoardId id = b.id;
        FactRow& metres = length(QObject::tr("Length"), b.barLength, QObject::tr("Length of the busway"), 0, 10000,
                                 [id](Project& p, double m) { p.boards.change(id)->barLength = m; });
        if (b.barLength <= 0) metres.value = QObject::tr("not entered");
        const auto bar = [&](const QString& label, double Board::*field) {
            const double now = b.*field;
            number("mΩ/m", label, now > 0 ? QString("%1 mΩ/m").arg(now) : QObject::tr("not entered"),
                   QString::number(now), label, 0, 1000,
                   [id, field](Project& p, double v) { p.boards.change(id)->*field = v; });
        };
        bar(QObject::tr("R at 20 °C"), &Board::barR20);
        bar(QObject::tr("R when loaded"), &Board::barR);
        bar(QObject::tr("X"), &Board::barX);
        bar(QObject::tr("Loop to earth, R"), &Board::barLoopR20);
        bar(QObject::tr("Loop to earth, X"), &Board::barLoopX);
    }

    /// What takes over when the feed fails, its conductors, and what it comes to.
    void alternateRows(const Board& b, const std::vector<Ref>& able) {
        const BoardId id = b.id;
        const QString nothing = QObject::tr("nothing");
        QStringList takers{nothing};
        std::map<QString, Ref> byName;
        for (Ref from : able) {
            const QString name = q(nameOf(sol.project, from));
            if (from == b.feed || from.is<Transformer>() || takers.contains(name)) continue;
            takers << name;
            byName[name] = from;
        }
        Ref from = b.alternate;
        if (const Circuit* c = sol.project.circuits.find(from.as<Circuit>())) from = c->board;
        const QString now = from ? q(nameOf(sol.project, from)) : nothing;
        if (!takers.contains(now)) takers << now;
        choice(QObject::tr("Taken over by"), b.alternate ? q(nameOf(sol.project, b.alternate)) : nothing, takers,
               QObject::tr("What takes over"),
               [id, now, byName](Project& p, const QString& t) {
                   if (t == now) return QString();
                   const auto it = byName.find(t);
                   alternateFrom(p, id, it == byName.end() ? Ref() : it->second);
                   return QString();
               })
            .entry->initial = now;
        rare(!b.alternate && b.use != BoardUse::TransferSwitch);
        for (const StateSolution* state : statesOf(sol.project, sol.results, id)) {
            const NodeResult& on = *state->results.node(id);
            row(QObject::tr("On %1").arg(q(nameOf(sol.project, state->source))),
                on.fault.known
                    ? QString("%1 kA · %2").arg(q(faultWords(on.fault)), q(dropWords(on.dropTotal, on.dropKnown)))
                    : QObject::tr("not fed"));
        }
        if (!b.alternate || !sol.results.of(id).alternateRun) return;
        row(QObject::tr("ALTERNATE"), QObject::tr("from %1").arg(now));
        runRows(*sol.results.of(id).alternateRun, sol.project.runs.find(b.alternateRun),
                [id](Project& p) -> Run& { return alternateRunOf(p, id); });
        row(QObject::tr("NORMAL"), sol.results.of(id).parent
                                       ? QObject::tr("from %1").arg(q(nameOf(sol.project, sol.results.of(id).parent)))
                                       : nothing);
    }

    /// How many circuits it holds, and how they are arranged.
    void places(const Board& b, const BoardResult& r) {
        const BoardId id = b.id;
        sizeRow(b);
        choice(QObject::tr("Form"), q(wordOf(b.form)), words<BoardForm>(), QObject::tr("Form of board"),
               [id](Project& p, const QString& t) {
                   const BoardForm form = *fromWord<BoardForm>(t.toStdString());
                   const int slots = form == BoardForm::Ways ? (p.boards[id].slots + 2) / 3 * 3 : p.boards[id].slots;
                   if (form != p.boards[id].form) applyResize(p, id, planResize(p, id, slots, form));
                   return QString();
               });
        rare(true);
        QStringList uses; // those that hold circuits
        for (const auto& [use, word] : EnumText<BoardUse>::words)
            if (!passesOn(use)) uses << q(word);
        choice(QObject::tr("Use"), q(wordOf(b.use)), uses, QObject::tr("Use of board"),
               [id](Project& p, const QString& t) {
                   p.boards.change(id)->use = *fromWord<BoardUse>(t.toStdString());
                   return QString();
               });
        rare(b.use == BoardUse::Panelboard);
        if (b.use == BoardUse::Busway) barRows(b);
        choice(QObject::tr("Lugs"), q(wordOf(b.lugs)), words<Lugs>(), QObject::tr("Lugs of board"),
               [id](Project& p, const QString& t) {
                   p.boards.change(id)->lugs = *fromWord<Lugs>(t.toStdString());
                   return QString();
               });
        rare(b.lugs == Lugs::None);
        number("%", QObject::tr("Stays free"),
               b.reservedShare > 0 ? QObject::tr("%1 % of its places").arg(q(lintel::number(b.reservedShare * 100)))
                                   : QObject::tr("nothing"),
               QString::number(b.reservedShare * 100), QObject::tr("Reserved share"), 0, 100,
               [id](Project& p, double v) { p.boards.change(id)->reservedShare = v / 100; });
        rare(b.reservedShare == 0);
        QStringList left;
        for (const std::string& k : b.leftKinds) left << q(k);
        FactRow& sides =
            row(QObject::tr("Kept at the left"), left.isEmpty() ? QObject::tr("nothing") : left.join(", "));
        sides.entry = FactRow::Entry{
            left.join(", "), {}, [this_ = &s, id](const QString& t) -> QString {
                std::vector<std::string> kinds;
                for (const QString& part : t.split(QRegularExpression("[,;]"), Qt::SkipEmptyParts)) {
                    const std::string k = part.trimmed().toLower().toStdString();
                    if (k == "nothing") continue;
                    if (!fromWord<LoadKind>(k))
                        return QObject::tr("there is no load kind “%1”; write for instance lighting, receptacle")
                            .arg(part.trimmed());
                    kinds.push_back(k);
                }
                this_->edit(QObject::tr("Kinds kept at the left"),
                            [&](Project& p) { p.boards.change(id)->leftKinds = kinds; });
                return {};
            }};
        rare(left.isEmpty());
        if (r.parent && factsOf(b.system).lines == 3) {
            QStringList lines;
            for (int i = 0; i < 3; ++i) lines << QObject::tr("%1 on %2").arg(q(lineName(0, b)), q(lineName(i, b)));
            choice(QObject::tr("Hangs with its"), lines[b.turned], lines, QObject::tr("Phases of board"),
                   [id, lines](Project& p, const QString& t) {
                       p.boards.change(id)->turned = std::max(0, int(lines.indexOf(t)));
                       return QString();
                   });
            rare(b.turned == 0);
        }
        for (const SectionSpace& space : sectionsOf(b)) {
            FactRow& left_ =
                row(space.name.empty() ? QObject::tr("%1 to %2").arg(space.from).arg(space.to) : q(space.name),
                    QObject::tr("%1 of %2 left%3")
                        .arg(space.left())
                        .arg(space.places())
                        .arg(space.left() == 0       ? QString()
                             : space.largestGap == 3 ? QObject::tr(", 3 poles fit")
                                                     : QObject::tr(", at most %1P").arg(space.largestGap)));
            if (space.left() == 0) left_.colour = theme().check;
        }
        ownTextsRow(b.texts, [id](Project& p) -> OwnTexts& { return p.boards.change(id)->texts; });
        QStringList forms;
        for (const ScheduleForm* form : formsFor(sol.project, *sol.book, b.form)) forms << q(form->name);
        choice(QObject::tr("Schedule form"), q(formOf(sol.project, *sol.book, b).name), forms,
               QObject::tr("Schedule form of board"), [this_ = &s, id](Project& p, const QString& t) {
                   const auto bad = chooseForm(p, *this_->solution().book, id, t.toStdString(), false);
                   return bad ? q(bad->text()) : QString();
               });
        rare(!b.scheduleForm);
        const std::string sections = sectionsText(sol.project, id);
        FactRow& parts = row(QObject::tr("Sections"), sections.empty() ? QObject::tr("none") : q(sections));
        parts.entry = FactRow::Entry{q(sections), {}, [this_ = &s, id](const QString& t) -> QString {
                                         Project trial = this_->project();
                                         if (const auto bad = setSections(trial, id, t.toStdString()))
                                             return q(bad->what + ". " + bad->help);
                                         this_->edit(QObject::tr("Sections of board"),
                                                     [&](Project& p) { setSections(p, id, t.toStdString()); });
                                         return {};
                                     }};
        rare(sections.empty());
    }

    /// Places of a board; a number that does not hold all is refused with what it leaves over.
    void sizeRow(const Board& b) {
        const BoardId id = b.id;
        const bool ways = b.form == BoardForm::Ways;
        const int per = ways ? 3 : 1;
        FactRow& r = row(ways ? QObject::tr("Ways") : QObject::tr("Slots"),
                         ways ? QObject::tr("%1, %2 poles free").arg(b.slots / 3).arg(freeSlots(sol.project, id))
                              : QObject::tr("%1, %2 free").arg(b.slots).arg(freeSlots(sol.project, id)));
        r.entry = FactRow::Entry{
            QString::number(b.slots / per), {}, [this_ = &s, id, per, ways](const QString& t) -> QString {
                const auto typed = typedNumber(t.toStdString());
                const int n =
                    typed && *typed >= 1 && *typed * per <= 1200 && *typed == std::floor(*typed) ? int(*typed) : 0;
                if (n < 1) return QObject::tr("“%1” is not a number from 1 to %2").arg(t).arg(1200 / per);
                const Resize plan = planResize(this_->project(), id, n * per);
                if (!plan.left.empty()) {
                    QStringList names;
                    for (CircuitId c : plan.left)
                        if (names.size() < 4) names << q(nameOf(this_->project(), c));
                    return QObject::tr("%1 of its circuits find no place: %2%3. Size shows what would fit")
                        .arg(plan.left.size())
                        .arg(names.join(", "), int(plan.left.size()) > names.size() ? ", …" : "");
                }
                this_->edit(ways ? QObject::tr("Ways of board") : QObject::tr("Slots of board"),
                            [&](Project& p) { applyResize(p, id, plan); });
                return {};
            }};
    }
    /// Sections with the space left in each; a switchboard or motor control centre as a whole where it has none.
    std::vector<SectionSpace> sectionsOf(const Board& b) const {
        auto spaces = spaceBySection(sol.project, b.id);
        if (spaces.size() == 1 && !spaces.front().section) return {};
        return spaces;
    }

    /// Sources, transformers and boards that can feed a node. Each is asked once: a board's places are a walk over all
    /// circuits.
    std::vector<Ref> ableToFeed(Ref node) const {
        std::vector<Ref> able;
        const auto ask = [&](Ref from) {
            if (!refuseFeed(sol.project, node, from)) able.push_back(from);
        };
        for (const Source& x : sol.project.sources) ask(x.id);
        for (const Transformer& x : sol.project.transformers) ask(x.id);
        for (const Board& x : sol.project.boards) ask(x.id);
        return able;
    }

    void feedRow(Ref node, const std::vector<Ref>& able) {
        const NodeResult& r = *sol.results.node(node);
        QStringList choices{QObject::tr("nothing")};
        for (Ref from : able) choices << q(nameOf(sol.project, from));
        const QString byLugs = QObject::tr(", by its lugs");
        if (node.is<Board>())
            for (const Board& x : sol.project.boards)
                if (x.lugs != Lugs::None && !refuseLugs(sol.project, node.as<Board>(), x.id))
                    choices << q(x.name) + byLugs;
        const QString now =
            r.parent ? q(nameOf(sol.project, r.parent)) + (r.parent.is<Board>() && !r.via ? byLugs : QString())
                     : QObject::tr("nothing");
        if (!choices.contains(now)) choices << now;
        FactRow& fr = choice(QObject::tr("Fed from"), r.via ? q(nameOf(sol.project, r.via)) : now, choices,
                             QObject::tr("Feed %1").arg(q(nameOf(sol.project, node))),
                             [node, now, byLugs](Project& p, const QString& t) -> QString {
                                 if (t == now) return {};
                                 if (t.endsWith(byLugs)) {
                                     for (const Board& x : p.boards)
                                         if (q(x.name) + byLugs == t) {
                                             if (auto bad = refuseLugs(p, node.as<Board>(), x.id)) return q(bad->what);
                                             const BoardId from = x.id;
                                             return feedByLugs(p, node.as<Board>(), from), QString();
                                         }
                                 }
                                 if (t == QObject::tr("nothing")) {
                                     clearFeed(p, node);
                                     return {};
                                 }
                                 Ref from;
                                 for (const Source& x : p.sources)
                                     if (q(x.name) == t) from = x.id;
                                 for (const Transformer& x : p.transformers)
                                     if (q(x.name) == t) from = x.id;
                                 for (const Board& x : p.boards)
                                     if (q(x.name) == t) from = x.id;
                                 if (!from) return QObject::tr("there is nothing called %1").arg(t);
                                 if (auto bad = refuseFeed(p, node, from)) return q(bad->what);
                                 feedFrom(p, node, from);
                                 return {};
                             });
        fr.entry->initial = now;
    }

    void transformer(const Transformer& t) {
        const TransformerResult& r = sol.results.of(t.id);
        const TransformerId id = t.id;
        f.title = q(t.name);
        f.about = QObject::tr("dry-type, %1 – %2 V").arg(q(wordOf(t.primary)), q(wordOf(t.secondary)));
        text(QObject::tr("Name"), q(t.name), QObject::tr("Rename transformer"), [id](Project& p, const std::string& x) {
            if (!x.empty()) p.transformers.change(id)->name = x;
        });
        number("kVA", QObject::tr("Rating"), q(rating(t.kva)) + " kVA", QString::number(t.kva),
               QObject::tr("Transformer rating"), 0.1, 1e5,
               [id](Project& p, double v) { p.transformers.change(id)->kva = v; });
        number("%", QObject::tr("Impedance"), QString("%1 %Z").arg(t.percentZ), QString::number(t.percentZ),
               QObject::tr("Impedance"), 0.1, 100,
               [id](Project& p, double v) { p.transformers.change(id)->percentZ = v; });
        number("", QObject::tr("X/R"), QString::number(t.xOverR), QString::number(t.xOverR), QObject::tr("X/R"), 0, 100,
               [id](Project& p, double v) { p.transformers.change(id)->xOverR = v; });
        system(
            QObject::tr("Primary"), t.primary, QObject::tr("Primary voltage"),
            [id](Project& p, VoltageSystem v) { p.transformers.change(id)->primary = v; }, true);
        system(
            QObject::tr("Secondary"), t.secondary, QObject::tr("Secondary voltage"),
            [id](Project& p, VoltageSystem v) { p.transformers.change(id)->secondary = v; }, false);
        FactRow& used =
            row(QObject::tr("Demand"), QString("%1 kVA · %2").arg(q(kilo(r.demand)), q(percent(r.use * 100))));
        if (r.use > 1) used.colour = theme().stop;
        row(QObject::tr("Rated current"),
            QString("%1 A / %2 A").arg(q(figures(r.primaryAmps.v)), q(figures(r.secondaryAmps.v))));
        row(QObject::tr("Fault, load side"),
            r.secondary.known ? q(figures(r.secondary.worst())) + " kA" : QObject::tr("not known"));
        choice(QObject::tr("Drop below it"), t.restartsDrop ? QObject::tr("starts again") : QObject::tr("goes on"),
               {QObject::tr("starts again"), QObject::tr("goes on")}, QObject::tr("Drop below transformer"),
               [id](Project& p, const QString& x) {
                   p.transformers.change(id)->restartsDrop = x == QObject::tr("starts again");
                   return QString();
               });
        if (!t.restartsDrop)
            number("%", QObject::tr("Taps raise by"), q(percent(t.boost)), QString::number(t.boost),
                   QObject::tr("Taps of transformer"), -20, 20,
                   [id](Project& p, double v) { p.transformers.change(id)->boost = v; });
        feedRow(id, ableToFeed(id));
        if (r.parent) {
            runRows(r.run, sol.project.runs.find(t.run), [id](Project& p) -> Run& { return runOfNode(p, id); });
            layingRows(r.run, id, sol.project.runs.find(t.run), [id](Project& p) -> Run& { return runOfNode(p, id); });
        }
    }

    void source(const Source& x) {
        const SourceResult& r = sol.results.of(x.id);
        const SourceId id = x.id;
        f.title = q(x.name);
        f.about = q(systemWords(x.system));
        text(QObject::tr("Name"), q(x.name), QObject::tr("Rename source"),
             [id](Project& p, const std::string& t) { p.sources.change(id)->name = t; });
        system(
            QObject::tr("System"), x.system, QObject::tr("Service voltage"),
            [id](Project& p, VoltageSystem v) { p.sources.change(id)->system = v; }, true);
        choice(QObject::tr("Given by"), q(wordOf(x.kind)), words<SourceKind>(), QObject::tr("How the supply is given"),
               [id](Project& p, const QString& t) {
                   p.sources.change(id)->kind = *fromWord<SourceKind>(t.toStdString());
                   return QString();
               });
        if (x.kind == SourceKind::ExistingBoard)
            number("kA", QObject::tr("Line–neutral"),
                   x.faultLN > 0 ? q(figures(x.faultLN)) + " kA" : QObject::tr("as three-phase"),
                   QString::number(x.faultLN), QObject::tr("Line–neutral fault level"), 0, 500,
                   [id](Project& p, double v) { p.sources.change(id)->faultLN = v; });
        if (x.kind == SourceKind::Generator) {
            number("kVA", QObject::tr("Generator"), q(rating(x.kva)) + " kVA", QString::number(x.kva),
                   QObject::tr("Generator"), 1, 1e5, [id](Project& p, double v) { p.sources.change(id)->kva = v; });
            number("%", QObject::tr("Subtransient"), QString("%1 %").arg(x.subtransient),
                   QString::number(x.subtransient), QObject::tr("Subtransient reactance"), 0.1, 100,
                   [id](Project& p, double v) { p.sources.change(id)->subtransient = v; });
            number("", QObject::tr("Peak share"), QString("× %1").arg(x.peakShare), QString::number(x.peakShare),
                   QObject::tr("What it gives for a moment"), 0.1, 20,
                   [id](Project& p, double v) { p.sources.change(id)->peakShare = v; });
            FactRow& taken = row(QObject::tr("Takes over"),
                                 QString("%1 kVA · %2").arg(q(kilo(r.standby)), q(percent(r.used * 100))));
            if (r.used > 1) taken.colour = theme().stop;
            FactRow& peak = row(QObject::tr("Largest start"),
                                QString("%1 kVA of %2").arg(q(kilo(r.peak)), q(figures(x.kva * x.peakShare))));
            if (r.peak > x.kva * x.peakShare * 1000) peak.colour = theme().check;
            row(QObject::tr("Fault level"), q(faultWords(r.fault)) + " kA");
        } else if (x.kind == SourceKind::FaultLevel || x.kind == SourceKind::ExistingBoard)
            number("kA", QObject::tr("Fault level"), q(figures(x.faultKA)) + " kA", QString::number(x.faultKA),
                   QObject::tr("Fault level"), 0.01, 500,
                   [id](Project& p, double v) { p.sources.change(id)->faultKA = v; });
        else {
            number("kVA", QObject::tr("Transformer"), q(lintel::number(x.kva)) + " kVA", QString::number(x.kva),
                   QObject::tr("Utility transformer"), 1, 1e5,
                   [id](Project& p, double v) { p.sources.change(id)->kva = v; });
            number("%", QObject::tr("Impedance"), QString("%1 %Z").arg(x.percentZ), QString::number(x.percentZ),
                   QObject::tr("Impedance"), 0.1, 100,
                   [id](Project& p, double v) { p.sources.change(id)->percentZ = v; });
            number(
                "MVA", QObject::tr("Utility"),
                x.utilityMVA > 0 ? QObject::tr("%1 MVA before it").arg(q(figures(x.utilityMVA)))
                                 : QObject::tr("infinite"),
                x.utilityMVA > 0 ? QString::number(x.utilityMVA) : "auto", QObject::tr("Fault level of the utility"),
                0.01, 1e6, [id](Project& p, double v) { p.sources.change(id)->utilityMVA = v; },
                [id](Project& p) { p.sources.change(id)->utilityMVA = 0; });
            if (x.utilityMVA > 0) {
                number(
                    "kV", QObject::tr("Given at"),
                    x.utilityKV > 0 ? QObject::tr("%1 kV, %2 kA")
                                          .arg(x.utilityKV)
                                          .arg(q(figures(x.utilityMVA / root3 / x.utilityKV)))
                                    : QObject::tr("not said"),
                    x.utilityKV > 0 ? QString::number(x.utilityKV) : "", QObject::tr("Voltage of the utility"), 0.1,
                    500, [id](Project& p, double v) { p.sources.change(id)->utilityKV = v; },
                    [id](Project& p) { p.sources.change(id)->utilityKV = 0; });
                if (x.utilityKV > 0)
                    number("kA", QObject::tr("Its fault level"), q(figures(x.utilityMVA / root3 / x.utilityKV)) + " kA",
                           QString::number(x.utilityMVA / root3 / x.utilityKV, 'g', 6),
                           QObject::tr("Fault level of the utility"), 0.01, 200,
                           [id, kv = x.utilityKV](Project& p, double v) {
                               p.sources.change(id)->utilityMVA = root3 * kv * v;
                           });
                number("", QObject::tr("Its X/R"), QString::number(x.utilityXR), QString::number(x.utilityXR),
                       QObject::tr("X/R of the utility"), 0, 100,
                       [id](Project& p, double v) { p.sources.change(id)->utilityXR = v; });
            }
            row(QObject::tr("Fault level"), q(faultWords(r.fault)) + " kA");
        }
        if (sol.book->metric()) {
            choice(QObject::tr("Earthing"), q(wordOf(x.earthing)), words<Earthing>(), QObject::tr("Earthing of supply"),
                   [id](Project& p, const QString& t) {
                       p.sources.change(id)->earthing = *fromWord<Earthing>(t.toStdString());
                       return QString();
                   });
            number(
                "Ω", QObject::tr("Ze"),
                x.ze > 0 ? QString("%1 Ω, given").arg(x.ze)
                         : QObject::tr("%1 Ω, worked out").arg(magnitude(r.fault.loop), 0, 'f', 4),
                x.ze > 0 ? QString::number(x.ze) : "auto", QObject::tr("Ze of supply"), 0, 10000,
                [id](Project& p, double v) { p.sources.change(id)->ze = v; },
                [id](Project& p) { p.sources.change(id)->ze = 0; });
        }
        if (sol.book->metric() && sol.book->cables.ownSubstation.total > 0) {
            yesNo(QObject::tr("Own substation"), x.ownSubstation, QObject::tr("Own substation"),
                  [id](Project& p, bool v) { p.sources.change(id)->ownSubstation = v; });
            rare(!x.ownSubstation);
        }
        if (sol.book->metric() && (x.earthing == Earthing::IT || !x.insulationMonitor.empty()))
            text(QObject::tr("Insulation"), q(x.insulationMonitor), QObject::tr("What watches the insulation"),
                 [id](Project& p, const std::string& t) { p.sources.change(id)->insulationMonitor = t; });
        number("", QObject::tr("X/R"), QString::number(x.xOverR), QString::number(x.xOverR), QObject::tr("X/R"), 0, 100,
               [id](Project& p, double v) { p.sources.change(id)->xOverR = v; });
        row(QObject::tr("Connected"), q(kilo(r.connected)) + " kVA");
        row(QObject::tr("Demand"), QString("%1 kVA · %2").arg(q(kilo(r.demand)), q(demandWords(r, x))));
    }

    void device(const Device& d, std::size_t together) {
        const DeviceType& y = sol.project.deviceTypes[d.type];
        const DeviceId id = d.id;
        f.title = together > 1 ? QObject::tr("%1 devices").arg(together) : q(nameOf(sol.project, Ref(d.id)));
        f.about = q(y.name);
        if (together > 1) {
            double va = 0;
            std::map<std::string, int> kinds;
            for (Ref r : s.selectionList())
                if (const Device* x = sol.project.devices.find(r.as<Device>())) {
                    const DeviceType& t = sol.project.deviceTypes[x->type];
                    va += std::abs(powerOf(x->load.value_or(t.load), t.unit, t.powerFactor, VoltageSystem::Y208,
                                           t.poles, *sol.book));
                    ++kinds[t.name];
                }
            for (const auto& [name, n] : kinds) row(q(name), QString::number(n));
            row(QObject::tr("Together"), q(lintel::number(va)) + " VA");
            deviceGroup(*this);
            return;
        }
        text(QObject::tr("Tag"), q(d.tag), QObject::tr("Tag device"),
             [id](Project& p, const std::string& t) { p.devices.change(id)->tag = t; });
        number(
            wordOf(y.unit), QObject::tr("Load"), QString::number(d.load.value_or(y.load)) + " " + wordOf(y.unit),
            d.load ? QString::number(*d.load) : "auto", QObject::tr("Load of device"), 0, 1e9,
            [id](Project& p, double v) { p.devices.change(id)->load = v; },
            [id](Project& p) { p.devices.change(id)->load.reset(); });
        row(QObject::tr("Kind"), q(titleOf(y.kind)) + (y.continuous ? QObject::tr(", continuous") : QString()));
        row(QObject::tr("Poles"), QString::number(y.poles));
        const Basis& b = sol.project.basis;
        FactRow& h = row(QObject::tr("Height"), q(heightWords(d.height.value_or(y.height), b.units)));
        h.entry = FactRow::Entry{h.value, {}, [this_ = &s, id, units = b.units](const QString& t) -> QString {
                                     const auto m = metresFrom(t, units);
                                     if (!m) return QObject::tr("“%1” is not a height").arg(t);
                                     this_->edit(QObject::tr("Height of device"),
                                                 [&](Project& p) { p.devices.change(id)->height = *m; });
                                     return {};
                                 }};
        text(QObject::tr("Protection"), q(d.protection.empty() ? y.protection : d.protection),
             QObject::tr("Protection of device"),
             [id](Project& p, const std::string& t) { p.devices.change(id)->protection = t; });
        rare(d.protection.empty());
        text(QObject::tr("Switch leg"), q(d.leg), QObject::tr("Switch leg"),
             [id](Project& p, const std::string& t) { p.devices.change(id)->leg = t; });
        rare(d.leg.empty());
        if (const Circuit* c = sol.project.circuits.find(d.circuit); c && c->ring)
            yesNo(QObject::tr("On a spur"), d.spur, QObject::tr("Unfused spur"),
                  [id](Project& p, bool v) { p.devices.change(id)->spur = v; });
        if (!y.connection.empty()) row(QObject::tr("Connection"), q(y.connection));
        if (d.recipe && sol.project.recipes.has(d.recipe))
            row(QObject::tr("Placed by"),
                distance(d.at, d.placed) > 0.005
                    ? QObject::tr("its recipe, moved since")
                    : QObject::tr("recipe for %1").arg(q(sol.project.recipes[d.recipe].roomKind)));
        choice(QObject::tr("Type"), q(y.name), deviceTypeNames(sol.project), QObject::tr("Type of device"),
               [id](Project& p, const QString& t) {
                   for (const DeviceType& x : p.deviceTypes)
                       if (q(x.name) == t && x.id != p.devices[id].type)
                           return p.devices.change(id)->type = x.id, QString();
                   return QString();
               });
        rare(true);
        length(QObject::tr("Place x"), d.at.x, QObject::tr("Place device"), 0, 100000,
               [id](Project& p, double v) { p.devices.change(id)->at.x = v; });
        rare(true);
        length(QObject::tr("Place y"), d.at.y, QObject::tr("Place device"), 0, 100000,
               [id](Project& p, double v) { p.devices.change(id)->at.y = v; });
        rare(true);
        const RoomId room = roomAt(sol.project, d.level, d.at);
        row(QObject::tr("Room"), room ? q(nameOf(sol.project, Ref(room))) : QObject::tr("none"));
        row(QObject::tr("Circuit"),
            d.circuit ? q(nameOf(sol.project, d.circuit)) + " " + q(sol.project.circuits[d.circuit].name)
                      : QObject::tr("none: unfed"));
        if (d.circuit) {
            const CircuitResult& r = sol.results.of(d.circuit);
            const CircuitId c = d.circuit;
            row(QObject::tr("Breaker"),
                QString("%1 A %2P").arg(q(lintel::number(r.device))).arg(sol.project.circuits[c].poles));
            runRows(r.run, sol.project.runs.find(sol.project.circuits[c].run),
                    [c](Project& p) -> Run& { return runOf(p, c); });
        }
    }

    void load(const Load& l) {
        const LoadId id = l.id;
        f.title = q(l.name);
        f.about = q(l.where);
        text(QObject::tr("Name"), q(l.name), QObject::tr("Rename load"),
             [id](Project& p, const std::string& t) { p.loads.change(id)->name = t; });
        text(QObject::tr("Tag"), q(l.tag), QObject::tr("Tag of load"),
             [id](Project& p, const std::string& t) { p.loads.change(id)->tag = t; });
        amount(
            QObject::tr("Amount"), QString::number(l.amount) + " " + wordOf(l.unit),
            QString::number(l.amount) + " " + wordOf(l.unit), QObject::tr("Load"),
            [id](Project& p, double amount, std::optional<LoadUnit> unit) { return enterAmount(p, id, amount, unit); });
        choice(QObject::tr("Unit"), wordOf(l.unit), words<LoadUnit>(), QObject::tr("Unit of load"),
               [id](Project& p, const QString& t) {
                   p.loads.change(id)->unit = *fromWord<LoadUnit>(t.toStdString());
                   return QString();
               });
        choice(QObject::tr("Kind"), wordOf(l.kind), words<LoadKind>(), QObject::tr("Kind of load"),
               [id](Project& p, const QString& t) {
                   p.loads.change(id)->kind = *fromWord<LoadKind>(t.toStdString());
                   return QString();
               });
        choice(QObject::tr("Poles"), QString::number(l.poles), {"1", "2", "3"}, QObject::tr("Poles of load"),
               [id](Project& p, const QString& t) {
                   p.loads.change(id)->poles = t.toInt();
                   return QString();
               });
        number(
            "V", QObject::tr("Volts"), l.volts > 0 ? q(lintel::number(l.volts)) + " V" : QObject::tr("not said"),
            l.volts > 0 ? QString::number(l.volts) : QString(), QObject::tr("Volts of load"), 0, 100000,
            [id](Project& p, double v) { p.loads.change(id)->volts = v; },
            [id](Project& p) { p.loads.change(id)->volts = 0; });
        rare(l.volts == 0);
        if (const Board* wanted = sol.project.boards.find(l.board); wanted && !l.circuit)
            row(QObject::tr("For board"), q(wanted->name));
        number("", QObject::tr("Quantity"), QString::number(l.quantity), QString::number(l.quantity),
               QObject::tr("Quantity"), 0, 1e6, [id](Project& p, double v) { p.loads.change(id)->quantity = v; });
        number("", QObject::tr("Power factor"), QString::number(l.powerFactor), QString::number(l.powerFactor),
               QObject::tr("Power factor"), 0.01, 1,
               [id](Project& p, double v) { p.loads.change(id)->powerFactor = v; });
        number("", QObject::tr("Diversity"), QString::number(l.diversity), QString::number(l.diversity),
               QObject::tr("Diversity of load"), 0, 10,
               [id](Project& p, double v) { p.loads.change(id)->diversity = v; });
        rare(l.diversity == 1);
        if (l.unit == LoadUnit::W || l.unit == LoadUnit::kW) {
            number("%", QObject::tr("Efficiency"),
                   l.efficiency < 1 ? QObject::tr("%1 %, of its shaft").arg(l.efficiency * 100)
                                    : QObject::tr("entered as taken"),
                   QString::number(l.efficiency * 100), QObject::tr("Efficiency of load"), 1, 100,
                   [id](Project& p, double v) { p.loads.change(id)->efficiency = v / 100; });
            rare(l.efficiency == 1);
        }
        nameplateRows(l);
        number("%", QObject::tr("Duty"), QString("%1 %").arg(l.duty * 100), QString::number(l.duty * 100),
               QObject::tr("Duty of load"), 1, 100, [id](Project& p, double v) { p.loads.change(id)->duty = v / 100; });
        rare(l.duty == 1);
        if (l.poles > 1) {
            const QString now = q(splitText(l));
            FactRow& split = row(l.poles > 2 ? QObject::tr("Split A / B / C") : QObject::tr("Split between its lines"),
                                 now.isEmpty() ? QObject::tr("evenly") : now);
            split.entry =
                FactRow::Entry{now.isEmpty() ? "auto" : now, {}, [this_ = &s, id](const QString& t) -> QString {
                                   return tried(*this_, QObject::tr("Split of load"),
                                                [&](Project& p) { return enterSplit(p, id, t.toStdString()); });
                               }};
        }
        choice(QObject::tr("Continuous"), l.continuous ? "yes" : "no", {"no", "yes"}, QObject::tr("Continuous load"),
               [id](Project& p, const QString& t) {
                   p.loads.change(id)->continuous = t == "yes";
                   return QString();
               });
        row(QObject::tr("Circuit"), l.circuit ? q(nameOf(sol.project, l.circuit)) : QObject::tr("none: unfed"));
    }
};

} // namespace

Facts factsFor(Session& session, Ref thing) {
    Builder b{{session, session.solution(), {}}};
    const Project& p = b.sol.project;
    std::vector<CircuitId> circuits;
    for (Ref r : session.selectionList())
        if (p.circuits.has(r.as<Circuit>()) && r.is<Circuit>()) circuits.push_back(r.as<Circuit>());
    if (circuits.size() > 1 && thing.is<Circuit>())
        b.circuitGroup(circuits);
    else if (auto* c = p.circuits.find(thing.as<Circuit>()))
        b.circuit(*c);
    else if (auto* d = p.boards.find(thing.as<Board>()))
        b.board(*d);
    else if (auto* t = p.transformers.find(thing.as<Transformer>()))
        b.transformer(*t);
    else if (auto* s = p.sources.find(thing.as<Source>()))
        b.source(*s);
    else if (auto* x = p.devices.find(thing.as<Device>()))
        b.device(*x, session.selectionList().size());
    else if (auto* l = p.loads.find(thing.as<Load>()))
        b.load(*l);
    else if (!viewFacts(b, thing.as<PlacedView>()))
        planFacts(b, thing);
    return b.f;
}

} // namespace lintel
