// Conduit for conductors of mixed sizes.

#include "core/solve/Conduit.h"

#include "core/base/Format.h"
#include "core/bench/ListLine.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    return {{.key = "conductors",
             .label = "Conductors",
             .type = BenchField::Type::Lines,
             .value = "3 × 4/0\n1 × 4",
             .help = "One line each: 3 × 4/0, or 3 × 4/0 XHHW-2"},
            conduitField(book),
            [&] {
                BenchField f{
                    .key = "insulation", .label = "Insulation", .type = BenchField::Type::Choice, .value = "THHN"};
                for (const Insulation& i : book.tables.insulations) f.choices.push_back(i.name);
                return f;
            }(),
            {.key = "nipple", .label = "Nipple, 24 in at most", .type = BenchField::Type::Flag, .value = "no"}};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    std::vector<ConduitConductor> list;
    for (const std::string& l : in.lines("conductors")) {
        const auto read = readConductorLine(l);
        if (!read)
            in.refuse("conductors", "\"" + l + "\" is not a number of conductors and a size",
                      "Write one line each: 3 × 4/0, or 3 × 4/0 XHHW-2.");
        ConduitConductor c;
        c.count = read->count;
        c.size = book.find(read->size);
        c.insulation = book.insulation(read->insulation.empty() ? in.text("insulation") : read->insulation);
        if (c.count < 1) in.refuse("conductors", "\"" + l + "\": from 1 to 9999 conductors");
        if (c.size < 0)
            in.refuse("conductors", "\"" + l + "\": there is no conductor size \"" + read->size + "\"",
                      "For instance 12, 1/0 or 250.");
        if (!c.insulation)
            in.refuse("conductors", "\"" + l + "\": there is no insulation \"" + read->insulation + "\"",
                      "THHN, XHHW-2 or THW.");
        if (!c.insulation->area.count(book.sizes()[std::size_t(c.size)].name))
            in.refuse("conductors",
                      fmt::format("\"{}\": {} has no area for {}", l, book.cite("conductorArea"), read->size),
                      "Choose XHHW-2 or THW.");
        list.push_back(c);
    }
    if (list.empty()) in.refuse("conductors", "there are no conductors", "Write one line each: 3 × 4/0.");
    const ConduitType& type = *book.conduit(in.text("conduit"));
    const bool nipple = in.flag("nipple");
    const ConduitFill f = conduitFor(type, list, book, &a.working, nipple);
    a.working.governs();
    constexpr double squareInch = 645.16;
    a.figure("conduit", "Conduit", f.size ? type.name + " " + f.size->name : "none holds them",
             f.size ? f.size->name : "");
    a.figure("conductors", "Conductors", fmt::format("{}", f.conductors), f.conductors);
    a.figure("area_in2", "Their area", fmt::format("{:.4f} in²  ({} mm²)", f.area / squareInch, lintel::number(f.area)),
             f.area / squareInch);
    a.figure("fill_percent", "Fill", f.size ? lintel::number(f.used * 100, 1) + " %" : "–", f.used * 100);
    a.figure("allowed_percent", "Allowed", lintel::number(f.allowed * 100) + " %", f.allowed * 100);
    a.columns = {"Conduit", "Trade size", "Fill"};
    for (const ConduitType& t : book.tables.conduits) {
        const ConduitFill g = conduitFor(t, list, book, nullptr, nipple);
        a.rows.push_back(
            {t.name, g.size ? g.size->name : "–", g.size ? lintel::number(g.used * 100, 1) + " %" : "none holds them"});
    }
    if (!f.size) a.cautions.push_back("no trade size of " + type.name + " holds them: divide them over more conduits");
    return a;
}

} // namespace

extern const BenchKind conduitBench;
const BenchKind conduitBench{"conduit", "Conduit fill",
                             "The trade size for conductors of any sizes, in each kind of conduit.", fields, work};

} // namespace lintel
