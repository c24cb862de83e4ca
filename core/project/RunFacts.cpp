#include "core/project/RunFacts.h"

#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/project/TypedLoads.h"

#include <fmt/format.h>

namespace lintel {

bool isAutomatic(const std::string& text) {
    const std::string t = lowered(trimmed(text));
    return t.empty() || t == "auto" || t == "automatic";
}

std::optional<Error> enterRunLength(Run& run, const std::string& text, UnitSystem units) {
    if (isAutomatic(text)) {
        run.lengthBy = LengthBy::Reach;
        return std::nullopt;
    }
    const auto metres = metresFrom(text, units);
    if (!metres) return Error{"", "“" + text + "” is not a length", "Type 120 ft or 36 m, or nothing to measure it."};
    run.lengthBy = LengthBy::Entered;
    run.length = *metres;
    return std::nullopt;
}

std::optional<Error> enterRunSize(Run& run, const std::string& text) {
    if (isAutomatic(text)) {
        run.heldSize.clear();
        run.heldSets = 0;
        return std::nullopt;
    }
    const auto typed = typedSize(text);
    if (!typed || typed->sets > limits::sets)
        return Error{"", "“" + text + "” is not a size of a conductor",
                     "Type one such as 8, 1/0, 250 or 2 × 250; auto lets it be sized."};
    run.heldSize = typed->size;
    run.heldSets = typed->sets;
    return std::nullopt;
}

std::string heldSizeText(const Run& run) {
    if (run.heldSize.empty() || run.heldSets < 1) return run.heldSize;
    return fmt::format("{} × {}", run.heldSets, run.heldSize);
}

} // namespace lintel
