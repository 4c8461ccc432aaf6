#pragma once

#include "files/import/columns.h"

#include <QAbstractListModel>
#include <QListView>
#include <QStyledItemDelegate>

#include <vector>

namespace knot::app {

/// What a column was taken for, as people say it: "ball speed, mph", "club", "kept as text".
QString meaningText(const files::ColumnMeaning& meaning);
/// What a text typed over it means, as a canonical name; a measurement without its unit keeps that of
/// the column where it can, else the first one. Nothing where it means nothing.
std::optional<std::string> meaningTyped(const QString& text, const files::ColumnMeaning& now);

/// The columns of a file. A row reads as a sentence to a screen reader.
class ColumnModel : public QAbstractListModel {
    Q_OBJECT

public:
    using QAbstractListModel::QAbstractListModel;
    void setColumns(std::vector<files::ColumnTaken> columns);
    const files::ColumnTaken& at(int row) const { return m_columns[static_cast<std::size_t>(row)]; }
    const std::vector<files::ColumnTaken>& columns() const { return m_columns; }

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;

signals:
    /// A heading was said to mean this canonical name; empty keeps it as text.
    void corrected(const QString& heading, const QString& name);
    void refused(const QString& sentence);

private:
    std::vector<files::ColumnTaken> m_columns;
};

/// Draws a column as its heading, a knot, its meaning, what is asked, and one of its values.
class ColumnDelegate : public QStyledItemDelegate {
    Q_OBJECT

public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    void setEditorData(QWidget* editor, const QModelIndex& index) const override;
    void setModelData(QWidget* editor, QAbstractItemModel* model, const QModelIndex& index) const override;
    void updateEditorGeometry(QWidget* editor, const QStyleOptionViewItem& option,
                              const QModelIndex& index) const override;
};

/// The list: a meaning is typed over where it is read, and arrows left and right walk through the answers
/// to what is asked.
class ColumnList : public QListView {
    Q_OBJECT

public:
    explicit ColumnList(QWidget* parent = nullptr);
    ColumnModel* columns() const { return m_model; }

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void walk(int by);
    ColumnModel* m_model = nullptr;
};

} // namespace knot::app
