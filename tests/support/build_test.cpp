#include "support/build_test.h"

namespace knot::test {
namespace {

std::size_t indexOf(record::Test& test, const std::string& build) {
    if (const auto at = test.buildIndex(build))
        return *at;
    test.builds.push_back({build, {}});
    return test.builds.size() - 1;
}

} // namespace

TestBuilder& TestBuilder::turn(const std::string& build, const std::string& round, const std::vector<double>& values) {
    bool first = true;
    for (const double value : values) {
        record::Shot shot;
        shot.build = record::BuildAt(indexOf(test, build));
        shot.round = round;
        shot.handedOver = first;
        shot.readings.measure(m_metric, value);
        test.shots.push_back(shot);
        first = false;
    }
    return *this;
}

TestBuilder& TestBuilder::shot(const std::string& build, record::ShotStatus status, std::optional<double> value) {
    record::Shot shot;
    shot.build = record::BuildAt(indexOf(test, build));
    shot.status = status;
    shot.round = test.shots.empty() ? "" : test.shots.back().round;
    if (value)
        shot.readings.measure(m_metric, *value);
    test.shots.push_back(shot);
    return *this;
}

} // namespace knot::test
