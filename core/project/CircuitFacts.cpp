#include "core/project/CircuitFacts.h"

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/project/Catalogue.h"
#include "core/project/LoadWords.h"
#include "core/project/Operations.h"
#include "core/project/OwnTexts.h"
#include "core/project/RunFacts.h"
#include "core/project/TypedLoads.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::string plain(double v) { return fmt::format("{}", v); }

std::optional<Error> refuse(const Project& p, CircuitId c, std::string what, std::string help = "") {
    return Error{nameOf(p, c), std::move(what), std::move(help)};
}

template <WordedEnum E> std::optional<E> wordFrom(const std::string& text) {
    for (const auto& [value, word] : EnumText<E>::words)
        if (sameWord(trimmed(text), word)) return value;
    return std::nullopt;
}

/// What another reader refused, said of this circuit.
std::optional<Error> refuse(const Project& p, CircuitId c, const Error& e) { return refuse(p, c, e.what, e.help); }

// ---- writers that several facts share ----

template <int Circuit::*field> std::optional<Error> writeGroup(Project& p, CircuitId id, const std::string& text) {
    const auto v = yesFrom(text) == false ? std::optional(0.0) : typedNumber(text);
    if (!v || *v < 0 || *v > 10000 || *v != std::floor(*v))
        return refuse(p, id, "“" + text + "” is not the number of a group",
                      "Type a whole number, or nothing for none.");
    p.circuits.change(id)->*field = int(*v);
    return {};
}
template <int Circuit::*field> std::string readGroup(const Project&, const Circuit& c) {
    return c.*field ? std::to_string(c.*field) : "";
}
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
    runOf(p, id).*field = isAutomatic(text) ? "" : trimmed(text);
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
        return refuse(p, id,
                      fmt::format("it carries {} and cannot be {}", loads.devices ? "devices" : "a load",
                                  spare ? "a spare" : "reserved"),
                      "Take its loads off first.");
    Circuit& c = *p.circuits.change(id);
    c.use = spare ? CircuitUse::Spare : reserved ? CircuitUse::Reserved : CircuitUse::Load;
    c.name =
        spare ? ""
        : reserved
            ? trimmed(std::string_view(t).substr(std::min<std::size_t>(t.size(), 8 + (t.size() > 8 && t[8] == ':'))))
            : t;
    if (c.use == CircuitUse::Load && !c.run) {
        const RunId run = p.runs.add({});
        p.circuits.change(id)->run = run;
    }
    // A load that was typed before its circuit had a name takes its kind from it now: the order of entry does not
    // matter.
    if (loads.listed.size() == 1 && !loads.devices)
        if (const Load& l = p.loads[loads.listed.front()];
            l.name == "Load" && l.kind == LoadKind::Equipment && l.unit != LoadUnit::hp)
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
    if (l.devices)
        return refuse(p, id,
                      fmt::format("its load comes from {} on plan",
                                  l.devices == 1 ? "a device" : fmt::format("{} devices", l.devices)),
                      "Change the devices, or list a load beside them.");
    if (l.listed.size() > 1)
        return refuse(p, id, fmt::format("it carries {} loads", l.listed.size()),
                      "Change them one by one in its facts.");
    const Circuit& c = p.circuits[id];
    if (trimmed(text).empty()) {
        for (LoadId x : l.listed) p.loads.remove(x);
        return {};
    }
    if (const DeviceType* type = typeByName(p, trimmed(text))) { // by the name of a type of the catalogue
        const DeviceType t = *type;
        if (t.poles > factsOf(p.boards[c.board].system).lines)
            return refuse(p, id, fmt::format("{} takes {}", t.name, counted(t.poles, "pole")));
        if (t.poles > c.poles)
            if (const auto bad = setPoles(p, id, t.poles)) return bad;
        Load x;
        if (!l.listed.empty()) x = p.loads[l.listed.front()];
        x.circuit = id, x.name = t.name, x.kind = t.kind, x.amount = t.load, x.unit = t.unit,
        x.powerFactor = t.powerFactor, x.poles = t.poles, x.continuous = t.continuous;
        if (l.listed.empty())
            p.loads.add(x);
        else
            *p.loads.change(x.id) = x;
        if (p.circuits[id].name.empty()) p.circuits.change(id)->name = p.circuits.change(id)->madeName = t.name;
        if (p.circuits[id].use != CircuitUse::Load) p.circuits.change(id)->use = CircuitUse::Load;
        (void)runOf(p, id);
        return {};
    }
    const auto typed = loadFrom(text);
    if (!typed)
        return refuse(p, id, "“" + text + "” is not a load",
                      "Type 1500, 1.5 kVA, 900 W, 2 kW, 16 A or 10 hp, or the name of a type of the catalogue.");
    if (l.listed.empty()) {
        Load x;
        x.circuit = id, x.name = c.name.empty() ? "Load" : c.name, x.poles = c.poles;
        if (const auto kind = LoadWords::shipped().kindOf(c.name); kind && typed->unit != LoadUnit::hp) x.kind = *kind;
        const LoadId load = p.loads.add(std::move(x));
        if (const auto bad = enterAmount(p, load, typed->amount, typed->unit)) {
            p.loads.remove(load);
            return bad;
        }
        if (p.circuits[id].use != CircuitUse::Load) p.circuits.change(id)->use = CircuitUse::Load;
        (void)runOf(p, id);
        return {};
    }
    return enterAmount(p, l.listed.front(), typed->amount, typed->unit);
}

std::string readKind(const Project& p, const Circuit& c) {
    const CircuitLoads l = loadsOf(p, c.id);
    return l.listed.empty() ? "" : wordOf(p.loads[l.listed.front()].kind);
}
std::optional<Error> writeKind(Project& p, CircuitId id, const std::string& text) {
    const auto kind = wordFrom<LoadKind>(text);
    if (!kind)
        return refuse(p, id, "there is no load kind “" + text + "”", "Choose one of: " + choiceWords<LoadKind>() + ".");
    const CircuitLoads l = loadsOf(p, id);
    if (l.listed.empty())
        return refuse(p, id, l.devices ? "the kind of devices on plan is that of their type" : "it has no load yet");
    for (LoadId x : l.listed) p.loads.change(x)->kind = *kind;
    return {};
}

std::string readPowerFactor(const Project& p, const Circuit& c) {
    const CircuitLoads l = loadsOf(p, c.id);
    return l.listed.empty() ? "" : plain(p.loads[l.listed.front()].powerFactor);
}
std::optional<Error> writePowerFactor(Project& p, CircuitId id, const std::string& text) {
    const auto v = readShare(text, "a power factor");
    if (!v) return refuse(p, id, v.error());
    if (*v < 0.01 || *v > 1) return refuse(p, id, "“" + text + "” is not a power factor from 0.01 to 1");
    const CircuitLoads l = loadsOf(p, id);
    if (l.listed.empty())
        return refuse(p, id,
                      l.devices ? "the power factor of devices on plan is that of their type" : "it has no load yet");
    for (LoadId x : l.listed) p.loads.change(x)->powerFactor = *v;
    return {};
}
std::string readEfficiency(const Project& p, const Circuit& c) {
    const CircuitLoads l = loadsOf(p, c.id);
    return l.listed.empty() || p.loads[l.listed.front()].efficiency == 1 ? ""
                                                                         : plain(p.loads[l.listed.front()].efficiency);
}
std::optional<Error> writeEfficiency(Project& p, CircuitId id, const std::string& text) {
    const Outcome<double> share = trimmed(text).empty() ? Outcome<double>(1.0) : readShare(text, "an efficiency");
    if (!share) return refuse(p, id, share.error());
    if (*share < 0.01 || *share > 1) return refuse(p, id, "“" + text + "” is not an efficiency from 0.01 to 1");
    const CircuitLoads l = loadsOf(p, id);
    if (l.listed.empty() && *share < 1)
        return refuse(p, id, l.devices ? "devices on plan are entered by what they take" : "it has no load yet");
    for (LoadId x : l.listed) p.loads.change(x)->efficiency = *share;
    return {};
}
/// What the nameplate of its equipment marks, A.
template <double Nameplate::*marked> std::string readNameplate(const Project& p, const Circuit& c) {
    const CircuitLoads l = loadsOf(p, c.id);
    return l.listed.empty() || p.loads[l.listed.front()].nameplate.*marked == 0
               ? ""
               : plain(p.loads[l.listed.front()].nameplate.*marked);
}
template <double Nameplate::*marked>
std::optional<Error> writeNameplate(Project& p, CircuitId id, const std::string& text) {
    const Outcome<double> amps = trimmed(text).empty() ? Outcome<double>(0.0) : readTyped(text, "A");
    if (!amps) return refuse(p, id, amps.error());
    if (*amps < 0 || *amps > 6000) return refuse(p, id, "“" + text + "” is not from 0 to 6 000 A");
    const CircuitLoads l = loadsOf(p, id);
    if (l.listed.empty() && *amps > 0)
        return refuse(p, id,
                      l.devices ? "the nameplate of devices on plan is that of their type" : "it has no load yet",
                      l.devices ? "Enter it there." : "Enter the load that carries the nameplate first.");
    if (l.listed.size() > 1)
        return refuse(p, id, fmt::format("it carries {} loads", l.listed.size()),
                      "Change them one by one in its facts.");
    for (LoadId x : l.listed) p.loads.change(x)->nameplate.*marked = *amps;
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
    if (l.listed.empty() && *v)
        return refuse(
            p, id, l.devices ? "whether devices on plan are continuous is said by their type" : "it has no load yet");
    for (LoadId x : l.listed) p.loads.change(x)->continuous = *v;
    return {};
}

struct TypedBreaker {
    std::optional<double> amps; ///< nothing: automatic
    std::optional<int> poles;   ///< nothing: as it has
};
std::optional<double> breakerAmps(std::string_view text) {
    const auto amps = readTyped(text, "A");
    return amps && *amps >= 0.5 && *amps <= 6000 ? std::optional(*amps) : std::nullopt;
}
/// "20", "20 A", "auto"; with poles "30/2", "30 A/2P", "auto/3", "30 A 2P", "2P 30 A".
std::optional<TypedBreaker> breakerFrom(const std::string& text) {
    if (const auto amps = breakerAmps(text)) return TypedBreaker{amps, {}};
    const auto parts = [](std::string_view amps, std::string_view poles, bool unit) -> std::optional<TypedBreaker> {
        const auto n = typedPoles(poles);
        if (!n || (unit && typedNumber(poles))) return std::nullopt;
        if (isAutomatic(std::string(amps))) return TypedBreaker{{}, n};
        const auto a = breakerAmps(amps);
        return a ? std::optional(TypedBreaker{a, n}) : std::nullopt;
    };
    if (const auto slash = text.find('/'); slash != std::string::npos)
        return parts(std::string_view(text).substr(0, slash), std::string_view(text).substr(slash + 1), false);
    for (std::size_t gap = text.find(' '); gap != std::string::npos;
         gap = text.find(' ', gap + 1)) { // which of two is the poles is said by their unit
        const std::string_view before = std::string_view(text).substr(0, gap),
                               after = std::string_view(text).substr(gap + 1);
        if (const auto b = parts(before, after, true)) return b;
        if (const auto b = parts(after, before, true)) return b;
    }
    return std::nullopt;
}

std::string readBreaker(const Project&, const Circuit& c) { return c.heldBreaker ? plain(*c.heldBreaker) : ""; }
/// "B16", "c 32/3", "gG 63", "63 A gG": the kind of device that metric practice says with the rating, and what is left.
std::optional<DeviceKind> takeKind(std::string& text) {
    static constexpr std::pair<const char*, DeviceKind> kinds[] = {
        {"gg", DeviceKind::FuseGG}, {"b", DeviceKind::TypeB}, {"c", DeviceKind::TypeC}, {"d", DeviceKind::TypeD}};
    for (const auto& [word, kind] : kinds) {
        const std::size_t n = std::string_view(word).size();
        const std::string small = lowered(text);
        if (small.rfind(word, 0) == 0 && small.size() > n && (isDigit(small[n]) || isBlank(small[n]))) {
            text = trimmed(std::string_view(text).substr(n));
            return kind;
        }
        if (small.size() > n + 1 && small.ends_with(word) && isBlank(small[small.size() - n - 1])) {
            text = trimmed(std::string_view(text).substr(0, text.size() - n));
            return kind;
        }
    }
    return std::nullopt;
}
std::optional<Error> writeBreaker(Project& p, CircuitId id, const std::string& text) {
    if (isAutomatic(text)) return p.circuits.change(id)->heldBreaker.reset(), std::nullopt;
    const bool metric = p.basis.units == UnitSystem::Metric;
    std::string rest = trimmed(text);
    const auto kind = metric ? takeKind(rest) : std::nullopt;
    const auto typed = breakerFrom(rest);
    if (!typed)
        return refuse(p, id, "“" + text + "” is not a breaker",
                      metric ? "Type 20, 20 A, B16 or C32/3 with its type, 30/2 or 30 A 2P for two poles, or auto."
                             : "Type 20, 20 A, 30/2 or 30 A 2P for two poles, or auto.");
    if (typed->poles)
        if (const auto bad = setPoles(p, id, *typed->poles)) return bad;
    p.circuits.change(id)->heldBreaker = typed->amps;
    if (kind) p.circuits.change(id)->device = *kind;
    return {};
}

std::string readPoles(const Project&, const Circuit& c) { return std::to_string(c.poles); }
std::optional<Error> writePoles(Project& p, CircuitId id, const std::string& text) {
    const auto poles = typedPoles(text);
    if (!poles) return refuse(p, id, "“" + text + "” is not a number of poles: 1, 2 or 3");
    return setPoles(p, id, *poles);
}

std::string readDevice(const Project&, const Circuit& c) {
    return c.device == DeviceKind::Breaker ? "" : wordOf(c.device);
}
std::optional<Error> writeDevice(Project& p, CircuitId id, const std::string& text) {
    const auto kind = isAutomatic(text) ? std::optional(DeviceKind::Breaker) : wordFrom<DeviceKind>(text);
    if (!kind)
        return refuse(p, id, "there is no kind of device “" + text + "”",
                      "Choose one of: " + choiceWords<DeviceKind>() + ".");
    p.circuits.change(id)->device = *kind;
    return {};
}

std::string readStarter(const Project&, const Circuit& c) {
    return c.starter == StarterKind::Unsaid ? "" : wordOf(c.starter);
}
/// As the file names it, or as people do on either side of the sea.
std::optional<StarterKind> starterFrom(const std::string& text) {
    if (isAutomatic(text)) return StarterKind::Unsaid;
    if (const auto kind = wordFrom<StarterKind>(text)) return kind;
    for (const auto& [word, kind] : {std::pair{"dol", StarterKind::Direct},
                                     {"direct-on-line", StarterKind::Direct},
                                     {"direct on line", StarterKind::Direct},
                                     {"across the line", StarterKind::Direct},
                                     {"fvnr", StarterKind::Direct},
                                     {"fvr", StarterKind::Reversing},
                                     {"rev", StarterKind::Reversing},
                                     {"star delta", StarterKind::StarDelta},
                                     {"wye-delta", StarterKind::StarDelta},
                                     {"wye delta", StarterKind::StarDelta},
                                     {"y-Δ", StarterKind::StarDelta},
                                     {"soft", StarterKind::Soft},
                                     {"soft start", StarterKind::Soft},
                                     {"ss", StarterKind::Soft},
                                     {"rvss", StarterKind::Soft},
                                     {"vfd", StarterKind::Drive},
                                     {"vsd", StarterKind::Drive},
                                     {"inverter", StarterKind::Drive},
                                     {"variable-frequency drive", StarterKind::Drive},
                                     {"variable-speed drive", StarterKind::Drive}})
        if (sameWord(trimmed(text), word)) return kind;
    return std::nullopt;
}
std::optional<Error> writeStarter(Project& p, CircuitId id, const std::string& text) {
    const auto kind = starterFrom(text);
    if (!kind)
        return refuse(p, id, "there is no starter “" + text + "”",
                      "Choose one of: " + choiceWords<StarterKind>() + ".");
    p.circuits.change(id)->starter = *kind;
    return {};
}
std::string readStartTimes(const Project&, const Circuit& c) { return c.startTimes > 0 ? plain(c.startTimes) : ""; }
std::optional<Error> writeStartTimes(Project& p, CircuitId id, const std::string& text) {
    std::string t = trimmed(text);
    for (const std::string_view sign : {"×", "x"}) // "3.5 ×"
        if (t.size() > sign.size() && t.compare(t.size() - sign.size(), sign.size(), sign) == 0)
            t = trimmed(std::string_view(t).substr(0, t.size() - sign.size()));
    const auto times = isAutomatic(t) ? std::optional(0.0) : typedNumber(t);
    if (!times || (*times != 0 && (*times < 0.5 || *times > 20)))
        return refuse(p, id, "“" + text + "” is no start current from 0.5 to 20 times the full-load current",
                      "Type 3.5, or nothing where it goes by the kind of starter.");
    p.circuits.change(id)->startTimes = *times;
    return {};
}

/// "120 ft", "36 m", as it is typed.
std::string lengthTyped(double metres, UnitSystem units) {
    return units == UnitSystem::Imperial ? plain(std::round(metres / metresPerFoot * 100) / 100) + " ft"
                                         : plain(std::round(metres * 1000) / 1000) + " m";
}
std::string readAlong(const Project& p, const Circuit& c) {
    return c.along ? lengthTyped(*c.along, p.basis.units) : "";
}
std::optional<Error> writeAlong(Project& p, CircuitId id, const std::string& text) {
    Circuit& c = *p.circuits.change(id);
    if (isAutomatic(text)) return c.along.reset(), std::nullopt;
    const Board& b = p.boards[c.board];
    if (b.use != BoardUse::Busway) return refuse(p, id, b.name + " is no busway, along which it could stand");
    const auto metres = metresFrom(text, p.basis.units);
    if (!metres || *metres > 10000)
        return refuse(p, id, "“" + text + "” is no place along a busway",
                      "Type 120 ft or 36 m from its fed end, or nothing where it is not known.");
    c.along = *metres;
    return {};
}

std::string readSize(const Project& p, const Circuit& c) {
    const Run* r = p.runs.find(c.run);
    return r ? heldSizeText(*r) : "";
}
std::optional<Error> writeSize(Project& p, CircuitId id, const std::string& text) {
    const auto bad = enterRunSize(runOf(p, id), text);
    return bad ? refuse(p, id, *bad) : std::nullopt;
}

std::string readLength(const Project& p, const Circuit& c) {
    const Run* r = p.runs.find(c.run);
    if (!r || r->lengthBy != LengthBy::Entered) return "";
    return lengthTyped(r->length, p.basis.units);
}
std::optional<Error> writeLength(Project& p, CircuitId id, const std::string& text) {
    const auto bad = enterRunLength(runOf(p, id), text, p.basis.units);
    return bad ? refuse(p, id, *bad) : std::nullopt;
}

std::string readMaterial(const Project& p, const Circuit& c) {
    const Run* r = p.runs.find(c.run);
    return r && r->material ? wordOf(*r->material) : "";
}
std::optional<Error> writeMaterial(Project& p, CircuitId id, const std::string& text) {
    if (isAutomatic(text)) return runOf(p, id).material.reset(), std::nullopt;
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
    const auto w = isAutomatic(text) ? std::optional(Wiring::Default) : wordFrom<Wiring>(text);
    if (!w)
        return refuse(p, id, "conductors are not laid in “" + text + "”",
                      "Choose one of: " + choiceWords<Wiring>() + ".");
    runOf(p, id).wiring = *w;
    return {};
}

std::string readResidual(const Project&, const Circuit& c) { return c.residual > 0 ? plain(c.residual) : ""; }
std::optional<Error> writeResidual(Project& p, CircuitId id, const std::string& text) {
    const Outcome<double> mA = trimmed(text).empty() ? Outcome<double>(0.0) : readTyped(text, "mA");
    if (!mA) return refuse(p, id, mA.error());
    if (*mA < 0 || *mA > 30000) return refuse(p, id, "“" + text + "” is not from 0 to 30 000 mA");
    p.circuits.change(id)->residual = *mA;
    return {};
}
std::string readResidualType(const Project&, const Circuit& c) { return c.residual > 0 ? wordOf(c.residualType) : ""; }
std::optional<Error> writeResidualType(Project& p, CircuitId id, const std::string& text) {
    auto type = isAutomatic(text) ? std::optional(ResidualType::A) : wordFrom<ResidualType>(text);
    if (!type) type = wordFrom<ResidualType>("type " + text); // "B" will do
    if (!type)
        return refuse(p, id, "there is no residual-current device of “" + text + "”",
                      "Choose one of: " + choiceWords<ResidualType>() + ".");
    p.circuits.change(id)->residualType = *type;
    return {};
}
std::string readFactor(const Project&, const Circuit& c) { return c.factor == 1 ? "" : plain(c.factor); }
std::optional<Error> writeFactor(Project& p, CircuitId id, const std::string& text) {
    const Outcome<double> factor = trimmed(text).empty() ? Outcome<double>(1.0) : readShare(text, "a factor");
    if (!factor) return refuse(p, id, factor.error());
    if (*factor < 0 || *factor > 10) return refuse(p, id, "“" + text + "” is not a factor from 0 to 10");
    p.circuits.change(id)->factor = *factor;
    return {};
}
std::string readNote(const Project&, const Circuit& c) { return c.note; }
std::optional<Error> writeNote(Project& p, CircuitId id, const std::string& text) {
    return p.circuits.change(id)->note = trimmed(text), std::nullopt;
}
std::string readOwn(const Project&, const Circuit& c) { return ownTextsLine(c.texts); }
std::optional<Error> writeOwn(Project& p, CircuitId id, const std::string& text) {
    return mergeOwnTexts(p.circuits.change(id)->texts, text);
}
std::string readReason(const Project&, const Circuit& c) { return c.unprotected; }
std::optional<Error> writeReason(Project& p, CircuitId id, const std::string& text) {
    return p.circuits.change(id)->unprotected = trimmed(text), std::nullopt;
}

} // namespace

const std::vector<CircuitFact>& circuitFacts() {
    static const std::vector<CircuitFact> list{
        {"serves", "Serves", "what it serves; spare; reserved", readServes, writeServes},
        {"load", "Load", "1500, 1.5 kVA, 900 W, 16 A, 10 hp, or a type of the catalogue", readLoad, writeLoad},
        {"breaker", "Breaker", "20 A, 30/2 or 30 A 2P for two poles, B16 or gG 63 in metric practice, auto",
         readBreaker, writeBreaker},
        {"size", "Size", "a size of the rule book, 2 × 250 for two sets, or auto", readSize, writeSize},
        {"length", "Length", "120 ft, 36 m, or nothing to measure it", readLength, writeLength},
        {"poles", "Poles", "1, 2 or 3", readPoles, writePoles},
        {"kind", "Load kind", "lighting, receptacle, motor …", readKind, writeKind},
        {"powerFactor", "Power factor", "0.85 or 85 %, from 0.01 to 1", readPowerFactor, writePowerFactor},
        {"efficiency", "Efficiency", "of a motor entered by its shaft in kW: 0.9 or 90 %", readEfficiency,
         writeEfficiency},
        {"continuous", "Continuous", "yes or no", readContinuous, writeContinuous},
        {"device", "Kind of device", "breaker, fuse, type B …", readDevice, writeDevice},
        {"starter", "Starter", "direct, reversing, star-delta, soft starter, drive, or nothing", readStarter,
         writeStarter},
        {"startTimes", "Start current", "times the full-load current, as its starter is set; nothing: by its kind",
         readStartTimes, writeStartTimes},
        {"along", "Along the busway", "120 ft or 36 m from its fed end; nothing: not known", readAlong, writeAlong},
        {"mca", "Nameplate MCA", "minimum circuit ampacity marked on the equipment: 68.5 A; nothing: not marked",
         readNameplate<&Nameplate::ampacity>, writeNameplate<&Nameplate::ampacity>},
        {"mocp", "Nameplate MOCP", "largest device marked on the equipment: 80 A; nothing: not marked",
         readNameplate<&Nameplate::device>, writeNameplate<&Nameplate::device>},
        {"material", "Material", "copper, aluminium, auto", readMaterial, writeMaterial},
        {"wiring", "Laid in", "conduit, MC cable …, auto", readWiring, writeWiring},
        {"conduit", "Conduit", "as the rule book names it, or auto", readRun<&Run::conduit>, writeRun<&Run::conduit>},
        {"cable", "Cable", "as the rule book names it, or auto", readRun<&Run::cable>, writeRun<&Run::cable>},
        {"method", "Method", "a reference method, or auto", readRun<&Run::method>, writeRun<&Run::method>},
        {"groundFault", "Ground-fault device", "yes or no", readFlag<&Circuit::groundFault>,
         writeFlag<&Circuit::groundFault>},
        {"arcFault", "Arc-fault device", "yes or no", readFlag<&Circuit::arcFault>, writeFlag<&Circuit::arcFault>},
        {"residual", "Residual-current device", "30 mA, or nothing", readResidual, writeResidual},
        {"residualType", "Its type", "type A, type AC, type F, type B …", readResidualType, writeResidualType},
        {"unprotected", "Left out because", "the reason", readReason, writeReason},
        {"fullRated", "100 % rated", "yes or no", readFlag<&Circuit::fullRated>, writeFlag<&Circuit::fullRated>},
        {"pinned", "Pinned", "yes or no", readFlag<&Circuit::pinned>, writeFlag<&Circuit::pinned>},
        {"tie", "Tie", "number of the tie, or nothing", readGroup<&Circuit::tie>, writeGroup<&Circuit::tie>},
        {"multiwire", "Multiwire group", "number of the group, or nothing", readGroup<&Circuit::multiwire>,
         writeGroup<&Circuit::multiwire>},
        {"kept", "Kept together", "number of the group, or nothing", readGroup<&Circuit::kept>,
         writeGroup<&Circuit::kept>},
        {"bundle", "Bundle", "number of the bundle, or nothing", readGroup<&Circuit::bundle>,
         writeGroup<&Circuit::bundle>},
        {"factor", "Own factor", "0.8 or 80 %, up to 10", readFactor, writeFactor},
        {"note", "Note", "anything", readNote, writeNote},
        {"own columns", "Own columns", "Tag: K-4; Panel: left; nothing behind a colon takes it away", readOwn,
         writeOwn}};
    return list;
}

const CircuitFact* circuitFact(const std::string& word) {
    for (const CircuitFact& f : circuitFacts())
        if (sameWord(word, f.key) || sameWord(word, f.title)) return &f;
    return nullptr;
}

namespace {
/// Motors from half a horsepower on take all lines of their board, smaller ones one line where that gives the volts of
/// single-phase motors (115 to 230 V): what the trade builds.
constexpr double allLinesFrom = 0.5;
/// Of a motor under its usual load, where nobody gives another.
constexpr double motorPowerFactor = 0.85;

/// The lines that a motor takes on a board of this system.
int polesOfMotor(double hp, VoltageSystem board) {
    const SystemFacts system = factsOf(board);
    const bool oneLineDrivesIt = system.lineNeutral.v > 0 && system.lineNeutral.v < 250;
    return hp < allLinesFrom && oneLineDrivesIt ? 1 : system.lines;
}
} // namespace

std::optional<Error> enterAmount(Project& p, LoadId load, double amount, std::optional<LoadUnit> unit) {
    Load x = p.loads[load];
    const bool motor = unit == LoadUnit::hp && x.unit != LoadUnit::hp;
    x.amount = amount;
    x.unit = unit.value_or(x.unit);
    if (motor && x.kind == LoadKind::Equipment) x.kind = LoadKind::Motor;
    if (motor && x.powerFactor == 1) x.powerFactor = motorPowerFactor;
    if (const Circuit* c = motor ? p.circuits.find(x.circuit) : nullptr) {
        const int poles = polesOfMotor(amount, p.boards[c->board].system);
        const CircuitId id = c->id;
        if (c->poles == 1 && poles > 1) {
            if (auto bad = setPoles(p, id, poles)) {
                bad->what = fmt::format("{} hp takes {} poles on this board: {}", plain(amount), poles, bad->what);
                return bad;
            }
        }
        x.poles = p.circuits[id].poles;
    }
    *p.loads.change(load) = x;
    return {};
}

std::string splitText(const Load& l) {
    if (l.splitA + l.splitB + l.splitC <= 0) return "";
    return l.poles > 2 ? fmt::format("{} / {} / {}", l.splitA, l.splitB, l.splitC)
                       : fmt::format("{} / {}", l.splitA, l.splitB);
}

std::optional<Error> enterSplit(Project& p, LoadId load, const std::string& text) {
    const Load& l = p.loads[load];
    std::array<double, 3> share{};
    if (!isAutomatic(text)) {
        const Error refused{l.name, fmt::format("“{}” is not a split of {} poles", text, l.poles),
                            fmt::format("Type a share for each, such as {}, or nothing for evenly.",
                                        l.poles > 2 ? "2 / 1 / 1" : "2 / 1")};
        int parts = 0;
        for (std::size_t from = 0; from <= text.size(); ++parts) {
            const std::size_t to = std::min(text.find_first_of("/;", from), text.size());
            const auto v = typedNumber(std::string_view(text).substr(from, to - from));
            if (!v || *v < 0 || *v > 1e9 || parts >= l.poles) return refused;
            share[std::size_t(parts)] = *v;
            from = to + 1;
        }
        if (parts != l.poles || share[0] + share[1] + share[2] <= 0) return refused;
    }
    Load& x = *p.loads.change(load);
    x.splitA = share[0], x.splitB = share[1], x.splitC = share[2];
    return {};
}

std::optional<Error> setPoles(Project& p, CircuitId id, int poles) {
    const Circuit& c = p.circuits[id];
    if (c.poles == poles) return {};
    const Board& b = p.boards[c.board];
    if (poles > factsOf(b.system).lines)
        return refuse(p, id, fmt::format("{} has {}", b.name, counted(factsOf(b.system).lines, "line")));
    const int slot = c.slot, was = c.poles;
    const CircuitLoads on = loadsOf(p, id);
    const LoadId follows =
        on.listed.size() == 1 && !on.devices && p.loads[on.listed.front()].poles == was ? on.listed.front() : LoadId{};
    if (follows) p.loads.change(follows)->poles = poles; // the row's load, typed before its poles or after: the same
    p.circuits.change(id)->poles = poles;
    if (slot <= 0) return {};
    p.circuits.change(id)->slot = 0;
    if (const MovePlan plan = planMove(p, id, slot); plan.possible) return applyMove(p, plan), std::nullopt;
    if (const int free = firstFreeSlot(p, c.board, poles, id)) return p.circuits.change(id)->slot = free, std::nullopt;
    p.circuits.change(id)->poles = was, p.circuits.change(id)->slot = slot;
    if (follows) p.loads.change(follows)->poles = was;
    return refuse(p, id, fmt::format("{} has no place for {}", b.name, counted(poles, "pole")),
                  "Free some slots, or give it more.");
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
    if (first.tie && std::all_of(circuits.begin(), circuits.end(), [&](CircuitId c) {
            return p.circuits[c].tie == first.tie && p.circuits[c].board == first.board;
        })) {
        const int tie = first.tie;
        std::vector<CircuitId> loose;
        for (const Circuit& c : p.circuits)
            if (c.board == first.board && c.tie == tie) loose.push_back(c.id);
        for (CircuitId c : loose) p.circuits.change(c)->tie = 0;
        return {};
    }
    if (circuits.size() < 2)
        return refuse(p, first.id, "a tie joins two breakers or more", "Choose them with Shift or Ctrl first.");
    for (CircuitId c : circuits)
        if (p.circuits[c].board != first.board)
            return refuse(p, c, "it is on another board than " + nameOf(p, first.id));
    std::vector<CircuitId> order = circuits;
    std::sort(order.begin(), order.end(), [&](CircuitId a, CircuitId b) {
        return std::pair(p.circuits[a].slot, a) < std::pair(p.circuits[b].slot, b);
    });
    const auto standsRight = [&] { // one below another already
        const auto at = placeUnit(p, p.boards[first.board], order, p.circuits[order.front()].slot);
        return !at.empty() &&
               std::all_of(at.begin(), at.end(), [&](const auto& x) { return p.circuits[x.first].slot == x.second; });
    };
    if (!standsRight()) {
        const MovePlan plan = [&] {
            Project trial = p;
            const int slot = p.circuits[order.front()].slot;
            const int tie = freeGroup(p, first.board, &Circuit::tie);
            for (CircuitId c : order) trial.circuits.change(c)->tie = tie;
            MovePlan m;
            for (CircuitId c : order)
                if (p.circuits[c].pinned && p.circuits[c].id != order.front())
                    return m.reason = nameOf(p, c) + " is pinned", m;
            for (CircuitId c : order) trial.circuits.change(c)->pinned = false;
            return planMove(trial, order.front(), slot);
        }();
        if (!plan.possible)
            return refuse(p, first.id, plan.reason.empty() ? "they cannot be brought together" : plan.reason);
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
