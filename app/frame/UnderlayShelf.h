#pragma once
// The files of a project's underlays: read in the background, kept, watched, and compared with what was linked when
// they change.

#include "core/plan/Underlay.h"

#include <QFileSystemWatcher>
#include <QObject>
#include <QThreadPool>

#include <atomic>

namespace lintel {

class Session;

class UnderlayShelf : public QObject {
    Q_OBJECT
public:
    explicit UnderlayShelf(Session& session);
    ~UnderlayShelf() override;

    struct Entry {
        std::shared_ptr<const UnderlayContent> content; ///< as shown; null: not read yet, or cannot be
        UnderlayDifference difference; ///< against what was shown before the file changed, in the drawing's units
        QString failure;
        bool reading = false;
        double share = 0;
    };
    const Entry* entry(const Underlay& underlay) const;
    std::shared_ptr<const UnderlayContent> content(const Underlay& underlay) const;
    /// The file holds something else than when it was linked.
    bool changedSinceLinked(const Underlay& underlay) const;
    /// Takes the file as it is now for good: one edit, and the marks of what changed go.
    void accept(UnderlayId underlay);
    /// Adds an underlay of the file to a level as one edit; content follows when it is read.
    UnderlayId link(const QString& file, LevelId level);
    void readAgain(const Underlay& underlay);
    void cancel();
    bool reading() const { return busy; }
    /// What the strip says while a file is read; empty when none is.
    QString progressText() const;
    /// Waits until nothing is being read: for tests and before sheets are written.
    bool settle(int milliseconds = 20000);

Q_SIGNALS:
    void changed();

private:
    void sync();
    void begin(const QString& file);
    void finished(const QString& file, Outcome<std::shared_ptr<const UnderlayContent>> outcome);
    QString pathOf(const Underlay& underlay) const;
    Session& session;
    std::map<QString, Entry> entries; ///< by whole path
    std::vector<QString> waiting;
    bool busy = false;
    QString current;
    std::atomic<bool> stop{false};
    QFileSystemWatcher watcher;
    QThreadPool pool;
};

} // namespace lintel
