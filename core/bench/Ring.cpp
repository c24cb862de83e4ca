// A ring final circuit.

#include "core/base/Format.h"
#include "core/bench/CableRun.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    std::vector<BenchField> f{
        {.key = "load",
         .label = "Load at its far point",
         .value = "26",
         .unit = "A",
         .least = 1,
         .most = 100,
         .help = "20 A there and 12 A spread over the ring is 26 A."},
        {.key = "floor", .label = "Floor served", .value = "80", .unit = "m²", .least = 0, .most = 10000},
        {.key = "points", .label = "Points on the ring", .value = "12", .least = 1, .most = 500, .seldom = true},
        {.key = "spurs", .label = "Unfused spurs", .value = "2", .least = 0, .most = 500, .seldom = true},
        {.key = "spur",
         .label = "Longest of them",
         .value = "0",
         .unit = "m",
         .least = 0,
         .most = 100,
         .help = "Out from the ring to its point, one way.",
         .seldom = true},
        {.key = "spurLoad",
         .label = "Load at its end",
         .value = "13",
         .unit = "A",
         .least = 0,
         .most = 32,
         .seldom = true}};
    for (BenchField& x : earthFields(book))
        if (x.key != "distribution" && x.key != "sockets") f.push_back(std::move(x));
    for (BenchField& x : cableFields(book)) {
        if (x.key == "length") x.value = "60", x.label = "Length all round";
        if (x.key == "limit") x.value = "5";
        f.push_back(std::move(x));
    }
    return f;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    RunResult r;
    RunNeed& n = r.need;
    n.system = VoltageSystem::Y400;
    n.poles = 1;
    n.load = n.required = n.dropAmps = Amps{in.number("load")};
    n.device = in.maybe("rating").value_or(book.cables.ringDevice);
    n.cable.make().ring = n.cable.make().sockets = true;
    takeCable(in, n, book);
    n.cable.make().spur = float(in.length("spur").v);
    n.cable.make().spurLoad = float(in.length("spur").v * in.number("spurLoad"));
    n.cable.make().device = book.cables.usual;
    if (const auto kind = fromWord<DeviceKind>(in.text("device"))) n.cable.make().device = *kind;
    n.cable.make().loopBefore = in.number("ze");
    n.cable.make().earthing = in.choice<Earthing>("earthing");
    n.cable.make().residual = float(in.number("residual"));
    n.cable.make().protectiveBy = in.choice<ProtectiveBy>("protective");
    a.figure("device_A", "Device", fmt::format("{} A, {}", rating(n.device), wordOf(n.cable->device)), n.device);
    cableFigures(in, r, a, book);
    if (n.device > book.cables.ringDevice + 1e-9)
        a.cautions.push_back(
            fmt::format("{} A is the most for a ring: {}", rating(book.cables.ringDevice), book.cite("ring")));
    if (n.load.v > book.cables.ringDevice) a.cautions.push_back("the load is above what a ring carries");
    if (in.number("floor") > book.cables.ringArea)
        a.cautions.push_back(
            fmt::format("{} m² on one ring: {} m² is usual", number(in.number("floor")), number(book.cables.ringArea)));
    if (in.number("spurs") > in.number("points"))
        a.cautions.push_back("more unfused spurs than points on the ring itself");
    return a;
}

} // namespace

extern const BenchKind ringBench;
const BenchKind ringBench{
    "ring",
    "Ring final circuit",
    "Each leg's capacity, drop and loop at the far point, how long the ring may be, what it may serve.",
    fields,
    work,
    BenchFor::Cables};

} // namespace lintel
