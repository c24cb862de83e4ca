// Two people's work on one project: each four bytes are a change by one of them. What is put together holds; every
// conflict can be decided for any side; where only one has changed anything, the merge is that one's project.
#include "core/compare/MergeDecision.h"
#include "core/project/Document.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/project/SheetNumbers.h"
#include "core/project/Validation.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/RiserPlaces.h"
#include "fuzz/GoOn.h"

namespace {

using namespace lintel;

constexpr std::size_t mostConflicts = 8;

/// A thing of the table by a byte; null: the table is empty.
template <class T> T* pick(Table<T>& table, unsigned which) {
    if (table.begin() == table.end()) return nullptr;
    std::vector<Id<T>> ids;
    for (const T& thing : table) ids.push_back(thing.id);
    return table.change(ids[which % ids.size()]);
}

void changeCircuit(Project& p, unsigned which, unsigned value) {
    Circuit* c = pick(p.circuits, which);
    if (!c) return;
    switch (value % 8) {
    case 0:
        return removeCircuit(p, c->id);
    case 1:
        c->name = "Named " + std::to_string(value);
        return;
    case 2:
        c->heldBreaker = value;
        return;
    case 3:
        c->note = std::string(value % 5, 'n');
        return;
    case 4:
        c->slot = int(value / 8);
        return;
    case 5:
        runOf(p, c->id).length = value;
        return;
    case 6:
        c->poles = int(1 + value / 8 % 3);
        return;
    default:
        if (Board* b = pick(p.boards, value / 8)) c->board = b->id;
    }
}

void changeBoard(Project& p, unsigned which, unsigned value) {
    Board* b = pick(p.boards, which);
    if (!b) return;
    switch (value % 8) {
    case 0:
        return removeBoard(p, b->id);
    case 1:
        b->name = "B" + std::to_string(value);
        return;
    case 2:
        b->main = value;
        return;
    case 3:
        b->slots = int(value);
        return;
    case 4:
        addCircuit(p, b->id, int(1 + value / 8 % 3), "New");
        return;
    case 5:
        clearFeed(p, b->id);
        return;
    case 6:
        addBoard(p, *b);
        return;
    default:
        if (const Board* from = pick(p.boards, value / 8); from && !refuseFeed(p, b->id, from->id))
            feedFrom(p, b->id, from->id);
    }
}

void changeLoad(Project& p, unsigned which, unsigned value) {
    Load* l = pick(p.loads, which);
    if (!l) return;
    switch (value % 5) {
    case 0:
        p.loads.remove(l->id);
        return;
    case 1:
        l->amount = value * 100.0;
        return;
    case 2:
        l->tag = "T" + std::to_string(value);
        return;
    case 3:
        if (const Circuit* c = pick(p.circuits, value / 5)) l->circuit = c->id;
        return;
    default:
        p.loads.add(*l);
    }
}

void changePlan(Project& p, unsigned which, unsigned value) {
    switch (value % 5) {
    case 0:
        if (Device* d = pick(p.devices, which)) d->at.x += value;
        return;
    case 1:
        if (Device* d = pick(p.devices, which)) removeFromPlan(p, d->id);
        return;
    case 2:
        if (Level* l = pick(p.levels, which)) removeLevel(p, l->id);
        return;
    case 3:
        if (Level* l = pick(p.levels, which)) l->height = value;
        return;
    default:
        if (Device* d = pick(p.devices, which)) {
            if (const Circuit* c = pick(p.circuits, value / 5)) circuitDevices(p, {d->id}, c->id);
        }
    }
}

/// What is said about things: it never keeps them.
void changeReview(Project& p, unsigned which, unsigned value) {
    const Board* b = pick(p.boards, which);
    if (!b) return;
    switch (value % 4) {
    case 0:
        p.ticks.add({{}, b->id, "fault level", b->name, std::to_string(value), "A", "2026-01-02", {}});
        return;
    case 1:
        p.remarks.add({{}, b->id, "", b->name, "", "", {}, "Why?", "B", "2026-01-02", "", "", "", false, {}});
        return;
    case 2:
        (void)numberSheet(p, {SheetKind::Schedule, b->id}, "E-" + std::to_string(600 + value));
        return;
    default:
        if (const SheetNumber* s = pick(p.sheetNumbers, value)) p.sheetNumbers.remove(s->id);
        placeBehind(p, b->id, value % 8 ? Ref(p.boards.begin()->id) : Ref{});
        if (value % 16 == 3) (void)letPlaceGo(p, b->id);
    }
}

void changeBasis(Project& p, unsigned which, unsigned value) {
    switch (which % 4) {
    case 0:
        p.basis.title = "Title " + std::to_string(value);
        return;
    case 1:
        p.basis.ambient = value;
        return;
    case 2:
        p.basis.branchDropLimit = value / 10.0;
        return;
    default:
        p.basis.namePattern = value % 2 ? "{what}" : "{rooms}";
    }
}

void change(Project& p, unsigned table, unsigned which, unsigned value) {
    switch (table % 6) {
    case 0:
        return changeCircuit(p, which, value);
    case 1:
        return changeBoard(p, which, value);
    case 2:
        return changeLoad(p, which, value);
    case 3:
        return changePlan(p, which, value);
    case 4:
        return changeReview(p, which, value);
    default:
        return changeBasis(p, which, value);
    }
}

void decideAll(const Merged& merged) {
    std::size_t done = 0;
    for (const MergeConflict& c : merged.conflicts) {
        if (++done > mostConflicts) return;
        (void)c.text();
        for (MergeSide side : {MergeSide::Base, MergeSide::Ours, MergeSide::Theirs}) {
            const auto next = decided(merged.project, c, side);
            if (!next) continue;
            Document d(merged.project);
            d.edit("Decide", [&](Project& p) { p = *next; });
            if (d.refusal()) continue; // said, and the project is as it was
            if (const auto now = sideOf(d.project(), c); !now || c.valueOf(*now) != c.valueOf(side))
                fuzz::broken("what was decided is not what the project has: " + c.text());
            d.undoAll();
            if (!(d.project() == merged.project)) fuzz::broken("undoing a decision does not bring the project back");
        }
    }
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const Outcome<Project> starts[] = {loadProject(dataFolder() / "starters" / "us-shop.lintel"),
                                              loadProject(dataFolder() / "starters" / "uk-shop.lintel")};
    if (size < 1 || size > 400) return 0;
    const auto& start = starts[data[0] % 2];
    if (!start) return 0;
    Document sides[] = {Document(*start), Document(*start)};
    for (std::size_t i = 1; i + 3 < size; i += 4)
        sides[data[i] % 2].edit("Change", [&](Project& p) { change(p, data[i + 1], data[i + 2], data[i + 3]); });
    const Project& ours = sides[0].project();
    const Project& theirs = sides[1].project();
    const Merged merged = mergeProjects(*start, ours, theirs);
    if (!(mergeProjects(*start, ours, *start).project == ours)) fuzz::broken("a merge with nothing changes ours");
    if (!(mergeProjects(*start, *start, theirs).project == theirs)) fuzz::broken("a merge with nothing changes theirs");
    if (!(mergeProjects(*start, ours, theirs).project == merged.project)) fuzz::broken("a merge is not repeatable");
    decideAll(merged);
    // What a project comes to is for the other targets to try; here it is now and then.
    constexpr std::size_t seldom = 16;
    if (size % seldom == 0)
        fuzz::goOn(merged.project);
    else if (auto bad = validate(merged.project))
        fuzz::broken("a merge that cannot be: " + bad->text());
    return 0;
}
