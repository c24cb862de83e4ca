// A residual-current device that does not see the direct current its load may send to earth, or is blinded by it.

#include "core/check/Check.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult& r,
          std::vector<Snag>& into) {
    const CableNeed& n = *r.run.need.cable;
    if (c.use != CircuitUse::Load || r.feeder || n.residual <= 0 || r.va <= 0) return;
    const std::string name = nameOfRun(in.project, c.id);
    if (r.kind == LoadKind::Vehicle && n.residualType != ResidualType::B && n.residualType != ResidualType::AWithDirect)
        into.push_back(
            {&self, Severity::Stop, c.id,
             fmt::format("{}: charges vehicles behind a residual-current device of {}", name, wordOf(n.residualType)),
             in.book.cite("residualType")});
    else if (n.residualType == ResidualType::AC &&
             std::find(in.book.cables.plainResidual.begin(), in.book.cables.plainResidual.end(), r.kind) ==
                 in.book.cables.plainResidual.end())
        into.push_back({&self, Severity::Check, c.id,
                        fmt::format("{}: type AC is for loads known to have no direct current", name),
                        in.book.cite("residualType")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    // Where it is the device of a section, its circuits change together.
    const auto set = [id](ResidualType type) {
        return [id, type](Project& p) {
            Circuit& c = *p.circuits.change(id);
            if (c.residual > 0) c.residualType = type;
            for (const Section& x : p.sections)
                if (x.residual > 0 && x.holds(c) && (c.residual <= 0 || x.residual < c.residual))
                    return void(p.sections.change(x.id)->residualType = type);
        };
    };
    std::vector<Remedy> out;
    if (in.results.of(id).kind == LoadKind::Vehicle) {
        out.push_back({"Type B", set(ResidualType::B)});
        out.push_back({"Type A, and 6 mA d.c. at the charging point", set(ResidualType::AWithDirect)});
    } else {
        out.push_back({"Type A", set(ResidualType::A)});
        out.push_back({"Type F", set(ResidualType::F)});
    }
    return out;
}

} // namespace

extern const CheckRule residualTypeRule;
const CheckRule residualTypeRule{.id = "residual-type",
                                 .remedies = remedies,
                                 .circuit = find,
                                 .worthLooking = [](const CheckInput& in) { return in.book.metric(); }};

} // namespace lintel
