// What a generator takes over: more than it gives, a motor that it cannot start, or another voltage.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards)
        if (const Source* s = in.project.sources.find(b.alternate.as<Source>());
            s && !systemsAgree(s->system, b.system))
            into.push_back({&self, Severity::Stop, b.id,
                            fmt::format("{} is for {} V and would be taken over at {} V by {}", b.name,
                                        wordOf(b.system), wordOf(s->system), s->name),
                            ""});
    for (const Source& s : in.project.sources) {
        if (s.kind != SourceKind::Generator) continue;
        const SourceResult& r = in.results.of(s.id);
        if (r.used > 1.0005)
            into.push_back({&self, Severity::Stop, s.id,
                            fmt::format("{}: takes over {} kVA and gives {}", s.name, kilo(r.standby), rating(s.kva)),
                            in.book.cite("generator")});
        else if (r.peak > s.kva * 1000 * s.peakShare * 1.0005)
            into.push_back(
                {&self, Severity::Check, s.id,
                 fmt::format("{}: {} kVA for the moment its largest motor starts last, {} kVA is what it gives then",
                             s.name, kilo(r.peak), figures(s.kva * s.peakShare)),
                 ""});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    if (s.about.is<Board>()) {
        const BoardId id = s.about.as<Board>();
        out.push_back({"Take it off the generator", [=](Project& p) { p.boards.change(id)->alternate = {}; }});
        for (const Source& g : in.project.sources)
            if (g.kind == SourceKind::Generator && systemsAgree(g.system, in.project.boards[id].system))
                out.push_back({"Let " + g.name + " take it over",
                               [=, source = g.id](Project& p) { p.boards.change(id)->alternate = source; }});
        return out;
    }
    const SourceId id = s.about.as<Source>();
    const Source& g = in.project.sources[id];
    const SourceResult& r = in.results.of(id);
    const double needed = std::max(r.standby, r.peak / g.peakShare) / 1000;
    for (double kva : in.book.tables.generatorKva)
        if (kva >= needed) {
            out.push_back(
                {fmt::format("Make it {} kVA", rating(kva)), [=](Project& p) { p.sources.change(id)->kva = kva; }});
            break;
        }
    const Board* largest = nullptr; // the one whose demand weighs most
    for (const Board& b : in.project.boards)
        if (b.alternate == Ref(id) && (!largest || in.results.of(b.id).demand > in.results.of(largest->id).demand))
            largest = &b;
    if (largest)
        out.push_back({"Take " + largest->name + " off it",
                       [b = largest->id](Project& p) { p.boards.change(b)->alternate = {}; }});
    return out;
}

} // namespace

extern const CheckRule standbyRule;
const CheckRule standbyRule{.id = "standby", .remedies = remedies, .find = find};

} // namespace lintel
