#include "core/exchange/BuildingModel.h"

#include "core/base/TextFile.h"

namespace lintel {

void BuildingModel::findHeights() {
    for (std::size_t i = 0; i + 1 < storeys.size(); ++i)
        storeys[i].height = storeys[i + 1].elevation - storeys[i].elevation;
}

Outcome<BuildingModel> readBuildingModel(const std::filesystem::path& file, const std::function<bool(double)>& keep) {
    const auto text = readText(file);
    if (!text) return text.error();
    const std::string name = file.filename().string();
    Outcome<BuildingModel> read = Error{};
    if (text->find("ISO-10303-21;") < 4096)
        read = readIfc(*text, name, keep);
    else if (text->find("<gbXML") < 65536)
        read = readGbXml(*text, name);
    else
        return Error{name, "it is no building model", "Lintel reads IFC in the STEP format (.ifc) and gbXML (.xml)."};
    if (!read) return read.error();
    if (read->storeys.empty())
        return Error{name, "it has no storeys", "Give the model its storeys where it comes from."};
    return read;
}

} // namespace lintel
