#pragma once
// The recovery journal: every edit since the last save, written as it happens, so that a crash at any moment loses at
// most the edit in the making. A text file that stands by itself: what it goes on from is in it, then one edit a line.
//
// What guarantees that no work is lost:
// - a journal has a file of its own, made new and locked; no journal is ever begun in place of another;
// - only three things remove one: its edits are in a saved project, they are in another journal that is on the disk, or
// the
//   person let them go;
// - a line that could not be written whole is cut off again, and the next line says all that has not been said.

#include "core/base/Error.h"
#include "core/project/Edit.h"

#include <filesystem>
#include <memory>
#include <vector>

namespace lintel {

/// Where a journal may stand: beside its project, and where that cannot be, or there is no file yet, in `state`.
struct JournalPlaces {
    std::filesystem::path project; ///< empty: never saved
    std::filesystem::path state;   ///< a folder; empty: none
};

class JournalWriter {
public:
    /// Begins a journal of its own for a project that is now `base`. Where nothing can be written it is not healthy,
    /// and tries again at each edit.
    static std::unique_ptr<JournalWriter> begin(const JournalPlaces& places, const Project& base);
    ~JournalWriter();
    JournalWriter(const JournalWriter&) = delete;
    JournalWriter& operator=(const JournalWriter&) = delete;
    /// Writes the edit that made the project `now`.
    void note(const Edit& edit, const Project& now);
    /// False while something noted could not be written (a full disk): the window says so.
    bool healthy() const { return complete; }
    /// Makes sure that what was written survives a power cut, too. May take some milliseconds; for another thread use
    /// descriptor().
    bool sync();
    int descriptor() const { return fd; }
    /// Removes the file: what it holds is safe elsewhere, or was let go.
    void discard();
    const std::filesystem::path& path() const { return file; }

private:
    JournalWriter(JournalPlaces where, const Project& from) : places(std::move(where)), base(from), written(from) {}
    bool start();
    bool put(const std::string& text);
    void abandon();
    JournalPlaces places;
    Project base, written; ///< what the file begins with, and what its last whole line has come to
    std::filesystem::path file;
    std::vector<std::filesystem::path> left; ///< begun by this writer and given up since
    std::int64_t length = 0;                 ///< bytes of whole lines
    int fd = -1;
    bool complete = false;
};

/// What a journal left behind brings back.
struct Recovery {
    std::filesystem::path project; ///< empty: it was never saved
    Project base;                  ///< what the journal goes on from
    Project recovered;
    bool fits = true; ///< the file still holds `base`; where not, `recovered` is to be kept as a copy beside it
    std::size_t edits = 0;
    std::size_t unread = 0; ///< lines after the last one that could be read
    std::string lastLabel;
};

/// The name that journals of a project begin with, in its folder.
std::filesystem::path journalBeside(const std::filesystem::path& project);
/// All journals that stand where those of `places` may, of whatever project.
std::vector<std::filesystem::path> journalsIn(const JournalPlaces& places);
/// Whether a running Lintel, this one or another, is writing it.
bool beingWritten(const std::filesystem::path& journal);
/// The project that a journal says it is of; empty: never saved, or no journal.
std::filesystem::path projectOf(const std::filesystem::path& journal);
/// The journal that a running Lintel writes for `project`, other than `own`; empty: none.
std::filesystem::path openElsewhere(const JournalPlaces& places, const std::filesystem::path& own);
/// Nothing: there is no journal, a running Lintel is still writing it, or all it holds is in the project's file.
/// An Error: its beginning cannot be read.
Outcome<std::optional<Recovery>> readJournal(const std::filesystem::path& journal);

} // namespace lintel
