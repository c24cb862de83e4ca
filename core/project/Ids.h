#pragma once
// Short stable names for things in the project. Each kind has a type of its own, so ids cannot be mixed up.

#include <compare>
#include <cstdint>
#include <string>

namespace lintel {

/// `value` 0 means "none". Ids are never meaningful beyond one project.
template <class Thing> struct Id {
    std::uint32_t value = 0;
    constexpr auto operator<=>(const Id&) const = default;
    constexpr explicit operator bool() const { return value != 0; }
};

using LevelId = Id<struct Level>;
using WallId = Id<struct Wall>;
using RoomId = Id<struct Room>;
using DeviceTypeId = Id<struct DeviceType>;
using DeviceId = Id<struct Device>;
using SourceId = Id<struct Source>;
using TransformerId = Id<struct Transformer>;
using BoardId = Id<struct Board>;
using CircuitId = Id<struct Circuit>;
using RunId = Id<struct Run>;
using LoadId = Id<struct Load>;
using SectionId = Id<struct Section>;
using UnderlayId = Id<struct Underlay>;
using OpeningId = Id<struct Opening>;
using FurnishingId = Id<struct Furnishing>;
using RecipeId = Id<struct Recipe>;
using CatchmentId = Id<struct Catchment>;
using TrayId = Id<struct Tray>;
using FormId = Id<struct ScheduleForm>;
using IssueId = Id<struct Issue>;
using TickId = Id<struct Tick>;
using RemarkId = Id<struct Remark>;
using SheetNumberId = Id<struct SheetNumber>;
using RiserPlaceId = Id<struct RiserPlace>;
using ComposedSheetId = Id<struct ComposedSheet>;
using PlacedViewId = Id<struct PlacedView>;
using ListFormId = Id<struct ListForm>;
using KeyedNoteId = Id<struct KeyedNote>;

/// The letter that ids of a kind begin with in files: board 3 is "B3".
template <class Thing> inline constexpr char idLetter = '?';
template <> inline constexpr char idLetter<Level> = 'V';
template <> inline constexpr char idLetter<Wall> = 'W';
template <> inline constexpr char idLetter<Room> = 'M';
template <> inline constexpr char idLetter<DeviceType> = 'Y';
template <> inline constexpr char idLetter<Device> = 'D';
template <> inline constexpr char idLetter<Source> = 'S';
template <> inline constexpr char idLetter<Transformer> = 'T';
template <> inline constexpr char idLetter<Board> = 'B';
template <> inline constexpr char idLetter<Circuit> = 'C';
template <> inline constexpr char idLetter<Run> = 'R';
template <> inline constexpr char idLetter<Load> = 'L';
template <> inline constexpr char idLetter<Section> = 'N';
template <> inline constexpr char idLetter<Underlay> = 'U';
template <> inline constexpr char idLetter<Opening> = 'O';
template <> inline constexpr char idLetter<Furnishing> = 'F';
template <> inline constexpr char idLetter<Recipe> = 'E';
template <> inline constexpr char idLetter<Catchment> = 'K';
template <> inline constexpr char idLetter<Tray> = 'Q';
template <> inline constexpr char idLetter<ScheduleForm> = 'P';
template <> inline constexpr char idLetter<Issue> = 'I';
template <> inline constexpr char idLetter<Tick> = 'X';
template <> inline constexpr char idLetter<Remark> = 'Z';
template <> inline constexpr char idLetter<SheetNumber> = 'J';
template <> inline constexpr char idLetter<RiserPlace> = 'G';
template <> inline constexpr char idLetter<ComposedSheet> = 'A';
template <> inline constexpr char idLetter<PlacedView> = 'H';
template <> inline constexpr char idLetter<ListForm> = 'l'; // no capital is left
template <> inline constexpr char idLetter<KeyedNote> = 'n';

template <class Thing> std::string textOf(Id<Thing> id) {
    return id ? idLetter<Thing> + std::to_string(id.value) : std::string();
}

/// Any object of the project that can be selected, named in a snag or fed from.
struct Ref {
    char letter = 0; ///< as idLetter; 0: nothing
    std::uint32_t value = 0;
    constexpr Ref() = default;
    template <class Thing> constexpr Ref(Id<Thing> id) : letter(id ? idLetter<Thing> : 0), value(id.value) {}
    constexpr auto operator<=>(const Ref&) const = default;
    constexpr explicit operator bool() const { return letter != 0; }
    template <class Thing> constexpr bool is() const { return letter == idLetter<Thing>; }
    template <class Thing> constexpr Id<Thing> as() const { return {is<Thing>() ? value : 0}; }
    std::string text() const { return letter ? letter + std::to_string(value) : std::string(); }
};
/// Reads "B3"; a Ref to nothing when the text is not an id.
inline Ref refFrom(const std::string& text) {
    Ref r;
    if (text.size() < 2 || text.size() > 10 || text.find_first_not_of("0123456789", 1) != std::string::npos) return r;
    r.value = std::uint32_t(std::stoul(text.substr(1)));
    r.letter = r.value ? text[0] : 0;
    return r;
}

} // namespace lintel
