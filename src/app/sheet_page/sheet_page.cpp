#include "app/sheet_page/sheet_page.h"

#include "app/form/number_field.h"
#include "app/form/open_line.h"
#include "app/form/panel.h"
#include "app/form/sentence_view.h"
#include "app/form/typed.h"
#include "app/session/book.h"
#include "app/session/declared_sentence.h"
#include "app/session/declaring.h"
#include "app/session/earlier_tests.h"
#include "app/session/test_in_hand.h"
#include "app/sheet_page/player_card.h"
#include "app/sheet_page/takes_panel.h"
#include "app/sheet_page/tie_row.h"
#include "app/sheet_page/wanted_line.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/sentence.h"
#include "core/record/control.h"
#include "core/record/text/moment.h"
#include "core/record/text/number_text.h"
#include "core/record/typed/club_names.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

using record::Card;
using record::Test;

QString ruleText(record::SetAsideRule rule) {
    switch (rule) {
    case record::SetAsideRule::keepAll:
        return SheetPage::tr("Every shot counts. Nothing can be picked; a few bad ones widen everything.");
    case record::SetAsideRule::called:
        return SheetPage::tr(
            "The player calls a bad one before its number shows. Costs little, if the call is honest.");
    case record::SetAsideRule::untilGood:
        return SheetPage::tr("Each stint goes on until enough good ones are hit. The share set aside is judged too: "
                             "a club that needs more tries is harder to hit.");
    case record::SetAsideRule::byNumbers:
        return SheetPage::tr("A rule that looks at numbers makes chance finds of 5 in 100 into 8 to 12. Verdicts then "
                             "come from all read shots, with the rest beside them.");
    case record::SetAsideRule::bestAndWorst:
        return SheetPage::tr(
            "Dropping best and worst hides the spread and makes chance finds of 5 in 100 into 8 to 12. "
            "Verdicts then come from all read shots.");
    }
    return {};
}

void showText(QLineEdit* field, const std::string& text) {
    if (!field->hasFocus())
        field->setText(QString::fromStdString(text));
}

QFrame* hairline() {
    auto* line = new QFrame;
    line->setFixedHeight(1);
    line->setAutoFillBackground(true);
    QPalette palette = line->palette();
    palette.setColor(QPalette::Window, colours().line);
    line->setPalette(palette);
    return line;
}

} // namespace

SheetPage::SheetPage(const TestInHand& hand, Declaring& declaring, Book& book, const EarlierTests& earlier,
                     QWidget* parent)
    : Page(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book) {
    QVBoxLayout* rows = scrollingRows(this);
    auto* above = new QHBoxLayout;
    auto* below = new QHBoxLayout;
    for (QHBoxLayout* row : {above, below})
        row->setSpacing(2 * size::grid);
    m_takes = new TakesPanel(m_hand, m_book, earlier);
    m_player = new PlayerCard(m_hand, m_book);
    above->addWidget(buildSentence(), 7);
    above->addWidget(m_takes, 4);
    below->addWidget(buildHeld(), 5);
    below->addWidget(m_player, 6);
    rows->addLayout(above);
    rows->addLayout(below, 1);
    wire();
    connect(&earlier, &EarlierTests::changed, this, &SheetPage::markStale);
}

QWidget* SheetPage::buildSentence() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
    column->setSpacing(2);
    m_question = new QLineEdit;
    m_question->setObjectName(QStringLiteral("question"));
    m_question->setAccessibleName(tr("The question in your own words"));
    m_question->setPlaceholderText(tr("in your own words, if you like"));
    m_question->setFrame(false);
    m_question->setStyleSheet(QStringLiteral("QLineEdit{background:transparent;border:none;padding:0 2px}"));
    auto* inWords = new QHBoxLayout;
    QLabel* question = captionLabel("questionLabel", tr("&Question"));
    question->setBuddy(m_question);
    question->setFixedWidth(78);
    question->setContentsMargins(4, 0, 0, 0);
    inWords->setSpacing(4);
    inWords->addWidget(question);
    inWords->addWidget(m_question, 1);
    m_sentence =
        new SentenceView("sentence",
                         declaredSentence(
                             m_hand, m_declaring, m_book,
                             [this](const record::Test& test) { return ask::sentenceOf(test, m_book.units()); },
                             // Whose shots they are is the record's from the first one on where there are several.
                             [this](const ask::Chip& chip) {
                                 return chip.part == ask::Part::player && !m_hand.test().shots.empty() &&
                                        m_hand.test().players.size() > 1;
                             }),
                         size::sentence, ask::Part::against);
    m_frozen = captionLabel("frozen");
    column->addSpacing(4);
    column->addWidget(m_sentence);
    column->addWidget(m_frozen);
    column->addSpacing(4);
    column->addWidget(hairline());
    column->addSpacing(4);
    column->addLayout(inWords);
    m_expectedLine = buildExpected();
    m_badShots = buildBadShots();
    m_looking = buildLooking();
    m_wanted = new WantedLine(m_hand, m_declaring, m_book);
    for (OpenLine* line : {m_expectedLine, m_badShots, m_looking, static_cast<OpenLine*>(m_wanted)})
        column->addWidget(line);
    column->addStretch();
    return panel;
}

QWidget* SheetPage::buildHeld() {
    auto* panel = new Panel;
    auto* column = new QVBoxLayout(panel);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 12);
    column->setSpacing(4);
    auto* head = new QHBoxLayout;
    head->addWidget(headingLabel(tr("Held constant")));
    head->addStretch();
    m_heldCount = captionLabel("heldCount");
    m_heldCount->setWordWrap(false);
    head->addWidget(m_heldCount);
    column->addLayout(head);
    m_heldRows = new QVBoxLayout;
    m_heldRows->setSpacing(0);
    column->addLayout(m_heldRows);
    column->addStretch();
    return panel;
}

OpenLine* SheetPage::buildExpected() {
    auto* line = new OpenLine(tr("E&xpected"), "expected");
    m_expectMetric = choiceBox({});
    for (const auto metric : record::allMetrics())
        m_expectMetric->addItem(QString::fromStdString(record::info(metric).label), static_cast<int>(metric));
    m_expectMetric->setMaxVisibleItems(24);
    m_expectMetric->setCurrentIndex(static_cast<int>(record::Metric::spin));
    m_expect = choiceBox({QStringLiteral("–"), tr("no change"), tr("up"), tr("down")});
    m_order = new QLineEdit;
    m_order->setPlaceholderText(tr("the best first: a few letters of each"));
    m_expectedBy = new QLineEdit;
    m_expectedBy->setPlaceholderText(tr("player, fitter"));
    m_orderFault = captionLabel("orderFault");
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("Number"), m_expectMetric, "expectMetric"), 3);
    row->addWidget(labelled(tr("Will be"), m_expect, "expect"), 2);
    row->addWidget(labelled(tr("Clubs in the order expected"), m_order, "expectedOrder"), 4);
    row->addWidget(labelled(tr("By whom"), m_expectedBy, "expectedBy"), 2);
    line->inside()->addLayout(row);
    line->inside()->addWidget(m_orderFault);
    m_orderFault->hide();
    m_expect->setAccessibleName(tr("Expectation of the number beside"));
    for (QLineEdit* field : {m_order, m_expectedBy})
        field->setMinimumWidth(40);
    connect(m_order, &QLineEdit::textEdited, m_orderFault, &QWidget::hide);
    Typed::whole(m_order, [this](const QString& typed) { setOrder(typed); });
    Typed::whole(m_expectedBy, [this](const QString& typed) {
        m_declaring.change(tr("who expects it"),
                           [&](record::Declared& test) { test.card.expectedBy = typed.trimmed().toStdString(); });
    });
    connect(m_expectMetric, &QComboBox::activated, this, &SheetPage::refreshExpected);
    connect(m_expect, &QComboBox::activated, this, [this](int index) {
        const auto metric = static_cast<record::Metric>(m_expectMetric->currentData().toInt());
        m_declaring.change(tr("the expectation"), [&](record::Declared& test) {
            if (index == 0)
                test.card.expectations.erase(metric);
            else
                test.card.expectations[metric] = static_cast<record::Expectation>(index - 1);
        });
    });
    return line;
}

OpenLine* SheetPage::buildBadShots() {
    auto* line = new OpenLine(tr("Bad &shots"), "badShots");
    m_rule = choiceBox({tr("keep every shot"), tr("called before the number shows"), tr("hit until enough are good"),
                        tr("by a rule on numbers"), tr("best and worst dropped")});
    m_replace = new QCheckBox(tr("hit it again"));
    m_replace->setObjectName(QStringLiteral("replace"));
    m_ruleText = captionLabel("ruleText");
    m_good = new NumberField({.low = 1, .high = 30, .whole = true});
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("Set aside"), m_rule, "rule"), 4);
    row->addWidget(labelled(tr("Good ones a stint"), m_good, "goodShots"), 2);
    row->addWidget(m_replace, 2, Qt::AlignBottom);
    line->inside()->addLayout(row);
    line->inside()->addWidget(m_ruleText);
    return line;
}

OpenLine* SheetPage::buildLooking() {
    auto* line = new OpenLine(tr("&Looking"), "looking");
    m_looks = choiceBox({tr("not before the plan is done"), tr("after each lap from the second")});
    m_alpha = new NumberField({.low = 0, .high = 0.5, .mayBeEmpty = false, .aboveLow = true});
    m_looksText = captionLabel("looksText");
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("Comparisons are looked at"), m_looks, "looks"), 4);
    row->addWidget(labelled(tr("Error rate α"), m_alpha, "alpha"), 2);
    line->inside()->addLayout(row);
    line->inside()->addWidget(m_looksText);
    return line;
}

void SheetPage::wire() {
    Typed::in(m_question, [this](const QString& typed) {
        m_declaring.change(tr("the question"), [&](record::Declared& test) {
            test.question = typed.toStdString();
            test.title = typed.isEmpty() ? tr("New test").toStdString() : test.question;
        });
    });
    connect(m_player, &PlayerCard::aboutRequested, this, &SheetPage::playerRequested);
    connect(&m_book, &Book::playersChanged, this, &SheetPage::markStale);
    connect(m_rule, &QComboBox::activated, this, [this](int rule) {
        m_declaring.change(tr("the rule for bad shots"), [&](record::Declared& test) {
            test.card.setAsideRule = static_cast<record::SetAsideRule>(rule);
        });
    });
    connect(m_replace, &QCheckBox::clicked, this, [this](bool again) {
        m_declaring.change(tr("what follows a bad shot"),
                           [&](record::Declared& test) { test.card.replaceSetAside = again; });
    });
    connect(m_good, &NumberField::edited, this, [this](std::optional<double> good) {
        m_declaring.change(tr("how many good shots a stint needs"),
                           [&](record::Declared& test) { test.card.goodShots = static_cast<int>(good.value_or(0)); });
    });
    connect(m_looks, &QComboBox::activated, this, [this](int looks) {
        m_declaring.change(tr("the looks"),
                           [&](record::Declared& test) { test.card.looks = static_cast<record::Looks>(looks); });
    });
    connect(m_alpha, &NumberField::edited, this, [this](std::optional<double> alpha) {
        m_declaring.change(tr("the error rate"), [&](record::Declared& test) { test.card.alpha = *alpha; });
    });
    connect(&m_hand, &TestInHand::replaced, this, &SheetPage::markStale);
    connect(&m_declaring, &Declaring::changed, this, &SheetPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &SheetPage::markStale);
}

void SheetPage::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    showText(m_question, test.question);
    m_sentence->refresh();
    m_frozen->setText(!m_hand.isFrozen() ? QString()
                                         : tr("Frozen %1, %2…; changes are kept as amendments (%3 so far).")
                                               .arg(QString::fromStdString(record::Moment(test.frozenAt).shown()),
                                                    QString::fromStdString(test.frozenHash).left(12))
                                               .arg(test.amendments.size()));
    m_frozen->setVisible(m_hand.isFrozen());
    refreshExpected();
    refreshBadShots();
    refreshLooking();
    m_wanted->refresh();
    refreshHeld();
    m_takes->refresh();
    m_player->refresh();
}

void SheetPage::refreshHeld() {
    const Test& test = m_hand.test();
    const auto& held = test.card.held;
    while (m_ties.size() > static_cast<qsizetype>(held.size()))
        delete m_ties.takeLast();
    while (m_ties.size() < static_cast<qsizetype>(held.size())) {
        const auto at = static_cast<std::size_t>(m_ties.size());
        auto* row = new TieRow(at);
        m_ties << row;
        m_heldRows->addWidget(row);
        connect(row, &TieRow::heldChanged, this, [this, at](bool on) {
            m_declaring.change(tr("what is held constant"),
                               [&](record::Declared& changed) { changed.card.held[at].held = on; });
        });
        connect(row, &TieRow::slipTyped, this, [this, at](const QString& slip) {
            m_declaring.change(tr("what slipped"),
                               [&](record::Declared& changed) { changed.card.held[at].slip = slip.toStdString(); });
        });
    }
    const auto usual = record::usualControls(test.card.kind);
    std::size_t tied = 0;
    for (std::size_t i = 0; i < held.size(); ++i) {
        const auto hint = std::ranges::find(usual, held[i].what, &record::Held::what);
        auto tie = rack::tieOf(held[i].what, ask::clubsIn(test), test.card.kind);
        if (m_hand.isSealed()) // while the seal is closed only the Rack names clubs
            tie.text.clear();
        m_ties[static_cast<qsizetype>(i)]->display(
            held[i], tie, hint == usual.end() ? QString() : QString::fromStdString(hint->slip));
        tied += held[i].held && tie.state != rack::Tie::State::differs ? 1 : 0;
    }
    m_heldCount->setText(held.empty() ? QString() : tr("%1 of %2 hold").arg(tied).arg(held.size()));
}

// What was not understood stays in its field, with the reason.
void SheetPage::setOrder(const QString& typed) {
    const auto order = record::orderFromText(typed.toStdString(), ask::clubsOf(m_hand.test()));
    m_orderFault->setText(order ? QString() : QString::fromStdString(order.error()));
    m_orderFault->setVisible(!order.has_value());
    if (order)
        m_declaring.change(tr("the order expected"), [&](record::Declared& test) { test.card.expectedOrder = *order; });
}

void SheetPage::refreshExpected() {
    const Card& card = m_hand.test().card;
    m_order->setReadOnly(m_hand.isSealed());
    const QString order = m_hand.isSealed()
                              ? QString()
                              : QString::fromStdString(record::orderText(m_hand.test().namesOf(card.expectedOrder)));
    if (!m_order->hasFocus() && m_orderFault->isHidden())
        m_order->setText(order);
    showText(m_expectedBy, card.expectedBy);
    const auto metric = static_cast<record::Metric>(m_expectMetric->currentData().toInt());
    const auto own = card.expectations.find(metric);
    m_expect->setCurrentIndex(own == card.expectations.end() ? 0 : static_cast<int>(own->second) + 1);
    QStringList said;
    for (const auto& [expected, way] : card.expectations)
        said << QString::fromStdString(record::info(expected).label) + QLatin1Char(' ') +
                    m_expect->itemText(static_cast<int>(way) + 1);
    if (!card.expectedOrder.empty())
        said << (m_hand.isSealed() ? tr("an order of clubs, sealed with them") : order);
    if (!said.isEmpty() && !card.expectedBy.empty())
        said << tr("said by %1").arg(QString::fromStdString(card.expectedBy));
    m_expectedLine->setSaid(said.isEmpty() ? tr("nothing said yet") : said.join(QStringLiteral(" · ")));
}

void SheetPage::refreshBadShots() {
    const Card& card = m_hand.test().card;
    m_rule->setCurrentIndex(static_cast<int>(card.setAsideRule));
    m_ruleText->setText(ruleText(card.setAsideRule));
    m_replace->setChecked(card.replaceSetAside);
    const bool untilGood = card.setAsideRule == record::SetAsideRule::untilGood;
    m_good->parentWidget()->setVisible(untilGood);
    m_good->display(card.goodShots > 0 ? std::optional<double>(card.goodShots) : std::nullopt, 0);
    m_replace->setVisible(!untilGood);
    const bool isHitAgain = !untilGood && card.setAsideRule != record::SetAsideRule::keepAll && card.replaceSetAside;
    m_badShots->setSaid(isHitAgain ? tr("%1; hit again").arg(m_rule->currentText()) : m_rule->currentText());
}

void SheetPage::refreshLooking() {
    const Card& card = m_hand.test().card;
    m_looks->setCurrentIndex(static_cast<int>(card.looks));
    const bool isLast = card.looks == record::Looks::none;
    m_looksText->setText(isLast
                             ? tr("Most power. Nobody may see a comparison before the last lap.")
                             : tr("The test may stop early; each look spends a part of α, so every claim needs more."));
    m_alpha->display(card.alpha, 2);
    const QString level = QString::fromStdString(record::fixed(100 * card.alpha, 0));
    m_looking->setSaid(isLast ? tr("nobody sees a comparison before the last lap; %1 in 100 may be luck").arg(level)
                              : tr("after each lap from the second; %1 in 100 may be luck").arg(level));
}

QString SheetPage::subtitle() const {
    const QString kept = m_hand.isKept() ? tr("saved as you type") : tr("not saved yet");
    return tr("Test sheet · reads as what will be judged · %1").arg(kept);
}

void SheetPage::takeFocus() {
    m_sentence->takeFocus();
}

} // namespace knot::app
