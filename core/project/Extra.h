#pragma once
// What a file says of a thing that this version does not know. It is kept, so that a round trip through the file gives
// it back.

#include <nlohmann/json_fwd.hpp>

#include <memory>
#include <string>

namespace lintel {

/// Fields by their keys, shared between copies: nearly every thing has none.
class Extra {
public:
    bool empty() const { return !kept; }
    /// An object; an empty one where nothing is kept.
    const nlohmann::json& json() const;
    void keep(const std::string& key, const nlohmann::json& value);
    void drop(const std::string& key);
    /// The text that is kept at this key; empty where there is none, or something else than a text.
    std::string text(const std::string& key) const;
    bool operator==(const Extra& other) const;

private:
    std::shared_ptr<const nlohmann::json> kept; ///< null: nothing
};

} // namespace lintel
