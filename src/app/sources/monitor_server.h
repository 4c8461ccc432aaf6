#pragma once

#include "app/sources/doorkeeper.h"
#include "core/bay/strike.h"
#include "link/conversation.h"

#include <QElapsedTimer>
#include <QHostAddress>
#include <QObject>
#include <QPointer>
#include <QTimer>

#include <memory>
#include <vector>

class QTcpServer;
class QTcpSocket;

namespace knot::app {

class BayRun;
class TestInHand;

/// Where the application listens to launch monitors. Only this computer's own programs reach
/// 127.0.0.1; any other interface asks for a pairing code.
struct LinkSettings {
    quint16 port = link::usualPort;
    bool open = false; ///< listen on every interface
    QString code;      ///< asked of every monitor while open
    static LinkSettings kept();
    void keep() const;
    /// A code of six digits from the system's random source.
    static QString newCode();
};

/// The application's side of the monitor link: TCP connections to conversations, shots to the session
/// in hand, acknowledgements back once they are on disk.
class MonitorServer : public QObject {
    Q_OBJECT

public:
    MonitorServer(const TestInHand& hand, BayRun& bay, QObject* parent = nullptr);
    ~MonitorServer() override;

    /// Listens anew for the test in hand; false when the port is taken or there is no network. Stops by
    /// itself when another test is taken in hand: what comes then stays with the monitor, which sends
    /// what was not acknowledged again.
    bool listen(const LinkSettings& settings);
    void stop();
    quint16 port() const;
    bool isListening() const;
    const LinkSettings& settings() const { return m_settings; }

    /// Monitors that said hello and are connected.
    QStringList devices() const;
    /// Seconds since a monitor was heard; nothing when none ever was.
    std::optional<int> secondsSilent() const;
    /// One sentence about the link as it is now.
    QString status() const;

    /// The device that waits to be let in, as it is shown; null where none does.
    QString waiting() const;
    /// Asks about it again, or where none waits about the one that was kept out last.
    void askAgain();
    /// Lets a device's shots in by its name, from now on and when it comes again.
    void letIn(const QString& device);
    /// Keeps a device's shots out until the program ends, or until somebody thinks better of it.
    void keepOut(const QString& device);

signals:
    /// A device that nobody has let in wants to send shots; they wait until it is let in or kept out.
    void asksToEnter(const QString& device);
    void statusChanged();
    /// A sentence about something that went wrong on the line.
    void complained(const QString& sentence);

private:
    struct Line;
    void meet();
    void hear(Line& line);
    link::Admission admits(const QString& address, const std::string& code);
    std::size_t silentFrom(const QHostAddress& address) const;
    void greet(Line& line, const link::Hello& hello);
    /// `with`: what was in hand when each came, of those that were held back.
    void take(Line& line, const std::vector<link::Message>& messages,
              const std::vector<std::optional<bay::InHand>>& with = {});
    void hangUp(Line& line);
    bool isOpen(const Line* line) const;
    QString struckAt(const Line& line, const std::string& at) const;
    void acknowledge(const std::vector<std::string>& readIds);
    void refuseWaiting(Line& line);
    void tellInHand();
    void seedReceipts();
    void hangUpAll();

    const TestInHand& m_hand;
    BayRun& m_bay;
    LinkSettings m_settings;
    std::unique_ptr<QTcpServer> m_server;
    std::vector<std::unique_ptr<Line>> m_lines;
    link::Receipts m_receipts;
    std::string m_receiptsFor; ///< the test and sitting whose shots the receipts are
    std::string m_testId, m_inHand;
    qint64 m_lastHeard = 0; ///< ms since the epoch; 0: never
    QTimer m_watch;
    QString m_fault;
    QStringList m_keptOut;
    Doorkeeper m_doorkeeper;
    QElapsedTimer m_clock;
};

} // namespace knot::app
