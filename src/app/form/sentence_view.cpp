#include "app/form/sentence_view.h"

#include "app/form/chip_field.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QEvent>
#include <QListWidget>
#include <QPainter>
#include <QScrollBar>

#include <algorithm>

namespace knot::app {
namespace {

constexpr int mostOffered = 8; // rows that are seen at once
constexpr double lineRoom = 10;

} // namespace

SentenceView::SentenceView(const char* name, SentenceSource source, int size, ask::Part first, QWidget* parent)
    : QWidget(parent)
    , m_source(std::move(source))
    , m_size(size)
    , m_fault(captionLabel("sentenceFault")) {
    setObjectName(QLatin1String(name));
    m_fault->setObjectName(objectName() + QStringLiteral("Fault"));
    m_fault->setParent(this);
    m_fault->hide();
    fieldFor({first, 0}); // those that come later stand behind it in the order of Tab
}

QString SentenceView::text() const {
    return QString::fromStdString(ask::textOf(m_pieces));
}

ChipField* SentenceView::fieldFor(const ask::Chip& chip) {
    for (ChipField* field : m_fields)
        if (field->chip() == chip)
            return field;
    auto* field = new ChipField(chip, m_size, this);
    Typed::whole(field, [this, field](const QString& typed) { take(field, typed); });
    connect(field, &ChipField::walked, this, [this, field](int by) { walk(field, by); });
    connect(field, &ChipField::browsed, this, [this, field](int by) { browse(field, by); });
    connect(field, &ChipField::entered, this, [this, field] { enter(field); });
    connect(field, &ChipField::left, this, &SentenceView::closeOffer);
    connect(field, &ChipField::resized, this, &SentenceView::layOut);
    connect(field, &QLineEdit::textEdited, this, [this, field] {
        m_fault->hide();
        offer(field);
    });
    m_fields << field;
    return field;
}

QList<ChipField*> SentenceView::inOrder() const {
    QList<ChipField*> fields;
    for (const ask::Piece& piece : m_pieces)
        if (piece.chip)
            for (ChipField* field : m_fields)
                if (field->chip() == *piece.chip)
                    fields << field;
    return fields;
}

// What was not understood stays, with the reason; what was is shown as the sentence has it.
void SentenceView::take(ChipField* field, const QString& typed) {
    closeOffer();
    const QString fault = m_source.take(field->chip(), typed);
    field->setFaulty(!fault.isEmpty());
    m_fault->setText(fault);
    m_fault->setVisible(!fault.isEmpty());
    if (fault.isEmpty())
        field->giveUp();
    refresh();
}

void SentenceView::refresh() {
    m_pieces = m_source.pieces();
    setAccessibleName(text());
    QWidget* before = nullptr;
    QList<ChipField*> shown;
    for (const ask::Piece& piece : m_pieces) {
        if (!piece.chip)
            continue;
        ChipField* field = fieldFor(*piece.chip);
        field->display(QString::fromStdString(piece.text), piece.isEmpty);
        field->setReadOnly(m_source.stands(*piece.chip));
        if (before != nullptr)
            setTabOrder(before, field);
        before = field;
        shown << field;
    }
    for (ChipField* field : m_fields)
        field->setVisible(shown.contains(field));
    layOut();
}

void SentenceView::takeFocus() {
    const auto fields = inOrder();
    for (ChipField* field : fields)
        if (field->text().isEmpty() && field->chip().part != ask::Part::another)
            return field->setFocus();
    if (!fields.isEmpty())
        fields.front()->setFocus();
}

void SentenceView::takeFocus(ask::Part part) {
    for (ChipField* field : inOrder())
        if (field->chip().part == part)
            return field->setFocus();
}

void SentenceView::walk(const ChipField* from, int by) {
    const auto fields = inOrder();
    const auto at = fields.indexOf(from) + by;
    if (at >= 0 && at < fields.size())
        fields[at]->setFocus();
}

// Words and chips flow from line to line; what joins the piece before it never begins a line.
void SentenceView::layOut() {
    const QFontMetricsF metrics(typeface(m_size));
    const double space = metrics.horizontalAdvance(u' ');
    const double height = metrics.height() + 6 + lineRoom;
    const double wide = std::max(200, width());
    double x = 0;
    double y = 0;
    m_words.clear();
    auto place = [&](double needed, bool joins) {
        const double gap = x == 0 || joins ? 0 : space;
        const bool isLong = needed > wide / 2; // a bracket may then stand alone
        if (x > 0 && (!joins || isLong) && x + gap + needed > wide) {
            x = 0;
            y += height;
        } else {
            x += gap;
        }
        const double at = x;
        x += needed;
        return at;
    };
    bool opens = false; // after a bracket nothing parts
    for (const ask::Piece& piece : m_pieces) {
        if (piece.chip) {
            ChipField* field = fieldFor(*piece.chip);
            const QSize size = field->sizeHint().boundedTo(QSize(static_cast<int>(wide), 1000));
            const double at = place(size.width(), opens);
            field->setGeometry(static_cast<int>(at), static_cast<int>(y), size.width(), size.height());
            opens = false;
            continue;
        }
        bool isFirst = true;
        for (const QString& word : QString::fromStdString(piece.text).split(u' ')) {
            const bool joins = isFirst && ask::joinsBefore(piece.text);
            const double at = place(metrics.horizontalAdvance(word), joins);
            m_words.push_back({word, {at, y + 3 + metrics.ascent()}});
            isFirst = false;
        }
        opens = piece.text.ends_with('(');
    }
    int bottom = static_cast<int>(y + height);
    m_fault->setFixedWidth(static_cast<int>(wide));
    m_fault->move(0, bottom - static_cast<int>(lineRoom) + 2);
    if (!m_fault->isHidden())
        bottom += m_fault->heightForWidth(static_cast<int>(wide));
    setFixedHeight(bottom);
    update();
}

void SentenceView::resizeEvent(QResizeEvent*) {
    layOut();
}

void SentenceView::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::FontChange || event->type() == QEvent::PaletteChange)
        update();
}

void SentenceView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setFont(typeface(m_size));
    painter.setPen(colours().faint);
    for (const Word& word : m_words)
        painter.drawText(word.at, word.text);
}

// What the chip may hold, found by what has been typed; the first one is what Enter takes.
void SentenceView::offer(ChipField* field) {
    if (field->isReadOnly())
        return;
    auto answers = m_source.answers(field->chip());
    if (field->isTyping())
        answers = ask::found(answers, field->text().toStdString());
    if (answers.empty())
        return closeOffer();
    if (!m_offered) {
        m_offered = new QListWidget(window());
        m_offered->setObjectName(QStringLiteral("answers"));
        m_offered->setFocusPolicy(Qt::NoFocus);
        m_offered->setAccessibleName(tr("What can stand here"));
        m_offered->setFrameShape(QFrame::NoFrame);
        connect(m_offered, &QListWidget::itemPressed, this, [this](const QListWidgetItem* item) {
            if (m_offeredTo)
                m_offeredTo->say(item->text());
        });
    }
    m_offeredTo = field;
    m_offered->setStyleSheet(QStringLiteral("QListWidget#answers{background:%1;border:1px solid %2}")
                                 .arg(colours().sheet.name(), colours().cord.name()));
    m_offered->clear();
    for (const ask::Answer& answer : answers)
        m_offered->addItem(QString::fromStdString(answer.text));
    const int rows = std::min<int>(mostOffered, m_offered->count());
    const int wide = m_offered->sizeHintForColumn(0) + 2 * m_offered->frameWidth() +
                     m_offered->verticalScrollBar()->sizeHint().width() + 8;
    const QPoint below = field->mapTo(window(), QPoint(0, field->height() + 2));
    m_offered->setGeometry(std::min(below.x(), std::max(0, window()->width() - wide)), below.y(), std::max(wide, 160),
                           rows * m_offered->sizeHintForRow(0) + 2 * m_offered->frameWidth() + 2);
    m_offered->raise();
    m_offered->show();
}

void SentenceView::closeOffer() {
    if (m_offered)
        m_offered->hide();
    m_offeredTo.clear();
}

void SentenceView::browse(ChipField* field, int by) {
    if (!m_offered || m_offered->isHidden() || m_offeredTo != field) {
        offer(field);
        if (m_offered && m_offeredTo == field)
            m_offered->setCurrentRow(0);
        return;
    }
    const int row = m_offered->currentRow();
    m_offered->setCurrentRow(
        std::clamp(row < 0 ? (by > 0 ? 0 : m_offered->count() - 1) : row + by, 0, m_offered->count() - 1));
}

void SentenceView::enter(ChipField* field) {
    const bool isMarked = m_offered && !m_offered->isHidden() && m_offeredTo == field && m_offered->currentRow() >= 0;
    if (isMarked)
        return field->say(m_offered->currentItem()->text());
    if (field->isTyping()) // as it is, and what is not understood says so
        return field->say(field->text());
    walk(field, 1);
}

} // namespace knot::app
