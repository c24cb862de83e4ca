#pragma once
// How a company words a column of its schedules: figures in braces with words between them.
//
//   {count}#{size}, #{ground}G, {conduit}″C      3#12, #12G, ½″C
//   [({sets}) ]{count}#{size}                    a part in brackets is left out where a figure in it is empty
//   [sets > 1: ({sets}) ]                        … or where what stands before its colon does not hold
//   {{ }} [[ ]]                                  the signs themselves
//
// A condition is a figure alone (it is not empty), "not" and a figure, or a figure, one of = ≠ < > ≤ ≥ (also != <= >=)
// and a word or number. Several are joined by "and". `{own Tag}` is the designer's own column "Tag".

#include "core/base/Error.h"
#include "core/figures/CircuitFigures.h"

#include <memory>

namespace lintel {

class Wording {
public:
    /// Refuses a bracket that is not closed and a figure that there is not, and says where.
    static Outcome<Wording> from(const std::string& text);

    /// What it comes to for one circuit. Blanks at both ends are cut.
    std::string of(const CircuitFacts& facts) const;
    /// The same for one pole, where it has something to say for each; for the first it says the rest too.
    std::string ofPole(const CircuitFacts& facts, int pole) const;
    /// It is "{phase VA}" alone: a column for each line.
    bool byLine() const;
    /// It is a figure for each pole alone.
    bool byPole() const;
    /// The figure that it shows alone; null where there is more to it.
    const CircuitFigure* alone() const;
    /// The keys of all its figures, in their order.
    std::vector<std::string> figures() const;

    struct Part;

private:
    std::shared_ptr<const std::vector<Part>> parts;
};

} // namespace lintel
