#pragma once

#include "core/record/typed/number_in.h"

#include <QObject>
#include <QTimer>

#include <functional>

class QLineEdit;
class QPlainTextEdit;
class QWidget;

namespace knot::app {

/// The mark of decimals where this is; open where that is not said.
record::DecimalMark decimalsHere();

/// What is typed in a field is taken when the field is left or 400 ms after the last letter, so that
/// a letter costs nothing. Lives with the field. Whatever reads the test or leaves it first calls
/// `commitAll`, so that nothing that was typed is lost.
class Typed : public QObject {
    Q_OBJECT

public:
    /// `take` is called with the text.
    static void in(QLineEdit* field, std::function<void(const QString& text)> take);
    static void in(QPlainTextEdit* field, std::function<void(const QString& text)> take);
    /// The same where half of what is typed would be something else, like a name that finds somebody: it is taken
    /// when the field is left, at Enter, or by `commitAll`.
    static void whole(QLineEdit* field, std::function<void(const QString& text)> take);
    /// Takes what still waits in any field.
    static void commitAll();
    /// Takes nothing any more from the fields inside `page`, which is going.
    static void giveUp(const QWidget* page);

    ~Typed() override;

private:
    Typed(QObject* field, int pause, std::function<void()> take);
    static void listen(QLineEdit* field, int pause, std::function<void(const QString& text)> take);
    void commit();
    bool eventFilter(QObject* watched, QEvent* event) override;

    std::function<void()> m_take;
    QTimer m_soon;
};

} // namespace knot::app
