#include "app/player_page/usual_rows.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "core/record/text/number_text.h"

#include <QGridLayout>
#include <QLineEdit>

namespace knot::app {
namespace {

using record::Metric;
using record::Usual;

struct Member {
    Metric metric;
    std::optional<double> Usual::*value;
};
constexpr std::array members = {Member{Metric::carry, &Usual::carry}, Member{Metric::ballSpeed, &Usual::ballSpeed},
                                Member{Metric::launch, &Usual::launch}, Member{Metric::spin, &Usual::spin}};

} // namespace

UsualRows::UsualRows(QWidget* parent)
    : QWidget(parent)
    , m_grid(new QGridLayout(this)) {
    setObjectName(QStringLiteral("usual"));
    m_grid->setContentsMargins(0, 0, 0, 0);
    m_grid->setHorizontalSpacing(10);
    m_grid->setVerticalSpacing(4);
    m_grid->addWidget(captionLabel("usualClub", tr("Club")), 0, 0);
    for (std::size_t i = 0; i < numbers; ++i) {
        m_heads[i] = captionLabel("usualHead");
        m_grid->addWidget(m_heads[i], 0, static_cast<int>(i) + 1);
    }
    m_grid->setColumnStretch(0, 2);
    for (std::size_t i = 0; i < numbers; ++i)
        m_grid->setColumnStretch(static_cast<int>(i) + 1, 1);
}

void UsualRows::addRow() {
    Row row{new QLineEdit, {}};
    const int at = static_cast<int>(m_rows.size()) + 1;
    row.club->setObjectName(QStringLiteral("usualClub%1").arg(at));
    row.club->setAccessibleName(tr("Usual numbers: club %1").arg(at));
    row.club->setMinimumWidth(40);
    const auto place = static_cast<std::size_t>(m_rows.size());
    Typed::whole(row.club, [this, place](const QString& club) { takeClub(place, club.trimmed().toStdString()); });
    m_grid->addWidget(row.club, at, 0, Qt::AlignTop);
    for (std::size_t i = 0; i < numbers; ++i) {
        row.fields[i] = new NumberField({});
        row.fields[i]->edit()->setObjectName(
            QStringLiteral("usual%1_%2").arg(at).arg(QString::fromStdString(record::info(members[i].metric).key)));
        row.fields[i]->edit()->setAccessibleName(
            tr("Usual %1, club %2").arg(QString::fromStdString(record::info(members[i].metric).label)).arg(at));
        row.fields[i]->edit()->setMinimumWidth(40);
        connect(row.fields[i], &NumberField::edited, this,
                [this, place, i](std::optional<double> shown) { takeNumber(place, i, shown); });
        m_grid->addWidget(row.fields[i], at, static_cast<int>(i) + 1, Qt::AlignTop);
    }
    m_rows << row;
}

void UsualRows::display(const std::vector<Usual>& usual, const record::DisplayUnits& units) {
    m_showing = true;
    m_usual = usual;
    m_units = units;
    while (static_cast<std::size_t>(m_rows.size()) < usual.size() + 1)
        addRow();
    for (std::size_t i = 0; i < numbers; ++i) {
        const record::MetricFormat format(members[i].metric, units);
        m_heads[i]->setText(QStringLiteral("%1, %2").arg(QString::fromStdString(record::info(members[i].metric).label),
                                                         QString::fromStdString(format.unitText())));
        m_heads[i]->setVisible(!usual.empty());
    }
    for (qsizetype at = 0; at < m_rows.size(); ++at) {
        const Row& row = m_rows[at];
        const auto place = static_cast<std::size_t>(at);
        const bool isThere = place < usual.size();
        row.club->setVisible(place <= usual.size());
        row.club->setPlaceholderText(isThere ? QString() : tr("a club, or a kind of club"));
        if (!row.club->hasFocus())
            row.club->setText(isThere ? QString::fromStdString(usual[place].club) : QString());
        for (std::size_t i = 0; i < numbers; ++i) {
            row.fields[i]->setVisible(isThere);
            row.fields[i]->setRange({.low = -90, .high = 20000, .of = record::wantedOf(members[i].metric, units)});
            const record::MetricFormat format(members[i].metric, units);
            const auto value = isThere ? usual[place].*members[i].value : std::nullopt;
            row.fields[i]->display(value ? std::optional(format.shown(*value)) : std::nullopt, format.decimals());
        }
    }
    m_showing = false;
}

// A row without a name is taken away.
void UsualRows::takeClub(std::size_t place, const std::string& club) {
    auto usual = m_usual;
    if (place >= usual.size() && club.empty())
        return;
    if (place >= usual.size())
        usual.push_back({.club = club});
    else if (club.empty())
        usual.erase(usual.begin() + static_cast<std::ptrdiff_t>(place));
    else
        usual[place].club = club;
    tell(std::move(usual));
}

void UsualRows::takeNumber(std::size_t place, std::size_t number, std::optional<double> shown) {
    auto usual = m_usual;
    if (place >= usual.size())
        return;
    const record::MetricFormat format(members[number].metric, m_units);
    usual[place].*members[number].value = shown ? std::optional(format.internal(*shown)) : std::nullopt;
    tell(std::move(usual));
}

void UsualRows::tell(std::vector<Usual> usual) {
    if (m_showing || usual == m_usual)
        return;
    m_usual = usual;
    emit edited(usual);
}

} // namespace knot::app
