#include "app/import_page/column_list.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"

#include <QCompleter>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPainter>
#include <QStringListModel>

#include <algorithm>

namespace knot::app {
namespace {

constexpr int columnHeight = 30;
constexpr double meaningShare = 0.30; // of the row's width
constexpr double knotWidth = 46;

QString textOf(std::string_view text) {
    return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}

// All that a column can be said to be, in words.
QStringList allMeanings() {
    QStringList words{ColumnModel::tr("club"), ColumnModel::tr("kept as text")};
    for (const auto metric : record::allMetrics())
        for (const auto unit : record::unitsOf(record::info(metric).quantity)) {
            files::ColumnMeaning meaning;
            meaning.role = files::ColumnRole::metric;
            meaning.metric = metric;
            meaning.unit = unit;
            words << meaningText(meaning);
        }
    for (const char* heading : {"shot", "player", "sitting", "round", "turn", "taken_at", "date", "time", "delivery",
                                "feel", "note", "status", "reason"})
        words << QString::fromLatin1(heading).replace(QLatin1Char('_'), QLatin1Char(' '));
    return words;
}

struct RowBoxes {
    QRectF heading, knot, meaning, sample;
};

RowBoxes boxesOf(const QRectF& row) {
    const double meaningX = row.left() + meaningShare * row.width() + knotWidth;
    const double sampleWidth = 0.16 * row.width();
    return {.heading = QRectF(row.left() + 10, row.top(), meaningShare * row.width() - 14, row.height()),
            .knot = QRectF(row.left() + meaningShare * row.width(), row.top(), knotWidth - 12, row.height()),
            .meaning = QRectF(meaningX, row.top(), row.right() - sampleWidth - 12 - meaningX, row.height()),
            .sample = QRectF(row.right() - sampleWidth - 10, row.top(), sampleWidth, row.height())};
}

void drawElided(QPainter& painter, const QRectF& box, const QString& text, Qt::Alignment align = Qt::AlignLeft) {
    painter.drawText(box, align | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(box.width())));
}

} // namespace

// What was decided of readings that cannot be, as it may be typed too.
static QString decidedText(files::Doubtful doubtful) {
    switch (doubtful) {
    case files::Doubtful::undecided:
        break;
    case files::Doubtful::asItStands:
        return ColumnModel::tr("; as it stands");
    case files::Doubtful::leftOut:
        return ColumnModel::tr("; left out");
    case files::Doubtful::thousands:
        return ColumnModel::tr("; in thousands");
    case files::Doubtful::turned:
        return ColumnModel::tr("; turned round");
    }
    return {};
}

QString meaningText(const files::ColumnMeaning& meaning) {
    switch (meaning.role) {
    case files::ColumnRole::metric: {
        const QString unit = textOf(record::symbol(meaning.unit));
        const QString name = QString::fromStdString(record::info(meaning.metric).label);
        return (unit.isEmpty() ? name : name + QStringLiteral(", ") + unit) + decidedText(meaning.doubtful);
    }
    case files::ColumnRole::build:
        return ColumnModel::tr("club");
    case files::ColumnRole::field:
        return textOf(meaning.field->key).replace(QLatin1Char('_'), QLatin1Char(' '));
    case files::ColumnRole::date:
        return ColumnModel::tr("date");
    case files::ColumnRole::time:
        return ColumnModel::tr("time");
    case files::ColumnRole::extra:
        break;
    }
    return ColumnModel::tr("kept as text");
}

std::optional<std::string> meaningTyped(const QString& text, const files::ColumnMeaning& now) {
    const QString plain = text.trimmed().toLower();
    if (plain.isEmpty() || plain == ColumnModel::tr("kept as text") || plain == QStringLiteral("text"))
        return std::string();
    const auto& vocabulary = files::Vocabulary::own();
    if (const auto meaning = vocabulary.meaningNamed(plain.toStdString()))
        return files::canonicalName(*meaning);
    const auto candidates = vocabulary.candidatesFor(vocabulary.wordsOf(plain.toStdString()));
    if (candidates.empty() || candidates.front().score < 0.95 ||
        candidates.front().meaning.role != files::ColumnRole::metric)
        return std::nullopt;
    files::ColumnMeaning meaning = candidates.front().meaning;
    const auto& units = record::unitsOf(record::info(meaning.metric).quantity);
    const bool keeps = now.role == files::ColumnRole::metric && std::ranges::find(units, now.unit) != units.end();
    meaning.unit = keeps ? now.unit : units.front();
    return files::canonicalName(meaning);
}

namespace {

// What is asked says what was decided; once it is answered the meaning does.
QString takenText(const files::ColumnTaken& column) {
    files::ColumnMeaning shown = column.meaning;
    if (column.isAsked())
        shown.doubtful = files::Doubtful::undecided;
    return meaningText(shown);
}

} // namespace

void ColumnModel::setColumns(std::vector<files::ColumnTaken> columns) {
    beginResetModel();
    m_columns = std::move(columns);
    endResetModel();
}

int ColumnModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_columns.size());
}

QVariant ColumnModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid))
        return {};
    const auto& column = at(index.row());
    const QString heading = QString::fromStdString(column.meaning.heading);
    if (role == Qt::DisplayRole || role == Qt::EditRole)
        return takenText(column);
    const QString why = column.isAsked() ? QString::fromStdString(column.question) : QString::fromStdString(column.why);
    if (role == Qt::AccessibleTextRole)
        return QString(heading + QStringLiteral(": ") + takenText(column) +
                       (why.isEmpty() ? QString() : QStringLiteral(". ") + why));
    if (role == Qt::ToolTipRole && !why.isEmpty())
        return why.toHtmlEscaped();
    return {};
}

Qt::ItemFlags ColumnModel::flags(const QModelIndex& index) const {
    const auto own = QAbstractListModel::flags(index);
    return index.isValid() ? own | Qt::ItemIsEditable : own;
}

bool ColumnModel::setData(const QModelIndex& index, const QVariant& value, int role) {
    if (role != Qt::EditRole || !checkIndex(index, CheckIndexOption::IndexIsValid))
        return false;
    const auto& column = at(index.row());
    const auto name = meaningTyped(value.toString(), column.meaning);
    if (!name) {
        emit refused(
            tr("“%1” is nothing that a column can hold. Type a measurement with its unit, such as carry yd, or "
               "club, player, time, text.")
                .arg(value.toString()));
        return false;
    }
    emit corrected(QString::fromStdString(column.meaning.heading), QString::fromStdString(*name));
    return true;
}

QSize ColumnDelegate::sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const {
    return {200, static_cast<int>(columnHeight * typeScale())};
}

void ColumnDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& column = static_cast<const ColumnModel*>(index.model())->at(index.row());
    const Colours& c = colours();
    const auto boxes = boxesOf(option.rect);
    const bool isText = column.meaning.role == files::ColumnRole::extra;
    const QColor knot = column.isAsked() ? c.alarm : isText ? c.line : c.cord;
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing);
    if ((option.state & QStyle::State_Selected) && (option.state & QStyle::State_HasFocus)) {
        painter->setPen(Qt::NoPen);
        painter->setBrush(c.selection);
        painter->drawRoundedRect(QRectF(option.rect).adjusted(0.5, 1.5, -0.5, -1.5), 4, 4);
    }
    painter->setFont(typeface(size::body));
    painter->setPen(c.ink);
    drawElided(*painter, boxes.heading, QString::fromStdString(column.meaning.heading));
    painter->setPen(QPen(knot, 2));
    painter->drawLine(QPointF(boxes.knot.left(), boxes.knot.center().y()),
                      QPointF(boxes.knot.right(), boxes.knot.center().y()));
    if (column.isAsked()) {
        painter->setBrush(c.sheet);
        painter->drawEllipse(boxes.knot.center(), 6, 6);
    } else if (!isText) {
        drawKnot(*painter, boxes.knot.center(), 6, knot);
    }
    painter->setFont(typeface(size::body, isText ? QFont::Normal : QFont::DemiBold));
    painter->setPen(isText && !column.isAsked() ? c.faint : c.ink);
    const QString meaning = takenText(column) + (column.isAsked() ? QStringLiteral("?") : QString());
    drawElided(*painter, boxes.meaning, meaning);
    const double taken = painter->fontMetrics().horizontalAdvance(meaning) + 14;
    painter->setFont(typeface(size::caption));
    painter->setPen(column.isAsked() ? c.alarm : c.faint);
    drawElided(*painter, boxes.meaning.adjusted(taken, 0, 0, 0),
               QString::fromStdString(column.isAsked() ? column.question : column.why));
    painter->setPen(c.faint);
    const QString sample = painter->fontMetrics().elidedText(QString::fromStdString(column.sample), Qt::ElideRight,
                                                             static_cast<int>(boxes.sample.width()));
    drawTabular(*painter, typeface(size::caption), QPointF(boxes.sample.right(), boxes.sample.center().y() + 4), sample,
                Align::right);
    painter->restore();
}

QWidget* ColumnDelegate::createEditor(QWidget* parent, const QStyleOptionViewItem&, const QModelIndex&) const {
    auto* editor = new QLineEdit(parent);
    editor->setObjectName(QStringLiteral("columnEditor"));
    auto* completer = new QCompleter(allMeanings(), editor);
    completer->setCaseSensitivity(Qt::CaseInsensitive);
    completer->setFilterMode(Qt::MatchContains);
    editor->setCompleter(completer);
    return editor;
}

void ColumnDelegate::setEditorData(QWidget* editor, const QModelIndex& index) const {
    auto* line = static_cast<QLineEdit*>(editor);
    line->setText(index.data(Qt::EditRole).toString());
    line->selectAll();
}

void ColumnDelegate::setModelData(QWidget* editor, QAbstractItemModel* model, const QModelIndex& index) const {
    const QString text = static_cast<QLineEdit*>(editor)->text();
    if (text != index.data(Qt::EditRole).toString() ||
        static_cast<const ColumnModel*>(index.model())->at(index.row()).isAsked())
        model->setData(index, text, Qt::EditRole);
}

void ColumnDelegate::updateEditorGeometry(QWidget* editor, const QStyleOptionViewItem& option,
                                          const QModelIndex&) const {
    const auto box = boxesOf(option.rect).meaning;
    editor->setGeometry(box.adjusted(-6, 0, 0, 0).toRect());
}

ColumnList::ColumnList(QWidget* parent)
    : QListView(parent)
    , m_model(new ColumnModel(this)) {
    setObjectName(QStringLiteral("columnList"));
    setAccessibleName(tr("What the columns are"));
    setModel(m_model);
    setItemDelegate(new ColumnDelegate(this));
    setFrameShape(QFrame::NoFrame);
    setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::DoubleClicked |
                    QAbstractItemView::EditKeyPressed);
    viewport()->setAutoFillBackground(false);
    setUniformItemSizes(true);
}

void ColumnList::walk(int by) {
    if (!currentIndex().isValid())
        return;
    const auto& column = m_model->at(currentIndex().row());
    const auto count = static_cast<int>(column.choices.size());
    if (count == 0)
        return;
    const std::string now = files::canonicalName(column.meaning);
    const auto at = static_cast<int>(std::ranges::find(column.choices, now) - column.choices.begin());
    const auto& next = column.choices[static_cast<std::size_t>(((at == count ? 0 : at) + by + count) % count)];
    emit m_model->corrected(QString::fromStdString(column.meaning.heading), QString::fromStdString(next));
}

void ColumnList::keyPressEvent(QKeyEvent* event) {
    if (state() != QAbstractItemView::EditingState && event->modifiers() == Qt::NoModifier) {
        if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right)
            return walk(event->key() == Qt::Key_Right ? 1 : -1);
        if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
            return event->ignore(); // the page's own: read it
    }
    QListView::keyPressEvent(event);
}

} // namespace knot::app
