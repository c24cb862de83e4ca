#include "core/sheets/TypeCard.h"

#include "core/base/Format.h"
#include "core/base/NaturalOrder.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/Words.h"
#include "core/sheets/PictureBox.h"
#include "core/sheets/Symbols.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <sstream>

namespace lintel {
namespace {

constexpr double padding = 4, nameSize = 4.6, markSize = 4.6, text = 3.2, step = 4.4;
constexpr double headRoom = 13, symbolSize = 5;
constexpr double pictureShare = 0.45; ///< of the width
constexpr double leastWidth = 80;

struct Fact {
    std::string name, value;
};

/// "20: 12 on Ground floor, 8 on First floor", "9 on First floor".
std::string countWords(const Project& p, DeviceTypeId type) {
    std::map<LevelId, int> levels;
    int all = 0;
    for (const Device& d : p.devices) {
        if (d.type != type) continue;
        ++levels[d.level];
        ++all;
    }
    if (all == 0) return "none on plan";
    std::string words = levels.size() > 1 ? std::to_string(all) : std::string();
    const char* before = levels.size() > 1 ? ": " : "";
    for (const Level& l : p.levels) {
        const auto at = levels.find(l.id);
        if (at == levels.end()) continue;
        words += fmt::format("{}{} on {}", before, at->second, l.name);
        before = ", ";
    }
    return words;
}

std::vector<Fact> factsOfType(const SheetInput& in, const DeviceType& t) {
    const UnitSystem units = in.project.basis.units;
    std::vector<Fact> all;
    const auto say = [&](const char* name, const std::string& value) {
        if (!value.empty()) all.push_back({name, value});
    };
    if (t.load > 0)
        say("Load", fmt::format("{} {}{}", number(t.load, t.load == std::floor(t.load) ? 0 : 1), wordOf(t.unit),
                                t.powerFactor < 1 ? fmt::format(", power factor {:.2f}", t.powerFactor) : ""));
    say("Lamp", t.lamp);
    if (t.lumens > 0) say("Light", number(t.lumens) + " lm");
    if (t.poles > 1) say("Poles", std::to_string(t.poles));
    if (t.nameplate.ampacity > 0) say("MCA", figures(t.nameplate.ampacity) + " A");
    if (t.nameplate.device > 0) say("MOCP", figures(t.nameplate.device) + " A");
    say("Mounting", t.onWall ? "wall, " + heightWords(t.height, units) : std::string("ceiling"));
    say("Protection", t.protection);
    say("Connection", t.connection);
    say("Number", countWords(in.project, t.id));
    return all;
}

/// Names at the left, values wrapped beside them; returns the base line of what comes next.
double drawFacts(Drawing& d, const std::vector<Fact>& facts, double left, double right, double y) {
    constexpr double names = 21;
    for (const Fact& f : facts) {
        d.text({left, y}, f.name, text, Align::Left, false, Ink::Quiet);
        for (const std::string& line : wrapText(f.value, right - left - names, text)) {
            d.text({left + names, y}, line, text);
            y += step;
        }
    }
    return y;
}

/// Line by line as it was typed, each wrapped.
double drawDescription(Drawing& d, const std::string& description, double width, double y) {
    std::istringstream lines(description);
    for (std::string line; std::getline(lines, line);)
        for (const std::string& part : wrapText(line, width - 2 * padding, text)) {
            d.text({padding, y}, part, text);
            y += step;
        }
    return y;
}

/// Returns where it ends.
double drawHead(Drawing& d, const DeviceType& t) {
    constexpr double nameStep = 5.6;
    double left = padding;
    if (!t.mark.empty()) {
        const double room = textWidth(t.mark, markSize, true) + 4;
        d.box(left, 3, room, 7, 0.5);
        d.text({left + room / 2, 8.1}, t.mark, markSize, Align::Centre, true);
        left += room + 3;
    }
    const double right = d.width - padding - 2 * symbolSize;
    const auto lines = wrapText(t.name, right - left, nameSize, true);
    double y = 8.1;
    for (const std::string& line : lines) {
        d.text({left, y}, line, nameSize, Align::Left, true);
        y += nameStep;
    }
    const double foot = headRoom + nameStep * (double(std::max<std::size_t>(1, lines.size())) - 1);
    drawSymbol(d, t.symbol, {d.width - padding - symbolSize, 6.5}, 0, Ink::Ink, symbolSize);
    d.symbols.back().thing = t.id;
    d.line({padding, foot - 1.5}, {d.width - padding, foot - 1.5}, 0.35);
    return foot;
}

} // namespace

Drawing typeCard(const SheetInput& in, DeviceTypeId type, double width) {
    const DeviceType& t = in.project.deviceTypes[type];
    Drawing d;
    d.title = t.mark.empty() ? t.name : t.mark + ", " + t.name;
    d.width = std::max(width, leastWidth);
    width = d.width;
    const double top = drawHead(d, t);
    double foot = top, left = padding;
    if (!t.picture.empty()) {
        const double side = (width - 2 * padding) * pictureShare;
        d.marks.push_back(pictureIn(in, t.picture, {padding, top + 1}, side, side));
        foot = top + 1 + side + 2;
        left += side + padding;
    }
    foot = std::max(foot, drawFacts(d, factsOfType(in, t), left, width - padding, top + 4) - step / 2);
    if (!t.description.empty()) foot = drawDescription(d, t.description, width, foot + step) - step / 2;
    d.height = foot + padding;
    d.box(0, 0, width, d.height, 0.25);
    d.hotspots.push_back({t.id, 0, 0, width, d.height});
    return d;
}

bool markBefore(const DeviceType& a, const DeviceType& b) {
    return a.mark.empty() == b.mark.empty() ? numberBefore(a.mark, b.mark) : b.mark.empty();
}

std::vector<DeviceTypeId> typesWithCutSheet(const Project& p) {
    std::vector<const DeviceType*> types;
    for (const DeviceType& t : p.deviceTypes)
        if (!t.picture.empty() || !t.description.empty()) types.push_back(&t);
    std::stable_sort(types.begin(), types.end(), [](const DeviceType* x, const DeviceType* y) {
        return x->mark == y->mark ? numberBefore(x->name, y->name) : markBefore(*x, *y);
    });
    std::vector<DeviceTypeId> out;
    for (const DeviceType* t : types) out.push_back(t->id);
    return out;
}

} // namespace lintel
