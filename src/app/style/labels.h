#pragma once

#include <QLabel>
#include <QPainter>

#include <algorithm>

namespace knot::app {

/// A label whose text is never markup, whoever wrote it: files, monitors and users name things. The only
/// place that makes labels, so that none guesses (tests/checks/layers.sh).
inline QLabel* plainLabel(const QString& text = {}, QWidget* parent = nullptr) {
    auto* label = new QLabel(parent);
    label->setTextFormat(Qt::PlainText);
    label->setText(text);
    return label;
}

/// A label of our own markup; whoever sets its text escapes what it did not write.
inline QLabel* richLabel(QLabel* label = nullptr) {
    if (label == nullptr)
        label = new QLabel;
    label->setTextFormat(Qt::RichText);
    return label;
}

/// Wrapped words that never lose a line to their neighbours.
class WholeLabel : public QLabel {
public:
    WholeLabel() { setWordWrap(true); }
    void setText(const QString& text) {
        QLabel::setText(text);
        setMinimumHeight(std::max(0, heightForWidth(width())));
    }

protected:
    void resizeEvent(QResizeEvent* event) override {
        QLabel::resizeEvent(event);
        setMinimumHeight(std::max(0, heightForWidth(width())));
    }
};

/// One line that ends in dots where it has no room, and takes what room there is. Plain text.
class OneLineLabel : public QLabel {
public:
    OneLineLabel() { setTextFormat(Qt::PlainText); }
    QSize minimumSizeHint() const override { return {40, QLabel::minimumSizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setPen(palette().color(foregroundRole()));
        painter.drawText(contentsRect(), Qt::AlignLeft | Qt::AlignVCenter,
                         fontMetrics().elidedText(text(), Qt::ElideRight, contentsRect().width()));
    }
};

} // namespace knot::app
