// A building model into a project, twice: the second time nothing may change.
#include "core/exchange/TakeModel.h"
#include "core/project/Document.h"
#include "fuzz/GoOn.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lintel;
    const std::string text(reinterpret_cast<const char*>(data), size);
    const auto model = text.find("<gbXML") != std::string::npos ? readGbXml(text, "fuzz") : readIfc(text, "fuzz");
    if (!model) return 0;
    Document d;
    d.edit("A level", [](Project& p) { p.levels.add({{}, "Ground", 0, 3, {}}); });
    d.edit("Take in", [&](Project& p) { (void)takeModel(p, *model, {}, false); });
    if (d.refusal()) fuzz::broken("a model makes a project that cannot be: " + d.refusal()->text());
    const Project once = d.project();
    d.edit("Take in again", [&](Project& p) { (void)takeModel(p, *model, {}, false); });
    if (!(d.project() == once)) fuzz::broken("a model taken in twice changes what it made");
    fuzz::goOn(d.project());
    return 0;
}
