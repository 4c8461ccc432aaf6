#include "app/bay_page/said_actions.h"

#include "app/bay_page/bay_actions.h"
#include "app/bay_page/bay_words.h"
#include "app/form/ask_bar.h"
#include "core/bay/said.h"
#include "core/words/golfers_words.h"

namespace knot::app {

SaidActions::SaidActions(BayActions& actions)
    : QObject(&actions)
    , m_at(actions) {}

void SaidActions::call() {
    const Situation now = m_at.situation();
    const record::Shot* last = now.last.in(now.test);
    const bool ofLast =
        last != nullptr && bay::isRead(*last) && last->status != record::ShotStatus::warmUp && !BayActions::isSeen(now);
    const record::ShotId shot = ofLast ? last->id : record::ShotId::none;
    m_at.ask().askChoice(
        ofLast ? tr("How was it? It counts either way.") : tr("How is the one in the air?"),
        {tr("good"), tr("so-so"), tr("bad"), tr("good swing, bad strike"), tr("bad swing, good strike")},
        [=, this](int answer) {
            if (answer > 2)
                return callApart(shot, answer == 3);
            const auto call = static_cast<record::Call>(answer + 1);
            if (shot == record::ShotId::none) {
                m_at.run().callComing(call);
                emit m_at.changed();
            } else {
                const bool seen = BayActions::isSeen(m_at.situation());
                m_at.run().callShot(shot, call, bay::momentOf(m_at.test(), seen));
            }
        });
}

// Swing and strike called apart: the call is the strike's, since that is what the ball shows.
void SaidActions::callApart(record::ShotId shot, bool isGoodSwing) {
    const auto call = isGoodSwing ? record::Call::bad : record::Call::good;
    const std::string words = isGoodSwing ? "good swing, bad strike" : "bad swing, good strike";
    if (shot == record::ShotId::none) {
        m_at.run().callComing(call, words);
        return emit m_at.changed();
    }
    const bool seen = BayActions::isSeen(m_at.situation());
    m_at.run().callShot(shot, call, bay::momentOf(m_at.test(), seen), words);
}

void SaidActions::askChange() {
    askNote(tr("A tip, or what the player changed: from the next shot on. P again takes it back."));
}

void SaidActions::expect() {
    const auto stint = bay::stintToCome(m_at.test());
    if (!stint)
        return m_at.say(tr("No club is in hand yet."));
    m_at.ask().askLine(tr("What do you expect of it? As in “higher, more spin”."),
                       QString::fromStdString(bay::feelOf(m_at.test(), *stint).expected), {},
                       [this, stint](const QString& typed) {
                           const auto expected = words::expectedIn(typed.toStdString());
                           if (!typed.trimmed().isEmpty() && !expected)
                               return m_at.say(QString::fromStdString(expected.error()));
                           m_at.run().step(tr("an expectation"), [&](record::Test& test) {
                               auto feel = bay::feelOf(test, *stint);
                               feel.expected = typed.trimmed().toStdString();
                               bay::setFeel(test, feel);
                           });
                       });
}

void SaidActions::askReason(record::ShotId shot) {
    const auto at = m_at.test().shotIndex(shot);
    if (!at)
        return;
    m_at.ask().askLine(tr("Why was it set aside?"), QString::fromStdString(m_at.test().shots[*at].reason),
                       BayActions::usualReasons(), [this, shot](const QString& reason) {
                           m_at.run().stepOn(tr("a reason"), shot,
                                             [&](record::Shot& kept) { kept.reason = reason.toStdString(); });
                       });
}

// The first one of the sitting in hand that waits for its words.
std::optional<std::size_t> SaidActions::flagWithoutWords() const {
    const record::Test& test = m_at.test();
    for (std::size_t i = 0; i < test.events.size(); ++i)
        if (test.events[i].kind == record::EventKind::flag && test.events[i].text.empty() &&
            (test.sittings.empty() || test.events[i].at >= test.sittings.back().startedAt.text()))
            return i;
    return std::nullopt;
}

void SaidActions::flag() {
    const std::string now = m_at.run().now().toStdString();
    m_at.run().step(tr("a flag"), [&](record::Test& test) { bay::addEvent(test, record::EventKind::flag, now, ""); });
    m_at.say(tr("A flag stands at this moment. W gives it its words whenever there is time."));
}

void SaidActions::word() {
    const Situation now = m_at.situation();
    const record::Shot* last = now.last.in(now.test);
    const bool setAside = last != nullptr && last->status == record::ShotStatus::setAside;
    if (setAside && last->reason.empty())
        return askReason(last->id);
    using record::Mark;
    const Mark mark = now.test.progress.nextMark;
    if (mark == Mark::player || mark == Mark::club)
        return mark == Mark::club ? askNote(tr("What changed at the club?")) : askChange();
    if (const auto flag = flagWithoutWords()) {
        const record::Event event = now.test.events[*flag];
        m_at.ask().askLine(tr("The flag at %1, after %2 shots: what was it?")
                               .arg(QString::fromStdString(event.at).mid(11, 5))
                               .arg(event.afterShots),
                           {}, {}, [this, event](const QString& text) {
                               m_at.run().step(tr("words to a flag"), [&](record::Test& test) {
                                   for (record::Event& kept : test.events)
                                       if (kept == event)
                                           kept.text = text.toStdString();
                               });
                           });
        return;
    }
    if (setAside)
        return askReason(last->id);
    askNote(tr("A note"));
}

void SaidActions::askNote(const QString& question) {
    m_at.ask().askLine(question, {}, {}, [this](const QString& text) {
        const std::string at = m_at.run().now().toStdString();
        if (!text.isEmpty())
            m_at.run().step(tr("a note"), [&](record::Test& test) {
                bay::addEvent(test, record::EventKind::note, at, text.toStdString());
            });
    });
}

QStringList SaidActions::clubNames() const {
    QStringList names;
    const auto& test = m_at.test();
    const auto& clubs = test.seal.isClosed() && !test.sealedBuilds.empty() ? test.sealedBuilds : test.builds;
    for (const auto& build : clubs)
        names << QString::fromStdString(build.name);
    return names;
}

void SaidActions::guess() {
    const auto stint = bay::stintInQuestion(m_at.test());
    const QStringList clubs = clubNames();
    if (!stint || clubs.isEmpty())
        return;
    if (m_at.run().stand().phase() == bay::Phase::done)
        return guessAtEnd(record::BuildAt());
    const bool takenUp = stint != bay::lastStint(m_at.test());
    m_at.ask().askChoice(takenUp ? tr("Which club is that, says the player?")
                                 : tr("Which club was that, says the player?"),
                         clubs, [=, this](int answer) {
                             m_at.run().step(tr("a guess"), [&](record::Test& test) {
                                 bay::setGuess(test, {stint->build, clubs[answer].toStdString(), stint->turn});
                             });
                         });
}

// Once for every tag, when all is struck.
void SaidActions::guessAtEnd(record::BuildAt build) {
    const QStringList clubs = clubNames();
    if (build >= m_at.test().builds.size())
        return;
    m_at.ask().askChoice(tr("Which club was %1?").arg(nameOf(m_at.test(), build)), clubs, [=, this](int answer) {
        m_at.run().step(tr("a guess"), [&](record::Test& test) {
            bay::setGuess(test, {build, clubs[answer].toStdString(), {}});
        });
        guessAtEnd(record::BuildAt(build + 1));
    });
}

void SaidActions::scoreFeel(std::size_t scale, int score) {
    if (const auto stint = bay::stintInQuestion(m_at.test()))
        m_at.run().step(tr("a feel"), [&](record::Test& test) {
            auto feel = bay::feelOf(test, *stint);
            feel.scores[scale] = score;
            bay::setFeel(test, feel);
        });
}

void SaidActions::wordFeel(const QString& text) {
    if (const auto stint = bay::stintInQuestion(m_at.test()))
        m_at.run().typed(tr("words about a stint"), [&](record::Test& test) {
            auto feel = bay::feelOf(test, *stint);
            feel.words = text.toStdString();
            bay::setFeel(test, feel);
        });
}

void SaidActions::compare(record::Versus versus) {
    const auto stint = bay::stintInQuestion(m_at.test());
    bool said = false;
    if (stint)
        m_at.run().step(tr("a comparison"),
                        [&](record::Test& test) { said = bay::compareToLast(test, *stint, versus); });
    if (!said)
        m_at.say(tr("There is no club before this one to compare it with."));
}

} // namespace knot::app
