// The adiabatic rule by itself: what a fault current asks of a conductor, and how long a conductor stands it.

#include "core/base/Format.h"
#include "core/bench/BenchInputs.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr const char *core = "core of a cable", *separate = "separate", *armour = "armour";

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    return {{.key = "current", .label = "Fault current", .value = "1.5 kA", .unit = "A", .least = 0.1, .most = 1e6},
            {.key = "time",
             .label = "Lasts",
             .value = "0.4",
             .unit = "s",
             .least = 0.001,
             .most = 5,
             .help = "Up to 5 s: the rule holds no longer."},
            {.key = "energy",
             .label = "Let through",
             .value = "auto",
             .unit = "A²s",
             .least = 1,
             .most = 1e9,
             .help = "By the maker of the device, in place of current and time."},
            {.key = "conductor",
             .label = "Conductor",
             .type = T::Choice,
             .value = core,
             .choices = {core, separate, armour}},
            materialField(),
            {.key = "insulation",
             .label = "Highest temperature",
             .type = T::Choice,
             .value = "70",
             .unit = "°C",
             .choices = {"70", "90"},
             .help = "Of the cable under load."},
            sizeField("size", "Its size", book, true, "auto")};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.working.title = "Adiabatic rule";
    const CableRules& c = book.cables;
    const std::size_t m = std::size_t(in.choice<Material>("material")), hot = in.text("insulation") == "90";
    const std::string which = in.text("conductor");
    const double k = which == armour ? c.kArmour[hot] : which == separate ? c.kSeparate[m][hot] : c.k[m][hot];
    const double amps = in.number("current"), seconds = in.number("time");
    const auto energy = in.maybe("energy");
    const double i2t = energy.value_or(amps * amps * seconds), least = std::sqrt(i2t) / k;
    a.working.step("k",
                   which == armour ? fmt::format("steel armour, cable of {} °C", in.text("insulation"))
                                   : fmt::format("{}, {}, {} °C", wordOf(in.choice<Material>("material")), which,
                                                 in.text("insulation")),
                   figures(k) + " A√s/mm²", book.cite("adiabatic"));
    a.working.step("S",
                   energy ? fmt::format("√{} A²s / {}", number(i2t), figures(k))
                          : fmt::format("√({}² A² × {} s) / {}", figures(amps), figures(seconds), figures(k)),
                   figures(least) + " mm²", book.cite("adiabatic"));
    a.working.governs();
    a.figure("k", "k", figures(k), k);
    a.figure("energy_A2s", "I²t", number(i2t) + " A²s", i2t);
    a.figure("least_mm2", "At least", figures(least) + " mm²", least);
    SizeIndex next = -1;
    for (SizeIndex s = 0; s < SizeIndex(book.sizes().size()) && next < 0; ++s)
        if (book.sizes()[std::size_t(s)].mm2 >= least - 1e-9 && book.sizes()[std::size_t(s)].at20[m] > 0) next = s;
    if (which != armour)
        a.figure("size_mm2", "Next size", next >= 0 ? sizeWords(book, next) : "past the series",
                 next >= 0 ? nlohmann::ordered_json(book.sizes()[std::size_t(next)].mm2)
                           : nlohmann::ordered_json(nullptr));
    if (const SizeIndex s = in.size("size", book); s >= 0) {
        const double mm2 = book.sizes()[std::size_t(s)].mm2, longest = std::pow(k * mm2 / amps, 2);
        a.working.step("Longest", fmt::format("({} × {} mm² / {} A)²", figures(k), figures(mm2), figures(amps)),
                       figures(longest) + " s", book.cite("adiabatic"));
        a.figure("withstands", "Withstands it", mm2 + 1e-9 >= least ? "yes" : "no", mm2 + 1e-9 >= least);
        a.figure("longest_s", fmt::format("{} at {} A", sizeWords(book, s), figures(amps)),
                 figures(std::min(longest, 5.0)) + (longest > 5 ? " s: more than the rule holds for" : " s"), longest);
        if (longest > 5)
            a.cautions.push_back("beyond 5 s heat leaves the conductor, and the rule says too little: not more than 5 "
                                 "s are taken from it");
    }
    if (!energy && seconds < 0.1)
        a.cautions.push_back("below 0.1 s the first half-wave counts: go by what the device lets through");
    return a;
}

} // namespace

extern const BenchKind adiabaticBench;
const BenchKind adiabaticBench{
    "adiabatic",
    "Adiabatic rule",
    "The least cross-section for a fault current and its time, and the longest time that a size stands it.",
    fields,
    work,
    BenchFor::Cables};

} // namespace lintel
