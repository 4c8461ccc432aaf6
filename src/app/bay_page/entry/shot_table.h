#pragma once

#include "core/record/test.h"
#include "core/record/units.h"

#include <QAbstractTableModel>

#include <vector>

namespace knot::app {

/// The shots of a test in the order struck, one a row: number, time, club, stint, what became of it, and its
/// first measurements. A row reads as a sentence to a screen reader.
class ShotTable : public QAbstractTableModel {
    Q_OBJECT

public:
    using QAbstractTableModel::QAbstractTableModel;
    /// `showsNumbers`: whether whoever looks may see them.
    void setTest(const record::Test& test, const record::DisplayUnits& units, bool showsNumbers);
    record::ShotId shotAt(int row) const { return m_test.shots[static_cast<std::size_t>(row)].id; }
    /// The measurement of a column; nothing for the first ones.
    std::optional<record::Metric> metricAt(int column) const;
    static constexpr int firstMetric = 5;

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;

signals:
    /// A number was typed over; empty blanks it. The shot's id and the metric are as numbers, which Qt can send.
    void typed(qint64 shot, int metric, const QString& text);

private:
    QString cellText(const record::Shot& shot, int row, int column) const;
    QString clubText(const record::Shot& shot) const;
    QString stintText(const record::Shot& shot) const;
    QString fateText(const record::Shot& shot) const;

    record::Test m_test;
    record::DisplayUnits m_units;
    std::vector<record::Metric> m_metrics;
};

} // namespace knot::app
