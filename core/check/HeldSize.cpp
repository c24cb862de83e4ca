// Conductors and protective conductors held by hand that are too small.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, Ref about, const RunResult& r, std::vector<Snag>& into) {
    if (r.state != Sizing::NoneFits && !in.results.present.has(Results::Trait::HeldSize)) return;
    const Run* run = enteredRun(in.project, about);
    if ((!run || (run->heldSize.empty() && run->heldGround.empty())) && r.state != Sizing::NoneFits) return;
    if (!about.is<Circuit>() && !in.results.node(about)->parent) return;
    const std::string name = nameOfRun(in.project, about);
    if (run && !run->heldSize.empty()) {
        const SizeIndex held = in.book.find(run->heldSize);
        if (held < 0 || !in.book.choosable(held, r.need.material)) {
            into.push_back({&self, Severity::Stop, about,
                            fmt::format("{}: held at “{}”, which {} does not give for {}", name, run->heldSize,
                                        in.book.title, wordOf(r.need.material)),
                            in.book.cite("impedance")});
            return;
        }
    }
    if (r.state == Sizing::Held && r.tooSmall)
        into.push_back({&self, Severity::Stop, about,
                        fmt::format("{}: held at {}{}, {}{} is needed", name,
                                    r.sets > 1 ? std::to_string(r.sets) + " × " : "", sizeWords(in.book, r.size),
                                    r.setsForAmpacity > 1 ? std::to_string(r.setsForAmpacity) + " × " : "",
                                    sizeWords(in.book, r.sizeForAmpacity)),
                        in.book.cite("ampacity")});
    if (r.groundNeeded >= 0 && r.ground < r.groundNeeded)
        into.push_back({&self, Severity::Stop, about,
                        fmt::format("{}: its ground is held at {}, {} is needed", name, sizeWords(in.book, r.ground),
                                    sizeWords(in.book, r.groundNeeded)),
                        in.book.cite("protective")});
    if (r.state == Sizing::NoneFits && r.need.required.v > 0)
        into.push_back({&self, Severity::Stop, about,
                        fmt::format("{}: no conductor carries {} A", name, figures(r.need.required.v)),
                        in.book.cite("ampacity")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Ref about = s.about;
    const RunResult& r = *in.results.run(about);
    const Run* entered = enteredRun(in.project, about);
    if (!entered) return out;
    const RunId id = entered->id;
    if (r.groundNeeded >= 0 && r.ground < r.groundNeeded) {
        const std::string ground = in.book.sizes()[std::size_t(r.groundNeeded)].name;
        out.push_back({fmt::format("Hold its ground at {}", sizeWords(in.book, r.groundNeeded)),
                       [id, ground](Project& p) { p.runs.change(id)->heldGround = ground; }});
        out.push_back({"Let its ground be sized", [id](Project& p) { p.runs.change(id)->heldGround.clear(); }});
    }
    if (entered->heldSize.empty()) return out;
    if (r.sizeForAmpacity < 0) {
        out.push_back({"Let it be sized", [id](Project& p) { p.runs.change(id)->heldSize.clear(); }});
        return out;
    }
    const std::string needed = in.book.sizes()[std::size_t(r.sizeForAmpacity)].name;
    const int sets = r.setsForAmpacity;
    const auto hold = [about](Project& p, const std::string& size, int n) {
        Run& run = runOf(p, about);
        run.heldSize = size;
        run.heldSets = n;
    };
    out.push_back(
        {fmt::format("Hold {}{}", sets > 1 ? std::to_string(sets) + " × " : "", sizeWords(in.book, r.sizeForAmpacity)),
         [=](Project& p) { hold(p, needed, sets > 1 ? sets : 0); }});
    out.push_back({"Let it be sized", [=](Project& p) { hold(p, "", 0); }});
    return out;
}

} // namespace

extern const CheckRule heldSizeRule;
const CheckRule heldSizeRule{.id = "held-size", .remedies = remedies, .run = find};

} // namespace lintel
