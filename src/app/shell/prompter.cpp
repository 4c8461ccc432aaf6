#include "app/shell/prompter.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QPrintDialog>
#include <QPrinter>

namespace knot::app {

QString DialogPrompter::fileToOpen(QWidget* parent, const QString& title, const QString& filter) {
    return QFileDialog::getOpenFileName(parent, title, {}, filter);
}

QStringList DialogPrompter::filesToOpen(QWidget* parent, const QString& title, const QString& filter) {
    return QFileDialog::getOpenFileNames(parent, title, {}, filter);
}

// Logbooks are added to, so choosing one that exists needs no warning.
void DialogPrompter::configure(QFileDialog& dialog, Existing existing) {
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setFileMode(QFileDialog::AnyFile);
    dialog.setOption(QFileDialog::DontConfirmOverwrite, existing == Existing::add);
}

QString DialogPrompter::fileToSave(QWidget* parent, const QString& title, const QString& suggestion,
                                   const QString& filter, Existing existing) {
    QFileDialog dialog(parent, title, {}, filter);
    configure(dialog, existing);
    dialog.selectFile(suggestion);
    if (dialog.exec() != QDialog::Accepted)
        return {};
    QString path = dialog.selectedFiles().first();
    // The ending follows the kind that was chosen where none was typed.
    if (QFileInfo(path).suffix().isEmpty()) {
        const QString ending =
            dialog.selectedNameFilter().section(QStringLiteral("(*"), 1).section(QLatin1Char(')'), 0, 0);
        path += ending.section(QLatin1Char(' '), 0, 0);
    }
    return path;
}

QString DialogPrompter::folderToOpen(QWidget* parent, const QString& title) {
    return QFileDialog::getExistingDirectory(parent, title);
}

bool DialogPrompter::choosePrinter(QWidget* parent, QPrinter& printer) {
    return QPrintDialog(&printer, parent).exec() == QDialog::Accepted;
}

} // namespace knot::app
