#pragma once
// The kind of a load by the words of its name, where nobody says it: "Exhaust fan EF-2" is a motor, "Receptacles, Prep
// 011" are receptacles. The words are data: words/load-kinds.json.

#include "core/base/Error.h"
#include "core/project/Choices.h"

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace lintel {

/// What the load of a board is called that a list of feeders gave it as a whole.
inline constexpr std::string_view listedLoadName = "Load as listed";

class LoadWords {
public:
    /// Reads and checks a list; a kind that there is not, or a word that stands for two, is refused.
    static Outcome<LoadWords> load(const std::filesystem::path& file);
    /// The list that ships; empty where it cannot be read.
    static const LoadWords& shipped();
    /// Whole words, plural or not, before the first comma; of several the last decides, and of two there the longer.
    std::optional<LoadKind> kindOf(const std::string& name) const;
    /// Whether the words name what shares a circuit with nothing else: a fire alarm, smoke control.
    bool standsAlone(const std::string& name) const;
    std::size_t size() const { return words.size(); }

private:
    struct Entry {
        std::vector<std::string> phrase;
        LoadKind kind;
    };
    std::vector<Entry> words;
    std::vector<std::vector<std::string>> alone;
};

} // namespace lintel
