#include "app/frame/Session.h"

#include "app/frame/UnderlayShelf.h"

#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QElapsedTimer>
#include <QSettings>
#include <QStandardPaths>

namespace lintel {

namespace fs = std::filesystem;

SheetInput Session::sheetInput(const Solution& s) const {
    return {s.project, *s.book, s.results, [this](const Underlay& u) { return shelf->content(u); }, path};
}

Session::Session(QObject* parent) : QObject(parent), shelf(new UnderlayShelf(*this)) {
    auto nec = loadRuleBook("nec-2023");
    book = std::make_shared<RuleBook>(nec ? *nec : RuleBook{});
    auto s = std::make_shared<Solution>();
    s->book = book;
    s->results.boards.resize(1), s->results.circuits.resize(1), s->results.transformers.resize(1), s->results.sources.resize(1);
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
    const QString base = qEnvironmentVariableIsSet("LINTEL_STATE") ? qEnvironmentVariable("LINTEL_STATE") : QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
    const fs::path folder = base.toStdString();
    std::error_code ec;
    fs::create_directories(folder / "recovery", ec);
    return folder;
}

namespace {
QSettings settings() { return {QString::fromStdString((Session::stateFolder() / "settings.ini").string()), QSettings::IniFormat}; }
} // namespace

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
    const QString name = QString::fromStdString(fs::absolute(file).string());
    list.removeAll(name);
    list.prepend(name);
    while (list.size() > 10) list.removeLast();
    s.setValue("recent", list);
}

std::vector<fs::path> Session::leftBehind() {
    std::vector<fs::path> found;
    const auto look = [&](const fs::path& journal) {
        if (auto r = readJournal(journal); r && *r) found.push_back(journal);
    };
    std::error_code ec;
    for (const auto& e : fs::directory_iterator(stateFolder() / "recovery", ec)) look(e.path());
    for (const QString& f : recentFiles()) look(journalBeside(f.toStdString()));
    return found;
}

fs::path Session::journalPath() const {
    if (!path.empty()) return journalBeside(path);
    return stateFolder() / "recovery" / (QString::number(QCoreApplication::applicationPid()) + "-" + QString::number(QDateTime::currentMSecsSinceEpoch())).toStdString();
}

std::optional<Error> Session::useBook(const Basis& basis) {
    auto b = loadRuleBook(basis.ruleBook, basis.ownValues);
    if (!b) return b.error();
    book = std::make_shared<RuleBook>(std::move(*b));
    bookId = basis.ruleBook;
    bookValues = basis.ownValues;
    return std::nullopt;
}

void Session::start(Project p, const fs::path& file) {
    if (auto* j = document.journalWriter()) j->discard();
    auto keep = std::move(document.onChange);
    document = Document(std::move(p));
    document.onChange = std::move(keep);
    path = file.empty() ? file : fs::absolute(file);
    recovered = false;
    open_ = true;
    chosen.clear();
    document.journalTo(JournalWriter::begin(journalPath(), path, document.project()));
    if (document.journalWriter() && !document.journalWriter()->healthy()) say("The recovery journal cannot be written beside the file; save often.", true);
    ++serial;
    ask();
    waitSolved();
    Q_EMIT opened();
    Q_EMIT edited();
    Q_EMIT selectionChanged();
}

/// Names the underlays' files anew for a project that moves from one folder to another: they stay where they are.
void relink(Project& p, const fs::path& from, const fs::path& to) {
    std::vector<UnderlayId> ids;
    for (const Underlay& u : p.underlays)
        if (!fs::path(u.file).is_absolute()) ids.push_back(u.id);
    for (UnderlayId id : ids) p.underlays.change(id)->file = underlayName(fs::absolute(underlayFile(p.underlays[id], from)), to);
}

std::optional<Error> Session::open(const fs::path& file) {
    auto p = loadProject(file);
    if (!p) return p.error();
    if (auto bad = useBook(p->basis)) return bad;
    // A journal beside it that a crash left is not overwritten by opening the file: it is put aside for the start page.
    if (auto r = readJournal(journalBeside(fs::absolute(file))); r && *r) {
        std::error_code ec;
        fs::rename(journalBeside(fs::absolute(file)), stateFolder() / "recovery" / (fs::absolute(file).filename().string() + "-" + QString::number(QDateTime::currentMSecsSinceEpoch()).toStdString()), ec);
        if (!ec) say("Edits from a run that ended badly were kept: File ▸ Start page offers them.");
    }
    start(std::move(*p), file);
    remember(path);
    return std::nullopt;
}

std::optional<Error> Session::begin(const Project& s) {
    if (auto bad = useBook(s.basis)) return bad;
    start(s, {});
    return std::nullopt;
}

std::optional<Error> Session::beginFrom(const fs::path& shipped) {
    auto p = loadProject(shipped);
    if (!p) return p.error();
    p->extra.erase("about");
    if (p->extra.empty()) p->extra = {};
    relink(*p, shipped, {});
    return begin(*p);
}

std::optional<Error> Session::recover(const fs::path& journal) {
    auto r = readJournal(journal);
    if (!r) return r.error();
    if (!*r) return Error{journal.string(), "there is nothing to recover", ""};
    if (auto bad = useBook((*r)->recovered.basis)) return bad;
    Project base;
    if (!(*r)->project.empty()) {
        auto p = loadProject((*r)->project);
        if (!p) return p.error();
        base = *p;
    }
    const fs::path from = (*r)->project;
    const Project wanted = (*r)->recovered;
    start(base, from);
    edit("Recover", [&](Project& p) { p = wanted; });
    recovered = true;
    // Its edits now stand in the new journal; the old one has done its work.
    if (!document.journalWriter() || document.journalWriter()->path() != journal) {
        std::error_code ec;
        fs::remove(journal, ec);
    }
    waitSolved();
    Q_EMIT opened();
    return std::nullopt;
}

std::optional<Error> Session::save() { return path.empty() ? Error{"", "the project has no file yet", "Use Save as."} : saveAs(path); }

std::optional<Error> Session::saveAs(const fs::path& file) {
    const bool elsewhere = !path.empty() && fs::absolute(file).parent_path() != path.parent_path();
    if (elsewhere && std::any_of(project().underlays.begin(), project().underlays.end(), [](const Underlay& u) { return !fs::path(u.file).is_absolute(); }))
        edit(tr("Keep the drawings linked"), [&](Project& p) { relink(p, path, file); });
    if (auto bad = saveProject(document.project(), file)) return bad;
    if (auto* j = document.journalWriter()) j->discard();
    path = fs::absolute(file);
    document.markSaved();
    recovered = false;
    document.journalTo(JournalWriter::begin(journalPath(), path, document.project()));
    remember(path);
    Q_EMIT edited();
    say("Saved " + QString::fromStdString(path.filename().string()));
    return std::nullopt;
}

void Session::close() {
    if (auto* j = document.journalWriter()) j->discard();
    document.journalTo(nullptr);
    open_ = false;
}

QString Session::title() const {
    if (!open_) return "Lintel";
    return QString::fromStdString(document.project().basis.title) + (changed() ? " •" : "");
}

bool Session::edit(const QString& label, const std::function<void(Project&)>& change, const std::string& mergeKey) {
    const bool did = document.edit(label.toStdString(), change, mergeKey);
    if (did && !followBook()) {
        document.undo();
        return false;
    }
    if (did && document.journalWriter() && !document.journalWriter()->healthy()) say("The recovery journal cannot be written (is the disk full?). Save now.", true);
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
    const QString label = undoLabel();
    document.undo();
    followBook();
    dropMissingSelection();
    if (!label.isEmpty()) say("Undone: " + label);
}
void Session::redo() {
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
    return project().boards.has(r.as<Board>()) ? r.as<Board>() : BoardId{};
}

void Session::ask() {
    {
        std::lock_guard lock(mutex);
        request = Request{document.project(), book, serial};
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
        s->results = solve(s->project, *s->book);
        s->milliseconds = double(clock.nsecsElapsed()) / 1e6;
        s->snags = findSnags(s->project, *s->book, s->results);
        QMetaObject::invokeMethod(this, [this, s] {
            if (s->serial < newest->serial) return;
            newest = s;
            Q_EMIT solved();
        }, Qt::QueuedConnection);
    }
}

bool Session::waitSolved(int milliseconds) {
    QElapsedTimer clock;
    clock.start();
    while (newest->serial < serial && clock.elapsed() < milliseconds) {
        QCoreApplication::sendPostedEvents(this, QEvent::MetaCall);
        if (newest->serial < serial) std::this_thread::sleep_for(std::chrono::microseconds(200));
    }
    return newest->serial >= serial;
}

} // namespace lintel
