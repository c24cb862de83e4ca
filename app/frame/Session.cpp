#include "app/frame/Session.h"

#include "app/frame/Counted.h"
#include "app/frame/Settings.h"
#include "app/frame/UnderlayShelf.h"

#include "core/base/TextFile.h"
#include "core/compare/Merge.h"
#include "core/plan/LinkedFiles.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"

#include <QCoreApplication>
#include <QCursor>
#include <QElapsedTimer>
#include <QFile>
#include <QGuiApplication>
#include <QStandardPaths>
#include <QThreadPool>
#include <QTimer>

#include <unistd.h>

namespace lintel {

namespace fs = std::filesystem;

SheetInput Session::sheetInput(const Solution& s) const {
    return {s.project, *s.book, s.results, [this](const Underlay& u) { return shelf->content(u); }, file()};
}

Session::Session(QObject* parent) : QObject(parent), shelf(new UnderlayShelf(*this)) {
    solver = [](const Project& p, const RuleBook& b) { return solve(p, b); };
    auto nec = loadRuleBook("nec-2023");
    book = std::make_shared<RuleBook>(nec ? *nec : RuleBook{});
    auto s = std::make_shared<Solution>();
    s->book = book;
    s->results.boards.resize(1), s->results.circuits.resize(1), s->results.transformers.resize(1),
        s->results.sources.resize(1);
    newest = s;
    document.onChange = [this](const Edit&) {
        ++serial;
        ask();
        Q_EMIT edited();
    };
    worker = std::thread([this] { work(); });
}

Session::~Session() {
    {
        std::lock_guard lock(mutex);
        stopping = true;
    }
    wake.notify_one();
    worker.join();
}

fs::path Session::stateFolder() {
    const QString base = qEnvironmentVariableIsSet("LINTEL_STATE")
                             ? qEnvironmentVariable("LINTEL_STATE")
                             : QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
    const fs::path folder = QFile::encodeName(base).toStdString();
    std::error_code ec;
    fs::create_directories(folder / "recovery", ec);
    return folder;
}

QSettings settings() {
    return {QString::fromStdString((Session::stateFolder() / "settings.ini").string()), QSettings::IniFormat};
}

QStringList Session::recentFiles() {
    QSettings s = settings();
    return s.value("recent").toStringList();
}
void Session::forgetRecent(const QString& file) {
    QSettings s = settings();
    QStringList list = s.value("recent").toStringList();
    list.removeAll(file);
    s.setValue("recent", list);
}
void Session::remember(const fs::path& file) {
    QSettings s = settings();
    QStringList list = s.value("recent").toStringList();
    const QString name = QString::fromStdString(textOfPath(fs::absolute(file)));
    list.removeAll(name);
    list.prepend(name);
    while (list.size() > 10) list.removeLast();
    s.setValue("recent", list);
}

std::vector<fs::path> Session::leftBehind() {
    Document none;
    const Keeper keeper(none, stateFolder());
    std::vector<fs::path> found = keeper.leftBehind({});
    for (const QString& f : recentFiles())
        for (const fs::path& journal : keeper.leftBehind(pathFromText(f.toStdString())))
            if (std::find(found.begin(), found.end(), journal) == found.end()) found.push_back(journal);
    return found;
}

int Session::oldVersions() {
    QSettings s = settings();
    return std::clamp(s.value("oldVersions", 0).toInt(), 0, 99);
}
void Session::keepOldVersions(int most) {
    QSettings s = settings();
    s.setValue("oldVersions", most);
}

std::optional<Error> Session::useBook(const Basis& basis) {
    auto b = loadRuleBook(basis.ruleBook, basis.ownValues);
    if (!b) return b.error();
    book = std::make_shared<RuleBook>(std::move(*b));
    bookId = basis.ruleBook;
    bookValues = basis.ownValues;
    return std::nullopt;
}

void Session::start(Project p, const fs::path& file, const std::string& bytes, bool forReading) {
    keeper.begin(std::move(p), file, bytes, forReading);
    fromDisk = project();
    beforeMerges.clear();
    begun();
}

void Session::begun() {
    open_ = true;
    journalTold = false;
    chosen.clear();
    journalTrouble();
    ++serial;
    ask();
    waitSolved();
    Q_EMIT opened();
    Q_EMIT edited();
    Q_EMIT selectionChanged();
}

void Session::journalTrouble() {
    const bool trouble = open_ && !keeper.reading() && !keeper.journalHealthy();
    if (trouble && !journalTold)
        say(tr("The recovery journal cannot be written (is the disk full?). Save often: a crash would lose what is not "
               "saved."),
            true);
    if (!trouble && journalTold) say(tr("The recovery journal can be written again, and holds all edits."));
    journalTold = trouble;
    if (!trouble && keeper.journalDescriptor() >= 0 && !syncing) QTimer::singleShot(1000, this, &Session::syncJournal);
    syncing = !trouble;
}

void Session::syncJournal() {
    syncing = false;
    if (const int fd = ::dup(keeper.journalDescriptor()); fd >= 0) // on a thread of its own: a disk may take its time
        QThreadPool::globalInstance()->start([fd] {
            ::fdatasync(fd);
            ::close(fd);
        });
}

std::optional<Error> Session::open(const fs::path& file, As as) {
    auto text = readText(file);
    if (!text) return text.error();
    auto p = readProject(*text, textOfPath(file.filename()));
    if (!p) return p.error();
    if (auto bad = useBook(p->basis)) return bad;
    if (as == As::Copy) {
        relinkFiles(*p, fs::absolute(file), {});
        start(std::move(*p), {}, {});
        return std::nullopt;
    }
    const auto left = keeper.leftBehind(fs::absolute(file));
    start(std::move(*p), file, *text, as == As::Reading);
    remember(this->file());
    if (reading())
        say(tr("%1 is open in another window: here it can be read. Save as… makes a copy to work on.")
                .arg(QString::fromStdString(textOfPath(file.filename()))));
    else if (!left.empty())
        say(tr("Edits from a run that ended badly were kept: File ▸ Start page offers them."));
    return std::nullopt;
}

namespace {
QString mergeLabel() { return Session::tr("Merge what is in the file"); }
} // namespace

std::optional<Error> Session::begin(const Project& s) {
    if (auto bad = useBook(s.basis)) return bad;
    start(s, {}, {});
    return std::nullopt;
}

std::optional<Error> Session::beginFrom(const fs::path& shipped) {
    auto p = loadProject(shipped);
    if (!p) return p.error();
    p->extra.drop("about");
    relinkFiles(*p, shipped, {});
    return begin(*p);
}

std::optional<Error> Session::recover(const fs::path& journal) {
    auto r = readJournal(journal);
    if (!r) return r.error();
    if (!*r) return Error{textOfPath(journal), "there is nothing to recover", ""};
    if (auto bad = useBook((*r)->recovered.basis)) return bad;
    std::string differs;
    if (!(*r)->fits)
        if (auto onDisk = loadProject((*r)->project)) differs = difference(*onDisk, (*r)->recovered, "").words();
    if (auto bad = keeper.recover(journal)) return bad;
    fromDisk = (*r)->base;
    beforeMerges.clear();
    begun();
    const QString of = QString::fromStdString(textOfPath((*r)->project.filename()));
    if ((*r)->unread > 0)
        say(tr("The journal is damaged: %1 not be read, and it is kept.")
                .arg(counted((*r)->unread, tr("line of it could"), tr("lines of it could"))),
            true);
    else if (!(*r)->fits)
        say(differs.empty() ? tr("%1 is not there any more: what was recovered is a copy without a file.").arg(of)
                            : tr("%1 was changed meanwhile: what was recovered is a copy beside it. It differs in %2.")
                                  .arg(of, QString::fromStdString(differs)));
    return std::nullopt;
}

SaveAnswer Session::save(const SaveOptions& options) {
    if (file().empty()) return {SaveTrouble::Failed, {"", "the project has no file yet", "Use Save as."}};
    return saveAs(file(), options);
}

Outcome<Merged> Session::mergeWithFile() {
    const std::string name = textOfPath(file().filename());
    if (reviewing_) return Error{name, "a review is on: nothing of the design is edited", "End it first, then save."};
    const auto text = readText(file());
    if (!text) return text.error();
    auto theirs = readProject(*text, name);
    if (!theirs) return theirs.error();
    Merged merged = mergeProjects(fromDisk, project(), *theirs);
    const bool did = edit(mergeLabel(), [&](Project& p) { p = merged.project; });
    if (!did && merged.project != project()) {
        const auto& refused = document.refusal();
        return Error{name, refused ? refused->text() : "it could not be merged", "Save beside it instead."};
    }
    keeper.haveTaken(*text);
    if (did) beforeMerges.push_back(fromDisk);
    fromDisk = std::move(*theirs);
    return merged;
}

SaveAnswer Session::saveAs(const fs::path& to, SaveOptions options) {
    const bool elsewhere = !file().empty() && fs::absolute(to).parent_path() != file().parent_path();
    const auto linked = linkedFiles(project());
    if (elsewhere && std::any_of(linked.begin(), linked.end(), [](const LinkedFile& f) { return f.relative(); }))
        document.edit("Keep drawings and pictures linked", [&](Project& p) { relinkFiles(p, file(), to); });
    options.oldVersions = oldVersions();
    const SaveAnswer answer = keeper.save(to, options);
    if (!answer) return answer;
    fromDisk = project();
    beforeMerges.clear();
    remember(file());
    Q_EMIT edited();
    say(tr("Saved %1").arg(QString::fromStdString(textOfPath(file().filename()))));
    return answer;
}

void Session::close() {
    keeper.letGo();
    open_ = false;
}

QString Session::title() const {
    if (!open_) return "Lintel";
    return QString::fromStdString(document.project().basis.title) + (reading()   ? tr(" (for reading)")
                                                                     : changed() ? QString(" •")
                                                                                 : QString());
}

void Session::setReviewing(bool on) {
    reviewing_ = on;
    reviewUndos = reviewRedos = 0;
}

bool Session::reviewEdit(const QString& label, const std::function<void(Project&)>& change) {
    const bool on = std::exchange(reviewing_, false);
    const bool did = edit(label, change);
    reviewing_ = on;
    if (did && on) {
        ++reviewUndos;
        reviewRedos = 0;
    }
    return did;
}

bool Session::edit(const QString& label, const std::function<void(Project&)>& change, const std::string& mergeKey) {
    if (reviewing_) {
        say(tr("This is a review: nothing of the design is edited. End it, in the panel at the left, to work on."),
            true);
        return false;
    }
    if (reading()) {
        say(tr("This project is open for reading. Save as… makes a copy to work on."), true);
        return false;
    }
    const bool did = document.edit(label.toStdString(), change, mergeKey);
    if (const auto& refused = document.refusal())
        say(tr("Not done: %1").arg(QString::fromStdString(refused->text())), true);
    if (did && !followBook()) {
        document.undo();
        return false;
    }
    if (did) journalTrouble();
    dropMissingSelection();
    return did;
}

bool Session::followBook() {
    const Basis& b = document.project().basis;
    if (b.ruleBook == bookId && b.ownValues == bookValues) return true;
    if (auto bad = useBook(b)) {
        say(QString::fromStdString(bad->text()), true);
        return false;
    }
    ask();
    return true;
}

void Session::undo() {
    if (reviewing_ && reviewUndos == 0)
        return say(tr("This is a review: only its own ticks and remarks are undone. End it to undo more."), true);
    if (reviewing_) {
        --reviewUndos;
        ++reviewRedos;
    }
    const QString label = undoLabel();
    document.undo();
    if (label == mergeLabel() && !beforeMerges.empty()) { // their work is no part of this any more: saving asks again
        fromDisk = std::move(beforeMerges.back());
        beforeMerges.pop_back();
        keeper.haveNotTaken();
    }
    followBook();
    dropMissingSelection();
    if (!label.isEmpty()) say("Undone: " + label);
}
void Session::redo() {
    if (reviewing_ && reviewRedos == 0)
        return say(tr("This is a review: only its own ticks and remarks come again."), true);
    if (reviewing_) {
        ++reviewUndos;
        --reviewRedos;
    }
    document.redo();
    followBook();
    dropMissingSelection();
    if (canUndo()) say("Redone: " + undoLabel());
}

void Session::dropMissingSelection() {
    const Project& p = project();
    std::vector<Ref> left;
    for (Ref r : chosen) {
        bool there = false;
        Project::eachTable([&](const char*, auto member) {
            using T = std::decay_t<decltype(*(p.*member).begin())>;
            if (r.is<T>()) there = (p.*member).has(r.as<T>());
        });
        if (there) left.push_back(r);
    }
    if (left != chosen) select(std::move(left));
}

void Session::select(std::vector<Ref> things) {
    if (things == chosen) return;
    chosen = std::move(things);
    Q_EMIT selectionChanged();
}

BoardId Session::boardOfSelection() const {
    const Ref r = selection();
    if (const Circuit* c = project().circuits.find(r.as<Circuit>())) return c->board;
    if (const Device* d = project().devices.find(r.as<Device>()))
        if (const Circuit* c = project().circuits.find(d->circuit)) return c->board;
    if (const PlacedView* v = project().placedViews.find(r.as<PlacedView>()))
        return project().boards.has(v->about.as<Board>()) ? v->about.as<Board>() : BoardId{};
    return project().boards.has(r.as<Board>()) ? r.as<Board>() : BoardId{};
}

void Session::ask() {
    {
        std::lock_guard lock(mutex);
        request = Request{document.project(), book, serial, solver};
    }
    wake.notify_one();
}

void Session::work() {
    for (;;) {
        std::optional<Request> next;
        {
            std::unique_lock lock(mutex);
            wake.wait(lock, [&] { return stopping || request; });
            if (stopping) return;
            next.swap(request);
        }
        QElapsedTimer clock;
        clock.start();
        auto s = std::make_shared<Solution>();
        s->project = std::move(next->project);
        s->book = next->book;
        s->serial = next->serial;
        try {
            s->results = next->solver(s->project, *s->book);
            s->milliseconds = double(clock.nsecsElapsed()) / 1e6;
            s->snags = findSnags(s->project, *s->book, s->results);
        } catch (const std::exception& e) {
            QMetaObject::invokeMethod(
                this,
                [this, what = QString::fromUtf8(e.what()), of = s->serial] {
                    unsolvable = std::max(unsolvable, of);
                    say(tr("This could not be worked out: %1. What is shown is from before the last edit; undo it.")
                            .arg(what),
                        true);
                },
                Qt::QueuedConnection);
            continue;
        }
        QMetaObject::invokeMethod(
            this,
            [this, s] {
                if (s->serial < newest->serial) return;
                newest = s;
                Q_EMIT solved();
            },
            Qt::QueuedConnection);
    }
}

bool Session::waitSolved(int milliseconds) {
    QElapsedTimer clock;
    clock.start();
    bool told = false;
    while (newest->serial < serial && unsolvable < serial && clock.elapsed() < milliseconds) {
        QCoreApplication::sendPostedEvents(this, QEvent::MetaCall);
        if (newest->serial >= serial) break;
        if (!told && clock.elapsed() > 300) {
            told = true;
            QGuiApplication::setOverrideCursor(QCursor(Qt::WaitCursor));
        }
        std::this_thread::sleep_for(std::chrono::microseconds(200));
    }
    if (told) QGuiApplication::restoreOverrideCursor();
    return newest->serial >= serial;
}

std::optional<Error> Session::refuseOld(int milliseconds) {
    if (waitSolved(milliseconds)) return std::nullopt;
    return Error{"", "the last edit is not worked out, and what is shown is from before it: nothing was written",
                 unsolvable >= serial ? "Undo it, and write again." : "Wait a moment, and write again."};
}

} // namespace lintel
