// Device and cable of one load, by the way the cable is laid.

#include "core/base/Format.h"
#include "core/bench/CableRun.h"
#include "core/bench/Run.h"

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
         .value = "7.2 kW",
         .unit = "A",
         .help = "16 A, 1500 VA, 3.5 kVA, 900 W or 2 kW"},
        systemField("400/230"),
        {.key = "poles", .label = "Poles", .type = T::Choice, .value = "1", .choices = {"1", "3"}},
        {.key = "powerFactor", .label = "Power factor", .value = "1", .least = 0.01, .most = 1},
        {.key = "motor", .label = "Motor with overload", .type = T::Flag, .value = "no", .seldom = true}};
    for (BenchField& x : earthFields(book)) f.push_back(std::move(x));
    for (BenchField& x : cableFields(book)) f.push_back(std::move(x));
    return f;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.working.title = "Cable and device" + (in.text("name").empty() ? "" : ", " + in.text("name"));
    RunResult r;
    RunNeed& n = r.need;
    n.system = in.system("system");
    n.poles = in.whole("poles");
    n.dropPowerFactor = in.number("powerFactor");
    const BenchLoad load = in.load("load");
    if (load.unit == LoadUnit::hp) in.refuse("load", "the rule book has no table of horsepower", "Give kW, kVA or A.");
    n.load = n.required = n.dropAmps = benchAmps(in, load, n.dropPowerFactor, n.system, n.poles, book, &a.working);
    n.motor = in.flag("motor");
    const double rating = book.ratingAtOrAbove(n.load.v);
    if (rating == 0 && !in.maybe("rating"))
        in.refuse("load", fmt::format("no standard device is rated {} A or more", figures(n.load.v)),
                  "Divide the load over several cables.");
    n.device = in.maybe("rating").value_or(rating);
    if (n.device + 1e-9 < n.load.v)
        a.cautions.push_back(
            fmt::format("the device of {} A is below the load, {} A", figures(n.device), figures(n.load.v)));
    takeCable(in, n, book);
    takeEarth(in, n, book);
    if (n.motor && n.cable->earthBefore > 0) { // nobody gave the fault between lines: it is this much at least
        n.cable.make().faultBefore = n.cable->earthBefore;
        a.cautions.push_back("the fault between lines where the run begins is not known: what the lines of a motor "
                             "withstand is judged on the earth fault there");
    }
    if (n.motor && in.text("device") == "usual" && n.device <= book.cables.trips.at(book.cables.usualMotor).upTo)
        n.cable.make().device = book.cables.usualMotor;
    a.working.step("Device",
                   fmt::format("{} A → {}", figures(n.load.v), in.maybe("rating") ? "as entered" : "next rating"),
                   fmt::format("{} A, {}", lintel::rating(n.device), wordOf(n.cable->device)), book.cite("rating"));
    a.figure("load_A", "Load Ib", figures(n.load.v) + " A", n.load.v);
    a.figure("device_A", "Device In", fmt::format("{} A, {}", lintel::rating(n.device), wordOf(n.cable->device)),
             n.device);
    cableFigures(in, r, a, book);
    if (!in.maybe("ze")) a.cautions.push_back("the supply's loop is not known: the earth fault is not judged");
    BenchCircuit c;
    c.name = in.text("name").empty() ? "From the bench" : in.text("name");
    c.load.kind = n.motor ? LoadKind::Motor : LoadKind::Equipment;
    c.load.amount = load.amount, c.load.unit = load.unit, c.load.powerFactor = n.dropPowerFactor,
    c.load.poles = n.poles;
    c.poles = n.poles, c.system = n.system, c.length = n.length, c.run = cableOfProject(in, book);
    a.circuit = c;
    return a;
}

} // namespace

extern const BenchKind cableBench;
const BenchKind cableBench{"cable",
                           "Cable and device",
                           "One load: its device, cable and protective conductor, drop, loop, temperature, withstand, "
                           "the longest length and why.",
                           fields,
                           work,
                           BenchFor::Cables};

} // namespace lintel
