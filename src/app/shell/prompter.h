#pragma once

#include <QString>
#include <QStringList>

#include <optional>

class QFileDialog;
class QPrinter;
class QWidget;

namespace knot::app {

/// Asks the user for file names and the meaning of headings. Tests put their own in its place.
class Prompter {
public:
    virtual ~Prompter() = default;
    /// Empty when the user thinks better of it.
    virtual QString fileToOpen(QWidget* parent, const QString& title, const QString& filter) = 0;
    /// The same of several.
    virtual QStringList filesToOpen(QWidget* parent, const QString& title, const QString& filter) {
        const QString path = fileToOpen(parent, title, filter);
        return path.isEmpty() ? QStringList() : QStringList{path};
    }
    /// What happens to a file that exists: it is replaced, and that is asked before; or added to.
    enum class Existing { replace, add };
    virtual QString fileToSave(QWidget* parent, const QString& title, const QString& suggestion, const QString& filter,
                               Existing existing = Existing::replace) = 0;
    virtual QString folderToOpen(QWidget* parent, const QString& title) = 0;
    /// Lets a printer be chosen; false when the user thinks better of it.
    virtual bool choosePrinter(QWidget* parent, QPrinter& printer) = 0;
};

class DialogPrompter : public Prompter {
public:
    QString fileToOpen(QWidget* parent, const QString& title, const QString& filter) override;
    QStringList filesToOpen(QWidget* parent, const QString& title, const QString& filter) override;
    QString fileToSave(QWidget* parent, const QString& title, const QString& suggestion, const QString& filter,
                       Existing existing) override;
    /// How the dialog for saving asks about a file that exists.
    static void configure(QFileDialog& dialog, Existing existing);
    QString folderToOpen(QWidget* parent, const QString& title) override;
    bool choosePrinter(QWidget* parent, QPrinter& printer) override;
};

} // namespace knot::app
