// A name that is held and that the rule book does not give: a size, a cable, a way of laying, a conduit, a covering.
// Sizing goes on with what is usual, and must not do so silently.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

struct Unknown {
    std::string text;
    Remedy remedy;
};

/// The names of what there is, so many of them.
template <class List> std::string offer(const List& list) {
    constexpr std::size_t most = 8;
    std::string names;
    for (std::size_t i = 0; i < std::min(most, list.size()); ++i) names += (i ? ", " : "") + list[i].name;
    return list.size() > most ? names + fmt::format(" and {} more", list.size() - most) : names;
}
std::string passedOver(const std::string& whose, const char* what, const std::string& held, const RuleBook& book,
                       const std::string& offered) {
    return fmt::format("{}: {} “{}” is not in {}, and is not used; there are {}", whose, what, held, book.title,
                       offered);
}

/// What a run holds that the book does not give.
std::vector<Unknown> ofRun(const CheckInput& in, Ref about, const RunResult& r) {
    std::vector<Unknown> out;
    const Run* run = enteredRun(in.project, about);
    if (!run) return out;
    const RuleBook& book = in.book;
    const auto say = [&](const char* what, std::string Run::*held, const std::string& offered, const char* label) {
        out.push_back({passedOver(nameOfRun(in.project, about), what, run->*held, book, offered),
                       {label, [about, held](Project& p) { (runOf(p, about).*held).clear(); }}});
    };
    if (!book.metric()) {
        if (!run->conduit.empty() && !book.conduit(run->conduit))
            say("its conduit", &Run::conduit, offer(book.tables.conduits), "Take the conduit of the basis");
        return out;
    }
    if (!run->cable.empty() && !book.cables.type(run->cable))
        say("its cable", &Run::cable, offer(book.cables.types), "Take the cable of the basis");
    if (r.need.cable->type >= 0 && !run->method.empty()) {
        const CableType& type = book.cables.types[std::size_t(r.need.cable->type)];
        if (!type.method(run->method))
            say("its method", &Run::method, offer(type.methods), "Take the method of the basis");
    }
    if (!run->heldGround.empty() && book.find(run->heldGround) < 0)
        say("its protective conductor", &Run::heldGround, offer(book.sizes()), "Let the protective conductor be sized");
    return out;
}

std::vector<Unknown> ofBasis(const CheckInput& in) {
    std::vector<Unknown> out;
    const Basis& b = in.project.basis;
    const RuleBook& book = in.book;
    const auto say = [&](const char* what, std::string Basis::*held, bool known, const auto& offered,
                         const std::string& instead) {
        if ((b.*held).empty() || known) return;
        out.push_back({passedOver("Basis", what, b.*held, book, offer(offered)),
                       {instead.empty() ? std::string("Take the usual one") : "Take " + instead,
                        [held, instead](Project& p) { p.basis.*held = instead; }}});
    };
    say("the smallest conductor", &Basis::smallestBranch, book.find(b.smallestBranch) >= 0, book.sizes(),
        book.sizes().front().name);
    say("the largest conductor before sets", &Basis::largestPreferred, book.find(b.largestPreferred) >= 0, book.sizes(),
        book.sizes().back().name);
    if (book.metric()) {
        say("the cable of branch circuits", &Basis::branchCable, book.cables.type(b.branchCable), book.cables.types,
            "");
        say("the cable of feeders", &Basis::feederCable, book.cables.type(b.feederCable), book.cables.types, "");
    } else {
        say("the conduit", &Basis::conduit, book.conduit(b.conduit), book.tables.conduits, "");
        say("the covering", &Basis::insulationType, book.insulation(b.insulationType), book.tables.insulations, "");
    }
    return out;
}

void findInBasis(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    const Ref about = wholeOf(in.project);
    if (!about) return;
    for (const Unknown& u : ofBasis(in)) into.push_back({&self, Severity::Stop, about, u.text, in.book.title});
}
void findInRun(const CheckInput& in, const CheckRule& self, Ref about, const RunResult& r, std::vector<Snag>& into) {
    for (const Unknown& u : ofRun(in, about, r)) into.push_back({&self, Severity::Stop, about, u.text, in.book.title});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Unknown> all;
    if (s.about == wholeOf(in.project)) all = ofBasis(in); // a board may stand for the whole, and have a run
    if (const RunResult* r = in.results.run(s.about))
        for (Unknown& u : ofRun(in, s.about, *r)) all.push_back(std::move(u));
    for (const Unknown& u : all)
        if (u.text == s.text) return {u.remedy};
    return {};
}

} // namespace

extern const CheckRule unknownNameRule;
const CheckRule unknownNameRule{.id = "unknown-name", .remedies = remedies, .find = findInBasis, .run = findInRun};

} // namespace lintel
