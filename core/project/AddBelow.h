#pragma once
// The distribution built downwards: a new board or transformer below a thing that feeds it, and a generator for what is
// to be taken over. New things are like those that the project has already, stand on the level of what feeds them and
// on no plan, and are fed at once.

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

enum class NewBelow { Board, Switchboard, MotorControl, Busway, Transformer };

/// A panelboard that nothing feeds yet, to be placed and added: like those of the project, on their voltages; `usual`
/// are those where it has none.
Board newPanelboard(const Project& project, VoltageSystem usual);
/// Why nothing of the kind can be fed from there; nothing: it can.
std::optional<Error> refuseBelow(const Project& project, Ref from, NewBelow what);
/// Requires: refuseBelow says nothing. What was made.
Ref addBelow(Project& project, Ref from, NewBelow what);
/// Why no transformer can stand in front of a board; nothing: one can.
std::optional<Error> refuseTransformerBefore(const Project& project, BoardId board);
/// Puts a transformer of so many kVA in front of a board, from what feeds it to what it is for. It takes over the feed
/// and its run; the board gets a run of its own. Requires: refuseTransformerBefore says nothing.
TransformerId insertTransformer(Project& project, BoardId board, double kva);
/// A generator of so many kVA that takes over what `board` feeds. Requires: none does yet.
SourceId addGenerator(Project& project, BoardId board, double kva);
/// Puts a service disconnect with a device of so many A between what takes over from the feed of `taker` and its
/// alternate conductors. Requires: something does. Taking it out again gives the alternate feed back to what it was.
BoardId protectAlternate(Project& project, BoardId taker, double amps);

} // namespace lintel
