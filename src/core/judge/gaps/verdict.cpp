#include "core/judge/gaps/verdict.h"

#include "core/judge/gaps/families.h"
#include "core/statistics/distributions.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {

using namespace statistics;

void fillPs(Claim& claim, const Effect& effect, double margin) {
    const double size = std::fabs(effect.value);
    claim.p = studentTwoSided(effect.value / effect.se, effect.df);
    claim.pWorthwhile = studentUpper((size - margin) / effect.se, effect.df);
    claim.pSame = studentUpper((margin - size) / effect.se, effect.df);
}

Interval intervalOf(const Effect& effect, double level) {
    const double reach = studentQuantile(0.5 + level / 2, effect.df) * effect.se;
    return {effect.value - reach, effect.value + reach, level};
}

Interval exponentiated(const Interval& logs) {
    return {std::exp(logs.low), std::exp(logs.high), logs.level};
}

bool isUnfair(const Claim& claim) {
    return claim.cap == Cap::oneTurnEach || claim.cap == Cap::separatedTurns || claim.cap == Cap::onePerPlayer ||
           claim.cap == Cap::onePerDelivery;
}

namespace {

using Adjust = std::vector<double> (*)(const std::vector<double>&);
using RawP = std::optional<double> Claim::*;

void adjust(const std::vector<Claim*>& family, Adjust method, std::size_t size, RawP raw, RawP adjusted) {
    std::vector<double> p;
    p.reserve(std::max(size, family.size()));
    for (const Claim* claim : family)
        p.push_back((claim->*raw).value_or(1));
    p.resize(std::max(size, p.size()), 1.0);
    const auto result = method(p);
    for (std::size_t i = 0; i < family.size(); ++i)
        if (family[i]->*raw)
            family[i]->*adjusted = result[i];
}

void adjustAll(const std::vector<Claim*>& family, Adjust method, std::size_t size) {
    adjust(family, method, size, &Claim::p, &Claim::pAdjusted);
    adjust(family, method, size, &Claim::pWorthwhile, &Claim::pWorthwhileAdjusted);
    adjust(family, method, size, &Claim::pSame, &Claim::pSameAdjusted);
}

void keepRaw(Claim& claim) {
    claim.pAdjusted = claim.p;
    claim.pWorthwhileAdjusted = claim.pWorthwhile;
    claim.pSameAdjusted = claim.pSame;
}

Verdict fromPs(const Claim& claim, double alpha) {
    if (!claim.pAdjusted)
        return Verdict::open;
    const bool differs = *claim.pAdjusted < alpha;
    if (*claim.pWorthwhileAdjusted < alpha / 2)
        return Verdict::real;
    if (*claim.pSameAdjusted < alpha)
        return differs ? Verdict::slight : Verdict::same;
    return differs ? Verdict::realSizeOpen : Verdict::open;
}

} // namespace

void adjustFamilies(const std::vector<Claim*>& primary, const std::vector<Claim*>& exploratory, std::size_t declared) {
    std::vector<Claim*> fair;
    std::vector<Claim*> found;
    for (Claim* claim : primary)
        isUnfair(*claim) ? keepRaw(*claim) : fair.push_back(claim);
    for (Claim* claim : exploratory)
        isUnfair(*claim) || claim->role == Role::explanation ? keepRaw(*claim) : found.push_back(claim);
    const std::size_t unfair = primary.size() - fair.size();
    adjustAll(fair, holm, declared > unfair ? declared - unfair : 0);
    adjustAll(found, benjaminiHochberg, 0);
}

void decide(Claim& claim, double alpha) {
    claim.verdict = fromPs(claim, alpha);
    if (claim.cap == Cap::tooFewShots || claim.cap == Cap::beforeFirstLook || claim.cap == Cap::markBetween)
        claim.verdict = Verdict::open;
    if ((isUnfair(claim) || claim.cap == Cap::leadOnly) && claim.verdict != Verdict::open)
        claim.verdict = claim.verdict == Verdict::same ? Verdict::open : Verdict::uncontrolled;
}

void settle(Claim& claim, bool leadsOnly, double level) {
    if (leadsOnly)
        claim.cap = claim.cap.value_or(Cap::leadOnly);
    else if (!(level > 0))
        claim.cap = claim.cap.value_or(Cap::beforeFirstLook);
    decide(claim, level);
}

double levelShown(const Claim& claim, double alpha) {
    if (!(alpha > 0))
        return 0.95;
    const bool narrow = claim.verdict == Verdict::same || claim.verdict == Verdict::slight;
    return narrow ? 1 - 2 * alpha : 1 - alpha;
}

Favours direction(const DirectionInput& input) {
    const auto better = [](bool yes) { return yes ? Favours::better : Favours::worse; };
    switch (input.want.kind) {
    case record::Want::Kind::none:
        return Favours::different;
    case record::Want::Kind::more:
        return better(input.gap > 0);
    case record::Want::Kind::less:
        return better(input.gap < 0);
    case record::Want::Kind::near:
        break;
    }
    const double target = input.want.value;
    if (!input.intervalBuild || !input.intervalAgainst || input.intervalBuild->contains(target) ||
        input.intervalAgainst->contains(target))
        return Favours::different;
    const double distance = std::fabs(input.meanBuild - target) - std::fabs(input.meanAgainst - target);
    const bool sameSide = (input.meanBuild > target) == (input.meanAgainst > target);
    return sameSide ? better(distance < 0) : Favours::different;
}

} // namespace knot::judge
