#include "app/bay_page/now_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"

#include <QPainter>

#include <algorithm>

namespace knot::app {
namespace {

// The largest size up to `most` at which a text fits.
QFont fitting(const QString& text, double most, double width, QFont::Weight weight) {
    int pixels = static_cast<int>(most);
    while (pixels > size::body && QFontMetricsF(typeface(pixels, weight)).horizontalAdvance(text) > width)
        --pixels;
    return typeface(pixels, weight);
}

// The type, made smaller down to the caption size until a text that wraps stands whole in its room.
QFont wholeIn(const QRectF& room, const QString& text, QFont type) {
    while (type.pixelSize() > size::caption &&
           QFontMetricsF(type).boundingRect(room, Qt::AlignLeft | Qt::TextWordWrap, text).height() > room.height())
        type.setPixelSize(type.pixelSize() - 1);
    return type;
}

void paintCord(QPainter& painter, const NowPicture& picture, const QRectF& row) {
    const QColor colour = picture.build ? tagColour(*picture.build) : colours().cord;
    const double radius = std::min(row.height() * 0.42, row.width() / (3.0 * picture.knots));
    const double step = row.width() / picture.knots;
    const double y = row.center().y();
    painter.setPen(QPen(colour, std::max(3.0, radius / 4)));
    painter.drawLine(QPointF(row.left(), y), QPointF(row.right(), y));
    for (int i = 0; i < picture.knots; ++i) {
        const QPointF centre(row.left() + (i + 0.5) * step, y);
        if (i < picture.tied) {
            drawKnot(painter, centre, radius, colour);
            continue;
        }
        painter.setPen(QPen(colour, 2));
        painter.setBrush(colours().sheet);
        painter.drawEllipse(centre, 0.88 * radius, radius);
    }
}

// Where they don't stand beside each other: a line a number, with what the club has shown so far behind it.
void paintLastInLines(QPainter& painter, const QStringList& last, const QStringList& soFar, const QRectF& room) {
    const double height = std::min(18.0, room.height() / static_cast<double>(last.size()));
    double y = room.top() + 13;
    for (int i = 0; i < last.size(); ++i, y += height) {
        painter.setPen(colours().faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(QPointF(room.left(), y), last[i].section(QLatin1Char('\n'), 1));
        if (i < soFar.size())
            drawTabular(painter, typeface(size::caption), QPointF(room.right(), y),
                        soFar[i].section(QStringLiteral(" on "), 0, 0).replace(QLatin1Char('\n'), QStringLiteral(", ")),
                        Align::right);
        painter.setPen(colours().ink);
        drawTabular(painter, typeface(size::body, QFont::DemiBold), QPointF(room.left() + 0.18 * room.width(), y),
                    last[i].section(QLatin1Char('\n'), 0, 0), Align::left);
    }
}

constexpr double narrow = 130; // a number with what is below it

void paintLast(QPainter& painter, const QStringList& last, const QStringList& soFar, const QRectF& row) {
    if (!soFar.isEmpty() && row.width() < narrow * static_cast<double>(last.size()))
        return paintLastInLines(painter, last, soFar, row.adjusted(0, 0, 0, 0.4 * row.height()));
    const double each = row.width() / static_cast<double>(last.size());
    const double wide = each - row.height() * 0.3;
    QFont figures =
        fitting({}, row.height() * 0.62, wide, QFont::DemiBold); // of one size, so that they stand in a line
    for (const QString& one : last)
        if (const QFont own = fitting(one.section(QLatin1Char('\n'), 0, 0), row.height() * 0.62, wide, QFont::DemiBold);
            own.pixelSize() < figures.pixelSize())
            figures = own;
    for (int i = 0; i < last.size(); ++i) {
        const QString number = last[i].section(QLatin1Char('\n'), 0, 0);
        const QString label = last[i].section(QLatin1Char('\n'), 1);
        const double x = row.left() + i * each;
        painter.setPen(colours().ink);
        drawTabular(painter, figures, QPointF(x, row.top() + row.height() * 0.56), number, Align::left);
        painter.setPen(colours().faint);
        painter.setFont(typeface(std::max(size::caption, static_cast<int>(row.height() * 0.24))));
        const double below = row.bottom() - row.height() * 0.1;
        painter.drawText(QPointF(x, below), label);
        const QStringList lines = i < soFar.size() ? soFar[i].split(QLatin1Char('\n')) : QStringList();
        for (int line = 0; line < lines.size(); ++line)
            drawTabular(painter, typeface(std::max(size::caption, static_cast<int>(row.height() * 0.16))),
                        QPointF(x, below + row.height() * (0.3 + 0.22 * line)), lines[line], Align::left);
    }
}

} // namespace

void paintNow(QPainter& painter, const NowPicture& picture, const QRectF& box) {
    painter.setRenderHint(QPainter::Antialiasing);
    const double unit = std::clamp(std::min(box.height() / 400, box.width() / 620), 0.4, 4.0);
    auto font = [&](double pixels, QFont::Weight weight = QFont::Normal) {
        return typeface(std::max(size::caption, static_cast<int>(pixels * unit)), weight);
    };
    double y = box.top() + 30 * unit;
    painter.setPen(colours().faint);
    painter.setFont(font(26));
    painter.drawText(QPointF(box.left(), y), picture.caption);
    y += 18 * unit;
    const double nameHeight = 112 * unit;
    double x = box.left();
    if (picture.build) {
        drawTag(painter, QRectF(x, y + nameHeight * 0.16, nameHeight * 0.66, nameHeight * 0.66), *picture.build);
        x += nameHeight * 0.84;
    }
    painter.setPen(colours().ink);
    painter.setFont(fitting(picture.name, nameHeight * 0.92, box.right() - x, QFont::Bold));
    painter.drawText(QRectF(x, y, box.right() - x, nameHeight), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextDontClip,
                     picture.name);
    y += nameHeight + 44 * unit;
    painter.setFont(font(40, QFont::Medium));
    painter.drawText(QPointF(box.left(), y), picture.count);
    painter.setFont(font(22));
    painter.setPen(colours().faint);
    const double thenWidth = QFontMetricsF(painter.font()).horizontalAdvance(picture.then);
    painter.drawText(QPointF(box.right() - thenWidth, y), picture.then);
    if (picture.next)
        drawTag(painter, QRectF(box.right() - thenWidth - 30 * unit, y - 18 * unit, 20 * unit, 20 * unit),
                *picture.next);
    y += 22 * unit;
    if (picture.knots > 0)
        paintCord(painter, picture, QRectF(box.left(), y, box.width(), 44 * unit));
    y += 44 * unit + 28 * unit;
    painter.setPen(colours().faint);
    const double lastTop = y + 10 * unit;
    // What is said below stands whole: on two lines where it has to, and smaller where it still must.
    const QRectF room(box.left(), y - 20 * unit, box.width(),
                      picture.last.isEmpty() ? box.bottom() - y + 20 * unit : 30 * unit);
    painter.setFont(wholeIn(room, picture.below, font(18)));
    painter.drawText(room, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, picture.below);
    if (!picture.last.isEmpty())
        paintLast(painter, picture.last, picture.soFar, QRectF(box.left(), lastTop, box.width(), 66 * unit));
}

NowView::NowView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("now"));
    setAccessibleName(tr("Now"));
    setMinimumSize(320, 200);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void NowView::setPicture(const NowPicture& picture) {
    if (picture == m_picture)
        return;
    m_picture = picture;
    setAccessibleDescription(
        QStringList{picture.caption, picture.name, picture.count, picture.then, picture.below,
                    QString(picture.last.join(QStringLiteral(", "))).replace(QLatin1Char('\n'), QLatin1Char(' ')),
                    picture.soFar.join(QStringLiteral(", "))}
            .join(QStringLiteral(". ")));
    update();
}

void NowView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    paintNow(painter, m_picture, QRectF(rect()).adjusted(1, 1, -1, -1));
}

} // namespace knot::app
