// Killed at random moments, while it edits, saves and recovers, on one disk and on two: at most the edit in the making
// is lost. LINTEL_KILLS says how often; by itself a hundred times.

#include "core/base/Parse.h"
#include "core/base/TextFile.h"
#include "core/project/Keeper.h"
#include "core/project/ProjectFile.h"
#include "tests/Building.h"

#include <csignal>
#include <sys/mman.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

/// What the child has done for certain, in memory that outlives it.
struct Told {
    volatile long edits = 0; ///< the number in the title after the last edit that came back
    volatile int saves = 0, recoveries = 0;
};

long numberIn(const Project& p) { return long(plainNumber(p.basis.jobNumber).value_or(-1)); }

/// The furthest state that the file or any journal brings back.
long furthest(const Keeper& keeper, const fs::path& file, fs::path* best = nullptr) {
    long most = -1;
    if (auto p = loadProject(file)) most = numberIn(*p);
    for (const fs::path& journal : keeper.leftBehind(file))
        if (auto r = readJournal(journal); r && *r && numberIn((*r)->recovered) > most) {
            most = numberIn((*r)->recovered);
            if (best) *best = journal;
        }
    return most;
}

/// Edits, undoes, saves and recovers until it is killed.
[[noreturn]] void work(const fs::path& file, const fs::path& state, std::uint32_t seed, Told& told) {
    Random r(seed);
    Document doc;
    Keeper keeper(doc, state);
    fs::path journal;
    long number = furthest(keeper, file, &journal);
    if (!journal.empty()) {
        if (keeper.recover(journal)) ::_exit(3);
        told.recoveries = told.recoveries + 1;
        if (keeper.file().empty()) // a copy: as a person would, it is saved in place of the file
            if (!keeper.save(file)) ::_exit(4);
    } else {
        const auto text = readText(file);
        if (!text) ::_exit(5);
        keeper.begin(*readProject(*text, "job"), file, *text);
    }
    if (numberIn(doc.project()) != number) ::_exit(6);
    for (;;) {
        const std::string next = std::to_string(++number);
        doc.edit("Edit " + next, [&](Project& p) {
            p.basis.jobNumber = next;
            if (r(3) == 0) p.boards.change(p.boards.begin()->id)->description = std::string(std::size_t(r(4000)), 'x');
        });
        told.edits = number;
        if (r(6) == 0) {
            if (!keeper.save(file, {.overwriteOutside = false, .oldVersions = r(4) ? 0 : 2})) ::_exit(7);
            told.saves = told.saves + 1;
        }
    }
}

void killOften(const fs::path& folder, const fs::path& state, int times, std::uint32_t seed) {
    const fs::path file = folder / "job.lintel";
    Project start = randomBuilding(3, 3);
    start.basis.jobNumber = "0";
    REQUIRE_FALSE(saveProject(start, file));
    void* shared = ::mmap(nullptr, sizeof(Told), PROT_READ | PROT_WRITE, MAP_SHARED | MAP_ANONYMOUS, -1, 0);
    REQUIRE(shared != MAP_FAILED);
    Told& told = *new (shared) Told;
    Random r(seed);
    // So many, and on a busy machine more, until enough of them saved and recovered in between.
    const auto enough = [&] { return told.saves > times / 20 && told.recoveries > times / 20; };
    for (int i = 0; i < times || (!enough() && i < times * 20); ++i) {
        INFO("kill " << i << " of " << times);
        const pid_t child = ::fork();
        REQUIRE(child >= 0);
        if (child == 0) work(file, state, seed + std::uint32_t(i), told);
        // A quarter of them at once, while it begins; the others some time after it has done its first edit, however
        // busy the machine.
        const long before = told.edits;
        if (r(4) != 0)
            for (int waits = 0; told.edits == before && waits < 20'000; ++waits) ::usleep(500);
        ::usleep(std::uint32_t(r(20'000)));
        ::kill(child, SIGKILL);
        int status = 0;
        REQUIRE(::waitpid(child, &status, 0) == child);
        REQUIRE(WIFSIGNALED(status)); // it did not end by itself: nothing was refused on the way
        Document none;
        const Keeper keeper(none, state);
        const long back = furthest(keeper, file);
        REQUIRE(back >= told.edits);
        REQUIRE(back <= told.edits + 1);
        told.edits = back;
    }
    CHECK(told.saves > times / 20);
    CHECK(told.recoveries > times / 20);
    // Nothing piles up, however often it is killed: the file, two earlier versions, half a file, and the journals of
    // the last runs.
    int files = 0;
    for (const auto& place : {folder, state / "recovery"}) {
        std::error_code ec;
        for ([[maybe_unused]] const auto& e : fs::directory_iterator(place, ec)) ++files;
    }
    CHECK(files <= 12);
    ::munmap(shared, sizeof(Told));
}

} // namespace

TEST_CASE("killed at random moments, at most the edit in the making is lost") {
    const char* wanted = std::getenv("LINTEL_KILLS");
    const int times = wanted ? std::max(1, int(plainNumber(wanted).value_or(100))) : 100;
    std::error_code ec;
    const fs::path shm = fs::is_directory("/dev/shm", ec) ? fs::path("/dev/shm") : fs::temp_directory_path();
    const std::string name = "lintel-kill-" + std::to_string(::getpid());
    const fs::path here = fs::temp_directory_path() / name, there = shm / (name + "-state");
    for (const auto& [folder, state] :
         {std::pair{here / "one", here / "state"}, std::pair{here / "two", there}}) { // one disk, two disks
        fs::create_directories(folder);
        fs::create_directories(state);
        killOften(folder, state, times / 2, 17);
    }
    fs::remove_all(here, ec);
    fs::remove_all(there, ec);
}
