#pragma once
// What a designer does to a project, each as one whole step: the windows, the remedies and the command line all call
// these. None of them checks the design (snags do); they refuse only what cannot be.

#include "core/base/Error.h"
#include "core/project/Project.h"

#include <span>

namespace lintel {

// ---- slots ----

/// By slot (1 … slots): the circuit that has a pole there. With `except`, that one is left out.
std::vector<CircuitId> slotMap(const Project& project, BoardId board, CircuitId except = {});
/// The same where the board's circuits are known (Results::on): without a search through all.
std::vector<CircuitId> slotMap(const Project& project, const Board& board, std::span<const CircuitId> circuits);
/// The first slot where a device of so many poles fits; 0: none. On a board with a row free in both columns the left
/// comes first.
int firstFreeSlot(const Project& project, BoardId board, int poles, CircuitId except = {});
int freeSlots(const Project& project, BoardId board);

/// Circuits that act as one and move together: those whose handles are tied, or that share a neutral; by slot. At least
/// itself.
std::vector<CircuitId> unitOf(const Project& project, CircuitId circuit);
/// Where the circuits of a unit come to stand when its first pole is at `slot` of `board`: one below another. Empty: it
/// does not fit.
std::vector<std::pair<CircuitId, int>> placeUnit(const Project& project, const Board& board,
                                                 const std::vector<CircuitId>& unit, int slot);

/// What dropping circuits on a slot comes to.
struct MovePlan {
    bool possible = false;
    std::string reason;                            ///< why not
    BoardId board;                                 ///< where the circuits end
    std::vector<std::pair<CircuitId, int>> places; ///< every circuit that ends at another slot or board
    bool swap = false;                             ///< what stood there goes to the place left behind
    int pushed = 0;                                ///< circuits that move out of the way, a swap's among them
};
/// Onto free slots; else a swap with what stands there, where that fits in the place left behind; else what stands
/// there makes room: as few circuits as can be move, as little as can be. Units stay whole. Several circuits keep their
/// places to one another.
MovePlan planMove(const Project& project, const std::vector<CircuitId>& circuits, BoardId board, int slot);
MovePlan planMove(const Project& project, CircuitId circuit, int slot);
/// To the first place of a board where all of them fit and nothing gives way.
MovePlan planMoveTo(const Project& project, const std::vector<CircuitId>& circuits, BoardId board);
/// On another board groups (ties, shared neutrals, what is kept together) get numbers that are free there; one left
/// alone is no group.
void applyMove(Project& project, const MovePlan& plan);
/// Opens a free row at `slot`: what stands there and below it in its column goes one row down, up to the first gap.
MovePlan planInsert(const Project& project, BoardId board, int slot);

// ---- circuits ----

/// Puts a new circuit with a run of its own into the first free place (slot 0 when there is none).
CircuitId addCircuit(Project& project, BoardId board, int poles, const std::string& name,
                     CircuitUse use = CircuitUse::Load);
/// Its devices and loads become unfed; what it fed loses its feed.
void removeCircuit(Project& project, CircuitId circuit);
/// Puts devices on a circuit; they leave the ones they were on. A circuit that was empty and unnamed takes its name
/// from them.
void circuitDevices(Project& project, const std::vector<DeviceId>& devices, CircuitId circuit);
/// A new circuit of the board for these devices, named from what and where they are. Poles: the most that any of them
/// has.
CircuitId circuitToBoard(Project& project, const std::vector<DeviceId>& devices, BoardId board);
CircuitId circuitLoad(Project& project, LoadId load, BoardId board, int slot = 0);
/// "Receptacles, Prep 011": what the devices are and the room most of them stand in.
std::string nameForDevices(const Project& project, const std::vector<DeviceId>& devices);
/// The run of a circuit, made when it has none.
Run& runOf(Project& project, CircuitId circuit);
/// The run that feeds a board or transformer, made when it has none.
Run& runOfNode(Project& project, Ref node);
/// The run of a circuit, board or transformer.
Run& runOf(Project& project, Ref thing);
/// What was entered of the run of a circuit, board or transformer; null: nothing.
const Run* enteredRun(const Project& project, Ref thing);

/// What the next feeder is called where those of the project have names with numbers: "F-16"; empty where they have
/// none.
std::string freeFeederName(const Project& project);

// ---- feeds ----

/// Why `node` cannot be fed from `from` (a board, transformer or source): a loop, a wrong voltage or phase count, no
/// place.
std::optional<Error> refuseFeed(const Project& project, Ref node, Ref from);
/// The voltage system that a node takes, and the one that a feed gives.
VoltageSystem systemTaken(const Project& project, Ref node);
VoltageSystem systemGiven(const Project& project, Ref from);
/// Whether a board or transformer of `taken` can be fed from `given`: the same system, or two lines of it for
/// single-phase.
bool systemsAgree(VoltageSystem given, VoltageSystem taken);
/// Feeds `node` from `from`; on a board a feeder circuit is made, and the circuit that fed it before goes. What passes
/// on takes the voltage system it is fed.
void feedFrom(Project& project, Ref node, Ref from);
void clearFeed(Project& project, Ref node);
/// What a board or transformer is fed from; nothing for anything else.
Ref feedOf(const Project& project, Ref node);
/// Boards and transformers that are fed straight from `from`, without a circuit.
std::vector<Ref> fedStraight(const Project& project, Ref from);
/// The same from the lugs of another board, without a device between.
std::optional<Error> refuseLugs(const Project& project, BoardId board, BoardId from);
void feedByLugs(Project& project, BoardId board, BoardId from);

// ---- what stands in a feed ----

/// Puts a piece of equipment that passes on (see passesOn) between `node`, a board or transformer, and what feeds it.
/// It takes over the feed and its run (a transfer switch also what takes over from it), stands beside `node` where that
/// is on plan, and is rated as `node` is. Taking it out again with removeBoard gives feed and run back.
BoardId insertInFeed(Project& project, Ref node, BoardUse use);
/// Why `from` cannot take over what `board` feeds: it is fed from there already, a loop, another voltage, no place.
std::optional<Error> refuseAlternate(const Project& project, BoardId board, Ref from);
/// Lets `from` take over; on a board with circuits a circuit on standby is made. Nothing: nothing takes over.
void alternateFrom(Project& project, BoardId board, Ref from);
/// The conductors from what takes over, made when there are none.
Run& alternateRunOf(Project& project, BoardId board);

// ---- other things ----
BoardId addBoard(Project& project, Board board);
/// With its circuits; what they fed hangs free. What only passes on gives what hangs on it back to its own feed, where
/// that can feed it.
void removeBoard(Project& project, BoardId board);
/// What it fed hangs free.
void removeSource(Project& project, SourceId source);
void removeTransformer(Project& project, TransformerId transformer);
/// With its doors and windows.
void removeWall(Project& project, WallId wall);
/// What stands in it stays.
void removeRoom(Project& project, RoomId room);
void removeRecipe(Project& project, RecipeId recipe);
/// With all that is drawn and placed on it; what such devices hung on stays. Boards, transformers and sources stay, on
/// no level.
void removeLevel(Project& project, LevelId level);
/// Anything on the plan, with what goes with it; true when there was such a thing.
bool removeFromPlan(Project& project, Ref thing);
/// "LP-3" after "LP-2": the next name of the same kind that is free.
std::string freeBoardName(const Project& project, const std::string& like);

} // namespace lintel
