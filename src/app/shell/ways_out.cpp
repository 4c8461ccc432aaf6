#include "app/shell/ways_out.h"

#include "app/plan_page/order_slip.h"
#include "app/report/report.h"
#include "app/session/earlier_tests.h"
#include "app/session/session.h"
#include "app/sheet_page/sheet_html.h"
#include "app/style/fonts.h"
#include "core/words/headline.h"
#include "core/words/message.h"
#include "files/base/error.h"
#include "files/base/file.h"

#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QImage>
#include <QPainter>
#include <QPrinter>
#include <QSvgGenerator>
#include <QTextDocument>
#include <QWidget>

namespace knot::app {
namespace {

// Twice as fine as the screen, so that it can be printed.
QImage imageOf(const QSize& size, const std::function<void(QPainter&)>& paint) {
    constexpr int fine = 2;
    QImage image(size * fine, QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    QPainter painter(&image);
    painter.scale(fine, fine);
    paint(painter);
    painter.end();
    return image;
}

bool savedAsSvg(const QString& path, const QSize& size, const std::function<void(QPainter&)>& paint) {
    QByteArray text;
    QBuffer buffer(&text);
    buffer.open(QIODevice::WriteOnly);
    QSvgGenerator generator;
    generator.setOutputDevice(&buffer);
    generator.setSize(size);
    generator.setViewBox(QRect({0, 0}, size));
    QPainter painter(&generator);
    paint(painter);
    painter.end();
    return files::writeFile(path.toStdString(), text.toStdString()).has_value();
}

} // namespace

WaysOut::WaysOut(Session& session, Prompter& prompter, QWidget* window)
    : QObject(window)
    , m_session(session)
    , m_prompter(prompter)
    , m_window(window) {}

void WaysOut::keep() {
    if (!m_session.hasTest() || (m_session.isKept() && !m_session.bay().hasUnsaved()))
        return;
    QString path = m_prompter.fileToSave(m_window, tr("Save to a logbook"), tr("My shots.knotbook"),
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
        m_prompter.fileToSave(m_window, tr("Export this test"), name,
                              tr("Shots (*.csv);;Whole test (*.json);;A logbook of its own (*.knotbook)"));
    if (!path.isEmpty() && m_session.exportShots(path))
        emit noted(tr("It is in %1.").arg(path));
}

void WaysOut::saveReport(const Report& report, QPageSize::PageSizeId paper) {
    const QString path =
        m_prompter.fileToSave(m_window, tr("Report"), tr("%1.pdf").arg(QString::fromStdString(m_session.test().title)),
                              tr("For paper (*.pdf);;For a screen (*.html)"));
    if (path.isEmpty())
        return;
    if (const QString whyNot = app::saveReport(report, paper, path); !whyNot.isEmpty())
        return emit complained(whyNot);
    emit noted(tr("The report is in %1.").arg(path));
}

void WaysOut::missReport() {
    if (!m_session.hasTest())
        emit complained(tr("A report is of a test: open one first."));
    else if (m_session.test().shots.empty())
        emit complained(tr("A report needs shots; nothing is struck yet."));
}

void WaysOut::copyAsText() {
    const judge::Reading* reading = m_session.judging().reading();
    if (const auto& laps = m_session.judging().withheld())
        return emit complained(QString::fromStdString(words::withheldSentences(*laps)));
    if (!m_session.hasTest() || reading == nullptr)
        return emit complained(tr("There is nothing read yet to copy."));
    QApplication::clipboard()->setText(
        QString::fromStdString(words::message(m_session.test(), *reading, m_session.book().units())));
    emit noted(tr("Copied as text."));
}

void WaysOut::copyPicture(const QSize& size, const std::function<void(QPainter&)>& paint) {
    if (size.isEmpty())
        return;
    QApplication::clipboard()->setImage(imageOf(size, paint));
    emit noted(tr("The picture is copied."));
}

void WaysOut::printSheet() {
    if (!m_session.hasTest())
        return;
    const record::Test& test = m_session.test();
    const QString path =
        m_prompter.fileToSave(m_window, tr("Print the test sheet"),
                              tr("%1, sheet.pdf").arg(QString::fromStdString(test.title)), tr("PDF (*.pdf)"));
    if (path.isEmpty())
        return;
    const auto takes = m_session.earlier().takesOf(test);
    if (const QString whyNot = OrderSlip::print(sheetHtml(test, takes, m_session.book().units()), path);
        !whyNot.isEmpty())
        emit complained(whyNot);
}

void WaysOut::printSlip(const QString& html) {
    QPrinter printer;
    printer.setDocName(tr("Order slip"));
    if (!m_prompter.choosePrinter(m_window, printer))
        return;
    QTextDocument document;
    document.setDefaultFont(typeface(10));
    document.setHtml(html);
    document.print(&printer);
    if (printer.printerState() == QPrinter::Error)
        emit complained(tr("The printer took nothing; write the words down, or save the slip as a file."));
}

void WaysOut::saveSlip(const QString& html) {
    const QString path =
        m_prompter.fileToSave(m_window, tr("Save the order slip"), tr("Order slip.pdf"), tr("PDF (*.pdf)"));
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

void WaysOut::savePicture(const QSize& size, const std::function<void(QPainter&)>& paint) {
    if (!m_session.hasTest() || size.isEmpty())
        return;
    const QString name = QString::fromStdString(m_session.test().title) + QStringLiteral(".svg");
    const QString path =
        m_prompter.fileToSave(m_window, tr("Save this picture"), name, tr("Drawing (*.svg);;Image (*.png)"));
    if (path.isEmpty())
        return;
    const bool saved = path.endsWith(QStringLiteral(".png"), Qt::CaseInsensitive)
                           ? imageOf(size, paint).save(path, "PNG")
                           : savedAsSvg(path, size, paint);
    if (saved)
        emit noted(tr("The picture is in %1.").arg(path));
    else
        emit complained(tr("%1 can't be written. Choose another folder, or free some space.").arg(path));
}

} // namespace knot::app
