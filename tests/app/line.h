#pragma once

#include "app/hands.h"
#include "link/message.h"

#include <QTcpSocket>
#include <catch2/catch.hpp>

#include <vector>

namespace knot::test {

// An open sitting in the bay, warm.
inline void sitDown(Bench& bench) {
    Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hands.press(Qt::Key_Return);
    REQUIRE(bench.session.bay().takesShots());
}

inline const std::vector<record::Shot>& shots(Bench& bench) {
    return bench.session.test().shots;
}

// A monitor's end of the line, by hand.
struct Line {
    QTcpSocket socket;
    QByteArray heard;
    explicit Line(quint16 port) {
        QObject::connect(&socket, &QTcpSocket::readyRead, &socket, [this] { heard += socket.readAll(); });
        socket.connectToHost("127.0.0.1", port);
        REQUIRE(QTest::qWaitFor([this] { return socket.state() == QAbstractSocket::ConnectedState; }, 3000));
    }
    void say(const link::Message& message) { socket.write(QByteArray::fromStdString(link::lineOf(message))); }
    void strike(const char* id, double carry, const std::string& at = {}) {
        record::Readings readings;
        readings.measure(record::Metric::carry, carry);
        say(link::ShotRead{id, at, readings, {}});
    }
    bool hears(const QByteArray& text) {
        return QTest::qWaitFor([&] { return heard.contains(text); }, 3000);
    }
};

inline link::Hello hello(const char* code = "") {
    return {"Hand-made", 1, {}, code, {}};
}

} // namespace knot::test
