// Moments as texts, and shots through hours that a clock has twice or not at all.
#include "core/bay/strike.h"
#include "core/record/text/moment.h"

#include <catch2/catch.hpp>

#include <string>

using namespace knot;
using namespace knot::bay;

TEST_CASE("moments are read from ISO texts and nothing else") {
    CHECK(record::Moment("1970-01-02T00:00:01.5").seconds() == 86401.5);
    CHECK(*record::Moment("2026-03-01T00:00:00").seconds() - *record::Moment("2026-02-28T23:59:59").seconds() == 1);
    for (const char* text :
         {"", "2026-05-02", "2026-13-02T00:00:00", "2026-02-30T00:00:00", "2026-05-02T25:00:00", "2026-05-02T09:00:xx",
          "2026-05-02 09:00:00", "2026-05-02T09:00:-1", "2026-05-02T09:00:00 Z"})
        CHECK(!record::Moment(text).seconds());
}

TEST_CASE("moments are compared as instants, whatever the clock on the wall says") {
    using record::isEarlier;
    using record::secondsBetween;
    CHECK(*secondsBetween("2026-11-01T01:59:30-04:00", "2026-11-01T01:00:30-05:00") == 60);
    CHECK(isEarlier("2026-11-01T01:59:30-04:00", "2026-11-01T01:00:30-05:00"));
    CHECK(!isEarlier("2026-11-01T01:00:30-05:00", "2026-11-01T01:59:30-04:00"));
    CHECK(*secondsBetween("2026-03-08T01:59:30-05:00", "2026-03-08T03:00:30-04:00") == 60);
    CHECK(*secondsBetween("2026-05-02T09:00:00Z", "2026-05-02T11:00:01.500+02:00") == 1.5);
    // What an earlier version wrote has no offset: it is taken to have the other's.
    CHECK(*secondsBetween("2026-05-02T09:00:00", "2026-05-02T09:00:10+02:00") == 10);
    CHECK(*secondsBetween("2026-05-02T09:00:00-07:00", "2026-05-02T09:00:10") == 10);
    for (const char* none : {"", "2026-05-02", "2026-05-02T09:00:00+2", "2026-05-02T09:00:00+25:00",
                             "2026-13-02T09:00:00", "2026-05-02T09:00:00 CET"}) {
        CHECK(!secondsBetween(none, "2026-05-02T09:00:00Z"));
        CHECK(!isEarlier("2026-05-02T09:00:00Z", none));
    }
    CHECK(record::Moment("2026-05-02T09:00:59.1+02:00").shown() == "2026-05-02 09:00");
    CHECK(record::Moment("some day").shown() == "some day");
}

TEST_CASE("through the hour after the clocks go back, and the one they leave out, shots stay in their order") {
    const char* const autumn[] = {"2026-11-01T01:30:00.000-04:00", "2026-11-01T01:45:00.000-04:00",
                                  "2026-11-01T01:59:00.000-04:00", "2026-11-01T01:05:00.000-05:00",
                                  "2026-11-01T01:20:00.000-05:00", "2026-11-01T01:50:00.000-05:00"};
    const char* const spring[] = {"2026-03-08T01:30:00.000-05:00", "2026-03-08T01:45:00.000-05:00",
                                  "2026-03-08T01:59:00.000-05:00", "2026-03-08T03:05:00.000-04:00",
                                  "2026-03-08T03:20:00.000-04:00", "2026-03-08T03:50:00.000-04:00"};
    for (const auto& times : {autumn, spring}) {
        record::Test test;
        test.builds = {{.name = "own club"}};
        test.stage = record::Stage::openSitting;
        test.plan.warmUp = 0;
        for (int i = 0; i < 6; ++i) {
            Arrival shot{.at = times[i], .readId = "link:" + std::to_string(i), .reason = {}};
            shot.readings.measure(record::Metric::carry, 150 + i);
            CHECK(!isAnotherVisit(test, times[i]));
            addShot(test, shot);
        }
        for (int i = 0; i < 6; ++i)
            CHECK(test.shots[static_cast<std::size_t>(i)].readings.at(record::Metric::carry) == 150 + i);
    }
}

TEST_CASE("a shot that came without a time of its own is never moved") {
    record::Test test;
    test.builds = {{.name = "own club"}};
    test.stage = record::Stage::openSitting;
    auto swing = [&](const char* at, bool timed, double carry) {
        Arrival shot{.at = at, .readId = {}, .reason = {}, .timed = timed};
        shot.readings.measure(record::Metric::carry, carry);
        addShot(test, shot);
    };
    swing("2026-05-02T09:10:00Z", true, 150);
    swing("2026-05-02T09:00:00Z", false, 151); // a clock that was set back
    CHECK(test.shots[1].readings.at(record::Metric::carry) == 151);
    swing("2026-05-02T09:09:00Z", true, 149); // late, with its own time
    CHECK(test.shots.front().readings.at(record::Metric::carry) == 150);
    CHECK(test.shots.back().readings.at(record::Metric::carry) == 149);
}
