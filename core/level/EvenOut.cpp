#include "core/level/EvenOut.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <memory>
#include <numeric>
#include <optional>
#include <set>
#include <tuple>

namespace lintel {

long spreadOf(const OnLines& s, int lines) {
    long most = s[0], least = s[0];
    for (int i = 1; i < lines; ++i)
        most = std::max(most, s[std::size_t(i)]), least = std::min(least, s[std::size_t(i)]);
    return most - least;
}

namespace {

constexpr long never = 1L << 60;

/// A load that goes from one line to another when an item changes its way: what most changes come to.
struct Shift {
    long va;
    int item, way;
};

struct Search {
    const EvenTask& t;
    std::size_t n;
    int lines;
    long effort;
    std::vector<int> order;  ///< items, heaviest first
    std::vector<int> twinOf; ///< by position: the position before it that is alike, or −1
    std::vector<long> heavy; ///< by position: what one change of it can take off the spread, at most
    std::vector<int> ways;   ///< of the position that is looked at
    OnLines sums{};
    std::array<std::array<std::vector<Shift>, 3>, 3> shifts; ///< [from][to], by VA
    /// A choice as it is kept: a large board has hundreds of them, most the same.
    struct Kept {
        std::shared_ptr<const std::vector<int>> ways;
        long spread = 0;
        int moves = 0;
        double neutral = 0;
    };
    std::vector<Kept> best;    ///< [k]: the best with at most k moves
    std::vector<long> refused; ///< [k]: the least spread of what could not be placed with k moves
    int mostMoves = 0;
    long bound = 0;
    bool stopped = false;
    int neutralAsked = 0;

    explicit Search(const EvenTask& task) : t(task), n(task.items.size()), lines(task.lines), effort(task.effort) {
        ways.resize(n);
        for (std::size_t i = 0; i < n; ++i) ways[i] = t.items[i].now, mostMoves += t.items[i].moves;
        sums = sumsOf(ways);
        for (std::size_t i = 0; i < n; ++i) order.push_back(int(i));
        const auto reach = [&](int i) { // spread changes by at most what the lines change, up and down together
            long most = 0;
            for (const OnLines& w : t.items[std::size_t(i)].ways)
                for (int a = 0; a < lines; ++a)
                    for (int b = 0; b < lines; ++b) {
                        const OnLines& now = t.items[std::size_t(i)].ways[std::size_t(t.items[std::size_t(i)].now)];
                        most = std::max(most, (now[std::size_t(a)] - w[std::size_t(a)]) +
                                                  (w[std::size_t(b)] - now[std::size_t(b)]));
                    }
            return most;
        };
        std::vector<long> reaches(n);
        for (std::size_t i = 0; i < n; ++i) reaches[i] = reach(int(i));
        std::stable_sort(order.begin(), order.end(),
                         [&](int a, int b) { return reaches[std::size_t(a)] > reaches[std::size_t(b)]; });
        for (std::size_t k = 0; k < n; ++k) heavy.push_back(reaches[std::size_t(order[k])]);
        twinOf.assign(n, -1);
        for (std::size_t k = 1; k < n; ++k)
            for (std::size_t j = k; j-- > 0 && heavy[j] == heavy[k];) {
                const EvenItem &a = t.items[std::size_t(order[j])], &b = t.items[std::size_t(order[k])];
                if (a.ways == b.ways && a.places == b.places && a.now == b.now && a.moves == b.moves) {
                    twinOf[k] = int(j);
                    break;
                }
            }
        for (std::size_t i = 0; i < n; ++i)
            for (std::size_t w = 0; w < t.items[i].ways.size(); ++w) {
                if (int(w) == t.items[i].now) continue;
                if (const auto s = asShift(int(i), int(w)))
                    shifts[std::size_t(s->first)][std::size_t(s->second)].push_back(
                        {t.items[i].ways[std::size_t(t.items[i].now)][std::size_t(s->first)] -
                             t.items[i].ways[w][std::size_t(s->first)],
                         int(i), int(w)});
            }
        for (auto& from : shifts)
            for (auto& list : from)
                std::stable_sort(list.begin(), list.end(), [](const Shift& a, const Shift& b) { return a.va < b.va; });
        best.resize(std::size_t(mostMoves) + 1);
        refused.assign(std::size_t(mostMoves) + 1, never);
        findBound();
        const Kept now{std::make_shared<const std::vector<int>>(ways), spreadOf(sums, lines), 0, neutralOf(ways)};
        for (Kept& c : best) c = now;
    }

    OnLines sumsOf(const std::vector<int>& w) const {
        OnLines s = t.fixed;
        for (std::size_t i = 0; i < n; ++i)
            for (std::size_t k = 0; k < 3; ++k) s[k] += t.items[i].ways[std::size_t(w[i])][k];
        return s;
    }
    /// From which line to which a change of way takes the load, where it touches two lines and by the same.
    std::optional<std::pair<int, int>> asShift(int i, int w) const {
        const EvenItem& x = t.items[std::size_t(i)];
        int from = -1, to = -1;
        for (int k = 0; k < 3; ++k) {
            const long d = x.ways[std::size_t(w)][std::size_t(k)] - x.ways[std::size_t(x.now)][std::size_t(k)];
            if (d < 0) {
                if (from >= 0) return {};
                from = k;
            }
            if (d > 0) {
                if (to >= 0) return {};
                to = k;
            }
        }
        if (from < 0 && to < 0 && !x.places.empty()) // nothing hangs on it: from place to place
            for (int k = 0; k < 3; ++k) {
                const int by = x.places[std::size_t(w)][std::size_t(k)] - x.places[std::size_t(x.now)][std::size_t(k)];
                if (by < 0) from = k;
                if (by > 0) to = k;
            }
        if (from < 0 || to < 0) return {};
        const auto d = [&](int k) {
            return std::labs(x.ways[std::size_t(w)][std::size_t(k)] - x.ways[std::size_t(x.now)][std::size_t(k)]);
        };
        if (d(from) != d(to)) return {};
        return std::pair{from, to};
    }
    bool plain(int i) const { // every change of it is a shift
        for (std::size_t w = 0; w < t.items[std::size_t(i)].ways.size(); ++w)
            if (int(w) != t.items[std::size_t(i)].now && !asShift(i, int(w)) &&
                t.items[std::size_t(i)].ways[w] !=
                    t.items[std::size_t(i)].ways[std::size_t(t.items[std::size_t(i)].now)])
                return false;
        return true;
    }

    /// Two bounds: what the greatest common divisor leaves over, and an item or a fixed line too heavy to be balanced.
    void findBound() {
        long total = 0, divisor = 0;
        for (int k = 0; k < lines; ++k) total += sums[std::size_t(k)];
        for (const EvenItem& i : t.items)
            for (const OnLines& w : i.ways)
                for (int k = 0; k < lines; ++k) divisor = std::gcd(divisor, w[std::size_t(k)]);
        for (int k = 1; k < lines; ++k) divisor = std::gcd(divisor, std::labs(t.fixed[std::size_t(k)] - t.fixed[0]));
        if (divisor > 0 && ((total - lines * t.fixed[0]) / divisor) % lines != 0) bound = divisor;
        const auto alone = [&](long most) { bound = std::max(bound, most - (total - most) / (lines - 1)); };
        for (int k = 0; k < lines; ++k) { // a line that no choice makes lighter
            long least = t.fixed[std::size_t(k)];
            for (const EvenItem& i : t.items) {
                long lightest = never;
                for (const OnLines& w : i.ways) lightest = std::min(lightest, w[std::size_t(k)]);
                least += lightest;
            }
            alone(least);
        }
        for (const EvenItem& i : t.items) { // wherever it hangs, some line carries at least this
            long most = never;
            for (const OnLines& w : i.ways) {
                long here = 0;
                for (int k = 0; k < lines; ++k) here = std::max(here, t.fixed[std::size_t(k)] + w[std::size_t(k)]);
                most = std::min(most, here);
            }
            alone(most);
        }
    }

    double neutralOf(const std::vector<int>& w) const {
        std::array<double, 3> s{double(t.fixedNeutral[0]), double(t.fixedNeutral[1]), double(t.fixedNeutral[2])};
        for (std::size_t i = 0; i < n; ++i)
            if (t.items[i].toNeutral)
                for (std::size_t k = 0; k < 3; ++k) s[k] += double(t.items[i].ways[std::size_t(w[i])][k]);
        if (lines == 2) return std::abs(s[0] - s[1]);
        return std::sqrt(
            std::max(0.0, s[0] * s[0] + s[1] * s[1] + s[2] * s[2] - s[0] * s[1] - s[1] * s[2] - s[2] * s[0]));
    }
    bool roomy(const std::vector<int>& w) const {
        std::array<int, 3> taken{};
        for (std::size_t i = 0; i < n; ++i)
            if (!t.items[i].places.empty())
                for (std::size_t k = 0; k < 3; ++k) taken[k] += t.items[i].places[std::size_t(w[i])][k];
        for (std::size_t k = 0; k < 3; ++k)
            if (taken[k] > t.room[k]) return false;
        return true;
    }
    int changesOf(const std::vector<int>& w) const {
        int moves = 0;
        for (std::size_t i = 0; i < n; ++i)
            if (w[i] != t.items[i].now) moves += t.items[i].moves;
        return moves;
    }

    /// Takes a choice over where it is better than what is known for so many moves.
    void offer(const std::vector<int>& w, long spread, int changes) {
        const Kept known = best[std::size_t(changes)];
        if (spread > known.spread) return;
        const bool asGood = spread == known.spread && changes >= known.moves;
        if (asGood && (changes > known.moves || neutralAsked > 400)) return;
        if (!roomy(w)) return;
        double neutral = -1;
        if (asGood) {
            ++neutralAsked;
            neutral = neutralOf(w);
            if (neutral >= known.neutral - 1e-9) return;
        }
        const int moves = t.place ? t.place(w) : changes;
        spend(placing(changes));
        if (moves != changes)
            for (int k = changes; k < (moves < 0 ? mostMoves + 1 : std::min(moves, mostMoves + 1)); ++k)
                refused[std::size_t(k)] = std::min(refused[std::size_t(k)], spread);
        if (moves < 0) return;
        if (neutral < 0) neutral = neutralOf(w);
        const Kept kept{std::make_shared<const std::vector<int>>(w), spread, moves, neutral};
        for (int k = moves; k <= mostMoves; ++k) {
            Kept& c = best[std::size_t(k)];
            if (std::tuple(spread, moves, neutral) < std::tuple(c.spread, c.moves, c.neutral)) c = kept;
        }
    }

    /// What placing so many changes costs, in positions. On boards as people build them it is not worth counting.
    long placing(int changes) const { return t.place ? std::max(0L, long(t.slots) * changes / 50 - 150) : 0; }

    bool spend(long positions = 1) {
        const long before = effort;
        effort -= positions;
        if ((before >> 12) != (effort >> 12) && t.cancelled && t.cancelled()) stopped = true;
        return effort > 0 && !stopped;
    }

    /// One change more, the `allowed`th: of any item, the load that comes nearest to what is wanted and its neighbours
    /// on both sides.
    void lastShift(int allowed) {
        for (int from = 0; from < lines; ++from)
            for (int to = 0; to < lines; ++to) {
                if (from == to) continue;
                const auto& list = shifts[std::size_t(from)][std::size_t(to)];
                if (list.empty()) continue;
                const long wanted = (sums[std::size_t(from)] - sums[std::size_t(to)]) / 2;
                const auto mid =
                    std::lower_bound(list.begin(), list.end(), wanted, [](const Shift& a, long v) { return a.va < v; });
                int equal = 0;
                // The spread only grows away from what is wanted: each side ends at the first that is no better.
                const auto consider = [&](const Shift& s) {
                    OnLines after = sums;
                    after[std::size_t(from)] -= s.va, after[std::size_t(to)] += s.va;
                    const long spread = spreadOf(after, lines), known = best[std::size_t(allowed)].spread;
                    if (spread > known || (spread == known && ++equal > 4)) return false;
                    const EvenItem& item = t.items[std::size_t(s.item)];
                    if (ways[std::size_t(s.item)] == item.now && item.moves == 1) {
                        ways[std::size_t(s.item)] = s.way;
                        offer(ways, spread, allowed);
                        ways[std::size_t(s.item)] = item.now;
                    }
                    return spend();
                };
                for (auto it = mid; it != list.end() && consider(*it); ++it) {
                }
                equal = 0;
                for (auto it = mid; it != list.begin() && consider(*std::prev(it)); --it) {
                }
            }
    }

    /// All choices that differ from the present one in at most `left` moves of the items from position `from` on.
    /// `total`: moves allowed altogether. Returns false where it ran out.
    bool byMoves(std::size_t from, int left, int total, bool allPlain) {
        if (!spend()) return false;
        if (left == 1 && allPlain && from == 0) return lastShift(total), effort > 0 && !stopped;
        for (std::size_t k = from; k < n; ++k) {
            long gain = 0;
            for (std::size_t j = k; j < std::min(n, k + std::size_t(left)); ++j) gain += heavy[j];
            const long spread = spreadOf(sums, lines);
            if (spread - gain >= best[std::size_t(total)].spread && spread > best[std::size_t(total)].spread) break;
            const int i = order[k];
            const EvenItem& item = t.items[std::size_t(i)];
            if (item.moves > left) continue;
            if (twinOf[k] >= int(from) && ways[std::size_t(order[std::size_t(twinOf[k])])] == item.now)
                continue; // the twin before it comes first
            for (std::size_t w = 0; w < item.ways.size(); ++w) {
                if (int(w) == item.now) continue;
                for (std::size_t l = 0; l < 3; ++l) sums[l] += item.ways[w][l] - item.ways[std::size_t(item.now)][l];
                ways[std::size_t(i)] = int(w);
                const int rest = left - item.moves;
                offer(ways, spreadOf(sums, lines), total - rest);
                bool goesOn = true;
                if (rest == 1 && allPlain)
                    lastShift(total), goesOn = effort > 0 && !stopped;
                else if (rest > 0)
                    goesOn = byMoves(k + 1, rest, total, allPlain);
                ways[std::size_t(i)] = item.now;
                for (std::size_t l = 0; l < 3; ++l) sums[l] -= item.ways[w][l] - item.ways[std::size_t(item.now)][l];
                if (!goesOn) return false;
            }
        }
        return true;
    }

    /// Any number of moves: every item in turn on every line, until nothing that is left can come below the best.
    struct Free {
        Search& s;
        std::vector<int> order;
        std::vector<long> rest; ///< by position: all that is still to be hung
        std::array<int, 3> room;
        OnLines sums;
        std::vector<int> choice;
        long total = 0, effort;
        bool complete = true;

        Free(Search& search, long positions)
            : s(search), room(search.t.room), sums(search.t.fixed), choice(search.n, 0), effort(positions) {
            for (std::size_t i = 0; i < s.n; ++i) order.push_back(int(i));
            const auto size = [&](int i) { return load(i); };
            std::stable_sort(order.begin(), order.end(), [&](int a, int b) { return size(a) > size(b); });
            rest.assign(s.n + 1, 0);
            for (std::size_t k = s.n; k-- > 0;) rest[k] = rest[k + 1] + load(order[k]);
            for (int k = 0; k < s.lines; ++k) total += sums[std::size_t(k)];
            total += rest[0];
        }
        long load(int i) const {
            const OnLines& w = s.t.items[std::size_t(i)].ways.front();
            return w[0] + w[1] + w[2];
        }
        bool twins(std::size_t k) const {
            if (k == 0) return false;
            const EvenItem &a = s.t.items[std::size_t(order[k - 1])], &b = s.t.items[std::size_t(order[k])];
            return a.ways == b.ways && a.places == b.places && a.now == b.now;
        }
        void run(std::size_t k) {
            if (--effort <= 0 || s.stopped) {
                complete = false;
                return;
            }
            if ((effort & 4095) == 0 && s.t.cancelled && s.t.cancelled()) {
                s.stopped = true, complete = false;
                return;
            }
            const long known = s.best.back().spread;
            long most = sums[0], fewest = sums[0];
            for (int i = 1; i < s.lines; ++i)
                most = std::max(most, sums[std::size_t(i)]), fewest = std::min(fewest, sums[std::size_t(i)]);
            if (std::max({s.bound, most - (total - most) / (s.lines - 1), (most - fewest) - rest[k]}) >= known) return;
            if (k == s.n) {
                s.offer(choice, most - fewest, s.changesOf(choice));
                return;
            }
            const int i = order[k];
            const EvenItem& item = s.t.items[std::size_t(i)];
            std::array<std::pair<long, int>, 6> by{};
            const std::size_t count = std::min<std::size_t>(6, item.ways.size());
            for (std::size_t w = 0; w < count; ++w) {
                long heaviest = 0;
                for (int l = 0; l < s.lines; ++l)
                    heaviest = std::max(heaviest, sums[std::size_t(l)] + item.ways[w][std::size_t(l)]);
                by[w] = {heaviest * 2 - (int(w) == item.now), int(w)};
            }
            std::sort(by.begin(), by.begin() + std::ptrdiff_t(count));
            const bool twin = twins(k);
            for (std::size_t c = 0; c < count; ++c) {
                const int w = by[c].second;
                if (twin && rank(choice[std::size_t(order[k - 1])], item.now) > rank(w, item.now)) continue;
                bool fits = true;
                if (!item.places.empty())
                    for (std::size_t l = 0; l < 3; ++l) fits = fits && item.places[std::size_t(w)][l] <= room[l];
                if (!fits) continue;
                for (std::size_t l = 0; l < 3; ++l) {
                    sums[l] += item.ways[std::size_t(w)][l];
                    if (!item.places.empty()) room[l] -= item.places[std::size_t(w)][l];
                }
                choice[std::size_t(i)] = w;
                run(k + 1);
                for (std::size_t l = 0; l < 3; ++l) {
                    sums[l] -= item.ways[std::size_t(w)][l];
                    if (!item.places.empty()) room[l] += item.places[std::size_t(w)][l];
                }
                if (!complete || s.best.back().spread <= s.bound) return;
            }
        }
        static int rank(int way, int now) { return way == now ? -1 : way; }
    };

    /// Small steps from several starts that were best so far: one change, then the best pair, as long as it gets
    /// better.
    void improve(int width, int depth) {
        struct State {
            std::vector<int> ways;
            OnLines sums;
            long spread;
        };
        std::vector<State> beam{{ways, sums, spreadOf(sums, lines)}};
        std::set<std::vector<int>> seen;
        for (int step = 1; step <= depth && effort > 0 && !stopped; ++step) {
            struct Next {
                long spread;
                std::size_t state;
                int item, way;
            };
            std::vector<Next> next;
            for (std::size_t b = 0; b < beam.size(); ++b) {
                ways = beam[b].ways, sums = beam[b].sums;
                if (const int used = changesOf(ways); used + 1 <= mostMoves) lastShift(used + 1);
                for (std::size_t i = 0; i < n; ++i)
                    if (ways[i] == t.items[i].now)
                        for (std::size_t w = 0; w < t.items[i].ways.size(); ++w) {
                            if (int(w) == t.items[i].now) continue;
                            OnLines s = sums;
                            for (std::size_t l = 0; l < 3; ++l)
                                s[l] += t.items[i].ways[w][l] - t.items[i].ways[std::size_t(t.items[i].now)][l];
                            next.push_back({spreadOf(s, lines), b, int(i), int(w)});
                        }
                if (!spend(long(n) * 2)) break;
            }
            std::stable_sort(next.begin(), next.end(),
                             [](const Next& a, const Next& b) { return a.spread < b.spread; });
            std::vector<State> kept;
            for (const Next& x : next) {
                if (int(kept.size()) >= width) break;
                State s = beam[x.state];
                s.ways[std::size_t(x.item)] = x.way;
                if (!seen.insert(s.ways).second) continue;
                for (std::size_t l = 0; l < 3; ++l)
                    s.sums[l] += t.items[std::size_t(x.item)].ways[std::size_t(x.way)][l] -
                                 t.items[std::size_t(x.item)].ways[std::size_t(t.items[std::size_t(x.item)].now)][l];
                s.spread = x.spread;
                offer(s.ways, s.spread, changesOf(s.ways));
                kept.push_back(std::move(s));
            }
            beam = std::move(kept);
            if (beam.empty() || best[std::size_t(std::min(step, mostMoves))].spread <= bound) break;
        }
        for (std::size_t i = 0; i < n; ++i) ways[i] = t.items[i].now;
        sums = sumsOf(ways);
    }
};

} // namespace

EvenResult evenOut(const EvenTask& task) {
    EvenResult out;
    Search s(task);
    bool allPlain = true;
    for (std::size_t i = 0; i < s.n; ++i) allPlain = allPlain && task.items[i].moves == 1 && s.plain(int(i));
    const long before = s.best.front().spread;
    bool bestProven = before <= s.bound;
    int provenTo = 0; // byMoves searches that ended by themselves
    if (!bestProven && s.n > 0 && task.lines > 1) {
        // Few moves exactly, for as long as that is quick; then by improving; then freely for the best there is.
        const long whole = s.effort;
        s.effort = whole / 8;
        s.improve(24, std::min(s.mostMoves, 16));
        for (int k = 1; k <= s.mostMoves; ++k) {
            if (s.best[std::size_t(k)].spread <= s.bound) { // k is enough; fewer were looked at already
                break;
            }
            s.effort = whole / 5;
            if (!s.byMoves(0, k, k, allPlain)) break;
            provenTo = k;
        }
        Search::Free free(s, whole / 4);
        if (s.best.back().spread > s.bound && !s.stopped)
            free.run(0);
        else
            free.complete = s.best.back().spread <= s.bound;
        bestProven = s.best.back().spread <= s.bound || (free.complete && s.refused.back() >= s.best.back().spread);
    }
    const long least = s.best.back().spread;
    out.bound = bestProven ? least : s.bound;
    for (int k = 0; k <= s.mostMoves; ++k) {
        const Search::Kept& kept = s.best[std::size_t(k)];
        EvenChoice c{*kept.ways, kept.spread, kept.moves, kept.neutral, false};
        c.proven = c.spread <= s.bound || (bestProven && c.spread == least) ||
                   (k <= provenTo && s.refused[std::size_t(k)] >= c.spread);
        out.byMoves.push_back(std::move(c));
        if (out.byMoves.back().spread == least) break;
    }
    out.byMoves.front().proven = true; // nothing moves: there is only one
    out.cancelled = s.stopped;
    return out;
}

} // namespace lintel
