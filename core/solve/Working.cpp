#include "core/solve/Working.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace lintel {

std::string Working::text() const {
    std::string out = title + "\n";
    for (const WorkingStep& s : steps) {
        out += fmt::format("{} {}: {}", s.governs ? "*" : " ", s.what, s.formula);
        if (!s.value.empty()) out += "  → " + s.value;
        if (!s.cited.empty()) out += "  [" + s.cited + "]";
        out += "\n";
    }
    return out;
}

nlohmann::ordered_json Working::json() const {
    nlohmann::ordered_json list = nlohmann::ordered_json::array();
    for (const WorkingStep& s : steps)
        list.push_back(
            {{"what", s.what}, {"formula", s.formula}, {"value", s.value}, {"rule", s.cited}, {"governs", s.governs}});
    return {{"title", title}, {"steps", list}};
}

} // namespace lintel
