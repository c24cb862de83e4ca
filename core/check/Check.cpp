#include "core/check/Check.h"

#include "core/base/Format.h"
#include "core/check/Compare.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {

extern const CheckRule feedLoopRule, feedVoltageRule, polesRule, highLegRule, faultLevelRule, heldSizeRule, heldBreakerRule, overloadRule, mainMissingRule, overfullRule, dropRule,
    boardUnfedRule, loadUnfedRule, lengthRule, horsepowerRule, noDeviceRule, givenFaultRule, multiwireRule, transformerDeviceRule, standbyRule, groundFaultRule, arcFaultRule, outletSpacingRule,
    lightingFloorRule, ownValueRule, motorFeederRule, loopRule, residualRule, ringRule, fireRatedRule, surgeRule, reserveRule, lugsRule, tiedApartRule, loadVoltsRule;

const std::vector<const CheckRule*>& checkRules() {
    static const std::vector<const CheckRule*> rules{&feedLoopRule, &feedVoltageRule, &polesRule,    &highLegRule, &faultLevelRule, &heldSizeRule,  &heldBreakerRule,
                                                     &overloadRule, &mainMissingRule, &overfullRule, &dropRule,    &noDeviceRule,   &horsepowerRule, &groundFaultRule, &arcFaultRule, &multiwireRule, &transformerDeviceRule, &standbyRule, &loopRule, &residualRule, &ringRule, &fireRatedRule, &motorFeederRule,
                                                     &lugsRule, &loadVoltsRule, &tiedApartRule, &reserveRule, &boardUnfedRule, &loadUnfedRule, &outletSpacingRule, &givenFaultRule, &lengthRule, &lightingFloorRule, &surgeRule, &ownValueRule};
    return rules;
}

std::vector<Snag> findSnags(const Project& p, const RuleBook& book, const Results& r) {
    std::vector<Snag> snags;
    const CheckInput in{p, book, r};
    for (const CheckRule* rule : checkRules()) rule->find(in, *rule, snags);
    std::stable_sort(snags.begin(), snags.end(), [](const Snag& a, const Snag& b) { return a.severity < b.severity; });
    return snags;
}

const Run* enteredRun(const Project& p, Ref thing) {
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) return p.runs.find(c->run);
    if (const Board* b = p.boards.find(thing.as<Board>())) return p.runs.find(b->run);
    if (const Transformer* t = p.transformers.find(thing.as<Transformer>())) return p.runs.find(t->run);
    return nullptr;
}

std::string nameOfRun(const Project& p, Ref thing) {
    const Circuit* c = p.circuits.find(thing.as<Circuit>());
    return c ? nameOf(p, c->id) + " " + c->name : "Feeder of " + nameOf(p, thing);
}

double conductorMass(const RunResult& run, const RuleBook& book) {
    if (run.size < 0 || !run.need.lengthKnown) return 0;
    return conductorMass(run.need, run.size, run.sets, book);
}

RemedyEffect effectOf(const CheckInput& before, const Remedy& remedy) {
    Project after = before.project;
    remedy.apply(after);
    const Results r = solve(after, before.book);
    return {remedy.label, compare(before, {after, before.book, r})};
}

std::string RemedyEffect::text() const { return change.nothing() ? "nothing else changes" : change.text(); }

std::string kindOf(const Remedy& m) {
    std::string kind;
    std::size_t from = 0;
    while (from < m.label.size()) {
        const std::size_t to = std::min(m.label.find(' ', from), m.label.size());
        const std::string word = m.label.substr(from, to - from);
        if (word.find_first_of("0123456789") == std::string::npos) kind += (kind.empty() ? "" : " ") + word;
        from = to + 1;
    }
    return kind;
}

GroupFix groupFix(const CheckInput& in, const std::vector<Snag>& snags, const Snag& one, const Remedy& remedy) {
    GroupFix g;
    const std::string kind = kindOf(remedy);
    std::vector<Remedy> parts;
    for (const Snag& s : snags)
        if (s.rule == one.rule && s.severity == one.severity)
            for (const Remedy& m : remediesFor(in, s))
                if (kindOf(m) == kind) {
                    parts.push_back(m);
                    break;
                }
    g.count = int(parts.size());
    g.remedy.label = g.count == 1 ? remedy.label : fmt::format("{}, all {}", kind, g.count);
    g.remedy.apply = [parts](Project& p) {
        for (const Remedy& m : parts) m.apply(p);
    };
    return g;
}

} // namespace lintel
