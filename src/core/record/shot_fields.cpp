#include "core/record/shot_fields.h"

#include "core/record/text/names.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>

namespace knot::record {
namespace {

using Kind = ShotField::Kind;
using In = ShotField::InShotFiles;

template<std::string Shot::*member>
constexpr ShotField textField(std::string_view key, std::string_view label, In inShotFiles) {
    return {key,
            label,
            Kind::text,
            inShotFiles,
            [](const Shot& shot) { return shot.*member; },
            [](Shot& shot, std::string_view text) {
                shot.*member = text;
                return true;
            },
            {},
            {}};
}

// "Set aside" and "set-aside" are set_aside.
std::string asName(std::string_view text) {
    std::string name = lowerCase(text);
    std::ranges::replace_if(
        name, [](char c) { return c == ' ' || c == '-'; }, '_');
    return name;
}

// A word of an enumeration; its first value is the one that says nothing.
template<auto member, const auto& names, bool isWritten = false>
constexpr ShotField wordField(std::string_view key, std::string_view label, In inShotFiles, std::string_view refused,
                              std::string_view expected) {
    using Value = std::remove_cvref_t<decltype(std::declval<Shot>().*member)>;
    return {key,
            label,
            Kind::word,
            inShotFiles,
            [](const Shot& shot) {
                return !isWritten && shot.*member == Value{} ? std::string() : std::string(nameOf(names, shot.*member));
            },
            [](Shot& shot, std::string_view text) {
                const auto value = text.empty() ? Value{} : valueNamed<Value>(names, asName(text));
                if (value)
                    shot.*member = *value;
                return value.has_value();
            },
            refused,
            expected};
}

constexpr ShotField handedOver{"handed_over",
                               "the hand-over",
                               Kind::flag,
                               In::before,
                               [](const Shot& shot) { return shot.handedOver ? std::string("1") : std::string(); },
                               [](Shot& shot, std::string_view text) {
                                   const std::string word = lowerCase(text);
                                   const bool yes = word == "1" || word == "yes" || word == "true";
                                   const bool no = word.empty() || word == "0" || word == "no" || word == "false";
                                   if (yes || no)
                                       shot.handedOver = yes;
                                   return yes || no;
                               },
                               "unknown hand-over",
                               "1, 0 or nothing"};

constexpr ShotField feel{"feel",
                         "the feel",
                         Kind::score,
                         In::after,
                         [](const Shot& shot) { return shot.feel > 0 ? std::to_string(shot.feel) : std::string(); },
                         [](Shot& shot, std::string_view text) {
                             const auto score = text.empty() ? 0 : wholeIn(text);
                             if (!score || *score > 10 || (*score < 1 && !text.empty()))
                                 return false;
                             shot.feel = *score;
                             return true;
                         },
                         "no feel score:",
                         "a whole number from 1 to 10, or nothing"};

constexpr ShotField takenAt{"taken_at",
                            "the time",
                            Kind::text,
                            In::after,
                            [](const Shot& shot) { return shot.takenAt.text(); },
                            [](Shot& shot, std::string_view text) {
                                shot.takenAt = Moment(std::string(text));
                                return true;
                            },
                            {},
                            {}};

constexpr std::array fields = {
    textField<&Shot::number>("shot", "the shot's number", In::before),
    textField<&Shot::sitting>("sitting", "the sitting", In::before),
    textField<&Shot::player>("player", "the player", In::before),
    textField<&Shot::round>("round", "the lap", In::before),
    textField<&Shot::turn>("turn", "the stint", In::before),
    handedOver,
    wordField<&Shot::mark, markNames>("mark", "a mark", In::before, "unknown mark", "club, player, day or nothing"),
    wordField<&Shot::status, statusNames, true>("status", "the status", In::after, "unknown status",
                                                "counted, set_aside, warm_up or nothing"),
    wordField<&Shot::setAsideWhen, setAsideWhenNames>("set_aside_when", "when it was set aside", In::after,
                                                      "unknown moment",
                                                      "called, by_rule, after_number, after_reveal or nothing"),
    textField<&Shot::reason>("reason", "the reason", In::after),
    takenAt,
    textField<&Shot::delivery>("delivery", "the delivery", In::after),
    wordField<&Shot::call, callNames>("called", "the player's call", In::after, "unknown call",
                                      "good, so_so, bad or nothing"),
    feel,
    textField<&Shot::note>("note", "a note", In::after),
    textField<&Shot::readId>("read_id", "its name at the monitor", In::never)};

} // namespace

std::span<const ShotField> shotFields() {
    return fields;
}

const ShotField* shotFieldNamed(std::string_view key) {
    const auto* const at = std::ranges::find(fields, key, &ShotField::key);
    return at == fields.end() ? nullptr : &*at;
}

} // namespace knot::record
