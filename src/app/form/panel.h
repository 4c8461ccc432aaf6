#pragma once

#include <QLabel>
#include <QWidget>

class QComboBox;
class QScrollArea;
class QVBoxLayout;

namespace knot::app {

/// A panel of paper on the ground.
class Panel : public QWidget {
public:
    using QWidget::QWidget;

protected:
    void paintEvent(QPaintEvent* event) override;
};

/// A panel with a heading and room below it; `column` receives what stands in it.
Panel* headedPanel(const QString& heading, QVBoxLayout*& column);

QLabel* headingLabel(const QString& text);
/// Secondary text that wraps.
QLabel* captionLabel(const char* name, const QString& text = {});

/// Small text of our own markup whose links are followed by mouse and by keys.
QLabel* linkLabel(const char* name);

/// A small label over a field, as a widget of its own; the label leads to the field by its key.
QWidget* labelled(const QString& text, QWidget* field, const char* name);

/// A frameless area that scrolls its content up and down and shows the paper below it.
QScrollArea* scrolling(QWidget* content);

/// Fills `page` with rows that scroll where they have no room.
QVBoxLayout* scrollingRows(QWidget* page);

/// A combo box whose items are texts with a value each.
QComboBox* choiceBox(const QStringList& texts);

} // namespace knot::app
