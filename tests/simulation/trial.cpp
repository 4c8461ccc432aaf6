#include "simulation/trial.h"

#include <cmath>
#include <cstdio>
#include <cstdlib>

namespace knot::test {

record::Test Trial::strike(Random& random) const {
    record::Test test;
    for (std::size_t b = 0; b < builds; ++b)
        test.builds.push_back({std::string(1, static_cast<char>('A' + b)), {}});
    for (const auto metric : metrics) {
        test.card.primary.push_back({.metric = metric});
        test.card.margins[metric] = margin;
    }
    const int laps = oneRunEach ? 1 : rounds;
    const int length = oneRunEach ? rounds * turnLength : turnLength;
    for (int round = 0; round < laps; ++round) {
        std::vector<double> lap(metrics.size());
        for (double& l : lap)
            l = sdRound * random.normal();
        for (std::size_t place = 0; place < builds; ++place) {
            const std::size_t build = (place + static_cast<std::size_t>(round)) % builds;
            const double gap = build < gaps.size() ? gaps[build] : 0;
            const double spread = build + 1 == builds ? widest : 1;
            std::vector<double> turn(metrics.size());
            for (double& t : turn)
                t = sdTurn * random.normal();
            for (int i = 0; i < length; ++i) {
                record::Shot shot;
                shot.build = record::BuildAt(build);
                shot.round = std::to_string(round);
                shot.handedOver = i == 0;
                for (std::size_t m = 0; m < metrics.size(); ++m) {
                    const double noise =
                        tails == Tails::heavy ? random.studentT(5) / std::sqrt(5.0 / 3) : random.normal();
                    if (random.uniform() >= missing)
                        shot.readings.measure(metrics[m], 100 + gap + lap[m] + turn[m] + spread * noise);
                }
                test.shots.push_back(std::move(shot));
            }
        }
    }
    return test;
}

namespace {

double standardError(double bound, std::size_t trials) {
    return std::sqrt(bound * (1 - bound) / static_cast<double>(trials));
}

} // namespace

bool Rate::isAtMost(double bound) const {
    return share() <= bound + 4 * standardError(bound, m_trials);
}
bool Rate::isAtLeast(double bound) const {
    return share() >= bound - 4 * standardError(bound, m_trials);
}

std::string Rate::percent() const {
    char text[32];
    std::snprintf(text, sizeof text, "%.1f", 100 * share());
    return text;
}

int repetitions(int fast) {
    const char* wanted = std::getenv("KNOT_LONG");
    return wanted != nullptr && *wanted == '1' ? 10 * fast : fast;
}

void printRow(const std::string& row) {
    std::printf("| %s |\n", row.c_str());
}

bool claimsDifference(judge::Verdict verdict) {
    return verdict == judge::Verdict::real || verdict == judge::Verdict::slight ||
           verdict == judge::Verdict::realSizeOpen;
}

} // namespace knot::test
