#pragma once
// The strip at the bottom: how many snags of each kind, the worst one in words, and its first remedy. A click on the
// counts opens the list of all of them with all remedies and what each would change.

#include "app/frame/Session.h"

#include <QFrame>
#include <QWidget>

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace lintel {

class SnagList : public QFrame {
    Q_OBJECT
public:
    explicit SnagList(Session& session, QWidget* parent);
    void rebuild();

private:
    Session& session;
    QVBoxLayout* rows;
};

class SnagStrip : public QWidget {
    Q_OBJECT
public:
    explicit SnagStrip(Session& session, QWidget* parent = nullptr);
    SnagList& list() { return *all; }
    void toggleList();
    /// Applies remedy `n` of the snag as one edit named after it.
    static void apply(Session& session, const Snag& snag, const Remedy& remedy);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void rebuild();
    void placeList();
    Session& session;
    QPushButton* remedy;
    SnagList* all;
    int counts[3]{};
    QString worst, message;
    bool messageIsError = false;
    Severity worstSeverity = Severity::Note;
    double countsEnd = 0;
};

} // namespace lintel
