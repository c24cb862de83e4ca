#include "core/figures/CircuitFigures.h"

#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/Operations.h"
#include "core/solve/TesterReadings.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <unordered_map>

namespace lintel {
namespace {

using enum ColumnAlign;

std::string two(double x) { return fmt::format("{:.2f}", x); }
std::string ohms(double x) { return x >= 100 ? number(x) : two(x); }

/// The letter by which schedules name a kind of load.
std::string kindLetter(LoadKind kind) {
    switch (kind) {
    case LoadKind::Lighting:
        return "L";
    case LoadKind::Receptacle:
        return "R";
    case LoadKind::Motor:
        return "M";
    case LoadKind::Kitchen:
    case LoadKind::Range:
        return "K";
    case LoadKind::Heating:
        return "H";
    case LoadKind::Cooling:
        return "C";
    case LoadKind::Refrigeration:
        return "F";
    default:
        return "E";
    }
}

/// "1¼" for "1-1/4": trade sizes as drawings write them.
std::string tradeSize(std::string name) {
    static constexpr std::array<std::pair<const char*, const char*>, 3> fractions{
        {{"1/2", "½"}, {"3/4", "¾"}, {"1/4", "¼"}}};
    for (const auto& [plain, sign] : fractions)
        if (const auto at = name.find(plain); at != std::string::npos) {
            name.replace(at, 3, sign);
            if (at > 0 && name[at - 1] == '-') name.erase(at - 1, 1);
            break;
        }
    return name;
}

const CableMethod* methodOf(const CircuitFacts& f) {
    const RunResult* run = f.sized();
    if (!run || !f.in.book.metric() || run->need.cable->type < 0) return nullptr;
    return &f.in.book.cables.types[std::size_t(run->need.cable->type)].methods[std::size_t(run->need.cable->method)];
}
const EarthFault* earthOf(const CircuitFacts& f) {
    const RunResult* run = f.load() ? f.sized() : nullptr;
    return run && run->earth->known ? &*run->earth : nullptr;
}
TesterReadings readingsOf(const CircuitFacts& f) {
    return earthOf(f) ? testerReadings(*f.sized(), f.in.book) : TesterReadings{};
}
/// What is said of a load that somebody entered.
std::string amountOf(const CircuitFacts& f, const std::string& words) {
    return f.noLoad() ? "–" : f.load() ? words : std::string();
}
bool fitted(const CircuitFacts& f) { return f.c.use != CircuitUse::Reserved && f.r.device > 0; }
std::string sizeName(const CircuitFacts& f, SizeIndex size) {
    return size >= 0 ? f.in.book.sizes()[std::size_t(size)].name : "";
}

std::string protectionWords(const CircuitFacts& f) {
    std::string out;
    const auto add = [&](const std::string& w) { out += (out.empty() ? "" : ", ") + w; };
    if (f.c.groundFault) add("GF");
    if (f.c.arcFault) add("AF");
    if (!f.c.unprotected.empty()) add("none");
    return out;
}

std::string lineWords(const CircuitFacts& f) {
    const std::string first = lineName(f.r.lines[0], f.b);
    if (f.c.poles < 2) return first;
    const std::string last = lineName(f.r.lines[std::size_t(f.c.poles - 1)], f.b);
    return first + "–" + (f.c.poles == 3 && last.size() > 1 ? last.substr(1) : last); // "A–B", "L1–L2", "L1–3"
}
std::string residualWords(const CircuitFacts& f) {
    const RunResult* run = f.load() ? f.sized() : nullptr;
    if (!run || run->need.cable->residual <= 0) return "";
    const std::string type = wordOf(run->need.cable->residualType); // "type B": its letter
    return fmt::format("{} {}", run->need.cable->residualType == ResidualType::AWithDirect ? "A+" : type.substr(5),
                       number(double(run->need.cable->residual)));
}
std::string dropTotalWords(const CircuitFacts& f) {
    const RunResult* run = f.load() ? f.sized() : nullptr;
    if (!run || !run->need.lengthKnown) return "";
    return fmt::format("{}{:.1f}", run->need.beforeKnown ? "" : "≥ ", run->dropTotal);
}
std::string lengthNumber(const CircuitFacts& f) {
    const RunResult* run = f.load() ? f.sized() : nullptr;
    if (!run || !run->need.lengthKnown) return "";
    const Metres length = run->need.length;
    return (run->need.lengthAssumed ? "~" : "") +
           number(f.in.project.basis.units == UnitSystem::Imperial ? inFeet(length) : length.v, length.v < 10 ? 1 : 0);
}
/// The conductors without the unit that a heading of metric practice gives.
std::string conductorsWords(const CircuitFacts& f) {
    const RunResult* run = f.load() ? f.sized() : nullptr;
    if (!run) return "";
    std::string words = conductorWords(*run, f.in.book);
    if (const auto unit = words.find(" mm²"); unit != std::string::npos) words.erase(unit, std::string(" mm²").size());
    return words;
}
std::string unitWords(const CircuitFacts& f) {
    const RunResult* run = f.load() ? f.sized() : nullptr;
    if (!run) return "";
    if (f.in.book.metric()) return "mm²";
    return sizeWords(f.in.book, run->size).ends_with("kcmil") ? "kcmil" : "AWG";
}

/// A figure that has a text for each pole, in one row.
std::string eachPole(const char* key, const CircuitFacts& f, const char* between) {
    std::string all;
    for (int pole = 0; pole < f.c.poles; ++pole) {
        const std::string text = poleFigure(key, f, pole);
        if (!text.empty()) all += (all.empty() ? "" : between) + text;
    }
    return all;
}
/// VA of what is of one kind.
double vaOfKind(const CircuitFacts& f, LoadKind kind) {
    if (!f.load() || f.noLoad()) return 0;
    if (f.r.feeder) return f.r.feeds ? f.in.results.node(f.r.feeds)->kinds[std::size_t(kind)].va() : 0;
    if (f.r.mixed) return (*f.r.mixed)[std::size_t(kind)];
    return f.r.kind == kind ? f.r.va : 0;
}
template <LoadKind kind> std::string kindVa(const CircuitFacts& f) {
    const double va = vaOfKind(f, kind);
    return va > 0 ? number(va) : "";
}

constexpr CircuitFigure figureList[] = {
    {"place", "Circuit", "all its places: 17,19,21, or 5/L2 on a board of ways", "Ckt", Centre,
     [](const CircuitFacts& f) { return placesWords(f.b, f.c); }},
    {"pole", "Circuit", "the number of each pole, on a row of its own; in one row all of them", "Ckt", Centre,
     [](const CircuitFacts& f) { return eachPole("pole", f, ","); }},
    {"way", "Circuit", "its way on a board of ways, its first place elsewhere", "Way", Centre,
     [](const CircuitFacts& f) {
         if (f.c.slot < 1) return std::string();
         return std::to_string(f.b.form == BoardForm::Ways ? (f.c.slot - 1) / 3 + 1 : f.c.slot);
     }},
    {"line", "Circuit", "the lines it hangs on: A, A–B, L1–3", "φ", Centre, lineWords},
    {"name", "Circuit", "its name in the whole project: LP-1-17", "Circuit", Left,
     [](const CircuitFacts& f) { return nameOf(f.in.project, f.c.id); }},
    {"serves", "Circuit", "what it serves, or the board it feeds", "Serves", Left,
     [](const CircuitFacts& f) { return servesWords(f.in.project, f.in.results, f.c.id); }},
    {"along", "Circuit", "of a busway: ft or m from its fed end", "At", Right,
     [](const CircuitFacts& f) {
         if (!f.c.along || f.b.use != BoardUse::Busway) return std::string();
         const bool feet = f.in.project.basis.units == UnitSystem::Imperial;
         return number(feet ? inFeet(Metres{*f.c.along}) : *f.c.along, feet ? 0 : 1);
     }},
    {"points", "Circuit", "number of its points", "Pts", Right,
     [](const CircuitFacts& f) { return f.load() && f.r.points > 0 ? std::to_string(f.r.points) : std::string(); }},
    {"ring", "Circuit", "the word ring, where it is one and its name does not say so", "", Left,
     [](const CircuitFacts& f) {
         return std::string(f.c.ring && f.c.name.find("ring") == std::string::npos ? "ring" : "");
     }},
    {"notes", "Circuit", "numbers of the notes below that speak of it", "Note", Centre,
     [](const CircuitFacts& f) { return f.notes; }},
    {"note", "Circuit", "the designer's note, in full", "Remarks", Left,
     [](const CircuitFacts& f) { return f.c.note; }},

    {"VA", "Load", "connected load, VA", "VA", Right,
     [](const CircuitFacts& f) { return amountOf(f, number(connectedVa(f))); }},
    {"kVA", "Load", "connected load, kVA", "kVA", Right,
     [](const CircuitFacts& f) { return amountOf(f, kilo(connectedVa(f), 2)); }},
    {"pole VA", "Load", "VA of each pole, on a row of its own; in one row all of them", "VA", Right,
     [](const CircuitFacts& f) { return eachPole("pole VA", f, " / "); }},
    {"phase VA", "Load", "VA of each line, in a column of its own", "", Right,
     [](const CircuitFacts&) { return std::string(); }},
    {"amps", "Load", "load current, A", "A", Right,
     [](const CircuitFacts& f) { return amountOf(f, figures(f.r.load.v)); }},
    {"kind", "Load", "kind of its load", "Kind", Left,
     [](const CircuitFacts& f) { return f.r.feeder ? std::string() : amountOf(f, kindTitle(f.r.kind, f.in.book)); }},
    {"kind letter", "Load", "kind of its load as one letter; P: a board", "K", Centre,
     [](const CircuitFacts& f) { return amountOf(f, f.r.feeder ? "P" : kindLetter(f.r.kind)); }},

    {"VA lighting", "Load by kind", "connected load of this kind, VA", "Lighting", Right, kindVa<LoadKind::Lighting>},
    {"VA receptacle", "Load by kind", "connected load of this kind, VA", "Recept.", Right,
     kindVa<LoadKind::Receptacle>},
    {"VA motor", "Load by kind", "connected load of this kind, VA", "Motors", Right, kindVa<LoadKind::Motor>},
    {"VA kitchen", "Load by kind", "connected load of this kind, VA", "Kitchen", Right, kindVa<LoadKind::Kitchen>},
    {"VA heating", "Load by kind", "connected load of this kind, VA", "Heating", Right, kindVa<LoadKind::Heating>},
    {"VA cooling", "Load by kind", "connected load of this kind, VA", "Cooling", Right, kindVa<LoadKind::Cooling>},
    {"VA refrigeration", "Load by kind", "connected load of this kind, VA", "Refrig.", Right,
     kindVa<LoadKind::Refrigeration>},
    {"VA lift", "Load by kind", "connected load of this kind, VA", "Lifts", Right, kindVa<LoadKind::Vertical>},
    {"VA vehicle charging", "Load by kind", "connected load of this kind, VA", "Vehicles", Right,
     kindVa<LoadKind::Vehicle>},
    {"VA dwelling general", "Load by kind", "connected load of this kind, VA", "Dwelling", Right,
     kindVa<LoadKind::DwellingGeneral>},
    {"VA range", "Load by kind", "connected load of this kind, VA", "Ranges", Right, kindVa<LoadKind::Range>},
    {"VA dryer", "Load by kind", "connected load of this kind, VA", "Dryers", Right, kindVa<LoadKind::Dryer>},
    {"VA equipment", "Load by kind", "connected load of this kind, VA", "Equip.", Right, kindVa<LoadKind::Equipment>},
    {"VA existing", "Load by kind", "connected load of this kind, VA", "Existing", Right, kindVa<LoadKind::Existing>},
    {"VA capacitor", "Load by kind", "connected load of this kind, VA", "Capac.", Right, kindVa<LoadKind::Capacitor>},
    {"VA water heating", "Load by kind", "connected load of this kind, VA", "Water htg", Right,
     kindVa<LoadKind::WaterHeating>},
    {"VA instantaneous water heating", "Load by kind", "connected load of this kind, VA", "Inst. water", Right,
     kindVa<LoadKind::InstantWater>},
    {"VA outdoor lighting", "Load by kind", "connected load of this kind, VA", "Outdoor", Right,
     kindVa<LoadKind::OutdoorLighting>},
    {"VA large outlet", "Load by kind", "connected load of this kind, VA", "Outlets", Right,
     kindVa<LoadKind::LargeOutlet>},
    {"VA pool and spa", "Load by kind", "connected load of this kind, VA", "Pool", Right, kindVa<LoadKind::Pool>},

    {"device", "Device", "rating and poles: 20/3; with its type in metric practice: C32", "Brkr", Centre,
     [](const CircuitFacts& f) {
         return f.c.use != CircuitUse::Reserved ? deviceWords(f.r, f.c.poles, f.in.book) : std::string();
     }},
    {"rating", "Device", "its rating, A", "A", Right,
     [](const CircuitFacts& f) { return fitted(f) ? rating(f.r.device) : std::string(); }},
    {"poles", "Device", "its poles", "P", Centre,
     [](const CircuitFacts& f) { return f.c.use != CircuitUse::Reserved ? std::to_string(f.c.poles) : std::string(); }},
    {"device kind", "Device", "what it is: breaker, type B, fuse", "Device", Left,
     [](const CircuitFacts& f) { return fitted(f) ? std::string(wordOf(f.r.kindOfDevice)) : std::string(); }},
    {"starter", "Device", "how its motor is started, in letters: FVNR, DOL, VFD", "Starter", Centre,
     [](const CircuitFacts& f) { return f.load() ? starterSign(f.c.starter, f.in.book) : std::string(); }},
    {"kA", "Device", "what it can break, kA", "kA", Right,
     [](const CircuitFacts& f) {
         const double kA = f.c.heldKA.value_or(f.b.ratingKA);
         return f.c.use != CircuitUse::Reserved ? number(kA, kA < 10 ? 1 : 0) : std::string();
     }},
    {"RCD", "Device", "type and mA of its residual-current device", "RCD mA", Right, residualWords},
    {"protection", "Device", "GF: ground fault, AF: arc fault", "Prot.", Centre, protectionWords},

    {"conductors", "Run", "conductors in words: 2 #12, #12 gnd", "Wire", Left, conductorsWords},
    {"sets", "Run", "parallel sets", "Sets", Right,
     [](const CircuitFacts& f) { return f.load() && f.sized() ? std::to_string(f.sized()->sets) : std::string(); }},
    {"count", "Run", "conductors of a set that have this size: lines, and the neutral where it is as large", "No.",
     Right,
     [](const CircuitFacts& f) {
         return f.load() && f.sized() ? std::to_string(conductorsAlike(*f.sized())) : std::string();
     }},
    {"size", "Run", "size of its lines: 12, 1/0, 250, 2.5", "Size", Centre,
     [](const CircuitFacts& f) { return f.load() && f.sized() ? sizeName(f, f.sized()->size) : std::string(); }},
    {"sized", "Run", "sets and size in short: #12, 2×250", "Wire", Centre,
     [](const CircuitFacts& f) {
         if (!f.load() || !f.sized()) return std::string();
         std::string w = sizeOf(*f.sized(), f.in.book);
         if (const auto k = w.find(" kcmil"); k != std::string::npos) w.erase(k);
         return w;
     }},
    {"unit", "Run", "unit of the size: AWG, kcmil, mm²", "", Left, unitWords},
    {"material", "Run", "metal of its conductors: Cu, Al", "Mat.", Centre,
     [](const CircuitFacts& f) {
         if (!f.load() || !f.sized()) return std::string();
         return std::string(f.sized()->need.material == Material::Copper ? "Cu" : "Al");
     }},
    {"ground", "Run", "size of its protective conductor", "Gnd", Centre,
     [](const CircuitFacts& f) { return f.load() && f.sized() ? sizeName(f, f.sized()->ground) : std::string(); }},
    {"neutral", "Run", "size of its neutral", "Neut.", Centre,
     [](const CircuitFacts& f) { return f.load() && f.sized() ? sizeName(f, f.sized()->neutralSize) : std::string(); }},
    {"neutral apart", "Run", "its neutral where that is not one as large as the lines: #3/0, 2×#1/0", "Neut.", Centre,
     [](const CircuitFacts& f) {
         if (!f.load() || !f.sized() || !neutralApart(*f.sized())) return std::string();
         const std::string size = sizeWords(f.in.book, f.sized()->neutralSize);
         return (f.sized()->neutrals > 1 ? "2×" : "") + size.substr(0, size.find(' '));
     }},
    {"isolated", "Run", "size of its isolated ground, where it has one", "IG", Centre,
     [](const CircuitFacts& f) { return f.load() && f.sized() ? sizeName(f, f.sized()->isolated) : std::string(); }},
    {"conduit", "Run", "trade size of its conduit: ½, 1¼", "Conduit", Centre,
     [](const CircuitFacts& f) {
         const bool has = f.load() && f.sized() && f.parts().conduit.size;
         return has ? tradeSize(f.parts().conduit.size->name) : std::string();
     }},
    {"conduit kind", "Run", "kind of its conduit: EMT", "", Left,
     [](const CircuitFacts& f) { return f.load() && f.sized() ? f.parts().conduitType : std::string(); }},
    {"cable", "Run", "type of its cable", "Cable", Left,
     [](const CircuitFacts& f) {
         if (!f.load() || !methodOf(f)) return std::string();
         return f.in.book.cables.types[std::size_t(f.sized()->need.cable->type)].name;
     }},
    {"method", "Run", "how its cable is laid", "Method", Centre,
     [](const CircuitFacts& f) { return f.load() && methodOf(f) ? methodOf(f)->name : std::string(); }},
    {"length", "Run", "length one way, ft or m; ~ where it is assumed", "Length", Right, lengthNumber},
    {"carries", "Run", "what its conductors carry, A", "Iz", Right,
     [](const CircuitFacts& f) { return f.load() && f.sized() ? figures(f.sized()->ampacity) : std::string(); }},
    {"why", "Run", "what decided its size", "Why", Left,
     [](const CircuitFacts& f) { return f.load() && f.any() ? whyWords(*f.any()) : std::string(); }},
    {"raised", "Run", "the word raised, where its size was raised for drop", "", Centre,
     [](const CircuitFacts& f) {
         const bool raised = f.load() && f.sized() && f.sized()->why == Governing::VoltageDrop;
         return std::string(raised ? "raised" : "");
     }},
    {"held", "Run", "the word held, where the designer holds its size", "", Centre,
     [](const CircuitFacts& f) {
         return std::string(f.load() && f.sized() && f.sized()->state == Sizing::Held ? "held" : "");
     }},

    {"drop", "Drop", "lost along its own run, %", "Drop", Right,
     [](const CircuitFacts& f) {
         if (!f.load() || !f.sized() || !f.sized()->need.lengthKnown) return std::string();
         return fmt::format("{:.1f}", f.sized()->dropOwn);
     }},
    {"drop total", "Drop", "lost from the source to its end, %", "Drop %", Right, dropTotalWords},
    {"fault", "Fault", "fault level at its end, kA", "kA at end", Right,
     [](const CircuitFacts& f) { return f.load() && f.r.faultEnd > 0 ? figures(f.r.faultEnd) : std::string(); }},
    {"Zs", "Fault", "earth-fault loop at its end, Ω", "Zs Ω", Right,
     [](const CircuitFacts& f) { return earthOf(f) ? two(double(earthOf(f)->zs)) : std::string(); }},
    {"Zs limit", "Fault", "largest loop that opens its device in time, Ω", "Limit Ω", Right,
     [](const CircuitFacts& f) {
         return earthOf(f) && earthOf(f)->limit > 0 ? ohms(double(earthOf(f)->limit)) : std::string();
     }},
    {"R1+R2", "Fault", "line and protective conductor at 20 °C, Ω", "R1+R2", Right,
     [](const CircuitFacts& f) { return readingsOf(f).known ? two(readingsOf(f).together) : std::string(); }},
    {"Zs to read", "Fault", "80 % of the limit: what a tester may read, Ω", "80 %", Right,
     [](const CircuitFacts& f) { return readingsOf(f).zsMost > 0 ? two(readingsOf(f).zsMost) : std::string(); }},
};

} // namespace

CircuitFacts::CircuitFacts(const SheetInput& input, CircuitId circuit, std::string itsNotes)
    : in(input), c(input.project.circuits[circuit]), b(input.project.boards[c.board]), r(input.results.of(circuit)),
      notes(std::move(itsNotes)), run(input.results.run(circuit)) {}

const RunParts& CircuitFacts::parts() const {
    if (!made) made = partsOf(in.project, in.book, in.results, c.id);
    return *made;
}

std::span<const CircuitFigure> circuitFigures() { return figureList; }

const CircuitFigure* circuitFigure(const std::string& key) {
    static const auto byKey = [] {
        std::unordered_map<std::string_view, const CircuitFigure*> all;
        for (const CircuitFigure& f : figureList) all.emplace(f.key, &f);
        return all;
    }();
    const auto it = byKey.find(key);
    return it == byKey.end() ? nullptr : it->second;
}

double connectedVa(const CircuitFacts& f) {
    return f.r.feeder && f.r.feeds ? f.in.results.node(f.r.feeds)->connected : f.r.va;
}

std::optional<LoadKind> kindOfFigure(const std::string& figure) {
    const std::string before = "VA ";
    return figure.rfind(before, 0) == 0 ? fromWord<LoadKind>(figure.substr(before.size())) : std::nullopt;
}

std::optional<double> addend(const std::string& figure, const CircuitFacts& f) {
    if (!f.load() || f.noLoad()) return std::nullopt;
    if (figure == "VA") return connectedVa(f);
    if (figure == "kVA") return connectedVa(f) / 1000;
    if (figure == "points") return f.r.points;
    if (const auto kind = kindOfFigure(figure)) return vaOfKind(f, *kind);
    if (figure != "pole VA") return std::nullopt;
    double va = 0;
    for (int line = 0; line < 3; ++line) va += lineVa(f, line).value_or(0);
    return va;
}

std::optional<double> lineVa(const CircuitFacts& f, int line) {
    if (!f.load() || f.noLoad()) return std::nullopt;
    for (int i = 0; i < f.c.poles; ++i)
        if (f.r.lines[std::size_t(i)] == line)
            return f.r.feeder || !f.r.placed || f.r.split ? f.r.phaseVa[std::size_t(line)] : f.r.va / f.c.poles;
    return std::nullopt;
}

std::string lineVaWords(const CircuitFacts& f, int line) {
    const auto va = lineVa(f, line);
    const bool here = std::find(f.r.lines.begin(), f.r.lines.end(), line) != f.r.lines.end();
    return va ? number(*va) : f.noLoad() && here ? "–" : "";
}

std::string poleFigure(const std::string& key, const CircuitFacts& f, int pole) {
    if (key == "pole") {
        if (f.c.slot < 1) return "";
        return std::to_string(f.c.slot + pole * (f.b.form == BoardForm::TwoColumn ? 2 : 1));
    }
    const int line = pole < 3 ? f.r.lines[std::size_t(pole)] : -1;
    return line >= 0 ? lineVaWords(f, line) : "";
}

std::string placesWords(const Board& b, const Circuit& c) {
    if (b.form == BoardForm::Ways || c.slot < 1) return placeWords(b, c);
    std::string out;
    for (int i = 0; i < c.poles; ++i)
        out += (i ? "," : "") + std::to_string(c.slot + i * (b.form == BoardForm::TwoColumn ? 2 : 1));
    return out;
}

} // namespace lintel
