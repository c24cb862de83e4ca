#include "app/frame/UnderlayShelf.h"

#include "app/frame/Session.h"
#include "render/UnderlayFile.h"

#include <QCoreApplication>
#include <QElapsedTimer>
#include <QFileInfo>
#include <QTimer>

namespace lintel {

UnderlayShelf::UnderlayShelf(Session& s) : QObject(&s), session(s) {
    pool.setMaxThreadCount(1);
    connect(&session, &Session::opened, this, [this] {
        entries.clear();
        if (!watcher.files().isEmpty()) watcher.removePaths(watcher.files());
        sync();
    });
    connect(&session, &Session::edited, this, &UnderlayShelf::sync);
    connect(&watcher, &QFileSystemWatcher::fileChanged, this, [this](const QString& file) {
        // Programs save by replacing: give the new file a moment to be there whole.
        QTimer::singleShot(300, this, [this, file] {
            if (QFileInfo::exists(file) && !watcher.files().contains(file)) watcher.addPath(file);
            if (entries.count(file)) begin(file);
        });
    });
}
UnderlayShelf::~UnderlayShelf() {
    stop = true;
    pool.waitForDone();
}

QString UnderlayShelf::pathOf(const Underlay& u) const {
    return QString::fromStdString(underlayFile(u, session.file()).string());
}
const UnderlayShelf::Entry* UnderlayShelf::entry(const Underlay& u) const {
    const auto it = entries.find(pathOf(u));
    return it == entries.end() ? nullptr : &it->second;
}
std::shared_ptr<const UnderlayContent> UnderlayShelf::content(const Underlay& u) const {
    const Entry* e = entry(u);
    return e ? e->content : nullptr;
}
bool UnderlayShelf::changedSinceLinked(const Underlay& u) const {
    const auto c = content(u);
    return c && !u.stamp.empty() && c->stamp != u.stamp;
}

void UnderlayShelf::sync() {
    if (!session.isOpen()) return;
    for (const Underlay& u : session.project().underlays) {
        const QString file = pathOf(u);
        if (entries.count(file)) continue;
        entries[file] = {};
        watcher.addPath(file);
        begin(file);
    }
}

void UnderlayShelf::begin(const QString& file) {
    if (busy) {
        if (current != file && std::find(waiting.begin(), waiting.end(), file) == waiting.end())
            waiting.push_back(file);
        else if (current == file)
            waiting.push_back(file);
        return;
    }
    busy = true;
    stop = false;
    current = file;
    entries[file].reading = true;
    pool.start([this, file] {
        auto outcome = readUnderlay(file.toStdString(), [this, file, told = -1.0](double share) mutable {
            if (share - told > 0.02) {
                told = share;
                QMetaObject::invokeMethod(
                    this, [this, file, share] { entries[file].share = share, Q_EMIT changed(); }, Qt::QueuedConnection);
            }
            return !stop.load();
        });
        QMetaObject::invokeMethod(
            this, [this, file, outcome = std::move(outcome)]() mutable { finished(file, std::move(outcome)); },
            Qt::QueuedConnection);
    });
    Q_EMIT changed();
}

void UnderlayShelf::finished(const QString& file, Outcome<std::shared_ptr<const UnderlayContent>> outcome) {
    busy = false;
    current.clear();
    if (const auto it = entries.find(file); it != entries.end()) {
        Entry& e = it->second;
        e.reading = false;
        if (!outcome) {
            e.failure = QString::fromStdString(outcome.error().text());
            session.say(e.failure, true);
        } else {
            e.failure.clear();
            if (e.content && !e.content->picture && e.content->stamp != (*outcome)->stamp) {
                e.difference = differenceOf(e.content->drawing, (*outcome)->drawing);
                session.say(tr("%1 has changed: %2 lines new, %3 gone. Link it anew on the Underlay page")
                                .arg(QFileInfo(file).fileName())
                                .arg(e.difference.added.size())
                                .arg(e.difference.gone.size()));
            }
            e.content = *outcome;
            QStringList notes;
            for (const std::string& n : e.content->drawing.notes) notes << QString::fromStdString(n);
            if (!notes.isEmpty() && e.difference.added.empty())
                session.say(QFileInfo(file).fileName() + ": " + notes.join("; "), !e.content->drawing.whole);
        }
    }
    if (!waiting.empty()) {
        const QString next = waiting.front();
        waiting.erase(waiting.begin());
        begin(next);
    }
    Q_EMIT changed();
}

void UnderlayShelf::cancel() { stop = true; }

void UnderlayShelf::readAgain(const Underlay& u) { begin(pathOf(u)); }

void UnderlayShelf::accept(UnderlayId id) {
    const Underlay* u = session.project().underlays.find(id);
    const auto c = u ? content(*u) : nullptr;
    if (!c) return;
    entries[pathOf(*u)].difference = {};
    session.edit(tr("Link %1 anew").arg(QString::fromStdString(nameOf(session.project(), Ref(id)))),
                 [&](Project& p) { p.underlays.change(id)->stamp = c->stamp; });
    Q_EMIT changed();
}

UnderlayId UnderlayShelf::link(const QString& file, LevelId level) {
    UnderlayId made;
    session.edit(tr("Link %1").arg(QFileInfo(file).fileName()), [&](Project& p) {
        Underlay u;
        u.level = level;
        u.file = underlayName(file.toStdString(), session.file());
        u.stamp = stampOf(file.toStdString());
        made = p.underlays.add(u);
    });
    return made;
}

QString UnderlayShelf::progressText() const {
    if (!busy) return {};
    const auto it = entries.find(current);
    return tr("Reading %1: %2 %")
        .arg(QFileInfo(current).fileName())
        .arg(int(100 * (it == entries.end() ? 0 : it->second.share)));
}

bool UnderlayShelf::settle(int milliseconds) {
    QElapsedTimer t;
    t.start();
    while ((busy || !waiting.empty()) && t.elapsed() < milliseconds)
        QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
    return !busy;
}

} // namespace lintel
