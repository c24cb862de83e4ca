#include "core/project/LoadWords.h"
#include "core/project/CircuitFacts.h"

#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/project/Catalogue.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::string plain(double v) { return fmt::format("{}", v); }

std::optional<Error> refuse(const Project& p, CircuitId c, std::string what, std::string help = "") { return Error{nameOf(p, c), std::move(what), std::move(help)}; }

template <WordedEnum E> std::string choices() {
    std::string all;
    for (const auto& [value, word] : EnumText<E>::words) all += (all.empty() ? "" : ", ") + std::string(word);
    return all;
}
template <WordedEnum E> std::optional<E> wordFrom(const std::string& text) {
    for (const auto& [value, word] : EnumText<E>::words)
        if (sameWord(trimmed(text), word)) return value;
    return std::nullopt;
}

bool automatic(const std::string& text) {
    const std::string t = lowered(trimmed(text));
    return t.empty() || t == "auto" || t == "automatic";
}

// ---- writers that several facts share ----

template <double Circuit::*field> std::optional<Error> writeNumber(Project& p, CircuitId id, const std::string& text, double lo, double hi, double usual) {
    const auto v = trimmed(text).empty() ? std::optional(usual) : numberFrom(text);
    if (!v || *v < lo || *v > hi) return refuse(p, id, fmt::format("“{}” is not a number from {} to {}", text, lo, hi));
    p.circuits.change(id)->*field = *v;
    return {};
}
template <int Circuit::*field> std::optional<Error> writeGroup(Project& p, CircuitId id, const std::string& text) {
    const auto v = yesFrom(text) == false ? std::optional(0.0) : numberFrom(text);
    if (!v || *v < 0 || *v > 10000 || *v != std::floor(*v)) return refuse(p, id, "“" + text + "” is not the number of a group", "Type a whole number, or nothing for none.");
    p.circuits.change(id)->*field = int(*v);
    return {};
}
template <int Circuit::*field> std::string readGroup(const Project&, const Circuit& c) { return c.*field ? std::to_string(c.*field) : ""; }
template <bool Circuit::*field> std::string readFlag(const Project&, const Circuit& c) { return c.*field ? "yes" : ""; }
template <bool Circuit::*field> std::optional<Error> writeFlag(Project& p, CircuitId id, const std::string& text) {
    const auto v = yesFrom(text);
    if (!v) return refuse(p, id, "“" + text + "” is not yes or no");
    p.circuits.change(id)->*field = *v;
    return {};
}
/// A text of the run: its cable, conduit …; empty: as the basis.
template <std::string Run::*field> std::string readRun(const Project& p, const Circuit& c) {
    const Run* r = p.runs.find(c.run);
    return r ? r->*field : "";
}
template <std::string Run::*field> std::optional<Error> writeRun(Project& p, CircuitId id, const std::string& text) {
    runOf(p, id).*field = automatic(text) ? "" : trimmed(text);
    return {};
}

// ---- the facts ----

std::string readServes(const Project& p, const Circuit& c) {
    if (c.use == CircuitUse::Spare) return "Spare";
    if (c.use == CircuitUse::Reserved) return c.name.empty() ? "Reserved" : "Reserved: " + c.name;
    if (const Ref fed = fedBy(p, c.id)) return nameOf(p, fed);
    return c.name;
}
std::optional<Error> writeServes(Project& p, CircuitId id, const std::string& text) {
    const std::string t = trimmed(text);
    const Ref fed = fedBy(p, id);
    if (fed) {
        if (t == nameOf(p, fed)) return {};
        return refuse(p, id, "a feeder is called after what it feeds", "Rename the board or transformer instead.");
    }
    const CircuitLoads loads = loadsOf(p, id);
    const bool spare = sameWord(t, "spare"), reserved = lowered(t).rfind("reserved", 0) == 0;
    if ((spare || reserved) && (!loads.listed.empty() || loads.devices))
        return refuse(p, id, fmt::format("it carries {} and cannot be {}", loads.devices ? "devices" : "a load", spare ? "a spare" : "reserved"), "Take its loads off first.");
    Circuit& c = *p.circuits.change(id);
    c.use = spare ? CircuitUse::Spare : reserved ? CircuitUse::Reserved : CircuitUse::Load;
    c.name = spare ? "" : reserved ? trimmed(std::string_view(t).substr(std::min<std::size_t>(t.size(), 8 + (t.size() > 8 && t[8] == ':')))) : t;
    if (c.use == CircuitUse::Load && !c.run) {
        const RunId run = p.runs.add({});
        p.circuits.change(id)->run = run;
    }
    // A load that was typed before its circuit had a name takes its kind from it now: the order of entry does not matter.
    if (loads.listed.size() == 1 && !loads.devices)
        if (const Load& l = p.loads[loads.listed.front()]; l.name == "Load" && l.kind == LoadKind::Equipment && l.unit != LoadUnit::hp)
            if (const auto kind = LoadWords::shipped().kindOf(t)) p.loads.change(l.id)->kind = *kind;
    return {};
}

std::string readLoad(const Project& p, const Circuit& c) {
    const CircuitLoads l = loadsOf(p, c.id);
    if (l.listed.size() != 1 || l.devices) return "";
    const Load& x = p.loads[l.listed.front()];
    return plain(x.amount) + " " + wordOf(x.unit);
}
std::optional<Error> writeLoad(Project& p, CircuitId id, const std::string& text) {
    const CircuitLoads l = loadsOf(p, id);
    if (fedBy(p, id)) return refuse(p, id, "a feeder carries what it feeds", "Enter loads on the board below.");
    if (l.devices) return refuse(p, id, fmt::format("its load comes from {} on plan", l.devices == 1 ? "a device" : fmt::format("{} devices", l.devices)), "Change the devices, or list a load beside them.");
    if (l.listed.size() > 1) return refuse(p, id, fmt::format("it carries {} loads", l.listed.size()), "Change them one by one in its facts.");
    const Circuit& c = p.circuits[id];
    if (trimmed(text).empty()) {
        for (LoadId x : l.listed) p.loads.remove(x);
        return {};
    }
    if (const DeviceType* type = typeByName(p, trimmed(text))) { // by the name of a type of the catalogue
        const DeviceType t = *type;
        if (t.poles > factsOf(p.boards[c.board].system).lines) return refuse(p, id, fmt::format("{} takes {} poles", t.name, t.poles));
        if (t.poles > c.poles)
            if (const auto bad = setPoles(p, id, t.poles)) return bad;
        Load x;
        if (!l.listed.empty()) x = p.loads[l.listed.front()];
        x.circuit = id, x.name = t.name, x.kind = t.kind, x.amount = t.load, x.unit = t.unit, x.powerFactor = t.powerFactor, x.poles = t.poles, x.continuous = t.continuous;
        if (l.listed.empty()) p.loads.add(x);
        else *p.loads.change(x.id) = x;
        if (p.circuits[id].name.empty()) p.circuits.change(id)->name = p.circuits.change(id)->madeName = t.name;
        if (p.circuits[id].use != CircuitUse::Load) p.circuits.change(id)->use = CircuitUse::Load;
        (void)runOf(p, id);
        return {};
    }
    const auto typed = loadFrom(text);
    if (!typed) return refuse(p, id, "“" + text + "” is not a load", "Type 1500, 1.5 kVA, 900 W, 2 kW, 16 A or 10 hp, or the name of a type of the catalogue.");
    if (l.listed.empty()) {
        Load x;
        x.circuit = id, x.name = c.name.empty() ? "Load" : c.name, x.poles = c.poles;
        x.amount = typed->amount, x.unit = typed->unit.value_or(LoadUnit::VA);
        if (x.unit == LoadUnit::hp) x.kind = LoadKind::Motor;
        else if (const auto kind = LoadWords::shipped().kindOf(c.name)) x.kind = *kind;
        p.loads.add(std::move(x));
        if (p.circuits[id].use != CircuitUse::Load) p.circuits.change(id)->use = CircuitUse::Load;
        (void)runOf(p, id);
        return {};
    }
    Load& x = *p.loads.change(l.listed.front());
    x.amount = typed->amount;
    if (typed->unit) x.unit = *typed->unit;
    return {};
}

std::string readKind(const Project& p, const Circuit& c) {
    const CircuitLoads l = loadsOf(p, c.id);
    return l.listed.empty() ? "" : wordOf(p.loads[l.listed.front()].kind);
}
std::optional<Error> writeKind(Project& p, CircuitId id, const std::string& text) {
    const auto kind = wordFrom<LoadKind>(text);
    if (!kind) return refuse(p, id, "there is no load kind “" + text + "”", "Choose one of: " + choices<LoadKind>() + ".");
    const CircuitLoads l = loadsOf(p, id);
    if (l.listed.empty()) return refuse(p, id, l.devices ? "the kind of devices on plan is that of their type" : "it has no load yet");
    for (LoadId x : l.listed) p.loads.change(x)->kind = *kind;
    return {};
}

std::string readPowerFactor(const Project& p, const Circuit& c) {
    const CircuitLoads l = loadsOf(p, c.id);
    return l.listed.empty() ? "" : plain(p.loads[l.listed.front()].powerFactor);
}
std::optional<Error> writePowerFactor(Project& p, CircuitId id, const std::string& text) {
    const auto v = numberFrom(text);
    if (!v || *v < 0.01 || *v > 1) return refuse(p, id, "“" + text + "” is not a power factor from 0.01 to 1");
    const CircuitLoads l = loadsOf(p, id);
    if (l.listed.empty()) return refuse(p, id, l.devices ? "the power factor of devices on plan is that of their type" : "it has no load yet");
    for (LoadId x : l.listed) p.loads.change(x)->powerFactor = *v;
    return {};
}
std::string readContinuous(const Project& p, const Circuit& c) {
    const CircuitLoads l = loadsOf(p, c.id);
    return !l.listed.empty() && p.loads[l.listed.front()].continuous ? "yes" : "";
}
std::optional<Error> writeContinuous(Project& p, CircuitId id, const std::string& text) {
    const auto v = yesFrom(text);
    if (!v) return refuse(p, id, "“" + text + "” is not yes or no");
    const CircuitLoads l = loadsOf(p, id);
    if (l.listed.empty() && *v) return refuse(p, id, l.devices ? "whether devices on plan are continuous is said by their type" : "it has no load yet");
    for (LoadId x : l.listed) p.loads.change(x)->continuous = *v;
    return {};
}

std::string readBreaker(const Project&, const Circuit& c) { return c.heldBreaker ? plain(*c.heldBreaker) : ""; }
std::optional<Error> writeBreaker(Project& p, CircuitId id, const std::string& text) {
    if (automatic(text)) return p.circuits.change(id)->heldBreaker.reset(), std::nullopt;
    std::string t = trimmed(text);
    int poles = p.circuits[id].poles;
    if (const auto slash = t.find('/'); slash != std::string::npos) { // 30/2: rating and poles
        const auto n = numberFrom(t.substr(slash + 1));
        if (!n || *n < 1 || *n > 3 || *n != std::floor(*n)) return refuse(p, id, "“" + text + "” is not a breaker", "Type 20, 30/2 for two poles, or auto.");
        poles = int(*n);
        t = trimmed(t.substr(0, slash));
    }
    if (!t.empty() && (t.back() == 'A' || t.back() == 'a')) t = trimmed(t.substr(0, t.size() - 1));
    const auto amps = automatic(t) ? std::optional(0.0) : numberFrom(t);
    if (!amps || (*amps < 0.5 && !automatic(t)) || *amps > 6000) return refuse(p, id, "“" + text + "” is not a breaker", "Type 20, 30/2 for two poles, or auto.");
    if (const auto bad = setPoles(p, id, poles)) return bad;
    if (automatic(t)) p.circuits.change(id)->heldBreaker.reset();
    else p.circuits.change(id)->heldBreaker = *amps;
    return {};
}

std::string readPoles(const Project&, const Circuit& c) { return std::to_string(c.poles); }
std::optional<Error> writePoles(Project& p, CircuitId id, const std::string& text) {
    const auto v = numberFrom(text);
    if (!v || (*v != 1 && *v != 2 && *v != 3)) return refuse(p, id, "“" + text + "” is not a number of poles: 1, 2 or 3");
    return setPoles(p, id, int(*v));
}

std::string readDevice(const Project&, const Circuit& c) { return c.device == DeviceKind::Breaker ? "" : wordOf(c.device); }
std::optional<Error> writeDevice(Project& p, CircuitId id, const std::string& text) {
    const auto kind = automatic(text) ? std::optional(DeviceKind::Breaker) : wordFrom<DeviceKind>(text);
    if (!kind) return refuse(p, id, "there is no kind of device “" + text + "”", "Choose one of: " + choices<DeviceKind>() + ".");
    p.circuits.change(id)->device = *kind;
    return {};
}

std::string readSize(const Project& p, const Circuit& c) { return readRun<&Run::heldSize>(p, c); }
std::optional<Error> writeSize(Project& p, CircuitId id, const std::string& text) {
    Run& r = runOf(p, id);
    r.heldSize = automatic(text) ? "" : trimmed(text[0] == '#' ? std::string_view(text).substr(1) : std::string_view(text));
    if (r.heldSize.empty()) r.heldSets = 0;
    return {};
}

std::string readLength(const Project& p, const Circuit& c) {
    const Run* r = p.runs.find(c.run);
    if (!r || r->lengthBy != LengthBy::Entered) return "";
    return p.basis.units == UnitSystem::Imperial ? plain(std::round(r->length / metresPerFoot * 100) / 100) + " ft" : plain(std::round(r->length * 1000) / 1000) + " m";
}
std::optional<Error> writeLength(Project& p, CircuitId id, const std::string& text) {
    if (automatic(text)) return runOf(p, id).lengthBy = LengthBy::Reach, std::nullopt;
    const auto m = metresFrom(text, p.basis.units);
    if (!m) return refuse(p, id, "“" + text + "” is not a length", "Type 120 ft or 36 m, or nothing to measure it.");
    Run& r = runOf(p, id);
    r.lengthBy = LengthBy::Entered, r.length = *m;
    return {};
}

std::string readMaterial(const Project& p, const Circuit& c) {
    const Run* r = p.runs.find(c.run);
    return r && r->material ? wordOf(*r->material) : "";
}
std::optional<Error> writeMaterial(Project& p, CircuitId id, const std::string& text) {
    if (automatic(text)) return runOf(p, id).material.reset(), std::nullopt;
    const auto m = wordFrom<Material>(text);
    if (!m) return refuse(p, id, "there is no conductor of “" + text + "”", "copper or aluminium");
    runOf(p, id).material = *m;
    return {};
}
std::string readWiring(const Project& p, const Circuit& c) {
    const Run* r = p.runs.find(c.run);
    return r && r->wiring != Wiring::Default ? wordOf(r->wiring) : "";
}
std::optional<Error> writeWiring(Project& p, CircuitId id, const std::string& text) {
    const auto w = automatic(text) ? std::optional(Wiring::Default) : wordFrom<Wiring>(text);
    if (!w) return refuse(p, id, "conductors are not laid in “" + text + "”", "Choose one of: " + choices<Wiring>() + ".");
    runOf(p, id).wiring = *w;
    return {};
}

std::string readResidual(const Project&, const Circuit& c) { return c.residual > 0 ? plain(c.residual) : ""; }
std::optional<Error> writeResidual(Project& p, CircuitId id, const std::string& text) { return writeNumber<&Circuit::residual>(p, id, text, 0, 30000, 0); }
std::string readResidualType(const Project&, const Circuit& c) { return c.residual > 0 ? wordOf(c.residualType) : ""; }
std::optional<Error> writeResidualType(Project& p, CircuitId id, const std::string& text) {
    auto type = automatic(text) ? std::optional(ResidualType::A) : wordFrom<ResidualType>(text);
    if (!type) type = wordFrom<ResidualType>("type " + text); // "B" will do
    if (!type) return refuse(p, id, "there is no residual-current device of “" + text + "”", "Choose one of: " + choices<ResidualType>() + ".");
    p.circuits.change(id)->residualType = *type;
    return {};
}
std::string readFactor(const Project&, const Circuit& c) { return c.factor == 1 ? "" : plain(c.factor); }
std::optional<Error> writeFactor(Project& p, CircuitId id, const std::string& text) { return writeNumber<&Circuit::factor>(p, id, text, 0, 10, 1); }
std::string readNote(const Project&, const Circuit& c) { return c.note; }
std::optional<Error> writeNote(Project& p, CircuitId id, const std::string& text) { return p.circuits.change(id)->note = trimmed(text), std::nullopt; }
std::string readReason(const Project&, const Circuit& c) { return c.unprotected; }
std::optional<Error> writeReason(Project& p, CircuitId id, const std::string& text) { return p.circuits.change(id)->unprotected = trimmed(text), std::nullopt; }

} // namespace

const std::vector<CircuitFact>& circuitFacts() {
    static const std::vector<CircuitFact> list{
        {"serves", "Serves", "what it serves; spare; reserved", readServes, writeServes},
        {"load", "Load", "1500, 1.5 kVA, 900 W, 16 A, 10 hp, or a type of the catalogue", readLoad, writeLoad},
        {"breaker", "Breaker", "20, 30/2 for two poles, auto", readBreaker, writeBreaker},
        {"size", "Size", "a size of the rule book, or auto", readSize, writeSize},
        {"length", "Length", "120 ft, 36 m, or nothing to measure it", readLength, writeLength},
        {"poles", "Poles", "1, 2 or 3", readPoles, writePoles},
        {"kind", "Load kind", "lighting, receptacle, motor …", readKind, writeKind},
        {"powerFactor", "Power factor", "0.01 to 1", readPowerFactor, writePowerFactor},
        {"continuous", "Continuous", "yes or no", readContinuous, writeContinuous},
        {"device", "Kind of device", "breaker, fuse, type B …", readDevice, writeDevice},
        {"material", "Material", "copper, aluminium, auto", readMaterial, writeMaterial},
        {"wiring", "Laid in", "conduit, MC cable …, auto", readWiring, writeWiring},
        {"conduit", "Conduit", "as the rule book names it, or auto", readRun<&Run::conduit>, writeRun<&Run::conduit>},
        {"cable", "Cable", "as the rule book names it, or auto", readRun<&Run::cable>, writeRun<&Run::cable>},
        {"method", "Method", "a reference method, or auto", readRun<&Run::method>, writeRun<&Run::method>},
        {"groundFault", "Ground-fault device", "yes or no", readFlag<&Circuit::groundFault>, writeFlag<&Circuit::groundFault>},
        {"arcFault", "Arc-fault device", "yes or no", readFlag<&Circuit::arcFault>, writeFlag<&Circuit::arcFault>},
        {"residual", "Residual-current device", "mA, or nothing", readResidual, writeResidual},
        {"residualType", "Its type", "type A, type AC, type F, type B …", readResidualType, writeResidualType},
        {"unprotected", "Left out because", "the reason", readReason, writeReason},
        {"fullRated", "100 % rated", "yes or no", readFlag<&Circuit::fullRated>, writeFlag<&Circuit::fullRated>},
        {"pinned", "Pinned", "yes or no", readFlag<&Circuit::pinned>, writeFlag<&Circuit::pinned>},
        {"tie", "Tie", "number of the tie, or nothing", readGroup<&Circuit::tie>, writeGroup<&Circuit::tie>},
        {"multiwire", "Multiwire group", "number of the group, or nothing", readGroup<&Circuit::multiwire>, writeGroup<&Circuit::multiwire>},
        {"kept", "Kept together", "number of the group, or nothing", readGroup<&Circuit::kept>, writeGroup<&Circuit::kept>},
        {"bundle", "Bundle", "number of the bundle, or nothing", readGroup<&Circuit::bundle>, writeGroup<&Circuit::bundle>},
        {"factor", "Own factor", "0 to 10", readFactor, writeFactor},
        {"note", "Note", "anything", readNote, writeNote}};
    return list;
}

const CircuitFact* circuitFact(const std::string& word) {
    for (const CircuitFact& f : circuitFacts())
        if (sameWord(word, f.key) || sameWord(word, f.title)) return &f;
    return nullptr;
}

std::optional<Error> setPoles(Project& p, CircuitId id, int poles) {
    const Circuit& c = p.circuits[id];
    if (c.poles == poles) return {};
    const Board& b = p.boards[c.board];
    if (poles > factsOf(b.system).lines) return refuse(p, id, fmt::format("{} has {} lines", b.name, factsOf(b.system).lines));
    const int slot = c.slot, was = c.poles;
    p.circuits.change(id)->poles = poles;
    if (slot <= 0) return {};
    p.circuits.change(id)->slot = 0;
    if (const MovePlan plan = planMove(p, id, slot); plan.possible) return applyMove(p, plan), std::nullopt;
    if (const int free = firstFreeSlot(p, c.board, poles, id)) return p.circuits.change(id)->slot = free, std::nullopt;
    p.circuits.change(id)->poles = was, p.circuits.change(id)->slot = slot;
    return refuse(p, id, fmt::format("{} has no place for {} poles", b.name, poles), "Free some slots, or give it more.");
}

int freeGroup(const Project& p, BoardId board, int Circuit::*group) {
    int highest = 0;
    for (const Circuit& c : p.circuits)
        if (c.board == board) highest = std::max(highest, c.*group);
    return highest + 1;
}

std::optional<Error> tieCircuits(Project& p, const std::vector<CircuitId>& circuits) {
    if (circuits.empty()) return Error{"Tie", "choose the circuits to tie", ""};
    const Circuit first = p.circuits[circuits.front()];
    if (first.tie && std::all_of(circuits.begin(), circuits.end(), [&](CircuitId c) { return p.circuits[c].tie == first.tie && p.circuits[c].board == first.board; })) {
        const int tie = first.tie;
        std::vector<CircuitId> loose;
        for (const Circuit& c : p.circuits)
            if (c.board == first.board && c.tie == tie) loose.push_back(c.id);
        for (CircuitId c : loose) p.circuits.change(c)->tie = 0;
        return {};
    }
    if (circuits.size() < 2) return refuse(p, first.id, "a tie joins two breakers or more", "Choose them with Shift or Ctrl first.");
    for (CircuitId c : circuits)
        if (p.circuits[c].board != first.board) return refuse(p, c, "it is on another board than " + nameOf(p, first.id));
    std::vector<CircuitId> order = circuits;
    std::sort(order.begin(), order.end(), [&](CircuitId a, CircuitId b) { return std::pair(p.circuits[a].slot, a) < std::pair(p.circuits[b].slot, b); });
    const auto standsRight = [&] { // one below another already
        const auto at = placeUnit(p, p.boards[first.board], order, p.circuits[order.front()].slot);
        return !at.empty() && std::all_of(at.begin(), at.end(), [&](const auto& x) { return p.circuits[x.first].slot == x.second; });
    };
    if (!standsRight()) {
        const MovePlan plan = [&] {
            Project trial = p;
            const int slot = p.circuits[order.front()].slot;
            const int tie = freeGroup(p, first.board, &Circuit::tie);
            for (CircuitId c : order) trial.circuits.change(c)->tie = tie;
            MovePlan m;
            for (CircuitId c : order)
                if (p.circuits[c].pinned && p.circuits[c].id != order.front()) return m.reason = nameOf(p, c) + " is pinned", m;
            for (CircuitId c : order) trial.circuits.change(c)->pinned = false;
            return planMove(trial, order.front(), slot);
        }();
        if (!plan.possible) return refuse(p, first.id, plan.reason.empty() ? "they cannot be brought together" : plan.reason);
        applyMove(p, plan);
    }
    const int tie = freeGroup(p, first.board, &Circuit::tie);
    for (CircuitId c : order) p.circuits.change(c)->tie = tie;
    return {};
}

CircuitLoads loadsOf(const Project& p, CircuitId id) {
    CircuitLoads out;
    for (const Load& l : p.loads)
        if (l.circuit == id) out.listed.push_back(l.id);
    for (const Device& d : p.devices) out.devices += d.circuit == id;
    return out;
}

} // namespace lintel
