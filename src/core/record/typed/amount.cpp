#include "core/record/typed/amount.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace knot::record {
namespace {

struct UnitWords {
    Unit unit;
    std::string_view words; ///< between spaces
};

constexpr std::array<UnitWords, 16> unitWords = {{{Unit::ms, " m/s ms "},
                                                  {Unit::mph, " mph "},
                                                  {Unit::kmh, " km/h kmh kph "},
                                                  {Unit::m, " m metre metres meter meters "},
                                                  {Unit::yd, " yd yds yard yards "},
                                                  {Unit::ft, " ft foot feet ' ′ ’ "},
                                                  {Unit::deg, " ° deg degs degree degrees º "},
                                                  {Unit::rpm, " rpm "},
                                                  {Unit::mm, " mm "},
                                                  {Unit::in, " in inch inches \" ” ″ '' "},
                                                  {Unit::s, " s sec secs second seconds "},
                                                  {Unit::cm, " cm "},
                                                  {Unit::g, " g gr gram grams gramme grammes "},
                                                  {Unit::cm3, " cm³ cm3 ccm cc "},
                                                  {Unit::min, " min mins minute minutes "},
                                                  {Unit::percent, " % "}}};

struct QuantityWords {
    std::string_view what;
    std::array<std::optional<Unit>, 5> units; ///< that it may be typed in
};

// In the order of the enumeration.
constexpr std::array<QuantityWords, 11> quantityWords = {
    {{"a speed", {Unit::ms, Unit::mph, Unit::kmh}},
     {"a distance", {Unit::m, Unit::yd, Unit::ft}},
     {"a height", {Unit::m, Unit::ft, Unit::yd}},
     {"an angle", {Unit::deg}},
     {"a rate of spin", {Unit::rpm}},
     {"a ratio", {Unit::one, Unit::percent}},
     {"a place on the face", {Unit::mm, Unit::in, Unit::cm}},
     {"a time", {Unit::s, Unit::min}},
     {"a mass", {Unit::g}},
     {"a length", {Unit::mm, Unit::in, Unit::cm, Unit::ft, Unit::m}},
     {"a volume", {Unit::cm3}}}};

const QuantityWords& wordsOf(Quantity quantity) {
    return quantityWords[static_cast<std::size_t>(quantity)];
}

std::string quoted(std::string_view text) {
    return "“" + std::string(trimmed(text)) + "”";
}

// With a comma for decimals "2.400" may be a thousand too.
tl::expected<double, NumberFault> numberWritten(std::string_view figures, DecimalMark mark) {
    const auto number = numberIn(figures);
    if (!number && number.error() == NumberFault::ambiguous && mark != DecimalMark::open)
        return numberIn(figures, mark);
    const auto point = figures.find('.');
    const auto first = figures.find_first_of("0123456789");
    const bool isGroup = point != std::string_view::npos && figures.size() - point == 4 && point > first &&
                         point - first <= 3 && figures[first] != '0' &&
                         figures.find_first_of(",'.", point + 1) == std::string_view::npos;
    if (number && mark == DecimalMark::comma && isGroup && numberIn(figures, mark))
        return tl::unexpected(NumberFault::ambiguous);
    return number;
}

// Takes a line apart from its front.
class Scanner {
public:
    Scanner(std::string_view text, DecimalMark mark, Sides sides)
        : m_size(text.size())
        , m_left(text)
        , m_mark(mark)
        , m_sides(sides) {}

    std::vector<Piece> pieces() {
        while (skipJoints())
            if (!takeAmount())
                takeWord();
        return std::move(m_pieces);
    }

private:
    // White space, commas, semicolons, middle dots; false at the end.
    bool skipJoints() {
        while (!m_left.empty()) {
            std::size_t size = spaceAtStart(m_left);
            for (const std::string_view joint : {",", ";", "·"})
                if (m_left.starts_with(joint)) {
                    size = joint.size();
                    m_begins = m_begins || size == 1;
                }
            if (size == 0)
                return true;
            m_left.remove_prefix(size);
        }
        return false;
    }

    void put(Piece piece) {
        piece.begins = std::exchange(m_begins, false);
        piece.place = m_size - m_left.size();
        m_pieces.push_back(std::move(piece));
    }

    void takeWord() {
        std::size_t end = 0;
        while (!endsAt(m_left.substr(end)) || isDecimalAt(end))
            ++end;
        put({.text = std::string(m_left.substr(0, end))});
        m_left.remove_prefix(end);
    }

    // "D2,5": a comma inside a word's figures.
    bool isDecimalAt(std::size_t at) const {
        return at > 1 && at + 1 < m_left.size() && m_left[at] == ',' && isDigit(m_left[at - 1]) &&
               isDigit(m_left[at + 1]);
    }

    static std::size_t signAt(std::string_view text) {
        for (const std::string_view sign : {"-", "\u2212", "+"})
            if (text.starts_with(sign))
                return sign.size();
        return 0;
    }

    // Groups of three behind a mark that is no decimal one: an apostrophe, a thin or a fixed space.
    static std::size_t groupAt(std::string_view text) {
        for (const std::string_view mark : {"'", "’", "\u00a0", "\u2009", "\u202f"})
            if (text.starts_with(mark)) {
                const std::string_view digits = text.substr(mark.size(), 4);
                const bool isGroup = digits.size() >= 3 && isDigit(digits[0]) && isDigit(digits[1]) &&
                                     isDigit(digits[2]) && (digits.size() == 3 || !isDigit(digits[3]));
                return isGroup ? mark.size() + 3 : 0;
            }
        return 0;
    }

    // The length of the figures that a text begins with: digits, marks between digits.
    static std::size_t figuresAt(std::string_view text) {
        std::size_t end = 0;
        while (end < text.size()) {
            const char c = text[end];
            const bool isMark = (c == '.' || c == ',') && end + 1 < text.size() && isDigit(text[end + 1]);
            const std::size_t group = end > 0 ? groupAt(text.substr(end)) : 0;
            if (isDigit(c) || isMark)
                ++end;
            else if (group > 0)
                end += group;
            else
                break;
        }
        return end;
    }

    struct Fraction {
        double value = 0;
        std::size_t size = 0;
    };

    // "¼", or "1/4".
    static Fraction fractionAt(std::string_view text) {
        constexpr std::array<std::pair<std::string_view, double>, 7> signs = {
            {{"¼", 0.25}, {"½", 0.5}, {"¾", 0.75}, {"⅛", 0.125}, {"⅜", 0.375}, {"⅝", 0.625}, {"⅞", 0.875}}};
        for (const auto& [sign, value] : signs)
            if (text.starts_with(sign))
                return {value, sign.size()};
        const auto slash = text.find('/');
        if (slash == std::string_view::npos || slash == 0 || slash > 2)
            return {};
        std::size_t end = slash + 1;
        while (end < text.size() && isDigit(text[end]))
            ++end;
        const auto above = wholeIn(text.substr(0, slash));
        const auto below = wholeIn(text.substr(slash + 1, end - slash - 1));
        return above && below && *above < *below && *below <= 64 ? Fraction{double(*above) / *below, end} : Fraction{};
    }

    // A fraction behind a whole number: "42½", "42 1/4", "42-1/4".
    static Fraction fractionBehind(std::string_view text) {
        std::size_t gap = 0;
        while (gap < text.size() && (text[gap] == ' ' || text[gap] == '-'))
            ++gap;
        Fraction fraction = fractionAt(text.substr(gap));
        fraction.size += fraction.size > 0 ? gap : 0;
        return fraction;
    }

    // A unit right here, the longest that fits and ends there.
    static std::pair<std::optional<Unit>, std::size_t> unitAt(std::string_view text) {
        const std::size_t end = suffixAt(text);
        if (const auto unit = unitTyped(text.substr(0, end)))
            return {unit, end};
        return {std::nullopt, 0};
    }

    static std::pair<Side, std::size_t> sideAt(std::string_view text) {
        std::size_t end = 0;
        while (!endsAt(text.substr(end)))
            ++end;
        const std::string word = lowerCase(text.substr(0, end));
        if (word == "l" || word == "left")
            return {Side::left, end};
        if (word == "r" || word == "right")
            return {Side::right, end};
        return {Side::notSaid, 0};
    }

    static std::size_t spacesAt(std::string_view text) {
        std::size_t size = 0;
        while (const std::size_t space = spaceAtStart(text.substr(size)))
            size += space;
        return size;
    }

    // "12-15" and "20x12": what stands between two numbers.
    static std::size_t jointAt(std::string_view text) {
        for (const std::string_view joint : {"-", "–", "x", "×"})
            if (text.starts_with(joint) && text.size() > joint.size() && isDigit(text[joint.size()]))
                return joint.size();
        return 0;
    }

    // Where a word ends: at a space, a comma, a semicolon, a middle dot.
    static bool endsAt(std::string_view text) {
        return text.empty() || spaceAtStart(text) > 0 || text.front() == ',' || text.front() == ';' ||
               text.starts_with("·");
    }

    bool takeAmount() {
        const std::size_t sign = signAt(m_left);
        std::size_t end = sign + figuresAt(m_left.substr(sign));
        Amount amount;
        const Fraction own = fractionAt(m_left.substr(sign));
        if (own.size > 0) {
            end = sign + own.size;
            amount.value = sign > 0 && m_left.front() != '+' ? -own.value : own.value;
        } else if (end == sign) {
            return false;
        } else {
            const auto number = numberWritten(m_left.substr(0, end), m_mark);
            if (!number)
                return takeFaulty(end, number.error());
            amount.value = *number;
            const Fraction more = fractionBehind(m_left.substr(end));
            end += more.size;
            amount.value += std::signbit(amount.value) ? -more.value : more.value;
        }
        return takeBehind(amount, end);
    }

    // Figures that are no number: a word, unless a unit behind them says that they were to be one.
    bool takeFaulty(std::size_t end, NumberFault fault) {
        end += suffixAt(m_left.substr(end));
        const std::size_t gap = spacesAt(m_left.substr(end));
        const std::size_t unit = unitAt(m_left.substr(end + gap)).second;
        end += unit > 0 ? gap + unit : 0;
        Piece piece{.text = std::string(m_left.substr(0, end))};
        if (fault != NumberFault::notANumber || unit > 0)
            piece.fault = fault;
        put(std::move(piece));
        m_left.remove_prefix(end);
        return true;
    }

    // The unit and the side behind a number; false where letters behind it make it a word.
    bool takeBehind(Amount amount, std::size_t end) {
        const std::size_t attached = suffixAt(m_left.substr(end));
        std::optional<Unit> unit = unitAt(m_left.substr(end)).first;
        if (unit) {
            end += attached;
        } else if (attached > 0 && jointAt(m_left.substr(end)) == 0) {
            const auto [side, letters] = m_sides == Sides::read ? sideAt(m_left.substr(end)) : std::pair(Side(), 0UL);
            if (letters != attached)
                return false;
        } else if (attached == 0) {
            const std::size_t gap = spacesAt(m_left.substr(end));
            const auto [word, length] = unitAt(m_left.substr(end + gap));
            if (word && gap > 0) {
                unit = word;
                end += gap + length;
            }
        }
        amount.unit = unit;
        if (unit == Unit::ft)
            end += takeInches(amount, m_left.substr(end));
        std::optional<NumberFault> fault;
        if (m_sides == Sides::read) {
            const std::size_t gap = spacesAt(m_left.substr(end));
            if (const auto [side, length] = sideAt(m_left.substr(end + gap)); length > 0) {
                end += gap + length;
                const auto sided = onSide(amount.value, side);
                if (!sided)
                    fault = NumberFault::notANumber;
                amount = {sided.value_or(0), unit, side};
            }
        }
        Piece piece{.text = std::string(m_left.substr(0, end)), .amount = amount, .fault = fault};
        if (fault)
            piece.amount.reset();
        put(std::move(piece));
        m_left.remove_prefix(end);
        m_left.remove_prefix(jointAt(m_left));
        return true;
    }

    // The inches behind feet: 5'11", 5 ft 11 in.
    static std::size_t takeInches(Amount& amount, std::string_view text) {
        const std::size_t gap = spacesAt(text);
        const std::size_t end = gap + figuresAt(text.substr(gap));
        const auto inches = end > gap ? numberIn(text.substr(gap, end - gap)) : tl::unexpected(NumberFault::notANumber);
        if (!inches || *inches >= 12)
            return 0;
        const std::size_t space = spacesAt(text.substr(end));
        const auto [unit, size] = unitAt(text.substr(end + space));
        if (unit != Unit::in)
            return 0;
        amount.value += (std::signbit(amount.value) ? -1 : 1) * *inches / 12;
        return end + space + size;
    }

    // Letters and signs that stand right behind figures, up to the word's end, another figure or what joins to one.
    static std::size_t suffixAt(std::string_view text) {
        if (text.starts_with("cm3"))
            return 3;
        std::size_t end = 0;
        while (!endsAt(text.substr(end)) && !isDigit(text[end]) && (end == 0 || jointAt(text.substr(end)) == 0))
            ++end;
        return end;
    }

    std::size_t m_size;
    std::string_view m_left;
    DecimalMark m_mark;
    Sides m_sides;
    std::vector<Piece> m_pieces;
    bool m_begins = false;
};

} // namespace

std::optional<double> onSide(double value, Side side) {
    if (side == Side::right && std::signbit(value))
        return std::nullopt;
    return side == Side::left ? -std::fabs(value) : value;
}

std::optional<Unit> unitTyped(std::string_view word) {
    if (word.empty() || word.find(' ') != std::string_view::npos)
        return std::nullopt;
    const std::string wanted = " " + lowerCase(word) + " ";
    for (const UnitWords& one : unitWords)
        if (one.words.find(wanted) != std::string_view::npos)
            return one.unit;
    return std::nullopt;
}

std::vector<Piece> piecesIn(std::string_view text, DecimalMark mark, Sides sides) {
    return Scanner(text, mark, sides).pieces();
}

std::string whyNoNumber(std::string_view text, NumberFault fault) {
    if (fault == NumberFault::ambiguous)
        return quoted(text) + " can be read in two ways; write it without the mark between thousands.";
    return quoted(text) + " is not a number.";
}

namespace {

// What is converted to metres, while the lengths of clubs are in mm.
bool isMetres(Unit unit) {
    return unit == Unit::m || unit == Unit::ft;
}

} // namespace

tl::expected<double, std::string> valueOf(const Piece& piece, Quantity quantity, Unit usual) {
    if (!piece.amount)
        return tl::unexpected(whyNoNumber(piece.text, piece.fault.value_or(NumberFault::notANumber)));
    const Unit unit = piece.amount->unit.value_or(usual);
    const QuantityWords& words = wordsOf(quantity);
    if (std::ranges::find(words.units, std::optional(unit)) != words.units.end())
        return toInternal(piece.amount->value, unit) * (isMetres(unit) && quantity == Quantity::length ? 1000 : 1);
    std::string units;
    for (const auto& one : words.units)
        if (one && *one != Unit::one)
            units += (units.empty() ? "" : ", ") + std::string(symbol(*one));
    return tl::unexpected(quoted(piece.text) + " is not " + std::string(words.what) + "; that is in " + units +
                          ", or without a unit in what is shown.");
}

namespace {

// One piece that is no word, whatever stands around it.
tl::expected<Piece, std::string> onlyPiece(std::string_view text, DecimalMark mark, Sides sides) {
    // Blanks between thousands are marks where nothing else is said.
    if (const auto whole = numberWritten(trimmed(text), mark))
        return Piece{.text = std::string(trimmed(text)), .amount = Amount{.value = *whole}};
    else if (whole.error() != NumberFault::notANumber)
        return tl::unexpected(whyNoNumber(text, whole.error()));
    auto pieces = piecesIn(text, mark, sides);
    if (pieces.size() != 1)
        return tl::unexpected(whyNoNumber(text, NumberFault::notANumber));
    return std::move(pieces.front());
}

// The mark of decimals where thousands are out of the question.
DecimalMark markOf(std::string_view text, const Wanted& wanted, DecimalMark mark) {
    const bool hasComma = text.find(',') != std::string_view::npos;
    const bool hasPoint = text.find('.') != std::string_view::npos;
    if (wanted.hasThousands || hasComma == hasPoint)
        return mark;
    return hasComma ? DecimalMark::comma : DecimalMark::point;
}

} // namespace

Wanted wantedOf(Metric metric, const DisplayUnits& units) {
    const Quantity quantity = info(metric).quantity;
    const bool hasSides = metric == Metric::side || metric == Metric::curve || metric == Metric::launchDirection;
    return {quantity, displayUnit(quantity, units), hasSides ? Sides::read : Sides::words, quantity != Quantity::ratio};
}

tl::expected<double, std::string> valueTyped(std::string_view text, const Wanted& wanted, DecimalMark mark) {
    const auto piece = onlyPiece(text, markOf(text, wanted, mark), wanted.sides);
    return piece ? valueOf(*piece, wanted.quantity, wanted.usual) : tl::unexpected(piece.error());
}

tl::expected<double, std::string> valueTyped(std::string_view text, Metric metric, const Typing& typing) {
    return valueTyped(text, wantedOf(metric, typing.units), typing.mark);
}

tl::expected<double, std::string> numberTyped(std::string_view text, DecimalMark mark) {
    return valueTyped(text, Wanted{}, mark);
}

} // namespace knot::record
