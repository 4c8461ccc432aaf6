#include "app/decision_page/club_pictures.h"

#include "app/session/judging.h"
#include "core/judge/columns.h"
#include "core/record/text/number_text.h"
#include "core/words/averages.h"
#include "core/words/decide.h"

#include <QObject>

#include <algorithm>

namespace knot::app {
namespace {

record::Metric firstNumber(const record::Card& card, const judge::Reading& reading) {
    for (const record::Outcome& outcome : card.primary)
        if (outcome.kind != record::OutcomeKind::area && outcome.kind != record::OutcomeKind::share)
            return outcome.metric;
    const auto& read = reading.metrics;
    return read.empty() || std::ranges::find(read, record::Metric::carry) != read.end() ? record::Metric::carry
                                                                                        : read.front();
}

QString underOf(const record::Test& test, const record::Build& build) {
    QStringList under;
    if (!build.tag.empty() && !test.seal.isClosed())
        under << QObject::tr("was %1").arg(QString::fromStdString(build.tag));
    if (!test.seal.isClosed() && test.card.comparison == record::Comparison::againstBaseline &&
        build.who() == test.builds[test.baselineIndex()].who())
        under << QObject::tr("one's own");
    return under.join(QStringLiteral(" · "));
}

QString saidOf(const record::Test& test, record::BuildAt build) {
    QStringList said;
    for (const record::Feel& feel : test.feels)
        if (feel.build == build && !feel.words.empty())
            said << QStringLiteral("“%1”").arg(QString::fromStdString(feel.words));
    return said.join(QStringLiteral(", "));
}

} // namespace

std::vector<ClubPicture> clubPictures(const record::Test& test, const Judging& judging,
                                      const record::DisplayUnits& units) {
    const judge::Reading* reading = judging.reading();
    std::vector<ClubPicture> all;
    std::optional<judge::Column> column;
    std::vector<words::BestPicture> best;
    if (reading != nullptr) {
        const judge::Case& subject = judging.subject();
        column =
            judge::columnOf(subject.test(), subject.structure(), firstNumber(test.card, *reading), subject.taken());
        best = words::bestPictures(*reading, units);
    }
    for (record::BuildAt b; b < test.builds.size(); ++b) {
        if (!words::mayBeChosen(test, b))
            continue;
        ClubPicture one{.build = static_cast<std::size_t>(b),
                        .name = QString::fromStdString(test.builds[b].name),
                        .under = underOf(test, test.builds[b]),
                        .said = saidOf(test, b)};
        if (column && b < column->builds.size() && column->builds[b].count() > 0) {
            one.shots = column->builds[b].all();
            one.mean = judge::meanOf(one.shots);
            one.average = QObject::tr("%1, %2").arg(
                QString::fromStdString(record::MetricFormat(column->metric, units).withUnit(one.mean)),
                QString::fromStdString(record::counted(one.shots.size(), "shot")));
            for (const std::string& line : words::foundOf(*reading, b, units))
                one.found << QString::fromStdString(line);
        }
        for (const words::BestPicture& picture : best)
            for (const words::BestLine& line : picture.lines)
                if (line.build == b)
                    one.best.push_back({QString::fromStdString(record::outcomeLabel(picture.outcome)), line.chance,
                                        QString::fromStdString(words::timesIn100(line.chance))});
        all.push_back(std::move(one));
    }
    return all;
}

} // namespace knot::app
