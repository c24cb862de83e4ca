#pragma once
// What offices write into the conductor column of a schedule, taken apart: "(2) 4#500, #2G, 3"C", "3 × 2.5 mm²".

#include "core/base/Error.h"
#include "core/project/Choices.h"

#include <optional>
#include <string>

namespace lintel {

struct ListedConductors {
    int sets = 0;             ///< 0: not said
    int conductors = 0;       ///< of each set, the protective one not counted; 0: not said
    std::string size, ground; ///< as rule books name them; empty: not said
    std::optional<Material> material;
    std::string conduitType, conduit; ///< "EMT", "2-1/2"; empty: not said
    bool guessed = false; ///< "4 × 25": taken as four conductors where it could be four sets, or the other way about
};

/// Sets first where they are said ("(2)", "2 sets of", "2 runs"), then the conductors, the protective conductor (marked
/// G, GND, EG, E, CPC or PE) and the conduit (marked C, by inches, or by its type), parted by commas, semicolons or +.
/// A neutral of a size of its own ("#2N") is refused, as is everything else: nothing is passed over.
Outcome<ListedConductors> readConductors(const std::string& text);

/// A protective conductor by itself: "#2", "2 G", "16 mm²".
Outcome<std::string> readGround(const std::string& text);

struct ListedConduit {
    std::string type, size;
};
/// A conduit by itself: "2-1/2", "3\"C", "2 in EMT", "EMT 1 1/4\"", "53 mm". The size as trade sizes are named.
Outcome<ListedConduit> readConduit(const std::string& text);

} // namespace lintel
