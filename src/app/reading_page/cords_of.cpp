#include "app/reading_page/cords_of.h"

#include "app/reading_page/pictures.h"
#include "core/judge/columns.h"
#include "core/record/number_text.h"

#include <QCoreApplication>

namespace knot::app {
namespace {

QString tr(const char* text) {
    return QCoreApplication::translate("ReadingPage", text);
}

} // namespace

CordsPicture cordsOf(const judge::Case& subject, const judge::Reading& reading, record::Metric metric,
                     const record::DisplayUnits& units) {
    const record::Test& test = subject.seen();
    const record::MetricFormat format(metric, units);
    const auto structure = record::structureOf(test);
    const auto column = judge::columnOf(test, structure, metric, judge::Taken::counted);
    CordsPicture picture;
    picture.unit = QString::fromStdString(format.unitText());
    picture.knotTexts.resize(static_cast<qsizetype>(test.shots.size()));
    for (record::BuildAt b; b < test.builds.size(); ++b) {
        const auto* summary = reading.summaryOf(metric, b);
        if (summary == nullptr)
            continue;
        if (b == reading.baseline && !test.seal.isClosed())
            picture.data.baseline = picture.data.cords.size();
        picture::CordData cord;
        for (const auto& turn : column.builds[b].turns)
            for (std::size_t i = 0; i < turn.values.size(); ++i) {
                cord.values.push_back(format.shown(turn.values[i]));
                cord.shots.push_back(turn.shots[i]);
                picture.knotTexts[static_cast<qsizetype>(turn.shots[i])] = shotText(
                    subject, structure, turn.shots[i], QString::fromStdString(format.withUnit(turn.values[i])));
            }
        cord.mean = format.shown(summary->mean);
        if (summary->ci95) {
            cord.low = format.shown(summary->ci95->low);
            cord.high = format.shown(summary->ci95->high);
        }
        picture.data.cords.push_back(std::move(cord));
        picture.builds.push_back(b);
        picture.names << QString::fromStdString(test.builds[b].name);
        picture.notes << (b == reading.baseline && !test.seal.isClosed() ? tr("baseline") : QString());
        picture.means << QString::fromStdString(
            format.supportedBy(summary->standardError.value_or(0)).number(summary->mean));
    }
    const bool hasBaseline = !test.seal.isClosed() && reading.summaryOf(metric, reading.baseline) != nullptr;
    picture.data.margin = hasBaseline ? format.shown(reading.card.margin(metric)) : 0;
    return picture;
}

} // namespace knot::app
