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

/// What is told in the same words is there still; so is what a rule tells of the same thing with other figures.
void compareSnags(const std::vector<Snag>& before, const std::vector<Snag>& after, Comparison& c) {
    std::map<std::string, int> said;
    for (const Snag& s : before) ++said[s.text];
    std::vector<const Snag*> fresh, gone;
    for (const Snag& s : after)
        if (said[s.text]-- <= 0) fresh.push_back(&s);
    for (const Snag& s : before)
        if (int& left = said[s.text]; left > 0) {
            --left;
            gone.push_back(&s);
        }
    using Same = std::tuple<const CheckRule*, Ref, Severity>;
    const auto same = [](const Snag& s) { return Same{s.rule, s.about, s.severity}; };
    std::map<Same, int> were;
    for (const Snag* s : gone) ++were[same(*s)];
    std::map<Same, int> still;
    for (const Snag* s : fresh)
        if (int& left = were[same(*s)]; left > 0) {
            --left;
            ++still[same(*s)];
            c.otherwise.push_back(s->text);
        } else {
            c.newSnags.push_back(s->text);
        }
    for (const Snag* s : gone)
        if (int& left = still[same(*s)]; left > 0)
            --left;
        else
            c.gone.push_back(s->text);
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
    const auto before = findSnags(a.project, a.book, a.results), after = findSnags(b.project, b.book, b.results);
    c.snagsBefore = int(before.size()), c.snagsAfter = int(after.size());
    for (const Snag& s : before) c.stopsBefore += s.severity == Severity::Stop;
    for (const Snag& s : after) c.stopsAfter += s.severity == Severity::Stop;
    compareSnags(before, after, c);
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
    if (!otherwise.empty()) add(plural(int(otherwise.size()), "snag with other figures", "snags with other figures"));
    if (std::abs(kg) >= 0.05) add((kg > 0 ? "+" : "") + number(kg, 1) + " kg of conductor");
    return t.empty() ? "nothing changes" : t;
}

std::vector<std::string> Comparison::list(std::size_t most) const {
    std::vector<std::string> all;
    for (const std::string& s : newSnags) all.push_back("New snag: " + s);
    for (const Altered& c : runs) all.push_back(fmt::format("{}: {} → {}", c.name, c.before, c.after));
    for (const std::string& s : gone) all.push_back("Gone: " + s);
    for (const std::string& s : otherwise) all.push_back("Still: " + s);
    if (all.size() > most) {
        const std::size_t left = all.size() - most + 1;
        all.resize(most - 1);
        all.push_back(fmt::format("and {} more", left));
    }
    return all;
}

} // namespace lintel
