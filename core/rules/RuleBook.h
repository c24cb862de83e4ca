#pragma once
// What the code says, as data. The engine asks questions and never knows which code answers; each answer can be cited.
// A book is read from data/rulebooks/*.json and refused when a row in it cannot be right.

#include "core/base/Error.h"
#include "core/base/Quantity.h"
#include "core/project/Choices.h"
#include "core/rules/Cables.h"
#include "core/rules/RuleTables.h"
#include "core/rules/Trade.h"

#include <array>
#include <filesystem>
#include <map>
#include <string>
#include <vector>

namespace lintel {

/// Place of a conductor size in the book's series, smallest first; -1: none.
using SizeIndex = int;

struct ConductorSize {
    std::string name; ///< as the book names it: "12", "1/0", "250"
    double mm2 = 0, kcmil = 0;
    std::array<std::array<double, 3>, 2> ampacity{}; ///< A; [material][60, 75, 90 °C]; 0: not in the table
    std::array<double, 2> at20{};                    ///< Ω/m at 20 °C, direct current, [material]; metric books
    std::array<double, 2> direct{};                  ///< Ω/m at 75 °C, direct current, [material]
    std::array<std::array<double, 3>, 2>
        resistance{};                  ///< Ω/m at 75 °C, alternating, [material][raceway]; 0: not in the table
    std::array<double, 3> reactance{}; ///< Ω/m, [raceway]
};

/// How the demand of a load kind follows from what is connected below a node.
struct DemandRule {
    enum class Method {
        Full,
        Stepped,
        Count,
        Table,
        Largest,
        NonCoincident,
        Factor,
        LargestAndRest,
        Points
    } method = Method::Full;
    std::string table;
    std::vector<std::pair<double, double>> steps; ///< (up to VA, factor); the last has no end
    std::vector<double> factors;                  ///< by count, from one; the last goes on
    int largest = 0;                              ///< not less than the sum of so many of the largest
    double minimumEach = 0;                       ///< VA counted for each at least
    std::vector<double> demandByCount;            ///< VA, from one
    std::vector<std::array<double, 3>> beyond;    ///< (from count, base VA, VA each)
    double each = 0, overEach = 0;                ///< the table's rating of one, and the share added per kVA over it
    /// Pieces of a smaller rating that may instead be taken at a share of their sum, by their count (220.55 note 3).
    struct Small {
        std::string table;
        double from = 0, upTo = 0; ///< VA of one; `from` within
        bool upToWithin = false;   ///< whether `upTo` itself belongs to it
        std::vector<Band> factors; ///< up to a count, share; the last has no end
    };
    std::vector<Small> small; ///< at most two, the smallest first
    /// The group that one of so many VA falls in; -1: none.
    int smallGroup(double va) const;
    double extra = 0;                  ///< share of the largest one added
    LoadKind with = LoadKind::Cooling; ///< the kind it does not run together with
    double factor = 1;                 ///< LargestAndRest: of all but the largest circuit
    bool byCircuit = false;            ///< a piece is a circuit, not a load
    double pointsFirst = 0, vaFirst = 0, pointsMore = 0,
           vaMore = 0; ///< Points: so many VA for the first so many, more for each further so many or part of them
};

/// A value with the table or clause it stands in.
struct Cited {
    double value = 0;
    const std::string* table = nullptr;
};

class RuleBook {
public:
    RuleBook();
    RuleBook(const RuleBook&);
    RuleBook(RuleBook&&) noexcept;
    RuleBook& operator=(const RuleBook&);
    RuleBook& operator=(RuleBook&&) noexcept;
    ~RuleBook();

    /// Reads and checks one book. `name` begins the `where` of an Error.
    static Outcome<RuleBook> parse(const std::string& json, const std::string& name);
    /// `overrides` are a project's own values by their place in the book ("continuous/factor"); a place that holds no
    /// number is refused, and so is a value that makes a row impossible.
    static Outcome<RuleBook> parse(const std::string& json, const std::string& name,
                                   const std::map<std::string, double>& overrides);
    static Outcome<RuleBook> load(const std::filesystem::path& file,
                                  const std::map<std::string, double>& overrides = {});

    std::string id, title, region;
    /// Which order of steps it asks for: see core/solve/Procedure.h.
    enum class Practice : std::uint8_t {
        TerminalTemperature,
        ReferenceMethod
    } practice = Practice::TerminalTemperature;
    bool metric() const { return practice == Practice::ReferenceMethod; }
    /// Metric books only.
    CableRules cables;
    /// Words, papers and boards of its region.
    Trade trade;
    const std::string& word(TradeWord w) const { return trade.word(w); }

    // ---- ratings of devices ----
    const std::vector<double>& ratings() const { return ratingSeries; }
    /// The smallest standard rating at or above; 0 past the end of the series.
    double ratingAtOrAbove(double amps) const;
    /// The standard rating next above that of a device; 0 past the end.
    double ratingAbove(double amps) const;
    /// In the series of this kind of device; below: 0 before its beginning.
    double ratingAtOrAbove(double amps, DeviceKind kind) const;
    double ratingAtOrBelow(double amps, DeviceKind kind) const;
    /// The ratings that fuses of this kind are made in, where that is a series of their own; empty: the book does not
    /// know the kind.
    std::vector<double> ownRatings(DeviceKind kind) const;
    /// The frame that takes a trip of so many amperes, or the switch that takes such fuses; 0 past the end.
    double frameFor(double amps, DeviceKind kind = DeviceKind::Breaker) const;
    /// The next usual interrupting rating, kA; 0 past the end.
    double interruptingAtOrAbove(double kA) const;

    // ---- conductors ----
    const std::vector<ConductorSize>& sizes() const { return series; }
    SizeIndex find(const std::string& size) const;
    /// Whether the book knows both ampacity and impedance, so that the size may be chosen by itself.
    bool choosable(SizeIndex size, Material m) const { return choosableSize[std::size_t(m)][std::size_t(size)]; }
    double ampacity(SizeIndex size, Material m, int celsius) const {
        return series[std::size_t(size)].ampacity[std::size_t(m)][celsius >= 90 ? 2 : celsius >= 75 ? 1 : 0];
    }
    /// The same for conductors laid otherwise than in a raceway or cable; 0: not in that table.
    double ampacity(SizeIndex size, Material m, int celsius, Wiring laid) const {
        if (laid != Wiring::FreeAir && laid != Wiring::Messenger) return ampacity(size, m, celsius);
        return laidAmpacity[laid == Wiring::Messenger][std::size_t(size)][std::size_t(m)][celsius >= 90   ? 2
                                                                                          : celsius >= 75 ? 1
                                                                                                          : 0];
    }
    /// The ambient that the table of this way of laying stands for, °C.
    double ambientOf(Wiring laid) const { return laid == Wiring::Messenger ? tables.messenger.ambient : 30; }
    /// The table of ampacities for this way of laying, with a mark where its values are unverified.
    std::string ampacityTable(Wiring laid) const;
    /// For a conductor rated `insulation` °C in air of `ambient` °C; 0: not allowed there.
    double ambientFactor(double ambient, int insulation) const;
    /// For so many current-carrying conductors in one raceway.
    double bundlingFactor(int conductors) const;
    /// The largest device a small conductor may have; 0: no such limit.
    double smallConductorLimit(SizeIndex size, Material m) const {
        return smallLimit[std::size_t(m)][std::size_t(size)];
    }
    SizeIndex smallestParallel() const { return parallelFrom; }
    /// The protective conductor for a device of so many amperes; -1 past the end of the table.
    SizeIndex protectiveFor(double device, Material m) const;

    /// Full-load current of a motor: the row of its horsepower or the next above, in the column of the system's volts.
    /// 0: the table has none.
    Cited motorAmps(double hp, double volts, bool threePhase) const;
    /// Grounding electrode conductor (and, within the table, bonding jumper) for lines of so much area in all sets
    /// together.
    SizeIndex bondingFor(double kcmil, Material lines, Material own) const;
    /// Main or supply-side bonding jumper: the same table, and beyond it a share of the lines' area.
    SizeIndex jumperFor(double kcmil, Material lines, Material own) const;
    /// The smallest size of the series with at least this area; -1 past the end.
    SizeIndex sizeOfArea(double kcmil) const;
    const ConduitType* conduit(const std::string& type) const;   ///< null: none of that name
    const Insulation* insulation(const std::string& name) const; ///< null: none of that name
    const Insulation& insulationFor(int celsius) const;
    /// VA/ft² of general lighting; 0: no such occupancy.
    double areaLighting(const std::string& occupancy) const;
    RuleTables tables;
    /// The smallest conductor that this use may have; 0 (the first of the series) where the book has none.
    SizeIndex leastFor(LoadKind kind) const { return leastByKind[std::size_t(kind)]; }

    // ---- demand ----
    const DemandRule& demand(LoadKind kind, Occupancy occupancy) const {
        return rules[std::size_t(kind)][std::size_t(occupancy)];
    }

    // ---- figures of rules ----
    double nextRatingUpTo = 0;                ///< A; the next rating above the ampacity is allowed up to here
    int terminalBelow = 0, terminalAbove = 0; ///< °C
    double terminalBoundary = 0;              ///< A
    double continuousFactor = 1;
    double motorConductor = 1;
    double motorStart = 0; ///< times its full-load current that a motor takes while it starts, if nobody says otherwise

    /// Where a rule stands; the keys are fixed names such as "rating" or "ambient". Empty when the book has none.
    const std::string& cite(const std::string& key) const;
    /// Values that nobody has yet compared with the standard; shown wherever they have an effect.
    const std::vector<std::string>& unverified() const { return doubtful; }
    /// The project's own values in place of the book's, in words; every rule that they touch is cited as "(own value)".
    const std::vector<std::string>& overridden() const { return changed; }

private:
    std::vector<double> ratingSeries;
    std::vector<ConductorSize> series;
    std::array<std::vector<std::array<std::array<double, 3>, 2>>, 2> laidAmpacity; ///< [free air, messenger][size]
    std::array<std::vector<char>, 2> choosableSize;
    std::array<std::vector<double>, 2> smallLimit;
    std::array<SizeIndex, loadKinds> leastByKind{};
    std::vector<std::array<double, 4>> ambientRows; ///< up to °C, 60, 75, 90
    std::vector<std::pair<double, double>> bundlingRows;
    struct Protective {
        double upTo;
        std::array<SizeIndex, 2> size;
    };
    std::vector<Protective> protectiveRows;
    SizeIndex parallelFrom = 0;
    std::array<std::array<DemandRule, 4>, loadKinds> rules;
    std::map<std::string, std::string> citations;
    std::vector<std::string> doubtful, changed;
    friend struct RuleBookReader;
};

/// "#12" or "1/0" or "250 kcmil": how the trade says a size.
std::string sizeWords(const RuleBook& book, SizeIndex size);

} // namespace lintel
