#pragma once

#include <QLabel>

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

} // namespace knot::app
