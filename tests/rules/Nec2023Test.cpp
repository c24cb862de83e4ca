// The second typing of the NEC 2023 tables, made apart from the rule book: by table and column, not by size.

#include "core/solve/Solve.h"
#include "tests/World.h"

using namespace lintel;

namespace {

using Column = std::vector<double>;

/// The sizes of Table 310.16 from 14 AWG to 2000 kcmil.
const std::vector<std::string> sizes310 = {"14",  "12",  "10",  "8",    "6",    "4",    "3",    "2",   "1",   "1/0",
                                           "2/0", "3/0", "4/0", "250",  "300",  "350",  "400",  "500", "600", "700",
                                           "750", "800", "900", "1000", "1250", "1500", "1750", "2000"};

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
    compare("Cu 60", Material::Copper, 60, "14",
            {15,  20,  30,  40,  55,  70,  85,  95,  110, 125, 145, 165, 195, 215,
             240, 260, 280, 320, 350, 385, 400, 410, 435, 455, 495, 525, 545, 555});
    compare("Cu 75", Material::Copper, 75, "14",
            {20,  25,  35,  50,  65,  85,  100, 115, 130, 150, 175, 200, 230, 255,
             285, 310, 335, 380, 420, 460, 475, 490, 520, 545, 590, 625, 650, 665});
    compare("Cu 90", Material::Copper, 90, "14",
            {25,  30,  40,  55,  75,  95,  115, 130, 145, 170, 195, 225, 260, 290,
             320, 350, 380, 430, 475, 520, 535, 555, 585, 615, 665, 705, 735, 750});
    compare("Al 60", Material::Aluminium, 60, "12",
            {15,  25,  35,  40,  55,  65,  75,  85,  100, 115, 130, 150, 170, 195,
             210, 225, 260, 285, 315, 320, 330, 355, 375, 405, 435, 455, 470});
    compare("Al 75", Material::Aluminium, 75, "12",
            {20,  30,  40,  50,  65,  75,  90,  100, 120, 135, 155, 180, 205, 230,
             250, 270, 310, 340, 375, 385, 395, 425, 445, 485, 520, 545, 560});
    compare("Al 90", Material::Aluminium, 90, "12",
            {25,  35,  45,  55,  75,  85,  100, 115, 135, 150, 175, 205, 230, 260,
             280, 305, 350, 385, 425, 435, 445, 480, 500, 545, 585, 615, 630});
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
    struct Band {
        double from, to, f60, f75, f90;
    };
    const Band bands[] = {
        {-40, 10, 1.29, 1.20, 1.15}, {11, 15, 1.22, 1.15, 1.12}, {16, 20, 1.15, 1.11, 1.08}, {21, 25, 1.08, 1.05, 1.04},
        {26, 30, 1, 1, 1},           {31, 35, .91, .94, .96},    {36, 40, .82, .88, .91},    {41, 45, .71, .82, .87},
        {46, 50, .58, .75, .82},     {51, 55, .41, .67, .76},    {56, 60, 0, .58, .71},      {61, 65, 0, .47, .65},
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
        if (nec().ambientFactor(t + 2.5, 90) > 0)
            CHECK(nec().ambientFactor(t + 2.5, 90) == Approx(std::sqrt((90 - t - 2.5) / 60)).margin(0.006));
    CHECK(nec().ambientFactor(86, 90) == 0);
}

TEST_CASE("NEC 310.15(C)(1): more than three conductors in a raceway, typed again") {
    struct Row {
        int from, to;
        double percent;
    };
    for (const Row& r :
         {Row{1, 3, 100}, {4, 6, 80}, {7, 9, 70}, {10, 20, 50}, {21, 30, 45}, {31, 40, 40}, {41, 200, 35}})
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
    struct Row {
        double device;
        const char *cu, *al;
    };
    const Row rows[] = {{15, "14", "12"},     {20, "12", "10"},      {60, "10", "8"},      {100, "8", "6"},
                        {200, "6", "4"},      {300, "4", "2"},       {400, "3", "1"},      {500, "2", "1/0"},
                        {600, "1", "2/0"},    {800, "1/0", "3/0"},   {1000, "2/0", "4/0"}, {1200, "3/0", "250"},
                        {1600, "4/0", "350"}, {2000, "250", "400"},  {2500, "350", "600"}, {3000, "400", "600"},
                        {4000, "500", "750"}, {5000, "700", "1250"}, {6000, "800", "1250"}};
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
    struct Row {
        const char* size;
        double cmil, cu, al;
    };
    const Row rows[] = {
        {"14", 4110, 3.14, 5.17},        {"12", 6530, 1.98, 3.25},         {"10", 10380, 1.24, 2.04},
        {"8", 16510, .778, 1.28},        {"6", 26240, .491, .808},         {"4", 41740, .308, .508},
        {"3", 52620, .245, .403},        {"2", 66360, .194, .319},         {"1", 83690, .154, .253},
        {"1/0", 105600, .122, .201},     {"2/0", 133100, .0967, .159},     {"3/0", 167800, .0766, .126},
        {"4/0", 211600, .0608, .100},    {"250", 250000, .0515, .0847},    {"300", 300000, .0429, .0707},
        {"350", 350000, .0367, .0605},   {"400", 400000, .0321, .0529},    {"500", 500000, .0258, .0424},
        {"600", 600000, .0214, .0353},   {"700", 700000, .0184, .0303},    {"750", 750000, .0171, .0282},
        {"800", 800000, .0161, .0265},   {"900", 900000, .0143, .0235},    {"1000", 1000000, .0129, .0212},
        {"1250", 1250000, .0103, .0169}, {"1500", 1500000, .00858, .0141}, {"1750", 1750000, .00735, .0121},
        {"2000", 2000000, .00643, .0106}};
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
    struct Row {
        const char* size;
        double xp, xs, cp, ca, cs, ap, aa, as;
    };
    const Row rows[] = {{"14", .058, .073, 3.1, 3.1, 3.1, 0, 0, 0},
                        {"12", .054, .068, 2.0, 2.0, 2.0, 3.2, 3.2, 3.2},
                        {"10", .050, .063, 1.2, 1.2, 1.2, 2.0, 2.0, 2.0},
                        {"8", .052, .065, .78, .78, .78, 1.3, 1.3, 1.3},
                        {"6", .051, .064, .49, .49, .49, .81, .81, .81},
                        {"4", .048, .060, .31, .31, .31, .51, .51, .51},
                        {"3", .047, .059, .25, .25, .25, .40, .41, .40},
                        {"2", .045, .057, .19, .20, .20, .32, .32, .32},
                        {"1", .046, .057, .15, .16, .16, .25, .26, .25},
                        {"1/0", .044, .055, .12, .13, .12, .20, .21, .20},
                        {"2/0", .043, .054, .10, .10, .10, .16, .16, .16},
                        {"3/0", .042, .052, .077, .082, .079, .13, .13, .13},
                        {"4/0", .041, .051, .062, .067, .063, .10, .11, .10},
                        {"250", .041, .052, .052, .057, .054, .085, .090, .086},
                        {"300", .041, .051, .044, .049, .045, .071, .076, .072},
                        {"350", .040, .050, .038, .043, .039, .061, .066, .063},
                        {"400", .040, .049, .033, .038, .035, .054, .059, .055},
                        {"500", .039, .048, .027, .032, .029, .043, .048, .045},
                        {"600", .039, .048, .023, .028, .025, .036, .041, .038},
                        {"750", .038, .048, .019, .024, .021, .029, .034, .031},
                        {"1000", .037, .046, .015, .019, .018, .023, .027, .025}};
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
    const auto rule = [](LoadKind k, Occupancy o = Occupancy::Other) -> const DemandRule& {
        return nec().demand(k, o);
    };
    using Steps = std::vector<std::pair<double, double>>;
    CHECK(rule(LoadKind::Receptacle).steps == Steps{{10000, 1}, {1e300, 0.5}});
    CHECK(rule(LoadKind::Lighting).steps == Steps{{1e300, 1}});
    CHECK(rule(LoadKind::Lighting, Occupancy::Dwelling).steps == Steps{{3000, 1}, {120000, 0.35}, {1e300, 0.25}});
    CHECK(rule(LoadKind::Lighting, Occupancy::Hotel).steps == Steps{{20000, 0.6}, {100000, 0.5}, {1e300, 0.35}});
    CHECK(rule(LoadKind::Lighting, Occupancy::Warehouse).steps == Steps{{12500, 1}, {1e300, 0.5}});
    CHECK(rule(LoadKind::Vehicle).minimumEach == 7200);
    CHECK(rule(LoadKind::Existing).factor == 1.25);
    CHECK(rule(LoadKind::Kitchen).factors == std::vector<double>{1, 1, .9, .8, .7, .65});
    const auto& range = rule(LoadKind::Range).demandByCount;
    REQUIRE(range.size() == 25);
    CHECK(std::vector<double>(range.begin(), range.begin() + 6) ==
          std::vector<double>{8000, 11000, 14000, 17000, 20000, 21000});
    for (std::size_t n = 6; n < 25; ++n) CHECK(range[n] == range[n - 1] + 1000);
    const auto& dryer = rule(LoadKind::Dryer).factors;
    REQUIRE(dryer.size() == 43);
    for (int n = 1; n <= 43; ++n) {
        const double typed = n <= 4    ? 100
                             : n == 5  ? 85
                             : n == 6  ? 75
                             : n == 7  ? 65
                             : n == 8  ? 60
                             : n == 9  ? 55
                             : n == 10 ? 50
                             : n == 11 ? 47
                             : n <= 23 ? 47 - (n - 11)
                             : n <= 42 ? 35 - 0.5 * (n - 23)
                                       : 25;
        INFO(n << " dryers");
        CHECK(dryer[std::size_t(n) - 1] * 100 == Approx(typed));
    }
}

TEST_CASE("NEC 430.248 and 430.250: full-load currents of motors, typed again by voltage") {
    struct Column {
        double volts;
        std::vector<double> amps;
    };
    const auto compare = [](bool three, const std::vector<double>& hps, const std::vector<Column>& columns) {
        const MotorTable& t = three ? nec().tables.motorThree : nec().tables.motorSingle;
        CHECK(t.rows.size() == hps.size());
        CHECK(t.volts.size() == columns.size());
        for (std::size_t c = 0; c < columns.size(); ++c) {
            CHECK(t.volts[c] == columns[c].volts);
            REQUIRE(columns[c].amps.size() == hps.size());
            for (std::size_t i = 0; i < hps.size(); ++i) {
                INFO(hps[i] << " hp, " << columns[c].volts << " V");
                CHECK(t.rows[i].hp == Approx(hps[i]).epsilon(1e-3));
                CHECK(t.rows[i].amps[c] == columns[c].amps[i]);
            }
        }
    };
    compare(false, {1 / 6., .25, 1 / 3., .5, .75, 1, 1.5, 2, 3, 5, 7.5, 10},
            {{115, {4.4, 5.8, 7.2, 9.8, 13.8, 16, 20, 24, 34, 56, 80, 100}},
             {200, {2.5, 3.3, 4.1, 5.6, 7.9, 9.2, 11.5, 13.8, 19.6, 32.2, 46, 57.5}},
             {208, {2.4, 3.2, 4, 5.4, 7.6, 8.8, 11, 13.2, 18.7, 30.8, 44, 55}},
             {230, {2.2, 2.9, 3.6, 4.9, 6.9, 8, 10, 12, 17, 28, 40, 50}}});
    compare(true, {.5, .75, 1,  1.5, 2,   3,   5,   7.5, 10,  15,  20,  25,  30, 40,
                   50, 60,  75, 100, 125, 150, 200, 250, 300, 350, 400, 450, 500},
            {{115, {4.4, 6.4, 8.4, 12, 13.6, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0}},
             {200, {2.5, 3.7, 4.8, 6.9, 7.8, 11,  17.5, 25.3, 32.2, 48.3, 62.1, 78.2, 92, 120,
                    150, 177, 221, 285, 359, 414, 552,  0,    0,    0,    0,    0,    0}},
             {208, {2.4, 3.5, 4.6, 6.6, 7.5, 10.6, 16.7, 24.2, 30.8, 46.2, 59.4, 74.8, 88, 114,
                    143, 169, 211, 273, 343, 396,  528,  0,    0,    0,    0,    0,    0}},
             {230, {2.2, 3.2, 4.2, 6,   6.8, 9.6, 15.2, 22, 28, 42, 54, 68, 80, 104,
                    130, 154, 192, 248, 312, 360, 480,  0,  0,  0,  0,  0,  0}},
             {460, {1.1, 1.6, 2.1, 3,   3.4, 4.8, 7.6, 11,  14,  21,  27,  34,  40, 52,
                    65,  77,  96,  124, 156, 180, 240, 302, 361, 414, 477, 515, 590}},
             {575, {.9, 1.3, 1.7, 2.4, 2.7, 3.9, 6.1, 9,   11,  17,  22,  27,  32, 41,
                    52, 62,  77,  99,  125, 144, 192, 242, 289, 336, 382, 412, 472}}});
    CHECK(nec().motorAmps(10, 480, true).value == 14);
    CHECK(nec().motorAmps(12, 480, true).value == 21); // the next row
    CHECK(nec().motorAmps(10, 277, false).value == 0); // no such column
    CHECK(nec().motorAmps(1. / 3, 120, false).value == 7.2);
    CHECK(nec().motorAmps(600, 480, true).value == 0);
}

TEST_CASE("NEC 430.52, 430.32, 440, 450.3(B), 460.8, 445.13, 310.12: shares, typed again") {
    const RuleTables& t = nec().tables;
    const auto device = [&](DeviceKind k) { return t.motorDevices.at(k); };
    CHECK(device(DeviceKind::Breaker).share == 2.5);
    CHECK(device(DeviceKind::Fuse).share == 3);
    CHECK(device(DeviceKind::TimeDelayFuse).share == 1.75);
    CHECK(device(DeviceKind::Breaker).ceiling == 4);
    CHECK(device(DeviceKind::Breaker).upTo == 100);
    CHECK(device(DeviceKind::Breaker).ceilingAbove == 3);
    CHECK(device(DeviceKind::TimeDelayFuse).ceiling == 2.25);
    CHECK(t.woundRotor == 1.5);
    CHECK(t.instantaneous == 8);
    CHECK(t.overloadServiceFactor == 1.25);
    CHECK(t.overload == 1.15);
    CHECK(t.hermeticDevice == 1.75);
    CHECK(t.hermeticConductor == 1.25);
    CHECK(bandOf(t.transformerPrimaryOnly, 9) == 1.25);
    CHECK(bandOf(t.transformerPrimaryOnly, 8.9) == 1.67);
    CHECK(bandOf(t.transformerPrimaryOnly, 1.9) == 3);
    CHECK(t.transformerPrimaryWithSecondary == 2.5);
    CHECK(bandOf(t.transformerSecondaryDevice, 9) == 1.25);
    CHECK(bandOf(t.transformerSecondaryDevice, 8) == 1.67);
    CHECK(t.capacitorConductor == 1.35);
    CHECK(t.generatorConductor == 1.15);
    CHECK(t.roofAdder == 33);
    CHECK(t.existingFactor == 1.25);
    // Table 310.12(A), printed sizes: 83 % of the rating in the 75 °C column of 310.16 gives each of them.
    struct Service {
        double amps;
        const char *cu, *al;
    };
    for (const Service& s : {Service{100, "4", "2"},
                             {110, "3", "1"},
                             {125, "2", "1/0"},
                             {150, "1", "2/0"},
                             {175, "1/0", "3/0"},
                             {200, "2/0", "4/0"},
                             {225, "3/0", "250"},
                             {250, "4/0", "300"},
                             {300, "250", "350"},
                             {350, "350", "500"},
                             {400, "400", "600"}})
        for (Material m : {Material::Copper, Material::Aluminium}) {
            SizeIndex least = 0;
            while (nec().ampacity(least, m, 75) < s.amps * t.dwellingServiceShare) ++least;
            INFO(s.amps << " A");
            CHECK(nec().sizes()[std::size_t(least)].name == (m == Material::Copper ? s.cu : s.al));
        }
}

TEST_CASE("NEC 250.66 and 250.102(C)(1): electrode conductors and jumpers, typed again") {
    struct Row {
        double cu, al;
        const char *ofCu, *ofAl;
    };
    const Row rows[] = {{66.36, 105.6, "8", "6"}, {105.6, 167.8, "6", "4"}, {167.8, 250, "4", "2"},
                        {350, 500, "2", "1/0"},   {600, 900, "1/0", "3/0"}, {1100, 1750, "2/0", "4/0"}};
    for (const Row& r : rows) {
        INFO(r.cu << " kcmil");
        for (bool jumper : {false, true}) {
            const auto of = [&](double kcmil, Material lines, Material own) {
                return nec()
                    .sizes()[std::size_t(jumper ? nec().jumperFor(kcmil, lines, own)
                                                : nec().bondingFor(kcmil, lines, own))]
                    .name;
            };
            CHECK(of(r.cu, Material::Copper, Material::Copper) == r.ofCu);
            CHECK(of(r.cu, Material::Copper, Material::Aluminium) == r.ofAl);
            CHECK(of(r.al, Material::Aluminium, Material::Copper) == r.ofCu);
        }
    }
    CHECK(nec().sizes()[std::size_t(nec().bondingFor(3000, Material::Copper, Material::Copper))].name == "3/0");
    CHECK(nec().sizes()[std::size_t(nec().jumperFor(1200, Material::Copper, Material::Copper))].name ==
          "3/0"); // 150 kcmil → 167.8
    CHECK(nec().sizes()[std::size_t(nec().jumperFor(2400, Material::Copper, Material::Copper))].name == "300");
}

TEST_CASE("NEC Chapter 9 Table 4: conduit, typed again as the 40 % column") {
    // Areas at 40 % fill, in², as the table prints them in that column.
    struct Type {
        const char* name;
        std::vector<std::pair<const char*, double>> forty;
    };
    const Type types[] = {{"EMT",
                           {{"1/2", .122},
                            {"3/4", .213},
                            {"1", .346},
                            {"1-1/4", .598},
                            {"1-1/2", .814},
                            {"2", 1.342},
                            {"2-1/2", 2.343},
                            {"3", 3.538},
                            {"3-1/2", 4.618},
                            {"4", 5.901}}},
                          {"IMC",
                           {{"1/2", .137},
                            {"3/4", .235},
                            {"1", .384},
                            {"1-1/4", .659},
                            {"1-1/2", .890},
                            {"2", 1.452},
                            {"2-1/2", 2.054},
                            {"3", 3.169},
                            {"3-1/2", 4.234},
                            {"4", 5.452}}},
                          {"RMC",
                           {{"1/2", .125},
                            {"3/4", .220},
                            {"1", .355},
                            {"1-1/4", .610},
                            {"1-1/2", .829},
                            {"2", 1.363},
                            {"2-1/2", 1.946},
                            {"3", 3.000},
                            {"3-1/2", 4.004},
                            {"4", 5.153},
                            {"5", 8.085},
                            {"6", 11.663}}},
                          {"PVC 40",
                           {{"1/2", .114},
                            {"3/4", .203},
                            {"1", .333},
                            {"1-1/4", .581},
                            {"1-1/2", .794},
                            {"2", 1.316},
                            {"2-1/2", 1.878},
                            {"3", 2.907},
                            {"3-1/2", 3.895},
                            {"4", 5.022},
                            {"5", 7.904},
                            {"6", 11.427}}},
                          {"PVC 80",
                           {{"1/2", .087},
                            {"3/4", .164},
                            {"1", .275},
                            {"1-1/4", .495},
                            {"1-1/2", .684},
                            {"2", 1.150},
                            {"2-1/2", 1.647},
                            {"3", 2.577},
                            {"3-1/2", 3.475},
                            {"4", 4.503},
                            {"5", 7.142},
                            {"6", 10.239}}},
                          {"FMC",
                           {{"3/8", .046},
                            {"1/2", .127},
                            {"3/4", .213},
                            {"1", .327},
                            {"1-1/4", .511},
                            {"1-1/2", .743},
                            {"2", 1.307},
                            {"2-1/2", 1.963},
                            {"3", 2.827},
                            {"3-1/2", 3.848},
                            {"4", 5.027}}},
                          {"LFMC",
                           {{"3/8", .077},
                            {"1/2", .125},
                            {"3/4", .216},
                            {"1", .349},
                            {"1-1/4", .611},
                            {"1-1/2", .792},
                            {"2", 1.298},
                            {"2-1/2", 1.953},
                            {"3", 2.990},
                            {"3-1/2", 3.893},
                            {"4", 5.077}}}};
    CHECK(nec().tables.conduits.size() == std::size(types));
    for (const Type& t : types) {
        const ConduitType* c = nec().conduit(t.name);
        REQUIRE(c);
        REQUIRE(c->sizes.size() == t.forty.size());
        for (std::size_t i = 0; i < t.forty.size(); ++i) {
            INFO(t.name << " " << t.forty[i].first);
            CHECK(c->sizes[i].name == t.forty[i].first);
            CHECK(c->sizes[i].area / 645.16 * 0.4 == Approx(t.forty[i].second).margin(0.00075));
        }
    }
    CHECK(nec().tables.fillOne == .53);
    CHECK(nec().tables.fillTwo == .31);
    CHECK(nec().tables.fillMore == .40);
}

TEST_CASE("NEC Chapter 9 Table 5: areas of insulated conductors, typed again") {
    struct Type {
        const char* name;
        int celsius;
        std::vector<double> in2;
    };
    // From 14 AWG on, in the order of the sizes.
    const Type types[] = {
        {"THHN", 90, {.0097, .0133, .0211, .0366, .0507, .0824, .0973, .1158, .1562,  .1855,  .2223,  .2679,
                      .3237, .3970, .4608, .5242, .5863, .7073, .8676, .9887, 1.0496, 1.1085, 1.2311, 1.3478}},
        {"XHHW-2", 90, {.0139,  .0181,  .0243,  .0437,  .0590,  .0814,  .0962,  .1146, .1534, .1825,
                        .2190,  .2642,  .3197,  .3904,  .4536,  .5166,  .5782,  .6984, .8709, .9923,
                        1.0532, 1.1122, 1.2351, 1.3519, 1.7180, 2.0157, 2.3127, 2.6073}},
        {"THW", 75, {.0209,  .0260,  .0333,  .0556,  .0726,  .0973,  .1134,  .1333, .1901, .2223,
                     .2624,  .3117,  .3718,  .4596,  .5281,  .5958,  .6619,  .7901, .9729, 1.1010,
                     1.1652, 1.2272, 1.3561, 1.4784, 1.8602, 2.1695, 2.4773, 2.7818}}};
    CHECK(nec().tables.insulations.size() == std::size(types));
    for (const Type& t : types) {
        const Insulation* x = nec().insulation(t.name);
        REQUIRE(x);
        CHECK(x->celsius == t.celsius);
        CHECK(x->area.size() == t.in2.size());
        for (std::size_t i = 0; i < t.in2.size(); ++i) {
            INFO(t.name << " " << sizes310[i]);
            CHECK(x->area.at(sizes310[i]) / 645.16 == Approx(t.in2[i]));
        }
    }
}

TEST_CASE("NEC 310.17 and 310.20: in free air and on a messenger, typed again by column") {
    const auto column = [](Wiring w, Material m, int celsius, const std::string& from, const Column& typed) {
        SizeIndex s = nec().find(from);
        for (double amps : typed) {
            while (nec().sizes()[std::size_t(s)].name == "700" || nec().sizes()[std::size_t(s)].name == "800" ||
                   nec().sizes()[std::size_t(s)].name == "900")
                ++s; // not entered: no impedance
            INFO(nec().ampacityTable(w) << " " << wordOf(m) << " " << celsius << " °C, "
                                        << nec().sizes()[std::size_t(s)].name);
            CHECK(nec().ampacity(s, m, celsius, w) == amps);
            ++s;
        }
    };
    column(Wiring::FreeAir, Material::Copper, 60, "14",
           {25, 30, 40, 60, 80, 105, 120, 140, 165, 195, 225, 260, 300, 340, 375, 420, 455, 515, 575, 655, 780});
    column(Wiring::FreeAir, Material::Copper, 75, "14",
           {30, 35, 50, 70, 95, 125, 145, 170, 195, 230, 265, 310, 360, 405, 445, 505, 545, 620, 690, 785, 935});
    column(Wiring::FreeAir, Material::Copper, 90, "14",
           {35, 40, 55, 80, 105, 140, 165, 190, 220, 260, 300, 350, 405, 455, 500, 570, 615, 700, 780, 885, 1055});
    column(Wiring::FreeAir, Material::Aluminium, 75, "12",
           {30, 40, 55, 75, 100, 115, 135, 155, 180, 210, 240, 280, 315, 350, 395, 425, 485, 545, 620, 750});
    column(Wiring::FreeAir, Material::Aluminium, 90, "12",
           {35, 45, 60, 85, 115, 130, 150, 175, 205, 235, 270, 315, 355, 395, 445, 480, 545, 615, 700, 845});
    column(Wiring::Messenger, Material::Copper, 75, "8",
           {57, 76, 101, 118, 135, 158, 183, 212, 245, 287, 320, 359, 397, 430, 496, 553, 638, 748});
    column(Wiring::Messenger, Material::Copper, 90, "8",
           {66, 89, 117, 138, 158, 185, 214, 247, 287, 335, 374, 419, 464, 503, 580, 647, 747, 879});
    column(Wiring::Messenger, Material::Aluminium, 75, "8",
           {44, 59, 78, 92, 106, 123, 143, 165, 192, 224, 251, 282, 312, 339, 392, 440, 512, 612});
    column(Wiring::Messenger, Material::Aluminium, 90, "8",
           {51, 69, 91, 107, 123, 144, 167, 193, 224, 262, 292, 328, 364, 395, 458, 514, 598, 716});
    CHECK_THAT(nec().ampacityTable(Wiring::FreeAir), Catch::Contains("unverified")); // shown wherever it has an effect
    // Physics: in free air a conductor carries more than in a raceway.
    for (SizeIndex s = 0; s < SizeIndex(nec().sizes().size()); ++s)
        if (nec().ampacity(s, Material::Copper, 75, Wiring::FreeAir) > 0)
            CHECK(nec().ampacity(s, Material::Copper, 75, Wiring::FreeAir) > nec().ampacity(s, Material::Copper, 75));
}

TEST_CASE("NEC 220.42(A), 220.84(B), 220.52, 220.43: areas and dwellings, typed again") {
    const RuleTables& t = nec().tables;
    struct Group {
        double va;
        std::vector<const char*> of;
    };
    std::size_t known = 0;
    for (const Group& g :
         {Group{0.3, {"parking"}},
          {1.2, {"penitentiary", "transport", "warehouse"}},
          {1.3, {"fire station", "office", "police station"}},
          {1.4, {"convention", "courthouse", "exercise", "town hall"}},
          {1.5, {"automotive", "dormitory", "library", "theatre", "restaurant", "school", "sports arena"}},
          {1.6, {"clinic", "hospital", "cinema", "museum", "post office"}},
          {1.7, {"gymnasium", "hotel", "workshop"}},
          {1.9, {"retail"}},
          {2.2, {"manufacturing", "religious"}}})
        for (const char* o : g.of) {
            INFO(o);
            CHECK(nec().areaLighting(o) == g.va);
            ++known;
        }
    CHECK(t.areaLighting.size() == known);
    CHECK(t.dwellingLighting == 3);
    CHECK(t.smallAppliance == 1500);
    CHECK(t.laundry == 1500);
    CHECK(t.showWindow == 200);
    CHECK(t.signLeast == 1200);
    CHECK(t.receptacleOutlet == 180);
    const std::vector<std::pair<int, int>> firsts{{3, 45},  {6, 44},  {8, 43},  {11, 42}, {12, 41}, {14, 40},
                                                  {16, 39}, {18, 38}, {21, 37}, {22, 36}, {24, 35}, {26, 34},
                                                  {28, 33}, {31, 32}, {32, 31}, {34, 30}, {37, 29}, {39, 28},
                                                  {43, 27}, {46, 26}, {51, 25}, {56, 24}, {62, 23}};
    REQUIRE(t.multifamily.size() == firsts.size());
    for (std::size_t i = 0; i < firsts.size(); ++i) {
        CHECK(t.multifamily[i].value * 100 == Approx(firsts[i].second));
        if (i + 1 < firsts.size()) CHECK(t.multifamily[i].upTo == firsts[i + 1].first - 1);
    }
}

TEST_CASE("220.83, 220.86, 220.88 and 630.11, typed a second time") {
    const RuleTables& t = nec().tables;
    CHECK(t.existingFirst == 8000);
    CHECK(t.existingRest == 0.4);
    REQUIRE(t.school.size() == 3);
    CHECK((t.school[0].upTo == 3 && t.school[0].value == 1));
    CHECK((t.school[1].upTo == 20 && t.school[1].value == 0.75));
    CHECK(t.school[2].value == 0.25);
    // Table 220.88, all electric and not all electric: 80 %; 10 % over 200 + 160; 50 % over 325 + 172.5; 50 % over 800
    // + 410 …
    const double electric[][3] = {{0, 0.8, 0}, {160, 0.1, 200}, {172.5, 0.5, 325}, {410, 0.5, 800}};
    const double mixed[][3] = {{0, 1, 0}, {200, 0.5, 200}, {262.5, 0.45, 325}, {476.3, 0.2, 800}};
    for (std::size_t i = 0; i < 4; ++i) {
        CHECK((t.restaurantElectric[i].base == electric[i][0] && t.restaurantElectric[i].share == electric[i][1] &&
               t.restaurantElectric[i].from == electric[i][2]));
        CHECK((t.restaurantMixed[i].base == mixed[i][0] && t.restaurantMixed[i].share == mixed[i][1] &&
               t.restaurantMixed[i].from == mixed[i][2]));
    }
    // 630.11(A): the factors of nonmotor welders are the square roots of their duty cycles.
    const double generator[] = {0.55, 0.62, 0.69, 0.75, 0.81, 0.86, 0.91, 0.96, 1};
    for (std::size_t i = 0; i < 9; ++i) {
        CHECK(t.welderNonmotor[i].upTo == 20 + 10.0 * double(i));
        CHECK(t.welderNonmotor[i].value == Approx(std::sqrt(t.welderNonmotor[i].upTo / 100)).margin(0.006));
        CHECK(t.welderGenerator[i].value == generator[i]);
    }
    CHECK(t.welderShares == std::vector<double>{1, 1, 0.85, 0.7, 0.6});
    // 630.31(A): the roots of the duty cycles again.
    const double duty[] = {5, 7.5, 10, 15, 20, 25, 30, 40, 50},
                 factor[] = {0.22, 0.27, 0.32, 0.39, 0.45, 0.50, 0.55, 0.63, 0.71};
    REQUIRE(t.resistanceWelder.size() == 9);
    for (std::size_t i = 0; i < 9; ++i) {
        CHECK(t.resistanceWelder[i].upTo == duty[i]);
        CHECK(t.resistanceWelder[i].value == factor[i]);
        CHECK(factor[i] == Approx(std::sqrt(duty[i] / 100)).margin(0.005));
    }
    CHECK(t.resistanceAutomatic == 0.7);
    CHECK(t.resistanceManual == 0.5);
    CHECK(t.resistanceOthers == 0.6);
}
