#include "core/ask/outcomes.h"
#include "core/ask/plan_sentence.h"
#include "core/ask/usual_outcomes.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/amount.h"
#include "core/record/typed/club_names.h"
#include "core/record/typed/shape_text.h"

#include <algorithm>
#include <cctype>

namespace knot::ask {

using record::Build;
using record::Card;
using record::Comparison;
using record::Declared;
using record::lowerCase;
using record::Metric;
using record::MetricFormat;
using record::Outcome;
using record::OutcomeKind;
using record::Test;
using record::TestKind;
using record::trimmed;
using record::Want;

namespace {

constexpr const char* mostAreDeclared = "Three outcomes are the most that one test can be judged by.";

// Text that is typed into a chip, where it is no answer.
class Typed {
public:
    Typed(const Chip& chip, std::string text, const Test& test, const Known& known)
        : m_chip(chip)
        , m_text(std::move(text))
        , m_test(test)
        , m_known(known) {}

    tl::expected<Edit, std::string> edit() const {
        switch (m_chip.part) {
        case Part::against:
            return baseline();
        case Part::tested:
            return Edit([text = m_text](Declared& test) {
                setKind(test.card, TestKind::own);
                test.card.factor = text;
            });
        case Part::clubs:
            return clubs();
        case Part::player:
            return player(m_chip.at);
        case Part::outcome:
            return near();
        case Part::gap:
            return gap();
        case Part::causes:
            return listOfCauses(m_text);
        case Part::shape:
            return shape(m_text, m_chip.at);
        case Part::aim:
            return aim(m_text);
        case Part::along:
        case Part::factor:
            break;
        case Part::another:
            return clause();
        default:
            break;
        }
        return refused("“" + m_text + "” is not among what can stand here; the down arrow shows it all.");
    }

    // Where a chip is emptied: a clause goes, what a test can't be without stays.
    tl::expected<Edit, std::string> gone() const {
        switch (m_chip.part) {
        case Part::player:
            return Edit([at = m_chip.at](Declared& test) {
                if (at < test.players.size())
                    test.players.erase(test.players.begin() + static_cast<std::ptrdiff_t>(at));
            });
        case Part::outcome:
            return Edit([at = m_chip.at](Declared& test) {
                auto& primary = test.card.primary;
                if (at < primary.size())
                    primary.erase(primary.begin() + static_cast<std::ptrdiff_t>(at));
            });
        case Part::causes:
            return Edit([](Declared& test) { test.card.covariates.clear(); });
        case Part::along:
            return Edit([](Declared& test) { test.card.trendColumn.clear(); });
        case Part::factor:
            return Edit([](Declared& test) { test.card.factorColumn.clear(); });
        case Part::aim:
            return Edit([](Declared& test) { test.card.aim.reset(); });
        case Part::shape:
            return Edit([at = m_chip.at](Declared& test) { takeShapeBack(test.card, at); });
        default:
            break;
        }
        return Edit([](Declared&) {});
    }

private:
    static void takeShapeBack(Card& card, std::size_t at) {
        if (at >= card.shapes.size())
            return;
        std::erase_if(card.primary, [&](const Outcome& outcome) {
            return outcome.kind == OutcomeKind::share && outcome.shape == card.shapes[at].name;
        });
        card.shapes.erase(card.shapes.begin() + static_cast<std::ptrdiff_t>(at));
    }

    const Build* onRack(const std::string& name) const {
        const auto& clubs = clubsOf(m_test);
        const auto at =
            std::ranges::find_if(clubs, [&](const Build& build) { return lowerCase(build.name) == lowerCase(name); });
        return at == clubs.end() ? nullptr : &*at;
    }

    // A club of a new name joins the rack; one that is there, or that the letters begin, is that one.
    tl::expected<Edit, std::string> baseline() const {
        if (m_test.seal.isClosed())
            return refused("The clubs are sealed; “" + m_text + "” can't join them.");
        const Build* meant = onRack(m_text);
        if (meant == nullptr && m_test.card.comparison == Comparison::whichOfThese)
            for (const Build& build : m_test.builds)
                if (lowerCase(build.name).starts_with(lowerCase(m_text)))
                    meant = &build;
        return Edit([name = m_text, who = meant != nullptr ? meant->who() : std::string()](Declared& test) {
            if (who.empty())
                test.builds.push_back({.name = name});
            test.card.comparison = Comparison::againstBaseline;
            test.card.baseline = who.empty() ? name : who;
        });
    }

    tl::expected<Edit, std::string> clubs() const {
        if (m_test.seal.isClosed())
            return refused("The clubs are sealed; “" + m_text + "” can't join them.");
        std::vector<std::string> known;
        for (const Build& build : clubsOf(m_test))
            known.push_back(build.name);
        std::vector<std::string> fresh;
        for (const std::string& name : record::namesIn(m_text, known))
            if (onRack(name) == nullptr && std::ranges::find(fresh, name) == fresh.end())
                fresh.push_back(name);
        return Edit([fresh](Declared& test) {
            for (const std::string& one : fresh)
                test.builds.push_back({.name = one});
        });
    }

    tl::expected<Edit, std::string> player(std::size_t at) const {
        const auto index = m_test.playerIndex(m_text);
        if (index && static_cast<std::size_t>(*index) != at)
            return refused(m_text + " is in this test already.");
        const auto kept = std::ranges::find_if(
            m_known.players, [&](const record::Player& one) { return lowerCase(one.name) == lowerCase(m_text); });
        const record::Player player = kept != m_known.players.end() ? *kept : record::Player{.name = m_text};
        return putPlayer(at, player);
    }

    // "side near 0", "spin nearer 2400", "carry near 150 yd".
    tl::expected<Edit, std::string> near() const {
        const auto at = lowerCase(m_text).find("near");
        if (at == std::string::npos || at == 0)
            return refused("“" + m_text +
                           "” is no outcome; the down arrow shows them all, and “carry near 150” "
                           "is one too.");
        const auto metric = words::numberMeant(std::string(trimmed(m_text.substr(0, at))));
        if (!metric)
            return refused("“" + m_text.substr(0, at) + "” is no number that a monitor gives.");
        const auto word = m_text.find(' ', at);
        const auto value =
            record::valueTyped(word == std::string::npos ? "" : m_text.substr(word), *metric, m_known.typing());
        if (!value)
            return refused(value.error());
        const Outcome outcome{.metric = *metric, .shape = {}};
        const auto& primary = m_test.card.primary;
        const auto twin = std::ranges::find(primary, outcome);
        if (m_chip.at >= primary.size()) {
            if (twin != primary.end())
                return refused("The " + record::info(*metric).label +
                               " is declared already; type “near” where it stands.");
            if (primary.size() >= mostOutcomes)
                return refused(std::string(mostAreDeclared));
        }
        return Edit([outcome, value = *value, place = m_chip.at](Declared& test) {
            setOutcome(test.card, place, outcome, {Want::Kind::near, value});
        });
    }

    // "2.7", "3 yd", "from 2.7 m", "1.25 times".
    tl::expected<Edit, std::string> gap() const {
        const auto& primary = m_test.card.primary;
        if (m_chip.at >= primary.size())
            return refused("A worthwhile gap is of an outcome; say that first.");
        const Outcome outcome = primary[m_chip.at];
        if (outcome.kind == OutcomeKind::share)
            return refused("Of shares a tenth of all shots is what matters; that stays.");
        std::string said = m_text;
        for (const char* filler : {"from ", "a gap of "})
            if (lowerCase(said).starts_with(filler))
                said = said.substr(std::string(filler).size());
        const bool isRatio = record::isRatio(outcome);
        if (isRatio && lowerCase(said).ends_with("times"))
            said = said.substr(0, said.size() - std::string("times").size());
        const auto value = isRatio ? record::numberTyped(said, m_known.mark)
                                   : record::valueTyped(said, outcome.metric, m_known.typing());
        if (!value)
            return refused(value.error());
        if (isRatio ? !(*value > 1 && *value <= 100) : !(*value > 0 && *value < 1e6))
            return refused(isRatio ? "A spread is worth it from a ratio above 1, such as 1.25."
                                   : "A worthwhile gap is more than 0.");
        return Edit([outcome, value = *value](Declared& test) {
            Card& card = test.card;
            if (outcome.kind == OutcomeKind::spread)
                card.sdRatioMargin = value;
            else if (outcome.kind == OutcomeKind::area)
                card.areaRatioMargin = value;
            else
                card.margins[outcome.metric] = value;
        });
    }

    // A list says them all: what is not in it is left in.
    static tl::expected<Edit, std::string> listOfCauses(const std::string& text) {
        std::vector<Metric> list;
        for (const std::string& name : record::namesIn(text, {})) {
            const std::string one = lowerCase(name);
            const auto* const cause = std::ranges::find_if(
                causes, [&](Metric metric) { return lowerCase(record::info(metric).label).starts_with(one); });
            if (cause == causes.end())
                return refused("“" + one +
                               "” can't be taken out; club speed, strike height, strike toe–heel, "
                               "attack, path and face can.");
            list.push_back(*cause);
        }
        return Edit([list](Declared& test) { test.card.covariates = list; });
    }

    tl::expected<Edit, std::string> shape(const std::string& text, std::size_t at) const {
        auto said = record::shapeFromText(text, m_known.typing());
        if (!said)
            return refused(said.error());
        const auto& shapes = m_test.card.shapes;
        const auto twin = std::ranges::find(shapes, said->name, &record::Shape::name);
        if (twin != shapes.end() && static_cast<std::size_t>(twin - shapes.begin()) != at)
            return refused("That shape is there already.");
        return Edit([shape = *said, at](Declared& test) {
            Card& card = test.card;
            if (at >= card.shapes.size())
                return card.shapes.push_back(shape);
            const std::string before = card.shapes[at].name;
            card.shapes[at] = shape;
            for (Outcome& outcome : card.primary)
                if (outcome.kind == OutcomeKind::share && outcome.shape == before)
                    outcome.shape = shape.name;
        });
    }

    // "150", "150, 4 left", "160 yd, 4 yd right".
    tl::expected<Edit, std::string> aim(const std::string& text) const {
        constexpr const char* examples = "An aim is how far out it lies, such as 150, or “150, 4 left”.";
        const auto pieces = record::piecesIn(text, m_known.mark, record::Sides::read);
        if (pieces.empty() || pieces.size() > 2)
            return refused(examples);
        std::vector<double> places;
        for (const auto& piece : pieces) {
            const auto place = record::valueOf(piece, record::Quantity::distance,
                                               displayUnit(record::Quantity::distance, m_known.units));
            if (!place)
                return refused(place.error());
            places.push_back(*place);
        }
        if (!(places.front() > 0))
            return refused(examples);
        const record::Aim aim{.carry = places.front(), .side = places.size() > 1 ? places.back() : 0};
        return Edit([aim](Declared& test) { test.card.aim = aim; });
    }

    // A clause by what it begins with.
    tl::expected<Edit, std::string> clause() const {
        const auto words = wordsOf(m_text);
        auto after = [&](const char* word) {
            const auto at = lowerCase(m_text).find(word);
            return std::string(trimmed(m_text.substr(at + std::string(word).size())));
        };
        const auto& card = m_test.card;
        constexpr const char* beginnings =
            "A clause begins with “and” (an outcome), “with” (causes taken out), “along”, “by”, “on” (a shape), "
            "“aimed at”, “for” (a player) or “wanted”.";
        if (words.empty())
            return refused(beginnings);
        if (words.front() == "aimed" || words.front() == "aim" || words.front() == "at")
            return aim(after(words.size() > 1 && words[1] == "at" ? "at" : words.front().c_str()));
        if (words.front() == "on")
            return shape(after("on"), card.shapes.size());
        if (words.front() == "with" || words.front() == "without")
            return listOfCauses(after(words.front().c_str()));
        if (words.front() == "for")
            return Typed({Part::player, m_test.players.size()}, after("for"), m_test, m_known).edit();
        if (words.front() == "wanted") {
            auto window = windowFromText(after("wanted"), m_test, m_known.typing());
            if (!window)
                return refused(window.error());
            return Edit([window = *window](Declared& test) { test.card.targets.push_back(window); });
        }
        if (words.front() == "and" && lowerCase(m_text).find("near") != std::string::npos)
            return Typed({Part::outcome, card.primary.size()}, after("and"), m_test, m_known).edit();
        if (record::shapeFromText(m_text, m_known.typing()))
            return shape(m_text, card.shapes.size());
        if (words.front() == "and" && card.primary.size() >= mostOutcomes)
            return refused(std::string(mostAreDeclared));
        return refused(beginnings);
    }

    Chip m_chip;
    std::string m_text;
    const Test& m_test;
    const Known& m_known;
};

// Whether letters may find an answer here: names that are typed for clubs are names, a gap is a number.
bool findsByLetters(Part part) {
    return part != Part::clubs && part != Part::gap && part != Part::shape && part != Part::aim;
}

} // namespace

namespace {

// "and straighter"
std::string withoutAnd(const std::string& said) {
    return lowerCase(said).starts_with("and ") ? std::string(trimmed(said.substr(4))) : said;
}

tl::expected<Edit, std::string> outcomeMeant(const words::Meant& meant, const Chip& chip, const Test& test) {
    const std::size_t at = chip.part == Part::another ? test.card.primary.size() : chip.at;
    if (at >= mostOutcomes)
        return refused(std::string(mostAreDeclared));
    return Edit([meant, at](Declared& declared) {
        setOutcome(declared.card, at, meant.outcome, {.kind = meant.want, .value = 0});
    });
}

} // namespace

tl::expected<Edit, std::string> taken(const Chip& chip, const std::string& text, const Test& test, const Known& known) {
    if (isOfPlan(chip.part))
        return planTaken(chip, text, test, known);
    const std::string said(trimmed(text));
    if (said.empty())
        return Typed(chip, said, test, known).gone();
    if (findsByLetters(chip.part)) {
        const auto answers = answersFor(chip, test, known);
        const auto exact =
            std::ranges::find_if(answers, [&](const Answer& one) { return lowerCase(one.text) == lowerCase(said); });
        if (exact != answers.end())
            return exact->edit;
        if (const auto meant = words::golfersWord(chip.part == Part::another ? withoutAnd(said) : said);
            meant && (chip.part == Part::outcome || chip.part == Part::another))
            return outcomeMeant(*meant, chip, test);
        // A name is taken as it is typed: Marit is not Marita. Causes are a list: what it does not say is left in.
        const bool isWhole = chip.part == Part::player || chip.part == Part::against || chip.part == Part::causes;
        if (const auto some = found(answers, said); !isWhole && !some.empty())
            return some.front().edit;
        if (const auto meant = words::meantBy(chip.part == Part::another ? withoutAnd(said) : said);
            meant && (chip.part == Part::outcome || chip.part == Part::another))
            return outcomeMeant(*meant, chip, test);
    }
    return Typed(chip, said, test, known).edit();
}

tl::expected<record::Target, std::string> windowFromText(const std::string& text, const Test& test,
                                                         const record::Typing& typing) {
    constexpr const char* examples = "Say a window as “launch 12 to 15” or “descent 42 48 for Reed”.";
    std::string what(trimmed(text));
    record::Target target;
    if (const auto at = lowerCase(what).rfind(" for "); at != std::string::npos) {
        const auto order = record::orderFromText(what.substr(at + 5), clubsOf(test));
        if (!order)
            return refused(order.error());
        const Build* club = order->empty() ? nullptr : test.buildCalled(order->front());
        target.build = club == nullptr ? std::string() : club->who();
        what = what.substr(0, at);
    }
    // The metric's words, then one amount or two.
    if (const auto figure = what.find_first_of("0123456789");
        figure != std::string::npos && figure > 0 && std::isalpha(static_cast<unsigned char>(what[figure - 1])))
        what.insert(figure, " "); // "l12"
    std::string label;
    std::vector<record::Piece> amounts;
    for (record::Piece& piece : record::piecesIn(what, typing.mark, record::Sides::read)) {
        const std::string word = lowerCase(piece.text);
        if (piece.amount || piece.fault)
            amounts.push_back(std::move(piece));
        else if (amounts.empty() && word != "from")
            label += (label.empty() ? "" : " ") + piece.text;
        else if (word != "to" && word != "from" && word != "and")
            return refused(examples);
    }
    const auto metric = words::numberMeant(label);
    if (!metric || amounts.empty() || amounts.size() > 2)
        return refused(examples);
    // "150 to 160 yd" is in yards at both ends.
    if (amounts.front().amount && amounts.back().amount && !amounts.front().amount->unit)
        amounts.front().amount->unit = amounts.back().amount->unit;
    const record::Quantity quantity = record::info(*metric).quantity;
    target.metric = *metric;
    for (double* end : {&target.low, &target.high}) {
        const auto value = record::valueOf(end == &target.low ? amounts.front() : amounts.back(), quantity,
                                           displayUnit(quantity, typing.units));
        if (!value)
            return refused(value.error());
        *end = *value;
    }
    if (target.high < target.low)
        return refused("A window goes from one number to a larger one, as in “launch 12 to 15”.");
    return target;
}

std::string windowText(const record::Target& target, const Declared& of, const record::DisplayUnits& units) {
    const MetricFormat format(target.metric, units);
    return record::info(target.metric).label + " " +
           (target.low == target.high ? format.withUnit(target.low)
                                      : format.number(target.low) + " to " + format.withUnit(target.high)) +
           (target.build.empty() ? "" : " for " + of.nameOf(target.build));
}

} // namespace knot::ask
