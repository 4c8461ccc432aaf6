#pragma once

#include "core/bay/correct.h"
#include "core/record/units.h"

#include <QWidget>

class QLabel;
class QStackedWidget;
class QTableView;

namespace knot::app {

class AskBar;
class BayRun;
class ShotTable;
class TestInHand;

/// The list of a test's shots, to put the record right by keys: a digit says which club the selected ones
/// were struck with, Space counts them or sets them aside, S says why, N and J begin and join a stint, F2
/// types a number over, Delete blanks it. Each is one step to undo, and stands in the record's history.
class ShotList : public QWidget {
    Q_OBJECT

public:
    ShotList(const TestInHand& hand, BayRun& bay, QWidget* parent = nullptr);
    /// With the last shot in hand.
    void open(const record::DisplayUnits& units);
    void takeFocus();

signals:
    void left();
    void complained(const QString& sentence);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void showEvent(QShowEvent* event) override;

private:
    void buildUi();
    void refresh();
    bool act(int key, Qt::KeyboardModifiers modifiers);
    bay::Shots selected() const;
    /// Numbers of shots as the list has them: "12, 13".
    QString numbersOf(const bay::Shots& shots) const;
    void moveTo(int club);
    void moveToPlayer();
    void countOrSetAside();
    void setAsideWhy();
    void setAside(const bay::Shots& shots, const QString& reason);
    void seam(bool begins);
    void take(record::ShotId shot, record::Metric metric, const QString& text);
    void correct(const QString& what, const QString& history,
                 const std::function<bay::Corrected<bay::From>(record::Test&)>& edit);

    const TestInHand& m_hand;
    BayRun& m_bay;
    record::DisplayUnits m_units;
    ShotTable* m_model = nullptr;
    QTableView* m_table = nullptr;
    AskBar* m_ask = nullptr;
    QStackedWidget* m_foot = nullptr;
    QLabel* m_keys = nullptr;
    QLabel* m_clubs = nullptr;
    bool m_stale = true;
};

} // namespace knot::app
