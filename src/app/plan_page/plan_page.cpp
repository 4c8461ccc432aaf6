#include "app/plan_page/plan_page.h"

#include "app/form/panel.h"
#include "app/form/sentence_view.h"
#include "app/picture/power_view.h"
#include "app/picture/strip_view.h"
#include "app/plan_page/futures_view.h"
#include "app/plan_page/seal_panel.h"
#include "app/session/book.h"
#include "app/session/declared_sentence.h"
#include "app/session/declaring.h"
#include "app/session/earlier_tests.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/outcomes.h"
#include "core/ask/plan_sentence.h"
#include "core/plan/requirements.h"
#include "core/plan/schedule.h"
#include "core/plan/strike_off.h"
#include "core/record/structure.h"
#include "core/record/text/number_text.h"
#include "core/words/struck.h"

#include <QPushButton>
#include <QRandomGenerator>
#include <QScrollArea>
#include <QShortcut>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::Test;

constexpr int mostRounds = 60, longestTurn = 30;
constexpr int mostStripHeight = 120; // two rows and a half: beyond that it scrolls
constexpr int curveSteps = 22;

constexpr std::array levelWords = {std::pair{plan::Level::steady, "a steady player"},
                                   std::pair{plan::Level::club, "a club player"},
                                   std::pair{plan::Level::occasional, "an occasional player"}};
constexpr const char* thisPlayer = "this player";

QLabel* linkLabel(const char* name) {
    QLabel* label = richLabel();
    label->setObjectName(QLatin1String(name));
    label->setFont(typeface(size::caption));
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    return label;
}

QLabel* wrapping(const char* name) {
    QLabel* label = richLabel();
    label->setObjectName(QLatin1String(name));
    label->setWordWrap(true);
    label->setAlignment(Qt::AlignTop);
    return label;
}

// The stints of a record as a plan would have them.
std::vector<record::PlannedTurn> struckTurns(const Test& test) {
    std::vector<record::PlannedTurn> turns;
    for (const record::Turn& turn : record::structureOf(test).turns)
        turns.push_back({.build = turn.build,
                         .round = static_cast<int>(turn.lap) + 1,
                         .shots = static_cast<int>(turn.shots.size()),
                         .player = record::PlayerAt(turn.player)});
    return turns;
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
    row->addWidget(buildWorth(), 7);
    m_beside = new QStackedWidget;
    m_beside->addWidget(buildFutures());
    m_seal = new SealPanel(m_hand, m_declaring);
    m_beside->addWidget(m_seal);
    row->addWidget(m_beside, 4);
    column->addLayout(row, 1);
    wire();
}

QWidget* PlanPage::buildStrip() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
    m_sentence = new SentenceView("planSentence",
                                  declaredSentence(
                                      m_hand, m_declaring, m_book,
                                      [this](const Test& test) {
                                          if (!isStruckAsItCame())
                                              return ask::planSentenceOf(test);
                                          std::string facts;
                                          for (const std::string& fact : words::struckFacts(test))
                                              facts += (facts.empty() ? "" : " ") + fact;
                                          return std::vector<ask::Piece>{{facts}};
                                      },
                                      [this](const ask::Chip& chip) {
                                          return (ask::standsOncePlanned(chip.part) && !isChangeable()) ||
                                                 (chip.part == ask::Part::grade && m_hand.test().seal.wasMade());
                                      },
                                      &m_earlier),
                                  size::strong, ask::Part::minutes);
    column->addWidget(m_sentence);
    m_strip = new StripView;
    QScrollArea* laps = scrolling(m_strip);
    laps->setMaximumHeight(mostStripHeight);
    m_stripArea = laps;
    column->addWidget(laps);
    m_totals = captionLabel("totals");
    m_another = new QPushButton(tr("&Another order"));
    m_another->setObjectName(QStringLiteral("anotherOrder"));
    m_sealKey = new QPushButton;
    m_sealKey->setObjectName(QStringLiteral("sealButton"));
    auto* row = new QHBoxLayout;
    row->addWidget(m_totals, 1);
    row->addWidget(m_another);
    row->addWidget(m_sealKey);
    column->addLayout(row);
    m_cautions = linkLabel("cautions");
    column->addWidget(m_cautions);
    return panel;
}

QWidget* PlanPage::buildWorth() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
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
    auto* beside = new QHBoxLayout(words);
    beside->setContentsMargins(0, 0, 0, 0);
    beside->setSpacing(2 * size::grid);
    beside->addWidget(m_answers, 3);
    beside->addWidget(m_limits, 2);
    m_words = scrolling(words); // with large type there is more to say than room
    auto* head = new QHBoxLayout;
    head->addWidget(m_by, 0);
    head->addSpacing(2 * size::grid);
    head->addWidget(m_ofWhat, 1);
    m_by->setWordWrap(false);
    column->addLayout(head);
    auto* gets = new QHBoxLayout;
    gets->addWidget(m_number);
    gets->addSpacing(2 * size::grid);
    gets->addWidget(m_gets, 1);
    column->addLayout(gets);
    column->addWidget(m_power, 2);
    column->addWidget(m_ways, 2);
    column->addWidget(m_wayText);
    column->addWidget(m_words, 1);
    column->addWidget(m_others);
    return panel;
}

QWidget* PlanPage::buildFutures() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("A hundred futures"), column);
    m_ifBetter = captionLabel("ifBetter");
    m_futures = new FuturesView;
    m_futuresText = captionLabel("futuresText");
    column->addWidget(m_ifBetter);
    column->addWidget(m_futures, 1);
    column->addWidget(m_futuresText);
    return panel;
}

void PlanPage::wire() {
    connect(m_ways, &WaysView::minutesWanted, this, [this](double minutes) {
        m_minutesThere = std::clamp(minutes, 5.0, 600.0);
        markStale();
    });
    connect(m_ways, &WaysView::taken, this, &PlanPage::takeWay);
    connect(m_ways, &WaysView::looked, this, [this] { m_wayText->setText(m_ways->said() + tr(" · Enter takes it")); });
    connect(m_by, &QLabel::linkActivated, this, [this](const QString& link) {
        m_shows = link == QStringLiteral("gap")     ? Shows::bySize
                  : link == QStringLiteral("proof") ? Shows::proof
                                                    : Shows::worth;
        markStale();
    });
    connect(m_cautions, &QLabel::linkActivated, this, [this](const QString& laps) {
        m_declaring.change(tr("the number of laps"), [&](record::Declared& test) { test.plan.rounds = laps.toInt(); });
    });
    connect(m_another, &QPushButton::clicked, this, [this] {
        m_declaring.change(tr("the order drawn"),
                           [](record::Declared& test) { test.plan.seed = QRandomGenerator::system()->generate64(); });
    });
    connect(m_sealKey, &QPushButton::clicked, this, [this] {
        const bool isToSeal = m_hand.test().card.blinding != record::Blinding::open && !m_hand.test().seal.wasMade();
        if (m_beside->currentIndex() == 1 && !isToSeal)
            return showSeal(false);
        showSeal(true);
        if (isToSeal)
            m_seal->askSeal();
    });
    auto* who = new QShortcut(QKeySequence(Qt::ALT | Qt::Key_W), this);
    connect(who, &QShortcut::activated, this, [this] { m_sentence->takeFocus(ask::Part::grade); });
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
    connect(&m_hand, &TestInHand::replaced, this, [this] {
        m_minutesThere.reset();
        showSeal(m_hand.has() && m_hand.test().seal.wasMade());
        takeOwnSpreads();
    });
    connect(&m_earlier, &EarlierTests::changed, this, &PlanPage::takeOwnSpreads);
    connect(&m_declaring, &Declaring::changed, this, &PlanPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &PlanPage::markStale);
}

bool PlanPage::isChangeable() const {
    return m_hand.test().shots.empty() && !m_hand.isSealed();
}

bool PlanPage::isStruckAsItCame() const {
    return !m_hand.test().shots.empty() && m_hand.test().turns.empty();
}

void PlanPage::showSeal(bool isShown) {
    m_beside->setCurrentIndex(isShown ? 1 : 0);
    m_beside->widget(0)->setEnabled(!isShown);
    markStale();
}

void PlanPage::takeOwnSpreads() {
    const bool known = m_earlier.learnt().own.contains(record::Metric::carry);
    m_level = known ? std::nullopt : std::optional(m_level.value_or(plan::Level::club));
    markStale();
}

plan::Spreads PlanPage::spreads(const record::Outcome& outcome) const {
    return m_earlier.spreads(outcome, m_level);
}

std::optional<double> PlanPage::learntScale(const record::Outcome& outcome) const {
    const auto at = m_earlier.learnt().gapScales.find(outcome.metric);
    return at == m_earlier.learnt().gapScales.end() ? std::nullopt : std::optional(at->second);
}

record::Outcome PlanPage::outcomeSeen() const {
    const auto& primary = m_hand.test().card.primary;
    return primary.empty() ? record::Outcome{} : primary[std::min(m_outcome, primary.size() - 1)];
}

// "of the [carry] there is to be had among three shafts, for [a club player]"
std::vector<ask::Piece> PlanPage::ofWhat() const {
    if (!m_hand.has())
        return {};
    const auto level = std::ranges::find_if(levelWords, [&](const auto& one) { return m_level == one.first; });
    return {{m_shows == Shows::worth ? "of the" : "in"},
            {record::outcomeLabel(outcomeSeen()), ask::Chip{ask::Part::worthOf}},
            {m_shows == Shows::worth ? "there is to be had, for" : ", for"},
            {level == levelWords.end() ? thisPlayer : level->second, ask::Chip{ask::Part::spreadOf}}};
}

std::vector<ask::Answer> PlanPage::ofWhatElse(const ask::Chip& chip) const {
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

QString PlanPage::takeOfWhat(const ask::Chip& chip, const QString& typed) {
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
    markStale();
    return {};
}

// What a way asks of the plan, and nothing that another way asked of it before; at equal delivery and the typical shot
// are other questions, and said on the Sheet.
void PlanPage::takeWay(const plan::WayOption& option) {
    if (!isChangeable())
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

void PlanPage::refresh() {
    if (!m_hand.has())
        return;
    refreshStrip();
    const Test& test = m_hand.test();
    const record::Outcome outcome = outcomeSeen();
    const Planning planning = planningOf(test, outcome, spreads(outcome));
    m_ofWhat->refresh();
    const bool isWorth = m_shows == Shows::worth;
    const bool isByMinutes =
        m_shows == Shows::proof && !planning.isRatio() && outcome.kind != record::OutcomeKind::share;
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
    m_by->setText(link("worth", tr("What it is worth"), isWorth) + QStringLiteral(" · ") +
                  link("proof", tr("What it can prove"), m_shows == Shows::proof) + QStringLiteral(" · ") +
                  link("gap", tr("by size"), m_shows == Shows::bySize));
    refreshFutures(outcome);
    if (isWorth)
        return refreshWorth(planning);
    m_answers->setText(answersHtml(test, planning, planning.minutes, m_book.units(), m_shows == Shows::bySize) +
                       looksHtml(planning, planning.minutes));
    m_limits->setText(limitsHtml(test, planning));
    if (isByMinutes)
        refreshProof(planning);
    else
        refreshPower(planning);
    giveWordsRoom();
}

void PlanPage::refreshStrip() {
    const Test& test = m_hand.test();
    const bool asItCame = isStruckAsItCame();
    m_sentence->refresh();
    QStringList names;
    for (const auto& build : test.builds)
        names << QString::fromStdString(build.name);
    m_strip->setChangeable(isChangeable());
    const plan::Foreseen coming = plan::foreseen(test);
    m_strip->setPlan(asItCame ? struckTurns(test) : coming.turns, names, playersOf(test));
    m_strip->setUnknownFrom(coming.unknownFrom);
    m_stripArea->setFixedHeight(
        std::min(mostStripHeight, m_strip->heightForWidth(std::max(600, m_stripArea->width()))));
    m_another->setVisible(isChangeable());
    m_totals->setText(asItCame ? nextTestText(worthOf(outcomeSeen()))
                               : tr("%1 swings · %2 minutes%3")
                                     .arg(plan::swingsOf(test.plan, coming.turns))
                                     .arg(qRound(plan::minutesOf(test.plan, coming.turns)))
                                     .arg(isChangeable() ? tr(" · arrows change laps and stints") : QString()));
    const bool isBlind = test.card.blinding != record::Blinding::open;
    m_sealKey->setVisible(!asItCame || test.seal.wasMade());
    m_sealKey->setText(isBlind && !test.seal.wasMade() ? test.card.alone ? tr("&Tags on…") : tr("&Seal…")
                       : m_beside->currentIndex() == 1 ? tr("A hundred &futures")
                       : test.seal.wasMade()           ? tr("The &seal")
                                                       : tr("Order &slip"));
    const QString cautions = cautionsHtml(test);
    m_cautions->setText(cautions);
    m_cautions->setVisible(!cautions.isEmpty());
}

plan::WorthOf PlanPage::worthOf(const record::Outcome& outcome) const {
    const Test& test = m_hand.test();
    return {.test = test,
            .outcome = outcome,
            .struck = spreads(outcome),
            .tau = plan::scaleOf(test, outcome, learntScale(outcome)),
            .pace = plan::paceOf(test.plan),
            .turnLength = plan::shotsATurn(test.plan),
            .equal = spreads({.kind = record::OutcomeKind::equal, .metric = outcome.metric, .shape = {}})};
}

std::vector<double> PlanPage::steps() const {
    const double last = std::max(120.0, 2 * *m_minutesThere);
    std::vector<double> minutes;
    for (int i = 0; i <= curveSteps; ++i)
        minutes.push_back(10 + (last - 10) * i / curveSteps);
    return minutes;
}

void PlanPage::showWays(WaysView::Measure measure, std::vector<WaysView::Curve> curves,
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
void PlanPage::setMinutes(const Planning& planning) {
    const double usual = isStruckAsItCame() ? eveningMinutes : std::max(planning.minutes, 10.0);
    m_minutesThere = m_minutesThere.value_or(5 * std::round(usual / 5));
}

void PlanPage::refreshWorth(const Planning& planning) {
    const Test& test = m_hand.test();
    const plan::WorthOf of = worthOf(planning.outcome);
    const bool asItCame = isStruckAsItCame();
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

void PlanPage::refreshProof(const Planning& planning) {
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

// Of the plan, or, where a record was struck without one, of the test that its clubs would have next.
void PlanPage::refreshFutures(const record::Outcome& outcome) {
    const plan::WorthOf of = worthOf(outcome);
    Test test = m_hand.test();
    if (const auto next = isStruckAsItCame() ? nextTest(of) : std::nullopt) {
        test.plan.schedule = record::Schedule::rotated;
        test.plan.rounds = next->rounds;
        test.plan.turnLength = next->turnLength;
    }
    const plan::PlanWorth planned = plan::worthOfPlan(test, outcome, of.struck, of.tau);
    m_futures->setFutures(planned.futures);
    m_futures->setLeft(leftText(planned, m_book.units()));
    m_ifBetter->setText((isStruckAsItCame() ? tr("of the planned test: ") : QString()) +
                        ifBetterText(planned, m_book.units()));
    m_futuresText->setText(otherFuturesText(plan::worthByHand(test, outcome, of.struck, of.tau),
                                            plan::worthOfPlan(test, outcome, of.struck, of.tau, {}, 2)));
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
    if (isStruckAsItCame())
        return tr("Plan · struck as it came");
    return tr("Plan · %1 of %2 · %3")
        .arg(QString::fromStdString(record::counted(static_cast<std::size_t>(test.plan.rounds), "lap")))
        .arg(plan::shotsATurn(test.plan))
        .arg(m_hand.isSealed() ? tr("sealed") : tr("not sealed"));
}

void PlanPage::takeFocus() {
    m_strip->setFocus();
}

} // namespace knot::app
