#include "core/sheets/BoardHead.h"

#include "core/base/Format.h"
#include "core/figures/Words.h"
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

std::string ratingWords(const SheetInput& in, const Board& b, const BoardResult& r) {
    std::string words = figures(b.ratingKA) + " kA";
    if (b.seriesKA > 0) words += fmt::format(" ({} in series)", figures(b.seriesKA));
    words += r.fault.known ? fmt::format(" · {} kA", faultWords(r.fault)) : " · not known";
    if (in.book.metric() && r.fault.known)
        words += fmt::format(" · {}{} Ω", r.fault.runsUnknown ? "≥ " : "", figures(magnitude(r.fault.loop)));
    return words;
}

std::string fedFrom(const SheetInput& in, const BoardResult& r) {
    if (r.via) return nameOf(in.project, r.via);
    std::string from = r.parent ? nameOf(in.project, r.parent) : "nothing";
    if (auto* t = in.project.transformers.find(r.parent.as<Transformer>()))
        from += fmt::format(" ({} kVA)", rating(t->kva));
    return from;
}

std::string feederWords(const SheetInput& in, const Board& b, const BoardResult& r) {
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

} // namespace

std::vector<HeadFact> boardHead(const SheetInput& in, const Board& b) {
    const BoardResult& r = in.results.of(b.id);
    return {{"Voltage", systemWords(b.system)},
            {"Bus / main", busWords(in, b)},
            {in.book.metric() ? "Rating · fault level · Zs here" : "Rating · fault level here", ratingWords(in, b, r)},
            {"Fed from", fedFrom(in, r)},
            {"Feeder", feederWords(in, b, r)},
            {"Location", locationWords(in, b)}};
}

} // namespace lintel
