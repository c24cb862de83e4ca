#pragma once
// Rules of the take-off as people type them, a line each: what is ordered | how many for what | of which | why.
//   Box | 1 each device | receptacle
//   Connector | 1 each end | EMT
//   Coupling | 1 every 10 ft | EMT | lengths of 10 ft

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

/// Lengths without a unit are in that of the project. An error says what of the line cannot be read.
Outcome<TakeOffRule> takeOffRuleFrom(const std::string& line, UnitSystem units);
std::string lineOf(const TakeOffRule& rule, UnitSystem units);

/// One line each; an error names the line.
Outcome<std::vector<TakeOffRule>> takeOffRulesFrom(const std::string& lines, UnitSystem units);
std::string linesOf(const std::vector<TakeOffRule>& rules, UnitSystem units);

/// As a note below the list says it: "Coupling: 1 for every 10 ft of a run that is begun, of "EMT" (…)."
std::string ruleWords(const TakeOffRule& rule, UnitSystem units);

} // namespace lintel
