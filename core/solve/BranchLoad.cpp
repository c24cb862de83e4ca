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

} // namespace

BranchLoad branchLoad(const Circuit& c, const Board& b, const CircuitResult& cr, double smallest, const RuleBook& book,
                      Working* w) {
    BranchLoad out;
    out.load = loadOf(c, b, cr, w);
    out.motor = ampsOf(cr.largestMotorVa, b.system, c.poles);
    const double motor = out.motor.v, rest = out.load.v - motor;
    const double continuous = cr.va > 0 ? std::min(1.0, cr.continuousVa / cr.va) : 0;
    const double add = c.fullRated ? 0 : book.continuousFactor - 1;
    const bool capacitors = cr.kind == LoadKind::Capacitor && !cr.mixed;

    // What the conductors carry.
    const double restRequired = rest * (1 + add * continuous);
    out.required = Amps{restRequired + motor * book.motorConductor};
    if (capacitors) out.required = out.load * book.tables.capacitorConductor;
    if (w && capacitors)
        w->step("Capacitors",
                fmt::format("{} A × {} for conductors and device", figures(out.load.v),
                            percentOf(book.tables.capacitorConductor)),
                figures(out.required.v) + " A", book.cite("capacitor"));
    if (w && !capacitors && continuous > 0 && add != 0)
        w->step("Continuous",
                fmt::format("{} A + {} of {} A continuous", figures(rest), percentOf(add), figures(rest * continuous)),
                figures(restRequired) + " A", book.cite("continuousDevice"));
    if (w && !capacitors && motor > 0 && book.motorConductor != 1)
        w->step(cr.hermetic ? "Compressor" : "Motor",
                fmt::format("{}{} A × {} for the conductor", rest > 0.005 ? figures(restRequired) + " A + " : "",
                            figures(motor), percentOf(book.motorConductor)),
                figures(out.required.v) + " A", book.cite(cr.hermetic ? "hermeticConductor" : "motorConductor"));

    // The device. A compressor's may not exceed its share, a motor's is the next rating above.
    const double motorShare = cr.hermetic ? book.tables.hermeticDevice : motorDeviceOf(book, c.device).share;
    const double wanted = motor > 0 ? restRequired + motor * motorShare : out.required.v;
    const bool below = motor > 0 && cr.hermetic;
    const double rated =
        below ? std::max(book.ratingAtOrBelow(wanted, c.device), book.ratingAtOrAbove(out.required.v, c.device))
              : book.ratingAtOrAbove(wanted, c.device);
    const double least = motor > 0 ? book.ratings().front() : smallest;
    out.deviceNeeded = rated > 0 ? std::max(rated, least) : 0;
    if (c.ring && book.metric() && out.deviceNeeded > 0)
        out.deviceNeeded = std::max(out.deviceNeeded, book.cables.ringDevice);
    if (!w) return out;
    const std::string chosen = rated > 0 ? lintel::rating(out.deviceNeeded) + " A" : "past the series";
    if (motor > 0 && motorShare != 1)
        w->step(cr.hermetic ? "Compressor's device" : "Motor's device",
                fmt::format("{}{} A × {} = {} A, {}", rest > 0.005 ? figures(restRequired) + " A + " : "",
                            figures(motor), percentOf(motorShare), figures(wanted),
                            below ? "the standard rating below" : "next standard rating"),
                chosen, book.cite(cr.hermetic ? "hermeticDevice" : "motorDevice"));
    else
        w->step("Device needed",
                fmt::format("{} A → next standard rating{}", figures(wanted),
                            out.deviceNeeded > rated ? c.ring && out.deviceNeeded > least
                                                           ? ", or that of a ring"
                                                           : ", or the smallest of the basis"
                                                     : ""),
                chosen, book.cite("rating"));
    return out;
}

} // namespace lintel
