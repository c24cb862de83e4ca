#pragma once
// The sheets of a project, each as a Drawing; core/compose binds them into a set.

#include "core/figures/SheetInput.h"
#include "core/plan/Underlay.h"
#include "core/project/ComposedSheets.h"
#include "core/sheets/RiserOverlay.h"
#include "core/sheets/Symbols.h"
#include "core/solve/Results.h"

namespace lintel {

/// A panel schedule: title strip, circuit rows as they stand in the board, load tally, phases, notes strip.
/// Notes for which it has no room go on on further sheets: `page` 0 is the first.
Drawing panelSchedule(const SheetInput& in, BoardId board, const std::string& number = "", std::size_t page = 0);
/// How many sheets the schedule of a board takes.
std::size_t schedulePages(const SheetInput& in, BoardId board);
/// The same as views for another sheet, without heading and foot, none higher than `height` mm where that can be: the
/// table with its tally and the notes that have room, then further notes.
std::vector<Drawing> panelScheduleParts(const SheetInput& in, BoardId board, double height);

/// The same with a row for each circuit over the whole sheet: for a board of ways, a single column in metric practice,
/// and any single column whose form has an order of its own.
Drawing waySchedule(const SheetInput& in, BoardId board, const std::string& number = "", std::size_t page = 0);
std::vector<Drawing> wayScheduleParts(const SheetInput& in, BoardId board, double height);
/// Rows that it takes: a three-pole way or an empty one takes one, a way of single poles three; a section's heading
/// one.
int wayScheduleRows(const SheetInput& in, const Board& board);
/// Rows of the table of a schedule of either kind.
int scheduleRows(const SheetInput& in, const Board& board);

/// What feeds what, by floors as bands, or by the steps down from the sources.
enum class RiserLayout { ByFloor, OneLine };
/// The distribution laid out from the model: every feeder a line of its own, from its own device to its own load. On
/// the smallest sheet of the country that holds it, from Tabloid or A3 up; what the largest (ARCH E1, A0) does not hold
/// goes on below a match line on a further sheet, "E-501.2". At least one sheet.
std::vector<Drawing> riserDiagram(const SheetInput& in, RiserLayout layout, const std::string& number = "",
                                  const RiserShow& show = {});
/// How many sheets that makes, and on what paper; "roll": wider than any.
struct RiserExtent {
    std::size_t pages = 1;
    std::string paper;
};
RiserExtent riserExtent(const SheetInput& in, RiserLayout layout);
/// The same without a sheet around it, for the screen: rows no wider than `width` mm where that can be, as high as it
/// needs. `rows`: how its rows follow one another, of the ways that there are; it stays so as long as that is narrow
/// enough, and nothing jumps while the distribution grows. Nothing yet: the lowest of them; what it is now comes back.
Drawing riserBare(const SheetInput& in, RiserLayout layout, double width, const RiserShow& show = {},
                  std::optional<std::size_t>* rows = nullptr);

/// How wiring is coloured on plan.
enum class PlanColour { Circuit, Board, Phase, Drop, Plain };
struct PlanStyle {
    PlanColour colour = PlanColour::Circuit;
    bool wiring = true, tags = true, lighting = true, power = true, roomNames = true, trays = true, furniture = true,
         underlay = true;
    bool catchments = false, density = false; ///< density: the load of each room and of the floor by area
    double symbolScale = 1, textScale = 1;    ///< of the marks, whatever the scale of the building
    /// Whether devices of a type are drawn: what is not is not hit, lassoed or changed either.
    bool shows(const DeviceType& type) const { return type.kind == LoadKind::Lighting ? lighting : power; }
    bool shows(const KeyedNote& note) const {
        return note.on == NoteOn::All || (note.on == NoteOn::Lighting ? lighting : power);
    }
};
/// A floor, 1:100 in millimetres (a metre is 10 mm), not on a sheet yet: what the Plan stage shows.
Drawing planDrawing(const SheetInput& in, LevelId level, const PlanStyle& style = {});
/// What a sheet of plans shows: one system, so that it can be read, or all where a floor has nothing to part.
enum class PlanSystem { All, Lighting, Power };
/// A floor on ARCH D or A1 with a title block, in black, at the scale of the project, or at the largest usual one at
/// which it fits: with a bar of the scale, a legend of the symbols on it, and the circuits of its boards of which
/// nothing stands on a plan. What does not fit one sheet goes on behind match lines on further ones, "E-101.2".
std::vector<Drawing> planSheets(const SheetInput& in, LevelId level, const std::string& number = "",
                                PlanSystem system = PlanSystem::All);
/// How many sheets that makes: parts of the floor, and further ones with what has no room beside them.
struct PlanPages {
    std::size_t parts = 1, beside = 0;
    std::size_t count() const { return parts + beside; }
    /// "Ground floor power", "Ground floor power, part 2 of 4", "Ground floor power, notes and legend".
    std::string title(const std::string& of, std::size_t page) const;
};
PlanPages planPages(const SheetInput& in, LevelId level, PlanSystem system);
/// A scale of plans that is usual in the country: 100 for 1:100, and how it is written.
struct PlanScale {
    double denominator;
    const char* words;
};
/// From the largest down.
const std::vector<PlanScale>& planScales(UnitSystem units);
/// "1/4″ = 1′ 0″" for 48, "1:75" for what is not usual.
std::string scaleWords(double denominator, UnitSystem units);
/// "Ground floor power, part 2 of 4"; `part` 0 is the first.
std::string partTitle(const std::string& title, std::size_t part, std::size_t of);
/// A floor, or a part of it, at a scale as a view for another sheet, as large as it is.
struct FloorView {
    Drawing drawing;
    std::string scale; ///< in words
};
struct FloorViewOf {
    LevelId level;
    PlanSystem system = PlanSystem::All;
    double scale = 0; ///< 100 for 1:100; 0: the largest usual one at which it fits
    Point from, to;   ///< m on the level, two corners of what is shown; the same: all of it
};
FloorView planOnSheet(const SheetInput& in, const FloorViewOf& of, double width, double height);
/// The systems that a floor has sheets for, in their order; none: nothing is drawn there.
std::vector<PlanSystem> planSystems(const Project& project, LevelId level);
/// "Ground floor lighting", "Ground floor plan".
std::string planTitle(const Project& project, LevelId level, PlanSystem system);
SheetKind sheetKindOf(PlanSystem system);

struct SheetEntry {
    std::string number, title, paper, file; ///< file: a safe name for writing it alone, without an ending
    std::function<Drawing()> draw;
    /// By which it is the same sheet in another state of the project, whatever it is called and numbered there.
    std::string key;
    /// What it shows, and of which level or board; nothing: an index, a list, the assumptions. A further page is that
    /// of the first.
    std::optional<SheetKind> kind{};
    Ref about{};
    std::size_t page = 0;
    bool kept = false;               ///< its number stays (core/project/SheetNumbers.h)
    std::vector<ShownThing> views{}; ///< of a composed sheet
    std::string trouble{};           ///< what is not as it should be on a composed sheet; empty: nothing

    /// Whether it shows this, by itself or among its views.
    bool shows(SheetKind what, Ref of) const;
};
/// The strip that every sheet carries below: project, rule book, what the sizes rest on, sheet number.
void footStrip(Drawing& d, const SheetInput& in, double margin);

} // namespace lintel
