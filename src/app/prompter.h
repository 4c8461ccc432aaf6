#pragma once

#include <QString>

class QWidget;

namespace knot::app {

/// Asks the user for file names. Tests put their own in its place.
class Prompter {
public:
    virtual ~Prompter() = default;
    /// Empty when the user thinks better of it.
    virtual QString fileToOpen(QWidget* parent, const QString& title, const QString& filter) = 0;
    virtual QString fileToSave(QWidget* parent, const QString& title, const QString& suggestion,
                               const QString& filter) = 0;
};

class DialogPrompter : public Prompter {
public:
    QString fileToOpen(QWidget* parent, const QString& title, const QString& filter) override;
    QString fileToSave(QWidget* parent, const QString& title, const QString& suggestion,
                       const QString& filter) override;
};

} // namespace knot::app
