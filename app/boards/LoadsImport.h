#pragma once
// Lists of loads from other disciplines, for the import page.

#include "app/boards/ImportKind.h"
#include "core/exchange/LoadList.h"

namespace lintel {

class LoadsImport : public ImportKind {
public:
    QString wordOf(int field) const override;
    int fields() const override { return listFields; }
    bool offered(int field) const override;
    bool canRemoveGone() const override { return true; }
    bool canCircuit() const override { return true; }
    Settings guess(const Grid& grid, const Project& project) const override;
    std::optional<LoadUnit> unitOf(int field, const std::string& heading) const override;
    Judged judge(const Grid& grid, const Settings& how, const Project& project, const RuleBook& book,
                 const std::set<int>& leftOut) override;
    Taken take(Project& project, const RuleBook& book, bool removeGone, bool circuits) override;
    /// As it was judged last.
    const LoadList& list() const { return loads; }

private:
    LoadList loads;
};

} // namespace lintel
