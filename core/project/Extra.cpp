#include "core/project/Extra.h"

#include <nlohmann/json.hpp>

namespace lintel {

const nlohmann::json& Extra::json() const {
    static const nlohmann::json nothing = nlohmann::json::object();
    return kept ? *kept : nothing;
}

void Extra::keep(const std::string& key, const nlohmann::json& value) {
    nlohmann::json next = json();
    next[key] = value;
    kept = std::make_shared<const nlohmann::json>(std::move(next));
}

void Extra::drop(const std::string& key) {
    nlohmann::json next = json();
    next.erase(key);
    kept = next.empty() ? nullptr : std::make_shared<const nlohmann::json>(std::move(next));
}

std::string Extra::text(const std::string& key) const {
    const auto found = json().find(key);
    return found != json().end() && found->is_string() ? found->get<std::string>() : "";
}

bool Extra::operator==(const Extra& other) const { return kept == other.kept || json() == other.json(); }

} // namespace lintel
