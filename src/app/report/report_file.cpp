#include "app/picture/picture.h"
#include "app/report/paper.h"
#include "app/report/pdf_bookmarks.h"
#include "app/report/report.h"
#include "app/style/palette.h"
#include "files/base/file.h"

#include <QBuffer>
#include <QImage>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QRegularExpression>
#include <QSvgGenerator>

namespace knot::app {
namespace {

void paint(const Report::Drawn& drawn, QPainter& painter) {
    drawn.picture->layOut(QRectF(QPointF(0, 0), drawn.size));
    drawn.picture->paint(painter, std::nullopt);
}

// A drawing without what a page needs no namespace for, and of whatever size the page gives it.
QString undressed(QString text, const QString& opening) {
    text = text.mid(text.indexOf(QStringLiteral("<svg")));
    static const QRegularExpression dressing(
        QStringLiteral("<title>.*?</title>|<desc>.*?</desc>|\\s(xmlns(:\\w+)?|version|baseProfile)=\"[^\"]*\""),
        QRegularExpression::DotMatchesEverythingOption);
    text.remove(dressing);
    static const QRegularExpression sized(QStringLiteral("<svg width=\"[^\"]*\" height=\"[^\"]*\""));
    return text.replace(sized, opening);
}

// As a drawing whose words are words.
QString asSvg(const Report::Drawn& drawn) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QSvgGenerator generator;
    generator.setOutputDevice(&buffer);
    generator.setSize(drawn.size);
    generator.setViewBox(QRect({0, 0}, drawn.size));
    QPainter painter(&generator);
    paint(drawn, painter);
    painter.end();
    return undressed(QString::fromUtf8(bytes),
                     QStringLiteral("<svg role=\"img\" aria-label=\"%1\"").arg(drawn.finding.toHtmlEscaped()));
}

QString glyphSvg(judge::Verdict verdict) {
    constexpr int wide = 30, high = 18;
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QSvgGenerator generator;
    generator.setOutputDevice(&buffer);
    generator.setSize({wide, high});
    generator.setViewBox(QRect(0, 0, wide, high));
    QPainter painter(&generator);
    Report::drawGlyph(painter, QRectF(0, 0, wide, high), verdict);
    painter.end();
    return undressed(QString::fromUtf8(bytes), QStringLiteral("<svg class=\"glyph\" aria-hidden=\"true\""));
}

QString base64(const QImage& image) {
    QByteArray png;
    QBuffer buffer(&png);
    buffer.open(QIODevice::WriteOnly);
    if (!image.isNull())
        image.save(&buffer, "PNG");
    return QString::fromLatin1(png.toBase64());
}

const char* const style =
    "body{font:15px/1.45 Inter,system-ui,sans-serif;color:#1f2933;background:#fff;max-width:760px;"
    "margin:32px auto;padding:0 20px}"
    "h1{font-size:26px;margin:0 0 4px}h2{font-size:19px;margin:28px 0 6px}h3{font-size:15px;"
    "margin:18px 0 4px}"
    "table{border-collapse:collapse;font-variant-numeric:tabular-nums}"
    "th{text-align:left;font-weight:600}td,th{border-bottom:1px solid #ddd5c5;padding:3px 8px}"
    "svg{width:100%;height:auto;background:#fff;border-radius:4px}"
    ".glyph{width:30px;height:18px;background:none;vertical-align:middle;margin-right:8px}"
    ".mark{max-height:56px;max-width:100%}.shop{color:#6b7280;font-size:13px}pre{white-space:pre-wrap}"
    "@media (prefers-color-scheme:dark){body{color:#e8e4da;background:#1b1d1f}td,th{border-color:#444}}"
    "@media print{body{margin:0;max-width:none;color:#000;background:#fff}.page{break-before:page}"
    "h2,h3{break-after:avoid}table,svg{break-inside:avoid}}";

} // namespace

QString reportHtml(const Report& report) {
    const OnPaper paper;
    QString body = report.body;
    for (std::size_t i = 0; i < report.pictures.size(); ++i) {
        const QRegularExpression place(QStringLiteral("<img src=\"picture:%1\"[^>]*>").arg(i));
        const auto at = place.match(body);
        if (at.hasMatch())
            body.replace(at.capturedStart(), at.capturedLength(), asSvg(report.pictures[i]));
    }
    static const QRegularExpression glyph(QStringLiteral("<img src=\"(verdict:\\d)\"[^>]*>"));
    for (auto at = glyph.match(body); at.hasMatch(); at = glyph.match(body))
        body.replace(at.capturedStart(), at.capturedLength(), glyphSvg(*Report::verdictOf(at.captured(1))));
    body.replace(QStringLiteral("<img src=\"mark:\""),
                 QStringLiteral("<img class=\"mark\" src=\"data:image/png;base64,%1\"").arg(base64(report.mark)));
    return QStringLiteral(
               "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n"
               "<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">\n<title>%1</title>\n"
               "<style>%2</style>\n</head>\n<body>\n<main>\n%3</main>\n</body>\n</html>\n")
        .arg(report.title.toHtmlEscaped(), QLatin1String(style), body);
}

QByteArray reportPdf(const Report& report, QPageSize::PageSizeId size) {
    const Paper paper(report, size);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(size));
    writer.setPageMargins(QMarginsF());
    writer.setResolution(Paper::dotsPerInch);
    writer.setTitle(report.title);
    writer.setCreator(QStringLiteral("Knot Count"));
    QPainter painter(&writer);
    for (int sheet = 0; sheet < paper.sheets(); ++sheet) {
        if (sheet > 0)
            writer.newPage();
        paper.paint(painter, sheet);
    }
    painter.end();
    std::vector<Bookmark> bookmarks;
    for (const Paper::Heading& heading : paper.headings())
        bookmarks.push_back({heading.level, heading.text, heading.sheet, heading.top / paper.sheet().height()});
    return withBookmarks(bytes, bookmarks, "en");
}

QString saveReport(const Report& report, QPageSize::PageSizeId paper, const QString& path) {
    const bool isHtml = path.endsWith(QStringLiteral(".html"), Qt::CaseInsensitive) ||
                        path.endsWith(QStringLiteral(".htm"), Qt::CaseInsensitive);
    const QByteArray bytes = isHtml ? reportHtml(report).toUtf8() : reportPdf(report, paper);
    const auto written = files::writeFile(path.toStdString(), bytes.toStdString());
    return written ? QString() : QString::fromStdString(files::sentence(written.error()));
}

} // namespace knot::app
