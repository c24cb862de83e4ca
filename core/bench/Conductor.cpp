// Conductor, device, protective conductor and conduit of one load.

#include "core/base/Format.h"
#include "core/bench/Run.h"
#include "core/solve/Solve.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<BenchField> f{
        {.key = "name", .label = "Serves", .type = T::Text, .value = ""},
        {.key = "load",
         .label = "Load",
         .type = T::Load,
         .value = "16 A",
         .unit = "A",
         .help = "16 A, 1500 VA, 3.5 kVA, 900 W, 2 kW or 10 hp"},
        systemField(),
        {.key = "poles", .label = "Poles", .type = T::Choice, .value = "1", .choices = {"1", "2", "3"}},
        {.key = "powerFactor", .label = "Power factor", .value = "1", .least = 0.01, .most = 1},
        {.key = "continuous", .label = "Continuous share", .value = "0", .unit = "%", .least = 0, .most = 100},
        {.key = "device", .label = "Device", .type = T::Choice, .value = "breaker", .choices = deviceKinds(book)},
        {.key = "rating", .label = "Its rating", .value = "auto", .unit = "A", .least = 0.5, .most = 6000},
        {.key = "fullRated", .label = "Rated at 100 %", .type = T::Flag, .value = "no"},
        {.key = "receptacles", .label = "Feeds several receptacles", .type = T::Flag, .value = "no"},
        {.key = "smallestDevice", .label = "Smallest device", .value = "15", .unit = "A", .least = 1, .most = 6000},
        {.key = "dropOn",
         .label = "Drop judged on",
         .type = T::Choice,
         .value = "load",
         .choices = {"load", "share of rating"}},
        {.key = "share", .label = "Share of rating", .value = "80", .unit = "%", .least = 1, .most = 100}};
    for (BenchField& x : f)
        for (const char* key : {"rating", "fullRated", "receptacles", "smallestDevice", "dropOn", "share"})
            x.seldom = x.seldom || x.key == key;
    for (BenchField& r : runFields(book)) f.push_back(std::move(r));
    return f;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.working.title = "Conductor and device" + (in.text("name").empty() ? "" : ", " + in.text("name"));
    const BenchLoad load = in.load("load");
    const auto system = in.system("system");
    const int poles = in.whole("poles");
    const double pf = in.number("powerFactor");
    const auto kind = in.choice<DeviceKind>("device");
    const Amps amps = benchAmps(in, load, pf, system, poles, book, &a.working);
    const bool motor = load.unit == LoadUnit::hp;
    const double continuous = in.number("continuous") / 100, add = in.flag("fullRated") ? 0 : book.continuousFactor - 1;
    RunResult r;
    RunNeed& n = r.need;
    n.poles = poles;
    n.system = system;
    n.load = amps;
    n.motor = motor;
    n.required = motor ? amps * book.motorConductor : amps * (1 + add * continuous);
    if (motor)
        a.working.step(
            "Motor",
            fmt::format("{} A × {} % for the conductor", figures(amps.v), lintel::number(book.motorConductor * 100)),
            figures(n.required.v) + " A", book.cite("motorConductor"));
    else if (continuous > 0)
        a.working.step("Continuous",
                       in.flag("fullRated") ? std::string("a device rated at 100 % takes it as it is")
                                            : fmt::format("{} A + 25 % of {} A continuous", figures(amps.v),
                                                          figures(amps.v * continuous)),
                       figures(n.required.v) + " A", book.cite("continuousDevice"));
    const MotorDevice md = motorDeviceOf(book, kind);
    const double wanted = motor ? amps.v * md.share : n.required.v;
    double rating = book.ratingAtOrAbove(wanted, kind);
    if (rating == 0)
        in.refuse("load", fmt::format("no standard device is rated {} A or more", figures(wanted)),
                  "Divide the load over several feeders.");
    rating = std::max(rating, motor ? 0 : book.ratingAtOrAbove(in.number("smallestDevice"), kind));
    if (motor)
        a.working.step("Motor's device",
                       fmt::format("{} A × {} % = {} A, next standard rating", figures(amps.v),
                                   lintel::number(md.share * 100), figures(wanted)),
                       lintel::rating(rating) + " A", book.cite("motorDevice"));
    else
        a.working.step("Device", fmt::format("{} A → next standard rating", figures(n.required.v)),
                       lintel::rating(rating) + " A", book.cite("rating"));
    if (const auto held = in.maybe("rating")) {
        if (!motor && *held + 1e-9 < n.required.v)
            a.cautions.push_back(
                fmt::format("the device of {} A is below the {} A needed", figures(*held), figures(n.required.v)));
        a.working.step("Device held",
                       fmt::format("{} A instead of {} A", lintel::rating(*held), lintel::rating(rating)), "", "");
        rating = *held;
    }
    n.device = rating;
    n.nextRatingAllowed = !in.flag("receptacles");
    n.dropPowerFactor = pf;
    n.dropByShare = in.text("dropOn") != "load";
    n.dropAmps = n.dropByShare ? Amps{std::max(rating * in.number("share") / 100, amps.v)} : amps;
    a.figure("load_A", "Load", figures(amps.v) + " A", amps.v);
    a.figure("required_A", "Required", figures(n.required.v) + " A", n.required.v);
    a.figure("device_A", "Device", fmt::format("{} A {}P {}", lintel::rating(rating), poles, wordOf(kind)), rating);
    if (const double frame = book.frameFor(rating, kind); frame > 0)
        a.figure("frame_A", isFuse(kind) ? "Switch" : "Frame", lintel::rating(frame) + " A", frame);
    benchRun(in, r, a, book);
    BenchCircuit c;
    c.name = in.text("name").empty() ? "From the bench" : in.text("name");
    c.load.kind = motor ? LoadKind::Motor : LoadKind::Equipment;
    c.load.amount = load.amount, c.load.unit = load.unit, c.load.powerFactor = pf, c.load.poles = poles,
    c.load.continuous = continuous > 0.5;
    c.poles = poles, c.system = system, c.length = in.maybeLength("length"), c.run = projectRun(in, book);
    a.circuit = c;
    return a;
}

} // namespace

extern const BenchKind conductorBench;
const BenchKind conductorBench{
    "conductor", "Conductor and device",
    "One load: its device, conductors, protective conductor and conduit, its drop, and what decided.", fields, work};

} // namespace lintel
