#include "app/decision_page/before_panel.h"

#include "app/form/name_button.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/palette.h"
#include "core/words/decide.h"

#include <QVBoxLayout>

namespace knot::app {

using record::Action;
using record::Choices;
using record::Said;
using record::Test;

BeforePanel::BeforePanel(const TestInHand& hand, Declaring& declaring)
    : m_hand(hand)
    , m_declaring(declaring) {
    setObjectName(QStringLiteral("before"));
    buildUi();
}

void BeforePanel::buildUi() {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 14);
    auto* head = new QHBoxLayout;
    m_head = headingLabel({});
    m_text = captionLabel("beforeText");
    m_text->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    head->addWidget(m_head);
    head->addWidget(m_text, 1);
    column->addLayout(head);
    const struct {
        QString question;
        Said Choices::*member;
        const char* name;
    } questions[] = {{tr("Which would you keep, by feel alone?"), &Choices::byFeel, "byFeel"},
                     {tr("Which one is yours?"), &Choices::own, "own"},
                     {tr("And by the numbers?"), &Choices::byNumbers, "byNumbers"}};
    for (const auto& one : questions) {
        auto* box = new QWidget;
        box->setObjectName(QLatin1String(one.name));
        auto* row = new QHBoxLayout(box);
        row->setContentsMargins(0, 0, 0, 0);
        QLabel* question = captionLabel("question", one.question);
        question->setFixedWidth(230);
        row->addWidget(question);
        auto* names = new QHBoxLayout;
        row->addLayout(names, 1);
        column->addWidget(box);
        m_questions << Question{one.member, box, {}};
    }
}

// Said once: what stands is not changed after.
void BeforePanel::choose(Said Choices::*member, std::size_t club) {
    m_declaring.say(member, record::BuildAt(club));
}

void BeforePanel::refresh() {
    const Test& test = m_hand.test();
    const bool wasSealed = test.seal.wasMade();
    // Of what was sealed nothing can be said any more once it is open; of what never was it can be said late.
    const bool canSay = m_hand.isSealed() || !wasSealed;
    bool isOpen = false;
    for (Question& question : m_questions) {
        const Said& said = test.choices.*question.member;
        const std::string chosen = said.tag;
        const bool isAsked = wasSealed || question.member != &Choices::own;
        question.box->setVisible(isAsked && canSay);
        isOpen = isOpen || (isAsked && canSay && said.at.empty());
        auto* row = static_cast<QHBoxLayout*>(question.box->layout()->itemAt(1)->layout());
        while (question.clubs.size() > static_cast<qsizetype>(test.builds.size()))
            delete question.clubs.takeLast();
        while (question.clubs.size() < static_cast<qsizetype>(test.builds.size())) {
            const auto at = static_cast<std::size_t>(question.clubs.size());
            auto* button = new NameButton;
            button->setObjectName(question.box->objectName() + QString::number(at));
            button->setCheckable(true);
            question.clubs << button;
            row->addWidget(button, 1);
            connect(button, &QPushButton::clicked, this, [this, member = question.member, at] { choose(member, at); });
        }
        QStringList names;
        for (const record::Build& build : test.builds)
            names << QString::fromStdString(build.name);
        for (std::size_t b = 0; b < test.builds.size(); ++b) {
            NameButton* button = question.clubs[static_cast<qsizetype>(b)];
            button->setVisible(words::mayBeChosen(test, record::BuildAt(b)));
            button->setName(names[static_cast<qsizetype>(b)], names);
            button->setChecked(test.builds[b].isCalled(chosen));
            button->setEnabled(canSay && said.at.empty());
        }
    }
    // What was all said stands on the cord.
    setVisible(isOpen && (m_hand.isSealed() || test.decision.what == Action::none));
    m_head->setText(wasSealed ? tr("Before the tags come off") : tr("Before deciding"));
    m_text->setText(m_hand.isSealed() ? tr("Written down and kept before anybody knows; said once.")
                                      : tr("Said once, and kept with its time."));
}

bool BeforePanel::takeFocus() {
    if (isHidden())
        return false;
    for (const Question& question : m_questions)
        for (NameButton* club : question.clubs)
            if (club->isEnabled() && !question.box->isHidden()) {
                club->setFocus();
                return true;
            }
    return false;
}

} // namespace knot::app
