#pragma once
// How conductors, breakers and lengths are written, on sheets and on the screen alike.

#include "core/drawing/Drawing.h"
#include "core/rules/KindTitle.h"
#include "core/solve/Results.h"

namespace lintel {

/// "2 #6, #10 gnd" for a branch; "4 × 500 kcmil, #3 gnd" or "3 sets 4 × 600 kcmil" for a feeder. A neutral that is
/// double or of another size, and an isolated ground, stand apart: "3 #1, 2 × #1 neutral, #6 gnd, #6 isolated gnd".
std::string conductorWords(const RunResult& run, const RuleBook& book);
/// Whether its neutral is not one as large as the lines: double, or of another size.
bool neutralApart(const RunResult& run);
/// Conductors of a set that have the lines' size: the lines, and the neutral where there is one as large.
int conductorsAlike(const RunResult& run);
/// "#6" or "2×250 kcmil": the size alone.
std::string sizeOf(const RunResult& run, const RuleBook& book);
/// What an installer has to keep of the run to a board or transformer, or of a circuit, beside its conductors, as its
/// sizes rest on it: "fire-rated cable", "sets apart, so that they do not heat one another".
std::vector<std::string> installationWords(const Project& project, const Results& results, Ref thing);
/// "20" for one pole, "30/2" for two.
std::string breakerWords(double amps, int poles);
/// The same in metric practice, with its type: "B16", "C32", "gG 63", "125".
std::string deviceWords(const CircuitResult& circuit, int poles, const RuleBook& book);
/// What a starter is called by the trade of the book's country: "across the line", "direct-on-line"; empty: not said.
std::string starterWords(StarterKind starter, const RuleBook& book);
/// The letters by which drawings mark it: "FVNR", "DOL", "Y-Δ"; empty: not said.
std::string starterSign(StarterKind starter, const RuleBook& book);
/// Where it stands on its board: "14", or "5/L2" and "5" on a board of ways.
std::string placeWords(const Board& board, const Circuit& circuit);
/// "172 ft" or "52.4 m".
std::string lengthWords(Metres length, UnitSystem units);
/// The length of a run, and whether it is one: "172 ft", "100 ft assumed" where the basis says what an unknown one
/// counts as, "not known".
std::string lengthOf(const RunNeed& need, UnitSystem units);
/// % lost from the source to the end of a run or at a node: "2.1 %", "≥ 2.1 %" where a run before it has no length and
/// counts as none.
std::string dropWords(double percentLost, bool known);
/// "22.1" kA; "≤ 22.1" where a run before it has no length and counts as none.
std::string faultWords(const FaultPoint& fault);
/// "+28′ 0″" or "+8.53 m": a height above datum.
std::string elevationWords(double metres, UnitSystem units);
/// "1′ 6″" or "0.45 m": a height above the floor.
std::string heightWords(double metres, UnitSystem units);
/// The demand of a node by which it is judged, in amperes: "32 A on L2" where its heaviest line has more than it would
/// balanced, else "11 A". Of a board or a source.
std::string demandWords(const NodeResult& node, const Board& board);
std::string demandWords(const NodeResult& node, const Source& source);
/// How a supply of a metric project is earthed, and what is known of it: "TN-C-S, Ze 0.35 Ω".
std::string earthingWords(const Source& source);
/// How far the taps of a transformer move its secondary: "taps: secondary +2.5 %".
std::string tapWords(const Transformer& transformer);
/// "transfer switch, 100 A, 4 poles", "disconnect switch, 100 A, fuses 60 A", "UPS, 40 kVA": what passes on.
std::string equipmentWords(const Board& board);
/// "208Y/120 V, 3φ 4W".
std::string systemWords(VoltageSystem system);
/// "A", "B", "C" or L1…; line 0 … 2 of a board.
std::string lineName(int line, const Board& board);
std::string lineName(int line, VoltageSystem system);
/// The colour that stands for a line: that of the trade's conductors in this voltage system, or as the basis says.
Ink phaseInk(const Basis& basis, VoltageSystem system, int line);
/// The same colour as a word: "brown".
std::string lineColour(const Basis& basis, VoltageSystem system, int line);
/// Of the neutral: white or gray (NEC 200.6), blue (IEC 60445); black beside red, yellow and blue.
std::string neutralColour(const Basis& basis, VoltageSystem system);
/// Of the protective conductor: green (NEC 250.119), green-yellow (IEC 60445).
std::string protectiveColour(VoltageSystem system);
/// "Receptacles, Prep 011" or what it feeds, or "Spare".
std::string servesWords(const Project& project, const Results& results, CircuitId circuit);
/// "raised for drop", "load", … with the state of the sizing.
std::string whyWords(const RunResult& run);

} // namespace lintel
