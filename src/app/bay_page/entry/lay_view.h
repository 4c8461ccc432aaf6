#pragma once

#include "core/bay/lay.h"
#include "core/record/units.h"

#include <QWidget>

class QLabel;
class QListWidget;

namespace knot::app {

/// A device's file beside the planned order. Down and Up choose a line; G puts a missed read before
/// it, Backspace takes one away, X leaves a shot out or takes it in again, Enter keeps it all.
class LayView : public QWidget {
    Q_OBJECT

public:
    explicit LayView(QWidget* parent = nullptr);
    /// Lays the shots of a device's file, in the order struck, on the test's plan; `laid` follows. `file`
    /// is its name.
    void layShots(const record::Test& test, const QString& file, std::vector<record::Shot> shots,
                  const record::DisplayUnits& units);
    void takeFocus();
    const bay::Laying* laying() const { return m_laying ? &*m_laying : nullptr; }

signals:
    /// The file lies on the plan of this test.
    void laid(const std::string& testId);
    void accepted(const knot::bay::Laying& laying);
    void left();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    bool act(int key);
    void refresh();
    QString lineText(std::size_t line) const;

    record::Test m_test; ///< without shots
    record::DisplayUnits m_units;
    std::optional<bay::Laying> m_laying;
    QLabel* m_heading;
    QLabel* m_totals;
    QListWidget* m_lines;
};

} // namespace knot::app
