#include "core/project/Journal.h"

#include "core/project/ProjectFile.h"

#include <cerrno>
#include <fcntl.h>
#include <fmt/format.h>
#include <sstream>
#include <sys/file.h>
#include <unistd.h>

namespace lintel {

using nlohmann::json;
namespace fs = std::filesystem;

namespace {
bool writeAll(int fd, const std::string& text) {
    for (std::size_t done = 0; done < text.size();) {
        const ssize_t n = ::write(fd, text.data() + done, text.size() - done);
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) return false;
        done += std::size_t(n);
    }
    return true;
}
/// Whether a running Lintel holds it. Its number in the file would not tell: numbers of processes are used again.
bool beingWritten(const fs::path& journal) {
    const int fd = ::open(journal.c_str(), O_RDONLY | O_CLOEXEC);
    if (fd < 0) return false;
    const bool held = ::flock(fd, LOCK_SH | LOCK_NB) != 0 && errno == EWOULDBLOCK;
    ::close(fd);
    return held;
}
/// Tells one text from another; not a secret.
std::string fingerprint(const std::string& text) {
    std::uint64_t h = 1469598103934665603ull;
    for (unsigned char c : text) h = (h ^ c) * 1099511628211ull;
    return fmt::format("{:016x}", h);
}
} // namespace

fs::path journalBeside(const fs::path& project) { return project.string() + "-journal"; }

std::unique_ptr<JournalWriter> JournalWriter::begin(const fs::path& journal, const fs::path& project, const Project& base) {
    const int fd = ::open(journal.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_APPEND | O_CLOEXEC, 0600);
    if (fd >= 0) ::flock(fd, LOCK_EX | LOCK_NB); // let go by the system when this process ends, however it ends
    auto w = std::unique_ptr<JournalWriter>(new JournalWriter(journal, fd));
    const std::string text = writeProject(base);
    nlohmann::ordered_json head{{"lintelJournal", 1}, {"pid", ::getpid()}, {"project", project.string()}, {"fingerprint", fingerprint(text)}};
    if (project.empty()) head["base"] = text;
    w->good = fd >= 0 && writeAll(fd, head.dump() + "\n");
    return w;
}

JournalWriter::~JournalWriter() {
    if (fd >= 0) ::close(fd);
}

void JournalWriter::append(const Edit& e) { good = fd >= 0 && writeAll(fd, writeEdit(e) + "\n") && good; }

void JournalWriter::discard() {
    std::error_code ec;
    fs::remove(file, ec);
}

Outcome<std::optional<Recovery>> readJournal(const fs::path& journal) {
    std::error_code ec;
    if (!fs::exists(journal, ec)) return std::optional<Recovery>();
    auto text = readText(journal);
    if (!text) return text.error();
    std::istringstream in(*text);
    std::string line;
    std::getline(in, line);
    const json head = json::parse(line, nullptr, false);
    const auto damaged = [&] { return Error{journal.string(), "the recovery journal is damaged at its beginning", "The project file itself is untouched."}; };
    if (!head.is_object() || !head.contains("lintelJournal") || !head.contains("pid") || !head["pid"].is_number_integer() || !head.contains("project") ||
        !head["project"].is_string() || !head.contains("fingerprint") || !head["fingerprint"].is_string())
        return damaged();
    if (head["pid"].get<int>() != ::getpid() && beingWritten(journal)) return std::optional<Recovery>();

    Recovery r;
    r.project = head["project"].get<std::string>();
    std::string base;
    if (r.project.empty()) {
        if (!head.contains("base") || !head["base"].is_string()) return damaged();
        base = head["base"];
    } else {
        auto file = readText(r.project);
        if (!file) return file.error();
        base = *file;
    }
    auto p = readProject(base, r.project.empty() ? "recovered project" : r.project.filename().string());
    if (!p) return p.error();
    if (fingerprint(writeProject(*p)) != head["fingerprint"].get<std::string>())
        return Error{journal.string(), "the project file was changed since this journal began, so its edits do not fit", "The journal is kept; open the project as it is."};
    r.recovered = *p;
    while (std::getline(in, line)) {
        auto e = readEdit(line);
        if (!e) break; // the edit in the making when the end came
        apply(*e, r.recovered);
        r.lastLabel = e->label;
        ++r.edits;
    }
    if (r.edits == 0) return std::optional<Recovery>();
    return std::optional<Recovery>(std::move(r));
}

} // namespace lintel
