#pragma once
// The window, driven as a person drives it: real mouse and key events, offscreen.

#include "app/basis/BasisStage.h"
#include "app/boards/BoardsStage.h"
#include "app/frame/FactsPanel.h"
#include "app/frame/FeedPathBar.h"
#include "app/frame/FindBox.h"
#include "app/frame/MainWindow.h"
#include "app/frame/SnagStrip.h"
#include "app/frame/StartPage.h"
#include "app/issue/IssueStage.h"
#include "app/plan/PlanStage.h"
#include "app/riser/RiserStage.h"
#include "app/runs/RunsStage.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"

#include <QComboBox>
#include <QContextMenuEvent>
#include <QMenu>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>
#include <QTimer>

#include <catch2/catch.hpp>

#include <exception>

namespace lintel {

struct Driven {
    QTemporaryDir folder;
    MainWindow window;
    Session& s = window.session();

    Driven() {
        QTestPrivate::qtestMouseButtons = Qt::NoButton; // whatever a test that failed had in its hand
        window.resize(1280, 800);
        window.show();
        pump();
    }
    ~Driven() {
        if (std::uncaught_exceptions() == 0) CHECK(QTestPrivate::qtestMouseButtons == Qt::NoButton); // all let go again
        s.close(); // lets the journal go, asks nothing
    }
    QString path(const QString& name) const { return folder.filePath(name); }
    void pump() {
        QCoreApplication::processEvents();
        if (s.isOpen()) REQUIRE(s.waitSolved(60000));
        QCoreApplication::processEvents();
        // On a busy machine the set of sheets follows a moment later.
        if (window.issue().isVisible()) REQUIRE(QTest::qWaitFor([this] { return window.issue().isCurrent(); }, 60000));
        QCoreApplication::sendPostedEvents(nullptr,
                                           QEvent::DeferredDelete); // closed editors go, as in a running application
    }
    /// A copy of the demo in a file of its own, open.
    void openDemo() {
        QFile::copy(QString::fromStdString((dataFolder() / "demos" / "saltmarket-hall.lintel").string()),
                    path("demo.lintel"));
        QFile::setPermissions(path("demo.lintel"), QFile::ReadOwner | QFile::WriteOwner);
        REQUIRE(window.openFile(path("demo.lintel")));
        pump();
    }
    void click(QWidget& w, QPointF at, Qt::KeyboardModifiers m = {}) {
        QTest::mouseMove(&w, at.toPoint());
        QTest::mouseClick(&w, Qt::LeftButton, m, at.toPoint());
        pump();
    }
    /// Pressed and let go twice, as a mouse does it.
    void doubleClick(QWidget& w, QPointF at) {
        QTest::mouseClick(&w, Qt::LeftButton, {}, at.toPoint());
        QTest::mouseDClick(&w, Qt::LeftButton, {}, at.toPoint());
        QTest::mouseRelease(&w, Qt::LeftButton, {}, at.toPoint());
        pump();
    }
    void drag(QWidget& w, QPointF from, QPointF to) {
        QTest::mousePress(&w, Qt::LeftButton, {}, from.toPoint());
        for (double k : {0.2, 0.5, 0.8, 1.0}) move(w, from + (to - from) * k, Qt::LeftButton);
        QTest::mouseRelease(&w, Qt::LeftButton, {}, to.toPoint());
        pump();
    }
    void move(QWidget& w, QPointF at, Qt::MouseButtons buttons = Qt::NoButton) {
        QMouseEvent e(QEvent::MouseMove, at, w.mapToGlobal(at), Qt::NoButton, buttons, {});
        QApplication::sendEvent(&w, &e);
    }
    void key(QWidget& w, Qt::Key k, Qt::KeyboardModifiers m = {}) {
        QTest::keyClick(&w, k, m);
        pump();
    }
    void type(QWidget& w, const QString& text) {
        QTest::keyClicks(&w, text);
        pump();
    }
    void act(const char* name) {
        REQUIRE(window.action(name));
        window.action(name)->trigger();
        pump();
    }
    /// Edits an entered fact as a click on it does.
    void fact(const QString& label, const QString& value) {
        FactsView& f = window.facts().view();
        REQUIRE(f.editRow(label));
        if (auto* line = f.findChild<QLineEdit*>("factEditor", Qt::FindDirectChildrenOnly)) {
            line->selectAll();
            type(*line, value);
            key(*line, Qt::Key_Return);
        } else {
            auto* box = f.findChild<QComboBox*>("factEditor", Qt::FindDirectChildrenOnly);
            REQUIRE(box);
            const int i = box->findText(value);
            if (const QString other = "another …"; i < 0 && box->findText(other) >= 0) { // one that is typed
                box->setCurrentText(other);
                Q_EMIT box->textActivated(other);
                pump();
                auto* typed = f.findChild<QLineEdit*>("factEditor", Qt::FindDirectChildrenOnly);
                REQUIRE(typed);
                typed->selectAll();
                type(*typed, value);
                key(*typed, Qt::Key_Return);
                return;
            }
            REQUIRE(i >= 0);
            box->setCurrentIndex(i);
            Q_EMIT box->textActivated(value);
        }
        pump();
    }
    /// Presses the right button on a widget and takes this entry of the menu.
    void menu(QWidget& on, QPoint where, const QString& entry) {
        bool met = false;
        QTimer::singleShot(0, &window, [&] {
            auto* open = qobject_cast<QMenu*>(QApplication::activePopupWidget());
            REQUIRE(open);
            for (QAction* a : open->findChildren<QAction*>()) { // within the menus that open from it too
                auto* in = qobject_cast<QMenu*>(a->parent());
                if (a->text().section('\t', 0, 0) != entry || a->menu()) continue;
                met = a->isEnabled();
                if (in && in != open) open->setActiveAction(in->menuAction());
                QMenu* at = in ? in : open;
                if (met) at->setActiveAction(a);
                QTest::keyClick(at, met ? Qt::Key_Return : Qt::Key_Escape);
                if (met) return;
            }
            if (!met) QTest::keyClick(open, Qt::Key_Escape);
        });
        QContextMenuEvent press(QContextMenuEvent::Mouse, where, on.mapToGlobal(where));
        QApplication::sendEvent(&on, &press);
        pump();
        REQUIRE(met);
    }
    QString factValue(const QString& label) {
        for (const FactRow& r : window.facts().view().facts().rows)
            if (r.label == label) return r.value;
        return {};
    }
    BoardId board(const std::string& name) {
        for (const Board& b : s.project().boards)
            if (b.name == name) return b.id;
        return {};
    }
    CircuitId at(const std::string& boardName, int slot) {
        return slotMap(s.project(), board(boardName))[std::size_t(slot)];
    }
};

/// The text of a PDF, by pdftotext.
inline QString pdfText(const QString& file) {
    QProcess p;
    p.start("pdftotext", {"-layout", file, "-"});
    p.waitForFinished(20000);
    return QString::fromUtf8(p.readAllStandardOutput());
}

} // namespace lintel
