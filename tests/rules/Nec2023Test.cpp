// The second typing of the NEC 2023 tables, made apart from the rule book: by table and column, not by size.

#include "tests/World.h"

using namespace lintel;

namespace {

using Column = std::vector<double>;

/// The sizes of Table 310.16 from 14 AWG to 2000 kcmil.
const std::vector<std::string> sizes310 = {"14",  "12",  "10",  "8",   "6",   "4",   "3",   "2",   "1",    "1/0",  "2/0",  "3/0",  "4/0", "250",
                                           "300", "350", "400", "500", "600", "700", "750", "800", "900", "1000", "1250", "1500", "1750", "2000"};

void compare(const char* what, Material m, int celsius, const std::string& from, const Column& typed) {
    std::size_t i = std::size_t(std::find(sizes310.begin(), sizes310.end(), from) - sizes310.begin());
    for (double amps : typed) {
        INFO(what << ", size " << sizes310[i]);
        CHECK(nec().ampacity(nec().find(sizes310[i]), m, celsius) == amps);
        ++i;
    }
    CHECK(i == sizes310.size()); // the column was typed to its end
}

} // namespace

TEST_CASE("NEC 310.16: ampacities of copper and aluminium, typed again by column") {
    compare("Cu 60", Material::Copper, 60, "14", {15, 20, 30, 40, 55, 70, 85, 95, 110, 125, 145, 165, 195, 215, 240, 260, 280, 320, 350, 385, 400, 410, 435, 455, 495, 525, 545, 555});
    compare("Cu 75", Material::Copper, 75, "14", {20, 25, 35, 50, 65, 85, 100, 115, 130, 150, 175, 200, 230, 255, 285, 310, 335, 380, 420, 460, 475, 490, 520, 545, 590, 625, 650, 665});
    compare("Cu 90", Material::Copper, 90, "14", {25, 30, 40, 55, 75, 95, 115, 130, 145, 170, 195, 225, 260, 290, 320, 350, 380, 430, 475, 520, 535, 555, 585, 615, 665, 705, 735, 750});
    compare("Al 60", Material::Aluminium, 60, "12", {15, 25, 35, 40, 55, 65, 75, 85, 100, 115, 130, 150, 170, 195, 210, 225, 260, 285, 315, 320, 330, 355, 375, 405, 435, 455, 470});
    compare("Al 75", Material::Aluminium, 75, "12", {20, 30, 40, 50, 65, 75, 90, 100, 120, 135, 155, 180, 205, 230, 250, 270, 310, 340, 375, 385, 395, 425, 445, 485, 520, 545, 560});
    compare("Al 90", Material::Aluminium, 90, "12", {25, 35, 45, 55, 75, 85, 100, 115, 135, 150, 175, 205, 230, 260, 280, 305, 350, 385, 425, 435, 445, 480, 500, 545, 585, 615, 630});
    CHECK(nec().ampacity(nec().find("14"), Material::Aluminium, 75) == 0); // the table has no 14 AWG aluminium
    CHECK(nec().sizes().size() == sizes310.size());
}

TEST_CASE("NEC 240.6(A): the standard ratings of breakers, typed again") {
    std::vector<double> typed;
    for (double a = 15; a <= 50; a += 5) typed.push_back(a);
    for (double a = 60; a <= 110; a += 10) typed.push_back(a);
    for (double a = 125; a <= 250; a += 25) typed.push_back(a);
    for (double a = 300; a <= 500; a += 50) typed.push_back(a);
    for (double a : {600, 700, 800, 1000, 1200, 1600, 2000, 2500}) typed.push_back(a);
    for (double a = 3000; a <= 6000; a += 1000) typed.push_back(a);
    CHECK(nec().ratings() == typed);
    CHECK(nec().ratingAtOrAbove(63.2) == 70);
    CHECK(nec().ratingAtOrAbove(70) == 70);
    CHECK(nec().ratingAbove(70) == 80);
    CHECK(nec().ratingAtOrAbove(6001) == 0);
    CHECK(nec().cite("rating") == "240.6(A)");
}

TEST_CASE("NEC 310.15(B)(1)(1): ambient factors, typed again by band") {
    struct Band { double from, to, f60, f75, f90; };
    const Band bands[] = {{-40, 10, 1.29, 1.20, 1.15}, {11, 15, 1.22, 1.15, 1.12}, {16, 20, 1.15, 1.11, 1.08}, {21, 25, 1.08, 1.05, 1.04}, {26, 30, 1, 1, 1},        {31, 35, .91, .94, .96},
                          {36, 40, .82, .88, .91},     {41, 45, .71, .82, .87},    {46, 50, .58, .75, .82},    {51, 55, .41, .67, .76},    {56, 60, 0, .58, .71},     {61, 65, 0, .47, .65},
                          {66, 70, 0, .33, .58},       {71, 75, 0, 0, .50},        {76, 80, 0, 0, .41},        {81, 85, 0, 0, .29}};
    for (const Band& b : bands)
        for (double t : {b.from, b.to}) {
            INFO(t << " °C");
            CHECK(nec().ambientFactor(t, 60) == b.f60);
            CHECK(nec().ambientFactor(t, 75) == b.f75);
            CHECK(nec().ambientFactor(t, 90) == b.f90);
        }
    // The physics behind the table: sqrt((rated − ambient)/(rated − 30)).
    for (double t = 32.5; t < 80; t += 5)
        if (nec().ambientFactor(t + 2.5, 90) > 0) CHECK(nec().ambientFactor(t + 2.5, 90) == Approx(std::sqrt((90 - t - 2.5) / 60)).margin(0.006));
    CHECK(nec().ambientFactor(86, 90) == 0);
}

TEST_CASE("NEC 310.15(C)(1): more than three conductors in a raceway, typed again") {
    struct Row { int from, to; double percent; };
    for (const Row& r : {Row{1, 3, 100}, {4, 6, 80}, {7, 9, 70}, {10, 20, 50}, {21, 30, 45}, {31, 40, 40}, {41, 200, 35}})
        for (int n : {r.from, r.to}) CHECK(nec().bundlingFactor(n) * 100 == Approx(r.percent));
}

TEST_CASE("NEC 240.4(D): small conductors, typed again") {
    const auto limit = [](const char* size, Material m) { return nec().smallConductorLimit(nec().find(size), m); };
    CHECK(limit("14", Material::Copper) == 15);
    CHECK(limit("12", Material::Copper) == 20);
    CHECK(limit("10", Material::Copper) == 30);
    CHECK(limit("8", Material::Copper) == 0);
    CHECK(limit("12", Material::Aluminium) == 15);
    CHECK(limit("10", Material::Aluminium) == 25);
    CHECK(limit("8", Material::Aluminium) == 0);
}

TEST_CASE("NEC 250.122: equipment grounding conductors, typed again by conductor") {
    struct Row { double device; const char *cu, *al; };
    const Row rows[] = {{15, "14", "12"},    {20, "12", "10"},    {60, "10", "8"},      {100, "8", "6"},      {200, "6", "4"},      {300, "4", "2"},      {400, "3", "1"},
                        {500, "2", "1/0"},   {600, "1", "2/0"},   {800, "1/0", "3/0"},  {1000, "2/0", "4/0"}, {1200, "3/0", "250"}, {1600, "4/0", "350"}, {2000, "250", "400"},
                        {2500, "350", "600"}, {3000, "400", "600"}, {4000, "500", "750"}, {5000, "700", "1250"}, {6000, "800", "1250"}};
    double below = 0;
    for (const Row& r : rows) {
        INFO(r.device << " A");
        for (double device : {below + 0.5, r.device}) {
            CHECK(nec().protectiveFor(device, Material::Copper) == nec().find(r.cu));
            CHECK(nec().protectiveFor(device, Material::Aluminium) == nec().find(r.al));
        }
        below = r.device;
    }
    CHECK(nec().protectiveFor(6500, Material::Copper) == -1);
}

TEST_CASE("NEC Chapter 9 Table 8: areas and direct-current resistance, typed again") {
    struct Row { const char* size; double cmil, cu, al; };
    const Row rows[] = {{"14", 4110, 3.14, 5.17},       {"12", 6530, 1.98, 3.25},       {"10", 10380, 1.24, 2.04},      {"8", 16510, .778, 1.28},       {"6", 26240, .491, .808},
                        {"4", 41740, .308, .508},       {"3", 52620, .245, .403},       {"2", 66360, .194, .319},       {"1", 83690, .154, .253},       {"1/0", 105600, .122, .201},
                        {"2/0", 133100, .0967, .159},   {"3/0", 167800, .0766, .126},   {"4/0", 211600, .0608, .100},   {"250", 250000, .0515, .0847},  {"300", 300000, .0429, .0707},
                        {"350", 350000, .0367, .0605},  {"400", 400000, .0321, .0529},  {"500", 500000, .0258, .0424},  {"600", 600000, .0214, .0353},  {"700", 700000, .0184, .0303},
                        {"750", 750000, .0171, .0282},  {"800", 800000, .0161, .0265},  {"900", 900000, .0143, .0235},  {"1000", 1000000, .0129, .0212}, {"1250", 1250000, .0103, .0169},
                        {"1500", 1500000, .00858, .0141}, {"1750", 1750000, .00735, .0121}, {"2000", 2000000, .00643, .0106}};
    CHECK(std::size(rows) == nec().sizes().size());
    for (const Row& r : rows) {
        INFO(r.size);
        const ConductorSize& s = nec().sizes()[std::size_t(nec().find(r.size))];
        CHECK(s.kcmil * 1000 == Approx(r.cmil));
        CHECK(s.direct[0] * 304.8 == Approx(r.cu)); // Ω/m to Ω/kft
        CHECK(s.direct[1] * 304.8 == Approx(r.al));
    }
}

TEST_CASE("NEC Chapter 9 Table 9: alternating-current resistance and reactance, typed again") {
    // size; X in PVC or aluminium, in steel; R of copper in PVC, aluminium, steel; of aluminium in the same.
    struct Row { const char* size; double xp, xs, cp, ca, cs, ap, aa, as; };
    const Row rows[] = {{"14", .058, .073, 3.1, 3.1, 3.1, 0, 0, 0},          {"12", .054, .068, 2.0, 2.0, 2.0, 3.2, 3.2, 3.2},      {"10", .050, .063, 1.2, 1.2, 1.2, 2.0, 2.0, 2.0},
                        {"8", .052, .065, .78, .78, .78, 1.3, 1.3, 1.3},     {"6", .051, .064, .49, .49, .49, .81, .81, .81},       {"4", .048, .060, .31, .31, .31, .51, .51, .51},
                        {"3", .047, .059, .25, .25, .25, .40, .41, .40},     {"2", .045, .057, .19, .20, .20, .32, .32, .32},       {"1", .046, .057, .15, .16, .16, .25, .26, .25},
                        {"1/0", .044, .055, .12, .13, .12, .20, .21, .20},   {"2/0", .043, .054, .10, .10, .10, .16, .16, .16},     {"3/0", .042, .052, .077, .082, .079, .13, .13, .13},
                        {"4/0", .041, .051, .062, .067, .063, .10, .11, .10}, {"250", .041, .052, .052, .057, .054, .085, .090, .086}, {"300", .041, .051, .044, .049, .045, .071, .076, .072},
                        {"350", .040, .050, .038, .043, .039, .061, .066, .063}, {"400", .040, .049, .033, .038, .035, .054, .059, .055}, {"500", .039, .048, .027, .032, .029, .043, .048, .045},
                        {"600", .039, .048, .023, .028, .025, .036, .041, .038}, {"750", .038, .048, .019, .024, .021, .029, .034, .031}, {"1000", .037, .046, .015, .019, .018, .023, .027, .025}};
    std::size_t known = 0;
    for (const ConductorSize& s : nec().sizes()) known += s.resistance[0][0] > 0;
    CHECK(std::size(rows) == known);
    const auto kft = [](double perMetre) { return perMetre * 304.8; };
    for (const Row& r : rows) {
        INFO(r.size);
        const ConductorSize& s = nec().sizes()[std::size_t(nec().find(r.size))];
        CHECK(kft(s.reactance[std::size_t(Raceway::Pvc)]) == Approx(r.xp));
        CHECK(kft(s.reactance[std::size_t(Raceway::Aluminium)]) == Approx(r.xp));
        CHECK(kft(s.reactance[std::size_t(Raceway::Steel)]) == Approx(r.xs));
        CHECK(kft(s.resistance[0][std::size_t(Raceway::Pvc)]) == Approx(r.cp));
        CHECK(kft(s.resistance[0][std::size_t(Raceway::Aluminium)]) == Approx(r.ca));
        CHECK(kft(s.resistance[0][std::size_t(Raceway::Steel)]) == Approx(r.cs));
        CHECK(kft(s.resistance[1][std::size_t(Raceway::Pvc)]) == Approx(r.ap));
        CHECK(kft(s.resistance[1][std::size_t(Raceway::Aluminium)]) == Approx(r.aa));
        CHECK(kft(s.resistance[1][std::size_t(Raceway::Steel)]) == Approx(r.as));
    }
}

TEST_CASE("NEC Article 220: demand rules, typed again") {
    const auto rule = [](LoadKind k, Occupancy o = Occupancy::Other) -> const DemandRule& { return nec().demand(k, o); };
    using Steps = std::vector<std::pair<double, double>>;
    CHECK(rule(LoadKind::Receptacle).steps == Steps{{10000, 1}, {1e300, 0.5}});
    CHECK(rule(LoadKind::Lighting).steps == Steps{{1e300, 1}});
    CHECK(rule(LoadKind::Lighting, Occupancy::Dwelling).steps == Steps{{3000, 1}, {120000, 0.35}, {1e300, 0.25}});
    CHECK(rule(LoadKind::Lighting, Occupancy::Hotel).steps == Steps{{20000, 0.6}, {100000, 0.5}, {1e300, 0.35}});
    CHECK(rule(LoadKind::Lighting, Occupancy::Warehouse).steps == Steps{{12500, 1}, {1e300, 0.5}});
    CHECK(rule(LoadKind::Kitchen).factors == std::vector<double>{1, 1, .9, .8, .7, .65});
    const auto& range = rule(LoadKind::Range).demandByCount;
    REQUIRE(range.size() == 25);
    CHECK(std::vector<double>(range.begin(), range.begin() + 6) == std::vector<double>{8000, 11000, 14000, 17000, 20000, 21000});
    for (std::size_t n = 6; n < 25; ++n) CHECK(range[n] == range[n - 1] + 1000);
    const auto& dryer = rule(LoadKind::Dryer).factors;
    REQUIRE(dryer.size() == 43);
    for (int n = 1; n <= 43; ++n) {
        const double typed = n <= 4 ? 100 : n == 5 ? 85 : n == 6 ? 75 : n == 7 ? 65 : n == 8 ? 60 : n == 9 ? 55 : n == 10 ? 50 : n == 11 ? 47 : n <= 23 ? 47 - (n - 11) : n <= 42 ? 35 - 0.5 * (n - 23) : 25;
        INFO(n << " dryers");
        CHECK(dryer[std::size_t(n) - 1] * 100 == Approx(typed));
    }
}
