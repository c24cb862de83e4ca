#pragma once
// What must hold in every project whatever the design: ids resolve, numbers are in range, texts are texts. Design
// mistakes are snags (core/check), not errors; a project with mistakes opens. What does not hold here never enters: a
// file is refused, an edit is refused, and nothing is saved that would not open again.

#include "core/base/Error.h"
#include "core/base/Limits.h"
#include "core/project/Edit.h"
#include "core/project/Project.h"

namespace lintel {

/// The highest number that an id of a kind may have.
template <class T> inline constexpr std::uint32_t mostId = limits::idOfMany;
template <> inline constexpr std::uint32_t mostId<Board> = limits::idOfFew;
template <> inline constexpr std::uint32_t mostId<Transformer> = limits::idOfFew;
template <> inline constexpr std::uint32_t mostId<Source> = limits::idOfFew;
template <> inline constexpr std::uint32_t mostId<Level> = limits::idOfFew;

/// The first thing that cannot be, or nothing. `where` reads like "boards B3.slots".
std::optional<Error> validate(const Project& project);
/// The same for a project that held before `edit` made it `after`: costs what the edit changed.
std::optional<Error> validateEdit(const Edit& edit, const Project& after);

} // namespace lintel
