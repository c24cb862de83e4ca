// Issue: sheets put together from views.

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "app/issue/ComposePanel.h"
#include "app/issue/IssueStage.h"
#include "app/issue/ListFormPanel.h"
#include "core/compose/Together.h"

#include <QListWidget>
#include <QMenu>
#include <QPushButton>

namespace lintel {
namespace {
constexpr int composingWidth = 300; ///< of what stands beside the sheet
}

void IssueStage::setUpComposing() {
    composePanel = new ComposePanel(session, side);
    composePanel->hide();
    side->layout()->addWidget(composePanel);
    listPanel = new ListFormPanel(session, side);
    listPanel->hide();
    side->layout()->addWidget(listPanel);
    connect(listPanel, &ListFormPanel::closed, this, &IssueStage::endListForm);
    connect(view, &SheetView::listChosen, this, [this](const QString& key) { shapeListForm(key.toStdString()); });
    connect(composePanel, &ComposePanel::closed, this, &IssueStage::endComposing);
    connect(composePanel, &ComposePanel::sheetChosen, this, [this](ComposedSheetId sheet) {
        session.select(Ref());
        showWhere([sheet](const SheetEntry& e) { return e.about == Ref(sheet) && e.page == 0; });
    });
    connect(view, &SheetView::viewMoved, this, [this](PlacedViewId id, Point at, std::size_t page) {
        const Project& p = session.project();
        const PlacedView* v = p.placedViews.find(id);
        if (!v || !p.composedSheets.has(v->sheet)) return;
        session.waitSolved();
        const SheetInput in = session.sheetInput(session.solution());
        session.edit(tr("Move %1").arg(q(nameOf(p, id))), [&](Project& x) { moveByHand(in, x, id, at, page); });
    });
    connect(view, &SheetView::takeOffWanted, composePanel, &ComposePanel::takeOffChosen);
    connect(view, &SheetView::moveRefused, this, [this](const QString& why) { session.say(why, true); });
    connect(view, &SheetView::thingDropped, composePanel, &ComposePanel::placeChosen);
}

ListFormPanel& IssueStage::listForms() { return *listPanel; }

void IssueStage::shapeListForm(const std::string& key) {
    if (earlier || !listKind(key)) return;
    endForm();
    endComposing();
    sheetSide->hide();
    listPanel->setVisible(true);
    listPanel->show(key);
}

void IssueStage::endListForm() {
    if (!listPanel->isVisibleTo(this)) return;
    listPanel->hide();
    sheetSide->setVisible(!earlier);
}

ComposePanel& IssueStage::composing() { return *composePanel; }

void IssueStage::compose() {
    session.waitSolved();
    if (!isCurrent()) rebuild();
    const SheetEntry* e = currentEntry();
    if (!e || e->kind != SheetKind::Composed || earlier) return;
    endForm();
    endListForm();
    sheetSide->hide();
    side->setFixedWidth(composingWidth);
    composePanel->setVisible(true);
    composePanel->setFocus();
    layout()->activate();
    showCurrent();
    view->fit();
}

void IssueStage::endComposing() {
    if (!composePanel->isVisibleTo(this)) return;
    composePanel->commitNotes();
    composePanel->hide();
    view->setComposing({});
    side->setFixedWidth(usualSideWidth);
    sheetSide->setVisible(!earlier);
    layout()->activate();
    view->fit();
    showCurrent();
}

void IssueStage::followComposing(const SheetEntry& sheet) {
    if (listPanel->isVisibleTo(this)) listPanel->refresh();
    const bool open = composePanel->isVisibleTo(this);
    composeButton->setVisible(sheet.kind == SheetKind::Composed && !earlier && !open);
    if (!open) return;
    const ComposedSheet* s = session.project().composedSheets.find(sheet.about.as<ComposedSheet>());
    if (!s || earlier) return endComposing();
    view->setComposing(viewField(set().in, *s), sheet.page);
    composePanel->show(s->id, set().sheets);
}

void IssueStage::openComposed(const QString& label, const std::function<ComposedSheetId(Project&)>& make) {
    ComposedSheetId made;
    session.edit(label, [&](Project& p) { made = make(p); });
    if (!made) return;
    session.waitSolved();
    showWhere([made](const SheetEntry& e) { return e.about == Ref(made) && e.page == 0; });
    compose();
}

void IssueStage::composeAll(SheetKind kind) {
    session.waitSolved();
    const SheetInput in = session.sheetInput(session.solution());
    const std::vector<ShownThing> things = thingsToCompose(in, kind);
    if (things.empty())
        return session.say(tr("All of these stand on composed sheets already, or there are none."), true);
    std::size_t sheets = 0;
    openComposed(tr("Compose sheets"), [&](Project& p) {
        const auto made = composeTogether(in, p, things);
        sheets = made.size();
        return made.empty() ? ComposedSheetId{} : made.front();
    });
    const QString all = kind == SheetKind::Schedule  ? tr("%1 schedules")
                        : kind == SheetKind::Diagram ? tr("%1 diagrams")
                                                     : tr("%1 lists");
    session.say((sheets == 1
                     ? tr("%1 on one sheet. Undo takes it apart again.").arg(all.arg(things.size()))
                     : tr("%1 on %2 sheets. Undo takes them apart again.").arg(all.arg(things.size())).arg(sheets)));
}

void IssueStage::tellProposal() {
    const SheetsTogether together = session.project().basis.sheetsTogether;
    const auto alone = [&](SheetKind kind) {
        return std::count_if(set().sheets.begin(), set().sheets.end(),
                             [&](const SheetEntry& e) { return e.kind == kind && e.page == 0; });
    };
    QStringList what;
    const auto tell = [&](SheetsTogether from, SheetKind kind, const QString& one, const QString& many) {
        if (together < from) return;
        if (const auto n = alone(kind)) what << counted(n, one, many);
    };
    tell(SheetsTogether::Schedules, SheetKind::Schedule, tr("schedule"), tr("schedules"));
    tell(SheetsTogether::SchedulesAndDiagrams, SheetKind::Diagram, tr("diagram"), tr("diagrams"));
    proposal->setVisible(!what.isEmpty());
    proposal->setText(tr("By the basis, to stand together: %1. <a href='put' style='color:%2'>Put them on sheets</a>")
                          .arg(what.join(tr(", ", "between two of a list")), theme().accent.name()));
}

void IssueStage::composeProposed() {
    session.waitSolved();
    const SheetInput in = session.sheetInput(session.solution());
    const auto proposals = proposedTogether(in);
    if (proposals.empty()) return tellProposal();
    std::size_t sheets = 0;
    openComposed(tr("Compose sheets"), [&](Project& p) {
        const auto touched = takeUp(in, p, proposals);
        sheets = touched.size();
        return touched.empty() ? ComposedSheetId{} : touched.front();
    });
    session.say(tr("On %1. Undo takes them apart again.").arg(counted(sheets, tr("sheet"), tr("sheets"))));
}

void IssueStage::fillNewMenu(QMenu& menu) {
    menu.addAction(tr("Empty sheet"), this,
                   [this] { openComposed(tr("New sheet"), [](Project& p) { return addComposedSheet(p); }); });
    menu.addSeparator();
    menu.addAction(tr("All schedules together"), this, [this] { composeAll(SheetKind::Schedule); });
    menu.addAction(tr("All diagrams of boards together"), this, [this] { composeAll(SheetKind::Diagram); });
    menu.addAction(tr("All lists together"), this, [this] { composeAll(SheetKind::List); });
}

void IssueStage::fillComposeMenu(QMenu& menu, const SheetEntry& entry) {
    const bool own = entry.kind && entry.page == 0;
    if (own && entry.kind == SheetKind::Composed) {
        menu.addAction(tr("Compose…"), this, &IssueStage::compose);
        menu.addAction(tr("Take the sheet apart"), this, [this, sheet = entry.about.as<ComposedSheet>()] {
            session.select(Ref());
            session.edit(tr("Take a sheet apart"), [&](Project& p) { endComposedSheet(p, sheet); });
        });
        return;
    }
    QMenu* onto = menu.addMenu(tr("Put it on a composed sheet"));
    onto->setEnabled(own);
    const ShownThing thing{entry.kind.value_or(SheetKind::Schedule), entry.about, {}};
    for (const SheetEntry& e : set().sheets) {
        if (e.kind != SheetKind::Composed || e.page > 0) continue;
        onto->addAction(plainButton(q(e.number + "   " + e.title)), this,
                        [this, thing, sheet = e.about.as<ComposedSheet>()] {
                            openComposed(tr("Place a view"), [&](Project& p) {
                                placeView(p, sheet, thing);
                                return sheet;
                            });
                        });
    }
    onto->addAction(tr("A new sheet"), this, [this, thing] {
        openComposed(tr("New sheet"), [&](Project& p) {
            const ComposedSheetId sheet = addComposedSheet(p);
            placeView(p, sheet, thing);
            return sheet;
        });
    });
}

void IssueStage::askView(PlacedViewId id, QPoint at) {
    const PlacedView* v = session.project().placedViews.find(id);
    if (!v) return;
    QMenu menu;
    menu.setObjectName("viewMenu");
    auto* free = menu.addAction(tr("Put it in the first free place"));
    free->setEnabled(v->moved);
    QMenu* send = menu.addMenu(tr("Send it to"));
    std::vector<std::pair<QAction*, ComposedSheetId>> sheets;
    for (const SheetEntry& e : set().sheets)
        if (e.kind == SheetKind::Composed && e.page == 0 && e.about != Ref(v->sheet))
            sheets.emplace_back(send->addAction(plainButton(q(e.number + "   " + e.title))),
                                e.about.as<ComposedSheet>());
    const auto* fresh = send->addAction(tr("A new sheet"));
    menu.addSeparator();
    const auto* off = menu.addAction(tr("Take it off\tDelete"));
    const QString name = q(nameOf(session.project(), id));
    const QAction* chosen = menu.exec(at);
    if (!chosen) return;
    if (chosen == free) session.edit(tr("First free place for %1").arg(name), [&](Project& p) { letGo(p, id); });
    if (chosen == off) composePanel->takeOffChosen();
    if (chosen == fresh)
        session.edit(tr("Send %1 to a new sheet").arg(name), [&](Project& p) { sendTo(p, id, addComposedSheet(p)); });
    for (const auto& [action, sheet] : sheets)
        if (chosen == action)
            session.edit(tr("Send %1 to another sheet").arg(name), [&, to = sheet](Project& p) { sendTo(p, id, to); });
}

} // namespace lintel
