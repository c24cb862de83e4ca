#include "core/solve/Solver.h"

#include "core/solve/States.h"

namespace lintel {

MotorDevice motorDeviceOf(const RuleBook& book, DeviceKind kind) {
    const auto it = book.tables.motorDevices.find(kind);
    return it == book.tables.motorDevices.end() ? MotorDevice{} : it->second;
}

double transformerPrimaryRating(double amps, const RuleBook& book) {
    const double share = bandOf(book.tables.transformerPrimaryOnly, amps);
    if (nextRatingAllowed(book.tables.transformerPrimaryOnly, amps)) return book.ratingAtOrAbove(amps * share);
    const double breaker = book.ratingAtOrBelow(amps * share, DeviceKind::Breaker);
    return breaker > 0 ? breaker : book.ratingAtOrBelow(amps * share, DeviceKind::TimeDelayFuse);
}

bool nextRatingAllowed(const std::vector<Band>& bands, double amps) {
    return bands.size() < 2 || amps >= bands[bands.size() - 2].upTo - 1e-9;
}

double bandOf(const std::vector<Band>& bands, double v) {
    for (const Band& b : bands)
        if (v < b.upTo - 1e-9) return b.value;
    return bands.back().value;
}

double smallestBreakerOf(const Basis& basis, LoadKind use) {
    const auto own = basis.smallestBreakerByUse.find(wordOf(use));
    return own == basis.smallestBreakerByUse.end() ? basis.smallestBreaker : own->second;
}

Solver::Solver(const Project& project, const RuleBook& rulebook, Results& results)
    : p(project), book(rulebook), r(results), rules(sizingRules(project.basis, rulebook)) {
    for (const Source& s : p.sources) anyOwnSubstation = anyOwnSubstation || s.ownSubstation;
    smallestFeeder = std::max(0, book.find(p.basis.smallestBranch));
    for (std::size_t k = 0; k < loadKinds; ++k) {
        smallestBranch[k] = std::max(smallestFeeder, book.leastFor(LoadKind(k)));
        smallestBreaker[k] = smallestBreakerOf(p.basis, LoadKind(k));
        if (const auto own = p.basis.smallestByUse.find(wordOf(LoadKind(k))); own != p.basis.smallestByUse.end())
            if (const SizeIndex s = book.find(own->second); s >= 0) smallestBranch[k] = s;
    }
    if (book.metric()) {
        for (const Section& s : p.sections) sections[s.board].push_back(&s);
        branchCable = cableOf(p.basis.branchCable, book.cables.usualBranch);
        feederCable = cableOf(p.basis.feederCable, book.cables.usualFeeder);
    }
    cableByUse.fill(branchCable);
    wiringByUse.fill(p.basis.wiring == Wiring::Default ? Wiring::Conduit : p.basis.wiring);
    for (const auto& [kind, laid] : p.basis.wiringByUse) {
        const auto k = fromWord<LoadKind>(kind);
        if (k && book.metric())
            cableByUse[std::size_t(*k)] = cableOf(laid, book.cables.usualBranch);
        else if (const auto w = fromWord<Wiring>(laid); k && w && *w != Wiring::Default)
            wiringByUse[std::size_t(*k)] = *w;
    }
    const ConduitType* conduit = p.basis.conduit.empty() ? nullptr : book.conduit(p.basis.conduit);
    racewayOfBasis = conduit ? conduit->raceway : p.basis.raceway;
}

void Solver::all() {
    r.boards.assign(p.boards.highest() + 1, {});
    r.transformers.assign(p.transformers.highest() + 1, {});
    r.sources.assign(p.sources.highest() + 1, {});
    atOnce(
        many(), [this] { r.circuits.resize(p.circuits.highest() + 1); }, [this] { t = findTopology(p, r); });
    lightByArea();
    r.present.note(Results::Trait::NoCircuit, !t.loadsOf({}).empty());
    r.onBoardFrom = t.circuitsOfBoard;
    r.onBoards.resize(t.circuits.size());
    eachBoard([this](const Board& b, Part& part) { gatherOwn(b, part.present); });
    for (auto it = t.order.rbegin(); it != t.order.rend(); ++it) gather(*it);
    settleAll();
    if (raiseCheapest()) settleAll();
}

void Solver::settleAll() {
    overTotal.clear();
    beforeLugs.assign(r.boards.size(), {});
    for (Ref node : t.order) settle(node);
    eachBoard([this](const Board& b, Part& part) { settleBranches(b, part); });
}

void Solver::lightByArea() {
    const double unit =
        p.basis.lightingAreaOf == "dwelling" ? book.tables.dwellingLighting : book.areaLighting(p.basis.lightingAreaOf);
    if (unit <= 0) return;
    const Source* supply = nullptr;
    for (const Source& s : p.sources) {
        if (s.kind == SourceKind::Generator) continue;
        if (supply) return; // of several, nobody knows which one lights what
        supply = &s;
    }
    if (!supply) return;
    double area = 0; // ft²
    for (const Room& room : p.rooms) area += areaOf(room.outline) / (metresPerFoot * metresPerFoot);
    r.sources[supply->id.value].lightingFloor = area * unit;
}

Results solve(const Project& entered, const RuleBook& book) {
    Results r;
    Solver(entered, book, r).all();
    solveStates(entered, book, r);
    return r;
}

} // namespace lintel
