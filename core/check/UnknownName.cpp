// A name that is held and that the rule book does not give: a size, a cable, a way of laying, a conduit, a covering. Sizing goes on
// with what is usual, and must not do so silently.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

struct Unknown {
    Ref about;
    std::string text;
    Remedy remedy;
};

/// "“25 mm” is …: 1, 1.5, 2.5, …": what is held, and what the book offers.
std::string offer(const std::vector<std::string>& names) {
    constexpr std::size_t most = 8;
    std::string list;
    for (std::size_t i = 0; i < std::min(most, names.size()); ++i) list += (i ? ", " : "") + names[i];
    return names.size() > most ? list + fmt::format(" and {} more", names.size() - most) : list;
}

struct Names {
    std::vector<std::string> sizes, conduits, coverings, cables;
    explicit Names(const RuleBook& book) {
        for (const ConductorSize& s : book.sizes()) sizes.push_back(s.name);
        for (const ConduitType& t : book.tables.conduits) conduits.push_back(t.name);
        for (const Insulation& i : book.tables.insulations) coverings.push_back(i.name);
        for (const CableType& t : book.cables.types) cables.push_back(t.name);
    }
    static bool has(const std::vector<std::string>& names, const std::string& name) { return name.empty() || std::find(names.begin(), names.end(), name) != names.end(); }
};
std::vector<std::string> methodsOf(const CableType& t) {
    std::vector<std::string> out;
    for (const CableMethod& m : t.methods) out.push_back(m.name);
    return out;
}

void look(const CheckInput& in, const Names& names, Ref about, const RunResult& r, std::vector<Unknown>& out) {
    const Run* run = enteredRun(in.project, about);
    if (!run) return;
    const std::string name = nameOfRun(in.project, about);
    const auto say = [&](const char* what, const std::string& held, const std::vector<std::string>& offered, const char* label, auto clear) {
        out.push_back({about, fmt::format("{}: {} “{}” is not in {}, and is not used; there are {}", name, what, held, in.book.title, offer(offered)), {label, [about, clear](Project& p) { clear(runOf(p, about)); }}});
    };
    if (!in.book.metric()) {
        if (!Names::has(names.conduits, run->conduit)) say("its conduit", run->conduit, names.conduits, "Take the conduit of the basis", [](Run& x) { x.conduit.clear(); });
        return;
    }
    if (!Names::has(names.cables, run->cable)) say("its cable", run->cable, names.cables, "Take the cable of the basis", [](Run& x) { x.cable.clear(); });
    if (r.need.cable->type >= 0) {
        const CableType& type = in.book.cables.types[std::size_t(r.need.cable->type)];
        if (!run->method.empty() && !type.method(run->method)) say("its method", run->method, methodsOf(type), "Take the method of the basis", [](Run& x) { x.method.clear(); });
    }
    if (!Names::has(names.sizes, run->heldGround)) say("its protective conductor", run->heldGround, names.sizes, "Let the protective conductor be sized", [](Run& x) { x.heldGround.clear(); });
}

void lookAtBasis(const CheckInput& in, const Names& names, std::vector<Unknown>& out) {
    const Ref about = !in.project.sources.empty() ? Ref(in.project.sources.begin()->id) : !in.project.boards.empty() ? Ref(in.project.boards.begin()->id) : Ref();
    if (!about) return;
    const Basis& b = in.project.basis;
    const auto say = [&](const char* what, std::string Basis::* member, const std::vector<std::string>& offered, const std::string& instead) {
        if (Names::has(offered, b.*member)) return;
        out.push_back({about, fmt::format("Basis: {} “{}” is not in {}, and is not used; there are {}", what, b.*member, in.book.title, offer(offered)), {instead.empty() ? std::string("Take the usual one") : "Take " + instead, [member, instead](Project& p) { p.basis.*member = instead; }}});
    };
    const std::string first = names.sizes.empty() ? "" : names.sizes.front(), last = names.sizes.empty() ? "" : names.sizes.back();
    say("the smallest conductor", &Basis::smallestBranch, names.sizes, first);
    say("the largest conductor before sets", &Basis::largestPreferred, names.sizes, last);
    if (in.book.metric()) {
        say("the cable of branch circuits", &Basis::branchCable, names.cables, "");
        say("the cable of feeders", &Basis::feederCable, names.cables, "");
    } else {
        say("the conduit", &Basis::conduit, names.conduits, "");
        say("the covering", &Basis::insulationType, names.coverings, "");
    }
}

std::vector<Unknown> all(const CheckInput& in) {
    const Names names(in.book);
    std::vector<Unknown> out;
    lookAtBasis(in, names, out);
    for (const Circuit& c : in.project.circuits)
        if (const CircuitResult& cr = in.results.of(c.id); !cr.feeder && c.use == CircuitUse::Load) look(in, names, c.id, cr.run, out);
    for (const Board& b : in.project.boards) look(in, names, b.id, in.results.of(b.id).run, out);
    for (const Transformer& t : in.project.transformers) look(in, names, t.id, in.results.of(t.id).run, out);
    return out;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Unknown& u : all(in)) into.push_back({&self, Severity::Stop, u.about, u.text, in.book.title});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    for (const Unknown& u : all(in))
        if (u.about == s.about && u.text == s.text) return {u.remedy};
    return {};
}

} // namespace

extern const CheckRule unknownNameRule;
const CheckRule unknownNameRule{.id = "unknown-name", .remedies = remedies, .find = find};

} // namespace lintel
