#pragma once

#include "app/form/page.h"
#include "core/ask/answers.h"
#include "core/record/decision.h"

#include <QList>

class QGridLayout;
class QLabel;
class QPushButton;

namespace knot::app {

class BeforePanel;
class Book;
class ClubCard;
class Curtain;
class Declaring;
class Judging;
class KeyCard;
class RevealPanel;
class SentenceView;
class StepsView;
class TestInHand;

/// What is done with what was found: three steps on a cord, a card a club, what is said before the tags come off, the
/// reveal, and what now, as keys and a sentence.
class DecisionPage : public Page {
    Q_OBJECT

public:
    DecisionPage(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book);
    void takeFocus() override;
    QString subtitle() const override;

signals:
    /// What follows: a report, the same test again, the Rack.
    void reportRequested();
    void againRequested();
    /// The text whose hash was published, to be checked elsewhere.
    void sealedTextRequested(const QString& text);
    /// A test that continues this one, with this club of it and others; with a copy of it to adjust.
    void furtherRequested(const std::string& club);
    void adjustRequested(const std::string& club);

protected:
    void refresh() override;
    void resizeEvent(QResizeEvent* event) override;

private:
    QWidget* buildDecision();
    void layCourses();
    void wire();
    void decide(const QString& what, const std::function<void(record::Decision&)>& edit);
    void takeCourse(record::Action course);
    void takeClub(std::size_t build);
    std::size_t clubInHand(record::Action course) const;
    void refreshSteps();
    void refreshCards();
    void refreshBet();
    void refreshExpected();
    void refreshDecision();
    void unveil();
    std::vector<ask::Piece> pieces() const;
    std::vector<ask::Answer> clubs() const;
    QString take(const ask::Chip& chip, const QString& typed);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Judging& m_judging;
    Book& m_book;
    StepsView* m_steps = nullptr;
    BeforePanel* m_before = nullptr;
    QWidget* m_cardArea = nullptr;
    QGridLayout* m_cardGrid = nullptr;
    QList<ClubCard*> m_cards;
    Curtain* m_curtain = nullptr;
    QPushButton* m_unveil = nullptr;
    std::optional<std::size_t> m_tagsOff; ///< while the tags come off: of so many clubs
    RevealPanel* m_reveal = nullptr;
    QLabel* m_betText = nullptr;
    QLabel* m_expected = nullptr;
    QList<KeyCard*> m_courses;
    QGridLayout* m_courseGrid = nullptr;
    SentenceView* m_sentence = nullptr;
    QLabel* m_onBet = nullptr;
    QLabel* m_follows = nullptr;
};

} // namespace knot::app
