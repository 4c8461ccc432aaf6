#include "app/reading_page/ledger.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"

#include <QListView>
#include <QPainter>

#include <cmath>

namespace knot::app {
namespace {

constexpr int headingHeight = 34;
constexpr int rowHeight = 58;
constexpr double textLeft = 56;
constexpr double textRight = 14;
constexpr int lineHeight = 18;

bool isStrong(judge::Verdict verdict) {
    return verdict == judge::Verdict::real || verdict == judge::Verdict::realSizeOpen;
}

QString elided(const QPainter& painter, const QString& text, double width) {
    return painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(width));
}

// The room that a row's reason takes, in as many lines as it needs.
QRectF reasonBox(const QRectF& row, const QFont& font, const QString& reason) {
    const double width = std::max(120.0, row.width() - textLeft - textRight);
    const QFontMetricsF metrics(font);
    const QRectF text = metrics.boundingRect(QRectF(0, 0, width, 10000), Qt::TextWordWrap, reason);
    return {row.left() + textLeft, row.top() + 50, width, std::ceil(text.height() / lineHeight) * lineHeight};
}

} // namespace

void LedgerModel::setReading(const judge::Reading* reading, const record::DisplayUnits& units) {
    beginResetModel();
    m_rows.clear();
    if (reading != nullptr) {
        std::optional<bool> declared;
        for (auto& line : words::ledger(*reading, units)) {
            const bool primary = line.role == judge::Role::primary;
            if (declared != primary)
                m_rows.push_back({.heading = primary ? tr("Declared") : tr("Also measured, not declared beforehand")});
            declared = primary;
            Row row;
            row.build = QString::fromStdString(reading->builds[line.build].name);
            row.sentence = QString::fromStdString(line.sentence);
            row.metric = line.outcome.metric;
            if (reading->card.comparison == record::Comparison::whichOfThese)
                line.finding += " (against " + reading->builds[line.against].name + ")";
            row.line = std::move(line);
            m_rows.push_back(std::move(row));
        }
    }
    endResetModel();
}

int LedgerModel::rowOf(record::Metric metric, record::BuildAt build) const {
    for (std::size_t i = 0; i < m_rows.size(); ++i)
        if (m_rows[i].heading.isEmpty() && m_rows[i].metric == metric && m_rows[i].line.build == build &&
            m_rows[i].line.outcome.kind == record::OutcomeKind::average)
            return static_cast<int>(i);
    return -1;
}

int LedgerModel::firstLine() const {
    for (std::size_t i = 0; i < m_rows.size(); ++i)
        if (m_rows[i].heading.isEmpty())
            return static_cast<int>(i);
    return -1;
}

int LedgerModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_rows.size());
}

Qt::ItemFlags LedgerModel::flags(const QModelIndex& index) const {
    if (!index.isValid() || !at(index.row()).heading.isEmpty())
        return Qt::NoItemFlags;
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemNeverHasChildren;
}

QVariant LedgerModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid))
        return {};
    const Row& row = at(index.row());
    if (role == Qt::DisplayRole || role == Qt::AccessibleTextRole)
        return row.heading.isEmpty() ? row.sentence : row.heading;
    if (role == Qt::ToolTipRole && row.heading.isEmpty())
        return row.sentence;
    return {};
}

QSize LedgerDelegate::sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& row = static_cast<const LedgerModel*>(index.model())->at(index.row());
    if (!row.heading.isEmpty())
        return {300, headingHeight};
    if (row.line.because.empty())
        return {300, rowHeight};
    const auto* list = qobject_cast<const QListView*>(option.widget);
    const double width = list != nullptr ? list->viewport()->width() : 400;
    const QRectF reason =
        reasonBox({0, 0, width, 0}, typeface(size::caption), QString::fromStdString(row.line.because));
    return {300, rowHeight + static_cast<int>(reason.height())};
}

void LedgerDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& row = static_cast<const LedgerModel*>(index.model())->at(index.row());
    const Colours& c = colours();
    const QRectF box = option.rect;
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing);
    if (!row.heading.isEmpty()) {
        painter->setFont(typeface(size::caption, QFont::Medium));
        painter->setPen(c.faint);
        painter->drawText(box.adjusted(14, 8, -14, 0), Qt::AlignVCenter | Qt::AlignLeft,
                          elided(*painter, row.heading, box.width() - 28));
        painter->restore();
        return;
    }
    if (option.state & QStyle::State_Selected) {
        painter->fillRect(box.adjusted(0, 0, 0, -1), c.selection);
        painter->fillRect(QRectF(box.left(), box.top(), 3, box.height() - 1), c.cord);
    }
    painter->setPen(c.line);
    painter->drawLine(box.bottomLeft() + QPointF(14, -0.5), box.bottomRight() + QPointF(-14, -0.5));
    drawVerdict(*painter, QRectF(box.left() + 14, box.top() + 16, 28, 24), row.line.verdict);

    const double left = box.left() + 56;
    const double right = box.right() - 14;
    const QFont valueFont = typeface(size::strong, QFont::DemiBold);
    const QString value = QString::fromStdString(row.line.value);
    const double findingRight = right - tabularWidth(valueFont, value) - 12;
    drawTag(*painter, QRectF(left, box.top() + 13, 11, 11), row.line.build);
    painter->setPen(c.ink);
    painter->setFont(typeface(size::body, QFont::DemiBold));
    const QString build = elided(*painter, row.build, 110);
    painter->drawText(QPointF(left + 18, box.top() + 23), build);
    const double findingLeft = left + 18 + painter->fontMetrics().horizontalAdvance(build) + 5;
    painter->setFont(typeface(size::body));
    painter->drawText(QPointF(findingLeft, box.top() + 23),
                      elided(*painter, QString::fromStdString(row.line.finding), findingRight - findingLeft));
    drawTabular(*painter, valueFont, QPointF(right, box.top() + 24), value, Align::right);

    painter->setFont(typeface(size::caption, isStrong(row.line.verdict) ? QFont::Medium : QFont::Normal));
    painter->setPen(isStrong(row.line.verdict) ? c.ink : c.faint);
    painter->drawText(QPointF(left, box.top() + 44), QString::fromStdString(row.line.judged));
    painter->setPen(c.faint);
    drawTabular(*painter, typeface(size::caption), QPointF(right, box.top() + 44),
                QString::fromStdString(row.line.interval), Align::right);
    if (!row.line.because.empty()) {
        painter->setFont(typeface(size::caption));
        const QString reason = QString::fromStdString(row.line.because);
        painter->drawText(reasonBox(box, painter->font(), reason), Qt::TextWordWrap, reason);
    }
    painter->restore();
}

} // namespace knot::app
