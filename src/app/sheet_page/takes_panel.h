#pragma once

#include "app/form/panel.h"
#include "core/plan/requirements.h"
#include "core/record/units.h"

namespace knot::app {

class Book;
class EarlierTests;
class TestInHand;

/// Two cords as a plan of this test might strike them: without the worthwhile gap and with it.
class TakesView : public QWidget {
    Q_OBJECT

public:
    TakesView();
    void display(const plan::Takes& takes, int laps, int shots, const record::DisplayUnits& units);
    QSize sizeHint() const override { return {320, 118}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    struct Cord {
        std::vector<double> values; ///< from the first one's middle, in the outcome's unit
    };
    Cord m_cords[2];
    double m_band = 0;
    QString m_under;
};

/// What a test takes: the player's scatter against the worthwhile gap, and how often this plan, two sittings and three
/// shots each would see it, for each declared outcome.
class TakesPanel : public Panel {
    Q_OBJECT

public:
    TakesPanel(const TestInHand& hand, const Book& book, const EarlierTests& earlier);
    void refresh();

private:
    const TestInHand& m_hand;
    const Book& m_book;
    const EarlierTests& m_earlier;
    QLabel* m_whose;
    TakesView* m_view;
    QLabel* m_words;
};

} // namespace knot::app
