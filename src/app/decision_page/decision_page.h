#pragma once

#include "app/form/page.h"
#include "core/record/decision.h"

#include <QList>

class QLabel;
class QLineEdit;
class QComboBox;
class QPushButton;
class QVBoxLayout;

namespace knot::app {

class BestView;
class Book;
class Curtain;
class Declaring;
class Judging;
class NameButton;
class RevealPanel;
class TestInHand;

/// What is done with what was found: what is said before the tags come off, the bet, the reveal, what was expected and
/// said, and the decision with its reason.
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

private:
    /// One of the three questions before the tags come off.
    struct Question {
        record::Said record::Choices::*member;
        QWidget* box;
        QList<NameButton*> clubs;
    };
    QWidget* buildBefore();
    QWidget* buildBet();
    QWidget* buildExpected();
    QWidget* buildDecision();
    void wire();
    void choose(record::Said record::Choices::*member, std::size_t club);
    void decide(const QString& what, const std::function<void(record::Decision&)>& edit);
    void refreshBefore();
    void refreshBet();
    void refreshExpected();
    void refreshDecision();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Judging& m_judging;
    Book& m_book;
    QList<Question> m_questions;
    QLabel* m_beforeHead = nullptr;
    QLabel* m_beforeText = nullptr;
    QVBoxLayout* m_bets = nullptr;
    QList<BestView*> m_bestViews;
    Curtain* m_curtain = nullptr;
    QLabel* m_betText = nullptr;
    RevealPanel* m_reveal = nullptr;
    QLabel* m_expected = nullptr;
    QList<QPushButton*> m_courses;
    QComboBox* m_club = nullptr;
    QLineEdit* m_reason = nullptr;
    QLineEdit* m_price = nullptr;
    QLineEdit* m_watch = nullptr;
    QLabel* m_onBet = nullptr;
    QLabel* m_follows = nullptr;
};

} // namespace knot::app
