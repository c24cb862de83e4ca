#pragma once
// How much anything that comes in may hold. One place, so that readers, edits and messages agree.

#include <cstddef>
#include <cstdint>

namespace lintel::limits {

/// Levels of brackets in a JSON text. Ours need six.
inline constexpr std::size_t jsonDepth = 64;
/// Bytes of a project, a journal or a rule book.
inline constexpr std::size_t fileBytes = 512u << 20;
/// Bytes of one text in a project: a name, a note, a reason.
inline constexpr std::size_t textBytes = 32'767;
/// Items of one list within a thing: the corners of a room, the parts of a recipe.
inline constexpr std::size_t listItems = 100'000;
/// The number of an id. Results are arrays sized by the highest, so a wild one would ask for all memory.
inline constexpr std::uint32_t idOfMany = 1'000'000; ///< circuits, runs, loads, devices, walls …
inline constexpr std::uint32_t idOfFew = 50'000;     ///< boards, transformers, sources
/// Any number of a thing whose own range is not narrower.
inline constexpr double number = 1e9;
/// Conductors in parallel on each line of a run.
inline constexpr int sets = 40;
/// Metres from the origin of a plan.
inline constexpr double coordinate = 1e6;
/// Bytes of one line that is typed or listed for a calculation, before it is taken apart.
inline constexpr std::size_t typedLine = 400;
/// Such lines in one field.
inline constexpr std::size_t typedLines = 2'000;
/// Devices that one recipe may place in one room.
inline constexpr int devicesOfRecipe = 5'000;

inline constexpr std::size_t formColumns = 60; ///< of a schedule form
inline constexpr std::size_t formFacts = 6;    ///< of its title strip
inline constexpr double riserGap = 400;        ///< mm that somebody leaves free before a thing of the riser
inline constexpr int riserSteps = 20;          ///< by which somebody lowers the level stretches of a feeder
inline constexpr double riserLift = 80;        ///< mm by which somebody moves its words
inline constexpr double leastLetters = 1.6, mostLetters = 4; ///< mm of the rows of a schedule
inline constexpr double paper = 5000;                        ///< mm on a sheet
inline constexpr int noteNumber = 9999;                      ///< of a keyed note
inline constexpr double takeOffEvery = 0.1;                  ///< m at least between pieces that the take-off counts
inline constexpr double takeOffEveryMost = 1000;             ///< m at most
inline constexpr int planParts = 12;                         ///< of a floor on sheets, across and down
inline constexpr double modelOrigin = 2e7;  ///< m to the zero of a building model: it may be that of a country's grid
inline constexpr int viewPages = 1000;      ///< of a composed sheet
inline constexpr double planScale = 10'000; ///< of a plan: 1 to so many

} // namespace lintel::limits
