#pragma once

#include <QObject>
#include <QProcess>

namespace knot::app {

/// The simulated monitor as a program of its own beside this one.
class StandIn : public QObject {
    Q_OBJECT

public:
    explicit StandIn(QObject* parent = nullptr);
    ~StandIn() override;

    bool runs() const { return m_process.state() != QProcess::NotRunning; }
    /// Starts it against a port of this program; false where it is not installed.
    bool start(quint16 port, const QString& code);
    void stop() { m_process.terminate(); }

signals:
    void changed();

private:
    QProcess m_process;
};

} // namespace knot::app
