#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"
#include "core/words/averages.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>

namespace knot::app {
namespace {

using record::Metric;
using record::MetricFormat;

// What stands in the table first, as far as it was read; the rest follows in the order of metrics.
constexpr std::array firstColumns = {Metric::clubSpeed, Metric::ballSpeed, Metric::smash,     Metric::launch,
                                     Metric::spin,      Metric::carry,     Metric::side,      Metric::apex,
                                     Metric::descent,   Metric::attack,    Metric::strikeHigh};

struct Cell {
    QString mean, scatter;
    std::optional<double> value;
    std::size_t n = 0;
};

struct Line {
    record::BuildAt build;
    QString name, note;
    std::size_t counted = 0;
    std::vector<Cell> cells;
    QStringList extremes; ///< of the number in hand: least, most, mean without the fifth at either end
};

constexpr double mostNameWidth = 190;
constexpr double leastNameWidth = 84;
constexpr double countWidth = 44;
constexpr double columnWidth = 74;
constexpr double headLine = 15;
constexpr double mostRowHeight = 66;

class TablePicture : public Picture {
public:
    explicit TablePicture(const Looked& looked)
        : m_metric(looked.metric) {
        chooseColumns(looked);
        const bool isSealed = looked.subject.test().seal.isClosed();
        for (record::BuildAt b; b < looked.reading.builds.size(); ++b) {
            const auto& count = looked.reading.builds[b];
            if (count.counted == 0)
                continue;
            Line line{.build = b, .name = nameOf(looked, b), .counted = count.counted};
            for (const Metric metric : m_columns)
                line.cells.push_back(cellOf(looked, metric, b));
            if (const judge::Summary* one = looked.reading.summaryOf(m_columns[m_rank], b)) {
                const MetricFormat format(m_columns[m_rank], looked.units);
                for (const double value : {one->min, one->max, one->trimmedMean})
                    line.extremes << QString::fromStdString(format.number(value));
                line.note = QStringLiteral("%1 – %2").arg(line.extremes[0], line.extremes[1]);
            }
            const std::size_t read = line.cells[m_rank].n;
            const bool isBaseline = !isSealed && b == looked.reading.baseline && looked.reading.builds.size() > 1;
            const QString besides = read < line.counted ? tr("%1 not read").arg(line.counted - read)
                                    : isBaseline        ? tr("baseline")
                                                        : QString();
            if (!besides.isEmpty())
                line.note += (line.note.isEmpty() ? QString() : QStringLiteral(" · ")) + besides;
            m_lines.push_back(std::move(line));
        }
        rank(looked);
        say(looked);
    }

    QString finding() const override { return m_finding; }
    QString legend() const override { return tr("C chooses columns · Ctrl+C copies · Ctrl+Shift+E saves"); }

    QString asText() const override {
        QStringList rows;
        QStringList head{tr("club"), tr("shots")};
        for (std::size_t c = 0; c < m_columns.size(); ++c)
            head << m_heads[c] + (m_unitTexts[c].isEmpty() ? QString() : QStringLiteral(" ") + m_unitTexts[c])
                 << tr("± %1").arg(m_heads[c]);
        const QString& ranked = m_heads[static_cast<qsizetype>(m_rank)];
        head << tr("least %1").arg(ranked) << tr("most %1").arg(ranked) << tr("trimmed %1").arg(ranked);
        rows << head.join(QLatin1Char('\t'));
        for (const Line& line : m_lines) {
            QStringList cells{line.name, QString::number(line.counted)};
            for (const Cell& cell : line.cells)
                cells << cell.mean << cell.scatter;
            cells << line.extremes;
            rows << cells.join(QLatin1Char('\t'));
        }
        return rows.join(QLatin1Char('\n'));
    }

    void layOut(const QRectF& box) override {
        m_box = box;
        const QFontMetricsF metrics(typeface(size::body, QFont::DemiBold));
        m_nameWidth = leastNameWidth;
        for (const Line& line : m_lines)
            m_nameWidth = std::clamp(std::max(metrics.horizontalAdvance(line.name) + 34,
                                              QFontMetricsF(typeface(size::caption)).horizontalAdvance(line.note) + 30),
                                     m_nameWidth, mostNameWidth);
        const double room = box.width() - m_nameWidth - countWidth;
        m_shown =
            std::clamp<std::size_t>(static_cast<std::size_t>(std::max(0.0, room / columnWidth)), 1, m_columns.size());
        m_step = room / static_cast<double>(m_shown);
        m_headLines = 1;
        for (std::size_t column = 0; column < m_columns.size(); ++column)
            m_headLines = std::max(m_headLines, headLinesOf(typeface(size::caption, QFont::DemiBold), column));
        m_rowHeight = m_lines.empty() ? mostRowHeight
                                      : std::clamp((box.height() - headHeight()) / static_cast<double>(m_lines.size()),
                                                   30.0, mostRowHeight);
        // The number in hand is always among those that are shown.
        m_first = m_rank < m_shown ? 0 : m_rank + 1 - m_shown;
    }

    void paint(QPainter& painter, std::optional<std::size_t>) const override {
        const Colours& c = colours();
        const QFont caption = typeface(size::caption);
        for (std::size_t i = 0; i < m_shown; ++i) {
            const std::size_t column = m_first + i;
            const double right = rightOf(i);
            const bool isRank = column == m_rank;
            painter.setPen(isRank ? c.ink : c.faint);
            const QFont font = isRank ? typeface(size::caption, QFont::DemiBold) : caption;
            double y = m_box.top() + 18 + (m_headLines > headLinesOf(font, column) ? headLine : 0);
            for (const QString& line : headOf(font, column)) {
                drawTabular(painter, font, {right, y}, line, Align::right);
                y += headLine;
            }
            painter.setPen(c.faint);
            drawTabular(painter, caption, {right, y}, m_unitTexts[column], Align::right);
            if (isRank)
                painter.fillRect(QRectF(right - 34, y + 5, 34, 2.5), c.cord);
        }
        painter.setPen(c.faint);
        drawTabular(painter, caption,
                    {m_box.left() + m_nameWidth + countWidth - 8, m_box.top() + 18 + headLine * (m_headLines - 1)},
                    tr("n"), Align::right);
        double top = m_box.top() + headHeight();
        for (const Line& line : m_lines) {
            paintLine(painter, line, top);
            top += m_rowHeight;
        }
    }

private:
    static Cell cellOf(const Looked& looked, Metric metric, record::BuildAt build) {
        const judge::Summary* summary = looked.reading.summaryOf(metric, build);
        if (summary == nullptr)
            return {.mean = QStringLiteral("–"), .scatter = {}, .value = {}};
        const MetricFormat format(metric, looked.units);
        return {.mean = QString::fromStdString(format.number(summary->mean)),
                .scatter =
                    summary->sd ? QStringLiteral("±") + QString::fromStdString(format.number(*summary->sd)) : QString(),
                .value = summary->mean,
                .n = summary->n};
    }

    void chooseColumns(const Looked& looked) {
        const auto& read = looked.reading.metrics;
        auto add = [&](Metric metric) {
            if (std::ranges::find(read, metric) != read.end() &&
                std::ranges::find(m_columns, metric) == m_columns.end())
                m_columns.push_back(metric);
        };
        if (looked.columns.empty()) {
            for (const Metric metric : firstColumns)
                add(metric);
            for (const Metric metric : read)
                add(metric);
        } else {
            for (const Metric metric : looked.columns)
                add(metric);
            add(m_metric);
        }
        if (m_columns.empty())
            m_columns.push_back(m_metric);
        const auto at = std::ranges::find(m_columns, m_metric);
        m_rank = at == m_columns.end() ? 0 : static_cast<std::size_t>(at - m_columns.begin());
        for (const Metric metric : m_columns) {
            m_heads << QString::fromStdString(record::info(metric).label);
            m_unitTexts << QString::fromStdString(MetricFormat(metric, looked.units).unitText());
        }
    }

    void rank(const Looked& looked) {
        const record::Want want = words::rankedBy(looked.reading, m_columns[m_rank]);
        std::ranges::stable_sort(m_lines, {}, [&](const Line& line) {
            const auto& value = line.cells[m_rank].value;
            if (!value)
                return std::pair(1, 0.0);
            return std::pair(0, -want.merit(*value));
        });
    }

    void say(const Looked& looked) {
        QStringList ranked;
        for (const Line& line : m_lines)
            ranked << tr("%1 %2").arg(line.name, line.cells[m_rank].mean);
        m_finding =
            tr("Mean and scatter, ranked by %1: %2 %3.")
                .arg(QString::fromStdString(record::info(m_columns[m_rank]).label), ranked.join(QStringLiteral(", ")),
                     QString::fromStdString(MetricFormat(m_columns[m_rank], looked.units).unitText()));
    }

    double rightOf(std::size_t place) const {
        return m_box.left() + m_nameWidth + countWidth + m_step * static_cast<double>(place + 1) - 6;
    }

    double headHeight() const { return 31 + headLine * m_headLines; }

    // A heading in one line, or parted after its first word where that is too wide.
    QStringList headOf(const QFont& font, std::size_t column) const {
        const QString& head = m_heads[static_cast<qsizetype>(column)];
        const auto space = head.indexOf(QLatin1Char(' '));
        if (tabularWidth(font, head) <= m_step - 10 || space < 0)
            return {head};
        return {head.left(space), head.mid(space + 1)};
    }
    int headLinesOf(const QFont& font, std::size_t column) const {
        return static_cast<int>(headOf(font, column).size());
    }

    void paintLine(QPainter& painter, const Line& line, double top) const {
        const Colours& c = colours();
        const double baseline = top + std::min(26.0, m_rowHeight * 0.55);
        const bool hasRoom = m_rowHeight >= 44;
        drawTag(painter, QRectF(m_box.left(), baseline - 11, 13, 13), line.build);
        painter.setPen(c.ink);
        painter.setFont(typeface(size::body, QFont::DemiBold));
        painter.drawText(QPointF(m_box.left() + 22, baseline),
                         clubName(painter, line.name, m_nameWidth - 26, namesOf(m_lines)));
        drawTabular(painter, typeface(size::body), {m_box.left() + m_nameWidth + countWidth - 8, baseline},
                    QString::number(line.counted), Align::right);
        if (hasRoom && !line.note.isEmpty()) {
            painter.setPen(c.faint);
            painter.setFont(typeface(size::caption));
            painter.drawText(QPointF(m_box.left() + 22, baseline + 17), line.note);
        }
        for (std::size_t i = 0; i < m_shown; ++i) {
            const Cell& cell = line.cells[m_first + i];
            const bool isRank = m_first + i == m_rank;
            painter.setPen(c.ink);
            drawTabular(painter, typeface(size::body, isRank ? QFont::DemiBold : QFont::Normal), {rightOf(i), baseline},
                        cell.mean, Align::right);
            painter.setPen(c.faint);
            if (hasRoom)
                drawTabular(painter, typeface(size::caption), {rightOf(i), baseline + 17}, cell.scatter, Align::right);
        }
        painter.setPen(QPen(c.line, 1));
        painter.drawLine(QPointF(m_box.left(), top + m_rowHeight - 2), QPointF(m_box.right(), top + m_rowHeight - 2));
    }

    Metric m_metric;
    std::vector<Metric> m_columns;
    QStringList m_heads, m_unitTexts;
    std::vector<Line> m_lines;
    QString m_finding;
    std::size_t m_rank = 0, m_shown = 1, m_first = 0;
    QRectF m_box;
    int m_headLines = 1;
    double m_rowHeight = mostRowHeight, m_step = columnWidth, m_nameWidth = mostNameWidth;
};

} // namespace

std::unique_ptr<Picture> tablePicture(const Looked& looked) {
    return std::make_unique<TablePicture>(looked);
}

} // namespace knot::app
