#pragma once

#include "core/record/card.h"
#include "core/record/units.h"

#include <QWidget>

class QCheckBox;
class QGridLayout;

namespace knot::app {

class NumberField;

/// A shot typed in: the declared numbers first, the rest if wanted. Enter keeps it and makes room for
/// the next; what can't be taken stays where it was typed.
class HandEntry : public QWidget {
    Q_OBJECT

public:
    explicit HandEntry(QWidget* parent = nullptr);
    void setMetrics(const std::vector<record::Metric>& first, const record::DisplayUnits& units);
    /// Puts the cursor into the first field, with what was typed already. What begins so is a shot from three figures
    /// or a decimal mark on.
    void begin(const QString& typed);
    bool isEmpty() const;
    void clear();

signals:
    void entered(const knot::record::Readings& readings);
    /// What began with a figure stayed one or two of them: that is a club's number, and no shot.
    void figureTyped(int number);
    void left();

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void build();
    void take();

    std::vector<record::Metric> m_first;
    record::DisplayUnits m_units;
    struct Field {
        record::Metric metric;
        QWidget* box;
        NumberField* field;
    };
    std::vector<Field> m_fields;
    QGridLayout* m_grid;
    QCheckBox* m_rest;
    bool m_isByFigures = false; ///< begun by a figure, not by its key
};

} // namespace knot::app
