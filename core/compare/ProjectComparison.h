#pragma once
// Two states of a project side by side, in words: what was entered differently, and what merely follows from it. Two
// files, an issue and today, ours and theirs.

#include "core/check/Check.h"
#include "core/compare/EnteredChanges.h"

namespace lintel {

/// A result that comes out differently, with the reason as far as its own inputs tell it.
struct FollowedChange {
    /// Device: a breaker or fuse; Size: conductors or protective conductor; Figure: demand, fault level, drop.
    enum class Weight { Device, Size, Figure };
    Weight weight = Weight::Figure;
    Ref thing;
    std::string name, group;
    std::string before, after; ///< "20 A, #12"
    std::string because;       ///< "the load rose from 16.7 to 20.8 A"; empty: nothing of its own differs
    double share = 0;          ///< of what it was, by how much a device, an area of copper or a figure differs

    /// "LP-1-17 Fryer: 20 A, #12 → 25 A, #10, because the load rose from 16.7 to 20.8 A"
    std::string text() const;
};

/// What has changed of one board, or one part of the work.
struct ChangeGroup {
    std::string name;
    std::vector<const EnteredChange*> entered;
    std::vector<const FollowedChange*> follows;
};

struct ProjectComparison {
    std::vector<EnteredChange> entered;
    /// By group, that with the weightiest first; in it the weightiest first, of one weight that which differs most.
    std::vector<FollowedChange> follows;
    std::vector<std::string> newSnags, gone, otherwise; ///< otherwise: there still, with other figures
    bool strangers = false; ///< more than half of all things differ: hardly two states of one project

    bool nothing() const {
        return entered.empty() && follows.empty() && newSnags.empty() && gone.empty() && otherwise.empty();
    }
    /// All of it by group, in the order in which it is read: the basis, the weightiest of what follows, what else was
    /// entered. It points at what is here.
    std::vector<ChangeGroup> grouped() const;
    /// "4 entered · 2 devices, 3 sizes follow · 1 new snag"
    std::string summary() const;
    /// All of it, a heading for each group.
    std::string text() const;
    nlohmann::ordered_json json() const;
};

ProjectComparison compareProjects(const CheckInput& before, const CheckInput& after);

} // namespace lintel
