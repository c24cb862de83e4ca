// The same buildings worked out a second time by other means: currents in the windings of transformers, impedances in
// series, drop from the tables of Chapter 9. Nothing here calls the arithmetic that it holds the program against.

#include "tests/Building.h"

#include <complex>
#include <numbers>

using namespace lintel;

namespace {

using Phasor = std::complex<double>;
using Three = std::array<Phasor, 3>;

constexpr double third = 2 * std::numbers::pi / 3;
const double rootThree = std::sqrt(3.0);

struct Opinion {
    const Project& p;
    const Results& r;

    static double between(const Board& b) { return b.system == VoltageSystem::Y208 ? 208 : 480; }
    /// Two columns: places 1 and 2 are on A, 3 and 4 on B, 5 and 6 on C, and so on in turn.
    static std::size_t lineOf(int slot) { return std::size_t((slot - 1) / 2 % 3); }
    static Phasor toNeutral(const Board& b, std::size_t line) {
        return std::polar(between(b) / rootThree, -third * double(line));
    }
    /// VA and var of all loads of a circuit.
    Phasor power(CircuitId c) const {
        Phasor s;
        for (const Load& l : p.loads)
            if (l.circuit == c) s += l.amount * Phasor(l.powerFactor, std::sqrt(1 - l.powerFactor * l.powerFactor));
        return s;
    }
    /// A of each line, the voltage from line A to neutral at 0°.
    Three currents(const Board& b) const {
        Three sum{};
        for (const Circuit& c : p.circuits) {
            if (c.board != b.id || r.of(c.id).feeder) continue;
            const Phasor s = power(c.id);
            const std::size_t first = lineOf(c.slot), next = lineOf(c.slot + 2);
            if (c.poles == 1) sum[first] += std::conj(s / toNeutral(b, first));
            if (c.poles == 2) {
                const Phasor i = std::conj(s / (toNeutral(b, first) - toNeutral(b, next)));
                sum[first] += i;
                sum[next] -= i;
            }
            for (std::size_t k = 0; c.poles == 3 && k < 3; ++k) sum[k] += std::conj(s / 3.0 / toNeutral(b, k));
        }
        for (const Board& below : p.boards) {
            if (hangsOn(below.feed) == b.id) {
                const Three own = currents(below);
                for (std::size_t k = 0; k < 3; ++k) sum[k] += own[k];
            } else if (const TransformerId t = below.feed.as<Transformer>();
                       t && hangsOn(p.transformers[t].feed) == b.id) {
                // Each winding of the wye sits on the core of a winding of the delta, from a line to the next: the
                // volts of winding a lead those of line A by 30°, and its current by the ratio of turns.
                const Three wye = currents(below);
                Three delta{};
                for (std::size_t k = 0; k < 3; ++k)
                    delta[k] = wye[k] * std::polar(between(below) / rootThree / between(b), std::numbers::pi / 6);
                for (std::size_t k = 0; k < 3; ++k) sum[k] += delta[k] - delta[(k + 2) % 3];
            }
        }
        return sum;
    }
    BoardId hangsOn(Ref feed) const {
        const Circuit* c = p.circuits.find(feed.as<Circuit>());
        return c ? c->board : BoardId();
    }
    /// Ω of a line as it lies, at 75 °C as Table 9 gives it.
    static Phasor table(const RunResult& run) {
        const ConductorSize& s = nec().sizes()[std::size_t(run.size)];
        const std::size_t metal = std::size_t(run.need.material), pipe = std::size_t(run.need.raceway);
        return Phasor(s.resistance[metal][pipe], s.reactance[pipe]) * run.need.length.v / double(run.sets);
    }
    /// At 20 °C, where a fault finds the least.
    static Phasor cold(const RunResult& run) {
        const double zero = run.need.material == Material::Copper ? 234.5 : 228.0;
        const Phasor hot = table(run);
        return {hot.real() * (zero + 20) / (zero + 75), hot.imag()};
    }
    /// Ω of one line from the source up to a board, and of line and neutral together.
    struct Way {
        Phasor line, loop;
    };
    static Phasor split(double ohms, double xOverR) { return std::polar(ohms, std::atan(xOverR)); }
    Way wayTo(const Board& b) const {
        Way w;
        if (const Source* s = p.sources.find(b.feed.as<Source>())) {
            w.line = w.loop = split(480 / rootThree / (s->faultKA * 1000), s->xOverR);
        } else if (const Transformer* t = p.transformers.find(b.feed.as<Transformer>())) {
            const Phasor primary = wayTo(p.boards[hangsOn(t->feed)]).line + cold(r.of(t->id).run);
            const Phasor seen = primary * (208.0 * 208 / (480.0 * 480));
            const Phasor own = split(208.0 * 208 / (t->kva * 1000) * t->percentZ / 100, t->xOverR);
            w.line = seen + own;
            w.loop = seen * (2.0 / 3) + own; // positive and negative sequence; the zero sequence ends in the delta
        } else {
            w = wayTo(p.boards[hangsOn(b.feed)]);
        }
        w.line += cold(r.of(b.id).run);
        w.loop += 2.0 * cold(r.of(b.id).run);
        return w;
    }
};

} // namespace

TEST_CASE("second opinion: line and neutral currents of every board, through delta–wye transformers too") {
    int transformers = 0;
    for (std::uint32_t seed = 1; seed <= 40; ++seed) {
        const Project p = randomBuilding(seed, 7);
        const Results r = solve(p, nec());
        const Opinion o{p, r};
        for (const Board& b : p.boards) {
            INFO("building " << seed << ", " << b.name);
            const Three lines = o.currents(b);
            for (std::size_t k = 0; k < 3; ++k)
                CHECK(r.of(b.id).phaseAmps[k] == Approx(std::abs(lines[k])).margin(1e-6));
            CHECK(r.of(b.id).neutralAmps == Approx(std::abs(lines[0] + lines[1] + lines[2])).margin(1e-6));
        }
        transformers += int(p.transformers.size());
    }
    CHECK(transformers > 20);
}

TEST_CASE("second opinion: fault levels from impedances in series") {
    int seen = 0;
    for (std::uint32_t seed = 1; seed <= 40; ++seed) {
        const Project p = randomBuilding(seed, 7);
        const Results r = solve(p, nec());
        const Opinion o{p, r};
        for (const Board& b : p.boards) {
            const NodeResult& n = r.of(b.id);
            if (n.fault.runsUnknown || n.run.size < 0) continue;
            INFO("building " << seed << ", " << b.name);
            const double volts = Opinion::between(b) / rootThree;
            const Opinion::Way w = o.wayTo(b);
            CHECK(n.fault.threePhase == Approx(volts / std::abs(w.line) / 1000).epsilon(1e-6));
            CHECK(n.fault.lineLine == Approx(volts * rootThree / std::abs(2.0 * w.line) / 1000).epsilon(1e-6));
            CHECK(n.fault.lineNeutral == Approx(volts / std::abs(w.loop) / 1000).epsilon(1e-6));
            ++seen;
        }
    }
    CHECK(seen > 100);
}

TEST_CASE("second opinion: drop of every branch circuit from its current and Table 9") {
    int seen = 0;
    for (std::uint32_t seed = 1; seed <= 40; ++seed) {
        const Project p = randomBuilding(seed, 7);
        const Results r = solve(p, nec());
        const Opinion o{p, r};
        for (const Circuit& c : p.circuits) {
            const CircuitResult& x = r.of(c.id);
            if (x.feeder || c.use != CircuitUse::Load || x.run.size < 0 || x.va <= 0) continue;
            INFO("building " << seed << ", circuit " << c.id.value);
            const Board& b = p.boards[c.board];
            const double between = Opinion::between(b), neutral = between == 208 ? 120 : 277;
            const Phasor s = o.power(c.id);
            const double volts = c.poles == 1 ? neutral : between;
            const double amps = std::abs(s) / volts / (c.poles == 3 ? rootThree : 1);
            CHECK(x.load.v == Approx(amps));
            const Phasor z = Opinion::table(x.run);
            const double cosine = s.real() / std::abs(s), sine = std::sqrt(1 - cosine * cosine);
            const double lost = (c.poles == 3 ? rootThree : 2) * amps * (z.real() * cosine + z.imag() * sine);
            CHECK(x.run.dropOwn == Approx(100 * lost / volts).epsilon(1e-6));
            ++seen;
        }
    }
    CHECK(seen > 300);
}
