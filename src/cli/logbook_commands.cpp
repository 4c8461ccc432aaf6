#include "cli/opening.h"

#include "core/plan/seal.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/words/decide.h"
#include "files/csv_writer.h"
#include "files/test_json.h"

#include <filesystem>
#include <iostream>
#include <memory>

namespace knot::cli {
namespace {

struct ExportOptions {
    std::string logbook, test;
    bool csv = false, json = false;
};

void exportTest(const ExportOptions& options) {
    auto book = orRefuse(logbook::Logbook::read(options.logbook));
    const record::Test test = findTest(book, options.test);
    std::cout << (options.csv ? files::shotCsv(test) : files::testJson(test));
}

bool isThere(const std::string& path) {
    std::error_code status;
    return std::filesystem::exists(std::filesystem::symlink_status(path, status));
}

struct ImportOptions {
    std::vector<std::string> files; ///< the last is the logbook
    ReadingFlags reading;
};

void importFile(const ImportOptions& options) {
    const std::string& path = options.files.back();
    if (options.files.size() < 2)
        throw Refusal{"import takes shot files, and behind them the logbook that they are added to."};
    auto imported = openTest({options.files.begin(), options.files.end() - 1}, {}, anybodysFile(), options.reading);
    if (options.reading.explain)
        for (const auto& line : files::explained(imported.columns))
            std::cerr << line << "\n";
    const bool isNew = !isThere(path);
    auto book = orRefuse(isNew ? logbook::Logbook::create(path) : logbook::Logbook::open(path));
    if (isNew)
        orRefuse(book.setUnits(unitsOf(imported, options.reading)));
    // What was exported from a logbook is known by its id where it stands already.
    std::cout << (imported.test.id.empty() ? orRefuse(book.save(std::move(imported.test)))
                                           : orRefuse(book.add(std::move(imported.test))).id)
              << "\n";
    for (const auto& note : imported.notes)
        std::cerr << record::printable(note) << "\n";
}

struct MergeOptions {
    std::string into;
    std::vector<std::string> from;
};

// One that can't be read keeps the others from nothing.
void mergeLogbooks(const MergeOptions& options) {
    auto book = orRefuse(logbook::Logbook::open(options.into));
    std::string refused;
    for (const std::string& from : options.from) {
        auto other = logbook::Logbook::read(from);
        const auto merged = other ? book.addAll(*other) : tl::unexpected(other.error());
        if (!merged) {
            refused += (refused.empty() ? "" : "\n") + logbook::sentence(merged.error());
            continue;
        }
        std::cout << record::printable(logbook::mergedText(*merged, from)) << "\n";
        for (const auto& conflict : merged->conflicts)
            std::cout << "Changed here and there: " << record::printable(orRefuse(book.load(conflict.here)).title)
                      << "; the version from there is " << conflict.there << ".\n";
    }
    if (!refused.empty())
        throw Refusal{refused};
}

void checkLogbook(const std::string& path) {
    auto book = orRefuse(logbook::Logbook::read(path));
    const auto faults = orRefuse(book.integrityFaults());
    if (!faults.empty())
        throw Refusal{logbook::sentence({logbook::ErrorKind::damaged, path, faults.front()})};
    const auto tests = orRefuse(book.tests());
    std::string switched;
    for (const auto& entry : tests) {
        const record::Test test = orRefuse(book.load(entry.id));
        const auto state = plan::agreementOf(test).state;
        if (state == plan::Agreement::State::forged || state == plan::Agreement::State::changed)
            switched += test.title + ": " + words::sealSentence(test) + "\n";
    }
    if (!switched.empty())
        throw Refusal{path + " holds seals that don't agree with their clubs.\n" + switched};
    std::cout << path << " is sound: " << record::counted(tests.size(), "test") << ".\n";
}

} // namespace

void addLogbookCommands(CLI::App& app) {
    auto exporting = std::make_shared<ExportOptions>();
    CLI::App* out = app.add_subcommand("export", "Print a test of a logbook.");
    out->add_option("logbook", exporting->logbook, "Logbook (.knotbook)")->required();
    out->add_option("test", exporting->test, "The test's id or title")->required();
    auto* csv = out->add_flag("--csv", exporting->csv, "Its shots as CSV");
    out->add_flag("--json", exporting->json, "The whole test as JSON (the default)")->excludes(csv);
    out->callback([exporting] { exportTest(*exporting); });

    auto importing = std::make_shared<ImportOptions>();
    CLI::App* in = app.add_subcommand("import", "Add a shot file to a logbook, which is made if need be.");
    in->add_option("file", importing->files,
                   "Shot files (CSV, XLSX, ODS, JSON, HTML), a folder of them, - for standard input, or an exported "
                   "test (JSON); behind them the logbook (.knotbook)")
        ->required();
    addReading(*in, importing->reading);
    in->callback([importing] { importFile(*importing); });

    auto merging = std::make_shared<MergeOptions>();
    CLI::App* merge =
        app.add_subcommand("merge", "Add other logbooks: what was changed last stands, of what was changed on "
                                    "both sides both versions.");
    merge->add_option("logbook", merging->into, "Logbook (.knotbook) to add to")->required();
    merge->add_option("others", merging->from, "Logbooks that are added")->required();
    merge->callback([merging] { mergeLogbooks(*merging); });

    auto checked = std::make_shared<std::string>();
    CLI::App* check = app.add_subcommand("check", "Check a logbook's integrity.");
    check->add_option("logbook", *checked, "Logbook (.knotbook)")->required();
    check->callback([checked] { checkLogbook(*checked); });
}

} // namespace knot::cli
