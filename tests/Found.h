#pragma once
// What is found wrong in a project, and what its remedies leave of it.

#include "core/check/Check.h"
#include "tests/World.h"

namespace lintel {

struct Found {
    Project p;
    RuleBook book;
    Results r;
    std::vector<Snag> all;
    explicit Found(const Project& project)
        : p(project),
          book(p.basis.ownValues.empty() ? bookOf(p.basis.ruleBook) : *loadRuleBook("nec-2023", p.basis.ownValues)),
          r(solve(p, book)), all(findSnags(p, book, r)) {}
    /// The first snag of a rule, or its first that says so.
    const Snag* of(const std::string& rule, const std::string& says = "") const {
        for (const Snag& s : all)
            if (s.rule->id == rule && s.text.find(says) != std::string::npos) return &s;
        return nullptr;
    }
    /// Of the first snag of a rule, by their labels.
    std::vector<std::string> remedies(const std::string& rule) const {
        std::vector<std::string> out;
        for (const Remedy& m : remediesFor({p, book, r}, *of(rule))) out.push_back(m.label);
        return out;
    }
    /// What is left of the rule's snags after remedy n of the first.
    int after(const std::string& rule, std::size_t n = 0) const {
        const auto remedies = remediesFor({p, book, r}, *of(rule));
        REQUIRE(remedies.size() > n);
        Project q = p;
        remedies[n].apply(q);
        const Found f(q);
        return int(std::count_if(f.all.begin(), f.all.end(), [&](const Snag& s) { return s.rule->id == rule; }));
    }
};

} // namespace lintel
