#include "core/base/Packed.h"

#include "core/base/Limits.h"

#include <zlib.h>

#include <array>

namespace lintel {
namespace {

constexpr char letters[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
constexpr std::size_t pieceBytes = 16'000;

std::string encoded(const std::string& bytes) {
    std::string out;
    out.reserve((bytes.size() + 2) / 3 * 4);
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        std::uint32_t three = 0;
        const std::size_t n = std::min<std::size_t>(3, bytes.size() - i);
        for (std::size_t k = 0; k < 3; ++k)
            three = three << 8 | (k < n ? static_cast<unsigned char>(bytes[i + k]) : 0u);
        for (std::size_t k = 0; k < 4; ++k) out += k <= n ? letters[three >> (18 - 6 * k) & 63] : '=';
    }
    return out;
}

std::optional<std::string> decoded(const std::string& text) {
    static const auto values = [] {
        std::array<int, 256> v{};
        v.fill(-1);
        for (int i = 0; i < 64; ++i) v[static_cast<unsigned char>(letters[i])] = i;
        return v;
    }();
    if (text.size() % 4) return std::nullopt;
    std::string out;
    for (std::size_t i = 0; i < text.size(); i += 4) {
        const std::size_t fill = text[i + 3] != '=' ? 0 : text[i + 2] != '=' ? 1 : 2;
        if (fill > 0 && i + 4 < text.size()) return std::nullopt;
        std::uint32_t three = 0;
        for (std::size_t k = 0; k < 4; ++k) {
            const int value = k < 4 - fill ? values[static_cast<unsigned char>(text[i + k])] : 0;
            if (value < 0) return std::nullopt;
            three = three << 6 | std::uint32_t(value);
        }
        for (std::size_t k = 0; k < 3 - fill; ++k) out += char(three >> (16 - 8 * k) & 255);
    }
    return out;
}

} // namespace

std::vector<std::string> packed(const std::string& text) {
    uLongf size = compressBound(uLong(text.size()));
    std::string bytes(size, '\0');
    compress2(reinterpret_cast<Bytef*>(bytes.data()), &size, reinterpret_cast<const Bytef*>(text.data()),
              uLong(text.size()), Z_BEST_COMPRESSION);
    bytes.resize(size);
    const std::string all = encoded(bytes);
    std::vector<std::string> pieces;
    for (std::size_t at = 0; at < all.size(); at += pieceBytes) pieces.push_back(all.substr(at, pieceBytes));
    return pieces;
}

std::optional<std::string> unpacked(const std::vector<std::string>& pieces) {
    std::string all;
    for (const std::string& piece : pieces) all += piece;
    const auto bytes = decoded(all);
    if (!bytes) return std::nullopt;
    z_stream stream{};
    if (inflateInit(&stream) != Z_OK) return std::nullopt;
    stream.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(bytes->data())); // it is only read
    stream.avail_in = uInt(bytes->size());
    std::string out;
    std::array<char, 65536> part;
    int state = Z_OK;
    while (state == Z_OK) {
        stream.next_out = reinterpret_cast<Bytef*>(part.data());
        stream.avail_out = uInt(part.size());
        state = inflate(&stream, Z_NO_FLUSH);
        out.append(part.data(), part.size() - stream.avail_out);
        if (out.size() > limits::fileBytes) break;
    }
    inflateEnd(&stream);
    if (state != Z_STREAM_END) return std::nullopt;
    return out;
}

} // namespace lintel
