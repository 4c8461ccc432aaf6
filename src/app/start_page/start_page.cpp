#include "app/start_page/start_page.h"

#include "app/form/panel.h"
#include "app/start_page/door.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/labels.h"
#include "app/style/palette.h"

#include <QFileInfo>
#include <QGridLayout>
#include <QListView>
#include <QPainter>
#include <QPushButton>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

namespace knot::app {
namespace {

// Title over what was found, with the verdict's knot before them.
class LatelyDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
        return {300, static_cast<int>(54 * typeScale())};
    }
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto& test = static_cast<const LatelyModel*>(index.model())->at(index.row());
        const Colours& c = colours();
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        if ((option.state & QStyle::State_Selected) && (option.state & QStyle::State_HasFocus)) {
            painter->setPen(Qt::NoPen);
            painter->setBrush(c.selection);
            painter->drawRoundedRect(QRectF(option.rect).adjusted(0, 1, 0, -1), 4, 4);
        }
        const QRectF row = QRectF(option.rect).adjusted(8, 6, -8, -6);
        const QRectF glyph(row.left(), row.top() + 2, 30, 18);
        if (test.verdict >= 0) {
            drawVerdict(*painter, glyph, static_cast<judge::Verdict>(test.verdict));
        } else {
            painter->setPen(QPen(c.cord, 2));
            painter->drawLine(QPointF(glyph.left(), glyph.center().y()), QPointF(glyph.right(), glyph.center().y()));
        }
        const QRectF text = row.adjusted(42, 0, 0, 0);
        auto line = [&](const QRectF& box, const QString& words) {
            painter->drawText(box, Qt::AlignLeft | Qt::AlignVCenter,
                              painter->fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(box.width())));
        };
        painter->setFont(typeface(size::strong, QFont::DemiBold));
        painter->setPen(c.ink);
        line(QRectF(text.left(), text.top(), text.width(), text.height() / 2), test.title);
        painter->setFont(typeface(size::caption));
        painter->setPen(c.faint);
        line(QRectF(text.left(), text.center().y(), text.width(), text.height() / 2),
             index.data(Qt::UserRole).toString());
        painter->restore();
    }
};

QPushButton* linkButton(const QString& text, const char* name) {
    auto* button = new QPushButton(text);
    button->setObjectName(QLatin1String(name));
    button->setFlat(true);
    button->setCursor(Qt::PointingHandCursor);
    button->setFont(typeface(size::body, QFont::DemiBold));
    button->setStyleSheet(QStringLiteral("text-align: left; border: none; padding: 2px 0; color: palette(link)"));
    return button;
}

} // namespace

void LatelyModel::setTests(std::vector<Lately> tests) {
    beginResetModel();
    m_tests = std::move(tests);
    endResetModel();
}

int LatelyModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_tests.size());
}

QVariant LatelyModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid))
        return {};
    const auto& test = at(index.row());
    const QString said =
        QFileInfo(test.path).completeBaseName() + (test.said.isEmpty() ? QString() : QStringLiteral(" · ") + test.said);
    if (role == Qt::DisplayRole)
        return test.title;
    if (role == Qt::UserRole)
        return said;
    if (role == Qt::AccessibleTextRole)
        return QString(test.title + QStringLiteral(". ") + said);
    return {};
}

StartPage::StartPage(QWidget* parent)
    : Page(parent) {
    setObjectName(QStringLiteral("startPage"));
    auto* shots = new Door(Door::Picture::shots, tr("I have shots"),
                           tr("Drop a file, paste a table, or open one. What they say, and how sure that is."),
                           tr("Ctrl+I"), "doorShots");
    auto* hit =
        new Door(Door::Picture::cord, tr("I want to hit"),
                 tr("A sitting without a plan: any club, shots by themselves or typed."), tr("Ctrl+H"), "doorHit");
    auto* test = new Door(Door::Picture::test, tr("I want to know"),
                          tr("A fair test: two clubs or five, blind if you like, planned for the time you have."),
                          tr("Ctrl+N"), "doorTest");
    connect(shots, &Door::clicked, this, &StartPage::shotsRequested);
    connect(hit, &Door::clicked, this, &StartPage::hitRequested);
    connect(test, &Door::clicked, this, &StartPage::testRequested);
    m_first = shots;
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setSpacing(2 * size::grid);
    grid->addWidget(shots, 0, 0);
    grid->addWidget(hit, 0, 1);
    grid->addWidget(test, 0, 2);
    grid->addWidget(buildLately(), 1, 0, 1, 2);
    grid->addWidget(buildNew(), 1, 2);
    for (int column = 0; column < 3; ++column)
        grid->setColumnStretch(column, 1);
    grid->setRowStretch(0, 11);
    grid->setRowStretch(1, 10);
}

QWidget* StartPage::buildLately() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Lately"), column);
    m_model = new LatelyModel(this);
    m_list = new QListView;
    m_list->setObjectName(QStringLiteral("latelyList"));
    m_list->setAccessibleName(tr("Tests that were open lately"));
    m_list->setModel(m_model);
    m_list->setItemDelegate(new LatelyDelegate(m_list));
    m_list->setFrameShape(QFrame::NoFrame);
    m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_list->viewport()->setAutoFillBackground(false);
    auto open = [this](const QModelIndex& index) {
        const auto& test = m_model->at(index.row());
        emit latelyRequested(test.path, test.id);
    };
    connect(m_list, &QListView::activated, this, open);
    connect(m_list, &QListView::clicked, this, open);
    column->addWidget(m_list, 1);
    m_nothing =
        captionLabel("nothingLately", tr("Tests, sittings and files that were open stand here with what was found."));
    column->addWidget(m_nothing);
    column->addStretch();
    auto* book = linkButton(tr("Open a logbook…"), "openButton");
    connect(book, &QPushButton::clicked, this, &StartPage::logbookRequested);
    column->addWidget(book);
    return panel;
}

QWidget* StartPage::buildNew() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("New to it?"), column);
    auto* words = plainLabel(tr("The demo: fourteen tests with a known truth. Open one and see what is said of it, and "
                                "why three shots each say nothing."));
    words->setObjectName(QStringLiteral("newWords"));
    words->setWordWrap(true);
    column->addWidget(words);
    auto* demo = linkButton(tr("Look at the demo"), "demoButton");
    connect(demo, &QPushButton::clicked, this, &StartPage::demoRequested);
    column->addWidget(demo);
    column->addStretch();
    return panel;
}

QString StartPage::heading() const {
    return tr("Knot Count");
}

QString StartPage::subtitle() const {
    return tr("Which club is better, and can you know?");
}

void StartPage::refresh() {
    m_model->setTests(lately());
    const bool any = m_model->rowCount() > 0;
    m_list->setVisible(any);
    m_nothing->setVisible(!any);
    if (any)
        m_list->setCurrentIndex(m_model->index(0));
}

void StartPage::takeFocus() {
    markStale();
    m_model->rowCount() > 0 ? m_list->setFocus() : m_first->setFocus();
}

} // namespace knot::app
