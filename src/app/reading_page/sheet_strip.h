#pragma once

#include "core/record/metric.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace knot::app {

class Book;
class Declaring;
class Judging;
class TestInHand;

/// What the verdicts rest on and can be set beside the picture: the baseline, whether the shown
/// metric was declared, its worthwhile gap and wanted direction, and the units.
class SheetStrip : public QWidget {
    Q_OBJECT

public:
    SheetStrip(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book, QWidget* parent = nullptr);
    void setMetric(record::Metric metric);
    /// The next build becomes the baseline.
    void nextBaseline();
    void toggleDeclared();
    void editGap();

private:
    void buildUi();
    void wire();
    void refresh();
    void takeGap();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Judging& m_judging;
    Book& m_book;
    record::Metric m_metric = record::Metric::carry;
    QComboBox* m_baseline = nullptr;
    QComboBox* m_want = nullptr;
    QPushButton* m_declared = nullptr;
    QLineEdit* m_gap = nullptr;
    QLabel* m_gapLabel = nullptr;
};

} // namespace knot::app
