#include "app/reading_page/one_run_view.h"

#include "app/form/panel.h"
#include "app/picture/axis.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

constexpr int clubHeight = 84;
constexpr double side = 14;

} // namespace

/// What is drawn of one bet, in display units.
struct BetRow {
    record::BuildAt build;
    QString name, ahead, expected, seen;
    double low = 0, high = 0, middle = 0, asSeen = 0;
};

/// Each bet as a whipping from its low to its high, with what is expected and what was seen.
class BetRows : public QWidget {
public:
    BetRows() { setObjectName(QStringLiteral("bets")); }

    void setRows(std::vector<BetRow> rows, double margin, const QStringList& sentences) {
        m_rows = std::move(rows);
        m_margin = margin;
        setAccessibleName(sentences.join(QLatin1Char(' ')));
        setFixedHeight(clubHeight * static_cast<int>(m_rows.size()));
        setVisible(!m_rows.empty());
        update();
    }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        double low = -m_margin;
        double high = m_margin;
        for (const BetRow& row : m_rows) {
            low = std::min({low, row.low, row.asSeen});
            high = std::max({high, row.high, row.asSeen});
        }
        const auto axis = picture::niceAxis(low, high, side + 8, width() - side - 8, 4);
        for (std::size_t i = 0; i < m_rows.size(); ++i)
            paintRow(painter, m_rows[i], axis, clubHeight * static_cast<double>(i));
    }

private:
    void paintRow(QPainter& painter, const BetRow& row, const picture::Axis& axis, double top) const {
        const Colours& c = colours();
        const QColor colour = tagColour(row.build);
        drawTag(painter, QRectF(side, top + 8, 12, 12), row.build);
        painter.setPen(c.ink);
        const QFont strong = typeface(size::body, QFont::DemiBold);
        painter.setFont(strong);
        const double aheadWidth = painter.fontMetrics().horizontalAdvance(row.ahead);
        painter.drawText(QPointF(side + 20, top + 19),
                         clubName(painter, row.name, width() - 2 * side - 32 - aheadWidth, namesOf(m_rows)));
        drawTabular(painter, strong, {width() - side, top + 19}, row.ahead, Align::right);
        const double y = top + 42;
        painter.fillRect(QRectF(axis.pixel(-m_margin), y - 13, axis.pixel(m_margin) - axis.pixel(-m_margin), 26),
                         c.band);
        painter.setPen(QPen(c.line, 1.5));
        painter.drawLine(QPointF(axis.pixelLow, y), QPointF(axis.pixelHigh, y));
        const QRectF whipping(axis.pixel(row.low), y - 5, std::max(3.0, axis.pixel(row.high) - axis.pixel(row.low)),
                              10);
        QPainterPath shape;
        shape.addRoundedRect(whipping, 2.5, 2.5);
        painter.fillPath(shape, colour);
        painter.save();
        painter.setClipPath(shape);
        QColor thread = c.sheet;
        thread.setAlphaF(0.55F);
        painter.setPen(QPen(thread, 1.2));
        for (double x = whipping.left() - 10; x < whipping.right() + 10; x += 5)
            painter.drawLine(QPointF(x, whipping.bottom() + 1), QPointF(x + 6, whipping.top() - 1));
        painter.restore();
        painter.setPen(QPen(c.ink, 2));
        painter.drawLine(QPointF(axis.pixel(row.middle), y - 11), QPointF(axis.pixel(row.middle), y + 11));
        painter.setPen(QPen(c.faint, 1.5));
        painter.drawLine(QPointF(axis.pixel(row.asSeen), y - 8), QPointF(axis.pixel(row.asSeen), y + 8));
        paintWords(painter, row, axis, y + 28);
        painter.setPen(QPen(c.line, 1));
        painter.drawLine(QPointF(side, top + clubHeight - 1), QPointF(width() - side, top + clubHeight - 1));
    }

    // What is expected stands under its tick, what was seen beside it where it has room.
    void paintWords(QPainter& painter, const BetRow& row, const picture::Axis& axis, double y) const {
        const Colours& c = colours();
        painter.setFont(typeface(size::caption, QFont::DemiBold));
        const double wide = painter.fontMetrics().horizontalAdvance(row.expected);
        const double left = std::clamp(axis.pixel(row.middle) - wide / 2, side, width() - side - wide);
        painter.setPen(c.ink);
        painter.drawText(QPointF(left, y), row.expected);
        painter.setFont(typeface(size::caption));
        const double seenWide = painter.fontMetrics().horizontalAdvance(row.seen);
        const double most = width() - side - seenWide;
        double at = std::clamp(axis.pixel(row.asSeen) - seenWide / 2, side, most);
        constexpr double air = 14;
        if (at < left + wide + air && at + seenWide + air > left) { // it would run into the other words
            const double before = left - air - seenWide;
            const double after = left + wide + air;
            const bool goesBefore = (row.asSeen < row.middle && before >= side) || after > most;
            at = goesBefore ? before : after;
        }
        painter.setPen(c.faint);
        painter.drawText(QPointF(at, y), row.seen);
    }

    std::vector<BetRow> m_rows;
    double m_margin = 0;
};

OneRunView::OneRunView(QWidget* parent)
    : QScrollArea(parent) {
    setObjectName(QStringLiteral("oneRun"));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setWidgetResizable(true);
    auto* content = new QWidget;
    auto* column = new QVBoxLayout(content);
    column->setContentsMargins(0, 6, 0, 8);
    column->setSpacing(size::grid);
    auto words = [&](const char* name) {
        auto* label = plainLabel();
        label->setObjectName(QLatin1String(name));
        label->setWordWrap(true);
        label->setContentsMargins(static_cast<int>(side), 0, static_cast<int>(side), 0);
        column->addWidget(label);
        return label;
    };
    m_opening = words("oneRunOpening");
    m_heading = captionLabel("oneRunHeading");
    m_heading->setContentsMargins(static_cast<int>(side), size::grid, static_cast<int>(side), 0);
    column->addWidget(m_heading);
    m_bets = new BetRows;
    column->addWidget(m_bets);
    m_allowed = captionLabel("oneRunAllowed");
    m_allowed->setContentsMargins(static_cast<int>(side), 0, static_cast<int>(side), 0);
    column->addWidget(m_allowed);
    m_swing = words("oneRunSwing");
    m_test = words("oneRunTest");
    m_fairTest = new QPushButton(tr("Fair test of these two"));
    m_fairTest->setObjectName(QStringLiteral("oneRunFairTest"));
    auto* line = new QHBoxLayout;
    line->setContentsMargins(static_cast<int>(side), 0, static_cast<int>(side), 0);
    line->addWidget(m_fairTest);
    line->addStretch();
    column->addLayout(line);
    column->addStretch();
    setWidget(content);
    viewport()->setAutoFillBackground(false);
    content->setAutoFillBackground(false);
    setFocusProxy(m_fairTest);
    connect(m_fairTest, &QPushButton::clicked, this, [this] { emit fairTestRequested(m_pair); });
}

void OneRunView::setRun(const std::optional<words::OneRun>& run, const judge::Reading* reading,
                        const record::DisplayUnits& units) {
    if (!run || reading == nullptr) {
        m_pair.clear();
        return;
    }
    m_opening->setText(QString::fromStdString(run->opening));
    const record::MetricFormat format(run->metric, units);
    const record::Want want =
        reading->card.want({.kind = record::OutcomeKind::average, .metric = run->metric, .shape = {}});
    const bool everyPair = reading->card.comparison == record::Comparison::whichOfThese;
    std::vector<BetRow> rows;
    QStringList sentences;
    for (const judge::BetOnPair& bet : run->bets) {
        const judge::AverageGap* gap = reading->averageOf(bet.metric, bet.build, bet.against);
        QString name = QString::fromStdString(reading->builds[bet.build].name);
        if (everyPair)
            name = tr("%1 against %2").arg(name, QString::fromStdString(reading->builds[bet.against].name));
        const QString ahead = (want.kind == record::Want::Kind::none ? tr("above %1 in 100") : tr("ahead %1 in 100"))
                                  .arg(QString::fromStdString(words::timesIn100(bet.ahead)));
        BetRow row{.build = bet.build,
                   .name = name,
                   .ahead = ahead,
                   .expected = tr("expect %1 %2")
                                   .arg(QString::fromStdString(format.signedNumber(bet.expected)),
                                        QString::fromStdString(format.unitText())),
                   .seen = gap == nullptr ? QString()
                                          : tr("seen %1").arg(QString::fromStdString(format.signedNumber(gap->gap))),
                   .low = format.shown(bet.low80),
                   .high = format.shown(bet.high80),
                   .middle = format.shown(bet.expected),
                   .asSeen = format.shown(gap == nullptr ? bet.expected : gap->gap)};
        sentences << QStringLiteral("%1: %2, %3, %4.").arg(row.name, row.ahead, row.expected, row.seen);
        rows.push_back(std::move(row));
    }
    const QString label = QString::fromStdString(record::info(run->metric).label);
    m_heading->setText(rows.empty() ? QString() : tr("If you had to bet on %1").arg(label));
    m_heading->setVisible(!rows.empty());
    m_allowed->setText(
        tr("The best of several looks better than it is, a stint moves the player, and the first swings warm up: all "
           "three are taken off."));
    m_allowed->setVisible(!rows.empty());
    m_bets->setRows(std::move(rows), format.shown(reading->card.margin(run->metric)), sentences);
    QStringList swing;
    for (const std::string& sentence : run->others)
        swing << QString::fromStdString(sentence);
    for (const std::string& sentence : run->again)
        swing << QString::fromStdString(sentence);
    for (const std::string& sentence : run->swing)
        swing << QString::fromStdString(sentence);
    m_swing->setText(swing.join(QLatin1Char('\n')));
    m_swing->setVisible(!swing.isEmpty());
    m_test->setText(QString::fromStdString(run->fairTest));
    m_test->setVisible(!run->fairTest.empty());
    m_pair.clear();
    for (const record::BuildAt build : run->pair)
        m_pair.push_back(reading->builds[build].name);
    m_fairTest->setVisible(m_pair.size() == 2);
}

} // namespace knot::app
