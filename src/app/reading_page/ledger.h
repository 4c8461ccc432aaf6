#pragma once

#include "core/words/ledger.h"

#include <QAbstractListModel>
#include <QStringList>
#include <QStyledItemDelegate>

#include <vector>

namespace knot::app {

/// How the rows under a heading follow each other: settled ones first, or by number, or by club.
enum class LedgerOrder { bySettled, byNumber, byClub };

/// The verdict ledger: a heading for the declared outcomes and one for the rest, each followed by
/// its rows, clubs that were struck off last and folded into a line. What is typed leaves only rows that hold all its
/// words. Screen readers get the whole sentence of a row.
class LedgerModel : public QAbstractListModel {
    Q_OBJECT

public:
    struct Row {
        QString heading; ///< not empty: a heading, and nothing else counts
        words::LedgerLine line;
        QString build, sentence;
        record::Metric metric = record::Metric::carry;
        QString without; ///< what it would say without the shot that is held out, on its second line
        QString withoutValue;
        bool isOther = false; ///< that is another verdict
    };

    using QAbstractListModel::QAbstractListModel;
    /// Clubs in `struckOff` are folded away until asked for.
    void setReading(const judge::Reading* reading, const std::vector<record::BuildAt>& struckOff,
                    const record::DisplayUnits& units);
    void setOrder(LedgerOrder order);
    void setFilter(const QString& words);
    void unfold();
    /// Each row says what it would be by this reading; nothing: no more.
    void setWithout(const judge::Reading* reading, const record::DisplayUnits& units);
    const Row& at(int row) const { return m_rows[static_cast<std::size_t>(row)]; }
    /// The first row about a metric, a build and a kind of outcome; −1 when there is none.
    int rowOf(record::Metric metric, record::BuildAt build,
              record::OutcomeKind kind = record::OutcomeKind::average) const;
    int firstLine() const;

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;

private:
    void arrange();

    std::vector<Row> m_rows; ///< as they are shown
    std::vector<Row> m_all;  ///< without headings, as the ledger has them
    std::vector<record::BuildAt> m_struckOff;
    LedgerOrder m_order = LedgerOrder::bySettled;
    QStringList m_filter;
    bool m_isUnfolded = false;
};

class LedgerDelegate : public QStyledItemDelegate {
    Q_OBJECT

public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
};

} // namespace knot::app
