// An earth fault at the end of a run that its device does not open in time, or that its protective conductor does not
// withstand.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/WhatHelps.h"
#include "core/project/Operations.h"
#include "core/solve/Procedure.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, Ref about, const RunResult& r, std::vector<Snag>& into) {
    const EarthFault& e = *r.earth;
    if (!e.known || e.ok || r.size < 0) return;
    const std::string name = nameOfRun(in.project, about);
    if (!e.inTime) {
        std::string text = fmt::format("{}: Zs {} Ω, {} Ω is the most for {} {} A in {} s", name, figures(double(e.zs)),
                                       figures(double(e.limit)), wordOf(r.need.cable->device), rating(r.need.device),
                                       figures(double(e.allowed)));
        if (e.longest > 0) text += fmt::format(", {} m too long", number(r.need.length.v - double(e.longest), 1));
        into.push_back({&self, Severity::Stop, about, text, in.book.cite("loop")});
    } else if (!e.lineWithstands) {
        into.push_back(
            {&self, Severity::Stop, about,
             fmt::format("{}: lines of {} mm² where {} mm² withstands what its device lets through", name,
                         figures(in.book.sizes()[std::size_t(r.size)].mm2 * r.sets), figures(double(e.line))),
             in.book.cite("adiabatic")});
    } else if (!e.withstandsHere) {
        into.push_back({&self, Severity::Stop, about,
                        fmt::format("{}: a protective conductor of {} mm² where {} mm² withstands what its device lets "
                                    "through at {} kA to earth at the board",
                                    name, figures(double(e.has)), figures(double(e.neededHere)),
                                    figures(double(r.need.cable->earthBefore))),
                        in.book.cite("adiabatic")});
    } else {
        into.push_back({&self, Severity::Stop, about,
                        fmt::format("{}: a protective conductor of {} mm² where {} mm² withstands {} A for {} s", name,
                                    figures(double(e.has)), figures(double(e.needed)), figures(double(e.amps)),
                                    figures(double(e.seconds))),
                        in.book.cite("adiabatic")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Ref about = s.about;
    const RunResult& r = *in.results.run(about);
    const auto run = [about](Project& p) -> Run& { return runOf(p, about); };
    const SizingRules rules = sizingRules(in.project.basis, in.book);
    const auto at = [&](const RunNeed& need, SizeIndex size, int sets) {
        return procedureOf(in.book).earthFault(need, {size, sets}, rules, in.book);
    };
    const CircuitId circuit = about.is<Circuit>() ? about.as<Circuit>() : r.need.cable->opener;
    const auto ohms = [](const EarthFault& e) {
        return fmt::format("Zs {} of {} Ω", figures(double(e.zs)), figures(double(e.limit)));
    };

    // A larger protective conductor beside the lines as they are.
    const bool separate = r.need.cable->protectiveBy == ProtectiveBy::Separate ||
                          r.need.cable->protectiveBy == ProtectiveBy::ArmourAndSeparate ||
                          in.book.cables.types[std::size_t(r.need.cable->type)].single;
    for (SizeIndex g = std::max(0, r.earth->ground + 1); g <= r.size; ++g) {
        RunNeed need = r.need;
        need.heldGround = g;
        if (!separate) need.cable.make().protectiveBy = ProtectiveBy::ArmourAndSeparate;
        if (!separate && !in.book.cables.types[std::size_t(need.cable->type)].armoured()) break;
        if (const EarthFault e = at(need, r.size, r.sets); e.ok) {
            const std::string size = in.book.sizes()[std::size_t(g)].name;
            out.push_back({fmt::format("{} of {}: {}",
                                       separate ? "Protective conductor" : "A protective conductor beside the armour,",
                                       sizeWords(in.book, g), ohms(e)),
                           [=](Project& p) {
                               run(p).heldGround = size;
                               if (!separate) run(p).protectiveBy = ProtectiveBy::ArmourAndSeparate;
                           }});
            break;
        }
    }
    // Larger lines, and with them the protective conductor.
    for (SizeIndex i = r.size + 1; i < SizeIndex(in.book.sizes().size()); ++i) {
        if (!canUse(r.need, i, in.book)) continue;
        if (const EarthFault e = at(r.need, i, r.sets); e.ok) {
            const std::string size = in.book.sizes()[std::size_t(i)].name;
            out.push_back({fmt::format("Hold {}: {}", sizeWords(in.book, i), ohms(e)), [=, sets = r.sets](Project& p) {
                               run(p).heldSize = size, run(p).heldSets = sets > 1 ? sets : 0;
                           }});
            break;
        }
    }
    if (r.state == Sizing::Held) {
        RunResult free = r;
        free.need.held = -1, free.need.heldSets = 0, free.need.heldGround = -1;
        sizeRun(free, rules, in.book);
        if (free.earth->ok)
            out.push_back({fmt::format("Let it be sized: {}", sizeWords(in.book, free.size)), [=](Project& p) {
                               run(p).heldSize.clear(), run(p).heldSets = 0, run(p).heldGround.clear();
                           }});
    }
    // Another curve.
    for (DeviceKind kind : {DeviceKind::TypeB, DeviceKind::TypeC, DeviceKind::Moulded}) {
        const auto e = circuit ? faultBehind(r, kind, rules, in.book) : std::nullopt;
        if (e && e->ok)
            out.push_back({fmt::format("{} instead: {}", wordOf(kind), ohms(*e)),
                           [=](Project& p) { p.circuits.change(circuit)->device = kind; }});
    }
    if (const auto mA = circuit ? residualThatOpens(r, rules, in.book) : std::nullopt)
        out.push_back({fmt::format("Residual-current device of {} mA", number(*mA)),
                       [=](Project& p) { p.circuits.change(circuit)->residual = *mA; }});
    return out;
}

} // namespace

extern const CheckRule loopRule;
const CheckRule loopRule{.id = "loop", .remedies = remedies, .run = find, .worthLooking = [](const CheckInput& in) {
                             return in.book.metric();
                         }};

} // namespace lintel
