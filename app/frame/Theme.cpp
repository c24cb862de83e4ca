#include "app/frame/Theme.h"

#include "core/rules/DataFolder.h"

#include <QApplication>

#include <map>

namespace lintel {
namespace {

Theme light() {
    Theme t;
    t.paper = QColor(0xF7, 0xF5, 0xF0), t.surface = Qt::white, t.rule = QColor(0xD9, 0xD4, 0xC7),
    t.ink = QColor(0x1F, 0x29, 0x33);
    t.quiet = QColor(0x66, 0x6C, 0x76), t.accent = QColor(0x0F, 0x6B, 0x66), t.accentWash = QColor(0xE1, 0xEE, 0xEC),
    t.stop = QColor(0xB3, 0x36, 0x1E);
    t.check = QColor(0xA8, 0x6A, 0x10), t.note = QColor(0x66, 0x6C, 0x76), t.sunk = QColor(0xEE, 0xEB, 0xE3);
    return t;
}
Theme darkTheme() {
    Theme t;
    t.paper = QColor(0x15, 0x18, 0x1C), t.surface = QColor(0x1C, 0x21, 0x26), t.rule = QColor(0x33, 0x3A, 0x42),
    t.ink = QColor(0xE6, 0xE3, 0xDB);
    t.quiet = QColor(0x9A, 0xA1, 0xAA), t.accent = QColor(0x4F, 0xB8, 0xAE), t.accentWash = QColor(0x1F, 0x36, 0x38),
    t.stop = QColor(0xE5, 0x6B, 0x52);
    t.check = QColor(0xDB, 0xA1, 0x4A), t.note = QColor(0x9A, 0xA1, 0xAA), t.sunk = QColor(0x11, 0x14, 0x17);
    t.dark = true;
    return t;
}
Theme current = light();

} // namespace

const Theme& theme() { return current; }

void setDark(bool dark) {
    current = dark ? darkTheme() : light();
    if (!qApp) return;
    QPalette p;
    p.setColor(QPalette::Window, current.paper);
    p.setColor(QPalette::WindowText, current.ink);
    p.setColor(QPalette::Base, current.surface);
    p.setColor(QPalette::AlternateBase, current.paper);
    p.setColor(QPalette::Text, current.ink);
    p.setColor(QPalette::Button, current.surface);
    p.setColor(QPalette::ButtonText, current.ink);
    p.setColor(QPalette::Highlight, current.accentWash);
    p.setColor(QPalette::HighlightedText, current.ink);
    p.setColor(QPalette::PlaceholderText, current.quiet);
    p.setColor(QPalette::ToolTipBase, current.surface);
    p.setColor(QPalette::ToolTipText, current.ink);
    p.setColor(QPalette::Disabled, QPalette::Text, current.quiet);
    p.setColor(QPalette::Disabled, QPalette::ButtonText, current.rule);
    QApplication::setPalette(p);
    QApplication::setFont(uiFont());
    qApp->setStyleSheet(current.styleSheet());
}

QFont uiFont(double scale, bool bold) {
    // A font that is used again brings its engine along: made anew at each text it would be looked up each time.
    static std::map<std::pair<int, bool>, QFont> made;
    const int pixels = int(std::lround(13 * scale));
    auto [it, fresh] = made.try_emplace({pixels, bold});
    if (fresh) {
        it->second = QFont(QStringLiteral("Inter"));
        it->second.setPixelSize(pixels);
        it->second.setWeight(bold ? QFont::DemiBold : QFont::Normal);
    }
    return it->second;
}

QColor Theme::phase(Ink which) const {
    switch (which) {
    case Ink::PhaseBlack:
        return dark ? QColor(0xB5, 0xB5, 0xB0) : QColor(0x4A, 0x4A, 0x4A);
    case Ink::PhaseRed:
        return dark ? QColor(0xD9, 0x6D, 0x66) : QColor(0xC5, 0x55, 0x4E);
    case Ink::PhaseBlue:
        return dark ? QColor(0x6C, 0x97, 0xDD) : QColor(0x4E, 0x75, 0xB8);
    case Ink::PhaseBrown:
        return dark ? QColor(0xC0, 0x8A, 0x58) : QColor(0x8A, 0x58, 0x2A);
    case Ink::PhaseGrey:
        return dark ? QColor(0x8C, 0x93, 0x9A) : QColor(0x93, 0x98, 0x9D);
    case Ink::PhaseOrange:
        return dark ? QColor(0xE6, 0x9A, 0x4C) : QColor(0xD0, 0x78, 0x22);
    case Ink::PhaseYellow:
        return dark ? QColor(0xD9, 0xC0, 0x50) : QColor(0xB5, 0x90, 0x12);
    default:
        return ink;
    }
}

namespace {
QColor between(QColor from, QColor to, double share) {
    const auto at = [share](int a, int b) { return int(a + (b - a) * share + 0.5); };
    return {at(from.red(), to.red()), at(from.green(), to.green()), at(from.blue(), to.blue())};
}
} // namespace

Palette Theme::palette() const {
    const Palette onPaper = paperPalette();
    const Theme t = *this;
    return [t, onPaper](Ink which) -> QColor {
        switch (which) {
        case Ink::Ink:
            return t.ink;
        case Ink::Quiet:
            return t.quiet;
        case Ink::Faint:
            return t.dark ? QColor(0x55, 0x5D, 0x66) : QColor(0xB5, 0xAF, 0xA2);
        case Ink::Rule:
            return t.rule;
        case Ink::Accent:
            return t.accent;
        case Ink::Stop:
            return t.stop;
        case Ink::Check:
            return t.check;
        case Ink::Band:
            return t.sunk;
        case Ink::Wash:
            return t.paper;
        case Ink::Paper:
            return t.surface;
        case Ink::Shade1:
            return between(t.surface, t.accent, 0.10);
        case Ink::Shade2:
            return between(t.surface, t.accent, 0.24);
        case Ink::Shade3:
            return between(t.surface, t.accent, 0.40);
        case Ink::Shade4:
            return between(t.surface, t.check, 0.45);
        case Ink::PhaseBlack:
        case Ink::PhaseRed:
        case Ink::PhaseBlue:
        case Ink::PhaseBrown:
        case Ink::PhaseGrey:
        case Ink::PhaseOrange:
        case Ink::PhaseYellow:
            return t.phase(which);
        default:
            break;
        }
        return t.dark ? onPaper(which).lighter(175) : onPaper(which);
    };
}

QString Theme::styleSheet() const {
    QString s = QStringLiteral(R"(
QWidget { font-family: Inter; font-size: 13px; }
QMainWindow, QDialog { background: $paper; }
QMenuBar { background: $paper; border-bottom: 1px solid $rule; padding: 3px 8px; }
QMenuBar::item { padding: 4px 9px; background: transparent; border-radius: 3px; }
QMenuBar::item:selected { background: $wash; }
QMenu { background: $surface; border: 1px solid $rule; padding: 4px 0; }
QMenu::item { padding: 5px 28px 5px 18px; }
QMenu::item:selected { background: $wash; color: $ink; }
QMenu::item:disabled { color: $quiet; }
QMenu::separator { height: 1px; background: $rule; margin: 4px 0; }
QPushButton { background: $surface; border: 1px solid $rule; border-radius: 4px; padding: 4px 11px; color: $ink; }
QPushButton:hover { border-color: $accent; }
QPushButton:pressed, QPushButton:checked { background: $wash; color: $accent; border-color: $accent; }
QPushButton:disabled { color: $quiet; border-color: $rule; }
QPushButton[flat="true"] { border: none; background: transparent; color: $accent; padding: 2px 4px; }
QPushButton[strong="true"] { color: $accent; font-weight: 600; }
QLineEdit, QPlainTextEdit, QComboBox, QDoubleSpinBox, QSpinBox { background: $surface; border: 1px solid $rule; border-radius: 4px; padding: 3px 7px; color: $ink; selection-background-color: $accent; selection-color: $surface; }
QLineEdit:focus, QComboBox:focus, QDoubleSpinBox:focus { border-color: $accent; }
QLineEdit:disabled, QPlainTextEdit:disabled, QComboBox:disabled { color: $quiet; background: $paper; }
QCheckBox:disabled, QRadioButton:disabled { color: $quiet; }
QComboBox QAbstractItemView { background: $surface; border: 1px solid $rule; selection-background-color: $wash; selection-color: $ink; }
QComboBox::drop-down { border: none; width: 20px; }
QComboBox::down-arrow { image: url($data/icons/chevron.svg); width: 12px; height: 12px; }
QTableView { background: $surface; border: none; outline: none; gridline-color: $rule; selection-background-color: $wash; selection-color: $ink; }
QTableView::item { padding: 0 5px; border: none; }
QTableView::item:selected { background: $wash; }
QTableView::item:focus { border: none; background: $wash; }
QHeaderView::section { background: $sunk; border: none; border-bottom: 1px solid $rule; padding: 5px 6px; color: $quiet; font-weight: 600; font-size: 11px; }
QTreeView, QListView { background: transparent; border: none; outline: none; }
QTreeView::item, QListView::item { padding: 3px 2px; border: none; }
QTreeView::item:selected, QListView::item:selected { background: $wash; }
QTreeView::item:hover, QListView::item:hover { background: $wash; }
QScrollArea { border: none; background: transparent; }
QScrollBar:vertical { background: transparent; width: 9px; margin: 0; }
QScrollBar:horizontal { background: transparent; height: 9px; margin: 0; }
QScrollBar::handle { background: $rule; border-radius: 4px; min-height: 24px; min-width: 24px; }
QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page { background: transparent; width: 0; height: 0; }
QToolTip { background: $surface; color: $ink; border: 1px solid $rule; padding: 4px; }
QLabel[quiet="true"] { color: $quiet; }
QLabel[heading="true"] { color: $quiet; font-weight: 600; font-size: 11px; }
QCheckBox::indicator, QRadioButton::indicator, QListView::indicator { width: 13px; height: 13px; border: 1px solid $quiet; background: $surface; }
QRadioButton::indicator { border-radius: 7px; }
QCheckBox::indicator, QListView::indicator { border-radius: 2px; }
QCheckBox::indicator:checked, QRadioButton::indicator:checked, QListView::indicator:checked { background: $accent; border-color: $accent; }
QCheckBox::indicator:checked, QListView::indicator:checked { image: url($data/icons/tick.svg); }
QFrame[card="true"] { background: $surface; border: 1px solid $rule; border-radius: 5px; }
QSplitter::handle { background: $rule; }
)");
    // Longer names first, so that none is cut by another's.
    for (const auto& [name, colour] : {std::pair{"$surface", surface},
                                       {"$accent", accent},
                                       {"$paper", paper},
                                       {"$quiet", quiet},
                                       {"$rule", rule},
                                       {"$wash", accentWash},
                                       {"$sunk", sunk},
                                       {"$ink", ink}})
        s.replace(QLatin1String(name), colour.name());
    s.replace("$data", QString::fromStdString(dataFolder().string()));
    return s;
}

} // namespace lintel
