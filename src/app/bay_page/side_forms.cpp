#include "app/bay_page/side_forms.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/style/palette.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QVBoxLayout>

namespace knot::app {
namespace {

// A field that keeps its height where the column is tall.
QWidget* field(const QString& text, QWidget* widget, const char* name) {
    QWidget* box = labelled(text, widget, name);
    box->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Maximum);
    return box;
}

QVBoxLayout* columnIn(QWidget* widget) {
    auto* column = new QVBoxLayout(widget);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(size::grid);
    return column;
}

} // namespace

ConditionsForm::ConditionsForm(QWidget* parent)
    : QWidget(parent)
    , m_place(choiceBox({tr("not said"), tr("indoors"), tr("outdoors")}))
    , m_wind(new NumberField({.low = 0, .high = 60, .of = {record::Quantity::speed, record::Unit::ms}}))
    , m_temperature(new NumberField({.low = -40, .high = 60}))
    , m_ball(new QLineEdit)
    , m_surface(new QLineEdit) {
    auto* column = columnIn(this);
    column->addWidget(headingLabel(tr("What is the day like?")));
    column->addWidget(field(tr("Where"), m_place, "place"));
    auto* row = new QHBoxLayout;
    row->setSpacing(size::grid);
    row->addWidget(field(tr("Wind, m/s"), m_wind, "wind"));
    row->addWidget(field(tr("Temperature, °C"), m_temperature, "temperature"));
    column->addLayout(row);
    column->addWidget(field(tr("Ball"), m_ball, "conditionsBall"));
    column->addWidget(field(tr("Surface"), m_surface, "surface"));
    column->addStretch();
    connect(m_place, &QComboBox::currentIndexChanged, this, &ConditionsForm::tell);
    connect(m_wind, &NumberField::edited, this, &ConditionsForm::tell);
    connect(m_temperature, &NumberField::edited, this, &ConditionsForm::tell);
    Typed::in(m_ball, [this](const QString&) { tell(); });
    Typed::in(m_surface, [this](const QString&) { tell(); });
}

void ConditionsForm::display(const record::Conditions& conditions) {
    m_showing = true;
    m_kept = conditions;
    m_place->setCurrentIndex(static_cast<int>(conditions.place));
    m_wind->display(conditions.wind, 1);
    m_temperature->display(conditions.temperature, 0);
    if (!m_ball->hasFocus())
        m_ball->setText(QString::fromStdString(conditions.ball));
    if (!m_surface->hasFocus())
        m_surface->setText(QString::fromStdString(conditions.surface));
    m_showing = false;
}

void ConditionsForm::takeFocus() {
    m_place->setFocus();
}

void ConditionsForm::tell() {
    if (m_showing)
        return;
    emit changed({.place = static_cast<record::Place>(m_place->currentIndex()),
                  .wind = m_wind->fault().isEmpty() ? m_wind->value() : m_kept.wind, // a faulty field wipes nothing
                  .temperature = m_temperature->fault().isEmpty() ? m_temperature->value() : m_kept.temperature,
                  .ball = m_ball->text().toStdString(),
                  .surface = m_surface->text().toStdString()});
}

LinkForm::LinkForm(QWidget* parent)
    : QWidget(parent)
    , m_port(new NumberField({.low = 1024, .high = 65535, .whole = true, .mayBeEmpty = false}))
    , m_open(new QCheckBox(tr("Let other &computers connect")))
    , m_about(captionLabel("linkAbout"))
    , m_status(captionLabel("linkStatus")) {
    m_open->setObjectName(QStringLiteral("linkOpen"));
    auto* column = columnIn(this);
    column->addWidget(headingLabel(tr("Monitor link")));
    column->addWidget(m_status);
    column->addWidget(field(tr("Port"), m_port, "linkPort"));
    column->addWidget(m_open);
    column->addWidget(m_about);
    column->addStretch();
    connect(m_port, &NumberField::edited, this, [this](std::optional<double> port) {
        if (m_showing || !port)
            return;
        m_settings.port = static_cast<quint16>(*port);
        emit changed(m_settings);
    });
    connect(m_open, &QCheckBox::toggled, this, [this](bool open) {
        if (m_showing)
            return;
        m_settings.open = open;
        m_settings.code = open ? LinkSettings::newCode() : QString();
        emit changed(m_settings);
    });
}

void LinkForm::display(const LinkSettings& settings, const QString& status) {
    m_showing = true;
    m_settings = settings;
    m_port->display(settings.port, 0);
    m_open->setChecked(settings.open);
    m_status->setText(status);
    m_about->setText(
        settings.open ? tr("Anybody in this network can reach port %1 now. Only a monitor that says the pairing code "
                           "%2 is heard; the line is not encrypted. Untick this when you are done.")
                            .arg(settings.port)
                            .arg(settings.code)
                      : tr("Only programs on this computer are heard (127.0.0.1)."));
    m_showing = false;
}

void LinkForm::takeFocus() {
    m_port->edit()->setFocus();
}

} // namespace knot::app
