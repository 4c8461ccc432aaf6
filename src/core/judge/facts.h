#pragma once

#include "core/judge/reading.h"

// All facts of a reading, in the order in which files have them. `to` is asked for to(name, value, unit),
// to.object(name, row), to.list(name, rows) and to.byMetric(name, rows): each calls back with what takes the rows.
namespace knot::judge {

/// What was declared, and how far the record came.
template<class To> void tellDeclared(To& to, const Reading& of) {
    to("baseline", of.builds.empty() ? std::string() : of.builds[of.baseline].name);
    to("alpha", of.card.alpha);
    to("level", of.level);
    to("looks", std::string(record::nameOf(record::looksNames, of.card.looks)));
    to.object("rounds", [&](auto& row) {
        row("done", of.roundsDone);
        row("planned", of.card.plannedRounds);
        row("beyond_plan", of.roundsBeyond);
    });
    to("primary", of.card.primary);
    to.object("margins", [&](auto& row) {
        for (const Metric metric : of.metrics)
            row(record::info(metric).key.c_str(), of.card.margin(metric), ofMetric);
    });
    to("sd_ratio_margin", of.card.sdRatioMargin);
    to("area_ratio_margin", of.card.areaRatioMargin);
    to("builds", of.builds);
    to("club_kind", of.kind);
}

template<class To> void tellGaps(To& to, const Reading& of) {
    to("summary", of.summary);
    to("average", of.average);
    to.list("consistency", [&](auto&& add) {
        for (const SpreadRatio& ratio : of.consistency) {
            if (ratio.sds)
                add([&](auto& row) { tellSds(row, ratio); });
            add(ratio);
        }
    });
    to.object("dispersion", [&](auto& row) {
        row("builds", of.landing);
        row("pairs", of.areas);
    });
}

/// Second opinions: of all builds, or of each pair.
template<class To> void tellOpinions(To& to, const Reading& of) {
    to.byMetric("brown_forsythe", [&](auto&& add) {
        for (const BrownForsythe& one : of.brownForsythe)
            add(one.metric, one, BuildAt(), BuildAt());
    });
    to.byMetric("yuen", [&](auto&& add) {
        for (const AverageGap& row : of.average)
            if (const auto* opinion = std::get_if<YuenTest>(&row.opinion))
                add(row.metric, *opinion, row.build, row.against);
    });
    to.byMetric("median_gap", [&](auto&& add) {
        for (const AverageGap& row : of.average)
            if (const auto* opinion = std::get_if<MedianGap>(&row.opinion))
                add(row.metric, *opinion, row.build, row.against);
    });
}

/// Estimates of models, by metric; of pairs those that have one.
template<class To> void tellModels(To& to, const Reading& of) {
    to.byMetric("drift_per_shot", [&](auto&& add) {
        for (const ModelEstimate& one : of.drift)
            add(
                one.metric, [&](auto& row) { tellModel(row, one, "estimate"); }, BuildAt(), BuildAt());
    });
    to.byMetric("adaptation_per_turn", [&](auto&& add) {
        for (const AverageGap& gap : of.average)
            if (gap.adaptation)
                add(
                    gap.metric, [&](auto& row) { tellModel(row, *gap.adaptation, "estimate"); }, gap.build,
                    gap.against);
    });
    if (std::ranges::any_of(of.average, [](const AverageGap& gap) { return gap.equalStrike.has_value(); }))
        to.byMetric("at_equal_strike", [&](auto&& add) {
            for (const AverageGap& gap : of.average)
                if (gap.equalStrike)
                    add(gap.metric, *gap.equalStrike, gap.build, gap.against);
        });
    if (!of.trend.empty()) {
        to.byMetric("trend", [&](auto&& add) {
            for (const Trend& trend : of.trend)
                add(trend.slope.metric, trend, BuildAt(), BuildAt());
        });
        to.byMetric("jonckheere", [&](auto&& add) {
            for (const Trend& trend : of.trend)
                if (trend.jonckheere)
                    add(
                        trend.slope.metric,
                        [&](auto& row) {
                            row("J", trend.jonckheere);
                            row("z", trend.z);
                            row("p", trend.orderP);
                        },
                        BuildAt(), BuildAt());
        });
    }
    const auto ofFactors = [&](const char* name, const std::vector<ModelEstimate>& all) {
        if (!all.empty())
            to.byMetric(name, [&](auto&& add) {
                for (const ModelEstimate& one : all)
                    add(
                        one.metric,
                        [&](auto& row) {
                            tellModel(row, one, "interaction");
                            row("level", one.level);
                        },
                        one.build, one.against);
            });
    };
    ofFactors("interaction", of.interaction);
    ofFactors("interaction_laps", of.interactionInLaps);
    const auto between = [&](const char* name, std::optional<ModelEstimate> AverageGap::*kind) {
        to.list(name, [&](auto&& add) {
            for (const AverageGap& gap : of.average)
                if (gap.*kind)
                    add(*(gap.*kind));
        });
    };
    to("settling_per_shot", of.settling);
    between("settling_gaps", &AverageGap::settling);
    to("late_in_turn", of.lateInTurn);
    between("forgiveness_gaps", &AverageGap::forgiveness);
}

/// Calls back with the outcome, the row and the claim of everything that was judged.
template<class Each> void eachClaim(const Reading& of, Each&& each) {
    for (const AverageGap& row : of.average)
        each(Outcome{.kind = row.kind, .metric = row.metric, .shape = {}}, row, row.claim);
    for (const SpreadRatio& row : of.consistency)
        each(Outcome{.kind = record::OutcomeKind::spread, .metric = row.metric, .shape = {}}, row, row.claim);
    for (const AreaRatio& row : of.areas)
        each(Outcome{.kind = record::OutcomeKind::area, .metric = {}, .shape = {}}, row, row.claim);
    for (const ShareGap& row : of.shareGaps)
        each(Outcome{.kind = record::OutcomeKind::share, .metric = {}, .shape = row.shape}, row.gap, row.gap.claim);
}

/// What verdicts hang on, and what was done to the record.
template<class To> void tellRecord(To& to, const Reading& of) {
    const auto head = [](auto& row, const Outcome& outcome, const auto& pair) {
        row("outcome", outcome);
        row("build", pair.build);
        row("against", pair.against);
    };
    to.list("influence", [&](auto&& add) {
        eachClaim(of, [&](const Outcome& outcome, const auto& pair, const Claim& claim) {
            for (const Influence& one : claim.influence)
                add([&](auto& row) {
                    tellPair(row, pair, outcome.metric);
                    row("outcome", outcome);
                    row("shot", one.number);
                    row("verdict_without", one.without);
                });
        });
    });
    to.list("set_asides", [&](auto&& add) {
        const std::string side = of.fromAllRead ? "_counted" : "_all_read";
        eachClaim(of, [&](const Outcome& outcome, const auto& pair, const Claim& claim) {
            if (claim.otherSide)
                add([&](auto& row) {
                    head(row, outcome, pair);
                    row(("estimate" + side).c_str(), claim.otherSide->estimate, "the outcome's");
                    row(("verdict" + side).c_str(), claim.otherSide->verdict);
                    row("changes", claim.otherSide->changes);
                });
        });
    });
    to.list("late_changes", [&](auto&& add) {
        eachClaim(of, [&](const Outcome& outcome, const auto& pair, const Claim& claim) {
            if (claim.withoutLate && claim.withoutLate->changes)
                add([&](auto& row) {
                    head(row, outcome, pair);
                    row("verdict", claim.verdict);
                    row("verdict_without", claim.withoutLate->verdict);
                });
        });
    });
    to("late_set_asides", of.lateSetAsides);
    to("guesses", of.guesses);
    to.list("amendments", [&](auto&& add) {
        for (const record::Amendment& amendment : of.amendments)
            add([&](auto& row) {
                row("at", amendment.at);
                row("text", amendment.text);
            });
    });
    to.list("set_aside_share", [&](auto&& add) {
        for (BuildAt b; b < of.setAsideShares.size(); ++b)
            if (const Share& share = of.setAsideShares[b]; share.n > 0)
                add([&](auto& row) {
                    row("build", b);
                    row("set_aside", share.hits);
                    row("struck", share.n);
                    row("share", share.share);
                    row("ci95", share.ci95);
                    row("swings", share.n);
                    row("counted", share.n - share.hits);
                });
    });
}

/// How to choose, and what the clubs did apart from each other.
template<class To> void tellChoices(To& to, const Reading& of) {
    to.object("best", [&](auto& row) {
        for (const BestOf& best : of.best)
            if (!best.set.empty())
                row.object(record::outcomeText(best.outcome).c_str(),
                           [&](auto& outcome) { outcome("best_set", best.set); });
    });
    to.object("choosing", [&](auto& row) {
        for (const BestOf& best : of.best)
            row(record::outcomeText(best.outcome).c_str(), best.choosing);
    });
    to("choosing_by_priority", of.byPriority);
    to("forgiveness", of.forgiveness);
    to.list("worst_fifth", [&](auto&& add) {
        for (const AverageGap& gap : of.average)
            if (gap.worstFifth)
                add([&](auto& row) {
                    tellPair(row, gap);
                    row("gap", gap.worstFifth->gap, ofMetric);
                    row("ci95", gap.worstFifth->ci95, ofMetric);
                    row("p", gap.worstFifth->p);
                    if (gap.longestFifth) {
                        row("long_gap", gap.longestFifth->gap, ofMetric);
                        row("long_ci95", gap.longestFifth->ci95, ofMetric);
                        row("long_p", gap.longestFifth->p);
                    }
                });
    });
    to.list("findings", [&](auto&& add) {
        for (const std::vector<Outcome>& finding : of.findings)
            add([&](auto& row) { row("outcomes", finding); });
    });
    to("shares", of.shapeShares);
    to("share_gaps", of.shareGaps);
    to.list("sittings", [&](auto&& add) {
        for (const AverageGap& gap : of.average)
            if (gap.pooled)
                add([&](auto& row) {
                    tellPair(row, gap);
                    tell(row, *gap.pooled);
                });
    });
    to("repeated", of.repeated);
    to("by_way", of.byWay);
    to("carry_per_ball_speed", of.carryPerBallSpeed, "m for each m/s");
    if (of.carryPerBallSpeed)
        to("carry_per_ball_speed_ci95", of.carryPerBallSpeedWithin, "m for each m/s");
    to("weight_order", of.weightOrder);
    to("bag_step_m", of.bagStep, "m");
    to("targets", of.targets);
    // Under the old names bets are what judgement §14 makes of stints; single runs have theirs beside them.
    to("bets", of.singleRuns.empty() ? of.bets : of.betsAsStints);
    to("best_bet", of.singleRuns.empty() ? of.bestBets : of.bestBetsAsStints);
    if (!of.singleRuns.empty()) {
        to("bets_in_single_runs", of.bets);
        to("best_bet_in_single_runs", of.bestBets);
    }
    to("further_bets", of.furtherBets);
    to("again", of.again);
    to("whose_doing", of.whoseDoing);
    to("same_swing", of.sameSwing);
    to("parts", of.parts);
}

template<class To> void tellOfShots(To& to, const Reading& of) {
    to("called", of.called);
    to("called_gaps", of.calledGaps);
    to("call_agreement", of.callAgreement);
    to("misses", of.misses);
    to("beats", of.beats);
    to("ten_shots", of.tenShots);
}

/// What single shots and what was said tell.
template<class To> void tellShots(To& to, const Reading& of) {
    to("unread", of.unread);
    tellOfShots(to, of);
    to("settings", of.bySetting);
    to.object("feels", [&](auto& row) {
        row("likeness", of.feelLikeness);
        row("gaps", of.feelGaps);
        row("ranks", of.feelRanks);
    });
    to("versus", of.versus);
    to("expected", of.expected);
    to("expected_order", of.expectedOrder);
    to("usual", of.usual);
    to("usual_bets", of.usualBets);
}

/// What was seen of each player and delivery by themselves.
template<class To> void tell(To& to, const OfSetting& of) {
    to("name", of.name);
    to("summary", of.reading.summary);
    to("landing", of.reading.landing);
    to("targets", of.reading.targets);
    to("shares", of.reading.shapeShares);
    tellOfShots(to, of.reading);
}

template<class To> void tell(To& to, const Reading& of) {
    tellDeclared(to, of);
    tellGaps(to, of);
    tellOpinions(to, of);
    tellModels(to, of);
    tellRecord(to, of);
    tellChoices(to, of);
    tellShots(to, of);
}

} // namespace knot::judge
