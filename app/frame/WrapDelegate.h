#pragma once
// Rows of a list as high as their words want to be: the style sheet's paddings are not in what Qt measures, so that the
// end of a line that only just fits would be cut off.

#include <QAbstractItemView>
#include <QStyledItemDelegate>

namespace lintel {

class WrapDelegate : public QStyledItemDelegate {
public:
    explicit WrapDelegate(QAbstractItemView* list) : QStyledItemDelegate(list), view(list) {}
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        constexpr int paddings = 18, between = 6; // px beside the words, and above and below them
        const QVariant own = index.data(Qt::FontRole);
        const QFontMetrics metrics(own.isValid() ? qvariant_cast<QFont>(own) : option.font);
        const int width = std::max(40, view->viewport()->width() - paddings);
        const QRect words =
            metrics.boundingRect(QRect(0, 0, width, 100000), Qt::TextWordWrap, index.data(Qt::DisplayRole).toString());
        return {view->viewport()->width(), words.height() + between};
    }

private:
    QAbstractItemView* view;
};

} // namespace lintel
