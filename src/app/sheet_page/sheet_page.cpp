#include "app/sheet_page/sheet_page.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/sheet_page/also_asked.h"
#include "app/sheet_page/outcome_rows.h"
#include "app/sheet_page/player_rows.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/control.h"
#include "core/record/moment.h"
#include "core/record/number_text.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

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

} // namespace

SheetPage::SheetPage(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent)
    : Page(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book) {
    auto* content = new QWidget;
    auto* row = new QHBoxLayout(content);
    row->setContentsMargins(0, 0, 6, 0);
    row->setSpacing(2 * size::grid);
    auto* left = new QVBoxLayout;
    auto* right = new QVBoxLayout;
    for (QVBoxLayout* column : {left, right})
        column->setSpacing(2 * size::grid);
    left->addWidget(buildQuestion());
    left->addWidget(buildControls());
    left->addWidget(buildWindows());
    left->addStretch();
    right->addWidget(buildOutcomes());
    right->addWidget(buildSetAsides());
    right->addWidget(buildAlso());
    right->addWidget(buildPlayer());
    right->addStretch();
    row->addLayout(left, 5);
    row->addLayout(right, 7);
    // Fields may grow narrow; the sheet is never wider than its window.
    for (QLineEdit* field : content->findChildren<QLineEdit*>())
        field->setMinimumWidth(40);
    auto* whole = new QVBoxLayout(this);
    whole->setContentsMargins(0, 0, 0, 0);
    whole->addWidget(scrolling(content));
    wire();
}

QWidget* SheetPage::buildQuestion() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("The question"), column);
    m_question = new QLineEdit;
    m_question->setPlaceholderText(tr("Does the lighter shaft cost me control?"));
    m_kind = choiceBox({tr("something else"), tr("shaft"), tr("head"), tr("loft setting"), tr("length"), tr("lie"),
                        tr("grip"), tr("ball"), tr("delivery"), tr("whole clubs, knowingly")});
    m_kind->setMaxVisibleItems(10);
    m_factor = new QLineEdit;
    m_factor->setPlaceholderText(tr("what differs"));
    m_comparison = choiceBox({tr("against my club"), tr("which of these")});
    m_frozen = captionLabel("frozen");
    column->addWidget(labelled(tr("In &words"), m_question, "question"));
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("&Tests the"), m_kind, "kind"), 3);
    row->addWidget(labelled(tr("Namely"), m_factor, "factor"), 3);
    row->addWidget(labelled(tr("&Compares"), m_comparison, "comparison"), 3);
    column->addLayout(row);
    column->addWidget(m_frozen);
    return panel;
}

QWidget* SheetPage::buildPlayer() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Who hits"), column);
    m_players = new PlayerRows(m_hand, m_declaring, m_book);
    column->addWidget(m_players);
    return panel;
}

QWidget* SheetPage::buildControls() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Held constant"), column);
    column->addWidget(captionLabel("controlsHint", tr("Untick what slipped and say how; the reading will tell.")));
    m_controls = new QVBoxLayout;
    m_controls->setSpacing(4);
    column->addLayout(m_controls);
    return panel;
}

QWidget* SheetPage::buildOutcomes() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Judged by, in order of weight"), column);
    m_outcomes = new OutcomeRows(m_hand, m_declaring, m_book);
    column->addWidget(m_outcomes);
    m_expectMetric = choiceBox({});
    for (const auto metric : record::allMetrics())
        m_expectMetric->addItem(QString::fromStdString(record::info(metric).label), static_cast<int>(metric));
    m_expectMetric->setMaxVisibleItems(24);
    m_expectMetric->setCurrentIndex(static_cast<int>(record::Metric::spin));
    m_expect = choiceBox({QStringLiteral("–"), tr("no change"), tr("up"), tr("down")});
    m_expected = captionLabel("expectedText");
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("Also expected of"), m_expectMetric, "expectMetric"), 2);
    row->addWidget(labelled(QStringLiteral(" "), m_expect, "expect"), 1);
    row->addWidget(m_expected, 4, Qt::AlignBottom);
    column->addLayout(row);
    m_expect->setAccessibleName(tr("Expectation of the number beside"));
    connect(m_expectMetric, &QComboBox::activated, this, &SheetPage::refreshExpected);
    connect(m_expect, &QComboBox::activated, this, [this](int index) {
        const auto metric = static_cast<record::Metric>(m_expectMetric->currentData().toInt());
        m_declaring.change(tr("the expectation"), [&](Test& test) {
            if (index == 0)
                test.card.expectations.erase(metric);
            else
                test.card.expectations[metric] = static_cast<record::Expectation>(index - 1);
        });
    });
    return panel;
}

QWidget* SheetPage::buildSetAsides() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Bad shots, and looking"), column);
    m_rule = choiceBox({tr("keep every shot"), tr("called before the number shows"), tr("hit until enough are good"),
                        tr("by a rule on numbers"), tr("best and worst dropped")});
    m_replace = new QCheckBox(tr("hit it again"));
    m_replace->setObjectName(QStringLiteral("replace"));
    m_ruleText = captionLabel("ruleText");
    m_looks = choiceBox({tr("not before the plan is done"), tr("after each lap from the second")});
    m_alpha = new NumberField({.low = 0, .high = 0.5, .mayBeEmpty = false, .aboveLow = true});
    m_looksText = captionLabel("looksText");
    auto* first = new QHBoxLayout;
    first->addWidget(labelled(tr("&Set aside"), m_rule, "rule"), 4);
    m_good = new NumberField({.low = 1, .high = 30, .whole = true});
    first->addWidget(labelled(tr("Good ones a stint"), m_good, "goodShots"), 2);
    first->addWidget(m_replace, 2, Qt::AlignBottom);
    column->addLayout(first);
    column->addWidget(m_ruleText);
    auto* second = new QHBoxLayout;
    second->addWidget(labelled(tr("Comparisons are &looked at"), m_looks, "looks"), 4);
    second->addWidget(labelled(tr("Error rate α"), m_alpha, "alpha"), 2);
    column->addLayout(second);
    column->addWidget(m_looksText);
    return panel;
}

QWidget* SheetPage::buildWindows() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Wanted windows"), column);
    m_windowMetric = choiceBox({});
    for (const auto metric : record::allMetrics())
        m_windowMetric->addItem(QString::fromStdString(record::info(metric).label), static_cast<int>(metric));
    m_windowMetric->setMaxVisibleItems(24);
    m_windowMetric->setCurrentIndex(static_cast<int>(record::Metric::launch));
    m_windowLow = new NumberField({.low = -1e6, .high = 1e6});
    m_windowHigh = new NumberField({.low = -1e6, .high = 1e6});
    auto* add = new QPushButton(tr("Add"));
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("Number"), m_windowMetric, "windowMetric"), 3);
    m_windowBuild = choiceBox({});
    row->addWidget(labelled(tr("Of"), m_windowBuild, "windowBuild"), 4);
    row->addWidget(labelled(tr("From"), m_windowLow, "windowLow"), 2);
    row->addWidget(labelled(tr("To"), m_windowHigh, "windowHigh"), 2);
    row->addWidget(labelled(QStringLiteral(" "), add, "addWindow"), 1);
    m_windowHigh->edit()->setPlaceholderText(tr("same"));
    column->addLayout(row);
    m_windows = richLabel(captionLabel("windows"));
    m_windows->setTextInteractionFlags(Qt::LinksAccessibleByKeyboard | Qt::LinksAccessibleByMouse);
    column->addWidget(m_windows);
    connect(add, &QPushButton::clicked, this, [this] {
        const auto metric = static_cast<record::Metric>(m_windowMetric->currentData().toInt());
        const record::MetricFormat format(metric, m_book.units());
        const auto low = m_windowLow->value();
        const auto high = m_windowHigh->value();
        if (!low || (high && *high < *low))
            return m_windowLow->setRemark(tr("A number is needed here, no larger than the one beside it."));
        m_windowLow->setRemark({});
        m_declaring.change(tr("the wanted windows"), [&](Test& test) {
            test.card.targets.push_back({metric, m_windowBuild->currentData().toString().toStdString(),
                                         format.internal(*low), format.internal(high.value_or(*low))});
        });
        m_windowLow->edit()->clear();
        m_windowHigh->edit()->clear();
    });
    connect(m_windows, &QLabel::linkActivated, this, [this](const QString& link) {
        m_declaring.change(tr("the wanted windows"), [&](Test& test) {
            if (const auto at = link.toUInt(); at < test.card.targets.size())
                test.card.targets.erase(test.card.targets.begin() + static_cast<std::ptrdiff_t>(at));
        });
    });
    return panel;
}

QWidget* SheetPage::buildAlso() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Also asked"), column);
    m_also = new AlsoAsked(m_hand, m_declaring, m_book);
    column->addWidget(m_also);
    return panel;
}

void SheetPage::wire() {
    auto text = [&](QLineEdit* field, const QString& what, auto put) {
        Typed::in(field, [this, what, put](const QString& typed) {
            m_declaring.change(what, [&](Test& test) { put(test, typed.toStdString()); });
        });
    };
    text(m_question, tr("the question"), [](Test& test, const std::string& typed) {
        test.question = typed;
        test.title = typed.empty() ? tr("New test").toStdString() : typed;
    });
    text(m_factor, tr("the factor"), [](Test& test, const std::string& typed) { test.card.factor = typed; });
    connect(m_players, &PlayerRows::aboutRequested, this, &SheetPage::playerRequested);
    connect(&m_book, &Book::playersChanged, this, &SheetPage::markStale);
    connect(m_kind, &QComboBox::activated, this, &SheetPage::setKind);
    connect(m_comparison, &QComboBox::activated, this,
            [this](int which) { m_declaring.setComparison(static_cast<record::Comparison>(which)); });
    connect(m_rule, &QComboBox::activated, this, [this](int rule) {
        m_declaring.change(tr("the rule for bad shots"),
                           [&](Test& test) { test.card.setAsideRule = static_cast<record::SetAsideRule>(rule); });
    });
    connect(m_replace, &QCheckBox::clicked, this, [this](bool again) {
        m_declaring.change(tr("what follows a bad shot"), [&](Test& test) { test.card.replaceSetAside = again; });
    });
    connect(m_good, &NumberField::edited, this, [this](std::optional<double> good) {
        m_declaring.change(tr("how many good shots a stint needs"),
                           [&](Test& test) { test.card.goodShots = static_cast<int>(good.value_or(0)); });
    });
    connect(m_looks, &QComboBox::activated, this, [this](int looks) {
        m_declaring.change(tr("the looks"), [&](Test& test) { test.card.looks = static_cast<record::Looks>(looks); });
    });
    connect(m_alpha, &NumberField::edited, this, [this](std::optional<double> alpha) {
        m_declaring.change(tr("the error rate"), [&](Test& test) { test.card.alpha = *alpha; });
    });
    connect(&m_hand, &TestInHand::replaced, this, &SheetPage::markStale);
    connect(&m_declaring, &Declaring::changed, this, &SheetPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &SheetPage::markStale);
}

void SheetPage::setKind(int kind) {
    m_declaring.change(tr("the kind of test"), [&](Test& test) {
        auto& card = test.card;
        card.kind = static_cast<record::TestKind>(kind);
        card.held = record::heldAsUsual(card.kind);
    });
}

void SheetPage::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    showText(m_question, test.question);
    showText(m_factor, test.card.factor);
    m_kind->setCurrentIndex(static_cast<int>(test.card.kind));
    m_factor->parentWidget()->setVisible(test.card.kind == record::TestKind::own);
    m_comparison->setCurrentIndex(static_cast<int>(test.card.comparison));
    m_players->refresh();
    m_rule->setCurrentIndex(static_cast<int>(test.card.setAsideRule));
    m_ruleText->setText(ruleText(test.card.setAsideRule));
    m_replace->setChecked(test.card.replaceSetAside);
    const bool untilGood = test.card.setAsideRule == record::SetAsideRule::untilGood;
    m_good->parentWidget()->setVisible(untilGood);
    m_good->display(test.card.goodShots > 0 ? std::optional<double>(test.card.goodShots) : std::nullopt, 0);
    m_replace->setVisible(!untilGood);
    m_looks->setCurrentIndex(static_cast<int>(test.card.looks));
    m_looksText->setText(test.card.looks == record::Looks::none
                             ? tr("Most power. Nobody may see a comparison before the last lap.")
                             : tr("The test may stop early; each look spends a part of α, so every claim needs more."));
    m_alpha->display(test.card.alpha, 2);
    m_frozen->setText(!m_hand.isFrozen() ? QString()
                                         : tr("Frozen %1, %2…; changes are kept as amendments (%3 so far).")
                                               .arg(QString::fromStdString(record::momentShown(test.frozenAt)),
                                                    QString::fromStdString(test.frozenHash).left(12))
                                               .arg(test.amendments.size()));
    m_frozen->setVisible(m_hand.isFrozen());
    m_outcomes->refresh();
    m_also->refresh();
    refreshControls();
    refreshWindows();
    refreshExpected();
}

void SheetPage::refreshControls() {
    const auto& held = m_hand.test().card.held;
    if (m_held.size() != static_cast<qsizetype>(held.size())) {
        while (QLayoutItem* item = m_controls->takeAt(0)) {
            delete item->widget();
            delete item;
        }
        m_held.clear();
        m_slips.clear();
        for (std::size_t i = 0; i < held.size(); ++i) {
            auto* line = new QWidget;
            auto* row = new QHBoxLayout(line);
            row->setContentsMargins(0, 0, 0, 0);
            m_held << new QCheckBox;
            m_slips << new QLineEdit;
            m_held.back()->setObjectName(QStringLiteral("held%1").arg(i));
            m_slips.back()->setObjectName(QStringLiteral("slip%1").arg(i));
            row->addWidget(m_held.back(), 4);
            row->addWidget(m_slips.back(), 6);
            m_controls->addWidget(line);
            connect(m_held.back(), &QCheckBox::clicked, this, [this, i](bool on) {
                m_declaring.change(tr("what is held constant"), [&](Test& test) { test.card.held[i].held = on; });
            });
            Typed::in(m_slips.back(), [this, i](const QString& typed) {
                m_declaring.change(tr("what slipped"),
                                   [&](Test& test) { test.card.held[i].slip = typed.toStdString(); });
            });
        }
    }
    const auto usual = record::usualControls(m_hand.test().card.kind);
    for (std::size_t i = 0; i < held.size(); ++i) {
        const auto at = static_cast<qsizetype>(i);
        m_held[at]->setText(QString::fromStdString(held[i].what));
        m_held[at]->setChecked(held[i].held);
        m_slips[at]->setAccessibleName(tr("How “%1” slipped").arg(QString::fromStdString(held[i].what)));
        const auto hint = std::ranges::find(usual, held[i].what, &record::Held::what);
        m_slips[at]->setPlaceholderText(hint == usual.end() ? QString() : QString::fromStdString(hint->slip));
        m_slips[at]->setToolTip(m_slips[at]->placeholderText().toHtmlEscaped());
        showText(m_slips[at], held[i].slip);
    }
}

void SheetPage::refreshWindows() {
    QString html;
    const auto& targets = m_hand.test().card.targets;
    for (std::size_t i = 0; i < targets.size(); ++i) {
        const record::MetricFormat format(targets[i].metric, m_book.units());
        const std::string what = targets[i].low == targets[i].high
                                     ? format.withUnit(targets[i].low)
                                     : format.number(targets[i].low) + " to " + format.withUnit(targets[i].high);
        const QString whose = targets[i].build.empty() || m_hand.isSealed()
                                  ? QString()
                                  : QString::fromStdString(targets[i].build).toHtmlEscaped() + ", ";
        html += whose +
                tr("%1 %2 <a href='%3' style='color:%4'>take back</a><br>")
                    .arg(QString::fromStdString(record::info(targets[i].metric).label), QString::fromStdString(what))
                    .arg(i)
                    .arg(colours().link.name());
    }
    m_windowBuild->clear();
    m_windowBuild->addItem(tr("every club"), QString());
    for (const auto& build : m_hand.test().builds)
        m_windowBuild->addItem(QString::fromStdString(build.name), QString::fromStdString(build.name));
    m_windows->setText(html);
    m_windows->setVisible(!html.isEmpty());
}

void SheetPage::refreshExpected() {
    const auto& expectations = m_hand.test().card.expectations;
    const auto metric = static_cast<record::Metric>(m_expectMetric->currentData().toInt());
    const auto own = expectations.find(metric);
    m_expect->setCurrentIndex(own == expectations.end() ? 0 : static_cast<int>(own->second) + 1);
    QStringList words;
    for (const auto& [expected, way] : expectations)
        words << QString::fromStdString(record::info(expected).label) + QLatin1Char(' ') +
                     m_expect->itemText(static_cast<int>(way) + 1);
    m_expected->setText(words.join(QStringLiteral(", ")));
}

QString SheetPage::subtitle() const {
    const Test& test = m_hand.test();
    const QString kept = m_hand.isKept() ? tr("kept as you type") : tr("not kept yet");
    return tr("Test sheet · %1 declared · %2")
        .arg(QString::fromStdString(record::counted(test.card.primary.size(), "outcome")), kept);
}

void SheetPage::takeFocus() {
    m_question->setFocus();
}

} // namespace knot::app
