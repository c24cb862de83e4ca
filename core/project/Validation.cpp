#include "core/project/Validation.h"

#include "core/base/Article.h"
#include "core/base/Limits.h"
#include "core/base/Utf8.h"
#include "core/project/Fields.h"
#include "core/project/SheetNumbers.h"

#include <cmath>
#include <fmt/format.h>

namespace lintel {
namespace {

/// Finds the first thing that cannot be. `table` and `id` say what is being looked at.
struct Checker {
    std::optional<Error> first;
    const char* table = "";
    std::string (*idText)(std::uint32_t) = nullptr;
    std::uint32_t id = 0;

    void say(const char* field, std::string what, std::string help = "") {
        if (!first)
            first = Error{fmt::format("{}{}{}.{}", table, id ? " " : "", id ? idText(id) : "", field), std::move(what),
                          std::move(help)};
    }
    template <class U> void resolves(const char* field, const Table<U>& in, Id<U> ref, bool needed = false) {
        if (ref ? !in.has(ref) : needed)
            say(field, ref ? "there is no " + textOf(ref) : std::string("this must be given"));
    }
    void within(const char* field, double v, double lo, double hi) {
        if (!(v >= lo && v <= hi)) say(field, fmt::format("{} is outside {} … {}", v, lo, hi));
    }
};

/// What holds for every field of its type, whatever it means: finite numbers, text in UTF-8 of a sensible length,
/// choices that there are.
struct Sound {
    Checker& c;

    void value(const char* key, const std::string& s) {
        if (s.size() > limits::textBytes)
            c.say(key, fmt::format("the text is longer than {} bytes", limits::textBytes));
        else if (!isUtf8(s))
            c.say(key, "the text is not UTF-8");
        else if (s.find('\0') != std::string::npos)
            c.say(key, "the text holds a zero byte");
    }
    void value(const char* key, double v) {
        if (!(std::abs(v) <= limits::number)) c.say(key, fmt::format("{} is not a number that can be worked with", v));
    }
    void value(const char* key, Point p) {
        const double reach = key == std::string_view("modelOrigin") ? limits::modelOrigin : limits::coordinate;
        if (!(std::abs(p.x) <= reach && std::abs(p.y) <= reach))
            c.say(key, fmt::format("({}, {}) is off the plan: a point lies within {} km of its origin", p.x, p.y,
                                   reach / 1000));
    }
    template <WordedEnum E> void value(const char* key, E e) {
        for (const auto& [known, word] : EnumText<E>::words)
            if (known == e) return;
        c.say(key, "there is no such choice");
    }
    void value(const char* key, VoltageSystem s) {
        if (systemFrom(wordOf(s)) != s) c.say(key, wordOf(s) + " is no voltage system");
    }
    void value(const char*, int) {}
    void value(const char*, bool) {}
    void value(const char*, Ref) {}
    template <class T> void value(const char*, Id<T>) {}
    template <class T> void value(const char* key, const std::optional<T>& o) {
        if (o) value(key, *o);
    }
    template <class T> void value(const char* key, const std::vector<T>& list) {
        if (list.size() > limits::listItems)
            return c.say(key, fmt::format("the list has more than {} items", limits::listItems));
        for (const T& x : list)
            if constexpr (requires { value(key, x); })
                value(key, x);
            else
                fields(*this, const_cast<T&>(x)); // only read
    }
    template <class T> void value(const char* key, const std::map<std::string, T>& list) {
        if (list.size() > limits::listItems)
            return c.say(key, fmt::format("the list has more than {} items", limits::listItems));
        for (const auto& [name, x] : list) {
            value(key, name);
            value(key, x);
        }
    }
    template <class T> void operator()(const char* key, T& x) { value(key, x); }
};

void checkFeed(Checker& c, const Project& p, const char* field, Ref f, bool transformer) {
    const bool there = !f || (f.is<Board>() && p.boards.has(f.as<Board>())) ||
                       (f.is<Source>() && p.sources.has(f.as<Source>())) ||
                       (f.is<Circuit>() && p.circuits.has(f.as<Circuit>())) ||
                       (!transformer && f.is<Transformer>() && p.transformers.has(f.as<Transformer>()));
    if (!there) c.say(field, "there is nothing called " + f.text() + " to be fed from");
}

void check(Checker& c, const Project&, const Basis& b) {
    if (b.insulation != 60 && b.insulation != 75 && b.insulation != 90)
        c.say("insulation", "insulation is rated 60, 75 or 90 °C");
    c.within("ambient", b.ambient, -40, 85);
    c.within("smallestBreaker", b.smallestBreaker, 1, 6000);
    c.within("feederDropLimit", b.feederDropLimit, 0.01, 100);
    c.within("branchDropLimit", b.branchDropLimit, 0.01, 100);
    c.within("totalDropLimit", b.totalDropLimit, 0.01, 100);
    c.within("ratingShare", b.ratingShare, 0, 1);
    c.within("upsizingCeiling", b.upsizingCeiling, 0, 40);
    c.within("growth", b.growth, 0, 10);
    c.within("slack", b.slack, 0, 10);
    c.within("classShare", b.classShare, 0.01, 1);
    c.within("faultCelsius", b.faultCelsius, -40, 250);
    c.within("unknownLength", b.unknownLength, 0, 100'000);
    c.within("routeBelowCeiling", b.routeBelowCeiling, -10, 10);
    c.within("powerFactor", b.powerFactor, 0.01, 1);
    for (const auto& [kind, factor] : b.demandFactors) {
        if (!fromWord<LoadKind>(kind)) c.say("demandFactors", "there is no load kind \"" + kind + "\"");
        c.within("demandFactors", factor, 0, 10);
    }
    for (const auto& [kind, size] : b.smallestByUse)
        if (!fromWord<LoadKind>(kind)) c.say("smallestByUse", "there is no load kind \"" + kind + "\"");
    for (const auto& [kind, amps] : b.smallestBreakerByUse) {
        if (!fromWord<LoadKind>(kind)) c.say("smallestBreakerByUse", "there is no load kind \"" + kind + "\"");
        c.within("smallestBreakerByUse", amps, 0.5, 6000);
    }
    for (const auto& [kind, pattern] : b.namePatternByUse)
        if (!fromWord<LoadKind>(kind)) c.say("namePatternByUse", "there is no load kind \"" + kind + "\"");
    for (const auto& [kind, laid] : b.wiringByUse)
        if (!fromWord<LoadKind>(kind)) c.say("wiringByUse", "there is no load kind \"" + kind + "\"");
    c.within("groundTemperature", b.groundTemperature, -20, 60);
    c.within("soil", b.soil, 0.1, 10);
    c.within("lightingDropLimit", b.lightingDropLimit, 0, 100);
    if (b.north) c.within("north", *b.north, -360, 360);
    c.within("planScale", b.planScale, 0, limits::planScale);
    c.within("waste", b.waste, 0, 1);
    for (const TakeOffRule& t : b.takeOffRules) {
        if (t.item.empty()) c.say("takeOffRules.item", "a rule says what is ordered");
        for (const std::string& words : {t.item, t.of, t.why}) // they are typed a rule a line, with | between
            if (words.find_first_of("|\r\n") != std::string::npos)
                c.say("takeOffRules", "the words of a rule are one line and hold no |");
        c.within("takeOffRules.amount", t.amount, 0, limits::number);
        c.within("takeOffRules.every", t.every, t.per == TakeOffPer::Length ? limits::takeOffEvery : 0,
                 limits::takeOffEveryMost);
    }
    c.within("circuitShare", b.circuitShare, 0.05, 1);
    c.within("circuitPoints", b.circuitPoints, 0, 1000);
    c.within("ownCircuitFrom", b.ownCircuitFrom, 0, 10000);
    c.within("lightUtilisation", b.lightUtilisation, 0.05, 1.5);
    c.within("lightMaintenance", b.lightMaintenance, 0.05, 1);
    c.within("panelboardUpTo", b.panelboardUpTo, 0, 10000);
}
void check(Checker& c, const Project&, const Level& l) {
    c.within("height", l.height, 0.5, 200);
    c.within("elevation", l.elevation, -1000, 2000);
}
void check(Checker& c, const Project& p, const Wall& w) {
    c.resolves("level", p.levels, w.level, true);
    c.within("thickness", w.thickness, 0, 10);
    c.within("bulge", w.bulge, -1, 1);
}
void check(Checker& c, const Project& p, const Room& r) {
    c.resolves("level", p.levels, r.level, true);
    if (r.ceiling) c.within("ceiling", *r.ceiling, 0.3, 200);
    c.within("gridX", r.gridX, 0, 10);
    c.within("gridY", r.gridY, 0, 10);
}
void check(Checker& c, const Nameplate& n) {
    c.within("nameplateAmpacity", n.ampacity, 0, 6000);
    c.within("nameplateDevice", n.device, 0, 6000);
}
void check(Checker& c, const Project&, const DeviceType& t) {
    check(c, t.nameplate);
    c.within("poles", t.poles, 1, 3);
    c.within("load", t.load, 0, limits::number);
    c.within("powerFactor", t.powerFactor, 0.01, 1);
    c.within("height", t.height, -50, 200);
    c.within("lumens", t.lumens, 0, 1e7);
}
void check(Checker& c, const Project& p, const Device& d) {
    c.resolves("type", p.deviceTypes, d.type, true);
    c.resolves("level", p.levels, d.level, true);
    c.resolves("circuit", p.circuits, d.circuit);
    c.resolves("recipe", p.recipes, d.recipe);
    c.resolves("room", p.rooms, d.room);
    if (d.load) c.within("load", *d.load, 0, limits::number);
    if (d.height) c.within("height", *d.height, -50, 200);
}
void check(Checker& c, const Project& p, const Source& s) {
    c.resolves("level", p.levels, s.level);
    c.within("faultKA", s.faultKA, 0.001, 1000);
    c.within("kva", s.kva, 0.1, 1e6);
    c.within("percentZ", s.percentZ, 0.1, 100);
    c.within("xOverR", s.xOverR, 0, 1000);
    c.within("utilityMVA", s.utilityMVA, 0, 1e6);
    c.within("utilityXR", s.utilityXR, 0, 1000);
    c.within("utilityKV", s.utilityKV, 0, 1000);
    c.within("faultLN", s.faultLN, 0, 1000);
    c.within("subtransient", s.subtransient, 0.1, 100);
    c.within("peakShare", s.peakShare, 0.1, 20);
    c.within("ze", s.ze, 0, 10000);
}
void check(Checker& c, const Project& p, const Transformer& t) {
    checkFeed(c, p, "feed", t.feed, true);
    c.resolves("run", p.runs, t.run);
    c.resolves("level", p.levels, t.level);
    c.within("kva", t.kva, 0.1, 1e6);
    c.within("percentZ", t.percentZ, 0.1, 100);
    c.within("xOverR", t.xOverR, 0, 1000);
    c.within("boost", t.boost, -20, 20);
}
void check(Checker& c, const Project& p, const Board& d) {
    checkFeed(c, p, "feed", d.feed, false);
    checkFeed(c, p, "alternate", d.alternate, false);
    c.resolves("run", p.runs, d.run);
    c.resolves("alternateRun", p.runs, d.alternateRun);
    c.resolves("scheduleForm", p.forms, d.scheduleForm);
    c.within("kva", d.kva, 0, 1e6);
    c.within("kw", d.kw, 0, 1e6);
    c.within("efficiency", d.efficiency, 0, 1);
    c.within("rechargeKW", d.rechargeKW, 0, 1e6);
    c.within("inverterA", d.inverterA, 0, 1e6);
    c.within("barLength", d.barLength, 0, 10000);
    c.within("barR20", d.barR20, 0, 1000);
    c.within("barR", d.barR, 0, 1000);
    c.within("barX", d.barX, 0, 1000);
    c.within("barLoopR20", d.barLoopR20, 0, 1000);
    c.within("barLoopX", d.barLoopX, 0, 1000);
    c.resolves("level", p.levels, d.level);
    if (passesOn(d.use)) {
        c.within("slots", d.slots, 0, 0);
        if (std::any_of(p.circuits.begin(), p.circuits.end(), [&](const Circuit& k) { return k.board == d.id; }))
            c.say("use", fmt::format("{} holds circuits, and {} holds none", d.name, withArticle(wordOf(d.use))),
                  "Move its circuits to another board first.");
    } else {
        c.within("slots", d.slots, 1, 1200);
    }
    c.within("bus", d.bus, 1, 100000);
    c.within("main", d.main, 0, 100000);
    c.within("ratingKA", d.ratingKA, 0.1, 1000);
    c.within("seriesKA", d.seriesKA, 0, 1000);
    c.within("reservedShare", d.reservedShare, 0, 1);
    c.within("turned", d.turned, 0, 2);
    for (const std::string& kind : d.leftKinds)
        if (!fromWord<LoadKind>(kind)) c.say("leftKinds", "there is no load kind \"" + kind + "\"");
    c.within("height", d.height, -50, 200);
    c.within("givenXR", d.givenXR, 0, 1000);
    if (d.givenKA) c.within("givenKA", *d.givenKA, 0.001, 1000);
}
void check(Checker& c, const Project& p, const Circuit& k) {
    c.resolves("board", p.boards, k.board, true);
    if (const Board* b = p.boards.find(k.board); b && passesOn(b->use))
        c.say("board", fmt::format("{} is {} and holds no circuits", b->name, withArticle(wordOf(b->use))),
              "Feed what hangs on it straight from it.");
    c.resolves("run", p.runs, k.run);
    c.within("poles", k.poles, 1, 3);
    c.within("slot", k.slot, 0, 1200);
    c.within("factor", k.factor, 0, 10);
    if (k.heldBreaker) c.within("heldBreaker", *k.heldBreaker, 0.5, 10000);
    if (k.heldKA) c.within("heldKA", *k.heldKA, 0.001, 1000);
    if (k.letThroughEnergy) c.within("letThroughEnergy", *k.letThroughEnergy, 0.01, 1e9);
    if (k.letThroughKA) c.within("letThroughKA", *k.letThroughKA, 0.001, 1000);
    c.within("tie", k.tie, 0, 10000);
    c.within("kept", k.kept, 0, 10000);
    c.within("multiwire", k.multiwire, 0, 10000);
    c.within("bundle", k.bundle, 0, 10000);
    c.within("residual", k.residual, 0, 30000);
    c.within("startTimes", k.startTimes, 0, 20);
    if (k.along) c.within("along", *k.along, 0, 10000);
}
void check(Checker& c, const Project&, const Run& r) {
    c.within("listedKA", r.listedKA, 0, 1000);
    c.within("listedVA", r.listedVA, 0, limits::number);
    c.within("length", r.length, 0, 100000);
    c.within("nonlinear", r.nonlinear, 0, 1);
    c.within("sharing", r.sharing, 0, 1000);
    c.within("heldSets", r.heldSets, 0, limits::sets);
    c.within("grouped", r.grouped, 0, 1000);
    c.within("insulated", r.insulated, 0, 1000);
    c.within("thirdHarmonic", r.thirdHarmonic, 0, 1);
    c.within("points", r.points, 0, 1000);
    if (r.soil) c.within("soil", *r.soil, 0.1, 10);
    if (r.ambient) c.within("ambient", *r.ambient, -40, 85);
}
void check(Checker& c, const Project& p, const Load& l) {
    c.resolves("circuit", p.circuits, l.circuit);
    c.resolves("board", p.boards, l.board);
    c.within("volts", l.volts, 0, 100000);
    c.within("poles", l.poles, 1, 3);
    c.within("amount", l.amount, 0, limits::number);
    c.within("quantity", l.quantity, 0, 1e6);
    c.within("powerFactor", l.powerFactor, 0.01, 1);
    c.within("diversity", l.diversity, 0, 10);
    c.within("duty", l.duty, 0.01, 1);
    c.within("efficiency", l.efficiency, 0.01, 1);
    check(c, l.nameplate);
    for (double share : {l.splitA, l.splitB, l.splitC}) c.within("split", share, 0, limits::number);
}
void check(Checker& c, const Project& p, const Section& s) {
    c.resolves("board", p.boards, s.board, true);
    c.within("from", s.from, 1, 1200);
    c.within("to", s.to, s.from, 1200);
    c.within("rating", s.rating, 0, 100000);
    c.within("residual", s.residual, 0, 30000);
}
void check(Checker& c, const Project& p, const Underlay& u) {
    c.resolves("level", p.levels, u.level, true);
    c.within("scale", u.scale, 0, 1e6);
    c.within("fade", u.fade, 0, 1);
    if (!u.crop.empty() && u.crop.size() != 2) c.say("crop", "a crop is two corners, or none");
}
void check(Checker& c, const Project& p, const Opening& o) {
    c.resolves("wall", p.walls, o.wall, true);
    c.within("width", o.width, 0.05, 100);
    c.within("along", o.along, -1000, 100000);
}
void check(Checker& c, const Project& p, const Furnishing& f) {
    c.resolves("level", p.levels, f.level, true);
    c.within("width", f.width, 0, 100);
    c.within("depth", f.depth, 0, 100);
}
void check(Checker& c, const Project& p, const Recipe& r) {
    for (const RecipePart& part : r.parts) {
        c.resolves("parts.type", p.deviceTypes, part.type, true);
        c.within("parts.value", part.value, 0, 100000);
        c.within("parts.rows", part.rows, 0, 1000);
        c.within("parts.columns", part.columns, 0, 1000);
        if (double(part.rows) * part.columns > limits::devicesOfRecipe)
            c.say("parts.rows",
                  fmt::format("rows times columns is more than {} devices in a room", limits::devicesOfRecipe));
    }
}
void check(Checker& c, const Project& p, const Catchment& k) {
    c.resolves("level", p.levels, k.level, true);
    for (const Serving& s : k.boards) {
        c.resolves("boards.board", p.boards, s.board, true);
        for (const std::string& kind : s.kinds)
            if (!fromWord<LoadKind>(kind)) c.say("boards.kinds", "there is no load kind \"" + kind + "\"");
    }
}
void check(Checker& c, const Project& p, const KeyedNote& n) {
    c.resolves("level", p.levels, n.level, true);
    c.within("number", n.number, 1, limits::noteNumber);
}
void check(Checker& c, const Project& p, const Tray& t) {
    c.resolves("level", p.levels, t.level, true);
    c.resolves("riseTo", p.levels, t.riseTo);
    c.within("width", t.width, 0.01, 10);
    c.within("depth", t.depth, 0.01, 10);
    c.within("height", t.height, -50, 200);
}

void check(Checker& c, const Project&, const ScheduleForm& f) {
    if (f.columns.empty()) c.say("columns", "a form has one column at least");
    if (f.columns.size() > limits::formColumns)
        c.say("columns", fmt::format("a form has {} columns at most", limits::formColumns));
    for (const FormColumn& column : f.columns) c.within("columns.width", column.width, 0, 1000);
    if (f.head.size() > limits::formFacts)
        c.say("head", fmt::format("a title strip has {} facts at most", limits::formFacts));
    if (f.letters != 0) c.within("letters", f.letters, limits::leastLetters, limits::mostLetters);
    c.within("balance", f.balance, 0, 100);
}

void check(Checker& c, const Project& p, const Issue& i) {
    if (i.mark.empty()) c.say("mark", "an issue has a mark");
    c.resolves("basedOn", p.issues, i.basedOn);
    if (i.basedOn && i.basedOn >= i.id) c.say("basedOn", "an issue is told by one before it");
    if (i.packed.empty()) c.say("packed", "the state that it keeps is missing");
}

void check(Checker& c, const Project&, const Tick& t) {
    if (t.figure.empty()) c.say("figure", "a tick is about a figure");
    if (t.by.empty()) c.say("by", "somebody has ticked it");
}
void check(Checker& c, const Project&, const Remark& r) {
    if (r.text.empty()) c.say("text", "a remark says something");
    c.within("at.x", r.at.x, -10000, 10000);
    c.within("at.y", r.at.y, -10000, 10000);
}

void check(Checker& c, const Project&, const RiserPlace& r) {
    c.within("gap", r.gap, 0, limits::riserGap);
    c.within("lower", r.lower, 0, limits::riserSteps);
    c.within("lift", r.lift, 0, limits::riserLift);
    for (const Ref ref : {r.about, r.after})
        if (ref && !ref.is<Board>() && !ref.is<Transformer>() && !ref.is<Source>() && !ref.is<Circuit>())
            c.say(ref == r.about ? "about" : "after",
                  "what stands on a riser is a board, transformer, source or circuit");
    if (!r.about) c.say("about", "a place is of something");
}

/// What a sheet or view of a kind is of, in words.
const char* ownerWords(SheetKind kind) {
    switch (kind) {
    case SheetKind::Plan:
    case SheetKind::Lighting:
    case SheetKind::Power:
        return "a level";
    case SheetKind::Diagram:
    case SheetKind::Schedule:
        return "a board";
    case SheetKind::CutSheet:
        return "a device type";
    default:
        return "the project as a whole";
    }
}
bool isOf(SheetKind kind, Ref about) {
    const std::string_view owner = ownerWords(kind);
    return owner == "a level"         ? about.is<Level>()
           : owner == "a board"       ? about.is<Board>()
           : owner == "a device type" ? about.is<DeviceType>()
                                      : !about;
}

void check(Checker& c, const Project&, const SheetNumber& s) {
    const bool unnumbered = s.number.empty() && (!s.title.empty() || s.left);
    if (const auto bad = refuseSheetNumber(s.number); bad && !unnumbered) c.say("number", bad->what, bad->help);
    if (s.of >= SheetKind::List)
        c.say("of", "lists, notes, legends, pictures and cut sheets are views on a sheet, not sheets");
    else if (s.of == SheetKind::Composed ? !s.about.is<ComposedSheet>() : !isOf(s.of, s.about))
        c.say("about", fmt::format("a sheet \"{}\" is of {}", wordOf(s.of),
                                   s.of == SheetKind::Composed ? "a composed sheet" : ownerWords(s.of)));
}
void check(Checker&, const Project&, const ComposedSheet&) {}
void check(Checker& c, const Project&, const ListForm& f) {
    if (f.list.empty()) c.say("list", "a form is of a list");
    if (f.columns.size() > limits::formColumns)
        c.say("columns", fmt::format("a form has {} columns at most", limits::formColumns));
    for (const ListFormColumn& column : f.columns)
        if (column.of.empty()) c.say("columns.of", "a column of a form stands for one of the list");
}
void check(Checker& c, const Project&, const PlacedView& v) {
    if (v.shows == SheetKind::Composed) return c.say("shows", "a view does not show a sheet of views");
    if (!isOf(v.shows, v.about))
        c.say("about", fmt::format("a view \"{}\" is of {}", wordOf(v.shows), ownerWords(v.shows)));
    if (!v.sheet) c.say("sheet", "a view stands on a sheet");
    c.within("at.x", v.at.x, -limits::paper, limits::paper);
    c.within("at.y", v.at.y, -limits::paper, limits::paper);
    c.within("page", v.page, 1, limits::viewPages);
    c.within("width", v.width, 0, limits::paper);
    for (const double at : {v.cropFrom.x, v.cropFrom.y, v.cropTo.x, v.cropTo.y})
        c.within("crop", at, -limits::coordinate, limits::coordinate);
    c.within("scale", v.scale, 0, limits::planScale);
}

template <class T> void look(Checker& c, const Project& p, const char* table, const T& thing, bool sound) {
    c.table = table;
    c.id = thing.id.value;
    c.idText = [](std::uint32_t id) { return textOf(Id<T>{id}); };
    if (thing.id.value > mostId<T>) c.say("id", fmt::format("the number of this id is at most {}", mostId<T>));
    if (sound) {
        Sound s{c};
        fields(s, const_cast<T&>(thing)); // only read
    }
    check(c, p, thing);
}
void look(Checker& c, const Project& p, const Basis& b) {
    c.table = "basis";
    c.id = 0;
    Sound s{c};
    fields(s, const_cast<Basis&>(b)); // only read
    check(c, p, b);
}
/// `sound`: also what does not depend on anything else in the project.
void lookAtAll(Checker& c, const Project& p, bool sound) {
    Project::eachTable([&](const char* table, auto member) {
        for (const auto& thing : p.*member) {
            if (c.first) return;
            look(c, p, table, thing, sound);
        }
    });
}

/// A run belongs to one thing: what is done to it for one would otherwise happen to another unseen.
void checkOwners(Checker& c, const Project& p) {
    std::vector<char> taken;
    const auto take = [&](const char* table, const char* field, auto& things, auto runOf) {
        c.table = table;
        for (const auto& thing : things) {
            const RunId run = thing.*runOf;
            if (!run || c.first) continue;
            if (taken.size() <= run.value) taken.resize(run.value + 1, 0);
            c.id = thing.id.value;
            c.idText = [](std::uint32_t id) { return textOf(decltype(thing.id){id}); };
            if (taken[run.value])
                c.say(field, textOf(run) + " is the run of something else already",
                      "Give each circuit, board and transformer a run of its own.");
            taken[run.value] = 1;
        }
    };
    take("boards", "run", p.boards, &Board::run);
    take("boards", "alternateRun", p.boards, &Board::alternateRun);
    take("transformers", "run", p.transformers, &Transformer::run);
    take("circuits", "run", p.circuits, &Circuit::run);
}

} // namespace

std::optional<Error> validate(const Project& p) {
    Checker c;
    look(c, p, p.basis);
    lookAtAll(c, p, true);
    if (!c.first) checkOwners(c, p);
    return c.first;
}

std::optional<Error> validateEdit(const Edit& edit, const Project& after) {
    Checker c;
    bool removed = false, runGiven = false;
    for (const AnyChange& any : edit.changes)
        std::visit(
            [&]<class T>(const Change<T>& change) {
                if constexpr (requires { change.after->run.value; })
                    runGiven = runGiven || (change.after && change.after->run &&
                                            !(change.before && change.before->run == change.after->run));
                if constexpr (std::is_same_v<T, Board>)
                    runGiven = runGiven || (change.after && change.after->alternateRun);
                if constexpr (std::is_same_v<T, Basis>)
                    look(c, after, after.basis);
                else if (!change.after)
                    removed = true;
                else
                    Project::eachTable([&](const char* table, auto member) {
                        if constexpr (std::is_same_v<std::decay_t<decltype(after.*member)>, Table<T>>)
                            if (const T* now = (after.*member).find(change.after->id))
                                look(c, after, table, *now, true);
                    });
            },
            any);
    if (removed && !c.first) lookAtAll(c, after, false); // does anything still point at what is gone?
    if (runGiven && !c.first) checkOwners(c, after);
    return c.first;
}

} // namespace lintel
