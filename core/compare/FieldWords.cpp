#include "core/compare/FieldWords.h"

#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/Fields.h"
#include "core/rules/RuleBook.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <set>
#include <unordered_map>

namespace lintel {

using nlohmann::ordered_json;

namespace {

/// What a number is.
enum class Is {
    Plain,  ///< a count, a number of its own, a text, a choice
    With,   ///< followed by the unit of its entry
    Share,  ///< of one; told as %
    Length, ///< m; told in the units of the project
    Height, ///< m; feet and inches in imperial projects
    Size,   ///< of a conductor, by the rule book's name of it
    Sizes,  ///< the same, one for each kind of load
    Each,   ///< one for each kind of load, with the unit of its entry
    Own,    ///< with the unit that the thing itself says
    None0   ///< with the unit of its entry, if it has one; 0 is nothing entered
};

struct Entry {
    const char* field;
    const char* words;
    Is is = Is::Plain;
    const char* unit = "";
};

constexpr Entry basis[] = {
    {"jobNumber", "job number"},
    {"issueDate", "date on sheets"},
    {"companyAddress", "company's address"},
    {"ruleBook", "rule book"},
    {"branchMaterial", "conductors of branch circuits"},
    {"feederMaterial", "conductors of feeders"},
    {"insulation", "insulation of conductors", Is::With, "°C"},
    {"terminals75", "terminals up to 100 A marked for 75 °C"},
    {"ambient", "ambient", Is::With, "°C"},
    {"insulationType", "type of insulation"},
    {"smallestBranch", "smallest branch conductor", Is::Size},
    {"largestPreferred", "largest conductor before sets", Is::Size},
    {"smallestBreaker", "smallest branch breaker", Is::With, "A"},
    {"feederDropLimit", "drop limit of feeders", Is::With, "%"},
    {"branchDropLimit", "drop limit of branch circuits", Is::With, "%"},
    {"totalDropLimit", "drop limit in all", Is::With, "%"},
    {"lightingDropLimit", "drop limit to lighting, in all", Is::None0, "%"},
    {"branchDropBasis", "drop of branch circuits judged on"},
    {"feederDropBasis", "drop of feeders judged on"},
    {"ratingShare", "share of the breaker that drop is judged on", Is::Share},
    {"upsizingCeiling", "upsizing ceiling", Is::With, "sizes"},
    {"growth", "growth on feeders", Is::Share},
    {"slack", "slack on measured lengths", Is::Share},
    {"routeBelowCeiling", "runs travel below the ceiling by", Is::Height},
    {"unknownLength", "an unknown length counts as", Is::Length},
    {"powerFactor", "power factor of feeders"},
    {"demandFactors", "demand factors of the project"},
    {"lightingAreaOf", "lighting at least as in"},
    {"motorsFeedFaults", "motors feed faults"},
    {"classShare", "breakers let through, of their class", Is::Share},
    {"faultCelsius", "conductors in the largest fault", Is::With, "°C"},
    {"electrodeMaterial", "electrode conductors and jumpers"},
    {"ownValues", "own values"},
    {"ownReasons", "reasons of own values"},
    {"setBy", "set by"},
    {"seen", "seen by"},
    {"smallestByUse", "smallest branch conductor by use", Is::Sizes},
    {"smallestBreakerByUse", "smallest branch breaker by use", Is::Each, "A"},
    {"wiringByUse", "laid by use"},
    {"branchCable", "cable of branch circuits"},
    {"feederCable", "cable of feeders"},
    {"branchMethod", "branch circuits laid by method"},
    {"feederMethod", "feeders laid by method"},
    {"groundTemperature", "soil temperature", Is::With, "°C"},
    {"soil", "soil resistivity", Is::With, "K·m/W"},
    {"dropWhenWarm", "drop at the temperature under load"},
    {"phaseColours", "phase colours"},
    {"circuitPattern", "pattern of circuit numbers"},
    {"circuitShare", "circuits filled to", Is::Share},
    {"circuitPoints", "points of a circuit at most", Is::None0},
    {"ownCircuitFrom", "own circuit from", Is::With, "A"},
    {"panelboardUpTo", "panelboards up to", Is::With, "A"},
    {"wiringShape", "branch wiring drawn"},
    {"north", "north on plans, clockwise from the top", Is::With, "°"},
    {"planScale", "plans drawn at 1 to", Is::None0},
    {"sheetsTogether", "together on sheets"},
    {"calculationSheets", "calculations on sheets"},
    {"waste", "waste in the take-off", Is::Share},
    {"lightUtilisation", "light that arrives", Is::Share},
    {"lightMaintenance", "light kept", Is::Share},
    {"runPattern", "pattern of run names"},
    {"namePattern", "pattern of circuit names"},
    {"namePatternByUse", "pattern of circuit names by use"},
    {"modelOrigin", "zero of building models on the plans"},
};
constexpr Entry level[] = {{"elevation", "height above datum", Is::Height},
                           {"height", "floor to ceiling", Is::Height},
                           {"modelId", "identity in the building model"}};
constexpr Entry wall[] = {{"a", "first end"},
                          {"b", "second end"},
                          {"thickness", "thickness", Is::Length},
                          {"bulge", "curve"},
                          {"modelId", "identity in the building model"}};
constexpr Entry room[] = {{"ceiling", "ceiling above the floor", Is::Height},
                          {"gridX", "ceiling grid across", Is::Length},
                          {"gridY", "ceiling grid up", Is::Length},
                          {"gridFrom", "ceiling grid from"},
                          {"modelId", "identity in the building model"}};
constexpr Entry deviceType[] = {{"load", "load of one", Is::Own},
                                {"powerFactor", "power factor"},
                                {"poles", "poles"},
                                {"onWall", "stands at a wall"},
                                {"height", "height", Is::Height},
                                {"lumens", "light", Is::None0, "lm"},
                                {"lifeSafety", "life safety"},
                                {"nameplateAmpacity", "minimum circuit ampacity (MCA)", Is::None0, "A"},
                                {"nameplateDevice", "largest device (MOCP)", Is::None0, "A"}};
constexpr Entry device[] = {{"at", "place"},
                            {"turn", "turned by", Is::With, "°"},
                            {"height", "height", Is::Height},
                            {"load", "load", Is::Own},
                            {"spur", "on an unfused spur"},
                            {"leg", "switch leg"},
                            {"placed", "place by its recipe"},
                            {"modelId", "identity in the building model"}};
constexpr Entry source[] = {{"kind", "given by"},
                            {"faultKA", "fault level", Is::With, "kA"},
                            {"kva", "rating", Is::With, "kVA"},
                            {"percentZ", "impedance", Is::With, "%"},
                            {"xOverR", "X/R"},
                            {"utilityMVA", "fault level before its transformer", Is::None0, "MVA"},
                            {"utilityXR", "X/R before its transformer"},
                            {"utilityKV", "voltage before its transformer", Is::None0, "kV"},
                            {"faultLN", "line–neutral fault level", Is::None0, "kA"},
                            {"subtransient", "subtransient reactance", Is::With, "%"},
                            {"peakShare", "given for the start of a motor, of its kVA", Is::Share},
                            {"ze", "Ze", Is::None0, "Ω"},
                            {"ownSubstation", "a substation of its own"},
                            {"insulationMonitor", "insulation monitoring"},
                            {"onPlan", "stands on the plan"},
                            {"at", "place"}};
constexpr Entry transformer[] = {{"kva", "rating", Is::With, "kVA"},
                                 {"percentZ", "impedance", Is::With, "%"},
                                 {"xOverR", "X/R"},
                                 {"restartsDrop", "drop begins again below it"},
                                 {"boost", "taps raise the secondary by", Is::With, "%"},
                                 {"feed", "fed from"},
                                 {"onPlan", "stands on the plan"},
                                 {"at", "place"}};
constexpr Entry board[] = {{"use", "kind of equipment"},
                           {"bus", "bus rating", Is::With, "A"},
                           {"main", "main device", Is::None0, "A"},
                           {"ratingKA", "interrupting rating", Is::With, "kA"},
                           {"seriesKA", "series rating", Is::None0, "kA"},
                           {"seriesDevices", "devices of the series pair"},
                           {"givenKA", "fault level given", Is::With, "kA"},
                           {"givenXR", "X/R of the given fault level"},
                           {"surge", "surge protection"},
                           {"alternate", "taken over by"},
                           {"alternateRun", "run from the alternate source"},
                           {"switchesNeutral", "switches the neutral"},
                           {"kva", "gives at most", Is::None0, "kVA"},
                           {"kw", "gives at most", Is::None0, "kW"},
                           {"efficiency", "efficiency", Is::Share},
                           {"rechargeKW", "charging of the battery", Is::None0, "kW"},
                           {"inverterA", "into a fault from its battery", Is::None0, "A"},
                           {"barLength", "length of the busway", Is::Length},
                           {"barR20", "resistance at 20 °C", Is::None0, "mΩ/m"},
                           {"barR", "resistance at rated current", Is::None0, "mΩ/m"},
                           {"barX", "reactance", Is::None0, "mΩ/m"},
                           {"barLoopR20", "resistance of the loop to earth at 20 °C", Is::None0, "mΩ/m"},
                           {"barLoopX", "reactance of the loop to earth", Is::None0, "mΩ/m"},
                           {"slots", "places"},
                           {"reservedShare", "places to stay free", Is::Share},
                           {"leftKinds", "kinds of load kept at the left"},
                           {"turned", "lines turned by"},
                           {"feed", "fed from"},
                           {"scheduleForm", "schedule form"},
                           {"texts", "own columns"},
                           {"onPlan", "stands on the plan"},
                           {"at", "place"},
                           {"turn", "turned by", Is::With, "°"},
                           {"height", "height", Is::Height}};
constexpr Entry circuit[] = {{"slot", "place", Is::None0},
                             {"poles", "poles"},
                             {"name", "description"},
                             {"madeName", "description by the pattern"},
                             {"tie", "tie", Is::None0},
                             {"kept", "kept together", Is::None0},
                             {"heldBreaker", "held breaker", Is::With, "A"},
                             {"heldKA", "interrupting rating", Is::With, "kA"},
                             {"letThroughEnergy", "energy let through", Is::With, "A²s"},
                             {"letThroughKA", "current let through", Is::With, "kA"},
                             {"letThroughData", "data of the let-through"},
                             {"fullRated", "100 % rated"},
                             {"groundFault", "ground-fault protection"},
                             {"arcFault", "arc-fault protection"},
                             {"ring", "ring circuit"},
                             {"residual", "residual-current device", Is::None0, "mA"},
                             {"residualType", "type of residual-current device"},
                             {"unprotected", "reason why protection is left out"},
                             {"multiwire", "multiwire group", Is::None0},
                             {"automatic", "made by circuiting"},
                             {"bundle", "bundle", Is::None0},
                             {"factor", "own demand factor"},
                             {"startTimes", "starts with", Is::None0, "× its full-load current"},
                             {"along", "place along the busway", Is::Length},
                             {"texts", "own columns"}};
constexpr Entry run[] = {{"lengthBy", "length by"},
                         {"length", "length", Is::Length},
                         {"trace", "traced way"},
                         {"ambient", "ambient", Is::With, "°C"},
                         {"wiring", "laid as"},
                         {"onRoof", "close above a roof"},
                         {"nonlinear", "nonlinear share of the load", Is::Share},
                         {"isolatedGround", "isolated ground"},
                         {"sharing", "conductors sharing the raceway", Is::None0},
                         {"heldSize", "held conductors", Is::Size},
                         {"heldSets", "held sets", Is::None0},
                         {"dropBasis", "drop judged on"},
                         {"method", "laid by method"},
                         {"grouped", "circuits laid together with it", Is::None0},
                         {"lying", "lies beside others"},
                         {"thirdHarmonic", "third harmonic", Is::Share},
                         {"points", "points along it", Is::None0},
                         {"setsApart", "parallel sets lie apart"},
                         {"insulated", "in thermal insulation", Is::Length},
                         {"soil", "soil resistivity", Is::With, "K·m/W"},
                         {"protectiveBy", "protective conductor by"},
                         {"heldGround", "held protective conductor", Is::Size},
                         {"fireRated", "fire-rated"},
                         {"reference", "reference drawing"},
                         {"listedConduit", "conduit by its list"},
                         {"listedKA", "fault level by its list", Is::None0, "kA"},
                         {"listedVA", "load by its list", Is::None0, "VA"}};
constexpr Entry load[] = {{"volts", "voltage by its list", Is::None0, "V"},
                          {"amount", "load", Is::Own},
                          {"powerFactor", "power factor"},
                          {"quantity", "quantity"},
                          {"poles", "poles"},
                          {"diversity", "diversity"},
                          {"duty", "duty", Is::Share},
                          {"efficiency", "efficiency", Is::Share},
                          {"nameplateAmpacity", "minimum circuit ampacity (MCA)", Is::None0, "A"},
                          {"nameplateDevice", "largest device (MOCP)", Is::None0, "A"},
                          {"splitA", "share on line A", Is::Share},
                          {"splitB", "share on line B", Is::Share},
                          {"splitC", "share on line C", Is::Share}};
constexpr Entry section[] = {{"from", "from place"},
                             {"to", "to place"},
                             {"rating", "its switch", Is::None0, "A"},
                             {"residual", "residual-current device", Is::None0, "mA"},
                             {"residualType", "type of residual-current device"}};
constexpr Entry underlay[] = {
    {"scale", "m for a unit of the drawing"}, {"turn", "turned by", Is::With, "°"}, {"fade", "faded", Is::Share}};
constexpr Entry opening[] = {{"along", "middle along its wall", Is::Length},
                             {"width", "width", Is::Length},
                             {"hingeAtEnd", "hinged at the wall's second end"},
                             {"otherSide", "swings to the other side"},
                             {"modelId", "identity in the building model"}};
constexpr Entry furnishing[] = {{"at", "place"},
                                {"turn", "turned by", Is::With, "°"},
                                {"width", "width", Is::Length},
                                {"depth", "depth", Is::Length}};
constexpr Entry tray[] = {{"width", "width", Is::Length},
                          {"depth", "depth", Is::Length},
                          {"height", "height", Is::Height},
                          {"riseTo", "rises to"}};
constexpr Entry form[] = {{"of", "form of boards"},
                          {"letters", "size of letters", Is::None0, "mm"},
                          {"withoutTally", "without tally"},
                          {"withoutPhases", "without phases"},
                          {"balance", "balanced up to", Is::None0, "%"},
                          {"head", "title strip"},
                          {"sortBy", "rows in order of"},
                          {"groupBy", "rows together by"},
                          {"backwards", "rows reversed"}};
constexpr Entry keyedNote[] = {{"number", "number"}, {"at", "place"}, {"on", "stands on"}};
constexpr Entry riserPlace[] = {{"gap", "free before it", Is::None0, "mm"},
                                {"lower", "steps its line is lower", Is::None0},
                                {"lift", "words further away by", Is::None0, "mm"}};
constexpr Entry view[] = {{"at", "place on the sheet, mm"},    {"page", "page of the sheet"},
                          {"width", "width", Is::None0, "mm"}, {"scale", "scale 1 to", Is::None0},
                          {"cropFrom", "part shown, from"},    {"cropTo", "part shown, to"}};

const std::unordered_map<std::string, Entry>& table() {
    static const std::unordered_map<std::string, Entry> all = [] {
        std::unordered_map<std::string, Entry> made;
        const auto take = [&](Ref of, const auto& entries) {
            for (const Entry& e : entries) made.emplace(std::string(1, of.letter) + e.field, e);
        };
        take(Ref(), basis);
        take(LevelId{1}, level);
        take(WallId{1}, wall);
        take(RoomId{1}, room);
        take(DeviceTypeId{1}, deviceType);
        take(DeviceId{1}, device);
        take(SourceId{1}, source);
        take(TransformerId{1}, transformer);
        take(BoardId{1}, board);
        take(CircuitId{1}, circuit);
        take(RunId{1}, run);
        take(LoadId{1}, load);
        take(SectionId{1}, section);
        take(UnderlayId{1}, underlay);
        take(OpeningId{1}, opening);
        take(FurnishingId{1}, furnishing);
        take(TrayId{1}, tray);
        take(FormId{1}, form);
        take(KeyedNoteId{1}, keyedNote);
        take(RiserPlaceId{1}, riserPlace);
        take(PlacedViewId{1}, view);
        return made;
    }();
    return all;
}

const Entry* entryOf(Ref of, const std::string& field) {
    const auto it = table().find(std::string(1, of.letter) + field.substr(0, field.find('/')));
    return it == table().end() ? nullptr : &it->second;
}

template <class T> constexpr bool isId = false;
template <class T> constexpr bool isId<Id<T>> = true;

/// The fields that name another thing, by the letter of their kind and themselves. A text that happens to read like an
/// id ("B3" as a location) is none of them.
struct Naming {
    std::set<std::string>* found;
    char letter;
    template <class T> void operator()(const char* key, T&) {
        if constexpr (std::is_same_v<T, Ref> || isId<T>) found->insert(std::string(1, letter) + key);
    }
};
bool namesThing(Ref of, const std::string& field) {
    static const std::set<std::string> all = [] {
        std::set<std::string> found;
        Project::eachTable([&]<class T>(const char*, Table<T> Project::*) {
            T thing{};
            Naming naming{&found, idLetter<T>};
            fields(naming, thing);
        });
        return found;
    }();
    return all.count(std::string(1, of.letter) + field) > 0;
}

bool isCapital(char c) { return c >= 'A' && c <= 'Z'; }

/// "ownThing" → "own thing".
std::string apart(const std::string& field) {
    std::string words;
    for (char c : field)
        if (isCapital(c)) {
            words += ' ';
            words += char(c - 'A' + 'a');
        } else
            words += c;
    return words;
}

/// A number with no more digits than it was entered with, as far as they can be told.
std::string plain(double value) { return fmt::format("{:.6g}", value); }

std::string lengthTold(double metres, UnitSystem units) {
    const double value = units == UnitSystem::Imperial ? metres / metresPerFoot : metres;
    return plain(std::round(value * 1000) / 1000) + (units == UnitSystem::Imperial ? " ft" : " m");
}
std::string heightTold(double metres, UnitSystem units) {
    const double inches = metres / metresPerFoot * 12;
    const bool whole = std::abs(inches - std::round(inches)) < 1e-3;
    return units == UnitSystem::Imperial && whole && metres >= 0 ? heightWords(metres, units)
                                                                 : lengthTold(metres, units);
}

std::string sizeTold(const std::string& size, const RuleBook* book) {
    if (size.empty()) return "none";
    const SizeIndex at = book ? book->find(size) : -1;
    return at >= 0 ? sizeWords(*book, at) : size;
}

std::string thingTold(const std::string& id, const Project& in) {
    const std::string name = nameOf(in, refFrom(id));
    return id.empty() ? "none" : name.empty() ? id : name;
}

/// A value by itself, whatever field it is of.
std::string bare(const ordered_json& v) {
    if (v.is_null()) return "";
    if (v.is_boolean()) return v.get<bool>() ? "yes" : "no";
    if (v.is_string()) return v.get<std::string>().empty() ? "none" : v.get<std::string>();
    if (v.is_number_float()) return plain(v.get<double>());
    if (v.is_number()) return v.dump();
    if (v.is_array()) {
        // Points and parts are told by their number; a short list of texts by its words.
        const bool texts = std::all_of(v.begin(), v.end(), [](const ordered_json& x) { return x.is_string(); });
        if (!texts) return fmt::format("{} {}", v.size(), v.size() == 1 ? "part" : "parts");
        std::string all;
        for (const ordered_json& x : v) all += (all.empty() ? "" : ", ") + bare(x);
        return all.empty() ? "none" : all;
    }
    std::string all;
    for (const auto& [key, x] : v.items()) all += (all.empty() ? "" : ", ") + key + " " + bare(x);
    return all.empty() ? "none" : all;
}

/// The unit of a load: its own, its type's; empty: there is none such.
std::string unitOf(Ref of, const Project& p) {
    if (const Load* l = p.loads.find(of.as<Load>())) return wordOf(l->unit);
    if (const DeviceType* t = p.deviceTypes.find(of.as<DeviceType>())) return wordOf(t->unit);
    if (const Device* d = p.devices.find(of.as<Device>())) return unitOf(d->type, p);
    return "";
}

std::string numberTold(const Entry& e, double value, UnitSystem units) {
    if (e.is == Is::None0 && value == 0) return "none";
    if (e.is == Is::Share) return plain(value * 100) + " %";
    if (e.is == Is::Length) return lengthTold(value, units);
    if (e.is == Is::Height) return heightTold(value, units);
    const std::string unit = e.unit;
    return plain(value) + (unit.empty() || unit == "°" ? unit : " " + unit);
}

} // namespace

std::string ValueTeller::words(Ref of, const std::string& field, const ordered_json& value) const {
    if (value.is_string() && namesThing(of, field)) return thingTold(value.get<std::string>(), project);
    const Entry* e = entryOf(of, field);
    if (!e || value.is_null()) return bare(value);
    if (value.is_number() && e->is == Is::Own) {
        const std::string unit = unitOf(of, project);
        return plain(value.get<double>()) + (unit.empty() ? "" : " ") + unit;
    }
    if (value.is_number() && e->is != Is::Plain) return numberTold(*e, value.get<double>(), project.basis.units);
    if (value.is_string() && (e->is == Is::Size || e->is == Is::Sizes)) return sizeTold(value.get<std::string>(), book);
    if (value.is_object() && (e->is == Is::Sizes || e->is == Is::Each)) {
        std::string all;
        for (const auto& [key, x] : value.items()) {
            const std::string one =
                x.is_number() ? numberTold(*e, x.get<double>(), project.basis.units) : sizeTold(x, book);
            all += (all.empty() ? "" : ", ") + key + " " + one;
        }
        return all.empty() ? "none" : all;
    }
    return bare(value);
}

std::string fieldWords(Ref of, const std::string& field) {
    const Entry* e = entryOf(of, field);
    const std::size_t slash = field.find('/');
    const std::string within = slash == std::string::npos ? "" : ", " + field.substr(slash + 1);
    return (e ? std::string(e->words) : apart(field.substr(0, slash))) + within;
}

bool fieldIsNamed(Ref of, const std::string& field) { return entryOf(of, field) != nullptr; }

} // namespace lintel
