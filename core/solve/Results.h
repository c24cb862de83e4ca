#pragma once
// Everything worked out from a project, and nothing that was entered. A pure function of project and rule book:
// never saved, never patched, made new after each edit.

#include "core/base/EnumText.h"
#include "core/base/Quantity.h"
#include "core/base/Rare.h"
#include "core/project/Project.h"
#include "core/rules/RuleBook.h"

#include <array>
#include <complex>
#include <memory>
#include <span>
#include <vector>

namespace lintel {

using Complex = std::complex<double>;
/// |z|. Not std::abs: that guards against overflow which volts and amperes never come near, and costs five times as
/// much.
inline double magnitude(Complex z) { return std::sqrt(z.real() * z.real() + z.imag() * z.imag()); }

/// Why a conductor is the size it is.
enum class Governing : std::uint8_t {
    None,
    MinimumSize,
    Load,
    ContinuousLoad,
    DeviceProtection,
    Terminal,
    Ambient,
    Bundling,
    VoltageDrop,
    LoopImpedance,
    FaultWithstand,
    Held
};
template <> struct EnumText<Governing> {
    static constexpr std::pair<Governing, const char*> words[] = {{Governing::None, "–"},
                                                                  {Governing::MinimumSize, "minimum size"},
                                                                  {Governing::Load, "load"},
                                                                  {Governing::ContinuousLoad, "continuous load"},
                                                                  {Governing::DeviceProtection, "device protection"},
                                                                  {Governing::Terminal, "terminal"},
                                                                  {Governing::Ambient, "ambient"},
                                                                  {Governing::Bundling, "bundling"},
                                                                  {Governing::VoltageDrop, "voltage drop"},
                                                                  {Governing::LoopImpedance, "loop impedance"},
                                                                  {Governing::FaultWithstand, "fault withstand"},
                                                                  {Governing::Held, "held by hand"}};
};

/// Sized: the smallest that passes. Held: set by the designer. PastCeiling: upsizing stopped at its limit, the size is
/// what ampacity needs. NoneFits: nothing in the book carries it. OutsideTables: of a voltage that the book's tables do
/// not reach; it has no size here.
enum class Sizing : std::uint8_t { Sized, Held, PastCeiling, NoneFits, OutsideTables };

/// What a run of a metric project needs beside: its cable, where it lies, and what an earth fault at its end has to
/// open.
struct CableNeed {
    int type = -1, method = -1; ///< in CableRules::types and their methods; -1: the book goes by other tables
    int circuits = 1;           ///< laid together, itself among them; each of its own further sets comes on top
    bool setsApart = false;     ///< its sets do not heat one another
    Lying lying = Lying::Auto;
    float thirdHarmonic = 0; ///< share of the current in its lines
    float earthBefore = 0;   ///< kA, the largest earth fault where it begins
    float classShare = 1;    ///< of its class, that its device lets through by its maker
    float makersEnergy = 0;  ///< A²s that its device lets through there by its maker; 0: what its class allows
    float insulated = 0;     ///< m surrounded by thermal insulation
    float soil = 2.5f;       ///< K·m/W
    ProtectiveBy protectiveBy = ProtectiveBy::Auto;
    Earthing earthing = Earthing::TNS;
    DeviceKind device = DeviceKind::TypeB;
    bool ring = false, final = true; ///< final: feeds loads, not a board
    bool ignored = false;            ///< so lightly loaded that it does not count in its group
    float spur = 0;                  ///< m out from a ring to the farthest point that hangs on an unfused spur
    float spurLoad = 0;              ///< A·m, the largest product of a spur's length and its load
    float residual = 0;              ///< mA of the residual-current device that also watches it
    ResidualType residualType = ResidualType::A;
    bool sockets = false;   ///< socket outlets hang on it
    bool unguarded = false; ///< no device of the project stands before it: the supplier's opens a fault
    CircuitId opener{};     ///< of a feeder: the circuit whose device opens its faults, its own or one further up
    bool warm = false;      ///< drop at the temperature under load
    float factors = 1;      ///< all corrections of its capacity together
    Complex loopBefore;     ///< Ω of the earth-fault loop up to where it begins, conductors hot
    float faultBefore = 0;  ///< kA, the largest there
};

/// What an earth fault at the far end of a metric run comes to.
struct EarthFault {
    bool known = false, ok = true, inTime = true, withstands = true, byResidual = false;
    bool withstandsHere = true;     ///< at the beginning
    bool byEnergy = false;          ///< `needed` follows from what the device lets through, not from time
    SizeIndex ground = -1;          ///< protective conductor; -1: armour alone
    bool armour = false;            ///< the armour carries it, alone or beside a conductor
    float zs = 0, limit = 0;        ///< Ω
    float seconds = 0, allowed = 0; ///< s it takes to open, and may take
    float amps = 0;                 ///< earth-fault current at the end, conductors hot
    float needed = 0, has = 0;      ///< mm² of copper or armour, by the adiabatic rule
    float energyHere =
        0; ///< A²s that its device lets through at the largest earth fault, at the beginning; 0: not known
    float neededHere = 0; ///< mm² that withstand that
    float line = 0; ///< mm² that a line conductor needs by it; 0: its device protects it against overload too, and so
                    ///< against this
    bool lineWithstands = true;
    float longest = 0; ///< m within the limit; 0: none
    Complex added;     ///< Ω of the run to the loop, hot
};

/// What a run has to carry, put together before it is sized.
struct RunNeed {
    bool feeder = false;
    int poles = 1; ///< of its device: 1, 2 or 3
    VoltageSystem system = VoltageSystem::Y208;
    Amps load;          ///< the actual load
    Amps required;      ///< with the code's additions for continuous loads and motors
    double device = 0;  ///< A
    bool motor = false; ///< device and small-conductor limits do not protect it: its overload does
    bool nextRatingAllowed = true;
    double deviceShare = 1; ///< of the device's rating that the conductors must carry (dwelling services: 0.83)
    Wiring wiring = Wiring::Conduit;
    int raised = 0;       ///< sizes added here because that is the cheapest way to keep the runs below within the total
    bool neutral = false; ///< it has one
    NeutralBy neutralBy = NeutralBy::Auto;
    bool nonlinear = false;      ///< more than half of its load is: a calculated neutral is not reduced above 200 A
    bool isolatedGround = false; ///< a second, insulated protective conductor
    float neutralAmps = 0;       ///< A, the most that its neutral carries, for NeutralBy::Calculated
    int conductorsOfSet() const { return poles + neutral; } ///< lines and neutral
    bool groundWanted = true;                               ///< a protective conductor by the device's rating
    Material material = Material::Copper;
    Raceway raceway = Raceway::Steel;
    double ambient = 30;
    int conductors = 2; ///< current-carrying in one raceway
    SizeIndex smallest = 0, held = -1;
    int heldSets = 0;
    SizeIndex heldGround = -1; ///< protective conductor
    Amps dropAmps;
    double dropPowerFactor = 1;
    double spread =
        1; ///< of what it would lose with all its load at the end: less where that hangs on it point by point
    bool dropByShare = false;
    bool lengthKnown = false;
    bool lengthAssumed = false; ///< nobody entered or measured it: it counts as the basis says
    bool beforeKnown = true;    ///< so are the lengths of all runs before it; else `totalBefore` is the least it can be
    Metres length;              ///< one way
    Metres up, across, down;    ///< its parts, where measured
    double ownLimit = 3, totalBefore = 0, totalLimit = 5; ///< %
    Rare<CableNeed> cable;                                ///< metric
};

/// What sizing comes to.
struct RunOutcome {
    Sizing state = Sizing::NoneFits;
    Governing why = Governing::None;
    int sets = 0, setsForAmpacity = 0;
    SizeIndex size = -1, sizeForAmpacity = -1, ground = -1;
    bool groundRaised = false;
    SizeIndex neutralSize = -1;  ///< −1: no neutral
    std::int8_t neutrals = 0;    ///< of each set: 2 where a double one takes two conductors of the lines' size
    SizeIndex isolated = -1;     ///< isolated ground; −1: none
    SizeIndex groundNeeded = -1; ///< of a held protective conductor, by the rating of its device; -1: it is not held,
                                 ///< or judged by the earth fault
    double ampacity = 0;         ///< A of all sets, after corrections and terminals
    double dropBefore = 0;       ///< % with the size that ampacity needs
    double dropOwn = 0, dropTotal = 0; ///< %
    Metres longest;                    ///< within both limits at this size; 0: not limited or not known
    Complex groundOhms;                ///< of its protective conductor, or of the neutral where it has none, at 75 °C
    Complex ohms;           ///< of one line conductor, all sets, at 75 °C or the highest temperature of its cable
    Rare<EarthFault> earth; ///< metric
    float running = 0;      ///< °C of the conductors under load, metric
    int steps = 0;          ///< sizes above what ampacity needs
    bool adequate() const { return state != Sizing::NoneFits && !tooSmall; }
    bool tooSmall = false; ///< held below what is needed
};
struct RunResult : RunOutcome {
    RunNeed need;
};

/// Impedances at a point, in ohms at its own voltage, and the bolted fault currents in kA that follow.
/// `z1`: one line of a three-phase fault; `zll`, `zln`, `zlg`: the whole loop of a fault between lines, to the neutral,
/// to ground.
struct FaultPoint {
    bool known = false, limited = false; ///< limited: by a device's let-through
    bool runsUnknown = false; ///< a run before it has no length and counts as none: currents are the most, impedances
                              ///< the least they can be
    Complex z1, zll, zln, zlg;
    Complex loop;      ///< of an earth fault with conductors hot: Ze and all R1 + R2
    double factor = 1; ///< c, on the voltage that drives the largest current
    double motors = 0; ///< kA of the motors of the system, in the three-phase figure in full and 87 % of it line–line
    double threePhase = 0, lineLine = 0, lineNeutral = 0, lineGround = 0;
    double worst() const { return std::max({threePhase, lineLine, lineNeutral, lineGround}); }
    /// X/R of the fault with the largest current.
    double xOverR() const;
    /// κ = 1.02 + 0.98·e^(−3R/X), IEC 60909-0, and √2·κ times the worst symmetrical current: kA of the first crest.
    double peakFactor() const;
    double peak() const { return 1.4142135623730951 * peakFactor() * worst(); }
};

/// Load of one kind below a node, P and Q apart. `d…`: after the designer's own factors, which demand rules start from.
struct KindSum {
    double p = 0, q = 0, dp = 0, dq = 0;
    double continuous = 0;                         ///< VA of dp, dq that runs three hours or more
    double count = 0, largest = 0, second = 0;     ///< pieces; VA of the largest two
    double over = 0;                               ///< VA above a table's rating of one, summed (ranges)
    double minimum = 0;                            ///< VA with the rule's minimum for each (dryers)
    std::array<double, 2> smallCount{}, smallVa{}; ///< of those that fall in a rule's groups by rating (ranges)
    void add(const KindSum& o);
    double va() const { return magnitude({p, q}); }
    double ownVa() const { return magnitude({dp, dq}); }
};
using KindSums = std::array<KindSum, loadKinds>;

/// Power by phase: `ln` line to neutral (and balanced three-phase, a third each), `ll` between lines AB, BC, CA.
struct PhaseLoad {
    std::array<Complex, 3> ln{}, ll{};
    void add(const PhaseLoad& o);
    /// As schedules split it: a line-line load half to each line.
    std::array<Complex, 3> byLine() const;
    Complex total() const;
};

struct NodeResult {
    bool fed = false;    ///< a source stands at the top of its feed path
    bool looped = false; ///< its feed path comes back to itself
    int depth = 0;
    Ref parent;    ///< board, transformer or source next above
    CircuitId via; ///< the circuit that feeds it, where one does
    KindSums kinds{};
    std::array<double, loadKinds> demandByKind{}; ///< VA
    double connected = 0, demand = 0;             ///< VA
    Complex demandPower;                          ///< W + j var
    double continuous = 0;                        ///< VA of the demand
    PhaseLoad phases;
    std::array<double, 3> phaseVa{}, phaseAmps{}; ///< schedule VA; phasor currents of the connected load
    double neutralAmps = 0;
    std::array<double, 3> neutralVa{}; ///< of loads between each line and the neutral, through feeders that carry one
    double imbalance = 0;              ///< (max − mean)/mean, %
    Complex lean;      ///< S_a + a·S_b + a²·S_c over the total: direction of the heavy phase, 0 = level
    Amps demandAmps;   ///< balanced
    Amps heaviestAmps; ///< of the heaviest phase, in the proportion of demand to connected
    RunResult run;     ///< the conductors that feed it
    FaultPoint fault;
    double lightingFloor = 0;  ///< VA of lighting by area that the demand of a service is not below
    double largestMotorVa = 0; ///< of the largest motor anywhere below
    double startVa = 0,        ///< VA while it starts, of the motor anywhere below that adds most by its start
        startRunningVa = 0;    ///< and what the same takes when it runs
    double dropTotal = 0;      ///< % at this node
    bool dropKnown = true;     ///< every run before it has a length; else `dropTotal` is the least it can be
};

/// What a UPS gives, and what it takes beside.
struct UpsLoad {
    Complex out;       ///< W + j var of the demand behind it
    double losses = 0; ///< W that it turns to heat at that, and to charge its battery
};

struct BoardResult : NodeResult {
    int slotsUsed = 0;
    double use = 0; ///< demand amps over bus, or main where smaller
    Ref supply;     ///< the source or transformer it is fed from without a device between; nothing: one stands there
    Rare<RunResult> alternateRun; ///< the conductors from what takes over, as they are when it has
    Rare<UpsLoad> ups;
};

struct TransformerResult : NodeResult { ///< loads and run are on its primary side
    Amps primaryAmps, secondaryAmps;    ///< rated
    double use = 0, regulation = 0;     ///< demand/kVA; % at its load
    FaultPoint secondary;
    double dropBelow = 0; ///< % from which runs below go on
    std::array<double, 3> secondaryAmpsByPhase{};
};

struct SourceResult : NodeResult {
    double standby = 0,
           peak = 0; ///< of a generator: VA of demand it takes over, and with the motor starting last that adds most
    double used = 0; ///< standby over its kVA
};

/// Where a tap-off hangs on its busway, after what the bars take up to there. Where nobody says where it stands, faults
/// are those of the fed end, the most there can be; drop and loop those of the far end, the most too.
struct TapPoint {
    FaultPoint fault;
    double dropOwn = 0, dropTotal = 0; ///< % in the bars; from the source
    bool dropKnown = true;
};

/// What the nameplates of a circuit's equipment ask for in place of the book's additions: A, and VA of what they mark.
struct Nameplates {
    double ampacity = 0;             ///< of the conductors, all pieces together
    double device = 0;               ///< the largest that each of them allows; 0: none says
    double va = 0, continuousVa = 0; ///< of the loads whose ampacity is marked
    double othersMotorVa = 0;        ///< the largest motor among the other loads
    bool othersHermetic = false;     ///< and whether that is a refrigerant compressor
};

struct CircuitResult {
    bool placed = false, clash = false; ///< in slots of its board; over another circuit or past the end
    bool feeder = false;
    bool standby = false; ///< it feeds `feeds` only when that has changed over to it
    Ref feeds;
    std::array<int, 3> lines{-1, -1, -1}; ///< 0 A, 1 B, 2 C of each pole
    Complex power;
    double va = 0;
    std::array<double, 3> phaseVa{};
    int points = 0;
    LoadKind kind = LoadKind::Equipment;       ///< of the greater part of it
    Rare<std::array<double, loadKinds>> mixed; ///< VA of each kind, where its loads are of several
    double continuousVa = 0;
    double largestMotorVa = 0;
    bool hermetic = false;              ///< the largest motor is a refrigerant compressor
    Rare<std::array<Complex, 3>> split; ///< of `power`, what is entered line by line
    Rare<Nameplates> nameplates;
    Amps load, required;
    double device = 0, deviceNeeded = 0;
    DeviceKind kindOfDevice = DeviceKind::Breaker; ///< as fitted: the usual one of the book where none is chosen
    bool deviceHeld = false;
    bool receptacles = false;
    int mostPoles = 0; ///< of the loads on it
    RunResult run;
    double faultEnd = 0; ///< kA at the far end of a branch run
    Rare<TapPoint> tap;  ///< of a busway's circuit
    /// No load, device or board hangs on it: nobody entered one.
    bool nothingHangsOn() const { return !feeder && mostPoles == 0; }
};

/// The same project while one source feeds all that can change over to it, and the others are off. Sizes and devices
/// are those of the normal state, but for what is used in this one only.
struct StateSolution;

struct Results {
    Results();
    Results(const Results&);
    Results(Results&&) noexcept;
    Results& operator=(const Results&);
    Results& operator=(Results&&) noexcept;
    ~Results();

    /// One for each source that takes something over, in the order of their ids. Empty: there is only the normal state.
    std::vector<std::shared_ptr<const StateSolution>> states;
    /// Indexed by the value of the id; places without a thing hold a default.
    std::vector<CircuitResult> circuits;
    std::vector<BoardResult> boards;
    std::vector<TransformerResult> transformers;
    std::vector<SourceResult> sources;
    /// Boards, transformers and sources, each after what feeds it.
    std::vector<Ref> order;
    /// Circuits of all boards, board after board, and by board id where its own begin; one more at the end.
    std::vector<CircuitId> onBoards;
    std::vector<std::uint32_t> onBoardFrom;
    /// The circuits of a board in the order of their ids, without a search through all.
    std::span<const CircuitId> on(BoardId b) const {
        if (b.value + 1 >= onBoardFrom.size()) return {};
        return {onBoards.data() + onBoardFrom[b.value], onBoards.data() + onBoardFrom[b.value + 1]};
    }
    /// What there is in the project at all, so that a rule with nothing to look at need not look.
    enum class Trait : std::uint8_t {
        Multiwire,
        Horsepower,
        NoDevice,
        Ring,
        Motor,
        NoLength,
        HeldSize,
        FireRated,
        ListedVolts,
        NoCircuit,
        ListedRun,
        ListedLoad,
        Nameplate
    };
    class Present {
    public:
        bool has(Trait t) const { return seen >> unsigned(t) & 1u; }
        void note(Trait t, bool is = true) { seen |= unsigned(is) << unsigned(t); }
        void add(const Present& o) { seen |= o.seen; }

    private:
        unsigned seen = 0;
    } present;

    const CircuitResult& of(CircuitId id) const { return circuits.at(id.value); }
    const BoardResult& of(BoardId id) const { return boards.at(id.value); }
    const TransformerResult& of(TransformerId id) const { return transformers.at(id.value); }
    const SourceResult& of(SourceId id) const { return sources.at(id.value); }
    bool knows(Ref r) const;
    /// The node of a board, transformer or source; null for anything else.
    const NodeResult* node(Ref r) const;
    NodeResult* node(Ref r) { return const_cast<NodeResult*>(static_cast<const Results*>(this)->node(r)); }
    /// The run that feeds a board or transformer (by the alternate feed, for a circuit that is on standby), or that
    /// leaves a branch circuit.
    const RunResult* run(Ref r) const;
    /// From the source to `thing`: sources, transformers, boards and at last a circuit. Empty when it is not fed.
    std::vector<Ref> feedPath(Ref thing, const Project& project) const;
};

} // namespace lintel
