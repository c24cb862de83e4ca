#include "core/check/SnagsByNode.h"

namespace lintel {

Ref nodeOf(const Project& p, Ref about) {
    if (about.is<Board>() || about.is<Transformer>() || about.is<Source>()) return about;
    if (const Section* s = p.sections.find(about.as<Section>())) return s->board;
    CircuitId circuit = about.as<Circuit>();
    if (const Load* l = p.loads.find(about.as<Load>())) circuit = l->circuit;
    if (const Device* d = p.devices.find(about.as<Device>())) circuit = d->circuit;
    const Circuit* c = p.circuits.find(circuit);
    return c ? Ref(c->board) : Ref();
}

std::map<Ref, SnagCount> countSnags(const Project& p, const std::vector<Snag>& snags) {
    std::map<Ref, SnagCount> counts;
    for (const Snag& s : snags) {
        SnagCount& n = counts[nodeOf(p, s.about)];
        if (s.severity == Severity::Stop) ++n.stops;
        if (s.severity == Severity::Check) ++n.checks;
    }
    return counts;
}

} // namespace lintel
