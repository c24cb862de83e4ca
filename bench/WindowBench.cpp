// What a designer waits for: from an edit to everything on the screen showing it, on the demo and on 500 boards; and a
// list of 20 000 loads. The window is a real one, painted offscreen.

#include "app/boards/BoardsStage.h"
#include "app/boards/CircuitsPage.h"
#include "app/frame/FindBox.h"
#include "app/frame/MainWindow.h"
#include "app/issue/IssueStage.h"
#include "app/review/ReviewPanel.h"
#include "app/riser/FeedOutline.h"
#include "bench/BigBuilding.h"
#include "core/exchange/LoadList.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"

#include <QAbstractEventDispatcher>
#include <QApplication>
#include <QElapsedTimer>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

#include <benchmark/benchmark.h>
#include <fstream>
#include <unistd.h>

using namespace lintel;

namespace {

std::string folder() {
    static const std::string f = [] {
        const auto p = std::filesystem::temp_directory_path() / ("lintel-bench-" + std::to_string(::getpid()));
        std::filesystem::create_directories(p);
        return p.string();
    }();
    return f;
}

/// Types a circuit's description, and waits until the whole window shows the solution of it. `blocked`: the longest
/// that the interface's thread was busy with one turn of its events.
void editToScreen(benchmark::State& state, const std::string& file, bool circuits) {
    MainWindow window;
    window.resize(1280, 800);
    window.show();
    if (!window.openFile(QString::fromStdString(file))) return state.SkipWithError("cannot be opened");
    Session& s = window.session();
    s.waitSolved(10000);
    window.go(Stage::Boards);
    if (circuits) window.boards().openCircuits();
    QCoreApplication::processEvents();
    const CircuitId c{s.project().circuits.highest()};
    s.select(c);
    QCoreApplication::processEvents();
    double blocked = 0, editing = 0, solving = 0;
    int n = 0;
    // The interface sleeps while it waits, as it does for a person: asking all the time would take a core from the
    // solution.
    QElapsedTimer turn;
    auto* events = QAbstractEventDispatcher::instance();
    const auto told = [&] { blocked = std::max(blocked, double(turn.nsecsElapsed()) / 1e6); };
    const auto woke = QObject::connect(events, &QAbstractEventDispatcher::awake, events, [&] { turn.restart(); });
    const auto sleeps = QObject::connect(events, &QAbstractEventDispatcher::aboutToBlock, events, told);
    for (auto _ : state) {
        turn.start();
        s.edit("Describe circuit", [&](Project& p) { p.circuits.change(c)->name = "Kiosk " + std::to_string(++n); });
        told();
        editing += double(turn.nsecsElapsed()) / 1e6;
        while (s.solution().serial < s.askedFor()) QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents);
        solving += s.solution().milliseconds;
        turn.restart();
        QCoreApplication::processEvents(); // the paints that this has asked for
        told();
    }
    QObject::disconnect(woke);
    QObject::disconnect(sleeps);
    state.counters["longest_turn_ms"] = blocked;
    state.counters["edit_ms"] = editing / n;
    state.counters["solution_ms"] = solving / n;
    s.close();
}

void demo(benchmark::State& state) {
    const std::string file = folder() + "/demo.lintel";
    std::filesystem::copy_file(dataFolder() / "demos" / "saltmarket-hall.lintel", file,
                               std::filesystem::copy_options::overwrite_existing);
    editToScreen(state, file, false);
}
BENCHMARK(demo)->Unit(benchmark::kMillisecond)->UseRealTime();

void boards500(benchmark::State& state) {
    const std::string file = folder() + "/big.lintel";
    if (!std::filesystem::exists(file)) (void)saveProject(bigBuilding(500, 42), file);
    editToScreen(state, file, state.range(0) == 1);
}
BENCHMARK(boards500)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond)->UseRealTime();

/// Opens the demo (0) or 500 boards (1) at the stage of sheets, with the set made and painted.
bool openSheets(MainWindow& window, int big) {
    const std::string file = folder() + (big ? "/big.lintel" : "/demo.lintel");
    if (big && !std::filesystem::exists(file)) (void)saveProject(bigBuilding(500, 42), file);
    if (!big)
        std::filesystem::copy_file(dataFolder() / "demos" / "saltmarket-hall.lintel", file,
                                   std::filesystem::copy_options::overwrite_existing);
    window.resize(1280, 800);
    window.show();
    if (!window.openFile(QString::fromStdString(file))) return false;
    window.session().waitSolved();
    window.go(Stage::Issue);
    do QCoreApplication::processEvents();
    while (!window.issue().isCurrent());
    return true;
}

/// From a key in the list of sheets to the next sheet on the screen.
void turnPage(benchmark::State& state) {
    MainWindow window;
    if (!openSheets(window, int(state.range(0)))) return state.SkipWithError("cannot be opened");
    QListWidget& sheets = window.issue().sheets();
    double slowest = 0;
    QElapsedTimer clock;
    for (auto _ : state) {
        clock.start();
        sheets.setCurrentRow((sheets.currentRow() + 1) % sheets.count());
        window.issue().sheet().repaint();
        slowest = std::max(slowest, double(clock.nsecsElapsed()) / 1e6);
    }
    state.counters["slowest_ms"] = slowest;
    window.session().close();
}
BENCHMARK(turnPage)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

/// A column is made wider on the sheet, until the schedule is painted with it.
void shapeForm(benchmark::State& state) {
    MainWindow window;
    if (!openSheets(window, int(state.range(0)))) return state.SkipWithError("cannot be opened");
    Session& s = window.session();
    window.issue().showSchedule(s.project().boards.begin()->id);
    window.issue().shapeForm(3);
    QCoreApplication::processEvents();
    auto* width = window.issue().form().findChild<QLineEdit*>("columnWidth");
    if (!width) return state.SkipWithError("no column is chosen");
    const Project before = s.project();
    bool wide = false;
    for (auto _ : state) {
        wide = !wide;
        width->setText(wide ? "1.5 in" : "1.6 in");
        Q_EMIT width->editingFinished();
        do QCoreApplication::processEvents();
        while (s.solution().serial < s.askedFor()); // of many sheets the list follows when nothing is edited any more
        window.issue().sheet().repaint();
    }
    if (s.project() == before) state.SkipWithError("nothing was changed");
    window.session().close();
}
BENCHMARK(shapeForm)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond)->UseRealTime();

/// The outline beside the riser, after a solution.
void outline500(benchmark::State& state) {
    Session s;
    if (s.begin(bigBuilding(500, 42))) return state.SkipWithError("cannot be begun");
    s.waitSolved(10000);
    FeedOutline outline(s);
    outline.resize(212, 640);
    outline.show();
    QCoreApplication::processEvents();
    for (auto _ : state) {
        Q_EMIT s.solved();
        QCoreApplication::processEvents();
    }
    s.close();
}
BENCHMARK(outline500)->Unit(benchmark::kMillisecond);

/// A letter typed into Find, with 500 boards and 21 000 circuits to find.
void findLetter(benchmark::State& state) {
    MainWindow window;
    window.resize(1280, 800);
    window.show();
    if (window.session().begin(bigBuilding(500, 42))) return state.SkipWithError("cannot be begun");
    window.session().waitSolved(10000);
    QCoreApplication::processEvents();
    FindBox& find = window.find();
    find.setFocus();
    bool more = false;
    for (auto _ : state) {
        more = !more;
        find.setText(more ? "kitch" : "kitche");
        Q_EMIT find.textEdited(find.text());
        QCoreApplication::processEvents();
    }
    window.session().close();
}
BENCHMARK(findLetter)->Unit(benchmark::kMillisecond);

/// The panel of a review of 500 boards.
struct BigReview {
    Session s;
    bool begun = !s.begin(bigBuilding(500, 42)) && s.waitSolved(10000);
    ReviewPanel panel{s};
    BigReview() {
        panel.resize(330, 700);
        panel.show();
    }
    ~BigReview() { s.close(); }
    void open() {
        panel.begin();
        QCoreApplication::processEvents();
    }
};
void reviewOpens(benchmark::State& state) {
    BigReview review;
    if (!review.begun) return state.SkipWithError("cannot be begun");
    for (auto _ : state) review.open();
}
BENCHMARK(reviewOpens)->Unit(benchmark::kMillisecond);
/// A figure ticked, with everything that is shown of it.
void reviewTicks(benchmark::State& state) {
    BigReview review;
    if (!review.begun) return state.SkipWithError("cannot be begun");
    review.s.setReviewing(true);
    review.panel.findChild<QLineEdit*>("reviewer")->setText("A. Checker");
    review.open();
    auto* tick = review.panel.findChild<QPushButton*>("reviewTick");
    for (auto _ : state) {
        tick->click();
        QCoreApplication::processEvents();
    }
    state.counters["ticks"] = double(review.s.project().ticks.size());
}
BENCHMARK(reviewTicks)->Unit(benchmark::kMillisecond);

void listOf20000(benchmark::State& state) {
    const std::string file = folder() + "/list.csv";
    std::ofstream out(file);
    out << "Tag,Name,Room,kW,Volts,Phases,Board,PF\n";
    for (int i = 0; i < 20'000; ++i)
        out << "E-" << i << ",Equipment " << i << ",Room " << i / 8 << "," << 1 + i % 9 << ".5,208,3,DP-" << i / 40
            << ",0.9\n";
    out.close();
    for (auto _ : state) {
        Project p;
        const auto g = readGrid(file);
        const LoadList list = readLoads(*g, guessSettings(*g), p);
        applyList(p, list);
        benchmark::DoNotOptimize(p);
        state.counters["rows"] = double(list.entering());
    }
}
BENCHMARK(listOf20000)->Unit(benchmark::kMillisecond);

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    qputenv("LINTEL_STATE", QByteArray::fromStdString(folder()));
    QApplication app(argc, argv);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    std::error_code ec;
    std::filesystem::remove_all(folder(), ec);
}
