#pragma once
// The floor on which a thing of the distribution stands.

#include "core/project/Project.h"

namespace lintel {

/// Of a board, transformer or source; nothing: it is not said, or it is no such thing.
inline LevelId levelOf(const Project& p, Ref thing) {
    if (const Board* b = p.boards.find(thing.as<Board>())) return b->level;
    if (const Transformer* t = p.transformers.find(thing.as<Transformer>())) return t->level;
    if (const Source* s = p.sources.find(thing.as<Source>())) return s->level;
    return {};
}

} // namespace lintel
