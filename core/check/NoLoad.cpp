// A circuit to which nobody gave a load: it counts as nothing in its board and in all that feeds it.

#include "core/check/Check.h"
#include "core/project/CircuitFacts.h"
#include "core/project/LoadInName.h"

#include <fmt/format.h>
#include <unordered_set>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    const Project& p = in.project;
    std::unordered_set<std::uint32_t> empty;
    for (std::uint32_t id = 0; id < in.results.circuits.size(); ++id) {
        const CircuitResult& r = in.results.circuits[id];
        if (r.va > 0 || r.feeder) continue;
        if (const Circuit* c = p.circuits.find(CircuitId{id}); c && c->use == CircuitUse::Load) empty.insert(id);
    }
    if (empty.empty()) return;
    for (const Load& l : p.loads) empty.erase(l.circuit.value); // with nothing typed into it, it was entered as nothing
    for (const Device& d : p.devices) empty.erase(d.circuit.value);
    if (empty.empty()) return;
    for (const Circuit& c : p.circuits)
        if (empty.count(c.id.value))
            into.push_back({&self, Severity::Check, c.id,
                            fmt::format("{}: no load is entered, it counts as nothing", nameOfRun(p, c.id)), ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    const Circuit& c = in.project.circuits[id];
    const auto said = loadInName(c.name);
    if (!said) return {};
    const std::string amount = fmt::format("{} {}", said->load.amount, wordOf(*said->load.unit));
    const std::string poles = said->poles ? fmt::format(", {}-pole", said->poles) : "";
    Project tried = in.project; // where its board has no such poles, say, there is nothing to offer
    const auto take = [id, said, amount](Project& p) -> bool {
        p.circuits.change(id)->name = said->name;
        if (said->poles && said->poles != p.circuits[id].poles && setPoles(p, id, said->poles)) return false;
        const CircuitFact* load = circuitFact("load");
        return !load->write(p, id, amount);
    };
    if (!take(tried)) return {};
    return {{fmt::format("Take {}{} from its name as its load", amount, poles), [take](Project& p) { take(p); },
             "Take the load from its name"}};
}

} // namespace

extern const CheckRule noLoadRule;
const CheckRule noLoadRule{.id = "no-load", .remedies = remedies, .find = find};

} // namespace lintel
