#include "core/plan/AutoCircuit.h"

#include "core/base/Whole.h"
#include "core/plan/Snap.h"
#include "core/project/LoadWords.h"
#include "core/project/Operations.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>
#include <set>

namespace lintel {
namespace {

constexpr double farthestStep = 10; ///< m from one point of an automatic circuit to the next, once it is a third full

struct Candidate {
    DeviceId id;
    Point at;
    RoomId room;
    std::string leg;
    LoadKind kind;
    int poles = 1;
    bool continuous = false, motor = false, lifeSafety = false;
    CatchmentId catchment;
    std::vector<BoardId> boards; ///< that may take it, nearest first
};

struct BoardState {
    int free = 0;    ///< places left, of one pole
    double room = 0; ///< VA left up to its bus
};

struct Circuiter {
    Project& p;
    const RuleBook& book;
    CircuitingReport report;
    std::map<BoardId, BoardState> boards;
    std::map<BoardId, CircuitingReport::Share> shares;

    double vaOf(const Candidate& c, BoardId board) const {
        const Device& d = p.devices[c.id];
        const DeviceType& y = p.deviceTypes[d.type];
        return std::abs(powerOf(d.load.value_or(y.load), y.unit, y.powerFactor, p.boards[board].system,
                                std::min(y.poles, factsOf(p.boards[board].system).lines), book));
    }
    double ampsOn(const Candidate& c, BoardId board) const {
        const VoltageSystem system = p.boards[board].system;
        return ampsOf(vaOf(c, board), system, std::min(c.poles, factsOf(system).lines)).v;
    }

    void countBoards() {
        for (const Board& b : p.boards)
            boards[b.id] = {freeSlots(p, b.id), b.bus * voltsAcross(b.system, std::min(3, factsOf(b.system).lines)).v *
                                                    (factsOf(b.system).lines >= 3 ? std::sqrt(3.0) : 1)};
        for (const Device& d : p.devices)
            if (const Circuit* c = p.circuits.find(d.circuit))
                if (const DeviceType* y = p.deviceTypes.find(d.type))
                    boards[c->board].room -= std::abs(powerOf(d.load.value_or(y->load), y->unit, y->powerFactor,
                                                              p.boards[c->board].system, y->poles, book));
        for (const Load& l : p.loads)
            if (const Circuit* c = p.circuits.find(l.circuit))
                boards[c->board].room -= l.quantity * std::abs(powerOf(l.amount, l.unit, l.powerFactor,
                                                                       p.boards[c->board].system, l.poles, book));
    }

    /// Takes apart what an earlier run made and nobody has pinned since.
    void release(const std::set<LevelId>& levels) {
        std::set<CircuitId> other;
        for (const Device& d : p.devices)
            if (!levels.count(d.level)) other.insert(d.circuit);
        for (const Load& l : p.loads) other.insert(l.circuit);
        std::vector<CircuitId> old;
        for (const Circuit& c : p.circuits)
            if (c.automatic && !c.pinned && !other.count(c.id)) old.push_back(c.id);
        for (CircuitId c : old) removeCircuit(p, c);
        report.remade = int(old.size());
    }

    bool takes(const Serving& s, const Candidate& c) const {
        const Board* b = p.boards.find(s.board);
        if (!b || factsOf(b->system).lines < c.poles || s.lifeSafety != c.lifeSafety) return false;
        return s.kinds.empty() || std::find(s.kinds.begin(), s.kinds.end(), wordOf(c.kind)) != s.kinds.end();
    }
    /// Farther counts more, another level far more: the nearest of those that may take it comes first.
    double away(const Candidate& c, BoardId id) const {
        const Board& b = p.boards[id];
        if (!b.onPlan) return 1e4; // how far nobody knows: after those that stand on a plan
        return orthogonal(b.at, c.at) + (b.level == p.devices[c.id].level ? 0 : 50);
    }

    /// Where a level has no catchment at all, its panelboards serve the whole of it.
    bool impliedOn(LevelId level) const {
        return std::none_of(p.catchments.begin(), p.catchments.end(),
                            [&](const Catchment& k) { return k.level == level; }) &&
               std::any_of(p.boards.begin(), p.boards.end(),
                           [&](const Board& b) { return b.level == level && b.use == BoardUse::Panelboard; });
    }
    std::vector<Candidate> candidates(const std::set<LevelId>& levels) {
        std::vector<Candidate> out;
        for (const Device& d : p.devices) {
            if (d.circuit || !levels.count(d.level)) continue;
            const DeviceType& y = p.deviceTypes[d.type];
            if (d.load.value_or(y.load) <= 0) continue; // switches and the like take no circuit of their own
            Candidate c;
            c.id = d.id, c.at = d.at, c.leg = d.leg, c.kind = y.kind, c.poles = y.poles, c.continuous = y.continuous,
            c.lifeSafety = y.lifeSafety;
            c.motor = y.kind == LoadKind::Motor || y.kind == LoadKind::Vertical || y.unit == LoadUnit::hp;
            c.room = roomAt(p, d.level, d.at);
            c.catchment = catchmentAt(p, d.level, d.at);
            if (const Catchment* k = p.catchments.find(c.catchment))
                for (const Serving& s : k->boards)
                    if (takes(s, c)) c.boards.push_back(s.board);
            if (impliedOn(d.level))
                for (const Board& b : p.boards)
                    if (b.level == d.level && b.use == BoardUse::Panelboard && takes({b.id, {}, false}, c))
                        c.boards.push_back(b.id);
            std::sort(c.boards.begin(), c.boards.end(), [&](BoardId one, BoardId two) {
                return std::pair{away(c, one), one.value} < std::pair{away(c, two), two.value};
            });
            out.push_back(std::move(c));
        }
        return out;
    }

    /// A large device wants a switchboard, a large motor a motor control centre; a small one keeps off both where it
    /// can.
    void orderBySize(Candidate& c) const {
        if (c.boards.empty()) return;
        const auto rank = [&](BoardId b) {
            const BoardUse use = p.boards[b].use;
            const bool large = ampsOn(c, b) > p.basis.panelboardUpTo;
            if (!large) return use == BoardUse::Panelboard ? 0 : c.motor && use == BoardUse::MotorControl ? 0 : 1;
            if (c.motor) return use == BoardUse::MotorControl ? 0 : use == BoardUse::Switchboard ? 1 : 2;
            return use == BoardUse::Switchboard ? 0 : use == BoardUse::MotorControl ? 2 : 1;
        };
        std::stable_sort(c.boards.begin(), c.boards.end(), [&](BoardId x, BoardId y) { return rank(x) < rank(y); });
    }
    bool alone(const Candidate& c, BoardId board) const {
        return c.poles > 1 || ampsOn(c, board) > p.basis.ownCircuitFrom + 1e-9 ||
               LoadWords::shipped().standsAlone(p.deviceTypes[p.devices[c.id].type].name);
    }

    /// One circuit on the first of the boards that has a place and the power for it.
    bool make(const std::vector<const Candidate*>& list, const std::vector<BoardId>& choice) {
        for (const bool heedPower : {true, false}) // a board over its bus is better than no circuit: a snag tells of it
            for (BoardId b : choice) {
                double va = 0;
                for (const Candidate* c : list) va += vaOf(*c, b);
                BoardState& state = boards[b];
                const int poles = std::min(list.front()->poles, factsOf(p.boards[b].system).lines);
                if (state.free < poles || (heedPower && va > state.room) || !firstFreeSlot(p, b, poles)) continue;
                std::vector<DeviceId> devices;
                for (const Candidate* c : list) devices.push_back(c->id);
                std::sort(devices.begin(), devices.end());
                const CircuitId made = circuitToBoard(p, devices, b);
                p.circuits.change(made)->automatic = true;
                state.free -= poles, state.room -= va;
                CircuitingReport::Share& s = shares[b];
                s.board = b, ++s.circuits, s.devices += int(devices.size()), s.va += va;
                ++report.circuits, report.devices += int(devices.size());
                return true;
            }
        return false;
    }
    void leave(const Candidate& c, const std::string& why) { report.left.push_back({c.id, why}); }

    /// What goes on a circuit together: the luminaires of one switch leg, or a single device.
    struct Unit {
        std::vector<const Candidate*> list;
        double amps = 0, held = 0;
        const Candidate* first() const { return list.front(); }
    };
    /// A leg that is too much for one circuit is taken device by device.
    template <class Amps>
    std::vector<Unit> unitsOf(const std::vector<const Candidate*>& list, const Amps& amps, double most, double breaker,
                              std::size_t mostPoints) const {
        std::map<std::tuple<std::uint32_t, std::uint32_t, std::string>, Unit> legs; // by level, room and letter
        std::vector<Unit> units;
        const auto add = [&](Unit& u, const Candidate* c) {
            u.list.push_back(c);
            u.amps += amps(c);
            u.held += amps(c) * (c->continuous ? 1.25 : 1);
        };
        const auto single = [&](const Candidate* c) {
            Unit u;
            add(u, c);
            units.push_back(std::move(u));
        };
        for (const Candidate* c : list) {
            if (c->leg.empty())
                single(c);
            else
                add(legs[{p.devices[c->id].level.value, c->room.value, c->leg}], c);
        }
        for (auto& [key, leg] : legs) {
            if (leg.amps <= most + 1e-9 && leg.held <= breaker + 1e-9 && leg.list.size() <= mostPoints)
                units.push_back(std::move(leg));
            else
                for (const Candidate* c : leg.list) single(c);
        }
        return units;
    }

    void circuit(std::vector<Candidate> all) {
        for (Candidate& c : all) orderBySize(c);
        // Own circuits first: they cannot go anywhere else.
        std::map<std::tuple<std::uint32_t, int, bool>, std::vector<const Candidate*>> groups; // by nearest board, kind
        for (const Candidate& c : all) {
            if (c.boards.empty()) {
                leave(c, !c.catchment && !impliedOn(p.devices[c.id].level) ? "it lies in no catchment"
                         : c.lifeSafety                                    ? "no board here takes life safety"
                                        : fmt::format("no board of its catchment takes {}{}", wordOf(c.kind),
                                                      c.poles > 1 ? fmt::format(" of {} poles", c.poles) : ""));
                continue;
            }
            if (alone(c, c.boards.front())) {
                if (!make({&c}, c.boards)) leave(c, "the boards of its catchment are full");
            } else {
                groups[{c.boards.front().value, int(c.kind), c.lifeSafety}].push_back(&c);
            }
        }
        for (auto& [key, list] : groups) {
            const BoardId board{std::get<0>(key)};
            const double breaker = smallestBreakerFor(p.basis, LoadKind(std::get<1>(key)));
            const auto amps = [&](const Candidate* c) { return ampsOn(*c, board); };
            // How many circuits it takes at least; then they are filled alike, so that the last is not a leftover.
            double sum = 0, held = 0;
            for (const Candidate* c : list) sum += amps(c), held += amps(c) * (c->continuous ? 1.25 : 1);
            const double most = breaker * p.basis.circuitShare;
            const int alone = int(list.size()); // a circuit each
            int n = std::max(wholeWithin(std::ceil(sum / most - 1e-9), 1, alone),
                             wholeWithin(std::ceil(held / breaker - 1e-9), 1, alone));
            if (p.basis.circuitPoints > 0)
                n = std::max(n, int((list.size() + std::size_t(p.basis.circuitPoints) - 1) /
                                    std::size_t(p.basis.circuitPoints)));
            const std::size_t points = (list.size() + std::size_t(n) - 1) / std::size_t(n);
            const std::size_t mostPoints =
                p.basis.circuitPoints > 0 ? std::max(points, std::size_t(p.basis.circuitPoints)) : list.size();
            std::vector<Unit> left = unitsOf(list, amps, most, breaker, mostPoints);
            const Point from = p.boards[board].at;
            while (!left.empty()) {
                // From the farthest on: what is left at the end lies near the board.
                const auto farther = [&](const Unit& x, const Unit& y) {
                    return std::pair{orthogonal(from, x.first()->at), y.first()->id.value} <
                           std::pair{orthogonal(from, y.first()->at), x.first()->id.value};
                };
                const auto begin = std::max_element(left.begin(), left.end(), farther);
                std::vector<const Candidate*> on = begin->list;
                double a = begin->amps, h = begin->held;
                left.erase(begin);
                while (!left.empty() && on.size() < points) {
                    const Candidate* last = on.back();
                    const auto cost = [&](const Unit& u) { // the same room and the same switch leg hold together
                        const Candidate* c = u.first();
                        return std::pair{orthogonal(last->at, c->at) + (c->room != last->room ? 6 : 0) +
                                             (c->leg != last->leg ? 4 : 0),
                                         c->id.value};
                    };
                    const auto fits = [&](const Unit& u) {
                        const std::size_t then = on.size() + u.list.size();
                        return a + u.amps <= most + 1e-9 && h + u.held <= breaker + 1e-9 &&
                               (then <= points || (u.list.size() > 1 && then <= mostPoints));
                    };
                    auto next = left.end();
                    for (auto it = left.begin(); it != left.end(); ++it)
                        if (fits(*it) && (next == left.end() || cost(*it) < cost(*next))) next = it;
                    if (next == left.end()) break;
                    // A circuit that is a third full does not cross the building for the rest of it.
                    if (on.size() * 3 >= points && orthogonal(last->at, next->first()->at) > farthestStep) break;
                    on.insert(on.end(), next->list.begin(), next->list.end());
                    a += next->amps;
                    h += next->held;
                    left.erase(next);
                }
                if (!make(on, on.front()->boards))
                    for (const Candidate* c : on) leave(*c, "the boards of its catchment are full");
            }
        }
    }

    /// A board for what lies in no catchment: near the middle of its load, on a wall, as large as it needs.
    void propose(const std::set<LevelId>& levels) {
        for (LevelId level : levels) {
            if (impliedOn(level)) continue;
            double sum = 0;
            Point middle;
            int poles = 1, points = 0, own = 0;
            VoltageSystem system = book.trade.board.system;
            for (const Board& b : p.boards)
                if (b.use == BoardUse::Panelboard) system = b.system; // as the project's others are
            for (const Device& d : p.devices) {
                const DeviceType& y = p.deviceTypes[d.type];
                if (d.level != level || d.circuit || d.load.value_or(y.load) <= 0 || catchmentAt(p, level, d.at))
                    continue;
                const double va =
                    std::abs(powerOf(d.load.value_or(y.load), y.unit, y.powerFactor, system, y.poles, book));
                middle = middle + d.at * va, sum += va, poles = std::max(poles, y.poles);
                if (y.poles > 1 || ampsOf(va, system, y.poles).v > p.basis.ownCircuitFrom)
                    own += y.poles;
                else
                    ++points;
            }
            if (sum <= 0) continue;
            if (factsOf(system).lines < poles) system = book.trade.board.system;
            Board b;
            b.system = system;
            b.name = freeBoardName(p, book.trade.board.name);
            b.form = book.trade.board.form;
            b.level = level;
            const SnapResult wall = snapToWall(p, level, middle * (1 / sum), 6);
            b.at = wall.onWall ? wall.at : middle * (1 / sum), b.turn = wall.turn;
            const double amps = ampsOf(sum, system, std::min(3, factsOf(system).lines)).v * 1.25;
            b.bus = book.trade.board.busFor(amps).value_or(book.trade.board.buses.back());
            // A quarter more places than circuits are likely to need.
            const double perPoints = p.basis.circuitPoints > 0 ? points / double(p.basis.circuitPoints) : 0,
                         perAmps = sum / (voltsAcross(system, 1).v * p.basis.smallestBreaker * p.basis.circuitShare);
            const double need = (own + std::max(perPoints, perAmps) + 3) * 1.25;
            b.slots = 84;
            for (int slots : book.trade.board.places)
                if (slots >= need) {
                    b.slots = slots;
                    break;
                }
            const BoardId id = addBoard(p, b);
            report.boards.push_back(id);
            Catchment k;
            k.level = level;
            k.name = p.boards[id].name;
            k.boards.push_back({id, {}, false});
            p.catchments.add(k);
        }
    }
};

} // namespace

double smallestBreakerFor(const Basis& basis, LoadKind kind) {
    const auto own = basis.smallestBreakerByUse.find(wordOf(kind));
    return own == basis.smallestBreakerByUse.end() ? basis.smallestBreaker : own->second;
}

CatchmentId catchmentAt(const Project& p, LevelId level, Point at) {
    CatchmentId best;
    double least = 1e18;
    for (const Catchment& c : p.catchments) {
        if (c.level != level) continue;
        const double area = c.outline.size() < 3 ? 1e17 : areaOf(c.outline);
        if (area < least && (c.outline.size() < 3 || contains(c.outline, at))) least = area, best = c.id;
    }
    return best;
}

CircuitingReport circuitAutomatically(Project& p, const RuleBook& book, const std::vector<LevelId>& list,
                                      bool propose) {
    const std::set<LevelId> levels(list.begin(), list.end());
    Circuiter c{p, book, {}, {}, {}};
    c.release(levels);
    if (propose) c.propose(levels);
    c.countBoards();
    c.circuit(c.candidates(levels));
    for (const auto& [id, s] : c.shares) c.report.shares.push_back(s);
    return c.report;
}

} // namespace lintel
