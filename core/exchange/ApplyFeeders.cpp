// A list of feeders taken into a project.

#include "core/base/Article.h"
#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/exchange/FeederList.h"
#include "core/figures/Words.h"
#include "core/project/BoardSize.h"
#include "core/project/FreshId.h"
#include "core/project/LevelOf.h"
#include "core/project/LoadWords.h"
#include "core/project/Operations.h"
#include "core/project/RunFacts.h"
#include "core/solve/PhaseLoads.h"

#include <cmath>
#include <fmt/format.h>
#include <map>
#include <set>

namespace lintel {
namespace {

std::string plain(double v) { return fmt::format("{:.10g}", v); }

/// How people call a thing in a list: "Panel LP-1" is LP-1.
std::string bareName(const std::string& name) {
    const std::string low = lowered(name);
    for (const std::string word : {"panelboard ", "panel ", "switchboard ", "board ", "transformer ",
                                   "motor control centre ", "motor control center "})
        if (low.rfind(word, 0) == 0) return trimmed(std::string_view(low).substr(word.size()));
    return low;
}

/// "ats" of "ATS-1".
std::string firstLetters(const std::string& name) {
    const std::string low = lowered(name);
    return {low.begin(), std::find_if_not(low.begin(), low.end(), isLetter)};
}

/// What the first letters of a name say a thing is: "ATS-1", "MCC-2", "T-3".
FedKind kindByName(const std::string& name) {
    static const std::map<std::string, FedKind> known{{"ats", FedKind::TransferSwitch},
                                                      {"mts", FedKind::TransferSwitch},
                                                      {"mcc", FedKind::MotorControl},
                                                      {"msb", FedKind::Switchboard},
                                                      {"mdb", FedKind::Switchboard},
                                                      {"mds", FedKind::Switchboard},
                                                      {"mdp", FedKind::Switchboard},
                                                      {"swbd", FedKind::Switchboard},
                                                      {"ups", FedKind::Ups},
                                                      {"ds", FedKind::Disconnect},
                                                      {"disc", FedKind::Disconnect},
                                                      {"sd", FedKind::ServiceDisconnect},
                                                      {"xfmr", FedKind::Transformer},
                                                      {"tx", FedKind::Transformer},
                                                      {"tr", FedKind::Transformer},
                                                      {"t", FedKind::Transformer},
                                                      {"meter", FedKind::Meter},
                                                      {"ct", FedKind::CtCabinet},
                                                      {"ctc", FedKind::CtCabinet},
                                                      {"transformer", FedKind::Transformer},
                                                      {"panel", FedKind::Panelboard},
                                                      {"panelboard", FedKind::Panelboard},
                                                      {"busway", FedKind::Busway},
                                                      {"bw", FedKind::Busway},
                                                      {"bd", FedKind::Busway}};
    const auto found = known.find(firstLetters(name));
    return found == known.end() ? FedKind::Unsaid : found->second;
}

/// Boards and equipment have the same words here and there.
BoardUse useOf(FedKind kind) { return fromWord<BoardUse>(wordOf(kind)).value_or(BoardUse::Panelboard); }

/// The voltage system of so many volts and phases; the one that the project has most of, where several would do.
std::optional<VoltageSystem> systemOf(const Project& p, double volts, std::optional<int> phases) {
    std::map<VoltageSystem, int> used;
    for (const Board& b : p.boards) ++used[b.system];
    for (const Source& s : p.sources) ++used[s.system];
    const auto suits = [&](VoltageSystem s) {
        const SystemFacts& f = factsOf(s);
        if (phases && f.phases != *phases) return false;
        return sameVolts(volts, f.lineLine.v);
    };
    std::optional<VoltageSystem> best;
    const auto weigh = [&](VoltageSystem s) {
        if (suits(s) && (!best || used[s] > used[*best])) best = s;
    };
    for (VoltageSystem s : usualSystems()) weigh(s);
    for (VoltageSystem s : usualMediumVoltages()) weigh(s);
    for (const auto& [s, times] : std::map(used)) weigh(s);
    return best;
}

class Entering {
public:
    Entering(Project& project, const RuleBook& rules, const FeederList& what) : p(project), book(rules), list(what) {}

    FeedersApplied run() {
        out.rows.resize(list.rows.size());
        for (const Board& b : p.boards) note(b.name, b.id);
        for (const Transformer& t : p.transformers) note(t.name, t.id);
        for (const Source& s : p.sources) note(s.name, s.id);
        eachNamedRun([&](const std::string& name, Ref owner) { runNamed.try_emplace(lowered(name), owner); });
        findCircuits();
        for (std::size_t i = 0; i < list.rows.size(); ++i)
            if (list.rows[i].enters()) rowsTo[bareName(list.rows[i].to)].push_back(i);
        for (std::size_t i = 0; i < list.rows.size(); ++i)
            if (list.rows[i].enters()) feedsSomething.insert(bareName(list.rows[i].from));
        for (std::size_t i = 0; i < list.rows.size(); ++i)
            if (list.rows[i].enters() && rowsTo[bareName(list.rows[i].to)].front() == i) ensure(i);
        for (std::size_t i = 0; i < list.rows.size(); ++i)
            if (list.rows[i].enters() && rowsTo[bareName(list.rows[i].to)].front() != i) ensureOne(i);
        for (std::size_t i = 0; i < list.rows.size(); ++i)
            if (list.rows[i].enters() && !out.rows[i].refused) feed(i);
        findLoads();
        for (std::size_t i = 0; i < list.rows.size(); ++i)
            if (list.rows[i].enters() && !out.rows[i].refused) enter(i);
        findTwice();
        count();
        return std::move(out);
    }

private:
    Project& p;
    const RuleBook& book;
    const FeederList& list;
    FeedersApplied out;
    std::map<std::string, Ref> nodes;              ///< boards, transformers and sources by bareName
    std::map<std::string, CircuitId> circuitOfTag; ///< by the tag of a load
    std::map<std::pair<BoardId, std::string>, CircuitId> circuitNamed;
    std::map<CircuitId, std::vector<LoadId>> loadsOf;
    std::map<BoardId, CircuitId> listedOn; ///< the circuit with the load that a list gave the board as a whole
    std::set<BoardId> withCircuits;
    std::set<CircuitId> drawn;                              ///< circuits with devices on plan
    std::map<std::string, Ref> runNamed;                    ///< whose run is called so
    std::map<std::string, std::vector<std::size_t>> rowsTo; ///< by what they feed
    std::set<std::string> feedsSomething;                   ///< names that rows are fed from
    std::set<std::size_t> busy;                             ///< rows being ensured: a circle ends there
    std::set<std::size_t> second;                           ///< rows that are another way in
    std::set<Ref> claimed;                                  ///< fed by a row of this list

    void note(const std::string& name, Ref r) { nodes.try_emplace(bareName(name), r); }
    Ref nodeNamed(const std::string& name) const {
        const auto found = nodes.find(bareName(name));
        return found == nodes.end() ? Ref{} : found->second;
    }
    void findCircuits() {
        for (const Load& l : p.loads)
            if (l.circuit && !l.tag.empty()) circuitOfTag.try_emplace(lowered(l.tag), l.circuit);
        for (const Circuit& c : p.circuits)
            if (!c.name.empty()) circuitNamed.try_emplace({c.board, lowered(c.name)}, c.id);
    }
    /// Before loads are entered: who carries what.
    void findLoads() {
        for (const Load& l : p.loads)
            if (l.circuit) loadsOf[l.circuit].push_back(l.id);
        for (const Device& d : p.devices)
            if (d.circuit) drawn.insert(d.circuit);
        for (const Circuit& c : p.circuits) {
            withCircuits.insert(c.board);
            const auto loads = loadsOf.find(c.id);
            if (loads != loadsOf.end() && p.loads[loads->second.front()].name == listedLoadName)
                listedOn.try_emplace(c.board, c.id);
        }
    }
    /// Calls f(name, owner) for the named run of each board, transformer and circuit, in this order.
    template <class F> void eachNamedRun(F f) const {
        const auto call = [&](RunId id, Ref owner) {
            const Run* r = p.runs.find(id);
            if (r && !r->name.empty()) f(r->name, owner);
        };
        for (const Board& b : p.boards) call(b.run, b.id);
        for (const Transformer& t : p.transformers) call(t.run, t.id);
        for (const Circuit& c : p.circuits) call(c.run, c.id);
    }
    void refuse(std::size_t i, std::string why) {
        out.rows[i].refused = true;
        out.rows[i].look.push_back(std::move(why));
    }

    FedKind kindOf(const FeederRow& row) const {
        if (row.what != FedKind::Unsaid) return row.what;
        if (row.unit == LoadUnit::hp && row.load) return FedKind::Load;
        const bool feeds = feedsSomething.count(bareName(row.to)) > 0;
        const FedKind named = kindByName(row.to);
        if (named == FedKind::Transformer && !feeds) return FedKind::Panelboard;
        if (named != FedKind::Unsaid) return named;
        if (!feeds && LoadWords::shipped().kindOf(row.to)) return FedKind::Load;
        return FedKind::Panelboard;
    }

    /// What a row is fed from is there, and then what it feeds; but for loads, which are made with their circuit. A
    /// list may be a chain of any length, and a circle ends where it began.
    void ensure(std::size_t row) {
        std::vector<std::size_t> chain;
        while (busy.insert(row).second) {
            chain.push_back(row);
            const std::string& from = list.rows[row].from;
            const auto above = rowsTo.find(bareName(from));
            if (from.empty() || nodeNamed(from) || above == rowsTo.end()) break;
            row = above->second.front();
        }
        for (auto one = chain.rbegin(); one != chain.rend(); ++one) ensureOne(*one);
    }
    void ensureOne(std::size_t i) {
        const FeederRow& row = list.rows[i];
        const Ref from = row.from.empty() ? Ref{} : ensureFrom(row.from, i);
        if (const Ref known = knownTo(row)) {
            out.rows[i].feeds = known;
            if (!known.is<Circuit>()) nodes.try_emplace(bareName(row.to), known); // by which other rows name it
            return;
        }
        if (rowsTo[bareName(row.to)].front() != i) return; // made by the first row that names it, which was refused
        if (kindOf(row) != FedKind::Load) make(i, from);
    }
    /// What the row feeds, where the project has it: by its name, else by the name of its feeder.
    Ref knownTo(const FeederRow& row) const {
        if (const Ref named = nodeNamed(row.to)) return named;
        if (const CircuitId c = circuitTo(row)) return c;
        const auto found = row.tag.empty() ? runNamed.end() : runNamed.find(lowered(row.tag));
        return found != runNamed.end() && maybeRenamed(row, found->second) ? found->second : Ref{};
    }
    /// Whether what a feeder of that name feeds here can be what the list calls otherwise: fed from the same, of the
    /// kind that its new name says, and not listed by its own name.
    bool maybeRenamed(const FeederRow& row, Ref thing) const {
        if (rowsTo.count(bareName(nameOf(p, thing)))) return false;
        const FedKind kind = kindOf(row);
        if (const Circuit* c = p.circuits.find(thing.as<Circuit>()))
            return kind == FedKind::Load && nodeNamed(row.from) == Ref(c->board);
        if (boardBefore(feedOf(p, thing)) != nodeNamed(row.from)) return false;
        if (thing.is<Transformer>()) return kind == FedKind::Transformer;
        return kind != FedKind::Transformer && kind != FedKind::Load && p.boards[thing.as<Board>()].use == useOf(kind);
    }
    /// A load that is there: on the board that feeds it, by the name of its circuit or by its tag.
    CircuitId circuitTo(const FeederRow& row) const {
        const auto tagged = circuitOfTag.find(lowered(row.to));
        if (tagged != circuitOfTag.end()) return tagged->second;
        const auto named = circuitNamed.find({nodeNamed(row.from).as<Board>(), lowered(row.to)});
        return named == circuitNamed.end() ? CircuitId{} : named->second;
    }

    Ref ensureFrom(const std::string& name, std::size_t asked) {
        if (const Ref known = nodeNamed(name)) return known;
        if (rowsTo.count(bareName(name))) return {}; // refused, a load, or in a circle with this one
        if (const Ref source = theSource(name)) {
            nodes[bareName(name)] = source;
            out.notes.push_back(fmt::format("{} is taken to be the source {}", name, nameOf(p, source)));
            return source;
        }
        if (speaksOfSource(name)) return {}; // a list does not say what a source gives into a fault
        Board b;
        const FedKind kind = kindByName(name);
        b.use = kind == FedKind::Transformer || kind == FedKind::Unsaid ? BoardUse::Switchboard : useOf(kind);
        b.name = name;
        b.system = list.rows[asked].volts
                       ? systemOf(p, *list.rows[asked].volts, list.rows[asked].phases).value_or(usualSystem())
                       : usualSystem();
        const Ref made = addMade(b, {});
        out.notes.push_back(
            fmt::format("{} is made as {}; the list does not say what feeds it", name, withArticle(wordOf(b.use))));
        return made;
    }
    static bool speaksOfSupply(const std::string& name) {
        for (const std::string& word : headingWords(name))
            for (const char* supply : {"utility", "service", "supply", "grid", "network", "substation", "dno", "poco"})
                if (word == supply) return true;
        return false;
    }
    static bool speaksOfSource(const std::string& name) {
        const std::string letters = firstLetters(name);
        return speaksOfSupply(name) || letters == "g" || letters == "gen" || letters == "generator";
    }
    /// The one source of the project, where the name speaks of a supply.
    Ref theSource(const std::string& name) const {
        if (!speaksOfSupply(name)) return {};
        Ref one;
        for (const Source& s : p.sources) {
            if (s.kind == SourceKind::Generator) continue;
            if (one) return {};
            one = s.id;
        }
        return one;
    }
    VoltageSystem usualSystem() const {
        for (const Source& s : p.sources) return s.system;
        return p.basis.units == UnitSystem::Metric ? VoltageSystem::Y400 : VoltageSystem::Y480;
    }

    /// On the floor of what feeds it, and on no plan.
    Ref addMade(Board b, Ref from) {
        if (passesOn(b.use)) b.slots = 0;
        const bool metricBoard = b.use == BoardUse::Panelboard && isMetric(b.system) && factsOf(b.system).lines == 3;
        if (metricBoard || b.use == BoardUse::Busway) takeUsualWays(b);
        b.onPlan = false;
        b.level = levelOf(p, from);
        const BoardId id = addBoard(p, b);
        note(b.name, id);
        out.made.push_back(b.name);
        return id;
    }

    void make(std::size_t i, Ref from) {
        const FeederRow& row = list.rows[i];
        FeedersApplied::Row& told = out.rows[i];
        const VoltageSystem given = from ? systemGiven(p, from) : usualSystem();
        VoltageSystem system = given;
        if (row.volts && kindOf(row) != FedKind::Transformer) {
            const auto said = systemOf(p, *row.volts, row.phases);
            if (!said)
                return refuse(i, fmt::format("there is no voltage system of {} V{}", plain(*row.volts),
                                             row.phases ? fmt::format(" and {} phases", *row.phases) : ""));
            // Two lines of a three-phase system give single phase at the same volts: keep what is given, where it fits.
            const bool fits = sameVolts(*row.volts, factsOf(given).lineLine.v) &&
                              (!row.phases || factsOf(given).phases == *row.phases);
            system = fits ? given : *said;
        } else if (row.phases && factsOf(given).phases != *row.phases && kindOf(row) != FedKind::Transformer) {
            return refuse(i, fmt::format("{} phases are said and no volts: {} has {}", *row.phases,
                                         from ? nameOf(p, from) : "the supply", factsOf(given).phases));
        }
        if (kindOf(row) == FedKind::Transformer) return makeTransformer(i, given, from);
        Board b;
        b.name = row.to;
        b.use = useOf(kindOf(row));
        b.system = system;
        if (row.device) b.bus = *row.device; // the least that it has to be
        told.feeds = addMade(b, from);
        told.fresh = true;
        told.what.push_back(
            fmt::format("{} {} made, {} V, bus {} A", wordOf(b.use), b.name, wordOf(system), plain(b.bus)));
        if (!row.device)
            told.look.push_back(fmt::format("no device is listed: its bus is taken as {} A", plain(b.bus)));
    }
    void makeTransformer(std::size_t i, VoltageSystem primary, Ref from) {
        const FeederRow& row = list.rows[i];
        std::optional<VoltageSystem> secondary;
        for (const FeederRow& other : list.rows)
            if (other.enters() && other.volts && bareName(other.from) == bareName(row.to) && !secondary)
                secondary = systemOf(p, *other.volts, other.phases);
        if (!secondary) return refuse(i, fmt::format("{} is a transformer: no row from it says its volts", row.to));
        const bool sized = row.load && (row.unit == LoadUnit::kVA || row.unit == LoadUnit::VA);
        if (!sized || *row.load <= 0)
            return refuse(i, fmt::format("{} is a transformer: its load does not say its kVA", row.to));
        Transformer t;
        t.name = row.to;
        t.kva = *row.load / (row.unit == LoadUnit::VA ? 1000 : 1);
        t.primary = primary;
        t.secondary = *secondary;
        t.onPlan = false;
        t.level = levelOf(p, from);
        t.run = p.runs.add({});
        const TransformerId id = addFresh(p, &Project::transformers, t);
        note(t.name, id);
        out.made.push_back(t.name);
        out.rows[i].feeds = id;
        out.rows[i].fresh = true;
        out.rows[i].what.push_back(fmt::format("transformer {} made, {} kVA, {} – {} V", t.name, plain(t.kva),
                                               wordOf(t.primary), wordOf(t.secondary)));
        out.rows[i].look.push_back(
            fmt::format("its load is taken as its rating; {} % impedance and X/R {} are not listed", plain(t.percentZ),
                        plain(t.xOverR)));
    }

    // ---- feeds ----

    Ref boardBefore(Ref feed) const {
        const Circuit* c = p.circuits.find(feed.as<Circuit>());
        return c ? Ref(c->board) : feed;
    }
    void feed(std::size_t i) {
        const FeederRow& row = list.rows[i];
        FeedersApplied::Row& told = out.rows[i];
        const Ref from = row.from.empty() ? Ref{} : nodeNamed(row.from);
        if (!told.feeds) {
            if (kindOf(row) == FedKind::Load)
                feedLoad(i, from);
            else
                refuse(i, fmt::format("{} was not made: see the row that names it first", row.to));
            return;
        }
        if (told.feeds.is<Source>()) return refuse(i, nameOf(p, told.feeds) + " is a source: nothing feeds it");
        if (const CircuitId c = told.feeds.as<Circuit>()) {
            if (from && from != Ref(p.circuits[c].board))
                refuse(i, fmt::format("{} hangs on {} here", row.to, nameOf(p, p.circuits[c].board)));
            return;
        }
        if (!from) {
            if (!row.from.empty())
                told.look.push_back(speaksOfSource(row.from)
                                        ? fmt::format("there is no source {}: add it, then it can be fed", row.from)
                                        : fmt::format("{} is not there: it hangs free", row.from));
            return;
        }
        const Board* board = p.boards.find(told.feeds.as<Board>());
        if (boardBefore(feedOf(p, told.feeds)) == from) {
            claimed.insert(told.feeds);
            return;
        }
        const bool takesOver = board && (boardBefore(board->alternate) == from || claimed.count(told.feeds));
        if (takesOver) return alternate(i, board->id, from);
        if (claimed.count(told.feeds))
            return refuse(i, fmt::format("{} is fed by another row already", nameOf(p, told.feeds)));
        if (const auto bad = refuseFeed(p, told.feeds, from)) return refuse(i, bad->what);
        const Ref before = boardBefore(feedOf(p, told.feeds));
        feedFrom(p, told.feeds, from);
        claimed.insert(told.feeds);
        told.what.push_back(before ? fmt::format("fed from {} → {}", nameOf(p, before), nameOf(p, from))
                                   : fmt::format("fed from {}", nameOf(p, from)));
    }
    void alternate(std::size_t i, BoardId board, Ref from) {
        FeedersApplied::Row& told = out.rows[i];
        second.insert(i);
        if (boardBefore(p.boards[board].alternate) == from) return;
        if (const auto bad = refuseAlternate(p, board, from)) return refuse(i, bad->what);
        alternateFrom(p, board, from);
        told.what.push_back(fmt::format("taken over from {}", nameOf(p, from)));
    }
    /// Equipment on a feeder of its own.
    void feedLoad(std::size_t i, Ref from) {
        const FeederRow& row = list.rows[i];
        if (rowsTo[bareName(row.to)].front() != i) return refuse(i, row.to + " is fed by another row already");
        const BoardId board = from.as<Board>();
        if (!board || passesOn(p.boards[board].use))
            return refuse(i, fmt::format("{} is taken as a load, and {} has no places for circuits", row.to,
                                         row.from.empty() ? "nothing" : row.from));
        const int lines = factsOf(p.boards[board].system).lines;
        const int poles = std::min(lines, row.phases ? (*row.phases == 3 ? 3 : onePhasePoles(row, board)) : lines);
        if (row.phases && *row.phases > lines)
            return refuse(
                i, fmt::format("{} has {}, the load takes {}", nameOf(p, board), counted(lines, "line"), *row.phases));
        const CircuitId made = addCircuit(p, board, poles, row.to);
        if (p.circuits[made].slot == 0) {
            removeCircuit(p, made);
            return refuse(i, fmt::format("{} has no free place for {}", nameOf(p, board), counted(poles, "pole")));
        }
        out.rows[i].feeds = made;
        out.rows[i].fresh = true;
        out.rows[i].what.push_back(fmt::format("load {} made on {}", row.to, nameOf(p, made)));
        out.made.push_back(row.to);
    }
    int onePhasePoles(const FeederRow& row, BoardId board) const {
        const VoltageSystem s = p.boards[board].system;
        return row.volts && factsOf(s).lines > 1 && sameVolts(*row.volts, voltsAcross(s, 2).v) ? 2 : 1;
    }

    // ---- what is written ----

    void changed(std::size_t i, const char* word, const std::string& before, const std::string& after) {
        if (before == after) return;
        out.rows[i].what.push_back(before.empty() ? fmt::format("{} {}", word, after)
                                                  : fmt::format("{} {} → {}", word, before, after));
    }
    static Run& runFor(Project& p, Ref r, bool other) { return other ? alternateRunOf(p, r.as<Board>()) : runOf(p, r); }

    void enter(std::size_t i) {
        const FeederRow& row = list.rows[i];
        const Ref feeds = out.rows[i].feeds;
        if (!feeds) return;
        rename(i);
        Run run = runFor(p, feeds, second.count(i) > 0); // a copy: told first, then put
        const Run before = run;
        if (!row.tag.empty()) run.name = row.tag;
        if (row.length) {
            run.lengthBy = LengthBy::Entered;
            run.length = *row.length;
        }
        if (!row.size.empty()) {
            run.heldSize = row.size;
            run.heldSets = std::max(1, row.sets);
        }
        if (!row.ground.empty()) {
            if (hasGround(feeds))
                run.heldGround = row.ground;
            else
                out.rows[i].look.push_back(
                    fmt::format("its ground {} is not held: what is fed straight from a source or "
                                "transformer has a bonding jumper, sized by its lines",
                                row.ground));
        }
        if (row.material) run.material = row.material;
        if (!row.conduitType.empty()) run.conduit = row.conduitType;
        if (!row.cable.empty()) run.cable = row.cable;
        if (!row.conduit.empty()) run.listedConduit = row.conduit;
        if (!row.drawing.empty()) run.reference = row.drawing;
        if (row.faultKA) run.listedKA = *row.faultKA;
        if (row.load) run.listedVA = voltAmperes(row, feeds);
        tell(i, before, run);
        runFor(p, feeds, second.count(i) > 0) = run;
        device(i);
        load(i);
    }
    /// Whether a protective conductor by the rating of a device goes with its lines (250.122; not 250.102).
    bool hasGround(Ref feeds) const {
        if (book.metric() || feeds.is<Circuit>()) return true;
        Ref from = feedOf(p, feeds);
        while (const Board* b = p.boards.find(from.as<Board>())) {
            if (!passesOn(b->use) || b->main > 0) return true;
            from = b->feed;
        }
        return from.is<Circuit>();
    }
    void rename(std::size_t i) {
        const FeederRow& row = list.rows[i];
        const Ref feeds = out.rows[i].feeds;
        if (bareName(nameOf(p, feeds)) == bareName(row.to) || feeds.is<Circuit>()) return;
        changed(i, "name", nameOf(p, feeds), row.to); // known by its feeder, and called otherwise here
        if (Board* b = p.boards.change(feeds.as<Board>())) b->name = row.to;
        if (Transformer* t = p.transformers.change(feeds.as<Transformer>())) t->name = row.to;
        note(row.to, feeds);
    }
    void tell(std::size_t i, const Run& before, const Run& after) {
        const UnitSystem units = p.basis.units;
        const auto length = [&](const Run& r) {
            return r.lengthBy == LengthBy::Entered ? lengthWords(Metres{r.length}, units) : std::string();
        };
        const auto kA = [](const Run& r) { return r.listedKA > 0 ? plain(r.listedKA) + " kA" : ""; };
        const auto va = [](const Run& r) { return r.listedVA > 0 ? kilo(r.listedVA) + " kVA" : ""; };
        const auto material = [](const Run& r) {
            return r.material ? std::string(wordOf(*r.material)) : std::string();
        };
        changed(i, "feeder", before.name, after.name);
        changed(i, "length", length(before), length(after));
        changed(i, "conductors held at", heldSizeText(before), heldSizeText(after));
        changed(i, "ground held at", before.heldGround, after.heldGround);
        changed(i, "of", material(before), material(after));
        changed(i, "conduit of", before.conduit, after.conduit);
        changed(i, "cable", before.cable, after.cable);
        changed(i, "conduit as listed", before.listedConduit, after.listedConduit);
        changed(i, "drawing", before.reference, after.reference);
        changed(i, "fault as listed", kA(before), kA(after));
        changed(i, "load as listed", va(before), va(after));
    }
    void device(std::size_t i) {
        const FeederRow& row = list.rows[i];
        const Ref feeds = out.rows[i].feeds;
        if (!row.device) return;
        CircuitId head = feeds.as<Circuit>();
        if (const Board* b = p.boards.find(feeds.as<Board>()))
            head = (second.count(i) ? b->alternate : b->feed).as<Circuit>();
        if (const Transformer* t = p.transformers.find(feeds.as<Transformer>())) head = t->feed.as<Circuit>();
        if (Circuit* c = p.circuits.change(head)) {
            changed(i, "device held at", c->heldBreaker ? plain(*c->heldBreaker) + " A" : "",
                    plain(*row.device) + " A");
            c->heldBreaker = *row.device;
            return;
        }
        Board* b = p.boards.change(feeds.as<Board>()); // fed straight: the device is its own
        if (b && !second.count(i)) {
            changed(i, "main", b->main > 0 ? plain(b->main) + " A" : "", plain(*row.device) + " A");
            b->main = *row.device;
            return;
        }
        out.rows[i].look.push_back(
            fmt::format("no circuit of a board feeds it: its device of {} A has no place", plain(*row.device)));
    }

    /// 0 of horsepower: what a motor takes follows from its load.
    double voltAmperes(const FeederRow& row, Ref feeds) const {
        if (row.unit == LoadUnit::hp) return 0;
        VoltageSystem system = usualSystem();
        int poles = 3;
        if (const Circuit* c = p.circuits.find(feeds.as<Circuit>())) {
            system = p.boards[c->board].system;
            poles = c->poles;
        } else if (feeds.is<Board>() || feeds.is<Transformer>()) {
            system = systemTaken(p, feeds);
            poles = factsOf(system).lines;
        }
        return magnitude(powerOf(*row.load, row.unit, p.basis.powerFactor, system, poles, book));
    }
    /// The load of what it feeds: of equipment, and of a board that has nothing of its own.
    void load(std::size_t i) {
        const FeederRow& row = list.rows[i];
        const FeedersApplied::Row& told = out.rows[i];
        if (!row.load || second.count(i) || told.feeds.is<Transformer>()) return;
        if (const CircuitId c = told.feeds.as<Circuit>()) return put(i, c, row.to, kindOfLoad(row));
        const BoardId board = told.feeds.as<Board>();
        if (!board || passesOn(p.boards[board].use)) return;
        if (const auto listed = listedOn.find(board); listed != listedOn.end())
            return put(i, listed->second, std::string(listedLoadName), LoadKind::Equipment);
        if (feedsSomething.count(bareName(row.to))) return; // what it feeds says its load
        if (withCircuits.count(board)) return;              // it has circuits of its own
        const int poles = factsOf(p.boards[board].system).lines;
        const CircuitId made = addCircuit(p, board, poles, std::string(listedLoadName));
        put(i, made, std::string(listedLoadName), LoadKind::Equipment);
    }
    /// Whether a load that is entered otherwise, as 20 hp, comes to what the list says.
    bool sameLoad(const Load& load, const FeederRow& row) const {
        constexpr double near = 0.01; // lists are written to three or four figures
        const Circuit& c = p.circuits[load.circuit];
        const double now = load.quantity * magnitude(powerOf(load.amount, load.unit, load.powerFactor,
                                                             p.boards[c.board].system, c.poles, book));
        const double listed = row.unit == LoadUnit::hp && load.unit == LoadUnit::hp
                                  ? now * *row.load / std::max(1e-9, load.amount * load.quantity)
                                  : voltAmperes(row, load.circuit);
        return listed > 0 && std::abs(listed - now) <= near * std::max(listed, now);
    }
    LoadKind kindOfLoad(const FeederRow& row) const {
        if (row.unit == LoadUnit::hp) return LoadKind::Motor;
        return LoadWords::shipped().kindOf(row.to).value_or(LoadKind::Equipment);
    }
    void put(std::size_t i, CircuitId circuit, const std::string& name, LoadKind kind) {
        const FeederRow& row = list.rows[i];
        Load now;
        now.name = name;
        now.kind = kind;
        now.circuit = circuit;
        now.poles = p.circuits[circuit].poles;
        now.powerFactor = row.unit == LoadUnit::hp ? 1 : p.basis.powerFactor;
        const std::vector<LoadId>& there = loadsOf[circuit];
        if (there.size() > 1) {
            out.rows[i].look.push_back(
                fmt::format("{} carries several loads, which stay as they are", nameOf(p, circuit)));
            return;
        }
        if (there.empty() && drawn.count(circuit)) {
            out.rows[i].look.push_back(
                fmt::format("the load of {} comes from the plan, and stays as it is", nameOf(p, circuit)));
            return;
        }
        if (there.size() == 1) {
            now = p.loads[there.front()];
            if (sameLoad(now, row)) return;
        }
        const std::string before = there.empty() ? "" : plain(now.amount) + " " + wordOf(now.unit);
        now.amount = *row.load;
        now.unit = row.unit;
        changed(i, "load", before, plain(now.amount) + " " + wordOf(now.unit));
        if (there.empty())
            p.loads.add(now);
        else
            *p.loads.change(now.id) = now;
    }

    // ---- what it came to ----

    /// Runs that are called as a row's feeder is, and are of something else.
    void findTwice() {
        std::multimap<std::string, Ref> all;
        eachNamedRun([&](const std::string& name, Ref owner) { all.emplace(lowered(name), owner); });
        for (std::size_t i = 0; i < list.rows.size(); ++i) {
            if (!out.rows[i].feeds || out.rows[i].refused || list.rows[i].tag.empty()) continue;
            const auto [first, last] = all.equal_range(lowered(list.rows[i].tag));
            for (auto other = first; other != last; ++other)
                if (other->second != out.rows[i].feeds)
                    out.rows[i].look.push_back(
                        fmt::format("{} is the feeder of {} too", list.rows[i].tag, nameOf(p, other->second)));
        }
    }

    void count() {
        std::set<std::string> listed;
        for (const FeederRow& row : list.rows) listed.insert(lowered(row.tag)); // also where the row itself stays out
        for (std::size_t i = 0; i < list.rows.size(); ++i) {
            if (!list.rows[i].enters()) continue;
            const FeedersApplied::Row& row = out.rows[i];
            if (row.refused)
                ++out.refused;
            else if (row.fresh)
                ++out.added;
            else if (!row.what.empty())
                ++out.changed;
            else
                ++out.same;
        }
        eachNamedRun([&](const std::string& name, Ref owner) {
            if (!owner.is<Circuit>() && !listed.count(lowered(name))) out.gone.push_back(name);
        });
    }
};

} // namespace

FeedersApplied applyFeeders(Project& project, const RuleBook& book, const FeederList& list) {
    return Entering(project, book, list).run();
}

} // namespace lintel
