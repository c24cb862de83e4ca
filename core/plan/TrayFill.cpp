#include "core/plan/TrayFill.h"

#include "core/solve/RunParts.h"

namespace lintel {

TrayFill trayFill(const Project& p, const RuleBook& book, const Results& results, TrayId id) {
    TrayFill out;
    const Tray* tray = p.trays.find(id);
    const auto loads = trayLoads(p);
    const auto it = loads.find(id);
    if (!tray || it == loads.end()) return out;
    out.runs = int(it->second.runs.size());
    out.known = true;
    for (Ref run : it->second.runs) {
        const RunParts parts = partsOf(p, book, results, run);
        if (!parts.conduitType.empty() && !parts.conduit.unknown && parts.conduit.area > 0) {
            out.area += parts.conduit.area;
            continue;
        }
        out.known = false;
        const RunResult& r = run.is<Circuit>() ? results.of(run.as<Circuit>()).run : results.node(run)->run;
        const auto mm2 = [&](SizeIndex s) { return s >= 0 ? book.sizes()[std::size_t(s)].mm2 : 0.0; };
        out.area += std::max(1, r.sets) * ((parts.lines ? parts.lines : r.need.poles) * mm2(r.size) +
                                           parts.neutrals * mm2(parts.neutral) + mm2(parts.ground));
    }
    out.share = out.area / (tray->width * tray->depth * 1e6);
    return out;
}

} // namespace lintel
