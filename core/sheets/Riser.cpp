#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/base/Parallel.h"
#include "core/drawing/Paper.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/Words.h"
#include "core/project/Equipment.h"
#include "core/project/FaultRating.h"
#include "core/project/LevelOf.h"
#include "core/project/Operations.h"
#include "core/project/SheetNumbers.h"
#include "core/sheets/FeederLayout.h"
#include "core/sheets/LoadSymbol.h"
#include "core/sheets/PageNumber.h"
#include "core/sheets/RiserEquipment.h"
#include "core/sheets/RiserPlaces.h"
#include "core/sheets/Sheets.h"
#include "core/sheets/TitleBlock.h"
#include "core/solve/RunParts.h"
#include "core/solve/States.h"

#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <optional>

namespace lintel {
namespace {

constexpr double margin = 8, viewTitleRoom = 22, floorColumn = 36; ///< within the frame of a sheet
constexpr double nameSize = 4.4, equipmentSize = 3.6, textSize = 3.2, tagSize = 3.2, lineStep = 4.3;
constexpr double sideHeight = 7;   ///< of a level line below the tops of the two that it joins
constexpr double circleRoom = 12;  ///< beside the words of a source or transformer
constexpr double circleBelow = 13; ///< by floor: from its top to its words
constexpr double pairRoom = 3;     ///< more for the two of a transformer
constexpr double pairApart = 5.8;  ///< between the middles of the two where they stand side by side
constexpr double busRoom = 4;      ///< in a box of the one-line that feeds others
constexpr double symbolRoom = 15;  ///< in the box of what passes on, beside its words
constexpr double symbolHeight = 14;
constexpr double circleR = 4.8, feederPen = 0.5, busPen = 1.2, hopRadius = 0.85;
constexpr double widestLabel = 40, widestName = 52;
constexpr std::size_t manyThings = 60; ///< that are worth several threads

struct Words {
    std::string text;
    double size = textSize;
    bool bold = false;
    Ink ink = Ink::Ink;
};
double widthOf(const std::vector<Words>& lines) {
    double most = 0;
    for (const Words& w : lines) most = std::max(most, textWidth(w.text, w.size, w.bold));
    return most;
}
void addWrapped(std::vector<Words>& to, const std::string& text, double width, Words as) {
    for (std::string& line : wrapText(text, width, as.size, as.bold)) {
        as.text = std::move(line);
        to.push_back(as);
    }
}

/// A board, transformer or source as it is drawn.
struct Thing {
    Ref ref;
    bool round = false; ///< a circle with its words beside it, else a box with its words in it
    bool heavy = false, bad = false, off = false; ///< off: without supply in the state that is shown
    Ink shade = Ink::Paper;
    std::optional<BoardUse> passing; ///< of what passes on: drawn with its symbol
    std::vector<Words> words;
    double leastWidth = 0, leastHeight = 0; ///< room for its words in every overlay, so that nothing moves
    double gap = 0;                         ///< mm before it, as somebody gave it
};
/// A feeder, or the way in of a source that takes over.
struct Feeder {
    std::size_t from = 0, to = 0;
    bool alternate = false;
    Ink ink = Ink::Ink;
    std::string tag;
    std::vector<Words> device, label;
    std::vector<Words> usual; ///< what an overlay has taken the place of: there is room for it all the same
    int lower = 0;            ///< as somebody nudged its line
    double lift = 0;          ///< mm, as somebody nudged its words
};

/// What is drawn, with its words, before it has a place.
class Content {
public:
    /// `roomForAll`: every thing gets the room that its words take in whatever overlay.
    Content(const SheetInput& input, RiserLayout by, const RiserShow& whatToShow = {}, bool roomForAll = false)
        : in(input), show(whatToShow), steady(roomForAll) {
        const std::vector<CircuitId> equipment = riserEquipment(in.project, in.results);
        findLevels(equipment);
        findFloors(by);
        std::vector<Ref> order = inOrder();
        for (std::size_t i = 0; i < order.size(); ++i) at[order[i]] = i;
        std::vector<std::pair<std::size_t, std::size_t>> fed; // from where, and what
        for (Ref r : in.results.order) {
            const NodeResult& n = *in.results.node(r);
            if (n.parent && !n.looped && at.count(n.parent)) fed.emplace_back(at[n.parent], at[r]);
        }
        for (CircuitId c : equipment) {
            fed.emplace_back(at[in.project.circuits[c].board], order.size());
            order.push_back(c);
        }
        things.resize(order.size());
        inParts(order.size(), order.size() > manyThings, [&](std::size_t, std::size_t from, std::size_t to) {
            for (std::size_t i = from; i < to; ++i) things[i] = thing(order[i]);
        });
        feeders.resize(fed.size());
        inParts(fed.size(), fed.size() > manyThings, [&](std::size_t, std::size_t from, std::size_t to) {
            for (std::size_t i = from; i < to; ++i) feeders[i] = feeder(fed[i].first, fed[i].second);
        });
        std::stable_sort(feeders.begin(), feeders.end(),
                         [&](const Feeder& a, const Feeder& b) { return orderOf(a) < orderOf(b); });
        sortByHand();
        nudgeByHand();
        for (const Board& b : in.project.boards) {
            Ref from = b.alternate;
            if (const Circuit* c = in.project.circuits.find(from.as<Circuit>())) from = c->board;
            if (from && at.count(from) && at.count(b.id) && from != Ref(b.id))
                feeders.push_back(alternate(at[from], at[b.id], b));
        }
        if (show.overlay == RiserOverlay::Supply) supplyLines();
    }

    const SheetInput& in;
    const RiserShow show;
    const bool steady;
    struct Floor {
        std::string name, height;
    };
    std::vector<Floor> floors; ///< the highest first; none where floors do not matter
    std::vector<Thing> things;
    std::vector<Feeder> feeders;

    bool byFloor() const { return !floors.empty(); }
    bool hasEquipment() const { return !things.empty() && things.back().ref.is<Circuit>(); }
    /// Boxes in the row that has the most.
    static std::size_t widestRow(const FeederLayout& layout) {
        std::vector<std::size_t> boxes(layout.rows.size(), 0);
        for (const FeederLayout::Box& b : layout.boxes) ++boxes[b.row];
        return boxes.empty() ? 0 : *std::max_element(boxes.begin(), boxes.end());
    }

    /// mm² that the boxes and their feeders' words take at the least.
    double leastArea() const {
        double sum = 0;
        const FeederPlan p = plan(0, FeederPlan::Steps::Rows);
        for (const FeederPlan::Box& b : p.boxes) sum += b.width * b.height;
        for (const FeederPlan::Feed& f : p.feeds) sum += f.labelWidth * f.labelHeight;
        return sum;
    }

    bool forScreen() const { return steady; }

    FeederPlan plan(double widest, FeederPlan::Steps steps) const {
        FeederPlan p;
        p.widest = widest;
        p.steps = steps;
        p.sideHeight = sideHeight;
        if (byFloor()) p.stretch = 2.5;
        std::vector<char> feedsSome(things.size(), 0);
        for (const Feeder& f : feeders) feedsSome[f.from] = 1;
        for (std::size_t i = 0; i < things.size(); ++i) {
            const Thing& t = things[i];
            double width = std::max(widthOf(t.words), t.leastWidth) + 5;
            double height = 4 + std::max(lineStep * double(t.words.size()), t.leastHeight);
            if (t.round) {
                width += circleRoom + (byFloor() && t.ref.is<Transformer>() ? pairApart : 0);
                height = byFloor() ? circleBelow + (t.ref.is<Transformer>() ? pairRoom : 0) + height - 2
                                   : std::max(height, t.ref.is<Transformer>() ? 18.0 : 13.0);
            } else if (t.passing) {
                width += symbolRoom;
                height = std::max(height, symbolHeight);
            } else if (feedsSome[i] && !byFloor()) {
                height += busRoom;
            }
            p.boxes.push_back({std::max(30.0, width), height, byFloor() ? int(floorIndex(t.ref)) : 0, t.gap});
        }
        for (const Feeder& f : feeders) {
            const double device = f.device.empty() ? 0 : widthOf(f.device) + 2.5;
            const double high = lineStep * double(std::max(f.label.size(), f.usual.size()));
            const double wide = std::max(widthOf(f.label), widthOf(f.usual));
            p.feeds.push_back({.from = f.from,
                               .to = f.to,
                               .deviceWidth = device,
                               .deviceHeight = f.device.empty() ? 0 : 6.0,
                               .labelWidth = wide + 2,
                               .labelHeight = high + f.lift,
                               .second = f.alternate,
                               .lower = f.lower});
        }
        return p;
    }

private:
    std::map<Ref, std::size_t> at;
    std::vector<LevelId> floorLevels;
    std::map<Ref, LevelId> levels; ///< of all that is drawn

    /// What is drawn, with the sources in the order that somebody gave them.
    std::vector<Ref> inOrder() const {
        std::vector<Ref> order = in.results.order, sources;
        for (Ref r : order)
            if (r.is<Source>()) sources.push_back(r);
        sortByPlaces(in.project, sources);
        auto next = sources.begin();
        for (Ref& r : order)
            if (r.is<Source>()) r = *next++;
        return order;
    }
    /// Feeders of one thing in the order that somebody gave them.
    void sortByHand() {
        if (in.project.riserPlaces.empty()) return;
        for (auto first = feeders.begin(); first != feeders.end();) {
            const auto last =
                std::find_if(first, feeders.end(), [&](const Feeder& f) { return f.from != first->from; });
            std::vector<Ref> beside;
            for (auto f = first; f != last; ++f) beside.push_back(things[f->to].ref);
            sortByPlaces(in.project, beside);
            std::map<Ref, std::size_t> place;
            for (std::size_t i = 0; i < beside.size(); ++i) place[beside[i]] = i;
            std::stable_sort(first, last, [&](const Feeder& a, const Feeder& b) {
                return place[things[a.to].ref] < place[things[b.to].ref];
            });
            first = last;
        }
    }
    /// Room before things, and lines and words of their feeders, as somebody moved them.
    void nudgeByHand() {
        if (in.project.riserPlaces.empty()) return;
        std::map<Ref, const RiserPlace*> byHand;
        for (const RiserPlace& place : in.project.riserPlaces) byHand.try_emplace(place.about, &place);
        for (Thing& t : things)
            if (const auto found = byHand.find(t.ref); found != byHand.end()) t.gap = found->second->gap;
        for (Feeder& f : feeders) {
            const auto found = byHand.find(things[f.to].ref);
            if (found == byHand.end()) continue;
            f.lower = found->second->lower;
            f.lift = found->second->lift;
        }
    }
    /// Equipment stands where its devices are set down on plan, else where its board does.
    void findLevels(const std::vector<CircuitId>& equipment) {
        for (Ref r : in.results.order) levels[r] = levelOf(in.project, r);
        for (CircuitId c : equipment) levels[c] = levelOf(in.project, in.project.circuits[c].board);
        for (const Device& d : in.project.devices)
            if (const auto found = levels.find(d.circuit); d.circuit && found != levels.end()) found->second = d.level;
    }

    void findFloors(RiserLayout by) {
        if (by == RiserLayout::OneLine) return;
        std::vector<const Level*> all;
        for (const Level& l : in.project.levels) all.push_back(&l);
        std::stable_sort(all.begin(), all.end(),
                         [](const Level* a, const Level* b) { return a->elevation > b->elevation; });
        bool some = false;
        for (const Level* l : all)
            if (std::any_of(levels.begin(), levels.end(), [&](const auto& on) { return on.second == l->id; })) {
                floors.push_back({l->name, elevationWords(l->elevation, in.project.basis.units)});
                floorLevels.push_back(l->id);
                some = true;
            }
        const bool none = std::any_of(levels.begin(), levels.end(),
                                      [&](const auto& on) { return floorIndex(on.first) == floorLevels.size(); });
        if (none || !some) floors.push_back({"Not on a floor", ""});
    }
    std::size_t floorIndex(Ref r) const {
        return std::size_t(std::find(floorLevels.begin(), floorLevels.end(), levels.at(r)) - floorLevels.begin());
    }

    /// The circuit whose device is at the head of what feeds a thing: for equipment its own.
    static CircuitId deviceOf(const Results& r, Ref thing) {
        return thing.is<Circuit>() ? thing.as<Circuit>() : r.node(thing)->via;
    }
    /// Feeders of one board in the order of their places on it.
    std::tuple<std::size_t, int, std::string> orderOf(const Feeder& f) const {
        const Circuit* c = in.project.circuits.find(deviceOf(in.results, things[f.to].ref));
        return {f.from, c ? c->slot : 0, nameOf(in.project, things[f.to].ref)};
    }

    Thing thing(Ref r) const {
        Thing t;
        t.ref = r;
        t.round = !r.is<Board>();
        const auto say = [&](const std::string& text, Ink ink = Ink::Ink, bool bold = false) {
            t.words.push_back({text, textSize, bold, ink});
        };
        addName(t.words, r);
        if (auto* b = in.project.boards.find(r.as<Board>())) {
            const BoardResult& n = in.results.of(b->id);
            const bool weak = faultExceeds(largestFault(in.project, in.results, b->id).kA, holdsKA(*b));
            t.bad = weak || n.use > 1 || n.looped;
            t.heavy = b->use == BoardUse::Switchboard;
            if (passesOn(b->use)) {
                t.passing = b->use;
                addWrapped(t.words, equipmentWords(*b), widestName, {});
            } else {
                say(systemWords(b->system));
            }
            if (b->use == BoardUse::Busway)
                say(b->barLength > 0 ? "busway, " + lengthWords(Metres{b->barLength}, in.project.basis.units)
                                     : std::string("busway, length not entered"));
            const std::string used = percent(n.use * 100) + (n.use > 1 ? " used, over" : " used");
            const Ink usedInk = n.use > 1 ? Ink::Stop : Ink::Ink;
            if (t.passing) {
                if (n.use > 1) say(used, usedInk, true);
            } else if (b->main > 0) {
                say(fmt::format("{} A, main {} A", number(b->bus), number(b->main)));
                say(used, usedInk, n.use > 1);
            } else {
                say(fmt::format("{} A, {}", number(b->bus), used), usedInk, n.use > 1);
            }
            if (n.fault.known)
                say(fmt::format("{} {} {} kA", faultWords(n.fault), weak ? "kA, over" : "of", figures(holdsKA(*b))),
                    weak ? Ink::Stop : Ink::Ink, weak);
            else
                say("not fed");
            for (const StateSolution* state : statesOf(in.project, in.results, r))
                if (const FaultPoint& on = state->results.of(b->id).fault; on.known)
                    say(fmt::format("{} kA on {}", faultWords(on), nameOf(in.project, state->source)));
            if (!b->surge.empty()) addWrapped(t.words, "surge protection " + b->surge, widestName, {});
            if (n.looped) say("fed in a circle", Ink::Stop, true);
            electrode(t, *b, n);
        } else if (auto* x = in.project.transformers.find(r.as<Transformer>())) {
            const TransformerResult& n = in.results.of(x->id);
            t.bad = n.use > 1;
            say(fmt::format("{} kVA, {} %Z", rating(x->kva), figures(x->percentZ)));
            say(fmt::format("{} – {}", wordOf(x->primary), systemWords(x->secondary)));
            if (!x->restartsDrop && x->boost != 0) say(tapWords(*x));
            say(fmt::format("{} used{}, {} kA", percent(n.use * 100), n.use > 1 ? ", over" : "",
                            faultWords(n.secondary)),
                n.use > 1 ? Ink::Stop : Ink::Ink, n.use > 1);
        } else if (auto* s = in.project.sources.find(r.as<Source>())) {
            say(systemWords(s->system));
            if (hasRating(s->kind))
                say(rating(s->kva) + " kVA" +
                    (s->kind == SourceKind::UtilityTransformer ? fmt::format(", {:g} %Z", s->percentZ) : ""));
            if (in.book.metric()) addWrapped(t.words, earthingWords(*s), widestName, {});
            say(faultWords(in.results.of(s->id).fault) + " kA");
        } else if (auto* c = in.project.circuits.find(r.as<Circuit>())) {
            const CircuitResult& n = in.results.of(c->id);
            say(fmt::format("{} kVA, {} A", kilo(n.va), figures(n.load.v)));
            if (c->starter != StarterKind::Unsaid) say(starterWords(c->starter, in.book));
            if (n.faultEnd > 0) say(figures(n.faultEnd) + " kA");
        }
        if (steady) keepRoom(t);
        if (show.overlay != RiserOverlay::None) overlay(t, show);
        return t;
    }
    /// Of equipment what it is, which says more than its place.
    void addName(std::vector<Words>& to, Ref r) const {
        const Circuit* c = in.project.circuits.find(r.as<Circuit>());
        const std::string name = c && !c->name.empty() ? c->name : nameOf(in.project, r);
        addWrapped(to, name, widestName, {"", c ? equipmentSize : nameSize, true, Ink::Ink});
    }
    void keepRoom(Thing& t) const {
        std::vector<RiserShow> shows{{}};
        for (RiserOverlay o : {RiserOverlay::Use, RiserOverlay::Phases, RiserOverlay::Drop, RiserOverlay::Fault,
                               RiserOverlay::Space, RiserOverlay::Supply})
            shows.push_back({o, {}, {}, {}, {}});
        for (const auto& state : in.results.states) shows.push_back({RiserOverlay::Supply, {}, state->source, {}, {}});
        Thing as;
        as.ref = t.ref;
        for (const RiserShow& other : shows) {
            if (other.overlay != RiserOverlay::None) overlay(as, other);
            const std::vector<Words>& words = other.overlay == RiserOverlay::None ? t.words : as.words;
            t.leastWidth = std::max(t.leastWidth, widthOf(words));
            t.leastHeight = std::max(t.leastHeight, lineStep * double(words.size()));
        }
    }
    /// Its name, and what the overlay says of it.
    void overlay(Thing& t, const RiserShow& what) const {
        t.words.clear();
        addName(t.words, t.ref);
        const OverlayWords told = overlayWords(in, t.ref, what);
        for (const std::string& words : told.words) {
            const bool first = &words == &told.words.front();
            const Ink ink = told.over && first ? Ink::Stop : told.off ? Ink::Quiet : Ink::Ink;
            t.words.push_back({words, textSize, first, ink});
        }
        t.shade = shadeOf(told);
        t.bad = told.over;
        t.off = told.off;
    }
    void overlay(Feeder& f) const {
        f.usual = f.label;
        f.label.resize(1);
        f.ink = Ink::Ink;
        if (f.alternate) return;
        for (const std::string& words : overlayFeeder(in, things[f.to].ref, show)) f.label.push_back({words});
    }
    /// The conductor to the electrode, where a system begins: at the service, and behind a transformer.
    void electrode(Thing& t, const Board& b, const BoardResult& n) const {
        if (!n.supply || n.run.size < 0 || (passesOn(b.use) && b.main <= 0)) return;
        if (n.supply.is<Source>() && !separatelyDerived(in.project, n.supply.as<Source>())) return;
        const Bonding bond = bondingOf(n.run, in.project.basis.electrodeMaterial, in.book);
        if (bond.electrode >= 0)
            t.words.push_back({sizeWords(in.book, bond.electrode) + " to " + in.book.word(TradeWord::EndOfElectrode)});
    }

    Feeder feeder(std::size_t from, std::size_t to) const {
        Feeder f{from, to, false, Ink::Ink, {}, {}, {}, {}};
        f.tag = runTag(in.project, things[to].ref);
        f.label.push_back({f.tag, tagSize, true, Ink::Ink});
        describe(f, in.project, in.results, things[to].ref);
        if (show.overlay != RiserOverlay::None) overlay(f);
        return f;
    }
    /// The device at the head of the feeder that a node has in a solution, and what its conductors are.
    void describe(Feeder& f, const Project& p, const Results& r, Ref thing) const {
        const RunResult& run = *r.run(thing);
        const bool outside = run.state == Sizing::OutsideTables, small = !outside && (run.size < 0 || run.tooSmall),
                   lossy = run.need.lengthKnown && run.dropOwn > run.need.ownLimit;
        if (small || lossy) f.ink = Ink::Stop;
        if (const Circuit* c = p.circuits.find(deviceOf(r, thing))) {
            f.device.push_back({deviceWords(r.of(c->id), c->poles, in.book), textSize, true, Ink::Ink});
            if (c->device != DeviceKind::Breaker && !in.book.metric())
                f.device.front().text += std::string(" ") + wordOf(c->device);
            if (c->along && p.boards[c->board].use == BoardUse::Busway)
                f.device.front().text += " at " + lengthWords(Metres{*c->along}, p.basis.units);
        }
        addWrapped(f.label,
                   run.size >= 0 ? conductorWords(run, in.book) + (run.tooSmall ? ", too small" : "")
                   : outside     ? "medium voltage, conductors by others"
                                 : "no size fits",
                   widestLabel, {"", textSize, small, f.ink});
        const RunParts parts = partsOf(p, in.book, r, thing);
        std::string length = parts.conduit.size ? parts.conduitType + " " + parts.conduit.size->name + ", " : "";
        if (!run.need.lengthKnown)
            length += "length not known";
        else
            length += lengthOf(run.need, p.basis.units) + ", " + percent(run.dropOwn);
        if (lossy) length += fmt::format(", over {}", percent(run.need.ownLimit));
        addWrapped(f.label, length, widestLabel, {"", textSize, lossy, lossy ? Ink::Stop : Ink::Ink});
    }
    Feeder alternate(std::size_t from, std::size_t to, const Board& b) const {
        Feeder f{from, to, true, Ink::Ink, "", {}, {}, {}};
        f.label = {{"Alternate", tagSize, true, Ink::Ink}};
        addWrapped(f.label, "from " + nameOf(in.project, things[from].ref), widestLabel, {});
        if (b.use != BoardUse::TransferSwitch) f.label.push_back({"by transfer switch"});
        for (const auto& state : in.results.states)
            if (state->takesOver(b.id)) {
                f.tag = b.alternateRun ? runTag(state->project, b.id) : std::string();
                if (!f.tag.empty()) f.label.front().text = f.tag + ", alternate";
                describe(f, state->project, state->results, b.id);
            }
        if (show.overlay != RiserOverlay::None) overlay(f);
        return f;
    }
    /// What is live in the state that is shown is drawn in full, the rest quietly.
    void supplyLines() {
        for (Feeder& f : feeders) {
            const BoardId to = things[f.to].ref.as<Board>();
            const bool takes = std::any_of(in.results.states.begin(), in.results.states.end(), [&](const auto& state) {
                return state->source == show.supply && state->takesOver(to);
            });
            if (things[f.from].off || things[f.to].off || takes != f.alternate) f.ink = Ink::Faint;
        }
    }
    static std::string runTag(const Project& p, Ref node) {
        RunId id;
        if (auto* b = p.boards.find(node.as<Board>())) id = b->run;
        if (auto* t = p.transformers.find(node.as<Transformer>())) id = t->run;
        if (auto* c = p.circuits.find(node.as<Circuit>())) id = c->run;
        const Run* r = p.runs.find(id);
        if (r && !r->name.empty()) return r->name;
        return node.is<Circuit>() ? nameOf(p, node) : textOf(id);
    }
};

/// Paints the part of a layout that lies between two heights, with its upper edge at `y0` of the drawing.
class Painter {
public:
    struct Edges {
        double left, right;
    };
    Painter(const Content& content, const FeederLayout& layout, Drawing& drawing, Edges within, double left, double top,
            double from, double to)
        : c(content), l(layout), d(drawing), edges(within), x0(left), y0(top - from), first(from), last(to) {
        gatherPorts();
    }

    void paint(const std::string& before, const std::string& after) {
        d.on(Layer::Building);
        bands();
        d.on(Layer::Feeders);
        for (std::size_t f = 0; f < c.feeders.size(); ++f) {
            const std::size_t from = d.marks.size();
            line(c.feeders[f], l.feeds[f]);
            gripLine(c.feeders[f], l.feeds[f]);
            named(from, c.things[c.feeders[f].to].ref, c.feeders[f].alternate ? "alternate" : "feeder");
        }
        for (std::size_t f = 0; f < c.feeders.size(); ++f) words(c.feeders[f], l.feeds[f]);
        d.on(Layer::Boards);
        for (std::size_t i = 0; i < c.things.size(); ++i) {
            if (!shown(l.boxes[i].top)) continue;
            const std::size_t from = d.marks.size();
            thing(i);
            named(from, c.things[i].ref, "");
        }
        d.on(Layer::Notes);
        if (!before.empty()) match(first, "goes on above on " + before, true);
        if (!after.empty()) match(last, "goes on below on " + after, false);
    }

private:
    const Content& c;
    const FeederLayout& l;
    Drawing& d;
    Edges edges;
    double x0, y0, first, last;

    /// Where lines come to a thing and leave it, x on the drawing.
    struct Ports {
        std::vector<double> upper, lower;       ///< at its edges, from left to right
        std::optional<double> in;               ///< of the first that comes to it
        bool inBelow = false;                   ///< that comes from below
        bool levelIn = false, levelOut = false; ///< a level line comes to it, or leaves it
    };
    std::vector<Ports> portsOf; ///< by thing

    void gatherPorts() {
        portsOf.resize(c.things.size());
        for (std::size_t f = 0; f < c.feeders.size(); ++f) {
            const FeederLayout::Feed& way = l.feeds[f];
            if (way.line.empty()) continue;
            Ports &from = portsOf[c.feeders[f].from], &to = portsOf[c.feeders[f].to];
            if (way.sideways) {
                from.levelOut = to.levelIn = true;
                continue;
            }
            (way.leavesUpward ? from.upper : from.lower).push_back(way.line.front().x + x0);
            (way.arrivesFromBelow ? to.lower : to.upper).push_back(way.line.back().x + x0);
            if (!to.in) {
                to.in = way.line.back().x + x0;
                to.inBelow = way.arrivesFromBelow;
            }
        }
        for (Ports& p : portsOf) {
            std::sort(p.upper.begin(), p.upper.end());
            std::sort(p.lower.begin(), p.lower.end());
        }
    }

    void named(std::size_t from, Ref thing, const char* part) {
        if (d.marks.size() > from) d.things.push_back({from, d.marks.size(), thing, part});
    }
    bool shown(double y) const { return y >= first && y <= last; }
    Point placed(Point p) const { return {p.x + x0, p.y + y0}; }

    void bands() {
        if (!c.byFloor()) return;
        const double left = edges.left, right = edges.right;
        for (std::size_t r = 0; r < l.rows.size();) {
            std::size_t end = r;
            while (end < l.rows.size() && l.rows[end].floor == l.rows[r].floor) ++end;
            const double top = std::max(first, l.rows[r].top), bottom = std::min(last, l.rows[end - 1].bottom);
            if (top < bottom) {
                const auto& floor = c.floors[std::size_t(l.rows[r].floor)];
                if (l.rows[r].floor % 2) d.fill(left, top + y0, right - left, bottom - top, Ink::Wash);
                d.line({left, top + y0}, {right, top + y0}, 0.13, Ink::Rule);
                d.line({left, bottom + y0}, {right, bottom + y0}, 0.13, Ink::Rule);
                double y = bottom + y0 - 4 - (floor.height.empty() ? 0 : lineStep);
                const auto name = wrapText(floor.name, floorColumn - 5, nameSize, true);
                y -= 5 * double(name.size() - (name.empty() ? 0 : 1));
                y = std::max(y, top + y0 + 6);
                for (const std::string& line : name) {
                    d.text({left + 2, y}, line, nameSize, Align::Left, true);
                    y += 5;
                }
                d.text({left + 2, y - 0.6}, floor.height, textSize);
            }
            r = end;
        }
    }

    /// A feeder's line as one mark for each part that is on this sheet, with its hops.
    void line(const Feeder& f, const FeederLayout::Feed& way) {
        std::vector<Point> part;
        const auto close = [&] {
            if (part.size() > 1) d.path(part, feederPen, f.ink, f.alternate);
            part.clear();
        };
        for (std::size_t i = 1; i < way.line.size(); ++i) {
            Point a = way.line[i - 1], b = way.line[i];
            if (a.y == b.y) {
                if (!shown(a.y)) {
                    close();
                    continue;
                }
                if (part.empty()) part.push_back(placed(a));
                level(way, a, b, part);
                continue;
            }
            const bool starts = shown(a.y), ends = shown(b.y);
            if (std::max(a.y, b.y) < first || std::min(a.y, b.y) > last) {
                close();
                continue;
            }
            a.y = std::clamp(a.y, first, last);
            b.y = std::clamp(b.y, first, last);
            if (!starts) close();
            if (part.empty()) part.push_back(placed(a));
            part.push_back(placed(b));
            if (!ends) close();
        }
        close();
    }
    void level(const FeederLayout::Feed& way, Point a, Point b, std::vector<Point>& part) const {
        std::vector<double> xs;
        for (Point h : way.hops)
            if (h.y == a.y && h.x > std::min(a.x, b.x) && h.x < std::max(a.x, b.x)) xs.push_back(h.x);
        std::sort(xs.begin(), xs.end());
        if (b.x < a.x) std::reverse(xs.begin(), xs.end());
        const double along = b.x > a.x ? 1 : -1;
        for (double x : xs) hop(part, placed({x, a.y}), along);
        part.push_back(placed(b));
    }
    /// Over a line that crosses at `at`; `along`: 1 to the right, −1 to the left.
    static void hop(std::vector<Point>& path, Point at, double along) {
        static const std::array<Point, 9> bow = [] {
            std::array<Point, 9> of{};
            for (std::size_t k = 0; k < of.size(); ++k) {
                const double t = 3.14159265358979 * double(k) / 8;
                of[k] = {hopRadius * std::cos(t), hopRadius * std::sin(t)};
            }
            return of;
        }();
        for (Point p : bow) path.push_back({at.x - along * p.x, at.y - p.y});
    }

    /// The device beside the beginning of a feeder, and the words beside its end.
    void words(const Feeder& f, const FeederLayout::Feed& way) {
        if (way.line.empty()) return;
        if (way.sideways) return wordsBeside(f, way);
        const Point start = way.line.front(), end = way.line.back();
        if (!f.device.empty() && shown(start.y)) {
            const Point at = placed({start.x, start.y + (way.leavesUpward ? -2.6 : 2.6)});
            deviceBox(at, f.ink);
            d.text({at.x + 2.2, at.y + 1.2}, f.device.front().text, textSize, Align::Left, true);
        }
        if (!shown(end.y)) return;
        const double high = lineStep * double(f.label.size());
        const double top = end.y + y0 + (way.arrivesFromBelow ? 1.2 + f.lift : -1.2 - high - f.lift);
        label(f, {end.x + x0 + 1.8, top}, f.label.size());
        const Hotspot spot{c.things[f.to].ref, end.x + x0, top, end.x + x0 + 1.8 + widthOf(f.label), top + high};
        d.hotspots.push_back(spot);
        if (canGrip(f) && high > 0)
            d.grips.push_back({spot.thing, GripSpot::Part::Words, spot.left, spot.top, spot.right, spot.bottom,
                               !way.arrivesFromBelow});
    }
    /// What is set by hand is of the feeder that says where a thing stands.
    bool canGrip(const Feeder& f) const { return c.forScreen() && !f.alternate; }
    /// The level stretches of a feeder's line can be moved down, and up again.
    void gripLine(const Feeder& f, const FeederLayout::Feed& way) {
        if (!canGrip(f) || way.sideways) return;
        constexpr double reach = 1.4, shortest = 4;
        for (std::size_t i = 1; i < way.line.size(); ++i) {
            const Point a = way.line[i - 1], b = way.line[i];
            if (a.y != b.y || std::abs(a.x - b.x) < shortest || !shown(a.y)) continue;
            const Point from = placed({std::min(a.x, b.x), a.y});
            d.grips.push_back({c.things[f.to].ref, GripSpot::Part::Line, from.x, from.y - reach,
                               from.x + std::abs(a.x - b.x), from.y + reach, false});
        }
    }
    /// The tag above a level line, the rest beneath it.
    void wordsBeside(const Feeder& f, const FeederLayout::Feed& way) {
        const Point start = way.line.front(), end = way.line.back();
        if (!shown(start.y)) return;
        if (!f.device.empty()) {
            const Point at = placed({start.x + 2.6, start.y});
            deviceBox(at, f.ink);
            d.text({at.x - 1.2, at.y - 2}, f.device.front().text, textSize, Align::Left, true);
        }
        const Point at = placed({end.x - way.labelRoom + 1, end.y});
        const double high = lineStep * double(f.label.size());
        label(f, {at.x, at.y - lineStep - 0.8}, 1);
        label(f, {at.x, at.y + 0.8 - lineStep}, f.label.size(), 1);
        d.hotspots.push_back({c.things[f.to].ref, at.x, at.y - lineStep - 0.8, end.x + x0, at.y + high});
    }
    void deviceBox(Point at, Ink ink) {
        d.fill(at.x - 1.2, at.y - 1.2, 2.4, 2.4, Ink::Paper);
        d.box(at.x - 1.2, at.y - 1.2, 2.4, 2.4, 0.35, ink);
    }
    /// The lines `from` to `end` of a feeder's words; `at`: the upper left corner of the first of all.
    void label(const Feeder& f, Point at, std::size_t end, std::size_t from = 0) {
        for (std::size_t i = from; i < end; ++i) {
            const Words& w = f.label[i];
            d.text({at.x, at.y + lineStep * double(i + 1) - 1}, w.text, w.size, Align::Left, w.bold, w.ink);
        }
    }

    void thing(std::size_t i) {
        const Thing& t = c.things[i];
        const FeederLayout::Box& b = l.boxes[i];
        const double left = b.left + x0, top = b.top + y0;
        const Ink ink = t.bad ? Ink::Stop : t.off ? Ink::Quiet : Ink::Ink;
        if (t.round)
            round(i, t, ink);
        else {
            d.fill(left, top, b.width, b.height, t.shade);
            d.box(left, top, b.width, b.height, t.passing ? 0.35 : t.heavy ? 1.0 : 0.7, ink);
            write(t.words, left + (t.passing ? symbolRoom : 2.5), top + 2);
            if (t.passing)
                symbol(*t.passing, c.in.project.boards[t.ref.as<Board>()].main > 0,
                       {left + symbolRoom / 2, top + symbolHeight / 2}, ink);
            else if (c.in.project.boards[t.ref.as<Board>()].use == BoardUse::Busway) // its bars, from end to end
                for (double y : {top + 0.9, top + b.height - 0.9})
                    d.line({left + 0.6, y}, {left + b.width - 0.6, y}, busPen, ink);
            else if (!c.byFloor())
                bus(i, top + b.height);
        }
        d.hotspots.push_back({t.ref, left, top, left + b.width, top + b.height});
    }
    /// What passes on: a blade for what opens, two ways in for what changes over, a circle for a meter, a ring about
    /// the line for current transformers, and for a UPS
    /// what goes in and comes out. `fused`: it has a device of its own.
    void symbol(BoardUse use, bool fused, Point at, Ink ink) {
        constexpr double reach = 5.5, gap = 2.4, pen = 0.35;
        const auto from = [&](double dx, double dy) { return Point{at.x + dx, at.y + dy}; };
        switch (use) {
        case BoardUse::Meter:
            d.line(from(0, -reach), from(0, -3.4), pen, ink);
            d.line(from(0, 3.4), from(0, reach), pen, ink);
            d.marks.push_back(CircleMark{at, 3.4, pen, ink, false});
            d.text(from(0, 1.3), "M", 3.6, Align::Centre, true);
            return;
        case BoardUse::CtCabinet: // a ring about the line, with the way out to the meter
            d.line(from(0, -reach), from(0, reach), pen, ink);
            d.marks.push_back(CircleMark{at, 2.2, pen, ink, false});
            d.line(from(2.2, 0), from(5, 0), pen, ink);
            for (double x : {3.0, 3.9}) d.line(from(x - 0.4, 1), from(x + 0.4, -1), pen, ink);
            return;
        case BoardUse::Ups:
            d.box(at.x - 4, at.y - 4, 8, 8, pen, ink);
            d.line(from(-4, 4), from(4, -4), pen, ink);
            d.text(from(-1.9, -0.6), "~", 4, Align::Centre, true);
            d.text(from(1.9, 3), "=", 4, Align::Centre, true);
            return;
        case BoardUse::TransferSwitch:
            for (double side : {-3.0, 3.0}) {
                d.line(from(side, -reach), from(side, -gap - 0.5), pen, ink);
                d.marks.push_back(CircleMark{from(side, -gap), 0.55, pen, ink, false});
            }
            d.line(from(0, gap), from(-2.7, -gap + 0.5), pen * 1.4, ink);
            d.line(from(0, gap), from(0, reach), pen, ink);
            d.text(from(-5.3, -gap + 0.9), "N", 2.5, Align::Centre, true);
            d.text(from(5.3, -gap + 0.9), "A", 2.5, Align::Centre, true);
            return;
        default:
            break;
        }
        d.line(from(0, -reach), from(0, -gap - 0.5), pen, ink);
        d.marks.push_back(CircleMark{from(0, -gap), 0.55, pen, ink, false});
        d.line(from(0, gap - 1), from(-2.6, -gap), pen * 1.4, ink);
        d.line(from(0, gap - 1), from(0, reach), pen, ink);
        if (fused) d.box(at.x - 0.9, at.y + gap - 0.6, 1.8, 2.6, pen, ink);
    }
    /// The bus of a board from which its feeders leave, inside its lower edge.
    void bus(std::size_t i, double edge) {
        const std::vector<double>& ports = portsOf[i].lower;
        if (ports.empty()) return;
        const double y = edge - 2.6;
        d.line({ports.front() - 2.5, y}, {ports.back() + 2.5, y}, busPen);
        for (double x : ports) d.line({x, y}, {x, edge}, feederPen);
    }
    /// A source or transformer: circles, joined to the edges where its lines come and go, and its words.
    void round(std::size_t i, const Thing& t, Ink ink) {
        const FeederLayout::Box& b = l.boxes[i];
        const double left = b.left + x0, right = left + b.width, top = b.top + y0, bottom = top + b.height;
        const bool two = t.ref.is<Transformer>();
        const Ports& of = portsOf[i];
        if (two && c.byFloor() && (of.levelIn || of.levelOut || comesAndGoesAtOneEdge(of)))
            return pairSideBySide(i, t, ink);
        const double x = circleAt(of, left);
        const double y = !c.byFloor() ? top + b.height / 2 : top + sideHeight + (two ? 1.5 : 0);
        const double upright = two ? circleR * 0.6 : 0; // two circles overlap along the way that power takes
        const double reach = circleR + upright;
        for (bool upper : {true, false}) {
            const std::vector<double>& ports = upper ? of.upper : of.lower;
            if (ports.empty()) continue;
            const double edge = upper ? top : bottom;
            d.line({x, upper ? y - reach : y + reach}, {x, edge}, feederPen, ink);
            if (ports.size() > 1 || std::abs(ports.front() - x) > 1e-6)
                d.line({std::min(x, ports.front()), edge}, {std::max(x, ports.back()), edge}, busPen, ink);
        }
        if (of.levelIn) d.line({left, y}, {x - circleR, y}, feederPen, ink);
        if (of.levelOut) d.line({x + circleR, y}, {right, y}, feederPen, ink);
        std::vector<Point> centres;
        if (!t.ref.is<Circuit>()) centres.push_back({x, y - upright});
        if (two) centres.push_back({x, y + upright});
        if (t.ref.is<Circuit>()) {
            if (t.shade != Ink::Paper) d.fill(left, top, b.width, b.height, t.shade);
            d.line({x, y - circleR}, {x, y - 3}, feederPen, ink);
            drawLoadSymbol(d, c.in.results.of(t.ref.as<Circuit>()).kind, {x, y}, ink);
        }
        circles(centres, t.shade, ink);
        if (auto* s = c.in.project.sources.find(t.ref.as<Source>()))
            d.text({x, y + 1.5}, s->kind == SourceKind::Generator ? "G" : "U", 4.2, Align::Centre, true);
        if (c.byFloor())
            write(t.words, x + 3.5, top + circleBelow + (two ? pairRoom : 0));
        else
            write(t.words, x + circleR + 2.5, y - lineStep * double(t.words.size()) / 2);
    }
    void circles(const std::vector<Point>& centres, Ink shade, Ink ink) {
        for (Point at : centres) d.marks.push_back(CircleMark{at, circleR, 0, shade, true});
        for (Point at : centres) d.marks.push_back(CircleMark{at, circleR, feederPen, ink, false});
    }
    static bool comesAndGoesAtOneEdge(const Ports& ports) {
        return ports.in && (ports.inBelow ? ports.lower : ports.upper).size() > 1;
    }
    /// A transformer with lines that are level, or come and go at one edge: its windings side by side, each with leads
    /// of its own, so that what comes in does not look joined to what leaves.
    void pairSideBySide(std::size_t i, const Thing& t, Ink ink) {
        const FeederLayout::Box& b = l.boxes[i];
        const Ports& of = portsOf[i];
        const double left = b.left + x0, right = left + b.width, top = b.top + y0, bottom = top + b.height;
        const double y = top + sideHeight + (of.levelIn || of.levelOut ? 0 : 1.5);
        const Point in{of.levelIn || !of.in ? left + 0.4 + circleR : *of.in, y}, out{in.x + pairApart, y};
        bool leavesBelow = false;
        for (bool upper : {true, false}) {
            std::vector<double> leaving = upper ? of.upper : of.lower;
            const double way = upper ? -1 : 1, edge = upper ? top : bottom, winding = y + way * circleR;
            const bool comes = !of.levelIn && of.in && of.inBelow != upper;
            if (comes) {
                leaving.erase(std::find(leaving.begin(), leaving.end(), *of.in));
                d.line({in.x, winding}, {in.x, edge}, feederPen, ink);
            }
            if (leaving.empty()) continue;
            leavesBelow |= !upper;
            const double bar = comes ? edge - way * std::min(0.9, std::abs(edge - winding) / 2) : edge;
            d.line({out.x, winding}, {out.x, bar}, feederPen, ink);
            secondaryBar(std::min(out.x, leaving.front()), std::max(out.x, leaving.back()), bar, comes ? in.x : left,
                         ink);
            for (double x : leaving) d.line({x, bar}, {x, edge}, feederPen, ink);
        }
        if (of.levelIn) d.line({left, y}, {in.x - circleR, y}, feederPen, ink);
        if (of.levelOut) d.line({out.x + circleR, y}, {right, y}, feederPen, ink);
        circles({in, out}, t.shade, ink);
        write(t.words, (leavesBelow ? out.x : in.x) + 3.5, top + circleBelow + pairRoom);
    }
    /// What leaves a winding, side by side; it hops over a line at `over` that comes in.
    void secondaryBar(double from, double to, double y, double over, Ink ink) {
        if (to - from < 1e-6) return;
        std::vector<Point> along{{from, y}};
        if (from < over && over < to) hop(along, {over, y}, 1);
        along.push_back({to, y});
        d.path(along, busPen, ink);
    }
    /// A circle stands at what comes in, else at the first that leaves.
    double circleAt(const Ports& ports, double left) const {
        const double usual = left + circleR * 1.6 + 0.4;
        if (ports.levelIn) return usual;
        if (ports.in) return *ports.in;
        for (const auto* edge : {&ports.lower, &ports.upper})
            if (!edge->empty()) return edge->front();
        return usual;
    }
    void write(const std::vector<Words>& lines, double x, double y) {
        for (const Words& w : lines) {
            y += lineStep;
            d.text({x, y - 0.8}, w.text, w.size, Align::Left, w.bold, w.ink);
        }
    }

    /// Where the drawing goes on on another sheet: each line that is cut bears its feeder's tag.
    void match(double at, const std::string& words, bool top) {
        const double y = at + y0;
        d.line({edges.left, y}, {edges.right, y}, 0.35, Ink::Ink, true);
        d.text({edges.left + 2, top ? y - 1.6 : y + textSize + 0.8}, "Match line: " + words, textSize, Align::Left,
               true);
        for (std::size_t f = 0; f < c.feeders.size(); ++f)
            for (std::size_t i = 1; i < l.feeds[f].line.size(); ++i) {
                const Point a = l.feeds[f].line[i - 1], b = l.feeds[f].line[i];
                if (a.x != b.x || std::min(a.y, b.y) >= at || std::max(a.y, b.y) <= at) continue;
                d.text({a.x + x0, top ? y - 1.2 : y + 3.6}, c.feeders[f].tag.empty() ? "alt." : c.feeders[f].tag, 2.5,
                       Align::Centre, true);
            }
    }
};

const std::vector<std::string>& papersOf(const SheetInput& in) { return in.book.trade.papers.riser; }

/// Narrower, as far as both are wider than there is room; else lower.
bool better(const FeederLayout& one, const FeederLayout& other, double room) {
    const double width = std::max(room, one.width), than = std::max(room, other.width);
    return width < than - 1 || (width < than + 1 && one.height < other.height);
}

/// A layout on its paper, and where it is cut.
struct Arranged {
    FeederLayout layout;
    std::string paper;
    double width = 0, height = 0; ///< of the paper
    std::vector<double> cuts;     ///< heights at which sheets begin and the last ends
};

/// On the smallest paper that holds it, with floors as high as that allows.
Arranged arrange(const Content& content) {
    const double column = content.byFloor() ? floorColumn : 0;
    Arranged a;
    double wide = 0, tall = 0;
    const auto take = [&](const std::string& paper) {
        const PaperSize size = paperSize(paper);
        a.paper = paper;
        a.width = size.width;
        a.height = size.height;
        Drawing sheet;
        sheet.width = size.width, sheet.height = size.height;
        const SheetFrame frame = sheetFrame(sheet, content.in);
        wide = frame.right - frame.left - 2 * margin - column;
        tall = frame.bottom - frame.top - margin - viewTitleRoom;
    };
    FeederLayout best; // of those that do not fit on the paper: the narrowest, and of such the lowest
    bool some = false;
    const auto fits = [&](FeederPlan::Steps steps) {
        FeederPlan plan = content.plan(wide, steps);
        FeederLayout layout = layOutFeeders(plan);
        if (layout.width > wide || layout.height > tall) {
            if (!some || better(layout, best, wide)) best = std::move(layout);
            some = true;
            return false;
        }
        // What room is left goes between the boxes and between the rows.
        const std::size_t inWidest = content.widestRow(layout);
        plan.gap += std::min(16.0, (wide - layout.width) / double(std::max<std::size_t>(1, inWidest)) * 0.9);
        if (layout.rows.size() > 1)
            plan.air = std::min(16.0, (tall - layout.height) / double(layout.rows.size() - 1) * 0.9);
        FeederLayout airy = layOutFeeders(plan);
        a.layout = airy.width <= wide && airy.height <= tall ? std::move(airy) : std::move(layout);
        return true;
    };
    const double area = content.leastArea();
    bool found = false;
    for (const std::string& paper : papersOf(content.in)) {
        take(paper);
        if (area > wide * tall && paper != papersOf(content.in).back()) continue;
        some = false;
        if (content.byFloor()) found = fits(FeederPlan::Steps::Chains) || fits(FeederPlan::Steps::OneRow);
        found = found || fits(FeederPlan::Steps::Rows);
        if (found) break;
    }
    if (!found) {
        a.layout = std::move(best);
        if (a.layout.width > wide) { // more lines side by side than the largest paper is wide
            a.paper = "roll";
            a.width += a.layout.width - wide;
        }
    }
    a.cuts.push_back(0);
    for (const auto& row : a.layout.rows)
        if (row.bottom > a.cuts.back() + tall && row.top > a.cuts.back()) a.cuts.push_back(row.top);
    a.cuts.push_back(a.layout.height);
    return a;
}

/// "State of the supply: on Generator 80 kVA".
std::string overlayTitle(const SheetInput& in, const RiserShow& show) {
    std::string title = titleOf(show.overlay);
    if (show.overlay == RiserOverlay::Supply)
        title += show.supply ? ": on " + nameOf(in.project, show.supply) : std::string(": normal");
    if (show.overlay == RiserOverlay::Changes) title += " since " + show.since;
    return title;
}

/// The shades of an overlay in a line, and what they mean.
void shadeLine(Drawing& d, const SheetInput& in, const RiserShow& show, Point at) {
    const std::string title = overlayTitle(in, show);
    d.text({at.x, at.y}, title, 3.4, Align::Left, true);
    double x = at.x + textWidth(title, 3.4, true) + 7;
    for (const ShadeStep& step : shadesOf(show.overlay)) {
        d.fill(x, at.y - 3, 6, 4, step.ink);
        d.box(x, at.y - 3, 6, 4, 0.18, step.ink == Ink::Shade4 ? Ink::Stop : Ink::Ink);
        d.text({x + 7.5, at.y}, step.words, textSize);
        x += 7.5 + textWidth(step.words, textSize) + 6;
    }
    const auto elsewhere = show.snags.find(Ref());
    if (show.overlay == RiserOverlay::Snags && elsewhere != show.snags.end())
        d.text({x, at.y},
               fmt::format("elsewhere {}, {}", counted(elsewhere->second.stops, "stop"),
                           counted(elsewhere->second.checks, "check")),
               textSize);
    const auto others = show.changes.find(Ref());
    if (show.overlay == RiserOverlay::Changes && others != show.changes.end())
        d.text({x, at.y},
               fmt::format("elsewhere {} entered, {} follow", others->second.entered, others->second.follows),
               textSize);
}

/// What the marks mean, in the part of the strip that belongs to the sheet.
void legend(Drawing& d, const SheetInput& in, const SheetFrame& f, bool equipment) {
    constexpr double symbolRoomHere = 13, size = 2.8, step = 3.9;
    double y = f.freeTop + 6;
    d.text({f.textLeft, y}, "Legend", 3.4, Align::Left, true);
    y += 6;
    const auto say = [&](const std::string& text) {
        for (const std::string& line : wrapText(text, f.textRight - f.textLeft - symbolRoomHere, size)) {
            d.text({f.textLeft + symbolRoomHere, y + 1}, line, size);
            y += step;
        }
        y += 2.2;
    };
    const double x = f.textLeft;
    d.box(x + 3, y - 1.2, 2.4, 2.4, 0.35);
    say(in.book.word(TradeWord::FeederDevice));
    d.path({{x, y}, {x + 3, y}, {x + 3 + 0.3, y - 0.6}, {x + 4, y - 0.85}, {x + 4.7, y - 0.6}, {x + 5, y}, {x + 8, y}},
           feederPen);
    d.line({x + 4, y - 2.6}, {x + 4, y + 2.2}, feederPen);
    say("Two feeders that cross and do not touch");
    d.line({x, y}, {x + 9, y}, feederPen, Ink::Ink, true);
    say("Alternate supply; N and A: the normal and the alternate way in");
    if (equipment) {
        drawLoadSymbol(d, LoadKind::Motor, {x + 3, y}, Ink::Ink);
        drawLoadSymbol(d, LoadKind::Equipment, {x + 9, y}, Ink::Ink);
        y += 0.5;
        say("Motor, or another large load, on a circuit of its own");
    }
    d.text({x, y + 1}, "kA of", size, Align::Left, true);
    say("Largest fault current there, of its rating");
}

} // namespace

RiserExtent riserExtent(const SheetInput& in, RiserLayout layout) {
    const Arranged a = arrange(Content(in, layout));
    return {a.cuts.size() - 1, a.paper};
}

std::vector<Drawing> riserDiagram(const SheetInput& in, RiserLayout layout, const std::string& number,
                                  const RiserShow& show) {
    const Content content(in, layout, show);
    const bool plain = show.overlay == RiserOverlay::None;
    const Arranged a = arrange(content);
    const bool byFloor = layout == RiserLayout::ByFloor;
    const double column = content.byFloor() ? floorColumn : 0;
    std::vector<Drawing> sheets;
    for (std::size_t page = 0; page + 1 < a.cuts.size(); ++page) {
        Drawing d;
        d.title = byFloor ? sheetTitle(in.project, {SheetKind::Riser, {}}, "Riser diagram")
                          : sheetTitle(in.project, {SheetKind::OneLine, {}}, "One-line diagram");
        d.number = pageNumber(number, page);
        d.paper = a.paper;
        d.width = a.width;
        d.height = a.height;
        const SheetFrame frame = sheetFrame(d, in);
        const double spare = std::max(0.0, frame.right - frame.left - 2 * margin - column - a.layout.width);
        Painter painter(content, a.layout, d, {frame.left, frame.right}, frame.left + margin + column + spare / 2,
                        frame.top + margin, a.cuts[page], a.cuts[page + 1]);
        painter.paint(page == 0 ? "" : pageNumber(number, page - 1),
                      page + 2 < a.cuts.size() ? pageNumber(number, page + 1) : "");
        titleBlock(d, in, "None");
        legend(d, in, frame, content.hasEquipment());
        const bool states = plain && !in.results.states.empty();
        viewTitle(d, frame, plain ? d.title : d.title + ". " + overlayTitle(in, show),
                  states ? "Not to scale. State shown: normal" : "Not to scale");
        if (!plain) shadeLine(d, in, show, {frame.left + 110, frame.bottom - 8});
        sheets.push_back(std::move(d));
    }
    return sheets;
}

Drawing riserBare(const SheetInput& in, RiserLayout layout, double width, const RiserShow& show,
                  std::optional<std::size_t>* rows) {
    const Content content(in, layout, show, true);
    const double above = show.overlay == RiserOverlay::None ? 0 : 9; // of the line that tells the shades
    const double edge = 4, column = content.byFloor() ? floorColumn : 0;
    const double room = width - 2 * edge - column;
    std::vector<FeederPlan::Steps> ways{FeederPlan::Steps::Rows};
    if (content.byFloor()) ways.insert(ways.end(), {FeederPlan::Steps::Chains, FeederPlan::Steps::OneRow});
    // What the rows were, as long as that is narrow enough or no other is; else the lowest of those that are.
    const std::size_t none = ways.size(), was = rows && *rows ? std::min(**rows, none) : none;
    FeederPlan usual = content.plan(room, ways.front()); // the ways differ in nothing else
    usual.compact = true;
    const auto planOf = [&](std::size_t way) {
        FeederPlan plan = usual;
        plan.steps = ways[way];
        return plan;
    };
    std::vector<FeederLayout> layouts(ways.size());
    std::vector<char> made(ways.size(), 0);
    if (was < none) {
        layouts[was] = layOutFeeders(planOf(was));
        made[was] = 1;
    }
    if (was == none || layouts[was].width > room + 1) {
        const bool aside = content.things.size() > manyThings;
        std::vector<double> widths(ways.size(), 0);
        inParts(ways.size(), aside, [&](std::size_t, std::size_t from, std::size_t to) {
            for (std::size_t i = from; i < to; ++i) widths[i] = made[i] ? layouts[i].width : feederWidth(planOf(i));
        });
        const auto narrowest = std::size_t(std::min_element(widths.begin(), widths.end()) - widths.begin());
        const bool someFit = widths[narrowest] <= room + 1;
        std::vector<char> wanted(ways.size(), 0);
        for (std::size_t i = 0; i < ways.size(); ++i)
            wanted[i] = !made[i] && (someFit ? widths[i] <= room + 1 : was == none && i == narrowest);
        inParts(ways.size(), aside, [&](std::size_t, std::size_t from, std::size_t to) {
            for (std::size_t i = from; i < to; ++i)
                if (wanted[i]) layouts[i] = layOutFeeders(planOf(i));
        });
        for (std::size_t i = 0; i < ways.size(); ++i) made[i] |= wanted[i];
    }
    std::size_t best = none;
    for (std::size_t i = 0; i < ways.size(); ++i)
        if (made[i] && (best == none || better(layouts[i], layouts[best], room))) best = i;
    if (rows) *rows = best;
    const FeederLayout l = std::move(layouts[best]);
    Drawing d;
    d.title = "Riser";
    d.width = std::max(width, l.width + 2 * edge + column);
    d.height = l.height + 2 * edge + above;
    Painter(content, l, d, {edge, d.width - edge}, edge + column + (d.width - 2 * edge - column - l.width) / 2,
            edge + above, 0, l.height)
        .paint("", "");
    if (above > 0) shadeLine(d, in, show, {edge + 2, edge + 4});
    return d;
}

} // namespace lintel
