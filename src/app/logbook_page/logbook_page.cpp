#include "app/logbook_page/logbook_page.h"

#include "app/logbook_page/test_list.h"
#include "app/session/book.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/number_text.h"

#include <QCoreApplication>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
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
    m_model = new TestListModel(this);
    m_list = new QListView;
    m_list->setObjectName(QStringLiteral("testList"));
    m_list->setAccessibleName(tr("Tests in this logbook"));
    m_list->setModel(m_model);
    m_list->setItemDelegate(new TestDelegate(m_list));
    m_list->setFrameShape(QFrame::NoFrame);
    m_list->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    m_list->viewport()->setAutoFillBackground(false);

    m_search = new QLineEdit;
    m_search->setObjectName(QStringLiteral("logbookSearch"));
    m_search->setPlaceholderText(tr("Type to search titles, players, clubs and findings"));
    m_search->setAccessibleName(tr("Search"));
    m_search->setClearButtonEnabled(true);
    m_tests = new QWidget;
    auto* list = new QVBoxLayout(m_tests);
    list->setContentsMargins(0, 0, 0, 0);
    list->setSpacing(size::grid);
    list->addWidget(m_search);
    list->addWidget(m_list, 1);

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
    connect(m_search, &QLineEdit::textChanged, this, [this](const QString& words) {
        m_model->setFilter(words);
        if (m_model->rowCount() > 0)
            m_list->setCurrentIndex(m_model->index(0));
    });
    connect(m_search, &QLineEdit::returnPressed, this, [this] {
        if (m_model->rowCount() > 0)
            emit openRequested(m_model->at(m_list->currentIndex().row()).id);
    });
    m_list->installEventFilter(this);
    m_search->installEventFilter(this);
    connect(m_list, &QListView::activated, this,
            [this](const QModelIndex& index) { emit openRequested(m_model->at(index.row()).id); });
    connect(m_list, &QListView::clicked, this,
            [this](const QModelIndex& index) { emit openRequested(m_model->at(index.row()).id); });
}

void LogbookPage::refresh() {
    m_model->setTests(m_book.tests());
    if (m_model->rowCount() > 0)
        m_list->setCurrentIndex(m_model->index(0));
    m_emptyText->setText(tr("No tests yet. Plan one, import a shot file, or drop one here."));
    m_stack->setCurrentWidget(m_book.tests().empty() ? m_empty : m_tests);
}

// Letters typed at the list go to the search; arrows at the search to the list.
bool LogbookPage::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress && event->type() != QEvent::ShortcutOverride)
        return Page::eventFilter(watched, event);
    auto* key = static_cast<QKeyEvent*>(event);
    const bool clears = watched == m_search && key->key() == Qt::Key_Escape && !m_search->text().isEmpty();
    if (event->type() == QEvent::ShortcutOverride) {
        if (clears)
            event->accept(); // before the window's own Escape
        return clears;
    }
    const bool types = !key->text().isEmpty() && key->text().front().isPrint() &&
                       (key->modifiers() & ~Qt::ShiftModifier) == Qt::NoModifier;
    if (watched == m_list && (types || key->key() == Qt::Key_Backspace)) {
        m_search->setFocus();
        QCoreApplication::sendEvent(m_search, event);
        return true;
    }
    const bool moves = key->key() == Qt::Key_Down || key->key() == Qt::Key_Up;
    if (watched == m_search && moves) {
        QCoreApplication::sendEvent(m_list, event);
        return true;
    }
    if (clears) {
        m_search->clear();
        return true;
    }
    return Page::eventFilter(watched, event);
}

QString LogbookPage::subtitle() const {
    return m_book.isOpen() ? QString::fromStdString(record::counted(m_book.tests().size(), "test"))
                           : tr("A logbook keeps tests, shots and readings in one file of yours.");
}

void LogbookPage::takeFocus() {
    m_list->setFocus();
}

} // namespace knot::app
