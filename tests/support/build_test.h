#pragma once

#include "core/record/test.h"

#include <string>
#include <vector>

namespace knot::test {

/// Makes small tests for tables: shots of one metric with one build after another.
class TestBuilder {
public:
    explicit TestBuilder(record::Metric metric = record::Metric::carry)
        : m_metric(metric) {}

    /// A turn of shots in a round ("" for none). The club counts as handed over before it.
    TestBuilder& turn(const std::string& build, const std::string& round, const std::vector<double>& values);
    /// One shot that continues the turn in hand.
    TestBuilder& shot(const std::string& build, record::ShotStatus status, std::optional<double> value);

    record::Test test;

private:
    record::Metric m_metric;
};

} // namespace knot::test
