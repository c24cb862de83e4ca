#pragma once
// The conductor-and-conduit schedule that offices keep: what each feeder runs from and to, what it carries, its device,
// conductors, conduit and length. Boards, feeders and large loads arise from it; what is written there is held.
// Nothing of a project changes until `applyFeeders`, and it does on a copy what it would do: the preview is that.

#include "core/exchange/ReadList.h"
#include "core/rules/RuleBook.h"
#include "core/solve/Results.h"

namespace lintel {

/// What a column can mean. None: it is passed over.
enum class FeederField : std::uint8_t {
    None,
    Tag,
    From,
    To,
    What,
    Load,
    Unit,
    Voltage,
    Phases,
    Device,
    Sets,
    Conductors,
    Cable,
    Ground,
    Conduit,
    Length,
    Drawing,
    Fault
};
inline constexpr int feederFields = 18;
template <> struct EnumText<FeederField> {
    static constexpr std::pair<FeederField, const char*> words[] = {
        {FeederField::None, "–"},        {FeederField::Tag, "Feeder"},         {FeederField::From, "From"},
        {FeederField::To, "To"},         {FeederField::What, "What it feeds"}, {FeederField::Load, "Load"},
        {FeederField::Unit, "Unit"},     {FeederField::Voltage, "Volts"},      {FeederField::Phases, "Phases"},
        {FeederField::Device, "Device"}, {FeederField::Sets, "Sets"},          {FeederField::Conductors, "Conductors"},
        {FeederField::Cable, "Cable"},   {FeederField::Ground, "Ground"},      {FeederField::Conduit, "Conduit"},
        {FeederField::Length, "Length"}, {FeederField::Drawing, "Drawing"},    {FeederField::Fault, "Fault"}};
};

/// What stands at the end of a feeder.
enum class FedKind : std::uint8_t {
    Unsaid,
    Panelboard,
    Switchboard,
    MotorControl,
    Busway,
    ServiceDisconnect,
    Meter,
    CtCabinet,
    Disconnect,
    TransferSwitch,
    Ups,
    Transformer,
    Load
};
template <> struct EnumText<FedKind> {
    static constexpr std::pair<FedKind, const char*> words[] = {{FedKind::Unsaid, "by its name"},
                                                                {FedKind::Panelboard, "panelboard"},
                                                                {FedKind::Switchboard, "switchboard"},
                                                                {FedKind::MotorControl, "motor control centre"},
                                                                {FedKind::Busway, "busway"},
                                                                {FedKind::ServiceDisconnect, "service disconnect"},
                                                                {FedKind::Meter, "meter"},
                                                                {FedKind::CtCabinet, "CT cabinet"},
                                                                {FedKind::Disconnect, "disconnect switch"},
                                                                {FedKind::TransferSwitch, "transfer switch"},
                                                                {FedKind::Ups, "UPS"},
                                                                {FedKind::Transformer, "transformer"},
                                                                {FedKind::Load, "load"}};
};

struct FeederSettings {
    int headerRow = 0;                         ///< in Grid::rows; −1: there is none
    char decimal = '.';                        ///< what a number that could be read both ways means
    LoadUnit unit = LoadUnit::kVA;             ///< of a load where neither its cell nor a unit column says
    UnitSystem lengths = UnitSystem::Imperial; ///< of lengths that do not say theirs
    std::vector<FeederField> columns;          ///< by column of the grid
    std::map<int, FedKind> takenAs;            ///< by row of the grid: what somebody said that stands at its end
};
/// The unit of loads that a heading names: "Load, kVA".
std::optional<LoadUnit> loadUnitInHeading(const std::string& heading);
/// By the headings and what stands below them.
FeederSettings guessFeederSettings(const Grid& grid, UnitSystem units);

struct FeederRow : ListedRow {
    std::string tag, from, to;
    FedKind what = FedKind::Unsaid;
    std::optional<double> load;
    LoadUnit unit = LoadUnit::kVA; ///< of `load`
    std::optional<double> volts;
    std::optional<int> phases;    ///< 1 or 3
    std::optional<double> device; ///< A
    int sets = 0;                 ///< 0: not said
    std::string size, ground;     ///< as rule books name them; empty: not said
    std::optional<Material> material;
    std::string conduitType, conduit, cable; ///< cable: a type of the rule book
    std::optional<double> length;            ///< m
    std::string drawing;
    std::optional<double> faultKA;
};
struct FeederList {
    std::vector<FeederRow> rows;
    std::vector<std::string> notes; ///< of the file
    int entering() const;
    int stopped() const;
};
/// Empty rows and rows of totals are passed over.
FeederList readFeeders(const Grid& grid, const FeederSettings& settings, const RuleBook& book);

/// What a list comes to in a project.
struct FeedersApplied {
    struct Row {
        std::vector<std::string> what; ///< "panelboard LP-3 made", "length 120 ft → 95 ft"; empty: nothing changes
        std::vector<std::string> look; ///< what was taken for something, or could not be done
        bool refused = false;          ///< the row as a whole came to nothing; `look` says why
        bool fresh = false;            ///< what it feeds was not there
        Ref feeds;                     ///< a board, transformer or circuit; nothing where it was refused
    };
    std::vector<Row> rows; ///< by row of the list; of one that does not enter empty
    int added = 0, changed = 0, same = 0, refused = 0;
    std::vector<std::string> made; ///< boards, transformers and loads that the project did not have
    std::vector<std::string> gone; ///< named feeders of the project that the list does not have; they stay
    std::vector<std::string> notes;
};
/// Finds what each row feeds by its name, else by the name of its feeder; makes what is not there, feeds it, holds
/// device, conductors and length as written, and keeps conduit, fault, load and drawing to be held against what is
/// worked out. A board that the list gives a load, and that feeds nothing, gets it as a listed load. A second row to
/// the same board is what takes over. Nothing is removed.
FeedersApplied applyFeeders(Project& project, const RuleBook& book, const FeederList& list);

/// Every feeder with what is entered and worked out, as a table that reads back the same.
std::vector<std::vector<std::string>> feedersOf(const Project& project, const RuleBook& book, const Results& results);

} // namespace lintel
