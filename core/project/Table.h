#pragma once
// All things of one kind, found by id at once and walked in the order of their ids.
// A table is a value, yet copying one costs next to nothing: blocks of 64 things are shared between copies until one
// of them changes. That is what lets every edit hand a whole snapshot to the solver, and lets the difference of
// two projects be found by comparing only the blocks that are not shared.

#include "core/project/Ids.h"

#include <array>
#include <bit>
#include <cassert>
#include <memory>
#include <vector>

namespace lintel {

template <class T> class Table {
    static constexpr std::uint32_t blockSize = 64;
    struct Block {
        std::uint64_t present = 0;
        std::array<T, blockSize> items;
    };

public:
    const T* find(Id<T> id) const {
        const std::uint32_t b = id.value / blockSize, i = id.value % blockSize;
        if (!id || b >= blocks.size() || !blocks[b] || !(blocks[b]->present >> i & 1)) return nullptr;
        return &blocks[b]->items[i];
    }
    bool has(Id<T> id) const { return find(id) != nullptr; }
    /// The thing itself; it has to be there.
    const T& operator[](Id<T> id) const {
        const T* t = find(id);
        assert(t && "no such id in the table");
        return *t;
    }
    /// For changing the thing in place; null when there is none.
    T* change(Id<T> id) { return find(id) ? &writable(id.value / blockSize).items[id.value % blockSize] : nullptr; }
    /// Puts the thing at its own id, new or in place of what was there.
    T& put(T thing) {
        assert(thing.id);
        const std::uint32_t b = thing.id.value / blockSize, i = thing.id.value % blockSize;
        if (b >= blocks.size()) blocks.resize(b + 1);
        Block& block = writable(b);
        if (!(block.present >> i & 1)) ++count;
        block.present |= std::uint64_t{1} << i;
        return block.items[i] = std::move(thing);
    }
    /// Gives the thing the next free id and puts it in.
    Id<T> add(T thing) {
        thing.id = {highest() + 1};
        return put(std::move(thing)).id;
    }
    bool remove(Id<T> id) {
        if (!has(id)) return false;
        Block& block = writable(id.value / blockSize);
        block.present &= ~(std::uint64_t{1} << (id.value % blockSize));
        block.items[id.value % blockSize] = T{};
        --count;
        while (!blocks.empty() && (!blocks.back() || !blocks.back()->present)) blocks.pop_back();
        return true;
    }
    std::size_t size() const { return count; }
    bool empty() const { return count == 0; }
    /// The highest id in use; arrays of results are sized by it.
    std::uint32_t highest() const {
        return blocks.empty() ? 0
                              : std::uint32_t(blocks.size() - 1) * blockSize + 63 -
                                    std::uint32_t(std::countl_zero(blocks.back()->present));
    }

    class iterator {
    public:
        using value_type = T;
        using difference_type = std::ptrdiff_t;
        using iterator_category = std::forward_iterator_tag;
        using pointer = const T*;
        using reference = const T&;
        iterator() = default;
        iterator(const Table* table, std::uint32_t start) : t(table), at(start) { settle(); }
        const T& operator*() const { return t->blocks[at / blockSize]->items[at % blockSize]; }
        const T* operator->() const { return &**this; }
        iterator& operator++() {
            ++at;
            settle();
            return *this;
        }
        iterator operator++(int) {
            iterator old = *this;
            ++*this;
            return old;
        }
        bool operator==(const iterator& o) const { return at == o.at; }

    private:
        void settle() {
            const std::uint32_t end = std::uint32_t(t->blocks.size()) * blockSize;
            while (at < end) {
                const auto& block = t->blocks[at / blockSize];
                const std::uint64_t rest = block ? block->present >> (at % blockSize) : 0;
                if (rest) {
                    at += std::uint32_t(std::countr_zero(rest));
                    return;
                }
                at = (at / blockSize + 1) * blockSize;
            }
        }
        const Table* t = nullptr;
        std::uint32_t at = 0;
    };
    iterator begin() const { return {this, 0}; }
    iterator end() const { return {this, std::uint32_t(blocks.size()) * blockSize}; }

    bool operator==(const Table& o) const {
        bool same = count == o.count;
        if (same) eachDifference(*this, o, [&](const T*, const T*) { same = false; });
        return same;
    }
    /// Calls f(before, after) for each id whose thing differs; null where there is none. Shared blocks cost nothing.
    template <class F> static void eachDifference(const Table& before, const Table& after, F f) {
        const std::size_t n = std::max(before.blocks.size(), after.blocks.size());
        for (std::size_t b = 0; b < n; ++b) {
            const Block* x = b < before.blocks.size() ? before.blocks[b].get() : nullptr;
            const Block* y = b < after.blocks.size() ? after.blocks[b].get() : nullptr;
            if (x == y) continue;
            for (std::uint32_t i = 0; i < blockSize; ++i) {
                const T* p = x && (x->present >> i & 1) ? &x->items[i] : nullptr;
                const T* q = y && (y->present >> i & 1) ? &y->items[i] : nullptr;
                if ((p || q) && !(p && q && *p == *q)) f(p, q);
            }
        }
    }

private:
    Block& writable(std::uint32_t b) {
        if (!blocks[b])
            blocks[b] = std::make_shared<Block>();
        else if (blocks[b].use_count() > 1)
            blocks[b] = std::make_shared<Block>(*blocks[b]);
        return *blocks[b];
    }
    std::vector<std::shared_ptr<Block>> blocks;
    std::size_t count = 0;
};

} // namespace lintel
