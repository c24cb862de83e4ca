#pragma once
// The recovery journal: every edit since the last save, written as it happens, so that a crash at any moment loses at
// most the edit in the making. A text file: the first line tells what it goes on from, then one edit a line.

#include "core/base/Error.h"
#include "core/project/Edit.h"

#include <filesystem>
#include <memory>

namespace lintel {

class JournalWriter {
public:
    /// Begins a journal for `base`, which is what the file `project` holds (or, for a project never saved, `project` is
    /// empty and the base is written into the journal itself). An existing journal there is replaced.
    static std::unique_ptr<JournalWriter> begin(const std::filesystem::path& journal, const std::filesystem::path& project, const Project& base);
    ~JournalWriter();
    JournalWriter(const JournalWriter&) = delete;
    JournalWriter& operator=(const JournalWriter&) = delete;
    void append(const Edit& edit);
    /// False when an edit could not be written (a full disk): the window says so.
    bool healthy() const { return good; }
    /// Removes the file: the project was saved or let go.
    void discard();
    const std::filesystem::path& path() const { return file; }

private:
    JournalWriter(std::filesystem::path journal, int descriptor) : file(std::move(journal)), fd(descriptor) {}
    std::filesystem::path file;
    int fd = -1;
    bool good = true;
};

/// What a journal left behind brings back.
struct Recovery {
    std::filesystem::path project; ///< empty: it was never saved
    Project recovered;
    std::size_t edits = 0;
    std::string lastLabel;
};

/// "<file>-journal" beside the project file.
std::filesystem::path journalBeside(const std::filesystem::path& project);
/// Nothing: there is no journal, it holds no edits, or a running Lintel is still writing it.
/// An Error: it does not fit the project file (that was changed since).
Outcome<std::optional<Recovery>> readJournal(const std::filesystem::path& journal);

} // namespace lintel
