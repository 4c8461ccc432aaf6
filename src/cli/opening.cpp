#include "cli/opening.h"

#include "core/judge/may_see.h"
#include "files/test_json.h"

#include <algorithm>
#include <ctime>

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

void addReading(CLI::App& command, bool& explain, std::string& split) {
    command.add_flag("--explain", explain, "Say what each column of a shot file was taken for");
    command.add_option("--split", split, "What the second part of labels such as 'Fern - blue' is")
        ->check(CLI::IsMember({"tag", "delivery", "player", "length"}));
}

files::ImportedTest openTest(const std::string& file, const std::string& wanted, const files::ReadOptions& reading) {
    if (file.ends_with(".knotbook")) {
        auto book = orRefuse(logbook::Logbook::read(file));
        const auto entries = orRefuse(book.tests());
        if (wanted.empty() && entries.size() != 1)
            throw Refusal{file + " holds " + std::to_string(entries.size()) +
                          " tests; say which with --test and its title."};
        return {findTest(book, wanted.empty() ? entries.front().id : wanted), {}};
    }
    if (!wanted.empty())
        throw Refusal{"--test: " + file + " is no logbook, so it holds one test alone."};
    auto imported = file.ends_with(".json") ? files::readTestFile(file) : files::readShotFile(file, reading);
    if (!imported)
        throw Refusal{files::sentence(imported.error())};
    files::settleNamelessClub(imported->test);
    return std::move(*imported);
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
