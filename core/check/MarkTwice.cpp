// Two types of device of one mark: who reads "A1" on a plan does not know which of them to order.

#include "core/base/Parse.h"
#include "core/check/Check.h"

#include <fmt/format.h>

#include <map>
#include <set>

namespace lintel {
namespace {

/// Marks are the same whatever their case.
std::string plainMark(const DeviceType& t) { return lowered(trimmed(t.mark)); }

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    std::map<std::string, DeviceTypeId> first;
    for (const DeviceType& t : in.project.deviceTypes) {
        if (plainMark(t).empty()) continue;
        const auto [at, isNew] = first.emplace(plainMark(t), t.id);
        if (isNew) continue;
        into.push_back({&self, Severity::Check, t.id,
                        fmt::format("{} has the mark {}, which is that of {}", t.name, t.mark,
                                    in.project.deviceTypes[at->second].name),
                        ""});
    }
}

/// The next number after the mark's own that no type has: "A2".
std::string freeMark(const Project& p, const std::string& mark) {
    std::set<std::string> taken;
    for (const DeviceType& t : p.deviceTypes) taken.insert(plainMark(t));
    std::size_t letters = mark.size();
    while (letters > 0 && isDigit(mark[letters - 1])) --letters;
    const std::string stem = mark.substr(0, letters);
    for (int n = 1;; ++n) {
        const std::string next = stem + std::to_string(n);
        if (!taken.count(lowered(next))) return next;
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const DeviceTypeId id = s.about.as<DeviceType>();
    const std::string next = freeMark(in.project, trimmed(in.project.deviceTypes[id].mark));
    return {{fmt::format("Mark it {}", next), [=](Project& p) { p.deviceTypes.change(id)->mark = next; }},
            {"Leave it without a mark", [=](Project& p) { p.deviceTypes.change(id)->mark.clear(); }}};
}

} // namespace

extern const CheckRule markTwiceRule;
const CheckRule markTwiceRule{.id = "mark-twice", .remedies = remedies, .find = find};

} // namespace lintel
