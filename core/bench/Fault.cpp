// Fault levels along a row of runs and transformers from a source.

#include "core/solve/Fault.h"
#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/bench/FaultPath.h"

#include "core/base/Format.h"
#include "core/bench/BenchInputs.h"

#include <fmt/format.h>
#include <sstream>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<BenchField> f{
        {.key = "source",
         .label = "Source",
         .type = T::Choice,
         .value = "utility transformer",
         .choices = benchWords<SourceKind>()},
        systemField("480Y/277"),
        {.key = "faultKA",
         .label = "Fault level",
         .value = "30",
         .unit = "kA",
         .least = 0.001,
         .most = 1000,
         .only = {"fault level", "existing board"}},
        {.key = "kva",
         .label = "Rated",
         .value = "1500",
         .unit = "kVA",
         .least = 0.1,
         .most = 1e6,
         .only = {"utility transformer", "generator"}},
        {.key = "percentZ",
         .label = "Impedance",
         .value = "5.75",
         .unit = "%",
         .least = 0.1,
         .most = 100,
         .help = "Of a generator: its subtransient reactance.",
         .only = {"utility transformer", "generator"}},
        {.key = "xOverR", .label = "X/R", .value = "6", .least = 0, .most = 1000},
        {.key = "utilityMVA",
         .label = "Utility before it",
         .value = "auto",
         .unit = "MVA",
         .least = 0.1,
         .most = 1e6,
         .help = "Three-phase fault level on its primary. Auto: infinite.",
         .seldom = true,
         .only = {"utility transformer"}},
        {.key = "utilityXR",
         .label = "X/R of the utility",
         .value = "10",
         .least = 0,
         .most = 1000,
         .seldom = true,
         .only = {"utility transformer"}},
        {.key = "c",
         .label = "Voltage factor c",
         .value = "auto",
         .least = 0.5,
         .most = 1.5,
         .help = book.metric() ? fmt::format("On the volts that drive the fault. Auto: {}, the largest of the book.",
                                             book.cables.cMax)
                               : std::string("On the volts that drive the fault. Auto: 1."),
         .seldom = true},
        {.key = "celsius",
         .label = "Conductors at",
         .value = "20",
         .unit = "°C",
         .least = -40,
         .most = 250,
         .help = "20 gives the largest fault; warm conductors the smallest.",
         .seldom = true},
        {.key = "motors",
         .label = "Motors fed there",
         .value = "0",
         .unit = "kVA",
         .least = 0,
         .most = 1e6,
         .help = "Four times their full-load current is added to faults on the source's system."},
        {.key = "path",
         .label = "Then",
         .type = T::Lines,
         .value = "run 100 ft 500 x2 copper steel\ntransformer 75 kVA 4.5 % X/R 2 208Y/120\nrun 20 ft 4/0 copper steel",
         .help = "One line each: run 100 ft 500 x2 copper steel, or: transformer 75 kVA 4.5 % X/R 2 208Y/120"},
        unitsField()};
    if (book.metric())
        for (BenchField& x : f) {
            if (x.key == "system") x.value = "400/230";
            if (x.key == "kva") x.value = "800";
            if (x.key == "percentZ") x.value = "5";
            if (x.key == "units") x.value = "metric";
            if (x.key == "path")
                x.value = "run 12 m 240 x2 copper\nrun 40 m 35 copper",
                x.help = "One line each: run 40 m 35 copper, or: transformer 100 kVA 4 % X/R 2 400/230";
        }
    return f;
}

struct Walk {
    const BenchInputs& in;
    const RuleBook& book;
    BenchAnswer& a;
    VoltageSystem system;
    FaultPoint at;
    double motors = 0, celsius = 20;

    void point(const std::string& name) {
        const auto kA = [](double v) { return v > 0 ? figures(v) : std::string("–"); };
        const double next = book.interruptingAtOrAbove(at.worst());
        a.rows.push_back({name, wordOf(system), kA(at.threePhase), kA(at.lineLine), kA(at.lineNeutral),
                          figures(at.xOverR()), figures(at.peak()), next > 0 ? rating(next) : "none"});
        const auto [z, text] = at.threePhase > 0 ? std::pair{at.z1, "three-phase"} : std::pair{at.zll, "line–line"};
        a.working.step(name,
                       fmt::format("Z = {:.3f} + j{:.3f} mΩ, |Z| = {:.3f} mΩ", z.real() * 1000, z.imag() * 1000,
                                   magnitude(z) * 1000),
                       fmt::format("{} kA {}", figures(at.threePhase > 0 ? at.threePhase : at.lineLine), text),
                       book.cite("faultDevice"));
    }
    [[noreturn]] void bad(const std::string& line, const std::string& what, const std::string& help) {
        in.refuse("path", "\"" + line + "\": " + what, help);
    }

    void run(const std::string& line, const std::string& after) {
        const auto read = readPathRun(after, book);
        if (!read) bad(line, read.error().what, read.error().help);
        const auto& [length, size, sets, m, raceway] = *read;
        if (sets < 1 || sets > limits::sets) bad(line, fmt::format("from 1 to {} sets", limits::sets), "");
        if (!book.choosable(size, m))
            bad(line, fmt::format("{} has no impedance for it", book.cite("impedance")), "Choose another size.");
        const ConductorSize& s = book.sizes()[std::size_t(size)];
        if (book.metric()) { // at 20 °C, with the reactance of cores in one sheath, 0.08 mΩ/m
            const Complex each = Complex{s.at20[std::size_t(m)] * warmer(celsius), 0.00008} * (length.v / sets);
            const Complex hot{s.at20[std::size_t(m)] * warmer(70) * length.v / sets, each.imag()};
            at = afterRun(at, each, each, hot + hot, system);
            return point(fmt::format("after {} of {}{} {}", benchLength(length, in.units()),
                                     sets > 1 ? fmt::format("{} sets of ", sets) : "", sizeWords(book, size),
                                     wordOf(m)));
        }
        const Complex ohms =
            Complex{s.resistance[std::size_t(m)][std::size_t(raceway)], s.reactance[std::size_t(raceway)]} *
            (length.v / sets);
        const Complex cold{ohms.real() * coldFactor(m, celsius), ohms.imag()};
        at = afterRun(at, cold, cold, {}, system);
        point(fmt::format("after {} of {}{} {}", benchLength(length, in.units()),
                          sets > 1 ? fmt::format("{} sets of ", sets) : "", sizeWords(book, size), wordOf(m)));
    }
    void transformer(const std::string& line, const std::string& after) {
        const auto read = readPathTransformer(after);
        if (!read) bad(line, read.error().what, read.error().help);
        Transformer t;
        t.primary = system;
        t.kva = read->kva, t.percentZ = read->percentZ, t.xOverR = read->xOverR, t.secondary = read->secondary;
        if (factsOf(t.secondary).phases == 3 && factsOf(system).phases != 3)
            bad(line, fmt::format("three phases cannot come from {}", wordOf(system)),
                "Choose a single-phase secondary.");
        at = afterTransformer(at, t);
        system = t.secondary;
        a.working.step("Transformer",
                       fmt::format("{} kVA, {} %, X/R {}: {:.3f} mΩ at its secondary", lintel::number(t.kva),
                                   figures(t.percentZ), figures(t.xOverR), magnitude(transformerOhms(t)) * 1000),
                       wordOf(system), "");
        point(fmt::format("secondary of {} kVA", rating(t.kva)));
    }
};

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.columns = {"Point", "System", "3φ kA", "L–L kA", "L–N kA", "X/R", "Peak kA", "Next rating kA"};
    Source s;
    s.kind = in.choice<SourceKind>("source");
    s.system = in.anySystem("system");
    s.faultKA = in.number("faultKA");
    s.kva = in.number("kva");
    s.percentZ = s.subtransient = in.number("percentZ");
    s.xOverR = in.number("xOverR");
    s.utilityMVA = in.maybe("utilityMVA").value_or(0);
    s.utilityXR = in.number("utilityXR");
    const double c = in.maybe("c").value_or(book.metric() ? book.cables.cMax : 1);
    Walk w{in, book, a, s.system, atSource(s, c), in.number("motors"), in.number("celsius")};
    if (c != 1)
        a.working.step("Voltage factor", fmt::format("c = {} on the volts that drive the fault", figures(c)), "",
                       in.maybe("c") ? "entered" : "IEC 60909-0, Table 1");
    if (s.utilityMVA > 0)
        a.working.step(
            "Utility",
            fmt::format("{} V² / {} MVA at the secondary", number(factsOf(s.system).lineLine.v), figures(s.utilityMVA)),
            fmt::format("{:.3f} mΩ",
                        c * factsOf(s.system).lineLine.v * factsOf(s.system).lineLine.v / s.utilityMVA / 1000),
            "");
    if (w.celsius != 20) a.working.step("Conductors", fmt::format("taken at {} °C", figures(w.celsius)), "", "");
    addMotors(w.at, w.motors * 1000, s.system);
    if (w.motors > 0)
        a.working.step("Motors' share", fmt::format("4 × the full-load current of {} kVA", figures(w.motors)),
                       figures(w.at.motors) + " kA", "");
    const SystemFacts f = factsOf(s.system);
    if (s.kind == SourceKind::UtilityTransformer || s.kind == SourceKind::Generator)
        a.working.step("Source",
                       fmt::format("{} kVA / ({} V{}) / {} %", lintel::number(s.kva), lintel::number(f.lineLine.v),
                                   f.phases == 3 ? "·√3" : "", figures(s.percentZ)),
                       figures(f.phases == 3 ? w.at.threePhase : w.at.lineLine) + " kA", "");
    w.point("source");
    for (const std::string& line : in.lines("path")) {
        const std::size_t blank = std::min(line.find(' '), line.size());
        const std::string first = line.substr(0, blank), after = trimmed(line.substr(blank));
        if (sameWord(first, "run"))
            w.run(line, after);
        else if (sameWord(first, "transformer"))
            w.transformer(line, after);
        else
            w.bad(line, "a line begins with run or transformer", "Write: run 100 ft 500 x2 copper steel");
    }
    const double next = book.interruptingAtOrAbove(w.at.worst());
    a.figure("three_phase_kA", "Three-phase at the end", w.at.threePhase > 0 ? figures(w.at.threePhase) + " kA" : "–",
             w.at.threePhase);
    a.figure("line_line_kA", "Line–line", w.at.lineLine > 0 ? figures(w.at.lineLine) + " kA" : "–", w.at.lineLine);
    a.figure("line_neutral_kA", "Line–neutral", w.at.lineNeutral > 0 ? figures(w.at.lineNeutral) + " kA" : "–",
             w.at.lineNeutral);
    a.figure("peak_kA", "Peak", figures(w.at.peak()) + " kA", w.at.peak());
    a.figure("next_rating_kA", "Next interrupting rating", next > 0 ? rating(next) + " kA" : "none that is usual",
             next);
    return a;
}

} // namespace

extern const BenchKind faultBench;
const BenchKind faultBench{
    "fault", "Fault levels", "Bolted fault currents from a source through any number of runs and transformers.",
    fields,  work,           BenchFor::All};

} // namespace lintel
