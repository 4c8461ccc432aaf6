#include "app/bay_page/keys/command_due.h"

#include "app/bay_page/bay_words.h"
#include "core/plan/strike_off.h"

namespace knot::app {

using bay::Phase;

const std::vector<record::BuildAt>* inBag(const Situation& now) {
    const auto* unnamed = now.stand.as<bay::NameTag>();
    return unnamed != nullptr ? &unnamed->stint.inBag : nullptr;
}

bool isStruck(const Situation& now) {
    return now.stand.phase() == Phase::free || now.stand.phase() == Phase::striking;
}

bool isWarmingUp(const Situation& now) {
    const auto* free = now.stand.as<bay::Free>();
    return now.stand.phase() == Phase::warmUp || (free != nullptr && free->warmingUp);
}

bool unconfirmed(const Situation& now) {
    const auto* striking = now.stand.as<bay::Striking>();
    return striking != nullptr && !striking->confirmed;
}

Due whileStruck(const Situation& now) {
    return isStruck(now) ? Due::shown : Due::no;
}

Due unlessNewVisit(const Situation& now) {
    if (now.stand.phase() == Phase::noPlan)
        return Due::no;
    return now.anotherVisit ? Due::works : Due::shown;
}

Due aboutStint(const Situation& now) {
    return now.stand.phase() == Phase::noPlan || isWarmingUp(now) ? Due::no : Due::shown;
}

QString nextTitle(const Situation& now) {
    const auto& stand = now.stand;
    if (now.anotherVisit)
        return BayWords::tr("begin a sitting");
    if (const auto* due = stand.as<bay::HandOver>(); due != nullptr && due->stint.anotherPlayer)
        return BayWords::tr("%1 hits").arg(QString::fromStdString(now.test.players[due->stint.player].name));
    if (const auto* due = stand.as<bay::HandOver>())
        return due->stint.drawn ? BayWords::tr("drawn")
                                : BayWords::tr("%1 is in hand").arg(nameOf(now.test, due->stint.build));
    if (const auto* striking = stand.as<bay::Striking>())
        return BayWords::tr("yes, %1").arg(striking->stint.drawn ? BayWords::tr("the club")
                                                                 : nameOf(now.test, striking->stint.build));
    if (isWarmingUp(now))
        return BayWords::tr("warm enough");
    switch (stand.phase()) {
    case Phase::done:
        return plan::cutDue(now.test) ? BayWords::tr("who stays") : BayWords::tr("read it");
    default:
        return BayWords::tr("new stint");
    }
}

QString nextHint(const Situation& now) {
    if (now.anotherVisit)
        return BayWords::tr("with its own warm-up");
    switch (now.stand.phase()) {
    case Phase::warmUp:
        return BayWords::tr("the first club comes next");
    case Phase::done:
        return plan::cutDue(now.test) ? BayWords::tr("the others are struck off") : BayWords::tr("what the shots say");
    case Phase::free:
        return isWarmingUp(now) ? BayWords::tr("shots count from here on") : BayWords::tr("same club, taken up anew");
    default:
        return {};
    }
}

Due nextDue(const Situation& now) {
    const auto& stand = now.stand;
    if (now.anotherVisit)
        return Due::next;
    switch (stand.phase()) {
    case Phase::warmUp:
        return stand.warmUp >= stand.warmUpPlanned ? Due::next : Due::shown;
    case Phase::free:
        return isWarmingUp(now) ? Due::next : Due::shown;
    case Phase::handOver:
    case Phase::done:
        return Due::next;
    case Phase::striking:
        return unconfirmed(now) ? Due::next : Due::works;
    default:
        return Due::no;
    }
}

Due callDue(const Situation& now) {
    const record::Shot* last = now.last.in(now.test);
    if (isWarmingUp(now))
        return Due::no;
    switch (now.stand.phase()) {
    case Phase::free:
    case Phase::striking:
        return Due::shown;
    case Phase::handOver:
        return last != nullptr && !now.anotherVisit ? Due::shown : Due::no;
    case Phase::done:
    case Phase::nameTag:
        return last != nullptr ? Due::works : Due::no;
    default:
        return Due::no;
    }
}

Due unlessWarmingUp(const Situation& now) {
    return now.stand.phase() == Phase::noPlan || isWarmingUp(now) ? Due::no : Due::works;
}

} // namespace knot::app
