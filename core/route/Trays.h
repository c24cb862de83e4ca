#pragma once
// The trays and risers of a building as a graph, and the shortest way along them.

#include "core/route/Measure.h"

#include <memory>

namespace lintel {

/// A way by tray: off the tray to it, along it, off it again.
struct TrayRoute {
    double off = 0, along = 0, rise = 0; ///< m: beside trays on the level, on them, up and down risers
    double height = 0, heightEnd = 0;    ///< of the tray above the floor where the way goes on and comes off, m
    std::vector<std::pair<LevelId, Point>> path;
    std::vector<TrayId> trays; ///< in the order they are walked
};

/// Built once for a project; answers from one place are kept, so that a board's many circuits cost one search.
class TrayGraph {
public:
    explicit TrayGraph(const Project& project);
    ~TrayGraph();
    TrayGraph(const TrayGraph&) = delete;
    bool empty() const;
    /// The shortest way by trays; nothing where no tray lies on either level or they do not connect.
    std::optional<TrayRoute> route(const Place& from, const Place& to) const;

private:
    struct Parts;
    std::unique_ptr<Parts> parts;
};

/// By the run's choice: along trays, or up, across and down as `measure` has it. `trays` may be null.
std::optional<Measured> measure(const Project& project, const Place& from, const Place& to, const TrayGraph* trays,
                                RouteBy by);

/// What lies in a tray: the branch runs and feeders whose way goes over it.
struct TrayLoad {
    std::vector<Ref> runs; ///< circuits, boards and transformers fed
};
std::map<TrayId, TrayLoad> trayLoads(const Project& project);

} // namespace lintel
