#include "core/exchange/ResultsText.h"

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/OpeningTime.h"
#include "core/solve/RunParts.h"
#include "core/solve/States.h"
#include "core/solve/TesterReadings.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace lintel {

using nlohmann::ordered_json;

namespace {
/// Pads by letters, not bytes.
std::string cell(const std::string& s, std::size_t width, bool right = false) {
    std::size_t letters = 0;
    for (unsigned char c : s) letters += (c & 0xC0) != 0x80;
    const std::string pad(letters < width ? width - letters : 0, ' ');
    return right ? pad + s : s + pad;
}
double rounded(double v) { return std::round(v * 1e6) / 1e6; }
} // namespace

std::string resultsText(const CheckInput& in) {
    const Project& p = in.project;
    const Results& r = in.results;
    std::string out =
        fmt::format("{}   {}   {}, {}, {}\n\n", p.basis.title, in.book.title, counted(p.boards.size(), "board"),
                    counted(p.circuits.size(), "circuit"), counted(p.devices.size(), "device"));
    const auto row = [&](std::initializer_list<std::pair<std::string, int>> cells) {
        for (const auto& [text, width] : cells) out += cell(text, std::size_t(std::abs(width)), width < 0) + "  ";
        while (out.back() == ' ') out.pop_back();
        out += "\n";
    };
    out += "BOARDS AND TRANSFORMERS\n";
    row({{"Name", 10},
         {"Fed from", 12},
         {"Connected kVA", -13},
         {"Demand kVA", -10},
         {"Demand A", -9},
         {"Used", -6},
         {"Fault kA", -8},
         {"Drop", -7},
         {"Imbalance", -9},
         {"Conductors", 0}});
    for (Ref ref : r.order) {
        const NodeResult& n = *r.node(ref);
        const double use = ref.is<Board>()         ? r.of(ref.as<Board>()).use
                           : ref.is<Transformer>() ? r.of(ref.as<Transformer>()).use
                                                   : 0;
        row({{nameOf(p, ref), 10},
             {n.parent ? nameOf(p, n.via ? Ref(n.via) : n.parent) : "–", 12},
             {kilo(n.connected), -13},
             {kilo(n.demand), -10},
             {figures(demandBesideRating(ref, n)), -9},
             {ref.is<Source>() ? "–" : percent(use * 100), -6},
             {n.fault.known ? faultWords(n.fault) : "–", -8},
             {dropWords(n.dropTotal, n.dropKnown), -7},
             {percent(n.imbalance), -9},
             {n.parent ? conductorWords(n.run, in.book) : "", 0}});
    }
    for (const auto& state : r.states) {
        const SourceResult& s = r.of(state->source);
        out += fmt::format(
            "\nON {}{}\n", nameOf(p, state->source),
            s.standby > 0 ? fmt::format("   takes over {} kVA, {} used", kilo(s.standby), percent(s.used * 100)) : "");
        row({{"Name", 10}, {"Fed from", 12}, {"Fault kA", -8}, {"Drop", -7}, {"Conductors", 0}});
        for (Ref ref : state->below) {
            const NodeResult& n = *state->results.node(ref);
            row({{nameOf(p, ref), 10},
                 {n.parent ? nameOf(state->project, n.via ? Ref(n.via) : n.parent) : "–", 12},
                 {n.fault.known ? faultWords(n.fault) : "–", -8},
                 {dropWords(n.dropTotal, n.dropKnown), -7},
                 {n.parent ? conductorWords(n.run, in.book) : "", 0}});
        }
    }
    out += "\nCIRCUITS\n";
    row({{"Circuit", 10},
         {"Serves", 34},
         {"VA", -8},
         {"A", -6},
         {"Breaker", -7},
         {"Size", 9},
         {"Why", 17},
         {"Length", -8},
         {"Own", -6},
         {"Total", -7}});
    for (Ref ref : r.order) {
        if (!ref.is<Board>()) continue;
        std::vector<const Circuit*> here;
        for (CircuitId c : r.on(ref.as<Board>())) here.push_back(&p.circuits[c]);
        std::sort(here.begin(), here.end(), [](const Circuit* a, const Circuit* b) { return a->slot < b->slot; });
        for (const Circuit* c : here) {
            const CircuitResult& cr = r.of(c->id);
            const RunResult& run = *r.run(c->id);
            const bool spare = c->use != CircuitUse::Load;
            row({{nameOf(p, c->id), 10},
                 {servesWords(p, r, c->id), 34},
                 {cr.nothingHangsOn() ? "–" : number(cr.va), -8},
                 {cr.nothingHangsOn() ? "–" : figures(cr.load.v), -6},
                 {c->use == CircuitUse::Reserved ? "–" : breakerWords(cr.device, c->poles), -7},
                 {spare ? "" : sizeOf(run, in.book), 9},
                 {spare ? "" : whyWords(run), 17},
                 {!spare && run.need.lengthKnown
                      ? (run.need.lengthAssumed ? "~" : "") + lengthWords(run.need.length, p.basis.units)
                      : "–",
                  -8},
                 {spare || !run.need.lengthKnown ? "–" : percent(run.dropOwn), -6},
                 {spare || !run.need.lengthKnown ? "–" : dropWords(run.dropTotal, run.need.beforeKnown), -7}});
        }
    }
    const auto snags = findSnags(p, in.book, r);
    out += fmt::format("\nSNAGS  {}\n", snags.size());
    for (const Snag& s : snags)
        out += fmt::format("  {}  {}{}\n", cell(wordOf(s.severity), 5), s.text,
                           s.cited.empty() ? "" : "  [" + s.cited + "]");
    return out;
}

namespace {

/// Each thing of a solution as an object.
class ResultsWriter {
public:
    ResultsWriter(const CheckInput& input, bool withWorkings)
        : in(input), p(input.project), r(input.results), workings(withWorkings) {}

    ordered_json node(Ref ref) const {
        const NodeResult& n = *r.node(ref);
        ordered_json j{{"id", ref.text()}, {"name", nameOf(p, ref)}, {"fed_from", n.parent ? nameOf(p, n.parent) : ""}};
        if (n.via) j["fed_by_circuit"] = nameOf(p, n.via);
        putLoad(j, n);
        putEntered(j, ref);
        j["drop_total_percent"] = rounded(n.dropTotal);
        if (n.fault.known) j["fault"] = fault(n.fault);
        if (n.fault.known && in.book.metric())
            j["loop_ohm"] = rounded(magnitude(n.fault.loop)); // of an earth fault here, conductors hot
        if (const Transformer* t = p.transformers.find(ref.as<Transformer>())) {
            j["kVA"] = t->kva;
            j["secondary_fault"] = fault(r.of(t->id).secondary);
        }
        if (const BoardId b = ref.as<Board>(); b && r.of(b).ups) {
            const UpsLoad& ups = *r.of(b).ups;
            j["ups"] = {{"gives_W", rounded(ups.out.real())},
                        {"gives_var", rounded(ups.out.imag())},
                        {"losses_W", rounded(ups.losses)}};
        }
        putStates(j, ref);
        putKinds(j, n);
        if (n.parent) j["feeder"] = run(n.run, ref);
        putStandby(j, ref);
        if (workings) j["workings"] = explain(p, in.book, r, ref).json();
        return j;
    }
    ordered_json circuit(const Circuit& c) const {
        const CircuitResult& cr = r.of(c.id);
        ordered_json j{{"id", textOf(c.id)}, {"name", nameOf(p, c.id)}, {"board", p.boards[c.board].name},
                       {"slot", c.slot},     {"poles", c.poles},        {"serves", servesWords(p, r, c.id)}};
        j["connected_VA"] = rounded(cr.va);
        j["phase_VA"] = {rounded(cr.phaseVa[0]), rounded(cr.phaseVa[1]), rounded(cr.phaseVa[2])};
        j["load_A"] = rounded(cr.load.v);
        j["required_A"] = rounded(cr.required.v);
        j["connected_W"] = rounded(cr.power.real());
        j["connected_var"] = rounded(cr.power.imag());
        j["breaker_A"] = cr.device;
        j["device"] = wordOf(cr.kindOfDevice);
        j["breaks_kA"] = c.heldKA.value_or(p.boards[c.board].ratingKA);
        j["use"] = wordOf(c.use);
        j["points"] = cr.points;
        if (cr.tap) j["tap"] = tap(c, *cr.tap);
        if (c.use != CircuitUse::Load || cr.feeder) return j;
        j["run"] = run(cr.run, c.id);
        if (cr.faultEnd > 0) j["fault_at_end_kA"] = rounded(cr.faultEnd);
        if (workings) j["workings"] = explain(p, in.book, r, c.id).json();
        return j;
    }
    ordered_json snag(const Snag& s) const {
        ordered_json j{{"severity", wordOf(s.severity)},   {"rule", s.rule->id}, {"about", s.about.text()},
                       {"name", nameOf(p, s.about)},       {"text", s.text},     {"cited", s.cited},
                       {"remedies", ordered_json::array()}};
        for (const Remedy& m : remediesFor(in, s)) j["remedies"].push_back(m.label);
        return j;
    }

private:
    const CheckInput& in;
    const Project& p;
    const Results& r;
    const bool workings;

    static ordered_json tap(const Circuit& c, const TapPoint& at) {
        ordered_json j;
        if (c.along) j["along_m"] = rounded(*c.along);
        j["drop_own_percent"] = rounded(at.dropOwn);
        j["drop_total_percent"] = rounded(at.dropTotal);
        j["drop_known"] = at.dropKnown;
        if (at.fault.known) j["fault"] = fault(at.fault);
        return j;
    }
    std::string size(SizeIndex of) const { return of >= 0 ? in.book.sizes()[std::size_t(of)].name : std::string(); }

    ordered_json run(const RunResult& x, Ref thing) const {
        const RunParts parts = partsOf(p, in.book, r, thing);
        ordered_json j{{"size", size(x.size)},
                       {"sets", x.sets},
                       {"size_for_ampacity", size(x.sizeForAmpacity)},
                       {"ground", size(x.ground)},
                       {"neutral", size(parts.neutral)},
                       {"conduit", parts.conduit.size ? parts.conduitType + " " + parts.conduit.size->name : ""},
                       {"material", wordOf(x.need.material)},
                       {"governing", whyWords(x)},
                       {"load_A", rounded(x.need.load.v)},
                       {"required_A", rounded(x.need.required.v)},
                       {"device_A", x.need.device},
                       {"ampacity_A", rounded(x.ampacity)}};
        j["size_unit"] = in.book.word(TradeWord::SizeUnit);
        j["length_known"] = x.need.lengthKnown && !x.need.lengthAssumed;
        if (x.need.cable->type >= 0) putCable(j, *x.need.cable);
        if (x.earth->known) putEarth(j, x);
        if (x.need.lengthKnown) putDrop(j, x);
        return j;
    }
    void putCable(ordered_json& j, const CableNeed& cable) const {
        const CableType& type = in.book.cables.types[std::size_t(cable.type)];
        j["cable"] = type.name;
        j["method"] = type.methods[std::size_t(cable.method)].name;
        if (cable.residual <= 0) return;
        j["residual_mA"] = rounded(double(cable.residual));
        j["residual_type"] = wordOf(cable.residualType);
    }
    void putEarth(ordered_json& j, const RunResult& x) const {
        j["zs_ohm"] = rounded(double(x.earth->zs));
        if (x.earth->limit > 0) j["zs_limit_ohm"] = rounded(double(x.earth->limit));
        if (const TesterReadings cold = testerReadings(x, in.book); cold.known) {
            j["r1_r2_at_20_ohm"] = rounded(cold.together);
            if (cold.zsMost > 0) j["zs_to_be_read_ohm"] = rounded(cold.zsMost);
        }
        j["earth_fault_A"] = rounded(double(x.earth->amps));
        if (const auto after = openingTime(*x.earth)) j["opens_in_s"] = rounded(*after);
        j["protective_needed_mm2"] = rounded(double(std::max(x.earth->needed, x.earth->neededHere)));
        j["protective_has_mm2"] = rounded(double(x.earth->has));
    }
    static void putDrop(ordered_json& j, const RunResult& x) {
        j["length_m"] = rounded(x.need.length.v);
        if (x.need.lengthAssumed) j["length_assumed"] = true;
        if (!x.need.beforeKnown) j["drop_total_at_least"] = true;
        j["drop_current_A"] = rounded(x.need.dropAmps.v);
        j["drop_before_percent"] = rounded(x.dropBefore);
        j["drop_own_percent"] = rounded(x.dropOwn);
        j["drop_total_percent"] = rounded(x.dropTotal);
        j["longest_m"] = rounded(x.longest.v);
    }
    static ordered_json fault(const FaultPoint& f) {
        return {{"three_phase_kA", rounded(f.threePhase)},
                {"line_line_kA", rounded(f.lineLine)},
                {"line_neutral_kA", rounded(f.lineNeutral)},
                {"line_ground_kA", rounded(f.lineGround)},
                {"peak_kA", rounded(f.peak())},
                {"x_over_r", rounded(f.xOverR())},
                {"at_most", f.runsUnknown}};
    }
    static void putLoad(ordered_json& j, const NodeResult& n) {
        j["connected_VA"] = rounded(n.connected);
        j["connected_W"] = rounded(n.phases.total().real());
        j["connected_var"] = rounded(n.phases.total().imag());
        j["demand_VA"] = rounded(n.demand);
        j["demand_W"] = rounded(n.demandPower.real());
        j["demand_var"] = rounded(n.demandPower.imag());
        j["demand_A"] = rounded(n.demandAmps.v);
        j["heaviest_phase_A"] = rounded(n.heaviestAmps.v);
        j["phase_VA"] = {rounded(n.phaseVa[0]), rounded(n.phaseVa[1]), rounded(n.phaseVa[2])};
        j["phase_A"] = {rounded(n.phaseAmps[0]), rounded(n.phaseAmps[1]), rounded(n.phaseAmps[2])};
        j["neutral_A"] = rounded(n.neutralAmps);
        j["imbalance_percent"] = rounded(n.imbalance);
    }
    void putEntered(ordered_json& j, Ref ref) const {
        const Board* b = p.boards.find(ref.as<Board>());
        if (!b) return;
        j["kind"] = wordOf(b->use);
        j["system"] = wordOf(b->system);
        j["bus_A"] = b->bus;
        j["main_A"] = b->main;
        j["rating_kA"] = b->ratingKA;
        j["slots"] = b->slots;
    }
    void putStates(ordered_json& j, Ref ref) const {
        for (const StateSolution* state : statesOf(p, r, ref)) {
            const NodeResult& on = *state->results.node(ref);
            ordered_json s{{"on", nameOf(p, state->source)},
                           {"fed_from", on.parent ? nameOf(state->project, on.parent) : ""},
                           {"drop_total_percent", rounded(on.dropTotal)},
                           {"drop_at_least", !on.dropKnown}};
            if (on.fault.known) s["fault"] = fault(on.fault);
            j["states"].push_back(std::move(s));
        }
    }
    static void putKinds(ordered_json& j, const NodeResult& n) {
        j["kinds"] = ordered_json::array();
        for (std::size_t i = 0; i < loadKinds; ++i)
            if (n.kinds[i].va() > 0)
                j["kinds"].push_back({{"kind", wordOf(LoadKind(i))},
                                      {"connected_VA", rounded(n.kinds[i].va())},
                                      {"demand_VA", rounded(n.demandByKind[i])}});
    }
    void putStandby(ordered_json& j, Ref ref) const {
        const Source* source = p.sources.find(ref.as<Source>());
        if (!source || source->kind != SourceKind::Generator) return;
        const SourceResult& s = r.of(source->id);
        j["standby_VA"] = rounded(s.standby);
        j["largest_start_VA"] = rounded(s.peak);
        j["used_percent"] = rounded(s.used * 100);
    }
};

} // namespace

ordered_json resultsJson(const CheckInput& in, bool workings) {
    const Project& p = in.project;
    const ResultsWriter writer(in, workings);
    ordered_json out{{"schema", 2}, {"project", p.basis.title}, {"rule_book", in.book.title}};
    // An empty list rather than none: who reads it need not ask.
    for (const char* list : {"sources", "transformers", "boards", "circuits", "snags"})
        out[list] = ordered_json::array();
    for (Ref ref : in.results.order) {
        const char* list = ref.is<Board>() ? "boards" : ref.is<Source>() ? "sources" : "transformers";
        out[list].push_back(writer.node(ref));
    }
    for (const Circuit& c : p.circuits) out["circuits"].push_back(writer.circuit(c));
    for (const Snag& s : findSnags(p, in.book, in.results)) out["snags"].push_back(writer.snag(s));
    return out;
}

} // namespace lintel
