#include "app/bay_page/number_actions.h"

#include "app/bay_page/bay_actions.h"
#include "app/bay_page/bay_words.h"
#include "app/form/ask_bar.h"
#include "app/session/book.h"
#include "core/bay/said.h"
#include "core/rack/club_kind.h"
#include "core/record/text/number_text.h"
#include "core/words/golfers_words.h"
#include "core/words/tried.h"
#include "core/words/while_hitting.h"

namespace knot::app {

NumberActions::NumberActions(BayActions& actions)
    : QObject(&actions)
    , m_at(actions) {}

namespace {

const char* const numbersOfKind = "numbers/";

std::vector<record::Metric> chosenNumbers(const QString& setting) {
    return words::numbersIn(setting.toStdString()).value_or(std::vector<record::Metric>());
}

} // namespace

QString NumberActions::setting() const {
    return QLatin1String(numbersOfKind) +
           QString::fromStdString(std::string(rack::kindName(rack::ClubKinds(m_at.test()).first())));
}

const std::vector<record::Metric>& NumberActions::shown() const {
    const record::Test& test = m_at.test();
    if (m_shown && m_shown->shots == test.shots.size() && m_shown->test == test.id && m_shown->card == test.card)
        return m_shown->metrics;
    m_shown = Shown{.shots = test.shots.size(), .test = test.id, .card = test.card, .metrics = {}};
    m_shown->metrics = test.stage == record::Stage::test
                           ? firstMetrics(test.card)
                           : words::numbersFor(test, chosenNumbers(m_at.book().setting(setting().toUtf8())));
    if (m_shown->metrics.empty())
        m_shown->metrics = firstMetrics(test.card);
    return m_shown->metrics;
}

void NumberActions::choose() {
    if (m_at.test().stage == record::Stage::test)
        return m_at.say(tr("A planned test shows what it is judged by."));
    QStringList now;
    for (const record::Metric metric : shown())
        now << QString::fromStdString(record::info(metric).label);
    m_at.ask().askLine(tr("Which numbers, up to four? They stand for this kind of club from now on."),
                       now.join(QStringLiteral(", ")), {}, [this](const QString& typed) {
                           const auto numbers = words::numbersIn(typed.toStdString());
                           if (!numbers)
                               return m_at.say(QString::fromStdString(numbers.error()));
                           m_at.book().setSetting(setting().toUtf8(), typed);
                           m_shown.reset();
                           emit m_at.changed();
                       });
}

void NumberActions::explain() {
    const record::Test& test = m_at.test();
    const auto at = test.shotIndex(m_at.situation().last.shot);
    if (!at || !bay::isRead(test.shots[*at]))
        return m_at.say(tr("No shot was read yet."));
    if (!maySeeShots(test, Eyes::fitter) || !maySeeAverages(test, Eyes::fitter) ||
        bay::isUnnamed(test, test.shots[*at]))
        return m_at.say(tr("Its numbers stay hidden until the plan is done."));
    m_at.say(QString::fromStdString(words::shotExplained(test, *at, m_at.book().units())));
}

void NumberActions::sayWhatWasExpected(const record::Test& before) {
    const auto stint = bay::lastStint(before);
    if (!stint || !maySeeAverages(before, Eyes::fitter))
        return;
    const std::string seen = words::expectedSeen(before, bay::feelOf(before, *stint), m_at.book().units());
    if (!seen.empty())
        m_at.say(nameOf(before, stint->build) + tr(": ") + QString::fromStdString(seen) + tr("."));
}

} // namespace knot::app
