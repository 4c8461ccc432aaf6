#pragma once

#include "core/ask/sentence.h"

#include <QLineEdit>

namespace knot::app {

/// A chip of the sentence: reads like a word, underlined; typing replaces it, arrows walk to its neighbours and through
/// what it may hold. What is typed is taken by whoever made it (Typed::whole).
class ChipField : public QLineEdit {
    Q_OBJECT

public:
    ChipField(const ask::Chip& chip, int size, QWidget* parent);
    const ask::Chip& chip() const { return m_chip; }
    /// Shows what the chip holds, or the hint of an empty one; not over what is being typed.
    void display(const QString& text, bool isEmpty);
    /// Shows it whatever was typed.
    void giveUp();
    bool isTyping() const { return m_isTyping; }
    /// What was typed could not be taken: it stays, and is underlined so.
    void setFaulty(bool isFaulty);
    bool isFaulty() const { return m_isFaulty; }
    /// As if it had been typed and Enter pressed.
    void say(const QString& text);
    QSize sizeHint() const override;

signals:
    /// To the chip before (−1) or after (+1).
    void walked(int by);
    /// Through what it may hold, up (−1) or down (+1).
    void browsed(int by);
    /// Enter: what is marked among what it may hold is taken, else what was typed.
    void entered();
    void left();
    void entering();
    void resized();

protected:
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    ask::Chip m_chip;
    QString m_shown;
    int m_size = 0;
    bool m_isEmpty = false, m_isTyping = false, m_isFaulty = false;
};

} // namespace knot::app
