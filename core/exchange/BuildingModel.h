#pragma once
// What a building model of another discipline tells a designer of circuits: storeys, spaces with their outlines, walls
// with their doors, and electrical things with their power. Read from IFC (STEP) or gbXML; in the axes of our plans,
// metres, y down the sheet. Every thing has the identity that its file gives it and keeps from one version to the next.

#include "core/base/Error.h"
#include "core/base/Geometry.h"
#include "core/project/Project.h"

#include <filesystem>
#include <functional>

namespace lintel {

struct BuildingModel {
    struct Storey {
        std::string id, name;
        double elevation = 0; ///< m
        double height = 0;    ///< m to the storey above; 0: not known
    };
    struct Space {
        std::string id, number, name;
        int storey = -1; ///< −1: the file does not say
        std::vector<Point> outline;
        double height = 0; ///< m; 0: not known
    };
    struct Opening {
        std::string id;
        OpeningKind kind = OpeningKind::Door;
        double along = 0, width = 0.9; ///< m
    };
    struct Wall {
        std::string id;
        int storey = -1;
        Point a, b;
        double thickness = 0.15, bulge = 0;
        std::vector<Opening> openings;
    };
    struct Device {
        std::string id, tag, name; ///< name: of its type, or its own where it has none
        Symbol symbol = Symbol::Equipment;
        LoadKind kind = LoadKind::Equipment;
        int storey = -1;
        Point at;
        double height = 0;           ///< m above the floor of its storey
        std::optional<double> watts; ///< nothing: the file does not say
        std::optional<int> poles;    ///< as said
        std::string said;            ///< how the power is called there: "TotalWattage 54 W"
    };
    std::string source;          ///< the identity of the model as a whole, the same in all its versions
    std::vector<Storey> storeys; ///< from the lowest
    std::vector<Space> spaces;
    std::vector<Wall> walls;
    std::vector<Device> devices;
    std::vector<std::string> notes; ///< what was not read, or how something was taken
    /// Of storeys, up to the next.
    void findHeights();
};

/// By what the file holds: an IFC model in the STEP format, or gbXML. `keep` is told the share that has been read;
/// false stops the reading. Refused: anything else, and what is damaged.
Outcome<BuildingModel> readBuildingModel(const std::filesystem::path& file,
                                         const std::function<bool(double)>& keep = {});
Outcome<BuildingModel> readIfc(const std::string& text, const std::string& name,
                               const std::function<bool(double)>& keep = {});
Outcome<BuildingModel> readGbXml(const std::string& text, const std::string& name);

} // namespace lintel
