#include "core/solve/Solve.h"

#include "core/base/Format.h"
#include "core/base/Parallel.h"
#include "core/plan/Trays.h"
#include "core/project/Equipment.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/BranchLoad.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/Demand.h"
#include "core/solve/DropLimits.h"
#include "core/solve/Fault.h"
#include "core/solve/PhaseLoads.h"
#include "core/solve/RunParts.h"
#include "core/solve/States.h"

#include <fmt/format.h>
#include <set>

namespace lintel {

MotorDevice motorDeviceOf(const RuleBook& book, DeviceKind kind) {
    const auto it = book.tables.motorDevices.find(kind);
    return it == book.tables.motorDevices.end() ? MotorDevice{} : it->second;
}

double transformerPrimaryRating(double amps, const RuleBook& book) {
    const double share = bandOf(book.tables.transformerPrimaryOnly, amps);
    const bool next = share == book.tables.transformerPrimaryOnly.back().value;
    if (next) return book.ratingAtOrAbove(amps * share);
    const double breaker = book.ratingAtOrBelow(amps * share, DeviceKind::Breaker);
    return breaker > 0 ? breaker : book.ratingAtOrBelow(amps * share, DeviceKind::TimeDelayFuse);
}

double bandOf(const std::vector<Band>& bands, double v) {
    for (const Band& b : bands)
        if (v < b.upTo - 1e-9) return b.value;
    return bands.back().value;
}

namespace {

/// A; of branch circuits of this use.
double smallestBreakerOf(const Basis& basis, LoadKind use) {
    const auto own = basis.smallestBreakerByUse.find(wordOf(use));
    return own == basis.smallestBreakerByUse.end() ? basis.smallestBreaker : own->second;
}

/// The steps of one solution over one snapshot.
struct Solver {
    const Project& p;
    const RuleBook& book;
    Results& r;
    Topology t;
    std::unique_ptr<const TrayGraph> trays = p.trays.empty() ? nullptr : std::make_unique<const TrayGraph>(p);
    SizingRules rules;
    SizeIndex smallestFeeder = 0;
    std::array<SizeIndex, loadKinds> smallestBranch{}; ///< by use
    std::array<double, loadKinds> smallestBreaker{};   ///< by use
    int branchCable = -1, feederCable = -1;
    std::array<int, loadKinds> cableByUse{}; ///< metric: of branch runs
    std::array<Wiring, loadKinds> wiringByUse{};
    std::map<BoardId, std::vector<const Section*>> sections;
    Raceway racewayOfBasis = Raceway::Steel;
    bool anyOwnSubstation = false;
    std::vector<const Circuit*> overTotal; ///< branch circuits over the total limit at the size that ampacity needs
    /// What stands before the conductors to a board that no circuit feeds: a device of so many A, or none between them
    /// and a source or transformer.
    struct Before {
        double amps = 0;
        Ref supply;
        CircuitId circuit; ///< whose device it is; none: it stands in a board or in what passes on
        bool fuses = false;
    };
    std::vector<Before> beforeLugs; ///< of boards that are fed through others, by id; neither: not asked yet
    std::vector<int> raisedBoards, raisedTransformers; ///< sizes added to feeders, by id

    Solver(const Project& project, const RuleBook& rulebook, Results& results)
        : p(project), book(rulebook), r(results), rules(sizingRules(project.basis, rulebook)) {
        for (const Source& s : p.sources) anyOwnSubstation = anyOwnSubstation || s.ownSubstation;
        smallestFeeder = std::max(0, book.find(p.basis.smallestBranch));
        for (std::size_t k = 0; k < loadKinds; ++k) {
            smallestBranch[k] = std::max(smallestFeeder, book.leastFor(LoadKind(k)));
            smallestBreaker[k] = smallestBreakerOf(p.basis, LoadKind(k));
            if (const auto own = p.basis.smallestByUse.find(wordOf(LoadKind(k))); own != p.basis.smallestByUse.end())
                if (const SizeIndex s = book.find(own->second); s >= 0) smallestBranch[k] = s;
        }
        if (book.metric()) {
            for (const Section& s : p.sections) sections[s.board].push_back(&s);
            branchCable = cableOf(p.basis.branchCable, book.cables.usualBranch);
            feederCable = cableOf(p.basis.feederCable, book.cables.usualFeeder);
        }
        cableByUse.fill(branchCable);
        wiringByUse.fill(p.basis.wiring == Wiring::Default ? Wiring::Conduit : p.basis.wiring);
        for (const auto& [kind, laid] : p.basis.wiringByUse) {
            const auto k = fromWord<LoadKind>(kind);
            if (k && book.metric())
                cableByUse[std::size_t(*k)] = cableOf(laid, book.cables.usualBranch);
            else if (const auto w = fromWord<Wiring>(laid); k && w && *w != Wiring::Default)
                wiringByUse[std::size_t(*k)] = *w;
        }
        const ConduitType* conduit = p.basis.conduit.empty() ? nullptr : book.conduit(p.basis.conduit);
        racewayOfBasis = conduit ? conduit->raceway : p.basis.raceway;
    }

    int cableOf(const std::string& wanted, const std::string& otherwise) const {
        const CableType* type = book.cables.type(wanted);
        if (!type) type = book.cables.type(otherwise);
        return type ? int(type - book.cables.types.data()) : -1;
    }

    bool many() const { return p.circuits.size() >= manyCircuits; }

    void all() {
        r.boards.assign(p.boards.highest() + 1, {});
        r.transformers.assign(p.transformers.highest() + 1, {});
        r.sources.assign(p.sources.highest() + 1, {});
        atOnce(
            many(), [this] { r.circuits.resize(p.circuits.highest() + 1); }, [this] { t = findTopology(p, r); });
        const double unit = p.basis.lightingAreaOf == "dwelling" ? book.tables.dwellingLighting
                                                                 : book.areaLighting(p.basis.lightingAreaOf);
        if (unit > 0) { // the area of all rooms, on the one supply of the building and on what it feeds directly
            double area = 0;
            int supplies = 0;
            for (const Room& room : p.rooms) area += areaOf(room.outline) / (metresPerFoot * metresPerFoot);
            for (const Source& s : p.sources) supplies += s.kind != SourceKind::Generator;
            for (const Source& s : p.sources)
                if (supplies == 1 && s.kind != SourceKind::Generator) r.sources[s.id.value].lightingFloor = area * unit;
        }
        r.present.note(Results::Trait::NoCircuit, !t.loadsOf({}).empty());
        r.onBoardFrom = t.circuitsOfBoard;
        r.onBoards.resize(t.circuits.size());
        eachBoard([this](const Board& b, Part& part) { gatherOwn(b, part.present); });
        for (auto it = t.order.rbegin(); it != t.order.rend(); ++it) gather(*it);
        settleAll();
        if (raiseCheapest()) settleAll();
    }
    void settleAll() {
        overTotal.clear();
        beforeLugs.assign(r.boards.size(), {});
        for (Ref node : t.order) settle(node);
        eachBoard([this](const Board& b, Part& part) { settleBranches(b, part); });
    }

    /// What the circuits of some boards come to beside their own results.
    struct Part {
        Results::Present present;
        std::vector<const Circuit*> overTotal;
    };
    /// Calls f(board, part) for all boards, from the sources down, on all cores: f writes to that board and its
    /// circuits only.
    template <class F> void eachBoard(F f) {
        std::array<Part, mostParts> parts;
        const std::size_t used =
            inParts(t.boards.size(), many(), [&](std::size_t part, std::size_t from, std::size_t to) {
                for (std::size_t i = from; i < to; ++i) f(*t.boards[i], parts[part]);
            });
        for (std::size_t i = 0; i < used; ++i) {
            r.present.add(parts[i].present);
            overTotal.insert(overTotal.end(), parts[i].overTotal.begin(), parts[i].overTotal.end());
        }
    }

    // ---- from the leaves up: loads, phases, demand ----

    void gather(Ref node) {
        if (node.is<Board>()) gatherFeeders(p.boards[node.as<Board>()]);
        NodeResult& n = *r.node(node);
        findDemand(n.kinds, p.basis, book, n);
        if (node.is<Transformer>()) finishTransformer(p.transformers[node.as<Transformer>()]);
        if (node.is<Source>()) finishLines(n, p.sources[node.as<Source>()].system);
        // Straight up where no circuit stands between: from a source or a transformer.
        if (n.parent && !n.via && !n.looped) passUp(node, *r.node(n.parent));
    }

    /// The line of what feeds it that line `i` of a node hangs on.
    std::size_t lineAbove(Ref node, std::size_t i) const {
        const Board* b = p.boards.find(node.as<Board>());
        return b && b->turned && factsOf(b->system).lines == 3 ? (i + std::size_t(b->turned)) % 3 : i;
    }
    PhaseLoad phasesAbove(Ref node) const {
        const PhaseLoad& own = r.node(node)->phases;
        if (lineAbove(node, 0) == 0) return own;
        PhaseLoad out;
        for (std::size_t i = 0; i < 3; ++i)
            out.ln[lineAbove(node, i)] = own.ln[i], out.ll[lineAbove(node, i)] = own.ll[i];
        return out;
    }

    void passUp(Ref node, NodeResult& parent) {
        const NodeResult& n = *r.node(node);
        for (std::size_t k = 0; k < loadKinds; ++k) parent.kinds[k].add(n.kinds[k]);
        parent.phases.add(phasesAbove(node));
        for (std::size_t i = 0; i < 3; ++i) parent.phaseVa[lineAbove(node, i)] += n.phaseVa[i];
        parent.largestMotorVa = std::max(parent.largestMotorVa, n.largestMotorVa);
        if (node.is<Board>())
            for (std::size_t i = 0; i < 3; ++i) parent.neutralVa[lineAbove(node, i)] += n.neutralVa[i];
    }

    /// What hangs on a board's own branch circuits; what its feeders bring is not known yet.
    void gatherOwn(const Board& b, Results::Present& present) {
        BoardResult& n = r.boards[b.id.value];
        std::vector<char> taken(std::size_t(b.slots) + 1, 0);
        std::size_t place = r.onBoardFrom[b.id.value];
        for (const Circuit* c : t.of(b.id)) {
            r.onBoards[place++] = c->id;
            CircuitResult& cr = r.circuits[c->id.value];
            cr.feeds = t.circuitFeeds[c->id.value];
            cr.feeder = bool(cr.feeds);
            cr.standby = cr.feeder && r.node(cr.feeds)->via != c->id;
            loadCircuit(p, book, t, *c, b, cr, n.kinds, present);
            if (cr.largestMotorVa > 0) n.largestMotorVa = std::max(n.largestMotorVa, cr.largestMotorVa);
            for (int i = 0; i < c->poles && cr.placed; ++i) {
                char& slot = taken[std::size_t(slotOfPole(b, c->slot, i, c->poles))];
                if (slot)
                    cr.clash = true;
                else
                    ++n.slotsUsed;
                slot = 1;
            }
            if (!cr.feeder) addToBoard(*c, n, cr, ownLoad(*c, b, cr));
        }
    }
    void addToBoard(const Circuit& c, BoardResult& n, CircuitResult& cr, const PhaseLoad& load) {
        n.phases.add(load);
        if (!cr.feeder && c.poles == 1 && cr.placed) n.neutralVa[std::size_t(cr.lines[0])] += cr.va;
        for (std::size_t i = 0; i < 3 && cr.split && cr.placed; ++i)
            n.neutralVa[std::size_t(std::max(0, cr.lines[i]))] += magnitude((*cr.split)[i]);
        const bool through = cr.feeder && !cr.standby && !r.node(cr.feeds)->looped;
        if (through && cr.feeds.is<Board>())
            for (std::size_t i = 0; i < 3; ++i)
                n.neutralVa[c.poles == 3 || !cr.placed ? lineAbove(cr.feeds, i)
                                                       : std::size_t(std::max(0, cr.lines[i]))] +=
                    r.node(cr.feeds)->neutralVa[i];
        const auto byLine = load.byLine();
        // A schedule passes distribution equipment's loads through line by line, also across a transformer.
        for (std::size_t i = 0; i < 3; ++i)
            if (through && c.poles == 3 && cr.placed)
                cr.phaseVa[lineAbove(cr.feeds, i)] = r.node(cr.feeds)->phaseVa[i];
            else
                cr.phaseVa[i] = magnitude(byLine[i]);
        for (std::size_t i = 0; i < 3; ++i) n.phaseVa[i] += cr.phaseVa[i];
    }

    /// What its feeders bring to a board: what they feed has been gathered.
    void gatherFeeders(const Board& b) {
        BoardResult& n = r.boards[b.id.value];
        for (const Circuit* c : t.feedersOf(b.id)) {
            CircuitResult& cr = r.circuits[c->id.value];
            PhaseLoad load = ownLoad(*c, b, cr);
            if (const NodeResult& below = *r.node(cr.feeds); !below.looped && !cr.standby) {
                for (std::size_t k = 0; k < loadKinds; ++k) n.kinds[k].add(below.kinds[k]);
                n.largestMotorVa = std::max(n.largestMotorVa, below.largestMotorVa);
                load.add(throughFeeder(*c, b, cr, below));
                cr.power += below.phases.total();
                cr.va = magnitude(cr.power);
            }
            addToBoard(*c, n, cr, load);
        }
        finishLines(n, b.system);
    }

    /// Loads that hang on the circuit itself, on its lines. A circuit without a slot counts in totals, evenly.
    PhaseLoad ownLoad(const Circuit& c, const Board& b, const CircuitResult& cr) const {
        PhaseLoad load;
        const int lines = factsOf(b.system).lines;
        if (cr.power == Complex()) return load;
        if (!cr.placed) {
            for (int i = 0; i < lines; ++i) load.ln[std::size_t(i)] = cr.power / double(lines);
            return load;
        }
        if (c.poles == 1 || lines == 1) {
            load.ln[std::size_t(cr.lines[0])] = cr.power;
            return load;
        }
        // What is entered line by line stays on its lines; the rest is spread.
        Complex even = cr.power;
        for (std::size_t i = 0; i < 3 && cr.split; ++i)
            if (const Complex own = (*cr.split)[i]; own != Complex()) {
                load.ln[std::size_t(cr.lines[i] >= 0 ? cr.lines[i] : cr.lines[0])] += own;
                even -= own;
            }
        if (c.poles == 2)
            load.ll[between(cr.lines[0], cr.lines[1], lines)] = even;
        else
            for (auto& x : load.ln) x += even / 3.0;
        return load;
    }
    static std::size_t between(int a, int b, int lines) {
        if (lines == 2) return 0;
        return std::size_t((a + 1) % 3 == b ? a : b);
    }

    /// What a board or transformer below puts on the lines of the circuit that feeds it.
    PhaseLoad throughFeeder(const Circuit& c, const Board& b, const CircuitResult& cr, const NodeResult& below) const {
        const int lines = factsOf(b.system).lines;
        if (c.poles == 3 || !cr.placed)
            return phasesAbove(cr.feeds); // three lines keep their letters whatever the slot
        PhaseLoad out;
        if (c.poles == 1 || lines == 1) {
            out.ln[std::size_t(std::max(0, cr.lines[0]))] = below.phases.total();
        } else {
            out.ln[std::size_t(cr.lines[0])] += below.phases.ln[0];
            out.ln[std::size_t(cr.lines[1])] += below.phases.ln[1] + below.phases.ln[2];
            out.ll[between(cr.lines[0], cr.lines[1], lines)] +=
                below.phases.ll[0] + below.phases.ll[1] + below.phases.ll[2];
        }
        return out;
    }

    void finishLines(NodeResult& n, VoltageSystem system) {
        const LineCurrents i = lineCurrents(n.phases, system);
        n.phaseAmps = i.lines;
        n.neutralAmps = i.neutral;
        const SystemFacts f = factsOf(system);
        n.imbalance = imbalanceOf(n.phaseVa, f.lines);
        n.lean = leanOf(n.phaseVa, f.lines);
        findDemand(n.kinds, p.basis, book, n);
        n.demandAmps = ampsOf(n.demand, system, f.phases == 3 ? 3 : f.lines);
        const double most = *std::max_element(i.lines.begin(), i.lines.end());
        n.heaviestAmps = Amps{n.connected > 0 ? most * std::min(1.0, n.demand / n.connected) : 0};
    }

    void finishTransformer(const Transformer& x) {
        TransformerResult& n = r.transformers[x.id.value];
        n.secondaryAmpsByPhase = lineCurrents(n.phases, x.secondary).lines;
        const std::array<double, 3> schedule = n.phaseVa; // line by line as schedules pass them through
        n.phases = onPrimary(n.phases, x.secondary, x.primary);
        finishLines(n, x.primary);
        n.phaseVa = schedule;
        const auto rated = [&](VoltageSystem s) {
            return Amps{x.kva * 1000 / (factsOf(s).lineLine.v * (factsOf(x.secondary).phases == 3 ? root3 : 1))};
        };
        n.primaryAmps = rated(x.primary);
        n.secondaryAmps = rated(x.secondary);
        n.use = n.demand / (x.kva * 1000);
    }

    // ---- from the source down: devices, conductors with their drop, fault ----

    void settle(Ref node) {
        NodeResult& n = *r.node(node);
        if (auto* s = p.sources.find(node.as<Source>())) {
            n.fault = atSource(*s, voltageFactor());
            if (p.basis.motorsFeedFaults) addMotors(n.fault, motorVa(n), s->system);
            n.dropTotal = 0;
            return;
        }
        if (auto* x = p.transformers.find(node.as<Transformer>())) settleTransformer(*x);
        if (auto* b = p.boards.find(node.as<Board>())) settleBoard(*b);
    }

    double voltageFactor() const { return book.metric() ? book.cables.cMax : 1; }
    Earthing earthingOf(Ref node) const {
        for (std::size_t guard = 0; node && guard <= t.order.size(); ++guard) {
            if (const Source* s = p.sources.find(node.as<Source>())) return s->earthing;
            if (node.is<Transformer>()) return Earthing::TNS; // its neutral is earthed where it stands
            node = r.node(node)->parent;
        }
        return Earthing::TNS;
    }
    bool ownSubstationAbove(Ref node) const { return anyOwnSubstation && fromOwnSubstation(p, r, node); }
    /// The kind that is fitted where the designer leaves it to the book: its usual one, one that lets a motor start, or
    /// for large ratings the adjustable one. Switchboards have that from where small boards' breakers usually end.
    DeviceKind fitted(const Circuit& c, double device, bool motor) const {
        if (!book.metric() || c.device != DeviceKind::Breaker) return c.device;
        const DeviceKind kind = motor ? book.cables.usualMotor : book.cables.usual;
        constexpr double usualEnd = 63; // A
        if (device > usualEnd && p.boards[c.board].use == BoardUse::Switchboard) return book.cables.usualLarge;
        const auto band = book.cables.trips.find(kind);
        return band != book.cables.trips.end() && device <= band->second.upTo + 1e-9 ? kind : book.cables.usualLarge;
    }
    /// All that turns below a node; what of it can feed a fault.
    static double motorVa(const NodeResult& n) {
        double va = 0;
        for (LoadKind k : {LoadKind::Motor, LoadKind::Vertical, LoadKind::Cooling, LoadKind::Refrigeration})
            va += n.kinds[std::size_t(k)].va();
        return va;
    }

    struct Above {
        VoltageSystem system = VoltageSystem::Y480;
        double drop = 0;
        bool dropKnown = true;
        FaultPoint fault;
        int poles = 3;
        double device = 0; ///< of the feeding circuit, 0: none stands there
        bool deviceHeld = false;
    };
    Above above(const NodeResult& n) const {
        Above a;
        if (auto* s = p.sources.find(n.parent.as<Source>())) {
            a.system = s->system;
            a.fault = r.of(s->id).fault;
            a.poles = factsOf(s->system).phases == 3 ? 3 : factsOf(s->system).lines;
        } else if (auto* x = p.transformers.find(n.parent.as<Transformer>())) {
            a.system = x->secondary;
            a.fault = r.of(x->id).secondary;
            a.drop = r.of(x->id).dropBelow;
            a.dropKnown = x->restartsDrop || r.of(x->id).dropKnown;
            a.poles = factsOf(x->secondary).phases == 3 ? 3 : factsOf(x->secondary).lines;
        } else if (auto* b = p.boards.find(n.parent.as<Board>())) {
            a.system = b->system;
            a.fault = r.of(b->id).fault;
            a.drop = r.of(b->id).dropTotal;
            a.dropKnown = r.of(b->id).dropKnown;
            a.poles = n.via ? p.circuits[n.via].poles : factsOf(b->system).phases == 3 ? 3 : factsOf(b->system).lines;
        }
        return a;
    }

    RunNeed feederNeed(Ref node, const NodeResult& n, const Above& a, RunId runId) {
        RunNeed need;
        need.feeder = true;
        need.poles = a.poles;
        need.system = a.system;
        need.material = p.basis.feederMaterial;
        need.conductors = a.poles == 3 ? 3 : a.poles + (factsOf(a.system).lines == 1 ? 1 : 0);
        const Board* board = p.boards.find(node.as<Board>());
        need.neutral = board && factsOf(board->system).wires > factsOf(board->system).lines &&
                       factsOf(a.system).wires > factsOf(a.system).lines;
        need.smallest = smallestFeeder;
        need.ownLimit = p.basis.feederDropLimit;
        need.totalLimit = totalDropLimit(p.basis, book, ownSubstationAbove(n.parent), false).allowed;
        need.totalBefore = a.drop;
        need.beforeKnown = a.dropKnown;
        const double growth = 1 + p.basis.growth;
        need.load = Amps{demandOf(n) * growth};
        const double continuousShare = n.demand > 0 ? std::min(1.0, n.continuous / n.demand) : 0;
        need.required = need.load * (1 + (book.continuousFactor - 1) * continuousShare);
        need.dropAmps = need.load;
        if (node.value < raised(node).size()) need.raised = raised(node)[node.value];
        need.dropPowerFactor = n.demand > 0 ? std::min(1.0, n.demandPower.real() / n.demand) : p.basis.powerFactor;
        if (book.metric()) {
            need.cable.make().final = false;
            need.cable.make().loopBefore = a.fault.loop;
            need.cable.make().faultBefore = float(a.fault.worst());
            need.cable.make().earthBefore = float(a.fault.lineGround);
            need.cable.make().earthing = earthingOf(n.parent);
        }
        applyRun(need, runId, r.present);
        if (need.lengthKnown) return need;
        const auto to = placeOf(p, node), from = n.parent ? placeOf(p, n.parent) : std::nullopt;
        if (to && from)
            if (auto m = measureFeeder(p, *from, *to, measureBy(p.runs.find(runId), trays.get()))) takeLength(need, *m);
        assumeLength(need);
        return need;
    }
    /// What the basis says that a length counts as which nobody entered or measured.
    void assumeLength(RunNeed& need) const {
        if (need.lengthKnown || p.basis.unknownLength <= 0) return;
        need.lengthKnown = need.lengthAssumed = true;
        need.length = Metres{p.basis.unknownLength};
    }
    void takeLength(RunNeed& need, const Measured& m) const {
        need.lengthKnown = true;
        need.length = m.total;
        need.up = m.up, need.across = m.across, need.down = m.down;
    }
    /// `use`: what a branch run serves, for how it is laid; nothing for a feeder.
    void applyRun(RunNeed& need, RunId id, Results::Present& present, std::optional<LoadKind> use = {}) const {
        need.raceway = racewayOfBasis;
        need.ambient = p.basis.ambient;
        need.wiring = use                                 ? wiringByUse[std::size_t(*use)]
                      : p.basis.wiring == Wiring::Default ? Wiring::Conduit
                                                          : p.basis.wiring;
        const Run* run = p.runs.find(id);
        if (book.metric()) layCable(need, run, use);
        if (!run) return;
        present.note(Results::Trait::HeldSize, !run->heldSize.empty());
        present.note(Results::Trait::FireRated, run->fireRated);
        if (run->wiring != Wiring::Default) need.wiring = run->wiring;
        if (run->neutral == NeutralBy::None)
            need.neutral = false;
        else if (run->neutral != NeutralBy::Auto)
            need.neutral = true;
        if (run->material) need.material = *run->material;
        if (run->raceway) need.raceway = *run->raceway;
        if (!run->conduit.empty())
            if (const ConduitType* type = book.conduit(run->conduit)) need.raceway = type->raceway;
        if (run->ambient) need.ambient = *run->ambient;
        if (run->onRoof && !book.metric()) need.ambient += book.tables.roofAdder;
        // More than half of it nonlinear: the neutral of a four-wire run carries as much as a line.
        if (run->nonlinear > 0.5 && need.poles == 3 && factsOf(need.system).wires == 4 &&
            run->neutral != NeutralBy::None)
            ++need.conductors;
        need.conductors += run->sharing;
        if (!run->heldSize.empty()) need.held = book.find(run->heldSize), need.heldSets = run->heldSets;
        if (run->lengthBy == LengthBy::Entered) need.lengthKnown = true, need.length = Metres{run->length};
    }

    /// The cable of a run and where it lies; what the run leaves open comes from the basis, and then from the book.
    void layCable(RunNeed& need, const Run* run, std::optional<LoadKind> use) const {
        CableNeed& c = need.cable.make();
        c.type = need.feeder ? feederCable : use ? cableByUse[std::size_t(*use)] : branchCable;
        const auto firstThat = [&](const auto& does) { // of the book's types; as it is where none does
            const auto& all = book.cables.types;
            const auto it = std::find_if(all.begin(), all.end(), does);
            if (it != all.end()) c.type = int(it - all.begin());
        };
        const CableType& usual = book.cables.types[std::size_t(c.type)];
        if (run && !run->cable.empty())
            c.type = cableOf(run->cable, usual.name);
        else if (run && run->fireRated && !usual.fireRated)
            firstThat([](const CableType& x) { return x.fireRated; });
        else if (need.poles == 3 && !usual.carriesThree()) // the usual cable of this use has two cores
            firstThat([&](const CableType& x) {
                return x.carriesThree() && x.material == usual.material && x.celsius == usual.celsius && !x.single &&
                       !x.armoured();
            });
        const CableType& type = book.cables.types[std::size_t(c.type)];
        const CableMethod* m = run && !run->method.empty() ? type.method(run->method) : nullptr;
        if (!m) m = type.method(need.feeder ? p.basis.feederMethod : p.basis.branchMethod);
        c.method = m ? int(m - type.methods.data()) : 0;
        need.material = type.material;
        if (type.methods[std::size_t(c.method)].ground) need.ambient = p.basis.groundTemperature;
        c.soil = float(p.basis.soil);
        c.warm = p.basis.dropWhenWarm || !book.cables.dropColumns.empty();
        c.classShare = float(p.basis.classShare);
        if (!run) return;
        c.circuits = 1 + run->grouped;
        c.setsApart = run->setsApart;
        c.lying = run->lying;
        c.thirdHarmonic = float(run->thirdHarmonic);
        c.insulated = float(run->insulated);
        if (run->soil) c.soil = float(*run->soil);
        c.protectiveBy = run->protectiveBy;
        if (!run->heldGround.empty()) c.heldGround = book.find(run->heldGround);
    }

    void settleTransformer(const Transformer& x) {
        TransformerResult& n = r.transformers[x.id.value];
        if (!n.parent) return;
        const Above a = above(n);
        RunNeed need = feederNeed(x.id, n, a, x.run);
        need.device = deviceOfFeeder(n, x);
        guard(need, n.via, n.parent.is<Board>() && !n.via ? deviceBefore(n) : Before{});
        need.load = Amps{std::max(need.load.v, 0.0)};
        n.run.need = need;
        sizeRun(n.run, rules, book);
        finishNode(n, a, a.system);
        n.secondary = afterTransformer(n.fault, x);
        if (p.basis.motorsFeedFaults) addMotors(n.secondary, motorVa(n), x.secondary);
        const double load = n.demand / (x.kva * 1000), pf = n.demand > 0 ? n.demandPower.real() / n.demand : 1;
        const double rr = x.percentZ / std::hypot(1.0, x.xOverR), xx = rr * x.xOverR;
        n.regulation = load * (rr * pf + xx * std::sqrt(std::max(0.0, 1 - pf * pf)));
        n.dropBelow = x.restartsDrop ? 0 : n.dropTotal + n.regulation;
    }
    /// The device that feeds a transformer: its share of the rated primary current; the next standard rating from 9 A
    /// on, below that the largest that does not exceed it.
    double deviceOfFeeder(const TransformerResult& n, const Transformer&) {
        const double wanted = transformerPrimaryRating(n.primaryAmps.v, book);
        if (!n.via) return wanted;
        const Circuit& c = p.circuits[n.via];
        CircuitResult& cr = r.circuits[n.via.value];
        cr.load = cr.required = Amps{demandOf(n)};
        cr.deviceNeeded = std::max(wanted, book.ratingAtOrAbove(cr.required.v, c.device));
        cr.deviceHeld = c.heldBreaker.has_value();
        cr.device = c.heldBreaker.value_or(cr.deviceNeeded);
        cr.kindOfDevice = fitted(c, cr.device, false);
        return cr.device;
    }
    /// Metric: what opens a feeder in an earth fault: the device of its circuit, or what stands before that which
    /// passes on to it. One straight from a source or transformer has none.
    void guard(RunNeed& need, CircuitId via, const Before& before) const {
        if (!book.metric()) return;
        if (!via) via = before.circuit;
        if (via) {
            need.cable.make().device = r.circuits[via.value].kindOfDevice;
            need.cable.make().makersEnergy = float(p.circuits[via].letThroughEnergy.value_or(0));
            watch(p.circuits[via], need.cable.make());
        } else if (before.amps > 0 && !before.supply) {
            need.cable.make().device = before.fuses ? DeviceKind::FuseGG : book.cables.usualLarge;
        } else {
            need.cable.make().unguarded = true;
        }
    }

    void settleBoard(const Board& b) {
        BoardResult& n = r.boards[b.id.value];
        if (n.parent) {
            const Above a = above(n);
            RunNeed need = feederNeed(b.id, n, a, b.run);
            const Before before = n.via ? Before{} : deviceBefore(n);
            if (n.via) {
                const Circuit& c = p.circuits[n.via];
                CircuitResult& cr = r.circuits[n.via.value];
                cr.load = need.load;
                cr.required = c.fullRated ? need.load : need.required;
                if (c.fullRated) need.required = need.load;
                const double rating = book.ratingAtOrAbove(cr.required.v, c.device);
                cr.deviceNeeded = rating > 0 ? std::max(p.basis.smallestBreaker, rating) : 0;
                r.present.note(Results::Trait::NoDevice, cr.deviceNeeded == 0 && cr.required.v > 0);
                cr.deviceHeld = c.heldBreaker.has_value();
                cr.device = need.device = c.heldBreaker.value_or(cr.deviceNeeded);
                cr.kindOfDevice = fitted(c, cr.device, false);
            } else if (!before.supply) {
                // From another board's lugs: what protects that board protects these conductors too.
                need.device = before.amps;
            } else {
                // From a source or a transformer without a device between: its own main protects the conductors, and
                // 250.122 does not size what bonds them.
                n.supply = before.supply;
                need.device = b.main > 0 ? b.main : b.bus;
                need.groundWanted = false;
                if (n.supply.is<Transformer>()) need.nextRatingAllowed = false;
                need.required = std::max(need.required, generatorAmps(n.supply));
                if (n.supply.is<Source>() && p.basis.occupancy == Occupancy::Dwelling &&
                    factsOf(b.system).phases == 1 && need.device >= book.tables.dwellingServiceFrom &&
                    need.device <= book.tables.dwellingServiceTo)
                    need.deviceShare = book.tables.dwellingServiceShare;
            }
            guard(need, n.via, before);
            judgeFeederDrop(need, n, b.run);
            n.run.need = need;
            sizeRun(n.run, rules, book);
            finishNode(n, a, faultSystem(b, a.system));
        }
        if (b.givenKA) n.fault = given(*b.givenKA, b.givenXR, b.system, voltageFactor());
        const double limit = mostAmps(b);
        n.use = demandOf(n) / limit;
    }

    /// What conductors from a generator carry up to its first device, by its rated current; of any other supply
    /// nothing.
    Amps generatorAmps(Ref supply) const {
        const Source* s = p.sources.find(supply.as<Source>());
        if (!s || s->kind != SourceKind::Generator || book.cite("generator").empty()) return Amps{0};
        const SystemFacts f = factsOf(s->system);
        return ampsOf(s->kva * 1000, s->system, f.phases == 3 ? 3 : f.lines) * book.tables.generatorConductor;
    }

    /// A board's branch circuits, its own feeder being settled.
    void settleBranches(const Board& b, Part& part) {
        const BoardResult& n = r.boards[b.id.value];
        const Earthing earthing = book.metric() ? earthingOf(b.id) : Earthing::TNS;
        for (const Circuit* c : t.of(b.id))
            if (!r.circuits[c->id.value].feeder) settleBranch(*c, b, n, earthing, part);
        if (book.metric()) relieveGroups(b, n);
    }

    Before deviceBefore(const NodeResult& n) {
        // Boards are settled from the source down: what stands before the one above is known when it is asked for here.
        const auto known = [&](Ref above) -> std::optional<Before> {
            const Board* at = p.boards.find(above.as<Board>());
            if (!at) return Before{0, above, {}, false};
            // In metric practice the main of a board is a switch.
            if (at->main > 0 && (!book.metric() || passesOn(at->use)))
                return Before{at->main, {}, {}, holdsFuses(at->use)};
            const BoardResult& up = r.boards[at->id.value];
            if (up.via) return Before{r.circuits[up.via.value].device, {}, up.via, false};
            if (up.looped || !up.parent) return Before{at->bus, {}, {}, false};
            return std::nullopt;
        };
        std::vector<BoardId> way;
        Ref at = n.parent;
        std::optional<Before> before;
        while (!(before = known(at))) {
            const BoardId board = at.as<Board>();
            if (const Before& earlier = beforeLugs[board.value]; earlier.amps > 0 || earlier.supply) {
                before = earlier;
                break;
            }
            way.push_back(board);
            at = r.boards[board.value].parent;
        }
        for (BoardId id : way) beforeLugs[id.value] = *before;
        return *before;
    }

    /// The residual-current device that watches a circuit: its own, or that of the section it stands in.
    void watch(const Circuit& c, CableNeed& cable) const {
        cable.residual = float(c.residual), cable.residualType = c.residualType;
        if (c.residual > 0) return;
        if (const auto it = sections.find(c.board); it != sections.end())
            for (const Section* s : it->second)
                if (s->residual > 0 && s->holds(c)) {
                    cable.residual = float(s->residual), cable.residualType = s->residualType;
                    return;
                }
    }

    /// Circuits of a bundle that carry less than the book's share of their grouped capacity do not load the rest of it:
    /// those are sized once more without them.
    void relieveGroups(const Board& b, const BoardResult& n) {
        std::map<int, int> light;
        for (const Circuit* c : t.of(b.id)) {
            CircuitResult& cr = r.circuits[c->id.value];
            if (!c->bundle || cr.feeder || cr.run.size < 0 || cr.run.need.cable->circuits < 2) continue;
            if (cr.run.ampacity > 0 && cr.load.v < book.cables.groupingIgnoredBelow * cr.run.ampacity)
                cr.run.need.cable.make().ignored = true, ++light[c->bundle];
        }
        if (light.empty()) return;
        for (const Circuit* c : t.of(b.id)) {
            CircuitResult& cr = r.circuits[c->id.value];
            if (!c->bundle || !light.count(c->bundle) || cr.feeder || cr.run.need.cable->ignored) continue;
            cr.run.need.cable.make().circuits = std::max(1, cr.run.need.cable->circuits - light[c->bundle]);
            sizeRun(cr.run, rules, book);
            if (n.fault.known)
                cr.faultEnd = atBranchEnd(n.fault, coldOhms(cr.run.ohms, cr.run.need, book, p.basis.faultCelsius),
                                          b.system, c->poles);
        }
    }

    /// The current that a feeder's drop is judged at: its demand, all that is connected, or a share of its device's
    /// rating.
    void judgeFeederDrop(RunNeed& need, const NodeResult& n, RunId id) const {
        const Run* run = p.runs.find(id);
        const DropBasis by = run && run->dropBasis != DropBasis::Default ? run->dropBasis : p.basis.feederDropBasis;
        if (by == DropBasis::Connected)
            need.dropAmps = Amps{std::max(need.load.v, *std::max_element(n.phaseAmps.begin(), n.phaseAmps.end()))};
        need.dropByShare = by == DropBasis::Share && need.device > 0;
        if (need.dropByShare) need.dropAmps = Amps{std::max(need.device * p.basis.ratingShare, need.load.v)};
    }

    // ---- paths whose parts are within their own limits, and their sum is not ----

    const std::vector<int>& raised(Ref node) const { return node.is<Board>() ? raisedBoards : raisedTransformers; }
    /// Branch runs are first raised one by one to keep the total. Where raising the feeder above them by some sizes
    /// instead takes fewer kilograms altogether, the feeder is raised: from the source down, each feeder once. True
    /// where any was.
    bool raiseCheapest() {
        raisedBoards.assign(r.boards.size(), 0);
        raisedTransformers.assign(r.transformers.size(), 0);
        if (overTotal.empty()) return false;
        std::map<Ref, std::vector<CircuitId>> below;
        bool any = false;
        for (const Circuit* c : overTotal) {
            // Every feeder up to the last restart could be raised for this run's sake.
            Ref at = c->board;
            for (int guard = 0; at && !at.is<Source>() && guard < 64; ++guard) {
                if (const Transformer* x = p.transformers.find(at.as<Transformer>()); x && x->restartsDrop) break;
                below[at].push_back(c->id);
                at = r.node(at)->parent;
            }
        }
        // What each branch run under a feeder would weigh with so much less lost before it; 1e6 where no size does.
        const auto weight = [&](CircuitId id, double less) {
            const RunResult& run = r.circuits[id.value].run;
            const auto mass = [&](const RunResult& x) {
                return x.state == Sizing::PastCeiling || x.size < 0 ? 1e6 : conductorMass(x.need, x.size, x.sets, book);
            };
            if (less == 0) return mass(run);
            RunResult again;
            again.need = run.need;
            again.need.totalBefore -= less;
            sizeRun(again, rules, book);
            return mass(again);
        };
        std::map<Ref, double> lessAbove;
        for (Ref node : t.order) {
            const auto over = below.find(node);
            if (over == below.end()) continue;
            const NodeResult& n = *r.node(node);
            const double already = lessAbove[n.parent];
            lessAbove[node] = already;
            const RunResult& feeder = n.run;
            if (!n.parent || feeder.state != Sizing::Sized || !feeder.need.lengthKnown || feeder.size < 0) continue;
            double best = 0;
            for (CircuitId id : over->second) best += weight(id, already);
            int bestSteps = 0;
            double bestLess = 0;
            for (int k = 1; k + feeder.steps <= rules.ceiling; ++k) {
                RunResult again;
                again.need = feeder.need;
                again.need.raised = feeder.steps + k;
                sizeRun(again, rules, book);
                const double less = feeder.dropOwn - again.dropOwn;
                if (less <= 1e-9) break;
                double all = conductorMass(again.need, again.size, again.sets, book) -
                             conductorMass(feeder.need, feeder.size, feeder.sets, book);
                if (all >= best) break;
                for (CircuitId id : over->second) all += weight(id, already + less);
                if (all < best * (1 - 1e-9)) best = all, bestSteps = feeder.steps + k, bestLess = less;
            }
            if (bestSteps)
                (node.is<Board>() ? raisedBoards : raisedTransformers)[node.value] = bestSteps,
                                                   lessAbove[node] = already + bestLess, any = true;
        }
        return any;
    }

    /// `system`: that its faults are of.
    void finishNode(NodeResult& n, const Above& a, VoltageSystem system) const {
        n.dropTotal = a.drop + n.run.dropOwn;
        n.dropKnown = a.dropKnown && n.run.need.lengthKnown && n.run.state != Sizing::OutsideTables;
        n.run.dropTotal = n.dropTotal;
        n.fault = afterFeeder(a.fault, a.system, system, n, p, book);
    }

    void settleBranch(const Circuit& c, const Board& b, const BoardResult& board, Earthing earthing, Part& part) {
        CircuitResult& cr = r.circuits[c.id.value];
        if (c.use == CircuitUse::Reserved) return;
        if (c.use == CircuitUse::Spare) {
            cr.device = c.heldBreaker.value_or(p.basis.smallestBreaker);
            cr.deviceHeld = c.heldBreaker.has_value();
            cr.kindOfDevice = fitted(c, cr.device, false);
            return;
        }
        const BranchLoad load = branchLoad(c, b, cr, smallestBreaker[std::size_t(cr.kind)], book);
        cr.load = load.load;
        cr.required = load.required;
        cr.deviceNeeded = load.deviceNeeded;
        part.present.note(Results::Trait::NoDevice, cr.deviceNeeded == 0 && cr.required.v > 0);
        cr.deviceHeld = c.heldBreaker.has_value();
        cr.device = c.heldBreaker.value_or(cr.deviceNeeded);
        cr.kindOfDevice = fitted(c, cr.device, load.motor.v > 0);
        cr.run.need = branchNeed(c, b, cr, board, earthing, part);
        sizeRun(cr.run, rules, book);
        const RunResult& run = cr.run;
        if (run.need.lengthKnown && run.size >= 0 && run.state != Sizing::Held && !board.looped &&
            run.dropBefore > run.need.totalLimit - run.need.totalBefore + 1e-9)
            part.overTotal.push_back(&c);
        if (board.fault.known)
            cr.faultEnd = atBranchEnd(board.fault, coldOhms(cr.run.ohms, cr.run.need, book, p.basis.faultCelsius),
                                      b.system, c.poles);
    }

    /// What a branch run loses over what it would with all its load at the end: by the points that are entered, or,
    /// where the run goes through its devices in order, by their places: Σ of each one's load × its distance, over the
    /// whole load × the length.
    double spreadOf(const Circuit& c, const Board& b, const CircuitResult& cr, const Run* run) const {
        if (!run || c.ring || cr.va <= 0) return 1;
        if (run->points > 1) return (run->points + 1) / (2.0 * run->points);
        if (run->lengthBy != LengthBy::Chain) return 1;
        const auto devices = t.devicesOf(c.id);
        if (devices.size() < 2) return 1;
        const auto stops = alongChain(p, b, measureBy(run, trays.get()), devices.begin(), devices.size());
        if (stops.empty()) return 1;
        double moment = 0, placed = 0;
        for (const auto& [d, metres] : stops) {
            const DeviceType& y = p.deviceTypes[d->type];
            const double va =
                magnitude(powerOf(d->load.value_or(y.load), y.unit, y.powerFactor, b.system, y.poles, book));
            moment += va * metres.v, placed += va;
        }
        const double at = stops.back().second.v;
        if (placed <= 0 || at <= 0) return 1;
        // What is listed and not drawn hangs at the end.
        const double listed = std::max(0.0, cr.va - placed);
        return std::min(1.0, (moment + listed * at) / ((placed + listed) * at));
    }

    /// What hangs on unfused spurs of a ring: how far out it stands, and what it draws there.
    void takeSpurs(RunNeed& need, const Circuit& c, const Board& b) const {
        const auto devices = t.devicesOf(c.id);
        for (const Device* d : devices) {
            const double metres = d->spur ? spurLength(p, *d, devices.begin(), devices.size()).v : 0;
            if (metres <= 0) continue;
            const DeviceType& type = p.deviceTypes[d->type];
            const double amps = ampsOf(magnitude(powerOf(d->load.value_or(type.load), type.unit, type.powerFactor,
                                                         b.system, type.poles, book)),
                                       b.system, 1)
                                    .v;
            CableNeed& cable = need.cable.make();
            cable.spur = std::max(cable.spur, float(metres));
            cable.spurLoad = std::max(cable.spurLoad, float(metres * amps));
        }
    }

    int multiwireConductors(const Circuit& c, const Board& b) const {
        int together = 0;
        for (const Circuit* other : t.of(b.id)) together += other->multiwire == c.multiwire && other->poles == 1;
        const SystemFacts f = factsOf(b.system);
        if (together <= 1) return 2;
        return f.phases == 3 && together < 3 ? together + 1 : together;
    }

    /// Loaded conductors of all home runs in one raceway; a multiwire group in it counts once.
    int bundleConductors(const Circuit& c, const Board& b) const {
        int all = 0;
        std::vector<int> groups;
        for (const Circuit* other : t.of(b.id)) {
            if (other->bundle != c.bundle || other->use != CircuitUse::Load || r.circuits[other->id.value].feeder)
                continue;
            if (other->multiwire && other->poles == 1) {
                if (std::find(groups.begin(), groups.end(), other->multiwire) != groups.end()) continue;
                groups.push_back(other->multiwire);
                all += multiwireConductors(*other, b);
            } else
                all += other->poles == 1 ? 2 : other->poles;
        }
        return all;
    }

    RunNeed branchNeed(const Circuit& c, const Board& b, const CircuitResult& cr, const BoardResult& board,
                       Earthing earthing, Part& part) const {
        RunNeed need;
        need.poles = c.poles;
        need.system = b.system;
        need.load = cr.load;
        need.required = cr.required;
        need.device = cr.device;
        need.motor = cr.largestMotorVa > 0;
        need.nextRatingAllowed = !cr.receptacles;
        need.material = p.basis.branchMaterial;
        need.conductors = c.poles == 1 ? 2 : c.poles;
        need.neutral = (c.poles == 1 && factsOf(b.system).lineNeutral.v > 0) || cr.split;
        need.smallest = smallestBranch[std::size_t(cr.kind)];
        need.ownLimit = p.basis.branchDropLimit;
        need.totalLimit =
            totalDropLimit(p.basis, book, ownSubstationAbove(b.id), cr.kind == LoadKind::Lighting).allowed;
        need.totalBefore = board.dropTotal;
        need.beforeKnown = board.dropKnown;
        if (book.metric()) {
            CableNeed& cable = need.cable.make();
            cable.loopBefore = board.fault.loop;
            cable.faultBefore = float(board.fault.worst());
            cable.earthBefore = float(board.fault.lineGround);
            cable.makersEnergy = float(c.letThroughEnergy.value_or(0));
            cable.earthing = earthing;
            cable.device = cr.kindOfDevice;
            watch(c, cable);
            cable.sockets = cr.kind == LoadKind::Receptacle || cr.receptacles;
            cable.ring = c.ring;
        }
        applyRun(need, c.run, part.present, cr.kind);
        const Run* run = p.runs.find(c.run);
        if (book.metric() && c.bundle) {
            int together = 0;
            for (const Circuit* other : t.of(b.id))
                together +=
                    other->bundle == c.bundle && other->use == CircuitUse::Load && !r.circuits[other->id.value].feeder;
            need.cable.make().circuits = std::max(need.cable->circuits, together + (run ? run->grouped : 0));
        }
        const DropBasis by = run && run->dropBasis != DropBasis::Default ? run->dropBasis : p.basis.branchDropBasis;
        need.dropByShare = by == DropBasis::Share;
        // Circuits of one multiwire group share a raceway and a neutral; on two of three phases the neutral carries
        // too.
        if (c.bundle)
            need.conductors = bundleConductors(c, b) + (run ? run->sharing : 0);
        else if (c.multiwire && c.poles == 1)
            need.conductors = multiwireConductors(c, b) + (run ? run->sharing : 0);
        need.dropAmps = need.dropByShare ? Amps{std::max(cr.device * p.basis.ratingShare, cr.load.v)} : cr.load;
        need.dropPowerFactor = cr.va > 0 ? std::min(1.0, cr.power.real() / cr.va) : 1;
        if (!need.lengthKnown) {
            const auto devices = t.devicesOf(c.id);
            if (!devices.empty())
                if (auto m = c.ring
                                 ? measureRing(p, b, devices.begin(), devices.size(), trays.get())
                                 : measureCircuit(p, b, measureBy(run, trays.get()), devices.begin(), devices.size()))
                    takeLength(need, *m);
        }
        assumeLength(need);
        need.spread = spreadOf(c, b, cr, run);
        if (c.ring && book.metric()) takeSpurs(need, c, b);
        part.present.note(Results::Trait::NoLength, (!need.lengthKnown || need.lengthAssumed) && cr.va > 0);
        return need;
    }
};

} // namespace

Results solve(const Project& entered, const RuleBook& book) {
    Results r;
    Solver(entered, book, r).all();
    solveStates(entered, book, r);
    return r;
}

namespace {
std::string ohms(Complex z) {
    return fmt::format("{:.2f} {} j{:.2f} mΩ", z.real() * 1000, z.imag() < 0 ? "−" : "+", std::abs(z.imag()) * 1000);
}

/// Where more may be lost than the basis says: why.
void tellDropLimit(Working& w, const Project& p, const RuleBook& book, const Results& r, Ref thing, bool lighting) {
    const TotalDropLimit limit = totalDropLimit(p.basis, book, fromOwnSubstation(p, r, thing), lighting);
    if (limit.raised())
        w.step(
            "Limit of drop in all",
            fmt::format("{} % of the basis, and more from a substation of the installation's own", rating(limit.basis)),
            rating(limit.allowed) + " %", book.cite("ownSubstation"));
}

void tellHorsepower(Working& w, const Project& p, const RuleBook& book, const Circuit& c, const Board& b) {
    const auto tell = [&](const std::string& name, double hp, int poles) {
        const Cited flc = book.motorAmps(hp, voltsAcross(b.system, poles).v, poles == 3);
        w.step("Full-load current",
               fmt::format("{}: {} hp, {} V, {}", name, figures(hp), number(voltsAcross(b.system, poles).v),
                           poles == 3 ? "three-phase" : "single-phase"),
               flc.value > 0 ? figures(flc.value) + " A" : "not in the table", flc.table ? *flc.table : "");
    };
    for (const Load& l : p.loads)
        if (l.circuit == c.id && l.unit == LoadUnit::hp) tell(l.name, l.amount, l.poles);
    std::set<DeviceTypeId> told;
    for (const Device& d : p.devices)
        if (d.circuit == c.id)
            if (const DeviceType& y = p.deviceTypes[d.type]; y.unit == LoadUnit::hp && told.insert(y.id).second)
                tell(y.name, d.load.value_or(y.load), y.poles);
}
} // namespace

Working explain(const Project& p, const RuleBook& book, const Results& r, Ref thing) {
    Working w;
    const SizingRules rules = sizingRules(p.basis, book);
    const auto amps = [](Amps a) { return figures(a.v) + " A"; };
    const auto faults = [&](const FaultPoint& f, const std::string& where) {
        if (!f.known) {
            w.step("Fault level", "no source stands at the top of its feed path", "not known", "");
            return;
        }
        w.step("Fault level, " + where,
               f.threePhase > 0
                   ? fmt::format("three-phase {} kA, line–line {} kA, line–neutral {} kA, line–ground {} kA",
                                 figures(f.threePhase), figures(f.lineLine), figures(f.lineNeutral),
                                 figures(f.lineGround))
                   : fmt::format("line–line {} kA, line–neutral {} kA, line–ground {} kA", figures(f.lineLine),
                                 figures(f.lineNeutral), figures(f.lineGround)),
               figures(f.worst()) + " kA", book.cite("faultDevice"));
        w.step("Conductors in it",
               f.runsUnknown                ? "a run before it has no length and counts as none: the most there can be"
               : p.basis.faultCelsius <= 20 ? "cold, for the largest fault"
                                            : "as the basis asks; cold ones give more",
               figures(p.basis.faultCelsius) + " °C", "Basis");
        if (f.motors > 0)
            w.step("Motors' share", "4 × the full-load current of all motors of the system, in the figures above",
                   figures(f.motors) + " kA", "Basis");
        if (f.limited) w.step("Let-through", "the device above limits it", "", "its maker's data");
        const auto loop = [&](const char* what, Complex z, double kA) {
            if (kA > 0)
                w.step(fmt::format("Impedance, {}", what), ohms(z), fmt::format("|Z| {:.2f} mΩ", magnitude(z) * 1000),
                       "");
        };
        if (f.threePhase > 0)
            loop("each line", f.z1, f.threePhase);
        else
            loop("line–line, out and back", f.zll, f.lineLine);
        loop("line–neutral, out and back", f.zln, f.lineNeutral);
        loop("line–ground, out and back", f.zlg, f.lineGround);
        w.step("Asymmetry, " + where,
               fmt::format("X/R {}: κ = 1.02 + 0.98·e^(−3/{}) = {:.2f}", figures(f.xOverR()), figures(f.xOverR()),
                           f.peakFactor()),
               figures(f.peak()) + " kA peak", "IEC 60909-0");
    };
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
        const CircuitResult& cr = r.of(c->id);
        if (cr.standby) // as it is while it feeds
            for (const auto& state : r.states)
                if (!state->results.of(c->id).standby) return explain(state->project, book, state->results, cr.feeds);
        if (cr.feeder) return explain(p, book, r, cr.feeds);
        const Board& b = p.boards[c->board];
        w.title = nameOf(p, c->id) + (c->name.empty() ? "" : " " + c->name);
        if (c->use == CircuitUse::Spare) {
            w.step("Spare", "a breaker with no load", rating(cr.device) + " A", "");
            return w;
        }
        if (c->use == CircuitUse::Reserved) {
            w.step("Reserved", "a place kept free for a device to come", "", "");
            return w;
        }
        if (!book.metric()) tellHorsepower(w, p, book, *c, b);
        (void)branchLoad(*c, b, cr, smallestBreakerOf(p.basis, cr.kind), book, &w); // as it was worked out
        if (cr.deviceHeld)
            w.step("Device",
                   fmt::format("held by hand; {} is needed", cr.deviceNeeded > 0
                                                                 ? rating(cr.deviceNeeded) + " A"
                                                                 : std::string("more than the series has")),
                   rating(cr.device) + " A", book.cite("rating"));
        tellDropLimit(w, p, book, r, c->id, cr.kind == LoadKind::Lighting);
        RunResult again = cr.run;
        sizeRun(again, rules, book, &w);
        partsOf(p, book, r, c->id, &w);
        faults(r.of(b.id).fault, "at " + b.name);
        if (cr.faultEnd > 0)
            w.step("Fault level, far end",
                   fmt::format("{} of run added, conductors at {} °C",
                               rules.units == UnitSystem::Imperial ? number(inFeet(cr.run.need.length)) + " ft"
                                                                   : number(cr.run.need.length.v) + " m",
                               figures(p.basis.faultCelsius)),
                   figures(cr.faultEnd) + " kA", "");
        return w;
    }
    const NodeResult* n = r.node(thing);
    if (!n) return w;
    w.title = nameOf(p, thing);
    NodeResult again = *n;
    findDemand(n->kinds, p.basis, book, again, &w);
    if (const Source* s = p.sources.find(thing.as<Source>())) {
        if (s->kind == SourceKind::UtilityTransformer)
            w.step("Supply",
                   s->utilityMVA > 0
                       ? fmt::format("{} kVA, {} % Z at {} V, and {} MVA of the utility before it, X/R {}",
                                     number(s->kva), figures(s->percentZ), number(factsOf(s->system).lineLine.v),
                                     figures(s->utilityMVA), figures(s->utilityXR))
                       : fmt::format("{} kVA / ({} V·√3) / {} %, infinite behind it", number(s->kva),
                                     number(factsOf(s->system).lineLine.v), figures(s->percentZ)),
                   figures(n->fault.worst()) + " kA", "");
        if (s->kind == SourceKind::UtilityTransformer && s->utilityKV > 0)
            w.step("Primary current",
                   fmt::format("{} kVA / {} kV{}", number(s->kva), figures(s->utilityKV),
                               factsOf(s->system).phases == 3 ? " / √3" : ""),
                   figures(s->kva / s->utilityKV / (factsOf(s->system).phases == 3 ? root3 : 1)) + " A", "");
        if (s->kind == SourceKind::Generator) {
            const SourceResult& g = r.of(s->id);
            w.step("Takes over", "the demand of all boards that change over to it", kilo(g.standby) + " kVA", "");
            w.step("Largest start",
                   fmt::format("{} kVA less the largest motor of {} kVA, and {} times that while it starts",
                               kilo(g.standby), kilo(g.largestMotorVa), figures(lockedRotor)),
                   kilo(g.peak) + " kVA", "");
            w.step("Gives",
                   fmt::format("{} kVA, × {} for the moment of a start", rating(s->kva), figures(s->peakShare)),
                   fmt::format("{} kVA", figures(s->kva * s->peakShare)), "its maker's data");
            w.step(
                "Conductors from it",
                fmt::format("{} A × {} %",
                            figures(ampsOf(s->kva * 1000, s->system,
                                           factsOf(s->system).phases == 3 ? 3 : factsOf(s->system).lines)
                                        .v),
                            lintel::number(book.tables.generatorConductor * 100)),
                figures(
                    ampsOf(s->kva * 1000, s->system, factsOf(s->system).phases == 3 ? 3 : factsOf(s->system).lines).v *
                    book.tables.generatorConductor) +
                    " A",
                book.cite("generator"));
        } else {
            const double share = n->demand > 0 ? std::min(1.0, n->continuous / n->demand) : 0;
            const double needed = demandOf(*n) * (1 + p.basis.growth) * (1 + (book.continuousFactor - 1) * share);
            w.step("Service",
                   fmt::format("{} A with {} % of what is continuous, next standard rating", figures(needed),
                               figures((book.continuousFactor - 1) * 100)),
                   book.ratingAtOrAbove(needed) > 0 ? rating(book.ratingAtOrAbove(needed)) + " A at least"
                                                    : "past the series",
                   book.cite("rating"));
        }
        faults(n->fault, "at the supply");
        return w;
    }
    w.step("Demand current", fmt::format("{} kVA balanced", kilo(n->demand)), amps(n->demandAmps), "");
    if (n->heaviestAmps > n->demandAmps)
        w.step("Heaviest phase",
               fmt::format("phasor currents {} / {} / {} A, in the proportion of demand", figures(n->phaseAmps[0]),
                           figures(n->phaseAmps[1]), figures(n->phaseAmps[2])),
               amps(n->heaviestAmps), "");
    if (p.basis.growth > 0)
        w.step("Growth", fmt::format("× {:.2f}", 1 + p.basis.growth), amps(n->run.need.load), "Basis");
    if (const Transformer* x = p.transformers.find(thing.as<Transformer>())) {
        const TransformerResult& tr = r.of(x->id);
        w.step("Rated current",
               fmt::format("{} kVA: primary {} A, secondary {} A", rating(x->kva), figures(tr.primaryAmps.v),
                           figures(tr.secondaryAmps.v)),
               percent(tr.use * 100) + " used", "");
        w.step("Primary device",
               fmt::format("{} A × {} % = {} A, {}", figures(tr.primaryAmps.v),
                           number(bandOf(book.tables.transformerPrimaryOnly, tr.primaryAmps.v) * 100),
                           figures(tr.primaryAmps.v * bandOf(book.tables.transformerPrimaryOnly, tr.primaryAmps.v)),
                           tr.primaryAmps.v >= 9 ? "next standard rating" : "the standard rating below"),
               rating(transformerPrimaryRating(tr.primaryAmps.v, book)) + " A", book.cite("transformer"));
    } else if (n->continuous > 0 && n->parent && book.continuousFactor > 1) {
        w.step("Continuous",
               fmt::format("{} % of {} kVA continuous added", figures((book.continuousFactor - 1) * 100),
                           kilo(n->continuous)),
               amps(n->run.need.required), book.cite("continuousFeederDevice"));
    }
    if (n->parent && n->fault.known && n->run.size >= 0) { // how the impedance here comes together
        const FaultPoint& above = beforeFeeder(r, *n);
        const Complex run = coldOhms(n->run.ohms, n->run.need, book, p.basis.faultCelsius);
        if (above.known)
            w.step("Impedance at " + nameOf(p, n->parent),
                   above.threePhase > 0 ? "each line" : "line–line, out and back",
                   ohms(above.threePhase > 0 ? above.z1 : above.zll), "");
        w.step("Its run adds",
               n->run.need.lengthKnown ? fmt::format("{}{}, conductors at {} °C",
                                                     n->run.sets > 1 ? fmt::format("{} sets of ", n->run.sets) : "",
                                                     sizeWords(book, n->run.size), figures(p.basis.faultCelsius))
                                       : "no length is known",
               above.threePhase > 0 ? ohms(run) : ohms(2.0 * run), book.cite("impedance"));
    }
    if (n->parent) {
        if (n->via)
            w.step("Device",
                   fmt::format("{} in {}", nameOf(p, n->via), nameOf(p, n->parent)) +
                       (r.of(n->via).deviceHeld ? ", held by hand" : ""),
                   rating(n->run.need.device) + " A", book.cite("rating"));
        tellDropLimit(w, p, book, r, thing, false);
        RunResult run = n->run;
        sizeRun(run, rules, book, &w);
        partsOf(p, book, r, thing, &w);
        if (thing.is<Board>() && r.of(thing.as<Board>()).supply) bondingOf(n->run, p.basis.electrodeMaterial, book, &w);
    }
    faults(n->fault, "at " + nameOf(p, thing));
    for (const StateSolution* state : statesOf(p, r, thing)) {
        const NodeResult& on = *state->results.node(thing);
        w.step("On " + nameOf(p, state->source),
               on.fault.known ? fmt::format("three-phase or line–line {} kA, line–ground {} kA",
                                            figures(std::max(on.fault.threePhase, on.fault.lineLine)),
                                            figures(on.fault.lineGround))
                              : std::string("nothing feeds it in this state"),
               on.fault.known ? fmt::format("{} kA, {} lost{}", figures(on.fault.worst()), percent(on.dropTotal),
                                            on.dropKnown ? "" : " at least")
                              : "",
               "");
    }
    if (const Transformer* x = p.transformers.find(thing.as<Transformer>()); x && n->fault.known) {
        const double ratio = factsOf(x->secondary).lineLine.v / factsOf(x->primary).lineLine.v;
        const bool three = factsOf(x->secondary).phases == 3;
        w.step("Seen from its secondary",
               fmt::format("× ({} / {})² = {:.4f}", number(factsOf(x->secondary).lineLine.v),
                           number(factsOf(x->primary).lineLine.v), ratio * ratio),
               ohms((three ? n->fault.z1 : n->fault.zll) * ratio * ratio), "");
        w.step("Its winding",
               fmt::format("({} V)² / {} kVA · {} %, X/R {}", number(factsOf(x->secondary).lineLine.v), rating(x->kva),
                           figures(x->percentZ), figures(x->xOverR)),
               ohms(transformerOhms(*x)), "");
    }
    if (const Transformer* x = p.transformers.find(thing.as<Transformer>()))
        faults(r.of(x->id).secondary,
               fmt::format("secondary, {} %Z, X/R {}", figures(x->percentZ), figures(x->xOverR)));
    return w;
}

} // namespace lintel
