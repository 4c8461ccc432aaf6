#pragma once

#include "app/form/page.h"

#include <QList>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace knot::app {

class Book;
class Declaring;
class EarlierTests;
class NumberField;
class OpenLine;
class PlayerCard;
class SentenceView;
class TakesPanel;
class TestInHand;
class TieRow;
class WantedLine;

/// The test sheet: what will be judged as one sentence, four matters in a line each, what is held constant, what is
/// known of who hits, and what all that takes. Every edit is kept as it is made; after the first counted shot it is an
/// amendment.
class SheetPage : public Page {
    Q_OBJECT

public:
    SheetPage(const TestInHand& hand, Declaring& declaring, Book& book, const EarlierTests& earlier,
              QWidget* parent = nullptr);
    void takeFocus() override;
    QString subtitle() const override;

signals:
    /// The page about a player, by id.
    void playerRequested(const std::string& id);

protected:
    void refresh() override;

private:
    QWidget* buildSentence();
    QWidget* buildHeld();
    OpenLine* buildExpected();
    OpenLine* buildBadShots();
    OpenLine* buildLooking();
    void wire();
    void setOrder(const QString& typed);
    void refreshHeld();
    void refreshExpected();
    void refreshBadShots();
    void refreshLooking();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    QLineEdit* m_question = nullptr;
    SentenceView* m_sentence = nullptr;
    QLabel* m_frozen = nullptr;
    OpenLine* m_expectedLine = nullptr;
    QComboBox* m_expectMetric = nullptr;
    QComboBox* m_expect = nullptr;
    QLineEdit* m_order = nullptr;
    QLineEdit* m_expectedBy = nullptr;
    QLabel* m_orderFault = nullptr;
    OpenLine* m_badShots = nullptr;
    QComboBox* m_rule = nullptr;
    QCheckBox* m_replace = nullptr;
    NumberField* m_good = nullptr;
    QLabel* m_ruleText = nullptr;
    OpenLine* m_looking = nullptr;
    QComboBox* m_looks = nullptr;
    NumberField* m_alpha = nullptr;
    QLabel* m_looksText = nullptr;
    WantedLine* m_wanted = nullptr;
    QLabel* m_heldCount = nullptr;
    QVBoxLayout* m_heldRows = nullptr;
    QList<TieRow*> m_ties;
    TakesPanel* m_takes = nullptr;
    PlayerCard* m_player = nullptr;
};

} // namespace knot::app
