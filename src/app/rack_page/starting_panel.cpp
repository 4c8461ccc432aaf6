#include "app/rack_page/starting_panel.h"

#include "app/session/book.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/sentence.h"
#include "core/judge/may_see.h"
#include "core/judge/shots/lie_help.h"
#include "core/rack/club_kind.h"
#include "core/rack/club_line.h"
#include "core/reach/window.h"
#include "core/record/text/number_text.h"
#include "core/words/lie.h"

#include <QComboBox>
#include <QPlainTextEdit>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <array>

namespace knot::app {
namespace {

constexpr const char* sleeveSetting = "sleeves";

} // namespace

std::vector<rack::SleeveRow> sleevesOf(Book& book) {
    std::string reason;
    const QString text = book.setting(sleeveSetting);
    return text.isEmpty() ? rack::usualSleeves()
                          : rack::sleeveTableFrom(text.toStdString(), reason).value_or(rack::usualSleeves());
}

StartingPanel::StartingPanel(const TestInHand& hand, Book& book)
    : m_hand(hand)
    , m_book(book)
    , m_starting(richLabel()) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 12);
    column->setSpacing(6);
    column->addWidget(headingLabel(tr("Where to start looking")));
    m_starting->setObjectName(QStringLiteral("starting"));
    m_starting->setWordWrap(true);
    m_starting->setTextInteractionFlags(Qt::LinksAccessibleByKeyboard | Qt::LinksAccessibleByMouse);
    column->addWidget(m_starting);
    m_tables = buildTables();
    m_tables->hide();
    column->addWidget(m_tables, 1);
    column->addStretch();
    connect(m_starting, &QLabel::linkActivated, this, [this] {
        m_tables->setVisible(!m_tables->isVisible());
        showTable();
    });
}

QWidget* StartingPanel::buildTables() {
    auto* box = new QWidget;
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    m_which = choiceBox({tr("woods, by driver speed"), tr("what tempo adds"), tr("irons, by seven-iron speed"),
                         tr("wedges, by seven-iron speed"), tr("length and grip, by the body"),
                         tr("sleeve settings, by family")});
    m_which->setObjectName(QStringLiteral("startTable"));
    m_which->setAccessibleName(tr("Which table"));
    m_heads = captionLabel("tablesText");
    m_table = new QPlainTextEdit;
    m_table->setObjectName(QStringLiteral("speedTable"));
    m_table->setAccessibleName(tr("A row a line"));
    m_table->setTabChangesFocus(true);
    m_table->setMinimumHeight(40);
    m_tableFault = captionLabel("tableFault");
    column->addWidget(m_which);
    column->addWidget(m_heads);
    column->addWidget(m_table, 1);
    column->addWidget(m_tableFault);
    connect(m_which, &QComboBox::activated, this, &StartingPanel::showTable);
    connect(m_table, &QPlainTextEdit::textChanged, this, &StartingPanel::takeTable);
    return box;
}

namespace {

const char* settingOf(int table) {
    constexpr std::array names = {"start_speed", "start_tempo", "start_iron",
                                  "start_wedge", "start_body",  sleeveSetting};
    return names.at(static_cast<std::size_t>(table));
}

} // namespace

QString StartingPanel::textOf(const rack::StartingTables& tables, Table table) const {
    switch (table) {
    case Table::wood:
        return QString::fromStdString(rack::speedTableText(tables.speed));
    case Table::tempo:
        return QString::fromStdString(rack::tempoTableText(tables.tempo));
    case Table::iron:
        return QString::fromStdString(rack::speedTableText(tables.iron));
    case Table::wedge:
        return QString::fromStdString(rack::speedTableText(tables.wedge));
    case Table::body:
        return QString::fromStdString(rack::bodyTableText(tables.body));
    case Table::sleeves:
        return QString::fromStdString(rack::sleeveTableText(sleevesOf(m_book)));
    }
    return {};
}

bool StartingPanel::isGood(Table table, const std::string& text, std::string& reason) const {
    switch (table) {
    case Table::tempo:
        return rack::tempoTableFrom(text, reason).has_value();
    case Table::body:
        return rack::bodyTableFrom(text, reason).has_value();
    case Table::sleeves:
        return rack::sleeveTableFrom(text, reason).has_value();
    case Table::wood:
    case Table::iron:
    case Table::wedge:
        break;
    }
    return rack::speedTableFrom(text, reason).has_value();
}

void StartingPanel::takeTable() {
    const auto table = static_cast<Table>(m_which->currentIndex());
    std::string reason;
    const std::string text = m_table->toPlainText().toStdString();
    const bool good = isGood(table, text, reason);
    m_tableFault->setText(good ? tr("Kept with the logbook. Only ever a bracket to start from.")
                               : QString::fromStdString(reason));
    if (!good || !m_tables->isVisible())
        return;
    m_book.setSetting(settingOf(m_which->currentIndex()), QString::fromStdString(text));
    refresh();
}

rack::StartingTables StartingPanel::tables() {
    rack::StartingTables own = rack::usualStartingTables();
    std::string reason;
    auto take = [&](Table table, auto& rows, auto from) {
        if (const QString text = m_book.setting(settingOf(static_cast<int>(table))); !text.isEmpty())
            rows = from(text.toStdString(), reason).value_or(rows);
    };
    take(Table::wood, own.speed, rack::speedTableFrom);
    take(Table::tempo, own.tempo, rack::tempoTableFrom);
    take(Table::iron, own.iron, rack::speedTableFrom);
    take(Table::wedge, own.wedge, rack::speedTableFrom);
    take(Table::body, own.body, rack::bodyTableFrom);
    return own;
}

void StartingPanel::showTable() {
    const auto table = static_cast<Table>(m_which->currentIndex());
    const QSignalBlocker quiet(m_table);
    m_heads->setText(table == Table::tempo     ? tr("word, grams more, flex steps")
                     : table == Table::body    ? tr("height, wrist or hand, from, to, mm from, to, size in words")
                     : table == Table::sleeves ? tr("family, setting, loft, face, lie")
                                               : tr("m/s from, to, grams from, to, flex"));
    m_table->setPlainText(textOf(tables(), table));
    m_tableFault->setText(tr("A first guess of this program; only ever a bracket to start from."));
}

namespace {

QString bracketWords(const rack::Bracket& bracket) {
    return StartingPanel::tr("%1 to %2 g, %3")
        .arg(bracket.fromGrams)
        .arg(bracket.toGrams)
        .arg(QString::fromStdString(bracket.flex).toHtmlEscaped());
}

QString lengthRange(const rack::Range& range, record::LengthUnit unit) {
    const bool isInches = unit == record::LengthUnit::in;
    auto one = [&](double value) {
        return QString::fromStdString(record::signedFixed(
            record::fromInternal(value, isInches ? record::Unit::in : record::Unit::mm), isInches ? 2 : 0));
    };
    return (isInches ? StartingPanel::tr("%1 to %2 in") : StartingPanel::tr("%1 to %2 mm"))
        .arg(one(range.low), one(range.high));
}

} // namespace

// One too light and soft, one too heavy and stiff, from what the logbook knows: between them lies what is looked for.
QString StartingPanel::bracketText(const rack::Bracket& bySpeed, const rack::Bracket& byTempo) {
    const double least = std::min(bySpeed.fromGrams, byTempo.fromGrams);
    const double most = std::max(bySpeed.toGrams, byTempo.toGrams);
    const record::Part* lighter = nullptr;
    const record::Part* heavier = nullptr;
    for (const record::Part& part : m_book.knownParts()) {
        if (part.kind != record::PartKind::shaft || !part.mass)
            continue;
        if (*part.mass <= least && (lighter == nullptr || *part.mass > *lighter->mass))
            lighter = &part;
        if (*part.mass >= most && (heavier == nullptr || *part.mass < *heavier->mass))
            heavier = &part;
    }
    if (lighter == nullptr || heavier == nullptr)
        return tr("Hit one lighter and softer and one heavier and stiffer than that as well.");
    return tr("Bracket it: %1 is lighter, %2 heavier.")
        .arg(QString::fromStdString(rack::partText(*lighter)).toHtmlEscaped(),
             QString::fromStdString(rack::partText(*heavier)).toHtmlEscaped());
}

void StartingPanel::refresh() {
    if (!m_hand.has())
        return;
    const record::Test& test = m_hand.test();
    const record::Player profile = test.firstPlayer();
    const auto kind = rack::ClubKinds(test).first();
    const bool isIron = kind == flight::HeadKind::iron || kind == flight::HeadKind::wedge;
    const auto own = tables();
    const auto& rows = kind == flight::HeadKind::wedge ? own.wedge : isIron ? own.iron : own.speed;
    const auto speed = isIron ? profile.ironSpeed : profile.clubSpeed;
    const QString family = isIron ? kind == flight::HeadKind::wedge ? tr("a wedge") : tr("an iron") : tr("a wood");
    QStringList lines;
    if (const auto bySpeed = speed ? rack::bySpeed(rows, *speed) : std::nullopt) {
        const auto byTempo = *rack::bySpeedAndTempo(rows, own.tempo, *speed, profile.tempo);
        lines << tr("To start from, for %1: %2 by speed; %3 with tempo and transition. %4")
                     .arg(family, bracketWords(*bySpeed), bracketWords(byTempo), bracketText(*bySpeed, byTempo));
    } else {
        lines << (isIron ? tr("A seven-iron speed of the player gives a shaft weight and flex to start from.")
                         : tr("A driver speed of the player gives a shaft weight and flex to start from."));
    }
    if (kind == flight::HeadKind::driver && profile.clubSpeed) {
        QStringList lofts;
        for (const double attack : {-2.0, 0.0, 3.0})
            if (const auto window = reach::windowOf({.clubSpeed = *profile.clubSpeed, .attack = attack}))
                lofts << tr("%1° at %2°")
                             .arg(QString::fromStdString(record::fixed(window->bestTry().loft, 1)),
                                  QString::fromStdString(record::signedFixed(attack, 0)));
        lines << tr("Loft that carries farthest, by attack, of those that are sold: %1; modelled.")
                     .arg(lofts.join(QStringLiteral(", ")));
    }
    const bool isOfLie = test.card.kind == record::TestKind::lie || test.card.kind == record::TestKind::length;
    if (isOfLie && !judge::withheld(test)) {
        const auto subject = judge::Case::of(test);
        for (const std::string& sentence : words::lieSentences(subject, judge::lieReading(subject)))
            lines << QString::fromStdString(sentence).toHtmlEscaped();
    }
    if (const auto length = rack::lengthFor(own.body, profile.height, profile.wristToFloor))
        lines << tr("Length, by the body: %1 from usual.").arg(lengthRange(*length, m_book.units().length));
    if (const QString grip = profile.hand ? QString::fromStdString(rack::gripFor(own.body, *profile.hand)) : QString();
        !grip.isEmpty())
        lines << tr("Grip, by the hand: %1.").arg(grip.toHtmlEscaped());
    m_starting->setText(lines.join(QStringLiteral("<br>")) +
                        tr(" <a href='tables' style='color:%1'>The tables</a>").arg(colours().link.name()));
}

} // namespace knot::app
