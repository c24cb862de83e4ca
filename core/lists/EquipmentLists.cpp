// What hangs on circuits, by its kind: motors, heaters, kitchen equipment, luminaires, loads without a circuit.

#include "core/lists/RunCells.h"
#include "core/sheets/TypeCard.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>

#include <map>

namespace lintel {
namespace {

/// One load, listed or drawn.
struct Piece {
    Ref thing;
    std::string tag, name, where;
    double amount = 0;
    LoadUnit unit = LoadUnit::VA;
    double powerFactor = 1, quantity = 1;
    int poles = 1;
    CircuitId circuit;
    Nameplate nameplate;
};

/// As it was entered: "7.5 hp", "1 200 VA".
std::string amountWords(double amount, LoadUnit unit) {
    constexpr std::pair<double, const char*> small[] = {{1 / 8.0, "1/8"}, {1 / 6.0, "1/6"}, {1 / 4.0, "1/4"},
                                                        {1 / 3.0, "1/3"}, {1 / 2.0, "1/2"}, {3 / 4.0, "3/4"}};
    for (const auto& [hp, words] : small)
        if (unit == LoadUnit::hp && std::abs(amount - hp) < 0.004) return std::string(words) + " hp";
    return fmt::format("{} {}", amount >= 1000 ? number(amount, amount == std::floor(amount) ? 0 : 1) : rating(amount),
                       wordOf(unit));
}

/// A text of several lines in one.
std::string oneLine(std::string text) {
    std::replace(text.begin(), text.end(), '\n', ' ');
    return text;
}

std::string placeOfDevice(const Project& p, const Device& d) {
    if (const RoomId room = roomAt(p, d.level, d.at)) return nameOf(p, room);
    const Level* l = p.levels.find(d.level);
    return l ? l->name : "";
}

std::vector<Piece> piecesOf(const Project& p, std::initializer_list<LoadKind> kinds) {
    const auto wanted = [&](LoadKind k) { return std::find(kinds.begin(), kinds.end(), k) != kinds.end(); };
    std::vector<Piece> all;
    for (const Load& l : p.loads)
        if (wanted(l.kind))
            all.push_back({l.id, l.tag, l.name, l.where, l.amount, l.unit, l.powerFactor, l.quantity, l.poles,
                           l.circuit, l.nameplate});
    for (const Device& d : p.devices) {
        const DeviceType& t = p.deviceTypes[d.type];
        if (wanted(t.kind))
            all.push_back({d.id, d.tag, t.name, placeOfDevice(p, d), d.load.value_or(t.load), t.unit, t.powerFactor, 1,
                           t.poles, d.circuit, t.nameplate});
    }
    std::stable_sort(all.begin(), all.end(), [](const Piece& a, const Piece& b) {
        return std::pair(a.tag.empty(), a.tag) < std::pair(b.tag.empty(), b.tag);
    });
    return all;
}

List equipment(const SheetInput& in, const char* key, const char* title, std::initializer_list<LoadKind> kinds) {
    const Project& p = in.project;
    List list{key,
              title,
              {{"Tag"},
               {"Name"},
               {"Where"},
               {"Each"},
               {"Number", "", Align::Right},
               {"Volts", "V", Align::Right},
               {"Phases", "", Align::Right},
               {"Current, each", "A", Align::Right},
               {"Circuit"},
               {in.book.word(TradeWord::Device)},
               {"Conductors"},
               {racewayHeading(in)},
               {"Length", lengthUnit(p.basis.units), Align::Right}},
              {},
              {}};
    const std::vector<Piece> pieces = piecesOf(p, kinds);
    const bool starters = std::any_of(pieces.begin(), pieces.end(), [&](const Piece& x) {
        const Circuit* c = p.circuits.find(x.circuit);
        return c && c->starter != StarterKind::Unsaid;
    });
    const bool marked =
        std::any_of(pieces.begin(), pieces.end(), [](const Piece& x) { return x.nameplate != Nameplate(); });
    if (marked) list.columns.insert(list.columns.end(), {{"MCA", "A", Align::Right}, {"MOCP", "A", Align::Right}});
    if (starters) list.columns.push_back({"Starter"});
    for (const Piece& x : pieces) {
        const Circuit* c = p.circuits.find(x.circuit);
        ListCell volts{"–"}, phases{"–"}, amps{"–"}, circuit{"none", {}, Ink::Stop}, device{"–"}, conductors{"–"},
            raceway{"–"}, length{"–"};
        if (c) {
            const VoltageSystem system = p.boards[c->board].system;
            const CircuitResult& r = in.results.of(c->id);
            const double va = magnitude(powerOf(x.amount, x.unit, x.powerFactor, system, c->poles, in.book));
            volts = numberCell(voltsAcross(system, c->poles).v);
            phases = {c->poles == 3 ? "3" : "1", c->poles == 3 ? 3.0 : 1.0};
            amps = va > 0 ? figureCell(ampsOf(va, system, c->poles).v) : ListCell{"not in the table", {}, Ink::Stop};
            circuit = {nameOf(p, c->id)};
            device = {deviceWords(r, c->poles, in.book)};
            conductors = conductorCell(in, r.run);
            raceway = {racewayWords(in, r.run, partsOf(p, in.book, in.results, c->id))};
            length = lengthCell(r.run.need, p.basis.units);
        }
        list.add(c ? Ref(c->id) : x.thing, {{x.tag},
                                            {x.name},
                                            {x.where},
                                            {amountWords(x.amount, x.unit)},
                                            numberCell(x.quantity),
                                            volts,
                                            phases,
                                            amps,
                                            circuit,
                                            device,
                                            conductors,
                                            raceway,
                                            length});
        for (const double mark : {x.nameplate.ampacity, x.nameplate.device})
            if (marked) list.rows.back().cells.push_back(mark > 0 ? figureCell(mark) : ListCell{"–"});
        if (starters) list.rows.back().cells.push_back({c ? starterWords(c->starter, in.book) : std::string()});
    }
    return list;
}

} // namespace

List motorList(const SheetInput& in) {
    return equipment(in, "motors", "Motors and what runs on motors",
                     {LoadKind::Motor, LoadKind::Vertical, LoadKind::Cooling, LoadKind::Refrigeration});
}
List heaterList(const SheetInput& in) {
    return equipment(in, "heaters", "Heaters", {LoadKind::Heating, LoadKind::WaterHeating});
}
List kitchenList(const SheetInput& in) { return equipment(in, "kitchen", "Kitchen equipment", {LoadKind::Kitchen}); }

List luminaireList(const SheetInput& in) {
    const Project& p = in.project;
    List list{"luminaires",
              "Luminaires",
              {{"Mark"},
               {"Symbol", "", Align::Centre},
               {"Type"},
               {"Description"},
               {"Lamp"},
               {"Load", "", Align::Right},
               {"Light", "lm", Align::Right},
               {"Power factor", "", Align::Right},
               {"Mounting"},
               {"Protection"},
               {"Connection"}},
              {},
              {}};
    std::map<DeviceTypeId, std::map<LevelId, int>> count;
    std::map<std::pair<DeviceTypeId, std::string>, int> otherwise; // by a protection that is not their type's
    for (const Device& d : p.devices)
        if (const DeviceType& t = p.deviceTypes[d.type]; t.kind == LoadKind::Lighting && t.load > 0) { // no switches
            ++count[d.type][d.level];
            if (!d.protection.empty() && d.protection != t.protection) ++otherwise[{d.type, d.protection}];
        }
    if (count.empty()) return list;
    for (const auto& [of, many] : otherwise)
        list.notes.push_back(fmt::format("{}: {} of them {}.", p.deviceTypes[of.first].name, many, of.second));
    for (const Level& l : p.levels) list.columns.push_back({l.name, "", Align::Right});
    list.columns.push_back({"All", "", Align::Right});
    int inAll = 0;
    std::map<LevelId, int> onLevel;
    std::vector<DeviceTypeId> types; // by their marks, those without last
    for (const auto& [id, levels] : count) types.push_back(id);
    std::stable_sort(types.begin(), types.end(),
                     [&](DeviceTypeId x, DeviceTypeId y) { return markBefore(p.deviceTypes[x], p.deviceTypes[y]); });
    for (DeviceTypeId id : types) {
        const auto& levels = count[id];
        const DeviceType& t = p.deviceTypes[id];
        std::vector<ListCell> cells{
            {t.mark},
            {wordOf(t.symbol), {}, Ink::Ink, t.symbol},
            {t.name},
            {oneLine(t.description)},
            {t.lamp},
            {amountWords(t.load, t.unit)},
            t.lumens > 0 ? numberCell(t.lumens) : ListCell{"–"},
            {fmt::format("{:.2f}", t.powerFactor), t.powerFactor},
            {t.onWall ? "wall, " + heightWords(t.height, p.basis.units) : std::string("ceiling")},
            {t.protection.empty() ? "–" : t.protection},
            {t.connection.empty() ? "–" : t.connection}};
        int all = 0;
        for (const Level& l : p.levels) {
            const auto at = levels.find(l.id);
            const int here = at == levels.end() ? 0 : at->second;
            cells.push_back(here ? numberCell(here) : ListCell{"–"});
            all += here;
            onLevel[l.id] += here;
        }
        cells.push_back(numberCell(all));
        inAll += all;
        list.rows.push_back({ListEntry::Kind::Figures, id, std::move(cells)});
    }
    std::vector<ListCell> sums{{}, {}, {"Total"}, {}, {}, {}, {}, {}, {}, {}, {}};
    for (const Level& l : p.levels) sums.push_back(numberCell(onLevel[l.id]));
    sums.push_back(numberCell(inAll));
    list.total(std::move(sums));
    return list;
}

List unfedList(const SheetInput& in) {
    const Project& p = in.project;
    List list{
        "unfed",
        "Loads without a circuit",
        {{"Tag"}, {"Name"}, {"Where"}, {"Kind"}, {"Each"}, {"Number", "", Align::Right}, {"Board it is meant for"}},
        {},
        {}};
    for (const Load& l : p.loads) {
        if (l.circuit) continue;
        const Board* meant = p.boards.find(l.board);
        list.add(l.id, {{l.tag},
                        {l.name},
                        {l.where},
                        {kindTitle(l.kind, in.book)},
                        {amountWords(l.amount, l.unit)},
                        numberCell(l.quantity),
                        {meant ? meant->name : "–"}});
    }
    // What is drawn and hangs on nothing: by type and room, or a floor of them would fill the sheet.
    std::map<std::tuple<DeviceTypeId, std::string, double>, int> drawn;
    for (const Device& d : p.devices) {
        const DeviceType& t = p.deviceTypes[d.type];
        const double load = d.load.value_or(t.load);
        if (!d.circuit && load > 0) ++drawn[{d.type, placeOfDevice(p, d), load}];
    }
    for (const auto& [what, n] : drawn) {
        const auto& [type, where, load] = what;
        const DeviceType& t = p.deviceTypes[type];
        list.rows.push_back({ListEntry::Kind::Figures,
                             Ref(),
                             {{""},
                              {t.name},
                              {where},
                              {kindTitle(t.kind, in.book)},
                              {amountWords(load, t.unit)},
                              numberCell(n),
                              {"–"}}});
    }
    return list;
}

} // namespace lintel
