#include "app/plan_page/plan_page.h"

#include "app/form/panel.h"
#include "app/form/sentence_view.h"
#include "app/picture/strip_view.h"
#include "app/plan_page/futures_view.h"
#include "app/plan_page/seal_panel.h"
#include "app/plan_page/worth_panel.h"
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

constexpr int mostStripHeight = 120; // two rows and a half: beyond that it scrolls

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
    m_worth = new WorthPanel(m_hand, m_declaring, m_book, m_earlier);
    row->addWidget(m_worth, 7);
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
    m_sentence =
        new SentenceView("planSentence",
                         declaredSentence(
                             m_hand, m_declaring, m_book,
                             [this](const Test& test) {
                                 if (!isStruckAsItCame(m_hand.test()))
                                     return ask::planSentenceOf(test);
                                 std::string facts;
                                 for (const std::string& fact : words::struckFacts(test))
                                     facts += (facts.empty() ? "" : " ") + fact;
                                 return std::vector<ask::Piece>{{facts}};
                             },
                             [this](const ask::Chip& chip) {
                                 return (ask::standsOncePlanned(chip.part) && !isChangeable()) ||
                                        ((chip.part == ask::Part::grade || chip.part == ask::Part::handsOver) &&
                                         m_hand.test().seal.wasMade());
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
    connect(m_worth, &WorthPanel::changed, this, &PlanPage::markStale);
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
            test.plan.rounds = std::clamp(test.plan.rounds + change, 1, ask::mostLaps);
        });
    });
    connect(m_strip, &StripView::lengthWanted, this, [this](int change) {
        m_declaring.change(tr("the length of a stint"), [&](record::Declared& test) {
            test.plan.turnLength = std::clamp(test.plan.turnLength + change, 1, ask::longestStint);
        });
    });
    connect(&m_hand, &TestInHand::replaced, this, [this] {
        m_worth->forget();
        showSeal(m_hand.has() && m_hand.test().seal.wasMade());
        m_worth->takeOwnSpreads();
        markStale();
    });
    connect(&m_earlier, &EarlierTests::changed, this, [this] {
        m_worth->takeOwnSpreads();
        markStale();
    });
    connect(&m_declaring, &Declaring::changed, this, &PlanPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &PlanPage::markStale);
}

bool PlanPage::isChangeable() const {
    return m_hand.test().shots.empty() && !m_hand.isSealed();
}

void PlanPage::showSeal(bool isShown) {
    m_beside->setCurrentIndex(isShown ? 1 : 0);
    m_beside->widget(0)->setEnabled(!isShown);
    markStale();
}

void PlanPage::refresh() {
    if (!m_hand.has())
        return;
    refreshStrip();
    refreshFutures(m_worth->outcomeSeen());
    m_worth->refresh();
}

void PlanPage::refreshStrip() {
    const Test& test = m_hand.test();
    const bool asItCame = isStruckAsItCame(m_hand.test());
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
    m_totals->setText(asItCame ? nextTestText(m_worth->worthOf(m_worth->outcomeSeen()))
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

// Of the plan, or, where a record was struck without one, of the test that its clubs would have next.
void PlanPage::refreshFutures(const record::Outcome& outcome) {
    const plan::WorthOf of = m_worth->worthOf(outcome);
    Test test = m_hand.test();
    if (const auto next = isStruckAsItCame(m_hand.test()) ? nextTest(of) : std::nullopt) {
        test.plan.schedule = record::Schedule::rotated;
        test.plan.rounds = next->rounds;
        test.plan.turnLength = next->turnLength;
    }
    const plan::PlanWorth planned = plan::worthOfPlan(test, outcome, of.struck, of.tau);
    m_futures->setFutures(planned.futures);
    m_futures->setLeft(leftText(planned, m_book.units()));
    m_ifBetter->setText((isStruckAsItCame(m_hand.test()) ? tr("of the planned test: ") : QString()) +
                        ifBetterText(planned, m_book.units()));
    m_futuresText->setText(otherFuturesText(plan::worthByHand(test, outcome, of.struck, of.tau),
                                            plan::worthOfPlan(test, outcome, of.struck, of.tau, {}, 2)));
}

void PlanPage::resizeEvent(QResizeEvent* event) {
    Page::resizeEvent(event);
    m_worth->giveWordsRoom();
}

QString PlanPage::subtitle() const {
    const Test& test = m_hand.test();
    if (isStruckAsItCame(m_hand.test()))
        return tr("Plan · struck as it came");
    return tr("Plan · %1 of %2 · %3 · a lap is every club once, a stint one club's shots in a row")
        .arg(QString::fromStdString(record::counted(static_cast<std::size_t>(test.plan.rounds), "lap")))
        .arg(plan::shotsATurn(test.plan))
        .arg(m_hand.isSealed() ? tr("sealed") : tr("not sealed"));
}

void PlanPage::takeFocus() {
    m_strip->setFocus();
}

} // namespace knot::app
