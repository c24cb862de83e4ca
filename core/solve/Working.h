#pragma once
// How a number came about: the steps with the figures in them, the rule each rests on, and the one that decided.

#include <nlohmann/json_fwd.hpp>

#include <string>
#include <vector>

namespace lintel {

struct WorkingStep {
    std::string what;    ///< "Drop, #8"
    std::string formula; ///< with the numbers in it: "2·16·0.78·172/1000 = 4.3 V"
    std::string value;   ///< "3.6 % > 3 %"
    std::string cited;   ///< "310.16"
    bool governs = false;
    bool operator==(const WorkingStep&) const = default;
};

struct Working {
    std::string title; ///< what is worked out: "why #6?"
    std::vector<WorkingStep> steps;
    void step(std::string what, std::string formula, std::string value, std::string cited) {
        steps.push_back({std::move(what), std::move(formula), std::move(value), std::move(cited), false});
    }
    /// Marks the newest step as the one that decided.
    void governs() {
        if (!steps.empty()) steps.back().governs = true;
    }
    std::string text() const;
    nlohmann::ordered_json json() const;
};

} // namespace lintel
