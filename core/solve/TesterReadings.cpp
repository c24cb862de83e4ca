#include "core/solve/TesterReadings.h"

#include "core/solve/Procedure.h"

namespace lintel {

TesterReadings testerReadings(const RunResult& run, const RuleBook& book) {
    const RunNeed& need = run.need;
    TesterReadings t;
    if (!book.metric() || run.size < 0 || !run.earth->known || !need.lengthKnown || need.cable->type < 0) return t;
    const auto coldOhms = [&](SizeIndex size) {
        return book.sizes()[std::size_t(size)].at20[std::size_t(need.material)] / run.sets;
    };
    t.r1 = coldOhms(run.size);
    double siemens = run.ground >= 0 ? 1 / coldOhms(run.ground) : 0;
    if (run.earth->armour)
        siemens += 1 / armourOhms(need, book.cables.types[std::size_t(need.cable->type)], run.size, run.sets);
    if (siemens <= 0) return t;
    t.known = true;
    t.r2 = 1 / siemens;
    const double both = t.r1 + t.r2;
    t.together =
        both * need.length.v * (need.cable->ring ? 0.25 : 1) + (need.cable->ring ? both * double(need.cable->spur) : 0);
    if (!run.earth->byResidual) t.zsMost = testerShare * double(run.earth->limit);
    return t;
}

} // namespace lintel
