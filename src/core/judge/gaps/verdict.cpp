#include "core/judge/gaps/verdict.h"

#include "core/judge/gaps/families.h"
#include "core/statistics/distributions.h"

#include <algorithm>
#include <cmath>
#include <functional>

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
           claim.cap == Cap::onePerDelivery || claim.cap == Cap::sameOrder;
}

namespace {

using Adjust = std::function<std::vector<double>(const std::vector<double>&)>;
using RawP = std::optional<double> Claim::*;

void adjust(const std::vector<Claim*>& family, const Adjust& method, std::size_t size, RawP raw, RawP adjusted) {
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

void adjustSizes(const std::vector<Claim*>& family, const Adjust& method, std::size_t size) {
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

void adjustFamilies(const std::vector<Claim*>& primary, const std::vector<Claim*>& exploratory, std::size_t declared,
                    std::size_t allPairsOf) {
    std::vector<Claim*> fair;
    std::vector<Claim*> found;
    for (Claim* claim : primary)
        isUnfair(*claim) ? keepRaw(*claim) : fair.push_back(claim);
    for (Claim* claim : exploratory)
        isUnfair(*claim) || claim->role == Role::explanation ? keepRaw(*claim) : found.push_back(claim);
    const std::size_t unfair = primary.size() - fair.size();
    const std::size_t size = declared > unfair ? declared - unfair : 0;
    // That two of three gaps are not 0 says something of the third; that they matter, or don't, does not.
    const bool areAllPairs = unfair == 0 && declared == fair.size() && declared == allPairsOf * (allPairsOf - 1) / 2;
    const Adjust differs = [&](const std::vector<double>& p) { return areAllPairs ? shaffer(p, allPairsOf) : holm(p); };
    adjust(fair, differs, size, &Claim::p, &Claim::pAdjusted);
    adjustSizes(fair, holm, size);
    adjust(found, benjaminiHochberg, 0, &Claim::p, &Claim::pAdjusted);
    adjustSizes(found, benjaminiHochberg, 0);
}

void decide(Claim& claim, double alpha) {
    claim.verdict = fromPs(claim, alpha);
    if (claim.cap == Cap::tooFewShots || claim.cap == Cap::beforeFirstLook || claim.cap == Cap::markBetween)
        claim.verdict = Verdict::open;
    const bool isSeen = isUnfair(claim) || claim.cap == Cap::leadOnly || claim.cap == Cap::partOfAll;
    if (isSeen && claim.verdict != Verdict::open)
        claim.verdict = claim.verdict == Verdict::same ? Verdict::open : Verdict::uncontrolled;
}

void settle(Claim& claim, std::optional<Cap> held, double level) {
    if (held)
        claim.cap = claim.cap.value_or(*held);
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

Favours direction(double gap, const record::Want& want) {
    const bool isOneWay = want.kind == record::Want::Kind::more || want.kind == record::Want::Kind::less;
    if (!isOneWay)
        return Favours::different;
    return (gap > 0) == (want.kind == record::Want::Kind::more) ? Favours::better : Favours::worse;
}

} // namespace knot::judge
