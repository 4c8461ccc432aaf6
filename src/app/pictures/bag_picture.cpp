#include "app/pictures/pictures.h"

#include "app/picture/axis.h"
#include "app/picture/swarm.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "app/style/words.h"
#include "core/bag/bag.h"
#include "core/judge/columns.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/statistics/quantile.h"
#include "core/words/bag.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::Metric;
using record::MetricFormat;

constexpr double nameWidth = 132;
constexpr double gapWidth = 116;
constexpr double numberRoom = 52;
constexpr double axisHeight = 34;
constexpr double usualRadius = 4.5;

/// The clubs of a bag from the longest to the shortest: the cord holds nine tenths of a club's shots, the tie is its
/// mean; between neighbours their gap with its interval, holes and doubles named.
class BagPicture : public Picture {
public:
    explicit BagPicture(const Looked& looked)
        : m_format(Metric::carry, looked.units) {
        const record::Test& test = looked.subject.seen();
        const bag::Bag bag = bag::bagOf({test});
        for (const bag::Club& club : bag.clubs)
            addRow(looked, test, club);
        for (const bag::Gap& gap : bag.gaps) {
            QString text = QString::fromStdString(words::gapText(gap, looked.units));
            if (gap.is != bag::Gap::Is::neither)
                text = (gap.is == bag::Gap::Is::hole ? tr("hole: %1") : tr("the same: %1")).arg(text);
            m_gaps.push_back({text, gap.is != bag::Gap::Is::neither});
        }
        QStringList said;
        for (const std::string& sentence : words::bagSentences(bag, looked.units))
            said << QString::fromStdString(sentence);
        m_finding = said.join(QLatin1Char(' '));
    }

    bool isEmpty() const { return m_rows.size() < 2; }
    QString finding() const override { return m_finding; }
    QString legend() const override { return tr("A cord holds nine tenths of a club's shots; the tie is its mean"); }
    QString asText() const override {
        QString text = m_finding;
        for (std::size_t i = 0; i < m_rows.size(); ++i) {
            text += u'\n' + m_rows[i].name + u'\t' + numberOf(m_rows[i].mean);
            if (i < m_gaps.size())
                text += u'\t' + m_gaps[i].text;
        }
        return text;
    }

    void layOut(const QRectF& box) override {
        m_box = box;
        double low = m_rows.front().shots.front().value;
        double high = low;
        for (const Row& row : m_rows)
            for (const Shot& shot : row.shots) {
                low = std::min(low, shot.value);
                high = std::max(high, shot.value);
            }
        m_axis = picture::niceAxis(low, high, box.left() + nameWidth + gapWidth, box.right() - numberRoom, 8);
        m_height = (box.height() - axisHeight) / static_cast<double>(m_rows.size());
        m_radius = picture::knotRadius(m_rows.size() * m_rows.front().shots.size(), usualRadius);
        m_marks.clear();
        for (std::size_t i = 0; i < m_rows.size(); ++i)
            for (const Shot& shot : m_rows[i].shots)
                m_marks.push_back({{m_axis.pixel(shot.value), yOf(i)}, m_radius, shot.at, i, shot.text});
    }

    void paint(QPainter& painter, std::optional<std::size_t> lit) const override {
        paintAxis(painter);
        for (std::size_t i = 0; i < m_rows.size(); ++i)
            paintRow(painter, i);
        for (std::size_t i = 0; i < m_gaps.size(); ++i)
            paintGap(painter, i);
        for (const Mark& mark : m_marks)
            if (lit && mark.shot == *lit)
                drawKnot(painter, mark.at, m_radius + 3, colours().ink);
    }

private:
    struct Shot {
        double value = 0; ///< as shown
        std::size_t at = 0;
        QString text;
    };
    struct Row {
        QString name;
        record::BuildAt build;
        double mean = 0, low = 0, high = 0; ///< as shown; nine tenths lie from low to high
        std::vector<Shot> shots;
    };
    struct Between {
        QString text;
        bool isTold = false;
    };

    void addRow(const Looked& looked, const record::Test& test, const bag::Club& club) {
        Row row{
            .name = QString::fromStdString(club.name), .build = {}, .mean = m_format.shown(club.carry), .shots = {}};
        const std::string key = record::lowerCase(club.name);
        std::vector<double> values;
        for (std::size_t i = 0; i < test.shots.size(); ++i) {
            const record::Shot& shot = test.shots[i];
            const auto carry = shot.readings.at(Metric::carry);
            if (!carry || !judge::isTaken(shot, judge::Taken::counted) ||
                record::lowerCase(test.builds[shot.build].name) != key)
                continue;
            row.build = shot.build;
            values.push_back(m_format.shown(*carry));
            row.shots.push_back(
                {values.back(), i, shotText(looked, i, QString::fromStdString(m_format.withUnit(*carry)))});
        }
        constexpr double tail = 0.05;
        row.low = statistics::quantileOf(values, tail);
        row.high = statistics::quantileOf(values, 1 - tail);
        m_names << row.name;
        m_rows.push_back(std::move(row));
    }

    double yOf(std::size_t row) const { return m_box.top() + m_height * (static_cast<double>(row) + 0.5); }
    static QString numberOf(double shown) { return QString::fromStdString(record::fixed(shown, 0)); }

    void paintAxis(QPainter& painter) const {
        painter.setFont(typeface(size::caption));
        const double foot = m_box.bottom() - axisHeight;
        for (const double tick : m_axis.ticks) {
            const double x = m_axis.pixel(tick);
            painter.setPen(QPen(colours().line, 1, Qt::DotLine));
            painter.drawLine(QPointF(x, m_box.top()), QPointF(x, foot));
            painter.setPen(colours().faint);
            painter.drawText(QRectF(x - 30, foot + 2, 60, 16), Qt::AlignCenter, numberOf(tick));
        }
        painter.setPen(colours().faint);
        painter.drawText(QRectF(m_box.right() - numberRoom - 40, foot + 2, numberRoom + 40, 16),
                         Qt::AlignRight | Qt::AlignVCenter,
                         tr("carry, %1").arg(QString::fromStdString(m_format.unitText())));
    }

    void paintRow(QPainter& painter, std::size_t at) const {
        const Row& row = m_rows[at];
        const double y = yOf(at);
        const QColor colour = tagColour(row.build);
        drawTag(painter, QRectF(m_box.left(), y - 6, 12, 12), row.build);
        painter.setPen(colours().ink);
        painter.setFont(typeface(size::body));
        painter.drawText(QPointF(m_box.left() + 20, y + 5), clubName(painter, row.name, nameWidth - 24, m_names));
        QColor cord = colour;
        cord.setAlphaF(0.45F);
        painter.setPen(QPen(cord, 5, Qt::SolidLine, Qt::RoundCap));
        painter.drawLine(QPointF(m_axis.pixel(row.low), y), QPointF(m_axis.pixel(row.high), y));
        for (const Shot& shot : row.shots)
            drawKnot(painter, {m_axis.pixel(shot.value), y}, m_radius, colour);
        const double mean = m_axis.pixel(row.mean);
        painter.setPen(QPen(colours().ink, 2));
        painter.drawLine(QPointF(mean, y - 9), QPointF(mean, y + 9));
        drawTabular(painter, typeface(size::body, QFont::DemiBold), {m_box.right(), y + 5}, numberOf(row.mean),
                    Align::right);
    }

    void paintGap(QPainter& painter, std::size_t at) const {
        const Between& gap = m_gaps[at];
        const double y = yOf(at) + m_height / 2;
        painter.setFont(typeface(size::caption, gap.isTold ? QFont::DemiBold : QFont::Normal));
        painter.setPen(gap.isTold ? colours().alarm : colours().faint);
        painter.drawText(QRectF(m_box.left() + 20, y - 8, nameWidth + gapWidth - 28, 16),
                         Qt::AlignRight | Qt::AlignVCenter, gap.text);
    }

    MetricFormat m_format;
    std::vector<Row> m_rows;
    std::vector<Between> m_gaps;
    QStringList m_names;
    QString m_finding;
    picture::Axis m_axis;
    QRectF m_box;
    double m_height = 0, m_radius = usualRadius;
};

} // namespace

std::unique_ptr<Picture> bagPicture(const Looked& looked) {
    if (looked.reading.kind.areOne)
        return nullptr;
    auto picture = std::make_unique<BagPicture>(looked);
    return picture->isEmpty() ? nullptr : std::move(picture);
}

} // namespace knot::app
