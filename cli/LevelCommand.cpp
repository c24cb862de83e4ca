// lintel-cli level: the choices for a board of a project, for a bare board, or for the boards under one feeder.
#include "cli/Commands.h"
#include "core/base/Format.h"
#include "core/base/Json.h"
#include "core/level/BareBoard.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"

#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

int levelTogether(const LevelOrder& order, const Solved& s) {
    const Project& p = s.project;
    Ref node;
    for (Ref r : s.results.order)
        if (nameOf(p, r) == order.together) node = r;
    if (!node) return fail({order.together, "there is no board, transformer or source of that name", ""});
    const TurningChoices choices = levelByTurning(p, s.results, node);
    if (choices.boards == 0) return fail({order.together, "no three-pole boards hang on it that could be turned", ""});
    const std::size_t k = order.moves < 0
                              ? choices.byBoards.size() - 1
                              : std::min<std::size_t>(std::size_t(order.moves), choices.byBoards.size() - 1);
    const Turning& t = choices.byBoards[k];
    if (order.json) {
        nlohmann::ordered_json list = nlohmann::ordered_json::array(), turns;
        for (const Turning& x : choices.byBoards) {
            turns = nlohmann::ordered_json::array();
            for (const auto& [b, turn] : x.turns) turns.push_back({{"board", p.boards[b].name}, {"turned", turn}});
            list.push_back({{"boards_turned", x.turns.size()},
                            {"phase_va", x.phaseVa},
                            {"spread_va", x.spread},
                            {"imbalance_percent", x.imbalance},
                            {"proven", x.proven},
                            {"turns", turns}});
        }
        std::cout << nlohmann::ordered_json{{"node", order.together},
                                            {"boards", choices.boards},
                                            {"bound_va", choices.bound},
                                            {"choices", list}}
                         .dump(1)
                  << "\n";
    } else {
        std::cout << fmt::format("{}: {} as it stands, {} with {} of {} boards turned{}\n", order.together,
                                 percent(choices.byBoards.front().imbalance), percent(t.imbalance), t.turns.size(),
                                 choices.boards, t.proven ? ", proven best" : "");
        static const char* onto[] = {"A on A", "A on B", "A on C"};
        for (const auto& [b, turn] : t.turns)
            std::cout << fmt::format("  {:12} {} → {}\n", p.boards[b].name, onto[p.boards[b].turned], onto[turn]);
    }
    if (order.out.empty()) return 0;
    Project done = p;
    applyTurning(done, t);
    if (auto bad = saveProject(done, order.out)) return fail(*bad);
    return 0;
}

} // namespace

int runLevel(const LevelOrder& order) {
    auto text = readText(order.file);
    if (!text) return fail(text.error());
    const auto j = parseJson(*text, order.file);
    if (!j) return fail(j.error());
    const bool bare = j->is_object() && !j->contains("lintel") && j->contains("circuits");
    const std::optional<int> moves = order.moves < 0 ? std::nullopt : std::optional(order.moves);
    if (bare) {
        auto p = bareBoard(*text);
        if (!p) return fail(p.error());
        auto book = loadRuleBook("nec-2023"); // loads are VA: any book gives the same
        if (!book) return fail(book.error());
        const Results r = solve(*p, *book);
        const BoardId id = p->boards.begin()->id;
        const LevelChoices choices = levelBoard(*p, r, id);
        if (order.json)
            std::cout << levelJson(*p, id, choices, moves).dump(1) << "\n";
        else
            std::cout << levelText(*p, id, choices, moves);
        return 0;
    }
    auto s = openSolved(order.file);
    if (!s) return fail(s.error());
    if (!order.together.empty()) return levelTogether(order, **s);
    BoardId id;
    std::string names;
    for (const Board& b : (*s)->project.boards) {
        if (b.name == order.board) id = b.id;
        names += (names.empty() ? "" : ", ") + b.name;
    }
    if (!id)
        return fail({order.board.empty() ? "--board" : order.board,
                     order.board.empty() ? "say which board to level" : "there is no board of that name",
                     "There is: " + names + "."});
    const LevelChoices choices = levelBoard((*s)->project, (*s)->results, id);
    if (order.json)
        std::cout << levelJson((*s)->project, id, choices, moves).dump(1) << "\n";
    else
        std::cout << levelText((*s)->project, id, choices, moves);
    if (order.out.empty()) return 0;
    Project done = (*s)->project;
    applyArrangement(done, choiceFor(choices, moves));
    if (auto bad = saveProject(done, order.out)) return fail(*bad);
    return 0;
}

} // namespace lintel
