#pragma once
// The document: what a person entered, as plain values that point at each other by id.
// Nothing worked out is kept here; see core/solve/Results.h for that. All lengths in metres, volts in V, loads as
// entered. `extra` of each thing holds fields that this version does not know, so that a round trip through the file
// keeps them.

#include "core/base/Geometry.h"
#include "core/base/Quantity.h"
#include "core/project/Choices.h"
#include "core/project/Extra.h"
#include "core/project/Ids.h"
#include "core/project/Table.h"
#include "core/project/VoltageSystem.h"

#include <array>
#include <map>
#include <optional>
#include <string>
#include <tuple>
#include <type_traits>
#include <vector>

namespace lintel {

/// A row of the revision table in the title block.
struct Revision {
    std::string mark, date, text, by; ///< all as the designer writes them
    bool operator==(const Revision&) const = default;
};

/// What the take-off counts beside what is drawn and run: boxes, fittings, supports. Each rule is the office's own.
struct TakeOffRule {
    std::string item; ///< what is ordered: "Coupling"
    TakeOffPer per = TakeOffPer::Device;
    std::string of{};  ///< part of the name of a device type, conduit or cable, whatever the case; empty: of all
    double amount = 1; ///< pieces for each
    double every = 0;  ///< m, for Length: so many pieces for each such length of a run that is begun
    std::string why{}; ///< clause or custom that it follows
    bool operator==(const TakeOffRule&) const = default;
};

/// The ground rules of a project.
struct Basis {
    std::string title = "Untitled", jobNumber, company, designer;
    std::string issue = "1"; ///< stamped on the sheets
    std::string issueDate;   ///< as the designer writes it; sheets never read the clock
    // Title block: printed as written; what is empty is left to be filled in by hand.
    std::string companyAddress, site, client; ///< site: where the building is
    std::string logo; ///< the company's, a PNG, JPEG or SVG file, by its path from the project's; empty: none
    std::string drawn, checked, approved; ///< by whom
    std::string status;                   ///< "Issued for tender"
    std::vector<Revision> revisions;      ///< the earliest first
    std::string ruleBook = "nec-2023";
    UnitSystem units = UnitSystem::Imperial;
    Occupancy occupancy = Occupancy::Other;
    Material branchMaterial = Material::Copper, feederMaterial = Material::Copper;
    int insulation = 90;     ///< °C rating of the conductors' insulation: 60, 75 or 90
    bool terminals75 = true; ///< equipment of 100 A or less is marked for 75 °C
    double ambient = 30;     ///< °C around the conductors
    Raceway raceway = Raceway::Steel;
    std::string conduit; ///< type of conduit, as the rule book names it; empty: the usual one of the raceway's material
    std::string
        insulationType; ///< as the rule book names it, for conduit fill; empty: the usual one of the temperature
    Wiring wiring = Wiring::Conduit;
    std::string smallestBranch = "12", largestPreferred = "500";
    double smallestBreaker = 20;                                         ///< A
    double feederDropLimit = 2, branchDropLimit = 3, totalDropLimit = 5; ///< %
    DropBasis branchDropBasis = DropBasis::Load, feederDropBasis = DropBasis::Load;
    double ratingShare = 0.8;       ///< of the breaker's rating, where drop is judged on it
    int upsizingCeiling = 4;        ///< sizes above what ampacity needs
    double growth = 0;              ///< share added to a feeder's demand, 0.2 = 20 %
    double slack = 0.05;            ///< share added to measured lengths
    double routeBelowCeiling = 0.3; ///< m below the ceiling that runs travel
    double unknownLength =
        0; ///< m that a run counts as whose length nobody entered or measured; 0: nothing, and its drop is not known
    double powerFactor = 0.9; ///< of feeders where loads give none
    // Metric practice, where the rule book goes by cables and the way they are laid.
    std::string branchCable, feederCable;      ///< types of cable as the rule book names them; empty: its usual ones
    std::string branchMethod, feederMethod;    ///< reference methods; empty: the first of the cable
    double groundTemperature = 20, soil = 2.5; ///< °C and K·m/W around buried cables
    double lightingDropLimit = 0;              ///< % from the source to lighting; 0: as everything else
    bool dropWhenWarm = false; ///< drop at the conductors' temperature under load rather than at their highest
    PhaseColours phaseColours = PhaseColours::Usual;
    std::string
        circuitPattern; ///< how a circuit is named: {board} {slot} {way} {line}; empty: by the form of its board
    // Plan: how devices are put on circuits and how wiring is drawn.
    double circuitShare = 0.8;   ///< of a breaker's rating that an automatic circuit is filled to
    int circuitPoints = 12;      ///< most devices on an automatic circuit; 0: any number
    double ownCircuitFrom = 6;   ///< A from which a device gets a circuit of its own
    double panelboardUpTo = 100; ///< A of a device; larger ones go to a switchboard, motors to a motor control centre
    WiringShape wiringShape = WiringShape::Curved;
    std::optional<double> north; ///< ° clockwise from the top of the plans; nothing: not known
    double planScale = 0; ///< of sheets of plans, 100 for 1:100: a larger floor goes on behind match lines; 0: the
                          ///< largest usual one at which each floor fits its sheet
    /// What is to stand together on sheets. Nothing is put there by itself: it is proposed (core/compose/Together).
    SheetsTogether sheetsTogether = SheetsTogether::Nothing;
    CalculationSheets calculationSheets = CalculationSheets::Nothing; ///< what of the calculations the set has
    double waste = 0; ///< share added to conductors and conduits in the take-off, 0.1 = 10 %
    std::vector<TakeOffRule> takeOffRules;
    double lightUtilisation = 0.6,
           lightMaintenance =
               0.8; ///< lumen method: share of the lumens that reaches the plane, and that is left after soiling
    std::string
        lightingAreaOf;    ///< occupancy whose lighting by area is the least the service is worked out on; empty: none
    double classShare = 1; ///< metric: of what its class allows that a breaker lets through in a fault, by its maker;
                           ///< 1: nothing is known of it
    double faultCelsius = 20; ///< °C of the conductors in the largest fault: 20 is cold, and gives the most
    Material electrodeMaterial = Material::Copper; ///< of grounding electrode conductors and bonding jumpers
    bool motorsFeedFaults = false; ///< four times the full-load current of all motors of a system added to its faults
    std::map<std::string, double> ownValues; ///< in place of the rule book's, by their place in it: "continuous/factor"
    std::map<std::string, std::string> ownReasons; ///< why one of them is right, by the same place
    /// Who set an assumption and who has looked at it, by its key (see core/check/Assumptions.h): "AB" and
    /// "AB\n2026-11-29\n22 kA", with the value that was seen.
    std::map<std::string, std::string> setBy, seen;
    std::map<std::string, std::string>
        smallestByUse; ///< smallest conductor of a branch run, by its load kind; others: `smallestBranch`
    std::map<std::string, double> smallestBreakerByUse; ///< A, by load kind; others: `smallestBreaker`
    std::map<std::string, std::string> wiringByUse; ///< how branch runs are laid by load kind: a word of Wiring, or a
                                                    ///< metric book's type of cable; others: `wiring`, `branchCable`
    std::string runPattern;  ///< what runs are called: {board} {slot} {from} {to} {number} {kind}; empty: by hand
    std::string namePattern; ///< what circuits are called after what hangs on them: {what} {rooms} {numbers} {tags}
                             ///< {count} {load} {board}; empty: "{what}, {rooms}"
    std::map<std::string, std::string> namePatternByUse; ///< by load kind; others: `namePattern`
    std::map<std::string, double> demandFactors; ///< the designer's own, by load kind; replaces the rule book's rule
    Point modelOrigin;                           ///< where the zero of building models lies on the plans
    Extra extra;
    bool operator==(const Basis&) const = default;
};

struct Level {
    LevelId id;
    std::string name;
    double elevation = 0, height = 3; ///< m above datum; m floor to ceiling
    Extra extra;
    std::string modelId{}; ///< its identity in the building model that it came from; empty: from none
    bool operator==(const Level&) const = default;
};

struct Wall {
    WallId id;
    LevelId level;
    Point a, b;
    double thickness = 0.15;
    double bulge = 0; ///< of a curved wall: tangent of a quarter of its angle; positive turns clockwise on the sheet,
                      ///< so that it bows to the left of a–b; 0: straight
    Extra extra;
    std::string modelId{}; ///< its identity in the building model that it came from; empty: from none
    bool operator==(const Wall&) const = default;
};

struct Room {
    RoomId id;
    LevelId level;
    std::string number, name, kind;
    std::vector<Point> outline;
    std::optional<double> ceiling; ///< m above the floor, where it is not the level's
    double gridX = 0, gridY = 0;   ///< m, the panels of a ceiling grid; 0: no grid
    Point gridFrom;                ///< a crossing of its lines
    Extra extra;
    std::string modelId{}; ///< its identity in the building model that it came from; empty: from none
    bool operator==(const Room&) const = default;
};

/// A, as marked on a piece of equipment; 0: not marked.
struct Nameplate {
    double ampacity = 0; ///< the smallest of the conductors to it (minimum circuit ampacity, MCA)
    double device = 0;   ///< the largest overcurrent device ahead of it (MOCP)
    bool operator==(const Nameplate&) const = default;
};

/// What kind of thing stands on the plan, and the load each one brings.
struct DeviceType {
    DeviceTypeId id;
    std::string name;
    Symbol symbol = Symbol::Receptacle;
    LoadKind kind = LoadKind::Receptacle;
    double load = 180; ///< of one, in `unit`
    LoadUnit unit = LoadUnit::VA;
    double powerFactor = 1;
    int poles = 1;
    bool continuous = false;
    bool onWall = true;
    double height = 0.45;               ///< m above the floor
    double lumens = 0;                  ///< of a luminaire's light
    bool lifeSafety = false;            ///< goes to boards that take life safety
    std::string protection, connection; ///< "IP44", "NEMA 3R"; "cord and plug"
    Nameplate nameplate;
    std::string mark{};        ///< by which plans and schedules name it: "A1"
    std::string lamp{};        ///< "LED 3000 K, 80+"
    std::string description{}; ///< a line or more for its cut sheet
    std::string picture{};     ///< PNG, JPEG or SVG file, by its path from the project's
    Extra extra;
    bool operator==(const DeviceType&) const = default;
};

struct Device {
    DeviceId id;
    DeviceTypeId type;
    LevelId level;
    Point at;
    double turn = 0; ///< degrees, clockwise; 0 faces down the sheet
    CircuitId circuit;
    std::string tag;
    std::optional<double> height, load; ///< m and the type's unit, where this one differs from its type
    std::string protection;             ///< where it differs from its type
    bool spur = false;                  ///< on an unfused spur of its ring
    std::string leg;                    ///< switch leg: the switch and its luminaires carry the same letter
    RecipeId recipe;                    ///< the recipe that placed it; none: a hand did
    RoomId room;                        ///< the room it was placed for
    Point placed;                       ///< where the recipe put it: elsewhere by now, and the recipe leaves it alone
    Extra extra;
    std::string modelId{}; ///< its identity in the building model that it came from; empty: from none
    bool operator==(const Device&) const = default;
};

struct Source {
    SourceId id;
    std::string name;
    VoltageSystem system = VoltageSystem::Y480;
    SourceKind kind = SourceKind::FaultLevel;
    double faultKA = 30;                ///< three-phase bolted, where kind is FaultLevel
    double kva = 1500, percentZ = 5.75; ///< where kind is UtilityTransformer; its primary is taken as infinite
    double xOverR = 6;
    double utilityMVA =
        0; ///< three-phase fault level before a utility transformer; 0: not given, and taken as infinite
    double utilityXR = 10;    ///< of that
    double utilityKV = 0;     ///< line–line volts at which it is given, in kV; 0: not said
    double faultLN = 0;       ///< kA line–neutral, of an existing board; 0: as the three-phase impedance gives
    double subtransient = 15; ///< % reactance of a generator of `kva`
    double peakShare = 1;     ///< of its kVA that a generator gives for the moment a motor starts, by its maker's data
    Earthing earthing = Earthing::TNS;
    double ze = 0; ///< Ω, earth-fault loop outside the installation; TT: with the electrode. 0: as worked out
    bool ownSubstation = false;    ///< the supply is a substation of the installation's own, not a public network
    std::string insulationMonitor; ///< IT: what watches the insulation, or why nothing does; empty: nothing is said
    LevelId level;
    bool onPlan = true; ///< it stands at `at`; false: only its level is known, nothing is measured to it
    Point at;
    Extra extra;
    bool operator==(const Source&) const = default;
};

struct Transformer {
    TransformerId id;
    std::string name;
    double kva = 75;
    double percentZ = 4.5, xOverR = 2;
    VoltageSystem primary = VoltageSystem::Y480, secondary = VoltageSystem::Y208;
    bool restartsDrop = true; ///< drop counts from zero again below it (its taps are set for that)
    double boost = 0; ///< % that its taps raise the secondary by, where drop does not begin again below it; −: lower
    Ref feed;         ///< a circuit or a source; nothing: unfed
    RunId run;        ///< its primary conductors
    LevelId level;
    bool onPlan = true; ///< it stands at `at`; false: only its level is known, nothing is measured to it
    Point at;
    Extra extra;
    bool operator==(const Transformer&) const = default;
};

/// A piece of distribution equipment that is fed and feeds: a board with circuits, or what stands in a feed and passes
/// on what it is fed (see passesOn): a meter, a disconnect, a transfer switch. Such a thing has no places for circuits.
struct Board {
    BoardId id;
    std::string name, description;
    BoardUse use = BoardUse::Panelboard;
    BoardForm form = BoardForm::TwoColumn;
    VoltageSystem system = VoltageSystem::Y208;
    double bus = 225;          ///< A
    double main = 0;           ///< A of the main device; 0: lugs only
    double seriesKA = 0;       ///< of its tested pair with the device that feeds it; 0: none
    std::string seriesDevices; ///< the two devices that were tested as one, by their maker's table; empty: nobody says
    std::optional<double> givenKA; ///< fault level known here; nothing upstream is then worked out
    double givenXR = 4;
    std::string surge; ///< the surge protection it has, in words; empty: none
    /// What takes over when `feed` fails, through a transfer switch: a source, a transformer, a circuit, or a board
    /// that passes on; nothing: none.
    Ref alternate;
    RunId alternateRun;           ///< the conductors from there
    bool switchesNeutral = false; ///< of a transfer switch: the neutral changes over too, and the alternate system has
                                  ///< a ground of its own
    double kva = 0, kw = 0;       ///< of a UPS: the most that it gives; 0: not entered
    /// Of a UPS, by its maker: what it gives over what it takes at its load, 0.95 = 95 %, and kW that it takes beside
    /// while its battery is charged again. 0: not entered, and nothing is added.
    double efficiency = 0, rechargeKW = 0;
    double inverterA = 0; ///< of a UPS, by its maker: A into a short circuit from its battery; 0: not entered
    /// Of a busway: m from its fed end to its far end, and by its maker, mΩ/m of one line: resistance at 20 °C and at
    /// its rated current, reactance; of the loop line–protective path, resistance at 20 °C and reactance. 0: not
    /// entered.
    double barLength = 0, barR20 = 0, barR = 0, barX = 0, barLoopR20 = 0, barLoopX = 0;
    double ratingKA = 10; ///< short-circuit rating of the assembly and of its branch devices
    int slots = 42;
    std::string enclosure; ///< "NEMA 1", "IP54"
    Mounting mounting = Mounting::Surface;
    Lugs lugs = Lugs::None;             ///< what another board may be fed from straight
    std::string location;               ///< in words, where the plan's room does not say enough
    double reservedShare = 0;           ///< of its places that are to stay free, 0.2 = 20 %
    std::vector<std::string> leftKinds; ///< load kinds that levelling keeps in the left column
    int turned = 0;                     ///< its line A hangs on line A (0), B (1) or C (2) of what feeds it
    Ref feed;                           ///< a circuit, a transformer, a source or another board's lugs; nothing: unfed
    RunId run;                          ///< the conductors that feed it
    FormId scheduleForm;                ///< how its schedule is laid out; none: the usual one of its kind
    std::map<std::string, std::string> texts; ///< the designer's own columns: heading, text
    LevelId level;
    bool onPlan =
        true; ///< it stands at `at`; false: only its level is known, it is not drawn and nothing is measured to it
    Point at;
    double turn = 0, height = 1.5; ///< degrees; m above the floor
    /// Whether it is drawn on the plan of this level.
    bool standsOn(LevelId floor) const { return onPlan && level == floor; }
    Extra extra;
    bool operator==(const Board&) const = default;
};

/// A breaker in a board with what it serves. A circuit that some board or transformer names as its feed is a feeder.
struct Circuit {
    CircuitId id;
    BoardId board;
    int slot = 0; ///< of the first pole, as numbered on the board; 0: not placed yet
    int poles = 1;
    CircuitUse use = CircuitUse::Load;
    std::string name;     ///< what it serves; one name, used everywhere
    std::string madeName; ///< the name as the naming pattern last made it; a name that differs was typed, and stays
    std::optional<double> heldBreaker;      ///< A
    std::optional<double> heldKA;           ///< interrupting rating, where it is not the board's
    std::optional<double> letThroughEnergy; ///< A²s that its device lets through at the fault level of its board, by
                                            ///< its maker; nothing: at most what its class allows
    std::optional<double> letThroughKA;     ///< what a current-limiting device lets through to all below it
    std::string letThroughData; ///< by which device and which of its maker's curves what it lets through is known;
                                ///< empty: nobody says
    DeviceKind device = DeviceKind::Breaker;
    bool pinned = false, fullRated = false, groundFault = false, arcFault = false; ///< fullRated: 100 %-rated device
    bool ring = false;   ///< its run goes round and comes back to the same device; its length is that of the whole ring
    double residual = 0; ///< mA of its own residual-current device; 0: none
    ResidualType residualType = ResidualType::A;
    std::string
        unprotected; ///< the recorded reason why ground-fault, arc-fault or residual-current protection is left out
    bool automatic = false; ///< made by circuiting from catchments, which may make it anew while it is not pinned
    int bundle = 0;         ///< home runs of a board with the same number lie in one raceway; 0: alone
    int multiwire = 0; ///< circuits of a board with the same number share one neutral and are opened together; 0: none
    int tie = 0; ///< breakers of a board with the same number have their handles tied: side by side, switched together;
                 ///< 0: none
    int kept = 0; ///< circuits of a board with the same number stay beside one another when it is levelled; 0: anywhere
    double factor = 1;                         ///< the designer's own demand factor
    StarterKind starter = StarterKind::Unsaid; ///< of its motor
    double startTimes = 0; ///< current that the motor takes while it starts, × its full-load current, as its starter is
                           ///< set; 0: not said, and counted by the kind of starter
    std::optional<double> along; ///< of a tap-off: m from the fed end of its busway; nothing: not said
    RunId run;
    std::string note;
    std::map<std::string, std::string> texts; ///< the designer's own columns: heading, text
    Extra extra;
    bool operator==(const Circuit&) const = default;
};

/// Conductors from one place to another. What is not set comes from the basis.
struct Run {
    RunId id;
    std::string name;
    LengthBy lengthBy = LengthBy::Reach;
    double length = 0;        ///< m one way, where entered
    std::vector<Point> trace; ///< its way on the plan, drawn by hand, from the board on; empty: none
    RouteBy route = RouteBy::Auto;
    std::optional<Material> material;
    std::optional<Raceway> raceway;
    std::optional<double> ambient;
    Wiring wiring = Wiring::Default;
    std::string conduit;  ///< type of conduit; empty: as basis
    bool onRoof = false;  ///< in sunlight, close above a roof
    double nonlinear = 0; ///< share of the load that is nonlinear; above a half the neutral counts as loaded
    NeutralBy neutral = NeutralBy::Auto;
    bool isolatedGround = false; ///< a second, insulated protective conductor
    bool nipple = false;         ///< a conduit of at most 24 in between enclosures: it may be filled further
    int sharing = 0;             ///< other current-carrying conductors in the same raceway
    std::string heldSize;        ///< as the rule book names it; empty: sized automatically
    int heldSets = 0;            ///< 0: automatic
    DropBasis dropBasis = DropBasis::Default;
    std::string cable, method; ///< metric: type and reference method; empty: as the basis
    int grouped = 0;           ///< metric: other circuits laid together with it
    Lying lying = Lying::Auto; ///< metric: beside those grouped with it
    double thirdHarmonic =
        0;          ///< metric: third harmonic in its lines, share of their current; it adds up in the neutral
    int points = 0; ///< that its load is spread over evenly, from the first to its far end; 0, 1: all of it at the end
    bool setsApart = false; ///< metric: its parallel sets lie so far apart that they do not heat one another; else each
                            ///< counts as a circuit of its group
    double insulated = 0;   ///< m of it surrounded by thermal insulation
    std::optional<double> soil; ///< K·m/W
    ProtectiveBy protectiveBy = ProtectiveBy::Auto;
    std::string heldGround; ///< size of the protective conductor; empty: sized
    bool fireRated = false; ///< must go on working in a fire: a fire-rated cable is asked for
    // As a list of feeders gives them: nothing rests on them, and what is worked out is held against them.
    std::string reference;     ///< the drawing that shows it
    std::string listedConduit; ///< "2-1/2"; empty: not said
    double listedKA = 0;       ///< fault at its end; 0: not said
    double listedVA = 0;       ///< what it carries; 0: not said
    Extra extra;
    bool operator==(const Run&) const = default;
};

/// A load that is listed and not drawn: equipment from another discipline's list, or an allowance.
struct Load {
    LoadId id;
    CircuitId circuit; ///< none: unfed
    std::string tag;   ///< by which the list it came from knows it; empty: none
    BoardId board;     ///< the board that its list names, whether it is circuited there yet or not; none: not said
    double volts = 0;  ///< that its list gives; 0: not said
    std::string name, where;
    LoadKind kind = LoadKind::Equipment;
    double amount = 0;
    LoadUnit unit = LoadUnit::VA;
    double powerFactor = 1;
    double quantity = 1;
    int poles = 1;
    bool continuous = false;
    double diversity = 1;
    double efficiency =
        1; ///< of a motor whose shaft power is entered in W or kW: it takes that over this; 1: what is entered is taken
    double duty = 1;     ///< share of the time that it runs; its heating current goes with the root of it
    Nameplate nameplate; ///< of each piece
    double splitA = 0, splitB = 0, splitC = 0; ///< shares of a load on several lines; all 0: evenly
    Extra extra;
    bool operator==(const Load&) const = default;
};

/// Part of a board: a run of its places behind a device of its own, as the halves of a split board or a cubicle of a
/// switchboard.
struct Section {
    SectionId id;
    BoardId board;
    std::string name;
    int from = 1, to = 1; ///< slots, both within
    double rating = 0;    ///< A of its switch; 0: none of its own
    double residual = 0;  ///< mA of the residual-current device in front of it; 0: none
    ResidualType residualType = ResidualType::A;
    bool metered = false;
    /// Whether a circuit stands in it.
    bool holds(const Circuit& c) const { return c.board == board && c.slot >= from && c.slot <= to; }
    Extra extra;
    bool operator==(const Section&) const = default;
};

/// One column of a schedule form.
struct FormColumn {
    std::string heading;
    std::string wording; ///< figures in braces with words between them, as Wording.h says
    double width = 0;    ///< mm; 0: what the others leave
    ColumnAlign align = ColumnAlign::Left;
    bool operator==(const FormColumn&) const = default;
};

/// A fact of a board in the title strip of its schedule.
struct FormFact {
    std::string fact;  ///< its key; empty: its place is free
    std::string label; ///< over it; empty: its usual one
    bool operator==(const FormFact&) const = default;
};

/// How the schedules of some boards are laid out: the columns of their circuits. A company's, or made for this project.
struct ScheduleForm {
    FormId id;
    std::string name;
    BoardForm of = BoardForm::TwoColumn;
    bool usual = false; ///< for all boards of its kind that name no form of their own
    std::vector<FormColumn> columns;
    std::vector<FormFact> head; ///< of the title strip, three in a row; empty: the usual six
    double letters = 0;         ///< mm of the letters of its rows; 0: the usual size
    FormRules rules = FormRules::Light;
    std::string spare, space; ///< what rows of spare breakers and of free places say; empty: "Spare", "Space"
    bool withoutTally = false, withoutPhases = false; ///< below the rows: the load tally, and what each line carries
    double balance = 0; ///< % of imbalance up to which it says that the board is balanced; 0: it says nothing
    /// Keys of figures. Rows stand in the order of what `sortBy` says of their circuits, from the last to the first
    /// with `backwards`; those of which `groupBy` says the same stand together under a heading. Empty: as their places
    /// are numbered, which on boards of two columns they always do.
    std::string sortBy, groupBy;
    bool backwards = false;
    Extra extra;
    bool operator==(const ScheduleForm&) const = default;
};

/// A column of a list, as the office wants it.
struct ListFormColumn {
    std::string of;      ///< the heading that it has by itself
    std::string heading; ///< in its place; empty: that
    bool hidden = false;
    bool operator==(const ListFormColumn&) const = default;
};
/// How a list is laid out on sheets, in workbooks and as CSV. Columns that it does not name follow those that it does.
struct ListForm {
    ListFormId id;
    std::string list;  ///< its key: "feeders"
    std::string title; ///< empty: the usual one
    std::vector<ListFormColumn> columns;
    bool offSheets = false; ///< it is not among the lists on sheets
    /// Of a column, the heading that it has by itself. Rows stand in the order of what they say under `sortBy`, from
    /// the last to the first with `backwards`, and those that say the same under `groupBy` stand together under a
    /// heading of their own. Empty: as they come.
    std::string sortBy, groupBy;
    bool backwards = false;
    Extra extra;
    bool operator==(const ListForm&) const = default;
};

/// The architect's drawing below a level. The file stays where it is; the project keeps how it lies.
struct Underlay {
    UnderlayId id;
    LevelId level;
    std::string file;   ///< as written by the designer: beside the project, or a whole path
    std::string stamp;  ///< of the content that was linked last, to tell when the file has changed
    double scale = 0;   ///< m for one unit of the drawing or one pixel; 0: as the drawing's header says
    Point origin;       ///< where the drawing's own zero lies on the level
    double turn = 0;    ///< degrees, clockwise
    double fade = 0.55; ///< 0: as drawn; 1: gone
    bool hidden = false;
    std::vector<Point> crop; ///< two corners on the level: only what lies between is shown; empty: all
    std::vector<std::string> hiddenLayers;
    Extra extra;
    bool operator==(const Underlay&) const = default;
};

/// A door, window or opening in a wall.
struct Opening {
    OpeningId id;
    WallId wall;
    OpeningKind kind = OpeningKind::Door;
    double along = 0.5, width = 0.9; ///< m from the wall's first end to the middle; m
    bool hingeAtEnd = false,
         otherSide = false; ///< hinged at the side of the wall's second end; swings to the left of a–b on the sheet
    Extra extra;
    std::string modelId{}; ///< its identity in the building model that it came from; empty: from none
    bool operator==(const Opening&) const = default;
};

struct Furnishing {
    FurnishingId id;
    LevelId level;
    FurnishingKind kind = FurnishingKind::Desk;
    Point at;                    ///< its middle
    double turn = 0;             ///< degrees, clockwise
    double width = 0, depth = 0; ///< m; 0: as usual for its kind
    std::string name;
    Extra extra;
    bool operator==(const Furnishing&) const = default;
};

/// One kind of thing that a recipe gives a room.
struct RecipePart {
    DeviceTypeId type;
    RecipeBy by = RecipeBy::GridSpacing;
    double value = 3;          ///< m of spacing, lux, or W/m²
    int rows = 1, columns = 1; ///< grid by count
    FurnishingKind furnishing = FurnishingKind::Desk;
    std::string leg; ///< the switch leg that what it places carries
    bool operator==(const RecipePart&) const = default;
};
/// What every room of a kind gets.
struct Recipe {
    RecipeId id;
    std::string roomKind;
    std::vector<RecipePart> parts;
    Extra extra;
    bool operator==(const Recipe&) const = default;
};

/// A board of a catchment and what it takes there.
struct Serving {
    BoardId board;
    std::vector<std::string> kinds; ///< of load; empty: all
    bool lifeSafety = false;        ///< takes life safety, and nothing else
    bool operator==(const Serving&) const = default;
};
/// An area of plan and the boards that serve it.
struct Catchment {
    CatchmentId id;
    LevelId level;
    std::string name;
    std::vector<Point> outline; ///< empty: the whole level
    std::vector<Serving> boards;
    Extra extra;
    bool operator==(const Catchment&) const = default;
};

/// A cable tray along a path, or a riser: a path of one point that goes up or down to another level.
struct Tray {
    TrayId id;
    LevelId level;
    std::string name;
    std::vector<Point> path;
    double width = 0.3, depth = 0.06, height = 2.6; ///< m; m above the floor
    LevelId riseTo;                                 ///< of a riser
    Extra extra;
    bool operator==(const Tray&) const = default;
};

/// A note that points at a place of a plan: its number in a hexagon there, its text beside the plan. Notes of a floor
/// that say the same share a number (core/plan/KeyedNotes.h).
struct KeyedNote {
    KeyedNoteId id;
    LevelId level;
    Point at;
    int number = 1; ///< it stays when others come and go
    std::string text;
    NoteOn on = NoteOn::All;
    Extra extra;
    bool operator==(const KeyedNote&) const = default;
};

/// A sheet as it went out.
struct IssuedSheet {
    std::string number, title;
    std::string key; ///< by which it is found again, whatever it is called by then; empty: an older file has its title
    std::string print; ///< of its words (printOf): another one when any of them differs
    bool operator==(const IssuedSheet&) const = default;
};
/// What stood in the way of an issue, and who went on nevertheless.
struct TakenOn {
    std::string what, by;
    bool operator==(const TakenOn&) const = default;
};
/// The set as it went out on a day. It never changes afterwards.
struct Issue {
    IssueId id;
    std::string mark; ///< "T1"
    std::string date, reason, by, checked;
    IssueState state = IssueState::Tender;
    std::vector<IssuedSheet> sheets;
    std::vector<TakenOn> taken;
    IssueId basedOn;                 ///< the issue by which its state is told; none: it is told in full
    std::vector<std::string> packed; ///< the project as it was, without its issues (see core/issue)
    Extra extra;
    bool operator==(const Issue&) const = default;
};

/// Somebody has looked at a figure and found it good, as it was then.
struct Tick {
    TickId id;
    Ref about;          ///< nothing: the basis. It may be gone by now
    std::string figure; ///< which of its figures: "fault level" (see core/review)
    std::string thing;  ///< what it was called then
    std::string value;  ///< as it was seen
    std::string by, date;
    Extra extra;
    bool operator==(const Tick&) const = default;
};
/// What somebody who checks has to say, and what came of it.
struct Remark {
    RemarkId id;
    Ref about;            ///< nothing: the basis, or a sheet. It may be gone by now
    std::string figure;   ///< empty: the thing as a whole
    std::string thing;    ///< what it was called then
    std::string sheet;    ///< title that the sheet had that it points at; empty: none
    std::string sheetKey; ///< by which that sheet is known whatever it is called now (SheetEntry::key)
    Point at;             ///< mm on it
    std::string text, by, date;
    std::string answer, answeredBy, answeredOn;
    bool closed = false;
    Extra extra;
    bool operator==(const Remark&) const = default;
};

/// What somebody says of a sheet. One with a number keeps it, whatever comes to stand before it: it went out with it,
/// or somebody gave it one. Others are numbered as it comes (core/project/SheetNumbers.h).
struct SheetNumber {
    SheetNumberId id;
    SheetKind of = SheetKind::Schedule;
    Ref about; ///< its level, board or composed sheet; nothing: the riser and the one-line. It may be gone by now: no
               ///< other sheet takes its number
    std::string number; ///< "E-604", or as the office numbers its sheets; empty: as it comes
    std::string title;  ///< as somebody wrote it; empty: as it comes
    bool left = false;  ///< it is left out of the set
    Extra extra;
    bool operator==(const SheetNumber&) const = default;
};

/// Where somebody put a thing on the riser and the one-line: among those that hang on the same as it does. Others
/// stand in the order of their places.
struct RiserPlace {
    RiserPlaceId id;
    Ref about;          ///< a board, transformer, source, or a circuit that is drawn there. It may be gone by now
    bool moved = false; ///< it stands behind `after`; false: in the order of places
    Ref after;          ///< one that hangs on the same; nothing, or one that is gone: before all others
    double gap = 0;     ///< mm left free before it, beside what there is by itself
    int lower = 0;      ///< steps by which the level stretches of its feeder stand lower than by themselves
    double lift = 0;    ///< mm by which the words of its feeder stand further from it than by themselves
    Extra extra;
    bool operator==(const RiserPlace&) const = default;
};

/// A sheet that somebody put together from views (core/compose). Its number and title are among those of all sheets.
struct ComposedSheet {
    ComposedSheetId id;
    SheetPaper paper = SheetPaper::Usual;
    Extra extra;
    bool operator==(const ComposedSheet&) const = default;
};

/// What stands on a composed sheet. What is shown there has no sheet of its own. Views stand in the order of the table,
/// each in the first free place, unless somebody moved one.
struct PlacedView {
    PlacedViewId id;
    ComposedSheetId sheet; ///< it may be gone by now
    SheetKind shows = SheetKind::Schedule;
    Ref about;              ///< its board or level; nothing: riser, one-line, list, notes. It may be gone by now
    std::string text;       ///< of a list: which; of notes: a note a line; of a picture: its file
    std::string title;      ///< as somebody wrote it; empty: the usual one
    bool moved = false;     ///< it stands at `at`; false: in the first free place
    Point at;               ///< mm from the upper left corner of the field within the border
    int page = 1;           ///< on which page of the sheet it is moved to, from 1
    double width = 0;       ///< mm that diagrams, lists and notes are set in; 0: as it comes
    double scale = 0;       ///< of plans, 100 for 1:100; 0: the largest usual one that fits
    Point cropFrom, cropTo; ///< of plans, two corners of the part that is shown, m on the level; the same: all of it
    Extra extra;
    bool operator==(const PlacedView&) const = default;
};

/// Things that tell of others which may be gone by now.
template <class T>
inline constexpr bool outlivesOthers =
    std::is_same_v<T, Tick> || std::is_same_v<T, Remark> || std::is_same_v<T, SheetNumber> ||
    std::is_same_v<T, RiserPlace> || std::is_same_v<T, PlacedView>;

struct Project {
    Basis basis;
    Table<Level> levels;
    Table<Wall> walls;
    Table<Room> rooms;
    Table<DeviceType> deviceTypes;
    Table<Source> sources;
    Table<Transformer> transformers;
    Table<Board> boards;
    Table<Circuit> circuits;
    Table<Run> runs;
    Table<Load> loads;
    Table<Section> sections;
    Table<Device> devices;
    Table<Underlay> underlays;
    Table<Opening> openings;
    Table<Furnishing> furnishings;
    Table<Recipe> recipes;
    Table<Catchment> catchments;
    Table<Tray> trays;
    Table<ScheduleForm> forms;
    Table<Issue> issues;
    Table<Tick> ticks;
    Table<Remark> remarks;
    Table<SheetNumber> sheetNumbers;
    Table<RiserPlace> riserPlaces;
    Table<ComposedSheet> composedSheets;
    Table<PlacedView> placedViews;
    Table<ListForm> listForms;
    Table<KeyedNote> keyedNotes;
    Extra extra;

    // Made, copied and ended in one place: each file that holds one would compile all of it once more.
    Project();
    Project(const Project&);
    Project(Project&&) noexcept;
    Project& operator=(const Project&);
    Project& operator=(Project&&) noexcept;
    ~Project();
    bool operator==(const Project& other) const;

    /// Calls f(name, member pointer) for every table: the one list that files, edits and differences all read.
    template <class F> static void eachTable(F f) {
        f("levels", &Project::levels);
        f("walls", &Project::walls);
        f("rooms", &Project::rooms);
        f("deviceTypes", &Project::deviceTypes);
        f("sources", &Project::sources);
        f("transformers", &Project::transformers);
        f("boards", &Project::boards);
        f("circuits", &Project::circuits);
        f("runs", &Project::runs);
        f("loads", &Project::loads);
        f("sections", &Project::sections);
        f("devices", &Project::devices);
        f("underlays", &Project::underlays);
        f("openings", &Project::openings);
        f("furnishings", &Project::furnishings);
        f("recipes", &Project::recipes);
        f("catchments", &Project::catchments);
        f("trays", &Project::trays);
        f("forms", &Project::forms);
        f("issues", &Project::issues);
        f("ticks", &Project::ticks);
        f("remarks", &Project::remarks);
        f("sheetNumbers", &Project::sheetNumbers);
        f("riserPlaces", &Project::riserPlaces);
        f("composedSheets", &Project::composedSheets);
        f("placedViews", &Project::placedViews);
        f("listForms", &Project::listForms);
        f("keyedNotes", &Project::keyedNotes);
    }
};

// Compiled once, in Project.cpp.
extern template class Table<Level>;
extern template class Table<Wall>;
extern template class Table<Room>;
extern template class Table<DeviceType>;
extern template class Table<Source>;
extern template class Table<Transformer>;
extern template class Table<Board>;
extern template class Table<Circuit>;
extern template class Table<Run>;
extern template class Table<Load>;
extern template class Table<Section>;
extern template class Table<Device>;
extern template class Table<Underlay>;
extern template class Table<Opening>;
extern template class Table<Furnishing>;
extern template class Table<Recipe>;
extern template class Table<Catchment>;
extern template class Table<Tray>;
extern template class Table<ScheduleForm>;
extern template class Table<Issue>;
extern template class Table<Tick>;
extern template class Table<Remark>;
extern template class Table<SheetNumber>;
extern template class Table<RiserPlace>;
extern template class Table<ComposedSheet>;
extern template class Table<PlacedView>;
extern template class Table<ListForm>;
extern template class Table<KeyedNote>;

/// Puts words in the places of a pattern: "{board}/{way}" with board DB-1 and way 3 is "DB-1/3". A word that is empty
/// takes the sign before it along; a place that is not in the list stays as written.
std::string fillPattern(const std::string& pattern, const std::map<std::string, std::string>& words);
/// "LK-1-14" for a placed circuit, "DB-1/5/L2" on a board of ways, or by the basis' own pattern; "LK-1-?" while it has
/// no slot.
std::string nameOf(const Project& project, CircuitId circuit);
/// The name by which a person knows the thing: "LK-1", "T-2", "LK-1-14", "Servery 010".
std::string nameOf(const Project& project, Ref thing);
/// What `circuit` feeds: a board or a transformer; nothing for a branch circuit. Looks through all of them: for one
/// question, not for a loop (the solver's Topology has them all).
Ref fedBy(const Project& project, CircuitId circuit);
/// The room that a point of a level lies in.
RoomId roomAt(const Project& project, LevelId level, Point at);

} // namespace lintel
