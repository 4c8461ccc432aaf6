// What the keys of the bay do.
#include "app/bay_page/ask_bar.h"
#include "app/bay_page/bay_page.h"
#include "app/bay_page/feel_view.h"
#include "app/bay_page/hand_entry.h"
#include "app/bay_page/lay_view.h"
#include "app/bay_page/player_window.h"
#include "app/bay_page/side_forms.h"
#include "app/import/heading_dialog.h"
#include "app/session.h"
#include "files/csv_reader.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QKeyEvent>
#include <QStackedWidget>

namespace knot::app {
namespace {

// What players say of a shot they would take back.
QStringList usualReasons() {
    return {BayPage::tr("thin"), BayPage::tr("fat"),     BayPage::tr("toe"),
            BayPage::tr("heel"), BayPage::tr("slipped"), BayPage::tr("disturbed")};
}

QString standInProgram() {
    const QString folder = QCoreApplication::applicationDirPath();
    for (const char* place : {"/knotcount-monitor", "/../knotcount-monitor", "/../src/knotcount-monitor"})
        if (QFileInfo::exists(folder + QLatin1String(place)))
            return folder + QLatin1String(place);
    return {};
}

} // namespace

QStringList BayPage::clubNames() const {
    QStringList names;
    const auto& test = m_session.test();
    const auto& clubs = test.seal.isClosed() && !test.sealedBuilds.empty() ? test.sealedBuilds : test.builds;
    for (const auto& build : clubs)
        names << QString::fromStdString(build.name);
    return names;
}

bool BayPage::event(QEvent* event) {
    // Keys of the bay come before the window's own shortcuts for the same.
    if (event->type() == QEvent::ShortcutOverride) {
        auto* key = static_cast<QKeyEvent*>(event);
        const bool ours =
            key->key() == Qt::Key_Escape && (m_ask->isAsking() || m_side->currentIndex() != 0 || !hasFocus());
        const bool undo = key->key() == Qt::Key_Z && key->modifiers().testFlag(Qt::ControlModifier);
        if (ours || undo) {
            event->accept();
            return true;
        }
    }
    return QWidget::event(event);
}

void BayPage::keyPressEvent(QKeyEvent* event) {
    if (act(event->key(), event->modifiers()))
        return;
    const QString typed = event->text();
    const bool begins = !typed.isEmpty() && (typed[0].isDigit() || typed[0] == QLatin1Char('-')) &&
                        event->modifiers() == Qt::NoModifier;
    if (begins && m_session.takesShots() && m_body->currentIndex() == 0) {
        showSide(Side::shot);
        m_entry->begin(typed);
        return;
    }
    QWidget::keyPressEvent(event);
}

bool BayPage::act(int key, Qt::KeyboardModifiers modifiers) {
    if (!m_session.hasTest() || m_body->currentIndex() != 0)
        return false;
    if (key == Qt::Key_Z && modifiers.testFlag(Qt::ControlModifier)) {
        modifiers.testFlag(Qt::ShiftModifier) ? m_session.redoInBay() : m_session.undoInBay();
        return true;
    }
    if (modifiers.testFlag(Qt::ControlModifier) || modifiers.testFlag(Qt::AltModifier))
        return false;
    if (key == Qt::Key_Escape) {
        showSide(Side::shot);
        takeFocus();
        return true;
    }
    if (!m_session.takesShots())
        return false;
    if (key >= Qt::Key_1 && key <= Qt::Key_9 && actOnClub(key - Qt::Key_1))
        return true;
    switch (key) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
        next();
        return true;
    case Qt::Key_PageDown: { // the one button: what is due, else the player's call
        const bay::Stand stand = bay::standOf(m_session.test());
        stand.phase == bay::Phase::striking&& stand.confirmed ? callMishit() : next();
        return true;
    }
    case Qt::Key_PageUp:
    case Qt::Key_Space:
        callMishit();
        return true;
    case Qt::Key_S:
        setAsideSeen();
        return true;
    case Qt::Key_N:
        noReading();
        return true;
    case Qt::Key_L:
        m_session.inBay(tr("a club that had not changed"), 0,
                        [](record::Test& test) { return bay::stillLast(test).value_or(test.shots.size()); });
        return true;
    case Qt::Key_U:
        modifiers.testFlag(Qt::ShiftModifier) ? m_session.redoInBay() : m_session.undoInBay();
        return true;
    case Qt::Key_R:
        rest();
        return true;
    case Qt::Key_F:
        feel();
        return true;
    case Qt::Key_G:
        guess();
        return true;
    case Qt::Key_W:
        word();
        return true;
    case Qt::Key_C:
        markClub();
        return true;
    case Qt::Key_P:
        markPlayer();
        return true;
    case Qt::Key_T:
        takeClub();
        return true;
    case Qt::Key_H:
        showSide(Side::shot);
        m_entry->begin({});
        return true;
    case Qt::Key_K:
        showConditions();
        return true;
    case Qt::Key_V:
        togglePlayerWindow();
        return true;
    case Qt::Key_X:
        stopForToday();
        return true;
    default:
        return false;
    }
}

bool BayPage::actOnClub(int number) {
    const bay::Stand stand = bay::standOf(m_session.test());
    const auto place = static_cast<std::size_t>(number);
    if (stand.phase == bay::Phase::nameTag && place < stand.inBag.size()) {
        m_session.inBay(tr("a tag"), 0, [&](record::Test& test) {
            return bay::nameTag(test, stand.inBag[place]).value_or(test.shots.size());
        });
        return true;
    }
    return false;
}

// Where nothing is planned: another club from the rack.
void BayPage::takeClub() {
    if (bay::standOf(m_session.test()).phase != bay::Phase::free)
        return;
    QStringList names;
    std::vector<std::size_t> places;
    for (std::size_t i = 0; i < m_session.test().builds.size(); ++i)
        if (m_session.test().builds[i].struckOff.empty()) {
            names << nameOf(m_session.test(), i);
            places.push_back(i);
        }
    ask([=, this] {
        m_ask->askChoice(tr("Which club is in hand now? New ones are added on the Rack."), names,
                         [=, this](int answer) {
                             m_session.inBay(tr("another club"), [&](record::Test& test) {
                                 bay::takeInHand(test, places[static_cast<std::size_t>(answer)]);
                             });
                         });
    });
}

void BayPage::next() {
    if (bay::standOf(m_session.test()).phase == bay::Phase::done)
        return emit readingRequested();
    const QString now = m_session.bayNow();
    m_session.inBay(tr("a hand-over"), [&](record::Test& test) {
        if (bay::isAnotherVisit(test, now.toStdString()))
            bay::beginSitting(test, now.toStdString());
        else
            bay::confirm(test, now.toStdString());
    });
}

void BayPage::callMishit() {
    const auto& test = m_session.test();
    if (test.card.setAsideRule == record::SetAsideRule::keepAll && test.stage == record::Stage::test) {
        emit complained(tr("The sheet keeps every shot, so this one too. W puts a word to it."));
        return;
    }
    const LastShot last = lastShot();
    const bool setAside = last.shot && test.shots[*last.shot].status == record::ShotStatus::setAside;
    const bool unseen = !maySeeShots(test, Eyes::fitter) || last.secondsToNumber > 0;
    const bool counted = last.shot && test.shots[*last.shot].status == record::ShotStatus::counted;
    if (setAside) {
        m_session.inBay(tr("a call"), *last.shot,
                        [&](record::Test& changed) { return bay::countAgain(changed, *last.shot); });
    } else if (counted && unseen && bay::isRead(test.shots[*last.shot])) {
        m_session.inBay(tr("a call"), *last.shot, [&](record::Test& changed) {
            return bay::setAside(changed, *last.shot, record::SetAsideWhen::called, tr("called").toStdString());
        });
    } else {
        m_called = !m_called; // the ball is in the air: the call is for the shot to come
        refresh();
    }
}

// With its number seen: kept as such, and the reading says so.
void BayPage::setAsideSeen() {
    const auto& test = m_session.test();
    if (!m_last || *m_last >= test.shots.size() || test.shots[*m_last].status != record::ShotStatus::counted)
        return;
    if (test.card.setAsideRule == record::SetAsideRule::keepAll && test.stage == record::Stage::test) {
        emit complained(tr("The sheet keeps every shot, so this one too. W puts a word to it."));
        return;
    }
    const std::size_t shot = *m_last;
    const bool byRule = test.card.setsAsideByNumbers();
    ask([this, shot, byRule] {
        m_ask->askLine(byRule ? tr("Set aside by the sheet's rule: why?")
                              : tr("Set aside after its number was seen: why?"),
                       {}, usualReasons(), [this, shot, byRule](const QString& reason) {
                           m_session.inBay(tr("a set-aside"), shot, [&](record::Test& changed) {
                               const bool revealed = !changed.seal.revealedAt.empty();
                               return bay::setAside(changed, shot,
                                                    byRule     ? record::SetAsideWhen::byRule
                                                    : revealed ? record::SetAsideWhen::afterReveal
                                                               : record::SetAsideWhen::afterNumber,
                                                    reason.toStdString());
                           });
                       });
    });
}

void BayPage::noReading() {
    m_session.arrive({{.readings = {}, .at = {}, .readId = {}, .reason = {}}});
}

void BayPage::rest() {
    if (m_resting.isValid()) {
        m_resting.invalidate();
        refresh();
        return;
    }
    m_restOver = false;
    m_resting.start();
    const std::string now = m_session.bayNow().toStdString();
    m_session.inBay(tr("a rest"), [&](record::Test& test) { bay::addEvent(test, record::EventKind::rest, now, ""); });
}

void BayPage::askReason(std::size_t shot) {
    ask([this, shot] {
        m_ask->askLine(tr("Why was it set aside?"), QString::fromStdString(m_session.test().shots[shot].reason),
                       usualReasons(), [this, shot](const QString& reason) {
                           m_session.inBay(tr("a reason"), shot, [&](record::Test& test) {
                               test.shots[shot].reason = reason.toStdString();
                               return shot;
                           });
                       });
    });
}

// A reason where the last shot was set aside, else a note to the test.
void BayPage::word() {
    if (m_last && *m_last < m_session.test().shots.size() &&
        m_session.test().shots[*m_last].status == record::ShotStatus::setAside)
        return askReason(*m_last);
    ask([this] {
        m_ask->askLine(tr("A note"), {}, {}, [this](const QString& text) {
            const std::string now = m_session.bayNow().toStdString();
            if (!text.isEmpty())
                m_session.inBay(tr("a note"), [&](record::Test& test) {
                    bay::addEvent(test, record::EventKind::note, now, text.toStdString());
                });
        });
    });
}

void BayPage::guess() {
    const auto stint = bay::lastStint(m_session.test());
    const QStringList clubs = clubNames();
    if (!stint || clubs.isEmpty())
        return;
    const bay::Stand stand = bay::standOf(m_session.test());
    if (stand.phase == bay::Phase::done)
        return guessAtEnd(0);
    ask([=, this] {
        m_ask->askChoice(tr("Which club was that, says the player?"), clubs, [=, this](int answer) {
            m_session.inBay(tr("a guess"), [&](record::Test& test) {
                bay::setGuess(test, {stint->build, clubs[answer].toStdString(), stint->turn});
            });
        });
    });
}

// Once for every tag, when all is struck.
void BayPage::guessAtEnd(std::size_t build) {
    const QStringList clubs = clubNames();
    if (build >= m_session.test().builds.size())
        return;
    ask([=, this] {
        m_ask->askChoice(tr("Which club was %1?").arg(nameOf(m_session.test(), build)), clubs, [=, this](int answer) {
            m_session.inBay(tr("a guess"), [&](record::Test& test) {
                bay::setGuess(test, {build, clubs[answer].toStdString(), {}});
            });
            guessAtEnd(build + 1);
        });
    });
}

void BayPage::feel() {
    if (!bay::lastStint(m_session.test()))
        return;
    showSide(Side::feel);
    m_feel->setFocus();
}

void BayPage::ask(const std::function<void()>& asking) {
    m_bottom->setCurrentWidget(m_ask);
    asking();
}

void BayPage::showConditions() {
    showSide(Side::conditions);
    m_conditions->takeFocus();
}

void BayPage::showLinkForm() {
    showSide(Side::link);
    m_link->takeFocus();
}

void BayPage::markClub() {
    m_session.inBay(tr("a mark"), [](record::Test& test) {
        test.progress.nextMark = test.progress.nextMark == record::Mark::club ? record::Mark::none : record::Mark::club;
    });
    emit complained(m_session.test().progress.nextMark == record::Mark::club
                        ? tr("From the next shot on this is a changed club. C again takes it back.")
                        : tr("The club is as it was."));
}

void BayPage::markPlayer() {
    m_session.inBay(tr("a mark"), [](record::Test& test) {
        test.progress.nextMark =
            test.progress.nextMark == record::Mark::player ? record::Mark::none : record::Mark::player;
    });
    emit complained(m_session.test().progress.nextMark == record::Mark::player
                        ? tr("From the next shot on the player has changed something. P again takes it back.")
                        : tr("The player is as before."));
}

void BayPage::stopForToday() {
    ask([this] {
        m_ask->askLine(tr("Stopping. What is it?"), {}, {tr("pain"), tr("tired"), tr("time"), tr("weather")},
                       [this](const QString& text) {
                           const std::string now = m_session.bayNow().toStdString();
                           m_session.inBay(tr("a stop"), [&](record::Test& test) {
                               bay::addEvent(test, record::EventKind::stop, now, text.toStdString());
                           });
                           emit complained(
                               tr("Stopped; the test waits where it stands. Pain in a joint or the back belongs "
                                  "to a doctor or physiotherapist before the next swing."));
                       });
    });
}

bool BayPage::playerWindowShows() const {
    return m_playerWindow != nullptr && m_playerWindow->isVisible();
}

void BayPage::togglePlayerWindow() {
    if (m_playerWindow == nullptr)
        m_playerWindow = new PlayerWindow;
    m_playerWindow->setVisible(!m_playerWindow->isVisible());
    if (m_playerWindow->isVisible())
        window()->activateWindow(); // the keys stay here
    refresh();
    emit stateChanged();
}

void BayPage::toggleStandIn() {
    if (standInRuns()) {
        m_standIn.terminate();
        return;
    }
    const QString program = standInProgram();
    if (program.isEmpty()) {
        emit complained(tr("knotcount-monitor is not beside this program. Build or install it, then try again."));
        return;
    }
    m_standIn.setProgram(program);
    m_standIn.setArguments({QStringLiteral("--port"), QString::number(m_server.port()), QStringLiteral("--code"),
                            m_server.settings().code, QStringLiteral("--hand-over"), QStringLiteral("4")});
    m_standIn.setStandardOutputFile(QProcess::nullDevice());
    m_standIn.start();
}

void BayPage::toggleSounds() {
    m_cues.turn(!m_cues.isOn());
    if (m_cues.isOn() && !m_cues.canPlay())
        emit complained(tr("No sound player was found (pw-play, paplay or aplay), so nothing will be heard."));
    m_cues.play(Cue::shotKept);
    emit stateChanged();
}

void BayPage::watchFolder(const QString& folder) {
    m_folder.watch(folder);
    emit stateChanged();
}

void BayPage::stopWatching() {
    m_folder.stop();
    emit stateChanged();
}

void BayPage::layFile(const QString& path) {
    const auto& test = m_session.test();
    if (!m_session.isKept() || test.plan.turns.empty()) {
        emit complained(tr("A file is laid on a plan, and this test has none. Add its shots instead (File menu)."));
        return;
    }
    auto read = files::readShotFile(path.toStdString(),
                                    {.headings = rememberedHeadings(), .clubs = files::ReadOptions::Clubs::unknown});
    if (!read) {
        emit complained(QString::fromStdString(files::sentence(read.error())));
        return;
    }
    m_lay->show(test, QFileInfo(path).fileName(), std::move(read->test.shots), m_session.units());
    m_body->setCurrentWidget(m_lay);
    m_lay->takeFocus();
}

} // namespace knot::app
