#pragma once

#include "app/form/panel.h"
#include "core/record/decision.h"

#include <QList>

namespace knot::app {

class Declaring;
class NameButton;
class TestInHand;

/// What is said before the tags come off, or before deciding: which one would be kept by feel, which is one's own,
/// which by the numbers. Gone once all is said.
class BeforePanel : public Panel {
    Q_OBJECT

public:
    BeforePanel(const TestInHand& hand, Declaring& declaring);
    void refresh();
    /// To the first answer that can still be given; false where there is none.
    bool takeFocus();

private:
    struct Question {
        record::Said record::Choices::*member;
        QWidget* box;
        QList<NameButton*> clubs;
    };
    void buildUi();
    void choose(record::Said record::Choices::*member, std::size_t club);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    QList<Question> m_questions;
    QLabel* m_head = nullptr;
    QLabel* m_text = nullptr;
};

} // namespace knot::app
