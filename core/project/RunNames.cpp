#include "core/project/RunNames.h"

#include "core/base/Parse.h"
#include "core/project/Operations.h"

#include <fmt/format.h>
#include <set>

namespace lintel {
namespace {

/// A run with what the places of a pattern say of it.
struct Named {
    RunId run;
    bool feeder = false;
    Ref from;
    int slot = 0;
    std::map<std::string, std::string> words;
};

class Runs {
public:
    explicit Runs(const Project& project) : p(project) {
        for (const Board& b : p.boards) {
            feeder(b.run, b.feed, b.name);
            if (b.alternate) feeder(b.alternateRun, b.alternate, b.name + ", alternate");
        }
        for (const Transformer& t : p.transformers) feeder(t.run, t.feed, t.name);
        std::set<CircuitId> feeding;
        for (const Board& b : p.boards)
            for (Ref r : {b.feed, b.alternate}) feeding.insert(r.as<Circuit>());
        for (const Transformer& t : p.transformers) feeding.insert(t.feed.as<Circuit>());
        for (const Circuit& c : p.circuits)
            if (c.use == CircuitUse::Load && !feeding.count(c.id)) add(c.run, false, c.id, c.name);
        std::stable_sort(all.begin(), all.end(), [](const Named& a, const Named& b) {
            return std::tuple(a.from.letter, a.from.value, a.slot) < std::tuple(b.from.letter, b.from.value, b.slot);
        });
    }
    std::vector<Named> all;

private:
    const Project& p;

    void feeder(RunId run, Ref feed, const std::string& to) {
        if (feed) add(run, true, feed, to);
    }
    void add(RunId run, bool isFeeder, Ref feed, const std::string& to) {
        if (!p.runs.has(run)) return;
        Named n;
        n.run = run;
        n.feeder = isFeeder;
        const Circuit* c = p.circuits.find(feed.as<Circuit>());
        n.from = c ? Ref(c->board) : feed;
        n.slot = c ? c->slot : 0;
        n.words = {{"from", nameOf(p, n.from)},
                   {"slot", c && c->slot ? std::to_string(c->slot) : ""},
                   {"to", to},
                   {"circuit", c ? nameOf(p, c->id) : ""},
                   {"kind", isFeeder ? "F" : "C"}};
        all.push_back(std::move(n));
    }
};

/// A word in braces that is no place; empty: there is none.
std::string unknownPlace(const std::string& pattern) {
    static const std::set<std::string> known{"from", "slot", "to", "circuit", "number", "kind"};
    for (std::size_t at = pattern.find('{'); at != std::string::npos; at = pattern.find('{', at + 1)) {
        const std::size_t close = pattern.find('}', at);
        if (close == std::string::npos) return pattern.substr(at);
        const std::string word = pattern.substr(at + 1, close - at - 1);
        if (!known.count(word)) return pattern.substr(at, close - at + 1);
    }
    return "";
}

} // namespace

Outcome<RunNaming> planRunNames(const Project& p, const RunNamingWanted& wanted) {
    const std::string pattern = trimmed(wanted.pattern);
    constexpr const char* places = "There are {from}, {slot}, {to}, {circuit}, {number} and {kind}.";
    if (const std::string bad = unknownPlace(pattern); !bad.empty())
        return Error{"", "“" + bad + "” is no place of a pattern", places};
    if (pattern.find('{') == std::string::npos)
        return Error{"", pattern.empty() ? "there is no pattern" : "“" + pattern + "” says the same of every run",
                     places};
    RunNaming out;
    std::set<std::string> taken;
    const Runs runs(p);
    const auto asked = [&](const Named& n) { return n.feeder ? wanted.feeders : wanted.branches; };
    const auto keeps = [&](const Named& n) { return !asked(n) || (!wanted.named && !p.runs[n.run].name.empty()); };
    for (const Named& n : runs.all)
        if (keeps(n)) taken.insert(p.runs[n.run].name);
    int number = 0;
    for (const Named& n : runs.all) {
        ++number;
        const std::string& now = p.runs[n.run].name;
        if (keeps(n)) {
            out.kept += asked(n) && !now.empty();
            continue;
        }
        auto words = n.words;
        words["number"] = std::to_string(number);
        const std::string plain = trimmed(fillPattern(pattern, words));
        if (plain.empty()) {
            ++out.unnamed;
            continue;
        }
        std::string name = plain;
        for (int k = 2; !taken.insert(name).second; ++k) name = fmt::format("{}-{}", plain, k);
        if (name == now)
            ++out.same;
        else
            out.changes.push_back({n.run, now, name});
    }
    return out;
}

void applyRunNames(Project& p, const RunNaming& naming) {
    for (const RunNaming::Change& c : naming.changes) p.runs.change(c.run)->name = c.to;
}

} // namespace lintel
