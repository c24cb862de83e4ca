// What a generator takes over: more than it gives, or a motor that it cannot start.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/EquipmentSize.h"
#include "core/solve/States.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Source& s : in.project.sources) {
        if (s.kind != SourceKind::Generator) continue;
        const SourceResult& r = in.results.of(s.id);
        if (r.used > 1.0005)
            into.push_back({&self, Severity::Stop, s.id,
                            fmt::format("{}: takes over {} kVA and gives {}", s.name, kilo(r.standby), rating(s.kva)),
                            in.book.cite("generator")});
        else if (r.peak > s.kva * 1000 * s.peakShare * 1.0005)
            into.push_back({&self, Severity::Check, s.id,
                            fmt::format("{}: {} kVA for the moment of its largest start, {} kVA is what it gives then",
                                        s.name, kilo(r.peak), figures(s.kva * s.peakShare)),
                            ""});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const SourceId id = s.about.as<Source>();
    if (const auto size = equipmentSize(in.project, in.book, in.results, id); size && size->size > 0)
        out.push_back({fmt::format("Make it {} kVA", rating(size->size)),
                       [=, kva = size->size](Project& p) { p.sources.change(id)->kva = kva; }});
    const Board* largest = nullptr; // the one whose demand weighs most
    for (const Board& b : in.project.boards)
        if (b.alternate && sourceOf(in.project, b.alternate) == id &&
            (!largest || in.results.of(b.id).demand > in.results.of(largest->id).demand))
            largest = &b;
    if (largest)
        out.push_back(
            {"Take " + largest->name + " off it", [b = largest->id](Project& p) { alternateFrom(p, b, {}); }});
    return out;
}

} // namespace

extern const CheckRule standbyRule;
const CheckRule standbyRule{.id = "standby", .remedies = remedies, .find = find};

} // namespace lintel
