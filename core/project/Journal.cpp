#include "core/project/Journal.h"

#include "core/base/Json.h"
#include "core/base/TextFile.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"

#include <cerrno>
#include <fcntl.h>
#include <fmt/format.h>
#include <fstream>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

namespace lintel {

using nlohmann::json;
namespace fs = std::filesystem;

namespace {

constexpr int journalVersion = 2;
constexpr const char* stateSubfolder = "recovery";
constexpr int mostJournals = 1000; ///< of one project, that other runs left

std::string hex(std::uint64_t n) { return fmt::format("{:016x}", n); }

/// The first line of a journal.
struct Head {
    int version = 0;
    fs::path project;
    std::string fingerprint; ///< of the text of what it goes on from
    std::string base;        ///< in version 1, where the project was never saved
};

std::optional<Head> headFrom(const std::string& line) {
    const auto j = parseJson(line, "journal");
    if (!j || !j->is_object()) return std::nullopt;
    const auto text = [&](const char* key) {
        return j->contains(key) && (*j)[key].is_string() ? std::optional((*j)[key].get<std::string>()) : std::nullopt;
    };
    const auto project = text("project"), fingerprint = text("fingerprint");
    if (!j->contains("lintelJournal") || !(*j)["lintelJournal"].is_number_integer() || !project || !fingerprint)
        return std::nullopt;
    Head h;
    const double version = (*j)["lintelJournal"].get<double>();
    if (version != 1 && version != journalVersion) return std::nullopt;
    h.version = int(version);
    h.project = pathFromText(*project);
    h.fingerprint = *fingerprint;
    h.base = text("base").value_or("");
    return h;
}

std::string firstLine(const fs::path& journal) {
    std::ifstream in(journal, std::ios::binary);
    std::string line;
    std::getline(in, line);
    return line;
}

/// "job.lintel-journal" for the first, "job.lintel-journal-2" for the second.
fs::path numbered(const fs::path& first, int n) {
    if (n == 1) return first;
    const std::string ending = "-" + std::to_string(n);
    return first.parent_path() / fileNameWithin(first.filename().string(), ending);
}

fs::path firstInState(const JournalPlaces& places) {
    const std::string name = places.project.empty() ? "unsaved" : places.project.filename().string();
    return places.state / stateSubfolder / fileNameWithin(name, "-journal");
}

/// A new file that nobody else has, locked for this process; -1 where none can be made.
int claim(const fs::path& first, fs::path& taken) {
    for (int n = 1; n <= mostJournals; ++n) {
        taken = numbered(first, n);
        const int fd = ::open(taken.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_APPEND | O_CLOEXEC, 0600);
        if (fd < 0) {
            if (errno == EEXIST) continue;
            return -1;
        }
        ::flock(fd, LOCK_EX | LOCK_NB); // let go by the system when this process ends, however it ends
        return fd;
    }
    return -1;
}

} // namespace

fs::path journalBeside(const fs::path& project) {
    return project.parent_path() / fileNameWithin(project.filename().string(), "-journal");
}

// ---- writing ----

std::unique_ptr<JournalWriter> JournalWriter::begin(const JournalPlaces& places, const Project& base) {
    auto w = std::unique_ptr<JournalWriter>(new JournalWriter(places, base));
    w->complete = w->start();
    return w;
}

namespace {
/// The lock belongs to the open file, not to the descriptor: one that somebody has copied, to sync it on a thread of
/// his own, would hold it until a slow disk is done.
void letGoOf(int fd) {
    ::flock(fd, LOCK_UN);
    ::close(fd);
}
} // namespace

JournalWriter::~JournalWriter() {
    if (fd >= 0) letGoOf(fd);
}

bool JournalWriter::put(const std::string& text) {
    std::string_view rest = text;
    while (!rest.empty()) {
        const ssize_t n = ::write(fd, rest.data(), rest.size());
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) break;
        rest.remove_prefix(std::size_t(n));
    }
    if (rest.empty()) {
        length += std::int64_t(text.size());
        return true;
    }
    // What came of the line is cut off again, so that the next one can be read.
    if (::ftruncate(fd, length) != 0) abandon();
    return false;
}

void JournalWriter::abandon() {
    left.push_back(file);
    letGoOf(fd);
    fd = -1;
    written = base;
}

bool JournalWriter::start() {
    const std::string text = writeProject(base);
    const nlohmann::ordered_json head{{"lintelJournal", journalVersion},
                                      {"project", textOfPath(places.project)},
                                      {"fingerprint", hex(fingerprintOf(text))}};
    const std::string beginning = head.dump() + "\n" + json(text).dump() + "\n";
    std::vector<fs::path> wanted;
    if (!places.project.empty()) wanted.push_back(journalBeside(places.project));
    if (!places.state.empty()) {
        std::error_code ec;
        fs::create_directories(places.state / stateSubfolder, ec);
        wanted.push_back(firstInState(places));
    }
    for (const fs::path& first : wanted) {
        fd = claim(first, file);
        if (fd < 0) continue;
        length = 0;
        if (put(beginning)) return true;
        if (fd >= 0) letGoOf(fd);
        fd = -1;
        std::error_code ec;
        fs::remove(file, ec); // of this writer, with no edit in it
    }
    return false;
}

void JournalWriter::note(const Edit& edit, const Project& now) {
    const bool behind = !complete;
    if (fd < 0 && !start()) {
        complete = false;
        return;
    }
    const Edit all = behind ? difference(written, now, edit.label) : edit;
    complete = all.empty() || put(writeEdit(all) + "\n");
    if (complete) written = now;
}

bool JournalWriter::sync() { return fd >= 0 && complete && ::fsync(fd) == 0; }

void JournalWriter::discard() {
    std::error_code ec;
    if (fd >= 0) fs::remove(file, ec);
    for (const fs::path& f : left) fs::remove(f, ec);
    left.clear();
    if (fd >= 0) letGoOf(fd);
    fd = -1;
}

// ---- reading ----

bool beingWritten(const fs::path& journal) {
    const int fd = ::open(journal.c_str(), O_RDONLY | O_CLOEXEC);
    if (fd < 0) return false;
    const bool held = ::flock(fd, LOCK_SH | LOCK_NB) != 0 && errno == EWOULDBLOCK;
    ::close(fd);
    return held;
}

fs::path projectOf(const fs::path& journal) {
    const auto head = headFrom(firstLine(journal));
    return head ? head->project : fs::path();
}

std::vector<fs::path> journalsIn(const JournalPlaces& places) {
    std::vector<fs::path> found;
    std::error_code ec;
    if (!places.project.empty())
        for (int n = 1, gap = 0; n <= mostJournals && gap < 20; ++n, ++gap)
            if (const fs::path f = numbered(journalBeside(places.project), n); fs::exists(f, ec)) {
                found.push_back(f);
                gap = 0;
            }
    if (!places.state.empty())
        for (const auto& e : fs::directory_iterator(places.state / stateSubfolder, ec))
            if (e.is_regular_file(ec)) found.push_back(e.path());
    return found;
}

fs::path openElsewhere(const JournalPlaces& places, const fs::path& own) {
    std::error_code ec;
    for (const fs::path& journal : journalsIn(places))
        if (journal != own && beingWritten(journal))
            if (const fs::path of = projectOf(journal);
                of == places.project || (!of.empty() && fs::equivalent(of, places.project, ec)))
                return journal;
    return {};
}

namespace {

/// The edit with what really is there before it: a damaged line may tell something else, and the checks of an edit
/// look at no more than what differs.
Edit withWhatIsThere(Edit e, const Project& p) {
    for (AnyChange& any : e.changes)
        std::visit(
            [&]<class T>(Change<T>& change) {
                if constexpr (std::is_same_v<T, Basis>) {
                    change.before = p.basis;
                } else {
                    const auto id = change.after ? change.after->id : change.before ? change.before->id : Id<T>{};
                    change.before.reset();
                    Project::eachTable([&](const char*, auto member) {
                        if constexpr (std::is_same_v<std::decay_t<decltype(p.*member)>, Table<T>>)
                            if (const T* now = (p.*member).find(id)) change.before = *now;
                    });
                }
            },
            any);
    return e;
}

/// Applies an edit; false where it does not go with the project, which then is as it was.
bool applyChecked(const Edit& e, Project& p) {
    Project next = p;
    apply(e, next);
    if (validateEdit(withWhatIsThere(e, p), next)) return false;
    p = std::move(next);
    return true;
}

} // namespace

Outcome<std::optional<Recovery>> readJournal(const fs::path& journal) {
    std::error_code ec;
    if (!fs::exists(journal, ec) || beingWritten(journal)) return std::optional<Recovery>();
    auto text = readText(journal);
    if (!text) return text.error();
    std::size_t at = 0;
    const auto next = [&]() -> std::optional<std::string> {
        if (at >= text->size()) return std::nullopt;
        const std::size_t end = std::min(text->find('\n', at), text->size());
        std::string line = text->substr(at, end - at);
        at = end + 1;
        return line;
    };
    const auto head = headFrom(next().value_or(""));
    const auto damaged = [&] {
        return Error{textOfPath(journal), "the recovery journal is damaged at its beginning",
                     "The project file itself is untouched, and the journal is kept."};
    };
    if (!head) return damaged();
    std::string base = head->base;
    if (head->version == 1 && !head->project.empty()) {
        auto file = readText(head->project);
        if (!file) return file.error();
        base = *file;
    } else if (head->version != 1) {
        const auto line = next();
        if (!line) return std::optional<Recovery>(); // it ended while it began: no edit was made
        const auto j = parseJson(*line, "journal");
        if (!j || !j->is_string())
            return at > text->size() ? Outcome<std::optional<Recovery>>(std::optional<Recovery>())
                                     : Outcome<std::optional<Recovery>>(damaged());
        base = j->get<std::string>();
    }
    auto p = readProject(base, head->project.empty() ? "recovered project" : head->project.filename().string());
    if (!p) return p.error();
    if (head->version == 1 && hex(fingerprintOf(writeProject(*p))) != head->fingerprint)
        return Error{textOfPath(journal),
                     "the project file was changed since this journal began, so its edits do not fit",
                     "The journal is kept; open the project as it is."};
    Recovery r;
    r.project = head->project;
    r.base = *p;
    r.recovered = std::move(*p);
    while (const auto line = next()) {
        auto e = readEdit(*line);
        if (!e || !applyChecked(*e, r.recovered)) { // the edit in the making when the end came, or damage
            r.unread = at > text->size()
                           ? 0
                           : 1 + std::size_t(std::count(text->begin() + std::ptrdiff_t(std::min(at, text->size())),
                                                        text->end(), '\n'));
            break;
        }
        r.lastLabel = e->label;
        ++r.edits;
    }
    if (r.edits == 0 && r.unread == 0) return std::optional<Recovery>();
    if (!r.project.empty()) {
        auto now = loadProject(r.project);
        if (now && *now == r.recovered && r.unread == 0) return std::optional<Recovery>(); // all of it was saved
        r.fits = now && *now == r.base;
    }
    return std::optional<Recovery>(std::move(r));
}

} // namespace lintel
