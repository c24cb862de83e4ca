#include "core/sheets/Words.h"

#include "core/base/Format.h"

#include <fmt/format.h>

namespace lintel {

std::string sizeOf(const RunResult& r, const RuleBook& book) {
    if (r.size < 0) return "–";
    return (r.sets > 1 ? std::to_string(r.sets) + "×" : "") + sizeWords(book, r.size);
}

std::string conductorWords(const RunResult& r, const RuleBook& book) {
    if (r.size < 0) return "–";
    std::string s = r.sets > 1 ? fmt::format("{} sets ", r.sets) : "";
    const std::string size = sizeWords(book, r.size);
    if (book.metric()) { // "4 × 25 mm² + armour", "2 × 2.5 + 1.5 mm²"
        s += fmt::format("{} × {}", r.need.conductorsOfSet(), r.ground >= 0 && !r.earth.armour ? book.sizes()[std::size_t(r.size)].name : size);
        if (r.need.material == Material::Aluminium) s += " Al";
        if (r.earth.armour) s += " + armour";
        if (r.ground >= 0) s += " + " + sizeWords(book, r.ground);
        return s;
    }
    s += fmt::format("{}{}{}", r.need.conductorsOfSet(), size.front() == '#' ? " " : " × ", size); // "4 500" would read as a number
    if (r.need.material == Material::Aluminium) s += " Al";
    if (r.ground >= 0) s += fmt::format(", {} gnd", sizeWords(book, r.ground));
    return s;
}

std::string breakerWords(double amps, int poles) {
    if (amps <= 0) return "–";
    return poles > 1 ? fmt::format("{}/{}", number(amps), poles) : number(amps);
}

std::string lengthWords(Metres m, UnitSystem u) { return u == UnitSystem::Imperial ? number(inFeet(m)) + " ft" : number(m.v, m.v < 100 ? 1 : 0) + " m"; }

std::string elevationWords(double m, UnitSystem u) {
    const std::string sign = m < -1e-6 ? "−" : m > 1e-6 ? "+" : "±";
    return sign + heightWords(std::abs(m), u);
}

std::string heightWords(double m, UnitSystem u) {
    if (u == UnitSystem::Metric) return fmt::format("{:.2f} m", m);
    const long inches = std::lround(m / metresPerFoot * 12);
    return fmt::format("{}′ {}″", inches / 12, inches % 12);
}

std::string systemWords(VoltageSystem s) {
    const SystemFacts f = factsOf(s);
    return fmt::format("{} V, {}φ {}W", wordOf(s), f.phases, f.wires);
}

std::string lineName(int line, const Board& b) {
    if (line < 0) return "–";
    if (b.form == BoardForm::Ways || b.system == VoltageSystem::Y400 || b.system == VoltageSystem::Y415) return "L" + std::to_string(line + 1);
    return std::string(1, char('A' + line));
}

std::string servesWords(const Project& p, const Results& r, CircuitId id) {
    const Circuit& c = p.circuits[id];
    if (c.use == CircuitUse::Spare) return "Spare";
    if (const Ref fed = r.of(id).feeds) {
        const std::string name = nameOf(p, fed);
        if (auto* t = p.transformers.find(fed.as<Transformer>())) return fmt::format("{} ({} kVA)", name, rating(t->kva));
        return name;
    }
    return c.name;
}

std::string whyWords(const RunResult& r) {
    switch (r.state) {
    case Sizing::PastCeiling: return "ceiling";
    case Sizing::NoneFits: return "none fits";
    default: return wordOf(r.why);
    }
}

} // namespace lintel
