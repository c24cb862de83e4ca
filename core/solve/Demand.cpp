#include "core/solve/Demand.h"

#include "core/base/Format.h"
#include "core/rules/KindTitle.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// Whether a kind is in the demand at all: of two that do not run together the larger is. Of two equal ones the first
/// of the pair counts, so that one and only one does.
bool counts(LoadKind kind, const KindSums& kinds, const Basis& basis, const RuleBook& book) {
    const DemandRule& r = book.demand(kind, basis.occupancy);
    if (r.method != DemandRule::Method::NonCoincident) return true;
    const double va = kinds[std::size_t(kind)].ownVa(), other = kinds[std::size_t(r.with)].ownVa();
    return va > other || (va == other && kind < r.with);
}

double shareOf(const std::vector<Band>& bands, double count) {
    for (const Band& b : bands)
        if (count <= b.upTo) return b.value;
    return bands.back().value;
}

/// The demand of one kind of load by its rule, and how it comes about where somebody wants to know.
class KindDemand {
public:
    KindDemand(LoadKind of, const KindSums& all, const Basis& b, const RuleBook& rulebook, Working* working)
        : kind(of), kinds(all), basis(b), book(rulebook), w(working), k(all[std::size_t(of)]),
          r(rulebook.demand(of, b.occupancy)), va(k.ownVa()) {}

    double demand() {
        if (!basis.demandFactors.empty())
            if (const auto own = basis.demandFactors.find(wordOf(kind)); own != basis.demandFactors.end())
                return say(w ? fmt::format("{} kVA × {} %", kilo(va), figures(own->second * 100)) : "",
                           va * own->second, "Basis");
        extra = shareOfLargestMotor();
        switch (r.method) {
        case DemandRule::Method::Stepped:
            return stepped();
        case DemandRule::Method::Count:
            return byCount();
        case DemandRule::Method::Table:
            return byTables();
        case DemandRule::Method::Largest:
            return say(
                !w ? std::string()
                   : fmt::format("{} kVA{}", kilo(va), extra > 0 ? "" : "; the largest motor is of another kind"),
                va, r.table.c_str());
        case DemandRule::Method::NonCoincident:
            return nonCoincident();
        case DemandRule::Method::LargestAndRest:
            return largestAndRest();
        case DemandRule::Method::Points:
            return byPoints();
        case DemandRule::Method::Factor:
            return say(!w ? std::string() : fmt::format("{} kVA × {} %", kilo(va), figures(r.factor * 100)),
                       va * r.factor, r.table.c_str());
        case DemandRule::Method::Full:
            break;
        }
        return say(!w ? std::string() : fmt::format("{} kVA × 100 %", kilo(va)), va, "");
    }

private:
    const LoadKind kind;
    const KindSums& kinds;
    const Basis& basis;
    const RuleBook& book;
    Working* w;
    const KindSum& k;
    const DemandRule& r;
    const double va;
    double extra = 0; ///< 25 % of the largest motor, where it is of this kind

    double say(const std::string& formula, double demand, const char* cited) const {
        if (demand > 0) demand += extra;
        if (w)
            w->step(kindTitle(kind, book),
                    extra > 0 && demand > 0 ? fmt::format("{} + {} % of the largest motor, {} kVA", formula,
                                                          figures(extra / k.largest * 100), kilo(k.largest))
                                            : formula,
                    kilo(demand) + " kVA", cited);
        return demand;
    }
    /// One motor is the largest of all: a lift's and a fan's do not both add their share.
    double shareOfLargestMotor() const {
        if (r.extra <= 0) return 0;
        bool mine = k.largest > 0;
        for (std::size_t i = 0; i < loadKinds && mine; ++i)
            if (LoadKind(i) != kind && book.demand(LoadKind(i), basis.occupancy).extra > 0 &&
                counts(LoadKind(i), kinds, basis, book))
                mine = k.largest > kinds[i].largest || (k.largest == kinds[i].largest && kind < LoadKind(i));
        return mine ? r.extra * k.largest : 0;
    }

    double stepped() const {
        double demand = 0, from = 0;
        const double counted = r.minimumEach > 0 ? std::max(va, k.minimum) : va;
        std::string formula;
        for (const auto& [upTo, factor] : r.steps) {
            const double part = std::max(0.0, std::min(counted, upTo) - from);
            demand += part * factor;
            if (w && part > 0)
                formula +=
                    fmt::format("{}{} kVA × {} %", formula.empty() ? "" : " + ", kilo(part), figures(factor * 100));
            from = upTo;
            if (counted <= upTo) break;
        }
        if (w && counted > va) formula += fmt::format(", {} kVA each at least", kilo(r.minimumEach));
        return say(formula, demand, r.table.c_str());
    }

    double byCount() const {
        const std::size_t n = std::size_t(std::ceil(std::max(1.0, k.count)));
        const double factor = r.factors[std::min(n, r.factors.size()) - 1];
        const double base = r.minimumEach > 0 ? std::max(va, k.minimum) : va;
        const double least = r.largest >= 2 ? k.largest + k.second : r.largest == 1 ? k.largest : 0;
        const double demand = std::max(base * factor, std::min(base, least));
        return say(
            !w ? std::string()
               : fmt::format("{} of them: {} kVA × {} %{}", n, kilo(base), figures(factor * 100),
                             base * factor < least ? ", not less than the largest " + std::to_string(r.largest) : ""),
            demand, r.table.c_str());
    }

    /// The table by count, each kVA (or greater part of one) of the average above its rating adding its share.
    double byTable(double count) const {
        const double n = std::ceil(std::max(1.0, count));
        double demand = 0;
        if (n <= double(r.demandByCount.size()))
            demand = r.demandByCount[std::size_t(n) - 1];
        else
            for (const auto& [from, base, each] : r.beyond)
                if (n >= from) demand = base + each * n;
        return demand * (1 + r.overEach * std::round(k.over / n / 1000));
    }
    /// By the table; or the small ones at a share of their sum, and the table for the rest, where that is less.
    double byTables() const {
        const double all = std::min(byTable(k.count), va);
        double apart = 0, small = 0, smallVa = 0;
        std::string formula, tables;
        for (std::size_t i = 0; i < r.small.size(); ++i) {
            if (k.smallCount[i] <= 0) continue;
            const double share = shareOf(r.small[i].factors, k.smallCount[i]);
            apart += k.smallVa[i] * share;
            small += k.smallCount[i];
            smallVa += k.smallVa[i];
            if (!w) continue;
            formula += fmt::format("{}{} of {} kVA × {} %", formula.empty() ? "" : " + ", figures(k.smallCount[i]),
                                   kilo(k.smallVa[i]), figures(share * 100));
            tables += (tables.empty() ? "" : ", ") + r.small[i].table;
        }
        if (small > 0 && k.count - small > 0.5) {
            const double rest = std::min(byTable(k.count - small), va - smallVa);
            apart += rest;
            if (w) {
                formula += fmt::format(" + {} by the table, {} kVA", figures(k.count - small), kilo(rest));
                tables += ", " + r.table;
            }
        }
        if (small > 0 && apart < all)
            return say(!w ? std::string() : fmt::format("{}, less than the {} kVA by the table", formula, kilo(all)),
                       apart, tables.c_str());
        return say(!w ? std::string()
                      : fmt::format("{} of {} kVA together", figures(std::ceil(std::max(1.0, k.count))), kilo(va)),
                   all, r.table.c_str());
    }

    double nonCoincident() const {
        const double other = kinds[std::size_t(r.with)].ownVa();
        if (!counts(kind, kinds, basis, book))
            return say(
                !w ? std::string()
                   : fmt::format("{} kVA does not run together with {} kVA {}", kilo(va), kilo(other), wordOf(r.with)),
                0, r.table.c_str());
        return say(!w          ? std::string()
                   : other > 0 ? fmt::format("{} kVA, larger than {} kVA {}", kilo(va), kilo(other), wordOf(r.with))
                               : fmt::format("{} kVA × 100 %", kilo(va)),
                   va, r.table.c_str());
    }

    double largestAndRest() const {
        const double rest = std::max(0.0, va - k.largest - k.second);
        const double demand = k.largest * r.factors[0] + k.second * r.factors[1] + rest * r.factors[2];
        return say(!w ? std::string()
                      : fmt::format("largest {} kVA × {} % + second {} × {} % + rest {} × {} %", kilo(k.largest),
                                    figures(r.factors[0] * 100), kilo(k.second), figures(r.factors[1] * 100),
                                    kilo(rest), figures(r.factors[2] * 100)),
                   std::min(va, demand), r.table.c_str());
    }

    double byPoints() const {
        const double more = std::ceil(std::max(0.0, k.count - r.pointsFirst) / r.pointsMore - 1e-9);
        const double demand = r.vaFirst + more * r.vaMore; // by points alone, whatever each takes
        return say(!w ? std::string()
                      : fmt::format("{} points: {} kVA{}", figures(k.count), kilo(r.vaFirst),
                                    more > 0 ? fmt::format(" + {} × {} kVA", figures(more), kilo(r.vaMore)) : ""),
                   demand, r.table.c_str());
    }
};

} // namespace

double demandOf(LoadKind kind, const KindSums& kinds, const Basis& basis, const RuleBook& book, Working* w) {
    return KindDemand(kind, kinds, basis, book, w).demand();
}

void findDemand(const KindSums& entered, const Basis& basis, const RuleBook& book, NodeResult& n, Working* w) {
    if (const KindSum& light = entered[std::size_t(LoadKind::Lighting)]; n.lightingFloor > light.ownVa() + 1e-6) {
        KindSums kinds = entered;
        KindSum& k = kinds[std::size_t(LoadKind::Lighting)];
        if (w)
            w->step("Lighting by area",
                    fmt::format("{} kVA connected, {} kVA by area of {}", kilo(light.ownVa()), kilo(n.lightingFloor),
                                basis.lightingAreaOf),
                    kilo(n.lightingFloor) + " kVA", book.cite("areaLighting"));
        k.p += n.lightingFloor - light.ownVa();
        k.dp += n.lightingFloor - light.ownVa();
        const double floor = n.lightingFloor, before = magnitude({[&] {
                                                                      double p = 0;
                                                                      for (const KindSum& x : entered) p += x.p;
                                                                      return p;
                                                                  }(),
                                                                  [&] {
                                                                      double q = 0;
                                                                      for (const KindSum& x : entered) q += x.q;
                                                                      return q;
                                                                  }()});
        n.lightingFloor = 0;
        findDemand(kinds, basis, book, n, w);
        n.lightingFloor = floor;
        n.connected = before;
        return;
    }
    const KindSums& kinds = entered;
    Complex connected, demand;
    n.continuous = 0;
    for (std::size_t i = 0; i < loadKinds; ++i) {
        const KindSum& k = kinds[i];
        n.demandByKind[i] = 0;
        if (k.p == 0 && k.q == 0) continue;
        connected += Complex{k.p, k.q};
        const double d = n.demandByKind[i] = demandOf(LoadKind(i), kinds, basis, book, w);
        const double va = k.ownVa();
        // Demand keeps the power factor of what it stands for.
        if (va > 0) demand += Complex{k.dp, k.dq} * (d / va), n.continuous += k.continuous * std::min(1.0, d / va);
    }
    n.connected = magnitude(connected);
    n.demandPower = demand;
    n.demand = magnitude(demand);
    if (w) w->step("Demand", "all kinds, real and reactive power added apart", kilo(n.demand) + " kVA", "");
}

} // namespace lintel
