#include "core/sheets/FeederLayout.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <span>

namespace lintel {
namespace {

constexpr double lane = 10;     ///< room of a line that passes a row
constexpr double firstPort = 5; ///< of a box's first port from its left edge
constexpr double portGap = 6; ///< after the words of a port; they begin a little to its right, and both may have moved
constexpr double leastPort = 8; ///< from port to port
constexpr double clear = 2;     ///< between two upright lines
constexpr double track = feederTrack;
constexpr double trackGap = 7; ///< between two lines that follow one another at one height
/// Level lines between two rows that are put in the best order: of more, each pair would have to be looked at.
constexpr std::size_t mostSorted = 150;
/// A row is split only where that takes so much off its width: the lines that pass it stay, however many rows there
/// are.
constexpr double worthSplitting = 0.87;
/// Rows so much wider than wanted are as good as those that are not, where a layout is to be compact.
constexpr double nearlyThere = 1.5;
constexpr int mostSplits = 200;
constexpr std::size_t none = ~std::size_t(0);
/// Rows times boxes, at most: a chain of ten thousand boards does not take as many rows.
constexpr std::size_t mostRowsTimesBoxes = 4'000'000;

/// A box, or a line on its way past a row.
struct Item {
    std::size_t box = none; ///< none: a line
    double key = 0;         ///< its place in a walk down the tree
    double width = 0;       ///< of its cell
    double left = 0;        ///< of its cell
};

/// A port of a box on its upper or lower side.
struct Port {
    std::size_t feed = 0;
    bool arrives = false;
    double offset = 0; ///< from the left edge of the box
    double room = 0;   ///< beside it
};
using Side = std::vector<Port>;

/// The part of a feed between two rows, or its way out and back into the same row.
struct Piece {
    std::size_t feed = 0;
    double from = 0, to = 0;                ///< x where it comes from and goes to, along the feed
    bool fromAbove = true, toAbove = false; ///< at which edge of the channel these ends are
    std::size_t level = 0;                  ///< its track, from the top
    double y = 0;
    bool straight() const { return fromAbove != toAbove && std::abs(from - to) < 1e-9; }
    double low() const { return std::min(from, to); }
    double high() const { return std::max(from, to); }
};

/// Neighbours that share their mean.
struct Pool {
    double mean, weight;
    std::size_t count;
};
/// Values as near as can be to those wanted, each at least as large as the one before: pools of neighbours share their
/// mean. `pools`: room to work in.
void settleInOrder(std::vector<double>& wanted, const std::vector<double>& weight, double least, double most,
                   std::vector<Pool>& pools) {
    pools.clear();
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        pools.push_back({wanted[i], weight[i], 1});
        while (pools.size() > 1 && pools[pools.size() - 2].mean > pools.back().mean) {
            const Pool last = pools.back();
            pools.pop_back();
            Pool& p = pools.back();
            p.mean = (p.mean * p.weight + last.mean * last.weight) / (p.weight + last.weight);
            p.weight += last.weight;
            p.count += last.count;
        }
    }
    std::size_t i = 0;
    for (const Pool& p : pools)
        for (std::size_t k = 0; k < p.count; ++k) wanted[i++] = std::clamp(p.mean, least, std::max(least, most));
}

class Maker {
public:
    explicit Maker(const FeederPlan& p) : plan(p) {}

    FeederLayout make() {
        readTree();
        giveRows();
        splitWideRows();
        makeItems();
        untangle();
        placePorts();
        placeItems();
        stretchBoxes();
        makePieces();
        joinPieces();
        layTracks();
        return draw();
    }
    double width() {
        readTree();
        giveRows();
        double widest = splitWideRows();
        if (widest > plan.widest * 2) return widest; // what else there is to know makes it no narrower than that
        makeItems();
        widest = 0;
        for (const auto& r : row) {
            double sum = 0;
            for (std::size_t i : r) sum += items[i].width;
            widest = std::max(widest, sum);
        }
        return widest;
    }

private:
    const FeederPlan& plan;
    FeederLayout out;
    std::vector<char> drawn;                       ///< by feed: it has two ends
    std::vector<char> chained;                     ///< by feed: it runs sideways where both ends share a row
    std::vector<double> inset;                     ///< by box: its left edge from that of its cell
    std::vector<std::size_t> firstFeed;            ///< by box: the feed that says where it stands
    std::vector<std::vector<std::size_t>> leaving; ///< by box: feeds
    std::vector<double> key;                       ///< by box
    std::vector<std::size_t> walk;                 ///< boxes, each after what feeds it
    std::vector<std::size_t> rowOf;                ///< by box
    std::vector<int> floorOfRow;
    std::vector<std::vector<std::size_t>> row; ///< items of each row, from left to right
    std::vector<Item> items;
    std::vector<std::size_t> itemOfBox;
    std::vector<std::vector<std::size_t>> chain;        ///< by feed: items from its beginning to its end
    std::vector<std::vector<std::size_t>> above, below; ///< by item: items joined to it in the next rows
    std::vector<std::size_t> place;                     ///< by item: its place in its row
    std::vector<Side> topSide, bottomSide;              ///< by box
    std::vector<std::size_t> leavesAt, arrivesAt;       ///< by feed: its ports on their sides
    std::vector<std::vector<Piece>> channel;            ///< channel r is above row r
    struct Step {
        std::size_t channel, piece;
    };
    std::vector<std::vector<Step>> steps; ///< by feed

    std::size_t count() const { return plan.boxes.size(); }

    void readTree() {
        drawn.assign(plan.feeds.size(), 0);
        firstFeed.assign(count(), none);
        leaving.resize(count());
        for (std::size_t f = 0; f < plan.feeds.size(); ++f) {
            const FeederPlan::Feed& feed = plan.feeds[f];
            if (feed.from >= count() || feed.to >= count() || feed.from == feed.to) continue;
            drawn[f] = 1;
            if (!feed.second && firstFeed[feed.to] == none) firstFeed[feed.to] = f;
            leaving[feed.from].push_back(f);
        }
        key.assign(count(), -1);
        double next = 0;
        const auto walkDown = [&](std::size_t root) {
            std::vector<std::size_t> stack{root};
            while (!stack.empty()) {
                const std::size_t box = stack.back();
                stack.pop_back();
                if (key[box] >= 0) continue;
                key[box] = next++;
                walk.push_back(box);
                for (auto f = leaving[box].rbegin(); f != leaving[box].rend(); ++f)
                    if (firstFeed[plan.feeds[*f].to] == *f) stack.push_back(plan.feeds[*f].to);
            }
        };
        const auto feedsFirst = [&](std::size_t box) {
            return leaving[box].empty() || std::any_of(leaving[box].begin(), leaving[box].end(),
                                                       [&](std::size_t f) { return !plan.feeds[f].second; });
        };
        for (std::size_t box = 0; box < count(); ++box)
            if (firstFeed[box] == none && feedsFirst(box)) walkDown(box);
        for (std::size_t box = 0; box < count(); ++box) { // what only takes over stands beside what it takes over
            if (key[box] >= 0 || firstFeed[box] != none) continue;
            const double beside = key[plan.feeds[leaving[box].front()].to];
            walk.push_back(box);
            key[box] = beside >= 0 ? beside + 0.5 : next++;
        }
        for (std::size_t box = 0; box < count(); ++box) walkDown(box); // what feeds itself in a circle
    }

    /// Feeds to what alone hangs on a box of its own floor.
    void findChains() {
        chained.assign(plan.feeds.size(), 0);
        if (plan.steps == FeederPlan::Steps::Rows) return;
        for (std::size_t box = 0; box < count(); ++box) {
            std::size_t only = none, n = 0;
            for (std::size_t f : leaving[box]) {
                const std::size_t to = plan.feeds[f].to;
                if (firstFeed[to] != f || plan.boxes[to].floor != plan.boxes[box].floor) continue;
                only = f;
                ++n;
            }
            if (n == 1) chained[only] = 1;
        }
    }
    bool sideways(std::size_t f) const { return chained[f] && rowOf[plan.feeds[f].from] == rowOf[plan.feeds[f].to]; }

    /// A row for each step down within a floor.
    void giveRows() {
        findChains();
        const bool oneRow = plan.steps == FeederPlan::Steps::OneRow;
        const int floors =
            count() == 0 ? 0
                         : 1 + std::max_element(plan.boxes.begin(), plan.boxes.end(), [](const auto& a, const auto& b) {
                                   return a.floor < b.floor;
                               })->floor;
        const std::size_t most = std::max<std::size_t>(1, mostRowsTimesBoxes / std::max<std::size_t>(1, count()) /
                                                              std::size_t(std::max(1, floors)));
        std::vector<std::size_t> step(count(), 0), rows(std::size_t(floors), 0);
        for (std::size_t box : walk) {
            const std::size_t f = firstFeed[box];
            const std::size_t from = f == none ? none : plan.feeds[f].from;
            if (from != none && plan.boxes[from].floor == plan.boxes[box].floor)
                step[box] = std::min(step[from] + (chained[f] || oneRow ? 0 : 1), most - 1);
            std::size_t& n = rows[std::size_t(plan.boxes[box].floor)];
            n = std::max(n, step[box] + 1);
        }
        std::vector<std::size_t> first(std::size_t(floors), 0);
        for (int f = 0; f < floors; ++f) {
            first[std::size_t(f)] = floorOfRow.size();
            floorOfRow.insert(floorOfRow.end(), rows[std::size_t(f)], f);
        }
        rowOf.resize(count());
        for (std::size_t box = 0; box < count(); ++box)
            rowOf[box] = first[std::size_t(plan.boxes[box].floor)] + step[box];
    }

    bool leavesUpward(const FeederPlan::Feed& f) const { return rowOf[f.to] < rowOf[f.from]; }
    bool arrivesFromBelow(const FeederPlan::Feed& f) const { return rowOf[f.to] <= rowOf[f.from]; }
    static double roomOf(double words) { return std::max(leastPort, words + portGap); }

    /// Widths of the cells of all boxes, ports counted, and of each row with the lines that pass it.
    void measure(std::vector<double>& cell, std::vector<double>& rowWidth) {
        inset.resize(count());
        for (std::size_t box = 0; box < count(); ++box) inset[box] = plan.gap / 2 + plan.boxes[box].before;
        std::vector<double> top(count(), firstPort), bottom(count(), firstPort);
        std::vector<double> lastTop(count(), 0), lastBottom(count(), 0);
        std::vector<double> passing(floorOfRow.size() + 1, 0);
        for (std::size_t f = 0; f < plan.feeds.size(); ++f) {
            if (!drawn[f]) continue;
            const FeederPlan::Feed& feed = plan.feeds[f];
            if (sideways(f)) {
                inset[feed.to] += roomOf(feed.deviceWidth) + roomOf(feed.labelWidth);
                continue;
            }
            const bool up = leavesUpward(feed), under = arrivesFromBelow(feed);
            (up ? lastTop : lastBottom)[feed.from] = (up ? top : bottom)[feed.from];
            (up ? top : bottom)[feed.from] += roomOf(feed.deviceWidth);
            (under ? lastBottom : lastTop)[feed.to] = (under ? bottom : top)[feed.to];
            (under ? bottom : top)[feed.to] += roomOf(feed.labelWidth);
            const std::size_t low = std::min(rowOf[feed.from], rowOf[feed.to]),
                              high = std::max(rowOf[feed.from], rowOf[feed.to]);
            if (high - low < 2) continue;
            passing[low + 1] += lane;
            passing[high] -= lane;
        }
        cell.assign(count(), 0);
        rowWidth.assign(floorOfRow.size(), 0);
        double sum = 0;
        for (std::size_t r = 0; r < rowWidth.size(); ++r) rowWidth[r] = sum += passing[r];
        for (std::size_t box = 0; box < count(); ++box) {
            cell[box] = inset[box] + plan.gap / 2 +
                        std::max({plan.boxes[box].width, top[box], bottom[box], lastTop[box] + firstPort,
                                  lastBottom[box] + firstPort});
            rowWidth[rowOf[box]] += cell[box];
        }
    }

    /// The widest row gives every other box to a new row beneath, as long as that brings the whole nearer to the width
    /// wanted. Gives the width of the widest.
    double splitWideRows() {
        std::vector<double> cell, rowWidth;
        measure(cell, rowWidth);
        const double rowHeight = usualRowHeight();
        double least = 1e18, leastWidth = 0; // of width and height together
        std::vector<std::size_t> bestRowOf;
        std::vector<int> bestFloorOfRow;
        for (int splits = 0; !rowWidth.empty(); ++splits) {
            const std::size_t widest =
                std::size_t(std::max_element(rowWidth.begin(), rowWidth.end()) - rowWidth.begin());
            const double width = rowWidth[widest], extent = width + rowHeight * double(rowWidth.size());
            if (plan.compact && extent < least) {
                least = extent;
                leastWidth = width;
                bestRowOf = rowOf;
                bestFloorOfRow = floorOfRow;
            }
            const bool enough =
                width <= plan.widest || splits == mostSplits || floorOfRow.size() * count() > mostRowsTimesBoxes;
            if (!enough && splitRow(widest, rowWidth)) continue;
            if (!plan.compact || width <= plan.widest * nearlyThere) return width;
            break;
        }
        rowOf = std::move(bestRowOf);
        floorOfRow = std::move(bestFloorOfRow);
        return leastWidth;
    }
    /// False: it is not worth it, and the row stays as it is. `rowWidth`: of all rows, before and after.
    bool splitRow(std::size_t r, std::vector<double>& rowWidth) {
        std::vector<std::size_t> boxes;
        for (std::size_t box : walk)
            if (rowOf[box] == r) boxes.push_back(box);
        if (boxes.size() < 2) return false;
        std::stable_sort(boxes.begin(), boxes.end(), [&](std::size_t a, std::size_t b) { return key[a] < key[b]; });
        const std::vector<std::size_t> before = rowOf;
        for (std::size_t& of : rowOf) of += of > r;
        for (std::size_t i = 1; i < boxes.size(); i += 2) ++rowOf[boxes[i]];
        floorOfRow.insert(floorOfRow.begin() + std::ptrdiff_t(r), floorOfRow[r]);
        std::vector<double> cell, after;
        measure(cell, after);
        if (std::max(after[r], after[r + 1]) < rowWidth[r] * worthSplitting) {
            rowWidth = std::move(after);
            return true;
        }
        rowOf = before;
        floorOfRow.erase(floorOfRow.begin() + std::ptrdiff_t(r));
        return false;
    }
    /// Of the highest box and its words, and of a few lines below it.
    double usualRowHeight() const {
        double box = 0, words = 0;
        for (const FeederPlan::Box& b : plan.boxes) box = std::max(box, b.height);
        for (const FeederPlan::Feed& f : plan.feeds) words = std::max(words, f.labelHeight + f.deviceHeight);
        return box + words + plan.air + 4 * track;
    }

    void makeItems() {
        row.resize(floorOfRow.size());
        itemOfBox.resize(count());
        for (std::size_t box = 0; box < count(); ++box) {
            itemOfBox[box] = items.size();
            row[rowOf[box]].push_back(items.size());
            items.push_back({box, key[box], 0, 0});
        }
        chain.resize(plan.feeds.size());
        for (std::size_t f = 0; f < plan.feeds.size(); ++f) {
            if (!drawn[f]) continue;
            const FeederPlan::Feed& feed = plan.feeds[f];
            const std::size_t a = rowOf[feed.from], b = rowOf[feed.to];
            chain[f].push_back(itemOfBox[feed.from]);
            for (std::size_t r = a; a != b;) {
                r = b > a ? r + 1 : r - 1;
                if (r == b) break;
                row[r].push_back(items.size());
                chain[f].push_back(items.size());
                items.push_back({none, key[feed.to] + (feed.second ? 0.25 : 0), lane, 0});
            }
            chain[f].push_back(itemOfBox[feed.to]);
        }
        above.resize(items.size());
        below.resize(items.size());
        for (std::size_t f = 0; f < chain.size(); ++f)
            for (std::size_t i = 1; i < chain[f].size(); ++i) {
                std::size_t up = chain[f][i - 1], down = chain[f][i];
                const std::size_t rowUp = rowOfItem(f, i - 1), rowDown = rowOfItem(f, i);
                if (rowUp == rowDown) continue;
                if (rowUp > rowDown) std::swap(up, down);
                below[up].push_back(down);
                above[down].push_back(up);
            }
        place.resize(items.size());
        for (auto& r : row) {
            std::stable_sort(r.begin(), r.end(),
                             [&](std::size_t a, std::size_t b) { return items[a].key < items[b].key; });
            for (std::size_t i = 0; i < r.size(); ++i) place[r[i]] = i;
        }
        for (std::size_t f = 0; f < chain.size(); ++f) // what came between two takes their chain apart
            if (sideways(f) && place[chain[f].back()] != place[chain[f].front()] + 1) chained[f] = 0;
        std::vector<double> cell, rowWidth;
        measure(cell, rowWidth);
        for (std::size_t box = 0; box < count(); ++box) items[itemOfBox[box]].width = cell[box];
    }
    /// The row of the `i`th item of a feed's chain.
    std::size_t rowOfItem(std::size_t f, std::size_t i) const {
        const std::size_t a = rowOf[plan.feeds[f].from], b = rowOf[plan.feeds[f].to];
        return b > a ? a + i : i == 0 ? a : a - std::min(i, a - b);
    }

    std::size_t crossings(const std::vector<std::size_t>& left, const std::vector<std::size_t>& right) const {
        std::size_t n = 0;
        for (std::size_t a : left)
            for (std::size_t b : right) n += place[a] > place[b];
        return n;
    }
    /// Neighbours change places where their lines then cross less.
    void untangle() {
        std::vector<char> fixed(items.size(), 0);
        for (std::size_t f = 0; f < chain.size(); ++f)
            if (sideways(f)) fixed[chain[f].front()] = fixed[chain[f].back()] = 1;
        for (int pass = 0; pass < 12; ++pass) {
            bool changed = false;
            for (auto& r : row)
                for (std::size_t i = 1; i < r.size(); ++i) {
                    const std::size_t a = r[i - 1], b = r[i];
                    if (fixed[a] || fixed[b]) continue;
                    if ((above[a].size() + below[a].size()) * (above[b].size() + below[b].size()) > 10'000) continue;
                    const std::size_t now = crossings(above[a], above[b]) + crossings(below[a], below[b]);
                    const std::size_t then = crossings(above[b], above[a]) + crossings(below[b], below[a]);
                    if (then >= now) continue;
                    std::swap(r[i - 1], r[i]);
                    std::swap(place[a], place[b]);
                    changed = true;
                }
            if (!changed) return;
        }
    }

    /// What arrives stands first; what leaves follows in the order of where it goes.
    void placePorts() {
        topSide.resize(count());
        bottomSide.resize(count());
        leavesAt.assign(plan.feeds.size(), 0);
        arrivesAt.assign(plan.feeds.size(), 0);
        // Lines that come back to their own row nest: the nearest on the inside.
        struct Entry {
            std::size_t feed;
            std::pair<int, std::ptrdiff_t> order;
        };
        std::vector<std::vector<Entry>> up(count()), down(count());
        for (std::size_t f = 0; f < plan.feeds.size(); ++f) {
            if (!drawn[f]) continue;
            if (sideways(f)) continue;
            const FeederPlan::Feed& feed = plan.feeds[f];
            (arrivesFromBelow(feed) ? bottomSide : topSide)[feed.to].push_back({f, true, 0, feed.labelWidth});
            const std::ptrdiff_t next = std::ptrdiff_t(place[chain[f][1]]);
            std::pair<int, std::ptrdiff_t> order{0, next};
            if (rowOf[feed.from] == rowOf[feed.to]) order = {place[chain[f][0]] < place[chain[f][1]] ? 1 : -1, -next};
            (leavesUpward(feed) ? up : down)[feed.from].push_back({f, order});
        }
        for (std::size_t box = 0; box < count(); ++box)
            for (auto [list, side] : {std::pair{&up[box], &topSide[box]}, std::pair{&down[box], &bottomSide[box]}}) {
                std::stable_sort(list->begin(), list->end(),
                                 [](const Entry& a, const Entry& b) { return a.order < b.order; });
                for (const Entry& e : *list) side->push_back({e.feed, false, 0, plan.feeds[e.feed].deviceWidth});
                double at = firstPort;
                for (std::size_t i = 0; i < side->size(); ++i) {
                    Port& p = (*side)[i];
                    (p.arrives ? arrivesAt : leavesAt)[p.feed] = i;
                    p.offset = at;
                    at += roomOf(p.room);
                }
            }
        out.boxes.resize(count());
        for (std::size_t box = 0; box < count(); ++box) {
            double width = plan.boxes[box].width;
            for (const Side* side : {&topSide[box], &bottomSide[box]})
                if (!side->empty()) width = std::max(width, side->back().offset + firstPort);
            out.boxes[box] = {0, 0, width, plan.boxes[box].height, rowOf[box]};
        }
    }

    /// The ports of a feed. The sides may be changed or not.
    template <class AnySides> auto& leavingPort(AnySides& top, AnySides& bottom, std::size_t f) const {
        const FeederPlan::Feed& feed = plan.feeds[f];
        return (leavesUpward(feed) ? top : bottom)[feed.from][leavesAt[f]];
    }
    template <class AnySides> auto& arrivingPort(AnySides& top, AnySides& bottom, std::size_t f) const {
        const FeederPlan::Feed& feed = plan.feeds[f];
        return (arrivesFromBelow(feed) ? bottom : top)[feed.to][arrivesAt[f]];
    }
    /// How far right of its cell's left edge a feed's line stands at the `i`th item of its chain.
    double offsetAt(std::size_t f, std::size_t i) const {
        if (i == 0) return inset[plan.feeds[f].from] + leavingPort(topSide, bottomSide, f).offset;
        if (i + 1 == chain[f].size()) return inset[plan.feeds[f].to] + arrivingPort(topSide, bottomSide, f).offset;
        return lane / 2;
    }

    /// A joint of two items of one feed, seen from one of them; items by their places, row after row.
    struct Joint {
        std::uint32_t item, other;
        double shift;  ///< from the left edge of the other's cell to that of the item's, where their line is straight
        bool fromFeed; ///< the other is nearer to what feeds it
    };
    /// What draws each item, those of one item together in the order in which they were made.
    class Pulls {
    public:
        struct Pull {
            std::uint32_t other;
            double shift;
        };
        Pulls(const std::vector<Joint>& joints, std::size_t itemCount, bool fromFeedOnly) : begins(itemCount + 1, 0) {
            const auto counts = [&](const Joint& j) { return j.fromFeed || !fromFeedOnly; };
            for (const Joint& j : joints) begins[j.item + 1] += counts(j);
            for (std::size_t i = 1; i < begins.size(); ++i) begins[i] += begins[i - 1];
            std::vector<std::uint32_t> next(begins.begin(), begins.end() - 1);
            pulls.resize(begins.back());
            for (const Joint& j : joints)
                if (counts(j)) pulls[next[j.item]++] = {j.other, j.shift};
        }
        std::span<const Pull> of(std::size_t item) const {
            return {pulls.data() + begins[item], pulls.data() + begins[item + 1]};
        }

    private:
        std::vector<Pull> pulls;
        std::vector<std::uint32_t> begins;
    };
    /// Items side by side as the sweeps need them: what is read together lies together.
    struct Strip {
        std::vector<std::size_t> first; ///< of each row; one more for the end
        std::vector<double> left, width;
        std::vector<char> line;             ///< it is no box
        std::vector<double> wanted, weight; ///< of the row that is settled
        std::vector<Pool> pools;
    };

    void placeItems() {
        Strip s;
        std::vector<std::uint32_t> at(items.size());
        std::vector<double> width(row.size(), 0);
        for (std::size_t r = 0; r < row.size(); ++r) {
            s.first.push_back(s.left.size());
            for (std::size_t i : row[r]) {
                at[i] = std::uint32_t(s.left.size());
                s.left.push_back(width[r]);
                s.width.push_back(items[i].width);
                s.line.push_back(items[i].box == none);
                width[r] += items[i].width;
            }
        }
        s.first.push_back(s.left.size());
        out.width = width.empty() ? 0 : *std::max_element(width.begin(), width.end());
        std::vector<Joint> joints;
        for (std::size_t f = 0; f < chain.size(); ++f)
            for (std::size_t i = 1; i < chain[f].size(); ++i) {
                const std::uint32_t from = at[chain[f][i - 1]], to = at[chain[f][i]];
                if (sideways(f)) { // side by side: each draws the other near
                    joints.push_back({from, to, -s.width[from], false});
                    joints.push_back({to, from, s.width[from], true});
                    continue;
                }
                const double a = offsetAt(f, i - 1), b = offsetAt(f, i);
                joints.push_back({from, to, b - a, false});
                joints.push_back({to, from, a - b, true});
            }
        // First everything towards the middle of what it is joined to, then, last, each under the line that comes to
        // it, lines first.
        const Pulls all(joints, items.size(), false), coming(joints, items.size(), true);
        constexpr int sweeps = 14, last = 8;
        for (int sweep = 0; sweep < sweeps; ++sweep) {
            const bool straighten = sweep >= sweeps - last;
            for (std::size_t k = 0; k < row.size(); ++k) {
                const std::size_t r = sweep % 2 ? row.size() - 1 - k : k;
                settleRow(s, r, straighten ? coming : all, out.width - width[r], straighten);
            }
        }
        for (std::size_t i = 0; i < items.size(); ++i) items[i].left = s.left[at[i]];
    }
    /// `most`: how far right the row may move as a whole.
    static void settleRow(Strip& s, std::size_t r, const Pulls& pulls, double most, bool straighten) {
        const std::size_t first = s.first[r], n = s.first[r + 1] - first;
        s.wanted.resize(n);
        s.weight.resize(n);
        double before = 0;
        for (std::size_t k = 0; k < n; ++k) {
            double sum = 0;
            const auto drawing = pulls.of(first + k);
            for (const Pulls::Pull& p : drawing) sum += s.left[p.other] + p.shift;
            s.wanted[k] = (drawing.empty() ? s.left[first + k] : sum / double(drawing.size())) - before;
            s.weight[k] = straighten && s.line[first + k] ? 50 : 1;
            before += s.width[first + k];
        }
        settleInOrder(s.wanted, s.weight, 0, most, s.pools);
        before = 0;
        for (std::size_t k = 0; k < n; ++k) {
            s.left[first + k] = s.wanted[k] + before;
            before += s.width[first + k];
        }
    }

    /// A box that feeds several grows towards them, so that their lines run straight, as far as its neighbours leave
    /// room.
    void stretchBoxes() {
        std::vector<double> takenTo(count()); // right edges, with the words beside the last port
        for (std::size_t box = 0; box < count(); ++box) {
            const Item& item = items[itemOfBox[box]];
            out.boxes[box].left = item.left + inset[box];
            takenTo[box] = item.left + item.width;
        }
        for (std::size_t r = 0; r < row.size(); ++r)
            for (std::size_t k = 0; k < row[r].size(); ++k) {
                const std::size_t box = items[row[r][k]].box;
                if (box == none) continue;
                const Item& item = items[row[r][k]];
                double left = plan.gap / 2, right = out.width - plan.gap / 2;
                if (k > 0) {
                    const Item& before = items[row[r][k - 1]];
                    left = (before.box == none ? before.left + before.width : takenTo[before.box]) + plan.gap / 2;
                }
                if (k + 1 < row[r].size()) right = items[row[r][k + 1]].left - plan.gap / 2;
                const double spare = std::max(0.0, out.boxes[box].width * plan.stretch - out.boxes[box].width) / 2;
                left =
                    inset[box] > plan.gap / 2 ? item.left + inset[box] : std::max(left, item.left + inset[box] - spare);
                right = std::min(right, item.left + item.width - plan.gap / 2 + spare);
                for (Side* side : {&topSide[box], &bottomSide[box]}) stretchSide(box, *side, left, right);
                const FeederLayout::Box& b = out.boxes[box];
                takenTo[box] = std::max(takenTo[box], b.left + b.width + plan.gap / 2);
                for (const Side* side : {&topSide[box], &bottomSide[box]})
                    if (!side->empty())
                        takenTo[box] = std::max(takenTo[box], b.left + side->back().offset + roomOf(side->back().room));
            }
    }
    void stretchSide(std::size_t box, Side& side, double left, double right) {
        FeederLayout::Box& b = out.boxes[box];
        const auto first = std::find_if(side.begin(), side.end(), [](const Port& p) { return !p.arrives; });
        if (side.end() - first < 2) return;
        std::vector<double> wanted, weight;
        double before = 0;
        for (auto p = first; p != side.end(); ++p) {
            const Item& next = items[chain[p->feed][1]];
            wanted.push_back(next.left + offsetAt(p->feed, 1) - before);
            weight.push_back(1);
            before += roomOf(p->room);
        }
        const double least = first == side.begin() ? std::min(b.left, left) + firstPort
                                                   : b.left + (first - 1)->offset + roomOf((first - 1)->room);
        std::vector<Pool> pools;
        settleInOrder(wanted, weight, std::max(least, left + firstPort), right - before, pools);
        const double newLeft = std::min(b.left, wanted.front() - firstPort);
        const double moved = b.left - newLeft;
        for (Side* s : {&topSide[box], &bottomSide[box]})
            for (Port& p : *s) p.offset += moved;
        b.left = newLeft;
        b.width += moved;
        before = 0;
        for (auto p = first; p != side.end(); ++p) {
            p->offset = wanted[std::size_t(p - first)] + before - newLeft;
            before += roomOf(p->room);
        }
        b.width = std::max(b.width, side.back().offset + firstPort);
    }

    /// x of a feed's line at the `i`th item of its chain.
    double lineAt(std::size_t f, std::size_t i) const {
        const Item& item = items[chain[f][i]];
        if (item.box == none) return item.left + lane / 2;
        return out.boxes[item.box].left + offsetAt(f, i) - inset[item.box];
    }
    /// Moves a feed's line at that item, a little.
    void moveLine(std::size_t f, std::size_t i, double x) {
        Item& item = items[chain[f][i]];
        if (item.box == none) {
            item.left = x - lane / 2;
            return;
        }
        Port& port = i == 0 ? leavingPort(topSide, bottomSide, f) : arrivingPort(topSide, bottomSide, f);
        port.offset = x - out.boxes[item.box].left;
    }

    /// From row to row downwards. The ends at a channel's lower edge give way, by no more than `clear`, to those at its
    /// upper edge that they would meet; those are at least three times as far from one another, so that no end meets
    /// another.
    void makePieces() {
        struct End {
            std::size_t feed, index; ///< of its chain
        };
        channel.resize(row.size() + 1);
        steps.resize(plan.feeds.size());
        std::vector<std::vector<End>> upper(row.size() + 1), lower(row.size() + 1); ///< ends at a channel's edges
        std::vector<std::vector<std::size_t>> pieces(row.size() + 1);
        for (std::size_t f = 0; f < chain.size(); ++f)
            for (std::size_t i = 1; i < chain[f].size() && !sideways(f); ++i) {
                const std::size_t a = rowOfItem(f, i - 1), b = rowOfItem(f, i), c = a == b ? a + 1 : std::max(a, b);
                const bool fromAbove = a < c, toAbove = b < c;
                (fromAbove ? upper : lower)[c].push_back({f, i - 1});
                (toAbove ? upper : lower)[c].push_back({f, i});
                steps[f].push_back({c, channel[c].size()});
                channel[c].push_back({f, 0, 0, fromAbove, toAbove, 0, 0});
                pieces[c].push_back(i);
            }
        for (std::size_t c = 0; c < channel.size(); ++c) {
            std::vector<double> taken;
            for (const End& e : upper[c]) taken.push_back(lineAt(e.feed, e.index));
            std::sort(taken.begin(), taken.end());
            for (const End& e : lower[c]) giveWay(e.feed, e.index, taken);
            for (std::size_t k = 0; k < channel[c].size(); ++k) {
                Piece& p = channel[c][k];
                p.from = lineAt(p.feed, pieces[c][k] - 1);
                p.to = lineAt(p.feed, pieces[c][k]);
            }
        }
    }
    void giveWay(std::size_t f, std::size_t i, const std::vector<double>& taken) {
        const double x = lineAt(f, i);
        // The other end of this piece is at the upper edge: one step towards it along the chain.
        const bool up = rowOf[plan.feeds[f].to] < rowOf[plan.feeds[f].from];
        const double own = lineAt(f, up ? i + 1 : i - 1);
        if (std::abs(x - own) < clear) {
            moveLine(f, i, own);
            return;
        }
        const auto near = std::lower_bound(taken.begin(), taken.end(), x - clear);
        if (near == taken.end() || *near >= x + clear) return;
        moveLine(f, i, x < *near ? *near - clear : *near + clear);
    }
    /// Lines that are as good as straight are so: each piece begins where the one before it ends.
    void joinPieces() {
        for (const auto& of : steps)
            for (std::size_t i = 0; i < of.size(); ++i) {
                Piece& p = channel[of[i].channel][of[i].piece];
                if (i > 0) p.from = channel[of[i - 1].channel][of[i - 1].piece].to;
                if (p.straight()) p.to = p.from;
            }
    }

    static bool within(double x, const Piece& p) { return x > p.low() && x < p.high(); }
    /// Crossings of two pieces if the first runs above the second.
    static int crossedIfAbove(const Piece& p, const Piece& q) {
        int n = 0;
        if (q.fromAbove) n += within(q.from, p);
        if (q.toAbove) n += within(q.to, p);
        if (!p.fromAbove) n += within(p.from, q);
        if (!p.toAbove) n += within(p.to, q);
        return n;
    }
    /// How far pieces reach, apart from all else that they are: every two of a channel are compared.
    struct Reach {
        double low, high;
    };
    static std::vector<Reach> reachOf(const std::vector<Piece*>& level) {
        std::vector<Reach> reach;
        for (const Piece* p : level) reach.push_back({p->low(), p->high()});
        return reach;
    }
    /// From above, so that pieces cross one another as little as can be: those that must not run below another come
    /// first.
    static void sortTracks(std::vector<Piece*>& level) {
        const std::size_t n = level.size();
        const std::vector<Reach> reach = reachOf(level);
        std::vector<std::vector<std::size_t>> after(n);
        std::vector<std::size_t> waitsFor(n, 0);
        for (std::size_t a = 0; a < n; ++a)
            for (std::size_t b = a + 1; b < n; ++b) {
                if (reach[a].high <= reach[b].low || reach[b].high <= reach[a].low) continue;
                const int above = crossedIfAbove(*level[a], *level[b]), below = crossedIfAbove(*level[b], *level[a]);
                if (above == below) continue;
                const std::size_t first = above < below ? a : b, second = above < below ? b : a;
                after[first].push_back(second);
                ++waitsFor[second];
            }
        std::vector<Piece*> sorted;
        std::vector<char> taken(n, 0);
        while (sorted.size() < n) {
            std::size_t next = none;
            for (std::size_t i = 0; i < n; ++i)
                if (!taken[i] && (next == none || waitsFor[i] < waitsFor[next])) next = i;
            taken[next] = 1;
            sorted.push_back(level[next]);
            for (std::size_t i : after[next]) --waitsFor[i];
        }
        level = std::move(sorted);
    }
    void layTracks() {
        for (auto& c : channel) {
            std::vector<Piece*> level;
            for (Piece& p : c)
                if (!p.straight()) level.push_back(&p);
            if (level.size() <= mostSorted) sortTracks(level);
            const std::vector<Reach> reach = reachOf(level);
            std::vector<std::size_t> at(level.size());
            for (std::size_t i = 0; i < level.size(); ++i) {
                at[i] = std::size_t(std::max(0, plan.feeds[level[i]->feed].lower));
                const double low = reach[i].low - trackGap, high = reach[i].high;
                for (std::size_t k = 0; k < i; ++k)
                    if (reach[k].low - trackGap < high && low < reach[k].high) at[i] = std::max(at[i], at[k] + 1);
                level[i]->level = at[i];
            }
        }
    }

    /// Height that the words at a side of a box take.
    double roomAt(std::size_t box, bool top) const {
        double most = 0;
        for (const Port& p : (top ? topSide : bottomSide)[box])
            most = std::max(most, p.arrives ? plan.feeds[p.feed].labelHeight : plan.feeds[p.feed].deviceHeight);
        return most > 0 ? most + 2 : 0;
    }

    FeederLayout draw() {
        std::vector<double> top(channel.size()), bottom(channel.size());
        double y = 0;
        for (std::size_t r = 0; r <= row.size(); ++r) {
            top[r] = y;
            std::size_t tracks = 0;
            for (const Piece& p : channel[r])
                if (!p.straight()) tracks = std::max(tracks, p.level + 1);
            for (Piece& p : channel[r]) p.y = y + 3 + track * double(p.level);
            if (tracks > 0)
                y += 6 + track * double(tracks - 1);
            else if (r > 0)
                y += 3;
            if (r > 0 && r < row.size()) y += plan.air;
            bottom[r] = y;
            if (r > 0) out.rows.back().bottom = y;
            if (r == row.size()) break;
            out.rows.push_back({floorOfRow[r], r == 0 ? 0 : y, 0});
            double over = 0, under = 0; // the boxes of a row have their tops at one height
            for (std::size_t i : row[r]) {
                const std::size_t box = items[i].box;
                if (box == none) continue;
                over = std::max(over, roomAt(box, true));
                under = std::max(under, out.boxes[box].height + roomAt(box, false));
            }
            y += 3 + over;
            for (std::size_t i : row[r])
                if (items[i].box != none) out.boxes[items[i].box].top = y;
            y += under + 3;
        }
        out.height = y;
        drawLines();
        findHops(top, bottom);
        return std::move(out);
    }
    void drawLines() {
        out.feeds.resize(plan.feeds.size());
        for (std::size_t f = 0; f < plan.feeds.size(); ++f) {
            if (!drawn[f]) continue;
            const FeederPlan::Feed& feed = plan.feeds[f];
            FeederLayout::Feed& o = out.feeds[f];
            if (sideways(f)) {
                const FeederLayout::Box &left = out.boxes[feed.from], &right = out.boxes[feed.to];
                o.sideways = true;
                o.line = {{left.left + left.width, left.top + plan.sideHeight},
                          {right.left, left.top + plan.sideHeight}};
                o.labelRoom = roomOf(feed.labelWidth);
                continue;
            }
            o.leavesUpward = leavesUpward(feed);
            o.arrivesFromBelow = arrivesFromBelow(feed);
            o.labelRoom = roomOf(feed.labelWidth) - clear;
            const FeederLayout::Box &a = out.boxes[feed.from], &b = out.boxes[feed.to];
            const Step &first = steps[f].front(), &last = steps[f].back();
            o.line.push_back({channel[first.channel][first.piece].from, o.leavesUpward ? a.top : a.top + a.height});
            for (const Step& s : steps[f]) {
                const Piece& p = channel[s.channel][s.piece];
                if (p.straight()) continue;
                o.line.push_back({p.from, p.y});
                o.line.push_back({p.to, p.y});
            }
            o.line.push_back({channel[last.channel][last.piece].to, o.arrivesFromBelow ? b.top + b.height : b.top});
        }
    }
    /// The upright part of a piece at one of its ends, from an edge of the channel to its track, or through.
    struct Upright {
        double x = 0, until = 0;
        bool fromTop = true;
        const Piece* piece = nullptr;
    };
    void findHops(const std::vector<double>& top, const std::vector<double>& bottom) {
        for (std::size_t c = 0; c < channel.size(); ++c) {
            std::vector<Upright> uprights;
            for (const Piece& q : channel[c]) {
                const auto until = [&](bool fromTop) { return !q.straight() ? q.y : fromTop ? bottom[c] : top[c]; };
                uprights.push_back({q.from, until(q.fromAbove), q.fromAbove, &q});
                if (!q.straight()) uprights.push_back({q.to, until(q.toAbove), q.toAbove, &q});
            }
            std::sort(uprights.begin(), uprights.end(), [](const Upright& a, const Upright& b) { return a.x < b.x; });
            for (const Piece& p : channel[c]) {
                if (p.straight()) continue;
                auto u = std::upper_bound(uprights.begin(), uprights.end(), p.low(),
                                          [](double x, const Upright& b) { return x < b.x; });
                for (; u != uprights.end() && u->x < p.high(); ++u)
                    if (u->piece != &p && (u->fromTop ? p.y < u->until : p.y > u->until))
                        out.feeds[p.feed].hops.push_back({u->x, p.y});
            }
        }
    }
};

} // namespace

FeederLayout layOutFeeders(const FeederPlan& plan) { return Maker(plan).make(); }

double feederWidth(const FeederPlan& plan) { return Maker(plan).width(); }

} // namespace lintel
