#pragma once
// How an architect's drawing lies below a level: from its own units to metres on the floor, and what of it is shown.

#include "core/formats/Dxf.h"
#include "core/project/Project.h"

#include <memory>

namespace lintel {

/// What the file of an underlay holds. A picture is shown by whoever paints; here it is its size in pixels.
struct UnderlayContent {
    DxfDrawing drawing;
    bool picture = false;
    double pixelsWide = 0, pixelsHigh = 0;
    std::string stamp; ///< of the bytes
};

/// Where a file that a project names is: beside the project when it is not a whole path.
std::filesystem::path besideProject(const std::string& file, const std::filesystem::path& projectFile);
std::filesystem::path underlayFile(const Underlay& underlay, const std::filesystem::path& projectFile);
/// Written short when the file lies in the project's folder or below it.
std::string underlayName(const std::filesystem::path& file, const std::filesystem::path& projectFile);
bool isPicture(const std::filesystem::path& file);
/// "1a2b3c…": the same for the same bytes.
std::string stampOf(const std::filesystem::path& file);

/// Metres for a unit: the designer's, else the header's, else the unit (mm, inch, m, ft) that makes a building of it.
double metresPerUnit(const Underlay& underlay, const UnderlayContent& content);
/// Whether the drawing says no unit and the designer has given none: then the scale is a guess and is told so.
bool scaleIsGuess(const Underlay& underlay, const UnderlayContent& content);

/// From the drawing to the level.
struct UnderlayPlacing {
    double scale = 1, cosine = 1, sine = 0;
    Point origin;
    Point operator()(Point p) const {
        return {origin.x + scale * (p.x * cosine - p.y * sine), origin.y + scale * (p.x * sine + p.y * cosine)};
    }
};
UnderlayPlacing placingOf(const Underlay& underlay, const UnderlayContent& content);

/// Makes the distance between two points of the level `metres`; the first stays where it is. False when they are the
/// same.
bool scaleByTwoPoints(Underlay& underlay, const UnderlayContent& content, Point a, Point b, double metres);
/// Turns it around `about` so that the line a–b lies level or upright, whichever is nearer.
void squareUp(Underlay& underlay, Point a, Point b);

struct UnderlayLine {
    Point a, b;
    std::uint8_t colour;
};
/// What is shown of it, in metres on the level: layers that are on, inside the crop (lines are cut at its edges).
std::vector<UnderlayLine> linesOf(const Underlay& underlay, const UnderlayContent& content);
std::vector<DxfDrawing::Text> textsOf(const Underlay& underlay, const UnderlayContent& content);
bool layerShown(const Underlay& underlay, const DxfDrawing::Layer& layer);
/// A line cut to a box; nothing when it lies outside.
std::optional<std::pair<Point, Point>> cutToBox(Point a, Point b, Point least, Point most);

/// What is new and what is gone in a file that has changed: pieces in the drawing's units.
struct UnderlayDifference {
    std::vector<DxfDrawing::Piece> added, gone;
};
UnderlayDifference differenceOf(const DxfDrawing& before, const DxfDrawing& after);

} // namespace lintel
