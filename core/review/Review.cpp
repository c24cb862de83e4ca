#include "core/review/Review.h"

#include "core/base/Format.h"
#include "core/lists/DrawingIndex.h"
#include "core/lists/RunCells.h"
#include "core/project/FaultRating.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/States.h"

#include <fmt/format.h>

#include <map>
#include <numeric>
#include <set>

namespace lintel {
namespace {

constexpr const char* basisName = "Basis";

class Figures {
public:
    explicit Figures(const CheckInput& input) : in{input.project, input.book, input.results} {}

    std::vector<ReviewFigure> all() {
        basis();
        for (Ref node : in.results.order) {
            here = node;
            if (const Source* s = p.sources.find(node.as<Source>())) supply(*s);
            if (const Transformer* t = p.transformers.find(node.as<Transformer>())) transformer(*t);
            if (const Board* b = p.boards.find(node.as<Board>())) {
                board(*b);
                circuits(*b);
            }
        }
        return std::move(found);
    }

private:
    SheetInput in;
    const Project& p = in.project;
    Ref here;
    std::vector<ReviewFigure> found;

    void add(Ref about, const std::string& figure, const std::string& value, double nearness = 0) {
        found.push_back({about, figure, about ? nameOf(p, about) : basisName, value, nearness, here});
    }

    void basis() {
        std::set<std::string> supplies; // they are looked at by themselves
        for (const Source& s : p.sources) supplies.insert(s.name);
        for (const ListEntry& row : basisList(in).rows)
            if (const std::string what = row.cells[0].text; !supplies.count(what)) add({}, what, row.cells[1].text);
    }

    void supply(const Source& s) {
        const SourceResult& n = in.results.of(s.id);
        add(s.id, "supply", fmt::format("{}, {}", wordOf(s.kind), systemWords(s.system)));
        add(s.id, "fault level", n.fault.known ? faultWords(n.fault) + " kA" : "not known");
        if (n.standby > 0)
            add(s.id, "takes over", fmt::format("{} kVA of {}", kilo(n.standby), rating(s.kva)), n.used);
        else
            add(s.id, "demand", kilo(n.demand) + " kVA");
    }

    void transformer(const Transformer& t) {
        const TransformerResult& n = in.results.of(t.id);
        add(t.id, "rating", fmt::format("{} kVA, {} %", rating(t.kva), figures(t.percentZ)));
        add(t.id, "demand", fmt::format("{} kVA of {}", kilo(n.demand), rating(t.kva)), n.use);
        feeder(t.id, n);
        add(t.id, "secondary fault level", n.secondary.known ? faultWords(n.secondary) + " kA" : "not known");
    }

    void feeder(Ref of, const NodeResult& n) {
        if (!n.parent) return;
        const RunResult& run = n.run;
        if (n.via) add(of, "device ahead", deviceCell(in, n) + " in " + nameOf(p, n.parent));
        const bool sized = run.size >= 0;
        add(of, "feeder",
            conductorCell(in, run).text +
                (sized ? fmt::format(", {} A of {}", figures(run.need.load.v), figures(run.ampacity)) : ""),
            sized && run.ampacity > 0 ? run.need.load.v / run.ampacity : 2);
        add(of, "length", lengthOf(run.need, p.basis.units));
        add(of, "drop",
            dropWords(n.dropTotal, n.dropKnown) +
                (run.need.totalLimit > 0 ? fmt::format(" of {} %", rating(run.need.totalLimit)) : ""),
            run.need.totalLimit > 0 ? n.dropTotal / run.need.totalLimit : 0);
    }

    void board(const Board& b) {
        const BoardResult& n = in.results.of(b.id);
        const double most = mostAmps(b);
        add(b.id, "demand", fmt::format("{} A of {}", figures(demandOf(n)), rating(most)),
            most > 0 ? demandOf(n) / most : 0);
        feeder(b.id, n);
        add(b.id, "main", b.main > 0 ? rating(b.main) + " A" : "lugs");
        const double holds = holdsKA(b), kA = largestFault(p, in.results, b.id).kA;
        add(b.id, "fault level",
            n.fault.known ? fmt::format("{}{} kA of {}", n.fault.runsUnknown ? "≤ " : "", figures(kA), rating(holds))
                          : "not known",
            n.fault.known && holds > 0 ? kA / holds : 0);
        if (factsOf(b.system).lines > 1 && n.connected > 0) add(b.id, "imbalance", percent(n.imbalance));
    }

    void circuits(const Board& b) {
        std::vector<const Circuit*> list;
        for (CircuitId id : in.results.on(b.id)) {
            const Circuit& c = p.circuits[id];
            if (c.use == CircuitUse::Load && !in.results.of(id).feeder) list.push_back(&c);
        }
        std::stable_sort(list.begin(), list.end(),
                         [](const Circuit* x, const Circuit* y) { return x->slot < y->slot; });
        for (const Circuit* c : list) {
            const CircuitResult& r = in.results.of(c->id);
            const RunResult& run = r.run;
            const bool known = run.need.lengthKnown && run.need.beforeKnown;
            const double drop = run.need.totalLimit > 0 ? run.dropTotal / run.need.totalLimit : 0;
            const double load = r.device > 0 ? r.load.v / r.device : 0;
            add(c->id, "circuit",
                fmt::format("{}: {} on {}, {}, {}", servesWords(p, in.results, c->id),
                            r.nothingHangsOn() ? "no load entered" : figures(r.load.v) + " A",
                            deviceWords(r, c->poles, in.book), conductorCell(in, run).text,
                            run.need.lengthKnown ? dropWords(run.dropTotal, known) : "length not known"),
                std::max({drop, load, run.adequate() ? 0.0 : 2.0}));
        }
    }
};

} // namespace

std::vector<ReviewFigure> reviewFigures(const CheckInput& in) { return Figures(in).all(); }

std::vector<ReviewItem> withTicks(const std::vector<ReviewFigure>& figures, const Project& project) {
    std::map<std::pair<Ref, std::string>, const Tick*> newest; // the last that was made
    for (const Tick& t : project.ticks) newest[{t.about, t.figure}] = &t;
    std::vector<ReviewItem> items;
    for (const ReviewFigure& f : figures) {
        ReviewItem item;
        static_cast<ReviewFigure&>(item) = f;
        const auto it = newest.find({item.about, item.figure});
        if (it != newest.end()) {
            const Tick& t = *it->second;
            item.by = t.by;
            item.date = t.date;
            // Another thing may stand under the same number by now: it has another name.
            const bool same = t.value == item.value && t.thing == item.thing;
            item.state = same ? TickState::Ticked : TickState::FellOff;
            if (!same) item.was = t.thing == item.thing ? t.value : t.thing + ": " + t.value;
        }
        items.push_back(std::move(item));
    }
    return items;
}

std::vector<std::size_t> worstFirst(const std::vector<ReviewItem>& items) {
    std::vector<std::size_t> order(items.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t x, std::size_t y) { return items[x].nearness > items[y].nearness; });
    return order;
}

void setTick(Project& p, const ReviewFigure& f, const std::string& by, const std::string& date) {
    removeTicks(p, f, by);
    Tick t;
    t.about = f.about;
    t.figure = f.figure;
    t.thing = f.thing;
    t.value = f.value;
    t.by = by;
    t.date = date;
    p.ticks.add(t);
}

void removeTicks(Project& p, const ReviewFigure& f, const std::string& by) {
    std::vector<TickId> gone;
    for (const Tick& t : p.ticks)
        if (t.about == f.about && t.figure == f.figure && (by.empty() || t.by == by)) gone.push_back(t.id);
    for (TickId id : gone) p.ticks.remove(id);
}

RemarkId addRemark(Project& p, const ReviewFigure& about, const std::string& text, const std::string& by,
                   const std::string& date) {
    Remark r;
    r.about = about.about;
    r.figure = about.figure;
    r.thing = about.thing;
    r.text = text;
    r.by = by;
    r.date = date;
    return p.remarks.add(r);
}

std::string aboutWords(const Project& p, const Remark& r) {
    std::string words = r.thing;
    if (r.about.is<ComposedSheet>()) { // called after what it shows, which changes
        words = r.sheet + (p.composedSheets.has(r.about.as<ComposedSheet>()) ? "" : " (gone)");
    } else if (r.about) {
        const std::string now = nameOf(p, r.about);
        const bool gone = now.empty() || now == r.about.text();
        // It may have another name by now, or another thing its number.
        words = gone ? r.thing + " (gone)" : now == r.thing ? now : fmt::format("{} (then {})", now, r.thing);
    }
    if (words.empty()) words = r.sheet.empty() ? basisName : r.sheet;
    return r.figure.empty() || r.figure == "circuit" ? words : words + ", " + r.figure;
}

ReviewCount reviewCount(const std::vector<ReviewItem>& items, const Project& p) {
    ReviewCount n;
    for (const ReviewItem& i : items) {
        ++n.all;
        n.ticked += i.state == TickState::Ticked;
        n.fellOff += i.state == TickState::FellOff;
    }
    for (const Remark& r : p.remarks) {
        ++n.remarks;
        n.open += !r.closed;
    }
    return n;
}

} // namespace lintel
