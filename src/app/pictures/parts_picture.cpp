#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/axis.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::Metric;
using record::MetricFormat;

constexpr double nameWidth = 150;
constexpr double valueWidth = 74;
constexpr double headHeight = 34;
constexpr double mostRow = 40;
constexpr double shareHeight = 108;

QString word(const std::string& key) {
    if (key == "build")
        return tr("the club");
    if (const auto metric = record::metricFromKey(key))
        return QString::fromStdString(record::info(*metric).label);
    return QString::fromStdString(key).replace(QLatin1Char('_'), QLatin1Char(' '));
}

struct Bar {
    QString name, text;
    double value = 0; ///< as shown
    std::optional<double> low, high;
    bool isTotal = false;
};

struct Piece {
    QString name;
    double share = 0;
};

class PartsPicture : public Picture {
public:
    explicit PartsPicture(const Looked& looked) {
        const QString label = QString::fromStdString(record::info(looked.metric).label);
        for (const judge::PartsOfGap& row : looked.reading.parts)
            if (row.metric == looked.metric && (m_bars.empty() || row.build == looked.build)) {
                if (!m_bars.empty() && m_isOfBuild)
                    continue;
                m_isOfBuild = row.build == looked.build;
                setBars(looked, row, label);
            }
        for (const judge::WhoseDoing& whose : looked.reading.whoseDoing)
            if (whose.metric == looked.metric)
                setPieces(whose, label);
        QStringList said;
        for (const Bar& bar : m_bars)
            said << bar.name + QLatin1Char(' ') + bar.text;
        QStringList shares;
        for (const Piece& piece : m_pieces)
            shares << tr("%1 %2 %").arg(piece.name).arg(std::lround(100 * piece.share));
        m_finding = (said.isEmpty()
                         ? QString()
                         : m_gapTitle + QStringLiteral(": ") + said.join(QStringLiteral(", ")) + QStringLiteral(". ")) +
                    (shares.isEmpty() ? QString()
                                      : m_scatterTitle + QStringLiteral(": ") + shares.join(QStringLiteral(", ")) +
                                            QStringLiteral("."));
    }

    bool isEmpty() const { return m_bars.empty() && m_pieces.empty(); }
    QString finding() const override { return m_finding.trimmed(); }
    QString under() const override { return {}; }

    void layOut(const QRectF& box) override {
        m_box = box;
        const double room = box.height() - (m_pieces.empty() ? 0 : shareHeight) - headHeight;
        m_row = m_bars.empty() ? mostRow : std::clamp(room / static_cast<double>(m_bars.size()), 20.0, mostRow);
        double low = 0;
        double high = 0;
        for (const Bar& bar : m_bars) {
            low = std::min({low, bar.value, bar.low.value_or(0)});
            high = std::max({high, bar.value, bar.high.value_or(0)});
        }
        m_axis = picture::niceAxis(low, high, box.left() + nameWidth, box.right() - valueWidth, 6);
    }

    void paint(QPainter& painter, std::optional<std::size_t>) const override {
        if (!m_bars.empty())
            paintBars(painter);
        if (!m_pieces.empty())
            paintPieces(painter,
                        QRectF(m_box.left(), m_box.bottom() - shareHeight + 10, m_box.width(), shareHeight - 10));
    }

private:
    void setBars(const Looked& looked, const judge::PartsOfGap& row, const QString& label) {
        const MetricFormat format(row.metric, looked.units);
        m_bars.clear();
        auto bar = [&](const QString& name, double value, const std::optional<judge::Interval>& interval) {
            Bar one{
                .name = name, .text = QString::fromStdString(format.signedNumber(value)), .value = format.shown(value)};
            if (interval) {
                one.low = format.shown(interval->low);
                one.high = format.shown(interval->high);
            }
            m_bars.push_back(one);
        };
        for (const auto& part : row.parts)
            bar(word(part.input), part.value, part.ci95);
        bar(tr("not explained"), row.rest, row.restInterval);
        bar(tr("in all"), row.measured, std::nullopt);
        m_bars.back().isTotal = true;
        m_gapTitle = tr("Where the gap in %1 comes from, %2 against %3, by a model of flight (%4)")
                         .arg(label, nameOf(looked, row.build), nameOf(looked, row.against),
                              QString::fromStdString(format.unitText()));
    }

    void setPieces(const judge::WhoseDoing& whose, const QString& label) {
        m_scatterTitle = tr("What moves %1 from shot to shot").arg(label);
        for (const auto& part : whose.shares)
            m_pieces.push_back({word(part.cause), std::max(0.0, part.share)});
        m_pieces.push_back({tr("not explained"), std::max(0.0, whose.rest)});
    }

    void paintBars(QPainter& painter) const {
        const Colours& c = colours();
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(QPointF(m_box.left(), m_box.top() + 16),
                         painter.fontMetrics().elidedText(m_gapTitle, Qt::ElideRight, static_cast<int>(m_box.width())));
        const double zero = m_axis.pixel(0);
        const double bottom = m_box.top() + headHeight + m_row * static_cast<double>(m_bars.size());
        painter.setPen(QPen(c.faint, 1));
        painter.drawLine(QPointF(zero, m_box.top() + headHeight - 4), QPointF(zero, bottom));
        double y = m_box.top() + headHeight;
        for (const Bar& bar : m_bars) {
            const double middle = y + m_row / 2;
            if (bar.isTotal) {
                painter.setPen(QPen(c.line, 1));
                painter.drawLine(QPointF(m_box.left(), y), QPointF(m_box.right(), y));
            }
            painter.setPen(c.ink);
            painter.setFont(typeface(size::body, bar.isTotal ? QFont::DemiBold : QFont::Normal));
            painter.drawText(
                QPointF(m_box.left(), middle + 5),
                painter.fontMetrics().elidedText(bar.name, Qt::ElideRight, static_cast<int>(nameWidth - 12)));
            const double x = m_axis.pixel(bar.value);
            const QRectF box(std::min(x, zero), middle - 6, std::max(1.5, std::fabs(x - zero)), 12);
            painter.fillRect(box, bar.isTotal ? c.ink : c.cord);
            if (bar.low && bar.high) {
                const double from = std::max(m_axis.pixel(*bar.low), m_axis.pixelLow);
                const double to = std::min(m_axis.pixel(*bar.high), m_axis.pixelHigh);
                painter.setPen(QPen(c.ink, 1.5));
                painter.drawLine(QPointF(from, middle), QPointF(to, middle));
                for (const double end : {from, to})
                    painter.drawLine(QPointF(end, middle - 4), QPointF(end, middle + 4));
            }
            painter.setPen(c.ink);
            drawTabular(painter, typeface(size::body, bar.isTotal ? QFont::DemiBold : QFont::Normal),
                        {m_box.right(), middle + 5}, bar.text, Align::right);
            y += m_row;
        }
    }

    // One bar cut by shares; words under it where they have room, the shares in them.
    void paintPieces(QPainter& painter, const QRectF& box) const {
        const Colours& c = colours();
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(QPointF(box.left(), box.top() + 12), m_scatterTitle);
        double whole = 0;
        for (const Piece& piece : m_pieces)
            whole += piece.share;
        if (!(whole > 0))
            return;
        double left = box.left();
        double free = box.left();
        int line = 0;
        for (std::size_t i = 0; i < m_pieces.size(); ++i) {
            const double width = box.width() * m_pieces[i].share / whole;
            const QRectF part(left, box.top() + 22, width, 20);
            QColor colour = m_pieces[i].name == tr("the club") ? c.ink : c.cord;
            colour.setAlphaF(m_pieces[i].name == tr("the club") ? 1.0F
                             : i + 1 == m_pieces.size()         ? 0.12F
                                                        : static_cast<float>(0.85 - 0.13 * static_cast<double>(i)));
            painter.fillRect(part, colour);
            painter.setPen(QPen(c.sheet, 1));
            painter.drawLine(part.topRight(), part.bottomRight());
            const QString text = tr("%1 %2 %").arg(m_pieces[i].name).arg(std::lround(100 * m_pieces[i].share));
            const double wide = painter.fontMetrics().horizontalAdvance(text);
            double at = std::min(std::max(left, free), box.right() - wide);
            if (at < free) { // on to the next line of words
                ++line;
                at = std::min(left, box.right() - wide);
            }
            painter.setPen(c.ink);
            painter.drawText(QPointF(at, box.top() + 60 + 17 * line), text);
            free = at + wide + 14;
            left += width;
        }
    }

    std::vector<Bar> m_bars;
    std::vector<Piece> m_pieces;
    bool m_isOfBuild = false;
    QString m_gapTitle, m_scatterTitle, m_finding;
    QRectF m_box;
    double m_row = mostRow;
    picture::Axis m_axis;
};

} // namespace

std::unique_ptr<Picture> partsPicture(const Looked& looked) {
    auto picture = std::make_unique<PartsPicture>(looked);
    return picture->isEmpty() ? nullptr : std::move(picture);
}

} // namespace knot::app
