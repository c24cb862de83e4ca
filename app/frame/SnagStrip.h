#pragma once
// The strip at the bottom: how many snags of each kind, the worst one in words, and its first remedy. A click on the
// counts opens the list of all of them with all remedies and what each would change.

#include "app/frame/Session.h"

#include <QFrame>
#include <QPushButton>
#include <QWidget>

class QLabel;
class QVBoxLayout;

namespace lintel {

/// A button that offers a remedy, and while it is pointed at tells what that does elsewhere.
class RemedyButton : public QPushButton {
    Q_OBJECT
public:
    explicit RemedyButton(Session& session, QWidget* parent = nullptr);
    void offer(const Remedy& remedy);
Q_SIGNALS:
    void pointed(const QString& effect); ///< empty when the pointer leaves

protected:
    bool event(QEvent*) override;

private:
    Session& session;
    Remedy remedy;
    QString effect;
};

class SnagList : public QFrame {
    Q_OBJECT
public:
    explicit SnagList(Session& session, QWidget* parent);
    void rebuild();

private:
    Session& session;
    QVBoxLayout* rows;
    QLabel* foot;
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
    RemedyButton* remedy;
    SnagList* all;
    QLabel* effect; ///< of the first remedy, above the strip while it is pointed at
    int counts[3]{};
    QString worst, message;
    bool messageIsError = false;
    Severity worstSeverity = Severity::Note;
    double countsEnd = 0;
};

} // namespace lintel
