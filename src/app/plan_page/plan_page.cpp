#include "app/plan_page/plan_page.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/picture/power_view.h"
#include "app/picture/strip_view.h"
#include "app/plan_page/seal_panel.h"
#include "app/plan_page/ways_view.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/earlier_tests.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/outcomes.h"
#include "core/plan/requirements.h"
#include "core/plan/schedule.h"
#include "core/plan/strike_off.h"
#include "core/record/text/number_text.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRandomGenerator>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::Test;

constexpr record::Wanted inSeconds{record::Quantity::time, record::Unit::s};
constexpr int mostRounds = 60, longestTurn = 30;
constexpr int ownLevel = 3;          // of the choices of spread: the player's own
constexpr int mostStripHeight = 120; // two rows and a half: beyond that it scrolls

QLabel* linkLabel(const char* name) {
    QLabel* label = richLabel();
    label->setObjectName(QLatin1String(name));
    label->setFont(typeface(size::caption));
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    return label;
}

} // namespace

PlanPage::PlanPage(const TestInHand& hand, Declaring& declaring, Book& book, const EarlierTests& earlier,
                   QWidget* parent)
    : Page(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book)
    , m_earlier(earlier) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2 * size::grid);
    column->addWidget(buildStrip());
    auto* row = new QHBoxLayout;
    row->setSpacing(2 * size::grid);
    row->addWidget(buildPlanner(), 7);
    m_seal = new SealPanel(m_hand, m_declaring);
    row->addWidget(m_seal, 4);
    column->addLayout(row, 1);
    wire();
}

QWidget* PlanPage::buildStrip() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
    m_strip = new StripView;
    QScrollArea* laps = scrolling(m_strip);
    laps->setMaximumHeight(mostStripHeight);
    m_stripArea = laps;
    column->addWidget(laps);
    m_schedule =
        choiceBox({tr("rotated laps"), tr("sandwich"), tr("shot by shot"), tr("one run each"), tr("striking off")});
    m_rounds = new NumberField({.low = 1, .high = mostRounds, .whole = true, .mayBeEmpty = false});
    m_length = new NumberField({.low = 1, .high = longestTurn, .whole = true, .mayBeEmpty = false});
    m_change = new NumberField({.low = 0, .high = 3600, .mayBeEmpty = false, .of = inSeconds});
    m_shot = new NumberField({.low = 1, .high = 600, .mayBeEmpty = false, .of = inSeconds});
    m_warmUp = new NumberField({.low = 0, .high = 100, .whole = true, .mayBeEmpty = false});
    m_rest = new NumberField({.low = 0, .high = 500, .whole = true, .mayBeEmpty = false});
    m_restSeconds = new NumberField({.low = 0, .high = 3600, .mayBeEmpty = false, .of = inSeconds});
    m_another = new QPushButton(tr("Another order"));
    auto* row = new QHBoxLayout;
    row->setSpacing(10);
    row->addWidget(labelled(tr("&Order"), m_schedule, "schedule"), 3);
    row->addWidget(labelled(tr("&Laps"), m_rounds, "rounds"), 1);
    row->addWidget(labelled(tr("Shots a stin&t"), m_length, "turnLength"), 1);
    row->addWidget(labelled(tr("Change, s"), m_change, "changeSeconds"), 1);
    row->addWidget(labelled(tr("Shot, s"), m_shot, "shotSeconds"), 1);
    row->addWidget(labelled(tr("Warm-up"), m_warmUp, "warmUp"), 1);
    row->addWidget(labelled(tr("Rest after"), m_rest, "restEvery"), 1);
    row->addWidget(labelled(tr("Rest, s"), m_restSeconds, "restSeconds"), 1);
    row->addWidget(labelled(QStringLiteral(" "), m_another, "anotherOrder"), 0);
    column->addLayout(row);
    m_totals = captionLabel("totals");
    column->addWidget(m_totals);
    m_changeText = linkLabel("changeText");
    column->addWidget(m_changeText);
    return panel;
}

// A change that takes its own time, such as one head that goes from shaft to shaft.
QWidget* PlanPage::buildSlowChanges() {
    m_slowPair = choiceBox({});
    m_slowPair->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_slowSeconds = new NumberField({.low = 0, .high = 3600, .of = inSeconds});
    m_slow = new QWidget;
    auto* row = new QHBoxLayout(m_slow);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(labelled(tr("The change between"), m_slowPair, "slowPair"), 2);
    row->addWidget(labelled(tr("takes, s"), m_slowSeconds, "slowSeconds"), 1);
    connect(m_slowPair, &QComboBox::activated, this, &PlanPage::refreshSlowChanges);
    connect(m_slowSeconds, &NumberField::edited, this, [this](std::optional<double> seconds) {
        const QPoint pair = m_slowPair->currentData().toPoint();
        const record::BuildAt a(static_cast<std::size_t>(pair.x()));
        const record::BuildAt b(static_cast<std::size_t>(pair.y()));
        m_declaring.change(tr("the time of one change"), [&](record::Declared& test) {
            std::erase_if(test.plan.changeTimes, [&](const auto& time) { return time.a == a && time.b == b; });
            if (seconds)
                test.plan.changeTimes.push_back({a, b, *seconds});
        });
    });
    return m_slow;
}

void PlanPage::refreshSlowChanges() {
    const Test& test = m_hand.test();
    m_slow->setVisible(test.builds.size() > 2 && !m_hand.isSealed());
    const QPoint chosen = m_slowPair->currentData().toPoint();
    m_slowPair->clear();
    auto shortName = [&](const std::string& name) {
        const QFontMetrics metrics = m_slowPair->fontMetrics();
        return metrics.elidedText(QString::fromStdString(name), Qt::ElideMiddle, 11 * metrics.averageCharWidth());
    };
    for (int a = 0; a < static_cast<int>(test.builds.size()); ++a)
        for (int b = a + 1; b < static_cast<int>(test.builds.size()); ++b)
            m_slowPair->addItem(tr("%1 / %2").arg(shortName(test.builds[static_cast<std::size_t>(a)].name),
                                                  shortName(test.builds[static_cast<std::size_t>(b)].name)),
                                QPoint(a, b));
    m_slowPair->setCurrentIndex(std::max(0, m_slowPair->findData(chosen)));
    const QPoint pair = m_slowPair->currentData().toPoint();
    std::optional<double> seconds;
    for (const auto& time : test.plan.changeTimes)
        if (static_cast<int>(time.a) == pair.x() && static_cast<int>(time.b) == pair.y())
            seconds = time.seconds;
    m_slowSeconds->display(seconds, 0);
}

QWidget* PlanPage::buildPlanner() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("What it can show"), column);
    m_by = linkLabel("curvesBy");
    m_wayText = captionLabel("wayText");
    m_minutes = new NumberField(
        {.low = 5, .high = 600, .mayBeEmpty = false, .of = {record::Quantity::time, record::Unit::min}});
    m_outcome = choiceBox({});
    m_outcome->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_level = choiceBox({tr("a steady player"), tr("a club player"), tr("an occasional player"), tr("this player")});
    m_level->setCurrentIndex(1);
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("&Minutes there are"), m_minutes, "minutes"), 1);
    row->addWidget(labelled(tr("Seen in"), m_outcome, "seenIn"), 0);
    row->addWidget(labelled(tr("Spread of"), m_level, "level"), 2);
    row->addWidget(buildSlowChanges(), 4);
    column->addLayout(row);
    m_power = new PowerView;
    m_ways = new WaysView;
    column->addWidget(m_by);
    column->addWidget(m_power, 2);
    column->addWidget(m_ways, 2);
    column->addWidget(m_wayText);
    m_answers = richLabel();
    m_limits = richLabel();
    for (QLabel* label : {m_answers, m_limits}) {
        label->setWordWrap(true);
        label->setAlignment(Qt::AlignTop);
    }
    m_answers->setObjectName(QStringLiteral("answers"));
    m_limits->setObjectName(QStringLiteral("limits"));
    m_limits->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    m_limits->setForegroundRole(QPalette::PlaceholderText);
    auto* words = new QWidget;
    auto* beside = new QHBoxLayout(words);
    beside->setContentsMargins(0, 0, 0, 0);
    beside->setSpacing(2 * size::grid);
    beside->addWidget(m_answers, 3);
    beside->addWidget(m_limits, 2);
    m_words = scrolling(words); // with large type there is more to say than room
    column->addWidget(m_words, 1);
    return panel;
}

void PlanPage::wire() {
    auto number = [&](NumberField* field, const QString& what, auto put) {
        connect(field, &NumberField::edited, this, [this, what, put](std::optional<double> value) {
            m_declaring.change(what, [&](record::Declared& test) { put(test.plan, *value); });
        });
    };
    number(m_rounds, tr("the number of laps"), [](record::Plan& p, double v) { p.rounds = static_cast<int>(v); });
    number(m_length, tr("the length of a stint"),
           [](record::Plan& p, double v) { p.turnLength = static_cast<int>(v); });
    number(m_change, tr("the time of a change"), [](record::Plan& p, double v) { p.changeSeconds = v; });
    number(m_shot, tr("the time of a shot"), [](record::Plan& p, double v) { p.shotSeconds = v; });
    number(m_warmUp, tr("the warm-up"), [](record::Plan& p, double v) { p.warmUp = static_cast<int>(v); });
    number(m_rest, tr("the rests"), [](record::Plan& p, double v) { p.restEvery = static_cast<int>(v); });
    number(m_restSeconds, tr("the length of a rest"), [](record::Plan& p, double v) { p.restSeconds = v; });
    connect(m_minutes, &NumberField::edited, this, [this](std::optional<double> minutes) { takeMinutes(*minutes); });
    connect(m_ways, &WaysView::minutesWanted, this, &PlanPage::takeMinutes);
    connect(m_ways, &WaysView::taken, this, &PlanPage::takeWay);
    connect(m_ways, &WaysView::looked, this, [this] { m_wayText->setText(m_ways->said() + tr(" · Enter takes it")); });
    connect(m_by, &QLabel::linkActivated, this, [this](const QString& link) {
        m_isByGap = link == QStringLiteral("gap");
        markStale();
    });
    connect(m_changeText, &QLabel::linkActivated, this, [this](const QString& seconds) {
        m_declaring.change(tr("the time of a change"),
                           [&](record::Declared& test) { test.plan.changeSeconds = seconds.toDouble(); });
    });
    connect(m_limits, &QLabel::linkActivated, this, [this](const QString& laps) {
        m_declaring.change(tr("the number of laps"), [&](record::Declared& test) { test.plan.rounds = laps.toInt(); });
    });
    connect(m_level, &QComboBox::activated, this, &PlanPage::markStale);
    connect(m_outcome, &QComboBox::activated, this, &PlanPage::markStale);
    connect(m_schedule, &QComboBox::activated, this, [this](int which) {
        m_declaring.change(tr("the order"),
                           [&](record::Declared& test) { test.plan.schedule = static_cast<record::Schedule>(which); });
    });
    connect(m_another, &QPushButton::clicked, this, [this] {
        m_declaring.change(tr("the order drawn"),
                           [](record::Declared& test) { test.plan.seed = QRandomGenerator::system()->generate64(); });
    });
    connect(m_strip, &StripView::lapsWanted, this, [this](int change) {
        m_declaring.change(tr("the number of laps"), [&](record::Declared& test) {
            test.plan.rounds = std::clamp(test.plan.rounds + change, 1, mostRounds);
        });
    });
    connect(m_strip, &StripView::lengthWanted, this, [this](int change) {
        m_declaring.change(tr("the length of a stint"), [&](record::Declared& test) {
            test.plan.turnLength = std::clamp(test.plan.turnLength + change, 1, longestTurn);
        });
    });
    connect(&m_hand, &TestInHand::replaced, this, &PlanPage::takeOwnSpreads);
    connect(&m_earlier, &EarlierTests::changed, this, &PlanPage::takeOwnSpreads);
    connect(&m_declaring, &Declaring::changed, this, &PlanPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &PlanPage::markStale);
}

void PlanPage::takeOwnSpreads() {
    const bool known = m_earlier.learnt().own.contains(record::Metric::carry);
    m_level->setCurrentIndex(known ? ownLevel : std::min(m_level->currentIndex(), ownLevel - 1));
    markStale();
}

plan::Spreads PlanPage::spreads(const record::Outcome& outcome) const {
    const int level = m_level->currentIndex();
    return level == ownLevel ? m_earlier.spreads(outcome) : m_earlier.spreads(outcome, static_cast<plan::Level>(level));
}

void PlanPage::takeMinutes(double minutes) {
    m_minutesThere = std::clamp(minutes, 5.0, 600.0);
    markStale();
}

// What a way asks of the plan, and nothing that another way asked of it before; at equal delivery and the typical shot
// are other questions, and said on the Sheet.
void PlanPage::takeWay(const plan::WayOption& option) {
    if (!m_hand.test().shots.empty() || m_hand.isSealed())
        return;
    const record::Outcome seen = outcomeSeen();
    m_declaring.change(tr("the plan"), [&](record::Declared& test) {
        test.plan.schedule = option.way == plan::Way::threeEach ? record::Schedule::oneRunEach
                             : option.turnLength == 1           ? record::Schedule::shotByShot
                                                                : record::Schedule::rotated;
        test.plan.rounds = std::min(option.rounds * option.days, mostRounds);
        test.plan.turnLength = option.turnLength;
        test.card.looks = option.way == plan::Way::withLooks ? record::Looks::eachRound : record::Looks::none;
        const bool wasOther = seen.kind == record::OutcomeKind::equal || seen.kind == record::OutcomeKind::typical;
        const auto kind = option.way == plan::Way::equalDelivery ? record::OutcomeKind::equal
                          : option.way == plan::Way::typicalShot ? record::OutcomeKind::typical
                          : wasOther                             ? record::OutcomeKind::average
                                                                 : seen.kind;
        const auto declared = std::ranges::find(test.card.primary, seen);
        if (kind != seen.kind && declared != test.card.primary.end())
            ask::setOutcome(test.card, static_cast<std::size_t>(declared - test.card.primary.begin()),
                            {.kind = kind, .metric = seen.metric, .shape = {}}, test.card.want(seen));
    });
}

// How long a change takes is asked in words that people have for it.
void PlanPage::refreshChange() {
    const double now = m_hand.test().plan.changeSeconds;
    QStringList words;
    auto offer = [&](double seconds, const QString& what) {
        const QString text = tr("%1 %2 s").arg(what).arg(qRound(seconds));
        words << (std::fabs(seconds - now) < 0.5 ? text
                                                 : QStringLiteral("<a href='%1' style='color:%2'>%3</a>")
                                                       .arg(qRound(seconds))
                                                       .arg(colours().link.name(), text));
    };
    offer(10, tr("both in the bag"));
    offer(40, tr("an adapter"));
    offer(180, tr("a shaft to be fitted"));
    if (const auto measured = m_earlier.learnt().pace.changeSeconds)
        offer(*measured, tr("as in earlier tests"));
    m_changeText->setText(tr("A change takes %1 s: %2").arg(qRound(now)).arg(words.join(QStringLiteral(" · "))));
}

void PlanPage::refreshWays(const Planning& planning) {
    const bool isThere = !planning.isRatio() && planning.outcome.kind != record::OutcomeKind::share;
    const bool byGap = m_isByGap || !isThere;
    m_power->setVisible(byGap);
    m_ways->setVisible(!byGap);
    m_wayText->setVisible(!byGap);
    const auto link = [](const char* to, const QString& text, bool isNow) {
        return isNow ? text
                     : QStringLiteral("<a href='%1' style='color:%2'>%3</a>")
                           .arg(QLatin1String(to), colours().link.name(), text);
    };
    m_by->setText(isThere ? tr("Curves %1 · %2")
                                .arg(link("minutes", tr("by the minutes there are"), !byGap),
                                     link("gap", tr("by the size of the gap"), byGap))
                          : QString());
    if (byGap)
        return;
    const record::Metric metric = planning.metric;
    const plan::Spreads struck = spreads({.metric = metric});
    const plan::Spreads equal = spreads({.kind = record::OutcomeKind::equal, .metric = metric});
    plan::WaysOf ways{.question = planning.question,
                      .pace = planning.pace,
                      .turnLength = plan::shotsATurn(m_hand.test().plan),
                      .equalShot = equal.sdShot,
                      .equalTurn = equal.sdTurn};
    ways.question.sdShot = struck.sdShot;
    ways.question.sdTurn = struck.sdTurn;
    WaysView::Picture picture{
        .first = 10, .last = std::max(120.0, 2 * m_minutesThere), .minutes = m_minutesThere, .curves = {}};
    constexpr int steps = 22;
    for (const plan::Way way : plan::everyWay) {
        WaysView::Curve curve{.way = way, .at = {}, .now = plan::bestOfWay(way, ways, m_minutesThere)};
        for (int i = 0; i <= steps; ++i)
            curve.at.push_back(plan::bestOfWay(way, ways, picture.first + (picture.last - picture.first) * i / steps));
        picture.curves.push_back(std::move(curve));
    }
    m_ways->setPicture(std::move(picture));
    m_wayText->setText(m_ways->said() + tr(" · Enter takes it"));
}

void PlanPage::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    const record::Plan& plan = test.plan;
    QStringList names;
    for (const auto& build : test.builds)
        names << QString::fromStdString(build.name);
    const bool changeable = test.shots.empty() && !m_hand.isSealed();
    m_strip->setChangeable(changeable);
    const plan::Foreseen coming = plan::foreseen(test);
    m_strip->setPlan(coming.turns, names, playersOf(m_hand.test()));
    m_strip->setUnknownFrom(coming.unknownFrom);
    m_stripArea->setFixedHeight(
        std::min(mostStripHeight, m_strip->heightForWidth(std::max(600, m_stripArea->width()))));
    for (QWidget* field : {static_cast<QWidget*>(m_schedule), static_cast<QWidget*>(m_rounds),
                           static_cast<QWidget*>(m_length), static_cast<QWidget*>(m_another)})
        field->setEnabled(changeable);
    m_schedule->setCurrentIndex(static_cast<int>(plan.schedule));
    m_rounds->display(plan.rounds, 0);
    m_length->display(plan.turnLength, 0);
    m_change->display(plan.changeSeconds, 0);
    m_shot->display(plan.shotSeconds, 0);
    m_warmUp->display(plan.warmUp, 0);
    m_rest->display(plan.restEvery, 0);
    m_restSeconds->display(plan.restSeconds, 0);
    m_minutes->display(m_minutesThere, 0);
    refreshSlowChanges();
    m_totals->setText(tr("%1 swings, %2 of them to warm up · about %3 minutes with changes and rests · Left and Right "
                         "change the laps, "
                         "Up and Down the stints")
                          .arg(plan::swingsOf(plan, coming.turns))
                          .arg(plan.warmUp * std::max(1, static_cast<int>(test.players.size())))
                          .arg(QString::fromStdString(record::fixed(plan::minutesOf(plan, coming.turns), 0))));
    refreshOutcomes();
    const record::Outcome outcome = outcomeSeen();
    const Planning planning = planningOf(test, outcome, spreads(outcome));
    refreshChange();
    m_answers->setText(answersHtml(test, planning, m_minutesThere, m_book.units(), m_isByGap) +
                       looksHtml(planning, m_minutesThere));
    m_limits->setText(limitsHtml(test, planning));
    refreshPower(planning);
    refreshWays(planning);
    giveWordsRoom();
}

// The words are read whole where they can be; the picture takes what is left.
void PlanPage::giveWordsRoom() {
    constexpr int most = 164, usualWidth = 650;
    const int wide = m_words->viewport()->width() > usualWidth / 2 ? m_words->viewport()->width() : usualWidth;
    const int needed = std::max(m_answers->heightForWidth(3 * (wide - 2 * size::grid) / 5),
                                m_limits->heightForWidth(2 * (wide - 2 * size::grid) / 5));
    m_words->setMinimumHeight(std::min(most, needed + 4));
}

void PlanPage::resizeEvent(QResizeEvent* event) {
    Page::resizeEvent(event);
    giveWordsRoom();
}

// The declared outcomes; carry where none is.
void PlanPage::refreshOutcomes() {
    const int chosen = std::max(0, m_outcome->currentIndex());
    m_outcome->clear();
    for (const record::Outcome& outcome : m_hand.test().card.primary)
        m_outcome->addItem(QString::fromStdString(record::outcomeLabel(outcome)));
    if (m_outcome->count() == 0)
        m_outcome->addItem(QString::fromStdString(record::info(record::Metric::carry).label));
    m_outcome->setCurrentIndex(std::min(chosen, m_outcome->count() - 1));
}

record::Outcome PlanPage::outcomeSeen() const {
    const auto& primary = m_hand.test().card.primary;
    return primary.empty() ? record::Outcome{} : primary[static_cast<std::size_t>(m_outcome->currentIndex())];
}

void PlanPage::refreshPower(const Planning& planning) {
    const Test& test = m_hand.test();
    const record::MetricFormat format(planning.metric, m_book.units());
    PowerView::Picture picture;
    picture.unit = planning.isRatio() ? tr("times as wide") : QString::fromStdString(format.unitText());
    const double least = planning.isRatio() ? 1 : 0;
    const double largest =
        planning.isRatio() ? 6 : std::max(1.3 * plan::gapSeenByRuns(planning.question, 3), 2 * planning.question.gap);
    const auto shown = [&](double gap) { return planning.isRatio() ? gap : format.shown(gap); };
    picture.curve.smallest = shown(least);
    picture.curve.largest = shown(largest);
    picture.curve.worthwhile = shown(planning.question.gap);
    constexpr int steps = 60;
    for (int i = 0; i <= steps; ++i) {
        const double gap = std::max(least + (largest - least) * i / steps, planning.isRatio() ? 1.0001 : 0.0);
        picture.curve.plan.push_back(plan::chanceToSee(test, planning.outcome, planning.spreads, gap));
        picture.curve.runs.push_back(plan::chanceByHand(planning.outcome, planning.spreads, gap));
    }
    m_power->setPicture(std::move(picture));
}

QString PlanPage::subtitle() const {
    const Test& test = m_hand.test();
    return tr("Plan · %1 · %2")
        .arg(QString::fromStdString(record::counted(static_cast<std::size_t>(test.plan.rounds), "lap")),
             m_hand.isSealed() ? tr("sealed") : tr("not sealed"));
}

void PlanPage::takeFocus() {
    m_strip->setFocus();
}

} // namespace knot::app
