#include "core/sheets/BoardNotes.h"

#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

#include <algorithm>

namespace lintel {

std::vector<BoardNote> boardNotes(const SheetInput& in, const Board& b) {
    std::vector<BoardNote> list;
    const auto at = [&](const Circuit& c) { return placeWords(b, c); };
    std::vector<const Circuit*> here;
    for (CircuitId c : in.results.on(b.id)) here.push_back(in.project.circuits.find(c));
    std::sort(here.begin(), here.end(), [](const Circuit* x, const Circuit* z) { return x->slot < z->slot; });
    const auto together = [&](const std::vector<const Circuit*>& circuits, const std::string& text) {
        if (circuits.empty()) return;
        BoardNote note{circuits.size() == 1 ? "Circuit " : "Circuits ", {}};
        for (const Circuit* c : circuits) {
            note.text += (note.of.empty() ? "" : ", ") + at(*c);
            note.of.push_back(c->id);
        }
        note.text += ": " + text;
        list.push_back(std::move(note));
    };
    const auto those = [&](const auto& is) {
        std::vector<const Circuit*> out;
        std::copy_if(here.begin(), here.end(), std::back_inserter(out), is);
        return out;
    };
    if (b.seriesKA > 0 && !b.seriesDevices.empty())
        list.push_back({fmt::format("Series rating of {:g} kA: {}.", b.seriesKA, b.seriesDevices), {}});
    if (!b.surge.empty()) list.push_back({fmt::format("Surge protection: {}.", b.surge), {}});
    together(those([](const Circuit* c) { return c->groundFault; }), "ground-fault protected.");
    together(those([&](const Circuit* c) {
                 const RunResult* run = in.results.run(c->id);
                 return in.book.metric() && run && run->need.cable->residual > 0 &&
                        run->need.cable->residualType == ResidualType::AWithDirect;
             }),
             "A+ is type A, with what opens at 6 mA of direct current.");
    std::map<int, std::vector<const Circuit*>> groups;
    for (const Circuit* c : here)
        if (c->multiwire) groups[c->multiwire].push_back(c);
    for (const auto& [group, circuits] : groups) together(circuits, "share a neutral and are opened together.");
    std::map<int, std::vector<const Circuit*>> ties;
    for (const Circuit* c : here)
        if (c->tie) ties[c->tie].push_back(c);
    for (const auto& [tie, circuits] : ties)
        if (circuits.size() > 1) together(circuits, "handles tied, they open together.");
    together(those([](const Circuit* c) { return c->fullRated; }), "100 %-rated device.");
    std::map<std::string, std::vector<const Circuit*>> laid;
    for (const Circuit* c : here)
        if (c->use == CircuitUse::Load)
            for (const std::string& words : installationWords(in.project, in.results, c->id)) laid[words].push_back(c);
    for (const auto& [words, circuits] : laid) together(circuits, words + ".");
    for (const Circuit* c : here) {
        const auto add = [&](std::string text) { list.push_back({std::move(text), {c->id}}); };
        if (c->arcFault) add(fmt::format("Circuit {}: arc-fault protected.", at(*c)));
        if (!c->unprotected.empty()) add(fmt::format("Circuit {}: {}.", at(*c), c->unprotected));
        if (c->device != DeviceKind::Breaker && !in.book.metric())
            add(fmt::format("Circuit {}: {}.", at(*c), wordOf(c->device)));
        if (c->along && b.use == BoardUse::Busway)
            add(fmt::format("Circuit {}: tapped {} from the fed end.", at(*c),
                            lengthWords(Metres{*c->along}, in.project.basis.units)));
        if (!c->note.empty()) add(fmt::format("Circuit {}: {}", at(*c), c->note));
        const RunResult* run = in.results.run(c->id);
        if (!run || run->size < 0 || c->use != CircuitUse::Load) continue;
        if (run->why == Governing::VoltageDrop && !in.book.metric())
            add(fmt::format("Circuit {}: raised from {} to {} for voltage drop ({}, {} own, {} total){}.", at(*c),
                            sizeWords(in.book, run->sizeForAmpacity), sizeWords(in.book, run->size),
                            lengthWords(run->need.length, in.project.basis.units), percent(run->dropOwn),
                            percent(run->dropTotal), run->groundRaised ? "; ground raised in proportion" : ""));
        if (run->state == Sizing::PastCeiling)
            add(fmt::format("Circuit {}: {} own, {} total drop at {}, over its limit and past the upsizing "
                            "ceiling: feed it from nearer.",
                            at(*c), percent(run->dropOwn), percent(run->dropTotal),
                            lengthWords(run->need.length, in.project.basis.units)));
        if (run->state == Sizing::Held)
            add(fmt::format("Circuit {}: {} held by the designer.", at(*c), sizeOf(*run, in.book)));
    }
    return list;
}

std::map<CircuitId, std::string> numbersOfNotes(const std::vector<BoardNote>& notes) {
    std::map<CircuitId, std::string> numbers;
    for (std::size_t i = 0; i < notes.size(); ++i)
        for (CircuitId c : notes[i].of) {
            std::string& told = numbers[c];
            told += (told.empty() ? "" : ",") + std::to_string(i + 1);
        }
    return numbers;
}

} // namespace lintel
