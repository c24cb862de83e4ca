// Protective, bonding and grounding electrode conductors.

#include "core/base/Format.h"
#include "core/bench/BenchInputs.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook& book) {
    return {{.key = "device", .label = "Device ahead of it", .value = "100", .unit = "A", .least = 0.5, .most = 6000},
            materialField(),
            sizeField("needed", "Lines as needed", book, true, "auto"),
            sizeField("used", "Lines as used", book, true, "auto"),
            sizeField("serviceLines", "Service lines", book, true, "auto"),
            {.key = "sets", .label = "Sets of service lines", .value = "1", .least = 1, .most = 40},
            {.key = "electrodeMaterial",
             .label = "Electrode and jumper",
             .type = BenchField::Type::Choice,
             .value = "copper",
             .choices = benchWords<Material>()}};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    const Material m = in.choice<Material>("material");
    const double device = in.number("device");
    SizeIndex g = book.protectiveFor(device, m);
    if (g < 0) in.refuse("device", fmt::format("{} A is past the table", figures(device)));
    const auto& sizes = book.sizes();
    a.working.step("Protective conductor", fmt::format("{} A device, {}", figures(device), wordOf(m)),
                   sizeWords(book, g), book.cite("protective"));
    const SizeIndex needed = in.size("needed", book), used = in.size("used", book);
    if ((needed < 0) != (used < 0))
        in.refuse(needed < 0 ? "needed" : "used", "both sizes of the lines are needed",
                  "Give the size that the load needs and the size that is used, or neither.");
    if (used >= 0 && g > used) { // 250.122(A): never asked larger than the lines, raised or not
        g = used;
        a.working.step("No larger than the lines", sizeWords(book, used), sizeWords(book, g), book.cite("protective"));
    }
    if (needed >= 0 && used > needed) {
        const double ratio = sizes[std::size_t(used)].kcmil / sizes[std::size_t(needed)].kcmil,
                     area = sizes[std::size_t(g)].kcmil * ratio;
        const SizeIndex raised = book.sizeOfArea(area), last = std::min(raised < 0 ? used : raised, used);
        a.working.step("Raised with the lines",
                       fmt::format("{:.2f} kcmil × {:.2f}/{:.2f} = {:.2f} kcmil{}", sizes[std::size_t(g)].kcmil,
                                   sizes[std::size_t(used)].kcmil, sizes[std::size_t(needed)].kcmil, area,
                                   last == used && raised != used ? ", but no larger than the lines" : ""),
                       sizeWords(book, last), book.cite("protectiveRaised"));
        g = last;
    }
    a.working.governs();
    a.figure("ground", "Protective conductor", sizeWords(book, g) + " " + wordOf(m), sizes[std::size_t(g)].name);
    if (const SizeIndex lines = in.size("serviceLines", book); lines >= 0) {
        const int sets = in.whole("sets");
        const double kcmil = sizes[std::size_t(lines)].kcmil * sets;
        const Material own = in.choice<Material>("electrodeMaterial");
        const SizeIndex e = book.bondingFor(kcmil, m, own), j = book.jumperFor(kcmil, m, own);
        const std::string of = fmt::format("{} of {}: {} kcmil", sets == 1 ? "lines" : fmt::format("{} sets", sets),
                                           sizeWords(book, lines), lintel::number(kcmil, kcmil < 250 ? 1 : 0));
        a.working.step("Grounding electrode conductor", of, sizeWords(book, e), book.cite("electrode"));
        a.working.step("Bonding jumper", of, sizeWords(book, j), book.cite("jumper"));
        a.figure("electrode", "Grounding electrode conductor", sizeWords(book, e),
                 e >= 0 ? sizes[std::size_t(e)].name : "");
        a.figure("jumper", "Main bonding jumper", sizeWords(book, j), j >= 0 ? sizes[std::size_t(j)].name : "");
    }
    return a;
}

} // namespace

extern const BenchKind egcBench;
const BenchKind egcBench{
    "egc", "Grounding and bonding",
    "Protective conductor by its device, raised with the lines; electrode conductor and bonding jumper of a service.",
    fields, work};

} // namespace lintel
