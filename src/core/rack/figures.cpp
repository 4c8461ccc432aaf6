#include "core/rack/figures.h"

#include "core/record/text/number_text.h"

#include <cmath>

namespace knot::rack {
namespace {

using record::Club;

constexpr double gramsPerOunce = 28.349523125;
constexpr double mmPerInch = 25.4;
constexpr double momentOfD0 = 213.5, momentPerPoint = 1.75; // in·oz
constexpr double usualShaftCentre = 0.505, usualGripCentre = 104, usualHeadInset = 25;

// A part as a mass at a place; a rod where it has a length.
struct Mass {
    double mass = 0, at = 0, rod = 0;
};

// The parts of a club laid along its axis from the end of the hands.
class Laid {
public:
    Laid(const Club& club, Figures& figures)
        : m_club(club)
        , m_figures(figures) {
        head();
        shaft();
        grip();
    }

    std::optional<std::vector<Mass>> pieces() const {
        return m_figures.missing.empty() ? std::optional(m_pieces) : std::nullopt;
    }

private:
    void lacks(const char* what) { m_figures.missing.emplace_back(what); }
    double held(double fromButt) const { return fromButt - m_club.grippedDown; }

    void head() {
        if (!m_club.head.mass)
            return lacks("the head's mass");
        if (!m_club.headAt && !m_club.length)
            return lacks("the club's length");
        if (!m_club.headAt)
            m_figures.assumed.emplace_back("the head's centre 25 mm short of the club's length");
        const double at = m_club.headAt.value_or(m_club.length.value_or(0) - usualHeadInset);
        m_pieces.push_back({*m_club.head.mass + m_club.lead, held(at), 0});
    }

    void shaft() {
        const auto& own = m_club.shaft;
        if (!own.mass)
            return lacks("the shaft's mass");
        if (!own.length && !m_club.length)
            return lacks("the shaft's length");
        if (!own.length)
            m_figures.assumed.emplace_back("a shaft as long as the club");
        if (!own.balance)
            m_figures.assumed.emplace_back("the shaft's centre at its middle");
        const double length = own.length.value_or(m_club.length.value_or(0));
        m_pieces.push_back({*own.mass, held(own.balance.value_or(usualShaftCentre * length)), length});
    }

    void grip() {
        if (!m_club.grip.mass)
            return lacks("the grip's mass");
        if (!m_club.grip.balance)
            m_figures.assumed.emplace_back("the grip's centre 104 mm from its end");
        m_pieces.push_back({*m_club.grip.mass, held(m_club.grip.balance.value_or(usualGripCentre)), 0});
    }

    const Club& m_club;
    Figures& m_figures;
    std::vector<Mass> m_pieces;
};

// in·oz about the fulcrum.
double momentOf(const std::vector<Mass>& pieces) {
    double moment = 0;
    for (const Mass& piece : pieces)
        moment += piece.mass / gramsPerOunce * (piece.at - fulcrum) / mmPerInch;
    return moment;
}

struct Evening {
    double moment = 0; // in·oz that the lighter one lacks
    std::vector<Mass> lighter;
};

std::optional<Evening> evening(const Club& lighter, const Club& heavier) {
    Figures ignored;
    const auto light = Laid(lighter, ignored).pieces();
    const auto heavy = Laid(heavier, ignored).pieces();
    if (!light || !heavy)
        return std::nullopt;
    return Evening{momentOf(*heavy) - momentOf(*light), *light};
}

} // namespace

Figures figuresOf(const Club& club) {
    Figures figures;
    if (club.length)
        figures.length = *club.length - club.grippedDown;
    if (club.head.loft)
        figures.loft = *club.head.loft + club.sleeve.loft + club.bentLoft;
    if (club.head.lie)
        figures.lie = *club.head.lie + club.sleeve.lie + club.bentLie;
    figures.face = club.sleeve.face;
    const auto pieces = Laid(club, figures).pieces();
    if (!pieces)
        return figures;
    double mass = 0;
    double first = 0;
    double second = 0;
    for (const Mass& piece : *pieces) {
        mass += piece.mass;
        first += piece.mass * piece.at;
        second += piece.mass * (piece.at * piece.at + piece.rod * piece.rod / 12);
    }
    figures.mass = mass;
    figures.balance = first / mass;
    figures.swingWeight = (momentOf(*pieces) - momentOfD0) / momentPerPoint;
    figures.inertia = second * 1e-9; // g·mm² to kg·m²
    return figures;
}

std::string swingWeightText(double points) {
    // Rounded first, so that 9.96 becomes the next letter's 0.0 and never "10.0".
    const double tenths = std::round(points * 10);
    const double letter = std::floor(tenths / 100);
    if (!(letter >= -3 && letter <= 22))
        return "–"; // beyond the letters A to Z
    return std::string(1, static_cast<char>('D' + static_cast<int>(letter))) +
           record::fixed((tenths - 100 * letter) / 10, 1);
}

std::optional<double> leadToEven(const Club& lighter, const Club& heavier) {
    const auto lacking = evening(lighter, heavier);
    if (!lacking)
        return std::nullopt;
    return lacking->moment / ((lacking->lighter.front().at - fulcrum) / mmPerInch) * gramsPerOunce;
}

std::optional<double> lengthToEven(const Club& lighter, const Club& heavier) {
    const auto lacking = evening(lighter, heavier);
    if (!lacking)
        return std::nullopt;
    // A longer butt carries head and shaft outward; the grip stays in the hands.
    const double carried = (lacking->lighter[0].mass + lacking->lighter[1].mass) / gramsPerOunce;
    return lacking->moment / carried * mmPerInch;
}

} // namespace knot::rack
