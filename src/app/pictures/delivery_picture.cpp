#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/judge/causes/delivered.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

namespace knot::app {
namespace {

using record::Metric;
using record::MetricFormat;

constexpr double gap = 12;
constexpr double underRoom = 44;
constexpr double leastHeight = 92; // of a card with its drawing

QString degrees(double value) {
    return QString::fromStdString(record::fixed(value, 1)) + QStringLiteral("°");
}

/// One club with one delivery: its face at the ball from the side, and what came of it.
struct Card {
    judge::Delivered as;
    QString name, carry, flight;
    QRectF box;
};

class DeliveryPicture : public Picture {
public:
    explicit DeliveryPicture(const Looked& looked) {
        const MetricFormat carry(Metric::carry, looked.units);
        const MetricFormat spin(Metric::spin, looked.units);
        std::set<std::string> deliveries;
        for (judge::Delivered& one : judge::deliveredBy(looked.subject.seen(), looked.structure)) {
            deliveries.insert(one.delivery);
            Card card{.as = one, .name = nameOf(looked, one.build), .carry = {}, .flight = {}, .box = {}};
            if (one.carry)
                card.carry = QString::fromStdString(carry.withUnit(*one.carry));
            QStringList flight;
            if (one.launch)
                flight << degrees(*one.launch);
            if (one.spin)
                flight << QString::fromStdString(spin.withUnit(*one.spin));
            card.flight = flight.join(QStringLiteral(" · "));
            m_cards.push_back(std::move(card));
        }
        m_perRow = std::max<std::size_t>(deliveries.size(), 1);
        say(looked, carry, spin);
    }

    bool isEmpty() const { return m_cards.empty(); }
    QString finding() const override { return m_finding; }
    QString under() const override { return m_more; }

    void layOut(const QRectF& box) override {
        // One delivery alone leaves room for clubs beside each other.
        const std::size_t columns = m_perRow > 1
                                        ? m_perRow
                                        : std::clamp<std::size_t>(static_cast<std::size_t>(box.width() / 300), 1,
                                                                  std::max<std::size_t>(1, (m_cards.size() + 1) / 2));
        const std::size_t rows = (m_cards.size() + columns - 1) / columns;
        const double width = (box.width() - gap * static_cast<double>(columns - 1)) / static_cast<double>(columns);
        const double height = (box.height() - gap * static_cast<double>(rows - 1)) / static_cast<double>(rows);
        for (std::size_t i = 0; i < m_cards.size(); ++i)
            m_cards[i].box =
                QRectF(box.left() + static_cast<double>(i % columns) * (width + gap),
                       box.top() + static_cast<double>(i / columns) * (height + gap), width, std::min(height, 260.0));
    }

    void paint(QPainter& painter, std::optional<std::size_t>) const override {
        for (const Card& card : m_cards)
            paintCard(painter, card);
    }

private:
    void say(const Looked& looked, const MetricFormat& carry, const MetricFormat& spin) {
        QStringList said;
        for (const Card& card : m_cards) {
            QStringList words;
            if (card.as.dynamicLoft)
                words << tr("%1 delivered").arg(degrees(*card.as.dynamicLoft)) + ofStatic(card.as);
            if (card.as.attack)
                words << tr("attack %1").arg(degrees(*card.as.attack));
            if (card.as.spinLoft)
                words << tr("spin loft %1").arg(degrees(*card.as.spinLoft));
            said << headOf(card) + QStringLiteral(": ") + words.join(QStringLiteral(", "));
        }
        m_finding = said.join(QStringLiteral("; ")) + QLatin1Char('.');
        const auto own = std::ranges::find_if(
            m_cards, [&](const Card& card) { return card.as.build == looked.build && card.as.twoMore; });
        const auto any = own != m_cards.end() ? own : std::ranges::find_if(m_cards, [](const Card& card) {
            return card.as.twoMore.has_value();
        });
        if (any == m_cards.end())
            return;
        const judge::Delivered::Change& more = *any->as.twoMore;
        const auto signedDegrees = [](double value) {
            return QString::fromStdString(record::signedFixed(value, 1)) + QStringLiteral("°");
        };
        m_more =
            tr("2° more loft on %1, modelled: launch %2, spin %3, carry %4, descent %5.")
                .arg(headOf(*any), signedDegrees(more.launch),
                     QString::fromStdString(spin.signedNumber(std::round(more.spin / 10) * 10) + " " + spin.unitText()),
                     QString::fromStdString(carry.signedNumber(more.carry) + " " + carry.unitText()),
                     signedDegrees(more.descent));
        m_finding += QLatin1Char(' ') + m_more;
    }

    static QString headOf(const Card& card) {
        return card.as.delivery.empty() ? card.name
                                        : tr("%1, %2").arg(card.name, QString::fromStdString(card.as.delivery));
    }

    // ", 2.8° taken off its 19.0°".
    static QString ofStatic(const judge::Delivered& as) {
        if (!as.staticLoft || !as.dynamicLoft)
            return {};
        const double added = *as.dynamicLoft - *as.staticLoft;
        return (added < 0 ? tr(", %1 taken off its %2") : tr(", %1 added to its %2"))
            .arg(degrees(std::fabs(added)), degrees(*as.staticLoft));
    }

    static QPointF direction(double degrees) {
        const double radians = degrees * std::numbers::pi / 180;
        return {std::cos(radians), -std::sin(radians)};
    }

    void paintCard(QPainter& painter, const Card& card) const {
        const Colours& c = colours();
        painter.setPen(QPen(c.line, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(card.box.adjusted(0.5, 0.5, -0.5, -0.5), 6, 6);
        const double left = card.box.left() + 14;
        const double top = card.box.top();
        drawTag(painter, QRectF(left, top + 13, 12, 12), card.as.build);
        painter.setPen(c.ink);
        painter.setFont(typeface(size::body, QFont::DemiBold));
        const auto elided = [&](const QString& text, double width) {
            return painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(width));
        };
        const QString name = elided(card.name, card.box.width() / 2 - 34);
        painter.drawText(QPointF(left + 19, top + 24), name);
        const double after = left + 19 + painter.fontMetrics().horizontalAdvance(name) + 10;
        painter.setPen(c.faint);
        painter.setFont(typeface(size::body));
        painter.drawText(QPointF(after, top + 24),
                         elided(QString::fromStdString(card.as.delivery), card.box.right() - 14 - after));
        const bool isLow = card.box.height() < leastHeight;
        const double textLeft = isLow ? left : card.box.left() + std::max(130.0, 0.5 * card.box.width());
        if (!isLow)
            paintStrike(painter, card);
        paintWords(painter, card, textLeft);
        if (!card.carry.isEmpty() && !isLow) {
            painter.setPen(c.ink);
            drawTabular(painter, typeface(size::strong, QFont::DemiBold),
                        {card.box.right() - 14, card.box.bottom() - 14}, card.carry, Align::right);
        }
    }

    // Seen from the side, the ball flying to the right: the face as delivered, dashed as it stands by itself; the
    // club's way into the ball, and the ball's way out.
    void paintStrike(QPainter& painter, const Card& card) const {
        const Colours& c = colours();
        const double groundY = card.box.bottom() - underRoom;
        const double length = std::min(groundY - card.box.top() - 44, 0.3 * card.box.width());
        const QPointF ball(card.box.left() + std::max(76.0, 0.28 * card.box.width()), groundY - 9);
        painter.setPen(QPen(c.line, 1.5));
        painter.drawLine(QPointF(card.box.left() + 14, groundY),
                         QPointF(card.box.left() + 0.5 * card.box.width() - 8, groundY));
        const QPointF sole = ball + QPointF(-17, 9);
        const auto face = [&](double loft, const QPen& pen) {
            painter.setPen(pen);
            painter.drawLine(sole, sole + length * direction(90 + loft));
        };
        if (card.as.staticLoft)
            face(*card.as.staticLoft, QPen(c.faint, 1.5, Qt::DashLine));
        if (card.as.dynamicLoft)
            face(*card.as.dynamicLoft, QPen(tagColour(card.as.build), 3.5, Qt::SolidLine, Qt::RoundCap));
        if (card.as.attack) {
            const QPointF to = sole + QPointF(-6, -12);
            const QPointF along = direction(*card.as.attack);
            painter.setPen(QPen(c.ink, 1.5));
            painter.drawLine(to - 52 * along, to);
            for (const double turn : {155.0, -155.0})
                painter.drawLine(to, to + 8 * direction(*card.as.attack + turn));
        }
        if (card.as.launch) {
            painter.setPen(QPen(tagColour(card.as.build), 1.5, Qt::DotLine));
            painter.drawLine(ball + 12 * direction(*card.as.launch), ball + 74 * direction(*card.as.launch));
        }
        painter.setPen(QPen(c.faint, 1.2));
        painter.setBrush(c.sheet);
        painter.drawEllipse(ball, 9, 9);
    }

    void paintWords(QPainter& painter, const Card& card, double left) const {
        const Colours& c = colours();
        struct Line {
            QString text;
            bool isStrong, isFaint;
        };
        std::vector<Line> lines;
        const judge::Delivered& as = card.as;
        if (as.dynamicLoft)
            lines.push_back({tr("%1 delivered").arg(degrees(*as.dynamicLoft)), true, false});
        if (as.dynamicLoft && as.staticLoft) {
            const double added = *as.dynamicLoft - *as.staticLoft;
            lines.push_back({(added < 0 ? tr("of %1: %2 taken off") : tr("of %1: %2 added"))
                                 .arg(degrees(*as.staticLoft), degrees(std::fabs(added))),
                             false, true});
        }
        if (as.attack)
            lines.push_back({tr("attack %1").arg(degrees(*as.attack)), false, false});
        if (as.spinLoft)
            lines.push_back({tr("spin loft %1").arg(degrees(*as.spinLoft)), false, false});
        if (!card.flight.isEmpty())
            lines.push_back({card.flight, false, true});
        double y = card.box.top() + 50;
        for (const Line& line : lines) {
            if (y > card.box.bottom() - 10)
                break;
            painter.setPen(line.isFaint ? c.faint : c.ink);
            painter.setFont(
                typeface(line.isStrong ? size::body : size::caption, line.isStrong ? QFont::DemiBold : QFont::Normal));
            painter.drawText(QPointF(left, y),
                             painter.fontMetrics().elidedText(line.text, Qt::ElideRight,
                                                              static_cast<int>(card.box.right() - 10 - left)));
            y += 20;
        }
    }

    std::vector<Card> m_cards;
    std::size_t m_perRow = 1;
    QString m_finding, m_more;
};

} // namespace

std::unique_ptr<Picture> deliveryPicture(const Looked& looked) {
    auto picture = std::make_unique<DeliveryPicture>(looked);
    return picture->isEmpty() ? nullptr : std::move(picture);
}

} // namespace knot::app
