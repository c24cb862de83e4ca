#include "core/compose/Together.h"

#include "core/lists/List.h"
#include "core/project/Equipment.h"
#include "core/sheets/BoardDiagram.h"

#include <algorithm>
#include <map>
#include <optional>
#include <set>

namespace lintel {
namespace {

/// Boards with what hangs on each behind it, by the places of their circuits; what hangs on nothing comes last.
class FeedOrder {
public:
    explicit FeedOrder(const SheetInput& input) : in(input) {
        for (const Source& s : in.project.sources) roots.emplace_back(s.id);
        for (const Transformer& t : in.project.transformers) hang(t.id);
        for (const Board& b : in.project.boards) hang(b.id);
    }
    std::vector<BoardId> boards() {
        for (Ref root : roots) walk(root);
        for (const Board& b : in.project.boards) walk(b.id); // in a ring of feeds
        return std::move(order);
    }

private:
    const SheetInput& in;
    std::vector<Ref> roots;
    std::map<Ref, std::vector<Ref>> below;
    std::set<Ref> seen;
    std::vector<BoardId> order;

    const NodeResult& resultOf(Ref node) const {
        return node.is<Board>() ? static_cast<const NodeResult&>(in.results.of(node.as<Board>()))
                                : static_cast<const NodeResult&>(in.results.of(node.as<Transformer>()));
    }
    void hang(Ref node) {
        const Ref parent = resultOf(node).parent;
        parent ? below[parent].push_back(node) : roots.push_back(node);
    }
    int slotOf(Ref node) const {
        const Circuit* c = in.project.circuits.find(resultOf(node).via);
        return c ? c->slot : 0;
    }
    void walk(Ref from) {
        std::vector<Ref> open{from}; // not by recursion: chains of feeds may be long
        while (!open.empty()) {
            const Ref node = open.back();
            open.pop_back();
            if (!seen.insert(node).second) continue;
            if (node.is<Board>()) order.push_back(node.as<Board>());
            std::vector<Ref>& next = below[node];
            std::stable_sort(next.begin(), next.end(), [&](Ref x, Ref y) { return slotOf(x) < slotOf(y); });
            open.insert(open.end(), next.rbegin(), next.rend());
        }
    }
};

} // namespace

std::vector<ShownThing> thingsToCompose(const SheetInput& in, SheetKind kind) {
    const PlacedThings placed(in.project);
    std::vector<ShownThing> out;
    const auto take = [&](ShownThing thing) {
        if (!placed.has(thing) && !isLeftOut(in.project, {thing.kind, thing.about})) out.push_back(std::move(thing));
    };
    if (kind == SheetKind::List) {
        for (const List& list : listsOf(in, true)) take({kind, {}, list.key});
        return out;
    }
    if (kind != SheetKind::Schedule && kind != SheetKind::Diagram) return out;
    for (BoardId id : FeedOrder(in).boards()) {
        const Board& b = in.project.boards[id];
        if (passesOn(b.use) || (kind == SheetKind::Diagram && (!issuesDiagram(in.book, b) || !hasBoardDiagram(in, id))))
            continue;
        take({kind, id, {}});
    }
    return out;
}

std::vector<ComposedSheetId> composeTogether(const SheetInput& in, Project& p, const std::vector<ShownThing>& things,
                                             SheetPaper paper) {
    std::vector<ComposedSheetId> made;
    if (things.empty()) return made;
    const SheetInput now{p, in.book, in.results, in.underlays, in.projectFile};
    // All on one sheet first: each page on which some begin becomes a sheet of its own; what goes on over several pages
    // takes its further ones along.
    made.push_back(addComposedSheet(p, paper));
    std::vector<PlacedViewId> views;
    for (const ShownThing& thing : things) views.push_back(placeView(p, made.front(), thing));
    const ComposedPages pages = composedPages(now, made.front(), "");
    std::map<PlacedViewId, std::size_t> pageOf;
    for (const ViewSpot& s : pages.spots) pageOf.try_emplace(s.view, s.page);
    std::optional<std::size_t> last;
    for (PlacedViewId view : views) {
        const auto page = pageOf.find(view); // one with nothing to show stays where the one before it is
        if (page != pageOf.end() && page->second != last) {
            if (last) made.push_back(addComposedSheet(p, paper));
            last = page->second;
        }
        p.placedViews.change(view)->sheet = made.back();
    }
    return made;
}

std::vector<TogetherProposal> proposedTogether(const SheetInput& in) {
    std::vector<TogetherProposal> out;
    const SheetsTogether wanted = in.project.basis.sheetsTogether;
    const auto propose = [&](SheetKind kind) {
        std::vector<ShownThing> things = thingsToCompose(in, kind);
        if (!things.empty()) out.push_back({kind, std::move(things)});
    };
    if (wanted >= SheetsTogether::Schedules) propose(SheetKind::Schedule);
    if (wanted >= SheetsTogether::SchedulesAndDiagrams) propose(SheetKind::Diagram);
    return out;
}

namespace {
/// The last composed sheet that shows things of one kind only; nothing: there is none.
ComposedSheetId lastOf(const Project& p, SheetKind kind) {
    ComposedSheetId last;
    std::map<ComposedSheetId, bool> only;
    for (const PlacedView& v : p.placedViews) {
        if (!p.composedSheets.has(v.sheet)) continue;
        const auto [at, fresh] = only.try_emplace(v.sheet, true);
        at->second = at->second && v.shows == kind;
    }
    for (const auto& [sheet, is] : only)
        if (is && last < sheet) last = sheet;
    return last;
}
} // namespace

std::vector<ComposedSheetId> takeUp(const SheetInput& in, Project& p, const std::vector<TogetherProposal>& proposals) {
    std::vector<ComposedSheetId> touched;
    const SheetInput now{p, in.book, in.results, in.underlays, in.projectFile};
    for (const TogetherProposal& proposal : proposals) {
        std::size_t done = 0;
        if (const ComposedSheetId last = lastOf(p, proposal.kind)) {
            const std::size_t pages = composedPages(now, last, "").pages.size();
            for (; done < proposal.things.size(); ++done) {
                const PlacedViewId view = placeView(p, last, proposal.things[done]);
                if (composedPages(now, last, "").pages.size() <= pages) continue;
                p.placedViews.remove(view);
                break;
            }
            if (done > 0) touched.push_back(last);
        }
        const std::vector<ShownThing> rest(proposal.things.begin() + std::ptrdiff_t(done), proposal.things.end());
        const auto made = composeTogether(now, p, rest);
        touched.insert(touched.end(), made.begin(), made.end());
    }
    return touched;
}

} // namespace lintel
