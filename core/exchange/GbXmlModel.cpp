// gbXML: storeys and spaces, as tools for the energy of buildings write them. It has no walls with two sides and no
// electrical things.

#include "core/base/Parse.h"
#include "core/base/Utf8.h"
#include "core/exchange/BuildingModel.h"

#include <algorithm>
#include <map>

#include <fmt/format.h>
#include <pugixml.hpp>

namespace lintel {
namespace {

/// m for one unit of length by its word in the schema; 0: there is no such word.
double metresIn(const std::string& word) {
    constexpr std::pair<const char*, double> all[] = {
        {"Meters", 1},      {"Centimeters", 0.01}, {"Millimeters", 0.001}, {"Feet", 0.3048},
        {"Inches", 0.0254}, {"Yards", 0.9144},     {"Kilometers", 1000}};
    for (const auto& [name, metres] : all)
        if (word == name) return metres;
    return 0;
}

std::string textOf(const pugi::xml_node& n) { return printable(trimmed(n.text().get())); }

/// Corners on our plans: north is up, and y goes down.
std::vector<Point> outlineOf(const pugi::xml_node& loop, double metre) {
    std::vector<Point> out;
    for (const auto& point : loop.children("CartesianPoint")) {
        const pugi::xml_node x = point.child("Coordinate"), y = x.next_sibling("Coordinate");
        const auto metres = [&](const pugi::xml_node& n) { return numberFrom(textOf(n)).value_or(0) * metre; };
        out.push_back({metres(x), -metres(y)});
    }
    return out.size() < 3 ? std::vector<Point>{} : out;
}

} // namespace

Outcome<BuildingModel> readGbXml(const std::string& text, const std::string& name) {
    pugi::xml_document doc;
    const auto parsed = doc.load_buffer(text.data(), text.size());
    if (!parsed)
        return Error{name, fmt::format("it is damaged at byte {}: {}", parsed.offset, parsed.description()),
                     "Save the model again where it comes from."};
    const pugi::xml_node root = doc.child("gbXML");
    if (!root) return Error{name, "it is no gbXML", "Lintel reads building models in IFC and gbXML."};
    BuildingModel m;
    const std::string unit = root.attribute("lengthUnit").value();
    const double metre = metresIn(unit);
    if (metre <= 0)
        return Error{name,
                     unit.empty() ? "it does not say its unit of length" : "its unit of length is \"" + unit + "\"",
                     "Write lengthUnit=\"Meters\" or \"Feet\" into its first element."};
    std::map<std::string, int> storeys;
    int bare = 0;
    const pugi::xml_node campus = root.child("Campus");
    m.source = campus.attribute("id").value();
    for (const auto& building : campus.children("Building"))
        for (const auto& s : building.children("BuildingStorey")) {
            BuildingModel::Storey one;
            one.id = s.attribute("id").value();
            one.name = textOf(s.child("Name")).empty() ? one.id : textOf(s.child("Name"));
            one.elevation = numberFrom(textOf(s.child("Level"))).value_or(0) * metre;
            m.storeys.push_back(std::move(one));
        }
    std::stable_sort(m.storeys.begin(), m.storeys.end(),
                     [](const auto& a, const auto& b) { return a.elevation < b.elevation; });
    m.findHeights();
    for (std::size_t i = 0; i < m.storeys.size(); ++i) storeys[m.storeys[i].id] = int(i);
    for (const auto& building : campus.children("Building"))
        for (const auto& s : building.children("Space")) {
            BuildingModel::Space space;
            space.id = s.attribute("id").value();
            // "101 Kitchen": tools write number and name as one.
            const std::string words = textOf(s.child("Name"));
            const std::size_t blank = words.find(' ');
            const std::string first = words.substr(0, blank);
            const bool numbered = blank != std::string::npos && std::any_of(first.begin(), first.end(), isDigit);
            space.number = numbered ? first : "";
            space.name = numbered ? trimmed(words.substr(blank)) : words;
            if (const auto it = storeys.find(s.attribute("buildingStoreyIdRef").value()); it != storeys.end())
                space.storey = it->second;
            space.outline = outlineOf(s.child("PlanarGeometry").child("PolyLoop"), metre);
            bare += space.outline.empty();
            m.spaces.push_back(std::move(space));
        }
    if (bare)
        m.notes.push_back(
            fmt::format("{} {} no outline that can be read", bare, bare == 1 ? "space has" : "spaces have"));
    return m;
}

} // namespace lintel
