#include "app/rack_page/leads.h"

#include "core/plan/screening.h"
#include "core/plan/spreads.h"
#include "core/record/number_text.h"

#include <QObject>

#include <algorithm>

namespace knot::app {
namespace {

using record::Metric;
using record::Test;

QString tr(const char* text) {
    return QObject::tr(text);
}

} // namespace

Metric leadMetric(const Test& test) {
    return test.card.primary.empty() ? Metric::carry : test.card.primary.front().metric;
}

std::vector<Lead> leadsOf(const Test& test) {
    const Metric metric = leadMetric(test);
    std::vector<Lead> leads;
    for (std::size_t b = 0; b < test.builds.size(); ++b) {
        Lead lead{.build = b};
        for (const auto& shot : test.shots)
            if (const auto value = shot.readings.at(metric);
                value && shot.build == b && shot.status == record::ShotStatus::counted) {
                lead.mean += *value;
                ++lead.shots;
            }
        if (lead.shots > 0)
            lead.mean /= lead.shots;
        if (test.builds[b].struckOff.empty())
            leads.push_back(lead);
    }
    const auto want = test.card.want({.metric = metric});
    std::ranges::stable_sort(leads, [&](const Lead& a, const Lead& b) {
        if ((a.shots > 0) != (b.shots > 0))
            return a.shots > 0;
        return want.kind == record::Want::Kind::less ? a.mean < b.mean : a.mean > b.mean;
    });
    return leads;
}

QString leadsText(const Test& test, const std::vector<Lead>& leads, const record::DisplayUnits& units) {
    const Metric metric = leadMetric(test);
    const record::MetricFormat format(metric, units);
    QString text;
    std::vector<int> shots;
    for (const Lead& lead : leads) {
        text += tr("%1: %2\n")
                    .arg(QString::fromStdString(test.builds[lead.build].name),
                         lead.shots == 0 ? tr("no shots yet")
                                         : tr("%1 on average of %2")
                                               .arg(QString::fromStdString(format.withUnit(lead.mean)),
                                                    QString::fromStdString(record::counted(
                                                        static_cast<std::size_t>(lead.shots), "shot"))));
        if (lead.shots > 0)
            shots.push_back(lead.shots);
    }
    if (shots.size() > 2) {
        const auto usual = plan::usualSpreads(metric, plan::Level::club);
        const double risk = plan::riskOfDroppingBest(shots, 2, test.card.margin(metric), usual.sdTurn, usual.sdShot);
        text +=
            tr("\nKeeping only the first two drops the best one %1 times in 100 (a club player, clubs that differ by "
               "about the worthwhile gap).")
                .arg(QString::fromStdString(record::fixed(100 * risk, 0)));
    } else if (leads.size() == 2) {
        text += tr("\nTwo are left. A fair test of the two needs fresh shots.");
    }
    return text;
}

} // namespace knot::app
