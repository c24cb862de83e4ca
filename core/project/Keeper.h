#pragma once
// The open project's file and journal, and the order of steps by which nothing of it can be lost. The window and the
// tests that kill it use this one.

#include "core/project/Document.h"

namespace lintel {

/// What stands in the way of saving. A person may go on from the middle two; the last is an error like any other.
enum class SaveTrouble {
    None,
    ChangedOutside, ///< the file is not as it was when it was read or saved last: reload, compare, or save beside it
    OpenElsewhere,  ///< another window has that file open
    Failed
};
struct SaveAnswer {
    SaveTrouble trouble = SaveTrouble::None;
    Error error;
    explicit operator bool() const { return trouble == SaveTrouble::None; }
};
struct SaveOptions {
    bool overwriteOutside = false; ///< the person has seen that the file was changed, and wants it replaced
    int oldVersions = 0;           ///< so many earlier versions are kept beside it, numbered
};

class Keeper {
public:
    /// `state`: a folder for journals that cannot stand beside their file; empty: none.
    Keeper(Document& document, std::filesystem::path state) : doc(document), stateFolder(std::move(state)) {}

    /// Makes `start` the open project. `file`: where it was read from, with the bytes that were read; empty: it was
    /// never saved. The journal of the project that was open before is let go. For reading, there is no journal and
    /// nothing is saved to `file`; that is also what comes of it where another window began at the same moment.
    void begin(Project start, const std::filesystem::path& file, const std::string& bytes, bool forReading = false);
    /// Whether another window has `file` open.
    bool openElsewhere(const std::filesystem::path& file) const;
    /// Opens what a journal left behind. The journal goes only when all it held is in the new one, and that is on the
    /// disk. An Error changed nothing. A recovery that does not fit its file becomes a project without a file;
    /// `copyName` then is where it may be saved.
    std::optional<Error> recover(const std::filesystem::path& journal);
    SaveAnswer save(const std::filesystem::path& to, const SaveOptions& options = {});
    /// The person lets go of what is not saved.
    void letGo();
    /// Leaves the journal where it is, as after a crash.
    void leaveJournal() { doc.journalTo(nullptr); }

    const std::filesystem::path& file() const { return path; }
    /// Beside what file a recovered copy belongs; empty: none.
    const std::filesystem::path& copyName() const { return copy; }
    /// Opened for reading: the file is open in another window. Nothing is saved to it.
    bool reading() const { return readOnly; }
    /// Whether the file is not as it was when it was read or saved last.
    bool changedOutside() const;
    /// What is in the file now, with these bytes, is part of the open project by now: it may be saved over.
    void haveTaken(const std::string& bytes) { stamp(bytes); }
    /// It is no part of it any more: the file counts as changed outside.
    void haveNotTaken() {
        known.modified = -1;
        known.fingerprint = 0;
    }
    bool changed() const { return doc.changed() || recovered; }
    bool journalHealthy() const { return doc.journalWriter() && doc.journalWriter()->healthy(); }
    int journalDescriptor() const { return doc.journalWriter() ? doc.journalWriter()->descriptor() : -1; }
    /// Where journals of `project` may stand.
    JournalPlaces places(const std::filesystem::path& project) const;
    /// Journals of `project` (empty: of any in the state folder) that hold edits which are nowhere else.
    std::vector<std::filesystem::path> leftBehind(const std::filesystem::path& project) const;

private:
    void startJournal(bool forReading);
    /// Removes journals of the open project that hold nothing which is not in its file.
    void sweep() const;
    void stamp(const std::string& bytes);
    Document& doc;
    std::filesystem::path stateFolder, path, copy;
    bool recovered = false, readOnly = false;
    struct Stamp {
        std::uint64_t bytes = 0, fingerprint = 0;
        std::int64_t modified = 0, inode = 0;
        bool there = false;
    };
    static Stamp stampOf(const std::filesystem::path& file);
    Stamp known;
};

} // namespace lintel
