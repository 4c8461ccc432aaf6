#include "files/door/made_file.h"

#include "core/simulate/player.h"
#include "files/door/written_forms.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <set>
#include <utility>

namespace knot::test {
namespace {

using record::Metric;
using record::Unit;

constexpr std::array<Metric, 9> measured = {Metric::clubSpeed,       Metric::ballSpeed, Metric::launch,
                                            Metric::launchDirection, Metric::spin,      Metric::spinAxis,
                                            Metric::carry,           Metric::side,      Metric::apex};

// Headings as such files have them; in the order of `measured`.
const std::map<Tongue, std::array<std::string, 9>> headings = {
    {Tongue::english,
     {"Club Speed", "Ball Speed", "Launch Angle", "Launch Direction", "Spin Rate", "Spin Axis", "Carry", "Side",
      "Apex"}},
    {Tongue::german,
     {"Schlägerkopfgeschwindigkeit", "Ballgeschwindigkeit", "Abflugwinkel", "Abflugrichtung", "Spinrate", "Spinachse",
      "Carry", "Seitliche Abweichung", "Flughöhe"}},
    {Tongue::french,
     {"Vitesse du club", "Vitesse de balle", "Angle de décollage", "Direction de départ", "Taux de spin",
      "Axe de rotation", "Portée", "Écart latéral", "Hauteur max"}},
    {Tongue::spanish,
     {"Velocidad del palo", "Velocidad de la bola", "Ángulo de lanzamiento", "Dirección de lanzamiento", "Efecto",
      "Eje de giro", "Vuelo", "Desviación lateral", "Altura máxima"}},
    {Tongue::italian,
     {"Velocità bastone", "Velocità palla", "Angolo di lancio", "Direzione di lancio", "Rotazione", "Asse di rotazione",
      "Volo", "Deviazione laterale", "Altezza massima"}},
    {Tongue::swedish,
     {"Klubbhastighet", "Bollhastighet", "Utgångsvinkel", "Startriktning", "Spinn", "Spinnaxel", "Carrylängd",
      "Sidoavvikelse", "Maxhöjd"}},
    {Tongue::dutch,
     {"Clubsnelheid", "Balsnelheid", "Lanceerhoek", "Lanceerrichting", "Spinsnelheid", "Spinas", "Carry afstand",
      "Zijwaartse afwijking", "Maximale hoogte"}},
    {Tongue::japanese,
     {"ヘッドスピード", "ボール初速", "打ち出し角", "打ち出し方向", "スピン量", "スピン軸", "キャリー", "左右ブレ",
      "最高到達点"}},
    {Tongue::korean,
     {"헤드 스피드", "볼 스피드", "발사각", "발사 방향", "스핀량", "스핀축", "캐리", "좌우 편차", "최고 높이"}}};
struct Words {
    std::string club, shaft, number, date, time, mean, spread, left, right;
};
const std::map<Tongue, Words> words = {
    {Tongue::english, {"Club", "Shaft", "Shot", "Date", "Time", "Average", "Std. Dev.", "Left", "Right"}},
    {Tongue::german,
     {"Schläger", "Schaft", "Schlag", "Datum", "Uhrzeit", "Mittelwert", "Standardabweichung", "Links", "Rechts"}},
    {Tongue::french, {"Club", "Manche", "Coup", "Date", "Heure", "Moyenne", "Écart type", "Gauche", "Droite"}},
    {Tongue::spanish,
     {"Palo", "Varilla", "Golpe", "Fecha", "Hora", "Promedio", "Desviación estándar", "Izquierda", "Derecha"}},
    {Tongue::italian,
     {"Bastone", "Canna", "Colpo", "Data", "Ora", "Media", "Deviazione standard", "Sinistra", "Destra"}},
    {Tongue::swedish,
     {"Klubba", "Skaft", "Slag", "Datum", "Tid", "Medelvärde", "Standardavvikelse", "Vänster", "Höger"}},
    {Tongue::dutch, {"Club", "Shaft", "Slag", "Datum", "Tijd", "Gemiddelde", "Standaardafwijking", "Links", "Rechts"}},
    {Tongue::japanese, {"クラブ", "シャフト", "番号", "日付", "時刻", "平均", "標準偏差", "左", "右"}},
    {Tongue::korean, {"클럽", "샤프트", "번호", "날짜", "시간", "평균", "표준편차", "왼쪽", "오른쪽"}}};

// What many write where nothing was measured; another mark must be asked about.
const std::set<std::string> usualMarks = {"***", "n.a.", "k.A.", "...", "/", "#", "x", "·"};

bool hasSides(Metric metric) {
    return metric == Metric::side || metric == Metric::launchDirection || metric == Metric::spinAxis;
}

Unit unitOf(Metric metric, const Style& style) {
    const bool imperial = style.measures == Measures::imperial;
    switch (record::info(metric).quantity) {
    case record::Quantity::speed:
        return imperial ? Unit::mph : style.tongue == Tongue::english ? Unit::ms : Unit::kmh;
    case record::Quantity::distance:
        return imperial ? Unit::yd : Unit::m;
    case record::Quantity::height:
        return imperial ? Unit::ft : Unit::m;
    default:
        return record::unitsOf(record::info(metric).quantity).front();
    }
}

std::string fixedTo(double value, int decimals) {
    char text[40];
    (void)std::snprintf(text, sizeof text, "%.*f", decimals, value);
    return text;
}

int decimalsOf(Metric metric) {
    return metric == Metric::spin ? 0 : 1;
}

// What is written of a file, cell by cell, before it takes a form.
class Writer {
public:
    Writer(const Style& style, std::uint64_t seed)
        : m_style(style)
        , m_random(seed) {
        m_file.name = "made.csv";
        strike();
    }

    MadeFile file() {
        const bool isKnownMark = m_style.wrong == Wrong::marks && usualMarks.contains(m_style.mark);
        m_file.mustAsk = (m_style.wrong != Wrong::nothing && !isKnownMark) || m_style.clubs == Clubs::sameBesideShaft;
        std::vector<std::size_t> order;
        for (std::size_t i = 0; i < m_file.shots.size(); ++i)
            order.push_back(i);
        if (m_style.order != Order::asStruck)
            std::ranges::reverse(order);
        fillHeadings();
        Grid grid{m_headings, {}};
        fillRows(order, grid);
        m_file.bytes = inForm(m_style.form, grid, above(), m_clubColumn);
        m_file.name = "made" + suffixOf(m_style.form);
        return std::move(m_file);
    }

private:
    void strike() {
        simulate::Player player;
        player.clubSpeed = 38;
        player.attack = -3;
        player.dynamicLoft = 22;
        const std::vector<std::string> names = m_style.clubs == Clubs::byLoft
                                                   ? std::vector<std::string>{"9.5", "10.5", "12"}
                                                   : std::vector<std::string>{"Wren 68", "Fern R", "Alder 75"};
        std::uint64_t second = 0;
        for (const std::string& name : names) {
            const auto turn = simulate::drawTurn(player, m_random);
            simulate::BuildTruth build{.name = name, .note = {}};
            for (int i = 0; i < 6; ++i) {
                const auto readings = simulate::strike(player, build, turn, i, m_random);
                TrueShot shot{.club = name, .player = {}, .moment = {}, .readings = {}};
                for (const Metric metric : measured) {
                    const Unit unit = metric == Metric::apex && m_style.wrong == Wrong::apexInFeet
                                          ? Unit::ft
                                          : unitOf(metric, m_style);
                    const double reading = record::fromInternal(readings.at(metric).value_or(1), unit);
                    shot.readings[metric] = record::toInternal(std::stod(fixedTo(reading, decimalsOf(metric))), unit);
                }
                second += 40 + m_random.below(30);
                if (m_style.times != Times::none)
                    shot.moment = "2026-05-04T10:" + two(second / 60 % 60) + ":" + two(second % 60);
                m_file.shots.push_back(std::move(shot));
            }
        }
    }

    static std::string two(std::uint64_t value) { return (value < 10 ? "0" : "") + std::to_string(value); }

    std::string headingOf(std::size_t at) const {
        const Metric metric = measured[at];
        std::string heading = headings.at(m_style.tongue)[at];
        if (m_style.capitals)
            heading = inCapitals(heading);
        const std::string unit(record::symbol(unitOf(metric, m_style)));
        if (!unit.empty() && m_style.wrong != Wrong::apexInFeet)
            heading += " [" + unit + "]";
        else if (!unit.empty())
            heading += metric == Metric::apex ? " [m]" : " [" + unit + "]";
        if (hasSides(metric) && m_style.signs == Signs::inHeading)
            heading += " (R+/L-)";
        if (hasSides(metric) && m_style.signs == Signs::turnedInHeading)
            heading += " (+ = left)";
        return heading;
    }

    bool isBeside(Metric metric) const { return metric == Metric::side && m_style.signs == Signs::besideIt; }

    void fillHeadings() {
        const Words& said = words.at(m_style.tongue);
        if (m_style.order == Order::fallingNumbers || m_style.form == Form::acrossTable)
            m_headings.push_back(said.number);
        if (m_style.times == Times::twoColumns) {
            m_headings.push_back(said.date);
            m_headings.push_back(said.time);
        } else if (m_style.times != Times::none) {
            m_headings.push_back(m_style.tongue == Tongue::english ? "Timestamp" : said.date);
        }
        m_clubColumn = m_headings.size();
        m_headings.push_back(said.club);
        if (m_style.clubs == Clubs::sameBesideShaft)
            m_headings.push_back(said.shaft);
        for (std::size_t i = 0; i < measured.size(); ++i) {
            // The heading of another column stands over it.
            const std::size_t other = m_style.wrong == Wrong::swappedSpeeds && i < 2                ? 1 - i
                                      : m_style.wrong == Wrong::swappedAngles && (i == 2 || i == 3) ? 5 - i
                                                                                                    : i;
            m_headings.push_back(headingOf(other));
            if (isBeside(measured[i]))
                m_headings.push_back("L/R");
        }
    }

    std::string timeCell(const TrueShot& shot) const {
        const std::string clock = shot.moment.substr(11);
        const long hour = 10;
        const long minute = std::stol(clock.substr(3, 2));
        const long second = std::stol(clock.substr(6, 2));
        const long sinceEpoch = 1777852800 + hour * 3600 + minute * 60 + second; // of 2026-05-04 in UTC
        switch (m_style.times) {
        case Times::epoch:
            return std::to_string(sinceEpoch);
        case Times::millis:
            return std::to_string(sinceEpoch) + "000";
        case Times::serial:
            return fixedTo(46146 + static_cast<double>(hour * 3600 + minute * 60 + second) / 86400, 6);
        case Times::twelveHours:
            return "5/4/2026 10:" + two(static_cast<std::uint64_t>(minute)) + ":" +
                   two(static_cast<std::uint64_t>(second)) + " AM";
        case Times::unmarked:
            return "20260504T10" + clock.substr(3, 2) + clock.substr(6, 2);
        default:
            return "2026-05-04 " + clock;
        }
    }

    // A side's number as this file writes it.
    std::string sided(double value, std::size_t decimals) const {
        const Words& said = words.at(m_style.tongue);
        const std::string plain = fixedTo(std::fabs(value), static_cast<int>(decimals));
        const bool isLeft = value < 0;
        if (std::stod(plain) == 0)
            return plain;
        switch (m_style.signs) {
        case Signs::trueMinus:
            return (isLeft ? "\u2212" : "") + plain;
        case Signs::enDash:
            return (isLeft ? "\u2013" : "") + plain;
        case Signs::letterBehind:
            return plain + (isLeft ? " L" : " R");
        case Signs::letterBefore:
            return (isLeft ? "L" : "R") + plain;
        case Signs::words:
            return plain + " " + (isLeft ? said.left : said.right);
        case Signs::turnedInHeading:
            return (isLeft ? "" : "-") + plain;
        default:
            return (isLeft ? "-" : "") + plain;
        }
    }

    std::string cellOf(const TrueShot& shot, Metric metric) const {
        const double reading = shot.readings.at(metric);
        double value = record::fromInternal(reading, unitOf(metric, m_style));
        if (metric == Metric::apex && m_style.wrong == Wrong::apexInFeet)
            value = record::fromInternal(reading, Unit::ft);
        if (metric == Metric::side && m_style.wrong == Wrong::turnedSides)
            value = -value;
        std::string text = isBeside(metric)   ? fixedTo(std::fabs(value), 1)
                           : hasSides(metric) ? sided(value, static_cast<std::size_t>(decimalsOf(metric)))
                                              : fixedTo(value, decimalsOf(metric));
        if (metric == Metric::spin && m_style.wrong == Wrong::thousandsByPoint && text.size() > 3)
            text.insert(text.size() - 3, ".");
        if (m_style.form == Form::semicolonComma)
            std::ranges::replace(text, '.', ',');
        return text;
    }

    std::vector<std::string> rowOf(std::size_t at) {
        TrueShot& shot = m_file.shots[at];
        std::vector<std::string> row;
        if (m_style.order == Order::fallingNumbers || m_style.form == Form::acrossTable)
            row.push_back(std::to_string(at + 1));
        if (m_style.times == Times::twoColumns) {
            row.push_back("04.05.2026");
            row.push_back(shot.moment.substr(11));
        } else if (m_style.times != Times::none) {
            row.push_back(timeCell(shot));
        }
        row.push_back(m_style.clubs == Clubs::sameBesideShaft                                 ? "7 iron"
                      : m_style.clubs == Clubs::grouped || m_style.clubs == Clubs::aboveTable ? std::string()
                                                                                              : shot.club);
        if (m_style.clubs == Clubs::sameBesideShaft)
            row.push_back(shot.club);
        const std::size_t first = row.size();
        for (const Metric metric : measured) {
            row.push_back(cellOf(shot, metric));
            if (isBeside(metric)) {
                const double value = shot.readings.at(metric);
                row.push_back(value < 0 ? words.at(m_style.tongue).left : words.at(m_style.tongue).right);
            }
        }
        spoil(at, shot, row, first);
        return row;
    }

    // What cannot be, in some rows; what should be read of it then.
    void spoil(std::size_t at, TrueShot& shot, std::vector<std::string>& row, std::size_t first) const {
        auto cell = [&](Metric metric) -> std::string& {
            const auto place = static_cast<std::size_t>(std::ranges::find(measured, metric) - measured.begin());
            const bool isBehind = m_style.signs == Signs::besideIt && metric == Metric::apex;
            return row[first + place + (isBehind ? 1 : 0)];
        };
        auto lose = [&](Metric metric, const std::string& text) {
            cell(metric) = text;
            shot.readings.erase(metric);
        };
        const bool some = at % 7 == 3;
        if (m_style.wrong == Wrong::zeroRow && some) {
            for (std::size_t i = first; i < row.size(); ++i)
                row[i] = "0";
            shot.readings.clear();
        }
        if (m_style.wrong == Wrong::zeroSpin && some)
            lose(Metric::spin, "0");
        if (m_style.wrong == Wrong::minus9999 && some) {
            lose(Metric::spin, "-9999");
            lose(Metric::carry, "-9999");
        }
        if (m_style.wrong == Wrong::marks && some)
            for (const Metric metric : {Metric::spin, Metric::clubSpeed, Metric::side})
                lose(metric, m_style.mark);
        if (m_style.wrong == Wrong::oneBadCell && at == 4)
            lose(Metric::launch, "12x3");
    }

    std::vector<std::string> summed(const std::vector<std::size_t>& shots, bool isMean,
                                    const std::string& label) const {
        std::vector<std::string> row(m_headings.size());
        row[m_clubColumn] = label;
        const std::size_t first = m_clubColumn + (m_style.clubs == Clubs::sameBesideShaft ? 2 : 1);
        std::size_t place = first;
        for (const Metric metric : measured) {
            double sum = 0;
            double squares = 0;
            double n = 0;
            for (const std::size_t at : shots)
                if (const auto found = m_file.shots[at].readings.find(metric);
                    found != m_file.shots[at].readings.end()) {
                    double value = record::fromInternal(found->second, unitOf(metric, m_style));
                    if (metric == Metric::side && m_style.wrong == Wrong::turnedSides)
                        value = -value;
                    if (hasSides(metric) && m_style.signs == Signs::turnedInHeading)
                        value = -value;
                    value = isBeside(metric) ? std::fabs(value) : value;
                    sum += value;
                    squares += value * value;
                    ++n;
                }
            const double mean = sum / n;
            const double sd = std::sqrt(std::max(0.0, (squares - sum * mean) / (n - 1)));
            row[place] = fixedTo(isMean ? mean : sd, decimalsOf(metric));
            if (m_style.form == Form::semicolonComma)
                std::ranges::replace(row[place], '.', ',');
            place += isBeside(metric) ? 2 : 1;
        }
        return row;
    }

    void fillRows(const std::vector<std::size_t>& order, Grid& grid) {
        const Words& said = words.at(m_style.tongue);
        std::vector<std::size_t> of;
        std::vector<std::vector<std::string>> rows;
        auto sumUp = [&](const std::string& suffix) {
            if (m_style.sums == Sums::dashes)
                rows.emplace_back(m_headings.size(), "-----");
            rows.push_back(summed(of, true, m_style.sums == Sums::unnamed ? "Tüvlek" : said.mean + suffix));
            rows.push_back(summed(of, false, m_style.sums == Sums::unnamed ? "Skeppa" : said.spread + suffix));
        };
        for (std::size_t i = 0; i < order.size(); ++i) {
            const bool begins = i == 0 || m_file.shots[order[i]].club != m_file.shots[order[i - 1]].club;
            if (begins && i > 0 && m_style.sums == Sums::byClub) {
                sumUp(" (6)");
                of.clear();
            }
            if (begins && m_style.clubs == Clubs::grouped)
                rows.push_back({m_file.shots[order[i]].club});
            rows.push_back(rowOf(order[i]));
            of.push_back(order[i]);
        }
        if (m_style.sums == Sums::above) {
            auto below = std::exchange(rows, {});
            sumUp({});
            rows.insert(rows.end(), below.begin(), below.end());
        } else if (m_style.sums != Sums::none && m_style.sums != Sums::footer) {
            sumUp(m_style.sums == Sums::byClub ? " (6)" : "");
        } else if (m_style.sums == Sums::footer) {
            rows.push_back({});
            rows.push_back({"* values marked are estimated"});
            std::vector<std::string> pairs(m_headings.size());
            pairs[0] = "Exported by";
            pairs[1] = "Runa Veld";
            rows.push_back(pairs);
        }
        if (m_style.clubs == Clubs::aboveTable)
            for (TrueShot& shot : m_file.shots)
                shot.club = "Moss 44";
        grid.rows = std::move(rows);
    }

    std::string above() const {
        return m_style.clubs == Clubs::aboveTable ? words.at(m_style.tongue).club + ": Moss 44" : std::string();
    }

    const Style& m_style;
    Random m_random;
    MadeFile m_file;
    std::vector<std::string> m_headings;
    std::size_t m_clubColumn = 0;
};

template<std::size_t N> std::string nameAt(const std::array<const char*, N>& names, std::size_t at) {
    return names.at(at);
}

} // namespace

std::string named(const Style& style) {
    const std::array<const char*, 9> tongues = {"english", "german", "french",   "spanish", "italian",
                                                "swedish", "dutch",  "japanese", "korean"};
    const std::array<const char*, 9> signs = {"minus",        "trueMinus",       "enDash",
                                              "letterBehind", "letterBefore",    "besideIt",
                                              "inHeading",    "turnedInHeading", "words"};
    const std::array<const char*, 7> sums = {"none", "below", "above", "byClub", "unnamed", "footer", "dashes"};
    const std::array<const char*, 3> orders = {"asStruck", "newestFirst", "fallingNumbers"};
    const std::array<const char*, 5> clubs = {"named", "sameBesideShaft", "byLoft", "grouped", "aboveTable"};
    const std::array<const char*, 8> times = {"none",   "iso",         "epoch",      "millis",
                                              "serial", "twelveHours", "twoColumns", "unmarked"};
    const std::array<const char*, 13> forms = {
        "comma",       "semicolonComma",  "tabs",          "blanks", "jsonArray", "jsonLines", "html", "xmlWorkbook",
        "acrossTable", "besideEachOther", "otherHeadings", "utf16",  "codePage"};
    const std::array<const char*, 11> wrongs = {"nothing",          "zeroRow",       "zeroSpin",      "minus9999",
                                                "thousandsByPoint", "swappedSpeeds", "swappedAngles", "apexInFeet",
                                                "turnedSides",      "marks",         "oneBadCell"};
    std::string text;
    auto add = [&](const std::string& word, bool isUsual) {
        if (!isUsual)
            text += (text.empty() ? "" : ", ") + word;
    };
    auto at = [](auto value) { return static_cast<std::size_t>(value); };
    add(nameAt(tongues, at(style.tongue)), false);
    add("signs " + nameAt(signs, at(style.signs)), at(style.signs) == 0);
    add("sums " + nameAt(sums, at(style.sums)), at(style.sums) == 0);
    add("order " + nameAt(orders, at(style.order)), at(style.order) == 0);
    add("clubs " + nameAt(clubs, at(style.clubs)), at(style.clubs) == 0);
    add("times " + nameAt(times, at(style.times)), at(style.times) == 0);
    add("form " + nameAt(forms, at(style.form)), at(style.form) == 0);
    add("wrong " + nameAt(wrongs, at(style.wrong)) + (style.wrong == Wrong::marks ? " " + style.mark : ""),
        at(style.wrong) == 0);
    add("imperial", style.measures == Measures::metric);
    add("capitals", !style.capitals);
    return text;
}

MadeFile madeFile(const Style& style, std::uint64_t seed) {
    return Writer(style, seed).file();
}

} // namespace knot::test
