#include "app/bay_page/player_window.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QPainter>

namespace knot::app {

PlayerWindow::PlayerWindow(QWidget* parent)
    : QWidget(parent, Qt::Window) {
    setObjectName(QStringLiteral("playerWindow"));
    setWindowTitle(tr("For the player – Knot Count"));
    setMinimumSize(480, 300);
    resize(960, 600);
}

void PlayerWindow::setPicture(const NowPicture& picture, const QString& course) {
    if (picture == m_picture && course == m_course)
        return;
    m_picture = picture;
    m_course = course;
    setAccessibleDescription(QStringList{picture.caption, picture.name, picture.count}.join(QStringLiteral(". ")));
    update();
}

void PlayerWindow::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), colours().sheet);
    const double margin = std::min(width(), height()) * 0.08;
    paintNow(painter, m_picture, QRectF(rect()).adjusted(margin, margin, -margin, -margin));
    painter.setFont(typeface(size::strong));
    painter.setPen(colours().faint);
    painter.drawText(QPointF(margin, height() - margin * 0.4), m_course);
}

} // namespace knot::app
