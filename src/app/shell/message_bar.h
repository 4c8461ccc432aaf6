#pragma once

#include <QWidget>

class QLabel;
class QPushButton;

namespace knot::app {

/// One line above the page that says what was refused, failed or done. Stays until it is sent away
/// or another takes its place; takes no room when empty.
class MessageBar : public QWidget {
    Q_OBJECT

public:
    enum class Tone { fault, note };

    explicit MessageBar(QWidget* parent = nullptr);
    void show(const QString& sentence, Tone tone);
    void note(const QString& sentence) { show(sentence, Tone::note); }
    void fault(const QString& sentence) { show(sentence, Tone::fault); }
    /// A note that is painted while the program is busy; an empty one clears.
    void showAtOnce(const QString& sentence);
    void clear();
    QString text() const;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QLabel* m_text;
    QPushButton* m_close;
    Tone m_tone = Tone::note;
};

} // namespace knot::app
