// A supply without an earthed point, with nothing said of what watches its insulation: a first fault stands until
// somebody is told.

#include "core/check/Check.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.book.metric()) return;
    for (const Source& s : in.project.sources)
        if (s.earthing == Earthing::IT && s.insulationMonitor.empty())
            into.push_back({&self, Severity::Stop, s.id,
                            fmt::format("{}: an IT supply, and nothing tells of a first fault", s.name),
                            in.book.cite("insulationMonitor")});
}

std::vector<Remedy> remedies(const CheckInput&, const Snag& s) {
    const SourceId id = s.about.as<Source>();
    const auto record = [id](const char* words) {
        return [=](Project& p) { p.sources.change(id)->insulationMonitor = words; };
    };
    return {{"Fit an insulation monitor", record("insulation monitor")},
            {"Fit one that finds the circuit too", record("insulation monitor with fault location")},
            {"Record: a first fault opens the supply", record("none: a first fault opens the supply")}};
}

} // namespace

extern const CheckRule insulationMonitorRule;
const CheckRule insulationMonitorRule{.id = "insulation-monitor", .remedies = remedies, .find = find};

} // namespace lintel
