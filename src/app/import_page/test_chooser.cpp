#include "app/import_page/test_chooser.h"

#include "app/form/panel.h"
#include "app/lists/test_finder.h"
#include "app/style/labels.h"
#include "app/style/palette.h"

#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {

TestChooser::TestChooser(std::vector<logbook::TestEntry> tests, const std::vector<std::string>& clubs,
                         const std::string& inHand, QWidget* parent)
    : QDialog(parent) {
    setObjectName(QStringLiteral("testChooser"));
    setWindowTitle(tr("Add to a test"));
    setAttribute(Qt::WA_DeleteOnClose);
    auto hasClub = [](const logbook::TestEntry& test, const std::string& club) {
        return std::ranges::find(test.builds, club, &logbook::TestEntry::BuildTurns::name) != test.builds.end();
    };
    auto rank = [&](const logbook::TestEntry& test) {
        if (test.id == inHand)
            return 0;
        return std::ranges::all_of(clubs, [&](const auto& club) { return hasClub(test, club); }) ? 1 : 2;
    };
    std::ranges::stable_sort(tests, {}, rank);

    auto* heading = headingLabel(tr("Which test were they struck for?"));
    auto* finder = new TestFinder;
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 2 * size::grid, 2 * size::grid, 2 * size::grid);
    column->setSpacing(size::grid);
    column->addWidget(heading);
    column->addWidget(finder, 1);
    column->addWidget(captionLabel("chooserKeys", tr("Enter adds them as another sitting · Escape leaves it")));
    resize(640, 520);
    finder->setTests(std::move(tests));
    finder->takeFocus();
    connect(finder, &TestFinder::chosen, this, [this](const std::string& id) {
        emit chosen(id);
        close();
    });
}

} // namespace knot::app
