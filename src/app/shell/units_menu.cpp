#include "app/shell/units_menu.h"

#include "app/session/book.h"

#include <QActionGroup>
#include <QMenu>

namespace knot::app {
namespace {

// One choice among some: each action sets its member of the units, and the one that holds is checked.
template<typename Unit>
void addChoice(QMenu* menu, Book& book, Unit record::DisplayUnits::*member, const QString& heading, const QString& name,
               const QStringList& texts) {
    menu->addSection(heading);
    auto* group = new QActionGroup(menu);
    QList<QAction*> actions;
    for (int i = 0; i < texts.size(); ++i) {
        QAction* action = menu->addAction(texts[i]);
        action->setObjectName(QStringLiteral("actionUnit%1%2").arg(name).arg(i));
        action->setCheckable(true);
        group->addAction(action);
        actions << action;
        QObject::connect(action, &QAction::triggered, menu, [&book, member, i] {
            record::DisplayUnits units = book.units();
            units.*member = static_cast<Unit>(i);
            book.setUnits(units);
        });
    }
    auto check = [&book, member, actions] { actions[static_cast<int>(book.units().*member)]->setChecked(true); };
    QObject::connect(&book, &Book::unitsChanged, menu, check);
    check();
}

} // namespace

void addUnits(QMenu* menu, Book& book) {
    using record::DisplayUnits;
    auto tr = [](const char* text) { return Book::tr(text); };
    addChoice(menu, book, &DisplayUnits::distance, tr("Distances"), QStringLiteral("Distance"),
              {tr("&Metres"), tr("&Yards")});
    addChoice(menu, book, &DisplayUnits::speed, tr("Speeds"), QStringLiteral("Speed"),
              {tr("Metres a &second"), tr("Miles an &hour"), tr("&Kilometres an hour")});
    addChoice(menu, book, &DisplayUnits::length, tr("Lengths of clubs"), QStringLiteral("Length"),
              {tr("Mi&llimetres"), tr("&Inches")});
}

} // namespace knot::app
