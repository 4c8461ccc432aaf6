#pragma once

#include <QStringList>
#include <QWidget>

#include <functional>

class QLabel;
class QLineEdit;

namespace knot::app {

class KeyRow;

/// A question in place of the keys: a line to type, or one of a few answers by number. Enter takes
/// it, Escape leaves things as they are.
class AskBar : public QWidget {
    Q_OBJECT

public:
    explicit AskBar(QWidget* parent = nullptr);
    using Taken = std::function<void(const QString&)>;
    void askLine(const QString& question, const QString& start, const QStringList& suggestions, Taken taken);
    using Chosen = std::function<void(int)>;
    void askChoice(const QString& question, const QStringList& answers, Chosen chosen);
    /// One of the answers by its number, or a line that begins with what is typed and is no answer.
    void askChoiceOrLine(const QString& question, const QStringList& answers, Chosen chosen, Taken taken);
    bool isAsking() const { return m_asking; }
    QString question() const;
    void leave();

signals:
    /// The question is answered or left.
    void done();

protected:
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void begin(const QString& question);
    void choose(int answer);

    QLabel* m_question;
    QLineEdit* m_line;
    KeyRow* m_answers;
    QLabel* m_hint;
    Taken m_taken;
    Chosen m_chosen;
    int m_choices = 0;
    bool m_asking = false;
};

} // namespace knot::app
