#include "app/lists/test_finder.h"

#include "app/lists/test_list.h"
#include "app/style/palette.h"

#include <QCoreApplication>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListView>
#include <QVBoxLayout>

namespace knot::app {

TestFinder::TestFinder(QWidget* parent)
    : QWidget(parent)
    , m_model(new TestListModel(this))
    , m_search(new QLineEdit)
    , m_list(new QListView) {
    m_list->setObjectName(QStringLiteral("testList"));
    m_list->setAccessibleName(tr("Tests in this logbook"));
    m_list->setModel(m_model);
    m_list->setItemDelegate(new TestDelegate(m_list));
    m_list->setFrameShape(QFrame::NoFrame);
    m_list->setEditTriggers(QAbstractItemView::EditKeyPressed);
    m_list->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    m_list->viewport()->setAutoFillBackground(false);
    m_search->setObjectName(QStringLiteral("logbookSearch"));
    m_search->setPlaceholderText(tr("Type to search titles, players, clubs and findings"));
    m_search->setAccessibleName(tr("Search"));
    m_search->setClearButtonEnabled(true);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(size::grid);
    column->addWidget(m_search);
    column->addWidget(m_list, 1);

    connect(m_search, &QLineEdit::textChanged, this, [this](const QString& words) {
        m_model->setFilter(words);
        chooseFirst();
    });
    connect(m_search, &QLineEdit::returnPressed, this, [this] { choose(m_list->currentIndex().row()); });
    connect(m_list, &QListView::activated, this, [this](const QModelIndex& index) { choose(index.row()); });
    connect(m_list, &QListView::clicked, this, [this](const QModelIndex& index) { choose(index.row()); });
    // The list is made anew while its editor is open still.
    connect(m_model, &TestListModel::renamed, this, &TestFinder::renameRequested, Qt::QueuedConnection);
    m_list->installEventFilter(this);
    m_search->installEventFilter(this);
}

void TestFinder::setTests(std::vector<logbook::TestEntry> tests) {
    m_model->setTests(std::move(tests));
    chooseFirst();
}

void TestFinder::takeFocus() {
    m_list->setFocus();
}

std::string TestFinder::current() const {
    const int row = m_list->currentIndex().row();
    return row >= 0 && row < m_model->rowCount() ? m_model->at(row).id : std::string();
}

void TestFinder::choose(int row) {
    if (row >= 0 && row < m_model->rowCount())
        emit chosen(std::string(m_model->at(row).id)); // whose list may go
}

void TestFinder::chooseFirst() {
    if (m_model->rowCount() > 0)
        m_list->setCurrentIndex(m_model->index(0));
}

bool TestFinder::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress && event->type() != QEvent::ShortcutOverride)
        return QWidget::eventFilter(watched, event);
    auto* key = static_cast<QKeyEvent*>(event);
    const bool clears = watched == m_search && key->key() == Qt::Key_Escape && !m_search->text().isEmpty();
    if (event->type() == QEvent::ShortcutOverride) {
        if (clears)
            event->accept(); // before the window's own Escape
        return clears;
    }
    if (watched == m_list && key->key() == Qt::Key_Delete) {
        if (const std::string id = current(); !id.empty())
            emit removeRequested(id);
        return true;
    }
    const bool types = !key->text().isEmpty() && key->text().front().isPrint() &&
                       (key->modifiers() & ~Qt::ShiftModifier) == Qt::NoModifier;
    if (watched == m_list && (types || key->key() == Qt::Key_Backspace)) {
        m_search->setFocus();
        QCoreApplication::sendEvent(m_search, event);
        return true;
    }
    const bool moves = key->key() == Qt::Key_Down || key->key() == Qt::Key_Up || key->key() == Qt::Key_PageDown ||
                       key->key() == Qt::Key_PageUp;
    if (watched == m_search && moves) {
        QCoreApplication::sendEvent(m_list, event);
        return true;
    }
    if (clears) {
        m_search->clear();
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

} // namespace knot::app
