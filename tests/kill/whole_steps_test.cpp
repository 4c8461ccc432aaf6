// A seal with its words, and a merge: there whole or not at all, whenever the program is killed.
#include "core/plan/seal.h"
#include "core/random.h"
#include "core/simulate/scenarios.h"
#include "kill/killed_after.h"
#include "logbook/logbook.h"

#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <QThread>
#include <catch2/catch.hpp>

#include <map>

using namespace knot;
using logbook::Logbook;

TEST_CASE("a sealed test has its words on the slip, and a revealed one proves itself, whenever it was killed") {
    const int kills = test::isLong() ? 200 : 15;
    const QTemporaryDir folder;
    const QString path = folder.filePath("a.knotbook");
    REQUIRE(Logbook::create(path.toStdString()));
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert("QT_QPA_PLATFORM", "offscreen");
    environment.insert("XDG_CONFIG_HOME", folder.path());
    environment.insert("XDG_DATA_HOME", folder.path());
    Random random(20261130);
    for (int kill = 0; kill < kills; ++kill) {
        QProcess program;
        program.setProcessEnvironment(environment);
        program.setStandardOutputFile(QProcess::nullDevice());
        program.setStandardErrorFile(QProcess::nullDevice());
        program.start(KNOT_KILLED_SEAL, {path});
        REQUIRE(program.waitForStarted());
        QThread::msleep(400 + random.below(1600));
        program.kill();
        program.waitForFinished();
    }
    std::map<std::string, std::string> words;
    QFile slip(path + ".slip");
    REQUIRE(slip.open(QIODevice::ReadOnly));
    for (const QByteArray& line : slip.readAll().split('\n'))
        if (const auto blank = line.indexOf(' '); blank > 0)
            words[line.left(blank).toStdString()] = line.mid(blank + 1).toStdString();
    auto book = Logbook::open(path.toStdString());
    REQUIRE(book);
    CHECK(book->integrityFaults()->empty());
    int sealed = 0;
    int revealed = 0;
    const auto listed = *book->tests();
    for (const auto& entry : listed) {
        const auto test = *book->load(entry.id);
        if (!test.seal.wasMade())
            continue;
        REQUIRE(words.contains(entry.id));
        const auto opened = plan::openSeal(test.seal, words[entry.id]);
        REQUIRE(std::holds_alternative<plan::Opened>(opened));
        test.seal.isClosed() ? ++sealed : ++revealed;
        if (!test.seal.isClosed())
            CHECK(plan::agreementOf(test).state == plan::Agreement::State::agrees);
    }
    CHECK(sealed + revealed > kills / 4);
    WARN(sealed << " sealed, " << revealed << " revealed over " << kills << " kills");
}

TEST_CASE("a logbook that is added, or taken back, is there with all its tests or with none, whenever it was killed") {
    const int kills = test::isLong() ? 200 : 30;
    const QTemporaryDir folder;
    const std::string here = folder.filePath("here.knotbook").toStdString();
    const std::string there = folder.filePath("there.knotbook").toStdString();
    auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    std::vector<std::string> ids;
    {
        auto book = *Logbook::create(there);
        test.question = "0";
        for (int i = 0; i < 6; ++i) {
            test.id.clear();
            ids.push_back(*book.save(test));
        }
        auto other = *Logbook::create(here);
        REQUIRE(other.addAll(book));
    }
    Random random(20261130);
    int steps = 0;
    for (int kill = 0; kill < kills; ++kill) {
        test::killedAfter(30000 + random.below(300000), [&] {
            auto from = Logbook::open(there);
            auto into = Logbook::open(here);
            for (int n = 1 + std::stoi(from->load(ids[0])->question);; ++n) {
                for (const std::string& id : ids) {
                    auto changed = *from->load(id);
                    changed.question = std::to_string(n);
                    if (!from->saveHead(changed))
                        return;
                }
                const auto merged = into->addAll(*from);
                if (!merged || (n % 2 == 0 && (!into->takeBack(merged->step) || !into->addAll(*from))))
                    return;
            }
        });
        auto book = Logbook::open(here);
        REQUIRE(book);
        REQUIRE(book->integrityFaults()->empty());
        REQUIRE(book->tests()->size() == ids.size());
        const std::string one = book->load(ids[0])->question;
        for (const std::string& id : ids) {
            const auto kept = *book->load(id);
            REQUIRE(kept.question == one);
            REQUIRE(kept.shots.size() == test.shots.size());
        }
        steps = std::stoi(one);
    }
    CHECK(steps > 10);
    WARN(steps << " logbooks added over " << kills << " kills");
}
