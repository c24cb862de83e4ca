#pragma once
// The tables of a rule book that answer one question each: motors, conduit and insulation, bonding, transformers,
// areas. Values are as printed, brought to SI (mm, mm²) where they carry a unit; each table keeps its number.

#include "core/project/Choices.h"

#include <array>
#include <map>
#include <string>
#include <vector>

#include <nlohmann/json_fwd.hpp>

namespace lintel {

/// Full-load currents by horsepower and voltage; 0: not in the table.
struct MotorTable {
    std::string table;
    std::vector<double> volts;
    struct Row {
        double hp;
        std::vector<double> amps;
    };
    std::vector<Row> rows;
};

/// The share of its motor's full-load current that a device of one kind may have: `share`, the next standard rating
/// above allowed; where the motor does not start on it, up to `ceiling` as far as `upTo` A, `ceilingAbove` beyond: of
/// the motor's full-load current, or of the device that the ceiling would give.
struct MotorDevice {
    double share = 0, ceiling = 0, upTo = 0, ceilingAbove = 0;
    bool byMotor = false;
    double ceilingFor(double fullLoad) const {
        return (byMotor ? fullLoad : fullLoad * ceiling) <= upTo + 1e-9 ? ceiling : ceilingAbove;
    }
};

struct ConduitSize {
    std::string name;            ///< trade size
    double inside = 0, area = 0; ///< mm, mm²
};
struct ConduitType {
    std::string name;
    Raceway raceway = Raceway::Steel;
    std::vector<ConduitSize> sizes;
};

/// Area of an insulated conductor, mm², by size name; sizes that the table leaves out are absent.
struct Insulation {
    std::string name;
    int celsius = 90;
    std::map<std::string, double> area;
};

/// A size up to an area of the line conductors. kcmil.
struct BondingRow {
    double upToCopper, upToAluminium;
    std::array<std::string, 2> size;
};

/// A figure up to some value; the last has no end.
struct Band {
    double upTo, value;
};

/// What a book does not have is nothing here, or leaves what it would change as it is: no code speaks for another.
struct RuleTables {
    // ---- motors ----
    MotorTable motorSingle, motorThree;
    std::map<int, int> motorVolts; ///< nominal volts of a system to rated volts of its motors
    std::map<DeviceKind, MotorDevice> motorDevices;
    double instantaneous = 0, instantaneousMost = 0, instantaneousDesignB = 0, instantaneousDesignBMost = 0,
           woundRotor = 0;      ///< × full-load current; most: where the motor does not start
    double motorDisconnect = 1, ///< of its full-load current, at least
        overload = 0, overloadServiceFactor = 0, overloadMost = 0,
           overloadServiceFactorMost = 0; ///< × its current; most: where the motor does not start
    double hermeticConductor = 1, hermeticDevice = 1;
    MotorTable motorDirect;                           ///< direct current, by armature volts
    double directDevice = 0, directInstantaneous = 0; ///< × full-load current
    // ---- transformers ----
    /// Largest ratings of devices where a winding has more than 1000 V, by impedance: × rated current; 0: none is asked
    /// for.
    struct Above1000 {
        double upToPercentZ, primaryBreaker, primaryFuse, secondaryBreaker, secondaryFuse, secondaryLow;
    };
    std::vector<Above1000> above1000Any, above1000Supervised;
    double above1000AloneBreaker = 0, above1000AloneFuse = 0; ///< supervised, without a secondary device
    // ---- outlets, VA ----
    double trackVA = 0, trackPer = 0; ///< of lighting track: for each so many ft
    double heavyLampholder = 0;
    double multioutletVA = 0, multioutletPer = 0,
           multioutletTogether = 0; ///< for each so many ft; of appliances used together
    double moreReceptacles = 0;     ///< of each in one device of four or more
    std::vector<Band> transformerPrimaryOnly, transformerSecondaryDevice; ///< below A, share
    double transformerPrimaryWithSecondary = 0;
    std::vector<double> singlePhaseKva, threePhaseKva;
    // ---- grounding ----
    std::vector<BondingRow> bonding;
    double bondingBeyond = 0;
    // ---- conductors laid otherwise, [free air, messenger][material][60, 75, 90] by size name ----
    struct Laid {
        std::string table;
        double ambient = 30;
        bool unverified = false;
        std::map<std::string, std::array<std::array<double, 3>, 2>> ampacity;
    };
    Laid freeAir, messenger;
    double dwellingServiceShare = 1, dwellingServiceFrom = 0, dwellingServiceTo = 0;
    double roofAdder = 0; ///< °C
    double neutralCooking = 1, neutralAbove = 1e300, neutralAboveFactor = 1;
    // ---- conduit ----
    double fillOne = 0, fillTwo = 0, fillMore = 0, fillNipple = 0; ///< of the conduit's area
    double fillCountsUpFrom = 1; ///< a count of conductors of one size rounds up where its fraction is at least this
    std::vector<ConduitType> conduits;
    std::vector<Insulation> insulations;
    // ---- devices ----
    std::vector<double> fuseRatings, frames, switches,
        interrupting; ///< frames of breakers, switches of fuses: the trade's
    // ---- capacitors, generators ----
    double capacitorConductor = 1, capacitorOfMotor = 1, generatorConductor = 1;
    std::vector<double> capacitorSteps, generatorKva;
    // ---- demand by area and of dwellings ----
    std::vector<std::pair<std::string, double>> areaLighting; ///< occupancy, VA/ft²
    double dwellingLighting = 0;                              ///< VA/ft²
    double smallAppliance = 0, laundry = 0, appliancesFactor = 1, existingFactor = 1;
    int smallApplianceLeast = 0, appliancesFrom = 0;
    double optionalFirst = 0, optionalRest = 1, optionalBackup = 1, optionalHeatFew = 1, optionalHeatMany = 1,
           optionalLeastAmps = 0;
    int optionalManyFrom = 0;
    std::vector<Band> multifamily; ///< dwellings up to, share
    double existingFirst = 0,
           existingRest = 1;  ///< of a dwelling that stands already: VA in full, share of what is over
    int existingManyFrom = 0; ///< heaters with own control from which they count with the other loads
    std::vector<Band> school; ///< VA/ft² up to, share
    /// kVA of demand of so many kVA connected: `base` and a share of what is over `from`.
    struct Restaurant {
        double upTo, base, share, from;
    };
    std::vector<Restaurant> restaurantElectric, restaurantMixed;
    std::vector<Band> welderNonmotor, welderGenerator; ///< duty cycle up to, % → factor
    std::vector<double> welderShares;   ///< of the largest, the second …; the last for all further ones
    std::vector<Band> resistanceWelder; ///< duty cycle up to, % → factor of the actual primary current
    double resistanceAutomatic = 1, resistanceManual = 1, ///< of the rated one, where the duty varies
        resistanceOthers = 1;                             ///< of all but the largest
    /// Amperes on a phase that serves several dwellings: from so many up to so many of them a base, and so much for
    /// each.
    struct Many {
        double from, upTo, base, each;
    };
    std::map<LoadKind, std::vector<Many>> manyDwellings;
    double showWindow = 0, signLeast = 0, receptacleOutlet = 0;
    // ---- where people are protected ----
    double groundFaultSingle = 0, groundFaultThree = 0, groundFaultToGround = 0, arcFaultAmps = 0;
    std::vector<std::string> groundFaultRooms, groundFaultDwellingRooms, arcFaultRooms, spacingRooms;
    double spacingReach = 0, spacingShortest = 0, spacingHighest = 0; ///< ft; highest: above the floor

    /// The table or clause of each of them.
    std::map<std::string, std::string> cited;
};

/// Reads and checks them; throws bookjson::Refusal. `sizes`: the names of the book's conductor series with their kcmil.
RuleTables readTables(const nlohmann::json& book, const std::string& name, const std::map<std::string, double>& sizes,
                      const std::vector<double>& ratings);

} // namespace lintel
