// Bytes that nobody in good faith would give it: each is refused in words, and nothing ends.

#include "core/base/Json.h"
#include "core/base/Parse.h"
#include "core/base/Utf8.h"
#include "core/bench/Bench.h"
#include "core/formats/Grid.h"
#include "core/project/ProjectFile.h"
#include "tests/SourceTree.h"
#include "tests/World.h"

#include <fstream>
#include <regex>
#include <unistd.h>

using namespace lintel;
namespace fs = std::filesystem;

namespace {
std::string refusal(const std::string& text) {
    const auto p = readProject(text, "x.lintel");
    return p ? "" : p.error().text();
}
std::string nested(std::size_t depth) {
    return "{\"lintel\":1,\"more\":" + std::string(depth, '[') + std::string(depth, ']') + "}";
}
} // namespace

TEST_CASE("numbers beyond any double, brackets 200 000 deep, ids of ten million, versions beyond 32 bits") {
    CHECK(refusal("{\"lintel\":1,\"basis\":{\"ambient\":1e999}}").find("too large") != std::string::npos);
    CHECK(refusal("{\"lintel\":1,\"basis\":{\"ambient\":-1e999}}").find("too large") != std::string::npos);
    CHECK(refusal(nested(200'000)).find("nested") != std::string::npos);
    CHECK(refusal(std::string(1'000'000, '[')).find("nested") != std::string::npos);
    CHECK(refusal(nested(20)).empty());
    CHECK(refusal("{\"lintel\":1,\"circuits\":[{\"id\":\"C9999999\"}]}").find("at most") != std::string::npos);
    CHECK(refusal("{\"lintel\":1,\"boards\":[{\"id\":\"B999999\"}]}").find("at most") != std::string::npos);
    CHECK(refusal("{\"lintel\":99999999999}").find("version 99999999999") != std::string::npos);
    CHECK(refusal("{\"lintel\":4294967297}").find("reads up to version") != std::string::npos); // 1 in 32 bits
    CHECK(refusal("{\"lintel\":-4294967295}").find("no such version") != std::string::npos);
    CHECK(refusal("{\"lintel\":1e400}").find("too large") != std::string::npos);
}

TEST_CASE("brackets in texts do not count as nesting") {
    CHECK(refusal("{\"lintel\":1,\"basis\":{\"title\":\"" + std::string(500, '[') + "\\\"" + std::string(500, '{') +
                  "\"}}")
              .empty());
}

TEST_CASE("what is not UTF-8 is told with its line: overlong forms, surrogates, stray bytes") {
    for (const char* bad : {"\xED\xA0\x80", "\xC0\xAF", "\xFF", "\xE2\x28\xA1", "\xF4\x90\x80\x80", "\x80",
                            "\xE0\x80\xAF", "\xF0\x80\x80\x80", "\xC3"}) {
        const std::string text = "{\"lintel\":1,\n\"basis\":{\"title\":\"" + std::string(bad) + "\"}}";
        CHECK(refusal(text).find("UTF-8") != std::string::npos);
        CHECK(refusal(text).find("line 2") != std::string::npos);
        CHECK_FALSE(isUtf8(bad));
        CHECK(isUtf8(repairedUtf8(bad)));
    }
    for (const char* good : {"", "a", "é", "日本", "\U0001F600", "\uFFFD", "\xEE\x80\x80", "\xF4\x8F\xBF\xBF"})
        CHECK(isUtf8(good));
    CHECK(isUtf8("caf\xC3", true)); // cut off, to go on with the next piece
    CHECK_FALSE(isUtf8("caf\xC3"));
    CHECK_FALSE(isUtf8("\xED\xA0", true));
    CHECK(cutUtf8("Küche", 2) == "K");
    static_assert(std::is_same_v<decltype(cutUtf8(std::string("Küche"), 2)), std::string>); // no view into what is gone
    CHECK(cutUtf8(std::string("Küche"), 3) == "Kü");
    CHECK(cutUtf8("Küche", 3) == "Kü");
    CHECK(printable(std::string("a\0b\x01\x1F\tc\n\x7F\xFF", 10)) == "ab\tc\n\uFFFD");
}

TEST_CASE("a rule book with a number in place of true, or a list in place of a text, is refused with its name") {
    const std::string good = *readText(dataFolder() / "rulebooks" / "nec-2023.json"),
                      metric = *readText(dataFolder() / "rulebooks" / "bs-7671.json");
    int spoilt = 0;
    for (const std::string& text : {good, metric}) {
        // Every true, false and text of the book in turn, some of them: as a number, a list, an object, nothing.
        static const std::regex value(R"((: )(true|false|"[^"]*"))");
        int n = 0;
        for (std::sregex_iterator it(text.begin(), text.end(), value), end; it != end; ++it, ++n) {
            if (n % 9) continue;
            for (const char* other : {"7", "[1, 2]", "{\"a\": 1}", "null"}) {
                std::string t = text;
                t.replace(std::size_t(it->position(2)), std::size_t(it->length(2)), other);
                ++spoilt;
                const auto book = RuleBook::parse(t, "spoilt"); // whatever it says: it comes back
                if (!book) CHECK(book.error().text().find("spoilt") != std::string::npos);
            }
        }
    }
    CHECK(spoilt > 100);
}

TEST_CASE("a line of 100 kB on the bench is refused in words") {
    const std::string longLine(100'000, '9'), words = [] {
        std::string s;
        for (int i = 0; i < 20'000; ++i) s += "a 9 ";
        return s;
    }();
    int tried = 0, refused = 0;
    for (const BenchKind* kind : benchKinds())
        for (const char* id : {"nec-2023", "bs-7671"}) {
            const RuleBook& book = bookOf(id);
            if (!kind->suits(book)) continue;
            for (const BenchField& f : kind->fields(book))
                for (const std::string& text : {longLine, words}) {
                    if (f.type == BenchField::Type::Choice || f.type == BenchField::Type::Flag) continue;
                    INFO(kind->name << "." << f.key);
                    ++tried;
                    const auto answer = bench(*kind, {{f.key, text}}, book);
                    if (f.type == BenchField::Type::Lines && !answer) { // not every sum reads every field
                        ++refused;
                        CHECK(answer.error().what.find("longer than") != std::string::npos);
                    }
                }
        }
    CHECK(tried > 60);
    CHECK(refused >= 10);
}

TEST_CASE("numbers of files do not ask the desktop how it writes them") {
    CHECK(plainNumber("16.5") == 16.5);
    CHECK(plainNumber("-0.25") == -0.25);
    CHECK(plainNumber(" +3 ") == 3);
    CHECK(plainNumber(".5") == 0.5);
    CHECK(plainNumber("1e3") == 1000);
    for (const char* bad : {"", "16,5", "1 2", "nan", "inf", "-inf", "infinity", "0x10", "1e999", "+-3", "-", "12a"}) {
        INFO(bad);
        CHECK_FALSE(plainNumber(bad));
    }
    std::string_view text = "16.5 A";
    CHECK(takePlainNumber(text) == 16.5);
    CHECK(text == " A");
}

TEST_CASE("no code of ours reads or writes a number by the locale") {
    // std::from_chars, fmt and the helpers of core/base/Parse.h never ask it; these do.
    static const std::regex asks(
        R"(\b(atof|atoi|atol|strto(d|f|l|ul|ll|ull|ld)|sto(d|f|ld)|sscanf|s?n?printf|std::(tolower|toupper|isspace|isalpha|isdigit|isalnum|ispunct|to_string\(\s*[a-z.]*(double|float))|QLocale\(\))\s*\()");
    int files = 0;
    for (const char* folder : {"core", "render", "app", "cli"})
        for (const auto& e : fs::recursive_directory_iterator(sourceTree() / folder)) {
            if (e.path().extension() != ".h" && e.path().extension() != ".cpp") continue;
            ++files;
            std::ifstream in(e.path());
            int line = 0;
            for (std::string text; std::getline(in, text);) {
                ++line;
                if (std::regex_search(text, asks)) FAIL_CHECK(e.path().string() << ":" << line << ": " << text);
            }
        }
    CHECK(files > 200);
}

TEST_CASE("a file that is written tells a number with a point, whatever the desktop's locale") {
    Project p;
    p.basis.ambient = 32.5;
    CHECK(writeProject(p).find("\"ambient\": 32.5") != std::string::npos);
    CHECK(readProject(writeProject(p), "x")->basis.ambient == 32.5);
    for (const char* id : {"nec-2023", "bs-7671", "iec-60364", "as-nzs-3000"}) CHECK(loadRuleBook(id));
    const fs::path file = fs::temp_directory_path() / ("lintel-numbers-" + std::to_string(::getpid()) + ".xlsx");
    REQUIRE_FALSE(writeGrid({{"Load"}, {"16.5"}, {"-0.25"}}, file, "Loads"));
    const auto grid = readGrid(file);
    fs::remove(file);
    REQUIRE(grid);
    CHECK(grid->rows[1][0] == "16.5");
    CHECK(grid->rows[2][0] == "-0.25");
    CHECK(grid->isNumber(1, 0));
}
