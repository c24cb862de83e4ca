#include "core/check/CircuitFilter.h"

#include "core/base/Parse.h"
#include "core/figures/Words.h"
#include "core/project/CircuitFacts.h"

namespace lintel {
namespace {

bool has(const std::string& text, const std::string& part) { return lowered(text).find(part) != std::string::npos; }

/// Numbers that can be compared: what is worked out, by its word.
std::optional<double> figure(const CheckInput& in, const Circuit& c, const std::string& key) {
    const CircuitResult& r = in.results.of(c.id);
    const RunResult& run = *in.results.run(c.id);
    if (key == "va") return r.va;
    if (key == "amps") return r.load.v;
    if (key == "breaker") return r.device;
    if (key == "poles") return c.poles;
    if (key == "slot") return c.slot;
    if (key == "points") return r.points;
    if (key == "drop") return run.need.lengthKnown ? std::optional(run.dropOwn) : std::nullopt;
    if (key == "total") return run.need.lengthKnown ? std::optional(run.dropTotal) : std::nullopt;
    if (key == "length")
        return !run.need.lengthKnown
                   ? std::nullopt
                   : std::optional(run.need.length.v /
                                   (in.project.basis.units == UnitSystem::Imperial ? metresPerFoot : 1));
    return std::nullopt;
}
constexpr const char* figures_[] = {"va", "amps", "breaker", "poles", "slot", "points", "drop", "total", "length"};
constexpr const char* states[] = {"pinned",    "spare",    "reserved", "feeder",  "held",  "tied",
                                  "multiwire", "unplaced", "empty",    "unnamed", "raised"};

} // namespace

std::string CircuitFilter::help() {
    return "kitchen · board:LK-1 · kind:lighting · va>1500 · drop>3 · poles:2 · pinned · spare · held · -tied · note:…";
}

Outcome<CircuitFilter> CircuitFilter::from(const std::string& text) {
    CircuitFilter f;
    std::string word;
    bool quoted = false;
    std::optional<Error> bad;
    const auto take = [&] {
        std::string w = trimmed(word);
        word.clear();
        if (w.empty() || bad) return;
        Part part;
        if (w[0] == '-' && w.size() > 1) part.not_ = true, w = w.substr(1);
        const std::size_t at = w.find_first_of(":<>=");
        if (at == std::string::npos || at == 0) {
            part.value = lowered(w);
            for (const char* s : states)
                if (part.value == s) part.key = s, part.sign = Sign::Is;
            f.parts.push_back(part);
            return;
        }
        part.key = lowered(w.substr(0, at));
        part.value = lowered(trimmed(w.substr(at + 1)));
        const bool number =
            std::any_of(std::begin(figures_), std::end(figures_), [&](const char* k) { return part.key == k; });
        part.sign = w[at] == '>' ? Sign::More : w[at] == '<' ? Sign::Less : Sign::Is;
        const auto v = numberFrom(part.value);
        if (part.sign != Sign::Is && (!number || !v)) {
            bad = Error{
                w, number ? "“" + part.value + "” is not a number" : "there is no figure “" + part.key + "” to compare",
                "Figures are: va, amps, breaker, poles, slot, points, drop, total, length."};
            return;
        }
        if (v) part.number = *v;
        if (part.sign == Sign::Is && !number && part.key != "board" && part.key != "kind" && part.key != "size" &&
            !circuitFact(part.key)) {
            bad = Error{w, "there is no fact “" + part.key + "”", "Such as board, kind, size, va, drop, note."};
            return;
        }
        f.parts.push_back(part);
    };
    for (char c : text) {
        if (c == '"')
            quoted = !quoted;
        else if (isBlank(c) && !quoted)
            take();
        else
            word += c;
    }
    take();
    if (bad) return *bad;
    return f;
}

bool CircuitFilter::matches(const CheckInput& in, const Circuit& c) const {
    const Project& p = in.project;
    const CircuitResult& r = in.results.of(c.id);
    for (const Part& part : parts) {
        bool ok = false;
        const std::string& k = part.key;
        if (k.empty()) {
            ok = has(nameOf(p, c.id), part.value) || has(servesWords(p, in.results, c.id), part.value) ||
                 has(c.note, part.value) || (r.va > 0 && !r.feeder && has(wordOf(r.kind), part.value));
        } else if (const auto v = figure(in, c, k);
                   std::any_of(std::begin(figures_), std::end(figures_), [&](const char* x) { return k == x; })) {
            if (part.sign == Sign::Is && part.value == "auto")
                ok = k == "breaker" && !c.heldBreaker;
            else if (part.sign == Sign::Is && part.value == "held")
                ok = k == "breaker" && c.heldBreaker;
            else
                ok = v &&
                     (part.sign == Sign::More   ? *v > part.number
                      : part.sign == Sign::Less ? *v < part.number
                                                : std::abs(*v - part.number) < 1e-6 + 0.005 * std::abs(part.number));
        } else if (k == "board")
            ok = sameWord(p.boards[c.board].name, part.value);
        else if (k == "kind")
            ok = r.va > 0 && !r.feeder && has(wordOf(r.kind), part.value);
        else if (k == "size")
            ok = in.results.run(c.id)->size >= 0 &&
                 sameWord(in.book.sizes()[std::size_t(in.results.run(c.id)->size)].name, part.value);
        else if (k == "pinned")
            ok = c.pinned;
        else if (k == "spare")
            ok = c.use == CircuitUse::Spare;
        else if (k == "reserved")
            ok = c.use == CircuitUse::Reserved;
        else if (k == "feeder")
            ok = r.feeder;
        else if (k == "held")
            ok = c.heldBreaker.has_value() || in.results.run(c.id)->state == Sizing::Held;
        else if (k == "tied")
            ok = c.tie > 0;
        else if (k == "multiwire")
            ok = c.multiwire > 0;
        else if (k == "unplaced")
            ok = c.slot <= 0 || r.clash;
        else if (k == "empty")
            ok = c.use == CircuitUse::Load && r.va <= 0;
        else if (k == "unnamed")
            ok = c.use == CircuitUse::Load && !r.feeder && c.name.empty();
        else if (k == "raised")
            ok = in.results.run(c.id)->why == Governing::VoltageDrop;
        else if (const CircuitFact* f = circuitFact(k))
            ok = part.value.empty() ? f->read(p, c).empty() : has(f->read(p, c), part.value);
        if (ok == part.not_) return false;
    }
    return true;
}

} // namespace lintel
