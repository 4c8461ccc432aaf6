#pragma once

#include "logbook/logbook.h"

#include <QAbstractListModel>
#include <QStyledItemDelegate>

#include <cstddef>
#include <vector>

namespace knot::app {

/// The tests of the open logbook, newest first. A row reads as a sentence to a screen reader.
class TestListModel : public QAbstractListModel {
    Q_OBJECT

public:
    using QAbstractListModel::QAbstractListModel;
    void setTests(std::vector<logbook::TestEntry> tests);
    void setFinding(const std::string& id, const logbook::TestEntry::Finding& finding);
    /// Only those with all of these words in title, question, player, clubs or finding.
    void setFilter(const QString& words);
    const logbook::TestEntry& at(int row) const { return m_tests[m_shown[static_cast<std::size_t>(row)]]; }
    /// The day over a row that begins one; empty where the row before it is of the same.
    QString dayOver(int row) const;

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;

signals:
    void renamed(const std::string& id, const QString& title);

private:
    void show();
    std::vector<logbook::TestEntry> m_tests;
    std::vector<std::size_t> m_shown; ///< of m_tests
    QString m_filter;
};

/// Draws a test as its title and a small cord for each build, one knot a counted shot, parted where
/// the club changed.
class TestDelegate : public QStyledItemDelegate {
    Q_OBJECT

public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    /// The title is typed where it stands.
    void updateEditorGeometry(QWidget* editor, const QStyleOptionViewItem& option,
                              const QModelIndex& index) const override;
};

} // namespace knot::app
