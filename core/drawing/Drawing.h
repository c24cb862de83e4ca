#pragma once
// A drawing on a sheet: a flat list of lines, arcs, text and fills in millimetres, x to the right, y down.
// It is painted once, everywhere: what the screen shows is what PDF, SVG and PNG hold.

#include "core/base/Geometry.h"
#include "core/project/Choices.h"
#include "core/project/Ids.h"

#include <algorithm>
#include <iterator>
#include <string>
#include <variant>
#include <vector>

namespace lintel {

/// What a mark means; the painter chooses the colour (on paper, or dark on the screen).
enum class Ink {
    Ink,
    Quiet,
    Faint,
    Rule,
    Accent,
    Stop,
    Check,
    Band,
    Paper,
    Wash,
    PhaseBlack,
    PhaseRed,
    PhaseBlue,
    PhaseBrown,
    PhaseGrey,
    PhaseOrange,
    PhaseYellow,
    Wire1,
    Wire2,
    Wire3,
    Wire4,
    Wire5,
    Wire6,
    Shade1, ///< of a figure from low to high: pale …
    Shade2,
    Shade3,
    Shade4 ///< … to deep; letters on it are readable still
};

enum class Align { Left, Centre, Right };

/// Where the title block of a sheet stands: none (it has a strip of a line at its foot), at its right, or along its
/// foot.
enum class TitlePlace { None, Side, Foot };

struct LineMark {
    std::vector<Point> points;
    double width = 0.25;
    Ink ink = Ink::Ink;
    bool dashed = false, closed = false;
    bool operator==(const LineMark&) const = default;
};
struct FillMark {
    std::vector<Point> points;
    Ink ink = Ink::Band;
    bool operator==(const FillMark&) const = default;
};
struct CircleMark {
    Point centre;
    double radius = 1, width = 0.25;
    Ink ink = Ink::Ink;
    bool filled = false;
    bool operator==(const CircleMark&) const = default;
};
/// Through b, from a to c: a curve for wiring on plan (quadratic).
struct CurveMark {
    Point a, b, c;
    double width = 0.35;
    Ink ink = Ink::Ink;
    bool operator==(const CurveMark&) const = default;
};
/// `at` is the left, middle or right end of the base line. `size` is the height of the letters' body in mm. With
/// `within`, wider text is set narrower to fit.
struct TextMark {
    Point at;
    std::string text;
    double size = 3;
    Align align = Align::Left;
    bool bold = false, italic = false;
    Ink ink = Ink::Ink;
    double within = 0;
    bool halo = false; ///< paper behind the letters
    double turn = 0;   ///< degrees clockwise around `at`; -90 reads upwards
    bool operator==(const TextMark&) const = default;
};
/// Many separate lines at once: each two points are one.
struct LinesMark {
    std::vector<Point> ends;
    double width = 0.1;
    Ink ink = Ink::Faint;
    bool operator==(const LinesMark&) const = default;
};
/// A picture from a file: its top left corner, mm for a pixel, degrees clockwise; `fade` 1 is gone. Cut to the box
/// where that has a size. With `perPixel` 0 it is as large as the box holds it, at its upper left corner; one that
/// cannot be read is told of there.
struct PictureMark {
    std::string file;
    Point at;
    double perPixel = 1, turn = 0, fade = 0;
    Point least, most;
    bool operator==(const PictureMark&) const = default;
};
using Mark = std::variant<LineMark, FillMark, CircleMark, CurveMark, TextMark, LinesMark, PictureMark>;

/// Where a thing stands on the drawing, for choosing it with a click.
struct Hotspot {
    Ref thing;
    double left, top, right, bottom;
    int part = 0; ///< of a view that goes on in several parts: which, from 0
    bool operator==(const Hotspot&) const = default;
};

/// A part of a feeder that is moved up and down by hand, on drawings that are for the screen only.
struct GripSpot {
    enum class Part : std::uint8_t { Words, Line };
    Ref thing; ///< what the feeder goes to
    Part part = Part::Words;
    double left, top, right, bottom;
    bool moreIsUp = false; ///< moved up it is further from where it would stand by itself
    bool operator==(const GripSpot&) const = default;
};

/// Where the heading of a column of a schedule stands, for shaping its form.
struct HeadingSpot {
    BoardId board;
    std::size_t column; ///< of the form of the board
    bool mirrored;      ///< on the right of a board of two columns, where the order is reversed
    double left, top, right, bottom;
    bool operator==(const HeadingSpot&) const = default;
};

/// Where title and headings of a list stand, for shaping its form.
struct ListSpot {
    std::string list; ///< its key
    double left, top, right, bottom;
    bool operator==(const ListSpot&) const = default;
};

/// What marks belong to, for files with layers.
enum class Layer : std::uint8_t { Sheet, Notes, Building, Underlay, Trays, Wiring, Lighting, Power, Boards, Feeders };

/// Marks that are one symbol together.
struct SymbolMark {
    std::size_t from, end; ///< of the drawing's marks
    Symbol symbol;
    Point at;
    double turn, size; ///< degrees clockwise; mm across
    Ink ink;
    Ref thing{}; ///< what it stands for
    bool operator==(const SymbolMark&) const = default;
};

/// Marks that show one thing, for files in which things have names: the box of a board, the line that feeds it.
struct ThingMarks {
    std::size_t from, end; ///< of the drawing's marks
    Ref thing;
    const char* part = ""; ///< "feeder", "alternate"; empty: the thing itself
};

struct Drawing {
    std::string title, number;                ///< "LK-1", "E-604"
    std::string paper;                        ///< "Letter", "Tabloid", "ARCH D"
    double width = 215.9, height = 279.4;     ///< mm
    TitlePlace titleBlock = TitlePlace::None; ///< with a border around the sheet (see TitleBlock.h)
    std::vector<Mark> marks;
    std::vector<Hotspot> hotspots;
    std::vector<GripSpot> grips;
    std::vector<HeadingSpot> headings;
    std::vector<ListSpot> lists;
    std::vector<SymbolMark> symbols; ///< in the order of their marks
    std::vector<ThingMarks> things;  ///< in that order too; none lies within another, or holds a symbol

    /// The marks that follow belong to this layer.
    void on(Layer layer) {
        if (layers.empty() ? layer == Layer::Sheet : layers.back().second == layer) return;
        layers.emplace_back(marks.size(), layer);
    }
    Layer layerAt(std::size_t mark) const {
        const auto after = std::upper_bound(layers.begin(), layers.end(), mark,
                                            [](std::size_t m, const auto& change) { return m < change.first; });
        return after == layers.begin() ? Layer::Sheet : std::prev(after)->second;
    }

    void line(Point a, Point b, double w = 0.25, Ink ink = Ink::Ink, bool dashed = false) {
        marks.push_back(LineMark{{a, b}, w, ink, dashed, false});
    }
    void path(std::vector<Point> ps, double w = 0.25, Ink ink = Ink::Ink, bool dashed = false) {
        marks.push_back(LineMark{std::move(ps), w, ink, dashed, false});
    }
    void box(double x, double y, double w, double h, double width_ = 0.25, Ink ink = Ink::Ink) {
        marks.push_back(LineMark{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, width_, ink, false, true});
    }
    void fill(double x, double y, double w, double h, Ink ink) {
        marks.push_back(FillMark{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, ink});
    }
    void text(Point at, std::string t, double size, Align align = Align::Left, bool bold = false, Ink ink = Ink::Ink,
              double within = 0) {
        wrote = !t.empty();
        if (wrote) marks.push_back(TextMark{at, std::move(t), size, align, bold, false, ink, within, false});
    }
    /// What text() has written, to change it; where there was nothing to write, a mark that is on no drawing. Never
    /// null.
    TextMark* lastText() {
        static thread_local TextMark none;
        TextMark* last = wrote && !marks.empty() ? std::get_if<TextMark>(&marks.back()) : nullptr;
        return last ? last : &none;
    }
    /// All text in order, a line each: what a test compares.
    std::string words() const;

private:
    bool wrote = false;
    std::vector<std::pair<std::size_t, Layer>> layers; ///< from which mark on
};

/// A point turned around zero, clockwise on the sheet.
Point turned(Point p, double degrees);

} // namespace lintel
