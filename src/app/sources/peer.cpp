#include "app/sources/peer.h"

#include <QFile>
#include <QTcpSocket>
#include <QtEndian>

#include <unistd.h>

namespace knot::app {
namespace {

// "0100007F:BA8B": the bytes of the address from the last to the first, as the kernel writes them. An IPv6
// socket that speaks IPv4 has more before it.
QByteArray inTable(const End& end) {
    const auto hex = [](quint32 value, int digits) {
        return QByteArray::number(value, 16).rightJustified(digits, '0').toUpper();
    };
    return hex(qbswap(end.address.toIPv4Address()), 8) + ':' + hex(end.port, 4);
}

} // namespace

std::optional<uint> ownerIn(const QByteArray& table, const End& theirs, const End& ours) {
    // "sl local_address rem_address st … uid …"
    const QByteArray local = inTable(theirs);
    const QByteArray remote = inTable(ours);
    for (const QByteArray& row : table.split('\n')) {
        const QList<QByteArray> cells = row.simplified().split(' ');
        if (cells.size() > 7 && cells[1].endsWith(local) && cells[2].endsWith(remote))
            return cells[7].toUInt();
    }
    return std::nullopt;
}

bool isOwn(const QTcpSocket& socket) {
    const End theirs{QHostAddress(socket.peerAddress().toIPv4Address()), socket.peerPort()};
    const End ours{QHostAddress(socket.localAddress().toIPv4Address()), socket.localPort()};
    bool anyTable = false;
    for (const char* name : {"/proc/net/tcp", "/proc/net/tcp6"}) {
        QFile table(QString::fromLatin1(name));
        if (!table.open(QIODevice::ReadOnly))
            continue;
        anyTable = true;
        if (const auto owner = ownerIn(table.readAll(), theirs, ours))
            return *owner == ::getuid();
    }
    return !anyTable; // where nobody can know, the question about the device's name stands
}

} // namespace knot::app
