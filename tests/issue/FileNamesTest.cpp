// How the files of an issue are called: by a pattern, in names that every system takes.

#include "core/issue/FileNames.h"

#include <catch2/catch.hpp>

using namespace lintel;

TEST_CASE("names of files: places are filled, and what a system refuses in a name is not in it") {
    Project p;
    p.basis.jobNumber = "SH-204";
    p.basis.title = "Hall: A/B <phase 2>";
    p.basis.issue = "T1";
    p.basis.issueDate = "2026-11-30";
    p.basis.status = "For tender";
    CHECK(fileNameOf(usualFilePattern, p, "E-101 Ground floor lighting") == "SH-204-T1 E-101 Ground floor lighting");
    CHECK(fileNameOf("{date} {status}, {title} {what}", p, "lists") ==
          "2026-11-30 For tender, Hall_ A_B _phase 2_ lists");
    // What is empty leaves no sign behind at the front.
    p.basis.jobNumber = "";
    CHECK(fileNameOf(usualFilePattern, p, "lists") == "T1 lists");
    CHECK(fileNameOf("{what}", p, "..") == "files");
    CHECK(fileNameOf("{what}", p, ".hidden") == "_hidden");
    CHECK(fileNameOf("{what}", p, "a\nb\tc|d?e*f\"g\\h") == "a_b_c_d_e_f_g_h");
    CHECK(fileNameOf("{what}", p, "Außenbeleuchtung Ø 5") == "Außenbeleuchtung Ø 5");
    // Long names are cut, and the file's own name last.
    p.basis.title = std::string(400, 'x');
    const std::string cut = fileNameOf("{title} {issue} {what}", p, "E-101 Ground floor lighting");
    CHECK(cut.size() <= 180);
    CHECK(cut.find("E-101 Ground floor lighting") != std::string::npos);
}

TEST_CASE("names of files: a pattern that cannot be one is refused with what it may hold") {
    CHECK_FALSE(refuseFilePattern(usualFilePattern));
    CHECK_FALSE(refuseFilePattern("{what}"));
    CHECK(refuseFilePattern("")->help == "Put {what} where the file's own name goes.");
    CHECK(refuseFilePattern("{job}")->what == "all files would have one name");
    CHECK(refuseFilePattern("{jobb} {what}")->what == "there is no place {jobb}");
    CHECK(refuseFilePattern("{jobb} {what}")->help.find("{job}, {title}") != std::string::npos);
    CHECK(refuseFilePattern("{what")->what == "a brace is not closed");
    CHECK(refuseFilePattern("what}")->what == "a brace is closed that was not opened");
}

TEST_CASE("names of files: no two of one folder are alike, whatever their capitals") {
    UniqueNames names;
    CHECK(names.of("Plan", ".pdf") == "Plan.pdf");
    CHECK(names.of("PLAN", ".pdf") == "PLAN (2).pdf");
    CHECK(names.of("plan", ".pdf") == "plan (3).pdf");
    CHECK(names.of("Plan", ".dxf") == "Plan.dxf");
}
