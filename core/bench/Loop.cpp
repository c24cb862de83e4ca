// The earth-fault loop of one run: Zs against what its device allows, and how long it may be.

#include "core/base/Format.h"
#include "core/bench/CableRun.h"
#include "core/solve/OpeningTime.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<BenchField> f{
        systemField("400/230"),
        {.key = "poles", .label = "Poles", .type = T::Choice, .value = "1", .choices = {"1", "3"}}};
    for (BenchField& x : earthFields(book)) {
        if (x.key == "rating") x.value = "32", x.seldom = false;
        f.push_back(std::move(x));
    }
    std::vector<std::string> types, methods;
    for (const CableType& t : book.cables.types) types.push_back(t.name);
    f.push_back(
        {.key = "cable", .label = "Cable", .type = T::Choice, .value = book.cables.usualBranch, .choices = types});
    f.push_back(sizeField("size", "Size", book, false, "2.5"));
    f.push_back({.key = "ground", .label = "Protective conductor", .type = T::Text, .value = "auto", .unit = "mm²"});
    f.push_back({.key = "length",
                 .label = "Length",
                 .type = T::Length,
                 .value = "20",
                 .unit = "m",
                 .least = 0,
                 .most = 100000});
    return f;
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    RunNeed n;
    n.system = in.system("system");
    n.poles = in.whole("poles");
    n.neutral = n.poles == 1;
    const CableType* t = book.cables.type(in.text("cable"));
    if (!t) in.refuse("cable", "the rule book has no such cable");
    n.cable.make().type = int(t - book.cables.types.data());
    n.cable.make().method = 0;
    n.material = t->material;
    const SizeIndex size = in.size("size", book);
    if (size < 0 || !canUse(n, size, book)) {
        std::string has;
        for (SizeIndex i = 0; i < SizeIndex(book.sizes().size()); ++i)
            if (canUse(n, i, book)) has += (has.empty() ? "" : ", ") + book.sizes()[std::size_t(i)].name;
        in.refuse("size", t->name + " has no such size", "It comes in " + has + " mm².");
    }
    const auto rating = in.maybe("rating");
    if (!rating) in.refuse("rating", "a loop is held against a device: give its rating");
    n.device = *rating;
    takeEarth(in, n, book);
    n.heldGround = in.size("ground", book);
    n.lengthKnown = true;
    n.length = in.length("length");
    SizingRules rules;
    const bool unknownSupply = !in.maybe("ze");
    if (unknownSupply) n.cable.make().loopBefore = 1e-9; // the run alone, against what is left of the volts
    const EarthFault e = procedureOf(book).earthFault(n, {size, 1}, rules, book);
    if (!e.known) in.refuse("device", "the rule book does not know when it opens");
    const LineOhms line = lineOhms(n, size, book);
    a.working.step("R1 + R2",
                   fmt::format("{} m of {} and {}: {} mΩ/m line at {} °C", number(n.length.v, 1), sizeWords(book, size),
                               e.ground >= 0 ? sizeWords(book, e.ground) : std::string("armour"),
                               figures(line.r * 1000), figures(t->celsius)),
                   figures(magnitude(e.added)) + " Ω", book.cite("loop"));
    if (unknownSupply) {
        const double share = book.cables.unknownSupplyShare, limit = double(e.limit) * share;
        a.working.step("Limit",
                       fmt::format("{} of the {} Ω that open it: the supply is not known", figures(share),
                                   figures(double(e.limit))),
                       figures(limit) + " Ω", book.cite("unknownSupply"));
        a.working.governs();
        a.figure("loop_ohm", "R1 + R2", fmt::format("{} of {} Ω", figures(magnitude(e.added)), figures(limit)),
                 magnitude(e.added));
        a.figure("loop_limit_ohm", "", "", limit);
        a.figure("holds", "Opens in time", magnitude(e.added) <= limit * (1 + 1e-9) ? "yes" : "no",
                 magnitude(e.added) <= limit * (1 + 1e-9));
        a.figure("longest_m", "Longest", number(double(e.longest) * share, 1) + " m", double(e.longest) * share);
        a.cautions.push_back(
            "the supply is not known: fault current, time and what the conductors withstand are not judged");
        return a;
    }
    a.working.step("Zs", fmt::format("{} + {} Ω", figures(in.number("ze")), figures(magnitude(e.added))),
                   figures(double(e.zs)) + " Ω", book.cite("loop"));
    const TripBand& band = book.cables.trips.at(n.cable->device);
    const bool second = n.cable->earthing == Earthing::IT;
    a.working.step(
        "Limit",
        e.byResidual
            ? fmt::format("{} V / {} mA", figures(book.cables.touchVolts), figures(double(n.cable->residual)))
            : fmt::format("{} of {} A within {} s{}", wordOf(n.cable->device), lintel::rating(n.device),
                          figures(double(e.allowed)), second ? ", in a second fault: half the voltage drives it" : ""),
        figures(double(e.limit)) + " Ω",
        e.byResidual
            ? book.cite("residual")
            : band.table + (band.unverified ? " (unverified)" : "") + (second ? "; " + book.cite("secondFault") : ""));
    a.working.governs();
    a.figure("zs_ohm", "Zs", fmt::format("{} of {} Ω", figures(double(e.zs)), figures(double(e.limit))), double(e.zs));
    a.figure("zs_limit_ohm", "", "", double(e.limit));
    a.figure("holds", "Opens in time", e.inTime ? "yes" : "no", e.inTime);
    a.figure("fault_A", "Earth-fault current", fmt::format("{} A", figures(double(e.amps))), double(e.amps));
    const auto after = openingTime(e);
    a.figure("seconds", "Open in",
             after ? fmt::format("{} s of {} s", figures(*after), figures(double(e.allowed))) : openingWords(e),
             after ? nlohmann::ordered_json(*after) : nlohmann::ordered_json());
    adiabaticFigures(e, a);
    a.figure("longest_m", "Longest",
             e.longest > 0 ? number(double(e.longest), 1) + " m"
                           : std::string("none: the loop before it is already too large"),
             double(e.longest));
    return a;
}

} // namespace

extern const BenchKind loopBench;
const BenchKind loopBench{"loop",
                          "Earth-fault loop",
                          "Zs of a run against the limit of its device, the current, the time, and how long it may be.",
                          fields,
                          work,
                          BenchFor::Cables};

} // namespace lintel
