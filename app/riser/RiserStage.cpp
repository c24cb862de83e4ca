#include "app/riser/RiserStage.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "app/frame/Settings.h"
#include "app/frame/WholeLabel.h"
#include "app/riser/RiserMenu.h"
#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/check/SnagsByNode.h"
#include "core/compare/ChangesByNode.h"
#include "core/copy/CopyBranch.h"
#include "core/exchange/DxfPlan.h"
#include "core/figures/Words.h"
#include "core/issue/Issues.h"
#include "core/project/Operations.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/BoardDiagram.h"
#include "core/sheets/FeederLayout.h"
#include "core/sheets/RiserPlaces.h"
#include "core/sheets/Sheets.h"
#include "core/solve/Solve.h"
#include "core/solve/States.h"
#include "render/PdfFile.h"
#include "render/SvgFile.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QResizeEvent>
#include <QSplitter>

namespace lintel {

namespace {
constexpr double readableScale = 3.2; ///< pixels for a millimetre: words of 3.2 mm are 10 pixels high
constexpr double diagramScale = 4;    ///< of a board's diagram, whose words are smaller
constexpr int outlineWidth = 212;     ///< pixels
/// Boards, transformers and sources from which on the drawing takes longer than a frame.
constexpr std::size_t manyDrawn = 100;
} // namespace

RiserStage::RiserStage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), work(new Background(this)), view(new DrawingView(s, this)),
      tree(new FeedOutline(s, this)) {
    setFocusProxy(view);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* bar = new QHBoxLayout;
    bar->setContentsMargins(16, 8, 16, 8);
    auto* beside = new QPushButton(tr("Outline"));
    beside->setObjectName("riserOutline");
    beside->setCheckable(true);
    beside->setToolTip(tr("What is fed from what as a tree, and what can be added"));
    beside->setChecked(settings().value("riser/outline", true).toBool());
    tree->setVisible(beside->isChecked());
    connect(beside, &QPushButton::toggled, this, [this](bool on) {
        settings().setValue("riser/outline", on);
        tree->setVisible(on);
    });
    bar->addWidget(beside);
    bar->addSpacing(8);
    for (const auto& [button, words, tip] :
         {std::tuple{&byFloor, tr("By floor"), tr("Boards on their floors")},
          std::tuple{&oneLine, tr("One-line"), tr("By the steps down from the sources")},
          std::tuple{&oneBoard, tr("Board"), tr("The board that is chosen, with all its circuits")}}) {
        *button = new QPushButton(words);
        (*button)->setCheckable(true);
        (*button)->setAutoExclusive(true);
        (*button)->setToolTip(tip);
        bar->addWidget(*button);
        connect(*button, &QPushButton::clicked, this, &RiserStage::rebuild);
    }
    byFloor->setChecked(true);
    oneLine->setObjectName("riserOneLine");
    oneBoard->setObjectName("riserBoard");
    overlays = new QComboBox;
    overlays->setObjectName("riserOverlay");
    overlays->setToolTip(tr("What the drawing says of each thing, in words and as a shade"));
    bar->addSpacing(12);
    bar->addWidget(overlays);
    connect(overlays, &QComboBox::activated, this, &RiserStage::rebuild);
    hint = new WholeLabel;
    hint->setProperty("quiet", true);
    bar->addSpacing(12);
    bar->addWidget(hint, 1);
    for (const auto& [format, words] :
         {std::pair{Format::Pdf, tr("PDF…")}, {Format::Svg, tr("SVG…")}, {Format::Dxf, tr("DXF…")}}) {
        auto* button = new QPushButton(words);
        bar->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, format = format] { askExport(format); });
    }
    column->addLayout(bar);
    auto* split = new QSplitter(Qt::Horizontal, this);
    split->addWidget(tree);
    split->addWidget(view);
    split->setStretchFactor(1, 1);
    split->setChildrenCollapsible(false);
    split->setSizes({outlineWidth, 800});
    tree->setMinimumWidth(outlineWidth - 30);
    column->addWidget(split, 1);
    view->installEventFilter(this);
    connect(&tree->tree(), &FeedTree::dropped, this, &RiserStage::drop);
    connect(&tree->tree(), &FeedTree::pressed, this, &RiserStage::keyPressEvent);
    view->setLeastScale(readableScale * 0.95);
    connect(&session, &Session::solved, this, &RiserStage::rebuild);
    connect(&session, &Session::opened, this, [this] {
        issued.reset();
        for (auto& kept : rows) kept.reset();
        rebuild();
    });
    connect(&session, &Session::selectionChanged, this, [this] {
        if (oneBoard->isChecked() && boardShown() != drawn) rebuild();
    });
    connect(view, &DrawingView::dragging, this, &RiserStage::dragging);
    connect(view, &DrawingView::menuWanted, this,
            [this](Ref thing, QPoint at) { showRiserMenu(session, thing, at, this); });
    connect(view, &DrawingView::draggingBeside, this, &RiserStage::draggingBeside);
    connect(view, &DrawingView::gripMoving, this, &RiserStage::gripMoving);
    connect(view, &DrawingView::gripMoved, this, &RiserStage::gripMoved);
    connect(view, &DrawingView::droppedBeside, this, [this](Ref what, Point mm) {
        if (const auto after = behindAt(what, mm)) placeOnRiser(session, what, *after);
    });
    connect(view, &DrawingView::dropped, this, [this](Ref what, Ref on) { drop(what, on, copying()); });
    rebuild();
}

void RiserStage::drop(Ref what, Ref on, bool copy) {
    if (!(what.is<Board>() || what.is<Transformer>())) return;
    if (copy) return copyBranchUnder(session, what, on);
    if (on.is<Circuit>()) return session.say(takesNothing(on), true);
    if (auto bad = refuseFeed(session.project(), what, on)) return session.say(q(bad->what + ". " + bad->help), true);
    session.edit(tr("Feed %1 from %2").arg(q(nameOf(session.project(), what)), q(nameOf(session.project(), on))),
                 [&](Project& p) { feedFrom(p, what, on); });
}

void RiserStage::rebuild() {
    if (!isVisible()) return; // drawn when it is looked at
    const Solution& s = session.solution();
    const SheetInput in{s.project, *s.book, s.results};
    fillOverlays();
    const bool board = oneBoard->isChecked();
    overlays->setVisible(!board);
    hint->setText(board ? tr("A click chooses a circuit; its facts are at the right.")
                        : tr("Drag feeds, moves or slides, Ctrl copies; right click adds"));
    // As wide as the stage at a scale where the smallest words can be read; what is higher is scrolled.
    const double wide = std::max(480, view->width());
    view->setLeastScale((board ? diagramScale : readableScale) * 0.95);
    work->cancel();
    if (!board) return drawRiser(wide / readableScale);
    drawn = boardShown();
    view->show(drawn ? boardDiagramBare(in, drawn, wide / diagramScale) : Drawing{}, false);
}

void RiserStage::drawRiser(double width) {
    const std::shared_ptr<const Solution> s = session.sharedSolution();
    const RiserLayout by = layout();
    std::optional<std::size_t>& kept = rows[by == RiserLayout::OneLine];
    if (s->results.order.size() < manyDrawn)
        return view->show(riserBare({s->project, *s->book, s->results}, by, width, shown(), &kept), false);
    work->start([this, s, by, width, show = shown(), was = kept](const Background::Stop&) -> std::function<void()> {
        std::optional<std::size_t> now = was;
        auto d = std::make_shared<Drawing>(riserBare({s->project, *s->book, s->results}, by, width, show, &now));
        return [this, d, by, now] {
            rows[by == RiserLayout::OneLine] = now;
            view->show(*d, false);
        };
    });
}

BoardId RiserStage::boardShown() const {
    const Solution& s = session.solution();
    const Project& p = s.project;
    const Ref chosen = session.selection();
    const auto good = [&](BoardId id) {
        const Board* b = p.boards.find(id);
        return b && !passesOn(b->use) && s.results.knows(id);
    };
    if (good(chosen.as<Board>())) return chosen.as<Board>();
    if (const Circuit* c = p.circuits.find(chosen.as<Circuit>()); c && good(c->board)) return c->board;
    if (good(drawn)) return drawn;
    for (Ref r : s.results.order)
        if (good(r.as<Board>())) return r.as<Board>();
    return {};
}

void RiserStage::fillOverlays() {
    const Solution& s = session.solution();
    QList<std::pair<QString, QPoint>> wanted; // what it says; overlay and source as numbers
    for (RiserOverlay o : {RiserOverlay::None, RiserOverlay::Use, RiserOverlay::Phases, RiserOverlay::Drop,
                           RiserOverlay::Fault, RiserOverlay::Space, RiserOverlay::Snags})
        wanted.append({tr(titleOf(o)), QPoint(int(o), 0)});
    if (!s.results.states.empty()) wanted.append({tr("On the normal supply"), QPoint(int(RiserOverlay::Supply), 0)});
    for (const auto& state : s.results.states)
        wanted.append({tr("On %1").arg(q(nameOf(s.project, state->source))),
                       QPoint(int(RiserOverlay::Supply), int(state->source.value))});
    for (const Issue& i : s.project.issues)
        wanted.append({tr("Changes since %1").arg(q(i.mark)), QPoint(int(RiserOverlay::Changes), int(i.id.value))});
    bool same = overlays->count() == int(wanted.size());
    for (int i = 0; same && i < int(wanted.size()); ++i)
        same = overlays->itemText(i) == wanted[i].first && overlays->itemData(i).toPoint() == wanted[i].second;
    if (same) return;
    const QVariant was = overlays->currentData();
    overlays->clear();
    for (const auto& [words, choice] : wanted) overlays->addItem(words, choice);
    overlays->setCurrentIndex(std::max(0, overlays->findData(was)));
}

RiserShow RiserStage::shown() {
    const QPoint choice = overlays->currentData().toPoint();
    RiserShow show;
    show.overlay = RiserOverlay(choice.x());
    const Solution& s = session.solution();
    if (show.overlay == RiserOverlay::Supply) show.supply = SourceId{std::uint32_t(choice.y())};
    if (show.overlay == RiserOverlay::Changes) addChanges(show, IssueId{std::uint32_t(choice.y())});
    if (show.overlay == RiserOverlay::Snags) show.snags = countSnags(s.project, s.snags);
    return show;
}

void RiserStage::addChanges(RiserShow& show, IssueId issue) {
    const Solution& now = session.solution();
    const Issue* i = now.project.issues.find(issue);
    if (!i) return;
    if (!issued || issuedAs != issue) { // solved once, not at each edit
        issued.reset();
        auto state = projectOf(now.project, issue);
        auto book =
            state ? loadRuleBook(state->basis.ruleBook, state->basis.ownValues) : Outcome<RuleBook>(state.error());
        if (!book) return session.say(q(book.error().text()), true);
        issued = std::make_unique<Solution>();
        issued->project = std::move(*state);
        issued->book = std::make_shared<const RuleBook>(std::move(*book));
        issued->results = solve(issued->project, *issued->book);
        issuedAs = issue;
    }
    show.since = i->mark;
    show.changes = countChanges(now.project, now.results, compareProjects(issued->input(), now.input()));
}

bool RiserStage::copying() const { return view->keysHeld() & Qt::ControlModifier; }

std::optional<Ref> RiserStage::behindAt(Ref what, Point mm) const {
    if (oneBoard->isChecked()) return std::nullopt;
    const Solution& s = session.solution();
    std::vector<Ref> beside = drawnBeside(s.project, s.results, what);
    std::erase(beside, what);
    // Those that stand at the height of the pointer: of a riser by floor, those on its floor.
    constexpr double reach = 14;
    const auto boxOf = [&](Ref r) {
        const Hotspot* box = nullptr; // of several that of its box comes last
        for (const Hotspot& h : view->drawing().hotspots)
            if (h.thing == r) box = &h;
        return box;
    };
    std::optional<Ref> behind;
    for (std::size_t i = 0; i < beside.size(); ++i) {
        const Hotspot* box = boxOf(beside[i]);
        if (!box || mm.y < box->top - reach || mm.y > box->bottom + reach) continue;
        if ((box->left + box->right) / 2 < mm.x)
            behind = beside[i];
        else if (!behind)
            behind = i == 0 ? Ref{} : beside[i - 1];
    }
    return behind;
}

void RiserStage::draggingBeside(Ref what, Point mm) {
    const auto behind = behindAt(what, mm);
    if (!behind) return view->setPointerWords({}, false);
    const Project& p = session.project();
    view->setPointerWords(*behind ? tr("Place %1 behind %2").arg(q(nameOf(p, what)), q(nameOf(p, *behind)))
                                  : tr("Place %1 first").arg(q(nameOf(p, what))),
                          false);
}

void RiserStage::dragging(Ref what, Ref over) {
    const Project& p = session.project();
    if (what.is<Circuit>())
        return view->setPointerWords(tr("%1 is a circuit: move it on the boards").arg(q(nameOf(p, what))), true);
    if (over.is<Circuit>()) return view->setPointerWords(takesNothing(over), true);
    if (!(what.is<Board>() || what.is<Transformer>()))
        return view->setPointerWords(tr("%1 is fed from nothing: drag what hangs on it").arg(q(nameOf(p, what))), true);
    if (!over) {
        std::vector<Ref> can, cannot;
        for (Ref r : session.solution().results.order) {
            if (r != what) (refuseFeed(p, what, r) ? cannot : can).push_back(r);
        }
        view->setTargets(can, cannot);
        return view->setPointerWords({}, false);
    }
    if (over == what) return view->setPointerWords({}, false);
    if (copying()) {
        Project trial = p;
        const auto made = copyBranch(trial, what, over);
        return view->setPointerWords(made ? tr("Feed a copy of %1 from %2: %3")
                                                .arg(q(nameOf(p, what)), q(nameOf(p, over)), q(nameOf(trial, *made)))
                                          : q(made.error().what + ". " + made.error().help),
                                     !made);
    }
    if (const auto bad = refuseFeed(p, what, over))
        return view->setPointerWords(q(bad->what + (bad->help.empty() ? "." : ". " + bad->help)), true);
    // What would then be, worked out as it would be after the drop.
    Project then = p;
    feedFrom(then, what, over);
    const Solution& s = session.solution();
    const Results r = solve(then, *s.book);
    QStringList words{tr("Feed %1 from %2").arg(q(nameOf(p, what)), q(nameOf(p, over)))};
    const auto used = [&](double before, double after) {
        words << tr("%1: %2 → %3 used").arg(q(nameOf(p, over)), q(percent(before * 100)), q(percent(after * 100)));
    };
    if (over.is<Board>() && !passesOn(p.boards[over.as<Board>()].use) && s.results.knows(over))
        used(s.results.of(over.as<Board>()).use, r.of(over.as<Board>()).use);
    if (over.is<Transformer>() && s.results.knows(over))
        used(s.results.of(over.as<Transformer>()).use, r.of(over.as<Transformer>()).use);
    if (const NodeResult* n = r.node(what))
        words << tr("%1: drop %2, %3 kA")
                     .arg(q(nameOf(p, what)), q(dropWords(n->dropTotal, n->dropKnown)), q(faultWords(n->fault)));
    view->setPointerWords(words.join("\n"), false);
}

QString RiserStage::takesNothing(Ref circuit) const {
    return tr("%1 is a load, nothing can be fed from it").arg(q(nameOf(session.project(), circuit)));
}

RiserLayout RiserStage::layout() const { return oneLine->isChecked() ? RiserLayout::OneLine : RiserLayout::ByFloor; }

int RiserStage::stepsOf(const GripSpot& grip, double mm) const {
    const int now = placeByHand(session.project(), grip.thing).lower;
    return std::clamp(now + int(std::lround(mm / feederTrack)), 0, limits::riserSteps) - now;
}

double RiserStage::liftOf(const GripSpot& grip, double mm) const {
    const double now = placeByHand(session.project(), grip.thing).lift;
    return std::clamp(now + std::round(grip.moreIsUp ? -mm : mm), 0.0, limits::riserLift) - now;
}

void RiserStage::gripMoving(const GripSpot& grip, double mm) {
    const QString name = q(nameOf(session.project(), grip.thing));
    const RiserPlace now = placeByHand(session.project(), grip.thing);
    QString words;
    if (grip.part == GripSpot::Part::Line) {
        const int steps = now.lower + stepsOf(grip, mm);
        words = steps ? tr("Line to %1: %2 lower").arg(name, counted(steps, tr("step"), tr("steps")))
                      : tr("Line to %1: where it stands by itself").arg(name);
    } else {
        const double lift = now.lift + liftOf(grip, mm);
        words = lift > 0 ? tr("Words of the feeder to %1: %2 mm away").arg(name).arg(lift)
                         : tr("Words of the feeder to %1: where they stand by themselves").arg(name);
    }
    view->setPointerWords(words, false);
}

void RiserStage::gripMoved(const GripSpot& grip, double mm) {
    if (grip.part == GripSpot::Part::Line) {
        if (const int steps = stepsOf(grip, mm)) lowerLine(session, grip.thing, steps);
    } else if (const double lift = liftOf(grip, mm)) {
        liftWords(session, grip.thing, lift);
    }
}

bool RiserStage::wordsMove(Ref thing) const {
    const auto& grips = view->drawing().grips;
    return std::any_of(grips.begin(), grips.end(),
                       [&](const GripSpot& g) { return g.thing == thing && g.part == GripSpot::Part::Words; });
}

bool RiserStage::moveByKey(QKeyEvent* e) {
    const Ref chosen = session.selection();
    const int across = e->key() == Qt::Key_Left ? -1 : e->key() == Qt::Key_Right ? 1 : 0;
    const int down = e->key() == Qt::Key_Up ? -1 : e->key() == Qt::Key_Down ? 1 : 0;
    if ((!across && !down) || !chosen) return false;
    const bool shift = e->modifiers() == (Qt::AltModifier | Qt::ShiftModifier);
    if (!shift && e->modifiers() != Qt::AltModifier) return false;
    if (across && shift)
        widenOnRiser(session, chosen, across * gapStep);
    else if (across)
        moveOnRiser(session, chosen, across);
    else if (shift && !wordsMove(chosen) && hasFeeder(session, chosen))
        session.say(tr("The words of the feeder to %1 stand above and below its level line and stay there.")
                        .arg(q(nameOf(session.project(), chosen))));
    else if (shift)
        liftWords(session, chosen, -down * liftStep);
    else
        lowerLine(session, chosen, down);
    return true;
}

void RiserStage::keyPressEvent(QKeyEvent* e) {
    if (!oneBoard->isChecked()) {
        if (e->matches(QKeySequence::Copy)) return copyBranchOf(session, session.selection());
        if (e->matches(QKeySequence::Paste)) return pasteBranch(session, session.selection());
        if (moveByKey(e)) return;
    }
    const QChar key = e->key() == Qt::Key_Delete ? QChar(0x7f) : e->text().isEmpty() ? QChar() : e->text()[0].toUpper();
    const bool plain = !(e->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    if (key.isNull() || !plain || !runRiserKey(session, session.selection(), key)) QWidget::keyPressEvent(e);
}

/// The drawing is laid out for the width that it has.
bool RiserStage::eventFilter(QObject* of, QEvent* e) {
    if (of == view && e->type() == QEvent::Resize &&
        static_cast<QResizeEvent*>(e)->size().width() != static_cast<QResizeEvent*>(e)->oldSize().width()) {
        for (auto& kept : rows) kept.reset(); // another width may do with other rows
        rebuild();
    }
    return QWidget::eventFilter(of, e);
}
void RiserStage::showEvent(QShowEvent*) { rebuild(); }

void RiserStage::askExport(Format format) {
    const QString usual = oneBoard->isChecked() ? "diagram" : "riser";
    const QString ending = format == Format::Pdf ? "pdf" : format == Format::Svg ? "svg" : "dxf";
    const QString file = QFileDialog::getSaveFileName(this, tr("Write the drawing"), usual + "." + ending,
                                                      QString("%1 (*.%2)").arg(ending.toUpper(), ending));
    if (file.isEmpty()) return;
    const auto written = exportTo(format, file);
    session.say(written ? tr("Written: %1").arg(written->join(", ")) : q(written.error().text()), !written);
}

Outcome<QStringList> RiserStage::exportTo(Format format, const QString& file) {
    if (const auto old = session.refuseOld()) return *old;
    const Solution& s = session.solution();
    const bool floors = layout() == RiserLayout::ByFloor;
    const SheetInput in{s.project, *s.book, s.results};
    const std::vector<Drawing> sheets = oneBoard->isChecked()
                                            ? boardDiagram(in, boardShown())
                                            : riserDiagram(in, layout(), floors ? "E-501" : "E-502", shown());
    if (sheets.empty()) return Error{"drawing", "there is nothing to draw: the board has no circuits", ""};
    if (format == Format::Pdf) {
        if (const auto bad = writePdf(sheets, file, pdfAbout(session.project(), sheets.front().title))) return *bad;
        return QStringList{file};
    }
    // These hold one sheet each.
    QStringList written;
    const QFileInfo info(file);
    for (std::size_t page = 0; page < sheets.size(); ++page) {
        const QString name =
            page == 0
                ? file
                : QString("%1/%2-%3.%4").arg(info.path(), info.completeBaseName()).arg(page + 1).arg(info.suffix());
        if (format == Format::Svg) {
            if (const auto bad = writeSvg(sheets[page], name)) return *bad;
        } else {
            const auto done = writeDxf(sheets[page], name.toStdString(), sheetDxf(in));
            if (!done) return done.error();
        }
        written << name;
    }
    return written;
}

} // namespace lintel
