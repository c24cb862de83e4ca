#pragma once
// What a PDF of the window's library becomes: with outline, page labels, links and facts, without the time at which it
// was made, its objects and fonts in an order that is the same each time, and to be kept for decades (PDF/A-2b,
// ISO 19005-2: colours by a profile in the file, facts in XMP that say what the file says of itself elsewhere). Nothing
// of the rest of the program is needed here: the library behind it wants an older standard of the language.

#include "core/sheets/Bookmarks.h"

#include <string>
#include <vector>

namespace lintel {

struct PdfFinish {
    std::string title, author, subject; ///< UTF-8; empty: not said
    std::string day;                    ///< "20261130"; empty: none
    std::vector<std::string> labels;    ///< of the pages; empty: they are counted
    std::vector<double> heights;        ///< of the pages, mm
    std::vector<Bookmark> bookmarks;
    std::vector<PageLink> links;
    std::string profile; ///< ICC bytes of what red, green and blue are; empty: the file does not say that it is PDF/A
};

/// The bytes of a PDF, finished. Throws std::exception where they are none.
std::string finishedPdf(const char* bytes, std::size_t size, const PdfFinish& finish);

} // namespace lintel
