#include "app/prompter.h"

#include <QFileDialog>

namespace knot::app {

QString DialogPrompter::fileToOpen(QWidget* parent, const QString& title, const QString& filter) {
    return QFileDialog::getOpenFileName(parent, title, {}, filter);
}

QString DialogPrompter::fileToSave(QWidget* parent, const QString& title, const QString& suggestion,
                                   const QString& filter) {
    // Logbooks are added to, not replaced, so choosing one that exists needs no warning.
    return QFileDialog::getSaveFileName(parent, title, suggestion, filter, nullptr, QFileDialog::DontConfirmOverwrite);
}

} // namespace knot::app
