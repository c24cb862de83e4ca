#include "core/solve/BranchLoad.h"

#include "core/base/Format.h"
#include "core/solve/PhaseLoads.h"
#include "core/solve/Solve.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::string percentOf(double share) {
    const double percent = share * 100;
    return number(percent, std::abs(percent - std::round(percent)) < 1e-9 ? 0 : 1) + " %";
}

/// Where part of it is entered line by line, the heaviest line decides.
Amps loadOf(const Circuit& c, const Board& b, const CircuitResult& cr, Working* w) {
    const double volts = voltsAcross(b.system, c.poles).v, toNeutral = factsOf(b.system).lineNeutral.v;
    const Amps even = ampsOf(cr.va, b.system, c.poles);
    if (cr.split && toNeutral > 0) {
        Complex own;
        double most = 0;
        for (const Complex& line : *cr.split) {
            own += line;
            most = std::max(most, magnitude(line));
        }
        if (most > 0) {
            const Amps rest = ampsOf(magnitude(cr.power - own), b.system, c.poles);
            const Amps load = rest + Amps{most / toNeutral};
            if (w)
                w->step("Load",
                        fmt::format("heaviest line: {} VA / {} V{}", number(most), number(toNeutral),
                                    rest.v > 0 ? fmt::format(" + {} A on all", figures(rest.v)) : ""),
                        figures(load.v) + " A", "");
            return load;
        }
    }
    if (w)
        w->step("Load", fmt::format("{} VA / {} V{}", number(cr.va), number(volts), c.poles == 3 ? " / √3" : ""),
                figures(even.v) + " A", "");
    return even;
}

/// What the nameplates mark, out of the load: its own current, and the ampacity that they ask for in its place.
struct Marked {
    Amps load, ampacity;
};
Marked markedOn(const Circuit& c, const Board& b, const CircuitResult& cr, Working* w, const RuleBook& book) {
    if (cr.nameplates->ampacity <= 0) return {};
    const Amps load = ampsOf(cr.nameplates->va, b.system, c.poles);
    const Amps ampacity = std::max(Amps{cr.nameplates->ampacity}, load);
    if (w)
        w->step("Nameplate",
                ampacity > load
                    ? "minimum circuit ampacity, as marked"
                    : fmt::format("marked {} A, which is less than its load", figures(cr.nameplates->ampacity)),
                figures(ampacity.v) + " A", book.cite("nameplateAmpacity"));
    return {load, ampacity};
}

/// What a circuit carries, on the way to its device.
struct Carried {
    double rest = 0;  ///< A, all but the largest motor, with the additions for it
    double motor = 0; ///< A of that
    bool hermetic = false;
    bool onlyMarked = false; ///< there is nothing but equipment whose nameplate says what it needs
};

/// A compressor's device may not exceed its share, a motor's is the next rating above; a nameplate's is the most that
/// it allows.
double deviceFor(const Circuit& c, const Carried& is, Amps required, double marked, double smallest,
                 const RuleBook& book, Working* w) {
    const double motorShare = is.hermetic ? book.tables.hermeticDevice : motorDeviceOf(book, c.device).share;
    const double wanted = is.motor > 0 ? is.rest + is.motor * motorShare : required.v;
    const bool below = is.motor > 0 && is.hermetic;
    double rated = below ? std::max(book.ratingAtOrBelow(wanted, c.device), book.ratingAtOrAbove(required.v, c.device))
                         : book.ratingAtOrAbove(wanted, c.device);
    double most = 0, enough = 0; // by the nameplate; for what it is fitted to
    if (marked > 0) {
        most = book.ratingAtOrBelow(marked, c.device);
        enough = book.ratingAtOrAbove(required.v, c.device);
    }
    const bool byNameplate = enough > 0 && (is.onlyMarked || rated <= 0 || rated > most);
    if (byNameplate) rated = std::max(most, enough);
    const double least = is.motor > 0 || marked > 0 ? book.ratings().front() : smallest;
    double needed = rated > 0 ? std::max(rated, least) : 0;
    if (c.ring && book.metric() && needed > 0) needed = std::max(needed, book.cables.ringDevice);
    if (!w) return needed;
    const std::string chosen = rated > 0 ? rating(needed) + " A" : "past the series";
    if (byNameplate)
        w->step("Nameplate's device",
                fmt::format("marked {} A at most, {}", figures(marked),
                            most < enough ? fmt::format("which is below the {} A needed", figures(required.v))
                                          : "the standard rating at or below"),
                chosen, book.cite("nameplateDevice"));
    else if (is.motor > 0 && motorShare != 1)
        w->step(is.hermetic ? "Compressor's device" : "Motor's device",
                fmt::format("{}{} A × {} = {} A, {}", is.rest > 0.005 ? figures(is.rest) + " A + " : "",
                            figures(is.motor), percentOf(motorShare), figures(wanted),
                            below ? "the standard rating below" : "next standard rating"),
                chosen, book.cite(is.hermetic ? "hermeticDevice" : "motorDevice"));
    else
        w->step("Device needed",
                fmt::format("{} A → next standard rating{}", figures(wanted),
                            needed <= rated            ? ""
                            : c.ring && needed > least ? ", or that of a ring"
                                                       : ", or the smallest of the basis"),
                chosen, book.cite("rating"));
    return needed;
}

} // namespace

BranchLoad branchLoad(const Circuit& c, const Board& b, const CircuitResult& cr, double smallest, const RuleBook& book,
                      Working* w) {
    BranchLoad out;
    out.load = loadOf(c, b, cr, w);
    const Nameplates& plates = *cr.nameplates;
    const Marked marked = markedOn(c, b, cr, w, book);
    Carried is;
    is.hermetic = cr.nameplates ? plates.othersHermetic : cr.hermetic;
    out.motor = ampsOf(cr.nameplates ? plates.othersMotorVa : cr.largestMotorVa, b.system, c.poles);
    is.motor = out.motor.v;
    double rest = out.load.v - is.motor;
    if (cr.nameplates) rest = std::max(0.0, rest - marked.load.v);
    is.onlyMarked = marked.ampacity.v > 0 && is.motor <= 0 && rest <= 0.005;
    const double othersVa = cr.va - plates.va;
    const double continuous = othersVa > 0 ? std::min(1.0, (cr.continuousVa - plates.continuousVa) / othersVa) : 0;
    const double add = c.fullRated ? 0 : book.continuousFactor - 1;
    const bool capacitors = cr.kind == LoadKind::Capacitor && !cr.mixed;

    // What the conductors carry.
    const double restRequired = rest * (1 + add * continuous);
    is.rest = restRequired + marked.ampacity.v;
    out.required = Amps{is.rest + is.motor * book.motorConductor};
    if (capacitors) out.required = out.load * book.tables.capacitorConductor;
    if (w && capacitors)
        w->step("Capacitors",
                fmt::format("{} A × {} for conductors and device", figures(out.load.v),
                            percentOf(book.tables.capacitorConductor)),
                figures(out.required.v) + " A", book.cite("capacitor"));
    if (w && !capacitors && continuous > 0 && add != 0 && !is.onlyMarked)
        w->step("Continuous",
                fmt::format("{} A + {} of {} A continuous", figures(rest), percentOf(add), figures(rest * continuous)),
                figures(restRequired) + " A", book.cite("continuousDevice"));
    if (w && !capacitors && is.motor > 0 && book.motorConductor != 1)
        w->step(is.hermetic ? "Compressor" : "Motor",
                fmt::format("{}{} A × {} for the conductor", is.rest > 0.005 ? figures(is.rest) + " A + " : "",
                            figures(is.motor), percentOf(book.motorConductor)),
                figures(out.required.v) + " A", book.cite(is.hermetic ? "hermeticConductor" : "motorConductor"));
    else if (w && !is.onlyMarked && marked.ampacity.v > 0)
        w->step("Together", fmt::format("{} A + {} A", figures(restRequired), figures(marked.ampacity.v)),
                figures(out.required.v) + " A", "");
    out.deviceNeeded = deviceFor(c, is, out.required, plates.device, smallest, book, w);
    return out;
}

} // namespace lintel
