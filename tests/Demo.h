#pragma once
// A demo that ships, worked out: for tests of lists, sheets and reports.

#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/sheets/Sheets.h"
#include "tests/World.h"

namespace lintel {

struct Demo {
    Project p;
    const RuleBook& book;
    Results r;
    SheetInput in{p, book, r};
    explicit Demo(const char* name)
        : p(*loadProject(dataFolder() / "demos" / (std::string(name) + ".lintel"))), book(bookOf(p.basis.ruleBook)),
          r(solve(p, book)) {}
    BoardId board(const std::string& name) const {
        for (const Board& b : p.boards)
            if (b.name == name) return b.id;
        throw std::runtime_error("no board " + name);
    }
    CircuitId circuit(const std::string& name) const {
        for (const Circuit& c : p.circuits)
            if (nameOf(p, c.id) == name) return c.id;
        throw std::runtime_error("no circuit " + name);
    }
};

} // namespace lintel
