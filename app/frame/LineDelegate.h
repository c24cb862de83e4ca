#pragma once
// Cells of one line of plain text each. Their texts come out of the store of texts that have been laid once
// (`drawLine`), so that a table is repainted in a fraction of the time that shaping them anew takes.

#include "app/frame/PaintKit.h"

#include <QApplication>
#include <QStyledItemDelegate>

namespace lintel {

class LineDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;

protected:
    void paint(QPainter* p, const QStyleOptionViewItem& given, const QModelIndex& index) const override {
        QStyleOptionViewItem o = given;
        initStyleOption(&o, index);
        const QStyle* style = o.widget ? o.widget->style() : QApplication::style();
        style->drawPrimitive(QStyle::PE_PanelItemViewItem, &o, p, o.widget);
        const int margin = 6; // as the headings have
        const auto group = o.state & QStyle::State_Active ? QPalette::Normal : QPalette::Inactive;
        const QColor ink = o.state & QStyle::State_Selected ? o.palette.color(group, QPalette::HighlightedText)
                                                            : o.palette.color(group, QPalette::Text);
        drawLine(*p, QRectF(o.rect).adjusted(margin, 0, -margin, 0), o.text, o.displayAlignment, ink, o.font);
        if (o.state & QStyle::State_HasFocus) {
            QStyleOptionFocusRect focus;
            focus.QStyleOption::operator=(o);
            focus.rect = o.rect;
            focus.state |= QStyle::State_KeyboardFocusChange | QStyle::State_Item;
            style->drawPrimitive(QStyle::PE_FrameFocusRect, &focus, p, o.widget);
        }
    }
};

} // namespace lintel
