#include "core/check/Check.h"

#include "core/base/Format.h"
#include "core/base/Parallel.h"
#include "core/check/Compare.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {

extern const CheckRule feedLoopRule, feedVoltageRule, polesRule, highLegRule, faultLevelRule, unsupportedFaultRule,
    heldSizeRule, heldBreakerRule, overloadRule, mainMissingRule, overfullRule, dropRule, boardUnfedRule, loadUnfedRule,
    lengthRule, horsepowerRule, noDeviceRule, givenFaultRule, multiwireRule, transformerDeviceRule, standbyRule,
    groundFaultRule, arcFaultRule, outletSpacingRule, lightingFloorRule, ownValueRule, motorFeederRule, loopRule,
    residualRule, ringRule, fireRatedRule, surgeRule, insulationMonitorRule, residualTypeRule, reserveRule, lugsRule,
    tiedApartRule, loadVoltsRule, unknownNameRule, outOfProportionRule, alternateRule, upsRule, upsFaultRule,
    mediumVoltageRule, formWordingRule, sheetNumberTwiceRule, markTwiceRule, listedFiguresRule, listedLoadTwiceRule,
    buswayRule, buswayDeviceRule, tapLengthRule, noLoadRule, nameplateRule;

const std::vector<const CheckRule*>& checkRules() {
    static const std::vector<const CheckRule*> rules{&feedLoopRule,      &feedVoltageRule,   &polesRule,
                                                     &highLegRule,       &faultLevelRule,    &unsupportedFaultRule,
                                                     &heldSizeRule,      &unknownNameRule,   &heldBreakerRule,
                                                     &nameplateRule,     &overloadRule,      &mainMissingRule,
                                                     &buswayDeviceRule,  &overfullRule,      &dropRule,
                                                     &noDeviceRule,      &horsepowerRule,    &groundFaultRule,
                                                     &arcFaultRule,      &multiwireRule,     &transformerDeviceRule,
                                                     &standbyRule,       &alternateRule,     &upsRule,
                                                     &upsFaultRule,      &buswayRule,        &tapLengthRule,
                                                     &mediumVoltageRule, &formWordingRule,   &sheetNumberTwiceRule,
                                                     &markTwiceRule,     &listedFiguresRule, &listedLoadTwiceRule,
                                                     &loopRule,          &residualRule,      &residualTypeRule,
                                                     &ringRule,          &fireRatedRule,     &motorFeederRule,
                                                     &lugsRule,          &loadVoltsRule,     &tiedApartRule,
                                                     &reserveRule,       &noLoadRule,        &boardUnfedRule,
                                                     &loadUnfedRule,     &outletSpacingRule, &givenFaultRule,
                                                     &lengthRule,        &lightingFloorRule, &insulationMonitorRule,
                                                     &surgeRule,         &ownValueRule,      &outOfProportionRule};
    return rules;
}

std::vector<Snag> findSnags(const Project& p, const RuleBook& book, const Results& r) {
    const CheckInput in{p, book, r};
    // What each rule finds is kept apart until all is found, so that snags come in the order of the rules and of the
    // circuits.
    const auto& rules = checkRules();
    using Found = std::vector<std::vector<Snag>>;
    std::array<Found, mostParts> found;
    std::vector<std::size_t> atCircuits, atRuns;
    for (std::size_t i = 0; i < rules.size(); ++i) {
        if (rules[i]->worthLooking && !rules[i]->worthLooking(in)) continue;
        if (rules[i]->circuit) atCircuits.push_back(i);
        if (rules[i]->run) atRuns.push_back(i);
    }
    const auto look = [&](Ref about, const RunResult& run, Found& into) {
        for (std::size_t i : atRuns) rules[i]->run(in, *rules[i], about, run, into[i]);
    };
    const std::size_t parts = inParts(p.circuits.highest() + 1, p.circuits.size() >= manyCircuits,
                                      [&](std::size_t part, std::size_t from, std::size_t to) {
                                          Found& into = found[part];
                                          into.resize(rules.size());
                                          for (std::size_t id = from; id < to; ++id) {
                                              const Circuit* c = p.circuits.find(CircuitId{std::uint32_t(id)});
                                              if (!c) continue;
                                              const CircuitResult& cr = r.of(c->id);
                                              for (std::size_t i : atCircuits)
                                                  rules[i]->circuit(in, *rules[i], *c, cr, into[i]);
                                              if (!cr.feeder && c->use == CircuitUse::Load) look(c->id, cr.run, into);
                                          }
                                      });
    for (const Board& b : p.boards) look(b.id, r.of(b.id).run, found[parts - 1]);
    for (const Transformer& t : p.transformers) look(t.id, r.of(t.id).run, found[parts - 1]);
    std::vector<Snag> snags;
    for (std::size_t i = 0; i < rules.size(); ++i) {
        if (rules[i]->find) rules[i]->find(in, *rules[i], snags);
        for (std::size_t part = 0; part < parts; ++part)
            std::move(found[part][i].begin(), found[part][i].end(), std::back_inserter(snags));
    }
    std::stable_sort(snags.begin(), snags.end(), [](const Snag& a, const Snag& b) { return a.severity < b.severity; });
    return snags;
}

Ref wholeOf(const Project& p) {
    if (!p.sources.empty()) return p.sources.begin()->id;
    return p.boards.empty() ? Ref() : Ref(p.boards.begin()->id);
}

std::string nameOfRun(const Project& p, Ref thing) {
    const Circuit* c = p.circuits.find(thing.as<Circuit>());
    if (!c) return "Feeder of " + nameOf(p, thing);
    // A circuit that nobody has named is called by its place alone.
    return nameOf(p, c->id) + (c->name.empty() ? "" : " " + c->name);
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

namespace {

std::vector<std::string_view> wordsOf(std::string_view text) {
    std::vector<std::string_view> words;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t to = std::min(text.find(' ', from), text.size());
        words.push_back(text.substr(from, to - from));
        from = to + 1;
    }
    return words;
}

bool holdsNumber(std::string_view word) { return word.find_first_of("0123456789") != std::string_view::npos; }

} // namespace

std::string kindOf(const Remedy& m) {
    if (!m.kind.empty()) return m.kind;
    std::string kind;
    for (std::string_view word : wordsOf(m.label))
        if (!holdsNumber(word)) kind.append(kind.empty() ? "" : " ").append(word);
    return kind;
}

namespace {

/// What the labels of some remedies of one kind have in common, with "…" for what differs: "Rate … at 22 kA".
std::string commonLabel(const std::vector<Remedy>& parts) {
    const auto first = wordsOf(parts.front().label);
    std::vector<char> same(first.size(), true);
    for (const Remedy& m : parts) {
        const auto words = wordsOf(m.label);
        for (std::size_t i = 0; i < first.size(); ++i)
            if (words.size() != first.size() ? holdsNumber(first[i]) : words[i] != first[i]) same[i] = false;
    }
    std::string label;
    for (std::size_t i = 0; i < first.size(); ++i)
        if (same[i] || i == 0 || same[i - 1]) label += (i ? " " : "") + (same[i] ? std::string(first[i]) : "…");
    return label;
}

} // namespace

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
    g.remedy.label = g.count <= 1 ? remedy.label
                                  : fmt::format("{}, all {}", remedy.kind.empty() ? commonLabel(parts) : kind, g.count);
    g.remedy.apply = [parts](Project& p) {
        for (const Remedy& m : parts) m.apply(p);
    };
    return g;
}

} // namespace lintel
