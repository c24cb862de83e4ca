#pragma once
// Schedules of feeders, for the import page.

#include "app/boards/ImportKind.h"
#include "core/exchange/FeederList.h"

namespace lintel {

class FeedersImport : public ImportKind {
public:
    QString wordOf(int field) const override;
    int fields() const override { return feederFields; }
    bool offered(int) const override { return true; }
    QStringList choices() const override;
    Settings guess(const Grid& grid, const Project& project) const override;
    std::optional<LoadUnit> unitOf(int field, const std::string& heading) const override;
    Judged judge(const Grid& grid, const Settings& how, const Project& project, const RuleBook& book,
                 const std::set<int>& leftOut) override;
    Taken take(Project& project, const RuleBook& book, bool removeGone, bool circuits) override;
    /// As it was judged last.
    const FeederList& list() const { return feeders; }

private:
    FeederList feeders;
};

} // namespace lintel
