// The overcurrent device of a load, or the one that protects a conductor.

#include "core/base/Format.h"
#include "core/bench/Run.h"
#include "core/solve/Solve.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    return {{.key = "noncontinuous", .label = "Noncontinuous load", .type = T::Load, .value = "10 A", .unit = "A", .help = "0 A where there is none"},
            {.key = "continuous", .label = "Continuous load", .type = T::Load, .value = "0 A", .unit = "A"},
            systemField(),
            {.key = "poles", .label = "Poles", .type = T::Choice, .value = "1", .choices = {"1", "2", "3"}},
            {.key = "powerFactor", .label = "Power factor", .value = "1", .least = 0.01, .most = 1},
            {.key = "device", .label = "Device", .type = T::Choice, .value = "breaker", .choices = benchWords<DeviceKind>()},
            {.key = "fullRated", .label = "Rated at 100 %", .type = T::Flag, .value = "no"},
            sizeField("size", "Protecting", book, true, "auto"),
            materialField(),
            {.key = "receptacles", .label = "Feeds several receptacles", .type = T::Flag, .value = "no"}};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    const auto system = in.choice<VoltageSystem>("system");
    const int poles = in.whole("poles");
    const double pf = in.number("powerFactor");
    const auto kind = in.choice<DeviceKind>("device");
    const auto amps = [&](const char* key) {
        const auto l = loadFrom(in.text(key));
        if (!l || l->amount < 0) in.refuse(key, "\"" + in.text(key) + "\" is not a load", "Type 16 A, 1500 VA, 900 W or 2 kW.");
        return l->amount > 0 ? benchAmps(in, *l, pf, system, poles, book, &a.working).v : 0.0;
    };
    const double non = amps("noncontinuous"), cont = amps("continuous");
    if (non + cont <= 0) in.refuse("noncontinuous", "there is no load", "Give a noncontinuous or a continuous load above zero.");
    const double factor = in.flag("fullRated") ? 1 : book.continuousFactor;
    const double required = non + factor * cont, rating = book.ratingAtOrAbove(required, kind);
    a.working.step("Needed", fmt::format("{} A + {} × {} A", figures(non), figures(factor), figures(cont)), figures(required) + " A", book.cite("continuousDevice"));
    if (rating == 0) in.refuse("noncontinuous", fmt::format("no standard device is rated {} A or more", figures(required)), "Divide the load over several feeders.");
    a.working.step("Device", "next standard rating", lintel::rating(rating) + " A", book.cite("rating"));
    a.working.governs();
    a.figure("required_A", "Needed", figures(required) + " A", required);
    a.figure("device_A", "Device", fmt::format("{} A {}P {}", lintel::rating(rating), poles, wordOf(kind)), rating);
    if (const double frame = book.frameFor(rating, kind); frame > 0) a.figure("frame_A", isFuse(kind) ? "Switch" : "Frame", lintel::rating(frame) + " A", frame);
    if (const SizeIndex s = in.size("size", book); s >= 0) {
        const Material m = in.choice<Material>("material");
        const double carries = book.ampacity(s, m, 75), small = book.smallConductorLimit(s, m);
        if (carries <= 0) in.refuse("size", fmt::format("{} {} is not in table {}", sizeWords(book, s), wordOf(m), book.cite("ampacity")));
        double most = carries <= book.nextRatingUpTo && !in.flag("receptacles") ? book.ratingAtOrAbove(carries, kind) : book.ratingAtOrBelow(carries, kind);
        if (most > book.nextRatingUpTo) most = book.ratingAtOrBelow(carries, kind);
        if (small > 0) most = std::min(most, small);
        a.working.step("Largest for the conductor", small > 0 ? fmt::format("{} {} is held to {} A", sizeWords(book, s), wordOf(m), figures(small)) : fmt::format("{} {} carries {} A at 75 °C", sizeWords(book, s), wordOf(m), figures(carries)), lintel::rating(most) + " A",
                       small > 0 ? book.cite("smallConductor") : most > carries ? book.cite("nextRating") : book.cite("protected"));
        a.figure("largest_A", "Largest for " + sizeWords(book, s), lintel::rating(most) + " A", most);
        if (rating > most) a.cautions.push_back(fmt::format("{} {} is too small for the {} A device", sizeWords(book, s), wordOf(m), lintel::rating(rating)));
    }
    return a;
}

} // namespace

extern const BenchKind ocpdBench;
const BenchKind ocpdBench{"ocpd", "Overcurrent device", "The standard device for a load, and the largest that a conductor may have.", fields, work};

} // namespace lintel
