#pragma once

#include "app/shell/page.h"

#include <string>

class QLabel;
class QLineEdit;
class QListView;
class QStackedLayout;

namespace knot::app {

class Book;
class TestListModel;

/// The tests of the logbook as small cords; without any, what to do first.
class LogbookPage : public Page {
    Q_OBJECT

public:
    LogbookPage(Book& book, QWidget* parent = nullptr);
    void takeFocus() override;
    QString subtitle() const override;

signals:
    void openRequested(const std::string& testId);
    void importRequested();
    void testRequested();
    void logbookRequested();

protected:
    void refresh() override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void buildUi();
    void wire();

    Book& m_book;
    TestListModel* m_model = nullptr;
    QLineEdit* m_search = nullptr;
    QWidget* m_tests = nullptr; ///< the search over the list
    QListView* m_list = nullptr;
    QWidget* m_empty = nullptr;
    QLabel* m_emptyText = nullptr;
    QStackedLayout* m_stack = nullptr;
};

} // namespace knot::app
