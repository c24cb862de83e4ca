#pragma once
// What the trade of a book's region calls things, on which papers it draws, and what a board there usually is: the book
// says it ("trade"), so that sheets, lists and labels need not know which book they are for. No figure rests on it.

#include "core/base/EnumText.h"
#include "core/project/Choices.h"
#include "core/project/VoltageSystem.h"

#include <nlohmann/json_fwd.hpp>

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace lintel {

enum class TradeWord : std::uint8_t {
    Device,             ///< that protects a circuit, as a heading
    DevicesInBoards,    ///< all of them, as a heading of the take-off
    Receptacles,        ///< as a kind of load
    Ranges,             ///< as a kind of load
    Raceway,            ///< or what takes its place, as a heading
    ConductorsOfSet,    ///< as a heading; whether the protective conductor stands in it, too
    Protective,         ///< the protective conductor, as a heading
    ConductorSchedule,  ///< title of the list of conductors
    SizeUnit,           ///< of conductors
    Grounding,          ///< title of the list of what is grounded and bonded
    ElectrodeConductor, ///< as a heading of that list
    Bonding,            ///< main bonding or bonding jumper
    ToElectrode,        ///< the conductor to the electrode, as a label
    EndOfElectrode,     ///< where it goes to: "to …"
    Earth,              ///< where an earth fault goes to: "line to …"
    Schedule,           ///< of a board, as a title
    Schedules,          ///< of several
    ScheduleHeading,    ///< in capitals, above one
    DoorCard,           ///< title of the card in a board's door
    MainDevice,         ///< of a board: "Main …", "400 A …"
    NoMain,             ///< of a board that has none
    FeederDevice,       ///< legend of the riser
    DirectStarter,
    StarDeltaStarter,
    Drive,
    DirectStarterSign,
    ReversingStarterSign,
    DriveSign,
    LineA, ///< headings of the lines where boards of several systems stand in one list
    LineB,
    LineC
};
inline constexpr std::size_t tradeWords = std::size_t(TradeWord::LineC) + 1;
/// By the names that a book's "words" have.
template <> struct EnumText<TradeWord> {
    static constexpr std::pair<TradeWord, const char*> words[] = {
        {TradeWord::Device, "device"},
        {TradeWord::DevicesInBoards, "devicesInBoards"},
        {TradeWord::Receptacles, "receptacles"},
        {TradeWord::Ranges, "ranges"},
        {TradeWord::Raceway, "raceway"},
        {TradeWord::ConductorsOfSet, "conductorsOfSet"},
        {TradeWord::Protective, "protective"},
        {TradeWord::ConductorSchedule, "conductorSchedule"},
        {TradeWord::SizeUnit, "sizeUnit"},
        {TradeWord::Grounding, "grounding"},
        {TradeWord::ElectrodeConductor, "electrodeConductor"},
        {TradeWord::Bonding, "bonding"},
        {TradeWord::ToElectrode, "toElectrode"},
        {TradeWord::EndOfElectrode, "endOfElectrode"},
        {TradeWord::Earth, "earth"},
        {TradeWord::Schedule, "schedule"},
        {TradeWord::Schedules, "schedules"},
        {TradeWord::ScheduleHeading, "scheduleHeading"},
        {TradeWord::DoorCard, "doorCard"},
        {TradeWord::MainDevice, "mainDevice"},
        {TradeWord::NoMain, "noMain"},
        {TradeWord::FeederDevice, "feederDevice"},
        {TradeWord::DirectStarter, "directStarter"},
        {TradeWord::StarDeltaStarter, "starDeltaStarter"},
        {TradeWord::Drive, "drive"},
        {TradeWord::DirectStarterSign, "directStarterSign"},
        {TradeWord::ReversingStarterSign, "reversingStarterSign"},
        {TradeWord::DriveSign, "driveSign"},
        {TradeWord::LineA, "lineA"},
        {TradeWord::LineB, "lineB"},
        {TradeWord::LineC, "lineC"}};
};

struct Trade {
    const std::string& word(TradeWord w) const { return words[std::size_t(w)]; }
    std::array<std::string, tradeWords> words;

    struct Papers {
        std::string drawing;      ///< of plans, composed sheets, long lists
        std::string small;        ///< of diagrams of boards, of a short index
        std::string text;         ///< of reports
        std::string schedule;     ///< of one board
        std::string longSchedule; ///< of one with more rows than `schedule` holds
        std::string doorCard;
        std::vector<std::string> riser; ///< the smallest first
    } papers;

    /// A board that is made where nothing else says what it should be.
    struct UsualBoard {
        VoltageSystem system = VoltageSystem::Y208;
        std::string name;
        BoardForm form = BoardForm::TwoColumn;
        std::vector<int> places;   ///< slots that such boards are made with, rising
        std::vector<double> buses; ///< A, of the buses that boards are made with, rising
        /// The smallest bus that carries so much; nothing: none is made.
        std::optional<double> busFor(double amps) const;
        std::string forms; ///< file of the schedule forms that ship for it
    } board;

    /// Throws what is missing or cannot be, as the reading of a book does.
    static Trade read(const nlohmann::json& book, const std::string& name);
};

} // namespace lintel
