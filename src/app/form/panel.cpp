#include "app/form/panel.h"

#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"

#include <QComboBox>
#include <QPainter>
#include <QScrollArea>
#include <QVBoxLayout>

namespace knot::app {

void Panel::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(colours().line);
    painter.setBrush(colours().sheet);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 6, 6);
}

QLabel* headingLabel(const QString& text) {
    auto* label = plainLabel(text);
    label->setFont(typeface(size::strong, QFont::DemiBold));
    label->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    return label;
}

QLabel* captionLabel(const char* name, const QString& text) {
    auto* label = plainLabel(text);
    label->setObjectName(QLatin1String(name));
    label->setFont(typeface(size::caption));
    label->setForegroundRole(QPalette::PlaceholderText);
    label->setWordWrap(true);
    return label;
}

QLabel* linkLabel(const char* name) {
    QLabel* label = richLabel();
    label->setObjectName(QLatin1String(name));
    label->setFont(typeface(size::caption));
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    return label;
}

Panel* headedPanel(const QString& heading, QVBoxLayout*& column) {
    auto* panel = new Panel;
    column = new QVBoxLayout(panel);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 14);
    column->setSpacing(size::grid);
    if (!heading.isEmpty())
        column->addWidget(headingLabel(heading));
    return panel;
}

QWidget* labelled(const QString& text, QWidget* field, const char* name) {
    auto* box = new QWidget;
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2);
    auto* label = plainLabel(text);
    label->setObjectName(QLatin1String(name) + QStringLiteral("Label"));
    label->setFont(typeface(size::caption));
    label->setForegroundRole(QPalette::PlaceholderText);
    label->setBuddy(field);
    field->setObjectName(QLatin1String(name));
    if (!text.trimmed().isEmpty()) // buttons speak for themselves
        field->setAccessibleName(QString(text).remove(QLatin1Char('&')));
    column->addWidget(label);
    column->addWidget(field);
    column->addStretch(); // fields with a remark below stay level with those without
    return box;
}

QScrollArea* scrolling(QWidget* content) {
    auto* area = new QScrollArea;
    area->setFrameShape(QFrame::NoFrame);
    area->setWidgetResizable(true);
    area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    area->setFocusPolicy(Qt::NoFocus);
    area->viewport()->setAutoFillBackground(false);
    area->setWidget(content); // which makes it fill its background
    content->setAutoFillBackground(false);
    return area;
}

QVBoxLayout* scrollingRows(QWidget* page) {
    auto* content = new QWidget;
    auto* rows = new QVBoxLayout(content);
    rows->setContentsMargins(0, 0, 6, 0);
    rows->setSpacing(2 * size::grid);
    auto* whole = new QVBoxLayout(page);
    whole->setContentsMargins(0, 0, 0, 0);
    whole->addWidget(scrolling(content));
    return rows;
}

QComboBox* choiceBox(const QStringList& texts) {
    auto* box = new QComboBox;
    box->addItems(texts);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(4);
    box->setMinimumWidth(0);
    return box;
}

} // namespace knot::app
