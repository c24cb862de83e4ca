#include "core/check/Check.h"

#include "core/base/Format.h"

#include <fmt/format.h>

namespace lintel {

extern const CheckRule feedLoopRule, feedVoltageRule, polesRule, highLegRule, faultLevelRule, heldSizeRule, heldBreakerRule, overloadRule, mainMissingRule, overfullRule, dropRule,
    boardUnfedRule, loadUnfedRule, lengthRule;

const std::vector<const CheckRule*>& checkRules() {
    static const std::vector<const CheckRule*> rules{&feedLoopRule, &feedVoltageRule, &polesRule,    &highLegRule, &faultLevelRule, &heldSizeRule,  &heldBreakerRule,
                                                     &overloadRule, &mainMissingRule, &overfullRule, &dropRule,    &boardUnfedRule, &loadUnfedRule, &lengthRule};
    return rules;
}

std::vector<Snag> findSnags(const Project& p, const RuleBook& book, const Results& r) {
    std::vector<Snag> snags;
    const CheckInput in{p, book, r};
    for (const CheckRule* rule : checkRules()) rule->find(in, *rule, snags);
    std::stable_sort(snags.begin(), snags.end(), [](const Snag& a, const Snag& b) { return a.severity < b.severity; });
    return snags;
}

double conductorMass(const RunResult& run, const RuleBook& book) {
    if (run.size < 0 || !run.need.lengthKnown) return 0;
    const double density = run.need.material == Material::Copper ? 8890 : 2700; // kg/m³
    const int lines = run.need.poles == 3 ? 4 : run.need.poles + 1;
    return book.sizes()[std::size_t(run.size)].mm2 * 1e-6 * run.need.length.v * density * lines * run.sets;
}

RemedyEffect effectOf(const CheckInput& before, const Remedy& remedy) {
    RemedyEffect e{remedy.label};
    Project after = before.project;
    remedy.apply(after);
    const Results r = solve(after, before.book);
    const auto count = [](const std::vector<Snag>& snags, int& stops, int& all) {
        all = int(snags.size());
        stops = int(std::count_if(snags.begin(), snags.end(), [](const Snag& s) { return s.severity == Severity::Stop; }));
    };
    count(findSnags(before.project, before.book, before.results), e.stopsBefore, e.snagsBefore);
    count(findSnags(after, before.book, r), e.stopsAfter, e.snagsAfter);
    const auto compare = [&](const RunResult& x, const RunResult& y) {
        if (x.size != y.size || x.sets != y.sets || x.need.device != y.need.device) ++e.runsChanged;
        e.copperKg += conductorMass(y, before.book) - conductorMass(x, before.book);
    };
    const auto each = [&](const auto& xs, const auto& ys) {
        for (std::size_t i = 0; i < std::max(xs.size(), ys.size()); ++i) {
            static const RunResult none;
            compare(i < xs.size() ? xs[i].run : none, i < ys.size() ? ys[i].run : none);
        }
    };
    each(before.results.circuits, r.circuits);
    each(before.results.boards, r.boards);
    each(before.results.transformers, r.transformers);
    return e;
}

std::string RemedyEffect::text() const {
    const auto plural = [](int n, const char* one, const char* many) { return fmt::format("{} {}", n, n == 1 ? one : many); };
    std::string t;
    const auto add = [&](const std::string& s) { t += (t.empty() ? "" : " · ") + s; };
    const int fewer = snagsBefore - snagsAfter;
    if (fewer > 0) add(plural(fewer, "snag fewer", "snags fewer"));
    if (fewer < 0) add(plural(-fewer, "snag more", "snags more"));
    if (runsChanged) add(plural(runsChanged, "run changes", "runs change"));
    if (std::abs(copperKg) >= 0.05) add((copperKg > 0 ? "+" : "") + number(copperKg, 1) + " kg of conductor");
    return t.empty() ? "nothing else changes" : t;
}

} // namespace lintel
