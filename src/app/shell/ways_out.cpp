#include "app/shell/ways_out.h"

#include "app/plan_page/order_slip.h"
#include "app/session/session.h"
#include "files/error.h"
#include "files/file.h"

#include <QWidget>

namespace knot::app {

WaysOut::WaysOut(Session& session, Prompter& prompter, QWidget* window)
    : QObject(window)
    , m_session(session)
    , m_prompter(prompter)
    , m_window(window) {}

void WaysOut::keep() {
    if (!m_session.hasTest() || (m_session.isKept() && !m_session.bay().hasUnsaved()))
        return;
    QString path = m_prompter.fileToSave(m_window, tr("Keep in a logbook"), tr("My shots.knotbook"),
                                         tr("Knot Count logbook (*.knotbook)"), Prompter::Existing::add);
    if (path.isEmpty())
        return;
    if (!path.endsWith(QStringLiteral(".knotbook"), Qt::CaseInsensitive))
        path += QStringLiteral(".knotbook");
    emit cleared();
    m_session.keepIn(path);
}

void WaysOut::exportTest() {
    if (!m_session.hasTest())
        return;
    const QString name = QString::fromStdString(m_session.test().title) + QStringLiteral(".csv");
    const QString path =
        m_prompter.fileToSave(m_window, tr("Export this test"), name, tr("Shots (*.csv);;Whole test (*.json)"));
    if (!path.isEmpty())
        m_session.exportShots(path);
}

void WaysOut::printSlip(const QString& html) {
    QString path = m_prompter.fileToSave(m_window, tr("Print the order slip"), tr("Order slip.pdf"), tr("PDF (*.pdf)"));
    if (path.isEmpty())
        return;
    if (const QString whyNot = OrderSlip::print(html, path); !whyNot.isEmpty())
        emit complained(whyNot);
}

void WaysOut::saveText(const QString& text) {
    const QString path =
        m_prompter.fileToSave(m_window, tr("Save the sealed text"), tr("Sealed text.txt"), tr("Text (*.txt)"));
    if (path.isEmpty())
        return;
    const auto written = files::writeFile(path.toStdString(), text.toStdString());
    if (written)
        emit noted(tr("Saved to the letter: sha256sum of %1 gives the published hash.").arg(path));
    else
        emit complained(QString::fromStdString(files::sentence(written.error())));
}

} // namespace knot::app
