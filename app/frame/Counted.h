#pragma once
// A number with its noun: "1 room", "3 rooms".

#include <QString>

namespace lintel {

template <class N> QString counted(N n, const QString& one, const QString& many) {
    return QString("%1 %2").arg(qlonglong(n)).arg(n == N(1) ? one : many);
}

} // namespace lintel
