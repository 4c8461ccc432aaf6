#include "app/plan_page/futures_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"

#include <QPainter>

#include <algorithm>
#include <array>

namespace knot::app {

InHundred inHundred(const plan::Futures& futures) {
    const int proved = qRound(100 * futures.proved);
    const int rightly = qRound(100 * (futures.proved + futures.chosen));
    return {.proved = proved, .chosen = std::max(0, rightly - proved), .wrong = 100 - std::max(rightly, proved)};
}

FuturesView::FuturesView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("futures"));
    setMinimumHeight(200);
}

void FuturesView::setFutures(const plan::Futures& futures) {
    const InHundred all = inHundred(futures);
    m_all = all;
    setAccessibleName(tr("A hundred futures: %1 proved, %2 chosen rightly without proof, %3 another one taken")
                          .arg(all.proved)
                          .arg(all.chosen)
                          .arg(all.wrong));
    update();
}

void FuturesView::setLeft(const QString& left) {
    m_left = left;
    update();
}

void FuturesView::paintEvent(QPaintEvent* /*event*/) {
    constexpr int across = 10, all = 100;
    constexpr double widest = 36, highest = 26, line = 21;
    QPainter painter(this);
    const double room = height() - 3 * line - size::grid;
    const double wide = std::min(widest, static_cast<double>(width()) / across);
    const double high = std::min(highest, room / across);
    const double half = std::min(0.32 * wide, 0.42 * high);
    auto glyph = [&](QPointF centre, judge::Verdict verdict) {
        drawVerdict(painter, QRectF(centre - QPointF(half, half), QSizeF(2 * half, 2 * half)), verdict, colours().cord);
    };
    using judge::Verdict;
    for (int i = 0; i < all; ++i)
        glyph({(i % across + 0.5) * wide, (i / across + 0.5) * high}, i < m_all.proved ? Verdict::real
                                                                      : i < m_all.proved + m_all.chosen
                                                                          ? Verdict::open
                                                                          : Verdict::uncontrolled);
    const std::array lines = {
        std::pair{Verdict::real, tr("%1 proved").arg(m_all.proved)},
        std::pair{Verdict::open, tr("%1 chosen rightly, without proof").arg(m_all.chosen)},
        std::pair{Verdict::uncontrolled, tr("%1 another is taken%2").arg(m_all.wrong).arg(m_left)}};
    double y = across * high + size::grid + line / 2;
    for (const auto& [verdict, text] : lines) {
        glyph({0.5 * wide, y}, verdict);
        painter.setFont(typeface(size::body, verdict == Verdict::real ? QFont::DemiBold : QFont::Normal));
        painter.setPen(colours().ink);
        painter.drawText(QPointF(1.1 * wide, y + painter.fontMetrics().ascent() / 2.0 - 1), text);
        y += line;
    }
}

} // namespace knot::app
