// One motor: full-load current, conductors, device, overload. And the feeder of several.

#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/bench/ListLine.h"
#include "core/bench/Run.h"
#include "core/solve/Solve.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// Armature volts of the table of direct-current motors.
std::vector<std::string> armatures(const RuleBook& book) {
    std::vector<std::string> list;
    for (double volts : book.tables.motorDirect.volts) list.push_back(lintel::number(volts));
    return list;
}

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<BenchField> f{
        {.key = "name", .label = "Drives", .type = T::Text, .value = ""},
        {.key = "hp", .label = "Shaft power", .value = "10", .unit = "hp", .least = 0.01, .most = 500},
        systemField("480Y/277"),
        {.key = "poles", .label = "Poles", .type = T::Choice, .value = "3", .choices = {"1", "2", "3"}},
        {.key = "device", .label = "Device", .type = T::Choice, .value = "breaker", .choices = deviceKinds(book)},
        {.key = "rotor",
         .label = "Rotor",
         .type = T::Choice,
         .value = "squirrel cage",
         .choices = {"squirrel cage", "wound"}},
        {.key = "design",
         .label = "Design",
         .type = T::Choice,
         .value = "other",
         .choices = {"other", "B, energy-efficient"},
         .help = "For a magnetic-only breaker."},
        {.key = "nameplate",
         .label = "Nameplate current",
         .value = "auto",
         .unit = "A",
         .least = 0.01,
         .most = 10000,
         .help = "For the overload; auto: the table's."},
        {.key = "serviceFactor", .label = "Service factor", .value = "1.15", .least = 1, .most = 2},
        {.key = "powerFactor", .label = "Power factor", .value = "0.85", .least = 0.01, .most = 1},
        {.key = "current",
         .label = "Current",
         .type = T::Choice,
         .value = "alternating",
         .choices = {"alternating", "direct"},
         .seldom = true},
        {.key = "armature",
         .label = "Armature",
         .type = T::Choice,
         .value = "240",
         .unit = "V",
         .choices = armatures(book),
         .help = "Of a motor of direct current.",
         .seldom = true}};
    for (BenchField& r : runFields(book)) f.push_back(std::move(r));
    return f;
}

/// What a device may be, with the ceiling for a motor that does not start on it.
struct MotorDevices {
    double amps, ceiling, limit, ceilingLimit;
}; ///< limits: before they are rounded to a standard rating
MotorDevices devicesFor(double flc, DeviceKind kind, bool wound, const RuleBook& book, Working& w) {
    MotorDevice d = motorDeviceOf(book, kind);
    if (wound) d.share = book.tables.woundRotor;
    const double amps = book.ratingAtOrAbove(flc * d.share, kind);
    w.step("Device",
           fmt::format("{} A × {} % = {} A, next standard rating", figures(flc), lintel::number(d.share * 100),
                       figures(flc * d.share)),
           rating(amps) + " A", book.cite("motorDevice"));
    const double share = d.ceilingFor(flc), ceiling = std::max(amps, book.ratingAtOrBelow(flc * share, kind));
    w.step("If it does not start",
           fmt::format("{} A × {} % = {} A, the standard rating below", figures(flc), lintel::number(share * 100),
                       figures(flc * share)),
           rating(ceiling) + " A", book.cite("motorDevice") + " exceptions");
    return {amps, ceiling, flc * d.share, flc * share};
}

/// A motor of direct current: current, conductors, device and overload. Its drop and conductors depend on its rectifier
/// and are not worked out here.
BenchAnswer direct(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.working.title = "Motor of direct current" + (in.text("name").empty() ? "" : ", " + in.text("name"));
    const MotorTable& table = book.tables.motorDirect;
    const double hp = in.number("hp"), volts = plainNumber(in.text("armature")).value_or(0);
    const auto column = std::find(table.volts.begin(), table.volts.end(), volts);
    double flc = 0;
    for (const MotorTable::Row& row : table.rows)
        if (flc == 0 && column != table.volts.end() && row.hp >= hp - 1e-3)
            flc = row.amps[std::size_t(column - table.volts.begin())];
    if (flc <= 0)
        in.refuse("hp",
                  fmt::format("{} hp at {} V direct current is not in table {}", lintel::number(hp, 2),
                              in.text("armature"), table.table),
                  "Choose other armature volts, or go by its nameplate.");
    const auto kind = in.choice<DeviceKind>("device");
    a.working.step("Full-load current", fmt::format("{} hp, armature of {} V", figures(hp), in.text("armature")),
                   figures(flc) + " A", table.table);
    const double conductor = flc * book.motorConductor;
    a.working.step("Conductors", fmt::format("{} A × {} %", figures(flc), lintel::number(book.motorConductor * 100)),
                   figures(conductor) + " A", book.cite("motorConductor"));
    const double most = flc * book.tables.directDevice, device = book.ratingAtOrAbove(most, kind);
    if (device == 0) in.refuse("hp", "no standard device is large enough");
    a.working.step("Device",
                   fmt::format("{} A × {} % = {} A, next standard rating", figures(flc),
                               lintel::number(book.tables.directDevice * 100), figures(most)),
                   rating(device) + " A", book.cite("motorDevice"));
    a.working.governs();
    const double trip = flc * book.tables.directInstantaneous;
    a.working.step("Magnetic-only breaker",
                   fmt::format("{} A × {} %", figures(flc), lintel::number(book.tables.directInstantaneous * 100)),
                   figures(trip) + " A", book.cite("motorDevice"));
    const double plate = in.maybe("nameplate").value_or(flc),
                 share = in.number("serviceFactor") >= 1.15 ? book.tables.overloadServiceFactor : book.tables.overload;
    a.working.step("Overload", fmt::format("{} A × {} %", figures(plate), lintel::number(share * 100)),
                   figures(plate * share) + " A", book.cite("overload"));
    a.figure("flc_A", "Full-load current", figures(flc) + " A", flc);
    a.figure("conductor_A", "Conductors for", figures(conductor) + " A", conductor);
    a.figure("device_limit_A", "Device, by its share", figures(most) + " A", most);
    a.figure("device_A", "Device", fmt::format("{} A {}", rating(device), wordOf(kind)), device);
    a.figure("instantaneous_A", "Magnetic-only trip", figures(trip) + " A", trip);
    a.figure("overload_A", "Overload", figures(plate * share) + " A", plate * share);
    a.cautions.push_back("direct current: the conductor's size and drop follow from its rectifier (430.22(A), 430.29) "
                         "and are not worked out here");
    if (!in.maybe("nameplate"))
        a.cautions.push_back("the overload is set by the motor's nameplate: the table's current stands in for it");
    return a;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    if (in.text("current") == "direct") return direct(in, book);
    BenchAnswer a;
    a.working.title = "Motor" + (in.text("name").empty() ? "" : ", " + in.text("name"));
    const auto system = in.system("system");
    const int poles = in.whole("poles");
    const double hp = in.number("hp");
    const auto kind = in.choice<DeviceKind>("device");
    const Amps flc = benchAmps(in, {hp, LoadUnit::hp}, 1, system, poles, book, &a.working);
    RunResult r;
    RunNeed& n = r.need;
    n.poles = poles;
    n.system = system;
    n.motor = true;
    n.load = n.dropAmps = flc;
    n.required = flc * book.motorConductor;
    n.dropPowerFactor = in.number("powerFactor");
    a.working.step("Conductors", fmt::format("{} A × {} %", figures(flc.v), lintel::number(book.motorConductor * 100)),
                   figures(n.required.v) + " A", book.cite("motorConductor"));
    const MotorDevices d = devicesFor(flc.v, kind, in.text("rotor") == "wound", book, a.working);
    if (d.amps == 0) in.refuse("hp", "no standard device is large enough");
    n.device = d.amps;
    const double plate = in.maybe("nameplate").value_or(flc.v), sf = in.number("serviceFactor"),
                 share = sf >= 1.15 ? book.tables.overloadServiceFactor : book.tables.overload;
    a.working.step("Overload",
                   fmt::format("{} A {} × {} %, service factor {}", figures(plate),
                               in.maybe("nameplate") ? "on the nameplate" : "of the table", lintel::number(share * 100),
                               figures(sf)),
                   figures(plate * share) + " A", book.cite("overload"));
    a.figure("flc_A", "Full-load current", figures(flc.v) + " A", flc.v);
    a.figure("conductor_A", "Conductors for", figures(n.required.v) + " A", n.required.v);
    a.figure("device_limit_A", "", "", d.limit); // before rounding
    a.figure("device_A", "Device", fmt::format("{} A {}", rating(d.amps), wordOf(kind)), d.amps);
    a.figure("device_ceiling_limit_A", "", "", d.ceilingLimit);
    a.figure("device_ceiling_A", "If it does not start, up to", rating(d.ceiling) + " A", d.ceiling);
    const bool designB = in.text("design") != "other";
    const double trip = flc.v * (designB ? book.tables.instantaneousDesignB : book.tables.instantaneous),
                 tripMost = flc.v * (designB ? book.tables.instantaneousDesignBMost : book.tables.instantaneousMost);
    a.working.step("Magnetic-only breaker",
                   fmt::format("{} A × {} %; where it does not start, × {} %", figures(flc.v),
                               lintel::number(trip / flc.v * 100), lintel::number(tripMost / flc.v * 100)),
                   fmt::format("{} A, {} A", figures(trip), figures(tripMost)), book.cite("instantaneous"));
    a.figure("instantaneous_A", "Magnetic-only trip", figures(trip) + " A", trip);
    a.figure("instantaneous_most_A", "… if it does not start", figures(tripMost) + " A", tripMost);
    a.figure("overload_A", "Overload", figures(plate * share) + " A", plate * share);
    const double shareMost = sf >= 1.15 ? book.tables.overloadServiceFactorMost : book.tables.overloadMost;
    a.working.step("Overload, if it does not start",
                   fmt::format("{} A × {} %", figures(plate), lintel::number(shareMost * 100)),
                   figures(plate * shareMost) + " A", book.cite("overloadMost"));
    a.figure("overload_most_A", "… if it does not start", figures(plate * shareMost) + " A", plate * shareMost);
    const double off = flc.v * book.tables.motorDisconnect;
    a.figure("disconnect_A", "Disconnect, at least", figures(off) + " A", off);
    a.working.step("Disconnect",
                   fmt::format("{} A × {} %", figures(flc.v), lintel::number(book.tables.motorDisconnect * 100)),
                   figures(off) + " A", book.cite("motorDisconnect"));
    benchRun(in, r, a, book);
    if (!in.maybe("nameplate"))
        a.cautions.push_back("the overload is set by the motor's nameplate: the table's current stands in for it");
    BenchCircuit c;
    c.name = in.text("name").empty() ? fmt::format("Motor {} hp", figures(hp)) : in.text("name");
    c.load.kind = LoadKind::Motor, c.load.amount = hp, c.load.unit = LoadUnit::hp,
    c.load.powerFactor = in.number("powerFactor"), c.load.poles = poles;
    c.poles = poles, c.system = system, c.length = in.maybeLength("length"), c.run = projectRun(in, book);
    a.circuit = c;
    return a;
}

std::vector<BenchField> feederFields(const RuleBook& book) {
    using T = BenchField::Type;
    return {
        {.key = "motors",
         .label = "Motors",
         .type = T::Lines,
         .value = "1 × 25 hp\n2 × 30 hp wound",
         .help = "One line each: 2 × 30 hp, with wound where the rotor is"},
        systemField("480Y/277"),
        {.key = "poles", .label = "Poles", .type = T::Choice, .value = "3", .choices = {"1", "2", "3"}},
        {.key = "device", .label = "Devices", .type = T::Choice, .value = "breaker", .choices = deviceKinds(book)},
        {.key = "other", .label = "Other load", .value = "0", .unit = "A", .least = 0, .most = 10000},
        {.key = "continuous", .label = "Continuous share of it", .value = "0", .unit = "%", .least = 0, .most = 100}};
}

BenchAnswer feeder(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.columns = {"Motor", "Full-load A", "Conductor A", "Device A"};
    const auto system = in.system("system");
    const int poles = in.whole("poles");
    const auto kind = in.choice<DeviceKind>("device");
    double sum = 0, largest = 0, largestDevice = 0, ofLargestDevice = 0;
    for (const std::string& l : in.lines("motors")) {
        const auto read = readLoadLine(l);
        const bool wound = read && read->after == "wound";
        if (!read || read->load.unit != LoadUnit::hp || read->load.amount <= 0 || !read->name.empty() ||
            !(wound || read->after.empty()))
            in.refuse("motors", "\"" + l + "\" is not a motor",
                      "Write one line each: 2 × 30 hp or 7-1/2 hp, with wound where the rotor is.");
        const double count = read->count, hp = read->load.amount;
        const double flc = book.motorAmps(hp, voltsAcross(system, poles).v, poles == 3).value;
        if (flc <= 0)
            in.refuse(
                "motors",
                fmt::format("\"{}\": not in table {} at this voltage", l, *book.motorAmps(1, 230, poles == 3).table),
                "Give it as other load, in A.");
        MotorDevice d = motorDeviceOf(book, kind);
        if (wound) d.share = book.tables.woundRotor;
        const double device = book.ratingAtOrAbove(flc * d.share, kind);
        a.rows.push_back({fmt::format("{} × {} hp{}", number(count), figures(hp), wound ? " wound" : ""), figures(flc),
                          figures(flc * book.motorConductor), rating(device)});
        a.working.step(l,
                       fmt::format("{} A, device {} A × {} % → {} A", figures(flc), figures(flc),
                                   lintel::number(d.share * 100), rating(device)),
                       "", book.cite(poles == 3 ? "motorThree" : "motorSingle") + ", " + book.cite("motorDevice"));
        sum += count * flc;
        largest = std::max(largest, flc);
        if (device > largestDevice) largestDevice = device, ofLargestDevice = flc;
    }
    if (sum <= 0) in.refuse("motors", "there are no motors", "Write one line each: 2 × 30 hp");
    // Other load counts with its addition where it is continuous: 430.24 and 430.63 leave it to the rules for feeders.
    const double plain = in.number("other"),
                 other = plain * (1 + (book.continuousFactor - 1) * in.number("continuous") / 100);
    if (other > plain)
        a.working.step("Other load",
                       fmt::format("{} A, {} % of it continuous × {}", figures(plain), figures(in.number("continuous")),
                                   figures(book.continuousFactor)),
                       figures(other) + " A", book.cite("continuousFeederDevice"));
    const double conductor = sum + (book.motorConductor - 1) * largest + other;
    a.working.step("Feeder conductors",
                   fmt::format("{} A + {} % of {} A{}", figures(sum), lintel::number((book.motorConductor - 1) * 100),
                               figures(largest), other > 0 ? fmt::format(" + {} A", figures(other)) : ""),
                   figures(conductor) + " A", book.cite("motorFeeder"));
    const double most = largestDevice + sum - ofLargestDevice + other, device = book.ratingAtOrBelow(most, kind);
    a.working.step("Feeder device",
                   fmt::format("{} A, the largest device, + {} A of the others = {} A, the standard rating below",
                               rating(largestDevice), figures(sum - ofLargestDevice + other), figures(most)),
                   rating(device) + " A", book.cite("motorFeederDevice"));
    a.working.governs();
    a.figure("conductor_A", "Feeder conductors for", figures(conductor) + " A", conductor);
    a.figure("device_most_A", "Device, at most", figures(most) + " A", most);
    a.figure("device_A", "Device", fmt::format("{} A {}", rating(device), wordOf(kind)), device);
    return a;
}

} // namespace

extern const BenchKind motorBench, motorsBench;
const BenchKind motorBench{"motor", "Motor", "Full-load current, conductors, device and overload of one motor.", fields,
                           work};
const BenchKind motorsBench{"motors", "Feeder of motors", "Conductors and device of a feeder of several motors.",
                            feederFields, feeder};

} // namespace lintel
