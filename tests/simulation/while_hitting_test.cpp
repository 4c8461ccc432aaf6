// How often the bay thinks that somebody else hits, where nobody else does.
#include "core/words/while_hitting.h"
#include "simulation/trial.h"

#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Rate;
using record::Metric;

namespace {

// One player warming to the work: shots scatter, one in eight is badly struck, and each stint has its own level.
struct Sitting {
    record::Test test;
    double level = 38;

    explicit Sitting(Random& random) {
        test.builds = {{.name = "Own"}, {.name = "Other"}};
        test.players = {{.name = "Kaia"}};
        level += 6 * random.normal();
    }
    /// Whether it speaks up at this shot.
    bool strike(std::size_t build, double clubSpeed, Random& random, bool hasClubSpeed) {
        record::Shot shot;
        shot.build = record::BuildAt(build);
        shot.id = record::ShotId{static_cast<std::int64_t>(test.shots.size()) + 1};
        const double loss = random.uniform() < 0.125 ? 8 * random.uniform() : 0;
        if (hasClubSpeed)
            shot.readings.measure(Metric::clubSpeed, clubSpeed);
        shot.readings.measure(Metric::ballSpeed, 1.36 * clubSpeed + 0.5 * random.normal() - loss);
        test.shots.push_back(shot);
        return !words::somebodyElse(test, {}).empty();
    }
};

} // namespace

TEST_CASE("one player is seldom taken for two, and a much faster one is noticed at the second shot") {
    Random random(11);
    for (const bool hasClubSpeed : {true, false}) {
        Rate alarms;
        Rate noticed;
        for (int i = 0; i < 1000; ++i) {
            Sitting sitting(random);
            bool isAlarm = false;
            double stint = 0;
            for (int shot = 0; shot < 40; ++shot) {
                if (shot % 5 == 0)
                    stint = 0.4 * random.normal();
                isAlarm = sitting.strike(static_cast<std::size_t>(shot / 5 % 2),
                                         sitting.level + stint + 0.7 * random.normal(), random, hasClubSpeed) ||
                          isAlarm;
            }
            alarms.count(isAlarm);
            sitting.strike(1, sitting.level + 9 + 0.7 * random.normal(), random, hasClubSpeed);
            noticed.count(sitting.strike(1, sitting.level + 9 + 0.7 * random.normal(), random, hasClubSpeed));
        }
        INFO(alarms.percent() << " alarms, " << noticed.percent() << " noticed, club speed read: " << hasClubSpeed);
        CHECK(alarms.isAtMost(0.005));
        CHECK(noticed.isAtLeast(hasClubSpeed ? 0.95 : 0.5));
    }
}
