#pragma once
// What is wrong with a design, in a designer's words, with ways to put it right. One file a rule; this is what they
// share.

#include "core/project/Operations.h"
#include "core/solve/Solve.h"

#include <functional>

namespace lintel {

/// Stop: must not be issued. Check: needs a decision. Note: worth knowing.
enum class Severity { Stop, Check, Note };
template <> struct EnumText<Severity> {
    static constexpr std::pair<Severity, const char*> words[] = {
        {Severity::Stop, "stop"}, {Severity::Check, "check"}, {Severity::Note, "note"}};
};

struct CheckRule;

struct Snag {
    const CheckRule* rule = nullptr;
    Severity severity = Severity::Check;
    Ref about;
    std::string text;  ///< names the object and gives the numbers
    std::string cited; ///< the rule of the book, where one asks for it
};

/// One way to put a snag right: a label with its numbers, and the change it makes.
struct Remedy {
    std::string label;
    std::function<void(Project&)> apply;
    std::string
        kind{}; ///< what it does, where the label names things that somebody else named; empty: as the label says
};

struct CheckInput {
    const Project& project;
    const RuleBook& book;
    const Results& results;
};

/// What a snag of the project as a whole is told at: its first source, or board; nothing where there is neither.
Ref wholeOf(const Project& project);
/// "LP-1-14 Prep receptacles" or "Feeder of LK-1".
std::string nameOfRun(const Project& project, Ref thing);

/// A rule: finds its snags, and on demand offers remedies for one of them. It says how it looks: over the whole at once
/// (`find`), at each circuit, or at each run (every branch run that carries a load, and all that feed boards and
/// transformers); those that it does not need are null. Circuits are walked once for all rules, on all cores, so that
/// what a rule looks at is at hand: looking must not change anything.
struct CheckRule {
    const char* id;
    std::vector<Remedy> (*remedies)(const CheckInput&, const Snag&);
    void (*find)(const CheckInput&, const CheckRule& self, std::vector<Snag>& into) = nullptr;
    void (*circuit)(const CheckInput&, const CheckRule& self, const Circuit&, const CircuitResult&,
                    std::vector<Snag>& into) = nullptr;
    void (*run)(const CheckInput&, const CheckRule& self, Ref about, const RunResult&,
                std::vector<Snag>& into) = nullptr;
    /// Whether there can be anything to find at circuits and runs; null: always.
    bool (*worthLooking)(const CheckInput&) = nullptr;
};

/// All rules, worst first. A test walks this list and names those that no test covers.
const std::vector<const CheckRule*>& checkRules();
/// Every snag, worst first, then in the order of the rules.
std::vector<Snag> findSnags(const Project& project, const RuleBook& book, const Results& results);
inline std::vector<Remedy> remediesFor(const CheckInput& in, const Snag& s) { return s.rule->remedies(in, s); }

/// What a remedy does, without the names and numbers of the thing: "Fit a ground-fault breaker", "Feed it from".
std::string kindOf(const Remedy& remedy);

/// The same remedy for every snag of the same rule and severity, as one change.
struct GroupFix {
    int count = 0; ///< snags that it is for
    Remedy remedy;
};
GroupFix groupFix(const CheckInput& in, const std::vector<Snag>& snags, const Snag& one, const Remedy& remedy);

/// Mass of the line conductors of a run, kg: area × length × density, neutrals as lines.
double conductorMass(const RunResult& run, const RuleBook& book);

} // namespace lintel
