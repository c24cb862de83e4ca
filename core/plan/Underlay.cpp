#include "core/plan/Underlay.h"
#include "core/base/Parse.h"
#include "core/base/TextFile.h"

#include <fmt/format.h>
#include <fstream>
#include <numbers>
#include <unordered_map>

namespace lintel {
namespace fs = std::filesystem;

fs::path underlayFile(const Underlay& u, const fs::path& project) { return besideProject(u.file, project); }
fs::path besideProject(const std::string& name, const fs::path& project) {
    const fs::path file = pathFromText(name);
    return file.is_absolute() || project.empty() ? file : project.parent_path() / file;
}
std::string underlayName(const fs::path& file, const fs::path& project) {
    if (project.empty()) return file.string();
    const fs::path near = fs::absolute(file).lexically_relative(fs::absolute(project).parent_path());
    return near.empty() || near.string().rfind("..", 0) == 0 ? file.string() : near.string();
}
bool isPicture(const fs::path& file) {
    std::string e = file.extension().string();
    std::transform(e.begin(), e.end(), e.begin(), [](char c) { return lower(c); });
    return e == ".png" || e == ".jpg" || e == ".jpeg";
}
std::string stampOf(const fs::path& file) {
    std::ifstream in(file, std::ios::binary);
    std::uint64_t h = 14695981039346656037u, n = 0; // FNV-1a over words of eight bytes
    std::array<char, 1 << 16> block;
    while (in) {
        in.read(block.data(), block.size());
        const auto got = std::size_t(in.gcount());
        n += got;
        for (std::size_t i = 0; i < got; i += 8) {
            std::uint64_t w = 0;
            std::memcpy(&w, block.data() + i, std::min<std::size_t>(8, got - i));
            h = (h ^ w) * 1099511628211u;
        }
    }
    return n ? fmt::format("{:x}-{:016x}", n, h) : std::string();
}

bool scaleIsGuess(const Underlay& u, const UnderlayContent& c) {
    return u.scale <= 0 && (c.picture || c.drawing.metresPerUnit <= 0);
}

double metresPerUnit(const Underlay& u, const UnderlayContent& c) {
    if (u.scale > 0) return u.scale;
    if (c.picture) return c.pixelsWide > 0 ? 30 / c.pixelsWide : 0.01; // a picture begins 30 m wide
    if (c.drawing.metresPerUnit > 0) return c.drawing.metresPerUnit;
    const double across = std::max(c.drawing.most.x - c.drawing.least.x, c.drawing.most.y - c.drawing.least.y);
    const std::array<double, 4> units = c.drawing.metric ? std::array<double, 4>{0.001, 1, 0.01, 0.0254}
                                                         : std::array<double, 4>{0.0254, 0.3048, 1, 0.001};
    for (double unit : units)
        if (across * unit >= 4 && across * unit <= 400) return unit;
    return units[0];
}

UnderlayPlacing placingOf(const Underlay& u, const UnderlayContent& c) {
    const double a = u.turn * std::numbers::pi / 180;
    return {metresPerUnit(u, c), std::cos(a), std::sin(a), u.origin};
}

bool scaleByTwoPoints(Underlay& u, const UnderlayContent& c, Point a, Point b, double metres) {
    const double now = distance(a, b);
    if (now < 1e-6 || !(metres > 0)) return false;
    const double k = metres / now;
    u.scale = metresPerUnit(u, c) * k;
    u.origin = a + (u.origin - a) * k;
    return true;
}

void squareUp(Underlay& u, Point a, Point b) {
    const double angle = std::atan2(b.y - a.y, b.x - a.x) * 180 / std::numbers::pi;
    const double by = std::round(angle / 90) * 90 - angle, r = by * std::numbers::pi / 180;
    const Point d = u.origin - a;
    u.origin = a + Point{d.x * std::cos(r) - d.y * std::sin(r), d.x * std::sin(r) + d.y * std::cos(r)};
    u.turn = std::fmod(u.turn + by + 360, 360.0);
}

bool layerShown(const Underlay& u, const DxfDrawing::Layer& l) {
    return l.on && std::find(u.hiddenLayers.begin(), u.hiddenLayers.end(), l.name) == u.hiddenLayers.end();
}

std::optional<std::pair<Point, Point>> cutToBox(Point a, Point b, Point least, Point most) {
    double t0 = 0, t1 = 1; // Liang and Barsky's way
    const Point d = b - a;
    for (const auto& [p, q] :
         {std::pair{-d.x, a.x - least.x}, {d.x, most.x - a.x}, {-d.y, a.y - least.y}, {d.y, most.y - a.y}}) {
        if (p == 0) {
            if (q < 0) return std::nullopt;
        } else if (p < 0) {
            t0 = std::max(t0, q / p);
        } else {
            t1 = std::min(t1, q / p);
        }
    }
    if (t0 > t1) return std::nullopt;
    return std::pair{a + d * t0, a + d * t1};
}

namespace {
std::vector<char> shownLayers(const Underlay& u, const DxfDrawing& d) {
    std::vector<char> on(d.layers.size() + 1, 1);
    for (std::size_t i = 0; i < d.layers.size(); ++i) on[i] = layerShown(u, d.layers[i]);
    return on;
}
struct Crop {
    bool any = false;
    Point least, most;
    explicit Crop(const Underlay& u) : any(u.crop.size() == 2) {
        if (any)
            least = {std::min(u.crop[0].x, u.crop[1].x), std::min(u.crop[0].y, u.crop[1].y)},
            most = {std::max(u.crop[0].x, u.crop[1].x), std::max(u.crop[0].y, u.crop[1].y)};
    }
};
} // namespace

std::vector<UnderlayLine> linesOf(const Underlay& u, const UnderlayContent& c) {
    std::vector<UnderlayLine> out;
    if (u.hidden) return out;
    const auto on = shownLayers(u, c.drawing);
    const UnderlayPlacing at = placingOf(u, c);
    const Crop crop(u);
    out.reserve(c.drawing.pieces.size());
    for (const auto& p : c.drawing.pieces) {
        if (!on[p.layer]) continue;
        Point a = at(p.a), b = at(p.b);
        if (crop.any) {
            const auto cut = cutToBox(a, b, crop.least, crop.most);
            if (!cut) continue;
            a = cut->first, b = cut->second;
        }
        out.push_back({a, b, p.colour});
    }
    return out;
}

std::vector<DxfDrawing::Text> textsOf(const Underlay& u, const UnderlayContent& c) {
    std::vector<DxfDrawing::Text> out;
    if (u.hidden) return out;
    const auto on = shownLayers(u, c.drawing);
    const UnderlayPlacing at = placingOf(u, c);
    const Crop crop(u);
    for (const auto& t : c.drawing.texts) {
        if (!on[t.layer]) continue;
        DxfDrawing::Text n = t;
        n.at = at(t.at), n.height *= at.scale, n.turn += u.turn;
        if (crop.any &&
            (n.at.x < crop.least.x || n.at.y < crop.least.y || n.at.x > crop.most.x || n.at.y > crop.most.y))
            continue;
        out.push_back(std::move(n));
    }
    return out;
}

UnderlayDifference differenceOf(const DxfDrawing& before, const DxfDrawing& after) {
    // Pieces are the same when their ends are, to a millionth of the drawing's width, whatever their direction.
    const double step = std::max({1e-9, after.most.x - after.least.x, after.most.y - after.least.y}) * 1e-6;
    const auto key = [&](const DxfDrawing::Piece& p) {
        auto a = std::pair{std::llround(p.a.x / step), std::llround(p.a.y / step)},
             b = std::pair{std::llround(p.b.x / step), std::llround(p.b.y / step)};
        if (b < a) std::swap(a, b);
        std::uint64_t h = 1469598103934665603u;
        for (long long v : {a.first, a.second, b.first, b.second})
            h = (h ^ std::uint64_t(v)) * 1099511628211u, h ^= h >> 29;
        return h;
    };
    std::unordered_map<std::uint64_t, int> count;
    for (const auto& p : before.pieces) ++count[key(p)];
    UnderlayDifference d;
    for (const auto& p : after.pieces)
        if (--count[key(p)] < 0) d.added.push_back(p);
    for (const auto& p : before.pieces)
        if (auto it = count.find(key(p)); it != count.end() && it->second > 0) --it->second, d.gone.push_back(p);
    return d;
}

} // namespace lintel
