// A feeder's device against the motors below it: too large for them (430.62, 430.63), or smaller than the device of the
// largest.

#include "core/base/Article.h"
#include "core/base/Format.h"
#include "core/check/Check.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// What hangs on a board without a transformer between, for its feeder's device.
struct Below {
    double largest = 0;     ///< A, the largest branch device of a motor
    double largestLoad = 0; ///< A, that motor's full-load current
    double motors = 0;      ///< A, full-load currents of all motors
    double others = 0;      ///< A, what the other loads ask of a device
    CircuitId at;           ///< where the largest is
    /// 430.62(A), with the other loads of 430.63.
    double most() const { return largest + motors - largestLoad + others; }
};

/// By the value of the board's id.
std::vector<Below> belowBoards(const CheckInput& in) {
    std::vector<Below> all(in.results.boards.size());
    for (const Circuit& c : in.project.circuits) {
        const CircuitResult& r = in.results.of(c.id);
        if (r.feeder || c.use != CircuitUse::Load) continue;
        Below& b = all[c.board.value];
        if (r.largestMotorVa <= 0) {
            b.others += r.required.v / (c.poles == 1 ? 3 : 1);
            continue;
        }
        b.motors += r.load.v;
        if (r.device > b.largest) b.largest = r.device, b.largestLoad = r.load.v, b.at = c.id;
    }
    // From the leaves up: a board below counts on the one that feeds it.
    for (auto it = in.results.order.rbegin(); it != in.results.order.rend(); ++it) {
        const Board* board = in.project.boards.find(it->as<Board>());
        if (!board) continue;
        const BoardId up = in.results.of(board->id).parent.as<Board>();
        if (!in.project.boards.has(up)) continue;
        const Below& b = all[board->id.value];
        Below& above = all[up.value];
        above.motors += b.motors, above.others += b.others;
        if (b.largest > above.largest) above.largest = b.largest, above.largestLoad = b.largestLoad, above.at = b.at;
    }
    return all;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.results.present.has(Results::Trait::Motor) || in.book.cite("motorFeederDevice").empty()) return;
    const auto all = belowBoards(in);
    for (const Board& b : in.project.boards) {
        const BoardResult& n = in.results.of(b.id);
        const Below& m = all[b.id.value];
        if (!n.via || m.largest <= 0) continue;
        const CircuitResult& r = in.results.of(n.via);
        // 430.62(B): larger conductors may have the device that goes with them.
        if (r.device > m.most() + 1e-6 && r.device > in.book.ratingAtOrAbove(n.run.ampacity) + 1e-6 &&
            m.motors > m.others)
            into.push_back(
                {&self, Severity::Check, b.id,
                 fmt::format("{}: {} A device feeds motors that allow {} A, and its conductors carry {} A", b.name,
                             withArticle(rating(r.device)), figures(m.most()), figures(n.run.ampacity)),
                 in.book.cite("motorFeederDevice")});
        else if (r.device + 1e-6 < m.largest)
            into.push_back({&self, Severity::Check, b.id,
                            fmt::format("{}: its feeder's {} A device is smaller than the {} A of {}: it may open "
                                        "when that motor starts",
                                        b.name, rating(r.device), rating(m.largest), nameOfRun(in.project, m.at)),
                            in.book.cite("motorFeederDevice")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    const CircuitId via = in.results.of(id).via;
    const Below m = belowBoards(in)[id.value];
    std::vector<Remedy> out;
    const double fits = in.book.ratingAtOrBelow(m.most(), in.project.circuits[via].device),
                 needed = in.results.of(via).required.v;
    if (fits >= std::max(needed, m.largest))
        out.push_back({fmt::format("Hold the feeder's device at {} A", rating(fits)),
                       [=](Project& p) { p.circuits.change(via)->heldBreaker = fits; }});
    if (const double same = m.largest; same >= needed && same != fits && same <= m.most())
        out.push_back({fmt::format("Hold it at {} A, as the motor's", rating(same)),
                       [=](Project& p) { p.circuits.change(via)->heldBreaker = same; }});
    if (const CircuitResult& r = in.results.of(via);
        r.deviceHeld && r.deviceNeeded <= m.most() && r.deviceNeeded >= m.largest)
        out.push_back({"Let it be sized", [=](Project& p) { p.circuits.change(via)->heldBreaker.reset(); }});
    // A time-delay fuse rides through a start at a lower rating.
    if (const double fuse = in.book.ratingAtOrAbove(
            m.largestLoad * motorDeviceOf(in.book, DeviceKind::TimeDelayFuse).share, DeviceKind::TimeDelayFuse);
        in.results.of(via).device < m.largest && fuse > 0 && fuse <= in.results.of(via).device &&
        !in.results.of(m.at).deviceHeld)
        out.push_back({fmt::format("Time-delay fuses for {}", nameOf(in.project, m.at)),
                       [at = m.at](Project& p) { p.circuits.change(at)->device = DeviceKind::TimeDelayFuse; }});
    return out;
}

} // namespace

extern const CheckRule motorFeederRule;
const CheckRule motorFeederRule{.id = "motor-feeder", .remedies = remedies, .find = find};

} // namespace lintel
