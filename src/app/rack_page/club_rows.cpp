#include "app/rack_page/club_rows.h"

#include "app/picture/club.h"
#include "app/rack_page/differences.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/rack/club_line.h"
#include "core/rack/figures.h"
#include "core/record/text/number_text.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace knot::app {
namespace {

using record::TestKind;

constexpr int mostRow = 80, leastRow = 56, fewRow = 110; // of two clubs or one
constexpr double nameLeft = 36, wordsWidth = 236, figuresWidth = 178;

QPainterPath pathOf(const picture::ClubOutline& outline, QPointF origin, double scale) {
    QPainterPath path;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const QPointF at = origin + scale * QPointF(outline[i].x, outline[i].y);
        i == 0 ? path.moveTo(at) : path.lineTo(at);
    }
    path.closeSubpath();
    return path;
}

// The same without corners: through the middles of its edges.
QPainterPath roundPath(const picture::ClubOutline& outline, QPointF origin, double scale) {
    const auto at = [&](std::size_t i) {
        const auto& point = outline[i % outline.size()];
        return origin + scale * QPointF(point.x, point.y);
    };
    QPainterPath path((at(0) + at(outline.size() - 1)) / 2);
    for (std::size_t i = 0; i < outline.size(); ++i)
        path.quadTo(at(i), (at(i) + at(i + 1)) / 2);
    path.closeSubpath();
    return path;
}

// Angles are seen at the head, lengths and weights along the club.
bool isSeenAtHead(TestKind kind) {
    return kind == TestKind::loft || kind == TestKind::lie || kind == TestKind::head;
}

class RowDelegate : public QStyledItemDelegate {
public:
    explicit RowDelegate(ClubRows* rows)
        : QStyledItemDelegate(rows)
        , m_rows(rows) {}

    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
        const int clubs = std::max<int>(1, static_cast<int>(m_rows->shown().clubs.size()));
        return {300, std::clamp(static_cast<int>(typeScale() * 300) / clubs, leastRow, clubs < 3 ? fewRow : mostRow)};
    }

    QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem&, const QModelIndex&) const override {
        auto* edit = new QLineEdit(parent);
        edit->setObjectName(QStringLiteral("clubLine"));
        edit->setAccessibleName(ClubRows::tr("The club in a line: its name, and what differs"));
        edit->setFont(typeface(size::strong));
        return edit;
    }
    void setEditorData(QWidget* editor, const QModelIndex& index) const override {
        auto* edit = qobject_cast<QLineEdit*>(editor);
        const auto& shown = m_rows->shown();
        edit->setText(
            QString::fromStdString(rack::clubLine(shown.clubs[static_cast<std::size_t>(index.row())], shown.kind)));
        edit->selectAll();
    }
    void setModelData(QWidget* editor, QAbstractItemModel*, const QModelIndex& index) const override {
        emit m_rows->lineTyped(index.row(), qobject_cast<QLineEdit*>(editor)->text());
    }
    void updateEditorGeometry(QWidget* editor, const QStyleOptionViewItem& option, const QModelIndex&) const override {
        editor->setGeometry(option.rect.left() + 30, option.rect.top() + 6, std::min(420, option.rect.width() - 40),
                            editor->sizeHint().height());
    }

    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto& shown = m_rows->shown();
        const auto at = static_cast<std::size_t>(index.row());
        if (at >= shown.clubs.size())
            return;
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        const QRectF box = option.rect;
        if (option.state & QStyle::State_Selected)
            painter->fillRect(box, colours().selection);
        paintWords(*painter, box, at);
        const QRectF room(box.left() + wordsWidth + 12, box.top() + 4, box.width() - wordsWidth - figuresWidth - 24,
                          box.height() - 8);
        paintClub(*painter, room, at);
        paintFigures(*painter, box, shown.clubs[at].club);
        painter->setPen(colours().line);
        painter->drawLine(box.bottomLeft() + QPointF(8, 0), box.bottomRight() - QPointF(8, 0));
        painter->restore();
    }

private:
    QColor colourOf(std::size_t at) const {
        return m_rows->shown().isSealed || m_rows->shown().isOut[at] ? colours().faint : tagColour(at);
    }

    // At its middle dots, where it is too wide for one line.
    static QStringList inLines(const QString& text, double width) {
        const QFontMetricsF metrics(typeface(size::body));
        if (metrics.horizontalAdvance(text) <= width)
            return {text};
        const QString dot = QStringLiteral(" · ");
        QStringList lines{QString()};
        for (const QString& word : text.split(dot)) {
            const QString longer = lines.back().isEmpty() ? word : lines.back() + dot + word;
            if (lines.back().isEmpty() || metrics.horizontalAdvance(longer) <= width)
                lines.back() = longer;
            else
                lines << word;
        }
        return lines;
    }

    void paintWords(QPainter& painter, const QRectF& box, std::size_t at) const {
        const Colours& c = colours();
        const auto& shown = m_rows->shown();
        const record::Build& club = shown.clubs[at];
        if (!shown.isSealed)
            drawTag(painter, {box.left() + 12, box.top() + 11, 13, 13}, at);
        const double width = wordsWidth - nameLeft;
        double y = box.top() + 22;
        auto line = [&](const QString& text, const QFont& font, const QColor& colour) {
            if (text.isEmpty() || y > box.bottom() - 2)
                return;
            painter.setFont(font);
            painter.setPen(colour);
            painter.drawText(QPointF(box.left() + nameLeft, y),
                             painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(width)));
            y += 1.35 * painter.fontMetrics().ascent() + 2;
        };
        line(QString::fromStdString(club.name), typeface(size::strong, QFont::DemiBold),
             shown.isOut[at] ? c.faint : c.ink);
        for (const QString& part : inLines(QString::fromStdString(rack::differsText(club, shown.kind)), width))
            line(part, typeface(size::body), c.ink);
        line(shown.slips[at], typeface(size::caption), c.alarm);
        line(shown.under[at], typeface(size::caption), c.faint);
    }

    // In the view that shows what is tested; whole clubs in all of them.
    void paintClub(QPainter& painter, const QRectF& room, std::size_t at) const {
        const TestKind kind = m_rows->shown().kind;
        const record::Build& build = m_rows->shown().clubs[at];
        const record::Club& club = build.club;
        if (kind == TestKind::wholeClubs) {
            const double side = 0.5 * room.width();
            paintSide(painter, QRectF(room.topLeft(), QSizeF(side - 16, room.height())), at);
            paintHead(painter, room.adjusted(side, 0, 0, 0), club, at);
        } else if (isSeenAtHead(kind)) {
            paintHead(painter, room, club, at);
        } else {
            paintSide(painter, room, at);
        }
    }

    // What of a club is not as on the others, written where it is.
    QString mark(const char* what, std::size_t at) const {
        const auto& sheet = m_rows->shown().sheet;
        const auto row = std::ranges::find(sheet, what, &rack::Difference::what);
        return row == sheet.end() ? QString() : oddValue(*row, at);
    }

    void paintMark(QPainter& painter, QPointF where, const QString& text) const {
        painter.setFont(typeface(size::caption, QFont::DemiBold));
        painter.setPen(colours().alarm);
        painter.drawText(QRectF(where.x() - 50, where.y() - 16, 100, 16), Qt::AlignCenter, text);
    }

    picture::ClubSide sideOf(std::size_t at) const {
        return picture::clubFromSide(m_rows->shown().clubs[at].club, m_rows->shown().heads[at]);
    }

    // All clubs to one scale, so that a longer one is longer; of grips the butt end, larger.
    double sideScale(double width) const {
        constexpr double buttEnd = 380; // mm
        if (m_rows->shown().kind == TestKind::grip)
            return width / buttEnd;
        double longest = 1;
        for (std::size_t i = 0; i < m_rows->shown().clubs.size(); ++i)
            longest = std::max(longest, sideOf(i).length);
        constexpr double headBeyond = 100; // mm
        return width / (longest + headBeyond);
    }

    void paintSide(QPainter& painter, const QRectF& room, std::size_t at) const {
        const Colours& c = colours();
        const picture::ClubSide side = sideOf(at);
        const double scale = sideScale(room.width());
        const QPointF butt(room.left(), room.top() + 0.3 * room.height());
        painter.save();
        painter.setClipRect(room.adjusted(-2, -8, 4, 8));
        painter.setPen(QPen(c.ink, 1.2, side.isLengthKnown ? Qt::SolidLine : Qt::DotLine));
        painter.setBrush(c.band);
        painter.drawPath(pathOf(side.grip, butt, scale));
        painter.drawPath(roundPath(side.head, butt, scale));
        painter.setPen(Qt::NoPen);
        painter.setBrush(colourOf(at));
        painter.drawPath(pathOf(side.shaft, butt, scale));
        const QFont font = typeface(size::caption);
        painter.setPen(c.faint);
        painter.setFont(font);
        if (side.balance) {
            const QPointF tip(butt.x() + scale * *side.balance, butt.y() + 8);
            QPainterPath triangle(tip);
            triangle.lineTo(tip + QPointF(-6, 11));
            triangle.lineTo(tip + QPointF(6, 11));
            triangle.closeSubpath();
            painter.setPen(QPen(c.ink, 1.2));
            painter.setBrush(Qt::NoBrush);
            painter.drawPath(triangle);
            painter.setPen(c.faint);
            painter.drawText(QRectF(tip.x() - 40, tip.y() + 11, 80, 16), Qt::AlignCenter,
                             QString::fromStdString(rack::lengthText(*side.balance, m_rows->shown().length)));
        }
        painter.drawText(QRectF(butt.x(), butt.y() + 12, 200, 16), Qt::AlignLeft,
                         side.isLengthKnown ? ClubRows::tr("%1 long").arg(QString::fromStdString(
                                                  rack::lengthText(side.length, m_rows->shown().length)))
                                            : ClubRows::tr("length not known"));
        paintMark(painter, butt + QPointF(scale * 130, -6), mark("grip mass", at));
        paintMark(painter, butt + QPointF(scale * (side.length + 10), 0.62 * room.height()), mark("head mass", at));
        paintMark(painter, butt + QPointF(scale * 0.62 * side.length, -2), mark("length", at));
        painter.restore();
    }

    void paintHead(QPainter& painter, const QRectF& room, const record::Club& club, std::size_t at) const {
        const Colours& c = colours();
        const double scale = (room.height() - 10) / 78;
        const double ground = room.bottom() - 6;
        painter.setFont(typeface(size::caption));
        const bool isNarrow = room.width() < 420; // then the words stand above
        const auto label = [&](QPointF where, const QString& text, bool isOdd) {
            painter.setPen(isOdd ? c.alarm : c.ink);
            painter.drawText(isNarrow ? QPointF(where.x() - 60, room.top() + 8) : where, text);
        };
        QColor fill = colourOf(at);
        fill.setAlphaF(0.25F);
        if (const auto toe = picture::headFromToe(club)) {
            const QPointF origin(room.left() + 30, ground);
            painter.setPen(QPen(c.line, 1));
            painter.drawLine(QPointF(origin.x() - 24, ground), QPointF(origin.x() + scale * 120, ground));
            painter.setPen(QPen(c.ink, 1.2));
            painter.setBrush(fill);
            painter.drawPath(pathOf(toe->body, origin, scale));
            painter.setPen(QPen(colourOf(at), 3));
            painter.drawLine(origin + scale * QPointF(toe->faceLow.x, toe->faceLow.y),
                             origin + scale * QPointF(toe->faceHigh.x, toe->faceHigh.y));
            painter.setPen(QPen(c.faint, 1, Qt::DotLine)); // upright, to lean from
            painter.drawLine(origin, origin - QPointF(0, scale * 66));
            label({origin.x() + scale * 124, ground - 0.4 * room.height()},
                  ClubRows::tr("loft %1°").arg(QString::fromStdString(record::fixed(toe->loft, 1))),
                  !mark("static loft", at).isEmpty());
        }
        if (const auto face = picture::headFromFace(club, m_rows->shown().leftHanded)) {
            const QPointF origin(room.left() + 0.68 * room.width(), ground);
            painter.setPen(QPen(c.line, 1));
            painter.drawLine(QPointF(origin.x() - scale * 105, ground), QPointF(origin.x() + scale * 105, ground));
            painter.setPen(QPen(colourOf(at), 3));
            painter.drawLine(origin + scale * QPointF(face->heel.x, face->heel.y),
                             origin + scale * QPointF(face->shaftEnd.x, face->shaftEnd.y) * 0.6);
            painter.setPen(QPen(c.ink, 1.2));
            painter.setBrush(fill);
            painter.drawPath(roundPath(face->body, origin, scale));
            double beyond = 0; // of what is drawn, to the right
            for (const picture::ClubPoint& point : face->body)
                beyond = std::max(beyond, point.x);
            label({origin.x() + scale * beyond + 10, ground - 0.4 * room.height()},
                  ClubRows::tr("lie %1°").arg(QString::fromStdString(record::fixed(face->lie, 1))),
                  !mark("static lie", at).isEmpty());
        }
        if (!picture::headFromToe(club) && !picture::headFromFace(club, false)) {
            painter.setPen(c.faint);
            painter.drawText(room, Qt::AlignVCenter | Qt::AlignLeft, ClubRows::tr("loft and lie not known"));
        }
    }

    static void paintFigures(QPainter& painter, const QRectF& box, const record::Club& club) {
        const Colours& c = colours();
        const rack::Figures figures = rack::figuresOf(club);
        const auto figure = [&](double right, const QString& value, const QString& caption) {
            painter.setPen(c.ink);
            drawTabular(painter, typeface(size::strong, QFont::DemiBold), {right, box.top() + 24}, value, Align::right);
            painter.setPen(c.faint);
            drawTabular(painter, typeface(size::caption), {right, box.top() + 42}, caption, Align::right);
        };
        const double right = box.right() - 14;
        figure(right - 86,
               figures.swingWeight ? QString::fromStdString(rack::swingWeightText(*figures.swingWeight))
                                   : QStringLiteral("–"),
               ClubRows::tr("swing weight"));
        figure(right,
               figures.inertia ? QString::fromStdString(record::fixed(*figures.inertia, 3)) : QStringLiteral("–"),
               ClubRows::tr("kg·m²"));
    }

    ClubRows* m_rows;
};

} // namespace

ClubRows::ClubRows() {
    setObjectName(QStringLiteral("clubs"));
    setAccessibleName(tr("Clubs on test"));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    setEditTriggers(QAbstractItemView::EditKeyPressed | QAbstractItemView::DoubleClicked);
    setItemDelegate(new RowDelegate(this));
}

void ClubRows::display(RackShown shown) {
    m_shown = std::move(shown);
    const int row = std::max(0, currentRow());
    clear();
    for (std::size_t i = 0; i < m_shown.clubs.size(); ++i) {
        QString text = QString::fromStdString(m_shown.clubs[i].name);
        for (const QString& more : {m_shown.under[i], m_shown.slips[i]})
            if (!more.isEmpty())
                text += u'\n' + more;
        auto* item = new QListWidgetItem(text, this);
        item->setFlags(item->flags() | Qt::ItemIsEditable);
        item->setData(Qt::AccessibleTextRole, QString::fromStdString(rack::clubLine(m_shown.clubs[i], m_shown.kind)) +
                                                  QStringLiteral(". ") + text);
    }
    if (count() > 0)
        setCurrentRow(std::min(row, count() - 1));
    updateGeometry();
}

QSize ClubRows::sizeHint() const {
    const int rows = std::max(1, count());
    return {600, std::min(rows, 4) * (count() > 0 ? sizeHintForRow(0) : mostRow) + 4};
}

// A click on the drawing goes to what it shows: grip, shaft or head; on the words it only takes the row.
void ClubRows::mouseReleaseEvent(QMouseEvent* event) {
    QListWidget::mouseReleaseEvent(event);
    const QModelIndex index = indexAt(event->pos());
    const double from = wordsWidth + 12;
    const double wide = viewport()->width() - wordsWidth - figuresWidth - 24;
    const double share = (event->pos().x() - from) / wide;
    if (!index.isValid() || m_shown.isSealed || share < 0 || share > 1)
        return;
    const bool isHead = isSeenAtHead(m_shown.kind);
    emit measureWanted(index.row(), isHead ? share < 0.5 ? QStringLiteral("headLoft") : QStringLiteral("headLie")
                                    : share < 0.25 ? QStringLiteral("gripMass")
                                    : share < 0.88 ? QStringLiteral("shaftMass")
                                                   : QStringLiteral("headMass"));
}

void ClubRows::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Right && currentRow() >= 0 && !m_shown.isSealed)
        return emit measureWanted(currentRow(), isSeenAtHead(m_shown.kind) ? QStringLiteral("headLoft")
                                                                           : QStringLiteral("shaftMass"));
    QListWidget::keyPressEvent(event);
}

void ClubRows::resizeEvent(QResizeEvent* event) {
    QListWidget::resizeEvent(event);
    doItemsLayout();
}

} // namespace knot::app
