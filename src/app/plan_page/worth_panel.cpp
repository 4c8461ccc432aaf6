#include "app/plan_page/worth_panel.h"

#include "app/form/sentence_view.h"
#include "app/picture/power_view.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/earlier_tests.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/outcomes.h"
#include "core/ask/plan_sentence.h"
#include "core/plan/requirements.h"
#include "core/record/text/number_text.h"

#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::Test;

constexpr int curveSteps = 22;

constexpr std::array levelWords = {std::pair{plan::Level::steady, "a steady player"},
                                   std::pair{plan::Level::club, "a club player"},
                                   std::pair{plan::Level::occasional, "an occasional player"}};
constexpr const char* thisPlayer = "this player";

QLabel* wrapping(const char* name) {
    QLabel* label = richLabel();
    label->setObjectName(QLatin1String(name));
    label->setWordWrap(true);
    label->setAlignment(Qt::AlignTop);
    return label;
}

plan::WayOption asWay(const plan::WorthOption& option) {
    return {.way = option.way,
            .rounds = option.rounds,
            .turnLength = option.turnLength,
            .days = option.days,
            .minutes = option.minutes,
            .chance = option.worth.share};
}

} // namespace

WorthPanel::WorthPanel(const TestInHand& hand, Declaring& declaring, Book& book, const EarlierTests& earlier)
    : m_hand(hand)
    , m_declaring(declaring)
    , m_book(book)
    , m_earlier(earlier) {
    buildUi();
    wire();
}

void WorthPanel::buildUi() {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 14);
    column->setSpacing(size::grid);
    m_by = linkLabel("curvesBy");
    m_ofWhat = new SentenceView(
        "ofWhat",
        {.pieces = [this] { return ofWhat(); },
         .answers = [this](const ask::Chip& chip) { return ofWhatElse(chip); },
         .take = [this](const ask::Chip& chip, const QString& typed) { return takeOfWhat(chip, typed); }},
        size::body, ask::Part::worthOf);
    m_number = richLabel();
    m_number->setObjectName(QStringLiteral("worth"));
    m_gets = plainLabel();
    m_gets->setObjectName(QStringLiteral("gets"));
    m_gets->setWordWrap(true);
    m_power = new PowerView;
    m_ways = new WaysView;
    m_wayText = captionLabel("wayText");
    m_others = captionLabel("others");
    m_answers = wrapping("answers");
    m_limits = wrapping("limits");
    m_limits->setForegroundRole(QPalette::PlaceholderText);
    auto* words = new QWidget;
    auto* both = new QHBoxLayout(words);
    both->setContentsMargins(0, 0, 0, 0);
    both->setSpacing(2 * size::grid);
    both->addWidget(m_answers, 3);
    both->addWidget(m_limits, 2);
    m_words = scrolling(words); // with large type there is more to say than room
    column->addWidget(m_by);
    auto* gets = new QHBoxLayout;
    gets->addWidget(m_number);
    auto* beside = new QVBoxLayout;
    beside->setSpacing(2);
    beside->addWidget(m_gets);
    beside->addWidget(m_ofWhat);
    gets->addSpacing(size::grid);
    gets->addLayout(beside, 1);
    column->addLayout(gets);
    column->addWidget(m_power, 2);
    column->addWidget(m_ways, 2);
    column->addWidget(m_wayText);
    column->addWidget(m_words, 1);
    column->addWidget(m_others);
}

void WorthPanel::wire() {
    connect(m_ways, &WaysView::minutesWanted, this, [this](double minutes) {
        m_minutesThere = std::clamp(minutes, 5.0, 600.0);
        emit changed();
    });
    connect(m_ways, &WaysView::taken, this, &WorthPanel::takeWay);
    connect(m_ways, &WaysView::looked, this, [this] { m_wayText->setText(m_ways->said() + tr(" · Enter takes it")); });
    connect(m_by, &QLabel::linkActivated, this, [this](const QString& link) {
        m_shows = link == QStringLiteral("gap")     ? Shows::bySize
                  : link == QStringLiteral("proof") ? Shows::proof
                                                    : Shows::worth;
        emit changed();
    });
}

bool WorthPanel::isChangeable() const {
    return m_hand.test().shots.empty() && !m_hand.isSealed();
}

void WorthPanel::takeOwnSpreads() {
    const bool known = m_earlier.learnt().own.contains(record::Metric::carry);
    m_level = known ? std::nullopt : std::optional(m_level.value_or(plan::Level::club));
    emit changed();
}

plan::Spreads WorthPanel::spreads(const record::Outcome& outcome) const {
    return m_earlier.spreads(outcome, m_level);
}

record::Outcome WorthPanel::outcomeSeen() const {
    const auto& primary = m_hand.test().card.primary;
    return primary.empty() ? record::Outcome{} : primary[std::min(m_outcome, primary.size() - 1)];
}

// "of the [carry] there is to be had among three shafts, for [a club player]"
std::vector<ask::Piece> WorthPanel::ofWhat() const {
    if (!m_hand.has())
        return {};
    const auto level = std::ranges::find_if(levelWords, [&](const auto& one) { return m_level == one.first; });
    return {{m_shows == Shows::worth ? "of the" : "in"},
            {record::outcomeLabel(outcomeSeen()), ask::Chip{ask::Part::worthOf}},
            {m_shows == Shows::worth ? "there is to be had, for" : ", for"},
            {level == levelWords.end() ? thisPlayer : level->second, ask::Chip{ask::Part::spreadOf}}};
}

std::vector<ask::Answer> WorthPanel::ofWhatElse(const ask::Chip& chip) const {
    std::vector<ask::Answer> answers;
    if (chip.part == ask::Part::worthOf)
        for (const record::Outcome& outcome : m_hand.test().card.primary)
            answers.push_back({record::outcomeLabel(outcome), {}});
    else {
        for (const auto& [level, text] : levelWords)
            answers.push_back({text, {}});
        answers.push_back({thisPlayer, {}});
    }
    return answers;
}

QString WorthPanel::takeOfWhat(const ask::Chip& chip, const QString& typed) {
    const auto answers = ofWhatElse(chip);
    const auto meant = ask::found(answers, typed.toStdString());
    if (meant.empty())
        return tr("“%1” is not among what can stand here; the down arrow shows it all.").arg(typed);
    const auto at =
        static_cast<std::size_t>(std::ranges::find(answers, meant.front().text, &ask::Answer::text) - answers.begin());
    if (chip.part == ask::Part::worthOf)
        m_outcome = at;
    else
        m_level = at < levelWords.size() ? std::optional(levelWords.at(at).first) : std::nullopt;
    emit changed();
    return {};
}

// What a way asks of the plan, and nothing that another way asked of it before; at equal delivery and the typical shot
// are other questions, and said on the Sheet.
void WorthPanel::takeWay(const plan::WayOption& option) {
    if (!isChangeable())
        return;
    const record::Outcome seen = outcomeSeen();
    m_declaring.change(tr("the plan"), [&](record::Declared& test) {
        test.plan.schedule = option.way == plan::Way::threeEach ? record::Schedule::oneRunEach
                             : option.turnLength == 1           ? record::Schedule::shotByShot
                                                                : record::Schedule::rotated;
        test.plan.rounds = std::min(option.rounds * option.days, ask::mostLaps);
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

plan::WorthOf WorthPanel::worthOf(const record::Outcome& outcome) const {
    const Test& test = m_hand.test();
    return {.test = test,
            .outcome = outcome,
            .struck = spreads(outcome),
            .tau = plan::scaleOf(test, outcome, m_earlier.gapScale(outcome.metric)),
            .pace = plan::paceOf(test.plan),
            .turnLength = plan::shotsATurn(test.plan),
            .equal = spreads({.kind = record::OutcomeKind::equal, .metric = outcome.metric, .shape = {}})};
}

// Where nothing is wanted of a number no choice hangs on it: there is only the chance to see a gap.
WorthPanel::Shows WorthPanel::shows() const {
    const record::Card& card = m_hand.test().card;
    const bool isToKnow = !card.primary.empty() && card.want(outcomeSeen()).kind == record::Want::Kind::none;
    return isToKnow && m_shows == Shows::worth ? Shows::proof : m_shows;
}

void WorthPanel::refresh() {
    const Test& test = m_hand.test();
    const record::Outcome outcome = outcomeSeen();
    const Planning planning = planningOf(test, outcome, spreads(outcome));
    const Shows now = shows();
    const bool isByMinutes = now == Shows::proof && !planning.isRatio() && outcome.kind != record::OutcomeKind::share;
    m_ofWhat->refresh();
    showParts(now, isByMinutes);
    if (now == Shows::worth)
        return refreshWorth(planning);
    m_answers->setText(answersHtml(test, planning, planning.minutes, m_book.units()) +
                       looksHtml(planning, planning.minutes));
    m_limits->setText(byHandHtml(planning, m_book.units()) + limitsHtml(test, planning));
    if (isByMinutes)
        refreshProof(planning);
    else
        refreshPower(planning);
    giveWordsRoom();
}

void WorthPanel::showParts(Shows shows, bool isByMinutes) {
    const bool isWorth = shows == Shows::worth;
    for (QWidget* widget :
         {static_cast<QWidget*>(m_number), static_cast<QWidget*>(m_gets), static_cast<QWidget*>(m_others)})
        widget->setVisible(isWorth);
    m_ways->setVisible(isWorth || isByMinutes);
    m_wayText->setVisible(isWorth || isByMinutes);
    m_power->setVisible(!isWorth && !isByMinutes);
    m_words->setVisible(!isWorth);
    const auto link = [](const char* to, const QString& text, bool isNow) {
        return isNow ? QStringLiteral("<b>%1</b>").arg(text)
                     : QStringLiteral("<a href='%1' style='color:%2'>%3</a>")
                           .arg(QLatin1String(to), colours().link.name(), text);
    };
    const bool isToKnow = !isWorth && m_shows == Shows::worth;
    m_by->setText((isToKnow ? tr("Nothing is wanted of it") : link("worth", tr("What it is worth"), isWorth)) +
                  QStringLiteral(" · ") + link("proof", tr("What it can prove"), shows == Shows::proof) +
                  QStringLiteral(" · ") + link("gap", tr("by size"), shows == Shows::bySize));
}

std::vector<double> WorthPanel::steps() const {
    const double last = std::max(120.0, 2 * *m_minutesThere);
    std::vector<double> minutes;
    for (int i = 0; i <= curveSteps; ++i)
        minutes.push_back(10 + (last - 10) * i / curveSteps);
    return minutes;
}

void WorthPanel::showWays(WaysView::Measure measure, std::vector<WaysView::Curve> curves,
                          std::optional<QPointF> planned) {
    m_ways->setPicture({.measure = measure,
                        .first = steps().front(),
                        .last = steps().back(),
                        .minutes = *m_minutesThere,
                        .curves = std::move(curves),
                        .plan = planned});
    m_wayText->setText(m_ways->said() + (isChangeable() ? tr(" · Enter takes it") : QString()));
}

// Where nothing else was asked for: what the plan takes, or an evening's.
void WorthPanel::setMinutes(const Planning& planning) {
    const double usual = isStruckAsItCame(m_hand.test()) ? eveningMinutes : std::max(planning.minutes, 10.0);
    m_minutesThere = m_minutesThere.value_or(5 * std::round(usual / 5));
}

void WorthPanel::refreshWorth(const Planning& planning) {
    const Test& test = m_hand.test();
    const plan::WorthOf of = worthOf(planning.outcome);
    const bool asItCame = isStruckAsItCame(m_hand.test());
    const plan::Worth worth = asItCame ? plan::worthStruck(test, of.outcome, of.struck, of.tau)
                                       : plan::worthOfPlan(test, of.outcome, of.struck, of.tau).worth;
    const plan::Worth hand = plan::worthByHand(test, of.outcome, of.struck, of.tau).worth;
    m_number->setText(QStringLiteral("<span style='font-size:38px;font-weight:700'>%1</span> %2")
                          .arg(qRound(100 * worth.share))
                          .arg(tr("of 100")));
    m_gets->setText(getsText(of.outcome, worth, hand, m_book.units()));
    setMinutes(planning);
    std::vector<WaysView::Curve> curves;
    for (const plan::Way way : plan::worthWays(of.outcome)) {
        WaysView::Curve curve{.way = way, .at = {}, .now = {}};
        auto option = [&](double minutes) {
            const auto most = plan::mostWorth(way, of, minutes);
            return most ? std::optional(asWay(*most)) : std::nullopt;
        };
        for (const double minutes : steps())
            curve.at.push_back(option(minutes));
        curve.now = option(*m_minutesThere);
        curves.push_back(std::move(curve));
    }
    showWays(WaysView::Measure::worth, std::move(curves),
             asItCame ? std::nullopt : std::optional(QPointF(planning.minutes, worth.share)));
    m_others->setText(asItCame ? QString() : othersText(test, of, [this](const record::Outcome& outcome) {
        return worthOf(outcome);
    }));
}

void WorthPanel::refreshProof(const Planning& planning) {
    const plan::WorthOf of = worthOf(planning.outcome);
    plan::WaysOf ways{.question = planning.question,
                      .pace = planning.pace,
                      .turnLength = of.turnLength,
                      .equalShot = of.equal.sdShot,
                      .equalTurn = of.equal.sdTurn};
    const plan::Spreads struck = spreads({.metric = planning.metric, .shape = {}});
    ways.question.sdShot = struck.sdShot;
    ways.question.sdTurn = struck.sdTurn;
    setMinutes(planning);
    std::vector<WaysView::Curve> curves;
    for (const plan::Way way : plan::everyWay) {
        WaysView::Curve curve{.way = way, .at = {}, .now = plan::bestOfWay(way, ways, *m_minutesThere)};
        for (const double minutes : steps())
            curve.at.push_back(plan::bestOfWay(way, ways, minutes));
        curves.push_back(std::move(curve));
    }
    showWays(WaysView::Measure::proof, std::move(curves), std::nullopt);
}

// The words are read whole where they can be; the picture takes what is left.
void WorthPanel::giveWordsRoom() {
    constexpr int most = 164, usualWidth = 650;
    const int wide = m_words->viewport()->width() > usualWidth / 2 ? m_words->viewport()->width() : usualWidth;
    const int needed = std::max(m_answers->heightForWidth(3 * (wide - 2 * size::grid) / 5),
                                m_limits->heightForWidth(2 * (wide - 2 * size::grid) / 5));
    m_words->setMinimumHeight(std::min(most, needed + 4));
}

void WorthPanel::refreshPower(const Planning& planning) {
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
        picture.curve.runs.push_back(plan::chanceByHand(test, planning.outcome, planning.spreads, gap));
    }
    m_power->setPicture(std::move(picture));
}

} // namespace knot::app
