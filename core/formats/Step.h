#pragma once
// The exchange structure of ISO 10303-21 ("STEP file"), in which building models come: numbered instances with their
// values, as they stand. What they mean is for who asks (core/exchange/IfcModel).

#include "core/base/Error.h"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

namespace lintel {

struct StepValue {
    /// None: "$" or "*".
    enum class Kind : std::uint8_t { None, Number, Text, Word, Reference, List };
    Kind kind = Kind::None;
    double number = 0;
    std::uint32_t reference = 0; ///< the number of an instance, which need not be there
    std::string text;            ///< of a text, decoded to UTF-8; of a word ".ELEMENT.", without its points
    std::string type;            ///< of a value that says its type, "IFCPOWERMEASURE"; else empty
    std::vector<StepValue> items;
    bool is(const char* word) const { return kind == Kind::Word && text == word; }
};

/// The text stays in memory; the values of an instance are read when somebody asks for them.
class StepFile {
public:
    /// Refused: what is no such file, ends within an instance, gives a number twice, or nests deeper than any does.
    /// `keep` is told the share that has been read; false stops the reading.
    static Outcome<StepFile> read(const std::filesystem::path& file, const std::function<bool(double)>& keep = {});
    static Outcome<StepFile> parse(std::string text, const std::string& name,
                                   const std::function<bool(double)>& keep = {});

    /// As the header names it: "IFC4".
    const std::string& schema() const { return schemaName; }
    std::size_t size() const { return instances.size(); }
    /// In capitals; empty where there is no such instance.
    std::string_view typeOf(std::uint32_t instance) const;
    /// The instances of a type, in the order of the file.
    const std::vector<std::uint32_t>& of(const std::string& type) const;
    /// Empty where there is no such instance, or it is not as the standard writes one: `damaged` counts those.
    const std::vector<StepValue>& values(std::uint32_t instance) const;
    int damaged() const { return broken; }

private:
    struct Instance {
        std::size_t begin = 0; ///< of its "(" in the text
        std::uint32_t type = 0;
    };
    std::string text, schemaName;
    std::vector<std::string> types;
    std::unordered_map<std::string, std::vector<std::uint32_t>> byType;
    std::unordered_map<std::uint32_t, Instance> instances;
    mutable std::unordered_map<std::uint32_t, std::vector<StepValue>> known;
    mutable int broken = 0;
};

} // namespace lintel
