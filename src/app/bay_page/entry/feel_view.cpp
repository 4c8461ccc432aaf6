#include "app/bay_page/entry/feel_view.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollArea>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

constexpr int scaleHeight = 36, dots = 10;
constexpr double dotRadius = 6;

struct Ends {
    const char *low, *high;
};
constexpr std::array<Ends, record::feelScaleCount> ends = {
    {{QT_TRANSLATE_NOOP("FeelView", "dead"), QT_TRANSLATE_NOOP("FeelView", "alive")},
     {QT_TRANSLATE_NOOP("FeelView", "weight in the hands"), QT_TRANSLATE_NOOP("FeelView", "in the head")},
     {QT_TRANSLATE_NOOP("FeelView", "soft"), QT_TRANSLATE_NOOP("FeelView", "harsh")},
     {QT_TRANSLATE_NOOP("FeelView", "no control"), QT_TRANSLATE_NOOP("FeelView", "full control")},
     {QT_TRANSLATE_NOOP("FeelView", "looks wrong"), QT_TRANSLATE_NOOP("FeelView", "looks right")},
     {QT_TRANSLATE_NOOP("FeelView", "no trust"), QT_TRANSLATE_NOOP("FeelView", "full trust")},
     {QT_TRANSLATE_NOOP("FeelView", "sounds wrong"), QT_TRANSLATE_NOOP("FeelView", "sounds right")},
     {QT_TRANSLATE_NOOP("FeelView", "swings by itself"), QT_TRANSLATE_NOOP("FeelView", "hard work")},
     {QT_TRANSLATE_NOOP("FeelView", "no discomfort"), QT_TRANSLATE_NOOP("FeelView", "it hurts")}}};

} // namespace

FeelView::FeelView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("feel"));
    setAccessibleName(tr("How it felt"));
    setFocusPolicy(Qt::StrongFocus);
}

void FeelView::setScores(const std::array<int, record::feelScaleCount>& scores) {
    m_scores = scores;
    QString spoken;
    for (std::size_t i = 0; i < ends.size(); ++i)
        spoken +=
            tr("%1 to %2: %3. ")
                .arg(tr(ends[i].low), tr(ends[i].high), scores[i] > 0 ? QString::number(scores[i]) : tr("not said"));
    setAccessibleDescription(spoken);
    update();
}

QSize FeelView::sizeHint() const {
    return {260, scaleHeight * static_cast<int>(record::feelScaleCount)};
}

double FeelView::dotX(int dot) const {
    const double step = std::min(34.0, (width() - 4 * dotRadius) / (dots - 1));
    return 2 * dotRadius + dot * step;
}

void FeelView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    for (std::size_t row = 0; row < m_scores.size(); ++row) {
        const double top = static_cast<double>(row) * scaleHeight;
        const bool current = hasFocus() && row == m_scale;
        if (current) {
            painter.setPen(Qt::NoPen);
            painter.setBrush(colours().selection);
            painter.drawRoundedRect(QRectF(0, top, width(), scaleHeight - 4), 4, 4);
        }
        painter.setFont(typeface(size::caption));
        painter.setPen(current ? colours().ink : colours().faint);
        painter.drawText(QPointF(dotRadius, top + 12), tr(ends[row].low));
        painter.drawText(QRectF(0, top, dotX(dots - 1) + dotRadius, 17), Qt::AlignRight | Qt::AlignVCenter,
                         tr(ends[row].high));
        for (int dot = 0; dot < dots; ++dot) {
            painter.setPen(QPen(colours().cord, 1.2));
            painter.setBrush(dot < m_scores[row] ? colours().cord : colours().sheet);
            painter.drawEllipse(QPointF(dotX(dot), top + 23), dotRadius, dotRadius);
        }
    }
}

void FeelView::say(int score) {
    emit scored(m_scale, std::clamp(score, 0, dots));
}

void FeelView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    m_scale = std::min<std::size_t>(static_cast<std::size_t>(event->position().y() / scaleHeight), m_scores.size() - 1);
    const double step = dotX(1) - dotX(0);
    const int dot = static_cast<int>(std::floor((event->position().x() - dotX(0)) / step + 0.5));
    if (dot >= 0 && dot < dots)
        say(dot + 1);
    update();
}

void FeelView::keyPressEvent(QKeyEvent* event) {
    const int key = event->key();
    const int now = m_scores[m_scale];
    if (key >= Qt::Key_1 && key <= Qt::Key_9)
        say(key - Qt::Key_0);
    else if (key == Qt::Key_0)
        say(dots);
    else if (key == Qt::Key_Left)
        say(now - 1);
    else if (key == Qt::Key_Right)
        say(now + 1);
    else if (key == Qt::Key_Backspace || key == Qt::Key_Delete)
        say(0);
    else if (key == Qt::Key_Up)
        m_scale = m_scale == 0 ? m_scores.size() - 1 : m_scale - 1;
    else if (key == Qt::Key_Down)
        m_scale = (m_scale + 1) % m_scores.size();
    else if (key == Qt::Key_Return || key == Qt::Key_Enter || key == Qt::Key_F)
        emit left();
    else
        return QWidget::keyPressEvent(event);
    if (auto* area = qobject_cast<QScrollArea*>(parentWidget()->parentWidget()))
        area->ensureVisible(0, static_cast<int>(m_scale) * scaleHeight + scaleHeight / 2, 0, scaleHeight);
    update();
}

} // namespace knot::app
