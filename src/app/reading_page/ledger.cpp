#include "app/reading_page/ledger.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"

#include <QListView>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <iterator>
#include <tuple>

namespace knot::app {
namespace {

constexpr int headingHeight = 34;
constexpr int rowHeight = 62;
constexpr double reachWidth = 96;
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
    return {row.left() + textLeft, row.top() + 54, width, std::ceil(text.height() / lineHeight) * lineHeight};
}

// An interval against the band of what is too small to matter, a tick at nothing.
void drawReach(QPainter& painter, const QRectF& box, const judge::Interval& inGaps) {
    const Colours& c = colours();
    const double most = std::clamp(std::max({2.0, std::fabs(inGaps.low), std::fabs(inGaps.high)}), 2.0, 5.0);
    auto x = [&](double gaps) {
        return box.left() + (std::clamp(gaps, -most, most) + most) / (2 * most) * box.width();
    };
    painter.fillRect(QRectF(x(-1), box.top(), x(1) - x(-1), box.height()), c.band);
    const double middle = box.center().y();
    painter.setPen(QPen(c.ink, 2));
    painter.drawLine(QPointF(x(inGaps.low), middle), QPointF(std::max(x(inGaps.high), x(inGaps.low) + 1), middle));
    painter.setPen(QPen(c.faint, 1));
    painter.drawLine(QPointF(x(0), box.top()), QPointF(x(0), box.bottom()));
}

} // namespace

void LedgerModel::setReading(const judge::Reading* reading, const std::vector<record::BuildAt>& struckOff,
                             const record::DisplayUnits& units) {
    m_all.clear();
    m_struckOff = struckOff;
    m_isUnfolded = false;
    if (reading != nullptr)
        for (auto& line : words::ledger(*reading, units)) {
            Row row;
            row.build = QString::fromStdString(reading->builds[line.build].name);
            row.sentence = QString::fromStdString(line.sentence);
            row.metric = line.outcome.metric;
            if (reading->card.comparison == record::Comparison::whichOfThese)
                line.finding += " (against " + reading->builds[line.against].name + ")";
            row.line = std::move(line);
            m_all.push_back(std::move(row));
        }
    arrange();
}

void LedgerModel::setOrder(LedgerOrder order) {
    m_order = order;
    arrange();
}

void LedgerModel::setFilter(const QString& words) {
    m_filter = words.split(QLatin1Char(' '), Qt::SkipEmptyParts);
    arrange();
}

void LedgerModel::unfold() {
    m_isUnfolded = true;
    arrange();
}

// Declared rows, then the rest, each under its heading; then those of clubs that were struck off.
void LedgerModel::arrange() {
    beginResetModel();
    m_rows.clear();
    auto isOff = [&](const Row& row) {
        return std::ranges::find(m_struckOff, row.line.build) != m_struckOff.end() ||
               std::ranges::find(m_struckOff, row.line.against) != m_struckOff.end();
    };
    std::vector<Row> rows;
    std::ranges::copy_if(m_all, std::back_inserter(rows), [&](const Row& row) {
        return std::ranges::all_of(m_filter, [&](const QString& word) {
            return row.sentence.contains(word, Qt::CaseInsensitive) ||
                   QString::fromStdString(record::outcomeLabel(row.line.outcome)).contains(word, Qt::CaseInsensitive);
        });
    });
    std::ranges::stable_sort(rows, {}, [&](const Row& row) {
        const bool isDeclared = row.line.role == judge::Role::primary;
        const std::size_t by = m_order == LedgerOrder::byNumber ? static_cast<std::size_t>(row.metric)
                               : m_order == LedgerOrder::byClub ? static_cast<std::size_t>(row.line.build)
                                                                : 0;
        return std::tuple(isOff(row), !isDeclared, by);
    });
    QString last;
    std::size_t folded = 0;
    for (Row& row : rows) {
        if (isOff(row) && !m_isUnfolded && m_filter.isEmpty()) {
            ++folded;
            continue;
        }
        const QString heading = isOff(row)                              ? tr("Struck off")
                                : row.line.role == judge::Role::primary ? tr("Declared")
                                                                        : tr("Also measured, not declared beforehand");
        if (heading != last)
            m_rows.push_back({.heading = heading});
        last = heading;
        m_rows.push_back(std::move(row));
    }
    if (folded > 0)
        m_rows.push_back({.heading = tr("%1 more about clubs struck off · U shows them").arg(folded)});
    if (rows.empty() && !m_all.empty())
        m_rows.push_back({.heading = tr("No line holds “%1”").arg(m_filter.join(QLatin1Char(' ')))});
    endResetModel();
}

void LedgerModel::setWithout(const judge::Reading* reading, const record::DisplayUnits& units) {
    std::vector<words::LedgerLine> lines;
    if (reading != nullptr)
        lines = words::ledger(*reading, units);
    for (Row& row : m_rows) {
        row.without.clear();
        row.isOther = false;
        if (reading == nullptr || !row.heading.isEmpty())
            continue;
        const auto at = std::ranges::find_if(lines, [&](const words::LedgerLine& line) {
            return line.outcome == row.line.outcome && line.build == row.line.build && line.against == row.line.against;
        });
        if (at == lines.end()) {
            row.without = tr("without it: can't be judged");
            row.withoutValue.clear();
            continue;
        }
        row.isOther = at->verdict != row.line.verdict;
        const QString judged = QString::fromStdString(at->judged);
        row.without = tr("without it: %1").arg(judged.left(1).toLower() + judged.mid(1));
        row.withoutValue = QString::fromStdString(at->value);
    }
    if (!m_rows.empty())
        emit dataChanged(index(0), index(static_cast<int>(m_rows.size()) - 1));
}

int LedgerModel::rowOf(record::Metric metric, record::BuildAt build, record::OutcomeKind kind) const {
    for (std::size_t i = 0; i < m_rows.size(); ++i)
        if (m_rows[i].heading.isEmpty() && m_rows[i].metric == metric && m_rows[i].line.build == build &&
            m_rows[i].line.outcome.kind == kind)
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

namespace {

// Where the finding stands: beside the club's name, or under it where it would be cut off there.
struct Placed {
    double left = 0, width = 0;
    bool isUnder = false;
};

QString shownName(const LedgerModel::Row& row) {
    return QFontMetrics(typeface(size::body, QFont::DemiBold)).elidedText(row.build, Qt::ElideRight, 150);
}

Placed placeFinding(const LedgerModel::Row& row, const QRectF& box) {
    const double left = box.left() + textLeft;
    const double value = tabularWidth(typeface(size::strong, QFont::DemiBold), QString::fromStdString(row.line.value));
    const double name = QFontMetricsF(typeface(size::body, QFont::DemiBold)).horizontalAdvance(shownName(row));
    const double room = box.right() - textRight - value - 12 - (left + 18 + name + 5);
    const QFontMetricsF metrics(typeface(size::body));
    if (metrics.horizontalAdvance(QString::fromStdString(row.line.finding)) <= room)
        return {left + 18 + name + 5, room, false};
    return {left, box.right() - textRight - left, true};
}

} // namespace

QSize LedgerDelegate::sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& row = static_cast<const LedgerModel*>(index.model())->at(index.row());
    if (!row.heading.isEmpty())
        return {300, headingHeight};
    const auto* list = qobject_cast<const QListView*>(option.widget);
    const double width = list != nullptr ? list->viewport()->width() : 400;
    int height = rowHeight + (placeFinding(row, {0, 0, width, 0}).isUnder ? lineHeight : 0);
    if (!row.line.because.empty())
        height += static_cast<int>(
            reasonBox({0, 0, width, 0}, typeface(size::caption), QString::fromStdString(row.line.because)).height());
    return {300, height};
}

void LedgerDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& row = static_cast<const LedgerModel*>(index.model())->at(index.row());
    const Colours& c = colours();
    QRectF box = option.rect;
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing);
    if (!row.heading.isEmpty()) {
        painter->setFont(typeface(size::caption, QFont::Medium));
        painter->setPen(c.faint);
        painter->drawText(box.adjusted(14, 8, -14, 0), Qt::AlignVCenter | Qt::AlignLeft,
                          elided(*painter, row.heading, box.width() - 28));
        if (index.row() == 0 && row.heading.size() < 20) // where there is room for what the keys do
            painter->drawText(box.adjusted(14, 8, -14, 0), Qt::AlignVCenter | Qt::AlignRight, tr("/ finds · O orders"));
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

    const double left = box.left() + textLeft;
    const double right = box.right() - textRight;
    const Placed finding = placeFinding(row, box);
    drawTag(*painter, QRectF(left, box.top() + 13, 11, 11), row.line.build);
    painter->setPen(c.ink);
    painter->setFont(typeface(size::body, QFont::DemiBold));
    painter->drawText(QPointF(left + 18, box.top() + 23), shownName(row));
    painter->setFont(typeface(size::body));
    painter->drawText(QPointF(finding.left, box.top() + (finding.isUnder ? 23 + lineHeight : 23)),
                      elided(*painter, QString::fromStdString(row.line.finding), finding.width));
    drawTabular(*painter, typeface(size::strong, QFont::DemiBold), QPointF(right, box.top() + 24),
                QString::fromStdString(row.line.value), Align::right);
    if (finding.isUnder)
        box.translate(0, lineHeight);

    const bool isHeldOut = !row.without.isEmpty();
    const QFont second =
        typeface(size::caption, (isHeldOut ? row.isOther : isStrong(row.line.verdict)) ? QFont::Medium : QFont::Normal);
    const QString interval = isHeldOut ? row.withoutValue : QString::fromStdString(row.line.interval);
    painter->setFont(second);
    painter->setPen(isHeldOut || isStrong(row.line.verdict) ? c.ink : c.faint);
    const double room = right - left - tabularWidth(typeface(size::caption), interval) - 10;
    painter->drawText(QPointF(left, box.top() + 44),
                      elided(*painter, isHeldOut ? row.without : QString::fromStdString(row.line.judged), room));
    painter->setPen(isHeldOut ? c.ink : c.faint);
    drawTabular(*painter, typeface(size::caption), QPointF(right, box.top() + 44), interval, Align::right);
    if (row.line.inGaps)
        drawReach(*painter, QRectF(right - reachWidth, box.top() + 49, reachWidth, 5), *row.line.inGaps);
    if (!row.line.because.empty()) {
        painter->setFont(typeface(size::caption));
        const QString reason = QString::fromStdString(row.line.because);
        painter->drawText(reasonBox(box, painter->font(), reason), Qt::TextWordWrap, reason);
    }
    painter->restore();
}

} // namespace knot::app
