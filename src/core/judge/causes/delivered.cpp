#include "core/judge/causes/delivered.h"

#include "core/flight/flight.h"
#include "core/flight/impact.h"
#include "core/rack/club_kind.h"
#include "core/rack/figures.h"

namespace knot::judge {
namespace {

std::optional<double> meanOver(const record::Test& test, const std::vector<record::ShotAt>& shots, Metric metric) {
    double sum = 0;
    double n = 0;
    for (const record::ShotAt shot : shots)
        if (const auto value = test.shots[shot].readings.at(metric)) {
            sum += *value;
            ++n;
        }
    return n > 0 ? std::optional(sum / n) : std::nullopt;
}

// The model's change is laid on what was measured: its level need not be right for that.
std::optional<Delivered::Change> withLoft(const Delivered& as, flight::HeadKind kind, double more) {
    if (!as.clubSpeed || !as.dynamicLoft || !as.ballSpeed || !as.launch || !as.spin)
        return std::nullopt;
    const flight::Head head = flight::usualHead(kind);
    flight::Delivery delivery{
        .clubSpeed = *as.clubSpeed, .dynamicLoft = *as.dynamicLoft, .attack = as.attack.value_or(0)};
    const auto before = flight::launchOf(delivery, head);
    delivery.dynamicLoft += more;
    const auto after = flight::launchOf(delivery, head);
    flight::Launch launch{.ballSpeed = *as.ballSpeed, .launch = *as.launch, .spin = *as.spin};
    const auto flown = flight::fly(launch);
    launch.ballSpeed += after.ballSpeed - before.ballSpeed;
    launch.launch += after.launch - before.launch;
    launch.spin += after.spin - before.spin;
    const auto higher = flight::fly(launch);
    return Delivered::Change{.launch = after.launch - before.launch,
                             .spin = after.spin - before.spin,
                             .carry = higher.carry - flown.carry,
                             .apex = higher.apex - flown.apex,
                             .descent = higher.descent - flown.descent};
}

} // namespace

std::vector<Delivered> deliveredBy(const record::Test& test, const record::Structure& structure) {
    std::vector<Delivered> all;
    const rack::ClubKinds kinds(test);
    for (BuildAt b; b < test.builds.size(); ++b)
        for (std::size_t d = 0; d < structure.deliveries.size(); ++d) {
            std::vector<record::ShotAt> shots;
            for (const record::Turn& turn : structure.turns)
                if (turn.build == b && turn.delivery == d)
                    for (const record::ShotAt shot : turn.shots)
                        if (isTaken(test.shots[shot], Taken::counted))
                            shots.push_back(shot);
            auto mean = [&](Metric metric) { return meanOver(test, shots, metric); };
            Delivered one{.build = b,
                          .delivery = structure.deliveries[d],
                          .shots = shots.size(),
                          .staticLoft = rack::figuresOf(test.builds[b].club).loft,
                          .dynamicLoft = mean(Metric::dynamicLoft),
                          .attack = mean(Metric::attack),
                          .spinLoft = mean(Metric::spinLoft),
                          .clubSpeed = mean(Metric::clubSpeed),
                          .ballSpeed = mean(Metric::ballSpeed),
                          .launch = mean(Metric::launch),
                          .spin = mean(Metric::spin),
                          .carry = mean(Metric::carry),
                          .twoMore = {}};
            if (!one.dynamicLoft && !one.attack)
                continue;
            one.twoMore = withLoft(one, kinds.head(b), 2);
            all.push_back(std::move(one));
        }
    return all;
}

} // namespace knot::judge
