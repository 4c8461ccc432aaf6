#include "app/rack_page/leads.h"

#include "core/plan/screening.h"
#include "core/plan/spreads.h"
#include "core/rack/club_kind.h"
#include "core/record/text/number_text.h"

#include <QObject>

namespace knot::app {
namespace {

using record::OutcomeKind;

// "152 m on average", "spread of 4.1 m", "half in 210 m²", "62 % inside".
QString valueText(const record::Outcome& outcome, double value, const record::DisplayUnits& units) {
    const record::MetricFormat format(outcome.metric, units);
    switch (outcome.kind) {
    case OutcomeKind::average:
    case OutcomeKind::equal:
    case OutcomeKind::typical:
        return QObject::tr("%1 on average").arg(QString::fromStdString(format.withUnit(value)));
    case OutcomeKind::spread:
        return QObject::tr("spread of %1").arg(QString::fromStdString(format.withUnit(value)));
    case OutcomeKind::area:
        return QObject::tr("half in %1 m²").arg(QString::fromStdString(record::fixed(value, 0)));
    case OutcomeKind::share:
        return QObject::tr("%1 % inside").arg(QString::fromStdString(record::fixed(100 * value, 0)));
    }
    return {};
}

QString riskText(const record::Test& test, const std::vector<int>& shots, const record::Outcome& outcome) {
    if (outcome.kind != OutcomeKind::average)
        return {};
    const auto usual = plan::usualSpreads(outcome.metric, plan::Level::club);
    const double risk =
        plan::riskOfDroppingBest(shots, 2, test.card.margin(outcome.metric), usual.sdTurn, usual.sdShot);
    return QObject::tr("\nKeeping only the first two drops the best one %1 times in 100 (a club player, clubs that "
                       "differ by about the worthwhile gap).")
        .arg(QString::fromStdString(record::fixed(100 * risk, 0)));
}

} // namespace

QString leadsText(const record::Test& test, const std::vector<judge::Lead>& leads, const record::DisplayUnits& units) {
    const record::Outcome outcome = judge::leadOutcome(test.card);
    QString text;
    std::vector<int> shots;
    for (const judge::Lead& lead : leads) {
        const QString of = QString::fromStdString(record::counted(lead.shots, "shot"));
        text += QObject::tr("%1: %2\n")
                    .arg(QString::fromStdString(test.builds[lead.club].name),
                         lead.value ? QObject::tr("%1 of %2").arg(valueText(outcome, *lead.value, units), of) : of);
        if (lead.value)
            shots.push_back(static_cast<int>(lead.shots));
    }
    if (!rack::ClubKinds(test).areOne())
        text += QObject::tr("\nClubs of several kinds are steps of a bag, and no rivals of each other.");
    else if (shots.size() > 2)
        text += riskText(test, shots, outcome);
    else if (leads.size() == 2)
        text += QObject::tr("\nTwo are left. A fair test of the two needs fresh shots.");
    return text;
}

} // namespace knot::app
