#pragma once
// A building model against a project: what each of its storeys, spaces, walls and electrical things would add or
// change, and doing so. Things are known again by the identity that the model gives them; what a designer gave them
// here (circuits, kinds of rooms, recipes) stays.

#include "core/exchange/BuildingModel.h"

namespace lintel {

/// One line of the preview.
struct ModelRow {
    enum class Of : std::uint8_t { Storey, Space, Walls, Device };
    Of of = Of::Storey;
    std::size_t at = 0; ///< in the model; of walls: their storey, whose walls and doors are one line
};
/// Storeys from the lowest, each with its spaces, walls and things; at last what says no storey.
std::vector<ModelRow> rowsOf(const BuildingModel& model);
/// As cells: what it is, number or tag, name, storey, size, load, identity. The headings are those of modelHeadings.
std::vector<std::string> cellsOf(const BuildingModel& model, const ModelRow& row, UnitSystem units);
std::vector<std::string> modelHeadings();

struct ModelTaken {
    struct Row {
        std::vector<std::string> what; ///< "new", "name Store → Pantry"; empty: nothing changes
        std::vector<std::string> look; ///< worth a second look
        bool refused = false;          ///< it cannot enter; `look` says why
        bool fresh = false;
    };
    std::vector<Row> rows; ///< by row of rowsOf; of one that is left out empty
    int added = 0, changed = 0, same = 0, refused = 0;
    std::vector<std::string> gone; ///< rooms and things that came from the model and that it no longer has
    int goneWalls = 0;
    std::vector<std::string> notes;
};
/// Puts the rows that are not left out into the project. The first time the model's left and upper edge lie at the
/// plan's zero; from then on it keeps its place. What the model no longer has is removed only where asked; what came
/// from another model (another discipline's) is not counted as gone.
ModelTaken takeModel(Project& project, const BuildingModel& model, const std::vector<char>& leftOut, bool removeGone);

} // namespace lintel
