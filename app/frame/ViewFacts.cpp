// Facts of a view on a composed sheet.

#include "app/frame/FactsBuilder.h"
#include "core/base/Limits.h"
#include "core/compose/ComposedSheet.h"

namespace lintel {
namespace {

/// mm of a sheet in the unit of the project.
struct SheetUnit {
    const char* name;
    double mm; ///< of one
    QString words(double length) const { return QString::number(length / mm, 'f', mm > 1 ? 2 : 0) + " " + name; }
    QString figure(double length) const { return QString::number(length / mm, 'f', mm > 1 ? 2 : 0); }
};
SheetUnit sheetUnit(UnitSystem units) {
    return units == UnitSystem::Imperial ? SheetUnit{"in", 25.4} : SheetUnit{"mm", 1};
}

QString scaleChoice(double denominator, UnitSystem units) {
    return denominator > 0 ? q(scaleWords(denominator, units)) : QObject::tr("largest that fits");
}

/// "1:75", "75" or one of the usual; nothing: not a scale.
std::optional<double> scaleFrom(const QString& text, UnitSystem units) {
    const QString t = text.trimmed();
    if (t == scaleChoice(0, units)) return 0;
    for (const PlanScale& s : planScales(units))
        if (t == s.words) return s.denominator;
    const QString number = t.startsWith("1:") ? t.mid(2) : t;
    const auto typed = typedNumber(number.toStdString());
    return typed && *typed >= 1 && *typed <= limits::planScale ? typed : std::nullopt;
}

void placeRows(FactsBuilder& b, const PlacedView& v) {
    const PlacedViewId id = v.id;
    const SheetInput in = b.s.sheetInput(b.sol);
    const ComposedSheet* sheet = in.project.composedSheets.find(v.sheet);
    if (!sheet) return;
    const Point corner = fieldCorner(in, *sheet);
    const SheetUnit unit = sheetUnit(in.project.basis.units);
    const ComposedPages pages = composedPages(in, v.sheet, "");
    const auto spot = std::find_if(pages.spots.begin(), pages.spots.end(),
                                   [&](const ViewSpot& s) { return s.view == id && s.part == 0; });
    if (spot == pages.spots.end()) {
        b.row(QObject::tr("Place"), QObject::tr("nothing to show"));
        return;
    }
    b.row(QObject::tr("Size"),
          QString("%1 × %2 %3").arg(unit.figure(spot->width), unit.figure(spot->height), unit.name));
    const QString byItself = QObject::tr("first free place");
    const QString byHand = QObject::tr("by hand");
    const Point at = Point{spot->left, spot->top} - corner;
    const std::size_t page = spot->page;
    b.choice(QObject::tr("Place"), v.moved ? byHand : byItself, {byItself, byHand}, QObject::tr("Place of a view"),
             [id, at, page, byHand](Project& p, const QString& t) {
                 t == byHand ? moveView(p, id, at, int(page) + 1) : letGo(p, id);
                 return QString();
             });
    const auto moveTo = [id, session = &b.s](Project& p, Point to, std::size_t onPage) {
        moveByHand(session->sheetInput(session->solution()), p, id, to, onPage);
    };
    QStringList choices; // one more than there are: a sheet may go on for the view
    for (std::size_t i = 0; i <= pages.pages.size(); ++i) choices << QString::number(i + 1);
    b.choice(QObject::tr("Page"), choices[int(page)], choices, QObject::tr("Page of a view"),
             [moveTo, to = at + corner](Project& p, const QString& t) {
                 moveTo(p, to, std::size_t(t.toInt()) - 1);
                 return QString();
             });
    const auto length = [&](const QString& label, double now, const std::function<Point(double)>& moved) {
        b.number(unit.name, label, unit.words(now), unit.figure(now), QObject::tr("Move a view"), 0,
                 limits::paper / unit.mm, [moveTo, corner, page, moved, mm = unit.mm](Project& p, double typed) {
                     moveTo(p, moved(typed * mm) + corner, page);
                 });
    };
    length(QObject::tr("From left"), at.x, [at](double x) { return Point{x, at.y}; });
    length(QObject::tr("From top"), at.y, [at](double y) { return Point{at.x, y}; });
}

} // namespace

bool viewFacts(FactsBuilder& b, PlacedViewId id) {
    const PlacedView* v = b.sol.project.placedViews.find(id);
    if (!v) return false;
    const UnitSystem units = b.sol.project.basis.units;
    const SheetUnit unit = sheetUnit(units);
    const SheetInput in = b.s.sheetInput(b.sol);
    const QString usual = q(usualViewTitle(in, shownBy(*v)));
    b.f.title = v->title.empty() ? usual : q(v->title);
    b.f.about = QObject::tr("view");
    if (!isThere(in.project, *v)) {
        b.row(QObject::tr("Shows"), QObject::tr("what is gone: take the view off")).colour = theme().check;
        return true;
    }
    b.row(QObject::tr("Shows"), usual);
    b.text(QObject::tr("Title"), q(v->title), QObject::tr("Title of a view"),
           [id](Project& p, const std::string& t) { p.placedViews.change(id)->title = t; });
    if (v->title.empty()) b.f.rows.back().value = QObject::tr("the usual");
    const bool plan = v->shows == SheetKind::Plan || v->shows == SheetKind::Lighting || v->shows == SheetKind::Power;
    if (plan) {
        QStringList scales{scaleChoice(0, units)};
        for (const PlanScale& s : planScales(units)) scales << s.words;
        const QString now = scaleChoice(v->scale, units);
        if (!scales.contains(now)) scales << now;
        const QString other = QObject::tr("another …");
        FactRow& r = b.choice(QObject::tr("Scale"), now, scales << other, QObject::tr("Scale of a view"),
                              [id, units](Project& p, const QString& t) {
                                  const auto scale = scaleFrom(t, units);
                                  if (!scale) return QObject::tr("“%1” is not a scale. Type 1:75, or 75.").arg(t);
                                  p.placedViews.change(id)->scale = *scale;
                                  return QString();
                              });
        r.entry->other = other;
        r.entry->hint = "1:75";
    }
    if (v->shows != SheetKind::Schedule && (!plan || v->cropFrom != v->cropTo)) {
        const bool own = v->width > 0;
        b.number(
            unit.name, QObject::tr("No wider than"), own ? unit.words(v->width) : QObject::tr("as it comes"),
            own ? unit.figure(v->width) : QString(), QObject::tr("Width of a view"), 20 / unit.mm,
            limits::paper / unit.mm,
            [id, mm = unit.mm](Project& p, double w) { p.placedViews.change(id)->width = w * mm; },
            [id](Project& p) { p.placedViews.change(id)->width = 0; });
    }
    placeRows(b, *v);
    return true;
}

} // namespace lintel
