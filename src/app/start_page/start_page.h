#pragma once

#include "app/form/page.h"
#include "app/lists/lately.h"

#include <QAbstractListModel>

class QListView;

namespace knot::app {

class LatelyModel : public QAbstractListModel {
    Q_OBJECT

public:
    using QAbstractListModel::QAbstractListModel;
    void setTests(std::vector<Lately> tests);
    const Lately& at(int row) const { return m_tests[static_cast<std::size_t>(row)]; }
    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;

private:
    std::vector<Lately> m_tests;
};

/// Where somebody comes in: with shots, to hit, or with a question; what was done lately; and for the
/// newcomer something to look at.
class StartPage : public Page {
    Q_OBJECT

public:
    explicit StartPage(QWidget* parent = nullptr);
    QString heading() const override;
    QString subtitle() const override;
    void takeFocus() override;

signals:
    void shotsRequested();
    void hitRequested();
    void testRequested();
    void demoRequested();
    void logbookRequested();
    void latelyRequested(const QString& path, const QString& id);

protected:
    void refresh() override;

private:
    QWidget* buildLately();
    QWidget* buildNew();
    LatelyModel* m_model = nullptr;
    QListView* m_list = nullptr;
    QWidget* m_nothing = nullptr;
    QWidget* m_first = nullptr;
};

} // namespace knot::app
