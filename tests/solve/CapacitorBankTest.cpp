#include "core/solve/CapacitorBank.h"
#include "core/project/Validation.h"
#include "tests/World.h"

using namespace lintel;

TEST_CASE("a capacitor bank for a board, from the load that it has, and the board with the bank then") {
    OneBoard w(VoltageSystem::Y480);
    w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 800;
    w.circuit(300, LoadUnit::kW, 3, 20, LoadKind::Equipment, false, 0.75);
    const Results r = w.solved();
    const auto bank = capacitorBankFor(w.p, nec(), r, w.board, 0.95);
    REQUIRE(bank);
    // 300 kW at 0.75: tan 41.41° = 0.8819, 264.6 kvar, 400 kVA, 481.1 A at 480 V.
    CHECK(bank->powerFactor == Approx(0.75));
    CHECK(bank->kvar == Approx(264.57).epsilon(1e-4));
    CHECK(bank->ampsBefore == Approx(481.1).epsilon(1e-3));
    // 0.95: tan 18.19° = 0.3287, 98.6 kvar may be left: 166.0 kvar, the next step is 175.
    CHECK(bank->needed == Approx(165.97).epsilon(1e-3));
    CHECK(bank->bank == 175);
    // √(300² + 89.57²) = 313.1 kVA: 0.958, 376.6 A.
    CHECK(bank->after == Approx(0.9582).epsilon(1e-3));
    CHECK(bank->ampsAfter == Approx(376.6).epsilon(1e-3));
    // 175 kvar: 210.5 A, and 135 % of it for its conductors (460.8(A)).
    CHECK(bank->ampsOfBank == Approx(210.5).epsilon(1e-3));
    CHECK(bank->conductorAmps == Approx(284.2).epsilon(1e-3));
    // 20 kA at 480 V are 16 628 kVA: √(16 628 / 175) = 9.75.
    CHECK(bank->order == Approx(9.75).epsilon(5e-3));
    CHECK(bank->nearHarmonic == 0);
    // Put there, the board has what was said.
    const auto made = addCapacitorBank(w.p, w.board, bank->bank);
    REQUIRE(made);
    REQUIRE_FALSE(validate(w.p));
    const Results then = w.solved();
    CHECK(then.of(w.board).demandAmps.v == Approx(bank->ampsAfter).epsilon(1e-3));
    CHECK(then.of(*made).required.v == Approx(bank->conductorAmps).epsilon(1e-3));
    CHECK(w.p.circuits[*made].name == "Capacitor bank");
    const auto more = capacitorBankFor(w.p, nec(), then, w.board, 0.95);
    REQUIRE_FALSE(more);
    CHECK(more.error().what == "its power factor is 0.958 already");
    // More than the largest step: several of it.
    OneBoard large(VoltageSystem::Y480);
    large.circuit(2000, LoadUnit::kW, 3, 20, LoadKind::Equipment, false, 0.7);
    CHECK(capacitorBankFor(large.p, nec(), large.solved(), large.board, 0.98)->bank == 1800); // 1634: three of 600
}

TEST_CASE("a capacitor bank is refused where there is nothing to raise, or no place") {
    OneBoard w(VoltageSystem::Y480);
    CHECK(capacitorBankFor(w.p, nec(), w.solved(), w.board, 0.95).error().what == "it carries no load");
    OneBoard single(VoltageSystem::S240);
    single.circuit(10, LoadUnit::kW, 2, 20, LoadKind::Equipment, false, 0.7);
    CHECK(capacitorBankFor(single.p, nec(), single.solved(), single.board, 0.95).error().what ==
          "capacitors hang between three lines, and it has 2");
    OneBoard full(VoltageSystem::Y480, 6);
    full.circuit(5, LoadUnit::kW, 3, 20);
    full.circuit(5, LoadUnit::kW, 3, 20);
    const Project before = full.p;
    CHECK_FALSE(addCapacitorBank(full.p, full.board, 20));
    CHECK(full.p == before);
    // Three places are enough.
    OneBoard justRoom(VoltageSystem::Y480, 6);
    justRoom.circuit(5, LoadUnit::kW, 3, 20);
    const auto made = addCapacitorBank(justRoom.p, justRoom.board, 20);
    REQUIRE(made);
    CHECK(justRoom.p.circuits[*made].slot > 0);
}
