#pragma once
// Everything that can be said of a circuit on paper, each under a key: what schedule forms and wordings are made of.
// Adding a figure is one entry in CircuitFigures.cpp and one row of its test.

#include "core/figures/SheetInput.h"
#include "core/solve/RunParts.h"

#include <optional>
#include <span>

namespace lintel {

/// One circuit whose figures are asked for. What costs something is worked out when it is first needed.
class CircuitFacts {
public:
    /// `notes`: the numbers of the notes of its schedule that speak of it.
    CircuitFacts(const SheetInput& input, CircuitId circuit, std::string notes = {});

    const SheetInput& in;
    const Circuit& c;
    const Board& b;
    const CircuitResult& r;
    std::string notes;

    bool load() const { return c.use == CircuitUse::Load; }
    /// It is there for a load and nobody entered one: its amounts are a dash, never a nought that nobody typed.
    bool noLoad() const { return load() && r.nothingHangsOn(); }
    /// Its run where it has a size; null otherwise.
    const RunResult* sized() const { return run && run->size >= 0 ? run : nullptr; }
    const RunResult* any() const { return run; } ///< its run with a size or without; null: none
    const RunParts& parts() const;

private:
    const RunResult* run;
    mutable std::optional<RunParts> made;
};

struct CircuitFigure {
    const char* key;     ///< as a wording names it: "size"
    const char* group;   ///< under which it is listed: "Run"
    const char* about;   ///< what it is, with its unit
    const char* heading; ///< of a column that shows nothing else
    ColumnAlign align;
    /// Empty where there is nothing to say.
    std::string (*text)(const CircuitFacts&);
};

/// All of them, by group in the order in which a designer looks for them.
std::span<const CircuitFigure> circuitFigures();
/// Null: there is none of that key.
const CircuitFigure* circuitFigure(const std::string& key);
/// Of a figure that has a text for each pole on a row of its own ("pole", "pole VA"): that of pole `pole`, from 0.
std::string poleFigure(const std::string& key, const CircuitFacts& of, int pole);
/// VA of its connected load, or of what is connected below the board that it feeds.
double connectedVa(const CircuitFacts& of);
/// VA of a circuit on a line 0 … 2 of its board; nothing: it has none there, or nobody entered a load.
std::optional<double> lineVa(const CircuitFacts& of, int line);
/// The same as it is written; a dash where nobody entered a load.
std::string lineVaWords(const CircuitFacts& of, int line);
/// What a figure says of a circuit as a number of which a sum over circuits makes sense: VA, kVA, points. Nothing:
/// there is nothing to add.
std::optional<double> addend(const std::string& figure, const CircuitFacts& of);
/// The VA of one kind among them: the kind of the figure "VA lighting".
std::optional<LoadKind> kindOfFigure(const std::string& figure);
/// "17,19,21": all places of a circuit, as they are numbered on its board; "5/L2" on a board of ways.
std::string placesWords(const Board& board, const Circuit& circuit);

} // namespace lintel
