#include "cli/commands.h"

#include "core/rack/club_kind.h"
#include "core/reach/offer.h"
#include "core/reach/window.h"
#include "core/record/text/number_text.h"

#include <algorithm>
#include <array>
#include <iomanip>
#include <iostream>
#include <memory>
#include <optional>

namespace knot::cli {
namespace {

using flight::HeadKind;

struct Asked {
    std::string kind;
    std::optional<double> ballSpeed, clubSpeed, attack, added;
    std::string ground = "carry";
};

constexpr std::array grounds = {std::pair("carry", reach::Ground::carry), std::pair("soft", reach::Ground::soft),
                                std::pair("usual", reach::Ground::usual), std::pair("firm", reach::Ground::firm)};

reach::Ground groundNamed(const std::string& name) {
    return std::ranges::find(grounds, name, [](const auto& each) { return std::string(each.first); })->second;
}

std::string text(const reach::Band& band, int decimals, const char* unit) {
    if (band.isOpen())
        return {};
    const auto number = [&](double value) { return record::fixed(value, decimals); };
    return (band.from ? number(*band.from) : "") +
           (band.from && band.to ? " to "
            : band.from          ? " and more"
                                 : "up to ") +
           (band.to ? number(*band.to) : "") + unit;
}

// Each loft with what becomes of it, and the best.
void writeLofts(const reach::Window& window, bool isCarry) {
    const reach::Try& best = window.bestTry();
    std::cout << std::fixed << "loft_deg,ball_speed_ms,launch_deg,spin_rpm," << (isCarry ? "carry_m" : "total_m")
              << "\n";
    for (const reach::Try& one : window.along)
        std::cout << std::setprecision(2) << one.loft << std::setprecision(1) << ',' << one.launch.ballSpeed << ','
                  << one.launch.launch << ',' << std::setprecision(0) << one.launch.spin << std::setprecision(1) << ','
                  << one.distance << '\n';
    std::cout << "# best " << record::fixed(best.loft, 2) << "°; within 1 % of it " << text(window.loft, 2, "°")
              << ", launch " << text(window.launch, 1, "°") << ", spin " << text(window.spin, 0, " rpm")
              << "; two degrees cost at most " << record::fixed(window.twoDegrees, 1) << " m. Modelled.\n";
}

void writeWanted(const reach::Wanted& wanted) {
    std::cout << "launch " << text(wanted.launch, 1, "°") << "\nspin " << text(wanted.spin, 0, " rpm") << "\nheight "
              << text(wanted.height, 0, " m") << "\ndescent " << text(wanted.descent, 0, "°") << "\n# Modelled.\n";
}

void writeSwing(const Asked& asked) {
    HeadKind kind = HeadKind::driver;
    for (const HeadKind one : {HeadKind::wood, HeadKind::iron, HeadKind::wedge})
        if (rack::kindName(one) == asked.kind)
            kind = one;
    const double attack = asked.attack.value_or(reach::offerOf(kind).attack);
    const reach::Ground ground = groundNamed(asked.ground);
    if (kind != HeadKind::driver && asked.ballSpeed) {
        const auto wanted = reach::wantedAt(kind, *asked.ballSpeed, attack, ground);
        if (!wanted)
            throw Refusal{"No loft on offer stops soon enough at that ball speed, by the run model."};
        return writeWanted(*wanted);
    }
    const auto club = asked.clubSpeed   ? asked.clubSpeed
                      : asked.ballSpeed ? reach::clubSpeedFor(kind, *asked.ballSpeed, attack)
                                        : std::nullopt;
    const auto window =
        club ? reach::windowOf({.kind = kind, .clubSpeed = *club, .attack = attack, .added = asked.added}, ground)
             : std::nullopt;
    if (!window)
        throw Refusal{"Say --club-speed from 20 to 60 m/s, or a --ball-speed that such a club gives."};
    writeLofts(*window, ground == reach::Ground::carry);
}

} // namespace

void addWindows(CLI::App& app) {
    auto asked = std::make_shared<Asked>();
    CLI::App* command = app.add_subcommand(
        "windows", "What lofts and strikes can give a swing, by the models of impact and flight. Without anything more "
                   "the chart that ships: data/windows.csv.");
    command->add_option("--kind", asked->kind, "Of one swing: the kind of club")
        ->check(CLI::IsMember({"driver", "wood", "iron", "wedge"}));
    command->add_option("--ball-speed", asked->ballSpeed, "m/s");
    command->add_option("--club-speed", asked->clubSpeed, "m/s");
    command->add_option("--attack", asked->attack, "degrees, up positive; else as is usual");
    command->add_option("--added", asked->added, "delivered less static loft, degrees; else as is usual");
    command->add_option("--ground", asked->ground, "What counts as far: the carry, or where the ball stops on turf")
        ->check(CLI::IsMember({"carry", "soft", "usual", "firm"}));
    command->callback([asked] {
        if (asked->kind.empty())
            std::cout << reach::chartText(reach::chartRows());
        else
            writeSwing(*asked);
    });
}

} // namespace knot::cli
