#include "support/folder.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <string>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

namespace fs = std::filesystem;

namespace {

struct Outcome {
    int code = 0;
    std::string output; ///< stdout and stderr together
};

Outcome run(const std::string& arguments) {
    Outcome outcome;
    FILE* pipe = popen((std::string(KNOT_CLI) + " " + arguments + " 2>&1").c_str(), "r");
    std::array<char, 4096> buffer{};
    while (const std::size_t n = fread(buffer.data(), 1, buffer.size(), pipe))
        outcome.output.append(buffer.data(), n);
    outcome.code = WEXITSTATUS(pclose(pipe));
    return outcome;
}

const std::string reference = std::string(KNOT_TEST_DATA) + "/reference/";

} // namespace

TEST_CASE("judge prints sentences for people and the reading as JSON") {
    const auto text = run("judge " + reference + "few_rounds.csv --baseline Alder --primary carry_m");
    CHECK(text.code == 0);
    CHECK(text.output.find("Briar carries farther than Alder by 7.8 m (2.0 to 13.6): real, size not settled.") !=
          std::string::npos);
    const auto json =
        run("judge " + reference +
            "few_rounds.csv --baseline Alder --primary carry_m --margin carry_m=1 --want carry_m=more --json");
    const auto reading = nlohmann::json::parse(json.output);
    CHECK(reading.at("format") == "knotcount.reading");
    CHECK(reading.at("margins").at("carry_m") == 1);
    for (const auto& row : reading.at("average"))
        if (row.at("metric") == "carry_m")
            CHECK(row.at("favours") == "better");
}

TEST_CASE("what is declared at equal delivery, of the typical shot and from an aim has rows of its own") {
    const auto reading = nlohmann::json::parse(run("judge " + reference +
                                                   "whole_swing.csv --baseline Alder --primary equal:carry_m,typical:"
                                                   "carry_m,miss_m --equal club_speed_ms,strike_high_mm --aim 160,2 "
                                                   "--level steady --json")
                                                   .output);
    std::vector<std::string> outcomes;
    for (const auto& row : reading.at("average"))
        if (row.at("role") == "primary")
            outcomes.push_back(row.value("outcome", row.at("metric").get<std::string>()));
    CHECK(std::ranges::count(outcomes, "equal:carry_m") == 2);
    CHECK(std::ranges::count(outcomes, "typical:carry_m") == 2);
    CHECK(std::ranges::count(outcomes, "miss_m") == 2);
    CHECK(reading.at("misses").size() == 3);
    CHECK(reading.at("misses")[0].at("aimed") == true);
    CHECK(reading.at("parts").size() == 4); // carry and side of two pairs
    const auto text = run("judge " + reference + "whole_swing.csv --baseline Alder --level steady").output;
    CHECK(text.find("Delivered alike") < text.find("Not settled, Briar against Alder: "));
    CHECK(text.find("What moves carry from shot to shot") != std::string::npos);
    CHECK(text.find("the usual stints of a steady player") != std::string::npos);
}

TEST_CASE("every pair is judged on request, each row naming both clubs") {
    const auto json = nlohmann::json::parse(run("judge " + reference + "rotated_turns.csv --best --json").output);
    CHECK(json.at("average").size() == 18); // three pairs, five metrics and the strike
    CHECK(json.at("average")[0].contains("against"));
}

TEST_CASE("plan answers what a rotated test can see, in given laps or in given minutes") {
    const std::string pair = "plan --builds 2 --sd-turn 1.466295241378 --sd-shot 3.623469951097 --gap 3 ";
    const auto given = nlohmann::json::parse(run(pair + "--rounds 8 --turn-length 3 --looks --json").output);
    CHECK(given.at("power").get<double>() == Approx(0.5254556731182).epsilon(1e-6));
    CHECK(given.at("shots") == 48);
    CHECK(given.at("look_levels").size() == 7);
    const auto timed = nlohmann::json::parse(run(pair + "--minutes 45 --json").output);
    CHECK(timed.at("minutes").get<double>() <= 45);
    CHECK(timed.at("rounds").get<int>() >= 2);
    CHECK(run(pair).code == 2);
    CHECK(run(pair + "--minutes 1").output.find("do not fit") != std::string::npos);
    CHECK(run("plan --builds 41 --sd-turn 1 --sd-shot 1 --gap 1 --rounds 5 --turn-length 3").code == 2);
}

TEST_CASE("plan says what choosing by it is worth, as the reference has it, and swings in how many minutes") {
    std::ifstream in(reference + "worth.json");
    const auto row = nlohmann::json::parse(in).at("worth").at(0);
    const auto text = [&](const char* field) { return row.at(field).dump(); };
    const auto plan =
        nlohmann::json::parse(run("plan --builds " + text("clubs") + " --sd-turn " + text("sd_stint") + " --sd-shot " +
                                  text("sd_shot") + " --gap " + text("gap") + " --tau " + text("tau") + " --rounds " +
                                  text("laps") + " --turn-length " + text("shots_a_stint") + " --json")
                                  .output);
    for (const char* field : {"share", "to_be_had", "had", "lost", "chosen", "proven"})
        CHECK(plan.at(field).get<double>() == Approx(row.at(field).get<double>()).epsilon(1e-7));
    CHECK(run("plan --builds 3 --sd-turn 2 --sd-shot 6 --gap 2.7 --tau 0 --rounds 5 --turn-length 2").code == 2);
    const std::string said = run("plan --builds 3 --sd-turn 2 --sd-shot 6 --gap 2.7 --rounds 5 --turn-length 2").output;
    CHECK(said.find("Choosing by it gets ") != std::string::npos);
    CHECK(said.find("If one club is better by 2.70") != std::string::npos);
    CHECK(run("swings").output.find("three shots each get | 75 of 100 | 90 of 100") != std::string::npos);
}

TEST_CASE("wrong usage and unreadable input end with 2 and one line that says what to do") {
    struct Row {
        std::string arguments, words;
    };
    const std::string file = "judge " + reference + "few_rounds.csv ";
    const Row rows[] = {{"", "subcommand is required"},
                        {"fly", "--help"},
                        {"judge", "file"},
                        {"judge /nowhere.csv", "can't be opened"},
                        {file + "--baseline Oak", "no shot in"},
                        {file + "--primary carry", "'carry' is not an outcome"},
                        {file + "--margin carry_m=0", "greater than 0"},
                        {file + "--margin carry_m", "expected NAME=VALUE"},
                        {file + "--margin carry_m=x", "is not a number"},
                        {file + "--want carry_m=far", "is not a number"},
                        {file + "--alpha 2", "less than 1"},
                        {file + "--primary equal:carry_m", "needs what is held equal"},
                        {file + "--primary equal:carry_m --equal ball_speed_ms", "can't be held equal"},
                        {file + "--aim far", "is not a number"},
                        {file + "--aim 2000", "less than 1000"},
                        {file + "--level tour", "steady, club or occasional"},
                        {file + "--primary carry_m,side_m,spin_rpm,launch_deg", "three outcomes at most"},
                        {"simulate nobody -o /tmp/x.csv", "there is no scenario 'nobody'"},
                        {"simulate five-wood --rounds 0 -o /tmp/x.csv", "--rounds"},
                        {"check /nowhere.knotbook", "can't be opened"}};
    for (const Row& row : rows) {
        const auto outcome = run(row.arguments);
        CHECK(outcome.code == 2);
        CHECK(outcome.output.find(row.words) != std::string::npos);
        CHECK(outcome.output.find('\n') == outcome.output.size() - 1);
    }
    CHECK(run("--help").code == 0);
    CHECK(run("judge --help").code == 0);
    CHECK(run("--version").code == 0);
}

TEST_CASE("simulate, import, check and export work hand in hand") {
    const fs::path folder = fs::temp_directory_path() / ("knot_cli_" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const std::string csv = (folder / "shots.csv").string();
    const std::string book = (folder / "b.knotbook").string();
    CHECK(run("scenarios").output.find("five-wood") != std::string::npos);
    CHECK(run("simulate five-wood --seed 5 --rounds 3 --turn-length 2 -o " + csv).code == 0);
    const auto imported = run("import " + csv + " " + book);
    REQUIRE(imported.code == 0);
    const std::string id = imported.output.substr(0, imported.output.find('\n'));
    CHECK(run("check " + book).output.find("is sound: 1 test.") != std::string::npos);
    const auto out = run("export " + book + " " + id + " --csv");
    std::ifstream in(csv, std::ios::binary);
    CHECK(out.output == std::string(std::istreambuf_iterator<char>(in), {}));
    const std::string json = (folder / "t.json").string();
    CHECK(run("export " + book + " shots --json > " + json).code == 0);
    CHECK(run("import " + json + " " + book).output == id + "\n"); // it stands there already
    CHECK(run("check " + book).output.find("is sound: 1 test.") != std::string::npos);
    CHECK(run("export " + book + " nothing --csv").code == 2);
    fs::remove_all(folder);
}

namespace {

struct Scratch {
    fs::path path;
    Scratch() {
        std::string made = (fs::temp_directory_path() / "knot-cli-XXXXXX").string();
        REQUIRE(::mkdtemp(made.data()));
        path = made;
        std::ofstream(at("s.csv")) << "build,carry_m\nA,150\nB,151\n";
    }
    Scratch(const Scratch&) = delete;
    Scratch& operator=(const Scratch&) = delete;
    ~Scratch() { fs::remove_all(path); }
    std::string at(const char* name) const { return (path / name).string(); }
};

} // namespace

TEST_CASE("a comparison that nobody is to see yet is not printed; a look is noted in the logbook") {
    const Scratch scratch;
    const std::string book = scratch.at("b.knotbook");
    REQUIRE(run("simulate five-wood --seed 5 --rounds 2 --turn-length 2 -o " + scratch.at("laps.csv")).code == 0);
    REQUIRE(run("import " + scratch.at("laps.csv") + " " + scratch.at("made.knotbook")).code == 0);
    auto test = nlohmann::json::parse(run("export " + scratch.at("made.knotbook") + " laps").output);
    test["title"] = "half";
    test["frozen"] = {{"at", "2026-03-14T09:00:00"}, {"hash", "a"}};
    test["card"]["planned_rounds"] = 4;
    test["card"]["primary"] = {"carry_m"};
    for (int lap = 1; lap <= 4; ++lap)
        for (int club = 0; club < 3; ++club)
            test["plan"]["turns"].push_back({{"build", club}, {"round", lap}, {"shots", 2}, {"ended", false}});
    std::ofstream(scratch.at("half.json")) << test.dump();
    REQUIRE(run("import " + scratch.at("half.json") + " " + book).code == 0);
    for (const std::string& file : {scratch.at("half.json"), book})
        for (const char* as : {"", " --json", " --looks --planned-rounds 4"}) {
            const auto outcome = run("judge " + file + as);
            CHECK(outcome.code == 2);
            CHECK(outcome.output.find("Laps done: 2 of 4. The sheet says that nobody sees a comparison") !=
                  std::string::npos);
        }
    CHECK(run("judge --look " + scratch.at("half.json")).output.find("is no logbook") != std::string::npos);
    const auto looked = run("judge --look --json " + book);
    REQUIRE(looked.code == 0);
    const auto reading = nlohmann::json::parse(looked.output);
    CHECK(reading.at("looks") == "each_round");
    const auto after = nlohmann::json::parse(run("export " + book + " half").output);
    REQUIRE(after.at("amendments").size() == 1);
    CHECK(after.at("amendments")[0].at("text") == "somebody looked at the comparisons after 2 of 4 laps; each lap "
                                                  "counts as a look from there on");
    CHECK(after.at("amendments")[0].at("at").get<std::string>().size() == 25);
    CHECK(run("judge " + book).code == 0); // it was looked at, and is open
}

TEST_CASE("import says so where nothing would be kept, or nothing can be read to its end") {
    const Scratch scratch;
    const std::string csv = scratch.at("s.csv");
    const auto nameless = run("import " + csv + " \"\"");
    CHECK(nameless.code == 2);
    CHECK(nameless.output.find("it has no name") != std::string::npos);
    // A name is a name, whatever it begins with.
    CHECK(run("import " + csv + " '" + scratch.at("file:x?mode=memory.knotbook") + "'").code == 0);
    CHECK(fs::file_size(scratch.at("file:x?mode=memory.knotbook")) > 4096);
    REQUIRE(::mkfifo(scratch.at("pipe.csv").c_str(), 0600) == 0);
    for (const char* endless : {"pipe.csv", "/dev/zero", "/dev/stdin"}) {
        const std::string name = endless[0] == '/' ? endless : scratch.at(endless);
        const auto refused = run("import " + name + " " + scratch.at("a.knotbook") + " < /dev/zero");
        CHECK(refused.code == 2);
        CHECK(refused.output.find("no file with an end") != std::string::npos);
    }
    CHECK(!fs::exists(scratch.at("a.knotbook")));
}

TEST_CASE("a file too large, too wide or of one endless line is refused at once") {
    const Scratch scratch;
    {
        std::ofstream huge(scratch.at("huge.csv"));
        huge << "build,carry_m\n";
    }
    fs::resize_file(scratch.at("huge.csv"), std::uintmax_t{5} << 30); // sparse
    CHECK(run("judge " + scratch.at("huge.csv")).output.find("larger than 32 MiB") != std::string::npos);
    {
        std::ofstream wide(scratch.at("wide.csv"));
        for (int i = 0; i < 100000; ++i)
            wide << "c" << i << ",";
        wide << "\n1\n";
    }
    CHECK(run("judge " + scratch.at("wide.csv")).output.find("100001 columns; expected at most 1000") !=
          std::string::npos);
    std::ofstream(scratch.at("line.csv")) << "build,carry_m\nA," << std::string(3 << 20, '1') << "\n";
    CHECK(run("judge " + scratch.at("line.csv")).output.find("longer than 1 MiB") != std::string::npos);
}

TEST_CASE("a number that nothing measures is asked about with its line, and left out of what is judged") {
    const Scratch scratch;
    for (const char* number : {"1e308", "1.7976931348623157e308", "-1000001", "3.4e38"}) {
        std::ofstream(scratch.at("n.csv")) << "build,carry_m\nA,150\nA,151\nB," << number << "\nB,152\n";
        const auto asked = run("judge " + scratch.at("n.csv"));
        CHECK(asked.code == 0);
        CHECK(asked.output.find("Line 4 says “" + std::string(number).substr(0, 15)) != std::string::npos);
        CHECK(asked.output.find("B 152.0 m (1 shot)") != std::string::npos);
    }
    std::ofstream(scratch.at("n.csv")) << "build,carry_m\nA,150\nA,151\nB,1e308\nB,152\n";
    const auto kept = run("judge " + scratch.at("n.csv") + " --map 'carry_m=carry_m; as it stands'");
    CHECK(kept.code == 2);
    CHECK(kept.output.find("line 4, column 2 (carry_m): '1e308' is more than anything measures") != std::string::npos);
}

TEST_CASE("nothing that steers a terminal, and no formula, leaves by the command line") {
    const Scratch scratch;
    std::ofstream(scratch.at("e.csv")) << "build,carry_m,note\n\x1b]0;own\x07=1+1,150,\x1b[2J+x\n"
                                          "@B,151,\xe2\x80\xae-y\n'=C,152,plain\n";
    REQUIRE(run("import " + scratch.at("e.csv") + " " + scratch.at("e.knotbook")).code == 0);
    const auto out = run("export " + scratch.at("e.knotbook") + " e --csv");
    CHECK(out.code == 0);
    CHECK(out.output.find('\x1b') == std::string::npos);
    CHECK(out.output.find('\x07') == std::string::npos);
    CHECK(out.output.find("\xe2\x80\xae") == std::string::npos);
    for (const char* cell : {"]0;own=1+1", "'@B", "'-y"})
        CHECK(out.output.find(cell) != std::string::npos);
    std::ofstream(scratch.at("again.csv")) << out.output;
    REQUIRE(run("import " + scratch.at("again.csv") + " " + scratch.at("again.knotbook")).code == 0);
    CHECK(run("export " + scratch.at("again.knotbook") + " again --csv").output == out.output);
    const auto refused = run("judge '" + scratch.at("\x1b[31mnone.csv") + "'");
    CHECK(refused.output.find('\x1b') == std::string::npos);
}

TEST_CASE("a club that is called Average keeps its shots, and a line of averages is left out with a word") {
    const Scratch scratch;
    std::ofstream(scratch.at("m.csv")) << "shot,build,carry_m\n1,Average,150\n2,SD,151\n3,Mean,152\n4,Average,153\n";
    REQUIRE(run("import " + scratch.at("m.csv") + " " + scratch.at("m.knotbook")).code == 0);
    const auto out = run("export " + scratch.at("m.knotbook") + " m --csv").output;
    CHECK(std::ranges::count(out, '\n') == 5);
    std::ofstream(scratch.at("s2.csv")) << "shot,build,carry_m\n1,A,150\n2,A,151\n,Average,150.5\n";
    const auto noted = run("import " + scratch.at("s2.csv") + " " + scratch.at("m.knotbook"));
    CHECK(noted.code == 0);
    CHECK(noted.output.find("1 summary row was left out.") != std::string::npos);
}

TEST_CASE("judge takes every file of the corpus without being told anything, and says what it took a column for") {
    std::size_t files = 0;
    for (const auto& entry : fs::directory_iterator(std::string(KNOT_TEST_DATA) + "/import"))
        if (const auto kind = entry.path().extension(); kind == ".csv" || kind == ".xlsx" || kind == ".ods") {
            INFO(entry.path().string());
            CHECK(run("judge " + entry.path().string() + " --seed 1").code == 0);
            ++files;
        }
    CHECK(files >= 60);
    const std::string corpus = std::string(KNOT_TEST_DATA) + "/import/";
    const auto said = run("judge " + corpus + "plain_none_mph.csv --explain").output;
    CHECK(said.find("Ball Speed: ball_speed_mph (mph as in club speed), as in 102.8") != std::string::npos);
    CHECK(said.find("“Carry Distance” was taken for carry_yd.") != std::string::npos);
    // The JSON stays JSON; what is only likely is said beside it.
    const auto both = run("judge " + corpus + "plain_none_mph.csv --json").output;
    CHECK(both.find("was taken for carry_yd") < both.find('{'));
    CHECK(nlohmann::json::parse(both.substr(both.find('{'))).at("format") == "knotcount.reading");
}

TEST_CASE("a file that names no club is judged as one club's, and labels of two parts are taken apart on request") {
    const auto file = fs::temp_directory_path() / ("knot_cli_labels_" + std::to_string(::getpid()) + ".csv");
    std::ofstream(file) << "Ball Speed (mph),Carry (m)\n110,150\n111,151\n112,152\n";
    CHECK(run("judge " + file.string()).output.find("baseline Club 1") != std::string::npos);
    std::ofstream(file) << "Club,Carry (m)\nFern - full,150\nFern - punch,120\nReed - full,151\nReed - punch,121\n";
    CHECK(run("judge " + file.string()).output.find("baseline Fern - full") != std::string::npos);
    CHECK(run("judge " + file.string() + " --split delivery").output.find("baseline Fern\n") != std::string::npos);
    fs::remove(file);
}

TEST_CASE("the window's program answers for its words where there is no display") {
    for (const char* word : {"--help", "--version"}) {
        FILE* pipe = popen(
            (std::string("env -u DISPLAY -u WAYLAND_DISPLAY -u QT_QPA_PLATFORM " KNOT_APP " ") + word).c_str(), "r");
        std::string said;
        std::array<char, 4096> buffer{};
        while (const std::size_t n = fread(buffer.data(), 1, buffer.size(), pipe))
            said.append(buffer.data(), n);
        CHECK(WEXITSTATUS(pclose(pipe)) == 0);
        CHECK(said.find(word == std::string("--help") ? "Usage:" : "Knot Count") != std::string::npos);
    }
}

TEST_CASE("a report is written where there is no display") {
    const knot::test::Folder folder;
    const std::string book = folder.file("one.knotbook");
    const std::string page = folder.file("report.html");
    REQUIRE(run("import " + reference + "rotated_turns.csv " + book).code == 0);
    const std::string command = "env -u DISPLAY -u WAYLAND_DISPLAY -u QT_QPA_PLATFORM " KNOT_APP " --report " + page +
                                " " + book + " rotated 2> /dev/null";
    CHECK(WEXITSTATUS(std::system(command.c_str())) == 0);
    CHECK(fs::file_size(page) > 10000);
}

TEST_CASE("the table of wanted windows is what the flight model says") {
    std::ifstream file(std::string(KNOT_TEST_DATA) + "/../../data/windows.csv");
    const std::string table(std::istreambuf_iterator<char>(file), {});
    REQUIRE(!table.empty());
    const auto written = run("windows");
    CHECK(written.code == 0);
    CHECK(written.output == table);
}

TEST_CASE("one logbook is added to another from the command line, once") {
    const knot::test::Folder folder;
    const std::string one = folder.file("one.knotbook");
    const std::string two = folder.file("two.knotbook");
    CHECK(run("import " + reference + "few_rounds.csv " + one).code == 0);
    CHECK(run("import " + reference + "rotated_turns.csv " + two).code == 0);
    CHECK(run("merge " + one + " " + two).output == "1 test came from " + two + ".\n");
    CHECK(run("merge " + one + " " + two).output == "0 tests came from " + two + "; 1 stood here already.\n");
    CHECK(run("check " + one).output.find("2 tests") != std::string::npos);
    const auto missing = run("merge " + one + " " + folder.file("three.knotbook"));
    CHECK(missing.code == 2);
    CHECK(missing.output.find("three.knotbook") != std::string::npos);
}

TEST_CASE("a bag of a file, of a logbook and as JSON, by one player, in wind") {
    const knot::test::Folder folder;
    const std::string file = folder.file("bag.csv");
    std::ofstream(file) << "Club,Player,Carry (m),Ball Speed (m/s),Launch,Spin\n"
                           "5-wood,Odd,190,60,14,3900\n5-wood,Odd,192,60,14,3950\n7-iron,Odd,142,49,18,6300\n"
                           "7-iron,Odd,144,49,18,6350\nPW,Odd,110,41,25,8000\nPW,Marit,80,33,26,7000\n";
    const auto said = run("bag " + file + " --player Odd --wind -6");
    CHECK(said.code == 0);
    CHECK(said.output.starts_with(
        "3 clubs in 1 sitting, the longest first\n  5-wood: 191.0 m, 2 shots in 1 sitting; 16"));
    CHECK(said.output.find("in that wind, modelled") != std::string::npos);
    const std::string book = folder.file("bag.knotbook");
    CHECK(run("import " + file + " " + book).code == 0);
    CHECK(run("bag " + book).output.find("of several players: Marit, Odd.") != std::string::npos);
    const auto json = nlohmann::json::parse(run("bag " + book + " --player Odd --json --step 48").output);
    CHECK(json.at("format") == "knotcount.bag");
    CHECK(json.at("gaps").at(0).at("gap_m").get<double>() == Approx(48));
    CHECK(json.at("gaps").at(0).at("rests_on") == "one_sitting");
    CHECK(json.at("step_m").get<double>() == Approx(48));
    const auto none = run("bag " + file + " --player Nobody");
    CHECK(none.code == 2);
    CHECK(none.output.find("There is no bag in") != std::string::npos);
}

TEST_CASE("an output that is full fails, with the reason") {
    if (!fs::exists("/dev/full"))
        return;
    const std::string file = reference + "few_rounds.csv";
    for (const std::string& command : {"judge " + file, "judge " + file + " --json", std::string("scenarios"),
                                       std::string("swings"), std::string("windows")}) {
        INFO(command);
        Outcome outcome;
        const std::string line = std::string(KNOT_CLI) + " " + command + " 2>&1 > /dev/full";
        FILE* pipe = popen(line.c_str(), "r");
        std::array<char, 4096> buffer{};
        while (const std::size_t n = fread(buffer.data(), 1, buffer.size(), pipe))
            outcome.output.append(buffer.data(), n);
        outcome.code = WEXITSTATUS(pclose(pipe));
        CHECK(outcome.code == 2);
        CHECK(outcome.output.find("could not be written whole") != std::string::npos);
    }
}

TEST_CASE("what comes in, several files and a folder are read as one file is, in its own units") {
    const knot::test::Folder folder;
    auto write = [&](const std::string& name, const std::string& text) { std::ofstream(folder.file(name)) << text; };
    fs::create_directory(folder.file("day"));
    write("day/Fern.csv", "Carry [yd],Ball Speed [mph],Quality\n150,112,ok\n152,113,ok\n151,112,ok\n");
    write("day/Reed.csv", "Carry [yd],Ball Speed [mph],Quality\n158,115,ok\n157,116,ok\n159,116,ok\n");
    const auto days = run("judge " + folder.file("day"));
    CHECK(days.code == 0);
    CHECK(days.output.find("2 files, each a club.") != std::string::npos);
    CHECK(days.output.find("Carry: Reed 158.0 yd (3 shots, ± 1.0), Fern 151.0 yd") != std::string::npos);
    CHECK(days.output.find("Ball speed: Reed 115.7 mph") != std::string::npos);
    CHECK(days.output.find("1 column was kept as text: Quality.") != std::string::npos);
    const auto both = run("judge " + folder.file("day/Fern.csv") + " " + folder.file("day/Reed.csv") + " --units m,ms");
    CHECK(both.output.find("Carry: Reed 144.5 m") != std::string::npos);
    const auto comesIn = run("judge - < " + reference + "few_rounds.csv");
    CHECK(comesIn.code == 0);
    CHECK(comesIn.output.starts_with("standard input: "));
    CHECK(run("judge - --units furlong < " + reference + "few_rounds.csv")
              .output.find("'furlong' is no unit to say it in") != std::string::npos);
    const std::string book = folder.file("all.knotbook");
    CHECK(run("import " + folder.file("day") + " " + book).code == 0);
    CHECK(run("judge " + book).output.find("158.0 yd") != std::string::npos);
    CHECK(run("import " + folder.file("day/Fern.csv")).code == 2);
}
