// Seals clubs, puts the words down, and reveals them, test after test, until somebody kills it: killed_seal LOGBOOK
#include "app/session/session.h"

#include <QApplication>
#include <QFile>
#include <QTest>

#include <unistd.h>

using namespace knot;

namespace {

record::Test threeClubs() {
    record::Test test;
    test.title = "Sealed";
    test.builds = {{.name = "Reed 53"}, {.name = "Alder 62"}, {.name = "Larch 71"}};
    test.card.blinding = record::Blinding::bothBlind;
    return test;
}

} // namespace

int main(int argc, char** argv) {
    const QApplication application(argc, argv);
    constexpr int patience = 30000; // ms
    const QString path = QApplication::arguments().value(1);
    app::Session session;
    QFile slip(path + ".slip"); // the paper in the helper's hand
    if (!session.openLogbook(path) || !slip.open(QIODevice::Append))
        return 2;
    app::Declaring& declaring = session.declaring();
    QString words;
    QObject::connect(&declaring, &app::Declaring::sealReady, [&](const QString& told) {
        words = told;
        slip.write(QByteArray::fromStdString(session.test().id) + ' ' + told.toUtf8() + '\n');
        slip.flush();
        ::fsync(slip.handle());
        declaring.keepSeal();
    });
    for (;;) {
        const auto id = session.book().save(threeClubs());
        if (!id || !session.openTest(*id))
            return 2;
        declaring.seal();
        if (!QTest::qWaitFor([&] { return session.isSealed(); }, patience))
            return 2;
        declaring.reveal(words);
        if (!QTest::qWaitFor([&] { return !session.isSealed(); }, patience))
            return 2;
    }
}
