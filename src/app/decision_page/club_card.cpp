#include "app/decision_page/club_card.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"

#include <QPainter>

#include <algorithm>

namespace knot::app {
namespace {

constexpr double side = 16, headHeight = 48, cordRoom = 36, bestRow = 20;

} // namespace

ClubCard::ClubCard(QWidget* parent)
    : QAbstractButton(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void ClubCard::display(const ClubPicture& picture, double low, double high, bool isChosen) {
    m_picture = picture;
    m_low = low;
    m_high = std::max(high, low + 1e-9);
    m_isChosen = isChosen;
    QStringList said{picture.name};
    if (!picture.under.isEmpty())
        said << picture.under;
    said << picture.found;
    if (!picture.said.isEmpty())
        said << picture.said;
    for (const ClubPicture::Best& best : picture.best)
        said << tr("best in %1 %2 in 100").arg(best.of, best.inHundred);
    setAccessibleName(said.join(QStringLiteral(", ")) + (isChosen ? tr(", chosen") : QString()));
    update();
}

void ClubCard::setLow(bool isLow) {
    if (m_isLow == isLow)
        return;
    m_isLow = isLow;
    updateGeometry();
}

void ClubCard::paintEvent(QPaintEvent* /*event*/) {
    const Colours& c = colours();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(c.sheet);
    painter.setPen(QPen(hasFocus() ? c.cord : m_isChosen ? c.ink : c.line, m_isChosen || hasFocus() ? 2 : 1));
    painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 6, 6);
    drawHead(painter);
    if (m_picture.isVeiled)
        return;
    double y = headHeight + cordRoom / 2;
    drawShots(painter, y);
    const double best = height() - 10 - bestRow * static_cast<double>(m_picture.best.size());
    painter.setFont(typeface(size::caption));
    painter.setPen(colours().faint);
    painter.drawText(QRectF(side, y + 13, width() - 2 * side, 16), Qt::AlignRight, m_picture.average);
    drawWords(painter, y + cordRoom / 2 + 14, best - 4);
    drawBest(painter, best);
}

void ClubCard::drawHead(QPainter& painter) const {
    const Colours& c = colours();
    drawTag(painter, {side, 16, 20, 20}, m_picture.build);
    painter.setFont(typeface(size::caption));
    painter.setPen(c.faint);
    const double under = painter.fontMetrics().horizontalAdvance(m_picture.under);
    const bool isBeside = under < 0.4 * width();
    const double room = width() - side - 46 - (isBeside && under > 0 ? under + 10 : 0);
    if (isBeside)
        painter.drawText(QRectF(0, 14, width() - side, 24), Qt::AlignRight | Qt::AlignVCenter, m_picture.under);
    painter.setPen(c.ink);
    painter.setFont(typeface(size::sentence, QFont::DemiBold));
    if (painter.fontMetrics().horizontalAdvance(m_picture.name) > room)
        painter.setFont(typeface(size::body, QFont::DemiBold));
    painter.drawText(QRectF(46, 12, room, 28), Qt::AlignVCenter, clubName(painter, m_picture.name, room));
}

void ClubCard::drawShots(QPainter& painter, double y) const {
    const QColor colour = tagColour(m_picture.build);
    const double left = side + 6;
    const double right = width() - side - 6;
    painter.setPen(QPen(colour, 2));
    painter.drawLine(QPointF(side, y), QPointF(width() - side, y));
    const auto place = [&](double value) { return left + (value - m_low) / (m_high - m_low) * (right - left); };
    for (const double shot : m_picture.shots)
        drawKnot(painter, {place(shot), y}, 6, colour);
    if (m_picture.shots.empty())
        return;
    painter.setPen(QPen(colours().ink, 2));
    painter.drawLine(QPointF(place(m_picture.mean), y - 13), QPointF(place(m_picture.mean), y + 13));
}

void ClubCard::drawWords(QPainter& painter, double top, double bottom) const {
    const double wide = width() - 2 * side;
    double y = top;
    auto line = [&](const QString& text, const QColor& colour, QFont::Weight weight) {
        painter.setFont(typeface(size::body, weight));
        painter.setPen(colour);
        const double high = painter.fontMetrics()
                                .boundingRect(QRect(0, 0, static_cast<int>(wide), 400), Qt::TextWordWrap, text)
                                .height();
        if (y + high > bottom)
            return false;
        painter.drawText(QRectF(side, y, wide, high + 2), Qt::TextWordWrap, text);
        y += high + 5;
        return true;
    };
    for (qsizetype i = 0; i < m_picture.found.size(); ++i)
        if (!line(m_picture.found[i], colours().ink, i == 0 ? QFont::DemiBold : QFont::Normal))
            return;
    if (!m_picture.said.isEmpty())
        line(m_picture.said, colours().faint, QFont::Normal);
}

void ClubCard::drawBest(QPainter& painter, double top) const {
    const Colours& c = colours();
    for (std::size_t i = 0; i < m_picture.best.size(); ++i) {
        const ClubPicture::Best& best = m_picture.best[i];
        const double y = top + bestRow * (static_cast<double>(i) + 0.5);
        const QFont font = typeface(size::caption);
        painter.setFont(font);
        painter.setPen(c.faint);
        const QString chance = tr("%1 in 100").arg(best.inHundred);
        const double number =
            QFontMetricsF(typeface(size::caption, QFont::DemiBold)).horizontalAdvance(chance) + side + 8;
        const double room = std::max(0.0, std::min(0.36 * width(), width() - side - number));
        painter.drawText(
            QRectF(side, y - 9, room, 18), Qt::AlignVCenter,
            painter.fontMetrics().elidedText(tr("best %1").arg(best.of), Qt::ElideRight, static_cast<int>(room - 4)));
        const double right = width() - side;
        painter.setPen(c.ink);
        drawTabular(painter, typeface(size::caption, QFont::DemiBold), {right, y + 4}, chance, Align::right);
        const double left = side + room;
        const double end = right - painter.fontMetrics().horizontalAdvance(chance) - 14;
        if (end < left + 30) // the number says it
            continue;
        painter.setPen(QPen(c.line, 2));
        painter.drawLine(QPointF(left, y), QPointF(end, y));
        painter.setPen(QPen(tagColour(m_picture.build), 4, Qt::SolidLine, Qt::RoundCap));
        painter.drawLine(QPointF(left, y), QPointF(left + std::max(1.0, best.chance * (end - left)), y));
    }
}

} // namespace knot::app
