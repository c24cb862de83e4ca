#pragma once
// What each run of a project belongs to.

#include "core/project/Project.h"

#include <vector>

namespace lintel {

class RunOwners {
public:
    explicit RunOwners(const Project& p) {
        const auto put = [&](RunId run, Ref owner) {
            if (!run) return;
            if (ofRun.size() <= run.value) ofRun.resize(run.value + 1);
            ofRun[run.value] = owner;
        };
        for (const Circuit& c : p.circuits) put(c.run, c.id);
        for (const Board& b : p.boards) {
            put(b.run, b.id);
            put(b.alternateRun, b.id);
        }
        for (const Transformer& t : p.transformers) put(t.run, t.id);
    }
    /// A circuit, board or transformer; nothing: no thing has it.
    Ref of(RunId run) const { return run.value < ofRun.size() ? ofRun[run.value] : Ref(); }

private:
    std::vector<Ref> ofRun; ///< by id
};

} // namespace lintel
