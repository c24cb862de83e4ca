// The overcurrent device of a load, or the one that protects a conductor.

#include "core/base/Format.h"
#include "core/bench/Run.h"
#include "core/project/TypedLoads.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/Solve.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    return {{.key = "noncontinuous",
             .label = "Noncontinuous load",
             .type = T::Load,
             .value = "10 A",
             .unit = "A",
             .help = "0 A where there is none"},
            {.key = "continuous", .label = "Continuous load", .type = T::Load, .value = "0 A", .unit = "A"},
            systemField(),
            {.key = "poles", .label = "Poles", .type = T::Choice, .value = "1", .choices = {"1", "2", "3"}},
            {.key = "powerFactor", .label = "Power factor", .value = "1", .least = 0.01, .most = 1},
            {.key = "device", .label = "Device", .type = T::Choice, .value = "breaker", .choices = deviceKinds(book)},
            {.key = "fullRated", .label = "Rated at 100 %", .type = T::Flag, .value = "no"},
            sizeField("size", "Protecting", book, true, "auto"),
            {.key = "sets", .label = "Sets of it", .value = "1", .least = 1, .most = 40},
            materialField(),
            insulationField(book),
            terminalsField(),
            {.key = "ambient", .label = "Ambient", .value = "30", .unit = "°C", .least = -40, .most = 85},
            {.key = "roof", .label = "Close above a roof", .type = T::Flag, .value = "no"},
            {.key = "conductors",
             .label = "Loaded conductors with it",
             .value = "auto",
             .least = 1,
             .most = 1000,
             .help = "In one raceway, its own among them. Auto: its own alone."},
            {.key = "receptacles", .label = "Feeds several receptacles", .type = T::Flag, .value = "no"}};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    const auto system = in.system("system");
    const int poles = in.whole("poles");
    const double pf = in.number("powerFactor");
    const auto kind = in.choice<DeviceKind>("device");
    const auto amps = [&](const char* key) {
        const auto l = loadFrom(in.text(key));
        if (!l || l->amount < 0)
            in.refuse(key, "\"" + in.text(key) + "\" is not a load", "Type 16 A, 1500 VA, 900 W or 2 kW.");
        return l->amount > 0 ? benchAmps(in, *l, pf, system, poles, book, &a.working).v : 0.0;
    };
    const double non = amps("noncontinuous"), cont = amps("continuous");
    if (non + cont <= 0)
        in.refuse("noncontinuous", "there is no load", "Give a noncontinuous or a continuous load above zero.");
    const double factor = in.flag("fullRated") ? 1 : book.continuousFactor;
    const double required = non + factor * cont, rating = book.ratingAtOrAbove(required, kind);
    a.working.step("Needed", fmt::format("{} A + {} × {} A", figures(non), figures(factor), figures(cont)),
                   figures(required) + " A", book.cite("continuousDevice"));
    if (rating == 0)
        in.refuse("noncontinuous", fmt::format("no standard device is rated {} A or more", figures(required)),
                  "Divide the load over several feeders.");
    a.working.step("Device", "next standard rating", lintel::rating(rating) + " A", book.cite("rating"));
    a.working.governs();
    a.figure("required_A", "Needed", figures(required) + " A", required);
    a.figure("device_A", "Device", fmt::format("{} A {}P {}", lintel::rating(rating), poles, wordOf(kind)), rating);
    if (const double frame = book.frameFor(rating, kind); frame > 0)
        a.figure("frame_A", isFuse(kind) ? "Switch" : "Frame", lintel::rating(frame) + " A", frame);
    if (const SizeIndex s = in.size("size", book); s >= 0) {
        const Material m = in.choice<Material>("material");
        const int sets = in.whole("sets");
        const std::string words =
            (sets > 1 ? fmt::format("{} sets of ", sets) : "") + sizeWords(book, s) + " " + wordOf(m);
        RunNeed need;
        need.system = system;
        need.poles = poles;
        need.material = m;
        need.ambient = in.number("ambient") + (in.flag("roof") ? book.tables.roofAdder : 0);
        const int own = poles == 1 ? 2 : poles;
        need.conductors = std::max(own, int(in.maybe("conductors").value_or(own)));
        SizingRules rules;
        rules.insulation = book.insulation(in.text("insulation"))->celsius;
        rules.terminals75 = in.text("terminals") == "75";
        rules.ambient = 30;
        rules.ambientFactor = book.ambientFactor(30, rules.insulation);
        const double small = book.smallConductorLimit(s, m);
        // From the largest device down to the first that protects it: up to the boundary the terminals may be cooler.
        double most = 0, carries = 0;
        Ampacity under;
        for (double tried = book.ratingAtOrBelow(1e9, kind); tried > 0;
             tried = book.ratingAtOrBelow(tried - 0.01, kind)) {
            need.device = tried;
            under = ampacityOf(need, s, rules, book, sets);
            if (under.table <= 0 || under.terminal <= 0)
                in.refuse("size", fmt::format("{} is not in table {}", words, book.cite("ampacity")));
            carries = under.value() * sets;
            const bool next = !in.flag("receptacles") && tried <= book.nextRatingUpTo &&
                              tried <= book.ratingAtOrAbove(carries, kind) + 1e-9;
            if ((tried > carries + 1e-9 && !next) || (small > 0 && tried > small)) continue;
            most = tried;
            break;
        }
        a.working.step(fmt::format("Ampacity, {} °C terminals", under.terminalCelsius),
                       fmt::format("{}: {} A{}", words, figures(under.terminal), sets > 1 ? " each" : ""), "",
                       book.cite("terminal") + ", " + book.cite("ampacity"));
        if (under.ambient != 1 || under.bundling != 1)
            a.working.step(fmt::format("Ambient {} °C, {} conductors", figures(need.ambient), need.conductors),
                           fmt::format("{} × {} × {} = {} A", figures(under.table), figures(under.ambient),
                                       figures(under.bundling), figures(under.corrected)),
                           "", book.cite("ambient") + ", " + book.cite("bundling"));
        if (most <= 0)
            in.refuse("size",
                      fmt::format("{} carries {} A here: no standard device is so small", words, figures(carries)),
                      "Choose a larger size, or fewer conductors with it.");
        a.working.step("Largest for the conductor",
                       small > 0 && most >= small - 1e-9 ? fmt::format("{} is held to {} A", words, figures(small))
                                                         : fmt::format("{} carries {} A", words, figures(carries)),
                       lintel::rating(most) + " A",
                       small > 0 && most >= small - 1e-9 ? book.cite("smallConductor")
                       : most > carries                  ? book.cite("nextRating")
                                                         : book.cite("protected"));
        a.figure("carries_A", "It carries", figures(carries) + " A", carries);
        a.figure("largest_A", "Largest for " + words, lintel::rating(most) + " A", most);
        if (rating > most)
            a.cautions.push_back(fmt::format("{} is too small for the {} A device", words, lintel::rating(rating)));
    }
    return a;
}

} // namespace

extern const BenchKind ocpdBench;
const BenchKind ocpdBench{"ocpd", "Overcurrent device",
                          "The standard device for a load, and the largest that a conductor may have.", fields, work};

} // namespace lintel
