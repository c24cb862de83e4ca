#include "core/solve/EquipmentSize.h"

#include "core/base/Format.h"
#include "core/project/Operations.h"
#include "core/solve/BoardLoad.h"

#include <fmt/format.h>

#include <algorithm>

namespace lintel {
namespace {

/// Works one size out and tells how.
class Equipment {
public:
    Equipment(const Project& project, const RuleBook& rulebook, const Results& results, Working* working)
        : p(project), book(rulebook), r(results), w(working) {}

    std::optional<EquipmentSize> transformer(const Transformer& t) const {
        const TransformerResult& n = r.of(t.id);
        if (n.demand <= 0 || n.looped) return std::nullopt;
        return chosen(t.kva, grown(n.demand / 1000), transformerSeries(book, t.secondary),
                      fmt::format("{} kVA of demand{}", kilo(n.demand), growthWords()));
    }
    std::optional<EquipmentSize> generator(const Source& s) const {
        const SourceResult& n = r.of(s.id);
        if (s.kind != SourceKind::Generator || n.standby <= 0) return std::nullopt;
        const double running = n.standby / 1000, starting = n.peak / 1000 / s.peakShare;
        return chosen(s.kva, std::max(running, starting), book.tables.generatorKva,
                      fmt::format("{} kVA running, and {} kVA / {} at the largest start", figures(running),
                                  kilo(n.peak), figures(s.peakShare)));
    }
    std::optional<EquipmentSize> ups(const Board& b) const {
        const BoardResult& n = r.of(b.id);
        const double kva = magnitude(n.ups->out) / 1000, kw = n.ups->out.real() / 1000;
        if (kva <= 0 || n.looped) return std::nullopt;
        const double share = b.kva > 0 && b.kw > 0 ? b.kw / b.kva : 0; // kW for each kVA, by its maker
        return chosen(b.kva, grown(share > 0 ? std::max(kva, kw / share) : kva), book.tables.generatorKva,
                      fmt::format("{} kVA and {} kW behind it{}{}", figures(kva), figures(kw),
                                  share > 0 ? fmt::format(", {} kW for each kVA", figures(share)) : std::string(),
                                  growthWords()));
    }
    std::optional<EquipmentSize> board(const Board& b) const {
        const BoardResult& n = r.of(b.id);
        if (!n.parent || n.looped || n.run.need.required.v <= 0) return std::nullopt;
        const double standard = book.ratingAtOrAbove(n.run.need.required.v);
        // Without a device of its own: in metric practice the main of a board is a switch.
        const bool bare = !n.supply && (b.main <= 0 || (book.metric() && !passesOn(b.use)));
        EquipmentSize out{"A", b.main > 0 ? b.main : b.bus, n.run.need.required.v, standard};
        if (bare && standard > 0) out.size = std::max(standard, n.run.need.device);
        tell(out,
             fmt::format("{} A with growth and what is continuous{}", figures(n.run.need.required.v),
                         bare ? fmt::format(", no less than the {} A before it", rating(n.run.need.device))
                              : std::string()),
             book.cite("rating"));
        return out;
    }

private:
    const Project& p;
    const RuleBook& book;
    const Results& r;
    Working* w;

    double grown(double kva) const { return kva * (1 + p.basis.growth); }
    std::string growthWords() const {
        return p.basis.growth > 0 ? fmt::format(" × {} for growth", figures(1 + p.basis.growth)) : std::string();
    }
    EquipmentSize chosen(double now, double needed, const std::vector<double>& series, const std::string& how) const {
        const EquipmentSize out{"kVA", now, needed, nextOf(series, needed)};
        tell(out, how, "");
        return out;
    }
    void tell(const EquipmentSize& s, const std::string& how, const std::string& cited) const {
        if (!w) return;
        const std::string now = s.now > 0 ? fmt::format("{} {} is entered", rating(s.now), s.unit) : "none is entered";
        w->step("Size by its load", how + "; " + now,
                s.size > 0 ? fmt::format("{} {}", rating(s.size), s.unit) : std::string("past the series"), cited);
    }
};

} // namespace

const std::vector<double>& transformerSeries(const RuleBook& book, VoltageSystem secondary) {
    return factsOf(secondary).phases == 3 ? book.tables.threePhaseKva : book.tables.singlePhaseKva;
}

double nextOf(const std::vector<double>& series, double needed) {
    const auto next = std::lower_bound(series.begin(), series.end(), needed * (1 - 1e-9));
    return next == series.end() ? 0 : *next;
}

std::optional<EquipmentSize> equipmentSize(const Project& p, const RuleBook& book, const Results& r, Ref thing,
                                           Working* w) {
    const Equipment of(p, book, r, w);
    if (const Transformer* t = p.transformers.find(thing.as<Transformer>())) return of.transformer(*t);
    if (const Source* s = p.sources.find(thing.as<Source>())) return of.generator(*s);
    if (const Board* b = p.boards.find(thing.as<Board>())) return b->use == BoardUse::Ups ? of.ups(*b) : of.board(*b);
    return std::nullopt;
}

void enterEquipmentSize(Project& p, Ref thing, double size) {
    if (Transformer* t = p.transformers.change(thing.as<Transformer>())) t->kva = size;
    if (Source* s = p.sources.change(thing.as<Source>())) s->kva = size;
    Board* b = p.boards.change(thing.as<Board>());
    if (!b) return;
    if (b->use == BoardUse::Ups) {
        if (b->kva > 0 && b->kw > 0) b->kw *= size / b->kva;
        b->kva = size;
        return;
    }
    if (b->main > 0) b->main = size;
    if (b->main <= 0 || b->bus < size) b->bus = size;
}

} // namespace lintel
