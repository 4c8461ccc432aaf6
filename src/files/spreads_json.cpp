#include "files/spreads_json.h"

#include "files/reading_rows.h"

namespace knot::files {
namespace {

using judge::Reading;
using nlohmann::ordered_json;

// The SDs as people know them, raw, where the spread is an average distance.
ordered_json sdRow(const Reading& reading, const judge::SpreadRatio& r) {
    ordered_json row = pairHead(reading, r.metric, r.build, r.against);
    row["method"] = "bonett";
    row["ratio"] = r.sds->ratio;
    row["sd_build"] = r.sdBuild;
    row["sd_baseline"] = r.sdAgainst;
    row["nu_build"] = r.nuBuild;
    row["nu_baseline"] = r.nuAgainst;
    put(row, "log_ratio_centre", r.sds->logCentre);
    put(row, "log_ratio_se", r.sds->logSe);
    put(row, "df", r.sds->df);
    put(row, "ci95", r.sds->ci95);
    put(row, "p", r.sds->p);
    put(row, "p_worthwhile", r.sds->pWorthwhile);
    put(row, "p_same", r.sds->pSame);
    return row;
}

ordered_json consistencyRow(const Reading& reading, const judge::SpreadRatio& r) {
    ordered_json row = pairHead(reading, r.metric, r.build, r.against);
    const bool byDistance = r.method == judge::SpreadMethod::distance;
    row["method"] = byDistance ? "distance" : "bonett";
    row["ratio"] = r.ratio;
    if (byDistance) {
        row["distance_build"] = r.distanceBuild;
        row["distance_baseline"] = r.distanceAgainst;
    }
    row["sd_build"] = r.sdBuild;
    row["sd_baseline"] = r.sdAgainst;
    row["nu_build"] = r.nuBuild;
    row["nu_baseline"] = r.nuAgainst;
    put(row, "log_ratio_centre", r.logCentre);
    put(row, "log_ratio_se", r.logSe);
    put(row, "df", r.df);
    put(row, "ci95", r.ci95);
    put(row, "ci90", r.ci90);
    put(row, "shown", r.shown);
    putClaim(row, r.claim);
    put(row, "bound", r.bound);
    if (r.shapesDiffer)
        row["shapes_differ"] = true;
    return row;
}

ordered_json areaRow(const Reading& reading, const judge::AreaRatio& r) {
    ordered_json row;
    row["build"] = reading.builds[r.build].name;
    row["against"] = reading.builds[r.against].name;
    row["area_ratio"] = r.ratio;
    row["nu_build"] = r.nuBuild;
    row["nu_baseline"] = r.nuAgainst;
    put(row, "log_ratio_se", r.logSe);
    put(row, "df", r.df);
    put(row, "ci95", r.ci95);
    put(row, "ci90", r.ci90);
    put(row, "shown", r.shown);
    putClaim(row, r.claim);
    put(row, "shuffle_p", r.shuffleP);
    if (r.centreMethod)
        row["centre_method"] = *r.centreMethod == judge::CentreMethod::rounds ? "rounds" : "shots";
    put(row, "hotelling_t2", r.hotellingT2);
    put(row, "hotelling_f", r.hotellingF);
    put(row, "hotelling_df2", r.hotellingDf2);
    put(row, "centre_p", r.centreP);
    return row;
}

} // namespace

ordered_json consistencyJson(const Reading& reading) {
    ordered_json rows = ordered_json::array();
    for (const auto& ratio : reading.consistency) {
        if (ratio.sds)
            rows.push_back(sdRow(reading, ratio));
        rows.push_back(consistencyRow(reading, ratio));
    }
    return rows;
}

ordered_json dispersionJson(const Reading& reading) {
    ordered_json out;
    out["builds"] = ordered_json::array();
    for (const auto& l : reading.landing)
        out["builds"].push_back({{"build", reading.builds[l.build].name},
                                 {"n", l.n},
                                 {"centre_side", l.centreSide},
                                 {"centre_carry", l.centreCarry},
                                 {"area50", l.area50},
                                 {"area90", l.area90},
                                 {"sd_major", l.sdMajor},
                                 {"sd_minor", l.sdMinor},
                                 {"tilt_deg", l.tilt}});
    out["pairs"] = ordered_json::array();
    for (const auto& r : reading.areas)
        out["pairs"].push_back(areaRow(reading, r));
    return out;
}

} // namespace knot::files
