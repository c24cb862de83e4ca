#pragma once
// What is wrong with a design, in a designer's words, with ways to put it right. One file a rule; this is what they share.

#include "core/project/Edit.h"
#include "core/project/Operations.h"
#include "core/solve/Solve.h"

#include <functional>

namespace lintel {

/// Stop: must not be issued. Check: needs a decision. Note: worth knowing.
enum class Severity { Stop, Check, Note };
template <> struct EnumText<Severity> {
    static constexpr std::pair<Severity, const char*> words[] = {{Severity::Stop, "stop"}, {Severity::Check, "check"}, {Severity::Note, "note"}};
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
};

struct CheckInput {
    const Project& project;
    const RuleBook& book;
    const Results& results;
};

/// Calls f(thing, its run) for every branch run that carries a load, and every run that feeds a board or transformer.
template <class F> void eachRun(const CheckInput& in, F f) {
    for (const Circuit& c : in.project.circuits)
        if (const CircuitResult& r = in.results.of(c.id); !r.feeder && c.use == CircuitUse::Load) f(Ref(c.id), r.run);
    for (const Board& b : in.project.boards) f(Ref(b.id), in.results.of(b.id).run);
    for (const Transformer& t : in.project.transformers) f(Ref(t.id), in.results.of(t.id).run);
}
/// What was entered of the run of a circuit, board or transformer; null: nothing.
const Run* enteredRun(const Project& project, Ref thing);
/// "LP-1-14 Prep receptacles" or "Feeder of LK-1".
std::string nameOfRun(const Project& project, Ref thing);

/// A rule: finds its snags, and on demand offers remedies for one of them.
struct CheckRule {
    const char* id;
    void (*find)(const CheckInput&, const CheckRule& self, std::vector<Snag>& into);
    std::vector<Remedy> (*remedies)(const CheckInput&, const Snag&);
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
