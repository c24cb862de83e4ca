#include "core/base/TextFile.h"

#include "core/base/Limits.h"
#include "core/base/Utf8.h"

#include <algorithm>
#include <cerrno>
#include <charconv>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>
#include <vector>

namespace lintel {

namespace fs = std::filesystem;

namespace {

constexpr std::size_t longestName = 255; // of a file, in bytes, on every file system in use here
constexpr const char* bytesMark = "bytes:";
constexpr const char* nothingLost =
    "Choose another folder, or make room on the disk. Nothing was lost: the old file is as it was.";

/// An open file, closed at the end.
class Descriptor {
public:
    explicit Descriptor(int fd) : number(fd) {}
    ~Descriptor() {
        if (number >= 0) ::close(number);
    }
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    explicit operator bool() const { return number >= 0; }
    operator int() const { return number; }

private:
    int number;
};

bool writeAll(int fd, std::string_view text) {
    while (!text.empty()) {
        const ssize_t n = ::write(fd, text.data(), text.size());
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) return false;
        text.remove_prefix(std::size_t(n));
    }
    return true;
}

bool copyAll(int from, int to) {
    std::vector<char> buffer(1 << 18);
    for (;;) {
        const ssize_t n = ::read(from, buffer.data(), buffer.size());
        if (n < 0 && errno == EINTR) continue;
        if (n < 0) return false;
        if (n == 0) return true;
        if (!writeAll(to, std::string_view(buffer.data(), std::size_t(n)))) return false;
    }
}

/// The name of a file is safe only when its folder is.
void syncFolder(const fs::path& folder) {
    const Descriptor fd(::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (fd) ::fsync(fd);
}

/// The file that a name stands for, symbolic links followed, also where the last of them points to nothing yet.
fs::path target(const fs::path& file) {
    fs::path at = file;
    std::error_code ec;
    for (int links = 0; links < 40; ++links) {
        if (!fs::is_symlink(fs::symlink_status(at, ec))) break;
        const fs::path to = fs::read_symlink(at, ec);
        if (ec) break;
        at = to.is_absolute() ? to : at.parent_path() / to;
    }
    return at;
}

Error refusal(const fs::path& file, const char* what, int why) {
    return {textOfPath(file), fmt::format("{}: {}", what, std::strerror(why)), nothingLost};
}

constexpr const char* temporary = ".lintel-"; // then six letters

/// Removes new files that a program left behind when it was killed while it saved. One that is being written is locked.
void sweep(const fs::path& folder) {
    std::error_code ec;
    for (const auto& e : fs::directory_iterator(folder.empty() ? fs::path(".") : folder, ec)) {
        const std::string name = e.path().filename().string();
        if (name.size() != std::strlen(temporary) + 6 || name.rfind(temporary, 0) != 0) continue;
        const Descriptor fd(::open(e.path().c_str(), O_RDONLY | O_CLOEXEC));
        if (fd && ::flock(fd, LOCK_EX | LOCK_NB) == 0) ::unlink(e.path().c_str());
    }
}

/// Puts `fresh` in place of `file` by its name, or where that would change its owner or part it from its other names,
/// by its content.
std::optional<Error> putInPlace(const fs::path& fresh, const fs::path& file) {
    struct stat old {};
    const bool there = ::stat(file.c_str(), &old) == 0;
    bool byName = true;
    if (there) {
        if (!S_ISREG(old.st_mode))
            return Error{textOfPath(file), "this is not a file that can be replaced", "Choose another name."};
        if (::access(file.c_str(), W_OK) != 0) return refusal(file, "the file cannot be written", errno);
        byName = old.st_nlink == 1 && (::chown(fresh.c_str(), old.st_uid, old.st_gid) == 0 ||
                                       (old.st_uid == ::geteuid() && old.st_gid == ::getegid()));
        ::chmod(fresh.c_str(), old.st_mode & 07777);
    }
    if (byName) {
        if (::rename(fresh.c_str(), file.c_str()) != 0) return refusal(file, "the file cannot be replaced", errno);
        syncFolder(file.parent_path());
        return std::nullopt;
    }
    // The new content is whole beside it, under a name that a person finds, until it is whole in it: a crash between
    // leaves one of the two.
    const fs::path whole =
        file.parent_path() / fileNameWithin(file.stem().string(), ".saving" + file.extension().string());
    if (::rename(fresh.c_str(), whole.c_str()) != 0) return refusal(file, "the file cannot be replaced", errno);
    const auto giveUp = [&](Error e) {
        ::unlink(whole.c_str());
        return e;
    };
    const Descriptor from(::open(whole.c_str(), O_RDONLY | O_CLOEXEC));
    const Descriptor to(::open(file.c_str(), O_WRONLY | O_CLOEXEC));
    if (!from || !to) return giveUp(refusal(file, "the file cannot be written", errno));
    struct stat size {};
    ::fstat(from, &size);
    if (size.st_size > old.st_size && ::posix_fallocate(to, 0, size.st_size) != 0) {
        (void)!::ftruncate(to, old.st_size);
        return giveUp(refusal(file, "there is no room for it on the disk", ENOSPC));
    }
    if (!copyAll(from, to) || ::ftruncate(to, size.st_size) != 0 || ::fsync(to) != 0)
        return Error{textOfPath(file), fmt::format("writing stopped: {}", std::strerror(errno)),
                     "The whole new content is in " + textOfPath(whole) + "."};
    ::unlink(whole.c_str());
    return std::nullopt;
}

} // namespace

Outcome<std::string> readText(const fs::path& file) {
    const auto refuse = [&](const std::string& what, const std::string& help = "") {
        return Error{textOfPath(file), what, help};
    };
    std::error_code ec;
    if (fs::is_directory(file, ec)) return refuse("this is a folder, not a file");
    const Descriptor fd(::open(file.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
    if (!fd) return refuse(std::string("the file cannot be opened: ") + std::strerror(errno));
    std::string text, buffer(1 << 18, '\0');
    for (;;) {
        const ssize_t n = ::read(fd, buffer.data(), buffer.size());
        if (n < 0 && errno == EINTR) continue;
        if (n < 0) return refuse(std::string("the file cannot be read: ") + std::strerror(errno));
        if (n == 0) return text;
        text.append(buffer.data(), std::size_t(n));
        if (text.size() > limits::fileBytes)
            return refuse(fmt::format("it is larger than {} MB", limits::fileBytes >> 20),
                          "This is not a file of Lintel's.");
    }
}

std::optional<Error> replaceFile(const fs::path& named,
                                 const std::function<std::optional<Error>(const fs::path&)>& write) {
    const fs::path file = target(named);
    const fs::path folder = file.parent_path();
    // A short name of its own: the file's may leave no room for an ending, and two programs may be saving at once.
    std::string temp = (folder / (std::string(temporary) + "XXXXXX")).string();
    const Descriptor fd(::mkostemp(temp.data(), O_CLOEXEC));
    if (!fd) return refusal(file, "the file cannot be written", errno);
    ::flock(fd, LOCK_EX | LOCK_NB); // while it is held, it is not swept away as left behind
    static const mode_t mask = [] {
        const mode_t m = ::umask(0);
        ::umask(m);
        return m;
    }();
    ::fchmod(fd, 0666 & ~mask);
    std::optional<Error> bad = write(temp);
    if (!bad) {
        const Descriptor written(::open(temp.c_str(), O_RDONLY | O_CLOEXEC));
        if (!written || ::fsync(written) != 0) bad = refusal(file, "the disk did not take the file", errno);
    }
    if (!bad) bad = putInPlace(temp, file);
    if (bad)
        ::unlink(temp.c_str());
    else
        sweep(folder);
    return bad;
}

std::optional<Error> writeTextAtomically(const std::string& text, const fs::path& file) {
    return replaceFile(file, [&](const fs::path& temp) -> std::optional<Error> {
        const Descriptor fd(::open(temp.c_str(), O_WRONLY | O_TRUNC | O_CLOEXEC));
        if (!fd) return refusal(file, "the file cannot be written", errno);
        if (!writeAll(fd, text)) return refusal(file, "writing stopped", errno);
        return std::nullopt;
    });
}

std::optional<Error> moveFile(const fs::path& from, const fs::path& to) {
    const auto refuse = [&](int why) {
        return Error{textOfPath(from), fmt::format("it cannot be moved to {}: {}", textOfPath(to), std::strerror(why)),
                     "It is still where it was."};
    };
    if (::link(from.c_str(), to.c_str()) == 0) { // fails where there is something of that name already
        syncFolder(to.parent_path());
        ::unlink(from.c_str());
        return std::nullopt;
    }
    if (errno == EEXIST) return refuse(EEXIST);
    {
        const Descriptor in(::open(from.c_str(), O_RDONLY | O_CLOEXEC));
        if (!in) return refuse(errno);
        const Descriptor out(::open(to.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0600));
        if (!out) return refuse(errno);
        if (!copyAll(in, out) || ::fsync(out) != 0) {
            const int why = errno;
            ::unlink(to.c_str());
            return refuse(why);
        }
    }
    syncFolder(to.parent_path());
    ::unlink(from.c_str());
    return std::nullopt;
}

std::optional<Error> keepOldVersion(const fs::path& named, int most) {
    std::error_code ec;
    const fs::path file = target(named);
    if (most < 1 || !fs::exists(file, ec)) return std::nullopt;
    const std::string stem = file.stem().string() + ".old-", ending = file.extension().string();
    std::vector<std::pair<long, fs::path>> old;
    for (const auto& e : fs::directory_iterator(file.parent_path().empty() ? fs::path(".") : file.parent_path(), ec)) {
        const std::string name = e.path().filename().string();
        if (name.size() <= stem.size() + ending.size() || name.compare(0, stem.size(), stem) != 0 ||
            name.compare(name.size() - ending.size(), ending.size(), ending) != 0)
            continue;
        long n = 0;
        const char* end = name.data() + name.size() - ending.size();
        const auto [at, bad] = std::from_chars(name.data() + stem.size(), end, n);
        if (bad == std::errc() && at == end && n > 0) old.push_back({n, e.path()});
    }
    std::sort(old.begin(), old.end());
    const long next = old.empty() ? 1 : old.back().first + 1;
    const fs::path to = file.parent_path() / fileNameWithin(stem + std::to_string(next), ending);
    fs::copy_file(file, to, fs::copy_options::none, ec);
    if (ec) return Error{textOfPath(to), "the earlier version cannot be kept: " + ec.message(), nothingLost};
    for (std::size_t i = 0; i + std::size_t(most) <= old.size(); ++i) fs::remove(old[i].second, ec);
    return std::nullopt;
}

std::string fileNameWithin(const std::string& name, const std::string& ending) {
    if (name.size() + ending.size() <= longestName) return name + ending;
    const std::string mark = fmt::format("~{:08x}", std::uint32_t(fingerprintOf(name)));
    return std::string(cutUtf8(name, longestName - ending.size() - mark.size())) + mark + ending;
}

std::string safeFileName(const std::string& title, const std::string& ending) {
    std::string name;
    for (char c : printable(title))
        name +=
            static_cast<unsigned char>(c) < 0x20 || std::string_view("/\\:*?\"<>|").find(c) != std::string_view::npos
                ? '-'
                : c;
    while (!name.empty() && (name.back() == ' ' || name.back() == '.')) name.pop_back();
    if (name.empty() || name.front() == '.') name.insert(0, "untitled");
    return fileNameWithin(name, ending);
}

std::string textOfPath(const fs::path& path) {
    const std::string& raw = path.native();
    if (isUtf8(raw) && raw.rfind(bytesMark, 0) != 0) return raw;
    std::string out = bytesMark;
    for (unsigned char c : raw)
        if (c < 0x80 && c != '%')
            out += char(c);
        else
            out += fmt::format("%{:02X}", c);
    return out;
}

fs::path pathFromText(const std::string& text) {
    if (text.rfind(bytesMark, 0) != 0) return text;
    std::string raw;
    for (std::size_t i = std::string_view(bytesMark).size(); i < text.size(); ++i) {
        unsigned c = 0;
        if (text[i] == '%' && i + 2 < text.size() &&
            std::from_chars(text.data() + i + 1, text.data() + i + 3, c, 16).ec == std::errc()) {
            raw += char(c);
            i += 2;
        } else {
            raw += text[i];
        }
    }
    return raw;
}

std::uint64_t fingerprintOf(const std::string& text) {
    std::uint64_t h = 1469598103934665603ull;
    for (unsigned char c : text) h = (h ^ c) * 1099511628211ull;
    return h;
}

} // namespace lintel
