#pragma once
// The fields of each kind of thing, listed once: reading, writing and the journal all walk this list.
// A test fills every field with a different value and reads it back, so a field forgotten here is found at once.

#include "core/project/Project.h"

namespace lintel {

template <class V> void fields(V& v, Revision& r) {
    v("mark", r.mark);
    v("date", r.date);
    v("text", r.text);
    v("by", r.by);
}
template <class V> void fields(V& v, TakeOffRule& t) {
    v("item", t.item);
    v("per", t.per);
    v("of", t.of);
    v("amount", t.amount);
    v("every", t.every);
    v("why", t.why);
}
template <class V> void fields(V& v, Basis& b) {
    v("title", b.title);
    v("jobNumber", b.jobNumber);
    v("company", b.company);
    v("designer", b.designer);
    v("issue", b.issue);
    v("issueDate", b.issueDate);
    v("companyAddress", b.companyAddress);
    v("logo", b.logo);
    v("site", b.site);
    v("client", b.client);
    v("drawn", b.drawn);
    v("checked", b.checked);
    v("approved", b.approved);
    v("status", b.status);
    v("revisions", b.revisions);
    v("ruleBook", b.ruleBook);
    v("units", b.units);
    v("occupancy", b.occupancy);
    v("branchMaterial", b.branchMaterial);
    v("feederMaterial", b.feederMaterial);
    v("insulation", b.insulation);
    v("terminals75", b.terminals75);
    v("ambient", b.ambient);
    v("raceway", b.raceway);
    v("conduit", b.conduit);
    v("insulationType", b.insulationType);
    v("wiring", b.wiring);
    v("smallestBranch", b.smallestBranch);
    v("largestPreferred", b.largestPreferred);
    v("smallestBreaker", b.smallestBreaker);
    v("feederDropLimit", b.feederDropLimit);
    v("branchDropLimit", b.branchDropLimit);
    v("totalDropLimit", b.totalDropLimit);
    v("branchDropBasis", b.branchDropBasis);
    v("feederDropBasis", b.feederDropBasis);
    v("ratingShare", b.ratingShare);
    v("upsizingCeiling", b.upsizingCeiling);
    v("growth", b.growth);
    v("slack", b.slack);
    v("routeBelowCeiling", b.routeBelowCeiling);
    v("unknownLength", b.unknownLength);
    v("powerFactor", b.powerFactor);
    v("demandFactors", b.demandFactors);
    v("lightingAreaOf", b.lightingAreaOf);
    v("motorsFeedFaults", b.motorsFeedFaults);
    v("classShare", b.classShare);
    v("faultCelsius", b.faultCelsius);
    v("electrodeMaterial", b.electrodeMaterial);
    v("ownValues", b.ownValues);
    v("ownReasons", b.ownReasons);
    v("setBy", b.setBy);
    v("seen", b.seen);
    v("smallestByUse", b.smallestByUse);
    v("smallestBreakerByUse", b.smallestBreakerByUse);
    v("wiringByUse", b.wiringByUse);
    v("branchCable", b.branchCable);
    v("feederCable", b.feederCable);
    v("branchMethod", b.branchMethod);
    v("feederMethod", b.feederMethod);
    v("groundTemperature", b.groundTemperature);
    v("soil", b.soil);
    v("lightingDropLimit", b.lightingDropLimit);
    v("dropWhenWarm", b.dropWhenWarm);
    v("phaseColours", b.phaseColours);
    v("circuitPattern", b.circuitPattern);
    v("circuitShare", b.circuitShare);
    v("circuitPoints", b.circuitPoints);
    v("ownCircuitFrom", b.ownCircuitFrom);
    v("panelboardUpTo", b.panelboardUpTo);
    v("wiringShape", b.wiringShape);
    v("north", b.north);
    v("planScale", b.planScale);
    v("sheetsTogether", b.sheetsTogether);
    v("calculationSheets", b.calculationSheets);
    v("waste", b.waste);
    v("takeOffRules", b.takeOffRules);
    v("lightUtilisation", b.lightUtilisation);
    v("lightMaintenance", b.lightMaintenance);
    v("runPattern", b.runPattern);
    v("namePattern", b.namePattern);
    v("namePatternByUse", b.namePatternByUse);
    v("modelOrigin", b.modelOrigin);
}
template <class V> void fields(V& v, Level& l) {
    v("id", l.id);
    v("name", l.name);
    v("elevation", l.elevation);
    v("height", l.height);
    v("modelId", l.modelId);
}
template <class V> void fields(V& v, Wall& w) {
    v("id", w.id);
    v("level", w.level);
    v("a", w.a);
    v("b", w.b);
    v("thickness", w.thickness);
    v("bulge", w.bulge);
    v("modelId", w.modelId);
}
template <class V> void fields(V& v, Room& r) {
    v("id", r.id);
    v("level", r.level);
    v("number", r.number);
    v("name", r.name);
    v("kind", r.kind);
    v("outline", r.outline);
    v("ceiling", r.ceiling);
    v("gridX", r.gridX);
    v("gridY", r.gridY);
    v("gridFrom", r.gridFrom);
    v("modelId", r.modelId);
}
template <class V> void fields(V& v, DeviceType& t) {
    v("id", t.id);
    v("name", t.name);
    v("symbol", t.symbol);
    v("kind", t.kind);
    v("load", t.load);
    v("unit", t.unit);
    v("powerFactor", t.powerFactor);
    v("poles", t.poles);
    v("continuous", t.continuous);
    v("onWall", t.onWall);
    v("height", t.height);
    v("lumens", t.lumens);
    v("lifeSafety", t.lifeSafety);
    v("protection", t.protection);
    v("connection", t.connection);
    v("nameplateAmpacity", t.nameplate.ampacity);
    v("nameplateDevice", t.nameplate.device);
    v("mark", t.mark);
    v("lamp", t.lamp);
    v("description", t.description);
    v("picture", t.picture);
}
template <class V> void fields(V& v, Device& d) {
    v("id", d.id);
    v("type", d.type);
    v("level", d.level);
    v("at", d.at);
    v("turn", d.turn);
    v("circuit", d.circuit);
    v("tag", d.tag);
    v("height", d.height);
    v("load", d.load);
    v("protection", d.protection);
    v("spur", d.spur);
    v("leg", d.leg);
    v("recipe", d.recipe);
    v("room", d.room);
    v("placed", d.placed);
    v("modelId", d.modelId);
}
template <class V> void fields(V& v, Source& s) {
    v("id", s.id);
    v("name", s.name);
    v("system", s.system);
    v("kind", s.kind);
    v("faultKA", s.faultKA);
    v("kva", s.kva);
    v("percentZ", s.percentZ);
    v("xOverR", s.xOverR);
    v("utilityMVA", s.utilityMVA);
    v("utilityXR", s.utilityXR);
    v("utilityKV", s.utilityKV);
    v("faultLN", s.faultLN);
    v("subtransient", s.subtransient);
    v("peakShare", s.peakShare);
    v("earthing", s.earthing);
    v("ownSubstation", s.ownSubstation);
    v("ze", s.ze);
    v("insulationMonitor", s.insulationMonitor);
    v("level", s.level);
    v("onPlan", s.onPlan);
    v("at", s.at);
}
template <class V> void fields(V& v, Transformer& t) {
    v("id", t.id);
    v("name", t.name);
    v("kva", t.kva);
    v("percentZ", t.percentZ);
    v("xOverR", t.xOverR);
    v("primary", t.primary);
    v("secondary", t.secondary);
    v("restartsDrop", t.restartsDrop);
    v("boost", t.boost);
    v("feed", t.feed);
    v("run", t.run);
    v("level", t.level);
    v("onPlan", t.onPlan);
    v("at", t.at);
}
template <class V> void fields(V& v, Board& b) {
    v("id", b.id);
    v("name", b.name);
    v("description", b.description);
    v("use", b.use);
    v("form", b.form);
    v("system", b.system);
    v("bus", b.bus);
    v("main", b.main);
    v("ratingKA", b.ratingKA);
    v("seriesKA", b.seriesKA);
    v("seriesDevices", b.seriesDevices);
    v("givenKA", b.givenKA);
    v("givenXR", b.givenXR);
    v("surge", b.surge);
    v("alternate", b.alternate);
    v("alternateRun", b.alternateRun);
    v("switchesNeutral", b.switchesNeutral);
    v("kva", b.kva);
    v("kw", b.kw);
    v("efficiency", b.efficiency);
    v("rechargeKW", b.rechargeKW);
    v("inverterA", b.inverterA);
    v("barLength", b.barLength);
    v("barR20", b.barR20);
    v("barR", b.barR);
    v("barX", b.barX);
    v("barLoopR20", b.barLoopR20);
    v("barLoopX", b.barLoopX);
    v("slots", b.slots);
    v("enclosure", b.enclosure);
    v("mounting", b.mounting);
    v("lugs", b.lugs);
    v("location", b.location);
    v("reservedShare", b.reservedShare);
    v("leftKinds", b.leftKinds);
    v("turned", b.turned);
    v("feed", b.feed);
    v("run", b.run);
    v("scheduleForm", b.scheduleForm);
    v("texts", b.texts);
    v("level", b.level);
    v("onPlan", b.onPlan);
    v("at", b.at);
    v("turn", b.turn);
    v("height", b.height);
}
template <class V> void fields(V& v, Circuit& c) {
    v("id", c.id);
    v("board", c.board);
    v("slot", c.slot);
    v("poles", c.poles);
    v("use", c.use);
    v("name", c.name);
    v("madeName", c.madeName);
    v("tie", c.tie);
    v("kept", c.kept);
    v("heldBreaker", c.heldBreaker);
    v("heldKA", c.heldKA);
    v("letThroughEnergy", c.letThroughEnergy);
    v("letThroughKA", c.letThroughKA);
    v("letThroughData", c.letThroughData);
    v("device", c.device);
    v("pinned", c.pinned);
    v("fullRated", c.fullRated);
    v("groundFault", c.groundFault);
    v("arcFault", c.arcFault);
    v("ring", c.ring);
    v("residual", c.residual);
    v("residualType", c.residualType);
    v("unprotected", c.unprotected);
    v("multiwire", c.multiwire);
    v("automatic", c.automatic);
    v("bundle", c.bundle);
    v("factor", c.factor);
    v("starter", c.starter);
    v("startTimes", c.startTimes);
    v("along", c.along);
    v("run", c.run);
    v("note", c.note);
    v("texts", c.texts);
}
template <class V> void fields(V& v, Run& r) {
    v("id", r.id);
    v("name", r.name);
    v("lengthBy", r.lengthBy);
    v("length", r.length);
    v("trace", r.trace);
    v("route", r.route);
    v("material", r.material);
    v("raceway", r.raceway);
    v("ambient", r.ambient);
    v("wiring", r.wiring);
    v("conduit", r.conduit);
    v("onRoof", r.onRoof);
    v("nonlinear", r.nonlinear);
    v("neutral", r.neutral);
    v("isolatedGround", r.isolatedGround);
    v("nipple", r.nipple);
    v("sharing", r.sharing);
    v("heldSize", r.heldSize);
    v("heldSets", r.heldSets);
    v("dropBasis", r.dropBasis);
    v("cable", r.cable);
    v("method", r.method);
    v("grouped", r.grouped);
    v("lying", r.lying);
    v("thirdHarmonic", r.thirdHarmonic);
    v("points", r.points);
    v("setsApart", r.setsApart);
    v("insulated", r.insulated);
    v("soil", r.soil);
    v("protectiveBy", r.protectiveBy);
    v("heldGround", r.heldGround);
    v("fireRated", r.fireRated);
    v("reference", r.reference);
    v("listedConduit", r.listedConduit);
    v("listedKA", r.listedKA);
    v("listedVA", r.listedVA);
}
template <class V> void fields(V& v, Load& l) {
    v("id", l.id);
    v("circuit", l.circuit);
    v("tag", l.tag);
    v("board", l.board);
    v("volts", l.volts);
    v("name", l.name);
    v("where", l.where);
    v("kind", l.kind);
    v("amount", l.amount);
    v("unit", l.unit);
    v("powerFactor", l.powerFactor);
    v("quantity", l.quantity);
    v("poles", l.poles);
    v("continuous", l.continuous);
    v("diversity", l.diversity);
    v("duty", l.duty);
    v("efficiency", l.efficiency);
    v("nameplateAmpacity", l.nameplate.ampacity);
    v("nameplateDevice", l.nameplate.device);
    v("splitA", l.splitA);
    v("splitB", l.splitB);
    v("splitC", l.splitC);
}
template <class V> void fields(V& v, FormColumn& c) {
    v("heading", c.heading);
    v("wording", c.wording);
    v("width", c.width);
    v("align", c.align);
}
template <class V> void fields(V& v, FormFact& f) {
    v("fact", f.fact);
    v("label", f.label);
}
template <class V> void fields(V& v, ScheduleForm& f) {
    v("id", f.id);
    v("name", f.name);
    v("of", f.of);
    v("usual", f.usual);
    v("columns", f.columns);
    v("head", f.head);
    v("letters", f.letters);
    v("rules", f.rules);
    v("spare", f.spare);
    v("space", f.space);
    v("withoutTally", f.withoutTally);
    v("withoutPhases", f.withoutPhases);
    v("balance", f.balance);
    v("sortBy", f.sortBy);
    v("groupBy", f.groupBy);
    v("backwards", f.backwards);
}
template <class V> void fields(V& v, IssuedSheet& s) {
    v("number", s.number);
    v("title", s.title);
    v("key", s.key);
    v("print", s.print);
}
template <class V> void fields(V& v, TakenOn& t) {
    v("what", t.what);
    v("by", t.by);
}
template <class V> void fields(V& v, Issue& i) {
    v("id", i.id);
    v("mark", i.mark);
    v("date", i.date);
    v("reason", i.reason);
    v("by", i.by);
    v("checked", i.checked);
    v("state", i.state);
    v("sheets", i.sheets);
    v("taken", i.taken);
    v("basedOn", i.basedOn);
    v("packed", i.packed);
}
template <class V> void fields(V& v, Tick& t) {
    v("id", t.id);
    v("about", t.about);
    v("figure", t.figure);
    v("thing", t.thing);
    v("value", t.value);
    v("by", t.by);
    v("date", t.date);
}
template <class V> void fields(V& v, Remark& r) {
    v("id", r.id);
    v("about", r.about);
    v("figure", r.figure);
    v("thing", r.thing);
    v("sheet", r.sheet);
    v("sheetKey", r.sheetKey);
    v("at", r.at);
    v("text", r.text);
    v("by", r.by);
    v("date", r.date);
    v("answer", r.answer);
    v("answeredBy", r.answeredBy);
    v("answeredOn", r.answeredOn);
    v("closed", r.closed);
}
template <class V> void fields(V& v, SheetNumber& s) {
    v("id", s.id);
    v("of", s.of);
    v("about", s.about);
    v("number", s.number);
    v("title", s.title);
    v("left", s.left);
}
template <class V> void fields(V& v, RiserPlace& p) {
    v("id", p.id);
    v("about", p.about);
    v("moved", p.moved);
    v("after", p.after);
    v("gap", p.gap);
    v("lower", p.lower);
    v("lift", p.lift);
}
template <class V> void fields(V& v, ListFormColumn& c) {
    v("of", c.of);
    v("heading", c.heading);
    v("hidden", c.hidden);
}
template <class V> void fields(V& v, ListForm& f) {
    v("id", f.id);
    v("list", f.list);
    v("title", f.title);
    v("columns", f.columns);
    v("offSheets", f.offSheets);
    v("sortBy", f.sortBy);
    v("groupBy", f.groupBy);
    v("backwards", f.backwards);
}
template <class V> void fields(V& v, ComposedSheet& s) {
    v("id", s.id);
    v("paper", s.paper);
}
template <class V> void fields(V& v, PlacedView& p) {
    v("id", p.id);
    v("sheet", p.sheet);
    v("shows", p.shows);
    v("about", p.about);
    v("text", p.text);
    v("title", p.title);
    v("moved", p.moved);
    v("at", p.at);
    v("page", p.page);
    v("width", p.width);
    v("scale", p.scale);
    v("cropFrom", p.cropFrom);
    v("cropTo", p.cropTo);
}
template <class V> void fields(V& v, KeyedNote& n) {
    v("id", n.id);
    v("level", n.level);
    v("at", n.at);
    v("number", n.number);
    v("text", n.text);
    v("on", n.on);
}
template <class V> void fields(V& v, Section& s) {
    v("id", s.id);
    v("board", s.board);
    v("name", s.name);
    v("from", s.from);
    v("to", s.to);
    v("rating", s.rating);
    v("residual", s.residual);
    v("residualType", s.residualType);
    v("metered", s.metered);
}
template <class V> void fields(V& v, Underlay& u) {
    v("id", u.id);
    v("level", u.level);
    v("file", u.file);
    v("stamp", u.stamp);
    v("scale", u.scale);
    v("origin", u.origin);
    v("turn", u.turn);
    v("fade", u.fade);
    v("hidden", u.hidden);
    v("crop", u.crop);
    v("hiddenLayers", u.hiddenLayers);
}
template <class V> void fields(V& v, Opening& o) {
    v("id", o.id);
    v("wall", o.wall);
    v("kind", o.kind);
    v("along", o.along);
    v("width", o.width);
    v("hingeAtEnd", o.hingeAtEnd);
    v("otherSide", o.otherSide);
    v("modelId", o.modelId);
}
template <class V> void fields(V& v, Furnishing& f) {
    v("id", f.id);
    v("level", f.level);
    v("kind", f.kind);
    v("at", f.at);
    v("turn", f.turn);
    v("width", f.width);
    v("depth", f.depth);
    v("name", f.name);
}
template <class V> void fields(V& v, RecipePart& r) {
    v("type", r.type);
    v("by", r.by);
    v("value", r.value);
    v("rows", r.rows);
    v("columns", r.columns);
    v("furnishing", r.furnishing);
    v("leg", r.leg);
}
template <class V> void fields(V& v, Recipe& r) {
    v("id", r.id);
    v("roomKind", r.roomKind);
    v("parts", r.parts);
}
template <class V> void fields(V& v, Serving& s) {
    v("board", s.board);
    v("kinds", s.kinds);
    v("lifeSafety", s.lifeSafety);
}
template <class V> void fields(V& v, Catchment& c) {
    v("id", c.id);
    v("level", c.level);
    v("name", c.name);
    v("outline", c.outline);
    v("boards", c.boards);
}
template <class V> void fields(V& v, Tray& t) {
    v("id", t.id);
    v("level", t.level);
    v("name", t.name);
    v("path", t.path);
    v("width", t.width);
    v("depth", t.depth);
    v("height", t.height);
    v("riseTo", t.riseTo);
}

} // namespace lintel
