// Two sheets that keep one number, or one sheet that keeps two, as when two people have issued apart from one another
// and then merged. The first that was given counts.

#include "core/check/Check.h"
#include "core/project/SheetNumbers.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// Those that do not count.
std::vector<SheetNumberId> later(const Project& p) {
    const SheetNumbering numbering(p);
    std::vector<SheetNumberId> all;
    for (const SheetNumber& s : p.sheetNumbers) {
        const SheetNumber* counts = numbering.kept({s.of, s.about});
        if (!s.number.empty() && (!counts || counts->number != s.number)) all.push_back(s.id);
    }
    return all;
}

std::string wordsOf(const Project& p, const SheetNumber& s) {
    const std::string of = s.about ? " " + nameOf(p, s.about) : "";
    return fmt::format("{} ({}{})", s.number, wordOf(s.of), of);
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    const auto twice = later(in.project);
    const Ref about = wholeOf(in.project);
    if (twice.empty() || !about) return;
    std::string words;
    for (SheetNumberId id : twice)
        words += (words.empty() ? "" : ", ") + wordsOf(in.project, in.project.sheetNumbers[id]);
    into.push_back({&self, Severity::Check, about,
                    "Sheet numbers that were given twice: " + words + ". The first that was given counts", ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag&) {
    const auto twice = later(in.project);
    return {{"Let go of what does not count", [twice](Project& p) {
                 for (SheetNumberId id : twice) { // its title stays
                     const SheetNumber row = p.sheetNumbers[id];
                     if (row.title.empty() && !row.left)
                         p.sheetNumbers.remove(id);
                     else
                         p.sheetNumbers.change(id)->number.clear();
                 }
             }}};
}

} // namespace

extern const CheckRule sheetNumberTwiceRule;
const CheckRule sheetNumberTwiceRule{.id = "sheet-number", .remedies = remedies, .find = find};

} // namespace lintel
