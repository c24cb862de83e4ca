#include "app/frame/CommandWords.h"

#include <QHash>
#include <QObject>
#include <QStringList>

namespace lintel {
namespace {

constexpr std::pair<const char*, const char*> table[] = {
    {"startPage", QT_TRANSLATE_NOOP("QObject", "new project begin home demo starter template")},
    {"open", QT_TRANSLATE_NOOP("QObject", "file project load")},
    {"saveAs", QT_TRANSLATE_NOOP("QObject", "copy rename file")},
    {"export", QT_TRANSLATE_NOOP("QObject", "pdf dxf svg png plot drawings set write")},
    {"print", QT_TRANSLATE_NOOP("QObject", "plot printer paper")},
    {"compare", QT_TRANSLATE_NOOP("QObject", "difference revision changes what has changed last issue")},
    {"exportLists",
     QT_TRANSLATE_NOOP("QObject", "export excel spreadsheet xlsx schedules take-off materials quantities")},
    {"printWorkings", QT_TRANSLATE_NOOP("QObject", "calculation print why report")},
    {"undo", QT_TRANSLATE_NOOP("QObject", "back take back")},
    {"redo", QT_TRANSLATE_NOOP("QObject", "again repeat")},
    {"pin", QT_TRANSLATE_NOOP("QObject", "lock fix hold keep")},
    {"selectNothing", QT_TRANSLATE_NOOP("QObject", "deselect none clear selection")},
    {"goBasis",
     QT_TRANSLATE_NOOP("QObject", "settings options preferences code rule book standard project limits company")},
    {"goPlan", QT_TRANSLATE_NOOP("QObject", "floor drawing dxf underlay walls rooms lighting devices")},
    {"goBoards", QT_TRANSLATE_NOOP("QObject", "panels panelboards circuits schedule distribution")},
    {"goRiser", QT_TRANSLATE_NOOP("QObject", "one-line single-line diagram distribution")},
    {"goRuns", QT_TRANSLATE_NOOP("QObject", "cables feeders conductors voltage drop lengths")},
    {"goIssue", QT_TRANSLATE_NOOP("QObject", "sheets print pdf revision title block lists")},
    {"assumptions", QT_TRANSLATE_NOOP("QObject", "unknown estimates not entered rests on")},
    {"dark", QT_TRANSLATE_NOOP("QObject", "theme night colours light mode")},
    {"bench",
     QT_TRANSLATE_NOOP("QObject", "calculator calculation quick one-off sums voltage drop ampacity fault motor")},
    {"review", QT_TRANSLATE_NOOP("QObject", "checker remarks comments ticks approve sign")},
    {"allSnags", QT_TRANSLATE_NOOP("QObject", "errors warnings problems violations list check")},
    {"addBoard", QT_TRANSLATE_NOOP("QObject", "new panel panelboard switchboard distribution insert create")},
    {"copyBoard", QT_TRANSLATE_NOOP("QObject", "duplicate panel")},
    {"addTransformer", QT_TRANSLATE_NOOP("QObject", "new insert create")},
    {"addSource", QT_TRANSLATE_NOOP("QObject", "new utility generator supply service insert create")},
    {"takeOut", QT_TRANSLATE_NOOP("QObject", "delete remove")},
    {"addLevel", QT_TRANSLATE_NOOP("QObject", "floor storey new insert")},
    {"keyedNote", QT_TRANSLATE_NOOP("QObject", "hexagon annotation remark text plan sheet new insert")},
    {"removeLevel", QT_TRANSLATE_NOOP("QObject", "floor storey delete")},
    {"addLoad", QT_TRANSLATE_NOOP("QObject", "new equipment insert")},
    {"takeTypes", QT_TRANSLATE_NOOP("QObject", "import library devices luminaires")},
    {"writeTypes", QT_TRANSLATE_NOOP("QObject", "export library devices luminaires")},
    {"removeBoard", QT_TRANSLATE_NOOP("QObject", "delete panel")},
    {"levelBoard", QT_TRANSLATE_NOOP("QObject", "balance phases rebalance even out imbalance")},
    {"sizeBoard", QT_TRANSLATE_NOOP("QObject", "slots ways poles spaces number change")},
    {"nameCircuits", QT_TRANSLATE_NOOP("QObject", "rename descriptions text")},
    {"allCircuits", QT_TRANSLATE_NOOP("QObject", "search table filter edit many replace")},
    {"importLoads",
     QT_TRANSLATE_NOOP("QObject", "import load list spreadsheet excel xlsx csv mechanical equipment schedule")},
    {"exportLoads", QT_TRANSLATE_NOOP("QObject", "export load list spreadsheet excel xlsx csv")},
    {"importFeeders", QT_TRANSLATE_NOOP("QObject", "import feeder cable list spreadsheet excel xlsx csv")},
    {"importModel", QT_TRANSLATE_NOOP("QObject", "import ifc gbxml bim architect rooms spaces walls levels underlay")},
    {"exportFeeders", QT_TRANSLATE_NOOP("QObject", "export feeder cable list spreadsheet excel xlsx csv")},
    {"nameRuns", QT_TRANSLATE_NOOP("QObject", "cable numbers tags rename")},
    {"loadReport", QT_TRANSLATE_NOOP("QObject", "missing unfed incomplete")},
    {"circuitMissing", QT_TRANSLATE_NOOP("QObject", "automatic assign unfed")},
    {"guide", QT_TRANSLATE_NOOP("QObject", "help manual how to documentation")},
    {"keys", QT_TRANSLATE_NOOP("QObject", "shortcuts keyboard help")},
    {"about", QT_TRANSLATE_NOOP("QObject", "version licence")},
};

} // namespace

QString otherWordsOf(const QString& command) {
    static const QHash<QString, const char*> words = [] {
        QHash<QString, const char*> all;
        for (const auto& [name, text] : table) all.insert(name, text);
        return all;
    }();
    const char* text = words.value(command, nullptr);
    return text ? QObject::tr(text) : QString();
}

QStringList commandsWithOtherWords() {
    QStringList names;
    for (const auto& [name, text] : table) names << name;
    return names;
}

} // namespace lintel
