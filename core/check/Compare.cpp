#include "core/check/Compare.h"

#include "core/base/Format.h"

#include <fmt/format.h>
#include <map>

namespace lintel {
namespace {

std::string words(const RunResult& r, double device, const RuleBook& book) {
    return fmt::format("{} A, {}{}", rating(device), r.sets > 1 ? fmt::format("{} × ", r.sets) : "",
                       sizeWords(book, r.size));
}

} // namespace

Comparison compare(const CheckInput& a, const CheckInput& b) {
    Comparison c;
    const auto look = [&](Ref thing, const RunResult& x, const RunResult& y, double dx, double dy,
                          const std::string& name) {
        const bool size = x.size != y.size || x.sets != y.sets || x.ground != y.ground, device = dx != dy;
        c.sizes += size;
        c.devices += device;
        if (size || device) c.runs.push_back({thing, name, words(x, dx, a.book), words(y, dy, b.book)});
    };
    for (const Circuit& k : b.project.circuits)
        if (a.project.circuits.has(k.id)) {
            const CircuitResult &x = a.results.of(k.id), &y = b.results.of(k.id);
            if (!x.feeder && !y.feeder) look(k.id, x.run, y.run, x.device, y.device, nameOf(b.project, k.id));
        }
    for (const Board& k : b.project.boards)
        if (a.project.boards.has(k.id))
            look(k.id, a.results.of(k.id).run, b.results.of(k.id).run, a.results.of(k.id).run.need.device,
                 b.results.of(k.id).run.need.device, "Feeder of " + k.name);
    for (const Transformer& k : b.project.transformers)
        if (a.project.transformers.has(k.id))
            look(k.id, a.results.of(k.id).run, b.results.of(k.id).run, a.results.of(k.id).run.need.device,
                 b.results.of(k.id).run.need.device, "Feeder of " + k.name);
    const auto mass = [](const CheckInput& in) {
        double kg = 0;
        for (const auto& x : in.results.circuits) kg += conductorMass(x.run, in.book);
        for (const auto& x : in.results.boards) kg += conductorMass(x.run, in.book);
        for (const auto& x : in.results.transformers) kg += conductorMass(x.run, in.book);
        return kg;
    };
    c.kg = mass(b) - mass(a);
    std::map<std::string, int> count;
    const auto before = findSnags(a.project, a.book, a.results), after = findSnags(b.project, b.book, b.results);
    c.snagsBefore = int(before.size()), c.snagsAfter = int(after.size());
    for (const Snag& s : before) ++count[s.text], c.stopsBefore += s.severity == Severity::Stop;
    for (const Snag& s : after) c.stopsAfter += s.severity == Severity::Stop;
    for (const Snag& s : after)
        if (count[s.text]-- <= 0) c.newSnags.push_back(s.text);
    for (const Snag& s : before)
        if (auto it = count.find(s.text); it->second > 0) --it->second, c.gone.push_back(s.text);
    return c;
}

std::string Comparison::text() const {
    const auto plural = [](int n, const char* one, const char* many) {
        return fmt::format("{} {}", n, n == 1 ? one : many);
    };
    std::string t;
    const auto add = [&](const std::string& s) { t += (t.empty() ? "" : " · ") + s; };
    if (sizes) add(plural(sizes, "run changes", "runs change"));
    if (devices) add(plural(devices, "device changes", "devices change"));
    if (!newSnags.empty()) add(plural(int(newSnags.size()), "new snag", "new snags"));
    if (!gone.empty()) add(plural(int(gone.size()), "snag gone", "snags gone"));
    if (std::abs(kg) >= 0.05) add((kg > 0 ? "+" : "") + number(kg, 1) + " kg of conductor");
    return t.empty() ? "nothing changes" : t;
}

std::vector<std::string> Comparison::list(std::size_t most) const {
    std::vector<std::string> all;
    for (const std::string& s : newSnags) all.push_back("New snag: " + s);
    for (const Altered& c : runs) all.push_back(fmt::format("{}: {} → {}", c.name, c.before, c.after));
    for (const std::string& s : gone) all.push_back("Gone: " + s);
    if (all.size() > most) {
        const std::size_t left = all.size() - most + 1;
        all.resize(most - 1);
        all.push_back(fmt::format("and {} more", left));
    }
    return all;
}

} // namespace lintel
