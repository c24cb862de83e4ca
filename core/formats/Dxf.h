#pragma once
// An architect's drawing (DXF, ASCII, of any year), read through dxflib and flattened: straight pieces and texts by
// layer and colour, with blocks put in their places. Units and axes are the floor's turned over: y goes down the sheet
// as everywhere here.

#include "core/base/Error.h"
#include "core/base/Geometry.h"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <istream>
#include <string>

namespace lintel {

struct DxfDrawing {
    struct Layer {
        std::string name;
        int colour = 7; ///< of the format's index of 255 colours
        bool on = true; ///< as the file says
    };
    struct Piece {
        Point a, b;
        std::uint16_t layer = 0;
        std::uint8_t colour = 7;
        bool operator==(const Piece&) const = default;
    };
    struct Text {
        Point at;                    ///< left end of its base line, or its middle or right end as `align` says
        double height = 1, turn = 0; ///< units; degrees clockwise
        std::string words;
        std::uint16_t layer = 0;
        std::uint8_t colour = 7;
        int align = 0; ///< 0 left, 1 middle, 2 right
    };
    struct Outline { ///< a closed polyline: what rooms can be made from
        std::vector<Point> corners;
        std::uint16_t layer = 0;
    };
    std::vector<Layer> layers;
    std::vector<Piece> pieces;
    std::vector<Text> texts;
    std::vector<Outline> outlines;
    double metresPerUnit = 0;       ///< by its header; 0: it does not say
    bool metric = true;             ///< by its header, where that says so
    Point least, most;              ///< corners of all of it
    std::vector<std::string> notes; ///< what was left out, in words
    bool whole = true;              ///< false: broken off or cancelled; what was read until then is here
    bool empty() const { return pieces.empty() && texts.empty(); }
};

/// Told the share that has been read; false stops the reading.
using KeepReading = std::function<bool(double)>;

/// Refused: a file that cannot be opened, is no DXF or a binary one. A broken one gives what could be read, with a
/// note.
Outcome<DxfDrawing> readDxf(const std::filesystem::path& file, const KeepReading& keep = {});
Outcome<DxfDrawing> readDxf(std::istream& in, double bytes, const std::string& name, const KeepReading& keep = {});

/// Red, green and blue of an index colour, on a light ground; 7 is black.
std::array<int, 3> rgbOfIndex(int colour);

} // namespace lintel
