#include "core/compare/ChangesByNode.h"

#include "core/check/SnagsByNode.h"
#include "core/compare/RunOwners.h"
#include "core/sheets/RiserEquipment.h"

#include <set>

namespace lintel {
namespace {

/// Finds the thing of the riser at which a change is told.
class Places {
public:
    Places(const Project& project, const Results& results) : p(project), owners(project) {
        for (CircuitId c : riserEquipment(project, results)) drawn.insert(c);
    }
    Ref of(Ref about) const {
        if (const RunId run = about.as<Run>()) about = owners.of(run);
        if (const Load* l = p.loads.find(about.as<Load>())) about = l->circuit;
        if (const Device* d = p.devices.find(about.as<Device>())) about = d->circuit;
        if (const Circuit* c = p.circuits.find(about.as<Circuit>())) {
            if (drawn.count(c->id)) return c->id;
            const Ref fed = fedBy(p, c->id);
            return fed ? fed : Ref(c->board);
        }
        return nodeOf(p, about);
    }

private:
    const Project& p;
    std::set<CircuitId> drawn;
    RunOwners owners;
};

} // namespace

std::map<Ref, ChangeCount> countChanges(const Project& after, const Results& results,
                                        const ProjectComparison& changes) {
    const Places places(after, results);
    std::map<Ref, ChangeCount> counts;
    for (const EnteredChange& c : changes.entered) {
        const Ref at = places.of(c.thing);
        ChangeCount& n = counts[at];
        ++n.entered;
        if (at && c.thing == at && c.what == EnteredChange::What::Added) n.added = true;
    }
    for (const FollowedChange& c : changes.follows) ++counts[places.of(c.thing)].follows;
    return counts;
}

} // namespace lintel
