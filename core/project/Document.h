#pragma once
// The open project: one door for change, with undo and redo, the file it came from and the journal beside it.

#include "core/project/Edit.h"
#include "core/project/Journal.h"

#include <functional>

namespace lintel {

class Document {
public:
    Document() = default;
    explicit Document(Project start) : now(std::move(start)), saved(now) {}

    const Project& project() const { return now; }

    /// Runs `change` on a copy and takes the copy over, whole; returns false when nothing came of it (and then nothing
    /// is recorded), or when the result could not be opened again from a file (then refusal() says why), or when
    /// `change` threw. Steps with the same non-empty `mergeKey` directly after one another become one step of undo.
    bool edit(const std::string& label, const std::function<void(Project&)>& change, const std::string& mergeKey = "");

    /// Why the last edit was refused; nothing where it was not.
    const std::optional<Error>& refusal() const { return refused; }

    bool canUndo() const { return !done.empty(); }
    bool canRedo() const { return !undone.empty(); }
    std::string undoLabel() const { return done.empty() ? "" : done.back().edit.label; }
    std::string redoLabel() const { return undone.empty() ? "" : undone.back().label; }
    void undo();
    void redo();
    void undoAll() {
        while (canUndo()) undo();
    }

    bool changed() const { return !(now == saved); }
    void markSaved() {
        saved = now;
        if (!done.empty()) done.back().mergeKey.clear();
    }

    /// Every change from here on is also written to `journal`, as it happens.
    void journalTo(std::unique_ptr<JournalWriter> writer) { journal = std::move(writer); }
    JournalWriter* journalWriter() { return journal.get(); }
    const JournalWriter* journalWriter() const { return journal.get(); }
    /// Called after each change with the edit that was applied.
    std::function<void(const Edit&)> onChange;

private:
    struct Step {
        Edit edit;
        std::string mergeKey;
    };
    void changedBy(const Edit& edit);
    Project now, saved;
    std::vector<Step> done;
    std::vector<Edit> undone;
    std::optional<Error> refused;
    std::unique_ptr<JournalWriter> journal;
};

} // namespace lintel
