#include "core/project/Validation.h"

#include <fmt/format.h>

namespace lintel {
namespace {

struct Checker {
    std::optional<Error> first;
    template <class T> void say(const char* table, Id<T> id, const char* field, std::string what, std::string help = "") {
        if (!first) first = Error{fmt::format("{} {}.{}", table, textOf(id), field), std::move(what), std::move(help)};
    }
    template <class T, class U> void resolves(const char* table, Id<T> id, const char* field, const Table<U>& in, Id<U> ref, bool needed = false) {
        if (ref ? !in.has(ref) : needed) say(table, id, field, ref ? "there is no " + textOf(ref) : std::string("this must be given"));
    }
    template <class T> void within(const char* table, Id<T> id, const char* field, double v, double lo, double hi) {
        if (!(v >= lo && v <= hi)) say(table, id, field, fmt::format("{} is outside {} … {}", v, lo, hi));
    }
};

} // namespace

std::optional<Error> validate(const Project& p) {
    Checker c;
    const Basis& b = p.basis;
    const auto basis = [&](const char* field, double v, double lo, double hi) {
        if (!c.first && !(v >= lo && v <= hi)) c.first = Error{fmt::format("basis.{}", field), fmt::format("{} is outside {} … {}", v, lo, hi), ""};
    };
    if (b.insulation != 60 && b.insulation != 75 && b.insulation != 90) c.first = Error{"basis.insulation", "insulation is rated 60, 75 or 90 °C", ""};
    basis("ambient", b.ambient, -40, 85);
    basis("smallestBreaker", b.smallestBreaker, 1, 6000);
    basis("feederDropLimit", b.feederDropLimit, 0.01, 100);
    basis("branchDropLimit", b.branchDropLimit, 0.01, 100);
    basis("totalDropLimit", b.totalDropLimit, 0.01, 100);
    basis("ratingShare", b.ratingShare, 0, 1);
    basis("upsizingCeiling", b.upsizingCeiling, 0, 40);
    basis("growth", b.growth, 0, 10);
    basis("slack", b.slack, 0, 10);
    basis("routeBelowCeiling", b.routeBelowCeiling, -10, 10);
    basis("powerFactor", b.powerFactor, 0.01, 1);
    for (const auto& [kind, factor] : b.demandFactors) {
        if (!c.first && !fromWord<LoadKind>(kind)) c.first = Error{"basis.demandFactors", "there is no load kind \"" + kind + "\"", ""};
        basis("demandFactors", factor, 0, 10);
    }
    for (const auto& [kind, size] : b.smallestByUse)
        if (!c.first && !fromWord<LoadKind>(kind)) c.first = Error{"basis.smallestByUse", "there is no load kind \"" + kind + "\"", ""};
    for (const auto& [kind, amps] : b.smallestBreakerByUse) {
        if (!c.first && !fromWord<LoadKind>(kind)) c.first = Error{"basis.smallestBreakerByUse", "there is no load kind \"" + kind + "\"", ""};
        basis("smallestBreakerByUse", amps, 0.5, 6000);
    }
    for (const auto& [kind, pattern] : b.namePatternByUse)
        if (!c.first && !fromWord<LoadKind>(kind)) c.first = Error{"basis.namePatternByUse", "there is no load kind \"" + kind + "\"", ""};
    for (const auto& [kind, laid] : b.wiringByUse)
        if (!c.first && !fromWord<LoadKind>(kind)) c.first = Error{"basis.wiringByUse", "there is no load kind \"" + kind + "\"", ""};
    basis("groundTemperature", b.groundTemperature, -20, 60);
    basis("soil", b.soil, 0.1, 10);
    basis("lightingDropLimit", b.lightingDropLimit, 0, 100);
    for (const Level& l : p.levels) c.within("levels", l.id, "height", l.height, 0.5, 200), c.within("levels", l.id, "elevation", l.elevation, -1000, 2000);
    for (const Wall& w : p.walls) c.resolves("walls", w.id, "level", p.levels, w.level, true), c.within("walls", w.id, "thickness", w.thickness, 0, 10), c.within("walls", w.id, "bulge", w.bulge, -1, 1);
    for (const Room& r : p.rooms) {
        c.resolves("rooms", r.id, "level", p.levels, r.level, true);
        if (r.ceiling) c.within("rooms", r.id, "ceiling", *r.ceiling, 0.3, 200);
        c.within("rooms", r.id, "gridX", r.gridX, 0, 10), c.within("rooms", r.id, "gridY", r.gridY, 0, 10);
    }
    for (const DeviceType& t : p.deviceTypes) {
        c.within("deviceTypes", t.id, "poles", t.poles, 1, 3);
        c.within("deviceTypes", t.id, "load", t.load, 0, 1e9);
        c.within("deviceTypes", t.id, "powerFactor", t.powerFactor, 0.01, 1);
    }
    for (const Device& d : p.devices) {
        c.resolves("devices", d.id, "type", p.deviceTypes, d.type, true);
        c.resolves("devices", d.id, "level", p.levels, d.level, true);
        c.resolves("devices", d.id, "circuit", p.circuits, d.circuit);
        c.resolves("devices", d.id, "recipe", p.recipes, d.recipe);
        c.resolves("devices", d.id, "room", p.rooms, d.room);
        if (d.load) c.within("devices", d.id, "load", *d.load, 0, 1e9);
    }
    for (const Source& s : p.sources) {
        c.resolves("sources", s.id, "level", p.levels, s.level);
        c.within("sources", s.id, "faultKA", s.faultKA, 0.001, 1000);
        c.within("sources", s.id, "kva", s.kva, 0.1, 1e6);
        c.within("sources", s.id, "percentZ", s.percentZ, 0.1, 100);
        c.within("sources", s.id, "xOverR", s.xOverR, 0, 1000);
        c.within("sources", s.id, "faultLN", s.faultLN, 0, 1000);
        c.within("sources", s.id, "subtransient", s.subtransient, 0.1, 100);
        c.within("sources", s.id, "peakShare", s.peakShare, 0.1, 20);
        c.within("sources", s.id, "ze", s.ze, 0, 10000);
    }
    const auto feed = [&](const char* table, auto id, Ref f, bool transformer) {
        const bool there = !f || (!transformer && f.is<Board>() && p.boards.has(f.as<Board>())) || (f.is<Source>() && p.sources.has(f.as<Source>())) || (f.is<Circuit>() && p.circuits.has(f.as<Circuit>())) ||
                           (!transformer && f.is<Transformer>() && p.transformers.has(f.as<Transformer>()));
        if (!there) c.say(table, id, "feed", "there is nothing called " + f.text() + " to be fed from");
    };
    for (const Transformer& t : p.transformers) {
        feed("transformers", t.id, t.feed, true);
        c.resolves("transformers", t.id, "run", p.runs, t.run);
        c.resolves("transformers", t.id, "level", p.levels, t.level);
        c.within("transformers", t.id, "kva", t.kva, 0.1, 1e6);
        c.within("transformers", t.id, "percentZ", t.percentZ, 0.1, 100);
        c.within("transformers", t.id, "xOverR", t.xOverR, 0, 1000);
    }
    for (const Board& d : p.boards) {
        feed("boards", d.id, d.feed, false);
        c.resolves("boards", d.id, "run", p.runs, d.run);
        c.resolves("boards", d.id, "level", p.levels, d.level);
        c.within("boards", d.id, "slots", d.slots, 1, 1200);
        c.within("boards", d.id, "bus", d.bus, 1, 100000);
        c.within("boards", d.id, "main", d.main, 0, 100000);
        c.within("boards", d.id, "ratingKA", d.ratingKA, 0.1, 1000);
        c.within("boards", d.id, "seriesKA", d.seriesKA, 0, 1000);
        c.within("boards", d.id, "reservedShare", d.reservedShare, 0, 1);
        c.within("boards", d.id, "turned", d.turned, 0, 2);
        for (const std::string& kind : d.leftKinds)
            if (!fromWord<LoadKind>(kind)) c.say("boards", d.id, "leftKinds", "there is no load kind \"" + kind + "\"");
        c.within("boards", d.id, "givenXR", d.givenXR, 0, 1000);
        if (d.givenKA) c.within("boards", d.id, "givenKA", *d.givenKA, 0.001, 1000);
        if (d.alternate && !p.sources.has(d.alternate.as<Source>())) c.say("boards", d.id, "alternate", "there is no source called " + d.alternate.text());
    }
    for (const Circuit& k : p.circuits) {
        c.resolves("circuits", k.id, "board", p.boards, k.board, true);
        c.resolves("circuits", k.id, "run", p.runs, k.run);
        c.within("circuits", k.id, "poles", k.poles, 1, 3);
        c.within("circuits", k.id, "slot", k.slot, 0, 1200);
        c.within("circuits", k.id, "factor", k.factor, 0, 10);
        if (k.heldBreaker) c.within("circuits", k.id, "heldBreaker", *k.heldBreaker, 0.5, 10000);
        if (k.letThroughKA) c.within("circuits", k.id, "letThroughKA", *k.letThroughKA, 0.001, 1000);
        c.within("circuits", k.id, "tie", k.tie, 0, 10000);
        c.within("circuits", k.id, "kept", k.kept, 0, 10000);
        c.within("circuits", k.id, "multiwire", k.multiwire, 0, 10000);
        c.within("circuits", k.id, "bundle", k.bundle, 0, 10000);
        c.within("circuits", k.id, "residual", k.residual, 0, 30000);
    }
    for (const Run& r : p.runs) {
        c.within("runs", r.id, "length", r.length, 0, 100000);
        c.within("runs", r.id, "nonlinear", r.nonlinear, 0, 1);
        c.within("runs", r.id, "sharing", r.sharing, 0, 1000);
        c.within("runs", r.id, "heldSets", r.heldSets, 0, 40);
        c.within("runs", r.id, "grouped", r.grouped, 0, 1000);
        c.within("runs", r.id, "insulated", r.insulated, 0, 1000);
        if (r.soil) c.within("runs", r.id, "soil", *r.soil, 0.1, 10);
    }
    for (const Load& l : p.loads) {
        c.resolves("loads", l.id, "circuit", p.circuits, l.circuit);
        c.resolves("loads", l.id, "board", p.boards, l.board);
        c.within("loads", l.id, "volts", l.volts, 0, 100000);
        c.within("loads", l.id, "poles", l.poles, 1, 3);
        c.within("loads", l.id, "amount", l.amount, 0, 1e9);
        c.within("loads", l.id, "quantity", l.quantity, 0, 1e6);
        c.within("loads", l.id, "powerFactor", l.powerFactor, 0.01, 1);
        c.within("loads", l.id, "diversity", l.diversity, 0, 10);
        c.within("loads", l.id, "duty", l.duty, 0.01, 1);
        for (double share : {l.splitA, l.splitB, l.splitC}) c.within("loads", l.id, "split", share, 0, 1e9);
    }
    for (const Section& s : p.sections) {
        c.resolves("sections", s.id, "board", p.boards, s.board, true);
        c.within("sections", s.id, "from", s.from, 1, 1200);
        c.within("sections", s.id, "to", s.to, s.from, 1200);
        c.within("sections", s.id, "rating", s.rating, 0, 100000);
        c.within("sections", s.id, "residual", s.residual, 0, 30000);
    }
    basis("circuitShare", b.circuitShare, 0.05, 1);
    basis("circuitPoints", b.circuitPoints, 0, 1000);
    basis("ownCircuitFrom", b.ownCircuitFrom, 0, 10000);
    basis("lightUtilisation", b.lightUtilisation, 0.05, 1.5);
    basis("lightMaintenance", b.lightMaintenance, 0.05, 1);
    basis("panelboardUpTo", b.panelboardUpTo, 0, 10000);
    for (const Underlay& u : p.underlays) {
        c.resolves("underlays", u.id, "level", p.levels, u.level, true);
        c.within("underlays", u.id, "scale", u.scale, 0, 1e6);
        c.within("underlays", u.id, "fade", u.fade, 0, 1);
        if (!u.crop.empty() && u.crop.size() != 2) c.say("underlays", u.id, "crop", "a crop is two corners, or none");
    }
    for (const Opening& o : p.openings) {
        c.resolves("openings", o.id, "wall", p.walls, o.wall, true);
        c.within("openings", o.id, "width", o.width, 0.05, 100);
    }
    for (const Furnishing& f : p.furnishings) {
        c.resolves("furnishings", f.id, "level", p.levels, f.level, true);
        c.within("furnishings", f.id, "width", f.width, 0, 100);
        c.within("furnishings", f.id, "depth", f.depth, 0, 100);
    }
    for (const Recipe& r : p.recipes)
        for (const RecipePart& part : r.parts) {
            c.resolves("recipes", r.id, "parts.type", p.deviceTypes, part.type, true);
            c.within("recipes", r.id, "parts.value", part.value, 0, 100000);
            c.within("recipes", r.id, "parts.rows", part.rows, 0, 1000);
            c.within("recipes", r.id, "parts.columns", part.columns, 0, 1000);
        }
    for (const Catchment& k : p.catchments) {
        c.resolves("catchments", k.id, "level", p.levels, k.level, true);
        for (const Serving& s : k.boards) {
            c.resolves("catchments", k.id, "boards.board", p.boards, s.board, true);
            for (const std::string& kind : s.kinds)
                if (!fromWord<LoadKind>(kind)) c.say("catchments", k.id, "boards.kinds", "there is no load kind \"" + kind + "\"");
        }
    }
    for (const Tray& t : p.trays) {
        c.resolves("trays", t.id, "level", p.levels, t.level, true);
        c.resolves("trays", t.id, "riseTo", p.levels, t.riseTo);
        c.within("trays", t.id, "width", t.width, 0.01, 10);
        c.within("trays", t.id, "depth", t.depth, 0.01, 10);
    }
    return c.first;
}

} // namespace lintel
