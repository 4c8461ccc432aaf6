#pragma once

#include <QByteArray>
#include <QHostAddress>

#include <optional>

class QTcpSocket;

namespace knot::app {

/// One end of a connection.
struct End {
    QHostAddress address; ///< IPv4
    quint16 port = 0;
};

/// The user whose program is at the end `theirs` of a connection to `ours`, as the kernel's table of
/// connections (/proc/net/tcp or tcp6) says; nothing where it has no such connection.
std::optional<uint> ownerIn(const QByteArray& table, const End& theirs, const End& ours);

/// Whether a program of this user is at the other end of a connection on this computer. A connection that
/// is in no table any more is nobody's.
bool isOwn(const QTcpSocket& socket);

} // namespace knot::app
