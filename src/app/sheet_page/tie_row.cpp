#include "app/sheet_page/tie_row.h"

#include "app/form/typed.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"

#include <QHBoxLayout>
#include <QLineEdit>
#include <QPainter>

namespace knot::app {
namespace {

constexpr int cordWidth = 34, tieHeight = 24;

} // namespace

void TieBox::setState(rack::Tie::State state) {
    m_state = state;
    using State = rack::Tie::State;
    setAccessibleDescription(state == State::differs  ? tr("the clubs differ in it")
                             : state == State::factor ? tr("comes with what is tested")
                             : state == State::same   ? tr("the same on all clubs")
                                                      : QString());
    update();
}

QSize TieBox::sizeHint() const {
    return {cordWidth + 8 + fontMetrics().horizontalAdvance(text()) + 6, tieHeight};
}

void TieBox::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    if (hasFocus())
        painter.fillRect(rect(), c.selection);
    const double y = height() / 2.0;
    const bool comes = m_state == rack::Tie::State::factor;
    const bool slips = !isChecked() || m_state == rack::Tie::State::differs;
    const QColor colour = comes ? c.faint : slips ? c.alarm : c.cord;
    painter.setPen(QPen(colour, 2, comes ? Qt::DotLine : Qt::SolidLine, Qt::RoundCap));
    if (slips && !comes) { // a frayed end
        painter.drawLine(QPointF(4, y), QPointF(18, y));
        for (const double spread : {-6.0, 0.0, 6.0})
            painter.drawLine(QPointF(18, y), QPointF(30, y + spread));
    } else {
        painter.drawLine(QPointF(4, y), QPointF(30, y));
        if (!comes)
            drawKnot(painter, {17, y}, 6, m_state == rack::Tie::State::same ? c.cord : c.faint);
    }
    painter.setFont(font());
    painter.setPen(slips && !comes ? c.alarm : c.ink);
    painter.drawText(QRectF(cordWidth + 6, 0, width() - cordWidth - 6, height()), Qt::AlignVCenter, text());
}

TieRow::TieRow(std::size_t at)
    : m_box(new TieBox)
    , m_slip(new QLineEdit) {
    m_box->setObjectName(QStringLiteral("held%1").arg(at));
    m_slip->setObjectName(QStringLiteral("slip%1").arg(at));
    m_slip->setFrame(false);
    m_slip->setStyleSheet(QStringLiteral("QLineEdit{background:transparent;border:none;padding:0 2px}"
                                         "QLineEdit:focus{border-bottom:1px solid %1}")
                              .arg(colours().cord.name()));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(6);
    row->addWidget(m_box, 4);
    row->addWidget(m_slip, 6);
    connect(m_box, &QCheckBox::clicked, this, &TieRow::heldChanged);
    Typed::in(m_slip, [this](const QString& typed) { emit slipTyped(typed); });
}

void TieRow::display(const record::Held& held, const rack::Tie& tie, const QString& hint) {
    QString what = QString::fromStdString(held.what);
    if (what.startsWith(QLatin1String("the same ")))
        what = what.mid(9);
    m_box->setText(what);
    m_box->setAccessibleName(QString::fromStdString(held.what));
    m_box->setChecked(held.held);
    m_box->setState(tie.state);
    const QString known = QString::fromStdString(tie.text);
    const bool comes = tie.state == rack::Tie::State::factor;
    m_slip->setPlaceholderText(!held.held        ? tr("how it slipped")
                               : known.isEmpty() ? QString()
                               : comes           ? tr("comes with it: %1").arg(known)
                                                 : known);
    m_slip->setToolTip((known.isEmpty() ? hint : known).toHtmlEscaped());
    m_slip->setAccessibleName(tr("How “%1” slipped").arg(QString::fromStdString(held.what)));
    m_slip->setAccessibleDescription(known);
    if (!m_slip->hasFocus()) {
        m_slip->setText(QString::fromStdString(held.slip));
        m_slip->setCursorPosition(0);
    }
}

} // namespace knot::app
