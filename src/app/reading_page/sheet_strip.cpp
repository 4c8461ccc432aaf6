#include "app/reading_page/sheet_strip.h"

#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSignalBlocker>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

record::Outcome averageOf(record::Metric metric) {
    return {.kind = record::OutcomeKind::average, .metric = metric, .shape = {}};
}

// With the metric's decimals, or one more where they would change the value.
QString gapText(double shown, int decimals) {
    const double power = std::pow(10.0, decimals);
    const bool exact = std::fabs(std::round(shown * power) / power - shown) < 1e-9 * std::fabs(shown);
    return QString::fromStdString(record::fixed(shown, exact ? decimals : decimals + 1));
}

} // namespace

SheetStrip::SheetStrip(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book, QWidget* parent)
    : QWidget(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_judging(judging)
    , m_book(book) {
    buildUi();
    wire();
}

void SheetStrip::buildUi() {
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setHorizontalSpacing(14);
    grid->setVerticalSpacing(4);
    int column = 0;
    auto place = [&](const QString& text, QWidget* field, const char* name, int stretch) {
        auto* label = plainLabel(text);
        label->setFont(typeface(size::caption));
        label->setForegroundRole(QPalette::PlaceholderText);
        label->setBuddy(field);
        field->setObjectName(QLatin1String(name));
        field->setAccessibleName(QString(text).remove(QLatin1Char('&')));
        grid->addWidget(label, 0, column);
        grid->addWidget(field, 1, column);
        grid->setColumnStretch(column++, stretch);
        return label;
    };
    m_baseline = new QComboBox;
    m_declared = new QPushButton(tr("Declared"));
    m_declared->setCheckable(true);
    m_gap = new QLineEdit;
    m_gap->setAlignment(Qt::AlignRight);
    m_gap->setMaximumWidth(96);
    m_want = new QComboBox;
    m_want->addItems({tr("to know"), tr("more"), tr("less")});
    place(tr("&Baseline"), m_baseline, "baseline", 3);
    place(tr("&This number"), m_declared, "declared", 1);
    m_gapLabel = place(tr("Worthwhile &gap"), m_gap, "gap", 1);
    place(tr("&Wanted"), m_want, "want", 1);
}

void SheetStrip::wire() {
    connect(&m_hand, &TestInHand::replaced, this, &SheetStrip::refresh);
    connect(&m_judging, &Judging::changed, this, &SheetStrip::refresh);
    connect(&m_book, &Book::unitsChanged, this, &SheetStrip::refresh);
    connect(m_baseline, &QComboBox::activated, this,
            [this](int build) { m_declaring.setBaseline(record::BuildAt(static_cast<std::size_t>(build))); });
    connect(m_declared, &QPushButton::clicked, this, &SheetStrip::toggleDeclared);
    connect(m_gap, &QLineEdit::editingFinished, this, &SheetStrip::takeGap);
    connect(m_want, &QComboBox::activated, this,
            [this](int kind) { m_declaring.setWant(averageOf(m_metric), static_cast<record::Want::Kind>(kind)); });
}

void SheetStrip::setMetric(record::Metric metric) {
    m_metric = metric;
    refresh();
}

void SheetStrip::refresh() {
    if (!m_hand.has())
        return;
    const auto& test = m_hand.test();
    m_baseline->clear();
    for (const auto& build : test.builds)
        m_baseline->addItem(QString::fromStdString(build.name));
    m_baseline->setCurrentIndex(m_hand.isSealed() ? -1 : static_cast<int>(test.baselineIndex()));
    m_baseline->setEnabled(!m_hand.isSealed());
    const auto& primary = test.card.primary;
    const bool declared = std::ranges::find(primary, averageOf(m_metric)) != primary.end();
    m_declared->setChecked(declared);
    m_declared->setText(declared ? tr("Declared") : tr("Exploratory"));
    m_declared->setEnabled(!record::isStrike(m_metric));
    m_want->setCurrentIndex(std::min(static_cast<int>(test.card.want(averageOf(m_metric)).kind), 2));
    const record::MetricFormat format(m_metric, m_book.units());
    m_gapLabel->setText(format.unitText().empty()
                            ? tr("Worthwhile &gap")
                            : tr("Worthwhile &gap, %1").arg(QString::fromStdString(format.unitText())));
    m_gap->setText(gapText(format.shown(test.card.margin(m_metric)), format.decimals()));
}

void SheetStrip::takeGap() {
    if (!m_hand.has() || !m_gap->isModified())
        return;
    m_gap->setModified(false);
    const auto gap = record::valueTyped(m_gap->text().toStdString(), m_metric, m_book.typing());
    if (!gap)
        m_declaring.refuse(tr("%1 The old gap stands.").arg(QString::fromStdString(gap.error())));
    else
        m_declaring.setMargin(m_metric, *gap);
    refresh();
}

void SheetStrip::nextBaseline() {
    if (m_hand.has() && !m_hand.test().builds.empty())
        m_declaring.setBaseline(record::BuildAt((m_hand.test().baselineIndex() + 1) % m_hand.test().builds.size()));
}

void SheetStrip::toggleDeclared() {
    if (m_hand.has() && !record::isStrike(m_metric))
        m_declaring.togglePrimary(averageOf(m_metric));
    refresh();
}

void SheetStrip::editGap() {
    m_gap->setFocus();
    m_gap->selectAll();
}

} // namespace knot::app
