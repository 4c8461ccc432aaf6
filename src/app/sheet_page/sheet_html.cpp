#include "app/sheet_page/sheet_html.h"

#include "app/sheet_page/player_card.h"
#include "app/style/palette.h"
#include "app/style/words.h"
#include "core/ask/answers.h"
#include "core/plan/planner.h"
#include "core/rack/ties.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/club_names.h"

#include <QObject>
#include <QStringList>

namespace knot::app {
namespace {

using record::MetricFormat;
using record::OutcomeKind;

QString escaped(const std::string& text) {
    return QString::fromStdString(text).toHtmlEscaped();
}

QString inHundred(const std::optional<double>& chance) {
    if (!chance)
        return QStringLiteral("–");
    const double times = 100 * *chance;
    return times < 1 ? tr("under 1") : times > 99 ? tr("over 99") : QString::fromStdString(record::fixed(times, 0));
}

// A heading and what stands under it; nothing where that is empty.
QString block(const QString& heading, const QString& html) {
    return html.isEmpty() ? QString() : QStringLiteral("<h3>%1</h3>%2").arg(heading, html);
}

QString expectedHtml(const record::Declared& of, bool isSealed) {
    const record::Card& card = of.card;
    QStringList said;
    for (const auto& [metric, way] : card.expectations)
        said << tr("%1 %2").arg(escaped(record::info(metric).label), way == record::Expectation::up ? tr("up")
                                                                     : way == record::Expectation::down
                                                                         ? tr("down")
                                                                         : tr("no change"));
    if (!card.expectedOrder.empty())
        said << (isSealed ? tr("an order of clubs, sealed with them")
                          : escaped(record::orderText(of.namesOf(card.expectedOrder))));
    if (!said.isEmpty() && !card.expectedBy.empty())
        said << tr("said by %1").arg(escaped(card.expectedBy));
    return said.join(QStringLiteral(" · "));
}

QString rulesHtml(const record::Card& card) {
    constexpr const char* rules[] = {"every shot is kept", "a bad one is called before its number shows",
                                     "each stint is hit until enough are good", "a rule on numbers sets shots aside",
                                     "the best and the worst are dropped"};
    const QString looks = card.looks == record::Looks::none ? tr("nobody sees a comparison before the last lap")
                                                            : tr("comparisons are seen after each lap from the second");
    return tr("%1; %2; %3 in 100 may be luck.")
        .arg(tr(rules[static_cast<std::size_t>(card.setAsideRule)]), looks,
             QString::fromStdString(record::fixed(100 * card.alpha, 0)));
}

QString heldHtml(const record::Test& test) {
    QString html;
    for (const record::Held& held : test.card.held) {
        const rack::Tie tie = rack::tieOf(held.what, ask::clubsIn(test), test.card.kind);
        const QString known = test.seal.isClosed() ? QString() : escaped(tie.text);
        html +=
            QStringLiteral("<tr><td>%1</td><td>%2</td></tr>")
                .arg(escaped(held.what), !held.held ? tr("slipped: %1").arg(escaped(held.slip))
                                         : tie.state == rack::Tie::State::differs ? tr("differs: %1").arg(known)
                                         : tie.state == rack::Tie::State::factor  ? tr("comes with it: %1").arg(known)
                                                                                  : known);
    }
    return html.isEmpty() ? html : QStringLiteral("<table cellpadding='2'>%1</table>").arg(html);
}

} // namespace

QString gapText(const record::Outcome& outcome, double gap, const record::DisplayUnits& units) {
    return record::isRatio(outcome) ? tr("%1 times").arg(QString::fromStdString(record::fixed(gap, 2)))
                                    : QString::fromStdString(MetricFormat(outcome.metric, units).withUnit(gap));
}

QString takesHtml(const record::Test& test, const std::vector<plan::Takes>& takes, const record::DisplayUnits& units,
                  const QColor& advice) {
    const int shots = plan::shotsATurn(test.plan);
    const QString minutes = QString::fromStdString(record::fixed(plan::minutesOf(test.plan, test.turns), 0));
    const auto row = [](const QString& what, double worth, const QString& proved) {
        return QStringLiteral("<tr><td>%1</td><td align='right'><b>%2</b></td><td align='right'>%3</td></tr>")
            .arg(what)
            .arg(qRound(100 * worth))
            .arg(proved);
    };
    QString html;
    for (const plan::Takes& one : takes) {
        const QString label = QString::fromStdString(record::outcomeLabel(one.outcome)).toHtmlEscaped();
        const double chance = one.thisPlan.value_or(0);
        html += QStringLiteral("<table width='100%' cellspacing='0' cellpadding='1' style='margin-top:%1px'>"
                               "<tr><td><b>%2</b>, of 100</td><td align='right' style='color:%5'>%3</td>"
                               "<td align='right' style='color:%5'>%4</td></tr>")
                    .arg(html.isEmpty() ? 0 : 8)
                    .arg(record::upperFirst(label.toStdString()).c_str(), tr("chooses"), tr("proves"),
                         colours().faint.name());
        html += row(test.plan.schedule == record::Schedule::oneRunEach ? tr("one run of %1 each").arg(shots)
                    : test.turns.empty() ? tr("%1 laps of %2").arg(test.plan.rounds).arg(shots)
                                         : tr("%1 laps of %2, %3 min").arg(test.plan.rounds).arg(shots).arg(minutes),
                    one.worth, one.thisPlan ? inHundred(one.thisPlan) : tr("never"));
        if (one.thisPlan)
            html += row(tr("on two days"), one.worthOnTwoDays, inHundred(one.twoSittings));
        html += row(tr("three shots each"), one.worthByHand, tr("never"));
        html += QStringLiteral("</table>");
        if (chance < 0.8)
            html += QStringLiteral("<p style='margin:2px 0 0 0;color:%1'>%2</p>")
                        .arg(advice.name(), one.smallest ? tr("It proves %1 or more 80 times in 100.")
                                                               .arg(gapText(one.outcome, *one.smallest, units))
                                                         : tr("With so few laps or shots nothing can be proved."));
    }
    return html;
}

QString sheetHtml(const record::Test& test, const std::vector<plan::Takes>& takes, const record::DisplayUnits& units) {
    QString html = QStringLiteral("<h1>%1</h1>").arg(escaped(test.title));
    html += QStringLiteral("<p style='font-size:large'>%1</p>").arg(escaped(ask::textOf(ask::sentenceOf(test, units))));
    html += block(tr("Expected"), expectedHtml(test, test.seal.isClosed()));
    html += block(tr("Bad shots, and looking"), rulesHtml(test.card));
    QStringList windows;
    for (record::Target target : test.card.targets) {
        if (test.seal.isClosed() && !target.build.empty())
            target.build = tr("one club").toStdString();
        windows << escaped(ask::windowText(target, test, units));
    }
    html += block(tr("Wanted"), windows.join(QStringLiteral("<br>")));
    html += block(tr("Held constant"), heldHtml(test));
    QStringList players;
    for (const record::Player& player : test.players)
        players << escaped(player.name) + QStringLiteral(": ") + aboutPlayer(player, units).toHtmlEscaped();
    html += block(tr("Who hits"), players.join(QStringLiteral("<br>")));
    return html + block(tr("What that takes"), takesHtml(test, takes, units, Qt::darkGray));
}

} // namespace knot::app
