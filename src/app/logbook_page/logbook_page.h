#pragma once

#include "app/form/page.h"

#include <string>

class QLabel;
class QStackedLayout;

namespace knot::app {

class Book;
class TestFinder;

/// The tests of the logbook as small cords; without any, what to do first.
class LogbookPage : public Page {
    Q_OBJECT

public:
    LogbookPage(Book& book, QWidget* parent = nullptr);
    void takeFocus() override;
    QString subtitle() const override;
    /// The id of the test in hand in the list; empty where there is none.
    std::string current() const;

signals:
    void openRequested(const std::string& testId);
    void removeRequested(const std::string& testId);
    void renameRequested(const std::string& testId, const QString& title);
    void importRequested();
    void testRequested();
    void logbookRequested();

protected:
    void refresh() override;

private:
    void buildUi();
    void wire();

    Book& m_book;
    TestFinder* m_tests = nullptr;
    QWidget* m_empty = nullptr;
    QLabel* m_emptyText = nullptr;
    QStackedLayout* m_stack = nullptr;
};

} // namespace knot::app
