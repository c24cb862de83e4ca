#pragma once
// What was entered for a bench sum, read field by field. Anything that cannot be read ends the sum with an Error that
// names the field; the functions here throw it, `bench` catches it, and no other code sees it.

#include "core/bench/Bench.h"
#include "core/project/TypedLoads.h"

namespace lintel {

struct BenchRefusal {
    Error error;
};

/// A load in any unit.
struct BenchLoad {
    double amount = 0;
    LoadUnit unit = LoadUnit::A;
};
/// "16 A", "10 hp", "3.5kW"; a bare number in `unit`.
std::optional<BenchLoad> loadFrom(const std::string& text, LoadUnit unit = LoadUnit::A);

class BenchInputs {
public:
    BenchInputs(const BenchKind& kind, std::vector<BenchField> fields, const nlohmann::json& entered);

    double number(const std::string& key) const;
    /// Nothing where the field is empty or "auto".
    std::optional<double> maybe(const std::string& key) const;
    int whole(const std::string& key) const { return int(std::lround(number(key))); }
    Metres length(const std::string& key) const;
    std::optional<Metres> maybeLength(const std::string& key) const;
    BenchLoad load(const std::string& key) const;
    std::string text(const std::string& key) const;
    bool flag(const std::string& key) const { return text(key) == "yes"; }
    template <WordedEnum E> E choice(const std::string& key) const {
        const auto e = fromWord<E>(text(key));
        return e ? *e : (refuse(key, "there is no choice \"" + text(key) + "\""), E{});
    }
    /// Refused above what conductors and devices are sized for; anySystem() takes medium voltage too.
    VoltageSystem system(const std::string& key) const;
    VoltageSystem anySystem(const std::string& key) const;
    /// A conductor of the book; -1 for "auto".
    SizeIndex size(const std::string& key, const RuleBook& book) const;
    /// The lines of a list, blank ones left out.
    std::vector<std::string> lines(const std::string& key) const;
    UnitSystem units() const { return unitSystem; }
    [[noreturn]] void refuse(const std::string& key, const std::string& what, const std::string& help = "") const;

private:
    const BenchField& field(const std::string& key) const;
    std::string name;
    std::vector<BenchField> all;
    std::map<std::string, std::string> values;
    std::map<std::string, std::vector<std::string>> lists;
    UnitSystem unitSystem = UnitSystem::Imperial;
};

/// "120 ft" or "36 m", a bare number in the inputs' own units.
std::string benchLength(Metres m, UnitSystem units);
/// The words of a choice, for the fields.
template <WordedEnum E> std::vector<std::string> benchWords() {
    std::vector<std::string> out;
    for (const auto& [value, word] : EnumText<E>::words) out.push_back(word);
    return out;
}
/// The kinds of device that the book knows.
std::vector<std::string> deviceKinds(const RuleBook& book);
/// Fields that several kinds share.
BenchField systemField(const char* value = "208Y/120", const char* key = "system", const char* label = "System");
BenchField sizeField(const char* key, const char* label, const RuleBook& book, bool automatic, const char* value);
BenchField materialField();
BenchField conduitField(const RuleBook& book);
BenchField unitsField();

} // namespace lintel
