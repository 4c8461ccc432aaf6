#include "monitor/connection.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QSocketNotifier>

#include <algorithm>
#include <cstdio>
#include <iostream>

namespace knot::monitor {
namespace {

constexpr int retryMs = 150, heartbeatMs = 3000;

std::string now() {
    const QDateTime now = QDateTime::currentDateTime();
    return now.toOffsetFromUtc(now.offsetFromUtc()).toString(Qt::ISODateWithMs).toStdString();
}

const std::string& idOf(const link::Message& message) {
    if (const auto* shot = std::get_if<link::ShotRead>(&message))
        return shot->id;
    return std::get<link::NoRead>(message).id;
}

} // namespace

Connection::Connection(Striker striker, const Pace& pace, Where where, QObject* parent)
    : QObject(parent)
    , m_striker(std::move(striker))
    , m_pace(pace)
    , m_where(std::move(where)) {
    m_swing.setSingleShot(true);
    m_retry.setSingleShot(true);
    m_heartbeat.setInterval(heartbeatMs);
    connect(&m_swing, &QTimer::timeout, this, &Connection::swing);
    connect(&m_retry, &QTimer::timeout, this, &Connection::connectNow);
    connect(&m_heartbeat, &QTimer::timeout, this, [this] {
        if (m_welcome)
            m_socket.write(QByteArray::fromStdString(link::lineOf(link::Heartbeat{now()})));
    });
    connect(&m_socket, &QTcpSocket::connected, this, &Connection::greet);
    connect(&m_socket, &QTcpSocket::readyRead, this, &Connection::hear);
    auto lost = [this] {
        if (m_welcome)
            say(tr("The line is lost; trying again."));
        m_welcome = false;
        m_retry.start(retryMs);
    };
    connect(&m_socket, &QTcpSocket::disconnected, this, lost);
    connect(&m_socket, &QTcpSocket::errorOccurred, this, lost);
    if (!m_where.log.isEmpty()) {
        m_log.setFileName(m_where.log);
        if (!m_log.open(QIODevice::Append | QIODevice::Unbuffered))
            say(tr("%1 can't be written; going on without a log.").arg(m_where.log));
    }
}

// What the socket says while it goes reaches nobody: the timers have gone before it.
Connection::~Connection() {
    m_socket.disconnect(this);
}

void Connection::start() {
    if (m_pace.onKey) {
        auto* keys = new QSocketNotifier(fileno(stdin), QSocketNotifier::Read, this);
        connect(keys, &QSocketNotifier::activated, this, &Connection::readKeys);
    }
    m_heartbeat.start();
    connectNow();
}

void Connection::connectNow() {
    if (m_socket.state() == QAbstractSocket::UnconnectedState)
        m_socket.connectToHost(m_where.host, m_where.port);
}

void Connection::greet() {
    m_lines = {};
    m_socket.setSocketOption(QAbstractSocket::LowDelayOption, 1);
    m_socket.write(QByteArray::fromStdString(link::lineOf(link::Hello{
        "Simulated monitor", link::protocolVersion, m_striker.reads(), m_where.code.toStdString(), now()})));
}

void Connection::hear() {
    const QByteArray bytes = m_socket.readAll();
    for (const auto& line : m_lines.take({bytes.constData(), static_cast<std::size_t>(bytes.size())})) {
        if (!line)
            continue;
        const link::Message message = link::messageFrom(*line);
        if (std::holds_alternative<link::Welcome>(message)) {
            m_welcome = true;
            say(tr("Connected to port %1.").arg(m_where.port));
            sendPending();
            swingNext();
        } else if (const auto* ack = std::get_if<link::Ack>(&message)) {
            note("acked " + ack->id);
            std::erase_if(m_pending, [&](const auto& pending) { return pending.first == ack->id; });
            if (m_pace.seconds <= 0)
                swingNext();
            if (m_pace.shots > 0 && m_striker.struck() >= m_pace.shots && m_pending.empty())
                emit finished();
        } else if (const auto* inHand = std::get_if<link::InHand>(&message)) {
            m_told = true;
            m_emptyHands = inHand->build.empty();
            if (m_emptyHands) {
                say(tr("Nothing is in hand; no swing until something is."));
                m_swing.stop();
                continue;
            }
            m_striker.handOver(inHand->build, inHand->place);
            say(tr("In hand: %1.").arg(QString::fromStdString(inHand->build)));
            if (m_pace.handOver > 0 && m_swing.isActive())
                m_swing.start(static_cast<int>(1000 * m_pace.handOver));
            swingNext();
        } else if (const auto* refused = std::get_if<link::Refused>(&message)) {
            say(tr("Refused: %1.").arg(QString::fromStdString(refused->reason)));
        }
    }
}

void Connection::swingNext() {
    const bool done = m_pace.shots > 0 && m_striker.struck() >= m_pace.shots;
    if (m_pace.onKey || done || !m_welcome || m_emptyHands || m_swing.isActive())
        return;
    m_swing.start(static_cast<int>(1000 * m_pace.seconds));
}

void Connection::readKeys() {
    std::string line;
    if (!std::getline(std::cin, line) || line == "q")
        return QCoreApplication::quit();
    swing();
}

void Connection::swing() {
    if (!m_told && m_pace.stintLength > 0 && m_inStint++ == m_pace.stintLength) {
        m_inStint = 1;
        m_striker.handOver({}, ++m_place);
    }
    const auto strike = m_striker.strike(now());
    for (const auto& junk : strike.junk)
        if (m_welcome)
            m_socket.write(QByteArray::fromStdString(junk + '\n'));
    for (const auto& message : strike.messages)
        send(message);
    if (m_pace.shots > 0 && m_striker.struck() >= m_pace.shots)
        for (const auto& message : m_striker.rest())
            send(message);
    if (strike.disconnect) {
        m_socket.flush();
        m_socket.abort();
        m_retry.start(retryMs);
        return;
    }
    if (m_pace.seconds > 0 || strike.messages.empty())
        swingNext();
}

void Connection::send(const link::Message& message) {
    const std::string& id = idOf(message);
    if (std::ranges::find(m_pending, id, &std::pair<std::string, link::Message>::first) == m_pending.end())
        m_pending.emplace_back(id, message);
    if (!m_welcome)
        return;
    note("sent " + id);
    m_socket.write(QByteArray::fromStdString(link::lineOf(message)));
}

void Connection::sendPending() {
    const auto pending = m_pending;
    for (const auto& [id, message] : pending)
        send(message);
}

void Connection::note(const std::string& what) {
    if (m_log.isOpen())
        m_log.write(QByteArray::fromStdString(what + '\n'));
}

void Connection::say(const QString& text) const {
    std::printf("%s\n", qPrintable(text));
    std::fflush(stdout);
}

} // namespace knot::monitor
