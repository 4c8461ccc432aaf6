#include "app/logbook_page/test_list.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/number_text.h"

#include <QDate>
#include <QLocale>
#include <QPainter>

namespace knot::app {
namespace {

constexpr int headHeight = 66;
constexpr int cordHeight = 22;
constexpr std::size_t mostCords = 6;
constexpr double cordsLeft = 110;

QString dayText(const std::string& iso) {
    const QDate day = QDate::fromString(QString::fromStdString(iso.substr(0, 10)), Qt::ISODate);
    return day.isValid() ? QLocale(QLocale::English).toString(day, QStringLiteral("d MMMM yyyy")) : QString();
}

QString factsOf(const logbook::TestEntry& test) {
    QStringList facts;
    if (!test.player.empty())
        facts << QString::fromStdString(test.player);
    if (const QString day = dayText(test.createdAt); !day.isEmpty())
        facts << day;
    if (test.counted == 0 && test.setAside == 0)
        facts << QCoreApplication::translate("TestList", "not struck yet");
    else
        facts << QString::fromStdString(record::counted(test.counted, "knot"))
              << QString::fromStdString(record::counted(test.turns, "stint"));
    if (test.setAside > 0)
        facts << QStringLiteral("%1 set aside").arg(test.setAside);
    return facts.join(QStringLiteral(" · "));
}

// The cord of one build: turn by turn, knots close together, so that many fit.
void drawCord(QPainter& painter, const logbook::TestEntry::BuildTurns& build, std::size_t index, QRectF box) {
    const QColor colour = tagColour(index);
    drawTag(painter, QRectF(box.left(), box.center().y() - 5, 10, 10), index);
    painter.setFont(typeface(size::caption));
    painter.setPen(colours().ink);
    const QString name = painter.fontMetrics().elidedText(QString::fromStdString(build.name), Qt::ElideRight,
                                                          static_cast<int>(cordsLeft) - 26);
    painter.drawText(QRectF(box.left() + 18, box.top(), cordsLeft - 20, box.height()), Qt::AlignVCenter, name);
    std::size_t knots = 0;
    for (const std::size_t n : build.counted)
        knots += n;
    const double gaps = static_cast<double>(build.counted.size());
    const double room = box.width() - cordsLeft;
    const double pitch = std::min(11.0, room / std::max(1.0, static_cast<double>(knots) + gaps));
    double x = box.left() + cordsLeft;
    for (const std::size_t n : build.counted) {
        const double length = pitch * static_cast<double>(n);
        painter.setPen(QPen(colour, 1.6));
        painter.drawLine(QPointF(x, box.center().y()), QPointF(x + length, box.center().y()));
        for (std::size_t i = 0; i < n; ++i)
            drawKnot(painter, QPointF(x + pitch * (static_cast<double>(i) + 0.5), box.center().y()),
                     std::clamp(0.45 * pitch, 1.2, 4.6), colour);
        x += length + pitch;
    }
}

} // namespace

void TestListModel::setTests(std::vector<logbook::TestEntry> tests) {
    beginResetModel();
    m_tests = std::move(tests);
    endResetModel();
}

int TestListModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_tests.size());
}

QVariant TestListModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid))
        return {};
    const auto& test = at(index.row());
    const QString title = QString::fromStdString(test.title);
    if (role == Qt::DisplayRole)
        return title;
    if (role == Qt::AccessibleTextRole)
        return QString(title + QStringLiteral(". ") + factsOf(test));
    if (role == Qt::AccessibleDescriptionRole)
        return QString::fromStdString(test.question);
    return {};
}

QSize TestDelegate::sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const {
    const auto* model = static_cast<const TestListModel*>(index.model());
    const std::size_t cords = std::min(model->at(index.row()).builds.size(), mostCords);
    return {400, headHeight + cordHeight * static_cast<int>(cords) + 22};
}

void TestDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& test = static_cast<const TestListModel*>(index.model())->at(index.row());
    const Colours& c = colours();
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing);
    const QRectF card = QRectF(option.rect).adjusted(0.5, 0.5, -0.5, -10.5);
    const bool inHand = option.state & QStyle::State_Selected;
    painter->setPen(QPen(inHand ? c.cord : c.line, inHand ? 1.5 : 1));
    painter->setBrush(c.sheet);
    painter->drawRoundedRect(card, 6, 6);
    const QRectF inner = card.adjusted(18, 12, -18, -10);
    painter->setFont(typeface(size::strong, QFont::DemiBold));
    painter->setPen(c.ink);
    painter->drawText(QRectF(inner.left(), inner.top(), inner.width(), 22), Qt::AlignVCenter,
                      painter->fontMetrics().elidedText(QString::fromStdString(test.title), Qt::ElideRight,
                                                        static_cast<int>(inner.width())));
    painter->setPen(c.faint);
    drawTabular(*painter, typeface(size::caption), QPointF(inner.left(), inner.top() + 38), factsOf(test), Align::left);
    double top = inner.top() + headHeight - 16;
    for (std::size_t b = 0; b < std::min(test.builds.size(), mostCords); ++b, top += cordHeight)
        drawCord(*painter, test.builds[b], b, QRectF(inner.left(), top, inner.width(), cordHeight));
    if (test.builds.size() > mostCords) {
        painter->setPen(c.faint);
        painter->setFont(typeface(size::caption));
        painter->drawText(QRectF(inner.left(), inner.top() + 24, inner.width(), 20), Qt::AlignRight | Qt::AlignVCenter,
                          tr("and %1 more clubs").arg(test.builds.size() - mostCords));
    }
    painter->restore();
}

} // namespace knot::app
