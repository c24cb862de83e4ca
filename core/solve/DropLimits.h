#pragma once
// What may be lost from the source to a point, in %: the basis's limit, and more where the supply is a substation of
// the installation's own and the book allows more there (AS/NZS 3000, 3.6.2; BS 7671, Table 4Ab; IEC 60364-5-52,
// Table G.52.1).

#include "core/project/Project.h"
#include "core/rules/RuleBook.h"
#include "core/solve/Results.h"

namespace lintel {

struct TotalDropLimit {
    double basis = 5;   ///< what the basis says for such a load
    double allowed = 5; ///< what holds
    bool raised() const { return allowed > basis; }
};

/// The basis's limit and as much more as the book has between its usual limit and that of an own substation; a basis
/// that is at the book's larger limit or above it stays.
inline TotalDropLimit totalDropLimit(const Basis& basis, const RuleBook& book, bool ownSubstation, bool lighting) {
    const bool apart = lighting && basis.lightingDropLimit > 0;
    TotalDropLimit limit;
    limit.basis = apart ? std::min(basis.totalDropLimit, basis.lightingDropLimit) : basis.totalDropLimit;
    limit.allowed = limit.basis;
    if (!ownSubstation || !book.metric()) return limit;
    const CableRules::OwnSubstation& own = book.cables.ownSubstation;
    const double most = apart ? own.lighting : own.total, usual = apart ? own.usualLighting : own.usualTotal;
    if (limit.basis < most) limit.allowed = std::min(most, limit.basis + most - usual);
    return limit;
}

/// Whether what feeds a thing is, in the end, an own substation.
inline bool fromOwnSubstation(const Project& p, const Results& r, Ref thing) {
    for (std::size_t guard = 0; thing && guard <= r.order.size(); ++guard) {
        if (const Source* s = p.sources.find(thing.as<Source>())) return s->ownSubstation;
        if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
            thing = c->board;
            continue;
        }
        const NodeResult* n = r.node(thing);
        if (!n) return false;
        thing = n->parent;
    }
    return false;
}

} // namespace lintel
