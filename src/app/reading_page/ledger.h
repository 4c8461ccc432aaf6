#pragma once

#include "core/words/ledger.h"

#include <QAbstractListModel>
#include <QStyledItemDelegate>

#include <vector>

namespace knot::app {

/// The verdict ledger: a heading for the declared outcomes and one for the rest, each followed by
/// its rows. Screen readers get the whole sentence of a row.
class LedgerModel : public QAbstractListModel {
    Q_OBJECT

public:
    struct Row {
        QString heading; ///< not empty: a heading, and nothing else counts
        words::LedgerLine line;
        QString build, sentence;
        record::Metric metric = record::Metric::carry;
    };

    using QAbstractListModel::QAbstractListModel;
    void setReading(const judge::Reading* reading, const record::DisplayUnits& units);
    const Row& at(int row) const { return m_rows[static_cast<std::size_t>(row)]; }
    /// The first row about a metric and build; −1 when there is none.
    int rowOf(record::Metric metric, record::BuildAt build) const;
    int firstLine() const;

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;

private:
    std::vector<Row> m_rows;
};

class LedgerDelegate : public QStyledItemDelegate {
    Q_OBJECT

public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
};

} // namespace knot::app
