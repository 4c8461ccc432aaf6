#include "app/import_page/struck_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "core/words/struck.h"

#include <QAccessible>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

constexpr double nameWidth = 92;

} // namespace

StruckView::StruckView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("struckView"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("What was hit, in the order struck"));
}

void StruckView::setTest(const files::ImportedTest& imported, std::vector<Out> out) {
    const record::Test& test = imported.test;
    m_parts = imported.parts;
    m_runs.clear();
    m_counted.clear();
    m_names.clear();
    for (const auto& build : test.builds)
        m_names << QString::fromStdString(build.name);
    for (const auto& run : words::runsOf(test)) {
        m_runs.push_back({run.first, run.count, run.build});
        for (const auto& part : m_parts) // a run ends with its sheet
            if (Run& last = m_runs.back(); part.begin > last.first && part.begin < run.first + run.count) {
                last.count = part.begin - last.first;
                m_runs.push_back({part.begin, run.first + run.count - part.begin, run.build});
            }
    }
    for (const auto& shot : test.shots)
        m_counted.push_back(shot.status == record::ShotStatus::counted);
    m_out = std::move(out);
    m_out.resize(m_counted.size());
    if (m_run >= m_runs.size()) {
        m_run = 0;
        m_inHand.reset();
    }
    if (m_inHand && (m_runs.empty() || *m_inHand >= m_runs[m_run].count))
        m_inHand.reset();
    layOut();
    speak();
    update();
}

void StruckView::layOut() {
    std::vector<std::size_t> counts;
    for (const Run& run : m_runs)
        counts.push_back(run.count);
    m_layout = picture::layoutRuns(counts, width() - 8, height() - 18, nameWidth);
}

void StruckView::resizeEvent(QResizeEvent*) {
    layOut();
}

void StruckView::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    speak();
    update();
}

void StruckView::focusOutEvent(QFocusEvent* event) {
    QWidget::focusOutEvent(event);
    emit inHandChanged();
    update();
}

bool StruckView::isAllOut(const Run& run) const {
    return std::all_of(m_out.begin() + static_cast<std::ptrdiff_t>(run.first),
                       m_out.begin() + static_cast<std::ptrdiff_t>(run.first + run.count),
                       [](Out out) { return out != Out::no; });
}

// For who looks, and for a screen reader.
void StruckView::speak() {
    setAccessibleDescription(inHand());
    emit inHandChanged();
}

QString StruckView::inHand() const {
    if (m_runs.empty())
        return {};
    const Run& run = m_runs[m_run];
    const QString name = m_names.value(static_cast<qsizetype>(run.build));
    const bool isOut = m_inHand ? m_out[run.first + *m_inHand] != Out::no : isAllOut(run);
    QString said = m_inHand ? tr("%1, shot %2 of %3").arg(name).arg(*m_inHand + 1).arg(run.count)
                            : tr("%1, run %2 of %3").arg(name).arg(m_run + 1).arg(m_runs.size());
    const auto part = std::ranges::find_if(m_parts.rbegin(), m_parts.rend(),
                                           [&](const auto& each) { return each.begin <= run.first; });
    if (part != m_parts.rend())
        said += tr(", in “%1”").arg(QString::fromStdString(part->name));
    if (m_out[run.first] == Out::withPart)
        return said + tr(", left out with all of it. Delete brings it back.");
    said += isOut ? tr(", left out. Delete brings it back.") : tr(". Delete leaves it out.");
    if (part != m_parts.rend())
        said += tr(" Shift+Delete: all of “%1”.").arg(QString::fromStdString(part->name));
    return said;
}

void StruckView::keyPressEvent(QKeyEvent* event) {
    const bool isOfPart = event->modifiers() == Qt::ShiftModifier && event->key() == Qt::Key_Delete && !m_parts.empty();
    if (m_runs.empty() || (event->modifiers() != Qt::NoModifier && !isOfPart))
        return QWidget::keyPressEvent(event);
    const Run& run = m_runs[m_run];
    if (isOfPart)
        return emit partToggled(run.first);
    switch (event->key()) {
    case Qt::Key_Up:
    case Qt::Key_Down:
        if (event->key() == Qt::Key_Up ? m_run > 0 : m_run + 1 < m_runs.size()) {
            m_run += event->key() == Qt::Key_Up ? -1 : 1;
            m_inHand.reset();
        }
        break;
    case Qt::Key_Right:
        m_inHand = m_inHand ? std::min(*m_inHand + 1, run.count - 1) : 0;
        break;
    case Qt::Key_Left:
        m_inHand = m_inHand && *m_inHand > 0 ? std::optional(*m_inHand - 1) : std::nullopt;
        break;
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
        if (m_out[run.first] == Out::withPart)
            emit partToggled(run.first);
        else if (m_inHand)
            emit shotToggled(run.first + *m_inHand);
        else
            emit clubToggled(m_names.value(static_cast<qsizetype>(run.build)).toStdString());
        break;
    default:
        return QWidget::keyPressEvent(event);
    }
    speak();
    update();
}

// The nearest shot, or the run where the pointer is on its tag.
void StruckView::mousePressEvent(QMouseEvent* event) {
    constexpr double near = 9;
    const QPointF at = event->position();
    for (const auto& placed : m_layout.runs) {
        if (std::fabs(at.y() - placed.y) > near || at.x() < placed.tagX || at.x() > placed.right + near)
            continue;
        m_run = placed.run;
        m_inHand.reset();
        for (std::size_t i = 0; i < placed.knots.size(); ++i)
            if (std::fabs(at.x() - placed.knots[i]) < near)
                m_inHand = i;
        speak();
        update();
    }
    setFocus(Qt::MouseFocusReason);
}

void StruckView::paintRun(QPainter& painter, const picture::PlacedRun& placed) const {
    const Run& run = m_runs[placed.run];
    const bool isOut = isAllOut(run);
    const bool isInHand = hasFocus() && placed.run == m_run;
    const QColor colour = isOut ? colours().faint : tagColour(run.build);
    if (isInHand && !m_inHand) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(colours().selection);
        painter.drawRoundedRect(QRectF(placed.tagX - 4, placed.y - 11, placed.right - placed.tagX + 14, 22), 4, 4);
    }
    drawTag(painter, QRectF(placed.tagX, placed.y - 5, 10, 10), run.build);
    if (m_layout.hasNames) {
        QFont font = typeface(size::caption);
        font.setStrikeOut(isOut);
        painter.setFont(font);
        painter.setPen(isOut ? colours().faint : colours().ink);
        painter.drawText(QRectF(placed.tagX + 18, placed.y - 10, nameWidth - 4, 20), Qt::AlignVCenter,
                         painter.fontMetrics().elidedText(m_names.value(static_cast<qsizetype>(run.build)),
                                                          Qt::ElideRight, static_cast<int>(nameWidth) - 4));
    }
    painter.setPen(QPen(colour, 1.6, isOut ? Qt::DashLine : Qt::SolidLine));
    painter.drawLine(QPointF(placed.left, placed.y), QPointF(placed.right, placed.y));
    for (std::size_t i = 0; i < placed.knots.size(); ++i) {
        const QPointF at(placed.knots[i], placed.y);
        const double radius = m_layout.knotRadius;
        if (isInHand && m_inHand == i) {
            painter.setPen(QPen(colours().ink, 1.6));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(at, radius + 3, radius + 3);
        }
        if (m_out[run.first + i] != Out::no) { // untied, and struck through
            painter.setPen(QPen(colours().faint, 1.2));
            painter.setBrush(colours().sheet);
            painter.drawEllipse(at, radius, radius);
            painter.drawLine(at + QPointF(-radius, radius), at + QPointF(radius, -radius));
        } else if (m_counted[run.first + i]) {
            drawKnot(painter, at, radius, colour);
        } else {
            painter.setPen(QPen(colour, 1.2));
            painter.setBrush(colours().sheet);
            painter.drawEllipse(at, radius, radius);
        }
    }
}

void StruckView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    for (const auto& placed : m_layout.runs)
        paintRun(painter, placed);
    if (m_layout.leftOut > 0) {
        painter.setFont(typeface(size::caption));
        painter.setPen(colours().faint);
        painter.drawText(rect(), Qt::AlignLeft | Qt::AlignBottom, tr("and %1 more runs").arg(m_layout.leftOut));
    }
}

} // namespace knot::app
