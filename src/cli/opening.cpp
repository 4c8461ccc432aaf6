#include "cli/opening.h"

#include "core/judge/may_see.h"
#include "core/record/check.h"
#include "core/record/text/text.h"
#include "files/base/file.h"
#include "files/test_json.h"

#include <algorithm>
#include <array>
#include <ctime>
#include <filesystem>
#include <iostream>
#include <sstream>

namespace knot::cli {

record::Test findTest(logbook::Logbook& book, const std::string& wanted) {
    for (const auto& entry : orRefuse(book.tests()))
        if (entry.id == wanted || entry.title == wanted)
            return orRefuse(book.load(entry.id));
    throw Refusal{logbook::sentence({logbook::ErrorKind::noSuchTest, book.path(), "'" + wanted + "'"})};
}

files::ReadOptions anybodysFile() {
    return {.clubs = files::ReadOptions::Clubs::unknown, .doubt = files::ReadOptions::Doubt::takeLikelier};
}

files::SecondPart secondPartNamed(const std::string& word) {
    using files::SecondPart;
    return word == "delivery" ? SecondPart::delivery
           : word == "player" ? SecondPart::player
           : word == "length" ? SecondPart::length
           : word == "tag"    ? SecondPart::tag
                              : SecondPart::none;
}

void addReading(CLI::App& command, ReadingFlags& flags) {
    command.add_flag("--explain", flags.explain, "Say what each column of a shot file was taken for");
    command.add_option("--split", flags.split, "What the second part of labels such as 'Fern - blue' is")
        ->check(CLI::IsMember({"tag", "delivery", "player", "length"}));
    command.add_option("--each", flags.each, "What each of several files is; else the likelier")
        ->check(CLI::IsMember({"club", "sitting"}));
    command.add_option("--units", flags.units, "m or yd and ms, mph or kmh, e.g. yd,mph; else the file's own");
}

namespace {

constexpr std::size_t largestInput = std::size_t{32} << 20;

std::string fromStandardInput() {
    std::string bytes;
    std::array<char, 1 << 16> block{};
    while (std::cin.read(block.data(), block.size()) || std::cin.gcount() > 0) {
        bytes.append(block.data(), static_cast<std::size_t>(std::cin.gcount()));
        if (bytes.size() > largestInput)
            throw Refusal{"What comes in is larger than 32 MiB; split it."};
    }
    return bytes;
}

// The files themselves; of a folder those in it, by name.
std::vector<std::string> withFolders(const std::vector<std::string>& files) {
    std::vector<std::string> all;
    for (const auto& file : files) {
        std::error_code status;
        if (!std::filesystem::is_directory(file, status)) {
            all.push_back(file);
            continue;
        }
        const auto inside = files::shotFilesIn(file);
        if (inside.empty())
            throw Refusal{file + " is a folder without shot files."};
        all.insert(all.end(), inside.begin(), inside.end());
    }
    return all;
}

files::ImportedTest openFile(const std::string& file, const files::ReadOptions& reading) {
    const bool comesIn = file == "-";
    auto bytes = comesIn ? files::Result<std::string>(fromStandardInput()) : files::readFile(file);
    if (!bytes)
        throw Refusal{files::sentence(bytes.error())};
    const std::filesystem::path path(file);
    const std::string name = comesIn ? "standard input" : path.filename().string();
    auto imported =
        files::looksLikeTest(*bytes) ? files::readTestJson(name, *bytes) : files::readShots(name, *bytes, reading);
    if (!imported)
        throw Refusal{files::sentence(imported.error())};
    if (imported->test.title.empty())
        imported->test.title = comesIn ? name : path.stem().string();
    if (const auto text = files::keptAsText(imported->columns); !text.empty())
        imported->notes.push_back(text);
    return std::move(*imported);
}

files::ImportedTest openLogbook(const std::string& file, const std::string& wanted) {
    auto book = orRefuse(logbook::Logbook::read(file));
    const auto entries = orRefuse(book.tests());
    if (wanted.empty() && entries.size() != 1)
        throw Refusal{file + " holds " + std::to_string(entries.size()) +
                      " tests; say which with --test and its title."};
    files::ImportedTest opened{findTest(book, wanted.empty() ? entries.front().id : wanted), {}};
    if (const auto units = book.units())
        opened.units = *units;
    return opened;
}

} // namespace

files::ImportedTest openTest(const std::vector<std::string>& given, const std::string& wanted,
                             files::ReadOptions reading, const ReadingFlags& flags) {
    reading.split = secondPartNamed(flags.split);
    const auto all = withFolders(given);
    if (all.size() == 1 && all.front().ends_with(".knotbook"))
        return openLogbook(all.front(), wanted);
    if (!wanted.empty())
        throw Refusal{"--test: " + all.front() + " is no logbook, so it holds one test alone."};
    std::vector<files::ImportedTest> read;
    for (const auto& file : all) {
        if (file.ends_with(".knotbook"))
            throw Refusal{file + " is a logbook; give it by itself."};
        read.push_back(openFile(file, reading));
    }
    if (read.size() > 1) {
        const auto each = flags.each.empty()     ? files::likelierOf(read)
                          : flags.each == "club" ? files::EachFile::club
                                                 : files::EachFile::sitting;
        const std::string title = read.front().test.title + " and " + std::to_string(read.size() - 1) + " more";
        auto one = files::together(std::move(read), each);
        one.test.title = title;
        one.notes.insert(one.notes.begin(), std::to_string(all.size()) + " files, each a " +
                                                (each == files::EachFile::club ? "club" : "sitting") + ".");
        if (one.test.builds.size() > record::mostClubs)
            throw Refusal{"These files have " + std::to_string(one.test.builds.size()) + " clubs; at most " +
                          std::to_string(record::mostClubs) + " are compared."};
        return one;
    }
    files::settleNamelessClub(read.front().test);
    return std::move(read.front());
}

record::DisplayUnits unitsOf(const files::ImportedTest& imported, const ReadingFlags& flags) {
    record::DisplayUnits units = imported.units.value_or(record::DisplayUnits{});
    std::string word;
    for (std::istringstream words(flags.units); std::getline(words, word, ',');) {
        const std::string plain = record::lowerCase(record::trimmed(word));
        if (plain == "m" || plain == "yd")
            units.distance = plain == "m" ? record::DistanceUnit::m : record::DistanceUnit::yd;
        else if (plain == "ms" || plain == "m/s")
            units.speed = record::SpeedUnit::ms;
        else if (plain == "mph")
            units.speed = record::SpeedUnit::mph;
        else if (plain == "kmh" || plain == "km/h")
            units.speed = record::SpeedUnit::kmh;
        else
            throw Refusal{"--units: '" + word + "' is no unit to say it in; expected m or yd, and ms, mph or kmh."};
    }
    return units;
}

void takeLook(const std::string& file, record::Test& test) {
    if (!file.ends_with(".knotbook"))
        throw Refusal{"--look: " + file + " is no logbook, and a look is noted in one. Import it first."};
    char at[32];
    const std::time_t now = std::time(nullptr);
    std::strftime(at, sizeof at, "%Y-%m-%dT%H:%M:%S%z", std::localtime(&now));
    judge::look(test, std::string(at).insert(22, ":")); // +0100 is +01:00
    auto book = orRefuse(logbook::Logbook::open(file));
    orRefuse(book.saveHead(test));
}

std::vector<record::Test> earlierOf(const std::string& file, const record::Test& test) {
    std::vector<record::Test> earlier;
    if (!file.ends_with(".knotbook"))
        return earlier;
    auto book = orRefuse(logbook::Logbook::read(file));
    for (const auto& entry : orRefuse(book.tests()))
        if (entry.id != test.id)
            earlier.push_back(orRefuse(book.load(entry.id)));
    return earlier;
}

} // namespace knot::cli
