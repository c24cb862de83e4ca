#pragma once
// Pages of text and tables in the paper of the country: what they are and the job above, what they rest on and the page
// below. Workings and reports are made of them.

#include "core/drawing/Drawing.h"
#include "core/project/Project.h"
#include "core/rules/RuleBook.h"

#include <functional>

namespace lintel {

/// What stands above and below each page.
struct SheetHead {
    std::string job, jobNumber, company, designer, date;
    std::string rests; ///< the rule book, and what in it is unverified or the project's own
    std::string paper = "Letter";
};
SheetHead sheetHead(const Project& project, const RuleBook& book);
SheetHead sheetHead(const std::string& job, const std::string& company, const RuleBook& book);

/// Filled from the top; all lengths in mm.
class TextPages {
public:
    static constexpr double margin = 16;

    /// `kind`: in the corner of each page, "WORKING"; `title`: of the drawings.
    TextPages(std::string kind, std::string title, SheetHead head);

    std::vector<Drawing> all;
    double y = 0; ///< base line of what comes next

    /// A new page, on its side or upright; `opened` hears of it and may write what each page begins with.
    void begin(bool onItsSide = false);
    std::function<void()> opened;
    /// A new page like the last one where there is not so much room left.
    void need(double height) {
        if (all.empty() || y + height > bottom()) begin(!all.empty() && sideways);
    }
    Drawing& page() { return all.back(); }
    bool onItsSide() const { return sideways; }
    double right() const { return all.back().width - margin; }
    double width() const { return all.back().width - 2 * margin; }
    double bottom() const { return all.back().height - 30; }

    /// Lines broken between words.
    void paragraph(const std::string& text, Ink ink = Ink::Ink, bool bold = false);
    /// The foot of each page with its number, and on the last one places for signatures.
    void finish(bool signatures);

private:
    std::string kind, title;
    SheetHead head;
    bool sideways = false;
};

} // namespace lintel
