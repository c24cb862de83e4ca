#pragma once
// What several lists say of the conductors of a run.

#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/lists/List.h"
#include "core/solve/RunParts.h"

#include <fmt/format.h>

namespace lintel {

/// "EMT 1-1/4", or in metric practice the cable and how it lies; empty: none.
inline std::string racewayWords(const SheetInput& in, const RunResult& run, const RunParts& parts) {
    if (!in.book.metric()) return parts.conduit.size ? parts.conduitType + " " + parts.conduit.size->name : "";
    if (run.need.cable->type < 0) return "";
    const CableType& type = in.book.cables.types[std::size_t(run.need.cable->type)];
    return type.name + ", method " + type.methods[std::size_t(run.need.cable->method)].name;
}
inline const std::string& racewayHeading(const SheetInput& in) { return in.book.word(TradeWord::Raceway); }

/// "4 500 kcmil, #3 gnd"; what there is to say where there is no size.
inline ListCell conductorCell(const SheetInput& in, const RunResult& run) {
    if (run.state == Sizing::OutsideTables) return {"medium voltage, by others", {}, Ink::Check};
    if (run.size < 0) return {"no size fits", {}, Ink::Stop};
    return {
        conductorWords(run, in.book) + (run.tooSmall ? ", too small" : ""), {}, run.tooSmall ? Ink::Stop : Ink::Ink};
}
/// % lost along a run or in all, against its limit.
inline ListCell dropCell(double lost, double limit, bool known) {
    if (!known) return {lost > 0 ? "≥ " + number(lost, 1) : "–", {}, Ink::Check};
    ListCell c{number(lost, 1), lost};
    if (lost > limit + 1e-9) c.ink = Ink::Stop;
    return c;
}
/// kA at a point, "≤" where a run before it is not known.
inline ListCell faultCell(const FaultPoint& fault) {
    if (!fault.known) return {"–"};
    ListCell c = figureCell(fault.worst());
    if (fault.runsUnknown) c = {faultWords(fault), {}, Ink::Check};
    return c;
}
/// "20/1", "B16/3": a device with its poles, which a metric one does not tell by itself.
inline std::string deviceWithPoles(const SheetInput& in, const CircuitResult& r, int poles) {
    return deviceWords(r, poles, in.book) + (in.book.metric() && poles > 1 ? fmt::format("/{}", poles) : "");
}
/// What feeds a node: its circuit, or what it hangs on straight.
inline std::string fedFrom(const Project& p, const NodeResult& n) {
    if (!n.parent) return "–";
    return nameOf(p, n.via ? Ref(n.via) : n.parent);
}
/// "100/3", "B16"; what stands before it where it hangs on something straight.
inline std::string deviceCell(const SheetInput& in, const NodeResult& n) {
    if (!n.via) return "–";
    const Circuit& c = in.project.circuits[n.via];
    return deviceWords(in.results.of(n.via), c.poles, in.book);
}

} // namespace lintel
