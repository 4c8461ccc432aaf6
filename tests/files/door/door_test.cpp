// Files of every kind that people bring, and their crossings, compared shot by shot with what was struck: none is read
// wrong without a word. The files are made by made_file.
#include "files/door/made_file.h"

#include "files/import/shot_file.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <fstream>
#include <iostream>

using namespace knot;
using record::Metric;
using test::Style;

namespace {

enum class Outcome { exact, rightAndAsked, refused, wrongAndAsked, wrong };

struct Told {
    Outcome outcome = Outcome::exact;
    std::string why;
};

std::string differs(const files::ImportedTest& read, const test::MadeFile& made) {
    const auto& shots = read.test.shots;
    if (shots.size() != made.shots.size())
        return std::to_string(shots.size()) + " shots for " + std::to_string(made.shots.size());
    for (std::size_t i = 0; i < shots.size(); ++i) {
        const test::TrueShot& truth = made.shots[i];
        const std::string at = "shot " + std::to_string(i + 1) + ": ";
        if (read.test.builds.at(shots[i].build).name != truth.club)
            return at + "club " + read.test.builds.at(shots[i].build).name + " for " + truth.club;
        if (!truth.moment.empty() && !shots[i].takenAt.text().starts_with(truth.moment))
            return at + "time " + shots[i].takenAt.text() + " for " + truth.moment;
        for (const Metric metric : record::allMetrics()) {
            if (shots[i].readings.derived(metric))
                continue;
            const auto was = truth.readings.find(metric);
            const auto is = shots[i].readings.at(metric);
            if (is.has_value() != (was != truth.readings.end()))
                return at + record::info(metric).label + (is ? " read" : " not read");
            if (is && std::fabs(*is - was->second) > 1e-6 * (1 + std::fabs(was->second)))
                return at + record::info(metric).label + " " + std::to_string(*is) + " for " +
                       std::to_string(was->second);
        }
    }
    return {};
}

Told told(const test::MadeFile& made) {
    const auto read = files::readShots(
        made.name, made.bytes,
        {.clubs = files::ReadOptions::Clubs::unknown, .doubt = files::ReadOptions::Doubt::takeLikelier});
    if (!read)
        return {Outcome::refused, files::sentence(read.error())};
    std::string asked;
    for (const auto& column : read->columns)
        if (column.isAsked())
            asked += column.meaning.heading + ": " + column.question + " ";
    const std::string wrong = differs(*read, made);
    if (wrong.empty())
        return {asked.empty() ? Outcome::exact : Outcome::rightAndAsked, asked};
    return {asked.empty() ? Outcome::wrong : Outcome::wrongAndAsked, wrong + "; " + asked};
}

using namespace knot::test;

bool hasTitleRoom(Form form) {
    return form == Form::comma || form == Form::semicolonComma || form == Form::tabs || form == Form::html ||
           form == Form::xmlWorkbook || form == Form::utf16 || form == Form::blanks || form == Form::xlsx ||
           form == Form::ods;
}

// What no file could be, or what could be told by nobody.
bool canBe(const Style& style) {
    const bool isRows = style.form == Form::jsonArray || style.form == Form::jsonLines;
    const bool isApart =
        style.form == Form::acrossTable || style.form == Form::besideEachOther || style.form == Form::otherHeadings;
    if ((style.clubs == Clubs::grouped || style.clubs == Clubs::aboveTable) && !hasTitleRoom(style.form))
        return false;
    if ((isRows || isApart) && style.sums != Sums::none)
        return false;
    if (style.clubs == Clubs::grouped && (style.order != Order::asStruck || style.form == Form::blanks))
        return false;
    if (style.order == Order::newestFirst && style.times == Times::none)
        return false;
    if (isApart && style.order != Order::asStruck)
        return false;
    const bool isEastern = style.tongue == Tongue::japanese || style.tongue == Tongue::korean;
    if (style.form == Form::codePage &&
        (style.signs == Signs::trueMinus || (isEastern && style.signs == Signs::enDash)))
        return false;
    if (style.wrong == Wrong::apexInFeet && style.measures == Measures::imperial)
        return false;
    if (style.form == Form::semicolonComma && (style.wrong == Wrong::thousandsByPoint || style.times == Times::serial))
        return false;
    if (style.form == Form::blanks && (style.sums == Sums::footer || style.wrong == Wrong::marks))
        return false;
    // A file that names one club has no loft ladder, and a column of sides nothing to turn.
    return !(style.wrong == Wrong::turnedSides && style.signs == Signs::turnedInHeading);
}

// Each kind by itself in several tongues and both sets of units, then crossings drawn at random.
std::vector<Style> allStyles() {
    std::vector<Style> styles;
    auto add = [&](Style style) {
        if (canBe(style))
            styles.push_back(style);
    };
    const auto tongues = {Tongue::english, Tongue::german, Tongue::french,   Tongue::spanish, Tongue::italian,
                          Tongue::swedish, Tongue::dutch,  Tongue::japanese, Tongue::korean};
    for (const Tongue tongue : tongues)
        for (const bool capitals : {false, true})
            for (const Sums sums : {Sums::none, Sums::below})
                add({.tongue = tongue, .sums = sums, .capitals = capitals});
    for (int signs = 0; signs <= static_cast<int>(Signs::words); ++signs)
        for (const Measures measures : {Measures::metric, Measures::imperial})
            add({.signs = static_cast<Signs>(signs), .measures = measures});
    for (int sums = 0; sums <= static_cast<int>(Sums::dashes); ++sums)
        for (const Tongue tongue : {Tongue::english, Tongue::swedish, Tongue::korean})
            add({.tongue = tongue, .sums = static_cast<Sums>(sums)});
    for (int times = 1; times <= static_cast<int>(Times::unmarked); ++times)
        for (const Order order : {Order::asStruck, Order::newestFirst})
            add({.order = order, .times = static_cast<Times>(times)});
    add({.order = Order::fallingNumbers});
    for (int clubs = 0; clubs <= static_cast<int>(Clubs::aboveTable); ++clubs)
        for (const Tongue tongue : {Tongue::english, Tongue::french, Tongue::japanese})
            add({.tongue = tongue, .clubs = static_cast<Clubs>(clubs)});
    for (int form = 0; form <= static_cast<int>(Form::ods); ++form)
        for (const Tongue tongue : {Tongue::english, Tongue::german, Tongue::japanese, Tongue::korean})
            add({.tongue = tongue, .form = static_cast<Form>(form)});
    for (int wrong = 1; wrong <= static_cast<int>(Wrong::oneBadCell); ++wrong)
        for (const Form form : {Form::comma, Form::semicolonComma, Form::jsonArray, Form::html})
            add({.form = form, .wrong = static_cast<Wrong>(wrong)});
    for (const char* mark : {"***", "§", "n.a.", "k.A.", "...", "/", "#", "x", "·", "no value", "ungültig", "@@"})
        add({.wrong = Wrong::marks, .mark = mark});
    Random random(20330704);
    auto drawn = [&]<typename Kind>(Kind last, double usual) {
        return random.uniform() < usual ? Kind{} : static_cast<Kind>(random.below(static_cast<std::size_t>(last) + 1));
    };
    for (std::size_t drawnSo = 0; drawnSo < 300;) {
        const Style style{.tongue = drawn(Tongue::korean, 0.2),
                          .signs = drawn(Signs::words, 0.5),
                          .sums = drawn(Sums::dashes, 0.5),
                          .order = drawn(Order::fallingNumbers, 0.6),
                          .clubs = drawn(Clubs::aboveTable, 0.6),
                          .times = drawn(Times::unmarked, 0.5),
                          .form = drawn(Form::ods, 0.3),
                          .wrong = drawn(Wrong::oneBadCell, 0.6),
                          .measures = drawn(Measures::imperial, 0.3),
                          .mark = "***",
                          .capitals = random.uniform() < 0.2};
        if (!canBe(style))
            continue;
        styles.push_back(style);
        ++drawnSo;
    }
    return styles;
}

} // namespace

TEST_CASE("a file of any kind is read as it was struck, or a question says what is not sure") {
    std::size_t made = 0;
    std::size_t asWanted = 0;
    std::string silent;
    std::string others;
    for (const Style& style : allStyles()) {
        const auto file = madeFile(style, 7000 + made++);
        if (std::getenv("KNOT_KEEP_DOOR") != nullptr)
            std::ofstream("/tmp/door/last") << named(style) << "\n" << file.bytes;
        const Told found = told(file);
        const bool isWanted =
            found.outcome == Outcome::rightAndAsked || (found.outcome == Outcome::exact && !file.mustAsk);
        asWanted += isWanted ? 1 : 0;
        if (found.outcome == Outcome::wrong)
            silent += named(style) + ": " + found.why + "\n";
        else if (!isWanted)
            others += named(style) + ": " + found.why + "\n";
        else if (found.outcome == Outcome::rightAndAsked && !file.mustAsk)
            others += "(needless) " + named(style) + ": " + found.why + "\n";
        if (const char* folder = std::getenv("KNOT_KEEP_DOOR"); folder != nullptr && !isWanted) {
            std::ofstream(std::string(folder) + "/" + std::to_string(made) + "_" + file.name) << file.bytes;
            std::cerr << made << " " << named(style) << ": " << found.why << "\n";
        }
    }
    INFO(others);
    INFO(silent);
    CHECK(made >= 200);
    CHECK(silent.empty());
    CHECK(100 * asWanted >= 95 * made);
    if (std::getenv("KNOT_KEEP_DOOR") != nullptr)
        std::cerr << asWanted << " of " << made << "\n" << others;
}
