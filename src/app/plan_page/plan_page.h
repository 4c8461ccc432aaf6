#pragma once

#include "app/form/page.h"
#include "app/plan_page/plan_words.h"
#include "core/plan/ways.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QScrollArea;

namespace knot::app {

class Book;
class Declaring;
class EarlierTests;
class NumberField;
class PowerView;
class SealPanel;
class StripView;
class WaysView;
class TestInHand;

/// The order of laps and stints, what it can and can't show, and the seal.
class PlanPage : public Page {
    Q_OBJECT

public:
    PlanPage(const TestInHand& hand, Declaring& declaring, Book& book, const EarlierTests& earlier,
             QWidget* parent = nullptr);
    void takeFocus() override;
    QString subtitle() const override;
    SealPanel* sealPanel() const { return m_seal; }

protected:
    void refresh() override;
    void resizeEvent(QResizeEvent* event) override;

private:
    QWidget* buildStrip();
    QWidget* buildPlanner();
    QWidget* buildSlowChanges();
    void refreshSlowChanges();
    void takeOwnSpreads();
    void wire();
    void refreshOutcomes();
    record::Outcome outcomeSeen() const;
    void refreshPower(const Planning& planning);
    void giveWordsRoom();
    void refreshChange();
    void refreshWays(const Planning& planning);
    void takeWay(const plan::WayOption& option);
    void takeMinutes(double minutes);
    plan::Spreads spreads(const record::Outcome& outcome) const;

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    const EarlierTests& m_earlier;
    StripView* m_strip = nullptr;
    QScrollArea* m_stripArea = nullptr;
    QLabel* m_totals = nullptr;
    QComboBox* m_schedule = nullptr;
    NumberField* m_rounds = nullptr;
    NumberField* m_length = nullptr;
    NumberField* m_change = nullptr;
    NumberField* m_shot = nullptr;
    NumberField* m_warmUp = nullptr;
    NumberField* m_rest = nullptr;
    NumberField* m_restSeconds = nullptr;
    QWidget* m_slow = nullptr;
    QComboBox* m_slowPair = nullptr;
    NumberField* m_slowSeconds = nullptr;
    NumberField* m_minutes = nullptr;
    QComboBox* m_outcome = nullptr;
    QComboBox* m_level = nullptr;
    QPushButton* m_another = nullptr;
    QLabel* m_answers = nullptr;
    QLabel* m_limits = nullptr;
    QScrollArea* m_words = nullptr;
    PowerView* m_power = nullptr;
    WaysView* m_ways = nullptr;
    QLabel* m_by = nullptr; ///< by what the curves go
    QLabel* m_wayText = nullptr;
    QLabel* m_changeText = nullptr;
    bool m_isByGap = false;
    SealPanel* m_seal = nullptr;
    double m_minutesThere = 45;
};

} // namespace knot::app
