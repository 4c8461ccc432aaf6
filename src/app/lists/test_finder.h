#pragma once

#include "logbook/logbook.h"

#include <QWidget>

#include <string>
#include <vector>

class QLineEdit;
class QListView;

namespace knot::app {

class TestListModel;

/// A list of tests with a search over it: letters typed at the list go to the search, arrows typed at
/// the search to the list, Enter takes the one in hand.
class TestFinder : public QWidget {
    Q_OBJECT

public:
    explicit TestFinder(QWidget* parent = nullptr);
    void setTests(std::vector<logbook::TestEntry> tests);
    TestListModel* model() const { return m_model; }
    void takeFocus();
    /// The id of the one in hand; empty where there is none.
    std::string current() const;

signals:
    void chosen(const std::string& testId);
    /// Delete was pressed at it.
    void removeRequested(const std::string& testId);
    /// Another title was typed over it (F2).
    void renameRequested(const std::string& testId, const QString& title);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void choose(int row);
    void chooseFirst();

    TestListModel* m_model = nullptr;
    QLineEdit* m_search = nullptr;
    QListView* m_list = nullptr;
};

} // namespace knot::app
