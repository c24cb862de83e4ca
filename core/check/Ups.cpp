// A UPS whose rating is not entered, or is less than what is behind it.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/solve/EquipmentSize.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        if (b.use != BoardUse::Ups) continue;
        const BoardResult& r = in.results.of(b.id);
        if (b.kva <= 0)
            into.push_back({&self, Severity::Check, b.id, b.name + ": its kVA are not entered", ""});
        else if (const double out = magnitude(r.ups->out); out > b.kva * 1000 * 1.0005)
            into.push_back({&self, Severity::Stop, b.id,
                            fmt::format("{}: {} kVA of demand on {} kVA", b.name, kilo(out), rating(b.kva)), ""});
        else if (b.kw > 0 && r.ups->out.real() > b.kw * 1000 * 1.0005)
            into.push_back({&self, Severity::Stop, b.id,
                            fmt::format("{}: {} kW of demand on {} kW", b.name, kilo(r.ups->out.real()), rating(b.kw)),
                            ""});
        else if (const double start = out - r.startRunningVa + r.startVa;
                 r.startVa > 0 && start > b.kva * 1000 * 1.0005)
            into.push_back({&self, Severity::Check, b.id,
                            fmt::format("{}: {} kVA while the largest motor behind it starts, on {} kVA; its maker has "
                                        "to say whether it bears that",
                                        b.name, kilo(start), rating(b.kva)),
                            ""});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    const auto size = equipmentSize(in.project, in.book, in.results, id);
    if (!size || size->size <= 0 || size->size <= size->now) return {};
    return {{fmt::format("{} kVA, the next above its demand", rating(size->size)),
             [=, kva = size->size](Project& p) { enterEquipmentSize(p, id, kva); }}};
}

} // namespace

extern const CheckRule upsRule;
const CheckRule upsRule{.id = "ups", .remedies = remedies, .find = find};

} // namespace lintel
