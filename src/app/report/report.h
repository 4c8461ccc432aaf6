#pragma once

#include "core/judge/case.h"
#include "core/judge/reading.h"
#include "core/record/units.h"

#include <QImage>
#include <QPageSize>
#include <QSize>
#include <QString>

#include <memory>
#include <optional>
#include <vector>

class QPainter;

namespace knot::app {

class Picture;

/// How a report looks for whoever hands it over; kept in the settings of the program.
struct ReportLook {
    QString shop = {};     ///< name and address, a line each
    QImage mark = {};      ///< the shop's, over its name
    bool appendix = false; ///< every verdict's arithmetic, the schedule, set-asides, amendments, the seal
    QPageSize::PageSizeId paper = QPageSize::A4;

    /// As it was kept; paper at first as the system's locale has it.
    static ReportLook kept();
    void keep() const;
};

/// What a report is made of.
struct Reported {
    const record::Test& test;
    const judge::Case& subject;
    const judge::Reading& reading;
    record::DisplayUnits units;
    ReportLook look = {};
};

/// A report laid down once: its text as HTML, with a place for each picture, and the pictures.
struct Report {
    QString title;
    QImage mark;  ///< stands in the body as <img src="mark:">
    QString body; ///< pictures stand in it as <img src="picture:N">
    struct Drawn {
        QString name, finding; ///< "Landing", and what it shows in words
        std::shared_ptr<Picture> picture;
        QSize size; ///< logical pixels
    };
    std::vector<Drawn> pictures;
    /// A verdict's glyph stands in the body as <img src="verdict:N">.
    static std::optional<judge::Verdict> verdictOf(const QString& source);
    static void drawGlyph(QPainter& painter, const QRectF& box, judge::Verdict verdict);
};

/// Page 1 for the player: what to do in one line, why in two, one picture, what was asked and found, how it was done,
/// what was expected and said. Page 2 numbers and pictures, all findings and bets; page 3 for the builder where a club
/// was chosen. While the seal is closed it speaks in tags. All that was typed is escaped.
Report reportOf(const Reported& reported);

/// One file that needs nothing from outside: headings, alternative texts, a style for paper and a dark one.
QString reportHtml(const Report& report);

/// On paper: text is text, pictures are drawings, fonts are embedded, headings are bookmarks.
QByteArray reportPdf(const Report& report, QPageSize::PageSizeId paper);

/// Into a file, by the end of its name: .html or .htm, else PDF. Gives back why not, or nothing.
QString saveReport(const Report& report, QPageSize::PageSizeId paper, const QString& path);

} // namespace knot::app
