#include "core/ask/outcomes.h"
#include "core/ask/usual_outcomes.h"
#include "core/record/text/number_text.h"
#include "core/record/text/numbers_in.h"
#include "core/record/text/order_text.h"
#include "core/record/text/shape_text.h"
#include "core/record/text/text.h"

#include <algorithm>

namespace knot::ask {

using record::Build;
using record::Card;
using record::Comparison;
using record::lowerCase;
using record::Metric;
using record::MetricFormat;
using record::numbersIn;
using record::Outcome;
using record::OutcomeKind;
using record::Test;
using record::TestKind;
using record::trimmed;
using record::Want;

namespace {

tl::unexpected<std::string> refused(std::string why) {
    return tl::unexpected<std::string>(std::move(why));
}

// The number that some letters begin, those that people ask for first.
std::optional<Metric> metricMeant(const std::string& letters) {
    const auto begins = [&](Metric metric) {
        return lowerCase(record::info(metric).label).starts_with(lowerCase(letters));
    };
    if (letters.empty())
        return std::nullopt;
    for (const Metric metric : asked)
        if (begins(metric))
            return metric;
    const auto all = record::allMetrics();
    const auto other = std::ranges::find_if(all, begins);
    return other == all.end() ? std::nullopt : std::optional(*other);
}

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
            return Edit([text = m_text](Test& test) {
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
        }
        return refused("“" + m_text + "” is not among what can stand here; the down arrow shows it all.");
    }

    // Where a chip is emptied: a clause goes, what a test can't be without stays.
    tl::expected<Edit, std::string> gone() const {
        switch (m_chip.part) {
        case Part::player:
            return Edit([at = m_chip.at](Test& test) {
                if (at < test.players.size())
                    test.players.erase(test.players.begin() + static_cast<std::ptrdiff_t>(at));
                test.progress.player = record::PlayerAt();
            });
        case Part::outcome:
            return Edit([at = m_chip.at](Test& test) {
                auto& primary = test.card.primary;
                if (at < primary.size())
                    primary.erase(primary.begin() + static_cast<std::ptrdiff_t>(at));
            });
        case Part::causes:
            return Edit([](Test& test) { test.card.covariates.clear(); });
        case Part::along:
            return Edit([](Test& test) { test.card.trendColumn.clear(); });
        case Part::factor:
            return Edit([](Test& test) { test.card.factorColumn.clear(); });
        case Part::aim:
            return Edit([](Test& test) { test.card.aim.reset(); });
        case Part::shape:
            return Edit([at = m_chip.at](Test& test) { takeShapeBack(test.card, at); });
        case Part::against:
        case Part::tested:
        case Part::clubs:
        case Part::gap:
        case Part::another:
            break;
        }
        return Edit([](Test&) {});
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

    bool isOnRack(const std::string& name) const {
        return std::ranges::any_of(clubsOf(m_test),
                                   [&](const Build& build) { return lowerCase(build.name) == lowerCase(name); });
    }

    // A club of a new name joins the rack.
    tl::expected<Edit, std::string> baseline() const {
        if (m_test.seal.isClosed())
            return refused("The clubs are sealed; “" + m_text + "” can't join them.");
        return Edit([name = m_text](Test& test) {
            test.builds.push_back({.name = name});
            test.plan.turns.clear();
            test.card.comparison = Comparison::againstBaseline;
            test.card.baseline = name;
        });
    }

    tl::expected<Edit, std::string> clubs() const {
        if (m_test.seal.isClosed())
            return refused("The clubs are sealed; “" + m_text + "” can't join them.");
        std::vector<std::string> fresh;
        std::string name;
        auto take = [&] {
            const std::string one(trimmed(name));
            if (!one.empty() && !isOnRack(one) && std::ranges::find(fresh, one) == fresh.end())
                fresh.push_back(one);
            name.clear();
        };
        for (const char c : m_text)
            if (c == ',' || c == ';')
                take();
            else
                name += c;
        take();
        // What the chip itself shows is no new name.
        std::erase_if(fresh, [&](const std::string& one) { return mentionsClubs(one); });
        return Edit([fresh](Test& test) {
            for (const std::string& one : fresh)
                test.builds.push_back({.name = one});
            if (!fresh.empty())
                test.plan.turns.clear();
        });
    }

    bool mentionsClubs(const std::string& text) const {
        for (const char* joint : {" or ", " and "})
            if (const auto at = text.find(joint); at != std::string::npos)
                return isOnRack(text.substr(0, at)) && isOnRack(text.substr(at + std::string(joint).size()));
        return false;
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

    // "side near 0", "spin nearer 2400".
    tl::expected<Edit, std::string> near() const {
        const auto at = lowerCase(m_text).find("near");
        const auto numbers = numbersIn(m_text);
        if (at == std::string::npos || at == 0 || numbers.empty())
            return refused("“" + m_text +
                           "” is no outcome; the down arrow shows them all, and “carry near 150” "
                           "is one too.");
        const auto metric = metricMeant(std::string(trimmed(m_text.substr(0, at))));
        if (!metric)
            return refused("“" + m_text.substr(0, at) + "” is no number that a monitor gives.");
        const double value = MetricFormat(*metric, m_known.units).internal(numbers.front());
        return Edit([metric = *metric, value, place = m_chip.at](Test& test) {
            setOutcome(test.card, place, {.metric = metric, .shape = {}}, {Want::Kind::near, value});
        });
    }

    tl::expected<Edit, std::string> gap() const {
        const auto& primary = m_test.card.primary;
        const auto numbers = numbersIn(m_text);
        if (m_chip.at >= primary.size() || numbers.empty())
            return refused("A worthwhile gap is a number, such as 2.7.");
        const Outcome outcome = primary[m_chip.at];
        const double value = numbers.front();
        const bool isRatio = outcome.kind == OutcomeKind::spread || outcome.kind == OutcomeKind::area;
        if (outcome.kind == OutcomeKind::share)
            return refused("Of shares a tenth of all shots is what matters; that stays.");
        if (isRatio ? !(value > 1 && value <= 100) : !(value > 0 && value < 1e6))
            return refused(isRatio ? "A spread is worth it from a ratio above 1, such as 1.25."
                                   : "A worthwhile gap is more than 0.");
        return Edit([outcome, value, units = m_known.units](Test& test) {
            Card& card = test.card;
            if (outcome.kind == OutcomeKind::spread)
                card.sdRatioMargin = value;
            else if (outcome.kind == OutcomeKind::area)
                card.areaRatioMargin = value;
            else
                card.margins[outcome.metric] = MetricFormat(outcome.metric, units).internal(value);
        });
    }

    // A list says them all: what is not in it is left in.
    static tl::expected<Edit, std::string> listOfCauses(const std::string& text) {
        std::vector<Metric> list;
        std::string rest = lowerCase(text);
        for (const char* word : {" and ", ";"})
            for (auto at = rest.find(word); at != std::string::npos; at = rest.find(word))
                rest.replace(at, std::string(word).size(), ",");
        for (std::size_t from = 0; from <= rest.size();) {
            const auto to = std::min(rest.find(',', from), rest.size());
            const std::string one(trimmed(rest.substr(from, to - from)));
            from = to + 1;
            if (one.empty())
                continue;
            const auto* const cause = std::ranges::find_if(
                causes, [&](Metric metric) { return lowerCase(record::info(metric).label).starts_with(one); });
            if (cause == causes.end())
                return refused("“" + one +
                               "” can't be taken out; club speed, strike height, strike toe–heel, "
                               "attack, path and face can.");
            list.push_back(*cause);
        }
        return Edit([list](Test& test) { test.card.covariates = list; });
    }

    tl::expected<Edit, std::string> shape(const std::string& text, std::size_t at) const {
        auto said = record::shapeFromText(text, m_known.units);
        if (!said)
            return refused(said.error());
        const auto& shapes = m_test.card.shapes;
        const auto twin = std::ranges::find(shapes, said->name, &record::Shape::name);
        if (twin != shapes.end() && static_cast<std::size_t>(twin - shapes.begin()) != at)
            return refused("That shape is there already.");
        return Edit([shape = *said, at](Test& test) {
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

    // "150", "150, 4 left", "150 m, 4 right".
    tl::expected<Edit, std::string> aim(const std::string& text) const {
        const auto numbers = numbersIn(text);
        const MetricFormat format(Metric::carry, m_known.units);
        if (numbers.empty() || !(numbers.front() > 0))
            return refused("An aim is how far out it lies, such as 150, or “150, 4 left”.");
        record::Aim aim{.carry = format.internal(numbers.front())};
        if (numbers.size() > 1)
            aim.side = format.internal(numbers[1]) * (lowerCase(text).find("left") != std::string::npos ? -1 : 1);
        return Edit([aim](Test& test) { test.card.aim = aim; });
    }

    // A clause by what it begins with.
    tl::expected<Edit, std::string> clause() const {
        const auto words = wordsOf(m_text);
        auto after = [&](const char* word) {
            const auto at = lowerCase(m_text).find(word);
            return std::string(trimmed(m_text.substr(at + std::string(word).size())));
        };
        const auto& card = m_test.card;
        if (words.front() == "aimed" || words.front() == "aim" || words.front() == "at")
            return aim(m_text);
        if (words.front() == "on")
            return shape(after("on"), card.shapes.size());
        if (words.front() == "with" || words.front() == "without")
            return listOfCauses(after(words.front().c_str()));
        if (words.front() == "for")
            return Typed({Part::player, m_test.players.size()}, after("for"), m_test, m_known).edit();
        if (words.front() == "wanted") {
            auto window = windowFromText(after("wanted"), m_test, m_known.units);
            if (!window)
                return refused(window.error());
            return Edit([window = *window](Test& test) { test.card.targets.push_back(window); });
        }
        if (words.front() == "and" && lowerCase(m_text).find("near") != std::string::npos)
            return Typed({Part::outcome, card.primary.size()}, after("and"), m_test, m_known).edit();
        if (record::shapeFromText(m_text, m_known.units))
            return shape(m_text, card.shapes.size());
        if (words.front() == "and" && card.primary.size() >= mostOutcomes)
            return refused("Three outcomes are the most that one test can be judged by.");
        return refused("A clause begins with “and” (an outcome), “with” (causes taken out), “along”, “by”, “on” (a "
                       "shape), “aimed at”, “for” (a player) or “wanted”.");
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

tl::expected<Edit, std::string> taken(const Chip& chip, const std::string& text, const Test& test, const Known& known) {
    const std::string said(trimmed(text));
    if (said.empty())
        return Typed(chip, said, test, known).gone();
    if (findsByLetters(chip.part)) {
        const auto answers = answersFor(chip, test, known);
        const auto exact =
            std::ranges::find_if(answers, [&](const Answer& one) { return lowerCase(one.text) == lowerCase(said); });
        if (exact != answers.end())
            return exact->edit;
        // A name is taken as it is typed: Marit is not Marita. Causes are a list: what it does not say is left in.
        const bool isWhole = chip.part == Part::player || chip.part == Part::against || chip.part == Part::causes;
        if (const auto some = found(answers, said); !isWhole && !some.empty())
            return some.front().edit;
    }
    return Typed(chip, said, test, known).edit();
}

tl::expected<record::Target, std::string> windowFromText(const std::string& text, const Test& test,
                                                         const record::DisplayUnits& units) {
    std::string what(trimmed(text));
    record::Target target;
    if (const auto at = lowerCase(what).rfind(" for "); at != std::string::npos) {
        const auto order = record::orderFromText(what.substr(at + 5), clubsOf(test));
        if (!order)
            return refused(order.error());
        target.build = order->empty() ? std::string() : order->front();
        what = what.substr(0, at);
    }
    const auto figures = what.find_first_of("-0123456789");
    const auto metric = metricMeant(std::string(trimmed(what.substr(0, figures))));
    if (!metric || figures == std::string::npos)
        return refused("Say a window as “launch 12 to 15” or “descent 42 48 for Reed”.");
    auto range = what.substr(figures);
    if (const auto dash = range.find('-', 1);
        dash != std::string::npos && range[dash - 1] >= '0' && range[dash - 1] <= '9')
        range[dash] = ' '; // 12-15
    const auto numbers = numbersIn(range);
    if (numbers.empty() || numbers.size() > 2 || (numbers.size() == 2 && numbers[1] < numbers[0]))
        return refused("A window goes from one number to a larger one, as in “launch 12 to 15”.");
    const MetricFormat format(*metric, units);
    target.metric = *metric;
    target.low = format.internal(numbers.front());
    target.high = format.internal(numbers.back());
    return target;
}

std::string windowText(const record::Target& target, const record::DisplayUnits& units) {
    const MetricFormat format(target.metric, units);
    return record::info(target.metric).label + " " +
           (target.low == target.high ? format.withUnit(target.low)
                                      : format.number(target.low) + " to " + format.withUnit(target.high)) +
           (target.build.empty() ? "" : " for " + target.build);
}

} // namespace knot::ask
