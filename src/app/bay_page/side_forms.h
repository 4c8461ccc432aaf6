#pragma once

#include "app/sources/monitor_server.h"
#include "core/record/course.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;

namespace knot::app {

class NumberField;

/// What the day is like: kept with the sitting.
class ConditionsForm : public QWidget {
    Q_OBJECT

public:
    explicit ConditionsForm(QWidget* parent = nullptr);
    void display(const record::Conditions& conditions);
    void takeFocus();

signals:
    void changed(const knot::record::Conditions& conditions);

private:
    void tell();

    QComboBox* m_place;
    NumberField* m_wind;
    NumberField* m_temperature;
    QLineEdit* m_ball;
    QLineEdit* m_surface;
    record::Conditions m_kept;
    bool m_showing = false;
};

/// How launch monitors reach this program.
class LinkForm : public QWidget {
    Q_OBJECT

public:
    explicit LinkForm(QWidget* parent = nullptr);
    void display(const LinkSettings& settings, const QString& status);
    void takeFocus();

signals:
    void changed(const knot::app::LinkSettings& settings);

private:
    LinkSettings m_settings;
    NumberField* m_port;
    QCheckBox* m_open;
    QLabel* m_about;
    QLabel* m_status;
    bool m_showing = false;
};

} // namespace knot::app
