#include "core/copy/CircuitBlock.h"

#include "core/base/Parse.h"
#include "core/project/CircuitFacts.h"
#include "core/project/FreshId.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/project/Slots.h"
#include "core/route/Trays.h"

#include <fmt/format.h>
#include <set>

namespace lintel {
namespace {

constexpr std::size_t blockFacts = 9; ///< of circuitFacts(), the first that go into a block for a spreadsheet

constexpr int Circuit::*groups[] = {&Circuit::tie, &Circuit::multiwire, &Circuit::kept, &Circuit::bundle};

std::string cell(std::string text) {
    if (text.find_first_of("\t\n\"") == std::string::npos) return text;
    for (std::size_t at = 0; (at = text.find('"', at)) != std::string::npos; at += 2) text.insert(at, 1, '"');
    return "\"" + text + "\"";
}

} // namespace

std::vector<TakenCircuit> takeCircuits(const Project& p, const std::vector<CircuitId>& circuits) {
    const TrayGraph trays(p);
    std::vector<TakenCircuit> out;
    std::map<CircuitId, std::size_t> index;
    for (CircuitId id : circuits)
        if (const Circuit* c = p.circuits.find(id); c && !index.count(id)) {
            index[id] = out.size();
            out.push_back({*c, {}, {}, bool(fedBy(p, id))});
            if (const Run* r = p.runs.find(c->run); r && !out.back().feeder) out.back().run = *r;
        }
    for (const Load& l : p.loads)
        if (const auto it = index.find(l.circuit); it != index.end()) out[it->second].loads.push_back(l);
    std::map<std::size_t, std::vector<const Device*>> devices;
    for (const Device& d : p.devices)
        if (const auto it = index.find(d.circuit); it != index.end()) devices[it->second].push_back(&d);
    for (const auto& [i, list] : devices) {
        TakenCircuit& t = out[i];
        const Board& b = p.boards[t.circuit.board];
        if (t.run && t.run->lengthBy != LengthBy::Entered)
            if (const auto m = t.circuit.ring
                                   ? measureRing(p, b, list.data(), list.size(), &trays)
                                   : measureCircuit(p, b, measureBy(&*t.run, &trays), list.data(), list.size()))
                t.run->length = m->total.v, t.run->lengthBy = LengthBy::Entered;
        std::map<std::pair<DeviceTypeId, double>, int> drawn;
        for (const Device* d : list) ++drawn[{d->type, d->load.value_or(p.deviceTypes[d->type].load)}];
        for (const auto& [key, n] : drawn) {
            const DeviceType& y = p.deviceTypes[key.first];
            Load l;
            l.name = y.name, l.kind = y.kind, l.amount = key.second, l.unit = y.unit, l.powerFactor = y.powerFactor,
            l.poles = y.poles, l.continuous = y.continuous, l.quantity = n;
            t.loads.push_back(l);
        }
    }
    return out;
}

PutPlan planPut(const Project& p, BoardId board, int slot, const std::vector<TakenCircuit>& taken) {
    PutPlan plan;
    const Board& b = p.boards[board];
    auto map = slotMap(p, board);
    const CircuitId mark{0xffffffff};
    const auto fits = [&](int s, int poles) {
        const auto at = slotsTaken(b, s, poles);
        return !at.empty() && std::none_of(at.begin(), at.end(), [&](int x) { return bool(map[std::size_t(x)]); });
    };
    const int step = b.form == BoardForm::TwoColumn ? 2 : 1;
    int next = std::max(1, slot);
    for (const TakenCircuit& t : taken) {
        const int poles = t.circuit.poles;
        if (poles > factsOf(b.system).lines) {
            plan.error = Error{b.name,
                               fmt::format("it has {} lines; {} takes {}", factsOf(b.system).lines,
                                           t.circuit.name.empty() ? "a circuit" : t.circuit.name, poles),
                               "Paste it on another board."};
            return plan;
        }
        int at = 0;
        for (int s = next; s <= b.slots && !at && slot > 0; s += step)
            if (fits(s, poles)) at = s;
        for (int s = 1; s <= b.slots && !at; ++s)
            if (fits(s, poles)) at = s;
        plan.slots.push_back(at);
        if (!at) {
            ++plan.without;
            continue;
        }
        for (int s : slotsTaken(b, at, poles)) map[std::size_t(s)] = mark;
        if (at >= next && (at - next) % step == 0) next = slotsTaken(b, at, poles).back() + step;
    }
    return plan;
}

std::vector<CircuitId> putCircuits(Project& p, BoardId board, const std::vector<TakenCircuit>& taken,
                                   const std::vector<int>& slots) {
    std::vector<CircuitId> made;
    std::map<std::pair<int, std::pair<BoardId, int>>, int> renumbered;
    for (std::size_t i = 0; i < taken.size(); ++i) {
        Circuit c = taken[i].circuit;
        c.id = {};
        c.slot = i < slots.size() ? slots[i] : 0;
        c.pinned = false, c.automatic = false;
        for (std::size_t g = 0; g < std::size(groups); ++g)
            if (int& number = c.*groups[g]) {
                const auto [it, fresh] = renumbered.try_emplace({int(g), {c.board, number}}, 0);
                if (fresh) it->second = freeGroup(p, board, groups[g]);
                number = it->second;
            }
        c.board = board;
        c.along.reset(); // a copy stands nowhere yet
        c.run = {};
        if (taken[i].feeder)
            c.use = CircuitUse::Spare, c.name.clear();
        else if (taken[i].run) {
            Run r = *taken[i].run;
            r.id = {};
            c.run = p.runs.add(r);
        } else if (c.use == CircuitUse::Load)
            c.run = p.runs.add({});
        const CircuitId id = addFresh(p, &Project::circuits, c);
        made.push_back(id);
        if (taken[i].feeder) continue;
        for (Load l : taken[i].loads) {
            l.id = {}, l.circuit = id, l.tag.clear(), l.board = {}; // a tag stands for one load
            p.loads.add(l);
        }
    }
    return made;
}

std::string writeCircuits(const std::vector<TakenCircuit>& taken) {
    // A small project of its own, so that the other side reads and checks it as it does any file.
    Project p;
    std::map<BoardId, BoardId> boards; // groups are numbered by board
    for (const TakenCircuit& t : taken) {
        auto [it, fresh] = boards.try_emplace(t.circuit.board);
        if (fresh) {
            Board b;
            b.name = textOf(t.circuit.board);
            it->second = p.boards.add(b);
        }
        Circuit c = t.circuit;
        c.id = {}, c.board = it->second, c.run = {};
        if (t.feeder) c.use = CircuitUse::Spare;
        if (t.run) {
            Run r = *t.run;
            r.id = {};
            c.run = p.runs.add(r);
        }
        const CircuitId id = p.circuits.add(c);
        for (Load l : t.loads) {
            l.id = {}, l.circuit = id, l.board = {};
            p.loads.add(l);
        }
    }
    return writeProject(p);
}

Outcome<std::vector<TakenCircuit>> readCircuits(const std::string& text) {
    auto p = readProject(text, "clipboard");
    if (!p) return p.error();
    std::vector<CircuitId> all;
    for (const Circuit& c : p->circuits) all.push_back(c.id);
    return takeCircuits(*p, all);
}

std::string blockText(const Project& p, const std::vector<CircuitId>& circuits) {
    std::vector<std::vector<std::string>> rows{{"Circuit"}};
    for (std::size_t k = 0; k < blockFacts; ++k) rows.back().push_back(circuitFacts()[k].title);
    for (CircuitId id : circuits) {
        const Circuit& c = p.circuits[id];
        rows.push_back({nameOf(p, id)});
        for (std::size_t k = 0; k < blockFacts; ++k) rows.back().push_back(circuitFacts()[k].read(p, c));
    }
    return cellsText(rows);
}

std::string cellsText(const std::vector<std::vector<std::string>>& rows) {
    std::string out;
    for (const auto& row : rows) {
        for (std::size_t i = 0; i < row.size(); ++i) out += (i ? "\t" : "") + cell(row[i]);
        out += '\n';
    }
    return out;
}

std::vector<std::vector<std::string>> cellsOf(const std::string& text) {
    std::vector<std::vector<std::string>> rows{{""}};
    bool quoted = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        std::string& now = rows.back().back();
        if (quoted) {
            if (c == '"' && i + 1 < text.size() && text[i + 1] == '"')
                now += '"', ++i;
            else if (c == '"')
                quoted = false;
            else
                now += c;
        } else if (c == '"' && now.empty())
            quoted = true;
        else if (c == '\t')
            rows.back().push_back("");
        else if (c == '\n')
            rows.push_back({""});
        else if (c != '\r')
            now += c;
    }
    while (!rows.empty() &&
           std::all_of(rows.back().begin(), rows.back().end(), [](const std::string& s) { return trimmed(s).empty(); }))
        rows.pop_back();
    return rows;
}

BlockPaste pasteBlock(Project& p, BoardId board, int slot, const std::string& from, const std::string& text) {
    BlockPaste out;
    auto rows = cellsOf(text);
    if (rows.empty()) return out;
    const Board& b = p.boards[board];
    // A heading names facts in at least half of its cells, and one of them is a fact indeed.
    std::vector<const CircuitFact*> columns;
    int place = -1, known = 0; // where a block comes from says nothing about where it goes: its places are passed over
    for (std::size_t k = 0; k < rows.front().size(); ++k) {
        const std::string word = trimmed(rows.front()[k]);
        columns.push_back(circuitFact(word));
        if (sameWord(word, "circuit") || sameWord(word, "slot") || sameWord(word, "way") || sameWord(word, "ckt"))
            place = int(k), ++known;
        else
            known += columns.back() != nullptr;
    }
    const bool heading = known > 0 && 2 * known >= int(rows.front().size()) && (rows.size() > 1);
    if (heading) {
        rows.erase(rows.begin());
    } else {
        place = -1;
        columns.clear();
        const CircuitFact* first = circuitFact(from);
        std::size_t k = first ? std::size_t(first - circuitFacts().data()) : 0;
        std::size_t widest = 0;
        for (const auto& r : rows) widest = std::max(widest, r.size());
        for (std::size_t i = 0; i < widest; ++i, ++k)
            columns.push_back(k < circuitFacts().size() ? &circuitFacts()[k] : nullptr);
    }
    const int step = b.form == BoardForm::TwoColumn ? 2 : 1;
    int at = std::max(1, slot);
    const auto problem = [&](std::size_t row, const std::string& column, const Error& e) {
        out.problems.push_back(fmt::format("row {}, {}: {}", row + 1 + heading, column, e.what));
    };
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const auto& cells = rows[r];
        if (std::all_of(cells.begin(), cells.end(), [](const std::string& s) { return trimmed(s).empty(); })) {
            at += step;
            continue;
        }
        ++out.rows;
        const int here = at;
        if (here > b.slots) {
            out.problems.push_back(fmt::format("row {}: {} ends at slot {}", r + 1 + heading, b.name, b.slots));
            break;
        }
        CircuitId id = slotMap(p, board)[std::size_t(here)];
        if (!id) {
            id = addCircuit(p, board, 1, "");
            p.circuits.change(id)->slot = here;
            ++out.added;
        }
        // Poles first: a circuit that grows needs its place before anything else is entered.
        std::vector<std::size_t> order;
        for (std::size_t k = 0; k < cells.size() && k < columns.size(); ++k)
            if (columns[k] && int(k) != place) order.push_back(k);
        std::stable_sort(order.begin(), order.end(), [&](std::size_t x, std::size_t y) {
            return std::string_view(columns[x]->key) == "poles" && std::string_view(columns[y]->key) != "poles";
        });
        for (std::size_t k : order) {
            if (trimmed(cells[k]).empty() || sameWord(trimmed(cells[k]), columns[k]->read(p, p.circuits[id]))) continue;
            if (const auto bad = columns[k]->write(p, id, trimmed(cells[k]))) problem(r, columns[k]->title, *bad);
        }
        out.touched.push_back(id);
        ++out.circuits;
        const auto taken = slotsTaken(b, p.circuits[id].slot, p.circuits[id].poles);
        at = (taken.empty() ? here : taken.back()) + step;
    }
    return out;
}

std::vector<std::string> fillDown(Project& p, const std::vector<CircuitId>& circuits, const std::string& fact) {
    std::vector<std::string> problems;
    const CircuitFact* f = circuitFact(fact);
    if (!f || circuits.size() < 2) return problems;
    const std::string text = f->read(p, p.circuits[circuits.front()]);
    for (std::size_t i = 1; i < circuits.size(); ++i)
        if (const auto bad = f->write(p, circuits[i], text)) problems.push_back(bad->where + ": " + bad->what);
    return problems;
}

} // namespace lintel
