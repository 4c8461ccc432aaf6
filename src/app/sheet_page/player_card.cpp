#include "app/sheet_page/player_card.h"

#include "app/session/book.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"

#include <QVBoxLayout>

namespace knot::app {
namespace {

using record::Metric;
using record::MetricFormat;
using record::Player;

constexpr std::size_t mostUsual = 5; // rows of usual numbers; the rest is a key away

QString cell(Metric metric, const std::optional<double>& value, const record::DisplayUnits& units) {
    return QStringLiteral("<td align='right'>%1</td>")
        .arg(value ? QString::fromStdString(MetricFormat(metric, units).withUnit(*value)) : QString());
}

QString usualTable(const Player& player, const record::DisplayUnits& units) {
    if (player.usual.empty())
        return {};
    QString html = QStringLiteral("<p style='margin:2px 0;color:%1'>%2</p><table width='100%' cellspacing='0' "
                                  "cellpadding='2'>")
                       .arg(colours().faint.name(), PlayerCard::tr("Usual"));
    for (std::size_t i = 0; i < std::min(player.usual.size(), mostUsual); ++i) {
        const record::Usual& usual = player.usual[i];
        html += QStringLiteral("<tr><td>%1</td>").arg(QString::fromStdString(usual.club).toHtmlEscaped()) +
                cell(Metric::carry, usual.carry, units) + cell(Metric::ballSpeed, usual.ballSpeed, units) +
                cell(Metric::launch, usual.launch, units) + cell(Metric::spin, usual.spin, units) +
                QStringLiteral("</tr>");
    }
    html += QStringLiteral("</table>");
    if (player.usual.size() > mostUsual)
        html += PlayerCard::tr("<p style='margin:0'>and %1 clubs more</p>").arg(player.usual.size() - mostUsual);
    return html;
}

QString handAndSpeed(const Player& player, const record::DisplayUnits& units) {
    const MetricFormat speed(Metric::clubSpeed, units);
    QStringList known{player.leftHanded ? PlayerCard::tr("left-handed") : PlayerCard::tr("right-handed")};
    if (player.clubSpeed)
        known << PlayerCard::tr("driver %1").arg(QString::fromStdString(speed.withUnit(*player.clubSpeed)));
    return known.join(QStringLiteral(", "));
}

QString facts(const Player& player) {
    const QString costs = player.costs == record::Side::left    ? PlayerCard::tr("left")
                          : player.costs == record::Side::right ? PlayerCard::tr("right")
                                                                : QString();
    auto joined = [](const std::string& a, const std::string& b) {
        return QString::fromStdString(a.empty() ? b : b.empty() ? a : a + "; " + b);
    };
    const QString miss =
        player.miss.empty() ? QString() : PlayerCard::tr("misses %1").arg(QString::fromStdString(player.miss));
    const std::pair<QString, QString> rows[] = {
        {PlayerCard::tr("Shape and miss"), joined(player.shape, miss.toStdString())},
        {PlayerCard::tr("Side that costs"), costs},
        {PlayerCard::tr("Tempo"), joined(player.tempo, player.transition)},
        {PlayerCard::tr("Wants"), QString::fromStdString(player.goals)},
        {PlayerCard::tr("Plays"), QString::fromStdString(player.plays)},
        {PlayerCard::tr("To look after"), QString::fromStdString(player.health)}};
    QString html = QStringLiteral("<table width='100%' cellspacing='0' cellpadding='2'>");
    for (const auto& [what, said] : rows)
        if (!said.isEmpty())
            html += QStringLiteral("<tr><td width='110' style='color:%1'>%2</td><td>%3</td></tr>")
                        .arg(colours().faint.name(), what, said.toHtmlEscaped());
    return html + QStringLiteral("</table>");
}

} // namespace

QString aboutPlayer(const Player& player, const record::DisplayUnits& units) {
    QStringList known{handAndSpeed(player, units)};
    for (const auto& text : {player.shape, player.tempo})
        if (!text.empty())
            known << QString::fromStdString(text);
    if (!player.miss.empty())
        known << PlayerCard::tr("misses %1").arg(QString::fromStdString(player.miss));
    return known.join(QStringLiteral(", "));
}

PlayerCard::PlayerCard(const TestInHand& hand, const Book& book)
    : m_hand(hand)
    , m_book(book)
    , m_name(headingLabel({}))
    , m_about(richLabel())
    , m_note(captionLabel("playersNote")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 14);
    column->setSpacing(6);
    m_name->setWordWrap(true);
    column->addWidget(m_name);
    m_about->setObjectName(QStringLiteral("aboutPlayer"));
    m_about->setWordWrap(true);
    m_about->setAlignment(Qt::AlignTop);
    m_about->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    column->addWidget(m_about);
    column->addWidget(m_note);
    column->addStretch();
    connect(m_about, &QLabel::linkActivated, this,
            [this](const QString& link) { emit aboutRequested(link.toStdString()); });
}

void PlayerCard::refresh() {
    if (!m_hand.has())
        return;
    const record::Test& test = m_hand.test();
    const record::DisplayUnits units = m_book.units();
    const auto link = [&](const Player& player) {
        return QStringLiteral("<a href=\"%1\" style=\"color: %2\">%3</a>")
            .arg(QString::fromStdString(player.id).toHtmlEscaped(), colours().link.name(), tr("all about them"));
    };
    m_name->setText(test.players.empty() ? tr("Who hits") : QString::fromStdString(test.playerNames()));
    QString html;
    if (test.players.empty())
        html = tr("Their name brings what the logbook knows of them: hand, speeds, what is usual.");
    else if (test.players.size() == 1)
        html = QStringLiteral("<p style='margin:0 0 4px 0'>%1</p>")
                   .arg(handAndSpeed(test.players[0], units).toHtmlEscaped()) +
               usualTable(test.players[0], units) + facts(test.players[0]) +
               QStringLiteral("<p style='margin:4px 0 0 0'>%1</p>").arg(link(test.players[0]));
    else
        for (const Player& player : test.players)
            html += QStringLiteral("<p style='margin:0 0 4px 0'><b>%1</b>: %2 · %3</p>")
                        .arg(QString::fromStdString(player.name).toHtmlEscaped(),
                             aboutPlayer(player, units).toHtmlEscaped(), link(player));
    m_about->setText(html);
    // Whose shots they are is the record's from the first one on where there are several.
    const bool settled = !test.shots.empty() && test.players.size() > 1;
    m_note->setVisible(settled || test.players.size() > 1);
    m_note->setText(settled ? tr("Whose shots they are can be put right in the list of shots (L in the Bay).")
                            : tr("Each hits all laps, the order turned by one club from player to player; O in the Bay "
                                 "hands over to the next one."));
}

} // namespace knot::app
