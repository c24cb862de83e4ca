#pragma once
// Lists of loads from other disciplines: what the columns of a table mean, what is wrong with its rows, what it changes
// in the project, and the way back out. Nothing of the project changes until `applyList`.

#include "core/exchange/ReadList.h"
#include "core/project/Project.h"
#include "core/solve/Results.h"

#include <algorithm>
#include <cmath>

namespace lintel {

/// What a column can mean. None: it is passed over.
enum class ListField : std::uint8_t {
    None,
    Tag,
    Name,
    Where,
    Board,
    Amount,
    Unit,
    Voltage,
    Poles,
    PowerFactor,
    Quantity,
    Kind,
    Continuous,
    Diversity,
    Duty,
    Circuit,
    Efficiency,
    Ampacity, ///< marked on the nameplate: minimum circuit ampacity
    Device,   ///< marked on the nameplate: maximum overcurrent protection
    Identity  ///< as `listOf` wrote it
};
inline constexpr int listFields = 20;
template <> struct EnumText<ListField> {
    static constexpr std::pair<ListField, const char*> words[] = {{ListField::None, "–"},
                                                                  {ListField::Tag, "Tag"},
                                                                  {ListField::Name, "Name"},
                                                                  {ListField::Where, "Where"},
                                                                  {ListField::Board, "Board"},
                                                                  {ListField::Amount, "Load"},
                                                                  {ListField::Unit, "Unit"},
                                                                  {ListField::Voltage, "Volts"},
                                                                  {ListField::Poles, "Poles"},
                                                                  {ListField::PowerFactor, "Power factor"},
                                                                  {ListField::Quantity, "Quantity"},
                                                                  {ListField::Kind, "Load kind"},
                                                                  {ListField::Continuous, "Continuous"},
                                                                  {ListField::Diversity, "Diversity"},
                                                                  {ListField::Duty, "Duty"},
                                                                  {ListField::Circuit, "Circuit"},
                                                                  {ListField::Efficiency, "Efficiency"},
                                                                  {ListField::Ampacity, "MCA"},
                                                                  {ListField::Device, "MOCP"},
                                                                  {ListField::Identity, "Lintel id"}};
};

struct ListSettings {
    int headerRow = 0;            ///< in Grid::rows; −1: there is none, and rows begin at once
    char decimal = '.';           ///< what a number that could be read both ways means
    LoadUnit unit = LoadUnit::VA; ///< of a load where neither its cell nor a unit column says
    std::vector<ListField>
        columns; ///< by column of the grid; several may say the load, each in the unit of its heading
};
/// By the headings, and by what stands below them: header row, decimal sign, unit, columns.
ListSettings guessSettings(const Grid& grid, LoadUnit usual = LoadUnit::kW);
/// What a heading seems to mean, and the unit it names ("Load (kW)").
std::pair<ListField, std::optional<LoadUnit>> guessField(const std::string& heading);

struct ListRow : ListedRow {
    Load load;                    ///< without id and circuit
    std::string board;            ///< by name; empty: not said
    std::string identity;         ///< of a load that has no tag, as this project wrote it; empty: not said
    std::vector<ListField> given; ///< fields that the row says something of
};
struct LoadList {
    std::vector<ListRow> rows;
    std::vector<std::string> notes;     ///< of the file
    std::vector<std::string> newBoards; ///< named in rows that enter, and not in the project
    int entering() const;
    int stopped() const;
};
/// Rows of the grid as loads. Empty rows and rows of totals are passed over.
LoadList readLoads(const Grid& grid, const ListSettings& settings, const Project& project);

/// Against the project, by tag; by its identity where there is none, of a row and of the project's load.
struct ListDifference {
    struct Changed {
        LoadId load;
        std::size_t row;
        std::vector<std::string> what; ///< "load 5 kW → 7.5 kW"
    };
    std::vector<std::size_t> added; ///< rows
    std::vector<Changed> changed;
    std::vector<LoadId> gone; ///< listed loads with a tag that the list no longer has
    int same = 0;
};
ListDifference compareList(const Project& project, const LoadList& list);

struct ApplyOptions {
    bool removeGone = false;  ///< else they stay
    bool createBoards = true; ///< boards that the list names and nobody has drawn
};
struct Applied {
    int added = 0, changed = 0, removed = 0, boards = 0;
    std::vector<std::string> notes; ///< what became of circuits whose loads went or moved, in words
};
/// Adds, changes and, where asked, removes. What the list does not say stays as it is. A load that is sent to another
/// board takes the circuit that it has to itself along, into the first place free there; else it leaves its circuit.
/// The name of such a circuit, where it was made from the load's, follows it.
Applied applyList(Project& project, const LoadList& list, const ApplyOptions& options = {});

/// The loads of a project as a table that reads back the same. Where some have no tag a last column, `identityHeading`,
/// tells which they are: read back, they are the same loads.
std::vector<std::vector<std::string>> listOf(const Project& project);
inline constexpr const char* identityHeading = "Lintel id";
/// Of a load in this project; another project's are none of its own.
std::string identityOf(const Project& project, LoadId load);

} // namespace lintel
