#pragma once

#include "app/shell/page.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace knot::app {

class AlsoAsked;
class Book;
class Declaring;
class NumberField;
class OutcomeRows;
class PlayerRows;
class TestInHand;

/// The test sheet: what is asked, of whom, judged by what, and what is held constant. Every edit is
/// kept as it is made; after the first counted shot it is an amendment.
class SheetPage : public Page {
    Q_OBJECT

public:
    SheetPage(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent = nullptr);
    void takeFocus() override;
    QString subtitle() const override;

signals:
    /// The page about a player, by id.
    void playerRequested(const std::string& id);

protected:
    void refresh() override;

private:
    QWidget* buildQuestion();
    QWidget* buildPlayer();
    QWidget* buildControls();
    QWidget* buildOutcomes();
    QWidget* buildSetAsides();
    QWidget* buildWindows();
    QWidget* buildAlso();
    void wire();
    void refreshControls();
    void refreshWindows();
    void refreshExpected();
    void setKind(int kind);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    QLineEdit* m_question = nullptr;
    QComboBox* m_kind = nullptr;
    QLineEdit* m_factor = nullptr;
    QComboBox* m_comparison = nullptr;
    QLabel* m_frozen = nullptr;
    PlayerRows* m_players = nullptr;
    QVBoxLayout* m_controls = nullptr;
    QList<QCheckBox*> m_held;
    QList<QLineEdit*> m_slips;
    OutcomeRows* m_outcomes = nullptr;
    AlsoAsked* m_also = nullptr;
    QComboBox* m_rule = nullptr;
    QCheckBox* m_replace = nullptr;
    NumberField* m_good = nullptr;
    QLabel* m_ruleText = nullptr;
    QComboBox* m_looks = nullptr;
    NumberField* m_alpha = nullptr;
    QLabel* m_looksText = nullptr;
    QComboBox* m_windowMetric = nullptr;
    QComboBox* m_windowBuild = nullptr;
    NumberField* m_windowLow = nullptr;
    NumberField* m_windowHigh = nullptr;
    QComboBox* m_expectMetric = nullptr;
    QComboBox* m_expect = nullptr;
    QLabel* m_expected = nullptr;
    QLabel* m_windows = nullptr;
};

} // namespace knot::app
