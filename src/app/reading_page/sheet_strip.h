#pragma once

#include "core/record/metric.h"

#include <QWidget>

class QComboBox;
class QLineEdit;
class QPushButton;
class QLabel;

namespace knot::app {

class Session;

/// What the verdicts rest on and can be set beside the picture: the baseline, whether the shown
/// metric was declared, its worthwhile gap and wanted direction, and the units.
class SheetStrip : public QWidget {
    Q_OBJECT

public:
    explicit SheetStrip(Session& session, QWidget* parent = nullptr);
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

    Session& m_session;
    record::Metric m_metric = record::Metric::carry;
    QComboBox* m_baseline = nullptr;
    QComboBox* m_want = nullptr;
    QComboBox* m_distance = nullptr;
    QComboBox* m_speed = nullptr;
    QPushButton* m_declared = nullptr;
    QLineEdit* m_gap = nullptr;
    QLabel* m_gapLabel = nullptr;
};

} // namespace knot::app
