#include "core/project/Keeper.h"

#include "core/base/TextFile.h"
#include "core/project/ProjectFile.h"

#include <fmt/format.h>
#include <sys/stat.h>

namespace lintel {

namespace fs = std::filesystem;

namespace {
fs::path wholePath(const fs::path& file) {
    std::error_code ec;
    const fs::path whole = fs::absolute(file, ec);
    return ec ? file : whole;
}
} // namespace

JournalPlaces Keeper::places(const fs::path& project) const {
    // By the one name that all links to a file share, so that two windows meet.
    std::error_code ec;
    const fs::path real = project.empty() ? project : fs::weakly_canonical(project, ec);
    return {ec ? project : real, stateFolder};
}

Keeper::Stamp Keeper::stampOf(const fs::path& file) {
    struct stat s {};
    Stamp stamp;
    if (file.empty() || ::stat(file.c_str(), &s) != 0) return stamp;
    stamp.there = true;
    stamp.bytes = std::uint64_t(s.st_size);
    stamp.modified = std::int64_t(s.st_mtim.tv_sec) * 1'000'000'000 + s.st_mtim.tv_nsec;
    stamp.inode = std::int64_t(s.st_ino);
    return stamp;
}

void Keeper::stamp(const std::string& bytes) {
    known = stampOf(path);
    known.fingerprint = fingerprintOf(bytes);
}

bool Keeper::changedOutside() const {
    const Stamp now = stampOf(path);
    if (!known.there || !now.there) return known.there != now.there && now.there;
    if (now.bytes == known.bytes && now.modified == known.modified && now.inode == known.inode) return false;
    const auto text = readText(path);
    return !text || fingerprintOf(*text) != known.fingerprint;
}

bool Keeper::openElsewhere(const fs::path& file) const {
    const JournalWriter* own = doc.journalWriter();
    return !lintel::openElsewhere(places(wholePath(file)), own ? own->path() : fs::path()).empty();
}

void Keeper::startJournal(bool forReading) {
    if (!forReading) doc.journalTo(JournalWriter::begin(places(path), doc.project()));
    // Looked for after our own stands there: of two windows that open a file at the same moment, at least one finds the
    // other.
    readOnly = forReading || (!path.empty() && openElsewhere(path));
    if (!readOnly) return;
    if (JournalWriter* own = doc.journalWriter())
        own->discard(); // a reader's journal would keep the other window from saving
    doc.journalTo(nullptr);
}

void Keeper::sweep() const {
    const JournalPlaces where = places(path);
    std::error_code ec;
    for (const fs::path& journal : journalsIn(where)) {
        if (beingWritten(journal) || projectOf(journal) != where.project || where.project.empty())
            continue; // one that is just being begun says no project yet
        if (const auto r = readJournal(journal); r && !*r) fs::remove(journal, ec);
    }
}

void Keeper::begin(Project start, const fs::path& file, const std::string& bytes, bool forReading) {
    letGo();
    auto listener = std::move(doc.onChange);
    doc = Document(std::move(start));
    doc.onChange = std::move(listener);
    path = file.empty() ? file : wholePath(file);
    stamp(bytes);
    startJournal(forReading);
    if (!readOnly) sweep();
}

std::optional<Error> Keeper::recover(const fs::path& journal) {
    auto r = readJournal(journal);
    if (!r) return r.error();
    if (!*r) return Error{textOfPath(journal), "there is nothing to recover", ""};
    const Recovery& found = **r;
    const bool ontoFile = found.fits && !found.project.empty();
    const auto onDisk = ontoFile ? readText(found.project) : Outcome<std::string>(std::string());
    begin(found.base, ontoFile ? found.project : fs::path(), onDisk ? *onDisk : std::string());
    if (!found.project.empty() && !ontoFile)
        copy = found.project.parent_path() /
               fileNameWithin(found.project.stem().string(), " (recovered)" + found.project.extension().string());
    const Project wanted = found.recovered;
    doc.edit("Recover", [&](Project& p) { p = wanted; });
    recovered = true;
    // Its edits stand in the new journal; only when that is on the disk has the old one done its work.
    JournalWriter* now = doc.journalWriter();
    if (now && now->sync() && found.unread == 0) {
        std::error_code ec;
        fs::remove(journal, ec);
    }
    return std::nullopt;
}

SaveAnswer Keeper::save(const fs::path& to, const SaveOptions& options) {
    const fs::path target = wholePath(to);
    std::error_code ec;
    const bool same = !path.empty() && (target == path || fs::equivalent(target, path, ec));
    const auto refuse = [&](SaveTrouble trouble, const std::string& what, const std::string& help) {
        return SaveAnswer{trouble, {textOfPath(target), what, help}};
    };
    if (openElsewhere(target) || (readOnly && same))
        return refuse(SaveTrouble::OpenElsewhere, "the file is open in another window of Lintel",
                      "Save under another name, or close it there.");
    if (same && !options.overwriteOutside && changedOutside())
        return refuse(SaveTrouble::ChangedOutside, "the file was changed by someone else since it was opened here",
                      "Compare, reload, or save beside it under another name.");
    if (auto bad = keepOldVersion(target, options.oldVersions)) return {SaveTrouble::Failed, *bad};
    const auto text = textToSave(doc.project());
    if (!text) return {SaveTrouble::Failed, text.error()};
    if (auto bad = writeTextAtomically(*text, target)) return {SaveTrouble::Failed, *bad};
    // In this order: the file is whole on the disk, a new journal goes on from it, and only then does the old one go.
    path = target;
    copy.clear();
    stamp(*text);
    doc.markSaved();
    recovered = false;
    auto next = JournalWriter::begin(places(path), doc.project());
    if (JournalWriter* old = doc.journalWriter()) old->discard();
    doc.journalTo(std::move(next));
    readOnly = false;
    return {};
}

void Keeper::letGo() {
    if (JournalWriter* j = doc.journalWriter()) j->discard();
    doc.journalTo(nullptr);
    path.clear();
    copy.clear();
    recovered = readOnly = false;
    known = {};
}

std::vector<fs::path> Keeper::leftBehind(const fs::path& project) const {
    std::vector<fs::path> found;
    const JournalPlaces where = places(project);
    for (const fs::path& journal : journalsIn(where)) {
        if (!project.empty() && journal.parent_path() != where.project.parent_path() &&
            projectOf(journal) != where.project)
            continue;
        if (auto r = readJournal(journal); !r || *r) found.push_back(journal);
    }
    return found;
}

} // namespace lintel
