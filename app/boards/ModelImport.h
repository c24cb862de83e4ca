#pragma once
// Building models, for the import page: a line for each storey, space and electrical thing, and one for the walls of a
// storey.

#include "app/boards/ImportKind.h"
#include "core/exchange/TakeModel.h"

namespace lintel {

class ModelImport : public ImportKind {
public:
    QString wordOf(int) const override { return {}; }
    int fields() const override { return 0; }
    bool offered(int) const override { return false; }
    bool canRemoveGone() const override { return true; }
    Outcome<Read> read(const std::filesystem::path& file, const GridOptions& options, UnitSystem units) const override;
    void hold(const Read& read) override { model = read.model; }
    Settings guess(const Grid& grid, const Project& project) const override;
    std::optional<LoadUnit> unitOf(int, const std::string&) const override { return std::nullopt; }
    Judged judge(const Grid& grid, const Settings& how, const Project& project, const RuleBook& book,
                 const std::set<int>& leftOut) override;
    Taken take(Project& project, const RuleBook& book, bool removeGone, bool circuits) override;

private:
    /// With what somebody typed into the cells: numbers, tags and names.
    BuildingModel mended(const Grid& grid, const std::vector<ModelRow>& order, std::vector<Row>& rows) const;

    std::shared_ptr<const BuildingModel> model;
    BuildingModel judged; ///< as it was judged last
    std::vector<char> left;
};

} // namespace lintel
