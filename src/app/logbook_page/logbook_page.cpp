#include "app/logbook_page/logbook_page.h"

#include "app/lists/test_finder.h"
#include "app/lists/test_list.h"
#include "app/session/book.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"

#include <QLabel>
#include <QPushButton>
#include <QStackedLayout>
#include <QVBoxLayout>

namespace knot::app {

LogbookPage::LogbookPage(Book& book, QWidget* parent)
    : Page(parent)
    , m_book(book) {
    buildUi();
    wire();
}

void LogbookPage::buildUi() {
    m_tests = new TestFinder;

    m_empty = new QWidget;
    m_emptyText = plainLabel();
    m_emptyText->setObjectName(QStringLiteral("emptyText"));
    m_emptyText->setAlignment(Qt::AlignCenter);
    m_emptyText->setWordWrap(true);
    auto* start = new QPushButton(tr("New test"));
    start->setObjectName(QStringLiteral("newTestButton"));
    connect(start, &QPushButton::clicked, this, &LogbookPage::testRequested);
    auto* import = new QPushButton(tr("Import shots…"));
    import->setObjectName(QStringLiteral("importButton"));
    auto* open = new QPushButton(tr("Open a logbook…"));
    open->setObjectName(QStringLiteral("openButton"));
    connect(import, &QPushButton::clicked, this, &LogbookPage::importRequested);
    connect(open, &QPushButton::clicked, this, &LogbookPage::logbookRequested);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch();
    buttons->addWidget(start);
    buttons->addWidget(import);
    buttons->addWidget(open);
    buttons->addStretch();
    auto* column = new QVBoxLayout(m_empty);
    column->addStretch(2);
    column->addWidget(m_emptyText);
    column->addSpacing(2 * size::grid);
    column->addLayout(buttons);
    column->addStretch(3);

    m_stack = new QStackedLayout(this);
    m_stack->addWidget(m_tests);
    m_stack->addWidget(m_empty);
}

void LogbookPage::wire() {
    connect(&m_book, &Book::changed, this, &LogbookPage::markStale);
    connect(&m_book, &Book::found, m_tests->model(), &TestListModel::setFinding);
    connect(m_tests, &TestFinder::chosen, this, &LogbookPage::openRequested);
    connect(m_tests, &TestFinder::removeRequested, this, &LogbookPage::removeRequested);
    connect(m_tests, &TestFinder::renameRequested, this, &LogbookPage::renameRequested);
}

std::string LogbookPage::current() const {
    return m_tests->current();
}

void LogbookPage::refresh() {
    m_tests->setTests(m_book.tests());
    m_emptyText->setText(tr("No tests yet. Plan one, import a shot file, or drop one here."));
    m_stack->setCurrentWidget(m_book.tests().empty() ? m_empty : m_tests);
}

QString LogbookPage::subtitle() const {
    return m_book.isOpen() ? QString::fromStdString(record::counted(m_book.tests().size(), "test"))
                           : tr("A logbook keeps tests, shots and readings in one file of yours.");
}

void LogbookPage::takeFocus() {
    m_tests->takeFocus();
}

} // namespace knot::app
