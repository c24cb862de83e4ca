// What the layout of feeders promises, walked on a thousand random trees from its lines alone.

#include "core/sheets/FeederLayout.h"

#include <catch2/catch.hpp>
#include <map>
#include <random>

using namespace lintel;

namespace {

struct Rect {
    double left, top, right, bottom;
};
struct Stretch {
    Point a, b; ///< the upper or left end first
    std::size_t feed;
    bool level() const { return a.y == b.y; }
};

bool apart(const Rect& x, const Rect& y) {
    return x.right <= y.left || y.right <= x.left || x.bottom <= y.top || y.bottom <= x.top;
}
bool enters(const Stretch& s, const Rect& r) {
    const double e = 1e-6;
    return s.a.x < r.right - e && s.b.x > r.left + e && s.a.y < r.bottom - e && s.b.y > r.top + e;
}

/// As REQUIRE, for what is asked a hundred million times.
void need(bool holds, const char* otherwise) {
    if (!holds) FAIL(otherwise);
}

/// A tree of `n` boxes on some floors, with a few that have a second way in.
FeederPlan randomPlan(std::mt19937& random, std::size_t n, int floors) {
    const auto pick = [&](std::size_t most) { return std::uniform_int_distribution<std::size_t>(0, most)(random); };
    FeederPlan plan;
    std::vector<std::size_t> named(n);
    for (std::size_t i = 0; i < n; ++i) named[i] = i;
    std::shuffle(named.begin(), named.end(), random);
    plan.boxes.resize(n);
    for (auto& box : plan.boxes)
        box = {20 + double(pick(30)), 12 + double(pick(14)), int(pick(std::size_t(floors - 1)))};
    const auto feed = [&](std::size_t from, std::size_t to, bool second) {
        const bool words = pick(4) > 0;
        plan.feeds.push_back({from, to, words ? 4 + double(pick(14)) : 0, words ? 6.0 : 0.0, 10 + double(pick(30)),
                              4 * double(1 + pick(3)), second, pick(5) == 0 ? int(pick(6)) : 0});
    };
    for (std::size_t i = 1; i < n; ++i) {
        if (pick(19) == 0) continue; // a tree of its own
        const std::size_t from = pick(2) == 0 ? i - 1 : pick(std::min<std::size_t>(i - 1, pick(1) ? 3 : i));
        feed(named[from], named[i], false);
    }
    for (std::size_t k = pick(n / 6 + 1); k > 0; --k) feed(pick(n - 1), pick(n - 1), true);
    std::shuffle(plan.feeds.begin(), plan.feeds.end(), random);
    plan.steps = FeederPlan::Steps(pick(2));
    plan.stretch = pick(1) ? 1e9 : 1 + double(pick(3));
    if (pick(1)) plan.widest = 150 + 100 * double(pick(8));
    if (pick(2) == 0) plan.air = double(pick(12));
    return plan;
}

void check(const FeederPlan& plan) {
    const FeederLayout layout = layOutFeeders(plan);
    REQUIRE(layout.boxes.size() == plan.boxes.size());
    REQUIRE(layout.feeds.size() == plan.feeds.size());
    std::vector<Rect> boxes;
    for (std::size_t i = 0; i < layout.boxes.size(); ++i) {
        const auto& b = layout.boxes[i];
        boxes.push_back({b.left, b.top, b.left + b.width, b.top + b.height});
        REQUIRE(b.width >= plan.boxes[i].width - 1e-9);
        REQUIRE(b.left >= -1e-9);
        REQUIRE(b.left + b.width <= layout.width + 1e-9);
        REQUIRE(b.top + b.height <= layout.height + 1e-9);
        REQUIRE(layout.rows[b.row].floor == plan.boxes[i].floor);
        REQUIRE(b.top >= layout.rows[b.row].top);
        REQUIRE(b.top + b.height <= layout.rows[b.row].bottom);
    }
    for (std::size_t i = 0; i < boxes.size(); ++i)
        for (std::size_t k = i + 1; k < boxes.size(); ++k) need(apart(boxes[i], boxes[k]), "boxes lie on one another");
    for (std::size_t r = 1; r < layout.rows.size(); ++r) { // floors from the highest down
        REQUIRE(layout.rows[r].floor >= layout.rows[r - 1].floor);
        REQUIRE(layout.rows[r].top == Approx(layout.rows[r - 1].bottom));
    }

    std::vector<Stretch> stretches;
    std::vector<Rect> words; // room beside the ports
    std::vector<std::size_t> whose;
    for (std::size_t f = 0; f < layout.feeds.size(); ++f) {
        const auto& feed = layout.feeds[f];
        const auto& asked = plan.feeds[f];
        if (asked.from == asked.to) {
            REQUIRE(feed.line.empty());
            continue;
        }
        REQUIRE(feed.line.size() >= 2);
        const Rect &from = boxes[asked.from], &to = boxes[asked.to];
        const Point start = feed.line.front(), end = feed.line.back();
        if (feed.sideways) {
            REQUIRE(start.x == Approx(from.right));
            REQUIRE(end.x == Approx(to.left));
            REQUIRE(end.x - start.x >= asked.deviceWidth + asked.labelWidth);
        } else {
            REQUIRE(start.x > from.left);
            REQUIRE(start.x < from.right);
            REQUIRE(start.y == Approx(feed.leavesUpward ? from.top : from.bottom));
            REQUIRE(end.x > to.left);
            REQUIRE(end.x < to.right);
            REQUIRE(end.y == Approx(feed.arrivesFromBelow ? to.bottom : to.top));
            const double up = feed.leavesUpward ? -1 : 1, down = feed.arrivesFromBelow ? 1 : -1;
            if (asked.deviceWidth > 0) {
                const double far = start.y + up * asked.deviceHeight;
                words.push_back(
                    {start.x + 1, std::min(start.y, far), start.x + 1 + asked.deviceWidth, std::max(start.y, far)});
                whose.push_back(f);
            }
            const double far = end.y + down * asked.labelHeight;
            words.push_back({end.x + 1, std::min(end.y, far), end.x + 1 + asked.labelWidth, std::max(end.y, far)});
            whose.push_back(f);
        }
        for (std::size_t i = 1; i < feed.line.size(); ++i) {
            Point a = feed.line[i - 1], b = feed.line[i];
            REQUIRE((a.x == b.x) != (a.y == b.y)); // at right angles, and no point twice
            if (a.x > b.x || a.y > b.y) std::swap(a, b);
            stretches.push_back({a, b, f});
        }
    }
    for (std::size_t i = 0; i < words.size(); ++i) {
        for (const Rect& b : boxes) need(apart(words[i], b), "words lie on a box");
        for (std::size_t k = i + 1; k < words.size(); ++k) need(apart(words[i], words[k]), "words lie on words");
    }
    std::map<std::pair<std::size_t, std::pair<double, double>>, int> hops;
    for (std::size_t f = 0; f < layout.feeds.size(); ++f)
        for (Point h : layout.feeds[f].hops) ++hops[{f, {h.x, h.y}}];
    std::size_t crossings = 0;
    for (std::size_t i = 0; i < stretches.size(); ++i) {
        const Stretch& s = stretches[i];
        for (const Rect& b : boxes) need(!enters(s, b), "a line runs through a box");
        for (std::size_t k = 0; k < words.size(); ++k) need(!enters(s, words[k]), "a line runs through words");
        for (std::size_t k = i + 1; k < stretches.size(); ++k) {
            const Stretch& t = stretches[k];
            if (s.level() == t.level()) {
                const bool oneLine = s.level() ? std::abs(s.a.y - t.a.y) < 0.5 : std::abs(s.a.x - t.a.x) < 0.5;
                if (!oneLine || s.feed == t.feed) continue;
                const double sa = s.level() ? s.a.x : s.a.y, sb = s.level() ? s.b.x : s.b.y,
                             ta = s.level() ? t.a.x : t.a.y, tb = s.level() ? t.b.x : t.b.y;
                need(sb < ta - 0.5 || tb < sa - 0.5,
                     "two feeders share a line"); // nothing shared, nothing that touches
                continue;
            }
            if (s.feed == t.feed) continue;
            const Stretch &flat = s.level() ? s : t, &upright = s.level() ? t : s;
            const double x = upright.a.x, y = flat.a.y;
            if (x < flat.a.x - 1e-9 || x > flat.b.x + 1e-9 || y < upright.a.y - 1e-9 || y > upright.b.y + 1e-9)
                continue;
            // They cross, and do so between their ends, with a hop.
            need(x > flat.a.x + 0.5, "a line ends on another");
            need(x < flat.b.x - 0.5, "a line ends on another");
            need(y > upright.a.y + 0.5, "a line ends on another");
            need(y < upright.b.y - 0.5, "a line ends on another");
            need(hops[{flat.feed, {x, y}}] == 1, "a crossing without a hop");
            ++crossings;
        }
    }
    std::size_t hopped = 0;
    for (const auto& feed : layout.feeds) hopped += feed.hops.size();
    REQUIRE(hopped == crossings);
}

} // namespace

TEST_CASE("feeders of a thousand random trees share nothing, run through nothing and hop where they cross") {
    std::mt19937 random(7);
    for (int i = 0; i < 1000; ++i) {
        INFO("tree " << i);
        check(randomPlan(random, 1 + std::size_t(i) % 40, 1 + i % 9));
    }
}

TEST_CASE("so do those of trees of five hundred boxes") {
    std::mt19937 random(11);
    for (int i = 0; i < 2; ++i) {
        INFO("tree " << i);
        check(randomPlan(random, 500, 1 + i * 11));
    }
}

TEST_CASE("a tree that is told by steps has no crossings") {
    std::mt19937 random(3);
    for (int i = 0; i < 200; ++i) {
        FeederPlan plan = randomPlan(random, 30, 1);
        plan.steps = FeederPlan::Steps::Rows;
        plan.widest = 1e9;
        std::erase_if(plan.feeds, [](const FeederPlan::Feed& f) { return f.second; });
        INFO("tree " << i);
        for (const auto& feed : layOutFeeders(plan).feeds) CHECK(feed.hops.empty());
    }
}

TEST_CASE("rows are split until they are as narrow as asked, where single boxes allow it") {
    FeederPlan plan;
    plan.boxes.assign(41, {30, 18, 0});
    for (std::size_t i = 1; i < 41; ++i) plan.feeds.push_back({0, i, 0, 0, 20, 8, false});
    const FeederLayout wide = layOutFeeders(plan);
    CHECK(wide.rows.size() == 2);
    CHECK(wide.width > 1500);
    plan.widest = 620;
    const FeederLayout narrow = layOutFeeders(plan);
    CHECK(narrow.width <= 620);
    CHECK(narrow.rows.size() <= 6);
    check(plan);
}

TEST_CASE("what no split makes narrow enough is as narrow as can be, or, where it is to be compact, small as a whole") {
    std::mt19937 random(11);
    for (int tree = 0; tree < 60; ++tree) {
        INFO("tree " << tree);
        FeederPlan plan = randomPlan(random, 150, 1 + tree % 3);
        plan.widest = 100; // a single box with its words is wider
        const FeederLayout narrowest = layOutFeeders(plan);
        plan.compact = true;
        const FeederLayout compact = layOutFeeders(plan);
        CHECK(narrowest.width <= compact.width + 1e-6);
        CHECK(compact.rows.size() <= narrowest.rows.size());
        CHECK(compact.width + compact.height < (narrowest.width + narrowest.height) * 1.1);
        check(plan);
        plan.widest = compact.width * 1.001; // what is reached, or nearly, is taken as it is
        const FeederLayout reached = layOutFeeders(plan);
        plan.compact = false;
        CHECK(reached.width == layOutFeeders(plan).width);
        CHECK(reached.height == layOutFeeders(plan).height);
    }
}

TEST_CASE("how wide feeders will be is told before they are laid out") {
    std::mt19937 random(12);
    for (int tree = 0; tree < 200; ++tree) {
        INFO("tree " << tree);
        FeederPlan plan = randomPlan(random, 2 + std::size_t(tree), 1 + tree % 4);
        for (const auto steps : {FeederPlan::Steps::Rows, FeederPlan::Steps::Chains, FeederPlan::Steps::OneRow}) {
            plan.steps = steps;
            const double told = feederWidth(plan), is = layOutFeeders(plan).width;
            CHECK(told == (told > plan.widest * 2 ? Approx(is).epsilon(0.1) : Approx(is)));
        }
    }
}

TEST_CASE("nothing, one box, a feed to nowhere and one in a circle are drawn as what they are") {
    CHECK(layOutFeeders({}).boxes.empty());
    FeederPlan one;
    one.boxes.push_back({30, 18, 0});
    one.feeds.push_back({0, 0, 0, 0, 10, 4, false});
    one.feeds.push_back({0, 9, 0, 0, 10, 4, false});
    const FeederLayout l = layOutFeeders(one);
    CHECK(l.feeds[0].line.empty());
    CHECK(l.feeds[1].line.empty());
    FeederPlan circle;
    circle.boxes.assign(2, {30, 18, 0});
    circle.feeds = {{0, 1, 0, 0, 10, 4, false}, {1, 0, 0, 0, 10, 4, false}};
    check(circle);
}

TEST_CASE("feeders: a bend that is nudged stands lower by its steps, and the others where they were") {
    FeederPlan plan;
    plan.stretch = 1;
    plan.boxes.resize(4);
    for (std::size_t to = 1; to < 4; ++to)
        plan.feeds.push_back({.from = 0, .to = to, .labelWidth = 60, .labelHeight = 8});
    const auto bend = [](const FeederLayout& l, std::size_t f) {
        return l.feeds[f].line.size() > 2 ? l.feeds[f].line[1].y : -1;
    };
    const FeederLayout before = layOutFeeders(plan);
    REQUIRE(bend(before, 2) > 0);
    plan.feeds[2].lower = 3;
    const FeederLayout after = layOutFeeders(plan);
    constexpr double step = 3.2; // between two level lines
    CHECK(bend(after, 2) >= bend(before, 2) + step);
    CHECK(bend(after, 0) == bend(before, 0));
    CHECK(after.height > before.height);
    check(plan);
}
