// gbXML: storeys and spaces, as tools for the energy of buildings write them. It has no walls with two sides and no
// electrical things.

#include "core/base/Limits.h"
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

struct Corner {
    double x = 0, y = 0, z = 0;
};
std::vector<Corner> loopOf(const pugi::xml_node& loop) {
    std::vector<Corner> out;
    for (const auto& point : loop.children("CartesianPoint")) {
        double c[3]{};
        int n = 0;
        for (const auto& coordinate : point.children("Coordinate"))
            if (n < 3) c[n++] = numberFrom(textOf(coordinate)).value_or(0);
        out.push_back({c[0], c[1], c[2]});
    }
    return out;
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
    double metre = metresIn(unit);
    if (metre <= 0)
        return Error{name,
                     unit.empty() ? "it does not say its unit of length" : "its unit of length is \"" + unit + "\"",
                     "Write lengthUnit=\"Meters\" or \"Feet\" into its first element."};
    std::map<std::string, int> storeys;
    int bare = 0;
    const pugi::xml_node campus = root.child("Campus");
    m.source = campus.attribute("id").value();
    for (const auto& building : campus.children("Building")) {
        std::vector<BuildingModel::Storey> own;
        for (const auto& s : building.children("BuildingStorey")) {
            BuildingModel::Storey one;
            one.id = s.attribute("id").value();
            one.name = textOf(s.child("Name")).empty() ? one.id : textOf(s.child("Name"));
            one.elevation = numberFrom(textOf(s.child("Level"))).value_or(0) * metre;
            own.push_back(std::move(one));
        }
        m.storeys.insert(m.storeys.end(), own.begin(), own.end());
    }
    std::stable_sort(m.storeys.begin(), m.storeys.end(),
                     [](const auto& a, const auto& b) { return a.elevation < b.elevation; });
    for (std::size_t i = 0; i < m.storeys.size(); ++i) {
        storeys[m.storeys[i].id] = int(i);
        if (i + 1 < m.storeys.size()) m.storeys[i].height = m.storeys[i + 1].elevation - m.storeys[i].elevation;
    }
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
            const auto corners = loopOf(s.child("PlanarGeometry").child("PolyLoop"));
            for (const Corner& c : corners) space.outline.push_back({c.x * metre, -c.y * metre});
            if (space.outline.size() < 3) space.outline.clear();
            bare += space.outline.empty();
            m.spaces.push_back(std::move(space));
        }
    if (bare)
        m.notes.push_back(
            fmt::format("{} {} no outline that can be read", bare, bare == 1 ? "space has" : "spaces have"));
    return m;
}

} // namespace lintel
