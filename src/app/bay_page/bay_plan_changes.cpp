// Changes of the plan while it is struck: each is noted as an amendment.
#include "app/bay_page/ask_bar.h"
#include "app/bay_page/bay_page.h"
#include "app/session.h"

#include <QRandomGenerator>

namespace knot::app {

void BayPage::endStint() {
    const QString now = m_session.bayNow();
    m_session.inBay(tr("the end of a stint"), [&](record::Test& test) {
        const bay::Stand stand = bay::standOf(test);
        if (bay::endStint(test))
            Session::amend(
                test, now,
                tr("Stint %1 ended after %2 of %3 shots").arg(*stand.turn + 1).arg(stand.shot - 1).arg(stand.shots));
    });
}

void BayPage::leaveClubOut() {
    QStringList names;
    for (std::size_t i = 0; i < m_session.test().builds.size(); ++i)
        names << nameOf(m_session.test(), i);
    ask([=, this] {
        m_ask->askChoice(tr("Which club is out from now on?"), names, [=, this](int club) {
            ask([=, this] {
                m_ask->askLine(tr("Why is %1 out?").arg(names[club]), {}, {}, [=, this](const QString& reason) {
                    const QString now = m_session.bayNow();
                    m_session.inBay(tr("a club left out"), [&](record::Test& test) {
                        bay::leaveOut(test, static_cast<std::size_t>(club));
                        Session::amend(test, now,
                                       tr("%1 was left out from here on: %2")
                                           .arg(names[club], reason.isEmpty() ? tr("no reason given") : reason));
                    });
                });
            });
        });
    });
}

void BayPage::endHere() {
    ask([this] {
        m_ask->askLine(tr("The rest of the plan is left out. Why?"), tr("time ran out"), {},
                       [this](const QString& reason) {
                           const QString now = m_session.bayNow();
                           m_session.inBay(tr("the end of the test"), [&](record::Test& test) {
                               bay::endHere(test);
                               Session::amend(test, now, tr("Ended before the plan was done: %1").arg(reason));
                           });
                       });
    });
}

void BayPage::anotherLap() {
    const QString now = m_session.bayNow();
    const quint64 seed = QRandomGenerator::system()->generate64();
    m_session.inBay(tr("another lap"), [&](record::Test& test) {
        bay::addRound(test, seed);
        Session::amend(test, now, tr("A lap was added"));
    });
    emit complained(
        tr("A lap is added and noted. Laps beyond the plan are kept, and judged only up to the planned number: "
           "going on because a result is open would make luck look real."));
}

void BayPage::newSitting() {
    const std::string now = m_session.bayNow().toStdString();
    m_session.inBay(tr("a new sitting"), [&](record::Test& test) { bay::beginSitting(test, now); });
}

} // namespace knot::app
