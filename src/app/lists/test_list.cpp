#include "app/lists/test_list.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QDate>
#include <QLocale>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

constexpr std::size_t mostCords = 6;

// Heights and widths grow with the user's type.
double grown(double pixels) {
    return pixels * typeScale();
}
double dayHeight() {
    return grown(30);
}
double titleHeight() {
    return grown(22);
}
double factsHeight() {
    return grown(20);
}
double cordHeight() {
    return grown(22);
}
double cordsLeft() {
    return grown(110);
}
constexpr double margin = 12; ///< of a card, above and below
constexpr double apart = 12;  ///< between cards
constexpr double gap = 6;     ///< between what is said and the cords

QString dayText(const std::string& iso) {
    const QDate day = QDate::fromString(QString::fromStdString(iso.substr(0, 10)), Qt::ISODate);
    return day.isValid() ? QLocale(QLocale::English).toString(day, QStringLiteral("d MMMM yyyy")) : QString();
}

QString factsOf(const logbook::TestEntry& test) {
    QStringList facts;
    if (!test.players.empty())
        facts << QString::fromStdString(test.players);
    if (test.counted == 0 && test.setAside == 0)
        facts << QCoreApplication::translate("TestList", "not struck yet");
    else
        facts << QString::fromStdString(record::counted(test.counted, "shot"))
              << QString::fromStdString(record::counted(test.turns, "stint"));
    if (test.setAside > 0)
        facts << QStringLiteral("%1 set aside").arg(test.setAside);
    return facts.join(QStringLiteral(" · "));
}

// The cord of one build: turn by turn, knots close together, so that many fit.
void drawCord(QPainter& painter, const std::vector<logbook::TestEntry::BuildTurns>& builds, std::size_t index,
              QRectF box) {
    const logbook::TestEntry::BuildTurns& build = builds[index];
    QStringList names;
    for (const auto& one : builds)
        names << QString::fromStdString(one.name);
    const QColor colour = tagColour(index);
    drawTag(painter, QRectF(box.left(), box.center().y() - 5, 10, 10), index);
    painter.setFont(typeface(size::caption));
    painter.setPen(colours().ink);
    const QString name = clubName(painter, names[static_cast<qsizetype>(index)], cordsLeft() - 26, names);
    painter.drawText(QRectF(box.left() + 18, box.top(), cordsLeft() - 20, box.height()), Qt::AlignVCenter, name);
    std::size_t knots = 0;
    for (const std::size_t n : build.counted)
        knots += n;
    const double gaps = static_cast<double>(build.counted.size());
    const double room = box.width() - cordsLeft();
    const double pitch = std::min(11.0, room / std::max(1.0, static_cast<double>(knots) + gaps));
    double x = box.left() + cordsLeft();
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

// What was found, or where it stands, with the verdict's knot before it; then the bare facts.
void drawFinding(QPainter& painter, const logbook::TestEntry& test, const QRectF& box) {
    double x = box.left();
    const QFont font = typeface(size::caption);
    const double baseline = box.top() + grown(14);
    if (test.finding.verdict >= 0) {
        drawVerdict(painter, QRectF(x, box.top() + 2, 26, 16), static_cast<judge::Verdict>(test.finding.verdict));
        x += 34;
    }
    if (const QString said = QString::fromStdString(test.finding.text); !said.isEmpty()) {
        painter.setPen(colours().ink);
        drawTabular(painter, font, QPointF(x, baseline), said, Align::left);
        x += tabularWidth(font, said) + 14;
    }
    painter.setPen(colours().faint);
    const QString facts =
        QFontMetrics(font).elidedText(factsOf(test), Qt::ElideRight, static_cast<int>(std::max(0.0, box.right() - x)));
    drawTabular(painter, font, QPointF(x, baseline), facts, Align::left);
}

} // namespace

void TestListModel::setTests(std::vector<logbook::TestEntry> tests) {
    beginResetModel();
    m_tests = std::move(tests);
    show();
    endResetModel();
}

void TestListModel::setFinding(const std::string& id, const logbook::TestEntry::Finding& finding) {
    const auto test = std::ranges::find(m_tests, id, &logbook::TestEntry::id);
    if (test == m_tests.end())
        return;
    test->finding = finding;
    const auto at = std::ranges::find(m_shown, static_cast<std::size_t>(test - m_tests.begin()));
    if (at != m_shown.end()) {
        const auto row = index(static_cast<int>(at - m_shown.begin()));
        emit dataChanged(row, row);
    }
}

void TestListModel::setFilter(const QString& words) {
    beginResetModel();
    m_filter = words;
    show();
    endResetModel();
}

void TestListModel::show() {
    const QStringList words = m_filter.split(QLatin1Char(' '), Qt::SkipEmptyParts);
    m_shown.clear();
    for (std::size_t i = 0; i < m_tests.size(); ++i) {
        const auto& test = m_tests[i];
        std::string text = test.title + '\n' + test.question + '\n' + test.players + '\n' + test.finding.text;
        for (const auto& build : test.builds)
            text += '\n' + build.name;
        const QString all = words.isEmpty() ? QString() : QString::fromStdString(text);
        if (std::ranges::all_of(words, [&](const QString& word) { return all.contains(word, Qt::CaseInsensitive); }))
            m_shown.push_back(i);
    }
}

QString TestListModel::dayOver(int row) const {
    const QString day = dayText(at(row).createdAt);
    return row > 0 && dayText(at(row - 1).createdAt) == day ? QString() : day;
}

int TestListModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_shown.size());
}

QVariant TestListModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid))
        return {};
    const auto& test = at(index.row());
    const QString title = QString::fromStdString(test.title);
    if (role == Qt::DisplayRole || role == Qt::EditRole)
        return title;
    if (role == Qt::AccessibleTextRole) {
        QStringList parts{title, dayText(test.createdAt), QString::fromStdString(test.finding.text), factsOf(test)};
        parts.removeAll(QString());
        return parts.join(QStringLiteral(". "));
    }
    if (role == Qt::AccessibleDescriptionRole)
        return QString::fromStdString(test.question);
    return {};
}

bool TestListModel::setData(const QModelIndex& index, const QVariant& value, int role) {
    const QString title = value.toString().trimmed();
    if (!checkIndex(index, CheckIndexOption::IndexIsValid) || role != Qt::EditRole || title.isEmpty() ||
        title == data(index, Qt::EditRole).toString())
        return false;
    emit renamed(std::string(at(index.row()).id), title);
    return true;
}

Qt::ItemFlags TestListModel::flags(const QModelIndex& index) const {
    const auto usual = QAbstractListModel::flags(index);
    return index.isValid() ? usual | Qt::ItemIsEditable : usual;
}

void TestDelegate::updateEditorGeometry(QWidget* editor, const QStyleOptionViewItem& option,
                                        const QModelIndex& index) const {
    const auto* model = static_cast<const TestListModel*>(index.model());
    const double day = model->dayOver(index.row()).isEmpty() ? 0 : dayHeight();
    const double height = std::max(titleHeight() + 6, static_cast<double>(editor->sizeHint().height()));
    editor->setGeometry(
        QRectF(option.rect.left() + 12, option.rect.top() + day + margin - 3, option.rect.width() - 24, height)
            .toRect());
}

QSize TestDelegate::sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const {
    const auto* model = static_cast<const TestListModel*>(index.model());
    const std::size_t cords = std::min(model->at(index.row()).builds.size(), mostCords);
    const double day = model->dayOver(index.row()).isEmpty() ? 0 : dayHeight();
    const double card = 2 * margin + titleHeight() + factsHeight() + gap + cordHeight() * static_cast<double>(cords);
    return {400, static_cast<int>(std::ceil(day + card + apart))};
}

void TestDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto* model = static_cast<const TestListModel*>(index.model());
    const auto& test = model->at(index.row());
    const Colours& c = colours();
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing);
    QRectF card = QRectF(option.rect).adjusted(0.5, 0.5, -0.5, 0.5 - apart);
    if (const QString day = model->dayOver(index.row()); !day.isEmpty()) {
        painter->setPen(c.faint);
        drawTabular(*painter, typeface(size::caption, QFont::DemiBold), card.topLeft() + QPointF(2, grown(18)), day,
                    Align::left);
        card.setTop(card.top() + dayHeight());
    }
    const bool inHand = option.state & QStyle::State_Selected;
    painter->setPen(QPen(inHand ? c.cord : c.line, inHand ? 1.5 : 1));
    painter->setBrush(c.sheet);
    painter->drawRoundedRect(card, 6, 6);
    const QRectF inner = card.adjusted(18, margin, -18, -margin);
    painter->setFont(typeface(size::strong, QFont::DemiBold));
    painter->setPen(c.ink);
    painter->drawText(QRectF(inner.left(), inner.top(), inner.width(), titleHeight()), Qt::AlignVCenter,
                      painter->fontMetrics().elidedText(QString::fromStdString(test.title), Qt::ElideRight,
                                                        static_cast<int>(inner.width())));
    drawFinding(*painter, test, QRectF(inner.left(), inner.top() + titleHeight(), inner.width(), factsHeight()));
    double top = inner.top() + titleHeight() + factsHeight() + gap;
    for (std::size_t b = 0; b < std::min(test.builds.size(), mostCords); ++b, top += cordHeight())
        drawCord(*painter, test.builds, b, QRectF(inner.left(), top, inner.width(), cordHeight()));
    if (test.builds.size() > mostCords) {
        painter->setPen(c.faint);
        painter->setFont(typeface(size::caption));
        painter->drawText(QRectF(inner.left(), inner.top() + titleHeight(), inner.width(), factsHeight()),
                          Qt::AlignRight | Qt::AlignVCenter,
                          tr("and %1 more clubs").arg(test.builds.size() - mostCords));
    }
    painter->restore();
}

} // namespace knot::app
