// The ten results of docs/verification.md: what stands there as worked by hand, the program still gives.

#include "core/project/ProjectFile.h"
#include "core/solve/RunParts.h"
#include "tests/World.h"

using namespace lintel;

namespace {
struct Demo {
    Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    Results r = solve(p, nec());
    CircuitId circuit(const std::string& name) const {
        for (const Circuit& c : p.circuits)
            if (nameOf(p, c.id) == name) return c.id;
        throw std::runtime_error("no circuit " + name);
    }
    BoardId board(const std::string& name) const {
        for (const Board& b : p.boards)
            if (b.name == name) return b.id;
        throw std::runtime_error("no board " + name);
    }
    TransformerId transformer(const std::string& name) const {
        for (const Transformer& t : p.transformers)
            if (t.name == name) return t.id;
        throw std::runtime_error("no transformer " + name);
    }
};
std::string sizeName(SizeIndex s) { return s < 0 ? "" : nec().sizes()[std::size_t(s)].name; }
} // namespace

TEST_CASE("the ten hand checks of the verification page") {
    const Demo d;
    const CircuitResult &bicycle = d.r.of(d.circuit("LP-1-27")), &washer = d.r.of(d.circuit("LP-1-17")),
                        &fan = d.r.of(d.circuit("HM-2-2")), &roof = d.r.of(d.circuit("HM-1-1")),
                        &charger = d.r.of(d.circuit("EV-1-1"));
    CHECK(bicycle.run.dropBefore == Approx(25.547).margin(0.01));
    CHECK(bicycle.run.state == Sizing::PastCeiling);
    CHECK(washer.load.v == Approx(16.654).margin(0.001));
    CHECK(washer.run.dropOwn == Approx(1.638).margin(0.001));
    CHECK(fan.required.v == Approx(26.25));
    CHECK(fan.device == 60);
    CHECK(sizeName(fan.run.size) == "10");
    CHECK(fan.run.dropOwn == Approx(1.7595 / 4.8).epsilon(1e-3));
    CHECK(roof.required.v == Approx(61.64).margin(0.01));
    CHECK(roof.device == 80);
    CHECK(sizeName(roof.run.size) == "6");
    CHECK(charger.required.v == Approx(24.958).margin(0.001));
    CHECK(charger.device == 25);
    CHECK(sizeName(charger.run.size) == "10");
    const BoardResult &stalls = d.r.of(d.board("SP-1")), &main = d.r.of(d.board("MDS")),
                      &market = d.r.of(d.board("LP-1")), &kitchens = d.r.of(d.board("LP-4"));
    CHECK(stalls.demand == Approx(19465));
    CHECK(stalls.demandAmps.v == Approx(54.03).margin(0.01));
    CHECK(d.r.of(d.p.sources.begin()->id).fault.threePhase == Approx(20.918).margin(0.001));
    CHECK(main.fault.threePhase == Approx(19.5036).margin(0.001));
    const TransformerResult &t1 = d.r.of(d.transformer("T-1")), &t2 = d.r.of(d.transformer("T-2"));
    CHECK(t1.fault.threePhase == Approx(16.7158).margin(0.001));
    CHECK(t1.secondary.threePhase == Approx(6.0043).margin(0.0005));
    CHECK(market.fault.threePhase == Approx(5.5248).margin(0.0005));
    CHECK(market.fault.peak() == Approx(9.703).margin(0.001));
    CHECK(t2.primaryAmps.v == Approx(180.42).margin(0.01));
    CHECK(transformerPrimaryRating(t2.primaryAmps.v, nec()) == 250);
    CHECK(sizeName(kitchens.run.sizeForAmpacity) == "1");
    CHECK(kitchens.run.dropBefore > 2);
    CHECK(sizeName(kitchens.run.size) == "1/0");
    CHECK(sizeName(kitchens.run.ground) == "4");
    const RunParts parts = partsOf(d.p, nec(), d.r, d.board("LP-4"));
    REQUIRE(parts.conduit.size);
    CHECK(parts.conduit.size->name == "2");
    CHECK(parts.conduit.area / 645.16 == Approx(0.8244));
}
