#include "app/style/palette.h"

#include <QApplication>
#include <QStyleFactory>
#include <QToolTip>

#include <array>

namespace knot::app {
namespace {

Theme current = Theme::light;

const Colours light = {.ground = QColor(0xf3efe5),
                       .sheet = QColor(0xfcfaf4),
                       .spine = QColor(0xe9e2d3),
                       .line = QColor(0xd9d0bd),
                       .ink = QColor(0x1d2a36),
                       .faint = QColor(0x5a6066),
                       .cord = QColor(0xa87b3f),
                       .band = QColor(0xead9b8),
                       .link = QColor(0x2c5184),
                       .alarm = QColor(0x9d3a26),
                       .selection = QColor(0xefe6d3)};
const Colours dark = {.ground = QColor(0x1b1d1f),
                      .sheet = QColor(0x242729),
                      .spine = QColor(0x15171a),
                      .line = QColor(0x3b3f42),
                      .ink = QColor(0xe9e4d8),
                      .faint = QColor(0x9fa19d),
                      .cord = QColor(0xc99b5c),
                      .band = QColor(0x4a4030),
                      .link = QColor(0x8fb4e3),
                      .alarm = QColor(0xe58a73),
                      .selection = QColor(0x34373a)};

constexpr std::array<QRgb, 8> tagsOnLight = {0x566b86, 0x46783f, 0xb87a10, 0x8a4a74,
                                             0xa5492f, 0x2b7b80, 0x6d6330, 0x4f4c9c};
constexpr std::array<QRgb, 8> tagsOnDark = {0x9ab0cc, 0x86bf7c, 0xe3ae4f, 0xcf93ba,
                                            0xe28e74, 0x76c3c6, 0xbcb276, 0xa6a3ee};

QPalette widgetPalette(const Colours& c) {
    QPalette p;
    p.setColor(QPalette::Window, c.ground);
    p.setColor(QPalette::WindowText, c.ink);
    p.setColor(QPalette::Base, c.sheet);
    p.setColor(QPalette::AlternateBase, c.ground);
    p.setColor(QPalette::Text, c.ink);
    p.setColor(QPalette::PlaceholderText, c.faint);
    p.setColor(QPalette::Button, c.sheet);
    p.setColor(QPalette::ButtonText, c.ink);
    p.setColor(QPalette::ToolTipBase, c.sheet);
    p.setColor(QPalette::ToolTipText, c.ink);
    p.setColor(QPalette::Highlight, c.cord);
    p.setColor(QPalette::HighlightedText, c.sheet);
    p.setColor(QPalette::Link, c.link);
    p.setColor(QPalette::Mid, c.line);
    p.setColor(QPalette::Dark, c.line);
    p.setColor(QPalette::Shadow, c.line);
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, c.faint);
    return p;
}

QString styleSheet(const Colours& c) {
    return QStringLiteral(
               "QToolTip { background: %1; color: %2; border: 1px solid %3; padding: 4px; }"
               "QMenuBar { background: %4; } QMenuBar::item { padding: 4px 10px; }"
               "QMenuBar::item:selected { background: %5; }"
               "QComboBox, QLineEdit { background: %1; border: 1px solid %3; border-radius: 4px;"
               " padding: 3px 8px; min-height: 20px; }"
               "QComboBox:focus, QLineEdit:focus { border: 1px solid %6; }"
               "QComboBox::drop-down { border: 0; width: 22px; }"
               "QComboBox::down-arrow { image: url(:/style/chevron.svg); width: 12px; height: 12px; }"
               "QComboBox QAbstractItemView { background: %1; selection-background-color: %5; selection-color: %2; }"
               "QListWidget { background: transparent; border: 0; outline: 0; }"
               "QListWidget::item { padding: 4px; border-radius: 4px; }"
               "QListWidget::item:selected { background: %5; color: %2; }"
               "QHeaderView { background: %1; border: 0; }"
               "QHeaderView::section { background: %1; color: %2; border: 0; border-bottom: 1px solid %3;"
               " padding: 4px 6px; }"
               "QPlainTextEdit { background: %1; border: 1px solid %3; border-radius: 4px; }"
               "QPushButton { background: %1; border: 1px solid %3; border-radius: 4px; padding: 5px 14px; }"
               "QPushButton:hover { background: %5; } QPushButton:focus { border: 1px solid %6; }"
               "QPushButton:checked { background: %5; border: 1px solid %6; }"
               "QScrollBar:vertical { background: transparent; width: 8px; margin: 0; }"
               "QScrollBar::handle:vertical { background: %3; border-radius: 4px; min-height: 24px; }"
               "QScrollBar::add-line, QScrollBar::sub-line { height: 0; }"
               "QScrollBar::add-page, QScrollBar::sub-page { background: transparent; }")
        .arg(c.sheet.name(), c.ink.name(), c.line.name(), c.ground.name(), c.selection.name(), c.cord.name());
}

} // namespace

const Colours& colours() {
    return current == Theme::light ? light : dark;
}

Theme theme() {
    return current;
}

void applyTheme(Theme wanted) {
    current = wanted;
    QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
    QApplication::setPalette(widgetPalette(colours()));
    qApp->setStyleSheet(styleSheet(colours()));
}

QColor tagColour(std::size_t build) {
    const auto& tags = current == Theme::light ? tagsOnLight : tagsOnDark;
    return QColor(tags[build % tags.size()]);
}

OnPaper::OnPaper()
    : m_before(current) {
    current = Theme::light;
}

OnPaper::~OnPaper() {
    current = m_before;
}

} // namespace knot::app
