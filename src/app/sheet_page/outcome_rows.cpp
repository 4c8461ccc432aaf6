#include "app/sheet_page/outcome_rows.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "core/record/number_text.h"

#include <QComboBox>
#include <QGridLayout>
#include <QSignalBlocker>

#include <algorithm>

namespace knot::app {
namespace {

using record::Metric;
using record::Outcome;
using record::OutcomeKind;
using record::Want;

bool isRatio(const Outcome& outcome) {
    return outcome.kind == OutcomeKind::spread || outcome.kind == OutcomeKind::area;
}

QString outcomeName(const Outcome& outcome) {
    return QString::fromStdString(record::outcomeLabel(outcome));
}

} // namespace

OutcomeRows::OutcomeRows(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent)
    : QWidget(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book) {
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setHorizontalSpacing(10);
    grid->setVerticalSpacing(6);
    const QStringList heads{tr("Judged by"), tr("Wanted"), tr("Value"), tr("Worthwhile gap"), tr("Expected")};
    for (int column = 0; column < heads.size(); ++column) {
        QLabel* head = captionLabel("head", heads[column]);
        head->setWordWrap(false);
        grid->addWidget(head, 0, column);
    }
    for (int row = 0; row < 3; ++row)
        buildRow(row);
    grid->setColumnStretch(0, 5);
    for (int column = 1; column < 5; ++column)
        grid->setColumnStretch(column, 3);
}

void OutcomeRows::buildRow(int row) {
    auto* grid = qobject_cast<QGridLayout*>(layout());
    auto place = [&](QWidget* field, const char* name, const QString& spoken, int column) {
        field->setObjectName(QStringLiteral("%1%2").arg(QLatin1String(name)).arg(row + 1));
        field->setAccessibleName(tr("%1 of outcome %2").arg(spoken).arg(row + 1));
        grid->addWidget(field, row + 1, column, Qt::AlignTop);
    };
    Row& r = m_rows[row];
    r.outcome = choiceBox({});
    r.outcome->setMaxVisibleItems(24);
    r.want = choiceBox({tr("to know"), tr("more"), tr("less"), tr("near")});
    r.value = new NumberField({.low = -1e6, .high = 1e6});
    r.gap = new NumberField({.low = 0, .high = 1e6, .mayBeEmpty = false, .aboveLow = true});
    r.expected = choiceBox({QStringLiteral("–"), tr("no change"), tr("up"), tr("down")});
    place(r.outcome, "outcome", tr("Name"), 0);
    place(r.want, "want", tr("Wanted direction"), 1);
    place(r.value, "wanted", tr("Wanted value"), 2);
    place(r.gap, "gap", tr("Worthwhile gap"), 3);
    place(r.expected, "expected", tr("Expectation"), 4);
    connect(r.outcome, &QComboBox::activated, this,
            [this, row] { setOutcome(row, m_rows[row].outcome->currentData().toString()); });
    connect(r.want, &QComboBox::activated, this, [this, row] { setWant(row); });
    connect(r.value, &NumberField::edited, this, [this, row](std::optional<double> shown) {
        if (const auto outcome = declared(row); outcome && shown) {
            const double value = record::MetricFormat(outcome->metric, m_book.units()).internal(*shown);
            m_declaring.change(tr("the wanted value"), [&](record::Test& test) {
                test.card.wants[*outcome] = {.kind = Want::Kind::near, .value = value};
            });
        }
    });
    connect(r.gap, &NumberField::edited, this, [this, row](std::optional<double> shown) {
        if (shown)
            setGap(row, *shown);
    });
    connect(r.expected, &QComboBox::activated, this, [this, row](int index) {
        if (const auto outcome = declared(row))
            m_declaring.change(tr("the expectation"), [&](record::Test& test) {
                if (index == 0)
                    test.card.expectations.erase(outcome->metric);
                else
                    test.card.expectations[outcome->metric] = static_cast<record::Expectation>(index - 1);
            });
    });
}

std::optional<Outcome> OutcomeRows::declared(int row) const {
    if (!m_hand.has())
        return std::nullopt;
    const auto& primary = m_hand.test().card.primary;
    return static_cast<std::size_t>(row) < primary.size() ? std::optional(primary[static_cast<std::size_t>(row)])
                                                          : std::nullopt;
}

void OutcomeRows::offerOutcomes(QComboBox* box) const {
    box->clear();
    box->addItem(tr("nothing"), QString());
    auto add = [box](const Outcome& outcome) {
        box->addItem(outcomeName(outcome), QString::fromStdString(record::outcomeText(outcome)));
    };
    for (const Metric metric : {Metric::carry, Metric::side, Metric::ballSpeed})
        add({.metric = metric});
    for (const Metric metric : {Metric::carry, Metric::side, Metric::ballSpeed})
        add({.kind = OutcomeKind::spread, .metric = metric});
    for (const Metric metric : {Metric::carry, Metric::ballSpeed, Metric::spin}) {
        add({.kind = OutcomeKind::equal, .metric = metric});
        add({.kind = OutcomeKind::typical, .metric = metric});
    }
    add({.kind = OutcomeKind::area});
    for (const auto& shape : m_hand.test().card.shapes)
        add({.kind = OutcomeKind::share, .shape = shape.name});
    for (const Metric metric : record::allMetrics())
        if (!record::isStrike(metric) && box->findData(QString::fromStdString(record::info(metric).key)) < 0)
            add({.metric = metric});
}

void OutcomeRows::setOutcome(int row, const QString& text) {
    m_declaring.change(tr("the declared outcomes"), [&](record::Test& test) {
        auto& primary = test.card.primary;
        const auto at = std::min(static_cast<std::size_t>(row), primary.size());
        const auto outcome = record::outcomeFromText(text.toStdString());
        if (!outcome) {
            if (at < primary.size())
                primary.erase(primary.begin() + static_cast<std::ptrdiff_t>(at));
        } else if (std::ranges::find(primary, *outcome) == primary.end()) {
            if (at < primary.size())
                primary[at] = *outcome;
            else
                primary.push_back(*outcome);
            // Equal delivery means something: what moves a shot most, until it is said otherwise.
            if (outcome->kind == OutcomeKind::equal && test.card.covariates.empty())
                test.card.covariates = {Metric::clubSpeed, Metric::strikeHigh, Metric::strikeToe};
        }
    });
    refresh();
}

void OutcomeRows::setWant(int row) {
    const auto outcome = declared(row);
    if (!outcome)
        return;
    const auto kind = static_cast<Want::Kind>(m_rows[row].want->currentIndex());
    m_declaring.change(tr("the wanted direction"), [&](record::Test& test) { test.card.wants[*outcome].kind = kind; });
    if (kind == Want::Kind::near)
        m_rows[row].value->setFocus();
}

void OutcomeRows::setGap(int row, double shown) {
    const auto outcome = declared(row);
    if (!outcome)
        return;
    m_declaring.change(tr("the worthwhile gap in %1").arg(outcomeName(*outcome)), [&](record::Test& test) {
        if (outcome->kind == OutcomeKind::spread)
            test.card.sdRatioMargin = shown;
        else if (outcome->kind == OutcomeKind::area)
            test.card.areaRatioMargin = shown;
        else
            test.card.margins[outcome->metric] = record::MetricFormat(outcome->metric, m_book.units()).internal(shown);
    });
}

void OutcomeRows::refresh() {
    if (!m_hand.has())
        return;
    for (int row = 0; row < 3; ++row)
        refreshRow(row);
}

void OutcomeRows::refreshRow(int row) {
    Row& r = m_rows[row];
    const auto outcome = declared(row);
    const auto& card = m_hand.test().card;
    offerOutcomes(r.outcome);
    r.outcome->setCurrentIndex(
        outcome ? std::max(0, r.outcome->findData(QString::fromStdString(record::outcomeText(*outcome)))) : 0);
    r.outcome->setEnabled(row == 0 || static_cast<std::size_t>(row) <= card.primary.size());
    for (QWidget* field : {static_cast<QWidget*>(r.want), static_cast<QWidget*>(r.expected)})
        field->setEnabled(outcome.has_value());
    const bool average = outcome && outcome->kind == OutcomeKind::average;
    const Want want = outcome ? card.want(*outcome) : Want{};
    r.want->setCurrentIndex(outcome ? static_cast<int>(want.kind) : 0);
    r.value->setEnabled(average && want.kind == Want::Kind::near);
    r.gap->setEnabled(outcome && outcome->kind != OutcomeKind::share);
    if (!outcome) {
        r.gap->display(std::nullopt, 0);
        r.value->display(std::nullopt, 0);
        r.gap->setRemark({});
        return r.expected->setCurrentIndex(0);
    }
    const record::MetricFormat format(outcome->metric, m_book.units());
    const QString unit = QString::fromStdString(format.unitText());
    r.value->display(want.kind == Want::Kind::near ? std::optional(format.shown(want.value)) : std::nullopt,
                     format.decimals());
    const auto expected = card.expectations.find(outcome->metric);
    r.expected->setCurrentIndex(expected == card.expectations.end() ? 0 : static_cast<int>(expected->second) + 1);
    if (isRatio(*outcome)) {
        r.gap->setRange({.low = 1, .high = 100, .mayBeEmpty = false, .aboveLow = true});
        r.gap->display(outcome->kind == OutcomeKind::spread ? card.sdRatioMargin : card.areaRatioMargin, 2);
        return r.gap->setRemark(tr("times"));
    }
    if (outcome->kind == OutcomeKind::share) {
        r.gap->display(10, 0);
        return r.gap->setRemark(tr("% of shots"));
    }
    r.gap->setRange({.low = 0, .high = 1e6, .mayBeEmpty = false, .aboveLow = true});
    const double gap = card.margin(outcome->metric);
    const double repeats = record::info(outcome->metric).repeatability;
    r.gap->display(format.shown(gap), format.decimals());
    r.gap->setRemark(
        gap < repeats
            ? tr("%1; a monitor repeats itself to about %2").arg(unit, QString::fromStdString(format.number(repeats)))
            : unit);
}

} // namespace knot::app
