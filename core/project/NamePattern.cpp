#include "core/project/NamePattern.h"

#include "core/base/Parse.h"
#include "core/project/Operations.h"

#include <fmt/format.h>
#include <set>

namespace lintel {
namespace {

constexpr std::size_t roomsNamed = 3; ///< more are counted

std::string most(const std::map<std::string, int>& m) {
    return m.empty() ? std::string() : std::max_element(m.begin(), m.end(), [](const auto& a, const auto& b) {
                                           return a.second < b.second;
                                       })->first;
}

template <class List> std::string joined(const List& list) {
    std::string all;
    for (const std::string& s : list) all += (all.empty() ? "" : ", ") + s;
    return all;
}

} // namespace

std::string roomRuns(std::vector<std::string> numbers) {
    std::sort(numbers.begin(), numbers.end(), [](const std::string& a, const std::string& b) {
        return a.size() != b.size() ? a.size() < b.size() : a < b;
    });
    numbers.erase(std::unique(numbers.begin(), numbers.end()), numbers.end());
    const auto split = [](const std::string& s) {
        const std::size_t digits = s.find_last_not_of("0123456789") + 1;
        return std::pair(s.substr(0, digits),
                         s.size() - digits > 0 && s.size() - digits < 9 ? std::stol(s.substr(digits)) : -1L);
    };
    std::vector<std::string> out;
    for (std::size_t i = 0; i < numbers.size();) {
        std::size_t j = i;
        while (j + 1 < numbers.size() && split(numbers[j]).second >= 0 &&
               split(numbers[j + 1]).first == split(numbers[j]).first &&
               split(numbers[j + 1]).second == split(numbers[j]).second + 1)
            ++j;
        if (j >= i + 2)
            out.push_back(numbers[i] + "–" + numbers[j]);
        else
            for (std::size_t k = i; k <= j; ++k) out.push_back(numbers[k]);
        i = j + 1;
    }
    return joined(out);
}

std::string patternName(const Project& p, const std::vector<const Device*>& devices,
                        const std::vector<const Load*>& loads, BoardId board) {
    if (devices.empty() && loads.empty()) return "";
    std::map<std::string, int> what, rooms, kinds;
    std::vector<std::string> numbers, tags;
    double count = 0;
    for (const Device* d : devices) {
        const DeviceType* y = p.deviceTypes.find(d->type);
        if (!d->tag.empty())
            ++what[d->tag], tags.push_back(d->tag);
        else if (y)
            ++what[y->kind == LoadKind::Receptacle ? "Receptacles"
                   : y->kind == LoadKind::Lighting ? "Lighting"
                                                   : y->name];
        if (y) ++kinds[titleOf(y->kind)];
        ++count;
        if (const RoomId room = roomAt(p, d->level, d->at)) {
            ++rooms[nameOf(p, Ref(room))];
            if (const std::string& n = p.rooms[room].number; !n.empty()) numbers.push_back(n);
        }
    }
    for (const Load* l : loads) {
        ++what[l->name];
        if (!l->tag.empty()) tags.push_back(l->tag);
        ++kinds[titleOf(l->kind)];
        count += l->quantity;
        if (!l->where.empty()) ++rooms[l->where];
    }
    // The rooms that most of it stands in first.
    std::vector<std::pair<std::string, int>> byCount(rooms.begin(), rooms.end());
    std::stable_sort(byCount.begin(), byCount.end(), [](const auto& a, const auto& b) { return a.second > b.second; });
    std::vector<std::string> named;
    for (const auto& [room, n] : byCount)
        if (named.size() < roomsNamed) named.push_back(room);
    std::string roomText = joined(named);
    if (byCount.size() > named.size()) roomText += fmt::format(" and {} more", byCount.size() - named.size());
    const LoadKind kind = !devices.empty() && p.deviceTypes.has(devices.front()->type)
                              ? p.deviceTypes[devices.front()->type].kind
                          : !loads.empty() ? loads.front()->kind
                                           : LoadKind::Equipment;
    const auto own = p.basis.namePatternByUse.find(wordOf(kind));
    std::string pattern =
        own != p.basis.namePatternByUse.end() && !own->second.empty() ? own->second : p.basis.namePattern;
    if (pattern.empty()) pattern = usualNamePattern;
    const Board* b = p.boards.find(board);
    return trimmed(fillPattern(pattern, {{"what", most(what)},
                                         {"rooms", roomText},
                                         {"numbers", roomRuns(numbers)},
                                         {"tags", joined(tags)},
                                         {"count", fmt::format("{}", count)},
                                         {"load", most(kinds)},
                                         {"board", b ? b->name : ""}}));
}

Naming planNaming(const Project& p, BoardId board) {
    std::map<CircuitId, std::pair<std::vector<const Device*>, std::vector<const Load*>>> on;
    for (const Device& d : p.devices)
        if (d.circuit) on[d.circuit].first.push_back(&d);
    for (const Load& l : p.loads)
        if (l.circuit) on[l.circuit].second.push_back(&l);
    Naming out;
    for (const Circuit& c : p.circuits) {
        if (c.use != CircuitUse::Load || (board && c.board != board)) continue;
        const auto it = on.find(c.id);
        if (it == on.end()) continue;
        const auto& [devices, loads] = it->second;
        const std::string name = patternName(p, devices, loads, c.board);
        if (name.empty() || (name == c.name && name == c.madeName)) continue;
        // Typed: not what a pattern made last, and not what an older way of naming makes of the devices.
        std::vector<DeviceId> ids;
        for (const Device* d : devices) ids.push_back(d->id);
        const bool made = c.name.empty() || c.name == c.madeName || c.name == name ||
                          (loads.empty() && c.name == nameForDevices(p, ids));
        if (made)
            out.changes.push_back({c.id, name});
        else
            ++out.kept;
    }
    return out;
}

void applyNaming(Project& p, const Naming& naming) {
    for (const auto& [id, name] : naming.changes) {
        Circuit& c = *p.circuits.change(id);
        c.name = c.madeName = name;
    }
}

} // namespace lintel
