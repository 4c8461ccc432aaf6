#pragma once

#include "monitor/striker.h"

#include <QFile>
#include <QObject>
#include <QTcpSocket>
#include <QTimer>

#include <memory>

namespace knot::monitor {

/// When the simulated player swings, and for how long.
struct Pace {
    double seconds = 4;  ///< between swings; 0: as fast as the application acknowledges
    int shots = 0;       ///< to strike in all; 0: until it is stopped
    bool onKey = false;  ///< a swing for every line on standard input instead
    int stintLength = 0; ///< without word of the club in hand: swings before the next club; 0: wait for word
    double handOver = 0; ///< seconds of waiting after a new club
};

struct Where {
    QString host = QStringLiteral("127.0.0.1");
    quint16 port = 0;
    QString code, log; ///< `log`: a file that gets "sent ID", "acked ID" lines
};

/// The simulated monitor's end of the link: connects, and again when the line breaks; sends each shot
/// and keeps it until it is acknowledged; what was not is sent again over the next connection.
class Connection : public QObject {
    Q_OBJECT

public:
    Connection(Striker striker, const Pace& pace, Where where, QObject* parent = nullptr);
    ~Connection() override;
    void start();

signals:
    /// Everything asked for was struck and acknowledged.
    void finished();

private:
    void connectNow();
    void greet();
    void hear();
    void swing();
    void swingNext();
    void readKeys();
    void send(const link::Message& message);
    void sendPending();
    void note(const std::string& what);
    void say(const QString& text) const;

    Striker m_striker;
    Pace m_pace;
    Where m_where;
    QTcpSocket m_socket;
    link::Lines m_lines;
    QTimer m_swing, m_retry, m_heartbeat;
    std::vector<std::pair<std::string, link::Message>> m_pending; ///< sent and not acknowledged
    QFile m_log;
    bool m_welcome = false, m_told = false;
    bool m_emptyHands = false; ///< the application says that nothing is to be struck
    int m_inStint = 0;
    std::size_t m_place = 0;
};

} // namespace knot::monitor
