#pragma once

#include "app/form/panel.h"
#include "core/record/test.h"
#include "core/record/typed/amount.h"

class QHBoxLayout;
class QLineEdit;

namespace knot::app {

class Book;
class Declaring;
class TestInHand;

/// What is the same on every club, typed once: the parts that are not tested, the length, the ball. Where clubs differ
/// in one it says so, and typing makes it the same on all.
class SameOnAll : public Panel {
    Q_OBJECT

public:
    SameOnAll(const TestInHand& hand, Declaring& declaring, Book& book);
    void refresh();
    /// Names of parts in the logbook complete themselves from then on.
    void offerParts();

private:
    enum class What { head, shaft, grip, length, ball };
    struct Field {
        What what;
        QWidget* box;
        QLineEdit* edit;
        QString hint;
    };
    QString textOf(const record::Club& club, What what, record::TestKind kind) const;
    static std::string whyNotSaid(What what, const std::string& text, const record::Typing& typing,
                                  std::optional<double>& length);
    void take(What what, const QString& typed);
    bool isShown(What what) const;

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    QList<Field> m_fields;
    std::vector<record::Part> m_known;
};

} // namespace knot::app
