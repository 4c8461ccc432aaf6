#include "app/shell/stages_menu.h"

#include <QMenu>

namespace knot::app {

void addStages(QMenu* menu, const std::function<void(PageId)>& goTo) {
    menu->addAction(QMenu::tr("S&tart"), QKeySequence(Qt::ALT | Qt::Key_0), menu, [goTo] { goTo(PageId::start); })
        ->setObjectName(QStringLiteral("actionStart"));
    for (const PageEntry& entry : pageEntries) {
        const QKeySequence keys(Qt::ALT | static_cast<Qt::Key>(Qt::Key_1 + static_cast<int>(entry.id)));
        QAction* item = menu->addAction(QCoreApplication::translate("Pages", entry.menu), keys, menu,
                                        [goTo, id = entry.id] { goTo(id); });
        item->setObjectName(QLatin1String(entry.action));
    }
}

} // namespace knot::app
