#include "files/club_json.h"

#include "files/json_read.h"

namespace knot::files {
namespace {

using nlohmann::json;
using nlohmann::ordered_json;
using record::Club;
using record::Part;
using record::Player;

template<typename Owner> using Number = std::pair<const char*, std::optional<double> Owner::*>;
template<typename Owner> using Text = std::pair<const char*, std::string Owner::*>;

constexpr std::array<Number<Part>, 12> partNumbers = {{{"mass_g", &Part::mass},
                                                       {"loft_deg", &Part::loft},
                                                       {"lie_deg", &Part::lie},
                                                       {"volume_cm3", &Part::volume},
                                                       {"offset_mm", &Part::offset},
                                                       {"bounce_deg", &Part::bounce},
                                                       {"length_mm", &Part::length},
                                                       {"tip_trim_mm", &Part::tipTrim},
                                                       {"step", &Part::step},
                                                       {"balance_mm", &Part::balance},
                                                       {"butt_stiffness", &Part::buttStiffness},
                                                       {"tip_stiffness", &Part::tipStiffness}}};
constexpr std::array<Text<Part>, 9> partTexts = {{{"id", &Part::id},
                                                  {"name", &Part::name},
                                                  {"size_class", &Part::sizeClass},
                                                  {"sole", &Part::sole},
                                                  {"top_line", &Part::topLine},
                                                  {"weights", &Part::weights},
                                                  {"price", &Part::price},
                                                  {"material", &Part::material},
                                                  {"flex", &Part::flex}}};
constexpr std::array<Text<Player>, 10> playerTexts = {{{"id", &Player::id},
                                                       {"name", &Player::name},
                                                       {"played", &Player::played},
                                                       {"plays", &Player::plays},
                                                       {"tempo", &Player::tempo},
                                                       {"transition", &Player::transition},
                                                       {"shape", &Player::shape},
                                                       {"miss", &Player::miss},
                                                       {"goals", &Player::goals},
                                                       {"health", &Player::health}}};
constexpr std::array<Number<Player>, 5> playerNumbers = {{{"club_speed_ms", &Player::clubSpeed},
                                                          {"iron_speed_ms", &Player::ironSpeed},
                                                          {"height_mm", &Player::height},
                                                          {"wrist_to_floor_mm", &Player::wristToFloor},
                                                          {"hand_mm", &Player::hand}}};
constexpr std::array<Number<record::Usual>, 4> usualNumbers = {{{"carry_m", &record::Usual::carry},
                                                                {"ball_speed_ms", &record::Usual::ballSpeed},
                                                                {"launch_deg", &record::Usual::launch},
                                                                {"spin_rpm", &record::Usual::spin}}};
constexpr std::array<std::pair<const char*, double Club::*>, 4> clubNumbers = {
    {{"lead_g", &Club::lead},
     {"bent_loft_deg", &Club::bentLoft},
     {"bent_lie_deg", &Club::bentLie},
     {"gripped_down_mm", &Club::grippedDown}}};

template<typename Owner, std::size_t N>
void putTexts(ordered_json& out, const Owner& owner, const std::array<Text<Owner>, N>& texts) {
    for (const auto& [name, member] : texts)
        if (!(owner.*member).empty())
            out[name] = owner.*member;
}

template<typename Owner, std::size_t N>
void readTexts(const json& in, Owner& owner, const std::array<Text<Owner>, N>& texts) {
    for (const auto& [name, member] : texts)
        owner.*member = in.value(name, "");
}

void put(ordered_json& out, const char* name, const std::optional<double>& value) {
    if (value)
        out[name] = *value;
}

ordered_json clubJson(const Club& club) {
    ordered_json out = ordered_json::object();
    for (const Part* part : {&club.head, &club.shaft, &club.grip})
        if (*part != Part{.kind = part->kind})
            out[nameOf(record::partNames, part->kind)] = partJson(*part);
    if (!club.ball.empty())
        out["ball"] = club.ball;
    put(out, "length_mm", club.length);
    put(out, "head_at_mm", club.headAt);
    for (const auto& [name, member] : clubNumbers)
        if (club.*member != 0)
            out[name] = club.*member;
    if (club.sleeve != record::Sleeve{})
        out["sleeve"] = {{"setting", club.sleeve.setting},
                         {"loft_deg", club.sleeve.loft},
                         {"face_deg", club.sleeve.face},
                         {"lie_deg", club.sleeve.lie}};
    return out;
}

Club clubFrom(const json& in) {
    Club club;
    for (Part* part : {&club.head, &club.shaft, &club.grip})
        if (const auto at = in.find(nameOf(record::partNames, part->kind)); at != in.end())
            *part = partFrom(*at);
    club.ball = in.value("ball", "");
    club.length = numberAt(in, "length_mm");
    club.headAt = numberAt(in, "head_at_mm");
    for (const auto& [name, member] : clubNumbers)
        club.*member = in.value(name, 0.0);
    if (const auto at = in.find("sleeve"); at != in.end())
        club.sleeve = {at->value("setting", ""), at->value("loft_deg", 0.0), at->value("face_deg", 0.0),
                       at->value("lie_deg", 0.0)};
    return club;
}

} // namespace

ordered_json partJson(const Part& part) {
    ordered_json out;
    out["kind"] = nameOf(record::partNames, part.kind);
    putTexts(out, part, partTexts);
    for (const auto& [name, member] : partNumbers)
        put(out, name, part.*member);
    return out;
}

Part partFrom(const json& in) {
    Part part;
    part.kind = valueOrRefuse<record::PartKind>(record::partNames, in.at("kind").get<std::string>());
    readTexts(in, part, partTexts);
    for (const auto& [name, member] : partNumbers)
        part.*member = numberAt(in, name);
    return part;
}

ordered_json buildJson(const record::Build& build) {
    ordered_json out{{"build", build.name}, {"note", build.note}};
    if (!build.id.empty())
        out["id"] = build.id;
    if (!build.tag.empty())
        out["tag"] = build.tag;
    if (build.club != Club{})
        out["club"] = clubJson(build.club);
    return out;
}

record::Build buildFrom(const json& in) {
    record::Build build;
    build.name = in.at("build").get<std::string>();
    build.note = in.value("note", "");
    build.tag = in.value("tag", "");
    build.id = in.value("id", "");
    if (const auto at = in.find("club"); at != in.end())
        build.club = clubFrom(*at);
    return build;
}

ordered_json playerJson(const Player& player) {
    ordered_json out = ordered_json::object();
    putTexts(out, player, playerTexts);
    if (player.leftHanded)
        out["left_handed"] = true;
    if (player.costs != record::Side::notSaid)
        out["side_that_costs"] = nameOf(record::sideNames, player.costs);
    for (const auto& [name, member] : playerNumbers)
        put(out, name, player.*member);
    for (const record::Usual& usual : player.usual) {
        ordered_json row{{"club", usual.club}};
        for (const auto& [name, member] : usualNumbers)
            put(row, name, usual.*member);
        out["usual"].push_back(std::move(row));
    }
    return out;
}

Player playerFrom(const json& in) {
    Player player;
    readTexts(in, player, playerTexts);
    player.leftHanded = in.value("left_handed", false);
    player.costs = valueOrRefuse<record::Side>(record::sideNames, in.value("side_that_costs", "not_said"));
    for (const auto& [name, member] : playerNumbers)
        player.*member = numberAt(in, name);
    for (const auto& row : in.value("usual", json::array())) {
        record::Usual usual{.club = row.value("club", "")};
        for (const auto& [name, member] : usualNumbers)
            usual.*member = numberAt(row, name);
        player.usual.push_back(std::move(usual));
    }
    return player;
}

ordered_json playerNameJson(const Player& player) {
    return {{"id", player.id}, {"name", player.name}};
}

} // namespace knot::files
