#include "app/sources/monitor_server.h"

#include "app/session/bay_run.h"
#include "app/session/moment.h"
#include "app/session/test_in_hand.h"
#include "app/sources/peer.h"

#include <QDateTime>
#include <QPointer>
#include <QRandomGenerator>
#include <QSettings>
#include <QTcpServer>
#include <QTcpSocket>

#include <algorithm>
#include <unordered_set>

namespace knot::app {
namespace {

constexpr std::string_view readPrefix = "link:";
constexpr int silentAfter = 15;               // s without a word, where heartbeats come every few
constexpr qint64 trustedAge = 10 * 60 * 1000; // ms: how old a shot's time may be while the clocks were never compared
constexpr qint64 clockSlack = 2000;           // ms
constexpr std::size_t mostLines = 8;          // connections at a time
constexpr qint64 bytesATurn = 32 << 10;       // taken from a line before others have their turn
constexpr qint64 mostUnsent = 1 << 20;        // bytes of answers that a line may leave lying
constexpr std::size_t mostHeld = 500;         // messages of a device that was not let in yet
constexpr int helloWithin = 10000;            // ms
constexpr std::size_t mostSilent = 3;         // connections of one address before their hello

QStringList knownDevices() {
    return QSettings().value(QStringLiteral("link/known")).toStringList();
}

QDateTime timeIn(const std::string& text) {
    return QDateTime::fromString(QString::fromStdString(text), Qt::ISODateWithMs).toLocalTime();
}

} // namespace

struct MonitorServer::Line {
    QTcpSocket* socket = nullptr;
    std::optional<link::Conversation> conversation;
    QString device;
    std::vector<std::string> unacknowledged;
    std::optional<qint64> clockOffset; ///< ms to add to the monitor's times
    bool complained = false;
    bool gone = false;                                ///< hung up on
    bool waits = false;                               ///< its name was not let in yet
    std::vector<link::Message> held;                  ///< what it said meanwhile
    std::vector<std::optional<bay::InHand>> heldWith; ///< what was in hand when each came
    QTimer patience;                                  ///< for its hello
};

LinkSettings LinkSettings::kept() {
    const QSettings settings;
    LinkSettings kept;
    kept.port = static_cast<quint16>(settings.value(QStringLiteral("link/port"), link::usualPort).toUInt());
    kept.open = settings.value(QStringLiteral("link/open"), false).toBool();
    kept.code = settings.value(QStringLiteral("link/code")).toString();
    if (kept.open && kept.code.isEmpty())
        kept.open = false;
    return kept;
}

void LinkSettings::keep() const {
    QSettings settings;
    settings.setValue(QStringLiteral("link/port"), port);
    settings.setValue(QStringLiteral("link/open"), open);
    settings.setValue(QStringLiteral("link/code"), code);
    settings.sync();
}

QString LinkSettings::newCode() {
    return QString::number(100000 + QRandomGenerator::system()->bounded(900000));
}

MonitorServer::MonitorServer(const TestInHand& hand, BayRun& bay, QObject* parent)
    : QObject(parent)
    , m_hand(hand)
    , m_bay(bay) {
    connect(&bay, &BayRun::kept, this, &MonitorServer::acknowledge);
    connect(&bay, &BayRun::changed, this, &MonitorServer::tellInHand);
    connect(&hand, &TestInHand::replaced, this, [this] {
        if (!m_hand.has() || m_hand.test().id != m_testId)
            stop();
    });
    m_watch.setInterval(5000);
    connect(&m_watch, &QTimer::timeout, this, &MonitorServer::statusChanged);
}

MonitorServer::~MonitorServer() {
    for (const auto& line : m_lines)
        line->socket->disconnect(this);
}

void MonitorServer::hangUpAll() {
    for (const auto& line : m_lines) {
        line->socket->disconnect(this);
        line->socket->abort();
        line->socket->deleteLater();
    }
    m_lines.clear();
}

void MonitorServer::stop() {
    hangUpAll();
    m_server.reset();
    m_watch.stop();
    m_testId.clear();
    m_receiptsFor.clear();
    m_inHand.clear();
    m_fault.clear();
    m_lastHeard = 0;
    emit statusChanged();
}

bool MonitorServer::listen(const LinkSettings& settings) {
    hangUpAll();
    m_testId = m_hand.has() ? m_hand.test().id : std::string();
    m_receiptsFor.clear();
    seedReceipts();
    m_settings = settings;
    m_doorkeeper.forget();
    m_clock.start();
    m_server = std::make_unique<QTcpServer>();
    connect(m_server.get(), &QTcpServer::newConnection, this, &MonitorServer::meet);
    const QHostAddress where(settings.open ? QHostAddress::Any : QHostAddress::LocalHost);
    const bool listens = m_server->listen(where, settings.port);
    m_fault =
        listens
            ? QString()
            : tr("Port %1 is taken by another program; choose another one in Bay ▸ Monitor link.").arg(settings.port);
    m_watch.start();
    emit statusChanged();
    return listens;
}

quint16 MonitorServer::port() const {
    return m_server ? m_server->serverPort() : 0;
}

bool MonitorServer::isListening() const {
    return m_server && m_server->isListening();
}

QStringList MonitorServer::devices() const {
    QStringList devices;
    for (const auto& line : m_lines)
        if (line->conversation->saidHello())
            devices << (line->device.isEmpty() ? tr("a monitor") : line->device);
    return devices;
}

std::optional<int> MonitorServer::secondsSilent() const {
    if (m_lastHeard == 0)
        return std::nullopt;
    return static_cast<int>((QDateTime::currentMSecsSinceEpoch() - m_lastHeard) / 1000);
}

QString MonitorServer::status() const {
    if (!isListening())
        return m_fault.isEmpty() ? tr("The monitor link is off.") : m_fault;
    const QStringList connected = devices();
    const auto silent = secondsSilent();
    if (connected.isEmpty() && !m_keptOut.isEmpty())
        return tr("%1 is kept out: M asks again.").arg(m_keptOut.last());
    if (connected.isEmpty())
        return silent ? tr("The monitor is gone for %1. Its shots come when it is back; or type them in.")
                            .arg(*silent < 90 ? tr("%1 s").arg(*silent) : tr("%1 min").arg(*silent / 60))
                      : tr("No monitor yet: waiting on port %1.").arg(port());
    if (const QString waits = waiting(); !waits.isNull())
        return tr("%1 waits to be let in: M asks.").arg(waits);
    if (silent && *silent > silentAfter)
        return tr("%1 has not been heard for %2 s.").arg(connected.join(QStringLiteral(", "))).arg(*silent);
    return tr("Connected: %1.").arg(connected.join(QStringLiteral(", ")));
}

link::Admission MonitorServer::admits(const QString& address, const std::string& code) {
    const bool isRight = link::sameCode(code, m_settings.code.toStdString());
    const link::Admission admission = m_doorkeeper.admits(address, isRight, m_clock.elapsed());
    if (!m_doorkeeper.wantsAnotherCode())
        return admission;
    m_doorkeeper.forget();
    m_settings.code = LinkSettings::newCode();
    m_settings.keep();
    // After what is said of the line that is sent away for it.
    QTimer::singleShot(0, this, [this] {
        emit complained(tr("A hundred wrong pairing codes came; the code is a new one now."));
        emit statusChanged();
    });
    return admission;
}

// Lines of one address that have not said hello.
std::size_t MonitorServer::silentFrom(const QHostAddress& address) const {
    return static_cast<std::size_t>(std::ranges::count_if(m_lines, [&](const auto& line) {
        return !line->conversation->saidHello() && line->socket->peerAddress() == address;
    }));
}

void MonitorServer::meet() {
    while (QTcpSocket* socket = m_server->nextPendingConnection()) {
        if (m_lines.size() >= mostLines || silentFrom(socket->peerAddress()) >= mostSilent ||
            (!m_settings.open && !isOwn(*socket))) {
            socket->abort();
            socket->deleteLater();
            continue;
        }
        socket->setSocketOption(QAbstractSocket::LowDelayOption, 1);
        socket->setReadBufferSize(4 * bytesATurn);
        link::Admits code;
        if (m_settings.open)
            code = [this, from = socket->peerAddress().toString()](const std::string& said) {
                return admits(from, said);
            };
        auto line = std::make_unique<Line>();
        line->socket = socket;
        line->conversation.emplace(m_receipts, std::move(code));
        Line* known = line.get();
        m_lines.push_back(std::move(line));
        auto listen = [this, known] {
            if (isOpen(known))
                hear(*known);
        };
        connect(socket, &QTcpSocket::readyRead, this, listen);
        connect(socket, &QTcpSocket::bytesWritten, this, listen);
        connect(socket, &QTcpSocket::disconnected, this, [this, known, socket] {
            socket->deleteLater();
            std::erase_if(m_lines, [&](const auto& each) { return each.get() == known; });
            emit statusChanged();
        });
        known->patience.setSingleShot(true);
        connect(&known->patience, &QTimer::timeout, socket, &QTcpSocket::abort);
        known->patience.start(helloWithin);
    }
}

// A little at a time, so that nobody's flood keeps the window or another line from its turn; and nothing
// from a line that does not take its answers.
void MonitorServer::hear(Line& line) {
    QTcpSocket* socket = line.socket;
    if (socket->bytesAvailable() == 0 || socket->bytesToWrite() > mostUnsent || line.gone)
        return;
    const QByteArray bytes = socket->read(bytesATurn);
    // Where no test can take shots they stay with the monitor: nothing is acknowledged that is not kept.
    const link::Heard heard = line.conversation->take({bytes.constData(), static_cast<std::size_t>(bytes.size())});
    const bool wasSilent = m_lastHeard == 0 || secondsSilent().value_or(0) > silentAfter;
    m_lastHeard = QDateTime::currentMSecsSinceEpoch();
    for (const auto& id : heard.repeated) // acknowledged on this line, too, once it is kept
        if (!m_receipts.isKept(id))
            line.unacknowledged.push_back(id);
    socket->write(heard.reply.data(), static_cast<qint64>(heard.reply.size()));
    const QPointer<QTcpSocket> still(socket);
    take(line, heard.messages);
    if (!still || !isOpen(&line))
        return;
    if (heard.hangUp) {
        emit complained(
            tr("A program on the monitor's port was sent away: %1.").arg(QString::fromStdString(heard.refusal)));
        return hangUp(line);
    }
    if (socket->bytesAvailable() > 0)
        QTimer::singleShot(0, this, [this, known = &line] {
            if (isOpen(known))
                hear(*known);
        });
    if (wasSilent)
        emit statusChanged();
}

bool MonitorServer::isOpen(const Line* line) const {
    return std::ranges::any_of(m_lines, [&](const auto& each) { return each.get() == line; });
}

void MonitorServer::hangUp(Line& line) {
    line.gone = true;
    line.socket->disconnectFromHost();
}

void MonitorServer::greet(Line& line, const link::Hello& hello) {
    line.patience.stop();
    line.device = QString::fromStdString(hello.device);
    if (m_keptOut.contains(line.device))
        return hangUp(line);
    line.waits = !knownDevices().contains(line.device);
    m_inHand.clear();
    tellInHand();
    emit statusChanged();
    if (line.waits)
        emit asksToEnter(line.device);
}

QString MonitorServer::waiting() const {
    for (const auto& line : m_lines)
        if (line->waits && !line->gone)
            return line->device.isEmpty() ? tr("A monitor without a name") : line->device;
    return {};
}

void MonitorServer::askAgain() {
    for (const auto& line : m_lines)
        if (line->waits && !line->gone)
            return emit asksToEnter(line->device);
    if (!m_keptOut.isEmpty()) // it knocks again by itself, and is known then
        emit asksToEnter(m_keptOut.last());
}

void MonitorServer::letIn(const QString& device) {
    QStringList known = knownDevices();
    if (!known.contains(device))
        QSettings().setValue(QStringLiteral("link/known"), known << device);
    m_keptOut.removeAll(device);
    for (std::size_t i = 0; i < m_lines.size(); ++i) // taking may close lines
        if (Line& line = *m_lines[i]; line.waits && line.device == device) {
            line.waits = false;
            const auto with = std::exchange(line.heldWith, {});
            take(line, std::exchange(line.held, {}), with);
        }
    emit statusChanged();
}

void MonitorServer::keepOut(const QString& device) {
    if (!m_keptOut.contains(device))
        m_keptOut << device;
    for (std::size_t i = m_lines.size(); i-- > 0;)
        if (Line& line = *m_lines[i]; line.waits && line.device == device)
            hangUp(line);
    emit statusChanged();
}

void MonitorServer::take(Line& line, const std::vector<link::Message>& messages,
                         const std::vector<std::optional<bay::InHand>>& with) {
    std::vector<bay::Arrival> arrivals;
    std::size_t place = 0;
    auto arrived = [&](const std::string& id, const std::string& at) -> bay::Arrival& {
        line.unacknowledged.push_back(id);
        arrivals.push_back({.readings = {},
                            .at = struckAt(line, at).toStdString(),
                            .readId = std::string(readPrefix) + id,
                            .reason = {},
                            .struckWith = place < with.size() ? with[place] : std::nullopt});
        return arrivals.back();
    };
    auto compareClocks = [&](const std::string& at) {
        if (const QDateTime theirs = timeIn(at); theirs.isValid())
            line.clockOffset = theirs.msecsTo(QDateTime::currentDateTime());
    };
    for (; place < messages.size(); ++place) {
        const auto& message = messages[place];
        if (line.gone)
            break;
        if (const auto* hello = std::get_if<link::Hello>(&message)) {
            compareClocks(hello->at);
            greet(line, *hello);
        } else if (line.waits) {
            line.held.push_back(message);
            line.heldWith.push_back(m_bay.inHand());
            if (line.held.size() > mostHeld)
                hangUp(line);
        } else if (const auto* shot = std::get_if<link::ShotRead>(&message)) {
            arrived(shot->id, shot->at).readings = shot->readings;
        } else if (const auto* noRead = std::get_if<link::NoRead>(&message)) {
            arrived(noRead->id, noRead->at).reason = noRead->reason;
        } else if (const auto* heartbeat = std::get_if<link::Heartbeat>(&message)) {
            compareClocks(heartbeat->at);
        } else if (const auto* junk = std::get_if<link::Unreadable>(&message); junk != nullptr && !line.complained) {
            line.complained = true; // once a connection: a broken cable says the same a thousand times
            emit complained(
                tr("%1 sent a line that can't be read (%2). Shots on other lines are taken.")
                    .arg(line.device.isEmpty() ? tr("The monitor") : line.device, QString::fromStdString(junk->why)));
        }
    }
    if (!arrivals.empty() && !m_bay.arrive(std::move(arrivals)))
        refuseWaiting(line);
}

// No test takes shots: they stay with the monitor, which may send them again.
void MonitorServer::refuseWaiting(Line& line) {
    QByteArray reply;
    for (const auto& id : line.unacknowledged) {
        m_receipts.giveBack(id);
        const std::string refused = link::lineOf(link::Refused{id, "no test takes shots now"});
        reply.append(refused.data(), static_cast<qsizetype>(refused.size()));
    }
    line.unacknowledged.clear();
    line.socket->write(reply);
}

// The monitor's time in ours where it can be trusted, else nothing: then it was struck just now.
QString MonitorServer::struckAt(const Line& line, const std::string& at) const {
    const QDateTime theirs = timeIn(at);
    const QDateTime now = QDateTime::currentDateTime();
    if (!theirs.isValid())
        return {};
    const QDateTime ours = theirs.addMSecs(line.clockOffset.value_or(0));
    const qint64 age = ours.msecsTo(now);
    if (age < -clockSlack || (!line.clockOffset && age > trustedAge))
        return {};
    return momentText(std::min(ours, now));
}

// Only what is on disk: a shot that was heard and not taken is not among these.
void MonitorServer::acknowledge(const std::vector<std::string>& readIds) {
    std::unordered_set<std::string> kept;
    for (const auto& readId : readIds)
        if (readId.starts_with(readPrefix))
            kept.insert(readId.substr(readPrefix.size()));
    for (const auto& line : m_lines) {
        QByteArray reply;
        std::erase_if(line->unacknowledged, [&](const std::string& id) {
            if (!kept.contains(id))
                return false;
            const std::string ack = link::lineOf(link::Ack{id});
            reply.append(ack.data(), static_cast<qsizetype>(ack.size()));
            return true;
        });
        line->socket->write(reply);
    }
    for (const auto& id : kept)
        m_receipts.keep(id);
}

// Which club is in hand, for stand-ins that strike as that club would.
void MonitorServer::tellInHand() {
    if (!m_hand.has() || m_hand.test().builds.empty())
        return;
    seedReceipts();
    const auto& builds = m_hand.test().builds;
    const bay::Stand stand = m_bay.stand();
    std::optional<record::BuildAt> inHand;
    if (const auto* stint = stand.stint())
        inHand = stint->build;
    else if (const auto* free = stand.as<bay::Free>())
        inHand = free->build;
    // Nothing in hand: a plan that is struck wants no more swings.
    const bool isDrawn = stand.stint() != nullptr && stand.stint()->drawn; // nobody knows it before its tag is read
    const std::string told = link::lineOf(
        inHand ? link::InHand{isDrawn ? "from the bag" : builds[*inHand].name, *inHand} : link::InHand{{}, 0});
    if (told == m_inHand)
        return;
    m_inHand = told;
    for (const auto& line : m_lines)
        if (line->conversation->saidHello())
            line->socket->write(told.data(), static_cast<qint64>(told.size()));
}

// A monitor that sends again what an earlier run of this program kept must not be taken twice. Ids are
// compared within a sitting: some devices number from 1 each day.
void MonitorServer::seedReceipts() {
    if (!m_hand.has())
        return;
    const record::Test& test = m_hand.test();
    const std::string sitting = test.sittings.empty() ? std::string() : test.sittings.back().label;
    if (m_receiptsFor == test.id + '/' + sitting)
        return;
    m_receiptsFor = test.id + '/' + sitting;
    m_receipts.forget();
    for (const auto& line : m_lines)
        for (const auto& id : line->unacknowledged)
            (void)m_receipts.take(id);
    if (!sitting.empty())
        for (const auto& shot : test.shots)
            if (shot.sitting == sitting && shot.readId.starts_with(readPrefix))
                m_receipts.keep(shot.readId.substr(readPrefix.size()));
}

} // namespace knot::app
