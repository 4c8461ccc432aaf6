#include "app/bay_page/entry/shot_table.h"

#include "app/bay_page/bay_words.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "core/bay/stand.h"
#include "core/record/text/number_text.h"

#include <QPainter>
#include <QPixmap>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

constexpr std::size_t mostMetrics = 5;
constexpr std::array<const char*, ShotTable::firstMetric> headings = {
    QT_TRANSLATE_NOOP("ShotTable", "Shot"), QT_TRANSLATE_NOOP("ShotTable", "Time"),
    QT_TRANSLATE_NOOP("ShotTable", "Club"), QT_TRANSLATE_NOOP("ShotTable", "Stint"),
    QT_TRANSLATE_NOOP("ShotTable", "Counted?")};

// The declared ones first, then what else was read.
std::vector<record::Metric> metricsOf(const record::Test& test) {
    std::vector<record::Metric> metrics = firstMetrics(test.card);
    for (const auto metric : test.metricsRead())
        if (metrics.size() < mostMetrics && std::ranges::find(metrics, metric) == metrics.end())
            metrics.push_back(metric);
    metrics.resize(std::min(metrics.size(), mostMetrics));
    return metrics;
}

QPixmap tagPicture(std::size_t build) {
    constexpr int side = 12;
    constexpr int finer = 2; // for screens with small dots
    QPixmap picture(finer * side, finer * side);
    picture.setDevicePixelRatio(finer);
    picture.fill(Qt::transparent);
    QPainter painter(&picture);
    painter.setRenderHint(QPainter::Antialiasing);
    drawTag(painter, QRectF(1, 1, side - 2, side - 2), build);
    return picture;
}

} // namespace

void ShotTable::setTest(const record::Test& test, const record::DisplayUnits& units, bool showsNumbers) {
    beginResetModel();
    m_test = test;
    m_units = units;
    m_metrics = showsNumbers ? metricsOf(test) : std::vector<record::Metric>();
    endResetModel();
}

std::optional<record::Metric> ShotTable::metricAt(int column) const {
    const auto at = static_cast<std::size_t>(column - firstMetric);
    return column >= firstMetric && at < m_metrics.size() ? std::optional(m_metrics[at]) : std::nullopt;
}

int ShotTable::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_test.shots.size());
}

int ShotTable::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : firstMetric + static_cast<int>(m_metrics.size());
}

QString ShotTable::stintText(const record::Shot& shot) const {
    if (shot.status == record::ShotStatus::warmUp)
        return {};
    if (const auto planned = bay::plannedTurn(m_test, shot); planned && m_test.stage == record::Stage::test)
        return tr("lap %1, stint %2").arg(QString::fromStdString(shot.round)).arg(*planned + 1);
    return QString::fromStdString(shot.turn);
}

QString ShotTable::fateText(const record::Shot& shot) const {
    switch (shot.status) {
    case record::ShotStatus::warmUp:
        return tr("warm-up");
    case record::ShotStatus::setAside: {
        const QString reason = QString::fromStdString(shot.reason);
        const QString late = shot.isSetAsideLate() ? tr(", late") : QString();
        return (reason.isEmpty() ? tr("set aside") : tr("set aside: %1").arg(reason)) + late;
    }
    case record::ShotStatus::counted:
        break;
    }
    if (!bay::isRead(shot))
        return tr("not measured");
    return shot.call == record::Call::none ? tr("yes") : tr("yes, called %1").arg(callWord(shot.call));
}

// With who struck it, where several did, and what was asked for.
QString ShotTable::clubText(const record::Shot& shot) const {
    QStringList parts{bay::isUnnamed(m_test, shot) ? tr("unseen") : nameOf(m_test, shot.build)};
    if (m_test.players.size() > 1)
        parts << QString::fromStdString(shot.player);
    if (!shot.delivery.empty())
        parts << QString::fromStdString(shot.delivery);
    return parts.join(QStringLiteral(" · "));
}

QString ShotTable::cellText(const record::Shot& shot, int row, int column) const {
    switch (column) {
    case 0:
        return QString::number(row + 1);
    case 1:
        return QString::fromStdString(shot.takenAt.text()).section(QLatin1Char('T'), 1).left(8);
    case 2:
        return clubText(shot);
    case 3:
        return stintText(shot);
    case 4:
        return fateText(shot);
    default:
        break;
    }
    const auto metric = metricAt(column);
    const auto value = metric ? shot.readings.at(*metric) : std::nullopt;
    return value ? QString::fromStdString(record::MetricFormat(*metric, m_units).number(*value)) : QString();
}

QVariant ShotTable::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid))
        return {};
    const record::Shot& shot = m_test.shots[static_cast<std::size_t>(index.row())];
    switch (role) {
    case Qt::DisplayRole:
    case Qt::EditRole:
        return cellText(shot, index.row(), index.column());
    case Qt::DecorationRole:
        return index.column() == 2 && !bay::isUnnamed(m_test, shot) ? QVariant(tagPicture(shot.build)) : QVariant();
    case Qt::TextAlignmentRole:
        return static_cast<int>(
            (index.column() == 0 || index.column() >= firstMetric ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter);
    case Qt::ForegroundRole:
        return shot.status == record::ShotStatus::counted ? colours().ink : colours().faint;
    case Qt::AccessibleTextRole: {
        QStringList parts;
        for (int column = 0; column < columnCount(); ++column)
            if (const QString text = cellText(shot, index.row(), column); !text.isEmpty())
                parts << headerData(column, Qt::Horizontal, Qt::DisplayRole).toString() + QLatin1Char(' ') + text;
        return parts.join(QStringLiteral(", "));
    }
    default:
        return {};
    }
}

QVariant ShotTable::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal)
        return {};
    if (role == Qt::TextAlignmentRole)
        return static_cast<int>((section == 0 || section >= firstMetric ? Qt::AlignRight : Qt::AlignLeft) |
                                Qt::AlignVCenter);
    if (role != Qt::DisplayRole)
        return {};
    if (section < firstMetric)
        return tr(headings[static_cast<std::size_t>(section)]);
    const record::Metric metric = *metricAt(section);
    const QString unit = QString::fromStdString(record::MetricFormat(metric, m_units).unitText());
    const QString label = QString::fromStdString(record::info(metric).label);
    return unit.isEmpty() ? label : tr("%1, %2").arg(label, unit);
}

bool ShotTable::setData(const QModelIndex& index, const QVariant& value, int role) {
    const auto metric = metricAt(index.column());
    if (role != Qt::EditRole || !metric)
        return false;
    const QString text = value.toString().trimmed();
    if (text != data(index, Qt::EditRole).toString())
        emit typed(static_cast<qint64>(shotAt(index.row())), static_cast<int>(*metric), text);
    return true;
}

Qt::ItemFlags ShotTable::flags(const QModelIndex& index) const {
    const auto usual = QAbstractTableModel::flags(index);
    return metricAt(index.column()) ? usual | Qt::ItemIsEditable : usual;
}

} // namespace knot::app
