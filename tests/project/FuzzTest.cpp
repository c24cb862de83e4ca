// Damage of every kind: a file that was cut or mistyped opens to an error or to a project that holds together, never to
// a crash.

#include "core/base/JsonPieces.h"
#include "core/check/Check.h"
#include "core/project/Document.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/Building.h"

#include <fmt/format.h>

#include <filesystem>
#include <fstream>

using namespace lintel;

TEST_CASE("a file cut anywhere is refused with its line") {
    const std::string text = writeProject(randomBuilding(2, 6));
    for (std::size_t cut = 0; cut + 3 < text.size(); cut += 53) {
        const auto p = readProject(text.substr(0, cut), "cut.lintel");
        INFO("cut at " << cut);
        REQUIRE_FALSE(p);
        CHECK(p.error().where.find("cut.lintel, line ") == 0);
        CHECK(p.error().what.find("cut short") != std::string::npos);
    }
}

TEST_CASE("a file with any one letter changed is refused or holds together, and solves") {
    const std::string text = writeProject(randomBuilding(4, 5));
    Random r(77);
    int opened = 0, refused = 0;
    for (int i = 0; i < 1500; ++i) {
        std::string t = text;
        t[std::size_t(r(int(t.size())))] = "0123456789\"{}[],:-.abXB"[r(23)];
        const auto p = readProject(t, "x.lintel");
        if (!p) {
            ++refused;
            CHECK_FALSE(p.error().what.empty());
            continue;
        }
        ++opened;
        CHECK_FALSE(validate(*p));
        const Results res = solve(*p, nec()); // whatever it says, it can be worked out
        (void)findSnags(*p, nec(), res);
        CHECK(*readProject(writeProject(*p), "again") == *p);
    }
    CHECK(opened > 100);
    CHECK(refused > 100);
}

/// The text read by its pieces; nothing where it is refused.
std::optional<nlohmann::json> readInPieces(const std::string& text) {
    const auto members = cutJson(text, "x");
    if (!members) return std::nullopt;
    auto whole = nlohmann::json::object();
    try {
        for (const JsonMember& m : *members) {
            whole[m.key] = readPiece(m.text);
            if (!m.isList()) continue;
            auto list = nlohmann::json::array();
            for (const std::string_view item : m.items) list.push_back(readPiece(item));
            CHECK(list == whole[m.key]);
        }
    } catch (const nlohmann::json::exception&) {
        return std::nullopt;
    }
    return whole;
}

TEST_CASE("a file is read in pieces as it is read whole, however it was damaged") {
    const std::string text = writeProject(randomBuilding(2, 2)).substr(0, 2000) + "\"x\"]}\n";
    const std::string sound = R"({"lintel": 1, "a": [ {"b": "]\"}\\"}, 2 ,[3, "x"] ], "c": {} ,"d":[], "e" : null})";
    Random r(78);
    int read = 0;
    int refused = 0;
    for (int i = 0; i < 20000; ++i) {
        std::string t = i % 2 ? sound : text;
        const std::size_t at = std::size_t(r(int(t.size())));
        const char other = "0123456789\"{}[],:-.abXB\\ \n"[r(26)];
        if (i % 3 == 0) t[at] = other;
        if (i % 3 == 1) t.insert(at, 1, other);
        if (i % 3 == 2) t.erase(at, 1 + std::size_t(r(3)));
        INFO(t);
        const auto whole = parseJson(t, "x");
        const auto pieces = readInPieces(t);
        if (whole && whole->is_object() && pieces) {
            ++read;
            REQUIRE(*pieces == *whole);
        } else if (whole && whole->is_object()) { // refused for one thing only: a name that stands twice
            REQUIRE(cutJson(t, "x").error().what.find("stands twice") != std::string::npos);
        } else if (whole) {
            REQUIRE(pieces->empty());
        } else {
            ++refused;
            REQUIRE_FALSE(pieces);
        }
    }
    CHECK(read > 500);
    CHECK(refused > 5000);
}

TEST_CASE("marks and bytes that the reader of a piece would pass over are not passed over") {
    CHECK(readProject("\xEF\xBB\xBF{\"lintel\": 1}", "marked.lintel"));
    CHECK_FALSE(readProject("{\"lintel\": \xEF\xBB\xBF"
                            "1}",
                            "x"));
    CHECK_FALSE(readProject(std::string("{\"lintel\": 1\0}", 14), "x"));
    CHECK_FALSE(readProject(std::string("{\"lintel\": 1}\0x", 15), "x"));
    CHECK_FALSE(readProject(R"({"lintel": 1} x)", "x"));
    CHECK_FALSE(readProject(R"({"lintel": 1, "boards": [1 2]})", "x"));
    CHECK_FALSE(readProject(R"({"lintel": 1, "boards": [],})", "x"));
}

TEST_CASE("a table is read in blocks: each thing once, and the place of a bad one is told in a late block too") {
    std::string text = "{\"lintel\": 1, \"levels\": [";
    constexpr int levels = 20000;
    for (int i = 1; i <= levels; ++i)
        text += fmt::format("{}{{\"id\": \"V{}\", \"name\": \"Floor {}\"}}", i > 1 ? "," : "", i, i);
    const auto p = readProject(text + "]}", "x");
    REQUIRE(p);
    REQUIRE(p->levels.size() == levels);
    for (const Level& l : p->levels) REQUIRE(l.name == fmt::format("Floor {}", l.id.value));
    const auto bad = readProject(text + ", 7]}", "x");
    REQUIRE_FALSE(bad);
    CHECK(bad.error().where == "x, levels[20000]");
}

TEST_CASE("a table that stands twice is refused, as one of the two would be lost") {
    const auto p = readProject(R"({"lintel": 1, "boards": [], "boards": []})", "x.lintel");
    REQUIRE_FALSE(p);
    CHECK(p.error().where == "x.lintel, boards");
    CHECK(p.error().what.find("stands twice") != std::string::npos);
}

TEST_CASE("a journal cut anywhere brings back a state that the project once had") {
    const auto folder = std::filesystem::temp_directory_path() / ("lintel-fuzz-" + std::to_string(::getpid()));
    std::filesystem::create_directories(folder);
    const auto journal = folder / "j";
    Document d(randomBuilding(6, 3));
    std::vector<Project> states{d.project()};
    d.journalTo(JournalWriter::begin({{}, folder}, d.project()));
    Random r(5);
    for (int i = 0; i < 25; ++i) {
        d.edit("edit", [&](Project& p) {
            const BoardId b{1 + std::uint32_t(r(int(p.boards.highest())))};
            if (p.boards.has(b) && r(3))
                addCircuit(p, b, 1 + r(3), "c" + std::to_string(i));
            else
                p.basis.title = "t" + std::to_string(i);
        });
        states.push_back(d.project());
        if (r(4) == 0 && d.canUndo()) d.undo(), states.push_back(d.project());
    }
    const std::string whole = *readText(d.journalWriter()->path());
    const std::size_t head = whole.find('\n', whole.find('\n') + 1); // the line with what it goes on from is whole
    for (std::size_t cut = head + 1; cut < whole.size(); cut += 211) {
        std::ofstream(journal, std::ios::binary) << whole.substr(0, cut);
        const auto got = readJournal(journal);
        REQUIRE(got);
        if (*got) CHECK(std::find(states.begin(), states.end(), (*got)->recovered) != states.end());
    }
    std::filesystem::remove_all(folder);
}

TEST_CASE("random operations keep a project valid and undo to where it began") {
    for (std::uint32_t seed = 1; seed <= 12; ++seed) {
        Document d(randomBuilding(seed, 6));
        const Project start = d.project();
        Random r(seed * 31);
        for (int i = 0; i < 60; ++i) {
            d.edit("op", [&](Project& p) {
                const auto any = [&](const auto& table) {
                    return std::decay_t<decltype(table.begin()->id)>{1 + std::uint32_t(r(int(table.highest()) + 1))};
                };
                const BoardId b = any(p.boards);
                const CircuitId c = any(p.circuits);
                switch (r(8)) {
                case 0:
                    if (p.boards.has(b)) addCircuit(p, b, 1 + r(3), "new");
                    break;
                case 1:
                    removeCircuit(p, c);
                    break;
                case 2:
                    if (p.circuits.has(c))
                        if (const MovePlan m = planMove(p, c, 1 + r(42)); m.possible) applyMove(p, m);
                    break;
                case 3:
                    if (p.boards.has(b) && p.boards.size() > 2 && r(4) == 0) removeBoard(p, b);
                    break;
                case 4: {
                    const BoardId to = any(p.boards);
                    if (p.boards.has(b) && p.boards.has(to) && !refuseFeed(p, b, to)) feedFrom(p, b, to);
                    break;
                }
                case 5:
                    if (p.boards.has(b)) clearFeed(p, b);
                    break;
                case 6:
                    if (p.transformers.size()) removeTransformer(p, any(p.transformers));
                    break;
                case 7:
                    if (p.circuits.has(c)) runOf(p, c).heldSize = "8";
                    break;
                }
            });
            INFO("seed " << seed << ", operation " << i);
            const auto bad = validate(d.project());
            if (bad) FAIL(bad->text());
            for (const Circuit& k : d.project().circuits)
                if (k.use == CircuitUse::Load && !fedBy(d.project(), k.id))
                    CHECK((!k.run || d.project().runs.has(k.run)));
        }
        checkWhole(d.project(), solve(d.project(), nec()));
        d.undoAll();
        CHECK(d.project() == start);
    }
}
