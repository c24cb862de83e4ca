#include "app/boards/ModelImport.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"

#include <QObject>

namespace lintel {
namespace {

constexpr std::size_t first = 1; ///< row of the grid: the headings stand above
enum Cell : std::size_t { What, NumberOrTag, Name, Storey, Size, LoadText, Identity };

} // namespace

Outcome<ImportKind::Read> ModelImport::read(const std::filesystem::path& file, const GridOptions& options,
                                            UnitSystem units) const {
    auto m = readBuildingModel(file, options.progress);
    if (!m) return m.error();
    Read out;
    out.grid.rows.push_back(modelHeadings());
    out.grid.lines.push_back(0);
    for (const ModelRow& row : rowsOf(*m)) {
        out.grid.rows.push_back(cellsOf(*m, row, units));
        out.grid.lines.push_back(int(out.grid.rows.size()) - 1);
    }
    out.model = std::make_shared<const BuildingModel>(std::move(*m));
    return out;
}

ImportKind::Settings ModelImport::guess(const Grid& grid, const Project&) const {
    Settings how;
    how.columns.assign(grid.columns(), 1); // each means what its heading says
    return how;
}

BuildingModel ModelImport::mended(const Grid& grid, const std::vector<ModelRow>& order, std::vector<Row>& rows) const {
    BuildingModel out = *model;
    for (std::size_t i = 0; i < order.size(); ++i) {
        const auto text = [&](Cell c) { return cellAt(grid, first + i, c); };
        switch (order[i].of) {
        case ModelRow::Of::Storey:
            out.storeys[order[i].at].name = text(Name);
            break;
        case ModelRow::Of::Space:
            out.spaces[order[i].at].number = text(NumberOrTag);
            out.spaces[order[i].at].name = text(Name);
            break;
        case ModelRow::Of::Device:
            out.devices[order[i].at].tag = text(NumberOrTag);
            if (text(Name).empty())
                rows[i].problem(Name, QObject::tr("a thing has a name").toStdString());
            else
                out.devices[order[i].at].name = text(Name);
            break;
        case ModelRow::Of::Walls:
            break;
        }
    }
    return out;
}

ImportKind::Judged ModelImport::judge(const Grid& grid, const Settings&, const Project& p, const RuleBook&,
                                      const std::set<int>& leftOut) {
    Judged out;
    const auto order = rowsOf(*model);
    out.rows.resize(order.size());
    left.assign(order.size(), 0);
    for (std::size_t i = 0; i < order.size(); ++i) {
        Row& row = out.rows[i];
        row.gridRow = int(first + i);
        row.line = int(i) + 1;
        row.leftOut = leftOut.count(row.gridRow) > 0;
        const auto given = cellsOf(*model, order[i], p.basis.units);
        for (std::size_t c = 0; c < given.size(); ++c)
            if (const bool open = c == Name ? order[i].of != ModelRow::Of::Walls
                                            : c == NumberOrTag && order[i].of != ModelRow::Of::Storey &&
                                                  order[i].of != ModelRow::Of::Walls;
                !open && cellAt(grid, first + i, c) != given[c])
                row.problem(int(c), QObject::tr("this stays as the model has it: %1").arg(q(given[c])).toStdString(),
                            false);
    }
    judged = mended(grid, order, out.rows);
    for (std::size_t i = 0; i < order.size(); ++i) left[i] = out.rows[i].leftOut || out.rows[i].stops();
    Project trial = p;
    const ModelTaken t = takeModel(trial, judged, left, false);
    for (std::size_t i = 0; i < order.size(); ++i) {
        for (const std::string& words : t.rows[i].look) out.rows[i].problem(-1, words, t.rows[i].refused);
        QStringList what;
        for (const std::string& words : t.rows[i].what) what << q(words);
        out.rows[i].what = what.join(", ");
        out.rows[i].fresh = t.rows[i].fresh;
    }
    for (const std::string& n : judged.notes) out.notes << q(n);
    for (const std::string& n : t.notes) out.notes << q(n);
    if (t.added) out.sums << QObject::tr("%1 new").arg(t.added);
    if (t.changed) out.sums << QObject::tr("%1 changed").arg(t.changed);
    if (t.same) out.sums << QObject::tr("%1 the same").arg(t.same);
    if (t.refused) out.sums << QObject::tr("%1 with problems stay out").arg(t.refused);
    if (!leftOut.empty()) out.sums << QObject::tr("%1 left out by hand").arg(leftOut.size());
    out.gone = t.gone.size() + std::size_t(t.goneWalls);
    if (!t.gone.empty())
        out.sums << QObject::tr("%1 no longer in the model (%2)").arg(t.gone.size()).arg(someNames(t.gone, 6));
    if (t.goneWalls) out.sums << QObject::tr("%1 walls and doors no longer in it").arg(t.goneWalls);
    out.entering = std::size_t(t.added + t.changed);
    return out;
}

ImportKind::Taken ModelImport::take(Project& p, const RuleBook&, bool removeGone, bool) {
    const ModelTaken t = takeModel(p, judged, left, removeGone);
    Taken out;
    out.words = QObject::tr("%1 added, %2 changed, %3 the same").arg(t.added).arg(t.changed).arg(t.same);
    if (removeGone && (!t.gone.empty() || t.goneWalls))
        out.words += QObject::tr("; %1 removed").arg(int(t.gone.size()) + t.goneWalls);
    if (t.refused) out.words += QObject::tr("; %1 stayed out").arg(t.refused);
    out.look = t.refused > 0;
    return out;
}

} // namespace lintel
