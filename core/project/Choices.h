#pragma once
// The choices a designer makes by word.

#include "core/base/EnumText.h"

namespace lintel {

/// What a load is, for the demand rules and the load tally.
enum class LoadKind : std::uint8_t {
    Lighting,
    Receptacle,
    Motor,
    Kitchen,
    Heating,
    Cooling,
    Refrigeration,
    Vertical,
    Vehicle,
    DwellingGeneral,
    Range,
    Dryer,
    Equipment,
    Existing,
    Capacitor,
    WaterHeating,
    InstantWater,
    OutdoorLighting,
    LargeOutlet,
    Pool
};
inline constexpr int loadKinds = 20;
template <> struct EnumText<LoadKind> {
    static constexpr std::pair<LoadKind, const char*> words[] = {
        {LoadKind::Lighting, "lighting"},
        {LoadKind::Receptacle, "receptacle"},
        {LoadKind::Motor, "motor"},
        {LoadKind::Kitchen, "kitchen"},
        {LoadKind::Heating, "heating"},
        {LoadKind::Cooling, "cooling"},
        {LoadKind::Refrigeration, "refrigeration"},
        {LoadKind::Vertical, "lift"},
        {LoadKind::Vehicle, "vehicle charging"},
        {LoadKind::DwellingGeneral, "dwelling general"},
        {LoadKind::Range, "range"},
        {LoadKind::Dryer, "dryer"},
        {LoadKind::Equipment, "equipment"},
        {LoadKind::Existing, "existing"},
        {LoadKind::Capacitor, "capacitor"},
        {LoadKind::WaterHeating, "water heating"},
        {LoadKind::InstantWater, "instantaneous water heating"},
        {LoadKind::OutdoorLighting, "outdoor lighting"},
        {LoadKind::LargeOutlet, "large outlet"},
        {LoadKind::Pool, "pool and spa"}};
};
/// As a heading on a schedule.
constexpr const char* titleOf(LoadKind k) {
    constexpr const char* titles[] = {"Lighting",
                                      "Receptacles",
                                      "Motors",
                                      "Kitchen equipment",
                                      "Heating",
                                      "Cooling",
                                      "Refrigeration",
                                      "Lifts",
                                      "Vehicle charging",
                                      "Dwelling, general",
                                      "Ranges",
                                      "Dryers",
                                      "Equipment",
                                      "Existing, measured",
                                      "Capacitors",
                                      "Water heating",
                                      "Instantaneous water heating",
                                      "Outdoor lighting",
                                      "Outlets above 10 A",
                                      "Pools and spas"};
    return titles[int(k)];
}

/// hp: of a motor's shaft; its current comes from the rule book's table. kvar: what a capacitor gives.
enum class LoadUnit : std::uint8_t { VA, kVA, W, kW, A, hp, kvar };
template <> struct EnumText<LoadUnit> {
    static constexpr std::pair<LoadUnit, const char*> words[] = {
        {LoadUnit::VA, "VA"}, {LoadUnit::kVA, "kVA"}, {LoadUnit::W, "W"},      {LoadUnit::kW, "kW"},
        {LoadUnit::A, "A"},   {LoadUnit::hp, "hp"},   {LoadUnit::kvar, "kvar"}};
};

enum class Material : std::uint8_t { Copper, Aluminium };
template <> struct EnumText<Material> {
    static constexpr std::pair<Material, const char*> words[] = {{Material::Copper, "copper"},
                                                                 {Material::Aluminium, "aluminium"}};
};

/// What the conductors lie in, as far as it changes their reactance.
enum class Raceway : std::uint8_t { Steel, Aluminium, Pvc };
template <> struct EnumText<Raceway> {
    static constexpr std::pair<Raceway, const char*> words[] = {
        {Raceway::Steel, "steel"}, {Raceway::Aluminium, "aluminium"}, {Raceway::Pvc, "PVC"}};
};

/// How long a run is: to its farthest device; through its devices in order; as entered; or along the path drawn by
/// hand.
enum class LengthBy : std::uint8_t { Reach, Chain, Entered, Traced };
template <> struct EnumText<LengthBy> {
    static constexpr std::pair<LengthBy, const char*> words[] = {{LengthBy::Reach, "reach"},
                                                                 {LengthBy::Chain, "chain"},
                                                                 {LengthBy::Entered, "entered"},
                                                                 {LengthBy::Traced, "traced"}};
};

/// The current a run's drop is judged at. Load: of a feeder, its demand. Connected: all that hangs on it. Share: of the
/// breaker's rating, without entering a load in the schedule.
enum class DropBasis : std::uint8_t { Default, Load, Share, Connected };
template <> struct EnumText<DropBasis> {
    static constexpr std::pair<DropBasis, const char*> words[] = {{DropBasis::Default, "as basis"},
                                                                  {DropBasis::Load, "load"},
                                                                  {DropBasis::Share, "share of rating"},
                                                                  {DropBasis::Connected, "connected"}};
};

/// How conductors are laid, as far as it changes what they may carry. Default: as the basis says.
enum class Wiring : std::uint8_t { Default, Conduit, NmCable, McCable, AcCable, FreeAir, Messenger };
template <> struct EnumText<Wiring> {
    static constexpr std::pair<Wiring, const char*> words[] = {
        {Wiring::Default, "as basis"},   {Wiring::Conduit, "conduit"},  {Wiring::NmCable, "NM cable"},
        {Wiring::McCable, "MC cable"},   {Wiring::AcCable, "AC cable"}, {Wiring::FreeAir, "free air"},
        {Wiring::Messenger, "messenger"}};
};

/// How a metric run lies beside those grouped with it, for the rows of the grouping table. Auto: as its reference
/// method says.
enum class Lying : std::uint8_t { Auto, Bunched, Wall, Ceiling, Tray, Ladder, Apart };
template <> struct EnumText<Lying> {
    static constexpr std::pair<Lying, const char*> words[] = {{Lying::Auto, "as its method"},
                                                              {Lying::Bunched, "bunched or enclosed"},
                                                              {Lying::Wall, "one layer, wall or floor"},
                                                              {Lying::Ceiling, "one layer, below a ceiling"},
                                                              {Lying::Tray, "one layer, perforated tray"},
                                                              {Lying::Ladder, "one layer, ladder or cleats"},
                                                              {Lying::Apart, "two diameters apart"}};
};

/// The neutral of a run. Auto: as large as the lines where the system has one. Calculated: by its own load.
enum class NeutralBy : std::uint8_t { Auto, None, Calculated, Double };
template <> struct EnumText<NeutralBy> {
    static constexpr std::pair<NeutralBy, const char*> words[] = {{NeutralBy::Auto, "as the lines"},
                                                                  {NeutralBy::None, "none"},
                                                                  {NeutralBy::Calculated, "by its load"},
                                                                  {NeutralBy::Double, "double"}};
};

/// How the cells of a column stand.
enum class ColumnAlign : std::uint8_t { Left, Centre, Right };
template <> struct EnumText<ColumnAlign> {
    static constexpr std::pair<ColumnAlign, const char*> words[] = {
        {ColumnAlign::Left, "left"}, {ColumnAlign::Centre, "centre"}, {ColumnAlign::Right, "right"}};
};

/// How a board's places are arranged. TwoColumn: odd left, even right. SingleColumn: rows in sequence. Ways: each way
/// has L1, L2, L3 beside one another; slot = 3·(way−1) + position.
enum class BoardForm : std::uint8_t { TwoColumn, SingleColumn, Ways };
template <> struct EnumText<BoardForm> {
    static constexpr std::pair<BoardForm, const char*> words[] = {
        {BoardForm::TwoColumn, "two columns"}, {BoardForm::SingleColumn, "single column"}, {BoardForm::Ways, "ways"}};
};
/// What a board is. The first four hold circuits, a busway (busbar trunking) as tap-offs along its length; the others
/// stand in a feed and pass on what they are fed.
enum class BoardUse : std::uint8_t {
    Panelboard,
    Switchboard,
    MotorControl,
    Busway,
    ServiceDisconnect,
    Meter,
    Disconnect,
    TransferSwitch,
    Ups,
    CtCabinet ///< the current transformers of a meter that stands elsewhere
};
template <> struct EnumText<BoardUse> {
    static constexpr std::pair<BoardUse, const char*> words[] = {{BoardUse::Panelboard, "panelboard"},
                                                                 {BoardUse::Switchboard, "switchboard"},
                                                                 {BoardUse::MotorControl, "motor control centre"},
                                                                 {BoardUse::Busway, "busway"},
                                                                 {BoardUse::ServiceDisconnect, "service disconnect"},
                                                                 {BoardUse::Meter, "meter"},
                                                                 {BoardUse::CtCabinet, "CT cabinet"},
                                                                 {BoardUse::Disconnect, "disconnect switch"},
                                                                 {BoardUse::TransferSwitch, "transfer switch"},
                                                                 {BoardUse::Ups, "UPS"}};
};
/// Whether it has no circuits of its own and passes on what it is fed: what hangs on it is fed straight.
constexpr bool passesOn(BoardUse use) { return use >= BoardUse::ServiceDisconnect; }

/// What opens the circuit. Breaker: of the kind usual in the rule book. Fuse: without time delay. Types B, C and D trip
/// at once at 3–5, 5–10 and 10–20 times their rating. Moulded: with adjustable trips. Rewirable: a semi-enclosed fuse
/// (BS 3036). Cartridge: of dwellings (BS 88-3). Plug: in the plug of a cord or in a connection unit (BS 1362).
enum class DeviceKind : std::uint8_t {
    Breaker,
    ElectronicBreaker,
    Fuse,
    TimeDelayFuse,
    TypeB,
    TypeC,
    TypeD,
    FuseGG,
    Moulded,
    Rewirable,
    Cartridge,
    Plug
};
template <> struct EnumText<DeviceKind> {
    static constexpr std::pair<DeviceKind, const char*> words[] = {
        {DeviceKind::Breaker, "breaker"},
        {DeviceKind::ElectronicBreaker, "electronic breaker"},
        {DeviceKind::Fuse, "fuse"},
        {DeviceKind::TimeDelayFuse, "time-delay fuse"},
        {DeviceKind::TypeB, "type B"},
        {DeviceKind::TypeC, "type C"},
        {DeviceKind::TypeD, "type D"},
        {DeviceKind::FuseGG, "gG fuse"},
        {DeviceKind::Moulded, "moulded-case"},
        {DeviceKind::Rewirable, "rewirable fuse"},
        {DeviceKind::Cartridge, "cartridge fuse"},
        {DeviceKind::Plug, "plug fuse"}};
};
constexpr bool isFuse(DeviceKind k) {
    return k == DeviceKind::Fuse || k == DeviceKind::TimeDelayFuse || k == DeviceKind::FuseGG ||
           k >= DeviceKind::Rewirable;
}
/// Fuses whose ratings are those of their own standard, not the series of gG.
constexpr bool hasOwnRatings(DeviceKind k) { return k >= DeviceKind::Rewirable; }

/// How a motor is started. Soft: by a soft starter; Drive: by a variable-frequency drive.
enum class StarterKind : std::uint8_t { Unsaid, Direct, Reversing, StarDelta, Soft, Drive };
template <> struct EnumText<StarterKind> {
    static constexpr std::pair<StarterKind, const char*> words[] = {
        {StarterKind::Unsaid, "not said"},     {StarterKind::Direct, "direct"},
        {StarterKind::Reversing, "reversing"}, {StarterKind::StarDelta, "star-delta"},
        {StarterKind::Soft, "soft starter"},   {StarterKind::Drive, "drive"}};
};

/// Colours that stand for the phases. Usual: those of the conductors of each voltage system.
enum class PhaseColours : std::uint8_t { Usual, BrownBlackGrey, BlackRedBlue, BrownOrangeYellow, RedYellowBlue };
template <> struct EnumText<PhaseColours> {
    static constexpr std::pair<PhaseColours, const char*> words[] = {
        {PhaseColours::Usual, "as the system"},
        {PhaseColours::BrownBlackGrey, "brown, black, grey"},
        {PhaseColours::BlackRedBlue, "black, red, blue"},
        {PhaseColours::BrownOrangeYellow, "brown, orange, yellow"},
        {PhaseColours::RedYellowBlue, "red, yellow, blue"}};
};

/// How the supply and the installation are earthed.
enum class Earthing : std::uint8_t { TNS, TNCS, TT, IT };
template <> struct EnumText<Earthing> {
    static constexpr std::pair<Earthing, const char*> words[] = {
        {Earthing::TNS, "TN-S"}, {Earthing::TNCS, "TN-C-S"}, {Earthing::TT, "TT"}, {Earthing::IT, "IT"}};
};

/// What a residual-current device sees beside sinusoidal current, IEC 60755: A pulsating, F mixed frequencies, B smooth
/// direct current; AC none. AWithDirect: a type A that opens, or has beside it what opens, at 6 mA of direct current
/// (charging points).
enum class ResidualType : std::uint8_t { A, AC, F, B, AWithDirect };
template <> struct EnumText<ResidualType> {
    static constexpr std::pair<ResidualType, const char*> words[] = {
        {ResidualType::A, "type A"},
        {ResidualType::AC, "type AC"},
        {ResidualType::F, "type F"},
        {ResidualType::B, "type B"},
        {ResidualType::AWithDirect, "type A and 6 mA d.c."}};
};

/// What carries the earth-fault current of a metric run. Auto: the core or armour that its cable has, else a separate
/// conductor.
enum class ProtectiveBy : std::uint8_t { Auto, Core, Separate, Armour, ArmourAndSeparate };
template <> struct EnumText<ProtectiveBy> {
    static constexpr std::pair<ProtectiveBy, const char*> words[] = {
        {ProtectiveBy::Auto, "as the cable"},
        {ProtectiveBy::Core, "core"},
        {ProtectiveBy::Separate, "separate"},
        {ProtectiveBy::Armour, "armour"},
        {ProtectiveBy::ArmourAndSeparate, "armour and separate"}};
};

/// Spare: a device with nothing on it. Reserved: a place kept free for a device to come.
enum class CircuitUse : std::uint8_t { Load, Spare, Reserved };
template <> struct EnumText<CircuitUse> {
    static constexpr std::pair<CircuitUse, const char*> words[] = {
        {CircuitUse::Load, "load"}, {CircuitUse::Spare, "spare"}, {CircuitUse::Reserved, "reserved"}};
};

enum class Mounting : std::uint8_t { Surface, Flush, Floor };
template <> struct EnumText<Mounting> {
    static constexpr std::pair<Mounting, const char*> words[] = {
        {Mounting::Surface, "surface"}, {Mounting::Flush, "flush"}, {Mounting::Floor, "floor-standing"}};
};
/// Lugs of a board from which another is fed without a device between: at the far end of the bus, or beside the
/// incoming ones.
enum class Lugs : std::uint8_t { None, FeedThrough, SubFeed };
template <> struct EnumText<Lugs> {
    static constexpr std::pair<Lugs, const char*> words[] = {
        {Lugs::None, "none"}, {Lugs::FeedThrough, "feed-through"}, {Lugs::SubFeed, "sub-feed"}};
};

/// How the fault level of a supply is given.
enum class SourceKind : std::uint8_t { FaultLevel, UtilityTransformer, ExistingBoard, Generator };
template <> struct EnumText<SourceKind> {
    static constexpr std::pair<SourceKind, const char*> words[] = {
        {SourceKind::FaultLevel, "fault level"},
        {SourceKind::UtilityTransformer, "utility transformer"},
        {SourceKind::ExistingBoard, "existing board"},
        {SourceKind::Generator, "generator"}};
};

/// What the building is, for the lighting demand of the rule book.
enum class Occupancy : std::uint8_t { Other, Dwelling, Hotel, Warehouse };
template <> struct EnumText<Occupancy> {
    static constexpr std::pair<Occupancy, const char*> words[] = {{Occupancy::Other, "other"},
                                                                  {Occupancy::Dwelling, "dwelling"},
                                                                  {Occupancy::Hotel, "hotel"},
                                                                  {Occupancy::Warehouse, "warehouse"}};
};
enum class UnitSystem : std::uint8_t { Imperial, Metric };
template <> struct EnumText<UnitSystem> {
    static constexpr std::pair<UnitSystem, const char*> words[] = {{UnitSystem::Imperial, "imperial"},
                                                                   {UnitSystem::Metric, "metric"}};
};

/// Whether a run goes by the trays of its floor. Auto: where less of its way lies off the tray than it would be long
/// without.
enum class RouteBy : std::uint8_t { Auto, Direct, Trays };
template <> struct EnumText<RouteBy> {
    static constexpr std::pair<RouteBy, const char*> words[] = {
        {RouteBy::Auto, "automatic"}, {RouteBy::Direct, "direct"}, {RouteBy::Trays, "by trays"}};
};
/// How branch wiring is drawn between points.
enum class WiringShape : std::uint8_t { Curved, Square };
template <> struct EnumText<WiringShape> {
    static constexpr std::pair<WiringShape, const char*> words[] = {{WiringShape::Curved, "curved"},
                                                                    {WiringShape::Square, "square"}};
};

/// What stands together on composed sheets in a project's set, where it has room. Lists always do.
enum class SheetsTogether : std::uint8_t { Nothing, Schedules, SchedulesAndDiagrams };
template <> struct EnumText<SheetsTogether> {
    static constexpr std::pair<SheetsTogether, const char*> words[] = {
        {SheetsTogether::Nothing, "nothing"},
        {SheetsTogether::Schedules, "schedules"},
        {SheetsTogether::SchedulesAndDiagrams, "schedules and diagrams"}};
};
/// What of the calculations stands on sheets of the set. Summary: supplies, loads, feeders, drop and faults; Circuits:
/// every branch circuit beside.
enum class CalculationSheets : std::uint8_t { Nothing, Summary, Circuits };
template <> struct EnumText<CalculationSheets> {
    static constexpr std::pair<CalculationSheets, const char*> words[] = {
        {CalculationSheets::Nothing, "none"},
        {CalculationSheets::Summary, "summary"},
        {CalculationSheets::Circuits, "summary and branch circuits"}};
};

/// What a wall is broken by.
enum class OpeningKind : std::uint8_t { Door, DoubleDoor, Window, Opening };
template <> struct EnumText<OpeningKind> {
    static constexpr std::pair<OpeningKind, const char*> words[] = {{OpeningKind::Door, "door"},
                                                                    {OpeningKind::DoubleDoor, "double door"},
                                                                    {OpeningKind::Window, "window"},
                                                                    {OpeningKind::Opening, "opening"}};
};
/// What stands in a room without being electrical: it tells a recipe where outlets are wanted, and fills the plan.
enum class FurnishingKind : std::uint8_t {
    Column,
    Stair,
    Shaft,
    Desk,
    Table,
    Counter,
    Till,
    Shelving,
    Bed,
    Sink,
    Basin,
    Toilet,
    Shower,
    Cooker,
    Refrigerator,
    Bench
};
template <> struct EnumText<FurnishingKind> {
    static constexpr std::pair<FurnishingKind, const char*> words[] = {{FurnishingKind::Column, "column"},
                                                                       {FurnishingKind::Stair, "stair"},
                                                                       {FurnishingKind::Shaft, "shaft"},
                                                                       {FurnishingKind::Desk, "desk"},
                                                                       {FurnishingKind::Table, "table"},
                                                                       {FurnishingKind::Counter, "counter"},
                                                                       {FurnishingKind::Till, "till"},
                                                                       {FurnishingKind::Shelving, "shelving"},
                                                                       {FurnishingKind::Bed, "bed"},
                                                                       {FurnishingKind::Sink, "sink"},
                                                                       {FurnishingKind::Basin, "basin"},
                                                                       {FurnishingKind::Toilet, "toilet"},
                                                                       {FurnishingKind::Shower, "shower"},
                                                                       {FurnishingKind::Cooker, "cooker"},
                                                                       {FurnishingKind::Refrigerator, "refrigerator"},
                                                                       {FurnishingKind::Bench, "bench"}};
};
/// How a part of a room recipe finds its places. Grid: in even rows by count, by spacing, to a light level or to a
/// load; Walls: so that no place along a wall is farther from one than half the spacing; Doors: at the latch;
/// Furnishing: at each of a kind.
enum class RecipeBy : std::uint8_t { GridCount, GridSpacing, GridLux, GridLoad, Walls, Doors, Furnishing, Middle };
template <> struct EnumText<RecipeBy> {
    static constexpr std::pair<RecipeBy, const char*> words[] = {
        {RecipeBy::GridCount, "grid by count"}, {RecipeBy::GridSpacing, "grid by spacing"},
        {RecipeBy::GridLux, "grid to lux"},     {RecipeBy::GridLoad, "grid to load"},
        {RecipeBy::Walls, "along walls"},       {RecipeBy::Doors, "by doors"},
        {RecipeBy::Furnishing, "at furniture"}, {RecipeBy::Middle, "in the middle"}};
};

/// What an issue is for.
enum class IssueState : std::uint8_t { Comment, Tender, Construction, AsBuilt };
template <> struct EnumText<IssueState> {
    static constexpr std::pair<IssueState, const char*> words[] = {{IssueState::Comment, "for comment"},
                                                                   {IssueState::Tender, "for tender"},
                                                                   {IssueState::Construction, "for construction"},
                                                                   {IssueState::AsBuilt, "as built"}};
};

/// What a sheet of a project shows, or a view on a composed one. Plan: all systems of a floor on one. Composed: views,
/// as somebody put them together. A list, notes, the legend, a picture and the cut sheet of a type are shown by views
/// only.
enum class SheetKind : std::uint8_t {
    Plan,
    Lighting,
    Power,
    Diagram,
    Riser,
    OneLine,
    Schedule,
    Composed,
    List,
    Notes,
    Legend,
    Picture,
    CutSheet
};
template <> struct EnumText<SheetKind> {
    static constexpr std::pair<SheetKind, const char*> words[] = {
        {SheetKind::Plan, "plan"},          {SheetKind::Lighting, "lighting"}, {SheetKind::Power, "power"},
        {SheetKind::Diagram, "diagram"},    {SheetKind::Riser, "riser"},       {SheetKind::OneLine, "one-line"},
        {SheetKind::Schedule, "schedule"},  {SheetKind::Composed, "composed"}, {SheetKind::List, "list"},
        {SheetKind::Notes, "notes"},        {SheetKind::Legend, "legend"},     {SheetKind::Picture, "picture"},
        {SheetKind::CutSheet, "cut sheet"},
    };
};

/// On which plans of its floor a keyed note stands.
enum class NoteOn : std::uint8_t { All, Lighting, Power };
template <> struct EnumText<NoteOn> {
    static constexpr std::pair<NoteOn, const char*> words[] = {
        {NoteOn::All, "all plans"}, {NoteOn::Lighting, "lighting plan"}, {NoteOn::Power, "power plan"}};
};

/// What a rule of the take-off counts by: devices on plan, ends of conduits and cables, or lengths of them.
enum class TakeOffPer : std::uint8_t { Device, End, Length };
template <> struct EnumText<TakeOffPer> {
    static constexpr std::pair<TakeOffPer, const char*> words[] = {
        {TakeOffPer::Device, "device"}, {TakeOffPer::End, "end of a run"}, {TakeOffPer::Length, "length of a run"}};
};

/// Lines between the rows of a schedule.
enum class FormRules : std::uint8_t { Light, Strong, None };
template <> struct EnumText<FormRules> {
    static constexpr std::pair<FormRules, const char*> words[] = {
        {FormRules::Light, "light"}, {FormRules::Strong, "strong"}, {FormRules::None, "none"}};
};

/// Paper of a composed sheet, on its side. Usual: the large sheet of the country, ARCH D or A1.
enum class SheetPaper : std::uint8_t { Usual, Tabloid, ArchC, ArchD, ArchE1, A3, A2, A1, A0 };
template <> struct EnumText<SheetPaper> {
    static constexpr std::pair<SheetPaper, const char*> words[] = {
        {SheetPaper::Usual, "as usual"}, {SheetPaper::Tabloid, "Tabloid"}, {SheetPaper::ArchC, "ARCH C"},
        {SheetPaper::ArchD, "ARCH D"},   {SheetPaper::ArchE1, "ARCH E1"},  {SheetPaper::A3, "A3"},
        {SheetPaper::A2, "A2"},          {SheetPaper::A1, "A1"},           {SheetPaper::A0, "A0"},
    };
};

/// Our own drawing of a device on plan.
enum class Symbol : std::uint8_t {
    Receptacle,
    Quad,
    Special,
    Luminaire,
    Downlight,
    Switch,
    Motor,
    Equipment,
    Heater,
    Data,
    Detector,
    CallPoint,
    Sounder,
    Emergency,
    Exit,
    Junction
};
template <> struct EnumText<Symbol> {
    static constexpr std::pair<Symbol, const char*> words[] = {{Symbol::Receptacle, "receptacle"},
                                                               {Symbol::Quad, "double receptacle"},
                                                               {Symbol::Special, "special receptacle"},
                                                               {Symbol::Luminaire, "luminaire"},
                                                               {Symbol::Downlight, "downlight"},
                                                               {Symbol::Switch, "switch"},
                                                               {Symbol::Motor, "motor"},
                                                               {Symbol::Equipment, "equipment"},
                                                               {Symbol::Heater, "heater"},
                                                               {Symbol::Data, "data outlet"},
                                                               {Symbol::Detector, "detector"},
                                                               {Symbol::CallPoint, "call point"},
                                                               {Symbol::Sounder, "sounder"},
                                                               {Symbol::Emergency, "emergency luminaire"},
                                                               {Symbol::Exit, "exit sign"},
                                                               {Symbol::Junction, "junction box"}};
};

} // namespace lintel
