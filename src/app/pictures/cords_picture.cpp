#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/cords.h"
#include "app/picture/face.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/judge/columns.h"
#include "core/rack/norms.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::MetricFormat;

constexpr double leastNameWidth = 116;
constexpr double axisHeight = 44;
constexpr double meanRoom = 54;

/// One shot on a cord: its number, or how far it is from the middle of its stint.
struct Knot {
    double value = 0;
    std::size_t shot = 0;
};

// Shots of a stint alone have no distance from its middle. A middle of few shots lies too near them: the factor is that
// of the judge's average distance.
std::vector<Knot> distancesOf(const judge::BuildValues& build) {
    std::vector<Knot> knots;
    for (const judge::TurnValues& turn : build.turns) {
        if (turn.values.size() < 2)
            continue;
        const auto n = static_cast<double>(turn.values.size());
        for (std::size_t i = 0; i < turn.values.size(); ++i)
            knots.push_back({std::sqrt(n / (n - 1)) * std::fabs(turn.values[i] - turn.mean()), turn.shots[i]});
    }
    return knots;
}

std::vector<Knot> valuesOf(const judge::BuildValues& build) {
    std::vector<Knot> knots;
    for (const judge::TurnValues& turn : build.turns)
        for (std::size_t i = 0; i < turn.values.size(); ++i)
            knots.push_back({turn.values[i], turn.shots[i]});
    return knots;
}

// The interval of a mean as a whipping wound around the cord's end.
void drawWhipping(QPainter& painter, const picture::PlacedCord& cord, double height, const QColor& colour) {
    const QRectF bar(*cord.lowX, cord.intervalY - height / 2, std::max(2.0, *cord.highX - *cord.lowX), height);
    QPainterPath shape;
    shape.addRoundedRect(bar, 2.5, 2.5);
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawPath(shape);
    painter.save();
    painter.setClipPath(shape);
    QColor thread = colours().sheet;
    thread.setAlphaF(0.55F);
    painter.setPen(QPen(thread, 1.2));
    for (double x = bar.left() - height; x < bar.right() + height; x += 5)
        painter.drawLine(QPointF(x, bar.bottom() + 1), QPointF(x + 0.6 * height, bar.top() - 1));
    painter.restore();
}

class CordsPicture : public Picture {
public:
    explicit CordsPicture(const Looked& looked)
        : m_isSpread(looked.kind == record::OutcomeKind::spread) {
        const record::Test& test = looked.subject.seen();
        const MetricFormat format(looked.metric, looked.units);
        const auto column = judge::columnOf(test, looked.structure, looked.metric, judge::Taken::counted);
        m_unit = QString::fromStdString(format.unitText());
        m_texts.resize(static_cast<qsizetype>(test.shots.size()));
        const bool tellsBaseline = !test.seal.isClosed();
        for (record::BuildAt b; b < test.builds.size(); ++b) {
            const auto* summary = looked.reading.summaryOf(looked.metric, b);
            if (summary == nullptr)
                continue;
            const bool isBaseline = b == looked.reading.baseline && tellsBaseline;
            if (isBaseline)
                m_data.baseline = m_data.cords.size();
            addCord(looked, format, b, *summary, column.builds[b]);
            m_notes << (isBaseline ? tr("baseline") : QString());
        }
        const bool isCompared = m_data.cords.size() > 1; // a club alone is nobody's baseline
        if (!isCompared)
            m_notes.fill(QString());
        if (isCompared && tellsBaseline && looked.reading.summaryOf(looked.metric, looked.reading.baseline) != nullptr)
            setBand(looked, format);
        if (const auto norm = m_isSpread ? std::nullopt : rack::normOf(picture::faceKind(test), looked.metric)) {
            m_norm = format.shown(norm->value);
            m_normText = tr("%1 by %2, %3")
                             .arg(QString::fromStdString(format.number(norm->value)),
                                  QString::fromStdString(norm->source), QString::fromStdString(norm->date));
        }
        m_finding =
            tr("%1: %2.").arg(m_isSpread ? tr("Average distance from the middle of the stint, %1").arg(label(looked))
                                         : tr("Every counted shot, %1").arg(label(looked)),
                              m_said.join(QStringLiteral(", ")));
    }

    QString finding() const override { return m_finding; }
    QString under() const override {
        return m_isSpread ? tr("Each dot is how far a shot was from the middle of its stint.")
               : m_norm   ? tr("Dotted, and no verdict: %1.").arg(m_normText)
                          : QString();
    }
    QString legend() const override { return tr("every dot is a counted shot · Enter tells how"); }

    void layOut(const QRectF& box) override {
        m_left = box.left();
        const QFontMetricsF metrics(typeface(size::strong, QFont::DemiBold));
        m_nameWidth = leastNameWidth; // as wide as names need, and cords can spare
        for (const QString& name : m_names)
            m_nameWidth = std::clamp(metrics.horizontalAdvance(name) + 34, m_nameWidth,
                                     std::max(leastNameWidth, 0.28 * box.width()));
        m_layout = picture::layOutCords(
            m_data, {box.left() + m_nameWidth, box.top() + 4, box.right() - meanRoom, box.bottom() - axisHeight});
        m_marks.clear();
        for (const picture::PlacedKnot& knot : m_layout.knots)
            m_marks.push_back({{knot.x, knot.y},
                               m_layout.knotRadius,
                               knot.shot,
                               knot.cord,
                               m_texts.value(static_cast<qsizetype>(knot.shot))});
    }

    void paint(QPainter& painter, std::optional<std::size_t> lit) const override {
        if (m_layout.hasBand)
            painter.fillRect(QRectF(m_layout.bandLeft, m_layout.top, m_layout.bandRight - m_layout.bandLeft,
                                    m_layout.bottom - m_layout.top + 6),
                             colours().band);
        if (m_norm && *m_norm > m_layout.axis.low && *m_norm < m_layout.axis.high && !m_layout.cords.empty()) {
            const double x = m_layout.axis.pixel(*m_norm);
            painter.setPen(QPen(colours().faint, 1, Qt::DotLine));
            painter.drawLine(QPointF(x, m_layout.top), QPointF(x, m_layout.bottom + 6));
        }
        for (std::size_t i = 0; i < m_layout.cords.size(); ++i)
            paintCord(painter, i);
        for (const picture::PlacedKnot& knot : m_layout.knots)
            drawKnot(painter, {knot.x, knot.y}, m_layout.knotRadius, tagColour(m_builds[knot.cord]));
        for (const picture::PlacedKnot& knot : m_layout.knots)
            if (lit && knot.shot == *lit)
                drawKnot(painter, {knot.x, knot.y}, m_layout.knotRadius + 3, colours().ink);
        if (!m_layout.cords.empty())
            paintAxis(painter);
    }

private:
    static QString label(const Looked& looked) { return QString::fromStdString(record::info(looked.metric).label); }

    void addCord(const Looked& looked, const MetricFormat& format, record::BuildAt b, const judge::Summary& summary,
                 const judge::BuildValues& values) {
        picture::CordData cord;
        double sum = 0;
        for (const Knot& knot : m_isSpread ? distancesOf(values) : valuesOf(values)) {
            const double shown = m_isSpread ? format.shown(knot.value) : format.shown(knot.value);
            cord.values.push_back(shown);
            cord.shots.push_back(knot.shot);
            sum += knot.value;
            m_texts[static_cast<qsizetype>(knot.shot)] =
                shotText(looked, knot.shot,
                         m_isSpread ? tr("%1 from the middle").arg(QString::fromStdString(format.withUnit(knot.value)))
                                    : QString::fromStdString(format.withUnit(knot.value)));
        }
        const MetricFormat rounded = format.supportedBy(summary.standardError.value_or(0));
        const double middle =
            m_isSpread && !cord.values.empty() ? sum / static_cast<double>(cord.values.size()) : summary.mean;
        cord.mean = m_isSpread ? format.shown(middle) : format.shown(middle);
        if (summary.ci95 && !m_isSpread) {
            cord.low = format.shown(summary.ci95->low);
            cord.high = format.shown(summary.ci95->high);
        }
        m_data.cords.push_back(std::move(cord));
        m_builds.push_back(b);
        m_names << nameOf(looked, b);
        m_means << QString::fromStdString((m_isSpread ? format : rounded).number(middle));
        m_said << m_names.back() + QLatin1Char(' ') +
                      QString::fromStdString((m_isSpread ? format : rounded).withUnit(middle));
    }

    void setBand(const Looked& looked, const MetricFormat& format) {
        const double middle = m_data.cords[m_data.baseline].mean;
        if (m_isSpread) {
            const double ratio = looked.reading.card.sdRatioMargin;
            m_data.band = {middle / ratio, middle * ratio};
        } else if (const double margin = format.shown(looked.reading.card.margin(looked.metric)); margin > 0) {
            m_data.band = {middle - margin, middle + margin};
        }
    }

    void paintCord(QPainter& painter, std::size_t i) const {
        const picture::PlacedCord& cord = m_layout.cords[i];
        const QColor colour = tagColour(m_builds[i]);
        QColor line = colour;
        line.setAlphaF(0.65F);
        painter.setPen(QPen(line, 3));
        painter.drawLine(QPointF(m_layout.axis.pixelLow, cord.y), QPointF(m_layout.axis.pixelHigh, cord.y));
        if (cord.lowX)
            drawWhipping(painter, cord, 9, colour);
        if (!cord.empty) {
            painter.setPen(QPen(colours().ink, 2));
            painter.drawLine(QPointF(cord.meanX, cord.intervalY - 7.5), QPointF(cord.meanX, cord.intervalY + 7.5));
        }
        paintName(painter, i, cord);
        painter.setPen(colours().ink);
        const double labelX = cord.highX ? std::max(*cord.highX, cord.meanX) + 10 : cord.meanX + 10;
        if (!cord.empty)
            drawTabular(painter, typeface(size::body, QFont::DemiBold),
                        QPointF(std::min(labelX, m_layout.axis.pixelHigh + 6), cord.intervalY + 5),
                        m_means[static_cast<qsizetype>(i)], Align::left);
    }

    void paintName(QPainter& painter, std::size_t i, const picture::PlacedCord& cord) const {
        const auto row = static_cast<qsizetype>(i);
        drawTag(painter, QRectF(m_left, cord.y - 6, 13, 13), m_builds[i]);
        painter.setPen(colours().ink);
        painter.setFont(typeface(size::strong, QFont::DemiBold));
        const auto elide = [&](const QString& text) {
            return painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(m_nameWidth - 26));
        };
        painter.drawText(QPointF(m_left + 22, cord.y + 5), clubName(painter, m_names[row], m_nameWidth - 26, m_names));
        if (m_notes[row].isEmpty())
            return;
        painter.setFont(typeface(size::caption));
        painter.setPen(colours().faint);
        painter.drawText(QPointF(m_left + 22, cord.y + 21), elide(m_notes[row]));
    }

    void paintAxis(QPainter& painter) const {
        const double y = m_layout.bottom + 10;
        painter.setPen(QPen(colours().faint, 1));
        for (const double tick : m_layout.axis.ticks) {
            const double x = m_layout.axis.pixel(tick);
            painter.drawLine(QPointF(x, y), QPointF(x, y + 5));
            drawTabular(painter, typeface(size::caption), QPointF(x, y + 19),
                        QString::fromStdString(record::fixed(tick, m_layout.axis.decimals)), Align::centre);
        }
        drawTabular(painter, typeface(size::caption), QPointF(m_layout.axis.pixelLow - 14, y + 19), m_unit,
                    Align::right);
        if (!m_layout.hasBand)
            return;
        painter.setFont(typeface(size::caption));
        const QString text = tr("too small to matter");
        const double width = painter.fontMetrics().horizontalAdvance(text);
        const double centre = std::clamp((m_layout.bandLeft + m_layout.bandRight) / 2,
                                         m_layout.axis.pixelLow + width / 2, m_layout.axis.pixelHigh - width / 2);
        painter.setPen(colours().cord.darker(theme() == Theme::light ? 130 : 90));
        painter.drawText(QPointF(centre - width / 2, y + 34), text);
    }

    bool m_isSpread;
    picture::CordsData m_data;
    picture::CordsLayout m_layout;
    std::vector<record::BuildAt> m_builds; ///< beside the cords
    double m_nameWidth = leastNameWidth;
    QStringList m_names, m_notes, m_means, m_said; ///< beside them too
    QStringList m_texts;                           ///< by shot
    QString m_unit, m_finding, m_normText;
    std::optional<double> m_norm; ///< as shown
    double m_left = 0;
};

} // namespace

std::unique_ptr<Picture> cordsPicture(const Looked& looked) {
    return std::make_unique<CordsPicture>(looked);
}

} // namespace knot::app
