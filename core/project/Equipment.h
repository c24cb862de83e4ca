#pragma once
// What only some kinds of equipment and supplies have.

#include "core/project/Choices.h"

namespace lintel {

/// Whether a device in such a thing is a set of fuses; else it is a breaker.
constexpr bool holdsFuses(BoardUse use) { return use == BoardUse::Disconnect || use == BoardUse::Meter; }
/// Whether a supply given this way has a rating of its own in kVA.
constexpr bool hasRating(SourceKind kind) {
    return kind == SourceKind::UtilityTransformer || kind == SourceKind::Generator;
}

} // namespace lintel
