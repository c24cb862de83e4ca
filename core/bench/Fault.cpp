// Fault levels along a row of runs and transformers from a source.

#include "core/solve/Fault.h"
#include "core/base/Parse.h"

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

/// The words of a line, with "×" as "x" and units apart from their numbers.
std::vector<std::string> wordsOf(std::string line) {
    for (std::size_t at; (at = line.find("×")) != std::string::npos;) line.replace(at, std::string("×").size(), "x");
    std::istringstream in(line);
    std::vector<std::string> out;
    for (std::string w; in >> w;) {
        std::size_t digits = 0;
        while (digits < w.size() && (isDigit(w[digits]) || w[digits] == '.')) ++digits;
        const std::string unit = w.substr(digits);
        if (digits && (unit == "ft" || unit == "feet" || unit == "m" || unit == "kVA" || unit == "%"))
            out.push_back(w.substr(0, digits)), out.push_back(unit);
        else
            out.push_back(w);
    }
    return out;
}
std::optional<double> numeric(const std::string& s) { return plainNumber(s); }

/// A system by its word; a number alone only where it is one that the trade uses, as "230".
std::optional<VoltageSystem> systemNamed(const std::string& word) {
    const auto s = systemFrom(word);
    const auto all = usualSystems();
    return s && (!numeric(word) || std::find(all.begin(), all.end(), *s) != all.end()) ? s : std::nullopt;
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

    void run(const std::string& line, const std::vector<std::string>& words) {
        const std::string help = "Write: run 100 ft 500 x2 copper steel";
        std::optional<Metres> length;
        SizeIndex size = -1;
        int sets = 1;
        Material m = Material::Copper;
        Raceway raceway = Raceway::Steel;
        for (std::size_t i = 1; i < words.size(); ++i) {
            const std::string& w = words[i];
            const auto v = numeric(w);
            if (v && i + 1 < words.size() && (words[i + 1] == "ft" || words[i + 1] == "feet" || words[i + 1] == "m"))
                length = words[i + 1] != "m" ? feet(*v) : Metres{*v}, ++i;
            else if (const auto mat = fromWord<Material>(w))
                m = *mat;
            else if (const auto way = fromWord<Raceway>(w))
                raceway = *way;
            else if (w.size() > 1 && w[0] == 'x' && numeric(w.substr(1)))
                sets = int(*numeric(w.substr(1)));
            else if (w == "x" && i + 1 < words.size() && numeric(words[i + 1]))
                sets = int(*numeric(words[++i]));
            else if (size < 0 && book.find(w[0] == '#' ? w.substr(1) : w) >= 0)
                size = book.find(w[0] == '#' ? w.substr(1) : w);
            else if (w != "kcmil" && w != "AWG")
                bad(line, "\"" + w + "\" is not understood", help);
        }
        if (!length || length->v < 0) bad(line, "it has no length", help);
        if (size < 0) bad(line, "it has no conductor size", help);
        if (sets < 1 || sets > 40) bad(line, "from 1 to 40 sets", help);
        if (!book.choosable(size, m))
            bad(line, fmt::format("{} has no impedance for it", book.cite("impedance")), "Choose another size.");
        const ConductorSize& s = book.sizes()[std::size_t(size)];
        if (book.metric()) { // at 20 °C, with the reactance of cores in one sheath, 0.08 mΩ/m
            const Complex each = Complex{s.at20[std::size_t(m)] * warmer(celsius), 0.00008} * (length->v / sets);
            const Complex hot{s.at20[std::size_t(m)] * warmer(70) * length->v / sets, each.imag()};
            at = afterRun(at, each, each, hot + hot, system);
            return point(fmt::format("after {} of {}{} {}", benchLength(*length, in.units()),
                                     sets > 1 ? fmt::format("{} sets of ", sets) : "", sizeWords(book, size),
                                     wordOf(m)));
        }
        const Complex ohms =
            Complex{s.resistance[std::size_t(m)][std::size_t(raceway)], s.reactance[std::size_t(raceway)]} *
            (length->v / sets);
        const Complex cold{ohms.real() * coldFactor(m, celsius), ohms.imag()};
        at = afterRun(at, cold, cold, {}, system);
        point(fmt::format("after {} of {}{} {}", benchLength(*length, in.units()),
                          sets > 1 ? fmt::format("{} sets of ", sets) : "", sizeWords(book, size), wordOf(m)));
    }
    void transformer(const std::string& line, const std::vector<std::string>& words) {
        const std::string help = "Write: transformer 75 kVA 4.5 % X/R 2 208Y/120";
        Transformer t;
        t.primary = system;
        t.kva = 0, t.percentZ = 0, t.xOverR = 2;
        std::optional<VoltageSystem> secondary;
        for (std::size_t i = 1; i < words.size(); ++i) {
            const std::string& w = words[i];
            const auto v = numeric(w);
            if (v && i + 1 < words.size() && words[i + 1] == "kVA")
                t.kva = *v, ++i;
            else if (v && i + 1 < words.size() && words[i + 1] == "%")
                t.percentZ = *v, ++i;
            else if (w == "X/R" && i + 1 < words.size() && numeric(words[i + 1]))
                t.xOverR = *numeric(words[++i]);
            else if (const auto sys = systemNamed(w))
                secondary = *sys;
            else
                bad(line, "\"" + w + "\" is not understood", help);
        }
        if (t.kva < 0.1 || t.kva > 1e6 || t.percentZ < 0.1 || t.percentZ > 100 || t.xOverR < 0 || !secondary)
            bad(line, "it needs its kVA, its impedance in % and the system of its secondary", help);
        t.secondary = *secondary;
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
    s.system = in.system("system");
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
        const auto words = wordsOf(line);
        if (words.front() == "run")
            w.run(line, words);
        else if (words.front() == "transformer")
            w.transformer(line, words);
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
