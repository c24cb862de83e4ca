// IEC 60364 and AS/NZS 3000: values typed again by size, and what physics and the trade's round figures give.

#include "core/check/Check.h"
#include "core/check/Compare.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/World.h"

using namespace lintel;

namespace {
double amps(const RuleBook& b, const char* type, const char* method, const char* size, bool three) {
    return b.cables.type(type)->method(method)->ampacity[three][std::size_t(b.find(size))];
}
} // namespace

TEST_CASE("IEC 60364-5-52: Tables B.52.2 to B.52.5 typed again, by row") {
    const RuleBook& b = bookOf("iec-60364");
    // Two loaded, copper, 70 °C: A1 (single), A2, B1 (single), B2, C, D1.
    struct Row {
        const char* size;
        double a1, a2, b1, b2, c, d1;
    };
    for (const Row& r : {Row{"1.5", 14.5, 14, 17.5, 16.5, 19.5, 22},
                         {"2.5", 19.5, 18.5, 24, 23, 27, 29},
                         {"4", 26, 25, 32, 30, 36, 37},
                         {"6", 34, 32, 41, 38, 46, 46},
                         {"10", 46, 43, 57, 52, 63, 60},
                         {"16", 61, 57, 76, 69, 85, 78},
                         {"25", 80, 75, 101, 90, 112, 99},
                         {"35", 99, 92, 125, 111, 138, 119},
                         {"50", 119, 110, 151, 133, 168, 140},
                         {"70", 151, 139, 192, 168, 213, 173},
                         {"95", 182, 167, 232, 201, 258, 204},
                         {"120", 210, 192, 269, 232, 299, 231},
                         {"150", 240, 219, 300, 258, 344, 261},
                         {"185", 273, 248, 341, 294, 392, 292},
                         {"240", 321, 291, 400, 344, 461, 336},
                         {"300", 367, 334, 458, 394, 530, 379}}) {
        INFO(r.size);
        CHECK(amps(b, "single-core 70 °C", "A1", r.size, false) == r.a1);
        CHECK(amps(b, "multicore 70 °C", "A2", r.size, false) == r.a2);
        CHECK(amps(b, "single-core 70 °C", "B1", r.size, false) == r.b1);
        CHECK(amps(b, "multicore 70 °C", "B2", r.size, false) == r.b2);
        CHECK(amps(b, "multicore 70 °C", "C", r.size, false) == r.c);
        CHECK(amps(b, "multicore 70 °C", "D1", r.size, false) == r.d1);
    }
    // The other columns, by column. Copper from 1.5 mm², aluminium from 2.5 mm².
    const char* sizes[] = {"1.5", "2.5", "4",  "6",   "10",  "16",  "25",  "35",
                           "50",  "70",  "95", "120", "150", "185", "240", "300"};
    struct Column {
        const char *type, *method;
        bool three;
        std::vector<double> values;
    };
    const Column columns[] = {
        {"multicore 70 °C", "A2", true, {13, 17.5, 23, 29, 39, 52, 68, 83, 99, 125, 150, 172, 196, 223, 261, 298}},
        {"multicore 70 °C", "B2", true, {15, 20, 27, 34, 46, 62, 80, 99, 118, 149, 179, 206, 225, 255, 297, 339}},
        {"multicore 70 °C", "C", true, {17.5, 24, 32, 41, 57, 76, 96, 119, 144, 184, 223, 259, 299, 341, 403, 464}},
        {"multicore 70 °C", "D1", true, {18, 24, 30, 38, 50, 64, 82, 98, 116, 143, 169, 192, 217, 243, 280, 316}},
        {"multicore 70 °C", "E", false, {22, 30, 40, 51, 70, 94, 119, 148, 180, 232, 282, 328, 379, 434, 514, 593}},
        {"multicore 70 °C", "E", true, {18.5, 25, 34, 43, 60, 80, 101, 126, 153, 196, 238, 276, 319, 364, 430, 497}},
        {"single-core 70 °C", "B1", true, {15.5, 21, 28, 36, 50, 68, 89, 110, 134, 171, 207, 239, 262, 296, 346, 394}},
        {"single-core 70 °C", "A1", true, {13.5, 18, 24, 31, 42, 56, 73, 89, 108, 136, 164, 188, 216, 245, 286, 328}},
        {"multicore 90 °C", "A2", false, {18.5, 25, 33, 42, 57, 76, 99, 121, 145, 183, 220, 253, 290, 329, 386, 442}},
        {"multicore 90 °C", "A2", true, {16.5, 22, 30, 38, 51, 68, 89, 109, 130, 164, 197, 227, 259, 295, 346, 396}},
        {"multicore 90 °C", "B2", false, {22, 30, 40, 51, 69, 91, 119, 146, 175, 221, 265, 305, 334, 384, 459, 532}},
        {"multicore 90 °C", "B2", true, {19.5, 26, 35, 44, 60, 80, 105, 128, 154, 194, 233, 268, 300, 340, 398, 455}},
        {"multicore 90 °C", "C", false, {24, 33, 45, 58, 80, 107, 138, 171, 209, 269, 328, 382, 441, 506, 599, 693}},
        {"multicore 90 °C", "D1", false, {25, 33, 43, 53, 71, 91, 116, 139, 164, 203, 239, 271, 306, 343, 395, 446}},
        {"multicore 90 °C", "D1", true, {21, 28, 36, 44, 58, 75, 96, 115, 135, 167, 197, 223, 251, 281, 324, 365}},
        {"multicore 90 °C", "E", false, {26, 36, 49, 63, 86, 115, 149, 185, 225, 289, 352, 410, 473, 542, 641, 741}},
        {"multicore 90 °C", "E", true, {23, 32, 42, 54, 75, 100, 127, 158, 192, 246, 298, 346, 399, 456, 538, 621}},
        {"single-core 90 °C", "B1", false, {23, 31, 42, 54, 75, 100, 133, 164, 198, 253, 306, 354, 393, 449, 528, 603}},
        {"single-core 90 °C", "B1", true, {20, 28, 37, 48, 66, 88, 117, 144, 175, 222, 269, 312, 342, 384, 450, 514}},
        {"single-core 90 °C", "A1", false, {19, 26, 35, 45, 61, 81, 106, 131, 158, 200, 241, 278, 318, 362, 424, 486}},
        {"single-core 90 °C", "A1", true, {17, 23, 31, 40, 54, 73, 95, 117, 141, 179, 216, 249, 285, 324, 380, 435}},
        {"multicore 70 °C aluminium",
         "A2",
         false,
         {14.5, 19.5, 25, 33, 44, 58, 71, 86, 108, 130, 150, 172, 195, 229, 263}},
        {"multicore 70 °C aluminium",
         "A2",
         true,
         {13.5, 17.5, 23, 31, 41, 53, 65, 78, 98, 118, 135, 155, 176, 207, 237}},
        {"multicore 70 °C aluminium",
         "B2",
         false,
         {17.5, 24, 30, 41, 54, 71, 86, 104, 131, 157, 181, 201, 230, 269, 308}},
        {"multicore 70 °C aluminium",
         "B2",
         true,
         {15.5, 21, 27, 36, 48, 62, 77, 92, 116, 139, 160, 176, 199, 232, 265}},
        {"multicore 70 °C aluminium",
         "C",
         false,
         {21, 28, 36, 49, 66, 83, 103, 125, 160, 195, 226, 261, 298, 352, 406}},
        {"multicore 70 °C aluminium",
         "C",
         true,
         {18.5, 25, 32, 44, 59, 73, 90, 110, 140, 170, 197, 227, 259, 305, 351}},
        {"multicore 70 °C aluminium",
         "D1",
         false,
         {22, 29, 36, 47, 61, 77, 93, 109, 135, 159, 180, 204, 228, 262, 296}},
        {"multicore 70 °C aluminium",
         "D1",
         true,
         {18.5, 24, 30, 39, 50, 64, 77, 91, 112, 132, 150, 169, 190, 218, 247}},
        {"multicore 90 °C aluminium",
         "A2",
         false,
         {19.5, 26, 33, 45, 60, 78, 96, 115, 145, 175, 201, 230, 262, 307, 352}},
        {"multicore 90 °C aluminium", "A2", true, {18, 24, 31, 41, 55, 71, 87, 104, 131, 157, 180, 206, 233, 273, 313}},
        {"multicore 90 °C aluminium",
         "B2",
         false,
         {24, 32, 40, 54, 72, 94, 115, 138, 175, 210, 242, 261, 300, 358, 415}},
        {"multicore 90 °C aluminium",
         "B2",
         true,
         {21, 28, 35, 48, 64, 84, 103, 124, 156, 188, 216, 240, 272, 318, 364}},
        {"multicore 90 °C aluminium",
         "C",
         false,
         {26, 35, 45, 62, 84, 101, 126, 154, 198, 241, 280, 324, 371, 439, 508}},
        {"multicore 90 °C aluminium",
         "D1",
         false,
         {26, 33, 42, 55, 71, 90, 108, 128, 158, 186, 211, 238, 267, 307, 346}},
        {"multicore 90 °C aluminium", "D1", true, {22, 28, 35, 46, 59, 75, 90, 106, 130, 154, 174, 197, 220, 253, 286}},
        // Direct in the ground, D2.
        {"multicore 70 °C", "D2", false, {22, 28, 38, 48, 64, 83, 110, 132, 156, 192, 230, 261, 293, 331, 382, 427}},
        {"multicore 70 °C", "D2", true, {19, 24, 33, 41, 54, 70, 92, 110, 130, 162, 193, 220, 246, 278, 320, 359}},
        {"multicore 90 °C", "D2", false, {27, 35, 46, 58, 77, 100, 129, 155, 183, 225, 270, 306, 343, 387, 448, 502}},
        {"multicore 90 °C", "D2", true, {23, 30, 39, 49, 65, 84, 107, 129, 153, 188, 226, 257, 287, 324, 375, 419}},
        {"multicore 70 °C aluminium", "D2", false, {63, 82, 98, 117, 145, 173, 200, 224, 255, 298, 336}},
        {"multicore 70 °C aluminium", "D2", true, {53, 69, 83, 99, 122, 148, 169, 189, 214, 250, 282}},
        {"multicore 90 °C aluminium", "D2", false, {76, 98, 117, 139, 170, 204, 233, 261, 296, 343, 386}},
        {"multicore 90 °C aluminium", "D2", true, {64, 82, 98, 117, 144, 172, 197, 220, 250, 290, 326}},
        // Aluminium in free air, E (many cores) and F (single cores), Tables B.52.11 and B.52.13.
        {"multicore 70 °C aluminium",
         "E",
         false,
         {23, 31, 39, 54, 73, 89, 111, 135, 173, 210, 244, 282, 322, 380, 439}},
        {"multicore 70 °C aluminium",
         "E",
         true,
         {19.5, 26, 33, 46, 61, 78, 96, 117, 150, 183, 212, 245, 280, 330, 381}},
        {"multicore 90 °C aluminium",
         "E",
         false,
         {28, 38, 49, 67, 91, 108, 135, 164, 211, 257, 300, 346, 397, 470, 543}},
        {"multicore 90 °C aluminium", "E", true, {24, 32, 42, 58, 77, 97, 120, 146, 187, 227, 263, 304, 347, 409, 471}},
        {"single-core 70 °C aluminium", "F", false, {98, 122, 149, 192, 235, 273, 316, 363, 430, 497}},
        {"single-core 70 °C aluminium", "F", true, {84, 105, 128, 166, 203, 237, 274, 315, 375, 434}},
        {"single-core 90 °C aluminium", "F", false, {121, 150, 184, 237, 289, 337, 389, 447, 530, 613}},
        {"single-core 90 °C aluminium", "F", true, {103, 129, 159, 206, 253, 296, 343, 395, 471, 547}},
        // Aluminium single cores in conduit.
        {"single-core 70 °C aluminium",
         "B1",
         false,
         {18.5, 25, 32, 44, 60, 79, 97, 118, 150, 181, 210, 234, 266, 312, 358}},
        {"single-core 70 °C aluminium",
         "B1",
         true,
         {16.5, 22, 28, 39, 53, 70, 86, 104, 133, 161, 186, 204, 230, 269, 306}},
        {"single-core 70 °C aluminium",
         "A1",
         false,
         {15, 20, 26, 36, 48, 63, 77, 93, 118, 142, 164, 189, 215, 252, 289}},
        {"single-core 70 °C aluminium",
         "A1",
         true,
         {14, 18.5, 24, 32, 43, 57, 70, 84, 107, 129, 149, 170, 194, 227, 261}},
        {"single-core 90 °C aluminium",
         "B1",
         false,
         {25, 33, 43, 59, 79, 105, 130, 157, 200, 242, 281, 307, 351, 412, 471}},
        {"single-core 90 °C aluminium",
         "B1",
         true,
         {22, 29, 38, 52, 71, 93, 116, 140, 179, 217, 251, 267, 300, 351, 402}},
        {"single-core 90 °C aluminium",
         "A1",
         false,
         {20, 27, 35, 48, 64, 84, 103, 125, 158, 191, 220, 253, 288, 338, 387}},
        {"single-core 90 °C aluminium",
         "A1",
         true,
         {19, 25, 32, 44, 58, 76, 94, 113, 142, 171, 197, 226, 256, 300, 344}},
    };
    for (const Column& c : columns)
        for (std::size_t i = 0, first = std::size(sizes) - c.values.size(); i < c.values.size(); ++i) {
            INFO(c.type << ", " << c.method << (c.three ? ", three, " : ", two, ") << sizes[first + i] << " mm²");
            const double book = amps(b, c.type, c.method, sizes[first + i], c.three);
            if (book > 0 || !b.cables.type(c.type)->name.ends_with("aluminium"))
                CHECK(book == c.values[i]); // the book has aluminium from 10 or 16 mm²
        }
    // Three loaded, 90 °C, copper and aluminium: C.
    struct Pair {
        const char* size;
        double copper, aluminium;
    };
    for (const Pair& r : {Pair{"10", 71, 57},
                          {"16", 96, 76},
                          {"25", 119, 90},
                          {"35", 147, 112},
                          {"50", 179, 136},
                          {"70", 229, 174},
                          {"95", 278, 211},
                          {"120", 322, 245},
                          {"150", 371, 283},
                          {"185", 424, 323},
                          {"240", 500, 382},
                          {"300", 576, 440}}) {
        CHECK(amps(b, "multicore 90 °C", "C", r.size, true) == r.copper);
        CHECK(amps(b, "multicore 90 °C aluminium", "C", r.size, true) == r.aluminium);
        CHECK(r.aluminium / r.copper == Approx(std::sqrt(0.0181 / 0.0303)).margin(0.035)); // heat for heat
    }
    // What aluminium carries beside copper of the same size and way of laying: heat for heat, whatever the table.
    for (const CableType& t : b.cables.types)
        if (t.material == Material::Aluminium && !t.armoured()) {
            const CableType& copper = *b.cables.type(t.name.substr(0, t.name.rfind(' ')));
            for (const CableMethod& m : t.methods)
                for (std::size_t s = 0; s < b.sizes().size(); ++s)
                    for (std::size_t k = 0; k < 2; ++k) {
                        INFO(t.name << ", " << m.name << ", " << b.sizes()[s].name);
                        if (m.ampacity[k][s] > 0)
                            CHECK(m.ampacity[k][s] / copper.method(m.name)->ampacity[k][s] ==
                                  Approx(std::sqrt(0.0181 / 0.0303)).margin(0.05));
                    }
        }
    // Armoured cables are those of the tables that may lie as they do, from the smallest size that is made.
    const CableType &armoured = *b.cables.type("armoured 90 °C"),
                    &aluminium = *b.cables.type("armoured 90 °C aluminium");
    CHECK(armoured.methods.size() == 4);
    CHECK_FALSE(armoured.method("B2"));
    CHECK(amps(b, "armoured 90 °C", "E", "16", true) == 100);
    CHECK(armoured.armour[4][std::size_t(b.find("16"))] == Approx(0.0032));
    CHECK(amps(b, "armoured 90 °C aluminium", "D2", "16", true) == 64);
    CHECK(amps(b, "armoured 90 °C aluminium", "E", "10", true) == 0);
    CHECK(aluminium.material == Material::Aluminium);
    for (const CableType& t : b.cables.types) // a hotter cable carries more, everywhere
        if (t.celsius == 70)
            if (const CableType* hot =
                    b.cables.type(t.name.substr(0, t.name.find("70")) + "90" + t.name.substr(t.name.find("70") + 2)))
                for (const CableMethod& m : t.methods)
                    for (std::size_t s = 0; s < b.sizes().size(); ++s)
                        for (std::size_t k = 0; k < 2; ++k)
                            if (m.ampacity[k][s] > 0 && hot->method(m.name))
                                CHECK(hot->method(m.name)->ampacity[k][s] > m.ampacity[k][s]);
}

TEST_CASE("AS/NZS 3000: loops of Table 8.1, protective conductors of Table 5.1, and what is not verified is said") {
    const RuleBook& b = bookOf("as-nzs-3000");
    const auto limit = [&](DeviceKind k, double rating) {
        return 230 * b.cables.cMin / (b.cables.trips.at(k).trips * rating);
    };
    CHECK(limit(DeviceKind::TypeC, 16) == Approx(1.91).margin(0.01));
    CHECK(limit(DeviceKind::TypeC, 20) == Approx(1.53).margin(0.01));
    CHECK(limit(DeviceKind::TypeC, 32) == Approx(0.96).margin(0.01));
    CHECK(limit(DeviceKind::TypeB, 20) == Approx(2.88).margin(0.01));
    CHECK(limit(DeviceKind::TypeD, 20) == Approx(0.92).margin(0.01));
    const std::pair<const char*, const char*> ground[] = {
        {"2.5", "2.5"}, {"4", "2.5"}, {"6", "2.5"}, {"10", "4"},   {"16", "6"},   {"25", "6"},   {"35", "10"},
        {"50", "16"},   {"70", "25"}, {"95", "25"}, {"120", "35"}, {"150", "50"}, {"185", "70"}, {"240", "95"}};
    for (const auto& [line, earth] : ground) {
        CHECK(b.cables.groundOfLine.at(b.find(line)) == b.find(earth));
        CHECK(b.cables.type("multicore 75 °C")->ownGround.at(b.find(line)) == b.find(earth));
    }
    for (const CableType& t : b.cables.types)
        for (const CableMethod& m : t.methods) CHECK(m.unverified);
    CHECK(b.unverified().size() >= 5);
    // 27 A at 30 °C for a conductor of 70 °C is 27·√(35/40) = 25.3 A at 40 °C for one of 75 °C.
    CHECK(amps(b, "multicore 75 °C", "unenclosed", "2.5", false) == Approx(25.3).margin(0.05));
    // Every value is brought over so, and none comes out larger than the ratio gives.
    const RuleBook& iec = bookOf("iec-60364");
    const std::map<std::string, std::array<const char*, 2>> from = {
        {"unenclosed", {"C", "C"}}, {"enclosed", {"B2", "B1"}}, {"in insulation", {"A2", "A1"}},
        {"tray", {"E", "F"}},       {"buried", {"D1", "D1"}},   {"buried direct", {"D2", "D2"}}};
    int compared = 0;
    for (const CableType& t : b.cables.types) {
        const double base = t.celsius == 75 ? 70 : 90;
        const std::string kind = t.single ? "single-core " : "multicore ",
                          other = kind + (base == 70 ? "70 °C" : "90 °C") +
                                  (t.material == Material::Aluminium ? " aluminium" : "");
        for (const CableMethod& m : t.methods)
            for (std::size_t s = 0; s < b.sizes().size(); ++s)
                for (std::size_t k = 0; k < 2; ++k) {
                    if (m.ampacity[k][s] <= 0) continue;
                    INFO(t.name << ", " << m.name << ", " << b.sizes()[s].name << ", " << other);
                    // In the ground the tables of IEC stand for 2.5 K·m/W, those of AS/NZS for 1.2: 1.148 times as much
                    // in ducts, 1.412 times direct.
                    const double ratio = m.ground
                                             ? std::sqrt((t.celsius - 25) / (base - 20)) * (m.direct() ? 1.412 : 1.148)
                                             : std::sqrt((t.celsius - 40) / (base - 30));
                    const double exact =
                        amps(iec, other.c_str(), from.at(m.name)[t.single], b.sizes()[s].name.c_str(), k) * ratio;
                    CHECK(m.ampacity[k][s] <= exact + 0.051);
                    CHECK(m.ampacity[k][s] >= exact - 1);
                    ++compared;
                }
    }
    CHECK(compared > 900);
}

TEST_CASE("cables in the ground: soil and neighbours count for more without a duct") {
    // Tables B.52.16, B.52.18 and B.52.19 of IEC 60364-5-52, typed again.
    const CableRules& iec = bookOf("iec-60364").cables;
    struct Soil {
        double resistivity, ducts, direct;
    };
    for (const Soil& s : {Soil{0.5, 1.28, 1.88},
                          {0.7, 1.20, 1.62},
                          {1, 1.18, 1.50},
                          {1.5, 1.10, 1.28},
                          {2, 1.05, 1.12},
                          {2.5, 1, 1},
                          {3, 0.96, 0.90}}) {
        CHECK(iec.soilFactor(s.resistivity, false) == Approx(s.ducts));
        CHECK(iec.soilFactor(s.resistivity, true) == Approx(s.direct));
    }
    struct Group {
        int circuits;
        double ducts, direct;
    };
    for (const Group& g : {Group{2, 0.85, 0.75},
                           {3, 0.75, 0.65},
                           {4, 0.70, 0.60},
                           {5, 0.65, 0.55},
                           {6, 0.60, 0.50},
                           {7, 0.57, 0.45},
                           {8, 0.54, 0.43},
                           {9, 0.52, 0.41},
                           {12, 0.45, 0.36},
                           {16, 0.39, 0.32},
                           {20, 0.34, 0.29}})
        for (const char* book : {"iec-60364", "as-nzs-3000", "bs-7671"}) { // 4C2 and 4C3 of BS 7671 have them too
            const auto& grouping = bookOf(book).cables.grouping;
            CHECK(valueOn(grouping[std::size_t(Grouping::Ducts)], g.circuits) == Approx(g.ducts));
            CHECK(valueOn(grouping[std::size_t(Grouping::Direct)], g.circuits) == Approx(g.direct));
        }
    for (const char* book : {"iec-60364", "as-nzs-3000", "bs-7671"})
        for (const CableType& t : bookOf(book).cables.types)
            for (const CableMethod& m : t.methods)
                CHECK(m.direct() == (m.name == "D2" || m.name == "buried direct" || m.name == "D direct"));
    // BS 7671 has one column for both (reference method D); soil (Table 4B3) and neighbours tell them apart.
    for (const char* type : {"armoured 70 °C", "armoured 90 °C", "armoured 90 °C aluminium"}) {
        const CableMethod &ducts = *bs().cables.type(type)->method("D"),
                          &direct = *bs().cables.type(type)->method("D direct");
        CHECK(ducts.ampacity == direct.ampacity);
        CHECK(ducts.r == direct.r);
    }
    CHECK(bs().cables.soilFactor(3, true) == Approx(0.90));
    CHECK(bs().cables.soilFactor(1, true) == Approx(1.50));
    // Thermal insulation round a cable and the insulation of an IT supply are cited apart.
    CHECK(bs().cite("insulation") == "Table 52.2");
    CHECK(bs().cite("insulationMonitor") == "411.6.3");
    // At the soil of its own tables nothing is added or taken.
    CHECK(bookOf("as-nzs-3000").cables.soilFactor(1.2, true) == Approx(1));
    CHECK(bookOf("as-nzs-3000").cables.soilFactor(2.5, true) == Approx(1 / 1.412).margin(0.01));
}

TEST_CASE("every metric starter opens, solves without a stop, and takes a circuit") {
    for (const char* name : {"uk-400", "iec-400", "au-400"}) {
        INFO(name);
        auto loaded = loadProject(dataFolder() / "starters" / (std::string(name) + ".lintel"));
        REQUIRE(loaded);
        Project p = *loaded;
        REQUIRE_FALSE(validate(p));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const BoardId board = p.boards.begin()->id;
        const CircuitId c = addCircuit(p, board, 1, "Kettle");
        Load l;
        l.circuit = c, l.amount = 2.4, l.unit = LoadUnit::kW;
        p.loads.add(l);
        runOf(p, c).lengthBy = LengthBy::Entered, runOf(p, c).length = 12;
        const Results r = solve(p, book);
        for (const Snag& s : findSnags(p, book, r)) {
            INFO(s.text);
            CHECK(s.severity != Severity::Stop);
        }
        CHECK(r.of(c).run.size >= 0);
        CHECK(r.of(c).run.earth->known);
        CHECK(nameOf(p, c) == "DB-1/1/L1");
    }
}

TEST_CASE("gG fuses of the IEC book open by the gates of IEC 60269-1, Table 3; those above 200 A of the British book "
          "within 5 s too") {
    // Rating, largest current that opens within 5 s, and within 0.1 s: typed a second time.
    const double gates[][3] = {{16, 65, 150},      {20, 85, 200},      {25, 110, 260},      {32, 150, 350},
                               {40, 190, 450},     {50, 250, 610},     {63, 320, 820},      {80, 425, 1100},
                               {100, 580, 1450},   {125, 715, 1910},   {160, 950, 2590},    {200, 1250, 3420},
                               {250, 1650, 4500},  {315, 2200, 6000},  {400, 2840, 8060},   {500, 3800, 10600},
                               {630, 5100, 14140}, {800, 7000, 19000}, {1000, 9500, 24000}, {1250, 13000, 35000}};
    const auto& iec = bookOf("iec-60364").cables.trips.at(DeviceKind::FuseGG);
    const auto& british = bs().cables.trips.at(DeviceKind::FuseGG);
    CHECK(iec.upTo == 1250);
    for (const auto& [rating, five, tenth] : gates) {
        INFO(rating);
        const auto at = iec.fuse.at(rating);
        CHECK(at[1] == five);
        // 0.4 s lies on the straight line of logarithms between them: never below either the curve's own end at 5 s.
        const double share = std::log10(5 / 0.4) / std::log10(5 / 0.1);
        CHECK(std::log10(at[0]) ==
              Approx(std::log10(five) + share * (std::log10(tenth) - std::log10(five))).margin(0.0005));
        if (rating > 200)
            CHECK(british.fuse.at(rating)[1] == five);
        else
            CHECK(at[1] >= british.fuse.at(rating)[1]); // a standard's gate is never kinder than curves within it
    }
}

TEST_CASE("breakers of 80 to 125 A are of their type, as those of 63 A are") {
    for (const char* id : {"bs-7671", "iec-60364", "as-nzs-3000"})
        for (DeviceKind kind : {DeviceKind::TypeB, DeviceKind::TypeC, DeviceKind::TypeD})
            CHECK(bookOf(id).cables.trips.at(kind).upTo == 125);
    // BS 7671, Table 41.3, type B: 80 A 0.55, 100 A 0.44, 125 A 0.35 Ω.
    for (auto [rating, limit] : {std::pair{80.0, 0.55}, {100.0, 0.44}, {125.0, 0.35}})
        CHECK(230 * 0.95 / (5 * rating) == Approx(limit).margin(0.005));
}

TEST_CASE("Brindle Pier solves with each metric book, and a change of book is told as a difference") {
    const Project pier = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    REQUIRE_FALSE(validate(pier));
    CHECK(pier.boards.size() == 11);
    CHECK(pier.circuits.size() >= 120);
    const Results r = solve(pier, bs());
    const auto snags = findSnags(pier, bs(), r);
    std::map<std::string, int> rules;
    for (const Snag& s : snags) ++rules[s.rule->id];
    CHECK(rules == std::map<std::string, int>{{"residual", 2}, {"ring", 2}, {"drop", 1}}); // on purpose
    int known = 0;
    for (const Circuit& c : pier.circuits) known += c.use == CircuitUse::Load && r.run(c.id)->earth->known;
    CHECK(known > 110);
    Project other = pier;
    other.basis.ruleBook = "iec-60364";
    const Results moved = solve(other, bookOf("iec-60364"));
    const Comparison c = compare({pier, bs(), r}, {other, bookOf("iec-60364"), moved});
    CHECK_FALSE(c.nothing());
    CHECK(c.sizes + c.devices > 0);
}

TEST_CASE("alternating current finds more resistance in large conductors: skin and proximity, as the tables of "
          "multicore cables print it") {
    // AS/NZS 3008.1.1, Table 34: Ω/km at 75 °C of copper multicore cables. The coefficient of temperature differs by
    // 0.3 %.
    const RuleBook& as = bookOf("as-nzs-3000");
    const CableMethod& m = *as.cables.type("multicore 75 °C")->method("tray");
    for (const auto& [size, printed] :
         {std::pair{"95", 0.236}, {"120", 0.188}, {"150", 0.153}, {"185", 0.123}, {"240", 0.0948}, {"300", 0.0770}}) {
        INFO(size);
        CHECK(m.r[1][std::size_t(as.find(size))] * 1000 == Approx(printed).epsilon(0.015));
    }
    // By hand, 300 mm² at 70 °C, two conductors: R' 72.1 µΩ/m, xs² 1.743, ys 0.0156, 20.7 mm across, 25.4 apart: yp
    // 0.0302.
    CHECK(alternating(0.0601e-3 * 1.2, 300, false) == Approx(1.0458).margin(0.0005));
    // By hand, 630 mm² at 90 °C: R' 36.085 µΩ/m, xs² 3.48240, ys 12.1271/(192 + 9.7017) = 0.060124; 30.021 mm across,
    // 36.240 apart, their ratio squared 0.68620: two conductors 2.9 · 0.68620 · ys, three
    // (0.312 · 0.68620 + 1.18/(ys + 0.27)) · 0.68620 · ys more (IEC 60287-1-1).
    CHECK(alternating(0.0283e-3 * 1.2751, 630, false) == Approx(1.179771).epsilon(2e-6));
    CHECK(alternating(0.0283e-3 * 1.2751, 630, true) == Approx(1.216428).epsilon(2e-6));
    CHECK(alternating(0.0601e-3 * 1.2, 300, true) > alternating(0.0601e-3 * 1.2, 300, false));
    CHECK(alternating(7.41e-3 * 1.2, 2.5, true) == Approx(1).margin(1e-5));
}

TEST_CASE("AS/NZS: single cores have the reactance of how they lie, larger where it is small and where they lie flat") {
    const RuleBook& as = bookOf("as-nzs-3000");
    const CableType& t = *as.cables.type("single-core 75 °C");
    for (const auto& [size, trefoil] :
         {std::pair{"25", 0.106}, {"50", 0.0962}, {"120", 0.0870}, {"300", 0.0839}}) { // Table 30, mΩ/m
        INFO(size);
        const std::size_t s = std::size_t(as.find(size));
        CHECK(t.method("tray")->x[1][s] * 1000 == Approx(trefoil));
        // Three in a row are a mean of ∛2 of their distance apart: ω · 0.2 µH/m · ln ∛2 more.
        CHECK(t.method("enclosed")->x[1][s] - t.method("tray")->x[1][s] ==
              Approx(2 * 3.14159265 * 50 * 0.2e-6 * std::log(2.0) / 3).margin(0.0000008));
    }
}

TEST_CASE("what a book does not say, no other says for it: a metric dwelling's service carries its whole device") {
    // 310.12 lets the conductors of a dwelling's service carry 83 % of its device. It is a rule of one code only: a
    // flat of 230 V behind 100 A has conductors for 100 A.
    for (const char* id : {"bs-7671", "iec-60364", "as-nzs-3000"}) {
        INFO(id);
        const RuleBook& book = bookOf(id);
        MetricBoard w(0.35, VoltageSystem::S230);
        w.p.basis.ruleBook = id;
        w.p.basis.occupancy = Occupancy::Dwelling;
        Board& b = *w.p.boards.change(w.board);
        b.main = b.bus = 100;
        (void)w.run(15, 10);
        const RunResult run = solve(w.p, book).of(w.board).run;
        CHECK(run.need.deviceShare == 1);
        CHECK(run.ampacity >= 100);
        CHECK(book.tables.roofAdder == 0);
        CHECK(book.tables.neutralAbove > 1e9);
        CHECK(book.tables.groundFaultRooms.empty());
        CHECK(book.tables.smallAppliance == 0);
    }
}
