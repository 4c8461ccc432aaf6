#include "app/plan_page/plan_words.h"

#include "app/plan_page/futures_view.h"
#include "app/style/palette.h"
#include "app/style/words.h"
#include "core/plan/looks.h"
#include "core/plan/requirements.h"
#include "core/plan/schedule.h"
#include "core/plan/strike_off.h"
#include "core/plan/ways.h"
#include "core/record/control.h"
#include "core/record/text/number_text.h"

#include <QObject>

#include <algorithm>
#include <cmath>
#include <tuple>

namespace knot::app {
namespace {

using record::MetricFormat;

QString paragraph(const QString& text) {
    return QStringLiteral("<p style='margin:0 0 6px 0'>%1</p>").arg(text);
}

// Of a hundred: "18 times", "once".
QString times(double chance) {
    const std::string whole = record::fixed(100 * chance, 0);
    return whole == "1" ? QObject::tr("once") : QObject::tr("%1 times").arg(QString::fromStdString(whole));
}

QString laps(int count) {
    return QString::fromStdString(record::counted(static_cast<std::size_t>(count), "lap"));
}

QString minutesText(double minutes) {
    return QString::fromStdString(record::fixed(minutes, 0)) + tr(" minutes");
}

QString ratio(double value) {
    return QString::fromStdString(record::fixed(value, value < 9.95 ? 1 : 0));
}

// Of a spread or an area, which are seen by their ratio.
// Spreads want longer stints than averages do: the laps and shots that see most in the time there is.
QString bestRatioHtml(const record::Test& test, const Planning& planning, double minutes) {
    constexpr int longest = 12, most = 60;
    record::Test tried;
    tried.builds = test.builds;
    tried.card = test.card;
    tried.plan = test.plan;
    tried.plan.schedule = record::Schedule::rotated;
    int bestLaps = 0;
    int bestShots = 0;
    double chance = 0;
    for (int length = 2; length <= longest; ++length)
        for (int rounds = 2; rounds <= most; ++rounds) {
            if (plan::minutesFor(planning.question, planning.pace, rounds, length) > minutes)
                break;
            tried.plan.rounds = rounds;
            tried.plan.turnLength = length;
            const double seen = plan::chanceToSee(tried, planning.outcome, planning.spreads, planning.question.gap);
            if (seen > chance)
                std::tie(bestLaps, bestShots, chance) = std::tuple(rounds, length, seen);
        }
    if (bestLaps == 0)
        return paragraph(tr("<b>In %1</b> there is no plan that could judge it.").arg(minutesText(minutes)));
    return paragraph(tr("<b>In %1</b> %2 of %3 see it most often, %4 in 100: a spread wants more shots a stint than an "
                        "average does.")
                         .arg(minutesText(minutes), laps(bestLaps))
                         .arg(bestShots)
                         .arg(times(chance)));
}

QString ratioAnswersHtml(const record::Test& test, const Planning& planning, double minutes) {
    const QString name = QString::fromStdString(record::outcomeLabel(planning.outcome));
    const double worthwhile = planning.question.gap;
    const double chance = plan::chanceToSee(test, planning.outcome, planning.spreads, worthwhile);
    const int shots = plan::shotsATurn(test.plan);
    const bool isArea = planning.outcome.kind == record::OutcomeKind::area;
    const auto seen = isArea ? plan::areaSeen(test.plan.rounds, shots, planning.question.alpha)
                             : plan::spreadSeen(test.plan.rounds, shots, planning.question.alpha);
    QString html = paragraph(
        seen ? tr("<b>This plan</b> sees a %1 that is %2 times as large 80 times in 100, and the worthwhile %3 times, "
                  "%4.")
                   .arg(name, ratio(*seen), QString::fromStdString(record::fixed(worthwhile, 2)), times(chance))
             : tr("<b>This plan</b> has too few laps or shots a stint to judge a %1.").arg(name));
    html += bestRatioHtml(test, planning, minutes);
    return html +
           paragraph(tr("<b>Three shots each</b> would see one %1 times as wide, and could not tell the club from "
                        "the moment.")
                         .arg(ratio(plan::spreadSeenByRuns(plan::shotsByHand))));
}

} // namespace

Planning planningOf(const record::Test& test, const record::Outcome& outcome, const plan::Spreads& spreads) {
    Planning planning;
    planning.outcome = outcome;
    planning.metric = outcome.metric;
    planning.spreads = spreads;
    const std::size_t builds = std::max<std::size_t>(test.builds.size(), 2);
    planning.question = {.sdTurn = spreads.sdTurn,
                         .sdShot = spreads.sdShot,
                         .gap = outcome.kind == record::OutcomeKind::spread ? test.card.sdRatioMargin
                                : outcome.kind == record::OutcomeKind::area ? test.card.areaRatioMargin
                                                                            : test.card.margin(planning.metric),
                         .alpha = plan::levelOfOne(test),
                         .builds = builds};
    planning.pace = plan::paceOf(test.plan);
    planning.minutes = plan::minutesOf(test.plan, plan::foreseen(test).turns);
    return planning;
}

QString answersHtml(const record::Test& test, const Planning& planning, double minutes,
                    const record::DisplayUnits& units) {
    const MetricFormat format(planning.metric, units);
    auto shown = [&](double value) { return QString::fromStdString(format.withUnit(value)); };
    const auto& q = planning.question;
    if (planning.isRatio())
        return ratioAnswersHtml(test, planning, minutes);
    const QString name = QString::fromStdString(record::info(planning.metric).label);
    QString html;
    if (test.plan.schedule != record::Schedule::oneRunEach && test.plan.rounds >= 2) {
        const auto now = plan::optionOf(q, planning.pace, test.plan.rounds, plan::shotsATurn(test.plan));
        const auto twice = plan::optionOf(q, planning.pace, 2 * test.plan.rounds, plan::shotsATurn(test.plan));
        html += paragraph(tr("<b>This plan</b> sees a gap of %1 in %2 80 times in 100, and the worthwhile %3 %4. "
                             "Where there is none it can say so %5. On a second day as well: %6 and %7.")
                              .arg(shown(now.smallestGap), name, shown(q.gap), times(now.power), times(now.powerSame),
                                   times(twice.power), times(twice.powerSame)));
    }
    if (!plan::bestIn(minutes, q, planning.pace))
        html += paragraph(tr("<b>In %1</b> two laps with every club do not fit.").arg(minutesText(minutes)));
    const int length = plan::shotsATurn(test.plan);
    const auto see = plan::toSee(q, planning.pace, length);
    const auto same = plan::toSaySame(q, planning.pace, length);
    if (see && same) {
        const int most = std::max(see->rounds, same->rounds);
        const double whole = plan::minutesFor(q, planning.pace, most, length);
        html += paragraph(
            tr("<b>To see %1</b> it takes %2 of %3; to say “no gap that matters”, %4%5")
                .arg(shown(q.gap), laps(see->rounds))
                .arg(length)
                .arg(laps(same->rounds),
                     whole > minutes && minutes > 0
                         ? tr(": %1 sittings of %2.").arg(std::ceil(whole / minutes)).arg(minutesText(minutes))
                         : tr(", %1.").arg(minutesText(whole))));
    } else {
        html += paragraph(tr("<b>To see %1</b> takes more than 60 laps: out of reach. A wider gap, fewer outcomes or "
                             "fewer clubs bring it nearer.")
                              .arg(shown(q.gap)));
    }
    return html;
}

QString byHandHtml(const Planning& planning, const record::DisplayUnits& units) {
    if (planning.isRatio() || planning.outcome.kind == record::OutcomeKind::share)
        return {}; // of ratios the answers say it, and of shares nothing is known
    const auto& q = planning.question;
    const QString gap = QString::fromStdString(
        MetricFormat(planning.metric, units).withUnit(plan::gapSeenByRuns(q, plan::shotsByHand)));
    return paragraph(
        tr("<b>Three shots each</b> would see %1 and a spread %2 times as wide, and can't tell the club from "
           "the moment: plain tests of them call one different %3 times in 100 where all are alike.")
            .arg(gap, ratio(plan::spreadSeenByRuns(plan::shotsByHand, q.alpha)))
            .arg(qRound(100 * plan::falseAlarmsOfRuns(q, plan::shotsByHand))));
}

QString looksHtml(const Planning& planning, double minutes) {
    constexpr int fewestLaps = 4;
    const auto best = planning.isRatio() ? std::nullopt : plan::bestIn(minutes, planning.question, planning.pace);
    if (!best || best->rounds < fewestLaps)
        return {};
    const auto looked = [&](double gaps) {
        return plan::withLooks(planning.question, best->rounds, best->turnLength, gaps);
    };
    const auto after = [](const plan::Looked& one) { return QString::fromStdString(record::fixed(one.meanLaps, 1)); };
    const plan::Looked once = looked(1);
    const plan::Looked twice = looked(2);
    const plan::Looked thrice = looked(3);
    return paragraph(
        tr("<b>With a look after each of %1</b> the worthwhile gap is claimed %2 in 100 after %3 laps on average, "
           "twice that %4 after %5, three times that %6 after %7; where there is none, %8 are hit.")
            .arg(laps(best->rounds), times(once.chance), after(once), times(twice.chance), after(twice),
                 times(thrice.chance), after(thrice), after(looked(0))));
}

QString limitsHtml(const record::Test& test, const Planning& planning) {
    const auto& p = test.plan;
    QString html;
    if (p.schedule == record::Schedule::sandwich)
        html += paragraph(tr("A sandwich spends twice the swings on the baseline and shows which club it is."));
    const int length = plan::shotsATurn(p);
    if (p.schedule != record::Schedule::oneRunEach && p.rounds >= 2) {
        if (const auto spread = plan::spreadSeen(p.rounds, length, planning.question.alpha))
            html += paragraph(tr("Spreads that differ by less than %1 times will not be seen.").arg(ratio(*spread)));
        else
            html += paragraph(tr("Too few shots a stint to compare spreads."));
        if (const auto area = plan::areaSeen(p.rounds, length, planning.question.alpha))
            html +=
                paragraph(tr("Landing areas that differ by less than %1 times will not be seen.").arg(ratio(*area)));
        else
            html += paragraph(tr("Landing areas need four laps of two shots or more."));
    }
    if (p.rounds < 6 && p.schedule != record::Schedule::oneRunEach && p.rounds >= 2)
        html +=
            paragraph(tr("With %1 the shuffle check can't go below %2.")
                          .arg(laps(p.rounds),
                               QString::fromStdString(record::probability(2.0 / static_cast<double>(1U << p.rounds)))));
    if (test.card.blinding == record::Blinding::open)
        html += paragraph(tr("Open: the player knows the club, and that may move the swing."));
    const auto scheduled = plan::scheduled(
        {.schedule = p.schedule, .builds = planning.question.builds, .rounds = p.rounds, .turnLength = 1});
    if (!scheduled.balanced && p.schedule == record::Schedule::rotated && planning.question.builds > 2)
        html += paragraph(tr("Every club follows every other equally often only at %1 laps or multiples of it.")
                              .arg(plan::williamsRows(planning.question.builds).size()));
    return html;
}

QString cautionsHtml(const record::Test& test) {
    const auto& p = test.plan;
    QString html;
    if (p.schedule == record::Schedule::oneRunEach)
        html += paragraph(tr("One run each can't tell the club from the moment: gaps will be shown, not judged."));
    else if (p.rounds < 2)
        html += paragraph(tr("One lap has no known error: two laps are the least."));
    const std::size_t clubs = test.builds.size();
    const int comesToTwo = plan::fewestLaps(clubs);
    if (plan::strikesOff(test) && p.rounds < comesToTwo)
        html += paragraph(tr("%1 leave %2 clubs, and all pairs of them are judged. Plan "
                             "<a href='%3' style='color:%4'>%5</a> to come down to two.")
                              .arg(laps(p.rounds))
                              .arg(p.rounds > plan::firstCut ? plan::stayAfter(clubs, plan::firstCut) : clubs)
                              .arg(comesToTwo)
                              .arg(colours().link.name(), laps(comesToTwo)));
    else if (plan::strikesOff(test))
        html += paragraph(
            tr("Half of the clubs go after lap %1, all but two after lap %2, by the first declared outcome; the "
               "last two are judged on all their laps. The claim is about them, not “the best of all”.")
                .arg(plan::firstCut)
                .arg(plan::secondCut));
    if (plan::swingsOf(p, test.turns) > 100)
        html +=
            paragraph(tr("%1 full swings are a lot for one day: split the laps over sittings, rest, and stop on pain.")
                          .arg(plan::swingsOf(p, test.turns)));
    return html;
}

namespace {

// Of a share of a hundred; of spreads and areas a factor; else in the unit, without it.
QString hadText(const record::Outcome& outcome, double value, const record::DisplayUnits& units) {
    if (record::isRatio(outcome))
        return QString::fromStdString(record::fixed(std::exp(value), 2));
    if (outcome.kind == record::OutcomeKind::share)
        return QString::fromStdString(record::fixed(100 * value, 0));
    return QString::fromStdString(MetricFormat(outcome.metric, units).number(value));
}

QString unitText(const record::Outcome& outcome, const record::DisplayUnits& units) {
    return record::isRatio(outcome) ? QObject::tr("times smaller")
           : outcome.kind == record::OutcomeKind::share
               ? QObject::tr("shots in 100")
               : QString::fromStdString(MetricFormat(outcome.metric, units).unitText());
}

} // namespace

QString getsText(const record::Outcome& outcome, const plan::Worth& worth, const plan::Worth& byHand,
                 const record::DisplayUnits& units) {
    return QObject::tr("%1 of %2 %3. Three shots each get %4, choosing unhit none.")
        .arg(hadText(outcome, worth.had, units), hadText(outcome, worth.toBeHad, units), unitText(outcome, units))
        .arg(qRound(100 * byHand.share));
}

QString othersText(const record::Test& test, const plan::WorthOf& of,
                   const std::function<plan::WorthOf(const record::Outcome& outcome)>& worthOf) {
    QStringList said{QObject::tr("The same on a second day as well: %1 of 100")
                         .arg(qRound(100 * plan::worthOfPlan(test, of.outcome, of.struck, of.tau, {}, 2).worth.share))};
    for (const record::Outcome& outcome : test.card.primary)
        if (outcome != of.outcome) {
            const plan::WorthOf other = worthOf(outcome);
            said << QObject::tr("%1: %2 of 100")
                        .arg(QString::fromStdString(record::outcomeLabel(outcome)))
                        .arg(qRound(100 * plan::worthOfPlan(test, outcome, other.struck, other.tau).worth.share));
        }
    return said.join(QStringLiteral(" · "));
}

QString ifBetterText(const plan::PlanWorth& planned, const record::DisplayUnits& units) {
    const record::Outcome& outcome = planned.outcome;
    const QString label = QString::fromStdString(record::outcomeLabel(outcome));
    if (record::isRatio(outcome))
        return QObject::tr("if one has %1 times less %2, and the others are alike")
            .arg(QString::fromStdString(record::fixed(planned.gap, 2)), label);
    const QString gap = outcome.kind == record::OutcomeKind::share
                            ? QObject::tr("%1 in 100").arg(qRound(100 * planned.gap))
                            : QString::fromStdString(MetricFormat(outcome.metric, units).withUnit(planned.gap));
    return QObject::tr("if one is %1 better in %2, and the others are alike").arg(gap, label);
}

QString leftText(const plan::PlanWorth& planned, const record::DisplayUnits& units) {
    if (record::isRatio(planned.outcome) || planned.outcome.kind == record::OutcomeKind::share)
        return {};
    return QObject::tr(": %1 left lying")
        .arg(QString::fromStdString(MetricFormat(planned.outcome.metric, units).withUnit(planned.gap)));
}

QString otherFuturesText(const plan::PlanWorth& byHand, const plan::PlanWorth& onTwoDays) {
    const auto three = [](const plan::PlanWorth& of) {
        const InHundred all = inHundred(of.futures);
        return QStringLiteral("%1, %2, %3").arg(all.proved).arg(all.chosen).arg(all.wrong);
    };
    return QObject::tr("Three shots each: %1. On two days: %2.").arg(three(byHand), three(onTwoDays));
}

std::optional<plan::WorthOption> nextTest(const plan::WorthOf& of) {
    return plan::mostWorth(plan::Way::shortStints, of, eveningMinutes);
}

QString nextTestText(const plan::WorthOf& of) {
    const auto best = nextTest(of);
    return best
               ? QObject::tr("Planned, these clubs get %1 of 100 in %2 minutes: %3 of %4. “The same on another day” on "
                             "the Decision page makes that test.")
                     .arg(qRound(100 * best->worth.share))
                     .arg(qRound(best->minutes))
                     .arg(laps(best->rounds))
                     .arg(best->turnLength)
               : QObject::tr("Two laps with all of these clubs don't fit into %1 minutes.").arg(qRound(eveningMinutes));
}

} // namespace knot::app
