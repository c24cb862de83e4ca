#include "core/project/Slots.h"

namespace lintel {

int lineOfSlot(const Board& b, int slot) {
    const int lines = factsOf(b.system).lines;
    if (b.form == BoardForm::TwoColumn) return ((slot + 1) / 2 - 1) % lines;
    return (slot - 1) % lines;
}

int slotOfPole(const Board& b, int slot, int pole, int poles) {
    if (slot < 1) return 0;
    if (b.form == BoardForm::Ways && poles > 1 && (slot - 1) % 3 + poles > 3)
        return 0; // a device does not straddle two ways
    const int s = slot + pole * (b.form == BoardForm::TwoColumn ? 2 : 1);
    return s <= b.slots ? s : 0;
}

std::vector<int> slotsTaken(const Board& b, int slot, int poles) {
    std::vector<int> taken;
    for (int i = 0; i < poles; ++i) {
        const int s = slotOfPole(b, slot, i, poles);
        if (!s) return {};
        taken.push_back(s);
    }
    return taken;
}

} // namespace lintel
