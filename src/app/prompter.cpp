#include "app/prompter.h"

#include "app/import/heading_dialog.h"

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

QString DialogPrompter::folderToOpen(QWidget* parent, const QString& title) {
    return QFileDialog::getExistingDirectory(parent, title);
}

std::optional<files::HeadingMap> DialogPrompter::matchHeadings(QWidget* parent, const QString& file,
                                                               const std::vector<std::string>& headings,
                                                               const files::HeadingMap& known) {
    HeadingDialog dialog(file, headings, known, parent);
    if (dialog.exec() != QDialog::Accepted)
        return std::nullopt;
    return dialog.map();
}

} // namespace knot::app
