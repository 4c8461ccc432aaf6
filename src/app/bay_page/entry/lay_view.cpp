#include "app/bay_page/entry/lay_view.h"

#include "app/bay_page/bay_words.h"
#include "app/form/panel.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"

#include <QKeyEvent>
#include <QListWidget>
#include <QVBoxLayout>

namespace knot::app {

LayView::LayView(QWidget* parent)
    : QWidget(parent)
    , m_heading(headingLabel({}))
    , m_totals(plainLabel())
    , m_lines(new QListWidget) {
    setObjectName(QStringLiteral("layView"));
    m_totals->setObjectName(QStringLiteral("layTotals"));
    m_lines->setObjectName(QStringLiteral("layLines"));
    m_lines->setAccessibleName(tr("Shots of the file on the planned order"));
    m_lines->setFont(typeface(size::body));
    m_lines->setUniformItemSizes(true);
    m_lines->installEventFilter(this);
    QVBoxLayout* column = nullptr;
    auto* panel = headedPanel({}, column);
    column->addWidget(m_heading);
    column->addWidget(m_totals);
    column->addWidget(m_lines, 1);
    column->addWidget(captionLabel(
        "layKeys",
        tr("G a read was missed here · Backspace take the gap away · X not of this test, or of it after all · "
           "Enter keep it so · Escape leave it")));
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(panel);
}

void LayView::layShots(const record::Test& test, const QString& file, std::vector<record::Shot> shots,
                       const record::DisplayUnits& units) {
    m_units = units;
    m_test = test;
    m_test.shots.clear();
    m_laying.emplace(test.plan, test.turns, std::move(shots));
    m_heading->setText(tr("%1 on the planned order").arg(file));
    m_lines->setCurrentRow(-1);
    refresh();
    m_lines->setCurrentRow(0);
    emit laid(m_test.id);
}

void LayView::takeFocus() {
    m_lines->setFocus();
}

QString LayView::lineText(std::size_t at) const {
    const auto& line = m_laying->lines()[at];
    QString place = tr("beyond the plan");
    if (line.leftOut)
        place = tr("not of this test");
    else if (line.slot) {
        const auto& slot = m_laying->places()[*line.slot];
        const auto& turn = m_test.turns[slot.turn];
        place =
            tr("lap %1 · %2 %3 of %4").arg(turn.round).arg(nameOf(m_test, turn.build)).arg(slot.shot).arg(turn.shots);
    }
    if (!line.shot)
        return place + QStringLiteral("\t") + tr("– missed read –");
    const record::Shot& shot = m_laying->shots()[*line.shot];
    QStringList numbers;
    for (const auto metric : firstMetrics(m_test.card))
        if (const auto value = shot.readings.at(metric))
            numbers << QString::fromStdString(record::MetricFormat(metric, m_units).withUnit(*value));
    return place + QStringLiteral("\t") +
           QString::fromStdString(shot.takenAt.text()).section(QLatin1Char('T'), 1).left(8) + QStringLiteral("\t") +
           numbers.join(QStringLiteral(", "));
}

void LayView::refresh() {
    const int row = m_lines->currentRow();
    m_lines->clear();
    for (std::size_t i = 0; i < m_laying->lines().size(); ++i) {
        const QStringList parts = lineText(i).split(QLatin1Char('\t'));
        auto* item = new QListWidgetItem(parts.join(QStringLiteral("   ·   ")));
        if (m_laying->lines()[i].leftOut || !m_laying->lines()[i].slot)
            item->setForeground(colours().faint);
        m_lines->addItem(item);
    }
    m_lines->setCurrentRow(std::clamp(row, 0, std::max(0, m_lines->count() - 1)));
    const auto totals = m_laying->totals();
    QStringList parts{tr("%1 planned").arg(totals.planned), tr("%1 matched").arg(totals.laid)};
    if (totals.gaps > 0)
        parts << tr("%1 missed").arg(totals.gaps);
    if (totals.leftOut > 0)
        parts << tr("%1 not of this test").arg(totals.leftOut);
    if (totals.empty > 0)
        parts << tr("%1 not struck").arg(totals.empty);
    if (totals.beyond > 0)
        parts << tr("%1 too many: something does not fit").arg(totals.beyond);
    else if (totals.empty == 0)
        parts << tr("it fits");
    m_totals->setText(parts.join(QStringLiteral(" · ")));
}

bool LayView::act(int key) {
    if (!m_laying)
        return false;
    const auto line = static_cast<std::size_t>(std::max(0, m_lines->currentRow()));
    switch (key) {
    case Qt::Key_G:
        m_laying->addGap(line);
        break;
    case Qt::Key_Backspace:
    case Qt::Key_Delete:
        m_laying->removeGap(line);
        break;
    case Qt::Key_X:
        m_laying->toggle(line);
        break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        emit accepted(*m_laying);
        return true;
    case Qt::Key_Escape:
        emit left();
        return true;
    default:
        return false;
    }
    refresh();
    return true;
}

void LayView::keyPressEvent(QKeyEvent* event) {
    if (!act(event->key()))
        QWidget::keyPressEvent(event);
}

bool LayView::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        event->accept(); // before the window's own
        return true;
    }
    if (event->type() == QEvent::KeyPress && act(static_cast<QKeyEvent*>(event)->key()))
        return true;
    return QWidget::eventFilter(watched, event);
}

} // namespace knot::app
