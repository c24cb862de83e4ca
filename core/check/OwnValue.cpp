// A value of the project in place of the rule book's, for which no reason is recorded. It stays cited as an own value
// either way.

#include "core/base/Format.h"
#include "core/check/Check.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    const Ref about = wholeOf(in.project);
    if (!about) return;
    for (const std::string& own : in.book.overridden())
        if (!in.project.basis.ownReasons.count(own.substr(0, own.find(": "))))
            into.push_back(
                {&self, Severity::Note, about, "Own value in place of the rule book's: " + own, in.book.title});
}

std::vector<Remedy> remedies(const CheckInput&, const Snag& s) {
    const std::string text = s.text, begin = "rule book's: ";
    const std::size_t from = text.find(begin) + begin.size();
    const std::string place = text.substr(from, text.find(": ", from) - from);
    return {{"Go back to the rule book's", [place](Project& p) { p.basis.ownValues.erase(place); }},
            {"Record: agreed with the authority",
             [place](Project& p) { p.basis.ownReasons[place] = "agreed with the authority"; }}};
}

} // namespace

extern const CheckRule ownValueRule;
const CheckRule ownValueRule{.id = "own-value", .remedies = remedies, .find = find};

} // namespace lintel
