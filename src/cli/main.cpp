#include "cli/commands.h"

#include "core/record/text/text.h"

#include <iostream>

int main(int argc, char** argv) {
    CLI::App app("Knot Count: fair comparisons of golf clubs, from the command line.", "knotcount-cli");
    app.set_version_flag("--version", "Knot Count " KNOT_VERSION);
    app.require_subcommand(1);
    try {
        knot::cli::addBag(app);
        knot::cli::addJudge(app);
        knot::cli::addPlan(app);
        knot::cli::addSimulate(app);
        knot::cli::addSwings(app);
        knot::cli::addWindows(app);
        knot::cli::addLogbookCommands(app);
        app.parse(argc, argv);
        if (!std::cout.flush())
            throw knot::cli::Refusal{"What was to be printed could not be written whole; is the disk full?"};
        return 0;
    } catch (const CLI::ParseError& e) {
        if (e.get_exit_code() == 0)
            return app.exit(e);
        std::cerr << "knotcount-cli: " << knot::record::printable(e.what()) << " See knotcount-cli --help.\n";
        return 2;
    } catch (const knot::cli::Refusal& refusal) {
        std::cerr << "knotcount-cli: " << knot::record::printable(refusal.sentence) << "\n";
        return 2;
    } catch (const std::exception& e) {
        std::cerr << "knotcount-cli: internal failure: " << e.what() << "\n";
        return 1;
    }
}
