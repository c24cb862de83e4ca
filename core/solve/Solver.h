#pragma once
// The steps of one solution over one snapshot. What they read and write is here; the steps themselves stand in
// Gather.cpp (from the leaves up), Feeders.cpp and Branches.cpp (from the sources down), RunNeeds.cpp (what a run has
// to carry and how it lies) and RaiseFeeders.cpp. For the files of core/solve only.

#include "core/base/Parallel.h"
#include "core/project/Equipment.h"
#include "core/route/Trays.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/BranchLoad.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/Demand.h"
#include "core/solve/DropLimits.h"
#include "core/solve/Fault.h"
#include "core/solve/PhaseLoads.h"
#include "core/solve/Solve.h"

#include <map>
#include <memory>
#include <optional>
#include <vector>

namespace lintel {

/// A; the smallest breaker of branch circuits of this use.
double smallestBreakerOf(const Basis& basis, LoadKind use);

class Solver {
public:
    Solver(const Project& project, const RuleBook& rulebook, Results& results);
    /// Works all of it out.
    void all();

private:
    /// What stands before the conductors to a board that no circuit feeds: a device of so many A, or none between them
    /// and a source or transformer.
    struct Before {
        double amps = 0;
        Ref supply;
        CircuitId circuit; ///< whose device it is; none: it stands in a board or in what passes on
        bool fuses = false;
    };
    /// What a node finds where its conductors begin.
    struct Above {
        VoltageSystem system = VoltageSystem::Y480;
        double drop = 0;
        bool dropKnown = true;
        FaultPoint fault;
        int poles = 3;
    };
    /// What the circuits of some boards come to beside their own results.
    struct Part {
        Results::Present present;
        std::vector<const Circuit*> overTotal;
    };

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
    std::vector<Before> beforeLugs;        ///< of boards that are fed through others, by id; neither: not asked yet
    std::vector<int> raisedBoards, raisedTransformers; ///< sizes added to feeders, by id

    bool many() const { return p.circuits.size() >= manyCircuits; }
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
    /// The least that lighting by area counts as, on the one supply of the building.
    void lightByArea();
    void settleAll();

    // ---- Gather.cpp: loads, phases, demand, from the leaves up ----

    void gather(Ref node);
    /// What hangs on a board's own branch circuits; what its feeders bring is not known yet.
    void gatherOwn(const Board& b, Results::Present& present);
    /// What its feeders bring to a board: what they feed has been gathered.
    void gatherFeeders(const Board& b);
    /// What a UPS takes beside what it gives.
    void addUpsLosses(const Board& b);
    void addToBoard(const Circuit& c, BoardResult& n, CircuitResult& cr, const PhaseLoad& load);
    /// Straight up where no circuit stands between: from a source or a transformer.
    void passUp(Ref node, NodeResult& parent);
    /// The line of what feeds it that line `i` of a node hangs on.
    std::size_t lineAbove(Ref node, std::size_t i) const;
    PhaseLoad phasesAbove(Ref node) const;
    /// Loads that hang on the circuit itself, on its lines. A circuit without a slot counts in totals, evenly.
    PhaseLoad ownLoad(const Circuit& c, const Board& b, const CircuitResult& cr) const;
    /// What a board or transformer below puts on the lines of the circuit that feeds it.
    PhaseLoad throughFeeder(const Circuit& c, const Board& b, const CircuitResult& cr, const NodeResult& below) const;
    void finishLines(NodeResult& n, VoltageSystem system);
    void finishTransformer(const Transformer& x);

    // ---- RunNeeds.cpp: what a run has to carry and how it lies ----

    /// A cable type by its name, of CableRules::types; the other where there is none of that name.
    int cableOf(const std::string& wanted, const std::string& otherwise) const;
    /// `use`: what a branch run serves, for how it is laid; nothing for a feeder.
    void applyRun(RunNeed& need, RunId id, Results::Present& present, std::optional<LoadKind> use = {}) const;
    /// The cable of a run and where it lies; what the run leaves open comes from the basis, and then from the book.
    void layCable(RunNeed& need, const Run* run, std::optional<LoadKind> use) const;
    void takeLength(RunNeed& need, const Measured& m) const;
    /// What the basis says that a length counts as which nobody entered or measured.
    void assumeLength(RunNeed& need) const;
    /// The residual-current device that watches a circuit: its own, or that of the section it stands in.
    void watch(const Circuit& c, CableNeed& cable) const;
    /// The kind that is fitted where the designer leaves it to the book: its usual one, one that lets a motor start, or
    /// for large ratings the adjustable one. Switchboards have that from where small boards' breakers usually end.
    DeviceKind fitted(const Circuit& c, double device, bool motor) const;
    Earthing earthingOf(Ref node) const;
    bool ownSubstationAbove(Ref node) const { return anyOwnSubstation && fromOwnSubstation(p, r, node); }

    // ---- Feeders.cpp: devices, conductors with their drop, fault levels, from the source down ----

    void settle(Ref node);
    void settleTransformer(const Transformer& x);
    void settleBoard(const Board& b);
    /// Busway.cpp: fault and drop along the bars, at each tap-off.
    void settleTaps(const Board& b);
    Above above(const NodeResult& n) const;
    RunNeed feederNeed(Ref node, const NodeResult& n, const Above& a, RunId runId);
    /// The device of the circuit that feeds a board; `need` takes its rating.
    void feederDevice(const NodeResult& n, RunNeed& need);
    /// From a source or a transformer without a device between: its own main protects the conductors, and nothing
    /// sizes what bonds them by a device.
    void withoutDevice(const Board& b, Ref supply, RunNeed& need) const;
    /// The device that feeds a transformer: its share of the rated primary current; the next standard rating where the
    /// book allows that (nextRatingAllowed), else the largest that does not exceed it.
    double deviceOfFeeder(const TransformerResult& n);
    Before deviceBefore(const NodeResult& n);
    /// Metric: what opens a feeder in an earth fault: the device of its circuit, or what stands before that which
    /// passes on to it. One straight from a source or transformer has none.
    void guard(RunNeed& need, CircuitId via, const Before& before) const;
    /// The current that a feeder's drop is judged at: its demand, all that is connected, or a share of its device's
    /// rating.
    void judgeFeederDrop(RunNeed& need, const NodeResult& n, RunId id) const;
    /// What conductors from a generator carry up to its first device, by its rated current; of any other supply
    /// nothing.
    Amps generatorAmps(Ref supply) const;
    /// `system`: that its faults are of.
    void finishNode(NodeResult& n, const Above& a, VoltageSystem system) const;
    double voltageFactor() const { return book.metric() ? book.cables.cMax : 1; }

    // ---- Branches.cpp: a board's branch circuits, its own feeder being settled ----

    void settleBranches(const Board& b, Part& part);
    void settleBranch(const Circuit& c, const Board& b, const BoardResult& board, Earthing earthing, Part& part);
    RunNeed branchNeed(const Circuit& c, const Board& b, const CircuitResult& cr, Earthing earthing, Part& part) const;
    /// By its devices on the plan, or by what the basis says; where nobody entered one.
    void measureBranch(RunNeed& need, const Circuit& c, const Board& b, const Run* run) const;
    /// What a branch run loses over what it would with all its load at the end: by the points that are entered, or,
    /// where the run goes through its devices in order, by their places: Σ of each one's load × its distance, over the
    /// whole load × the length.
    double spreadOf(const Circuit& c, const Board& b, const CircuitResult& cr, const Run* run) const;
    /// What hangs on unfused spurs of a ring: how far out it stands, and what it draws there.
    void takeSpurs(RunNeed& need, const Circuit& c, const Board& b) const;
    /// Current-carrying conductors of a multiwire group: on two of three phases the neutral carries too.
    int multiwireConductors(const Circuit& c, const Board& b) const;
    /// Loaded conductors of all home runs in one raceway; a multiwire group in it counts once.
    int bundleConductors(const Circuit& c, const Board& b) const;
    /// Circuits of a bundle that carry less than the book's share of their grouped capacity do not load the rest of it:
    /// those are sized once more without them.
    void relieveGroups(const Board& b, const BoardResult& n);

    // ---- RaiseFeeders.cpp: paths whose parts are within their own limits, and their sum is not ----

    std::vector<int>& raised(Ref node) { return node.is<Board>() ? raisedBoards : raisedTransformers; }
    /// Branch runs are first raised one by one to keep the total. Where raising the feeder above them by some sizes
    /// instead takes fewer kilograms altogether, the feeder is raised: from the source down, each feeder once. True
    /// where any was.
    bool raiseCheapest();
    /// By feeder: the branch circuits over the total limit that raising it could help.
    std::map<Ref, std::vector<CircuitId>> overBelow() const;
    /// kg of a branch run with so much (%) less lost before it; a huge figure where no size does.
    double branchMass(CircuitId id, double less) const;
    /// kg of it at the size that ampacity needs: no less lost before it makes it smaller.
    double leastMass(CircuitId id) const;
    /// What a feeder raised by so many sizes saves: `steps` that take the least metal altogether (0: as it is), and how
    /// much less (%) is lost in it then.
    struct Raise {
        int steps = 0;
        double less = 0;
    };
    Raise cheapestRaise(const RunResult& feeder, const std::vector<CircuitId>& over, double already) const;
};

} // namespace lintel
