#pragma once
// Choices are written as words in files. An enum takes part by declaring a table of its words:
//   template <> struct EnumText<Colour> { static constexpr std::pair<Colour, const char*> words[] = {{Colour::Red,
//   "red"}}; };

#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>

namespace lintel {

template <class E> struct EnumText;

template <class E>
concept WordedEnum = std::is_enum_v<E> && requires {
    EnumText<E>::words;
};

template <WordedEnum E> constexpr const char* wordOf(E e) {
    for (const auto& [value, word] : EnumText<E>::words)
        if (value == e) return word;
    return "?";
}
template <WordedEnum E> constexpr std::optional<E> fromWord(std::string_view text) {
    for (const auto& [value, word] : EnumText<E>::words)
        if (text == word) return value;
    return std::nullopt;
}

/// All words of a choice, for a message: "copper, aluminium".
template <WordedEnum E> std::string choiceWords() {
    std::string all;
    for (const auto& [value, word] : EnumText<E>::words) all += (all.empty() ? "" : ", ") + std::string(word);
    return all;
}

} // namespace lintel
