#include "core/project/Document.h"

#include "core/project/Validation.h"

#include <new>

namespace lintel {

bool Document::edit(const std::string& label, const std::function<void(Project&)>& change,
                    const std::string& mergeKey) {
    refused.reset();
    const auto failed = [&](const char* why) {
        refused = Error{label, why, "The project is as it was."};
        return false;
    };
    Project next = now;
    try {
        change(next);
    } catch (const std::bad_alloc&) {
        return failed("there is not enough memory for it");
    } catch (const std::exception& e) {
        return failed(e.what());
    }
    Edit e = difference(now, next, label);
    if (e.empty()) return false;
    if (auto bad = validateEdit(e, next)) {
        refused = std::move(bad);
        return false;
    }
    undone.clear();
    const Project before = now;
    now = std::move(next);
    if (!mergeKey.empty() && !done.empty() && done.back().mergeKey == mergeKey) {
        Project start = before;
        apply(reversed(done.back().edit), start);
        done.back().edit = difference(start, now, label);
        if (done.back().edit.empty()) done.pop_back();
    } else {
        done.push_back({e, mergeKey});
    }
    changedBy(e); // last: who listens finds the step on the stack already
    return true;
}

void Document::undo() {
    if (done.empty()) return;
    const Edit forward = std::move(done.back().edit);
    done.pop_back();
    const Edit back = reversed(forward);
    apply(back, now);
    undone.push_back(forward);
    changedBy(back);
}

void Document::redo() {
    if (undone.empty()) return;
    Edit e = std::move(undone.back());
    undone.pop_back();
    apply(e, now);
    done.push_back({e, ""});
    changedBy(e);
}

void Document::changedBy(const Edit& e) {
    if (journal) journal->note(e, now);
    if (onChange) onChange(e);
}

} // namespace lintel
