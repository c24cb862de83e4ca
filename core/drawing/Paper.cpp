#include "core/drawing/Paper.h"

#include <map>

namespace lintel {

namespace {

const std::map<std::string, PaperSize>& papers() {
    static const std::map<std::string, PaperSize> sizes{
        {"Letter", {215.9, 279.4}},   {"Legal", {215.9, 355.6}},  {"Tabloid", {431.8, 279.4}},
        {"ARCH C", {609.6, 457.2}},   {"ARCH D", {914.4, 609.6}}, {"ARCH E1", {1066.8, 762}},
        {"A5", {148, 210}},           {"A4", {210, 297}},         {"A3", {297, 420}},
        {"A3 landscape", {420, 297}}, {"A2", {594, 420}},         {"A1", {841, 594}},
        {"A0", {1189, 841}}};
    return sizes;
}

} // namespace

bool isPaper(const std::string& name) { return papers().count(name) > 0; }

PaperSize paperSize(const std::string& name) {
    const auto it = papers().find(name);
    return it == papers().end() ? papers().at("Letter") : it->second;
}

} // namespace lintel
