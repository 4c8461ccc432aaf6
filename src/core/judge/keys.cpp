#include "core/judge/reading.h"

namespace knot::judge {

const char* key(Verdict verdict) {
    switch (verdict) {
    case Verdict::real:
        return "real";
    case Verdict::slight:
        return "slight";
    case Verdict::same:
        return "same";
    case Verdict::realSizeOpen:
        return "real_size_open";
    case Verdict::open:
        return "open";
    case Verdict::uncontrolled:
        return "uncontrolled";
    }
    return "";
}

const char* key(Favours favours) {
    switch (favours) {
    case Favours::better:
        return "better";
    case Favours::worse:
        return "worse";
    case Favours::different:
        return "different";
    }
    return "";
}

const char* key(Role role) {
    switch (role) {
    case Role::primary:
        return "primary";
    case Role::exploratory:
        return "exploratory";
    case Role::explanation:
        return "explanation";
    }
    return "";
}

const char* key(PooledOver over) {
    switch (over) {
    case PooledOver::sittings:
        return "sittings";
    case PooledOver::players:
        return "players";
    case PooledOver::deliveries:
        return "deliveries";
    case PooledOver::parts:
        return "parts";
    case PooledOver::tests:
        return "tests";
    }
    return "";
}

const char* key(Cap cap) {
    switch (cap) {
    case Cap::oneTurnEach:
        return "one_turn_each";
    case Cap::separatedTurns:
        return "separated_turns";
    case Cap::tooFewShots:
        return "too_few_shots";
    case Cap::tooFewRounds:
        return "too_few_rounds";
    case Cap::noVariation:
        return "no_variation";
    case Cap::markBetween:
        return "mark_between";
    case Cap::beforeFirstLook:
        return "before_first_look";
    case Cap::onePerPlayer:
        return "one_per_player";
    case Cap::onePerDelivery:
        return "one_per_delivery";
    case Cap::leadOnly:
        return "lead_only";
    }
    return "";
}

const char* key(GapMethod method) {
    switch (method) {
    case GapMethod::welch:
        return "welch";
    case GapMethod::rounds:
        return "rounds";
    case GapMethod::line:
        return "line";
    case GapMethod::equal:
        return "equal";
    case GapMethod::typical:
        return "typical";
    }
    return "";
}

const char* key(Severity severity) {
    switch (severity) {
    case Severity::note:
        return "note";
    case Severity::caution:
        return "caution";
    case Severity::fault:
        return "fault";
    }
    return "";
}

const char* key(ModelMethod method) {
    switch (method) {
    case ModelMethod::mixed:
        return "mixed";
    case ModelMethod::blocks:
        return "blocks";
    case ModelMethod::turns:
        return "turns";
    case ModelMethod::slopes:
        return "slopes";
    }
    return "";
}

const char* key(AgainstTarget verdict) {
    switch (verdict) {
    case AgainstTarget::inside:
        return "inside";
    case AgainstTarget::below:
        return "below";
    case AgainstTarget::above:
        return "above";
    case AgainstTarget::open:
        return "open";
    }
    return "";
}

const char* key(Expected::Found found) {
    switch (found) {
    case Expected::Found::asExpected:
        return "as_expected";
    case Expected::Found::otherWay:
        return "other_way";
    case Expected::Found::nothingThatMatters:
        return "nothing_that_matters";
    case Expected::Found::notSettled:
        return "not_settled";
    }
    return "";
}

} // namespace knot::judge
