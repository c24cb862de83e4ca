#include "core/plan/LinkedFiles.h"

#include "core/base/TextFile.h"
#include "core/plan/Underlay.h"

namespace lintel {

bool LinkedFile::relative() const { return !pathFromText(name).is_absolute(); }

std::vector<LinkedFile> linkedFiles(const Project& p) {
    std::vector<LinkedFile> all;
    if (!p.basis.logo.empty()) all.push_back({p.basis.logo, [](Project& q) -> std::string& { return q.basis.logo; }});
    for (const Underlay& u : p.underlays)
        if (!u.file.empty())
            all.push_back({u.file, [id = u.id](Project& q) -> std::string& { return q.underlays.change(id)->file; }});
    for (const DeviceType& t : p.deviceTypes)
        if (!t.picture.empty())
            all.push_back(
                {t.picture, [id = t.id](Project& q) -> std::string& { return q.deviceTypes.change(id)->picture; }});
    for (const PlacedView& v : p.placedViews)
        if (v.shows == SheetKind::Picture && !v.text.empty())
            all.push_back({v.text, [id = v.id](Project& q) -> std::string& { return q.placedViews.change(id)->text; }});
    return all;
}

void relinkFiles(Project& p, const std::filesystem::path& from, const std::filesystem::path& to) {
    for (const LinkedFile& f : linkedFiles(p))
        if (f.relative()) f.in(p) = underlayName(std::filesystem::absolute(besideProject(f.name, from)), to);
}

} // namespace lintel
