#pragma once
// The lines below "then" of a fault sum, as people write them: "run 100 ft 500 kcmil x2 copper steel",
// "2 × 250 kcmil Al, 120' in PVC", "transformer 75 kVA 4.5 % X/R 2 208Y/120". Every word is read or the line is
// refused.

#include "core/project/VoltageSystem.h"
#include "core/rules/RuleBook.h"

namespace lintel {

struct PathRun {
    Metres length;
    SizeIndex size = -1;
    int sets = 1;
    Material material = Material::Copper;
    Raceway raceway = Raceway::Steel;
};
struct PathTransformer {
    double kva = 0, percentZ = 0, xOverR = 2;
    VoltageSystem secondary;
};

/// What stands behind "run". The Error says which word is not understood or what is missing, and how a line is written.
Outcome<PathRun> readPathRun(const std::string& text, const RuleBook& book);
/// What stands behind "transformer". Numbers need their units; X/R is 2 where it is not said.
Outcome<PathTransformer> readPathTransformer(const std::string& text);

} // namespace lintel
