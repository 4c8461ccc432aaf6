#include "app/rack_page/differences.h"

#include "app/style/palette.h"
#include "app/style/words.h"
#include "core/rack/effects.h"
#include "core/record/text/number_text.h"

#include <QObject>
#include <QStringList>

#include <algorithm>

namespace knot::app {
namespace {

// A name short enough for the head of a column.
QString columnHead(const std::string& name, std::size_t clubs) {
    const qsizetype most = clubs > 6 ? 8 : clubs > 3 ? 14 : 22;
    const QString text = QString::fromStdString(name);
    return (text.size() > most ? text.left(most - 1) + QStringLiteral("…") : text).toHtmlEscaped();
}

// "; by itself about +1.2° launch, +310 rpm, −2.1 m of carry at 42 m/s, modelled": of the whole spread.
QString modelled(const rack::Difference& row, const std::vector<record::Build>& clubs, const record::Player& player,
                 const record::DisplayUnits& units) {
    const bool isLoft = row.what == "static loft";
    if (!isLoft && row.what != "head mass")
        return {};
    const auto effect = isLoft ? rack::effectOfLoft(clubs.front().club, player, row.spread)
                               : rack::effectOfHeadMass(clubs.front().club, player, row.spread);
    if (!effect)
        return {};
    using record::Metric;
    using record::MetricFormat;
    auto part = [&](Metric metric, double value) {
        const MetricFormat format(metric, units);
        const QString unit = QString::fromStdString(format.unitText());
        return QString::fromStdString(format.signedNumber(value)) + (unit == QStringLiteral("°") ? unit : u' ' + unit);
    };
    return tr("; by itself about %1 and %2 of carry at %3 club speed, modelled")
        .arg(isLoft
                 ? tr("%1 launch, %2 spin").arg(part(Metric::launch, effect->launch), part(Metric::spin, effect->spin))
                 : tr("%1 ball speed").arg(part(Metric::ballSpeed, effect->ballSpeed)),
             part(Metric::carry, effect->carry),
             QString::fromStdString(MetricFormat(Metric::clubSpeed, units).withUnit(effect->clubSpeed)));
}

} // namespace

QString oddValue(const rack::Difference& row, std::size_t club) {
    if (row.follows || row.weight == rack::Weight::slight || row.values[club] == "–")
        return {};
    const auto alike = std::ranges::count(row.values, row.values[club]);
    if (2 * alike > static_cast<std::ptrdiff_t>(row.values.size()))
        return {};
    const std::string gap = row.unit == "°" ? "" : " ";
    return QString::fromStdString(row.values[club] + (row.unit.empty() || row.unit == "points" ? "" : gap + row.unit));
}

QString slipOf(const std::vector<rack::Difference>& sheet, std::size_t club) {
    QStringList slips;
    for (const rack::Difference& row : sheet)
        if (const QString odd = oddValue(row, club); !odd.isEmpty())
            slips << QString::fromStdString(row.what) + u' ' + odd;
    return slips.join(QStringLiteral(", "));
}

QString differencesHtml(const std::vector<record::Build>& clubs, record::TestKind kind, const record::Player& player,
                        const record::DisplayUnits& units) {
    if (clubs.size() < 2)
        return tr("Two clubs make a comparison.");
    const auto sheet = rack::differenceSheet(clubs, kind, units);
    const QString faint = colours().faint.name();
    QString html = QStringLiteral("<table cellspacing='0' cellpadding='3' width='100%'><tr><td></td>");
    for (const record::Build& club : clubs)
        html += QStringLiteral("<td align='right'><b>%1</b></td>").arg(columnHead(club.name, clubs.size()));
    html += QStringLiteral("<td></td></tr>");
    for (const auto& row : sheet) {
        const bool heavy = row.weight == rack::Weight::large && !row.follows;
        const QString colour = heavy ? colours().alarm.name() : row.follows ? faint : colours().ink.name();
        html += QStringLiteral("<tr style='color:%1'><td>%2</td>")
                    .arg(colour, QString::fromStdString(
                                     row.what + (row.unit.empty() || row.unit == "points" ? "" : ", " + row.unit)));
        for (const auto& value : row.values)
            html += QStringLiteral("<td align='right'>%1</td>").arg(QString::fromStdString(value).toHtmlEscaped());
        QString why = row.follows ? tr("comes with the factor") : tr("moves %1").arg(QString::fromStdString(row.moves));
        why += modelled(row, clubs, player, units);
        if (!row.remedy.empty() && row.weight != rack::Weight::slight)
            why += QStringLiteral("; ") + QString::fromStdString(row.remedy).toHtmlEscaped();
        html += QStringLiteral("<td>%1</td></tr>").arg(why);
    }
    html += QStringLiteral("</table>");
    if (sheet.empty())
        html = tr("<p>Nothing that is known.</p>");
    const auto unknown = rack::unknowns(clubs);
    if (!unknown.empty()) {
        QStringList words;
        for (std::size_t i = 0; i < std::min<std::size_t>(unknown.size(), 4); ++i)
            words << QString::fromStdString(unknown[i]).toHtmlEscaped();
        html += QStringLiteral("<p style='color:%1'>%2</p>")
                    .arg(faint, tr("Not known, and so perhaps different: %1%2")
                                    .arg(words.join(QStringLiteral(", ")),
                                         unknown.size() > 4 ? tr(" and %1 more.").arg(unknown.size() - 4)
                                                            : QStringLiteral(".")));
    }
    return html;
}

} // namespace knot::app
