#include "app/bay_page/entry/hand_entry.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLineEdit>

#include <algorithm>

namespace knot::app {
namespace {

constexpr int columns = 3;

} // namespace

HandEntry::HandEntry(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("handEntry"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    m_grid = new QGridLayout;
    m_grid->setHorizontalSpacing(size::grid);
    m_grid->setVerticalSpacing(4);
    column->addLayout(m_grid);
    m_rest = new QCheckBox(tr("all &numbers"));
    m_rest->setObjectName(QStringLiteral("allNumbers"));
    column->addWidget(m_rest);
    column->addStretch();
    connect(m_rest, &QCheckBox::toggled, this, &HandEntry::build);
}

void HandEntry::setMetrics(const std::vector<record::Metric>& first, const record::DisplayUnits& units) {
    if (first == m_first && units == m_units && !m_fields.empty())
        return;
    m_first = first;
    m_units = units;
    build();
}

void HandEntry::build() {
    for (const Field& field : m_fields)
        delete field.box;
    m_fields.clear();
    std::vector<record::Metric> metrics = m_first;
    if (m_rest->isChecked())
        for (const auto metric : record::allMetrics())
            if (std::ranges::find(metrics, metric) == metrics.end())
                metrics.push_back(metric);
    for (const auto metric : metrics) {
        auto* field = new NumberField({.low = -1e6, .high = 1e6, .of = record::wantedOf(metric, m_units)});
        const record::MetricFormat format(metric, m_units);
        const auto& about = record::info(metric);
        const QString unit = QString::fromStdString(format.unitText());
        const QString title =
            QString::fromStdString(about.label) + (unit.isEmpty() ? QString() : QStringLiteral(", ") + unit);
        auto* box = labelled(title, field, ("entry_" + about.key).c_str());
        field->edit()->setObjectName(QString::fromStdString("entry_" + about.key + "Edit"));
        const int at = static_cast<int>(m_fields.size());
        m_grid->addWidget(box, at / columns, at % columns);
        box->show();
        connect(field->edit(), &QLineEdit::returnPressed, this, &HandEntry::take);
        m_fields.push_back({metric, box, field});
    }
}

void HandEntry::begin(const QString& typed) {
    if (m_fields.empty())
        return;
    QLineEdit* edit = m_fields.front().field->edit();
    edit->setFocus();
    m_isByFigures = !typed.isEmpty();
    edit->selectAll(); // what could not be taken before
    if (!typed.isEmpty()) {
        edit->setText(typed);
        edit->setModified(true);
        emit edit->textEdited(typed);
    }
}

bool HandEntry::isEmpty() const {
    return std::ranges::all_of(m_fields, [](const Field& field) { return field.field->edit()->text().isEmpty(); });
}

void HandEntry::clear() {
    for (const Field& field : m_fields)
        field.field->forget();
}

void HandEntry::take() {
    const QString first = m_fields.front().field->edit()->text().trimmed();
    const bool isAlone = std::ranges::all_of(m_fields, [&](const Field& field) {
        return &field == &m_fields.front() || field.field->edit()->text().trimmed().isEmpty();
    });
    if (const auto figure = record::wholeIn(first.toStdString());
        m_isByFigures && isAlone && figure && first.size() < 3)
        return emit figureTyped(*figure);
    record::Readings readings;
    for (const Field& field : m_fields) {
        if (field.field->edit()->text().trimmed().isEmpty())
            continue;
        const auto value = field.field->value();
        if (!value) { // its own words say why, under it
            field.field->edit()->setFocus();
            return;
        }
        readings.measure(field.metric, record::MetricFormat(field.metric, m_units).internal(*value));
    }
    if (readings.empty())
        return;
    clear();
    m_fields.front().field->edit()->setFocus();
    emit entered(readings);
}

void HandEntry::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape)
        emit left();
    else if (event->key() != Qt::Key_Return && event->key() != Qt::Key_Enter) // which a field has taken
        QWidget::keyPressEvent(event);
}

} // namespace knot::app
