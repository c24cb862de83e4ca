#pragma once
// Cables as metric rule books give them: what each type carries in each way of laying, what it loses, what its armour
// and its own protective core are; corrections for where it lies; and what its protective device asks of the
// earth-fault loop. All values at the conditions that the tables stand for; per conductor and metre in SI.

#include "core/project/Choices.h"

#include <array>
#include <map>
#include <string>
#include <vector>

#include <nlohmann/json_fwd.hpp>

namespace lintel {

/// How circuits laid together are counted for grouping: bunched or enclosed; touching on a tray; in ducts in the
/// ground; direct in it, touching. Wall, Ceiling, Ladder: in one layer, touching, on a wall, floor or unperforated
/// tray; below a ceiling; on a ladder or cleats.
enum class Grouping : std::uint8_t { Bunched, Tray, Ducts, Direct, Wall, Ceiling, Ladder };

/// One way of laying a type of cable.
struct CableMethod {
    std::string name;  ///< "B", "C", "100": as the book names it
    std::string words; ///< "enclosed in conduit or trunking"
    std::string table;
    Grouping grouping = Grouping::Bunched;
    bool ground = false; ///< in soil: its temperature and thermal resistivity count
    bool direct() const { return grouping == Grouping::Direct; } ///< in soil without a duct: it counts for more
    bool unverified = false;
    std::array<std::vector<double>, 2> ampacity; ///< A by size; two and three loaded conductors; 0: not in the table
    std::array<std::vector<double>, 2> r, x;     ///< Ω/m of one conductor at its highest temperature
};

struct CableType {
    std::string name;
    Material material = Material::Copper;
    double celsius = 70; ///< highest temperature of the conductors under load
    bool single = false; ///< single cores: the protective conductor is separate
    bool fireRated = false;
    std::string dropTable;
    std::vector<CableMethod> methods;
    std::map<int, int> ownGround; ///< index of the size of its protective core; empty: a core of the lines' size
    std::array<std::vector<double>, 5> armour; ///< Ω/m of the armour at 20 °C by size, for 2, 3, 4 cores; empty: none
    bool armoured() const { return !armour[2].empty() || !armour[3].empty() || !armour[4].empty(); }
    const CableMethod* method(const std::string& name) const;
    /// There are three loaded conductors of it in the book.
    bool carriesThree() const;
};

/// A factor against a number, straight lines between the points; kept at its ends.
using Curve = std::vector<std::pair<double, double>>;
double valueOn(const Curve& curve, double x);

/// When a kind of device opens at once, in multiples of its rating, and up to which rating there is one. Fuses: by a
/// table instead.
struct TripBand {
    std::string standard, table;
    double trips = 0;            ///< × rating: opens within 0.1 s; 0: by `fuse`
    double from = 0, upTo = 1e9; ///< A
    double capacityShare =
        1; ///< of a cable's capacity that its rating may be: less than all for a fuse that opens late in overload
    /// Current in A that opens it within the first and the second disconnection time, by rating.
    std::map<double, std::array<double, 2>> fuse;
    /// A²s that one of up to 16 A and of up to 32 A lets through at most, up to a fault of so many kA.
    struct Energy {
        double upToKA, small, large;
    };
    std::vector<Energy> energy;
    std::string energyTable;
    bool unverified = false;
};

struct CableRules {
    std::vector<CableType> types;
    std::string usualBranch, usualFeeder;
    // ---- where it lies ----
    std::map<int, Curve> airByInsulation, groundByInsulation; ///< by °C of the cable
    std::array<Curve, 2> soil;                                ///< by K·m/W, in ducts and direct
    double soilOfTables = 2.5, airOfTables = 30, groundOfTables = 20;
    std::array<Curve, 7> grouping; ///< by circuits together, by Grouping
    Curve thirdHarmonic{
        {0, 1}};               ///< factor of a cable of four loaded cores by the third harmonic in its lines, in steps
    double neutralFrom = 0.33; ///< share of third harmonic above which the neutral's current decides
    double groupingIgnoredBelow = 0.3; ///< share of its grouped capacity under which a circuit does not load the group
    Curve insulation;                  ///< by m surrounded
    double buriedShare = 1; ///< of Iz that the device of a cable in the ground or in a buried duct may have (Cc); 1:
                            ///< the book asks for none
    // ---- protective conductors ----
    double k[2][2] = {{115, 143}, {76, 94}}; ///< A√s/mm², core of a cable: [material][70, 90 °C]
    double kSeparate[2][2] = {{143, 176}, {95, 116}};
    double kArmour[2] = {51, 46};
    std::vector<std::pair<double, double>>
        byLine;                      ///< (line up to mm², protective mm²; 0: as the line; negative: that share of it)
    std::map<int, int> groundOfLine; ///< size to size, where the book has a table of its own
    double bondingShare = 0.5, bondingLeast = 6, bondingMost = 25;
    std::vector<std::pair<double, double>>
        bondingCombined; ///< neutral up to mm², bonding mm² where neutral and earth are combined
    // ---- earth faults ----
    double cMax = 1.1, cMin = 0.95;
    double unknownSupplyShare = 0; ///< of the volts that are left at the installation where nobody knows the supply's
                                   ///< loop; 0: the book says nothing
    /// % that may be lost in all where the supply is a substation of the installation's own, beside what is usual on a
    /// public network; 0: the book says nothing.
    struct OwnSubstation {
        double total = 0, usualTotal = 0, lighting = 0, usualLighting = 0;
    } ownSubstation;
    std::vector<double> dropColumns; ///< °C for which the book tabulates drop: that at or above the temperature under
                                     ///< load counts; empty: its own
    double finalSeconds[4] = {0.4, 0.4, 0.2, 0.4}, distributionSeconds[4] = {5, 5, 1, 5}; ///< by Earthing
    double finalUpTo = 32,
           finalUpToSockets = 63; ///< A, of what is fixed and of socket outlets: other circuits have the longer time
    double touchVolts = 50;
    std::map<DeviceKind, TripBand> trips;
    DeviceKind usual = DeviceKind::TypeB, usualMotor = DeviceKind::TypeC, usualLarge = DeviceKind::Moulded;
    // ---- residual current ----
    double residualSocketAmps = 32, residualMA = 30;
    std::vector<std::string> residualRooms, residualLighting; ///< room kinds; occupancies in which lighting has it too
    std::vector<LoadKind> plainResidual; ///< kinds of load known to have no direct current, for type AC
    // ---- rings ----
    double ringDevice = 32, ringCableAmps = 20, ringLeast = 2.5, ringArea = 100; ///< A, A, mm², m²
    std::vector<std::pair<double, double>>
        radialArea; ///< device A, m²: floor that a radial circuit of socket outlets usually serves
    // ---- least sizes ----
    std::map<LoadKind, double> least; ///< mm²
    double leastOther = 1.5;
    std::map<std::string, std::string> cited;

    const CableType* type(const std::string& name) const;
    /// Factor for cables rated so many °C in air or ground of so many; 0: hotter than the table goes.
    double ambient(double celsius, double rated, bool ground) const;
    /// Factor for soil of so many K·m/W, against that of the tables.
    double soilFactor(double resistivity, bool direct) const {
        return valueOn(soil[direct], resistivity) / valueOn(soil[direct], soilOfTables);
    }
};

/// Reads and checks them; throws bookjson::Refusal. `mm2`: areas of the book's series; `at20`: Ω/m of copper and
/// aluminium at 20 °C.
CableRules readCables(const nlohmann::json& book, const std::string& name, const std::vector<std::string>& sizes,
                      const std::vector<double>& mm2, const std::array<std::vector<double>, 2>& at20);

/// Resistance to alternating current of 50 Hz over that to direct current, of round stranded conductors that touch:
/// skin and proximity effect by IEC 60287-1-1, 2.1.2 to 2.1.4. `direct` in Ω/m at the temperature meant; `three`: three
/// in trefoil, else two.
double alternating(double direct, double mm2, bool three);

/// Resistance at `to` °C over that at 20 °C, by the round coefficient of the metric standards: 1 + 0.004·(to − 20).
inline double warmer(double to) { return 1 + 0.004 * (to - 20); }

} // namespace lintel
