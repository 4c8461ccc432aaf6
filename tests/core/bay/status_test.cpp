#include "core/bay/status.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

#include <optional>
#include <string>

using namespace knot;
using bay::Moment;
using bay::WhyNot;
using record::SetAsideRule;
using record::SetAsideWhen;
using record::ShotStatus;

namespace {

constexpr ShotStatus statuses[] = {ShotStatus::counted, ShotStatus::setAside, ShotStatus::warmUp};
constexpr Moment moments[] = {Moment::beforeNumber, Moment::afterNumber, Moment::afterReveal};

// Three shots; the middle one has the status that is asked about.
record::Test threeShots(ShotStatus middle) {
    test::TestBuilder made;
    made.turn("Alder", "1", {140, 141, 142});
    made.test.card.setAsideRule = SetAsideRule::called;
    made.test.nameShots();
    made.test.shots[1].status = middle;
    if (middle == ShotStatus::setAside) {
        made.test.shots[1].setAsideWhen = SetAsideWhen::called;
        made.test.shots[1].reason = "heel";
    }
    return made.test;
}

std::optional<WhyNot> whyNot(ShotStatus from, ShotStatus to) {
    if (from == to)
        return WhyNot::alreadyThat;
    if (from == ShotStatus::warmUp)
        return WhyNot::warmUp;
    if (to == ShotStatus::warmUp)
        return WhyNot::notByHand;
    return std::nullopt;
}

} // namespace

TEST_CASE("a status changes only where the table lets it, and a refusal changes nothing") {
    for (const auto from : statuses)
        for (const auto to : statuses)
            for (const auto moment : moments) {
                record::Test test = threeShots(from);
                const record::Test before = test;
                const auto done = bay::changeStatus(test, test.shots[1].id, to, moment, "thin");
                const auto why = whyNot(from, to);
                INFO("from " << int(from) << " to " << int(to) << " at " << int(moment));
                REQUIRE(done.has_value() == !why.has_value());
                if (why) {
                    CHECK(done.error() == *why);
                    CHECK(test == before);
                    continue;
                }
                CHECK(*done == 1);
                CHECK(test.shots[1].status == to);
                CHECK(test.shots[1].readings == before.shots[1].readings);
                CHECK(test.shots[0] == before.shots[0]);
                CHECK(test.shots[2] == before.shots[2]);
            }
}

TEST_CASE("setting aside keeps when and why; counting again clears both") {
    const std::pair<Moment, SetAsideWhen> rows[] = {{Moment::beforeNumber, SetAsideWhen::called},
                                                    {Moment::afterNumber, SetAsideWhen::afterNumber},
                                                    {Moment::afterReveal, SetAsideWhen::afterReveal}};
    for (const auto& [moment, when] : rows) {
        record::Test test = threeShots(ShotStatus::counted);
        const record::Test before = test;
        REQUIRE(bay::changeStatus(test, test.shots[1].id, ShotStatus::setAside, moment, "thin"));
        CHECK(test.shots[1].setAsideWhen == when);
        CHECK(test.shots[1].reason == "thin");
        REQUIRE(bay::changeStatus(test, test.shots[1].id, ShotStatus::counted, moment, "thin"));
        CHECK(test == before);
    }
}

TEST_CASE("under a rule by numbers a shot set aside after its number is so by that rule, any other isn't") {
    for (const auto rule : {SetAsideRule::byNumbers, SetAsideRule::bestAndWorst}) {
        for (const auto moment : moments) {
            record::Test test = threeShots(ShotStatus::counted);
            test.card.setAsideRule = rule;
            REQUIRE(bay::changeStatus(test, test.shots[1].id, ShotStatus::setAside, moment));
            CHECK((test.shots[1].setAsideWhen == SetAsideWhen::byRule) == (moment == Moment::afterNumber));
        }
    }
}

TEST_CASE("a sheet that keeps every shot keeps it, but only a test has promised that") {
    record::Test test = threeShots(ShotStatus::counted);
    test.card.setAsideRule = SetAsideRule::keepAll;
    const auto kept = bay::changeStatus(test, test.shots[1].id, ShotStatus::setAside, Moment::beforeNumber);
    REQUIRE(!kept);
    CHECK(kept.error() == WhyNot::sheetKeeps);
    test.stage = record::Stage::openSitting;
    CHECK(bay::changeStatus(test, test.shots[1].id, ShotStatus::setAside, Moment::beforeNumber));
}

TEST_CASE("a shot that is not there is not another one") {
    record::Test test = threeShots(ShotStatus::counted);
    const record::Test before = test;
    const auto missed = bay::changeStatus(test, test.nextShotId(), ShotStatus::setAside, Moment::beforeNumber);
    REQUIRE(!missed);
    CHECK(missed.error() == WhyNot::noSuchShot);
    CHECK(test == before);
}

TEST_CASE("the moment is before the number, after it, or after the reveal whatever was seen") {
    record::Test test = threeShots(ShotStatus::counted);
    CHECK(bay::momentOf(test, false) == Moment::beforeNumber);
    CHECK(bay::momentOf(test, true) == Moment::afterNumber);
    test.seal.revealedAt = "2026-05-04T10:00:00";
    CHECK(bay::momentOf(test, false) == Moment::afterReveal);
    CHECK(bay::momentOf(test, true) == Moment::afterReveal);
}
