#pragma once
// Checking a design: every figure that matters, what somebody has ticked as seen, and remarks with their answers. A
// tick holds the value that was seen; it falls off by itself when that is another one.

#include "core/check/Check.h"

namespace lintel {

/// Something to look at.
struct ReviewFigure {
    Ref about;           ///< nothing: the basis
    std::string figure;  ///< "fault level": with `about` it is this one and no other
    std::string thing;   ///< "LP-1"; "Basis"
    std::string value;   ///< "5.52 kA of 10"
    double nearness = 0; ///< how near it is to what is allowed: above 1 it is over; 0: nothing limits it
    Ref node;            ///< board, transformer or source under which it is looked at; nothing: the basis
};

/// In the order of the feed: basis, supplies, then what hangs on them, boards with their circuits by place.
std::vector<ReviewFigure> reviewFigures(const CheckInput& in);

enum class TickState { NotYet, Ticked, FellOff };
struct ReviewItem : ReviewFigure {
    TickState state = TickState::NotYet;
    std::string by, date; ///< of the newest tick
    std::string was;      ///< what it was when it was ticked, where that is another value
};
/// Figures with the ticks that a project holds by now.
std::vector<ReviewItem> withTicks(const std::vector<ReviewFigure>& figures, const Project& ticks);
inline std::vector<ReviewItem> reviewItems(const CheckInput& in) { return withTicks(reviewFigures(in), in.project); }
/// The places of the items, what is nearest to what is allowed first.
std::vector<std::size_t> worstFirst(const std::vector<ReviewItem>& items);

/// Records that somebody has seen it as it is, in place of earlier ticks of theirs; `by` must not be empty.
void setTick(Project& project, const ReviewFigure& figure, const std::string& by, const std::string& date);
/// Takes the ticks of it away: those of one person, or all.
void removeTicks(Project& project, const ReviewFigure& figure, const std::string& by = "");

/// A remark about a figure, or about the thing as a whole where it is none.
RemarkId addRemark(Project& project, const ReviewFigure& about, const std::string& text, const std::string& by,
                   const std::string& date);
/// What a remark is about, as it is called now; as it was called then, where it is gone.
std::string aboutWords(const Project& project, const Remark& remark);

struct ReviewCount {
    int all = 0, ticked = 0, fellOff = 0, remarks = 0, open = 0; ///< open: remarks that are not closed
};
ReviewCount reviewCount(const std::vector<ReviewItem>& items, const Project& project);

} // namespace lintel
