#include "core/ask/plan_sentence.h"

#include "core/plan/planner.h"
#include "core/plan/strike_off.h"
#include "core/record/control.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/amount.h"
#include "core/record/typed/club_names.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace knot::ask {

using record::Blinding;
using record::Declared;
using record::Plan;
using record::Schedule;
using record::Sees;
using record::Test;

namespace {

constexpr std::array orders = {
    std::pair{Schedule::rotated, "rotated laps"}, std::pair{Schedule::sandwich, "a sandwich"},
    std::pair{Schedule::shotByShot, "laps, shot by shot"}, std::pair{Schedule::oneRunEach, "one run each"},
    std::pair{Schedule::strikingOff, "laps that strike off"}};
constexpr std::array seeing = {std::pair{Sees::nobody, "nobody"}, std::pair{Sees::fitter, "the fitter"},
                               std::pair{Sees::everyone, "everyone"}};
constexpr std::array usualChanges = {std::pair{10, "both in the bag"}, std::pair{40, "an adapter"},
                                     std::pair{180, "a shaft to be fitted"}};

std::string seconds(double value) {
    return record::fixed(value, 0) + " s";
}

std::string minutes(double value) {
    return record::fixed(value, std::fabs(value - std::round(value)) < 0.01 ? 0 : 1);
}

// "three shafts": what is hit, as far as its kind has a word of its own.
std::string clubsText(const Test& test) {
    constexpr std::array counts = {"no", "one", "two", "three", "four", "five", "six", "seven", "eight"};
    const std::size_t n = test.builds.size();
    const char* kind = test.card.kind == record::TestKind::shaft  ? "shaft"
                       : test.card.kind == record::TestKind::head ? "head"
                       : test.card.kind == record::TestKind::grip ? "grip"
                       : test.card.kind == record::TestKind::ball ? "ball"
                                                                  : "club";
    return (n < counts.size() ? counts.at(n) : std::to_string(n)) + " " + kind + (n == 1 ? "" : "s");
}

std::string changeText(double value) {
    const auto at =
        std::ranges::find_if(usualChanges, [&](const auto& one) { return std::fabs(one.first - value) < 0.5; });
    return seconds(value) + (at == usualChanges.end() ? "" : " (" + std::string(at->second) + ")");
}

std::string gradeText(Blinding grade, const Declared& of) {
    const std::string player = of.players.size() == 1 ? of.players.front().name : "the player";
    switch (grade) {
    case Blinding::open:
        return "everybody knows the clubs";
    case Blinding::readingBlind:
        return "the reading is blind";
    case Blinding::playerBlind:
        return player + " is blind";
    case Blinding::bothBlind:
        return player + " and the fitter are blind";
    }
    return {};
}

Sees& seenOf(Declared& test, Part part) {
    auto& v = test.card.visibility;
    return part == Part::seesShots ? v.shots : part == Part::seesAverages ? v.averages : v.comparisons;
}

template<typename All> std::string textIn(const All& all, auto value) {
    return std::ranges::find(all, value, [](const auto& one) { return one.first; })->second;
}

class Words {
public:
    explicit Words(const Test& test)
        : m_test(test)
        , m_plan(test.plan) {}

    std::vector<Piece> all() {
        struck();
        pace();
        secrecy();
        return std::move(m_pieces);
    }

private:
    void words(const std::string& text) { m_pieces.push_back({text}); }
    void chip(Part part, const std::string& text, std::size_t at = 0, const std::string& hint = {}) {
        m_pieces.push_back({text.empty() ? hint : text, Chip{part, at}, text.empty()});
    }

    void struck() {
        const auto coming = plan::foreseen(m_test);
        words("In");
        chip(Part::minutes, record::fixed(plan::minutesOf(m_plan, coming.turns), 0) + " minutes");
        words(clubsText(m_test) + (m_test.builds.size() == 1 ? " is hit in" : " are hit in"));
        chip(Part::order, textIn(orders, m_plan.schedule));
        words(":");
        if (m_plan.schedule != Schedule::oneRunEach) {
            chip(Part::laps, record::counted(static_cast<std::size_t>(m_plan.rounds), "lap"));
            words("of");
        }
        if (m_plan.schedule == Schedule::shotByShot)
            words("one shot");
        else
            chip(Part::stint, record::counted(static_cast<std::size_t>(m_plan.turnLength), "shot"));
        words(", after");
        chip(Part::warmUp, m_plan.warmUp > 0 ? std::to_string(m_plan.warmUp) + " to warm up" : "no warm-up");
        words(".");
    }

    void pace() {
        words("A change takes");
        chip(Part::change, changeText(m_plan.changeSeconds));
        for (std::size_t i = 0; i < m_plan.changeTimes.size(); ++i) {
            words(i == 0 ? ", but" : ",");
            chip(Part::slower, slowerText(i), i);
        }
        words(", a shot");
        chip(Part::shot, seconds(m_plan.shotSeconds));
        words(m_plan.restEvery > 0 ? "; after" : ";");
        chip(Part::restEvery, m_plan.restEvery > 0 ? std::to_string(m_plan.restEvery) + " swings" : "no rest");
        if (m_plan.restEvery > 0) {
            words("a rest of");
            chip(Part::rest, minutes(m_plan.restSeconds / 60) + " min");
        }
        words(".");
    }

    void secrecy() {
        const record::Card& card = m_test.card;
        chip(Part::grade, record::upperFirst(gradeText(card.blinding, m_test)));
        if (card.blinding != Blinding::open) {
            words(",");
            chip(Part::handsOver, card.alone ? "nobody" : "a helper");
            words("hands over");
            if (!m_test.seal.wasMade()) {
                words(", the tags say");
                chip(Part::tags, tagsText(), 0, "Fern, Slate, Ochre, …");
            }
        }
        words("; comparisons are for");
        chip(Part::seesComparisons, textIn(seeing, card.visibility.comparisons));
        words(", averages for");
        chip(Part::seesAverages, textIn(seeing, card.visibility.averages));
        words(", shots for");
        chip(Part::seesShots, textIn(seeing, card.visibility.shots));
        words("; it ends after");
        chip(Part::looks, card.looks == record::Looks::eachRound ? "any lap" : "the last lap");
        words(".");
        if (m_test.builds.size() > 2 && !m_test.seal.isClosed())
            chip(Part::slower, {}, m_plan.changeTimes.size(), "+ a change that takes longer");
    }

    std::string slowerText(std::size_t at) const {
        const record::ChangeTime& time = m_plan.changeTimes[at];
        const auto name = [&](record::BuildAt build) {
            return build < m_test.builds.size() ? m_test.builds[build].name : std::string("?");
        };
        return name(time.a) + " / " + name(time.b) + " " + seconds(time.seconds);
    }

    std::string tagsText() const {
        std::string text;
        for (const std::string& word : m_plan.tagWords)
            text += (text.empty() ? "" : ", ") + word;
        return text;
    }

    const Test& m_test;
    const Plan& m_plan;
    std::vector<Piece> m_pieces;
};

// What is typed into a chip of numbers: one number, with the unit and the words that may stand beside it.
class TypedOfPlan {
public:
    TypedOfPlan(const Chip& chip, const std::string& text, const Test& test, const Known& known)
        : m_chip(chip)
        , m_text(text)
        , m_test(test)
        , m_known(known) {}

    tl::expected<Edit, std::string> edit() const {
        switch (m_chip.part) {
        case Part::minutes:
            return inMinutes();
        case Part::laps:
            return whole(1, mostLaps, [](Plan& plan, int n) { plan.rounds = n; });
        case Part::stint:
            return whole(1, longestStint, [](Plan& plan, int n) { plan.turnLength = n; });
        case Part::warmUp:
            return whole(0, 100, [](Plan& plan, int n) { plan.warmUp = n; });
        case Part::restEvery:
            return whole(0, 500, [](Plan& plan, int n) { plan.restEvery = n; });
        case Part::change:
            return time(record::Unit::s, 0, 3600, [](Plan& plan, double s) { plan.changeSeconds = s; });
        case Part::shot:
            return time(record::Unit::s, 1, 600, [](Plan& plan, double s) { plan.shotSeconds = s; });
        case Part::rest:
            return time(record::Unit::min, 0, 3600, [](Plan& plan, double s) { plan.restSeconds = s; });
        case Part::slower:
            return slower();
        case Part::tags:
            return Edit([words = record::namesIn(m_text, {})](Declared& test) { test.plan.tagWords = words; });
        default:
            return refused("“" + m_text + "” is not among what can stand here; the down arrow shows it all.");
        }
    }

private:
    // In internal units; words beside the number say nothing, a second number is one too many.
    tl::expected<double, std::string> number(record::Quantity quantity, record::Unit usual) const {
        std::optional<double> value;
        record::Unit unit = usual;
        const auto pieces = record::piecesIn(m_text, m_known.mark);
        for (const record::Piece& piece : pieces)
            if (record::lowerCase(piece.text).starts_with("minute"))
                unit = record::Unit::min;
        for (const record::Piece& piece : pieces) {
            if (piece.fault)
                return refused(record::whyNoNumber(piece.text, *piece.fault));
            if (!piece.amount)
                continue;
            if (value)
                return refused("One number belongs here.");
            const auto taken = record::valueOf(piece, quantity, unit);
            if (!taken)
                return taken;
            value = *taken;
        }
        if (!value)
            return refused(pieces.empty() ? "A number is needed here." : "“" + m_text + "” is not a number.");
        return *value;
    }

    template<typename Put> tl::expected<Edit, std::string> whole(int low, int high, Put put) const {
        const std::string said = record::lowerCase(m_text);
        const bool isNone = low == 0 && (said == "no" || said == "none" || said == "never" || said.starts_with("no "));
        const auto value = isNone ? 0.0 : number(record::Quantity::ratio, record::Unit::one);
        if (!value)
            return refused(value.error());
        if (*value != std::round(*value))
            return refused("Only whole numbers here.");
        if (*value < low || *value > high)
            return refused("From " + std::to_string(low) + " to " + std::to_string(high) + ".");
        return Edit([n = static_cast<int>(*value), put](Declared& test) { put(test.plan, n); });
    }

    template<typename Put>
    tl::expected<Edit, std::string> time(record::Unit usual, double low, double high, Put put) const {
        const auto value = number(record::Quantity::time, usual);
        if (!value)
            return refused(value.error());
        const double one = usual == record::Unit::min ? 60 : 1;
        if (*value < low || *value > high)
            return refused("From " + record::fixed(low / one, 0) + " to " + record::fixed(high / one, 0) +
                           (one > 1 ? " minutes." : " seconds."));
        return Edit([s = *value, put](Declared& test) { put(test.plan, s); });
    }

    // As many laps as fit; of one run each as many shots.
    tl::expected<Edit, std::string> inMinutes() const {
        const auto value = number(record::Quantity::time, record::Unit::min);
        if (!value)
            return refused(value.error());
        const Plan& plan = m_test.plan;
        const bool isRun = plan.schedule == Schedule::oneRunEach;
        const plan::Question question{.builds = std::max<std::size_t>(m_test.builds.size(), 2)};
        const plan::Pace pace = plan::paceOf(plan);
        int fits = 0;
        const int most = isRun ? longestStint : mostLaps;
        const double players = std::max(1.0, static_cast<double>(m_test.players.size())); // each has laps of their own
        const auto takes = [&](int n) {
            return players * plan::minutesFor(question, pace, isRun ? 1 : n, isRun ? n : plan::shotsATurn(plan));
        };
        while (fits < most && takes(fits + 1) <= *value / 60 + 0.5)
            ++fits;
        if (fits == 0)
            return refused("Not one lap with every club fits into " + minutes(*value / 60) + " minutes.");
        return Edit([fits, isRun](Declared& test) { (isRun ? test.plan.turnLength : test.plan.rounds) = fits; });
    }

    // Clubs by their whole names, else by words that their names are or begin with.
    std::set<std::size_t> clubsMeant() const {
        const std::string said = " " + record::lowerCase(m_text) + " ";
        std::set<std::size_t> whole;
        std::set<std::size_t> begun;
        const auto words = record::piecesIn(m_text, m_known.mark);
        for (record::BuildAt b; b < m_test.builds.size(); ++b) {
            const std::string name = record::lowerCase(m_test.builds[b].name);
            if (said.find(" " + name + " ") != std::string::npos)
                whole.insert(static_cast<std::size_t>(b));
            for (const record::Piece& word : words)
                if (const std::string one = record::lowerCase(word.text);
                    !word.amount && (one == name || (one.size() > 1 && name.starts_with(one))))
                    begun.insert(static_cast<std::size_t>(b));
        }
        return whole.size() == 2 ? whole : begun;
    }

    // "Alder / Larch 120": two clubs by their names or what begins them, and how long. Alone with no number it goes.
    tl::expected<Edit, std::string> slower() const {
        const std::set<std::size_t> meant = clubsMeant();
        if (meant.size() != 2)
            return refused("Two clubs and their seconds belong here: “" + m_test.builds[record::BuildAt(0)].name +
                           " / " + m_test.builds[record::BuildAt(1)].name + " 120”.");
        const auto last = m_text.find_last_of(" /");
        const std::string behind = last == std::string::npos ? m_text : m_text.substr(last + 1);
        const bool isUnit = record::lowerCase(behind) == "s" || record::lowerCase(behind) == "min";
        const auto before = isUnit ? m_text.find_last_of(" /", last - 1) : last;
        const auto value =
            record::valueTyped(m_text.substr(before + 1), {record::Quantity::time, record::Unit::s}, m_known.mark);
        if (!value)
            return refused(value.error());
        if (*value < 0 || *value > 3600)
            return refused("From 0 to 3600 seconds.");
        const record::BuildAt a(*meant.begin());
        const record::BuildAt b(*meant.rbegin());
        return Edit([a, b, s = *value, at = m_chip.at](Declared& test) {
            auto& times = test.plan.changeTimes;
            if (at < times.size())
                times.erase(times.begin() + static_cast<std::ptrdiff_t>(at));
            std::erase_if(times, [&](const auto& one) { return one.a == a && one.b == b; });
            times.push_back({a, b, s});
        });
    }

    const Chip& m_chip;
    std::string m_text;
    const Test& m_test;
    const Known& m_known;
};

} // namespace

std::vector<Piece> planSentenceOf(const Test& test) {
    return Words(test).all();
}

bool standsOncePlanned(Part part) {
    return part == Part::minutes || part == Part::order || part == Part::laps || part == Part::stint ||
           part == Part::slower;
}

std::vector<Answer> planAnswers(const Chip& chip, const Test& test, const Known& known) {
    std::vector<Answer> answers;
    auto add = [&](const std::string& text, Edit edit) { answers.push_back({text, std::move(edit)}); };
    switch (chip.part) {
    case Part::order:
        for (const auto& [schedule, text] : orders)
            add(text, [schedule = schedule](Declared& of) { of.plan.schedule = schedule; });
        break;
    case Part::change: {
        auto offer = [&](double takes, const std::string& what) {
            add(seconds(takes) + " (" + what + ")", [takes](Declared& of) { of.plan.changeSeconds = takes; });
        };
        for (const auto& [takes, what] : usualChanges)
            offer(takes, what);
        if (known.changeSeconds)
            offer(std::round(*known.changeSeconds), "as in earlier tests");
        break;
    }
    case Part::grade:
        for (const Blinding grade :
             {Blinding::open, Blinding::readingBlind, Blinding::playerBlind, Blinding::bothBlind})
            if (grade < Blinding::playerBlind || record::whyVisible(test.card.kind).empty())
                add(gradeText(grade, test), [grade](Declared& of) { of.card.blinding = grade; });
        break;
    case Part::handsOver:
        add("a helper", [](Declared& of) { of.card.alone = false; });
        add("nobody: the player is alone", [](Declared& of) { of.card.alone = true; });
        break;
    case Part::seesComparisons:
    case Part::seesAverages:
    case Part::seesShots:
        for (const auto& [sees, text] : seeing)
            add(text, [sees = sees, part = chip.part](Declared& of) { seenOf(of, part) = sees; });
        break;
    case Part::looks:
        add("the last lap", [](Declared& of) { of.card.looks = record::Looks::none; });
        add("any lap, at a look that counts", [](Declared& of) { of.card.looks = record::Looks::eachRound; });
        break;
    default:
        break; // said by typing alone
    }
    return answers;
}

tl::expected<Edit, std::string> planTaken(const Chip& chip, const std::string& text, const Test& test,
                                          const Known& known) {
    const std::string said(record::trimmed(text));
    if (said.empty() && chip.part == Part::slower)
        return Edit([at = chip.at](Declared& of) {
            auto& times = of.plan.changeTimes;
            if (at < times.size())
                times.erase(times.begin() + static_cast<std::ptrdiff_t>(at));
        });
    if (said.empty() && chip.part == Part::tags)
        return Edit([](Declared& of) { of.plan.tagWords.clear(); });
    if (chip.part == Part::grade && !record::whyVisible(test.card.kind).empty() &&
        record::lowerCase(said).find("blind") != std::string::npos &&
        record::lowerCase(said).find("read") == std::string::npos)
        return refused(record::whyVisible(test.card.kind));
    const auto answers = planAnswers(chip, test, known);
    // A number that is typed for a change is that number, not an answer that begins with its figures.
    const bool isNumber = chip.part == Part::change && said.find_first_not_of("0123456789., smin") == std::string::npos;
    if (const auto meant = isNumber ? std::vector<Answer>() : found(answers, said); !meant.empty())
        return meant.front().edit;
    return TypedOfPlan(chip, said, test, known).edit();
}

} // namespace knot::ask
