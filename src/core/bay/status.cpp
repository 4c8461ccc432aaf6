#include "core/bay/status.h"

#include <array>
#include <optional>

namespace knot::bay {
namespace {

using record::SetAsideWhen;
using record::ShotStatus;

// What a step gives: how the shot is marked as set aside, or why it is not taken.
struct Step {
    std::optional<SetAsideWhen> when;
    std::optional<WhyNot> whyNot;
};

constexpr Step refused(WhyNot why) {
    return {std::nullopt, why};
}
constexpr Step as(SetAsideWhen when) {
    return {when, std::nullopt};
}

constexpr Step counts = as(SetAsideWhen::unknown);
constexpr Step same = refused(WhyNot::alreadyThat);
constexpr Step warm = refused(WhyNot::warmUp);
constexpr Step never = refused(WhyNot::notByHand);

// From × to × moment, each in the order of its enumeration.
using Moments = std::array<Step, 3>;
constexpr std::array<std::array<Moments, 3>, 3> steps{{
    // from counted: to counted, set aside, warm-up
    {{{same, same, same},
      {as(SetAsideWhen::called), as(SetAsideWhen::afterNumber), as(SetAsideWhen::afterReveal)},
      {never, never, never}}},
    // from set aside
    {{{counts, counts, counts}, {same, same, same}, {never, never, never}}},
    // from warm-up
    {{{warm, warm, warm}, {warm, warm, warm}, {same, same, same}}},
}};

} // namespace

Moment momentOf(const record::Test& test, bool numberSeen) {
    if (!test.seal.revealedAt.empty())
        return Moment::afterReveal;
    return numberSeen ? Moment::afterNumber : Moment::beforeNumber;
}

tl::expected<From, WhyNot> changeStatus(record::Test& test, record::ShotId id, ShotStatus to, Moment moment,
                                        const std::string& reason) {
    const auto at = test.shotIndex(id);
    if (!at)
        return tl::unexpected(WhyNot::noSuchShot);
    record::Shot& shot = test.shots[*at];
    const Step& step =
        steps[static_cast<std::size_t>(shot.status)][static_cast<std::size_t>(to)][static_cast<std::size_t>(moment)];
    if (step.whyNot)
        return tl::unexpected(*step.whyNot);
    const bool keepsAll = test.stage == record::Stage::test && test.card.setAsideRule == record::SetAsideRule::keepAll;
    if (to == ShotStatus::setAside && keepsAll)
        return tl::unexpected(WhyNot::sheetKeeps);
    shot.status = to;
    const bool byRule = *step.when == SetAsideWhen::afterNumber && test.card.setsAsideByNumbers();
    shot.setAsideWhen = byRule ? SetAsideWhen::byRule : *step.when;
    shot.reason = to == ShotStatus::setAside ? reason : std::string();
    return *at;
}

tl::expected<From, WhyNot> callShot(record::Test& test, record::ShotId id, record::Call call, Moment moment,
                                    const std::string& words) {
    const auto at = test.shotIndex(id);
    if (!at)
        return tl::unexpected(WhyNot::noSuchShot);
    record::Shot& shot = test.shots[*at];
    if (shot.status == ShotStatus::warmUp)
        return tl::unexpected(WhyNot::warmUp);
    if (moment != Moment::beforeNumber)
        return tl::unexpected(WhyNot::seen);
    if (shot.call == call && (words.empty() || shot.note == words))
        return tl::unexpected(WhyNot::alreadyThat);
    shot.call = call;
    if (!words.empty())
        shot.note = words;
    return *at;
}

} // namespace knot::bay
