#include "app/report/paper.h"

#include "app/picture/picture.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QAbstractTextDocumentLayout>
#include <QPainter>
#include <QTextBlock>
#include <QTextCursor>
#include <QTextDocument>
#include <QTextObjectInterface>
#include <QTextTable>

#include <algorithm>
#include <array>
#include <cmath>

namespace knot::app {
namespace {

constexpr double dotsPerPixel = Paper::dotsPerInch / 96.0;
constexpr double sideMargin = 16 / 25.4 * Paper::dotsPerInch;
constexpr double endMargin = 14 / 25.4 * Paper::dotsPerInch;
constexpr double markHeight = 14 / 25.4 * Paper::dotsPerInch;
constexpr double glyphWide = 26; // pixels
constexpr double scarcely = 0.2; // of a sheet: not worth one of its own

QFont inDots(int pixels, double shrink) {
    QFont font = typeface(pixels);
    font.setPixelSize(std::max(1, static_cast<int>(std::lround(pixels * dotsPerPixel * shrink))));
    font.setHintingPreference(QFont::PreferNoHinting);
    return font;
}

// The report's pictures, drawn where the text has a place for them.
class Drawings : public QObject, public QTextObjectInterface {
    Q_OBJECT
    Q_INTERFACES(QTextObjectInterface)

public:
    Drawings(const Report& report, double width, double shrink)
        : m_report(report)
        , m_width(width)
        , m_shrink(shrink) {}

    QSizeF intrinsicSize(QTextDocument* /*document*/, int /*at*/, const QTextFormat& format) override {
        if (isMark(format))
            return m_report.mark.size().scaled(static_cast<int>(m_width), static_cast<int>(markHeight),
                                               Qt::KeepAspectRatio);
        if (const auto verdict = Report::verdictOf(format.toImageFormat().name()))
            return QSizeF(glyphWide, glyphWide * 0.6) * dotsPerPixel * m_shrink;
        const Report::Drawn* drawn = drawnAt(format);
        if (drawn == nullptr)
            return {};
        return QSizeF(m_width, m_shrink * m_width * drawn->size.height() / drawn->size.width());
    }

    void drawObject(QPainter* painter, const QRectF& rect, QTextDocument* /*document*/, int /*at*/,
                    const QTextFormat& format) override {
        if (isMark(format))
            return painter->drawImage(rect, m_report.mark);
        if (const auto verdict = Report::verdictOf(format.toImageFormat().name()))
            return Report::drawGlyph(*painter, rect, *verdict);
        const Report::Drawn* drawn = drawnAt(format);
        if (drawn == nullptr)
            return;
        const double scale = m_shrink * m_width / drawn->size.width();
        painter->save();
        painter->translate(rect.topLeft());
        painter->scale(scale, scale);
        painter->setRenderHint(QPainter::Antialiasing);
        drawn->picture->layOut(QRectF(0, 0, drawn->size.width() / m_shrink, drawn->size.height()));
        drawn->picture->paint(*painter, std::nullopt);
        painter->restore();
    }

private:
    static bool isMark(const QTextFormat& format) {
        return format.toImageFormat().name().startsWith(QStringLiteral("mark:"));
    }
    const Report::Drawn* drawnAt(const QTextFormat& format) const {
        bool isNumber = false;
        const auto at = format.toImageFormat().name().section(u':', 1).toULongLong(&isNumber);
        return isNumber && at < m_report.pictures.size() ? &m_report.pictures[at] : nullptr;
    }

    const Report& m_report;
    double m_width, m_shrink;
};

} // namespace

Paper::Paper(const Report& report, QPageSize::PageSizeId size)
    : m_report(report)
    , m_sheet(QPageSize(size).sizePixels(dotsPerInch)) {
    m_room = (QSizeF(m_sheet) - QSizeF(2 * sideMargin, 2 * endMargin)).toSize();
    constexpr std::array shrinks = {1.0, 0.97, 0.94, 0.91, 0.88};
    double best = shrinks.front();
    double most = -1;
    for (const double shrink : shrinks) {
        lay(shrink);
        const double least = std::ranges::min(used());
        if (least > scarcely)
            return;
        if (least > most) {
            most = least;
            best = shrink;
        }
    }
    lay(best);
}

Paper::~Paper() = default;

void Paper::lay(double shrink) {
    const OnPaper paper;
    m_document = std::make_unique<QTextDocument>();
    m_drawings = std::make_unique<Drawings>(m_report, m_room.width() - 2, shrink);
    m_document->documentLayout()->registerHandler(QTextFormat::ImageObject, m_drawings.get());
    m_document->setDefaultFont(inDots(size::body, shrink));
    m_document->setDocumentMargin(0);
    const auto dots = [shrink](double pixels) { return static_cast<int>(std::lround(pixels * dotsPerPixel * shrink)); };
    m_document->setDefaultStyleSheet(
        QStringLiteral("h1{font-size:%1px}h2{font-size:%2px;margin-top:%4px}h3{font-size:%3px;margin-top:%5px}"
                       "th{font-weight:600}.shop{color:#6b7280}")
            .arg(dots(size::title))
            .arg(dots(18))
            .arg(dots(size::strong))
            .arg(dots(16))
            .arg(dots(12)));
    m_document->setPageSize(QSizeF(m_room));
    m_document->setHtml(m_report.body);
    keepTogether();
}

int Paper::sheetOf(const QTextBlock& block) const {
    const QRectF at = m_document->documentLayout()->blockBoundingRect(block);
    return static_cast<int>((at.bottom() - 1) / m_room.height());
}

// A heading stands over what it is of: a table or a picture whole, where that fits a sheet, of text the first lines.
void Paper::keepTogether() {
    constexpr double largest = 0.8; // of a sheet
    for (QTextBlock block = m_document->begin(); block.isValid(); block = block.next()) {
        if (block.blockFormat().headingLevel() == 0)
            continue;
        QTextBlock last = block.next();
        while (last.isValid() && last.blockFormat().headingLevel() > 0)
            last = last.next();
        if (!last.isValid())
            break;
        const double top = m_document->documentLayout()->blockBoundingRect(block).top();
        if (const QTextTable* table = QTextCursor(last).currentTable()) {
            const QTextBlock end = table->lastCursorPosition().block();
            if (m_document->documentLayout()->blockBoundingRect(end).bottom() - top < largest * m_room.height())
                last = end;
        }
        if (sheetOf(last) == static_cast<int>(top / m_room.height()))
            continue;
        QTextBlockFormat format = block.blockFormat();
        format.setPageBreakPolicy(QTextFormat::PageBreak_AlwaysBefore);
        QTextCursor(block).setBlockFormat(format);
        m_document->markContentsDirty(0, m_document->characterCount()); // pictures are measured anew
    }
}

int Paper::sheets() const {
    return m_document->pageCount();
}

void Paper::paint(QPainter& painter, int number) const {
    const OnPaper paper;
    const QRectF seen(0, static_cast<double>(number) * m_room.height(), m_room.width(), m_room.height());
    painter.save();
    painter.translate(sideMargin, endMargin - seen.top());
    painter.setClipRect(seen.adjusted(-sideMargin / 2, 0, sideMargin / 2, 0));
    QAbstractTextDocumentLayout::PaintContext context;
    context.clip = seen;
    context.palette.setColor(QPalette::Text, Qt::black);
    m_document->documentLayout()->draw(&painter, context);
    painter.restore();
    painter.save();
    painter.setFont(inDots(size::caption, 1));
    painter.setPen(QColor(0x6b, 0x72, 0x80));
    const QRectF foot(sideMargin, m_sheet.height() - endMargin, m_room.width(), endMargin * 0.7);
    const QString count = QStringLiteral("%1 / %2").arg(number + 1).arg(sheets());
    painter.drawText(foot, Qt::AlignRight | Qt::AlignVCenter, count);
    const QFontMetricsF measure(painter.font());
    painter.drawText(foot, Qt::AlignLeft | Qt::AlignVCenter,
                     measure.elidedText(m_report.title, Qt::ElideRight, 0.85 * foot.width()));
    painter.restore();
}

std::vector<Paper::Heading> Paper::headings() const {
    std::vector<Heading> all;
    for (QTextBlock block = m_document->begin(); block.isValid(); block = block.next()) {
        const int level = block.blockFormat().headingLevel();
        if (level == 0)
            continue;
        const double top = m_document->documentLayout()->blockBoundingRect(block).top();
        const int sheet = static_cast<int>(top / m_room.height());
        all.push_back({level, block.text(), sheet, endMargin + top - sheet * m_room.height()});
    }
    return all;
}

std::vector<double> Paper::used() const {
    std::vector<double> lowest(static_cast<std::size_t>(std::max(1, sheets())), 0.0);
    for (QTextBlock block = m_document->begin(); block.isValid(); block = block.next()) {
        if (block.text().isEmpty())
            continue;
        const double bottom = m_document->documentLayout()->blockBoundingRect(block).bottom();
        const auto sheet = std::min(lowest.size() - 1, static_cast<std::size_t>((bottom - 1) / m_room.height()));
        const double share = (bottom - static_cast<double>(sheet) * m_room.height()) / m_room.height();
        lowest[sheet] = std::max(lowest[sheet], share);
    }
    return lowest;
}

} // namespace knot::app

#include "paper.moc"
