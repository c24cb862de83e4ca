// A board by itself as JSON: read as it stands, refused where it cannot be, levelled with figures worked out by hand.

#include "core/level/BareBoard.h"
#include "tests/World.h"

#include <nlohmann/json.hpp>

using namespace lintel;

namespace {
/// Left column of a two-column board: slots 1, 3 and 5 stand on A, B and C, and 7, 9 and 11 again.
const char* const sixOnTheLeft = R"({"name": "K-1", "slots": 12, "system": "208Y/120", "circuits": [
    {"slot": 1, "va": 1200, "name": "Oven"}, {"slot": 3, "va": 600}, {"slot": 5, "va": 300},
    {"slot": 7, "va": 900}]})";

LevelChoices levelled(const Project& p) { return levelBoard(p, solve(p, nec()), p.boards.begin()->id); }
std::string refusal(const char* text) {
    const auto p = bareBoard(text);
    return p ? "" : p.error().where + ": " + p.error().what;
}
} // namespace

TEST_CASE("a bare board: circuits stand where they were said to, with their loads") {
    const auto p = bareBoard(sixOnTheLeft);
    REQUIRE(p);
    REQUIRE(p->circuits.size() == 4);
    REQUIRE(p->boards.size() == 1);
    CHECK(p->boards.begin()->name == "K-1");
    CHECK(p->boards.begin()->slots == 12);
    CHECK(p->circuits[{1}].slot == 1);
    CHECK(p->circuits[{1}].name == "Oven");
    CHECK(p->circuits[{4}].slot == 7);
    CHECK(p->loads[{4}].amount == 900);
    CHECK(p->loads[{4}].circuit == CircuitId{4});
    // A slot kept free is a circuit that nothing moves onto.
    const auto small =
        bareBoard(R"({"slots": 6, "circuits": [{"slot": 1, "va": 0.5}, {"slot": 3, "va": 0}]})"); // no least
    CHECK(small);
    const auto kept = bareBoard(R"({"slots": 6, "reserved": [6], "circuits": [{"slot": 1, "va": 100}]})");
    REQUIRE(kept);
    CHECK(kept->circuits[{2}].use == CircuitUse::Reserved);
    CHECK(kept->circuits[{2}].slot == 6);
}

TEST_CASE("a bare board: what cannot stand there is refused by its field") {
    CHECK(refusal(R"({"slots": 6, "circuits": [{"slot": 1, "poles": 2, "va": 1}, {"slot": 3, "va": 1}]})") ==
          "board.circuits[1]: slot 3 is taken twice");
    CHECK(refusal(R"({"slots": 6, "circuits": [{"slot": 5, "poles": 2, "va": 1}]})") ==
          "board.circuits[0]: 2 poles do not fit from slot 5");
    CHECK(refusal(R"({"slots": 6, "circuits": [{"slot": 7, "va": 1}]})") ==
          "board.circuits[0].slot: expected a number from 1 to 6, found 7");
    CHECK(refusal(R"({"slots": 6, "circuits": [{"slot": 1.5, "va": 1}]})") ==
          "board.circuits[0].slot: expected a whole number");
    CHECK(refusal(R"({"slots": 6, "circuits": [{"slot": 1}]})") == "board.circuits[0].va: this must be given");
    CHECK(refusal(R"({"slots": 6, "reserved": [1], "circuits": [{"slot": 1, "va": 1}]})") ==
          "board.reserved: slot 1 is taken twice");
    CHECK(refusal(R"({"slots": 6, "reserved": [7], "circuits": []})") == "board.reserved: there is no slot 7");
    CHECK(refusal(R"({"slots": 6})") == "board.circuits: expected a list in brackets");
    CHECK(refusal(R"({"slots": 6, "circuits": 5})") == "board.circuits: expected a list in brackets");
    CHECK(refusal(R"({"slots": 6, "circuits": {}})") == "board.circuits: expected a list in brackets");
    // Nothing is passed over: what is misspelt or of another kind would be lost.
    CHECK(refusal(R"({"slots": 6, "circuits": [{"slot": 1, "va": 1, "multiwir": 1}]})") ==
          "board.circuits[0].multiwir: there is no such field");
    CHECK(refusal(R"({"slot": 6, "circuits": []})") == "board.slot: there is no such field");
    CHECK(refusal(R"({"slots": 6, "leftKinds": "lighting", "circuits": []})")
              .rfind("board.leftKinds: expected a list in brackets", 0) == 0);
    CHECK(refusal(R"({"slots": 6, "reserved": 5, "circuits": []})")
              .rfind("board.reserved: expected a list in brackets", 0) == 0);
    CHECK(refusal(R"({"slots": 6, "circuits": [{"slot": 1, "va": 1, "name": 7}]})")
              .rfind("board.circuits[0].name: expected a text", 0) == 0);
}

TEST_CASE("a bare board levelled: A 2100, B 600, C 300; one move of the 900 to C leaves 600, and no move does better") {
    const auto p = bareBoard(sixOnTheLeft);
    REQUIRE(p);
    const LevelChoices choices = levelled(*p);
    const auto all = levelJson(*p, p->boards.begin()->id, choices);
    const auto& now = all["choices"][0];
    CHECK(now["moves"] == 0);
    CHECK(now["phase_va"] == std::vector<double>{2100, 600, 300});
    CHECK(now["spread_va"] == 1800);
    // (2100 − 1000) / 1000
    CHECK(now["imbalance_percent"].get<double>() == Approx(110));
    // 1200 on one line, 1800 to share on two: 1200 and 600, or 900 and 900. So 900 + 300, 1200, 600, or 900, 900, 1200.
    const auto& one = all["choices"][1];
    CHECK(one["moves"] == 1);
    CHECK(one["phase_va"] == std::vector<double>{1200, 600, 1200});
    CHECK(one["spread_va"] == 600);
    CHECK(one["places"][0]["from"] == 7);
    const auto& best = all["choices"].back();
    CHECK(best["spread_va"] == 300); // 600 + 300, 900, 1200
    CHECK(best["moves"] == 2);
    CHECK(best["proven"] == true);
    CHECK(all["choices"].size() == 3);
    // For so many moves, at most as many as help, and the best where it is not said.
    CHECK(choiceFor(choices, 0).spread == 1800);
    CHECK(choiceFor(choices, 1).spread == 600);
    CHECK(choiceFor(choices, 99).spread == 300);
    CHECK(choiceFor(choices, -3).spread == 1800);
    CHECK(choiceFor(choices, {}).spread == 300);
    const auto chosen = levelJson(*p, p->boards.begin()->id, choices, 1);
    CHECK(chosen["now"]["moves_allowed"] == 0);
    CHECK(chosen["now"]["spread_va"] == 1800);
    CHECK(chosen["choice"]["moves_allowed"] == 1);
    CHECK(chosen["choice"]["spread_va"] == 600);
    CHECK(levelText(*p, p->boards.begin()->id, choices).find("K-1: 110") == 0);
}
