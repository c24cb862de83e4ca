#include "core/sheets/BoardHead.h"

#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/FreePlaces.h"
#include "core/project/Operations.h"
#include "core/sheets/BoardPlace.h"
#include "core/solve/RunParts.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::string busWords(const SheetInput& in, const Board& b) {
    // What another board may be fed from straight.
    const std::string lugs = b.lugs == Lugs::None ? "" : fmt::format(", {} lugs", wordOf(b.lugs));
    if (b.main > 0)
        return fmt::format("{} A / {} A {}{}", number(b.bus), number(b.main), in.book.word(TradeWord::MainDevice),
                           lugs);
    return fmt::format("{} A / {}{}", number(b.bus), in.book.word(TradeWord::NoMain), lugs);
}

std::string ratingWords(const SheetInput& in, const Board& b) {
    const BoardResult& r = in.results.of(b.id);
    std::string words = figures(b.ratingKA) + " kA";
    if (b.seriesKA > 0) words += fmt::format(" ({} in series)", figures(b.seriesKA));
    words += r.fault.known ? fmt::format(" · {} kA", faultWords(r.fault)) : " · not known";
    if (in.book.metric() && r.fault.known)
        words += fmt::format(" · {}{} Ω", r.fault.runsUnknown ? "≥ " : "", figures(magnitude(r.fault.loop)));
    return words;
}

std::string fedFrom(const SheetInput& in, const Board& b) {
    const BoardResult& r = in.results.of(b.id);
    if (r.via) return nameOf(in.project, r.via);
    std::string from = r.parent ? nameOf(in.project, r.parent) : "nothing";
    if (auto* t = in.project.transformers.find(r.parent.as<Transformer>()))
        from += fmt::format(" ({} kVA)", rating(t->kva));
    return from;
}

std::string feederWords(const SheetInput& in, const Board& b) {
    const BoardResult& r = in.results.of(b.id);
    if (!r.parent) return "–";
    std::string words = conductorWords(r.run, in.book);
    const RunParts parts = partsOf(in.project, in.book, in.results, b.id);
    if (parts.conduit.size) words += fmt::format(" in {} {}″", parts.conduitType, parts.conduit.size->name);
    if (r.run.need.lengthKnown) words += " · " + lengthOf(r.run.need, in.project.basis.units);
    return words;
}

std::string locationWords(const SheetInput& in, const Board& b) {
    std::string where = boardPlace(in.project, b);
    if (!b.enclosure.empty()) where += (where.empty() ? "" : " · ") + b.enclosure;
    if (b.mounting != Mounting::Surface) where += (where.empty() ? "" : " · ") + std::string(wordOf(b.mounting));
    return where.empty() ? "–" : where;
}

constexpr BoardFigure figureList[] = {
    {"voltage", "its system", "Voltage", [](const SheetInput&, const Board& b) { return systemWords(b.system); }},
    {"bus", "rating of its bus and of its main device", "Bus / main", busWords},
    {"rating", "what it can break, and the fault level here", "Rating · fault level here", ratingWords,
     "Rating · fault level · Zs here"},
    {"fed from", "what feeds it", "Fed from", fedFrom},
    {"feeder", "conductors, conduit and length of its feeder", "Feeder", feederWords},
    {"location", "where it stands, its enclosure and mounting", "Location", locationWords},
    {"demand", "demand, kVA and A", "Demand",
     [](const SheetInput& in, const Board& b) {
         const BoardResult& r = in.results.of(b.id);
         return fmt::format("{} kVA · {}", kilo(r.demand), demandWords(r, b));
     }},
    {"connected", "connected load, kVA", "Connected",
     [](const SheetInput& in, const Board& b) { return kilo(in.results.of(b.id).connected) + " kVA"; }},
    {"drop", "voltage drop from the source to the board", "Drop to here",
     [](const SheetInput& in, const Board& b) {
         const BoardResult& r = in.results.of(b.id);
         return dropWords(r.dropTotal, r.dropKnown);
     }},
    {"space", "free places of all", "Space left",
     [](const SheetInput& in, const Board& b) {
         return fmt::format("{} of {} places", freePlaces(in.project, b, in.results.on(b.id)), b.slots);
     }},
    {"enclosure", "its enclosure", "Enclosure",
     [](const SheetInput&, const Board& b) { return b.enclosure.empty() ? std::string("–") : b.enclosure; }},
    {"surge", "its surge protection", "Surge protection",
     [](const SheetInput&, const Board& b) { return b.surge.empty() ? std::string("none") : b.surge; }},
};
constexpr std::size_t usualFacts = 6;

} // namespace

std::span<const BoardFigure> boardFigures() { return figureList; }

const BoardFigure* boardFigure(const std::string& key) {
    for (const BoardFigure& f : figureList)
        if (f.key == key) return &f;
    return nullptr;
}

bool knownBoardFact(const std::string& key) {
    return key.empty() || boardFigure(key) || (key.starts_with("own ") && key.size() > 4);
}

std::string labelOf(const BoardFigure& figure, const RuleBook& book) {
    return book.metric() && figure.metricLabel ? figure.metricLabel : figure.label;
}

HeadFact headFact(const SheetInput& in, const Board& b, const std::string& key) {
    if (key.empty()) return {};
    if (const BoardFigure* figure = boardFigure(key)) return {labelOf(*figure, in.book), figure->text(in, b)};
    if (!key.starts_with("own ")) return {key, "?"};
    const std::string heading = key.substr(4);
    const auto own = b.texts.find(heading);
    return {heading, own == b.texts.end() ? "–" : own->second};
}

std::vector<HeadFact> boardHead(const SheetInput& in, const Board& b) {
    std::vector<HeadFact> facts;
    for (std::size_t i = 0; i < usualFacts; ++i) facts.push_back(headFact(in, b, figureList[i].key));
    return facts;
}

std::vector<HeadFact> scheduleHead(const SheetInput& in, const Board& b, const ScheduleForm& form) {
    if (form.head.empty()) return boardHead(in, b);
    std::vector<HeadFact> facts;
    for (const FormFact& f : form.head) {
        facts.push_back(headFact(in, b, f.fact));
        if (!f.label.empty()) facts.back().label = f.label;
    }
    return facts;
}

} // namespace lintel
